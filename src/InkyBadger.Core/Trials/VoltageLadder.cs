using InkyBadger.Core.Design;
using InkyBadger.Core.Findings;
using InkyBadger.Core.Reference;
using InkyBadger.Core.Voltage;
using InkyBadger.Core.Work;

namespace InkyBadger.Core.Trials;

/// <summary>The design worked out at one voltage, and the changes that would take it over.</summary>
/// <param name="SystemV">The rung [V].</param>
/// <param name="Here">The design stands on it.</param>
/// <param name="Advised">The house rule's school advises it.</param>
/// <param name="Bus">Greatest current of the bank and its watts.</param>
/// <param name="Bank">Units there.</param>
/// <param name="Cable">Main run there.</param>
/// <param name="Inverter">Inverter there, and what the catalogue has.</param>
/// <param name="Wrong">Dangers and faults there.</param>
/// <param name="Needs">What the voltage brings with it.</param>
/// <param name="Changes">What differs from the design.</param>
public sealed record LadderRung(
    int SystemV,
    bool Here,
    bool Advised,
    RungBus Bus,
    RungBank Bank,
    RungCable Cable,
    RungInverter Inverter,
    int Wrong,
    NeedsResult? Needs,
    IReadOnlyList<DesignChange> Changes
);

/// <summary>Greatest current of the bank on a rung [A], and what it is at the lowest volts under load [W].</summary>
public sealed record RungBus(double? Amps, double? PowerW);

/// <summary>The bank on a rung: units in series, strings, the unit's name, all units' price, the AC watts it lets through [W].</summary>
public sealed record RungBank(int? Series, int? Parallel, string? Unit, double? Price, double? AllowsAcW);

/// <summary>
/// The main run on a rung: size, one conductor's area [mm²], how many in parallel, what they carry [A], fuse rating [A], drop (a fraction
/// of the nominal volts).
/// </summary>
public sealed record RungCable(string? Size, double? AreaMm2, int? Conductors, double? AmpacityA, double? FuseA, double? DropFraction);

/// <summary>The inverter on a rung with its price, how many the catalogue has of this voltage, and how many of them fit.</summary>
public sealed record RungInverter(string? Name, double? Price, int Made, int Fit);

/// <summary>The same design at each system voltage, from complete evaluations with what depends on the voltage set free.</summary>
public static class VoltageLadder
{
    private static readonly int[] Rungs = [12, 24, 48];

    /// <param name="design">As it stands.</param>
    /// <param name="bankIndex">Of its banks.</param>
    /// <param name="also">Further classes somebody wants to see [V].</param>
    public static IReadOnlyList<LadderRung> Work(DesignDocument design, int bankIndex, IReadOnlyList<int>? also = null)
    {
        var here = Evaluator.Evaluate(design).Banks[bankIndex].Voltage;
        return
        [
            .. Asked(design.Banks[bankIndex], here)
                .Union((also ?? []).Where(SystemVoltage.Rare.Contains))
                .Order()
                .Select(v => Rung(design, bankIndex, v, here)),
        ];
    }

    /// <summary>12, 24 and 48 V, and whatever else the design stands on or a DC load or a unit asks for.</summary>
    private static IEnumerable<int> Asked(Bank bank, VoltageResult? here)
    {
        var volts = new SortedSet<int>(Rungs);
        if (here is not null)
            volts.Add(here.SystemV);
        foreach (var load in bank.Demand.Loads)
            if (load is { Kind: not LoadKind.Ac, Quantity: > 0, Volts: { } own } && SystemVoltage.RareOf(own) is { } asked)
                volts.Add(asked);
        if (bank.Unit is { } unit)
            foreach (var rare in SystemVoltage.Rare)
                if (CellsPerSystem.Get(unit.Chemistry, rare) == unit.Cells)
                    volts.Add(rare);
        return volts;
    }

    private static LadderRung Rung(DesignDocument design, int index, int systemV, VoltageResult? here)
    {
        var bank = design.Banks[index];
        var then = SystemVoltage.Set(bank, here?.SystemV ?? 0, systemV);
        // The rung the design stands on is shown as it is.
        var tried = here?.SystemV == systemV ? design : With(design, index, then);
        var evaluation = Evaluator.Evaluate(tried);
        if (evaluation.Banks[index].Inverter is { Item: null } && SameRatings(bank, systemV) is { } same)
        {
            then = then.WithInverter(0, i => i with { Item = same });
            evaluation = Evaluator.Evaluate(With(design, index, then));
        }
        var changes = DesignDifference.Between(bank, then, $"/banks/{index}");
        var e = evaluation.Banks[index];
        return new(
            systemV,
            here?.SystemV == systemV,
            here?.AdvisedV == systemV,
            new(e.Currents?.BankWorstA, e.Currents?.BankWorstA * e.Voltage?.LowV),
            new(e.Bank?.Layout.Series, e.Bank?.Layout.Parallel, e.Bank?.Unit.Name, e.Bank?.Price, e.Network?.Ceiling.AllowsAcW),
            new(
                e.MainRun?.Cable.Size,
                e.MainRun?.Cable.AreaMm2,
                e.MainRun?.Cable.Conductors,
                e.MainRun?.Carries.AmpacityA,
                e.MainRun?.Fuse.RatingA,
                e.MainRun?.Drop.Fraction
            ),
            new(
                e.Inverter is { Item: not null } its ? its.Name : null,
                (e.Inverter?.Item is { } item ? tried.Prices.Of(item) : null) * e.Inverter?.Stack,
                Catalogue.Inverters.Count(i => i.SystemV == systemV),
                InverterChoices.Of(tried, index, e).Count(c => c.Item.SystemV == systemV && c.Fits)
            ),
            evaluation.Findings.Count(f => f.Bank == e.Id && f.Grade <= Grade.Fault),
            e.Needs,
            changes
        );
    }

    /// <summary>Where the catalogue has none that fits, the inverter in hand as it would be at another voltage.</summary>
    private static InverterItem? SameRatings(Bank bank, int systemV) =>
        bank.Inverters.Count > 0 && bank.Inverters[0].Item is { } item
            ? item with
            {
                Key = "",
                Name = "same ratings, not in the catalogue",
                SystemV = systemV,
                CutOffV = item.CutOffV * systemV / item.SystemV,
            }
            : null;

    private static DesignDocument With(DesignDocument design, int index, Bank bank) =>
        design with
        {
            Banks = [.. design.Banks.Select((b, i) => i == index ? bank : b)],
        };
}

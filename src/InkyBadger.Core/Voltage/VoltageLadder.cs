using InkyBadger.Core.Demand;
using InkyBadger.Core.Design;
using InkyBadger.Core.Findings;
using InkyBadger.Core.Inverters;
using InkyBadger.Core.Reference;

namespace InkyBadger.Core.Voltage;

/// <summary>The design worked out at one voltage, and the changes that would take it over.</summary>
public sealed record LadderRung(
    int SystemV,
    bool Here,
    bool Advised,
    double? CurrentA,
    double? PowerW,
    int? Series,
    int? Parallel,
    string? Unit,
    string? Size,
    double? AreaMm2,
    int? Conductors,
    double? AmpacityA,
    double? FuseA,
    double? DropFraction,
    double? AllowsAcW,
    double? UnitsPrice,
    string? Inverter,
    double? InverterPrice,
    int Wrong,
    NeedsResult? Needs,
    int InvertersMade,
    int InvertersFit,
    IReadOnlyList<DesignChange> Changes);

/// <summary>The same design at each system voltage, from complete evaluations with what depends on the voltage set free.</summary>
public static class VoltageLadder
{
    private static readonly int[] Rungs = [12, 24, 48];

    /// <summary>Classes that are never advised, only taken when something asks.</summary>
    private static readonly int[] Rare = [16, 32, 36];

    public static IReadOnlyList<LadderRung> Work(DesignDocument design, int bankIndex)
    {
        var here = Evaluator.Evaluate(design).Banks[bankIndex].Voltage;
        return [.. Asked(design.Banks[bankIndex], here).Select(v => Rung(design, bankIndex, v, here))];
    }

    /// <summary>12, 24 and 48 V, and whatever else the design stands on or a DC load or a unit asks for.</summary>
    private static IEnumerable<int> Asked(Bank bank, VoltageResult? here)
    {
        var volts = new SortedSet<int>(Rungs);
        if (here is not null) volts.Add(here.SystemV);
        foreach (var load in bank.Demand.Loads)
            if (load is { Kind: not LoadKind.Ac, Quantity: > 0, Volts: { } own })
                // The class whose name is nearest: a 36 V motor's bank is really 38.4 V.
                if (Rare.MinBy(r => Math.Abs(own - r)) is var rare && own >= rare * 0.97 && own <= rare * 1.12) volts.Add(rare);
        if (bank.Unit is { } unit)
            foreach (var rare in Rare)
                if (CellsPerSystem.Get(unit.Chemistry, rare) == unit.Cells) volts.Add(rare);
        return volts;
    }

    private static IEnumerable<DesignChange> Feeds(Bank bank, int index, int systemV, string chemistryId)
    {
        foreach (var (i, load) in bank.Demand.Loads.Index())
            if (LoadFeeds.At(load, systemV, chemistryId) is var fed && fed != load) yield return new($"/banks/{index}/demand/loads/{i}", DesignFormat.Node(fed));
    }

    private static LadderRung Rung(DesignDocument design, int index, int systemV, VoltageResult? here)
    {
        var changes = Release(design.Banks[index], index, systemV);
        changes.AddRange(Feeds(design.Banks[index], index, systemV, design.Banks[index].Chemistry ?? design.Banks[index].Unit?.Chemistry ?? here?.Chemistry ?? "lfp"));
        // The rung the design stands on is shown as it is.
        var tried = here?.SystemV == systemV ? design : DesignFormat.With(design, changes);
        var evaluation = Evaluator.Evaluate(tried);
        if (evaluation.Banks[index].Inverter is { Item: null } && SameRatings(design.Banks[index], systemV) is { } same)
        {
            changes = [.. changes.Where(c => c.Path != $"/banks/{index}/inverters/0/item"), new($"/banks/{index}/inverters/0/item", DesignFormat.Node(same))];
            evaluation = Evaluator.Evaluate(DesignFormat.With(design, changes));
        }
        var e = evaluation.Banks[index];
        return new(systemV, here?.SystemV == systemV, here?.AdvisedV == systemV, e.Currents?.BankWorstA,
            e.Currents?.BankWorstA * e.Voltage?.LowV, e.Bank?.Series, e.Bank?.Parallel, e.Bank?.Unit.Name,
            e.MainRun?.Size, e.MainRun?.AreaMm2, e.MainRun?.Conductors, e.MainRun?.AmpacityA, e.MainRun?.RatingA, e.MainRun?.DropFraction, e.Network?.AllowsAcW,
            e.Bank?.Price, e.Inverter?.Item?.Name, e.Inverter?.Item?.Price * e.Inverter?.Stack,
            evaluation.Findings.Count(f => f.Bank == e.Id && f.Grade <= Grade.Fault), e.Needs,
            Catalogue.Inverters.Count(i => i.SystemV == systemV), InverterChoices.Of(tried, index, e).Count(c => c.Item.SystemV == systemV && c.Fits), changes);
    }

    /// <summary>Where the catalogue has none that fits, the inverter in hand as it would be at another voltage.</summary>
    private static InverterItem? SameRatings(Bank bank, int systemV) => bank.Inverters.Count > 0 && bank.Inverters[0].Item is { } item
        ? item with { Key = "", Name = "same ratings, not in the catalogue", SystemV = systemV, CutOffV = item.CutOffV * systemV / item.SystemV }
        : null;

    /// <summary>The new voltage, and every pinned choice that belonged to the old one back to as advised.</summary>
    private static List<DesignChange> Release(Bank bank, int index, int systemV)
    {
        var at = $"/banks/{index}";
        var changes = new List<DesignChange> { new($"{at}/systemV", DesignFormat.Node((int?)systemV)), new($"{at}/series", null), new($"{at}/parallel", null) };
        for (var i = 0; i < bank.Inverters.Count; i++)
            if (bank.Inverters[i].Item is { } item && item.SystemV != systemV) changes.Add(new($"{at}/inverters/{i}/item", null));
        if (bank.Unit is { } unit && CellsPerSystem.Get(unit.Chemistry, systemV) % unit.Cells != 0) changes.Add(new($"{at}/unit", null));
        for (var i = 0; i < bank.Runs.Count; i++)
        {
            if (bank.Runs[i].Id != Run.MainId) continue;
            changes.Add(new($"{at}/runs/{i}/size", null));
            changes.Add(new($"{at}/runs/{i}/parallel", null));
            changes.Add(new($"{at}/runs/{i}/fuse", DesignFormat.Node(new RunFuse { DistanceM = bank.Runs[i].Fuse.DistanceM })));
        }
        return changes;
    }
}

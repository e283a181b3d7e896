using InkyBadger.Core.Design;
using InkyBadger.Core.Findings;
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
    IReadOnlyList<DesignChange> Changes);

/// <summary>The same design at each system voltage, from complete evaluations with what depends on the voltage set free.</summary>
public static class VoltageLadder
{
    private static readonly int[] Rungs = [12, 24, 48];

    public static IReadOnlyList<LadderRung> Work(DesignDocument design, int bankIndex)
    {
        var here = Evaluator.Evaluate(design).Banks[bankIndex].Voltage;
        var volts = here is null || Rungs.Contains(here.SystemV) ? Rungs : [.. Rungs.Append(here.SystemV).Order()];
        return [.. volts.Select(v => Rung(design, bankIndex, v, here))];
    }

    private static LadderRung Rung(DesignDocument design, int index, int systemV, VoltageResult? here)
    {
        var changes = Release(design.Banks[index], index, systemV);
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
            evaluation.Findings.Count(f => f.Bank == e.Id && f.Grade <= Grade.Fault), changes);
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

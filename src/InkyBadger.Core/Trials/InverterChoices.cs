using InkyBadger.Core.Demand;
using InkyBadger.Core.Design;
using InkyBadger.Core.Inverters;
using InkyBadger.Core.Reference;
using InkyBadger.Core.Work;

namespace InkyBadger.Core.Trials;

/// <summary>
/// An inverter judged for a design: whether it fits, and each reason why not. <paramref name="SpareW"/> is its watts over those wanted.
/// </summary>
public sealed record InverterTrial(InverterItem Item, bool Fits, IReadOnlyList<string> Reasons, double SpareW);

/// <summary>The catalogue, and the user's own inverters, judged for a bank: those that fit first, the smallest of them foremost.</summary>
public static class InverterChoices
{
    public static IReadOnlyList<InverterTrial> Work(DesignDocument design, int bankIndex, IReadOnlyList<InverterItem> own) =>
        Of(design, bankIndex, Evaluator.Evaluate(design).Banks[bankIndex], own);

    internal static IReadOnlyList<InverterTrial> Of(
        DesignDocument design,
        int bankIndex,
        BankEvaluation now,
        IReadOnlyList<InverterItem>? own = null
    )
    {
        if (now.Voltage is not { } voltage)
            return [];
        var scene = new BankScene(design, design.Banks[bankIndex], bankIndex, new(design.HouseRules), null);
        IReadOnlyList<RunningLevel> levels = now.Loads is { } loads ? RunningLevels.Of(loads.Profile, loads.ByHours) : [];
        return
        [
            .. (own ?? [])
                .Concat(Catalogue.Inverters)
                .Select(i => Judge(scene, i, voltage, now.Loads, levels))
                .OrderBy(t => t.Fits ? 0 : 1)
                .ThenBy(t => t.Item.SystemV == voltage.SystemV ? 0 : 1)
                .ThenBy(t => t.Item.ContinuousW)
                .ThenBy(t => t.Item.Price ?? double.MaxValue),
        ];
    }

    private static InverterTrial Judge(
        BankScene scene,
        InverterItem item,
        VoltageResult voltage,
        LoadsResult? loads,
        IReadOnlyList<RunningLevel> levels
    )
    {
        var reasons = new List<string>();
        if (item.SystemV != voltage.SystemV)
            reasons.Add($"made for {item.SystemV} V");
        if (loads is null)
            return new(item, reasons.Count == 0, reasons, item.ContinuousW);
        var stack = Math.Max(1, scene.Inverter?.Stack ?? 1);
        var (size, demands) = InverterStage.Try(scene, loads, levels, item, stack);
        if (size.Fails!.Contains(InverterShortfall.Continuous))
            reasons.Add($"gives {Say.W(size.AvailableContinuousW ?? 0)} continuous, {Say.W(size.RequiredContinuousW)} are wanted");
        var worst = demands.Where(d => !d.Holds).OrderByDescending(d => d.Watts / d.GivesW).FirstOrDefault();
        if (worst is not null)
            reasons.Add($"{worst.Label}: {Say.W(worst.Watts)} for {Say.Seconds(worst.Seconds)}, it gives {Say.W(worst.GivesW)}");
        var sensitive = scene.Bank.Demand.Loads.FirstOrDefault(l => l is { WaveSensitive: true, Kind: LoadKind.Ac, Quantity: > 0 });
        if (item.Waveform == Waveform.Modified && sensitive is not null)
            reasons.Add($"a modified wave harms {sensitive.Name}");
        return new(item, reasons.Count == 0, reasons, (size.AvailableContinuousW ?? 0) - size.RequiredContinuousW);
    }
}

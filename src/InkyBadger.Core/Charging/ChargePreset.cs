using InkyBadger.Core.Reference;

namespace InkyBadger.Core.Charging;

/// <summary>Why a preset does not suit a bank, in the order the reasons are told.</summary>
public enum PresetFault
{
    AbsorbHigh,
    AbsorbLow,
    NoFloat,
    FloatHigh,
    Equalise,
    Compensation,
}

/// <summary>One of a device's fixed presets, volts of the whole bank [V, &gt; 0] and compensation [mV/K, ≤ 0].</summary>
/// <param name="FloatV">Null: the device ends after absorption.</param>
/// <param name="EqualiseOff">Equalising can be switched off, and is.</param>
public sealed record Preset(
    string Name,
    double AbsorbV,
    double? FloatV = null,
    double? EqualiseV = null,
    bool EqualiseOff = false,
    double TempCompMvPerK = 0
);

public sealed record RejectedPreset(string Name, IReadOnlyList<PresetFault> Reasons);

/// <summary>The preset that suits best (null: none does), how far it is from what is wanted [V], and why the others do not.</summary>
public sealed record ChargePresetResult(string? Chosen, double? AbsorbOffV, double? FloatOffV, IReadOnlyList<RejectedPreset> Rejected);

/// <summary>Which of a device's presets suits a bank (method, 9.7).</summary>
public static class ChargePreset
{
    /// <summary>More than this share of what is wanted is too high for long.</summary>
    internal const double Over = 1.02;

    private const double Under = 0.96;

    /// <param name="presets">At least one, each name once.</param>
    /// <param name="cellAbsorbV">As in <see cref="ChargeSettings"/>.</param>
    /// <param name="cellFloatV">As in <see cref="ChargeSettings"/>.</param>
    /// <exception cref="Refusal">Names the offending input.</exception>
    public static ChargePresetResult Choose(
        Chemistry chemistry,
        int cellsInSeries,
        IReadOnlyList<Preset> presets,
        double? cellAbsorbV = null,
        double? cellFloatV = null
    )
    {
        Require.AtLeast(cellsInSeries, 1);
        var (cellAbsorb, cellFloat) = ChargeSettings.CellVolts(chemistry, cellAbsorbV, cellFloatV);
        var (absorb, floating) = (cellsInSeries * cellAbsorb, cellsInSeries * cellFloat);
        if (presets.Count == 0)
            Require.Refuse(nameof(presets), "needs at least one");
        if (presets.Any(p => p.Name.Length == 0) || presets.Select(p => p.Name).Distinct().Count() < presets.Count)
            Require.Refuse("name", "each once, and not empty");

        var rejected = new List<RejectedPreset>();
        Preset? best = null;
        var least = double.PositiveInfinity;
        foreach (var preset in presets)
        {
            Require.Above(preset.AbsorbV, 0);
            if (preset.FloatV is { } f)
                Require.Above(f, 0, nameof(preset.FloatV));
            if (preset.EqualiseV is { } e)
                Require.Above(e, 0, nameof(preset.EqualiseV));
            if (!(preset.TempCompMvPerK <= 0) || !double.IsFinite(preset.TempCompMvPerK))
                Require.Refuse(nameof(preset.TempCompMvPerK), "must be 0 or less");
            var faults = Faults(chemistry, cellsInSeries, preset, absorb, floating);
            if (faults.Count > 0)
            {
                rejected.Add(new(preset.Name, faults));
                continue;
            }
            var off = Math.Abs(preset.AbsorbV - absorb) + Math.Abs((preset.FloatV ?? floating) - floating);
            if (off < least - Tolerant.Noise)
                (best, least) = (preset, off);
        }
        return new(best?.Name, best?.AbsorbV - absorb, best?.FloatV - floating, rejected);
    }

    private static List<PresetFault> Faults(Chemistry chemistry, int cells, Preset preset, double absorb, double floating)
    {
        var faults = new List<PresetFault>();
        var top = cells * chemistry.CellTopV;
        if (Tolerant.Exceeds(preset.AbsorbV, chemistry.IsLithium ? top : Math.Min(top, Over * absorb)))
            faults.Add(PresetFault.AbsorbHigh);
        if (!Tolerant.AtLeast(preset.AbsorbV, Under * absorb))
            faults.Add(PresetFault.AbsorbLow);
        if (preset.FloatV is null && !chemistry.IsLithium)
            faults.Add(PresetFault.NoFloat);
        if (preset.FloatV is { } f && Tolerant.Exceeds(f, Over * floating))
            faults.Add(PresetFault.FloatHigh);
        if (
            preset is { EqualiseV: { } equalise, EqualiseOff: false }
            && (chemistry.CellEqualiseV is not { } own || Tolerant.Exceeds(equalise, cells * own))
        )
            faults.Add(PresetFault.Equalise);
        if (chemistry.IsLithium && preset.TempCompMvPerK < 0)
            faults.Add(PresetFault.Compensation);
        return faults;
    }
}

using InkyBadger.Core.Design;

namespace InkyBadger.Core.Work;

/// <summary>
/// What a source's device really stands on, of the whole bank: each setting as pinned, else as its preset has it, else as version 1 told
/// it. Null: nobody said, so it counts as advised.
/// </summary>
public readonly record struct StandsOn(double? AbsorbV, double? FloatV, double? EqualiseV, double? CompensationMvPerK)
{
    /// <summary>The highest it puts on the bank, equalising in it [V]; null: nobody said.</summary>
    public double? GreatestV => EqualiseV is > 0 and var equalise ? Math.Max(equalise, AbsorbV ?? 0) : AbsorbV;

    public static StandsOn Of(Source source)
    {
        var s = source.Settings;
        var preset = source.Presets.FirstOrDefault(p => p.Name == s.Preset);
        return new(
            s.AbsorbV?.Value ?? preset?.AbsorbV ?? source.SettingV,
            s.FloatV?.Value ?? preset?.FloatV,
            s.EqualiseV?.Value ?? (preset is { EqualiseOff: false } ? preset.EqualiseV : null),
            s.CompensationMvPerK?.Value ?? preset?.CompensationMvPerK
        );
    }
}

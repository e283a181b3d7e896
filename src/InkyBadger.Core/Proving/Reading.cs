namespace InkyBadger.Core.Proving;

/// <summary>A reading against what it should be.</summary>
public enum ReadingVerdict
{
    /// <summary>Within the tolerance.</summary>
    Ok,

    /// <summary>Within twice of it.</summary>
    Doubt,
    Stop,
}

/// <summary>A reading judged.</summary>
/// <param name="Off">Measured less predicted, in its own unit.</param>
/// <param name="Tolerance">In its own unit.</param>
/// <param name="DecimalsNeeded">So many the meter must show.</param>
/// <param name="MeterEnough">Whether it does; null: nobody said how many it shows.</param>
public sealed record ReadingResult(double Off, double Tolerance, ReadingVerdict Verdict, int DecimalsNeeded, bool? MeterEnough);

/// <summary>Any reading, and how fine its meter must be (method, 12.5).</summary>
public static class Reading
{
    private const int MostDecimals = 9;

    /// <param name="predicted">Any number.</param>
    /// <param name="measured">Any number.</param>
    /// <param name="toleranceAbs">[≥ 0]; of both the greater counts, and one must be given.</param>
    /// <param name="toleranceFraction">Of what is predicted [≥ 0].</param>
    /// <param name="meterDecimals">That the meter shows [0 to 9]; null: nobody said.</param>
    /// <exception cref="Refusal"><c>toleranceAbs</c> where there is none in all; else the offending input.</exception>
    public static ReadingResult Work(
        double predicted,
        double measured,
        double? toleranceAbs = null,
        double? toleranceFraction = null,
        int? meterDecimals = null
    )
    {
        Require.Finite(predicted);
        Require.Finite(measured);
        if (toleranceAbs is { } absolute)
            Require.AtLeast(absolute, 0, nameof(toleranceAbs));
        if (toleranceFraction is { } share)
            Require.AtLeast(share, 0, nameof(toleranceFraction));
        if (meterDecimals is { } decimals)
            Require.Within(decimals, 0, MostDecimals, nameof(meterDecimals));
        var tolerance = Math.Max(toleranceAbs ?? 0, (toleranceFraction ?? 0) * Math.Abs(predicted));
        if (tolerance <= 0)
            Require.Refuse(nameof(toleranceAbs), "must be more than 0, or a share of something");
        var off = measured - predicted;
        var needed = 0;
        while (needed < MostDecimals && Tolerant.Exceeds(Math.Pow(10, -needed), tolerance / 4))
            needed++;
        var verdict =
            Tolerant.AtLeast(tolerance, Math.Abs(off)) ? ReadingVerdict.Ok
            : Tolerant.AtLeast(2 * tolerance, Math.Abs(off)) ? ReadingVerdict.Doubt
            : ReadingVerdict.Stop;
        return new(off, tolerance, verdict, needed, meterDecimals is { } shown ? shown >= needed : null);
    }
}

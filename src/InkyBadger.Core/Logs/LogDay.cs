namespace InkyBadger.Core.Logs;

/// <summary>
/// A reading of a monitor: hours that go on over midnight [h], amperes out of the bank [A, charge is negative], volts [V, &gt; 0].
/// </summary>
public readonly record struct LogSample(double H, double Amps, double Volts);

/// <summary>
/// What went out of a bank and into it [Ah, Wh], hours that were read and hours of gaps, and the extremes of all readings [A, V].
/// </summary>
public sealed record LogDayResult(
    double AhOut,
    double AhIn,
    double WhOut,
    double WhIn,
    double Hours,
    double GapHours,
    double GreatestOutA,
    double GreatestInA,
    double LowestV,
    double HighestV
);

/// <summary>Amperes and volts of a stretch of time, straight lines between the readings (method, 13.1).</summary>
public static class LogDay
{
    /// <summary>A longer step is a gap, and not bridged [h].</summary>
    public const double UsualGapH = 0.5;

    /// <param name="samples">At least two; times rise.</param>
    /// <param name="maxGapH">[h, &gt; 0].</param>
    /// <exception cref="Refusal">Names the offending input.</exception>
    public static LogDayResult Work(IReadOnlyList<LogSample> samples, double maxGapH = UsualGapH)
    {
        Require.Above(maxGapH, 0);
        if (samples.Count < 2)
            Require.Refuse(nameof(samples), "needs at least two");
        double ahOut = 0,
            ahIn = 0,
            whOut = 0,
            whIn = 0,
            hours = 0,
            gaps = 0;
        for (var i = 0; i < samples.Count; i++)
        {
            var b = samples[i];
            Require.Finite(b.H, "h");
            Require.Finite(b.Amps, "amps");
            Require.Above(b.Volts, 0, "volts");
            if (i == 0)
                continue;
            var a = samples[i - 1];
            var step = b.H - a.H;
            if (!(step > 0))
                Require.Refuse("h", "must rise");
            if (Tolerant.Exceeds(step, maxGapH))
            {
                gaps += step;
                continue;
            }
            hours += step;
            Add(a.Amps, b.Amps, step, ref ahOut, ref ahIn);
            Add(a.Amps * a.Volts, b.Amps * b.Volts, step, ref whOut, ref whIn);
        }
        return new(
            ahOut,
            ahIn,
            whOut,
            whIn,
            hours,
            gaps,
            Math.Max(0, samples.Max(s => s.Amps)),
            Math.Max(0, -samples.Min(s => s.Amps)),
            samples.Min(s => s.Volts),
            samples.Max(s => s.Volts)
        );
    }

    /// <summary>The area under a line from one value to another, what lies above nought and what below apart.</summary>
    internal static void Add(double from, double to, double step, ref double above, ref double below)
    {
        if (from >= 0 && to >= 0)
            above += (from + to) / 2 * step;
        else if (from <= 0 && to <= 0)
            below -= (from + to) / 2 * step;
        else
        {
            // Where it crosses nought.
            var first = step * from / (from - to);
            if (from > 0)
            {
                above += from / 2 * first;
                below -= to / 2 * (step - first);
            }
            else
            {
                below -= from / 2 * first;
                above += to / 2 * (step - first);
            }
        }
    }
}

using InkyBadger.Core.Design;

namespace InkyBadger.Core.Inverters;

/// <summary>House rule between the data sheet's overload points: the lower watts hold, or a straight line on log–log paper.</summary>
public enum OverloadRule
{
    LowerWatts,
    LogLogLine,
}

/// <summary>Watts an inverter gives for a time: overload points with falling watts, then its continuous rating (method, 2.1).</summary>
public sealed class OverloadEnvelope(IReadOnlyList<OverloadPoint> points, double continuousW, OverloadRule rule)
{
    /// <summary>The steps, derated and stacked, without the continuous rating that follows the last.</summary>
    public IReadOnlyList<OverloadPoint> Points { get; } = points;

    public double ContinuousW { get; } = continuousW;

    /// <summary>
    /// From a data sheet: its overload points, or where it has none its surge watts for its surge seconds.
    /// </summary>
    public static OverloadEnvelope Of(
        IReadOnlyList<OverloadPoint>? points,
        double continuousW,
        double surgeW,
        double surgeSeconds,
        double derate,
        bool surgeHot,
        int stack,
        OverloadRule rule
    )
    {
        var surgeFactor = (surgeHot ? 1 : derate) * stack;
        IReadOnlyList<OverloadPoint> steps = points is { Count: > 0 }
            ? [.. points.OrderBy(p => p.Seconds).Select(p => new OverloadPoint(p.Seconds, p.Watts * surgeFactor))]
            : [new(surgeSeconds, surgeW * surgeFactor)];
        return new(steps, continuousW * derate * stack, rule);
    }

    /// <summary>Watts it gives for <paramref name="seconds"/> [s, &gt; 0].</summary>
    public double At(double seconds)
    {
        for (var i = 0; i < Points.Count; i++)
        {
            if (!Tolerant.AtLeast(Points[i].Seconds, seconds))
                continue;
            if (rule == OverloadRule.LowerWatts || i == 0)
                return Math.Max(Points[i].Watts, ContinuousW);
            var (a, b) = (Points[i - 1], Points[i]);
            var share = Math.Log(seconds / a.Seconds) / Math.Log(b.Seconds / a.Seconds);
            return Math.Max(ContinuousW, a.Watts * Math.Pow(b.Watts / a.Watts, share));
        }
        return ContinuousW;
    }
}

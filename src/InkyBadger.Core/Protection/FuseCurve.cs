using InkyBadger.Core.Reference;

namespace InkyBadger.Core.Protection;

/// <summary>
/// When a fuse or breaker opens, by the typical points of its family, log–log (method, 14.1). Beyond the last point a fuse goes on at
/// constant A²s, a breaker holds its last time. Typical values: the maker's curve rules.
/// </summary>
public sealed class FuseCurve
{
    private readonly (double Amps, double LeastS, double Seconds, double MostS)[] points;

    public FuseClass Class { get; }
    public double RatingA { get; }

    /// <param name="ratingA">[A, &gt; 0].</param>
    /// <exception cref="Refusal">Names the offending input.</exception>
    public FuseCurve(FuseClass fuse, double ratingA)
    {
        Require.Above(ratingA, 0);
        (Class, RatingA) = (fuse, ratingA);
        points = [.. fuse.Points.Select(p => (p.Multiple * ratingA, p.LeastS, p.Seconds, p.MostS))];
    }

    /// <summary>The least current that opens it [A].</summary>
    public double FirstA => points[0].Amps;

    /// <summary>The last current its points tell of [A].</summary>
    public double LastA => points[^1].Amps;

    /// <summary>Currents of its points [A].</summary>
    public IEnumerable<double> Amps => points.Select(p => p.Amps);

    /// <summary>Seconds at a current [A, &gt; 0], as a rule; null: it does not open.</summary>
    public double? At(double amps) => At(amps, p => p.Seconds);

    /// <summary>The least it may take [s]; null: it does not open.</summary>
    public double? LeastAt(double amps) => At(amps, p => p.LeastS);

    /// <summary>The most it may take [s]; null: it does not open.</summary>
    public double? MostAt(double amps) => At(amps, p => p.MostS);

    private double? At(double amps, Func<(double Amps, double LeastS, double Seconds, double MostS), double> edge)
    {
        Require.Above(amps, 0);
        if (!Tolerant.AtLeast(amps, FirstA))
            return null;
        for (var i = 1; i < points.Length; i++)
        {
            var (a, b) = (points[i - 1], points[i]);
            if (amps > b.Amps)
                continue;
            var share = Math.Max(0, Math.Log(amps / a.Amps) / Math.Log(b.Amps / a.Amps));
            return edge(a) * Math.Pow(edge(b) / edge(a), share);
        }
        var beyond = Class.IsBreaker ? 1 : LastA / amps;
        return edge(points[^1]) * beyond * beyond;
    }
}

using InkyBadger.Core.Reference;

namespace InkyBadger.Core.Protection;

/// <summary>
/// When a fuse or breaker opens, by the typical points of its family, log–log (method, 14.1). Beyond the last point a fuse goes on at
/// constant A²s, a breaker holds its last time. Typical values: the maker's curve rules.
/// </summary>
public sealed class FuseCurve
{
    private readonly (double Amps, double Seconds)[] points;

    public FuseClass Class { get; }
    public double RatingA { get; }

    /// <param name="ratingA">[A, &gt; 0].</param>
    /// <exception cref="Refusal">Names the offending input.</exception>
    public FuseCurve(FuseClass fuse, double ratingA)
    {
        Require.Above(ratingA, 0);
        (Class, RatingA) = (fuse, ratingA);
        points = [.. OpeningTimes.Get(fuse.Family).Select(p => (p.Multiple * ratingA, p.Seconds))];
    }

    /// <summary>The least current that opens it [A].</summary>
    public double FirstA => points[0].Amps;

    /// <summary>The last current its points tell of [A].</summary>
    public double LastA => points[^1].Amps;

    /// <summary>Currents of its points [A].</summary>
    public IEnumerable<double> Amps => points.Select(p => p.Amps);

    /// <summary>Seconds at a current [A, &gt; 0]; null: it does not open.</summary>
    public double? At(double amps)
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
            return a.Seconds * Math.Pow(b.Seconds / a.Seconds, share);
        }
        var beyond = Class.IsBreaker ? 1 : LastA / amps;
        return points[^1].Seconds * beyond * beyond;
    }
}

namespace InkyBadger.Core.Protection;

/// <summary>
/// Whether the fuse downstream goes alone: ratings over each other, the first current that opens it [A], whether it is alone up to the
/// short circuit (null: nothing opens), the greatest current up to which it is [A; null: none, or nothing opens], and whether that is by
/// the ratio of two current-limiting fuses of one family where their times alone would not do.
/// </summary>
public sealed record SelectivityResult(double Ratio, double FirstA, bool? Selective, double? SelectiveUpToA, bool? ByRatio)
{
    /// <summary>Above this they count as apart by the ratio, whatever their times [A]; null: they do nowhere.</summary>
    public double? ApartAboveA { get; init; }
}

/// <summary>Two fuses in series, the one upstream and the one downstream (method, 14.1).</summary>
public static class Selectivity
{
    private const double LeastRatio = 2;

    /// <param name="shortCircuitA">Most that flows at the place [A, &gt; 0].</param>
    /// <exception cref="Refusal">Names the offending input.</exception>
    public static SelectivityResult Work(FuseCurve upstream, FuseCurve downstream, double shortCircuitA)
    {
        Require.Above(shortCircuitA, 0);
        var ratio = upstream.RatingA / downstream.RatingA;
        if (!Tolerant.AtLeast(shortCircuitA, downstream.FirstA))
            return new(ratio, downstream.FirstA, null, null, null);
        var rule =
            upstream.Class.LimitsCurrent
            && upstream.Class.Family == downstream.Class.Family
            && Tolerant.AtLeast(ratio, LeastRatio)
            && Tolerant.Exceeds(shortCircuitA, downstream.LastA);
        double? apartAboveA = rule ? downstream.LastA : null;
        // Between these the difference of the logarithms is a straight line in the current's.
        double[] cuts =
        [
            .. new[] { downstream.FirstA, shortCircuitA, upstream.FirstA }
                .Concat(upstream.Amps)
                .Concat(downstream.Amps)
                .Where(a => a >= downstream.FirstA && a <= shortCircuitA)
                .Distinct()
                .Order(),
        ];
        for (var i = 0; i < cuts.Length; i++)
        {
            if (Margin(upstream, downstream, cuts[i]) >= -Tolerant.Noise)
                continue;
            if (rule && cuts[i] > downstream.LastA)
                return new(ratio, downstream.FirstA, true, shortCircuitA, true) { ApartAboveA = apartAboveA };
            // At its very beginning, or where the one upstream begins to open.
            if (i == 0)
                return new(ratio, downstream.FirstA, false, null, false) { ApartAboveA = apartAboveA };
            var (a, b) = (cuts[i - 1], cuts[i]);
            var (above, below) = (Margin(upstream, downstream, a), Margin(upstream, downstream, b));
            var upTo = double.IsInfinity(above) ? b : a * Math.Pow(b / a, above / (above - below));
            return new(ratio, downstream.FirstA, false, upTo, false) { ApartAboveA = apartAboveA };
        }
        return new(ratio, downstream.FirstA, true, shortCircuitA, false) { ApartAboveA = apartAboveA };
    }

    /// <summary>The least time of the one over the most of the other, as a logarithm; below 0: both may open.</summary>
    private static double Margin(FuseCurve upstream, FuseCurve downstream, double amps) =>
        upstream.LeastAt(amps) is { } late && downstream.MostAt(amps) is { } early ? Math.Log(late / early) : double.PositiveInfinity;
}

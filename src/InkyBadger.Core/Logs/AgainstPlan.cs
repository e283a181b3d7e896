namespace InkyBadger.Core.Logs;

/// <summary>Measured days against the plan; the first that applies.</summary>
public enum PlanVerdict
{
    /// <summary>Too few days, or too uneven ones.</summary>
    NotYet,
    AsPlanned,
    More,
    Less,
}

/// <summary>
/// How many days, their median [Wh], how far the middle half of them is spread in shares of it (null: the median is nought), its ratio to
/// the plan, and the factor by which the plan is corrected (null: not yet).
/// </summary>
public sealed record AgainstPlanResult(int Days, double MedianWh, double? Spread, double Ratio, double? FactorToApply, PlanVerdict Verdict);

/// <summary>Whether a plan holds against the days that were lived (method, 13.2).</summary>
public static class AgainstPlan
{
    private const int LeastDays = 3;

    private const double MostSpread = 0.6,
        AlikeFrom = 0.9,
        AlikeTo = 1.1;

    /// <param name="measuredWh">Whole days, at least one [Wh, each ≥ 0].</param>
    /// <param name="plannedWh">A day [Wh, &gt; 0].</param>
    /// <exception cref="Refusal">Names the offending input.</exception>
    public static AgainstPlanResult Work(IReadOnlyList<double> measuredWh, double plannedWh)
    {
        if (measuredWh.Count == 0 || measuredWh.Any(d => !(d >= 0) || !double.IsFinite(d)))
            Require.Refuse(nameof(measuredWh), "needs at least one day, each 0 or more");
        Require.Above(plannedWh, 0);
        double[] sorted = [.. measuredWh.Order()];
        var median = Quantile(sorted, 0.5);
        double? spread = median == 0 ? null : (Quantile(sorted, 0.75) - Quantile(sorted, 0.25)) / median;
        var ratio = median / plannedWh;
        var verdict =
            sorted.Length < LeastDays || spread is not { } s || Tolerant.Exceeds(s, MostSpread) ? PlanVerdict.NotYet
            : Tolerant.AtLeast(ratio, AlikeFrom) && Tolerant.AtLeast(AlikeTo, ratio) ? PlanVerdict.AsPlanned
            : ratio > 1 ? PlanVerdict.More
            : PlanVerdict.Less;
        return new(
            sorted.Length,
            median,
            spread,
            ratio,
            verdict switch
            {
                PlanVerdict.NotYet => null,
                PlanVerdict.AsPlanned => 1,
                _ => ratio,
            },
            verdict
        );
    }

    /// <summary>Linear between ranks, the first at 0 and the last at 1.</summary>
    private static double Quantile(double[] sorted, double q)
    {
        var rank = (sorted.Length - 1) * q;
        var low = (int)Math.Floor(rank);
        var high = Math.Min(sorted.Length - 1, low + 1);
        return sorted[low] + (sorted[high] - sorted[low]) * (rank - low);
    }
}

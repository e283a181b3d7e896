namespace InkyBadger.Core.Banks;

/// <summary>
/// What a DC–DC charger between two banks gives and takes while it is on [W, A], its heat [W], the amperes at the giving bank's lowest
/// volts [A], and a day's energy moved and taken [Wh] with its share of the giving bank's day.
/// </summary>
public readonly record struct JoinThroughResult(
    double OutW,
    double InW,
    double InA,
    double? WorstInA,
    double HeatW,
    double MovedWh,
    double TakenWh,
    double? ShareOfDaily
);

/// <summary>Two banks joined through a converter (method, 16.1).</summary>
public static class JoinThrough
{
    public const double UsualEfficiency = 0.92;

    /// <param name="outA">At the taking bank [A, ≥ 0].</param>
    /// <param name="outV">[V, &gt; 0].</param>
    /// <param name="inV">The giving bank's usual volts [V, &gt; 0].</param>
    /// <param name="hours">On, a day [h, 0 to 24].</param>
    /// <param name="inLowV">Its lowest (0 to <paramref name="inV"/>] [V]; cable and fuse go by it.</param>
    /// <param name="efficiency">(0 to 1].</param>
    /// <param name="idleW">While it is off [W, ≥ 0].</param>
    /// <param name="givingDailyWh">[Wh, &gt; 0].</param>
    /// <exception cref="Refusal">Names the offending input.</exception>
    public static JoinThroughResult Work(
        double outA,
        double outV,
        double inV,
        double hours,
        double? inLowV = null,
        double efficiency = UsualEfficiency,
        double idleW = 0,
        double? givingDailyWh = null
    )
    {
        Require.AtLeast(outA, 0);
        Require.Above(outV, 0);
        Require.Above(inV, 0);
        if (inLowV is { } low)
        {
            Require.Above(low, 0, nameof(inLowV));
            if (low > inV)
                Require.Refuse(nameof(inLowV), "must not be above the usual volts");
        }
        Require.Share(efficiency);
        Require.AtLeast(idleW, 0);
        Require.Within(hours, 0, 24);
        if (givingDailyWh is { } daily)
            Require.Above(daily, 0, nameof(givingDailyWh));
        var outW = outA * outV;
        var inW = outW / efficiency;
        var taken = inW * hours + idleW * (24 - hours);
        return new(outW, inW, inW / inV, inW / inLowV, inW - outW, outW * hours, taken, taken / givingDailyWh);
    }
}

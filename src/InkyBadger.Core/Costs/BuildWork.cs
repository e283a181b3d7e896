namespace InkyBadger.Core.Costs;

/// <summary>Connections to make, hours of work, and minutes of upkeep a year. House values: people change them.</summary>
public readonly record struct BuildWorkResult(int Connections, double Hours, double UpkeepMinutesPerYear);

/// <summary>The work a build asks for (method, 8.3).</summary>
public static class BuildWork
{
    private const double HoursPerConnection = 0.1,
        HoursPerUnit = 0.25,
        HoursToBegin = 1;
    private const double FloodedMinutesPerUnit = 4 * 5,
        RebalancingMinutesPerString = 60;

    /// <param name="build">S, P and how the strings are joined.</param>
    /// <param name="fittings">Fuses, switches, shunts and balancers together [≥ 0]; two connections each.</param>
    /// <param name="flooded">Units that are watered four times a year.</param>
    /// <param name="rebalancedByHand">Strings that are brought level by hand once a year.</param>
    public static BuildWorkResult Work(BuildCostInput build, int fittings, bool flooded, bool rebalancedByHand)
    {
        Require.AtLeast(fittings, 0);
        var parts = BuildCost.Total(build);
        var connections = 2 * (parts.SeriesLinks + parts.ParallelLinks) + 2 * fittings;
        var upkeep =
            (flooded ? FloodedMinutesPerUnit * parts.Units : 0) + (rebalancedByHand ? RebalancingMinutesPerString * build.Parallel : 0);
        return new(connections, HoursPerConnection * connections + HoursPerUnit * parts.Units + HoursToBegin, upkeep);
    }
}

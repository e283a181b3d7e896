namespace InkyBadger.Core.Demand;

/// <summary>One state of a load: what it draws [A, ≥ 0] and the share of the time it is in it (0 to 1).</summary>
public readonly record struct LoadState(double Amps, double Share);

/// <summary>Mean and greatest current of a load with states [A], and its ampere-hours.</summary>
public sealed record StateDemandResult(double MeanAmps, double AmpHours, double MaxAmps);

/// <summary>A load with states such as receive and transmit (method, 1.2).</summary>
public static class StateDemand
{
    /// <exception cref="Refusal"><c>states</c>, <c>amps</c>, <c>share</c> or <c>hours</c>.</exception>
    public static StateDemandResult Work(IReadOnlyList<LoadState> states, double hours)
    {
        if (states.Count == 0)
            Require.Refuse("states", "needs at least one state");
        Require.AtLeast(hours, 0);
        double mean = 0,
            max = 0,
            shares = 0;
        foreach (var state in states)
        {
            Require.AtLeast(state.Amps, 0);
            Require.Within(state.Share, 0, 1);
            mean += state.Amps * state.Share;
            max = Math.Max(max, state.Amps);
            shares += state.Share;
        }
        if (Math.Abs(shares - 1) > 1e-6)
            Require.Refuse("share", "the shares of the states must add to 1");
        return new(mean, mean * hours, max);
    }
}

public readonly record struct RuntimeResult(double UsableAh, double Hours);

/// <summary>Hours left at a current (method, 1.3).</summary>
public static class Runtime
{
    /// <summary>From usable ampere-hours left [Ah, ≥ 0] at a current [A, &gt; 0].</summary>
    public static RuntimeResult FromUsable(double usableAh, double currentA)
    {
        Require.AtLeast(usableAh, 0);
        Require.Above(currentA, 0);
        return new(usableAh, usableAh / currentA);
    }

    /// <summary>
    /// From the state of charge now and a floor (fractions), rated Ah and the share of them still there; 0 below the floor.
    /// </summary>
    public static RuntimeResult FromStateOfCharge(double soc, double floorSoc, double ratedAh, double health, double currentA)
    {
        Require.Within(soc, 0, 1);
        Require.Within(floorSoc, 0, 1);
        Require.Above(ratedAh, 0);
        Require.Share(health);
        return FromUsable(Math.Max(0, (soc - floorSoc) * ratedAh * health), currentA);
    }
}

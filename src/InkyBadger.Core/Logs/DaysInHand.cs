namespace InkyBadger.Core.Logs;

/// <summary>
/// What is above the floor [Wh], what a day leaves of income and use [Wh], days until the floor and the first dark one (1: today; null:
/// never), days until full (null: never).
/// </summary>
public sealed record DaysInHandResult(double StoredWh, double NetWh, double? Days, int? FirstDarkDay, double? DaysToFull);

/// <summary>
/// How long a bank lasts as it is used: means of a day, so that with sun its floor is touched before the dawn of that day (method, 13.3).
/// </summary>
public static class DaysInHand
{
    /// <param name="soc">[0 to 1].</param>
    /// <param name="ratedAh">[Ah, &gt; 0].</param>
    /// <param name="nominalV">[V, &gt; 0].</param>
    /// <param name="useWh">A day [Wh, ≥ 0].</param>
    /// <param name="floorSoc">[0 to 1].</param>
    /// <param name="health">(0 to 1].</param>
    /// <param name="incomeWh">A day [Wh, ≥ 0].</param>
    /// <param name="chargeEfficiency">Of the income (0 to 1].</param>
    /// <exception cref="Refusal">Names the offending input.</exception>
    public static DaysInHandResult Work(
        double soc,
        double ratedAh,
        double nominalV,
        double useWh,
        double floorSoc = 0,
        double health = 1,
        double incomeWh = 0,
        double chargeEfficiency = 1
    )
    {
        Require.Within(soc, 0, 1);
        Require.Within(floorSoc, 0, 1);
        Require.Above(ratedAh, 0);
        Require.Above(nominalV, 0);
        Require.Share(health);
        Require.AtLeast(useWh, 0);
        Require.AtLeast(incomeWh, 0);
        Require.Share(chargeEfficiency);
        var full = ratedAh * nominalV * health;
        var stored = Math.Max(0, soc - floorSoc) * full;
        var net = incomeWh * chargeEfficiency - useWh;
        double? days = net < 0 ? stored / -net : null;
        return new(
            stored,
            net,
            days,
            days is { } d ? (int)Math.Floor(Math.Min(d, int.MaxValue - 2) + Tolerant.Noise) + 1 : null,
            net > 0 ? (1 - soc) * full / net : null
        );
    }
}

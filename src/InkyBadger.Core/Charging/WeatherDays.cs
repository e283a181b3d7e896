namespace InkyBadger.Core.Charging;

/// <summary>The clearness of each day and their mean [0.05 to 0.78].</summary>
public sealed record WeatherDaysResult(IReadOnlyList<double> Clearness, double Mean);

/// <summary>
/// Made-up weather, the same for a seed wherever it is worked out (method, 11.1): a month's clearness, scattered from day to day by a first
/// order memory of twelve uniform draws, so that dull days come in rows.
/// </summary>
public static class WeatherDays
{
    public const double UsualSpread = 0.35,
        UsualPersistence = 0.45;

    /// <summary>Days of each month; no leap days.</summary>
    private static readonly int[] MonthDays = [31, 28, 31, 30, 31, 30, 31, 31, 30, 31, 30, 31];

    /// <summary>The month [0 to 11] of a day of the year [1 to 365].</summary>
    public static int MonthOf(int dayOfYear)
    {
        var month = 0;
        for (var left = dayOfYear; left > MonthDays[month]; month++)
            left -= MonthDays[month];
        return month;
    }

    /// <summary>First day of the year and number of days of a month [0 to 11].</summary>
    public static (int First, int Days) Month(int month) => (1 + MonthDays.Take(month).Sum(), MonthDays[month]);

    /// <param name="seed">[0 to 2⁵³].</param>
    /// <param name="monthlyClearness">Twelve, January first [each 0.02 to 0.85].</param>
    /// <param name="firstDay">Of the year [1 to 365].</param>
    /// <param name="days">[1 to 36500].</param>
    /// <param name="spread">Of a day about its month, as a share of it [0 to 1].</param>
    /// <param name="persistence">How much a day keeps of the one before [0 to 1).</param>
    /// <exception cref="Refusal">Names the offending input.</exception>
    public static WeatherDaysResult Work(
        double seed,
        IReadOnlyList<double> monthlyClearness,
        int firstDay,
        int days,
        double spread = UsualSpread,
        double persistence = UsualPersistence
    )
    {
        Require.Within(seed, 0, 1L << 53);
        if (seed != Math.Floor(seed))
            Require.Refuse(nameof(seed), "must be a whole number");
        if (monthlyClearness.Count != 12 || monthlyClearness.Any(k => !(k >= SolarDay.LeastClearness && k <= SolarDay.MostClearness)))
            Require.Refuse(nameof(monthlyClearness), "twelve months, each from 0.02 to 0.85");
        Require.Within(firstDay, 1, 365);
        Require.Within(days, 1, 36500);
        Require.Within(spread, 0, 1);
        if (!(persistence >= 0 && persistence < 1))
            Require.Refuse(nameof(persistence), "must be from 0 to below 1");

        var draws = new SplitMix((ulong)seed);
        var list = new double[days];
        var memory = 0.0;
        for (var d = 0; d < days; d++)
        {
            var scatter = draws.Bell();
            memory = d == 0 ? scatter : persistence * memory + Math.Sqrt(1 - persistence * persistence) * scatter;
            var month = monthlyClearness[MonthOf((firstDay - 1 + d) % 365 + 1)];
            list[d] = Math.Min(0.78, Math.Max(0.05, month * (1 + spread * memory)));
        }
        return new(list, list.Average());
    }
}

using System.Collections.Concurrent;

namespace InkyBadger.Core.Charging;

/// <summary>
/// A plane's year: in each month the mean day's light, as 24 hourly means on the plane [W/m²], which is also what an array gives for each
/// kilowatt of its plate before losses [W]; and what a ceiling clips of it a day [Wh/m²].
/// </summary>
public sealed record SolarYearResult(IReadOnlyList<IReadOnlyList<double>> HourlyByMonth, IReadOnlyList<double> ClippedByMonth)
{
    /// <summary>Hours of full sun on the plane on the mean day of a month [0 to 11].</summary>
    public double SunHours(int month) => HourlyByMonth[month].Sum() / 1000;
}

/// <summary>
/// The mean over days of made-up weather (method, 9.3 and 11.1): a month's mean clearness taken as one day errs low on a tilted plane, for
/// clear days bring more than dull ones take.
/// </summary>
public static class SolarYear
{
    /// <summary>Years of weather that are looked at, and where they begin: the same figures every time.</summary>
    private const int Years = 10,
        Seed = 1;

    /// <param name="latitudeDeg">[−66 to 66], north positive.</param>
    /// <param name="monthlyClearness">Twelve, January first [each 0.02 to 0.85].</param>
    /// <param name="most">A ceiling for each month [W/m², &gt; 0]: clear noons lose more to it than the mean day shows; null: none.</param>
    /// <exception cref="Refusal">Names the offending input.</exception>
    public static SolarYearResult Work(
        double latitudeDeg,
        IReadOnlyList<double> monthlyClearness,
        ArrayFacing facing,
        IReadOnlyList<double>? most = null
    )
    {
        SolarDay.Check(latitudeDeg, facing);
        var weather = WeatherDays.Work(Seed, monthlyClearness, 1, Years * 365).Clearness;
        var months = new double[12][];
        var clipped = new double[12];
        for (var month = 0; month < 12; month++)
        {
            var sums = months[month] = new double[24];
            var (ceiling, over) = (most?[month] ?? double.PositiveInfinity, 0.0);
            var (first, days) = WeatherDays.Month(month);
            for (var d = first; d < first + days; d++)
            {
                var sun = new SolarGeometry(latitudeDeg, d, facing, 60);
                for (var year = 0; year < Years; year++)
                    sun.Spread(weather[year * 365 + d - 1], (hour, light) =>
                    {
                        sums[hour] += Math.Min(light, ceiling);
                        over += Math.Max(0, light - ceiling);
                    });
            }
            clipped[month] = over / (days * Years);
            for (var hour = 0; hour < 24; hour++)
                sums[hour] /= days * Years;
        }
        return new(months, clipped);
    }

    /// <summary>As <see cref="Work"/>, kept from the last times: a place and a plane are asked about with every key.</summary>
    internal static SolarYearResult Kept(
        double latitudeDeg,
        IReadOnlyList<double> monthlyClearness,
        ArrayFacing facing,
        IReadOnlyList<double>? most = null
    )
    {
        var key = (latitudeDeg, facing, string.Join(' ', monthlyClearness), string.Join(' ', most ?? []));
        if (KeptYears.TryGetValue(key, out var known))
            return known;
        if (KeptYears.Count >= MostKept)
            KeptYears.Clear();
        return KeptYears[key] = Work(latitudeDeg, monthlyClearness, facing, most);
    }

    private const int MostKept = 256;

    private static readonly ConcurrentDictionary<(double, ArrayFacing, string, string), SolarYearResult> KeptYears = new();

    /// <summary>
    /// The clearness that gives so many hours of full sun on the level on a month's mean day, held within what a month has.
    /// </summary>
    /// <param name="sunHours">[h, ≥ 0].</param>
    public static double ClearnessOf(double latitudeDeg, int month, double sunHours)
    {
        var (first, days) = WeatherDays.Month(month);
        var above = new SolarGeometry(latitudeDeg, first + days / 2, default, 60).ExtraterrestrialWhPerM2;
        return Math.Clamp(sunHours * 1000 / above, SolarDay.LeastClearness, SolarDay.MostClearness);
    }
}

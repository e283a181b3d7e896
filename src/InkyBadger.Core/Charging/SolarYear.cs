using System.Collections.Concurrent;

namespace InkyBadger.Core.Charging;

/// <summary>
/// A month's mean day on a plane: 24 hourly means [W/m²], which is also what an array gives for each kilowatt of its plate before losses
/// [W]; and what a ceiling clips of it a day [Wh/m²].
/// </summary>
public readonly record struct MonthLight(IReadOnlyList<double> Hourly, double Clipped);

/// <summary>
/// The mean over days of made-up weather on a plane (method, 9.3 and 11.1): a month's mean clearness taken as one day errs low on a tilted
/// plane, for clear days bring more than dull ones take. The light of all days is kept in order of its strength, so that any ceiling is
/// answered without going through the days again.
/// </summary>
public sealed class SolarYear
{
    /// <summary>Years of weather that are looked at, and where they begin: the same figures every time.</summary>
    private const int Years = 10,
        Seed = 1;

    private readonly HourLight[][] months = new HourLight[12][];
    private readonly double[] sunHours = new double[12];

    /// <param name="latitudeDeg">[−66 to 66].</param>
    /// <param name="monthlyClearness">Twelve, January first [each 0.02 to 0.85].</param>
    /// <exception cref="Refusal">Names the offending input.</exception>
    public SolarYear(double latitudeDeg, IReadOnlyList<double> monthlyClearness, ArrayFacing facing)
    {
        SolarDay.Check(latitudeDeg, facing);
        var weather = WeatherDays.Work(Seed, monthlyClearness, 1, Years * 365).Clearness;
        for (var month = 0; month < 12; month++)
        {
            var (first, days) = WeatherDays.Month(month);
            var light = Enumerable.Range(0, 24).Select(_ => new List<double>()).ToArray();
            for (var d = first; d < first + days; d++)
            {
                var sun = new SolarGeometry(latitudeDeg, d, facing, 60);
                for (var year = 0; year < Years; year++)
                    sun.Spread(weather[year * 365 + d - 1], (hour, watts) => light[hour].Add(watts));
            }
            months[month] = [.. light.Select(l => new HourLight(l, days * Years))];
            sunHours[month] = months[month].Sum(h => h.Mean) / 1000;
        }
    }

    /// <summary>Hours of full sun on the plane on the mean day of a month [0 to 11].</summary>
    public double SunHours(int month) => sunHours[month];

    /// <param name="month">[0 to 11].</param>
    /// <param name="most">A ceiling [W/m², &gt; 0]: clear noons lose more to it than the mean day shows.</param>
    public MonthLight Month(int month, double most = double.PositiveInfinity)
    {
        var hourly = new double[24];
        var clipped = 0.0;
        for (var hour = 0; hour < 24; hour++)
        {
            hourly[hour] = months[month][hour].Under(most);
            clipped += months[month][hour].Mean - hourly[hour];
        }
        return new(hourly, clipped);
    }

    /// <summary>An hour of the day on all days of a month: their light from the weakest, and what it comes to up to each of them.</summary>
    private readonly struct HourLight
    {
        private readonly double[] sorted,
            upTo;
        private readonly int days;

        public double Mean { get; }

        public HourLight(List<double> light, int days)
        {
            (sorted, upTo, this.days) = ([.. light], new double[light.Count + 1], days);
            Array.Sort(sorted);
            for (var i = 0; i < sorted.Length; i++)
                upTo[i + 1] = upTo[i] + sorted[i];
            Mean = upTo[^1] / days;
        }

        /// <summary>Their mean with nothing counted above the ceiling; a day without light in that hour counts as none.</summary>
        public double Under(double most)
        {
            if (sorted.Length == 0 || sorted[^1] <= most)
                return Mean;
            var at = Array.BinarySearch(sorted, most);
            var below = at < 0 ? ~at : at;
            return (upTo[below] + (sorted.Length - below) * most) / days;
        }
    }

    /// <summary>Kept from the last times: a place and a plane are asked about with every key.</summary>
    internal static SolarYear Of(double latitudeDeg, IReadOnlyList<double> monthlyClearness, ArrayFacing facing)
    {
        var key = new Plane(latitudeDeg, facing, monthlyClearness);
        if (KeptYears.TryGetValue(key, out var known))
            return known;
        if (KeptYears.Count >= MostKept)
            KeptYears.Clear();
        return KeptYears[key] = new(latitudeDeg, monthlyClearness, facing);
    }

    /// <summary>Each is a good half of a megabyte.</summary>
    private const int MostKept = 32;

    private static readonly ConcurrentDictionary<Plane, SolarYear> KeptYears = new();

    private readonly struct Plane(double latitudeDeg, ArrayFacing facing, IReadOnlyList<double> clearness) : IEquatable<Plane>
    {
        private readonly double latitudeDeg = latitudeDeg;
        private readonly ArrayFacing facing = facing;
        private readonly IReadOnlyList<double> clearness = clearness;

        public bool Equals(Plane other) =>
            latitudeDeg.Equals(other.latitudeDeg) && facing.Equals(other.facing) && clearness.SequenceEqual(other.clearness);

        public override bool Equals(object? obj) => obj is Plane other && Equals(other);

        public override int GetHashCode()
        {
            var hash = new HashCode();
            hash.Add(latitudeDeg);
            hash.Add(facing);
            foreach (var k in clearness)
                hash.Add(k);
            return hash.ToHashCode();
        }
    }

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

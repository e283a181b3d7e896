namespace InkyBadger.Core.Charging;

/// <summary>
/// Where an array looks: tilt from the level [°, 0 to 90], azimuth [°, −180 to 180; 0 faces the equator, west positive on both halves], and
/// the ground's reflection [0 to 1].
/// </summary>
public readonly record struct ArrayFacing(double TiltDeg, double AzimuthDeg = 0, double Albedo = 0.2);

/// <summary>
/// A day's yield: watt-hours and the greatest step [W] with the losses in it, light on the level ground [Wh/m²], hours of full sun on the
/// array without the losses, length of the day [h], diffuse share of the day, and the means of 24 hours of solar time [W].
/// </summary>
public sealed record SolarDayResult(
    double WhDay,
    double PeakW,
    double WhHorizontalPerM2,
    double SunHours,
    double DayLengthH,
    double DiffuseFraction,
    IReadOnlyList<double> ProfileW
);

/// <summary>
/// What an array gives on a day of a known clearness, from the sun's geometry in solar time (method, 9.3). The day's light is spread over
/// its hours after Collares-Pereira and Rabl, its diffuse part after Liu and Jordan, the share of that part after Erbs; the tilted plane
/// sees an even sky. Not held at the controller's or the array's rating.
/// </summary>
public static class SolarDay
{
    /// <summary>What is left after dirt, heat, wiring, mismatch and conversion.</summary>
    public const double UsualDerate = 0.8;

    public const double LeastClearness = 0.02,
        MostClearness = 0.85,
        MostLatitude = 66;

    /// <param name="latitudeDeg">[−66 to 66], north positive.</param>
    /// <param name="dayOfYear">[1 to 365].</param>
    /// <param name="clearness">Of the day: light on the level ground over that above the air [0.02 to 0.85].</param>
    /// <param name="arrayW">At 1,000 W/m² [W, &gt; 0].</param>
    /// <param name="derate">(0 to 1].</param>
    /// <param name="stepMinutes">[1 to 60], a divisor of 60.</param>
    /// <exception cref="Refusal">Names the offending input.</exception>
    public static SolarDayResult Work(
        double latitudeDeg,
        int dayOfYear,
        ArrayFacing facing,
        double clearness,
        double arrayW,
        double derate = UsualDerate,
        int stepMinutes = 60
    )
    {
        Check(latitudeDeg, facing);
        Require.Within(dayOfYear, 1, 365);
        Require.Within(clearness, LeastClearness, MostClearness);
        Require.Above(arrayW, 0);
        Require.Share(derate);
        Require.Within(stepMinutes, 1, 60);
        if (60 % stepMinutes != 0)
            Require.Refuse(nameof(stepMinutes), "must divide the hour");

        var geometry = new SolarGeometry(latitudeDeg, dayOfYear, facing, stepMinutes);
        var profile = new double[24];
        var (sunHours, peak) = (0.0, 0.0);
        var step = stepMinutes / 60.0;
        geometry.Spread(clearness, (i, light) =>
        {
            var watts = arrayW * (light / 1000) * derate;
            profile[(int)(i * step)] += watts * step;
            sunHours += light * step / 1000;
            peak = Math.Max(peak, watts);
        });
        return new(
            profile.Sum(),
            peak,
            clearness * geometry.ExtraterrestrialWhPerM2,
            sunHours,
            geometry.DayLengthH,
            geometry.DiffuseShare(clearness),
            profile
        );
    }

    /// <exception cref="Refusal">Names the offending input.</exception>
    internal static void Check(double latitudeDeg, ArrayFacing facing)
    {
        Require.Within(latitudeDeg, -MostLatitude, MostLatitude);
        Require.Within(facing.TiltDeg, 0, 90);
        Require.Within(facing.AzimuthDeg, -180, 180);
        Require.Within(facing.Albedo, 0, 1);
    }
}

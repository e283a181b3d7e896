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

    private const double SolarConstant = 1367;

    /// <summary>Below this height all light counts as diffuse: the beam's share of it would be divided by almost nothing.</summary>
    private static readonly double LeastHeight = Math.Sin(Radians(5));

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
        Require.Within(latitudeDeg, -MostLatitude, MostLatitude);
        Require.Within(dayOfYear, 1, 365);
        Require.Within(facing.TiltDeg, 0, 90);
        Require.Within(facing.AzimuthDeg, -180, 180);
        Require.Within(facing.Albedo, 0, 1);
        Require.Within(clearness, LeastClearness, MostClearness);
        Require.Above(arrayW, 0);
        Require.Share(derate);
        Require.Within(stepMinutes, 1, 60);
        if (60 % stepMinutes != 0)
            Require.Refuse(nameof(stepMinutes), "must divide the hour");

        var sun = new SunPath(latitudeDeg, dayOfYear);
        var level = clearness * sun.ExtraterrestrialWhPerM2;
        var diffuse = DiffuseShare(clearness, sun.SunsetRad);
        var step = stepMinutes / 60.0;
        var hours = Enumerable
            .Range(0, (int)Math.Round(24 / step))
            .Select(i => Radians(15 * ((i + 0.5) * step - 12)))
            .Select(angle => (Angle: angle, Diffuse: sun.Above(angle), All: sun.Above(angle) * sun.Shape(angle)))
            .ToArray();
        var (sumAll, sumDiffuse) = (hours.Sum(h => h.All), hours.Sum(h => h.Diffuse));
        var profile = new double[24];
        var (sunHours, peak) = (0.0, 0.0);
        // A polar day shorter than a step may fall between two looks: nothing is spread then.
        if (sumAll > 0)
            for (var i = 0; i < hours.Length; i++)
            {
                if (hours[i].Diffuse <= 0)
                    continue;
                var light = level * hours[i].All / (step * sumAll);
                var sky = Math.Min(light, diffuse * level * hours[i].Diffuse / (step * sumDiffuse));
                var tilted = sun.OnPlane(hours[i].Angle, facing, light, sky);
                var watts = arrayW * (tilted / 1000) * derate;
                profile[(int)(i * step)] += watts * step;
                sunHours += tilted * step / 1000;
                peak = Math.Max(peak, watts);
            }
        return new(profile.Sum(), peak, level, sunHours, 2 * sun.SunsetRad / Radians(15), diffuse, profile);
    }

    private static double DiffuseShare(double k, double sunsetRad)
    {
        if (sunsetRad <= Radians(81.4))
            return k >= 0.715 ? 0.143 : 1 - 0.2727 * k + 2.4495 * k * k - 11.9514 * k * k * k + 9.3879 * k * k * k * k;
        return k >= 0.722 ? 0.175 : 1 + 0.2832 * k - 2.5557 * k * k + 0.8448 * k * k * k;
    }

    private static double Radians(double degrees) => degrees * Math.PI / 180;

    /// <summary>The sun over a day at a place. South of the equator it is the mirror of the north.</summary>
    private readonly struct SunPath
    {
        private readonly double latitude,
            declination,
            shapeA,
            shapeB;

        public double SunsetRad { get; }
        public double ExtraterrestrialWhPerM2 { get; }

        public SunPath(double latitudeDeg, int day)
        {
            latitude = Radians(Math.Abs(latitudeDeg));
            declination = Radians(23.45) * Math.Sin(2 * Math.PI * (284 + day) / 365) * (latitudeDeg < 0 ? -1 : 1);
            SunsetRad = Math.Acos(-Math.Tan(latitude) * Math.Tan(declination));
            ExtraterrestrialWhPerM2 =
                24
                / Math.PI
                * SolarConstant
                * (1 + 0.033 * Math.Cos(2 * Math.PI * day / 365))
                * (
                    Math.Cos(latitude) * Math.Cos(declination) * Math.Sin(SunsetRad)
                    + SunsetRad * Math.Sin(latitude) * Math.Sin(declination)
                );
            shapeA = 0.409 + 0.5016 * Math.Sin(SunsetRad - Radians(60));
            shapeB = 0.6609 - 0.4767 * Math.Sin(SunsetRad - Radians(60));
        }

        /// <summary>How far the sun is up, 0 when it is not.</summary>
        public double Above(double angle) => Math.Max(0, Math.Cos(angle) - Math.Cos(SunsetRad));

        public double Shape(double angle) => shapeA + shapeB * Math.Cos(angle);

        /// <summary>Light on the array [W/m²] from that on the level ground and the diffuse part of it [W/m²].</summary>
        public double OnPlane(double angle, ArrayFacing facing, double light, double sky)
        {
            var (sinLat, cosLat) = Math.SinCos(latitude);
            var (sinDec, cosDec) = Math.SinCos(declination);
            var (sinTilt, cosTilt) = Math.SinCos(Radians(facing.TiltDeg));
            var (sinAz, cosAz) = Math.SinCos(Radians(facing.AzimuthDeg));
            var height = cosLat * cosDec * Math.Cos(angle) + sinLat * sinDec;
            if (height < LeastHeight)
                sky = light;
            var toPlane =
                sinDec * (sinLat * cosTilt - cosLat * sinTilt * cosAz)
                + cosDec * Math.Cos(angle) * (cosLat * cosTilt + sinLat * sinTilt * cosAz)
                + cosDec * sinTilt * sinAz * Math.Sin(angle);
            var beam = light > sky ? (light - sky) * Math.Max(0, toPlane) / height : 0;
            return beam + sky * (1 + cosTilt) / 2 + facing.Albedo * light * (1 - cosTilt) / 2;
        }
    }
}

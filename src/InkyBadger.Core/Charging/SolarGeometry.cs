namespace InkyBadger.Core.Charging;

/// <summary>
/// The sun over a day at a place, seen by a tilted plane at every step of solar time: all of <see cref="SolarDay"/> that does not depend on
/// the weather, so that many days of weather pay for it once. South of the equator it is the mirror of the north.
/// </summary>
internal sealed class SolarGeometry
{
    private const double SolarConstant = 1367;

    /// <summary>Below this height all light counts as diffuse: the beam's share of it would be divided by almost nothing.</summary>
    private static readonly double LeastHeight = Math.Sin(Radians(5));

    private readonly double sunset,
        step,
        skySees,
        groundSees;

    /// <summary>
    /// A step in which the sun is up: its share of the day's light and of the diffuse part [1/h], and what a watt of beam on the level is
    /// on the plane (null: too low for a beam).
    /// </summary>
    private readonly (int Index, double All, double Diffuse, double? Beam)[] steps;

    public double ExtraterrestrialWhPerM2 { get; }
    public double DayLengthH => 2 * sunset / Radians(15);

    public SolarGeometry(double latitudeDeg, int day, ArrayFacing facing, int stepMinutes)
    {
        var latitude = Radians(Math.Abs(latitudeDeg));
        var declination = Radians(23.45) * Math.Sin(2 * Math.PI * (284 + day) / 365) * (latitudeDeg < 0 ? -1 : 1);
        var (sinLat, cosLat) = Math.SinCos(latitude);
        var (sinDec, cosDec) = Math.SinCos(declination);
        var (sinTilt, cosTilt) = Math.SinCos(Radians(facing.TiltDeg));
        var (sinAz, cosAz) = Math.SinCos(Radians(facing.AzimuthDeg));
        sunset = Math.Acos(-Math.Tan(latitude) * Math.Tan(declination));
        step = stepMinutes / 60.0;
        skySees = (1 + cosTilt) / 2;
        groundSees = facing.Albedo * (1 - cosTilt) / 2;
        ExtraterrestrialWhPerM2 =
            24
            / Math.PI
            * SolarConstant
            * (1 + 0.033 * Math.Cos(2 * Math.PI * day / 365))
            * (cosLat * cosDec * Math.Sin(sunset) + sunset * sinLat * sinDec);

        double a = 0.409 + 0.5016 * Math.Sin(sunset - Radians(60)),
            b = 0.6609 - 0.4767 * Math.Sin(sunset - Radians(60));
        var up = new List<(int Index, double All, double Diffuse, double? Beam)>();
        for (var i = 0; i < (int)Math.Round(24 / step); i++)
        {
            var angle = Radians(15 * ((i + 0.5) * step - 12));
            var above = Math.Cos(angle) - Math.Cos(sunset);
            if (above <= 0)
                continue;
            var height = cosLat * cosDec * Math.Cos(angle) + sinLat * sinDec;
            var toPlane =
                sinDec * (sinLat * cosTilt - cosLat * sinTilt * cosAz)
                + cosDec * Math.Cos(angle) * (cosLat * cosTilt + sinLat * sinTilt * cosAz)
                + cosDec * sinTilt * sinAz * Math.Sin(angle);
            up.Add((i, (a + b * Math.Cos(angle)) * above, above, height < LeastHeight ? null : Math.Max(0, toPlane) / height));
        }
        // Scaled to the day, so that a level array gets the day's light at any step.
        var (all, diffuse) = (up.Sum(s => s.All) * step, up.Sum(s => s.Diffuse) * step);
        steps = [.. up.Select(s => (s.Index, s.All / all, s.Diffuse / diffuse, s.Beam))];
    }

    /// <summary>The day's diffuse share by its clearness.</summary>
    public double DiffuseShare(double k)
    {
        if (sunset <= Radians(81.4))
            return k >= 0.715 ? 0.143 : 1 - 0.2727 * k + 2.4495 * k * k - 11.9514 * k * k * k + 9.3879 * k * k * k * k;
        return k >= 0.722 ? 0.175 : 1 + 0.2832 * k - 2.5557 * k * k + 0.8448 * k * k * k;
    }

    /// <summary>The light on the plane [W/m²] in each step the sun is up, in order.</summary>
    public void Spread(double clearness, Action<int, double> each)
    {
        var level = clearness * ExtraterrestrialWhPerM2;
        var diffuse = DiffuseShare(clearness) * level;
        foreach (var s in steps)
        {
            var light = level * s.All;
            var sky = s.Beam is null ? light : Math.Min(light, diffuse * s.Diffuse);
            each(s.Index, (light - sky) * (s.Beam ?? 0) + sky * skySees + groundSees * light);
        }
    }

    private static double Radians(double degrees) => degrees * Math.PI / 180;
}

using InkyBadger.Core.Design;
using InkyBadger.Core.Reference;
using InkyBadger.Core.Wiring;

namespace InkyBadger.Core.Protection;

/// <summary>Seconds at given currents, for the drawing (method, 14.2); null: for as long as one likes.</summary>
public static class ProtectionCurves
{
    public static IReadOnlyList<double?> Fuse(FuseCurve curve, IReadOnlyList<double> amps) => Each(amps, curve.At);

    /// <summary>What the cable stands above its ampacity; beyond five seconds that is too short, for heat gets away.</summary>
    /// <param name="areaMm2">Of one conductor [mm², &gt; 0].</param>
    /// <param name="ampacityA">Of all together [A, &gt; 0].</param>
    public static IReadOnlyList<double?> Cable(
        double areaMm2,
        int conductors,
        int insulationC,
        InsulationKind insulation,
        double ampacityA,
        IReadOnlyList<double> amps
    )
    {
        Require.Above(ampacityA, 0);
        return Each(amps, a =>
            Tolerant.Exceeds(a, ampacityA) ? Wiring.Cable.ShortTime(areaMm2, conductors, insulationC, insulation, a).Seconds : null
        );
    }

    /// <summary>A BMS: never up to its continuous amperes, so many seconds up to its peak, above at once.</summary>
    /// <param name="continuousA">[A, &gt; 0].</param>
    /// <param name="peakA">[A, ≥ continuous]; null: it has none.</param>
    /// <param name="peakSeconds">[s, &gt; 0]; with a peak, and not without.</param>
    public static IReadOnlyList<double?> Bms(double continuousA, double? peakA, double? peakSeconds, IReadOnlyList<double> amps)
    {
        Require.Above(continuousA, 0);
        if (peakA is null != peakSeconds is null)
            Require.Refuse(peakA is null ? nameof(peakA) : nameof(peakSeconds), "is required with the other");
        if (peakA is { } most)
            Require.AtLeast(most, continuousA, nameof(peakA));
        if (peakSeconds is { } lasts)
            Require.Above(lasts, 0, nameof(peakSeconds));
        return Each(amps, a => !Tolerant.Exceeds(a, continuousA) ? null
            : peakA is { } peak && peakSeconds is { } seconds && !Tolerant.Exceeds(a, peak) ? seconds
            : 0);
    }

    /// <summary>
    /// An inverter by what it gives at the lowest volts: never up to its continuous watts, else the longest of its points that gives as
    /// much; lower watts hold between them.
    /// </summary>
    /// <param name="continuousW">AC [W, &gt; 0].</param>
    /// <param name="efficiency">(0 to 1].</param>
    /// <param name="idleW">[W, ≥ 0].</param>
    /// <param name="lowV">[V, &gt; 0].</param>
    /// <param name="points">Seconds rising [&gt; 0], watts falling [&gt; continuous].</param>
    public static IReadOnlyList<double?> Inverter(
        double continuousW,
        double efficiency,
        double idleW,
        double lowV,
        IReadOnlyList<OverloadPoint> points,
        IReadOnlyList<double> amps
    )
    {
        Require.Above(continuousW, 0);
        Require.Share(efficiency);
        Require.AtLeast(idleW, 0);
        Require.Above(lowV, 0);
        for (var i = 0; i < points.Count; i++)
        {
            if (!(points[i].Seconds > 0 && points[i].Watts > continuousW))
                Require.Refuse(nameof(points), "must last, and give more than is given for good");
            if (i > 0 && !(points[i].Seconds > points[i - 1].Seconds && points[i].Watts < points[i - 1].Watts))
                Require.Refuse(nameof(points), "must rise in seconds, and give less the longer they last");
        }
        return Each(amps, a =>
        {
            var watts = Math.Max(0, a * lowV - idleW) * efficiency;
            if (!Tolerant.Exceeds(watts, continuousW))
                return null;
            var longest = 0.0;
            foreach (var p in points)
                if (Tolerant.AtLeast(p.Watts, watts))
                    longest = Math.Max(longest, p.Seconds);
            return longest;
        });
    }

    private static double?[] Each(IReadOnlyList<double> currentsA, Func<double, double?> at)
    {
        foreach (var a in currentsA)
            Require.Above(a, 0, nameof(currentsA));
        return [.. currentsA.Select(at)];
    }
}

using InkyBadger.Core.Design;

namespace InkyBadger.Core.Inverters;

/// <summary>House rule on the continuous rating: headroom over the running peak, or the custom of dividing by efficiency.</summary>
public enum SizeRule
{
    Headroom,
    DivideByEfficiency,
}

/// <summary>Inputs of the inverter's size. Watts are AC output; without ratings only the requirement is worked out.</summary>
public sealed record InverterSizeInput(
    double PeakAcW,
    double SurgeDemandW,
    SizeRule SizeRule = SizeRule.Headroom,
    double Headroom = 0.25,
    double? Efficiency = null,
    double? ContinuousW = null,
    double? SurgeW = null,
    double? Derate = null,
    double? AmbientC = null,
    IReadOnlyList<DeratePoint>? DeratePoints = null,
    bool SurgeHot = false,
    int Stack = 1
);

public enum InverterShortfall
{
    Continuous,
    Surge,
}

/// <summary>Required and available watts; everything after the first two is null without an inverter.</summary>
public sealed record InverterSizeResult(
    double RequiredContinuousW,
    double RequiredSurgeW,
    double? Derate,
    double? AvailableContinuousW,
    double? AvailableSurgeW,
    bool? Fits,
    IReadOnlyList<InverterShortfall>? Fails
);

/// <summary>The inverter against the demand (method, 2.1).</summary>
public static class InverterSize
{
    /// <exception cref="Refusal">Names the offending input.</exception>
    public static InverterSizeResult Work(InverterSizeInput input)
    {
        Require.AtLeast(input.PeakAcW, 0);
        Require.AtLeast(input.SurgeDemandW, 0);
        Require.AtLeast(input.Headroom, 0);
        if (input.Efficiency is { } efficiency)
            Require.Share(efficiency);
        var required =
            input.SizeRule == SizeRule.Headroom ? input.PeakAcW * (1 + input.Headroom) : input.PeakAcW / Require.Given(input.Efficiency);
        if (input.ContinuousW is null && input.SurgeW is null)
            return new(required, input.SurgeDemandW, null, null, null, null, null);

        var continuousW = Require.Given(input.ContinuousW);
        var surgeW = Require.Given(input.SurgeW);
        Require.Above(continuousW, 0);
        Require.Above(surgeW, 0);
        Require.AtLeast(input.Stack, 1);
        if (input.Derate is not null && input.AmbientC is not null)
            Require.Refuse("derate", "give the derating or the ambient temperature, not both");
        if (input.Derate is { } given)
            Require.Share(given, "derate");
        var derate = input.Derate ?? (input.AmbientC is { } ambientC ? DerateAt(ambientC, input.DeratePoints) : 1);
        var continuous = continuousW * derate * input.Stack;
        var surge = surgeW * (input.SurgeHot ? 1 : derate) * input.Stack;
        var fails = new List<InverterShortfall>(2);
        if (!Tolerant.AtLeast(continuous, required))
            fails.Add(InverterShortfall.Continuous);
        if (!Tolerant.AtLeast(surge, input.SurgeDemandW))
            fails.Add(InverterShortfall.Surge);
        return new(required, input.SurgeDemandW, derate, continuous, surge, fails.Count == 0, fails);
    }

    /// <summary>
    /// Share of the rating left at an ambient temperature [°C, −60 to 250]: linear between the maker's points, 0 above the last;
    /// without points 1 up to 25 °C, then 1 % less per kelvin, never below 0 (common practice).
    /// </summary>
    public static double DerateAt(double ambientC, IReadOnlyList<DeratePoint>? deratePoints)
    {
        Require.Within(ambientC, -60, 250);
        if (deratePoints is null)
            return Math.Clamp(1 - 0.01 * (ambientC - 25), 0, 1);
        CheckPoints(deratePoints);
        if (ambientC <= deratePoints[0].AmbientC)
            return deratePoints[0].Share;
        for (var i = 1; i < deratePoints.Count; i++)
        {
            var (low, high) = (deratePoints[i - 1], deratePoints[i]);
            if (ambientC <= high.AmbientC)
                return low.Share + (high.Share - low.Share) * (ambientC - low.AmbientC) / (high.AmbientC - low.AmbientC);
        }
        return 0;
    }

    private static void CheckPoints(IReadOnlyList<DeratePoint> points)
    {
        const string field = "deratePoints";
        if (points.Count < 2)
            Require.Refuse(field, "needs at least two points");
        for (var i = 0; i < points.Count; i++)
        {
            if (!double.IsFinite(points[i].AmbientC) || !(points[i].Share >= 0 && points[i].Share <= 1))
                Require.Refuse(field, "each point is a temperature and a share from 0 to 1");
            if (i > 0 && points[i].AmbientC <= points[i - 1].AmbientC)
                Require.Refuse(field, "temperatures must rise");
        }
    }
}

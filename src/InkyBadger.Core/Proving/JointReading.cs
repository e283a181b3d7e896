using InkyBadger.Core.Wiring;

namespace InkyBadger.Core.Proving;

/// <summary>What the millivolts across a joint or a stretch tell; the first that applies.</summary>
public enum JointVerdict
{
    /// <summary>Too little flows for this meter: a twentieth of a milliohm is less than its last digit.</summary>
    MoreCurrent,

    /// <summary>Less than there can be: a part of the current goes elsewhere, or tips, length or size are not as said.</summary>
    Low,
    Ok,
    Look,
    Bad,
}

/// <summary>A joint or stretch by its millivolts.</summary>
/// <param name="MeasuredMilliohm">[mΩ].</param>
/// <param name="PredictedMilliohm">Conductor and joints as they are to be [mΩ].</param>
/// <param name="ExtraMilliohm">Measured less predicted; may be negative [mΩ].</param>
/// <param name="HeatW">At the current it was measured with [W].</param>
/// <param name="ExtraHeatW">What it makes more than a sound one, at the design current [W, ≥ 0].</param>
/// <param name="LeastCurrentA">From here on the meter tells a joint [A].</param>
public sealed record JointReadingResult(
    double MeasuredMilliohm,
    double PredictedMilliohm,
    double ExtraMilliohm,
    double HeatW,
    double ExtraHeatW,
    double LeastCurrentA,
    JointVerdict Verdict
);

/// <summary>
/// Copper between the tips of a meter: mΩ a metre at 20 °C, length [m, &gt; 0], how warm it is [°C], how many side by side.
/// </summary>
public sealed record MeasuredConductor(double R20MilliohmPerM, double LengthM, double ConductorC = 20, int Conductors = 1);

/// <summary>A joint, or a stretch with its joints, judged by the millivolts across it under current (method, 12.3).</summary>
public static class JointReading
{
    /// <summary>The least joint a meter must tell [mΩ].</summary>
    private const double TellsMilliohm = 0.05;

    /// <summary>More heat than this in a place the size of a thumb nail is bad whatever its share [W].</summary>
    public const double MostExtraHeatW = 5;

    /// <summary>Of the conductor’s own resistance, its makers’ tolerance, spread over its length.</summary>
    private const double ConductorTolerance = 0.1;

    /// <summary>A meter’s usual last digit [mV].</summary>
    public const double UsualStepMv = 0.1;

    /// <param name="measuredMv">[mV, ≥ 0].</param>
    /// <param name="currentA">That flowed meanwhile [A, &gt; 0].</param>
    /// <param name="conductor">Between the tips; null: joints alone.</param>
    /// <param name="boltedJoints">Between the tips [≥ 0].</param>
    /// <param name="fuseJoints">Fuses with their holders between the tips [≥ 0].</param>
    /// <param name="boltedJointMilliohm">Of a sound one [mΩ, ≥ 0].</param>
    /// <param name="fuseJointMilliohm">Of a sound one [mΩ, ≥ 0].</param>
    /// <param name="designA">At which the heat is told [A, &gt; 0]; null: at the current that flowed.</param>
    /// <param name="meterStepMv">The meter’s last digit [mV, &gt; 0].</param>
    /// <exception cref="Refusal"><c>boltedJoints</c> when nothing lies between the tips; else the offending input.</exception>
    public static JointReadingResult Work(
        double measuredMv,
        double currentA,
        MeasuredConductor? conductor = null,
        int boltedJoints = 0,
        int fuseJoints = 0,
        double boltedJointMilliohm = Cable.BoltedMilliohm,
        double fuseJointMilliohm = Cable.FusedMilliohm,
        double? designA = null,
        double meterStepMv = UsualStepMv
    )
    {
        Require.AtLeast(measuredMv, 0);
        Require.Above(currentA, 0);
        Require.AtLeast(boltedJoints, 0);
        Require.AtLeast(fuseJoints, 0);
        Require.AtLeast(boltedJointMilliohm, 0);
        Require.AtLeast(fuseJointMilliohm, 0);
        var design = designA ?? currentA;
        Require.Above(design, 0, nameof(designA));
        Require.Above(meterStepMv, 0);
        var copper = conductor is { } c ? 1000 * (double)Cable.Resistance(c.R20MilliohmPerM, c.LengthM, c.ConductorC, c.Conductors) : 0;
        var predicted = copper + boltedJoints * boltedJointMilliohm + fuseJoints * fuseJointMilliohm;
        if (predicted <= 0)
            Require.Refuse(nameof(boltedJoints), "must be more than 0 where nothing else lies between the tips");
        var measured = measuredMv / currentA;
        var extra = measured - predicted;
        var heat = design * design * Math.Max(0, extra - ConductorTolerance * copper) / 1000;
        var least = meterStepMv / TellsMilliohm;
        var verdict =
            Tolerant.Exceeds(least, currentA) ? JointVerdict.MoreCurrent
            : Tolerant.Exceeds(-extra, Math.Max(0.1, 0.3 * predicted)) ? JointVerdict.Low
            : Tolerant.Exceeds(heat, MostExtraHeatW) ? JointVerdict.Bad
            : Tolerant.AtLeast(Math.Max(0.1, 0.2 * predicted), extra) ? JointVerdict.Ok
            : Tolerant.AtLeast(Math.Max(0.3, 0.5 * predicted), extra) ? JointVerdict.Look
            : JointVerdict.Bad;
        return new(measured, predicted, extra, currentA * currentA * measured / 1000, heat, least, verdict);
    }
}

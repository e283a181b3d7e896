using InkyBadger.Core.Design;
using InkyBadger.Core.Reference;
using InkyBadger.Core.Working;

namespace InkyBadger.Core.Wiring;

public readonly record struct CableTemperatureResult(double ConductorC, bool Capped);

public readonly record struct CableResistanceResult(double ConductorC, double ResistanceOhm);

public readonly record struct CableDropResult(double JointsOhm, double DropV, double DropFraction, double? DropFractionLow);

public readonly record struct CableAmpacityResult(double TableA, double AmbientFactor, double BundleFactor, double AmpacityA);

public readonly record struct ShortTimeResult(double K, double AreaMm2, double Seconds, bool Valid);

/// <summary>Resistance, drop and ampacity of a cable (method, section 6). Lengths in m one way, temperatures in °C.</summary>
public static class Cable
{
    /// <summary>Change of copper's resistance per kelvin from 20 °C.</summary>
    public const double CopperPerK = 0.00393;

    /// <summary>Typical resistance of a bolted joint, and of a fuse or switch with its joints [mΩ].</summary>
    public const double BoltedMilliohm = 0.1,
        FusedMilliohm = 0.2;

    /// <summary>Drop over the whole loop of a cable whose both ways are alike, joints in [V].</summary>
    public static Num LoopDropV(Num amps, Num oneWayOhm, Num jointsOhm) => amps * (2 * oneWayOhm + jointsOhm);

    /// <summary>
    /// Temperature of a loaded conductor: its rise over the ambient goes with the square of its load. Never above what the insulation
    /// bears or the place itself has, whichever is higher. <paramref name="currentA"/> is of all conductors in parallel [A, ≥ 0].
    /// </summary>
    public static CableTemperatureResult Temperature(
        AmpacityRow row,
        double currentA,
        double? ambientC = null,
        int bundledConductors = 1,
        int conductors = 1
    )
    {
        Require.AtLeast(currentA, 0);
        Require.AtLeast(conductors, 1);
        var ambient = ambientC ?? row.ReferenceC;
        Require.Within(ambient, -60, 250, nameof(ambientC));
        var bundle = Bundling.Factor(Family(row), bundledConductors);
        var load = currentA / (row.AmpacityA * bundle * conductors);
        var free = ambient + (row.InsulationC - row.ReferenceC) * load * load;
        var cap = Math.Max(row.InsulationC, ambient);
        return new(Math.Min(free, cap), free > cap || ambient > row.InsulationC);
    }

    /// <summary>Resistance one way [Ω] of <paramref name="conductors"/> in parallel at a conductor temperature [°C, −60 to 250].</summary>
    public static Num Resistance(Num r20MilliohmPerM, Num lengthM, Num conductorC, Num conductors)
    {
        Require.Above(r20MilliohmPerM, 0);
        Require.Above(lengthM, 0);
        Require.Within(conductorC, -60, 250);
        Require.AtLeast(conductors, 1);
        return r20MilliohmPerM / 1000 * (1 + CopperPerK * (conductorC - 20)) * lengthM / conductors;
    }

    /// <summary>
    /// Drop over the whole loop at <paramref name="currentA"/> [A, ≥ 0], joints in; its share of nominal and, where given, of low volts.
    /// </summary>
    public static CableDropResult Drop(
        double currentA,
        double outOhm,
        double? backOhm,
        double nominalV,
        double? lowV = null,
        int boltedJoints = 0,
        int fuseJoints = 0,
        double boltedJointMilliohm = BoltedMilliohm,
        double fuseJointMilliohm = FusedMilliohm
    )
    {
        Require.AtLeast(currentA, 0);
        Require.AtLeast(outOhm, 0);
        var back = backOhm ?? outOhm;
        Require.AtLeast(back, 0, nameof(backOhm));
        Require.Above(nominalV, 0);
        if (lowV is { } low)
            Require.Above(low, 0, nameof(lowV));
        var joints = Joints(boltedJoints, fuseJoints, boltedJointMilliohm, fuseJointMilliohm);
        var drop = currentA * (outOhm + back + joints);
        return new(joints, drop, drop / nominalV, drop / lowV);
    }

    /// <summary>Resistance of bolted joints and of fuses and switches on a loop [Ω]; typical 0.1 and 0.2 mΩ each.</summary>
    public static double Joints(int boltedJoints, int fuseJoints) => Joints(boltedJoints, fuseJoints, BoltedMilliohm, FusedMilliohm);

    /// <summary>The same by the house rules' figures.</summary>
    public static double Joints(DesignRules rules, int boltedJoints, int fuseJoints) =>
        Joints(boltedJoints, fuseJoints, rules.BoltedMilliohm, rules.FusedMilliohm);

    /// <inheritdoc cref="Joints(int, int)"/>
    public static Num Joints(Num boltedJoints, Num fuseJoints, Num boltedJointMilliohm, Num fuseJointMilliohm)
    {
        Require.AtLeast(boltedJoints, 0);
        Require.AtLeast(fuseJoints, 0);
        Require.AtLeast(boltedJointMilliohm, 0);
        Require.AtLeast(fuseJointMilliohm, 0);
        return (boltedJoints * boltedJointMilliohm + fuseJoints * fuseJointMilliohm) / 1000;
    }

    /// <summary>Amperes a cable may carry here: the table's, less for a hot place and for conductors that touch.</summary>
    /// <param name="row">Practice and size.</param>
    /// <param name="ambientC">°C, −60 to 250; null: the practice's reference.</param>
    /// <param name="bundledConductors">1 to 999, every current-carrying conductor that touches counted.</param>
    /// <param name="conductors">In parallel, ≥ 1.</param>
    /// <param name="allowAboveOne">House rule: a cool place may earn amperes.</param>
    public static CableAmpacityResult Ampacity(
        AmpacityRow row,
        double? ambientC = null,
        int bundledConductors = 1,
        int conductors = 1,
        bool allowAboveOne = false
    )
    {
        Require.AtLeast(conductors, 1);
        var ambient = ambientC ?? row.ReferenceC;
        Require.Within(ambient, -60, 250, nameof(ambientC));
        var room = (row.InsulationC - ambient) / (row.InsulationC - row.ReferenceC);
        var ambientFactor = room <= 0 ? 0 : Math.Sqrt(room);
        if (!allowAboveOne)
            ambientFactor = Math.Min(1, ambientFactor);
        var bundle = Bundling.Factor(Family(row), bundledConductors);
        return new(row.AmpacityA, ambientFactor, bundle, row.AmpacityA * ambientFactor * bundle * conductors);
    }

    /// <summary>Seconds an insulated conductor stands a short: t = (k·A/I)², valid to 5 s.</summary>
    public static ShortTimeResult ShortTime(double areaMm2, int conductors, int insulationC, InsulationKind insulationKind, double currentA)
    {
        Require.Above(areaMm2, 0);
        Require.AtLeast(conductors, 1);
        Require.Above(currentA, 0);
        var k = ShortTimeK(insulationC, insulationKind);
        var area = areaMm2 * conductors;
        var root = k * area / currentA;
        return new(k, area, root * root, Tolerant.AtLeast(5, root * root));
    }

    /// <summary>What a mm² stands for a second [A·√s/mm²]: k of method, 7.4.</summary>
    /// <exception cref="Refusal">An insulation that is not listed.</exception>
    public static double ShortTimeK(int insulationC, InsulationKind insulationKind) =>
        (insulationC, insulationKind) switch
        {
            (70, InsulationKind.Thermoplastic) => 115,
            (75, InsulationKind.Thermoplastic) => 111,
            (90, InsulationKind.Thermoplastic) => 100,
            (105, InsulationKind.Thermoplastic) => 88,
            (90, InsulationKind.Thermosetting) => 143,
            (105, InsulationKind.Thermosetting) => 135,
            (70 or 75, _) => throw new Refusal("insulationKind", "thermosetting insulation is known at 90 and 105 °C only"),
            _ => throw new Refusal("insulationC", "must be 70, 75, 90 or 105"),
        };

    private static string Family(AmpacityRow row) =>
        row.Family ?? (row.Practice.StartsWith("craft", StringComparison.Ordinal) ? "craft" : "building");
}

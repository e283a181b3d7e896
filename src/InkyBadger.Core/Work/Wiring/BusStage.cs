using InkyBadger.Core.Network;
using InkyBadger.Core.Reference;
using InkyBadger.Core.Wiring;
using InkyBadger.Core.Working;

namespace InkyBadger.Core.Work;

public enum LoopPart
{
    Post,
    Fuse,
    Switch,
    Shunt,
    Bus,
    Inverter,
    Begin,
    End,
}

/// <summary>
/// A place on a pole of a run: metres of cable from the post, or from where the run begins, volts lost up to it and past it at the design
/// current, and the same at the worst instant (null without a start).
/// </summary>
public sealed record LoopPoint(LoopPart Part, double AtM, double LostBeforeV, double LostV, double? SurgeBeforeV, double? SurgeV);

/// <summary>
/// The bus: where it lies on the main run [m], what is lost up to it and left there at full load [V], out and back to it at 20 °C [Ω], and
/// what the bank can push into a short there [A]. Both poles of the loop with everything that sits on them, to the inverter's terminals.
/// </summary>
public sealed record BusResult(
    double AtM,
    double SwitchM,
    double ShuntM,
    bool HasSwitch,
    double? DropV,
    double? V,
    double? PathOhm,
    double? ShortCircuitA,
    IReadOnlyList<LoopPoint> Plus,
    IReadOnlyList<LoopPoint> Minus
);

/// <summary>
/// The main run's places: fuse, disconnect and bus on the positive pole, shunt and bus on the negative (method, 6.2 and 5.4).
/// </summary>
public static class BusStage
{
    /// <summary>
    /// Of a main run that goes on to the inverter the bus lies at this share, and disconnect and shunt at these shares of the way to it.
    /// </summary>
    private const double BusShare = 0.4,
        SwitchShare = 0.41,
        ShuntShare = 0.4;

    /// <summary>A place nobody has measured is said to this [m].</summary>
    private const double Step = 0.05;

    /// <summary>Bolted connections of the shunt: itself besides its two.</summary>
    private const int Shunt = 3;

    public static Step<BusResult> Work(BankWork w)
    {
        var (scene, voltage, currents, run) = (w.Scene, w.Voltage.Need(), w.Currents.Need(), w.MainRun.Need());
        var protection = w.Protection.Value;
        var doc = scene.MainRun;
        var onward = w.Inverter.Value is not null && !scene.HasInverterRun;
        var atM = onward ? Math.Min(doc.BusM ?? Round(BusShare * run.Laid.LengthM), run.Laid.LengthM) : run.Laid.LengthM;
        var fuseM = Math.Min(run.Fuse.DistanceM, atM);
        var switchM = Math.Clamp(doc.Switch?.AtM ?? Round(fuseM + SwitchShare * (atM - fuseM)), fuseM, atM);
        var shuntM = Math.Min(doc.ShuntM ?? Round(ShuntShare * atM), atM);
        var hasSwitch = doc.Switch is not { Absent: true };
        var f = new Formulas(w.Tape);
        var toBus = f.Assumed("b", atM, "m", "post to bus");
        double? dropV = null,
            v = null,
            pathOhm = null,
            shortA = null;
        if (run.Cable.OneWayOhm is { } oneWay)
        {
            Num amps = f.Worked("I", run.DesignA, "A", "design current", "/mainRun/designA"),
                cable = f.Worked("R", oneWay, "ohm", "cable one way", "/mainRun/cable/oneWayOhm");
            Num whole = f.You("L", run.Laid.LengthM, "m", "whole run", "/runs"),
                joints = f.Rule(
                    "J",
                    Cable.Joints(scene.Rules, RunStage.BoltedToBus, run.Joints.Fused),
                    "ohm",
                    "joints up to the bus",
                    "joint-bolted"
                );
            var drop = f.Figure(
                "d",
                "/bus/dropV",
                "drop up to the bus at full load",
                "V",
                "6.2",
                amps * (2 * cable * toBus / whole + joints)
            );
            dropV = drop;
            v = f.Figure(
                "v",
                "/bus/v",
                "left at the bus, the bank nearly empty",
                "V",
                "6.2",
                f.Worked("V", voltage.LowV, "V", "under load, nearly empty", "/voltage/lowV") - drop
            );
        }
        if (dropV is not null && run.Cable.Size is { } size && scene.Tables.HasConductor(size) && run.Carries.AmpacityA is not null)
        {
            var path = f.Figure(
                "p",
                "/bus/pathOhm",
                "cable to the bus and back at 20 °C",
                "ohm",
                "5.4",
                2
                    * f.Table("r", scene.Tables.Conductor(size).R20MilliohmPerM, "mΩ/m", size, "conductors")
                    / 1000
                    * toBus
                    / f.You("m", run.Cable.Conductors, "", "in parallel", "/runs"),
                "Joints are not counted on: the greater fault must be cleared."
            );
            pathOhm = path;
            if (protection is { } p)
                shortA = f.Figure(
                    "s",
                    "/bus/shortCircuitA",
                    "what the bank can push into a short at the bus",
                    "A",
                    "5.4",
                    f.Worked("U", p.Short.OpenV, "V", "open circuit", "/protection/short/openV")
                        / (f.Worked("R", p.Short.BankOhm, "ohm", "the bank", "/protection/short/bankOhm") + path)
                );
        }
        // Without a cable nothing is counted on between the posts and the bus: the greater fault.
        if (run.Cable.Size is null)
            (pathOhm, shortA) = (0, protection?.Short.Amps);
        var surgeA = w.Flows.Need().Inverter.SurgeA > 0 ? currents.SurgeWorstA : (double?)null;
        return new BusResult(
            atM,
            switchM,
            shuntM,
            hasSwitch,
            dropV,
            v,
            pathOhm,
            shortA,
            Points(
                scene.Rules,
                run,
                surgeA,
                onward,
                [
                    (LoopPart.Post, 0, 1, 0),
                    .. run.Fuse.RatingA is null ? Array.Empty<(LoopPart, double, int, int)>() : [(LoopPart.Fuse, fuseM, 0, 1)],
                    .. hasSwitch ? [(LoopPart.Switch, switchM, 0, 1)] : Array.Empty<(LoopPart, double, int, int)>(),
                    (LoopPart.Bus, atM, onward ? 2 : 1, 0),
                ]
            ),
            Points(
                scene.Rules,
                run,
                surgeA,
                onward,
                [(LoopPart.Post, 0, 1, 0), (LoopPart.Shunt, shuntM, Shunt, 0), (LoopPart.Bus, atM, onward ? 2 : 1, 0)]
            )
        );
    }

    private static double Round(double metres) => Math.Max(Step, Math.Round(Math.Round(metres / Step) * Step, 2));

    /// <summary>Volts lost along one pole, place by place: the cable between them, then the joints of each.</summary>
    private static List<LoopPoint> Points(
        DesignRules rules,
        RunResult run,
        double? surgeA,
        bool onward,
        List<(LoopPart Part, double AtM, int Bolted, int Fused)> parts
    )
    {
        if (onward)
            parts.Add((LoopPart.Inverter, run.Laid.LengthM, 1, 0));
        var points = new List<LoopPoint>(parts.Count);
        var perM = (run.Cable.OneWayOhm ?? 0) / run.Laid.LengthM;
        double ohm = 0,
            at = 0;
        foreach (var (part, atM, bolted, fused) in parts)
        {
            ohm += perM * (atM - at);
            at = atM;
            var before = ohm;
            ohm += Cable.Joints(rules, bolted, fused);
            points.Add(new(part, atM, run.DesignA * before, run.DesignA * ohm, surgeA * before, surgeA * ohm));
        }
        return points;
    }
}

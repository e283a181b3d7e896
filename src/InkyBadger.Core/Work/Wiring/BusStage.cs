using InkyBadger.Core.Network;
using InkyBadger.Core.Reference;
using InkyBadger.Core.Wiring;
using InkyBadger.Core.Working;

namespace InkyBadger.Core.Work;

public enum LoopPart { Post, Fuse, Switch, Shunt, Bus, Inverter, Begin, End }

/// <summary>
/// A place on a pole of a run: metres of cable from the post, or from where the run begins, volts lost up to it and past it at the design current, and the same at
/// the worst instant (null without a start).
/// </summary>
public sealed record LoopPoint(LoopPart Part, double AtM, double LostBeforeV, double LostV, double? SurgeBeforeV, double? SurgeV);

/// <summary>
/// The bus: where it lies on the main run [m], what is lost up to it and left there at full load [V], out and back to it at 20 °C [Ω], and what
/// the bank can push into a short there [A]. Both poles of the loop with everything that sits on them, to the inverter's terminals.
/// </summary>
public sealed record BusResult(
    double AtM, double SwitchM, double ShuntM, bool HasSwitch, double? DropV, double? V, double? PathOhm, double? ShortCircuitA, IReadOnlyList<LoopPoint> Plus, IReadOnlyList<LoopPoint> Minus);

/// <summary>The main run's places: fuse, disconnect and bus on the positive pole, shunt and bus on the negative (method, 6.2 and 5.4).</summary>
public static class BusStage
{
    /// <summary>Of a main run that goes on to the inverter the bus lies at this share, and disconnect and shunt at these shares of the way to it.</summary>
    private const double BusShare = 0.4, SwitchShare = 0.41, ShuntShare = 0.4;

    /// <summary>A place nobody has measured is said to this [m].</summary>
    private const double Step = 0.05;

    /// <summary>Bolted connections up to the bus on each pole; the shunt counts as one besides its two.</summary>
    private const int PostAndBus = 2, Shunt = 3;

    public static Step<BusResult> Work(BankWork w)
    {
        var (scene, voltage, currents, run) = (w.Scene, w.Voltage.Need(), w.Currents.Need(), w.MainRun.Need());
        var protection = w.Protection.Value;
        var doc = scene.MainRun;
        var onward = scene.Inverter is not null && !scene.HasInverterRun;
        var atM = onward ? Math.Min(doc.BusM ?? Round(BusShare * run.LengthM), run.LengthM) : run.LengthM;
        var fuseM = Math.Min(run.FuseDistanceM, atM);
        var switchM = Math.Clamp(doc.Switch?.AtM ?? Round(fuseM + SwitchShare * (atM - fuseM)), fuseM, atM);
        var shuntM = Math.Min(doc.ShuntM ?? Round(ShuntShare * atM), atM);
        var hasSwitch = doc.Switch is not { Absent: true };
        double? toBusOhm = run.OneWayOhm * atM / run.LengthM;
        var jointsOhm = Cable.Joints(RunStage.BoltedToBus, run.FuseJoints);
        var dropV = run.DesignA * (2 * toBusOhm + jointsOhm);
        double? pathOhm = run.Size is { } size && Conductors.Has(size) && run.AmpacityA is not null ? ShortCircuit.PathOhm(size, atM, run.Conductors) : null;
        double? shortA = pathOhm is { } path && protection is { } p ? p.OpenV / (p.BankOhm + path) : null;
        var surgeA = w.Flows.Need().Inverter.SurgeA > 0 ? currents.SurgeWorstA : (double?)null;
        var result = new BusResult(atM, switchM, shuntM, hasSwitch, dropV, voltage.LowV - dropV, pathOhm, shortA,
            Points(run, surgeA, onward, [(LoopPart.Post, 0, 1, 0), .. run.RatingA is null ? Array.Empty<(LoopPart, double, int, int)>() : [(LoopPart.Fuse, fuseM, 0, 1)], .. hasSwitch ? [(LoopPart.Switch, switchM, 0, 1)] : Array.Empty<(LoopPart, double, int, int)>(), (LoopPart.Bus, atM, onward ? 2 : 1, 0)]),
            Points(run, surgeA, onward, [(LoopPart.Post, 0, 1, 0), (LoopPart.Shunt, shuntM, Shunt, 0), (LoopPart.Bus, atM, onward ? 2 : 1, 0)]));
        if (scene.Tape is { } tape) WriteWorking(tape, result, run, voltage, protection, jointsOhm);
        return result;
    }

    private static double Round(double metres) => Math.Max(Step, Math.Round(Math.Round(metres / Step) * Step, 2));

    /// <summary>Volts lost along one pole, place by place: the cable between them, then the joints of each.</summary>
    private static List<LoopPoint> Points(RunResult run, double? surgeA, bool onward, List<(LoopPart Part, double AtM, int Bolted, int Fused)> parts)
    {
        if (onward) parts.Add((LoopPart.Inverter, run.LengthM, 1, 0));
        var points = new List<LoopPoint>(parts.Count);
        var perM = (run.OneWayOhm ?? 0) / run.LengthM;
        double ohm = 0, at = 0;
        foreach (var (part, atM, bolted, fused) in parts)
        {
            ohm += perM * (atM - at);
            at = atM;
            var before = ohm;
            ohm += Cable.Joints(bolted, fused);
            points.Add(new(part, atM, run.DesignA * before, run.DesignA * ohm, surgeA * before, surgeA * ohm));
        }
        return points;
    }

    private static void WriteWorking(Tape tape, BusResult r, RunResult run, VoltageResult voltage, ProtectionResult? protection, double jointsOhm)
    {
        if (r.DropV is null) return;
        var at = T.Assumed("b", r.AtM, "m", "post to bus");
        tape.Write("/bus/dropV", "drop up to the bus at full load", r.DropV, "V", "6.2", "{I} × (2 × {R} × {b} ÷ {L} + {J})",
        [
            T.Worked("I", run.DesignA, "A", "design current", "/mainRun/designA"), T.Worked("R", run.OneWayOhm, "ohm", "cable one way", "/mainRun/oneWayOhm"), at,
            T.You("L", run.LengthM, "m", "whole run", "/runs"), T.Assumed("J", jointsOhm, "ohm", "joints up to the bus"),
        ]);
        tape.Write("/bus/v", "left at the bus, the bank nearly empty", r.V, "V", "6.2", "{V} − {d}",
            [T.Worked("V", voltage.LowV, "V", "under load, nearly empty", "/voltage/lowV"), T.Worked("d", r.DropV, "V", "up to the bus", "/bus/dropV")]);
        if (r.PathOhm is null) return;
        tape.Write("/bus/pathOhm", "cable to the bus and back at 20 °C", r.PathOhm, "ohm", "5.4", "2 × {r} ÷ 1000 × {b} ÷ {m}",
            [T.Table("r", Conductors.Get(run.Size!).R20MilliohmPerM, "mΩ/m", run.Size!, "conductors"), at, T.You("m", run.Conductors, "", "in parallel", "/runs")], "Joints are not counted on: the greater fault must be cleared.");
        if (protection is { } p)
            tape.Write("/bus/shortCircuitA", "what the bank can push into a short at the bus", r.ShortCircuitA, "A", "5.4", "{U} ÷ ({R} + {p})",
                [T.Worked("U", p.OpenV, "V", "open circuit", "/protection/openV"), T.Worked("R", p.BankOhm, "ohm", "the bank", "/protection/bankOhm"), T.Worked("p", r.PathOhm, "ohm", "to the bus and back", "/bus/pathOhm")]);
    }
}

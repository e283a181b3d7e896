using InkyBadger.Core.Design;
using InkyBadger.Core.Reference;
using InkyBadger.Core.Working;

namespace InkyBadger.Core.Work;

/// <summary>The main run: design current, fuse rating, the smallest cable that fits or the pinned one, its drop and heat.</summary>
public static class RunStage
{
    /// <summary>Length of a run nobody has measured yet [m].</summary>
    public const double AssumedLengthM = 2;
    public const string AdvisedClass = "class-t";

    /// <summary>
    /// Bolted connections from the posts to the bus: two posts, one at each of two bus bars, two at the shunt and the shunt itself.
    /// </summary>
    public const int BoltedToBus = 7;

    /// <summary>From the bus on: one at each bus bar, two at the inverter.</summary>
    public const int BoltedFromBus = 4;

    /// <summary>Distance from the post of a fuse nobody has placed yet [m].</summary>
    public const double AssumedFuseDistanceM = 0.15;

    public static CablePractice Practice(BankScene scene, Run run)
    {
        var wanted = run.Practice ?? scene.Tables.Own.Practice ?? scene.Rules.Word(PracticeRule(scene));
        return scene.Tables.Practice(scene.Tables.HasPractice(wanted) ? wanted : HouseRuleTable.Get(PracticeRule(scene)).Typical);
    }

    private static string PracticeRule(BankScene scene) =>
        scene.Design.Display.Units == UnitSystem.Imperial ? "cable-practice-awg" : "cable-practice-metric";

    /// <summary>The place's, a hot stretch's, or the run's own [°C].</summary>
    public static double AmbientC(BankScene scene, Run run) =>
        run.AmbientC
        ?? run.Place switch
        {
            RunPlace.Hot => Math.Max(BankScene.HotC, scene.AmbientC),
            RunPlace.Cool => Math.Min(scene.Rules.Number("ambient"), scene.AmbientC),
            _ => scene.AmbientC,
        };

    /// <summary>The house rule next-size-up: the fuse may be above the cable's ampacity.</summary>
    public static bool NextSizeUp(BankScene scene) => scene.Rules.Word("fuse-protects-cable") == "next-size-up";

    public static Step<RunResult> Work(BankWork w) => RunWork.Work(w.Scene, Spec(w));

    /// <summary>The main run as it is to be sized: to the bus, and on to the inverter unless that has a run of its own.</summary>
    internal static RunSpec Spec(BankWork w)
    {
        var (scene, voltage, currents) = (w.Scene, w.Voltage.Need(), w.Currents.Need());
        // What charges the bank flows in the same run, the other way.
        double loads = currents.BankWorstA,
            charging = currents.ChargingA;
        var byCharging = charging >= loads;
        var toInverter = w.Inverter.Value is not null && !scene.HasInverterRun;
        return SpecFor(scene, voltage, Math.Max(loads, charging), toInverter) with
        {
            Starts = StartsOf(w),
            Ends = toInverter ? "post to inverter" : "post to bus",
            WriteDesign = tape => WriteDesign(tape, currents, byCharging),
        };
    }

    /// <summary>The main run for so many amperes [A], whatever draws them.</summary>
    internal static RunSpec SpecFor(BankScene scene, VoltageResult voltage, double amps, bool toInverter = false)
    {
        var run = scene.MainRun;
        var fuse = scene.Tables.Fuse(run.Fuse.Class is { } id && scene.Tables.HasFuse(id) ? id : AdvisedClass);
        return new(
            "/mainRun",
            run,
            fuse,
            amps,
            voltage.NominalV,
            voltage.LowV,
            AssumedLengthM,
            run.DropLimit ?? scene.Rules.Number("drop-limit-main"),
            BoltedToBus + (toInverter ? BoltedFromBus : 0),
            (run.Fuse.Absent ? 0 : 1) + (run.Switch is { Absent: true } ? 0 : 1)
        );
    }

    /// <summary>
    /// What the main run carries when something starts: the worst instant on AC, and each start on DC on top of all that runs.
    /// </summary>
    internal static List<RunStart> StartsOf(BankWork w)
    {
        var starts = new List<RunStart>(2);
        if (w.Loads.Value is not { } loads || w.Currents.Value is not { } currents)
            return starts;
        if (w.Flows.Need().Inverter.SurgeA > 0 && loads.Worst.StartSeconds > 0)
            starts.Add(new(loads.Worst.Starting ?? "the worst instant", currents.SurgeWorstA, loads.Worst.StartSeconds));
        foreach (var load in w.Resolved.Value ?? [])
            if (load.Daily is { Kind: not LoadKind.Ac, EverOn: true, StartExtraW: > 0 and var extra } daily)
                starts.Add(
                    new(
                        load.Name,
                        currents.LoadWorstA
                            + extra
                                / (daily.Kind == LoadKind.Converter ? LoadsStage.AssumedConverterEfficiency : 1)
                                / w.Voltage.Need().LowV,
                        load.StartSeconds
                    )
                );
        return starts;
    }

    private static void WriteDesign(Tape tape, CurrentsResult currents, bool byCharging)
    {
        const string label = "design current of the main run";
        if (byCharging)
            tape.Write(
                "/mainRun/designA",
                label,
                currents.ChargingA,
                "A",
                "6",
                "{c}",
                [T.Worked("c", currents.ChargingA, "A", "all sources together, more than the loads", "/currents/chargingA")]
            );
        else
            tape.Write(
                "/mainRun/designA",
                label,
                currents.BankWorstA,
                "A",
                "6",
                "{I}",
                [T.Worked("I", currents.BankWorstA, "A", "worst current", "/currents/bankWorstA")],
                houseRule: "inverter-run-current"
            );
    }
}

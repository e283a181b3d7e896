using InkyBadger.Core.Design;
using InkyBadger.Core.Reference;
using InkyBadger.Core.Working;

namespace InkyBadger.Core.Wiring;

/// <summary>The main run: design current, fuse rating, the smallest cable that fits or the pinned one, its drop and heat.</summary>
public static class RunStage
{
    /// <summary>Length of a run nobody has measured yet [m].</summary>
    public const double AssumedLengthM = 2;
    public const double HotC = 50;
    public const string AdvisedClass = "class-t";

    /// <summary>Bolted connections of the main loop: two posts, in and out of two bus bars, two at the inverter, two at the shunt, and the shunt itself.</summary>
    public const int BoltedJoints = 11;

    /// <summary>Main fuse and main switch.</summary>
    public const int FuseJoints = 2;

    /// <summary>Distance from the post of a fuse nobody has placed yet [m].</summary>
    public const double AssumedFuseDistanceM = 0.15;

    public static CablePractice Practice(BankScene scene, Run run)
    {
        var wanted = run.Practice ?? scene.Rules.Word(PracticeRule(scene));
        return CablePractices.Get(CablePractices.Has(wanted) ? wanted : HouseRuleTable.Get(PracticeRule(scene)).Typical);
    }

    private static string PracticeRule(BankScene scene) => scene.Design.Display.Units == UnitSystem.Imperial ? "cable-practice-awg" : "cable-practice-metric";

    public static double AmbientC(BankScene scene, Run run, CablePractice practice)
    {
        if (run.AmbientC is { } own) return own;
        var usual = Math.Max(scene.Rules.Number("ambient"), scene.Design.Place.AmbientC ?? double.MinValue);
        var ambient = run.Place == RunPlace.Hot || run.Place is null && scene.Design.Place.Hot ? Math.Max(HotC, usual) : usual;
        return Math.Max(ambient, practice.ReferenceC);
    }

    /// <summary>The house rule next-size-up: the fuse may be above the cable's ampacity.</summary>
    public static bool NextSizeUp(BankScene scene) => scene.Rules.Word("fuse-protects-cable") == "next-size-up";

    public static CableSelectInput SelectInput(BankScene scene, Run run, double designA, double? ratingA, double nominalV)
    {
        var practice = Practice(scene, run);
        return new(practice, designA, nominalV, run.LengthM ?? AssumedLengthM)
        {
            FuseRatingA = ratingA,
            NextSizeUp = NextSizeUp(scene),
            AmbientC = AmbientC(scene, run, practice),
            AllowAboveOne = scene.Rules.Word("ambient-above-one") == "yes",
            BundledConductors = run.Bundled ?? 1,
            DropLimitFraction = scene.Rules.Number("drop-limit-main"),
            BoltedJoints = BoltedJoints,
            FuseJoints = FuseJoints,
        };
    }

    private static double ChargingA(BankScene scene) => scene.Bank.Sources.Sum(s => s.Amps ?? 0);

    public static RunResult? Work(BankScene scene, VoltageResult voltage, CurrentsResult? currents)
    {
        if (currents is null) return null;
        var run = scene.MainRun;
        // What charges the bank flows in the same run, the other way.
        var designA = Math.Max(currents.BankWorstA, ChargingA(scene));
        var fuse = FuseClasses.Get(run.Fuse.Class is { } id && FuseClasses.Has(id) ? id : AdvisedClass);
        var wantedA = Fuse.Margin * designA;
        var advisedRating = fuse.Next(wantedA);
        var ratingA = run.Fuse.Absent ? null : run.Fuse.RatingA ?? advisedRating;
        var input = SelectInput(scene, run, designA, ratingA, voltage.NominalV);
        var selected = CableSelect.Work(input);
        var advised = selected.Choice is { } c ? new CableOption(c.Row.Size, c.Conductors, c.AmpacityA, c.DropFraction) : null;
        // A pinned size that the practice does not list cannot be judged; the finding of that place says so.
        var trial = run.Size is { } size
            ? input.Practice.Has(size) ? CableSelect.Try(input, input.Practice.Get(size), run.Parallel ?? 1) : null
            : selected.Choice;
        CableAmpacityResult? ampacity = trial is null ? null : Cable.Ampacity(trial.Row, input.AmbientC,
            input.BundledConductors == 1 ? 1 : Math.Min(999, input.BundledConductors + 2 * (trial.Conductors - 1)), trial.Conductors, input.AllowAboveOne);
        double? oneWay = trial is null ? null : Cable.Resistance(trial.Row.Conductor.R20MilliohmPerM, input.LengthM, trial.ConductorC, trial.Conductors);
        var joints = Cable.Joints(BoltedJoints, FuseJoints);
        var result = new RunResult(run.Id, input.LengthM, run.LengthM is not null, input.Practice.Id, input.AmbientC ?? 0, designA, wantedA,
            fuse.Id, fuse.Label, run.Fuse.Class is not null, ratingA, run.Fuse.RatingA is not null, advisedRating, run.Fuse.DistanceM ?? AssumedFuseDistanceM,
            run.Size ?? trial?.Row.Size, run.Size is null ? trial?.Conductors ?? 1 : run.Parallel ?? 1, run.Size is not null, advised, selected.Governs, selected.Unmet,
            trial?.Row.Conductor.AreaMm2, ampacity?.TableA, ampacity?.AmbientFactor, ampacity?.BundleFactor, trial?.AmpacityA, trial?.ConductorC, oneWay,
            BoltedJoints, FuseJoints, joints, trial?.DropV, trial?.DropFraction, trial?.DropV / voltage.LowV, input.DropLimitFraction,
            voltage.LowV - trial?.DropV, designA * trial?.DropV);
        if (scene.Tape is { } tape) WriteWorking(tape, scene, run, result, input, trial, voltage);
        return result;
    }

    private static void WriteWorking(Tape tape, BankScene scene, Run run, RunResult r, CableSelectInput input, CableTrial? trial, VoltageResult voltage)
    {
        var byCharging = ChargingA(scene) is var charging && charging > 0 && charging >= r.DesignA;
        var design = byCharging ? T.Worked("I", r.DesignA, "A", "design current", "/mainRun/designA") : T.Worked("I", r.DesignA, "A", "worst current", "/currents/bankWorstA");
        if (byCharging) tape.Write("/mainRun/designA", "design current of the main run", r.DesignA, "A", "6", "{c}", [T.You("c", r.DesignA, "A", "all sources together, more than the loads", "/sources")]);
        else tape.Write("/mainRun/designA", "design current of the main run", r.DesignA, "A", "6", "{I}", [design], houseRule: "inverter-run-current");
        tape.Write("/mainRun/wantedA", "least rating of the fuse", r.WantedA, "A", "7.1", "{m} × {I}", [T.Assumed("m", Fuse.Margin, "", "margin against nuisance"), design]);
        if (r.RatingA is { } rating)
            tape.Write("/mainRun/ratingA", "rating of the main fuse", rating, "rating", "7.1", null,
            [
                r.RatingPinned ? T.You("r", rating, "rating", "pinned by you", "/runs") : T.Table("r", rating, "rating", $"next rating of {r.FuseLabel}", "fuses"),
                T.Worked("w", r.WantedA, "A", "least", "/mainRun/wantedA"),
            ], r.RatingPinned ? "You chose this rating; least is what the current asks for." : "The smallest rating that is made in this class at or above the least.", "fuse-protects-cable");
        if (trial is null) return;
        var practice = input.Practice.Id;
        tape.Write("/mainRun/areaMm2", "cross-section of the main cable", r.AreaMm2, "mm2", "6.4", null,
        [
            T.Table("A", trial.Row.Conductor.AreaMm2, "mm2", Say.Size(trial.Row.Size, trial.Conductors), "conductors"),
            T.Worked("i", r.AmpacityA, "A", "carries", "/mainRun/ampacityA"), T.Worked("f", r.RatingA, "rating", "fuse", "/mainRun/ratingA"), T.Worked("d", r.DropFraction, "fraction", "drop", "/mainRun/dropFraction"),
        ], r.SizePinned ? "Pinned by you." : $"The smallest size that carries the current, is protected by the fuse and keeps the drop: here {GovernsWord(r.Governs)} decides.", "fuse-protects-cable");
        tape.Write("/mainRun/ampacityA", "what the main cable carries here", r.AmpacityA, "A", "6.3", "{t} × {f} × {b} × {m}",
        [
            T.Table("t", r.TableA, "A", $"{trial.Row.Size}, {practice}, typical", "ampacity"),
            T.Table("f", r.AmbientFactor, "", $"at {Say.Number(r.AmbientC)} °C", "ampacity"), T.Table("b", r.BundleFactor, "", input.BundledConductors == 1 ? "nothing touches" : $"{input.BundledConductors} touch", "bundling"),
            T.You("m", r.Conductors, "", "in parallel", "/runs"),
        ], houseRule: practice.Contains("metric") ? "cable-practice-metric" : "cable-practice-awg");
        var bundled = input.BundledConductors == 1 ? 1 : input.BundledConductors + 2 * (trial.Conductors - 1);
        var free = Cable.Temperature(trial.Row, r.DesignA, r.AmbientC, bundled, trial.Conductors);
        tape.Write("/mainRun/conductorC", "temperature of the loaded copper", r.ConductorC, "°C", "6.1", free.Capped ? null : "{a} + ({i} − {r}) × ({I} ÷ ({t} × {b} × {m})) × ({I} ÷ ({t} × {b} × {m}))",
        [
            T.Rule("a", r.AmbientC, "°C", "the place", "ambient"), T.Table("i", trial.Row.InsulationC, "°C", "insulation", "ampacity"), T.Table("r", trial.Row.ReferenceC, "°C", "of the table", "ampacity"),
            design, T.Table("t", r.TableA, "A", trial.Row.Size, "ampacity"), T.Table("b", r.BundleFactor, "", "touching", "bundling"), T.You("m", r.Conductors, "", "in parallel", "/runs"),
        ], free.Capped ? "Held at what the insulation bears: the cable is overloaded or the place is too hot." : null, "ambient");
        var length = r.LengthPinned ? T.You("L", r.LengthM, "m", "post to inverter", "/runs") : T.Assumed("L", r.LengthM, "m", "not measured yet");
        tape.Write("/mainRun/oneWayOhm", "resistance of the cable one way", r.OneWayOhm, "ohm", "6.1", "{r} ÷ 1000 × (1 + 0.00393 × ({T} − 20)) × {L} ÷ {m}",
        [
            T.Table("r", trial.Row.Conductor.R20MilliohmPerM, "mΩ/m", trial.Row.Size, "conductors"), T.Worked("T", r.ConductorC, "°C", "copper", "/mainRun/conductorC"), length,
            T.You("m", r.Conductors, "", "in parallel", "/runs"),
        ]);
        tape.Write("/mainRun/jointsOhm", "resistance of the joints of the loop", r.JointsOhm, "ohm", "6.2", "({n} × {b} + {k} × {f}) ÷ 1000",
        [
            T.Assumed("n", r.BoltedJoints, "", "bolted connections, shunt"), T.Assumed("b", 0.1, "mΩ", "each, typical"), T.Assumed("k", r.FuseJoints, "", "fuse and switch"), T.Assumed("f", 0.2, "mΩ", "each, typical"),
        ]);
        tape.Write("/mainRun/dropV", "drop over the loop", r.DropV, "V", "6.2", "{I} × (2 × {R} + {J})",
            [design, T.Worked("R", r.OneWayOhm, "ohm", "cable one way", "/mainRun/oneWayOhm"), T.Worked("J", r.JointsOhm, "ohm", "joints", "/mainRun/jointsOhm")]);
        tape.Write("/mainRun/dropFraction", "drop of the nominal volts", r.DropFraction, "fraction", "6.2", "{d} ÷ {V}",
            [T.Worked("d", r.DropV, "V", "over the loop", "/mainRun/dropV"), T.Worked("V", voltage.NominalV, "V", "nominal", "/voltage/nominalV")], houseRule: "drop-limit-main");
        tape.Write("/mainRun/endV", "left at the inverter’s terminals, the bank nearly empty", r.EndV, "V", "6.2", "{V} − {d}",
            [T.Worked("V", voltage.LowV, "V", "under load, nearly empty", "/voltage/lowV"), T.Worked("d", r.DropV, "V", "over the loop", "/mainRun/dropV")]);
        tape.Write("/mainRun/heatW", "heat in the loop at full load", r.HeatW, "W", "6.2", "{I} × {d}", [design, T.Worked("d", r.DropV, "V", "over the loop", "/mainRun/dropV")]);
    }

    private static string GovernsWord(CableLimit? governs) => governs switch { CableLimit.Drop => "the drop", CableLimit.Fuse => "the fuse", _ => "the current" };
}

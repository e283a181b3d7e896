using InkyBadger.Core.Design;
using InkyBadger.Core.Reference;
using InkyBadger.Core.Wiring;
using InkyBadger.Core.Working;

namespace InkyBadger.Core.Work;

/// <summary>
/// A run to be sized: where its figures stand in the Evaluation, the document's run, its class of fuse, design current [A] with the terms
/// it comes from, nominal and low volts, length nobody has measured [m], drop limit (a fraction), joints of its loop.
/// </summary>
internal sealed record RunSpec(
    string Pointer,
    Run Run,
    FuseClass Fuse,
    double DesignA,
    double NominalV,
    double LowV,
    double AssumedLengthM,
    double DropLimit,
    int BoltedJoints,
    int FuseJoints
)
{
    /// <summary>What the run is called in the labels of its working.</summary>
    public string Name { get; init; } = "main run";

    /// <summary>What stands before its low volts, and after its drop.</summary>
    public string Ends { get; init; } = "post to inverter";

    /// <summary>The drop that a size is chosen by, where less than its limit is left to it (a fraction); null: the limit.</summary>
    public double? DropAim { get; init; }

    /// <summary>Least copper, where a short that is let through asks for more than the house rule [mm²].</summary>
    public double LeastMm2 { get; init; }

    /// <summary>What flows when loads start, one after the other: the advised fuse holds each.</summary>
    public IReadOnlyList<RunStart> Starts { get; init; } = [];

    /// <summary>How the design current came about.</summary>
    public Action<Tape>? WriteDesign { get; init; }

    /// <summary>Pointer of the low volts in the Evaluation; null: a converter's own output.</summary>
    public string? LowPointer { get; init; } = "/voltage/lowV";
    public string? NominalPointer { get; init; } = "/voltage/nominalV";

    /// <summary>A charge run has no volts at its end: the source makes them.</summary>
    public bool HasEnd { get; init; } = true;
}

/// <summary>What flows in a run when something starts [A], for how long [s], and what it is.</summary>
internal readonly record struct RunStart(string What, double Amps, double Seconds);

/// <summary>Any run: fuse rating, the smallest cable that fits or the pinned one, its drop and heat (method, 6 and 7.1).</summary>
internal static class RunWork
{
    public static CableSelectInput SelectInput(BankScene scene, RunSpec spec, double? ratingA)
    {
        var practice = RunStage.Practice(scene, spec.Run);
        return new(practice, spec.DesignA, spec.NominalV, spec.Run.LengthM ?? spec.AssumedLengthM)
        {
            FuseRatingA = ratingA,
            NextSizeUp = RunStage.NextSizeUp(scene),
            AmbientC = RunStage.AmbientC(scene, spec.Run),
            AllowAboveOne = scene.Rules.Word("ambient-above-one") == "yes",
            BundledConductors = spec.Run.Bundled ?? 1,
            DropLimitFraction = spec.DropAim ?? spec.DropLimit,
            BoltedJoints = spec.BoltedJoints,
            FuseJoints = spec.FuseJoints,
            BoltedJointMilliohm = scene.Rules.BoltedMilliohm,
            FuseJointMilliohm = scene.Rules.FusedMilliohm,
            AtTerminals = true,
            LeastMm2 = Math.Max(spec.LeastMm2, CableSelect.LeastArea(practice.Rows, scene.Rules.Number("least-size"))),
            LeastBad = true,
        };
    }

    /// <summary>
    /// The smallest rating made at or above the least; a larger one where that would open, by a third of its typical time, while a load
    /// starts. Where none holds, the smallest.
    /// </summary>
    public static double? Advised(FuseClass fuse, double wantedA, IReadOnlyList<RunStart> starts)
    {
        var next = fuse.Next(wantedA);
        if (next is null)
            return next;
        foreach (var rating in fuse.RatingsA)
            if (rating >= next && HoldsAll(fuse, rating, starts))
                return rating;
        return next;
    }

    internal static bool HoldsAll(FuseClass fuse, double ratingA, IReadOnlyList<RunStart> starts)
    {
        for (var i = 0; i < starts.Count; i++)
            if (starts[i] is { Amps: > 0, Seconds: > 0 } s && !Fuse.Holds(fuse, ratingA, s.Amps, s.Seconds))
                return false;
        return true;
    }

    public static RunResult Work(BankScene scene, RunSpec spec)
    {
        var (run, at, f) = (spec.Run, spec.Pointer, new Formulas(scene.Tape));
        if (scene.Tape is { } tape)
            spec.WriteDesign?.Invoke(tape);
        var design = f.Worked("I", spec.DesignA, "A", "design current", $"{at}/designA");
        double wantedA = f.Figure(
            "w",
            $"{at}/fuse/wantedA",
            $"least rating of the fuse, {spec.Name}",
            "A",
            "7.1",
            f.Assumed("m", Fuse.Margin, "", "margin against nuisance") * design
        );
        var advisedRating = Advised(spec.Fuse, wantedA, spec.Starts);
        var ratingA = run.Fuse.Absent ? null : run.Fuse.RatingA ?? advisedRating;
        var input = SelectInput(scene, spec, ratingA);
        var selected = CableSelect.Work(input);
        var advised = selected.Choice is { } c ? new CableOption(c.Row.Size, c.Conductors, c.AmpacityA, c.DropFraction) : null;
        // A pinned size thinner than any of the practice cannot be judged; the finding of that place says so.
        var trial = run.Size is { } size
            ? input.Practice.Find(size) is { } row
                ? CableSelect.Try(input, row, run.Parallel ?? 1)
                : null
            : selected.Choice;
        var shared = trial is null ? null : Uneven(run, trial.Conductors);
        CableAmpacityResult? ampacity = trial is null
            ? null
            : Cable.Ampacity(trial.Row, input.AmbientC, Bundled(input, trial.Conductors), trial.Conductors, input.AllowAboveOne);
        var laid = new RunLaid(
            shared?.MeanM ?? input.LengthM,
            run.LengthM is not null || shared is not null,
            input.Practice.Id,
            input.AmbientC ?? 0,
            input.BundledConductors,
            Insulation(run, input.Practice)
        );
        var fuse = new FittedFuse(
            wantedA,
            spec.Fuse.Id,
            spec.Fuse.Label,
            run.Fuse.Class is not null,
            ratingA,
            run.Fuse.RatingA is not null,
            advisedRating,
            run.Fuse.DistanceM ?? RunStage.AssumedFuseDistanceM
        );
        var carries = new RunCarries(
            ampacity?.TableA,
            ampacity?.AmbientFactor,
            ampacity?.BundleFactor,
            shared?.WorstShare,
            ampacity?.AmpacityA * (shared?.Factor ?? 1),
            trial?.ConductorC,
            trial?.FuseLimitA * (shared?.Factor ?? 1),
            trial?.Row.As
        );
        if (scene.Tape is { } asked)
            RunWorking.Write(asked, spec, fuse, laid, carries, input, trial, shared);
        var (oneWayOhm, joints, drop) = Lost(f, scene.Rules, spec, laid, trial, shared is not null);
        var result = new RunResult(
            run.Id,
            spec.DesignA,
            spec.DropLimit,
            laid,
            fuse,
            new(
                run.Size ?? trial?.Row.Size,
                run.Size is null ? trial?.Conductors ?? 1 : run.Parallel ?? 1,
                run.Size is not null,
                advised,
                selected.Governs,
                selected.Unmet,
                trial?.Row.Conductor.AreaMm2,
                oneWayOhm
            ),
            carries,
            joints,
            drop
        );
        if (scene.Tape is { } last && trial is not null)
            RunWorking.WriteSize(last, spec, result, trial);
        return result;
    }

    /// <summary>Resistance of the cable one way and of the joints, and what is lost over the loop (method, 6.1 and 6.2).</summary>
    private static (double? OneWayOhm, RunJoints Joints, RunDrop Drop) Lost(
        Formulas f,
        DesignRules rules,
        RunSpec spec,
        RunLaid laid,
        CableTrial? trial,
        bool isMean
    )
    {
        var at = spec.Pointer;
        if (trial is null)
            return (
                null,
                new(spec.BoltedJoints, spec.FuseJoints, Cable.Joints(rules, spec.BoltedJoints, spec.FuseJoints)),
                new(null, null, null, null, null)
            );
        var oneWay = f.Figure(
            "R",
            $"{at}/cable/oneWayOhm",
            $"resistance of the cable one way, {spec.Name}",
            "ohm",
            "6.1",
            Cable.Resistance(
                f.Table("r", trial.Row.Conductor.R20MilliohmPerM, "mΩ/m", trial.Row.Size, "conductors"),
                laid.LengthPinned
                    ? f.You("L", laid.LengthM, "m", isMean ? "harmonic mean of the lengths" : spec.Ends, "/runs")
                    : f.Assumed("L", laid.LengthM, "m", "not measured yet"),
                f.Worked("T", trial.ConductorC, "°C", "copper", $"{at}/carries/conductorC"),
                f.You("m", trial.Conductors, "", "in parallel", "/runs")
            )
        );
        var joints = f.Figure(
            "J",
            $"{at}/joints/ohm",
            $"resistance of the joints, {spec.Name}",
            "ohm",
            "6.2",
            Cable.Joints(
                f.Assumed("n", spec.BoltedJoints, "", "bolted connections, shunt"),
                f.Assumed("k", spec.FuseJoints, "", "fuse and switch"),
                f.Rule("b", rules.BoltedMilliohm, "mΩ", "each", "joint-bolted"),
                f.Rule("f", rules.FusedMilliohm, "mΩ", "each", "joint-fused")
            ),
            houseRule: "joint-bolted"
        );
        var design = f.Worked("I", spec.DesignA, "A", "design current", $"{at}/designA");
        var drop = f.Figure("d", $"{at}/drop/v", $"drop over the loop, {spec.Name}", "V", "6.2", Cable.LoopDropV(design, oneWay, joints));
        double fraction = f.Figure(
            "f",
            $"{at}/drop/fraction",
            $"drop of the nominal volts, {spec.Name}",
            "fraction",
            "6.2",
            drop / Volts(f, spec.NominalV, "nominal", spec.NominalPointer),
            houseRule: "drop-limit-main"
        );
        double? endV = spec.HasEnd
            ? f.Figure(
                "v",
                $"{at}/drop/endV",
                $"left at the end{(spec.LowPointer is null ? "" : ", the bank nearly empty")}, {spec.Name}",
                "V",
                "6.2",
                Volts(f, spec.LowV, spec.LowPointer is null ? "converter’s output" : "under load, nearly empty", spec.LowPointer) - drop
            )
            : null;
        double heatW = f.Figure("W", $"{at}/drop/heatW", $"heat in the loop at full load, {spec.Name}", "W", "6.2", design * drop);
        return (oneWay, new(spec.BoltedJoints, spec.FuseJoints, joints), new(drop, fraction, drop / spec.LowV, endV, heatW));
    }

    private static Num Volts(Formulas f, double volts, string label, string? pointer) =>
        pointer is null ? f.Assumed("V", volts, "V", label) : f.Worked("V", volts, "V", label, pointer);

    internal static int Bundled(CableSelectInput input, int conductors) =>
        input.BundledConductors == 1 ? 1 : Math.Min(999, input.BundledConductors + 2 * (conductors - 1));

    /// <summary>Thermosetting insulation of 70 or 75 °C has no figure of its own: the gentler one stands in.</summary>
    private static InsulationKind Insulation(Run run, CablePractice practice) =>
        practice.InsulationC >= 90 ? run.Insulation ?? InsulationKind.Thermoplastic : InsulationKind.Thermoplastic;

    /// <summary>
    /// Conductors in parallel of unequal length: the shortest takes more than its share, so that all together carry less.
    /// </summary>
    private static UnevenLengths? Uneven(Run run, int conductors)
    {
        if (conductors < 2 || run.ConductorLengthsM.Count != conductors)
            return null;
        double sum = 0,
            shortest = double.MaxValue;
        foreach (var metres in run.ConductorLengthsM)
        {
            sum += 1 / metres;
            shortest = Math.Min(shortest, metres);
        }
        var worst = 1 / shortest / sum;
        return new(conductors / sum, worst, 1 / (conductors * worst));
    }

    internal sealed record UnevenLengths(double MeanM, double WorstShare, double Factor);
}

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

    /// <summary>How the design current came about.</summary>
    public Action<Tape>? WriteDesign { get; init; }

    /// <summary>Pointer of the low volts in the Evaluation; null: a converter's own output.</summary>
    public string? LowPointer { get; init; } = "/voltage/lowV";
    public string? NominalPointer { get; init; } = "/voltage/nominalV";

    /// <summary>A charge run has no volts at its end: the source makes them.</summary>
    public bool HasEnd { get; init; } = true;
}

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
            AmbientC = RunStage.AmbientC(scene, spec.Run, practice),
            AllowAboveOne = scene.Rules.Word("ambient-above-one") == "yes",
            BundledConductors = spec.Run.Bundled ?? 1,
            DropLimitFraction = spec.DropLimit,
            BoltedJoints = spec.BoltedJoints,
            FuseJoints = spec.FuseJoints,
        };
    }

    public static RunResult Work(BankScene scene, RunSpec spec)
    {
        var run = spec.Run;
        var wantedA = Fuse.Margin * spec.DesignA;
        var advisedRating = spec.Fuse.Next(wantedA);
        var ratingA = run.Fuse.Absent ? null : run.Fuse.RatingA ?? advisedRating;
        var input = SelectInput(scene, spec, ratingA);
        var selected = CableSelect.Work(input);
        var advised = selected.Choice is { } c ? new CableOption(c.Row.Size, c.Conductors, c.AmpacityA, c.DropFraction) : null;
        // A pinned size that the practice does not list cannot be judged; the finding of that place says so.
        var trial = run.Size is { } size
            ? input.Practice.Has(size)
                ? CableSelect.Try(input, input.Practice.Get(size), run.Parallel ?? 1)
                : null
            : selected.Choice;
        var shared = trial is null ? null : Uneven(run, trial.Conductors);
        var lengthM = shared?.MeanM ?? input.LengthM;
        CableAmpacityResult? ampacity = trial is null
            ? null
            : Cable.Ampacity(trial.Row, input.AmbientC, Bundled(input, trial.Conductors), trial.Conductors, input.AllowAboveOne);
        double? oneWay = trial is null
            ? null
            : Cable.Resistance(trial.Row.Conductor.R20MilliohmPerM, lengthM, trial.ConductorC, trial.Conductors);
        var joints = Cable.Joints(spec.BoltedJoints, spec.FuseJoints);
        var dropV = spec.DesignA * (2 * oneWay + joints);
        var result = new RunResult(
            run.Id,
            spec.DesignA,
            input.DropLimitFraction,
            new(
                lengthM,
                run.LengthM is not null || shared is not null,
                input.Practice.Id,
                input.AmbientC ?? 0,
                input.BundledConductors,
                Insulation(run, input.Practice)
            ),
            new(
                wantedA,
                spec.Fuse.Id,
                spec.Fuse.Label,
                run.Fuse.Class is not null,
                ratingA,
                run.Fuse.RatingA is not null,
                advisedRating,
                run.Fuse.DistanceM ?? RunStage.AssumedFuseDistanceM
            ),
            new(
                run.Size ?? trial?.Row.Size,
                run.Size is null ? trial?.Conductors ?? 1 : run.Parallel ?? 1,
                run.Size is not null,
                advised,
                selected.Governs,
                selected.Unmet,
                trial?.Row.Conductor.AreaMm2,
                oneWay
            ),
            new(
                ampacity?.TableA,
                ampacity?.AmbientFactor,
                ampacity?.BundleFactor,
                shared?.WorstShare,
                ampacity?.AmpacityA * (shared?.Factor ?? 1),
                trial?.ConductorC
            ),
            new(spec.BoltedJoints, spec.FuseJoints, joints),
            new(dropV, dropV / spec.NominalV, dropV / spec.LowV, spec.HasEnd ? spec.LowV - dropV : null, spec.DesignA * dropV)
        );
        if (scene.Tape is { } tape)
            WriteWorking(tape, spec, result, input, trial, shared);
        return result;
    }

    private static int Bundled(CableSelectInput input, int conductors) =>
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

    private sealed record UnevenLengths(double MeanM, double WorstShare, double Factor);

    private static void WriteWorking(Tape tape, RunSpec spec, RunResult r, CableSelectInput input, CableTrial? trial, UnevenLengths? shared)
    {
        var at = spec.Pointer;
        spec.WriteDesign?.Invoke(tape);
        var design = T.Worked("I", r.DesignA, "A", "design current", at + "/designA");
        tape.Write(
            at + "/fuse/wantedA",
            $"least rating of the fuse, {spec.Name}",
            r.Fuse.WantedA,
            "A",
            "7.1",
            "{m} × {I}",
            [T.Assumed("m", Fuse.Margin, "", "margin against nuisance"), design]
        );
        if (r.Fuse.RatingA is { } rating)
            tape.Write(
                at + "/fuse/ratingA",
                $"rating of the fuse, {spec.Name}",
                rating,
                "rating",
                "7.1",
                null,
                [
                    r.Fuse.RatingPinned
                        ? T.You("r", rating, "rating", "pinned by you", "/runs")
                        : T.Table("r", rating, "rating", $"next rating of {r.Fuse.Label}", "fuses"),
                    T.Worked("w", r.Fuse.WantedA, "A", "least", at + "/fuse/wantedA"),
                ],
                r.Fuse.RatingPinned
                    ? "You chose this rating; least is what the current asks for."
                    : "The smallest rating that is made in this class at or above the least.",
                "fuse-protects-cable"
            );
        if (trial is null)
            return;
        var practice = input.Practice.Id;
        tape.Write(
            at + "/cable/areaMm2",
            $"cross-section of the cable, {spec.Name}",
            r.Cable.AreaMm2,
            "mm2",
            "6.4",
            null,
            [
                T.Table("A", trial.Row.Conductor.AreaMm2, "mm2", Say.Size(trial.Row.Size, trial.Conductors), "conductors"),
                T.Worked("i", r.Carries.AmpacityA, "A", "carries", at + "/carries/ampacityA"),
                .. r.Fuse.RatingA is null ? Array.Empty<Term>() : [T.Worked("f", r.Fuse.RatingA, "rating", "fuse", at + "/fuse/ratingA")],
                T.Worked("d", r.Drop.Fraction, "fraction", "drop", at + "/drop/fraction"),
            ],
            r.Cable.Pinned
                ? "Pinned by you."
                : $"The smallest size that carries the current, is protected by the fuse and keeps the drop: here "
                    + $"{GovernsWord(r.Cable.Governs)} decides.",
            "fuse-protects-cable"
        );
        Term[] carries =
        [
            T.Table("t", r.Carries.TableA, "A", $"{trial.Row.Size}, {practice}, typical", "ampacity"),
            T.Table("f", r.Carries.AmbientFactor, "", $"at {Say.Number(r.Laid.AmbientC)} °C", "ampacity"),
            T.Table(
                "b",
                r.Carries.BundleFactor,
                "",
                input.BundledConductors == 1 ? "nothing touches" : $"{input.BundledConductors} touch",
                "bundling"
            ),
            T.You("m", r.Cable.Conductors, "", "in parallel", "/runs"),
            .. shared is null ? Array.Empty<Term>() : [T.You("u", shared.Factor, "", "unequal lengths", "/runs")],
        ];
        tape.Write(
            at + "/carries/ampacityA",
            $"what the cable carries here, {spec.Name}",
            r.Carries.AmpacityA,
            "A",
            "6.3",
            shared is null ? "{t} × {f} × {b} × {m}" : "{t} × {f} × {b} × {m} × {u}",
            carries,
            shared is null
                ? null
                : $"The shortest of them takes {Say.Percent(shared.WorstShare)} of the current and must not be overloaded.",
            practice.Contains("metric") ? "cable-practice-metric" : "cable-practice-awg"
        );
        var free = Cable.Temperature(trial.Row, r.DesignA, r.Laid.AmbientC, Bundled(input, trial.Conductors), trial.Conductors);
        tape.Write(
            at + "/carries/conductorC",
            $"temperature of the loaded copper, {spec.Name}",
            r.Carries.ConductorC,
            "°C",
            "6.1",
            free.Capped ? null : "{a} + ({i} − {r}) × ({I} ÷ ({t} × {b} × {m})) × ({I} ÷ ({t} × {b} × {m}))",
            [
                T.Rule("a", r.Laid.AmbientC, "°C", "the place", "ambient"),
                T.Table("i", trial.Row.InsulationC, "°C", "insulation", "ampacity"),
                T.Table("r", trial.Row.ReferenceC, "°C", "of the table", "ampacity"),
                design,
                T.Table("t", r.Carries.TableA, "A", trial.Row.Size, "ampacity"),
                T.Table("b", r.Carries.BundleFactor, "", "touching", "bundling"),
                T.You("m", r.Cable.Conductors, "", "in parallel", "/runs"),
            ],
            free.Capped ? "Held at what the insulation bears: the cable is overloaded or the place is too hot." : null,
            "ambient"
        );
        var length = r.Laid.LengthPinned
            ? T.You("L", r.Laid.LengthM, "m", shared is null ? spec.Ends : "harmonic mean of the lengths", "/runs")
            : T.Assumed("L", r.Laid.LengthM, "m", "not measured yet");
        tape.Write(
            at + "/cable/oneWayOhm",
            $"resistance of the cable one way, {spec.Name}",
            r.Cable.OneWayOhm,
            "ohm",
            "6.1",
            "{r} ÷ 1000 × (1 + 0.00393 × ({T} − 20)) × {L} ÷ {m}",
            [
                T.Table("r", trial.Row.Conductor.R20MilliohmPerM, "mΩ/m", trial.Row.Size, "conductors"),
                T.Worked("T", r.Carries.ConductorC, "°C", "copper", at + "/carries/conductorC"),
                length,
                T.You("m", r.Cable.Conductors, "", "in parallel", "/runs"),
            ]
        );
        tape.Write(
            at + "/joints/ohm",
            $"resistance of the joints, {spec.Name}",
            r.Joints.Ohm,
            "ohm",
            "6.2",
            "({n} × {b} + {k} × {f}) ÷ 1000",
            [
                T.Assumed("n", r.Joints.Bolted, "", "bolted connections, shunt"),
                T.Assumed("b", 0.1, "mΩ", "each, typical"),
                T.Assumed("k", r.Joints.Fused, "", "fuse and switch"),
                T.Assumed("f", 0.2, "mΩ", "each, typical"),
            ]
        );
        tape.Write(
            at + "/drop/v",
            $"drop over the loop, {spec.Name}",
            r.Drop.V,
            "V",
            "6.2",
            "{I} × (2 × {R} + {J})",
            [
                design,
                T.Worked("R", r.Cable.OneWayOhm, "ohm", "cable one way", at + "/cable/oneWayOhm"),
                T.Worked("J", r.Joints.Ohm, "ohm", "joints", at + "/joints/ohm"),
            ]
        );
        tape.Write(
            at + "/drop/fraction",
            $"drop of the nominal volts, {spec.Name}",
            r.Drop.Fraction,
            "fraction",
            "6.2",
            "{d} ÷ {V}",
            [T.Worked("d", r.Drop.V, "V", "over the loop", at + "/drop/v"), Volts("V", spec.NominalV, "nominal", spec.NominalPointer)],
            houseRule: "drop-limit-main"
        );
        tape.Write(
            at + "/drop/endV",
            spec.LowPointer is null ? $"left at the end, {spec.Name}" : $"left at the end, the bank nearly empty, {spec.Name}",
            r.Drop.EndV,
            "V",
            "6.2",
            "{V} − {d}",
            [
                Volts("V", spec.LowV, spec.LowPointer is null ? "converter’s output" : "under load, nearly empty", spec.LowPointer),
                T.Worked("d", r.Drop.V, "V", "over the loop", at + "/drop/v"),
            ]
        );
        tape.Write(
            at + "/drop/heatW",
            $"heat in the loop at full load, {spec.Name}",
            r.Drop.HeatW,
            "W",
            "6.2",
            "{I} × {d}",
            [design, T.Worked("d", r.Drop.V, "V", "over the loop", at + "/drop/v")]
        );
    }

    private static Term Volts(string key, double volts, string label, string? pointer) =>
        pointer is null ? T.Assumed(key, volts, "V", label) : T.Worked(key, volts, "V", label, pointer);

    private static string GovernsWord(CableLimit? governs) =>
        governs switch
        {
            CableLimit.Drop => "the drop",
            CableLimit.Fuse => "the fuse",
            _ => "the current",
        };
}

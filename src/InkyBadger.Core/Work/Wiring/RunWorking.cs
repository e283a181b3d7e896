using InkyBadger.Core.Reference;
using InkyBadger.Core.Wiring;
using InkyBadger.Core.Working;

namespace InkyBadger.Core.Work;

/// <summary>
/// The working of what a run's calculations choose: the rating of its fuse, what its cable carries, its size. What is lost in it is
/// written where it is worked out.
/// </summary>
internal static class RunWorking
{
    public static void Write(
        Tape tape,
        RunSpec spec,
        FittedFuse fuse,
        RunLaid laid,
        RunCarries carries,
        CableSelectInput input,
        CableTrial? trial,
        RunWork.UnevenLengths? shared
    )
    {
        var at = spec.Pointer;
        var design = T.Worked("I", spec.DesignA, "A", "design current", at + "/designA");
        if (fuse.RatingA is { } rating)
            tape.Write(
                at + "/fuse/ratingA",
                $"rating of the fuse, {spec.Name}",
                rating,
                "rating",
                "7.1",
                null,
                [
                    fuse.RatingPinned
                        ? T.You("r", rating, "rating", "pinned by you", "/runs")
                        : T.Table("r", rating, "rating", $"next rating of {fuse.Label}", "fuses"),
                    T.Worked("w", fuse.WantedA, "A", "least", at + "/fuse/wantedA"),
                ],
                fuse.RatingPinned
                    ? "You chose this rating; least is what the current asks for."
                    : "The smallest rating that is made in this class at or above the least.",
                "fuse-protects-cable"
            );
        if (trial is null)
            return;
        var practice = input.Practice.Id;
        Term[] factors =
        [
            T.Table("t", carries.TableA, "A", $"{trial.Row.Size}, {practice}, typical", "ampacity"),
            T.Table("f", carries.AmbientFactor, "", $"at {Say.Number(laid.AmbientC)} °C", "ampacity"),
            T.Table(
                "b",
                carries.BundleFactor,
                "",
                input.BundledConductors == 1 ? "nothing touches" : $"{input.BundledConductors} touch",
                "bundling"
            ),
            T.You("m", trial.Conductors, "", "in parallel", "/runs"),
            .. shared is null ? Array.Empty<Term>() : [T.You("u", shared.Factor, "", "unequal lengths", "/runs")],
        ];
        tape.Write(
            at + "/carries/ampacityA",
            $"what the cable carries here, {spec.Name}",
            carries.AmpacityA,
            "A",
            "6.3",
            shared is null ? "{t} × {f} × {b} × {m}" : "{t} × {f} × {b} × {m} × {u}",
            factors,
            shared is null
                ? null
                : $"The shortest of them takes {Say.Percent(shared.WorstShare)} of the current and must not be overloaded.",
            practice.Contains("metric") ? "cable-practice-metric" : "cable-practice-awg"
        );
        var free = Cable.Temperature(trial.Row, spec.DesignA, laid.AmbientC, RunWork.Bundled(input, trial.Conductors), trial.Conductors);
        tape.Write(
            at + "/carries/conductorC",
            $"temperature of the loaded copper, {spec.Name}",
            carries.ConductorC,
            "°C",
            "6.1",
            free.Capped ? null : "{a} + ({i} − {r}) × ({I} ÷ ({t} × {b} × {m})) × ({I} ÷ ({t} × {b} × {m}))",
            [
                T.Rule("a", laid.AmbientC, "°C", "the place", "ambient"),
                T.Table("i", trial.Row.InsulationC, "°C", "insulation", "ampacity"),
                T.Table("r", trial.Row.ReferenceC, "°C", "of the table", "ampacity"),
                design,
                T.Table("t", carries.TableA, "A", trial.Row.Size, "ampacity"),
                T.Table("b", carries.BundleFactor, "", "touching", "bundling"),
                T.You("m", trial.Conductors, "", "in parallel", "/runs"),
            ],
            free.Capped ? "Held at what the insulation bears: the cable is overloaded or the place is too hot." : null,
            "ambient"
        );
    }

    /// <summary>The size, which rests on all of the others.</summary>
    public static void WriteSize(Tape tape, RunSpec spec, RunResult r, CableTrial trial)
    {
        var at = spec.Pointer;
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
    }

    private static string GovernsWord(CableLimit? governs) =>
        governs switch
        {
            CableLimit.Drop => "the drop",
            CableLimit.Fuse => "the fuse",
            CableLimit.Least => "the least that is laid",
            _ => "the current",
        };
}

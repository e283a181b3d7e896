using InkyBadger.Core.Reference;
using InkyBadger.Core.Wiring;
using InkyBadger.Core.Work;

namespace InkyBadger.Core.Findings;

/// <summary>What can be wrong with any run: its fuse, its cable, its switch.</summary>
internal static class RunFindings
{
    public static RunRule[] OfEachRun { get; } =
    [
        NoFuse,
        UnknownSize,
        NoCable,
        FuseRating,
        FuseAboveCable,
        FuseVolts,
        FuseInterrupt,
        FuseFar,
        FuseAtStart,
        TooThin,
        Drop,
        Hot,
        Unequal,
        Touching,
        SwitchRating,
    ];

    private static Finding? NoFuse(FindingScene s, RunView v) =>
        !v.Doc.Fuse.Absent
            ? null
            : s.Make(
                "fuse.none",
                Grade.Danger,
                Station.Cables,
                v.Place,
                v.IsMain ? "No fuse at the bank" : $"No fuse on {v.Name}",
                $"A short anywhere along the run draws " + $"{Short(v)} until something burns.",
                [new("short circuit", v.ShortA ?? 0, "A")],
                v.Mend(s, v.IsMain ? "Put a fuse at the post" : "Put a fuse in", "as advised", r => r with { Fuse = new() })
            );

    private static string Short(RunView v) =>
        v.ShortA is { } amps ? Say.A(amps)
        : v.IsMain ? "all the bank can push"
        : "all that feeds it can push";

    private static Finding? UnknownSize(FindingScene s, RunView v)
    {
        if (v.Run is not { Cable.Pinned: true, Carries.AmpacityA: null, Cable.Advised: { } advised } run)
            return null;
        return s.Make(
            "cable.size",
            Grade.Fault,
            Station.Cables,
            v.Place,
            $"{v.Lead}{run.Cable.Size} is not in {run.Laid.Practice}",
            "The table of the practice chosen does not list it: use a size that is sold.",
            [new("wanted ampacity", run.DesignA, "A")],
            v.UseSize(s, advised)
        );
    }

    private static Finding? NoCable(FindingScene s, RunView v)
    {
        if (v.Run is not { Cable.Advised: null, Cable.Pinned: false } run)
            return null;
        var unmet = run.Cable.Unmet ?? [];
        var limits = string.Join(
            " and ",
            unmet.Select(u =>
                u switch
                {
                    CableLimit.Drop => "the drop",
                    CableLimit.Fuse => "the fuse",
                    _ => "the current",
                }
            )
        );
        List<MendOffer> mends = [];
        // Where the drop alone stands in the way, a load that bears more of it may be allowed to.
        if (!v.IsMain && unmet is [CableLimit.Drop] && run.DropLimit < RelaxedDrop)
            mends.Add(
                v.Mend(s, $"Allow {Say.Percent(RelaxedDrop, 0)} here", "for a load that bears it", r => r with { DropLimit = RelaxedDrop })
            );
        if (run.Fuse.Class != RunStage.AdvisedClass && unmet is [CableLimit.Fuse])
            mends.AddRange(v.ClassThatFits(s));
        return s.Make(
            "cable.none",
            Grade.Fault,
            Station.Cables,
            v.Place,
            $"{v.Lead}{(v.IsMain ? "No" : "no")} cable of the table meets it",
            $"Even three of the largest in parallel fail {limits}. {JointsAlone(s, run)}Shorten the run, split it, or take a "
                + $"higher voltage.",
            [new("design current", run.DesignA, "A"), new("length", run.Laid.LengthM, "m")],
            () => s.HigherVoltages().Concat(mends)
        );
    }

    /// <summary>The drop allowed to loads that tolerate it.</summary>
    private const double RelaxedDrop = 0.1;

    /// <summary>No copper mends what the joints lose.</summary>
    private static string JointsAlone(FindingScene s, RunResult run)
    {
        var share = run.DesignA * run.Joints.Ohm / s.Results.Voltage!.NominalV;
        return share < run.DropLimit ? "" : $"Its joints alone take {Say.Percent(share)}. ";
    }

    private static Finding? FuseRating(FindingScene s, RunView v)
    {
        var run = v.Run;
        if (!v.Fails.Contains(FuseFailure.Rating))
            return null;
        if (run.Fuse.RatingA is not { } rating)
            return s.Make(
                "fuse.rating",
                Grade.Fault,
                Station.Cables,
                v.Place,
                $"{v.Lead}{run.Fuse.Label} is not made for {Say.A(run.Fuse.WantedA)}",
                "No rating of this class is large enough. A higher voltage asks for less current; or the bank is split on two runs.",
                [new("least rating", run.Fuse.WantedA, "A")],
                () => v.ClassThatFits(s).Concat(s.HigherVoltages())
            );
        return s.Make(
            "fuse.nuisance",
            Grade.Fault,
            Station.Cables,
            v.Place,
            $"{v.Lead}{(v.IsMain ? "The" : "the")} {Say.Rating(rating)} fuse is too small",
            $"Full load is {Say.A(run.DesignA)}; with the usual margin the fuse is {Say.A(run.Fuse.WantedA)} or more, or it opens in "
                + $"ordinary use.",
            [new("fuse", rating, "A"), new("least", run.Fuse.WantedA, "A")],
            run.Fuse.AdvisedRatingA is { } next
                ?
                [
                    v.Mend(
                        s,
                        $"Use {Say.Rating(next)}",
                        "the next rating made",
                        r => r with { Fuse = r.Fuse with { RatingA = null } },
                        "rating"
                    ),
                    v.Mend(
                        s,
                        $"Use {Say.Rating(next)}",
                        "with the cable it asks for",
                        r => r with { Fuse = r.Fuse with { RatingA = null }, Size = null, Parallel = null, ConductorLengthsM = [] },
                        "rating"
                    ),
                ]
                : []
        );
    }

    private static Finding? FuseAboveCable(FindingScene s, RunView v)
    {
        if (
            v.Run is not { Fuse.RatingA: { } rating, Carries.AmpacityA: { } ampacity, Cable.Size: { } size } run
            || !v.Fails.Contains(FuseFailure.Cable)
        )
            return null;
        var mends = new List<MendOffer>();
        if (run.Cable.Advised is { } advised && (advised.Size != size || advised.Conductors != run.Cable.Conductors))
            mends.Add(v.UseSize(s, advised));
        if (run.Fuse.AdvisedRatingA is { } next && next < rating && Tolerant.AtLeast(ampacity, next))
            mends.Add(
                v.Mend(s, $"Use a {Say.Rating(next)} fuse", $"below the {Say.A(ampacity)} the cable carries", r =>
                    r with
                    {
                        Fuse = r.Fuse with { RatingA = null },
                    }
                )
            );
        return s.Make(
            "fuse.above-cable",
            Grade.Danger,
            Station.Cables,
            v.Place,
            $"{v.Lead}{(v.IsMain ? "The" : "the")} fuse lets {Say.A(rating - ampacity)} more through than the cable bears",
            $"{Say.Rating(rating)} on {v.Cable} that carries {Say.A(ampacity)} here: the cable burns before the fuse opens.",
            [new("fuse", rating, "A"), new("ampacity", ampacity, "A")],
            [.. mends]
        );
    }

    private static Finding? FuseVolts(FindingScene s, RunView v) =>
        !v.Fails.Contains(FuseFailure.Voltage)
            ? null
            : s.Make(
                "fuse.voltage",
                Grade.Danger,
                Station.Cables,
                v.Place,
                $"{v.Lead}{(v.IsMain ? "A" : "a")} {Say.V(v.MaxDcV)} fuse on {Say.V(v.GreatestV)}",
                "Above its voltage a fuse melts and goes on burning as an arc.",
                [new("fuse", v.MaxDcV, "V"), new("bank, charging", v.GreatestV, "V")],
                [.. v.ClassThatFits(s)]
            );

    private static Finding? FuseInterrupt(FindingScene s, RunView v)
    {
        if (v.ShortA is not { } shortA || v.ReliesOn is not null || !v.Fails.Contains(FuseFailure.Interrupt))
            return null;
        return s.Make(
            "fuse.interrupt",
            Grade.Danger,
            Station.Cables,
            v.Place,
            $"{v.Lead}{(v.IsMain ? "The" : "the")} fuse cannot break a short",
            $"The bank can push {Say.A(shortA)}{(v.IsMain ? "" : " to here")}{(v.Assumed ? " (resistance assumed)" : "")}; this "
                + $"class breaks {Say.A(v.InterruptA)}. Above that it may burst and go on feeding the fault.",
            [new("short circuit", shortA, "A"), new("interrupt rating", v.InterruptA, "A")],
            [.. v.ClassThatFits(s)]
        );
    }

    private static Finding? FuseFar(FindingScene s, RunView v)
    {
        var rule = s.Scene.Rules.Number("fuse-distance");
        if (v.Doc.Fuse.Absent || !Tolerant.Exceeds(v.Run.Fuse.DistanceM, rule))
            return null;
        return s.Make(
            "fuse.far",
            Grade.Danger,
            Station.Cables,
            v.Place,
            $"{v.Lead}{s.Scene.Length(v.Run.Fuse.DistanceM)} without a fuse",
            $"The stretch from {(v.IsMain ? "the post" : "where it begins")} to the fuse has no protection: "
                + $"{s.Scene.Length(rule)} at most.",
            [new("distance", v.Run.Fuse.DistanceM, "m"), new("rule", rule, "m")],
            v.Mend(
                s,
                v.IsMain ? "Fuse to the post" : "Fuse to its beginning",
                $"{s.Scene.Length(RunStage.AssumedFuseDistanceM)} from it",
                r => r with { Fuse = r.Fuse with { DistanceM = null } }
            )
        );
    }

    /// <summary>The typical time to open, a third of it, against how long the load's start lasts.</summary>
    private static Finding? FuseAtStart(FindingScene s, RunView v)
    {
        if (
            s.Results.Circuits.FirstOrDefault(c => c.Id == v.Doc.Id)
                is not { Fuse: { Surge.Amps: { } amps, Surge.Seconds: { } lasts, Surge.Opens: true, Surge.AfterS: { } opens } } c
            || c.Run.Fuse.RatingA is not { } rating
        )
            return null;
        if (Tolerant.AtLeast(opens / CircuitStage.HoldSpread, lasts))
            return null;
        var fuse = FuseClasses.Get(c.Run.Fuse.Class);
        var larger = fuse.RatingsA.FirstOrDefault(r =>
            r > rating
            && (!Fuse.OpeningTime(fuse, r, amps).Opens || Fuse.OpeningTime(fuse, r, amps).Seconds / CircuitStage.HoldSpread >= lasts)
        );
        return s.Make(
            "fuse.start",
            Grade.Caution,
            Station.Cables,
            v.Place,
            $"{v.Name}: the fuse may open at its start",
            $"{Say.A(amps)} for {Say.Seconds(lasts)}; a {Say.Rating(rating)} fuse of this class opens after about "
                + $"{Say.Seconds(opens)}, and may in a third of that.",
            [new("start", amps, "A"), new("lasts", lasts, "s"), new("opens after about", opens, "s")],
            larger > 0
                ?
                [
                    v.Mend(
                        s,
                        $"Use {Say.Rating(larger)}",
                        c.Run.Carries.AmpacityA >= larger ? "the cable bears it" : "and the cable it asks for",
                        r => r with { Fuse = r.Fuse with { RatingA = larger }, Size = null, Parallel = null }
                    ),
                ]
                : []
        );
    }

    private static Finding? TooThin(FindingScene s, RunView v)
    {
        if (v.Run is not { Carries.AmpacityA: { } ampacity, Cable.Size: not null } run || Tolerant.AtLeast(ampacity, run.DesignA))
            return null;
        return s.Make(
            "cable.thin",
            Grade.Danger,
            Station.Cables,
            v.Place,
            $"{v.Lead}{v.Cable} is too thin for {Say.A(run.DesignA)}",
            $"Here it carries {Say.A(ampacity)}; more makes it hotter than its insulation bears.",
            [new("ampacity", ampacity, "A"), new("design current", run.DesignA, "A")],
            run.Cable.Advised is { } a ? [v.UseSize(s, a)] : []
        );
    }

    private static Finding? Drop(FindingScene s, RunView v)
    {
        if (v.Run is not { Drop.Fraction: { } drop, Drop.V: { } volts } run || Tolerant.AtLeast(run.DropLimit, drop))
            return null;
        return s.Make(
            "cable.drop",
            Grade.Caution,
            Station.Cables,
            v.Place,
            v.IsMain ? $"The run drops {Say.Percent(drop)}" : $"{v.Name} loses {Say.Percent(drop)} on its cable",
            $"{Say.Number(volts, 2)} V and {Say.W(run.Drop.HeatW ?? 0)} of heat at full load; "
                + $"{Say.Percent(run.DropLimit)} is allowed here.",
            [new("drop", drop, "fraction"), new("limit", run.DropLimit, "fraction")],
            run.Cable.Advised is { } a ? [v.UseSize(s, a)] : []
        );
    }

    private static Finding? Hot(FindingScene s, RunView v) =>
        v.Run is not { Carries.ConductorC: { } hot, Cable.Size: { } size } run
        || hot < CablePractices.Get(run.Laid.Practice).InsulationC - 0.5
            ? null
            : s.Make(
                "cable.hot",
                Grade.Caution,
                Station.Cables,
                v.Place,
                $"{v.Lead}{(v.IsMain ? "The" : "the")} copper reaches {Say.Number(hot)} °C",
                $"{v.Cable} at full load is as hot as its insulation bears.",
                [new("copper", hot, "°C")],
                run.Cable.Advised is { } a && a.Size != size ? [v.UseSize(s, a)] : []
            );

    /// <summary>The shortest of several takes more than its share.</summary>
    private static Finding? Unequal(FindingScene s, RunView v)
    {
        if (
            v.Run is not { Carries.WorstConductorShare: { } share, Cable.Conductors: > 1 } run
            || Tolerant.AtLeast(1.0 / run.Cable.Conductors, share)
        )
            return null;
        return s.Make(
            "cable.unequal",
            Grade.Caution,
            Station.Cables,
            v.Place,
            $"{v.Lead}{Say.Count(run.Cable.Conductors)} conductors in parallel, not of one length",
            $"The shortest takes {Say.Percent(share)} of the current instead of {Say.Percent(1.0 / run.Cable.Conductors)}; all "
                + $"together they carry {Say.A(run.Carries.AmpacityA ?? 0)}.",
            [new("shortest", share, "fraction"), new("even", 1.0 / run.Cable.Conductors, "fraction")],
            v.Mend(s, "Cut them to one length", $"{s.Scene.Length(v.Doc.ConductorLengthsM.Max())} each", r =>
                r with
                {
                    LengthM = v.Doc.ConductorLengthsM.Max(),
                    ConductorLengthsM = [],
                }
            )
        );
    }

    /// <summary>Conductors in parallel usually lie side by side; nothing said stands for none that touch.</summary>
    private static Finding? Touching(FindingScene s, RunView v)
    {
        if (
            v.Run is not { Cable.Conductors: > 1, Cable.Size: { } size, Fuse.RatingA: { } rating, Laid.AmbientC: var ambient } run
            || v.Doc.Bundled is not null
            || run.Carries.AmpacityA is null
        )
            return null;
        var together = 2 * run.Cable.Conductors;
        var rule = s.Scene.Rules.Word("ambient-above-one") == "yes";
        var bundled = Cable
            .Ampacity(CablePractices.Get(run.Laid.Practice).Get(size), ambient, together, run.Cable.Conductors, rule)
            .AmpacityA;
        if (Tolerant.AtLeast(bundled, rating))
            return null;
        return s.Make(
            "cable.bundled",
            Grade.Caution,
            Station.Cables,
            v.Place,
            $"{v.Lead}{v.Cable}: do they touch?",
            $"Counted as laid apart they carry {Say.A(run.Carries.AmpacityA.Value)}. Out and back in one bundle are {together} "
                + $"conductors that warm each other, and carry {Say.A(bundled)}, below the {Say.Rating(rating)} fuse.",
            [new("in a bundle", bundled, "A"), new("fuse", rating, "A")],
            v.Mend(s, "They touch", "sized for a bundle", r => r with { Bundled = 2, Size = null, Parallel = null }),
            v.Mend(s, "They are laid apart", "as counted", r => r with { Bundled = 1 })
        );
    }

    private static Finding? SwitchRating(FindingScene s, RunView v)
    {
        if (v.Doc.Switch is not { Absent: false } own)
            return null;
        var most = Math.Max(v.Run.DesignA, v.SurgeA ?? 0);
        var byVolts = own.MaxDcV is { } volts && !Tolerant.AtLeast(volts, v.GreatestV);
        var byAmps = own.RatingA is { } amps && !Tolerant.AtLeast(amps, most);
        if (!byVolts && !byAmps)
            return null;
        return s.Make(
            "switch.rating",
            Grade.Danger,
            Station.Cables,
            v.Place,
            $"{v.Lead}{(v.IsMain ? "The" : "the")} switch is made for "
                + $"{(byVolts ? Say.V(own.MaxDcV!.Value) + " DC" : Say.A(own.RatingA!.Value))}",
            byVolts
                ? $"Charging lifts the bank to {Say.V(v.GreatestV)}: opened under load its arc does not go out."
                : $"Up to {Say.A(most)} flow through it: its contacts weld.",
            [
                byVolts ? new("switch", own.MaxDcV!.Value, "V") : new("switch", own.RatingA!.Value, "A"),
                byVolts ? new("bank, charging", v.GreatestV, "V") : new("greatest current", most, "A"),
            ],
            v.Mend(s, "Use a switch that is rated", $"{Say.A(most)} and {Say.V(v.GreatestV)} or more", r =>
                r with
                {
                    Switch = own with { RatingA = null, MaxDcV = null },
                }
            )
        );
    }
}

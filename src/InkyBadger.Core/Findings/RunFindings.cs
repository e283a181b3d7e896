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
        OtherSeries,
        NoCable,
        FuseRating,
        FuseAboveCable,
        FuseVolts,
        FuseInterrupt,
        Relies,
        FuseFar,
        FuseAtStart,
        TooThin,
        Drop,
        DropToDevice,
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
        if (v.Run is not { Cable: { Pinned: true, Size: not null }, Carries.AmpacityA: null } run)
            return null;
        return s.Make(
            "cable.size",
            Grade.Fault,
            Station.Cables,
            v.Place,
            $"{v.Lead}{run.Cable.Size} is not in {run.Laid.Practice}",
            "The table of the practice chosen does not list it: use a size that is sold.",
            [new("wanted ampacity", run.DesignA, "A")],
            run.Cable.Advised is { } advised ? [v.UseSize(s, advised)] : []
        );
    }

    /// <summary>A size the practice does not list goes by the amperes of the nearest area.</summary>
    private static Finding? OtherSeries(FindingScene s, RunView v) =>
        v.Run is not { Carries: { As: { } near, AmpacityA: { } carries }, Cable: { Size: { } size, AreaMm2: { } area } }
            ? null
            : s.Make(
                "cable.series",
                Grade.Note,
                Station.Cables,
                v.Place,
                $"{v.Lead}{size} goes by the figures of {near}",
                "The table of the practice chosen does not list it: it is judged by the amperes of the nearest area, with its own copper.",
                [new("copper", area, "mm2"), new("taken to carry", carries, "A")],
                v.Run.Cable.Advised is { } advised ? [v.UseSize(s, advised)] : []
            );

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
            v.Run is not { Fuse.RatingA: { } rating, Carries.FuseLimitA: { } ampacity, Cable.Size: { } size } run
            || !v.Fails.Contains(FuseFailure.Cable)
        )
            return null;
        var atTerminals = Tolerant.Exceeds(run.Carries.AmpacityA ?? 0, ampacity);
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
            atTerminals
                ? $"{Say.Rating(rating)} on {v.Cable}: its terminals are made for 75 °C, and with them it is fused at {Say.A(ampacity)} "
                    + "at most, though its insulation bears more."
                : $"{Say.Rating(rating)} on {v.Cable} that carries {Say.A(ampacity)} here: the cable burns before the fuse opens.",
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
        if (v.ShortA is not { } shortA || v.Upstream?.ReliesOn is not null || !v.Fails.Contains(FuseFailure.Interrupt))
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

    /// <summary>A fuse that leaves a short to the one upstream, which lets more through before it opens than the cable stands.</summary>
    private static Finding? Relies(FindingScene s, RunView v)
    {
        if (
            v.Upstream is not { ReliesOn: { } on, LetThroughA2s: { } through, WithstandsA2s: { } stands, WithinM: { } metres }
            || v.ShortA is not { } shortA
        )
            return null;
        IEnumerable<MendOffer> Ways()
        {
            if (s.Scene.Tables.Fuse(RunStage.AdvisedClass).Next(v.Run.Fuse.WantedA) is { } rating)
                yield return v.Mend(s, $"A current-limiting fuse here, {Say.Rating(rating)}", "it breaks the short itself", r =>
                    r with
                    {
                        Fuse = r.Fuse with { Class = RunStage.AdvisedClass, RatingA = null },
                        Size = null,
                        Parallel = null,
                    }
                );
            var k = Math.Sqrt(stands) / (v.Run.Cable.AreaMm2!.Value * v.Run.Cable.Conductors);
            if (
                s
                    .Scene.Tables.Practice(v.Run.Laid.Practice)
                    .Rows.FirstOrDefault(r => Tolerant.AtLeast(k * r.Conductor.AreaMm2, Math.Sqrt(through))) is
                { } thick
            )
                yield return v.Mend(s, $"Use {thick.Size}", "it stands what is let through", r =>
                    r with
                    {
                        Size = thick.Size,
                        Parallel = null,
                        ConductorLengthsM = [],
                    }
                );
        }

        return s.Make(
            "fuse.relies",
            Grade.Danger,
            Station.Cables,
            v.Place,
            $"{v.Name}: a short within {s.Scene.Length(metres)} of its fuse burns the cable",
            $"Up to {Say.A(shortA)} flow there; this class breaks {Say.A(v.InterruptA)}, and leaves it to {on}. That lets "
                + $"{Figures.Say(through, "A2s")} through before it opens, and {v.Cable} stands {Figures.Say(stands, "A2s")}.",
            [new("let through", through, "A2s"), new("the cable stands", stands, "A2s"), new("within", metres, "m")],
            Ways
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

    /// <summary>
    /// The typical time to open, a third of it, against how long a start lasts. A fuse that opens in its typical time is a fault, one that
    /// may open sooner than that a caution.
    /// </summary>
    private static Finding? FuseAtStart(FindingScene s, RunView v)
    {
        if (v.Run.Fuse.RatingA is not { } rating)
            return null;
        var fuse = s.Scene.Tables.Fuse(v.Run.Fuse.Class);
        var starts = Starts(s, v);
        var at = starts.FindIndex(x => !Fuse.Holds(fuse, rating, x.Amps, x.Seconds));
        if (at < 0)
            return null;
        var start = starts[at];
        var opens = Fuse.OpeningTime(fuse, rating, start.Amps).Seconds!.Value;
        var larger = fuse.RatingsA.FirstOrDefault(r => r > rating && RunWork.HoldsAll(fuse, r, starts));
        var inTime = !Tolerant.Exceeds(opens, start.Seconds);
        return s.Make(
            "fuse.start",
            inTime ? Grade.Fault : Grade.Caution,
            Station.Cables,
            v.Place,
            v.IsMain
                ? $"{start.What}: the main fuse {(inTime ? "opens" : "may open")} at its start"
                : $"{v.Name}: the fuse {(inTime ? "opens" : "may open")} at its start",
            $"{Say.A(start.Amps)} for {Say.Seconds(start.Seconds)}; a {Say.Rating(rating)} fuse of this class opens after about "
                + $"{Say.Seconds(opens)}, and may in a third of that.",
            [new("start", start.Amps, "A"), new("lasts", start.Seconds, "s"), new("opens after about", opens, "s")],
            larger > 0
                ?
                [
                    v.Mend(
                        s,
                        $"Use {Say.Rating(larger)}",
                        v.Run.Carries.FuseLimitA >= larger ? "the cable bears it" : "and the cable it asks for",
                        r => r with { Fuse = r.Fuse with { RatingA = larger }, Size = null, Parallel = null }
                    ),
                ]
                : []
        );
    }

    private static List<RunStart> Starts(FindingScene s, RunView v)
    {
        if (v.IsMain)
            return RunStage.StartsOf(s.Work);
        return
            s.Results.Circuits.FirstOrDefault(c => c.Id == v.Doc.Id)
                is { Fuse: { Surge.Amps: { } amps, Surge.Seconds: > 0 and var lasts } } c
            ? [new(c.Name, amps, lasts)]
            : [];
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
        var joints = run.DesignA * run.Joints.Ohm;
        var least = !run.Cable.Pinned && run.Cable.Unmet is [CableLimit.Drop];
        IEnumerable<MendOffer> Ways()
        {
            if (run.Cable.Advised is { } a)
                yield return v.UseSize(s, a);
            if (!least && !run.Cable.Pinned)
                yield break;
            if (least && Shorter(run) is { } metres)
                yield return v.Mend(s, $"Lay it {s.Scene.Length(metres)} long", "what joints and this copper leave room for", r =>
                    r with
                    {
                        LengthM = metres,
                        ConductorLengthsM = [],
                    }
                );
            if (least && RelaxedFor(drop) is { } relaxed)
                yield return v.Mend(s, $"Allow {Say.Percent(relaxed, 0)} here", "for what bears it", r => r with { DropLimit = relaxed });
            if (least && (v.IsMain || v.Doc.Id == Design.Run.InverterId))
                foreach (var higher in s.HigherVoltages())
                    yield return higher;
        }

        return s.Make(
            "cable.drop",
            Grade.Caution,
            Station.Cables,
            v.Place,
            v.IsMain ? $"The run drops {Say.Percent(drop)}" : $"{v.Name} loses {Say.Percent(drop)} on its cable",
            $"{Say.Number(volts, 2)} V and {Say.W(run.Drop.HeatW ?? 0)} of heat at full load; "
                + $"{Say.Percent(run.DropLimit)} is allowed here. "
                + (
                    least
                        ? $"No copper of the table keeps it: joints, fuse and switch take {Say.Number(joints, 2)} V of it, "
                            + $"{Say.Length(run.Laid.LengthM, s.Scene.Design.Display.Units)} of cable the rest."
                        : $"Joints, fuse and switch take {Say.Number(joints, 2)} V of it."
                ),
            [new("drop", drop, "fraction"), new("limit", run.DropLimit, "fraction"), new("in joints", joints, "V")],
            Ways
        );
    }

    /// <summary>The next of the usual limits that a drop keeps; null: it is above all of them.</summary>
    private static double? RelaxedFor(double drop) =>
        ((double[])[0.05, RelaxedDrop]).FirstOrDefault(l => Tolerant.AtLeast(l, drop)) is > 0 and var limit ? limit : null;

    /// <summary>
    /// The length at which the copper that stands would keep the drop [m], down to a tenth; null: its joints alone take more.
    /// </summary>
    private static double? Shorter(RunResult run)
    {
        if (run is not { Drop.V: { } volts, Drop.Fraction: > 0 and var drop })
            return null;
        var joints = run.DesignA * run.Joints.Ohm;
        var left = run.DropLimit * volts / drop - joints;
        var metres = Math.Floor(10 * run.Laid.LengthM * left / (volts - joints)) / 10;
        return metres >= ShortestM ? metres : null;
    }

    /// <summary>No run is shorter than this [m].</summary>
    private const double ShortestM = 0.3;

    /// <summary>All legs from the battery to a device together, each of which may be well for itself.</summary>
    private static Finding? DropToDevice(FindingScene s, RunView v)
    {
        if (
            s.Results.Circuits.FirstOrDefault(c => c.Id == v.Doc.Id) is not { Kind: CircuitKind.Branch, Run.Drop.EndV: { } end } c
            || s.Results.Voltage is not { } voltage
            || Drop(s, v) is not null
        )
            return null;
        var (from, of) = c.Behind ? (c.NominalV, c.NominalV) : (voltage.LowV, voltage.NominalV);
        var limit = Math.Max(s.Scene.Rules.Number("drop-limit-device"), v.Doc.DropLimit ?? 0);
        var all = (from - end) / of;
        if (Tolerant.AtLeast(limit, all))
            return null;
        var legs = new List<string>();
        if (!c.Behind && s.Results.Bus?.DropV is { } bus)
            legs.Add($"{Say.Percent(bus / of)} to the bus");
        for (var up = c.Upstream; up is not null && s.Results.Circuits.FirstOrDefault(x => x.Id == up) is { } leg; up = leg.Upstream)
            if (leg.Run.Drop.Fraction is { } its && leg.Behind == c.Behind)
                legs.Add($"{Say.Percent(its)} to the {leg.To}");
        legs.Add($"{Say.Percent(c.Run.Drop.Fraction ?? 0)} on its own cable");
        return s.Make(
            "cable.drop-to-device",
            Grade.Caution,
            Station.Cables,
            v.Place,
            $"{Say.Percent(all)} are lost on the way to {v.Name}",
            $"{string.Join(", ", legs)}: {Say.Number(end, 2)} V are left for it with the bank nearly empty and everything on. "
                + $"{Say.Percent(limit)} is the house rule for all legs together.",
            [new("lost", all, "fraction"), new("limit", limit, "fraction")],
            v.Run.Cable.Advised is { } a ? [v.UseSize(s, a)] : []
        );
    }

    private static Finding? Hot(FindingScene s, RunView v) =>
        v.Run is not { Carries.ConductorC: { } hot, Cable.Size: { } size } run
        || hot < s.Scene.Tables.Practice(run.Laid.Practice).InsulationC - 0.5
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
            .Ampacity(s.Scene.Tables.Practice(run.Laid.Practice).Find(size)!, ambient, together, run.Cable.Conductors, rule)
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

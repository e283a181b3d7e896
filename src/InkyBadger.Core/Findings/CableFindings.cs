using InkyBadger.Core.Design;
using InkyBadger.Core.Reference;
using InkyBadger.Core.Wiring;
using InkyBadger.Core.Work;

namespace InkyBadger.Core.Findings;

/// <summary>
/// The wiring of a bank as a whole: conductors inside it, string fuses, disconnect, pre-charge, bus, shunt, bonding.
/// </summary>
internal static class CableFindings
{
    /// <summary>
    /// Inverters from this on charge their capacitors with a spark that ages contacts [W], at this voltage and above [V].
    /// </summary>
    private const double PreChargeW = 1000,
        PreChargeV = 24;

    public static FindingRule[] Rules { get; } =
    [Links, Jumpers, OtherSeries, StringsUnfused, OwnBreaker, StringFuse, Disconnect, BusRating, PreCharge, Bonding];

    private static Finding? Links(FindingScene s)
    {
        if (
            s.Results.Network is not { } n
            || s.Results.MainRun is not { } run
            || n.Copper.ThinnestOf(n.Copper.LinksOrLeads) is not { } worst
        )
            return null;
        var busBars = n.Wiring.Style == WiringStyle.BusBars;
        return s.Make(
            "links.thin",
            Grade.Danger,
            Station.Bank,
            busBars ? "/wiring/lead" : "/wiring/link",
            busBars ? "The bus leads are too thin for the fuse" : "The rail links are too thin for the fuse",
            $"{While(run)} up to {Say.A(worst.HeldA)} flow in one of them; {Say.Size(worst.Size, worst.Conductors)} is good for "
                + $"{Say.A(worst.AmpacityA)}.",
            [new("in the link", worst.HeldA, "A"), new("ampacity", worst.AmpacityA, "A")],
            Wider(
                s,
                run,
                worst.HeldA,
                (w, c) => busBars ? w with { Lead = c } : w with { Link = c },
                busBars ? s.Scene.Bank.Wiring.Lead : s.Scene.Bank.Wiring.Link
            )
        );
    }

    /// <summary>What flows for good: as much as the main fuse lets through, or without one the load itself.</summary>
    private static string While(RunResult run) => run.Fuse.RatingA is null ? "At full load" : "While the fuse holds,";

    private static Finding? Jumpers(FindingScene s)
    {
        if (
            s.Results.Network is not { } n
            || s.Results.MainRun is not { } run
            || n.Copper.ThinnestOf(ConductorKind.Jumper) is not { } worst
        )
            return null;
        return s.Make(
            "jumpers.thin",
            Grade.Danger,
            Station.Bank,
            "/wiring/jumper",
            "The jumpers are too thin for the fuse",
            $"{While(run)} up to {Say.A(worst.HeldA)} flow in one string; {Say.Size(worst.Size, worst.Conductors)} is good for "
                + $"{Say.A(worst.AmpacityA)}.",
            [new("in the jumper", worst.HeldA, "A"), new("ampacity", worst.AmpacityA, "A")],
            Wider(s, run, worst.HeldA, (w, c) => w with { Jumper = c }, s.Scene.Bank.Wiring.Jumper)
        );
    }

    /// <summary>One conductor that differs from its neighbours, each for itself: what it carries, and whose figures it goes by.</summary>
    internal static IEnumerable<Finding> Placed(FindingScene s)
    {
        if (s.Results.Network is not { } n || s.Results.MainRun is not { } run)
            yield break;
        foreach (var c in n.Copper.Placed)
        {
            if (!c.Own || Tolerant.AtLeast(c.AmpacityA, c.HeldA))
                continue;
            var (place, index) = PlaceOf(s.Bank.Wiring, c);
            var usual = n.Copper.Usual(c.Kind);
            yield return s.Make(
                "conductor.thin",
                Grade.Danger,
                Station.Bank,
                $"{place}/{index}",
                $"{char.ToUpperInvariant(c.Name[0]) + c.Name[1..]} is too thin",
                $"{While(run)} up to {Say.A(c.HeldA)} flow in it, {Say.A(c.Amps)} at full load; {Say.Size(c.Size, c.Conductors)} is good "
                    + $"for {Say.A(c.AmpacityA)}, and no fuse protects it.",
                [new("in it", c.HeldA, "A"), new("ampacity", c.AmpacityA, "A")],
                () =>
                    new[]
                    {
                        FindingScene.Offer(
                            $"As the others, {Say.Size(usual.Size, usual.Conductors)}",
                            $"good for {Say.A(usual.AmpacityA)}",
                            s.Bank with
                            {
                                Wiring = With(s.Bank.Wiring, c.Kind, index, x => x with { Size = null, Parallel = null }),
                            }
                        ),
                        Enough(s.Scene.Tables, run, c.HeldA) is var (size, conductors, carries)
                            ? FindingScene.Offer(
                                $"Use {Say.Size(size, conductors)}",
                                $"good for {Say.A(carries)}",
                                s.Bank with
                                {
                                    Wiring = With(s.Bank.Wiring, c.Kind, index, x =>
                                        x with
                                        {
                                            Size = size,
                                            Parallel = conductors == 1 ? null : conductors,
                                        }
                                    ),
                                }
                            )
                            : null,
                    }.OfType<MendOffer>()
            ) with
            {
                About = c.Id,
            };
        }
    }

    private static (string Place, int Index) PlaceOf(Design.Wiring w, PlacedAmps c) =>
        c.Kind switch
        {
            ConductorKind.Jumper => (
                "/wiring/jumpers",
                w.Jumpers.Index().First(x => x.Item.String == c.String && x.Item.After == c.After).Index
            ),
            ConductorKind.Link => ("/wiring/links", w.Links.Index().First(x => x.Item.Rail == c.Rail && x.Item.After == c.After).Index),
            _ => ("/wiring/leads", w.Leads.Index().First(x => x.Item.Rail == c.Rail && x.Item.String == c.String).Index),
        };

    private static Design.Wiring With(Design.Wiring w, ConductorKind kind, int index, Func<PlacedConductor, PlacedConductor> change)
    {
        PlacedConductor[] Changed(IReadOnlyList<PlacedConductor> list) => [.. list.Select((c, i) => i == index ? change(c) : c)];
        return kind switch
        {
            ConductorKind.Jumper => w with { Jumpers = Changed(w.Jumpers) },
            ConductorKind.Link => w with { Links = Changed(w.Links) },
            _ => w with { Leads = Changed(w.Leads) },
        };
    }

    /// <summary>Conductors of another series than the practice lists go by the figures of the nearest area.</summary>
    private static Finding? OtherSeries(FindingScene s)
    {
        // Links that follow the main run are said with it.
        if (s.Results.Network?.Copper.Placed.FirstOrDefault(c => c.As is not null && c.Size != s.Results.MainRun?.Cable.Size) is not { } c)
            return null;
        return s.Make(
            "conductor.series",
            Grade.Note,
            Station.Bank,
            "/wiring",
            $"{c.Size} goes by the figures of {c.As}",
            "The table of the practice chosen does not list it: it is judged by the amperes of the nearest area, with its own copper.",
            [new("copper", s.Scene.Tables.Conductor(c.Size).AreaMm2, "mm2"), new("taken to carry", c.AmpacityA, "A")]
        );
    }

    /// <summary>The smallest size of the main run's practice that bears so much inside the bank.</summary>
    private static MendOffer? Wider(
        FindingScene s,
        RunResult run,
        double amps,
        Func<Design.Wiring, Design.Conductor, Design.Wiring> put,
        Design.Conductor? before
    ) =>
        Enough(s.Scene.Tables, run, amps) is not var (size, conductors, carries)
            ? null
            : FindingScene.Offer(
                $"Use {Say.Size(size, conductors)}",
                $"good for {Say.A(carries)}",
                s.Bank with
                {
                    Wiring = put(
                        s.Bank.Wiring,
                        new()
                        {
                            Size = size,
                            Parallel = conductors == 1 ? null : conductors,
                            LengthM = before?.LengthM,
                        }
                    ),
                }
            );

    /// <summary>The least copper of the run's practice that carries so much, up to three side by side.</summary>
    private static (string Size, int Conductors, double CarriesA)? Enough(DesignTables tables, RunResult run, double amps)
    {
        for (var m = 1; m <= 3; m++)
            foreach (var row in tables.Practice(run.Laid.Practice).Rows)
                if (
                    (m == 1 || row.Conductor.AreaMm2 >= CableSelect.LeastParallelMm2)
                    && Cable.Ampacity(row, run.Laid.AmbientC, 1, m).AmpacityA is var carries
                    && Tolerant.AtLeast(carries, amps)
                )
                    return (row.Size, m, carries);
        return null;
    }

    /// <summary>Taken out where the house rule asks for them.</summary>
    private static Finding? StringsUnfused(FindingScene s) =>
        s.Results.StringFuses is not { Asked: true, Fitted: false } plan
            ? null
            : s.Make(
                "strings.unfused",
                Grade.Caution,
                Station.Cables,
                "/stringFuses",
                $"A fuse for each of {plan.Strings.Count} strings",
                "A short inside one unit is fed by all the other strings at once, and a BMS is not a fuse.",
                [new("strings", plan.Strings.Count, "")],
                s.OfRun(
                    Run.StringsId,
                    "Fuse each string",
                    plan.AdvisedRatingA is { } rating ? $"{Say.Rating(rating)}, {plan.FuseLabel}" : "as advised",
                    r => r with { Fuse = r.Fuse with { Absent = false } }
                )
            );

    /// <summary>A breaker in the unit may do instead of a string fuse, once its maker says what it breaks.</summary>
    private static Finding? OwnBreaker(FindingScene s)
    {
        if (
            s.Results.StringFuses is not { Asked: true } plan
            || s.Results.Bank is not { Unit: { BreakerA: { } breaker, BreakerInterruptA: null } }
            || s.Scene.Rules.Word("string-fuse-breaker") != "none-if-known"
        )
            return null;
        var most = plan.Strings.Max(f => f.ShortCircuitA);
        return s.Make(
            "strings.breaker",
            Grade.Note,
            Station.Cables,
            "/unit/breakerInterruptA",
            $"What does the units’ own {Say.Rating(breaker)} breaker break?",
            $"The other strings push {Say.A(most)} into a short in one: a breaker that breaks it makes string fuses needless. "
                + "Ask its maker.",
            [new("short in a string", most, "A")]
        );
    }

    private static Finding? StringFuse(FindingScene s)
    {
        if (s.Results.StringFuses is not { Fitted: true, Fits: false } plan)
            return null;
        var (at, worst) = plan.Strings.Index().First(f => f.Item.Fails.Count > 0);
        var fails = plan.Strings.SelectMany(f => f.Fails).Distinct().Order().ToList();
        var first = fails[0];
        var rating = plan.RatingA is { } r ? Say.Rating(r) : plan.FuseLabel;
        var (title, why) = first switch
        {
            StringFuseFailure.Rating when plan.RatingA is null => (
                $"{plan.FuseLabel} is not made for a string’s {Say.A(worst.WantedA)}",
                "No rating of this class is large enough: more strings share the current, or a higher voltage needs less of it."
            ),
            StringFuseFailure.Rating => (
                $"The {rating} string fuses are too small",
                $"String {Say.StringName(at + 1)} may carry {Say.A(worst.GreatestA)}; with the usual margin its fuse is "
                    + $"{Say.A(worst.WantedA)} or more."
            ),
            StringFuseFailure.Bms => (
                $"The {rating} string fuses are above a BMS’s peak",
                "Its BMS would have to break what the fuse lets through, and is not made for it."
            ),
            StringFuseFailure.Cable => (
                $"The {rating} string fuses are above what their leads carry",
                $"The conductor of a string is good for {Say.A(plan.LeadAmpacityA)}."
            ),
            StringFuseFailure.Voltage => (
                $"String fuses of {Say.V(plan.MaxDcV)} on {Say.V(plan.GreatestV)}",
                "Above its voltage a fuse melts and goes on burning as an arc."
            ),
            _ => (
                "The string fuses cannot break a short",
                $"The other strings push {Say.A(plan.Strings.Max(f => f.ShortCircuitA))} into a short in one of them; this class "
                    + $"breaks {Say.A(plan.InterruptA)}."
            ),
        };
        MendOffer?[] mends =
        [
            plan.ClassPinned || plan.RatingPinned
                ? FindingScene.Offer("Take the advised ones", FusesOf, s.Bank.WithRun(Run.StringsId, x => x with { Fuse = new() }))
                : null,
            first == StringFuseFailure.Cable && s.Results.MainRun is { } main && plan.RatingA is { } own ? WiderBehind(s, main, own) : null,
        ];
        return s.Make(
            "strings.fuse",
            first is StringFuseFailure.Rating or StringFuseFailure.Bms ? Grade.Fault : Grade.Danger,
            Station.Cables,
            "/stringFuses",
            title,
            why,
            [new("most in a string", plan.Strings.Max(f => f.GreatestA), "A"), new("fuse", plan.RatingA ?? 0, "A")],
            mends
        );
    }

    private static string FusesOf(BankWork then) =>
        then.StringFuses.Value is { RatingA: { } rating } plan ? $"{Say.Rating(rating)}, {plan.FuseLabel}" : "as advised";

    /// <summary>The conductor that lies between a string and the rail, as thick as its fuse asks.</summary>
    private static MendOffer? WiderBehind(FindingScene s, RunResult main, double amps)
    {
        var wiring = s.Bank.Wiring;
        return s.Results.Network?.Wiring.Style == WiringStyle.BusBars ? Wider(s, main, amps, (w, c) => w with { Lead = c }, wiring.Lead)
            : s.Results.Bank is { Layout.Series: > 1 } ? Wider(s, main, amps, (w, c) => w with { Jumper = c }, wiring.Jumper)
            : Wider(s, main, amps, (w, c) => w with { Link = c }, wiring.Link);
    }

    /// <summary>Nobody can work on a bank that cannot be taken off.</summary>
    private static Finding? Disconnect(FindingScene s) =>
        s.Results.MainRun is not { } run || s.Scene.MainRun.Switch is not { Absent: true }
            ? null
            : s.Make(
                "switch.none",
                Grade.Caution,
                Station.Cables,
                "/runs",
                "No disconnect",
                "Nothing takes the bank off its cables for work, or in an emergency, but a spanner at the post.",
                [new("full load", run.DesignA, "A")],
                s.OfRun(
                    Run.MainId,
                    "Put a disconnect in",
                    $"{Say.A(Math.Max(run.DesignA, s.Results.Protection?.Surge.Amps ?? 0))} and "
                        + $"{Say.V(s.Results.Protection?.GreatestChargingV ?? s.Results.Voltage!.GreatestV)} or more",
                    r => r with { Switch = null }
                )
            );

    private static Finding? BusRating(FindingScene s)
    {
        if (s.Results.MainRun is not { } run || s.Scene.MainRun.BusRatingA is not { } bus)
            return null;
        var most = Math.Max(run.DesignA, run.Fuse.RatingA ?? 0);
        if (Tolerant.AtLeast(bus, most))
            return null;
        return s.Make(
            "bus.rating",
            Grade.Danger,
            Station.Cables,
            "/runs/busRatingA",
            $"The bus bars are made for {Say.Rating(bus)}",
            run.Fuse.RatingA is { } fuse && fuse >= run.DesignA
                ? $"The main fuse lets {Say.Rating(fuse)} through to them for good."
                : $"{Say.A(run.DesignA)} flow through them at full load.",
            [new("bus bars", bus, "A"), new("must bear", most, "A")],
            s.OfRun(Run.MainId, "Use bus bars that are rated", $"{Say.Rating(most)} or more", r => r with { BusRatingA = null })
        );
    }

    private static Finding? PreCharge(FindingScene s)
    {
        if (
            s.Results.Inverter is not { Item: { } item } inverter
            || s.Results.Voltage is not { SystemV: >= (int)PreChargeV } v
            || s.Results.MainRun is null
            || s.Scene.MainRun.PreCharge
        )
            return null;
        var watts = item.ContinuousW * inverter.Stack;
        if (watts < PreChargeW)
            return null;
        return s.Make(
            "precharge.none",
            Grade.Caution,
            Station.Cables,
            "/runs/preCharge",
            "No pre-charge for the inverter",
            $"Its empty capacitors draw a spark as the switch closes on {Say.V(v.GreatestV)}: contacts weld and fuses age. A "
                + $"resistor fills them first, for some seconds.",
            [new("inverter", watts, "W"), new("system", v.SystemV, "V")],
            s.OfRun(Run.MainId, "There is a pre-charge", "a resistor and a button across the switch, or the inverter’s own", r =>
                r with
                {
                    PreCharge = true,
                }
            )
        );
    }

    internal static IEnumerable<Finding> Shunt(FindingScene s)
    {
        foreach (var (i, run) in s.Scene.Bank.Runs.Index())
            if (run.BypassesShunt)
                yield return s.Make(
                    "shunt.bypassed",
                    Grade.Caution,
                    Station.Cables,
                    $"/runs/{i}/bypassesShunt",
                    $"The negative of {NameOf(s, run)} bypasses the shunt",
                    "What flows past the shunt is not counted: the monitor’s state of charge drifts away from the truth.",
                    [new("run", i + 1, "")],
                    s.OfRun(run.Id, "Take it through the shunt", "everything is counted", r => r with { BypassesShunt = false })
                ) with
                {
                    About = run.Id,
                };
    }

    private static string NameOf(FindingScene s, Run run) =>
        run.Id == Run.MainId ? "the main run"
        : s.Results.Circuits.FirstOrDefault(c => c.Id == run.Id)?.Name is { } name ? $"“{name}”"
        : run.To.Length > 0 ? $"the run to {run.To}"
        : "a run that leads nowhere yet";

    private static Finding? Bonding(FindingScene s)
    {
        if (s.Results.Bonding is not { } b || !b.Absent && b.Fits)
            return null;
        return s.Make(
            "bonding",
            Grade.Caution,
            Station.Cables,
            "/bonding",
            b.Absent ? "No bonding conductor" : $"{Say.Size(b.Size ?? "no cable", b.Conductors)} is thin for a bonding conductor",
            b.Absent
                ? "A positive that touches metal finds no way back to open a fuse: the metal stays live. One conductor joins the "
                    + "negative bus to chassis, hull or earth, as the local code has it."
                : $"A positive that touches metal must open its fuse through it: "
                    + $"{LeastOf(s, b)} or more, and what the local code asks for.",
            [new("bonding", b.Absent ? 0 : b.Conductors * b.AreaMm2 ?? 0, "mm2"), new("least", b.LeastMm2, "mm2")],
            s.OfRun(
                Run.BondingId,
                $"{(b.Absent ? "Bond it with" : "Use")} {Say.Size(b.AdvisedSize ?? "", b.AdvisedConductors)}",
                "half the main cable or more",
                r => r with { Size = null, Parallel = null, Absent = false }
            )
        );
    }

    private static string LeastOf(FindingScene s, BondingResult b) =>
        s.Scene.Design.Display.Units == UnitSystem.Imperial
            ? Say.Size(b.AdvisedSize ?? "", b.AdvisedConductors)
            : $"{Say.Number(b.LeastMm2, b.LeastMm2 < 10 ? 1 : 0)} mm²";
}

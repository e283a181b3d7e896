using InkyBadger.Core.Design;
using InkyBadger.Core.Reference;
using InkyBadger.Core.Wiring;
using InkyBadger.Core.Work;

namespace InkyBadger.Core.Findings;

/// <summary>
/// The wiring of a bank as a whole: conductors inside it, string fuses, what relies on what, disconnect, pre-charge, bus, shunt, bonding.
/// </summary>
internal static class CableFindings
{
    /// <summary>
    /// Inverters from this on charge their capacitors with a spark that ages contacts [W], at this voltage and above [V].
    /// </summary>
    private const double PreChargeW = 1000,
        PreChargeV = 24;

    public static FindingRule[] Rules { get; } =
    [Links, Jumpers, StringsUnfused, StringFuse, Disconnect, BusRating, PreCharge, Relies, Bonding];

    private static Finding? Links(FindingScene s)
    {
        if (s.Results.Network is not { } n || s.Results.MainRun is not { Fuse.RatingA: not null } run || n.Strings.Shares.Count == 1)
            return null;
        var busBars = n.Wiring.Style == WiringStyle.BusBars;
        var conductor = busBars ? n.Copper.Lead : n.Copper.Link;
        if (Tolerant.AtLeast(conductor.AmpacityA, n.Links.WorstA))
            return null;
        return s.Make(
            "links.thin",
            Grade.Danger,
            Station.Bank,
            busBars ? "/wiring/lead" : "/wiring/link",
            busBars ? "The bus leads are too thin for the fuse" : "The rail links are too thin for the fuse",
            $"While the fuse holds, up to {Say.A(n.Links.WorstA)} flow in one of them; {conductor.Size} is good for "
                + $"{Say.A(conductor.AmpacityA)}.",
            [new("in the link", n.Links.WorstA, "A"), new("ampacity", conductor.AmpacityA, "A")],
            Wider(
                s,
                run,
                n.Links.WorstA,
                (w, c) => busBars ? w with { Lead = c } : w with { Link = c },
                (busBars ? s.Scene.Bank.Wiring.Lead : s.Scene.Bank.Wiring.Link)?.LengthM
            )
        );
    }

    private static Finding? Jumpers(FindingScene s)
    {
        if (
            s.Results.Network is not { } n
            || s.Results.MainRun is not { Fuse.RatingA: not null } run
            || s.Results.Bank is not { Layout.Series: > 1 }
        )
            return null;
        if (Tolerant.AtLeast(n.Copper.Jumper.AmpacityA, n.Held.StringA))
            return null;
        return s.Make(
            "jumpers.thin",
            Grade.Danger,
            Station.Bank,
            "/wiring/jumper",
            "The jumpers are too thin for the fuse",
            $"While the fuse holds, up to {Say.A(n.Held.StringA)} flow in one string; {n.Copper.Jumper.Size} is good for "
                + $"{Say.A(n.Copper.Jumper.AmpacityA)}.",
            [new("in the jumper", n.Held.StringA, "A"), new("ampacity", n.Copper.Jumper.AmpacityA, "A")],
            Wider(s, run, n.Held.StringA, (w, c) => w with { Jumper = c }, s.Scene.Bank.Wiring.Jumper?.LengthM)
        );
    }

    /// <summary>The smallest size of the main run's practice that bears so much inside the bank.</summary>
    private static MendOffer? Wider(
        FindingScene s,
        RunResult run,
        double amps,
        Func<Design.Wiring, Design.Conductor, Design.Wiring> put,
        double? lengthM
    )
    {
        var wide = CablePractices
            .Get(run.Laid.Practice)
            .Rows.FirstOrDefault(r => Tolerant.AtLeast(Cable.Ampacity(r, run.Laid.AmbientC).AmpacityA, amps));
        return wide is null
            ? null
            : FindingScene.Offer(
                $"Use {wide.Size}",
                $"good for {Say.A(Cable.Ampacity(wide, run.Laid.AmbientC).AmpacityA)}",
                s.Bank with
                {
                    Wiring = put(s.Bank.Wiring, new() { Size = wide.Size, LengthM = lengthM }),
                }
            );
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
        return s.Results.Network?.Wiring.Style == WiringStyle.BusBars
                ? Wider(s, main, amps, (w, c) => w with { Lead = c }, wiring.Lead?.LengthM)
            : s.Results.Bank is { Layout.Series: > 1 } ? Wider(s, main, amps, (w, c) => w with { Jumper = c }, wiring.Jumper?.LengthM)
            : Wider(s, main, amps, (w, c) => w with { Link = c }, wiring.Link?.LengthM);
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

    /// <summary>Branch fuses that a short at their place would burst, were it not for the one upstream.</summary>
    private static Finding? Relies(FindingScene s)
    {
        var relying = s.Results.Circuits.Where(c => c.Fuse is { Upstream.ReliesOn: not null, Fails: not [] }).ToList();
        if (relying.Count == 0)
            return null;
        var worst = relying.MaxBy(c => c.Fuse.Short.Amps!.Value - c.Fuse.InterruptA)!;
        var names = string.Join(", ", relying.Take(4).Select(c => c.Name)) + (relying.Count > 4 ? $" and {relying.Count - 4} more" : "");
        return s.Make(
            "fuse.relies",
            Grade.Caution,
            Station.Cables,
            "/circuits",
            relying.Count == 1
                ? $"{worst.Name}: its fuse relies on {worst.Fuse.Upstream.ReliesOn}"
                : $"{Say.Count(relying.Count)} branch fuses rely on {worst.Fuse.Upstream.ReliesOn}",
            $"{names}: a short there draws up to {Say.A(worst.Fuse.Short.Amps!.Value)}, and "
                + $"{(relying.Count == 1 ? "this class breaks" : "the least of them breaks")} "
                + $"{Say.A(relying.Min(c => c.Fuse.InterruptA))}. The current-limiting fuse upstream must open first: never "
                + $"replace it by another class.",
            [new("short circuit", worst.Fuse.Short.Amps.Value, "A"), new("interrupt rating", worst.Fuse.InterruptA, "A")]
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
                    $"The negative of “{run.Id}” bypasses the shunt",
                    "What flows past the shunt is not counted: the monitor’s state of charge drifts away from the truth.",
                    [new("run", i + 1, "")],
                    s.OfRun(run.Id, "Take it through the shunt", "everything is counted", r => r with { BypassesShunt = false })
                ) with
                {
                    About = run.Id,
                };
    }

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

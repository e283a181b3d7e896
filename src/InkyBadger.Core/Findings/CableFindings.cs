using InkyBadger.Core.Design;
using InkyBadger.Core.Reference;
using InkyBadger.Core.Wiring;

namespace InkyBadger.Core.Findings;

/// <summary>The main run and its fuse; links inside the bank.</summary>
internal static class CableFindings
{
    public static FindingRule[] Rules { get; } = [NoFuse, UnknownSize, NoCable, FuseRating, FuseAboveCable, FuseVolts, FuseInterrupt, FuseFar, TooThin, Drop, Links, StringFuses, Insulation, Switch, Shunt];

    private static Finding? NoFuse(FindingScene s) => s.Results.MainRun is null || !s.Scene.MainRun.Fuse.Absent ? null
        : s.Make("fuse.none", Grade.Danger, Station.Cables, "/runs", "No fuse at the bank", $"A short anywhere along the run draws {Short(s)} until something burns.",
            [new("short circuit", s.Results.Protection?.ShortCircuitA ?? 0, "A")], s.MendRun("Put a fuse at the post", "as advised", r => r with { Fuse = new() }));

    private static string Short(FindingScene s) => s.Results.Protection is { } p ? Say.KA(p.ShortCircuitA) : "all the bank can push";

    private static Finding? UnknownSize(FindingScene s)
    {
        if (s.Results.MainRun is not { SizePinned: true, AmpacityA: null, Advised: { } advised } run) return null;
        return s.Make("cable.size", Grade.Fault, Station.Cables, "/runs", $"{run.Size} is not in {run.Practice}", "The table of the practice chosen does not list it: use a size that is sold.",
            [new("wanted ampacity", run.DesignA, "A")], UseSize(s, advised));
    }

    private static Mend UseSize(FindingScene s, CableOption advised) => s.MendRun($"Use {Say.Size(advised.Size, advised.Conductors)}",
        $"carries {Say.A(advised.AmpacityA)}, drop {Say.Percent(advised.DropFraction)}", r => r with { Size = advised.Size, Parallel = advised.Conductors });

    private static Finding? NoCable(FindingScene s)
    {
        if (s.Results.MainRun is not { Advised: null, SizePinned: false } run) return null;
        var limits = string.Join(" and ", (run.Unmet ?? []).Select(u => u switch { CableLimit.Drop => "the drop", CableLimit.Fuse => "the fuse", _ => "the current" }));
        var up = s.Results.Voltage!.SystemV < 48 ? new[] { new Mend("Try 48 V", "a fraction of the current", [s.Scene.Change("/systemV", (int?)48), s.Scene.Change("/inverters/0/item", (InverterItem?)null)]) } : [];
        return s.Make("cable.none", Grade.Fault, Station.Cables, "/runs", "No cable of the table meets it",
            $"Even three of the largest in parallel fail {limits}. {JointsAlone(s, run)}Shorten the run, or take a higher voltage.", [new("design current", run.DesignA, "A"), new("length", run.LengthM, "m")],
            s.Scene.Inverter is null ? [] : up);
    }

    /// <summary>No copper mends what the joints lose.</summary>
    private static string JointsAlone(FindingScene s, RunResult run)
    {
        var share = run.DesignA * run.JointsOhm / s.Results.Voltage!.NominalV;
        return share < run.DropLimit ? "" : $"Its joints alone take {Say.Percent(share)}. ";
    }

    private static Finding? FuseRating(FindingScene s)
    {
        if (s.Results.MainRun is not { } run || s.Results.Protection is not { } p || !p.Fails.Contains(FuseFailure.Rating) || s.Scene.MainRun.Fuse.Absent) return null;
        if (run.RatingA is not { } rating)
            return s.Make("fuse.rating", Grade.Fault, Station.Cables, "/runs", $"{run.FuseLabel} is not made for {Say.A(run.WantedA)}",
                "No rating of this class is large enough. A higher voltage asks for less current; or the bank is split on two runs.", [new("least rating", run.WantedA, "A")],
                [.. ClassThatFits(s, p)]);
        return s.Make("fuse.nuisance", Grade.Fault, Station.Cables, "/runs", $"The {Say.Rating(rating)} fuse is too small",
            $"Full load is {Say.A(run.DesignA)}; with the usual margin the fuse is {Say.A(run.WantedA)} or more, or it opens in ordinary use.",
            [new("fuse", rating, "A"), new("least", run.WantedA, "A")],
            run.AdvisedRatingA is { } next ? [s.MendRun($"Use {Say.Rating(next)}", "the next rating made", r => r with { Fuse = r.Fuse with { RatingA = null } })] : []);
    }

    private static Finding? FuseAboveCable(FindingScene s)
    {
        if (s.Results.MainRun is not { RatingA: { } rating, AmpacityA: { } ampacity, Size: { } size } run || s.Results.Protection is not { } p || !p.Fails.Contains(FuseFailure.Cable)) return null;
        var mends = new List<Mend>();
        if (run.Advised is { } advised && (advised.Size != size || advised.Conductors != run.Conductors)) mends.Add(UseSize(s, advised));
        if (run.AdvisedRatingA is { } next && next < rating && Tolerant.AtLeast(ampacity, next))
            mends.Add(s.MendRun($"Use a {Say.Rating(next)} fuse", $"below the {Say.A(ampacity)} the cable carries", r => r with { Fuse = r.Fuse with { RatingA = null } }));
        return s.Make("fuse.above-cable", Grade.Danger, Station.Cables, "/runs", $"The fuse lets {Say.A(rating - ampacity)} more through than the cable bears",
            $"{Say.Rating(rating)} on {Say.Size(size, run.Conductors)} that carries {Say.A(ampacity)} here: the cable burns before the fuse opens.",
            [new("fuse", rating, "A"), new("ampacity", ampacity, "A")], [.. mends]);
    }

    private static Finding? FuseVolts(FindingScene s)
    {
        if (s.Results.Protection is not { } p || !p.Fails.Contains(FuseFailure.Voltage)) return null;
        return s.Make("fuse.voltage", Grade.Danger, Station.Cables, "/runs", $"A {Say.V(p.MaxDcV)} fuse on {Say.V(p.GreatestChargingV)}",
            "Above its voltage a fuse melts and goes on burning as an arc.", [new("fuse", p.MaxDcV, "V"), new("bank, charging", p.GreatestChargingV, "V")], [.. ClassThatFits(s, p)]);
    }

    private static Finding? FuseInterrupt(FindingScene s)
    {
        if (s.Results.Protection is not { } p || !p.Fails.Contains(FuseFailure.Interrupt)) return null;
        return s.Make("fuse.interrupt", Grade.Danger, Station.Cables, "/runs", "The fuse cannot break a short",
            $"The bank can push {Say.KA(p.ShortCircuitA)}{(p.ResistanceAssumed ? " (resistance assumed)" : "")}; this class breaks {Say.KA(p.InterruptA)}. Above that it may burst and go on feeding the fault.",
            [new("short circuit", p.ShortCircuitA, "A"), new("interrupt rating", p.InterruptA, "A")], [.. ClassThatFits(s, p)]);
    }

    /// <summary>Class T first, else the first class of the table that fits here. A cable too thin for every class has a mend of its own.</summary>
    private static IEnumerable<Mend> ClassThatFits(FindingScene s, ProtectionResult p)
    {
        var good = p.Classes.Where(c => c.Fails.All(f => f == FuseFailure.Cable)).ToList();
        var fit = good.Find(c => c.Id == RunStage.AdvisedClass) ?? good.FirstOrDefault();
        if (fit is null || fit.Id == s.Results.MainRun!.FuseClass) yield break;
        var name = fit.Label.Split(',')[0];
        yield return s.MendRun($"Use {char.ToLowerInvariant(name[0]) + name[1..]} {Say.Rating(fit.RatingA!.Value)}", $"breaks {Say.KA(fit.InterruptA)}, good to {Say.V(fit.MaxDcV)}",
            r => r with { Fuse = r.Fuse with { Class = fit.Id, RatingA = null } });
    }

    private static Finding? FuseFar(FindingScene s)
    {
        var rule = s.Scene.Rules.Number("fuse-distance");
        if (s.Results.MainRun is not { } run || s.Scene.MainRun.Fuse.Absent || !Tolerant.Exceeds(run.FuseDistanceM, rule)) return null;
        return s.Make("fuse.far", Grade.Danger, Station.Cables, "/runs", $"{Say.M(run.FuseDistanceM)} without a fuse",
            $"The stretch from the post to the fuse has no protection: {Say.M(rule)} at most.", [new("distance", run.FuseDistanceM, "m"), new("rule", rule, "m")],
            s.MendRun("Fuse to the post", $"{Say.M(RunStage.AssumedFuseDistanceM)} from it", r => r with { Fuse = r.Fuse with { DistanceM = null } }));
    }

    private static Finding? TooThin(FindingScene s)
    {
        if (s.Results.MainRun is not { AmpacityA: { } ampacity, Size: { } size } run || Tolerant.AtLeast(ampacity, run.DesignA)) return null;
        return s.Make("cable.thin", Grade.Danger, Station.Cables, "/runs", $"{Say.Size(size, run.Conductors)} is too thin for {Say.A(run.DesignA)}",
            $"Here it carries {Say.A(ampacity)}; more makes it hotter than its insulation bears.", [new("ampacity", ampacity, "A"), new("design current", run.DesignA, "A")],
            run.Advised is { } a ? [UseSize(s, a)] : []);
    }

    private static Finding? Drop(FindingScene s)
    {
        if (s.Results.MainRun is not { DropFraction: { } drop, DropV: { } volts } run || Tolerant.AtLeast(run.DropLimit, drop)) return null;
        return s.Make("cable.drop", Grade.Caution, Station.Cables, "/runs", $"The run drops {Say.Percent(drop)}",
            $"{Say.Number(volts, 2)} V and {Say.W(run.HeatW ?? 0)} of heat at full load; the house rule allows {Say.Percent(run.DropLimit)}.", [new("drop", drop, "fraction"), new("limit", run.DropLimit, "fraction")],
            run.Advised is { } a ? [UseSize(s, a)] : []);
    }

    private static Finding? Links(FindingScene s)
    {
        if (s.Results.Network is not { } n || s.Results.MainRun is not { RatingA: not null } run || n.Shares.Count == 1) return null;
        var busBars = n.Style == Network.WiringStyle.BusBars;
        var conductor = busBars ? n.Lead : n.Link;
        if (Tolerant.AtLeast(conductor.AmpacityA, n.LinkWorstA)) return null;
        var practice = CablePractices.Get(run.Practice);
        var wide = practice.Rows.FirstOrDefault(r => Tolerant.AtLeast(Cable.Ampacity(r, run.AmbientC).AmpacityA, n.LinkWorstA));
        return s.Make("links.thin", Grade.Danger, Station.Bank, busBars ? "/wiring/lead" : "/wiring/link", busBars ? "The bus leads are too thin for the fuse" : "The rail links are too thin for the fuse",
            $"While the fuse holds, up to {Say.A(n.LinkWorstA)} flow in one of them; {conductor.Size} is good for {Say.A(conductor.AmpacityA)}.",
            [new("in the link", n.LinkWorstA, "A"), new("ampacity", conductor.AmpacityA, "A")],
            wide is null ? [] : [s.MendBank($"Use {wide.Size}", $"good for {Say.A(Cable.Ampacity(wide, run.AmbientC).AmpacityA)}", busBars ? "/wiring/lead" : "/wiring/link",
                new Design.Conductor { Size = wide.Size, LengthM = (busBars ? s.Scene.Bank.Wiring.Lead : s.Scene.Bank.Wiring.Link)?.LengthM })]);
    }

    /// <summary>The design names no string fuses yet where the rule asks for them; a parts list must.</summary>
    private static Finding? StringFuses(FindingScene s)
    {
        if (s.Results.Bank is not { Parallel: > 1 } b) return null;
        var rule = s.Scene.Rules.Word("fuse-each-string");
        if (rule == "none" || rule == "three-or-more" && b.Parallel < 3 || s.Scene.Bank.Runs.Any(r => r.Id.StartsWith("string-", StringComparison.Ordinal))) return null;
        return s.Make("strings.unfused", Grade.Caution, Station.Cables, "/runs", $"A fuse for each of {b.Parallel} strings",
            "A short inside one unit is fed by all the other strings at once, and a BMS is not a fuse.", [new("strings", b.Parallel, "")]);
    }

    private static Finding? Insulation(FindingScene s) => s.Results.MainRun is not { ConductorC: { } hot, Size: { } size } run || hot < CablePractices.Get(run.Practice).InsulationC - 0.5 ? null
        : s.Make("cable.hot", Grade.Caution, Station.Cables, "/runs", $"The copper reaches {Say.Number(hot)} °C", $"{Say.Size(size, run.Conductors)} at full load is as hot as its insulation bears.",
            [new("copper", hot, "°C")], run.Advised is { } a && a.Size != size ? [UseSize(s, a)] : []);

    private static Finding? Switch(FindingScene s)
    {
        if (s.Results.MainRun is not { } run || s.Results.Protection is not { } p || s.Scene.MainRun.Switch is not { } main) return null;
        var most = Math.Max(run.DesignA, p.SurgeA);
        var byVolts = main.MaxDcV is { } volts && !Tolerant.AtLeast(volts, p.GreatestChargingV);
        var byAmps = main.RatingA is { } amps && !Tolerant.AtLeast(amps, most);
        if (!byVolts && !byAmps) return null;
        return s.Make("switch.rating", Grade.Danger, Station.Cables, "/runs", byVolts ? $"The switch is made for {Say.V(main.MaxDcV!.Value)} DC" : $"The switch is made for {Say.A(main.RatingA!.Value)}",
            byVolts ? $"Charging lifts the bank to {Say.V(p.GreatestChargingV)}: opened under load its arc does not go out." : $"Up to {Say.A(most)} flow through it: its contacts weld.",
            [byVolts ? new("switch", main.MaxDcV!.Value, "V") : new("switch", main.RatingA!.Value, "A"), byVolts ? new("bank, charging", p.GreatestChargingV, "V") : new("greatest current", most, "A")],
            s.MendRun("Use a switch that is rated", $"{Say.A(most)} and {Say.V(p.GreatestChargingV)} or more", r => r with { Switch = null }));
    }

    private static Finding? Shunt(FindingScene s)
    {
        foreach (var (i, run) in s.Scene.Bank.Runs.Index())
            if (run.BypassesShunt)
                return s.Make("shunt.bypassed", Grade.Caution, Station.Cables, $"/runs/{i}/bypassesShunt", $"The negative of “{run.Id}” bypasses the shunt",
                    "What flows past the shunt is not counted: the monitor’s state of charge drifts away from the truth.", [new("run", i + 1, "")],
                    s.MendBank("Take it through the shunt", "everything is counted", $"/runs/{i}/bypassesShunt", false));
        return null;
    }
}

using InkyBadger.Core.Banks;
using InkyBadger.Core.Design;
using InkyBadger.Core.Reference;
using InkyBadger.Core.Work;

namespace InkyBadger.Core.Findings;

/// <summary>Units, S and P, and how the strings share.</summary>
internal static class BankFindings
{
    /// <summary>A loss of ceiling below this share is not worth a word.</summary>
    private const double LossWorthSaying = 0.02;

    public static FindingRule[] Rules { get; } =
    [
        Voltage,
        RealVolts,
        NoBms,
        MostSeries,
        MostParallel,
        StringsByRule,
        Takeoff,
        OverBms,
        SurgeOverBms,
        TooFewUnits,
        CRate,
        Cascade,
        Balancer,
        Lift,
        LeadVentilation,
    ];

    private static Finding? Voltage(FindingScene s)
    {
        if (s.Results.Bank is not { } b || s.Results.Voltage is not { } v || b.Layout.Cells == v.Cells && b.Unit.Chemistry == v.Chemistry)
            return null;
        var can = Catalogue.Units.Where(u => u.Chemistry == v.Chemistry && v.Cells % u.Cells == 0).Select(u => u.Cells).Distinct().Order();
        MendOffer?[] mends =
        [
            v.Cells % b.Unit.Cells == 0
                ? FindingScene.Offer($"Put {v.Cells / b.Unit.Cells} in series", NominalOf, s.Bank with { Series = null })
                : s.AdvisedUnit(),
            b.Unit.Chemistry == v.Chemistry
                ? null
                : FindingScene.Offer("Take the units’ own chemistry", NominalOf, s.Bank with { Chemistry = null, Series = null }),
        ];
        return s.Make(
            "bank.voltage",
            Grade.Fault,
            Station.Bank,
            "/series",
            $"{b.Layout.Series} in series make {Say.V(b.Holds.NominalV)}, not {v.SystemV} V",
            $"The bus wants {v.Cells} cells in series; these strings have {b.Layout.Cells}. "
                + $"Units of {string.Join(", ", can)} cells can make it.",
            [new("cells in series", b.Layout.Cells, ""), new("wanted", v.Cells, "")],
            mends
        );
    }

    private static string NominalOf(BankWork then) => then.Bank.Value is { } b ? Say.V(b.Holds.NominalV) : "";

    /// <summary>
    /// A bank that makes other volts than the bus is said to have: what hangs on it gets the bank's own, not its class.
    /// </summary>
    private static Finding? RealVolts(FindingScene s)
    {
        if (
            s.Results.Bank is not { } b
            || s.Results.Inverter is not { Item: { } item }
            || s.Results.Protection is not { GreatestChargingV: var greatest }
            || Tolerant.AtLeast(item.SystemV * InverterAssumed.BearsPerVolt, greatest)
        )
            return null;
        return s.Make(
            "bank.real-volts",
            Grade.Danger,
            Station.Inverter,
            "/inverters/0/item",
            $"{Say.V(greatest)} when charging, on an inverter for {item.SystemV} V",
            $"{b.Layout.Cells} cells in series make {Say.V(b.Holds.NominalV)}, whatever the bus is called. An inverter of its class bears "
                + $"some {Say.V(item.SystemV * InverterAssumed.BearsPerVolt)}: it fails, and may burn.",
            [new("bank, charging", greatest, "V"), new("inverter bears about", item.SystemV * InverterAssumed.BearsPerVolt, "V")],
            s.Results.Voltage is { } v && v.Cells % b.Unit.Cells == 0
                ? FindingScene.Offer($"Put {v.Cells / b.Unit.Cells} in series", NominalOf, s.Bank with { Series = null })
                : s.AdvisedUnit()
        );
    }

    /// <summary>Lithium cells that nothing takes off when one of them is full, empty, hot or overloaded.</summary>
    private static Finding? NoBms(FindingScene s)
    {
        if (s.Results.Bank is not { } b || s.Work.Pack.Value is not { } pack || !pack.Strings.Any(x => x is { IsBare: true, Bms: null }))
            return null;
        return s.Make(
            "bank.no-bms",
            Grade.Danger,
            Station.Bank,
            "/bms",
            "Lithium cells without a BMS",
            $"{Say.Count(b.Layout.Cells)} cells in series drift apart: nothing stops the first that is full, empty, too cold or too hot. "
                + "Overcharged or reversed it burns. One BMS for each string, which looks at every cell.",
            [new("cells in series", b.Layout.Cells, ""), new("strings", b.Layout.Parallel, "")],
            () =>
                Work.BankNeed.BmsFor(s.Work) is { } bms
                    ?
                    [
                        FindingScene.Offer(
                            $"{bms.Name} for {(b.Layout.Parallel == 1 ? "the string" : "each string")}",
                            then =>
                                then.Network.Value?.Ceiling.Amps is { } ceiling
                                    ? $"{Say.A(bms.ContinuousA)} a string, {Say.A(ceiling)} the bank"
                                    : $"{Say.A(bms.ContinuousA)} a string",
                            s.Bank with
                            {
                                Bms = bms,
                            }
                        ),
                    ]
                    : []
        );
    }

    private static Finding? MostSeries(FindingScene s) =>
        s.Results.Bank is not { } b || b.Unit.MaxSeries is not { } most || b.Layout.Series <= most
            ? null
            : s.Make(
                "bank.max-series",
                Grade.Fault,
                Station.Bank,
                "/series",
                $"{b.Layout.Series} in series; the unit allows {most}",
                "The switches of its BMS are not made for the voltage of a longer string.",
                [new("in series", b.Layout.Series, ""), new("allowed", most, "")],
                s.AdvisedUnit()
            );

    private static Finding? MostParallel(FindingScene s) =>
        s.Results.Bank is not { } b || b.Unit.MaxParallel is not { } most || b.Layout.Parallel <= most
            ? null
            : s.Make(
                "bank.max-parallel",
                Grade.Fault,
                Station.Bank,
                "/parallel",
                $"{Say.Strings(b.Layout.Parallel)}; the unit allows {most}",
                "Its maker allows no more strings side by side. Larger units need fewer.",
                [new("strings", b.Layout.Parallel, ""), new("allowed", most, "")],
                s.AdvisedUnit()
            );

    private static Finding? StringsByRule(FindingScene s)
    {
        var most = s.Scene.Rules.Number("most-strings");
        if (s.Results.Bank is not { } b || b.Layout.Parallel <= most || b.Layout.Parallel > b.Unit.MaxParallel)
            return null;
        return s.Make(
            "bank.strings",
            Grade.Caution,
            Station.Bank,
            "/parallel",
            $"{Say.Strings(b.Layout.Parallel)} in parallel",
            $"The house rule stops at {Say.Number(most)}: with every string the sharing gets worse. Larger units, or a higher "
                + $"voltage, need fewer.",
            [new("strings", b.Layout.Parallel, ""), new("house rule", most, "")]
        );
    }

    /// <summary>Judged by what the bank could give otherwise; with unlike strings the near end may even be the right one.</summary>
    private static Finding? Takeoff(FindingScene s)
    {
        if (s.Results.Network is not { Wiring.Style: WiringStyle.SameEnd, Strings.Shares.Count: > 1 } n)
            return null;
        var diagonal = n.Wiring.Styles.First(x => x.Style == WiringStyle.Diagonal);
        var worstIsLimit = n.Ceiling.LimitingString is null || n.Ceiling.LimitingString == n.Strings.Worst;
        var gain =
            n.Ceiling.Amps is { } now && diagonal.CeilingA is { } then ? 1 - now / then : 1 - diagonal.WorstShare / n.Strings.WorstShare;
        var worthALook =
            worstIsLimit
            && s.Scene.Rules.NumberOrNone("string-worth-a-look") is { } worth
            && n.Strings.WorstShare > worth * n.Strings.EvenShare;
        if (gain < LossWorthSaying && !(worthALook && gain > 0))
            return null;
        var ceiling = n.Ceiling.Amps is { } c
            ? $"caps the bank at {Say.A(c)}{(n.Ceiling.AllowsAcW is { } w ? $", {Say.W(w)} of AC" : "")}"
            : "sets the pace";
        return s.Make(
            "bank.take-off",
            Grade.Caution,
            Station.Bank,
            "/wiring/style",
            worstIsLimit ? $"String {Say.StringName(n.Strings.Worst)} works hardest" : "Both leads leave at one end",
            worstIsLimit
                ? $"{Say.A(n.Strings.WorstA)} against an even {Say.A(n.Strings.EvenShare * n.Strings.BankA)}. It ages first, and {ceiling}."
                : $"String {Say.StringName(n.Ceiling.LimitingString!.Value)} reaches its limit first, and {ceiling}.",
            [new("worst share", n.Strings.WorstShare, "fraction"), new("ceiling lost", n.Ceiling.LossA ?? 0, "A")],
            Wired(
                s,
                "Take off diagonally",
                then =>
                    then.Network.Value is { Ceiling.Amps: { } better } && !worstIsLimit
                        ? $"{Say.A(better)} at most"
                        : $"worst {Say.Percent(then.Network.Value?.Strings.WorstShare ?? 0)}",
                WiringStyle.Diagonal
            )
        );
    }

    private static MendOffer Wired(FindingScene s, string label, Func<BankWork, string> outcome, WiringStyle style) =>
        FindingScene.Offer(label, outcome, s.Bank with { Wiring = s.Bank.Wiring with { Style = style } });

    private static string CeilingOf(BankWork then) =>
        then.Network.Value?.Ceiling.Amps is { } ceiling ? $"{Say.A(ceiling)} at most" : "no limit";

    private static Finding? OverBms(FindingScene s)
    {
        if (
            s.Results.Network is not { Ceiling.Amps: { } ceiling } n
            || s.Results.Bank is not { } b
            || !Tolerant.Exceeds(n.Strings.BankA, ceiling)
        )
            return null;
        return s.Make(
            "bank.over-bms",
            Grade.Fault,
            Station.Bank,
            "/parallel",
            $"String {Say.StringName(n.Ceiling.LimitingString!.Value)} trips at full load",
            $"At {Say.A(n.Strings.BankA)} it carries more than a unit lets through; the bank’s ceiling as wired is {Say.A(ceiling)}.",
            [new("worst current", n.Strings.BankA, "A"), new("ceiling", ceiling, "A")],
            () =>
                ((WiringStyle[])[WiringStyle.Diagonal, WiringStyle.BusBars])
                    .Where(style => style != n.Wiring.Style)
                    .Select(style =>
                        Wired(s, style == WiringStyle.Diagonal ? "Take off diagonally" : "Use bus bars", CeilingOf, style) with
                        {
                            Group = "style",
                        }
                    )
                    .Concat(s.MoreStrings(CeilingOf))
        );
    }

    /// <summary>
    /// The string that comes nearest to what its own units let through for so long: its number, amperes in it, amperes allowed.
    /// </summary>
    private static (int String, double InIt, double Allowed)? Nearest(FindingScene s, double bankA, double seconds)
    {
        if (s.Results.Network is not { } n || s.Work.Pack.Value is not { } pack)
            return null;
        (int String, double InIt, double Allowed)? nearest = null;
        for (var i = 0; i < n.Strings.Shares.Count; i++)
        {
            if (pack.Strings[i].AllowsA(seconds) is not { } allowed)
                continue;
            var inIt = Math.Abs(n.Strings.Shares[i]) * bankA;
            if (nearest is null || inIt / allowed > nearest.Value.InIt / nearest.Value.Allowed)
                nearest = (i + 1, inIt, allowed);
        }
        return nearest;
    }

    private static Finding? SurgeOverBms(FindingScene s)
    {
        if (s.Results.Currents is not { } c || s.Results.Loads is not { } loads || loads.SurgeDemandW <= loads.Worst.RunningW)
            return null;
        // A unit that states no peak counts with what it lets through without end.
        var seconds = loads.Worst.StartSeconds;
        if (Nearest(s, c.SurgeWorstA, seconds) is not var (at, inString, allowed) || !Tolerant.Exceeds(inString, allowed))
            return null;
        return s.Make(
            "bank.surge",
            Grade.Fault,
            Station.Bank,
            "/parallel",
            "The worst start trips the BMS",
            $"{Say.A(inString)} in string {Say.StringName(at)} for {Say.Seconds(seconds)}; a unit allows {Say.A(allowed)} for so long.",
            [new("in the string", inString, "A"), new("allowed", allowed, "A")],
            () =>
                s.MoreStrings(then =>
                    then.Network.Value is { } n && then.Currents.Value is { } more
                        ? $"{Say.A(n.Strings.WorstShare * more.SurgeWorstA)} in a string at most"
                        : ""
                )
        );
    }

    /// <summary>A winch, windlass, thruster or starter on a bank whose BMS opens before it turns.</summary>
    internal static Finding? DcStart(FindingScene s, Design.Load load, int i)
    {
        if (s.Results.Voltage is not { } v || load.Kind != LoadKind.Dc || load.Quantity == 0 || load.SurgeWatts <= 0)
            return null;
        if (s.Work.Pack.Value is not { } pack || !pack.Strings.Any(x => x.CanDropOut))
            return null;
        var seconds = load.StartSeconds ?? LoadsStage.DefaultStartSeconds;
        if (Nearest(s, load.SurgeWatts / v.LowV, seconds) is not var (at, inString, allowed) || !Tolerant.Exceeds(inString, allowed))
            return null;
        return s.Make(
            "bank.dc-start",
            Grade.Fault,
            Station.Bank,
            $"/demand/loads/{i}/surgeWatts",
            $"{load.Name} opens the BMS when it starts",
            $"{Say.A(inString)} in string {Say.StringName(at)} for {Say.Seconds(seconds)}; a unit allows {Say.A(allowed)} for so "
                + $"long. Give it a bank of its own.",
            [new("in the string", inString, "A"), new("allowed", allowed, "A")]
        );
    }

    private static Finding? TooFewUnits(FindingScene s)
    {
        if (s.Results.Bank is not { Need.Sizing: { } size } b || b.Layout.Series != size.Series || s.Work.Pack.Value is not { } pack)
            return null;
        // Units that are not alike, or not new, are judged by what they hold together; equal ones by their strings.
        if (
            pack.IsMixed
                ? BankSize.Holds(s.Work.Arrangement.Need().Asked!, b.Holds.Ah)
                : b.Layout.Parallel >= size.Parallel || size.Governs == BankDemand.Bms
        )
            return null;
        // Units that are not alike may hold enough, and be too few ampere-hours for the current.
        var byRate = size.AhRate is { } rate && Tolerant.Exceeds(rate, b.Holds.Ah) && Tolerant.AtLeast(b.Holds.RatedWh, size.RatedWh);
        var energy = pack.IsMixed ? !byRate : size.Governs == BankDemand.Energy;
        var what = energy
            ? $"{Say.Wh(size.EnergyWantedWh)} are wanted, with the house rule’s reserves {Say.Wh(size.RatedWh)} rated; the "
                + $"bank has {Say.Wh(b.Holds.RatedWh)}."
            : $"At full load the house rule’s C-rate asks for {Say.Number(size.AhRate!.Value)} Ah; "
                + $"the bank has {Say.Number(b.Holds.Ah)} Ah.";
        return s.Make(
            "bank.too-small",
            Grade.Caution,
            Station.Bank,
            "/parallel",
            pack.IsMixed
                ? $"{Say.Number(b.Holds.Ah)} Ah as they stand, where the demand asks for {Say.Number(b.Need.Ah ?? 0)} Ah"
                : $"{Say.Strings(b.Layout.Parallel)}, where the demand asks for {size.Parallel}",
            what,
            pack.IsMixed
                ? [new("as they stand", b.Holds.Ah, "Ah"), new("wanted", b.Need.Ah ?? 0, "Ah")]
                : [new("strings", b.Layout.Parallel, ""), new("wanted", size.Parallel, "")],
            () =>
                s.MoreStrings(then => then.Bank.Value is { } more ? $"{Say.Wh(more.Holds.UsableWh)} usable" : "")
                    .Concat(s.AdvisedUnit() is { } unit ? [unit] : [])
        );
    }

    private static Finding? CRate(FindingScene s)
    {
        if (s.Results.Bank is not { Lasts.CRate: { } rate } b)
            return null;
        var rule = s.Scene.Rules.Number(Chemistries.Get(b.Unit.Chemistry).IsLithium ? "c-rate-lithium" : "c-rate-lead");
        // A bank below its advised strings says the same already.
        if (!Tolerant.Exceeds(rate, rule) || TooFewUnits(s) is not null)
            return null;
        return s.Make(
            "bank.c-rate",
            Grade.Caution,
            Station.Bank,
            "/parallel",
            $"{Say.Number(rate, 2)} C at full load",
            $"The house rule keeps it to {Say.Number(rule, 2)} C: cooler, and it lasts.",
            [new("C-rate", rate, "per hour"), new("house rule", rule, "per hour")],
            () => s.MoreStrings(then => then.Bank.Value?.Lasts.CRate is { } less ? $"{Say.Number(less, 2)} C" : "")
        );
    }

    private static Finding? Cascade(FindingScene s)
    {
        if (
            s.Results.Network is not { OneOut.BlackoutAfter: { } j } n
            || s.Results.Bank is not { } b
            // What the bank may give at most is no load that anybody asks for.
            || s.Results.Currents is { IsOffer: true }
            || n.Ceiling.Amps is { } c && Tolerant.Exceeds(n.Strings.BankA, c)
        )
            return null;
        return s.Make(
            "bank.cascade",
            Grade.Caution,
            Station.Bank,
            "/parallel",
            "One unit out brings the rest down",
            $"At {Say.A(n.Strings.BankA)}, if string {Say.StringName(j)} opens, the "
                + $"other{(b.Layout.Parallel > 2 ? $" {b.Layout.Parallel - 1} go" : " goes")} over the limit one after another: "
                + "everything is dark.",
            [new("at", n.Strings.BankA, "A")]
        );
    }

    private static Finding? Balancer(FindingScene s)
    {
        if (s.Results.Bank is not { Layout.Series: > 1 } b || b.Unit.Communicates || b.Unit.Cells == 1)
            return null;
        var rule = s.Scene.Rules.Word("series-balancer");
        FindingFigure[] figures = [new("strings", b.Layout.Parallel, ""), new("in series", b.Layout.Series, "")];
        if (!Chemistries.Get(b.Unit.Chemistry).IsLithium)
            return s.Make(
                "bank.balancer",
                Grade.Note,
                Station.Bank,
                "/series",
                "Level the blocks by charge, and look at their rest volts",
                $"{Say.Count(b.Layout.Series)} lead-acid blocks in series drift apart: an equalising charge where the maker "
                    + "allows one, and "
                    + "each block’s volts after a night’s rest, twice a year.",
                figures
            );
        return s.Make(
            "bank.balancer",
            rule == "required" ? Grade.Caution : Grade.Note,
            Station.Bank,
            "/series",
            rule == "by-hand" ? "Rebalance once a year" : "A balancer for each string",
            $"{Say.Count(b.Layout.Series)} units in series that do not talk drift apart, and the first that trips stops its whole string.",
            figures
        );
    }

    internal static Finding? Tap(FindingScene s, Design.Load load, int i)
    {
        if (load.Tap is not { } tap || s.Results.Bank is not { Layout.Series: > 1 } b || tap >= b.Layout.Series)
            return null;
        return s.Make(
            "bank.tap",
            Grade.Danger,
            Station.Bank,
            $"/demand/loads/{i}/tap",
            $"{load.Name} is taken from part of a string",
            $"From {tap} of {b.Layout.Series} units in series: that one is emptied while the others are overcharged.",
            [new("units tapped", tap, ""), new("in series", b.Layout.Series, "")],
            FindingScene.Offer(
                "Feed it through a converter",
                "the whole string carries it",
                s.Bank.WithLoad(i, load with { Tap = null, Kind = LoadKind.Converter })
            )
        );
    }

    private static Finding? Lift(FindingScene s)
    {
        var limit = s.Scene.Rules.Number("one-person-lifts");
        if (s.Results.Bank is not { } b || b.Unit.MassKg is not { } kg || kg <= limit)
            return null;
        return s.Make(
            "bank.lift",
            Grade.Caution,
            Station.Bank,
            "/unit",
            $"Each unit weighs {Say.Mass(kg, s.Scene.Design.Display.Units)}",
            kg > 55 ? "Lift it with tackle, not by hand." : "Two people lift it.",
            [new("mass", kg, "kg"), new("one person", limit, "kg")]
        );
    }

    private static Finding? LeadVentilation(FindingScene s) =>
        s.Results.Bank is not { Unit.Chemistry: "flooded" } b
            ? null
            : s.Make(
                "bank.hydrogen",
                s.Scene.Design.Place.Living ? Grade.Danger : Grade.Caution,
                Station.Bank,
                "/unit",
                "Vent it to the outside",
                "Flooded lead-acid gives off hydrogen when charged: a vented box or room, no sparks.",
                [new("units", b.Layout.Units, "")]
            );
}

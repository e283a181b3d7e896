using InkyBadger.Core.Banks;
using InkyBadger.Core.Design;
using InkyBadger.Core.Work;

namespace InkyBadger.Core.Findings;

/// <summary>Units that are not alike: other chemistry, capacity, age or charge, and leads of unequal length.</summary>
internal static class MixFindings
{
    /// <summary>Limits may differ by this share under the house rule <c>within-20-percent</c>.</summary>
    private const double LimitsApart = 0.2;

    /// <summary>Years by which units may differ before it is said.</summary>
    private const double YearsApart = 1;

    public static FindingRule[] Rules { get; } =
    [UnlikeInSeries, UnlikeInParallel, MixedAgeInSeries, MixedAgeInParallel, UnequalCharge, UnequalLeads, BadJoint, BadLugOf];

    /// <summary>Units of one string against each other; whole strings of another unit are a matter of their being in parallel.</summary>
    private static Finding? UnlikeInSeries(FindingScene s)
    {
        if (s.Results.Bank is not { Layout.Series: > 1 } || s.Work.Pack.Value is not { } pack)
            return null;
        var odd = pack.Strings.Index().Where(x => x.Item.Units.Any(u => IsUnlike(u.Item, x.Item.Units[0].Item))).ToList();
        if (odd.Count == 0)
            return null;
        var (at, units) = odd.FirstOrDefault(x => HasOtherChemistry(x.Item)) is { Item: not null } worst ? worst : odd[0];
        var chemistry = HasOtherChemistry(units);
        var name = Say.StringName(at + 1);
        return s.Make(
            "bank.unlike-series",
            chemistry ? Grade.Danger : Grade.Fault,
            Station.Bank,
            "/positions",
            odd.Count == 1 ? $"Unlike units in string {name}" : $"Unlike units in {Say.Count(odd.Count).ToLowerInvariant()} strings",
            chemistry
                ? "Two chemistries in series overcharge one and starve the other: fire and gas."
                : "The smaller unit is emptied and overfilled first, every cycle.",
            [new($"largest in {name}", units.Units.Max(u => u.Item.Ah), "Ah"), new("smallest", units.Units.Min(u => u.Item.Ah), "Ah")],
            AllAlike(s)
        );
    }

    /// <summary>What a joint may have of heat in it before it hurts itself [W].</summary>
    private const double JointHeatW = 5;

    /// <summary>
    /// A joint that is known to be bad. It holds its string back at first; when the others are empty it carries what its string may, or all
    /// of the load.
    /// </summary>
    private static Finding? BadJoint(FindingScene s)
    {
        if (s.Results.Network is not { Strings: { Amps: var amps, BankA: var all } } || s.Work.Pack.Value is not { } pack)
            return null;
        double MostA(PackString units) => units.LimitA is { } limit ? Math.Min(limit, all) : all;
        (int String, int Unit, double HeatW)? worst = null;
        foreach (var (i, units) in pack.Strings.Index())
        foreach (var (u, unit) in units.Units.Index())
            if (unit.JointOhm > 0 && MostA(units) * MostA(units) * unit.JointOhm is var heat && heat > (worst?.HeatW ?? 0))
                worst = (i, u, heat);
        if (worst is not var (at, place, watts) || watts <= 0)
            return null;
        var ohm = pack.Strings[at].Units[place].JointOhm;
        var (name, index) = (
            $"{Say.StringName(at + 1)}{place + 1}",
            s.Bank.Positions.Index().First(p => p.Item.String == at + 1 && p.Item.Unit == place + 1).Index
        );
        return s.Make(
            "bank.joint",
            watts > JointHeatW ? Grade.Danger : Grade.Caution,
            Station.Bank,
            $"/positions/{index}/jointMilliohm",
            $"A bad joint at {name}, {Say.Number(ohm * 1000, 1)} mΩ",
            $"{Say.A(amps[at])} go through it at full load, and up to {Say.A(MostA(pack.Strings[at]))} once the other strings are empty: "
                + $"{Heat(watts)} in one lug. It heats, loosens and burns.",
            [new("at full load", amps[at], "A"), new("at most", MostA(pack.Strings[at]), "A"), new("heat", watts, "W")],
            FindingScene.Offer(
                "Clean and tighten it",
                "as a sound joint",
                s.Bank with
                {
                    Positions = [.. s.Bank.Positions.Select((p, i) => i == index ? p with { JointMilliohm = null } : p)],
                }
            )
        );
    }

    /// <summary>A lug of a link, jumper or lead that is known to be bad.</summary>
    private static Finding? BadLugOf(FindingScene s)
    {
        if (s.Results.Network is not { Copper.Placed: { } placed })
            return null;
        var wiring = s.Bank.Wiring;
        (PlacedAmps At, PlacedConductor Said, double HeatW)? worst = null;
        foreach (var (c, said) in BadLug.Of(placed, wiring))
        {
            var heat = c.Amps * c.Amps * said.JointMilliohm!.Value / 1000;
            if (worst is not { } before || heat > before.HeatW)
                worst = (c, said, heat);
        }
        if (worst is not var (at, bad, watts))
            return null;
        IReadOnlyList<PlacedConductor> Sound(IReadOnlyList<PlacedConductor> list) =>
            [.. list.Select(c => ReferenceEquals(c, bad) ? c with { JointMilliohm = null } : c)];
        return s.Make(
            "bank.lug",
            watts > JointHeatW ? Grade.Danger : Grade.Caution,
            Station.Bank,
            "/wiring",
            $"A bad lug on {at.Name}, {Say.Number(bad.JointMilliohm!.Value, 1)} mΩ",
            $"{Say.A(at.Amps)} go through it at full load: {Heat(watts)} in one lug, and the strings share by what it holds back.",
            [new("at full load", at.Amps, "A"), new("heat", watts, "W")],
            FindingScene.Offer(
                "Clean and tighten it",
                "as a sound joint",
                s.Bank with
                {
                    Wiring = wiring with { Jumpers = Sound(wiring.Jumpers), Links = Sound(wiring.Links), Leads = Sound(wiring.Leads) },
                }
            )
        );
    }

    private static bool HasOtherChemistry(PackString units) => units.Units.Any(u => u.Item.Chemistry != units.Units[0].Item.Chemistry);

    private static bool IsUnlike(UnitItem a, UnitItem b) => a.Chemistry != b.Chemistry || a.Ah != b.Ah || a.Cells != b.Cells;

    private static MendOffer AllAlike(FindingScene s) =>
        FindingScene.Offer("Make all units alike", $"{Say.Number(s.Results.Bank!.Unit.Ah)} Ah each", s.Bank with { Positions = [] });

    /// <summary>Strings against each other.</summary>
    private static Finding? UnlikeInParallel(FindingScene s)
    {
        if (s.Results.Bank is not { Layout.Parallel: > 1 } || s.Work.Pack.Value is not { } pack)
            return null;
        var first = pack.Strings[0].Units[0].Item;
        var odd = pack.Strings.Where(x => x.Units.Any(u => IsUnlike(u.Item, first))).ToList();
        if (odd.Count == 0)
            return null;
        var chemistry = odd.Any(x => x.Units.Any(u => u.Item.Chemistry != first.Chemistry));
        if (!chemistry && AllowedByRule(s.Scene.Rules.Word("mixed-parallel"), pack))
            return null;
        return s.Make(
            "bank.unlike-parallel",
            chemistry ? Grade.Danger : Grade.Caution,
            Station.Bank,
            "/positions",
            chemistry ? "Two chemistries in parallel" : "Unlike units in parallel",
            chemistry
                ? "Their voltages never agree: one drives current into the other all the time."
                : "Capacity adds, limits do not: see each string’s share against its own limit.",
            [
                new("greatest string", pack.Strings.Max(x => x.Ah), "Ah"),
                new("least", pack.Strings.Min(x => x.Ah), "Ah"),
                new("worst share", s.Results.Network?.Strings.WorstShare ?? 0, "fraction"),
            ],
            AllAlike(s)
        );
    }

    private static bool AllowedByRule(string rule, Pack pack) =>
        rule switch
        {
            "no" => false,
            "within-20-percent" => pack.Strings[0].LimitA is { } usual
                && pack.Strings.All(x => x.LimitA is { } own && Math.Abs(own - usual) <= LimitsApart * usual * (1 + Tolerant.Noise)),
            _ => true,
        };

    /// <summary>The age of each unit, string by string; one that nobody said is new.</summary>
    private static List<double[]>? AgesOf(FindingScene s) =>
        s.Work.Pack.Value is { } pack && s.Scene.Bank.Positions.Any(p => p.AgeYears is not null)
            ? [.. pack.Strings.Select(x => x.Units.Select(u => u.AgeYears ?? 0).ToArray())]
            : null;

    /// <summary>Old and new units in one string.</summary>
    private static Finding? MixedAgeInSeries(FindingScene s)
    {
        if (AgesOf(s) is not { } ages)
            return null;
        var (at, spread) = ages.Select((x, i) => (i, x.Max() - x.Min())).MaxBy(x => x.Item2);
        return spread <= YearsApart
            ? null
            : s.Make(
                "bank.mixed-age-series",
                Grade.Fault,
                Station.Bank,
                "/positions",
                $"Old and new units in string {Say.StringName(at + 1)}",
                "The oldest is emptied first, every cycle, and takes the new ones with it.",
                [new("years apart", spread, "")]
            );
    }

    /// <summary>A string that is older than another beside it, by its oldest unit.</summary>
    private static Finding? MixedAgeInParallel(FindingScene s)
    {
        if (AgesOf(s) is not { Count: > 1 } ages)
            return null;
        var oldest = ages.Select(x => x.Max()).ToList();
        var spread = oldest.Max() - oldest.Min();
        return spread <= YearsApart
            ? null
            : s.Make(
                "bank.mixed-age",
                Grade.Caution,
                Station.Bank,
                "/positions",
                "Old and new strings together",
                "The older string carries less and less, and the new ones carry it along.",
                [new("years apart", spread, "")]
            );
    }

    /// <summary>What would flow at the moment two strings are joined as full as they are said to be.</summary>
    private static Finding? UnequalCharge(FindingScene s)
    {
        if (s.Results.Bank is not { Layout.Parallel: > 1 } b || s.Results.Network is not { } n)
            return null;
        if (s.Work.Pack.Value is not { } pack || s.Work.Wired.Value is not { } wired)
            return null;
        var strings = pack
            .Strings.Index()
            .Where(x => x.Item.RestV() is not null)
            .Select(x => (Name: x.Index + 1, Volts: x.Item.RestV()!.Value))
            .OrderBy(x => x.Volts)
            .ToList();
        if (strings.Count < 2)
            return null;
        var (low, high) = (strings[0], strings[^1]);
        if (
            !Tolerant.Exceeds(
                high.Volts - low.Volts,
                RestMatch.ToleranceOf(b.Unit.Chemistry, b.Layout.Cells, s.Scene.Rules.Number("join-within"))
            )
        )
            return null;
        var join = ParallelEqualise.Work(Of(high), Of(low), 2 * n.Copper.Link.Ohm);
        EqualiseUnit Of((int Name, double Volts) x) => new(x.Volts, wired.StringOhm[x.Name - 1], pack.Strings[x.Name - 1].Ah, 1);
        return s.Make(
            "bank.unequal-charge",
            Grade.Caution,
            Station.Bank,
            "/positions",
            $"Do not join strings {Say.StringName(low.Name)} and {Say.StringName(high.Name)} yet",
            $"Their rest voltages are {Say.Number(high.Volts - low.Volts, 2)} V apart: {Say.A(join.InitialA)} would flow. Bring "
                + $"every unit full on its own first.",
            [new("apart", high.Volts - low.Volts, "V"), new("would flow", join.InitialA, "A")]
        );
    }

    private static Finding? UnequalLeads(FindingScene s)
    {
        if (
            s.Results.Network is not { Wiring.Style: WiringStyle.BusBars } n
            || s.Results.Bank is not { Layout.Parallel: > 1 } b
            || s.Scene.Bank.Wiring.Leads.Count == 0
        )
            return null;
        if (!Tolerant.Exceeds(n.Strings.WorstShare, n.Strings.EvenShare * 1.02))
            return null;
        return s.Make(
            "bank.unequal-leads",
            Grade.Caution,
            Station.Bank,
            "/wiring/leads",
            "Leads of unequal length to the bus bars",
            $"String {Say.StringName(n.Strings.Worst)} carries {Say.Percent(n.Strings.WorstShare)} where "
                + $"{Say.Percent(n.Strings.EvenShare)} would "
                + $"be even: bus bars share well only with equal leads.",
            [new("worst share", n.Strings.WorstShare, "fraction"), new("strings", b.Layout.Parallel, "")],
            FindingScene.Offer(
                "Make all leads alike",
                then => $"worst {Say.Percent(then.Network.Value?.Strings.WorstShare ?? 0)}",
                s.Bank with
                {
                    Wiring = s.Bank.Wiring with { Leads = [] },
                }
            )
        );
    }

    /// <summary>Of a lug a few watts are many, and a tenth of one is not nothing.</summary>
    private static string Heat(double watts) => $"{Say.Number(watts, watts < 10 ? 1 : 0)} W";
}

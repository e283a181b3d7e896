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

    /// <summary>Rest volts of a 12 V unit by which strings may differ when they are joined [V].</summary>
    private const double JoinWithinV = 0.05;

    public static FindingRule[] Rules { get; } = [UnlikeInSeries, UnlikeInParallel, OldAndNew, UnequalCharge, UnequalLeads];

    private static Finding? UnlikeInSeries(FindingScene s)
    {
        if (s.Results.Bank is not { } b || Odd(s, b).ToList() is not { Count: > 0 } odd || b.Layout.Series == 1)
            return null;
        var chemistry = odd.Any(p => p.Item!.Chemistry != b.Unit.Chemistry);
        return s.Make(
            "bank.unlike-series",
            chemistry ? Grade.Danger : Grade.Fault,
            Station.Bank,
            "/positions",
            "Unlike units in one string",
            chemistry
                ? "Two chemistries in series overcharge one and starve the other: fire and gas."
                : "The smaller unit is emptied and overfilled first, every cycle.",
            [new("the others", b.Unit.Ah, "Ah"), new("this one", odd[0].Item!.Ah, "Ah")],
            FindingScene.Offer("Make all units alike", $"{Say.Number(b.Unit.Ah)} Ah each", s.Bank with { Positions = [] })
        );
    }

    private static Finding? UnlikeInParallel(FindingScene s)
    {
        if (s.Results.Bank is not { } b || b.Layout.Parallel == 1 || Odd(s, b).ToList() is not { Count: > 0 } odd)
            return null;
        var chemistry = odd.Any(p => p.Item!.Chemistry != b.Unit.Chemistry);
        if (!chemistry && AllowedByRule(s.Scene.Rules.Word("mixed-parallel"), b, odd))
            return null;
        return s.Make(
            "bank.unlike-parallel",
            chemistry ? Grade.Danger : Grade.Caution,
            Station.Bank,
            "/positions",
            chemistry ? "Two chemistries in parallel" : "Unlike units in parallel",
            chemistry
                ? "Their voltages never agree: one drives current into the other without end."
                : "Capacity adds, limits do not: see each string’s share against its own limit.",
            [new("worst share", s.Results.Network?.Strings.WorstShare ?? 0, "fraction")],
            FindingScene.Offer("Make all units alike", $"{Say.Number(b.Unit.Ah)} Ah each", s.Bank with { Positions = [] })
        );
    }

    private static bool AllowedByRule(string rule, BankResult b, List<Design.Position> odd) =>
        rule switch
        {
            "no" => false,
            "within-20-percent" => b.Unit.LimitA() is { } usual
                && odd.All(p => p.Item!.LimitA() is { } own && Math.Abs(own - usual) <= LimitsApart * usual * (1 + Tolerant.Noise)),
            _ => true,
        };

    private static IEnumerable<Design.Position> Odd(FindingScene s, BankResult b) =>
        s.Scene.Bank.Positions.Where(p =>
            p.Item is { } item
            && p.String <= b.Layout.Parallel
            && p.Unit <= b.Layout.Series
            && (item.Chemistry != b.Unit.Chemistry || item.Ah != b.Unit.Ah || item.Cells != b.Unit.Cells)
        );

    /// <summary>Ages are known where the document says them; a unit without one is new.</summary>
    private static Finding? OldAndNew(FindingScene s)
    {
        if (s.Results.Bank is not { Layout.Units: > 1 } b)
            return null;
        var ages = s
            .Scene.Bank.Positions.Where(p => p.String <= b.Layout.Parallel && p.Unit <= b.Layout.Series && p.AgeYears is not null)
            .ToLookup(p => p.String, p => p.AgeYears!.Value);
        double Youngest(int of, IEnumerable<double> known) => known.Count() < of ? 0 : known.Min();
        var all = ages.SelectMany(g => g).ToList();
        if (all.Count == 0)
            return null;
        var spread = all.Max() - Youngest(b.Layout.Units, all);
        if (spread <= YearsApart)
            return null;
        var inSeries = ages.Any(g => g.Max() - Youngest(b.Layout.Series, g) > YearsApart);
        return s.Make(
            "bank.mixed-age",
            inSeries ? Grade.Fault : Grade.Caution,
            Station.Bank,
            "/positions",
            "Old and new units together",
            inSeries
                ? "In one string the oldest is emptied first, every cycle, and takes the new ones with it."
                : "The older string carries less and less, and the new ones carry it along.",
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
        if (!Tolerant.Exceeds(high.Volts - low.Volts, JoinWithinV * b.Holds.NominalV / 12))
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
}

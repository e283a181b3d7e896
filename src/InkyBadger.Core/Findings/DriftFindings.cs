using InkyBadger.Core.Banks;
using InkyBadger.Core.Design;
using InkyBadger.Core.Work;

namespace InkyBadger.Core.Findings;

/// <summary>Units of one string that were tested and found to hold unlike much, or to be unlike full: each string by itself.</summary>
internal static class DriftFindings
{
    /// <summary>Of the larger unit's ampere-hours; what a capacity test tells apart.</summary>
    private const double WorthSaying = 0.05;

    public static IEnumerable<Finding> All(FindingScene s)
    {
        if (s.Results.Bank is not { Layout.Series: > 1 } || s.Work.Pack.Value is not { } pack)
            yield break;
        foreach (var (i, units) in pack.Strings.Index())
        {
            if (Unlevel(s, units, i + 1) is { } unlevel)
                yield return unlevel with
                {
                    About = Say.StringName(i + 1),
                };
            if (Weak(s, units, i + 1) is { } weak)
                yield return weak with
                {
                    About = Say.StringName(i + 1),
                };
        }
    }

    /// <summary>
    /// The emptiest unit ends the string while another still holds something that nothing in the bank evens out (method, 4.4).
    /// </summary>
    private static Finding? Unlevel(FindingScene s, PackString units, int number)
    {
        if (units.Units.All(u => u.Soc is null))
            return null;
        double Holds(PackUnit u) => u.Ah * (u.Soc ?? 1);
        double Takes(PackUnit u) => u.Ah * (1 - (u.Soc ?? 1));
        var (low, high) = (At(units.Units, u => -Takes(u)), At(units.Units, Takes));
        // How far the emptiest is behind the fullest, whatever they hold: what one would have to put into it.
        var behind = Takes(units.Units[low]) - Takes(units.Units[high]);
        if (!Tolerant.Exceeds(behind, WorthSaying * units.Units.Max(u => u.Ah)))
            return null;
        var drift = SeriesDrift.Work([
            .. units.Units.Select(u => new DriftUnit(
                u.Ah,
                u.Soc ?? 1,
                u.Item.Cells * Reference.Chemistries.Get(u.Item.Chemistry).CellNominalV
            )),
        ]);
        var (name, full, empty) = (Say.StringName(number), Name(number, high), Name(number, low));
        var stays = Holds(units.Units[high]) - drift.CanGiveAh;
        return s.Make(
            "bank.unlevel",
            Grade.Fault,
            Station.Bank,
            $"/positions/{PlaceOf(s, number, low)}/soc",
            $"{full} and {empty} are not level",
            $"{empty} is empty while {full} still holds {Ah(Math.Max(0, stays))}, and {full} is full while {empty} lacks {Ah(behind)}. "
                + "Nothing in the bank evens them out.",
            [
                new($"{empty} behind", behind, "Ah"),
                new("usable of the string", drift.UsableAh, "Ah"),
                new("stranded", drift.StrandedWh, "Wh"),
            ],
            FindingScene.Offer(
                $"Level {name}: {Ah(behind)} into {empty}",
                then => then.Pack.Value is { } p ? $"{Ah(p.Strings[number - 1].Ah)} of the string come out" : "",
                With(s, number, units, (p, _) => p with { Soc = 1 })
            )
        );
    }

    /// <summary>One unit has aged more than the rest of its string.</summary>
    private static Finding? Weak(FindingScene s, PackString units, int number)
    {
        var (low, high) = (At(units.Units, u => u.Ah), At(units.Units, u => -u.Ah));
        var (weak, strong) = (units.Units[low], units.Units[high]);
        // Units that were unlike when new are another matter.
        if (weak.Item.Ah != strong.Item.Ah || !Tolerant.Exceeds(strong.Ah - weak.Ah, WorthSaying * strong.Ah))
            return null;
        return s.Make(
            "bank.weak-unit",
            Grade.Caution,
            Station.Bank,
            $"/positions/{PlaceOf(s, number, low)}/health",
            $"{Name(number, low)} holds {Say.Number(weak.Ah)} of {Ah(weak.Item.Ah)}",
            $"{Ah(strong.Ah - weak.Ah)} of {Name(number, high)} never come out beside it, and it ages faster than the rest.",
            [new("it holds", weak.Ah, "Ah"), new("the best beside it", strong.Ah, "Ah")],
            FindingScene.Offer(
                $"Another as good as {Name(number, high)}",
                then => then.Pack.Value is { } p ? $"{Ah(p.Strings[number - 1].Ah)} of string {Say.StringName(number)} come out" : "",
                With(s, number, units, (p, u) =>
                    u == low ? p with { Health = strong.Health, AgeYears = strong.AgeYears, Soc = strong.Soc } : p
                )
            )
        );
    }

    /// <summary>In the document’s list, where the unit is said to be what it is.</summary>
    private static int PlaceOf(FindingScene s, int number, int unit) =>
        Math.Max(0, s.Bank.Positions.Index().FirstOrDefault(p => p.Item.String == number && p.Item.Unit == unit + 1).Index);

    private static string Ah(double ah) => Figures.Say(ah, "Ah");

    private static string Name(int number, int unit) => $"{Say.StringName(number)}{unit + 1}";

    /// <summary>The first of those with the least figure.</summary>
    private static int At(IReadOnlyList<PackUnit> units, Func<PackUnit, double> figure) => units.Index().MinBy(u => figure(u.Item)).Index;

    /// <summary>The bank with every position of a string changed; one that said nothing is added.</summary>
    private static Bank With(FindingScene s, int number, PackString units, Func<Position, int, Position> change)
    {
        var positions = s.Bank.Positions.ToList();
        for (var u = 0; u < units.Units.Count; u++)
        {
            var at = positions.FindIndex(p => p.String == number && p.Unit == u + 1);
            var before = at >= 0 ? positions[at] : new Position { String = number, Unit = u + 1 };
            var after = change(before, u);
            if (at >= 0)
                positions[at] = after;
            else if (after != before)
                positions.Add(after);
        }
        return s.Bank with { Positions = positions };
    }
}

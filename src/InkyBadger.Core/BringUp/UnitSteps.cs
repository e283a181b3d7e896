using InkyBadger.Core.Banks;
using InkyBadger.Core.Design;
using InkyBadger.Core.Proving;
using InkyBadger.Core.Reference;
using InkyBadger.Core.Work;
using InkyBadger.Core.Working;

namespace InkyBadger.Core.BringUp;

/// <summary>Each unit by itself: looked at, measured at rest, brought full.</summary>
internal static class UnitSteps
{
    public static void Add(Walk w, Pack pack, BankResult bank)
    {
        w.Under("Each unit alone");
        w.Add(
            new("look", "Every unit looked at")
            {
                Ask =
                    $"Look at {(pack.Parallel * pack.Series == 1 ? "the unit" : $"all {pack.Parallel * pack.Series} units")} "
                    + "before any is lifted in",
                Do = "What is swollen, cracked, wet or smells is not used.",
                List =
                [
                    "Cases whole, not swollen, not cracked, dry.",
                    "Posts clean and bright, threads whole.",
                    "Each marked with its place, A1 the one whose plus is the string’s plus.",
                    "They stand as the maker allows, strapped, nothing metal above them.",
                ],
                About = bank.Unit.Key,
                Caution = bank.Unit.MassKg is > 25
                    ? $"{Say.Mass(bank.Unit.MassKg.Value, w.Units)} each: get help to lift them."
                    : Said.Touch,
            }
        );
        foreach (var (s, units) in pack.Strings.Index())
        foreach (var (u, unit) in units.Units.Index())
            w.Add(RestOf(w, pack, s, u, unit));
        var chemistry = Chemistries.Get(bank.Unit.Chemistry);
        if (w.Results.Charging?.Wants is { } wants)
            w.Add(
                new("top", "Each brought full alone")
                {
                    Ask = $"Bring each unit full by itself, at {Say.V(wants.AbsorbV * bank.Unit.Cells / bank.Layout.Cells)}",
                    Do = chemistry.IsLithium
                        ? "Rest volts tell nothing on the flat of lithium: units within the rule may still lie a third of their "
                            + "charge apart."
                        : "Unlike charge in a string spoils the emptier one first.",
                    List =
                    [
                        $"Charger on one unit at a time, {Say.V(wants.AbsorbV * bank.Unit.Cells / bank.Layout.Cells)}, until "
                            + "next to nothing flows.",
                        chemistry.IsLithium
                            ? "Let them rest for two hours before they are joined."
                            : "Let them rest for twelve hours before they are joined.",
                    ],
                    About = $"{bank.Unit.Key}|{wants.AbsorbV:R}",
                    Caution = chemistry.IsLithium
                        ? "Never below 0 °C, never past the BMS, never unattended the first time."
                        : "Charging gives off hydrogen: air, no sparks, eyes covered.",
                }
            );
    }

    private static Draft RestOf(Walk w, Pack pack, int s, int u, PackUnit unit)
    {
        var name = $"{Say.StringName(s + 1)}{u + 1}";
        var item = unit.Item;
        var tolerance = RestMatch.ToleranceOf(item.Chemistry, item.Cells, w.Work.Rules.Number("join-within"));
        // A bare cell wants a digit more than a block.
        var decimals = Math.Clamp(Reading.Work(0, 0, tolerance).DecimalsNeeded, 2, 3);
        // Only units of one kind are held against each other.
        IEnumerable<(string Name, double V)> Others() =>
            from x in pack.Strings.Index()
            from y in x.Item.Units.Index()
            where y.Item.Item.Key == item.Key && (x.Index, y.Index) != (s, u)
            let v = w.Ahead(RestId(x.Index, y.Index), "V", AboutUnit(item))
            where v is > Said.DeadV
            select ($"{Say.StringName(x.Index + 1)}{y.Index + 1}", v.Value);
        var (empty, full) = (unit.RestV(0.1), unit.RestV(1));
        var joinable = Joinable([.. Others().Select(o => o.V)], tolerance);
        var (from, to) = joinable ?? (empty, full);
        string V(double v) => Figures.Number(v, decimals);
        var alike = pack.Strings.Sum(x => x.Units.Count(y => y.Item.Key == item.Key));
        return new(RestId(s, u), $"{name}, at rest")
        {
            Kind = StepKind.Reading,
            Ask = $"Measure {name} by itself, at rest: {V(from)} to {V(to)} V",
            Do =
                $"It has rested, nothing hangs on it. "
                + $"{(decimals == 2 ? "Two decimals: tenths tell nothing." : "Three decimals: a cell tells nothing by less.")}",
            Tips = new(
                TipsPicture.Posts,
                $"the plus post of {name}",
                "its minus post",
                name,
                item.Name,
                "",
                "",
                null,
                item.Stud,
                $"unit-{item.Key}"
            ),
            Unit = "V",
            Decimals = decimals,
            Expected = joinable is null
                ? new(
                    null,
                    empty,
                    full * 1.02,
                    0.97 * empty,
                    full * 1.05,
                    $"{V(empty)} to {V(full)} V, and as its siblings within {V(tolerance)} V"
                )
                : new(null, from, to, from, to, $"{V(from)} to {V(to)} V, as its siblings within {V(tolerance)} V"),
            About = AboutUnit(item),
            Judge = e => Rest(name, e.Value!.Value, [.. Others()], alike, tolerance, decimals, empty, full, item),
            Probe = new Probe.Unit(s, u),
            Proves = [($"unit-{item.Key}", 1)],
            Caution = Said.Touch,
        };
    }

    private static string AboutUnit(UnitItem item) => $"{item.Key}|{item.Cells}|{item.Chemistry}";

    /// <summary>Where it may lie to be joined to its siblings, as far as these were read.</summary>
    private static (double From, double To)? Joinable(List<double> others, double tolerance)
    {
        if (others.Count == 0)
            return null;
        var (from, to) = (others.Max() - tolerance, others.Min() + tolerance);
        if (from <= to)
            return (from, to);
        // They are not joinable themselves: near their middle it is none of the odd ones.
        others.Sort();
        var middle = (others[(others.Count - 1) / 2] + others[others.Count / 2]) / 2;
        return (middle - tolerance / 2, middle + tolerance / 2);
    }

    public static string RestId(int s, int u) => $"rest-{s + 1}-{u + 1}";

    private static Judged Rest(
        string name,
        double volts,
        List<(string Name, double V)> others,
        int alike,
        double tolerance,
        int decimals,
        double empty,
        double full,
        UnitItem item
    )
    {
        var said = Figures.Number(volts, decimals);
        if (volts < 0)
            return Said.Wrong(
                $"{name} says {said} V: the tips are the wrong way round, or its posts are marked wrongly",
                "The wrong way round",
                "A unit whose plus is not where its mark is burns the first lead that is put on it.",
                [
                    "Look at the tips: red in the meter’s V, on the post marked +.",
                    "Still a minus: do not use this unit, and tell who sold it.",
                ]
            );
        if (volts <= Said.DeadV)
            return Said.Wrong(
                $"{name} says {said} V: nothing",
                "Nothing there",
                "A BMS that has opened shows nothing at the posts; so does a broken unit.",
                ["Wake it as its maker says, often by a charger.", "Measure again. Nothing still: it is not used."]
            );
        List<(string Name, double V)> all = [(name, volts), .. others];
        if (all.Count > 1)
        {
            var match = RestMatch.Work([.. all.Select(x => x.V)], item.Chemistry, item.Cells, tolerance);
            if (match.OddOnes.Contains(1))
            {
                // Two that differ do not tell which of them it is; a third does.
                var undecided = all.Count == 2 && alike > 2;
                return new(
                    $"{name} rests at {said} V, "
                        + $"{Figures.Number(Math.Abs(volts - match.MedianV) * (all.Count == 2 ? 2 : 1), decimals)} V from "
                        + (all.Count == 2 ? others[0].Name : "its siblings"),
                    new(
                        undecided ? StepState.Look : StepState.Wrong,
                        undecided ? "They differ: the next tells which" : "Not as its siblings",
                        $"{Figures.Number(match.SpreadV, decimals)} V between the lowest and the highest, where "
                            + $"{Figures.Number(tolerance, decimals)} V are the rule: "
                            + "joined like this the fuller drives a current into the emptier that nothing limits.",
                        [
                            $"Charge {name} by itself until it is full, then let it rest.",
                            "Measure it again.",
                            "Still apart: test its capacity before it goes into a string.",
                        ],
                        [new(match.SpreadV, "V", "between lowest and highest"), new(tolerance, "V", "is the rule")]
                    )
                )
                {
                    Working = [Spread(all, match)],
                };
            }
            if (volts >= empty)
                return new(
                    $"{name} rests at {said} V, within {Figures.Number(tolerance, decimals)} V of "
                        + $"{(others.Count == 1 ? others[0].Name : "its siblings")}",
                    new(StepState.Done, "As its siblings", SocWords(match), [], [new(match.SpreadV, "V", "between lowest and highest")])
                )
                {
                    Working = [Spread(all, match)],
                };
        }
        if (volts < 0.97 * empty || volts > full * 1.05)
            return Said.Wrong(
                $"{name} rests at {said} V, where {Figures.Number(empty, decimals)} to {Figures.Number(full, decimals)} V are usual",
                volts < empty ? "Nearly empty, or a cell is dead" : "Too high for this unit at rest",
                volts < empty
                    ? "A unit that lies so low stands below a tenth of its charge, or a cell of it is gone."
                    : "It is another unit than the design has, it did not rest, or a charger is on.",
                volts < empty
                    ? ["Charge it by itself, slowly at first.", "Let it rest and measure again."]
                    : ["Look at its plate.", "Take everything off it, let it rest, measure again."]
            );
        var ok = volts >= empty && volts <= full * 1.02;
        return new(
            $"{name} rests at {said} V",
            new(
                ok ? StepState.Done : StepState.Look,
                ok ? "In order"
                    : volts < empty ? "Nearly empty"
                    : "Has it rested?",
                ok ? "Within what such a unit has at rest." : "Rest volts count after two hours for lithium, after twelve for lead.",
                ok ? [] : ["Let it rest with nothing on it, and measure again."],
                []
            )
        );
    }

    private static string SocWords(RestMatchResult match) =>
        match.Readable
            ? $"By the table {Say.Percent(match.SocLowest, 0)} to {Say.Percent(match.SocHighest, 0)} of charge."
            : "On the flat of lithium this says little of the charge: each is brought full by itself.";

    private static Equation Spread(List<(string Name, double V)> all, RestMatchResult match)
    {
        var (low, high) = (all[match.Lowest - 1], all[match.Highest - 1]);
        return new(
            "/bringUp/rest",
            "between the lowest and the highest",
            match.SpreadV,
            "V",
            "{h} − {l}",
            [T.You("h", high.V, "V", high.Name, "/bringUp"), T.You("l", low.V, "V", low.Name, "/bringUp")],
            "12.1",
            null,
            "join-within"
        );
    }
}

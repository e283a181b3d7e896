using InkyBadger.Core.Banks;
using InkyBadger.Core.Design;
using InkyBadger.Core.Proving;
using InkyBadger.Core.Reference;
using InkyBadger.Core.Work;
using InkyBadger.Core.Working;

namespace InkyBadger.Core.BringUp;

/// <summary>Before anything is joined: nothing live, each unit alone, each string, and whether strings may meet.</summary>
internal static class FirstSteps
{
    /// <summary>Less than this is nothing [V].</summary>
    public const double DeadV = 0.5;

    private const string Touch =
        "A battery cannot be switched off: a short gives thousands of amperes. One terminal at a time; cover every positive you do not work on.";

    public static void Add(Walk w, bool first)
    {
        NothingJoined(w, first);
        if (w.Work.Pack.Value is not { } pack || w.Results.Bank is not { } bank)
            return;
        EachUnit(w, pack, bank);
        EachString(w, pack, bank);
    }

    private static void NothingJoined(Walk w, bool first)
    {
        w.Under("Nothing joined");
        if (first)
            w.Add(
                new("tools", "Tools, rings off")
                {
                    Ask = "Rings and watches off, insulated tools, nothing metal above the posts",
                    Do = "Only then a hand goes in.",
                    List =
                    [
                        "Rings, watches and chains off.",
                        "Insulated tools; each metal one taped but for its end.",
                        "Covers lie ready for every positive that is not worked on.",
                        "A meter with fresh batteries, a clamp for DC, a torque wrench.",
                        "Glasses on; somebody knows that you are here.",
                    ],
                    Caution = Touch,
                }
            );
        var sources = w.Work.Document.Sources.Select(s => s.Name).Where(n => n.Length > 0).ToList();
        var (fuse, isolator) = (w.Results.MainRun?.Fuse.RatingA is not null, w.Results.Bus is { HasSwitch: true });
        w.Add(
            new(
                "isolated",
                fuse
                    ? isolator
                        ? "Fuse out, switch open"
                        : "Fuse out"
                    : isolator
                        ? "Switch open"
                        : "Isolated"
            )
            {
                Ask = "Isolate everything: the bank and all that charges it",
                Do = "Each so that nobody closes it while a hand is in.",
                List =
                [
                    .. fuse ? ["Main fuse F1 out of its holder, in your pocket."] : Array.Empty<string>(),
                    .. isolator ? ["Main switch S1 open."] : Array.Empty<string>(),
                    .. sources.Select(s => $"{s}: off, unplugged or covered."),
                    "Mains and generator unplugged; the engine’s key out.",
                ],
                About = string.Join('|', sources),
                Caution = "Modules give their full volts in any light: cover them, or open their isolator.",
            }
        );
        if (w.Results.Bus is not null)
            w.Add(
                new("dead", "Bars proven dead")
                {
                    Kind = StepKind.Reading,
                    Ask = "Measure the bars: nothing is to be there",
                    Do = "Try the meter on a battery first: it must say what that one has. Then bar to bar, and each bar to the chassis.",
                    Tips = Poles("the positive bar B+", "the negative bar B−", "B+", "B−", "bus"),
                    Unit = "V",
                    Decimals = 2,
                    Expected = Nothing(),
                    Judge = e =>
                        Judge(
                            Math.Abs(e.Value!.Value) <= DeadV,
                            $"The bars have {Volts(e)} between them, where nothing should be",
                            "The bars are dead",
                            "Something still feeds the bars",
                            "Capacitors of an inverter lose theirs in minutes; what stays is fed by a source that is not isolated.",
                            [
                                "Keep your hands out.",
                                "Go through the sources one by one: sun, plug, engine, generator, another bank.",
                                "Wait five minutes for the inverter’s capacitors, and measure again.",
                            ]
                        ),
                    Probe = new Probe.Nothing(),
                    Caution = "A meter that says nothing may be broken: it was tried on a live point before.",
                }
            );
    }

    private static void EachUnit(Walk w, Pack pack, BankResult bank)
    {
        w.Under("Each unit alone");
        w.Add(
            new("look", "Every unit looked at")
            {
                Ask =
                    $"Look at {(pack.Parallel * pack.Series == 1 ? "the unit" : $"all {pack.Parallel * pack.Series} units")} before any is lifted in",
                Do = "What is swollen, cracked, wet or smells is not used.",
                List =
                [
                    "Cases whole, not swollen, not cracked, dry.",
                    "Posts clean and bright, threads whole.",
                    "Each marked with its place, A1 the one whose plus is the string’s plus.",
                    "They stand as the maker allows, strapped, nothing metal above them.",
                ],
                About = bank.Unit.Key,
                Caution = bank.Unit.MassKg is > 25 ? $"{Say.Mass(bank.Unit.MassKg.Value, w.Units)} each: get help to lift them." : Touch,
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
                        ? "Rest volts tell nothing on the flat of lithium: units within the rule may still lie a third of their charge apart."
                        : "Unlike charge in a string spoils the emptier one first.",
                    List =
                    [
                        $"Charger on one unit at a time, {Say.V(wants.AbsorbV * bank.Unit.Cells / bank.Layout.Cells)}, until next to nothing flows.",
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
            where v is > DeadV
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
                $"It has rested, nothing hangs on it. {(decimals == 2 ? "Two decimals: tenths tell nothing." : "Three decimals: a cell tells nothing by less.")}",
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
            Caution = Touch,
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
            return Wrong(
                $"{name} says {said} V: the tips are the wrong way round, or its posts are marked wrongly",
                "The wrong way round",
                "A unit whose plus is not where its mark is burns the first lead that is put on it.",
                [
                    "Look at the tips: red in the meter’s V, on the post marked +.",
                    "Still a minus: do not use this unit, and tell who sold it.",
                ]
            );
        if (volts <= DeadV)
            return Wrong(
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
                    $"{name} rests at {said} V, {Figures.Number(Math.Abs(volts - match.MedianV) * (all.Count == 2 ? 2 : 1), decimals)} V from "
                        + (all.Count == 2 ? others[0].Name : "its siblings"),
                    new(
                        undecided ? StepState.Look : StepState.Wrong,
                        undecided ? "They differ: the next tells which" : "Not as its siblings",
                        $"{Figures.Number(match.SpreadV, decimals)} V between the lowest and the highest, where {Figures.Number(tolerance, decimals)} V are the rule: "
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
                    $"{name} rests at {said} V, within {Figures.Number(tolerance, decimals)} V of {(others.Count == 1 ? others[0].Name : "its siblings")}",
                    new(StepState.Done, "As its siblings", SocWords(match), [], [new(match.SpreadV, "V", "between lowest and highest")])
                )
                {
                    Working = [Spread(all, match)],
                };
        }
        if (volts < 0.97 * empty || volts > full * 1.05)
            return Wrong(
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

    private static void EachString(Walk w, Pack pack, BankResult bank)
    {
        string StringId(int s) => pack.Series == 1 ? RestId(s, 0) : $"string-{s + 1}";
        if (pack.Series > 1)
        {
            w.Under("Each string");
            foreach (var (s, units) in pack.Strings.Index())
                w.Add(OneString(w, s, units));
        }
        if (pack.Parallel < 2)
            return;
        var cells = bank.Layout.Cells;
        var tolerance = RestMatch.ToleranceOf(bank.Unit.Chemistry, cells, w.Work.Rules.Number("join-within"));
        var ids = Enumerable.Range(0, pack.Parallel).Select(StringId).ToList();
        double[] read = [.. ids.Select(id => w.Read(id)).OfType<double>()];
        var match =
            read.Length == pack.Parallel && read.All(v => v > DeadV) ? RestMatch.Work(read, bank.Unit.Chemistry, cells, tolerance) : null;
        var names = $"A to {Say.StringName(pack.Parallel)}";
        w.Gate(
            "gate-strings",
            match is { Join: true } ? $"{Figures.Number(match.SpreadV, 2)} V apart" : "strings not joined yet",
            match is null
                ? $"Opens when strings {names} are measured and lie within {Figures.Number(tolerance, 2)} V."
                : $"Opens when strings {names} lie within {Figures.Number(tolerance, 2)} V: they are {Figures.Number(match.SpreadV, 2)} V apart.",
            match is { Join: true } && w.AllDone(ids),
            string.Join('|', pack.Strings.SelectMany(x => x.Units).Select(x => x.Item.Key))
        );
        Joined(w, pack, bank, read, tolerance);
    }

    private static Draft OneString(Walk w, int s, PackString units)
    {
        var name = Say.StringName(s + 1);
        double?[] read = [.. units.Units.Select((_, u) => w.Read(RestId(s, u)))];
        double[] volts = [.. units.Units.Select((x, u) => read[u] is > 0 and var v ? v : x.RestV(0.6))];
        var known = read.All(v => v is > 0);
        var sum = volts.Sum();
        var tolerance = Math.Min(0.01 * sum, sum / volts.Length / 4);
        var jumpers = w.Cuts?.Cables.Where(c => c.Label[0] == 'J').ToList() ?? [];
        return new($"string-{s + 1}", $"{name}, end to end")
        {
            Kind = StepKind.Reading,
            Ask = $"Join the units of string {name}, then measure it end to end: {Figures.Number(sum, 2)} V",
            Do = $"Jumpers from each minus to the next plus, at their torque. Both ends of the string stay covered but for the tips.",
            List =
            [
                .. jumpers.Select(j => $"{j.Label}: {j.Size}, {Figures.Number(j.LengthM * 100, 0)} cm, {Tight(j.FromLug)}."),
                "A mark across nut and post, so that a nut that turns is seen.",
            ],
            Tips = new(
                TipsPicture.Posts,
                $"the plus of {name}1",
                $"the minus of {name}{volts.Length}",
                name,
                $"{volts.Length} in series",
                "",
                "",
                null,
                null,
                null
            ),
            Unit = "V",
            Decimals = 2,
            Expected = Walk.Within(sum, tolerance, "V", 2, known ? null : $"about {Figures.Number(sum, 1)} V; measure its units first"),
            About = string.Join('|', units.Units.Select(x => x.Item.Key)) + string.Join('|', jumpers.Select(j => j.Size)),
            Judge = e => Pack(name, e.Value!.Value, volts),
            Probe = new Probe.OneString(s),
            Proves = [.. jumpers.Select(j => ($"cut-{j.Key}", (double?)null))],
            Caution = "From here on the string has its full volts: nothing bridges its ends.",
        };
    }

    /// <summary>At its torque, as far as the table knows the stud.</summary>
    public static string Tight(string lug)
    {
        var stud = lug.Split('×')[^1].Trim();
        return Torques.TypicalNm(stud) is { } nm
            ? $"{stud} at {Figures.Number(nm, 1, true)} N m, the maker’s figure first"
            : "as the maker says";
    }

    private static Judged Pack(string name, double measured, double[] volts)
    {
        var r = PackVoltage.Work(measured, volts);
        var said = $"String {name} has {Figures.Number(measured, 2)} V, where its units add up to {Figures.Number(r.ExpectedV, 2)}";
        Equation[] working =
        [
            new(
                "/bringUp/string",
                $"what the units of string {name} add up to",
                r.ExpectedV,
                "V",
                string.Join(" + ", volts.Select((_, i) => $"{{u{i}}}")),
                [.. volts.Select((v, i) => T.You($"u{i}", v, "V", $"{name}{i + 1} at rest", "/bringUp"))],
                "12.2"
            ),
        ];
        var units = volts.Length;
        (string Title, string Sentence, string[] ToDo) = r.Verdict switch
        {
            PackVerdict.Ok => ("All in, all the right way round", "Its volts are the sum of its units’.", Array.Empty<string>()),
            PackVerdict.Swapped => (
                "The wrong way round",
                "The tips are swapped, or the whole string is: plus lies where minus is to be.",
                [
                    "Look at the tips: red on the plus of the first unit.",
                    "Still a minus: the string stands the wrong way round; turn it before anything is joined.",
                ]
            ),
            PackVerdict.Open when r.ReversedUnits is not null => (
                "Open somewhere, or half of it turned round",
                "A jumper is loose, a fuse is missing, a BMS sleeps; or as many units stand one way as the other, which reads nothing too.",
                [
                    "Cover the ends of the string.",
                    "Measure each unit where it stands, red towards the plus end: one with a minus is turned. Turn it, join it again.",
                    "None has: look at each jumper and fuse of the string, and wake a BMS as its maker says.",
                ]
            ),
            PackVerdict.Open => (
                "Open somewhere",
                "A jumper is loose or not fitted, a fuse is missing, or a BMS sleeps.",
                [
                    "Look at each jumper and fuse of the string.",
                    "Measure along it: from the first plus to each next minus, until it is gone.",
                    "Wake a BMS as its maker says.",
                ]
            ),
            PackVerdict.Reversed => (
                r.MissingUnits is null
                    ? $"{Say.Count(r.ReversedUnits!.Value)} of {units} stands the wrong way round"
                    : $"One reversed reads like {Say.Count(r.MissingUnits.Value).ToLowerInvariant()} missing",
                "A unit that is turned round takes twice its volts off the string; it would be charged backwards, and burn.",
                [
                    "Cover the ends of the string.",
                    "Measure each unit where it stands, red towards the plus end: the one with a minus is turned.",
                    "Take its jumpers off, turn it, join it again.",
                ]
            ),
            PackVerdict.Missing => (
                $"{Say.Count(r.MissingUnits!.Value)} of {units} is not in it",
                "A jumper passes a unit by, or a unit of it is dead.",
                ["Follow the jumpers: each from a minus to the next plus.", "Measure each unit where it stands."]
            ),
            _ => (
                "No simple mistake explains it",
                "It is neither the sum nor off by whole units: look for a dead cell.",
                ["Measure each unit where it stands.", "The one that lies low is taken out, charged by itself and tested."]
            ),
        };
        return new(
            said,
            new(r.Verdict == PackVerdict.Ok ? StepState.Done : StepState.Wrong, Title, Sentence, ToDo, [new(r.OffV, "V", "off the sum")])
        )
        {
            Working = working,
        };
    }

    private static void Joined(Walk w, Pack pack, BankResult bank, double[] read, double tolerance)
    {
        w.Under("Strings joined");
        var pieces = w.Cuts?.Cables.Where(c => c.Label[0] is 'L' or 'B').ToList() ?? [];
        var fuses = w.Results.StringFuses is { Fitted: true };
        w.Add(
            new("joined", "Links fitted")
            {
                Ask = "Join the strings, one link at a time",
                Do = "The last link of a rail is the one that joins: touch it on first and look, then tighten.",
                List =
                [
                    .. pieces.Select(c => $"{c.Label}, {c.Colour}: {c.Size}, from {c.From} to {c.To}, {Tight(c.FromLug)}."),
                    .. fuses ? ["String fuses in, each in its holder with its cover."] : Array.Empty<string>(),
                    "A mark across each nut; covers on.",
                ],
                About = string.Join('|', pieces.Select(c => $"{c.Key} {c.Size}")),
                Proves = [.. pieces.Select(c => ($"cut-{c.Key}", (double?)null))],
                Caution =
                    "Strings of unlike volts drive hundreds of amperes through the link in your hand. The gate above is there for that.",
            }
        );
        var lithium = Chemistries.Get(bank.Unit.Chemistry).IsLithium;
        var settled = Settled(w, pack, bank, read);
        w.Add(
            new("settled", "Settled together")
            {
                Ask = lithium ? "Let the strings settle together, 12 to 24 hours" : "Let the strings settle together",
                Do = settled ?? "Nothing else hangs on them meanwhile.",
                List = ["Nothing on the take-offs; a clamp round a link shows the current die away."],
                About = $"{bank.Unit.Key}|{pack.Parallel}",
            }
        );
        var mean = read.Length > 0 ? read.Average() : pack.Strings[0].Units.Sum(x => x.RestV(0.6));
        w.Add(
            new("rail", "Rail to rail")
            {
                Kind = StepKind.Reading,
                Ask = $"Measure rail to rail: {Figures.Number(mean, 2)} V",
                Do = "From the take-off of the plus to the take-off of the minus.",
                Tips = Poles("the positive rail, at the take-off", "the negative rail, at the take-off", "rail +", "rail −", null),
                Unit = "V",
                Decimals = 2,
                Expected = Walk.Within(mean, Math.Max(tolerance, 0.005 * mean), "V", 2),
                About = bank.Unit.Key,
                Judge = e =>
                    Plain(
                        e.Value!.Value,
                        mean,
                        Math.Max(tolerance, 0.005 * mean),
                        $"Rail to rail {Volts(e)}, where the strings have {Figures.Number(mean, 2)} V",
                        "The rails have what the strings have",
                        "The rails do not have what the strings have",
                        ["Look at each link: is one loose, or on the wrong post?", "Measure each string again."]
                    ),
                Probe = new Probe.Rail(),
            }
        );
    }

    /// <summary>How long the extremes flow into each other, where their volts tell it.</summary>
    private static string? Settled(Walk w, Pack pack, BankResult bank, double[] read)
    {
        if (read.Length < 2 || read.Any(v => v <= DeadV) || w.Work.Wired.Value is not { } wired)
            return null;
        var (low, high) = (Array.IndexOf(read, read.Min()), Array.IndexOf(read, read.Max()));
        if (low == high)
            return "They lie level as far as the meter tells; half a day shows what it does not.";
        var r = Settle.Work(
            new(pack.Strings[high].Ah, wired.StringOhm[high], null, read[high]),
            new(pack.Strings[low].Ah, wired.StringOhm[low], null, read[low]),
            bank.Unit.Chemistry,
            bank.Layout.Cells,
            2 * wired.Link.Ohm
        );
        return r is { Hours: { } hours, MovedAh: { } moved, Doubtful: not true }
            ? $"{Figures.Say(moved, "Ah")} flow over until next to nothing does, in {Say.Hours(hours)}."
            : "Their volts lie where lithium is flat and tell no time: 12 to 24 hours are practice.";
    }

    // What several steps share.

    public static string Volts(BringUpEntry e) => $"{Figures.Number(e.Value!.Value, 2)} V";

    public static Expected Nothing() => new(0, -DeadV, DeadV, -DeadV, DeadV, $"0.00 V, less than {Figures.Number(DeadV, 1)}");

    public static Tips Poles(string red, string black, string left, string right, string? part) =>
        new(TipsPicture.Poles, red, black, left, "", right, "", null, null, part);

    public static Judged Judge(bool ok, string headline, string well, string ill, string sentence, string[] toDo) =>
        ok
            ? new(headline, new(StepState.Done, well, "As it is to be.", [], []))
            : new(headline, new(StepState.Wrong, ill, sentence, toDo, []));

    public static Judged Wrong(string headline, string title, string sentence, string[] toDo) =>
        new(headline, new(StepState.Wrong, title, sentence, toDo, []));

    /// <summary>Any reading, by the method, 12.5.</summary>
    public static Judged Plain(double measured, double wanted, double tolerance, string headline, string well, string ill, string[] toDo)
    {
        var r = Reading.Work(wanted, measured, tolerance);
        var state = Walk.StateOf(r.Verdict);
        return new(
            headline,
            new(
                state,
                state == StepState.Done ? well : ill,
                state == StepState.Look ? "A little off: within twice of what is allowed."
                    : state == StepState.Wrong ? "Stop here: what follows rests on it."
                    : "As it is to be.",
                state == StepState.Done ? [] : toDo,
                []
            )
        );
    }
}

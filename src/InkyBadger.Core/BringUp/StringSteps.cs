using InkyBadger.Core.Banks;
using InkyBadger.Core.Design;
using InkyBadger.Core.Proving;
using InkyBadger.Core.Reference;
using InkyBadger.Core.Work;
using InkyBadger.Core.Working;

namespace InkyBadger.Core.BringUp;

/// <summary>Units into strings, the gate between strings, and strings joined.</summary>
internal static class StringSteps
{
    public static void Add(Walk w, Pack pack, BankResult bank)
    {
        string StringId(int s) => pack.Series == 1 ? UnitSteps.RestId(s, 0) : $"string-{s + 1}";
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
            read.Length == pack.Parallel && read.All(v => v > Said.DeadV)
                ? RestMatch.Work(read, bank.Unit.Chemistry, cells, tolerance)
                : null;
        var names = $"A to {Say.StringName(pack.Parallel)}";
        w.Gate(
            "gate-strings",
            match is { Join: true } ? $"{Figures.Number(match.SpreadV, 2)} V apart" : "strings not joined yet",
            match is null
                ? $"Opens when strings {names} are measured and lie within {Figures.Number(tolerance, 2)} V."
                : $"Opens when strings {names} lie within {Figures.Number(tolerance, 2)} V: they are "
                    + $"{Figures.Number(match.SpreadV, 2)} V apart.",
            match is { Join: true } && w.AllDone(ids),
            string.Join('|', pack.Strings.SelectMany(x => x.Units).Select(x => x.Item.Key))
        );
        Joined(w, pack, bank, read, tolerance);
    }

    private static Draft OneString(Walk w, int s, PackString units)
    {
        var name = Say.StringName(s + 1);
        double?[] read = [.. units.Units.Select((_, u) => w.Read(UnitSteps.RestId(s, u)))];
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
                .. jumpers.Select(j => $"{j.Label}: {j.Size}, {Figures.Number(j.LengthM * 100, 0)} cm, {Said.Tight(j.FromLug)}."),
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
                    .. pieces.Select(c => $"{c.Label}, {c.Colour}: {c.Size}, from {c.From} to {c.To}, {Said.Tight(c.FromLug)}."),
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
                Tips = Said.Poles("the positive rail, at the take-off", "the negative rail, at the take-off", "rail +", "rail −", null),
                Unit = "V",
                Decimals = 2,
                Expected = Walk.Within(mean, Math.Max(tolerance, 0.005 * mean), "V", 2),
                About = bank.Unit.Key,
                Judge = e =>
                    Said.Plain(
                        e.Value!.Value,
                        mean,
                        Math.Max(tolerance, 0.005 * mean),
                        $"Rail to rail {Said.Volts(e)}, where the strings have {Figures.Number(mean, 2)} V",
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
        if (read.Length < 2 || read.Any(v => v <= Said.DeadV) || w.Work.Wired.Value is not { } wired)
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
}

using InkyBadger.Core.Design;
using InkyBadger.Core.Trials;
using InkyBadger.Core.Work;

namespace InkyBadger.Core.Sheets;

/// <summary>A part of the walk-through: a heading and plain sentences, one act each.</summary>
public sealed record WalkSection(string Title, IReadOnlyList<string> Sentences);

/// <summary>
/// The wiring in words, in the order of the current: for a helper who cannot read drawings. Every figure is the Evaluation’s and the cut
/// list’s.
/// </summary>
public static class WalkThrough
{
    public static IReadOnlyList<WalkSection> Of(DesignDocument design) => Of(new PaperSite(design));

    /// <inheritdoc cref="Of(DesignDocument)"/>
    public static IReadOnlyList<WalkSection> Of(PaperSite papers)
    {
        var site = papers.Site;
        var list = new List<WalkSection>
        {
            new(
                "Before a hand goes in",
                [
                    "A battery cannot be switched off: even at 12 V a short circuit gives thousands of amperes.",
                    "Rings and watches off, insulated tools, one terminal at a time.",
                    "Every positive that is not worked on stays covered.",
                    "Isolate all sources (sun, plug, engine, generator), and prove it dead with a meter that was proved on a live point.",
                ]
            ),
        };
        for (var i = 0; i < site.Count; i++)
            if (papers.Lists(i) is { } cuts)
                OfBank(list, site[i], cuts, site.Count > 1 ? site[i].Document.Name : "");
        list.Add(
            new(
                "What is left to others",
                [
                    "The AC side, its earthing and its residual-current protection belong to a licensed electrician and to local rules.",
                    "Wire and fuse tables are typical figures; the makers’ instructions and the rules of the place come first.",
                    "A plan is not an inspection: somebody who knows checks it, and signs for it.",
                ]
            )
        );
        return list;
    }

    private static void OfBank(List<WalkSection> list, BankWork w, SchedulesResult cuts, string name)
    {
        var e = w.Evaluation(headlines: false);
        var of = name.Length > 0 ? $", {name}" : "";
        if (w.Pack.Value is { } pack && e.Bank is not null)
            list.Add(new($"The bank{of}", [.. Bank(e, pack, cuts)]));
        var fuses = cuts.Fuses;
        var main = e.MainRun!;
        var plus = cuts.Cables.Where(c => c.Label is ['M', .., '+']).ToList();
        var minus = cuts.Cables.Where(c => c.Label is ['M', .., '−']).ToList();
        var run = new List<string>();
        if (main.Fuse.RatingA is { } rating)
            run.Add(
                $"The main fuse F1, {Say.Rating(rating)} of {main.Fuse.Label}, sits {Say.Length(main.Fuse.DistanceM, Units(w))} from the "
                    + "battery post, in its holder with its cover. It goes in last of all."
            );
        run.AddRange(plus.Select(c => Piece(c, w)));
        if (e.Inverter is { Item.ContinuousW: >= 1000 })
            run.Add("Before the main switch is closed for the first time the inverter’s capacitors are filled through the resistor R1.");
        run.AddRange(minus.Select(c => Piece(c, w)));
        run.Add("All that draws or charges returns over the shunt X1: nothing but the bank hangs on its battery side.");
        list.Add(new($"The main run{of}", run));

        var beyond = new List<string>();
        foreach (var (n, c) in e.Circuits.Index())
        {
            var pieces = cuts.Cables.Where(x => x.Label == $"C{n + 1}+" || x.Label == $"C{n + 1}−").ToList();
            if (pieces.Count == 0)
                continue;
            var fuse = c.Run.Fuse.RatingA is { } amps ? $", behind a fuse of {Say.Rating(amps)}, {c.Run.Fuse.Label}" : "";
            beyond.Add($"{c.Name}{fuse}:");
            beyond.AddRange(pieces.Select(p => Piece(p, w)));
        }
        foreach (var a in cuts.Cables.Where(c => c.Label[0] == 'A'))
            beyond.Add(Piece(a, w));
        if (beyond.Count > 0)
            list.Add(new($"On from the bus{of}", beyond));
        if (cuts.Cables.FirstOrDefault(c => c.Label == "E1") is { } bond)
            list.Add(new($"Bonding{of}", [Piece(bond, w)]));
        if (fuses.FirstOrDefault(f => f.Name == "String fuses") is { } strings)
            list.Add(
                new(
                    $"String fuses{of}",
                    [
                        $"{Say.Count(strings.Count)} fuses FA to F{Say.StringName(strings.Count)}, "
                            + $"{Say.Rating(strings.RatingA ?? 0)} of {strings.Class}, one at the "
                            + "plus of each string.",
                    ]
                )
            );
        if (e.Charging is { Cards.Count: > 0 } charging)
            list.Add(
                new(
                    $"Settings{of}",
                    [
                        "No charger is connected before it is set:",
                        .. charging.Cards.Select(card =>
                            $"{card.Name}: {string.Join(", ", card.Rows.Select(r => $"{r.Label} {Setting(r)}"))}."
                        ),
                    ]
                )
            );
    }

    private static UnitSystem Units(BankWork w) => w.Scene.Design.Display.Units;

    private static string Setting(CardRow row) => row.Word ?? (row.SetTo is { } value ? Figures.Say(value, row.Unit) : "as it is");

    private static IEnumerable<string> Bank(BankEvaluation e, Banks.Pack pack, SchedulesResult cuts)
    {
        var last = Say.StringName(pack.Parallel);
        var unit = e.Bank!.Unit;
        var units = Say.Count(e.Bank.Layout.Units).ToLowerInvariant();
        yield return pack.Series == 1
            ? $"The bank is {units} of {unit.Name}, one to a string."
            : $"The bank is {units} of {unit.Name}: {Say.Count(pack.Series).ToLowerInvariant()} in series make a string.";
        yield return pack.Parallel == 1
            ? "There is one string, A."
            : $"{Say.Count(pack.Parallel)} strings lie side by side, A to {last}; A stands nearest the positive take-off.";
        yield return "The units of a string are counted from its plus: A1 is the one whose plus is the string’s plus.";
        if (pack.Parallel > 1)
            yield return "Strings are joined only when their volts match: measure each at rest first.";
        foreach (var c in cuts.Cables.Where(c => c.Label[0] == 'J'))
            yield return $"{c.Label}: {Pieces(c)} of {c.Size}, {Cm(c)}: from the minus of each unit to the plus of the next in its string.";
        foreach (var c in cuts.Cables.Where(c => c.Label[0] is 'L' or 'B'))
            yield return $"{c.Label}: {Pieces(c)} of {c.Size}, {c.Colour}, {Cm(c)}: from {c.From} to {c.To}.";
        var (plus, minus) = e.Network?.Wiring.Style switch
        {
            WiringStyle.Diagonal => ("A", last),
            WiringStyle.SameEnd => ("A", "A"),
            _ => ("", ""),
        };
        if (pack.Parallel > 1 && plus.Length > 0)
            yield return $"The main run leaves the plus at string {plus} and the minus at string {minus}.";
    }

    private static string Pieces(CableRow c) => c.Pieces == 1 ? "one piece" : $"{Say.Count(c.Pieces).ToLowerInvariant()} pieces";

    private static string Cm(CableRow c) => c.Pieces == 1 ? $"{Say.Number(c.LengthM * 100)} cm" : $"{Say.Number(c.LengthM * 100)} cm each";

    private static string Piece(CableRow c, BankWork w) =>
        $"{c.Label}: {c.Colour}, {c.Size}, {(c.Pieces > 1 ? $"{c.Pieces} × " : "")}{Say.Length(c.LengthM, Units(w))}, from {c.From} "
        + $"({c.FromLug}) to {c.To} ({c.ToLug}).";

    /// <summary>As one text, a line a sentence.</summary>
    public static string Text(DesignDocument design) => Written(DesignName.Of(design), Of(design));

    internal static string Written(string title, IReadOnlyList<WalkSection> sections)
    {
        var lines = new List<string> { title, "" };
        foreach (var (n, section) in sections.Index())
        {
            lines.Add($"{n + 1}. {section.Title}");
            lines.AddRange(section.Sentences.Select(s => $"   {s}"));
            lines.Add("");
        }
        return string.Join('\n', lines);
    }
}

using System.Globalization;
using InkyBadger.Core.Design;
using InkyBadger.Core.Trials;
using InkyBadger.Core.Work;

namespace InkyBadger.Core.Sheets;

/// <summary>
/// Every part with how far it has come, what must not be done as it stands, and what may.
/// </summary>
/// <param name="Bans">What must not be done now, the gravest first.</param>
/// <param name="Acts">What may be done, the next first.</param>
/// <param name="Later">What must not be done before something else, though nothing of it lies ready yet.</param>
/// <param name="ToBuy">What is neither ordered nor here, in words with its price.</param>
/// <param name="Count">Parts in it, rows of the design.</param>
/// <param name="At">Of these, how many have wholly come to which stop and no further: planned, ordered, here, fitted, proven.</param>
public sealed record LedgerResult(
    string Headline,
    IReadOnlyList<LedgerRow> Rows,
    IReadOnlyList<BuildBan> Bans,
    IReadOnlyList<BuildAct> Acts,
    IReadOnlyList<BuildBan> Later,
    string ToBuy,
    double PaidSum,
    int Count,
    IReadOnlyList<int> At
);

/// <summary>The ledger of a design: parts list and cut list with what the document says has become of each.</summary>
public static class BuildLedger
{
    /// <summary>Ids of what can be forbidden, the gravest first.</summary>
    public static IEnumerable<string> Rules => BuildRules.Ids;

    /// <param name="revision">Of the design, for the sentence that tells what was built; null: not kept yet.</param>
    /// <param name="design">With what it says of its parts.</param>
    public static LedgerResult Work(DesignDocument design, long? revision = null) => Work(new PaperSite(design), revision);

    /// <inheritdoc cref="Work(DesignDocument, long?)"/>
    /// <param name="papers">The design.</param>
    /// <param name="revision">As above.</param>
    /// <param name="proven">
    /// By its key, how many of a part a meter has shown to be as they are to be when it was brought up; null: nothing.
    /// </param>
    public static LedgerResult Work(PaperSite papers, long? revision = null, IReadOnlyDictionary<string, double>? proven = null)
    {
        proven ??= new Dictionary<string, double>();
        var (design, site) = (papers.Design, papers.Site);
        var entries = design.Ledger.Index().ToDictionary(e => e.Item.Key);
        var rows = new List<LedgerRow>();
        var parts = PartsList.Work(papers);
        SchedulesResult?[] lists = [.. Enumerable.Range(0, site.Count).Select(papers.Lists)];
        var copper = new List<LedgerRow>();
        for (var i = 0; i < site.Count; i++)
            if (lists[i] is { } list)
                copper.AddRange(Pieces(site[i].Document.Id, list, design).Select(p => Row(p, LedgerKind.Copper, entries, proven)));
        foreach (var part in parts.Parts)
        {
            var row = Row(part, KindOf(part), entries, proven);
            if (part.Group == PartGroup.Cable && lists.Length > 0)
                row = WithPieces(row, copper, lists[BankIndex(design, part.Bank)]!);
            rows.Add(row);
        }
        rows = [.. rows.Where(r => r.Kind == LedgerKind.Part), .. copper, .. rows.Where(r => r.Kind == LedgerKind.Store)];
        var known = rows.Select(r => r.Part.Key).ToHashSet(StringComparer.Ordinal);
        rows.AddRange(entries.Values.Where(e => !known.Contains(e.Item.Key) && e.Item.Marks.Any(m => m.Count > 0)).Select(Gone));

        var states = new List<BuildState>();
        for (var i = 0; i < site.Count; i++)
            states.Add(new(site[i], lists[i], rows, site.Count > 1));
        var all = states.SelectMany(BuildRules.Bans).OrderBy(b => b.Order).ToList();
        var bans = all.Where(b => b.Ready).ToList();
        var later = all.Where(b => !b.Ready).ToList();
        var barred = all.SelectMany(b => b.Subjects).ToHashSet(StringComparer.Ordinal);
        var open = rows.Where(r => !r.Gone && r.ToBuy > 0 && r.Kind != LedgerKind.Copper).ToList();
        var toBuy = new PartsResult(
            [.. open.Select(r => r.Part with { Count = r.ToBuy })],
            open.Sum(r => r.Part.Each * r.ToBuy ?? 0),
            open.Count(r => r.Part.Each is null)
        );
        var acts = BuildActs.Of(rows, states, barred, toBuy, design.Display.Currency);
        var living = rows.Where(r => !r.Gone).ToList();
        return new(
            Headline(bans, acts, living, design, revision),
            rows,
            bans,
            acts,
            later,
            open.Count == 0 ? "nothing left to buy" : $"{open.Count} to buy: {toBuy.Words(design.Display.Currency)}",
            rows.Sum(r => r.Paid ?? 0),
            living.Count,
            [.. Enumerable.Range(-1, 5).Select(stop => living.Count(r => (int)(r.Whole ?? (LedgerStop)(-1)) == stop))]
        );
    }

    private static bool Alike(double a, double b) => Math.Abs(a - b) < 1e-6;

    private static int BankIndex(DesignDocument design, string id) => design.Banks.Index().First(b => b.Item.Id == id).Index;

    private static LedgerKind KindOf(Part part) =>
        part.Tag.Length > 0 && part.Group < PartGroup.Cable && !part.Key.Contains("/holder-", StringComparison.Ordinal)
            ? LedgerKind.Part
            : LedgerKind.Store;

    private static LedgerStop TopOf(Part part, LedgerKind kind) =>
        kind != LedgerKind.Store ? LedgerStop.Proven
        : part.Group is PartGroup.Cable or PartGroup.Spares ? LedgerStop.Here
        : LedgerStop.Fitted;

    /// <summary>The cut list as parts: both poles of a run beyond the bus are one.</summary>
    internal static IEnumerable<Part> Pieces(string bank, SchedulesResult list, DesignDocument design)
    {
        foreach (var g in list.Cables.GroupBy(CutKey))
        {
            var (first, both) = (g.First(), g.Count() > 1);
            var lengths = g.Select(c => (c.Pieces, c.LengthM)).ToList();
            var alike = lengths.TrueForAll(l => Alike(l.LengthM, lengths[0].LengthM));
            var pieces = lengths.Sum(l => l.Pieces);
            string M(double m) => Say.Length(m, design.Display.Units);
            var long_ = alike
                ? $"{(pieces > 1 ? $"{pieces} × " : "")}{M(lengths[0].LengthM)}"
                : string.Join(" and ", lengths.Select(l => $"{(l.Pieces > 1 ? $"{l.Pieces} × " : "")}{M(l.LengthM)}"));
            yield return new(
                $"{bank}/cut-{g.Key}",
                bank,
                PartGroup.Cable,
                both ? first.Label[..^1] + "±" : first.Label,
                $"{Capital(first.From)} to {first.To}",
                $"{first.Size}, {long_}",
                pieces,
                "",
                0
            );
        }
    }

    internal static string CutKey(CableRow c) =>
        c.Label[0] is not ('C' or 'A') ? c.Key
        : c.Key.EndsWith("-plus", StringComparison.Ordinal) ? c.Key[..^"-plus".Length]
        : c.Key.EndsWith("-minus", StringComparison.Ordinal) ? c.Key[..^"-minus".Length]
        : c.Key;

    private static string Capital(string words) =>
        words.Length == 0 ? words : char.ToUpper(words[0], CultureInfo.InvariantCulture) + words[1..];

    private static LedgerRow Row(
        Part part,
        LedgerKind kind,
        Dictionary<string, (int Index, LedgerEntry Item)> entries,
        IReadOnlyDictionary<string, double> proven
    )
    {
        var top = TopOf(part, kind);
        var (at, entry) = entries.TryGetValue(part.Key, out var found) ? ((int?)found.Index, found.Item) : (null, null);
        // What a meter has shown is there, and fitted.
        var shown = top == LedgerStop.Proven ? proven.GetValueOrDefault(part.Key) : 0;
        var reached =
            entry is null && shown <= 0
                ? LedgerReached.None
                : LedgerReached.Of(stop => stop <= top ? Math.Min(part.Count, Math.Max(shown, entry?.Reached(stop) ?? 0)) : 0);
        return Judged(new(part, kind, top, reached, null, 0, entry?.Paid, Touched(part, entry), false, at));
    }

    /// <summary>What follows from how many have come how far.</summary>
    private static LedgerRow Judged(LedgerRow row)
    {
        LedgerStop? whole = null;
        for (var stop = LedgerStop.Ordered; stop <= row.Top; stop++)
            if (row.All(stop))
                whole = stop;
        return row with { Whole = whole, ToBuy = Math.Round(Math.Max(0, row.Part.Count - row.Reached.Ordered), 2) };
    }

    /// <summary>Cable that lies cut came from a drum: what is here of its pieces is not bought again.</summary>
    private static LedgerRow WithPieces(LedgerRow drum, List<LedgerRow> copper, SchedulesResult list)
    {
        var byKey = copper.Where(r => r.Part.Bank == drum.Part.Bank).ToDictionary(r => r.Part.Key);
        double Metres(LedgerStop stop) =>
            list
                .Cables.Where(c => drum.Part.Key == $"{drum.Part.Bank}/cable-{c.Size}-{c.Colour}")
                .Sum(c =>
                {
                    var row = byKey[$"{drum.Part.Bank}/cut-{CutKey(c)}"];
                    return c.Pieces * c.LengthM * row.Reached.At(stop) / row.Part.Count;
                });
        return Judged(
            drum with
            {
                Reached = LedgerReached.Of(stop =>
                    stop <= drum.Top ? Math.Min(drum.Part.Count, Math.Max(drum.Reached.At(stop), Math.Round(Metres(stop), 2))) : 0
                ),
            }
        );
    }

    private static LedgerRow Gone((int Index, LedgerEntry Item) found)
    {
        var entry = found.Item;
        var wanted = entry.Wanted ?? new() { Name = entry.Key };
        var count = Math.Max(wanted.Count, entry.Reached(LedgerStop.Ordered));
        var bank = entry.Key.Split('/')[0];
        var part = new Part(entry.Key, bank, PartGroup.Spares, "", wanted.Name, wanted.Spec, count, "", null);
        return new(
            part,
            LedgerKind.Store,
            LedgerStop.Proven,
            LedgerReached.Of(entry.Reached),
            null,
            0,
            entry.Paid,
            entry.Reached(LedgerStop.Fitted) > 0
                ? "fitted, and the design has no such part any more: take it out, or put it back in the design"
                : "ordered, and the design has no such part any more",
            true,
            found.Index
        );
    }

    /// <summary>What the design wants otherwise than when it was ordered.</summary>
    private static string? Touched(Part part, LedgerEntry? entry)
    {
        if (entry?.Wanted is not { } then || entry.Reached(LedgerStop.Ordered) <= 0)
            return null;
        if (then.Name != part.Name)
        {
            var (was, now) = WhatDiffers(then.Name, part.Name);
            return $"ordered as {was}, design now wants {now}";
        }
        // What a fuse must bear and break where it sits is judged with its class; the fuse itself is another only when that is.
        var (before, after) = (then.Spec.Split(';')[0], part.Spec.Split(';')[0]);
        if (before != after)
        {
            var (was, now) = WhatDiffers(before, after);
            return $"ordered for {was}, design now wants {now}";
        }
        if (Alike(then.Count, part.Count))
            return null;
        string Of(double count) => $"{Figures.Number(count, 2, true)} {part.Unit}".TrimEnd();
        return $"{Of(then.Count)} wanted when it was ordered, now {Of(part.Count)}";
    }

    /// <summary>Both without the words they begin with alike.</summary>
    private static (string Was, string Now) WhatDiffers(string was, string now)
    {
        var (a, b) = (was.Split(' '), now.Split(' '));
        var n = 0;
        while (n < a.Length - 1 && n < b.Length - 1 && a[n] == b[n])
            n++;
        // A figure is not parted from its unit.
        if (n > 0 && n == a.Length - 1 && n == b.Length - 1)
            n--;
        while (n > 0 && a[n - 1].Any(char.IsDigit))
            n--;
        return (string.Join(' ', a[n..]), string.Join(' ', b[n..]));
    }

    private static string Headline(
        List<BuildBan> bans,
        IReadOnlyList<BuildAct> acts,
        List<LedgerRow> rows,
        DesignDocument design,
        long? revision
    )
    {
        if (rows.Count == 0)
            return "Nothing to draw yet: choose a unit at Bank";
        if (bans.Count > 0)
            return bans[0].Sentence;
        if (rows.TrueForAll(r => r.Whole == r.Top))
        {
            var last = design.Ledger.SelectMany(e => e.Marks).Select(m => CalendarText.Day(m.Date)).Where(d => d is not null).Max();
            var proven = rows.Where(r => r.Top == LedgerStop.Proven).All(r => r.Whole == LedgerStop.Proven);
            return (proven ? "Built and proven" : "Built")
                + (last is { } day ? $" on {day.ToString("d MMMM yyyy", CultureInfo.InvariantCulture)}" : "")
                + (revision is { } n ? $", revision {n}" : "");
        }
        return acts.Count > 0 ? Capital(acts[0].Words) : "Nothing is ordered yet";
    }
}

using InkyBadger.Core.Design;
using InkyBadger.Core.Reference;
using InkyBadger.Core.Sheets;

namespace InkyBadger.Server.Sheets.Drawing;

/// <summary>A circuit of a bar, or the end of the main run where it goes on to the inverter.</summary>
/// <param name="Cut">Key of its copper in the ledger.</param>
internal sealed record Column(
    string Cut,
    CableRow? Plus,
    CableRow? Minus,
    double? Mm2,
    string? Fuse,
    string FuseWords,
    string? Device,
    string Name,
    IReadOnlyList<string> Lines
)
{
    /// <summary>Where its minus is a row of its own in the ledger.</summary>
    public string? MinusCut { get; init; }
}

/// <summary>What hangs on one bar: the bus, a panel, or what comes out of a converter.</summary>
internal sealed record Group(string Title, List<Column> Columns, bool IsBus);

/// <summary>The columns of a page.</summary>
internal sealed record Page(List<Group> Groups);

/// <summary>Circuits stand side by side between two bars: fuse, copper and what is at its end.</summary>
internal static class CircuitColumns
{
    public const double ColumnWide = 69;

    /// <summary>On the sheet of the bank, and on one of circuits alone.</summary>
    public const int OnFirst = 4,
        OnPage = 12;

    private const double Gap = 14,
        MostWide = 120;

    public sealed class All(List<Group> groups)
    {
        /// <summary>The first of the bus, the inverter among them.</summary>
        public Group TakeFirst()
        {
            var bus = groups[0];
            var first = bus.Columns.Take(OnFirst).ToList();
            groups[0] = bus with { Columns = [.. bus.Columns.Skip(OnFirst)] };
            return bus with { Columns = first };
        }

        /// <summary>The rest, as many to a page as it has room for.</summary>
        public IEnumerable<Page> Pages()
        {
            var (page, room) = (new List<Group>(), OnPage);
            foreach (var group in groups)
            {
                var left = group.Columns;
                while (left.Count > 0)
                {
                    if (room < 1)
                    {
                        yield return new(page);
                        (page, room) = ([], OnPage);
                    }
                    var take = Math.Min(room, left.Count);
                    page.Add(group with { Columns = left[..take] });
                    left = left[take..];
                    room -= take;
                }
            }
            if (page.Count > 0)
                yield return new(page);
        }
    }

    public static All Groups(SheetScene s)
    {
        var e = s.Evaluation;
        var bus = new Group("bus", [], true);
        var behind = new Dictionary<string, Group>();
        // The inverter first: it is what the bank is built for, and so it is on the bank's own sheet.
        if (InverterAtMain(s) is { } last)
            bus.Columns.Add(last);
        foreach (var c in e.Circuits.OrderBy(c => c.Kind is CircuitKind.Inverter or CircuitKind.FurtherInverter ? 0 : 1))
        {
            var to = c.Upstream is { } upstream
                ? behind.TryGetValue(upstream, out var known)
                    ? known
                    : behind[upstream] = new($"from {e.Circuits.First(x => x.Id == upstream).Name}", [], false)
                : bus;
            to.Columns.Add(Of(s, c));
        }
        return new([bus, .. behind.Values, .. Arrays(s)]);
    }

    /// <summary>From the modules of each array to its controller, which stands among the circuits.</summary>
    private static IEnumerable<Group> Arrays(SheetScene s)
    {
        foreach (var source in s.Work.Document.Sources)
        {
            if (source.Array is not { } array || s.Cable($"{Run.ArrayPrefix}{source.Id}-plus") is not { } plus)
                continue;
            var fuse = $"fuse-{Run.ArrayPrefix}{source.Id}";
            var row = s.Row(fuse);
            var words = row is null ? "" : $"{row.Part.Count:0} × {row.Part.Name.Split(' ')[^2]} {row.Part.Name.Split(' ')[^1]}";
            yield return new(
                $"{Modules(array)}, {source.Name}",
                [
                    new(
                        $"cut-{Run.ArrayPrefix}{source.Id}",
                        plus,
                        s.Cable($"{Run.ArrayPrefix}{source.Id}-minus"),
                        plus.AreaMm2,
                        row is null ? null : fuse,
                        words,
                        null,
                        $"to {s.Tag($"source-{source.Id}")}, {source.Name}",
                        [$"{array.Series} in series, {array.Strings} beside"]
                    ),
                ],
                false
            );
        }
    }

    /// <summary>The main run goes on to the inverter as long as that has no run of its own.</summary>
    private static Column? InverterAtMain(SheetScene s)
    {
        var piece = s.Lists?.Cables.FirstOrDefault(c => c.Key.EndsWith("-inverter-plus", StringComparison.Ordinal));
        var minus = s.Lists?.Cables.FirstOrDefault(c => c.Key.EndsWith("-inverter-minus", StringComparison.Ordinal));
        if (piece is null || s.Evaluation.Inverter is null)
            return null;
        return new($"cut-{piece.Key}", piece, minus, piece.AreaMm2, null, "", InverterKey(s, 0), "Inverter", InverterLines(s, 0))
        {
            MinusCut = minus is null ? null : $"cut-{minus.Key}",
        };
    }

    private static string? InverterKey(SheetScene s, int n) =>
        s.Work.Document.Inverters.Count > n ? $"inverter-{s.Work.Document.Inverters[n].Id}" : null;

    private static IReadOnlyList<string> InverterLines(SheetScene s, int n)
    {
        var item = (s.Work.Document.Inverters.Count > n ? s.Work.Document.Inverters[n].Item : null) ?? s.Evaluation.Inverter?.Item;
        return item is null
            ? []
            :
            [
                Say.W(item.ContinuousW),
                $"{s.Evaluation.Voltage?.SystemV} V in",
                $"{Say.V(s.Design.Ac.Volts)} AC out",
                "RCD, earth: licensed",
            ];
    }

    private static Column Of(SheetScene s, CircuitResult c)
    {
        var plus = s.Cable($"{c.Id}-plus");
        var minus = s.Cable($"{c.Id}-minus");
        var fuse = s.Row($"fuse-{c.Id}") is null ? null : $"fuse-{c.Id}";
        var words = c.Run.Fuse.RatingA is { } amps ? Say.Rating(amps) : "";
        var further = s.Work.Document.Inverters.Index().FirstOrDefault(x => c.Id == Run.FurtherPrefix + x.Item.Id).Index;
        var (device, lines) = c.Kind switch
        {
            CircuitKind.Inverter => (InverterKey(s, 0), InverterLines(s, 0)),
            CircuitKind.FurtherInverter => (InverterKey(s, further), InverterLines(s, further)),
            CircuitKind.Charge when c.Source is { } i => (
                $"source-{s.Work.Document.Sources[i].Id}",
                Source(s, s.Work.Document.Sources[i], c)
            ),
            CircuitKind.ConverterIn => ($"converter-{c.Id}", Behind(s, c)),
            CircuitKind.Panel => ($"panel-{c.Id}", Behind(s, c)),
            CircuitKind.Join => (null, [$"to {c.To}"]),
            _ => ((string?)null, (IReadOnlyList<string>)[Say.A(c.Run.DesignA)]),
        };
        return new($"cut-{c.Id}", plus, minus, c.Run.Cable.AreaMm2, fuse, words, device, c.Name, lines);
    }

    private static string Modules(SolarArray array) => array.Series * array.Strings is > 1 and var n ? $"{n} modules" : "1 module";

    private static IReadOnlyList<string> Behind(SheetScene s, CircuitResult c) =>
        [Say.A(c.Run.DesignA), $"feeds {s.Evaluation.Circuits.Count(x => x.Upstream == c.Id)}, on a further sheet"];

    private static IReadOnlyList<string> Source(SheetScene s, Source source, CircuitResult c)
    {
        var lines = new List<string> { Say.A(c.Run.DesignA) };
        if (source.Array is { } array)
            lines.Add(Modules(array) + (s.Row($"cut-{Run.ArrayPrefix}{source.Id}") is { } row ? $", {row.Part.Tag} further on" : ""));
        return lines;
    }

    public static void Draw(Pen pen, SheetScene s, Page page)
    {
        var columns = page.Groups.Sum(g => g.Columns.Count);
        var gaps = (page.Groups.Count - 1) * Gap;
        var wide = Math.Min(MostWide, (838 - gaps) / columns);
        var x = 22.0;
        foreach (var group in page.Groups)
        {
            DrawGroup(pen, s, group, x, 72, 505, wide);
            x += group.Columns.Count * wide + Gap;
        }
    }

    /// <param name="top">Middle of the upper bar.</param>
    /// <param name="bottom">Middle of the lower one.</param>
    /// <param name="wide">Of a column.</param>
    public static void DrawGroup(Pen pen, SheetScene s, Group group, double x, double top, double bottom, double wide)
    {
        var width = group.Columns.Count * wide - 6;
        var key = group.IsBus ? s.Key("bus") : null;
        if (group.Columns.Count == 0)
            return;
        if (group.IsBus)
        {
            pen.Bar(x, top, width, key, pen.StopOf(key));
            pen.Bar(x, bottom, width, key, pen.StopOf(key, 1));
            Over(pen, $"B+ bus, {s.Row("bus")?.Part.Spec ?? ""}, covered", x, top - 13, width);
            pen.Write(x + width, bottom + 21, $"B− bus, {s.Row("bus")?.Part.Spec ?? ""}", 11, anchor: "end");
            s.Put(pen, "bus", x + width / 2, top);
        }
        else
        {
            pen.Run(x, top, x + width, top, 60, null, LedgerStop.Here);
            pen.Run(x, bottom, x + width, bottom, 60, null, LedgerStop.Here);
            Over(pen, $"{group.Title}, plus", x, top - 13, width);
            pen.Write(x, bottom + 18, "its minus", 11);
        }
        foreach (var (n, c) in group.Columns.Index())
            Draw(pen, s, c, x + n * wide + 2, top + 8, bottom - 8, wide);
    }

    /// <summary>Words over a bar, in as many lines as they need.</summary>
    private static void Over(Pen pen, string words, double x, double y, double width)
    {
        var lines = Pen.Lines(words, width, 11);
        foreach (var (i, line) in lines.Index())
            pen.Write(x + width, y - 13 * (lines.Count - 1 - i), line, 11, anchor: "end");
    }

    private static void Draw(Pen pen, SheetScene s, Column c, double left, double top, double bottom, double wide)
    {
        var (x, text) = (left + 8, left + 18);
        var stop = pen.StopOf(s.Key(c.Cut), 0, Math.Max(1, (int)(s.Row(c.Cut)?.Part.Count ?? 1)));
        var box = top + 122;
        var lines = Words(c, wide - 18, bottom - box - 66);
        var tall = lines.Sum(l => l.Tall) + 12;
        pen.Run(x, top, x, box, c.Mm2, s.Key(c.Cut), stop);
        var minus = c.MinusCut ?? c.Cut;
        pen.Run(x, box + tall, x, bottom, c.Mm2, s.Key(minus), c.MinusCut is null ? stop : pen.StopOf(s.Key(minus), 0, c.Minus!.Pieces));
        s.Put(pen, c.Cut, x, top + 70);
        if (c.Fuse is { } fuse)
        {
            var at = pen.StopOf(s.Key(fuse));
            pen.Fuse(x, top + 26, s.Key(fuse), at);
            s.Put(pen, fuse, x, top + 26);
            pen.Write(text, top + 24, s.Tag(fuse) + (at == LedgerStop.Proven ? " ✓" : ""), 11, bold: true, figure: true, key: s.Key(fuse));
            pen.Write(text, top + 37, c.FuseWords, 11, figure: true);
        }
        Label(pen, s, c.Plus, text + 1, top + 62, c, wide);
        if (c.Device is { } device)
        {
            pen.Device(left, box, wide - 10, tall, s.Key(device), pen.StopOf(s.Key(device)));
            s.Put(pen, device, left + 30, box + tall / 2);
        }
        else
            pen.Device(left, box, wide - 10, tall, null, stop is LedgerStop.Proven ? LedgerStop.Fitted : stop, tick: false);
        var y = box + 3;
        foreach (var line in lines)
        {
            y += line.Tall;
            pen.Write(left + 5, y, line.Words, line.Size, bold: line.Bold, figure: line.Figure);
        }
        Label(pen, s, c.Minus, text + 1, Math.Max(box + tall + 24, bottom - 68), c with { Cut = minus }, wide);
    }

    private sealed record Line(string Words, double Size, bool Bold, bool Figure)
    {
        public double Tall => Size + 2.5;
    }

    private static List<Line> Words(Column c, double room, double most)
    {
        // A box with much to say says it in smaller letters instead of leaving some out.
        foreach (var size in new[] { 11.5, 11, 9.5, 7.5 })
        {
            var lines = Fitting(c, size, room);
            if (lines.Sum(l => l.Tall) + 12 < most || size < 8)
                return lines;
        }
        return [];
    }

    private static List<Line> Fitting(Column c, double size, double room)
    {
        var lines = Pen.Lines(c.Name, room, size).Select(l => new Line(l, size, true, false)).ToList();
        foreach (var (i, words) in c.Lines.Index())
            lines.AddRange(Pen.Lines(words, room, size - 0.5, true).Select(l => new Line(l, size - 0.5, i == 0, true)));
        return lines;
    }

    private static void Label(Pen pen, SheetScene s, CableRow? cable, double x, double y, Column c, double wide)
    {
        if (cable is null)
            return;
        pen.Sleeve(x, y, cable.Label, s.Key(c.Cut));
        var size = $"{(cable.Pieces > 1 ? $"{cable.Pieces} × " : "")}{cable.Size}";
        pen.Write(x, y + 15, size, Pen.Wide(size, 11, true) > wide - 20 ? 9 : 11, figure: true);
        pen.Write(x, y + 28, s.M(cable.LengthM), 11, figure: true);
    }
}

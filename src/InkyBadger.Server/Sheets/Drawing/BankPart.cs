using InkyBadger.Core.Design;
using InkyBadger.Core.Reference;
using InkyBadger.Core.Sheets;

namespace InkyBadger.Server.Sheets.Drawing;

/// <summary>The left of a bank’s sheet: its strings between two rails, the main run to the bus, and the plate for its box.</summary>
internal static class BankPart
{
    private const double PlusY = 104,
        MinusY = 436,
        Top = 180,
        Bottom = 354,
        NearX = 360,
        FarX = 56,
        BusX = 581;

    /// <summary>Up to so many strings are drawn; more are a block and one of them as a detail.</summary>
    private const int MostStrings = 12;

    public static void Draw(Pen pen, SheetScene s, Group first)
    {
        var pack = s.Work.Pack.Need();
        var shown = pack.Parallel > MostStrings ? 1 : pack.Parallel;
        var pitch = shown == 1 ? 96 : Math.Min(96, (NearX - FarX) / (shown - 1));
        double X(int i) => NearX - i * pitch;
        var feeds = s.Lists is not null;
        if (feeds)
            Rails(pen, s, shown, pitch);
        for (var i = 0; i < shown; i++)
            String(pen, s, i, X(i), pitch, feeds);
        if (pack.Parallel > MostStrings)
            Block(pen, s, pack);
        Notes(pen, s, pitch);
        if (feeds)
        {
            MainRun(pen, s, X, shown);
            CircuitColumns.DrawGroup(pen, s, first, BusX - 2, PlusY, MinusY, CircuitColumns.ColumnWide);
            if (first.Columns.Count < CircuitColumns.OnFirst)
                Bars(pen, s, first.Columns.Count);
            Bond(pen, s);
        }
        if (s.Plate is { } plate)
            Plate(pen, plate, 404);
    }

    /// <summary>The bus is drawn over its whole length, however little hangs on it.</summary>
    private static void Bars(Pen pen, SheetScene s, int columns)
    {
        var key = s.Key("bus");
        var from = BusX - 2 + Math.Max(0, columns * CircuitColumns.ColumnWide - 6);
        var to = BusX - 8 + CircuitColumns.OnFirst * CircuitColumns.ColumnWide;
        if (to - from < 1)
            return;
        pen.Bar(from, PlusY, to - from, key, pen.StopOf(key));
        pen.Bar(from, MinusY, to - from, key, pen.StopOf(key, 1));
    }

    private static void String(Pen pen, SheetScene s, int i, double x, double pitch, bool feeds)
    {
        var pack = s.Work.Pack.Need();
        var units = pack.Strings[i].Units;
        var name = Say.StringName(i + 1);
        var wide = Math.Min(56, pitch - 6);
        // Of a long string its first and last units, and how many stand between.
        var drawn = units.Count <= 5 ? units.Count : 3;
        var gap = units.Count == 1 ? 0 : 26.0;
        var tall = Math.Min(74, (Bottom - Top - (drawn - 1) * gap) / drawn);
        var begin = (Top + Bottom) / 2 - (drawn * tall + (drawn - 1) * gap) / 2;
        for (var k = 0; k < drawn; k++)
        {
            var y = begin + k * (tall + gap);
            var middle = units.Count > 5 && k == 1;
            var unit =
                units.Count <= 5 || k == 0 ? k
                : k == 2 ? units.Count - 1
                : -1;
            var item = units[Math.Max(0, unit)].Item;
            var key = s.Key($"unit-{item.Key}");
            var stop = pen.StopOf(key, Rank(pack, item.Key, i, Math.Max(0, unit)));
            if (middle)
                pen.Box(x - wide / 2, y, wide, tall, 1, dashed: true);
            else
                pen.Device(x - wide / 2, y, wide, tall, key, stop, tick: wide > 40, inside: true);
            s.Put(pen, $"unit-{item.Key}", x, y + tall / 2);
            var label = middle ? $"{units.Count - 2} more" : $"{name}{unit + 1}";
            pen.Write(x, y + tall / 2 + 4, label, wide > 40 && !middle ? 14 : 11, bold: true, figure: true, anchor: "middle");
            if (pitch >= 56)
            {
                pen.Circle(x, y, 6.5, "+");
                pen.Circle(x, y + tall, 6.5, "−");
            }
            // Between the last but one and the last of a long string lies its last jumper.
            var after =
                units.Count <= 5 || k == 0 ? k + 1
                : k == 1 ? units.Count - 1
                : 0;
            if (k + 1 < drawn && s.Find(ConductorKind.Jumper, true, i + 1, after) is { } j)
            {
                var (label2, jumperKey, rank) = s.RowOf(j);
                var off = pitch >= 56 ? 6.5 : 0;
                var at = pen.StopOf(jumperKey, rank, j.Conductors);
                pen.Run(x, y + tall + off, x, y + tall + gap - off, s.Tables.Conductor(j.Size).AreaMm2, jumperKey, at);
                if (pitch >= 80)
                    pen.Sleeve(x + 9, y + tall + gap / 2 + 4, label2, jumperKey);
            }
        }
        if (s.Row("balancer") is not null)
            Balancer(pen, s, i, x - wide / 2, begin + tall / 2, begin + (drawn - 1) * (tall + gap) + tall / 2, pitch);
        if (!feeds)
            return;
        foreach (var plus in new[] { true, false })
        {
            // Where strings hang on a bar each has a lead of its own; else the tap belongs to the link that goes on from it.
            var own = s.Find(ConductorKind.Lead, plus, i + 1, 0)
                ?? s.Find(ConductorKind.Link, plus, 0, i + 1)
                ?? s.Find(ConductorKind.Link, plus, 0, i);
            var (_, rowKey, rank) = own is null ? ("", null, 0) : s.RowOf(own);
            var area = own is null ? s.Evaluation.MainRun?.Cable.AreaMm2 : s.Tables.Conductor(own.Size).AreaMm2;
            var stop = own is null ? LedgerStop.Here : pen.StopOf(rowKey, rank, own.Conductors);
            if (plus)
                pen.Run(x, PlusY, x, begin - 6.5, area, rowKey, stop);
            else
                pen.Run(x, begin + (drawn - 1) * (tall + gap) + tall + 6.5, x, MinusY, area, rowKey, stop);
        }
        if (s.Row("fuse-strings") is { } fuses)
        {
            var key = s.Key("fuse-strings");
            var at = pen.StopOf(key, i);
            pen.Fuse(x, 140, key, at);
            s.Put(pen, "fuse-strings", x, 140);
            if (pitch >= 44)
                pen.Write(
                    x - 10,
                    137,
                    $"{(at == LedgerStop.Proven ? "✓ " : "")}F{name}",
                    11,
                    bold: true,
                    figure: true,
                    anchor: "end",
                    key: key
                );
            if (pitch >= 60 && s.Evaluation.StringFuses?.RatingA is { } amps)
                pen.Write(x - 10, 150, Say.Rating(amps), 11, figure: true, anchor: "end");
        }
    }

    /// <summary>Which of its kind a unit is, counted through the strings.</summary>
    private static int Rank(Core.Banks.Pack pack, string item, int row, int unit) =>
        pack.Strings.Take(row).Sum(x => x.Units.Count(u => u.Item.Key == item))
        + pack.Strings[row].Units.Take(unit).Count(u => u.Item.Key == item);

    private static void Balancer(Pen pen, SheetScene s, int i, double x, double from, double to, double pitch)
    {
        var key = s.Key("balancer");
        var stop = pen.StopOf(key, i);
        var at = x - Math.Min(12, pitch / 8);
        foreach (var y in new[] { from, (from + to) / 2, to })
            pen.Line(at, y, x, y, 1, faint: true, dashed: stop is null or LedgerStop.Ordered);
        pen.Line(at, from, at, to, 1, faint: true, dashed: stop is null or LedgerStop.Ordered);
        s.Put(pen, "balancer", at, (from + to) / 2);
        if (pitch < 80)
            return;
        pen.Device(at - 12, (from + to) / 2 - 8, 24, 15, key, stop, tick: false);
        pen.Write(at, (from + to) / 2 + 4, $"U{Say.StringName(i + 1)}", 11, figure: true, anchor: "middle", key: key);
    }

    private static void Rails(Pen pen, SheetScene s, int shown, double pitch)
    {
        var network = s.Evaluation.Network;
        var bars = network?.Wiring.Style == WiringStyle.BusBars;
        foreach (var plus in new[] { true, false })
        {
            var y = plus ? PlusY : MinusY;
            if (bars)
            {
                var key = s.Key("bank-bus");
                pen.Bar(NearX - (shown - 1) * pitch - 12, y, (shown - 1) * pitch + 24, key, pen.StopOf(key, plus ? 0 : 1));
                s.Put(pen, "bank-bus", NearX, y);
                continue;
            }
            for (var i = 0; i + 1 < shown; i++)
            {
                if (s.Find(ConductorKind.Link, plus, 0, i + 1) is not { } c)
                    continue;
                var (label, key, rank) = s.RowOf(c);
                var (right, left) = (NearX - i * pitch, NearX - (i + 1) * pitch);
                pen.Run(left, y, right, y, s.Tables.Conductor(c.Size).AreaMm2, key, pen.StopOf(key, rank, c.Conductors));
                if (pitch < 80)
                    continue;
                var at = (left + right) / 2 - 34;
                var wide = pen.Sleeve(at, plus ? y - 12 : y + 24, label, key);
                pen.Write(at + wide + 4, plus ? y - 12 : y + 24, s.M(c.LengthM), 11, figure: true);
            }
        }
    }

    private static void Notes(Pen pen, SheetScene s, double pitch)
    {
        var words = new List<string>();
        if (s.Evaluation.Bank is { } bank)
            words.Add($"units {bank.Unit.Name}");
        foreach (var g in s.Insides.GroupBy(i => (i.Label[0], i.Members[0].Size, i.Members[0].LengthM)))
            words.Add($"{string.Join(", ", g.Select(i => i.Label))} {g.Key.Size}, {s.M(g.Key.LengthM)}");
        if (s.Row("balancer") is not null)
            words.Add("U a balancer to +, middle and − of its string");
        if (s.Row("bms") is { } bms)
            words.Add($"{bms.Part.Name} in each string, {bms.Part.Spec}");
        if (pitch < 60 && s.Evaluation.StringFuses is { Fitted: true, RatingA: { } amps })
            words.Add($"string fuses {Say.Rating(amps)}");
        var lines = Pen.Lines(string.Join("; ", words), 520, 11);
        // Many unlike pieces are told in smaller letters rather than left out.
        var size = lines.Count <= 4 ? 11 : 8;
        foreach (var (i, line) in Pen.Lines(string.Join("; ", words), 520, size).Index())
            pen.Write(30, 488 + (size + 2) * i, line, size, faint: true);
        foreach (var inside in s.Insides)
            pen.Note(s.Key($"cut-{inside.Key}"), 200, 488);
    }

    /// <summary>Many strings: what they are together, beside one of them.</summary>
    private static void Block(Pen pen, SheetScene s, Core.Banks.Pack pack)
    {
        pen.Box(40, Top - 10, 240, Bottom - Top + 20, 2);
        pen.Write(160, 252, $"{pack.Series}S{pack.Parallel}P", 34, bold: true, figure: true, anchor: "middle");
        pen.Write(160, 280, $"{pack.Parallel} strings alike, A to {Say.StringName(pack.Parallel)}", 12, anchor: "middle");
        pen.Write(160, 297, "A is drawn beside as the detail", 11, anchor: "middle", faint: true);
        foreach (var plus in new[] { true, false })
        {
            var y = plus ? PlusY : MinusY;
            var c = s.Find(ConductorKind.Lead, plus, pack.Parallel, 0) ?? s.Find(ConductorKind.Link, plus, 0, pack.Parallel - 1);
            var (_, key, rank) = c is null ? ("", null, 0) : s.RowOf(c);
            var area = c is null ? (double?)null : s.Tables.Conductor(c.Size).AreaMm2;
            var stop = c is null ? LedgerStop.Here : pen.StopOf(key, rank, c.Conductors);
            pen.Run(160, y, NearX, y, area, key, stop);
            pen.Run(160, plus ? y : Bottom + 10, 160, plus ? Top - 10 : y, area, key, stop);
        }
    }

    private static void MainRun(Pen pen, SheetScene s, Func<int, double> x, int shown)
    {
        var bus = s.Evaluation.Bus!;
        var minusAtFar = s.Evaluation.Network?.Wiring.Style is WiringStyle.Diagonal && shown > 1;
        OnePole(pen, s, [.. bus.Plus.TakeWhile(p => p.Part != LoopPart.Inverter)], "plus", NearX, PlusY);
        var from = NearX;
        if (minusAtFar)
        {
            // The minus leaves at the far string: under the others, and up again before the shunt.
            var far = x(shown - 1);
            var mm2 = s.Evaluation.MainRun?.Cable.AreaMm2;
            var first = s.Lists?.Cables.FirstOrDefault(c => c.Key.StartsWith("main-post-", StringComparison.Ordinal) && c.Pole == "minus");
            var key = first is null ? null : s.Key($"cut-{first.Key}");
            var stop = pen.StopOf(key, 0, first?.Pieces ?? 1);
            pen.Run(far, MinusY, far, MinusY + 36, mm2, key, stop);
            pen.Run(far, MinusY + 36, NearX + 34, MinusY + 36, mm2, key, stop);
            pen.Run(NearX + 34, MinusY + 36, NearX + 34, MinusY, mm2, key, stop);
            from = NearX + 34;
        }
        OnePole(pen, s, [.. bus.Minus.TakeWhile(p => p.Part != LoopPart.Inverter)], "minus", from, MinusY);
    }

    /// <summary>From the post to the bus, part by part; what is bolted to each other has no copper between.</summary>
    private static void OnePole(Pen pen, SheetScene s, List<LoopPoint> points, string pole, double from, double y)
    {
        var mm2 = s.Evaluation.MainRun?.Cable.AreaMm2;
        var step = points.Count > 1 ? (BusX - from) / (points.Count - 1) : BusX - from;
        for (var i = 1; i < points.Count; i++)
        {
            var (a, b) = (points[i - 1].Part, points[i].Part);
            var id = $"main-{a}-{b}-{pole}".ToLowerInvariant();
            var cable = s.Cable(id);
            var key = cable is null ? null : s.Key($"cut-{id}");
            var (x1, x2) = (from + (i - 1) * step, from + i * step);
            pen.Run(x1, y, x2, y, mm2, key, cable is null ? LedgerStop.Here : pen.StopOf(key, 0, cable.Pieces));
            if (cable is not null)
            {
                s.Put(pen, $"cut-{id}", (x1 + x2) / 2, y);
                var up = pole == "plus";
                var wide = pen.Sleeve((x1 + x2) / 2 - 24, up ? y + 26 : y + 24, cable.Label, key);
                pen.Write((x1 + x2) / 2 - 20 + wide, up ? y + 26 : y + 24, s.M(cable.LengthM), 11, figure: true);
            }
        }
        for (var i = 0; i < points.Count; i++)
            Part(pen, s, points[i].Part, from + i * step, y);
    }

    private static void Part(Pen pen, SheetScene s, LoopPart part, double x, double y)
    {
        switch (part)
        {
            case LoopPart.Fuse when s.Row("fuse-main") is { } fuse:
                var stop = pen.StopOf(s.Key("fuse-main"));
                pen.Device(x - 17, y - 14, 34, 28, s.Key("fuse-main"), stop, tick: false);
                pen.Line(x - 17, y - 3, x + 17, y - 3, 0.8);
                pen.Line(x - 17, y + 3, x + 17, y + 3, 0.8);
                s.Put(pen, "fuse-main", x, y);
                pen.Write(
                    x,
                    y - 46,
                    fuse.Part.Tag + (stop == LedgerStop.Proven ? " ✓" : ""),
                    12,
                    bold: true,
                    figure: true,
                    anchor: "middle",
                    key: s.Key("fuse-main")
                );
                if (s.Evaluation.MainRun is { Fuse: { RatingA: { } rating } main })
                {
                    pen.Write(x, y - 33, Say.Rating(rating), 11, figure: true, anchor: "middle");
                    pen.Write(x, y - 20, main.Label, 11, figure: true, anchor: "middle");
                }
                break;
            case LoopPart.Switch when s.Row("switch") is { } row:
                var at = pen.StopOf(s.Key("switch"));
                pen.Device(x - 15, y - 14, 30, 28, s.Key("switch"), at, tick: false);
                pen.Line(x - 10, y + 5, x + 9, y - 7, 1.6);
                s.Put(pen, "switch", x, y);
                pen.Write(
                    x,
                    y + 42,
                    row.Part.Tag + (at == LedgerStop.Proven ? " ✓" : "") + " switch",
                    11,
                    bold: true,
                    figure: true,
                    anchor: "middle"
                );
                if (s.Row("pre-charge") is not null)
                    PreCharge(pen, s, x, y);
                break;
            case LoopPart.Shunt when s.Row("monitor") is { } shunt:
                var here = pen.StopOf(s.Key("monitor"));
                pen.Device(x - 20, y - 13, 40, 26, s.Key("monitor"), here, tick: false);
                foreach (var dy in new[] { -5.0, 0, 5 })
                    pen.Line(x - 12, y + dy, x + 12, y + dy, 0.8);
                s.Put(pen, "monitor", x, y);
                pen.Write(
                    x,
                    y - 33,
                    shunt.Part.Tag + (here == LedgerStop.Proven ? " ✓" : ""),
                    12,
                    bold: true,
                    figure: true,
                    anchor: "middle"
                );
                pen.Write(x, y - 19, $"shunt, {shunt.Part.Spec}", 11, figure: true, anchor: "middle");
                break;
        }
    }

    private static void PreCharge(Pen pen, SheetScene s, double x, double y)
    {
        var stop = pen.StopOf(s.Key("pre-charge"));
        pen.Line(x - 24, y, x - 24, y - 52, 1, dashed: stop is null or LedgerStop.Ordered);
        pen.Line(x + 24, y, x + 24, y - 52, 1, dashed: stop is null or LedgerStop.Ordered);
        pen.Line(x - 24, y - 52, x + 24, y - 52, 1, dashed: stop is null or LedgerStop.Ordered);
        pen.Device(x - 11, y - 59, 22, 14, s.Key("pre-charge"), stop, tick: false);
        s.Put(pen, "pre-charge", x, y - 52);
        pen.Write(
            x,
            y - 65,
            $"{s.Tag("pre-charge")} pre-charge{(stop == LedgerStop.Proven ? " ✓" : "")}",
            11,
            figure: true,
            anchor: "middle"
        );
    }

    private static void Bond(Pen pen, SheetScene s)
    {
        if (s.Cable(Run.BondingId) is not { } bond)
            return;
        var key = s.Key($"cut-{Run.BondingId}");
        var (x, y) = (BusX + 12.0, MinusY + 8);
        pen.Run(x, y, x, y + 50, bond.AreaMm2, key, pen.StopOf(key, 0, bond.Pieces));
        s.Put(pen, $"cut-{Run.BondingId}", x, y + 30);
        foreach (var (i, half) in new[] { 13.0, 9, 5 }.Index())
            pen.Line(x - half, y + 50 + 5 * i, x + half, y + 50 + 5 * i, 1.4);
        var wide = pen.Sleeve(x + 16, y + 42, bond.Label, key);
        pen.Write(x + 20 + wide, y + 42, $"{bond.Size}, {s.M(bond.LengthM)}, to chassis, hull or earth", 11, figure: true);
    }

    private static void Plate(Pen pen, Plate plate, double x)
    {
        var tall = 26 + 26 * plate.Lines.Count;
        var y = Math.Max(168, 272 - tall / 2.0);
        pen.Box(x, y, 158, tall);
        pen.Box(x + 3, y + 3, 152, tall - 6);
        pen.Write(x + 79, y + 16, "plate at the bank", 11, anchor: "middle", faint: true);
        foreach (var (i, line) in plate.Lines.Index())
        {
            pen.Write(x + 10, y + 32 + 26 * i, line.Figure, 12.5, bold: true, figure: true);
            pen.Write(x + 10, y + 44 + 26 * i, line.Words, 11, faint: true);
        }
    }
}

using InkyBadger.Core.Design;
using InkyBadger.Core.Work;

namespace InkyBadger.Server.Sheets.Drawing;

/// <summary>
/// The AC side as it was drawn, on a sheet of its own: supplies left, circuits right, each switch with its positions. Closed or open is not
/// drawn: that is turned by hand.
/// </summary>
internal static class AcBoardSheet
{
    private const double Left = 30,
        Right = 850,
        Top = 66,
        Bottom = 540,
        MostWide = 128,
        MostTall = 40;

    public static void Draw(Pen pen, AcDrawing side)
    {
        pen.Write(
            Left,
            42,
            "The AC side as drawn: breakers, RCD, earth and the bond of neutral and earth are a licensed electrician’s, by local rules",
            12.5,
            bold: true
        );
        var parts = side.Parts.ToDictionary(p => p.Id);
        var columns = AcColumns.Of(side);
        var pitch = columns.Count > 1 ? (Right - Left - MostWide) / (columns.Count - 1) : 0;
        var wide = Math.Min(MostWide, columns.Count > 1 ? pitch - 26 : MostWide);
        var at = new Dictionary<string, (double X, double Y, double H)>();
        foreach (var (c, column) in columns.Index())
        {
            var each = Math.Min(MostTall + 14, (Bottom - Top) / column.Count);
            var y = Top + Math.Max(0, (Bottom - Top - each * column.Count) / 2);
            foreach (var id in column)
            {
                at[id] = (Left + c * pitch, y, Math.Min(MostTall, each - 6));
                y += each;
            }
        }
        foreach (var wire in side.Wires)
        {
            if (!at.TryGetValue(wire.From, out var a) || !at.TryGetValue(wire.To, out var b))
                continue;
            var (y1, y2) = (a.Y + a.H / 2, b.Y + b.H / 2);
            var bend = b.X - 12 - 3 * (side.Parts.Index().First(p => p.Item.Id == wire.From).Index % 3);
            var always = wire.FromAt.Count == 0 && wire.ToAt.Count == 0;
            pen.Line(a.X + wide, y1, bend, y1, 1.2, dashed: !always);
            pen.Line(bend, y1, bend, y2, 1.2, dashed: !always);
            pen.Line(bend, y2, b.X, y2, 1.2, dashed: !always);
        }
        foreach (var part in side.Parts)
        {
            var (x, y, h) = at[part.Id];
            pen.Box(x, y, wide, h, part.Kind is AcPartKind.Plug or AcPartKind.Generator or AcPartKind.Inverter ? 2 : 1.2);
            // A long name takes a second line in place of what it bears.
            var lines = Pen.Lines(AcNames.NameOf(part), wide - 10, 11.5);
            var single = lines.Count == 1 || h < 30;
            foreach (var (n, line) in (single ? [AcNames.NameOf(part)] : lines.Take(2)).Index())
                pen.Write(x + 5, y + Math.Min(15, h - 4) + 13 * n, line, Fit(line, wide - 10, Math.Min(11.5, h - 2)), bold: true);
            if (h >= 30 && single && Words(part) is { Length: > 0 } words)
                pen.Write(x + 5, y + 29, words, Fit(words, wide - 10, 11));
        }
    }

    /// <summary>As large as there is room for.</summary>
    private static double Fit(string words, double room, double most) =>
        Math.Clamp(most * room / Math.Max(1, Pen.Wide(words, most)), 4, most);

    private static string Words(AcPart part) =>
        part.Kind switch
        {
            AcPartKind.Transfer or AcPartKind.Selector => string.Join(" / ", part.Positions)
                + (part.Amps is { } c ? $", {Say.Rating(c)}" : ""),
            AcPartKind.Generator => part.Watts is { } w ? Say.W(w) : "",
            AcPartKind.Circuit => part.Amps is { } b ? $"{Say.Rating(b)} breaker" : "",
            _ => part.Amps is { } a ? Say.Rating(a) : "",
        };
}

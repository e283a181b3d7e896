using InkyBadger.Core.Design;
using InkyBadger.Core.Sheets;

namespace InkyBadger.Server.Sheets.Drawing;

/// <summary>
/// The AC side of a bank in its blocks: what its inverters feed, and what feeds its chargers. How it is wired is a licensed electrician’s.
/// </summary>
internal static class AcSheet
{
    private const double DeviceX = 230,
        DeviceWide = 170,
        PanelX = 460,
        PanelWide = 390,
        Top = 80,
        Bottom = 510;

    private sealed record Block(string Key, string Tag, string Name, string Words, string? From, bool Feeds);

    public static bool Has(SheetScene s) => Blocks(s).Count > 0;

    private static List<Block> Blocks(SheetScene s)
    {
        var list = new List<Block>();
        foreach (var (i, choice) in s.Work.Document.Inverters.Index())
        {
            var item = choice.Item ?? (i == 0 ? s.Evaluation.Inverter?.Item : null);
            if (item is null || s.Row($"inverter-{choice.Id}") is not { } row)
                continue;
            var feeds = choice.Feeds switch
            {
                "transfer" => "passes on what it is fed, and takes over",
                "panel" => "a panel of its own, by a selector",
                "sockets" => "its own sockets only",
                { Length: > 0 } words => words,
                _ => "what it feeds is not said",
            };
            list.Add(
                new(
                    $"inverter-{choice.Id}",
                    row.Part.Tag,
                    item.Name,
                    $"{Say.V(s.Design.Ac.Volts)}, {Say.Number(s.Design.Ac.Hz)} Hz; {feeds}",
                    null,
                    true
                )
            );
        }
        foreach (var source in s.Work.Document.Sources.Where(x => x.Kind is SourceKind.Mains or SourceKind.Generator))
        {
            var supply = source.Supply;
            var from = source.Kind == SourceKind.Generator ? "generator" : "shore or grid";
            var gives =
                supply is { Amps: { } amps } ? $", {Say.V(supply.Volts ?? s.Design.Ac.Volts)} {Say.Rating(amps)}"
                : supply is { Watts: { } watts } ? $", {Say.W(watts)}"
                : "";
            list.Add(new($"source-{source.Id}", s.Tag($"source-{source.Id}"), source.Name, "charger of the bank", from + gives, false));
        }
        return list;
    }

    public static void Draw(Pen pen, SheetScene s)
    {
        pen.Write(
            30,
            42,
            "The AC side: breakers, RCD, earth and the bond of neutral and earth are a licensed electrician’s, by local rules",
            12.5,
            bold: true
        );
        var blocks = Blocks(s);
        var tall = Math.Min(96, (Bottom - Top) / blocks.Count - 16);
        var y = Top;
        foreach (var b in blocks)
        {
            var key = s.Key(b.Key);
            pen.Device(DeviceX, y, DeviceWide, tall, key, pen.StopOf(key));
            var lines = Pen.Lines($"{b.Tag} {b.Name}", DeviceWide - 16, 11.5);
            var at = y + 16;
            foreach (var line in lines)
            {
                pen.Write(DeviceX + 8, at, line, 11.5, bold: true);
                at += 14;
            }
            foreach (var line in Pen.Lines(b.Words, DeviceWide - 16, 11))
            {
                pen.Write(DeviceX + 8, at, line, 11);
                at += 13;
            }
            var middle = y + tall / 2;
            if (b.From is { } from)
            {
                pen.Box(30, middle - 18, 145, 36, 1, dashed: true);
                pen.Write(102.5, middle + 4, from, from.Length > 24 ? 9 : 11, anchor: "middle");
                Wires(pen, 175, DeviceX, middle);
            }
            if (b.Feeds)
                Wires(pen, DeviceX + DeviceWide, PanelX, middle);
            y += tall + 16;
        }
        if (blocks.Exists(b => b.Feeds))
            Loads(pen, s, y - 16);
    }

    /// <summary>Line, neutral and earth.</summary>
    private static void Wires(Pen pen, double from, double to, double y)
    {
        foreach (var (n, dy) in new[] { -4.0, 0, 4 }.Index())
            pen.Line(from, y + dy, to, y + dy, 0.9, faint: true, dashed: n == 2);
        pen.Write((from + to) / 2, y - 9, "L N, earth", 11, anchor: "middle", faint: true);
    }

    private static void Loads(Pen pen, SheetScene s, double least)
    {
        var loads = s.Evaluation.Loads?.Rows.Where(r => r.Kind == LoadKind.Ac).ToList() ?? [];
        pen.Write(PanelX + 10, Top + 18, $"AC panel: {loads.Count} {(loads.Count == 1 ? "load" : "loads")} behind it", 12, bold: true);
        // In as many columns as it takes; letters shrink before a name is left out.
        var columns = Math.Max(1, (int)Math.Ceiling(loads.Count / 26.0));
        var wide = (PanelWide - 20) / columns;
        var rows = (int)Math.Ceiling(loads.Count / (double)columns);
        var step = Math.Min(15, (Bottom - Top - 34) / Math.Max(1, rows));
        pen.Box(PanelX, Top, PanelWide, Math.Max(least, Top + 44 + (rows - 1) * step) - Top, 1.4, dashed: true);
        foreach (var (i, load) in loads.Index())
        {
            var (x, y) = (PanelX + 10 + i / rows * wide, Top + 36 + i % rows * step);
            var words = $"{(load.Name.Length > 0 ? load.Name : "a load")}, {Say.W(load.RunningW)}";
            var size = Math.Clamp(11 * (wide - 8) / Pen.Wide(words, 11), 4, Math.Min(11, step));
            pen.Write(x, y, words, size);
        }
    }
}

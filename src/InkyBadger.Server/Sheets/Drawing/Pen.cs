using System.Globalization;
using System.Text;
using System.Xml;
using System.Xml.Linq;
using InkyBadger.Core.Design;
using InkyBadger.Core.Sheets;

namespace InkyBadger.Server.Sheets.Drawing;

/// <summary>Where a part is on the paper.</summary>
internal sealed class Zones(double left, double top, double width, double height)
{
    private const int Across = 8,
        Down = 5;

    public Dictionary<string, string> Of { get; } = new(StringComparer.Ordinal);

    public IEnumerable<(string Name, double Middle, double End)> Columns() =>
        Enumerable.Range(0, Across).Select(i => ($"{i + 1}", left + (i + 0.5) * width / Across, left + (i + 1) * width / Across));

    public IEnumerable<(string Name, double Middle, double End)> Rows() =>
        Enumerable.Range(0, Down).Select(i => ($"{(char)('A' + i)}", top + (i + 0.5) * height / Down, top + (i + 1) * height / Down));

    /// <summary>The first place a part is drawn at is the one it is cited by.</summary>
    public void Note(string? key, string sheet, double x, double y)
    {
        if (key is null || Of.ContainsKey(key))
            return;
        var column = Math.Clamp((int)((x - left) / width * Across), 0, Across - 1);
        var row = Math.Clamp((int)((y - top) / height * Down), 0, Down - 1);
        Of[key] = $"{sheet}{(char)('A' + row)}{column + 1}";
    }
}

/// <summary>
/// Draws a sheet: copper a pixel a millimetre and full as far as it has come, devices, and words. What it writes is SVG whose colours are
/// attributes, so that it stands alone, with classes beside them for a screen that has colours of its own.
/// </summary>
internal sealed class Pen(string sheet, Zones zones, IReadOnlyDictionary<string, LedgerRow> rows)
{
    public const string Ink = "#11171C",
        Ink2 = "#414D55",
        Ink3 = "#58646C",
        Paper = "#FDFEFE",
        Copper = "#B65A22",
        Body = "#F0CDB0",
        Plan = "#C3CDD1";

    /// <summary>Of a letter, as a share of its height: words, and figures which are narrow [1].</summary>
    private const double WordWide = 0.55,
        FigureWide = 0.52;

    private readonly StringBuilder text = new();

    public override string ToString() => text.ToString();

    public LedgerRow? RowOf(string? key) => key is null ? null : rows.GetValueOrDefault(key);

    /// <summary>How far the n-th of a part has come (from 0): those that came furthest are drawn first.</summary>
    public LedgerStop? StopOf(string? key, int n = 0, int each = 1)
    {
        if (RowOf(key) is not { } row)
            return null;
        LedgerStop? stop = null;
        for (var s = LedgerStop.Ordered; s <= LedgerStop.Proven; s++)
            if (row.Reached.At(s) >= (n + 1) * each)
                stop = s;
        return stop;
    }

    private static string Class(LedgerStop? stop) => stop is { } s ? s.ToString().ToLowerInvariant() : "planned";

    private void Add(XElement element) => text.Append(element.ToString(SaveOptions.DisableFormatting)).Append('\n');

    /// <summary>
    /// An element with its attributes; one that is null is left out, and a hundredth of a pixel is as fine as any is said.
    /// </summary>
    private static XElement Element(string name, params (string Name, object? Value)[] attributes) =>
        new(
            name,
            attributes
                .Where(a => a.Value is not null)
                .Select(a => new XAttribute(
                    a.Name,
                    a.Value is double number ? number.ToString("0.##", CultureInfo.InvariantCulture) : Plain(a.Value!.ToString()!)
                ))
        );

    /// <summary>Words of at most one line; <paramref name="figure"/>: in the narrow type of figures.</summary>
    public void Write(
        double x,
        double y,
        string words,
        double size = 11,
        bool bold = false,
        bool figure = false,
        string anchor = "start",
        bool faint = false,
        string? key = null
    )
    {
        var element = Element(
            "text",
            ("x", x),
            ("y", y),
            ("class", (figure ? "f" : "w") + (faint ? " faint" : "")),
            ("font-size", size),
            ("font-weight", bold ? "700" : null),
            ("text-anchor", anchor == "start" ? null : anchor),
            ("fill", faint ? Ink2 : Ink),
            ("data-key", key)
        );
        element.Add(Plain(words));
        Add(element);
    }

    /// <summary>What XML cannot hold is left out.</summary>
    private static string Plain(string words) =>
        new([.. words.Where(c => !char.IsControl(c) && !char.IsSurrogate(c) && XmlConvert.IsXmlChar(c))]);

    public static double Wide(string words, double size, bool figure = false) => words.Length * size * (figure ? FigureWide : WordWide);

    /// <summary>Words in lines that fit; a word that is longer than a line is parted, nothing is cut off.</summary>
    public static List<string> Lines(string words, double room, double size, bool figure = false)
    {
        var most = Math.Max(3, (int)(room / (size * (figure ? FigureWide : WordWide))));
        var lines = new List<string>();
        foreach (var word in words.Split(' ', StringSplitOptions.RemoveEmptyEntries))
        {
            var rest = word;
            if (lines.Count > 0 && lines[^1].Length + 1 + rest.Length <= most)
            {
                lines[^1] += " " + rest;
                continue;
            }
            while (rest.Length > most)
            {
                lines.Add(rest[..(most - 1)] + "-");
                rest = rest[(most - 1)..];
            }
            lines.Add(rest);
        }
        return lines;
    }

    /// <summary>A millimetre of copper’s diameter is a pixel, and no line is thinner than can be seen.</summary>
    public static double Thick(double? mm2) => Math.Max(1.6, mm2 is { } a ? 2 * Math.Sqrt(a / Math.PI) : 2);

    /// <summary>Copper between two points in one direction, as full as it has come.</summary>
    public void Run(double x1, double y1, double x2, double y2, double? mm2, string? key, LedgerStop? stop)
    {
        zones.Note(key, sheet, (x1 + x2) / 2, (y1 + y2) / 2);
        var thick = Thick(mm2);
        var upright = Math.Abs(x1 - x2) < 0.01;
        var (x, y) = (Math.Min(x1, x2) - (upright ? thick / 2 : 0), Math.Min(y1, y2) - (upright ? 0 : thick / 2));
        var (w, h) = upright ? (thick, Math.Abs(y2 - y1)) : (Math.Abs(x2 - x1), thick);
        var group = Element("g", ("class", $"copper {Class(stop)}"), ("data-key", key));
        // A wide invisible line, for a finger.
        group.Add(Rect("reach", x - 5, y - 5, w + 10, h + 10, "none", null, null, null));
        group.Add(thick < 3.2 ? Wire(x1, y1, x2, y2, thick, stop) : Full(x, y, w, h, stop));
        Add(group);
    }

    private static XElement Wire(double x1, double y1, double x2, double y2, double thick, LedgerStop? stop)
    {
        var (stroke, dash) = stop switch
        {
            null => (Plan, null),
            LedgerStop.Ordered => (Ink3, "4 3"),
            LedgerStop.Here => (Ink3, null),
            LedgerStop.Fitted => ("#D9A57C", null),
            _ => (Copper, (string?)null),
        };
        return Segment("wire", x1, y1, x2, y2, stroke, thick, dash);
    }

    private static XElement Full(double x, double y, double w, double h, LedgerStop? stop)
    {
        var (fill, stroke, dash) = stop switch
        {
            null => (Plan, "none", null),
            LedgerStop.Ordered => (Paper, Ink3, "4 3"),
            LedgerStop.Here => (Paper, Ink3, null),
            LedgerStop.Fitted => (Body, Copper, null),
            _ => (Copper, Copper, (string?)null),
        };
        return Rect("body", x, y, w, h, fill, stroke, 1, dash);
    }

    private static XElement Rect(
        string name,
        double x,
        double y,
        double w,
        double h,
        string fill,
        string? stroke,
        double? width,
        string? dash,
        string? key = null
    ) =>
        Element(
            "rect",
            ("class", name),
            ("x", x),
            ("y", y),
            ("width", w),
            ("height", h),
            ("fill", fill),
            ("stroke", stroke),
            ("stroke-width", width),
            ("stroke-dasharray", dash),
            ("data-key", key)
        );

    private static XElement Segment(string name, double x1, double y1, double x2, double y2, string stroke, double width, string? dash) =>
        Element(
            "line",
            ("class", name),
            ("x1", x1),
            ("y1", y1),
            ("x2", x2),
            ("y2", y2),
            ("stroke", stroke),
            ("stroke-width", width),
            ("stroke-dasharray", dash)
        );

    /// <summary>A device: dashed, thin, thick, thick with a tick.</summary>
    public void Device(double x, double y, double w, double h, string? key, LedgerStop? stop, bool tick = true, bool inside = false)
    {
        zones.Note(key, sheet, x + w / 2, y + h / 2);
        var (width, dash) = stop switch
        {
            null => (1.0, "2 2"),
            LedgerStop.Ordered => (1.2, "4 3"),
            LedgerStop.Here => (1.0, null),
            _ => (2.0, (string?)null),
        };
        Add(Rect($"device {Class(stop)}", x, y, w, h, Paper, Ink, width, dash, key));
        if (tick && stop == LedgerStop.Proven)
            Write(x + w - (inside ? 4 : 1), y + (inside ? 18 : -3), "✓", 11, bold: true, anchor: "end");
    }

    /// <summary>A box that is no part: what hangs at the end of a run, a plate.</summary>
    public void Box(double x, double y, double w, double h, double stroke = 1, bool dashed = false) =>
        Add(Rect("box", x, y, w, h, "none", Ink, stroke, dashed ? "4 3" : null));

    public void Line(double x1, double y1, double x2, double y2, double stroke = 1, bool faint = false, bool dashed = false) =>
        Add(Segment(faint ? "faint-line" : "ink-line", x1, y1, x2, y2, faint ? Ink3 : Ink, stroke, dashed ? "3 3" : null));

    /// <summary>A fuse in an upright run: two lines pass through a narrow box.</summary>
    public void Fuse(double x, double y, string? key, LedgerStop? stop)
    {
        Device(x - 6, y - 12, 12, 24, key, stop, tick: false);
        Line(x - 2, y - 12, x - 2, y + 12, 0.8);
        Line(x + 2, y - 12, x + 2, y + 12, 0.8);
    }

    public void Circle(double x, double y, double r, string sign)
    {
        Add(Element("circle", ("class", "post"), ("cx", x), ("cy", y), ("r", r), ("fill", Paper), ("stroke", Ink), ("stroke-width", 1.0)));
        Write(x, y + r * 0.6, sign, r * 1.9, bold: true, anchor: "middle");
    }

    /// <summary>What is written on the sleeve, in a small frame; gives how wide it is.</summary>
    public double Sleeve(double x, double y, string tag, string? key)
    {
        var wide = Wide(tag, 11, true) + 10;
        Add(Rect("sleeve", x, y - 11, wide, 14, Paper, Ink, 1, null, key));
        Write(x + wide / 2, y, tag, 11, bold: true, figure: true, anchor: "middle", key: key);
        return wide;
    }

    /// <summary>The part that forbids the next step.</summary>
    public void Forbids(double x, double y) => Add(Rect("forbids", x - 5.5, y - 5.5, 11, 11, Ink, null, null, null));

    /// <summary>A part that is told rather than drawn is found where it is told.</summary>
    public void Note(string key, double x, double y) => zones.Note(key, sheet, x, y);

    public void Bar(double x, double y, double w, string? key, LedgerStop? stop)
    {
        zones.Note(key, sheet, x + w / 2, y);
        Run(x, y, x + w, y, 200, key, stop);
    }
}

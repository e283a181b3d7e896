using System.Globalization;
using System.Net;
using InkyBadger.Core.Design;
using InkyBadger.Core.Reference;
using InkyBadger.Core.Sheets;

namespace InkyBadger.Server.Sheets.Drawing;

/// <summary>A sheet of the wiring drawing: what is drawn within the SVG, and what it is called.</summary>
public sealed record WiringSheet(int Number, string Bank, string Title, string Svg);

/// <summary>The wiring drawing, and the zone in which each part of the ledger is found, such as B4 or, on the second sheet, 2·B4.</summary>
public sealed record WiringDrawing(IReadOnlyList<WiringSheet> Sheets, IReadOnlyDictionary<string, string> Zones);

/// <summary>
/// The whole system on paper: of each bank its strings, both poles and the bus with the first circuits on one sheet; what has no room
/// there, and what hangs behind converters and panels, on further ones. Nothing is left out.
/// </summary>
public static class WiringSheets
{
    internal const double Width = 880,
        Height = 622;
    internal const double Left = 14,
        Top = 12,
        Wide = 854,
        Tall = 597;

    /// <summary>Of the drawing, to be printed over the whole width of a page that lies across.</summary>
    public static string ViewBox { get; } = string.Create(CultureInfo.InvariantCulture, $"0 0 {Width} {Height}");

    /// <param name="papers">The design with its lists.</param>
    /// <param name="ledger">How far each part has come.</param>
    /// <param name="revision">What the title block says of the design’s revision and day; empty: it is not kept yet.</param>
    public static WiringDrawing Of(PaperSite papers, LedgerResult ledger, string revision)
    {
        var (design, site) = (papers.Design, papers.Site);
        var rows = ledger.Rows.Where(r => !r.Gone).ToDictionary(r => r.Part.Key, StringComparer.Ordinal);
        var plates = LabelsResult.Work(papers).Plates.ToDictionary(p => p.Bank);
        var plans = new List<Plan>();
        for (var i = 0; i < site.Count; i++)
        {
            var scene = new SheetScene(design, site[i], papers.Lists(i), rows, plates.GetValueOrDefault(site[i].Document.Id));
            if (scene.Evaluation.Bank is null)
                continue;
            var columns = CircuitColumns.Groups(scene);
            var first = columns.TakeFirst();
            plans.Add(
                new(
                    scene,
                    pen =>
                    {
                        BankPart.Draw(pen, scene, first);
                    },
                    "strings, main run and bus"
                )
            );
            foreach (var page in columns.Pages())
                plans.Add(new(scene, pen => CircuitColumns.Draw(pen, scene, page), "circuits"));
            // The AC side is the design’s: as drawn it stands once, for all banks.
            if (design.AcSide.Parts.Count > 0)
            {
                if (plans.TrueForAll(p => p.Title != AcTitle))
                    plans.Add(new(scene, pen => AcBoardSheet.Draw(pen, design.AcSide), AcTitle));
            }
            else if (AcSheet.Has(scene))
                plans.Add(new(scene, pen => AcSheet.Draw(pen, scene), AcTitle));
        }
        var zones = new Zones(Left, Top, Wide, Tall);
        var forbids = ledger.Bans.Count > 0 ? ledger.Bans[0].Key : null;
        if (plans.Count == 0)
            return new([new(1, "", "wiring", Empty(design, revision, zones))], zones.Of);
        var sheets = new List<WiringSheet>();
        foreach (var (n, plan) in plans.Index())
        {
            var pen = new Pen(n == 0 ? "" : $"{n + 1}·", zones, rows);
            plan.Draw(pen);
            if (forbids is not null && plan.Scene.At.TryGetValue(forbids, out var at) && at.Sheet == pen)
                pen.Forbids(at.X, at.Y);
            Frame(pen, zones);
            Blocks(pen, plan.Scene, revision, n + 1, plans.Count);
            sheets.Add(new(n + 1, plan.Scene.Work.Document.Id, plan.Title, Svg(pen)));
        }
        return new(sheets, zones.Of);
    }

    private const string AcTitle = "the AC side";

    private sealed record Plan(SheetScene Scene, Action<Pen> Draw, string Title);

    private static string Svg(Pen pen) =>
        $"<svg xmlns=\"http://www.w3.org/2000/svg\" class=\"paper\" viewBox=\"{ViewBox}\" font-family=\"sans-serif\" role=\"img\">"
        + $"<title>Wiring</title>\n<rect class=\"sheet\" width=\"100%\" height=\"100%\" fill=\"{Pen.Paper}\"/>\n{pen}</svg>\n";

    /// <summary>Trim line, frame, and the zones.</summary>
    private static void Frame(Pen pen, Zones zones)
    {
        pen.Line(0.5, 0.5, Width - 0.5, 0.5, 1, faint: true);
        pen.Line(0.5, Height - 0.5, Width - 0.5, Height - 0.5, 1, faint: true);
        pen.Line(0.5, 0.5, 0.5, Height - 0.5, 1, faint: true);
        pen.Line(Width - 0.5, 0.5, Width - 0.5, Height - 0.5, 1, faint: true);
        pen.Box(Left, Top, Wide, Tall, 1.6);
        foreach (var (name, middle, end) in zones.Columns())
        {
            pen.Write(middle, 10, name, 11, figure: true, anchor: "middle", faint: true);
            if (end < Left + Wide - 1)
                pen.Line(end, Top - 4, end, Top + 4, 1, faint: true);
        }
        foreach (var (name, middle, end) in zones.Rows())
        {
            pen.Write(7, middle + 4, name, 11, figure: true, anchor: "middle", faint: true);
            if (end < Top + Tall - 1)
                pen.Line(Left - 4, end, Left + 4, end, 1, faint: true);
        }
    }

    /// <summary>Key, specimen of a sleeve, and title block along the foot.</summary>
    private static void Blocks(Pen pen, SheetScene scene, string revision, int number, int of)
    {
        Key(pen);
        var specimen = scene.Lists?.Cables.FirstOrDefault();
        if (specimen is not null)
            Specimen(pen, specimen, scene);
        var (x, y, w) = (552.0, 536.0, Left + Wide - 552);
        pen.Box(x, y, w, Top + Tall - y, 1.4);
        pen.Line(x, y + 36, x + w, y + 36);
        pen.Line(x + 0.62 * w, y, x + 0.62 * w, y + 36);
        pen.Line(x + 0.36 * w, y + 36, x + 0.36 * w, y + 73);
        pen.Line(x + 0.68 * w, y + 36, x + 0.68 * w, y + 73);
        var several = scene.Design.Banks.Count > 1 && scene.Work.Document.Name.Length > 0 ? $"{scene.Work.Document.Name}, " : "";
        var layout = scene.Evaluation.Bank is { } bank
            ? $"{several}{scene.Evaluation.Voltage?.SystemV} V, {bank.Layout.Series}S{bank.Layout.Parallel}P"
            : several.TrimEnd(' ', ',');
        Field(pen, x, y, 0.62 * w, "design", DesignName.Of(scene.Design));
        Field(pen, x + 0.62 * w, y, 0.38 * w, "drawing", $"wiring, {number} of {of}");
        Field(pen, x, y + 36, 0.36 * w, "bank", layout);
        Field(pen, x + 0.36 * w, y + 36, 0.32 * w, "revision", revision.Length > 0 ? revision : "not kept yet");
        Field(pen, x + 0.68 * w, y + 36, 0.32 * w, "house rules", Rules(scene.Design));
    }

    private static string Rules(DesignDocument design) =>
        design.HouseRules.Set + (design.HouseRules.Own.Count > 0 ? $", {design.HouseRules.Own.Count} own" : "");

    /// <summary>A field of the title block: small enough for its words, which are not cut off.</summary>
    private static void Field(Pen pen, double x, double y, double w, string label, string words)
    {
        pen.Write(x + 8, y + 12, label, 11, faint: true);
        double Wide(string text, double size) => 1.1 * Pen.Wide(text, size);
        var size = 13.0;
        while (size > 10 && Wide(words, size) > w - 14)
            size -= 0.5;
        List<string> lines = [words];
        while (Wide(words, size) > w - 14 && (lines = Pen.Lines(words, (w - 14) / 1.1, size)).Count * (size + 1) > 22 && size > 6)
            size -= 0.5;
        var first = lines.Count > 1 ? 23 : 29;
        foreach (var (i, line) in lines.Index())
            pen.Write(x + 8, y + first + i * (size + 0.5), line, size, bold: true);
    }

    private static void Key(Pen pen)
    {
        pen.Write(26, 553, "Copper 1 px a mm; its state is how full it is drawn", 11.5, bold: true);
        var x = 26.0;
        foreach (
            var (stop, word) in new (LedgerStop?, string)[]
            {
                (LedgerStop.Proven, "proven ✓"),
                (LedgerStop.Fitted, "fitted"),
                (LedgerStop.Here, "here"),
                (LedgerStop.Ordered, "ordered"),
                (null, "planned"),
            }
        )
        {
            pen.Run(x, 572, x + 18, 572, 50, null, stop);
            pen.Write(x + 22, 576, word, 11);
            x += 26 + Pen.Wide(word, 11) + 6;
        }
        x = 26;
        foreach (var area in new[] { 0.75, 4, 16, 25, 50, 95 })
        {
            pen.Run(x, 594, x + 22, 594, area, null, LedgerStop.Proven);
            var word = area.ToString(CultureInfo.InvariantCulture) + (area == 95 ? " mm²" : "");
            pen.Write(x + 26, 598, word, 11, figure: true);
            x += 32 + Pen.Wide(word, 11, true) + 8;
        }
    }

    private static void Specimen(Pen pen, CableRow c, SheetScene scene)
    {
        const double X = 398,
            Y = 562;
        pen.Write(X, 553, $"sleeve of {c.Label}, both ends", 11, bold: true);
        pen.Run(X - 10, Y + 19, X, Y + 19, 50, null, LedgerStop.Proven);
        pen.Run(X + 142, Y + 19, X + 152, Y + 19, 50, null, LedgerStop.Proven);
        pen.Box(X, Y, 142, 36);
        pen.Write(X + 6, Y + 23, c.Label, 14, bold: true, figure: true);
        var words = Pen.Lines($"{c.From} to {c.To}", 92, 11).Append($"{c.Size}, {scene.M(c.LengthM)}").ToList();
        foreach (var (i, line) in words.TakeLast(3).Index())
            pen.Write(X + 48, Y + (words.Count > 2 ? 11 : 15) + 11 * i, line, words.Count > 2 ? 10 : 11);
    }

    private static string Empty(DesignDocument design, string revision, Zones zones)
    {
        var pen = new Pen("", zones, new Dictionary<string, LedgerRow>());
        Frame(pen, zones);
        pen.Write(Width / 2, 280, "Nothing to draw yet: choose a unit at Bank", 16, anchor: "middle", faint: true);
        var (x, y, w) = (552.0, 536.0, Left + Wide - 552);
        pen.Box(x, y, w, Top + Tall - y, 1.4);
        Field(pen, x, y, w / 2, "design", DesignName.Of(design));
        Field(pen, x + w / 2, y, w / 2, "revision", revision.Length > 0 ? revision : "not kept yet");
        Field(pen, x, y + 36, w / 2, "house rules", Rules(design));
        return Svg(pen);
    }
}

/// <summary>A bank as the drawing needs it, and where on the paper its parts were put.</summary>
internal sealed class SheetScene(
    DesignDocument design,
    BankWork work,
    SchedulesResult? lists,
    IReadOnlyDictionary<string, LedgerRow> rows,
    Plate? plate
)
{
    private readonly ILookup<string, CableRow> cables = (lists?.Cables ?? []).ToLookup(c => c.Key);

    public DesignDocument Design => design;
    public BankWork Work => work;
    public DesignTables Tables => work.Tables;
    public SchedulesResult? Lists => lists;
    public Plate? Plate => plate;
    public BankEvaluation Evaluation { get; } = work.Evaluation(headlines: false);

    /// <summary>Where the middle of a part is, and on which sheet.</summary>
    public Dictionary<string, (Pen Sheet, double X, double Y)> At { get; } = new(StringComparer.Ordinal);

    /// <summary>The row and the rank within it of a conductor inside the bank.</summary>
    private readonly Dictionary<PlacedAmps, (Schedules.Inside Row, int Rank)> inside =
        lists is not null && work.Network.Value is { } network
            ? Schedules.InsideOf(network).SelectMany(i => i.Members.Select((m, n) => (m, i, n))).ToDictionary(x => x.m, x => (x.i, x.n))
            : [];

    public IEnumerable<Schedules.Inside> Insides => inside.Values.Select(x => x.Row).Distinct();

    /// <summary>Conductors inside the bank of a kind at a place; a jumper’s rail counts for nothing.</summary>
    public PlacedAmps? Find(ConductorKind kind, bool plus, int row, int after) =>
        inside.Keys.FirstOrDefault(c =>
            c.Kind == kind
            && (kind == ConductorKind.Jumper || c.Rail == (plus ? Pole.Positive : Pole.Negative))
            && (kind == ConductorKind.Link || c.String == row)
            && (kind == ConductorKind.Lead || c.After == after)
        );

    public (string Label, string Key, int Rank) RowOf(PlacedAmps c) =>
        inside.TryGetValue(c, out var found) ? (found.Row.Label, Key($"cut-{found.Row.Key}"), found.Rank) : ("", "", 0);

    public string Key(string id) => $"{work.Document.Id}/{id}";

    public LedgerRow? Row(string id) => rows.GetValueOrDefault(Key(id));

    public CableRow? Cable(string key) => cables[key].FirstOrDefault();

    public string M(double metres) => Say.Length(metres, design.Display.Units);

    public void Put(Pen pen, string id, double x, double y) => At.TryAdd(Key(id), (pen, x, y));

    /// <summary>What the drawing calls a part; empty: the design has none.</summary>
    public string Tag(string id) => Row(id)?.Part.Tag ?? "";
}

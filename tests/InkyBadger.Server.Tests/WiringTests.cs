using System.Globalization;
using System.Xml.Linq;
using InkyBadger.Core.Demo;
using InkyBadger.Core.Design;
using InkyBadger.Core.Sheets;
using InkyBadger.Core.Trials;
using InkyBadger.Server.Sheets.Drawing;

namespace InkyBadger.Server.Tests;

/// <summary>The wiring drawing: everything is on it, within the frame, and no words lie on others.</summary>
public class WiringTests
{
    private static readonly XNamespace Svg = "http://www.w3.org/2000/svg";

    private static DesignDocument Demo(string name) =>
        DemoDesigns.All.Single(d => d.Name.StartsWith(name, StringComparison.Ordinal)) with
        {
            Ledger = [],
        };

    /// <summary>Four banks of sixteen strings with forty loads each, by converter and straight, with long names.</summary>
    private static DesignDocument Large()
    {
        var bus = Demo("Marrow");
        var bank = bus.Banks[0];
        Load Of(int i) =>
            new()
            {
                Id = $"x{i}",
                Name = $"Reading lamp over the long shelf {i}",
                Kind = i % 2 == 0 ? LoadKind.Converter : LoadKind.Dc,
                Volts = i % 2 == 0 ? 12 : null,
                Watts = 10 + i,
                Hours = 3,
            };
        return bus with
        {
            Banks =
            [
                .. Enumerable
                    .Range(1, 4)
                    .Select(n =>
                        bank with
                        {
                            Id = $"b{n}",
                            Name = $"Bank {n}",
                            Parallel = 16,
                            Positions = [],
                            Demand = bank.Demand with { Loads = [.. Enumerable.Range(1, 40).Select(Of)] },
                        }
                    ),
            ],
        };
    }

    public static TheoryData<string> Designs => ["Marrow", "Hare", "Pell", "Tern", "large"];

    private static DesignDocument Design(string name) => name == "large" ? Large() : Demo(name);

    private static WiringDrawing Drawn(DesignDocument design) =>
        WiringSheets.Of(new PaperSite(design), BuildLedger.Work(design), "7, 28 Nov 2026");

    private sealed record Words(string Text, double Left, double Right, double Top, double Bottom);

    private static double Number(XElement e, string name) => double.Parse(e.Attribute(name)!.Value, CultureInfo.InvariantCulture);

    /// <summary>The words of a sheet with the room they take in a narrow type.</summary>
    private static List<Words> WordsOf(string svg) =>
        [
            .. XDocument
                .Parse(svg)
                .Descendants(Svg + "text")
                .Select(t =>
                {
                    var (x, y, size) = (Number(t, "x"), Number(t, "y"), Number(t, "font-size"));
                    var wide = t.Value.Length * size * 0.42;
                    var left = t.Attribute("text-anchor")?.Value switch
                    {
                        "middle" => x - wide / 2,
                        "end" => x - wide,
                        _ => x,
                    };
                    return new Words(t.Value, left, left + wide, y - 0.7 * size, y);
                }),
        ];

    /// <summary>Every run has its label, both poles, and every part of the ledger a zone in which it is found.</summary>
    [Theory]
    [MemberData(nameof(Designs))]
    public void Everything_is_on_it(string name)
    {
        var design = Design(name);
        var drawing = Drawn(design);
        var texts = drawing.Sheets.SelectMany(s => WordsOf(s.Svg)).Select(w => w.Text).ToHashSet();
        for (var i = 0; i < design.Banks.Count; i++)
            foreach (var cut in Schedules.Work(design, i)?.Cables ?? [])
                // Inside a bank of many strings the note tells what is not drawn one by one.
                Assert.Contains(texts, t =>
                    t == cut.Label || t.Contains(cut.Label, StringComparison.Ordinal) && cut.Label[0] is 'J' or 'L' or 'B'
                );
        foreach (var row in BuildLedger.Work(design).Rows.Where(r => r.Kind != LedgerKind.Store))
            Assert.True(drawing.Zones.ContainsKey(row.Part.Key), $"{row.Part.Key} has no place");
        Assert.All(drawing.Zones.Values, z => Assert.Matches("^([0-9]+·)?[A-E][1-8]$", z));
        Assert.Contains(texts, t => t == $"wiring, 1 of {drawing.Sheets.Count}");
        Assert.Contains(texts, t => t == "7, 28 Nov 2026");
        foreach (var bank in Core.Evaluator.Evaluate(design, mends: false).Banks.Where(b => b.Inverter is not null))
        foreach (var load in bank.Loads!.Rows.Where(r => r.Kind == LoadKind.Ac))
            Assert.Contains(texts, t => t.StartsWith($"{load.Name}, ", StringComparison.Ordinal));
    }

    /// <summary>Nothing is cut off at the frame, and no words lie on others, however many there are.</summary>
    [Theory]
    [MemberData(nameof(Designs))]
    public void Words_have_room(string name)
    {
        foreach (var sheet in Drawn(Design(name)).Sheets)
        {
            var words = WordsOf(sheet.Svg);
            Assert.All(words, w => Assert.True(w is { Left: >= 2, Right: <= 868, Top: >= 0, Bottom: <= 610 }, $"{sheet.Number}: {w}"));
            for (var i = 0; i < words.Count; i++)
            for (var k = i + 1; k < words.Count; k++)
            {
                var (a, b) = (words[i], words[k]);
                var apart = a.Right <= b.Left + 0.5 || b.Right <= a.Left + 0.5 || a.Bottom <= b.Top + 0.5 || b.Bottom <= a.Top + 0.5;
                Assert.True(apart, $"{sheet.Number}: “{a.Text}” and “{b.Text}” lie on each other");
            }
        }
    }

    /// <summary>Copper fills as it is built, and one black square marks what forbids the next step.</summary>
    [Fact]
    public void It_fills_as_it_is_built()
    {
        var demo = DemoDesigns.All.Single(d => d.Name.StartsWith("Marrow", StringComparison.Ordinal));
        string Sheet(DesignDocument d) => Drawn(d).Sheets[0].Svg;
        IEnumerable<string> Classes(string svg, string key) =>
            XDocument
                .Parse(svg)
                .Descendants(Svg + "g")
                .Where(g => g.Attribute("data-key")?.Value == key)
                .Select(g => g.Attribute("class")!.Value);
        Assert.Equal(["copper planned"], Classes(Sheet(demo with { Ledger = [] }), "b1/cut-main-post-fuse-plus"));
        var built = Sheet(demo);
        Assert.Equal(["copper here"], Classes(built, "b1/cut-main-post-fuse-plus"));
        Assert.Equal(["copper fitted"], Classes(built, "b1/cut-main-fuse-switch-plus"));
        Assert.Equal(["copper proven"], Classes(built, "b1/cut-main-switch-bus-plus"));
        // Six of eight units: as many are drawn thick.
        Assert.Equal(
            6,
            XDocument
                .Parse(built)
                .Descendants(Svg + "rect")
                .Count(r =>
                    r.Attribute("class")?.Value == "device proven"
                    && r.Attribute("data-key")!.Value.Contains("/unit-", StringComparison.Ordinal)
                )
        );
        Assert.Single(XDocument.Parse(built).Descendants(Svg + "rect"), r => r.Attribute("class")?.Value == "forbids");
        Assert.DoesNotContain("forbids", Sheet(demo with { Ledger = [] }), StringComparison.Ordinal);
    }

    [Fact]
    public void An_empty_design_has_an_empty_sheet()
    {
        var sheet = Assert.Single(Drawn(new() { Banks = [new() { Id = "b1" }] }).Sheets);
        Assert.Contains(WordsOf(sheet.Svg), w => w.Text == "Nothing to draw yet: choose a unit at Bank");
        // What is typed is a word on the paper, whatever it looks like.
        var odd = Drawn(Demo("Marrow") with { Name = "<script>alert(1)</script>&\u0001" }).Sheets[0].Svg;
        Assert.DoesNotContain("<script", odd, StringComparison.Ordinal);
        Assert.Contains(WordsOf(odd), w => w.Text.Contains("<script>", StringComparison.Ordinal));
    }
}

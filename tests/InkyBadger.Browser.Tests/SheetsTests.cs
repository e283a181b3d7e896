using System.IO.Compression;
using System.Text;
using System.Text.Json.Nodes;
using System.Text.RegularExpressions;
using System.Xml.Linq;
using OpenQA.Selenium;
using OpenQA.Selenium.Interactions;
using UglyToad.PdfPig;

namespace InkyBadger.Browser.Tests;

/// <summary>The seven papers as they print, and the ledger as a hand moves it.</summary>
public partial class SheetsTests
{
    private const string Forbidden = "Do not connect the bank: the main fuse F1 is not fitted; a short pushes 14.8 kA";

    private static Bench Bus(int width = 1280, int height = 800)
    {
        var bench = new Bench(width: width, height: height);
        bench.OpenDesign("Marrow Lane", "loads");
        bench.ToPlace("Sheets");
        Says(bench, Forbidden);
        return bench;
    }

    private static void Says(Bench bench, string headline) =>
        bench.WaitUntil(() => bench.Text("[data-testid=headline]") == headline, headline);

    private static string Stop(Bench bench, string key) => bench.Find($"[data-bar='{key}']").GetAttribute("data-stop")!;

    [GeneratedRegex(@"\s")]
    private static partial Regex Blank();

    /// <summary>Blanks are of no account on paper, and letters that are drawn as one are two.</summary>
    private static string Bare(string text) =>
        Blank()
            .Replace(text, "")
            .Replace("ﬀ", "ff", StringComparison.Ordinal)
            .Replace("ﬁ", "fi", StringComparison.Ordinal)
            .Replace("ﬂ", "fl", StringComparison.Ordinal);

    /// <summary>
    /// All seven on either paper: every label of the cut list, every figure of the parts list, every fuse, setting and sentence; the
    /// drawing lies across, its second sheet on a page of its own, and no page is empty.
    /// </summary>
    [Theory]
    [InlineData(8.27, 11.69)]
    [InlineData(8.5, 11)]
    public void The_seven_pages_print_whole(double wide, double tall)
    {
        using var bench = Bus();
        var texts =
            (IReadOnlyCollection<object>)
                bench.Run(
                    "return [...document.querySelectorAll('.papers :is(td, tbody th, li, h3, header b, .lead .fig)')].map(e => e.textContent)"
                )!;
        var wanted = texts.Select(t => Bare((string)t)).Where(t => t.Length > 0).Distinct().ToList();
        Assert.True(wanted.Count > 300, $"{wanted.Count} texts");
        var drawn =
            (IReadOnlyCollection<object>)
                bench.Run("return [...document.querySelectorAll('.drawing svg text, .label-sheet svg text')].map(e => e.textContent)")!;
        var printed =
            (Dictionary<string, object>)
                bench.Driver.ExecuteCdpCommand("Page.printToPDF", new() { ["paperWidth"] = wide, ["paperHeight"] = tall })!;
        using var pdf = PdfDocument.Open(Convert.FromBase64String((string)printed["data"]));
        var pages = pdf.GetPages().ToList();
        var all = Bare(string.Join(' ', pages.Select(p => p.Text)));
        foreach (var text in wanted.Concat(drawn.Select(t => Bare((string)t))))
            Assert.Contains(text, all, StringComparison.Ordinal);
        // The sheets of wiring lie across, all others stand, as large as the paper that is in.
        Assert.All(pages.Take(3), p => Assert.True(p.Width > p.Height));
        Assert.All(pages.Skip(3), p => Assert.True(p.Width < p.Height));
        Assert.Equal(wide * 72, pages[3].Width, 2.0);
        foreach (var page in new[] { "Parts", "Cuts and labels", "Fuses", "Settings", "Walk-through", "For the supplier" })
            Assert.Contains(pages, p => Bare(p.Text).StartsWith(Bare(page) + "MarrowLane", StringComparison.Ordinal));
        Assert.All(pages, p => Assert.True(p.Letters.Count > 40, $"page {p.Number} is all but empty"));
        Assert.Contains("Checkedby", all, StringComparison.Ordinal);
        Assert.DoesNotContain("Theledgerofparts", all, StringComparison.Ordinal);
    }

    /// <summary>
    /// By key, by press, by drag and by number: the stop moves, drawing, headline and sum follow, and one undo takes it back. Proven by
    /// hand asks for its reason.
    /// </summary>
    [Fact]
    public void The_stop_of_a_part_moves()
    {
        using var bench = Bus();
        const string Fuse = "b1/fuse-main",
            Copper = "b1/cut-main-post-fuse-plus";
        Assert.Equal("here", Stop(bench, Fuse));
        Assert.True(bench.Has($"[data-bar='{Fuse}'] [data-asked]"), "what is asked for next is an open square");
        Assert.Single(bench.All(".drawing .forbids"));

        // What may be done is fitted with a key on its row, and something else is forbidden now, or may be done.
        bench.Click($"[data-row='{Fuse}']");
        bench.Press("f");
        bench.WaitUntil(() => Stop(bench, Fuse) == "fitted", "fitted");
        bench.WaitUntil(
            () => bench.Text("[data-testid=headline]").StartsWith("Do not join the strings: the units A–D", StringComparison.Ordinal),
            "the next ban"
        );
        bench.Click("button[aria-label=Undo]");
        Says(bench, Forbidden);
        Assert.Equal("here", Stop(bench, Fuse));

        // Dragged to its stop.
        var bar = bench.Find($"[data-bar='{Copper}']");
        var size = bar.Size;
        new Actions(bench.Driver)
            .MoveToElement(bar, -size.Width / 2 + 8, 0)
            .ClickAndHold()
            .MoveByOffset((size.Width - 16) / 4, 0)
            .Release()
            .Perform();
        bench.WaitUntil(() => Stop(bench, Copper) == "ordered", "dragged back to ordered");
        bench.WaitUntil(() => bench.Has($".drawing g.copper.ordered[data-key='{Copper}']"), "the drawing follows");

        // Pressing a part in the drawing takes its row in hand.
        bench.Run("document.querySelector(\".drawing [data-key='b1/monitor']\").dispatchEvent(new MouseEvent('click', { bubbles: true }))");
        bench.Find("[data-detail='b1/monitor']");

        // Proven wants its reason.
        bench.Click("[data-detail='b1/monitor'] [data-to=proven]");
        bench.Find("[data-detail='b1/monitor'] [data-path=reason]").SendKeys("0.2 mV at 20 A" + Keys.Enter);
        bench.WaitUntil(() => Stop(bench, "b1/monitor") == "proven", "proven");
        Assert.Contains("proven: 0.2 mV at 20 A", bench.Text("[data-detail='b1/monitor']"), StringComparison.Ordinal);

        // A part of the quantity, and what was really paid.
        var unit = (string)bench.Run("return document.querySelector('[data-row*=\"/unit-\"]').dataset.row")!;
        bench.Click($"[data-row='{unit}']");
        var count = bench.Find($"[data-detail='{unit}'] [data-path=count]");
        count.SendKeys(Keys.Control + "a");
        count.SendKeys("9" + Keys.Enter);
        Assert.Equal("a number from 0 to 8", bench.Text("[data-detail] [role=alert]"));
        count.SendKeys(Keys.Control + "a");
        count.SendKeys("7" + Keys.Tab);
        bench.WaitUntil(() => bench.Find($"[data-bar='{unit}']").GetAttribute("aria-valuetext") == "7 of 8 proven", "seven of eight");
        var paid = bench.Find($"[data-detail='{unit}'] [data-path=paid]");
        paid.SendKeys(Keys.Control + "a");
        paid.SendKeys("2.399,50" + Keys.Tab);
        bench.WaitUntil(() => bench.Text("[data-testid=ledger-sum]").Contains("paid 3,110.50", StringComparison.Ordinal), "paid in all");
        Assert.Empty(bench.Complaints());
    }

    /// <summary>The design changes after the fuse is here: its row says so, and so does the list that prints.</summary>
    [Fact]
    public void What_changed_after_ordering_is_marked()
    {
        using var bench = Bus();
        bench.ToPlace("Path");
        bench.OpenDesign("Marrow Lane", "cables");
        bench.Choose("/runs/0/fuse/ratingA", "175 A");
        bench.ToPlace("Sheets");
        bench.WaitUntil(() => bench.Has("[data-touched]"), "marked");
        Assert.Equal("ordered as 200 A, design now wants 175 A", bench.Text("[data-touched]"));
        bench.Click("[data-row='b1/fuse-main']");
        bench.Click("[data-fits]");
        bench.WaitUntil(() => !bench.Has(".row.touched [data-row='b1/fuse-main']"), "it still fits");
        // The bars are another matter: they were ordered for the fuse that was.
        Assert.Equal("ordered for 200 A, design now wants 175 A", bench.Text("[data-touched]"));
    }

    /// <summary>Everything as a zip, saved by the browser, and its parts list filled in and brought back.</summary>
    [Fact]
    public void The_zip_goes_out_and_a_list_comes_back()
    {
        using var bench = Bus();
        var folder = Directory.CreateTempSubdirectory("inky-badger-zip-").FullName;
        try
        {
            bench.Driver.ExecuteCdpCommand("Browser.setDownloadBehavior", new() { ["behavior"] = "allow", ["downloadPath"] = folder });
            bench.Click("[data-testid=zip]");
            var path = Path.Combine(folder, "marrow-lane-library-bus-sheets.zip");
            bench.WaitUntil(() => File.Exists(path), "the zip");
            using var zip = ZipFile.OpenRead(path);
            string Text(string name)
            {
                using var reader = new StreamReader(zip.GetEntry(name)!.Open(), Encoding.UTF8);
                return reader.ReadToEnd();
            }
            Assert.Equal("inky-badger-design", (string)JsonNode.Parse(Text("design.json"))!["format"]!);
            Assert.Equal("svg", XDocument.Parse(Text("wiring-1.svg")).Root!.Name.LocalName);
            var list = Text("parts.csv").Split('\n');
            var columns = list[0].TrimEnd('\r').Split(',').ToList();
            var head = $"{string.Join(',', columns)}\n";
            var row = new string[columns.Count];
            (row[columns.IndexOf("fitted")], row[columns.IndexOf("fitted on")], row[columns.IndexOf("key")]) = (
                "1",
                "2026-11-29",
                "b1/fuse-main"
            );
            var filled = Path.Combine(folder, "filled.csv");
            File.WriteAllText(
                filled,
                head + string.Join(',', row) + "\n" + string.Join(',', row).Replace("fuse-main", "nothing", StringComparison.Ordinal) + "\n"
            );
            bench.Find("[data-testid=list-back]").SendKeys(filled);
            bench.WaitUntil(() => Stop(bench, "b1/fuse-main") == "fitted", "read back");
            Assert.StartsWith("1 lines of filled.csv read", bench.Text("[data-testid=told]"), StringComparison.Ordinal);
            Assert.Contains("the design has no part", bench.Text("[data-testid=told]"), StringComparison.Ordinal);
        }
        finally
        {
            Directory.Delete(folder, recursive: true);
        }
    }

    /// <summary>In the van the ledger comes first, nothing reaches beyond the screen, and the paper is behind its name.</summary>
    [Fact]
    public void In_the_van_the_ledger_comes_first()
    {
        using var bench = Bus(390, 844);
        Assert.True((long)bench.Run("return document.documentElement.scrollWidth")! <= 390, "nothing reaches beyond the screen");
        var fuse = bench.Find("[data-row='b1/fuse-main']");
        Assert.True(fuse.Location.Y < 600, $"the fuse's row is at {fuse.Location.Y}");
        Assert.False(bench.Find("[data-testid=papers]").Displayed);
        bench.ClickText("[role=tab]", "Wiring");
        bench.WaitUntil(() => bench.Find("[data-testid=papers]").Displayed, "the paper");
        Assert.True((long)bench.Run("return document.documentElement.scrollWidth")! <= 390, "it scrolls by itself");
        // Fingers have room on the stops of the row in hand.
        bench.Click("[data-row='b1/fuse-main']");
        Assert.All(bench.All("[data-detail] .stops button"), b => Assert.True(b.Size.Height >= 44));
    }
}

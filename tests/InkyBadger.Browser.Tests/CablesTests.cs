using System.Globalization;
using System.Text.RegularExpressions;
using OpenQA.Selenium;
using OpenQA.Selenium.Interactions;
using UglyToad.PdfPig;

namespace InkyBadger.Browser.Tests;

/// <summary>
/// The station of cables and fuses in the hand: lengths, sizes, circuits, lists, house rules, and the page that is printed.
/// </summary>
public partial class CablesTests
{
    private static double Number(string text) =>
        double.Parse(Numbers().Match(text).Value.Replace(",", "", StringComparison.Ordinal), CultureInfo.InvariantCulture);

    [GeneratedRegex(@"[\d,]+(\.\d+)?")]
    private static partial Regex Numbers();

    private static string Value(Bench bench, string path) => bench.Find($"input[data-path='{path}']").GetAttribute("value")!;

    /// <summary>Typed piece by piece: what follows moves along, and cable, drop and volts with it.</summary>
    [Fact]
    public void A_length_changes_and_cable_drop_and_fuse_follow()
    {
        using var bench = new Bench();
        bench.OpenDesign("Marrow Lane", "cables");
        bench.Reads("cable-area", "50 mm²");
        bench.Reads("fuse-rating", "200 A");
        bench.Reads("drop-v", "0.42 V");
        Assert.Equal("1.5 m", Value(bench, "/runs/main/inverter"));
        bench.Fill("/runs/main/switch", "0.85");
        bench.WaitUntil(() => Value(bench, "/runs/0/lengthM") == "3 m", "half a metre more in all");
        Assert.Equal(
            ("0.85 m", "0.5 m", "1.5 m"),
            (Value(bench, "/runs/main/switch"), Value(bench, "/runs/main/bus"), Value(bench, "/runs/main/inverter"))
        );
        // 25.6 × 3 % = 0.77 V: at 7.4 m of it 50 mm² drop too much, and a thicker cable follows.
        bench.Fill("/runs/main/inverter", "6 m");
        bench.Reads("cable-area", "70 mm²");
        bench.WaitUntil(
            () => bench.Text("[data-testid=run-in-hand]").Contains("the drop decides the size", StringComparison.Ordinal),
            "it says why"
        );
        // More amperes, another fuse: the design current is the inverter's.
        bench.OpenDesign("Marrow Lane", "inverter");
        bench.Choose("/inverters/0/item", "2,000 W sine 24 V");
        bench.OpenDesign("Marrow Lane", "cables");
        bench.Reads("fuse-rating", "125 A");
        Assert.Empty(bench.Complaints());
    }

    [Fact]
    public void Parts_are_dragged_along_the_cable()
    {
        using var bench = new Bench();
        bench.OpenDesign("Marrow Lane", "cables");
        var bus = bench.Find("[data-part=bus]");
        new Actions(bench.Driver).MoveToElement(bus).ClickAndHold().MoveByOffset(50, 0).MoveByOffset(20, 0).Release().Perform();
        bench.WaitUntil(() => Number(Value(bench, "/runs/main/bus")) > 0.55, "the bus lies farther off");
        var (toBus, onward) = (Number(Value(bench, "/runs/main/bus")), Number(Value(bench, "/runs/main/inverter")));
        // The run as a whole stays 2.5 m.
        Assert.Equal(2.5, 0.15 + 0.35 + toBus + onward, 6);
        var end = bench.Find("[data-part=inverter]");
        new Actions(bench.Driver).MoveToElement(end).ClickAndHold().MoveByOffset(-60, 0).MoveByOffset(-40, 0).Release().Perform();
        bench.WaitUntil(() => Number(Value(bench, "/runs/0/lengthM")) < 2.4, "the run is shorter");
        // One press takes a drag back.
        bench.Run("document.activeElement.blur()");
        bench.Press(Keys.Control + "z");
        bench.WaitUntil(() => Value(bench, "/runs/0/lengthM") == "2.5 m", "as it was before the drag");
    }

    [Fact]
    public void A_fuse_that_is_too_big_is_shown_in_ink_and_mended()
    {
        using var bench = new Bench();
        bench.OpenDesign("Marrow Lane", "cables");
        bench.Choose("/runs/0/size", "50 mm², 230 A");
        bench.Choose("/runs/0/fuse/ratingA", "300 A");
        bench.WaitUntil(
            () => bench.All("[data-testid=over]").Any(o => o.Text.StartsWith("70.0 A", StringComparison.Ordinal)),
            "70 A over, in the drawing"
        );
        Assert.Equal("The 300 A fuse lets through more than 50 mm² carries", bench.Text("[data-testid=headline]"));
        bench.ClickText("[data-rule='fuse.above-cable'] button", "Or use a 200 A fuse");
        bench.WaitUntil(() => !bench.Has("[data-testid=over]") && !bench.Has("[data-rule='fuse.above-cable']"), "mended");
        bench.Reads("fuse-rating", "200 A");
    }

    [Fact]
    public void Another_circuit_is_taken_in_hand_and_changed()
    {
        using var bench = new Bench();
        bench.OpenDesign("Marrow Lane", "cables");
        bench.Click("[data-run='load-l5']");
        bench.Reads("cable-area", "4 mm²");
        Assert.Contains("12 V converter to Ceiling lights: 8.00 A", bench.Text("[data-testid=run-in-hand]"), StringComparison.Ordinal);
        // Its own length, which the document did not hold yet: 9 m and back want 10 mm².
        bench.Fill("/runs/1/lengthM", "9");
        bench.Reads("cable-area", "10 mm²");
        bench.Choose("/runs/1/fuse/class", "no fuse at all");
        bench.ClickText("[data-rule='fuse.none'] button", "Put a fuse in");
        bench.Reads("fuse-rating", "10 A");
        bench.Click("[data-testid='cable-area'] button");
        bench.WaitUntil(() => bench.Text("[data-testid=working]").Contains("the drop decides", StringComparison.Ordinal), "its working");
        bench.ClickText("button", "back to the main run");
        bench.Reads("cable-area", "50 mm²");
        bench.OpenDesign("Ledge", "cables");
        bench.WaitUntil(() => bench.All("[data-run]").Count == 6, "the circuits of the hut");
        // However many circuits there are, the bench keeps to the window.
        Assert.Equal((long)bench.Run("return innerHeight")!, (long)bench.Run("return document.documentElement.scrollHeight")!);
        Assert.Empty(bench.Complaints());
    }

    [Fact]
    public void A_size_on_hand_is_tried_and_used()
    {
        using var bench = new Bench();
        bench.OpenDesign("Marrow Lane", "cables");
        bench.ClickText("button", "Sizes and classes");
        // A dialog opens in a moment; its text is there once it is seen.
        bench.WaitUntil(
            () =>
                bench
                    .Text("[data-testid=sizes] [data-size='35 mm²']")
                    .Contains("carries 185 A, below the 200 A fuse", StringComparison.Ordinal),
            "why it is too thin"
        );
        bench.Click("[data-size='70 mm²'] button");
        bench.WaitUntil(() => bench.Has("[data-size='70 mm²'].here"), "it is laid now");
        Assert.Contains("use 200 A", bench.Text("[data-testid=classes]"), StringComparison.Ordinal);
        bench.ClickText("dialog[open] button", "Close");
        bench.WaitUntil(() => bench.Text("[data-testid=kept]").StartsWith("kept", StringComparison.Ordinal), "it is kept");
    }

    [Fact]
    public void House_rules_show_what_they_would_change_and_change_it()
    {
        using var bench = new Bench();
        bench.OpenDesign("Marrow Lane", "cables");
        bench.ClickText("a", "House rules");
        bench.WaitUntil(
            () => bench.Text("[data-rule-id='drop-limit-main']").Contains("other runs", StringComparison.Ordinal),
            "the effect is said before"
        );
        bench.ClickText("[data-rule-id='drop-limit-main'] [role=radio]", "2 %");
        bench.WaitUntil(
            () =>
                bench.Has("[data-rule-id='drop-limit-main'] [role=radio][aria-checked=true]")
                && bench.Text("[data-rule-id='drop-limit-main'] [role=radio][aria-checked=true]").Contains("2 %", StringComparison.Ordinal),
            "it holds now"
        );
        // The working beside a figure gives it back with a press, for it turns nothing.
        bench.ClickText("a", "back to Cables");
        bench.WaitUntil(() => bench.Text("[data-testid=kept]").StartsWith("kept", StringComparison.Ordinal), "it is kept");
    }

    /// <summary>A winch by hand, and a run and a fuse of the inverter's own: by keyboard alone.</summary>
    [Fact]
    public void Runs_are_added()
    {
        using var bench = new Bench();
        bench.OpenDesign("Marrow Lane", "cables");
        bench.ClickText("button", "Add");
        bench.Find("dialog[open] input[placeholder='winch']").Click();
        bench.TypeAndTab("winch");
        bench.Press("60 A" + Keys.Enter);
        bench.WaitUntil(() => bench.Text("[data-testid=run-in-hand]").Contains("winch", StringComparison.Ordinal), "it is in hand");
        bench.Reads("fuse-rating", "80 A");
        bench.ClickText("button", "back to the main run");
        // 144.3 + 60 A.
        bench.Reads("fuse-rating", "300 A");
        bench.ClickText("button", "Add");
        bench.ClickText("dialog[open] button", "A run and a fuse for the inverter");
        bench.WaitUntil(() => bench.Has("[data-run=inverter][aria-pressed=true]"), "the inverter’s run is in hand");
        bench.Reads("fuse-rating", "175 A");
        bench.ClickText("button", "back to the main run");
        bench.WaitUntil(() => Value(bench, "/runs/0/lengthM") == "1 m", "the main run ends at the bus");
        Assert.Empty(bench.Complaints());
    }

    [Fact]
    public async Task Schedules_are_read_and_taken_away()
    {
        using var bench = new Bench();
        bench.OpenDesign("Marrow Lane", "cables");
        bench.ClickText("button", "Schedules");
        bench.WaitUntil(
            () => bench.Text("[data-testid=fuse-schedule]").Contains("4 × String fuses", StringComparison.Ordinal),
            "the fuses of the strings"
        );
        Assert.Contains(
            "M1+ battery post + main fuse red 50 mm² 1 0.15 m",
            bench.Text("[data-testid=cut-list]").ReplaceLineEndings(" "),
            StringComparison.Ordinal
        );
        var link = bench.All("dialog[open] a[download]").Single(a => a.Text == "Cables as CSV").GetAttribute("href")!;
        Assert.StartsWith("label,pole,colour", await bench.Server.Http.GetStringAsync(link), StringComparison.Ordinal);
    }

    /// <summary>Printed by the browser as PDF: one page of A4, with every figure the station shows.</summary>
    [Fact]
    public void The_printed_page_has_every_figure_on_one_page()
    {
        using var bench = new Bench();
        foreach (var name in new[] { "Marrow Lane", "Tern Yard", "Ledge", "Pell Street" })
        {
            bench.OpenDesign(name, "cables");
            string[] ids = ["fuse-rating", "cable-area", "short-circuit", "interrupt"];
            var figures = ids.Select(id => bench.Find($"[data-testid='{id}'] .fig").Text.ReplaceLineEndings(" ")).ToList();
            bench.ClickText("a", "One page");
            bench.Find("[data-testid=summary][data-ready=yes]");
            // Whatever figure stands on the page, in its table or its drawing, is on the paper.
            figures.AddRange(bench.All("[data-testid=summary] .fig").Select(f => f.Text.ReplaceLineEndings(" ")).Where(f => f.Length > 0));
            Assert.True(figures.Count > 30, $"{name}: {figures.Count} figures");
            var printed =
                (Dictionary<string, object>)bench.Driver.ExecuteCdpCommand("Page.printToPDF", new() { ["preferCSSPageSize"] = true })!;
            using var pdf = PdfDocument.Open(Convert.FromBase64String((string)printed["data"]));
            Assert.Equal(1, pdf.NumberOfPages);
            var text = pdf.GetPage(1).Text;
            // Blanks are of no account on paper.
            static string Bare(string s) => Regex.Replace(s, @"\s", "");
            foreach (var figure in figures)
                Assert.Contains(Bare(figure), Bare(text), StringComparison.Ordinal);
            foreach (var part in new[] { name, "Checked by", "Tables used, typical values", "isolate every source", "Fuses", "Cables" })
                Assert.Contains(Bare(part), Bare(text), StringComparison.Ordinal);
        }
    }

    [Fact]
    public void In_the_van_the_picture_comes_first_and_everything_is_in_reach()
    {
        using var bench = new Bench(width: 390, height: 844);
        bench.OpenDesign("Marrow Lane", "cables");
        var picture = bench.Find(".instrument svg");
        Assert.True(picture.Location.Y < bench.Find("[data-testid=run-fields]").Location.Y, "the drawing stands above the fields");
        Assert.True((long)bench.Run("return document.documentElement.scrollWidth")! <= 390, "nothing reaches beyond the screen");
        bench.Click("[data-run='converter-12']");
        bench.Reads("fuse-rating", "7.5 A");
        foreach (var button in bench.All(".dialogs .btn"))
            Assert.True(button.Size.Height >= 44, button.Text);
    }
}

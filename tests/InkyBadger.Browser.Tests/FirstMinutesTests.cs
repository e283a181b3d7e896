using OpenQA.Selenium;

namespace InkyBadger.Browser.Tests;

/// <summary>
/// The first ten minutes: what is asked of a newcomer, what is understood of what is typed, and where everything is found.
/// </summary>
public class FirstMinutesTests
{
    private const string Watts = "/demand/loads/0/watts";

    private static void Begin(Bench bench, string start)
    {
        bench.Open("#/new");
        bench.Click($"[data-start='{start}']");
        bench.Find("[data-testid=headline]");
    }

    /// <summary>From the shelf to a fuse in two presses, with every figure marked that nobody has looked at.</summary>
    [Fact]
    public void A_situation_begins_filled_and_marks_what_is_assumed()
    {
        using var bench = new Bench(seed: false);
        bench.Open("#/shelf");
        bench.ClickText("a", "New design");
        bench.WaitUntil(() => bench.All("[data-start]").Count >= 13, "a dozen and a blank sheet");
        bench.Click("[data-start=market-stall]");
        bench.WaitUntil(() => bench.Find("#design-name").GetAttribute("value") == "Stall at Candle Square", "named");
        bench.WaitUntil(() => bench.All(".assumed").Count == 4, "every load is marked");
        Assert.Contains("from right to left", bench.Text(".order"), StringComparison.Ordinal);
        // What somebody puts in is theirs.
        bench.ClickText("button.what", "LED strip");
        bench.Fill(Watts, "14");
        bench.WaitUntil(() => bench.All(".assumed").Count == 3, "one mark less");
        bench.ClickText("[data-rule='load.assumed'] button", "They are as mine are");
        bench.WaitUntil(() => !bench.Has(".assumed") && !bench.Has(".order"), "all are mine");
        for (var i = 0; i < 4; i++)
            bench.ClickText("button", "next");
        bench.Reads("fuse-rating", "30 A");
        bench.ClickText("button", "next");
        bench.Find(".tools [data-source]");
        bench.ClickText("button", "next: Builds");
        bench.Find("[data-testid=progress]");
    }

    /// <summary>Without its need a station says what is missing and leads there; a design is named from what is put into it.</summary>
    [Fact]
    public void A_blank_sheet_says_what_is_missing_and_where()
    {
        using var bench = new Bench(seed: false);
        Begin(bench, "blank");
        bench.ClickText("nav a", "Cables");
        bench.WaitUntil(
            () => bench.Text("[data-testid=missing]").Contains("Add the first load, at 1 Loads", StringComparison.Ordinal),
            "what is missing"
        );
        bench.Click("[data-testid=missing] a");
        bench.ClickText("button", "Add a load");
        bench.Fill("/demand/loads/0/name", "Kettle");
        bench.Fill(Watts, "1,5 kW");
        bench.Fill("/demand/loads/0/times", "½ h");
        bench.WaitUntil(() => bench.Find("#design-name").GetAttribute("placeholder") == "Kettle", "named from what is in it");
        bench.Open("#/shelf");
        bench.WaitUntil(() => bench.Text("article").Contains("Kettle", StringComparison.Ordinal), "on the shelf too");
    }

    [Fact]
    public void The_demo_is_one_press_away_and_says_it_is_one()
    {
        using var bench = new Bench(seed: false);
        bench.Open("#/shelf");
        bench.ClickText("button", "Open the demo");
        bench.WaitUntil(() => bench.Text(".demo") == "demo", "it says so");
        bench.ClickText(".places a", "Designs");
        bench.WaitUntil(
            () => bench.Text("article").Contains("Marrow Lane library bus, demo", StringComparison.Ordinal),
            "on the shelf too"
        );
        // The second press opens the same one.
        bench.ClickText("button", "Open the demo");
        bench.Find(".demo");
        bench.ToPlace("Designs");
        bench.WaitUntil(() => bench.All("article").Count == 1, "still one");
    }

    /// <summary>
    /// A lone comma is the decimal one; with three digits after it nothing is taken until one of the readings is pressed; a point with
    /// three digits is taken as decimal and the other reading offered.
    /// </summary>
    [Fact]
    public void A_comma_is_read_as_it_is_meant()
    {
        using var bench = new Bench();
        bench.OpenDesign("Marrow Lane", "loads");
        bench.ClickText("button.what", "Kettle");
        string Now() => bench.Find($"input[data-path='{Path}']").GetAttribute("value")!;
        bench.Fill(Path, "2,5 kW");
        bench.WaitUntil(() => Now() == "2500 W", "2.5 kW");
        bench.Fill(Path, "1,800", enter: false);
        bench.WaitUntil(() => bench.Text(".says").StartsWith("“1,800” can be read two ways", StringComparison.Ordinal), "asked");
        Assert.Equal(["1.8 W instead", "1800 W instead"], bench.All(".says .offer").Take(2).Select(b => b.Text));
        bench.ClickText(".says .offer", "1800 W");
        bench.WaitUntil(() => Now() == "1800 W", "as pressed");
        bench.Fill(Path, "1.750", enter: false);
        bench.WaitUntil(() => bench.Text(".says").StartsWith("= 1.75 W", StringComparison.Ordinal), "what was understood");
        bench.ClickText(".says .offer", "1750 W instead");
        bench.WaitUntil(() => Now() == "1750 W", "the other reading");
        bench.Fill("/demand/loads/1/duty", "88");
        bench.WaitUntil(() => bench.Find("input[data-path='/demand/loads/1/duty']").GetAttribute("value") == "88 %", "88 is 88 %");
    }

    private const string Path = "/demand/loads/1/watts";

    /// <summary>The counts open one sheet of everything, gravest first, over all banks; a mend pressed there ends its finding.</summary>
    [Fact]
    public void The_counts_open_one_sheet_of_all_findings()
    {
        using var bench = new Bench();
        bench.OpenDesign("Tern Yard", "bank");
        var counts = bench.Text("[data-testid=counts]").Split(' ');
        bench.Click("[data-testid=counts]");
        bench.WaitUntil(() => bench.All("[data-testid=all-findings] tbody tr").Count >= 13, "all of them");
        var grades = bench.All("[data-testid=all-findings] td.grade").Select(g => g.Text.Trim()).ToList();
        string[] order = ["danger", "wrong", "to look at", "note"];
        Assert.Equal(grades.OrderBy(g => Array.IndexOf(order, g)), grades);
        Assert.Equal(int.Parse(counts[0], null), grades.Count(g => g is "danger" or "wrong"));
        Assert.Contains("Motor bank", bench.Text("[data-testid=all-findings]"), StringComparison.Ordinal);
        // By station.
        bench.Run(
            """
            const s = document.querySelector('[data-testid=findings-station]')
            s.value = 'cables'
            s.dispatchEvent(new Event('change', { bubbles: true }))
            """
        );
        bench.WaitUntil(
            () => bench.All("[data-testid=all-findings] td.where").All(w => w.Text.StartsWith("5 Cables", StringComparison.Ordinal)),
            "one station"
        );
        var before = bench.All("tr[data-rule='fuse.interrupt']").Count;
        Assert.True(before > 0);
        bench.Click("tr[data-rule='fuse.interrupt'] .offer button");
        bench.WaitUntil(() => bench.All("tr[data-rule='fuse.interrupt']").Count == before - 1, "its finding is gone");
    }

    /// <summary>
    /// A unit by five things: 12 V of LFP is four cells, said so; faults stand at their fields, all at once; kept, it is what the bank is
    /// made of, and not taken for advice.
    /// </summary>
    [Fact]
    public void An_own_unit_asks_five_things_and_stays_chosen()
    {
        using var bench = new Bench();
        bench.OpenDesign("Marrow Lane", "bank");
        bench.ClickText("button", "Stock");
        bench.ClickText("dialog[open] button", "Add my own");
        void Type(string field, string text)
        {
            var at = bench.Find($"dialog[open] [data-own={field}]");
            at.SendKeys(Keys.Control + "a");
            at.SendKeys(text);
        }
        Assert.Equal(
            0L,
            bench.Run("return [...document.querySelectorAll('dialog[open] form [placeholder]')].filter(f => f.placeholder).length")
        );
        Type("volts", "13,7");
        bench.WaitUntil(() => bench.Has("dialog[open] [data-own=name]"), "the form");
        bench.ClickText("dialog[open] button", "Keep and use it");
        bench.WaitUntil(() => bench.All("dialog[open] .bad [role=alert]").Count == 2, "name and ampere-hours are missing");
        Type("name", "Shed block");
        Type("ah", "105,5");
        Type("volts", "12");
        bench.WaitUntil(() => bench.Text("dialog[open] .field:has([data-own=volts]) .says") == "= 4 cells in series, 12.8 V", "what it is");
        Type("bmsContinuous", "100 A");
        bench.ClickText("dialog[open] button", "Keep and use it");
        bench.Reads("bank-ah", "422 Ah");
        var select = bench.Find("select[data-path='/unit']");
        Assert.StartsWith("own-", select.GetAttribute("value"), StringComparison.Ordinal);
        bench.WaitUntil(() => bench.Text("[data-testid=kept]").StartsWith("kept", StringComparison.Ordinal), "kept");
        bench.Driver.Navigate().Refresh();
        bench.Reads("bank-ah", "422 Ah");
    }

    /// <summary>The sentence and the working are of the run that is open; at the slider's amperes stand the hours.</summary>
    [Fact]
    public void What_is_shown_belongs_together()
    {
        using var bench = new Bench();
        bench.OpenDesign("Marrow Lane", "cables");
        bench.Click("[data-run='load-l5']");
        bench.WaitUntil(
            () => bench.Text("[data-testid=headline]").StartsWith("Ceiling lights: ", StringComparison.Ordinal),
            "its sentence"
        );
        Assert.EndsWith("mm²", bench.Text("[data-testid=working-value]"), StringComparison.Ordinal);
        bench.ClickText("nav a", "Bank");
        // 400 Ah · 0.9 ÷ 144.3 A = 2.5 h; all of it 2.8 h.
        bench.WaitUntil(() => bench.Text("[data-testid=load-hours]") == "2.5 h to the floor, 2.8 h to empty", "hours at full load");
        bench.Fill("/bench/load", "100");
        bench.WaitUntil(() => bench.Text("[data-testid=load-hours]") == "3.6 h to the floor, 4 h to empty", "hours at 100 A");
        // Volts that were typed survive another way of feeding.
        bench.ClickText("nav a", "Loads");
        bench.ClickText("button.what", "Ceiling lights");
        bench.Fill("/demand/loads/4/volts", "13 V");
        bench.Choose("/demand/loads/4/kind", "at the bank");
        bench.Choose("/demand/loads/4/kind", "by a converter");
        bench.WaitUntil(() => bench.Find("input[data-path='/demand/loads/4/volts']").GetAttribute("value") == "13 V", "still 13 V");
    }

    /// <summary>On a phone the title takes one row; the rest is in its menu.</summary>
    [Fact]
    public void On_a_phone_the_title_is_one_row()
    {
        using var bench = new Bench(width: 390, height: 844);
        bench.OpenDesign("Tern Yard", "bank");
        Assert.True(bench.Find("header.title").Size.Height <= 50);
        Assert.False(bench.Find(".places").Displayed);
        bench.Click("button[aria-label=Menu]");
        bench.WaitUntil(() => bench.Find(".places").Displayed, "the menu");
        Assert.All(bench.All(".rest a, .rest button").Where(b => b.Displayed), b => Assert.True(b.Size.Height >= 44, b.Text));
        bench.ClickText(".rest button", "next");
        bench.WaitUntil(() => !bench.Find(".places").Displayed, "closed by going on");
        bench.Click("button[aria-label=Menu]");
        bench.Click("button[aria-label=Help]");
        bench.WaitUntil(() => bench.Text("dialog[open]").Contains("2,5 and 2.5", StringComparison.Ordinal), "help");
    }
}

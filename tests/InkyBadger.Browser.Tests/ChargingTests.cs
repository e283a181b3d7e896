using System.Net.Http.Json;
using System.Text.Json.Nodes;
using InkyBadger.Tests.Shared;
using OpenQA.Selenium;
using OpenQA.Selenium.Interactions;

namespace InkyBadger.Browser.Tests;

/// <summary>
/// The Charging station as it is used: hours dragged, thresholds in hand, settings put in and measured, sources and place told.
/// </summary>
public class ChargingTests
{
    private static Bench Bus(out Bench bench)
    {
        bench = new Bench();
        bench.OpenDesign("Marrow Lane", "charging");
        bench.Find("[data-testid=charge-line]");
        return bench;
    }

    private static void Kept(Bench bench) =>
        bench.WaitUntil(() => bench.Text("[data-testid=kept]").StartsWith("kept", StringComparison.Ordinal), "kept");

    private static async Task<string> AddAsync(Bench bench, JsonNode design)
    {
        var answer = await bench.Server.Http.PostAsJsonAsync("/api/designs", design);
        answer.EnsureSuccessStatusCode();
        return (string)(await answer.Content.ReadFromJsonAsync<JsonNode>())!["id"]!;
    }

    private static IReadOnlyList<string> Rules(Bench bench) => [.. bench.All("[data-rule]").Select(r => r.GetAttribute("data-rule")!)];

    /// <summary>
    /// December without the plug lacks 1,110 Wh. From 18:00 to 22:30 it brings 25 A × 26.43 V × 4.5 h, of which the cells keep 95 %, and
    /// 459 Wh of the day are used as they come and lose nothing: 0.95 × 2,973 + 0.05 × 459 − 1,110 = 1,738 Wh. Until 20:30 it is
    /// 0.95 × 1,652 + 0.05 × 376 − 1,110 = 478 Wh.
    /// </summary>
    [Fact]
    public void The_hours_at_the_plug_are_dragged_and_the_balance_follows()
    {
        using var _ = Bus(out var bench);
        bench.Reads("balance", "1.74 kWh");
        bench.Reads("without-plug", "−1.11 kWh");
        var strip = bench.Find("[data-strip='shore']");
        int At(double hour) => (int)Math.Round((hour / 24 - 0.5) * strip.Size.Width);
        new Actions(bench.Driver)
            .MoveToElement(strip, At(22.5) - 2, 0)
            .ClickAndHold()
            .MoveToElement(strip, At(21.5) - 2, 0)
            .MoveToElement(strip, At(20.5) - 2, 0)
            .Release()
            .Perform();
        bench.WaitUntil(
            () => bench.Find("input[data-path='/sources/2/windows']").GetAttribute("value") == "18:00–20:30",
            "dragged to 20:30"
        );
        bench.Reads("balance", "478 Wh");
        bench.Reads("without-plug", "−1.11 kWh");
        // Typed it is the same; one drag is one step of undo.
        bench.Fill("/sources/2/windows", "18:00-22:30");
        bench.Reads("balance", "1.74 kWh");
        Kept(bench);
        bench.Run("document.activeElement.blur()");
        bench.Press(Keys.Control + "z");
        bench.Reads("balance", "478 Wh");
        // A charger that never runs misses it, and the answers say what balances the month.
        bench.Fill("/sources/2/windows", Keys.Delete);
        bench.WaitUntil(() => Rules(bench).Contains("charge.worst-month"), "December misses it");
        bench.ClickText("[data-testid=answers] button", "2 h of Plug");
        bench.WaitUntil(() => !Rules(bench).Contains("charge.worst-month"), "covered");
    }

    /// <summary>Equalising planted on lithium: black on the scale, a danger beside it, ended by its mend.</summary>
    [Fact]
    public void A_charger_that_equalises_lithium_is_mended()
    {
        using var _ = Bus(out var bench);
        bench.Click("[data-source=roof]");
        bench.Fill("/sources/0/settings/equaliseV/value", "31 V");
        bench.ClickText("dialog[open] button", "Close");
        bench.Find("[data-span='roof wrong']");
        var roof = bench.Wait(d =>
            d.FindElements(By.CssSelector("[data-rule='charge.equalise']"))
                .FirstOrDefault(f => f.Text.Contains("Roof equalises at 31 V", StringComparison.Ordinal))
        );
        Assert.Contains("never equalised", roof.Text, StringComparison.Ordinal);
        bench.Wait(_ => roof.FindElements(By.TagName("button")).FirstOrDefault(b => b.Text == "Switch equalising off")).Click();
        bench.WaitUntil(() => !bench.Has("[data-span='roof wrong']"), "nothing of the roof crosses");
        Assert.True(bench.Has("[data-span='shore wrong']"));
        // The depot's charger, whose preset equalises, is set by hand: all of it, in one press.
        bench.ClickText("[data-rule='charge.equalise'] button", "set by hand");
        bench.WaitUntil(() => !Rules(bench).Any(r => r.StartsWith("charge.", StringComparison.Ordinal)), "nothing wrong with charging");
        Assert.Empty(bench.All("[data-span]"));
    }

    /// <summary>Five cells are charged to 17.75 V and may see 18.25: a display for 17 V is past what it bears, one for 30 is not.</summary>
    [Fact]
    public async Task A_display_for_17_volts_on_five_cells_is_seen_on_the_scale()
    {
        using var bench = new Bench();
        var design = JsonNode.Parse(
            """
            {"format":"inky-badger-design","version":2,"name":"Five cells","banks":[{"id":"b1","systemV":16,"series":5,"parallel":1,
             "unit":{"key":"cell","name":"LFP cell 280 Ah","chemistry":"lfp","cells":1,"ah":280},"inverters":[],
             "demand":{"by":"loads","loads":[{"id":"d","name":"Display","kind":"dc","watts":12,"hours":5,"window":{"minV":10,"maxV":17}}]},
             "sources":[{"id":"s","kind":"mains","name":"Plug","amps":20,"windows":[[18,22]]}]}]}
            """
        )!;
        var id = await AddAsync(bench, design);
        bench.Open($"#/d/{id}/charging");
        bench.Find("[data-span='d wrong']");
        Assert.Contains("load.window", Rules(bench));
        bench.ClickText("summary", "as a table");
        bench.ClickText(".tables details:last-of-type summary", "as a table");
        bench.WaitUntil(
            () =>
                bench
                    .All(".tables tr")
                    .Any(r => r.Text.Contains("Display", StringComparison.Ordinal) && r.Text.Contains("crosses", StringComparison.Ordinal)),
            "the table says so too"
        );
        bench.Open($"#/d/{id}/loads");
        bench.ClickText("button.what", "Display");
        bench.Fill("/demand/loads/0/window", "10-30");
        bench.Open($"#/d/{id}/charging");
        bench.Find("[data-mark='s absorbV']");
        bench.WaitUntil(() => !bench.Has("[data-span='d wrong']"), "it bears 30 V");
    }

    /// <summary>A file of version 1 knew amperes and a setting: both stand on scale and card, and what is new can be told.</summary>
    [Fact]
    public void A_file_of_version_1_is_brought_in()
    {
        using var bench = new Bench(seed: false);
        bench.Open("#/shelf");
        bench
            .Find("input[type=file]")
            .SendKeys(Path.Combine(RunningServer.Root, "tests/InkyBadger.Server.Tests/Examples/version-1/marrow-lane.json"));
        bench.Find("a[href^='#/d/']");
        bench.OpenDesign("Marrow Lane", "charging");
        Assert.Equal(2, bench.Wait(d => d.FindElements(By.CssSelector("[data-source]")) is { Count: 2 } two ? two : null).Count);
        bench.Find("[data-mark='roof absorbV']");
        bench.Fill("/sources/1/windows", "18:00-19:00");
        bench.Find("[data-bar='shore/0']");
        bench.Reads("without-plug", "−3.20 kWh");
        Kept(bench);
    }

    /// <summary>A threshold in hand: 28.8 V of the preset, four tenths down to what the bank wants; the card shows the same.</summary>
    [Fact]
    public void A_setting_is_moved_on_the_scale_ticked_on_the_card_and_measured()
    {
        using var _ = Bus(out var bench);
        bench.Find("[data-span='shore look']");
        bench.Run("document.querySelector(\"[data-mark='shore absorbV']\").focus()");
        bench.Press(Keys.Enter);
        bench.Find("[data-setting=absorbV].on");
        for (var i = 0; i < 4; i++)
        {
            var before = bench.Find("[data-mark='shore absorbV']").GetAttribute("aria-label");
            bench.Press(Keys.ArrowDown);
            bench.WaitUntil(() => bench.Find("[data-mark='shore absorbV']").GetAttribute("aria-label") != before, "a tenth lower");
        }
        bench.Press(Keys.Enter);
        bench.WaitUntil(
            () =>
                bench
                    .Find("[data-mark='shore absorbV']")
                    .GetAttribute("aria-label")!
                    .Contains("absorption 28.4 V", StringComparison.Ordinal),
            "28.4 V"
        );
        bench.WaitUntil(() => bench.Text("[data-setting=absorbV] .found") == "28.4", "on the card too");
        bench.Click("[data-setting=floatV] input[type=checkbox]");
        bench.WaitUntil(() => bench.Text("[data-setting=floatV] .found") == "27", "float put in");
        bench.Fill("/sources/2/settings/floatV/seen", "27.9");
        bench.WaitUntil(() => bench.Has("[data-setting=floatV] .meter.off"), "the meter disagrees");
        bench.Fill("/sources/2/settings/floatV/seen", "27.05");
        bench.WaitUntil(() => !bench.Has("[data-setting=floatV] .meter.off"), "the meter agrees");
        // The monitor's card is kept as well.
        bench.ClickText("[data-card] .others button", "monitor");
        bench.Click("[data-setting=capacityAh] input[type=checkbox]");
        bench.WaitUntil(() => bench.Text("[data-setting=capacityAh] .found") == "400", "the monitor's capacity put in");
        Kept(bench);
        bench.Driver.Navigate().Refresh();
        bench.Find("[data-testid=charge-line]");
        bench.Find("[data-card=shore]");
        bench.WaitUntil(() => bench.Find("[data-setting=floatV] input[type=checkbox]").Selected, "still ticked");
    }

    /// <summary>An empty bank asks for its first source; where it stands follows, by climate or by hours of one's own.</summary>
    [Fact]
    public void The_first_source_and_the_place()
    {
        using var bench = new Bench();
        bench.OpenDesign("Pell Street", "charging");
        bench.ClickText(".empty button", "roof");
        bench.Fill("/sources/0/array/module/watts", "400");
        bench.Fill("/sources/0/array/strings", "10");
        bench.Fill("/sources/0/amps", "80");
        bench.ClickText("dialog[open] button", "Close");
        bench.WaitUntil(
            () => bench.Text("[data-testid=headline]").StartsWith("Say where it stands", StringComparison.Ordinal),
            "its latitude"
        );
        bench.ClickText(".tools button", "Where it stands");
        bench.Fill("/place/latitudeDeg", "51");
        bench
            .Wait(d => d.FindElements(By.CssSelector("dialog[open] select option")) is { Count: > 5 } all ? all : null)
            .First(o => o.Text.Contains("coast", StringComparison.OrdinalIgnoreCase))
            .Click();
        bench.ClickText("dialog[open] button", "Close");
        bench.WaitUntil(() => bench.All("[data-month]").Count == 12, "twelve months");
        var worst = bench.Find("[data-month][aria-pressed=true]").GetAttribute("data-month");
        Assert.Contains(worst, new[] { "12", "1" });
        // Arrows go from month to month, and the day follows.
        bench.Run("document.querySelector('[data-month][aria-pressed=true]').focus()");
        bench.Click("[data-month='6']");
        bench.WaitUntil(() => bench.Find("[data-month='6']").GetAttribute("aria-pressed") == "true", "June");
        bench.Run("document.querySelector(\"[data-month='6']\").focus()");
        bench.Press(Keys.ArrowRight);
        bench.WaitUntil(() => bench.Find("[data-month='7']").GetAttribute("aria-pressed") == "true", "July");
        // Own hours come before the climate, and eleven are not a year.
        bench.ClickText(".tools button", "Where it stands");
        var own = bench.Find("dialog[open] input[placeholder='by latitude and climate']");
        own.SendKeys("1,1 2 3 4 5 6 6 5 4 3 2");
        bench.WaitUntil(() => bench.Find("dialog[open]").Text.Contains("twelve values are wanted", StringComparison.Ordinal), "refused");
        own.SendKeys(" 1" + Keys.Enter);
        bench.WaitUntil(() => own.GetAttribute("value")!.StartsWith("1.1 2 3", StringComparison.Ordinal), "a decimal comma is one");
        bench.ClickText("dialog[open] button", "Close");
        bench.WaitUntil(
            () => bench.Find("[data-month='7']").GetAttribute("aria-label")!.Contains("to spare", StringComparison.Ordinal),
            "six hours of sun spare something"
        );
    }

    /// <summary>A bank that was lead: the list of what follows is ticked with its day; the alternator's is mended by a press.</summary>
    [Fact]
    public void What_follows_another_chemistry_is_ticked_off()
    {
        using var bench = new Bench();
        bench.OpenDesign("Tern Yard", "charging");
        bench.ClickText(".change summary", "another chemistry");
        bench.Choose("/changed", "AGM");
        bench.Click("[data-change=monitor]");
        bench.WaitUntil(() => bench.Find("[data-change=monitor]").Selected, "ticked");
        Assert.Contains(
            DateTime.UtcNow.Year.ToString(System.Globalization.CultureInfo.InvariantCulture),
            bench.Find(".change").Text,
            StringComparison.Ordinal
        );
        bench.ClickText("[data-rule='charge.alternator'] button", "Put a DC–DC charger between");
        bench.WaitUntil(() => !Rules(bench).Contains("charge.alternator"), "through a charger");
        bench.ClickText(".opening summary", "When the BMS opens");
        Assert.DoesNotContain("leap far over", bench.Find(".opening").Text, StringComparison.Ordinal);
    }

    /// <summary>In the hand: what is wrong stands first, rows have room for a thumb, nothing goes sideways.</summary>
    [Fact]
    public void On_a_phone()
    {
        using var bench = new Bench(width: 390, height: 844);
        bench.OpenDesign("Marrow Lane", "charging");
        bench.Find("[data-testid=charge-line]");
        var order = bench.Find("[data-rule]").Location.Y;
        Assert.True(order < bench.Find("[data-month]").Location.Y, "findings before the months");
        Assert.All(bench.All("[data-setting]"), row => Assert.True(row.Size.Height >= 48, row.Text));
        Assert.Equal(true, bench.Run("return document.documentElement.scrollWidth <= innerWidth"));
        Assert.True(bench.Find("[data-strip='shore']").Size.Height >= 44);
    }
}

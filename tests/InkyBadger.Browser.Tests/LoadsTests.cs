using System.Net.Http.Json;
using System.Text.Json.Nodes;
using OpenQA.Selenium;
using OpenQA.Selenium.Interactions;
using OpenQA.Selenium.Support.UI;

namespace InkyBadger.Browser.Tests;

/// <summary>The Loads station as it is used: bars in hand, lists in, other ways of stating the demand, slips, seasons, what-ifs.</summary>
public class LoadsTests
{
    private static IWebElement Strip(Bench bench, int load) => bench.Find($"[data-strip='{load}']");

    private static string Bars(Bench bench, int load) =>
        string.Join("; ", bench.All($"[data-bar^='{load}/']").Select(b => b.GetAttribute("aria-label")!.Split(". ")[0].Split(", ")[1]));

    /// <summary>Where an hour of the whole day is on a strip, from its centre as the pointer is moved.</summary>
    private static int At(IWebElement strip, double hour) => (int)Math.Round((hour / 24 - 0.5) * strip.Size.Width);

    private static void Drag(Bench bench, IWebElement strip, int from, int to, bool release = true)
    {
        var act = new Actions(bench.Driver)
            .MoveToElement(strip, from, 0)
            .ClickAndHold()
            .MoveToElement(strip, (from + to) / 2, 0)
            .MoveToElement(strip, to, 0);
        (release ? act.Release() : act).Perform();
    }

    /// <summary>
    /// The kettle's first boil, 10:05, is dragged to 11: the lift's start is then alone with printer, laptops and fridge until the
    /// afternoon, where lift and kettle meet at 15:05 with 3,600 + 1,800 + 130 + 60 W.
    /// </summary>
    [Fact]
    public void A_bar_is_dragged_and_the_worst_instant_follows()
    {
        using var bench = new Bench();
        bench.OpenDesign("Marrow Lane", "loads");
        bench.Reads("surge", "6,040 W");
        var strip = Strip(bench, 1);
        // A slow hand, that rests for longer than an edit waits to be stored.
        new Actions(bench.Driver)
            .MoveToElement(strip, At(strip, 10.125), 0)
            .ClickAndHold()
            .MoveToElement(strip, At(strip, 10.75), 0)
            .Pause(TimeSpan.FromSeconds(1))
            .MoveToElement(strip, At(strip, 11.125), 0)
            .Release()
            .Perform();
        bench.Reads("surge", "5,590 W");
        Assert.Matches("^1[01]:[0-5][05] to 1[01]:[0-5][05]; 13:00 to 13:05; 15:05 to 15:10$", Bars(bench, 1));
        bench.Reads("energy-bank", "3.20 kWh");
        // One drag is one step of undo.
        bench.WaitUntil(() => bench.Text("[data-testid=kept]").StartsWith("kept", StringComparison.Ordinal), "kept");
        bench.Run("document.activeElement.blur()");
        bench.Press(Keys.Control + "z");
        bench.Reads("surge", "6,040 W");
        Assert.Equal("10:05 to 10:10; 13:00 to 13:05; 15:05 to 15:10", Bars(bench, 1));
    }

    [Fact]
    public void A_bar_is_resized_drawn_taken_over_midnight_and_given_back()
    {
        using var bench = new Bench();
        bench.OpenDesign("Marrow Lane", "loads");
        bench.Find("[data-bar='2/1']");
        var laptops = Strip(bench, 2);
        // The end of the second stretch, 16:30, to 18:30: two hours of 130 W more.
        Drag(bench, laptops, At(laptops, 16.5) - 2, At(laptops, 18.5) - 2);
        bench.WaitUntil(() => Bars(bench, 2).EndsWith("13:30 to 18:30", StringComparison.Ordinal), Bars(bench, 2));
        bench.Reads("energy-bank", "3.49 kWh");
        // A bar cannot be pushed into another: it stops beside it.
        Drag(bench, laptops, At(laptops, 11), At(laptops, 13));
        bench.WaitUntil(() => Bars(bench, 2) == "10:30 to 13:30; 13:30 to 18:30", Bars(bench, 2));
        // Drawn on empty paper: the fridge by hours gets a time of its own.
        var fridge = Strip(bench, 5);
        Drag(bench, fridge, At(fridge, 6), At(fridge, 8));
        bench.WaitUntil(() => Bars(bench, 5) == "6:00 to 8:00", Bars(bench, 5));
        // Past midnight.
        Drag(bench, fridge, At(fridge, 7), At(fridge, 23.75));
        bench.WaitUntil(() => Bars(bench, 5).EndsWith("to 0:45", StringComparison.Ordinal), Bars(bench, 5));
    }

    /// <summary>Stretched, an hour takes most of the paper and a drag snaps to the minute.</summary>
    [Fact]
    public void Minutes_are_set_in_a_stretched_hour()
    {
        using var bench = new Bench();
        bench.OpenDesign("Marrow Lane", "loads");
        bench.Find("[data-bar='3/0']");
        new SelectElement(bench.Find("[data-testid=stretch]")).SelectByText("10:00 stretched");
        bench.WaitUntil(() => bench.Find("[data-bar='3/0'] rect").Size.Width > 20, "five minutes are wide enough to take hold of");
        var bar = bench.Find("[data-bar='3/0'] rect");
        var minute = bar.Size.Width / 5.0;
        var strip = Strip(bench, 3);
        var middle = bar.Location.X + bar.Size.Width / 2 - strip.Location.X - strip.Size.Width / 2;
        Drag(bench, strip, middle, (int)(middle + 3 * minute));
        bench.WaitUntil(() => Bars(bench, 3) == "10:08 to 10:13; 14:30 to 14:35", Bars(bench, 3));
    }

    [Fact]
    public void Everything_about_a_bar_works_by_keyboard_alone()
    {
        using var bench = new Bench();
        bench.OpenDesign("Marrow Lane", "loads");
        bench.Find("[data-bar='1/0']");
        bench.Run("document.querySelector('.rows').focus()");
        for (var i = 0; i < 40 && (string?)bench.Run("return document.activeElement.dataset.bar ?? ''") != "1/0"; i++)
            bench.Press(Keys.ArrowDown);
        bench.Press(Keys.Enter);
        bench.Press(Keys.ArrowRight);
        bench.WaitUntil(() => Bars(bench, 1).StartsWith("10:10 to 10:15", StringComparison.Ordinal), "five minutes later");
        bench.Press(Keys.ArrowUp);
        bench.WaitUntil(() => Bars(bench, 1).StartsWith("10:10 to 10:20", StringComparison.Ordinal), "five minutes longer");
        bench.Press(Keys.Escape);
        bench.WaitUntil(() => Bars(bench, 1).StartsWith("10:05 to 10:10", StringComparison.Ordinal), "given back");
        bench.Press(Keys.Enter);
        bench.Press(Keys.Shift + Keys.ArrowRight);
        bench.Press(Keys.Enter);
        bench.WaitUntil(() => Bars(bench, 1).StartsWith("10:55 to 11:00", StringComparison.Ordinal), "tenfold, and kept");
        bench.Reads("surge", "5,590 W");
        // Put down, the arrows go on to the next bar; Delete takes it away.
        bench.Press(Keys.ArrowRight);
        Assert.Equal("1/1", bench.Run("return document.activeElement.dataset.bar"));
        bench.Press(Keys.Delete);
        bench.WaitUntil(() => Bars(bench, 1) == "10:55 to 11:00; 15:05 to 15:10", Bars(bench, 1));
    }

    [Fact]
    public void A_list_with_two_bad_lines_is_brought_in_and_mended()
    {
        using var bench = new Bench(seed: false);
        bench.Open("#/shelf");
        bench.ClickText("a", "New design");
        bench.Click("[data-start=blank]");
        bench.ClickText("button", "CSV");
        bench
            .Find("dialog[open] textarea")
            .SendKeys("name,kind,watts,hours,season\nLamp,dc,60,5,both\nSaw,ac,lots,1,both\nHeater,ac,1000,2,winter\nPump,ac,500,30,both");
        bench.ClickText("dialog[open] button", "Read it");
        bench.WaitUntil(() => bench.All("[data-testid=csv-bad]").Count == 2, "two bad lines");
        Assert.Contains("line 3: watts: “lots” is not a number", bench.All("[data-testid=csv-bad]")[0].Text, StringComparison.Ordinal);
        Assert.Contains("line 5: hours must be 24 or less", bench.All("[data-testid=csv-bad]")[1].Text, StringComparison.Ordinal);
        bench.ClickText("dialog[open] button", "Add 2 loads");
        bench.WaitUntil(() => bench.All(".rows [data-load]").Count == 2, "the good lines are in the design");
        foreach (var (n, line) in new[] { "Saw,ac,900,1,both", "Pump,ac,500,3,both" }.Index())
        {
            var field = bench.All("[data-testid=csv-bad] input")[n];
            field.SendKeys(Keys.Control + "a");
            field.SendKeys(line);
        }
        bench.ClickText("dialog[open] button", "Read the mended lines");
        bench.WaitUntil(() => bench.All(".rows [data-load]").Count == 4, "the mended ones too");
        Assert.False(bench.Has("dialog[open]"));
        // Winter: 900 + 1,500 + 2,000 Wh of AC; the winter's day is the greater one.
        bench.WaitUntil(() => bench.Text("[data-testid=headline]").StartsWith("Winter sizes the bank", StringComparison.Ordinal), "winter");
    }

    [Fact]
    public void A_finding_is_mended_and_a_what_if_taken()
    {
        using var bench = new Bench();
        bench.OpenDesign("Marrow Lane", "loads");
        bench.Find("[data-rule='inverter.idle']");
        bench.ClickText("[data-rule='inverter.idle'] button", "Staff fridge on DC, inverter off when idle");
        // 456.6 Wh less of 3,200.72.
        bench.Reads("energy-bank", "2.74 kWh");
        bench.WaitUntil(() => !bench.Has("[data-rule='inverter.idle']"), "mended");
        // The laptops' 780 Wh by inverter and adapter, 866.7 + the idle hours they keep it on; a converter takes 686.4 ÷ 0.92.
        bench.WaitUntil(() => bench.Has("[data-kind='on-dc']"), "what-ifs follow");
        bench.WaitUntil(
            () => bench.Text("[data-kind='on-dc']").Contains("saves 260 Wh a day", StringComparison.Ordinal),
            "its saving is said before"
        );
        bench.ClickText("[data-kind='on-dc'] button", "Laptops on DC");
        bench.Reads("energy-bank", "2.48 kWh");
        bench.WaitUntil(() => !bench.Has("[data-rule='load.double-conversion']"), "nothing is converted twice any more");
    }

    [Fact]
    public void A_load_of_the_library_is_found_as_one_types_and_an_own_one_is_kept()
    {
        using var bench = new Bench();
        bench.OpenDesign("Marrow Lane", "loads");
        bench.Find("input[role=combobox]").Click();
        bench.WaitUntil(() => bench.All("[data-library]").Count > 20, "the library opens");
        bench.Find("input[role=combobox]").SendKeys("tele");
        bench.WaitUntil(() => bench.All("[data-library]").Count == 3, "two televisions, and one's own");
        // The DC one is for 10.5 to 15 V: on this 24 V bus it comes with a converter.
        bench.Press(Keys.ArrowDown);
        bench.Press(Keys.Enter);
        bench.WaitUntil(() => bench.Has("input[data-path='/demand/loads/6/watts']"), "its fields are open");
        Assert.Equal("35 W", bench.Find("input[data-path='/demand/loads/6/watts']").GetAttribute("value"));
        Assert.Equal("converter", bench.Find("select[data-path='/demand/loads/6/kind']").GetAttribute("value"));
        bench.Fill("/demand/loads/6/name", "Book screen");
        bench.ClickText(".fields button", "Keep in my library");
        bench.WaitUntil(() => bench.Text(".fields [role=status]") == "kept in the library", "kept");
        bench.Find("input[role=combobox]").Click();
        bench.Find("input[role=combobox]").SendKeys("book");
        bench.WaitUntil(
            () => bench.Text("[data-library^='own-']").Contains("Book screen", StringComparison.Ordinal),
            "own ones are found too"
        );
    }

    /// <summary>Each slip says what it understood, and the other reading is a press away.</summary>
    [Theory]
    [InlineData("500 VA", "= 400 W at a power factor of 0.8, assumed", "500 W instead", "500 W")]
    [InlineData("40 Ah", "= 40 Ah a day: 120.0 A while on", "40.0 A instead", "40 A")]
    [InlineData("300 Wh", "= 300 Wh a day: 900 W while on", "300 W instead", "300 W")]
    [InlineData("900 kW", "= 900,000 W", "900 W instead", "900 W")]
    [InlineData("1.8", "= 1.8 W", "1.8 kW instead", "1800 W")]
    [InlineData("5 amps per hour", "= 5.00 A: amperes are a rate already", "5 Ah a day instead", "15 A")]
    [InlineData("60 W/h", "= 60 W: watts are a rate already", "60 Wh a day instead", "180 W")]
    public void Slips_are_understood_and_offered_otherwise(string typed, string understood, string offer, string then)
    {
        using var bench = new Bench();
        bench.OpenDesign("Marrow Lane", "loads");
        // The lift is on for 20 minutes a day.
        bench.ClickText("button.what", "Book lift");
        bench.Fill("/demand/loads/0/watts", typed);
        bench.WaitUntil(() => bench.Has(".says"), "it says what it understood");
        Assert.StartsWith(understood, bench.Text(".says").Replace("\r", "", StringComparison.Ordinal), StringComparison.Ordinal);
        bench.ClickText(".says button", offer);
        bench.WaitUntil(
            () => bench.Find("input[data-path='/demand/loads/0/watts']").GetAttribute("value") == then,
            $"{then} after {offer}"
        );
        Assert.False(bench.Has(".says"));
    }

    [Fact]
    public void Charge_without_hours_asks_for_them_first()
    {
        using var bench = new Bench(seed: false);
        bench.Open("#/new");
        bench.Click("[data-start=blank]");
        bench.ClickText("button", "Add a load");
        bench.Fill("/demand/loads/0/watts", "40 Ah", enter: false);
        bench.WaitUntil(
            () => bench.Text(".says").StartsWith("Ah is charge: first say how long it runs a day", StringComparison.Ordinal),
            "asked"
        );
        bench.Press(Keys.Tab);
        Assert.Equal("40.0 A instead", bench.Run("return document.activeElement.textContent"));
    }

    /// <summary>
    /// 500 W for 4 h by an inverter; 55 A at the bank for 9 h; 0.9 kWh over the 14 h of a night; three days without charge.
    /// </summary>
    [Fact]
    public void One_figure_is_enough()
    {
        using var bench = new Bench();
        bench.OpenDesign("Pell", "loads");
        bench.Choose("/demand/by", "one figure");
        bench.Fill("/demand/figure", "500 W for 4 hours");
        // 2,000 ÷ 0.93, and 24 W of idle for the 8 h the inverter is left on.
        bench.Reads("energy-bank", "2.34 kWh");
        bench.Fill("/demand/figure", "55 A for 9 hours");
        // At 51.2 V; without an AC load there is no inverter to idle.
        bench.Reads("energy-bank", "25.34 kWh");
        Assert.Equal("dc", bench.Find("select[data-path='/demand/figure/kind']").GetAttribute("value"));
        bench.Fill("/demand/figure", "0.9 kWh a night", enter: false);
        bench.WaitUntil(() => bench.Text(".says") == "= 900 Wh over 14 h, 18:00 to 08:00: 64 W on the average", "a night is understood");
        bench.Press(Keys.Enter);
        bench.Reads("energy-bank", "900 Wh");
        bench.Fill("/demand/figure", "20 W for 3 days");
        bench.Reads("energy-bank", "480 Wh");
        bench.Fill("/demand/figure", "some power", enter: false);
        bench.WaitUntil(() => bench.Text(".says").StartsWith("say it as 500 W for 4 hours", StringComparison.Ordinal), "asked");
        bench.Find("input[data-path='/demand/figure']").SendKeys(Keys.Escape);
        // The list is still there.
        bench.Choose("/demand/by", "a list of loads");
        bench.Reads("energy-bank", "5.05 kWh");
    }

    /// <summary>0.5 A for 95 % and 5 A for 5 %: a mean of 0.725 A. A share that is changed makes the other give way.</summary>
    [Fact]
    public void States_and_their_shares()
    {
        using var bench = new Bench();
        bench.OpenDesign("Hare", "loads");
        bench.Choose("/demand/by", "states");
        bench.ClickText("button", "Begin with receive and transmit");
        bench.WaitUntil(
            () => bench.Find("[data-ptr='/loads/rows/0/states/meanAmps']").Text.StartsWith("0.73", StringComparison.Ordinal),
            "the mean"
        );
        bench.Fill("/demand/states/states/1/share", "20");
        bench.WaitUntil(
            () => bench.Find("input[data-path='/demand/states/states/0/share']").GetAttribute("value") == "80 %",
            "the other gives way"
        );
        // 0.8 × 0.5 + 0.2 × 5 = 1.4 A for 24 h.
        bench.Reads("ah-per-day", "34 Ah");
    }

    [Fact]
    public void Either_season_is_shown_and_which_one_sizes_the_bank()
    {
        using var bench = new Bench();
        bench.OpenDesign("Hare", "loads");
        bench.Reads("energy-bank", "521 Wh");
        Assert.Equal("winter, sizes the bank", bench.Find("[aria-label='Season shown'] [aria-pressed=true]").Text);
        bench.ClickText("[aria-label='Season shown'] button", "summer");
        bench.Reads("energy-bank", "467 Wh");
        bench.Click("[data-testid=energy-bank] button");
        bench.WaitUntil(() => bench.Text("[data-testid=working-value]").StartsWith("467", StringComparison.Ordinal), "its working opens");
        // The lamp of the winter nights rests.
        Assert.True(bench.Find("[data-load=l3]").GetAttribute("class")!.Contains("rests", StringComparison.Ordinal));
    }

    [Fact]
    public void The_idle_draw_is_a_row_that_explains_itself()
    {
        using var bench = new Bench();
        bench.OpenDesign("Marrow Lane", "loads");
        bench.ClickText("button.what", "Inverter, idling");
        bench.WaitUntil(() => bench.Text(".about").Contains("Staff fridge keeps it on", StringComparison.Ordinal), "it says why");
        Assert.DoesNotContain(bench.All(".about button"), b => b.Text.Contains("Remove", StringComparison.Ordinal));
        bench.Fill("/inverters/0/onH", "10 h");
        // The fridge runs all day: it cannot be less than that.
        bench.WaitUntil(() => bench.Has("[data-rule='inverter.on-hours']"), "raised, and said");
    }

    [Fact]
    public void On_a_phone_a_bar_has_room_for_a_thumb()
    {
        using var bench = new Bench(width: 390, height: 844);
        bench.OpenDesign("Marrow Lane", "loads");
        bench.Find("[data-bar='2/0']");
        Assert.True(Strip(bench, 2).Size.Height >= 44);
        Assert.All(bench.All("button.what"), b => Assert.True(b.Size.Height >= 44, b.Text));
        bench.Run("document.querySelector(\"[data-strip='2']\").scrollIntoView({ block: 'center' })");
        var strip = Strip(bench, 2);
        Drag(bench, strip, At(strip, 15), At(strip, 17));
        bench.WaitUntil(() => Bars(bench, 2).StartsWith("9:30 to 12:30; 15:", StringComparison.Ordinal), Bars(bench, 2));
        Assert.True((long)bench.Run("return document.documentElement.scrollWidth")! <= 390);
    }

    /// <summary>
    /// Sixty loads, a bar under the pointer for 120 frames, one move in each. Reported, not judged: machines differ. What is judged is that
    /// the figures have followed to where the bar was let go.
    /// </summary>
    [Fact]
    public async Task Sixty_loads_stay_fluid()
    {
        using var bench = new Bench();
        var http = bench.Server.Http;
        var id = JsonNode
            .Parse(await http.GetStringAsync("/api/designs"))!
            .AsArray()
            .Single(d => ((string)d!["name"]!).StartsWith("Marrow", StringComparison.Ordinal))!["id"];
        var design = JsonNode.Parse(await http.GetStringAsync($"/api/designs/{id}"))!["design"]!.DeepClone();
        design["name"] = "Sixty loads";
        design["banks"]![0]!["demand"]!["loads"] = new JsonArray([
            .. Enumerable
                .Range(0, 60)
                .Select(i =>
                    (JsonNode)
                        new JsonObject
                        {
                            ["id"] = $"n{i}",
                            ["name"] = $"Load {i}",
                            ["kind"] = "ac",
                            ["watts"] = 20 + i,
                            ["surgeWatts"] = i % 3 == 0 ? 400 : 0,
                            ["windows"] = new JsonArray(new JsonArray(i % 20, i % 20 + 0.5), new JsonArray(i % 20 + 1.25, i % 20 + 2)),
                        }
                ),
        ]);
        (await http.PostAsJsonAsync("/api/designs", design)).EnsureSuccessStatusCode();
        bench.OpenDesign("Sixty loads", "loads");
        bench.WaitUntil(() => bench.All("[data-strip]").Count == 60, "sixty rows");
        var surge = bench.Text("[data-testid=surge]");
        bench.Driver.Manage().Timeouts().AsynchronousJavaScript = TimeSpan.FromSeconds(60);
        var frames = (
            (IReadOnlyCollection<object>)
                bench.Driver.ExecuteAsyncScript(
                    """
                    const done = arguments[arguments.length - 1]
                    // A made-up pointer cannot be captured.
                    SVGElement.prototype.setPointerCapture = SVGElement.prototype.releasePointerCapture = () => {}
                    const strip = document.querySelector("[data-strip='8']")
                    const box = strip.getBoundingClientRect()
                    const send = (type, hour) => strip.dispatchEvent(new PointerEvent(type,
                      { bubbles: true, button: 0, pointerId: 1, clientX: box.left + hour / 24 * box.width, clientY: box.top + 8 }))
                    const times = []
                    let last = 0
                    let n = 0
                    send('pointerdown', 8.25)
                    function frame(now) {
                      if (last) times.push(now - last)
                      last = now
                      if (n++ < 120) {
                        send('pointermove', 8.25 + 6 * Math.sin(n / 19))
                        requestAnimationFrame(frame)
                      } else {
                        send('pointermove', 18.25)
                        send('pointerup', 18.25)
                        done(times)
                      }
                    }
                    requestAnimationFrame(frame)
                    """
                )!
        ).Select(Convert.ToDouble).Order().ToArray();
        Assert.Equal(120, frames.Length);
        bench.WaitUntil(
            () => bench.Find("[data-bar='8/0']").GetAttribute("aria-label")!.Contains("18:00 to 18:30", StringComparison.Ordinal),
            "the bar is where it was let go"
        );
        bench.WaitUntil(() => bench.Text("[data-testid=kept]").StartsWith("kept", StringComparison.Ordinal), "kept");
        Assert.NotEmpty(surge);
        TestContext.Current.TestOutputHelper!.WriteLine(
            $"60 loads, a bar dragged: frame median {frames[60]:0.0} ms, 95th percentile {frames[114]:0.0} ms, greatest {frames[^1]:0.0} ms"
        );
    }
}

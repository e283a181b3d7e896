using OpenQA.Selenium;

namespace InkyBadger.Browser.Tests;

/// <summary>The bank run down on the screen: unlike strings, a bad joint planted, found and mended.</summary>
public class RunDownTests
{
    private static void RunItDown(Bench bench)
    {
        bench.ClickText(".views button", "run it down");
        bench.Find("[data-testid=dark-at]");
    }

    /// <summary>
    /// Eight units of 100 Ah, 2S4P: 400 Ah at 40 A are ten hours, and all strings end together. One unit 20 % behind ends its string two
    /// hours before, and what its neighbour has more stays in it.
    /// </summary>
    [Fact]
    public void The_library_bus_is_run_down_and_one_unit_lags()
    {
        using var bench = new Bench();
        bench.OpenDesign("Marrow Lane", "bank");
        RunItDown(bench);
        bench.Fill("/rundown/amps", "40");
        bench.WaitUntil(
            () => bench.Text("[data-testid=headline]").StartsWith("All four strings end together at 10 h", StringComparison.Ordinal),
            "together"
        );
        bench.Reads("dark-at", "10 h");
        bench.ClickText("summary", "Units as they really are");
        bench.Fill("/positions/0/soc", "80 %");
        bench.WaitUntil(() => bench.Text("[data-testid=drops]").Contains("A1 is empty", StringComparison.Ordinal), "A ends with A1");
        // 20 Ah at some 12.9 V.
        bench.WaitUntil(
            () => System.Text.RegularExpressions.Regex.IsMatch(bench.Text("[data-testid=stranded] .fig"), "^2[4-6][0-9] Wh$"),
            "its neighbour keeps the rest"
        );
        Assert.Empty(bench.Complaints());
    }

    /// <summary>22 mΩ at A1: its string gives little until the others are empty; the finding is mended by a press.</summary>
    [Fact]
    public void A_bad_joint_is_planted_found_and_cleaned()
    {
        using var bench = new Bench();
        bench.OpenDesign("Marrow Lane", "bank");
        RunItDown(bench);
        bench.ClickText("summary", "Units as they really are");
        var joint = bench.Find("[data-place=A1]").FindElements(By.CssSelector("input"))[2];
        joint.SendKeys("22" + Keys.Enter);
        bench.Find("[data-testid=hot-joint]");
        bench.ClickText("[data-rule='bank.joint'] button", "Clean and tighten it");
        bench.WaitUntil(() => !bench.Has("[data-rule='bank.joint']") && !bench.Has("[data-testid=hot-joint]"), "sound again");
    }

    /// <summary>
    /// 280 Ah beside 105 Ah hold 5.03 kWh. At 90 A they give all of it and end together after 385 ÷ 90 = 4.3 h; at 220 A the small one is
    /// empty first, and the large one opens over its 200 A at once.
    /// </summary>
    [Fact]
    public async Task A_large_unit_beside_a_small_one()
    {
        using var bench = new Bench(seed: false);
        var design = System.Text.Json.Nodes.JsonNode.Parse(
            """
            {"format":"inky-badger-design","version":2,"name":"Large beside small","banks":[{"id":"b1","systemV":12,"series":1,"parallel":2,
             "unit":{"key":"u280","name":"LFP 12.8 V 280 Ah","chemistry":"lfp","cells":4,"ah":280,"resistanceOhm":0.0016,
                     "bms":{"continuousA":200,"chargeA":140}},
             "positions":[{"string":2,"unit":1,"item":{"key":"u105","name":"LFP 12.8 V 105 Ah","chemistry":"lfp","cells":4,"ah":105,
                     "resistanceOhm":0.003,"bms":{"continuousA":100,"chargeA":52}}}],
             "inverters":[],"demand":{"by":"loads","loads":[]},"wiring":{"style":"bus-bars"}}]}
            """
        )!;
        var id = await SeveralBanksTests.AddAsync(bench, design);
        bench.Open($"#/d/{id}/bank");
        RunItDown(bench);
        bench.Fill("/rundown/amps", "90");
        bench.Reads("dark-at", "4.3 h");
        bench.Reads("delivers", "4.99 kWh");
        Assert.StartsWith("Both strings end together at 4.3 h", bench.Text("[data-testid=headline]"), StringComparison.Ordinal);
        Assert.StartsWith("4.3 h string B: B1 is empty", bench.Text("[data-testid=drops]"), StringComparison.Ordinal);
        bench.Click("[data-testid=dark-at] button");
        bench.WaitUntil(() => bench.Text("[data-testid=working-value]").Contains("4.3", StringComparison.Ordinal), "its working");
        bench.Fill("/rundown/amps", "220");
        bench.WaitUntil(
            () => bench.Text("[data-testid=headline]") == "String B leaves first, at 1.7 h; A alone takes 220.0 A and opens at once",
            "the large one over its limit"
        );
        bench.WaitUntil(
            () => bench.Text("[data-testid=working-value]").Contains("1.7", StringComparison.Ordinal),
            "the working goes with the load"
        );
        Assert.Empty(bench.Complaints());
    }

    /// <summary>
    /// The trailer’s strings, one full and one at 30 %: wait. Both full: join. Volts on the flat of the curve: nothing can be told.
    /// </summary>
    [Fact]
    public void Two_strings_about_to_be_joined()
    {
        using var bench = new Bench();
        bench.OpenDesign("Tern Yard", "bank");
        RunItDown(bench);
        bench.Fill("/joining/b/soc", "30 %");
        bench.WaitUntil(() => bench.Text("[data-testid=join-verdict]").StartsWith("wait", StringComparison.Ordinal), "too far apart");
        Assert.Contains("0.64 V above B", bench.Text("[data-testid=join-verdict]"), StringComparison.Ordinal);
        bench.WaitUntil(
            () => bench.Text("[data-testid=joining]").Contains("Charge B alone, 6.4 h at 25.0 A, then join", StringComparison.Ordinal),
            "what to do instead"
        );
        // The level is a slider: ten per cent up by the keyboard, and the field follows.
        bench.Find("[data-level=b]").SendKeys(Keys.PageUp);
        bench.WaitUntil(() => bench.Find("[data-path='/joining/b/soc']").GetAttribute("value") == "40 %", "nudged");
        bench.Fill("/joining/b/soc", "100 %");
        bench.WaitUntil(() => bench.Text("[data-testid=join-verdict]").StartsWith("join", StringComparison.Ordinal), "both full");
        bench.Fill("/joining/b/restV", "26.4");
        bench.WaitUntil(
            () => bench.Text("[data-testid=joining]").Contains("What would move cannot be told", StringComparison.Ordinal),
            "read on the flat"
        );
        Assert.Empty(bench.Complaints());
    }

    /// <summary>The menu of a unit: what its test said, for it alone and then for its whole string.</summary>
    [Fact]
    public void What_is_said_of_a_unit_where_it_is_drawn()
    {
        using var bench = new Bench();
        bench.OpenDesign("Marrow Lane", "bank");
        bench.Click("[data-unit=B2]");
        bench.Fill("/unit-menu/health", "71 %");
        // On the way to it a 7 alone is worked out too.
        bench.WaitUntil(
            () =>
                bench.Has("[data-rule='bank.weak-unit']")
                && bench.Text("[data-rule='bank.weak-unit']").Contains("B2 holds 71 of 100 Ah", StringComparison.Ordinal),
            "found within its string"
        );
        // Now its whole string: no unit of it is weaker than the other.
        new OpenQA.Selenium.Support.UI.SelectElement(bench.All("[data-testid=unit-menu] select")[^1]).SelectByText("string B");
        bench.Fill("/unit-menu/health", "80 %");
        bench.WaitUntil(() => !bench.Has("[data-rule='bank.weak-unit']"), "alike again");
        bench.ClickText("[data-testid=unit-menu] button", "put it back");
        bench.Reads("bank-ah", "380 Ah");
        Assert.Empty(bench.Complaints());
    }
}

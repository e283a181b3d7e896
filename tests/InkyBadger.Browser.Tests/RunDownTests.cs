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
}

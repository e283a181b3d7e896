using OpenQA.Selenium;
using OpenQA.Selenium.Interactions;

namespace InkyBadger.Browser.Tests;

/// <summary>House rules side by side: reached from a working, dragged, taken, given back.</summary>
public class SchoolTests
{
    private static void OpenRules(Bench bench, string rule)
    {
        bench.OpenDesign("Marrow Lane", "bank");
        bench.Run("location.hash = location.hash.replace('/bank', '/rules/' + arguments[0])", rule);
        bench.WaitUntil(
            () => bench.Text("[data-testid=headline]").StartsWith("Cautious asks for 16 units, lean for 4", StringComparison.Ordinal),
            "every rule is tried"
        );
    }

    [Fact]
    public void The_C_rate_is_dragged_and_taken()
    {
        using var bench = new Bench();
        OpenRules(bench, "c-rate-lithium");
        Assert.Contains("5 strings", bench.Find("[data-rule-id=c-rate-lithium] [role=radio]").GetAttribute("aria-label"));
        bench.Find("[data-testid=rule-stem]");
        Assert.Contains("The four strings built hold 0.34 C", bench.Text("[data-testid=rule-said]"));
        // The working that goes by it is open.
        bench.WaitUntil(() => bench.Text("[data-testid=working]").Contains("C-rate", StringComparison.Ordinal), "its working");
        bench.Run("document.querySelector('[data-testid=rule-stem]').focus()");
        new Actions(bench.Driver).KeyDown(Keys.Shift).SendKeys(Keys.ArrowLeft).KeyUp(Keys.Shift).Perform();
        bench.WaitUntil(
            () => bench.Text("[data-testid=headline]") == "At 0.4 C the four strings built are enough",
            "it says so while dragged"
        );
        new Actions(bench.Driver)
            .SendKeys(Keys.ArrowLeft + Keys.ArrowLeft + Keys.ArrowLeft + Keys.ArrowLeft + Keys.ArrowLeft + Keys.ArrowLeft)
            .Perform();
        bench.WaitUntil(() => bench.Text("[data-testid=headline]") == "At 0.34 C the four strings built are enough", "and at its edge");
        new Actions(bench.Driver).SendKeys(Keys.ArrowLeft).Perform();
        bench.WaitUntil(() => bench.Text("[data-testid=headline]").EndsWith("are not enough", StringComparison.Ordinal), "beyond it");
        bench.ClickText("button", "Take 0.33 C");
        bench.WaitUntil(
            () => bench.Text("[data-testid=character]").Contains("2 of your own", StringComparison.Ordinal),
            "it is the design's own"
        );
        bench.WaitUntil(
            () => bench.Find("[data-path='/houseRules/own/c-rate-lithium']").GetAttribute("value") == "0.33 C",
            "typed and dragged are one"
        );
        bench.Run("document.activeElement.blur()");
        bench.Press(Keys.Control + "z");
        bench.WaitUntil(
            () => bench.Text("[data-testid=character]").Contains("one of your own", StringComparison.Ordinal),
            "one step of undo"
        );
        Assert.Empty(bench.Complaints());
    }

    [Fact]
    public void Giving_back_warns_and_a_whole_set_is_one_step()
    {
        using var bench = new Bench();
        OpenRules(bench, "take-off");
        // A rule of words: its results side by side, with what either side says for itself.
        bench.WaitUntil(() => bench.Text("[data-testid=rule-function]").Contains("holds here", StringComparison.Ordinal), "the results");
        Assert.Contains("Leads of equal length", bench.Text("[data-rule-id=take-off]"));
        bench.ClickText("button", "give back 150 A");
        Assert.Contains("48 V is advised instead of 24 V", bench.Text("[data-testid=turns]"));
        bench.ClickText("button", "keep it");
        bench.WaitUntil(() => !bench.Has("[data-testid=turns]"), "it is kept");
        bench.ClickText("button", "take Lean whole");
        bench.WaitUntil(
            () => bench.Text("[data-testid=character]").Contains("Lean.", StringComparison.Ordinal),
            "lean, without own values"
        );
        bench.Run("document.activeElement.blur()");
        bench.Press(Keys.Control + "z");
        bench.WaitUntil(
            () => bench.Text("[data-testid=character]").Contains("Typical, with one of your own", StringComparison.Ordinal),
            "all of it is back"
        );
        // A value of one's own says what it understood, and refuses nonsense.
        bench.Fill("/houseRules/own/usable-share-lfp", "85", enter: false);
        bench.WaitUntil(() => bench.Text("[data-rule-id=usable-share-lfp]").Contains("85 %", StringComparison.Ordinal), "a share");
        bench.Fill("/houseRules/own/usable-share-lfp", "nonsense", enter: false);
        bench.WaitUntil(() => bench.Text("[data-rule-id=usable-share-lfp] [role=alert]").Length > 0, "it is told why not");
        bench.Press(Keys.Escape);
        bench.Run("document.activeElement.blur()");
        bench.Press(Keys.Escape);
        bench.WaitUntil(() => bench.Driver.Url.EndsWith("/bank", StringComparison.Ordinal), "Esc leads back to where one was");
        Assert.Empty(bench.Complaints());
    }

    [Fact]
    public void From_a_working_to_the_rule_behind_it_and_by_phone()
    {
        using var bench = new Bench(width: 390, height: 844);
        bench.OpenDesign("Marrow Lane", "cables");
        bench.ClickText("a", "House rules");
        bench.WaitUntil(() => bench.Driver.Url.Contains("/rules/drop-limit-main", StringComparison.Ordinal), "at the rule");
        bench.WaitUntil(() => bench.Has("[data-testid=rule-stem]"), "its function");
        Assert.True((long)bench.Run("return document.documentElement.scrollWidth")! <= 390, "nothing reaches beyond the screen");
        bench.Find("[data-rule-id=drop-limit-main] [role=radio]:nth-of-type(1)").Click();
        bench.WaitUntil(() => bench.Text("[data-testid=character]").Contains("2 of your own", StringComparison.Ordinal), "2 % is taken");
        bench.ClickText("a", "back to Cables");
        bench.WaitUntil(() => bench.Driver.Url.EndsWith("/cables", StringComparison.Ordinal), "back again");
        Assert.Empty(bench.Complaints());
    }
}

using OpenQA.Selenium;

namespace InkyBadger.Browser.Tests;

/// <summary>Builds as points, by other prices, in stages and with less asked of them.</summary>
public class BuildTimeTests
{
    private static void OpenBuilds(Bench bench, string look)
    {
        bench.OpenDesign("Pell Street", "bank");
        bench.ToPlace("Builds");
        bench.WaitUntil(() => bench.All("[data-build]").Count == 4, "the cheapest of three kinds beside the present one");
        bench.ClickText("button", look);
    }

    [Fact]
    public void The_front_and_a_press_compares()
    {
        using var bench = new Bench();
        OpenBuilds(bench, "all as points");
        bench.WaitUntil(
            () => bench.Text("[data-testid=headline]").Contains("cannot be beaten for usable energy", StringComparison.Ordinal),
            "the front"
        );
        Assert.Contains("the present one is beaten by", bench.Text("[data-testid=headline]"));
        var front = bench.All("[data-front]").Count;
        Assert.InRange(front, 2, 12);
        // One of the front that is not beside the others is put there by a press.
        bench.Run(
            """
            [...document.querySelectorAll('[data-front]')].find(p => p.getAttribute('aria-pressed') === 'false')
              .dispatchEvent(new MouseEvent('click', { bubbles: true }))
            """
        );
        bench.WaitUntil(() => bench.All("[data-point][aria-pressed=true]").Count == 5, "it is compared");
        var few = bench.Find("[data-testid=connections]");
        var before = bench.All("[data-point]").Count;
        few.SendKeys(Keys.Home);
        bench.WaitUntil(() => bench.All("[data-point]").Count < before, "few connections alone");
        bench.Choose("/builds/merit", "mass of all units");
        bench.WaitUntil(
            () => bench.Text("[data-testid=headline]").Contains("mass of all units", StringComparison.Ordinal),
            "another merit"
        );
        Assert.Empty(bench.Complaints());
    }

    /// <summary>In the sale the clinic's own units cost 20 each: then they are the cheapest build.</summary>
    [Fact]
    public void A_sale_flips_the_verdict()
    {
        using var bench = new Bench();
        OpenBuilds(bench, "sets of prices");
        var before = bench.Text("[data-testid=headline]");
        Assert.DoesNotContain("3 × LFP 51.2 V 50 Ah", before);
        bench.ClickText("button", "Bring in a set of prices");
        bench.Run(
            """
            const area = document.querySelector('.take textarea')
            area.value = 'kind,key,size,price,in_stock\nunit,lfp-48-50,,20,yes\nunit,lfp-48-100,,,\nfuse,class-z,,3,\ncable,,51,3,'
            area.dispatchEvent(new Event('input', { bubbles: true }))
            """
        );
        bench.ClickText("button", "Read it");
        bench.WaitUntil(() => bench.Text("[data-testid=prices-read]") == "3 prices, 1 of them not known.", "it is read");
        Assert.Contains("has a size of the table of parts", bench.Text(".take"));
        bench.ClickText("button", "Take it in");
        bench.WaitUntil(
            () => bench.Text("[data-testid=prices-told]").Contains("what it is called", StringComparison.Ordinal),
            "it wants a name"
        );
        bench.Run(
            """
            const field = document.querySelector('.take input.input')
            field.value = 'November sale'
            field.dispatchEvent(new Event('input', { bubbles: true }))
            """
        );
        bench.ClickText("button", "Take it in");
        bench.WaitUntil(
            () => bench.Text("[data-testid=headline]").StartsWith("3 × LFP 51.2 V 50 Ah at 48 V costs least", StringComparison.Ordinal),
            "the verdict is another"
        );
        // The other verdict stands beside it, and is taken back with one press.
        Assert.Contains("costs least", bench.Text("[data-set=own]"));
        bench.Click("[data-set=own] [role=radio]");
        bench.WaitUntil(
            () => !bench.Text("[data-testid=headline]").StartsWith("3 × LFP 51.2 V 50 Ah", StringComparison.Ordinal),
            "as before"
        );
        Assert.Empty(bench.Complaints());
    }

    [Fact]
    public void A_plan_in_stages()
    {
        using var bench = new Bench();
        OpenBuilds(bench, "in stages");
        bench.WaitUntil(
            () => bench.Text("[data-testid=headline]").StartsWith("1 of 3 units now, the rest in 3 years", StringComparison.Ordinal),
            "a plan"
        );
        Assert.Contains("places for string fuses", bench.Text("[data-testid=first-day]"));
        Assert.Contains("String A then carries", bench.Text("[data-testid=mixing]"));
        bench.Find("[data-testid=strings-now]").SendKeys(Keys.End);
        bench.WaitUntil(() => bench.Text("[data-testid=headline]").StartsWith("2 of 3 units now", StringComparison.Ordinal), "two now");
        // 1,380 now, and 690 + 200 in three years: dearer than 2,070 at once.
        bench.Fill("/stages/visit", "200");
        bench.WaitUntil(
            () => bench.Text("[data-testid=headline]").Contains("all at once is", StringComparison.Ordinal),
            "a dear visit turns it"
        );
        Assert.Contains("2,194", bench.Text("[data-testid=staged-money]"));
        bench.Find("[data-testid=growth]");
        Assert.Contains("More than 4 strings: the house rule allows 4", bench.Text("[data-testid=shuts-out]"));
        bench.ClickText("button", "rare or daily use");
        bench.WaitUntil(() => bench.Text("[data-testid=headline]").Contains("a year held", StringComparison.Ordinal), "by cycles");
        Assert.Contains("12 by age", bench.Text("[data-testid=years]"));
        Assert.Empty(bench.Complaints());
    }

    [Fact]
    public void Doing_less_is_taken_and_undone()
    {
        using var bench = new Bench();
        bench.OpenDesign("Marrow Lane", "bank");
        bench.ToPlace("Builds");
        bench.ClickText("button", "do less");
        bench.WaitUntil(() => bench.All("[data-way]").Count > 0, "ways to do less");
        Assert.Contains("2 strings would be enough", bench.Text("[data-testid=headline]"));
        bench.ClickText("[data-way='0'] button", "Do it this way");
        bench.WaitUntil(() => !bench.Text("[data-testid=counts]").StartsWith("3 wrong", StringComparison.Ordinal), "it is the design now");
        bench.ToPlace("Path");
        bench.Find("[data-testid='usable-wh']");
        bench.Reads("usable-wh", "4.61 kWh");
        bench.Run("document.activeElement.blur()");
        bench.Press(Keys.Control + "z");
        bench.Reads("usable-wh", "9.22 kWh");
        Assert.Empty(bench.Complaints());
    }
}

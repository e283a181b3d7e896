using OpenQA.Selenium;

namespace InkyBadger.Browser.Tests;

/// <summary>The place of builds: from the clinic's card on the shelf to another build, and back.</summary>
public class BuildsTests
{
    /// <summary>The other looks of the place, each with what tells that it is there.</summary>
    internal static readonly (string View, string Inside)[] Looks =
    [
        ("all as points", "[data-testid=pointed]"),
        ("in stages", "[data-testid=shuts-out]"),
        ("rare or daily use", "[data-testid=years]"),
        ("do less", "[data-way], [data-testid=less-not]"),
        ("sets of prices", "[data-testid=price-sets]"),
    ];

    private static void OpenBuilds(Bench bench, string name = "Pell Street")
    {
        bench.OpenDesign(name, "bank");
        bench.ToPlace("Builds");
        bench.Find("[data-build=present]");
        bench.WaitUntil(
            () => bench.Text("[data-testid=progress]").Contains("builds worked out whole", StringComparison.Ordinal),
            "every build is worked out"
        );
    }

    [Fact]
    public void From_the_shelf_to_another_build_and_back()
    {
        using var bench = new Bench();
        bench.Open("#/shelf");
        bench.ClickText("a[href^='#/d/']", "Pell Street");
        bench.ToPlace("Builds");
        bench.WaitUntil(() => bench.All("[data-build]").Count == 4, "the cheapest of three kinds beside the present one");
        Assert.Contains("costs least", bench.Text("[data-testid=headline]"), StringComparison.Ordinal);
        Assert.Equal("3,430", bench.Text("[data-build=present] [data-testid=total]"));

        // Two 24 V units at 24 V are put beside them, and taken over.
        bench.ClickText("[aria-labelledby=list-title] button", "all ");
        bench.Click("tr[data-key='lfp-24-200|24|1|2|Diagonal'] button");
        bench.WaitUntil(() => bench.All("[data-build]").Count == 5, "five side by side");
        bench.ClickText("[data-build='lfp-24-200|24|1|2|Diagonal'] button", "Use build");
        bench.WaitUntil(
            () => bench.Text("[data-build=present] h3").Contains("2 × LFP 25.6 V 200 Ah at 24 V", StringComparison.Ordinal),
            "it is the design now"
        );
        bench.ToPlace("Path");
        bench.Find("[data-testid='usable-wh']");
        bench.Reads("usable-wh", "9.22 kWh");

        bench.Run("document.activeElement.blur()");
        bench.Press(Keys.Control + "z");
        bench.Reads("usable-wh", "6.91 kWh");
        bench.ToPlace("Builds");
        bench.WaitUntil(
            () => bench.Text("[data-build=present] h3").Contains("3 × LFP 51.2 V 50 Ah at 48 V", StringComparison.Ordinal),
            "as it was designed"
        );
        Assert.Empty(bench.Complaints());
    }

    [Fact]
    public void A_price_is_tried_on_the_slider_and_put_in()
    {
        using var bench = new Bench();
        OpenBuilds(bench);
        bench.Find("[data-testid=try-price]").Click();
        var slider = bench.Find("[data-testid=try-price]");
        slider.SendKeys(Keys.Home);
        // Units for nothing: 3,429.66 − 3 × 690 = 1,359.66.
        bench.WaitUntil(
            () => bench.Has("[data-testid=tried]") && bench.Text("[data-testid=tried]").EndsWith("A is 1,360", StringComparison.Ordinal),
            "what it would cost"
        );
        bench.ClickText("button", "back to its price");
        bench.WaitUntil(() => bench.Text("[data-build=present] [data-testid=total]") == "3,430", "nothing was changed");
        bench.Fill("/prices/unit", "500");
        bench.WaitUntil(() => bench.Text("[data-build=present] [data-testid=total]") == "2,860", "570 less");
        bench.ClickText("button", "back to the catalogue");
        bench.WaitUntil(() => bench.Text("[data-build=present] [data-testid=total]") == "3,430", "as before");
        Assert.Contains("costs less than", bench.Text("[data-testid=flips]"), StringComparison.Ordinal);
        // An hour's work for nothing: 3.75 h less at 38.
        bench.Find("[data-testid=try-rate]").SendKeys(Keys.Home);
        bench.WaitUntil(() => bench.Text("[data-build=present] [data-testid=total]") == "3,287", "142.50 less");
    }

    [Fact]
    public void The_bill_the_line_the_space_and_the_reasons()
    {
        using var bench = new Bench();
        OpenBuilds(bench);
        bench.Click("[data-build=present] [data-testid=total]");
        Assert.Contains("string fuse 3 × 62 186.00", bench.Text("[data-testid=bill]").ReplaceLineEndings(" "), StringComparison.Ordinal);
        bench.Fill("/space/lengthMm", "600");
        bench.WaitUntil(() => bench.Text("[data-build=present]").Contains("fits the space", StringComparison.Ordinal), "there is room");
        bench.Fill("/space/heightMm", "150");
        bench.WaitUntil(() => bench.Text("[data-build=present]").Contains("does not fit the space", StringComparison.Ordinal), "too low");
        bench.WaitUntil(
            () => bench.Text("[data-testid=progress]").Contains("builds worked out whole", StringComparison.Ordinal),
            "searched again"
        );
        bench.ClickText("summary", "have a fault or a danger");
        Assert.Contains("not to be touched", bench.Text("[data-testid=builds-wrong]"), StringComparison.Ordinal);
        var before = bench.All("tr[data-key]").Count;
        bench.Click("[data-testid=same-line]");
        bench.WaitUntil(
            () =>
                bench.All("tr[data-key]").Count < before
                || bench.All("tr[data-key]").All(r => !r.Text.Contains("cell", StringComparison.Ordinal)),
            "of its product line alone"
        );
    }

    /// <summary>One build after the other, and nothing beyond the screen.</summary>
    [Fact]
    public void On_a_phone()
    {
        using var bench = new Bench(width: 390, height: 844);
        OpenBuilds(bench);
        Assert.True((long)bench.Run("return document.documentElement.scrollWidth")! <= 390, "nothing reaches beyond the screen");
        var columns = bench.All("[data-build]").Select(c => c.Location.Y).ToList();
        Assert.Equal(columns.Distinct().Count(), columns.Count);
        // No letter covers another, however near the figures are.
        const string covered = """
            const boxes = [...document.querySelectorAll('.lines rect')].map(r => r.getBoundingClientRect());
            return boxes.some((a, i) => boxes.some((b, k) =>
              k > i && Math.abs(a.top - b.top) < 2 && a.left < b.right - 1 && b.left < a.right - 1));
            """;
        Assert.True(bench.All(".lines rect").Count >= 40, "the letters are drawn");
        Assert.False((bool)bench.Run(covered)!, "letters cover each other");
    }
}

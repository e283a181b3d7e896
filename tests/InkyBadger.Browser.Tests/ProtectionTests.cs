using OpenQA.Selenium;
using OpenQA.Selenium.Interactions;

namespace InkyBadger.Browser.Tests;

/// <summary>Protection in time, what goes dark, own tables, and the AC side, in the hand.</summary>
public class ProtectionTests
{
    private static void Look(Bench bench, string view) =>
        bench.Click($"[aria-label^='How the'] button:nth-of-type({view switch { "elevation" => 1, "protection" => 2, _ => 3 }})");

    /// <summary>Something drawn is pressed.</summary>
    private static void Pick(Bench bench, string css)
    {
        bench.Find(css);
        bench.Run("document.querySelector(arguments[0]).dispatchEvent(new MouseEvent('click', { bubbles: true }))", css);
    }

    /// <summary>A branch on thin copper that relies on the main fuse: black on the chart, and mended with one press.</summary>
    [Fact]
    public void A_branch_that_its_upstream_fuse_does_not_save_is_mended()
    {
        using var bench = new Bench();
        bench.OpenDesign("Marrow Lane", "cables");
        bench.Click("[data-run=source-shore]");
        bench.WaitUntil(() => bench.Text("[data-testid=run-in-hand]").StartsWith("Plug", StringComparison.Ordinal), "the plug in hand");
        bench.Choose("/runs/1/size", "4 mm², ");
        bench.Choose("/runs/1/fuse/class", "ISO 8820-5 SF51 bolt-in, 32 V");
        Look(bench, "protection");
        bench.Find("[data-testid=burns]");
        bench.WaitUntil(() => bench.Text("[data-testid=headline]").Contains("may burn its 4 mm²", StringComparison.Ordinal), "it says so");
        // The mend stands beside the chart; pressing it takes the black away.
        bench.Click("[data-rule='fuse.relies'] .btn-primary");
        bench.WaitUntil(() => !bench.Has("[data-testid=burns]") && bench.Has("[data-band=source-shore]"), "nothing burns any more");
        bench.WaitUntil(() => !bench.Has("[data-rule='fuse.relies']"), "the finding has ended");
        Assert.Empty(bench.Complaints());
    }

    [Fact]
    public void The_probe_is_dragged_and_moved_with_the_keys()
    {
        using var bench = new Bench();
        bench.OpenDesign("Marrow Lane", "cables");
        Look(bench, "protection");
        bench.Click("[data-tab=source-shore]");
        bench.WaitUntil(() => bench.Text("[data-testid=probe-title]").Contains("at 1 m", StringComparison.Ordinal), "halfway along");
        var probe = bench.Find("[data-testid=probe]");
        var before = bench.Text("[data-testid=probe-title]");
        new Actions(bench.Driver).MoveToElement(probe).ClickAndHold().MoveByOffset(200, 0).MoveByOffset(40, 0).Release().Perform();
        bench.WaitUntil(() => bench.Text("[data-testid=probe-title]") != before, "another short is looked at");
        // Its working is the one that is open.
        bench.WaitUntil(
            () =>
                bench.Text("[data-testid=working]").Contains("cable", StringComparison.OrdinalIgnoreCase)
                || bench.Has("[data-testid=working]"),
            "a working"
        );
        var dragged = bench.Text("[data-testid=probe-title]");
        bench.Run("document.querySelector('[data-testid=probe]').focus()");
        new Actions(bench.Driver).SendKeys(Keys.ArrowLeft).Perform();
        bench.WaitUntil(() => bench.Text("[data-testid=probe-title]") != dragged, "a step to the left");
        // The tab in hand leads to its fields.
        bench.Click("[data-tab=source-shore]");
        bench.Find("[data-testid=run-fields]");
        Assert.Empty(bench.Complaints());
    }

    /// <summary>A maker's curve as CSV: taken in with its source, used on the main run, and its band is narrower.</summary>
    [Fact]
    public void A_table_of_ones_own_from_CSV()
    {
        using var bench = new Bench();
        bench.OpenDesign("Marrow Lane", "cables");
        bench.ClickText("button", "Own tables");
        bench.ClickText("button", "Bring in a table as CSV");
        bench.Run(
            """
            const area = document.querySelector('dialog[open] textarea')
            area.value = 'multiple,least_s,most_s\n1.4,200,500\n3,1,1.8\n8,0.004,0.008'
            area.dispatchEvent(new Event('input', { bubbles: true }))
            """
        );
        bench.ClickText("button", "Read it");
        bench.WaitUntil(() => bench.Text("[data-testid=table-read]").Contains("3 points", StringComparison.Ordinal), "it is read");
        // Without a word of where it is from nothing is taken in.
        bench.ClickText("button", "Take it in");
        bench.WaitUntil(() => bench.Text("[data-testid=table-told]").Contains("where it is from", StringComparison.Ordinal), "it asks");
        bench.Run(
            """
            const values = {
              'what it is called': 'Swift bolt-in',
              'where it is from, in words': 'a sheet of March 2026',
              'made for, V DC': '80',
              'breaks, A': '15000',
              'ratings made, A': '60 80 100 125 150 200 250',
            }
            for (const label of document.querySelectorAll('dialog[open] .fields label')) {
              const said = values[label.querySelector('.caption')?.textContent]
              if (said === undefined) continue
              const field = label.querySelector('input')
              field.value = said
              field.dispatchEvent(new Event('input', { bubbles: true }))
            }
            """
        );
        bench.ClickText("button", "Take it in");
        bench.WaitUntil(() => bench.Text("[data-testid=own-tables]").Contains("Swift bolt-in", StringComparison.Ordinal), "it is there");
        bench.ClickText("button", "use it on main run");
        bench.Run("document.querySelector('dialog[open]').close()");
        bench.WaitUntil(() => bench.Text("[data-testid=fuse-rating]").Contains("Swift bolt-in", StringComparison.Ordinal), "it is used");
        Look(bench, "protection");
        bench.WaitUntil(() => bench.Has("[data-band=main]"), "its band is drawn");
        bench.WaitUntil(() => bench.Text("main").Contains("A maker’s own curve is in it", StringComparison.Ordinal), "and named");
        Assert.Empty(bench.Complaints());
    }

    /// <summary>The charger on the inverter's own panel: well at the mains, a loop when the switch is turned.</summary>
    [Fact]
    public void The_loop_is_found_by_switching()
    {
        using var bench = new Bench();
        bench.OpenDesign("Marrow Lane", "inverter");
        bench.Click("[aria-label='How the inverter is looked at'] button:nth-of-type(2)");
        bench.ClickText("button", "Pass-through with a transfer switch");
        bench.WaitUntil(() => bench.All("[data-state]").Count == 2, "two positions");
        // The charger is taken off the inlet, and wired to the panel behind the switch.
        Pick(bench, "[data-part=charger-0-shore]");
        bench.Click("[data-testid=ac-part] ul button");
        bench.WaitUntil(() => !bench.Has("[data-testid=ac-part] ul li"), "it hangs on nothing");
        bench.Run(
            """
            const target = document.querySelector('[data-testid=ac-target]')
            target.value = 'panel'
            target.dispatchEvent(new Event('change', { bubbles: true }))
            """
        );
        bench.ClickText("button", "Wire it");
        bench.WaitUntil(() => bench.Has("[data-rule='ac.loop']"), "it is found");
        bench.Click("[data-state='2']");
        bench.WaitUntil(
            () => bench.Find("[data-wire='panel charger-0-shore']").GetAttribute("data-live") == "inverter",
            "the charger runs on the inverter"
        );
        Assert.Contains("hangs on Inverter of its own bank", bench.Text("[data-testid=headline]"));
        bench.Click("[data-rule='ac.loop'] .btn-primary");
        bench.WaitUntil(() => !bench.Has("[data-rule='ac.loop']"), "it is mended");
        Assert.Empty(bench.Complaints());
    }

    [Fact]
    public void What_goes_dark_is_pressed_and_what_must_not_is_marked()
    {
        using var bench = new Bench();
        bench.OpenDesign("Marrow Lane", "cables");
        Look(bench, "dark");
        Pick(bench, "[data-thing=inverter]");
        bench.WaitUntil(() => bench.All("[data-lost]").Count == 5, "five loads are lost");
        Assert.Contains("kept are Ceiling lights", bench.Text("[data-testid=dark-says]"));
        bench.Click("[data-stay=l6]");
        bench.WaitUntil(() => bench.Has("[data-rule='dark.single']"), "it is told");
        Assert.Contains("Staff fridge goes dark when any one of", bench.Text("[data-testid=headline]"));
        bench.Click("[data-rule='dark.single'] .btn-primary");
        bench.WaitUntil(() => !bench.Has("[data-rule='dark.single']"), "it has a reserve");
        Assert.Empty(bench.Complaints());
    }
}

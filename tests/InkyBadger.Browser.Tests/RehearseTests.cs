using System.Globalization;
using OpenQA.Selenium;
using OpenQA.Selenium.Interactions;

namespace InkyBadger.Browser.Tests;

/// <summary>Time run forward on the screen: the hut on sun alone, a dull month dropped on it, what ends the dark, other weather.</summary>
public class RehearseTests
{
    private const string AsItIs = "Dark on 4 days, 15.3 h in all, between 28 November and 27 December";

    private static Bench Hut(int width = 1280, int height = 800)
    {
        var bench = new Bench(width: width, height: height);
        bench.OpenDesign("Hare", "bank");
        bench.ToPlace("Rehearse");
        Says(bench, AsItIs);
        return bench;
    }

    private static void Says(Bench bench, string headline) =>
        bench.WaitUntil(() => bench.Text("[data-testid=headline]") == headline, headline);

    /// <summary>As somebody sets it in the field of his browser, whatever order that has day and month in.</summary>
    private static void Moment(Bench bench, int field, string value) =>
        bench.Run(
            """
            const input = document.querySelectorAll('[data-typed-drop="0"] input[type=datetime-local]')[arguments[0]]
            input.value = arguments[1]
            input.dispatchEvent(new Event('change', { bubbles: true }))
            """,
            field,
            value
        );

    [Fact]
    public void A_dull_month_is_dropped_and_the_pair_that_ends_it_is_pressed()
    {
        using var bench = Hut();
        // The darkest days stand before one, solid black, and each day's column is in the year.
        Assert.True(bench.All("[data-dark]").Count > 0);
        Assert.Equal("4", bench.Find("[data-dark-days]").GetAttribute("data-dark-days"));
        bench.Choose("/drop", "a cloudy week");
        bench.Find("[data-typed-drop='0']");
        Moment(bench, 1, "2027-01-10T00:00");
        bench.WaitUntil(() => bench.Has("[data-typed-drop='0']"), "the drop");
        Moment(bench, 0, "2026-12-10T00:00");
        bench.Fill("/rehearsal/drops/0/value", "40 %");
        // Day by day: dark on 29, told by the headline, the year's columns and the remedies alike.
        bench.WaitUntil(() => bench.Text("[data-testid=headline]").StartsWith("Dark on 29 days, 577", StringComparison.Ordinal), "dark");
        Assert.EndsWith("after the cloudy days", bench.Text("[data-testid=headline]"), StringComparison.Ordinal);
        bench.WaitUntil(() => bench.Find("[data-dark-days]").GetAttribute("data-dark-days") == "29", "in the year too");
        bench.WaitUntil(() => bench.Has("[data-testid=do-both]"), "two that end it");
        Assert.Contains("A string more, and without Radio: never dark", bench.Text("[data-testid=remedies]"), StringComparison.Ordinal);
        bench.Click("[data-testid=do-both]");
        bench.WaitUntil(() => bench.Text("[data-testid=headline]").StartsWith("Never dark; lowest 20", StringComparison.Ordinal), "ended");
        // It is one edit: one undo brings the dark back.
        bench.Click("button[aria-label=Undo]");
        bench.WaitUntil(() => bench.Text("[data-testid=headline]").StartsWith("Dark on 29 days", StringComparison.Ordinal), "undone");
        Assert.Empty(bench.Complaints());
    }

    [Fact]
    public void The_play_head_goes_to_the_dark_and_says_the_instant()
    {
        using var bench = Hut();
        bench.Run("document.activeElement.blur()");
        // From the first day on: a step back of the year's frame by its own keys.
        bench.Run("document.querySelector('[data-testid=frame]').focus()");
        for (var n = 0; n < 14; n++)
            bench.Press(Keys.PageUp);
        bench.WaitUntil(() => bench.Find("[data-testid=frame]").GetAttribute("aria-valuenow") == "0", "the first two weeks");
        bench.Click("[data-testid=next-dark]");
        bench.WaitUntil(() => bench.Text("[data-testid=instant]").Contains("28 Nov", StringComparison.Ordinal), "the first dark");
        Assert.Contains("dark", bench.Text("[data-testid=instant] b:last-of-type"), StringComparison.Ordinal);
        Assert.True(bench.Has("[data-head]"));
        // A day on by the keys, where nothing else has them.
        bench.Run("document.activeElement.blur()");
        bench.Press(Keys.Shift + Keys.ArrowRight);
        bench.WaitUntil(() => bench.Text("[data-testid=instant]").Contains("29 Nov", StringComparison.Ordinal), "a day on");
    }

    /// <summary>The sun of a day is pulled down: that day gets a sky of its own, and one undo takes it away.</summary>
    [Fact]
    public void A_sun_is_made_smaller()
    {
        using var bench = Hut();
        var before = bench.Find("[data-sun]").GetAttribute("aria-valuetext");
        bench.Run("document.querySelector('[data-sun]').focus()");
        bench.Press(Keys.PageDown);
        bench.Find("[data-typed-drop='0']");
        bench.WaitUntil(() => bench.Find("[data-sun]").GetAttribute("aria-valuetext") != before, "less sun");
        bench.Click("button[aria-label=Undo]");
        bench.WaitUntil(
            () => !bench.Has("[data-typed-drop='0']") && bench.Find("[data-sun]").GetAttribute("aria-valuetext") == before,
            "as before"
        );
    }

    /// <summary>
    /// A sun in the hand: the fortnight follows while it is held, the year once it is let go. One undo puts it back.
    /// </summary>
    [Fact]
    public void A_sun_is_dragged_and_the_fortnight_follows()
    {
        using var bench = Hut();
        bench.WaitUntil(() => bench.Has("[data-amps]"), "the path at the play head");
        // The fourth of them is before the dark: with more sun there is less of that.
        var sun = bench.All("[data-sun]")[3];
        var day = sun.GetAttribute("data-sun");
        string Charge() => bench.Find("[data-charge]").GetAttribute("d")!;
        string Sun() => bench.Find($"[data-sun='{day}']").GetAttribute("aria-valuetext")!;
        var (charge, was) = (Charge(), Sun());
        new Actions(bench.Driver).MoveToElement(sun).ClickAndHold().MoveByOffset(0, -4).MoveByOffset(0, -4).Perform();
        bench.WaitUntil(() => Charge() != charge, "the curve follows the hand");
        // Nothing is kept yet.
        Assert.Equal(AsItIs, bench.Text("[data-testid=headline]"));
        Assert.False(bench.Has("[data-typed-drop='0']"));
        new Actions(bench.Driver).Release().Perform();
        bench.WaitUntil(() => bench.Has("[data-typed-drop='0']"), "kept");
        bench.WaitUntil(() => bench.Text("[data-testid=headline]") != AsItIs, "the year follows");
        Assert.NotEqual(was, Sun());
        bench.Click("button[aria-label=Undo]");
        Says(bench, AsItIs);
        bench.WaitUntil(() => Sun() == was, "as before");
        bench.WaitUntil(() => bench.Has("[data-amps]"), "and the path is at the play head again");
        Assert.Empty(bench.Complaints());
    }

    /// <summary>
    /// The library bus with its plug at weekends: the path is the instant at the play head. At 15:05 kettle, lift and laptops run.
    /// </summary>
    [Fact]
    public void The_path_is_the_instant_at_the_play_head()
    {
        using var bench = new Bench();
        bench.OpenDesign("Marrow", "bank");
        bench.ToPlace("Rehearse");
        Says(bench, "Dark on 7 days, 104 h in all, between 26 November and 25 December; all of it with no plug Mon to Fri");
        bench.WaitUntil(() => bench.Has("[data-testid=path-when]") && bench.Has("[data-amps]"), "the instant");
        Assert.Contains("15:05, the busiest minute of its quarter", bench.Text("[data-testid=path-when]"), StringComparison.Ordinal);
        Assert.Equal(4, bench.All("[data-amps]").Count);
        Assert.StartsWith("25.", bench.Text("[data-testid=path-volts]"), StringComparison.Ordinal);
        var amps = bench.Text("[data-amps='1']");
        // A quarter on the bank rests; the sentence for readers of the screen says the same instant.
        bench.Run("document.activeElement.blur()");
        bench.Press(Keys.ArrowRight);
        bench.WaitUntil(() => bench.Text("[data-amps='1']") != amps, "a quarter on");
        Assert.DoesNotContain("15:05", bench.Text("[data-testid=path-when]"), StringComparison.Ordinal);

        // A string that opens is drawn open at the play head.
        bench.Choose("/drop", "a string opens");
        bench.WaitUntil(() => bench.Has("rect[data-out]"), "string A is open");
        Assert.Equal("open", bench.Text("[data-amps='1']"));

        // Each sum of the year opens its working.
        bench.Click("[data-sum=cyclesPerYear]");
        Assert.Contains("equivalent full cycles", bench.Text("section[aria-label=Working]"), StringComparison.Ordinal);

        // A term that was worked out leads on, and back.
        bench.Click("[data-sum=unservedWh]");
        bench.Click("section[aria-label=Working] button.term");
        bench.WaitUntil(() => bench.Text("section[aria-label=Working]").Contains("served in the year", StringComparison.Ordinal), "deeper");
        bench.ClickText("section[aria-label=Working] button", "back");
        bench.WaitUntil(() => bench.Text("section[aria-label=Working]").Contains("missed in the year", StringComparison.Ordinal), "back");

        // What it taught is said where it belongs.
        bench.Click("button[aria-label=Undo]");
        bench.WaitUntil(() => bench.Has("[data-testid=taught]"), "taught");
        bench.ClickText("[data-testid=taught] a", "Bank");
        bench.WaitUntil(
            () => bench.Text("main h1").Contains("the year rehearsed leaves it dark", StringComparison.Ordinal),
            "its sentence"
        );
    }

    /// <summary>By lean rules the same bank is dashed beside its own; so is another build once some were found.</summary>
    [Fact]
    public void A_school_and_a_build_are_drawn_against_the_design()
    {
        using var bench = Hut();
        bench.Choose("/against", "by lean rules");
        bench.WaitUntil(() => bench.Has("[data-testid=against]"), "the dashed line");
        Assert.StartsWith("Dashed, lean rules:", bench.Text("[data-testid=against]"), StringComparison.Ordinal);
        bench.Choose("/against", "find builds");
        bench.WaitUntil(() => bench.Text("select[data-path='/against']").Contains("built:", StringComparison.Ordinal), "builds");
        bench.Choose("/against", "built:");
        bench.WaitUntil(
            () => bench.Has("[data-testid=against]") && !bench.Text("[data-testid=against]").Contains("lean", StringComparison.Ordinal),
            "a build"
        );
        Assert.True(bench.Has("path[data-against]"));
    }

    /// <summary>With a string more the hut is never dark: the dashed line, beside the design's own dark.</summary>
    [Fact]
    public void A_remedy_is_drawn_against_the_design()
    {
        using var bench = Hut();
        bench.Find("[data-remedy='a string more'] button");
        bench.Choose("/against", "with: a string more");
        bench.WaitUntil(() => bench.Has("[data-testid=against]"), "the dashed line");
        Assert.Contains("a string more: Never dark", bench.Text("[data-testid=against]"), StringComparison.Ordinal);
        Assert.True(bench.Has("path[data-against]") && bench.All("[data-dark]").Count > 0);
    }

    /// <summary>Without its server the year stays, and says that it is from before; the edit waits.</summary>
    [Fact]
    public void While_the_server_is_away_the_year_says_so()
    {
        using var bench = Hut();
        bench.Server.Kill();
        bench.Choose("/drop", "a guest");
        bench.WaitUntil(() => bench.Has("main [role=alert]"), "it is said");
        Assert.StartsWith("The server does not answer: figures are from before", bench.Text("main [role=alert]"), StringComparison.Ordinal);
        Says(bench, AsItIs);
    }

    /// <summary>
    /// How long from a move of the hand that holds a sun to the frame with the repainted fortnight. Reported, not judged, and run by those
    /// who ask: machines differ.
    /// </summary>
    [Fact(Explicit = true)]
    public void How_fast_a_sun_follows()
    {
        using var bench = new Bench();
        bench.OpenDesign("Marrow", "bank");
        bench.ToPlace("Rehearse");
        bench.WaitUntil(() => bench.Has("[data-amps]") && bench.All("[data-remedy]").Count > 12, "run");
        bench.Run(
            """
            window.moves = []
            window.times = []
            document.addEventListener('pointermove', () => moves.push(performance.now()), true)
            const follow = () => {
              const at = moves.at(-1)
              requestAnimationFrame(() => times.push(performance.now() - at))
            }
            new MutationObserver(follow).observe(document.querySelector('[data-charge]'), { attributes: true })
            """
        );
        var sun = bench.All("[data-sun]").MaxBy(e => int.Parse(e.GetAttribute("aria-valuenow")!, CultureInfo.InvariantCulture))!;
        var act = new Actions(bench.Driver).MoveToElement(sun).ClickAndHold();
        for (var n = 0; n < 20; n++)
            act = act.MoveByOffset(0, n < 10 ? 2 : -2).Pause(TimeSpan.FromMilliseconds(150));
        act.Release().Perform();
        var times = ((IReadOnlyCollection<object>)bench.Run("return times")!).Select(Convert.ToDouble).Order().ToList();
        TestContext.Current.TestOutputHelper!.WriteLine(
            $"sun to fortnight: median {times[times.Count / 2]:0} ms, worst {times[^1]:0} ms of {times.Count}"
        );
    }

    [Fact]
    public void A_risk_run_is_stopped_and_says_how_far_it_came()
    {
        using var bench = Hut();
        bench.ClickText("[data-testid=risk] button", "Run fifty years");
        bench.WaitUntil(() => bench.Text("[data-testid=risk]").Contains("of 50 years", StringComparison.Ordinal), "under way");
        bench.ClickText("[data-testid=risk] button", "Stop");
        bench.WaitUntil(() => bench.Text("[data-testid=risk]").Contains("Stopped after", StringComparison.Ordinal), "stopped");
    }

    [Fact]
    public void A_design_without_loads_says_what_is_missing()
    {
        using var bench = new Bench(seed: false);
        bench.Open();
        bench.ClickText("a", "New design");
        bench.Click("[data-start=blank]");
        bench.Find("[data-testid=headline]");
        bench.ToPlace("Rehearse");
        Says(bench, "Add the first load");
    }
}

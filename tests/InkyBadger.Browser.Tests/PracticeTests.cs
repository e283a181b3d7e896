using System.Net.Http.Json;
using System.Text.Json.Nodes;
using OpenQA.Selenium;

namespace InkyBadger.Browser.Tests;

/// <summary>Practice in the browser: pointing and saying, guesses, the walk with the meter, and the words where they stand.</summary>
public class PracticeTests
{
    private static void Open(Bench bench, string view = "find")
    {
        bench.OpenDesign("Marrow Lane", "bank");
        bench.Run("location.hash = location.hash.replace('/bank', '/practice/' + arguments[0])", view);
    }

    private static void Says(Bench bench, string headline) =>
        bench.WaitUntil(() => bench.Text("[data-testid=headline]") == headline, $"it says: {headline}");

    /// <summary>What is right of each part, asked sentence by sentence as nobody would who practises.</summary>
    private static async Task<List<(string Part, string Said)>> Answers(Bench bench, int seed, int level)
    {
        var bank = JsonNode.Parse(await bench.Server.Http.GetStringAsync($"/api/practice/bank?seed={seed}&level={level}"))!;
        var right = new List<(string, string)>();
        foreach (var part in bank["parts"]!.AsArray())
        foreach (var sentence in part!["sentences"]!.AsArray())
        {
            var (key, said) = ((string)part["key"]!, (string)sentence!["id"]!);
            var body = new JsonObject
            {
                ["key"] = "probe",
                ["seed"] = seed,
                ["level"] = level,
                ["over"] = false,
                ["answers"] = new JsonArray([
                    .. right
                        .Append((key, said))
                        .Select(a => new JsonObject
                        {
                            ["part"] = a.Item1,
                            ["said"] = a.Item2,
                            ["atS"] = 1,
                        }),
                ]),
            };
            var go = JsonNode.Parse(await (await bench.Server.Http.PostAsJsonAsync("/api/practice/go", body)).Content.ReadAsStringAsync())!;
            if ((string)go["answers"]!.AsArray()[^1]!["is"]! == "found")
                right.Add((key, said));
        }
        return right;
    }

    /// <summary>Each view, and what comes up in it; the place Practice is open.</summary>
    internal static void EachView(Bench bench, Action<string> look)
    {
        Number(bench, 7, 6);
        look("practice, two banks");
        Point(bench, "b1/main-cable");
        bench.Find("[data-testid=say-so]");
        look("practice, a part pointed at");
        Say(bench, "b1/main-cable", "in-order");
        bench.Click("[data-testid=show-left]");
        bench.Find("[data-testid=told]");
        look("practice, what was wrong");
        bench.ClickText(".views button", "guess first");
        bench.Click("[data-testid=guess]");
        bench.Press("120" + Keys.Enter);
        bench.Find("[data-testid=judged]");
        look("practice, a guess");
        bench.ClickText(".views button", "the meter walk");
        bench.Click("[data-testid=stop]");
        bench.Find("[data-testid=told]");
        look("practice, the meter walk");
        bench.ClickText(".views button", "the words");
        bench.Find("[data-testid=word]");
        look("practice, the words");
    }

    private static void Point(Bench bench, string part)
    {
        bench.Find($"[data-part='{part}']");
        bench.Run(
            "document.querySelector(`[data-part='${arguments[0]}']`).dispatchEvent(new MouseEvent('click', { bubbles: true }))",
            part
        );
    }

    private static void Say(Bench bench, string part, string said)
    {
        var before = bench.All("[data-testid=said] li").Count;
        Point(bench, part);
        bench.Click($"[data-sentence='{said}']");
        bench.Click("[data-testid=say-so]");
        bench.WaitUntil(() => bench.All("[data-testid=said] li").Count > before, $"{said} at {part} is judged");
    }

    private static void Number(Bench bench, int seed, int level)
    {
        void Stands(string bank) =>
            bench.WaitUntil(() => bench.Find("[data-testid=bank]").GetAttribute("data-bank") == bank, $"bank {bank} stands there");
        var before = bench.Find("[data-testid=bank]").GetAttribute("data-bank")!.Split('/');
        if (before[1] != $"{level}")
        {
            bench.Run(
                "const s = document.querySelector('[data-testid=level]'); s.value = "
                    + "arguments[0]; s.dispatchEvent(new Event('change', { bubbles: true }))",
                level.ToString(System.Globalization.CultureInfo.InvariantCulture)
            );
            Stands($"{before[0]}/{level}");
        }
        bench.Find("[data-testid=seed]").SendKeys($"{seed}" + Keys.Enter);
        Stands($"{seed}/{level}");
        bench.WaitUntil(() => !bench.Has("[data-testid=said]"), "nothing is said of it yet");
    }

    [Fact]
    public async Task Every_level_is_solved_by_pointing_and_saying()
    {
        using var bench = new Bench();
        Open(bench);
        // Three parts, and what to do.
        Number(bench, 40, 1);
        Says(bench, "Press what is wrong");
        Assert.Contains("findings are covered", bench.Text("[data-testid=covered]"));
        for (var level = 1; level <= 6; level++)
        {
            var answers = await Answers(bench, 40 + level, level);
            Number(bench, 40 + level, level);
            foreach (var (part, said) in answers)
                Say(bench, part, said);
            bench.WaitUntil(
                () => bench.Text("[data-testid=headline]").EndsWith("nothing overlooked", StringComparison.Ordinal),
                $"level {level} is solved"
            );
            Assert.Equal(answers.Count, bench.All("[data-flag]").Select(f => f.GetAttribute("data-flag")).Distinct().Count());
            Assert.Contains("What was wrong", bench.Text("[data-testid=told]"));
        }
        Assert.Empty(bench.Complaints());
    }

    [Fact]
    public async Task A_miss_is_shown_and_what_is_left_is_told_at_the_end()
    {
        using var bench = new Bench();
        Open(bench);
        Number(bench, 7, 3);
        var right = (await Answers(bench, 7, 3))[0];
        Says(bench, "Four things are wrong with this bank: point at one");
        // By keys alone: an arrow goes to a part, Esc lets go.
        bench.Press(Keys.ArrowRight);
        bench.WaitUntil(() => bench.Has("[data-testid=say-so]"), "a part is pointed at");
        bench.Press(Keys.Escape);
        bench.WaitUntil(() => !bench.Has("[data-testid=say-so]"), "it is let go");
        Say(bench, "b1/main-cable", "in-order");
        Say(bench, right.Part, right.Said);
        bench.WaitUntil(() => bench.Text("[data-testid=headline]").StartsWith("Right: ", StringComparison.Ordinal), "it is right");
        Assert.Contains("Right: ", bench.Text("[data-testid=shown]"));
        // The page is left and comes back to the same go.
        bench.Driver.Navigate().Refresh();
        bench.WaitUntil(() => bench.All("[data-testid=said] li").Count == 2, "the go goes on");
        bench.Click("[data-testid=show-left]");
        bench.WaitUntil(
            () => bench.Text("[data-testid=headline]").Contains("overlooked", StringComparison.Ordinal),
            "what was overlooked is told"
        );
        Assert.Equal(4, bench.All("[data-testid=told] .told li").Count);
        bench.WaitUntil(() => bench.Text("[data-testid=results]").Contains("of", StringComparison.Ordinal), "a quiet line");
        bench.Click("[data-testid=another]");
        bench.WaitUntil(() => !bench.Has("[data-testid=told]"), "another bank");
        Assert.Empty(bench.Complaints());
    }

    [Fact]
    public void A_guess_is_judged_and_the_figures_of_a_design_are_covered_until_one_is_said()
    {
        using var bench = new Bench();
        Open(bench, "guess");
        bench.WaitUntil(
            () => bench.Text("[data-testid=headline]").EndsWith("how many amperes at worst?", StringComparison.Ordinal),
            "it asks"
        );
        bench.Click("[data-testid=guess]");
        bench.Press("120" + Keys.Enter);
        Says(bench, "144.3 A: 17 % too little");
        Assert.Contains("Watts over ten at 12 V", bench.Text("[data-testid=thumb]"));
        bench.WaitUntil(
            () => bench.Text("[data-testid=working-value]").StartsWith("144.3", StringComparison.Ordinal),
            "its working is open"
        );
        bench.Click("[data-testid=next-guess]");
        bench.WaitUntil(() => bench.Text("[data-testid=headline]").Contains("mm²", StringComparison.Ordinal), "the next one");
        bench.Click("[data-testid=guess-anywhere]");
        bench.ToPlace("Path");
        bench.Run("location.hash = location.hash.replace(/[^/]*$/, 'bank')");
        var covered = bench.Find("[data-covered='/currents/bankWorstA']");
        Assert.DoesNotContain("144.3", bench.Text("h1"));
        Assert.Contains("guess", covered.Text);
        bench.Run("arguments[0].dispatchEvent(new MouseEvent('click', { bubbles: true }))", covered);
        bench.Click("[data-testid=dialog-guess]");
        bench.Press("150" + Keys.Enter);
        bench.WaitUntil(() => bench.Text("[data-testid=dialog-judged]") == "144.3 A: within a tenth", "it is judged");
        bench.ClickText("dialog[open] button", "Go on");
        bench.WaitUntil(() => !bench.Has("[data-covered='/currents/bankWorstA']"), "it stands there now");
        Assert.Empty(bench.Complaints());
    }

    [Fact]
    public void A_walk_is_gone_to_its_end_and_scored()
    {
        using var bench = new Bench();
        Open(bench, "walk");
        bench.Find("[data-testid=reading]");
        bench.Find("[data-testid=walk-seed]").SendKeys("3" + Keys.Enter);
        bench.WaitUntil(() => bench.Text("main").Contains("bank 3.", StringComparison.Ordinal), "the bank of that number");
        var calls = 0;
        while (bench.Has("[data-testid=go-on]"))
        {
            var before = bench.All("[data-testid=called] li").Count;
            bench.Click(calls++ % 3 == 2 ? "[data-testid=stop]" : "[data-testid=go-on]");
            bench.WaitUntil(() => bench.All("[data-testid=called] li").Count > before, "it is called");
        }
        Assert.InRange(calls, 8, 30);
        Assert.Contains("wrong readings caught", bench.Text("[data-testid=headline]"));
        Assert.Contains("gone past", bench.Text("[data-testid=score]"));
        Assert.Empty(bench.Complaints());
    }

    [Fact]
    public void By_phone_the_sentences_come_from_below_and_the_bank_stays()
    {
        using var bench = new Bench(width: 390, height: 844);
        Open(bench);
        Number(bench, 7, 3);
        Point(bench, "b1/main-fuse");
        bench.Find("[data-testid=say-so]");
        var below =
            (IReadOnlyList<object>)
                bench.Run(
                    """
                    const s = document.querySelector('.say').getBoundingClientRect()
                    const all = [...document.querySelectorAll('.sentence')].map((e) => e.getBoundingClientRect())
                    return [s.bottom, Math.min(...all.map((b) => b.height)), s.left, s.right - document.documentElement.clientWidth].map(Math.round)
                    """
                )!;
        Assert.Equal((844, 0, 0), (Convert.ToInt32(below[0]), Convert.ToInt32(below[2]), Convert.ToInt32(below[3])));
        Assert.True(Convert.ToInt32(below[1]) >= 48, $"a sentence is {below[1]} px high");
        bench.ClickText(".say button", "let go");
        bench.WaitUntil(() => !bench.Has("[data-testid=say-so]"), "it is let go");
        Say(bench, "b1/main-fuse", "in-order");
        // What was said is seen: the sentences are gone.
        bench.WaitUntil(() => !bench.Has("[data-testid=say-so]"), "the drawing is free again");
        Assert.StartsWith("The main fuse", bench.Text("[data-testid=said] li .w"), StringComparison.Ordinal);
        Assert.Empty(bench.Complaints());
    }

    /// <summary>A number nobody has is told, and what was looked at stays.</summary>
    [Fact]
    public void A_number_out_of_range_is_told_where_it_was_typed()
    {
        using var bench = new Bench();
        Open(bench);
        Number(bench, 7, 3);
        bench.Find("[data-testid=seed]").SendKeys("1000000" + Keys.Enter);
        bench.WaitUntil(
            () => bench.Text(".practice-sheet .foot").Contains("a number from 1 to 999,999", StringComparison.Ordinal),
            "it says which there are"
        );
        Assert.Equal("7/3", bench.Find("[data-testid=bank]").GetAttribute("data-bank"));
        Says(bench, "Four things are wrong with this bank: point at one");
        Assert.Empty(bench.Complaints());
    }

    [Fact]
    public void A_walk_waits_for_a_server_that_is_away_and_calls_once()
    {
        using var bench = new Bench();
        Open(bench, "walk");
        bench.Find("[data-testid=walk-seed]").SendKeys("3" + Keys.Enter);
        bench.WaitUntil(() => bench.Text("main").Contains("bank 3.", StringComparison.Ordinal), "the bank of that number");
        var port = bench.Server.Address.Port.ToString(System.Globalization.CultureInfo.InvariantCulture);
        bench.Server.Kill();
        bench.Click("[data-testid=go-on]");
        bench.WaitUntil(() => bench.Has("main [role=alert]"), "it says that the server is away");
        // Pressed again before it is back.
        bench.Click("[data-testid=go-on]");
        bench.WaitUntil(() => bench.Find("[data-testid=go-on]").Enabled, "it was tried");
        bench.Server.StartAgain("--port", port);
        bench.ClickText("main [role=alert] button", "try again");
        bench.WaitUntil(() => bench.All("[data-testid=called] li").Count == 1, "one call, and no more");
        Assert.False(bench.Has("main [role=alert]"));

        // Another bank that does not come: what is called is the reading one sees.
        bench.Server.Kill();
        bench.Click("[data-testid=another-walk]");
        bench.WaitUntil(() => bench.Has("main [role=alert]"), "it says so again");
        bench.Server.StartAgain("--port", port);
        bench.Click("[data-testid=go-on]");
        bench.WaitUntil(() => bench.All("[data-testid=called] li").Count == 2, "a second call");
        Assert.Contains("bank 3.", bench.Text("main"), StringComparison.Ordinal);
    }

    [Fact]
    public void A_word_opens_where_it_stands()
    {
        using var bench = new Bench();
        bench.OpenDesign("Marrow Lane", "bank");
        bench.WaitUntil(() => (long)bench.Run("return CSS.highlights.get('badger-word')?.size ?? 0")! > 0, "words have dots");
        var where =
            (IReadOnlyCollection<object>)
                bench.Run(
                    """
                    const r = [...CSS.highlights.get('badger-word')]
                      .filter(x => {
                        const b = x.getBoundingClientRect()
                        return document.elementFromPoint(b.x + b.width / 2, b.y + b.height / 2) === x.startContainer.parentElement
                      })
                      .map(x => x.getBoundingClientRect())[0]
                    return r ? [Math.round(r.x + r.width / 2), Math.round(r.y + r.height / 2)] : [];
                    """
                )!;
        var at = where.Select(Convert.ToInt32).ToList();
        Assert.Equal(2, at.Count);
        new OpenQA.Selenium.Interactions.Actions(bench.Driver).MoveToLocation(at[0], at[1]).Click().Perform();
        bench.WaitUntil(() => bench.Has("[data-testid=word]"), "the glossary is open");
        bench.Find("[data-testid=seek]").SendKeys("rate of discharge");
        bench.ClickText(".side button", "C-rate");
        bench.WaitUntil(() => bench.Text("[data-testid=here]") == "0.34 C at full load", "with the design's own figure");
        Assert.Empty(bench.Complaints());
    }
}

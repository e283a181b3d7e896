using System.Text.Json.Nodes;
using OpenQA.Selenium;

namespace InkyBadger.Browser.Tests;

/// <summary>Bringing a bank up with the meter: learnt on a made-up bank by phone, typed by hand, with the server away.</summary>
public class BringUpTests
{
    private static Bench At(string design, int width, int height)
    {
        var bench = new Bench(width: width, height: height);
        bench.OpenDesign(design, "loads");
        bench.ToPlace("Bring-up");
        bench.Find("[data-testid=kicker]");
        return bench;
    }

    private static string Kicker(Bench bench) => bench.Text("[data-testid=kicker]");

    private static void Says(Bench bench, string headline) =>
        bench.WaitUntil(() => bench.Text("[data-testid=headline]") == headline, headline);

    /// <summary>The judgement of what was just read.</summary>
    private static string Verdict(Bench bench) => bench.Text("[data-testid=verdict] h2");

    private static void Enabled(Bench bench, string testid) =>
        bench.WaitUntil(
            () => (bool)bench.Run($"return [...document.querySelectorAll('[data-testid={testid}]')].some(e => !e.disabled)")!,
            testid
        );

    /// <summary>On from the step in hand, to another.</summary>
    private static void On(Bench bench, Action act)
    {
        var before = Kicker(bench);
        act();
        bench.WaitUntil(() => Kicker(bench) != before, "another step");
    }

    /// <summary>
    /// Each step as the phone shows it, with the simulated meter: what is not in order is put right and measured again. Four faults are
    /// planted in this bank, and four steps find them.
    /// </summary>
    [Fact]
    public void A_planted_bank_is_brought_up_by_phone_and_all_its_faults_are_found()
    {
        using var bench = At("Hare’s Ledge", 390, 844);
        Plant(bench, 11, 4);
        var steps = int.Parse(Kicker(bench).Split(' ')[3], System.Globalization.CultureInfo.InvariantCulture);
        Assert.Equal(48, steps);
        var found = new List<string>();
        for (var step = 1; step <= steps; step++)
        {
            bench.WaitUntil(() => Kicker(bench).StartsWith($"step {step} of {steps}", StringComparison.Ordinal), $"step {step}");
            Assert.True(
                (long)bench.Run("return document.documentElement.scrollWidth")! <= 390,
                $"nothing reaches beyond the screen: {Kicker(bench)}"
            );
            if (bench.Has("[data-testid=done]"))
            {
                Enabled(bench, "done");
                bench.Click("[data-testid=done]");
                continue;
            }
            if (bench.Has("[data-testid=name]"))
            {
                bench.Find("[data-testid=name]").SendKeys(step == steps ? "Ben Tarn" : "Ada Hollin");
                bench.Click("[data-testid=sign]");
                continue;
            }
            if (bench.Has("[data-testid=capacity]"))
            {
                // 430 Ah on the plates: 420 in twenty hours.
                var fields = bench.All("[data-testid=capacity] .input");
                fields[0].SendKeys("420");
                fields[1].SendKeys("20");
                bench.ClickText("[data-testid=capacity] button", "Work it out");
                Assert.Equal("✓ Good", Verdict(bench).Replace("\n", " ", StringComparison.Ordinal));
                bench.Click("[data-testid=next]");
                continue;
            }
            Enabled(bench, "simulated");
            bench.Click("[data-testid=simulated]");
            Verdict(bench);
            if (bench.Has("[data-testid=again]"))
            {
                found.Add(bench.Text("[data-testid=headline]"));
                Assert.True((long)bench.Run("return document.documentElement.scrollHeight")! <= 844, $"one screen: {Kicker(bench)}");
                bench.Click("[data-testid=again]");
                Enabled(bench, "simulated");
                bench.Click("[data-testid=simulated]");
                bench.Find("[data-testid=next]");
            }
            bench.Click("[data-testid=next]");
        }
        Assert.Equal(4, found.Count);
        bench.WaitUntil(() => bench.Text("[data-testid=headline]").Contains("besides", StringComparison.Ordinal), "the last step");
        bench.Click("[data-testid=steps]");
        bench.WaitUntil(() => bench.All(".drawer .part.all").Count == bench.All(".drawer .part").Count, "every part is done");
    }

    /// <summary>Chosen in the document: the same number gives the same bank.</summary>
    private static void Plant(Bench bench, int seed, int faults)
    {
        var id = ((string)bench.Run("return location.hash")!).Split('/')[2];
        bench.Driver.ExecuteAsyncScript(
            $$"""
            const done = arguments[arguments.length - 1]
            fetch('/api/designs/{{id}}').then(async (r) => {
              const stored = await r.json()
              stored.design.bringUp = { ...stored.design.bringUp, simulated: { seed: {{seed}}, faults: {{faults}} } }
              await fetch('/api/designs/{{id}}', {
                method: 'PUT',
                headers: { 'content-type': 'application/json', 'X-Inky-Badger': 'page', 'If-Match': `"${stored.revision}"` },
                body: JSON.stringify(stored.design),
              })
              done()
            })
            """
        );
        bench.Driver.Navigate().Refresh();
        bench.Find("[data-testid=kicker]");
        bench.WaitUntil(() => bench.Has("[data-testid=done]"), "the first step");
    }

    private static void ToStep(Bench bench, string part, string step)
    {
        if (bench.Find($".left [data-part='{part}']").GetAttribute("aria-expanded") != "true")
            bench.Click($".left [data-part='{part}']");
        bench.Click($".left [data-step$='/{step}']");
    }

    private static void Types(Bench bench, string text)
    {
        bench.Find("[data-testid=meter]").SendKeys(text + Keys.Enter);
        bench.Find("[data-testid=shown]");
    }

    /// <summary>
    /// What a meter said is written as people write it; a gate that is shut opens by a reason, not by a word; a lug stands out of its
    /// siblings, and all of it is among the papers.
    /// </summary>
    [Fact]
    public void Readings_are_typed_gates_passed_with_a_reason_and_all_of_it_is_kept()
    {
        using var bench = At("Marrow Lane", 1280, 800);
        ToStep(bench, "Each unit alone", "rest-1-1");
        bench.Find("[data-testid=meter]").SendKeys("about thirteen" + Keys.Enter);
        bench.WaitUntil(() => bench.Has(".says [role=alert]"), "refused");
        bench.Find("[data-testid=meter]").SendKeys(Keys.Control + "a");
        Types(bench, "13,2");
        Says(bench, "A1 rests at 13.20 V");

        // What is being typed stays while something else is answered.
        ToStep(bench, "Each unit alone", "rest-1-2");
        bench.Find("[data-testid=meter]").SendKeys("13.21");
        bench.Find("[data-path='/bringUp/by']").SendKeys("Ada" + Keys.Tab);
        bench.WaitUntil(() => bench.Text("[data-testid=kept]").StartsWith("kept", StringComparison.Ordinal), "kept");
        bench.Find("[data-testid=meter]").SendKeys(Keys.Enter);
        Says(bench, "A2 rests at 13.21 V, within 0.05 V of A1");
        Assert.EndsWith("by Ada", bench.Text(".says"), StringComparison.Ordinal);

        // A gate.
        ToStep(bench, "Joints under load", "amps");
        Assert.False(bench.Find("[data-testid=meter]").Enabled);
        foreach (var word in new[] { "strings", "fuse" })
        {
            bench.ClickText("[data-testid=gate] button", "with a reason");
            bench.Find("#gate-reason").SendKeys("trust me");
            Assert.False(bench.Find("[data-testid=gate] .btn").Enabled);
            bench.Find("#gate-reason").SendKeys($", the {word} were seen to by the yard");
            bench.Click("[data-testid=gate] .btn");
            bench.WaitUntil(() => bench.All("#gate-reason").Count == 0, "passed");
            bench.Find($".left [data-gate$='gate-{word}']:not(.shut)");
        }
        Enabled(bench, "meter");
        Types(bench, "84,8");
        Says(bench, "84.8 A flow");
        ToStep(bench, "Joints under load", "joint-main-post-fuse-plus-2");
        bench.WaitUntil(() => Kicker(bench).EndsWith("Kettle on, 84.8 A", StringComparison.Ordinal), "at the amperes just read");
        bench.Find("[data-testid=meter]").SendKeys("0.0314 V");
        bench.WaitUntil(() => bench.Text(".says").Contains("= 31.4 mV", StringComparison.Ordinal), "what was understood");
        bench.Press(Keys.Enter);
        Says(bench, "Lug of M1+ on F1 drops 31.4 mV, where a sound joint drops 4.2");
        Assert.Contains("Loose, dirty or badly crimped", bench.Text("[data-testid=judgement]"), StringComparison.Ordinal);
        Assert.Contains("12 N m", bench.Text("[data-testid=todo]"), StringComparison.Ordinal);
        // It stands out of its siblings, and its working is open.
        bench.Find("[data-joint$='joint-main-post-fuse-plus-2'] [fill='var(--ink)']");
        bench.WaitUntil(() => bench.Text("[data-testid=working-value]").StartsWith("0.37", StringComparison.Ordinal), "31.4 ÷ 84.8");

        // Put right and measured again: both are kept, and one undo takes the last one away.
        bench.ClickText("button", "Done: measure again");
        Types(bench, "4.4");
        Says(bench, "Lug of M1+ on F1 drops 4.4 mV, where a sound joint drops 4.2");
        bench.Find("[data-testid=next]");
        bench.Run("document.activeElement.blur()");
        bench.Press(Keys.Control + "z");
        bench.Find("[data-testid=meter]");

        bench.ToPlace("Sheets");
        bench.ClickText("[role=tab]", "Record");
        var record = bench.Text("[data-testid=record]");
        Assert.Contains("13.20 V", record, StringComparison.Ordinal);
        Assert.Contains("31.4 mV at 84.8 A", record, StringComparison.Ordinal);
        Assert.Contains("trust me, the strings were seen to by the yard", record, StringComparison.Ordinal);
        bench.ClickText("button", "single files");
        bench.Find("[data-file='bring-up.csv']");
        bench.Find("[data-file='bring-up.json']");
        Assert.Empty(bench.Complaints());
    }

    /// <summary>In the van there is no network: the steps once opened go on, readings wait in their order, and are judged later.</summary>
    [Fact]
    public async Task While_the_server_is_away_readings_wait_and_are_judged_later()
    {
        using var bench = At("Marrow Lane", 390, 844);
        var id = ((string)bench.Run("return location.hash")!).Split('/')[2];
        var port = bench.Server.Address.Port.ToString(System.Globalization.CultureInfo.InvariantCulture);
        On(bench, () => bench.Click("[data-testid=done]"));
        On(bench, () => bench.Click("[data-testid=done]"));
        // Both are stored and the page knows it: an answer that is lost on its way is another matter.
        await Stored(bench, id, 2);
        bench.WaitUntil(() => bench.Text("[data-testid=kept]").StartsWith("kept", StringComparison.Ordinal), "kept");
        bench.Server.Kill();
        Types(bench, "0.04");
        bench.WaitUntil(() => bench.Text("[data-testid=meanwhile]").Contains("in order", StringComparison.Ordinal), "by its bands");
        On(bench, () => bench.Click("[data-testid=next]"));
        On(bench, () => bench.Click("[data-testid=done]"));
        Types(bench, "13.2");
        bench.WaitUntil(
            () => bench.Text("[data-testid=headline]").StartsWith("13.20 V is kept here", StringComparison.Ordinal),
            bench.Text("[data-testid=headline]")
        );
        bench.Server.StartAgain("--port", port);
        Says(bench, "A1 rests at 13.20 V");
        var stored = await Stored(bench, id, 5);
        Assert.Equal(["b1/tools", "b1/isolated", "b1/dead", "b1/look", "b1/rest-1-1"], stored.Select(e => (string)e!["step"]!));
    }

    [Fact]
    public async Task An_answer_that_is_lost_on_its_way_is_no_conflict_with_oneself()
    {
        using var bench = At("Hare’s Ledge", 1280, 800);
        var id = ((string)bench.Run("return location.hash")!).Split('/')[2];
        // The server keeps what comes and its answer never arrives, once.
        bench.Run(
            """
            const real = window.fetch
            window.lost = 0
            window.fetch = async (request, more) => {
              const answer = await real(request, more)
              if (window.lost > 0 || request.method !== 'PUT') return answer
              window.lost++
              throw new TypeError('the line was cut')
            }
            """
        );
        bench.Click("[data-testid=done]");
        bench.WaitUntil(() => (long)bench.Run("return window.lost")! == 1, "the answer is lost");
        await Stored(bench, id, 1);
        // It is sent again, found to be there already, and the next one goes its way.
        bench.WaitUntil(() => bench.Text("[data-testid=kept]").StartsWith("kept", StringComparison.Ordinal), "kept");
        Assert.False(bench.Has("dialog[open]"));
        bench.Click("[data-testid=done]");
        var stored = await Stored(bench, id, 2);
        Assert.Equal(["b1/tools", "b1/isolated"], stored.Select(e => (string)e!["step"]!));
        Assert.False(bench.Has("dialog[open]"));
    }

    private static Task<JsonArray> Stored(Bench bench, string id, int count) =>
        Bench.WaitForAsync(
            async () =>
            {
                var answer = await bench.Server.Http.GetStringAsync(new Uri($"/api/designs/{id}", UriKind.Relative));
                return JsonNode.Parse(answer)!["design"]!["bringUp"]!["entries"]!.AsArray() is var all && all.Count == count ? all : null;
            },
            $"{count} entries"
        );
}

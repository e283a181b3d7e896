using System.Net.Http.Json;
using System.Text.Json.Nodes;
using System.Text.RegularExpressions;
using InkyBadger.Tests.Shared;
using OpenQA.Selenium;

namespace InkyBadger.Browser.Tests;

/// <summary>
/// Every station, place and dialog as it is laid out, from a large screen to a small phone, by day and by night, with a long design and an
/// empty one: no text over text or over an edge, no line through letters, nothing cut off, no letters under 11 px.
/// </summary>
public class LayoutTests
{
    /// <summary>Of each way the pages are laid out (from 1200, from 940, from 480, below) the usual and the narrowest.</summary>
    private static readonly (int Width, int Height)[] Sizes = [(1920, 1080), (1280, 800), (1024, 768), (820, 1180), (390, 844), (360, 740)];

    /// <summary>By night only the grounds differ: they are looked at where the desk's layout and the phone's are.</summary>
    private static readonly int[] ByNight = [1280, 390];

    /// <summary>What is found and is as it should be, with the reason.</summary>
    private static readonly (Regex Fault, string Reason)[] Meant =
    [
        (new("letters of [0-9.]+ px: .* in paper$"), "paper at its true size: a long word on a sleeve or in a box is smaller, not cut off"),
    ];

    private static readonly string Script = File.ReadAllText(
        System.IO.Path.Combine(RunningServer.Root, "tests/InkyBadger.Browser.Tests/layout.js")
    );

    [Fact]
    public async Task Nothing_lies_over_anything_at_any_width()
    {
        using var bench = new Bench();
        bench.Driver.Manage().Timeouts().AsynchronousJavaScript = TimeSpan.FromSeconds(150);
        var found = new SortedDictionary<string, SortedSet<int>>(StringComparer.Ordinal);
        var looked = 0;
        void Look(string screen)
        {
            foreach (var (width, height) in Sizes)
            {
                bench.Resize(width, height);
                foreach (var night in ByNight.Contains(width) ? new[] { false, true } : [false])
                {
                    looked++;
                    foreach (var fault in Faults(bench, night))
                        if (!Meant.Any(m => m.Fault.IsMatch(fault)))
                        {
                            var key = $"{screen}{(night ? ", by night" : "")}: {fault}";
                            if (!found.TryGetValue(key, out var widths))
                                found[key] = widths = [];
                            widths.Add(width);
                        }
                }
            }
            bench.Resize(1280, 800);
        }

        var id = await Keep(bench, Long(await Marrow(bench)));
        foreach (var station in new[] { "loads", "voltage", "inverter", "bank", "cables", "charging", "findings", "builds", "rehearse" })
        {
            bench.Open($"#/d/{id}/{station}");
            Ready(bench, station);
            Look($"long, {station}");
            switch (station)
            {
                case "loads":
                    bench.Click("button.what");
                    bench.Find(".open-fields");
                    Look("long, a load");
                    Dialog(bench, "button", "CSV", "textarea", "Close", Look);
                    break;
                case "inverter":
                    Dialog(bench, "[data-testid=inverters] button", "Add my own", "[data-own=name]", "Leave it", Look);
                    bench.ClickText(".views button", "AC side");
                    bench.ClickText("button", "Pass-through");
                    bench.Find("[data-part=change]");
                    bench.Run("document.querySelector('[data-part=change]').dispatchEvent(new MouseEvent('click', { bubbles: true }))");
                    bench.Find("[data-testid=ac-part]");
                    Look("long, the AC side");
                    bench.ClickText(".views button", "what it holds");
                    break;
                case "bank":
                    bench.Click("[data-unit=A1]");
                    bench.Find("[data-testid=unit-menu]");
                    Look("a unit’s menu");
                    bench.ClickText(".views button", "run it down");
                    bench.Find("[data-testid=joining]");
                    bench.ClickText("summary", "Units as they really are");
                    bench.ClickText("summary", "Keep them, add to them");
                    bench.Find("[data-testid=grown]");
                    Look("long, run down");
                    bench.ClickText(".views button", "where it stands");
                    Look("long, the space it needs");
                    bench.ClickText("button", "Give it a compartment");
                    bench.Find("[data-testid=room]");
                    bench.ClickText("summary", "axles, or coupling");
                    Look("long, where it stands");
                    bench.ClickText(".views button", "banks and joins");
                    bench.ClickText("dialog[open] button", "Add a join");
                    bench.Find("[data-joined]");
                    Look("long, banks and joins");
                    bench.ClickText("dialog[open] .modal-action button", "Close");
                    bench.ClickText(".views button", "as it stands");
                    bench.ClickText("button", "Stock");
                    bench.WaitUntil(() => bench.All("[data-stock]").Count > 15, "the stock");
                    Look("the stock");
                    bench.ClickText("dialog[open] button", "Add my own");
                    foreach (var summary in new[] { "Its ratings", "More of its BMS", "Body and terminals", "Price and life" })
                        bench.ClickText("dialog[open] summary", summary);
                    Look("a unit of one’s own");
                    bench.ClickText("dialog[open] button", "Back to the stock");
                    bench.ClickText("dialog[open] button", "Close");
                    break;
                case "charging":
                    bench.ClickText(".opening summary", "When the BMS opens");
                    bench.ClickText(".tables summary", "as a table");
                    Look("long, charging with its tables");
                    bench.Click("[data-source=roof]");
                    bench.Find("dialog[open] [data-testid=array-run]");
                    bench.ClickText("dialog[open] summary", "Presets");
                    Look("a source’s fields");
                    bench.ClickText("dialog[open] button", "Close");
                    Dialog(bench, ".tools button", "Where it stands", "select", "Close", Look);
                    break;
                case "builds":
                    foreach (var (view, inside) in BuildsTests.Looks)
                    {
                        bench.ClickText(".views button", view);
                        bench.Find(inside);
                        Look($"long, builds, {view}");
                    }
                    bench.ClickText("button", "Bring in a set of prices");
                    bench.Find(".take textarea");
                    Look("long, builds, a set of prices");
                    bench.ClickText(".views button", "side by side");
                    break;
                case "cables":
                    foreach (
                        var (button, inside) in new[]
                        {
                            ("Sizes and classes", "[data-testid=sizes]"),
                            ("Schedules", "[data-testid=cut-list]"),
                            ("Add", "[data-testid=bonding]"),
                        }
                    )
                        Dialog(bench, ".dialogs button", button, inside, "Close", Look);
                    Dialog(bench, ".dialogs button", "Own tables", "select", "Close", Look);
                    bench.ClickText(".views button", "protection");
                    bench.Find("[data-testid=probe]");
                    Look("long, protection");
                    bench.ClickText(".views button", "goes dark");
                    bench.Find("[data-thing=main-fuse]");
                    Look("long, goes dark");
                    bench.ClickText(".views button", "elevation");
                    bench.Click("button[aria-label=Help]");
                    bench.Find("dialog[open] table");
                    Look("help");
                    bench.ClickText("dialog[open] button", "Close");
                    break;
            }
        }

        bench.Open($"#/d/{id}/rules/c-rate-lithium");
        bench.Find("[data-testid=rule-stem]");
        bench.WaitUntil(() => bench.Text("[data-testid=headline]").StartsWith("Cautious", StringComparison.Ordinal), "every rule is tried");
        Look("long, house rules");
        bench.ClickText(".fold button", "show");
        bench.Click("[data-rule-id=take-off] .name");
        bench.WaitUntil(
            () => bench.Text("[data-testid=rule-function]").Contains("holds here", StringComparison.Ordinal),
            "a rule of words"
        );
        Look("long, house rules, all of them");

        bench.Open($"#/d/{id}/practice");
        PracticeTests.EachView(bench, screen => Look($"long, {screen}"));

        bench.Open($"#/d/{id}/tape");
        bench.WaitUntil(() => bench.All(".entry").Count > 20, "all working");
        Look("long, all working");
        bench.Open($"#/d/{id}/summary");
        bench.Find("[data-testid=summary][data-ready=yes]");
        Look("long, the one page");
        bench.Open($"#/d/{id}/sheets");
        bench.Find("[data-testid=papers] svg");
        bench.Click("[data-row$=fuse-main]");
        bench.Find("[data-detail]");
        Look("long, sheets");
        foreach (var (tab, inside) in new[] { ("Parts", "[data-part]"), ("Cuts and labels", "[data-cuts]"), ("Settings", ".card") })
        {
            bench.ClickText("[role=tab]", tab);
            bench.Find($".page:not(.off) {inside}");
            Look($"long, sheets, {tab}");
        }

        bench.Open($"#/d/{id}/bring-up");
        bench.Find("[data-testid=done]");
        Look("long, bring-up");
        ToStep("rest-1-1");
        bench.Find("[data-testid=meter]").SendKeys("13.2" + Keys.Enter);
        bench.Find("[data-testid=shown]");
        Look("long, bring-up, a reading");
        foreach (var step in new[] { "string-1", "polarity", "joint-main-post-fuse-plus-2", "share-1", "capacity", "signed-1" })
        {
            ToStep(step);
            Look($"long, bring-up, {step}");
        }
        bench.Open($"#/d/{id}/log");
        bench.WaitUntil(() => bench.Has("[data-plan]"), "the plan's days");
        Look("long, log");

        bench.Open($"#/d/{id}/sheets");
        bench.ClickText("[role=tab]", "Record");
        bench.Find("[data-testid=record]");
        Look("long, sheets, Record");

        void ToStep(string step)
        {
            // On a narrow screen the list lies over the step.
            bench.Run("const e = document.querySelector('[data-testid=steps]'); if (e.checkVisibility()) e.click()");
            bench.WaitUntil(() => bench.Has(".order"), "the order of steps");
            bench.Run("document.querySelectorAll('.order .part[aria-expanded=false]').forEach((e) => e.click())");
            bench.Click($"[data-step$='/{step}']");
            bench.WaitUntil(
                () =>
                    (bool)
                        bench.Run(
                            $"return [...document.querySelectorAll('[data-step$=\"/{step}\"]')].some(e => e.ariaCurrent === 'step')"
                        )!,
                step
            );
        }

        bench.Open("#/new");
        bench.Click("[data-start=blank]");
        bench.Find("[data-testid=headline]");
        var empty = ((string)bench.Run("return location.hash")!).Split('/')[2];
        foreach (
            var station in new[]
            {
                "loads",
                "voltage",
                "inverter",
                "bank",
                "cables",
                "charging",
                "findings",
                "builds",
                "rehearse",
                "sheets",
                "bring-up",
                "log",
                "practice/guess",
                "practice/words",
            }
        )
        {
            bench.Open($"#/d/{empty}/{station}");
            Look($"empty, {station}");
        }
        bench.Open("#/new");
        bench.WaitUntil(() => bench.All("[data-start]").Count >= 13, "the situations");
        Look("a new design");
        bench.Open("#/shelf");
        bench.WaitUntil(() => bench.All("article").Count >= 6, "the shelf");
        Look("shelf");
        bench.Open("#/key");
        bench.Find("#device-key");
        Look("a device's key");

        Assert.True(looked > 200, $"only {looked} looks");
        Assert.True(found.Count == 0, string.Join("\n", found.Select(f => $"{string.Join(' ', f.Value)} px: {f.Key}")));
    }

    private static void Dialog(Bench bench, string css, string button, string inside, string close, Action<string> look)
    {
        bench.ClickText(css, button);
        bench.Find($"dialog[open] {inside}");
        look(button);
        bench.ClickText("dialog[open] button", close);
    }

    private static void Ready(Bench bench, string station)
    {
        if (station == "builds")
            bench.WaitUntil(
                () => bench.Text("[data-testid=progress]").Contains("worked out whole", StringComparison.Ordinal),
                "all builds worked out"
            );
        else if (station == "rehearse")
            bench.Find("[data-testid=sums]");
        else if (station == "findings")
            bench.WaitUntil(() => bench.All("[data-testid=all-findings] tbody tr").Count > 3, "findings");
        else
            bench.Find("[data-testid=working-value]");
        if (station == "voltage")
            bench.Find(".compare [data-rung]");
        if (station == "inverter")
            bench.Find("[data-inverter]");
        if (station == "charging")
            bench.Find("[data-testid=charge-line]");
    }

    private static IEnumerable<string> Faults(Bench bench, bool night) =>
        (
            (IReadOnlyCollection<object>)
                bench.Driver.ExecuteAsyncScript(
                    $$"""
                    const done = arguments[arguments.length - 1]
                    const day = document.documentElement.dataset.theme
                    if ({{(night ? "true" : "false")}}) document.documentElement.dataset.theme = 'badger-night'
                    const judge = () => { {{Script.Replace("return (() => {", "const faults = (() => {", StringComparison.Ordinal)}}
                      document.documentElement.dataset.theme = day
                      done(faults)
                    }
                    // What is measured anew after a change of size, and what gives way then, is drawn with the next frames.
                    const soon = (n) => requestAnimationFrame(() => (n > 0 ? soon(n - 1) : judge()))
                    document.fonts.ready.then(() => soon(10))
                    """
                )!
        ).Cast<string>();

    private static async Task<JsonNode> Marrow(Bench bench)
    {
        var cards = (await bench.Server.Http.GetFromJsonAsync<JsonArray>("/api/designs"))!;
        var id = (string)cards.First(c => ((string)c!["name"]!).Contains("Marrow", StringComparison.Ordinal))!["id"]!;
        return (await bench.Server.Http.GetFromJsonAsync<JsonNode>($"/api/designs/{id}"))!["design"]!;
    }

    private static async Task<string> Keep(Bench bench, JsonNode design)
    {
        var answer = await bench.Server.Http.PostAsJsonAsync("/api/designs", design);
        Assert.True(answer.IsSuccessStatusCode, await answer.Content.ReadAsStringAsync());
        return (string)(await answer.Content.ReadFromJsonAsync<JsonNode>())!["id"]!;
    }

    /// <summary>Sixty loads with long names, sixteen strings, three banks.</summary>
    private static JsonNode Long(JsonNode marrow)
    {
        var design = marrow.DeepClone();
        design["name"] = "A long one: library, workshop and clinic of Nether Hartley under one roof";
        design["demo"] = false;
        var first = design["banks"]![0]!.DeepClone();
        JsonNode Bank(string id, string name, int loads, int strings)
        {
            var bank = first.DeepClone();
            (bank["id"], bank["name"], bank["parallel"]) = (id, name, strings);
            var few = first["demand"]!["loads"]!.AsArray();
            var many = new JsonArray();
            for (var i = 0; i < loads; i++)
            {
                var load = few[i % few.Count]!.DeepClone();
                (load["id"], load["name"]) = ($"l{i + 1}", $"{load["name"]} number {i + 1} in the long room");
                many.Add(load);
            }
            bank["demand"]!["loads"] = many;
            return bank;
        }
        design["banks"] = new JsonArray(
            Bank("b1", "House and kitchen bank", 60, 16),
            Bank("b2", "Motors, lift and workshop", 12, 4),
            Bank("b3", "Standby of the clinic rooms", 5, 2)
        );
        return design;
    }
}

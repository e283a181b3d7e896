using System.Diagnostics;
using System.Text.Json.Nodes;
using System.Text.RegularExpressions;
using OpenQA.Selenium;

namespace InkyBadger.Browser.Tests;

/// <summary>What is typed is there again: whatever the server, the storage, the tab or the key does meanwhile.</summary>
public partial class NothingLostTests
{
    private const string Length = "/runs/0/lengthM";

    private static void HasLength(Bench bench, string text) =>
        bench.WaitUntil(() => bench.Find($"input[data-path='{Length}']").GetAttribute("value") == text, $"the length is {text}");

    private static void Says(Bench bench, string text) =>
        bench.WaitUntil(
            () => bench.Text("[data-testid=kept]").Contains(text, StringComparison.Ordinal),
            $"“{text}” in the title line, which says {bench.Text("[data-testid=kept]")}"
        );

    private static string Id(Bench bench) => ((string)bench.Run("return location.hash")!).Split('/')[2];

    private static async Task<JsonNode> Bank(Bench bench, string id) =>
        JsonNode.Parse(await bench.Server.Http.GetStringAsync($"/api/designs/{id}"))!["design"]!["banks"]![0]!;

    private static void Signal(Bench bench, string signal)
    {
        using var kill = Process.Start("kill", [signal, bench.Server.ProcessId.ToString()]);
        kill.WaitForExit();
    }

    /// <summary>
    /// Four hundred strings are refused by a rule across fields, which only the server knows: the length that was typed after it is kept
    /// all the same.
    /// </summary>
    [Fact]
    public async Task An_edit_that_is_refused_later_stays_with_its_reason_and_holds_up_nothing()
    {
        using var bench = new Bench();
        bench.OpenDesign("Marrow Lane", "cables");
        bench.Find(".bench[data-whole]");
        var (id, port) = (Id(bench), bench.Server.Address.Port.ToString());
        bench.Server.Kill();
        bench.Fill(Length, "3");
        bench.Run("document.activeElement.blur()");
        bench.Press("4");
        bench.Fill("/series", "30");
        bench.Fill("/parallel", "30");
        bench.Run("document.activeElement.blur()");
        bench.Press("5");
        bench.Fill(Length, "4");
        Says(bench, "not kept: server away, 4 edits waiting");
        bench.Server.StartAgain("--port", port);
        Says(bench, "not kept: 1 edit refused");
        var told = bench.Text("[data-testid=unkept]");
        Assert.Contains("parallel: 30", told, StringComparison.Ordinal);
        Assert.Contains("series times strings is 128 at most", told, StringComparison.Ordinal);
        HasLength(bench, "4 m");
        // What comes after the refused one is sent once that is set aside.
        var kept = await Bench.WaitForAsync(
            async () => await Bank(bench, id) is var now && (double)now["runs"]![0]!["lengthM"]! == 4 ? now : null,
            "4 m kept"
        );
        Assert.Equal(30, (int)kept["series"]!);
        Assert.NotEqual(30, (int?)kept["parallel"]);

        // It is still there after a reload, until it is let go.
        bench.Driver.Navigate().Refresh();
        Says(bench, "1 edit refused");
        // Tried again on what still refuses it, it is not lost either.
        bench.ClickText("[data-testid=unkept] button", "Try again");
        Says(bench, "1 edit refused");
        Assert.Contains("series times strings is 128 at most", bench.Text("[data-testid=unkept]"), StringComparison.Ordinal);
        HasLength(bench, "4 m");
        bench.ClickText("[data-testid=unkept] button", "Let it go");
        Says(bench, "kept ");
        Assert.False(bench.Has("[data-testid=unkept]"));
    }

    /// <summary>A process that is stopped takes the connection and never answers.</summary>
    [Fact]
    public async Task A_server_that_hangs_loses_none_of_five_edits_and_is_never_said_to_have_kept_them()
    {
        using var bench = new Bench();
        bench.OpenDesign("Marrow Lane", "cables");
        var id = Id(bench);
        Signal(bench, "-STOP");
        foreach (var metres in new[] { "3", "4", "5", "6", "7" })
        {
            bench.Fill(Length, metres);
            Assert.DoesNotContain("kept 1", bench.Text("[data-testid=kept]"), StringComparison.Ordinal);
        }
        // Remembered before anything is answered.
        bench.WaitUntil(
            () =>
                Equals(
                    bench.Run(
                        "return Object.entries(localStorage).filter(([k]) => k.startsWith('inky-badger.waiting.')).map(([, v]) "
                            + "=> JSON.parse(v).edits.length)[0]"
                    ),
                    5L
                ),
            "five edits are remembered"
        );
        Says(bench, "5 edits waiting");
        Assert.Contains("not kept", bench.Text("[data-testid=kept]"), StringComparison.Ordinal);
        Signal(bench, "-CONT");
        Says(bench, "kept ");
        Assert.Equal(7, (double)(await Bank(bench, id))["runs"]![0]!["lengthM"]!);
        // Each is a step of its own.
        bench.Run("document.activeElement.blur()");
        foreach (var metres in new[] { "6 m", "5 m", "4 m", "3 m", "2.5 m" })
        {
            bench.Press(Keys.Control + "z");
            HasLength(bench, metres);
        }
    }

    [Fact]
    public async Task What_is_typed_and_not_yet_committed_survives_a_reload_and_a_broken_memory_is_said()
    {
        using var bench = new Bench();
        bench.OpenDesign("Marrow Lane", "cables");
        var id = Id(bench);
        bench.Fill(Length, "6", enter: false);
        bench.Driver.Navigate().Refresh();
        HasLength(bench, "6 m");
        Says(bench, "kept ");
        Assert.Equal(6, (double)(await Bank(bench, id))["runs"]![0]!["lengthM"]!);

        bench.Run(
            "localStorage.setItem(`inky-badger.waiting.${arguments[0]}.${sessionStorage.getItem('inky-badger.window')}`, "
                + "'{\"revision\": 3, \"edits')",
            id
        );
        bench.Driver.Navigate().Refresh();
        bench.WaitUntil(
            () => bench.Text("[data-testid=unkept]").Contains("could not be read. It was set aside", StringComparison.Ordinal),
            "what was broken is said"
        );
        HasLength(bench, "6 m");
        Assert.Equal(
            "{\"revision\": 3, \"edits",
            bench.Run("return localStorage.getItem(Object.keys(localStorage).find((k) => k.startsWith('inky-badger.set-aside.')))")
        );
        bench.ClickText("[data-testid=unkept] button", "Read");
        bench.WaitUntil(() => !bench.Has("[data-testid=unkept]"), "it is read");
    }

    [Fact]
    public async Task A_storage_that_is_full_or_blocked_keeps_nobody_from_working()
    {
        using var bench = new Bench();
        bench.OpenDesign("Marrow Lane", "cables");
        var id = Id(bench);
        bench.Run(
            """
            let text = 'x'.repeat(4_000_000)
            for (let n = 0; text.length > 0; n++) {
              try { localStorage.setItem('filler' + n, text) } catch { text = text.slice(0, Math.floor(text.length / 2)) }
            }
            """
        );
        bench.Fill(Length, "6");
        Says(bench, "nothing can be remembered here: this browser’s storage is full");
        bench.WaitUntil(
            () => bench.Text("[data-testid=kept]").StartsWith("kept ", StringComparison.Ordinal),
            "the server has it all the same"
        );
        Assert.Equal(6, (double)(await Bank(bench, id))["runs"]![0]!["lengthM"]!);
        bench.Run("localStorage.clear()");

        bench.Driver.ExecuteCdpCommand(
            "Page.addScriptToEvaluateOnNewDocument",
            new()
            {
                ["source"] =
                    "for (const name of ['localStorage', 'sessionStorage']) Object.defineProperty(window, name, { get() { throw "
                    + "new DOMException('blocked', 'SecurityError') } })",
            }
        );
        bench.Driver.Navigate().Refresh();
        HasLength(bench, "6 m");
        bench.Fill(Length, "7");
        Says(bench, "nothing can be remembered here: this browser keeps nothing for this page");
        bench.WaitUntil(
            () => bench.Text("[data-testid=kept]").StartsWith("kept ", StringComparison.Ordinal),
            "the server has it all the same"
        );
        Assert.Equal(7, (double)(await Bank(bench, id))["runs"]![0]!["lengthM"]!);
    }

    /// <summary>
    /// A tab that is duplicated comes with the name of its twin; what a closed one leaves is offered at the next opening, at once.
    /// </summary>
    [Fact]
    public async Task A_twin_takes_another_name_and_what_it_leaves_is_offered()
    {
        using var bench = new Bench();
        bench.OpenDesign("Marrow Lane", "cables");
        var (id, page, port) = (Id(bench), bench.Server.Address, bench.Server.Address.Port.ToString());
        const string name = "return sessionStorage.getItem('inky-badger.window')";
        var first = (string)bench.Run(name)!;
        var window = bench.Driver.CurrentWindowHandle;
        bench.Run("window.open(location.href)");
        bench.WaitUntil(() => bench.Driver.WindowHandles.Count == 2, "the twin");
        var twin = bench.Driver.WindowHandles.First(h => h != window);
        bench.Driver.SwitchTo().Window(twin);
        HasLength(bench, "2.5 m");
        bench.WaitUntil(() => (string?)bench.Run(name) is { } mine && mine != first, "the twin has a name of its own");

        bench.Server.Kill();
        bench.Fill(Length, "9");
        Says(bench, "1 edit waiting");
        bench.Driver.Close();
        bench.Driver.SwitchTo().Window(window);
        bench.Server.StartAgain("--port", port);
        bench.Driver.Navigate().GoToUrl(new Uri(page, $"/#/d/{id}/cables"));
        bench.Driver.Navigate().Refresh();
        bench.WaitUntil(
            () => bench.Text("[data-testid=unkept]").Contains("1 edit of a window that was closed", StringComparison.Ordinal),
            "what the twin left"
        );
        HasLength(bench, "2.5 m");
        bench.ClickText("[data-testid=unkept] button", "Take up");
        HasLength(bench, "9 m");
        Says(bench, "kept ");
        Assert.Equal(9, (double)(await Bank(bench, id))["runs"]![0]!["lengthM"]!);
        Assert.False(bench.Has("[data-testid=unkept]"));
        Assert.Equal(0L, bench.Run("return Object.keys(localStorage).filter((k) => /waiting|base/.test(k)).length"));
    }

    [Fact]
    public async Task A_phone_whose_key_ended_is_told_so_and_pairs_anew_without_losing_its_edits()
    {
        using var bench = new Bench(width: 390, height: 844);
        bench.Server.Interrupt();
        var port = FreePort();
        bench.Server.StartAgain("--lan-address", "127.0.0.2", "--port", port);
        string Link() => Printed().Match(bench.Server.Said).Groups[1].Value;
        bench.Driver.Navigate().GoToUrl(Link());
        bench.WaitUntil(() => bench.All("article").Count >= 3, "the shelf");
        var id = bench.All("article").First(a => a.Text.Contains("Marrow", StringComparison.Ordinal)).GetAttribute("data-design")!;
        bench.Driver.Navigate().GoToUrl(new Uri(new Uri(Link()), $"/#/d/{id}/cables"));
        HasLength(bench, "2.5 m");
        // A new start knows no device of before.
        bench.Server.Interrupt();
        bench.Server.StartAgain("--lan-address", "127.0.0.2", "--port", port);
        bench.Fill(Length, "8");
        Says(bench, "not kept: this device is not known any more, 1 edit waiting");
        bench.ClickText("[data-testid=not-kept] button", "give the new key");
        Assert.Contains("1 edit", bench.Text("[data-testid=waits]"), StringComparison.Ordinal);
        bench.Find("#device-key").SendKeys(Link().Split("#/key/")[1] + Keys.Enter);
        HasLength(bench, "8 m");
        Says(bench, "kept ");
        Assert.Equal(8, (double)(await Bank(bench, id))["runs"]![0]!["lengthM"]!);
    }

    private static string FreePort()
    {
        using var listener = new System.Net.Sockets.TcpListener(System.Net.IPAddress.Loopback, 0);
        listener.Start();
        return ((System.Net.IPEndPoint)listener.LocalEndpoint).Port.ToString();
    }

    [GeneratedRegex(@"On a device of this network: (\S+)")]
    private static partial Regex Printed();
}

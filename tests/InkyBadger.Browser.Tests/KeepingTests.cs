using System.Net.Http.Json;
using System.Text.Json.Nodes;
using System.Text.RegularExpressions;
using OpenQA.Selenium;

namespace InkyBadger.Browser.Tests;

/// <summary>Nothing typed is lost: undo, two windows, a server that is away, files, the shelf.</summary>
public partial class KeepingTests
{
    private const string Length = "/runs/0/lengthM";

    private static string Value(Bench bench, string path) => bench.Find($"input[data-path='{path}']").GetAttribute("value")!;

    private static void HasLength(Bench bench, string text) => bench.WaitUntil(() => Value(bench, Length) == text, $"the length is {text}");

    private static void SaysKept(Bench bench, string text) =>
        bench.WaitUntil(() => bench.Text("[data-testid=kept]").Contains(text, StringComparison.Ordinal), $"“{text}” in the title line");

    private static string Id(Bench bench) => ((string)bench.Run("return location.hash")!).Split('/')[2];

    private static async Task<JsonNode> Stored(Bench bench, string id) =>
        JsonNode.Parse(await bench.Server.Http.GetStringAsync($"/api/designs/{id}"))!;

    private static async Task PutLength(Bench bench, string id, double metres)
    {
        var now = await Stored(bench, id);
        now["design"]!["banks"]![0]!["runs"]![0]!["lengthM"] = metres;
        var request = new HttpRequestMessage(HttpMethod.Put, $"/api/designs/{id}") { Content = JsonContent.Create(now["design"]) };
        request.Headers.TryAddWithoutValidation("If-Match", $"\"{now["revision"]}\"");
        (await bench.Server.Http.SendAsync(request)).EnsureSuccessStatusCode();
    }

    [Fact]
    public void Undo_and_redo_by_key_and_button_across_a_reload()
    {
        using var bench = new Bench();
        bench.OpenDesign("Marrow Lane", "cables");
        Assert.False(bench.Find("button[aria-label=Undo]").Enabled);
        bench.Fill(Length, "4");
        bench.Fill(Length, "6");
        HasLength(bench, "6 m");
        bench.WaitUntil(() => bench.Find("button[aria-label=Undo]").Enabled, "undo");

        // In a field with uncommitted text the key undoes the text, not the design.
        // All of it in one go: what is left standing for a while is committed by itself.
        var field = bench.Find($"input[data-path='{Length}']");
        field.SendKeys(Keys.Control + "a" + Keys.Null + "9" + Keys.Control + "z" + Keys.Null + Keys.Escape);
        HasLength(bench, "6 m");

        bench.Run("document.activeElement.blur()");
        bench.Press(Keys.Control + "z");
        HasLength(bench, "4 m");
        bench.Driver.Navigate().Refresh();
        HasLength(bench, "4 m");
        bench.Click("button[aria-label=Undo]");
        HasLength(bench, "2.5 m");
        bench.WaitUntil(() => !bench.Find("button[aria-label=Undo]").Enabled, "nothing more to undo");
        bench.Run("document.activeElement.blur()");
        bench.Press(Keys.Control + Keys.Shift + "z");
        HasLength(bench, "4 m");
        bench.Click("button[aria-label=Redo]");
        HasLength(bench, "6 m");
        bench.Reads("cable-area", "70 mm²");
        Assert.False(bench.Find("button[aria-label=Redo]").Enabled);
    }

    [Theory]
    [InlineData("Take theirs")]
    [InlineData("Put mine on top")]
    [InlineData("Keep mine as a copy")]
    public async Task Two_at_once_see_the_difference_and_choose(string choice)
    {
        using var bench = new Bench();
        bench.OpenDesign("Marrow Lane", "cables");
        var id = Id(bench);
        await PutLength(bench, id, 6);
        bench.Fill(Length, "3");
        var table = bench.Wait(
            d => d.FindElements(By.CssSelector("dialog[open] [data-testid=differences]")).FirstOrDefault(),
            "the differences"
        );
        bench.WaitUntil(() => table.Text.Contains("so: main cable", StringComparison.Ordinal), "what it leads to");
        Assert.Matches("length\\s+6\\s+3", table.Text);
        Assert.Contains("70 mm² 50 mm²", table.Text, StringComparison.Ordinal);
        SaysKept(bench, "not kept: changed elsewhere");

        bench.ClickText("dialog[open] button", choice);
        bench.WaitUntil(() => !bench.Has("dialog[open]"), "the choice is made");
        SaysKept(bench, "kept ");
        HasLength(bench, choice == "Take theirs" ? "6 m" : "3 m");
        var stored = (double)(await Stored(bench, id))["design"]!["banks"]![0]!["runs"]![0]!["lengthM"]!;
        Assert.Equal(choice == "Put mine on top" ? 3 : 6, stored);
        if (choice == "Keep mine as a copy")
        {
            Assert.NotEqual(id, Id(bench));
            Assert.Equal("Marrow Lane library bus, mine", bench.Find("#design-name").GetAttribute("value"));
        }
    }

    [Fact]
    public async Task While_the_server_is_away_edits_wait_and_are_sent_in_order()
    {
        using var bench = new Bench();
        bench.OpenDesign("Marrow Lane", "cables");
        var (id, page) = (Id(bench), bench.Server.Address);
        var port = page.Port.ToString();
        bench.Server.Kill();
        bench.Fill(Length, "3");
        SaysKept(bench, "not kept: server away, 1 edit waiting");
        bench.Fill(Length, "4");
        SaysKept(bench, "2 edits waiting");
        HasLength(bench, "4 m");
        bench.Server.StartAgain("--port", port);
        SaysKept(bench, "kept ");
        Assert.Equal(4, (double)(await Stored(bench, id))["design"]!["banks"]![0]!["runs"]![0]!["lengthM"]!);
        // The figures catch up, and each edit is a step of its own.
        bench.WaitUntil(() => !bench.Has("main [role=alert]"), "no trouble any more");
        bench.Run("document.activeElement.blur()");
        bench.Press(Keys.Control + "z");
        HasLength(bench, "3 m");

        // Also across leaving the page: what waited is sent when it is opened again.
        bench.Server.Kill();
        bench.Fill(Length, "7");
        SaysKept(bench, "1 edit waiting");
        bench.Driver.Navigate().GoToUrl("about:blank");
        bench.Server.StartAgain("--port", port);
        // The browser keeps what waits by the address it knew the server by.
        bench.Driver.Navigate().GoToUrl(new Uri(page, $"/#/d/{id}/cables"));
        HasLength(bench, "7 m");
        SaysKept(bench, "kept ");
        Assert.Equal(7, (double)(await Stored(bench, id))["design"]!["banks"]![0]!["runs"]![0]!["lengthM"]!);
    }

    [Fact]
    public void The_shelf_finds_copies_renames_and_gives_back()
    {
        using var bench = new Bench();
        bench.Open("#/shelf");
        int Cards() => bench.All("article[data-design]").Count;
        bench.WaitUntil(() => Cards() >= 3, "the demo designs");
        var all = Cards();
        bench.Find("#shelf-search").SendKeys("clinic 48");
        bench.WaitUntil(() => Cards() == 1, "one fits the search");
        bench.ClickText("article footer button", "Copy");
        bench.WaitUntil(() => Cards() == 2, "a copy");
        Assert.Contains("Pell Street clinic standby, copy", bench.Text(".cards"), StringComparison.Ordinal);

        bench.ClickText("article footer button", "Rename");
        bench.Find("input[aria-label='New name']").SendKeys(Keys.Control + "a" + Keys.Null + "Clinic in 48 V, second" + Keys.Enter);
        bench.WaitUntil(() => bench.Text(".cards").Contains("Clinic in 48 V, second", StringComparison.Ordinal), "the new name");
        bench.ClickText("article footer button", "Delete");
        bench.WaitUntil(() => Cards() == 1, "it is gone");
        bench.ClickText("p.told button", "Undo");
        bench.WaitUntil(() => Cards() == 2, "it is back");
        bench.ClickText("article footer button", "Delete");
        bench.WaitUntil(() => Cards() == 1, "gone again");
        bench.ClickText("main button", "the bin");
        bench.WaitUntil(() => Cards() == 1 && bench.Text(".cards").Contains("Back to the shelf", StringComparison.Ordinal), "the bin");
        bench.ClickText("article footer button", "Back to the shelf");
        bench.WaitUntil(() => Cards() == 0, "the bin is empty");
        bench.ClickText("main button", "to the shelf");
        bench.Find("#shelf-search").SendKeys(Keys.Control + "a" + Keys.Delete);
        bench.WaitUntil(() => Cards() == all + 1, "the whole shelf");

        new OpenQA.Selenium.Support.UI.SelectElement(bench.Find("#shelf-sort")).SelectByValue("voltage");
        bench.WaitUntil(() => bench.All("article").First().Text.Contains("Hare", StringComparison.Ordinal), "the 12 V design first");
    }

    [Fact]
    public void A_shelf_whose_server_was_away_fills_by_itself()
    {
        using var bench = new Bench();
        bench.Open("#/shelf");
        bench.WaitUntil(() => bench.All("article").Count >= 3, "the demo designs");
        var port = bench.Server.Address.Port.ToString();
        bench.Server.Kill();
        bench.ClickText("main button", "the bin");
        bench.WaitUntil(() => bench.Has("main [role=alert]"), "it is said");
        Assert.Equal("The server does not answer.", bench.Text("main [role=alert]"));
        bench.Server.StartAgain("--port", port);
        bench.WaitUntil(() => !bench.Has("main [role=alert]") && !bench.Has("article"), "the empty bin");
    }

    /// <summary>What hands out everything is asked for by the page, with its header, and saved under the name the server gives.</summary>
    [Fact]
    public void The_backup_and_the_zip_are_saved_by_a_press()
    {
        using var bench = new Bench();
        var folder = Directory.CreateTempSubdirectory("inky-badger-saved-").FullName;
        bench.Driver.ExecuteCdpCommand("Browser.setDownloadBehavior", new() { ["behavior"] = "allow", ["downloadPath"] = folder });
        bench.Open("#/shelf");
        bench.WaitUntil(() => bench.All("article").Count >= 3, "the shelf");
        bench.ClickText("main header button", "All as a zip");
        bench.WaitUntil(() => File.Exists(Path.Combine(folder, "inky-badger-designs.zip")), "the zip");
        bench.ClickText("main header button", "Back up");
        bench.WaitUntil(() => Directory.GetFiles(folder, "inky-badger-2*.db").Length == 1, "the backup");
        bench.WaitUntil(() => new FileInfo(Directory.GetFiles(folder, "inky-badger-2*.db")[0]).Length > 20_000, "all of it");
        Assert.DoesNotContain(bench.Complaints(), c => c.Contains("Content Security", StringComparison.OrdinalIgnoreCase));
        Directory.Delete(folder, recursive: true);
    }

    [Fact]
    public async Task Files_come_in_by_choosing_and_by_dropping_and_bad_ones_say_why()
    {
        using var bench = new Bench();
        bench.Open("#/shelf");
        bench.WaitUntil(() => bench.All("article").Count >= 3, "the demo designs");
        var count = bench.All("article").Count;
        var text = (await Stored(bench, bench.Find("article").GetAttribute("data-design")!))["design"]!;
        var folder = Directory.CreateTempSubdirectory("inky-badger-files-").FullName;
        text["name"] = "From a file";
        File.WriteAllText(Path.Combine(folder, "good.json"), text.ToJsonString());
        bench.Find("input[type=file]").SendKeys(Path.Combine(folder, "good.json"));
        bench.WaitUntil(() => bench.All("article").Count == count + 1, "the file is in");

        text["name"] = "Dropped";
        bench.Run(
            """
            const files = new DataTransfer()
            files.items.add(new File([arguments[0]], 'dropped.json', { type: 'application/json' }))
            document.querySelector('main').dispatchEvent(new DragEvent('drop', { bubbles: true, cancelable: true, dataTransfer: files }))
            """,
            text.ToJsonString()
        );
        bench.WaitUntil(() => bench.Text(".cards").Contains("Dropped", StringComparison.Ordinal), "the dropped file is in");

        text["banks"]![0]!["demand"]!["loads"]![0]!["duty"] = 4;
        File.WriteAllText(Path.Combine(folder, "bad.json"), text.ToJsonString());
        bench.Find("input[type=file]").SendKeys(Path.Combine(folder, "bad.json"));
        var told = bench.Text("[data-testid=import-faults]");
        Assert.Contains("bad.json was not taken in; nothing was changed.", told, StringComparison.Ordinal);
        Assert.Contains("/banks/0/demand/loads/0/duty must be 1 or less", told, StringComparison.Ordinal);
        Assert.Equal(count + 2, bench.All("article").Count);
        Directory.Delete(folder, recursive: true);
    }

    [Fact]
    public void A_phone_of_the_network_is_let_in_by_the_printed_link()
    {
        using var bench = new Bench(width: 390, height: 844);
        bench.Server.Interrupt();
        bench.Server.StartAgain("--lan-address", "127.0.0.2");
        var link = Printed().Match(bench.Server.Said).Groups[1].Value;
        bench.Driver.Navigate().GoToUrl(link.Split('#')[0]);
        bench.Find("#device-key");
        bench.Driver.Navigate().GoToUrl(link);
        bench.WaitUntil(() => bench.All("article").Count >= 3, "the shelf");
        bench.Driver.Navigate().Refresh();
        bench.WaitUntil(() => bench.All("article").Count >= 3, "the device stays known");
    }

    [GeneratedRegex(@"On a device of this network: (\S+)")]
    private static partial Regex Printed();
}

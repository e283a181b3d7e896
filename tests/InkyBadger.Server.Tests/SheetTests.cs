using System.IO.Compression;
using System.Net;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json.Nodes;
using System.Xml.Linq;
using CsvHelper;
using InkyBadger.Core.Design;
using InkyBadger.Core.Sheets;
using InkyBadger.Core.Trials;
using InkyBadger.Tests.Shared;

namespace InkyBadger.Server.Tests;

/// <summary>Everything as a zip, read by readers that know nothing of the product.</summary>
public class SheetTests
{
    private static async Task<(string Id, DesignDocument Design)> Bus(RunningServer server)
    {
        var list = JsonNode.Parse(await server.Http.GetStringAsync("/api/designs"))!.AsArray();
        var id = (string)list.Single(d => ((string)d!["name"]!).StartsWith("Marrow", StringComparison.Ordinal))!["id"]!;
        var text = JsonNode.Parse(await server.Http.GetStringAsync($"/api/designs/{id}"))!["design"]!.ToJsonString();
        return (id, DesignFormat.Read(text));
    }

    private static List<string[]> Rows(byte[] csv)
    {
        // Spreadsheets know UTF-8 by its mark.
        Assert.Equal([0xEF, 0xBB, 0xBF], csv.Take(3));
        using var reader = new CsvReader(
            new StringReader(Encoding.UTF8.GetString(csv.AsSpan(3))),
            System.Globalization.CultureInfo.InvariantCulture
        );
        var rows = new List<string[]>();
        while (reader.Read())
            rows.Add([.. Enumerable.Range(0, reader.Parser.Count).Select(i => reader.GetField(i)!)]);
        Assert.All(rows, r => Assert.Equal(rows[0].Length, r.Length));
        return rows;
    }

    [Fact]
    public async Task Everything_comes_as_one_zip_that_others_read()
    {
        using var server = RunningServer.Fresh();
        var (id, design) = await Bus(server);
        var answer = await server.Http.GetAsync($"/api/designs/{id}/sheets.zip");
        answer.EnsureSuccessStatusCode();
        Assert.Equal("marrow-lane-library-bus-sheets.zip", answer.Content.Headers.ContentDisposition!.FileName);
        using var zip = new ZipArchive(await answer.Content.ReadAsStreamAsync());
        byte[] File(string name)
        {
            using var from = zip.GetEntry(name)!.Open();
            var to = new MemoryStream();
            from.CopyTo(to);
            return to.ToArray();
        }
        var names = zip.Entries.Select(e => e.FullName).Order(StringComparer.Ordinal).ToList();
        Assert.Contains("labels-1.svg", names);
        Assert.Equal(
            [
                "bank.cir",
                "copper.csv",
                "cuts.csv",
                "design.json",
                "everything.html",
                "fuses.csv",
                "labels.csv",
                "parts.csv",
                "settings.csv",
                "supplier.txt",
                "walk-through.txt",
            ],
            names.Where(n => !n.EndsWith(".svg", StringComparison.Ordinal))
        );
        Assert.Equal(JsonNode.Parse(DesignFormat.Write(design))!.ToJsonString(), JsonNode.Parse(File("design.json"))!.ToJsonString());
        var parts = PartsList.Work(design);
        var rows = Rows(File("parts.csv"));
        Assert.Equal(parts.Parts.Select(p => p.Name).Order(), rows.Skip(1).Select(r => r[2]).Order());
        Assert.Contains("Cable 50 mm², red", rows.Select(r => r[2]));
        var cuts = Schedules.Work(design, 0)!;
        Assert.Equal(cuts.Cables.Select(c => c.Label), Rows(File("cuts.csv")).Skip(1).Select(r => r[0]));
        Assert.Equal(cuts.Fuses.Count + 1, Rows(File("fuses.csv")).Count);
        Assert.Equal(cuts.Cables.Select(c => c.Label), Rows(File("labels.csv")).Skip(1).Select(r => r[0]));
        Assert.True(Rows(File("settings.csv")).Count > 10);
        Assert.Contains("wiring-1.svg", names);
        // All sleeves on the label sheets, each as often as it is stuck on.
        XNamespace svg = "http://www.w3.org/2000/svg";
        var texts = zip
            .Entries.Where(e =>
                e.FullName.StartsWith("labels-", StringComparison.Ordinal) && e.FullName.EndsWith(".svg", StringComparison.Ordinal)
            )
            .SelectMany(e => XDocument.Parse(Encoding.UTF8.GetString(File(e.FullName))).Descendants(svg + "text"))
            .Select(t => t.Value)
            .ToList();
        foreach (var sleeve in LabelsResult.Work(design).Sleeves.GroupBy(s => s.Tag))
            Assert.Equal(sleeve.Sum(s => s.Count), texts.Count(t => t == sleeve.Key));
        // Readable without scripts, every part on it.
        var html = Encoding.UTF8.GetString(File("everything.html"));
        Assert.DoesNotContain("<script", html, StringComparison.Ordinal);
        foreach (var part in parts.Parts)
            Assert.Contains(WebUtility.HtmlEncode(part.Name), html, StringComparison.Ordinal);
        Assert.Equal(WalkThrough.Text(design), Encoding.UTF8.GetString(File("walk-through.txt")));
        Assert.Equal(SupplierBrief.Text(design), Encoding.UTF8.GetString(File("supplier.txt")));
        Assert.Equal(Netlist.Of(design, 0), Encoding.UTF8.GetString(File("bank.cir")));
        // Each can be had alone, and the papers name them all.
        foreach (var name in names)
        {
            var one = await server.Http.GetAsync($"/api/designs/{id}/sheets/{name}");
            Assert.Equal(File(name), await one.Content.ReadAsByteArrayAsync());
            Assert.Equal($"marrow-lane-library-bus-{name}", one.Content.Headers.ContentDisposition!.FileName);
        }
        Assert.Equal(HttpStatusCode.NotFound, (await server.Http.GetAsync($"/api/designs/{id}/sheets/none.csv")).StatusCode);
        var papers = await server.Http.PostAsJsonAsync("/api/sheets?revision=7&day=2026-11-28", JsonNode.Parse(DesignFormat.Write(design)));
        var answer2 = JsonNode.Parse(await papers.Content.ReadAsStringAsync())!;
        Assert.Equal(names, answer2["files"]!.AsArray().Select(f => (string)f!).Order(StringComparer.Ordinal));
        Assert.Equal("7, 28 Nov 2026", (string)answer2["revision"]!);
        Assert.StartsWith("Do not connect the bank", (string)answer2["ledger"]!["headline"]!, StringComparison.Ordinal);
    }

    private static async Task<JsonNode> ReadBack(RunningServer server, JsonNode design, string csv)
    {
        var answer = await server.Http.PostAsJsonAsync(
            "/api/sheets/list",
            new JsonObject { ["design"] = design.DeepClone(), ["csv"] = csv }
        );
        answer.EnsureSuccessStatusCode();
        return JsonNode.Parse(await answer.Content.ReadAsStringAsync())!;
    }

    /// <summary>
    /// The lists come back: as they went out they change nothing; filled in by a spreadsheet of another country they bring what was
    /// written, and a line that cannot be is given back with its reason.
    /// </summary>
    [Fact]
    public async Task Lists_are_read_back()
    {
        using var server = RunningServer.Fresh();
        var (id, design) = await Bus(server);
        var document = JsonNode.Parse(DesignFormat.Write(design))!;
        using var zip = new ZipArchive(await server.Http.GetStreamAsync($"/api/designs/{id}/sheets.zip"));
        string Text(string name)
        {
            using var reader = new StreamReader(zip.GetEntry(name)!.Open());
            return reader.ReadToEnd();
        }
        foreach (var name in new[] { "parts.csv", "copper.csv", "settings.csv" })
        {
            var same = await ReadBack(server, document, Text(name));
            Assert.Empty(same["changes"]!.AsArray());
            Assert.Empty(same["bad"]!.AsArray());
            Assert.Equal(Text(name).Split('\n', StringSplitOptions.RemoveEmptyEntries).Length - 1, (int)same["read"]!);
        }

        const string Head = "part;fitted;fitted on;proven;why proven;paid;key\n";
        var filled = await ReadBack(
            server,
            document,
            Head
                + "Main fuse;1;2026-11-29;;;62,50;b1/fuse-main\n"
                + "Shunt;;;1;0,2 mV at 20 A;;b1/monitor\n"
                + "nobody's;1;;;;;b1/none\n"
                + "too many;3;;;;;b1/switch\n"
                + "no day;1;29.11.2026;;;;b1/source-roof\n"
                + "no reason;;;1;;;b1/source-engine\n"
        );
        Assert.Equal((2, 4), ((int)filled["read"]!, filled["bad"]!.AsArray().Count));
        Assert.Equal(
            ["the design has no part", "where the design has 1", "is no day", "not said"],
            new[] { "the design has no part", "where the design has 1", "is no day", "not said" }.Where(
                (words, i) => ((string)filled["bad"]![i]!["reason"]!).Contains(words, StringComparison.Ordinal)
            )
        );
        var changes = filled["changes"]!.AsArray().Select(c => c!.ToJsonString()).ToList();
        Assert.Contains(changes, c => c.Contains("62.5", StringComparison.Ordinal));
        Assert.Contains(changes, c => c.Contains("0,2 mV at 20 A", StringComparison.Ordinal));
        Assert.All(filled["changes"]!.AsArray(), c => Assert.StartsWith("/ledger/", (string)c!["path"]!, StringComparison.Ordinal));

        var settings = await ReadBack(
            server,
            document,
            "device,setting,set,meter,date,key\nRoof,absorption,yes,28.38,2026-11-29,b1/roof/absorbV\n"
        );
        Assert.StartsWith("/banks/0/sources/0/settings/absorbV", (string)settings["changes"]![0]!["path"]!, StringComparison.Ordinal);
        Assert.Contains("28.38", settings["changes"]!.ToJsonString(), StringComparison.Ordinal);

        foreach (var none in new[] { "", "a,b\n1,2\n" })
            Assert.Single((await ReadBack(server, document, none))["bad"]!.AsArray());
        var refused = await server.Http.PostAsJsonAsync("/api/sheets/list", new JsonObject { ["csv"] = "x" });
        Assert.Equal(HttpStatusCode.BadRequest, refused.StatusCode);
    }

    /// <summary>A name that a spreadsheet would run stays a word; an empty design has its papers too; of none there are none.</summary>
    [Fact]
    public async Task Odd_designs_have_papers_too()
    {
        using var server = RunningServer.Fresh(seeded: false);
        var odd = NewDesign.Empty("=cmd|' /C calc'!A0 <b>&");
        var stored = await server.Http.PostAsJsonAsync("/api/designs", JsonNode.Parse(DesignFormat.Write(odd)));
        stored.EnsureSuccessStatusCode();
        var id = (string)JsonNode.Parse(await stored.Content.ReadAsStringAsync())!["id"]!;
        using var zip = new ZipArchive(await server.Http.GetStreamAsync($"/api/designs/{id}/sheets.zip"));
        using var html = new StreamReader(zip.GetEntry("everything.html")!.Open());
        Assert.Contains("&lt;b&gt;&amp;", await html.ReadToEndAsync(), StringComparison.Ordinal);
        Assert.Null(zip.GetEntry("bank.cir"));
        Assert.Equal(HttpStatusCode.NotFound, (await server.Http.GetAsync("/api/designs/nothing/sheets.zip")).StatusCode);
        var parts = await server.Http.PostAsJsonAsync("/api/sheets/parts", JsonNode.Parse(DesignFormat.Write(odd)));
        Assert.Equal(0, (double)JsonNode.Parse(await parts.Content.ReadAsStringAsync())!["sum"]!);
    }
}

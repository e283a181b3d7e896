using System.Net;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json.Nodes;
using InkyBadger.Tests.Shared;

namespace InkyBadger.Server.Tests;

/// <summary>Protection in time, what goes dark, own tables and the AC side over the wire.</summary>
public class ProtectionTests
{
    private static async Task<JsonNode> Post(RunningServer server, string path, JsonObject document)
    {
        var answer = await server.Http.PostAsJsonAsync(path, document);
        Assert.Equal(HttpStatusCode.OK, answer.StatusCode);
        return JsonNode.Parse(await answer.Content.ReadAsStringAsync())!;
    }

    [Fact]
    public async Task A_run_and_the_short_that_is_looked_at()
    {
        using var server = RunningServer.Fresh(seeded: false);
        var chart = await Post(server, "/api/cables/protection?run=source-shore&amps=3000", Documents.Bus);
        Assert.Equal((3000.0, 40.0), ((double)chart["probe"]!["amps"]!, (double)chart["own"]!["ratingA"]!));
        Assert.Equal(6, chart["tabs"]!.AsArray().Count);
        var near = await Post(server, "/api/cables/protection?run=source-shore&metres=0", Documents.Bus);
        Assert.Equal((double)near["shortA"]!, (double)near["probe"]!["amps"]!, 6);
        foreach (var nothing in new[] { "run=none", "run=none&amps=-4" })
            Assert.Equal(
                HttpStatusCode.NoContent,
                (await server.Http.PostAsJsonAsync($"/api/cables/protection?{nothing}", Documents.Bus)).StatusCode
            );
        Assert.Equal(
            HttpStatusCode.BadRequest,
            (await server.Http.PostAsJsonAsync("/api/cables/protection?amps=much", Documents.Bus)).StatusCode
        );
        var dark = await Post(server, "/api/cables/dark", Documents.Bus);
        Assert.Contains(dark["elements"]!.AsArray(), e => (string)e!["id"]! == "inverter" && e["lost"]!.AsArray().Count == 5);
    }

    [Theory]
    [InlineData("size,ampacity_a\n6 mm²,52\n10 mm²,\"70 A\"", "ampacities", 2, 0)]
    [InlineData("Size;Ampacity A\n6 mm²;52,5\n10 mm²;none", "ampacities", 1, 1)]
    [InlineData("multiple,least_s,most_s\n8,10 ms,0.02\n1.4,200,500", "curve", 2, 0)]
    [InlineData("multiple,typical_s\n2,30", "curve", 1, 0)]
    [InlineData("size,area_mm2,milliohm_per_m\n22 mm²,22,0.82\n23 mm²,23,", "conductors", 1, 1)]
    [InlineData("size,length_m\n50 mm²,4.5\n50 mm²,-1", "drawer", 1, 1)]
    [InlineData("colour,taste\nred,sour", "curve", 0, 1)]
    [InlineData("", "curve", 0, 1)]
    public async Task A_table_as_CSV_is_told_by_its_columns(string csv, string list, int good, int bad)
    {
        using var server = RunningServer.Fresh(seeded: false);
        var answer = await server.Http.PostAsync("/api/cables/tables/csv", new StringContent(csv, Encoding.UTF8, "text/csv"));
        var read = JsonNode.Parse(await answer.Content.ReadAsStringAsync())!;
        Assert.Equal((good, bad), (read[list]!.AsArray().Count, read["bad"]!.AsArray().Count));
        if (list == "curve" && good == 2)
            // In the order of the currents, whatever the file's.
            Assert.Equal((1.4, 0.01), ((double)read["curve"]![0]!["multiple"]!, (double)read["curve"]![1]!["leastS"]!));
        if (list == "curve" && good == 1)
            Assert.Equal((10.0, 90.0), ((double)read["curve"]![0]!["leastS"]!, (double)read["curve"]![0]!["mostS"]!));
    }

    [Fact]
    public async Task Own_tables_are_kept_named_on_the_papers_and_refused_by_their_place()
    {
        using var server = RunningServer.Fresh(seeded: false);
        var tables = JsonNode.Parse(
            """
            { "practices": [ { "id": "own-flex", "label": "Flexible", "source": "a sheet", "insulationC": 90, "referenceC": 30,
              "rows": [ { "size": "6 mm²", "ampacityA": 50 }, { "size": "50 mm²", "ampacityA": 240 } ] } ], "practice": "own-flex",
              "drawer": [ { "size": "50 mm²", "lengthM": 6 } ] }
            """
        );
        var document = Documents.Bus.With("/tables", tables);
        var (id, _) = await server.Keep(document);
        var sheets = await Post(server, "/api/sheets", document);
        Assert.Contains(sheets["tables"]!.AsArray(), t => ((string)t!).Contains("“Flexible”: a sheet", StringComparison.Ordinal));
        var kept = await (await server.Http.GetAsync($"/api/designs/{id}")).Json();
        Assert.Contains("own-flex", kept.ToJsonString());
        var drawer = await Post(server, "/api/cables/drawer", document);
        Assert.Equal("50 mm²", (string)drawer["rows"]![0]!["have"]!);
        var hot = document.With("/tables/practices/0/insulationC", 80);
        var refused = await server.Http.PostAsJsonAsync("/api/evaluate", hot);
        Assert.Equal(HttpStatusCode.BadRequest, refused.StatusCode);
        Assert.Contains("/tables/practices/0/insulationC", await refused.Content.ReadAsStringAsync());
    }

    [Fact]
    public async Task The_AC_side_is_started_tried_and_drawn_on_the_papers()
    {
        using var server = RunningServer.Fresh(seeded: false);
        Assert.Equal(HttpStatusCode.NoContent, (await server.Http.PostAsJsonAsync("/api/ac", Documents.Bus)).StatusCode);
        Assert.Equal(HttpStatusCode.BadRequest, (await server.Http.PostAsJsonAsync("/api/ac/start?kind=magic", Documents.Bus)).StatusCode);
        var start = await Post(server, "/api/ac/start?kind=separate-panel", Documents.Bus);
        var document = Documents.Bus.With("/acSide", start);
        var board = await Post(server, "/api/ac", document);
        Assert.Equal(3, (int)board["count"]!);
        var sheets = await Post(server, "/api/sheets", document);
        var drawn = sheets["drawing"]!["sheets"]!.AsArray().Single(s => (string)s!["title"]! == "the AC side");
        Assert.Contains("Selector", (string)drawn!["svg"]!);
        Assert.Contains("mains / off / inverter", (string)drawn["svg"]!);
    }
}

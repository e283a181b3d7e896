using System.Net;
using System.Net.Http.Json;
using System.Text.Json.Nodes;
using InkyBadger.Tests.Shared;

namespace InkyBadger.Server.Tests;

/// <summary>Trials, house rules and lists of cables over the wire, and the lists as CSV.</summary>
public class CableTests
{
    private static async Task<JsonNode> Post(RunningServer server, string path)
    {
        var answer = await server.Http.PostAsJsonAsync("/api/cables/" + path, Documents.Bus);
        Assert.Equal(HttpStatusCode.OK, answer.StatusCode);
        return JsonNode.Parse(await answer.Content.ReadAsStringAsync())!;
    }

    [Fact]
    public async Task Sizes_are_tried_on_the_run_that_is_named()
    {
        using var server = RunningServer.Fresh(seeded: false);
        var main = await Post(server, "trials");
        Assert.Equal("main", (string)main["run"]!);
        Assert.Equal("50 mm²", (string)main["sizes"]!.AsArray().Single(s => (bool)s!["here"]!)!["size"]!);
        var lights = await Post(server, "trials?run=load-l5");
        Assert.Equal(
            (8.0, "4 mm²"),
            ((double)lights["designA"]!, (string)lights["sizes"]!.AsArray().Single(s => (bool)s!["here"]!)!["size"]!)
        );
        Assert.Equal(
            HttpStatusCode.NoContent,
            (await server.Http.PostAsJsonAsync("/api/cables/trials?run=nothing", Documents.Bus)).StatusCode
        );
        Assert.Equal(HttpStatusCode.BadRequest, (await server.Http.PostAsJsonAsync("/api/cables/trials?bank=4", Documents.Bus)).StatusCode);
    }

    [Fact]
    public async Task Lists()
    {
        using var server = RunningServer.Fresh(seeded: false);
        var lists = await Post(server, "schedules");
        Assert.Equal("Main fuse", (string)lists["fuses"]![0]!["name"]!);
        Assert.Equal("M1+", (string)lists["cables"]![0]!["label"]!);
    }

    /// <summary>Every new field of a run passes the schema, comes back as it was, and is refused beyond its range by name.</summary>
    [Theory]
    [InlineData("conductorLengthsM", "[2, 3]", null)]
    [InlineData("insulation", "\"thermosetting\"", null)]
    [InlineData("dropLimit", "0.05", null)]
    [InlineData("busM", "1.2", null)]
    [InlineData("shuntM", "0.3", null)]
    [InlineData("busRatingA", "250", null)]
    [InlineData("preCharge", "true", null)]
    [InlineData("switch", """{ "ratingA": 275, "maxDcV": 48, "atM": 0.5, "absent": false }""", null)]
    [InlineData("dropLimit", "2", "/banks/0/runs/0/dropLimit")]
    [InlineData("busM", "-1", "/banks/0/runs/0/busM")]
    [InlineData("insulation", "\"wool\"", "/banks/0/runs/0/insulation")]
    [InlineData("conductorLengthsM", "[0]", "/banks/0/runs/0/conductorLengthsM/0")]
    [InlineData("switch", """{ "colour": "red" }""", "/banks/0/runs/0/switch/colour")]
    public async Task Fields_of_a_run(string field, string value, string? refusedAt)
    {
        using var server = RunningServer.Fresh(seeded: false);
        var answer = await server.Http.PostAsJsonAsync(
            "/api/designs",
            Documents.Bus.With("/banks/0/runs/0/" + field, JsonNode.Parse(value))
        );
        var text = await answer.Content.ReadAsStringAsync();
        if (refusedAt is not null)
        {
            Assert.Equal(HttpStatusCode.BadRequest, answer.StatusCode);
            Assert.Contains(refusedAt, text, StringComparison.Ordinal);
            return;
        }
        Assert.Equal(HttpStatusCode.Created, answer.StatusCode);
        Assert.True(JsonNode.DeepEquals(JsonNode.Parse(value), JsonNode.Parse(text)!["design"]!["banks"]![0]!["runs"]![0]![field]));
    }

    [Fact]
    public async Task Lists_as_CSV_name_their_columns_and_are_no_formulas()
    {
        using var server = RunningServer.Fresh(seeded: false);
        var (id, _) = await server.Keep(Documents.Bus.With("/banks/0/demand/loads/4/name", "=HYPERLINK(1)"));
        var fuses = await server.Http.GetAsync($"/api/designs/{id}/fuses.csv");
        Assert.Equal("text/csv", fuses.Content.Headers.ContentType!.MediaType);
        var lines = (await fuses.Content.ReadAsStringAsync()).Split('\n', StringSplitOptions.RemoveEmptyEntries);
        Assert.Equal(
            "fuse,count,class,rating A,made for V,must bear V,breaks A,short circuit A,from its source m,protects,chosen,relies on",
            lines[0].Trim()
        );
        Assert.StartsWith("Main fuse,1,\"Class T, bolted\",200,160,30.4,20000,", lines[1], StringComparison.Ordinal);
        Assert.DoesNotContain(lines, l => l.StartsWith('='));
        var cables = (await server.Http.GetStringAsync($"/api/designs/{id}/cables.csv")).Split('\n', StringSplitOptions.RemoveEmptyEntries);
        Assert.Equal("M1+,plus,red,battery post +,main fuse,50 mm²,50,1,0.15,50 mm² × M8,50 mm² × M8,2", cables[1].Trim());
        Assert.Contains(cables, l => l.Contains("'=HYPERLINK(1)", StringComparison.Ordinal));
        Assert.Equal(HttpStatusCode.NotFound, (await server.Http.GetAsync("/api/designs/none/fuses.csv")).StatusCode);
        Assert.Equal(HttpStatusCode.NotFound, (await server.Http.GetAsync($"/api/designs/{id}/cables.csv?bank=7")).StatusCode);
    }
}

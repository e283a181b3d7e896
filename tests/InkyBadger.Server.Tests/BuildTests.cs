using System.Net;
using System.Net.Http.Json;
using System.Text.Json.Nodes;
using InkyBadger.Core.Demo;
using InkyBadger.Core.Design;
using InkyBadger.Tests.Shared;

namespace InkyBadger.Server.Tests;

/// <summary>Builds over the wire: searched line by line, compared, taken over, and refused by the field that is wrong.</summary>
public class BuildTests
{
    private static JsonObject Clinic =>
        (JsonObject)JsonNode.Parse(DesignFormat.Write(DemoDesigns.All.Single(d => d.Name.StartsWith("Pell", StringComparison.Ordinal))))!;

    private static async Task<List<JsonNode>> Found(RunningServer server)
    {
        var answer = await server.Http.PostAsJsonAsync("/api/builds", Clinic);
        Assert.Equal("application/x-ndjson", answer.Content.Headers.ContentType!.MediaType);
        return
        [
            .. (await answer.Content.ReadAsStringAsync())
                .Split('\n', StringSplitOptions.RemoveEmptyEntries)
                .Select(l => JsonNode.Parse(l)!),
        ];
    }

    private static JsonObject Question(JsonArray builds, JsonObject? design = null) =>
        new()
        {
            ["design"] = design ?? Clinic,
            ["bank"] = 0,
            ["builds"] = builds,
            ["subject"] = 0,
        };

    [Fact]
    public async Task Every_build_comes_as_a_line_and_the_last_is_done()
    {
        using var server = RunningServer.Fresh(seeded: false);
        var lines = await Found(server);
        var of = (int)lines[0]["of"]!;
        Assert.Equal(of + 1, lines.Count);
        Assert.Equal((int)lines[0]["candidates"]!, of + lines[0]["out"]!.AsArray().Sum(o => (int)o!["count"]!));
        Assert.Equal(Enumerable.Range(1, of), lines.Skip(1).Select(l => (int)l["worked"]!));
        Assert.Equal([true], lines.Where(l => (bool)l["done"]!).Select(l => (bool)l["done"]!));
        Assert.True((bool)lines[^1]["done"]!);
        // The same answer every time.
        Assert.Equal(lines.Select(l => l.ToJsonString()), (await Found(server)).Select(l => l.ToJsonString()));
        Assert.Equal(HttpStatusCode.BadRequest, (await server.Http.PostAsJsonAsync("/api/builds?bank=3", Clinic)).StatusCode);
        // A design without loads has no builds.
        var empty = await server.Http.PostAsJsonAsync(
            "/api/builds",
            (JsonObject)JsonNode.Parse(DesignFormat.Write(NewDesign.Empty("New")))!
        );
        Assert.Equal(
            (0, true),
            (
                (int)JsonNode.Parse(await empty.Content.ReadAsStringAsync())!["of"]!,
                (bool)JsonNode.Parse(await empty.Content.ReadAsStringAsync())!["done"]!
            )
        );
    }

    [Fact]
    public async Task Some_are_compared_and_one_is_taken_over()
    {
        using var server = RunningServer.Fresh(seeded: false);
        var build = (await Found(server))
            .Select(l => l["build"])
            .First(b => b is not null && (string)b["choice"]!["unit"]!["key"]! == "lfp-24-200")!;
        var compared = await server.Http.PostAsJsonAsync("/api/builds/compare", Question([null, build["choice"]!.DeepClone()]));
        Assert.Equal(HttpStatusCode.OK, compared.StatusCode);
        var comparison = JsonNode.Parse(await compared.Content.ReadAsStringAsync())!;
        Assert.Equal(
            ["3 × LFP 51.2 V 50 Ah at 48 V", (string)build["name"]!],
            comparison["builds"]!.AsArray().Select(b => (string)b!["name"]!)
        );
        Assert.NotEmpty(comparison["verdict"]!.AsArray());

        var taken = JsonNode
            .Parse(
                await (
                    await server.Http.PostAsJsonAsync("/api/builds/take", Question([build["choice"]!.DeepClone()]))
                ).Content.ReadAsStringAsync()
            )!
            .AsArray();
        Assert.Equal("/banks/0", (string)taken[0]!["path"]!);
        var (id, _) = await server.Keep(Clinic.With("/banks/0", taken[0]!["value"]!.DeepClone()));
        Assert.NotEmpty(id);
        var then = JsonNode.Parse(
            await (
                await server.Http.PostAsJsonAsync(
                    "/api/builds/compare",
                    Question([null], Clinic.With("/banks/0", taken[0]!["value"]!.DeepClone()))
                )
            ).Content.ReadAsStringAsync()
        )!;
        Assert.Equal((string)build["key"]!, (string)then["builds"]![0]!["key"]!);
    }

    public static TheoryData<string, string> Wrong =>
        new()
        {
            { "{", "is not a question" },
            { """{ "bank": 0, "builds": [null] }""", "/design" },
            { """{ "design": { "format": "other" }, "builds": [null] }""", "/design" },
            { Question([]).ToJsonString(), "/builds" },
            { Question([null, null, null, null, null, null]).ToJsonString(), "/builds" },
            { Question([null]).With("/bank", 7).ToJsonString(), "/bank" },
            {
                Question([
                        new JsonObject
                        {
                            ["systemV"] = 48,
                            ["series"] = 1,
                            ["parallel"] = 1,
                            ["style"] = "diagonal",
                        },
                    ])
                    .ToJsonString(),
                "/builds/0"
            },
            {
                Question([
                        new JsonObject
                        {
                            ["unit"] = new JsonObject
                            {
                                ["name"] = "x",
                                ["chemistry"] = "lfp",
                                ["cells"] = 16,
                                ["ah"] = 100,
                            },
                            ["systemV"] = 48,
                            ["series"] = 1,
                            ["parallel"] = 4000,
                            ["style"] = "diagonal",
                        },
                    ])
                    .ToJsonString(),
                "/builds/0"
            },
            { Question([null]).With("/terms", new JsonObject { ["hourRate"] = -5 }).ToJsonString(), "/terms" },
        };

    [Theory]
    [MemberData(nameof(Wrong))]
    public async Task A_wrong_question_is_refused_by_its_field(string text, string at)
    {
        using var server = RunningServer.Fresh(seeded: false);
        var refused = await server.Http.PostAsync("/api/builds/compare", Documents.Body(text));
        Assert.Equal(HttpStatusCode.BadRequest, refused.StatusCode);
        Assert.Contains(at, await refused.Content.ReadAsStringAsync(), StringComparison.Ordinal);
    }

    [Theory]
    [InlineData("/prices/hourRate", "45", null)]
    [InlineData("/prices/units", """[{ "key": "lfp-48-50", "price": 600, "date": "2026-11-26" }]""", null)]
    [InlineData("/banks/0/space", """{ "lengthMm": 900, "widthMm": 500, "heightMm": 400 }""", null)]
    [InlineData("/prices/units", """[{ "key": "lfp-48-50", "price": -1 }]""", "/prices/units/0/price")]
    [InlineData("/banks/0/space", """{ "lengthMm": 0, "widthMm": 500, "heightMm": 400 }""", "/banks/0/space/lengthMm")]
    public async Task Prices_and_space_are_of_the_document(string pointer, string value, string? refusedAt)
    {
        using var server = RunningServer.Fresh(seeded: false);
        var answer = await server.Http.PostAsJsonAsync("/api/designs", Clinic.With(pointer, JsonNode.Parse(value)));
        Assert.Equal(refusedAt is null ? HttpStatusCode.Created : HttpStatusCode.BadRequest, answer.StatusCode);
        if (refusedAt is not null)
            Assert.Contains(refusedAt, await answer.Content.ReadAsStringAsync(), StringComparison.Ordinal);
    }
}

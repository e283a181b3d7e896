using System.Net;
using System.Net.Http.Json;
using System.Text.Json.Nodes;
using InkyBadger.Tests.Shared;

namespace InkyBadger.Server.Tests;

/// <summary>One server for every test that only asks.</summary>
public sealed class AskedServer : IDisposable
{
    public RunningServer Server { get; } = RunningServer.Fresh(seeded: false);

    public void Dispose() => Server.Dispose();
}

public class EvaluatingTests(AskedServer asked) : IClassFixture<AskedServer>
{
    private readonly RunningServer server = asked.Server;

    private async Task<JsonObject> Evaluate(JsonObject document, string query = "")
    {
        var response = await server.Http.PostAsJsonAsync("/api/evaluate" + query, document);
        Assert.Equal(HttpStatusCode.OK, response.StatusCode);
        return await response.Json();
    }

    [Fact]
    public async Task A_document_in_its_evaluation_out_nothing_stored()
    {
        var answer = await Evaluate(Documents.Bus);
        var bank = answer["evaluation"]!["banks"]![0]!;
        Assert.Equal(3200.7246, (double)bank["energy"]!["energyBankWh"]!, 4);
        Assert.Equal(200, (double)bank["mainRun"]!["fuse"]!["ratingA"]!);
        Assert.Equal("50 mm²", (string)bank["mainRun"]!["cable"]!["size"]!);
        Assert.Equal(3, (int)answer["evaluation"]!["counts"]!["wrong"]!);
        Assert.Null(answer["working"]);
        Assert.Empty(JsonNode.Parse(await server.Http.GetStringAsync("/api/designs"))!.AsArray());
    }

    [Fact]
    public async Task The_working_of_one_figure_or_of_all()
    {
        var one = (await Evaluate(Documents.Bus, "?working=/banks/0/currents/inverterWorstA"))["working"]!.AsArray();
        var equation = Assert.Single(one)!;
        Assert.Equal("({P} ÷ {η} + {i}) ÷ {V}", (string)equation["form"]!);
        var terms = equation["terms"]!.AsArray();
        Assert.Equal([3000, 0.9, 25, 24], terms.Select(t => (double)t!["value"]!));
        Assert.Equal(["data-sheet", "data-sheet", "data-sheet", "worked-out"], terms.Select(t => (string)t!["origin"]!));
        Assert.Equal("/banks/0/voltage/lowV", (string)terms[3]!["ref"]!);

        Assert.True((await Evaluate(Documents.Bus, "?working=all"))["working"]!.AsArray().Count > 60);
        Assert.Empty((await Evaluate(Documents.Bus, "?working=/banks/0/nothing"))["working"]!.AsArray());
    }

    [Fact]
    public async Task Null_stays_as_advised_and_a_value_stays_pinned()
    {
        var free = (await Evaluate(Documents.Bus))["evaluation"]!["banks"]![0]!["mainRun"]!;
        Assert.False((bool)free["cable"]!["pinned"]!);
        var pinned = (await Evaluate(Documents.Bus.With("/banks/0/runs/0/size", "95 mm²")))["evaluation"]!["banks"]![0]!["mainRun"]!;
        Assert.True((bool)pinned["cable"]!["pinned"]!);
        Assert.Equal("95 mm²", (string)pinned["cable"]!["size"]!);
        Assert.Equal("50 mm²", (string)pinned["cable"]!["advised"]!["size"]!);
    }

    [Fact]
    public async Task The_ladder_answers_three_voltages()
    {
        var response = await server.Http.PostAsJsonAsync("/api/ladder", Documents.Bus);
        var rungs = JsonNode.Parse(await response.Content.ReadAsStringAsync())!.AsArray();
        Assert.Equal([12, 24, 48], rungs.Select(r => (int)r!["systemV"]!));
        Assert.Equal(HttpStatusCode.BadRequest, (await server.Http.PostAsJsonAsync("/api/ladder?bank=3", Documents.Bus)).StatusCode);
    }

    public static TheoryData<string, string> Bad =>
        new()
        {
            { "/banks/0/demand/loads/0/watts", "-5" },
            { "/banks/0/demand/loads/0/watts", "\"many\"" },
            { "/banks/0/demand/loads/0/watts", "1e300" },
            { "/banks/0/demand/loads/0/quantity", "1.5" },
            { "/banks/0/demand/loads/0/duty", "1.01" },
            { "/banks/0/demand/loads/0/kind", "\"magic\"" },
            { "/banks/0/inverters/0/item/efficiency", "0" },
            { "/banks/0/inverters/0/stack", "0" },
            { "/banks/0/runs/0/lengthM", "0" },
            { "/banks/0/runs/0/size", "\"17 mm²\"" },
            { "/banks/0/runs/0/fuse/class", "\"wire\"" },
            { "/banks/0/systemV", "13" },
            { "/banks/0/series", "33" },
            { "/banks/0/unit/ah", "null" },
            { "/banks/0/unit/bms/continuousA", "0" },
            { "/banks/0/wiring/style", "\"zigzag\"" },
            { "/banks/0/wiring/link", "7" },
            { "/houseRules/set", "\"wild\"" },
            { "/houseRules/own/most-strings", "-1" },
            { "/houseRules/own/no-such-rule", "1" },
            { "/name", "7" },
            { "/version", "3" },
            { "/surprise", "1" },
        };

    [Theory]
    [MemberData(nameof(Bad))]
    public async Task Bad_input_is_a_400_that_names_the_field(string pointer, string value)
    {
        var response = await server.Http.PostAsJsonAsync("/api/evaluate", Documents.Bus.With(pointer, JsonNode.Parse(value)));
        Assert.Equal(HttpStatusCode.BadRequest, response.StatusCode);
        Assert.Equal("application/problem+json", response.Content.Headers.ContentType!.MediaType);
        var errors = (await response.Json())["errors"]!.AsArray();
        Assert.Contains(pointer, errors.Select(e => (string)e!["pointer"]!));
        Assert.All(errors, e => Assert.NotEmpty((string)e!["reason"]!));
    }

    /// <summary>Rules across fields, which a schema cannot say.</summary>
    [Theory]
    [InlineData("/banks/0/demand/loads/0/windows", "[[10,11],[10.5,12]]", "/banks/0/demand/loads/0/windows")]
    [InlineData("/banks/0/demand/loads/0/windows", "[[10,10]]", "/banks/0/demand/loads/0/windows")]
    [InlineData("/banks/0/demand/loads/0/hours", "4", "/banks/0/demand/loads/0/hours")]
    [InlineData("/banks/0/demand/loads/0/amps", "4", "/banks/0/demand/loads/0/amps")]
    [InlineData("/banks/0/demand/loads/1/id", "\"l1\"", "/banks/0/demand/loads")]
    [InlineData("/joins", "[{\"from\":\"b1\",\"to\":\"b9\",\"kind\":\"dc-dc\"}]", "/joins/0")]
    [InlineData(
        "/joins",
        "[{\"id\":\"j\",\"from\":\"b1\",\"to\":\"b1\",\"kind\":\"relay\"},{\"id\":\"j\",\"from\":\"b1\",\"to\":\"b1\",\"kind\":\"relay\"}]",
        "/joins"
    )]
    [InlineData(
        "/banks/0/compartments",
        "[{\"id\":\"c\",\"lengthMm\":10,\"widthMm\":10,\"heightMm\":10},{\"id\":\"c\",\"lengthMm\":10,\"widthMm\":10,\"heightMm\":10}]",
        "/banks/0/compartments"
    )]
    public async Task Rules_across_fields_are_kept(string pointer, string value, string named)
    {
        var response = await server.Http.PostAsJsonAsync("/api/evaluate", Documents.Bus.With(pointer, JsonNode.Parse(value)));
        Assert.Equal(HttpStatusCode.BadRequest, response.StatusCode);
        Assert.Contains(named, (await response.Json())["errors"]!.AsArray().Select(e => (string)e!["pointer"]!));
    }

    public static TheoryData<string> Junk =>
        new()
        {
            "",
            "{",
            "null",
            "[]",
            "7",
            "\"text\"",
            "{\"format\":1e999}",
            "{\"name\":\"a\",\"name\":\"b\"}",
            "\u0000\u0001",
            "{}",
            "{\"format\":\"inky-badger-design\",\"version\":1,\"name\":\"x\",\"banks\":null}",
        };

    [Theory]
    [MemberData(nameof(Junk))]
    public async Task Junk_is_a_400_never_a_500(string text)
    {
        foreach (var path in new[] { "/api/evaluate", "/api/ladder" })
            Assert.Equal(HttpStatusCode.BadRequest, (await server.Http.PostAsync(path, Documents.Body(text))).StatusCode);
    }

    [Fact]
    public async Task Depth_and_size_have_their_limits()
    {
        var deep = string.Concat(Enumerable.Repeat("{\"a\":", 5000)) + "1" + new string('}', 5000);
        Assert.Equal(HttpStatusCode.BadRequest, (await server.Http.PostAsync("/api/evaluate", Documents.Body(deep))).StatusCode);
        var large = Documents.Bus.With("/notes", new string('x', 3_000_000)).ToJsonString();
        var response = await server.Http.PostAsync("/api/evaluate", Documents.Body(large));
        Assert.Equal(HttpStatusCode.BadRequest, response.StatusCode);
        Assert.Contains("larger than 2 MB", (string)(await response.Json())["detail"]!, StringComparison.Ordinal);
        Assert.Equal(HttpStatusCode.OK, (await server.Http.GetAsync("/api/health")).StatusCode);
    }

    [Fact]
    public async Task Five_hundred_loads_on_eight_banks_are_worked_out()
    {
        var bank = Documents.Bus["banks"]![0]!;
        var loads = new JsonArray([
            .. Enumerable
                .Range(0, 500)
                .Select(i =>
                    (JsonNode)
                        new JsonObject
                        {
                            ["id"] = $"l{i}",
                            ["name"] = $"Load {i}",
                            ["kind"] = "dc",
                            ["watts"] = 1,
                            ["hours"] = 1,
                        }
                ),
        ]);
        var banks = new JsonArray([
            .. Enumerable
                .Range(0, 8)
                .Select(i =>
                {
                    var copy = bank.DeepClone();
                    copy["id"] = $"b{i}";
                    copy["demand"]!["loads"] = loads.DeepClone();
                    return copy;
                }),
        ]);
        var answer = await Evaluate(Documents.Bus.With("/banks", banks));
        Assert.Equal(8, answer["evaluation"]!["banks"]!.AsArray().Count);
        // 500 W·h of DC loads and 25 W × 24 h of the inverter that is left on.
        Assert.Equal(1100, (double)answer["evaluation"]!["banks"]![7]!["energy"]!["energyBankWh"]!, 6);
    }
}

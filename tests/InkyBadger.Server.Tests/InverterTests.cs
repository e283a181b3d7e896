using System.Net;
using System.Net.Http.Json;
using System.Text.Json.Nodes;
using InkyBadger.Tests.Shared;

namespace InkyBadger.Server.Tests;

/// <summary>The catalogue of inverters judged over the wire, and own inverters kept.</summary>
public class InverterTests
{
    private static async Task<JsonArray> Judged(RunningServer server, string query = "") =>
        JsonNode
            .Parse(await (await server.Http.PostAsJsonAsync("/api/inverters" + query, Documents.Bus)).Content.ReadAsStringAsync())!
            .AsArray();

    [Fact]
    public async Task Those_that_fit_come_first_and_own_ones_stand_among_them()
    {
        using var server = RunningServer.Fresh(seeded: false);
        var before = await Judged(server);
        Assert.Equal("inv-24-5000c", (string)before[0]!["item"]!["key"]!);
        Assert.False((bool)before[1]!["fits"]!);
        Assert.NotEmpty(before[1]!["reasons"]!.AsArray());

        var mine = new JsonObject
        {
            ["key"] = "x",
            ["name"] = "Mine",
            ["systemV"] = 24,
            ["continuousW"] = 4500,
            ["surgeW"] = 9000,
            ["efficiency"] = 0.92,
        };
        Assert.Equal(HttpStatusCode.NoContent, (await server.Http.PutAsJsonAsync("/api/inverters/own/own-1", mine)).StatusCode);
        var after = await Judged(server);
        // 4,500 W are nearer to what is wanted than 5,000; the key it is kept under is its key.
        Assert.Equal(("own-1", true), ((string)after[0]!["item"]!["key"]!, (bool)after[0]!["fits"]!));
        Assert.Equal(before.Count + 1, after.Count);
        Assert.Equal(HttpStatusCode.NoContent, (await server.Http.DeleteAsync("/api/inverters/own/own-1")).StatusCode);
        Assert.Equal(HttpStatusCode.NotFound, (await server.Http.DeleteAsync("/api/inverters/own/own-1")).StatusCode);
        // Own loads and own inverters of one key are two things.
        Assert.Equal(HttpStatusCode.NotFound, (await server.Http.DeleteAsync("/api/loads/library/own-1")).StatusCode);
    }

    [Theory]
    [InlineData("""{ "key": "x", "name": "", "systemV": 24, "continuousW": 4500, "surgeW": 9000, "efficiency": 0.9 }""", "/name")]
    [InlineData("""{ "key": "x", "name": "Mine", "systemV": 24, "continuousW": -1, "surgeW": 9000, "efficiency": 0.9 }""", "/continuousW")]
    [InlineData(
        """{ "key": "x", "name": "Mine", "systemV": 24, "continuousW": 4500, "surgeW": 9000, "efficiency": 0.9, """
            + """ "overload": [{ "seconds": 5, "watts": 6000 }, { "seconds": 1, "watts": 5000 }] }""",
        "/overload/1"
    )]
    [InlineData("""{ "key": "x", "name": "Mine", "colour": "red" }""", "/colour")]
    [InlineData("null", "/name")]
    [InlineData("{", "is not JSON")]
    public async Task A_bad_one_is_refused_by_its_field(string text, string at)
    {
        using var server = RunningServer.Fresh(seeded: false);
        var refused = await server.Http.PutAsync("/api/inverters/own/own-1", Documents.Body(text));
        Assert.Equal(HttpStatusCode.BadRequest, refused.StatusCode);
        Assert.Contains(at, await refused.Content.ReadAsStringAsync(), StringComparison.Ordinal);
    }

    [Fact]
    public async Task Without_a_design_or_a_bank_nothing_is_judged()
    {
        using var server = RunningServer.Fresh(seeded: false);
        Assert.Equal(HttpStatusCode.BadRequest, (await server.Http.PostAsJsonAsync("/api/inverters?bank=5", Documents.Bus)).StatusCode);
        Assert.Equal(HttpStatusCode.BadRequest, (await server.Http.PostAsync("/api/inverters", Documents.Body("[]"))).StatusCode);
    }
}

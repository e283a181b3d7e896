using System.Net;
using System.Net.Http.Json;
using System.Text.Json.Nodes;
using InkyBadger.Tests.Shared;

namespace InkyBadger.Server.Tests;

public class ChargingTests(AskedServer asked) : IClassFixture<AskedServer>
{
    private readonly RunningServer server = asked.Server;

    private static JsonNode Sunny =>
        Documents
            .Bus.With("/place", JsonNode.Parse("""{"latitudeDeg":46,"climate":"continental"}"""))
            .With(
                "/banks/0/sources",
                JsonNode.Parse(
                    """
                    [
                      { "id": "roof", "kind": "solar", "name": "Roof", "amps": 40,
                        "array": { "module": { "watts": 300 }, "series": 2, "strings": 2 } },
                      { "id": "plug", "kind": "mains", "name": "Plug", "amps": 25, "windows": [[18, 22.5]] }
                    ]
                    """
                )
            );

    private async Task<JsonNode> Ask(string query) =>
        JsonNode.Parse(await (await server.Http.PostAsJsonAsync("/api/charged-day" + query, Sunny)).Content.ReadAsStringAsync())!;

    /// <summary>
    /// Without a month it is the darkest; its quarters are 96 and one more at the end, and with the plug it ends as it begins.
    /// </summary>
    [Fact]
    public async Task A_day_is_filled_over_the_wire()
    {
        var day = await Ask("");
        Assert.Equal(12, (int)day["month"]!);
        var soc = day["all"]!["soc"]!.AsArray();
        Assert.Equal(97, soc.Count);
        Assert.Equal((double)soc[0]!, (double)soc[96]!, 5);
        Assert.Equal(["roof", "plug"], day["all"]!["sources"]!.AsArray().Select(s => (string)s!["id"]!));
        Assert.Equal("full", (string)day["all"]!["sources"]![1]!["why"]![0]!["why"]!);
        Assert.Single(day["withoutPlug"]!["sources"]!.AsArray());
        var july = await Ask("?month=7");
        Assert.True((double)july["all"]!["sources"]![0]!["offeredWh"]! > 3 * (double)day["all"]!["sources"]![0]!["offeredWh"]!);
    }

    [Fact]
    public async Task A_month_that_is_none_is_refused_and_an_unknown_sun_has_no_day()
    {
        Assert.Equal(HttpStatusCode.BadRequest, (await server.Http.PostAsJsonAsync("/api/charged-day?month=13", Sunny)).StatusCode);
        var dark = Sunny.AsObject().With("/place", new JsonObject());
        Assert.Equal(HttpStatusCode.NoContent, (await server.Http.PostAsJsonAsync("/api/charged-day", dark)).StatusCode);
    }

    [Fact]
    public async Task The_climates_are_the_tables()
    {
        var climates = JsonNode.Parse(await server.Http.GetStringAsync("/api/climates"))!.AsArray();
        Assert.Equal(7, climates.Count);
        Assert.All(climates, c => Assert.Equal(12, c!["clearness"]!.AsArray().Count));
        Assert.Equal(0.38, (double)climates.Single(c => (string)c!["id"]! == "continental")!["clearness"]![11]!);
    }
}

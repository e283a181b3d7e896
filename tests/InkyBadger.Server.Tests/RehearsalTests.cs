using System.Globalization;
using System.Net;
using System.Net.Http.Json;
using System.Text.Json.Nodes;
using InkyBadger.Core.Demo;
using InkyBadger.Core.Design;
using InkyBadger.Tests.Shared;

namespace InkyBadger.Server.Tests;

/// <summary>A year over the wire: month by month, what would help, other weather, as a file; what is refused.</summary>
public class RehearsalTests
{
    private static JsonObject Hut =>
        (JsonObject)JsonNode.Parse(DesignFormat.Write(DemoDesigns.All.Single(d => d.Name.StartsWith("Hare", StringComparison.Ordinal))))!;

    private static async Task<List<JsonNode>> Lines(RunningServer server, string what, JsonObject design)
    {
        var answer = await server.Http.PostAsJsonAsync($"/api/rehearsal/{what}", design);
        answer.EnsureSuccessStatusCode();
        Assert.Equal("application/x-ndjson", answer.Content.Headers.ContentType!.MediaType);
        return
        [
            .. (await answer.Content.ReadAsStringAsync())
                .Split('\n', StringSplitOptions.RemoveEmptyEntries)
                .Select(l => JsonNode.Parse(l)!),
        ];
    }

    [Fact]
    public async Task A_year_comes_month_by_month_and_is_the_same_again()
    {
        using var server = RunningServer.Fresh(seeded: false);
        var lines = await Lines(server, "run", Hut);
        Assert.Equal(14, lines.Count);
        Assert.Equal("2026-07-01", (string)lines[0]["intro"]!["first"]!);
        Assert.Equal([31, 31, 30, 31, 30, 31, 31, 28, 31, 30, 31, 30], lines[1..13].Select(l => l["month"]!["days"]!.AsArray().Count));
        var dark = lines[1..13].SelectMany(l => l["month"]!["days"]!.AsArray()).Sum(d => (double)d!["darkH"]!);
        Assert.Equal(dark, (double)lines[13]["outcome"]!["darkH"]!, 6);
        Assert.Equal(lines.Select(l => l.ToJsonString()), (await Lines(server, "run", Hut)).Select(l => l.ToJsonString()));
        var other = await Lines(server, "run?weather=7", Hut);
        Assert.NotEqual(lines[13].ToJsonString(), other[13].ToJsonString());

        var days = await server.Http.PostAsJsonAsync("/api/rehearsal/days.csv", Hut);
        var rows = (await days.Content.ReadAsStringAsync()).Split('\n', StringSplitOptions.RemoveEmptyEntries);
        Assert.Equal(366, rows.Length);
        Assert.Equal("day,lowest_percent,dark_h,refused_wh,taken_wh,generator_h,source_1_wh", rows[0]);
        Assert.Equal(dark, rows[1..].Sum(r => double.Parse(r.Split(',')[2], CultureInfo.InvariantCulture)), 1);
        var quarters = await server.Http.PostAsJsonAsync("/api/rehearsal/days.csv?by=quarter", Hut);
        rows = (await quarters.Content.ReadAsStringAsync()).Split('\n', StringSplitOptions.RemoveEmptyEntries);
        Assert.Equal(1 + 365 * 96, rows.Length);
        Assert.StartsWith("2026-07-01T00:15,", rows[1], StringComparison.Ordinal);
    }

    [Fact]
    public async Task What_would_help_and_other_weather_come_line_by_line()
    {
        using var server = RunningServer.Fresh(seeded: false);
        var help = await Lines(server, "remedies", Hut);
        Assert.Equal("as it is", (string)help[0]["alone"]!["title"]!);
        Assert.True((bool)help[^1]["last"]!);
        Assert.Contains(help, l => (string?)l["alone"]?["title"] == "a string more" && (double)l["alone"]!["darkH"]! == 0);
        var risk = await Lines(server, "risk?years=3", Hut);
        Assert.Equal([1, 2, 3], risk.Select(l => (int)l["done"]!));
        Assert.Equal(3, (int)risk[^1]["risk"]!["runs"]!);
    }

    [Fact]
    public async Task What_cannot_be_run_is_refused_or_says_why()
    {
        using var server = RunningServer.Fresh(seeded: false);
        var empty = (JsonObject)JsonNode.Parse(DesignFormat.Write(NewDesign.Empty("New")))!;
        var lines = await Lines(server, "run", empty);
        Assert.Contains("first load", (string)lines[0]["intro"]!["wait"]!, StringComparison.Ordinal);
        Assert.Equal(2, lines.Count);
        foreach (var path in new[] { "run?bank=3", "risk?years=0", "risk?years=5000", "days.csv?by=month" })
            Assert.Equal(HttpStatusCode.BadRequest, (await server.Http.PostAsJsonAsync($"/api/rehearsal/{path}", Hut)).StatusCode);
        var asked = new HttpRequestMessage(HttpMethod.Post, "/api/rehearsal/run") { Content = JsonContent.Create(Hut) };
        using var stranger = new HttpClient { BaseAddress = server.Address };
        Assert.Equal(HttpStatusCode.Forbidden, (await stranger.SendAsync(asked)).StatusCode);
    }
}

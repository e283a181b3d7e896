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
        var steps = await server.Http.PostAsJsonAsync("/api/rehearsal/days.csv?by=step", Hut);
        rows = (await steps.Content.ReadAsStringAsync()).Split('\n', StringSplitOptions.RemoveEmptyEntries);
        Assert.Equal(1 + 365 * 1440, rows.Length);
        Assert.StartsWith("2027-06-30T23:59,", rows[^1], StringComparison.Ordinal);
        Assert.Equal(dark, rows[1..].Count(r => r.Split(',')[6] == "1") / 60.0, 6);
    }

    /// <summary>A fortnight from where the year said that it begins, and a day of it in instants; of nonsense neither.</summary>
    [Fact]
    public async Task Some_days_of_a_year_are_run_again()
    {
        using var server = RunningServer.Fresh(seeded: false);
        var months = (await Lines(server, "run", Hut))[1..13].Select(l => l["month"]!).ToList();
        var begins = months.SelectMany(m => m["begins"]!.AsArray()).Select(b => (string)b!).ToList();
        Assert.Equal(365, begins.Count);
        var stretch = await server.Http.PostAsJsonAsync($"/api/rehearsal/stretch?begins={begins[170]}&days=5", Hut);
        var days = JsonNode.Parse(await stretch.Content.ReadAsStringAsync())!;
        Assert.Equal((170, 5), ((int)days["from"]!, days["days"]!.AsArray().Count));
        var inYear = months.SelectMany(m => m["days"]!.AsArray()).Skip(170).First()!;
        Assert.Equal(inYear.ToJsonString(), days["days"]![0]!.ToJsonString());
        var instants = await server.Http.PostAsJsonAsync($"/api/rehearsal/instants?begins={begins[170]}", Hut);
        Assert.Equal(96, JsonNode.Parse(await instants.Content.ReadAsStringAsync())!.AsArray().Count);
        foreach (var path in new[] { "stretch?begins=x", "stretch", $"stretch?begins={begins[0]}&days=0", "instants?begins=AAAA" })
            Assert.Equal(HttpStatusCode.BadRequest, (await server.Http.PostAsJsonAsync($"/api/rehearsal/{path}", Hut)).StatusCode);
    }

    /// <summary>
    /// After a year the Evaluation of that design knows it: headline and finding. A changed design has no year yet; the old one still has.
    /// </summary>
    [Fact]
    public async Task What_a_year_taught_is_known_from_then_on()
    {
        using var server = RunningServer.Fresh(seeded: false);
        // Of a weather that no other test runs: the server may have served them before.
        static JsonObject Mine()
        {
            var design = Hut;
            design["rehearsal"]!["weather"] = 271828;
            return design;
        }
        async Task<JsonNode> Evaluated(JsonObject design) =>
            JsonNode.Parse(await (await server.Http.PostAsJsonAsync("/api/evaluate", design)).Content.ReadAsStringAsync())!["evaluation"]!;
        Assert.Null((await Evaluated(Mine()))["banks"]![0]!["lesson"]);
        await Lines(server, "run?weather=3", Mine());
        Assert.Null((await Evaluated(Mine()))["banks"]![0]!["lesson"]);
        var outcome = (await Lines(server, "run", Mine()))[^1]["outcome"]!;
        var known = await Evaluated(Mine());
        Assert.Equal((double)outcome["cyclesPerYear"]!, (double)known["banks"]![0]!["lesson"]!["cyclesPerYear"]!);
        Assert.Contains("rehearsed", (string)known["banks"]![0]!["headlines"]!["bank"]!, StringComparison.Ordinal);
        Assert.Contains(known["findings"]!.AsArray(), f => (string)f!["rule"]! == "rehearse.lead-unfilled");
        var larger = Mine();
        larger["banks"]![0]!["parallel"] = 4;
        Assert.Null((await Evaluated(larger))["banks"]![0]!["lesson"]);

        // Builds count its cycles as long as nobody says others.
        async Task<double> Cycles(JsonObject design)
        {
            var question = new JsonObject
            {
                ["design"] = design,
                ["builds"] = new JsonArray { null },
            };
            var answer = await server.Http.PostAsJsonAsync("/api/builds/compare", question);
            return (double)JsonNode.Parse(await answer.Content.ReadAsStringAsync())!["cyclesPerYear"]!;
        }
        var free = Mine();
        free["cyclesPerYear"] = null;
        Assert.Equal(Math.Round((double)outcome["cyclesPerYear"]!), await Cycles(free));
        var said = Mine();
        said["cyclesPerYear"] = 77;
        Assert.Equal(77, await Cycles(said));
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

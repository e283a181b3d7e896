using System.Net;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json.Nodes;
using InkyBadger.Core.Demo;
using InkyBadger.Core.Design;
using InkyBadger.Tests.Shared;

namespace InkyBadger.Server.Tests;

/// <summary>House rules, the front, builds over time and sets of prices over the wire.</summary>
public class BuildPlanTests
{
    private static JsonObject Bus => (JsonObject)JsonNode.Parse(DesignFormat.Write(DemoDesigns.All[0]))!;

    private static async Task<JsonNode> Asked(RunningServer server, string path, JsonNode body)
    {
        var answer = await server.Http.PostAsJsonAsync(path, body);
        Assert.Equal(HttpStatusCode.OK, answer.StatusCode);
        return JsonNode.Parse(await answer.Content.ReadAsStringAsync())!;
    }

    private static async Task Refused(RunningServer server, string path, JsonNode body, string pointer)
    {
        var answer = await server.Http.PostAsJsonAsync(path, body);
        Assert.Equal(HttpStatusCode.BadRequest, answer.StatusCode);
        Assert.Contains(pointer, await answer.Content.ReadAsStringAsync());
    }

    private static JsonObject Question(JsonNode? stages = null, JsonObject? design = null)
    {
        var question = new JsonObject
        {
            ["design"] = design ?? Bus,
            ["bank"] = 0,
            ["builds"] = new JsonArray { null },
        };
        if (stages is not null)
            question["stages"] = stages;
        return question;
    }

    [Fact]
    public async Task House_rules_come_row_by_row_and_the_last_has_the_headline()
    {
        using var server = RunningServer.Fresh(seeded: false);
        var answer = await server.Http.PostAsJsonAsync("/api/rules", Bus);
        Assert.Equal("application/x-ndjson", answer.Content.Headers.ContentType!.MediaType);
        var lines = (await answer.Content.ReadAsStringAsync())
            .Split('\n', StringSplitOptions.RemoveEmptyEntries)
            .Select(l => JsonNode.Parse(l)!)
            .ToList();
        var of = (int)lines[0]["of"]!;
        Assert.Equal(of + 2, lines.Count);
        Assert.Equal([null, "cautious", "typical", "lean"], lines[0]["wholes"]!.AsArray().Select(w => (string?)w!["set"]));
        Assert.Equal(of, lines.Count(l => l["row"] is not null));
        Assert.Equal(
            (true, true),
            ((bool)lines[^1]["done"]!, ((string)lines[^1]["headline"]!).StartsWith("Cautious asks for 16 units", StringComparison.Ordinal))
        );
        var curve = await Asked(server, "/api/rules/curve?rule=c-rate-lithium", Bus);
        Assert.Equal("The four strings built hold 0.34 C", (string)curve["built"]!["sentence"]!);
        Assert.Equal(HttpStatusCode.NoContent, (await server.Http.PostAsJsonAsync("/api/rules/curve?rule=none", Bus)).StatusCode);
        await Refused(server, "/api/rules?bank=4", Bus, "/banks");
    }

    [Fact]
    public async Task The_front()
    {
        using var server = RunningServer.Fresh(seeded: false);
        static JsonObject Points(params (double Cost, double Merit)[] points) =>
            new()
            {
                ["points"] = new JsonArray([.. points.Select(p => (JsonNode)new JsonObject { ["cost"] = p.Cost, ["merit"] = p.Merit })]),
            };
        var front = await Asked(server, "/api/builds/front", Points((2100, 9.6), (1800, 7.2), (2500, 9.6)));
        Assert.Equal([2, 1], front["front"]!.AsArray().Select(n => (int)n!));
        Assert.Equal([null, null, 1], front["dominatedBy"]!.AsArray().Select(n => (int?)n));
        await Refused(server, "/api/builds/front", Points((-1, 1)), "/points/cost");
        await Refused(server, "/api/builds/front", Points(), "/points");
        await Refused(server, "/api/builds/front", new JsonObject(), "/points");
    }

    [Fact]
    public async Task In_stages_growing_and_with_less()
    {
        using var server = RunningServer.Fresh(seeded: false);
        var plan = await Asked(
            server,
            "/api/builds/staged",
            Question(
                new JsonObject
                {
                    ["stringsNow"] = 1,
                    ["yearsLater"] = 2,
                    ["visitCost"] = 90,
                }
            )
        );
        Assert.StartsWith("2 of 8 units now, the rest in 2 years", (string)plan["sentence"]!);
        Assert.Equal(620, (double)plan["money"]!["payNow"]!);
        var growth = await Asked(server, "/api/builds/growth", Question());
        Assert.Equal("More than 4 strings: its maker allows 4", (string)growth["shutsOut"]![0]!);
        var less = await Asked(server, "/api/builds/less", Question());
        Assert.Equal("2 strings", (string)less["smaller"]!);
        Assert.NotEmpty(less["ways"]!.AsArray());
        await Refused(server, "/api/builds/staged", Question(new JsonObject { ["yearsLater"] = 99 }), "/stages");
        await Refused(server, "/api/builds/staged", Question(new JsonObject { ["discountRate"] = -1 }), "/stages");
        // A design without loads has nothing to plan.
        var empty = (JsonObject)JsonNode.Parse(DesignFormat.Write(NewDesign.Empty("New")))!;
        Assert.Equal(HttpStatusCode.NoContent, (await server.Http.PostAsJsonAsync("/api/builds/growth", Question(null, empty))).StatusCode);
    }

    /// <summary>What goes out is filled in and comes in again; bad lines are told with their number.</summary>
    [Fact]
    public async Task A_set_of_prices_goes_out_and_comes_in_again()
    {
        using var server = RunningServer.Fresh(seeded: false);
        async Task<JsonNode> Read(string csv) =>
            JsonNode.Parse(
                await (
                    await server.Http.PostAsync("/api/builds/prices/csv", new StringContent(csv, Encoding.UTF8, "text/csv"))
                ).Content.ReadAsStringAsync()
            )!;
        var sent = await server.Http.PostAsJsonAsync("/api/builds/prices/out", Bus);
        Assert.Equal("text/csv", sent.Content.Headers.ContentType!.MediaType);
        var csv = await sent.Content.ReadAsStringAsync();
        Assert.Contains("unit,lfp-12-100,,310,,LFP 12.8 V 100 Ah", csv);
        Assert.Contains("cable,,50,10,,", csv);
        var back = await Read(csv);
        Assert.Empty(back["bad"]!.AsArray());
        Assert.Equal(csv.Split('\n', StringSplitOptions.RemoveEmptyEntries).Length - 1, back["prices"]!.AsArray().Count);

        var mine = await Read(
            "kind;key;size;price;in_stock\nunit;lfp-12-100;;199,50;no\ncable;;50;;\n"
                + "soup;;1;1;\ncable;;51;3;\nunit;;;4;\nunit;lfp-12-100;;3;"
        );
        Assert.Equal(2, mine["prices"]!.AsArray().Count);
        Assert.Equal((199.5, false), ((double)mine["prices"]![0]!["price"]!, (bool)mine["prices"]![0]!["inStock"]!));
        Assert.Null(mine["prices"]![1]!["price"]);
        Assert.Equal([4, 5, 6, 7], mine["bad"]!.AsArray().Select(b => (int)b!["line"]!));
        Assert.Contains("names no columns", (string)(await Read("a,b\n1,2"))["bad"]![0]!["reason"]!);

        // Kept with the design it counts, and goes out as it came in.
        var priced = Bus;
        priced["prices"]!["sets"] = new JsonArray
        {
            new JsonObject
            {
                ["id"] = "prices-a",
                ["name"] = "Sale",
                ["rest"] = "unknown",
                ["prices"] = mine["prices"]!.DeepClone(),
            },
        };
        var out1 = await (await server.Http.PostAsJsonAsync("/api/builds/prices/out?set=prices-a", priced)).Content.ReadAsStringAsync();
        Assert.Contains("unit,lfp-12-100,,199.5,no,", out1);
        // What it does not list is not known.
        Assert.Contains("cable,,70,,,", out1);
        await Refused(server, "/api/builds/prices/out?set=prices-b", priced, "set");
        priced["prices"]!["inUse"] = "prices-c";
        await Refused(server, "/api/evaluate", priced, "/prices/inUse");
    }

    /// <summary>A search teaches its design that another build does the same for less; a changed one has to be searched anew.</summary>
    [Fact]
    public async Task What_a_search_found_is_a_finding_afterwards()
    {
        using var server = RunningServer.Fresh(seeded: false);
        async Task<bool> Told(JsonNode design) =>
            (await Asked(server, "/api/evaluate?mends=false", design))["evaluation"]!["findings"]!
                .AsArray()
                .Any(f => (string)f!["rule"]! == "money.cheaper");
        Assert.False(await Told(Bus));
        await (await server.Http.PostAsJsonAsync("/api/builds", Bus)).Content.ReadAsStringAsync();
        Assert.True(await Told(Bus));
        var other = Bus;
        other["years"] = 3;
        Assert.False(await Told(other));
    }
}

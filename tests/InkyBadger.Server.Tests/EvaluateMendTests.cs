using System.Text.Json.Nodes;
using InkyBadger.Core.Demo;
using InkyBadger.Core.Design;
using InkyBadger.Tests.Shared;

namespace InkyBadger.Server.Tests;

/// <summary>What can be done about a finding is tried on the design: it comes with the answer, or is left out by whoever types.</summary>
public class EvaluateMendTests(AskedServer asked) : IClassFixture<AskedServer>
{
    private async Task<JsonArray> Findings(string query)
    {
        var body = new StringContent(DesignFormat.Write(DemoDesigns.All[3]), System.Text.Encoding.UTF8, "application/json");
        var answer = await asked.Server.Http.PostAsync("/api/evaluate" + query, body);
        return JsonNode.Parse(await answer.Content.ReadAsStringAsync())!["evaluation"]!["findings"]!.AsArray();
    }

    [Fact]
    public async Task Mends_are_left_out_where_nobody_waits_for_them()
    {
        var (with, without) = (await Findings(""), await Findings("?mends=false"));
        Assert.Equal(with.Select(f => (string?)f!["title"]), without.Select(f => (string?)f!["title"]));
        Assert.All(without, f => Assert.Empty(f!["mends"]!.AsArray()));
        var wide = with.Single(f => (string?)f!["rule"] == "fuse.above-cable")!["mends"]!.AsArray();
        Assert.Equal("Use 95 mm²", (string?)wide[0]!["label"]);
        Assert.Equal("carries 330.0 A, drop 0.7 %", (string?)wide[0]!["outcome"]);
        var change = Assert.Single(wide[0]!["changes"]!.AsArray())!;
        Assert.Equal(("/banks/0/runs/0/size", "95 mm²"), ((string?)change["path"], (string?)change["value"]));
    }
}

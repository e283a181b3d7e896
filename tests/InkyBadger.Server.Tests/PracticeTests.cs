using System.Net;
using System.Net.Http.Json;
using System.Text.Json.Nodes;
using InkyBadger.Core.Demo;
using InkyBadger.Core.Design;
using InkyBadger.Tests.Shared;

namespace InkyBadger.Server.Tests;

/// <summary>Practice over the wire: banks by number, goes and guesses that are kept, and the words.</summary>
public class PracticeTests
{
    private static JsonNode Bus => JsonNode.Parse(DesignFormat.Write(DemoDesigns.All[0]))!;

    private static async Task<JsonNode> Got(RunningServer server, string path) => JsonNode.Parse(await server.Http.GetStringAsync(path))!;

    private static async Task<JsonNode> Sent(RunningServer server, string path, JsonNode body)
    {
        var answer = await server.Http.PostAsJsonAsync(path, body);
        Assert.True(answer.IsSuccessStatusCode, await answer.Content.ReadAsStringAsync());
        return JsonNode.Parse(await answer.Content.ReadAsStringAsync())!;
    }

    private static async Task Refused(RunningServer server, string path, JsonNode body)
    {
        var answer = await server.Http.PostAsJsonAsync(path, body);
        Assert.Equal(HttpStatusCode.BadRequest, answer.StatusCode);
    }

    private static JsonObject Go(string key, bool over, params (string Part, string Said, int At)[] answers) =>
        new()
        {
            ["key"] = key,
            ["seed"] = 7,
            ["level"] = 2,
            ["over"] = over,
            ["answers"] = new JsonArray([
                .. answers.Select(a => new JsonObject
                {
                    ["part"] = a.Part,
                    ["said"] = a.Said,
                    ["atS"] = a.At,
                }),
            ]),
        };

    /// <summary>Each sentence of each part, said by itself: those that are right, by their part.</summary>
    private static async Task<List<(string Part, string Said)>> Right(RunningServer server, JsonNode bank)
    {
        var right = new List<(string, string)>();
        foreach (var part in bank["parts"]!.AsArray())
        foreach (var sentence in part!["sentences"]!.AsArray())
        {
            var (key, said) = ((string)part["key"]!, (string)sentence!["id"]!);
            var go = await Sent(server, "/api/practice/go", Go("probe", false, (key, said, 1)));
            if ((string)go["answers"]![0]!["is"]! == "found" && !right.Exists(r => r.Item2 == said))
                right.Add((key, said));
        }
        return right;
    }

    [Fact]
    public async Task A_bank_tells_nothing_of_what_is_wrong_with_it()
    {
        using var server = RunningServer.Fresh(seeded: false);
        var bank = await Got(server, "/api/practice/bank?seed=7&level=2");
        Assert.Equal((7, 2), ((int)bank["seed"]!, (int)bank["level"]!["number"]!));
        Assert.Equal(["seed", "level", "name", "document", "drawing", "parts"], bank.AsObject().Select(p => p.Key));
        Assert.Equal(bank.ToJsonString(), (await Got(server, "/api/practice/bank?seed=7&level=2")).ToJsonString());
        foreach (var bad in (string[])["seed=0&level=2", "seed=1000000&level=2", "seed=7&level=0", "seed=7&level=7"])
            Assert.Equal(HttpStatusCode.BadRequest, (await server.Http.GetAsync($"/api/practice/bank?{bad}")).StatusCode);
        Assert.Equal([1, 2, 3, 4, 5, 6], (await Got(server, "/api/practice/levels")).AsArray().Select(l => (int)l!["number"]!));
    }

    [Fact]
    public async Task A_go_is_kept_as_it_goes_on_and_counted_once()
    {
        var folder = Directory.CreateTempSubdirectory("inky-badger-").FullName;
        try
        {
            using (var server = new RunningServer(folder, "--empty"))
            {
                var bank = await Got(server, "/api/practice/bank?seed=7&level=2");
                var right = await Right(server, bank);
                Assert.Equal(2, right.Count);
                await Sent(server, "/api/practice/go", Go("mine", false, (right[0].Part, right[0].Said, 30)));
                var done = await Sent(
                    server,
                    "/api/practice/go",
                    Go("mine", false, (right[0].Part, right[0].Said, 30), (right[1].Part, right[1].Said, 95))
                );
                Assert.Equal((true, 2, 0), ((bool)done["over"]!, (int)done["found"]!, (int)done["misses"]!));
                Assert.Equal("Two of two, in 1 min 35 s: nothing overlooked", (string)done["headline"]!);
            }
            using var again = new RunningServer(folder);
            var results = await Got(again, "/api/practice/results");
            // The go that probed for what is right is the other one.
            Assert.Equal(2, results["goes"]!.AsArray().Count);
            Assert.Single(results["goes"]!.AsArray(), g => (int)g!["found"]! == 2 && (bool)g["over"]!);
            Assert.Contains(",find,7,2,2,2,0,95,", await again.Http.GetStringAsync("/api/practice/results.csv"));
        }
        finally
        {
            Directory.Delete(folder, true);
        }
    }

    [Fact]
    public async Task What_is_no_answer_is_refused_and_kept_nowhere()
    {
        using var server = new RunningServer(null, "--empty");
        await Refused(server, "/api/practice/go", Go("mine", false, ("b1/no-such", "in-order", 1)));
        await Refused(server, "/api/practice/go", Go("mine", false, ("b1/shunt", "array-cold", 1)));
        await Refused(server, "/api/practice/go", Go("mine", false, ("b1/shunt", "in-order", -1)));
        await Refused(server, "/api/practice/go", Go("", false, ("b1/shunt", "in-order", 1)));
        await Refused(server, "/api/practice/go", Go(new('k', 41), false));
        await Refused(server, "/api/practice/go", Go("mine", false, [.. Enumerable.Repeat(("b1/shunt", "in-order", 1), 201)]));
        await Refused(
            server,
            "/api/practice/walk",
            new JsonObject
            {
                ["key"] = "w",
                ["seed"] = 1,
                ["faults"] = 6,
                ["calls"] = new JsonArray(),
            }
        );
        Assert.Equal("", (string)(await Got(server, "/api/practice/results"))["words"]!);
    }

    [Fact]
    public async Task Guesses_are_judged_and_become_a_trend()
    {
        using var server = new RunningServer(null, "--empty");
        var questions = (await Sent(server, "/api/guesses?bank=0", Bus)).AsArray();
        Assert.Equal(["amps", "copper", "fuse", "drop", "hours", "short", "share"], questions.Select(q => (string)q!["id"]!));
        var low = await Sent(server, "/api/guesses/say?bank=0&id=amps&said=120", Bus);
        Assert.Equal("144.3 A: 17 % too little", (string)low["judged"]!["words"]!);
        var near = await Sent(server, "/api/guesses/say?bank=0&id=fuse&said=200", Bus);
        Assert.Equal(2, near["trend"]!["ratios"]!.AsArray().Count);
        Assert.Equal("off by a factor of 1.00", (string)near["rows"]!.AsArray().Single(r => (string)r!["id"]! == "fuse")!["words"]!);
        await Refused(server, "/api/guesses/say?bank=0&id=amps&said=0", Bus);
        await Refused(server, "/api/guesses/say?bank=9&id=amps&said=1", Bus);
        Assert.Equal(
            HttpStatusCode.NoContent,
            (await server.Http.PostAsJsonAsync("/api/guesses/say?bank=0&id=colour&said=1", Bus)).StatusCode
        );
        Assert.Equal(2, (await Got(server, "/api/practice/results"))["trend"]!["ratios"]!.AsArray().Count);
        Assert.Contains(",guess,,,,,,,,amps,A,120,144.", await server.Http.GetStringAsync("/api/practice/results.csv"));
    }

    [Fact]
    public async Task A_walk_goes_reading_by_reading()
    {
        using var server = new RunningServer(null, "--empty");
        JsonObject Walk(params bool[] calls) =>
            new()
            {
                ["key"] = "w",
                ["seed"] = 3,
                ["faults"] = 2,
                ["calls"] = new JsonArray([.. calls.Select(c => (JsonNode)c)]),
            };
        var first = await Sent(server, "/api/practice/walk", Walk());
        Assert.Equal((int)first["of"]!, (int)first["left"]!);
        Assert.Empty(first["told"]!.AsArray());
        // What it should say comes only once it was called.
        Assert.Null(first["now"]!["expected"]);
        var second = await Sent(server, "/api/practice/walk", Walk(false));
        Assert.Equal((string)first["now"]!["reading"]!, (string)second["told"]![0]!["reading"]!["reading"]!);
        var all = await Sent(server, "/api/practice/walk", Walk([.. Enumerable.Repeat(true, (int)first["of"]!)]));
        Assert.Null(all["now"]);
        Assert.Equal((int)first["of"]!, (int)all["caught"]! + (int)all["falseAlarms"]!);
        Assert.True((bool)(await Got(server, "/api/practice/results"))["walks"]![0]!["over"]!);
    }

    [Fact]
    public async Task The_words_have_the_figures_of_a_design_where_one_is_sent()
    {
        using var server = RunningServer.Fresh(seeded: false);
        var here = (await Sent(server, "/api/words?bank=0", Bus)).AsArray().Single(w => (string)w!["key"]! == "c-rate")!;
        Assert.Equal("0.34 C at full load", (string)here["here"]!);
        Assert.All((await Got(server, "/api/words")).AsArray(), w => Assert.Null(w!["here"]));
    }
}

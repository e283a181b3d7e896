using System.Diagnostics;
using System.Text.Json.Nodes;
using InkyBadger.Core.Demo;
using InkyBadger.Core.Design;
using InkyBadger.Tests.Shared;

namespace InkyBadger.Server.Tests;

/// <summary>Documents bent out of shape in every way the schema and the examples suggest.</summary>
public class HostileTests(AskedServer asked) : IClassFixture<AskedServer>
{
    private const int Documents = 2000;

    private static readonly string[] Paths = ["/api/import", "/api/ladder", "/api/evaluate?working=all", "/api/evaluate"];

    /// <summary>The seed is printed; INKY_SEED repeats a run.</summary>
    [Fact]
    public async Task Every_answer_is_an_answer_and_quick()
    {
        var seed = int.TryParse(Environment.GetEnvironmentVariable("INKY_SEED"), out var s) ? s : Environment.TickCount;
        TestContext.Current.TestOutputHelper!.WriteLine($"seed {seed}");
        var random = new Random(seed);
        var originals = DemoDesigns.All.Select(DesignFormat.Write)
            .Concat(Directory.GetFiles(Path.Combine(RunningServer.Root, "docs/format/examples"), "*.json").Select(File.ReadAllText)).ToArray();
        // The first request of each kind pays for the server's own start, which is no document's fault.
        foreach (var path in Paths) await asked.Server.Http.PostAsync(path, Tests.Documents.Body(originals[0]));
        int accepted = 0, refused = 0;
        for (var i = 0; i < Documents; i++)
        {
            var document = JsonNode.Parse(originals[random.Next(originals.Length)])!;
            for (var n = random.Next(1, 5); n > 0; n--) Mutate(document, random);
            var text = document.ToJsonString();
            if (random.Next(12) == 0) text = Cut(text, random);
            var clock = Stopwatch.StartNew();
            var path = Paths[i % Paths.Length];
            var answer = await asked.Server.Http.PostAsync(path, Tests.Documents.Body(text));
            var body = await answer.Content.ReadAsStringAsync();
            var status = (int)answer.StatusCode;
            Assert.True(status is >= 200 and < 300 or >= 400 and < 500, $"{path} answered {status} to document {i} of seed {seed}:\n{text}\n{body}");
            Assert.True(clock.ElapsedMilliseconds < 2000, $"{path} took {clock.ElapsedMilliseconds} ms for document {i} of seed {seed}:\n{text}");
            if (status < 300) accepted++;
            else
            {
                refused++;
                Assert.Equal("application/problem+json", answer.Content.Headers.ContentType!.MediaType);
            }
        }
        TestContext.Current.TestOutputHelper.WriteLine($"{accepted} accepted, {refused} refused");
        Assert.True(accepted > 100 && refused > 100, $"{accepted} accepted, {refused} refused");
    }

    private static readonly Func<Random, JsonNode?>[] Values =
    [
        _ => null, _ => true, _ => "", _ => "\u0000\uFFFF‮text", _ => new string('x', 300), _ => new JsonObject(), _ => new JsonArray(), _ => -1, _ => 0, _ => 1, _ => 2, _ => 32, _ => 1e-9, _ => 1e5, _ => 1e6, _ => 1e308, _ => -1e308,
        r => r.NextDouble() * 24, r => r.Next(1, 48), r => Math.Pow(10, r.NextDouble() * 12 - 6), _ => "lfp", _ => "flooded", _ => "diagonal", _ => "bus-bars", _ => "dc", _ => "converter", _ => "50 mm²", _ => "lean",
        _ => new JsonArray(new JsonArray(22, 4), new JsonArray(4, 9.5)),
    ];

    private static void Mutate(JsonNode document, Random random)
    {
        var places = new List<JsonNode>();
        Collect(document, places);
        var at = places[random.Next(places.Count)];
        if (at is JsonObject { Count: > 0 } fields)
        {
            var name = fields.ElementAt(random.Next(fields.Count)).Key;
            switch (random.Next(8))
            {
                case 0: fields.Remove(name); break;
                case 1: fields["surprise"] = 1; break;
                default: fields[name] = Values[random.Next(Values.Length)](random); break;
            }
        }
        else if (at is JsonArray { Count: > 0 } list)
        {
            switch (random.Next(4))
            {
                case 0: list.RemoveAt(random.Next(list.Count)); break;
                case 1: list.Add(list[random.Next(list.Count)]?.DeepClone()); break;
                default: list[random.Next(list.Count)] = Values[random.Next(Values.Length)](random); break;
            }
        }
    }

    private static void Collect(JsonNode node, List<JsonNode> into)
    {
        if (node is not (JsonObject or JsonArray)) return;
        into.Add(node);
        foreach (var child in node is JsonObject fields ? fields.Select(f => f.Value) : node.AsArray())
            if (child is not null) Collect(child, into);
    }

    private static string Cut(string text, Random random) => random.Next(3) switch
    {
        0 => text[..random.Next(text.Length)],
        1 => text.Insert(random.Next(text.Length), "\\\"{"),
        _ => text + text,
    };
}

using System.Text.Json.Nodes;
using InkyBadger.Core.Demo;
using InkyBadger.Core.Design;
using InkyBadger.Tests.Shared;

namespace InkyBadger.Server.Tests;

/// <summary>Good documents bent out of shape in every way the schema and the examples suggest.</summary>
internal static class Bent
{
    public static string[] Originals { get; } =
    [
        .. DemoDesigns.All.Select(DesignFormat.Write),
        .. Directory.GetFiles(Path.Combine(RunningServer.Root, "docs/format/examples"), "*.json").Select(File.ReadAllText),
    ];

    /// <summary>JSON all the same.</summary>
    public static string Document(Random random)
    {
        var document = JsonNode.Parse(Originals[random.Next(Originals.Length)])!;
        for (var n = random.Next(1, 5); n > 0; n--)
            Mutate(document, random);
        return document.ToJsonString();
    }

    /// <summary>Now and then no longer JSON.</summary>
    public static string Text(Random random)
    {
        var text = Document(random);
        return random.Next(12) == 0 ? Cut(text, random) : text;
    }

    private static readonly Func<Random, JsonNode?>[] Values =
    [
        _ => null,
        _ => true,
        _ => "",
        _ => "\u0000\uFFFF‮text",
        _ => new string('x', 300),
        _ => new JsonObject(),
        _ => new JsonArray(),
        _ => -1,
        _ => 0,
        _ => 1,
        _ => 2,
        _ => 32,
        _ => 1e-9,
        _ => 1e5,
        _ => 1e6,
        _ => 1e308,
        _ => -1e308,
        r => r.NextDouble() * 24,
        r => r.Next(1, 48),
        r => Math.Pow(10, r.NextDouble() * 12 - 6),
        _ => "lfp",
        _ => "flooded",
        _ => "diagonal",
        _ => "bus-bars",
        _ => "dc",
        _ => "converter",
        _ => "50 mm²",
        _ => "lean",
        _ => new JsonArray(new JsonArray(22, 4), new JsonArray(4, 9.5)),
    ];

    public static void Mutate(JsonNode document, Random random)
    {
        var places = new List<JsonNode>();
        Collect(document, places);
        var at = places[random.Next(places.Count)];
        if (at is JsonObject { Count: > 0 } fields)
        {
            var name = fields.ElementAt(random.Next(fields.Count)).Key;
            switch (random.Next(8))
            {
                case 0:
                    fields.Remove(name);
                    break;
                case 1:
                    fields["surprise"] = 1;
                    break;
                default:
                    fields[name] = Values[random.Next(Values.Length)](random);
                    break;
            }
        }
        else if (at is JsonArray { Count: > 0 } list)
        {
            switch (random.Next(4))
            {
                case 0:
                    list.RemoveAt(random.Next(list.Count));
                    break;
                case 1:
                    list.Add(list[random.Next(list.Count)]?.DeepClone());
                    break;
                default:
                    list[random.Next(list.Count)] = Values[random.Next(Values.Length)](random);
                    break;
            }
        }
    }

    private static void Collect(JsonNode node, List<JsonNode> into)
    {
        if (node is not (JsonObject or JsonArray))
            return;
        into.Add(node);
        foreach (var child in node is JsonObject fields ? fields.Select(f => f.Value) : node.AsArray())
            if (child is not null)
                Collect(child, into);
    }

    private static string Cut(string text, Random random) =>
        random.Next(3) switch
        {
            0 => text[..random.Next(text.Length)],
            1 => text.Insert(random.Next(text.Length), "\\\"{"),
            _ => text + text,
        };
}

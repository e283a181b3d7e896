using System.Text.Json.Nodes;
using InkyBadger.Core.Demo;
using InkyBadger.Core.Design;
using InkyBadger.Core.Work;
using InkyBadger.Server.Designs;
using InkyBadger.Tests.Shared;

namespace InkyBadger.Server.Tests;

/// <summary>The schema in docs/format is the one the API checks, and every limit in it is really kept.</summary>
public class SchemaTests
{
    private static readonly string Format = Path.Combine(RunningServer.Root, "docs/format");
    private static readonly DesignReader Reader = new();
    private static readonly JsonObject Schema = (JsonObject)JsonNode.Parse(File.ReadAllText(Path.Combine(Format, "design.schema.json")))!;

    [Fact]
    public void The_api_checks_the_schema_of_the_docs() =>
        Assert.Equal(File.ReadAllText(Path.Combine(Format, "design.schema.json")), Reader.SchemaText);

    [Fact]
    public void The_examples_and_every_demo_design_are_accepted()
    {
        var examples = Directory.GetFiles(Path.Combine(Format, "examples"), "*.json");
        Assert.True(examples.Length >= 2);
        foreach (var file in examples)
            Assert.Empty(Reader.Read(File.ReadAllText(file)).Faults);
        foreach (var demo in DemoDesigns.All)
            Assert.Empty(Reader.Read(DesignFormat.Write(demo)).Faults);
    }

    /// <summary>
    /// Files of version 1 as they were written: they are taken, say what they said, and are kept as version 2 from then on.
    /// </summary>
    [Fact]
    public void Files_of_version_1_are_taken_over()
    {
        var files = Directory.GetFiles(Path.Combine(RunningServer.Root, "tests/InkyBadger.Server.Tests/Examples/version-1"), "*.json");
        Assert.Equal(6, files.Length);
        var sources = 0;
        foreach (var file in files)
        {
            var text = File.ReadAllText(file);
            Assert.Contains("\"version\": 1", text, StringComparison.Ordinal);
            var reading = Reader.Read(text);
            Assert.Empty(reading.Faults);
            var design = reading.Design!;
            Assert.Equal(2, design.Version);
            foreach (var (b, bank) in JsonNode.Parse(text)!["banks"]!.AsArray().Index())
            foreach (var (i, was) in (bank!["sources"] as JsonArray ?? []).Index())
            {
                var source = design.Banks[b].Sources[i];
                Assert.Equal((double?)was!["amps"], source.Amps);
                Assert.Equal((double?)was["settingV"], source.SettingV);
                Assert.Null(source.Array);
                sources++;
            }
            var again = Reader.Read(DesignFormat.Write(design)).Design!;
            Assert.Equal(DesignFormat.Write(design), DesignFormat.Write(again));
        }
        Assert.True(sources >= 3);
    }

    /// <summary>A document with something in every field of the schema.</summary>
    private static JsonObject Full()
    {
        var document = Fill(Schema)!.AsObject();
        document["format"] = "inky-badger-design";
        document["version"] = 2;
        return document;
    }

    private static JsonNode? Fill(JsonNode schema)
    {
        if (schema["$ref"] is { } reference)
            return Fill(Schema["definitions"]![((string)reference!).Split('/')[^1]]!);
        if (schema["oneOf"] is JsonArray choices)
            return Fill(choices.First(c => (string?)c!["type"] != "null")!);
        if (schema["enum"] is JsonArray words)
            return words.First(w => w is not null)!.DeepClone();
        switch (TypeOf(schema))
        {
            case "object":
                var made = new JsonObject();
                foreach (var (name, field) in schema["properties"]?.AsObject() ?? [])
                    made[name] = Fill(field!);
                return made;
            case "array":
                var least = Math.Max(1, (int?)schema["minItems"] ?? 1);
                return new JsonArray([.. Enumerable.Range(0, least).Select(_ => Fill(schema["items"]!))]);
            case "integer":
                return (int)Math.Ceiling((double?)schema["minimum"] ?? 1);
            case "number":
                return (double?)schema["minimum"] ?? ((double?)schema["exclusiveMinimum"] ?? 0) + 0.5;
            case "boolean":
                return true;
            default:
                return "x";
        }
    }

    private static string TypeOf(JsonNode schema) =>
        schema["type"] switch
        {
            JsonArray several => (string)several.First(t => (string)t! != "null")!,
            { } one => (string)one!,
            _ => "any",
        };

    /// <summary>Every place of the full document with the schema that rules it.</summary>
    private static IEnumerable<(string Pointer, JsonNode Schema)> Places(JsonNode schema, string pointer)
    {
        if (schema["$ref"] is { } reference)
            return Places(Schema["definitions"]![((string)reference!).Split('/')[^1]]!, pointer);
        if (schema["oneOf"] is JsonArray choices)
            return Places(choices.First(c => (string?)c!["type"] != "null")!, pointer);
        var here = new[] { (pointer, schema) };
        return TypeOf(schema) switch
        {
            "object" => here.Concat((schema["properties"]?.AsObject() ?? []).SelectMany(p => Places(p.Value!, $"{pointer}/{p.Key}"))),
            "array" => here.Concat(Places(schema["items"]!, pointer + "/0")),
            _ => here,
        };
    }

    private static IReadOnlyList<DesignFault> Faults(JsonObject document) => Reader.Read(document.ToJsonString()).Faults;

    private static bool Refuses(string pointer, JsonNode? value) =>
        Faults(Full().With(pointer, value)).Any(f => f.Pointer == pointer || f.Pointer.StartsWith(pointer + "/", StringComparison.Ordinal));

    [Fact]
    public void Every_limit_is_kept_at_every_place()
    {
        // Rules across fields may refuse the filled document; the schema itself must not.
        Assert.DoesNotContain(Faults(Full()), f =>
            f.Reason.StartsWith("must be", StringComparison.Ordinal) && !f.Reason.StartsWith("must be one of", StringComparison.Ordinal)
        );
        var limits = 0;
        var leaks = new List<string>();
        void Must(string pointer, JsonNode? value, string what)
        {
            limits++;
            if (!Refuses(pointer, value))
                leaks.Add($"{pointer} takes {what}");
        }
        foreach (var (pointer, schema) in Places(Schema, ""))
        {
            if (pointer.Length == 0)
                continue;
            if (schema["minimum"] is { } least)
                Must(pointer, (double)least - Math.Max(1e-3, Math.Abs((double)least) * 1e-3), "less than its minimum");
            if (schema["exclusiveMinimum"] is { } bound)
                Must(pointer, (double)bound, "its exclusive minimum");
            if (schema["maximum"] is { } most)
                Must(pointer, (double)most * 1.001 + 1e-3, "more than its maximum");
            if (schema["maxLength"] is { } length)
                Must(pointer, new string('x', (int)length + 1), "a text too long");
            if ((int?)schema["minLength"] > 0)
                Must(pointer, "", "an empty text");
            if (schema["enum"] is not null)
                Must(pointer, "no such word", "a word that is not one of its own");
            if (schema["maxItems"] is { } many)
                Must(
                    pointer,
                    new JsonArray([.. Enumerable.Range(0, (int)many + 1).Select(_ => Fill(schema["items"]!))]),
                    "too many entries"
                );
            if ((int?)schema["minItems"] > 0)
                Must(pointer, new JsonArray(), "too few entries");
            var type = TypeOf(schema);
            if (type != "any")
                Must(pointer, type is "string" or "boolean" ? 7 : "text", "a value of another type");
            if (type == "object" && schema["additionalProperties"] is JsonValue more && !(bool)more)
                Must(pointer + "/surprise", 1, "a field it does not know");
            foreach (var required in schema["required"]?.AsArray() ?? [])
            {
                limits++;
                var without = Full();
                var parent = pointer
                    .Split('/')[1..]
                    .Aggregate((JsonNode)without, (at, s) => at is JsonArray list ? list[int.Parse(s)]! : at[s]!);
                parent.AsObject().Remove((string)required!);
                if (!Faults(without).Any(f => f.Pointer == $"{pointer}/{required}"))
                    leaks.Add($"{pointer} does without {required}");
            }
        }
        Assert.Empty(leaks);
        Assert.True(limits > 300, $"only {limits} limits were tried");
    }

    /// <summary>A general validator of the schema's language says yes and no to the same documents.</summary>
    [Fact]
    public async Task The_check_agrees_with_a_general_validator_on_bent_documents()
    {
        var schema = await NJsonSchema.JsonSchema.FromJsonAsync(Schema.ToJsonString());
        var check = new SchemaCheck(Schema.ToJsonString());
        var random = new Random(11);
        var (good, bad) = (0, 0);
        for (var n = 0; n < 1500; n++)
        {
            var document = Bent.Document(random);
            using var parsed = System.Text.Json.JsonDocument.Parse(document);
            var faults = check.Faults(parsed.RootElement);
            var others = schema.Validate(document);
            Assert.True(
                faults.Count == 0 == (others.Count == 0),
                $"{string.Join("; ", faults)} against {string.Join("; ", others)}:\n{document}"
            );
            if (faults.Count == 0)
                good++;
            else
                bad++;
        }
        Assert.True(good > 100 && bad > 500, $"{good} good, {bad} bad");
    }

    [Fact]
    public void A_schema_with_a_keyword_that_is_not_kept_is_refused()
    {
        var e = Assert.Throws<NotSupportedException>(() =>
            new SchemaCheck("""{ "type": "object", "minProperties": 2, "definitions": {} }""")
        );
        Assert.Equal("the schema's minProperties is not kept", e.Message);
    }

    /// <summary>As the schema's language has it: characters are code points, 2.0 is a whole number.</summary>
    [Fact]
    public void Characters_are_counted_and_whole_numbers_are_known_by_their_value()
    {
        Assert.Empty(Faults(Documents.Bus.With("/name", string.Concat(Enumerable.Repeat("🦡", 80)))));
        Assert.Equal(
            "must be 80 characters at most",
            Assert.Single(Faults(Documents.Bus.With("/name", string.Concat(Enumerable.Repeat("🦡", 81))))).Reason
        );
        var text = Documents.Bus.ToJsonString().Replace("\"quantity\":2", "\"quantity\":2.0", StringComparison.Ordinal);
        Assert.Contains("2.0", text, StringComparison.Ordinal);
        Assert.Equal(2, Reader.Read(text).Design!.Banks[0].Demand.Loads.First(l => l.Quantity == 2).Quantity);
        Assert.Equal(
            "must be a whole number",
            Assert.Single(Reader.Read(text.Replace("2.0", "2.5", StringComparison.Ordinal)).Faults).Reason
        );
    }

    [Theory]
    [InlineData("\\ud800")]
    [InlineData("x\\udc00y")]
    public void Half_a_character_is_refused(string half)
    {
        var text = Documents.Bus.ToJsonString().Replace("Marrow Lane library bus", half, StringComparison.Ordinal);
        Assert.StartsWith("holds half a character", Assert.Single(Reader.Read(text).Faults).Reason, StringComparison.Ordinal);
    }

    [Fact]
    public void Bytes_that_are_no_text_are_refused_and_the_mark_of_utf_8_is_passed_over()
    {
        var bytes = System.Text.Encoding.UTF8.GetBytes(Documents.Bus.ToJsonString());
        Assert.Empty(Reader.Read([0xEF, 0xBB, 0xBF, .. bytes]).Faults);
        bytes[Array.IndexOf(bytes, (byte)'M')] = 0xFF;
        Assert.Equal("is not text in UTF-8", Assert.Single(Reader.Read(bytes).Faults).Reason);
    }

    [Fact]
    public void A_file_stands_alone_with_what_the_architecture_asks_for()
    {
        var names = Schema["definitions"]!.AsObject().Select(d => d.Key).ToList();
        foreach (var wanted in new[] { "bank", "load", "unit", "inverter", "run", "source", "join", "position" })
            Assert.Contains(wanted, names);
        Assert.Equal(8, (int)Schema["properties"]!["banks"]!["maxItems"]!);
    }
}

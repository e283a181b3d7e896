using System.Text.Encodings.Web;
using System.Text.Json;
using System.Text.Json.Nodes;
using System.Text.Json.Serialization;

namespace InkyBadger.Core.Design;

/// <summary>
/// A change of the document: what stands at a JSON pointer becomes a value. A last segment of <c>-</c> appends to a list.
/// </summary>
public sealed record DesignChange(string Path, JsonNode? Value);

/// <summary>Reading and writing the document as JSON.</summary>
public static class DesignFormat
{
    public static JsonSerializerOptions Options { get; } = Make(false);
    public static JsonSerializerOptions Indented { get; } = Make(true);

    private static JsonSerializerOptions Make(bool indented)
    {
        var options = new JsonSerializerOptions(JsonSerializerDefaults.Web) { WriteIndented = indented, MaxDepth = 32 };
        Apply(options);
        options.Converters.Add(new WholeNumber());
        options.MakeReadOnly(populateMissingResolver: true);
        return options;
    }

    /// <summary>The format's conventions: camel case, words for enumerations in kebab case, numbers only as numbers.</summary>
    public static void Apply(JsonSerializerOptions options)
    {
        options.PropertyNamingPolicy = JsonNamingPolicy.CamelCase;
        options.NumberHandling = JsonNumberHandling.Strict;
        options.Encoder = JavaScriptEncoder.UnsafeRelaxedJsonEscaping;
        options.Converters.Add(new JsonStringEnumConverter(JsonNamingPolicy.KebabCaseLower, allowIntegerValues: false));
    }

    /// <exception cref="JsonException">The text is not a document.</exception>
    public static DesignDocument Read(string json) =>
        Keyed(JsonSerializer.Deserialize<DesignDocument>(json, Options) ?? throw new JsonException("the document is null"));

    /// <inheritdoc cref="Read(string)"/>
    public static DesignDocument Read(JsonElement json) =>
        Keyed(json.Deserialize<DesignDocument>(Options) ?? throw new JsonException("the document is null"));

    /// <summary>
    /// Units and inverters of one's own were once kept without a key, which a screen takes for “as advised”: they get one.
    /// </summary>
    private static DesignDocument Keyed(DesignDocument design)
    {
        static bool Whole(Bank b) =>
            b.Unit is not { Key: "" } && b.Positions.All(p => p.Item is not { Key: "" }) && b.Inverters.All(i => i.Item is not { Key: "" });
        static string KeyOf(string name) =>
            "own-" + string.Concat(name.ToLowerInvariant().Select(c => char.IsAsciiLetterOrDigit(c) ? c : '-').Take(32));
        static UnitItem? Unit(UnitItem? u) => u is { Key: "" } ? u with { Key = KeyOf(u.Name) } : u;
        // What version 2 adds may be left out, and what version 1 has keeps its meaning.
        design = design.Version < DesignDocument.CurrentVersion ? design with { Version = DesignDocument.CurrentVersion } : design;
        return design.Banks.All(Whole)
            ? design
            : design with
            {
                Banks =
                [
                    .. design.Banks.Select(b =>
                        b with
                        {
                            Unit = Unit(b.Unit),
                            Positions = [.. b.Positions.Select(p => p with { Item = Unit(p.Item) })],
                            Inverters =
                            [
                                .. b.Inverters.Select(i =>
                                    i.Item is { Key: "" } own ? i with { Item = own with { Key = KeyOf(own.Name) } } : i
                                ),
                            ],
                        }
                    ),
                ],
            };
    }

    /// <summary>2.0 and 2e0 are the whole number 2.</summary>
    private sealed class WholeNumber : JsonConverter<int>
    {
        public override int Read(ref Utf8JsonReader reader, Type typeToConvert, JsonSerializerOptions options) =>
            reader.TryGetInt32(out var whole) ? whole
            : reader.GetDouble() is var number && number == Math.Floor(number) && Math.Abs(number) <= int.MaxValue ? (int)number
            : throw new JsonException("is no whole number");

        public override void Write(Utf8JsonWriter writer, int value, JsonSerializerOptions options) => writer.WriteNumberValue(value);
    }

    public static string Write(DesignDocument design) => JsonSerializer.Serialize(design, Options);

    /// <summary>The document with changes applied in order.</summary>
    /// <exception cref="Refusal"><c>path</c> when nothing stands where a change points.</exception>
    public static DesignDocument With(DesignDocument design, IEnumerable<DesignChange> changes)
    {
        var root = JsonSerializer.SerializeToNode(design, Options)!;
        foreach (var change in changes)
            Set(root, change.Path, change.Value?.DeepClone());
        return root.Deserialize<DesignDocument>(Options)!;
    }

    private static void Set(JsonNode root, string path, JsonNode? value)
    {
        var segments = path.Split('/')[1..];
        var at = root;
        foreach (var segment in segments[..^1])
            at = (at is JsonArray list ? list[int.Parse(segment)] : at[segment]) ?? throw new Refusal("path", $"nothing stands at {path}");
        if (at is not JsonArray array)
            at[segments[^1]] = value;
        else if (segments[^1] == "-")
            array.Add(value);
        else
            array[int.Parse(segments[^1])] = value;
    }

    /// <summary>A value for a <see cref="DesignChange"/>.</summary>
    public static JsonNode? Node<T>(T value) => JsonSerializer.SerializeToNode(value, Options);
}

using System.Collections.Frozen;
using System.Runtime.InteropServices;
using System.Text.Json;
using InkyBadger.Core.Design;

namespace InkyBadger.Server.Designs;

/// <summary>
/// Holds documents to the JSON Schema of docs/format in one pass: counts first, so that nobody pays for what is refused anyway, and no
/// further than <see cref="MostFaults"/>. It knows the keywords that schema uses and refuses to start on any other, so that nothing in it
/// can stand there unkept. Lengths are in characters (code points), as the schema's own language has it; 2.0 is a whole number.
/// </summary>
public sealed class SchemaCheck
{
    public const int MostFaults = 20;

    private static readonly FrozenSet<string> Remarks = new[] { "$schema", "$id", "title", "description", "definitions" }.ToFrozenSet();

    private readonly Dictionary<string, Rule> definitions = [];
    private readonly Rule root;

    /// <exception cref="NotSupportedException">The schema uses a keyword that is not kept here.</exception>
    public SchemaCheck(string schema)
    {
        using var text = JsonDocument.Parse(schema);
        foreach (var definition in text.RootElement.GetProperty("definitions").EnumerateObject())
            definitions[definition.Name] = new();
        foreach (var definition in text.RootElement.GetProperty("definitions").EnumerateObject())
            Fill(definitions[definition.Name], definition.Value);
        root = Fill(new(), text.RootElement);
    }

    [Flags]
    private enum Kinds
    {
        Any = 0,
        Number = 1,
        Integer = 2,
        String = 4,
        Boolean = 8,
        Array = 16,
        Object = 32,
        Null = 64,
    }

    /// <summary>What a place may hold. A limit that is null is none.</summary>
    private sealed class Rule
    {
        public Kinds Types { get; set; }
        public List<string?>? Words { get; set; }
        public double? Minimum { get; set; }
        public double? Maximum { get; set; }
        public int? MinLength { get; set; }
        public int? MaxLength { get; set; }
        public int? MinItems { get; set; }
        public int? MaxItems { get; set; }
        public int? MaxProperties { get; set; }
        public Rule? Items { get; set; }
        public Dictionary<string, Rule> Properties { get; } = [];
        public bool OtherProperties { get; set; } = true;
        public Rule? Other { get; set; }
        public List<string> Required { get; } = [];

        /// <summary>Null, or what another rule says.</summary>
        public Rule? NullOr { get; set; }
        public Rule? Same { get; set; }
    }

    private Rule Of(JsonElement schema) => Fill(new(), schema);

    private Rule Fill(Rule rule, JsonElement schema)
    {
        foreach (var keyword in schema.EnumerateObject())
        {
            var value = keyword.Value;
            switch (keyword.Name)
            {
                case "$ref":
                    rule.Same = definitions[value.GetString()!["#/definitions/".Length..]];
                    break;
                case "type":
                    foreach (var type in value.ValueKind == JsonValueKind.Array ? [.. value.EnumerateArray()] : new[] { value })
                        rule.Types |= Enum.Parse<Kinds>(type.GetString()!, ignoreCase: true);
                    break;
                case "enum":
                    rule.Words = [.. value.EnumerateArray().Select(w => w.ValueKind == JsonValueKind.Null ? null : w.ToString())];
                    break;
                case "minimum":
                    rule.Minimum = value.GetDouble();
                    break;
                case "maximum":
                    rule.Maximum = value.GetDouble();
                    break;
                case "minLength":
                    rule.MinLength = value.GetInt32();
                    break;
                case "maxLength":
                    rule.MaxLength = value.GetInt32();
                    break;
                case "minItems":
                    rule.MinItems = value.GetInt32();
                    break;
                case "maxItems":
                    rule.MaxItems = value.GetInt32();
                    break;
                case "maxProperties":
                    rule.MaxProperties = value.GetInt32();
                    break;
                case "items":
                    rule.Items = Of(value);
                    break;
                case "required":
                    rule.Required.AddRange(value.EnumerateArray().Select(r => r.GetString()!));
                    break;
                case "properties":
                    foreach (var property in value.EnumerateObject())
                        rule.Properties[property.Name] = Of(property.Value);
                    break;
                case "additionalProperties" when value.ValueKind is JsonValueKind.True or JsonValueKind.False:
                    rule.OtherProperties = value.GetBoolean();
                    break;
                case "additionalProperties":
                    rule.Other = Of(value);
                    break;
                case "oneOf" when value.GetArrayLength() == 2 && value[0].TryGetProperty("type", out var type) && type.ValueEquals("null"):
                    rule.NullOr = Of(value[1]);
                    break;
                default:
                    if (!Remarks.Contains(keyword.Name))
                        throw new NotSupportedException($"the schema's {keyword.Name} is not kept");
                    break;
            }
        }
        return rule;
    }

    /// <summary>
    /// Empty when the document keeps the schema; else what does not, in the order of the document, each with its JSON pointer.
    /// </summary>
    public IReadOnlyList<DesignFault> Faults(JsonElement document)
    {
        var faults = new List<DesignFault>();
        Look(root, document, null, faults);
        if (faults.Count == 0)
            return faults;
        // Most documents have none; only for one that has some are the places spelt out.
        faults.Clear();
        Look(root, document, "", faults);
        return faults;
    }

    private static string? Under<T>(string? at, T name) => at is null ? null : $"{at}/{name}";

    private static void Look(Rule rule, JsonElement value, string? at, List<DesignFault> faults)
    {
        if (faults.Count >= (at is null ? 1 : MostFaults))
            return;
        if (rule.Same is { } same)
            Look(same, value, at, faults);
        if (rule.NullOr is { } other && value.ValueKind != JsonValueKind.Null)
            Look(other, value, at, faults);
        if (rule.Types != Kinds.Any && !Is(rule.Types, value))
        {
            faults.Add(new(at ?? "", Wanted(rule.Types)));
            return;
        }
        if (rule.Words is { } words && !IsOneOf(words, value))
            faults.Add(new(at ?? "", $"must be one of {string.Join(", ", words.Where(w => w is not null))}"));
        switch (value.ValueKind)
        {
            case JsonValueKind.Number:
                Number(rule, value.GetDouble(), at, faults);
                break;
            case JsonValueKind.String:
                Text(rule, value, at, faults);
                break;
            case JsonValueKind.Array:
                List(rule, value, at, faults);
                break;
            case JsonValueKind.Object:
                Object(rule, value, at, faults);
                break;
        }
    }

    private static bool Is(Kinds types, JsonElement value) =>
        value.ValueKind switch
        {
            JsonValueKind.Null => types.HasFlag(Kinds.Null),
            JsonValueKind.String => types.HasFlag(Kinds.String),
            JsonValueKind.True or JsonValueKind.False => types.HasFlag(Kinds.Boolean),
            JsonValueKind.Array => types.HasFlag(Kinds.Array),
            JsonValueKind.Object => types.HasFlag(Kinds.Object),
            _ => value.GetDouble() is var n
                && double.IsFinite(n)
                && (types.HasFlag(Kinds.Number) || types.HasFlag(Kinds.Integer) && Math.Floor(n) == n),
        };

    private static string Wanted(Kinds types) =>
        types switch
        {
            _ when types.HasFlag(Kinds.Number) => "must be a number",
            _ when types.HasFlag(Kinds.Integer) => "must be a whole number",
            _ when types.HasFlag(Kinds.String) => "must be text",
            _ when types.HasFlag(Kinds.Boolean) => "must be true or false",
            _ when types.HasFlag(Kinds.Array) => "must be a list",
            _ => "must be an object",
        };

    private static bool IsOneOf(List<string?> words, JsonElement value)
    {
        if (value.ValueKind != JsonValueKind.String)
            return words.Contains(value.ValueKind == JsonValueKind.Null ? null : value.ToString());
        foreach (var word in words)
            if (word is not null && value.ValueEquals(word))
                return true;
        return false;
    }

    private static void Number(Rule rule, double value, string? at, List<DesignFault> faults)
    {
        if (value < rule.Minimum)
            faults.Add(new(at ?? "", $"must be {Plain(rule.Minimum.Value)} or more"));
        else if (value > rule.Maximum)
            faults.Add(new(at ?? "", $"must be {Plain(rule.Maximum.Value)} or less"));
    }

    private static string Plain(double limit) => limit.ToString(System.Globalization.CultureInfo.InvariantCulture);

    private static void Text(Rule rule, JsonElement value, string? at, List<DesignFault> faults)
    {
        if (rule.MinLength is null && rule.MaxLength is null)
            return;
        // A character takes a byte at least: most texts are not too long even so, and need not be counted.
        var bytes = JsonMarshal.GetRawUtf8Value(value).Length - 2;
        if (bytes > 0 && bytes <= (rule.MaxLength ?? int.MaxValue) && rule.MinLength is null or <= 1)
            return;
        var length = value.GetString()!.EnumerateRunes().Count();
        if (length < rule.MinLength)
            faults.Add(new(at ?? "", "must not be empty"));
        else if (length > rule.MaxLength)
            faults.Add(new(at ?? "", $"must be {rule.MaxLength} characters at most"));
    }

    private static void List(Rule rule, JsonElement value, string? at, List<DesignFault> faults)
    {
        var count = value.GetArrayLength();
        if (count > rule.MaxItems)
            faults.Add(new(at ?? "", $"must have {rule.MaxItems} entries at most"));
        else if (count < rule.MinItems)
            faults.Add(new(at ?? "", $"must have {rule.MinItems} entries at least"));
        else if (rule.Items is { } items)
        {
            var n = 0;
            foreach (var item in value.EnumerateArray())
                Look(items, item, Under(at, n++), faults);
        }
    }

    private static void Object(Rule rule, JsonElement value, string? at, List<DesignFault> faults)
    {
        foreach (var name in rule.Required)
            if (!value.TryGetProperty(name, out _))
                faults.Add(new(Under(at, name) ?? "", "is required"));
        var count = 0;
        foreach (var property in value.EnumerateObject())
        {
            if (faults.Count >= (at is null ? 1 : MostFaults))
                return;
            if (++count > rule.MaxProperties)
            {
                faults.Add(new(at ?? "", $"must have {rule.MaxProperties} entries at most"));
                return;
            }
            // A name is told as it stands, as far as it tells anything.
            var name = property.Name.Length <= 60 ? property.Name : property.Name[..60] + "…";
            if (rule.Properties.TryGetValue(property.Name, out var own))
                Look(own, property.Value, Under(at, property.Name), faults);
            else if (rule.Other is { } other)
                Look(other, property.Value, Under(at, name), faults);
            else if (!rule.OtherProperties)
                faults.Add(new(Under(at, name) ?? "", "is not a field of the format"));
        }
    }
}

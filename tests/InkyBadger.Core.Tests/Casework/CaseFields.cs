using System.Text;
using System.Text.Json;

namespace InkyBadger.Core.Tests.Casework;

/// <summary>
/// The inputs of a case by name. What is missing or of the wrong kind is refused by that name; null is the same as absent.
/// </summary>
internal sealed class CaseFields(JsonElement source)
{
    public bool Has(string name) => source.TryGetProperty(name, out var value) && value.ValueKind != JsonValueKind.Null;

    private JsonElement Raw(string name) => Has(name) ? source.GetProperty(name) : throw new Refusal(name, "is required");

    public double Num(string name) => Number(Raw(name), name);

    public double Num(string name, double usual) => Has(name) ? Num(name) : usual;

    public double? Opt(string name) => Has(name) ? Num(name) : null;

    public int Count(string name)
    {
        var value = Num(name);
        return value == Math.Floor(value) && Math.Abs(value) < int.MaxValue
            ? (int)value
            : throw new Refusal(name, "must be a whole number");
    }

    public int Count(string name, int usual) => Has(name) ? Count(name) : usual;

    public int? OptCount(string name) => Has(name) ? Count(name) : null;

    public bool Yes(string name) =>
        Raw(name).ValueKind switch
        {
            JsonValueKind.True => true,
            JsonValueKind.False => false,
            _ => throw new Refusal(name, "must be yes or no"),
        };

    public bool Yes(string name, bool usual) => Has(name) ? Yes(name) : usual;

    public string Text(string name) =>
        Raw(name).ValueKind == JsonValueKind.String ? Raw(name).GetString()! : throw new Refusal(name, "must be a word");

    /// <summary>A word of an enumeration, in kebab case.</summary>
    public TEnum Word<TEnum>(string name, TEnum usual)
        where TEnum : struct, Enum
    {
        return Has(name) ? Word<TEnum>(name) : usual;
    }

    public TEnum Word<TEnum>(string name)
        where TEnum : struct, Enum
    {
        var text = Text(name);
        foreach (var value in Enum.GetValues<TEnum>())
            if (JsonNamingPolicy.KebabCaseLower.ConvertName(value.ToString()) == text)
                return value;
        throw new Refusal(name, "is not a word it takes");
    }

    public List<JsonElement> List(string name)
    {
        var raw = Raw(name);
        return raw.ValueKind == JsonValueKind.Array ? [.. raw.EnumerateArray()] : throw new Refusal(name, "must be a list");
    }

    public List<CaseFields> Rows(string name)
    {
        var rows = List(name);
        if (rows.Count == 0 || rows.Any(r => r.ValueKind != JsonValueKind.Object))
            throw new Refusal(name, "needs at least one row");
        return rows.ConvertAll(r => new CaseFields(r));
    }

    /// <summary>A list that may be absent or empty.</summary>
    public List<CaseFields> RowsOrNone(string name) => Has(name) && List(name).Count > 0 ? Rows(name) : [];

    public CaseFields Part(string name) =>
        Raw(name).ValueKind == JsonValueKind.Object ? new(Raw(name)) : throw new Refusal(name, "must have fields");

    public double[] Numbers(string name) => [.. List(name).Select(e => Number(e, name))];

    public List<int> Counts(string name) =>
        List(name).ConvertAll(e => Number(e, name) is var n && n == Math.Floor(n) ? (int)n : throw new Refusal(name, "must be whole"));

    /// <summary>A list of pairs that may be absent.</summary>
    public List<(double A, double B)> Pairs(string name) =>
        !Has(name)
            ? []
            : List(name)
                .ConvertAll(e =>
                    e.ValueKind == JsonValueKind.Array && e.GetArrayLength() == 2
                        ? (Number(e[0], name), Number(e[1], name))
                        : throw new Refusal(name, "must be pairs")
                );

    public void Not(string name, string why)
    {
        if (Has(name))
            throw new Refusal(name, why);
    }

    public static double Number(JsonElement value, string name) =>
        value.ValueKind == JsonValueKind.Number && value.TryGetDouble(out var number) && double.IsFinite(number)
            ? number
            : throw new Refusal(name, "must be a number");

    /// <summary>The core's camel case as the cases spell it.</summary>
    public static string Snake(string name)
    {
        // A refusal of these readers has it so already.
        if (name.Contains('_', StringComparison.Ordinal))
            return name;
        var text = new StringBuilder();
        for (var i = 0; i < name.Length; i++)
        {
            var starts =
                i > 0
                && (
                    char.IsUpper(name[i])
                    || char.IsDigit(name[i])
                        && !char.IsDigit(name[i - 1])
                        && name is not ("r20MilliohmPerM" or "areaMm2" or "AreaMm2" or "WhHorizontalPerM2" or "P95DarkHours")
                );
            if (starts)
                text.Append('_');
            text.Append(char.ToLowerInvariant(name[i]));
        }
        return text.ToString();
    }
}

using System.Globalization;
using System.Text.Json;
using InkyBadger.Core.Design;
using InkyBadger.Core.Reference;

namespace InkyBadger.Core.Schools;

/// <summary>Values of house rules as text: which are one and the same, which stands, and the design with another.</summary>
internal static class RuleValues
{
    public static double? Number(string text) => double.TryParse(text, CultureInfo.InvariantCulture, out var value) ? value : null;

    public static bool Same(string a, string b) => a == b || Number(a) is { } x && Number(b) is { } y && x == y;

    private sealed class SameValue : IEqualityComparer<string>
    {
        public bool Equals(string? x, string? y) => Same(x!, y!);

        public int GetHashCode(string value) => Number(value)?.GetHashCode() ?? value.GetHashCode(StringComparison.Ordinal);
    }

    public static string Text(double value) => value.ToString(CultureInfo.InvariantCulture);

    /// <summary>A number of the rule as one says it.</summary>
    public static string Said(HouseRule rule, double value) =>
        rule.Unit switch
        {
            "fraction" => Figures.Number(value * 100, 1, true) + " %",
            "per hour" => Figures.Number(value, 3, true) + " C",
            "days" when value == 1 => "1 day",
            "strings" when value == 1 => "1 string",
            _ => $"{Figures.Number(value, 3, true)} {rule.Unit}".TrimEnd(),
        };

    public static string Of(DesignRules rules, HouseRule rule) =>
        rule.Type != "word" && rules.NumberOrNone(rule.Id) is { } number ? Text(number) : rules.Word(rule.Id);

    /// <summary>The one that stands, then the schools', then the other words it takes; each once.</summary>
    public static IReadOnlyList<string> All(DesignRules rules, HouseRule rule) =>
        [.. new[] { Of(rules, rule), rule.Cautious, rule.Typical, rule.Lean }.Concat(rule.Words).Distinct(new SameValue())];

    public static IReadOnlyList<RuleSet> Schools(HouseRule rule, string value) =>
        [.. Enum.GetValues<RuleSet>().Where(set => Same(rule.Of(set), value))];

    public static DesignDocument With(DesignDocument design, HouseRule rule, string value) =>
        Put(design, own =>
            own[rule.Id] = Number(value) is { } number
                ? JsonSerializer.SerializeToElement(number)
                : JsonSerializer.SerializeToElement(value)
        );

    /// <summary>The design with the value its set has.</summary>
    public static DesignDocument Without(DesignDocument design, HouseRule rule) => Put(design, own => own.Remove(rule.Id));

    private static DesignDocument Put(DesignDocument design, Action<Dictionary<string, JsonElement>> change)
    {
        var own = new Dictionary<string, JsonElement>(design.HouseRules.Own);
        change(own);
        return design with { HouseRules = design.HouseRules with { Own = own } };
    }

    /// <summary>
    /// The rule of cable in the other series of sizes touches nothing here, and is left out where both would stand side by side.
    /// </summary>
    public static bool IsOther(HouseRule rule, UnitSystem units) =>
        rule.Id == (units == UnitSystem.Imperial ? "cable-practice-metric" : "cable-practice-awg");
}

using System.Globalization;
using System.Text.Json;
using InkyBadger.Core.Design;

namespace InkyBadger.Core.Reference;

/// <summary>
/// A rule on which practitioners differ: its three ready values as text, why people differ, and what either side says for itself.
/// </summary>
public sealed record HouseRule(
    string Id,
    string Group,
    string Label,
    string Type,
    string Unit,
    string Cautious,
    string Typical,
    string Lean,
    string Sentence,
    string Careful,
    string Spare
)
{
    public string Of(RuleSet set) =>
        set switch
        {
            RuleSet.Cautious => Cautious,
            RuleSet.Lean => Lean,
            _ => Typical,
        };

    private readonly double? cautiousNumber = Read(Cautious);
    private readonly double? typicalNumber = Read(Typical);
    private readonly double? leanNumber = Read(Lean);

    /// <summary>The set's value as a number; null: it is a word.</summary>
    public double? NumberOf(RuleSet set) =>
        set switch
        {
            RuleSet.Cautious => cautiousNumber,
            RuleSet.Lean => leanNumber,
            _ => typicalNumber,
        };

    private static double? Read(string text) =>
        double.TryParse(text, NumberStyles.Float, CultureInfo.InvariantCulture, out var number) ? number : null;

    /// <summary>Whether a number, or a word, is a value of this rule.</summary>
    public bool Accepts(JsonElement value) =>
        value.ValueKind switch
        {
            JsonValueKind.Number => Type is "number" or "autonomy" && value.TryGetDouble(out var x) && x > 0 && x >= Least && x <= Greatest,
            JsonValueKind.String => Words.Contains(value.GetString()),
            _ => false,
        };

    /// <summary>Least number the rule takes, where that is not just above 0.</summary>
    public double Least => Unit == "times" ? 1 : 0;

    /// <summary>Greatest number the rule takes.</summary>
    public double Greatest =>
        Unit switch
        {
            "fraction" when Id == "inverter-headroom" => 5,
            "fraction" when Id is "drop-limit-main" or "drop-limit-device" => 0.5,
            "mΩ" => 5,
            "times" => 20,
            "fraction" => 1,
            _ => 1000,
        };

    /// <summary>Words the rule takes.</summary>
    public IReadOnlyList<string> Words =>
        Type switch
        {
            "word" => [.. new[] { Cautious, Typical, Lean }.Concat(Others).Distinct()],
            "autonomy" => ["overnight"],
            _ when leanNumber is null => [Lean],
            _ => [],
        };

    private IEnumerable<string> Others =>
        Id switch
        {
            "inverter-size-rule" => ["divide-by-efficiency"],
            "voltage-school" => ["by-watts"],
            "cable-practice-metric" => CablePractices.All.Where(p => p.Rows[0].Conductor.Series == "metric").Select(p => p.Id),
            "cable-practice-awg" => CablePractices.All.Where(p => p.Rows[0].Conductor.Series == "awg").Select(p => p.Id),
            _ => [],
        };
}

/// <summary>The house rules as data.</summary>
public static class HouseRuleTable
{
    public static IReadOnlyList<HouseRule> All { get; } =
        TableFile.Read("house-rules", r => new HouseRule(
            r.Text("id"),
            r.Text("group"),
            r.Text("label"),
            r.Text("type"),
            r.Text("unit"),
            r.Text("cautious"),
            r.Text("typical"),
            r.Text("lean"),
            r.Text("sentence"),
            r.Text("careful"),
            r.Text("spare")
        ));

    private static readonly Dictionary<string, HouseRule> ById = All.ToDictionary(r => r.Id);

    public static HouseRule Get(string id) => ById[id];

    public static bool Has(string id) => ById.ContainsKey(id);
}

/// <summary>A design's rules: its set, and its own values on top. The one place where they reach the stages.</summary>
public sealed class DesignRules(HouseRuleChoice choice)
{
    public RuleSet Set => choice.Set;

    /// <summary>
    /// Takes the id of each rule that was asked for: what was never asked for changes nothing, whatever its value. Null: nobody listens.
    /// </summary>
    internal ISet<string>? Asked { get; init; }

    /// <summary>Whether the design has a value of its own.</summary>
    public bool IsOwn(string id)
    {
        Asked?.Add(id);
        return choice.Own.TryGetValue(id, out var value) && HouseRuleTable.Get(id).Accepts(value);
    }

    public string Word(string id) => IsOwn(id) ? choice.Own[id].ToString() : HouseRuleTable.Get(id).Of(choice.Set);

    /// <summary>A bolted joint, and a fuse or switch with its joints [mΩ].</summary>
    public double BoltedMilliohm => Number("joint-bolted");
    public double FusedMilliohm => Number("joint-fused");

    public double Number(string id) => NumberOrNone(id) ?? throw new InvalidOperationException($"house rule {id} has no number");

    /// <summary>The number, or null where the rule says a word such as <c>none</c>.</summary>
    public double? NumberOrNone(string id)
    {
        if (!IsOwn(id))
            return HouseRuleTable.Get(id).NumberOf(choice.Set);
        return choice.Own[id].ValueKind == JsonValueKind.Number ? choice.Own[id].GetDouble() : null;
    }
}

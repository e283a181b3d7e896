using System.Globalization;
using System.Text.Json;
using InkyBadger.Core.Design;
using InkyBadger.Core.Reference;
using InkyBadger.Core.Work;

namespace InkyBadger.Core.Trials;

/// <summary>
/// A value of a house rule: its text, the schools that hold it, whether it holds here, and what it would change in this design, in words.
/// </summary>
public sealed record RuleChoice(string Value, IReadOnlyList<RuleSet> Schools, bool Here, string Effect);

/// <summary>A house rule of cables and fuses with every value it may take.</summary>
public sealed record RuleEffects(string Rule, string Label, string Sentence, IReadOnlyList<RuleChoice> Choices);

/// <summary>
/// The house rules of cables and fuses, each other value tried on the design: what would be another size, fuse or finding.
/// </summary>
public static class CableRules
{
    /// <exception cref="OperationCanceledException">Nobody waits for the answer any more.</exception>
    public static IReadOnlyList<RuleEffects> Work(DesignDocument design, int bank, CancellationToken stop = default)
    {
        var now = Evaluator.Evaluate(design);
        var skip = design.Display.Units == UnitSystem.Imperial ? "cable-practice-metric" : "cable-practice-awg";
        var rules = new DesignRules(design.HouseRules);
        var effects = new List<RuleEffects>();
        foreach (var rule in HouseRuleTable.All)
        {
            if (rule.Group != "cables" || rule.Id == skip)
                continue;
            var here = Current(rules, rule);
            var values = new[] { here, rule.Cautious, rule.Typical, rule.Lean }.Concat(rule.Words).Distinct(new SameValue()).ToList();
            var choices = values.ConvertAll(value =>
            {
                stop.ThrowIfCancellationRequested();
                return new RuleChoice(
                    value,
                    [.. Schools(rule, value)],
                    Same(value, here),
                    Same(value, here) ? "" : Difference(now, Evaluator.Evaluate(With(design, rule, value)), bank)
                );
            });
            effects.Add(new(rule.Id, rule.Label, rule.Sentence, choices));
        }
        return effects;
    }

    private static string Current(DesignRules rules, HouseRule rule) =>
        rule.Type != "word" && rules.NumberOrNone(rule.Id) is { } number
            ? number.ToString(CultureInfo.InvariantCulture)
            : rules.Word(rule.Id);

    private static IEnumerable<RuleSet> Schools(HouseRule rule, string value)
    {
        foreach (var set in Enum.GetValues<RuleSet>())
            if (Same(rule.Of(set), value))
                yield return set;
    }

    private static bool Same(string a, string b) => a == b || Number(a) is { } x && Number(b) is { } y && x == y;

    private static double? Number(string text) => double.TryParse(text, CultureInfo.InvariantCulture, out var value) ? value : null;

    private sealed class SameValue : IEqualityComparer<string>
    {
        public bool Equals(string? x, string? y) => Same(x!, y!);

        public int GetHashCode(string value) => Number(value)?.GetHashCode() ?? value.GetHashCode(StringComparison.Ordinal);
    }

    private static DesignDocument With(DesignDocument design, HouseRule rule, string value) =>
        design with
        {
            HouseRules = design.HouseRules with
            {
                Own = new Dictionary<string, JsonElement>(design.HouseRules.Own)
                {
                    [rule.Id] = Number(value) is { } number
                        ? JsonSerializer.SerializeToElement(number)
                        : JsonSerializer.SerializeToElement(value),
                },
            },
        };

    /// <summary>The main run first, then how many others, string fuses, and the findings.</summary>
    private static string Difference(Evaluation now, Evaluation then, int bank)
    {
        var (a, b) = (now.Banks[bank], then.Banks[bank]);
        var parts = new List<string>();
        if (a.MainRun is { } run && b.MainRun is { } other && Of(run) != Of(other))
            parts.Add($"main run {Of(other)}");
        if (
            a.Network is { } n
            && b.Network is { } m
            && (n.Copper.Link.Size, n.Copper.Jumper.Size) != (m.Copper.Link.Size, m.Copper.Jumper.Size)
        )
            parts.Add($"links {m.Copper.Link.Size}");
        var others = b.Circuits.ToDictionary(c => c.Id);
        var changed = a.Circuits.Count(c => !others.TryGetValue(c.Id, out var o) || Of(c.Run) != Of(o.Run));
        if (changed > 0)
            parts.Add(changed == 1 ? "one other run changes" : $"{changed} other runs change");
        if (a.StringFuses?.Fitted != b.StringFuses?.Fitted)
            parts.Add(b.StringFuses?.Fitted == true ? "a fuse in each string" : "no string fuses");
        if (Count(now.Counts.Wrong, then.Counts.Wrong, "wrong") is { } wrong)
            parts.Add(wrong);
        if (Count(now.Counts.ToLookAt, then.Counts.ToLookAt, "to look at") is { } look)
            parts.Add(look);
        return parts.Count == 0 ? "changes nothing here" : string.Join(", ", parts);
    }

    private static string Of(RunResult run) =>
        run.Cable.Size is { } size
            ? $"{Say.Size(size, run.Cable.Conductors)} behind {(run.Fuse.RatingA is { } rating ? Say.Rating(rating) : "no fuse")}"
            : "no cable of the table";

    private static string? Count(int now, int then, string word) =>
        then == now ? null
        : then > now ? $"{then - now} more {word}"
        : $"{now - then} fewer {word}";
}

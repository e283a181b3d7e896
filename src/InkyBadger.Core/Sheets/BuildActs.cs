using InkyBadger.Core.Design;
using InkyBadger.Core.Work;

namespace InkyBadger.Core.Sheets;

/// <summary>What may be done now.</summary>
/// <param name="Words">Such as “fit F1”.</param>
/// <param name="Stop">The stop its parts come to by it; null: a setting or a look.</param>
public sealed record BuildAct(string Words, LedgerStop? Stop, IReadOnlyList<string> Keys);

/// <summary>
/// What may be done as far as it is built, the next first: fit what lies ready and is not barred, set, measure, wait, order.
/// </summary>
internal static class BuildActs
{
    public static IReadOnlyList<BuildAct> Of(
        List<LedgerRow> rows,
        List<BuildState> states,
        HashSet<string> barred,
        PartsResult toBuy,
        string currency
    )
    {
        var acts = new List<BuildAct>();
        var living = rows.Where(r => !r.Gone).ToList();
        acts.AddRange(living.Where(r => IsReady(r, barred)).OrderBy(Turn).Select(Fit));
        foreach (var s in states)
            acts.AddRange(Set(s));
        foreach (var s in states)
            if (
                s.Work.Pack.Value is { Parallel: > 1 }
                && s.Units.Where(u => u.Reached.Here > u.Reached.Proven).ToList() is { Count: > 0 } units
            )
                acts.Add(new($"measure {Few(units)} at rest", LedgerStop.Proven, Keys(units)));
        var fitted = living.Where(r => r.Top == LedgerStop.Proven && r.Reached.Fitted > r.Reached.Proven).ToList();
        if (fitted.Count > 0)
            acts.Add(new($"prove {Few(fitted)} with the meter", LedgerStop.Proven, Keys(fitted)));
        var coming = living.Where(r => r.Reached.Ordered > r.Reached.Here).ToList();
        if (coming.Count > 0)
            acts.Add(new($"wait for {Few(coming)}", LedgerStop.Here, Keys(coming)));
        if (toBuy.Parts.Count > 0)
            acts.Add(
                new(
                    $"order {toBuy.Parts.Count} {(toBuy.Parts.Count == 1 ? "part" : "parts")}: {toBuy.Words(currency)}",
                    LedgerStop.Ordered,
                    [.. toBuy.Parts.Select(p => p.Key)]
                )
            );
        return acts;
    }

    private static bool IsReady(LedgerRow r, HashSet<string> barred) =>
        r.Kind != LedgerKind.Store && r.Reached.Here > r.Reached.Fitted && !barred.Contains(r.Part.Key);

    /// <summary>What protects is fitted before what it protects, and copper that is live from the post last.</summary>
    private static int Turn(LedgerRow r) =>
        r.Kind == LedgerKind.Copper ? 10
        : r.Part.Group == PartGroup.Units ? 9
        : (int)r.Part.Group;

    private static BuildAct Fit(LedgerRow r)
    {
        var (tag, part) = (r.Part.Tag, r.Part);
        var some = Tolerant.AtLeast(r.Reached.Here, part.Count)
            ? ""
            : $", {Figures.Number(r.Reached.Here, 0)} of {Figures.Number(part.Count, 0)}";
        var words = r.Kind == LedgerKind.Copper ? $"fit {tag}: {part.Spec} lies cut" : $"fit {tag}, {Lower(part.Name)}";
        return new(words + some, LedgerStop.Fitted, [part.Key]);
    }

    private static IEnumerable<BuildAct> Set(BuildState s)
    {
        foreach (var card in s.Evaluation.Charging?.Cards ?? [])
            if (
                s.Find($"source-{card.Device}") is { } device
                && device.Any(LedgerStop.Here)
                && card.Rows.Count(r => !r.Done && r.Must) is > 0 and var open
            )
                yield return new($"set {card.Name}: {open} {(open == 1 ? "setting" : "settings")}", null, [device.Part.Key]);
    }

    private static string[] Keys(IEnumerable<LedgerRow> rows) => [.. rows.Select(r => r.Part.Key)];

    private static string Few(List<LedgerRow> rows)
    {
        List<string> names = [.. rows.Take(3).Select(r => r.Part.Tag.Length > 0 ? r.Part.Tag : Lower(r.Part.Name))];
        return rows.Count > names.Count ? $"{string.Join(", ", names)} and {rows.Count - names.Count} more" : Words(names);
    }

    private static string Words(List<string> names) =>
        names.Count == 1 ? names[0] : $"{string.Join(", ", names.SkipLast(1))} and {names[^1]}";

    /// <summary>Within a sentence; a name that is written in capitals stays so.</summary>
    private static string Lower(string name) =>
        name.Length > 1 && char.IsUpper(name[0]) && char.IsLower(name[1]) ? char.ToLowerInvariant(name[0]) + name[1..] : name;
}

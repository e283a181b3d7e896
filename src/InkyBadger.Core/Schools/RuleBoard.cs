using System.Text.Json;
using InkyBadger.Core.Design;
using InkyBadger.Core.Reference;
using InkyBadger.Core.Work;

namespace InkyBadger.Core.Schools;

/// <summary>A figure as it is now, and as it would be.</summary>
public sealed record AspectChange(string Label, string Now, string Then);

/// <summary>
/// A value of a house rule: its text, the schools that hold it, whether it holds here; what it alone would change in this design, in a word
/// or two (empty: nothing), and figure by figure.
/// </summary>
public sealed record RuleChoice(
    string Value,
    IReadOnlyList<RuleSet> Schools,
    bool Here,
    string Effect,
    IReadOnlyList<AspectChange> Changes
);

/// <summary>
/// A house rule with every value it may take. <paramref name="Own"/>: the design has a value of its own. <paramref name="Touches"/>:
/// another value would change something here. <paramref name="GiveBack"/>: how giving the own value back turns the design; null: it does
/// not. <paramref name="Elsewhere"/>: where it counts, if not in the figures of the design.
/// </summary>
public sealed record RuleRow(string Rule, bool Own, bool Touches, IReadOnlyList<RuleChoice> Choices, string? GiveBack, string? Elsewhere);

/// <summary>Every house rule, each other value of it tried on the whole design.</summary>
public static class RuleBoard
{
    /// <summary>The design as it stands, which every other value is held against.</summary>
    private sealed class Baseline(Evaluation all, int bank)
    {
        public Evaluation All => all;
        public int Bank => bank;
        public IReadOnlyList<Aspect> Aspects { get; } = Schools.Aspects.Of(all, bank);
        public BankEvaluation Results => all.Banks[bank];
        public byte[][] Stages { get; } = [.. RuleBoard.Stages.Select(s => Bytes(s.Of(all.Banks[bank])))];
    }

    /// <summary>Row by row, as they are worked out, in the order of the table; on as many cores as there are.</summary>
    /// <exception cref="OperationCanceledException">Nobody waits for the answer any more.</exception>
    public static IEnumerable<RuleRow> Rows(DesignDocument design, int bank, CancellationToken stop = default)
    {
        var asked = new HashSet<string>();
        var now = new Baseline(Evaluator.Evaluate(design, asked), bank);
        var rules = new DesignRules(design.HouseRules);
        return HouseRuleTable
            .All.AsParallel()
            .AsOrdered()
            .WithCancellation(stop)
            .WithMergeOptions(ParallelMergeOptions.NotBuffered)
            .Select(rule => Row(design, now, rules, rule, asked.Contains(rule.Id), stop));
    }

    /// <param name="matters">The evaluation has asked for the rule; else no value of it changes anything.</param>
    private static RuleRow Row(DesignDocument design, Baseline now, DesignRules rules, HouseRule rule, bool matters, CancellationToken stop)
    {
        var here = RuleValues.Of(rules, rule);
        var choices = new List<RuleChoice>();
        foreach (var value in RuleValues.All(rules, rule))
        {
            stop.ThrowIfCancellationRequested();
            var (schools, holds) = (RuleValues.Schools(rule, value), RuleValues.Same(value, here));
            var (effect, changes) =
                holds || !matters
                    ? ("", (IReadOnlyList<AspectChange>)[])
                    : Difference(rule, now, Evaluator.Evaluate(RuleValues.With(design, rule, value), mends: false));
            choices.Add(new(value, schools, holds, effect, changes));
        }
        var own = rules.IsOwn(rule.Id);
        return new(
            rule.Id,
            own,
            choices.Exists(c => c.Effect.Length > 0),
            choices,
            own && matters ? Turned(now.Results, Evaluator.Evaluate(RuleValues.Without(design, rule), mends: false).Banks[now.Bank]) : null,
            Elsewhere.GetValueOrDefault(rule.Id)
        );
    }

    /// <summary>How giving an own value back turns the design, in words; null: it does not, or there is none of that rule.</summary>
    public static string? GiveBack(DesignDocument design, int bank, string rule) =>
        HouseRuleTable.Has(rule) && new DesignRules(design.HouseRules).IsOwn(rule)
            ? Turned(
                Evaluator.Evaluate(design, mends: false).Banks[bank],
                Evaluator.Evaluate(RuleValues.Without(design, HouseRuleTable.Get(rule)), mends: false).Banks[bank]
            )
            : null;

    /// <summary>Rules that count only where time is run, the log is read, builds are compared or the meter is held.</summary>
    private static readonly Dictionary<string, string> Elsewhere = new()
    {
        ["bms-resets"] = "counts in Rehearse",
        ["plan-differs"] = "counts in the Log",
        ["rare-use"] = "counts in Builds",
        ["join-within"] = "counts in Bring-up",
        ["joint-bolted"] = "counts in Bring-up too",
    };

    /// <summary>What a rule is about is said first; else in the order of the work.</summary>
    private static readonly Dictionary<string, string> About = new()
    {
        ["usable-share-lfp"] = Aspects.Usable,
        ["usable-share-nmc"] = Aspects.Usable,
        ["usable-share-lead"] = Aspects.Usable,
        ["usable-share-gel"] = Aspects.Usable,
        ["take-off"] = Aspects.Share,
        ["surge-rule"] = Aspects.StartW,
        ["fuse-each-string"] = Aspects.StringFuses,
        ["links-one-string-out"] = Aspects.Links,
        ["least-size-battery"] = Aspects.Links,
    };

    internal static string? AboutOf(string rule) => About.GetValueOrDefault(rule);

    private static (string Effect, IReadOnlyList<AspectChange> Changes) Difference(HouseRule rule, Baseline now, Evaluation all)
    {
        var then = all.Banks[now.Bank];
        var changed = new List<(Aspect Now, Aspect Then)>();
        foreach (var aspect in Aspects.Of(all, now.Bank))
            if (now.Aspects.FirstOrDefault(a => a.Id == aspect.Id) is { } before && before.Text != aspect.Text)
                changed.Add((before, aspect));
        List<AspectChange> changes = [.. changed.Select(c => new AspectChange(c.Then.Label, c.Now.Text, c.Then.Text))];
        var runs = RunsChanged(now.Results, then);
        if (runs > 0)
            changes.Add(new("other runs", "as they are", runs == 1 ? "one changes" : $"{runs} change"));
        var about = AboutOf(rule.Id);
        var first = changed.OrderBy(c => c.Then.Id == about ? 0 : 1).Select(c => (c.Now, c.Then)).FirstOrDefault();
        if (first.Then is { Id: not (Aspects.Wrong or Aspects.ToLookAt) } said)
            return (said.Brief, changes);
        if (runs > 0)
            return (runs == 1 ? "one other run" : $"{runs} other runs", changes);
        if (first.Then is { } counted)
            return (Counted(first.Now, counted), changes);
        if ((Stage(now, then) ?? Beside(now.All, all)) is not { } stage)
            return ("", []);
        return (stage, [new(stage, "", "small figures differ")]);
    }

    private static string Counted(Aspect now, Aspect then)
    {
        var by = (int)(then.Value! - now.Value!);
        return by > 0 ? $"{by} {then.Label}" : $"{-by} fewer {then.Label}";
    }

    private static int RunsChanged(BankEvaluation a, BankEvaluation b)
    {
        var others = b.Circuits.ToDictionary(c => c.Id);
        return a.Circuits.Count(c => !others.TryGetValue(c.Id, out var o) || Of(c.Run) != Of(o.Run));
    }

    private static (string?, int, double?) Of(RunResult run) =>
        (run.Cable.Advised?.Size, run.Cable.Advised?.Conductors ?? 0, run.Fuse.AdvisedRatingA);

    private static readonly (string Name, Func<BankEvaluation, object?> Of)[] Stages =
    [
        ("the day", e => e.Loads),
        ("advice", e => (e.Voltage, e.Needs)),
        ("energy", e => e.Energy),
        ("inverter", e => e.Inverter),
        ("shares", e => e.Network),
        ("short circuits", e => e.Protection),
        ("fuses, drops", e => (e.MainRun, e.Circuits)),
        ("limits", e => (e.Chain, e.Envelope)),
        ("charging", e => e.Charging),
        ("hours it lasts", e => e.Bank),
        ("where it stands", e => e.Stands),
    ];

    private static readonly JsonSerializerOptions Written = new(DesignFormat.Options) { IncludeFields = true };

    /// <summary>The first stage of the work in which any figure differs; null: none does.</summary>
    private static string? Stage(Baseline now, BankEvaluation then)
    {
        foreach (var ((name, of), before) in Stages.Zip(now.Stages))
            if (!Bytes(of(then)).AsSpan().SequenceEqual(before))
                return name;
        return null;
    }

    /// <summary>What differs beside these stages: a finding, another bank, what banks have to do with one another.</summary>
    private static string? Beside(Evaluation a, Evaluation b) =>
        !Bytes(a.Findings).AsSpan().SequenceEqual(Bytes(b.Findings)) ? "a note"
        : Bytes(a.Site).AsSpan().SequenceEqual(Bytes(b.Site)) && Bytes(a.Banks).AsSpan().SequenceEqual(Bytes(b.Banks)) ? null
        : "other figures";

    private static byte[] Bytes(object? part) => JsonSerializer.SerializeToUtf8Bytes(part, Written);

    /// <summary>How what stands would be turned: another voltage, another count, another inverter.</summary>
    private static string? Turned(BankEvaluation now, BankEvaluation then)
    {
        var turns = new List<string>();
        if (now.Voltage is { } v && then.Voltage is { } w && v.SystemV != w.SystemV)
            turns.Add($"{Say.V(v.SystemV)} becomes {Say.V(w.SystemV)}");
        else if (now.Voltage is { } stands && then.Voltage is { } advised && stands.AdvisedV != advised.AdvisedV)
            turns.Add($"{Say.V(advised.AdvisedV)} is advised instead of {Say.V(stands.AdvisedV)}");
        if (now.Bank is { } a && then.Bank is { } b)
        {
            if (a.Layout.Units != b.Layout.Units)
                turns.Add($"{a.Layout.Units} units become {b.Layout.Units}");
            else if (a.Layout.AdvisedParallel != b.Layout.AdvisedParallel && b.Layout.AdvisedParallel is { } asked)
                turns.Add($"{Say.Strings(asked)} are asked for instead of {a.Layout.AdvisedParallel}");
        }
        if (now.Inverter is { Item: not null } i && then.Inverter is { } j && i.Name != j.Name)
            turns.Add($"{i.Name} becomes {j.Name}");
        return turns.Count == 0 ? null : string.Join(", ", turns);
    }
}

using InkyBadger.Core.Design;
using InkyBadger.Core.Reference;
using InkyBadger.Core.Work;

namespace InkyBadger.Core.Schools;

/// <summary>A value of the rule, and what the design asks for then.</summary>
public sealed record RulePoint(double At, double Value, string Text);

/// <summary>A school's value, or the one in force (<paramref name="Set"/> null), and what it asks for.</summary>
public sealed record RuleStem(RuleSet? Set, double At, double? Value, string Text);

/// <summary>What is built, and the value of the rule it would just satisfy (null: every one, or none).</summary>
public sealed record RuleBuilt(double Value, double? Holds, string Sentence);

/// <summary>
/// One rule by itself as a function: over its values what it asks for, the figure that it moves first. <paramref name="Stepped"/>: the
/// figure goes in steps, which stand where two points have one place. <paramref name="Step"/>: as fine as a hand drags it. No points: it
/// moves no number.
/// </summary>
public sealed record RuleCurveResult(
    string Rule,
    string Label,
    string Unit,
    bool Stepped,
    double From,
    double To,
    double Step,
    IReadOnlyList<RulePoint> Points,
    IReadOnlyList<RuleStem> Stems,
    RuleBuilt? Built,
    string? Headline
);

/// <summary>A rule of numbers, tried from below its least school to above its greatest.</summary>
public static class RuleCurve
{
    private const int Samples = 25,
        Halvings = 9;

    private static readonly string[] Drawn =
    [
        Aspects.Strings,
        Aspects.Volts,
        Aspects.Energy,
        Aspects.Cable,
        Aspects.InverterW,
        Aspects.StartW,
        Aspects.Usable,
        Aspects.Fuse,
        Aspects.Share,
        Aspects.StringFuses,
        Aspects.ToLookAt,
        Aspects.Wrong,
    ];

    private static readonly string[] Smooth = [Aspects.InverterW, Aspects.StartW, Aspects.Usable, Aspects.Energy, Aspects.Share];

    /// <param name="tried">A value that is only tried, for the headline; null: none.</param>
    /// <returns>Null: there is no such rule.</returns>
    public static RuleCurveResult? Work(DesignDocument design, int bank, string id, double? tried, CancellationToken stop = default)
    {
        if (!HouseRuleTable.Has(id))
            return null;
        var rule = HouseRuleTable.Get(id);
        var here = RuleValues.Number(RuleValues.Of(new(design.HouseRules), rule));
        double[] known =
        [
            .. new[]
            {
                rule.NumberOf(RuleSet.Cautious),
                rule.NumberOf(RuleSet.Typical),
                rule.NumberOf(RuleSet.Lean),
                here,
                tried,
            }.OfType<double>(),
        ];
        var seen = new Dictionary<double, (Evaluation All, IReadOnlyList<Aspect> Aspects)>();
        (Evaluation All, IReadOnlyList<Aspect> Aspects) At(double x)
        {
            stop.ThrowIfCancellationRequested();
            if (!seen.TryGetValue(x, out var found))
            {
                var e = Evaluator.Evaluate(RuleValues.With(design, rule, RuleValues.Text(x)), mends: false);
                seen[x] = found = (e, Aspects.Of(e, bank));
            }
            return found;
        }
        if (known.Length == 0)
            return new(id, "", "", false, 0, 0, 0, [], [], null, null);
        var (from, to) = Range(rule, known);
        // Whole strings alone; else a step a hand can set.
        var step = rule.Unit == "strings" ? 1 : Math.Pow(10, Math.Ceiling(Math.Log10((to - from) / 200)));
        var even =
            rule.Unit == "strings"
                ? Enumerable.Range((int)Math.Ceiling(from), (int)to - (int)Math.Ceiling(from) + 1).Select(n => (double)n)
                : Enumerable.Range(0, Samples).Select(i => Fine(from + (to - from) * i / (Samples - 1)));
        double[] places = [.. even, .. known];
        places = [.. places.Where(x => x >= from && x <= to).Distinct().Order()];
        var about = RuleBoard.AboutOf(id);
        var moved = Drawn
            .OrderBy(a => a == about ? 0 : 1)
            .FirstOrDefault(a => Moves([.. places.Select(x => Find(At(x).Aspects, a)?.Value).OfType<double>()]));
        if (moved is null)
            return new(id, "", "", false, from, to, step, [], [.. Stems(null)], null, null);

        var stepped = !Smooth.Contains(moved);
        double? Y(double x) => Find(At(x).Aspects, moved)?.Value;
        var points = new List<RulePoint>();
        void Add(double x, double at)
        {
            if (Find(At(x).Aspects, moved) is { Value: { } value } aspect)
                points.Add(new(at, value, aspect.Text));
        }
        for (var i = 0; i < places.Length; i++)
        {
            if (i > 0 && stepped && step < 1 && Y(places[i - 1]) != Y(places[i]))
            {
                var (a, b) = Edge(places[i - 1], places[i], x => Y(x) == Y(places[i - 1]));
                Add(a, a);
                Add(b, a);
            }
            Add(places[i], places[i]);
        }
        var label = Find(At(places[0]).Aspects, moved) is { } first ? first : Find(At(known[0]).Aspects, moved)!;
        var built = Built(At(here ?? known[0]).All.Banks[bank], moved) is { } stands ? Holds(stands) : null;
        return new(id, label.Label, label.Unit, stepped, from, to, step, points, [.. Stems(moved)], built, Headline());

        IEnumerable<RuleStem> Stems(string? aspect)
        {
            foreach (var set in Enum.GetValues<RuleSet>())
                if (rule.NumberOf(set) is { } x)
                    yield return Stem(set, x, aspect);
            if (here is { } now)
                yield return Stem(null, now, aspect);
        }
        RuleStem Stem(RuleSet? set, double x, string? aspect)
        {
            var found = aspect is null ? null : Find(At(x).Aspects, aspect);
            return new(set, x, found?.Value, found?.Text ?? "");
        }
        // The value nearest to the lean side's opposite that what stands would still satisfy: everything beyond it asks for more.
        RuleBuilt? Holds(Standing stands)
        {
            bool Satisfied(double x) => Y(x) is { } asked && Tolerant.AtLeast(stands.Value, asked);
            // At other volts as many strings are another bank.
            if (places.Select(x => Find(At(x).Aspects, Aspects.Volts)?.Value).Distinct().Count() > 1)
                return null;
            var (low, high) = (Satisfied(from), Satisfied(to));
            if (low == high)
                return new(stands.Value, null, $"{stands.Words} {stands.Verb("satisfy", "satisfies")} {(low ? "every" : "no")} value here");
            var (a, b) = Edge(from, to, x => Satisfied(x) == low);
            // Rounded into what is satisfied.
            var holds = low ? Math.Floor(a / step + Tolerant.Noise) * step : Math.Ceiling(b / step - Tolerant.Noise) * step;
            holds = Fine(holds);
            return new(stands.Value, holds, $"{stands.Words} {stands.Verb("hold", "holds")} {RuleValues.Said(rule, holds)}");
        }
        string? Headline()
        {
            if (tried is not { } x || Find(At(x).Aspects, moved) is not { } asked)
                return null;
            if (Built(At(x).All.Banks[bank], moved) is not { } stands)
                return null;
            var words = char.ToLowerInvariant(stands.Words[0]) + stands.Words[1..];
            return Tolerant.AtLeast(stands.Value, asked.Value ?? 0)
                ? $"At {RuleValues.Said(rule, x)} {words} {stands.Verb("are", "is")} enough"
                : $"At {RuleValues.Said(rule, x)} it takes {asked.Text}, and {words} {stands.Verb("are", "is")} not enough";
        }
    }

    /// <summary>From two thirds of the least known value to a tenth beyond the greatest, as far as the rule takes it.</summary>
    private static (double From, double To) Range(HouseRule rule, double[] known)
    {
        var from = Fine(Math.Max(known.Min() / 1.5, rule.Least));
        var to = Fine(Math.Min(Math.Max(known.Max() * 1.1, from * 1.5), rule.Greatest));
        return (Math.Max(from, 1e-3), Math.Max(to, from * 1.01));
    }

    /// <summary>By more than noise.</summary>
    private static bool Moves(double[] values) =>
        values.Length > 0 && values.Max() - values.Min() > 1e-6 * Math.Max(Math.Abs(values.Max()), Math.Abs(values.Min()));

    private static double Fine(double x) => Math.Round(x, 4);

    /// <summary>The last place that is still so, and the first that is not, as near as figures go.</summary>
    private static (double Last, double First) Edge(double a, double b, Func<double, bool> so)
    {
        for (var i = 0; i < Halvings && b - a > 1e-4 * Math.Abs(b); i++)
        {
            var middle = (a + b) / 2;
            if (so(middle))
                a = middle;
            else
                b = middle;
        }
        return (a, b);
    }

    private sealed record Standing(double Value, string Words, bool Many)
    {
        public string Verb(string many, string one) => Many ? many : one;
    }

    /// <summary>What stands in the design of a figure that is asked for.</summary>
    private static Standing? Built(BankEvaluation e, string aspect) =>
        aspect switch
        {
            Aspects.Strings when e.Bank?.Layout.Parallel is { } n => new(
                n,
                n == 1 ? "The one string built" : $"The {Say.Count(n).ToLowerInvariant()} strings built",
                n > 1
            ),
            Aspects.Cable when e.MainRun?.Cable is { AreaMm2: { } area, Size: { } size } cable => new(
                area * cable.Conductors,
                $"The {Say.Size(size, cable.Conductors)} laid",
                false
            ),
            Aspects.InverterW when e.Inverter?.Gives.ContinuousW is { } watts => new(watts, $"The inverter’s {Say.W(watts)}", true),
            _ => null,
        };

    private static Aspect? Find(IReadOnlyList<Aspect> aspects, string id) => aspects.FirstOrDefault(a => a.Id == id);
}

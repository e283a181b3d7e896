using InkyBadger.Core.Design;
using InkyBadger.Core.Reference;
using InkyBadger.Core.Work;

namespace InkyBadger.Core.Schools;

/// <summary>A value of the rule, what the design asks for then, and whether what is built is enough (null: it is silent).</summary>
public sealed record RulePoint(double At, double Value, string Text, bool? Enough);

/// <summary>A school's value, or the one in force (<paramref name="Set"/> null), and what it asks for.</summary>
public sealed record RuleStem(RuleSet? Set, double At, double? Value, string Text);

/// <summary>
/// What is built, the value of the rule it would just satisfy (null: every one, or none), that as a sentence, and how one says that it is
/// enough or not.
/// </summary>
public sealed record RuleBuilt(double Value, double? Holds, string Sentence, string Enough, string NotEnough);

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
    RuleBuilt? Built
);

/// <summary>A rule of numbers, tried from below its least school to above its greatest; each value is the whole design evaluated.</summary>
public sealed class RuleCurve
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

    private readonly DesignDocument design;
    private readonly int bank;
    private readonly HouseRule rule;
    private readonly CancellationToken stop;
    private readonly Dictionary<double, (Evaluation All, IReadOnlyList<Aspect> Aspects)> tried = [];

    /// <summary>Places that are tried.</summary>
    private readonly double[] places;
    private readonly double from,
        to,
        step;

    /// <summary>The value in force; null: a word.</summary>
    private readonly double? here;

    private RuleCurve(DesignDocument design, int bank, HouseRule rule, double[] known, double? here, CancellationToken stop)
    {
        (this.design, this.bank, this.rule, this.here, this.stop) = (design, bank, rule, here, stop);
        (from, to) = Range(rule, known);
        // Whole strings alone; else a step a hand can set.
        var whole = rule.Unit == "strings";
        step = whole ? 1 : Math.Pow(10, Math.Ceiling(Math.Log10((to - from) / 200)));
        var least = (int)Math.Ceiling(from);
        var even = whole
            ? Enumerable.Range(least, (int)to - least + 1).Select(n => (double)n)
            : Enumerable.Range(0, Samples).Select(i => Fine(from + (to - from) * i / (Samples - 1)));
        places = [.. even.Concat(known).Where(x => x >= from && x <= to).Distinct().Order()];
    }

    /// <returns>Null: there is no such rule.</returns>
    public static RuleCurveResult? Work(DesignDocument design, int bank, string id, CancellationToken stop = default)
    {
        if (!HouseRuleTable.Has(id))
            return null;
        var rule = HouseRuleTable.Get(id);
        var here = RuleValues.Number(RuleValues.Of(new(design.HouseRules), rule));
        double[] known = [.. Enum.GetValues<RuleSet>().Select(rule.NumberOf).Append(here).OfType<double>()];
        return known.Length == 0
            ? new(id, "", "", false, 0, 0, 0, [], [], null)
            : new RuleCurve(design, bank, rule, known, here, stop).Work();
    }

    private RuleCurveResult Work()
    {
        var about = RuleBoard.AboutOf(rule.Id);
        if (Drawn.OrderBy(a => a == about ? 0 : 1).FirstOrDefault(Moves) is not { } aspect)
            return new(rule.Id, "", "", false, from, to, step, [], [.. Stems(null)], null);
        var stepped = !Smooth.Contains(aspect);
        var label = places.Select(x => Find(x, aspect)).OfType<Aspect>().First();
        var stands = Built(At(here ?? places[0]).All.Banks[bank], aspect);
        // At other volts as many strings are another bank.
        if (places.Select(x => Find(x, Aspects.Volts)?.Value).Distinct().Count() > 1)
            stands = null;
        return new(
            rule.Id,
            label.Label,
            label.Unit,
            stepped,
            from,
            to,
            step,
            [.. Points(aspect, stepped, stands)],
            [.. Stems(aspect)],
            stands is null ? null : Holds(stands, aspect)
        );
    }

    private (Evaluation All, IReadOnlyList<Aspect> Aspects) At(double x)
    {
        stop.ThrowIfCancellationRequested();
        if (!tried.TryGetValue(x, out var found))
        {
            var e = Evaluator.Evaluate(RuleValues.With(design, rule, RuleValues.Text(x)), mends: false);
            tried[x] = found = (e, Aspects.Of(e, bank));
        }
        return found;
    }

    private Aspect? Find(double x, string aspect) => At(x).Aspects.FirstOrDefault(a => a.Id == aspect);

    private double? Y(double x, string aspect) => Find(x, aspect)?.Value;

    /// <summary>By more than noise.</summary>
    private bool Moves(string aspect)
    {
        double[] values = [.. places.Select(x => Y(x, aspect)).OfType<double>()];
        return values.Length > 0 && values.Max() - values.Min() > 1e-6 * Math.Max(Math.Abs(values.Max()), Math.Abs(values.Min()));
    }

    private IEnumerable<RulePoint> Points(string aspect, bool stepped, Standing? stands)
    {
        RulePoint? Point(double x, double at) =>
            Find(x, aspect) is { Value: { } value } found
                ? new(at, value, found.Text, stands is null ? null : Tolerant.AtLeast(stands.Value, value))
                : null;
        var list = new List<RulePoint?>();
        for (var i = 0; i < places.Length; i++)
        {
            // Whole values have no place between them where a step could lie.
            if (i > 0 && stepped && step < 1 && Y(places[i - 1], aspect) != Y(places[i], aspect))
            {
                var (a, b) = Edge(places[i - 1], places[i], x => Y(x, aspect) == Y(places[i - 1], aspect));
                list.Add(Point(a, a));
                list.Add(Point(b, a));
            }
            list.Add(Point(places[i], places[i]));
        }
        return list.OfType<RulePoint>();
    }

    private IEnumerable<RuleStem> Stems(string? aspect)
    {
        RuleStem Stem(RuleSet? set, double x)
        {
            var found = aspect is null ? null : Find(x, aspect);
            return new(set, x, found?.Value, found?.Text ?? "");
        }
        foreach (var set in Enum.GetValues<RuleSet>())
            if (rule.NumberOf(set) is { } x)
                yield return Stem(set, x);
        if (here is { } now)
            yield return Stem(null, now);
    }

    /// <summary>The outermost value of the rule that what is built would still satisfy: everything beyond it asks for more.</summary>
    private RuleBuilt Holds(Standing stands, string aspect)
    {
        bool Satisfied(double x) => Y(x, aspect) is { } asked && Tolerant.AtLeast(stands.Value, asked);
        RuleBuilt Said(double? holds, string many, string one, string rest)
        {
            var (first, last) = (char.ToLowerInvariant(stands.Words[0]) + stands.Words[1..], stands.Verb("are", "is"));
            return new(
                stands.Value,
                holds,
                $"{stands.Words} {stands.Verb(many, one)} {rest}",
                $"{first} {last} enough",
                $"{first} {last} not enough"
            );
        }
        var (low, high) = (Satisfied(from), Satisfied(to));
        if (low == high)
            return Said(null, "satisfy", "satisfies", $"{(low ? "every" : "no")} value here");
        var (a, b) = Edge(from, to, x => Satisfied(x) == low);
        // Rounded into what is satisfied.
        var holds = Fine(low ? Math.Floor(a / step + Tolerant.Noise) * step : Math.Ceiling(b / step - Tolerant.Noise) * step);
        return Said(holds, "hold", "holds", RuleValues.Said(rule, holds));
    }

    /// <summary>From two thirds of the least known value to a tenth beyond the greatest, as far as the rule takes it.</summary>
    private static (double From, double To) Range(HouseRule rule, double[] known)
    {
        var from = Fine(Math.Max(known.Min() / 1.5, rule.Least));
        var to = Fine(Math.Min(Math.Max(known.Max() * 1.1, from * 1.5), rule.Greatest));
        return (Math.Max(from, 1e-3), Math.Max(to, from * 1.01));
    }

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
}

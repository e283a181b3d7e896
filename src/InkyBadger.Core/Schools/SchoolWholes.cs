using InkyBadger.Core.Builds;
using InkyBadger.Core.Design;
using InkyBadger.Core.Reference;
using InkyBadger.Core.Voltage;
using InkyBadger.Core.Work;

namespace InkyBadger.Core.Schools;

/// <summary>
/// The whole design as one school would advise it, or as it stands (<paramref name="Set"/> null): the key of its unit, a figure a line, and
/// the findings then.
/// </summary>
public sealed record SchoolWhole(RuleSet? Set, string? Unit, IReadOnlyList<Aspect> Figures, int Wrong, int ToLookAt);

/// <summary>The schools side by side, each a whole design worked out, and what sets them most apart.</summary>
public static class SchoolWholes
{
    /// <summary>As it stands, then cautious, typical, lean.</summary>
    public static IReadOnlyList<SchoolWhole> Work(DesignDocument design, int bank, CancellationToken stop = default)
    {
        var wholes = new List<SchoolWhole> { Of(null, design, bank) };
        foreach (var set in Enum.GetValues<RuleSet>())
        {
            stop.ThrowIfCancellationRequested();
            wholes.Add(Of(set, AsAdvised(Under(design, set), bank), bank));
        }
        return wholes;
    }

    private static DesignDocument Under(DesignDocument design, RuleSet set) => design with { HouseRules = new() { Set = set } };

    /// <summary>
    /// A bank with every choice that house rules have a say in set free: volts, count, inverters, copper, fuses. The unit stays as long as
    /// it makes the volts; places and lengths stay.
    /// </summary>
    internal static DesignDocument AsAdvised(DesignDocument design, int index)
    {
        DesignDocument Put(Bank bank) => design with { Banks = [.. design.Banks.Select((b, i) => i == index ? bank : b)] };
        var bank = design.Banks[index];
        var free = SystemVoltage.Release(bank) with
        {
            Series = null,
            Parallel = null,
            Positions = [],
            Inverters = [.. bank.Inverters.Select(i => i with { Item = null, Stack = 1 })],
            Wiring = SystemVoltage.Release(bank).Wiring with { Style = null },
        };
        if (new SiteWork(Put(free with { SystemV = null }))[index].Voltage.Value is not { } voltage)
            return Put(free);
        var stands = new SiteWork(design)[index].Voltage.Value?.SystemV ?? voltage.AdvisedV;
        var there = SystemVoltage.Set(free with { SystemV = stands }, stands, voltage.AdvisedV);
        return Put(there with { Series = null, Parallel = null });
    }

    private static SchoolWhole Of(RuleSet? set, DesignDocument design, int index)
    {
        var evaluation = Evaluator.Evaluate(design, mends: false);
        var e = evaluation.Banks[index];
        var figures = Figures(e, design.Display.Units);
        var price = PriceOf(design, index);
        figures.Add(
            Figure("price", "Whole price", price, "", price is { } money ? design.Display.Currency + Say.Number(money) : "not known")
        );
        return new(set, e.Bank?.Unit.Key, figures, evaluation.Counts.Wrong, evaluation.Counts.ToLookAt);
    }

    /// <summary>Of the bill with everything it needs; null: of a part it is not known.</summary>
    private static double? PriceOf(DesignDocument design, int index) =>
        BuildMaker.Present(design, index, new()) is { Bill: { IsWhole: true } bill } ? bill.Total : null;

    private static Aspect Figure(string id, string label, double? value, string unit, string? text) =>
        new(id, label, value, unit, text ?? "none", text ?? "none");

    private static List<Aspect> Figures(BankEvaluation e, UnitSystem units)
    {
        var (bank, volts, run) = (e.Bank, e.Voltage, e.MainRun);
        double? watts = e.Chain?.Continuous is [{ } link, ..] ? link.AcW : null;
        var cable = run?.Cable is { Size: { } size } laid ? Say.Size(size, laid.Conductors) : null;
        return
        [
            Figure("units", "Units", bank?.Layout.Units, "", bank is null ? null : Say.Number(bank.Layout.Units)),
            Figure(Aspects.Volts, "System volts", volts?.SystemV, "class", volts is null ? null : Say.V(volts.SystemV)),
            Figure(Aspects.Cable, "Main cable", run?.Cable.AreaMm2 * run?.Cable.Conductors, "mm²", cable),
            Figure(Aspects.Fuse, "Main fuse", run?.Fuse.RatingA, "rating", run?.Fuse.RatingA is { } a ? Say.Rating(a) : null),
            Figure(Aspects.Usable, "Usable", bank?.Holds.UsableWh, "Wh", bank is null ? null : Say.Wh(bank.Holds.UsableWh)),
            Figure("ac", "AC without end", watts, "W", watts is { } w ? Say.W(w) : null),
            Figure("mass", "All units", bank?.MassKg, "kg", bank?.MassKg is { } kg ? Say.Mass(kg, units) : null),
        ];
    }

    /// <summary>What a headline compares, in this order, where the schools differ in it.</summary>
    private static readonly (string Id, Func<Aspect, string> Said)[] Told =
    [
        ("units", a => a.Value == 1 ? "1 unit" : $"{a.Text} units"),
        (Aspects.Volts, a => a.Text),
        (Aspects.Cable, a => a.Text),
        ("price", a => a.Text),
        (Aspects.Fuse, a => $"{a.Text} of fuse"),
    ];

    /// <summary>The widest spread between cautious and lean in a sentence, with the rules that make it.</summary>
    public static string Headline(DesignDocument design, int bank, IReadOnlyList<SchoolWhole> wholes, CancellationToken stop = default)
    {
        if (new SiteWork(design)[bank].Evaluation(headlines: false).Loads is null)
            return "The schools can be chosen now; what they change appears with the first load";
        var (cautious, lean) = (wholes[1], wholes[3]);
        foreach (var (id, said) in Told)
        {
            var (a, b) = (Find(cautious.Figures, id), Find(lean.Figures, id));
            if (a?.Value is not { } most || b?.Value is not { } least || most == least || id == "units" && cautious.Unit != lean.Unit)
                continue;
            var rules = Makers(design, bank, id, least, stop);
            var by = rules.Count == 0 ? "no one rule alone does that" : $"{Say.List(rules)} {(rules.Count == 1 ? "does" : "do")} that";
            return $"Cautious asks for {said(a)}, lean for {said(b)}: {by}";
        }
        return "The schools come to the same here";
    }

    /// <summary>Of the lean design, the two rules whose cautious value alone moves a figure most.</summary>
    private static List<string> Makers(DesignDocument design, int bank, string id, double least, CancellationToken stop)
    {
        var found = new List<(string Label, double By)>();
        foreach (var rule in HouseRuleTable.All)
        {
            stop.ThrowIfCancellationRequested();
            if (RuleValues.Same(rule.Cautious, rule.Lean))
                continue;
            var tried = AsAdvised(RuleValues.With(Under(design, RuleSet.Lean), rule, rule.Cautious), bank);
            var moved =
                id == "price"
                    ? PriceOf(tried, bank)
                    : Find(Figures(new SiteWork(tried)[bank].Evaluation(headlines: false), default), id)?.Value;
            if (moved is { } value && value != least)
                found.Add((Lowered(rule.Label), Math.Abs(value - least)));
        }
        return [.. found.OrderByDescending(f => f.By).Take(2).Select(f => f.Label)];
    }

    private static string Lowered(string label) =>
        label.StartsWith("AC", StringComparison.Ordinal) ? label : char.ToLowerInvariant(label[0]) + label[1..];

    private static Aspect? Find(IReadOnlyList<Aspect> figures, string id) => figures.FirstOrDefault(f => f.Id == id);
}

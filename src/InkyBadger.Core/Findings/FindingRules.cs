using InkyBadger.Core.Design;
using InkyBadger.Core.Voltage;
using InkyBadger.Core.Work;

namespace InkyBadger.Core.Findings;

/// <summary>What a rule sees: the work on the bank, and everything worked out for it.</summary>
public sealed class FindingScene
{
    private readonly MendTrials? trials;
    private Bank? at24,
        at48;

    /// <param name="work">The bank in hand.</param>
    /// <param name="results">All its stages.</param>
    /// <param name="known">Everything that is found in the design, complete once somebody asks for a mend; null: nobody will.</param>
    /// <param name="budget">How much may be tried on the whole design.</param>
    internal FindingScene(BankWork work, BankEvaluation results, IReadOnlyList<Finding>? known = null, MendBudget? budget = null)
    {
        (Work, Results) = (work, results);
        trials = known is null ? null : new(this, known, budget ?? new());
    }

    public BankWork Work { get; }
    public BankEvaluation Results { get; }
    public BankScene Scene => Work.Scene;
    public Bank Bank => Work.Document;

    public Finding Make(
        string rule,
        Grade grade,
        Station station,
        string place,
        string title,
        string why,
        FindingFigure[] figures,
        params MendOffer?[] offers
    ) => Make(rule, grade, station, place, title, why, figures, () => offers.OfType<MendOffer>());

    /// <summary>With offers that are only looked for when somebody asks for them.</summary>
    public Finding Make(
        string rule,
        Grade grade,
        Station station,
        string place,
        string title,
        string why,
        FindingFigure[] figures,
        Func<IEnumerable<MendOffer>> offers
    ) => new(rule, grade, station, Results.Id, Scene.Pointer + place, title, why, figures) { Offers = offers, Trials = trials };

    internal static MendOffer Offer(string label, string outcome, Bank then, string? group = null) => new(label, _ => outcome, then, group);

    internal static MendOffer Offer(string label, Func<BankWork, string> outcome, Bank then, string? group = null) =>
        new(label, outcome, then, group);

    internal MendOffer OfRun(string id, string label, string outcome, Func<Run, Run> change, string? group = null) =>
        Offer(label, outcome, Bank.WithRun(id, change), group);

    /// <summary>The bank at a higher voltage, the same object for every rule that asks.</summary>
    private Bank At(int volts) =>
        volts == 24
            ? at24 ??= SystemVoltage.Set(Bank, Results.Voltage!.SystemV, 24)
            : at48 ??= SystemVoltage.Set(Bank, Results.Voltage!.SystemV, 48);

    /// <summary>The voltages above this one, with what main cable and fuse would be there.</summary>
    internal IEnumerable<MendOffer> HigherVoltages()
    {
        if (Results.Voltage is not { SystemV: < 48 } v || Scene.Inverter is null)
            yield break;
        foreach (var next in (int[])[24, 48])
            if (next > v.SystemV)
                yield return Offer($"Try {next} V", MainRunOf, At(next));
    }

    internal static string MainRunOf(BankWork then) =>
        then.MainRun.Value is not { } run ? "nothing draws current then"
        : run is { Cable.Size: { } size, Fuse.RatingA: { } rating }
            ? $"{Say.A(run.DesignA)}: {Say.Size(size, run.Cable.Conductors)} behind {Say.Rating(rating)}"
        : $"{Say.A(run.DesignA)} in the main cable";

    /// <summary>More strings, one by one, until there are enough.</summary>
    internal IEnumerable<MendOffer> MoreStrings(Func<BankWork, string> outcome)
    {
        if (Results.Bank is not { } b)
            yield break;
        var most = Math.Min(b.Unit.MaxParallel ?? BankStage.MostStrings, BankStage.MostStrings);
        if (b.Layout.ParallelPinned && b.Layout.AdvisedParallel is { } advised && advised > b.Layout.Parallel)
            yield return Offer($"Use {advised} strings", outcome, Bank with { Parallel = null }, "strings");
        for (
            var p = b.Layout.Parallel + 1;
            p <= Math.Min(most, b.Layout.Parallel + MostMoreStrings) && p * b.Layout.Series <= DesignCheck.MostUnits;
            p++
        )
            yield return Offer($"Use {p} strings", outcome, Bank with { Parallel = p }, "strings");
    }

    private const int MostMoreStrings = 6;

    /// <summary>The unit as advised, and with it S and P.</summary>
    internal MendOffer? AdvisedUnit() =>
        Results.Bank is not { Choice.Pinned: true }
            ? null
            : Offer(
                "Use the advised unit",
                then => then.Bank.Value is { } b ? $"{b.Layout.Series * b.Layout.Parallel} × {b.Unit.Name}" : "from the catalogue",
                Bank with
                {
                    Unit = null,
                    Series = null,
                    Parallel = null,
                    Positions = [],
                }
            );
}

/// <summary>One thing that can be wrong: null when it is not.</summary>
public delegate Finding? FindingRule(FindingScene scene);

/// <summary>Something that can be wrong in several places of a bank.</summary>
public delegate IEnumerable<Finding> PlacesRule(FindingScene scene);

/// <summary>One thing that can be wrong with a load (and its index): null when it is not.</summary>
public delegate Finding? LoadRule(FindingScene scene, Load load, int index);

/// <summary>Every rule, grouped as people think of them.</summary>
public static class FindingRules
{
    public static IReadOnlyList<FindingRule> All { get; } =
    [
        .. LoadFindings.Rules,
        .. InverterFindings.Rules,
        .. BankFindings.Rules,
        .. MixFindings.Rules,
        .. ChargingFindings.Rules,
        .. YearFindings.Rules,
        .. MoneyFindings.Rules,
        .. PlaceFindings.Rules,
        .. CableFindings.Rules,
    ];

    /// <summary>One bank whole, and what is found about it.</summary>
    internal static BankEvaluation Evaluate(
        BankWork w,
        List<Finding> findings,
        bool headlines = true,
        MendBudget? budget = null,
        bool mends = true
    )
    {
        var bank = w.Evaluation(headlines);
        foreach (var gap in w.Refused)
            findings.Add(
                new(
                    "refused." + gap.Field,
                    Grade.Fault,
                    gap.Station,
                    bank.Id,
                    w.Scene.Pointer + gap.Place,
                    $"This cannot be worked out: {gap.Field}",
                    gap.Words,
                    []
                )
            );
        Collect(new(w, bank, mends ? findings : null, budget), findings);
        return bank;
    }

    private static PlacesRule[] OfPlaces { get; } =
    [
        ChargingFindings.Settings,
        SourceFindings.All,
        CableFindings.Placed,
        CableFindings.Shunt,
        ProtectionFindings.All,
        DarkFindings.All,
        DriftFindings.All,
        StandFindings.All,
        SiteFindings.All,
        AcFindings.All,
    ];

    /// <summary>Findings of a bank, the gravest first, within a grade in the order of the work.</summary>
    public static void Collect(FindingScene scene, List<Finding> into)
    {
        foreach (var rule in All)
            if (rule(scene) is { } finding)
                into.Add(finding);
        foreach (var rule in OfPlaces)
            into.AddRange(rule(scene));
        foreach (var view in RunView.Of(scene))
        foreach (var rule in RunFindings.OfEachRun)
            if (rule(scene, view) is { } finding)
                into.Add(finding with { About = view.Doc.Id });
        if (scene.Scene.Bank.Demand.By != DemandBy.Loads)
            return;
        foreach (var (i, load) in (scene.Work.Fed.Value ?? scene.Bank).Demand.Loads.Index())
        foreach (var rule in LoadFindings.OfEachLoad)
            if (rule(scene, load, i) is { } finding)
                into.Add(finding with { About = load.Id });
    }
}

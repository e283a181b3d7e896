using System.Text.Json.Nodes;
using InkyBadger.Core.Design;
using InkyBadger.Core.Work;

namespace InkyBadger.Core.Findings;

/// <summary>
/// A change that mends a finding, and what it brings. It was tried before it is offered: with it the finding is gone, and nothing graver is
/// there that was not there before.
/// </summary>
public sealed record Mend(string Label, string Outcome, IReadOnlyList<DesignChange> Changes)
{
    private Func<BankWork, string>? promise;

    internal static Mend Of(MendOffer offer, IReadOnlyList<DesignChange> changes, BankWork then) =>
        new(offer.Label, offer.Promise(then), changes) { promise = offer.Promise };

    /// <summary>The same words of another work on the same bank: once it is pressed they must be these.</summary>
    public string OutcomeOf(BankWork pressed) => promise!(pressed);
}

/// <summary>
/// What a rule would change, not tried yet: the bank as it would be then, and the words for what it brings, from the work on that bank. Of
/// offers of one group the first that keeps its promise is made.
/// </summary>
public sealed record MendOffer(string Label, Func<BankWork, string> Promise, Bank Then, string? Group = null)
{
    /// <summary>The whole design as it would be, of an offer that changes more than its bank; null: the bank alone.</summary>
    public DesignDocument? Whole { get; init; }
}

/// <summary>
/// How much is tried on one design: each trial costs what the bank is long, and of a list without end only the mends of its gravest
/// findings are looked for. Designs as people make them never come near it.
/// </summary>
internal sealed class MendBudget
{
    /// <summary>Some two hundred trials of a usual bank, three of the longest that is admitted.</summary>
    private const int Most = 12_000;
    private const int Each = 20,
        EachRun = 4;

    private int left = Most;

    public bool Spend(Bank bank)
    {
        var cost = Each + EachRun * bank.Runs.Count + bank.Demand.Loads.Sum(l => 1 + (l.Windows?.Count ?? 0));
        if (left < cost)
            return false;
        left -= cost;
        return true;
    }
}

/// <summary>Tries the offers of a finding on the design, once somebody asks what can be done about it.</summary>
internal sealed class MendTrials(FindingScene scene, IReadOnlyList<Finding> known, MendBudget budget)
{
    private readonly Dictionary<Bank, (BankWork Work, List<Finding> Findings)> tried = new(ReferenceEqualityComparer.Instance);

    private readonly Dictionary<DesignDocument, (BankWork Work, List<Finding> Findings)> wholes = new(ReferenceEqualityComparer.Instance);

    private JsonNode? before;

    public List<Mend> Kept(Finding finding, IEnumerable<MendOffer> offers)
    {
        var kept = new List<Mend>();
        var done = new HashSet<string>();
        foreach (var offer in offers)
        {
            if (offer.Group is { } group && done.Contains(group) || offer.Whole is null && ReferenceEquals(offer.Then, scene.Work.Document))
                continue;
            if ((offer.Whole is { } whole ? TryWhole(whole) : Try(offer.Then)) is not var (work, then) || !Keeps(finding, then))
                continue;
            if (offer.Group is { } of)
                done.Add(of);
            var changes = offer.Whole is { } design
                ? DesignDifference.Between(scene.Work.Site.Design, design)
                : DesignDifference.Between(before ??= DesignDifference.NodeOf(scene.Work.Document), offer.Then, scene.Work.Scene.Pointer);
            kept.Add(Mend.Of(offer, changes, work));
        }
        return kept;
    }

    /// <summary>Null where there is no more to spend.</summary>
    private (BankWork Work, List<Finding> Findings)? Try(Bank bank)
    {
        if (tried.TryGetValue(bank, out var before))
            return before;
        if (!budget.Spend(bank))
            return null;
        var work = scene.Work.With(bank);
        var findings = new List<Finding>();
        FindingRules.Evaluate(work, findings, headlines: false);
        // A bank that hangs on this one feels the change too.
        foreach (var other in Joined())
            FindingRules.Evaluate(work.Site[other], findings, headlines: false);
        return tried[bank] = (work, findings);
    }

    /// <summary>A design changed beyond the bank in hand: every bank is looked at anew.</summary>
    private (BankWork Work, List<Finding> Findings)? TryWhole(DesignDocument design)
    {
        if (wholes.TryGetValue(design, out var before))
            return before;
        var site = new SiteWork(design);
        if (site.Find(scene.Work.Document.Id) is not { } work || !design.Banks.All(budget.Spend))
            return null;
        var findings = new List<Finding>();
        for (var i = 0; i < site.Count; i++)
            FindingRules.Evaluate(site[i], findings, headlines: false);
        return wholes[design] = (work, findings);
    }

    private IEnumerable<int> Joined()
    {
        var design = scene.Work.Site.Design;
        var id = scene.Work.Document.Id;
        foreach (var (i, bank) in design.Banks.Index())
            if (i != scene.Work.Scene.Index && design.Joins.Any(j => j.From == id && j.To == bank.Id || j.To == id && j.From == bank.Id))
                yield return i;
    }

    private bool Keeps(Finding mended, List<Finding> then)
    {
        foreach (var finding in then)
        {
            if (finding.IsAsOf(mended))
                return false;
            if (finding.Grade > Grade.Fault && finding.Grade >= mended.Grade)
                continue;
            if (!known.Any(k => k.IsAsOf(finding) && k.Grade <= finding.Grade))
                return false;
        }
        return true;
    }
}

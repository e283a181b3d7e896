using InkyBadger.Core.Design;
using InkyBadger.Core.Findings;
using InkyBadger.Core.Work;
using InkyBadger.Core.Working;

namespace InkyBadger.Core;

/// <summary>
/// Design in, Evaluation out: pure and total. A stage that refuses its input leaves its figures null with the reason; what depends on it
/// says so too.
/// </summary>
public static class Evaluator
{
    /// <param name="design">Any that is admitted.</param>
    /// <param name="tape">Takes the working; null: nobody asked.</param>
    /// <param name="mends">Whether findings may be asked what can be done about them; each such trial is an evaluation of its own.</param>
    /// <param name="lessons">What the year of each bank has taught, in their order; null: nobody ran one.</param>
    /// <param name="cheaper">What a search of builds has found for each bank, in their order; null: nobody searched.</param>
    public static Evaluation Evaluate(
        DesignDocument design,
        Tape? tape = null,
        bool mends = true,
        IReadOnlyList<Lesson?>? lessons = null,
        IReadOnlyList<CheaperBuild?>? cheaper = null
    ) => Evaluate(new SiteWork(design, tape, lessons, cheaper), mends);

    /// <summary>As it stands, without mends; the ids of all house rules it went by are added to <paramref name="asked"/>.</summary>
    internal static Evaluation Evaluate(DesignDocument design, ISet<string> asked) => Evaluate(new SiteWork(design, asked), false);

    private static Evaluation Evaluate(SiteWork site, bool mends)
    {
        var banks = new List<BankEvaluation>(site.Count);
        var findings = new List<Finding>();
        var budget = new MendBudget();
        for (var i = 0; i < site.Count; i++)
            banks.Add(FindingRules.Evaluate(site[i], findings, budget: budget, mends: mends));
        // The gravest first; within a grade the order of the work stays.
        var sorted = findings.Index().OrderBy(f => f.Item.Grade).ThenBy(f => f.Index).Select(f => f.Item).ToList();
        return new(
            banks,
            sorted,
            new(sorted.Count(f => f.Grade <= Grade.Fault), sorted.Count(f => f.Grade == Grade.Caution)),
            FirstToDo(banks),
            DesignName.Of(site.Design),
            site.Result
        );
    }

    /// <summary>A bank as it would be, with what would be wrong with it; the design's other banks are left alone.</summary>
    internal static (BankEvaluation Bank, IReadOnlyList<Finding> Findings) EvaluateOne(DesignDocument design, int index, Bank changed)
    {
        var findings = new List<Finding>();
        return (FindingRules.Evaluate(new SiteWork(design).With(index, changed)[index], findings), findings);
    }

    private static string? FirstToDo(List<BankEvaluation> banks)
    {
        if (banks.Count == 0)
            return "Add a bank";
        foreach (var bank in banks)
        {
            if (bank.Loads is null)
                return "Add the first load";
            if (bank.Bank is null)
                return "Choose a unit for the bank";
        }
        return null;
    }
}

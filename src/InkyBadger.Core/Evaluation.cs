using InkyBadger.Core.Findings;
using InkyBadger.Core.Work;

namespace InkyBadger.Core;

/// <summary>
/// Everything that follows from a design. A figure's id is its JSON pointer here. <paramref name="Site"/>: what several banks have to do
/// with one another; null: there is one.
/// </summary>
public sealed record Evaluation(
    IReadOnlyList<BankEvaluation> Banks,
    IReadOnlyList<Finding> Findings,
    FindingCounts Counts,
    string? FirstToDo,
    string Name,
    SiteResult? Site = null
);

/// <summary>Wrong is danger and fault, to look at is caution; notes are not counted.</summary>
public readonly record struct FindingCounts(int Wrong, int ToLookAt);

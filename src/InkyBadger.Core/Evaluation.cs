using InkyBadger.Core.Findings;
using InkyBadger.Core.Work;

namespace InkyBadger.Core;

/// <summary>Everything that follows from a design. A figure's id is its JSON pointer here.</summary>
public sealed record Evaluation(
    IReadOnlyList<BankEvaluation> Banks,
    IReadOnlyList<Finding> Findings,
    FindingCounts Counts,
    string? FirstToDo,
    string Name
);

/// <summary>Wrong is danger and fault, to look at is caution; notes are not counted.</summary>
public readonly record struct FindingCounts(int Wrong, int ToLookAt);

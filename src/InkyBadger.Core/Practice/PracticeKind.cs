using InkyBadger.Core.Design;

namespace InkyBadger.Core.Practice;

/// <summary>A way to plant a fault: the design with it, and the keys of the parts at which it is pointed out.</summary>
internal sealed record Planting(DesignDocument Design, params string[] Parts);

/// <summary>Why something is fine, or what shows that it is not: a sentence with its figures, and where its working is.</summary>
/// <param name="Pointer">A figure of the evaluation; null: it is a fact, and has no working.</param>
public sealed record Shown(string Words, string? Pointer);

/// <summary>
/// A kind of fault one can see on a drawing: what is said of it, the rules that find it, where it can stand, how it is planted, from the
/// plain to the near one, and what shows that it is not there.
/// </summary>
internal sealed record PracticeKind(string Id, string Says, PartKind[] On, string[] Rules)
{
    /// <summary>
    /// Rules that find the same thing from another side, and belong to it where they fire at the same run or load: copper that is too thin
    /// is also behind too large a fuse.
    /// </summary>
    public string[] Brings { get; init; } = [];

    /// <summary>The ways to plant it, the plainest first; none where this bank has no place for it.</summary>
    public required Func<FoundScene, int, IEnumerable<Planting>> Ways { get; init; }

    /// <summary>What shows that the part is well in this; null: the question does not arise there.</summary>
    public required Func<FoundScene, FoundPart, Shown?> Fine { get; init; }
}

/// <summary>Every kind, in the order in which they are offered.</summary>
internal static class PracticeKinds
{
    public static IReadOnlyList<PracticeKind> All { get; } =
    [
        .. UnitKinds.All,
        .. BankKinds.All,
        .. CopperKinds.All,
        .. FuseKinds.All,
        .. MainKinds.All,
        .. InverterKinds.All,
        .. LoadKinds.All,
        .. ChargeKinds.All,
        .. JoinKinds.All,
    ];

    private static readonly Dictionary<string, PracticeKind> ById = All.ToDictionary(k => k.Id);

    public static PracticeKind? Find(string id) => ById.GetValueOrDefault(id);
}

namespace InkyBadger.Core.Design;

/// <summary>How far a part has come.</summary>
public enum LedgerStop
{
    Ordered,

    /// <summary>At hand; of copper: cut and lugged.</summary>
    Here,
    Fitted,

    /// <summary>Shown by a meter to be as it is to be.</summary>
    Proven,
}

/// <summary>What has become of a part of the design on its way into the vehicle, the boat or the house.</summary>
public sealed record LedgerEntry
{
    /// <summary>Of the part; the same for as long as it is the same part of the design.</summary>
    public string Key { get; init; } = "";

    /// <summary>A stop once at most; the further one stands for all before it.</summary>
    public IReadOnlyList<LedgerMark> Marks { get; init; } = [];

    /// <summary>Really paid for all of it, in the design's money [≥ 0]; null: nothing yet, or nobody said.</summary>
    public double? Paid { get; init; }

    /// <summary>What the design wanted when it was ordered or brought; null: nobody noted it.</summary>
    public LedgerWanted? Wanted { get; init; }

    /// <summary>How many have come to the stop or beyond it [pieces, or m].</summary>
    public double Reached(LedgerStop stop) => Marks.Where(m => m.Stop >= stop).Select(m => m.Count).DefaultIfEmpty(0).Max();
}

/// <summary>So many of a part have come so far.</summary>
public sealed record LedgerMark
{
    public LedgerStop Stop { get; init; }

    /// <summary>Pieces, or metres of cable [≥ 0].</summary>
    public double Count { get; init; }

    /// <summary>Day as YYYY-MM-DD; null: nobody said.</summary>
    public string? Date { get; init; }

    /// <summary>Why it counts as proven: what was measured, or by whom.</summary>
    public string? Reason { get; init; }
}

/// <summary>A part as the design had it that day.</summary>
public sealed record LedgerWanted
{
    public string Name { get; init; } = "";
    public string Spec { get; init; } = "";
    public double Count { get; init; }
}

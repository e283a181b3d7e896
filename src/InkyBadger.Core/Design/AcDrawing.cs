namespace InkyBadger.Core.Design;

/// <summary>Whether the AC side has one leg, or two of opposite phase that make twice the volts between them.</summary>
public enum AcLegs
{
    Single,
    Split,
}

/// <summary>What stands on the AC side: its parts and how they are joined. Empty: nobody has drawn it.</summary>
public sealed record AcDrawing
{
    public AcLegs Legs { get; init; }
    public IReadOnlyList<AcPart> Parts { get; init; } = [];
    public IReadOnlyList<AcWire> Wires { get; init; } = [];
}

public enum AcPartKind
{
    /// <summary>An inlet or the house’s supply, behind a breaker.</summary>
    Plug,
    Generator,

    /// <summary>The outlet side of an inverter.</summary>
    Inverter,

    /// <summary>The AC side of a charger.</summary>
    Charger,

    /// <summary>Changes over by itself.</summary>
    Transfer,

    /// <summary>Turned by hand.</summary>
    Selector,
    Panel,

    /// <summary>A breaker with what hangs on it.</summary>
    Circuit,
}

/// <summary>Which leg of a split system a part is on.</summary>
public enum AcLeg
{
    Both,
    One,
    Two,
}

/// <summary>A part of the AC side.</summary>
public sealed record AcPart
{
    public string Id { get; init; } = "";
    public AcPartKind Kind { get; init; }
    public string Name { get; init; } = "";

    /// <summary>The bank of an inverter or a charger.</summary>
    public string? Bank { get; init; }

    /// <summary>The bank’s inverter, or its source that is this charger, by id; null: nobody said.</summary>
    public string? Item { get; init; }

    /// <summary>Those of one name run in step, and may stand together; null: alone.</summary>
    public string? Group { get; init; }

    /// <summary>The breaker of a plug, panel or circuit, what a switch carries, a charger’s at its bank [A, &gt; 0].</summary>
    public double? Amps { get; init; }

    /// <summary>A generator’s for hours; of a circuit what is not in its loads [W, ≥ 0].</summary>
    public double? Watts { get; init; }

    /// <summary>What the positions of a transfer or selector are called, two or more.</summary>
    public IReadOnlyList<string> Positions { get; init; } = [];

    /// <summary>Ids of the loads on a circuit.</summary>
    public IReadOnlyList<string> Loads { get; init; } = [];
    public AcLeg Leg { get; init; }
}

/// <summary>Two parts that are joined, always or at positions (from 1) of a transfer or selector at that end.</summary>
public sealed record AcWire
{
    public string From { get; init; } = "";
    public string To { get; init; } = "";
    public IReadOnlyList<int> FromAt { get; init; } = [];
    public IReadOnlyList<int> ToAt { get; init; } = [];
}

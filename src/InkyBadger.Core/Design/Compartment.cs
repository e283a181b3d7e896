namespace InkyBadger.Core.Design;

/// <summary>What closes a compartment above its units.</summary>
public enum LidKind
{
    Open,
    Wood,
    Steel,
}

/// <summary>A space the bank stands in, inside [mm, &gt; 0].</summary>
public sealed record Compartment
{
    public string Id { get; init; } = "";
    public string Name { get; init; } = "";
    public double LengthMm { get; init; }
    public double WidthMm { get; init; }
    public double HeightMm { get; init; }
    public LidKind Lid { get; init; }

    /// <summary>Air between live metal and the lid [mm, ≥ 0]; null: by the lid and the house rule.</summary>
    public double? AirMm { get; init; }

    /// <summary>Links and jumpers are flat bars under the nuts instead of cables with lugs.</summary>
    public bool FlatBars { get; init; }

    /// <summary>Straps that hold the units down, 0 to 32; null: nobody said.</summary>
    public int? Straps { get; init; }

    /// <summary>Its middle, forward of the point that axles are measured from [m]; null: nobody said.</summary>
    public double? ForwardM { get; init; }

    /// <summary>Its middle, to the right of the middle line [m]; null: on it.</summary>
    public double? RightM { get; init; }
}

/// <summary>
/// Where a unit was put: in which compartment (its id; empty: the first), its corner from the compartment's left and far walls [mm], how it
/// is turned [0, 90, 180 or 270°], and whether it lies on its long side.
/// </summary>
public sealed record UnitStand
{
    public string Compartment { get; init; } = "";
    public double XMm { get; init; }
    public double YMm { get; init; }
    public int Turn { get; init; }
    public bool Lying { get; init; }
}

/// <summary>
/// What carries the bank: axles forward of a point [m], what is on them without the bank and what they may carry [kg], and where a
/// balancing mass would lie to the right of the middle line [m].
/// </summary>
public sealed record TrimSide
{
    public double? FrontAxleM { get; init; }
    public double? RearAxleM { get; init; }
    public double? FrontKg { get; init; }
    public double? RearKg { get; init; }
    public double? FrontLimitKg { get; init; }
    public double? RearLimitKg { get; init; }
    public double? BalanceM { get; init; }
}

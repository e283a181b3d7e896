namespace InkyBadger.Core.Design;

/// <summary>
/// Tables the user has brought in, beside the typical ones: each with where it is from, in words. They travel with the design, so that
/// its figures can be worked out again anywhere.
/// </summary>
public sealed record OwnTables
{
    /// <summary>What own ids begin with, so that none is ever taken for one of the typical tables.</summary>
    public const string Prefix = "own-";

    public IReadOnlyList<OwnPractice> Practices { get; init; } = [];
    public IReadOnlyList<OwnFuse> Fuses { get; init; } = [];
    public IReadOnlyList<OwnConductor> Conductors { get; init; } = [];

    /// <summary>The cable practice that holds for every run that says none itself; null: the house rule's.</summary>
    public string? Practice { get; init; }

    /// <summary>Copper at hand: sizes with the metres there are of each.</summary>
    public IReadOnlyList<CopperAtHand> Drawer { get; init; } = [];
}

/// <summary>An ampacity table: amperes of each size for one insulation [°C] at a reference ambient [°C].</summary>
public sealed record OwnPractice
{
    public string Id { get; init; } = "";
    public string Label { get; init; } = "";
    public string Source { get; init; } = "";
    public double InsulationC { get; init; }
    public double ReferenceC { get; init; }

    /// <summary>Which factors for conductors that touch hold for it.</summary>
    public BundlingFamily Bundling { get; init; }
    public IReadOnlyList<OwnAmpacity> Rows { get; init; } = [];
}

public enum BundlingFamily
{
    Craft,
    Building,
}

/// <summary>A size of the conductor tables, and what it may carry [A, &gt; 0].</summary>
public sealed record OwnAmpacity
{
    public string Size { get; init; } = "";
    public double AmpacityA { get; init; }
}

/// <summary>A fuse class with the maker's curve.</summary>
public sealed record OwnFuse
{
    public string Id { get; init; } = "";
    public string Label { get; init; } = "";
    public string Source { get; init; } = "";

    /// <summary>[V, &gt; 0].</summary>
    public double MaxDcV { get; init; }

    /// <summary>[A, &gt; 0].</summary>
    public double InterruptA { get; init; }

    /// <summary>It lets so little through that it protects what stands downstream.</summary>
    public bool LimitsCurrent { get; init; }

    /// <summary>It closes again.</summary>
    public bool Breaker { get; init; }

    /// <summary>With its holder [money, ≥ 0]; null: not known.</summary>
    public double? Price { get; init; }

    /// <summary>Ratings made [A, rising].</summary>
    public IReadOnlyList<double> RatingsA { get; init; } = [];

    /// <summary>At least two, the multiples rising and the times not.</summary>
    public IReadOnlyList<OwnOpening> Curve { get; init; } = [];
}

/// <summary>At a multiple of its rating [≥ 1] it opens after so long at the least and at the most [s, &gt; 0].</summary>
public sealed record OwnOpening
{
    public double Multiple { get; init; }
    public double LeastS { get; init; }
    public double MostS { get; init; }
}

/// <summary>A conductor of one's own: cross-section [mm²] and resistance at 20 °C [mΩ/m].</summary>
public sealed record OwnConductor
{
    public string Size { get; init; } = "";
    public string Source { get; init; } = "";
    public double AreaMm2 { get; init; }
    public double R20MilliohmPerM { get; init; }
}

/// <summary>Metres of a size that lie at hand.</summary>
public sealed record CopperAtHand
{
    public string Size { get; init; } = "";
    public double LengthM { get; init; }
}

using InkyBadger.Core.AcSide;

namespace InkyBadger.Core.Work;

/// <summary>What is wrong on the AC side, the gravest first.</summary>
public enum AcTroubleKind
{
    /// <summary>A charger hangs on an inverter of its own bank.</summary>
    Loop,

    /// <summary>Banks charge each other round.</summary>
    Ring,

    /// <summary>Two that are not in step feed one part.</summary>
    BackFeed,

    /// <summary>Contacts carry less than the breaker before them lets through.</summary>
    Relay,

    /// <summary>More is asked of a supply than it gives.</summary>
    Trip,

    /// <summary>More than for hours.</summary>
    Continuous,

    /// <summary>A circuit that nothing feeds in any position.</summary>
    Unfed,
}

/// <summary>Something wrong: the parts it is about, the first state it is in (its place in the list of states), and words.</summary>
public sealed record AcTrouble(AcTroubleKind Kind, IReadOnlyList<string> Parts, int State, string Title, string Why)
{
    /// <summary>Of contacts: what the breaker before them lets through [A]; of a supply: the charger that fits [A].</summary>
    public double? Amps { get; init; }
}

/// <summary>A transfer or selector, and what its positions are called.</summary>
public sealed record AcSwitch(string Part, string Name, IReadOnlyList<string> Positions);

/// <summary>
/// What one source feeds in a state: parts and circuits that are live by it, on which leg (null: there is one), its loads [W], and of a
/// plug or generator what is there for hours, asked with its chargers, and left beside the loads for these [VA on a breaker, W on a
/// generator].
/// </summary>
/// <param name="Chargers">How many hang on it.</param>
/// <param name="ChargersAsk">What they ask together [VA or W].</param>
/// <param name="ChargerA">Of the one charger [A]; null: there is none, or more.</param>
/// <param name="ChargerFitsA">Of its amperes so many fit [A].</param>
public sealed record AcFeed(
    string Source,
    int? Leg,
    IReadOnlyList<string> Live,
    IReadOnlyList<string> Circuits,
    double LoadsW,
    double? Available,
    double? Asked,
    double? Remaining,
    int Chargers,
    double ChargersAsk,
    double? ChargerA,
    double? ChargerFitsA,
    bool Fits
);

/// <summary>
/// A state of every transfer and selector: its positions (from 1, in the order of the switches), in words, what feeds what, the circuits
/// that are dark, and what is wrong in it (places in the list of troubles).
/// </summary>
public sealed record AcState(
    IReadOnlyList<int> Positions,
    string Words,
    IReadOnlyList<AcFeed> Feeds,
    IReadOnlyList<string> Dark,
    IReadOnlyList<int> Troubles
);

/// <summary>A charger, and what it gives at its bank [A]; null: nobody said.</summary>
public sealed record AcChargerAt(string Part, double? Amps);

/// <summary>
/// The AC side with every position of every switch tried (method, 16.2 and 16.3). Bonds of neutral and earth are not in it, nor are
/// breakers’ curves.
/// </summary>
/// <param name="Count">So many states were tried; of more than are listed only the troubles are told.</param>
/// <param name="Columns">Ids of the parts as they are drawn, column by column.</param>
/// <param name="Unassigned">Ids of AC loads that are on no circuit.</param>
/// <param name="Refused">Why nothing could be tried; null: all was.</param>
public sealed record AcBoardResult(
    int Count,
    IReadOnlyList<AcSwitch> Switches,
    IReadOnlyList<AcChargerAt> Chargers,
    IReadOnlyList<IReadOnlyList<string>> Columns,
    IReadOnlyList<AcState> States,
    IReadOnlyList<AcTrouble> Troubles,
    IReadOnlyList<string> Unassigned,
    string Headline,
    string? Refused
);

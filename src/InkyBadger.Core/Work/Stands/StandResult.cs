using InkyBadger.Core.Banks;
using InkyBadger.Core.Design;

namespace InkyBadger.Core.Work;

/// <summary>Where the bank stands (method, 15.1 and 15.2).</summary>
/// <param name="Compartments">With the units in them; empty where nobody said any.</param>
/// <param name="Without">Units that no compartment has room for in their turn.</param>
/// <param name="Needs">The space the units need, in one row, two or more; the shortest row first. For units of one size.</param>
/// <param name="Lift">The heaviest of them; null: no mass is known.</param>
/// <param name="Trim">What it does to what carries it; null: nobody said where the compartments are.</param>
/// <param name="Conductors">Lengths of links and jumpers as they have to be there.</param>
public sealed record StandResult(
    IReadOnlyList<CompartmentResult> Compartments,
    int Without,
    IReadOnlyList<SpaceNeeded> Needs,
    HeaviestLift? Lift,
    TrimResult? Trim,
    IReadOnlyList<MeasuredConductor> Conductors
)
{
    /// <summary>What is short, or that all of it fits, in a sentence.</summary>
    public string Headline { get; init; } = "";
}

/// <summary>A compartment with what is in it.</summary>
/// <param name="Id">The document's.</param>
/// <param name="Units">Where they stand.</param>
/// <param name="Room">What is asked of it and what is left.</param>
/// <param name="MassKg">In it; null: of one it is not known.</param>
/// <param name="Hold">What the straps have to hold; null without a mass.</param>
/// <param name="Bend">The main lead at the wall; null: its cable is not known, or no take-off is here.</param>
public sealed record CompartmentResult(
    string Id,
    IReadOnlyList<StandingUnit> Units,
    RoomResult Room,
    double? MassKg,
    StrapResult? Hold,
    BendResult? Bend
);

/// <summary>A unit where it stands, seen from above [mm]; posts likewise.</summary>
/// <param name="String">From 1.</param>
/// <param name="Unit">From 1.</param>
/// <param name="LengthMm">Along the compartment.</param>
/// <param name="WidthMm">Across it; of one that lies with what its posts take up at its side.</param>
/// <param name="HeightMm">Upwards.</param>
/// <param name="Put">Placed by hand.</param>
/// <param name="OverMm">Beyond a wall; 0: inside.</param>
/// <param name="Into">The unit it stands into, as "B1"; null: none.</param>
public sealed record StandingUnit(
    int String,
    int Unit,
    double XMm,
    double YMm,
    double LengthMm,
    double WidthMm,
    double HeightMm,
    int Turn,
    bool Lying,
    bool Put,
    PostAt Plus,
    PostAt Minus,
    double OverMm,
    string? Into
);

/// <summary>A post from above [mm].</summary>
public readonly record struct PostAt(double XMm, double YMm);

/// <summary>What is asked of a compartment and what is left [mm]; less than 0: short.</summary>
/// <param name="LengthLeftMm">Beside the units, less both walls.</param>
/// <param name="WidthLeftMm">Likewise.</param>
/// <param name="TallestMm">The tallest unit as it stands.</param>
/// <param name="OverWantedMm">Over the units: nuts and lugs, and air to the lid.</param>
/// <param name="NutMm">Of that nuts, lugs and covers, or flat bars.</param>
/// <param name="AirMm">Of that air.</param>
/// <param name="OverThereMm">Over the tallest unit to the lid.</param>
/// <param name="HeightLeftMm">There less wanted.</param>
/// <param name="GapMm">The least between two units; null: there is one.</param>
/// <param name="GapAskedMm">Air gap asked.</param>
/// <param name="Fits">All of it.</param>
/// <param name="Ways">The same with flat bars, and lying, as far as these are not so already.</param>
public sealed record RoomResult(
    double LengthLeftMm,
    double WidthLeftMm,
    double TallestMm,
    double OverWantedMm,
    double NutMm,
    double AirMm,
    double OverThereMm,
    double HeightLeftMm,
    double? GapMm,
    double GapAskedMm,
    bool Fits,
    IReadOnlyList<RoomWay> Ways
);

/// <summary>Another way to stand them, with what it leaves over the units and beside them [mm]; less than 0: short.</summary>
public sealed record RoomWay(string Name, double WantedMm, double ThereMm, double LeftMm, double BesideMm);

/// <summary>Straps at a stop of so many times the weight of the earth [N]; what one holds is a typical figure.</summary>
public sealed record StrapResult(double G, double PullN, int? Straps, double HoldsN, int Wanted);

/// <summary>The main lead’s bend at the nearest wall [mm].</summary>
public sealed record BendResult(string Size, double ToWallMm, double WantedMm);

/// <summary>A space that takes all units in so many rows [mm], walls and air to a lid in it.</summary>
public sealed record SpaceNeeded(int Rows, double LengthMm, double WidthMm, double HeightMm);

/// <summary>The heaviest unit [kg], and how many people lift it; more than 55 kg ask for a machine.</summary>
public sealed record HeaviestLift(double Kg, int People, bool Machine);

/// <summary>The bank’s weight on what carries it.</summary>
/// <param name="Kg">All compartments [kg].</param>
/// <param name="ForwardM">Centre, forward [m].</param>
/// <param name="RightM">Centre, to the right [m].</param>
/// <param name="MomentKgm">Sideways [kg·m].</param>
/// <param name="FrontGainKg">On the front axle; negative: it is lifted. Null: no axles.</param>
/// <param name="RearGainKg">On the rear axle.</param>
/// <param name="FrontKg">With what is on it already.</param>
/// <param name="RearKg">Likewise.</param>
/// <param name="Over">Axles over their limit.</param>
/// <param name="BalanceKg">What balances it sideways; null: not asked, or the other side.</param>
public sealed record TrimResult(
    double Kg,
    double ForwardM,
    double RightM,
    double MomentKgm,
    double? FrontGainKg,
    double? RearGainKg,
    double? FrontKg,
    double? RearKg,
    IReadOnlyList<TrimAxle> Over,
    double? BalanceKg
);

/// <summary>A link or jumper as long as it has to be where its units stand [m].</summary>
public sealed record MeasuredConductor(ConductorKind Kind, Pole Rail, int String, int After, double LengthM);

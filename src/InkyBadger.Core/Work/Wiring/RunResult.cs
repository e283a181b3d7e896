using InkyBadger.Core.Design;
using InkyBadger.Core.Wiring;

namespace InkyBadger.Core.Work;

/// <summary>A run of cable with its fuse.</summary>
/// <param name="Id">The document's id of the run.</param>
/// <param name="DesignA">Current it is sized for [A].</param>
/// <param name="DropLimit">Greatest drop it may have, as a fraction of the nominal volts.</param>
/// <param name="Laid">How long it is and how it lies.</param>
/// <param name="Fuse">Its fuse by class and rating.</param>
/// <param name="Cable">Size that stands and size that is advised.</param>
/// <param name="Carries">What that cable carries here.</param>
/// <param name="Joints">Joints of its loop.</param>
/// <param name="Drop">What is lost over the loop at the design current.</param>
public sealed record RunResult(
    string Id,
    double DesignA,
    double DropLimit,
    RunLaid Laid,
    FittedFuse Fuse,
    RunCable Cable,
    RunCarries Carries,
    RunJoints Joints,
    RunDrop Drop
);

/// <summary>How a run lies.</summary>
/// <param name="LengthM">One way [m].</param>
/// <param name="LengthPinned">Measured, not assumed.</param>
/// <param name="Practice">Id of the cable practice its sizes are taken from.</param>
/// <param name="AmbientC">Of the place [°C].</param>
/// <param name="Bundled">Loaded conductors that touch.</param>
/// <param name="Insulation">For how long it stands a short.</param>
public sealed record RunLaid(double LengthM, bool LengthPinned, string Practice, double AmbientC, int Bundled, InsulationKind Insulation);

/// <summary>A run's fuse.</summary>
/// <param name="WantedA">The least rating: design current with its margin [A].</param>
/// <param name="Class">Id of the class.</param>
/// <param name="Label">The class in words.</param>
/// <param name="ClassPinned">Chosen in the document.</param>
/// <param name="RatingA">That stands [A]; null: none is fitted, or none is made so large.</param>
/// <param name="RatingPinned">Chosen in the document.</param>
/// <param name="AdvisedRatingA">The smallest made at or above the least [A].</param>
/// <param name="DistanceM">From the post along the positive [m].</param>
public sealed record FittedFuse(
    double WantedA,
    string Class,
    string Label,
    bool ClassPinned,
    double? RatingA,
    bool RatingPinned,
    double? AdvisedRatingA,
    double DistanceM
);

/// <summary>A run's cable.</summary>
/// <param name="Size">That stands; null where none of the practice fits.</param>
/// <param name="Conductors">In parallel.</param>
/// <param name="Pinned">Chosen in the document.</param>
/// <param name="Advised">The smallest that fits.</param>
/// <param name="Governs">Which limit decides the advised one.</param>
/// <param name="Unmet">What no size can keep.</param>
/// <param name="AreaMm2">Of one conductor [mm²].</param>
/// <param name="OneWayOhm">One way, warm, all conductors together [Ω].</param>
public sealed record RunCable(
    string? Size,
    int Conductors,
    bool Pinned,
    CableOption? Advised,
    CableLimit? Governs,
    IReadOnlyList<CableLimit>? Unmet,
    double? AreaMm2,
    double? OneWayOhm
);

/// <summary>A cable tried: size, conductors in parallel, what it carries and drops.</summary>
public sealed record CableOption(string Size, int Conductors, double AmpacityA, double DropFraction);

/// <summary>What a run's cable carries where it lies; null where no size stands.</summary>
/// <param name="TableA">One conductor by the table [A].</param>
/// <param name="AmbientFactor">For the place's temperature.</param>
/// <param name="BundleFactor">For conductors that touch.</param>
/// <param name="WorstConductorShare">Share of the shortest of unequal conductors (a fraction).</param>
/// <param name="AmpacityA">All together [A].</param>
/// <param name="ConductorC">Temperature of the copper at the design current [°C].</param>
/// <param name="FuseLimitA">The largest fuse that protects it [A]: what it carries, or what its terminals bear where that is less.</param>
/// <param name="As">The size of the practice whose amperes stand in for one it does not list.</param>
public sealed record RunCarries(
    double? TableA,
    double? AmbientFactor,
    double? BundleFactor,
    double? WorstConductorShare,
    double? AmpacityA,
    double? ConductorC,
    double? FuseLimitA,
    string? As
);

/// <summary>Joints of a run's loop: bolted ones with the shunt, fuse and switch, and all together [Ω].</summary>
public sealed record RunJoints(int Bolted, int Fused, double Ohm);

/// <summary>What is lost over a run's loop at the design current; null where no size stands.</summary>
/// <param name="V">Both ways, with joints [V].</param>
/// <param name="Fraction">Of the nominal volts.</param>
/// <param name="FractionLow">Of the volts under load, nearly empty.</param>
/// <param name="EndV">Left at the end, the bank nearly empty [V]; null for a run that a source feeds.</param>
/// <param name="HeatW">In the loop [W].</param>
public sealed record RunDrop(double? V, double? Fraction, double? FractionLow, double? EndV, double? HeatW);

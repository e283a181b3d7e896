using InkyBadger.Core.Wiring;

namespace InkyBadger.Core.Work;

/// <summary>The main fuse against what the bank can push.</summary>
/// <param name="Short">The bank in a fault.</param>
/// <param name="GreatestChargingV">Highest volts the fuse must bear [V].</param>
/// <param name="MaxDcV">What its class is made for [V].</param>
/// <param name="InterruptA">What its class can break [A].</param>
/// <param name="Fits">Fitted, and nothing fails.</param>
/// <param name="Fails">What fails.</param>
/// <param name="Surge">The fuse at the worst instant.</param>
/// <param name="Cable">How long the cable stands the short.</param>
/// <param name="Classes">Every class of the table at this place.</param>
public sealed record ProtectionResult(
    BankShort Short,
    double GreatestChargingV,
    double MaxDcV,
    double InterruptA,
    bool Fits,
    IReadOnlyList<FuseFailure> Fails,
    FuseAtSurge Surge,
    CableInShort Cable,
    IReadOnlyList<ClassTrial> Classes
);

/// <summary>The bank in a fault.</summary>
/// <param name="OpenV">Volts that drive it: full and charging [V].</param>
/// <param name="BankOhm">Resistance of units and conductors [Ω].</param>
/// <param name="ResistanceAssumed">A unit's data sheet gives none: half of the assumed one is counted.</param>
/// <param name="Amps">What the bank can push [A].</param>
public sealed record BankShort(double OpenV, double BankOhm, bool ResistanceAssumed, double Amps);

/// <summary>The fuse at the worst instant [A]: whether it opens, and about when [s].</summary>
public sealed record FuseAtSurge(double Amps, bool Opens, double? AfterS);

/// <summary>How long a cable stands a short [s]; <paramref name="Valid"/>: within the five seconds the reckoning holds for.</summary>
public sealed record CableInShort(double? StandsS, bool? Valid);

/// <summary>A fuse class judged at this place.</summary>
public sealed record ClassTrial(
    string Id,
    string Label,
    double? RatingA,
    double MaxDcV,
    double InterruptA,
    bool Fits,
    IReadOnlyList<FuseFailure> Fails
);

namespace InkyBadger.Core.Work;

/// <summary>
/// Currents at the bank [A]: the inverter's by the house rule of its run, the DC loads' peak, everything that leaves the bank, what of it
/// is beside the inverter (DC loads, runs of one's own, further inverters, other banks), and what charges.
/// <paramref name="IsOffer"/>: nothing draws yet, and the bank's current is what it may give.
/// </summary>
public sealed record CurrentsResult(
    double DesignW,
    double InverterNominalA,
    double InverterWorstA,
    double? RuleOfThumbA,
    double? RuleOfThumbOff,
    double? RuleOfThumbAh,
    double DcNominalA,
    double DcWorstA,
    double BankNominalA,
    double BankWorstA,
    double LoadWorstA,
    double SurgeWorstA,
    double BesideWorstA,
    double ChargingA,
    bool IsOffer = false
);

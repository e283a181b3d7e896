namespace InkyBadger.Core.Work;

/// <summary>The system voltage that stands, and the real volts it brings by the chemistry.</summary>
/// <param name="SystemV">Nominal system voltage, pinned or advised [V].</param>
/// <param name="AdvisedV">What the school of the house rule advises [V].</param>
/// <param name="Pinned">Chosen in the document, not as advised.</param>
/// <param name="Chemistry">Id of the chemistry.</param>
/// <param name="ChemistryLabel">The chemistry in words.</param>
/// <param name="Cells">Cells in series.</param>
/// <param name="NominalV">Cells at their nominal volts [V].</param>
/// <param name="LowV">Under load and nearly empty [V].</param>
/// <param name="GreatestV">The highest in charging [V].</param>
/// <param name="Advice">What the schools say.</param>
/// <param name="Follows">What was chosen that ties it, in words; null: pinned, or nothing ties it.</param>
public sealed record VoltageResult(
    int SystemV,
    int AdvisedV,
    bool Pinned,
    string Chemistry,
    string ChemistryLabel,
    int Cells,
    double NominalV,
    double LowV,
    double GreatestV,
    VoltageAdvised Advice,
    string? Follows
);

/// <summary>What each school of choosing the voltage makes of these loads.</summary>
/// <param name="Watts">Inverter watts the schools go by [W].</param>
/// <param name="LimitA">Most amperes the house rule allows in the main cable [A].</param>
/// <param name="ByWattsV">By watts alone [V].</param>
/// <param name="ByCurrentV">The lowest that keeps the limit of amperes, else 48 [V].</param>
/// <param name="ByCurrentA">Amperes at that voltage [A].</param>
/// <param name="WithinLimit">Whether those keep the limit.</param>
/// <param name="Mobile12V">By the school of 12 V fixtures [V].</param>
/// <param name="School">Id of the school the house rule names.</param>
/// <param name="Schools">Each school in a sentence.</param>
public sealed record VoltageAdvised(
    double Watts,
    double LimitA,
    int ByWattsV,
    int ByCurrentV,
    double ByCurrentA,
    bool WithinLimit,
    int Mobile12V,
    string School,
    IReadOnlyList<SchoolAdvice> Schools
);

/// <summary>A school of choosing the system voltage: what it would take here, and why.</summary>
public sealed record SchoolAdvice(string Id, int Volts, string Sentence);

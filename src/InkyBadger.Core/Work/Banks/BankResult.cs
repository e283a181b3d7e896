using InkyBadger.Core.Banks;
using InkyBadger.Core.Design;

namespace InkyBadger.Core.Work;

/// <summary>The bank that stands: its usual unit, how many, what they hold, give and last.</summary>
/// <param name="Unit">The usual unit.</param>
/// <param name="Choice">Where the unit comes from.</param>
/// <param name="Layout">Series and strings.</param>
/// <param name="Need">What the demand asks for.</param>
/// <param name="Holds">Volts, ampere-hours and watt-hours.</param>
/// <param name="Lasts">How long it lasts.</param>
/// <param name="ContinuousA">What all strings allow together, shared evenly [A]; null: a unit says nothing.</param>
/// <param name="MassKg">All units [kg]; null: not known.</param>
/// <param name="Price">All units, in the design's money; null: not known.</param>
/// <param name="UnitOhm">Resistance of a usual unit [Ω].</param>
/// <param name="UnitOhmAssumed">Its data sheet gives none.</param>
public sealed record BankResult(
    UnitItem Unit,
    UnitChoice Choice,
    BankLayout Layout,
    BankNeeds Need,
    BankHolds Holds,
    BankLasts Lasts,
    double? ContinuousA,
    double? MassKg,
    double? Price,
    double UnitOhm,
    bool UnitOhmAssumed
);

/// <summary>Whether the unit was chosen, and which one is advised.</summary>
public sealed record UnitChoice(bool Pinned, string? AdvisedKey, string? AdvisedName);

/// <summary>Series and strings as they stand and as advised, and how many units and cells they make.</summary>
/// <param name="Series">Units in a string.</param>
/// <param name="Parallel">Strings.</param>
/// <param name="AdvisedSeries">As the voltage asks.</param>
/// <param name="AdvisedParallel">As the demand asks; null while there is none.</param>
/// <param name="SeriesPinned">Chosen in the document.</param>
/// <param name="ParallelPinned">Chosen in the document.</param>
/// <param name="Units">Of the whole bank.</param>
/// <param name="Cells">In series.</param>
public sealed record BankLayout(
    int Series,
    int Parallel,
    int AdvisedSeries,
    int? AdvisedParallel,
    bool SeriesPinned,
    bool ParallelPinned,
    int Units,
    int Cells
);

/// <summary>What the demand asks of the bank.</summary>
/// <param name="Sizing">By energy and by rate; null while there is no demand.</param>
/// <param name="Autonomy">Days it must last; 1 where it need only last the night.</param>
/// <param name="Overnight">By the night instead of by days.</param>
/// <param name="Dod">Depth of discharge that is used (a fraction).</param>
/// <param name="Ah">The larger of both [Ah].</param>
/// <param name="ThumbOff">How far the rule of thumb is off (a fraction).</param>
public sealed record BankNeeds(BankSizeResult? Sizing, double Autonomy, bool Overnight, double Dod, double? Ah, double? ThumbOff);

/// <summary>What the bank holds.</summary>
/// <param name="NominalV">Cells in series at their nominal volts [V].</param>
/// <param name="Ah">At their rating [Ah].</param>
/// <param name="RatedWh">At nominal volts [Wh].</param>
/// <param name="UsableWh">Down to the depth that is used [Wh].</param>
public sealed record BankHolds(double NominalV, double Ah, double RatedWh, double UsableWh);

/// <summary>How long the bank lasts, and how hard it is worked.</summary>
/// <param name="HoursAtMean">At the day's mean [h].</param>
/// <param name="HoursAtPeak">With the most running at once [h].</param>
/// <param name="AskedH">For how long the demand asks it to last [h]; null: through the night.</param>
/// <param name="CRate">Greatest current over the ampere-hours [1/h].</param>
/// <param name="PeukertK">Exponent; null for lithium.</param>
public sealed record BankLasts(double? HoursAtMean, double? HoursAtPeak, double? AskedH, double? CRate, double? PeukertK);

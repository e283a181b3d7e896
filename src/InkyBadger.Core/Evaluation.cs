using InkyBadger.Core.Banks;
using InkyBadger.Core.Demand;
using InkyBadger.Core.Design;
using InkyBadger.Core.Findings;
using InkyBadger.Core.Inverters;
using InkyBadger.Core.Limits;
using InkyBadger.Core.Network;
using InkyBadger.Core.Wiring;

namespace InkyBadger.Core;

/// <summary>Everything that follows from a design. A figure's id is its JSON pointer here.</summary>
public sealed record Evaluation(
    IReadOnlyList<BankEvaluation> Banks,
    IReadOnlyList<Finding> Findings,
    FindingCounts Counts,
    string? FirstToDo);

/// <summary>Wrong is danger and fault, to look at is caution; notes are not counted.</summary>
public readonly record struct FindingCounts(int Wrong, int ToLookAt);

/// <summary>One bank, stage by stage in the order of the work. A stage that could not be worked out is null, and <see cref="Because"/> says why.</summary>
public sealed record BankEvaluation
{
    public required string Id { get; init; }
    public required string Name { get; init; }
    public LoadsResult? Loads { get; init; }
    public VoltageResult? Voltage { get; init; }
    public InverterResult? Inverter { get; init; }
    public EnergyResult? Energy { get; init; }
    public CurrentsResult? Currents { get; init; }
    public BankResult? Bank { get; init; }
    public RunResult? MainRun { get; init; }
    public NetworkResult? Network { get; init; }
    public ProtectionResult? Protection { get; init; }
    public ChainResult? Chain { get; init; }
    public required Because Because { get; init; }
    public required Headlines Headlines { get; init; }
}

/// <summary>Why a stage has no figures: what to do first, in words. Null where it has.</summary>
public sealed record Because(string? Loads, string? Voltage, string? Inverter, string? Energy, string? Currents, string? Bank, string? MainRun, string? Network, string? Protection);

/// <summary>Each station's answer in a sentence.</summary>
public sealed record Headlines(string Loads, string Voltage, string Inverter, string Bank, string Cables);

/// <summary>A load as it counts: running watts of all of them, hours a day, energy at the load [Wh], start of one unit.</summary>
public sealed record LoadRow(string Id, string Name, LoadKind Kind, double RunningW, double HoursOn, double EnergyWh, double SurgeW, double StartSeconds);

/// <summary>An instant of the day: when, what runs, the start on top of it and which load starts.</summary>
public sealed record WorstInstant(double FromH, double ToH, double RunningW, double SurgeW, IReadOnlyList<string> Loads, string? Starting, double StartSeconds);

public sealed record LoadsResult(
    IReadOnlyList<LoadRow> Rows,
    IReadOnlyList<ProfileSegment> Profile,
    double EnergyAcWh,
    double PeakAcW,
    double PeakDcW,
    double SurgeDemandW,
    double NeededOnH,
    WorstInstant Peak,
    WorstInstant Worst);

public sealed record VoltageResult(
    int SystemV,
    int AdvisedV,
    bool Pinned,
    string Chemistry,
    string ChemistryLabel,
    int Cells,
    double NominalV,
    double LowV,
    double AdviceW,
    double CurrentLimitA,
    int ByWattsV,
    int ByCurrentV,
    double ByCurrentA,
    bool ByCurrentWithinLimit,
    int Mobile12V,
    string School);

/// <summary>
/// A point of demand on the inverter: watts for seconds, what it gives for so long, and the stretch of the day's profile it is of (index),
/// as it runs or with a start on top.
/// </summary>
public sealed record EnvelopeDemand(string Label, double Watts, double Seconds, double GivesW, bool Holds, int Segment, bool IsStart);

public sealed record InverterResult(
    InverterItem? Item,
    string Name,
    bool Pinned,
    string? AdvisedKey,
    string? AdvisedName,
    int Stack,
    double Efficiency,
    double IdleW,
    bool Assumed,
    double RequiredContinuousW,
    double RequiredSurgeW,
    double? Derate,
    double? AvailableContinuousW,
    double? AvailableSurgeW,
    double? Headroom,
    IReadOnlyList<OverloadPoint> Envelope,
    IReadOnlyList<EnvelopeDemand> Demands,
    int? FirstToGive);

public sealed record EnergyRow(string Id, double BankWh, double Share);

public sealed record EnergyResult(
    double EnergyBankWh,
    double AhPerDay,
    double InverterOnH,
    bool InverterOnRaised,
    double IdleWh,
    double IdleShare,
    double MeanCurrentA,
    double OvernightWh,
    IReadOnlyList<EnergyRow> Rows);

/// <summary>Currents at the bank [A]: the inverter's by the house rule of its run, the DC loads' peak, and both together.</summary>
public sealed record CurrentsResult(
    double DesignW,
    double InverterNominalA,
    double InverterWorstA,
    double? RuleOfThumbA,
    double DcNominalA,
    double DcWorstA,
    double BankNominalA,
    double BankWorstA,
    double LoadWorstA,
    double SurgeWorstA);

public sealed record BankResult(
    UnitItem Unit,
    bool UnitPinned,
    string? AdvisedUnitKey,
    string? AdvisedUnitName,
    int Series,
    int Parallel,
    int AdvisedSeries,
    int? AdvisedParallel,
    bool SeriesPinned,
    bool ParallelPinned,
    BankSizeResult? Sizing,
    double Autonomy,
    bool Overnight,
    double Dod,
    int Units,
    int Cells,
    double NominalV,
    double Ah,
    double RatedWh,
    double UsableWh,
    double? ContinuousA,
    double MassKg,
    double Price,
    double? HoursAtMean,
    double? HoursAtPeak,
    double? CRate,
    double UnitOhm,
    bool UnitOhmAssumed);

/// <summary>A conductor of the bank: size, one-way length [m] and resistance with its two lugs [Ω].</summary>
public sealed record BankConductor(string Size, double AreaMm2, double LengthM, double Ohm, double AmpacityA);

/// <summary>What a wiring style gives: worst share and whose, the ceiling [A] and the AC watts it lets through.</summary>
public sealed record StyleResult(WiringStyle Style, double WorstShare, int WorstString, double? CeilingA, double? AllowsAcW);

public sealed record NetworkResult(
    WiringStyle Style,
    bool StylePinned,
    WiringStyle AdvisedStyle,
    BankConductor Jumper,
    BankConductor Link,
    BankConductor Lead,
    double StringOhm,
    double BankOhm,
    double CurrentA,
    IReadOnlyList<double> StringCurrentsA,
    IReadOnlyList<double> Shares,
    int WorstString,
    double WorstShare,
    double WorstA,
    double EvenShare,
    double? CeilingA,
    int? LimitingString,
    double? IdealA,
    double? LossA,
    double? LossFraction,
    double? AllowsAcW,
    IReadOnlyList<double> PositiveLinksA,
    IReadOnlyList<double> NegativeLinksA,
    double LinkWorstA,
    int? BlackoutAfter,
    IReadOnlyList<StyleResult> Styles);

/// <summary>A cable tried: size, conductors in parallel, what it carries and drops.</summary>
public sealed record CableOption(string Size, int Conductors, double AmpacityA, double DropFraction);

public sealed record RunResult(
    string Id,
    double LengthM,
    bool LengthPinned,
    string Practice,
    double AmbientC,
    double DesignA,
    double WantedA,
    string FuseClass,
    string FuseLabel,
    bool ClassPinned,
    double? RatingA,
    bool RatingPinned,
    double? AdvisedRatingA,
    double FuseDistanceM,
    string? Size,
    int Conductors,
    bool SizePinned,
    CableOption? Advised,
    CableLimit? Governs,
    IReadOnlyList<CableLimit>? Unmet,
    double? AreaMm2,
    double? TableA,
    double? AmbientFactor,
    double? BundleFactor,
    double? AmpacityA,
    double? ConductorC,
    double? OneWayOhm,
    int BoltedJoints,
    int FuseJoints,
    double JointsOhm,
    double? DropV,
    double? DropFraction,
    double? DropFractionLow,
    double DropLimit,
    double? EndV,
    double? HeatW);

/// <summary>A fuse class judged at this place.</summary>
public sealed record ClassTrial(string Id, string Label, double? RatingA, double MaxDcV, double InterruptA, bool Fits, IReadOnlyList<FuseFailure> Fails);

public sealed record ProtectionResult(
    double OpenV,
    double BankOhm,
    bool ResistanceAssumed,
    double ShortCircuitA,
    double GreatestChargingV,
    double MaxDcV,
    double InterruptA,
    bool Fits,
    IReadOnlyList<FuseFailure> Fails,
    double SurgeA,
    bool OpensAtSurge,
    double? OpensAfterS,
    double? CableStandsS,
    bool? CableStandsValid,
    IReadOnlyList<ClassTrial> Classes);

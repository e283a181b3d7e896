using System.Text.Json.Serialization;
using InkyBadger.Core.Banks;
using InkyBadger.Core.Demand;
using InkyBadger.Core.Design;
using InkyBadger.Core.Reference;
using InkyBadger.Core.Wiring;

namespace InkyBadger.Core.Work;

/// <summary>
/// One bank, stage by stage in the order of the work. A stage that could not be worked out is null, and <see cref="Because"/> says why.
/// </summary>
public sealed record BankEvaluation
{
    public required string Id { get; init; }
    public required string Name { get; init; }
    public LoadsResult? Loads { get; init; }
    public VoltageResult? Voltage { get; init; }
    public InverterResult? Inverter { get; init; }
    public EnergyResult? Energy { get; init; }

    /// <summary>DC devices that state their window of volts.</summary>
    public IReadOnlyList<DeviceResult> Devices { get; init; } = [];
    public CurrentsResult? Currents { get; init; }
    public BankResult? Bank { get; init; }
    public RunResult? MainRun { get; init; }
    public NetworkResult? Network { get; init; }
    public ProtectionResult? Protection { get; init; }

    /// <summary>The bus and everything on both poles of the main loop.</summary>
    public BusResult? Bus { get; init; }

    /// <summary>Every run beyond the bus.</summary>
    public IReadOnlyList<CircuitResult> Circuits { get; init; } = [];
    public StringFusesPlan? StringFuses { get; init; }
    public BondingResult? Bonding { get; init; }
    public ChainResult? Chain { get; init; }

    /// <summary>What the system voltage brings with it.</summary>
    public NeedsResult? Needs { get; init; }

    /// <summary>Watts against seconds, of everything between the cells and the outlet.</summary>
    public EnvelopeResult? Envelope { get; init; }
    public required Because Because { get; init; }

    /// <summary>Each station's answer in a sentence.</summary>
    public required IReadOnlyDictionary<Station, string> Headlines { get; init; }
}

/// <summary>Why a stage has no figures: what to do first, in words. Null where it has.</summary>
public sealed record Because(
    string? Loads,
    string? Voltage,
    string? Inverter,
    string? Energy,
    string? Currents,
    string? Bank,
    string? MainRun,
    string? Network,
    string? Protection
);

/// <summary>
/// A load as it counts: running watts of all of them, hours a day, energy at the load [Wh], start of one unit; mean and greatest amperes of
/// one that has states.
/// </summary>
public sealed record LoadRow(
    string Id,
    string Name,
    LoadKind Kind,
    double RunningW,
    double HoursOn,
    double EnergyWh,
    double SurgeW,
    double StartSeconds,
    StateDemandResult? States
);

/// <summary>
/// An instant of the day: when, what runs, the start on top of it and which load starts (by name and index; null: none, or all).
/// </summary>
public sealed record WorstInstant(
    double FromH,
    double ToH,
    double RunningW,
    double SurgeW,
    IReadOnlyList<string> Loads,
    string? Starting,
    int? StartingLoad,
    double StartSeconds,
    Season Season
);

/// <summary>
/// A day of one season: what its loads take of AC, for how long they need the inverter, their peaks and the instants of these.
/// </summary>
public sealed record SeasonLoads(
    Season Season,
    double EnergyAcWh,
    double PeakAcW,
    double PeakDcW,
    double SurgeDemandW,
    double NeededOnH,
    WorstInstant Peak,
    WorstInstant Worst
);

/// <summary>
/// What runs. Peaks, instants and the hours needed are the greatest of either season: inverter, cable and fuse must bear both. The profile
/// holds one day after the other. <see cref="Seasons"/> is empty where every load runs all year.
/// </summary>
public sealed record LoadsResult(
    IReadOnlyList<LoadRow> Rows,
    IReadOnlyList<ProfileSegment> Profile,
    double EnergyAcWh,
    double PeakAcW,
    double PeakVa,
    double PeakDcW,
    double SurgeDemandW,
    double NeededOnH,
    WorstInstant Peak,
    WorstInstant Worst,
    IReadOnlyList<SeasonLoads> Seasons
);

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
    double AdviceW,
    double CurrentLimitA,
    int ByWattsV,
    int ByCurrentV,
    double ByCurrentA,
    bool ByCurrentWithinLimit,
    int Mobile12V,
    string School,
    IReadOnlyList<SchoolAdvice> Schools
);

/// <summary>A school of choosing the system voltage: what it would take here, and why.</summary>
public sealed record SchoolAdvice(string Id, int Volts, string Sentence);

/// <summary>
/// A DC device (index of its load): the volts it accepts, the least and greatest it is given, and which end of its window they leave.
/// </summary>
public sealed record DeviceResult(
    int Load,
    double MinV,
    double MaxV,
    double LeastV,
    double GreatestV,
    bool Fits,
    IReadOnlyList<WindowFailure> Fails
);

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
    int? FirstToGive
);

/// <summary>What a load takes out of the bank in a day: Wh, Ah at nominal volts, share of all.</summary>
public sealed record EnergyRow(string Id, double BankWh, double Ah, double Share);

/// <summary>A day's energy as it leaves the bank, in one season.</summary>
public sealed record EnergyDay(
    Season Season,
    double EnergyBankWh,
    double AhPerDay,
    double InverterOnH,
    double NeededOnH,
    bool InverterOnRaised,
    double IdleWh,
    double IdleAh,
    double IdleShare,
    double MeanCurrentA,
    double OvernightWh,
    IReadOnlyList<EnergyRow> Rows
);

/// <summary>
/// The day that sizes the bank: of the season that asks for more, by the day or by the night as the house rule of autonomy has it.
/// <see cref="Seasons"/> is empty where every load runs all year.
/// </summary>
public sealed record EnergyResult([property: JsonIgnore] EnergyDay Day, IReadOnlyList<EnergyDay> Seasons)
{
    /// <summary>The season that sizes the bank; both where they do not differ.</summary>
    public Season Sizes => Day.Season;
    public double EnergyBankWh => Day.EnergyBankWh;
    public double AhPerDay => Day.AhPerDay;
    public double InverterOnH => Day.InverterOnH;
    public bool InverterOnRaised => Day.InverterOnRaised;
    public double IdleWh => Day.IdleWh;
    public double IdleAh => Day.IdleAh;
    public double IdleShare => Day.IdleShare;
    public double MeanCurrentA => Day.MeanCurrentA;
    public double OvernightWh => Day.OvernightWh;
    public IReadOnlyList<EnergyRow> Rows => Day.Rows;
}

/// <summary>
/// Currents at the bank [A]: the inverter's by the house rule of its run, the DC loads' peak, everything that leaves the bank, what of it
/// is beside the inverter (DC loads, runs of one's own, further inverters, other banks), and what charges.
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
    double ChargingA
);

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
    bool UnitOhmAssumed,
    double? NeededAh,
    double? ThumbAhOff,
    double? PeukertK
);

/// <summary>A conductor of the bank: size, one-way length [m] and resistance with its two lugs [Ω].</summary>
public sealed record BankConductor(string Size, double AreaMm2, double LengthM, double Ohm, double AmpacityA);

/// <summary>What a wiring style gives: worst share and whose, the ceiling [A] and the AC watts it lets through.</summary>
public sealed record StyleResult(WiringStyle Style, double WorstShare, int WorstString, double? CeilingA, double? AllowsAcW);

/// <summary>
/// The bank as it is wired. The <c>Held</c> amperes are the greatest while the main fuse holds its rating, of the links of either rail and
/// of any string, all in or any one out.
/// </summary>
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
    IReadOnlyList<double> PositiveHeldA,
    IReadOnlyList<double> NegativeHeldA,
    double StringHeldA,
    int? BlackoutAfter,
    IReadOnlyList<StyleResult> Styles,
    IReadOnlyList<PlacedAmps> Conductors,
    double? SurvivesA,
    double? SurvivesAcW
);

/// <summary>A cable tried: size, conductors in parallel, what it carries and drops.</summary>
public sealed record CableOption(string Size, int Conductors, double AmpacityA, double DropFraction);

public sealed record RunResult(
    string Id,
    double LengthM,
    bool LengthPinned,
    string Practice,
    double AmbientC,
    int Bundled,
    InsulationKind Insulation,
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
    double? WorstConductorShare,
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
    double? HeatW
);

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
    IReadOnlyList<ClassTrial> Classes
);

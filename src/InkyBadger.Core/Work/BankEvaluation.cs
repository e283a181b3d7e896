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

    /// <summary>What charges the bank over the year.</summary>
    public ChargingResult? Charging { get; init; }

    /// <summary>Where the bank stands; null: a unit has no size.</summary>
    public StandResult? Stands { get; init; }

    /// <summary>What its year has taught; null: it was not run as it stands.</summary>
    public Lesson? Lesson { get; init; }
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

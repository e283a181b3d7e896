using InkyBadger.Core.Design;
using InkyBadger.Core.Reference;

namespace InkyBadger.Core.Rehearsal;

/// <summary>
/// A string as time runs over it: what it holds [Ah], its resistance with all that carries it [Ω], its charge at the beginning [0 to 1],
/// and what its BMS bears.
/// </summary>
/// <param name="LimitA">[A, &gt; 0]; null: none.</param>
/// <param name="ChargeLimitA">[A, &gt; 0]; null: <paramref name="LimitA"/>.</param>
/// <param name="CutOffCellV">A cell under load [V]; null: none.</param>
public sealed record RehearsalString(
    double Ah,
    double Ohm,
    double SocStart = 1,
    double? LimitA = null,
    double? ChargeLimitA = null,
    double? CutOffCellV = null
);

/// <summary>The inverter of a run.</summary>
/// <param name="Efficiency">(0 to 1].</param>
/// <param name="IdleW">While it is on, or while AC is asked where it sleeps [W].</param>
/// <param name="CutOffV">It stops at or below these volts [V].</param>
/// <param name="RestartSoc">It comes back from here [0 to 1].</param>
/// <param name="Gives">
/// AC at once: without end first, then more for so many seconds, each shorter than the one before; empty: not looked at.
/// </param>
public sealed record RehearsalInverter(
    double Efficiency,
    double IdleW,
    bool Sleeps,
    double CutOffV,
    double RestartSoc,
    IReadOnlyList<OverloadPoint>? Gives = null
);

/// <summary>Watts whatever the volts, or amperes.</summary>
public enum RehearsalSourceKind
{
    Power,
    Charger,
}

/// <summary>
/// What a source has in each hour [W or A], from the first hour of the run on and again from the beginning when the list ends; it gives
/// up to its set volts.
/// </summary>
/// <param name="FeedsAc">While it gives, the AC loads are fed past the inverter: a plug, a generator.</param>
/// <param name="SlotS">Each entry’s seconds where they are not hours: a divisor of the hour, of whole steps.</param>
public sealed record RehearsalSource(
    RehearsalSourceKind Kind,
    IReadOnlyList<double> Hourly,
    double SetV,
    bool FeedsAc = false,
    int SlotS = 3600
);

/// <summary>A generator that starts by the bank's charge, within hours of the day.</summary>
public sealed record RehearsalGenerator(
    double StartSoc,
    double StopSoc,
    double Amps,
    double SetV,
    double FromH = 0,
    double ToH = 24,
    bool FeedsAc = false
);

/// <summary>A string (from 1) that opens for good, or is mended again [h from the beginning].</summary>
public readonly record struct RehearsalFailure(int String, double AtH, double? MendedH = null);

/// <summary>What is asked on a kind of day in each step of it [W].</summary>
public sealed record RehearsalDay(double[] AcW, double[] DcW);

/// <summary>All that a run needs, without the design it came from.</summary>
/// <param name="Chemistry">Of all cells.</param>
/// <param name="Cells">In series.</param>
/// <param name="Days">[1 to 3,660].</param>
/// <param name="StepS">[s], a divisor of the hour.</param>
/// <param name="Kinds">Of days, each with as many steps as a day has.</param>
/// <param name="KindOf">Which kind each day is; null: all the first.</param>
/// <param name="CellC">Of each day [°C]; null: never cold.</param>
/// <param name="ResetH">A BMS that opened by its current closes again after so long [h]; null: it stays open.</param>
public sealed record RehearsalPlan(
    Chemistry Chemistry,
    int Cells,
    int Days,
    int StepS,
    IReadOnlyList<RehearsalString> Strings,
    IReadOnlyList<RehearsalDay> Kinds,
    IReadOnlyList<int>? KindOf,
    RehearsalInverter? Inverter,
    IReadOnlyList<RehearsalSource> Sources,
    RehearsalGenerator? Generator,
    IReadOnlyList<RehearsalFailure> Failures,
    double FloorSoc,
    double MaxChargeCRate,
    double PeukertExponent,
    double RatedHours,
    double ChargeEfficiency,
    IReadOnlyList<double>? CellC = null,
    double? ResetH = null
)
{
    public int StepsPerDay => 86_400 / StepS;
}

/// <summary>What happened in a run.</summary>
public enum RehearsalEventKind
{
    Failed,
    Empty,
    Voltage,
    Current,
    Back,
    Blackout,
    InverterOff,
    InverterOn,
    GeneratorOn,
    GeneratorOff,
    Mended,
}

/// <summary>When [h from the beginning], what, and to which string (from 1).</summary>
public readonly record struct RehearsalEvent(double H, RehearsalEventKind What, int? String);

/// <summary>The sums of a run: energy [Wh], hours, states of charge [0 to 1].</summary>
/// <param name="SourceWh">Taken of the sources.</param>
/// <param name="ClippedWh">Of what they had, not taken.</param>
/// <param name="LongestUnfilledH">Longest time without the bank having been full.</param>
/// <param name="LowestSoc">At the start and the ends of steps.</param>
/// <param name="LowestSocH">The first time of it.</param>
/// <param name="LowestV">Of the bus [V]; null: nothing was ever on it.</param>
/// <param name="EquivalentFullCycles">What left the strings over what they hold.</param>
/// <param name="EventCount">All of them; <paramref name="Events"/> are the first.</param>
public sealed record RehearsalResult(
    double ServedAcWh,
    double ServedDcWh,
    double UnservedWh,
    double InverterLossWh,
    double SourceWh,
    double ClippedWh,
    double ChargedWh,
    double DischargedWh,
    double DarkHours,
    double? FirstDarkH,
    double LowestSoc,
    double LowestSocH,
    double SocEnd,
    IReadOnlyList<double> StringSocEnd,
    double BelowFloorH,
    double LongestUnfilledH,
    double? LowestV,
    double GeneratorH,
    int GeneratorStarts,
    double EquivalentFullCycles,
    int EventCount,
    IReadOnlyList<RehearsalEvent> Events
);

using InkyBadger.Core.Reference;

namespace InkyBadger.Core.Design;

/// <summary>A battery as bought, copied into the design with its figures, so that a file stands alone.</summary>
public sealed record UnitItem
{
    public string Key { get; init; } = "";
    public string Name { get; init; } = "";
    public string Chemistry { get; init; } = "lfp";
    public int Cells { get; init; } = 1;
    public double Ah { get; init; }

    /// <summary>Hours at which <see cref="Ah"/> is rated.</summary>
    public double? RatedHours { get; init; }

    /// <summary>The plate's second rating.</summary>
    public ReserveRating? Reserve { get; init; }

    /// <summary>Protection inside the unit; null: none.</summary>
    public BmsLimits? Bms { get; init; }

    /// <summary>Greatest continuous current of a unit without a BMS, by its maker [A].</summary>
    public double? ContinuousA { get; init; }

    /// <summary>Internal resistance [Ω]; null: unknown, estimated and marked so.</summary>
    public double? ResistanceOhm { get; init; }
    public double MassKg { get; init; }
    public UnitSize? Size { get; init; }
    public string? TerminalSide { get; init; }
    public string? Stud { get; init; }
    public double Price { get; init; }
    public string? PriceDate { get; init; }
    public string? ProductLine { get; init; }
    public double? CycleLife { get; init; }
    public double? CycleDepth { get; init; }
    public double? CalendarYears { get; init; }
    public int? MaxSeries { get; init; }
    public int? MaxParallel { get; init; }
    public bool Communicates { get; init; }
    public double? BreakerA { get; init; }

    /// <summary>What the unit allows continuously [A]; null: it sets no limit.</summary>
    public double? LimitA() => Bms?.ContinuousA ?? ContinuousA;
}

public sealed record ReserveRating
{
    public double Minutes { get; init; }
    public double Amps { get; init; }
}

public sealed record BmsLimits
{
    public double ContinuousA { get; init; }
    public double? PeakA { get; init; }
    public double? PeakSeconds { get; init; }
    public double? ChargeA { get; init; }
}

public sealed record UnitSize
{
    public double LengthMm { get; init; }
    public double WidthMm { get; init; }
    public double HeightMm { get; init; }
}

public enum Waveform
{
    Sine,
    Modified,
}

/// <summary>The inverter gives <paramref name="Watts"/> for up to <paramref name="Seconds"/>.</summary>
public readonly record struct OverloadPoint(double Seconds, double Watts);

/// <summary>A point of the maker's derating curve: ambient [°C] and the share of the rating (0 to 1) still promised there.</summary>
public readonly record struct DeratePoint(double AmbientC, double Share);

/// <summary>An inverter as bought, copied into the design with its figures.</summary>
public sealed record InverterItem
{
    public string Key { get; init; } = "";
    public string Name { get; init; } = "";
    public int SystemV { get; init; } = 12;
    public double ContinuousW { get; init; }
    public double SurgeW { get; init; }

    /// <summary>How long it gives its surge [s]; null: 5 s.</summary>
    public double? SurgeSeconds { get; init; }

    /// <summary>Whether the maker states the surge hot.</summary>
    public bool SurgeHot { get; init; }
    public double Efficiency { get; init; } = 0.9;
    public double IdleW { get; init; }
    public IReadOnlyList<OverloadPoint> Overload { get; init; } = [];
    public IReadOnlyList<DeratePoint>? Derate { get; init; }
    public Waveform Waveform { get; init; }
    public double? ChargerA { get; init; }

    /// <summary>DC volts at which it cuts off.</summary>
    public double? CutOffV { get; init; }
    public double Price { get; init; }
    public double MassKg { get; init; }
}

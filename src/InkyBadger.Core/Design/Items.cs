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

    /// <summary>Null: not known, which is neither nothing nor light.</summary>
    public double? MassKg { get; init; }

    /// <summary>Null: not known.</summary>
    public UnitSize? Size { get; init; }
    public string? TerminalSide { get; init; }
    public string? Stud { get; init; }

    /// <summary>Money; null: not known, which is neither nothing nor cheap.</summary>
    public double? Price { get; init; }
    public string? PriceDate { get; init; }
    public string? ProductLine { get; init; }
    public double? CycleLife { get; init; }
    public double? CycleDepth { get; init; }
    public double? CalendarYears { get; init; }
    public int? MaxSeries { get; init; }
    public int? MaxParallel { get; init; }
    public bool Communicates { get; init; }
    public double? BreakerA { get; init; }

    /// <summary>What its own breaker can break at the bank's volts [A]; null: its maker does not say.</summary>
    public double? BreakerInterruptA { get; init; }

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

/// <summary>The protection of a string of bare lithium cells, a part of its own, copied into the design with its figures.</summary>
public sealed record BmsItem
{
    public string Key { get; init; } = "";
    public string Name { get; init; } = "";

    /// <summary>What it lets through without end, and for <see cref="PeakSeconds"/> [A]; a peak of null: it states none.</summary>
    public double ContinuousA { get; init; }
    public double? PeakA { get; init; }
    public double? PeakSeconds { get; init; }

    /// <summary>The most it lets into the string [A].</summary>
    public double? ChargeA { get; init; }

    /// <summary>Below this it stops charging [°C]; null: it does not look.</summary>
    public double? LeastChargeC { get; init; }
    public double? Price { get; init; }

    /// <summary>What it lets through for so long [A].</summary>
    internal double AllowsA(double? seconds) =>
        seconds is { } t && PeakA is { } peak && Tolerant.AtLeast(PeakSeconds ?? 0, t) ? peak : ContinuousA;
}

public sealed record UnitSize
{
    public double LengthMm { get; init; }
    public double WidthMm { get; init; }
    public double HeightMm { get; init; }
}

/// <summary>What is assumed of an inverter whose data sheet does not say it, typical values.</summary>
public static class InverterAssumed
{
    public const double Efficiency = 0.9;

    /// <summary>Of its continuous watts, while it idles.</summary>
    public const double IdleShare = 0.01;

    /// <summary>DC volts that one bears, for every volt of its class.</summary>
    public const double BearsPerVolt = 4.0 / 3;
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
    public double Efficiency { get; init; } = InverterAssumed.Efficiency;
    public double IdleW { get; init; }
    public IReadOnlyList<OverloadPoint> Overload { get; init; } = [];
    public IReadOnlyList<DeratePoint>? Derate { get; init; }
    public Waveform Waveform { get; init; }
    public double? ChargerA { get; init; }

    /// <summary>DC volts at which it cuts off.</summary>
    public double? CutOffV { get; init; }

    /// <summary>Money; null: not known.</summary>
    public double? Price { get; init; }

    /// <summary>Null: not known.</summary>
    public double? MassKg { get; init; }
}

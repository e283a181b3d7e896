namespace InkyBadger.Core.Design;

/// <summary>How a load is fed: through the inverter, at bank voltage, or through a step-down converter.</summary>
public enum LoadKind
{
    Ac,
    Dc,
    Converter,
}

public enum Season
{
    Both,
    Winter,
    Summer,
}

/// <summary>
/// Something that runs. Either watts, or amperes with volts (a DC load without volts: the bank's). Either windows or hours a day.
/// </summary>
public sealed record Load
{
    public string Id { get; init; } = "";
    public string Name { get; init; } = "";
    public LoadKind Kind { get; init; }
    public int Quantity { get; init; } = 1;
    public double? Watts { get; init; }
    public double? Amps { get; init; }
    public double? Volts { get; init; }

    /// <summary>Apparent power of the plate [VA], kept apart from watts.</summary>
    public double? Va { get; init; }
    public double? PowerFactor { get; init; }

    /// <summary>An AC adapter of a DC device: the share of its AC watts that reaches the device (0 to 1]; null: no adapter.</summary>
    public double? AdapterEfficiency { get; init; }

    /// <summary>Share of its on-time it really draws, 0 to 1.</summary>
    public double Duty { get; init; } = 1;

    /// <summary>Pairs [start, end) in hours of the day.</summary>
    public IReadOnlyList<double[]>? Windows { get; init; }
    public double? Hours { get; init; }
    public double SurgeWatts { get; init; }

    /// <summary>How long the start lasts [s]; null: 0.5 s.</summary>
    public double? StartSeconds { get; init; }
    public IReadOnlyList<StateShare>? States { get; init; }
    public Season Season { get; init; }
    public VoltageWindow? Window { get; init; }

    /// <summary>Whether it suffers under a modified wave.</summary>
    public bool WaveSensitive { get; init; }

    /// <summary>Typical figures that nobody has looked at yet.</summary>
    public bool Assumed { get; init; }

    /// <summary>It must not go dark: steering, a bilge pump, vaccine.</summary>
    public bool MustStay { get; init; }

    /// <summary>Something else keeps it going where this feed opens: a battery of its own, a second supply, a hand pump.</summary>
    public bool HasReserve { get; init; }

    /// <summary>Taken from this many units of each string only; null: from the whole string.</summary>
    public int? Tap { get; init; }
}

/// <summary>Least and greatest volts a DC device accepts.</summary>
public sealed record VoltageWindow
{
    public double MinV { get; init; }
    public double MaxV { get; init; }
}

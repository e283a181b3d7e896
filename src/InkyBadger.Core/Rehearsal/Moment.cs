namespace InkyBadger.Core.Rehearsal;

/// <summary>A step of a run as it was, for whoever reads it out.</summary>
public readonly ref struct Moment
{
    /// <summary>From 0.</summary>
    public required int Step { get; init; }

    /// <summary>Of its beginning [h].</summary>
    public required double H { get; init; }

    /// <summary>Of the bank at its end [0 to 1].</summary>
    public required double Soc { get; init; }

    /// <summary>Of the bus; 0: nothing gives any [V].</summary>
    public required double Volts { get; init; }

    /// <summary>Into the strings; out of them negative [W].</summary>
    public required double NetW { get; init; }

    /// <summary>Taken by loads and inverter [W].</summary>
    public required double OutW { get; init; }

    /// <summary>Asked by the loads on AC and on DC, given or not [W].</summary>
    public required double AcW { get; init; }
    public required double DcW { get; init; }

    /// <summary>AC comes past the inverter, from a plug or a generator.</summary>
    public required bool Passed { get; init; }

    /// <summary>Offered and not taken [W].</summary>
    public required double ClippedW { get; init; }
    public required bool DarkAc { get; init; }
    public required bool DarkDc { get; init; }
    public required bool InverterOn { get; init; }
    public required bool Generator { get; init; }

    /// <summary>Of each string, out of it positive [A].</summary>
    public required ReadOnlySpan<double> Amps { get; init; }
    public required ReadOnlySpan<double> StringSoc { get; init; }
    public required ReadOnlySpan<bool> IsOut { get; init; }

    /// <summary>Of each source, the generator last [W at the bus].</summary>
    public required ReadOnlySpan<double> Given { get; init; }

    public bool Dark => DarkAc || DarkDc;
}

/// <summary>Reads a run out step by step.</summary>
public interface IRehearsalReader
{
    void Read(in Moment moment);
}

/// <summary>Reads nothing but the sums.</summary>
public readonly struct SumsOnly : IRehearsalReader
{
    public void Read(in Moment moment) { }
}

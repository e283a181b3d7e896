namespace InkyBadger.Core.Logs;

/// <summary>
/// A reading as it is kept: seconds since 1970 by the clock that wrote it, whatever its zone, and what of it was told
/// [V; A out of the bank, charge is negative; 0 to 1; °C].
/// </summary>
public readonly record struct LogReading(long At, double? Volts, double? Amps, double? Soc, double? TemperatureC)
{
    public DateTime Moment => DateTime.UnixEpoch.AddSeconds(At);

    /// <summary>Where a file tells watts alone, their amperes.</summary>
    /// <param name="nominalV">Of the bank, where no volts were read [V, &gt; 0].</param>
    public static LogReading Of(in MonitorReading read, double nominalV) =>
        new(
            (long)(read.At - DateTime.UnixEpoch).TotalSeconds,
            read.Volts,
            read.Amps ?? read.Watts / (read.Volts ?? nominalV),
            read.Soc,
            read.TemperatureC
        );
}

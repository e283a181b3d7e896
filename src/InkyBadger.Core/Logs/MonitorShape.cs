namespace InkyBadger.Core.Logs;

/// <summary>How a file writes its times.</summary>
public enum TimeForm
{
    /// <summary>2026-11-29 14:05, with T, seconds and zone or without.</summary>
    Iso,

    /// <summary>29.11.2026 or 29/11/2026.</summary>
    DayFirst,

    /// <summary>11/29/2026.</summary>
    MonthFirst,

    /// <summary>Seconds since 1970.</summary>
    UnixSeconds,

    /// <summary>Thousandths of a second since 1970.</summary>
    UnixMilliseconds,
}

/// <summary>What a column of charge counts in.</summary>
public enum ChargeUnit
{
    Percent,
    Fraction,

    /// <summary>Ampere-hours that are left.</summary>
    AhLeft,

    /// <summary>Ampere-hours that were taken out, written with or without a minus.</summary>
    AhOut,
}

/// <summary>
/// How a monitor’s file is written, as it was recognised; shown, and corrected where it is wrong. Columns from 0.
/// </summary>
/// <param name="Separator">Between the columns.</param>
/// <param name="DecimalComma">13,2 is thirteen and a fifth.</param>
/// <param name="HeaderLines">Before the first reading.</param>
/// <param name="Heads">Names of the columns; empty: it has none.</param>
/// <param name="Time">The moment, or its day where the hours have a column of their own.</param>
/// <param name="Clock">The hours; null: with the day.</param>
/// <param name="ChargePositive">Amperes and watts into the bank are written without a minus.</param>
/// <param name="Sample">The first lines as they were read.</param>
public sealed record MonitorShape(
    char Separator,
    bool DecimalComma,
    int HeaderLines,
    IReadOnlyList<string> Heads,
    TimeForm TimeForm,
    int Time,
    int? Clock,
    int? Volts,
    int? Amps,
    bool ChargePositive,
    int? Charge,
    ChargeUnit ChargeUnit,
    int? Watts,
    int? Temperature,
    IReadOnlyList<IReadOnlyList<string>> Sample
);

/// <summary>
/// A reading of a file: moment as it is written there, and what of it the file tells [V; A out of the bank; share; W; °C].
/// </summary>
public readonly record struct MonitorReading(DateTime At, double? Volts, double? Amps, double? Soc, double? Watts, double? TemperatureC);

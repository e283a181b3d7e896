using InkyBadger.Core.Logs;
using InkyBadger.Storage;

namespace InkyBadger.Server.Logs;

/// <summary>Readings that came together, with their first and last moment as YYYY-MM-DDTHH:MM.</summary>
public sealed record LogSeriesLine(long Id, string Kind, string Name, double? Seed, string First, string Last, long Count)
{
    public static LogSeriesLine Of(LogSeries s) => new(s.Id, s.Kind, s.Name, s.Seed, Moment(s.FirstAt), Moment(s.LastAt), s.Count);

    private static string Moment(long at) => DateTime.UnixEpoch.AddSeconds(at).ToString("yyyy-MM-dd'T'HH:mm");
}

/// <summary>The log of a bank, what it is made of, and whether a made-up monitor is running.</summary>
public sealed record LogAnswer(LogView View, IReadOnlyList<LogSeriesLine> Series, IReadOnlyList<KeptEntry> Entries, LiveState? Live);

/// <summary>A made-up monitor that runs: its number, and how many seconds of its bank pass in one.</summary>
public sealed record LiveState(double Seed, double Speed);

/// <summary>What is asked of a made-up monitor [0 to 2⁵³; 1 to 3,600].</summary>
public sealed record LiveWish(double Seed, double Speed);

/// <summary>A reading as it comes [V; A out of the bank; 0 to 1].</summary>
public sealed record LiveReading(string At, double? Volts, double? Amps, double? Soc);

/// <summary>Numbers of what was written.</summary>
public sealed record WrittenEntries(IReadOnlyList<long> Ids);

/// <summary>
/// A line of a file that is taken in: readings so far and the share of the file [0 to 1]; the last has the series or why there is none.
/// </summary>
public sealed record ImportLine(int Readings, double Share, LogSeriesLine? Series, MonitorRead? Read, string? Fault);

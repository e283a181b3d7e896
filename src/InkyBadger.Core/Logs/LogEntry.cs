using System.Text.Json.Serialization;
using InkyBadger.Core.Design;

namespace InkyBadger.Core.Logs;

/// <summary>What was written down by hand.</summary>
public enum LogEntryKind
{
    /// <summary>The bank was read: volts, charge or amperes.</summary>
    Reading,

    /// <summary>A capacity test of the whole bank [Ah].</summary>
    Test,

    /// <summary>A task of upkeep was done.</summary>
    Upkeep,

    /// <summary>The bank was put to use.</summary>
    InService,

    /// <summary>The bank was laid up, or taken out of store again.</summary>
    Stored,

    /// <summary>A unit came into the bank, at a place of it.</summary>
    UnitIn,

    /// <summary>It was moved to another place.</summary>
    UnitMoved,

    /// <summary>It was taken out of service.</summary>
    UnitOut,

    /// <summary>Its rest volts [V].</summary>
    UnitRest,

    /// <summary>Its capacity test [Ah].</summary>
    UnitTest,

    /// <summary>A fault of it, or what was done to it.</summary>
    UnitFault,
}

/// <summary>An entry of the log. It stays when the design changes; taken back it is marked, and can be brought back.</summary>
public sealed record LogEntry
{
    /// <summary>Words of an entry at most.</summary>
    public const int MostWords = 300;

    public LogEntryKind Kind { get; init; }

    /// <summary>Local day as YYYY-MM-DD, or moment as YYYY-MM-DDTHH:MM.</summary>
    public string At { get; init; } = "";
    public string By { get; init; } = "";

    /// <summary>The unit, by its serial or whatever tells it from the others.</summary>
    public string? Serial { get; init; }

    /// <summary>Where it stands: string and place in it, as A1.</summary>
    public string? Place { get; init; }

    /// <summary>Name of its kind, as the design had it that day.</summary>
    public string? Item { get; init; }

    /// <summary>What it cost [≥ 0].</summary>
    public double? Price { get; init; }

    /// <summary>When it was bought, as YYYY-MM-DD.</summary>
    public string? Bought { get; init; }

    /// <summary>[V, &gt; 0].</summary>
    public double? Volts { get; init; }

    /// <summary>Out of the bank positive [A].</summary>
    public double? Amps { get; init; }

    /// <summary>[0 to 1].</summary>
    public double? Soc { get; init; }

    /// <summary>[Ah, &gt; 0].</summary>
    public double? Ah { get; init; }

    /// <summary>Of the table of upkeep.</summary>
    public string? Task { get; init; }

    /// <summary>Taken out of store again.</summary>
    public bool Ended { get; init; }
    public string? Words { get; init; }

    /// <summary>Null: it cannot be read.</summary>
    internal DateOnly? Day => CalendarText.Day(At.Length >= 10 ? At[..10] : At);

    internal long? Seconds =>
        CalendarText.Moment(At) is { } at ? (long)(at - DateTime.UnixEpoch).TotalSeconds
        : Day is { } day ? LogDays.At(day) + 12 * 3600
        : null;

    /// <summary>When the bank was read by hand [s since 1970]; null: it is no reading.</summary>
    [JsonIgnore]
    public long? ReadAt => Kind == LogEntryKind.Reading ? Seconds : null;

    /// <summary>Why it cannot be kept, by field; empty: it can.</summary>
    public IEnumerable<(string Field, string Why)> Faults()
    {
        if (Seconds is null)
            yield return ("at", "is a day as YYYY-MM-DD, or a moment as YYYY-MM-DDTHH:MM");
        if (Soc is not (null or >= 0 and <= 1))
            yield return ("soc", "is from 0 to 1");
        if (Volts is not (null or > 0 and < 1000))
            yield return ("volts", "is more than 0 and less than 1,000");
        if (Amps is not (null or > -100_000 and < 100_000))
            yield return ("amps", "is no current of a bank");
        if (Ah is not (null or > 0 and < 1_000_000))
            yield return ("ah", "is more than 0");
        if (Price is not (null or >= 0 and < 1e9))
            yield return ("price", "is 0 or more");
        if (Bought is not null && CalendarText.Day(Bought) is null)
            yield return ("bought", "is a day as YYYY-MM-DD");
        foreach (var (field, text) in new[] { ("by", By), ("serial", Serial), ("place", Place), ("item", Item), ("words", Words) })
            if (text?.Length > MostWords)
                yield return (field, $"has more than {MostWords} letters");
        if (Kind == LogEntryKind.Reading && Volts is null && Soc is null && Amps is null)
            yield return ("volts", "is missing, and so are charge and amperes: one of them is needed");
        if (Kind is LogEntryKind.Test or LogEntryKind.UnitTest && Ah is null)
            yield return ("ah", "is missing");
        if (Kind == LogEntryKind.UnitRest && Volts is null)
            yield return ("volts", "is missing");
        if (Kind == LogEntryKind.Upkeep && !Upkeep.All.Any(t => t.Task == Task))
            yield return ("task", "is none of the table of upkeep");
        if (Kind >= LogEntryKind.UnitIn && string.IsNullOrWhiteSpace(Serial))
            yield return ("serial", "is missing: a unit is known by it");
        if (Kind is LogEntryKind.UnitIn or LogEntryKind.UnitMoved && string.IsNullOrWhiteSpace(Place))
            yield return ("place", "is missing");
        if (Kind == LogEntryKind.UnitFault && string.IsNullOrWhiteSpace(Words))
            yield return ("words", "is missing");
    }
}

/// <summary>An entry as it is kept, by its number.</summary>
public sealed record KeptEntry(long Id, LogEntry Entry);

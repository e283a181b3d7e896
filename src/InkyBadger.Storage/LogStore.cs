using System.Runtime.CompilerServices;
using System.Text.Json;
using InkyBadger.Core.Design;
using InkyBadger.Core.Logs;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;

namespace InkyBadger.Storage;

/// <summary>Readings that came together. <paramref name="Kind"/>: <c>file</c>, or <c>simulated</c> with its number.</summary>
public sealed record LogSeries(
    long Id,
    string Kind,
    string Name,
    double? Seed,
    DateTime ReceivedUtc,
    long FirstAt,
    long LastAt,
    long Count
);

/// <summary>
/// Readings and entries of banks, beside the designs. A series is seen once all of it is there; taken out it is only marked, and goes for
/// good with the bin.
/// </summary>
public sealed class LogStore(BadgerDb db, WriteQueue writes, TimeProvider clock)
{
    /// <summary>Series and entries of a bank that stand, at most.</summary>
    public const int MostSeries = 500,
        MostEntries = 20_000;

    /// <summary>Readings closer together than this are thinned to means of a minute where they are looked at [s].</summary>
    private const double DenseS = 30;

    public Task<bool> IsThereAsync(string design, CancellationToken stop) =>
        db.Designs.AsNoTracking().AnyAsync(d => d.Id == design && d.DeletedUtc == null, stop);

    /// <summary>A series that nobody sees yet; null: there are too many.</summary>
    public Task<long?> BeginAsync(string design, string bank, string kind, string name, double? seed, CancellationToken stop) =>
        writes.RunAsync<long?>(
            async turn =>
            {
                if (await turn.Db.LogSeries.CountAsync(s => s.DesignId == design && s.DeletedAtSeenH == null) >= MostSeries)
                    return null;
                var row = new LogSeriesRow
                {
                    DesignId = design,
                    BankId = bank,
                    Kind = kind,
                    Name = name,
                    Seed = seed,
                    ReceivedUtc = clock.GetUtcNow().UtcDateTime,
                };
                turn.Db.LogSeries.Add(row);
                await turn.Db.SaveChangesAsync();
                return row.Id;
            },
            stop
        );

    /// <summary>Some more of a series. A reading or quarter of the same moment takes the place of the one before.</summary>
    /// <param name="ready">This is all of it, or what there is may be seen.</param>
    public Task AppendAsync(
        long series,
        IReadOnlyList<LogReading> readings,
        IReadOnlyList<LogSlot> slots,
        bool ready,
        CancellationToken stop
    ) =>
        writes.RunAsync(
            turn =>
            {
                Append(turn, series, readings, slots, ready);
                return Task.FromResult(true);
            },
            stop
        );

    private static void Append(
        WriteQueue.Turn turn,
        long series,
        IReadOnlyList<LogReading> readings,
        IReadOnlyList<LogSlot> slots,
        bool ready
    )
    {
        using (
            var insert = turn.Command(
                "INSERT OR REPLACE INTO log_readings (Key, Volts, Amps, Soc, TemperatureC) VALUES ($k, $v, $a, $s, $c)"
            )
        )
        {
            var of = Parameters(insert, "$k", "$v", "$a", "$s", "$c");
            foreach (var r in readings)
            {
                of[0].Value = LogKeys.Of(series, r.At);
                of[1].Value = Value(r.Volts);
                of[2].Value = Value(r.Amps);
                of[3].Value = Value(r.Soc);
                of[4].Value = Value(r.TemperatureC);
                insert.ExecuteNonQuery();
            }
        }
        using (
            var insert = turn.Command(
                """
                INSERT OR REPLACE INTO log_slots (Key, Hours, AhOut, AhIn, WhOut, WhIn, MostOutA, MostInA, LowestV, HighestV, LastSoc,
                  LowestSoc, MeanC) VALUES ($k, $h, $ao, $ai, $wo, $wi, $mo, $mi, $lv, $hv, $s, $ls, $c)
                """
            )
        )
        {
            var of = Parameters(insert, "$k", "$h", "$ao", "$ai", "$wo", "$wi", "$mo", "$mi", "$lv", "$hv", "$s", "$ls", "$c");
            foreach (var s in slots)
            {
                object[] values =
                [
                    LogKeys.Of(series, s.At),
                    s.Hours,
                    s.AhOut,
                    s.AhIn,
                    s.WhOut,
                    s.WhIn,
                    s.MostOutA,
                    s.MostInA,
                    Value(s.LowestV),
                    Value(s.HighestV),
                    Value(s.LastSoc),
                    Value(s.LowestSoc),
                    Value(s.MeanC),
                ];
                for (var i = 0; i < values.Length; i++)
                    of[i].Value = values[i];
                insert.ExecuteNonQuery();
            }
        }
        if (readings.Count == 0 && !ready)
            return;
        var (first, last) = readings.Count > 0 ? (readings[0].At, readings[^1].At) : (long.MaxValue, 0);
        using var update = turn.Command(
            """
            UPDATE log_series SET Count = Count + $n, Ready = max(Ready, $r), LastAt = max(LastAt, $last),
              FirstAt = CASE WHEN FirstAt = 0 THEN $first ELSE min(FirstAt, $first) END WHERE Id = $id
            """,
            ("$n", readings.Count),
            ("$r", ready ? 1 : 0),
            ("$first", first == long.MaxValue ? 0 : first),
            ("$last", last),
            ("$id", series)
        );
        if (readings.Count == 0)
            update.CommandText = "UPDATE log_series SET Ready = max(Ready, $r) WHERE Id = $id";
        update.ExecuteNonQuery();
    }

    private static object Value(double? x) => x is { } v ? v : DBNull.Value;

    private static SqliteParameter[] Parameters(SqliteCommand command, params ReadOnlySpan<string> names)
    {
        var list = new SqliteParameter[names.Length];
        for (var i = 0; i < names.Length; i++)
            list[i] = command.Parameters.AddWithValue(names[i], DBNull.Value);
        return list;
    }

    /// <summary>What was begun and will not be ended, at once.</summary>
    public Task AbandonAsync(long series) =>
        writes.RunAsync(
            async turn =>
            {
                await DropAsync(turn.Db, [series]);
                return true;
            },
            default
        );

    /// <summary>Marked, or brought back.</summary>
    public Task<bool> MarkAsync(string design, long series, bool taken, CancellationToken stop) =>
        writes.RunAsync(
            async turn =>
            {
                double? seen = taken ? await SeenTime.HoursAsync(turn.Db) : null;
                return await turn
                        .Db.LogSeries.Where(s => s.Id == series && s.DesignId == design && s.Ready)
                        .ExecuteUpdateAsync(s => s.SetProperty(x => x.DeletedAtSeenH, seen)) > 0;
            },
            stop
        );

    /// <summary>What may go for good: taken out long ago, begun and left, or of designs that are gone.</summary>
    internal static async Task SweepAsync(BadgerDb db, double oldest)
    {
        var gone = await db
            .LogSeries.Where(s => s.DeletedAtSeenH <= oldest || !db.Designs.Any(d => d.Id == s.DesignId))
            .Select(s => s.Id)
            .ToListAsync();
        await DropAsync(db, gone);
        await db.LogEntries.Where(e => e.DeletedAtSeenH <= oldest || !db.Designs.Any(d => d.Id == e.DesignId)).ExecuteDeleteAsync();
    }

    /// <summary>What a killed program had begun.</summary>
    public async Task SweepBegunAsync(CancellationToken stop)
    {
        var begun = await db.LogSeries.Where(s => !s.Ready).Select(s => s.Id).ToListAsync(stop);
        if (begun.Count > 0)
            await writes.RunAsync(
                async turn =>
                {
                    await DropAsync(turn.Db, begun);
                    return true;
                },
                stop
            );
    }

    private static async Task DropAsync(BadgerDb db, IReadOnlyList<long> series)
    {
        foreach (var id in series)
        {
            var (from, to) = LogKeys.Range(id);
            await db.LogReadings.Where(r => r.Key >= from && r.Key <= to).ExecuteDeleteAsync();
            await db.LogSlots.Where(r => r.Key >= from && r.Key <= to).ExecuteDeleteAsync();
            await db.LogSeries.Where(s => s.Id == id).ExecuteDeleteAsync();
        }
    }

    /// <summary>Those that stand, the last received first.</summary>
    public async Task<IReadOnlyList<LogSeries>> SeriesAsync(string design, string bank, CancellationToken stop) =>
        await db
            .LogSeries.AsNoTracking()
            .Where(s => s.DesignId == design && s.BankId == bank && s.Ready && s.DeletedAtSeenH == null && s.Count > 0)
            .OrderByDescending(s => s.Id)
            .Select(s => new LogSeries(
                s.Id,
                s.Kind,
                s.Name,
                s.Seed,
                DateTime.SpecifyKind(s.ReceivedUtc, DateTimeKind.Utc),
                s.FirstAt,
                s.LastAt,
                s.Count
            ))
            .ToListAsync(stop);

    /// <summary>All quarters of some series in order of time; of a quarter that several have, the one that was read longest.</summary>
    public async Task<IReadOnlyList<LogSlot>> SlotsAsync(IReadOnlyList<LogSeries> series, CancellationToken stop)
    {
        var all = new List<LogSlot>();
        foreach (var s in series)
        {
            var (from, to) = LogKeys.Range(s.Id);
            await using var command = await CommandAsync(
                """
                SELECT Key, Hours, AhOut, AhIn, WhOut, WhIn, MostOutA, MostInA, LowestV, HighestV, LastSoc, LowestSoc, MeanC
                FROM log_slots WHERE Key BETWEEN $from AND $to ORDER BY Key
                """,
                from,
                to,
                stop
            );
            using var row = command.ExecuteReader();
            while (row.Read())
                all.Add(
                    new(
                        row.GetInt64(0) & LogKeys.Mask,
                        row.GetDouble(1),
                        row.GetDouble(2),
                        row.GetDouble(3),
                        row.GetDouble(4),
                        row.GetDouble(5),
                        row.GetDouble(6),
                        row.GetDouble(7),
                        Maybe(row, 8),
                        Maybe(row, 9),
                        Maybe(row, 10),
                        Maybe(row, 11),
                        Maybe(row, 12)
                    )
                );
        }
        return series.Count < 2 ? all : [.. all.GroupBy(s => s.At).Select(g => g.MaxBy(s => s.Hours)).OrderBy(s => s.At)];
    }

    /// <summary>Readings of a stretch in order of time, dense ones as means of a minute: the database thins them.</summary>
    public async Task<IReadOnlyList<LogReading>> MinutesAsync(
        IReadOnlyList<LogSeries> series,
        long fromAt,
        long toAt,
        CancellationToken stop
    )
    {
        var all = new List<LogReading>();
        foreach (var s in series.Where(s => s.FirstAt < toAt && s.LastAt >= fromAt))
        {
            var (from, to) = LogKeys.Range(s.Id, fromAt, toAt + 1);
            var dense = s.LastAt > s.FirstAt && (s.LastAt - s.FirstAt) / (double)s.Count < DenseS;
            await using var command = await CommandAsync(
                dense
                    ? """
                    SELECT max(Key), avg(Volts), avg(Amps), avg(Soc), avg(TemperatureC) FROM log_readings
                    WHERE Key BETWEEN $from AND $to GROUP BY Key / 60 ORDER BY Key
                    """
                    : "SELECT Key, Volts, Amps, Soc, TemperatureC FROM log_readings WHERE Key BETWEEN $from AND $to ORDER BY Key",
                from,
                to,
                stop
            );
            using var row = command.ExecuteReader();
            while (row.Read())
                all.Add(Reading(row));
        }
        return series.Count < 2 ? all : [.. all.GroupBy(r => r.At).Select(g => g.First()).OrderBy(r => r.At)];
    }

    /// <summary>Every reading of a series as it is kept, without holding them all.</summary>
    public async IAsyncEnumerable<LogReading> ReadingsAsync(LogSeries series, [EnumeratorCancellation] CancellationToken stop)
    {
        var (from, to) = LogKeys.Range(series.Id);
        await using var command = await CommandAsync(
            "SELECT Key, Volts, Amps, Soc, TemperatureC FROM log_readings WHERE Key BETWEEN $from AND $to ORDER BY Key",
            from,
            to,
            stop
        );
        using var row = command.ExecuteReader();
        while (row.Read())
        {
            stop.ThrowIfCancellationRequested();
            yield return Reading(row);
        }
    }

    private static LogReading Reading(SqliteDataReader row) =>
        new(row.GetInt64(0) & LogKeys.Mask, Maybe(row, 1), Maybe(row, 2), Maybe(row, 3), Maybe(row, 4));

    private static double? Maybe(SqliteDataReader row, int at) => row.IsDBNull(at) ? null : row.GetDouble(at);

    private async Task<SqliteCommand> CommandAsync(string sql, long from, long to, CancellationToken stop)
    {
        await db.Database.OpenConnectionAsync(stop);
        var command = ((SqliteConnection)db.Database.GetDbConnection()).CreateCommand();
        command.CommandText = sql;
        command.Parameters.AddWithValue("$from", from);
        command.Parameters.AddWithValue("$to", to);
        return command;
    }

    /// <summary>Those that stand, in the order they were written.</summary>
    public async Task<IReadOnlyList<KeptEntry>> EntriesAsync(string design, string bank, CancellationToken stop)
    {
        var rows = await db
            .LogEntries.AsNoTracking()
            .Where(e => e.DesignId == design && e.BankId == bank && e.DeletedAtSeenH == null)
            .OrderBy(e => e.Id)
            .Select(e => new { e.Id, e.Document })
            .ToListAsync(stop);
        return
        [
            .. rows.Select(r => (r.Id, Entry: Read(r.Document))).Where(r => r.Entry is not null).Select(r => new KeptEntry(r.Id, r.Entry!)),
        ];
    }

    /// <summary>One that cannot be read takes no other with it.</summary>
    private static LogEntry? Read(string text)
    {
        try
        {
            return JsonSerializer.Deserialize<LogEntry>(text, DesignFormat.Options);
        }
        catch (JsonException)
        {
            return null;
        }
    }

    /// <summary>All of them or none; null: there would be too many.</summary>
    public Task<IReadOnlyList<long>?> WriteAsync(string design, string bank, IReadOnlyList<LogEntry> entries, CancellationToken stop) =>
        writes.RunAsync<IReadOnlyList<long>?>(
            async turn =>
            {
                if (
                    await turn.Db.LogEntries.CountAsync(e => e.DesignId == design && e.DeletedAtSeenH == null) + entries.Count
                    > MostEntries
                )
                    return null;
                var rows = entries
                    .Select(e => new LogEntryRow
                    {
                        DesignId = design,
                        BankId = bank,
                        Document = JsonSerializer.Serialize(e, DesignFormat.Options),
                        WrittenUtc = clock.GetUtcNow().UtcDateTime,
                    })
                    .ToList();
                turn.Db.LogEntries.AddRange(rows);
                await turn.Db.SaveChangesAsync();
                return [.. rows.Select(r => r.Id)];
            },
            stop
        );

    /// <summary>An entry is marked, or brought back.</summary>
    public Task<bool> MarkEntryAsync(string design, long id, bool taken, CancellationToken stop) =>
        writes.RunAsync(
            async turn =>
            {
                double? seen = taken ? await SeenTime.HoursAsync(turn.Db) : null;
                return await turn
                        .Db.LogEntries.Where(e => e.Id == id && e.DesignId == design)
                        .ExecuteUpdateAsync(e => e.SetProperty(x => x.DeletedAtSeenH, seen)) > 0;
            },
            stop
        );

    /// <summary>The demo design whose made-up readings are still to come; null: none.</summary>
    public async Task<string?> DemoWantedAsync(CancellationToken stop) =>
        (await db.Facts.AsNoTracking().FirstOrDefaultAsync(f => f.Name == FactNames.DemoLog, stop))?.Value;

    /// <summary>The demo’s readings and entries, once: whoever comes second finds them there.</summary>
    public Task KeepDemoAsync(
        string design,
        string bank,
        string name,
        double seed,
        IReadOnlyList<LogReading> readings,
        IReadOnlyList<LogSlot> slots,
        IReadOnlyList<LogEntry> entries
    ) =>
        writes.RunAsync(
            async turn =>
            {
                if (await turn.Db.Facts.Where(f => f.Name == FactNames.DemoLog).ExecuteDeleteAsync() == 0)
                    return false;
                var row = new LogSeriesRow
                {
                    DesignId = design,
                    BankId = bank,
                    Kind = "simulated",
                    Name = name,
                    Seed = seed,
                    ReceivedUtc = clock.GetUtcNow().UtcDateTime,
                };
                turn.Db.LogSeries.Add(row);
                turn.Db.LogEntries.AddRange(
                    entries.Select(e => new LogEntryRow
                    {
                        DesignId = design,
                        BankId = bank,
                        Document = JsonSerializer.Serialize(e, DesignFormat.Options),
                        WrittenUtc = clock.GetUtcNow().UtcDateTime,
                    })
                );
                await turn.Db.SaveChangesAsync();
                Append(turn, row.Id, readings, slots, ready: true);
                return true;
            },
            default
        );
}

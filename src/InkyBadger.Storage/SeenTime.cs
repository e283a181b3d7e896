using System.Globalization;
using Microsoft.EntityFrameworkCore;

namespace InkyBadger.Storage;

/// <summary>
/// Time that was seen to pass: while the program runs by its own stopwatch, from one start to the next by the clock, but a day at most. So
/// a clock that is wrong empties no bin, and a machine that stood still for a year has aged its bin by a day.
/// </summary>
public sealed class SeenTime(WriteQueue writes, TimeProvider clock)
{
    /// <summary>Hours a start adds at most, whatever the clock says.</summary>
    private const double MostBetweenStarts = 24;

    private long lookedAt = clock.GetTimestamp();

    /// <summary>At a start: what has passed since the last one, as far as it is believed.</summary>
    public async Task BeginAsync(CancellationToken stop)
    {
        var now = clock.GetUtcNow().UtcDateTime;
        await writes.RunAsync(
            async turn =>
            {
                var last = await turn.Db.Facts.FindAsync(FactNames.SeenAt);
                var since =
                    last is not null
                    && DateTime.TryParse(last.Value, CultureInfo.InvariantCulture, DateTimeStyles.RoundtripKind, out var at)
                        ? (now - at).TotalHours
                        : 0;
                await PassAsync(turn.Db, Math.Clamp(since, 0, MostBetweenStarts), now);
                return true;
            },
            stop
        );
        lookedAt = clock.GetTimestamp();
    }

    /// <summary>Now and then while it runs.</summary>
    public async Task LookAsync(CancellationToken stop)
    {
        var (before, now) = (lookedAt, clock.GetTimestamp());
        lookedAt = now;
        await writes.RunAsync(
            async turn =>
            {
                await PassAsync(turn.Db, clock.GetElapsedTime(before, now).TotalHours, clock.GetUtcNow().UtcDateTime);
                return true;
            },
            stop
        );
    }

    /// <summary>Hours pass; what has lain in the bin for long enough of them goes.</summary>
    private static async Task PassAsync(BadgerDb db, double hours, DateTime now)
    {
        var seen = await HoursAsync(db) + hours;
        await db.Database.ExecuteSqlAsync(
            $"INSERT OR REPLACE INTO facts (Name, Value) VALUES ({FactNames.SeenHours}, {seen.ToString("R", CultureInfo.InvariantCulture)})"
        );
        await db.Database.ExecuteSqlAsync(
            $"INSERT OR REPLACE INTO facts (Name, Value) VALUES ({FactNames.SeenAt}, {now.ToString("O", CultureInfo.InvariantCulture)})"
        );
        // What went into the bin before hours were counted begins to count now.
        await db
            .Designs.Where(d => d.DeletedUtc != null && d.DeletedAtSeenH == null)
            .ExecuteUpdateAsync(d => d.SetProperty(x => x.DeletedAtSeenH, seen));
        var oldest = seen - 24 * DesignStore.BinDays;
        await db.Designs.Where(d => d.DeletedUtc != null && d.DeletedAtSeenH <= oldest).ExecuteDeleteAsync();
        await LogStore.SweepAsync(db, oldest);
    }

    /// <summary>Hours seen so far.</summary>
    internal static async Task<double> HoursAsync(BadgerDb db) =>
        await db.Facts.AsNoTracking().FirstOrDefaultAsync(f => f.Name == FactNames.SeenHours) is { } fact
        && double.TryParse(fact.Value, CultureInfo.InvariantCulture, out var hours)
            ? hours
            : 0;
}

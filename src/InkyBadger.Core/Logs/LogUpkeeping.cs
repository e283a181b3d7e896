using InkyBadger.Core.Design;
using InkyBadger.Core.Work;

namespace InkyBadger.Core.Logs;

/// <summary>Upkeep and health of a bank from what was written down (method, 13.4 and 13.7).</summary>
internal static class LogUpkeeping
{
    private static readonly DateOnly Epoch = new(2000, 1, 1);

    /// <returns>What is due by its day, and since when the bank is in use; null: nobody said.</returns>
    public static (IReadOnlyList<LogUpkeep> Due, DateOnly? Fitted) Of(BankWork w, LogRead read, DateOnly today)
    {
        if (Fitted(w, read) is not { } fitted || w.Bank.Value is not { } bank)
            return ([], null);
        var from = fitted > today ? today : fitted;
        var stored = read.Entries.Where(e => e.Kind == LogEntryKind.Stored).OrderBy(e => e.At, StringComparer.Ordinal).LastOrDefault();
        var done = read
            .Entries.Where(e => e is { Kind: LogEntryKind.Upkeep, Task: not null, Day: not null } && e.Day <= today)
            .Concat(Tests(read.Entries).Where(e => e.Day <= today).Select(e => e with { Task = "capacity" }))
            .ToList();
        var result = Upkeep.Work(
            bank.Unit.Chemistry,
            Math.Max(0, from.DayNumber - Epoch.DayNumber),
            today.DayNumber - Epoch.DayNumber,
            stored is { Ended: false } ? UpkeepState.Stored : UpkeepState.InUse,
            bank.Layout.Series,
            bank.Unit.Communicates,
            w.Document.Inverters.Count > 0,
            [.. done.Select(e => (e.Task!, e.Day!.Value.DayNumber - Epoch.DayNumber))]
        );
        return (
            [
                .. result.Tasks.Select(t =>
                {
                    var last = done.Where(e => e.Task == t.Task).MaxBy(e => e.Day);
                    return new LogUpkeep(
                        t.Task,
                        t.Label,
                        $"{Epoch.AddDays(t.Due):yyyy-MM-dd}",
                        t.OverdueDays,
                        last?.Day is { } day ? $"{day:yyyy-MM-dd}" : null,
                        last?.By is { Length: > 0 } by ? by : null
                    );
                }),
            ],
            from
        );
    }

    private static IEnumerable<LogEntry> Tests(IReadOnlyList<LogEntry> entries) =>
        entries.Where(e => e is { Kind: LogEntryKind.Test, Ah: not null, Day: not null });

    /// <summary>As it was said, else when the first unit came, when it was brought up, or when it was first read.</summary>
    private static DateOnly? Fitted(BankWork w, LogRead read)
    {
        DateOnly? Of(LogEntryKind kind) => read.Entries.Where(e => e.Kind == kind).Select(e => e.Day).Min();
        return Of(LogEntryKind.InService)
            ?? Of(LogEntryKind.UnitIn)
            ?? w.Scene.Design.BringUp.Entries.Select(e => CalendarText.Moment(e.At))
                .Where(at => at is not null)
                .Select(at => (DateOnly?)DateOnly.FromDateTime(at!.Value))
                .Min()
            ?? (read.Slots.Count > 0 ? LogDays.DayOf(read.Slots[0].At) : null);
    }

    /// <summary>Tests of the whole bank, those of Bring-up with them.</summary>
    public static LogHealth? Health(LogPlan plan, IReadOnlyList<LogEntry> entries, DateOnly today)
    {
        var rated = plan.RatedWh / plan.NominalV;
        var tests = Tests(entries)
            .Select(e => (Day: e.Day!.Value, e.Ah!.Value))
            .Concat(
                plan.Work.Scene.Design.BringUp.Entries.Where(e =>
                        e is { Simulated: null, Capacity.Ah: not null }
                        && e.Step.StartsWith(plan.Work.Document.Id + "/", StringComparison.Ordinal)
                    )
                    .Select(e => (Day: CalendarText.Moment(e.At) is { } at ? DateOnly.FromDateTime(at) : today, e.Capacity!.Ah!.Value))
            )
            .Where(t => t.Day <= today && t.Value / rated is > 0 and <= 2)
            .OrderBy(t => t.Day)
            .ToList();
        if (tests.Count == 0)
            return null;
        var trend = HealthTrend.Work([.. tests.Select(t => new HealthTest(t.Day.DayNumber, t.Value / rated))], today.DayNumber);
        var (last, share) = (tests[^1], tests[^1].Value / rated);
        double? year = trend.YearsLeft is { } left and < 100 ? today.Year + (today.DayOfYear - 1) / 365.25 + left : null;
        var words =
            $"{Say.Number(last.Value, 1)} Ah of {Say.Number(rated)} at the last test, {Say.Percent(share, 0)}. "
            + (
                !trend.Told ? "Tests half a year apart tell how fast it falls."
                : year is null ? "It does not fall."
                : trend.YearsLeft <= 0 ? "It is below 80 % already."
                : $"At this rate 80 % is reached in {(int)year.Value}"
                    + (trend.Doubtful == true ? ", though such tests scatter as much as it fell." : ".")
            );
        return new(
            [.. tests.Select(t => new UnitTest($"{t.Day:yyyy-MM-dd}", t.Value / rated))],
            trend.SlopePerYear,
            year,
            trend.Doubtful == true,
            words
        );
    }
}

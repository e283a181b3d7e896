using InkyBadger.Core.Demo;
using InkyBadger.Core.Design;
using InkyBadger.Core.Logs;
using InkyBadger.Storage;

namespace InkyBadger.Server.Logs;

/// <summary>Puts together what is kept of a bank and what its design plans.</summary>
public sealed class LogReader(LogStore store, KnownSlots known, LiveMonitors live, TimeProvider clock)
{
    public DateOnly Today => DateOnly.FromDateTime(clock.GetLocalNow().DateTime);

    /// <param name="id">Of the design its log is kept beside.</param>
    /// <param name="design">As it stands on the screen.</param>
    /// <param name="from">The first day looked at; null: the last week.</param>
    public async Task<LogAnswer> ReadAsync(
        string id,
        DesignDocument design,
        int bankIndex,
        DateOnly? from,
        int? days,
        CancellationToken stop
    )
    {
        await BringDemoAsync(stop);
        var bank = design.Banks[bankIndex].Id;
        var series = await store.SeriesAsync(id, bank, stop);
        var entries = await store.EntriesAsync(id, bank, stop);
        long? first = series.Count > 0 ? series.Min(s => s.FirstAt) : null;
        long? last = series.Count > 0 ? series.Max(s => s.LastAt) : null;
        foreach (var at in entries.Select(e => e.Entry.ReadAt).OfType<long>())
            (first, last) = (Math.Min(first ?? at, at), Math.Max(last ?? at, at + 1));
        var frame = LogFrame.Of(first, last, from, days, Today);
        var minutes = frame.IsClose ? await store.MinutesAsync(series, frame.FromAt, frame.EndAt, stop) : [];
        var begin = series.Count > 0 ? LogDays.At(LogDays.DayOf(series.Min(s => s.FirstAt))) : 0;
        var early =
            frame.IsClose && series.Count > 0 && begin + LogFrame.FirstDays * 86_400 < frame.FromAt
                ? await store.MinutesAsync(series, begin, begin + LogFrame.FirstDays * 86_400, stop)
                : [];
        var view = LogBook.Of(
            design,
            bankIndex,
            new(await known.OfAsync(store, series, stop), minutes, early, [.. entries.Select(e => e.Entry)]),
            frame,
            Today
        );
        return new(view, [.. series.Select(LogSeriesLine.Of)], entries, live.StateOf(id, bank));
    }

    /// <summary>The demo’s readings, made when a log is first looked at.</summary>
    private async Task BringDemoAsync(CancellationToken stop)
    {
        if (await store.DemoWantedAsync(stop) is not { } demo)
            return;
        var bank = DemoDesigns.All[0].Banks[0];
        var readings = DemoLog.Readings();
        await store.KeepDemoAsync(
            demo,
            bank.Id,
            DemoLog.Name,
            DemoLog.Seed,
            [.. readings.Where(r => DemoLog.Keeps(r))],
            Slots.Of(readings, bank.SystemV ?? 12),
            DemoLog.Entries()
        );
    }
}

/// <summary>The quarters that were read last: whoever drags the frame asks for the same ones again and again.</summary>
public sealed class KnownSlots
{
    private sealed record Last(string Key, IReadOnlyList<LogSlot> Slots);

    private Last? last;

    public async Task<IReadOnlyList<LogSlot>> OfAsync(LogStore store, IReadOnlyList<LogSeries> series, CancellationToken stop)
    {
        // A series only ever grows, and its number is never given again.
        var key = string.Join(' ', series.Select(s => $"{s.Id}:{s.Count}"));
        if (last is { } held && held.Key == key)
            return held.Slots;
        var slots = await store.SlotsAsync(series, stop);
        last = new(key, slots);
        return slots;
    }
}

internal static class Slots
{
    public static IReadOnlyList<LogSlot> Of(IEnumerable<LogReading> readings, double nominalV)
    {
        var slots = new List<LogSlot>();
        var maker = new SlotMaker(nominalV, slots.Add);
        foreach (var r in readings)
            maker.Add(r);
        maker.End();
        return slots;
    }
}

using InkyBadger.Core.Demand;
using InkyBadger.Core.Design;
using InkyBadger.Core.Words;

namespace InkyBadger.Core.Logs;

/// <summary>Loads that run longer, more often or less often than planned, and what is always drawn.</summary>
internal sealed class LoadLessons : LessonMaker
{
    /// <summary>An hour at which something starts on so many of the days is a habit.</summary>
    private const double OftenShare = 0.5,
        NearH = 1.0 / 3,
        LeastIdleW = 6,
        LeastSeenH = 12;

    private const int LeastEnds = 3;

    public LoadLessons(LogPlan plan, IReadOnlyList<LoggedDay> days, LogStarts starts)
        : base(plan, days, starts)
    {
        // One figure for everything, or states of the whole, have no loads of their own to be told from each other.
        foreach (var load in plan.Work.Document.Demand.By == DemandBy.Loads ? plan.Loads(days[^1].Day) : [])
            if (load.Cycles)
                Duty(load);
            else if (load.Windows is { } windows)
                Times(load, windows);
        Idle();
    }

    private IEnumerable<LogStart> Of(PlannedLoad load, DateOnly day) =>
        Starts.Starts.Where(s => s.Load?.Id == load.Id && LogDays.DayOf(s.From) == day);

    private static double HoursOn(LogStart s, double usual) => s.To is { } to ? (to - s.From) / 3600.0 : usual;

    /// <summary>A load that goes on and off by itself: the share of the time in which it could be seen.</summary>
    private void Duty(PlannedLoad load)
    {
        var shares = new List<double>();
        foreach (var day in Days)
        {
            if (SeenH(day) < LeastSeenH)
                continue;
            shares.Add(Starts.OnH.GetValueOrDefault((load.Id, day.Day)) / SeenH(day));
        }
        if (shares.Count == 0)
            return;
        var against = AgainstPlan.Work([.. shares.Select(s => s * 24 * load.BankW)], load.DayWh);
        if (!Matters(against))
            return;
        var document = Plan.Work.Document.Demand.Loads[load.Index];
        var share = against.MedianWh / 24 / load.BankW;
        // Once it never rests it runs for more hours.
        var wanted = document.Duty * against.Ratio;
        double? hours = wanted > 1 ? Math.Min(24, Math.Round((document.Hours ?? 24) * wanted, 1)) : document.Hours;
        var duty = Math.Clamp(Math.Round(wanted, 2), 0.01, 1);
        var then = document with { Duty = duty, Hours = hours };
        string? label = wanted > 1 ? $"Set it to {Say.Hours(hours!.Value)} a day" : $"Set its duty to {Say.Number(duty, 2)}";
        if (document.States is { Count: > 0 } states)
        {
            // How long it is in which state says what it draws on the mean.
            var shifted = Shifted(states, against.Ratio);
            then = document with { States = shifted };
            label = shifted is null ? null : $"Set its greatest draw to {Say.Percent(shifted.MaxBy(s => s.Amps)!.Share, 0)} of the time";
        }
        Add(
            LessonKind.Duty,
            $"{load.Name}: {Say.Hours(share * 24)} a day, not {Say.Hours(load.DayWh / load.BankW)}.",
            $"It runs {Say.Number(share * 100)} of 100 minutes: {Say.Wh(against.MedianWh)} a day at the bank, planned "
                + $"{Say.Wh(load.DayWh)}.",
            $"{Lower(load.Name)} runs {Say.Hours(share * 24)} a day, not {Say.Hours(load.DayWh / load.BankW)}",
            against.MedianWh - load.DayWh,
            NotYet(against),
            label,
            b => b.WithLoad(load.Index, then)
        );
    }

    /// <summary>
    /// Shares of the states with so much more on the mean: from the least draw to the greatest; null: there is no room for it.
    /// </summary>
    private static List<StateShare>? Shifted(IReadOnlyList<StateShare> states, double ratio)
    {
        var (least, most) = (states.MinBy(s => s.Amps)!, states.MaxBy(s => s.Amps)!);
        if (!(most.Amps > least.Amps))
            return null;
        var mean = states.Sum(s => s.Amps * s.Share);
        var more = Math.Round((ratio - 1) * mean / (most.Amps - least.Amps), 3);
        return most.Share + more is >= 0 and <= 1 && least.Share - more is >= 0 and <= 1
            ?
            [
                .. states.Select(s =>
                    ReferenceEquals(s, most) ? s with { Share = Math.Round(s.Share + more, 4) }
                    : ReferenceEquals(s, least) ? s with { Share = Math.Round(s.Share - more, 4) }
                    : s
                ),
            ]
            : null;
    }

    /// <summary>A load at hours of its own: begun more often, less often, or for longer.</summary>
    private void Times(PlannedLoad load, IReadOnlyList<DayWindow> windows)
    {
        // Somebody who is always on at those hours shows no start.
        if (load.Duty < 1 || load.BankW < 2 * LeastIdleW)
            return;
        var usual = windows.Average(x => x.Hours);
        var seen = Days.Select(d => (Day: d, Starts: Of(load, d.Day).ToList())).Where(d => SeenH(d.Day) >= LeastSeenH).ToList();
        if (seen.Count == 0)
            return;
        var kept = new List<(DayWindow Planned, DayWindow Kept)>();
        var unseen = new List<DayWindow>();
        foreach (var window in windows)
        {
            var at = seen.Select(d => d.Starts.Where(s => Near(Hour(s), window)).ToList()).ToList();
            // Hours in which nothing can be seen tell nothing: they stand as planned.
            if (seen.Count(d => Hidden(d.Day, window)) * 2 > seen.Count)
            {
                unseen.Add(window);
                continue;
            }
            var often = at.Count(s => s.Count > 0);
            if (often >= OftenShare * seen.Count)
                kept.Add((window, Fitted(window, at.SelectMany(s => s))));
        }
        var others = Clusters(seen.SelectMany(d => d.Starts.Where(s => !windows.Any(x => Near(Hour(s), x)))), seen.Count, usual);
        var perDay = seen.Select(d =>
                load.BankW
                * (d.Starts.Where(s => !unseen.Exists(x => Near(Hour(s), x))).Sum(s => HoursOn(s, usual)) + unseen.Sum(x => x.Hours))
            )
            .ToList();
        var against = AgainstPlan.Work(perDay, load.DayWh);
        if (!Matters(against))
            return;
        List<DayWindow> then = [.. kept.Select(k => k.Kept), .. unseen, .. others];
        then.Sort((a, b) => a.StartH.CompareTo(b.StartH));
        if (Overlap(then))
            return;
        var times = Middle.Of(seen.Select(d => (double)d.Starts.Count));
        var count = Say.Count((int)Math.Round(Math.Max(times, then.Count))).ToLowerInvariant();
        var same = then.Count == windows.Count && others.Count == 0;
        var hours = then.Sum(x => x.Hours);
        if (same && Math.Abs(hours - load.HoursOn) <= 0.1 * load.HoursOn)
            return;
        var title = same
            ? $"{load.Name}: {Say.Hours(hours)} a day, not {Say.Hours(load.HoursOn)}."
            : $"{load.Name}: {count} {(then.Count == 1 ? "time" : "times")}, not {Say.Count(windows.Count).ToLowerInvariant()}.";
        Add(
            LessonKind.Times,
            title,
            $"{Say.Wh(against.MedianWh)} a day at the bank, planned {Say.Wh(load.DayWh)}."
                + (
                    others.Count > 0
                        ? $" Now also at {string.Join(" and ", others.OrderBy(o => o.StartH).Select(o => Say.Clock(o.StartH)))}."
                        : ""
                )
                + (kept.Count + unseen.Count < windows.Count ? $" Not at {string.Join(" and ", Left(windows, kept, unseen))}." : ""),
            same
                ? $"{Lower(load.Name)} runs {Say.Hours(hours)} a day, not {Say.Hours(load.HoursOn)}"
                : $"{Lower(load.Name)} runs {count} times",
            against.MedianWh - load.DayWh,
            NotYet(against),
            then.Count == 0 ? "Take it out of the day"
                : others.Count == 1 && kept.Count + unseen.Count == windows.Count ? "Add this time"
                : others.Count == 2 && kept.Count + unseen.Count == windows.Count ? "Add both times"
                : "Set these times",
            b =>
                then.Count == 0
                    ? b.WithLoad(load.Index, b.Demand.Loads[load.Index] with { Quantity = 0 })
                    : b.WithLoad(
                        load.Index,
                        b.Demand.Loads[load.Index] with
                        {
                            Windows = [.. then.Select(x => (double[])[x.StartH, x.EndH])],
                            Hours = null,
                        }
                    )
        );
    }

    private static IEnumerable<string> Left(
        IReadOnlyList<DayWindow> windows,
        List<(DayWindow Planned, DayWindow Kept)> kept,
        List<DayWindow> unseen
    ) => windows.Where(x => !unseen.Contains(x) && !kept.Exists(k => k.Planned == x)).Select(x => Say.Clock(x.StartH));

    private static double Hour(LogStart s) => s.From % 86_400 / 3600.0;

    private static bool Near(double hour, DayWindow window) =>
        window.Holds(hour) || Math.Abs((hour - window.StartH + 36) % 24 - 12) <= NearH;

    /// <summary>Nothing was read there, or the bank was full under charge.</summary>
    private static bool Hidden(LoggedDay day, DayWindow window)
    {
        var n = Math.Min(LogSlot.PerDay - 1, (int)(window.StartH * 4));
        return day.NetW[n] is null || day.Soc[n] >= 0.985 && day.SourceW[n] > 0;
    }

    /// <summary>A window as long as it runs there, in minutes, where that differs by more than a quarter and two minutes.</summary>
    private static DayWindow Fitted(DayWindow window, IEnumerable<LogStart> starts)
    {
        var ended = starts.Where(s => s.To is not null).Select(s => HoursOn(s, window.Hours)).ToList();
        var hours = Middle.Of(ended);
        if (ended.Count < LeastEnds || Math.Abs(hours - window.Hours) <= 0.25 * window.Hours + 2.0 / 60)
            return window;
        return new(window.StartH, (window.StartH + Math.Max(1.0 / 60, Math.Round(hours * 60) / 60)) % 24);
    }

    /// <summary>Hours at which it starts on most of the days, beside those that are planned.</summary>
    private List<DayWindow> Clusters(IEnumerable<LogStart> starts, int count, double usualH)
    {
        var list = new List<DayWindow>();
        var left = starts.OrderBy(Hour).ToList();
        while (left.Count > 0)
        {
            var best = left.MaxBy(s => left.Count(x => Math.Abs(Hour(x) - Hour(s)) <= NearH))!;
            var near = left.Where(x => Math.Abs(Hour(x) - Hour(best)) <= NearH).ToList();
            left.RemoveAll(near.Contains);
            if (near.Select(x => LogDays.DayOf(x.From)).Distinct().Count() < Math.Max(2, OftenShare * count))
                continue;
            var start = Math.Round(Middle.Of(near.Select(Hour)) * 12) / 12;
            var hours = Math.Max(1.0 / 60, Math.Round(Middle.Of(near.Select(x => HoursOn(x, usualH))) * 60) / 60);
            if (start + hours <= 24)
                list.Add(new(start, start + hours));
        }
        return list;
    }

    private static bool Overlap(List<DayWindow> sorted)
    {
        for (var i = 1; i < sorted.Count; i++)
            if (sorted[i].StartH < sorted[i - 1].EndH - Tolerant.Noise && sorted[i - 1].EndH > sorted[i - 1].StartH)
                return true;
        return false;
    }

    /// <summary>What is always drawn, by the lowest tenth of what is drawn while nothing else runs and nothing charges.</summary>
    private void Idle()
    {
        var own = Days.Select(d => d.Day).ToHashSet();
        var sorted = Starts.RestW.Where(r => own.Contains(r.Day)).Select(r => r.Watts).Order().ToList();
        if (sorted.Count < 60)
            return;
        var (planned, measured) = (Plan.StandingW(Days[^1].Day), sorted[sorted.Count / 10]);
        var more = measured - planned;
        // Something gave then, and what is drawn cannot be told.
        if (measured < 0)
            return;
        if (Math.Abs(more) < Math.Max(LeastIdleW, 0.15 * planned))
            return;
        var inverter = Plan.Work.Document.Inverters.Count == 1 ? Plan.Work.Document.Inverters[0] : null;
        var left = inverter?.Item is { } item && inverter.OnH >= 24 ? Math.Round(item.IdleW + more / inverter.Stack, 1) : -1;
        string? label = null;
        Func<Bank, Bank> change = b => b;
        if (left >= 0)
        {
            label = $"Set its idle draw to {Say.W(left)}";
            change = b => b.WithInverter(0, x => x with { Item = x.Item! with { IdleW = left } });
        }
        else if (more > 0)
        {
            label = $"Add {Say.W(more)} all day";
            change = b => b with { Demand = b.Demand with { Loads = [.. b.Demand.Loads, Standing(b, Math.Round(more, 1))] } };
        }
        Add(
            LessonKind.Idle,
            $"Always on: {Say.W(measured)}, not {Say.W(planned)}.",
            $"So much is drawn while nothing runs: {Say.Wh(measured * 24)} a day, planned {Say.Wh(planned * 24)}.",
            $"{Say.W(measured)} are always drawn, not {Say.W(planned)}",
            more * 24,
            Days.Count < 3 ? "Not yet sure: three whole days are needed." : null,
            label,
            change
        );
    }

    private static Load Standing(Bank bank, double watts) =>
        new()
        {
            Id = NewId(bank),
            Name = "Standing draw",
            Kind = LoadKind.Dc,
            Watts = watts,
            Hours = 24,
        };

    private static string NewId(Bank bank)
    {
        for (var n = 1; ; n++)
            if (!bank.Demand.Loads.Any(l => l.Id == $"standing{n}"))
                return $"standing{n}";
    }
}

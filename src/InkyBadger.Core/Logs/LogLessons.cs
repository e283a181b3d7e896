using System.Globalization;
using InkyBadger.Core.Demand;
using InkyBadger.Core.Design;
using InkyBadger.Core.Work;
using InkyBadger.Core.Words;

namespace InkyBadger.Core.Logs;

/// <summary>
/// What the whole days of a stretch teach about the plan, the strongest first (method, 13.2). A lesson is pressed only when the days agree
/// that it is one; else it says what it waits for.
/// </summary>
public sealed class LogLessons
{
    /// <summary>An hour at which something starts on so many of the days is a habit.</summary>
    private const double OftenShare = 0.5,
        NearH = 1.0 / 3,
        LeastShareWh = 0.02,
        LeastIdleW = 6,
        LeastSeenH = 12,
        OpenShare = 0.8,
        PluggedShare = 0.2;

    private const int LeastEnds = 3;

    private readonly LogPlan plan;
    private readonly DesignDocument design;
    private readonly int bankIndex;
    private readonly List<LoggedDay> days;
    private readonly LogStarts starts;
    private readonly HashSet<DateOnly> own;
    private readonly List<LogLesson> lessons = [];

    private LogLessons(LogPlan plan, IReadOnlyList<LoggedDay> days, LogStarts starts)
    {
        (this.plan, this.starts) = (plan, starts);
        (design, bankIndex) = (plan.Work.Scene.Design, plan.Work.Scene.Index);
        this.days = [.. days.Where(d => d.Whole && !d.Empty)];
        own = [.. this.days.Select(d => d.Day)];
    }

    /// <param name="days">Of the stretch; those that are not whole teach nothing.</param>
    public static IReadOnlyList<LogLesson> Work(LogPlan plan, IReadOnlyList<LoggedDay> days, LogStarts starts)
    {
        var work = new LogLessons(plan, days, starts);
        if (work.days.Count == 0)
            return [];
        foreach (var load in plan.Loads(work.days[^1].Day))
            if (load.Cycles)
                work.Duty(load);
            else if (load.Windows is { } windows)
                work.Times(load, windows);
        work.Idle();
        work.Sun();
        work.Chargers();
        return [.. work.lessons.OrderBy(l => l.NotYet is not null).ThenByDescending(l => Math.Abs(l.WhADay))];
    }

    private double SeenH(LoggedDay day) => starts.SeenH.GetValueOrDefault(day.Day);

    private IEnumerable<LogStart> Of(PlannedLoad load, DateOnly day) =>
        starts.Starts.Where(s => s.Load?.Id == load.Id && LogDays.DayOf(s.From) == day);

    private static double HoursOn(LogStart s, double usual) => s.To is { } to ? (to - s.From) / 3600.0 : usual;

    /// <summary>A load that goes on and off by itself: the share of the time in which it could be seen.</summary>
    private void Duty(PlannedLoad load)
    {
        var shares = new List<double>();
        foreach (var day in days)
        {
            if (SeenH(day) < LeastSeenH)
                continue;
            shares.Add(starts.OnH.GetValueOrDefault((load.Id, day.Day)) / SeenH(day));
        }
        if (shares.Count == 0)
            return;
        var against = AgainstPlan.Work([.. shares.Select(s => s * 24 * load.BankW)], load.DayWh);
        if (!Matters(against))
            return;
        var document = plan.Work.Document.Demand.Loads[load.Index];
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

    /// <summary>Shares of the states with so much more on the mean: from the least draw to the greatest; null: there is no room for it.</summary>
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
        var seen = days.Select(d => (Day: d, Starts: Of(load, d.Day).ToList())).Where(d => SeenH(d.Day) >= LeastSeenH).ToList();
        if (seen.Count == 0)
            return;
        var kept = new List<(DayWindow Window, double MeanH)>();
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
                kept.Add((Fitted(window, at.SelectMany(s => s)), at.Where(s => s.Count > 0).Average(s => s.Sum(x => HoursOn(x, window.Hours)))));
        }
        var others = Clusters(seen.SelectMany(d => d.Starts.Where(s => !windows.Any(x => Near(Hour(s), x)))), seen.Count, usual);
        var perDay = seen.Select(d =>
                load.BankW * (d.Starts.Where(s => !unseen.Exists(x => Near(Hour(s), x))).Sum(s => HoursOn(s, usual)) + unseen.Sum(x => x.Hours))
            )
            .ToList();
        var against = AgainstPlan.Work(perDay, load.DayWh);
        if (!Matters(against))
            return;
        List<DayWindow> then = [.. kept.Select(k => k.Window), .. unseen, .. others];
        then.Sort((a, b) => a.StartH.CompareTo(b.StartH));
        if (Overlap(then))
            return;
        var times = Median(seen.Select(d => (double)d.Starts.Count));
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
                + (others.Count > 0 ? $" Now also at {string.Join(" and ", others.OrderBy(o => o.StartH).Select(o => Say.Clock(o.StartH)))}." : "")
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
        List<(DayWindow Window, double MeanH)> kept,
        List<DayWindow> unseen
    ) =>
        windows
            .Where(x => !unseen.Contains(x) && !kept.Exists(k => Math.Abs(k.Window.StartH - x.StartH) < 0.01))
            .Select(x => Say.Clock(x.StartH));

    private static double Hour(LogStart s) => s.From % 86_400 / 3600.0;

    private static bool Near(double hour, DayWindow window) =>
        window.Holds(hour) || Math.Abs((hour - window.StartH + 36) % 24 - 12) <= NearH;

    /// <summary>Nothing was read there, or the bank was full under charge.</summary>
    private static bool Hidden(LoggedDay day, DayWindow window)
    {
        var n = Math.Min(LogSlot.PerDay - 1, (int)(window.StartH * 4));
        return day.NetW[n] is null || day.Soc[n] >= 0.985 && day.SourceW[n] > 0;
    }

    /// <summary>A window as long as it runs there, in minutes, where that differs by more than a tenth.</summary>
    private static DayWindow Fitted(DayWindow window, IEnumerable<LogStart> starts)
    {
        var ended = starts.Where(s => s.To is not null).Select(s => HoursOn(s, window.Hours)).ToList();
        var hours = Median(ended);
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
            var start = Math.Round(Median(near.Select(Hour)) * 12) / 12;
            var hours = Math.Max(1.0 / 60, Math.Round(Median(near.Select(x => HoursOn(x, usualH))) * 60) / 60);
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
        var sorted = starts.RestW.Where(r => own.Contains(r.Day)).Select(r => r.Watts).Order().ToList();
        if (sorted.Count < 60)
            return;
        var (planned, measured) = (plan.StandingW(days[^1].Day), sorted[sorted.Count / 10]);
        var more = measured - planned;
        if (Math.Abs(more) < Math.Max(LeastIdleW, 0.15 * planned))
            return;
        var inverter = plan.Work.Document.Inverters.Count == 1 ? plan.Work.Document.Inverters[0] : null;
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
            days.Count < 3 ? "Not yet sure: three whole days are needed." : null,
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

    /// <summary>What the sun gave on days on which the bank could take it.</summary>
    private void Sun()
    {
        var arrays = plan.Sources.Index().Where(s => s.Item.Kind == SourceKind.Solar && s.Item.Array is not null).ToList();
        if (arrays.Count == 0 || !(plan.SunWh(days[^1].Day) > 0))
            return;
        var open = days.Where(d => !d.Soc.Any(s => s >= 0.97)).ToList();
        // Days on which the bank was full are the bright ones: without most of them the rest says nothing.
        if (open.Count == 0 || open.Count < OpenShare * days.Count)
            return;
        var expected = open.Average(d => SunAlone(d));
        if (!(expected > 0))
            return;
        var against = AgainstPlan.Work([.. open.Select(d => d.SunWh)], expected);
        if (against.Ratio >= 0.85)
            return;
        var one = arrays.Count == 1 && arrays[0].Index < plan.Work.Document.Sources.Count ? arrays[0] : default;
        var shade = one.Item?.Array is { } array ? Math.Round(1 - (1 - array.Shade) * against.Ratio, 2) : 0;
        Add(
            LessonKind.Source,
            $"Sun: {Say.Wh(against.MedianWh)} a day, not {Say.Wh(expected)}.",
            "Less than its usual day, on days on which the bank could take it: shade, a tilt that is not the one planned, dirt, a controller "
                + "that clips, or a week of dull sky. Sun by night is not in it, nor what the loads took meanwhile and the plan does not know.",
            null,
            against.MedianWh - expected,
            open.Count < 10 ? $"Not yet sure: {open.Count} such days, and the sky differs; ten are needed." : NotYet(against),
            one.Item is null ? null : $"Set its shade to {Say.Percent(shade, 0)}",
            b => one.Item is null ? b : b.WithSource(one.Index, s => s with { Array = s.Array! with { Shade = shade } })
        );
    }

    /// <summary>What the mean day’s sun brings while nothing else charges [Wh].</summary>
    private double SunAlone(LoggedDay day)
    {
        var (sun, others) = plan.MayCharge(day.Day);
        var all = sun.Count(x => x);
        return all == 0 ? 0 : plan.SunWh(day.Day) * sun.Zip(others).Count(x => x.First && !x.Second) / all;
    }

    /// <summary>A charger that gives less than its plate, while the bank takes all.</summary>
    private void Chargers()
    {
        foreach (var (i, source) in plan.Work.Document.Sources.Index())
        {
            if (source.Kind is not (SourceKind.Mains or SourceKind.Generator or SourceKind.DcDc) || plan.GivesA(source) is not > 0 || source.Windows is not { Count: > 0 })
                continue;
            var gives = plan.GivesA(source)!.Value;
            var read = new List<double>();
            foreach (var day in days)
            {
                if (source.Weekdays is { } weekdays && !weekdays.Contains(((int)day.Day.DayOfWeek + 6) % 7))
                    continue;
                for (var n = 0; n < LogSlot.PerDay; n++)
                    if (source.Windows.Any(x => new DayWindow(x[0], x[1]).HoursWithin(n / 4.0, (n + 1) / 4.0) > 0.249) && Alone(source, day.Day, n))
                        if (day.SourceW[n] > PluggedShare * gives * plan.NominalV && day.Soc[n] < 0.9)
                            read.Add(day.SourceW[n] / plan.NominalV);
            }
            if (read.Count < 6)
                continue;
            var amps = Median(read);
            if (amps >= 0.85 * gives)
                continue;
            var rounded = Math.Round(amps, 1);
            Add(
                LessonKind.Source,
                $"{source.Name}: {Say.A(amps)}, not {Say.A(gives)}.",
                "While the bank could take more: a limit that is set lower, a cable that drops its volts, or a source that cannot give it.",
                null,
                0,
                read.Count < 12 ? "Not yet sure: it was seen for less than three hours." : null,
                $"Set it to {Say.A(rounded)}",
                b => b.WithSource(i, s => s with { Amps = rounded })
            );
        }
    }

    private bool Alone(Source source, DateOnly day, int n)
    {
        var (sun, _) = plan.MayCharge(day);
        return !sun[n]
            && !plan.Work.Document.Sources.Any(s =>
                s.Id != source.Id && (s.Windows ?? []).Any(x => new DayWindow(x[0], x[1]).HoursWithin(n / 4.0, (n + 1) / 4.0) > 0)
            );
    }

    /// <summary>Beyond the tenth that days differ by themselves, or not told by these days and looking as if it were.</summary>
    private bool Matters(AgainstPlanResult against) =>
        against.Verdict is PlanVerdict.More or PlanVerdict.Less
            ? Math.Abs(against.MedianWh - against.MedianWh / against.Ratio) >= LeastShareWh * plan.DayWh(days[^1].Day)
            : against.Verdict == PlanVerdict.NotYet
                && against.Ratio is < 0.8 or > 1.25
                && Math.Abs(against.MedianWh - against.MedianWh / Math.Max(0.01, against.Ratio)) >= LeastShareWh * plan.DayWh(days[^1].Day);

    private static string? NotYet(AgainstPlanResult against) =>
        against.Verdict != PlanVerdict.NotYet ? null
        : against.Days < 3
            ? $"Not yet sure: {(against.Days == 1 ? "one day was" : $"{Say.Count(against.Days).ToLowerInvariant()} days were")} read, three are needed."
        : "Not yet sure: the days differ too much.";

    private void Add(
        LessonKind kind,
        string title,
        string words,
        string? shortly,
        double whADay,
        string? notYet,
        string? label,
        Func<Bank, Bank> change
    )
    {
        var then = design with { Banks = [.. design.Banks.Select((b, i) => i == bankIndex ? change(b) : b)] };
        var changes = label is null || notYet is not null ? [] : DesignDifference.Between(design, then);
        string? outcome = null;
        if (changes.Count > 0)
        {
            try
            {
                var day = new LogPlan(new SiteWork(then)[bankIndex]).DayWh(days[^1].Day);
                outcome = kind == LessonKind.Source ? null : $"{Say.Wh(day)} a day";
            }
            catch (Missing)
            {
                changes = [];
            }
        }
        lessons.Add(new(kind, title, words, shortly, whADay, notYet, changes.Count > 0 ? label : null, outcome, changes));
    }

    private static string Lower(string name) => name.Length > 1 && char.IsUpper(name[1]) ? name : $"the {name.ToLower(CultureInfo.InvariantCulture)}";

    private static double Median(IEnumerable<double> values)
    {
        var sorted = values.Order().ToList();
        return sorted.Count == 0 ? 0
            : sorted.Count % 2 == 1 ? sorted[sorted.Count / 2]
            : (sorted[sorted.Count / 2 - 1] + sorted[sorted.Count / 2]) / 2;
    }
}

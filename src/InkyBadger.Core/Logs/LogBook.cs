using InkyBadger.Core.Design;
using InkyBadger.Core.Work;

namespace InkyBadger.Core.Logs;

/// <summary>
/// What is kept of a bank: all its quarters of an hour, the minutes of the days that are looked at, and of its first days.
/// </summary>
public sealed record LogRead(
    IReadOnlyList<LogSlot> Slots,
    IReadOnlyList<LogReading> Minutes,
    IReadOnlyList<LogReading> First,
    IReadOnlyList<LogEntry> Entries
);

/// <summary>Days that are looked at.</summary>
public readonly record struct LogFrame(DateOnly From, int Days)
{
    /// <summary>Beyond so many days loads are not told from each other.</summary>
    public const int MostClose = 31;

    public const int Most = 366;

    public const int Usual = 7;

    /// <summary>So many of the first days show how the bank was.</summary>
    public const int FirstDays = 3;

    public long FromAt => LogDays.At(From);
    public long EndAt => LogDays.At(From.AddDays(Days));
    public bool IsClose => Days <= MostClose;

    /// <summary>What was asked for within what there is; without it the last week.</summary>
    /// <param name="firstAt">Of all readings [s since 1970]; null: there is none.</param>
    public static LogFrame Of(long? firstAt, long? lastAt, DateOnly? from, int? days, DateOnly today)
    {
        var count = Math.Clamp(days ?? Usual, 1, Most);
        if (firstAt is not { } first || lastAt is not { } last)
            return new(from ?? today.AddDays(1 - count), count);
        // A reading of midnight ends its day.
        var (begin, end) = (LogDays.DayOf(first), LogDays.DayOf(Math.Max(first, last - 1)));
        var latest = end.AddDays(1 - count);
        var at = from ?? latest;
        return new(
            at > end ? end
                : at < begin ? begin
                : at,
            count
        );
    }
}

/// <summary>A day in the frame [h, Wh; 0 to 1].</summary>
public sealed record LogDayLine(string Day, double Hours, bool Whole, double UsedWh, double PlannedWh, double SourceWh, double? LowestSoc);

/// <summary>Something that went on: when, as YYYY-MM-DDTHH:MM, for how long [h; null: its end was not seen], and what it drew.</summary>
/// <param name="Name">Null: nothing of the plan fits it.</param>
public sealed record LogStartLine(string At, double? Hours, string? Name, double Amps, double Watts, bool Known);

/// <summary>
/// Lines of the frame, a value for each step [s]: charge as it was and as the plan would have had it [0 to 1], net amperes (out positive),
/// the most out and in [A], and what sources gave beside the loads [A]: the sun, or others while one may. Null: nothing was read.
/// </summary>
public sealed record LogLines(
    int StepS,
    IReadOnlyList<double?> Soc,
    IReadOnlyList<double?> PlanSoc,
    IReadOnlyList<double?> NetA,
    IReadOnlyList<double?> MostOutA,
    IReadOnlyList<double?> MostInA,
    IReadOnlyList<double?> SunA,
    IReadOnlyList<double?> OtherA
);

/// <summary>The lowest charge of a day [0 to 1].</summary>
public sealed record LogMorning(string Day, double LowestSoc);

/// <summary>A reading that was typed: its moment as YYYY-MM-DDTHH:MM, charge [0 to 1], volts [V].</summary>
public sealed record LogTyped(string At, double? Soc, double? Volts);

/// <summary>The days that are looked at.</summary>
/// <param name="From">As YYYY-MM-DD.</param>
/// <param name="Lowest">Of all [0 to 1], with its moment; null: no charge is known.</param>
public sealed record LogFrameView(
    string From,
    int Days,
    IReadOnlyList<LogDayLine> Lines,
    LogLines Drawn,
    IReadOnlyList<LogStartLine> Starts,
    IReadOnlyList<LogTyped> Typed,
    double? Lowest,
    string? LowestAt
);

/// <summary>How long it lasts, as it is used and as it was planned [d; null: for good], and what the coming days bring.</summary>
public sealed record LogHand(double Soc, double? Days, double? PlannedDays, string Coming);

/// <summary>A capacity test of the bank, its line to 80 %, and the year it comes there.</summary>
public sealed record LogHealth(IReadOnlyList<UnitTest> Tests, double? SlopePerYear, double? EndsYear, bool Doubtful, string Words);

/// <summary>A task of upkeep with its day as YYYY-MM-DD, and when it was done last.</summary>
public sealed record LogUpkeep(string Task, string Label, string Due, int OverdueDays, string? Done, string? By);

/// <summary>A task of the table that can be written down.</summary>
public sealed record LogTask(string Task, string Label);

/// <summary>The log of a bank against its plan.</summary>
/// <param name="Wait">Why nothing can be held against a plan yet; null: it can.</param>
/// <param name="Told">The charge was told by a monitor or by hand; else it was counted.</param>
/// <param name="ReadUntil">Moment of the last reading as YYYY-MM-DDTHH:MM; null: none.</param>
public sealed record LogView(
    string Headline,
    string? Wait,
    double FloorSoc,
    double LowSoc,
    bool Told,
    string? ReadUntil,
    LogFrameView Frame,
    IReadOnlyList<LogMorning> Mornings,
    AgainstPlanResult? Against,
    IReadOnlyList<LogLesson> Lessons,
    LogHand? Hand,
    LogHealth? Health,
    IReadOnlyList<LedgerUnit> Units,
    IReadOnlyList<LogUpkeep> Upkeep,
    IReadOnlyList<LogTask> Tasks,
    string? Fitted,
    IReadOnlyList<Working.Equation> Working
);

/// <summary>A bank’s log read: what was, against what was planned, and what it teaches (method, step 12).</summary>
public static class LogBook
{
    /// <summary>So much over the floor a morning is low.</summary>
    private const double LowOver = 0.2;

    private const int MostSteps = 1344;

    /// <param name="today">The day it is read.</param>
    public static LogView Of(DesignDocument design, int bankIndex, LogRead read, LogFrame frame, DateOnly today)
    {
        var w = new SiteWork(design)[bankIndex];
        LogPlan plan;
        try
        {
            plan = new(w);
        }
        catch (Missing missing)
        {
            return Waiting(w, read, frame, today, missing.Gap.Sentence);
        }
        catch (Refusal refusal)
        {
            return Waiting(w, read, frame, today, $"{refusal.Field}: {refusal.Message}");
        }
        var told = read.Entries.Where(e => e is { Kind: LogEntryKind.Reading, Soc: not null, Seconds: not null });
        var (soc, isTold) = LogCharge.Work(
            read.Slots,
            plan.Ah,
            plan.ChargeEfficiency,
            [.. told.Select(e => (e.Seconds!.Value, e.Soc!.Value))]
        );
        var starts = frame.IsClose && read.Minutes.Count > 0 ? StartFinder.Work(plan, read.Minutes) : null;
        var (slots, charge) = Within(read.Slots, soc, frame);
        IReadOnlyList<LoggedDay> days =
        [
            .. LogDays.Work(plan, slots, charge, starts).Where(d => d.Day >= frame.From && d.Day < frame.From.AddDays(frame.Days)),
        ];
        var whole = days.Where(d => d.Whole && !d.Empty).ToList();
        // A season in which nothing is planned is no plan to hold anything against.
        var against =
            whole.Count > 0 && whole.Average(d => d.PlannedWh) > 0
                ? AgainstPlan.Work([.. whole.Select(d => Math.Max(0, d.UsedWh))], whole.Average(d => d.PlannedWh))
                : null;
        var units = UnitLedger.Work(w, read.Entries, today);
        var upkeep = LogUpkeeping.Of(w, read, today);
        var lessons = new List<LogLesson>(LogLessons.Work(plan, days, starts ?? LogStarts.None));
        lessons.AddRange(BankLessons.Of(plan, read, soc, units));
        lessons = [.. LogLessons.InOrder(lessons)];
        var hand = LogWords.Hand(plan, soc, against, whole, read.Entries);
        return new(
            LogWords.Headline(plan, against, lessons, units, upkeep.Due, read.Slots.Count, whole.Count, hand),
            null,
            plan.FloorSoc,
            Math.Min(1, plan.FloorSoc + LowOver),
            isTold || read.Slots.Count == 0,
            read.Slots.Count > 0 ? LogWords.Moment(LastAt(read)) : null,
            View(plan, frame, days, starts, Typed(read.Entries, frame)),
            Mornings(read.Slots, soc, read.Entries),
            against,
            lessons,
            hand,
            LogUpkeeping.Health(plan, read.Entries, today),
            units,
            upkeep.Due,
            [
                .. Upkeep
                    .All.DistinctBy(t => t.Task)
                    .Where(t => t.Chemistries.Contains(plan.Chemistry.Id))
                    .Select(t => new LogTask(t.Task, t.Label)),
            ],
            upkeep.Fitted is { } fitted ? $"{fitted:yyyy-MM-dd}" : null,
            LogWords.Working(plan, against, whole, lessons)
        );
    }

    private static LogView Waiting(BankWork w, LogRead read, LogFrame frame, DateOnly today, string why)
    {
        var soc = read.Slots.Select(s => s.LastSoc).ToList();
        return new(
            char.ToUpperInvariant(why[0]) + why[1..],
            why,
            0,
            LowOver,
            true,
            read.Slots.Count > 0 ? LogWords.Moment(LastAt(read)) : null,
            new($"{frame.From:yyyy-MM-dd}", frame.Days, [], new(LogSlot.Seconds, [], [], [], [], [], [], []), [], [], null, null),
            Mornings(read.Slots, soc, read.Entries),
            null,
            [],
            null,
            null,
            UnitLedger.Work(w, read.Entries, today),
            [],
            [],
            null,
            []
        );
    }

    private static long LastAt(LogRead read) =>
        read.Minutes.Count > 0 ? Math.Max(read.Minutes[^1].At, read.Slots[^1].At) : read.Slots[^1].At;

    /// <summary>The frame’s quarters, and the one before them.</summary>
    private static (List<LogSlot>, List<double?>) Within(IReadOnlyList<LogSlot> slots, IReadOnlyList<double?> soc, LogFrame frame)
    {
        var (some, charge) = (new List<LogSlot>(), new List<double?>());
        for (var i = 0; i < slots.Count; i++)
            if (slots[i].At >= frame.FromAt - LogSlot.Seconds && slots[i].At < frame.EndAt)
            {
                some.Add(slots[i]);
                charge.Add(soc[i]);
            }
        return (some, charge);
    }

    private static List<LogTyped> Typed(IReadOnlyList<LogEntry> entries, LogFrame frame) =>
        [
            .. entries
                .Where(e => e.Kind == LogEntryKind.Reading && e.Seconds >= frame.FromAt && e.Seconds < frame.EndAt)
                .OrderBy(e => e.Seconds)
                .Select(e => new LogTyped(LogWords.Moment(e.Seconds!.Value), e.Soc, e.Volts)),
        ];

    /// <summary>By readings; on days without any by the lowest charge that was typed.</summary>
    private static List<LogMorning> Mornings(IReadOnlyList<LogSlot> slots, IReadOnlyList<double?> soc, IReadOnlyList<LogEntry> entries)
    {
        var read = Mornings(slots, soc);
        var known = read.Select(m => m.Day).ToHashSet();
        read.AddRange(
            entries
                .Where(e => e is { Kind: LogEntryKind.Reading, Soc: not null, Day: not null })
                .GroupBy(e => $"{e.Day:yyyy-MM-dd}")
                .Where(g => !known.Contains(g.Key))
                .Select(g => new LogMorning(g.Key, g.Min(e => e.Soc!.Value)))
        );
        return [.. read.OrderBy(m => m.Day, StringComparer.Ordinal)];
    }

    private static List<LogMorning> Mornings(IReadOnlyList<LogSlot> slots, IReadOnlyList<double?> soc)
    {
        var list = new List<LogMorning>();
        for (var i = 0; i < slots.Count; )
        {
            var end = LogDays.At(LogDays.DayOf(slots[i].At).AddDays(1));
            double? lowest = null;
            var hours = 0.0;
            var first = i;
            for (; i < slots.Count && slots[i].At < end; i++)
            {
                hours += slots[i].Hours;
                if ((slots[i].LowestSoc ?? soc[i]) is { } low)
                    lowest = Math.Min(lowest ?? low, low);
            }
            // The reading of a last midnight is no day.
            if (lowest is { } least && (list.Count == 0 || hours > 0.01 || i - first > 1))
                list.Add(new($"{LogDays.DayOf(slots[first].At):yyyy-MM-dd}", least));
        }
        return list;
    }

    private static LogFrameView View(
        LogPlan plan,
        LogFrame frame,
        IReadOnlyList<LoggedDay> days,
        LogStarts? starts,
        IReadOnlyList<LogTyped> typed
    )
    {
        var steps = Math.Max(1, (int)Math.Ceiling(frame.Days * LogSlot.PerDay / (double)MostSteps));
        var count = (frame.Days * LogSlot.PerDay + steps - 1) / steps;
        var of = days.ToDictionary(d => d.Day);
        var others = days.ToDictionary(d => d.Day, d => plan.MayCharge(d.Day).Others);
        var (soc, planned) = (new double?[count], new double?[count]);
        var (net, mostOut, mostIn) = (new double?[count], new double?[count], new double?[count]);
        var (sunA, otherA) = (new double?[count], new double?[count]);
        double? lowest = null;
        string? lowestAt = null;
        // As long as nothing was read the plan's days stand alone.
        if (days.Count == 0)
        {
            var alone = LogDays.PlanAlone(plan, frame.From, frame.Days);
            for (var i = 0; i < count; i++)
                planned[i] = alone[Math.Min(alone.Length - 1, (i + 1) * steps - 1)];
        }
        for (var i = 0; i < count; i++)
        {
            var (sum, bySun, byOthers, n) = (0.0, 0.0, 0.0, 0);
            for (var q = i * steps; q < Math.Min((i + 1) * steps, frame.Days * LogSlot.PerDay); q++)
            {
                if (!of.TryGetValue(frame.From.AddDays(q / LogSlot.PerDay), out var day))
                    continue;
                var at = q % LogSlot.PerDay;
                soc[i] = day.Soc[at] ?? soc[i];
                planned[i] = day.PlanSoc[at] ?? planned[i];
                if (day.Soc[at] is { } now && !(now >= lowest))
                    (lowest, lowestAt) = (now, LogWords.Moment(frame.FromAt + (q + 1L) * LogSlot.Seconds));
                if (day.NetW[at] is not { } watts)
                    continue;
                n++;
                sum += watts;
                if (others[day.Day][at])
                    byOthers += day.SourceW[at];
                else
                    bySun += day.SourceW[at];
                mostOut[i] = Math.Max(mostOut[i] ?? 0, day.Most[at].Out);
                mostIn[i] = Math.Max(mostIn[i] ?? 0, day.Most[at].In);
            }
            if (n > 0)
                (net[i], sunA[i], otherA[i]) = (sum / n / plan.NominalV, bySun / n / plan.NominalV, byOthers / n / plan.NominalV);
        }
        return new(
            $"{frame.From:yyyy-MM-dd}",
            frame.Days,
            [.. days.Select(d => new LogDayLine($"{d.Day:yyyy-MM-dd}", d.Hours, d.Whole, d.UsedWh, d.PlannedWh, d.SourceWh, d.LowestSoc))],
            new(steps * LogSlot.Seconds, soc, planned, net, mostOut, mostIn, sunA, otherA),
            [
                .. (starts?.Starts ?? [])
                    .Where(s => s.Load?.Cycles != true)
                    .Select(s => new LogStartLine(
                        LogWords.Moment(s.From),
                        s.To is { } to ? (to - s.From) / 3600.0 : null,
                        s.Load?.Name,
                        s.Amps,
                        s.Watts,
                        s.Known
                    )),
            ],
            typed,
            lowest,
            lowestAt
        );
    }
}

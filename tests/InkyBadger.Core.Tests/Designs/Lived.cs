using InkyBadger.Core.Design;
using InkyBadger.Core.Logs;
using InkyBadger.Core.Work;

namespace InkyBadger.Core.Tests.Designs;

/// <summary>A bank that was lived with for some days, by a made-up monitor, and its log.</summary>
internal sealed class Lived
{
    public static readonly DateOnly Monday = new(2026, 11, 16);

    public DesignDocument Design { get; }
    public LogPlan Plan { get; }
    public List<LogReading> Readings { get; } = [];
    public List<LogSlot> Slots { get; } = [];
    public IReadOnlyList<LoggedDay> Days { get; }
    public IReadOnlyList<LogLesson> Lessons { get; }
    public IReadOnlyList<Habit> Habits { get; }

    /// <param name="habits">Null: those that the number plants.</param>
    /// <param name="change">What becomes of the readings on their way; null: nothing.</param>
    public Lived(
        DesignDocument design,
        int days,
        double seed,
        IReadOnlyList<Habit>? habits = null,
        Func<IEnumerable<LogReading>, IEnumerable<LogReading>>? change = null
    )
    {
        Design = design;
        var monitor = new MadeUpMonitor(design, 0, Monday, days, seed, habits);
        Habits = monitor.Habits;
        var all = new List<LogReading>();
        while (monitor.NextDay() is { } day)
            all.AddRange(day);
        Readings.AddRange(change?.Invoke(all) ?? all);
        Plan = new(new SiteWork(design)[0]);
        var maker = new SlotMaker(Plan.NominalV, Slots.Add);
        foreach (var r in Readings)
            maker.Add(r);
        maker.End();
        var starts = StartFinder.Work(Plan, Readings);
        Days = LogDays.Work(Plan, Slots, LogCharge.Work(Slots, Plan.Ah, Plan.ChargeEfficiency, []).Soc, starts);
        Lessons = LogLessons.Work(Plan, Days, starts);
    }

    /// <summary>The middle of its whole days [Wh].</summary>
    public double UsedWh
    {
        get
        {
            double[] used = [.. Days.Where(d => d.Whole && !d.Empty).Select(d => d.UsedWh).Order()];
            return used[used.Length / 2];
        }
    }

    /// <summary>What the plan’s day comes to with all that was taught put into it [Wh].</summary>
    public double CorrectedWh
    {
        get
        {
            var then = DesignFormat.With(Design, Lessons.Where(l => l.Kind != LessonKind.Source).SelectMany(l => l.Changes));
            return new LogPlan(new SiteWork(then)[0]).DayWh(Monday);
        }
    }

    /// <param name="after">Days after the first Monday on which it is looked at.</param>
    public LogView View(IReadOnlyList<LogEntry>? entries = null, int after = 10) =>
        LogBook.Of(
            Design,
            0,
            new(Slots, Readings, [], entries ?? []),
            LogFrame.Of(Readings[0].At, Readings[^1].At, null, 31, Monday.AddDays(after)),
            Monday.AddDays(after)
        );
}

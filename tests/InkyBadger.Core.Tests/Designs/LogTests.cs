using InkyBadger.Core.Demo;
using InkyBadger.Core.Design;
using InkyBadger.Core.Logs;
using InkyBadger.Core.Work;

namespace InkyBadger.Core.Tests.Designs;

/// <summary>Made-up monitors with planted habits, and what their readings teach.</summary>
public class LogTests
{
    private static readonly DateOnly Monday = new(2026, 11, 16);

    public sealed record Read(LogPlan Plan, List<LogReading> Readings, List<LogSlot> Slots, IReadOnlyList<LoggedDay> Days, IReadOnlyList<LogLesson> Lessons);

    internal static Read Of(DesignDocument design, int days, double seed, IReadOnlyList<Habit>? habits, Func<LogReading, bool>? keep = null)
    {
        var monitor = new MadeUpMonitor(design, 0, Monday, days, seed, habits);
        var readings = new List<LogReading>();
        while (monitor.NextDay() is { } day)
            readings.AddRange(day.Where(r => keep?.Invoke(r) ?? true));
        var plan = new LogPlan(new SiteWork(design)[0]);
        var slots = new List<LogSlot>();
        var maker = new SlotMaker(plan.NominalV, slots.Add);
        foreach (var r in readings)
            maker.Add(r);
        maker.End();
        var soc = LogCharge.Work(slots, plan.Ah, plan.ChargeEfficiency, []).Soc;
        var starts = StartFinder.Work(plan, readings);
        var logged = LogDays.Work(plan, slots, soc, starts);
        return new(plan, readings, slots, logged, LogLessons.Work(plan, logged, starts));
    }

    /// <summary>What the plan comes to with all that is sure put into it [Wh a day].</summary>
    private static double Corrected(DesignDocument design, Read read)
    {
        var then = DesignFormat.With(design, read.Lessons.Where(l => l.Kind != LessonKind.Source).SelectMany(l => l.Changes));
        return new LogPlan(new SiteWork(then)[0]).DayWh(Monday);
    }

    [Fact]
    public void Explore()
    {
        var o = TestContext.Current.TestOutputHelper!;
        foreach (var name in new[] { "Marrow", "Hare" })
        for (var seed = 1; seed <= 100; seed++)
        {
            var design = Some.Demo(name);
            var read = Of(design, 9, seed, null);
            var used = read.Days.Where(d => d.Whole && !d.Empty).Select(d => d.UsedWh).Order().ToList();
            var m = used[used.Count / 2];
            var c = Corrected(design, read);
            if (seed == 1)
            {
                var b = Of(design, 9, 1, []);
                foreach (var d in b.Days) o.WriteLine($"Tern base {d.UsedWh:0} {d.PlannedWh:0} {d.SourceWh:0} {d.LowestSoc:0.00} " + string.Join(" ", b.Lessons.Select(l => l.Title)));
                if (name == "Marrow") foreach (var st in StartFinder.Work(b.Plan, b.Readings).Starts.Where(x => x.Load?.Cycles != true)) o.WriteLine($"START {DateTime.UnixEpoch.AddSeconds(st.From):ddd HH:mm} {(st.To is { } t ? DateTime.UnixEpoch.AddSeconds(t).ToString("HH:mm") : "?")} {st.Load?.Name} {st.Watts:0} {st.Known}");
                foreach (var l in b.Plan.Loads(Monday)) o.WriteLine($"Tern {l.Name} {l.Kind} {l.BankW:0} W duty {l.Duty:0.00} wins {l.Windows?.Count} {l.HoursOn} h {l.DayWh:0} Wh");
                o.WriteLine($"Tern standing {b.Plan.StandingW(Monday)} min {b.Plan.Watts(Monday).Min()}");
            }
            o.WriteLine($"{(Math.Abs(c/m-1) > 0.05 ? "!!" : "  ")} {name} {seed}: used {m:0} plan {read.Plan.DayWh(Monday):0} corrected {c:0} {c/m:0.000}  {string.Join("; ", new MadeUpMonitor(design, 0, Monday, 6, seed).Habits.Select(h => $"{h.Kind} {h.Value} {h.Load}"))} -> {string.Join(" ", read.Lessons.Where(l => l.Kind != LessonKind.Source).Select(l => l.Title + l.NotYet))}");
        }
        Assert.Fail("x");
    }
}

using InkyBadger.Core.Demand;
using InkyBadger.Core.Design;
using InkyBadger.Core.Numbers;
using InkyBadger.Core.Rehearsal;
using InkyBadger.Core.Work;

namespace InkyBadger.Core.Logs;

/// <summary>How a made-up bank lives otherwise than planned.</summary>
public enum HabitKind
{
    /// <summary>A load that cycles runs for another share of the time [0 to 1].</summary>
    Duty,

    /// <summary>A load begins once more a day, at an hour of it [h].</summary>
    Also,

    /// <summary>A load does not begin at one of its hours (from 0).</summary>
    Not,

    /// <summary>More is always drawn [W].</summary>
    Idle,

    /// <summary>So much of what the arrays should give comes [0 to 1].</summary>
    Sun,

    /// <summary>The monitor's shunt shows so much where nothing flows [A].</summary>
    Zero,

    /// <summary>A joint in the bank's leads has so much more from the middle of the time on [mΩ].</summary>
    Joint,
}

/// <summary>A habit or a fault; which load, by its id, where it is about one.</summary>
public sealed record Habit(HabitKind Kind, double Value, string? Load = null);

/// <summary>
/// A bank that lives by the rules of the rehearsal, minute by minute, with habits of its own, and a monitor that reads it. The same number
/// gives the same readings.
/// </summary>
public sealed class MadeUpMonitor
{
    /// <summary>A compressor comes on about so often [min].</summary>
    private const int CycleMin = 48;

    private const int Minutes = 1440;

    private readonly BankWork w;
    private readonly LogPlan plan;
    private readonly IReadOnlyList<Habit> habits;
    private readonly ulong seed;
    private readonly Rehearsal.Rehearsal run;
    private readonly Reader reader;
    private readonly DateOnly first;
    private readonly double joint;
    private readonly int days;

    /// <param name="design">Its bank must be one that can be rehearsed.</param>
    /// <param name="first">The first day.</param>
    /// <param name="days">[1 to 365].</param>
    /// <param name="seed">[0 to 2⁵³].</param>
    /// <param name="habits">Null: those that the number plants.</param>
    /// <param name="socStart">[0 to 1].</param>
    /// <exception cref="Missing">The bank cannot be rehearsed yet.</exception>
    /// <exception cref="Refusal">Names the offending input.</exception>
    public MadeUpMonitor(
        DesignDocument design,
        int bankIndex,
        DateOnly first,
        int days,
        double seed,
        IReadOnlyList<Habit>? habits = null,
        double socStart = 1
    )
    {
        Require.Within(days, 1, RehearsalSetup.Days);
        Require.Within(seed, 0, 1L << 53);
        (this.first, this.days, this.seed) = (first, days, (ulong)seed);
        w = new SiteWork(design with { Rehearsal = design.Rehearsal with { From = $"{first:yyyy-MM-dd}" } })[bankIndex];
        var setup = YearRun.SetupOf(w, seed % 1000, (0, days));
        plan = new(w);
        this.habits = habits ?? Planted(plan, first, this.seed);
        joint = Sum(HabitKind.Joint) / 1000;
        var kinds = new RehearsalDay[days];
        for (var d = 0; d < days; d++)
            kinds[d] = Asked(d, setup);
        run = new(
            setup.Plan with
            {
                Days = days,
                Kinds = kinds,
                KindOf = [.. Enumerable.Range(0, days)],
                CellC = setup.Plan.CellC?.Take(days).ToList(),
                Strings = [.. setup.Plan.Strings.Select(s => s with { SocStart = socStart })],
                Sources = [.. setup.Plan.Sources.Select((s, i) => Smooth(s, plan.Sources.FirstOrDefault(x => x.Id == setup.SourceIds[i])))],
            }
        );
        reader = new(new(this.seed ^ 0x5EED));
    }

    public IReadOnlyList<Habit> Habits => habits;

    private double Sum(HabitKind kind) => habits.Where(h => h.Kind == kind).Sum(h => h.Value);

    /// <summary>The readings of the next day, one a minute; null: the time is over.</summary>
    public IReadOnlyList<LogReading>? NextDay()
    {
        var day = run.Step / Minutes;
        if (day >= days)
            return null;
        reader.Begin(LogDays.At(first.AddDays(day)), Sum(HabitKind.Zero), day * 2 >= days ? joint : 0);
        var into = reader;
        run.Go(ref into);
        return reader.Day;
    }

    /// <summary>One or two habits that readings can teach, by the number.</summary>
    public static IReadOnlyList<Habit> Planted(LogPlan plan, DateOnly day, ulong seed)
    {
        var draw = new SplitMix(seed);
        var all = new List<Habit>();
        foreach (var load in plan.Loads(day))
            if (load.Cycles)
                all.Add(new(HabitKind.Duty, Math.Round(Math.Min(0.9, load.Duty * (1.4 + 0.5 * draw.Uniform())), 2), load.Id));
            else if (load.Windows is { Count: > 1 } && load is { BankW: >= 150, Duty: >= 1 })
                all.Add(new(HabitKind.Not, draw.Of(load.Windows.Count), load.Id));
        foreach (var load in plan.Loads(day))
            if (
                load.Windows is { } windows
                && load is { BankW: >= 300, Duty: >= 1 }
                && windows.Max(x => x.Hours) <= 0.5
                && Free(plan, day, ref draw) is { } at
            )
                all.Add(new(HabitKind.Also, at, load.Id));
        all.Add(new(HabitKind.Idle, Math.Round(15 + 30 * draw.Uniform())));
        var count = 1 + draw.Of(2);
        while (all.Count > count)
            all.RemoveAt(draw.Of(all.Count));
        return all;
    }

    /// <summary>A quarter of an hour between seven and ten at night in which nothing of the plan begins or ends near.</summary>
    private static double? Free(LogPlan plan, DateOnly day, ref SplitMix draw)
    {
        for (var n = 0; n < 20; n++)
        {
            var at = 7 + draw.Of(60) / 4.0;
            if (
                plan.Loads(day)
                    .All(l => l.Windows is null || l.Windows.All(x => Math.Abs(x.StartH - at) > 0.75 && Math.Abs(x.EndH - at) > 0.75))
            )
                return at;
        }
        return null;
    }

    /// <summary>What is asked on a day, each load on and off by itself.</summary>
    private RehearsalDay Asked(int d, RehearsalSetup setup)
    {
        var (ac, dc) = (new double[Minutes], new double[Minutes]);
        var day = first.AddDays(d);
        var draw = new SplitMix(seed * 31 + (ulong)d);
        var efficiency = setup.Plan.Inverter?.Efficiency ?? 1;
        Array.Fill(dc, Sum(HabitKind.Idle));
        // What is drawn beside the loads: other banks, and an inverter's idling that is spread.
        var spread =
            plan.Watts(day).Min()
            - plan.Loads(day).Where(l => l.Windows is null).Sum(l => l.DayWh / 24)
            - (setup.Plan.Inverter?.IdleW ?? 0);
        if (spread > 1)
            for (var n = 0; n < Minutes; n++)
                dc[n] += spread;
        foreach (var load in plan.Loads(day))
        {
            var into = load.Kind == LoadKind.Ac && setup.Plan.Inverter is not null ? ac : dc;
            var watts = load.Kind == LoadKind.Ac && setup.Plan.Inverter is not null ? load.BankW * efficiency : load.BankW;
            foreach (var (from, to) in Runs(load, ref draw))
                for (var n = from; n < to; n++)
                    into[(n + Minutes) % Minutes] += watts;
        }
        return new(ac, dc);
    }

    /// <summary>Minutes from and to in which it draws.</summary>
    private List<(int From, int To)> Runs(PlannedLoad load, ref SplitMix draw)
    {
        var list = new List<(int, int)>();
        var own = habits.Where(h => h.Load == load.Id).ToList();
        if (load.Windows is { } windows)
        {
            foreach (var (i, window) in windows.Index())
            {
                var late = load.Duty < 1 || window.Hours > 1 ? 0 : (int)Math.Round(draw.Bell() * 1.5);
                if (own.Exists(h => h.Kind == HabitKind.Not && (int)h.Value == i))
                    continue;
                var (from, hours) = ((int)Math.Round(window.StartH * 60) + late, (int)Math.Round(window.Hours * 60));
                if (load.Duty >= 1)
                    list.Add((from, from + hours));
                else
                    Cycle(list, from, from + hours, load.Duty, ref draw);
            }
            foreach (var h in own.Where(h => h.Kind == HabitKind.Also))
            {
                var from = (int)Math.Round(h.Value * 60 + draw.Bell() * 2);
                list.Add((from, from + Math.Max(2, (int)Math.Round(windows.Average(x => x.Hours) * 60))));
            }
            return list;
        }
        var share = own.FirstOrDefault(h => h.Kind == HabitKind.Duty)?.Value ?? load.Duty;
        if (share >= 1)
            list.Add((0, Minutes));
        else
            Cycle(list, 0, Minutes, share, ref draw);
        return list;
    }

    private static void Cycle(List<(int, int)> list, int from, int to, double share, ref SplitMix draw)
    {
        for (double at = from; at < to; )
        {
            var whole = CycleMin * (0.8 + 0.4 * draw.Uniform());
            var end = Math.Min(to, at + whole * share);
            if (Math.Round(end) > Math.Round(at))
                list.Add(((int)Math.Round(at), (int)Math.Round(end)));
            at += whole;
        }
    }

    /// <summary>The sun rises and falls instead of jumping at the hour; what other sources have stands as it is.</summary>
    private RehearsalSource Smooth(RehearsalSource source, Source? of)
    {
        if (of?.Kind != SourceKind.Solar)
            return source;
        var factor = habits.FirstOrDefault(h => h.Kind == HabitKind.Sun)?.Value ?? 1;
        var fine = new double[days * Minutes];
        for (var n = 0; n < fine.Length; n++)
        {
            var at = n / 60.0 - 0.5;
            var low = (int)Math.Floor(at);
            double Hour(int h) => source.Hourly[Math.Clamp(h, 0, source.Hourly.Count - 1)];
            fine[n] = factor * (Hour(low) + (Hour(low + 1) - Hour(low)) * (at - low));
        }
        return source with { Hourly = fine, SlotS = 60 };
    }

    /// <summary>Reads the run as a monitor does: to its decimals, a minute at a time.</summary>
    private sealed class Reader(SplitMix draw) : IRehearsalReader
    {
        private SplitMix noise = draw;
        private long begins;
        private double zero,
            ohm;
        private int minute;

        public List<LogReading> Day { get; private set; } = [];

        public void Begin(long at, double zeroA, double jointOhm)
        {
            (begins, zero, ohm, minute) = (at, zeroA, jointOhm, 0);
            Day = new(Minutes);
        }

        public void Read(in Moment m)
        {
            var amps = 0.0;
            foreach (var a in m.Amps)
                amps += a;
            minute++;
            // Of the moment at its end.
            var at = begins + minute * 60;
            Day.Add(
                new(
                    at,
                    m.Volts > 0 ? Math.Round(m.Volts - amps * ohm + noise.Bell() * 0.003, 3) : null,
                    Math.Round(amps + zero + noise.Bell() * 0.04, 2),
                    Math.Round(m.Soc, 4),
                    null
                )
            );
        }
    }
}

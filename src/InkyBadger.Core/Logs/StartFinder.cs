namespace InkyBadger.Core.Logs;

/// <summary>
/// A load as it went on and off: which (null: none of the plan), from when to when in seconds since 1970 (null: its end was not seen), what
/// it drew of the bank [W], and whether the plan has it run then.
/// </summary>
public sealed record LogStart(PlannedLoad? Load, long From, long? To, double Watts, double Amps, bool Known)
{
    /// <summary>[s since 1970]; where its end was not seen, after its usual time, a cycle after a quarter of an hour.</summary>
    public long End => To ?? From + (long)(3600 * (Load?.Windows?.Average(w => w.Hours) ?? 0.25));
}

/// <summary>
/// What was seen going on and off, and how long it could be seen on each day [h]: a bank that is kept full shows nothing, for the sun gives
/// what is drawn.
/// </summary>
/// <param name="OnH">How long each load ran of what could be seen of a day, by its id [h].</param>
/// <param name="RestW">What was drawn while nothing was seen running.</param>
public sealed record LogStarts(
    IReadOnlyList<LogStart> Starts,
    IReadOnlyDictionary<DateOnly, double> SeenH,
    IReadOnlyDictionary<(string Load, DateOnly Day), double> OnH,
    IReadOnlyList<RestDraw> RestW
)
{
    public static LogStarts None { get; } = new([], new Dictionary<DateOnly, double>(), new Dictionary<(string, DateOnly), double>(), []);
}

/// <summary>What was drawn while no load was seen running and no source could give [W].</summary>
public readonly record struct RestDraw(DateOnly Day, double Watts);

/// <summary>
/// Tells loads by their steps: each step of the watts is the loads of the plan that fit it best, few rather than many, those that the plan
/// has run at that hour first. What fits none and is large is something the plan does not know.
/// </summary>
public sealed class StartFinder
{
    private const long MostGapS = 600;

    private const double LeastW = 15,
        MostUnknownW = 300,
        LeastUnknownW = 40,
        UnknownShare = 0.15,
        MostUnknownH = 3,
        UnsureW = 100,
        Fit = 0.12,
        LeastFitW = 10,
        FullSoc = 0.985,
        MostCycleH = 4;

    /// <summary>Loads that one step may be made of, at most.</summary>
    private const int MostTried = 20;

    private readonly LogPlan plan;
    private readonly Dictionary<PlannedLoad, (long At, double Watts, double Amps)> on = [];
    private readonly List<LogStart> found = [];
    private readonly Dictionary<DateOnly, double> seen = [];
    private readonly Dictionary<(string, DateOnly), double> onH = [];
    private readonly List<RestDraw> rest = [];
    private (long At, double Watts, double Amps)? unknown;
    private DateOnly day;
    private IReadOnlyList<PlannedLoad> loads = [];
    private double unknownFrom;
    private bool[] sun = [],
        others = [];

    private StartFinder(LogPlan plan) => this.plan = plan;

    /// <param name="readings">In order; those coarser than ten minutes show no steps.</param>
    public static LogStarts Work(LogPlan plan, IReadOnlyList<LogReading> readings)
    {
        var finder = new StartFinder(plan);
        finder.Run(readings);
        return new([.. finder.found.OrderBy(f => f.From)], finder.seen, finder.onH, finder.rest);
    }

    private void Run(IReadOnlyList<LogReading> readings)
    {
        for (var i = 0; i < readings.Count; i++)
        {
            var r = readings[i];
            if (LogDays.DayOf(r.At) != day || i == 0)
                Day(LogDays.DayOf(r.At));
            if (r.Amps is not { } amps)
                continue;
            var watts = amps * (r.Volts ?? plan.NominalV);
            if (i == 0 || readings[i - 1].Amps is not { } before || r.At - readings[i - 1].At > MostGapS || Blind(r, watts))
            {
                Forget();
                continue;
            }
            var from = before * (readings[i - 1].Volts ?? plan.NominalV);
            var change = watts - from;
            // Where a charger comes and goes, a rise to no more than what is planned is as likely its end as a start.
            var charging = from < 0 && Others(r.At);
            var unsure = charging && watts <= Asked(r.At) + UnsureW;
            Expire(r.At);
            if (charging)
                foreach (var load in on.Keys.Where(l => l.Cycles).ToList())
                    Close(load, null);
            else
                Count(r.At - readings[i - 1].At);
            // A reading in the middle of a step shows a part of it: the two are one.
            if (!charging && i + 1 < readings.Count && NextOf(readings, i, watts) is { } next && Same(change, next))
            {
                change += next;
                i++;
                Count(readings[i].At - r.At);
            }
            if (Math.Abs(change) >= LeastW)
                Explain(r.At, change, change / (r.Volts ?? plan.NominalV), unsure, charging ? watts - Asked(r.At) : null);
            if (!May(r.At) && on.Count == 0 && unknown is null)
                rest.Add(new(day, watts));
        }
        Forget();
    }

    private double? NextOf(IReadOnlyList<LogReading> readings, int i, double watts) =>
        readings[i + 1] is { Amps: { } a } n && n.At - readings[i].At <= 120 ? a * (n.Volts ?? plan.NominalV) - watts : null;

    private static bool Same(double a, double b) => Math.Abs(a) >= 2 * LeastW && Math.Abs(b) >= 2 * LeastW && a > 0 == b > 0;

    private void Day(DateOnly next)
    {
        day = next;
        loads = [.. plan.Loads(day).Where(l => l.Shows)];
        (sun, others) = plan.MayCharge(day);
        unknownFrom = Math.Clamp(UnknownShare * loads.Select(l => l.BankW).DefaultIfEmpty().Max(), LeastUnknownW, MostUnknownW);
    }

    private bool May(long at)
    {
        var n = (int)((at - LogDays.At(day)) / LogSlot.Seconds);
        return sun[n] || others[n];
    }

    private void Count(long seconds)
    {
        seen[day] = seen.GetValueOrDefault(day) + seconds / 3600.0;
        foreach (var load in on.Keys)
            onH[(load.Id, day)] = onH.GetValueOrDefault((load.Id, day)) + seconds / 3600.0;
    }

    /// <summary>What is planned about then [W].</summary>
    private double Asked(long at)
    {
        var (watts, n) = (plan.Watts(day), (int)((at - LogDays.At(day)) / LogSlot.Seconds));
        return Math.Max(watts[n], watts[Math.Min(n + 1, watts.Count - 1)]);
    }

    private bool Others(long at)
    {
        var n = (int)((at - LogDays.At(day)) / LogSlot.Seconds);
        return others[n] || n > 0 && others[n - 1];
    }

    /// <summary>A full bank under charge: sources give what is drawn, and the shunt sees none of it.</summary>
    private bool Blind(in LogReading r, double watts) => May(r.At) && (r.Soc >= FullSoc || r.Soc is null && Math.Abs(watts) < 5);

    private static double HourOf(long at) => at % 86_400 / 3600.0;

    /// <param name="ended">What began, should the charger have ended at the same time [W]; null: none charges.</param>
    private void Explain(long at, double change, double amps, bool unsure, double? ended)
    {
        var candidates = (change > 0 ? loads.Where(l => !on.ContainsKey(l)) : loads.Where(on.ContainsKey)).ToList();
        var (best, score) = Best(candidates, Math.Abs(change), at, change > 0);
        if (
            ended is >= 2 * LeastW
            && change > 0
            && Best(candidates, ended.Value, at, true) is { Loads: not null } other
            && other.Score < score
        )
            (best, unsure) = (other.Loads, false);
        if (best is not null && change > 0 && unsure && best.Exists(l => l.Windows is null || !l.StartsAt(HourOf(at))))
            return;
        if (best is null)
        {
            if (change >= unknownFrom && !unsure)
                unknown = (at, change, amps);
            else if (unknown is { } open && change < 0 && Math.Abs(-change - open.Watts) <= 0.2 * open.Watts)
            {
                found.Add(new(null, open.At, at, open.Watts, open.Amps, false));
                unknown = null;
            }
            return;
        }
        foreach (var load in best)
            if (change > 0)
                on[load] = (at, load.BankW, amps * load.BankW / best.Sum(l => l.BankW));
            else
                Close(load, at);
    }

    private (List<PlannedLoad>? Loads, double Score) Best(List<PlannedLoad> candidates, double watts, long at, bool rises)
    {
        List<PlannedLoad>? best = null;
        var least = 1.0;
        var hour = HourOf(at);
        // Of a long list those that may be meant by their hour, and by their watts at all.
        if (candidates.Count > MostTried)
            candidates =
            [
                .. candidates
                    .Where(l => l.BankW <= watts * (1 + Fit) + LeastFitW)
                    .OrderByDescending(l => l.StartsAt(hour))
                    .ThenByDescending(l => l.BankW)
                    .Take(MostTried),
            ];
        void Try(params ReadOnlySpan<PlannedLoad> some)
        {
            double sum = 0,
                odd = 0;
            foreach (var load in some)
            {
                sum += load.BankW;
                if (load.Windows is not null && rises != load.StartsAt(hour) && rises)
                    odd += 0.25;
            }
            // The first costs nothing, another one some.
            var score = Math.Abs(watts - sum) / Math.Max(LeastFitW, Fit * sum);
            if (score > 1)
                return;
            score += odd + 0.3 * (some.Length - 1) - 1;
            if (score < least)
                (least, best) = (score, [.. some]);
        }
        for (var a = 0; a < candidates.Count; a++)
        {
            Try(candidates[a]);
            for (var b = a + 1; b < candidates.Count; b++)
            {
                Try(candidates[a], candidates[b]);
                for (var c = b + 1; c < candidates.Count; c++)
                    Try(candidates[a], candidates[b], candidates[c]);
            }
        }
        return (best, least);
    }

    private void Close(PlannedLoad load, long? to)
    {
        var (at, watts, amps) = on[load];
        on.Remove(load);
        found.Add(new(load, at, to, watts, amps, load.StartsAt(HourOf(at))));
    }

    /// <summary>What has run for far longer than it ever does went off unseen.</summary>
    private void Expire(long at)
    {
        foreach (var load in on.Keys.ToList())
            if ((at - on[load].At) / 3600.0 > (load.Windows?.Max(x => x.Hours) * 2 + 0.5 ?? MostCycleH))
                Close(load, null);
        if (unknown is { } open && (at - open.At) / 3600.0 > MostUnknownH)
        {
            found.Add(new(null, open.At, null, open.Watts, open.Amps, false));
            unknown = null;
        }
    }

    private void Forget()
    {
        foreach (var load in on.Keys.ToList())
            Close(load, null);
        if (unknown is { } open)
            found.Add(new(null, open.At, null, open.Watts, open.Amps, false));
        unknown = null;
    }
}

using InkyBadger.Core.Design;

namespace InkyBadger.Core.Demand;

/// <summary>
/// A stretch of the day in which the same loads are on. <paramref name="AcW"/> is at the inverter's output,
/// <paramref name="DcW"/> at the bank (DC and converter loads), <paramref name="SurgeW"/> the surge demand then,
/// <paramref name="Starting"/> the load (index) whose start makes it, −1 when none or all. The day is one of <paramref name="Season"/>.
/// </summary>
public readonly record struct ProfileSegment(
    double FromH,
    double ToH,
    double AcW,
    double DcW,
    double SurgeW,
    int Starting,
    Season Season = Season.Both
);

/// <summary>The day cut at every switching instant.</summary>
public static class DayProfile
{
    public static List<ProfileSegment> Work(IReadOnlyList<DailyLoad> loads, double converterEfficiency, SurgeRule rule)
    {
        var sweep = new DaySweep(loads);
        var cuts = sweep.Instants();
        var segments = new List<ProfileSegment>(cuts.Count);
        for (var i = 0; i < cuts.Count; i++)
        {
            sweep.MoveTo(cuts[i]);
            segments.Add(At(loads, sweep.Now, cuts[i], i + 1 < cuts.Count ? cuts[i + 1] : 24, converterEfficiency, rule));
        }
        return segments;
    }

    private static ProfileSegment At(
        IReadOnlyList<DailyLoad> loads,
        DaySweep.On on,
        double from,
        double to,
        double converterEfficiency,
        SurgeRule rule
    )
    {
        double ac = 0,
            dc = 0,
            all = 0,
            greatest = 0;
        var starting = -1;
        foreach (var i in on)
        {
            var load = loads[i];
            if (load.Kind == LoadKind.Dc)
                dc += load.RunningW;
            else if (load.Kind == LoadKind.Converter)
                dc += load.RunningW / converterEfficiency;
            else
            {
                ac += load.RunningW;
                all += load.Quantity * load.StartExtraW;
                if (load.StartExtraW <= greatest)
                    continue;
                greatest = load.StartExtraW;
                starting = i;
            }
        }
        return rule == SurgeRule.AllAtOnce ? new(from, to, ac, dc, ac + all, -1) : new(from, to, ac, dc, ac + greatest, starting);
    }
}

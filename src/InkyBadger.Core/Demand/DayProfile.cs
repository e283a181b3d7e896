using InkyBadger.Core.Design;

namespace InkyBadger.Core.Demand;

/// <summary>
/// A stretch of the day in which the same loads are on. <paramref name="AcW"/> is at the inverter's output,
/// <paramref name="DcW"/> at the bank (DC and converter loads), <paramref name="SurgeW"/> the surge demand then,
/// <paramref name="Starting"/> the load (index) whose start makes it, −1 when none or all. The day is one of <paramref name="Season"/>.
/// </summary>
public readonly record struct ProfileSegment(double FromH, double ToH, double AcW, double DcW, double SurgeW, int Starting, Season Season = Season.Both);

/// <summary>The day cut at every switching instant.</summary>
public static class DayProfile
{
    public static List<ProfileSegment> Work(IReadOnlyList<DailyLoad> loads, double converterEfficiency, SurgeRule rule)
    {
        var cuts = new List<double>(16) { 0 };
        foreach (var load in loads)
        {
            if (load.Windows is null || load.Quantity == 0) continue;
            foreach (var w in load.Windows)
            {
                cuts.Add(w.StartH);
                if (w.EndH < 24) cuts.Add(w.EndH);
            }
        }
        cuts.Sort();
        var segments = new List<ProfileSegment>(cuts.Count);
        for (var i = 0; i < cuts.Count; i++)
        {
            if (i > 0 && cuts[i] == cuts[i - 1]) continue;
            var next = i + 1;
            while (next < cuts.Count && cuts[next] == cuts[i]) next++;
            segments.Add(At(loads, cuts[i], next < cuts.Count ? cuts[next] : 24, converterEfficiency, rule));
        }
        return segments;
    }

    private static ProfileSegment At(IReadOnlyList<DailyLoad> loads, double from, double to, double converterEfficiency, SurgeRule rule)
    {
        double ac = 0, dc = 0, all = 0, greatest = 0;
        var starting = -1;
        for (var i = 0; i < loads.Count; i++)
        {
            var load = loads[i];
            if (!load.OnAt(from)) continue;
            if (load.Kind == LoadKind.Dc) dc += load.RunningW;
            else if (load.Kind == LoadKind.Converter) dc += load.RunningW / converterEfficiency;
            else
            {
                ac += load.RunningW;
                all += load.Quantity * load.StartExtraW;
                if (load.StartExtraW <= greatest) continue;
                greatest = load.StartExtraW;
                starting = i;
            }
        }
        return rule == SurgeRule.AllAtOnce
            ? new(from, to, ac, dc, ac + all, -1)
            : new(from, to, ac, dc, ac + greatest, starting);
    }

    /// <summary>
    /// Longest unbroken time [h] the AC power stays at <paramref name="watts"/> or more; the day repeats, so a stretch may pass midnight,
    /// but never from one season's day into the other's.
    /// </summary>
    public static double LongestAtOrAbove(IReadOnlyList<ProfileSegment> segments, double watts)
    {
        double longest = 0;
        for (var first = 0; first < segments.Count;)
        {
            var end = first;
            while (end < segments.Count && segments[end].Season == segments[first].Season) end++;
            double run = 0;
            for (var i = 0; i < 2 * (end - first); i++)
            {
                var s = segments[first + i % (end - first)];
                run = Tolerant.AtLeast(s.AcW, watts) ? run + s.ToH - s.FromH : 0;
                longest = Math.Max(longest, run);
            }
            first = end;
        }
        return Math.Min(24, longest);
    }
}

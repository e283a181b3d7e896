namespace InkyBadger.Core.Demand;

/// <summary>When a load would disturb nobody: other times for its windows, and the worst instant of the day with them [W].</summary>
public sealed record QuietTimes(IReadOnlyList<DayWindow> Windows, double SurgeW);

/// <summary>
/// Looks for the nearest time at which a load no longer makes the day's worst instant. The day is cut into five minutes; a window that
/// touches one counts for all of it, so the answer never promises too much. Starts one at a time.
/// </summary>
public static class QuietHour
{
    private const int Slots = 288;
    private const double SlotHours = 24.0 / Slots;
    private const double LeftForNearness = 0.25;

    /// <summary>Null when the load has no times, is not AC, or nothing would be won.</summary>
    /// <param name="index">The load to move.</param>
    public static QuietTimes? Find(IReadOnlyList<DailyLoad> loads, int index)
    {
        var moved = loads[index];
        if (moved.Kind != LoadKind.Ac || moved.Windows is not { } windows || moved.Quantity == 0) return null;
        var (running, extra) = Others(loads, index);
        double unavoidable = 0;
        for (var i = 0; i < Slots; i++) unavoidable = Math.Max(unavoidable, running[i] + extra[i]);

        double now = unavoidable;
        foreach (var w in windows) now = Math.Max(now, Local(w));
        if (!Tolerant.Exceeds(now, unavoidable)) return null;
        // The very quietest hour may be three at night: a quarter of what could be won is left for a time near by.
        var longest = windows.Max(w => w.Hours);
        var least = now;
        for (var i = 0; i < Slots; i++) least = Math.Min(least, Local(At(i, longest)));
        var enough = Math.Max(unavoidable, least + (now - least) * LeftForNearness);

        var taken = new bool[Slots];
        var found = new List<DayWindow>(windows.Count);
        // What stays where it is keeps its place before anything moves onto it.
        foreach (var w in windows)
            if (Local(w) <= enough) Mark(taken, w);
        foreach (var w in windows)
        {
            if (Local(w) <= enough)
            {
                found.Add(w);
                continue;
            }
            if (Nearest(w) is not { } quiet) return null;
            Mark(taken, quiet);
            found.Add(quiet);
        }
        var worst = unavoidable;
        foreach (var w in found) worst = Math.Max(worst, Local(w));
        return Tolerant.Exceeds(now, worst) ? new(found, worst) : null;

        double Local(DayWindow w)
        {
            double worst = 0;
            foreach (var i in Touched(w)) worst = Math.Max(worst, running[i] + moved.RunningW + Math.Max(extra[i], moved.StartExtraW));
            return worst;
        }

        DayWindow? Nearest(DayWindow w)
        {
            var start = (int)Math.Round(w.StartH / SlotHours);
            // As little later as possible, or as little earlier: later first, for what it collides with began before.
            for (var shift = 1; shift <= Slots / 2; shift++)
                foreach (var at in new[] { start + shift, start - shift })
                {
                    var tried = At((at % Slots + Slots) % Slots, w.Hours);
                    if (tried.EndH == tried.StartH || Touched(tried).Any(i => taken[i])) continue;
                    if (Local(tried) <= enough) return tried;
                }
            return null;
        }
    }

    private static DayWindow At(int slot, double hours) => new(Math.Round(slot * SlotHours, 9), Math.Round((slot * SlotHours + hours) % 24, 9));

    private static void Mark(bool[] taken, DayWindow w)
    {
        foreach (var i in Touched(w)) taken[i] = true;
    }

    private static IEnumerable<int> Touched(DayWindow w)
    {
        var first = (int)Math.Floor(w.StartH / SlotHours + 1e-6);
        var count = (int)Math.Ceiling((w.StartH + w.Hours) / SlotHours - 1e-6) - first;
        for (var i = 0; i < Math.Min(count, Slots); i++) yield return (first + i) % Slots;
    }

    private static (double[] Running, double[] Extra) Others(IReadOnlyList<DailyLoad> loads, int index)
    {
        var running = new double[Slots];
        var extra = new double[Slots];
        for (var j = 0; j < loads.Count; j++)
        {
            var load = loads[j];
            if (j == index || load.Kind != LoadKind.Ac || !load.EverOn) continue;
            if (load.Windows is null)
            {
                for (var i = 0; i < Slots; i++) Add(i, load);
                continue;
            }
            var seen = new HashSet<int>();
            foreach (var w in load.Windows)
                foreach (var i in Touched(w))
                    if (seen.Add(i)) Add(i, load);
        }
        return (running, extra);

        void Add(int i, DailyLoad load)
        {
            running[i] += load.RunningW;
            extra[i] = Math.Max(extra[i], load.StartExtraW);
        }
    }
}

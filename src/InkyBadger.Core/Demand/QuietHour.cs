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

    /// <summary>The very quietest hour may be three at night: so much of what could be won is left for a time near by.</summary>
    private const double LeftForNearness = 0.25;

    /// <summary>Null when the load has no times, is not AC, or nothing would be won.</summary>
    /// <param name="index">The load to move.</param>
    public static QuietTimes? Find(IReadOnlyList<DailyLoad> loads, int index)
    {
        var moved = loads[index];
        if (moved.Kind != LoadKind.Ac || moved.Windows is not { } windows || moved.Quantity == 0) return null;
        Span<double> running = stackalloc double[Slots];
        Span<double> extra = stackalloc double[Slots];
        Others(loads, index, running, extra);
        // What would be on in each five minutes with the load there, its start or another's on top.
        Span<double> with = stackalloc double[Slots];
        double unavoidable = 0, longest = 0, now = 0;
        for (var i = 0; i < Slots; i++)
        {
            unavoidable = Math.Max(unavoidable, running[i] + extra[i]);
            with[i] = running[i] + moved.RunningW + Math.Max(extra[i], moved.StartExtraW);
        }
        foreach (var w in windows)
        {
            longest = Math.Max(longest, w.Hours);
            now = Math.Max(now, Worst(with, w));
        }
        if (!Tolerant.Exceeds(now, unavoidable)) return null;
        var least = now;
        for (var i = 0; i < Slots; i++) least = Math.Min(least, Worst(with, At(i, longest)));
        var enough = Math.Max(unavoidable, least + (now - least) * LeftForNearness);

        Span<bool> taken = stackalloc bool[Slots];
        var found = new List<DayWindow>(windows.Count);
        // What stays where it is keeps its place before anything moves onto it.
        foreach (var w in windows)
            if (Worst(with, w) <= enough) Mark(taken, w);
        foreach (var w in windows)
        {
            var quiet = Worst(with, w) <= enough ? w : Nearest(with, taken, w, enough);
            if (quiet is not { } place) return null;
            Mark(taken, place);
            found.Add(place);
        }
        var worst = unavoidable;
        foreach (var w in found) worst = Math.Max(worst, Worst(with, w));
        return Tolerant.Exceeds(now, worst) ? new(found, worst) : null;
    }

    /// <summary>As little later as possible, or as little earlier: later first, for what it collides with began before.</summary>
    private static DayWindow? Nearest(ReadOnlySpan<double> with, ReadOnlySpan<bool> taken, DayWindow w, double enough)
    {
        var start = (int)Math.Round(w.StartH / SlotHours);
        for (var shift = 1; shift <= Slots / 2; shift++)
            for (var side = 1; side >= -1; side -= 2)
            {
                var tried = At(((start + side * shift) % Slots + Slots) % Slots, w.Hours);
                if (tried.EndH != tried.StartH && Free(taken, tried) && Worst(with, tried) <= enough) return tried;
            }
        return null;
    }

    private static DayWindow At(int slot, double hours) => new(Math.Round(slot * SlotHours, 9), Math.Round((slot * SlotHours + hours) % 24, 9));

    private static (int First, int Count) Touched(DayWindow w)
    {
        var first = (int)Math.Floor(w.StartH / SlotHours + 1e-6);
        return (first, Math.Min(Slots, (int)Math.Ceiling((w.StartH + w.Hours) / SlotHours - 1e-6) - first));
    }

    private static double Worst(ReadOnlySpan<double> with, DayWindow w)
    {
        var (first, count) = Touched(w);
        double worst = 0;
        for (var i = 0; i < count; i++) worst = Math.Max(worst, with[(first + i) % Slots]);
        return worst;
    }

    private static bool Free(ReadOnlySpan<bool> taken, DayWindow w)
    {
        var (first, count) = Touched(w);
        for (var i = 0; i < count; i++)
            if (taken[(first + i) % Slots]) return false;
        return true;
    }

    private static void Mark(Span<bool> taken, DayWindow w)
    {
        var (first, count) = Touched(w);
        for (var i = 0; i < count; i++) taken[(first + i) % Slots] = true;
    }

    /// <summary>Of all other AC loads: what runs in each five minutes, and the greatest start.</summary>
    private static void Others(IReadOnlyList<DailyLoad> loads, int index, Span<double> running, Span<double> extra)
    {
        Span<bool> on = stackalloc bool[Slots];
        for (var j = 0; j < loads.Count; j++)
        {
            var load = loads[j];
            if (j == index || load.Kind != LoadKind.Ac || !load.EverOn) continue;
            on.Fill(load.Windows is null);
            foreach (var w in load.Windows ?? []) Mark(on, w);
            for (var i = 0; i < Slots; i++)
            {
                if (!on[i]) continue;
                running[i] += load.RunningW;
                extra[i] = Math.Max(extra[i], load.StartExtraW);
            }
        }
    }
}

using InkyBadger.Core.Design;

namespace InkyBadger.Core.Demand;

/// <summary>When a load would disturb nobody: other times for its windows, and the worst instant of the day with them [W].</summary>
public sealed record QuietTimes(IReadOnlyList<DayWindow> Windows, double SurgeW);

/// <summary>
/// Looks for the nearest time at which a load no longer makes the day's worst instant. The day is cut into five minutes; a window that
/// touches one counts for all of it, so the answer never promises too much. Starts one at a time. What all loads make of the day is worked
/// out once; each load is then taken out of it.
/// </summary>
public sealed class QuietHour
{
    private const int Slots = 288;
    private const double SlotHours = 24.0 / Slots;

    /// <summary>The very quietest hour may be three at night: so much of what could be won is left for a time near by.</summary>
    private const double LeftForNearness = 0.25;

    private readonly IReadOnlyList<DailyLoad> loads;

    /// <summary>What runs in each five minutes [W], the greatest start with its load, and the greatest of the others [W].</summary>
    private readonly double[] runningW = new double[Slots];
    private readonly (int Load, double W)[] hardest = new (int, double)[Slots];
    private readonly double[] secondW = new double[Slots];

    public QuietHour(IReadOnlyList<DailyLoad> loads)
    {
        this.loads = loads;
        Array.Fill(hardest, (-1, 0));
        Span<bool> on = stackalloc bool[Slots];
        for (var i = 0; i < loads.Count; i++)
        {
            if (!Counts(loads[i]))
                continue;
            When(loads[i], on);
            for (var s = 0; s < Slots; s++)
            {
                if (!on[s])
                    continue;
                runningW[s] += loads[i].RunningW;
                if (loads[i].StartExtraW > hardest[s].W)
                {
                    secondW[s] = hardest[s].W;
                    hardest[s] = (i, loads[i].StartExtraW);
                }
                else
                    secondW[s] = Math.Max(secondW[s], loads[i].StartExtraW);
            }
        }
    }

    private static bool Counts(DailyLoad load) => load.Kind == LoadKind.Ac && load.EverOn;

    private static void When(DailyLoad load, Span<bool> on)
    {
        on.Fill(load.Windows is null);
        foreach (var w in load.Windows ?? [])
            Mark(on, w);
    }

    /// <summary>Null when the load has no times, is not AC, or nothing would be won.</summary>
    /// <param name="index">The load to move.</param>
    public static QuietTimes? Find(IReadOnlyList<DailyLoad> loads, int index) => new QuietHour(loads).Find(index);

    /// <inheritdoc cref="Find(IReadOnlyList{DailyLoad}, int)"/>
    public QuietTimes? Find(int index)
    {
        var moved = loads[index];
        if (moved.Kind != LoadKind.Ac || moved.Windows is not { } windows || moved.Quantity == 0)
            return null;
        Span<double> running = stackalloc double[Slots];
        Span<double> extra = stackalloc double[Slots];
        Others(index, running, extra);
        // What would be on in each five minutes with the load there, its start or another's on top.
        Span<double> with = stackalloc double[Slots];
        double unavoidable = 0,
            longest = 0,
            now = 0;
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
        if (!Tolerant.Exceeds(now, unavoidable))
            return null;
        var least = now;
        Span<double> worstFrom = stackalloc double[Slots];
        Maxima(with, SlotsOf(longest), worstFrom);
        for (var i = 0; i < Slots; i++)
            least = Math.Min(least, worstFrom[i]);
        var enough = Math.Max(unavoidable, least + (now - least) * LeftForNearness);

        Span<bool> taken = stackalloc bool[Slots];
        var found = new List<DayWindow>(windows.Count);
        // What stays where it is keeps its place before anything moves onto it.
        foreach (var w in windows)
            if (Tolerant.AtLeast(enough, Worst(with, w)))
                Mark(taken, w);
        foreach (var w in windows)
        {
            var quiet = Tolerant.AtLeast(enough, Worst(with, w)) ? w : Nearest(with, taken, w, enough);
            if (quiet is not { } place)
                return null;
            Mark(taken, place);
            found.Add(place);
        }
        var worst = unavoidable;
        foreach (var w in found)
            worst = Math.Max(worst, Worst(with, w));
        return Tolerant.Exceeds(now, worst) ? new(found, worst) : null;
    }

    /// <summary>As little later as possible, or as little earlier: later first, for what it collides with began before.</summary>
    private static DayWindow? Nearest(ReadOnlySpan<double> with, ReadOnlySpan<bool> taken, DayWindow w, double enough)
    {
        var start = (int)Math.Round(w.StartH / SlotHours);
        Span<double> worstFrom = stackalloc double[Slots];
        Maxima(with, SlotsOf(w.Hours), worstFrom);
        for (var shift = 1; shift <= Slots / 2; shift++)
        for (var side = 1; side >= -1; side -= 2)
        {
            var slot = ((start + side * shift) % Slots + Slots) % Slots;
            if (!Tolerant.AtLeast(enough, worstFrom[slot]))
                continue;
            var tried = At(slot, w.Hours);
            if (tried.EndH != tried.StartH && Free(taken, tried))
                return tried;
        }
        return null;
    }

    private static DayWindow At(int slot, double hours) =>
        new(Math.Round(slot * SlotHours, 9), Math.Round((slot * SlotHours + hours) % 24, 9));

    private static int SlotsOf(double hours) => Math.Clamp((int)Math.Ceiling(hours / SlotHours - 1e-6), 1, Slots);

    /// <summary>For a start in each five minutes, the greatest of so many from there on, past midnight too.</summary>
    private static void Maxima(ReadOnlySpan<double> with, int count, Span<double> into)
    {
        // Slots that may still be the greatest of a later stretch, in the order of the day; their values fall.
        Span<int> queue = stackalloc int[2 * Slots];
        int head = 0,
            tail = 0;
        for (var i = 0; i < Slots + count - 1; i++)
        {
            while (tail > head && with[queue[tail - 1] % Slots] <= with[i % Slots])
                tail--;
            queue[tail++] = i;
            var from = i - count + 1;
            if (queue[head] < from)
                head++;
            if (from >= 0 && from < Slots)
                into[from] = with[queue[head] % Slots];
        }
    }

    private static (int First, int Count) Touched(DayWindow w)
    {
        var first = (int)Math.Floor(w.StartH / SlotHours + 1e-6);
        return (first, Math.Min(Slots, (int)Math.Ceiling((w.StartH + w.Hours) / SlotHours - 1e-6) - first));
    }

    private static double Worst(ReadOnlySpan<double> with, DayWindow w)
    {
        var (first, count) = Touched(w);
        double worst = 0;
        for (var i = 0; i < count; i++)
            worst = Math.Max(worst, with[(first + i) % Slots]);
        return worst;
    }

    private static bool Free(ReadOnlySpan<bool> taken, DayWindow w)
    {
        var (first, count) = Touched(w);
        for (var i = 0; i < count; i++)
            if (taken[(first + i) % Slots])
                return false;
        return true;
    }

    private static void Mark(Span<bool> taken, DayWindow w)
    {
        var (first, count) = Touched(w);
        for (var i = 0; i < count; i++)
            taken[(first + i) % Slots] = true;
    }

    /// <summary>Of all other AC loads: what runs in each five minutes, and the greatest start.</summary>
    private void Others(int index, Span<double> running, Span<double> extra)
    {
        Span<bool> own = stackalloc bool[Slots];
        if (Counts(loads[index]))
            When(loads[index], own);
        for (var s = 0; s < Slots; s++)
        {
            running[s] = own[s] ? runningW[s] - loads[index].RunningW : runningW[s];
            extra[s] = hardest[s].Load == index ? secondW[s] : hardest[s].W;
        }
    }
}

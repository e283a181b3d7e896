using System.Numerics;
using InkyBadger.Core.Work;

namespace InkyBadger.Core.Demand;

/// <summary>
/// Which loads are on as the day goes by. The hours asked for must not fall; each switching is looked at once, so that a day of many
/// loads and windows costs no more than what it prints.
/// </summary>
internal sealed class DaySweep
{
    private readonly (double Hour, int Load, int Step)[] switchings;
    private readonly int[] windowsOn;
    private readonly ulong[] on;
    private int next;

    public DaySweep(IReadOnlyList<DailyLoad> loads)
    {
        windowsOn = new int[loads.Count];
        on = new ulong[(loads.Count + 63) / 64];
        var list = new List<(double, int, int)>(2 * loads.Count);
        for (var i = 0; i < loads.Count; i++)
        {
            if (loads[i].Quantity == 0)
                continue;
            if (loads[i].Windows is not { } windows)
            {
                if (loads[i].Hours > 0)
                    list.Add((0, i, 1));
                continue;
            }
            foreach (var w in windows)
            {
                list.Add((w.StartH, i, 1));
                if (w.EndH < 24)
                    list.Add((w.EndH, i, -1));
                // Past midnight it is on from the day's first moment.
                if (w.EndH <= w.StartH)
                    list.Add((0, i, 1));
            }
        }
        switchings = [.. list];
        Array.Sort(switchings, (a, b) => a.Hour.CompareTo(b.Hour));
    }

    /// <summary>The instants at which something switches, midnight first, each once [h].</summary>
    public List<double> Instants()
    {
        var instants = new List<double>(switchings.Length + 1) { 0 };
        foreach (var (hour, _, _) in switchings)
            if (hour > instants[^1])
                instants.Add(hour);
        return instants;
    }

    public void MoveTo(double hour)
    {
        for (; next < switchings.Length && switchings[next].Hour <= hour; next++)
        {
            var (_, load, step) = switchings[next];
            windowsOn[load] += step;
            if (windowsOn[load] > 0)
                on[load >> 6] |= 1UL << (load & 63);
            else
                on[load >> 6] &= ~(1UL << (load & 63));
        }
    }

    public On Now => new(on);

    /// <summary>The loads that are on, by their index, in the order of the list.</summary>
    public struct On(ulong[] bits)
    {
        private int word = -1;
        private ulong left;

        public int Current { get; private set; }

        public readonly On GetEnumerator() => this;

        public bool MoveNext()
        {
            while (left == 0)
            {
                if (++word >= bits.Length)
                    return false;
                left = bits[word];
            }
            Current = (word << 6) + BitOperations.TrailingZeroCount(left);
            left &= left - 1;
            return true;
        }
    }
}

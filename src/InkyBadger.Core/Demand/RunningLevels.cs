using InkyBadger.Core.Design;

namespace InkyBadger.Core.Demand;

/// <summary>
/// A level of running AC watts that the day reaches, the longest it lasts unbroken at that or more [h], and the first stretch of the
/// profile that has it.
/// </summary>
public readonly record struct RunningLevel(double Watts, double Hours, int Segment);

/// <summary>How long each level of running watts lasts.</summary>
public static class RunningLevels
{
    /// <summary>
    /// As <see cref="Of(IReadOnlyList{ProfileSegment})"/>, with loads that have hours and no times: each is counted in at every instant,
    /// but all of them together last no longer than the shortest, and without that one no longer than the next.
    /// </summary>
    /// <param name="byHours">AC watts, hours a day and season of each [W, h].</param>
    public static IReadOnlyList<RunningLevel> Of(
        IReadOnlyList<ProfileSegment> profile,
        IReadOnlyList<(double Watts, double Hours, Season Season)> byHours
    )
    {
        var whole = Of(profile);
        if (byHours.Count == 0)
            return whole;
        var levels = new Dictionary<double, RunningLevel>();
        foreach (var level in whole)
        {
            var season = profile[level.Segment].Season;
            var watts = level.Watts;
            // The shortest fall away one after the other.
            foreach (var group in byHours.Where(l => l.Season == season).GroupBy(l => l.Hours).OrderBy(g => g.Key))
            {
                Keep(watts, Math.Min(level.Hours, group.Key), level.Segment);
                watts -= group.Sum(l => l.Watts);
            }
            if (watts > Tolerant.Noise * level.Watts)
                Keep(watts, level.Hours, level.Segment);
        }
        return [.. levels.Values];

        void Keep(double watts, double hours, int segment)
        {
            if (!levels.TryGetValue(watts, out var known) || known.Hours < hours)
                levels[watts] = new(watts, hours, known.Watts > 0 ? known.Segment : segment);
        }
    }

    /// <summary>
    /// Every level once, in the order the day first reaches it. The day repeats, so a stretch may pass midnight, but never from one
    /// season's day into the other's.
    /// </summary>
    public static IReadOnlyList<RunningLevel> Of(IReadOnlyList<ProfileSegment> profile)
    {
        var first = new Dictionary<double, int>();
        for (var i = 0; i < profile.Count; i++)
            first.TryAdd(profile[i].AcW, i);
        var stretches = new Stretches(profile);
        var hours = new Dictionary<double, double>(first.Count);
        // From the greatest down: what is on at a level is on at every lower one, so stretches only grow and join.
        foreach (var watts in first.Keys.OrderDescending())
            hours[watts] = stretches.LongestAtOrAbove(watts);
        return [.. first.OrderBy(l => l.Value).Select(l => new RunningLevel(l.Key, hours[l.Key], l.Value))];
    }

    private sealed class Stretches
    {
        private readonly (Ring Ring, int At, double Watts)[] byWatts;
        private int taken;
        private double longest;

        public Stretches(IReadOnlyList<ProfileSegment> profile)
        {
            byWatts = new (Ring, int, double)[profile.Count];
            for (var first = 0; first < profile.Count; )
            {
                var end = first;
                while (end < profile.Count && profile[end].Season == profile[first].Season)
                    end++;
                var ring = new Ring(profile, first, end - first);
                for (var i = first; i < end; i++)
                    byWatts[i] = (ring, i - first, profile[i].AcW);
                first = end;
            }
            Array.Sort(byWatts, (a, b) => b.Watts.CompareTo(a.Watts));
        }

        /// <summary>To be asked with falling watts.</summary>
        public double LongestAtOrAbove(double watts)
        {
            for (; taken < byWatts.Length && Tolerant.AtLeast(byWatts[taken].Watts, watts); taken++)
                longest = Math.Max(longest, byWatts[taken].Ring.Add(byWatts[taken].At));
            return longest;
        }
    }

    /// <summary>A season's day, closed at midnight; parts of it are taken one after the other and grow together.</summary>
    private sealed class Ring(IReadOnlyList<ProfileSegment> profile, int first, int count)
    {
        private readonly bool[] on = new bool[count];

        /// <summary>At either end of a stretch its other end.</summary>
        private readonly int[] otherEnd = new int[count];
        private int taken;

        /// <summary>Takes a part in; hours of the stretch it now belongs to.</summary>
        public double Add(int i)
        {
            on[i] = true;
            if (++taken == count)
                return 24;
            var (before, after) = ((i + count - 1) % count, (i + 1) % count);
            var from = on[before] ? otherEnd[before] : i;
            var to = on[after] ? otherEnd[after] : i;
            otherEnd[from] = to;
            otherEnd[to] = from;
            var (start, end) = (profile[first + from].FromH, profile[first + to].ToH);
            return from <= to ? end - start : 24 - start + end;
        }
    }
}

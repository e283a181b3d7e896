using System.Collections.Concurrent;
using InkyBadger.Core.Practice;

namespace InkyBadger.Server.Practising;

/// <summary>
/// Banks and walks that were made lately: each answer asks for the same one again, and to make one takes a part of a second.
/// </summary>
public sealed class PracticeBanks
{
    /// <summary>Kept of each.</summary>
    private const int Most = 16;

    private readonly ConcurrentDictionary<(int, int), Lazy<PracticeBank>> banks = new();
    private readonly ConcurrentDictionary<(int, int), Lazy<MeterWalk>> walks = new();

    public PracticeBank Bank(int seed, int level) => Of(banks, (seed, level), () => PracticeBank.Make(seed, level));

    public MeterWalk Walk(int seed, int faults) => Of(walks, (seed, faults), () => MeterWalk.Make(seed, faults));

    private static T Of<T>(ConcurrentDictionary<(int, int), Lazy<T>> all, (int, int) key, Func<T> make)
    {
        if (!all.ContainsKey(key) && all.Count >= Most)
            all.Clear();
        try
        {
            return all.GetOrAdd(key, _ => new(make)).Value;
        }
        catch
        {
            all.TryRemove(key, out _);
            throw;
        }
    }
}

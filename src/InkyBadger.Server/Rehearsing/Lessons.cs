using System.Collections.Concurrent;
using InkyBadger.Core.Design;
using InkyBadger.Core.Rehearsal;
using InkyBadger.Core.Work;

namespace InkyBadger.Server.Rehearsing;

/// <summary>
/// What the years that were run have taught, for as long as the server runs: a design that is undone finds its year again, a changed one
/// has none. Losing them costs nothing but the third of a second that a year takes.
/// </summary>
public sealed class Lessons
{
    /// <summary>Kept; then the oldest goes.</summary>
    private const int Most = 1000;

    private readonly ConcurrentDictionary<string, Lesson> known = new();
    private readonly ConcurrentQueue<string> order = new();

    public void Keep(DesignDocument design, int bank, Lesson lesson)
    {
        var sign = RehearsalSign.Of(design, bank);
        if (!known.TryAdd(sign, lesson))
            return;
        order.Enqueue(sign);
        while (order.Count > Most && order.TryDequeue(out var oldest))
            known.TryRemove(oldest, out _);
    }

    public Lesson? Of(DesignDocument design, int bank) =>
        !known.IsEmpty && known.TryGetValue(RehearsalSign.Of(design, bank), out var lesson) ? lesson : null;

    /// <summary>Of each bank; null: no year of this design was run.</summary>
    public IReadOnlyList<Lesson?>? Of(DesignDocument design)
    {
        if (known.IsEmpty)
            return null;
        Lesson?[] all = [.. Enumerable.Range(0, design.Banks.Count).Select(bank => Of(design, bank))];
        return Array.Exists(all, l => l is not null) ? all : null;
    }
}

using System.Collections.Concurrent;
using InkyBadger.Core.Builds;
using InkyBadger.Core.Design;
using InkyBadger.Core.Rehearsal;
using InkyBadger.Core.Work;

namespace InkyBadger.Server.Rehearsing;

/// <summary>
/// What the years that were run and the searches of builds have taught, for as long as the server runs: a design that is undone finds its
/// year again, a changed one has none. Losing them costs nothing but the time they take.
/// </summary>
public sealed class Lessons
{
    /// <summary>Of one kind, by the sign of all that it follows from; then the oldest goes.</summary>
    private sealed class Store<T>(Func<DesignDocument, int, string> sign)
        where T : class
    {
        private const int Most = 1000;

        private readonly ConcurrentDictionary<string, T> known = new();
        private readonly ConcurrentQueue<string> order = new();

        public void Keep(DesignDocument design, int bank, T lesson)
        {
            var key = sign(design, bank);
            if (!known.TryAdd(key, lesson))
                return;
            order.Enqueue(key);
            while (order.Count > Most && order.TryDequeue(out var oldest))
                known.TryRemove(oldest, out _);
        }

        public T? Of(DesignDocument design, int bank) =>
            !known.IsEmpty && known.TryGetValue(sign(design, bank), out var lesson) ? lesson : null;

        /// <summary>Of each bank; null: there is none of this design.</summary>
        public IReadOnlyList<T?>? Of(DesignDocument design)
        {
            if (known.IsEmpty)
                return null;
            T?[] all = [.. Enumerable.Range(0, design.Banks.Count).Select(bank => Of(design, bank))];
            return Array.Exists(all, l => l is not null) ? all : null;
        }
    }

    private readonly Store<Lesson> years = new(RehearsalSign.Of);
    private readonly Store<CheaperBuild> builds = new(CheaperBuilds.SignOf);

    public void Keep(DesignDocument design, int bank, Lesson lesson) => years.Keep(design, bank, lesson);

    public Lesson? Of(DesignDocument design, int bank) => years.Of(design, bank);

    /// <summary>Of each bank; null: no year of this design was run.</summary>
    public IReadOnlyList<Lesson?>? Of(DesignDocument design) => years.Of(design);

    public void Keep(DesignDocument design, int bank, CheaperBuild found) => builds.Keep(design, bank, found);

    /// <summary>What a search found for each bank; null: nothing, or nobody searched.</summary>
    public IReadOnlyList<CheaperBuild?>? CheaperOf(DesignDocument design) => builds.Of(design);
}

using System.Collections.Concurrent;
using InkyBadger.Core;
using InkyBadger.Core.Design;
using InkyBadger.Storage;

namespace InkyBadger.Server.Designs;

/// <summary>
/// A card of the shelf: the figures that tell designs apart, and what its miniature is drawn from. Figures are null where they are not
/// worked out yet.
/// </summary>
public sealed record DesignCard(
    string Id,
    string Name,
    DateTime UpdatedUtc,
    DateTime? DeletedUtc,
    int? SystemV,
    double? NominalV,
    double? UsableWh,
    int? Series,
    int? Parallel,
    string Arrangement,
    double? AreaMm2,
    int Conductors,
    double? Share,
    double? InverterW,
    IReadOnlyList<double> LoadsW,
    int Wrong,
    int ToLookAt,
    string? FirstToDo);

/// <summary>Works cards out once for each revision; the shelf of hundreds of designs then asks the database for names only.</summary>
public sealed class ShelfCards
{
    private const int LoadsShown = 5;

    private readonly ConcurrentDictionary<string, (long Revision, DesignCard Card)> known = new();

    private bool Knows(StoredEntry e) => known.TryGetValue(e.Id, out var card) && card.Revision == e.Revision;

    /// <summary>Works a design's card out as it is kept, so that the shelf finds it ready.</summary>
    public void Know(StoredDesign stored) => Remember(new(stored.Id, stored.Design.Name, stored.Revision, stored.UpdatedUtc, null), stored.Design);

    private void Remember(StoredEntry entry, DesignDocument design)
    {
        if (!Knows(entry)) known[entry.Id] = (entry.Revision, Make(entry, design));
    }

    public async Task<List<DesignCard>> OfAsync(IReadOnlyList<StoredEntry> entries, DesignStore store, CancellationToken stop)
    {
        var missing = entries.Where(e => !Knows(e)).ToList();
        if (missing.Count > 0)
        {
            var documents = await store.DocumentsAsync([.. missing.Select(e => e.Id)], stop);
            foreach (var entry in missing)
                if (documents.TryGetValue(entry.Id, out var design)) Remember(entry, design);
        }
        var cards = new List<DesignCard>(entries.Count);
        foreach (var e in entries)
            if (known.TryGetValue(e.Id, out var found) && found.Revision == e.Revision) cards.Add(found.Card with { UpdatedUtc = e.UpdatedUtc, DeletedUtc = e.DeletedUtc });
        return cards;
    }

    private static DesignCard Make(StoredEntry entry, DesignDocument design)
    {
        var evaluation = Evaluator.Evaluate(design);
        var bank = evaluation.Banks.Count > 0 ? evaluation.Banks[0] : null;
        var begun = bank?.Loads is not null || bank?.Bank is not null;
        return new(entry.Id, entry.Name, entry.UpdatedUtc, entry.DeletedUtc,
            begun ? bank!.Voltage?.SystemV : null, begun ? bank!.Voltage?.NominalV : null, bank?.Bank?.UsableWh, bank?.Bank?.Series, bank?.Bank?.Parallel,
            bank?.Bank is { } b ? $"{b.Series}S{b.Parallel}P" : "", bank?.MainRun?.AreaMm2, bank?.MainRun?.Conductors ?? 1,
            bank?.MainRun is { AmpacityA: > 0 } run ? run.DesignA / run.AmpacityA : null, bank?.Inverter?.Item is { } item ? item.ContinuousW * bank.Inverter.Stack : null,
            [.. (bank?.Loads?.Rows ?? []).Select(r => r.RunningW).OrderDescending().Take(LoadsShown)],
            evaluation.Counts.Wrong, evaluation.Counts.ToLookAt, evaluation.FirstToDo);
    }
}

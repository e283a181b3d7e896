using System.Collections.Concurrent;
using System.Diagnostics;
using InkyBadger.Core;
using InkyBadger.Core.Design;
using InkyBadger.Storage;

namespace InkyBadger.Server.Designs;

/// <summary>
/// A card of the shelf: the figures that tell designs apart, and what its miniature is drawn from. Figures are null where they are not
/// worked out yet; <see cref="Ready"/> is false while they are still on their way. A design that cannot be read says why, and in which file
/// of the data folder its text was set aside.
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
    string? FirstToDo,
    bool Ready,
    string? Unreadable,
    string? SetAside,
    bool Demo
);

/// <summary>
/// Works cards out once for each revision. What is not known yet is worked out while somebody waits as long as that is quick, then in the
/// background: the list is there at once and fills in.
/// </summary>
public sealed class ShelfCards(IServiceScopeFactory scopes, DataFolder folder)
{
    private const int LoadsShown = 5,
        AtOnce = 8;
    private static readonly TimeSpan WhileWaiting = TimeSpan.FromMilliseconds(300);

    private readonly ConcurrentDictionary<string, (long Revision, DesignCard Card)> known = new();
    private readonly Lock gate = new();
    private readonly Dictionary<string, StoredEntry> toDo = [];
    private bool filling;

    /// <summary>In the background it takes a tenth of a core, so that nobody who types waits for it.</summary>
    private const int RestTimes = 9;

    private bool Knows(StoredEntry e) => known.TryGetValue(e.Id, out var card) && card.Revision == e.Revision;

    public async Task<List<DesignCard>> OfAsync(IReadOnlyList<StoredEntry> entries, DesignStore store, CancellationToken stop)
    {
        var missing = entries.Where(e => !Knows(e)).ToList();
        var clock = Stopwatch.StartNew();
        foreach (var some in missing.Chunk(AtOnce))
        {
            if (clock.Elapsed > WhileWaiting)
                break;
            await LearnAsync(some, store, stop);
        }
        Fill(missing);
        return
        [
            .. entries.Select(e =>
                known.TryGetValue(e.Id, out var found) && found.Revision == e.Revision
                    ? found.Card with
                    {
                        UpdatedUtc = e.UpdatedUtc,
                        DeletedUtc = e.DeletedUtc,
                    }
                    : Blank(e) with
                    {
                        Ready = false,
                    }
            ),
        ];
    }

    /// <summary>A design as it has just been kept: its card will be ready before somebody looks at the shelf.</summary>
    public void Soon(StoredDesign stored) => Fill([new(stored.Id, DesignName.Of(stored.Design), stored.Revision, stored.UpdatedUtc, null)]);

    /// <summary>Works out in the background what nobody has to wait for.</summary>
    public void Fill(IReadOnlyList<StoredEntry> entries)
    {
        lock (gate)
        {
            foreach (var entry in entries)
                if (!Knows(entry))
                    toDo[entry.Id] = entry;
            if (filling || toDo.Count == 0)
                return;
            filling = true;
        }
        _ = Task.Run(FillAsync);
    }

    private async Task FillAsync()
    {
        while (true)
        {
            List<StoredEntry> some;
            lock (gate)
            {
                some = [.. toDo.Values.Take(AtOnce)];
                foreach (var entry in some)
                    toDo.Remove(entry.Id);
                if (some.Count == 0)
                {
                    filling = false;
                    return;
                }
            }
            var clock = Stopwatch.StartNew();
            try
            {
                using var scope = scopes.CreateScope();
                await LearnAsync([.. some.Where(e => !Knows(e))], scope.ServiceProvider.GetRequiredService<DesignStore>(), default);
            }
            catch (Exception e) when (Database.Explain(e) is not null || e is ObjectDisposedException)
            {
                // The next list asks for them again.
            }
            await Task.Delay(RestTimes * clock.Elapsed);
        }
    }

    private async Task LearnAsync(IReadOnlyList<StoredEntry> entries, DesignStore store, CancellationToken stop)
    {
        if (entries.Count == 0)
            return;
        var documents = await store.DocumentsAsync([.. entries.Select(e => e.Id)], stop);
        foreach (var entry in entries)
            if (documents.TryGetValue(entry.Id, out var stored))
                known[entry.Id] = (
                    entry.Revision,
                    stored.Design is { } design && entry.Fault is null
                        ? Make(entry, design)
                        : Blank(entry) with
                        {
                            Unreadable = stored.Fault ?? entry.Fault,
                            SetAside = SetAside(entry, stored.Text),
                        }
                );
    }

    /// <summary>
    /// The text of a design that cannot be read, as a file of its own beside the database; null where that cannot be written.
    /// </summary>
    private string? SetAside(StoredEntry entry, string text)
    {
        var file = $"inky-badger-unreadable-{string.Concat(entry.Id.Where(char.IsAsciiLetterOrDigit).Take(40))}-{entry.Revision}.txt";
        try
        {
            var path = Path.Combine(folder.Path, file);
            if (!File.Exists(path))
                File.WriteAllText(path, text);
            return file;
        }
        catch (Exception e) when (e is IOException or UnauthorizedAccessException)
        {
            return null;
        }
    }

    private static DesignCard Blank(StoredEntry e) =>
        new(
            e.Id,
            e.Name,
            e.UpdatedUtc,
            e.DeletedUtc,
            null,
            null,
            null,
            null,
            null,
            "",
            null,
            1,
            null,
            null,
            [],
            0,
            0,
            null,
            true,
            null,
            null,
            false
        );

    private static DesignCard Make(StoredEntry entry, DesignDocument design)
    {
        var evaluation = Evaluator.Evaluate(design);
        var bank = evaluation.Banks.Count > 0 ? evaluation.Banks[0] : null;
        var begun = bank?.Loads is not null || bank?.Bank is not null;
        return Blank(entry) with
        {
            SystemV = begun ? bank!.Voltage?.SystemV : null,
            NominalV = begun ? bank!.Voltage?.NominalV : null,
            UsableWh = bank?.Bank?.Holds.UsableWh,
            Series = bank?.Bank?.Layout.Series,
            Parallel = bank?.Bank?.Layout.Parallel,
            Arrangement = bank?.Bank is { } b ? $"{b.Layout.Series}S{b.Layout.Parallel}P" : "",
            AreaMm2 = bank?.MainRun?.Cable.AreaMm2,
            Conductors = bank?.MainRun?.Cable.Conductors ?? 1,
            Share = bank?.MainRun is { Carries.AmpacityA: > 0 } run ? run.DesignA / run.Carries.AmpacityA : null,
            InverterW = bank?.Inverter?.Item is { } item ? item.ContinuousW * bank.Inverter.Stack : null,
            LoadsW = [.. (bank?.Loads?.Rows ?? []).Select(r => r.RunningW).OrderDescending().Take(LoadsShown)],
            Wrong = evaluation.Counts.Wrong,
            ToLookAt = evaluation.Counts.ToLookAt,
            FirstToDo = evaluation.FirstToDo,
            Demo = design.Demo,
        };
    }
}

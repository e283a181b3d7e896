using InkyBadger.Core.Demo;
using InkyBadger.Core.Design;
using Microsoft.EntityFrameworkCore;

namespace InkyBadger.Storage;

/// <summary>A stored design with its revision, and whether there is a state to go back to or forward to.</summary>
public sealed record StoredDesign(string Id, long Revision, DateTime UpdatedUtc, DesignDocument Design, bool CanUndo, bool CanRedo);

/// <summary>What the shelf must know of a design before its document is read.</summary>
public sealed record StoredEntry(string Id, string Name, long Revision, DateTime UpdatedUtc, DateTime? DeletedUtc);

/// <summary>How a write ended.</summary>
public enum WriteOutcome { Done, NotFound, Stale, Nothing }

/// <summary>Keeps designs in SQLite. Every write is one transaction; a revision never goes back.</summary>
public sealed class DesignStore(BadgerDb db, TimeProvider clock)
{
    /// <summary>States a design can go back by.</summary>
    public const int MostStates = 200;

    /// <summary>Days the bin keeps a design.</summary>
    public const int BinDays = 30;

    /// <summary>A new database gets the demo designs; what lay in the bin for long enough goes.</summary>
    public async Task SettleAsync(bool isNew, bool seed, CancellationToken stop = default)
    {
        var oldest = Now.AddDays(-BinDays);
        await db.Designs.Where(d => d.DeletedUtc < oldest).ExecuteDeleteAsync(stop);
        if (!isNew || !seed) return;
        // The first of the demo designs is the newest, so that it stands first on the shelf.
        var now = Now;
        foreach (var (i, design) in DemoDesigns.All.Index()) Add(design, now.AddMilliseconds(-i));
        await db.SaveChangesAsync(stop);
    }

    private DateTime Now => clock.GetUtcNow().UtcDateTime;

    /// <summary>The shelf, or the bin, newest first.</summary>
    public async Task<IReadOnlyList<StoredEntry>> ListAsync(bool bin, CancellationToken stop) =>
        [.. (await db.Designs.AsNoTracking().Where(d => d.DeletedUtc != null == bin).OrderByDescending(d => d.UpdatedUtc)
            .Select(d => new StoredEntry(d.Id, d.Name, d.Revision, d.UpdatedUtc, d.DeletedUtc)).ToListAsync(stop)).Select(e => e with { UpdatedUtc = Utc(e.UpdatedUtc), DeletedUtc = e.DeletedUtc is { } x ? Utc(x) : null })];

    /// <summary>Documents of the designs named, wherever they are.</summary>
    public async Task<IReadOnlyDictionary<string, DesignDocument>> DocumentsAsync(IReadOnlyCollection<string> ids, CancellationToken stop) =>
        await db.Designs.AsNoTracking().Where(d => ids.Contains(d.Id)).ToDictionaryAsync(d => d.Id, d => DesignFormat.Read(d.Document), stop);

    public async Task<StoredDesign?> FindAsync(string id, CancellationToken stop) =>
        await OnShelf(id).AsNoTracking().FirstOrDefaultAsync(stop) is { } row ? await ReadAsync(row, stop) : null;

    private IQueryable<DesignRow> OnShelf(string id) => db.Designs.Where(d => d.Id == id && d.DeletedUtc == null);

    public async Task<StoredDesign> AddAsync(DesignDocument design, CancellationToken stop) => (await AddAllAsync([design], stop))[0];

    /// <summary>All of them or none.</summary>
    public async Task<IReadOnlyList<StoredDesign>> AddAllAsync(IReadOnlyList<DesignDocument> designs, CancellationToken stop)
    {
        var now = Now;
        var rows = designs.Select((d, i) => Add(d, now.AddMilliseconds(-i))).ToList();
        await db.SaveChangesAsync(stop);
        return [.. rows.Select(r => new StoredDesign(r.Id, r.Revision, Utc(r.UpdatedUtc), DesignFormat.Read(r.Document), false, false))];
    }

    private DesignRow Add(DesignDocument design, DateTime when)
    {
        var row = new DesignRow { Id = Guid.NewGuid().ToString("n")[..12], Name = design.Name, Document = DesignFormat.Write(design), Revision = 1, CreatedUtc = when, UpdatedUtc = when };
        db.Designs.Add(row);
        return row;
    }

    /// <summary>Keeps a newer state when <paramref name="revision"/> is still the newest. States that were undone are dropped.</summary>
    public Task<(WriteOutcome Outcome, StoredDesign? Now)> ReplaceAsync(string id, long revision, DesignDocument design, CancellationToken stop) =>
        ChangeAsync(id, revision, async row =>
        {
            var text = DesignFormat.Write(design);
            await db.States.Where(s => s.DesignId == id && s.Number > row.StateAt).ExecuteDeleteAsync(stop);
            if (!await db.States.AnyAsync(s => s.DesignId == id, stop)) AddState(row, row.StateAt, row.Document);
            AddState(row, ++row.StateAt, text);
            var oldest = row.StateAt - MostStates;
            await db.States.Where(s => s.DesignId == id && s.Number < oldest).ExecuteDeleteAsync(stop);
            row.Document = text;
            return true;
        }, stop);

    /// <summary>One state back. The revision still rises.</summary>
    public Task<(WriteOutcome Outcome, StoredDesign? Now)> UndoAsync(string id, long revision, CancellationToken stop) =>
        ChangeAsync(id, revision, row => GoToAsync(row, db.States.Where(s => s.DesignId == id && s.Number < row.StateAt).OrderByDescending(s => s.Number), stop), stop);

    /// <summary>One state forward, as long as nothing was changed since the undo.</summary>
    public Task<(WriteOutcome Outcome, StoredDesign? Now)> RedoAsync(string id, long revision, CancellationToken stop) =>
        ChangeAsync(id, revision, row => GoToAsync(row, db.States.Where(s => s.DesignId == id && s.Number > row.StateAt).OrderBy(s => s.Number), stop), stop);

    private static async Task<bool> GoToAsync(DesignRow row, IQueryable<StateRow> states, CancellationToken stop)
    {
        if (await states.AsNoTracking().FirstOrDefaultAsync(stop) is not { } state) return false;
        row.Document = state.Document;
        row.StateAt = state.Number;
        return true;
    }

    private void AddState(DesignRow row, long number, string document) => db.States.Add(new() { DesignId = row.Id, Number = number, Document = document, WhenUtc = Now });

    private async Task<(WriteOutcome, StoredDesign?)> ChangeAsync(string id, long revision, Func<DesignRow, Task<bool>> change, CancellationToken stop)
    {
        // A transaction that means to write takes its place in the queue at once, instead of finding out when it commits.
        await db.Database.OpenConnectionAsync(stop);
        await using var transaction = await db.Database.BeginTransactionAsync(System.Data.IsolationLevel.Serializable, stop);
        var row = await OnShelf(id).FirstOrDefaultAsync(stop);
        if (row is null) return (WriteOutcome.NotFound, null);
        if (row.Revision != revision) return (WriteOutcome.Stale, await ReadAsync(row, stop));
        if (!await change(row)) return (WriteOutcome.Nothing, await ReadAsync(row, stop));
        row.Name = DesignFormat.Read(row.Document).Name;
        row.Revision++;
        row.UpdatedUtc = Now;
        await db.SaveChangesAsync(stop);
        var now = await ReadAsync(row, stop);
        await transaction.CommitAsync(stop);
        return (WriteOutcome.Done, now);
    }

    /// <summary>Takes a design off the shelf into the bin.</summary>
    public async Task<bool> RemoveAsync(string id, CancellationToken stop) =>
        await OnShelf(id).ExecuteUpdateAsync(d => d.SetProperty(x => x.DeletedUtc, Now), stop) > 0;

    /// <summary>Takes a design back out of the bin.</summary>
    public async Task<bool> RestoreAsync(string id, CancellationToken stop) =>
        await db.Designs.Where(d => d.Id == id && d.DeletedUtc != null).ExecuteUpdateAsync(d => d.SetProperty(x => x.DeletedUtc, (DateTime?)null), stop) > 0;

    private async Task<StoredDesign> ReadAsync(DesignRow row, CancellationToken stop)
    {
        var numbers = db.States.AsNoTracking().Where(s => s.DesignId == row.Id);
        var canUndo = await numbers.AnyAsync(s => s.Number < row.StateAt, stop);
        var canRedo = await numbers.AnyAsync(s => s.Number > row.StateAt, stop);
        return new(row.Id, row.Revision, Utc(row.UpdatedUtc), DesignFormat.Read(row.Document), canUndo, canRedo);
    }

    private static DateTime Utc(DateTime kept) => DateTime.SpecifyKind(kept, DateTimeKind.Utc);
}

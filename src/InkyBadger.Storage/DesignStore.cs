using InkyBadger.Core.Demo;
using InkyBadger.Core.Design;
using Microsoft.EntityFrameworkCore;

namespace InkyBadger.Storage;

/// <summary>A stored design with its revision.</summary>
public sealed record StoredDesign(string Id, long Revision, DateTime UpdatedUtc, DesignDocument Design);

/// <summary>How a write ended.</summary>
public enum WriteOutcome { Done, NotFound, Stale }

/// <summary>Keeps designs in SQLite. Every write is one transaction.</summary>
public sealed class DesignStore(BadgerDb db, TimeProvider clock)
{
    /// <summary>Makes or upgrades the database; a new one gets the demo designs unless it is to stay empty.</summary>
    public async Task PrepareAsync(bool seed, CancellationToken stop = default)
    {
        var isNew = !(await db.Database.GetAppliedMigrationsAsync(stop)).Any();
        await db.Database.MigrateAsync(stop);
        if (!isNew || !seed) return;
        // The first of the demo designs is written last, so that it stands first on the shelf.
        foreach (var design in DemoDesigns.All.Reverse()) db.Designs.Add(NewRow(design));
        await db.SaveChangesAsync(stop);
    }

    public async Task<IReadOnlyList<StoredDesign>> ListAsync(CancellationToken stop) =>
        [.. (await db.Designs.AsNoTracking().Where(d => d.DeletedUtc == null).OrderByDescending(d => d.UpdatedUtc).ToListAsync(stop)).Select(Read)];

    public async Task<StoredDesign?> FindAsync(string id, CancellationToken stop) =>
        await db.Designs.AsNoTracking().FirstOrDefaultAsync(d => d.Id == id && d.DeletedUtc == null, stop) is { } row ? Read(row) : null;

    public async Task<StoredDesign> AddAsync(DesignDocument design, CancellationToken stop)
    {
        var row = NewRow(design);
        db.Designs.Add(row);
        await db.SaveChangesAsync(stop);
        return Read(row);
    }

    /// <summary>Replaces the document when <paramref name="revision"/> is still the newest.</summary>
    public async Task<(WriteOutcome Outcome, StoredDesign? Now)> ReplaceAsync(string id, long revision, DesignDocument design, CancellationToken stop)
    {
        var row = await db.Designs.FirstOrDefaultAsync(d => d.Id == id && d.DeletedUtc == null, stop);
        if (row is null) return (WriteOutcome.NotFound, null);
        if (row.Revision != revision) return (WriteOutcome.Stale, Read(row));
        row.Name = design.Name;
        row.Document = DesignFormat.Write(design);
        row.Revision++;
        row.UpdatedUtc = clock.GetUtcNow().UtcDateTime;
        try
        {
            await db.SaveChangesAsync(stop);
        }
        catch (DbUpdateConcurrencyException)
        {
            db.ChangeTracker.Clear();
            return (WriteOutcome.Stale, await FindAsync(id, stop));
        }
        return (WriteOutcome.Done, Read(row));
    }

    /// <summary>Takes a design off the shelf; the row stays.</summary>
    public async Task<bool> RemoveAsync(string id, CancellationToken stop) =>
        await db.Designs.Where(d => d.Id == id && d.DeletedUtc == null)
            .ExecuteUpdateAsync(d => d.SetProperty(x => x.DeletedUtc, clock.GetUtcNow().UtcDateTime), stop) > 0;

    private DesignRow NewRow(DesignDocument design)
    {
        var now = clock.GetUtcNow().UtcDateTime;
        return new() { Id = Guid.NewGuid().ToString("n")[..12], Name = design.Name, Document = DesignFormat.Write(design), Revision = 1, CreatedUtc = now, UpdatedUtc = now };
    }

    private static StoredDesign Read(DesignRow row) => new(row.Id, row.Revision, DateTime.SpecifyKind(row.UpdatedUtc, DateTimeKind.Utc), DesignFormat.Read(row.Document));
}

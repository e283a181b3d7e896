using System.Globalization;
using InkyBadger.Core.Demo;
using InkyBadger.Core.Design;
using Microsoft.EntityFrameworkCore;

namespace InkyBadger.Storage;

/// <summary>A stored design with its revision, and whether there is a state to go back to or forward to.</summary>
public sealed record StoredDesign(string Id, long Revision, DateTime UpdatedUtc, DesignDocument Design, bool CanUndo, bool CanRedo);

/// <summary>
/// What the shelf must know of a design before its document is read. <paramref name="Fault"/>: why not even this can be read whole.
/// </summary>
public sealed record StoredEntry(string Id, string Name, long Revision, DateTime UpdatedUtc, DateTime? DeletedUtc, string? Fault = null);

/// <summary>A document as it stands in the database: read, or its text and why it cannot be.</summary>
public sealed record StoredDocument(DesignDocument? Design, string Text, string? Fault);

/// <summary>A design is there and cannot be read. Its text is untouched.</summary>
public sealed class UnreadableDesign(string id, string why)
    : Exception($"The design {id} is there but cannot be read: {why}. Its text can be taken out as a file from the shelf.");

/// <summary>How a write ended.</summary>
public enum WriteOutcome
{
    Done,
    NotFound,
    Stale,
    Nothing,
}

/// <summary>Keeps designs in SQLite. Every write is whole or not at all; a revision never goes back.</summary>
public sealed class DesignStore(BadgerDb db, WriteQueue writes, TimeProvider clock)
{
    /// <summary>States a design can go back by.</summary>
    public const int MostStates = 200;

    /// <summary>Days of seen time the bin keeps a design.</summary>
    public const int BinDays = 30;

    /// <summary>
    /// A database that was never settled gets the demo designs, or is begun without them; either is remembered together with them.
    /// </summary>
    public Task SettleAsync(bool seed, CancellationToken stop = default) =>
        writes.RunAsync(
            async turn =>
            {
                // The first of the demo designs is the newest, so that it stands first on the shelf.
                var now = Now;
                if (seed)
                    foreach (var (i, design) in DemoDesigns.All.Index())
                    {
                        var row = Add(turn.Db, design, now.AddMilliseconds(-i));
                        // Its readings are made when a log is first looked at: a start need not wait for them.
                        if (i == 0)
                            turn.Db.Facts.Add(new() { Name = FactNames.DemoLog, Value = row.Id });
                    }
                turn.Db.Facts.Add(new() { Name = FactNames.Settled, Value = seed ? "with demo designs" : "empty" });
                await turn.Db.SaveChangesAsync();
                return true;
            },
            stop
        );

    private DateTime Now => clock.GetUtcNow().UtcDateTime;

    private sealed record RawEntry(string? Id, string? Name, long? Revision, string? UpdatedUtc, string? DeletedUtc);

    private sealed record RawDocument(string? Id, string? Document);

    /// <summary>The shelf, or the bin, newest first. A row is told for what it is, whatever it holds.</summary>
    public async Task<IReadOnlyList<StoredEntry>> ListAsync(bool bin, CancellationToken stop) => [.. (
                await db
                    .Database.SqlQuery<RawEntry>(
                        $"""
                        SELECT CAST(Id AS TEXT) AS Id, CAST(Name AS TEXT) AS Name, CAST(Revision AS INTEGER) AS Revision,
                          CAST(UpdatedUtc AS TEXT) AS UpdatedUtc, CAST(DeletedUtc AS TEXT) AS DeletedUtc
                        FROM designs WHERE (DeletedUtc IS NOT NULL) = {bin} ORDER BY UpdatedUtc DESC
                        """
                    )
                    .ToListAsync(stop)
            ).Where(r => r.Id is not null).Select(Entry)];

    private static StoredEntry Entry(RawEntry r)
    {
        var (updated, deleted) = (When(r.UpdatedUtc), When(r.DeletedUtc));
        var fault = updated is null || r.DeletedUtc is not null && deleted is null ? "its date cannot be read" : null;
        return new(
            r.Id!,
            string.IsNullOrEmpty(r.Name) ? r.Id! : r.Name,
            r.Revision ?? 0,
            updated ?? DateTime.UnixEpoch,
            r.DeletedUtc is null ? null : deleted ?? DateTime.UnixEpoch,
            fault
        );
    }

    private static DateTime? When(string? text) =>
        DateTime.TryParse(
            text,
            CultureInfo.InvariantCulture,
            DateTimeStyles.AssumeUniversal | DateTimeStyles.AdjustToUniversal,
            out var when
        )
            ? when
            : null;

    /// <summary>Documents of the designs named, wherever they are; one that cannot be read takes no other with it.</summary>
    public async Task<IReadOnlyDictionary<string, StoredDocument>> DocumentsAsync(IReadOnlyCollection<string> ids, CancellationToken stop)
    {
        var found = new Dictionary<string, StoredDocument>();
        foreach (var some in ids.Chunk(100))
        {
            var list = System.Text.Json.JsonSerializer.Serialize(some);
            foreach (
                var row in await db
                    .Database.SqlQuery<RawDocument>(
                        $"""
                        SELECT CAST(Id AS TEXT) AS Id, CAST(Document AS TEXT) AS Document
                        FROM designs WHERE Id IN (SELECT value FROM json_each({list}))
                        """
                    )
                    .ToListAsync(stop)
            )
                found[row.Id!] = Document(row.Document);
        }
        return found;
    }

    private static StoredDocument Document(string? text)
    {
        if (text is null)
            return new(null, "", "it holds nothing");
        try
        {
            return new(DesignFormat.Read(text), text, null);
        }
        catch (System.Text.Json.JsonException e)
        {
            return new(
                null,
                text,
                e.Path is { Length: > 0 } path ? $"its text breaks off at {path.TrimStart('$', '.')}" : "its text is no design"
            );
        }
    }

    public async Task<StoredDesign?> FindAsync(string id, CancellationToken stop) =>
        await ReadableAsync(id, async () =>
            await OnShelf(db, id).AsNoTracking().FirstOrDefaultAsync(stop) is { } row ? await ReadAsync(db, row, stop) : null
        );

    /// <exception cref="UnreadableDesign">Something of the row is not what it must be.</exception>
    private static async Task<T> ReadableAsync<T>(string id, Func<Task<T>> read)
    {
        try
        {
            return await read();
        }
        catch (Exception e)
            when (e is System.Text.Json.JsonException or FormatException or InvalidCastException
                || e is InvalidOperationException and not ObjectDisposedException
            )
        {
            throw new UnreadableDesign(id, e is System.Text.Json.JsonException ? "its text is no design" : "its row is not as it must be");
        }
    }

    private static IQueryable<DesignRow> OnShelf(BadgerDb db, string id) => db.Designs.Where(d => d.Id == id && d.DeletedUtc == null);

    public async Task<StoredDesign> AddAsync(DesignDocument design, CancellationToken stop) => (await AddAllAsync([design], stop))[0];

    /// <summary>All of them or none.</summary>
    public Task<IReadOnlyList<StoredDesign>> AddAllAsync(IReadOnlyList<DesignDocument> designs, CancellationToken stop) =>
        writes.RunAsync<IReadOnlyList<StoredDesign>>(
            async turn =>
            {
                var now = Now;
                var rows = designs.Select((d, i) => Add(turn.Db, d, now.AddMilliseconds(-i))).ToList();
                await turn.Db.SaveChangesAsync();
                return [.. rows.Select((r, i) => new StoredDesign(r.Id, r.Revision, Utc(r.UpdatedUtc), designs[i], false, false))];
            },
            stop
        );

    private static DesignRow Add(BadgerDb to, DesignDocument design, DateTime when)
    {
        var row = new DesignRow
        {
            Id = Guid.NewGuid().ToString("n")[..12],
            Name = DesignName.Of(design),
            Document = DesignFormat.Write(design),
            Revision = 1,
            CreatedUtc = when,
            UpdatedUtc = when,
        };
        to.Designs.Add(row);
        return row;
    }

    /// <summary>
    /// Keeps a newer state when <paramref name="revision"/> is still the newest. States that were undone are dropped. This one comes with
    /// every edit of everybody, so it is said to the database in its own words.
    /// </summary>
    public Task<(WriteOutcome Outcome, StoredDesign? Now)> ReplaceAsync(
        string id,
        long revision,
        DesignDocument design,
        CancellationToken stop
    )
    {
        var text = DesignFormat.Write(design);
        return writes.RunAsync(turn => ReadableAsync(id, () => Task.FromResult(Replace(turn, id, revision, design, text))), stop);
    }

    private (WriteOutcome, StoredDesign?) Replace(WriteQueue.Turn turn, string id, long revision, DesignDocument design, string text)
    {
        var now = Now;
        long at;
        using (var find = turn.Command("SELECT Revision, StateAt FROM designs WHERE Id = $id AND DeletedUtc IS NULL", ("$id", id)))
        using (var row = find.ExecuteReader())
        {
            if (!row.Read())
                return (WriteOutcome.NotFound, null);
            if (row.GetInt64(0) != revision)
                return (WriteOutcome.Stale, null);
            at = row.GetInt64(1);
        }
        void Do(string sql, params ReadOnlySpan<(string, object)> more)
        {
            using var command = turn.Command(sql, [("$id", id), ("$at", at), .. more]);
            command.ExecuteNonQuery();
        }
        Do("DELETE FROM states WHERE DesignId = $id AND Number > $at");
        // What it was before its first edit has never been a state.
        if (at == 0)
            Do(
                "INSERT OR IGNORE INTO states (DesignId, Number, Document, WhenUtc) SELECT Id, $at, Document, $now FROM designs "
                    + "WHERE Id = $id",
                ("$now", now)
            );
        at++;
        Do("INSERT INTO states (DesignId, Number, Document, WhenUtc) VALUES ($id, $at, $text, $now)", ("$text", text), ("$now", now));
        if (at > MostStates)
            Do("DELETE FROM states WHERE DesignId = $id AND Number < $at - $most", ("$most", MostStates));
        Do(
            "UPDATE designs SET Document = $text, Name = $name, Revision = Revision + 1, UpdatedUtc = $now, StateAt = $at WHERE Id = $id",
            ("$text", text),
            ("$name", DesignName.Of(design)),
            ("$now", now)
        );
        return (WriteOutcome.Done, new(id, revision + 1, now, design, CanUndo: true, CanRedo: false));
    }

    /// <summary>One state back. The revision still rises.</summary>
    public Task<(WriteOutcome Outcome, StoredDesign? Now)> UndoAsync(string id, long revision, CancellationToken stop) =>
        ChangeAsync(
            id,
            revision,
            (to, row) =>
                GoToAsync(to, row, to.States.Where(s => s.DesignId == id && s.Number < row.StateAt).OrderByDescending(s => s.Number)),
            stop
        );

    /// <summary>One state forward, as long as nothing was changed since the undo.</summary>
    public Task<(WriteOutcome Outcome, StoredDesign? Now)> RedoAsync(string id, long revision, CancellationToken stop) =>
        ChangeAsync(
            id,
            revision,
            (to, row) => GoToAsync(to, row, to.States.Where(s => s.DesignId == id && s.Number > row.StateAt).OrderBy(s => s.Number)),
            stop
        );

    private static async Task<StoredDesign?> GoToAsync(BadgerDb to, DesignRow row, IQueryable<StateRow> states)
    {
        if (await states.AsNoTracking().FirstOrDefaultAsync() is not { } state)
            return null;
        var design = DesignFormat.Read(state.Document);
        row.Document = state.Document;
        row.StateAt = state.Number;
        row.Name = DesignName.Of(design);
        var (canUndo, canRedo) = await WaysAsync(to, row, default);
        return new(row.Id, row.Revision + 1, row.UpdatedUtc, design, canUndo, canRedo);
    }

    /// <param name="change">Changes the row and says what is then kept; null: there is nothing to do.</param>
    private Task<(WriteOutcome, StoredDesign?)> ChangeAsync(
        string id,
        long revision,
        Func<BadgerDb, DesignRow, Task<StoredDesign?>> change,
        CancellationToken stop
    ) => writes.RunAsync(turn => ReadableAsync<(WriteOutcome, StoredDesign?)>(id, async () =>
                {
                    var to = turn.Db;
                    var row = await OnShelf(to, id).FirstOrDefaultAsync();
                    if (row is null)
                        return (WriteOutcome.NotFound, null);
                    if (row.Revision != revision)
                        return (WriteOutcome.Stale, null);
                    row.UpdatedUtc = Now;
                    if (await change(to, row) is not { } now)
                        return (WriteOutcome.Nothing, null);
                    row.Revision++;
                    await to.SaveChangesAsync();
                    return (WriteOutcome.Done, now with { UpdatedUtc = Utc(row.UpdatedUtc) });
                }), stop);

    /// <summary>Takes a design off the shelf into the bin.</summary>
    public Task<bool> RemoveAsync(string id, CancellationToken stop) =>
        writes.RunAsync(
            async turn =>
            {
                var seen = await SeenTime.HoursAsync(turn.Db);
                return await OnShelf(turn.Db, id)
                        .ExecuteUpdateAsync(d => d.SetProperty(x => x.DeletedUtc, Now).SetProperty(x => x.DeletedAtSeenH, seen)) > 0;
            },
            stop
        );

    /// <summary>Takes a design back out of the bin.</summary>
    public Task<bool> RestoreAsync(string id, CancellationToken stop) =>
        writes.RunAsync(
            async turn =>
                await turn
                    .Db.Designs.Where(d => d.Id == id && d.DeletedUtc != null)
                    .ExecuteUpdateAsync(d =>
                        d.SetProperty(x => x.DeletedUtc, (DateTime?)null).SetProperty(x => x.DeletedAtSeenH, (double?)null)
                    ) > 0,
            stop
        );

    private static async Task<StoredDesign> ReadAsync(BadgerDb db, DesignRow row, CancellationToken stop)
    {
        var (canUndo, canRedo) = await WaysAsync(db, row, stop);
        return new(row.Id, row.Revision, Utc(row.UpdatedUtc), DesignFormat.Read(row.Document), canUndo, canRedo);
    }

    private static async Task<(bool Undo, bool Redo)> WaysAsync(BadgerDb db, DesignRow row, CancellationToken stop)
    {
        var states = db.States.AsNoTracking().Where(s => s.DesignId == row.Id);
        return (await states.AnyAsync(s => s.Number < row.StateAt, stop), await states.AnyAsync(s => s.Number > row.StateAt, stop));
    }

    private static DateTime Utc(DateTime kept) => DateTime.SpecifyKind(kept, DateTimeKind.Utc);
}

using System.Globalization;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;

namespace InkyBadger.Storage;

/// <summary>
/// Makes the database ready at a start, whatever the last one left: finishes what was begun, carries over what can be read of a damaged
/// file, refuses a newer one, keeps a copy before the tables change. The caller holds the folder's lock, so nobody else is at it.
/// </summary>
public static class Preparation
{
    private static readonly TimeSpan Patience = TimeSpan.FromSeconds(10);

    /// <param name="tell">Gets what the user should be told, a sentence at a time, as it happens.</param>
    /// <returns>Whether a database was begun that has never been settled.</returns>
    /// <exception cref="StartRefused">The database is a newer program's.</exception>
    public static async Task<bool> RunAsync(
        BadgerDb db,
        string dataFolder,
        DateTime nowUtc,
        Action<string> tell,
        CancellationToken stop = default
    )
    {
        Swap.Finish(dataFolder);
        var file = Database.FileIn(dataFolder);
        var stamp = nowUtc.ToString("yyyyMMdd-HHmmss", CultureInfo.InvariantCulture);
        if (File.Exists(file))
        {
            if (await UnlessHeldAsync(() => IsDamagedAsync(dataFolder, stop), file, tell, stop))
                await Salvage.RunAsync(dataFolder, stamp, tell, stop);
            await UnlessHeldAsync(() => CanWriteAsync(dataFolder, stop), file, tell, stop);
        }
        else
        {
            SetJournalAside(file, stamp, tell);
            Create(file);
        }
        var applied = (await db.Database.GetAppliedMigrationsAsync(stop)).ToList();
        if (applied.Except(db.Database.GetMigrations()).Any())
            throw new StartRefused(
                $"the database {file} was written by a newer Inky Badger, and is left as it is. Start the newer one, or take "
                    + $"another folder with --data."
            );
        var pending = (await db.Database.GetPendingMigrationsAsync(stop)).ToList();
        if (pending.Count > 0)
            await MigrateAsync(db, dataFolder, applied, pending, stamp, tell, stop);
        return !await db.Facts.AnyAsync(f => f.Name == FactNames.Settled, stop);
    }

    private static async Task MigrateAsync(
        BadgerDb db,
        string dataFolder,
        List<string> applied,
        List<string> pending,
        string stamp,
        Action<string> tell,
        CancellationToken stop
    )
    {
        if (applied.Count > 0)
        {
            var copy = Database.Free(Path.Combine(dataFolder, $"inky-badger-before-{pending[^1]}-{stamp}.db"));
            await Backup.WriteAsync(dataFolder, copy, stop);
            tell($"The database is being brought up to date. As it was before it stays in {copy}.");
        }
        await LetGoAsync(db, stop);
        await db.Database.MigrateAsync(stop);
        // Older databases were settled before that was written down: they must not be given the demo designs.
        if (applied.Count > 0)
            await db.Database.ExecuteSqlAsync($"INSERT OR IGNORE INTO facts (Name, Value) VALUES ({FactNames.Settled}, 'before')", stop);
    }

    /// <summary>
    /// A migration's own lock is a row, and outlives a process that was killed. Whoever holds the folder knows that nobody holds that row.
    /// </summary>
    private static async Task LetGoAsync(BadgerDb db, CancellationToken stop)
    {
        var there = await db
            .Database.SqlQuery<int>($"SELECT count(*) AS Value FROM sqlite_master WHERE name = '__EFMigrationsLock'")
            .SingleAsync(stop);
        if (there > 0)
            await db.Database.ExecuteSqlAsync($"DELETE FROM __EFMigrationsLock", stop);
    }

    /// <summary>A journal without its database holds edits of one that was moved away: a new database of that name would wipe it.</summary>
    private static void SetJournalAside(string file, string stamp, Action<string> tell)
    {
        if (new FileInfo(file + "-wal") is not { Exists: true, Length: > 0 })
            return;
        var aside = Database.Free(Path.Combine(Path.GetDirectoryName(file)!, $"inky-badger-left-{stamp}.db-wal"));
        File.Move(file + "-wal", aside);
        File.Delete(file + "-shm");
        tell(
            $"There is no database {file}, but the journal of one. It was set aside as {aside}: beside its database, as that "
                + $"file’s name with -wal, it is read again."
        );
    }

    private static void Create(string file)
    {
        using var connection = new SqliteConnection(
            new SqliteConnectionStringBuilder
            {
                DataSource = file,
                Mode = SqliteOpenMode.ReadWriteCreate,
                Pooling = false,
            }.ToString()
        );
        connection.Open();
        using var command = connection.CreateCommand();
        command.CommandText = "PRAGMA journal_mode=WAL";
        command.ExecuteNonQuery();
    }

    /// <summary>
    /// Opened for reading only, so that the file and its journal stay as they are if they are to be set aside. A change that a kill cut
    /// off halfway is the exception: its journal has to be rolled back before anything can be read, and that is writing.
    /// </summary>
    internal static async Task<bool> IsDamagedAsync(string dataFolder, CancellationToken stop)
    {
        var file = Database.FileIn(dataFolder);
        try
        {
            return await IsDamagedAsync(file, SqliteOpenMode.ReadOnly, stop);
        }
        catch (SqliteException e) when (e.SqliteErrorCode is SQLitePCL.raw.SQLITE_READONLY or SQLitePCL.raw.SQLITE_CANTOPEN)
        {
            return await IsDamagedAsync(file, SqliteOpenMode.ReadWrite, stop);
        }
    }

    private static async Task<bool> IsDamagedAsync(string file, SqliteOpenMode mode, CancellationToken stop)
    {
        try
        {
            await using var connection = await Database.OpenAsync(file, mode, stop);
            await using var check = connection.CreateCommand();
            check.CommandText = "PRAGMA quick_check(1)";
            return (string?)await check.ExecuteScalarAsync(stop) != "ok";
        }
        catch (SqliteException e) when (e.SqliteErrorCode is SQLitePCL.raw.SQLITE_CORRUPT or SQLitePCL.raw.SQLITE_NOTADB)
        {
            return true;
        }
    }

    private static async Task<bool> CanWriteAsync(string dataFolder, CancellationToken stop)
    {
        await using var connection = await Database.OpenAsync(Database.FileIn(dataFolder), SqliteOpenMode.ReadWrite, stop);
        await using var command = connection.CreateCommand();
        command.CommandText = "BEGIN IMMEDIATE; ROLLBACK;";
        await command.ExecuteNonQueryAsync(stop);
        return true;
    }

    /// <summary>A start that waits says for what.</summary>
    private static async Task<T> UnlessHeldAsync<T>(Func<Task<T>> work, string file, Action<string> tell, CancellationToken stop)
    {
        var until = DateTime.UtcNow + Patience;
        for (var told = false; ; told = true)
        {
            try
            {
                return await work();
            }
            catch (SqliteException e)
                when (e.SqliteErrorCode is SQLitePCL.raw.SQLITE_BUSY or SQLitePCL.raw.SQLITE_LOCKED && DateTime.UtcNow < until)
            {
                if (!told)
                    tell($"Waiting for another program that holds {file}…");
                await Task.Delay(100, stop);
            }
        }
    }
}

/// <summary>Things the database knows of itself.</summary>
internal static class FactNames
{
    /// <summary>The demo designs were brought, or it was decided that they are not.</summary>
    public const string Settled = "settled";

    /// <summary>Id of the demo design whose made-up readings are still to come; nothing: they came, or never will.</summary>
    public const string DemoLog = "demo-log";

    /// <summary>Hours that were seen to pass, and when it was looked last.</summary>
    public const string SeenHours = "seen-hours",
        SeenAt = "seen-at";
}

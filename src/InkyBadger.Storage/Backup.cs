using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;

namespace InkyBadger.Storage;

/// <summary>A copy that could not be made, or not be put back, in a sentence that names the file.</summary>
public sealed class BackupRefused(string sentence) : Exception(sentence);

/// <summary>Consistent copies of the database, out and back in. A file under its final name is always whole.</summary>
public static class Backup
{
    /// <summary>A stale window must notice that its state is gone even where nobody can say how far it had come.</summary>
    internal const long Leap = 1_000_000;

    /// <summary>
    /// A copy while the database is in use; the target must not be there yet. It is written beside it, checked, and then given its name.
    /// </summary>
    /// <exception cref="BackupRefused">Says why there is none.</exception>
    public static async Task WriteAsync(string dataFolder, string target, CancellationToken stop = default)
    {
        var part = target + ".part";
        try
        {
            if (File.Exists(target))
                throw new BackupRefused($"{target} is there already; a backup overwrites nothing.");
            if (!Directory.Exists(Path.GetDirectoryName(target)))
                throw new BackupRefused($"there is no folder {Path.GetDirectoryName(target)}.");
            // Left behind by one that was cut off.
            File.Delete(part);
            await CopyAsync(Database.FileIn(dataFolder), part, stop);
            Sync(part);
            File.Move(part, target);
        }
        catch (Exception e) when (e is SqliteException or IOException or UnauthorizedAccessException)
        {
            TryDelete(part);
            throw new BackupRefused(Sentence(e, dataFolder, target));
        }
        catch (OperationCanceledException)
        {
            TryDelete(part);
            throw;
        }
    }

    /// <summary>Takes a backup in place of the database, keeping what was there. The caller holds the folder's lock.</summary>
    /// <returns>What was done, a sentence each.</returns>
    /// <exception cref="BackupRefused">The file is no backup, or not one this program can read; nothing was changed.</exception>
    public static async Task<IReadOnlyList<string>> RestoreAsync(
        string dataFolder,
        string source,
        DateTime nowUtc,
        CancellationToken stop = default
    )
    {
        if (!File.Exists(source))
            throw new BackupRefused($"there is no file {source}.");
        Swap.Finish(dataFolder);
        var incoming = Swap.Incoming(dataFolder);
        try
        {
            await CopyAsync(source, incoming, stop);
            var told = new List<string>();
            var kept = await KeepAsync(dataFolder, nowUtc, stop);
            if (kept is not null)
                told.Add($"What was there before stays in {kept}.");
            var designs = await RaiseAsync(incoming, Database.FileIn(dataFolder), source, stop);
            Sync(incoming);
            Swap.Do(dataFolder);
            return [$"The database of {source} is in place: {designs} {(designs == 1 ? "design" : "designs")}, the bin included.", .. told];
        }
        catch (SqliteException e)
        {
            throw new BackupRefused(
                e.SqliteErrorCode is SQLitePCL.raw.SQLITE_NOTADB or SQLitePCL.raw.SQLITE_CORRUPT
                    ? $"{source} is no database that can be read."
                    : Sentence(e, dataFolder, source)
            );
        }
        catch (Exception e) when (e is IOException or UnauthorizedAccessException)
        {
            throw new BackupRefused(Sentence(e, dataFolder, incoming));
        }
        finally
        {
            Swap.Finish(dataFolder);
        }
    }

    /// <summary>What is in the folder now, as a backup; where it cannot be read, byte by byte. Null: nothing is there.</summary>
    private static async Task<string?> KeepAsync(string dataFolder, DateTime nowUtc, CancellationToken stop)
    {
        var file = Database.FileIn(dataFolder);
        if (!File.Exists(file))
            return null;
        var target = Database.Free(Path.Combine(dataFolder, $"inky-badger-before-restore-{nowUtc:yyyyMMdd-HHmmss}.db"));
        if (await Preparation.IsDamagedAsync(dataFolder, stop))
            Salvage.CopyAside(file, target);
        else
            await WriteAsync(dataFolder, target, stop);
        return target;
    }

    /// <summary>Revisions of a design never go back: each is put above what it has been, in the backup and in the folder.</summary>
    private static async Task<int> RaiseAsync(string incoming, string current, string source, CancellationToken stop)
    {
        await using var connection = await Database.OpenAsync(incoming, SqliteOpenMode.ReadWrite, stop);
        async Task<object?> Ask(string sql)
        {
            await using var command = connection.CreateCommand();
            command.CommandText = sql;
            command.Parameters.AddWithValue("$leap", Leap);
            return await command.ExecuteScalarAsync(stop);
        }
        if (await Ask("SELECT count(*) FROM sqlite_master WHERE name IN ('designs', '__EFMigrationsHistory')") is not 2L)
            throw new BackupRefused($"{source} is a database of something else.");
        await using (var db = Database.At(incoming))
        {
            if ((await db.Database.GetAppliedMigrationsAsync(stop)).Except(db.Database.GetMigrations()).Any())
                throw new BackupRefused($"{source} was written by a newer Inky Badger.");
        }
        var known = await RevisionsAsync(current, stop);
        if (known is null)
            await Ask("UPDATE designs SET Revision = Revision + $leap");
        else
        {
            await Ask("UPDATE designs SET Revision = Revision + 1");
            foreach (var (id, revision) in known)
            {
                await using var raise = connection.CreateCommand();
                raise.CommandText = "UPDATE designs SET Revision = max(Revision, $revision + 1) WHERE Id = $id";
                raise.Parameters.AddWithValue("$revision", revision);
                raise.Parameters.AddWithValue("$id", id);
                await raise.ExecuteNonQueryAsync(stop);
            }
        }
        return (int)(long)(await Ask("SELECT count(*) FROM designs"))!;
    }

    /// <summary>How far each design had come; none where there is no database; null where it cannot be read.</summary>
    private static async Task<List<(string, long)>?> RevisionsAsync(string file, CancellationToken stop)
    {
        if (!File.Exists(file))
            return [];
        try
        {
            await using var connection = await Database.OpenAsync(file, SqliteOpenMode.ReadOnly, stop);
            await using var command = connection.CreateCommand();
            command.CommandText = "SELECT Id, Revision FROM designs";
            var list = new List<(string, long)>();
            await using var rows = await command.ExecuteReaderAsync(stop);
            while (await rows.ReadAsync(stop))
                list.Add((rows.GetString(0), rows.GetInt64(1)));
            return list;
        }
        catch (Exception e) when (e is SqliteException or InvalidCastException or FormatException)
        {
            return null;
        }
    }

    /// <summary>One file without journals, checked whole.</summary>
    internal static async Task CopyAsync(string from, string to, CancellationToken stop)
    {
        await using (var connection = await Database.OpenAsync(from, SqliteOpenMode.ReadWrite, stop))
        {
            await using var copy = connection.CreateCommand();
            copy.CommandTimeout = 0;
            copy.CommandText = "VACUUM INTO $target";
            copy.Parameters.AddWithValue("$target", to);
            await copy.ExecuteNonQueryAsync(stop);
        }
        await using var written = await Database.OpenAsync(to, SqliteOpenMode.ReadOnly, stop);
        await using var check = written.CreateCommand();
        check.CommandText = "PRAGMA quick_check(1)";
        if ((string?)await check.ExecuteScalarAsync(stop) != "ok")
            throw new IOException($"{to} cannot be read back");
    }

    internal static void Sync(string file)
    {
        using var written = new FileStream(file, FileMode.Open, FileAccess.ReadWrite);
        written.Flush(flushToDisk: true);
    }

    private static void TryDelete(string file)
    {
        try
        {
            File.Delete(file);
        }
        catch (Exception e) when (e is IOException or UnauthorizedAccessException)
        {
            // It lies under a name that the next backup takes away.
        }
    }

    private static string Sentence(Exception e, string dataFolder, string target) =>
        e switch
        {
            SqliteException { SqliteErrorCode: SQLitePCL.raw.SQLITE_FULL } => $"the disk of {target} is full.",
            SqliteException { SqliteErrorCode: SQLitePCL.raw.SQLITE_BUSY or SQLitePCL.raw.SQLITE_LOCKED } =>
                $"the database in {dataFolder} is held by another program, so {target} was not written.",
            SqliteException { SqliteErrorCode: SQLitePCL.raw.SQLITE_CORRUPT or SQLitePCL.raw.SQLITE_NOTADB } =>
                $"the database in {dataFolder} is damaged, so {target} was not written. Start Inky Badger: it carries over what "
                    + $"can be read.",
            SqliteException { SqliteErrorCode: SQLitePCL.raw.SQLITE_IOERR } =>
                $"the disk does not take {target}: check it and its free space.",
            SqliteException or UnauthorizedAccessException => $"{target} cannot be written: give this user the right to write there.",
            _ when e.Message.Contains("No space left", StringComparison.Ordinal) => $"the disk of {target} is full.",
            _ => $"{target} cannot be written: {e.Message}",
        };
}

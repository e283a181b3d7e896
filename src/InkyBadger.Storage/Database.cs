using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Design;
using Microsoft.EntityFrameworkCore.Diagnostics;
using Microsoft.Extensions.DependencyInjection;

namespace InkyBadger.Storage;

/// <summary>The database file: where it is, how it is opened, copied, and set aside.</summary>
public static class Database
{
    public const string FileName = "inky-badger.db";

    /// <summary>How long a request waits for another writer [s].</summary>
    private const int BusySeconds = 5;

    public static string FileIn(string dataFolder) => Path.Combine(dataFolder, FileName);

    /// <summary>Registers the database in a data folder.</summary>
    public static IServiceCollection AddBadgerStorage(this IServiceCollection services, string dataFolder) => services
        .AddDbContext<BadgerDb>(o => o.UseSqlite(ConnectionString(dataFolder)).AddInterceptors(new Durable()))
        .AddScoped<DesignStore>()
        .AddScoped<OwnItems>();

    public static string ConnectionString(string dataFolder) =>
        new SqliteConnectionStringBuilder { DataSource = FileIn(dataFolder), DefaultTimeout = BusySeconds }.ToString();

    /// <summary>
    /// Makes the database ready: sets a damaged file aside, keeps a copy before the tables change, brings them up to date.
    /// </summary>
    /// <returns>What the user should be told, a sentence each.</returns>
    public static async Task<IReadOnlyList<string>> PrepareAsync(BadgerDb db, string dataFolder, DateTime nowUtc, CancellationToken stop = default)
    {
        var file = FileIn(dataFolder);
        var told = new List<string>();
        var stamp = nowUtc.ToString("yyyyMMdd-HHmmss", System.Globalization.CultureInfo.InvariantCulture);
        if (File.Exists(file) && await IsDamagedAsync(dataFolder, stop))
        {
            var aside = SetAside(file, stamp);
            told.Add($"The database {file} is damaged. It was set aside unchanged as {aside}, and a new one was begun.");
        }
        var applied = File.Exists(file) ? (await db.Database.GetAppliedMigrationsAsync(stop)).ToList() : [];
        var pending = (await db.Database.GetPendingMigrationsAsync(stop)).ToList();
        if (applied.Count > 0 && pending.Count > 0)
        {
            var copy = Path.Combine(dataFolder, $"inky-badger-before-{pending[^1]}-{stamp}.db");
            await BackupAsync(dataFolder, copy, stop);
            told.Add($"The database was brought up to date. As it was before it stays in {copy}.");
        }
        await db.Database.MigrateAsync(stop);
        return told;
    }

    private static async Task<bool> IsDamagedAsync(string dataFolder, CancellationToken stop)
    {
        try
        {
            await using var connection = await OpenAsync(dataFolder, stop);
            await using var check = connection.CreateCommand();
            check.CommandText = "PRAGMA quick_check(1)";
            return (string?)await check.ExecuteScalarAsync(stop) != "ok";
        }
        catch (SqliteException e) when (e.SqliteErrorCode is SQLitePCL.raw.SQLITE_CORRUPT or SQLitePCL.raw.SQLITE_NOTADB)
        {
            return true;
        }
        finally
        {
            SqliteConnection.ClearAllPools();
        }
    }

    /// <summary>Moves the file and its journals out of the way; nothing is overwritten.</summary>
    private static string SetAside(string file, string stamp)
    {
        var aside = Path.Combine(Path.GetDirectoryName(file)!, $"inky-badger-damaged-{stamp}.db");
        for (var n = 2; File.Exists(aside); n++) aside = Path.Combine(Path.GetDirectoryName(file)!, $"inky-badger-damaged-{stamp}-{n}.db");
        foreach (var ending in new[] { "", "-wal", "-shm" })
            if (File.Exists(file + ending)) File.Move(file + ending, aside + ending);
        return aside;
    }

    /// <summary>A consistent copy while the database is in use; the target must not be there yet.</summary>
    public static async Task BackupAsync(string dataFolder, string target, CancellationToken stop = default)
    {
        await using var connection = await OpenAsync(dataFolder, stop);
        await using var copy = connection.CreateCommand();
        copy.CommandText = "VACUUM INTO $target";
        copy.Parameters.AddWithValue("$target", target);
        await copy.ExecuteNonQueryAsync(stop);
    }

    private static async Task<SqliteConnection> OpenAsync(string dataFolder, CancellationToken stop)
    {
        var connection = new SqliteConnection(new SqliteConnectionStringBuilder(ConnectionString(dataFolder)) { Mode = SqliteOpenMode.ReadWrite }.ToString());
        await connection.OpenAsync(stop);
        return connection;
    }

    /// <summary>What a failure of the database means for its user, in a sentence; null when it is none of the known mishaps.</summary>
    public static string? Explain(Exception? failure)
    {
        for (; failure is not null; failure = failure.InnerException)
            if (failure is SqliteException sqlite && Sentence(sqlite.SqliteErrorCode) is { } sentence) return sentence;
        return null;
    }

    private static string? Sentence(int code) => code switch
    {
        SQLitePCL.raw.SQLITE_BUSY or SQLitePCL.raw.SQLITE_LOCKED => "The database is held by another program. What was kept before is there; close the other program and try again.",
        SQLitePCL.raw.SQLITE_FULL => "The disk is full. What was kept before is there; free some space and try again.",
        SQLitePCL.raw.SQLITE_READONLY or SQLitePCL.raw.SQLITE_PERM or SQLitePCL.raw.SQLITE_CANTOPEN => "The data folder cannot be written. What was kept before is there; give this user the right to write there and try again.",
        SQLitePCL.raw.SQLITE_IOERR => "The disk does not take what is written. What was kept before is there; check the disk and its free space and try again.",
        SQLitePCL.raw.SQLITE_CORRUPT or SQLitePCL.raw.SQLITE_NOTADB => "The database is damaged. Stop Inky Badger and start it again: the file is then set aside unchanged.",
        _ => null,
    };

    /// <summary>A write that was confirmed must survive the process and the machine: WAL, synced at every commit.</summary>
    private sealed class Durable : DbConnectionInterceptor
    {
        public override void ConnectionOpened(System.Data.Common.DbConnection connection, ConnectionEndEventData eventData) => Set(connection);

        public override Task ConnectionOpenedAsync(System.Data.Common.DbConnection connection, ConnectionEndEventData eventData, CancellationToken cancellationToken = default)
        {
            Set(connection);
            return Task.CompletedTask;
        }

        private static void Set(System.Data.Common.DbConnection connection)
        {
            // A look whether the database is there opens it for reading only.
            if (new SqliteConnectionStringBuilder(connection.ConnectionString).Mode == SqliteOpenMode.ReadOnly) return;
            using var command = connection.CreateCommand();
            command.CommandText = "PRAGMA journal_mode=WAL; PRAGMA synchronous=FULL; PRAGMA foreign_keys=ON;";
            command.ExecuteNonQuery();
        }
    }
}

/// <summary>For the migrations tool.</summary>
internal sealed class BadgerDbFactory : IDesignTimeDbContextFactory<BadgerDb>
{
    public BadgerDb CreateDbContext(string[] args) => new(new DbContextOptionsBuilder<BadgerDb>().UseSqlite("Data Source=design-time.db").Options);
}

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
    internal const int BusySeconds = 5;

    public static string FileIn(string dataFolder) => Path.Combine(dataFolder, FileName);

    /// <summary>Registers the database in a data folder; it must be prepared before it is used.</summary>
    public static IServiceCollection AddBadgerStorage(this IServiceCollection services, string dataFolder) =>
        services
            .AddDbContext<BadgerDb>(o => Use(o, FileIn(dataFolder)))
            .AddSingleton(new DataFolder(dataFolder))
            .AddSingleton<WriteQueue>()
            .AddSingleton<SeenTime>()
            .AddScoped<DesignStore>()
            .AddScoped<OwnItems>()
            .AddScoped<LogStore>()
            .AddScoped<PracticeStore>();

    /// <summary>Never made by opening it: a database that is gone is not begun anew behind the user's back.</summary>
    internal static DbContextOptionsBuilder Use(
        DbContextOptionsBuilder options,
        string file,
        SqliteOpenMode mode = SqliteOpenMode.ReadWrite
    ) => options.UseSqlite(ConnectionString(file, mode, BusySeconds)).AddInterceptors(new Durable());

    /// <summary>A context on another file than the one that is registered, without pooled connections that would keep it open.</summary>
    internal static BadgerDb At(string file, SqliteOpenMode mode = SqliteOpenMode.ReadWrite)
    {
        var options = new DbContextOptionsBuilder<BadgerDb>();
        options.UseSqlite(ConnectionString(file, mode, BusySeconds) + ";Pooling=False");
        return new(options.Options);
    }

    private static string ConnectionString(string file, SqliteOpenMode mode, int busySeconds) =>
        new SqliteConnectionStringBuilder
        {
            DataSource = file,
            Mode = mode,
            DefaultTimeout = busySeconds,
        }.ToString();

    internal static async Task<SqliteConnection> OpenAsync(string file, SqliteOpenMode mode, CancellationToken stop)
    {
        var connection = new SqliteConnection(ConnectionString(file, mode, 1) + ";Pooling=False");
        try
        {
            await connection.OpenAsync(stop);
            return connection;
        }
        catch
        {
            await connection.DisposeAsync();
            throw;
        }
    }

    /// <summary>A name that nothing has yet.</summary>
    internal static string Free(string path)
    {
        var free = path;
        for (var n = 2; File.Exists(free); n++)
            free = Path.Combine(Path.GetDirectoryName(path)!, $"{Path.GetFileNameWithoutExtension(path)}-{n}{Path.GetExtension(path)}");
        return free;
    }

    /// <summary>What a failure of the database means for its user, in a sentence; null when it is none of the known mishaps.</summary>
    public static string? Explain(Exception? failure)
    {
        for (; failure is not null; failure = failure.InnerException)
            if (failure is DatabaseGone gone)
                return gone.Message;
            else if (failure is SqliteException sqlite && Sentence(sqlite.SqliteErrorCode) is { } sentence)
                return sentence;
        return null;
    }

    private static string? Sentence(int code) =>
        code switch
        {
            SQLitePCL.raw.SQLITE_BUSY or SQLitePCL.raw.SQLITE_LOCKED =>
                "The database is held by another program. What was kept before is there; close the other program and try again.",
            SQLitePCL.raw.SQLITE_FULL => "The disk is full. What was kept before is there; free some space and try again.",
            SQLitePCL.raw.SQLITE_READONLY or SQLitePCL.raw.SQLITE_PERM or SQLitePCL.raw.SQLITE_CANTOPEN =>
                "The data folder cannot be written. What was kept before is there; give this user the right to write there and try again.",
            SQLitePCL.raw.SQLITE_IOERR =>
                "The disk does not take what is written. What was kept before is there; check the disk and its free space and try again.",
            SQLitePCL.raw.SQLITE_CORRUPT or SQLitePCL.raw.SQLITE_NOTADB =>
                "The database is damaged. Stop Inky Badger and start it again: the file is then set aside unchanged, and what "
                    + "can be read of it is carried over.",
            _ => null,
        };

    /// <summary>What a connection that writes keeps to.</summary>
    internal const string Pragmas = "PRAGMA journal_mode=WAL; PRAGMA synchronous=FULL; PRAGMA foreign_keys=ON;";

    /// <summary>A write that was confirmed must survive the process and the machine: WAL, synced at every commit.</summary>
    private sealed class Durable : DbConnectionInterceptor
    {
        public override void ConnectionOpened(System.Data.Common.DbConnection connection, ConnectionEndEventData eventData) =>
            Set(connection);

        public override Task ConnectionOpenedAsync(
            System.Data.Common.DbConnection connection,
            ConnectionEndEventData eventData,
            CancellationToken cancellationToken = default
        )
        {
            Set(connection);
            return Task.CompletedTask;
        }

        private static void Set(System.Data.Common.DbConnection connection)
        {
            // A look whether the database is there opens it for reading only.
            if (new SqliteConnectionStringBuilder(connection.ConnectionString).Mode == SqliteOpenMode.ReadOnly)
                return;
            using var command = connection.CreateCommand();
            command.CommandText = Pragmas;
            command.ExecuteNonQuery();
        }
    }
}

/// <summary>Where the data lies.</summary>
public sealed record DataFolder(string Path);

/// <summary>For the migrations tool.</summary>
internal sealed class BadgerDbFactory : IDesignTimeDbContextFactory<BadgerDb>
{
    public BadgerDb CreateDbContext(string[] args) =>
        new(new DbContextOptionsBuilder<BadgerDb>().UseSqlite("Data Source=design-time.db").Options);
}

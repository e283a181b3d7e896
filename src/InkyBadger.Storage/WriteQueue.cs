using System.Runtime.InteropServices;
using System.Threading.Channels;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;

namespace InkyBadger.Storage;

/// <summary>The database file is no longer where it was: nothing more is confirmed.</summary>
public sealed class DatabaseGone()
    : Exception(
        "The database file was moved or deleted while Inky Badger was running. What was kept before is where that file is now; "
            + "nothing is kept until it is back: stop Inky Badger, put it back or restore a backup, and start again."
    );

/// <summary>
/// All writes, one after the other on one connection. What waits at the same moment shares one transaction and one sync of the disk, each
/// write in a savepoint of its own, and each is confirmed only after that sync.
/// </summary>
public sealed class WriteQueue(DataFolder folder) : IAsyncDisposable
{
    /// <summary>Writes that share a commit at most, so that the first of them does not wait for the last.</summary>
    private const int MostTogether = 64;

    private readonly Channel<Item> waiting = Channel.CreateUnbounded<Item>(new() { SingleReader = true });
    private readonly Lock gate = new();
    private Task? pump;
    private SqliteConnection? connection;
    private DbContextOptions<BadgerDb>? options;

    /// <summary>Does the work in its turn; ends when it is on the disk. An exception of the work leaves nothing of it behind.</summary>
    public Task<T> RunAsync<T>(Func<Turn, Task<T>> work, CancellationToken stop)
    {
        lock (gate)
            pump ??= Task.Run(PumpAsync);
        var item = new Item<T>(work, stop);
        if (!waiting.Writer.TryWrite(item))
            throw new ObjectDisposedException(nameof(WriteQueue));
        return item.Done.Task;
    }

    private async Task PumpAsync()
    {
        while (await waiting.Reader.WaitToReadAsync())
        {
            var together = new List<Item>();
            try
            {
                await CommitAsync(together);
                together.ForEach(i => i.Confirm());
            }
            catch (Exception e)
            {
                // Whoever waits is told; the queue itself goes on, on a connection of its own making.
                together.ForEach(i => i.Fail(e));
                // Nobody's turn came, so all that wait now would only wait for the same.
                if (together.Count == 0)
                    while (waiting.Reader.TryRead(out var item))
                        item.Fail(e);
                Close();
            }
        }
    }

    private async Task CommitAsync(List<Item> together)
    {
        var open = Open();
        ThrowIfGone(open);
        // Takes its place among the writers at once, instead of finding out when it commits.
        using var transaction = open.BeginTransaction(deferred: false);
        while (together.Count < MostTogether && waiting.Reader.TryRead(out var item))
        {
            if (item.Left)
                continue;
            transaction.Save("item");
            await using var turn = new Turn(open, options!, transaction);
            if (await item.WorkAsync(turn) is not { } failure)
            {
                transaction.Release("item");
                together.Add(item);
                continue;
            }
            item.Fail(failure);
            // A full disk, for one, takes the whole transaction with it.
            if (SQLitePCL.raw.sqlite3_get_autocommit(open.Handle) != 0)
                throw failure;
            transaction.Rollback("item");
        }
        if (together.Count == 0)
            return;
        transaction.Commit();
        ThrowIfGone(open);
    }

    private SqliteConnection Open()
    {
        if (connection is not null)
            return connection;
        var made = new SqliteConnection(
            new SqliteConnectionStringBuilder
            {
                DataSource = Database.FileIn(folder.Path),
                Mode = SqliteOpenMode.ReadWrite,
                Pooling = false,
                DefaultTimeout = Database.BusySeconds,
            }.ToString()
        );
        try
        {
            made.Open();
            using var command = made.CreateCommand();
            command.CommandText = Database.Pragmas;
            command.ExecuteNonQuery();
        }
        catch
        {
            made.Dispose();
            throw;
        }
        options = new DbContextOptionsBuilder<BadgerDb>().UseSqlite(made).Options;
        return connection = made;
    }

    private void Close()
    {
        // One that is gone stays open: opened anew, another file of that name would be taken for it.
        if (connection is null || HasMoved(connection))
            return;
        connection.Dispose();
        connection = null;
    }

    private static void ThrowIfGone(SqliteConnection open)
    {
        if (HasMoved(open))
            throw new DatabaseGone();
    }

    private const int FcntlHasMoved = 20;

    /// <summary>Whether the file that is open is no longer the one of that name.</summary>
    private static bool HasMoved(SqliteConnection open)
    {
        var moved = 0;
        return FileControl(open.Handle!.DangerousGetHandle(), "main", FcntlHasMoved, ref moved) == SQLitePCL.raw.SQLITE_OK && moved != 0;
    }

    [DllImport("e_sqlite3", EntryPoint = "sqlite3_file_control")]
    private static extern int FileControl(nint database, [MarshalAs(UnmanagedType.LPUTF8Str)] string name, int what, ref int result);

    public async ValueTask DisposeAsync()
    {
        waiting.Writer.TryComplete();
        if (pump is not null)
            await pump;
        connection?.Dispose();
    }

    /// <summary>
    /// A turn to write: the database as a context, made when it is first asked for, or its bare connection for the one write that happens
    /// with every edit.
    /// </summary>
    public sealed class Turn : IAsyncDisposable
    {
        private readonly SqliteConnection connection;
        private readonly DbContextOptions<BadgerDb> options;
        private readonly SqliteTransaction transaction;
        private BadgerDb? db;

        internal Turn(SqliteConnection connection, DbContextOptions<BadgerDb> options, SqliteTransaction transaction) =>
            (this.connection, this.options, this.transaction) = (connection, options, transaction);

        public BadgerDb Db
        {
            get
            {
                if (db is not null)
                    return db;
                db = new(options);
                db.Database.AutoSavepointsEnabled = false;
                db.Database.UseTransaction(transaction);
                return db;
            }
        }

        internal SqliteCommand Command(string sql, params ReadOnlySpan<(string Name, object Value)> parameters)
        {
            var command = connection.CreateCommand();
            command.CommandText = sql;
            foreach (var (name, value) in parameters)
                command.Parameters.AddWithValue(name, value);
            return command;
        }

        public ValueTask DisposeAsync() => db?.DisposeAsync() ?? ValueTask.CompletedTask;
    }

    private abstract class Item
    {
        /// <summary>Whoever asked has left before its turn came.</summary>
        public abstract bool Left { get; }

        /// <summary>Why it failed; null: done, and to be confirmed.</summary>
        public abstract Task<Exception?> WorkAsync(Turn turn);
        public abstract void Confirm();
        public abstract void Fail(Exception failure);
    }

    private sealed class Item<T>(Func<Turn, Task<T>> work, CancellationToken stop) : Item
    {
        private T? result;

        public TaskCompletionSource<T> Done { get; } = new(TaskCreationOptions.RunContinuationsAsynchronously);

        public override bool Left => stop.IsCancellationRequested && Done.TrySetCanceled(stop);

        public override async Task<Exception?> WorkAsync(Turn turn)
        {
            try
            {
                result = await work(turn);
                return null;
            }
            catch (Exception e)
            {
                return e;
            }
        }

        public override void Confirm() => Done.TrySetResult(result!);

        public override void Fail(Exception failure) => Done.TrySetException(failure);
    }
}

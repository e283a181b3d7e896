using System.Collections.Concurrent;
using Microsoft.Data.Sqlite;

[assembly: AssemblyFixture(typeof(InkyBadger.Tests.Shared.Servers))]

namespace InkyBadger.Tests.Shared;

/// <summary>
/// Servers that go from one test to the next: a start costs more processor time than most tests do. Each test finds what a first start
/// leaves, under ids that no test has seen before it; one that a test has ended, looked into or listened to is not handed on.
/// </summary>
public sealed class Servers : IDisposable
{
    private static readonly ConcurrentBag<RunningServer> Free = [];

    private static readonly Lock Reading = new();
    private static List<object?[]>? demos;

    internal static RunningServer Take(bool seeded)
    {
        var server = Free.TryTake(out var one) ? one : new RunningServer();
        Reset(server.Folder, seeded);
        return server;
    }

    internal static void Give(RunningServer server) => Free.Add(server);

    private static void Reset(string folder, bool seeded)
    {
        using var db = new SqliteConnection($"Data Source={Path.Combine(folder, "inky-badger.db")};Pooling=False;Default Timeout=120");
        db.Open();
        lock (Reading)
            demos ??= Rows(db);
        using var transaction = db.BeginTransaction();
        Do(
            db,
            "DELETE FROM states; DELETE FROM designs; DELETE FROM own_items; DELETE FROM log_series; DELETE FROM log_readings; "
                + "DELETE FROM log_slots; DELETE FROM log_entries; DELETE FROM facts WHERE Name = 'demo-log'"
        );
        foreach (var (n, row) in (seeded ? demos : []).Index())
        {
            var id = Guid.NewGuid().ToString("N");
            Do(
                db,
                "INSERT INTO designs (Id, Name, Document, Revision, CreatedUtc, UpdatedUtc, StateAt) VALUES ($0, $1, $2, $3, $4, $5, $6)",
                [id, .. row]
            );
            // The newest has readings that are made when its log is first looked at.
            if (n == demos.Count - 1)
                Do(db, "INSERT INTO facts (Name, Value) VALUES ('demo-log', $0)", id);
        }
        transaction.Commit();
    }

    /// <summary>The designs of a first start, oldest first.</summary>
    private static List<object?[]> Rows(SqliteConnection db)
    {
        using var command = db.CreateCommand();
        command.CommandText = "SELECT Name, Document, Revision, CreatedUtc, UpdatedUtc, StateAt FROM designs ORDER BY UpdatedUtc";
        using var reader = command.ExecuteReader();
        var rows = new List<object?[]>();
        while (reader.Read())
        {
            var row = new object[reader.FieldCount];
            reader.GetValues(row);
            rows.Add(row);
        }
        return rows;
    }

    private static void Do(SqliteConnection db, string sql, params object?[] values)
    {
        using var command = db.CreateCommand();
        command.CommandText = sql;
        foreach (var (n, value) in values.Index())
            command.Parameters.AddWithValue($"${n}", value ?? DBNull.Value);
        command.ExecuteNonQuery();
    }

    public void Dispose()
    {
        while (Free.TryTake(out var server))
            server.End();
    }
}

using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;

namespace InkyBadger.Storage;

/// <summary>
/// A damaged database: set aside byte by byte with its journal, and what can be read of it carried over into a new one, row by row around
/// the places that are broken. What could not be is listed beside it.
/// </summary>
internal static class Salvage
{
    /// <summary>Rows between the two ends of what can be read that are tried one by one, at most.</summary>
    private const int MostProbes = 200_000;

    private const int AtOnce = 200;

    public static async Task RunAsync(string dataFolder, string stamp, Action<string> tell, CancellationToken stop)
    {
        var file = Database.FileIn(dataFolder);
        var aside = Database.Free(Path.Combine(dataFolder, $"inky-badger-damaged-{stamp}.db"));
        CopyAside(file, aside);
        // Opening it would change it: a copy of the copy is read.
        var read = file + ".salvage";
        CopyAside(file, read);
        var incoming = Swap.Incoming(dataFolder);
        Carried carried;
        await using (var fresh = Database.At(incoming, SqliteOpenMode.ReadWriteCreate))
        {
            await fresh.Database.MigrateAsync(stop);
            carried = await CarryAsync(read, fresh, stop);
        }
        foreach (var ending in (string[])["", "-wal", "-shm", "-journal"])
            File.Delete(read + ending);
        Backup.Sync(incoming);
        var list = Path.ChangeExtension(aside, ".txt");
        await File.WriteAllLinesAsync(list, carried.Report(aside), stop);
        Swap.Do(dataFolder);
        tell(
            $"The database {file} is damaged. It was set aside unchanged as {aside}, and {carried.Sentence}. What could not be "
                + $"carried over is listed in {list}."
        );
    }

    /// <summary>The file with its journal, under another name; nothing is overwritten, and the original stays.</summary>
    public static void CopyAside(string file, string aside)
    {
        foreach (var ending in (string[])["", "-wal"])
        {
            File.Delete(aside + ending);
            if (!File.Exists(file + ending))
                continue;
            File.Copy(file + ending, aside + ending);
            Backup.Sync(aside + ending);
        }
    }

    private sealed class Carried
    {
        public int Designs { get; set; }
        public int States { get; set; }
        public int OwnItems { get; set; }
        public int FromStates { get; set; }
        public List<string> Lost { get; } = [];

        public string Sentence =>
            Designs + States + OwnItems == 0
                ? "a new one was begun: nothing in it could be read"
                : $"{Count(Designs, "design")} with {Count(States, "state")} and {Count(OwnItems, "own item")} were carried over "
                    + $"into a new one";

        private static string Count(int n, string what) => $"{n} {what}{(n == 1 ? "" : "s")}";

        public IEnumerable<string> Report(string aside) =>
            [
                $"Carried over from {aside}: {Count(Designs, "design")} with {Count(States, "state")} and {Count(OwnItems, "own item")}.",
                .. FromStates > 0
                    ?
                    [
                        $"{Count(FromStates, "design")} of these as the newest state of its history had it: the design itself "
                            + $"could not be read.",
                    ]
                    : Array.Empty<string>(),
                Lost.Count == 0 ? "Nothing is known to be missing." : "Could not be carried over:",
                .. Lost.Select(l => "  " + l),
            ];
    }

    private static async Task<Carried> CarryAsync(string from, BadgerDb to, CancellationToken stop)
    {
        var carried = new Carried();
        await to.Database.OpenConnectionAsync(stop);
        var target = (SqliteConnection)to.Database.GetDbConnection();
        Run(target, "PRAGMA foreign_keys=OFF");
        try
        {
            await using var source = await Database.OpenAsync(from, SqliteOpenMode.ReadWrite, stop);
            foreach (
                var table in (string[])
                    ["facts", "own_items", "designs", "states", "practice", "log_series", "log_entries", "log_slots", "log_readings"]
            )
            {
                using var transaction = target.BeginTransaction();
                var count = CarryTable(source, target, table, carried.Lost);
                transaction.Commit();
                if (table == "designs")
                    carried.Designs = count;
                else if (table == "states")
                    carried.States = count;
                else if (table == "own_items")
                    carried.OwnItems = count;
            }
            carried.FromStates = FromStates(target);
            carried.Designs += carried.FromStates;
            foreach (var id in IdsOfIndex(source))
                if (Ask(target, "SELECT count(*) FROM designs WHERE Id = $x", id) is 0L)
                    carried.Lost.Add($"design {id}");
            Run(target, $"UPDATE designs SET Revision = Revision + {Backup.Leap}");
        }
        catch (SqliteException e) when (IsBroken(e))
        {
            carried.Lost.Add($"the rest: {e.Message}");
        }
        // What can be read of an old database is never taken for an empty one.
        Run(target, $"INSERT OR IGNORE INTO facts (Name, Value) VALUES ('{FactNames.Settled}', 'salvaged')");
        Run(target, "PRAGMA wal_checkpoint(TRUNCATE); PRAGMA journal_mode=DELETE;");
        SqliteConnection.ClearAllPools();
        return carried;
    }

    private static bool IsBroken(SqliteException e) =>
        e.SqliteErrorCode
            is SQLitePCL.raw.SQLITE_CORRUPT
                or SQLitePCL.raw.SQLITE_NOTADB
                or SQLitePCL.raw.SQLITE_ERROR
                or SQLitePCL.raw.SQLITE_IOERR;

    /// <summary>From the first row up, from the last row down, and between the two one by one.</summary>
    private static int CarryTable(SqliteConnection source, SqliteConnection target, string table, List<string> lost)
    {
        List<string> columns;
        try
        {
            columns = [.. Columns(source, table).Intersect(Columns(target, table))];
        }
        catch (SqliteException e) when (IsBroken(e))
        {
            lost.Add($"all of {table}");
            return 0;
        }
        if (columns.Count == 0)
            return 0;
        var copy = new Copier(source, target, table, columns);
        var up = copy.Way("rowid > $at", "rowid", long.MinValue);
        if (!up.Broken)
            return copy.Count;
        var down = copy.Way("rowid < $at", "rowid DESC", long.MaxValue);
        var (low, high) = (up.Last, down.Last);
        if (low != long.MinValue && high != long.MaxValue && high > low)
            for (var row = low + 1; row < high && row - low < MostProbes; row++)
                copy.One(row);
        lost.Add($"some rows of {table} lie in a part that cannot be read");
        return copy.Count;
    }

    private sealed class Copier(SqliteConnection source, SqliteConnection target, string table, List<string> columns)
    {
        private readonly string names = string.Join(", ", columns);
        private readonly string insert =
            $"INSERT OR IGNORE INTO {table} ({string.Join(", ", columns)}) VALUES "
            + $"({string.Join(", ", columns.Select((_, i) => $"$c{i}"))})";

        public int Count { get; private set; }

        public (bool Broken, long Last) Way(string where, string order, long at)
        {
            while (true)
            {
                var seen = 0;
                try
                {
                    using var select = source.CreateCommand();
                    select.CommandText = $"SELECT rowid, {names} FROM {table} WHERE {where} ORDER BY {order} LIMIT {AtOnce}";
                    select.Parameters.AddWithValue("$at", at);
                    using var rows = select.ExecuteReader();
                    while (rows.Read())
                    {
                        Insert(rows);
                        at = rows.GetInt64(0);
                        seen++;
                    }
                }
                catch (SqliteException e) when (IsBroken(e))
                {
                    return (true, at);
                }
                if (seen < AtOnce)
                    return (false, at);
            }
        }

        public void One(long row)
        {
            try
            {
                using var select = source.CreateCommand();
                select.CommandText = $"SELECT rowid, {names} FROM {table} WHERE rowid = $at";
                select.Parameters.AddWithValue("$at", row);
                using var rows = select.ExecuteReader();
                if (rows.Read())
                    Insert(rows);
            }
            catch (SqliteException e) when (IsBroken(e))
            {
                // This row is one of those that are lost.
            }
        }

        private void Insert(SqliteDataReader row)
        {
            using var command = target.CreateCommand();
            command.CommandText = insert;
            for (var i = 0; i < columns.Count; i++)
                command.Parameters.AddWithValue($"$c{i}", row.GetValue(i + 1));
            try
            {
                Count += command.ExecuteNonQuery();
            }
            catch (SqliteException e) when (e.SqliteErrorCode == SQLitePCL.raw.SQLITE_CONSTRAINT)
            {
                // A row without what every row must have is no row.
            }
        }
    }

    /// <summary>Designs whose own row is lost live on as the newest state of their history.</summary>
    private static int FromStates(SqliteConnection target)
    {
        Run(
            target,
            """
            INSERT INTO designs (Id, Name, Document, Revision, CreatedUtc, UpdatedUtc, StateAt)
            SELECT s.DesignId, coalesce(CASE WHEN json_valid(s.Document) THEN json_extract(s.Document, '$.name') END, s.DesignId),
              s.Document, s.Number + 1, s.WhenUtc, s.WhenUtc, s.Number
            FROM states s WHERE s.Number = (SELECT max(Number) FROM states WHERE DesignId = s.DesignId)
              AND NOT EXISTS (SELECT 1 FROM designs d WHERE d.Id = s.DesignId)
            """
        );
        return (int)(long)Ask(target, "SELECT changes()", null)!;
    }

    /// <summary>The names that the table's index still has, where the rows themselves are gone.</summary>
    private static List<string> IdsOfIndex(SqliteConnection source)
    {
        var ids = new List<string>();
        try
        {
            using var select = source.CreateCommand();
            select.CommandText = "SELECT Id FROM designs INDEXED BY sqlite_autoindex_designs_1 ORDER BY Id";
            using var rows = select.ExecuteReader();
            while (rows.Read())
                ids.Add(rows.GetString(0));
        }
        catch (SqliteException e) when (IsBroken(e))
        {
            // As far as it could be read.
        }
        return ids;
    }

    private static List<string> Columns(SqliteConnection connection, string table)
    {
        using var command = connection.CreateCommand();
        command.CommandText = $"SELECT name FROM pragma_table_info('{table}')";
        using var rows = command.ExecuteReader();
        var names = new List<string>();
        while (rows.Read())
            names.Add(rows.GetString(0));
        return names;
    }

    private static void Run(SqliteConnection connection, string sql)
    {
        using var command = connection.CreateCommand();
        command.CommandText = sql;
        command.ExecuteNonQuery();
    }

    private static object? Ask(SqliteConnection connection, string sql, string? x)
    {
        using var command = connection.CreateCommand();
        command.CommandText = sql;
        if (x is not null)
            command.Parameters.AddWithValue("$x", x);
        return command.ExecuteScalar();
    }
}

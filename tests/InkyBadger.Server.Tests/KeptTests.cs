using InkyBadger.Core.Demo;
using InkyBadger.Core.Design;
using InkyBadger.Storage;
using InkyBadger.Tests.Shared;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;

namespace InkyBadger.Server.Tests;

/// <summary>The database itself, without a server before it: damage, the bin's time, copies, the queue of writes.</summary>
public sealed class KeptTests : IDisposable
{
    private readonly string folder = Directory.CreateTempSubdirectory("inky-badger-kept-").FullName;
    private readonly Clock clock = new();
    private readonly List<string> told = [];

    public void Dispose()
    {
        SqliteConnection.ClearAllPools();
        Directory.Delete(folder, recursive: true);
    }

    /// <summary>A clock that is set by hand; its stopwatch too.</summary>
    private sealed class Clock : TimeProvider
    {
        public DateTimeOffset Now { get; set; } = new(2026, 3, 1, 12, 0, 0, TimeSpan.Zero);
        public TimeSpan Ran { get; set; }

        public override DateTimeOffset GetUtcNow() => Now;

        public override long GetTimestamp() => Ran.Ticks;

        public override long TimestampFrequency => TimeSpan.TicksPerSecond;
    }

    private sealed class Started(ServiceProvider services) : IAsyncDisposable
    {
        private readonly AsyncServiceScope scope = services.CreateAsyncScope();

        public DesignStore Store => scope.ServiceProvider.GetRequiredService<DesignStore>();
        public BadgerDb Db => scope.ServiceProvider.GetRequiredService<BadgerDb>();
        public WriteQueue Writes => services.GetRequiredService<WriteQueue>();
        public SeenTime Seen => services.GetRequiredService<SeenTime>();

        public async ValueTask DisposeAsync()
        {
            await scope.DisposeAsync();
            await services.DisposeAsync();
            SqliteConnection.ClearAllPools();
        }
    }

    /// <summary>As a start of the server makes it ready.</summary>
    private async Task<Started> Start(string? at = null)
    {
        var services = new ServiceCollection().AddSingleton<TimeProvider>(clock).AddBadgerStorage(at ?? folder).BuildServiceProvider();
        var started = new Started(services);
        if (await Preparation.RunAsync(started.Db, at ?? folder, clock.Now.UtcDateTime, told.Add))
            await started.Store.SettleAsync(seed: false);
        await started.Seen.BeginAsync(default);
        return started;
    }

    private static DesignDocument Bus(string name) => DemoDesigns.All[0] with { Name = name, Notes = new string('n', 3000) };

    /// <summary>
    /// Killed with its journal still open, then half of the file's pages overwritten: what was set aside is byte for byte what was found,
    /// and what lies in whole pages is there again.
    /// </summary>
    [Fact]
    public async Task What_can_be_read_of_a_damaged_database_is_carried_over_and_the_rest_is_listed()
    {
        var found = Path.Combine(folder, "found");
        Directory.CreateDirectory(found);
        var (ids, edited) = (new List<string>(), "");
        await using (var before = await Start())
        {
            foreach (var n in Enumerable.Range(0, 40))
                ids.Add((await before.Store.AddAsync(Bus($"Design {n}"), default)).Id);
            edited = ids[5];
            for (var n = 1; n <= 6; n++)
                Assert.Equal(WriteOutcome.Done, (await before.Store.ReplaceAsync(edited, n, Bus($"Edit {n}"), default)).Outcome);
            await before.Db.Database.ExecuteSqlRawAsync("PRAGMA wal_checkpoint(TRUNCATE)");
            await before.Store.AddAsync(Bus("In the journal alone"), default);
            foreach (var ending in new[] { "", "-wal" })
                File.Copy(Database.FileIn(folder) + ending, Database.FileIn(found) + ending);
        }
        var bytes = File.ReadAllBytes(Database.FileIn(found));
        var random = new Random(9);
        // A stretch in the middle, where designs lie.
        random.NextBytes(bytes.AsSpan(bytes.Length / 3 / 4096 * 4096, 6 * 4096));
        File.WriteAllBytes(Database.FileIn(found), bytes);
        var journal = File.ReadAllBytes(Database.FileIn(found) + "-wal");
        Assert.True(journal.Length > 0);

        await using var after = await Start(found);
        var sentence = Assert.Single(told, s => s.Contains("is damaged", StringComparison.Ordinal));
        var aside = Assert.Single(Directory.GetFiles(found, "inky-badger-damaged-*.db"));
        Assert.Equal(bytes, File.ReadAllBytes(aside));
        Assert.Equal(journal, File.ReadAllBytes(aside + "-wal"));
        Assert.Contains("were carried over into a new one", sentence, StringComparison.Ordinal);

        var there = await after.Store.ListAsync(false, default);
        Assert.InRange(there.Count, 20, 41);
        Assert.All(await after.Store.DocumentsAsync([.. there.Select(e => e.Id)], default), d => Assert.Null(d.Value.Fault));
        // What could not be carried over is named.
        var list = await File.ReadAllTextAsync(Path.ChangeExtension(aside, ".txt"));
        foreach (var lost in ids.Except(there.Select(e => e.Id)))
            Assert.Contains($"design {lost}", list, StringComparison.Ordinal);
        Assert.True(there.Count < 41, "the damage hit nothing");
        // A window that knew a state of before must notice that it is another database now.
        Assert.All(there, e => Assert.True(e.Revision > 1000));
        Assert.Equal(WriteOutcome.Stale, (await after.Store.ReplaceAsync(there[0].Id, 1, Bus("stale"), default)).Outcome);
        // And the new one is an ordinary one.
        told.Clear();
        await after.DisposeAsync();
        await using var again = await Start(found);
        Assert.Empty(told);
        Assert.Equal(there.Count, (await again.Store.ListAsync(false, default)).Count);
    }

    /// <summary>A design whose own row is gone lives on as the newest state of its history.</summary>
    [Fact]
    public async Task A_design_is_carried_over_from_its_history()
    {
        string id;
        await using (var before = await Start())
        {
            id = (await before.Store.AddAsync(Bus("First"), default)).Id;
            await before.Store.ReplaceAsync(id, 1, Bus("Second"), default);
            await before.Store.ReplaceAsync(id, 2, Bus("Third"), default);
            await before.Db.Database.ExecuteSqlRawAsync("PRAGMA wal_checkpoint(TRUNCATE)");
            // The page the design lies on, and none of its states'.
            var page = await before
                .Db.Database.SqlQuery<long>($"SELECT rootpage AS Value FROM sqlite_master WHERE name = 'designs'")
                .SingleAsync();
            await before.DisposeAsync();
            var bytes = File.ReadAllBytes(Database.FileIn(folder));
            bytes.AsSpan((int)(page - 1) * 4096, 4096).Clear();
            File.WriteAllBytes(Database.FileIn(folder), bytes);
        }
        await using var after = await Start();
        var found = await after.Store.FindAsync(id, default);
        Assert.Equal("Third", found!.Design.Name);
        Assert.True(found.CanUndo);
        Assert.Contains(
            "newest state of its history",
            File.ReadAllText(Directory.GetFiles(folder, "inky-badger-damaged-*.txt").Single()),
            StringComparison.Ordinal
        );
    }

    [Fact]
    public async Task A_journal_whose_database_is_gone_is_set_aside_and_not_wiped()
    {
        var moved = Path.Combine(folder, "moved");
        Directory.CreateDirectory(moved);
        string id;
        byte[] journal;
        await using (var before = await Start())
        {
            await before.Db.Database.ExecuteSqlRawAsync("PRAGMA wal_checkpoint(TRUNCATE)");
            id = (await before.Store.AddAsync(Bus("In the journal alone"), default)).Id;
            // As a kill leaves them; then the database alone is carried off.
            File.Copy(Database.FileIn(folder), Path.Combine(moved, "elsewhere.db"));
            journal = File.ReadAllBytes(Database.FileIn(folder) + "-wal");
        }
        File.WriteAllBytes(Database.FileIn(moved) + "-wal", journal);
        await using (var after = await Start(moved))
            Assert.Empty(await after.Store.ListAsync(false, default));
        var aside = Assert.Single(Directory.GetFiles(moved, "inky-badger-left-*.db-wal"));
        Assert.Contains(told, s => s.Contains($"It was set aside as {aside}", StringComparison.Ordinal));
        Assert.Equal(journal, File.ReadAllBytes(aside));
        // Put beside its database again, nothing is missing.
        var whole = Path.Combine(folder, "whole");
        Directory.CreateDirectory(whole);
        File.Copy(Path.Combine(moved, "elsewhere.db"), Database.FileIn(whole));
        File.Copy(aside, Database.FileIn(whole) + "-wal");
        await using var again = await Start(whole);
        Assert.Equal("In the journal alone", (await again.Store.FindAsync(id, default))!.Design.Name);
    }

    [Fact]
    public async Task The_bin_keeps_for_thirty_days_of_seen_time_whatever_the_clock_says()
    {
        await using (var first = await Start())
        {
            var id = (await first.Store.AddAsync(Bus("Old"), default)).Id;
            await first.Store.RemoveAsync(id, default);
        }
        async Task<int> Bin()
        {
            await using var started = await Start();
            return (await started.Store.ListAsync(true, default)).Count;
        }
        // A clock that is years ahead, and one that is back again: neither empties anything.
        clock.Now = clock.Now.AddYears(5);
        Assert.Equal(1, await Bin());
        clock.Now = clock.Now.AddYears(-5);
        Assert.Equal(1, await Bin());
        // A start a day, for four weeks: the first start above counts for a day too.
        for (var day = 0; day < 28; day++)
        {
            clock.Now = clock.Now.AddDays(1);
            Assert.Equal(1, await Bin());
        }
        // What runs is seen hour by hour.
        await using (var running = await Start())
        {
            clock.Ran += TimeSpan.FromHours(23);
            await running.Seen.LookAsync(default);
            Assert.Single(await running.Store.ListAsync(true, default));
            clock.Ran += TimeSpan.FromHours(1.5);
            await running.Seen.LookAsync(default);
            Assert.Empty(await running.Store.ListAsync(true, default));
        }
    }

    [Fact]
    public async Task A_restored_backup_never_takes_revisions_back()
    {
        var copy = Path.Combine(folder, "copy.db");
        string id,
            other;
        await using (var before = await Start())
        {
            id = (await before.Store.AddAsync(Bus("One"), default)).Id;
            other = (await before.Store.AddAsync(Bus("Two"), default)).Id;
            await Backup.WriteAsync(folder, copy);
            for (var n = 1; n <= 8; n++)
                await before.Store.ReplaceAsync(id, n, Bus($"Edit {n}"), default);
        }
        var said = await Backup.RestoreAsync(folder, copy, clock.Now.UtcDateTime);
        Assert.Equal($"The database of {copy} is in place: 2 designs, the bin included.", said[0]);
        var kept = Assert.Single(Directory.GetFiles(folder, "inky-badger-before-restore-*.db"));
        Assert.Equal($"What was there before stays in {kept}.", said[1]);
        await using (var after = await Start())
        {
            var found = (await after.Store.FindAsync(id, default))!;
            Assert.Equal(("One", 10), (found.Design.Name, found.Revision));
            Assert.Equal(2, (await after.Store.FindAsync(other, default))!.Revision);
            // The window that had come to revision 9 before is stale, and stays so.
            Assert.Equal(WriteOutcome.Stale, (await after.Store.ReplaceAsync(id, 9, Bus("ninth"), default)).Outcome);
        }
        // And back again to what was there before.
        await Backup.RestoreAsync(folder, kept, clock.Now.UtcDateTime);
        await using var again = await Start();
        Assert.Equal(
            ("Edit 8", 11),
            ((await again.Store.FindAsync(id, default))!.Design.Name, (await again.Store.FindAsync(id, default))!.Revision)
        );
    }

    [Fact]
    public async Task What_is_no_backup_is_not_restored_and_nothing_is_changed()
    {
        await using (var before = await Start())
            await before.Store.AddAsync(Bus("One"), default);
        var bytes = File.ReadAllBytes(Database.FileIn(folder));
        async Task Refuses(string file, string reason)
        {
            var refused = await Assert.ThrowsAsync<BackupRefused>(() => Backup.RestoreAsync(folder, file, clock.Now.UtcDateTime));
            Assert.Contains(reason, refused.Message, StringComparison.Ordinal);
            Assert.Equal(bytes, File.ReadAllBytes(Database.FileIn(folder)));
            Assert.Empty(Directory.GetFiles(folder, "*.incoming*").Concat(Directory.GetFiles(folder, "*.swap")));
        }
        await Refuses(Path.Combine(folder, "none.db"), "there is no file");
        var junk = Path.Combine(folder, "junk.db");
        await File.WriteAllTextAsync(junk, new string('x', 9000));
        await Refuses(junk, "is no database that can be read");
        var other = Path.Combine(folder, "other.db");
        await using (var connection = new SqliteConnection($"Data Source={other};Pooling=False"))
        {
            await connection.OpenAsync();
            await using var command = connection.CreateCommand();
            command.CommandText = "CREATE TABLE somebody_else (x)";
            await command.ExecuteNonQueryAsync();
        }
        await Refuses(other, "is a database of something else");
    }

    [Fact]
    public async Task A_backup_that_cannot_be_made_says_of_which_file()
    {
        await using var started = await Start();
        async Task Refuses(string target, string reason)
        {
            var refused = await Assert.ThrowsAsync<BackupRefused>(() => Backup.WriteAsync(folder, target));
            Assert.Contains(target, refused.Message, StringComparison.Ordinal);
            Assert.Contains(reason, refused.Message, StringComparison.Ordinal);
            Assert.False(File.Exists(target + ".part"));
        }
        var there = Path.Combine(folder, "there.db");
        await File.WriteAllTextAsync(there, "mine");
        await Refuses(there, "overwrites nothing");
        Assert.Equal("mine", await File.ReadAllTextAsync(there));
        var nowhere = Assert.ThrowsAsync<BackupRefused>(() => Backup.WriteAsync(folder, Path.Combine(folder, "no", "copy.db")));
        Assert.Equal($"there is no folder {Path.Combine(folder, "no")}.", (await nowhere).Message);
        // Left behind by one that was cut off: the next is not held up by it.
        var target = Path.Combine(folder, "copy.db");
        await File.WriteAllTextAsync(target + ".part", "half a file");
        await Backup.WriteAsync(folder, target);
        Assert.False(File.Exists(target + ".part"));
    }

    /// <summary>One that fails leaves nothing behind and takes none of its neighbours with it; whoever has left is passed over.</summary>
    [Fact]
    public async Task Writes_that_share_a_commit_stand_each_for_itself()
    {
        await using var started = await Start();
        var writes = started.Writes;
        var begun = new TaskCompletionSource();
        var go = new TaskCompletionSource();
        var first = writes.RunAsync(
            async turn =>
            {
                begun.SetResult();
                await go.Task;
                turn.Db.Facts.Add(new() { Name = "first", Value = "1" });
                return await turn.Db.SaveChangesAsync();
            },
            default
        );
        await begun.Task;
        using var gone = new CancellationTokenSource();
        var bad = writes.RunAsync<int>(
            async turn =>
            {
                turn.Db.Facts.Add(new() { Name = "bad", Value = "1" });
                await turn.Db.SaveChangesAsync();
                throw new FormatException("as it happens");
            },
            default
        );
        var left = writes.RunAsync(async turn => await turn.Db.Facts.ExecuteDeleteAsync(), gone.Token);
        var last = writes.RunAsync(
            async turn =>
            {
                turn.Db.Facts.Add(new() { Name = "last", Value = "1" });
                return await turn.Db.SaveChangesAsync();
            },
            default
        );
        gone.Cancel();
        go.SetResult();
        Assert.Equal((1, 1), (await first, await last));
        await Assert.ThrowsAsync<FormatException>(() => bad);
        await Assert.ThrowsAnyAsync<OperationCanceledException>(() => left);
        Assert.Equal(
            ["first", "last"],
            (await started.Db.Facts.AsNoTracking().Select(f => f.Name).ToListAsync()).Intersect(["bad", "first", "last"]).Order()
        );
    }

    [Fact]
    public async Task A_database_that_vanishes_confirms_nothing_more()
    {
        await using var started = await Start();
        var id = (await started.Store.AddAsync(Bus("One"), default)).Id;
        var away = Database.FileIn(folder) + ".away";
        File.Move(Database.FileIn(folder), away);
        var gone = await Assert.ThrowsAsync<DatabaseGone>(() => started.Store.ReplaceAsync(id, 1, Bus("Two"), default));
        Assert.StartsWith(
            "The database file was moved or deleted while Inky Badger was running.",
            Database.Explain(gone),
            StringComparison.Ordinal
        );
        // Another file of that name is not taken for it.
        File.Copy(away, Database.FileIn(folder));
        await Assert.ThrowsAsync<DatabaseGone>(() => started.Store.AddAsync(Bus("Three"), default));
        File.Move(away, Database.FileIn(folder), overwrite: true);
        Assert.Equal(WriteOutcome.Done, (await started.Store.ReplaceAsync(id, 1, Bus("Two"), default)).Outcome);
    }
}

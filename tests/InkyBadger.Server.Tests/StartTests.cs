using System.Diagnostics;
using System.Net;
using System.Text.Json.Nodes;
using InkyBadger.Core.Demo;
using InkyBadger.Core.Design;
using InkyBadger.Storage;
using InkyBadger.Tests.Shared;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;

namespace InkyBadger.Server.Tests;

/// <summary>A start after anything: it comes up, or says in a sentence why not.</summary>
public sealed class StartTests : IDisposable
{
    private readonly string folder = Directory.CreateTempSubdirectory("inky-badger-start-").FullName;

    public void Dispose() => Directory.Delete(folder, recursive: true);

    private string DatabaseFile => Database.FileIn(folder);

    private async Task Execute(string sql)
    {
        await using var connection = new SqliteConnection($"Data Source={DatabaseFile};Pooling=False");
        await connection.OpenAsync();
        await using var command = connection.CreateCommand();
        command.CommandText = sql;
        await command.ExecuteNonQueryAsync();
    }

    /// <summary>As the first version left it, with so many designs.</summary>
    private async Task Older(int designs = 1)
    {
        var options = new DbContextOptionsBuilder<BadgerDb>().UseSqlite($"Data Source={DatabaseFile};Pooling=False").Options;
        await using var db = new BadgerDb(options);
        await db.GetService<IMigrator>().MigrateAsync("Initial");
        var text = DesignFormat.Write(DemoDesigns.All[0]);
        for (var i = 0; i < designs; i++)
            await db.Database.ExecuteSqlAsync(
                $"""
                INSERT INTO designs (Id, Name, Document, Revision, CreatedUtc, UpdatedUtc)
                VALUES ({$"old{i}"}, 'Old', {text}, 7, '2026-01-02', '2026-01-02')
                """
            );
    }

    private static async Task<int> Shelf(RunningServer server) =>
        JsonNode.Parse(await server.Http.GetStringAsync("/api/designs"))!.AsArray().Count;

    /// <summary>What a kill in the middle of a migration leaves behind: a row that says somebody is at it.</summary>
    [Fact]
    public async Task A_migration_lock_that_nobody_holds_is_taken_over()
    {
        await Older();
        await Execute(
            "CREATE TABLE IF NOT EXISTS __EFMigrationsLock (Id INTEGER PRIMARY KEY, Timestamp TEXT NOT NULL); INSERT INTO "
                + "__EFMigrationsLock VALUES (1, '2026-01-02')"
        );
        using var server = new RunningServer(folder);
        Assert.Equal(1, await Shelf(server));
        server.Kill();
        // Nothing is pending any more: a row left by anybody is not even looked at.
        await Execute("INSERT OR REPLACE INTO __EFMigrationsLock VALUES (1, '2026-01-02')");
        server.StartAgain();
        Assert.Equal(1, await Shelf(server));
    }

    [Fact]
    public void A_folder_another_one_has_is_said_in_a_sentence()
    {
        using var server = new RunningServer(folder);
        var (code, output) = RunningServer.RunToEnd("--data", folder, "--port", "0");
        Assert.Equal(1, code);
        Assert.Contains("Waiting for another Inky Badger (process ", output, StringComparison.Ordinal);
        Assert.Contains($"Inky Badger cannot start: another Inky Badger (process ", output, StringComparison.Ordinal);
        Assert.Contains($"has the data folder {folder}", output, StringComparison.Ordinal);
        Assert.DoesNotContain("   at ", output, StringComparison.Ordinal);
        // The lock ends with the process, however that ends.
        server.Kill();
        server.StartAgain();
    }

    [Fact]
    public async Task A_database_of_a_newer_program_is_left_as_it_is()
    {
        using (var server = new RunningServer(folder))
            server.Interrupt();
        await Execute("INSERT INTO __EFMigrationsHistory VALUES ('20991231000000_Tomorrow', '99.0')");
        var before = File.ReadAllBytes(DatabaseFile);
        var (code, output) = RunningServer.RunToEnd("--data", folder, "--port", "0");
        Assert.Equal(1, code);
        Assert.StartsWith(
            $"Inky Badger cannot start: the database {DatabaseFile} was written by a newer Inky Badger, and is left as it is.",
            output,
            StringComparison.Ordinal
        );
        Assert.Equal(before, File.ReadAllBytes(DatabaseFile));
    }

    [Fact]
    public async Task A_start_that_waits_says_for_what()
    {
        using (var first = new RunningServer(folder))
            first.Interrupt();
        await using var other = new SqliteConnection($"Data Source={DatabaseFile};Pooling=False");
        await other.OpenAsync();
        await using var hold = other.CreateCommand();
        hold.CommandText = "BEGIN IMMEDIATE";
        await hold.ExecuteNonQueryAsync();
        using var waiting = RunningServer.Begin("--data", folder, "--port", "0");
        var line = await waiting.StandardOutput.ReadLineAsync();
        Assert.Equal($"Waiting for another program that holds {DatabaseFile}…", line);
        hold.CommandText = "ROLLBACK";
        await hold.ExecuteNonQueryAsync();
        while (await waiting.StandardOutput.ReadLineAsync() is { } next && !next.StartsWith("Open ", StringComparison.Ordinal))
            Assert.DoesNotContain("cannot", next, StringComparison.Ordinal);
        Assert.False(waiting.HasExited);
        waiting.Kill();
    }

    /// <summary>
    /// Killed at its very first steps, again and again: the next start comes up, with the demo designs that a first start brings, and never
    /// with two sets of them. INKY_KILLS sets how often.
    /// </summary>
    [Fact]
    public async Task A_first_start_that_is_killed_is_made_good_by_the_next()
    {
        var random = new Random(Seed());
        for (var kill = 0; kill < Kills(1); kill++)
        {
            var place = Path.Combine(folder, $"{kill}");
            Directory.CreateDirectory(place);
            // As soon as the file is there, or some moment later.
            using (var begun = RunningServer.Begin("--data", place, "--port", "0"))
            {
                await Until(() => File.Exists(Database.FileIn(place)), begun);
                await Task.Delay(kill == 0 ? 0 : random.Next(400));
                begun.Kill();
                await begun.WaitForExitAsync();
            }
            using var server = new RunningServer(place);
            Assert.Equal(DemoDesigns.All.Count, await Shelf(server));
        }
    }

    /// <summary>
    /// The very first write of all, cut off: the file is still empty, its journal says so, and nothing can be read before it is rolled
    /// back. The journal is that of a real change, taken from the side while it is under way.
    /// </summary>
    [Fact]
    public async Task A_change_cut_off_halfway_is_rolled_back_by_the_next_start()
    {
        await Older(3);
        await Execute("PRAGMA journal_mode=DELETE");
        var place = Path.Combine(folder, "cut");
        Directory.CreateDirectory(place);
        await using (var writer = new SqliteConnection($"Data Source={DatabaseFile};Pooling=False"))
        {
            await writer.OpenAsync();
            await using var change = writer.CreateCommand();
            // A cache of one page, so that pages go to the file, and their journal before them, while the change is still open.
            change.CommandText =
                "PRAGMA journal_mode=DELETE; PRAGMA cache_size=1; BEGIN; UPDATE designs SET Name = 'cut off', Document = Document || ' '";
            await change.ExecuteNonQueryAsync();
            foreach (var ending in (string[])["", "-journal"])
                File.Copy(DatabaseFile + ending, Database.FileIn(place) + ending);
        }
        using var server = new RunningServer(place);
        var names = JsonNode.Parse(await server.Http.GetStringAsync("/api/designs"))!.AsArray().Select(d => (string)d!["name"]!);
        Assert.Equal(["Old", "Old", "Old"], names);
    }

    [Fact]
    public async Task A_migration_that_is_killed_loses_nothing()
    {
        var random = new Random(Seed());
        for (var kill = 0; kill < Kills(1); kill++)
        {
            if (File.Exists(DatabaseFile))
                File.Delete(DatabaseFile);
            foreach (var left in Directory.GetFiles(folder))
                File.Delete(left);
            await Older(300);
            using (var begun = RunningServer.Begin("--data", folder, "--port", "0"))
            {
                // The copy of what it was is the first thing a migration makes.
                await Until(() => Directory.GetFiles(folder, "inky-badger-before-*").Length > 0, begun);
                await Task.Delay(kill == 0 ? 0 : random.Next(300));
                begun.Kill();
                await begun.WaitForExitAsync();
            }
            using var server = new RunningServer(folder);
            Assert.Equal(300, await Shelf(server));
            var answer = await server.Put("old7", "\"7\"", Documents.Bus);
            Assert.Equal(HttpStatusCode.OK, answer.StatusCode);
        }
    }

    /// <summary>A file under its final name is whole, or it is not there.</summary>
    [Fact]
    public async Task A_backup_that_is_killed_leaves_no_half_file()
    {
        using (var server = new RunningServer(folder, "--empty"))
            server.Interrupt();
        await Fill(3000);
        var random = new Random(Seed());
        var target = Path.Combine(folder, "copy.db");
        var cut = 0;
        // A busy machine may look away while a backup is made from beginning to end: then once more.
        for (var kill = 0; kill < Kills(1) || cut == 0 && kill < 50; kill++)
        {
            using var begun = RunningServer.Begin("--data", folder, "--backup", target);
            await Until(() => File.Exists(target + ".part") || File.Exists(target), begun);
            await Task.Delay(kill == 0 ? 0 : random.Next(60));
            begun.Kill();
            await begun.WaitForExitAsync();
            if (!File.Exists(target))
                cut++;
            else
            {
                Assert.Equal(3000, await Count(target));
                File.Delete(target);
            }
        }
        Assert.True(cut > 0, "no backup was cut off");
        // And the next one is not held up by what was left.
        var (code, output) = RunningServer.RunToEnd("--data", folder, "--backup", target);
        Assert.True(code == 0, output);
        Assert.Equal(3000, await Count(target));
        Assert.False(File.Exists(target + ".part"));
    }

    /// <summary>Before or after, never between: the old database, or the one that was restored.</summary>
    [Fact]
    public async Task A_restore_that_is_killed_leaves_the_old_or_the_new()
    {
        using (var server = new RunningServer(folder, "--empty"))
            server.Interrupt();
        await Fill(2000);
        var backup = Path.Combine(folder, "backup.db");
        Assert.Equal(0, RunningServer.RunToEnd("--data", folder, "--backup", backup).ExitCode);
        await Execute("DELETE FROM designs WHERE rowid > 10");
        var random = new Random(Seed());
        for (var kill = 0; kill < Kills(1); kill++)
        {
            using (var begun = RunningServer.Begin("--data", folder, "--restore", backup))
            {
                await Until(() => File.Exists(DatabaseFile + ".incoming") || File.Exists(DatabaseFile + ".swap"), begun);
                await Task.Delay(kill == 0 ? 0 : random.Next(250));
                begun.Kill();
                await begun.WaitForExitAsync();
            }
            using var server = new RunningServer(folder);
            Assert.Contains(await Shelf(server), new[] { 10, 2000 });
            server.Interrupt();
            Assert.False(File.Exists(DatabaseFile + ".incoming") || File.Exists(DatabaseFile + ".swap"));
        }
        var (code, output) = RunningServer.RunToEnd("--data", folder, "--restore", backup);
        Assert.True(code == 0, output);
        Assert.Equal(2000, await Count(DatabaseFile));
    }

    private async Task Fill(int designs)
    {
        var text = DesignFormat.Write(DemoDesigns.All[0] with { Notes = new string('n', 9000) });
        await using var connection = new SqliteConnection($"Data Source={DatabaseFile};Pooling=False");
        await connection.OpenAsync();
        await using var transaction = await connection.BeginTransactionAsync();
        for (var i = 0; i < designs; i++)
        {
            await using var command = connection.CreateCommand();
            command.CommandText =
                "INSERT INTO designs (Id, Name, Document, Revision, CreatedUtc, UpdatedUtc, StateAt) VALUES ($id, 'Many', $text, "
                + "3, '2026-01-02', '2026-01-02', 0)";
            command.Parameters.AddWithValue("$id", $"d{i}");
            command.Parameters.AddWithValue("$text", text);
            await command.ExecuteNonQueryAsync();
        }
        await transaction.CommitAsync();
    }

    private static async Task<long> Count(string file)
    {
        await using var connection = new SqliteConnection($"Data Source={file};Pooling=False");
        await connection.OpenAsync();
        await using var command = connection.CreateCommand();
        command.CommandText = "PRAGMA integrity_check";
        Assert.Equal("ok", await command.ExecuteScalarAsync());
        command.CommandText = "SELECT count(*) FROM designs";
        return (long)(await command.ExecuteScalarAsync())!;
    }

    private static int Kills(int usual) =>
        int.TryParse(Environment.GetEnvironmentVariable("INKY_KILLS"), out var k) ? Math.Max(usual, k / 10) : usual;

    private static int Seed()
    {
        var seed = int.TryParse(Environment.GetEnvironmentVariable("INKY_SEED"), out var s) ? s : Environment.TickCount;
        TestContext.Current.TestOutputHelper!.WriteLine($"seed {seed}");
        return seed;
    }

    /// <summary>Waits for a moment of a process that may be over in no time; it may end before the moment comes.</summary>
    private static async Task Until(Func<bool> moment, Process begun)
    {
        while (!moment() && !begun.HasExited)
            await Task.Delay(1);
    }
}

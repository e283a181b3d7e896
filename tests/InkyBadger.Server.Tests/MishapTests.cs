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

/// <summary>Kills, full disks, locks and damage: what was confirmed is there, and a sentence says what happened.</summary>
public class MishapTests
{
    /// <summary>
    /// The real server is killed at a random moment while edits come in, again and again. INKY_KILLS sets how often (5), INKY_SEED the
    /// moments.
    /// </summary>
    [Fact]
    public async Task Every_confirmed_edit_survives_a_kill_at_any_moment()
    {
        var kills = int.TryParse(Environment.GetEnvironmentVariable("INKY_KILLS"), out var k) ? k : 5;
        var seed = int.TryParse(Environment.GetEnvironmentVariable("INKY_SEED"), out var s) ? s : Environment.TickCount;
        TestContext.Current.TestOutputHelper!.WriteLine($"{kills} kills, seed {seed}");
        var random = new Random(seed);
        using var server = RunningServer.Fresh(seeded: false);
        var (id, etag) = await server.Keep(Documents.Bus.With("/notes", "0"));
        long confirmed = 0,
            sent = 0,
            all = 0;
        for (var kill = 0; kill < kills; kill++)
        {
            var begun = new TaskCompletionSource();
            var writing = Task.Run(async () =>
            {
                try
                {
                    while (true)
                    {
                        sent++;
                        var answer = await server.Put(id, etag, Documents.Bus.With("/notes", sent.ToString()));
                        if (answer.StatusCode != HttpStatusCode.OK)
                            throw new InvalidOperationException($"{answer.StatusCode} at edit {sent}");
                        etag = answer.Headers.ETag!.Tag;
                        confirmed = sent;
                        all++;
                        begun.TrySetResult();
                    }
                }
                catch (HttpRequestException)
                {
                    // The server is gone, as it should be.
                }
                catch (ObjectDisposedException)
                {
                    // And so is the client.
                }
                catch (TaskCanceledException)
                {
                    // And so is the request.
                }
            });
            // Now and then before the first edit is in, mostly in the thick of them.
            if (kill % 5 > 0)
                await Task.WhenAny(writing, begun.Task);
            await Task.WhenAny(writing, Task.Delay(random.Next(kill % 5 > 0 ? 250 : 900)));
            server.Kill();
            await writing;
            server.StartAgain("--empty");
            Assert.DoesNotContain("damaged", server.Said, StringComparison.Ordinal);
            var response = await server.Http.GetAsync($"/api/designs/{id}");
            var found = long.Parse((string)(await response.Json())["design"]!["notes"]!);
            // The edit on its way at that moment may be there or not; nothing confirmed may be missing.
            Assert.True(
                found == confirmed || found == sent,
                $"kill {kill}: {found} is there, {confirmed} was confirmed, {sent} was sent (seed {seed})"
            );
            etag = response.Headers.ETag!.Tag;
            confirmed = sent = found;
        }
        TestContext.Current.TestOutputHelper.WriteLine($"{all} edits confirmed");
        Assert.True(all > kills / 2, $"only {all} edits in {kills} kills");
    }

    [Fact]
    public async Task A_damaged_database_is_set_aside_unchanged()
    {
        using var server = RunningServer.Fresh(seeded: false);
        await server.Keep(Documents.Bus);
        server.Interrupt();
        var file = Database.FileIn(server.DataFolder);
        var bytes = File.ReadAllBytes(file);
        new Random(3).NextBytes(bytes.AsSpan(0, 3000));
        File.WriteAllBytes(file, bytes);

        server.StartAgain("--empty");
        Assert.Contains("is damaged. It was set aside unchanged", server.Said, StringComparison.Ordinal);
        Assert.Contains("a new one was begun: nothing in it could be read", server.Said, StringComparison.Ordinal);
        var aside = Assert.Single(Directory.GetFiles(server.DataFolder, "inky-badger-damaged-*.db"));
        Assert.Equal(bytes, File.ReadAllBytes(aside));
        Assert.Empty(JsonNode.Parse(await server.Http.GetStringAsync("/api/designs"))!.AsArray());
    }

    [Fact]
    public async Task A_locked_database_is_said_in_a_sentence_and_keeps_what_was_there()
    {
        using var server = RunningServer.Fresh(seeded: false);
        var (id, etag) = await server.Keep(Documents.Bus);
        await using (var other = new SqliteConnection($"Data Source={Database.FileIn(server.DataFolder)};Pooling=False"))
        {
            await other.OpenAsync();
            await using var hold = other.CreateCommand();
            hold.CommandText = "BEGIN IMMEDIATE";
            await hold.ExecuteNonQueryAsync();
            var refused = await server.Put(id, etag, Documents.Bus.With("/name", "later"));
            Assert.Equal(HttpStatusCode.ServiceUnavailable, refused.StatusCode);
            Assert.StartsWith(
                "The database is held by another program.",
                (string)(await refused.Json())["detail"]!,
                StringComparison.Ordinal
            );
            // Reading goes on meanwhile.
            Assert.Equal(HttpStatusCode.OK, (await server.Http.GetAsync($"/api/designs/{id}")).StatusCode);
        }
        Assert.Equal(HttpStatusCode.OK, (await server.Put(id, etag, Documents.Bus.With("/name", "later"))).StatusCode);
    }

    [Fact]
    public async Task A_full_disk_is_said_in_a_sentence_and_keeps_what_was_there()
    {
        var folder = Directory.CreateTempSubdirectory("inky-badger-full-").FullName;
        Assert.SkipUnless(Run("mount", "-t", "tmpfs", "-o", "size=3m", "tmpfs", folder) == 0, "this user may not mount a small disk");
        try
        {
            using var server = new RunningServer(folder, "--empty");
            var (id, etag) = await server.Keep(Documents.Bus);
            var last = Documents.Bus;
            HttpResponseMessage answer;
            var edits = 0;
            while (true)
            {
                var next = Documents.Bus.With("/notes", new string((char)('a' + edits % 26), 9_900));
                answer = await server.Put(id, etag, next);
                if (answer.StatusCode != HttpStatusCode.OK)
                    break;
                (etag, last) = (answer.Headers.ETag!.Tag, next);
                Assert.True(++edits < 2000, "the disk never filled");
            }
            Assert.Equal(HttpStatusCode.ServiceUnavailable, answer.StatusCode);
            Assert.Matches("disk", (string)(await answer.Json())["detail"]!);
            var kept = await server.Http.GetAsync($"/api/designs/{id}");
            Assert.Equal(etag, kept.Headers.ETag!.Tag);
            Assert.True(JsonNode.DeepEquals(last, (await kept.Json())["design"]));
        }
        finally
        {
            Run("umount", folder);
            Directory.Delete(folder);
        }
    }

    [Fact]
    public async Task A_folder_that_cannot_be_written_is_said_in_a_sentence()
    {
        var folder = Directory.CreateTempSubdirectory("inky-badger-readonly-").FullName;
        Assert.SkipUnless(
            Run("mount", "-t", "tmpfs", "-o", "size=8m", "tmpfs", folder) == 0,
            "this user may not mount a disk to make it read-only"
        );
        try
        {
            using (var server = new RunningServer(folder, "--empty"))
            {
                await server.Keep(Documents.Bus);
                server.Interrupt();
            }
            Assert.Equal(0, Run("mount", "-o", "remount,ro", folder));
            var (code, output) = RunningServer.RunToEnd("--data", folder, "--port", "0");
            Assert.Equal(1, code);
            Assert.StartsWith("Inky Badger cannot start: The data folder cannot be written.", output, StringComparison.Ordinal);
        }
        finally
        {
            Run("umount", folder);
            Directory.Delete(folder);
        }
    }

    private static int Run(string program, params string[] arguments)
    {
        try
        {
            using var process = Process.Start(
                new ProcessStartInfo(program, arguments) { RedirectStandardError = true, RedirectStandardOutput = true }
            )!;
            process.WaitForExit();
            return process.ExitCode;
        }
        catch (System.ComponentModel.Win32Exception)
        {
            return -1;
        }
    }

    [Fact]
    public async Task A_backup_is_a_consistent_copy_while_edits_go_on()
    {
        using var server = RunningServer.Fresh(seeded: false);
        var (id, etag) = await server.Keep(Documents.Bus);
        var target = Path.Combine(server.DataFolder, "copy.db");
        using var stop = new CancellationTokenSource();
        var edits = Task.Run(async () =>
        {
            for (var i = 0; !stop.IsCancellationRequested; i++)
                etag = (await server.Put(id, etag, Documents.Bus.With("/notes", $"{i}"))).Headers.ETag!.Tag;
        });
        var (code, output) = RunningServer.RunToEnd("--data", server.DataFolder, "--backup", target);
        var overHttp = await server.Http.GetByteArrayAsync("/api/backup");
        await stop.CancelAsync();
        await edits;
        Assert.True(code == 0, output);
        // A second backup overwrites nothing.
        Assert.Equal(1, RunningServer.RunToEnd("--data", server.DataFolder, "--backup", target).ExitCode);

        // Restored: the copy is put in place of a database.
        foreach (var bytes in new[] { File.ReadAllBytes(target), overHttp })
        {
            var folder = Directory.CreateTempSubdirectory("inky-badger-restored-").FullName;
            File.WriteAllBytes(Database.FileIn(folder), bytes);
            using (var restored = new RunningServer(folder))
                Assert.Equal(
                    "Marrow Lane library bus",
                    (string)(await (await restored.Http.GetAsync($"/api/designs/{id}")).Json())["design"]!["name"]!
                );
            Directory.Delete(folder, recursive: true);
        }
    }

    [Fact]
    public async Task An_older_database_is_brought_up_to_date_and_a_copy_kept()
    {
        var folder = Directory.CreateTempSubdirectory("inky-badger-older-").FullName;
        var options = new DbContextOptionsBuilder<BadgerDb>().UseSqlite($"Data Source={Database.FileIn(folder)};Pooling=False").Options;
        await using (var db = new BadgerDb(options))
        {
            // As the first version left it: no history yet.
            await db.GetService<IMigrator>().MigrateAsync("Initial");
            await db.Database.ExecuteSqlRawAsync(
                "INSERT INTO designs (Id, Name, Document, Revision, CreatedUtc, UpdatedUtc) VALUES ('old1', 'Marrow Lane library "
                    + "bus', {0}, 7, '2026-01-02', '2026-01-02')",
                DesignFormat.Write(DemoDesigns.All[0])
            );
        }
        using (var server = new RunningServer(folder))
        {
            Assert.Contains("is being brought up to date", server.Said, StringComparison.Ordinal);
            Assert.Single(Directory.GetFiles(folder, "inky-badger-before-*.db"));
            var answer = await server.Put("old1", "\"7\"", Documents.Bus.With("/name", "newer"));
            Assert.Equal("\"8\"", answer.Headers.ETag!.Tag);
            // What it was before can be gone back to, though it never had a history.
            Assert.True((bool)(await answer.Json())["canUndo"]!);
            server.Interrupt();
            server.StartAgain();
            Assert.DoesNotContain("being brought up to date", server.Said, StringComparison.Ordinal);
        }
        Directory.Delete(folder, recursive: true);
    }
}

using InkyBadger.Core.Demo;
using InkyBadger.Storage;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;

namespace InkyBadger.Server.Tests;

/// <summary>What was practised, in the database itself: written over as it goes on, capped, carried by backup and salvage.</summary>
public sealed class KeptPracticeTests : IDisposable
{
    private sealed record Tally(int Number, int Found);

    private readonly string folder = Directory.CreateTempSubdirectory("inky-badger-practised-").FullName;
    private readonly Clock clock = new();

    public void Dispose()
    {
        SqliteConnection.ClearAllPools();
        Directory.Delete(folder, recursive: true);
    }

    private sealed class Clock : TimeProvider
    {
        public DateTimeOffset Now { get; set; } = new(2026, 3, 1, 12, 0, 0, TimeSpan.Zero);

        public override DateTimeOffset GetUtcNow() => Now;
    }

    private sealed class Started(ServiceProvider services) : IAsyncDisposable
    {
        private readonly AsyncServiceScope scope = services.CreateAsyncScope();

        public PracticeStore Practice => scope.ServiceProvider.GetRequiredService<PracticeStore>();
        public DesignStore Designs => scope.ServiceProvider.GetRequiredService<DesignStore>();
        public BadgerDb Db => scope.ServiceProvider.GetRequiredService<BadgerDb>();

        public Task Keep(string kind, string key, int number, int found = 0) =>
            Practice.KeepAsync(kind, key, new Tally(number, found), default);

        public async Task<List<int>> Numbers(string kind, int most = 50_000) =>
            [.. (await Practice.LastAsync<Tally>(kind, most, default)).Select(p => p.What.Number)];

        public async ValueTask DisposeAsync()
        {
            await scope.DisposeAsync();
            await services.DisposeAsync();
            SqliteConnection.ClearAllPools();
        }
    }

    private async Task<Started> Start(List<string>? told = null)
    {
        var services = new ServiceCollection().AddSingleton<TimeProvider>(clock).AddBadgerStorage(folder).BuildServiceProvider();
        var started = new Started(services);
        if (await Preparation.RunAsync(started.Db, folder, clock.Now.UtcDateTime, told is null ? _ => { } : told.Add))
            await started.Designs.SettleAsync(seed: false);
        return started;
    }

    [Fact]
    public async Task A_go_is_one_row_however_often_it_is_written_and_a_guess_is_one_more_each_time()
    {
        await using var here = await Start();
        await here.Keep("find", "mine", 1, found: 1);
        clock.Now += TimeSpan.FromMinutes(2);
        await here.Keep("find", "other", 2);
        clock.Now += TimeSpan.FromMinutes(2);
        await here.Keep("find", "mine", 1, found: 4);
        await here.Keep("guess", "", 7);
        await here.Keep("guess", "", 7);
        var goes = await here.Practice.LastAsync<Tally>("find", 10, default);
        // In the order in which they were begun, as they stand now.
        Assert.Equal([(1, 4), (2, 0)], goes.Select(g => (g.What.Number, g.What.Found)));
        Assert.Equal(new DateTime(2026, 3, 1, 12, 4, 0, DateTimeKind.Utc), goes[0].AtUtc);
        Assert.Equal([7, 7], await here.Numbers("guess"));
        // The same key of another kind is another thing.
        await here.Keep("walk", "mine", 9);
        Assert.Equal([9], await here.Numbers("walk"));
        Assert.Equal([1, 2], await here.Numbers("find"));
    }

    [Fact]
    public async Task The_last_ones_come_the_oldest_first()
    {
        await using var here = await Start();
        foreach (var n in Enumerable.Range(1, 30))
            await here.Keep("guess", "", n);
        Assert.Equal([28, 29, 30], await here.Numbers("guess", 3));
        Assert.Empty(await here.Numbers("find"));
    }

    [Fact]
    public async Task Many_at_once_are_all_kept_and_one_key_once()
    {
        await using var here = await Start();
        await Task.WhenAll(
            Enumerable.Range(0, 60).Select(n => n % 2 == 0 ? here.Keep("guess", "", n) : here.Keep("find", "one and the same", n, found: n))
        );
        Assert.Equal(Enumerable.Range(0, 30).Select(n => 2 * n), (await here.Numbers("guess")).Order());
        Assert.Single(await here.Numbers("find"));
    }

    /// <summary>Another version’s row, or a damaged one, takes no other with it.</summary>
    [Fact]
    public async Task What_cannot_be_read_is_left_out_and_left_alone()
    {
        await using var here = await Start();
        foreach (var n in Enumerable.Range(1, 4))
            await here.Keep("guess", "", n);
        await here.Db.Database.ExecuteSqlRawAsync(
            "UPDATE practice SET Document = '{{ half of it' WHERE Id = 2; UPDATE practice SET Document = 'null' WHERE Id = 3"
        );
        Assert.Equal([1, 4], await here.Numbers("guess"));
        await here.Keep("guess", "", 5);
        Assert.Equal([1, 4, 5], await here.Numbers("guess"));
        Assert.Equal(5, await here.Db.Practice.CountAsync());
    }

    [Fact]
    public async Task Beyond_twenty_thousand_the_oldest_go_and_no_other_kind_does()
    {
        await using var here = await Start();
        await here.Keep("find", "mine", 1);
        await here.Db.Database.ExecuteSqlRawAsync(
            $"""
            WITH RECURSIVE n(i) AS (SELECT 1 UNION ALL SELECT i + 1 FROM n WHERE i < {PracticeStore.Most + 5})
            INSERT INTO practice (Kind, Key, Document, AtUtc)
            SELECT 'guess', '', '{"{{"}"number":' || i || ',"found":0{"}}"}', '2026-01-01 00:00:00' FROM n
            """
        );
        await here.Keep("guess", "", -1);
        var left = await here.Numbers("guess");
        Assert.Equal((PracticeStore.Most, 7, -1), (left.Count, left[0], left[^1]));
        Assert.Single(await here.Numbers("find"));
        // A go that is written over is no further row.
        await here.Keep("find", "mine", 2);
        Assert.Equal(PracticeStore.Most, (await here.Numbers("guess")).Count);
    }

    [Fact]
    public async Task A_backup_carries_what_was_practised_and_brings_it_back()
    {
        var kept = Path.Combine(folder, "kept.db");
        await using (var before = await Start())
        {
            await before.Keep("guess", "", 1);
            await before.Keep("find", "mine", 2);
            await Backup.WriteAsync(folder, kept);
            await before.Keep("guess", "", 3);
        }
        await Backup.RestoreAsync(folder, kept, clock.Now.UtcDateTime);
        await using var after = await Start();
        Assert.Equal([1], await after.Numbers("guess"));
        Assert.Equal([2], await after.Numbers("find"));
        await after.Keep("guess", "", 4);
        Assert.Equal([1, 4], await after.Numbers("guess"));
    }

    /// <summary>Designs lie on the pages that are overwritten; what was practised lies on others, and comes along.</summary>
    [Fact]
    public async Task Salvage_carries_what_was_practised()
    {
        await using (var before = await Start())
        {
            foreach (var n in Enumerable.Range(1, 50))
                await before.Keep("guess", "", n);
            await before.Designs.AddAsync(DemoDesigns.All[0], default);
            await before.Db.Database.ExecuteSqlRawAsync("PRAGMA wal_checkpoint(TRUNCATE)");
            var page = await before
                .Db.Database.SqlQuery<long>($"SELECT rootpage AS Value FROM sqlite_master WHERE name = 'designs'")
                .SingleAsync();
            await before.DisposeAsync();
            var bytes = await File.ReadAllBytesAsync(Database.FileIn(folder));
            bytes.AsSpan((int)(page - 1) * 4096, 4096).Clear();
            await File.WriteAllBytesAsync(Database.FileIn(folder), bytes);
        }
        var told = new List<string>();
        await using var after = await Start(told);
        Assert.Contains(told, t => t.Contains("is damaged", StringComparison.Ordinal));
        Assert.Equal(Enumerable.Range(1, 50), await after.Numbers("guess"));
    }
}

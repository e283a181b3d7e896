using System.Text.Json;
using InkyBadger.Core.Design;
using Microsoft.EntityFrameworkCore;

namespace InkyBadger.Storage;

/// <summary>A row of what was practised.</summary>
public sealed record Practised<T>(DateTime AtUtc, T What);

/// <summary>
/// Goes, walks and guesses, kept on this machine alone. A go or a walk has a key of its maker and is written over as it goes on.
/// </summary>
public sealed class PracticeStore(BadgerDb db, WriteQueue writes, TimeProvider clock)
{
    /// <summary>Rows of a kind that are kept at most: the oldest go.</summary>
    public const int Most = 20_000;

    /// <param name="kind">Such as <c>guess</c>.</param>
    /// <param name="key">The same one is written over; empty: it is one more.</param>
    /// <param name="what">As it stands now.</param>
    /// <param name="stop">When nobody waits for it any more.</param>
    public Task KeepAsync<T>(string kind, string key, T what, CancellationToken stop) =>
        writes.RunAsync(
            async turn =>
            {
                var document = JsonSerializer.Serialize(what, DesignFormat.Options);
                var now = clock.GetUtcNow().UtcDateTime;
                var row = key.Length == 0 ? null : await turn.Db.Practice.FirstOrDefaultAsync(p => p.Kind == kind && p.Key == key);
                if (row is not null)
                    (row.Document, row.AtUtc) = (document, now);
                else
                {
                    turn.Db.Practice.Add(
                        new()
                        {
                            Kind = kind,
                            Key = key,
                            Document = document,
                            AtUtc = now,
                        }
                    );
                    var over = await turn.Db.Practice.CountAsync(p => p.Kind == kind) + 1 - Most;
                    if (over > 0)
                        await turn
                            .Db.Practice.Where(p =>
                                p.Kind == kind
                                && turn.Db.Practice.Where(x => x.Kind == kind).OrderBy(x => x.Id).Take(over).Any(x => x.Id == p.Id)
                            )
                            .ExecuteDeleteAsync();
                }
                await turn.Db.SaveChangesAsync();
                return true;
            },
            stop
        );

    /// <summary>The last of a kind, the oldest first; one that cannot be read takes no other with it.</summary>
    public async Task<IReadOnlyList<Practised<T>>> LastAsync<T>(string kind, int most, CancellationToken stop)
    {
        var rows = await db
            .Practice.AsNoTracking()
            .Where(p => p.Kind == kind)
            .OrderByDescending(p => p.Id)
            .Take(most)
            .Select(p => new { p.AtUtc, p.Document })
            .ToListAsync(stop);
        rows.Reverse();
        return
        [
            .. rows.Select(r => (r.AtUtc, What: Read<T>(r.Document)))
                .Where(r => r.What is not null)
                .Select(r => new Practised<T>(r.AtUtc, r.What!)),
        ];
    }

    private static T? Read<T>(string text)
    {
        try
        {
            return JsonSerializer.Deserialize<T>(text, DesignFormat.Options);
        }
        catch (JsonException)
        {
            return default;
        }
    }
}

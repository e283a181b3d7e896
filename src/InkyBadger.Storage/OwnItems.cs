using System.Text.Json;
using InkyBadger.Core.Design;
using Microsoft.EntityFrameworkCore;

namespace InkyBadger.Storage;

/// <summary>Something of the user's own library, by its kind's type: a load, an inverter.</summary>
public sealed record OwnItem<T>(string Key, T Item);

/// <summary>What a user keeps for other designs: loads, inverters. The kind is the type's name.</summary>
public sealed class OwnItems(BadgerDb db, WriteQueue writes, TimeProvider clock)
{
    /// <summary>Items of a kind that are kept at most.</summary>
    public const int Most = 500;

    /// <summary>Those that can be read; one that cannot stays where it is and takes no other with it.</summary>
    public async Task<IReadOnlyList<OwnItem<T>>> ListAsync<T>(CancellationToken stop) => [.. (
                await db
                    .Database.SqlQuery<RawItem>(
                        $"""
                        SELECT CAST(Key AS TEXT) AS Key, CAST(Document AS TEXT) AS Document
                        FROM own_items WHERE Kind = {KindOf<T>()} ORDER BY Name
                        """
                    )
                    .ToListAsync(stop)
            ).Select(Read<T>).OfType<OwnItem<T>>()];

    private sealed record RawItem(string? Key, string? Document);

    private static OwnItem<T>? Read<T>(RawItem raw)
    {
        try
        {
            return raw is { Key: { } key, Document: { } text } && JsonSerializer.Deserialize<T>(text, DesignFormat.Options) is { } item
                ? new(key, item)
                : null;
        }
        catch (JsonException)
        {
            return null;
        }
    }

    /// <summary>False when there are <see cref="Most"/> already and this would be one more.</summary>
    public Task<bool> KeepAsync<T>(string key, string name, T item, CancellationToken stop) =>
        writes.RunAsync(
            async turn =>
            {
                var kind = KindOf<T>();
                var row = await turn.Db.OwnItems.FindAsync(kind, key);
                if (row is null)
                {
                    if (await turn.Db.OwnItems.CountAsync(l => l.Kind == kind) >= Most)
                        return false;
                    row = new()
                    {
                        Kind = kind,
                        Key = key,
                        Name = "",
                        Document = "",
                    };
                    turn.Db.OwnItems.Add(row);
                }
                row.Name = name;
                row.Document = JsonSerializer.Serialize(item, DesignFormat.Options);
                row.UpdatedUtc = clock.GetUtcNow().UtcDateTime;
                await turn.Db.SaveChangesAsync();
                return true;
            },
            stop
        );

    public Task<bool> DropAsync<T>(string key, CancellationToken stop) =>
        writes.RunAsync(
            async turn => await turn.Db.OwnItems.Where(l => l.Kind == KindOf<T>() && l.Key == key).ExecuteDeleteAsync() > 0,
            stop
        );

    private static string KindOf<T>() => typeof(T).Name;
}

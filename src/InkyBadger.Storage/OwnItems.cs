using System.Text.Json;
using InkyBadger.Core.Design;
using Microsoft.EntityFrameworkCore;

namespace InkyBadger.Storage;

/// <summary>Something of the user's own library, by its kind's type: a load, an inverter.</summary>
public sealed record OwnItem<T>(string Key, T Item);

/// <summary>What a user keeps for other designs: loads, inverters. The kind is the type's name.</summary>
public sealed class OwnItems(BadgerDb db, TimeProvider clock)
{
    /// <summary>Items of a kind that are kept at most.</summary>
    public const int Most = 500;

    public async Task<IReadOnlyList<OwnItem<T>>> ListAsync<T>(CancellationToken stop) =>
        [.. (await db.OwnItems.AsNoTracking().Where(l => l.Kind == KindOf<T>()).OrderBy(l => l.Name).ToListAsync(stop)).Select(l => new OwnItem<T>(l.Key, JsonSerializer.Deserialize<T>(l.Document, DesignFormat.Options)!))];

    /// <summary>False when there are <see cref="Most"/> already and this would be one more.</summary>
    public async Task<bool> KeepAsync<T>(string key, string name, T item, CancellationToken stop)
    {
        var kind = KindOf<T>();
        var row = await db.OwnItems.FindAsync([kind, key], stop);
        if (row is null)
        {
            if (await db.OwnItems.CountAsync(l => l.Kind == kind, stop) >= Most) return false;
            row = new() { Kind = kind, Key = key, Name = "", Document = "" };
            db.OwnItems.Add(row);
        }
        row.Name = name;
        row.Document = JsonSerializer.Serialize(item, DesignFormat.Options);
        row.UpdatedUtc = clock.GetUtcNow().UtcDateTime;
        await db.SaveChangesAsync(stop);
        return true;
    }

    public async Task<bool> DropAsync<T>(string key, CancellationToken stop) => await db.OwnItems.Where(l => l.Kind == KindOf<T>() && l.Key == key).ExecuteDeleteAsync(stop) > 0;

    private static string KindOf<T>() => typeof(T).Name;
}

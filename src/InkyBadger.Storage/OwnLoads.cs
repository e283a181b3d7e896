using System.Text.Json;
using InkyBadger.Core.Design;
using Microsoft.EntityFrameworkCore;

namespace InkyBadger.Storage;

/// <summary>A load of the user's own library.</summary>
public sealed record OwnLoad(string Key, Load Load);

/// <summary>The loads a user keeps for other designs.</summary>
public sealed class OwnLoads(BadgerDb db, TimeProvider clock)
{
    public async Task<IReadOnlyList<OwnLoad>> ListAsync(CancellationToken stop) =>
        [.. (await db.OwnLoads.AsNoTracking().OrderBy(l => l.Name).ToListAsync(stop)).Select(l => new OwnLoad(l.Key, JsonSerializer.Deserialize<Load>(l.Document, DesignFormat.Options)!))];

    /// <summary>False when there are <paramref name="most"/> already and this would be one more.</summary>
    public async Task<bool> KeepAsync(string key, Load load, int most, CancellationToken stop)
    {
        var row = await db.OwnLoads.FindAsync([key], stop);
        if (row is null)
        {
            if (await db.OwnLoads.CountAsync(stop) >= most) return false;
            row = new() { Key = key, Name = "", Document = "" };
            db.OwnLoads.Add(row);
        }
        row.Name = load.Name;
        row.Document = JsonSerializer.Serialize(load, DesignFormat.Options);
        row.UpdatedUtc = clock.GetUtcNow().UtcDateTime;
        await db.SaveChangesAsync(stop);
        return true;
    }

    public async Task<bool> DropAsync(string key, CancellationToken stop) => await db.OwnLoads.Where(l => l.Key == key).ExecuteDeleteAsync(stop) > 0;
}

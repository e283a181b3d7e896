using System.Security.Cryptography;
using System.Text.Json;
using InkyBadger.Core.Design;
using InkyBadger.Core.Work;

namespace InkyBadger.Core.Builds;

/// <summary>Whether another build does the same for less.</summary>
public static class CheaperBuilds
{
    /// <summary>Less is not worth building anew on paper (a fraction of the whole cost).</summary>
    private const double Worth = 0.05;

    /// <param name="present">As the design stands.</param>
    /// <param name="found">All that were worked out.</param>
    /// <returns>The cheapest that does the same; null: none does for less.</returns>
    public static CheaperBuild? Among(Build? present, IEnumerable<Build> found)
    {
        if (present is not { Bill.IsWhole: true })
            return null;
        // The same: what is asked is held, and the inverter gives as much as runs; a build with a fault is none.
        var best = found
            .Where(b => b.Fits && b.Bill.IsWhole && b.Key != present.Key)
            .Where(b => b.UsableWh >= Math.Min(present.UsableWh, b.AskedWh ?? present.UsableWh) * (1 - Numbers.Tolerant.Noise))
            .MinBy(b => b.Bill.Total);
        return best is not null && best.Bill.Total < present.Bill.Total * (1 - Worth)
            ? new(best.Key, best.Name, best.Bill.Total, present.Bill.Total, best.UsableWh, present.UsableWh)
            : null;
    }

    /// <summary>The sign of all that a search follows from: two designs of one sign find the same.</summary>
    public static string SignOf(DesignDocument design, int bankIndex)
    {
        var counts = design with { Name = "", Notes = "", Demo = false, Decisions = [], Ledger = [], BringUp = new() };
        var hash = SHA256.HashData(JsonSerializer.SerializeToUtf8Bytes(counts, DesignFormat.Options));
        return $"{bankIndex}-{Convert.ToHexStringLower(hash.AsSpan(0, 12))}";
    }
}

using InkyBadger.Core.Design;

namespace InkyBadger.Core.Builds;

/// <summary>
/// The same builds by another set of prices (<paramref name="Set"/> null: own prices and the catalogue's): each one's whole cost (null: not
/// known), the cheapest, and up to which price of its unit it stays so.
/// </summary>
public sealed record PriceSetVerdict(
    string? Set,
    string Name,
    string? Date,
    bool InUse,
    IReadOnlyList<double?> Totals,
    string? Cheapest,
    double? UpTo,
    string Sentence
);

/// <summary>The verdict under each set of prices.</summary>
internal static class PriceSetVerdicts
{
    /// <param name="make">Builds compared, by a design with another set in use; in their order.</param>
    public static IReadOnlyList<PriceSetVerdict> Work(
        DesignDocument design,
        IReadOnlyList<Build> now,
        Func<DesignDocument, IReadOnlyList<Build>> make
    )
    {
        if (design.Prices.Sets.Count == 0)
            return [];
        var list = new List<PriceSetVerdict>();
        foreach (var set in design.Prices.Sets.Prepend(null))
        {
            var builds = set?.Id == design.Prices.InUse ? now : make(design with { Prices = design.Prices with { InUse = set?.Id } });
            list.Add(Of(design, set, builds, now));
        }
        return list;
    }

    private static PriceSetVerdict Of(DesignDocument design, PriceSet? set, IReadOnlyList<Build> builds, IReadOnlyList<Build> order)
    {
        List<Build> priced = [.. builds.Where(b => b.Fits && b.Bill.IsWhole)];
        double? Total(Build b) => builds.FirstOrDefault(x => x.Key == b.Key) is { Bill.IsWhole: true } known ? known.Bill.Total : null;
        var name = set?.Name ?? "Own prices and the catalogue’s";
        double?[] totals = [.. order.Select(Total)];
        if (priced.Count == 0)
            return new(set?.Id, name, set?.Date, set?.Id == design.Prices.InUse, totals, null, null, "Of none is every price known");
        var cheapest = priced.MinBy(b => b.Bill.Total)!;
        // Another unit's price does not move with this one's.
        double? upTo = null;
        foreach (var b in priced.Where(b => b.Choice.Unit.Key != cheapest.Choice.Unit.Key))
        {
            if (cheapest is not { UnitPrice: { } price, PricedUnits: > 0 })
                break;
            var at = price + (b.Bill.Total - cheapest.Bill.Total) / cheapest.PricedUnits;
            upTo = Math.Min(upTo ?? at, at);
        }
        var unknown = builds.Count(b => b.Fits && !b.Bill.IsWhole);
        var sentence =
            $"{cheapest.Name} costs least, {Say.Number(cheapest.Bill.Total)}"
            + (upTo is { } most ? $", and does so up to {Say.Number(most, most < 100 ? 1 : 0)} for {cheapest.Choice.Unit.Name}" : "")
            + (unknown > 0 ? $"; of {unknown} a price is not known" : "");
        return new(set?.Id, name, set?.Date, set?.Id == design.Prices.InUse, totals, cheapest.Key, upTo, sentence);
    }
}

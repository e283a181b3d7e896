using InkyBadger.Core.Design;
using InkyBadger.Core.Reference;

namespace InkyBadger.Core.Work;

/// <summary>Sets of prices: whether each line says what it prices, and says it once.</summary>
public static class PriceSetCheck
{
    internal static void Faults(PriceBasis prices, List<DesignFault> faults)
    {
        const string at = "/prices";
        if (prices.InUse is { } id && prices.Stands is null)
            faults.Add(new($"{at}/inUse", $"there is no set “{id}”"));
        if (prices.Sets.DistinctBy(s => s.Id).Count() < prices.Sets.Count)
            faults.Add(new($"{at}/sets", "each id once"));
        foreach (var (i, set) in prices.Sets.Index())
        {
            if (!set.Id.StartsWith(PriceSet.Prefix, StringComparison.Ordinal))
                faults.Add(new($"{at}/sets/{i}/id", $"begins with “{PriceSet.Prefix}” and a name"));
            var seen = new HashSet<(PriceKind, string?, double?)>();
            foreach (var (n, line) in set.Prices.Index())
                if (FaultOf(line) is { } fault)
                    faults.Add(new($"{at}/sets/{i}/prices/{n}", fault));
                else if (!seen.Add((line.Kind, line.Key, line.Size)))
                    faults.Add(new($"{at}/sets/{i}/prices/{n}", "is in the set already"));
        }
    }

    /// <summary>What is wrong with a line; null: nothing.</summary>
    public static string? FaultOf(ListedPrice line) =>
        line.Kind is PriceKind.Unit or PriceKind.Inverter or PriceKind.Fuse
            ? line is { Key.Length: > 0, Size: null }
                ? null
                : "is priced by its key alone"
            : line.Size is not { } size || line.Key is not null
                ? "is priced by its size alone"
                : Parts.Rows.Any(r => r.Kind == line.Kind && r.Size == size)
                    ? null
                    : "has a size of the table of parts: " + string.Join(", ", SizesOf(line.Kind));

    private static IEnumerable<string> SizesOf(PriceKind kind) =>
        Parts.Rows.Where(r => r.Kind == kind).Select(r => Figures.Number(r.Size, 1, true));
}

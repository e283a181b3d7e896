using InkyBadger.Core.Design;
using InkyBadger.Core.Reference;
using InkyBadger.Server.Files;
using InkyBadger.Server.Loads;

namespace InkyBadger.Server.Builds;

/// <summary>The good lines of a list of prices, and the bad ones with why.</summary>
public sealed record PriceCsvAnswer(IReadOnlyList<ListedPrice> Prices, IReadOnlyList<BadLine> Bad, string Head);

/// <summary>A set of prices as CSV, by docs/format/prices.md: what goes out can be filled in and comes in again.</summary>
public static class PriceCsv
{
    private const int MostLines = 1000;

    private static readonly string[] Columns = ["kind", "key", "size", "price", "in_stock", "what"];

    private static readonly Dictionary<string, PriceKind> Kinds = Enum.GetValues<PriceKind>()
        .ToDictionary(k => k.ToString().ToLowerInvariant());

    public static PriceCsvAnswer Read(string text, CancellationToken stop = default)
    {
        var (csv, head, decimalMark) = CsvText.Open(text);
        using var open = csv;
        if (!csv.Read())
            return new([], [new(1, "", "is empty: the first line names the columns")], head);
        var columns = Enumerable
            .Range(0, csv.Parser.Count)
            .Select(i => (csv.GetField(i) ?? "").Replace(' ', '_').Trim().ToLowerInvariant())
            .ToList();
        if (!columns.Contains("kind") || !columns.Contains("price"))
            return new([], [new(1, head, "names no columns that are known: kind, key or size, price, and in_stock")], head);
        var (prices, bad) = (new List<ListedPrice>(), new List<BadLine>());
        var seen = new HashSet<(PriceKind, string?, double?)>();
        while (csv.Read())
        {
            stop.ThrowIfCancellationRequested();
            var (line, raw) = (csv.Parser.RawRow, csv.Parser.RawRecord.TrimEnd('\r', '\n'));
            if (prices.Count + bad.Count == MostLines)
            {
                bad.Add(new(line, "", $"and what follows was not read: {MostLines} lines at a time"));
                break;
            }
            string Field(string name) =>
                columns.IndexOf(name) is >= 0 and var at && csv.GetField(at) is { } value ? CsvText.Plain(value).Trim() : "";
            if (columns.TrueForAll(c => Field(c).Length == 0))
                continue;
            try
            {
                double? Number(string name) =>
                    Field(name) is { Length: > 0 } written ? LoadFields.Number(name, written, decimalMark, []) : null;
                var kind = Kinds.TryGetValue(Field("kind").ToLowerInvariant(), out var known)
                    ? known
                    : throw new FormatException($"kind is one of {string.Join(", ", Kinds.Keys)}");
                var read = new ListedPrice
                {
                    Kind = kind,
                    Key = Field("key") is { Length: > 0 and <= 60 } key ? key : null,
                    Size = Number("size"),
                    Price = Number("price") is { } price ? Sensible(price) : null,
                    InStock = Stock(Field("in_stock")),
                };
                if (PriceSetCheck.FaultOf(read) is { } fault)
                    throw new FormatException(fault);
                if (!seen.Add((read.Kind, read.Key, read.Size)))
                    throw new FormatException("is in the list already");
                prices.Add(read);
            }
            catch (FormatException e)
            {
                bad.Add(new(line, raw, e.Message));
            }
        }
        return new(prices, bad, head);
    }

    private static double Sensible(double price) =>
        price is >= 0 and <= 1_000_000 ? price : throw new FormatException("price is 0 to 1,000,000, or left empty where nobody knows it");

    private static bool? Stock(string word) =>
        word.ToLowerInvariant() switch
        {
            "" => null,
            "yes" or "y" or "true" or "1" => true,
            "no" or "n" or "false" or "0" => false,
            _ => throw new FormatException("in_stock is yes, no, or left empty"),
        };

    /// <summary>Everything that has a price, as the set has it; what is not known is left empty.</summary>
    /// <param name="set">Id; null: own prices and the catalogue's.</param>
    public static string Write(DesignDocument design, string? set, IReadOnlyList<UnitItem> units, IReadOnlyList<InverterItem> inverters)
    {
        var prices = design.Prices with { InUse = set };
        var listed = design.Prices.Sets.FirstOrDefault(s => s.Id == set)?.Prices ?? [];
        object? InStock(PriceKind kind, string? key, double? size) =>
            listed.FirstOrDefault(p => p.Kind == kind && p.Key == key && p.Size == size)?.InStock is { } there
                ? (there ? "yes" : "no")
                : null;
        var parts = PartPrices.Of(prices);
        IEnumerable<object?[]> Rows()
        {
            foreach (var u in units.DistinctBy(u => u.Key))
                yield return ["unit", u.Key, null, prices.Of(u), InStock(PriceKind.Unit, u.Key, null), u.Name];
            foreach (var i in inverters.DistinctBy(i => i.Key))
                yield return ["inverter", i.Key, null, prices.Of(i), InStock(PriceKind.Inverter, i.Key, null), i.Name];
            foreach (var id in Parts.Fuses.Keys)
                yield return ["fuse", id, null, parts.Fuse(id), InStock(PriceKind.Fuse, id, null), FuseClasses.Get(id).Label];
            foreach (var row in Parts.Rows)
                yield return
                [
                    row.Kind.ToString().ToLowerInvariant(),
                    null,
                    row.Size,
                    parts.Of(row),
                    InStock(row.Kind, null, row.Size),
                    Unit(row.Kind),
                ];
        }
        return CsvText.Write(Columns, Rows());
    }

    /// <summary>What a size is in.</summary>
    private static string Unit(PriceKind kind) =>
        kind switch
        {
            PriceKind.Cable => "mm², a metre",
            PriceKind.Lug => "mm²",
            PriceKind.Converter => "W",
            PriceKind.Controller or PriceKind.Switch or PriceKind.Busbar => "A",
            PriceKind.Box => "litres",
            PriceKind.Rate => "an hour",
            _ => "",
        };
}

using InkyBadger.Core.Design;

namespace InkyBadger.Core.Reference;

/// <summary>
/// What parts cost in a design: by the set of prices in use, else by the table of parts; null where the set says that nobody knows, or
/// lists alone what is known.
/// </summary>
public sealed class PartPrices
{
    private readonly PriceBasis prices;
    private readonly Dictionary<(PriceKind, double), double?> listed;

    /// <summary>The table alone.</summary>
    private static readonly PartPrices Typical = new(new());

    private PartPrices(PriceBasis prices)
    {
        this.prices = prices;
        listed = [];
        foreach (var line in prices.Stands?.Prices ?? [])
            if (line.Size is { } size)
                listed[(line.Kind, size)] = line.Price;
    }

    public static PartPrices Of(PriceBasis prices) => prices is { Stands: null, HourRate: null } ? Typical : new(prices);

    /// <summary>A set of prices counts before the table.</summary>
    public bool IsOwn => prices.Stands is not null;

    /// <summary>A metre of single cable, by the next cross-section at or above [mm²].</summary>
    public double? CablePerM(double areaMm2) => Next(PriceKind.Cable, areaMm2);

    public double? Lug(double areaMm2) => Next(PriceKind.Lug, areaMm2);

    /// <summary>A step-down converter of at least so many watts out; above the largest, as many of the largest as it takes.</summary>
    public double? Converter(double watts)
    {
        if (watts <= 0)
            return 0;
        var largest = Parts.Rows.Last(r => r.Kind == PriceKind.Converter);
        var whole = Math.Floor(watts / largest.Size);
        var rest = watts - whole * largest.Size;
        return (whole > 0 ? whole * Of(largest) : 0) + (rest > Tolerant.Noise ? Next(PriceKind.Converter, rest) : 0);
    }

    /// <summary>A charge controller of at least so many amperes.</summary>
    public double? Controller(double amps) => Next(PriceKind.Controller, amps);

    /// <summary>A fuse of the class with its holder, whatever its rating.</summary>
    public double? Fuse(string fuseClass) =>
        prices.Stands?.Find(PriceKind.Fuse, fuseClass) is { } line ? line.Price : prices.OrElse(Parts.Fuses[fuseClass]);

    /// <summary>What keeps the units of a string level that do not talk to each other.</summary>
    public double? Balancer => Next(PriceKind.Balancer, 1);

    public double? Switch(double amps) => Next(PriceKind.Switch, amps);

    /// <summary>One bus bar with its cover.</summary>
    public double? BusBar(double amps) => Next(PriceKind.Busbar, amps);

    /// <summary>Shunt and display.</summary>
    public double? Monitor => Next(PriceKind.Monitor, 1);

    /// <summary>A box or a frame for so many litres of units.</summary>
    public double? Box(double litres) => Next(PriceKind.Box, litres);

    /// <summary>
    /// An hour's work: as the design says, else by the set in use, else by the table. One's own hands have a price, so it is known.
    /// </summary>
    public double HourRate =>
        prices.HourRate
        ?? (listed.TryGetValue((PriceKind.Rate, 1), out var rate) ? rate : null)
        ?? Parts.Rows.First(r => r.Kind == PriceKind.Rate).Price;

    /// <summary>A line of the table as it costs here.</summary>
    public double? Of(PartRow row) => listed.TryGetValue((row.Kind, row.Size), out var price) ? price : prices.OrElse(row.Price);

    private double? Next(PriceKind kind, double size)
    {
        PartRow? last = null;
        foreach (var row in Parts.Rows)
        {
            if (row.Kind != kind)
                continue;
            last = row;
            if (Tolerant.AtLeast(row.Size, size))
                return Of(row);
        }
        // Beyond the table a price grows with the copper.
        return Of(last!) * size / last!.Size;
    }
}

using InkyBadger.Core.Wiring;

namespace InkyBadger.Core.Reference;

/// <summary>
/// Invented prices of parts in an unnamed currency, tables <c>parts</c> and <c>fuse-prices</c>; prices carry the catalogue's date.
/// </summary>
public static class Parts
{
    private sealed record Row(string Kind, double Size, double Price);

    private static readonly IReadOnlyList<Row> Rows = TableFile.Read("parts", r => new Row(r.Text("kind"), r.Num("size"), r.Num("price")));

    private static readonly Dictionary<string, double> FusePrices = TableFile
        .Read("fuse-prices", r => (Class: r.Text("class"), Price: r.Num("price")))
        .ToDictionary(r => r.Class, r => r.Price);

    /// <summary>Amperes of charge controllers that are made.</summary>
    public static IReadOnlyList<double> ControllerAmps { get; } = [.. Rows.Where(r => r.Kind == "controller").Select(r => r.Size)];

    /// <summary>A metre of single cable, by the next cross-section at or above [mm²].</summary>
    public static double CablePerM(double areaMm2) => Next("cable", areaMm2);

    public static double Lug(double areaMm2) => Next("lug", areaMm2);

    /// <summary>A step-down converter of at least so many watts out; above the largest, as many of the largest as it takes.</summary>
    public static double Converter(double watts)
    {
        if (watts <= 0)
            return 0;
        var largest = Rows.Last(r => r.Kind == "converter");
        var whole = Math.Floor(watts / largest.Size);
        var rest = watts - whole * largest.Size;
        return whole * largest.Price + (rest > Tolerant.Noise ? Next("converter", rest) : 0);
    }

    /// <summary>A charge controller of at least so many amperes.</summary>
    public static double Controller(double amps) => Next("controller", amps);

    /// <summary>A fuse of the class with its holder, whatever its rating.</summary>
    public static double Fuse(string fuseClass) => FusePrices[fuseClass];

    /// <summary>What keeps the units of a string level that do not talk to each other.</summary>
    public static double Balancer => Next("balancer", 1);

    public static double Switch(double amps) => Next("switch", amps);

    /// <summary>One bus bar with its cover.</summary>
    public static double BusBar(double amps) => Next("busbar", amps);

    /// <summary>Shunt and display.</summary>
    public static double Monitor => Next("monitor", 1);

    /// <summary>A box or a frame for so many litres of units.</summary>
    public static double Box(double litres) => Next("box", litres);

    /// <summary>An hour's work, until the design says its own.</summary>
    public static double HourRate => Next("rate", 1);

    private static double Next(string kind, double size)
    {
        Row? last = null;
        foreach (var row in Rows)
        {
            if (row.Kind != kind)
                continue;
            last = row;
            if (Tolerant.AtLeast(row.Size, size))
                return row.Price;
        }
        // Beyond the table a price grows with the copper.
        return last!.Price * size / last.Size;
    }
}

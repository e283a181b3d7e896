namespace InkyBadger.Core.Reference;

/// <summary>A conductor size: cross-section [mm²] and resistance at 20 °C [mΩ/m]. Typical values, table <c>conductors</c>.</summary>
public sealed record Conductor(string Series, string Size, double AreaMm2, double R20MilliohmPerM)
{
    /// <summary>Diameter of the bare copper seen as a solid disc [mm].</summary>
    public double DiameterMm => Math.Sqrt(4 * AreaMm2 / Math.PI);
}

/// <summary>Copper conductor sizes, metric and AWG.</summary>
public static class Conductors
{
    public static IReadOnlyList<Conductor> All { get; } =
        TableFile.Read("conductors", r => new Conductor(r.Text("series"), r.Text("size"), r.Num("area_mm2"), r.Num("r20_milliohm_per_m")));

    private static readonly Dictionary<string, Conductor> BySize = All.ToDictionary(c => c.Size);

    /// <exception cref="Refusal"><c>size</c> when it is not in the table.</exception>
    public static Conductor Get(string size) =>
        BySize.TryGetValue(size, out var found) ? found : throw new Refusal("size", $"“{size}” is not a size of the conductor table");

    public static Conductor? Find(string size) => BySize.GetValueOrDefault(size);

    public static bool Has(string size) => BySize.ContainsKey(size);
}

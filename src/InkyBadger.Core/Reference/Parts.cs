using InkyBadger.Core.Design;

namespace InkyBadger.Core.Reference;

/// <summary>A part of the table: its kind, its size (mm², W, A, litres, or 1) and what it costs.</summary>
public sealed record PartRow(PriceKind Kind, double Size, double Price);

/// <summary>
/// Invented prices of parts in an unnamed currency, tables <c>parts</c> and <c>fuse-prices</c>; prices carry the catalogue's date.
/// </summary>
public static class Parts
{
    public static IReadOnlyList<PartRow> Rows { get; } =
        TableFile.Read("parts", r => new PartRow(Enum.Parse<PriceKind>(r.Text("kind"), true), r.Num("size"), r.Num("price")));

    /// <summary>Of each fuse class with its holder, whatever its rating.</summary>
    public static IReadOnlyDictionary<string, double> Fuses { get; } =
        TableFile.Read("fuse-prices", r => (Class: r.Text("class"), Price: r.Num("price"))).ToDictionary(r => r.Class, r => r.Price);

    /// <summary>Amperes of charge controllers that are made.</summary>
    public static IReadOnlyList<double> ControllerAmps { get; } = [.. Rows.Where(r => r.Kind == PriceKind.Controller).Select(r => r.Size)];
}

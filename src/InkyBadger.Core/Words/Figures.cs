using System.Globalization;
using System.Text.Json;
using InkyBadger.Core.Design;

namespace InkyBadger.Core.Words;

/// <summary>
/// How a figure is written, by its unit: rounded, scaled and named by the one table <c>docs/format/figures.json</c>, which the screens read
/// too. Of a unit's bands the first counts whose bounds the figure keeps. Halves go up.
/// </summary>
public static class Figures
{
    /// <summary>
    /// From (or above) so much [unit of the figure], times a factor, in this unit, with so many decimals or significant digits.
    /// </summary>
    private sealed record Band(double? From, double? Above, double? Times, string Unit, int? Decimals, bool AsNeeded, int? Significant);

    private static readonly Dictionary<string, Band[]> Table = Read();

    private static Dictionary<string, Band[]> Read()
    {
        using var stream = typeof(Figures).Assembly.GetManifestResourceStream("format/figures.json")
            ?? throw new InvalidOperationException("the table of formats is not embedded");
        return JsonSerializer.Deserialize<Dictionary<string, Band[]>>(stream, new JsonSerializerOptions(JsonSerializerDefaults.Web))!;
    }

    /// <param name="value">In the figure's own unit.</param>
    /// <param name="unit">A unit of the table; any other is written after the number as it is.</param>
    /// <param name="system">Feet and pounds, or metres and kilograms.</param>
    public static string Say(double value, string unit, UnitSystem system = UnitSystem.Metric)
    {
        var bands =
            system == UnitSystem.Imperial && Table.TryGetValue(unit + " imperial", out var other) ? other : Table.GetValueOrDefault(unit);
        if (bands is null)
            return $"{Number(value, 3, true)} {unit}".TrimEnd();
        var size = Math.Abs(value);
        var band = bands[^1];
        foreach (var b in bands)
        {
            if (size < (b.From ?? 0) || b.Above is { } bound && size <= bound)
                continue;
            band = b;
            break;
        }
        var scaled = value * (band.Times ?? 1);
        var number = band.Significant is { } digits ? Significant(scaled, digits) : Number(scaled, band.Decimals ?? 0, band.AsNeeded);
        return $"{number} {band.Unit}";
    }

    private static readonly string[] Fixed = ["N0", "N1", "N2", "N3", "N4", "N5", "N6"];
    private static readonly string[] AsNeeded = ["#,0", "#,0.#", "#,0.##", "#,0.###", "#,0.####", "#,0.#####", "#,0.######"];

    /// <summary>A number with its thousands parted, and a true minus.</summary>
    public static string Number(double value, int decimals, bool asNeeded = false)
    {
        // Most figures that are said on the way are whole: ratings, sizes, volts of a class.
        if ((asNeeded || decimals == 0) && value is >= 0 and < 1e9 && value == Math.Floor(value))
            return ((int)value).ToString(value < 1000 ? null : "N0", CultureInfo.InvariantCulture);
        // By its decimal digits, as one reads them: 1.005 is a half.
        var rounded = Math.Abs(value) < 1e15 ? (double)Math.Round((decimal)value, decimals, MidpointRounding.AwayFromZero) : value;
        var text = rounded.ToString(asNeeded ? AsNeeded[decimals] : Fixed[decimals], CultureInfo.InvariantCulture);
        if (rounded >= 0)
            return text;
        return text.Replace('-', '−');
    }

    private static string Significant(double value, int digits) =>
        double.Parse(value.ToString("E" + (digits - 1), CultureInfo.InvariantCulture), CultureInfo.InvariantCulture)
            .ToString("#,0.############", CultureInfo.InvariantCulture)
            .Replace('-', '−');
}

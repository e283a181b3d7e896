using System.Globalization;
using CsvHelper;
using CsvHelper.Configuration;

namespace InkyBadger.Core.Reference;

/// <summary>Reads a table that is embedded in this assembly. All tables hold typical values of common practice.</summary>
internal static class TableFile
{
    public static IReadOnlyList<T> Read<T>(string name, Func<CsvReader, T> row)
    {
        using var stream = typeof(TableFile).Assembly.GetManifestResourceStream($"tables/{name}.csv")
            ?? throw new InvalidOperationException($"table {name} is not embedded");
        using var csv = new CsvReader(
            new StreamReader(stream),
            new CsvConfiguration(CultureInfo.InvariantCulture) { TrimOptions = TrimOptions.Trim }
        );
        csv.Read();
        csv.ReadHeader();
        var rows = new List<T>();
        while (csv.Read())
            rows.Add(row(csv));
        return rows;
    }

    public static double Num(this CsvReader csv, string column) => csv.GetField<double>(column);

    public static double? Opt(this CsvReader csv, string column) =>
        csv.GetField(column) is { Length: > 0 } text ? double.Parse(text, CultureInfo.InvariantCulture) : null;

    public static string Text(this CsvReader csv, string column) => csv.GetField(column) ?? "";
}

using System.Globalization;
using CsvHelper;
using CsvHelper.Configuration;

namespace InkyBadger.Server.Files;

/// <summary>Lists written as CSV: comma between the fields, a point in numbers, the columns' names first.</summary>
internal static class CsvText
{
    /// <summary>A field that a spreadsheet would take for a formula is quoted away.</summary>
    public static string Write(IEnumerable<string> columns, IEnumerable<IEnumerable<object?>> rows)
    {
        using var text = new StringWriter(CultureInfo.InvariantCulture);
        using (var csv = new CsvWriter(text, new CsvConfiguration(CultureInfo.InvariantCulture) { InjectionOptions = InjectionOptions.Escape, InjectionEscapeCharacter = '\'' }))
        {
            foreach (var column in columns) csv.WriteField(column);
            csv.NextRecord();
            foreach (var row in rows)
            {
                foreach (var field in row) csv.WriteField(field is IFormattable number ? number.ToString(null, CultureInfo.InvariantCulture) : field?.ToString() ?? "");
                csv.NextRecord();
            }
        }
        return text.ToString();
    }
}

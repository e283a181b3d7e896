using System.Globalization;
using CsvHelper;
using CsvHelper.Configuration;

namespace InkyBadger.Server.Files;

/// <summary>Lists as CSV. Written: comma between the fields, a point in numbers, the columns' names first.</summary>
internal static class CsvText
{
    /// <summary>What a spreadsheet takes for the beginning of a formula, in either width.</summary>
    private const string Runs = "=+-@＝＋－＠";

    /// <summary>
    /// Text goes out with a guard wherever a spreadsheet would run it, whichever separator it reads by; numbers stay as they are.
    /// </summary>
    public static string Write(IEnumerable<string> columns, IEnumerable<IEnumerable<object?>> rows)
    {
        using var text = new StringWriter(CultureInfo.InvariantCulture);
        using (var csv = new CsvWriter(text, new CsvConfiguration(CultureInfo.InvariantCulture)))
        {
            foreach (var column in columns)
                csv.WriteField(column);
            csv.NextRecord();
            foreach (var row in rows)
            {
                foreach (var field in row)
                    csv.WriteField(
                        field is IFormattable number
                            ? number.ToString(null, CultureInfo.InvariantCulture)
                            : Guarded(field?.ToString() ?? "")
                    );
                csv.NextRecord();
            }
        }
        return text.ToString();
    }

    /// <summary>
    /// A file to be read field by field: its head line, and the separator that line uses most (a semicolon brings the decimal comma with
    /// it).
    /// </summary>
    public static (CsvReader Csv, string Head, bool DecimalComma) Open(string text)
    {
        text = text.TrimStart('\uFEFF');
        var head = text.Split('\n').FirstOrDefault(l => l.Trim().Length > 0)?.Trim('\r', ' ') ?? "";
        var delimiter = ";\t,".MaxBy(c => head.Count(x => x == c));
        var csv = new CsvReader(
            new StringReader(text),
            new CsvConfiguration(CultureInfo.InvariantCulture)
            {
                Delimiter = delimiter.ToString(),
                TrimOptions = TrimOptions.Trim,
                BadDataFound = null,
                MissingFieldFound = null,
                IgnoreBlankLines = true,
                HasHeaderRecord = false,
            }
        );
        return (csv, head, delimiter == ';');
    }

    /// <summary>The field with an apostrophe before every formula in it; <see cref="Plain"/> gives back what it was.</summary>
    public static string Guarded(string text)
    {
        var guarded = new System.Text.StringBuilder(text.Length);
        foreach (var part in Starts(text))
            guarded.Append(Runs.Contains(part.First) ? "'" : "").Append(text, part.At, part.Length);
        return guarded.ToString();
    }

    /// <summary>A field as it was before it was guarded.</summary>
    public static string Plain(string text)
    {
        var plain = new System.Text.StringBuilder(text.Length);
        foreach (var part in Starts(text))
        {
            var guard = Runs.Contains(part.First) && text[part.At] == '\'' ? 1 : 0;
            plain.Append(text, part.At + guard, part.Length - guard);
        }
        return plain.ToString();
    }

    /// <summary>
    /// The text in pieces that each begin where a spreadsheet may see a cell's beginning: at its start, and after any separator, passing
    /// over blanks and quotation marks. <c>First</c> is what follows the apostrophes there.
    /// </summary>
    private static IEnumerable<(int At, int Length, char First)> Starts(string text)
    {
        var at = 0;
        var from = Skip(0);
        if (from > 0)
            yield return (0, from, '\0');
        at = from;
        for (var i = at; i < text.Length; i++)
        {
            if (!",;\t\r\n".Contains(text[i]))
                continue;
            var next = Skip(i + 1);
            yield return (at, next - at, First(at));
            (at, i) = (next, next - 1);
        }
        if (at < text.Length)
            yield return (at, text.Length - at, First(at));

        int Skip(int i)
        {
            while (i < text.Length && (text[i] is '"' || char.IsWhiteSpace(text[i])))
                i++;
            return i;
        }
        char First(int i)
        {
            while (i < text.Length && text[i] == '\'')
                i++;
            return i < text.Length ? text[i] : '\0';
        }
    }
}

using System.Globalization;
using System.Text.RegularExpressions;
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
    /// A file to be read field by field, its head line, and its decimal mark: the one its numbers show wherever they can be read in one way
    /// only; null where they show none, or both. Its separator is the one the head line uses most.
    /// </summary>
    public static (CsvReader Csv, string Head, char? Decimal) Open(string text)
    {
        text = text.TrimStart('\uFEFF');
        var head = text.Split('\n').FirstOrDefault(l => l.Trim().Length > 0)?.Trim('\r', ' ') ?? "";
        var delimiter = ";\t,".MaxBy(c => head.Count(x => x == c));
        return (Reader(text, delimiter), head, DecimalOf(text, delimiter));
    }

    private static char? DecimalOf(string text, char delimiter)
    {
        using var csv = Reader(text, delimiter);
        var (comma, point) = (false, false);
        while (csv.Read() && !(comma && point))
            for (var i = 0; i < csv.Parser.Count; i++)
                if (csv.GetField(i) is { Length: > 1 and < 24 } cell && Plainly.Match(cell) is { Success: true } match)
                {
                    var mark = match.Groups[1].Success ? match.Groups[1].Value : match.Groups[2].Value;
                    comma |= mark == ",";
                    point |= mark == ".";
                }
        return comma == point ? null
            : comma ? ','
            : '.';
    }

    /// <summary>A pattern that never looks at a character twice: no cell, however made, holds the machine up.</summary>
    private const RegexOptions Linear = RegexOptions.NonBacktracking | RegexOptions.CultureInvariant;

    /// <summary>A number whose mark can only be the decimal one: not followed by just three digits, or after a leading zero.</summary>
    private static readonly Regex Plainly = new(
        @"^(?:[-+−]?(?:[0-9]+|[0-9]{1,3}(?:[.,\s'’][0-9]{3})+)?([.,])(?:[0-9]{1,2}|[0-9]{4,})|0([.,])[0-9]+)\s*[^0-9.,]{0,4}$",
        Linear
    );

    private static CsvReader Reader(string text, char delimiter) =>
        new(
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

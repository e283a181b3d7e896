using System.Globalization;
using InkyBadger.Core.Design;
using InkyBadger.Core.Sheets;
using InkyBadger.Server.Files;
using InkyBadger.Server.Loads;

namespace InkyBadger.Server.Sheets;

/// <summary>A list that comes back: the changes it makes, its lines that were understood, and those that were not, with why.</summary>
public sealed record ListBackAnswer(string List, IReadOnlyList<DesignChange> Changes, int Read, IReadOnlyList<BadLine> Bad);

/// <summary>A list with the design it belongs to.</summary>
public sealed record ListBackRequest(System.Text.Json.Nodes.JsonObject Design, string Csv);

/// <summary>
/// Reads parts, cut and settings lists that were written by <see cref="SheetCsv"/> and filled in by a hand or a spreadsheet. Only what a
/// builder writes into them is taken: how many have come how far and when, what was paid, which settings are in and what the meter showed.
/// </summary>
internal static class SheetListReader
{
    private const int MostLines = 5000;

    public static ListBackAnswer Read(DesignDocument design, string text, CancellationToken stop)
    {
        var (csv, head, decimalMark) = CsvText.Open(text);
        using var open = csv;
        if (!csv.Read())
            return new("", [], 0, [new(1, "", "is empty: the first line names the columns")]);
        List<string> columns = [.. Enumerable.Range(0, csv.Parser.Count).Select(i => (csv.GetField(i) ?? "").Trim().ToLowerInvariant())];
        var settings = columns.Contains("device") && columns.Contains("setting");
        if (!columns.Contains("key") || !settings && !columns.Contains("fitted"))
            return new(
                "",
                [],
                0,
                [new(1, head, "is none of the lists that can come back: parts, cuts or settings with their column “key”")]
            );
        var (after, read, bad) = (design, 0, new List<BadLine>());
        var parts = settings ? [] : BuildLedger.Work(design).Rows.ToDictionary(r => r.Part.Key, r => r.Part, StringComparer.Ordinal);
        while (csv.Read())
        {
            stop.ThrowIfCancellationRequested();
            var (line, raw) = (csv.Parser.RawRow, csv.Parser.RawRecord.TrimEnd('\r', '\n'));
            if (read + bad.Count == MostLines)
            {
                bad.Add(new(line, "", $"and what follows was not read: {MostLines} lines at a time"));
                break;
            }
            var fields = new Dictionary<string, string>();
            for (var i = 0; i < Math.Min(columns.Count, csv.Parser.Count); i++)
                if (csv.GetField(i) is { Length: > 0 } value)
                    fields[columns[i]] = CsvText.Plain(value);
            try
            {
                after = settings ? Setting(after, fields, decimalMark) : Marks(after, parts, fields, decimalMark);
                read++;
            }
            catch (FormatException e)
            {
                bad.Add(new(line, raw, e.Message));
            }
        }
        return new(settings ? "settings" : "parts", DesignDifference.Between(design, after), read, bad);
    }

    private static double? Number(Dictionary<string, string> fields, string field, char? mark) =>
        fields.TryGetValue(field, out var text) ? LoadFields.Number(field, text, mark, []) : null;

    private static string? Day(Dictionary<string, string> fields, string field) =>
        !fields.TryGetValue(field, out var text) ? null
        : DateOnly.TryParseExact(text, "yyyy-MM-dd", CultureInfo.InvariantCulture, DateTimeStyles.None, out _) ? text
        : throw new FormatException($"{field}: “{text}” is no day as YYYY-MM-DD");

    private static DesignDocument Marks(
        DesignDocument design,
        Dictionary<string, Part> parts,
        Dictionary<string, string> fields,
        char? mark
    )
    {
        if (!fields.TryGetValue("key", out var key) || !parts.TryGetValue(key, out var part))
            throw new FormatException($"key: the design has no part “{fields.GetValueOrDefault("key")}”");
        var marks = new List<LedgerMark>();
        foreach (var stop in Enum.GetValues<LedgerStop>())
        {
            var word = stop.ToString().ToLowerInvariant();
            if (Number(fields, word, mark) is not (> 0 and var count))
                continue;
            if (count > Math.Max(part.Count, design.Ledger.FirstOrDefault(e => e.Key == key)?.Reached(stop) ?? 0))
                throw new FormatException($"{word}: {Say.Number(count, 2)}, where the design has {Say.Number(part.Count, 2)}");
            marks.Add(
                new()
                {
                    Stop = stop,
                    Count = count,
                    Date = Day(fields, $"{word} on"),
                    Reason =
                        stop == LedgerStop.Proven
                            ? fields.GetValueOrDefault("why proven") ?? throw new FormatException("why proven: not said")
                            : null,
                }
            );
        }
        var paid = Number(fields, "paid", mark);
        return paid < 0 ? throw new FormatException("paid: is below 0") : ListBack.WithMarks(design, part, marks, paid);
    }

    private static DesignDocument Setting(DesignDocument design, Dictionary<string, string> fields, char? mark)
    {
        var key = fields.GetValueOrDefault("key") ?? "";
        var set = (fields.GetValueOrDefault("set") ?? "").ToLowerInvariant();
        if (set is not ("" or "yes" or "no" or "true" or "false" or "1" or "0"))
            throw new FormatException($"set: “{set}” is neither yes nor no");
        // A battery type is chosen at the device’s own list, not ticked.
        if (key.EndsWith("/preset", StringComparison.Ordinal))
            return design;
        return
            key.Split('/') is [var bank, var device, var name]
            && ListBack.WithSetting(
                design,
                bank,
                device,
                name,
                set is "yes" or "true" or "1",
                Number(fields, "meter", mark),
                Day(fields, "date")
            )
                is { } after
            ? after
            : throw new FormatException($"key: the design has no setting “{key}”");
    }
}

using InkyBadger.Core.Demand;
using InkyBadger.Core.Design;
using InkyBadger.Server.Files;

namespace InkyBadger.Server.Loads;

/// <summary>A line that could not be read: its number in the file, the line as it stood, and why.</summary>
public sealed record BadLine(int Line, string Text, string Reason);

/// <summary>What a CSV of loads holds: the loads of its good lines, the bad lines for mending, and the heads they were read by.</summary>
public sealed record LoadCsvAnswer(IReadOnlyList<Load> Loads, IReadOnlyList<BadLine> Bad, string Head);

/// <summary>
/// Load lists as CSV, by docs/format/loads.md: a head that names the columns in any order, comma, semicolon or tab between them; a
/// semicolon brings the decimal comma with it.
/// </summary>
public sealed class LoadCsv(LoadReader reader)
{
    public const int MostLoads = 500;

    /// <summary>Nobody mends more lines than these one by one; what follows is not read.</summary>
    public const int MostBad = 200;

    private static readonly string[] Columns =
    [
        "name",
        "kind",
        "watts",
        "amps",
        "volts",
        "quantity",
        "hours",
        "times",
        "duty",
        "start watts",
        "start seconds",
        "season",
        "va",
        "power factor",
        "adapter",
        "min volts",
        "max volts",
        "wave sensitive",
        "must stay",
        "has reserve",
        "states",
    ];

    private static readonly Dictionary<string, string> Synonyms = new(StringComparer.OrdinalIgnoreCase)
    {
        ["load"] = "name",
        ["device"] = "name",
        ["item"] = "name",
        ["appliance"] = "name",
        ["type"] = "kind",
        ["fed by"] = "kind",
        ["w"] = "watts",
        ["power"] = "watts",
        ["power w"] = "watts",
        ["a"] = "amps",
        ["amperes"] = "amps",
        ["current"] = "amps",
        ["v"] = "volts",
        ["voltage"] = "volts",
        ["qty"] = "quantity",
        ["count"] = "quantity",
        ["how many"] = "quantity",
        ["number"] = "quantity",
        ["h"] = "hours",
        ["hours a day"] = "hours",
        ["hours per day"] = "hours",
        ["h/day"] = "hours",
        ["when"] = "times",
        ["windows"] = "times",
        ["duty cycle"] = "duty",
        ["surge"] = "start watts",
        ["surge watts"] = "start watts",
        ["start w"] = "start watts",
        ["start s"] = "start seconds",
        ["pf"] = "power factor",
        ["sensitive"] = "wave sensitive",
    };

    /// <summary>Reads a whole file; nothing in it can make it fail as a whole but a head that names no columns.</summary>
    public LoadCsvAnswer Read(string text, CancellationToken stop = default)
    {
        var (csv, head, decimalMark) = CsvText.Open(text);
        using var open = csv;
        if (!csv.Read())
            return new([], [new(1, "", "is empty: the first line names the columns, such as name,kind,watts,hours")], head);
        var columns = Enumerable.Range(0, csv.Parser.Count).Select(i => Column(csv.GetField(i) ?? "")).ToList();
        if (!columns.Contains("name") || !columns.Any(c => c is "watts" or "amps" or "va" or "states"))
            return new(
                [],
                [new(1, head, "names no columns that are known: it needs name, and watts or amps, such as name,kind,watts,hours")],
                head
            );
        var loads = new List<Load>();
        var bad = new List<BadLine>();
        while (csv.Read())
        {
            stop.ThrowIfCancellationRequested();
            var line = csv.Parser.RawRow;
            if (bad.Count == MostBad)
            {
                bad.Add(new(line, "", $"and what follows was not read: there are {MostBad} bad lines before it"));
                break;
            }
            var raw = csv.Parser.RawRecord.TrimEnd('\r', '\n');
            try
            {
                if (csv.Parser.Count > columns.Count)
                    throw new FormatException($"has {csv.Parser.Count} fields, and the head names {columns.Count}");
                var fields = new Dictionary<string, string>();
                for (var i = 0; i < Math.Min(columns.Count, csv.Parser.Count); i++)
                    if (columns[i] is { } column && csv.GetField(i) is { Length: > 0 } value)
                        fields[column] = CsvText.Plain(value);
                if (fields.Count == 0)
                    continue;
                if (loads.Count == MostLoads)
                    throw new FormatException($"is one more than the {MostLoads} loads a bank may have");
                var load = LoadFields.Read(fields, decimalMark) with { Id = $"c{line}" };
                if (reader.Faults(load) is [var fault, ..])
                    throw new FormatException($"{Named(fault.Pointer)} {fault.Reason}");
                loads.Add(load);
            }
            catch (FormatException e)
            {
                bad.Add(new(line, raw, e.Message));
            }
        }
        return new(loads, bad, head);
    }

    private static string? Column(string head)
    {
        var plain = string.Join(
                ' ',
                head.Replace('_', ' ').Replace('(', ' ').Replace(')', ' ').Split(' ', StringSplitOptions.RemoveEmptyEntries)
            )
            .ToLowerInvariant();
        return Columns.Contains(plain) ? plain : Synonyms.GetValueOrDefault(plain);
    }

    /// <summary>The document's field as the file calls it.</summary>
    private static string Named(string pointer) =>
        pointer.Split('/') is { Length: > 1 } parts
            ? parts[1] switch
            {
                "surgeWatts" => "start watts",
                "startSeconds" => "start seconds",
                "windows" => "times",
                "adapterEfficiency" => "adapter",
                "powerFactor" => "power factor",
                var x => x,
            }
            : "the line";

    /// <summary>The loads as a file that <see cref="Read"/> takes back.</summary>
    public static string Write(IEnumerable<Load> loads) => CsvText.Write(Columns, loads.Select(LoadFields.Write));
}

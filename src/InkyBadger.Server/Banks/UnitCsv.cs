using InkyBadger.Core.Design;
using InkyBadger.Core.Reference;
using InkyBadger.Server.Files;
using InkyBadger.Server.Loads;

namespace InkyBadger.Server.Banks;

/// <summary>Units of a CSV: those of its good lines, and the bad lines with why.</summary>
public sealed record UnitCsvAnswer(IReadOnlyList<UnitItem> Units, IReadOnlyList<BadLine> Bad, string Head);

/// <summary>Stocks of units as CSV, by docs/format/units.md.</summary>
public sealed class UnitCsv(UnitReader reader)
{
    /// <summary>Lines that are read at most, good or bad; as many as own units are kept.</summary>
    public const int MostLines = 500;

    private static readonly string[] Columns =
    [
        "name",
        "chemistry",
        "cells",
        "ah",
        "rated hours",
        "reserve minutes",
        "reserve amps",
        "bms amps",
        "bms peak amps",
        "bms peak seconds",
        "bms charge amps",
        "continuous amps",
        "milliohm",
        "mass kg",
        "length mm",
        "width mm",
        "height mm",
        "terminal side",
        "stud",
        "price",
        "price date",
        "product line",
        "cycle life",
        "cycle depth",
        "calendar years",
        "max series",
        "max parallel",
        "communicates",
        "breaker amps",
        "breaker interrupt amps",
    ];

    public UnitCsvAnswer Read(string text, CancellationToken stop = default)
    {
        var (csv, head, decimalMark) = CsvText.Open(text);
        using var open = csv;
        if (!csv.Read())
            return new([], [new(1, "", "is empty: the first line names the columns, such as name,chemistry,cells,ah")], head);
        var columns = Enumerable
            .Range(0, csv.Parser.Count)
            .Select(i => (csv.GetField(i) ?? "").Replace('_', ' ').ToLowerInvariant())
            .ToList();
        if (!columns.Contains("name") || !columns.Contains("ah"))
            return new([], [new(1, head, "names no columns that are known: it needs name, chemistry, cells and ah")], head);
        var units = new List<UnitItem>();
        var bad = new List<BadLine>();
        while (csv.Read())
        {
            stop.ThrowIfCancellationRequested();
            var (line, raw) = (csv.Parser.RawRow, csv.Parser.RawRecord.TrimEnd('\r', '\n'));
            if (units.Count + bad.Count == MostLines)
            {
                bad.Add(new(line, "", $"and what follows was not read: {MostLines} lines at a time"));
                break;
            }
            try
            {
                if (csv.Parser.Count > columns.Count)
                    throw new FormatException($"has {csv.Parser.Count} fields, and the head names {columns.Count}");
                var fields = new Dictionary<string, string>();
                for (var i = 0; i < csv.Parser.Count; i++)
                    if (csv.GetField(i) is { Length: > 0 } value && Columns.Contains(columns[i]))
                        fields[columns[i]] = CsvText.Plain(value);
                if (fields.Count == 0)
                    continue;
                var unit = Unit(fields, decimalMark);
                if (reader.Faults(unit) is [var fault, ..])
                    throw new FormatException($"{fault.Pointer.TrimStart('/')} {fault.Reason}");
                units.Add(unit);
            }
            catch (FormatException e)
            {
                bad.Add(new(line, raw, e.Message));
            }
        }
        return new(units, bad, head);
    }

    private static UnitItem Unit(Dictionary<string, string> fields, char? decimalMark)
    {
        double? Of(string field) =>
            fields.TryGetValue(field, out var text)
                ? LoadFields.Number(
                    field,
                    text,
                    decimalMark,
                    field switch
                    {
                        "ah" => [("ah", 1)],
                        "mass kg" => [("kg", 1)],
                        "milliohm" => [("mω", 1)],
                        "cycle depth" => [("%", 0.01)],
                        _ when field.EndsWith("amps", StringComparison.Ordinal) => [("a", 1)],
                        _ when field.EndsWith("mm", StringComparison.Ordinal) => [("mm", 1)],
                        _ => [],
                    }
                )
                : null;
        int? Whole(string field) =>
            Of(field) is not { } n ? null
            : n == Math.Floor(n) && Math.Abs(n) < 1e9 ? (int)n
            : throw new FormatException($"{field} must be a whole number");
        string? Text(string field) => fields.GetValueOrDefault(field);

        var chemistry = Text("chemistry") ?? throw new FormatException("chemistry is missing");
        if (!Chemistries.All.Any(c => c.Id == chemistry.ToLowerInvariant()))
            throw new FormatException($"chemistry: “{chemistry}” is none of {string.Join(", ", Chemistries.All.Select(c => c.Id))}");
        return new()
        {
            Name = Text("name") ?? throw new FormatException("name is missing"),
            Chemistry = chemistry.ToLowerInvariant(),
            Cells = Whole("cells") ?? throw new FormatException("cells are missing"),
            Ah = Of("ah") ?? throw new FormatException("ah is missing"),
            RatedHours = Of("rated hours"),
            Reserve = Of("reserve minutes") is { } minutes
                ? new()
                {
                    Minutes = minutes,
                    Amps = Of("reserve amps") ?? throw new FormatException("reserve amps are missing beside reserve minutes"),
                }
                : null,
            Bms = Of("bms amps") is { } bms
                ? new()
                {
                    ContinuousA = bms,
                    PeakA = Of("bms peak amps"),
                    PeakSeconds = Of("bms peak seconds"),
                    ChargeA = Of("bms charge amps"),
                }
                : null,
            ContinuousA = Of("continuous amps"),
            ResistanceOhm = Of("milliohm") is { } milliohm ? Math.Round(milliohm / 1000, 9) : null,
            MassKg = Of("mass kg"),
            Size =
                Of("length mm") is { } length && Of("width mm") is { } width && Of("height mm") is { } height
                    ? new()
                    {
                        LengthMm = length,
                        WidthMm = width,
                        HeightMm = height,
                    }
                    : null,
            TerminalSide = Text("terminal side"),
            Stud = Text("stud"),
            Price = Of("price"),
            PriceDate = Text("price date"),
            ProductLine = Text("product line"),
            CycleLife = Of("cycle life"),
            CycleDepth = Of("cycle depth"),
            CalendarYears = Of("calendar years"),
            MaxSeries = Whole("max series"),
            MaxParallel = Whole("max parallel"),
            Communicates = Text("communicates")?.ToLowerInvariant() is "yes" or "true" or "y" or "1",
            BreakerA = Of("breaker amps"),
            BreakerInterruptA = Of("breaker interrupt amps"),
        };
    }

    public static string Write(IEnumerable<UnitItem> units) =>
        CsvText.Write(
            Columns,
            units.Select(u =>
                new object?[]
                {
                    u.Name,
                    u.Chemistry,
                    u.Cells,
                    u.Ah,
                    u.RatedHours,
                    u.Reserve?.Minutes,
                    u.Reserve?.Amps,
                    u.Bms?.ContinuousA,
                    u.Bms?.PeakA,
                    u.Bms?.PeakSeconds,
                    u.Bms?.ChargeA,
                    u.ContinuousA,
                    u.ResistanceOhm is { } ohm ? Math.Round(ohm * 1000, 6) : null,
                    u.MassKg,
                    u.Size?.LengthMm,
                    u.Size?.WidthMm,
                    u.Size?.HeightMm,
                    u.TerminalSide,
                    u.Stud,
                    u.Price,
                    u.PriceDate,
                    u.ProductLine,
                    u.CycleLife,
                    u.CycleDepth,
                    u.CalendarYears,
                    u.MaxSeries,
                    u.MaxParallel,
                    u.Communicates ? "yes" : "no",
                    u.BreakerA,
                    u.BreakerInterruptA,
                }
            )
        );
}

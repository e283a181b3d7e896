using InkyBadger.Core.Design;
using InkyBadger.Server.Files;
using InkyBadger.Server.Loads;

namespace InkyBadger.Server.Cables;

/// <summary>What kind of list it is, its good lines, and the bad ones with why.</summary>
public sealed record TableCsvAnswer(
    IReadOnlyList<OwnAmpacity> Ampacities,
    IReadOnlyList<OwnOpening> Curve,
    IReadOnlyList<OwnConductor> Conductors,
    IReadOnlyList<CopperAtHand> Drawer,
    IReadOnlyList<BadLine> Bad,
    string Head
);

/// <summary>
/// Tables of one's own as CSV, by docs/format/tables.md: amperes of sizes, a fuse's curve, conductors, or copper at hand. Which it is
/// follows from the names of its columns.
/// </summary>
public static class TableCsv
{
    private const int MostLines = 200;

    private static readonly string[] Known =
    [
        "size",
        "ampacity a",
        "area mm2",
        "milliohm per m",
        "length m",
        "multiple",
        "typical s",
        "least s",
        "most s",
    ];

    public static TableCsvAnswer Read(string text, CancellationToken stop = default)
    {
        var (csv, head, decimalMark) = CsvText.Open(text);
        using var open = csv;
        var answer = new TableCsvAnswer([], [], [], [], [], head);
        if (!csv.Read())
            return answer with { Bad = [new(1, "", "is empty: the first line names the columns")] };
        var columns = Enumerable
            .Range(0, csv.Parser.Count)
            .Select(i => (csv.GetField(i) ?? "").Replace('_', ' ').Trim().ToLowerInvariant())
            .ToList();
        var (bySize, byMultiple) = (columns.Contains("size"), columns.Contains("multiple"));
        if (!bySize && !byMultiple)
            return answer with
            {
                Bad =
                [
                    new(
                        1,
                        head,
                        "names no columns that are known: size with ampacity_a, area_mm2 and milliohm_per_m, or length_m; or multiple "
                            + "with least_s and most_s"
                    ),
                ],
            };
        var (ampacities, curve, conductors, drawer, bad) = (
            new List<OwnAmpacity>(),
            new List<OwnOpening>(),
            new List<OwnConductor>(),
            new List<CopperAtHand>(),
            new List<BadLine>()
        );
        var lines = 0;
        while (csv.Read())
        {
            stop.ThrowIfCancellationRequested();
            var (line, raw) = (csv.Parser.RawRow, csv.Parser.RawRecord.TrimEnd('\r', '\n'));
            if (lines++ == MostLines)
            {
                bad.Add(new(line, "", $"and what follows was not read: {MostLines} lines at a time"));
                break;
            }
            try
            {
                var fields = new Dictionary<string, string>();
                for (var i = 0; i < Math.Min(csv.Parser.Count, columns.Count); i++)
                    if (csv.GetField(i) is { Length: > 0 } value && Known.Contains(columns[i]))
                        fields[columns[i]] = CsvText.Plain(value);
                if (fields.Count == 0)
                    continue;
                double? Of(string field, params (string, double)[] units) =>
                    fields.TryGetValue(field, out var written)
                        ? Positive(field, LoadFields.Number(field, written, decimalMark, units))
                        : null;
                if (byMultiple)
                {
                    curve.Add(Opening(Of));
                    continue;
                }
                var size = fields.GetValueOrDefault("size") ?? throw new FormatException("size is missing");
                var (amps, area, ohm, metres) = (
                    Of("ampacity a", ("a", 1)),
                    Of("area mm2", ("mm²", 1), ("mm2", 1)),
                    Of("milliohm per m"),
                    Of("length m", ("m", 1))
                );
                if (area is null != ohm is null)
                    throw new FormatException("area mm2 and milliohm per m go together");
                if (amps is null && area is null && metres is null)
                    throw new FormatException("says nothing of its size");
                if (amps is { } a)
                    ampacities.Add(new() { Size = size, AmpacityA = a });
                if (area is { } mm2)
                    conductors.Add(
                        new()
                        {
                            Size = size,
                            AreaMm2 = mm2,
                            R20MilliohmPerM = ohm!.Value,
                        }
                    );
                if (metres is { } m)
                    drawer.Add(new() { Size = size, LengthM = m });
            }
            catch (FormatException e)
            {
                bad.Add(new(line, raw, e.Message));
            }
        }
        return new(ampacities, [.. curve.OrderBy(p => p.Multiple)], conductors, drawer, bad, head);
    }

    /// <summary>Between a least and a most time; a typical one alone is taken apart as the typical tables are.</summary>
    private static OwnOpening Opening(Func<string, (string, double)[], double?> of)
    {
        (string, double)[] seconds = [("s", 1), ("ms", 0.001)];
        var multiple = of("multiple", [("×", 1), ("x", 1)]) ?? throw new FormatException("multiple is missing");
        var (least, most, typical) = (of("least s", seconds), of("most s", seconds), of("typical s", seconds));
        if (typical is { } usual && least is null && most is null)
            (least, most) = (usual / Core.Reference.FuseClass.UsualSpread, usual * Core.Reference.FuseClass.UsualSpread);
        return new()
        {
            Multiple = multiple,
            LeastS = least ?? throw new FormatException("least s is missing"),
            MostS = most ?? throw new FormatException("most s is missing"),
        };
    }

    private static double Positive(string field, double value) => value > 0 ? value : throw new FormatException($"{field} must be above 0");
}

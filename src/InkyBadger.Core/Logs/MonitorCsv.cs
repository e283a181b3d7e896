using System.Globalization;
using CsvHelper;
using CsvHelper.Configuration;

namespace InkyBadger.Core.Logs;

/// <summary>A line of a file that is no reading, from 1, and why.</summary>
public sealed record MonitorSlip(int Line, string Why);

/// <summary>
/// What a file held: how many readings, how many lines were none (the first of them named), and how many stepped back in time, which are
/// left out: an hour that the clock was set back is lived twice and counted once.
/// </summary>
public sealed record MonitorRead(int Readings, int Missed, int Backwards, IReadOnlyList<MonitorSlip> Slips);

/// <summary>
/// Files of battery monitors, whoever wrote them: the columns are recognised by what they are called and by what is in them.
/// </summary>
public static class MonitorCsv
{
    private const int SampleLines = 40,
        MostSlips = 20,
        MostColumns = 200;

    private static readonly (string What, string[] Words)[] Heads =
    [
        ("temperature", ["temp", "°c", "celsius"]),
        (
            "charge",
            ["soc", "state of charge", "charge level", "charge state", "consumed", "ah", "ladezustand", "capacity", "percent", "(%)", "[%]"]
        ),
        ("watts", ["power", "watt", "(w)", "[w]"]),
        ("amps", ["current", "amp", "strom", "(a)", "[a]"]),
        ("volts", ["volt", "(v)", "[v]", "spannung"]),
        ("clock", ["clock", "time of day"]),
        ("time", ["time", "date", "zeit", "datum", "moment"]),
    ];

    /// <summary>How a file is written, by its first lines.</summary>
    /// <param name="head">From its beginning, some forty lines or more where it has them.</param>
    /// <exception cref="Refusal"><c>file</c>: no column of it is a time, or none is volts, amperes or charge.</exception>
    public static MonitorShape Recognise(string head)
    {
        string[] lines = [.. head.Split('\n').Select(l => l.TrimEnd('\r')).Where(l => l.Trim().Length > 0).Take(SampleLines)];
        if (lines.Length < 2)
            Require.Refuse("file", "has fewer than two lines");
        var separator = Separator(lines);
        string[][] rows = [.. lines.Select(l => Fields(l, separator))];
        // The first line of which some column is a time is the first reading.
        var first = Array.FindIndex(rows, r => r.Any(IsTime));
        if (first < 0)
            Require.Refuse("file", "has no column of times");
        var heads = first > 0 && rows[first - 1].Length == rows[first].Length ? rows[first - 1] : [];
        var time = Enumerable.Range(0, rows[first].Length).First(c => IsTime(rows[first][c]));
        // What stands between readings is told when the file is read.
        string[][] readings = [.. rows[first..].Where(r => r.Length == rows[first].Length && IsTime(r[time]))];
        string[] times = [.. readings.Select(r => r[time])];
        var form = MonitorTimes.Recognise(times);
        int? clock = null;
        if (form is null)
            Require.Refuse("file", "writes its times in no form that is known");
        if (times.All(t => !t.Contains(':', StringComparison.Ordinal)) && form is TimeForm.Iso or TimeForm.DayFirst or TimeForm.MonthFirst)
            clock = Enumerable
                .Range(0, rows[first].Length)
                .Where(c => c != time && readings.All(r => MonitorTimes.Read(r[time], r[c], form!.Value) is not null))
                .Cast<int?>()
                .FirstOrDefault();
        var comma =
            separator != ',' && readings.Any(r => r.Any(f => Number(f, true) is not null && f.Contains(',', StringComparison.Ordinal)));
        var columns = Columns(heads, readings, comma, time, clock);
        if (!columns.ContainsKey("volts") && !columns.ContainsKey("amps") && !columns.ContainsKey("charge"))
            Require.Refuse("file", "has no column of volts, amperes or charge");
        int? Of(string what) => columns.TryGetValue(what, out var c) ? c : null;
        return new(
            separator,
            comma,
            first,
            heads,
            form!.Value,
            time,
            clock,
            Of("volts"),
            Of("amps"),
            ChargePositive(heads, readings, comma, columns),
            Of("charge"),
            UnitOf(heads, readings, comma, Of("charge")),
            Of("watts"),
            Of("temperature"),
            readings.Take(5).ToArray()
        );
    }

    /// <summary>Reading after reading, as they come; what is none is passed over and told.</summary>
    /// <param name="from">The file from its beginning.</param>
    /// <param name="shape">As recognised, or corrected.</param>
    /// <param name="ratedAh">Of the bank, for a charge in ampere-hours [Ah, &gt; 0].</param>
    /// <param name="take">What to do with each.</param>
    /// <param name="stop">When nobody waits for it any more.</param>
    public static MonitorRead Read(
        TextReader from,
        MonitorShape shape,
        double ratedAh,
        Action<MonitorReading> take,
        CancellationToken stop = default
    )
    {
        using var csv = new CsvParser(
            from,
            new CsvConfiguration(CultureInfo.InvariantCulture)
            {
                Delimiter = shape.Separator.ToString(),
                BadDataFound = null,
                Mode = CsvMode.RFC4180,
            },
            leaveOpen: true
        );
        int readings = 0,
            missed = 0,
            backwards = 0,
            line = 0;
        var slips = new List<MonitorSlip>();
        DateTime? last = null;
        while (csv.Read())
        {
            line++;
            if (line <= shape.HeaderLines)
                continue;
            if ((line & 1023) == 0)
                stop.ThrowIfCancellationRequested();
            if (ReadingOf(csv.Record!, shape, ratedAh) is not { } reading)
            {
                missed++;
                if (slips.Count < MostSlips)
                    slips.Add(new(line, "is no reading: its time, or every figure of it, cannot be read"));
                continue;
            }
            if (last is { } before && reading.At <= before)
            {
                backwards++;
                continue;
            }
            last = reading.At;
            readings++;
            take(reading);
        }
        return new(readings, missed, backwards, slips);
    }

    private static MonitorReading? ReadingOf(string[] fields, MonitorShape s, double ratedAh)
    {
        string? Field(int? c) => c is { } at && at < fields.Length ? fields[at] : null;
        if (
            Field(s.Time) is not { } time
            || MonitorTimes.Read(time, s.Clock is null ? null : Field(s.Clock) ?? "", s.TimeForm) is not { } at
        )
            return null;
        double? Value(int? c) => Field(c) is { } text ? Number(text, s.DecimalComma) : null;
        var sign = s.ChargePositive ? -1 : 1;
        var charge = Value(s.Charge) is { } raw
            ? s.ChargeUnit switch
            {
                ChargeUnit.Percent => raw / 100,
                ChargeUnit.Fraction => raw,
                ChargeUnit.AhLeft => raw / ratedAh,
                _ => 1 - Math.Abs(raw) / ratedAh,
            }
            : (double?)null;
        var reading = new MonitorReading(
            at,
            Value(s.Volts) is > 0 and < 1000 and var v ? v : null,
            Value(s.Amps) * sign,
            charge is { } soc ? Math.Clamp(soc, 0, 1) : null,
            Value(s.Watts) * sign,
            Value(s.Temperature) is > -60 and < 120 and var c ? c : null
        );
        return reading is { Volts: null, Amps: null, Soc: null, Watts: null } ? null : reading;
    }

    private static char Separator(string[] lines)
    {
        // The one that parts most lines alike, and into most columns.
        var best = (Char: ',', Score: 0);
        foreach (var c in new[] { ';', '\t', ',', '|' })
        {
            var counts = lines.Select(l => Fields(l, c).Length).ToList();
            var usual = counts.GroupBy(n => n).OrderByDescending(g => g.Count()).First();
            if (usual.Key is > 1 and < MostColumns && usual.Count() * usual.Key > best.Score)
                best = (c, usual.Count() * usual.Key);
        }
        if (best.Score == 0)
            Require.Refuse("file", "has no columns");
        // A decimal comma parts lines alike too: of two the one that is no part of numbers.
        return best.Char == ',' && lines.Count(l => l.Contains(';', StringComparison.Ordinal)) > lines.Length / 2 ? ';' : best.Char;
    }

    private static string[] Fields(string line, char separator)
    {
        using var csv = new CsvParser(
            new StringReader(line),
            new CsvConfiguration(CultureInfo.InvariantCulture) { Delimiter = separator.ToString(), BadDataFound = null }
        );
        return csv.Read() ? [.. csv.Record!.Select(f => f.Trim())] : [];
    }

    private static bool IsTime(string text) =>
        Enum.GetValues<TimeForm>()
            .Any(f =>
                (f < TimeForm.UnixSeconds || text.Trim().Length >= 10 && !text.Contains(',', StringComparison.Ordinal))
                && MonitorTimes.Read(text, null, f) is not null
            );

    private static Dictionary<string, int> Columns(string[] heads, string[][] rows, bool comma, int time, int? clock)
    {
        var found = new Dictionary<string, int>(StringComparer.Ordinal);
        for (var c = 0; c < rows[0].Length; c++)
        {
            if (c == time || c == clock || !rows.Any(r => Number(r[c], comma) is not null))
                continue;
            var head = c < heads.Length ? heads[c].ToLowerInvariant() : "";
            var what = Heads.FirstOrDefault(h => h.Words.Any(w => head.Contains(w, StringComparison.Ordinal))).What;
            if (what is not null and not "time" and not "clock")
                found.TryAdd(what, c);
        }
        if (heads.Length > 0)
            return found;
        // Without names: what looks like a battery’s volts, then its amperes.
        for (var c = 0; c < rows[0].Length; c++)
        {
            if (c == time || c == clock)
                continue;
            double[] values = [.. rows.Select(r => Number(r[c], comma)).OfType<double>()];
            if (values.Length == 0)
                continue;
            if (values.All(v => v is > 8 and < 66) && values.Max() - values.Min() < 0.3 * values.Max())
                found.TryAdd("volts", c);
            else
                found.TryAdd("amps", c);
        }
        return found;
    }

    /// <summary>By its name; else by the bank’s volts, which rise while it is charged.</summary>
    private static bool ChargePositive(string[] heads, string[][] rows, bool comma, Dictionary<string, int> columns)
    {
        if (!columns.TryGetValue("amps", out var a))
            return true;
        var head = a < heads.Length ? heads[a].ToLowerInvariant() : "";
        if (head.Contains("discharge", StringComparison.Ordinal) || head.Contains("out", StringComparison.Ordinal))
            return false;
        if (head.Contains("charge", StringComparison.Ordinal))
            return true;
        if (columns.TryGetValue("volts", out var v))
        {
            var pairs = rows.Select(r => (A: Number(r[a], comma), V: Number(r[v], comma)))
                .Where(p => p.A is not null && p.V is not null)
                .Select(p => (A: p.A!.Value, V: p.V!.Value))
                .ToList();
            if (pairs.Any(p => p.A > 0) && pairs.Any(p => p.A < 0))
                return pairs.Where(p => p.A > 0).Average(p => p.V) >= pairs.Where(p => p.A < 0).Average(p => p.V);
        }
        // Most monitors count what goes out with a minus.
        return true;
    }

    private static ChargeUnit UnitOf(string[] heads, string[][] rows, bool comma, int? column)
    {
        if (column is not { } c)
            return ChargeUnit.Percent;
        var head = c < heads.Length ? heads[c].ToLowerInvariant() : "";
        double[] values = [.. rows.Select(r => Number(r[c], comma)).OfType<double>()];
        if (head.Contains("ah", StringComparison.Ordinal) && !head.Contains('%', StringComparison.Ordinal))
            return head.Contains("consumed", StringComparison.Ordinal) || values.Any(v => v < 0) ? ChargeUnit.AhOut : ChargeUnit.AhLeft;
        return values.Length > 0 && values.All(v => v is >= 0 and <= 1.0001) && !head.Contains('%', StringComparison.Ordinal)
            ? ChargeUnit.Fraction
            : ChargeUnit.Percent;
    }

    /// <summary>A figure with its unit behind it or without.</summary>
    private static double? Number(string text, bool comma)
    {
        var span = text.AsSpan().Trim();
        var end = span.Length;
        while (end > 0 && !char.IsAsciiDigit(span[end - 1]))
            end--;
        // More than a unit stands behind it, or words before it.
        if (end == 0 || span.Length - end > 4)
            return null;
        var figure = span[..end].ToString().Replace('−', '-');
        if (comma)
            figure = figure.Replace(',', '.');
        return double.TryParse(figure, NumberStyles.Float, CultureInfo.InvariantCulture, out var n) && double.IsFinite(n) ? n : null;
    }
}

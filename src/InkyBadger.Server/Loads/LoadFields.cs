using System.Globalization;
using System.Text.RegularExpressions;
using InkyBadger.Core.Demand;
using InkyBadger.Core.Design;
using InkyBadger.Core.Words;

namespace InkyBadger.Server.Loads;

/// <summary>
/// The fields of a load as a person writes them in a table: <c>1.8 kW</c>, <c>12 min</c>, <c>25 %</c>, <c>10:00-10:10</c>.
/// </summary>
internal static class LoadFields
{
    /// <exception cref="FormatException">Names the field and what it would take.</exception>
    public static Load Read(IReadOnlyDictionary<string, string> fields, char? decimalMark)
    {
        double? Of(string field, params (string Unit, double Factor)[] units) =>
            fields.TryGetValue(field, out var text) ? Number(field, text, decimalMark, units) : null;

        var name = fields.TryGetValue("name", out var given) ? given : throw new FormatException("name is missing");
        var watts = Of("watts", ("w", 1), ("kw", 1000));
        var va = Of("va", ("va", 1), ("kva", 1000));
        var factor = Of("power factor");
        if (watts is null && va is { } apparent)
            watts = apparent * (factor ?? throw new FormatException("power factor is needed to make watts of VA"));
        var amps = Of("amps", ("a", 1), ("ma", 0.001));
        var volts = Of("volts", ("v", 1));
        var states = fields.TryGetValue("states", out var list) ? States(list, decimalMark) : null;
        if (watts is null && amps is null && states is null)
            throw new FormatException("watts are missing, or amps with their volts");
        if (watts is not null && amps is not null)
            throw new FormatException("watts or amps, not both");
        var times = fields.TryGetValue("times", out var when) ? Times(when) : null;
        var hours = Of("hours", ("h", 1), ("hours", 1), ("min", 1.0 / 60));
        if (times is null && hours is null)
            throw new FormatException("hours or times are missing");
        if (times is not null && hours is not null)
            throw new FormatException("hours or times, not both");
        return new()
        {
            Name = name,
            Kind =
                fields.TryGetValue("kind", out var kind) ? Kind(kind)
                : amps is not null && volts is <= 60 || states is not null ? LoadKind.Dc
                : LoadKind.Ac,
            Quantity = Of("quantity", ("x", 1), ("×", 1)) is { } n
                ? n == Math.Floor(n) && n is >= 0 and <= int.MaxValue
                    ? (int)n
                    : throw new FormatException("quantity must be a whole number")
                : 1,
            Watts = watts,
            Amps = amps,
            Volts = volts,
            Va = va,
            PowerFactor = factor,
            Duty = Of("duty", ("%", 0.01)) ?? 1,
            Windows = times,
            Hours = hours,
            SurgeWatts = Of("start watts", ("w", 1), ("kw", 1000)) ?? 0,
            StartSeconds = Of("start seconds", ("s", 1), ("ms", 0.001)),
            Season = fields.TryGetValue("season", out var season) ? Season(season) : Core.Design.Season.Both,
            AdapterEfficiency = Of("adapter", ("%", 0.01)),
            Window = Of("min volts", ("v", 1)) is { } min
                ? new()
                {
                    MinV = min,
                    MaxV = Of("max volts", ("v", 1)) ?? throw new FormatException("max volts is missing beside min volts"),
                }
                : null,
            WaveSensitive = fields.TryGetValue("wave sensitive", out var wave) && Yes("wave sensitive", wave),
            MustStay = fields.TryGetValue("must stay", out var stay) && Yes("must stay", stay),
            HasReserve = fields.TryGetValue("has reserve", out var reserve) && Yes("has reserve", reserve),
            States = states,
        };
    }

    public static IEnumerable<string?> Write(Load l) =>
        [
            l.Name,
            l.Kind.ToString().ToLowerInvariant(),
            Plain(l.Watts),
            Plain(l.Amps),
            Plain(l.Volts),
            Plain(l.Quantity),
            Plain(l.Hours),
            l.Windows is null ? "" : string.Join("; ", l.Windows.Select(w => $"{Clock(w[0])}-{Clock(w[1])}")),
            Plain(l.Duty),
            l.SurgeWatts > 0 ? Plain(l.SurgeWatts) : "",
            Plain(l.StartSeconds),
            l.Season.ToString().ToLowerInvariant(),
            Plain(l.Va),
            Plain(l.PowerFactor),
            Plain(l.AdapterEfficiency),
            Plain(l.Window?.MinV),
            Plain(l.Window?.MaxV),
            l.WaveSensitive ? "yes" : "no",
            l.MustStay ? "yes" : "no",
            l.HasReserve ? "yes" : "no",
            l.States is null
                ? ""
                : string.Join("; ", l.States.Select(s => $"{s.Name}: {Plain(s.Amps)} A {Plain(Math.Round(s.Share * 100, 9))} %")),
        ];

    private static string Plain(double? value) => value?.ToString("0.#########", CultureInfo.InvariantCulture) ?? "";

    /// <summary>To the second where a time is not on the minute.</summary>
    private static string Clock(double hour)
    {
        var seconds = (int)Math.Round(hour * 3600);
        return seconds % 60 == 0
            ? $"{seconds / 3600:00}:{seconds / 60 % 60:00}"
            : $"{seconds / 3600:00}:{seconds / 60 % 60:00}:{seconds % 60:00}";
    }

    internal static double Number(string field, string text, char? decimalMark, (string Unit, double Factor)[] units)
    {
        if (
            WrittenNumber.IsSize(text)
            || WrittenNumber.Read(text) is not { } written
            || !double.IsFinite(written.Value)
            || !Unit.IsMatch(written.Rest)
        )
            throw new FormatException($"{field}: “{Short(text)}” is not a number");
        var value = written.Value;
        if (written is { Other: { } other, By: { } by })
            value = decimalMark is { } mark
                ? (by == mark ? value : other)
                : throw new FormatException(
                    string.Create(
                        CultureInfo.InvariantCulture,
                        $"{field}: “{Short(text)}” is {value} or {other}: write it without the {by}"
                    )
                );
        var unit = written.Rest.ToLowerInvariant();
        if (unit.Length == 0)
            // 88 can only be a percentage.
            return value > 1 && units is [("%", _)] ? Math.Round(value / 100, 12) : value;
        foreach (var (name, factor) in units)
            if (unit == name)
                return Math.Round(value * factor, 12);
        throw new FormatException(
            unit switch
            {
                "ah" or "mah" => $"{field}: {Short(text)} is charge, and a rate is wanted",
                "wh" or "kwh" => $"{field}: {Short(text)} is energy, and {(field == "watts" ? "power is wanted" : "that does not fit")}",
                "va" or "kva" => $"{field}: {Short(text)} is apparent power; put it under va, with its power factor",
                _ => $"{field}: “{unit}” does not "
                    + $"fit{(units.Length > 0 ? ", " + string.Join(" or ", units.Select(u => u.Unit)) + " does" : "")}",
            }
        );
    }

    private static string Short(string text) => text.Length <= 24 ? text : text[..23] + "…";

    private static List<double[]> Times(string text)
    {
        var windows = new List<double[]>();
        foreach (var part in text.Split([';', ',', '/'], StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries))
        {
            var match = Window.Match(part);
            if (!match.Success)
                throw new FormatException($"times: “{Short(part)}” is not a time such as 10:00-10:10");
            double At(int group) =>
                int.Parse(match.Groups[group].Value, CultureInfo.InvariantCulture)
                + Part(match.Groups[group + 1].Value) / 60
                + Part(match.Groups[group + 2].Value) / 3600;
            windows.Add([At(1), At(4)]);
        }
        return windows;
    }

    private static double Part(string digits) => digits.Length == 0 ? 0 : double.Parse(digits, CultureInfo.InvariantCulture);

    private static List<StateShare> States(string text, char? decimalMark)
    {
        var states = new List<StateShare>();
        foreach (var part in text.Split(';', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries))
        {
            var match = State.Match(part);
            if (!match.Success)
                throw new FormatException($"states: “{Short(part)}” is not a state such as transmit: 5 A 5 %");
            states.Add(
                new()
                {
                    Name = match.Groups[1].Value.Trim(),
                    Amps = Number("states", match.Groups[2].Value, decimalMark, []),
                    Share = Math.Round(Number("states", match.Groups[3].Value, decimalMark, []) / 100, 12),
                }
            );
        }
        return states;
    }

    private static LoadKind Kind(string text) =>
        text.ToLowerInvariant() switch
        {
            "ac" or "inverter" or "mains" => LoadKind.Ac,
            "dc" or "battery" or "bank" => LoadKind.Dc,
            "converter" or "dc converter" or "dc-dc" => LoadKind.Converter,
            _ => throw new FormatException($"kind: “{Short(text)}” is none of ac, dc, converter"),
        };

    private static Season Season(string text) =>
        text.ToLowerInvariant() switch
        {
            "both" or "all year" or "all" => Core.Design.Season.Both,
            "winter" => Core.Design.Season.Winter,
            "summer" => Core.Design.Season.Summer,
            _ => throw new FormatException($"season: “{Short(text)}” is none of winter, summer, both"),
        };

    private static bool Yes(string field, string text) =>
        text.ToLowerInvariant() switch
        {
            "yes" or "true" or "y" or "1" => true,
            "no" or "false" or "n" or "0" => false,
            _ => throw new FormatException($"{field}: “{Short(text)}” is neither yes nor no"),
        };

    /// <summary>Patterns that never look at a character twice: no cell, however made, holds the machine up.</summary>
    private const RegexOptions Linear = RegexOptions.NonBacktracking | RegexOptions.CultureInvariant;

    private static readonly Regex Unit = new("^[a-zµμω%×]*$", Linear | RegexOptions.IgnoreCase);

    private static readonly Regex Window = new(
        @"^(\d{1,2})(?::([0-5]\d)(?::([0-5]\d))?)?\s*(?:[-–]|to)\s*(\d{1,2})(?::([0-5]\d)(?::([0-5]\d))?)?$",
        Linear | RegexOptions.IgnoreCase
    );

    private static readonly Regex State = new(@"^([^:]*):\s*([\d.,]+)\s*A\s+([\d.,]+)\s*%$", Linear | RegexOptions.IgnoreCase);
}

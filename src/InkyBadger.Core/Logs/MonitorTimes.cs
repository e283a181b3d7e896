using System.Globalization;

namespace InkyBadger.Core.Logs;

/// <summary>Moments in the forms that monitors write.</summary>
internal static class MonitorTimes
{
    private const int LeastYear = 2000,
        MostYear = 2200;

    /// <summary>Which form all of these are written in; null: none fits them all.</summary>
    /// <param name="texts">Times, or days where the hours stand apart.</param>
    public static TimeForm? Recognise(IReadOnlyList<string> texts)
    {
        if (texts.Count == 0)
            return null;
        // Where the day could be the month, points and a clock of 24 hours say day first, morning and afternoon month first.
        var american = texts.Any(t => t.EndsWith('M') || t.EndsWith('m'));
        TimeForm[] order = american
            ? [TimeForm.Iso, TimeForm.MonthFirst, TimeForm.DayFirst, TimeForm.UnixSeconds, TimeForm.UnixMilliseconds]
            : [TimeForm.Iso, TimeForm.DayFirst, TimeForm.MonthFirst, TimeForm.UnixSeconds, TimeForm.UnixMilliseconds];
        foreach (var form in order)
            if (texts.All(t => Read(t, null, form) is not null))
                return form;
        return null;
    }

    /// <summary>Null: it is none, or in a year nobody measures in.</summary>
    public static DateTime? Read(string text, string? clock, TimeForm form)
    {
        text = text.Trim();
        if (form is TimeForm.UnixSeconds or TimeForm.UnixMilliseconds)
            return
                double.TryParse(text, NumberStyles.Float, CultureInfo.InvariantCulture, out var n)
                && Sound(DateTime.UnixEpoch, form == TimeForm.UnixSeconds ? n : n / 1000) is { } at
                ? at
                : null;
        var (day, rest) = Parted(text);
        if (DayOf(day, form) is not { } date || date.Year is < LeastYear or > MostYear)
            return null;
        var hours = clock?.Trim() ?? rest;
        if (hours.Length == 0)
            return clock is null && rest.Length == 0 ? date.ToDateTime(default) : null;
        return ClockOf(hours) is { } time ? date.ToDateTime(time) : null;
    }

    private static DateTime? Sound(DateTime from, double seconds) =>
        seconds is > 0 and < 7_258_118_400 && from.AddSeconds(seconds) is { Year: >= LeastYear } at ? at : null;

    private static (string Day, string Hours) Parted(string text)
    {
        var at = text.IndexOfAny([' ', 'T', 't']);
        return at < 0 ? (text, "") : (text[..at], text[(at + 1)..].Trim());
    }

    private static DateOnly? DayOf(string text, TimeForm form)
    {
        Span<Range> parts = stackalloc Range[4];
        var span = text.AsSpan();
        if (span.SplitAny(parts, "-./") != 3)
            return null;
        if (
            !int.TryParse(span[parts[0]], NumberStyles.None, CultureInfo.InvariantCulture, out var a)
            || !int.TryParse(span[parts[1]], NumberStyles.None, CultureInfo.InvariantCulture, out var b)
            || !int.TryParse(span[parts[2]], NumberStyles.None, CultureInfo.InvariantCulture, out var c)
        )
            return null;
        var (year, month, day) = form switch
        {
            TimeForm.Iso => (a, b, c),
            TimeForm.DayFirst => (c, b, a),
            _ => (c, a, b),
        };
        if (form != TimeForm.Iso && year < 100)
            year += 2000;
        return year is >= 1 and <= 9999 && month is >= 1 and <= 12 && day >= 1 && day <= DateTime.DaysInMonth(year, month)
            ? new DateOnly(year, month, day)
            : null;
    }

    /// <summary>14:05, 14:05:30.5, 2:05 PM; a zone behind it is passed over, for the file goes by its own clock throughout.</summary>
    private static TimeOnly? ClockOf(string text)
    {
        var half = 0;
        if (text.EndsWith("am", StringComparison.OrdinalIgnoreCase) || text.EndsWith("pm", StringComparison.OrdinalIgnoreCase))
        {
            half = text[^2] is 'p' or 'P' ? 2 : 1;
            text = text[..^2].TrimEnd();
        }
        var end = text.AsSpan().IndexOfAny("Zz+-");
        if (end > 0)
            text = text[..end];
        Span<Range> parts = stackalloc Range[4];
        var span = text.AsSpan().Trim();
        var count = span.Split(parts, ':');
        if (count is < 2 or > 3)
            return null;
        if (
            !int.TryParse(span[parts[0]], NumberStyles.None, CultureInfo.InvariantCulture, out var h)
            || !int.TryParse(span[parts[1]], NumberStyles.None, CultureInfo.InvariantCulture, out var m)
        )
            return null;
        double s = 0;
        if (
            count == 3
            && !double.TryParse(
                span[parts[2]].ToString().Replace(',', '.'),
                NumberStyles.AllowDecimalPoint,
                CultureInfo.InvariantCulture,
                out s
            )
        )
            return null;
        if (half > 0)
        {
            if (h is < 1 or > 12)
                return null;
            h = h % 12 + (half == 2 ? 12 : 0);
        }
        return h is >= 0 and < 24 && m is >= 0 and < 60 && s is >= 0 and < 60 ? new TimeOnly(h, m).Add(TimeSpan.FromSeconds(s)) : null;
    }
}

using System.Globalization;

namespace InkyBadger.Core.Design;

/// <summary>Days and moments as the document writes them.</summary>
internal static class CalendarText
{
    public const int FirstYear = 1900,
        LastYear = 2200;

    /// <summary>A day as YYYY-MM-DD; null: it is none, or in a year nobody plans for.</summary>
    public static DateOnly? Day(string? text) =>
        DateOnly.TryParseExact(text, "yyyy-MM-dd", CultureInfo.InvariantCulture, DateTimeStyles.None, out var day)
        && day.Year is >= FirstYear and <= LastYear
            ? day
            : null;

    /// <summary>A local moment as YYYY-MM-DDTHH:MM; null: it is none.</summary>
    public static DateTime? Moment(string text) =>
        DateTime.TryParseExact(text, "yyyy-MM-dd'T'HH:mm", CultureInfo.InvariantCulture, DateTimeStyles.None, out var at) ? at : null;
}

using InkyBadger.Core.Design;

namespace InkyBadger.Core.Rehearsal;

/// <summary>The days of a rehearsal on the calendar.</summary>
public sealed class RehearsalDates
{
    public const string UsualFrom = "2026-07-01";

    public DateOnly First { get; }
    public int Days { get; }

    /// <summary>A first day that cannot be read is as if nobody had said one.</summary>
    public RehearsalDates(string? from, int days)
    {
        (First, Days) = (CalendarText.Day(from) ?? CalendarText.Day(UsualFrom)!.Value, days);
    }

    public DateOnly Of(int day) => First.AddDays(day);

    /// <summary>Day of a year without leap days [1 to 365].</summary>
    public int OfYear(int day) => Math.Min(365, Of(day).DayOfYear);

    /// <summary>[0 to 11].</summary>
    public int Month(int day) => Of(day).Month - 1;

    /// <summary>0 Monday to 6 Sunday.</summary>
    public int Weekday(int day) => ((int)Of(day).DayOfWeek + 6) % 7;

    /// <summary>Hours of a moment from the beginning; null: it cannot be read.</summary>
    public double? HoursTo(string moment) =>
        CalendarText.Moment(moment) is { } at ? (at - First.ToDateTime(TimeOnly.MinValue)).TotalHours : null;

    /// <summary>A drop’s hours within the rehearsal [h, h); null: none of it lies there.</summary>
    public (double From, double To)? Within(Drop drop)
    {
        if (HoursTo(drop.From) is not { } from || HoursTo(drop.To) is not { } to)
            return null;
        (from, to) = (Math.Max(0, from), Math.Min(24.0 * Days, to));
        return from < to ? (from, to) : null;
    }
}

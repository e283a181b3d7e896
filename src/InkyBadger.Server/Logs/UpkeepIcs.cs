using System.Globalization;
using Ical.Net.CalendarComponents;
using Ical.Net.DataTypes;
using Ical.Net.Serialization;
using InkyBadger.Core.Logs;
using Calendar = Ical.Net.Calendar;

namespace InkyBadger.Server.Logs;

/// <summary>
/// Upkeep as a calendar file: a whole day each, under an id that stays, so that a newer file takes the place of an older.
/// </summary>
internal static class UpkeepIcs
{
    public static string Of(IReadOnlyList<LogUpkeep> due, string name, string design, string bank, DateTimeOffset now)
    {
        var calendar = new Calendar { ProductId = "-//Inky Badger//Upkeep//EN" };
        foreach (var task in due)
            calendar.Events.Add(
                new CalendarEvent
                {
                    Uid = $"{task.Task}-{bank}-{design}@inky-badger",
                    DtStamp = new(now.UtcDateTime, "UTC"),
                    Start = new CalDateTime(DateOnly.ParseExact(task.Due, "yyyy-MM-dd", CultureInfo.InvariantCulture)),
                    Summary = $"{task.Label} ({name})",
                    Description = "A typical interval: the maker’s instructions and local rules come first.",
                }
            );
        return new CalendarSerializer().SerializeToString(calendar) ?? "";
    }
}

using InkyBadger.Core.Design;
using InkyBadger.Core.Logs;

namespace InkyBadger.Core.Demo;

/// <summary>
/// Ten weeks of the library bus as a made-up monitor has them: its fridge runs longer than planned, and its kettle boils five times.
/// </summary>
public static class DemoLog
{
    public const double Seed = 17;

    public const string Name = "Made-up monitor, number 17";

    private static readonly DateOnly First = new(2026, 9, 15),
        Last = new(2026, 11, 27);

    /// <summary>Before these days a reading every ten minutes is enough to look at.</summary>
    private static readonly DateOnly Close = new(2026, 11, 21);

    private static readonly Habit[] Habits =
    [
        new(HabitKind.Duty, 0.46, "l6"),
        new(HabitKind.Also, 8.75, "l2"),
        new(HabitKind.Also, 11.4, "l2"),
        new(HabitKind.Joint, 0.9),
    ];

    /// <summary>Readings in order, a minute apart.</summary>
    public static IReadOnlyList<LogReading> Readings()
    {
        // At the plug on Wednesdays and from Friday on.
        var bus = DemoDesigns.All[0] with
        {
            Rehearsal = new()
            {
                Drops =
                [
                    new()
                    {
                        Kind = DropKind.Plug,
                        From = $"{First:yyyy-MM-dd}T00:00",
                        To = $"{Last.AddDays(1):yyyy-MM-dd}T00:00",
                        Weekdays = [0, 1, 3],
                    },
                ],
            },
        };
        var monitor = new MadeUpMonitor(bus, 0, First, Last.DayNumber - First.DayNumber + 1, Seed, Habits);
        var list = new List<LogReading>();
        while (monitor.NextDay() is { } day)
            list.AddRange(day);
        return list;
    }

    /// <summary>Whether a reading is kept by itself: of the days between the first and the last every tenth minute is.</summary>
    public static bool Keeps(in LogReading r) =>
        r.At >= LogDays.At(Close) || r.At < LogDays.At(First.AddDays(LogFrame.FirstDays)) || r.At % 600 == 0;

    private static readonly (string Place, string Serial, double[] Tests, double RestV)[] Units =
    [
        ("A1", "0417-2210", [101.4, 98.6, 95.6], 13.31),
        ("A2", "0417-2211", [101.0, 98.6, 95.4], 13.32),
        ("B1", "0417-2214", [101.6, 99.8, 97.4], 13.31),
        ("B2", "0417-2219", [100.6, 99.0, 97.0], 13.30),
        ("C1", "0417-2220", [101.2, 99.8, 98.0], 13.32),
        ("C2", "0417-2223", [100.6, 99.2, 97.4], 13.31),
        ("D1", "1129-0087", [101.8, 100.0], 13.31),
        ("D2", "0417-2231", [100.0, 95.4, 91.3], 13.27),
    ];

    /// <summary>What its owner wrote down.</summary>
    public static IReadOnlyList<LogEntry> Entries()
    {
        var item = DemoDesigns.All[0].Banks[0].Unit!.Name;
        var list = new List<LogEntry>
        {
            new()
            {
                Kind = LogEntryKind.InService,
                At = "2024-04-12",
                By = "Ada",
            },
        };
        list.Add(
            new()
            {
                Kind = LogEntryKind.UnitIn,
                At = "2024-04-12",
                By = "Ada",
                Serial = "0417-2224",
                Place = "D1",
                Item = item,
                Price = 310,
            }
        );
        list.Add(
            new()
            {
                Kind = LogEntryKind.UnitOut,
                At = "2025-11-03",
                By = "Ada",
                Serial = "0417-2224",
                Words = "its BMS opened at 60 A",
            }
        );
        foreach (var (place, serial, tests, rest) in Units)
        {
            var late = place == "D1";
            list.Add(
                new()
                {
                    Kind = LogEntryKind.UnitIn,
                    At = late ? "2025-11-03" : "2024-04-12",
                    By = "Ada",
                    Serial = serial,
                    Place = place,
                    Item = item,
                    Price = 310,
                    Words = late ? "in place of 0417-2224" : null,
                }
            );
            string[] days = late ? ["2025-11-10", "2026-10-24"] : ["2024-04-20", "2025-04-26", "2026-10-24"];
            foreach (var (i, ah) in tests.Index())
                list.Add(
                    new()
                    {
                        Kind = LogEntryKind.UnitTest,
                        At = days[i],
                        By = "Ada",
                        Serial = serial,
                        Ah = ah,
                    }
                );
            list.Add(
                new()
                {
                    Kind = LogEntryKind.UnitRest,
                    At = "2026-10-25",
                    By = "Ada",
                    Serial = serial,
                    Volts = rest,
                }
            );
        }
        list.Add(
            new()
            {
                Kind = LogEntryKind.UnitFault,
                At = "2025-03-08",
                By = "Ada",
                Serial = "0417-2219",
                Words = "nut loose",
            }
        );
        foreach (var (day, ah) in new[] { ("2024-04-20", 404.0), ("2025-04-26", 396.0), ("2026-10-24", 385.0) })
            list.Add(
                new()
                {
                    Kind = LogEntryKind.Test,
                    At = day,
                    By = "Ada",
                    Ah = ah,
                }
            );
        foreach (
            var (task, day) in new[]
            {
                ("torque", "2025-12-12"),
                ("rebalance", "2025-12-20"),
                ("rest-volts", "2026-10-25"),
                ("alarm", "2026-08-14"),
                ("switch", "2026-04-11"),
                ("full-charge", "2026-11-15"),
                ("rcd", "2026-08-14"),
            }
        )
            list.Add(
                new()
                {
                    Kind = LogEntryKind.Upkeep,
                    At = day,
                    By = "Ada",
                    Task = task,
                }
            );
        return list;
    }
}

using InkyBadger.Core.Logs;
using InkyBadger.Core.Work;

namespace InkyBadger.Core.Tests.Designs;

/// <summary>Loads of the library bus told by the steps of its watts, minute by minute, by hand.</summary>
public class StartFinderTests
{
    private static readonly DateOnly Day = new(2026, 11, 17);
    private static readonly LogPlan Plan = new(new SiteWork(Some.Demo("Marrow"))[0]);

    /// <summary>A quiet night of 25 W, and what is on beside it: from and to in hours, at the bank [W].</summary>
    private static List<LogReading> Night(double fromH, double toH, params (double From, double To, double W)[] on)
    {
        var list = new List<LogReading>();
        for (var m = (int)(fromH * 60); m <= (int)(toH * 60); m++)
        {
            var watts = 25 + on.Where(o => m >= o.From * 60 && m < o.To * 60).Sum(o => o.W);
            list.Add(new(LogDays.At(Day) + m * 60, 25, watts / 25, 0.6, null));
        }
        return list;
    }

    private static LogStart[] Found(List<LogReading> readings) => [.. StartFinder.Work(Plan, readings).Starts];

    private static double Hour(long at) => (at - LogDays.At(Day)) / 3600.0;

    [Fact]
    public void A_kettle_at_night_is_known_by_its_watts_and_not_by_its_hour()
    {
        // 1,800 W by 0.9 are 2,000 W at the bank.
        var start = Assert.Single(Found(Night(0, 5, (2, 2.1, 2000))));
        Assert.Equal(("Kettle", false, 2000), (start.Load!.Name, start.Known, Math.Round(start.Watts, 6)));
        Assert.Equal((2, 2.1), (Hour(start.From), Math.Round(Hour(start.To!.Value), 3)));
        Assert.Equal(80, start.Amps, 0.5);
    }

    [Fact]
    public void Two_that_begin_together_and_end_apart_are_told_apart()
    {
        var found = Found(Night(0, 5, (2, 2.25, 2000), (2, 2.5, 1000)));
        Assert.Equal(["Book lift", "Kettle"], found.Select(f => f.Load!.Name).Order(StringComparer.Ordinal));
        Assert.Equal(2.25, Hour(found.Single(f => f.Load!.Name == "Kettle").To!.Value), 1e-9);
        Assert.Equal(2.5, Hour(found.Single(f => f.Load!.Name == "Book lift").To!.Value), 1e-9);
    }

    [Fact]
    public void A_reading_in_the_middle_of_a_step_is_a_part_of_it()
    {
        var readings = Night(0, 5, (2, 2.1, 2000));
        // The monitor told the mean of that minute: 0.4 of it on.
        var at = readings.FindIndex(r => Hour(r.At) == 2);
        readings[at] = readings[at] with { Amps = (25 + 0.4 * 2000) / 25 };
        var start = Assert.Single(Found(readings));
        Assert.Equal(("Kettle", 2000), (start.Load!.Name, Math.Round(start.Watts, 6)));
    }

    [Fact]
    public void What_fits_nothing_is_unknown_if_it_is_large_and_nothing_if_it_is_small()
    {
        // More than any three of its loads together.
        var start = Assert.Single(Found(Night(0, 5, (1, 2, 5000))));
        Assert.Null(start.Load);
        Assert.False(start.Known);
        Assert.Equal((5000, 2), (Math.Round(start.Watts, 6), Hour(start.To!.Value)));
        Assert.Empty(Found(Night(0, 5, (1, 2, 40))));
    }

    [Fact]
    public void The_fridge_counts_the_time_in_which_it_could_be_seen()
    {
        // Twenty minutes of each hour, 66.7 W at the bank.
        var cycles = Enumerable.Range(0, 6).Select(h => ((double)h + 0.2, h + 0.2 + 1 / 3.0, 60 / 0.9)).ToArray();
        var starts = StartFinder.Work(Plan, Night(0, 6, cycles));
        Assert.Equal(6, starts.SeenH[Day], 0.01);
        Assert.Equal(2, starts.OnH[("l6", Day)], 0.05);
        Assert.All(starts.Starts, s => Assert.True(s.Load!.Cycles));
        // What is drawn while it rests is the idle of the inverter.
        Assert.All(starts.RestW, r => Assert.Equal(25, r.Watts, 1e-9));
        Assert.True(starts.RestW.Count > 200);
    }

    [Fact]
    public void A_gap_forgets_what_was_on()
    {
        var readings = Night(0, 5, (1, 3, 1000));
        readings.RemoveAll(r => Hour(r.At) is > 2 and < 2.5);
        var start = Assert.Single(Found(readings));
        Assert.Equal(("Book lift", null), (start.Load!.Name, start.To));
        // Its usual ten minutes stand for it.
        Assert.Equal(1 + 1 / 6.0, Hour(start.End), 1e-3);
        Assert.Equal(4.5, StartFinder.Work(Plan, readings).SeenH[Day], 0.05);
    }

    [Fact]
    public void A_full_bank_in_the_sun_shows_nothing()
    {
        // At noon, full: the sun gives what is drawn, and the shunt reads little more than nought.
        var noon = Enumerable
            .Range(0, 120)
            .Select(m => new LogReading(LogDays.At(Day) + 11 * 3600 + m * 60, 27.6, m % 30 < 5 ? 76 : 0.1, 1, null));
        var starts = StartFinder.Work(Plan, [.. noon]);
        Assert.Empty(starts.Starts);
        Assert.Empty(starts.SeenH);
        Assert.Empty(starts.RestW);
    }

    [Fact]
    public void The_end_of_a_charger_is_no_start()
    {
        // The engine charges until 17:30; then 104 W of lights remain.
        LogReading Of(int m, double amps) => new(LogDays.At(Day) + 17 * 3600 + m * 60, 26, amps, 0.6, null);
        LogReading[] readings = [.. Enumerable.Range(0, 60).Select(m => Of(m, m < 30 ? -26 : 129 / 26.0))];
        Assert.DoesNotContain(StartFinder.Work(Plan, readings).Starts, s => !s.Known);
        // A kettle at that moment is one all the same.
        readings =
        [
            .. Enumerable
                .Range(0, 60)
                .Select(m =>
                    Of(
                        m,
                        m < 30 ? -26
                            : m < 35 ? 2129 / 26.0
                            : 129 / 26.0
                    )
                ),
        ];
        Assert.Contains(StartFinder.Work(Plan, readings).Starts, s => s is { Known: false, Load.Name: "Kettle" });
    }
}

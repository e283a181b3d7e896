using InkyBadger.Core.Logs;

namespace InkyBadger.Core.Tests.Designs;

/// <summary>What readings teach about bank and monitor themselves, from quarters made by hand.</summary>
public class BankLessonTests
{
    private static readonly DateOnly Day = new(2026, 11, 2);

    /// <summary>
    /// Full, eight hours out and sixteen in of each day, full again at its end: 40 A out of 400 Ah, and back what is said of it.
    /// </summary>
    /// <param name="coulomb">Of what goes in comes out.</param>
    /// <param name="inV">While it is charged [V].</param>
    private static List<LogSlot> Days(int days, double coulomb, double inV, double outV = 25.6)
    {
        var slots = new List<LogSlot>();
        for (var d = 0; d < days; d++)
        for (var n = 0; n < LogSlot.PerDay; n++)
        {
            var out_ = n < 32;
            var ah = out_ ? 10 : 320 / coulomb / 64;
            slots.Add(
                new(
                    LogDays.At(Day.AddDays(d)) + n * LogSlot.Seconds,
                    0.25,
                    out_ ? ah : 0,
                    out_ ? 0 : ah,
                    out_ ? ah * outV : 0,
                    out_ ? 0 : ah * inV,
                    out_ ? 40 : 0,
                    out_ ? 0 : ah * 4,
                    25,
                    28,
                    out_ ? 1 - (n + 1) / 40.0
                        : n == 95 ? 1
                        : 0.2 + (n - 31) / 82.0,
                    null,
                    null
                )
            );
        }
        return slots;
    }

    private static IEnumerable<string> Titles(List<LogSlot> slots) =>
        LogBook
            .Of(Some.Demo("Marrow"), 0, new(slots, [], [], []), new(Day, slots.Count / LogSlot.PerDay), Day.AddDays(30))
            .Lessons.Where(l => l.Kind is LessonKind.Efficiency or LessonKind.Monitor)
            .Select(l => l.Title);

    [Fact]
    public void A_sound_bank_between_two_full_charges_teaches_nothing() => Assert.Empty(Titles(Days(3, 0.99, 27)));

    [Fact]
    public void One_that_gives_less_back_loses_charge()
    {
        // 0.90 of what went in, usual are 0.99 and no less than 0.94.
        Assert.Equal("The bank loses charge: 90 % comes out again.", Assert.Single(Titles(Days(3, 0.9, 27))));
        Assert.Empty(Titles(Days(3, 0.95, 26)));
    }

    [Fact]
    public void One_that_is_charged_at_far_higher_volts_loses_energy()
    {
        // 0.98 × 25.6 ÷ 30 = 0.836 of the watt-hours.
        Assert.Equal("The bank loses energy: 84 % comes out again.", Assert.Single(Titles(Days(3, 0.98, 30))));
    }

    [Fact]
    public void More_out_than_in_is_the_shunt()
    {
        Assert.Equal("More came out than went in.", Assert.Single(Titles(Days(3, 1.03, 27))));
        // So far beyond that it is no efficiency at all.
        Assert.Equal("More came out than went in.", Assert.Single(Titles(Days(3, 1.2, 27))));
    }

    [Fact]
    public void A_gap_between_the_two_full_charges_tells_nothing()
    {
        var slots = Days(3, 0.9, 27);
        slots.RemoveRange(LogSlot.PerDay * 2 + 10, 20);
        Assert.Empty(Titles(slots));
    }

    [Fact]
    public void A_monitor_that_was_not_full_for_weeks_drifts()
    {
        var slots = Days(1, 0.99, 27);
        // Then three weeks and more at sixty per cent.
        for (var n = 0; n < 25 * LogSlot.PerDay; n++)
            slots.Add(new(LogDays.At(Day.AddDays(1)) + n * LogSlot.Seconds, 0.25, 2.5, 2.4, 65, 63, 12, 12, 25, 27, 0.6, null, null));
        Assert.Equal("Not full for 25 days: the monitor’s count is good to ± 13 %.", Assert.Single(Titles(slots)));
        Assert.Empty(Titles(slots[..(20 * LogSlot.PerDay)]));
    }

    [Fact]
    public void Volts_at_rest_hold_a_count_to_account()
    {
        var slots = Days(1, 0.99, 27);
        // Three hours at rest at 12.0 V a unit, where the monitor says eighty: a lithium bank that is all but empty.
        for (var n = 0; n < 12; n++)
            slots.Add(new(LogDays.At(Day.AddDays(1)) + n * LogSlot.Seconds, 0.25, 0.1, 0, 2.4, 0, 0.4, 0, 24, 24, 0.8, null, null));
        var title = Assert.Single(Titles(slots));
        Assert.StartsWith("The monitor shows 80 %, the volts at rest say ", title, StringComparison.Ordinal);
        // Half an hour is no rest.
        Assert.Empty(Titles(slots[..(LogSlot.PerDay + 2)]));
    }
}

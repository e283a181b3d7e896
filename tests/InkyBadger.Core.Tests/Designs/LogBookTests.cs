using InkyBadger.Core.Logs;
using InkyBadger.Core.Work;

namespace InkyBadger.Core.Tests.Designs;

/// <summary>Quarters, charges, frames, the ledger of units and upkeep, worked out by hand.</summary>
public class LogBookTests
{
    private static readonly DateOnly Today = new(2026, 11, 28);

    private static List<LogSlot> Slots(params LogReading[] readings)
    {
        var slots = new List<LogSlot>();
        var maker = new SlotMaker(12, slots.Add);
        foreach (var r in readings)
            maker.Add(r);
        maker.End();
        return slots;
    }

    private static LogReading At(double h, double? a, double? v = 12, double? soc = null) => new((long)(h * 3600), v, a, soc, null);

    [Fact]
    public void Quarters_part_what_crosses_them_and_add_up_to_the_whole()
    {
        // Ten amperes, falling to none over half an hour: 3.75 Ah... of which three quarters in the first quarter of an hour.
        var slots = Slots(At(1, 10), At(1.5, 0));
        Assert.Equal(2, slots.Count(s => s.Hours > 0));
        Assert.Equal((1.875, 0.625), (Math.Round(slots[0].AhOut, 9), Math.Round(slots[1].AhOut, 9)));
        Assert.Equal(2.5 * 12, slots.Sum(s => s.WhOut), 1e-9);
        Assert.Equal(10, slots[0].MostOutA);

        var draw = new Random(5);
        for (var n = 0; n < 60; n++)
        {
            var h = 0.0;
            var list = new List<LogReading>();
            for (var i = 0; i < 40; i++)
            {
                h += draw.Next(10) == 0 ? 0.7 : draw.Next(1, 1500) / 3600.0;
                list.Add(At(h, draw.NextDouble() * 40 - 20, 12 + draw.NextDouble()));
            }
            // Moments are whole seconds.
            LogSample[] samples = [.. list.Select(r => new LogSample(r.At / 3600.0, r.Amps!.Value, r.Volts!.Value))];
            if (samples.Zip(samples.Skip(1)).Any(p => p.Second.H <= p.First.H))
                continue;
            var whole = LogDay.Work(samples);
            var parts = Slots([.. list]);
            Assert.Equal(whole.AhOut, parts.Sum(s => s.AhOut), 1e-6);
            Assert.Equal(whole.AhIn, parts.Sum(s => s.AhIn), 1e-6);
            Assert.Equal(whole.WhOut, parts.Sum(s => s.WhOut), 1e-6);
            Assert.Equal(whole.WhIn, parts.Sum(s => s.WhIn), 1e-6);
            Assert.Equal(whole.Hours, parts.Sum(s => s.Hours), 1e-6);
            Assert.Equal(whole.LowestV, parts.Min(s => s.LowestV));
            Assert.Equal(whole.GreatestInA, parts.Max(s => s.MostInA));
            Assert.All(parts, s => Assert.True(s.Hours <= 0.25 + 1e-9 && s.At % 900 == 0));
        }
    }

    [Fact]
    public void What_was_not_later_is_passed_over_and_watts_stand_for_amperes()
    {
        var slots = Slots(At(1, 5), At(0.9, 50), At(1.2, 5));
        Assert.Equal(1, slots.Sum(s => s.AhOut), 1e-9);
        var read = LogReading.Of(new(new(2026, 11, 28, 10, 0, 0), 25, null, null, -500, null), 24);
        Assert.Equal(-20, read.Amps);
        Assert.Equal(500.0 / 24, LogReading.Of(new(new(2026, 11, 28, 10, 0, 0), null, null, null, 500, null), 24).Amps!.Value, 1e-9);
    }

    [Fact]
    public void A_charge_is_counted_from_where_it_was_told()
    {
        // A hundred ampere-hours, ten amperes out: a tenth an hour.
        LogReading[] readings = [.. Enumerable.Range(0, 13).Select(q => At(q / 4.0, 10))];
        var slots = Slots(readings);
        var (soc, told) = LogCharge.Work(slots, 100, 1, [(3600 + 60, 0.6)]);
        Assert.True(told);
        Assert.Equal(0.6, soc[4]!.Value, 1e-9);
        Assert.Equal(0.6 + 0.1, soc[0]!.Value, 1e-9);
        Assert.Equal(0.6 - 0.1, soc[8]!.Value, 1e-9);
        // Nobody told: it was full at first.
        (soc, told) = LogCharge.Work(slots, 100, 1, []);
        Assert.False(told);
        Assert.Equal(1 - 0.025, soc[0]!.Value, 1e-9);
        Assert.Equal(1 - 0.3, soc[11]!.Value, 1e-9);
        // What goes in counts less.
        var (charged, _) = LogCharge.Work(Slots(At(0, -10, soc: 0.5), At(0.5, -10)), 100, 0.8, []);
        Assert.Equal(0.5 + 0.8 * 0.025, charged[1]!.Value, 1e-9);
    }

    [Fact]
    public void A_frame_stays_within_what_there_is()
    {
        var (first, last) = (LogDays.At(new(2026, 9, 15)) + 60, LogDays.At(new(2026, 11, 28)));
        Assert.Equal(new LogFrame(new(2026, 11, 21), 7), LogFrame.Of(first, last, null, null, Today));
        Assert.Equal(new LogFrame(new(2026, 9, 15), 30), LogFrame.Of(first, last, new(2020, 1, 1), 30, Today));
        Assert.Equal(new LogFrame(new(2026, 11, 27), 3), LogFrame.Of(first, last, new(2030, 1, 1), 3, Today));
        Assert.Equal(366, LogFrame.Of(first, last, null, 9999, Today).Days);
        Assert.Equal(new LogFrame(new(2026, 11, 22), 7), LogFrame.Of(null, null, null, null, Today));
    }

    private static LogEntry Unit(LogEntryKind kind, string at, string serial, string? place = null, double? v = null, double? ah = null) =>
        new()
        {
            Kind = kind,
            At = at,
            Serial = serial,
            Place = place,
            Volts = v,
            Ah = ah,
            Item = kind == LogEntryKind.UnitIn ? "LFP 12.8 V 100 Ah" : null,
        };

    private static IReadOnlyList<LedgerUnit> Ledger(params LogEntry[] entries) =>
        UnitLedger.Work(new SiteWork(Some.Demo("Marrow"))[0], entries, Today);

    [Fact]
    public void A_unit_keeps_its_history_wherever_it_stands()
    {
        Assert.All(Ledger(), u => Assert.Equal("not in the ledger yet", u.Asks));
        var units = Ledger(
            Unit(LogEntryKind.UnitIn, "2024-04-12", "one", "A1"),
            Unit(LogEntryKind.UnitTest, "2024-05-01", "one", ah: 100),
            Unit(LogEntryKind.UnitMoved, "2025-02-01", "one", "B2"),
            Unit(LogEntryKind.UnitTest, "2026-05-01", "one", ah: 96),
            Unit(LogEntryKind.UnitIn, "2025-02-01", "two", "A1"),
            Unit(LogEntryKind.UnitIn, "2026-02-01", "three", "A1"),
            Unit(LogEntryKind.UnitOut, "2026-03-01", "two")
        );
        Assert.Equal("three", units.Single(u => u.Place == "A1").Serial);
        var moved = units.Single(u => u.Place == "B2");
        Assert.Equal(("one", "2024-04-12", 2, "A1 to B2, Feb 2025"), (moved.Serial, moved.InService, moved.Tests.Count, moved.Words));
        // From 100 to 96 of 100 in two years: 0.02 a year, 0.8 in eight more.
        Assert.Equal(2034, moved.EndsYear);
        var gone = Assert.Single(units, u => u.Place is null);
        Assert.Equal(("two", "2026-03-01"), (gone.Serial, gone.OutOfService));
        // A place is asked for until somebody says what stands there.
        Assert.Equal("not in the ledger yet", units.Single(u => u.Place == "A2").Asks);
    }

    [Fact]
    public void A_unit_that_was_swapped_in_the_design_asks_for_its_entry()
    {
        var w = new SiteWork(Some.Demo("Marrow").With(("/banks/0/parallel", 1), ("/banks/0/unit/name", "LFP 12.8 V 120 Ah")))[0];
        LogEntry[] entries = [Unit(LogEntryKind.UnitIn, "2024-04-12", "one", "A1"), Unit(LogEntryKind.UnitIn, "2024-04-12", "four", "C1")];
        var units = UnitLedger.Work(w, entries, Today);
        Assert.Equal("the design has LFP 12.8 V 120 Ah here now", units.Single(u => u.Place == "A1").Asks);
        Assert.Equal("the design has no such place any more", units.Single(u => u.Place == "C1").Asks);
    }

    [Fact]
    public void One_that_rests_apart_or_holds_less_leaves_its_mates()
    {
        LogEntry[] all =
        [
            .. new[] { ("A1", 13.31), ("A2", 13.32), ("B1", 13.31), ("B2", 13.26) }.SelectMany(u =>
                new[]
                {
                    Unit(LogEntryKind.UnitIn, "2024-04-12", u.Item1, u.Item1),
                    Unit(LogEntryKind.UnitRest, "2026-10-25", u.Item1, v: u.Item2),
                }
            ),
        ];
        var look = Assert.Single(Ledger(all), u => u.Look is not null);
        Assert.Equal(("B2", "rests 50 mV below its mates"), (look.Place, look.Look));
        // Read months later it stands by itself, and is compared with nobody.
        Assert.DoesNotContain(Ledger([.. all.SkipLast(1), Unit(LogEntryKind.UnitRest, "2026-02-25", "B2", v: 13.26)]), u =>
            u.Look is not null
        );
    }

    [Fact]
    public void Upkeep_follows_from_what_is_fitted_and_what_was_done()
    {
        var lived = new Lived(Some.Demo("Marrow"), 1, 1, []);
        LogEntry fitted = new() { Kind = LogEntryKind.InService, At = "2026-11-01" };
        var view = lived.View([fitted], 60);
        Assert.Equal("2026-11-01", view.Fitted);
        // Thirty days after it was fitted.
        Assert.Equal("2026-12-01", view.Upkeep.Single(u => u.Task == "torque").Due);
        Assert.Contains(view.Upkeep, u => u.Task == "rcd");
        Assert.DoesNotContain(view.Upkeep, u => u.Task == "water");
        LogEntry done = new()
        {
            Kind = LogEntryKind.Upkeep,
            At = "2026-11-20",
            By = "Ada",
            Task = "torque",
        };
        var torque = lived.View([fitted, done], 60).Upkeep.Single(u => u.Task == "torque");
        Assert.Equal(("2027-11-20", "2026-11-20", "Ada", 0), (torque.Due, torque.Done, torque.By, torque.OverdueDays));
        // Laid up it is looked after otherwise, until it is taken out again.
        LogEntry stored = new() { Kind = LogEntryKind.Stored, At = "2026-11-25" };
        Assert.Contains(lived.View([fitted, stored], 60).Upkeep, u => u.Task == "storage-charge");
        Assert.DoesNotContain(lived.View([fitted, stored, stored with { At = "2026-12-25", Ended = true }], 60).Upkeep, u =>
            u.Task == "storage-charge"
        );
        // A test of the bank is its capacity test.
        LogEntry test = new()
        {
            Kind = LogEntryKind.Test,
            At = "2026-11-21",
            Ah = 380,
        };
        view = lived.View([fitted, test], 60);
        Assert.Equal("2027-11-21", view.Upkeep.Single(u => u.Task == "capacity").Due);
        Assert.Equal(
            ("380.0 Ah of 400 at the last test, 95 %. Tests half a year apart tell how fast it falls.", null),
            (view.Health!.Words, view.Health.EndsYear)
        );
    }

    [Fact]
    public void Typed_charges_stand_where_no_monitor_is()
    {
        LogEntry Typed(string at, double soc) =>
            new()
            {
                Kind = LogEntryKind.Reading,
                At = at,
                Soc = soc,
            };
        var design = Some.Demo("Marrow");
        var view = LogBook.Of(
            design,
            0,
            new([], [], [], [Typed("2026-11-26T08:00", 0.8), Typed("2026-11-27T08:00", 0.62), Typed("2026-11-27T20:00", 0.5)]),
            new(new(2026, 11, 22), 7),
            Today
        );
        Assert.Equal([0.8, 0.5], view.Mornings.Select(m => m.LowestSoc));
        Assert.Equal(3, view.Frame.Typed.Count);
        // A half less its floor of a tenth, of 10,240 Wh, over 3,201 Wh a day.
        Assert.Equal(0.4 * 10_240 / 3_200.7, view.Hand!.PlannedDays!.Value, 0.01);
        Assert.All(view.Frame.Drawn.PlanSoc, s => Assert.NotNull(s));
        Assert.Null(view.Against);
    }

    [Theory]
    [InlineData(LogEntryKind.Reading, "volts")]
    [InlineData(LogEntryKind.Test, "ah")]
    [InlineData(LogEntryKind.Upkeep, "task")]
    [InlineData(LogEntryKind.UnitRest, "volts", "serial")]
    [InlineData(LogEntryKind.UnitIn, "serial", "place")]
    [InlineData(LogEntryKind.UnitFault, "serial", "words")]
    public void An_entry_says_what_it_lacks(LogEntryKind kind, params string[] fields)
    {
        Assert.Equal(
            fields,
            new LogEntry { Kind = kind, At = "2026-11-28" }
                .Faults()
                .Select(f => f.Field)
        );
        Assert.Contains(
            "at",
            new LogEntry { Kind = kind, At = "28.11.2026" }
                .Faults()
                .Select(f => f.Field)
        );
    }

    [Fact]
    public void A_bank_that_is_not_worked_out_yet_says_what_it_waits_for()
    {
        var view = LogBook.Of(Core.Design.NewDesign.Empty(""), 0, new([], [], [], []), LogFrame.Of(null, null, null, null, Today), Today);
        Assert.NotNull(view.Wait);
        Assert.Empty(view.Lessons);
    }
}

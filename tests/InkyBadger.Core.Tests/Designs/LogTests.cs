using System.Globalization;
using InkyBadger.Core.Logs;

namespace InkyBadger.Core.Tests.Designs;

/// <summary>Made-up monitors with planted habits, and what their readings teach.</summary>
public class LogTests
{
    [Theory]
    [InlineData("Marrow")]
    [InlineData("Hare")]
    public void A_bank_without_habits_is_as_planned_and_teaches_no_correction(string name)
    {
        for (var seed = 1; seed <= 6; seed++)
        {
            var lived = new Lived(Some.Demo(name), 8, seed, []);
            Assert.Equal(lived.Plan.DayWh(Lived.Monday), lived.UsedWh, 0.05 * lived.UsedWh);
            Assert.DoesNotContain(lived.Lessons, l => l.Changes.Count > 0);
            Assert.StartsWith("The bank gives what was planned", lived.View().Headline, StringComparison.Ordinal);
        }
    }

    [Theory]
    [InlineData("Marrow")]
    [InlineData("Hare")]
    public void What_is_planted_is_found_and_its_correction_brings_the_plan_within_a_twentieth(string name)
    {
        var off = new List<string>();
        for (var seed = 1; seed <= 30; seed++)
        {
            var lived = new Lived(Some.Demo(name), 9, seed);
            if (Math.Abs(lived.CorrectedWh / lived.UsedWh - 1) > 0.05)
                off.Add($"{seed}: {lived.UsedWh:0} used, {lived.CorrectedWh:0} corrected, planted {string.Join(", ", lived.Habits)}");
        }
        Assert.True(off.Count == 0, string.Join("\n", off));
    }

    private static LogLesson Only(Lived lived) => Assert.Single(lived.Lessons, l => l.Changes.Count > 0);

    [Fact]
    public void A_fridge_that_runs_longer_is_told_by_its_minutes()
    {
        var lesson = Only(new(Some.Demo("Marrow"), 7, 3, [new(HabitKind.Duty, 0.46, "l6")]));
        Assert.Equal(LessonKind.Duty, lesson.Kind);
        Assert.StartsWith("Staff fridge: 1", lesson.Title, StringComparison.Ordinal);
        Assert.EndsWith("h a day, not 6 h.", lesson.Title, StringComparison.Ordinal);
        Assert.Equal("/banks/0/demand/loads/5/duty", Assert.Single(lesson.Changes).Path);
        Assert.Equal(0.46, (double)lesson.Changes[0].Value!, 0.02);
        // 60 W at the outlet are 66.7 W at the bank: 0.21 of a day more.
        Assert.Equal(0.21 * 24 * 60 / 0.9, lesson.WhADay, 30.0);
        Assert.Null(lesson.NotYet);
    }

    [Fact]
    public void A_kettle_that_boils_twice_more_gets_both_times()
    {
        var lesson = Only(new(Some.Demo("Marrow"), 7, 4, [new(HabitKind.Also, 11.4, "l2"), new(HabitKind.Also, 19.5, "l2")]));
        Assert.Equal(
            ("Kettle: five times, not three.", "Add both times", "the kettle runs five times"),
            (lesson.Title, lesson.Label, lesson.Short)
        );
        var windows = lesson.Changes[0].Value!.AsArray().Select(w => ((double)w![0]!, (double)w[1]!)).ToList();
        Assert.Equal(5, windows.Count);
        Assert.Contains(windows, w => Math.Abs(w.Item1 - 11.4) < 0.1 && Math.Abs(w.Item2 - w.Item1 - 1 / 12.0) < 0.02);
        Assert.Contains(windows, w => Math.Abs(w.Item1 - 19.5) < 0.1);
    }

    [Fact]
    public void A_lift_that_is_left_out_in_the_afternoon_loses_that_hour()
    {
        var lesson = Only(new(Some.Demo("Marrow"), 7, 5, [new(HabitKind.Not, 1, "l1")]));
        Assert.Equal("Book lift: one time, not two.", lesson.Title);
        Assert.Contains("Not at 15:00.", lesson.Words, StringComparison.Ordinal);
        Assert.Equal(10, (double)Assert.Single(lesson.Changes[0].Value!.AsArray())![0]!);
    }

    [Theory]
    [InlineData("Marrow", 35, "Set its idle draw to")]
    [InlineData("Hare", 25, "Add 2")]
    public void What_is_always_drawn_goes_to_the_inverter_or_into_the_list(string name, double watts, string label)
    {
        var lived = new Lived(Some.Demo(name), 6, 2, [new(HabitKind.Idle, watts)]);
        var lesson = Only(lived);
        Assert.Equal(LessonKind.Idle, lesson.Kind);
        Assert.StartsWith(label, lesson.Label, StringComparison.Ordinal);
        Assert.Equal(watts * 24, lesson.WhADay, 0.06 * watts * 24);
        Assert.Equal(lived.UsedWh, lived.CorrectedWh, 0.05 * lived.UsedWh);
    }

    [Fact]
    public void Two_days_are_not_yet_enough_to_be_sure()
    {
        var lived = new Lived(Some.Demo("Marrow"), 2, 3, [new(HabitKind.Duty, 0.46, "l6"), new(HabitKind.Idle, 45)]);
        var lesson = Assert.Single(lived.Lessons, l => l.Kind == LessonKind.Duty);
        Assert.Equal("Not yet sure: two days were read, three are needed.", lesson.NotYet);
        Assert.Empty(lesson.Changes);
        Assert.Contains("three whole days are needed to be sure", lived.View().Headline, StringComparison.Ordinal);
    }

    [Fact]
    public void The_headline_says_the_ratio_and_its_causes_and_its_working_adds_up()
    {
        var lived = new Lived(Some.Demo("Marrow"), 7, 6, [new(HabitKind.Duty, 0.46, "l6"), new(HabitKind.Also, 11.4, "l2")]);
        var view = lived.View();
        Assert.Matches(
            @"^The bank gives 1\.1\d times the plan: the staff fridge runs 1\d(\.\d)? h a day, not 6 h, and the kettle",
            view.Headline
        );
        var used = view.Working.Single(e => e.Pointer == "/log/usedWh");
        Assert.Equal(used.Value, used.Terms.Sum(t => t.Value!.Value), 1e-6);
        var ratio = view.Working.Single(e => e.Pointer == "/log/ratio");
        Assert.Equal(ratio.Terms[0].Value!.Value / ratio.Terms[1].Value!.Value, ratio.Value, 1e-9);
        Assert.Equal("plan-differs", ratio.HouseRule);
        // Lean people let a fifth pass.
        var lean = lived.Design with { HouseRules = lived.Design.HouseRules with { Set = Core.Design.RuleSet.Lean } };
        Assert.StartsWith("The bank gives what was planned", new Lived(lean, 7, 6, lived.Habits).View().Headline, StringComparison.Ordinal);
    }

    [Fact]
    public void With_nothing_unknown_the_plan_from_midnight_ends_where_the_bank_does()
    {
        var lived = new Lived(Some.Demo("Hare"), 6, 9, []);
        foreach (var day in lived.Days.Where(d => d.Whole))
            Assert.Equal(day.Soc[^1]!.Value, day.PlanSoc[^1]!.Value, 0.012);
        // With more always drawn it ends above: the wedge is what the plan did not know.
        var more = new Lived(Some.Demo("Hare"), 5, 9, [new(HabitKind.Idle, 30)]);
        // A plan that fills its bank leaves less of it.
        var days = more.Days.Where(d => d.Whole && !d.Empty && d.PlanSoc.All(s => s < 0.99)).ToList();
        Assert.True(days.Count >= 2);
        foreach (var day in days)
            Assert.Equal(30 * 24 / more.Plan.RatedWh, day.PlanSoc[^1]!.Value - day.Soc[^1]!.Value, 0.03);
    }

    [Fact]
    public void A_joint_that_warms_and_a_shunt_that_is_off_are_no_matter_of_the_plan()
    {
        var warm = new Lived(Some.Demo("Marrow"), 12, 7, [new(HabitKind.Joint, 1.2)]);
        var half = LogDays.At(Lived.Monday.AddDays(6));
        var view = LogBook.Of(
            warm.Design,
            0,
            new(warm.Slots, [.. warm.Readings.Where(r => r.At >= half)], [.. warm.Readings.Where(r => r.At < half)], []),
            new(Lived.Monday.AddDays(6), 6),
            Lived.Monday.AddDays(13)
        );
        var joint = Assert.Single(view.Lessons, l => l.Kind == LessonKind.Joint);
        Assert.Contains("1.2 mΩ more", joint.Words, StringComparison.Ordinal);
        Assert.Contains("12 W of heat at 100 A", joint.Words, StringComparison.Ordinal);

        var off = new Lived(Some.Demo("Marrow"), 28, 7, [new(HabitKind.Zero, 1.5)]);
        Assert.Contains(off.View().Lessons, l => l.Title == "More came out than went in.");
        Assert.DoesNotContain(new Lived(Some.Demo("Marrow"), 28, 7, []).View().Lessons, l =>
            l.Kind is LessonKind.Efficiency or LessonKind.Monitor
        );
    }

    [Fact]
    public void A_leap_of_the_clock_and_a_doubled_hour_do_no_harm()
    {
        Habit[] habits = [new(HabitKind.Duty, 0.46, "l6")];
        var sound = new Lived(Some.Demo("Marrow"), 8, 3, habits);
        var changed = LogDays.At(Lived.Monday.AddDays(3)) + 3 * 3600;
        // The file as its clock wrote it: an hour back on the fourth night, and forward again on the sixth.
        var text = new System.Text.StringBuilder("Time,Voltage,Current (charge +),SoC %\n");
        foreach (var r in sound.Readings)
        {
            var at = r.At >= changed ? r.At - 3600 : r.At;
            if (at >= LogDays.At(Lived.Monday.AddDays(5)) + 2 * 3600)
                at += 3600;
            text.Append(
                CultureInfo.InvariantCulture,
                $"{DateTime.UnixEpoch.AddSeconds(at):yyyy-MM-dd HH:mm:ss},{r.Volts},{-r.Amps},{r.Soc * 100}\n"
            );
        }
        var shape = MonitorCsv.Recognise(text.ToString()[..4000]);
        Assert.True(shape.ChargePositive);
        var read = new List<LogReading>();
        var told = MonitorCsv.Read(new StringReader(text.ToString()), shape, 400, r => read.Add(LogReading.Of(r, 24)));
        Assert.Equal((60, 0), (told.Backwards, told.Missed));
        var lived = new Lived(Some.Demo("Marrow"), 8, 3, habits, _ => read);
        Assert.Equal(sound.UsedWh, lived.UsedWh, 0.03 * sound.UsedWh);
        Assert.Equal(0.46, (double)Only(lived).Changes[0].Value!, 0.03);
        // The leap is a gap, and not bridged.
        Assert.Equal(23, lived.Days.Single(d => d.Day == Lived.Monday.AddDays(5)).Hours, 0.1);
    }

    [Fact]
    public void Days_on_which_the_bank_ends_teach_nothing()
    {
        var lived = new Lived(Some.Demo("Pell"), 5, 1, []);
        Assert.Contains(lived.Days, d => d.Empty);
        Assert.DoesNotContain(lived.Lessons, l => l.Changes.Count > 0);
    }

    [Fact]
    public void The_demo_log_says_what_its_picture_shows()
    {
        var readings = Core.Demo.DemoLog.Readings();
        var slots = new List<LogSlot>();
        var maker = new SlotMaker(24, slots.Add);
        foreach (var r in readings)
            maker.Add(r);
        maker.End();
        var frame = LogFrame.Of(readings[0].At, readings[^1].At, null, null, new(2026, 11, 28));
        Assert.Equal((new DateOnly(2026, 11, 21), 7), (frame.From, frame.Days));
        var view = LogBook.Of(
            Some.Demo("Marrow"),
            0,
            new(
                slots,
                [.. readings.Where(r => r.At >= frame.FromAt)],
                [.. readings.Where(r => r.At < readings[0].At + 3 * 86_400)],
                Core.Demo.DemoLog.Entries()
            ),
            frame,
            new(2026, 11, 28)
        );
        Assert.EndsWith("the kettle runs five times", view.Headline, StringComparison.Ordinal);
        Assert.Equal(74, view.Mornings.Count);
        Assert.Equal(8, view.Units.Count(u => u.Place is not null));
        Assert.Equal("0417-2224", Assert.Single(view.Units, u => u.OutOfService is not null).Serial);
        Assert.Equal("D2", Assert.Single(view.Units, u => u.Look is not null).Place);
        Assert.Equal(["2026-12-12", "2026-12-15", "2026-12-20"], view.Upkeep.Take(3).Select(u => u.Due));
        Assert.Equal(2035, Math.Floor(view.Health!.EndsYear!.Value));
    }
}

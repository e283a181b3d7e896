using FsCheck.Xunit;
using InkyBadger.Core.Design;
using InkyBadger.Core.Logs;
using InkyBadger.Core.Tests.Designs;
using InkyBadger.Core.Work;

namespace InkyBadger.Core.Tests.Laws;

/// <summary>Any design has a log, whatever was read, and what a lesson offers is a design that can be worked out.</summary>
[Laws(typeof(Documents))]
public class LogLaws
{
    private static readonly DateOnly Monday = new(2026, 11, 16);

    /// <summary>
    /// Five days: something always drawn, loads of the design on at hours they are not planned for, a charger at noon, something large now
    /// and then, gaps, and readings without volts, amperes or charge, by number.
    /// </summary>
    private static List<LogReading> Readings(DesignDocument design, int seed)
    {
        var (draw, list, soc, stray) = (new Random(seed), new List<LogReading>(), 0.9, 0.0);
        double[] watts = [100, 900, .. Watts(design)];
        var habits = Enumerable
            .Range(0, 6)
            .Select(_ => (Hour: draw.Next(24), W: watts[draw.Next(watts.Length)], Min: draw.Next(3, 55)))
            .ToList();
        var idle = draw.NextDouble() * 3;
        for (var at = LogDays.At(Monday); at < LogDays.At(Monday.AddDays(5)); at += draw.Next(4000) == 0 ? 4000 : 60)
        {
            var (hour, minute) = ((int)(at / 3600 % 24), at / 60 % 60);
            var amps = idle + habits.Where(h => h.Hour == hour && minute < h.Min).Sum(h => h.W / 12.5) - (hour is 11 or 12 ? 30 : 0);
            if (draw.Next(600) == 0)
                stray = stray > 0 ? 0 : draw.NextDouble() * 90;
            amps += stray;
            soc = Math.Clamp(soc - amps / 60 / 3000, 0, 1);
            double? Some(double value, int rare) => draw.Next(rare) > 0 ? value : null;
            list.Add(new(at, Some(12.5, 50), Some(amps, 500), Some(soc, 3), null));
        }
        return list;
    }

    private static IEnumerable<double> Watts(DesignDocument design)
    {
        try
        {
            return [.. new LogPlan(new SiteWork(design)[0]).Loads(Monday).Select(l => Math.Min(4000, l.BankW))];
        }
        catch (Exception e) when (e is Missing or Refusal)
        {
            return [];
        }
    }

    [Property]
    public void Any_design_has_a_log_whatever_was_read(DesignDocument design, int seed)
    {
        var readings = Readings(design, seed);
        var slots = new List<LogSlot>();
        var maker = new SlotMaker(12, slots.Add);
        foreach (var r in readings)
            maker.Add(r);
        maker.End();
        for (var bank = 0; bank < design.Banks.Count; bank++)
        {
            var frame = new LogFrame(Monday, 5);
            var view = LogBook.Of(design, bank, new(slots, readings, [], []), frame, Monday.AddDays(6));
            Assert.NotEmpty(view.Headline);
            Assert.Equal(5, view.Mornings.Count);
            foreach (var lesson in view.Lessons.Where(l => l.Changes.Count > 0))
            {
                Assert.NotNull(lesson.Label);
                Assert.Null(lesson.NotYet);
                var then = DesignFormat.With(design, lesson.Changes);
                Assert.Empty(DesignCheck.Faults(then));
                Assert.True(new LogPlan(new SiteWork(then)[bank]).DayWh(Monday) >= 0);
            }
            // A frame too long to be looked at closely says the same days.
            var far = LogBook.Of(design, bank, new(slots, [], [], []), new(Monday, 60), Monday.AddDays(6));
            Assert.Equal(view.Frame.Lines.Select(l => (l.Day, l.Hours)), far.Frame.Lines.Select(l => (l.Day, l.Hours)));
        }
    }

    [Property]
    public void A_made_up_monitor_lives_by_any_design_that_can_be_rehearsed(DesignDocument design)
    {
        Lived lived;
        try
        {
            lived = new(design, 2, 5);
        }
        catch (Exception e) when (e is Missing or Refusal)
        {
            return;
        }
        Assert.Equal(2880, lived.Readings.Count);
        Assert.All(lived.Readings, r => Assert.InRange(r.Soc!.Value, 0, 1));
        Assert.Equal(lived.Readings.Select(r => r.Amps), new Lived(design, 2, 5).Readings.Select(r => r.Amps));
    }
}

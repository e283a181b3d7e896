using InkyBadger.Core.Demand;
using InkyBadger.Core.Design;
using InkyBadger.Core.Words;

namespace InkyBadger.Core.Logs;

/// <summary>Sources that give less than planned.</summary>
internal sealed class SourceLessons : LessonMaker
{
    private const double OpenShare = 0.8,
        PluggedShare = 0.2;

    public SourceLessons(LogPlan plan, IReadOnlyList<LoggedDay> days, LogStarts starts)
        : base(plan, days, starts)
    {
        Sun();
        Chargers();
    }

    /// <summary>What the sun gave on days on which the bank could take it.</summary>
    private void Sun()
    {
        var arrays = Plan.Sources.Index().Where(s => s.Item.Kind == SourceKind.Solar && s.Item.Array is not null).ToList();
        if (arrays.Count == 0 || !(Plan.SunWh(Days[^1].Day) > 0))
            return;
        var open = Days.Where(d => !d.Soc.Any(s => s >= 0.97)).ToList();
        // Days on which the bank was full are the bright ones: without most of them the rest says nothing.
        if (open.Count == 0 || open.Count < OpenShare * Days.Count)
            return;
        var expected = open.Average(d => SunAlone(d));
        if (!(expected > 0))
            return;
        var against = AgainstPlan.Work([.. open.Select(d => d.SunWh)], expected);
        if (against.Ratio >= 0.85)
            return;
        var one = arrays.Count == 1 && arrays[0].Index < Plan.Work.Document.Sources.Count ? arrays[0] : default;
        var shade = one.Item?.Array is { } array ? Math.Round(1 - (1 - array.Shade) * against.Ratio, 2) : 0;
        Add(
            LessonKind.Source,
            $"Sun: {Say.Wh(against.MedianWh)} a day, not {Say.Wh(expected)}.",
            "Less than its usual day, on days on which the bank could take it: shade, a tilt that is not the one planned, dirt, a "
                + "controller that clips, or a week of dull sky. What the loads took meanwhile and "
                + "the plan does not know is not in it.",
            null,
            against.MedianWh - expected,
            open.Count < 10 ? $"Not yet sure: {open.Count} such days, and the sky differs; ten are needed." : NotYet(against),
            one.Item is null ? null : $"Set its shade to {Say.Percent(shade, 0)}",
            b => one.Item is null ? b : b.WithSource(one.Index, s => s with { Array = s.Array! with { Shade = shade } })
        );
    }

    /// <summary>What the mean day’s sun brings while nothing else charges [Wh].</summary>
    private double SunAlone(LoggedDay day)
    {
        var (sun, others) = Plan.MayCharge(day.Day);
        var all = sun.Count(x => x);
        return all == 0 ? 0 : Plan.SunWh(day.Day) * sun.Zip(others).Count(x => x.First && !x.Second) / all;
    }

    /// <summary>A charger that gives less than its plate, while the bank takes all.</summary>
    private void Chargers()
    {
        foreach (var (i, source) in Plan.Work.Document.Sources.Index())
        {
            if (
                source.Kind is not (SourceKind.Mains or SourceKind.Generator or SourceKind.DcDc)
                || Plan.GivesA(source) is not > 0
                || source.Windows is not { Count: > 0 }
            )
                continue;
            var gives = Plan.GivesA(source)!.Value;
            var read = new List<double>();
            foreach (var day in Days)
            {
                if (source.Weekdays is { } weekdays && !weekdays.Contains(((int)day.Day.DayOfWeek + 6) % 7))
                    continue;
                for (var n = 0; n < LogSlot.PerDay; n++)
                    if (
                        source.Windows.Any(x => new DayWindow(x[0], x[1]).HoursWithin(n / 4.0, (n + 1) / 4.0) > 0.249)
                        && Alone(source, day.Day, n)
                    )
                        if (day.SourceW[n] > PluggedShare * gives * Plan.NominalV && day.Soc[n] < 0.9)
                            read.Add(day.SourceW[n] / Plan.NominalV);
            }
            if (read.Count < 6)
                continue;
            var amps = Middle.Of(read);
            if (amps >= 0.85 * gives)
                continue;
            var rounded = Math.Round(amps, 1);
            Add(
                LessonKind.Source,
                $"{source.Name}: {Say.A(amps)}, not {Say.A(gives)}.",
                "While the bank could take more: a limit that is set lower, a cable that drops its volts, or a source that cannot give it.",
                null,
                0,
                read.Count < 12 ? "Not yet sure: it was seen for less than three hours." : null,
                $"Set it to {Say.A(rounded)}",
                b => b.WithSource(i, s => s with { Amps = rounded })
            );
        }
    }

    private bool Alone(Source source, DateOnly day, int n)
    {
        var (sun, _) = Plan.MayCharge(day);
        return !sun[n]
            && !Plan.Work.Document.Sources.Any(s =>
                s.Id != source.Id && (s.Windows ?? []).Any(x => new DayWindow(x[0], x[1]).HoursWithin(n / 4.0, (n + 1) / 4.0) > 0)
            );
    }
}

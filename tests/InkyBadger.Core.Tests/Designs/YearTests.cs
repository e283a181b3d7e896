using InkyBadger.Core.Design;
using InkyBadger.Core.Reference;
using InkyBadger.Core.Rehearsal;

namespace InkyBadger.Core.Tests.Designs;

/// <summary>A design's year: what it is made of, what is dropped on it, what it says and what would help.</summary>
public class YearTests
{
    /// <summary>A string of 100 Ah LFP at 12 V and one load; no sun unless it is said.</summary>
    private static DesignDocument Plain(params Drop[] drops) =>
        NewDesign.Empty("x") with
        {
            Banks =
            [
                new()
                {
                    Id = "b",
                    SystemV = 12,
                    Chemistry = "lfp",
                    Unit = Catalogue.Units.First(u => u.Chemistry == "lfp" && u.Cells == 4 && u.Ah == 100),
                    Series = 1,
                    Parallel = 1,
                    Demand = new()
                    {
                        Loads =
                        [
                            new()
                            {
                                Id = "l",
                                Name = "Lamp",
                                Kind = LoadKind.Dc,
                                Watts = 32,
                                Windows =
                                [
                                    [18, 22],
                                ],
                            },
                        ],
                    },
                },
            ],
            Rehearsal = new() { Drops = drops },
        };

    /// <summary>A place hotter or colder than any cell has been is taken as the last that is known.</summary>
    [Theory]
    [InlineData(120.0)]
    [InlineData(-60.0)]
    [InlineData(20.0)]
    public void A_place_as_hot_as_a_document_may_say_is_run_too(double ambientC)
    {
        var run = YearRun.Of(Plain() with { Place = new() { AmbientC = ambientC } }, 0);
        Assert.Null(run.Intro.Wait);
        Assert.Equal(31, run.Next()!.Days.Count);
        // Full when it begins, and on its first evening 4 h of 32 W are asked.
        var sums = run.Outcome()!.Sums;
        Assert.InRange(sums.LowestSoc, 0, 1);
        Assert.True(sums.LowestSocH > 18);
    }

    private static Source Plug(params int[] weekdays) =>
        new()
        {
            Id = "p",
            Name = "Plug",
            Kind = SourceKind.Mains,
            Amps = 20,
            Windows =
            [
                [8, 14],
            ],
            Weekdays = weekdays.Length == 0 ? null : weekdays,
        };

    private static DesignDocument With(DesignDocument design, params Source[] sources) =>
        design with
        {
            Banks = [design.Banks[0] with { Sources = sources }],
        };

    private static (YearIntro Intro, List<YearDay> Days, List<YearQuarters> Quarters, YearOutcome Outcome) Run(DesignDocument design)
    {
        var run = YearRun.Of(design, 0);
        var (days, quarters) = (new List<YearDay>(), new List<YearQuarters>());
        while (run.Next() is { } month)
        {
            Assert.Equal(days.Count, month.From);
            days.AddRange(month.Days);
            quarters.AddRange(month.Quarters);
        }
        return (run.Intro, days, quarters, run.Outcome()!);
    }

    /// <summary>
    /// 128 Wh a day of a bank that holds some 1,300 Wh at rest: ten evenings, and in the eleventh it is dark. On 1 July of 2026 it begins.
    /// </summary>
    [Fact]
    public void Without_a_source_it_lasts_and_is_dark_then()
    {
        var (intro, days, quarters, outcome) = Run(Plain());
        Assert.Null(intro.Wait);
        Assert.Equal(("2026-07-01", 365, 1), (intro.First, intro.Days, intro.Strings));
        Assert.Equal(365, days.Count);
        Assert.All(days.Take(10), d => Assert.Equal(0, d.DarkH));
        Assert.True(days[10].DarkH > 0, "the eleventh evening");
        Assert.Equal(4, days[11].DarkH, 9);
        Assert.StartsWith("From full it lasts ", outcome.Headline, StringComparison.Ordinal);
        Assert.EndsWith(", then dark: nothing charges it", outcome.Headline, StringComparison.Ordinal);
        Assert.Equal("2026-07-11", outcome.FirstDark);
        Assert.Equal(365 * 128, outcome.Sums.ServedDcWh + outcome.Sums.UnservedWh, 6);
        // In the evening's quarters it gives 32 W: 2.4 to 2.6 A.
        Assert.Equal(-32, quarters[0].NetW[18 * 4]);
        Assert.InRange(quarters[0].Amps[0][18 * 4], 2.4, 2.6);
        Assert.Equal(0, quarters[0].NetW[17 * 4]);
    }

    /// <summary>
    /// A plug on Saturdays and Sundays alone: 4 July is the first Saturday. A week's 896 Wh are less than it holds, so it is never dark;
    /// the lowest is a Friday night.
    /// </summary>
    [Fact]
    public void A_plug_at_weekends_is_a_plug_at_weekends()
    {
        var (_, days, _, outcome) = Run(With(Plain(), Plug(5, 6)));
        Assert.All(days.Take(3), d => Assert.Equal(0, d.SourceWh[0]));
        Assert.True(days[3].SourceWh[0] > 300, "Saturday");
        Assert.Equal(0, days[5].SourceWh[0]);
        Assert.Equal(0, outcome.DarkDays);
        Assert.Equal(DayOfWeek.Friday, DateOnly.Parse(outcome.Lowest, System.Globalization.CultureInfo.InvariantCulture).DayOfWeek);
        Assert.StartsWith("Never dark; lowest ", outcome.Headline, StringComparison.Ordinal);
        // The mean day of its months has two sevenths of its hours.
        static double Mean(DesignDocument d) => d.Bank().Charging!.Months[0].BySource[0];
        Assert.Equal(Mean(With(Plain(), Plug())) * 2 / 7, Mean(With(Plain(), Plug(5, 6))), 9);
    }

    /// <summary>
    /// The plug is forgotten for a fortnight: ten evenings are in the bank, the last of August and nine of September; the other five are
    /// dark.
    /// </summary>
    [Fact]
    public void What_is_dropped_is_said_and_ended()
    {
        var forgotten = new Drop
        {
            Kind = DropKind.Plug,
            From = "2026-09-01T00:00",
            To = "2026-09-15T00:00",
        };
        var design = With(Plain(forgotten), Plug());
        var (intro, days, _, outcome) = Run(design);
        var drop = Assert.Single(intro.Drops);
        Assert.Equal((62 * 24.0, 76 * 24.0, "plug forgotten"), (drop.FromH, drop.ToH, drop.Words));
        Assert.All(days.Skip(62).Take(14), d => Assert.Equal(0, d.SourceWh[0]));
        Assert.True(days[76].SourceWh[0] > 1000, "full again at once");
        Assert.Equal(5, outcome.DarkDays);
        Assert.Equal(("2026-09-10", "2026-09-14"), (outcome.FirstDark, outcome.LastDark));
        Assert.EndsWith("after the plug was forgotten", outcome.Headline, StringComparison.Ordinal);

        var remedies = new Remedies(design, 0).Each().ToDictionary(r => r.Title);
        Assert.Equal(outcome.DarkH, remedies["as it is"].DarkH);
        Assert.Equal(0, remedies["without: plug forgotten"].DarkH);
        Assert.Equal(0, remedies["a string more"].DarkH);
        Assert.Equal(outcome.DarkH, remedies["plug an hour longer"].DarkH);
        // What is promised is what its changes do.
        Assert.All(remedies.Values.Where(r => r.Changes.Count > 0), r =>
            Assert.Equal(r.DarkH, Run(DesignFormat.With(design, r.Changes)).Outcome.DarkH)
        );
        // One alone ends it: no pair is looked for.
        Assert.Null(new Remedies(design, 0).Pair());
    }

    /// <summary>A string that opens takes its share away until it is mended; the fuse takes all of them.</summary>
    [Fact]
    public void A_string_and_the_fuse()
    {
        Drop At(DropKind kind) =>
            new()
            {
                Kind = kind,
                String = 1,
                From = "2026-07-02T12:00",
                To = "2026-07-03T12:00",
            };
        var two = With(Plain(At(DropKind.String)), Plug());
        two = two with { Banks = [two.Banks[0] with { Parallel = 2 }] };
        var (_, days, quarters, _) = Run(two);
        Assert.Equal(0, days[1].DarkH);
        Assert.Equal(0, quarters[1].Amps[0][19 * 4]);
        Assert.InRange(quarters[1].Amps[1][19 * 4], 2.3, 2.6);
        Assert.True(quarters[2].Amps[0][19 * 4] > 0.5, "mended");
        var fused = two with { Rehearsal = new() { Drops = [At(DropKind.Fuse)] } };
        Assert.Equal(4, Run(fused).Days[1].DarkH, 9);
        Assert.Equal(0, Run(fused).Days[2].DarkH);
    }

    /// <summary>The same number is the same year; a cloudy week has its share of the sky.</summary>
    [Fact]
    public void Weather_is_its_number()
    {
        var hut = Some.Demo("Hare");
        double Sun(DesignDocument d, int day) => Run(d).Days[day].SourceWh[0] + Run(d).Days[day].RefusedWh;
        Assert.Equal(Sun(hut, 150), Sun(hut, 150));
        Assert.NotEqual(Sun(hut, 150), Sun(hut with { Rehearsal = hut.Rehearsal with { Weather = 2 } }, 150));
        var dull = hut with
        {
            Rehearsal = new()
            {
                Drops =
                [
                    new()
                    {
                        Kind = DropKind.Weather,
                        From = "2026-11-28T00:00",
                        To = "2026-11-29T00:00",
                        Value = 0.5,
                    },
                ],
            },
        };
        // Less than half: a dull sky keeps the beam, which the tilted array lives on.
        Assert.InRange(Sun(dull, 150) / Sun(hut, 150), 0.1, 0.5);
        Assert.Equal(Sun(hut, 151), Sun(dull, 151), 6);
    }

    /// <summary>
    /// An inverter of 1,000 W, 1,200 W for two minutes: 1,100 W are given for two of five minutes and not for the other three; of 1,300 W
    /// none are. It gives again at once when less is asked.
    /// </summary>
    [Fact]
    public void An_inverter_gives_more_for_as_long_as_it_may()
    {
        double Dark(double watts, int minutes)
        {
            var ac = new double[1440];
            Array.Fill(ac, 100);
            for (var n = 600; n < 600 + minutes; n++)
                ac[n] = watts;
            var lfp = Chemistries.Get("lfp");
            var plan = new RehearsalPlan(
                lfp,
                8,
                1,
                60,
                [new(400, 0.005)],
                [new(ac, new double[1440])],
                null,
                new(0.9, 10, false, 20, 0.3, [new(double.PositiveInfinity, 1000), new(120, 1200)]),
                [],
                null,
                [],
                0.1,
                0.5,
                1,
                20,
                0.99
            );
            return new Rehearsal.Rehearsal(plan).Run().DarkHours * 60;
        }
        Assert.Equal(0, Dark(1000, 5), 6);
        Assert.Equal(0, Dark(1100, 2), 6);
        Assert.Equal(3, Dark(1100, 5), 6);
        Assert.Equal(5, Dark(1300, 5), 6);
    }

    [Fact]
    public void Years_of_other_weather_are_told_one_by_one()
    {
        var steps = YearRisk.Work(Some.Demo("Hare"), 0, 4).ToList();
        Assert.Equal([1, 2, 3, 4], steps.Select(s => s.Done));
        Assert.All(steps.SkipLast(1), s => Assert.Null(s.Risk));
        var risk = steps[^1].Risk!;
        Assert.Equal(4, risk.Runs);
        Assert.Equal(steps.Average(s => s.DarkH), risk.MeanDarkHours, 9);
        // The first of them is the design's own.
        Assert.Contains(Run(Some.Demo("Hare")).Outcome.DarkH, steps.Select(s => s.DarkH));
        using var stopped = new CancellationTokenSource();
        stopped.Cancel();
        Assert.ThrowsAny<OperationCanceledException>(() => YearRisk.Work(Some.Demo("Hare"), 0, 4, stopped.Token).ToList());
    }

    /// <summary>What is no day and no moment is refused; a drop whose end comes first, or of another year, is only not counted.</summary>
    [Fact]
    public void Days_and_moments_are_read()
    {
        Drop At(string from, string to) =>
            new()
            {
                Kind = DropKind.Plug,
                From = from,
                To = to,
            };
        static string[] Faults(DesignDocument d) => [.. Work.DesignCheck.Faults(d).Select(f => f.Pointer)];
        var good = Plain(At("2026-07-02T00:00", "2026-07-03T00:00"));
        Assert.Empty(Faults(good));
        Assert.Equal(["/rehearsal/from"], Faults(good with { Rehearsal = new() { From = "2026-02-30" } }));
        Assert.Equal(["/rehearsal/from"], Faults(good with { Rehearsal = new() { From = "9999-01-01" } }));
        Assert.Equal(["/rehearsal/drops/0/from"], Faults(Plain(At("today", "2026-07-03T00:00"))));
        Assert.Equal(["/rehearsal/drops/0/to"], Faults(Plain(At("2026-07-03T00:00", "2026-07-03T25:00"))));
        Assert.Single(YearRun.Of(good, 0).Intro.Drops);
        Assert.Empty(YearRun.Of(Plain(At("2026-07-03T00:00", "2026-07-02T00:00")), 0).Intro.Drops);
        Assert.Empty(YearRun.Of(Plain(At("2020-07-02T00:00", "2020-07-03T00:00")), 0).Intro.Drops);
        // A leap day is the day before it once more.
        var leap = YearRun.Of(good with { Rehearsal = new() { From = "2028-01-01" } }, 0);
        Assert.Equal("2028-01-01", leap.Intro.First);
        Assert.Equal(31, leap.Next()!.Days.Count);
        Assert.Equal(29, leap.Next()!.Days.Count);
    }

    [Fact]
    public void What_cannot_be_run_says_why()
    {
        var run = YearRun.Of(NewDesign.Empty("x"), 0);
        Assert.Contains("add the first load", run.Intro.Wait, StringComparison.OrdinalIgnoreCase);
        Assert.Null(run.Next());
        Assert.Null(run.Outcome());
        Assert.DoesNotContain(new Remedies(NewDesign.Empty("x"), 0).Each(), r => r.Changes.Count > 0);
    }
}

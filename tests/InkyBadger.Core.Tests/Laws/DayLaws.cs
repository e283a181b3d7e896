using InkyBadger.Core.Demand;
using InkyBadger.Core.Design;

namespace InkyBadger.Core.Tests.Laws;

/// <summary>The day as it is swept against the day as one would count it by hand, instant by instant.</summary>
public class DayLaws
{
    private static List<DailyLoad> Loads(Random random, int count) =>
        [
            .. Enumerable
                .Range(0, count)
                .Select(_ =>
                {
                    var kind = (LoadKind)random.Next(3);
                    var watts = random.Next(1, 40) * 25;
                    var quantity = random.Next(0, 3);
                    if (random.Next(4) == 0)
                        return new DailyLoad(kind, watts, quantity, Hours: random.Next(0, 25), SurgeWatts: random.Next(3) * 400);
                    // Windows of one load do not overlap, but may touch, and the last may pass midnight.
                    var cuts = Enumerable.Range(0, 2 * random.Next(1, 4)).Select(_ => random.Next(0, 96) / 4.0).Distinct().Order().ToList();
                    if (cuts.Count % 2 == 1)
                        cuts.RemoveAt(0);
                    if (cuts.Count == 0)
                        cuts = [6, 7];
                    var windows = new List<DayWindow>();
                    for (var i = 0; i < cuts.Count; i += 2)
                        windows.Add(new(cuts[i], cuts[i + 1]));
                    if (random.Next(3) == 0)
                        windows = [new(cuts[^1], cuts[0])];
                    return new DailyLoad(kind, watts, quantity, Windows: windows, SurgeWatts: random.Next(4) * 500);
                }),
        ];

    [Theory]
    [InlineData(1)]
    [InlineData(2)]
    [InlineData(3)]
    public void A_day_that_is_swept_is_the_day_that_is_counted(int seed)
    {
        var random = new Random(seed);
        for (var n = 0; n < 200; n++)
        {
            var loads = Loads(random, random.Next(1, 90));
            var rule = (SurgeRule)random.Next(2);
            var profile = DayProfile.Work(loads, 0.9, rule);
            Assert.Equal(0, profile[0].FromH);
            Assert.Equal(24, profile[^1].ToH);
            for (var i = 0; i < profile.Count; i++)
            {
                if (i > 0)
                    Assert.Equal(profile[i - 1].ToH, profile[i].FromH);
                var on = loads.Where(l => l.OnAt(profile[i].FromH)).ToList();
                // Nothing switches inside a stretch.
                Assert.Equal(on, loads.Where(l => l.OnAt((profile[i].FromH + profile[i].ToH) / 2)));
                var ac = on.Where(l => l.Kind == LoadKind.Ac).ToList();
                Assert.Equal(ac.Sum(l => l.RunningW), profile[i].AcW);
                Assert.Equal(
                    on.Where(l => l.Kind != LoadKind.Ac).Sum(l => l.RunningW / (l.Kind == LoadKind.Converter ? 0.9 : 1)),
                    profile[i].DcW,
                    9
                );
                var extra =
                    rule == SurgeRule.AllAtOnce ? ac.Sum(l => l.Quantity * l.StartExtraW) : ac.Select(l => l.StartExtraW).Append(0).Max();
                Assert.Equal(profile[i].AcW + extra, profile[i].SurgeW, 9);
            }
        }
    }

    [Fact]
    public void A_level_lasts_as_long_as_the_longest_stretch_that_has_it()
    {
        var random = new Random(4);
        for (var n = 0; n < 300; n++)
        {
            var winter = DayProfile
                .Work(Loads(random, random.Next(1, 12)), 0.9, SurgeRule.OneAtATime)
                .ConvertAll(s => s with { Season = Season.Winter });
            var summer = DayProfile
                .Work(Loads(random, random.Next(1, 12)), 0.9, SurgeRule.OneAtATime)
                .ConvertAll(s => s with { Season = Season.Summer });
            List<ProfileSegment> both = [.. winter, .. summer];
            var levels = RunningLevels.Of(both);
            Assert.Equal(both.Select(s => s.AcW).Distinct(), levels.Select(l => l.Watts));
            foreach (var level in levels)
            {
                Assert.Equal(both.FindIndex(s => s.AcW == level.Watts), level.Segment);
                Assert.Equal(Math.Max(Counted(winter, level.Watts), Counted(summer, level.Watts)), level.Hours, 9);
            }
        }
    }

    /// <summary>Twice round the day, so that a stretch may pass midnight.</summary>
    private static double Counted(List<ProfileSegment> day, double watts)
    {
        double longest = 0,
            run = 0;
        foreach (var s in day.Concat(day))
        {
            run = s.AcW >= watts ? run + s.ToH - s.FromH : 0;
            longest = Math.Max(longest, run);
        }
        return Math.Min(24, longest);
    }

    /// <summary>What is promised of a moved load is what the day then asks: never less than the truth, and less than before.</summary>
    [Fact]
    public void A_quiet_hour_keeps_its_promise_on_generated_days()
    {
        var random = new Random(5);
        var moved = 0;
        for (var n = 0; n < 300; n++)
        {
            var loads = Loads(random, random.Next(2, 30));
            var day = new QuietHour(loads);
            for (var i = 0; i < loads.Count; i++)
            {
                if (day.Find(i) is not { } quiet)
                    continue;
                moved++;
                List<DailyLoad> then = [.. loads];
                then[i] = loads[i] with { Windows = quiet.Windows };
                DailyDemand.CheckWindows(quiet.Windows);
                var worst = DayProfile.Work(then, 0.9, SurgeRule.OneAtATime).Max(s => s.SurgeW);
                Assert.True(worst <= quiet.SurgeW + 1e-6, $"{worst} W instead of the {quiet.SurgeW} W that were promised");
                Assert.Equal(loads[i].HoursOn, then[i].HoursOn, 6);
            }
        }
        Assert.True(moved > 100, $"only {moved} were moved");
    }
}

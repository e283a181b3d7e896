using InkyBadger.Core.Design;
using InkyBadger.Core.Protection;
using InkyBadger.Core.Reference;
using InkyBadger.Core.Wiring;

namespace InkyBadger.Core.Tests.Designs;

/// <summary>Fuses against time and against each other, what a cable stands meanwhile, and what goes dark.</summary>
public class ProtectionTests
{
    private static FuseCurve Of(string fuse, double rating) => new(FuseClasses.Get(fuse), rating);

    [Fact]
    public void Beyond_its_last_point_a_fuse_goes_on_at_constant_energy_and_a_breaker_at_its_time()
    {
        foreach (var fuse in FuseClasses.All)
        {
            var curve = new FuseCurve(fuse, fuse.RatingsA[0]);
            Assert.Null(curve.At(curve.FirstA * 0.99));
            var last = curve.At(curve.LastA)!.Value;
            var far = curve.At(curve.LastA * 3)!.Value;
            Assert.Equal(fuse.IsBreaker ? last : last / 9, far, last * 1e-9);
            // It never opens later at more amperes.
            var before = double.PositiveInfinity;
            for (var a = curve.FirstA; a < curve.LastA * 4; a *= 1.07)
            {
                Assert.True(curve.At(a) <= before * (1 + 1e-9), $"{fuse.Id} at {a:0} A");
                before = curve.At(a)!.Value;
            }
        }
    }

    /// <summary>
    /// Every pair of classes at some ratings: up to the current that is named the one downstream is alone, and not beyond.
    /// </summary>
    [Fact]
    public void The_current_that_is_named_is_where_both_begin_to_open()
    {
        var (draw, alone, both) = (new Random(4), 0, 0);
        foreach (var up in FuseClasses.All)
        foreach (var down in FuseClasses.All)
        {
            var upstream = new FuseCurve(up, up.RatingsA[draw.Next(up.RatingsA.Count)]);
            var downstream = new FuseCurve(down, down.RatingsA[draw.Next(down.RatingsA.Count)]);
            var most = downstream.FirstA * (1 + 60 * draw.NextDouble());
            var result = Selectivity.Work(upstream, downstream, most);
            bool Apart(double a) =>
                upstream.At(a) is not { } late
                || late >= 9 * downstream.At(a)!.Value * (1 - 1e-9)
                || result.ByRatio == true && a > downstream.LastA;
            if (result.Selective == true)
            {
                alone++;
                for (var a = downstream.FirstA; a <= most; a *= 1.05)
                    Assert.True(Apart(a), $"{up.Id} {upstream.RatingA} over {down.Id} {downstream.RatingA} at {a:0} A");
                continue;
            }
            both++;
            if (result.SelectiveUpToA is not { } upTo)
            {
                Assert.False(Apart(downstream.FirstA * (1 + 1e-9)));
                continue;
            }
            for (var a = downstream.FirstA; a < upTo * (1 - 1e-6); a *= 1.05)
                Assert.True(Apart(a), $"{up.Id} {upstream.RatingA} over {down.Id} {downstream.RatingA} at {a:0} of {upTo:0} A");
            Assert.False(Apart(upTo * (1 + 1e-6)), $"{up.Id} {upstream.RatingA} over {down.Id} {downstream.RatingA}, {upTo:0} A");
        }
        Assert.True(alone > 20 && both > 20, $"{alone} alone, {both} together");
    }

    /// <summary>By the ratio is told where times alone would not do; 100 over 20 A are 25 times apart in A²s and need no rule.</summary>
    [Theory]
    [InlineData("class-t", 400, "class-t", 200, 9000, true, 1600.0)]
    [InlineData("class-t", 300, "class-t", 200, 9000, false, null)]
    [InlineData("nh1-gg", 100, "nh00-gg", 20, 1000, false, 200.0)]
    [InlineData("class-t", 400, "class-t", 200, 1500, false, null)]
    [InlineData("class-t", 400, "blade-32", 30, 2600, false, null)]
    public void A_ratio_of_two_counts_beyond_the_last_point(
        string up,
        double upA,
        string down,
        double downA,
        double shortA,
        bool byRatio,
        double? above
    )
    {
        var result = Selectivity.Work(new(FuseClasses.Get(up), upA), new(FuseClasses.Get(down), downA), shortA);
        Assert.Equal(byRatio, result.ByRatio);
        Assert.Equal(above, result.ApartAboveA);
    }

    [Fact]
    public void A_cable_stands_a_short_by_the_square_of_its_copper()
    {
        // 16 mm² under 90 °C thermoplastic: 1,600 A for a second.
        var one = ProtectionCurves.Cable(16, 1, 90, InsulationKind.Thermoplastic, 90, [90, 800, 1600, 3200]);
        Assert.Equal([null, 4, 1, 0.25], one);
        Assert.Equal(4, ProtectionCurves.Cable(16, 2, 90, InsulationKind.Thermoplastic, 90, [1600])[0]);
    }

    [Fact]
    public void A_BMS_and_an_inverter_go_by_their_seconds()
    {
        Assert.Equal([null, 5.0, 5.0, 0.0], ProtectionCurves.Bms(100, 200, 5, [100, 101, 200, 201]));
        // At 20 V and 0.8: 100 A are 1,600 W, 150 A 2,400 W, 200 A 3,200 W.
        OverloadPoint[] points = [new(2, 3000), new(60, 2400)];
        Assert.Equal([null, 60.0, 0.0], ProtectionCurves.Inverter(1600, 0.8, 0, 20, points, [100, 150, 200]));
        static string Refused(Action act) => Assert.Throws<Refusal>(act).Field;
        Assert.Equal("currentsA", Refused(() => ProtectionCurves.Bms(100, null, null, [0])));
        Assert.Equal("peakSeconds", Refused(() => ProtectionCurves.Bms(100, 200, null, [1])));
        Assert.Equal("peakA", Refused(() => ProtectionCurves.Bms(100, 90, 5, [1])));
        // A longer point that gives more, and one that gives no more than is given for good.
        Assert.Equal("points", Refused(() => ProtectionCurves.Inverter(1600, 0.8, 0, 20, [new(2, 2400), new(60, 3000)], [1])));
        Assert.Equal("points", Refused(() => ProtectionCurves.Inverter(1600, 0.8, 0, 20, [new(2, 1600)], [1])));
    }

    [Fact]
    public void What_more_opens_only_darkens()
    {
        var draw = new Random(8);
        for (var n = 0; n < 200; n++)
        {
            // Each is fed by some that came before it.
            var nodes = Enumerable
                .Range(0, 30)
                .Select(i => new FedNode(
                    $"n{i}",
                    [.. Enumerable.Range(0, i).Where(_ => draw.Next(i + 1) < 2).Select(k => $"n{k}")],
                    draw.Next(3) == 0,
                    draw.Next(2) == 0,
                    draw.Next(100)
                ))
                .ToList();
            List<string> opens = [$"n{draw.Next(30)}"];
            var few = DarkList.Work(nodes, opens);
            var more = DarkList.Work(nodes, [.. opens, $"n{draw.Next(30)}"]);
            Assert.Empty(few.Dead.Except(more.Dead));
            Assert.Equal(nodes.Where(x => x.IsLoad).Sum(x => x.Watts), few.LostW + few.KeptW);
            Assert.Contains(opens[0], few.Dead);
            // What lives has a feed that lives, or none at all.
            foreach (var alive in nodes.Where(x => !few.Dead.Contains(x.Name) && x.FedBy.Count > 0))
                Assert.True(alive.NeedsAll ? !alive.FedBy.Any(few.Dead.Contains) : alive.FedBy.Any(f => !few.Dead.Contains(f)));
        }
    }

    [Fact]
    public void A_ring_of_feeds_a_name_twice_and_nobody_are_refused()
    {
        Assert.Equal("fedBy", Refused([new("a", ["b"]), new("b", ["a"])], ["a"]));
        Assert.Equal("fedBy", Refused([new("a", ["a"])], ["a"]));
        Assert.Equal("fedBy", Refused([new("a", []), new("b", ["a", "a"])], ["a"]));
        Assert.Equal("name", Refused([new("a", []), new("a", [])], ["a"]));
        Assert.Equal("opens", Refused([new("a", [])], ["b"]));
        Assert.Equal("opens", Refused([new("a", [])], []));
        static string Refused(FedNode[] nodes, string[] opens) => Assert.Throws<Refusal>(() => DarkList.Work(nodes, opens)).Field;
    }
}

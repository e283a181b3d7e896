using InkyBadger.Core.Charging;
using InkyBadger.Core.Reference;

namespace InkyBadger.Core.Tests.Designs;

/// <summary>A bank over a day, by hand: 100 Ah of LFP at four cells, 1,280 Wh, of what goes in 0.95 stays.</summary>
public class DayFillingTests
{
    private static FillBank Bank(double? cellC = null) => new(new(Chemistries.Get("lfp"), 4, 100), 1280, 0.005, cellC);

    /// <summary>So many watts in these hours of 24.</summary>
    private static double[] In(double watts, int from, int to) => [.. Enumerable.Range(0, 24).Select(h => h >= from && h < to ? watts : 0)];

    private static FillSource Sun(double watts, int from = 10, int to = 12) => new("sun", In(watts, from, to), 14.2);

    /// <summary>2 h of 100 W against 10 W all day: 180 Wh in, of which 171 stay; 22 h of 10 W out.</summary>
    [Fact]
    public void What_goes_in_and_out_adds_up()
    {
        var day = DayFilling.Work(Bank(), In(10, 0, 24), [Sun(100)], 0.5);
        Assert.Equal(0.5 + (171 - 220) / 1280.0, day.EndsAt, 12);
        Assert.Equal(9, day.LostWh, 9);
        Assert.Equal(200, day.Sources[0].TakenWh, 9);
        Assert.Equal(0.5 - 100 / 1280.0, day.LowestSoc, 12);
        Assert.Equal(10, day.LowestH);
        Assert.Empty(day.Sources[0].Why);
    }

    /// <summary>A bank with 12.8 Wh of room takes 12.8 ÷ 0.95 of what is left over.</summary>
    [Fact]
    public void A_full_bank_refuses()
    {
        var day = DayFilling.Work(Bank(), In(0, 0, 24), [Sun(100)], 0.99);
        Assert.Equal(1, day.EndsAt, 12);
        Assert.Equal(12.8 / 0.95, day.Sources[0].TakenWh, 9);
        var why = Assert.Single(day.Sources[0].Why);
        Assert.Equal(AcceptLimit.Full, why.Why);
        Assert.Equal(200 - 12.8 / 0.95, why.Wh, 9);
    }

    /// <summary>Cold cells take nothing; what runs is fed all the same.</summary>
    [Fact]
    public void Cold_cells_refuse_what_is_not_used_at_once()
    {
        var day = DayFilling.Work(Bank(-5), In(10, 0, 24), [Sun(100)], 0.5);
        Assert.Equal(20, day.Sources[0].TakenWh, 9);
        Assert.Equal(new Refused(AcceptLimit.Cold, 180), Assert.Single(day.Sources[0].Why));
    }

    /// <summary>Half of its ampere-hours is all it takes: 50 A at some 13.4 V of a kilowatt.</summary>
    [Fact]
    public void No_more_goes_in_than_the_cells_take()
    {
        var day = DayFilling.Work(Bank(), In(0, 0, 24), [Sun(1000, 10, 11)], 0.2);
        var emf = 4 * RestVoltage.CellV("lfp", 0.2);
        Assert.Equal(50 * (emf + 50 * 0.005), day.Sources[0].TakenWh, 6);
        Assert.Equal(AcceptLimit.CRate, day.Sources[0].Why[0].Why);
    }

    /// <summary>From 0.1 there are 128 Wh: of 240 asked for 112 are missed.</summary>
    [Fact]
    public void An_empty_bank_misses_what_is_asked()
    {
        var day = DayFilling.Work(Bank(), In(10, 0, 24), [], 0.1);
        Assert.Equal(0, day.EndsAt);
        Assert.Equal(112, day.UnmetWh, 9);
    }

    /// <summary>Whatever the day: what is taken goes to the loads, into the cells or is lost on the way.</summary>
    [Theory]
    [InlineData(1)]
    [InlineData(2)]
    [InlineData(3)]
    [InlineData(4)]
    public void Energy_is_kept(int seed)
    {
        var random = new Random(seed);
        for (var n = 0; n < 200; n++)
        {
            var out24 = Enumerable.Range(0, 24).Select(_ => random.NextDouble() * 80).ToArray();
            FillSource[] sources = [Sun(random.NextDouble() * 900, 8, 16), new("plug", In(random.NextDouble() * 600, 18, 23), 14.4)];
            var day = DayFilling.Work(Bank(random.Next(-8, 20)), out24, sources, random.NextDouble());
            var taken = day.Sources.Sum(s => s.TakenWh);
            Assert.Equal((day.EndsAt - day.BeginsAt) * 1280, taken - day.LostWh - out24.Sum() + day.UnmetWh, 6);
            Assert.All(day.Sources, s =>
            {
                Assert.Equal(s.OfferedWh, s.TakenWh + s.RefusedWh, 6);
                Assert.Equal(s.RefusedWh, s.Why.Sum(w => w.Wh), 6);
            });
            Assert.All(day.Soc, soc => Assert.InRange(soc, 0, 1));
        }
    }
}

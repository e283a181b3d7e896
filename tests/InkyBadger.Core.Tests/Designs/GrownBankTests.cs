using InkyBadger.Core.Design;
using InkyBadger.Core.Trials;

namespace InkyBadger.Core.Tests.Designs;

/// <summary>A bank bought second-hand: kept, grown by new units, or replaced.</summary>
public class GrownBankTests
{
    /// <summary>The bus with eight units of six years, 1,500 cycles and 80 % each, bought for 100 a piece; 200 cycles a year.</summary>
    private static readonly DesignDocument Used = Some.Marrow.With(
        ("/cyclesPerYear", 200.0),
        ("~/unit", Some.Unit("lfp-12-100")),
        ("~/series", 2),
        ("~/parallel", 4),
        (
            "~/positions",
            Enumerable
                .Range(0, 8)
                .Select(i => new Position
                {
                    String = i / 2 + 1,
                    Unit = i % 2 + 1,
                    AgeYears = 6,
                    CyclesUsed = 1500,
                    Health = 0.8,
                    Price = 100,
                })
                .ToArray()
        )
    );

    /// <summary>
    /// Twelve years of calendar less six are less than (4,000 − 1,500) ÷ 200 cycles: six years for 800, 133 a year. A new string adds
    /// 2 × 310 and serves no longer than the old ones; all new is 2,480 over twelve years, 207 a year.
    /// </summary>
    [Fact]
    public void Kept_grown_and_replaced()
    {
        var r = GrownBank.Work(Used, 0)!;
        Assert.Equal(["As it is", "A string of new units more", "All new"], r.Options.Select(o => o.Title));
        Assert.Equal([4, 5, 4], r.Options.Select(o => o.Strings));
        Assert.Equal([800.0, 1420, 2480], r.Options.Select(o => o.Price!.Value));
        Assert.Equal([0.0, 620, 2480], r.Options.Select(o => o.ToPay!.Value));
        Assert.Equal([6.0, 6, 12], r.Options.Select(o => o.YearsLeft!.Value));
        Assert.Equal([133.3, 236.7, 206.7], r.Options.Select(o => Math.Round(o.PerYear!.Value, 1)));
        // 320, 420 and 400 Ah at 25.6 V less what the load loses on the way, none of it left behind but by the last knee.
        Assert.InRange(r.Options[0].DeliveredWh, 0.95 * 320 * 25.6, 1.05 * 320 * 25.6);
        Assert.InRange(r.Options[2].DeliveredWh, 0.95 * 400 * 25.6, 1.05 * 400 * 25.6);
        Assert.True(r.Options[1].DeliveredWh > r.Options[2].DeliveredWh);
        // What is pressed is what was promised.
        var grown = DesignFormat.With(Used, r.Options[1].Changes);
        Assert.Equal(r.Options[1].Price, grown.Bank().Bank!.Price);
        Assert.Equal(420, grown.Bank().Bank!.Holds.Ah, 9);
        Assert.Empty(DesignFormat.With(Used, r.Options[2].Changes).Banks[0].Positions);
    }

    /// <summary>Nothing is said of any unit: there is nothing to replace.</summary>
    [Fact]
    public void A_new_bank_may_only_grow() => Assert.Equal(2, GrownBank.Work(Some.Marrow, 0)!.Options.Count);

    /// <summary>
    /// At 500 cycles a year cycles end first: (4,000 − 3,900) ÷ 500 years; at 4,100 none are left, and no year has a price.
    /// </summary>
    [Fact]
    public void Cycles_may_end_it_before_the_calendar()
    {
        DesignDocument With(double used) => Used.With(("/cyclesPerYear", 500.0), ("~/positions/3/cyclesUsed", used));
        Assert.Equal(0.2, GrownBank.Work(With(3900), 0)!.Options[0].YearsLeft!.Value, 9);
        Assert.Equal((0.0, null), (GrownBank.Work(With(4100), 0)!.Options[0].YearsLeft, GrownBank.Work(With(4100), 0)!.Options[0].PerYear));
    }
}

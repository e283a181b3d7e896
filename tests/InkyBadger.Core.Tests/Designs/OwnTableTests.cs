using InkyBadger.Core.Design;
using InkyBadger.Core.Reference;
using InkyBadger.Core.Tests.Laws;
using InkyBadger.Core.Wiring;

namespace InkyBadger.Core.Tests.Designs;

/// <summary>Tables of one's own beside the typical ones, and copper at hand before copper that is bought.</summary>
public class OwnTableTests
{
    private static readonly DesignDocument Bus = Some.Demo("Marrow");

    private static DesignDocument Tables(OwnTables tables) => Bus.With(("/tables", tables));

    private static readonly OwnTables Brought = Documents.Brought;

    /// <summary>200 A want 200 A of copper: 240 A are listed for 50 mm² at 30 °C, 140 A for 22 mm².</summary>
    [Fact]
    public void A_practice_that_holds_for_every_run()
    {
        var main = Tables(Brought).Bank().MainRun!;
        Assert.Equal(("own-flex", "50 mm²", 240.0), (main.Laid.Practice, main.Cable.Size, main.Carries.AmpacityA));
        // A run that says its own practice keeps it.
        var own = Tables(Brought).With(("~/runs/0/practice", "craft-metric-90")).Bank().MainRun!;
        Assert.Equal("craft-metric-90", own.Laid.Practice);
        Assert.Equal("craft-metric-90", Tables(Brought with { Practice = null }).Bank().MainRun!.Laid.Practice);
    }

    /// <summary>22 mm² of 0.82 mΩ/m: 2.5 m one way are 2.05 mΩ at 20 °C, and it carries what the sheet says.</summary>
    [Fact]
    public void A_conductor_of_no_series()
    {
        var run = Tables(Brought with { Practice = null })
            .With(("~/runs/0/size", "22 mm²"), ("~/runs/0/practice", "own-flex"))
            .Bank()
            .MainRun!;
        Assert.Equal((22.0, 140.0), (run.Cable.AreaMm2, run.Carries.AmpacityA));
        var warm = 1 + Cable.CopperPerK * (run.Carries.ConductorC!.Value - 20);
        Assert.Equal(0.82e-3 * 2.5 * warm, run.Cable.OneWayOhm!.Value, 12);
        Assert.Throws<Refusal>(() => DesignTables.Typical.Conductor("22 mm²"));
        Assert.Equal("a sheet of the shop's", DesignTables.Of(Tables(Brought)).SourceOf("22 mm²"));
    }

    /// <summary>At eight times its rating it is open after 10 to 20 ms; between 3 and 8 log–log on either edge.</summary>
    [Fact]
    public void A_makers_curve_narrows_the_band()
    {
        var design = Tables(Brought with { Practice = null }).With(("~/runs/0/fuse/class", "own-fast"));
        var chart = ProtectionChart.Work(design, 0, Run.MainId, 1600)!;
        Assert.True(chart.Own!.Own);
        Assert.Equal((200.0, 15000.0), (chart.Own.RatingA, chart.Own.BreaksA));
        var own = chart.Probe!.Who.Single(w => w.Who == "own");
        Assert.Equal((0.01, 0.02), (Math.Round(own.FromS!.Value, 9), Math.Round(own.ToS!.Value, 9)));
        var middle = ProtectionChart.Work(design, 0, Run.MainId, 200 * Math.Sqrt(24))!.Probe!.Who.Single(w => w.Who == "own");
        Assert.Equal(Math.Sqrt(1 * 0.01), middle.FromS!.Value, 9);
        Assert.Equal(Math.Sqrt(1.8 * 0.02), middle.ToS!.Value, 9);
        // What it lets through: the most it may take at that current.
        Assert.Equal(0.02 * 1600 * 1600, Fuse.LetThroughA2s(DesignTables.Of(design).Fuse("own-fast"), 200, 1600), 6);
        // Nobody said its price: what it is in is not known either.
        Assert.Null(design.Bank().Needs!.FusePrice);
        Assert.Null(design.Bank().Needs!.TotalPrice);
        Assert.Equal(
            80.0,
            Tables(Brought with { Fuses = [Brought.Fuses[0] with { Price = 80 }] })
                .With(("~/runs/0/fuse/class", "own-fast"))
                .Bank()
                .Needs!.FusePrice
        );
    }

    [Theory]
    [InlineData("/tables/practices/0/id", "flex", "/tables/practices/0/id")]
    [InlineData("/tables/practices/0/referenceC", 95.0, "/tables/practices/0/referenceC")]
    [InlineData("/tables/practices/0/rows/0/size", "7 mm²", "/tables/practices/0/rows")]
    [InlineData("/tables/fuses/0/curve/1/multiple", 1.2, "/tables/fuses/0/curve/1/multiple")]
    [InlineData("/tables/fuses/0/curve/2/leastS", 5.0, "/tables/fuses/0/curve/2")]
    [InlineData("/tables/conductors/0/size", "25 mm²", "/tables/conductors/0/size")]
    [InlineData("/tables/practice", "own-none", "/tables/practice")]
    [InlineData("/tables/drawer/0/size", "51 mm²", "/tables/drawer/0/size")]
    public void What_cannot_be_reckoned_with_is_named(string path, object value, string fault)
    {
        Assert.Empty(DesignCheck.Faults(Tables(Brought)));
        Assert.Contains(DesignCheck.Faults(Tables(Brought).With((path, value))), f => f.Pointer == fault);
    }

    /// <summary>
    /// 5 m of 50 mm² are what the main run needs out and back, 9 m of 6 mm² do for two of the three charge runs of 4, 6 and 4 m.
    /// </summary>
    [Fact]
    public void Copper_at_hand_goes_to_the_runs_of_most_current_first()
    {
        DesignDocument Drawer(params CopperAtHand[] pieces) => Tables(new OwnTables { Drawer = pieces });
        var design = Drawer(
            new() { Size = "50 mm²", LengthM = 5 },
            new() { Size = "6 mm²", LengthM = 9 },
            new() { Size = "95 mm²", LengthM = 40 }
        );
        var drawer = CopperDrawer.Work(design, 0)!;
        Assert.Equal(("50 mm²", true), (drawer.Rows[0].Have, drawer.Rows[0].Laid));
        Assert.Equal(
            [("source-roof", "6 mm²"), ("source-shore", "6 mm²")],
            drawer.Rows.Where(r => r.Have == "6 mm²").Select(r => (r.Run, r.Have!))
        );
        // What is far too thick for a terminal is not offered, however much of it there is.
        Assert.DoesNotContain(drawer.Rows, r => r.Have == "95 mm²");
        var six = drawer.Sizes.Single(s => s.Size == "6 mm²");
        Assert.Equal(six.WantedM - 9, six.BuyM, 9);
        Assert.Equal(Schedules.Work(design, 0)!.Totals.Where(t => t.Size == "6 mm²").Sum(t => t.Metres), six.WantedM, 9);
        Assert.Empty(drawer.Changes);
    }

    /// <summary>70 mm² in place of 50: it is laid with one edit, and brings nothing wrong.</summary>
    [Fact]
    public void Laying_what_is_at_hand_is_one_edit()
    {
        var design = Tables(new OwnTables { Drawer = [new() { Size = "70 mm²", LengthM = 6 }] });
        var drawer = CopperDrawer.Work(design, 0)!;
        Assert.Equal(("70 mm²", false), (drawer.Rows[0].Have, drawer.Rows[0].Laid));
        var laid = DesignFormat.With(design, drawer.Changes);
        Assert.Equal("70 mm²", laid.Bank().MainRun!.Cable.Size);
        Assert.Equal(Evaluator.Evaluate(design).Counts.Wrong, Evaluator.Evaluate(laid).Counts.Wrong);
        Assert.True(CopperDrawer.Work(laid, 0)!.Rows[0].Laid);
        Assert.Null(CopperDrawer.Work(NewDesign.Empty("Empty"), 0));
    }
}

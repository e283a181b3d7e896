using InkyBadger.Core.Costs;
using InkyBadger.Core.Design;
using InkyBadger.Core.Network;
using InkyBadger.Core.Reference;

namespace InkyBadger.Core.Tests.Designs;

/// <summary>What stops first, in watts at the outlet and in words.</summary>
public class ChainTests
{
    private static double Ac(double amps) => ((amps - 96 / 0.92 / 24) * 24 - 25) * 0.9;

    /// <summary>
    /// Fuse 200 ÷ 1.25 = 160 A, cable 230 A, bank 302.6 A; jumpers carry 33.0 % of the bank's current, the busiest link 67.0 %.
    /// </summary>
    [Fact]
    public void The_library_bus_for_as_long_as_one_likes()
    {
        var chain = Some.Marrow.Bank().Chain!;
        double AcOf(string name) => chain.Continuous.Single(l => l.Name == name).AcW;
        Assert.Equal("the inverter", chain.Bottleneck);
        Assert.Equal(3000, AcOf("the inverter"));
        Assert.Equal(Ac(160), AcOf("the 200 A fuse"), 6);
        Assert.Equal(Ac(230), AcOf("the 50 mm² cable"), 6);
        Assert.Equal(Some.Marrow.Bank().Network!.Ceiling.AllowsAcW!.Value, AcOf("bank"), 6);
        var shares = Some.Marrow.Bank().Network!.Strings.Shares;
        Assert.Equal(Ac(230 / (1 - shares[0])), AcOf("the 50 mm² rail links"), 6);
        Assert.Equal(Ac(230 / shares[0]), AcOf("the 50 mm² jumpers"), 5);
        Assert.Equal("The inverter stops first, at 3,000 W of AC, not the batteries, which let 6,859 W through", chain.Sentence);
        Assert.Equal(chain.Continuous.Select(l => l.AcW).Order(), chain.Continuous.Select(l => l.AcW));
    }

    /// <summary>For the lift's 0.6 s: its surge of 6,000 W lasts 0.5 s only, so 3,000 W; BMS 200 A for 10 s doubles the bank.</summary>
    [Fact]
    public void The_library_bus_at_the_worst_start()
    {
        var chain = Some.Marrow.Bank().Chain!;
        Assert.Equal(0.6, chain.StartSeconds);
        double AcOf(string name) => chain.AtStart.Single(l => l.Name == name).AcW;
        Assert.Equal(3000, AcOf("the inverter"));
        Assert.Equal(Ac(2 * Some.Marrow.Bank().Network!.Ceiling.Amps!.Value), AcOf("bank"), 6);
        // Class T at 0.6 s, between 3 times for 3 s and 5 times for 0.25 s.
        var multiple = 3 * Math.Pow(5 / 3.0, Math.Log(0.6 / 3) / Math.Log(0.25 / 3));
        Assert.Equal(Ac(200 * multiple), AcOf("the 200 A fuse"), 5);
        // Copper of 50 mm² in 90 °C thermoplastic: 100 · 50 ÷ √0.6.
        Assert.Equal(Ac(100 * 50 / Math.Sqrt(0.6)), AcOf("the 50 mm² cable"), 5);
    }

    [Fact]
    public void The_bottleneck_is_named_whatever_it_is()
    {
        Assert.StartsWith(
            "The 10 mm² cable stops first",
            Some.Marrow.With(("~/runs/0/size", "10 mm²")).Bank().Chain!.Sentence,
            StringComparison.Ordinal
        );
        Assert.StartsWith(
            "The 6 mm² rail links stop first",
            Some.Marrow.With(("~/wiring/link", new Design.Conductor { Size = "6 mm²" })).Bank().Chain!.Sentence,
            StringComparison.Ordinal
        );
        Assert.StartsWith(
            "The switch stops first",
            Some.Marrow.With(("~/runs/0/switch", new RunSwitch { RatingA = 60 })).Bank().Chain!.Sentence,
            StringComparison.Ordinal
        );
        Assert.StartsWith("The batteries stop first", Some.Marrow.With(("~/parallel", 1)).Bank().Chain!.Sentence, StringComparison.Ordinal);
        Assert.Contains(Some.Marrow.With(("~/wiring/style", WiringStyle.BusBars)).Bank().Chain!.Continuous, l =>
            l.Name == "the 50 mm² bus leads"
        );
        Assert.Null(Some.Demo("Hare").Bank().Chain);
    }

    /// <summary>180 A of charge are more than the 144 A of the loads: 1.25 · 180 = 225 A of fuse.</summary>
    [Fact]
    public void A_run_is_made_for_its_charging_too()
    {
        var run = Some
            .Marrow.With(
                (
                    "~/sources",
                    new[]
                    {
                        new Source
                        {
                            Id = "s",
                            Name = "Mains",
                            Amps = 180,
                        },
                    }
                )
            )
            .Bank()
            .MainRun!;
        Assert.Equal((180.0, 225.0), (run.DesignA, run.Fuse.RatingA!.Value));
        Assert.Equal(
            Some.Marrow.Bank().MainRun!.DesignA,
            Some.Marrow.With(
                    (
                        "~/sources",
                        new[]
                        {
                            new Source
                            {
                                Id = "s",
                                Name = "Mains",
                                Amps = 100,
                            },
                        }
                    )
                )
                .Bank()
                .MainRun!.DesignA
        );
    }

    /// <summary>
    /// Two strings of four on rails: 6 series and 2 rail links, five fittings: 2·8 + 2·5 = 26 connections, 2.6 + 2 + 1 h.
    /// </summary>
    [Fact]
    public void The_work_of_a_build()
    {
        var work = BuildWork.Work(new(4, 2, 100), 5, flooded: true, rebalancedByHand: true);
        Assert.Equal((26, 5.6, 8 * 20 + 2 * 60.0), (work.Connections, Math.Round(work.Hours, 9), work.UpkeepMinutesPerYear));
        Assert.Equal(0, BuildWork.Work(new(1, 1, 100), 0, false, false).Connections);
    }

    /// <summary>The same bank with bare resistances: a string out of the table's middle is read from its volts.</summary>
    [Fact]
    public void Tables_are_read_by_name()
    {
        Assert.Equal(0.386, Conductors.Get("50 mm²").R20MilliohmPerM);
        Assert.Equal(230, CablePractices.Get("craft-metric-90").Get("50 mm²").AmpacityA);
        Assert.Equal("size", Assert.Throws<Refusal>(() => CablePractices.Get("craft-metric-90").Get("51 mm²")).Field);
        Assert.Equal("class", Assert.Throws<Refusal>(() => FuseClasses.Get("wire")).Field);
        Assert.Equal(8, CellsPerSystem.Get("lfp", 24));
        Assert.Equal((20000.0, 160.0), (FuseClasses.Get("class-t").InterruptA, FuseClasses.Get("class-t").MaxDcV));
    }
}

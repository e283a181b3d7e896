using InkyBadger.Core.Charging;
using InkyBadger.Core.Demand;
using InkyBadger.Core.Design;
using InkyBadger.Core.Findings;
using InkyBadger.Core.Reference;
using InkyBadger.Core.Working;

namespace InkyBadger.Core.Tests.Designs;

/// <summary>Several banks of one design: what joins them, one plug for all, halves; each finding fired, not fired, and mended.</summary>
public class SiteTests
{
    private static readonly DesignDocument Trailer = Some.Demo("Tern");

    private static SiteResult Site(DesignDocument design) => Evaluator.Evaluate(design).Site!;

    /// <summary>
    /// Two banks of 12.8 V 100 Ah (3.0 mΩ, charged with 50 A at most), each with an inverter, lights on 12 V and a charger for the plug.
    /// </summary>
    private static DesignDocument Two(params Join[] joins)
    {
        Bank Bank(string id, string name, double hours) =>
            new()
            {
                Id = id,
                Name = name,
                SystemV = 12,
                Unit = Some.Unit("lfp-12-100"),
                Series = 1,
                Parallel = 1,
                Demand = new() { Loads = [Some.Dc("lights", 40, hours)] },
                Runs = [Run.AdvisedMain],
            };
        return NewDesign.Empty("Two") with { Banks = [Bank("a", "Fore", 6), Bank("b", "Aft", 12)], Joins = joins };
    }

    private static Join Joined(JoinKind kind, double? amps = 30) =>
        new()
        {
            Id = "j1",
            From = "a",
            To = "b",
            Kind = kind,
            Amps = amps,
        };

    [Fact]
    public void One_bank_has_nobody_beside_it() => Assert.Null(Evaluator.Evaluate(Some.Marrow).Site);

    /// <summary>
    /// 10 A at 51.2 V are 512 W; by 93 % 550.5 W go in, 21.5 A at 25.6 V, 38.5 W of heat. At the worst 10 A at 58.4 V from 22.4 V:
    /// 28.0 A. Six hours move 3,072 Wh and take 3,303 Wh.
    /// </summary>
    [Fact]
    public void What_a_converter_between_two_banks_takes()
    {
        var join = Site(Trailer).Joins.Single();
        var through = join.Through!;
        Assert.Equal(("join-j1", "b1", "b2"), (join.Run, join.From, join.To));
        Assert.Equal(512, through.OutW, 9);
        Assert.Equal(512 / 0.93, through.InW, 9);
        Assert.Equal(512 / 0.93 / 25.6, through.InA, 9);
        Assert.Equal(10 * 58.4 / 0.93 / 24, through.WorstInA, 1);
        Assert.Equal(through.WorstInA, Evaluator.Evaluate(Trailer).Banks[0].Circuits.Single(c => c.Id == "join-j1").Run.DesignA, 9);
        Assert.Equal(512 / 0.93 - 512, through.HeatW, 9);
        Assert.Equal((3072.0, 512 / 0.93 * 6), (Math.Round(through.Day!.MovedWh, 9), through.Day.TakenWh));
        Assert.Equal(through.Day.TakenWh / Trailer.Bank().Energy!.EnergyBankWh, through.Day.ShareOfDaily!.Value, 9);
        Assert.Null(join.Rush);
    }

    /// <summary>
    /// From a tenth to full at the plug: 297 Ah (string A ends with its 71 Ah) at 25 A take 297 × 0.9 ÷ (25 × 0.99) = 10.8 h, the motor
    /// bank's 100 Ah at 15 A 6.06 h; 25 × 8 × 3.55 ÷ 0.88 and 15 × 16 × 3.55 ÷ 0.88 W at the plug, which bears 2,300 VA.
    /// </summary>
    [Fact]
    public void Both_banks_of_the_trailer_on_one_plug()
    {
        var plug = Site(Trailer).Plug!;
        Assert.Equal(297 * 0.9 / (25 * 0.99), plug.Banks[0].Hours, 3);
        Assert.Equal(100 * 0.9 / (15 * 0.99), plug.Banks[1].Hours, 9);
        Assert.Equal(plug.Banks[0].Hours, plug.HoursTogether, 12);
        Assert.Equal(plug.Banks[0].Hours + plug.Banks[1].Hours, plug.HoursInTurn, 9);
        Assert.Equal((25 * 8 + 15 * 16) * 3.55 / 0.88, plug.InputTogetherW, 6);
        Assert.Equal(15 * 16 * 3.55 / 0.88, plug.InputInTurnW, 6);
        Assert.Equal((true, null, 10.0), (plug.BearsTogether, plug.Way, plug.NightH));
        Assert.Equal("House bank needs 10.8 h at the plug, longer than a night of 10 h", plug.Words);
        var finding = Trailer.Finding("plug.night")!;
        Assert.Equal((Grade.Caution, "b1"), (finding.Grade, finding.Bank));
        Assert.Equal("A charger of 27 A for House bank", finding.Mends[0].Label);
        var mended = Trailer.Mended("plug.night");
        Assert.Null(mended.Finding("plug.night"));
        Assert.Equal((27.0, PlugWay.Together), (mended.Banks[0].Sources[1].Amps, Site(mended).Plug!.Way));
        Assert.Equal(finding.Mends[0].Outcome, Site(mended).Plug!.Words);
        // A longer night ends it as well; the house rule is what stands in for one that nobody said.
        Assert.Null(Trailer.With(("/place/nightH", 11.0)).Finding("plug.night"));
    }

    /// <summary>1,152 VA bear either charger alone but not both at once; what has none is told.</summary>
    [Fact]
    public void A_weak_plug_fills_one_after_the_other()
    {
        var weak = Trailer.With(("/banks/0/sources/1/supply/amps", 5.0), ("/banks/1/sources/0/supply/amps", 5.0), ("/place/nightH", 17.0));
        var plug = Site(weak).Plug!;
        Assert.Equal((false, true, PlugWay.InTurn), (plug.BearsTogether, plug.BearsInTurn, plug.Way));
        Assert.StartsWith("One plug fills all two banks one after the other in 16.9 h", plug.Words, StringComparison.Ordinal);
        var one = Site(Trailer.With(("/banks/1/sources", Array.Empty<Source>()))).Plug!;
        Assert.Equal(["b2"], one.Without);
        Assert.EndsWith("; one without a charger", one.Words, StringComparison.Ordinal);
        Assert.Null(Site(Some.Untested).Plug);
    }

    [Fact]
    public void Other_volts_are_never_joined_straight()
    {
        foreach (var kind in new[] { JoinKind.Straight, JoinKind.Relay, JoinKind.Isolator })
        {
            var joined = Trailer.With(("/joins/0/kind", kind));
            var finding = joined.Finding("join.volts")!;
            Assert.Equal((Grade.Danger, "/joins/0"), (finding.Grade, finding.Place));
            Assert.Equal(25.6, finding.Figures[0].Value, 9);
            var mended = joined.Mended("join.volts");
            Assert.Null(mended.Finding("join.volts"));
            Assert.Equal((JoinKind.DcDc, 10.0), (mended.Joins[0].Kind, mended.Joins[0].Amps));
        }
        Assert.Null(Trailer.Finding("join.volts"));
    }

    [Fact]
    public void Other_chemistries_are_never_joined_straight()
    {
        var joined = Two(Joined(JoinKind.Straight))
            .With(("/banks/1/unit", Catalogue.Units.First(u => u is { Chemistry: "agm", Cells: 6 })));
        Assert.Equal(Grade.Danger, joined.Finding("join.chemistry")!.Grade);
        Assert.Equal(Grade.Fault, joined.With(("/joins/0/kind", JoinKind.Isolator)).Finding("join.chemistry")!.Grade);
        Assert.Null(joined.Mended("join.chemistry").Finding("join.chemistry"));
        Assert.Null(Two(Joined(JoinKind.Straight)).Finding("join.chemistry"));
    }

    /// <summary>
    /// Four cells at 3.35 V full, at 3.18 V at a tenth: 0.68 V over both banks and both cables of 100 A, where the cells bear 50 A.
    /// </summary>
    [Fact]
    public void A_full_and_an_emptied_bank_closed_on_each_other()
    {
        var joined = Two(Joined(JoinKind.Straight, 100));
        var rush = Site(joined).Joins[0].Rush!;
        Assert.Equal(13.4, rush.FullV, 9);
        Assert.Equal(12.72, rush.LowV, 9);
        Assert.Equal(0.68 / rush.LoopOhm, rush.Amps, 9);
        Assert.True(rush.LoopOhm > 2 * 0.003);
        Assert.Equal(50, rush.BearsA);
        var finding = joined.Finding("join.rush")!;
        Assert.Equal(rush.Amps, finding.Figures[0].Value);
        Assert.Null(joined.Mended("join.rush").Finding("join.rush"));
        // An isolator lets nothing through backwards, and is no finding.
        Assert.Null(Two(Joined(JoinKind.Isolator, 100)).Finding("join.rush"));
        // By the thin cables of 30 A less flows than the cells bear.
        Assert.Null(Two(Joined(JoinKind.Straight)).Finding("join.rush"));
        Assert.Null(Site(Two(Joined(JoinKind.DcDc))).Joins[0].Rush);
    }

    [Fact]
    public void A_join_that_says_no_amperes_has_no_cable()
    {
        Assert.Equal(Grade.Caution, Two(Joined(JoinKind.DcDc, null)).Finding("join.amps")!.Grade);
        Assert.Null(Two(Joined(JoinKind.DcDc)).Finding("join.amps"));
        var runs = Evaluator.Evaluate(Two(Joined(JoinKind.DcDc))).Banks.Select(b => b.Circuits.Count(c => c.Id == "join-j1"));
        Assert.Equal([1, 1], runs);
    }

    /// <summary>30 A at 12.8 V for 6 h through 92 % are 2,504 Wh out of a bank that has 1,152 Wh to use and needs 240 of them.</summary>
    [Fact]
    public void A_join_that_takes_more_than_there_is()
    {
        var joined = Two(Joined(JoinKind.DcDc) with { Hours = 6 });
        var finding = joined.Finding("join.drains")!;
        Assert.Equal([2504.348, 240, 1152], finding.Figures.Select(f => Math.Round(f.Value, 3)));
        Assert.Null(joined.Mended("join.drains").Finding("join.drains"));
        Assert.Null(Two(Joined(JoinKind.DcDc) with { Hours = 1 }).Finding("join.drains"));
    }

    [Fact]
    public void Two_converters_that_feed_each_other()
    {
        var back = Joined(JoinKind.DcDc, 20) with { Id = "j2", From = "b", To = "a" };
        var ring = Two(Joined(JoinKind.DcDc), back);
        var finding = ring.Finding("join.ring")!;
        Assert.Equal(12.8 * (30 + 20) * (1 / 0.92 - 1), finding.Figures[0].Value, 6);
        Assert.Single(ring.Mended("join.ring").Joins);
        Assert.Null(Two(Joined(JoinKind.DcDc)).Finding("join.ring"));
    }

    /// <summary>
    /// 1,152 Wh each; 240 Wh a day last Fore 115 h, 480 Wh a day Aft 58 h; as one bank 2,304 Wh bear 720 Wh a day for 76.8 h.
    /// </summary>
    [Fact]
    public void Two_halves_are_not_one_bank()
    {
        var finding = Two().Finding("bank.half")!;
        Assert.Equal((Grade.Note, "a"), (finding.Grade, finding.Bank));
        Assert.Equal([57.6, 76.8], finding.Figures.Select(f => Math.Round(f.Value, 9)));
        var one = Two().Mended("bank.half");
        Assert.Equal((1, 2), (one.Banks.Count, one.Banks[0].Parallel));
        Assert.Equal(["lights", "lights-2"], one.Banks[0].Demand.Loads.Select(l => l.Id));
        Assert.Equal(720, one.Bank().Energy!.EnergyBankWh, 9);
        // Joined straight they are one, and banks of other volts never were.
        Assert.Null(Two(Joined(JoinKind.Straight)).Finding("bank.half"));
        Assert.Null(Trailer.Finding("bank.half"));
    }

    [Fact]
    public void Figures_of_several_banks_open_their_working()
    {
        var tape = new Tape();
        Evaluator.Evaluate(Trailer, tape);
        foreach (
            var pointer in new[]
            {
                "/site/joins/0/through/worstInA",
                "/site/joins/0/through/day/shareOfDaily",
                "/site/plug/hoursTogether",
                "/site/plug/banks/1/hours",
                "/site/plug/inputTogetherW",
            }
        )
            Assert.NotNull(tape.Find(pointer));
        var straight = new Tape();
        Evaluator.Evaluate(Two(Joined(JoinKind.Straight)), straight);
        Assert.NotNull(straight.Find("/site/joins/0/rush/amps"));
    }
}

using InkyBadger.Core.Demand;
using InkyBadger.Core.Design;
using InkyBadger.Core.Limits;
using InkyBadger.Core.Reference;
using InkyBadger.Core.Wiring;

namespace InkyBadger.Core.Tests.Designs;

/// <summary>The runs of the travelling library and what is changed of them, against figures worked out by hand.</summary>
public class RunTests
{
    private static CircuitResult Circuit(BankEvaluation bank, string id) => bank.Circuits.Single(c => c.Id == id);

    /// <summary>The library with a fan of 60 W and a pump of 240 W that starts at 720 W for 2 s, both on DC at the bus.</summary>
    private static DesignDocument WithDc =>
        Some.Marrow.With(
            (
                "~/demand/loads/-",
                new Load
                {
                    Id = "fan",
                    Name = "Fan",
                    Kind = LoadKind.Dc,
                    Watts = 60,
                    Windows =
                    [
                        [8, 12],
                    ],
                }
            ),
            (
                "~/demand/loads/-",
                new Load
                {
                    Id = "pump",
                    Name = "Pump",
                    Kind = LoadKind.Dc,
                    Watts = 240,
                    SurgeWatts = 720,
                    StartSeconds = 2,
                    Windows =
                    [
                        [9, 10],
                    ],
                }
            )
        );

    [Fact]
    public void The_runs_follow_from_the_design()
    {
        var bank = Some.Marrow.Bank();
        Assert.Equal(["source-roof", "source-shore", "converter-12", "load-l5"], bank.Circuits.Select(c => c.Id));
        Assert.Equal(
            [CircuitKind.Charge, CircuitKind.Charge, CircuitKind.ConverterIn, CircuitKind.Branch],
            bank.Circuits.Select(c => c.Kind)
        );
        Assert.Equal(
            ("12 V converter", "Ceiling lights", "converter-12"),
            (bank.Circuits[3].From, bank.Circuits[3].To, bank.Circuits[3].Upstream)
        );
        // Two circuits and more share a panel.
        Assert.Equal(
            ["source-roof", "source-shore", "panel", "load-fan", "load-pump", "converter-12", "load-l5"],
            WithDc.Bank().Circuits.Select(c => c.Id)
        );
    }

    /// <summary>
    /// 96 W ÷ 12 V = 8 A: fuse 10 A. 2.5 mm² would carry 30 A, but drops 8 × 2 × 7.98 mΩ/m × 4 m = 0.51 V of 12, over 3 %; 4 mm² keeps it.
    /// </summary>
    [Fact]
    public void A_branch_behind_the_converter()
    {
        var c = Circuit(Some.Marrow.Bank(), "load-l5");
        Assert.Equal(
            (8.0, 10.0, "blade-32", 10.0, "4 mm²", CableLimit.Drop),
            (c.Run.DesignA, c.Run.Fuse.WantedA, c.Run.Fuse.Class, c.Run.Fuse.RatingA, c.Run.Cable.Size, c.Run.Cable.Governs)
        );
        // 25 °C + 60 K × (8 ÷ 40)² = 27.4 °C; 4 bolted joints and a fuse: 0.3 mΩ.
        Assert.Equal(27.4, c.Run.Carries.ConductorC!.Value, 9);
        var ohm = 2 * 4.95 / 1000 * (1 + 0.00393 * 7.4) * 4 + 0.0003;
        Assert.Equal(8 * ohm, c.Run.Drop.V!.Value, 9);
        Assert.Equal(12 - 8 * ohm, c.Run.Drop.EndV!.Value, 9);
        Assert.Equal(8 * ohm / 12, c.Run.Drop.Fraction!.Value, 9);
        Assert.True(c.Behind);
        Assert.Null(c.Fuse.Short.Amps);
    }

    /// <summary>The converter keeps what the handbook assumes of one: its feed carries 96 W ÷ η ÷ 24 V.</summary>
    [Fact]
    public void What_feeds_the_converter()
    {
        var c = Circuit(Some.Marrow.Bank(), "converter-12");
        Assert.Equal(96 / LoadsStage.AssumedConverterEfficiency / 24, c.Run.DesignA, 9);
        Assert.Equal(("blade-32", 7.5), (c.Run.Fuse.Class, c.Run.Fuse.RatingA));
    }

    /// <summary>
    /// A solar controller of 40 A: 50 A of fuse on the battery side, and 6 mm² that carries exactly that. The volts at its end are its own
    /// affair.
    /// </summary>
    [Fact]
    public void A_charge_run_has_its_fuse_at_the_bus()
    {
        var c = Circuit(Some.Marrow.Bank(), "source-roof");
        Assert.Equal(
            (40.0, "sf51-32", 50.0, "6 mm²", "roof", "bus"),
            (c.Run.DesignA, c.Run.Fuse.Class, c.Run.Fuse.RatingA, c.Run.Cable.Size, c.From, c.To)
        );
        Assert.Equal(CableLimit.Fuse, c.Run.Cable.Governs);
        Assert.Null(c.Run.Drop.EndV);
        // At 48 V the same family is made for 70 V.
        var clinic = Some.Demo("Pell")
            .With(
                (
                    "~/sources",
                    new[]
                    {
                        new Source
                        {
                            Id = "m",
                            Kind = SourceKind.Mains,
                            Amps = 30,
                        },
                    }
                )
            )
            .Bank();
        Assert.Equal(("sf51-70", 40.0), (Circuit(clinic, "source-m").Run.Fuse.Class, Circuit(clinic, "source-m").Run.Fuse.RatingA));
    }

    /// <summary>1.0 m of 50 mm² out and back, 0.386 mΩ/m: 0.772 mΩ between the post and the bus.</summary>
    [Fact]
    public void A_short_at_the_bus_is_limited_by_the_cable_to_it()
    {
        var bank = Some.Marrow.Bank();
        var p = bank.Protection!;
        Assert.Equal(0.000772, bank.Bus!.PathOhm!.Value, 12);
        Assert.Equal(p.Short.OpenV / (p.Short.BankOhm + 0.000772), bank.Bus.ShortCircuitA!.Value, 6);
        var feed = Circuit(bank, "converter-12").Fuse;
        Assert.Equal(bank.Bus.ShortCircuitA, feed.Short.Amps);
        Assert.Equal([FuseFailure.Interrupt], feed.Fails);
        Assert.Equal("the 200 A main fuse", feed.Upstream.ReliesOn);
        Assert.True(feed.Fits);
        // Farther along a branch of the panel the cable on the way counts too.
        var dc = WithDc.Bank();
        var (panel, fan) = (Circuit(dc, "panel"), Circuit(dc, "load-fan"));
        var r20 = Conductors.Get(panel.Run.Cable.Size!).R20MilliohmPerM;
        Assert.Equal(panel.Fuse.Short.PathOhm!.Value + 2 * r20 / 1000 * 1, fan.Fuse.Short.PathOhm!.Value, 12);
    }

    /// <summary>
    /// Cumulative volts: the branch begins with what the panel's run leaves, and that with what the main run leaves at the bus.
    /// </summary>
    [Fact]
    public void Volts_fall_from_the_post_to_the_load()
    {
        var bank = WithDc.Bank();
        var (panel, fan) = (Circuit(bank, "panel").Run, Circuit(bank, "load-fan").Run);
        Assert.Equal(24 - bank.Bus!.DropV!.Value, bank.Bus.V!.Value, 9);
        Assert.Equal(bank.Bus.V.Value - panel.Drop.V!.Value, panel.Drop.EndV!.Value, 9);
        Assert.Equal(panel.Drop.EndV.Value - fan.Drop.V!.Value, fan.Drop.EndV!.Value, 9);
        Assert.Equal(60.0 / 24, fan.DesignA, 9);
        // Both at once, from nine to ten.
        Assert.Equal(300.0 / 24, panel.DesignA, 9);
    }

    /// <summary>Both poles end at the inverter with the drop of the whole run between them, at rated and at surge current.</summary>
    [Fact]
    public void Both_poles_of_the_loop_lose_the_runs_drop()
    {
        var bank = Some.Marrow.Bank();
        var (bus, run) = (bank.Bus!, bank.MainRun!);
        Assert.Equal([LoopPart.Post, LoopPart.Fuse, LoopPart.Switch, LoopPart.Bus, LoopPart.Inverter], bus.Plus.Select(p => p.Part));
        Assert.Equal([LoopPart.Post, LoopPart.Shunt, LoopPart.Bus, LoopPart.Inverter], bus.Minus.Select(p => p.Part));
        Assert.Equal([0, 0.15, 0.5, 1, 2.5], bus.Plus.Select(p => p.AtM));
        Assert.Equal([0, 0.4, 1, 2.5], bus.Minus.Select(p => p.AtM));
        Assert.Equal(run.Drop.V!.Value, bus.Plus[^1].LostV + bus.Minus[^1].LostV, 9);
        Assert.Equal(bank.Envelope!.SurgeEndV!.Value, 24 - bus.Plus[^1].SurgeV!.Value - bus.Minus[^1].SurgeV!.Value, 9);
        // Across the fuse alone: 144.3 A × 0.1 mΩ.
        Assert.Equal(run.DesignA * 0.0001, bus.Plus[1].LostV - bus.Plus[1].LostBeforeV, 12);
    }

    /// <summary>
    /// The inverter on its own run: 139.9 A of the 144.3, so 175 A of fuse on 35 mm² that carries 185; the main run then ends at the bus.
    /// </summary>
    [Fact]
    public void A_run_of_the_inverters_own()
    {
        var design = Some.Marrow.With(("~/runs/-", new Run { Id = Run.InverterId, LengthM = 1.5 }), ("~/runs/0/lengthM", 1.0));
        var bank = design.Bank();
        var own = Circuit(bank, Run.InverterId);
        Assert.Equal(bank.Currents!.InverterWorstA, own.Run.DesignA, 9);
        Assert.Equal((RunStage.AdvisedClass, 175.0, "35 mm²"), (own.Run.Fuse.Class, own.Run.Fuse.RatingA, own.Run.Cable.Size));
        Assert.Equal(RunStage.BoltedToBus, bank.MainRun!.Joints.Bolted);
        Assert.Equal([LoopPart.Post, LoopPart.Fuse, LoopPart.Switch, LoopPart.Bus], bank.Bus!.Plus.Select(p => p.Part));
        Assert.Equal(bank.MainRun.Drop.EndV!.Value - own.Run.Drop.V!.Value, own.Run.Drop.EndV!.Value, 9);
        // At the start the bus carries everything, the inverter's run what the inverter takes.
        var (surge, dc) = (bank.Currents.SurgeWorstA, bank.Currents.DcWorstA);
        Assert.Equal(
            24
                - surge * (2 * bank.MainRun.Cable.OneWayOhm!.Value + bank.MainRun.Joints.Ohm)
                - (surge - dc) * (2 * own.Run.Cable.OneWayOhm!.Value + own.Run.Joints.Ohm),
            bank.Envelope!.SurgeEndV!.Value,
            9
        );
        Assert.Contains(bank.Chain!.Continuous, l => l.Name == "the inverter’s 175 A fuse");
        Assert.Contains(bank.Envelope.Holds, h => h.Name == "the main 50 mm² cable");
        Assert.Contains(bank.Envelope.Holds, h => h.Element == EnvelopeElement.Fuse && h.Name == "the inverter’s 175 A fuse");
    }

    /// <summary>
    /// What one adds by hand leaves the bank and flows in the main run: 144.3 + 60 = 204.3 A asks for 300 A of fuse, and every string
    /// carries its share of it.
    /// </summary>
    [Fact]
    public void A_run_of_ones_own()
    {
        var bank = Some
            .Marrow.With(
                (
                    "~/runs/-",
                    new Run
                    {
                        Id = "winch",
                        To = "winch",
                        Amps = 60,
                        LengthM = 5,
                    }
                )
            )
            .Bank();
        var own = Circuit(bank, "winch");
        Assert.Equal((CircuitKind.Own, 60.0, "breaker-80", 80.0), (own.Kind, own.Run.DesignA, own.Run.Fuse.Class, own.Run.Fuse.RatingA));
        var before = Some.Marrow.Bank();
        Assert.Equal(before.Currents!.BankWorstA + 60, bank.Currents!.BankWorstA, 9);
        Assert.Equal(bank.Currents.BankWorstA, bank.MainRun!.DesignA, 9);
        Assert.Equal(300, bank.MainRun.Fuse.RatingA);
        Assert.Equal(before.Network!.Strings.Amps.Sum() + 60, bank.Network!.Strings.Amps.Sum(), 9);
        Assert.Equal(before.Currents.SurgeWorstA + 60, bank.Currents.SurgeWorstA, 9);
    }

    /// <summary>A load on another's circuit: 60 + 240 W on one fuse, 12.5 A.</summary>
    [Fact]
    public void Two_loads_on_one_circuit()
    {
        var shared = WithDc.With(("~/runs/-", new Run { Id = "load-fan", SharedWith = "load-pump" })).Bank();
        Assert.DoesNotContain(shared.Circuits, c => c.Id is "load-fan" or "panel");
        var pump = Circuit(shared, "load-pump");
        Assert.Equal((300.0 / 24, 2), (pump.Run.DesignA, pump.Loads.Count));
        // Never with a circuit of other volts.
        var wrong = WithDc.With(("~/runs/-", new Run { Id = "load-fan", SharedWith = "load-l5" })).Bank();
        Assert.Contains(wrong.Circuits, c => c.Id == "load-fan");
    }

    /// <summary>
    /// 2 m and 3 m in parallel: they carry as 1 ÷ 2 and 1 ÷ 3, the shorter 60 %; all together 230 ÷ 0.6 A, and as long as 2 ÷ (1/2 + 1/3) =
    /// 2.4 m each.
    /// </summary>
    [Fact]
    public void Conductors_in_parallel_of_unequal_length()
    {
        var run = Some
            .Marrow.With(
                (
                    "~/runs/0",
                    new Run
                    {
                        Id = "main",
                        From = "bank",
                        To = "inverter",
                        Size = "50 mm²",
                        Parallel = 2,
                        ConductorLengthsM = [2, 3],
                        Fuse = new(),
                    }
                )
            )
            .Bank()
            .MainRun!;
        Assert.Equal(0.6, run.Carries.WorstConductorShare!.Value, 12);
        Assert.Equal(230 / 0.6, run.Carries.AmpacityA!.Value, 9);
        Assert.Equal(2.4, run.Laid.LengthM, 12);
        Assert.Equal(0.386 / 1000 * (1 + 0.00393 * (run.Carries.ConductorC!.Value - 20)) * 2.4 / 2, run.Cable.OneWayOhm!.Value, 12);
    }

    [Fact]
    public void Insulation_that_bears_more_heat_stands_a_short_for_longer()
    {
        var (soft, hard) = (Some.Marrow.Bank(), Some.Marrow.With(("~/runs/0/insulation", "thermosetting")).Bank());
        // 100 against 143 at 90 °C.
        Assert.Equal(soft.Protection!.Cable.StandsS!.Value * 1.43 * 1.43, hard.Protection!.Cable.StandsS!.Value, 9);
    }

    /// <summary>
    /// String A carries 100 A at the bank's ceiling: 125 A. In a string of two, what the other three push into a short is less than the
    /// whole bank's.
    /// </summary>
    [Fact]
    public void A_fuse_in_each_string()
    {
        var bank = Some.Marrow.Bank();
        var plan = bank.StringFuses!;
        Assert.Equal((true, true, RunStage.AdvisedClass, 125.0), (plan.Asked, plan.Fitted, plan.FuseClass, plan.RatingA));
        Assert.Equal((100.0, 125.0), (Math.Round(plan.Strings[0].GreatestA, 9), Math.Round(plan.Strings[0].WantedA, 9)));
        Assert.All(plan.Strings, f => Assert.InRange(f.ShortCircuitA, 1, bank.Protection!.Short.Amps - 1));
        Assert.True(plan.Fits);
        Assert.False(Some.Marrow.With(("~/parallel", 2)).Bank().StringFuses!.Fitted);
        Assert.True(
            Some.Marrow.With(("~/parallel", 2), ("/houseRules/own", new Dictionary<string, object> { ["fuse-each-string"] = "always" }))
                .Bank()
                .StringFuses!.Fitted
        );
        Assert.Null(Some.Marrow.With(("~/parallel", 1)).Bank().StringFuses);
    }

    /// <summary>
    /// Three modules that allow 120 A each in a bank that is asked for 72.5 A: 90.6, so 100 A and not 150, on the leads of the main cable's
    /// size.
    /// </summary>
    [Fact]
    public void A_string_fuse_is_no_larger_than_the_whole_bank_asks_for()
    {
        var design = Some.Demo("Pell").With(("~/unit", Some.Unit("nmc-48-60")), ("~/parallel", 3));
        var bank = design.Bank();
        Assert.Equal(100, bank.StringFuses!.RatingA);
        Assert.Equal(bank.MainRun!.DesignA, bank.StringFuses.Strings.Max(f => f.GreatestA), 9);
        Assert.Null(design.Finding("strings.fuse"));
    }

    /// <summary>Half of 50 mm²: 25 mm² is made.</summary>
    [Fact]
    public void The_bonding_conductor()
    {
        var bonding = Some.Marrow.Bank().Bonding!;
        Assert.Equal((25.0, "25 mm²", 1.0, true), (bonding.LeastMm2, bonding.Size, bonding.LengthM, bonding.Fits));
    }

    /// <summary>A smaller rating of the bus bars stops the chain at 150 A; unrated ones are listed as such.</summary>
    [Fact]
    public void Bus_bars_stand_in_the_chain()
    {
        Assert.Contains("the bus bars", Some.Marrow.Bank().Chain!.Unrated);
        Assert.Contains("the switch", Some.Marrow.Bank().Chain!.Unrated);
        var rated = Some.Marrow.With(("~/runs/0/busRatingA", 150)).Bank().Chain!;
        Assert.Equal(150, rated.Continuous.Single(l => l.Name == "the bus bars").LimitA);
        Assert.DoesNotContain("the bus bars", rated.Unrated);
    }

    /// <summary>While the 200 A fuse holds and string A is out, the others feed all of it through the link beside A.</summary>
    [Fact]
    public void What_the_links_carry_while_the_fuse_holds()
    {
        var n = Some.Marrow.Bank().Network!;
        Assert.Equal(200, n.Held.PositiveA[0], 9);
        Assert.Equal(200, n.Links.WorstA, 9);
        Assert.True(n.Held.PositiveA[2] < n.Held.PositiveA[1] && n.Held.PositiveA[1] < n.Held.PositiveA[0]);
        var lean = Some
            .Marrow.With(("/houseRules/own", new Dictionary<string, object> { ["links-one-string-out"] = "all-in" }))
            .Bank()
            .Network!;
        // All in: what the strings beyond it give of 200 A.
        Assert.Equal(200 * (lean.Strings.Shares[1] + lean.Strings.Shares[2] + lean.Strings.Shares[3]), lean.Held.PositiveA[0], 9);
        Assert.Equal(200 * lean.Strings.Shares[0], lean.Held.StringA, 9);
    }

    [Fact]
    public void A_place_of_its_own_and_a_limit_of_its_own()
    {
        // 50 °C: √(40 ÷ 60) of 40 A in 4 mm².
        var hot = Circuit(
            Some.Marrow.With(
                    (
                        "~/runs/-",
                        new Run
                        {
                            Id = "load-l5",
                            Place = RunPlace.Hot,
                            Size = "4 mm²",
                        }
                    )
                )
                .Bank(),
            "load-l5"
        ).Run;
        Assert.Equal(40 * Math.Sqrt(40.0 / 60), hot.Carries.AmpacityA!.Value, 9);
        var loose = Circuit(Some.Marrow.With(("~/runs/-", new Run { Id = "load-l5", DropLimit = 0.1 })).Bank(), "load-l5").Run;
        // 10 % of 12 V are 1.2 V in 4 m and back: 1.5 mm² drops 8 × 0.1064 Ω = 0.86 V and carries 21 A; 1 mm² would drop 1.26 V.
        Assert.Equal("1.5 mm²", loose.Cable.Size);
    }
}

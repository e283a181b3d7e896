using InkyBadger.Core.Banks;
using InkyBadger.Core.Demand;
using InkyBadger.Core.Design;
using InkyBadger.Core.Network;
using InkyBadger.Core.Voltage;

namespace InkyBadger.Core.Tests.Designs;

/// <summary>How the stages follow one another: what is empty, advised, pinned, and what a house rule changes.</summary>
public class StageTests
{
    [Fact]
    public void An_empty_design_says_what_to_do_first()
    {
        var e = Evaluator.Evaluate(NewDesign.Empty("x"));
        var bank = Assert.Single(e.Banks);
        Assert.Equal("Add the first load", e.FirstToDo);
        Assert.Null(bank.Loads);
        Assert.Null(bank.MainRun);
        Assert.Equal("add the first load", bank.Because.Loads);
        Assert.NotNull(bank.Because.MainRun);
        Assert.Empty(e.Findings);
        Assert.Equal(0, e.Counts.Wrong);
    }

    /// <summary>240 W of DC for 5 h: 1,200 Wh; at 12.8 V 18.75 A, at 12 V 20 A. Fuse 25 A is not made in class T: 30 A.</summary>
    [Fact]
    public void A_bank_without_an_inverter()
    {
        var design = Some.New(Some.Dc("lamp", 240, 5)).With(("~/inverters", Array.Empty<object>()), ("~/runs/0/lengthM", 3));
        var e = design.Bank();
        Assert.Null(e.Inverter);
        Assert.Equal(12, e.Voltage!.SystemV);
        Assert.Equal(1200, e.Energy!.EnergyBankWh, 9);
        Assert.Equal(18.75, e.Currents!.BankNominalA, 9);
        Assert.Equal(20, e.Currents.BankWorstA, 9);
        Assert.Equal(25, e.MainRun!.Fuse.WantedA, 9);
        Assert.Equal(30, e.MainRun.Fuse.RatingA);
        // 1,200 Wh ÷ 0.81 ÷ 12.8 = 115.7 Ah, and 18.75 A ÷ 0.5 = 37.5 Ah.
        Assert.Equal(115.74, e.Bank!.Need.Sizing!.AhEnergy, 2);
        Assert.Equal(BankDemand.Energy, e.Bank.Need.Sizing.Governs);
    }

    [Fact]
    public void Amperes_without_volts_are_the_banks()
    {
        var pump = new Load
        {
            Id = "p",
            Name = "Pump",
            Kind = LoadKind.Dc,
            Amps = 5,
            Hours = 2,
        };
        Assert.Equal(5 * 12.8 * 2, Some.New(pump).Bank().Energy!.EnergyBankWh, 9);
        Assert.Equal(5 * 25.6 * 2, Some.New(pump).With(("~/systemV", 24)).Bank().Energy!.EnergyBankWh, 9);
        var converted = pump with { Kind = LoadKind.Converter, Volts = 12 };
        Assert.Equal(5 * 12 * 2 / 0.92, Some.New(converted).With(("~/systemV", 24)).Bank().Energy!.EnergyBankWh, 9);
    }

    /// <summary>Receive 0.6 A for 95 % and transmit 4.8 A for 5 % at 12 V: mean 0.81 A, peak 57.6 W.</summary>
    [Fact]
    public void A_load_with_states_counts_its_mean_and_its_peak()
    {
        var radio = new Load
        {
            Id = "r",
            Name = "Radio",
            Kind = LoadKind.Dc,
            Volts = 12,
            Hours = 24,
            States =
            [
                new()
                {
                    Name = "receive",
                    Amps = 0.6,
                    Share = 0.95,
                },
                new()
                {
                    Name = "transmit",
                    Amps = 4.8,
                    Share = 0.05,
                },
            ],
        };
        var e = Some.New(radio).Bank();
        Assert.Equal(0.81 * 12 * 24, e.Energy!.EnergyBankWh, 9);
        Assert.Equal(57.6, e.Loads!.PeakDcW, 9);
    }

    [Fact]
    public void One_figure_for_the_whole_demand()
    {
        var design = Some.New() with { };
        var e = design
            .With(
                (
                    "~/demand",
                    new BankDemandSource
                    {
                        By = DemandBy.Figure,
                        Figure = new()
                        {
                            Kind = LoadKind.Dc,
                            Watts = 500,
                            Hours = 4,
                        },
                    }
                )
            )
            .Bank();
        Assert.Equal(2000, e.Energy!.EnergyBankWh, 9);
        Assert.Equal(500, e.Loads!.PeakDcW, 9);
    }

    [Fact]
    public void The_inverter_is_on_as_long_as_its_loads_need()
    {
        var design = Some.New(Some.Ac("tv", 90, 5)).With(("~/inverters/0/onH", 2));
        var e = design.Bank();
        Assert.True(e.Energy!.InverterOnRaised);
        Assert.Equal(5, e.Energy.InverterOnH);
        Assert.NotNull(design.Finding("inverter.on-hours"));
        Assert.Null(design.Mended("inverter.on-hours").Finding("inverter.on-hours"));
    }

    /// <summary>200 W × 1.25 = 250 W: the 300 W inverter (η 0.89, 4 W) at 12 V.</summary>
    [Fact]
    public void The_smallest_inverter_that_holds_everything_is_advised()
    {
        var e = Some.New(Some.Ac("fan", 200, 6)).Bank();
        Assert.Equal("inv-12-300", e.Inverter!.AdvisedKey);
        Assert.False(e.Inverter.Pinned);
        Assert.Equal((300 / 0.89 + 4) / 12, e.Currents!.InverterWorstA, 9);
        // A start of 900 W is beyond its 600 W: the next one.
        Assert.Equal("inv-12-1000", Some.New(Some.Ac("pump", 200, 6, 900)).Bank().Inverter!.AdvisedKey);
    }

    [Fact]
    public void Pinned_choices_stand_while_the_advice_moves()
    {
        var pinned = Some.Marrow.With(("~/runs/0/size", "95 mm²"), ("~/runs/0/lengthM", 4));
        var run = pinned.Bank().MainRun!;
        Assert.True(run.Cable.Pinned);
        Assert.Equal("95 mm²", run.Cable.Size);
        Assert.Equal(95, run.Cable.AreaMm2);
        var free = Some.Marrow.With(("~/runs/0/lengthM", 4)).Bank().MainRun!;
        Assert.Equal(free.Cable.Size, run.Cable.Advised!.Size);
        Assert.False(free.Cable.Pinned);
    }

    /// <summary>Cautious: LFP 0.80 usable, 3 days, f_age 0.8: 3 × 3,200.7 ÷ 0.64 = 15,003 Wh rated.</summary>
    [Fact]
    public void A_set_of_house_rules_reaches_every_stage()
    {
        var e = Some.Marrow.With(("/houseRules", new HouseRuleChoice { Set = RuleSet.Cautious })).Bank();
        Assert.Equal(0.8, e.Bank!.Need.Dod);
        Assert.Equal(3 * 3200.7246 / 0.64, e.Bank.Need.Sizing!.RatedWh, 2);
        Assert.Equal(100, e.Voltage!.Advice.LimitA);
        Assert.Equal(3340 * 1.4, e.Inverter!.Wanted.ContinuousW, 6);
        Assert.Equal("craft-metric-70", e.MainRun!.Laid.Practice);
        Assert.Equal(0.02, e.MainRun.DropLimit);
        // All starting at once: the lift's 2,700 W and the fridge's 360 W more.
        Assert.Equal(3340 + 2700 + 360, e.Loads!.SurgeDemandW);
    }

    [Fact]
    public void An_own_value_goes_before_the_set()
    {
        var own = Some
            .Marrow.With(
                ("/houseRules/own", new Dictionary<string, object> { ["inverter-run-current"] = "load", ["drop-limit-main"] = 0.015 })
            )
            .Bank();
        Assert.Equal((3340 / 0.9 + 25) / 24, own.Currents!.InverterWorstA, 9);
        Assert.Equal(0.015, own.MainRun!.DropLimit);
        Assert.True(own.MainRun.Drop.Fraction <= 0.015);
    }

    [Fact]
    public void Imperial_designs_buy_awg()
    {
        var run = Some.Marrow.With(("/display/units", "imperial")).Bank().MainRun!;
        Assert.Equal("craft-awg-105", run.Laid.Practice);
        // 200 A of fuse: 2 AWG carries 210 A.
        Assert.Equal("2 AWG", run.Cable.Size);
    }

    [Fact]
    public void Overnight_autonomy_counts_from_six_to_eight()
    {
        var e = Some.New(Some.Dc("a", 100, 24))
            .With(("/houseRules/own", new Dictionary<string, object> { ["autonomy"] = "overnight" }))
            .Bank();
        Assert.Equal(100 * 14, e.Bank!.Need.Sizing!.EnergyWantedWh, 6);
    }

    [Fact]
    public void Units_that_cannot_make_the_voltage_say_which_can()
    {
        var design = Some.Marrow.With(("~/unit", Some.Unit("lfp-36-100")));
        var finding = design.Finding("bank.voltage");
        Assert.NotNull(finding);
        Assert.Contains("4, 8", finding.Why, StringComparison.Ordinal);
    }

    /// <summary>Four 6 V units of 215 Ah (20 h; 115 min at 75 A): k = ln(20 ÷ 1.9167) ÷ ln(75 ÷ 10.75).</summary>
    [Fact]
    public void Lead_acid_lasts_by_peukert()
    {
        var e = Some.Demo("Hare").Bank();
        Assert.Equal((12.0, 430.0, 6), (e.Bank!.Holds.NominalV, e.Bank.Holds.Ah, e.Voltage!.Cells));
        Assert.Equal(0.3, e.Bank.Need.Dod);
        var k = Math.Log(20 / (115 / 60.0)) / Math.Log(75 / 10.75);
        var mean = e.Energy!.EnergyBankWh / 24 / 12;
        // A current below C/20 gives the whole capacity, never more.
        Assert.True(mean < 21.5);
        Assert.Equal(430 * 0.3 / mean, e.Bank.Lasts.HoursAtMean!.Value, 6);
        Assert.InRange(k, 1.1, 1.3);
    }

    [Fact]
    public void The_ladder_works_the_design_out_at_each_voltage()
    {
        var rungs = VoltageLadder.Work(Some.Marrow, 0);
        Assert.Equal([12, 24, 48], rungs.Select(r => r.SystemV));
        var here = rungs.Single(r => r.Here);
        Assert.Equal(Some.Marrow.Bank().Currents!.BankWorstA, here.Bus.Amps);
        // No single one of 12 V holds the loads, two of 3,000 W do, idling at 22 W each; the 12 V lights need no converter there.
        Assert.Equal((6000 / 0.9 + 2 * 22 + 96) / 12, rungs[0].Bus.Amps!.Value, 9);
        Assert.Equal("2 × 3,000 W sine with charger 12 V", rungs[0].Inverter.Name);
        // At 48 V the 5,000 W inverter (η 0.94, 32 W) is the smallest that holds the starts.
        Assert.Equal((5000 / 0.94 + 32 + 96 / 0.92) / 48, rungs[2].Bus.Amps!.Value, 9);
        var taken = DesignFormat.With(Some.Marrow, rungs[2].Changes);
        Assert.Equal(48, taken.Bank().Voltage!.SystemV);
        Assert.Equal(51.2, taken.Bank().Bank!.Holds.NominalV, 9);
    }

    [Fact]
    public void A_bank_on_bus_bars_shares_evenly()
    {
        var n = Some.Marrow.With(("~/wiring/style", WiringStyle.BusBars)).Bank().Network!;
        Assert.All(n.Strings.Shares, s => Assert.Equal(0.25, s, 12));
        Assert.Empty(n.Links.PositiveA);
        Assert.Equal(400, n.Ceiling.Amps!.Value, 9);
    }

    [Fact]
    public void Several_banks_are_worked_out_apart()
    {
        var two = Some.Marrow with { Banks = [Some.Marrow.Banks[0], Some.Demo("Pell").Banks[0] with { Id = "b2" }] };
        var e = Evaluator.Evaluate(two);
        Assert.Equal(25.6, e.Banks[0].Bank!.Holds.NominalV, 9);
        Assert.Equal(51.2, e.Banks[1].Bank!.Holds.NominalV, 9);
        Assert.Equal(Some.Marrow.Bank().Energy!.EnergyBankWh, e.Banks[0].Energy!.EnergyBankWh);
    }
}

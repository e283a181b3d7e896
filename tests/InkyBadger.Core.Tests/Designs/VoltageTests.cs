using InkyBadger.Core.Demand;
using InkyBadger.Core.Design;
using InkyBadger.Core.Findings;
using InkyBadger.Core.Inverters;
using InkyBadger.Core.Limits;
using InkyBadger.Core.Reference;
using InkyBadger.Core.Voltage;

namespace InkyBadger.Core.Tests.Designs;

/// <summary>
/// What a voltage brings with it, the rungs a design asks for, the envelope of everything, and the catalogue judged, by hand.
/// </summary>
public class VoltageTests
{
    private static readonly BankEvaluation Bus = Some.Marrow.Bank();

    /// <summary>40 A at 25.6 V and at 8 × 3.65 V. Lights: 96 W × 4 h ÷ 0.92 leave the bank, of which the converter keeps 8 %.</summary>
    [Fact]
    public void What_24_volts_bring()
    {
        var n = Bus.Needs!;
        Assert.Equal([20, 40, 60], n.Controllers.Select(c => c.Amps));
        Assert.Equal((1024.0, 1168.0), (Math.Round(n.Controllers[1].NominalW, 9), Math.Round(n.Controllers[1].ChargingW, 9)));
        Assert.Equal(["Ceiling lights"], n.Converted);
        Assert.Equal(96, n.ConverterW);
        Assert.Equal(384 / 0.92 * 0.08, n.ConverterLossWh, 9);
        Assert.Equal((29.2, false), (Math.Round(n.TouchV, 9), n.TouchDanger));
        // Eight units at 310; 2 × 2.5 m of 50 mm² at 10 and ten lugs at 2.40; class T with its holder; a 120 W converter; the inverter.
        Assert.Equal((2480.0, 74.0, 62.0, 45.0), (n.UnitsPrice, n.CopperPrice, n.FusePrice, n.ConverterPrice));
        Assert.Equal(2480 + 74 + 62 + 45 + Some.Marrow.Banks[0].Inverters[0].Item!.Price, n.TotalPrice);
    }

    /// <summary>
    /// At 12 V the lights are on the bus as they are; at 48 V they are behind a converter again, and a hand meets 58.4 V.
    /// </summary>
    [Fact]
    public void What_differs_on_the_rungs()
    {
        var rungs = VoltageLadder.Work(Some.Marrow, 0);
        Assert.Equal(["Ceiling lights"], rungs[0].Needs!.Direct);
        Assert.Equal(0, rungs[0].Needs!.ConverterLossWh);
        Assert.Equal(["Ceiling lights"], rungs[2].Needs!.Converted);
        Assert.Equal((58.4, false), (Math.Round(rungs[2].Needs!.TouchV, 9), rungs[2].Needs!.TouchDanger));
        Assert.Equal(40 * 51.2, rungs[2].Needs!.Controllers[1].NominalW, 9);
        // None of five holds the lift beside the kettle at 12 V, one of four at 24 V, two of three at 48 V.
        Assert.Equal([(5, 0), (5, 1), (4, 2)], rungs.Select(r => (r.Inverter.Made, r.Inverter.Fit)));
        // Taking 12 V over takes the lights off their converter too.
        Assert.Equal(LoadKind.Dc, DesignFormat.With(Some.Marrow, rungs[0].Changes).Banks[0].Demand.Loads[4].Kind);
    }

    [Fact]
    public void A_motor_of_36_volts_asks_for_its_rung()
    {
        var motor = Some.New(
                new Load
                {
                    Id = "m",
                    Name = "motor",
                    Kind = LoadKind.Dc,
                    Amps = 55,
                    Volts = 36,
                    Hours = 9,
                }
            )
            .With(("~/inverters", Array.Empty<object>()));
        var rungs = VoltageLadder.Work(motor, 0);
        Assert.Equal([12, 24, 36, 48], rungs.Select(r => r.SystemV));
        Assert.Equal(["motor"], rungs[2].Needs!.Direct);
        Assert.Equal(["motor"], rungs[3].Needs!.Converted);
    }

    /// <summary>
    /// 3,000 ÷ 20 = 150 A against 131.2 A: 14 % too much. 150 Ah against the 270.5 Ah that the rate asks for: 45 % too little.
    /// </summary>
    [Fact]
    public void Two_rules_of_thumb_share_a_name_and_both_are_off()
    {
        Assert.Equal(150 / ((3000 / 0.9 + 25) / 25.6) - 1, Bus.Currents!.RuleOfThumbOff!.Value, 9);
        Assert.Equal(150, Bus.Currents.RuleOfThumbAh);
        Assert.Equal(270.522, Bus.Bank!.Need.Ah!.Value, 3);
        Assert.Equal(150 / Bus.Bank.Need.Ah.Value - 1, Bus.Bank.Need.ThumbOff!.Value, 9);
    }

    /// <summary>
    /// Class T of 200 A holds for 0.6 s what opens it in 1.8 s; the 50 mm² stores k·A/√t, k = 100 for 90 °C. Both are far above 6,040 W;
    /// the inverter gives 4,500 W.
    /// </summary>
    [Fact]
    public void The_inverter_gives_way_first_of_all()
    {
        var v = Bus.Envelope!;
        Assert.Equal((EnvelopeElement.Inverter, 6040.0, 0.6, 4500.0), (v.First!.Element, v.First.Watts, v.First.Seconds, v.First.GivesW));
        Assert.Equal((6040.0, 0.6), (v.AskedW, v.AskedSeconds));
        var inverter = v.Holds[0];
        // 6,000 W for 0.5 s are less than 6,040: it never gives so much.
        Assert.Equal((0.0, false, 3000.0), (inverter.Seconds, inverter.Enough, inverter.ContinuousW));
        // The bank: 200 A peak in the string that carries most; 6,040 W are 283 A, of which it has a third.
        Assert.Equal(EnvelopeElement.Bank, v.Holds[1].Element);
        Assert.True(v.Holds[1].Enough);
        var cable = v.Holds.Single(h => h.Element == EnvelopeElement.Cable);
        var amps = (6040 / 0.9 + 25) / 24 + 96 / 0.92 / 24;
        // Longer than the 5 s in which its heat stays in the copper: that is when it must be judged by its ampacity of 230 A.
        Assert.True(amps > 230 && Math.Pow(100 * 50 / amps, 2) > 5);
        Assert.Equal(5, cable.Seconds!.Value, 3);
    }

    /// <summary>
    /// What runs at 10:05: the fridge all day, laptops 3 h, lift 10 min, kettle and printer 5 min, and 2,700 W of start for 0.6 s.
    /// </summary>
    [Fact]
    public void The_loads_fill_from_the_left()
    {
        var stack = Bus.Envelope!.Stack;
        Assert.Equal(["Staff fridge", "Laptops", "Book lift", "Kettle", "Printer", "Book lift"], stack.Select(b => b.Name));
        Assert.Equal([86400, 10800, 600, 300, 300, 0.6], stack.Select(b => Math.Round(b.Seconds, 6)));
        Assert.Equal((2700.0, true), (stack[^1].Watts, stack[^1].IsStart));
        Assert.Equal(Bus.Loads!.SurgeDemandW, stack.Sum(b => b.Watts));
    }

    /// <summary>A single string of 100 A: 6,040 W are 285 A, over its peak of 200 A. The bank gives way before the inverter does.</summary>
    [Fact]
    public void A_small_bank_gives_way_before_the_inverter()
    {
        var one = Some.Marrow.With(("~/parallel", 1)).Bank();
        Assert.Equal(EnvelopeElement.Bank, one.Envelope!.First!.Element);
        Assert.StartsWith("The bank gives way", one.Headlines[Station.Inverter], StringComparison.Ordinal);
    }

    /// <summary>24 V less 285 A through the loop; with 10 m of 25 mm² the start pulls the inverter below its 21 V.</summary>
    [Fact]
    public void A_thin_cable_lets_the_inverter_cut_off_at_the_start()
    {
        var run = Bus.MainRun!;
        Assert.Equal(24 - Bus.Currents!.SurgeWorstA * (2 * run.Cable.OneWayOhm!.Value + run.Joints.Ohm), Bus.Envelope!.SurgeEndV!.Value, 9);
        Assert.Null(Some.Marrow.Finding("inverter.cut-off"));
        var thin = Some.Marrow.With(("~/runs/0/size", "25 mm²"), ("~/runs/0/lengthM", 10));
        Assert.Equal(Grade.Fault, thin.Finding("inverter.cut-off")!.Grade);
        Assert.Null(thin.Mended("inverter.cut-off").Finding("inverter.cut-off"));
    }

    /// <summary>0.90 × 0.85 come back of each watt-hour.</summary>
    [Fact]
    public void A_charger_on_its_own_inverter_is_refused()
    {
        var loop = Some.Marrow.With(("~/inverters/0/charger", "own-output"));
        var f = loop.Finding("inverter.loop")!;
        Assert.Equal((Grade.Danger, 0.765), (f.Grade, Math.Round(f.Figures[0].Value, 9)));
        Assert.Equal(ChargerFeed.Shore, loop.Mended("inverter.loop").Banks[0].Inverters[0].Charger);
        Assert.Null(loop.Mended("inverter.loop").Finding("inverter.loop"));
    }

    [Fact]
    public void A_selector_against_a_rule_of_transfers()
    {
        var selector = Some.Marrow.With(("~/inverters/0/feeds", "panel"));
        Assert.Null(selector.Finding("inverter.feed"));
        var cautious = selector.With(("/houseRules/set", "cautious"));
        Assert.NotNull(cautious.Finding("inverter.feed"));
        Assert.Null(cautious.Mended("inverter.feed").Finding("inverter.feed"));
    }

    /// <summary>2,000 W at a power factor of 0.6 are 3,333 VA: the watts fit 3,000, the current does not.</summary>
    [Fact]
    public void Volt_amperes_are_kept_apart()
    {
        DesignDocument Motor(double? pf) =>
            Some.New(Some.Ac("motor", 2000, 2) with { PowerFactor = pf })
                .With(("~/systemV", 24), ("~/inverters/0/item", Catalogue.Inverters.Single(i => i.Key == "inv-24-3000")));
        var poor = Motor(0.6);
        Assert.Equal((2000.0, 2000 / 0.6), (poor.Bank().Loads!.PeakAcW, poor.Bank().Loads!.PeakVa));
        Assert.Equal(Grade.Caution, poor.Finding("inverter.va")!.Grade);
        Assert.Null(Motor(0.9).Finding("inverter.va"));
        Assert.Equal(2000, Motor(null).Bank().Loads!.PeakVa);
    }

    /// <summary>139.9 A against the rule: the bus allows 150 A; the typical 125 A would be over, and 48 V is advised.</summary>
    [Fact]
    public void More_current_than_the_house_rule()
    {
        Assert.Null(Some.Marrow.Finding("voltage.limit"));
        var strict = Some.Marrow.With(("/houseRules/own", new Dictionary<string, object>()));
        Assert.Equal(Grade.Caution, strict.Finding("voltage.limit")!.Grade);
        Assert.Equal(48, strict.Mended("voltage.limit").Bank().Voltage!.SystemV);
        Assert.Null(strict.Mended("voltage.limit").Finding("voltage.limit"));
    }

    [Fact]
    public void The_catalogue_is_judged_those_that_fit_first()
    {
        var all = InverterChoices.Work(Some.Marrow, 0, []);
        Assert.Equal(Catalogue.Inverters.Count, all.Count);
        Assert.Equal(("inv-24-5000c", true), (all[0].Item.Key, all[0].Fits));
        Assert.All(all.Skip(1), t => Assert.False(t.Fits));
        var three = all.Single(t => t.Item.Key == "inv-24-3000");
        Assert.Equal(
            ["gives 3,000 W continuous, 4,175 W are wanted", "Book lift starting: 6,040 W for 0.6 s, it gives 4,500 W"],
            three.Reasons
        );
        Assert.Contains("a modified wave harms Laptops", all.Single(t => t.Item.Key == "inv-12-1200-mod").Reasons);
        Assert.Contains("made for 48 V", all.Single(t => t.Item.Key == "inv-48-5000c").Reasons);
        // One's own stands among them.
        var own = InverterChoices.Work(
            Some.Marrow,
            0,
            [
                new()
                {
                    Key = "own-1",
                    Name = "mine",
                    SystemV = 24,
                    ContinuousW = 4500,
                    SurgeW = 9000,
                    SurgeSeconds = 2,
                },
            ]
        );
        Assert.Equal("own-1", own[0].Item.Key);
    }
}

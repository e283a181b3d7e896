using InkyBadger.Core.Design;
using InkyBadger.Core.Findings;
using InkyBadger.Core.Network;

namespace InkyBadger.Core.Tests.Designs;

/// <summary>The other demo designs against figures worked out by hand.</summary>
public class OtherDemoTests
{
    /// <summary>
    /// Relay 9 W × 24 h, radio 0.81 A × 12 V × 24 h, lamps 2 × 6 W × 6 h: 216 + 233.28 + 72 = 521.28 Wh, 43.4 Ah at 12 V. Peak
    /// 9 + 57.6 + 12 = 78.6 W, ÷ 11 V (6 × 1.833). 430 Ah × 12 V × 0.30 = 1,548 Wh.
    /// </summary>
    [Fact]
    public void The_bird_hut()
    {
        var e = Some.Demo("Hare").Bank();
        Assert.Equal(521.28, e.Energy!.EnergyBankWh, 6);
        Assert.Equal(43.44, e.Energy.AhPerDay, 6);
        Assert.Equal(78.6, e.Loads!.PeakDcW, 6);
        Assert.Equal(78.6 / (6 * 1.833), e.Currents!.BankWorstA, 9);
        Assert.Equal(1548, e.Bank!.Holds.UsableWh, 6);
        Assert.Null(e.Inverter);
        // Cautious: 3 days ÷ (usable 0.3 · ageing 0.8 · cold 0.8, for it is below 5 °C) is far more than stands there.
        Assert.Equal(3 * 521.28 / (0.3 * 0.8 * 0.8), e.Bank.Need.Sizing!.RatedWh, 4);
        Assert.NotNull(Some.Demo("Hare").Finding("bank.too-small"));
        Assert.NotNull(Some.Demo("Hare").Finding("bank.hydrogen"));
    }

    /// <summary>
    /// Fridges 2 × 180 × 8 × 0.5 = 1,440 Wh, freezer 600, lights 1,920, network 560: 4,520 Wh of AC; all at once 360 + 150 + 240 + 70
    /// = 820 W; a fridge starting adds 720 W. Wanted 1,025 W: the 3,000 W inverter (η 0.93, 24 W) is the smallest made for 48 V.
    /// </summary>
    [Fact]
    public void The_clinic()
    {
        var design = Some.Demo("Pell");
        var e = design.Bank();
        Assert.Equal(4520, e.Loads!.EnergyAcWh, 6);
        Assert.Equal((820.0, 1540.0), (e.Loads.PeakAcW, e.Loads.SurgeDemandW));
        Assert.Equal("inv-48-3000", e.Inverter!.AdvisedKey);
        Assert.Equal(4520 / 0.93 + 24 * 8, e.Energy!.EnergyBankWh, 6);
        Assert.Equal((3000 / 0.93 + 24) / 48, e.Currents!.BankWorstA, 9);
        Assert.Equal(51.2, e.Bank!.Holds.NominalV, 9);
        // Five cycles a year for ten years use 50 of 4,000: what counts is the cost of a year held.
        var note = design.Finding("money.unused-cycles")!;
        Assert.Equal(Grade.Note, note.Grade);
        Assert.Equal(
            e.Bank.Price!.Value * Math.Ceiling(12 / e.Bank.Unit.CalendarYears!.Value) / 12,
            note.Figures.Single(f => f.Unit == "money").Value,
            6
        );
    }

    /// <summary>
    /// Two strings of two, 100 Ah and 230 Ah: 330 Ah in all, 25.6 V, 8.45 kWh rated. Strings of 2 × 3.0 mΩ and 2 × 1.8 mΩ with a jumper
    /// of 0.25 m of 50 mm² (0.1965 mΩ) each; the large one behind two links of 0.35 m (0.2351 mΩ), so that the small one at the leads takes
    /// 41 %.
    /// </summary>
    [Fact]
    public void The_workshop_trailer_as_found()
    {
        var design = Some.Untested;
        var e = design.Bank();
        Assert.Equal(330, e.Bank!.Holds.Ah, 9);
        Assert.Equal(25.6 * 330 * 0.9, e.Bank.Holds.UsableWh, 6);
        Assert.Equal(2 * 24.6 + 2 * 11.2, e.Bank.MassKg!.Value, 9);
        Assert.Equal(300, e.Bank.ContinuousA);
        double first = 2 * 0.003 + 0.0001965,
            second = 2 * 0.0018 + 0.0001965 + 2 * 0.0002351;
        Assert.Equal(second / (first + second), e.Network!.Strings.Shares[0], 9);
        Assert.Equal(WiringStyle.SameEnd, e.Network.Wiring.Style);
        Assert.Equal(1, e.Network.Ceiling.LimitingString);
        Assert.Equal(100 * (first + second) / second, e.Network.Ceiling.Amps!.Value, 6);

        Assert.StartsWith("String A reaches its limit first: 245.2 A", e.Headlines[Station.Bank], StringComparison.Ordinal);

        var rules = design.Findings().Select(f => f.Rule).ToList();
        foreach (
            var planted in new[]
            {
                "bank.unlike-parallel",
                "bank.take-off",
                "fuse.above-cable",
                "bank.tap",
                "charge.alternator",
                "bank.mixed-age",
                "fuse.voltage",
            }
        )
            Assert.Contains(planted, rules);
        // Either string is of one kind: they are unlike side by side, not in series.
        Assert.DoesNotContain("bank.unlike-series", rules);
        // The motor bank is charged to 58.4 V behind a fuse made for 32.
        var fuse = design.Finding("fuse.voltage")!;
        Assert.Equal("b2", fuse.Bank);
        Assert.Equal([32, 58.4], fuse.Figures.Select(f => Math.Round(f.Value, 6)));
        Assert.Equal(
            (300, 230),
            ((int)design.Finding("fuse.above-cable")!.Figures[0].Value, (int)design.Finding("fuse.above-cable")!.Figures[1].Value)
        );
        Assert.All(design.Findings(), f => Assert.NotEmpty(f.Figures));
    }
}

using InkyBadger.Core.Banks;
using InkyBadger.Core.Design;
using InkyBadger.Core.Network;
using InkyBadger.Core.Wiring;

namespace InkyBadger.Core.Tests.Designs;

/// <summary>The flagship against figures worked out by hand.</summary>
public class LibraryBusTests
{
    private static readonly BankEvaluation Bus = Some.Marrow.Bank();

    /// <summary>
    /// Lift 900 W × 20 min = 300 Wh, kettle 1,800 × 15 min = 450, laptops 130 × 6 h = 780, printer 450 × 10 min = 75, fridge
    /// 60 × 24 h × 0.25 = 360: 1,965 Wh of AC. ÷ 0.90, and 25 W × 24 h idle, and 96 W × 4 h ÷ 0.92 of lights.
    /// </summary>
    [Fact]
    public void A_days_energy()
    {
        Assert.Equal(1965, Bus.Loads!.EnergyAcWh, 6);
        Assert.Equal(1965 / 0.9 + 600 + 384 / 0.92, Bus.Energy!.EnergyBankWh, 6);
        Assert.Equal(3200.72 / 25.6, Bus.Energy.AhPerDay, 2);
        Assert.Equal(600 / 3200.7246, Bus.Energy.IdleShare, 6);
        Assert.Equal(24, Bus.Energy.InverterOnH);
    }

    /// <summary>At 10:05 lift, kettle, laptops, printer and fridge run together; the lift's start adds 2,700 W.</summary>
    [Fact]
    public void Peaks_and_the_worst_instant()
    {
        Assert.Equal(900 + 1800 + 130 + 450 + 60, Bus.Loads!.PeakAcW);
        Assert.Equal(3340 - 900 + 3600, Bus.Loads.SurgeDemandW);
        Assert.Equal("Book lift", Bus.Loads.Worst.Starting);
        Assert.Equal(10 + 5 / 60.0, Bus.Loads.Worst.FromH, 9);
        Assert.Equal(96 / 0.92, Bus.Loads.PeakDcW, 9);
    }

    [Fact]
    public void Real_volts_and_currents()
    {
        Assert.Equal(25.6, Bus.Voltage!.NominalV, 9);
        Assert.Equal(24, Bus.Voltage.LowV, 9);
        Assert.Equal((3000 / 0.9 + 25) / 25.6, Bus.Currents!.InverterNominalA, 9);
        Assert.Equal((3000 / 0.9 + 25) / 24, Bus.Currents.InverterWorstA, 9);
        Assert.Equal(150, Bus.Currents.RuleOfThumbA);
        Assert.Equal((3000 / 0.9 + 25 + 96 / 0.92) / 24, Bus.Currents.BankWorstA, 9);
    }

    /// <summary>
    /// 6,000 W last 0.5 s, then 4,500 W: the lift's 0.6 s with the kettle on is 1,540 W too much. 3,340 W run for 5 min, where it gives
    /// 3,300.
    /// </summary>
    [Fact]
    public void The_inverter_gives_way_first()
    {
        var i = Bus.Inverter!;
        Assert.Equal(3340 * 1.25, i.Wanted.ContinuousW);
        Assert.Equal(6040, i.Wanted.SurgeW);
        var first = i.Demands[i.FirstToGive!.Value];
        Assert.Equal((6040, 0.6, 4500.0), (first.Watts, first.Seconds, first.GivesW));
        var running = i.Demands.Single(d => d.Watts == 3340);
        Assert.Equal(300, running.Seconds, 6);
        Assert.Equal(3300, running.GivesW);
    }

    /// <summary>Energy 3,200.7 ÷ (0.9 · 0.9) ÷ 25.6 = 154.4 Ah: 2 strings. C-rate 135.26 ÷ 0.5 = 270.5 Ah: 3. BMS 144.3 ÷ 100: 2.</summary>
    [Fact]
    public void Which_demand_governs()
    {
        var size = Bus.Bank!.Need.Sizing!;
        Assert.Equal((2, 3, 2), (size.ParallelByEnergy, size.ParallelByCRate!.Value, size.ParallelByBms!.Value));
        Assert.Equal((BankDemand.CRate, 2, 3, 6), (size.Governs, size.Series, size.Parallel, size.Units));
        Assert.Equal(154.356, size.AhEnergy, 3);
        Assert.Equal(270.522, size.AhRate!.Value, 3);
    }

    [Fact]
    public void What_the_bank_holds_and_how_long()
    {
        Assert.Equal(9216, Bus.Bank!.Holds.UsableWh, 6);
        Assert.Equal(9216 / (3200.7246 / 24), Bus.Bank.Lasts.HoursAtMean!.Value, 3);
        Assert.Equal(9216 / (3340 / 0.9 + 25 + 96 / 0.92), Bus.Bank.Lasts.HoursAtPeak!.Value, 6);
        Assert.Equal(89.6, Bus.Bank.MassKg!.Value, 9);
    }

    /// <summary>
    /// The same ladder by another road: from the far string on, each rung is in parallel with what lies beyond it through two links.
    /// String: two units of 3 mΩ and a jumper of 0.25 m of 50 mm² with two lugs; link: 0.35 m of it with two lugs.
    /// </summary>
    [Fact]
    public void Sharing_and_the_short_circuit()
    {
        const double r = 2 * 0.003 + 0.386e-3 * 0.25 + 1e-4,
            link = 0.386e-3 * 0.35 + 1e-4;
        double z4 = r,
            z3 = Parallel(r, z4 + 2 * link),
            z2 = Parallel(r, z3 + 2 * link),
            z1 = Parallel(r, z2 + 2 * link);
        var a = z1 / r;
        var b = (1 - a) * z2 / r;
        var c = (1 - a - b) * z3 / r;
        var n = Bus.Network!;
        Assert.Equal([a, b, c, 1 - a - b - c], n.Strings.Shares, (x, y) => Math.Abs(x - y) < 1e-12);
        Assert.Equal(WiringStyle.SameEnd, n.Wiring.Style);
        Assert.Equal(100 / a, n.Ceiling.Amps!.Value, 9);
        Assert.Equal(((100 / a - 96 / 0.92 / 24) * 24 - 25) * 0.9, n.Ceiling.AllowsAcW!.Value, 6);
        Assert.Equal(z1, n.BankOhm, 12);
        Assert.Equal(8 * 3.55 / z1, Bus.Protection!.Short.Amps, 6);
        // The link next to the take-off carries everything but string A.
        Assert.Equal((1 - a) * Bus.Currents!.BankWorstA, n.Links.PositiveA[0], 9);
    }

    private static double Parallel(double x, double y) => x * y / (x + y);

    /// <summary>
    /// 1.25 × 144.28 A = 180.3 A: 200 A of class T. 35 mm² carries 185 A, less than the fuse; 50 mm² carries 230 A. Copper at
    /// 25 + 60 · (144.28/230)² = 48.6 °C; 2.5 m out and back and 0.75 mΩ of joints lose 0.418 V of 25.6 V.
    /// </summary>
    [Fact]
    public void Cable_and_fuse()
    {
        var run = Bus.MainRun!;
        Assert.Equal((200.0, "class-t", "50 mm²", 1), (run.Fuse.RatingA!.Value, run.Fuse.Class, run.Cable.Size, run.Cable.Conductors));
        Assert.Equal(CableLimit.Fuse, run.Cable.Governs);
        Assert.Equal(48.61, run.Carries.ConductorC!.Value, 2);
        Assert.Equal(144.2784 * (2 * 0.386e-3 * (1 + 0.00393 * 28.61) * 2.5 + 11 * 5e-5 + 2 * 1e-4), run.Drop.V!.Value, 4);
        Assert.Equal(0.41798 / 25.6, run.Drop.Fraction!.Value, 5);
        Assert.Equal(24 - 0.41798, run.Drop.EndV!.Value, 4);
        var p = Bus.Protection!;
        Assert.Equal(8 * 3.65, p.GreatestChargingV, 9);
        Assert.Equal((160.0, 20000.0, true), (p.MaxDcV, p.InterruptA, p.Fits));
    }

    [Fact]
    public void The_headlines_are_the_answers()
    {
        Assert.Equal("3.20 kWh a day from the bank; 27 % of it is Laptops", Bus.Headlines[Station.Loads]);
        Assert.Equal("24 V is the lowest voltage that keeps the inverter’s cable under 150 A", Bus.Headlines[Station.Voltage]);
        Assert.Equal(
            "The inverter gives way: Book lift starting asks 6,040 W for 0.6 s, it gives 4,500 W",
            Bus.Headlines[Station.Inverter]
        );
        Assert.Equal("String A carries 31.0 % of the current, because both leads leave at its end", Bus.Headlines[Station.Bank]);
        Assert.Equal("50 mm² behind a 200 A fuse: load, fuse and copper rise in that order", Bus.Headlines[Station.Cables]);
    }
}

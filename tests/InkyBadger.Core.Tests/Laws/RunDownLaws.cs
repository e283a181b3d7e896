using FsCheck;
using FsCheck.Fluent;
using FsCheck.Xunit;
using InkyBadger.Core.Charging;
using InkyBadger.Core.Reference;
using InkyBadger.Core.Rehearsal;

namespace InkyBadger.Core.Tests.Laws;

/// <summary>A mixed bank and a load for it.</summary>
public sealed record MixedLoad(RunDownUnit[] Units, string Chemistry, int Cells, double? Watts, double? Amps, double? CutOffV);

public static class MixedLoads
{
    public static Arbitrary<MixedLoad> Any()
    {
        var unit =
            from ah in Gen.Choose(20, 400)
            from ohm in Gen.Choose(1, 30)
            from soc in Gen.Choose(5, 100)
            from cut in Gen.Elements<double?>(null, 2.5, 2.9)
            from limit in Gen.Elements<double?>(null, 100, 200)
            select new RunDownUnit(ah, ohm / 1000.0, soc / 100.0, cut, limit);
        var gen =
            from chemistry in Gen.Elements("lfp", "nmc", "agm")
            from cells in Gen.Choose(4, 16)
            from count in Gen.Choose(1, 4)
            from units in Gen.ArrayOf(unit, count)
            from byWatts in Gen.Elements(true, false)
            from load in Gen.Choose(20, 200)
            from cutOff in Gen.Elements<double?>(null, 2.7)
            select new MixedLoad(units, chemistry, cells, byWatts ? load * cells * 3.0 : null, byWatts ? null : load, cutOff * cells);
        return gen.ToArbitrary();
    }
}

[Laws(typeof(MixedLoads))]
public class RunDownLaws
{
    private const double StepS = 60;

    private static RunDownResult Run(MixedLoad l, double stepS = StepS) =>
        RunDown.Work(l.Units, l.Chemistry, l.Cells, l.Watts, l.Amps, l.CutOffV, stepS);

    /// <summary>
    /// Energy stored: charge times its open-circuit volts. A step takes the volts of its beginning, so a unit may seem to give the charge
    /// of one step at full instead of empty volts, and once more where it was charged by the others on the way.
    /// </summary>
    [Property]
    public void Never_more_is_delivered_than_was_stored(MixedLoad l)
    {
        var r = Run(l);
        var stored = l.Units.Sum(u => u.Ah * Integral(l.Chemistry, u.SocStart)) * l.Cells;
        var fall = RestVoltage.CellV(l.Chemistry, 1) - RestVoltage.CellV(l.Chemistry, 0);
        var ofOneStep = r.MaxCurrentsA.Sum() * StepS / 3600 * fall * l.Cells;
        Assert.True(r.DeliveredWh <= stored + 2 * ofOneStep, $"{r.DeliveredWh} Wh were delivered of {stored} stored");
        // The allowance is one of the step, and goes with it.
        Assert.True(Run(l, 2).DeliveredWh <= stored + 2 * ofOneStep * 2 / StepS, "a finer step does not close the gap");
    }

    /// <summary>Open-circuit volts over the state of charge, finely summed [V per cell × share of capacity].</summary>
    private static double Integral(string chemistry, double soc)
    {
        const int Steps = 400;
        return Enumerable.Range(0, Steps).Sum(i => RestVoltage.CellV(chemistry, soc * (i + 0.5) / Steps) * soc / Steps);
    }

    [Property]
    public void Everything_it_says_fits_together(MixedLoad l)
    {
        var r = Run(l);
        Assert.Equal(r.Order.Count, r.Reasons.Count);
        Assert.Equal(r.Order.Distinct(), r.Order);
        Assert.Equal(r.DropHours.Order(), r.DropHours);
        Assert.True(r.Hours >= (r.DropHours.Count > 0 ? r.DropHours[^1] : 0));
        Assert.True(double.IsFinite(r.DeliveredWh) && r.DeliveredWh >= 0);
        if (r.EndedBy == RunDownEnd.AllOut)
            Assert.Equal(l.Units.Length, r.Order.Count);
    }
}

public class ChargeTimeLaws
{
    /// <summary>The formula has a seam at 80 % and where the fall has no room left; hours run on smoothly over both.</summary>
    [Fact]
    public void Hours_never_rise_with_a_fuller_start()
    {
        foreach (var chemistry in Chemistries.All)
        foreach (var amps in new[] { 1.0, 4.001, 20, 60 })
        {
            var before = double.MaxValue;
            for (var start = 0.0; start < 0.9999; start += 0.0007)
            {
                var hours = ChargeTime.Work(chemistry, 200, start, 1, [amps]).Hours;
                Assert.True(
                    double.IsFinite(hours) && hours >= 0 && hours <= before * (1 + 1e-9),
                    $"{chemistry.Id}, {amps} A from {start}: {hours} h after {before} h"
                );
                before = hours;
            }
        }
    }
}

using InkyBadger.Core.Demo;
using InkyBadger.Core.Design;
using InkyBadger.Core.Rehearsal;

namespace InkyBadger.Core.Tests.Designs;

/// <summary>The design as a bank in time: a day of it takes what the demand says, and it runs dry when that says it is empty.</summary>
public class PlantTests
{
    private static Plant Of(DesignDocument design, Season season = Season.Both) => Plant.From(new SiteWork(design)[0], season);

    [Fact]
    public void A_days_minutes_add_up_to_the_days_energy()
    {
        foreach (var demo in DemoDesigns.All)
        {
            var energy = demo.Bank().Energy!;
            Assert.Equal(energy.EnergyBankWh, Of(demo, energy.Sizes).DayWh, 6);
            foreach (var day in energy.Seasons)
                Assert.Equal(day.EnergyBankWh, Of(demo, day.Season).DayWh, 6);
        }
    }

    /// <summary>
    /// 100 W without end on 100 Ah of 12.8 V: what the cells hold between full and empty volts is given back, less what resistance keeps.
    /// </summary>
    [Fact]
    public void It_runs_down_to_its_end()
    {
        var design = Some.New(Some.Dc("lamp", 100, 24))
            .With(("~/systemV", 12), ("~/unit", Some.Unit("lfp-12-100")), ("~/series", 1), ("~/parallel", 1));
        var plant = Of(design);
        var state = plant.Begin(1);
        while (state.DarkMinutes == 0)
            plant.Step(ref state);
        Assert.True(state.Out[0]);
        // Mean volts of the table, near 13.2 V: some 13 hours and a little.
        Assert.InRange(state.Minute / 60.0, 12.6, 13.4);
        Assert.Equal((state.Minute - 1) * 100 / 60.0, state.DeliveredWh, 6);
        // 100 W over R and E of the last minute's equation: E − V = I·R, V·I = 100.
        state = plant.Begin(0.5);
        plant.Step(ref state);
        Assert.Equal(100, state.Volts * state.Amps[0], 9);
        Assert.Equal(4 * Reference.RestVoltage.CellV("lfp", 0.5) - state.Volts, state.Amps[0] * 0.003, 9);
        Assert.Equal(0.5 - state.Amps[0] / 60 / 100, state.Soc[0], 12);
    }

    /// <summary>Two strings of 60 A each under 1,000 W carry it; one alone, 78 A, opens at once.</summary>
    [Fact]
    public void A_string_over_its_limit_opens()
    {
        var unit = Some.Unit("lfp-12-100") with { Bms = new() { ContinuousA = 60 } };
        var two = Some.New(Some.Dc("heater", 1000, 24)).With(("~/systemV", 12), ("~/unit", unit), ("~/series", 1), ("~/parallel", 2));
        var plant = Of(two);
        var state = plant.Begin(1);
        plant.Step(ref state);
        Assert.Equal(1000, state.Volts * state.Amps.Sum(), 6);
        Assert.Equal([false, false], state.Out);
        state = Of(two.With(("~/parallel", 1))).Begin(1);
        Of(two.With(("~/parallel", 1))).Step(ref state);
        Assert.Equal((true, 0.0, 1), (state.Out[0], state.Volts, state.DarkMinutes));
    }

    /// <summary>Once it is made nothing of it asks the design again, and a step leaves nothing behind for the collector.</summary>
    [Fact]
    public void A_step_allocates_nothing()
    {
        var plant = Of(Some.Marrow);
        var state = plant.Begin(1);
        plant.Step(ref state);
        var before = GC.GetAllocatedBytesForCurrentThread();
        for (var i = 0; i < 1000; i++)
            plant.Step(ref state);
        Assert.Equal(before, GC.GetAllocatedBytesForCurrentThread());
    }

    [Fact]
    public void A_design_without_loads_has_none() =>
        Assert.Equal("add the first load", Assert.Throws<Missing>(() => Of(NewDesign.Empty("none"))).Gap.Words);
}

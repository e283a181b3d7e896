using InkyBadger.Core.Demand;
using InkyBadger.Core.Design;
using InkyBadger.Core.Findings;
using InkyBadger.Core.Reference;
using InkyBadger.Core.Working;

namespace InkyBadger.Core.Tests.Designs;

/// <summary>Seasons, quieter hours, what-ifs, devices and the findings of single loads, against figures worked out by hand.</summary>
public class DemandTests
{
    private static Load Of(string id, double watts, double[][] windows, double surge = 0, Season season = Season.Both) =>
        new()
        {
            Id = id,
            Name = id,
            Kind = LoadKind.Ac,
            Watts = watts,
            Windows = windows,
            SurgeWatts = surge,
            Season = season,
        };

    /// <summary>
    /// Winter: 1,000 W of heater for 2 h, and the lamp's 10 W for 10 h; summer: 1,500 W of air conditioner (start 4,000 W) for half an
    /// hour, and the lamp. Winter takes more energy, summer has the worst instant.
    /// </summary>
    internal static readonly DesignDocument Seasonal = Some.New(
        Some.Ac("lamp", 10, 10),
        Of(
            "heater",
            1000,
            [
                [6, 8],
            ],
            season: Season.Winter
        ),
        Of(
            "cooler",
            1500,
            [
                [14, 14.5],
            ],
            4000,
            Season.Summer
        )
    );

    [Fact]
    public void Either_season_is_worked_out_and_the_greater_need_counts()
    {
        var e = Seasonal.Bank();
        var (winter, summer) = (e.Energy!.Seasons[0], e.Energy.Seasons[1]);
        Assert.Equal((Season.Winter, Season.Summer), (winter.Season, summer.Season));
        // No inverter is pinned; the advised one's efficiency and idle draw for the ten hours of the lamp are in both.
        var inverter = e.Inverter!;
        Assert.Equal(2100 / inverter.Efficiency + inverter.IdleW * 10, winter.EnergyBankWh, 9);
        Assert.Equal(850 / inverter.Efficiency + inverter.IdleW * 10, summer.EnergyBankWh, 9);
        Assert.Equal(Season.Winter, e.Energy.Sizes);
        Assert.Equal(winter.EnergyBankWh, e.Energy.EnergyBankWh);
        // The inverter must bear the summer too.
        Assert.Equal((1010, 4010), (e.Loads!.Seasons[0].PeakAcW, e.Loads.Seasons[1].SurgeDemandW));
        Assert.Equal((1510, 4010, Season.Summer), (e.Loads.PeakAcW, e.Loads.SurgeDemandW, e.Loads.Worst.Season));
        Assert.StartsWith("Winter sizes the bank", e.Headlines[Station.Loads], StringComparison.Ordinal);
        // A load that rests takes nothing in that season.
        Assert.Equal(0, summer.Rows[1].BankWh);
        Assert.Equal(0, winter.Rows[2].BankWh);
    }

    [Fact]
    public void The_running_stretch_of_one_season_never_goes_on_in_the_other()
    {
        // On to the end of the winter's day and from the beginning of the summer's: two stretches of 2 h, not one of 4.
        var split = Some.New(
            Of(
                "a",
                900,
                [
                    [22, 24],
                ],
                season: Season.Winter
            ),
            Of(
                "b",
                900,
                [
                    [0, 2],
                ],
                season: Season.Summer
            )
        );
        Assert.Equal(2, RunningLevels.Of(split.Bank().Loads!.Profile).Single(l => l.Watts == 900).Hours, 9);
    }

    [Fact]
    public void A_design_without_seasons_has_one_day()
    {
        var e = Some.Marrow.Bank();
        Assert.Empty(e.Energy!.Seasons);
        Assert.Empty(e.Loads!.Seasons);
        Assert.All(e.Loads.Profile, s => Assert.Equal(Season.Both, s.Season));
    }

    /// <summary>Every figure of either season has its working, and the tape's sizing figure says which season it is of.</summary>
    [Fact]
    public void The_seasons_have_their_workings()
    {
        var tape = new Tape();
        Evaluator.Evaluate(Seasonal, tape);
        foreach (var i in new[] { 0, 1 })
        foreach (
            var field in new[]
            {
                "energyBankWh",
                "ahPerDay",
                "overnightWh",
                "idleWh",
                "idleShare",
                "inverterOnH",
                "rows/0/bankWh",
                "rows/0/share",
            }
        )
            Assert.NotNull(tape.Find($"/banks/0/energy/seasons/{i}/{field}"));
        foreach (var field in new[] { "energyAcWh", "peakAcW", "peakDcW", "surgeDemandW" })
            Assert.NotNull(tape.Find($"/banks/0/loads/seasons/1/{field}"));
        Assert.Equal("The bank is sized by winter.", tape.Find("/banks/0/energy/energyBankWh")!.Sentence);
    }

    /// <summary>
    /// The kettle's first and last boil run beside the lift: five minutes later they do not. Without the kettle the lift's start with
    /// printer, laptops and fridge is 3,600 + 450 + 130 + 60 = 4,240 W.
    /// </summary>
    [Fact]
    public void A_kettle_finds_its_quiet_minutes()
    {
        var e = Some.Marrow.Bank();
        var move = Moves.All(Some.Marrow, 0, e).Single(m => m.Load == 1).Move;
        Assert.Equal([10 + 10 / 60.0, 13, 15 + 10 / 60.0], move.Windows.Select(w => w.StartH), (a, b) => Math.Abs(a - b) < 1e-6);
        Assert.Equal(4240, move.SurgeW);
        // And it is true of the design itself.
        Assert.Equal(4240, DesignFormat.With(Some.Marrow, [Moves.Change(0, 1, move)]).Bank().Loads!.SurgeDemandW);
    }

    [Fact]
    public void Nothing_is_moved_where_nothing_is_won()
    {
        var lone = Some.New(
            Of(
                "kettle",
                2000,
                [
                    [8, 8.1],
                ]
            )
        );
        Assert.Empty(Moves.All(lone, 0, lone.Bank()));
        // All motors start together by the house rule: another hour does not help.
        var together = Some.Marrow.With(("/houseRules/set", "cautious"));
        Assert.Empty(Moves.All(together, 0, together.Bank()));
    }

    /// <summary>
    /// Fridge: 360 Wh ÷ 0.90 become ÷ 0.92. Laptops: 2 × 65 × 0.88 W without their adapters. Idle: without the fridge its loads need 6 h 5
    /// min of 24, at 25 W. A soft starter: 40 % of 3,600 W.
    /// </summary>
    [Fact]
    public void What_the_library_bus_could_save()
    {
        var all = WhatIfs.Work(Some.Marrow, 0);
        WhatIf One(WhatIfKind kind, string title) =>
            Assert.Single(all, w => w.Kind == kind && w.Title.Contains(title, StringComparison.Ordinal));
        Assert.Equal(600 - 25 * (6 + 5 / 60.0) + 400 - 360 / 0.92, One(WhatIfKind.InverterOff, "at night").SavesWh, 6);
        Assert.Equal(780 / 0.9 - 780 * 0.88 / 0.92, One(WhatIfKind.OnDc, "Laptops").SavesWh, 6);
        Assert.Equal(400 - 360 / 0.92, One(WhatIfKind.OnDc, "Staff fridge").SavesWh, 6);
        var soft = One(WhatIfKind.SofterStart, "Book lift");
        Assert.Equal((6040.0 - 3880, 3880.0), (soft.SavesSurgeW, soft.SurgeDemandW));
        var lift = One(WhatIfKind.OtherHour, "Book lift");
        Assert.Equal(("Book lift at 09:55, 14:55", 3790.0), (lift.Title, lift.SurgeDemandW));
        Assert.True(lift.Wrong < lift.WrongNow, "the inverter holds then");
        // A kettle has no DC model, and what saves most stands first.
        Assert.DoesNotContain(all, w => w.Kind == WhatIfKind.OnDc && w.Title.Contains("Kettle", StringComparison.Ordinal));
        Assert.Equal(all.OrderByDescending(w => w.SavesWh).Select(w => w.Title), all.Select(w => w.Title));
    }

    /// <summary>What a what-if promises is what the design gives when it is taken.</summary>
    [Theory]
    [InlineData("Marrow")]
    [InlineData("Tern")]
    public void Every_what_if_keeps_its_promise(string name)
    {
        var design = Some.Demo(name);
        var all = WhatIfs.Work(design, 0);
        Assert.NotEmpty(all);
        foreach (var w in all)
        {
            var then = DesignFormat.With(design, w.Changes).Bank();
            Assert.Equal(w.EnergyBankWh, then.Energy!.EnergyBankWh, 9);
            Assert.Equal(w.SurgeDemandW, then.Loads!.SurgeDemandW, 9);
            Assert.True(w.SavesWh > 0 || w.SavesSurgeW > 0, w.Title);
        }
    }

    [Fact]
    public void A_device_behind_a_converter_is_judged_by_the_converters_volts()
    {
        Load Lamp(double? volts) =>
            new()
            {
                Id = "lamp",
                Name = "lamp",
                Kind = LoadKind.Converter,
                Watts = 10,
                Hours = 4,
                Volts = volts,
                Window = new() { MinV = 20, MaxV = 30 },
            };
        var bank = Some.New(Lamp(null)).Bank();
        var device = bank.Devices[0];
        Assert.Equal((12.0, false), (device.GreatestV, device.Fits));
        // 10 W ÷ 12 V = 0.833 A in 4 m of the thinnest that is laid, 1.5 mm² of 13.3 mΩ/m: some 0.09 V are lost on the branch.
        var branch = bank.Circuits.Single(c => c.Id == "load-lamp").Run;
        Assert.Equal(
            10.0 / 12 * (2 * 13.3 / 1000 * (1 + 0.00393 * (branch.Carries.ConductorC!.Value - 20)) * 4 + 0.0003),
            12 - device.LeastV,
            9
        );
        Assert.True(Some.New(Lamp(24)).Bank().Devices[0].Fits);
    }

    /// <summary>A 12 V device at the bank of 25.6 V, of which nothing else is known; on its converter it is well.</summary>
    [Fact]
    public void A_twelve_volt_device_on_twenty_four()
    {
        var design = Some.Marrow.With(
            (
                "~/demand/loads/4",
                new Load
                {
                    Id = "l5",
                    Name = "Pump",
                    Kind = LoadKind.Dc,
                    Amps = 5,
                    Volts = 12,
                    Hours = 2,
                }
            )
        );
        Assert.Equal("A 12 V device on 25.6 V", design.Finding("load.window")!.Title);
        var mended = design.Mended("load.window");
        Assert.Null(mended.Finding("load.window"));
        Assert.Equal((LoadKind.Converter, 60.0), (mended.Banks[0].Demand.Loads[4].Kind, mended.Banks[0].Demand.Loads[4].Watts));
    }

    /// <summary>780 Wh ÷ 0.9 leave the bank for 780 × 0.88 at the laptops; a converter would take 686.4 ÷ 0.92.</summary>
    [Fact]
    public void Double_conversion_is_noted_with_what_it_keeps()
    {
        var f = Some.Marrow.Finding("load.double-conversion")!;
        Assert.Equal((Grade.Note, 780 / 0.9, 686.4), (f.Grade, f.Figures[0].Value, Math.Round(f.Figures[1].Value, 9)));
        // A note's mend brings nothing graver: with an inverter that holds what is left.
        Assert.Empty(f.Mends);
        var mended = Some.Marrow.With(("~/inverters/0/item", null)).Mended("load.double-conversion");
        Assert.Null(mended.Finding("load.double-conversion"));
        Assert.Equal(686.4 / 0.92, mended.Bank().Energy!.Rows[2].BankWh, 9);
        Assert.Null(Some.Marrow.With(("~/demand/loads/2/adapterEfficiency", null)).Finding("load.double-conversion"));
    }

    [Fact]
    public void A_start_below_the_running_watts_is_doubted()
    {
        var design = Some.New(Some.Ac("saw", 1300, 0.5, 900));
        Assert.Equal(2200, design.Mended("load.start").Banks[0].Demand.Loads[0].SurgeWatts);
        Assert.Null(Some.New(Some.Ac("saw", 1300, 0.5, 3600)).Finding("load.start"));
    }

    [Fact]
    public void A_load_without_its_half_is_named()
    {
        Assert.NotNull(Some.New(Some.Ac("lamp", 60, 0)).Finding("load.empty"));
        Assert.NotNull(Some.New(Some.Ac("lamp", 0, 4)).Finding("load.empty"));
        Assert.Null(Some.New(Some.Ac("lamp", 60, 4)).Finding("load.empty"));
        // One that was only just added says nothing yet.
        Assert.Null(Some.New(Some.Ac("lamp", 0, 0)).Finding("load.empty"));
    }

    /// <summary>2,000 W by the hour lie under the pump's start all day; placed, they leave it: 3,000 W alone instead of 5,000.</summary>
    [Fact]
    public void A_large_load_without_times_is_placed()
    {
        var design = Some.New(
            Some.Ac("oven", 2000, 1),
            Of(
                "pump",
                700,
                [
                    [11.5, 12.5],
                ],
                3000
            )
        );
        var f = design.Finding("load.no-times")!;
        Assert.Contains("3,000 W instead of 5,000 W", f.Mends[0].Outcome, StringComparison.Ordinal);
        Assert.Equal(3000, design.Mended("load.no-times").Bank().Loads!.SurgeDemandW);
        Assert.Null(Some.New(Some.Ac("oven", 2000, 1)).Finding("load.no-times"));
    }

    /// <summary>25 W of idle for the fridge alone: 24 h of it become the 0.25 h of the kettle.</summary>
    [Fact]
    public void Where_one_fridge_keeps_the_inverter_on_the_mend_says_so()
    {
        var design = Some.New(
                Some.Ac("fridge", 60, 24),
                Of(
                    "kettle",
                    1800,
                    [
                        [8, 8.25],
                    ]
                )
            )
            .With(("~/inverters/0/item", Catalogue.Inverters.Single(i => i.Key == "inv-24-3000")));
        var idle = design.Finding("inverter.idle");
        Assert.Equal("fridge on DC, inverter off when idle", idle!.Mends[0].Label);
        Assert.Equal(0.25, design.Mended("inverter.idle").Bank().Energy!.InverterOnH, 9);
    }

    /// <summary>
    /// Every load of the library stands as it comes: watts or amperes, hours, a start above what it runs at, a window that holds its volts.
    /// </summary>
    [Fact]
    public void The_library_is_sound()
    {
        Assert.InRange(LoadLibrary.All.Count, 60, 120);
        Assert.Equal(LoadLibrary.All.Count, LoadLibrary.All.Select(l => l.Key).Distinct().Count());
        foreach (var (key, _, _, load) in LoadLibrary.All)
        {
            var design = Some.New(load with { Id = key });
            Assert.Empty(DesignCheck.Faults(design));
            Assert.True(load.SurgeWatts == 0 || load.SurgeWatts > load.Watts, key);
            Assert.True(load.Hours is > 0 and <= 24, key);
            Assert.True(load.Kind == LoadKind.Ac == load.Window is null || load.Kind == LoadKind.Dc, key);
            if (load.Kind == LoadKind.Dc)
                Assert.True(load.Window is { } w && (load.Volts is not { } v || w.MinV <= v && v <= w.MaxV), key);
            Assert.True(design.Bank().Energy!.EnergyBankWh > 0, key);
        }
    }
}

using InkyBadger.Core.Builds;
using InkyBadger.Core.Design;
using InkyBadger.Core.Network;
using InkyBadger.Core.Reference;
using InkyBadger.Core.Wiring;

namespace InkyBadger.Core.Tests.Designs;

/// <summary>Assumptions and thresholds that stand in small print, each by a figure that a slip of it would change.</summary>
public class SmallPrintTests
{
    private static (string, object?) At(Place place) => ("/place", place);

    /// <summary>
    /// A hot place counts as 50 °C: a quarter of the rating is lost; nothing said as the house rule’s 30 °C, and a figure as it is.
    /// </summary>
    [Theory]
    [InlineData(true, null, 0.75)]
    [InlineData(false, null, 0.95)]
    [InlineData(true, 40.0, 0.85)]
    public void What_heat_leaves_of_an_inverter(bool hot, double? ambientC, double left)
    {
        var inverter = Some.Marrow.With(At(new() { Hot = hot, AmbientC = ambientC })).Bank().Inverter!;
        Assert.Equal(left, inverter.Gives.Derate!.Value, 9);
        Assert.Equal(left * 3000, inverter.Gives.ContinuousW!.Value, 9);
    }

    /// <summary>What the fuse is taken to carry for 10 ms is what opens it, typically, in thrice as long.</summary>
    [Fact]
    public void A_fuse_is_trusted_for_a_third_of_its_time()
    {
        var bank = Some.Marrow.Bank();
        var (run, inverter) = (bank.MainRun!, bank.Inverter!);
        var first = bank.Envelope!.Points[0];
        var amps = (first.FuseW!.Value / inverter.Efficiency + inverter.IdleW) / 24 + bank.Currents!.DcWorstA;
        Assert.Equal(0.01, first.Seconds, 12);
        Assert.Equal(0.03, Fuse.OpeningTime(FuseClasses.Get(run.Fuse.Class), run.Fuse.RatingA!.Value, amps).Seconds!.Value, 9);
    }

    /// <summary>
    /// A device that says only its volts bears a quarter more: 20.4 V × 1.25 is below a bus of 25.6 V, 20.6 V × 1.25 is not.
    /// </summary>
    [Theory]
    [InlineData(20.4, true)]
    [InlineData(20.6, false)]
    public void What_a_device_without_a_window_bears(double volts, bool found) =>
        Assert.Equal(
            found,
            Some.Marrow.With(
                    (
                        "~/demand/loads/-",
                        new Load
                        {
                            Id = "x",
                            Name = "X",
                            Kind = LoadKind.Dc,
                            Watts = 5,
                            Volts = volts,
                            Hours = 1,
                        }
                    )
                )
                .Findings()
                .Any(f => f.Rule == "load.window" && f.About == "x")
        );

    /// <summary>Two that touch and are doubled are four that touch: 4 to 6 carry 0.6 of their amperes in a craft.</summary>
    [Fact]
    public void Conductors_in_a_bundle()
    {
        var run = Some.Marrow.With(("~/runs/0/bundled", 2), ("~/runs/0/parallel", 2), ("~/runs/0/size", "50 mm²")).Bank().MainRun!;
        Assert.Equal(Bundling.Factor("craft", 4), run.Carries.BundleFactor);
        Assert.NotEqual(Bundling.Factor("craft", 2), run.Carries.BundleFactor);
        Assert.Equal(
            run.Carries.TableA!.Value * run.Carries.AmbientFactor!.Value * Bundling.Factor("craft", 4) * 2,
            run.Carries.AmpacityA!.Value,
            9
        );
    }

    /// <summary>Strings are joined within 0.05 V for each 12 V: 0.06 V apart are said, 0.04 V are not; at 24 V 0.09 V are not.</summary>
    [Theory]
    [InlineData(1, 0.06, true)]
    [InlineData(1, 0.04, false)]
    [InlineData(2, 0.09, false)]
    [InlineData(2, 0.12, true)]
    public void How_near_strings_must_be_before_they_are_joined(int series, double volts, bool said)
    {
        var low = RestVoltage.CellV("lfp", 0.05);
        var high = RestVoltage.SocAt("lfp", low + volts / 4 / series);
        var positions = Enumerable
            .Range(1, series)
            .SelectMany(u =>
                new[]
                {
                    new Position
                    {
                        String = 1,
                        Unit = u,
                        Soc = 0.05,
                    },
                    new Position
                    {
                        String = 2,
                        Unit = u,
                        Soc = high,
                    },
                }
            )
            .ToArray();
        var design = Some.New(Some.Dc("lamp", 20, 5))
            .With(
                ("~/systemV", 12 * series),
                ("~/unit", Some.Unit("lfp-12-100")),
                ("~/series", series),
                ("~/parallel", 2),
                ("~/positions", positions)
            );
        var finding = design.Finding("bank.unequal-charge");
        Assert.Equal(said, finding is not null);
        if (finding is not null)
            Assert.Equal(volts, finding.Figures[0].Value, 6);
    }

    /// <summary>What is advised is the cheapest by the prices one has, and costs what one says.</summary>
    [Fact]
    public void Own_prices_with_an_advised_unit()
    {
        var free = Some.New(Some.Ac("kettle", 900, 1)).With(("~/systemV", 12));
        var usual = free.Bank().Bank!;
        Assert.False(usual.Choice.Pinned);
        var dearer = free.With(
            (
                "/prices/units",
                new[]
                {
                    new UnitPrice { Key = usual.Unit.Key, Price = 9000 },
                }
            )
        );
        Assert.NotEqual(usual.Unit.Key, dearer.Bank().Bank!.Unit.Key);
        var cheaper = free.With(
                (
                    "/prices/units",
                    new[]
                    {
                        new UnitPrice { Key = usual.Unit.Key, Price = 7 },
                    }
                )
            )
            .Bank()
            .Bank!;
        Assert.Equal((usual.Unit.Key, 7.0 * usual.Layout.Units), (cheaper.Unit.Key, cheaper.Price));
    }

    /// <summary>Winter asks for more in a day, summer for more in a night: the rule of autonomy says which sizes the bank.</summary>
    [Theory]
    [InlineData("overnight", Season.Summer)]
    [InlineData(1.0, Season.Winter)]
    public void Which_season_sizes(object autonomy, Season sizes)
    {
        Load Timed(string id, double watts, Season season, double from, double to) =>
            Some.Dc(id, watts, 1) with
            {
                Season = season,
                Hours = null,
                Windows =
                [
                    [from, to],
                ],
            };
        var design = Some.New(Timed("day", 300, Season.Winter, 10, 14), Timed("night", 200, Season.Summer, 20, 24))
            .With(("/houseRules/own", new Dictionary<string, object> { ["autonomy"] = autonomy }));
        Assert.Equal(sizes, design.Bank().Energy!.Sizes);
    }

    /// <summary>Over twenty years of 300 cycles the units are bought again, the rest of the build is not.</summary>
    [Fact]
    public void The_bank_bought_again()
    {
        var design = Some.Marrow.With(("/years", 20.0), ("/cyclesPerYear", 300.0));
        var build = BuildMaker.Present(design, 0, new())!;
        Assert.Equal((int)Math.Ceiling(20 / Math.Min(12, 4000.0 / 300)), build.BanksBought);
        Assert.Equal(
            (build.Bill.Total + (build.BanksBought!.Value - 1) * build.Units * build.UnitPrice!.Value) / 20,
            build.PerYear!.Value,
            9
        );
        Assert.Equal(20 * build.PerYear.Value / (build.UsableWh / 1000 * 300 * 20), build.PerDeliveredKwh!.Value, 9);
    }

    /// <summary>What reaches a DC device at most is what charges the bank: the chemistry's top, or the chargers' setting.</summary>
    [Fact]
    public void Charging_volts_of_a_DC_device()
    {
        var lamp = new Load
        {
            Id = "lamp",
            Name = "Lamp",
            Kind = LoadKind.Dc,
            Watts = 10,
            Hours = 3,
            Window = new() { MinV = 20, MaxV = 29 },
        };
        var design = Some.Marrow.With(("~/demand/loads/-", lamp), ("~/sources", Array.Empty<Source>()));
        Assert.Equal(8 * 3.65, design.Bank().Devices[^1].GreatestV, 9);
        Assert.NotNull(design.Findings().FirstOrDefault(f => f.Rule == "load.window" && f.About == "lamp"));
        var set = design.With(
            (
                "~/sources",
                new[]
                {
                    new Source
                    {
                        Id = "s",
                        Kind = SourceKind.Mains,
                        Amps = 10,
                        SettingV = 28.6,
                    },
                }
            )
        );
        Assert.Equal(28.6, set.Bank().Devices[^1].GreatestV, 9);
        Assert.Null(set.Findings().FirstOrDefault(f => f.Rule == "load.window" && f.About == "lamp"));
    }

    /// <summary>Lengths of charge runs nobody has measured yet.</summary>
    [Theory]
    [InlineData(SourceKind.Alternator, 5)]
    [InlineData(SourceKind.Generator, 4)]
    [InlineData(SourceKind.DcDc, 3)]
    [InlineData(SourceKind.Solar, 2)]
    [InlineData(SourceKind.Mains, 2)]
    public void Lengths_of_charge_runs(SourceKind kind, double metres) =>
        Assert.Equal(
            metres,
            Some.Marrow.With(
                    (
                        "~/sources",
                        new[]
                        {
                            new Source
                            {
                                Id = "s",
                                Kind = kind,
                                Amps = 20,
                            },
                        }
                    )
                )
                .Bank()
                .Circuits.Single(c => c.Kind == Work.CircuitKind.Charge)
                .Run.Laid.LengthM
        );

    /// <summary>Three of 100 × 200 × 150 mm side by side stand 10 mm apart.</summary>
    [Fact]
    public void The_gap_between_units()
    {
        var unit = Some.Unit("lfp-12-100") with
        {
            Size = new()
            {
                LengthMm = 200,
                WidthMm = 100,
                HeightMm = 150,
            },
        };
        var layout = BuildSpace.Of(unit, 3, null)!;
        double[] sides = [layout.LengthMm, layout.WidthMm];
        Assert.Contains(3 * 100 + 2 * 10.0, sides);
        Assert.Contains(200.0, sides);
        Assert.True(
            BuildSpace
                .Of(
                    unit,
                    3,
                    new()
                    {
                        LengthMm = 320,
                        WidthMm = 200,
                        HeightMm = 150,
                    }
                )!
                .Fits
        );
        Assert.False(
            BuildSpace
                .Of(
                    unit,
                    3,
                    new()
                    {
                        LengthMm = 319,
                        WidthMm = 209,
                        HeightMm = 299,
                    }
                )!
                .Fits
        );
    }
}

using InkyBadger.Core.Demo;
using InkyBadger.Core.Design;
using InkyBadger.Core.Findings;

namespace InkyBadger.Core.Tests.Designs;

/// <summary>
/// What can be wrong with a source, each fired and not fired, and its mend pressed. The bank is eight cells of LFP, 28.4 V.
/// </summary>
public class SourceFindingTests
{
    private static readonly DesignDocument Marrow = Some.Marrow;

    private static DesignDocument With(params Source[] sources) =>
        Marrow with
        {
            Place = Marrow.Place with { LatitudeDeg = 46, Climate = "continental" },
            Banks = [Marrow.Banks[0] with { Sources = sources }],
        };

    /// <summary>Open 39.6 V, at work 33 V, 9.6 A; −10 °C is 35 K below the plate: 9.45 % more.</summary>
    private static readonly SolarModule Module = new()
    {
        Watts = 300,
        VocV = 39.6,
        VmpV = 33,
        IscA = 9.6,
        MaxFuseA = 15,
    };

    private static Source Roof(int series, int strings, double maxV = 100, Func<SolarArray, SolarArray>? change = null)
    {
        var array = new SolarArray
        {
            Module = Module,
            Series = series,
            Strings = strings,
            ControllerMaxV = maxV,
        };
        return new()
        {
            Id = "roof",
            Name = "Roof",
            Kind = SourceKind.Solar,
            Amps = 45,
            Array = change?.Invoke(array) ?? array,
        };
    }

    private static readonly Source Plug = new()
    {
        Id = "plug",
        Name = "Plug",
        Kind = SourceKind.Mains,
        Amps = 25,
        Windows =
        [
            [18, 22.5],
        ],
    };

    /// <summary>Fires with its grade, not on the sound one, and its first mend ends it.</summary>
    private static Finding Fires(Source fires, Source not, string rule, Grade grade, bool mend = true)
    {
        var (bad, good) = (With(fires, Plug), With(not, Plug));
        var finding = bad.Finding(rule);
        Assert.NotNull(finding);
        Assert.Equal(grade, finding.Grade);
        Assert.Equal(fires.Id, finding.About);
        Assert.NotEmpty(finding.Figures);
        Assert.Null(good.Finding(rule));
        if (mend)
            Assert.Null(bad.Mended(rule).Finding(rule));
        else
            Assert.Empty(finding.Mends);
        return finding;
    }

    /// <summary>Three in series make 3 × 39.6 × 1.0945 = 130 V.</summary>
    [Fact]
    public void An_array_over_the_controllers_volts_when_cold()
    {
        var found = Fires(Roof(3, 2), Roof(2, 2), "charge.array-cold", Grade.Danger);
        Assert.Equal(3 * 39.6 * 1.0945, found.Figures[0].Value, 9);
        Assert.Equal(2, With(Roof(3, 2), Plug).Mended("charge.array-cold").Banks[0].Sources[0].Array!.Series);
    }

    /// <summary>39.6 V open are 43.3 V at −10 °C: two in series are over 60, one alone may be touched.</summary>
    [Fact]
    public void An_array_that_is_not_to_be_touched()
    {
        var found = Fires(Roof(2, 2), Roof(1, 2), "touch.array", Grade.Caution, mend: false);
        Assert.Equal(2 * 39.6 * 1.0945, found.Figures[0].Value, 9);
    }

    /// <summary>One module gives 33 × (1 − 0.0035 × 45) = 27.8 V when hot.</summary>
    [Fact]
    public void An_array_that_never_reaches_the_bank()
    {
        var found = Fires(Roof(1, 2), Roof(2, 2), "charge.array-reach", Grade.Fault);
        Assert.Equal(33 * 0.8425, found.Figures[0].Value, 9);
    }

    /// <summary>Two in series are open at 69.6 V when hot: over 28.4 and 45 V of headroom they do not start.</summary>
    [Fact]
    public void An_array_that_runs_but_does_not_start() =>
        Fires(
            Roof(2, 2, 250, a => a with { StartHeadroomV = 45 }),
            Roof(2, 2, 250, a => a with { StartHeadroomV = 5 }),
            "charge.array-start",
            Grade.Caution
        );

    /// <summary>Two strings are 24 A to design for.</summary>
    [Fact]
    public void More_amperes_than_the_controller_takes_in()
    {
        var found = Fires(
            Roof(2, 2, 100, a => a with { ControllerMaxIscA = 20 }),
            Roof(2, 2, 100, a => a with { ControllerMaxIscA = 24 }),
            "charge.array-current",
            Grade.Fault
        );
        Assert.Equal(24, found.Figures[0].Value, 9);
    }

    /// <summary>Three strings: two feed the third with 24 A, its modules bear 10 A, and 1.56 × 9.6 A want a fuse of 15 A.</summary>
    [Fact]
    public void Strings_that_no_fuse_suits() =>
        Fires(Roof(2, 3, 100, a => a with { Module = Module with { MaxFuseA = 14 } }), Roof(2, 3), "charge.array-fuse", Grade.Fault);

    [Fact]
    public void A_controller_that_throws_sun_away() => Fires(Roof(2, 6), Roof(2, 2), "charge.clips", Grade.Caution);

    [Fact]
    public void Unlike_modules_on_one_controller() =>
        Fires(Roof(2, 2, 100, a => a with { Unlike = true }), Roof(2, 2), "charge.unlike", Grade.Caution, mend: false);

    /// <summary>60 A at some 26.5 V draw 125 A of 13.8 V: a 120 A alternator gives 72 A hot.</summary>
    [Fact]
    public void A_charger_too_large_for_the_alternator()
    {
        Source Drive(double amps) =>
            new()
            {
                Id = "drive",
                Name = "Drive",
                Kind = SourceKind.DcDc,
                Amps = amps,
                Engine = new() { AlternatorA = 120, VehicleA = 20 },
                Windows =
                [
                    [8, 9],
                ],
            };
        Fires(Drive(60), Drive(20), "charge.engine-share", Grade.Fault);
    }

    /// <summary>25 A at 26.4 V are 790 VA; beside 1,000 W a plug of 230 V and 6 A carries 0.8 of 1,380 VA.</summary>
    [Fact]
    public void A_plug_that_does_not_carry_all()
    {
        Source At(double amps) =>
            Plug with
            {
                Supply = new() { Amps = amps, OtherW = 1000 },
            };
        var finding = With(At(6)).Finding("charge.supply");
        Assert.Equal(Grade.Fault, finding!.Grade);
        Assert.Null(With(At(16)).Finding("charge.supply"));
        Assert.Null(With(At(6)).Mended("charge.supply").Finding("charge.supply"));
        // A plug that carries not even the loads has no charger that fits.
        Assert.Empty(
            With(
                    Plug with
                    {
                        Supply = new() { Amps = 2, OtherW = 1000 },
                    }
                )
                .Finding("charge.supply")!
                .Mends
        );
    }

    private static Source Set(Func<ChargerSettings, ChargerSettings> change) => Plug with { Id = "p2", Settings = change(new()) };

    [Fact]
    public void An_equalising_charger_on_lithium()
    {
        var found = Fires(
            Set(s => s with { EqualiseV = new() { Value = 30.4 } }),
            Set(s => s with { EqualiseV = new() { Value = 0 } }),
            "charge.equalise",
            Grade.Danger
        );
        Assert.Equal(30.4, found.Figures[0].Value);
        Assert.Equal(29.2, found.Figures[1].Value, 9);
    }

    /// <summary>A charger that equalises at 30.4 V puts that on devices and fuses too, not the 29.2 V of the cells.</summary>
    [Fact]
    public void Equalising_is_the_highest_voltage_on_the_bus()
    {
        double Greatest(double? equalise, double absorb = 28.4) => new SiteWork(
                With(
                    Plug with
                    {
                        Settings = new()
                        {
                            AbsorbV = new() { Value = absorb },
                            EqualiseV = new() { Value = equalise },
                        },
                    }
                )
            )[0].Voltage.Need().GreatestV;
        Assert.Equal(30.4, Greatest(30.4), 9);
        Assert.Equal(28.4, Greatest(0), 9);
        Assert.Equal(28.4, Greatest(null), 9);
        Assert.Equal(30.8, Greatest(30.4, 30.8), 9);
    }

    /// <summary>A pinned absorption is judged as the setting of old: above the cells' top it overcharges.</summary>
    [Fact]
    public void A_pinned_absorption_beyond_the_cells()
    {
        var found = Fires(
            Set(s => s with { AbsorbV = new() { Value = 29.6 } }),
            Set(s => s with { AbsorbV = new() { Value = 28.4 } }),
            "charge.setting",
            Grade.Danger
        );
        Assert.EndsWith("/settings/absorbV", found.Place, StringComparison.Ordinal);
    }

    /// <summary>Another voltage takes what was volts of the whole bank along, and nothing else of the source.</summary>
    [Fact]
    public void Another_voltage_leaves_no_setting_of_the_old_one()
    {
        var design = With(
            Roof(2, 2) with
            {
                SettingV = 28.4,
                Settings = new()
                {
                    Preset = "li",
                    AbsorbV = new() { Value = 28.4 },
                    Amps = new() { Value = 30 },
                },
                Presets = [new() { Name = "li", AbsorbV = 28.4 }],
            }
        );
        var roof = Voltage.SystemVoltage.Set(design.Banks[0], 24, 48).Sources[0];
        Assert.Null(roof.SettingV);
        Assert.Null(roof.Settings.AbsorbV);
        Assert.Null(roof.Settings.Preset);
        Assert.Empty(roof.Presets);
        Assert.Equal(30, roof.Settings.Amps!.Value);
        Assert.NotNull(roof.Array);
    }

    /// <summary>A device of 25 A that is set to 10 A gives 10; set to 60 it gives 25. Its cable is made for the device.</summary>
    [Theory]
    [InlineData(25, 10, 10, 25)]
    [InlineData(25, 60, 25, 25)]
    [InlineData(null, 60, 60, 60)]
    [InlineData(25, null, 25, 25)]
    public void What_a_charger_gives_and_what_its_cable_is_made_for(int? made, int? set, int gives, int cable)
    {
        var work = new SiteWork(
            With(
                Plug with
                {
                    Amps = made,
                    Settings = new() { Amps = new() { Value = set } },
                }
            )
        )[0];
        Assert.Equal(gives, work.Charging.Need().Sources[0].GivesA);
        Assert.Equal(cable, work.Circuits.Need().Single(c => c.Id == "source-plug").Run.DesignA);
    }

    [Fact]
    public void Compensation_on_lithium() =>
        Fires(Set(s => s with { CompensationMvPerK = new() { Value = -36 } }), Set(s => s), "charge.compensation", Grade.Caution);

    [Fact]
    public void A_preset_that_does_not_suit()
    {
        Source On(string preset) =>
            Set(s => s with { Preset = preset }) with
            {
                Presets =
                [
                    new()
                    {
                        Name = "sealed",
                        AbsorbV = 28.8,
                        FloatV = 27.6,
                    },
                    new()
                    {
                        Name = "li",
                        AbsorbV = 28.4,
                        FloatV = 27.2,
                    },
                ],
            };
        Fires(On("sealed"), On("li"), "charge.preset", Grade.Caution);
    }

    /// <summary>Alone the flat roof misses some 2 kWh a day in December; an evening at the plug or many more modules end that.</summary>
    [Fact]
    public void A_month_that_is_not_covered()
    {
        var roof = With(
            Roof(2, 2),
            Plug with
            {
                Windows =
                [
                    [18, 18.5],
                ],
            }
        );
        var found = roof.Finding("charge.worst-month")!;
        Assert.Equal(Grade.Note, found.Grade);
        Assert.StartsWith("December misses", found.Title, StringComparison.Ordinal);
        Assert.Null(With(Roof(2, 2), Plug).Finding("charge.worst-month"));
        Assert.Null(roof.Mended("charge.worst-month").Finding("charge.worst-month"));
        // No sources at all are no finding: nothing was said of charging yet.
        Assert.Null(With().Finding("charge.worst-month"));
    }

    [Fact]
    public void Lead_that_does_not_come_to_full()
    {
        DesignDocument Hut(double hours)
        {
            var hut = DemoDesigns.All.First(d => d.Name.StartsWith("Hare", StringComparison.Ordinal));
            return hut with
            {
                Banks =
                [
                    hut.Banks[0] with
                    {
                        Sources =
                        [
                            Plug with
                            {
                                Amps = 20,
                                Windows =
                                [
                                    [10, 10 + hours],
                                ],
                            },
                        ],
                    },
                ],
            };
        }
        var found = Hut(0.25).Finding("charge.lead-not-full")!;
        Assert.Equal(Grade.Caution, found.Grade);
        Assert.Null(Hut(10).Finding("charge.lead-not-full"));
        Assert.Null(Hut(0.25).Mended("charge.lead-not-full").Finding("charge.lead-not-full"));
    }
}

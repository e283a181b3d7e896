using InkyBadger.Core.Demand;
using InkyBadger.Core.Design;
using InkyBadger.Core.Findings;
using InkyBadger.Core.Network;

namespace InkyBadger.Core.Tests.Designs;

/// <summary>Mixed units, charging, place and money: each finding fires on what it is about, and not beside it.</summary>
public class FurtherFindingTests
{
    private static DesignDocument Bus => Some.Marrow;

    private static DesignDocument Charged(Source source) => Bus.With(("~/sources", new[] { source }));

    private static void Fires(DesignDocument design, string rule, Grade grade)
    {
        Assert.Null(Bus.Finding(rule));
        var finding = design.Finding(rule);
        Assert.NotNull(finding);
        Assert.Equal(grade, finding.Grade);
        Assert.NotEmpty(finding.Figures);
        if (finding.Mends.Count > 0)
            Assert.Null(design.Mended(rule).Finding(rule));
    }

    private static Position At(int s, int u, string? key = null, double? age = null, double? soc = null, double? health = null) =>
        new()
        {
            String = s,
            Unit = u,
            Item = key is null ? null : Some.Unit(key),
            AgeYears = age,
            Soc = soc,
            Health = health,
        };

    [Fact]
    public void Unlike_strings_by_the_house_rule()
    {
        // 150 A against 100 A: more than a fifth apart.
        var other = Bus.With(("~/positions", new[] { At(4, 1, "lfp-12-200"), At(4, 2, "lfp-12-200") }));
        Fires(other, "bank.unlike-parallel", Grade.Caution);
        Assert.Null(other.With(("/houseRules/set", "lean")).Finding("bank.unlike-parallel"));
        Assert.Equal(
            Grade.Danger,
            Bus.With(("/houseRules/set", "lean"), ("~/positions", new[] { At(4, 1, "agm-12-200"), At(4, 2, "agm-12-200") }))
                .Finding("bank.unlike-parallel")!
                .Grade
        );
        // Equal limits, another capacity: typical allows it, cautious does not.
        var alike = Some.Unit("lfp-12-100") with { Ah = 120 };
        var near = Bus.With(("~/positions", new[] { At(4, 1) with { Item = alike }, At(4, 2) with { Item = alike } }));
        Assert.Null(near.Finding("bank.unlike-parallel"));
        Assert.NotNull(near.With(("/houseRules/set", "cautious")).Finding("bank.unlike-parallel"));
    }

    [Fact]
    public void A_string_holds_what_its_smallest_unit_holds()
    {
        // Three strings of 100 Ah and one with a unit at 85 %: 385 Ah.
        var bank = Bus.With(("~/positions", new[] { At(2, 1, health: 0.85) })).Bank().Bank!;
        Assert.Equal(385, bank.Holds.Ah, 9);
        Assert.Equal(25.6 * 385 * 0.9, bank.Holds.UsableWh, 6);
        Assert.Equal(9216, Bus.Bank().Bank!.Holds.UsableWh, 6);
    }

    [Fact]
    public void Old_and_new_together()
    {
        Fires(Bus.With(("~/positions", new[] { At(1, 1, age: 6), At(1, 2, age: 6) })), "bank.mixed-age", Grade.Caution);
        // Within a string and between strings each for itself: one old unit is both, an old string is none of the first.
        var one = Bus.With(("~/positions", new[] { At(1, 1, age: 6) }));
        Assert.Equal((Grade.Fault, Grade.Caution), (one.Finding("bank.mixed-age-series")!.Grade, one.Finding("bank.mixed-age")!.Grade));
        Assert.Equal("Old and new units in string A", one.Finding("bank.mixed-age-series")!.Title);
        Assert.Null(Bus.With(("~/positions", new[] { At(1, 1, age: 6), At(1, 2, age: 6) })).Finding("bank.mixed-age-series"));
        Assert.Null(Bus.With(("~/positions", new[] { At(1, 1, age: 0.5) })).Finding("bank.mixed-age"));
    }

    /// <summary>
    /// 8 cells: 3.34 V at 95 %, 3.24 V at 20 %: 0.8 V apart, through two strings of 6.1965 mΩ and two links of 0.2351 mΩ.
    /// </summary>
    [Fact]
    public void Strings_that_are_not_equally_full_are_not_joined_yet()
    {
        var apart = Bus.With(("~/positions", new[] { At(1, 1, soc: 0.95), At(1, 2, soc: 0.95), At(2, 1, soc: 0.2), At(2, 2, soc: 0.2) }));
        Fires(apart, "bank.unequal-charge", Grade.Caution);
        Assert.Equal(0.8 / (2 * 0.0061965 + 2 * 0.0002351), apart.Finding("bank.unequal-charge")!.Figures[1].Value, 6);
        Assert.Null(
            Bus.With(("~/positions", new[] { At(1, 1, soc: 0.5), At(1, 2, soc: 0.5), At(2, 1, soc: 0.55), At(2, 2, soc: 0.55) }))
                .Finding("bank.unequal-charge")
        );
    }

    [Fact]
    public void Unequal_leads_to_bus_bars()
    {
        var bars = Bus.With(("~/wiring/style", WiringStyle.BusBars));
        Assert.Null(bars.Finding("bank.unequal-leads"));
        Fires(
            bars.With(
                (
                    "~/wiring/leads",
                    new[]
                    {
                        new PlacedConductor
                        {
                            Rail = Pole.Positive,
                            String = 1,
                            LengthM = 3,
                        },
                    }
                )
            ),
            "bank.unequal-leads",
            Grade.Caution
        );
    }

    /// <summary>Four strings of units that take 50 A each: 200 A; by the chemistry 0.5 × 400 = 200 A.</summary>
    [Fact]
    public void More_charge_than_the_bank_takes()
    {
        Fires(
            Charged(
                new()
                {
                    Id = "s",
                    Name = "Mains",
                    Kind = SourceKind.Mains,
                    Amps = 240,
                }
            ),
            "charge.too-much",
            Grade.Caution
        );
        Assert.Null(
            Charged(
                    new()
                    {
                        Id = "s",
                        Name = "Mains",
                        Kind = SourceKind.Mains,
                        Amps = 200,
                    }
                )
                .Finding("charge.too-much")
        );
    }

    [Fact]
    public void An_alternator_straight_to_a_bank_that_can_open()
    {
        Fires(
            Charged(
                new()
                {
                    Id = "s",
                    Name = "Engine",
                    Kind = SourceKind.Alternator,
                    Amps = 60,
                }
            ),
            "charge.alternator",
            Grade.Danger
        );
        Assert.Null(
            Some.Demo("Hare")
                .With(
                    (
                        "~/sources",
                        new[]
                        {
                            new Source
                            {
                                Id = "s",
                                Kind = SourceKind.Alternator,
                                Amps = 20,
                            },
                        }
                    )
                )
                .Finding("charge.alternator")
        );
    }

    [Theory]
    [InlineData(30.5, Grade.Danger)]
    [InlineData(26.4, Grade.Caution)]
    public void A_setting_of_another_chemistry(double setting, Grade grade) =>
        Fires(
            Charged(
                new()
                {
                    Id = "s",
                    Name = "Roof",
                    SettingV = setting,
                }
            ),
            "charge.setting",
            grade
        );

    [Fact]
    public void A_setting_of_its_own_is_none_of_another() =>
        Assert.Null(
            Charged(
                    new()
                    {
                        Id = "s",
                        Name = "Roof",
                        SettingV = 28.4,
                    }
                )
                .Finding("charge.setting")
        );

    [Fact]
    public void Lithium_in_the_cold()
    {
        Fires(
            Charged(
                    new()
                    {
                        Id = "s",
                        Name = "Roof",
                        Amps = 20,
                    }
                )
                .With(("/place/ambientC", -5)),
            "charge.cold",
            Grade.Danger
        );
        Assert.Null(Bus.With(("/place/ambientC", -5), ("~/sources", Array.Empty<Source>())).Finding("charge.cold"));
    }

    /// <summary>24 lead cells at 2.58 V are 61.9 V.</summary>
    [Fact]
    public void Over_sixty_volts_is_not_touched()
    {
        var lead = Bus.With(
            ("~/systemV", 48),
            ("~/inverters/0/item", null),
            ("~/chemistry", null),
            ("~/unit", Some.Unit("flooded-12-105")),
            ("~/series", null),
            ("~/parallel", 1)
        );
        Fires(lead, "touch.volts", Grade.Danger);
        Assert.Equal(24 * 2.58, lead.Finding("touch.volts")!.Figures[0].Value, 6);
        Assert.Null(Some.Demo("Pell").Finding("touch.volts"));
    }

    [Fact]
    public void Lithium_where_people_live() => Fires(Bus.With(("/place/living", true)), "place.lithium", Grade.Caution);

    /// <summary>
    /// The bus has 24 V under load and 29.2 V in charging: lights for 11 to 15 V leave it at the top, a pump for 25 to 32 V at the bottom.
    /// </summary>
    [Theory]
    [InlineData(11, 15, true)]
    [InlineData(25, 32, true)]
    [InlineData(20, 30, false)]
    public void A_device_must_bear_the_bus_at_its_ends(double least, double most, bool fires)
    {
        var design = Bus.With(
            (
                "~/demand/loads/4",
                new Load
                {
                    Id = "l5",
                    Name = "Pump",
                    Kind = LoadKind.Dc,
                    Watts = 60,
                    Hours = 2,
                    Window = new() { MinV = least, MaxV = most },
                }
            )
        );
        if (fires)
            Fires(design, "load.window", Grade.Fault);
        else
            Assert.Null(design.Finding("load.window"));
    }

    [Fact]
    public void Cycles_that_are_never_used()
    {
        Fires(Bus.With(("/cyclesPerYear", 6)), "money.unused-cycles", Grade.Note);
        Assert.Equal(
            2480.0 / 10,
            Bus.With(("/cyclesPerYear", 6)).Finding("money.unused-cycles")!.Figures.Single(f => f.Unit == "money").Value,
            6
        );
    }

    /// <summary>24 kW of a winch at 24 V are 1,000 A; a third of them in string A is more than the 200 A its BMS gives for 10 s.</summary>
    [Fact]
    public void A_winch_on_a_bank_that_opens()
    {
        Fires(
            Bus.With(
                (
                    "~/demand/loads/4",
                    new Load
                    {
                        Id = "l5",
                        Name = "Winch",
                        Kind = LoadKind.Dc,
                        Watts = 2000,
                        Hours = 0.1,
                        SurgeWatts = 24_000,
                    }
                )
            ),
            "bank.dc-start",
            Grade.Fault
        );
        Assert.Null(
            Bus.With(
                    (
                        "~/demand/loads/4",
                        new Load
                        {
                            Id = "l5",
                            Name = "Winch",
                            Kind = LoadKind.Dc,
                            Watts = 2000,
                            Hours = 0.1,
                            SurgeWatts = 12_000,
                        }
                    )
                )
                .Finding("bank.dc-start")
        );
    }

    [Fact]
    public void A_switch_that_cannot_break_it()
    {
        Fires(Bus.With(("~/runs/0/switch", new RunSwitch { RatingA = 400, MaxDcV = 24 })), "switch.rating", Grade.Danger);
        Assert.NotNull(Bus.With(("~/runs/0/switch", new RunSwitch { RatingA = 200, MaxDcV = 48 })).Finding("switch.rating"));
        Assert.Null(Bus.With(("~/runs/0/switch", new RunSwitch { RatingA = 400, MaxDcV = 48 })).Finding("switch.rating"));
    }

    [Fact]
    public void A_negative_past_the_shunt() => Fires(Bus.With(("~/runs/0/bypassesShunt", true)), "shunt.bypassed", Grade.Caution);
}

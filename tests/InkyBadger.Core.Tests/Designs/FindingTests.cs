using InkyBadger.Core.Design;
using InkyBadger.Core.Findings;
using InkyBadger.Core.Network;
using InkyBadger.Core.Reference;

namespace InkyBadger.Core.Tests.Designs;

/// <summary>Each finding fires on what it is about, not beside it, and its mend mends it.</summary>
public class FindingTests
{
    /// <summary>The bus with everything in order: one more inverter size, diagonal take-off, every choice as advised.</summary>
    private static DesignDocument Sound =>
        Some.Marrow.With(
            ("~/inverters/0/item", null),
            ("~/wiring/style", WiringStyle.Diagonal),
            ("~/unit", null),
            ("~/series", null),
            ("~/parallel", null)
        );

    [Fact]
    public void A_sound_design_has_nothing_wrong()
    {
        var e = Evaluator.Evaluate(Sound);
        Assert.Equal(0, e.Counts.Wrong);
        Assert.DoesNotContain(e.Findings, f => f.Grade <= Grade.Fault);
    }

    [Fact]
    public void The_gravest_come_first()
    {
        var grades = Some.Marrow.With(("~/runs/0/fuse/absent", true)).Findings().Select(f => f.Grade).ToList();
        Assert.Equal(Grade.Danger, grades[0]);
        Assert.Equal(grades.Order(), grades);
    }

    public static TheoryData<string, Grade, string, object?> OneChange =>
        new()
        {
            { "fuse.none", Grade.Danger, "~/runs/0/fuse/absent", true },
            {
                "fuse.above-cable",
                Grade.Danger,
                "~/runs/0",
                new Run
                {
                    Id = "main",
                    From = "bank",
                    To = "inverter",
                    LengthM = 2.5,
                    Size = "95 mm²",
                    Fuse = new() { RatingA = 450 },
                }
            },
            { "fuse.nuisance", Grade.Fault, "~/runs/0/fuse/ratingA", 100 },
            { "fuse.interrupt", Grade.Danger, "~/runs/0/fuse/class", "sf51-32" },
            { "fuse.far", Grade.Danger, "~/runs/0/fuse/distanceM", 0.6 },
            { "cable.thin", Grade.Danger, "~/runs/0/size", "16 mm²" },
            { "cable.size", Grade.Fault, "~/runs/0/size", "0.5 mm²" },
            {
                "cable.drop",
                Grade.Caution,
                "~/runs/0",
                new Run
                {
                    Id = "main",
                    From = "bank",
                    To = "inverter",
                    LengthM = 9,
                    Size = "70 mm²",
                }
            },
            {
                "links.thin",
                Grade.Danger,
                "~/wiring/link",
                new Design.Conductor { Size = "16 mm²" }
            },
            { "bank.take-off", Grade.Caution, "~/wiring/style", WiringStyle.SameEnd },
            { "inverter.class", Grade.Danger, "~/inverters/0/item", Catalogue.Inverters.Single(i => i.Key == "inv-12-3000c") },
            { "inverter.surge", Grade.Fault, "~/inverters/0/item", Catalogue.Inverters.Single(i => i.Key == "inv-24-3000") },
            { "inverter.running", Grade.Fault, "~/inverters/0/item", Catalogue.Inverters.Single(i => i.Key == "inv-24-2000") },
        };

    [Theory]
    [MemberData(nameof(OneChange))]
    public void Fires_on_one_change_and_its_mend_mends_it(string rule, Grade grade, string path, object? value)
    {
        // The 100 Ah units of the flagship, four strings of two, so that links and shares matter.
        var sound = Sound.With(("~/unit", Some.Unit("lfp-12-100")), ("~/parallel", 4));
        Assert.Null(sound.Finding(rule));
        var spoilt = sound.With((path, value));
        var finding = spoilt.Finding(rule);
        Assert.NotNull(finding);
        Assert.Equal(grade, finding.Grade);
        Assert.NotEmpty(finding.Figures);
        Assert.StartsWith("/banks/0", finding.Place, StringComparison.Ordinal);
        Assert.NotEmpty(finding.Mends);
        Assert.Null(spoilt.Mended(rule).Finding(rule));
    }

    /// <summary>
    /// Two strings of which one has lost a third hold 12.8 V × 167 Ah = 2.1 kWh, enough for an hour of a kilowatt; at 0.5 C they give 83 A,
    /// and some 90 are asked for: the amperes are told, not the watt-hours that are there.
    /// </summary>
    [Fact]
    public void Unlike_units_with_enough_in_them_are_told_by_what_is_missing()
    {
        var weak = Some.New(Some.Dc("Pump", 1100, 0.5))
            .With(
                ("~/systemV", 12),
                ("~/unit", Some.Unit("lfp-12-100")),
                ("~/series", 1),
                ("~/parallel", 2),
                (
                    "~/positions",
                    new[]
                    {
                        new Position
                        {
                            String = 2,
                            Unit = 1,
                            Health = 0.67,
                        },
                    }
                )
            );
        var finding = weak.Finding("bank.too-small")!;
        Assert.Contains("C-rate asks for", finding.Why, StringComparison.Ordinal);
        Assert.EndsWith("the bank has 167 Ah.", finding.Why, StringComparison.Ordinal);
        // A day of it is another matter.
        Assert.Contains("are wanted", weak.With(("~/demand/loads/0/hours", 6)).Finding("bank.too-small")!.Why, StringComparison.Ordinal);
    }

    /// <summary>A size nobody lists is told also where no cable of the table would do: nothing takes its place, and it stays wrong.</summary>
    [Fact]
    public void An_unknown_size_is_told_where_none_can_be_advised()
    {
        var beyond = Some.New(Some.Dc("Furnace", 5_000_000, 1))
            .With(
                (
                    "~/runs",
                    new[]
                    {
                        new Run { Id = Run.MainId, Size = "0.5 mm²" },
                    }
                )
            );
        Assert.Null(beyond.Bank().MainRun!.Cable.Advised);
        var finding = beyond.Finding("cable.size")!;
        Assert.Equal((Grade.Fault, 0), (finding.Grade, finding.Mends.Count));
        Assert.NotEmpty(Some.Marrow.With(("~/runs/0/size", "0.5 mm²")).Finding("cable.size")!.Mends);
    }

    [Fact]
    public void A_bank_smaller_than_the_demand_goes_back_to_advised()
    {
        Assert.Null(Some.Marrow.Finding("bank.too-small"));
        var small = Some.Marrow.With(("~/parallel", 2));
        Assert.Equal("2 strings, where the demand asks for 3", small.Finding("bank.too-small")!.Title);
        Assert.Equal(3, small.Mended("bank.too-small").Bank().Bank!.Layout.Parallel);
    }

    /// <summary>The three mends of the first plan, by their outcome.</summary>
    [Fact]
    public void Taking_off_diagonally_keeps_what_it_promises()
    {
        var mend = Some.Marrow.Finding("bank.take-off")!.Mends[0];
        Assert.Equal(("Take off diagonally", "worst 25.9 %"), (mend.Label, mend.Outcome));
        var after = DesignFormat.With(Some.Marrow, mend.Changes).Bank().Network!;
        Assert.Equal(0.259, after.Strings.WorstShare, 3);
        Assert.Equal(after.Strings.Shares[0], after.Strings.Shares[3], 12);
    }

    /// <summary>With the larger string at the leads the near end is the better one: no advice that would make it worse.</summary>
    [Fact]
    public void The_near_end_may_be_right_for_unlike_strings()
    {
        var trailer = Some.Untested;
        Assert.NotNull(trailer.Finding("bank.take-off"));
        var turned = trailer.With(("~/positions", trailer.Banks[0].Positions.Select(p => p with { String = 2 })));
        Assert.Null(turned.Finding("bank.take-off"));
        Assert.True(
            turned.Bank().Network!.Ceiling.Amps > turned.With(("~/wiring/style", WiringStyle.Diagonal)).Bank().Network!.Ceiling.Amps
        );
    }

    [Fact]
    public void A_fuse_class_that_fits_takes_the_place_of_one_that_cannot_break_the_short()
    {
        var weak = Some.Marrow.With(("~/runs/0/fuse/class", "strip-32"));
        var finding = weak.Finding("fuse.interrupt")!;
        Assert.Contains("14.8 kA", finding.Why, StringComparison.Ordinal);
        Assert.Contains("6.0 kA", finding.Why, StringComparison.Ordinal);
        Assert.Equal("Use class T 200 A", finding.Mends[0].Label);
        var after = weak.Mended("fuse.interrupt").Bank();
        Assert.Equal("class-t", after.MainRun!.Fuse.Class);
        Assert.True(after.Protection!.Fits);
    }

    [Fact]
    public void A_cable_too_thin_for_every_class_does_not_hide_the_class_that_breaks_the_short()
    {
        var both = Some.Marrow.With(("~/runs/0/fuse/class", "strip-32"), ("~/runs/0/size", "35 mm²"));
        Assert.Equal("Use class T 200 A", both.Finding("fuse.interrupt")!.Mends[0].Label);
        Assert.Equal("Use 50 mm²", both.Finding("fuse.above-cable")!.Mends[0].Label);
    }

    [Fact]
    public void The_next_cable_size_carries_what_the_fuse_lets_through()
    {
        var thin = Some.Marrow.With(("~/runs/0/size", "35 mm²"));
        var finding = thin.Finding("fuse.above-cable")!;
        Assert.Equal("The fuse lets 15.0 A more through than the cable bears", finding.Title);
        Assert.Equal("Use 50 mm²", finding.Mends[0].Label);
        Assert.Equal(230, thin.Mended("fuse.above-cable").Bank().MainRun!.Carries.AmpacityA);
    }

    /// <summary>58.4 V in a 48 V bank is above the 58 V class, whatever its name says.</summary>
    [Fact]
    public void A_58_volt_fuse_is_no_fuse_for_a_48_volt_bank()
    {
        var bank = Some.Demo("Pell").With(("~/runs/0/fuse/class", "sf30-58"));
        Assert.Equal(58.4, bank.Bank().Protection!.GreatestChargingV, 9);
        Assert.NotNull(bank.Finding("fuse.voltage"));
        var set = bank.With(
            (
                "~/sources",
                new[]
                {
                    new Source
                    {
                        Id = "s1",
                        Name = "Roof",
                        SettingV = 56.8,
                    },
                }
            )
        );
        Assert.Equal(56.8, set.Bank().Protection!.GreatestChargingV, 9);
        Assert.Null(set.Finding("fuse.voltage"));
    }

    [Fact]
    public void Unlike_units_in_one_string_are_a_danger_by_chemistry_and_a_fault_by_capacity()
    {
        Assert.Equal(
            Grade.Fault,
            Some.Marrow.With(
                    (
                        "~/positions",
                        new[]
                        {
                            new Position
                            {
                                String = 1,
                                Unit = 2,
                                Item = Some.Unit("lfp-12-200"),
                            },
                        }
                    )
                )
                .Finding("bank.unlike-series")!
                .Grade
        );
        Assert.Equal(
            Grade.Danger,
            Some.Marrow.With(
                    (
                        "~/positions",
                        new[]
                        {
                            new Position
                            {
                                String = 1,
                                Unit = 2,
                                Item = Some.Unit("agm-12-100"),
                            },
                        }
                    )
                )
                .Finding("bank.unlike-series")!
                .Grade
        );
        Assert.Null(Some.Marrow.Finding("bank.unlike-series"));
    }

    [Fact]
    public void A_load_on_half_a_string_is_a_danger()
    {
        var tapped = Some.Marrow.With(("~/demand/loads/4/kind", "dc"), ("~/demand/loads/4/tap", 1));
        Assert.Equal(Grade.Danger, tapped.Finding("bank.tap")!.Grade);
        Assert.Null(tapped.Mended("bank.tap").Finding("bank.tap"));
        Assert.Null(Some.Marrow.Finding("bank.tap"));
    }

    [Fact]
    public void More_in_series_or_strings_than_the_maker_allows()
    {
        var long24 = Sound.With(
            ("~/systemV", 48),
            ("~/inverters/0/item", null),
            ("~/unit", Some.Unit("lfp-24-100") with { MaxSeries = 1 })
        );
        Assert.Equal(Grade.Fault, long24.Finding("bank.max-series")!.Grade);
        Assert.NotNull(Sound.With(("~/unit", Some.Unit("lfp-12-100")), ("~/parallel", 6)).Finding("bank.max-parallel"));
        Assert.Null(Sound.Finding("bank.max-series"));
        Assert.Null(Sound.Finding("bank.max-parallel"));
    }

    /// <summary>Two strings of 100 A carry 144 A; if one opens, the other has it all.</summary>
    [Fact]
    public void One_unit_out_can_bring_the_rest_down()
    {
        var two = Sound.With(
            ("~/unit", Some.Unit("lfp-12-200")),
            ("~/parallel", 2),
            ("~/inverters/0/item", Catalogue.Inverters.Single(i => i.Key == "inv-24-5000c"))
        );
        Assert.NotNull(two.Finding("bank.cascade"));
        Assert.Null(
            Sound
                .With(
                    ("~/unit", Some.Unit("lfp-12-100")),
                    ("~/parallel", 4),
                    ("~/inverters/0/item", Catalogue.Inverters.Single(i => i.Key == "inv-24-2000"))
                )
                .Finding("bank.cascade")
        );
    }

    [Fact]
    public void Idling_is_said_when_it_is_a_good_part_of_the_day()
    {
        var left = Some.New(Some.Ac("tv", 90, 2)).With(("~/inverters/0/onH", 24));
        var finding = left.Finding("inverter.idle")!;
        // 4 W for 24 h against 180 ÷ 0.89 and that: 96 of 298 Wh.
        Assert.Equal(96 / (180 / 0.89 + 96), finding.Figures.Single(f => f.Unit == "fraction").Value, 9);
        Assert.Null(left.Mended("inverter.idle").Finding("inverter.idle"));
    }

    [Fact]
    public void Much_at_twelve_volts_and_modified_waves()
    {
        var big = Some.New(Some.Ac("oven", 2300, 0.5)).With(("~/systemV", 12));
        Assert.Equal(Station.Voltage, big.Finding("inverter.twelve-volts")!.Station);
        Assert.Equal(24, big.Mended("inverter.twelve-volts").Bank().Voltage!.SystemV);
        var hum = Some.New(Some.Ac("radio", 90, 2) with { WaveSensitive = true })
            .With(("~/systemV", 12), ("~/inverters/0/item", Catalogue.Inverters.Single(i => i.Key == "inv-12-1200-mod")));
        Assert.NotNull(hum.Finding("inverter.wave"));
        Assert.Null(hum.Mended("inverter.wave").Finding("inverter.wave"));
    }

    [Fact]
    public void Flooded_cells_are_vented_and_heavy_units_lifted_by_two()
    {
        var hut = Some.Demo("Hare");
        Assert.Equal(Grade.Caution, hut.Finding("bank.hydrogen")!.Grade);
        Assert.Equal(Grade.Danger, hut.With(("/place/living", true)).Finding("bank.hydrogen")!.Grade);
        Assert.NotNull(hut.Finding("bank.lift"));
        Assert.Null(Some.Marrow.Finding("bank.lift"));
        Assert.Null(Some.Marrow.Finding("bank.hydrogen"));
    }

    [Fact]
    public void No_cable_is_said_with_a_way_out()
    {
        // 20 kW at 12 V are 1.9 kA: three of the largest side by side carry 1.3.
        var far = Sound.With(
            ("~/systemV", 12),
            (
                "~/inverters/0/item",
                Catalogue.Inverters.Single(i => i.Key == "inv-12-3000c") with
                {
                    ContinuousW = 20_000,
                    SurgeW = 40_000,
                    ChargerA = null,
                }
            )
        );
        var finding = far.Finding("cable.none")!;
        Assert.Contains("the current", finding.Why, StringComparison.Ordinal);
        Assert.Equal(24, far.Mended("cable.none").Bank().Voltage!.SystemV);
        Assert.Null(Sound.Finding("cable.none"));
    }
}

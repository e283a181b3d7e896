using InkyBadger.Core.Design;
using InkyBadger.Core.Findings;
using InkyBadger.Core.Reference;

namespace InkyBadger.Core.Tests.Designs;

/// <summary>Designs that hurt somebody or burn something, each with the finding that must come, and what comes of its mends.</summary>
public class DangerTests
{
    private static InverterItem Inverter(string key) => Catalogue.Inverters.Single(i => i.Key == key);

    private static Source Source(SourceKind kind, double amps, double? settingV = null) =>
        new()
        {
            Id = "s1",
            Name = "Source",
            Kind = kind,
            Amps = amps,
            SettingV = settingV,
        };

    /// <summary>The library bus, mended, on one voltage and with the batteries it has.</summary>
    private static readonly DesignDocument Bus = Some.Marrow.With(("~/systemV", 24), ("~/wiring/style", WiringStyle.Diagonal));

    private static DesignDocument Link(string size) =>
        Bus.With(
            (
                "~/wiring/links",
                new[]
                {
                    new PlacedConductor
                    {
                        Rail = Pole.Positive,
                        After = 2,
                        Size = size,
                    },
                }
            )
        );

    /// <summary>Sixteen cells of 280 Ah behind a 3 kW inverter at 48 V.</summary>
    internal static readonly DesignDocument Cells = Some.New(Some.Ac("oven", 2000, 2))
        .With(("~/systemV", 48), ("~/unit", Some.Unit("cell-lfp-280")), ("~/parallel", 1));

    private static Run Branch(Func<Run, Run> change) => change(new() { Id = "load-lamp" });

    private static DesignDocument Lamp(Func<Run, Run>? change = null, Func<Load, Load>? load = null) =>
        Some.New((load ?? (l => l))(Some.Dc("lamp", 100, 4))).With(("~/systemV", 12), ("~/runs/-", Branch(change ?? (r => r))));

    public static TheoryData<string, DesignDocument, string, Grade> Dangerous { get; } =
        new()
        {
            {
                "the fuse above the cable",
                Bus.With(("~/runs/0/size", "35 mm²"), ("~/runs/0/fuse/ratingA", 250)),
                "fuse.above-cable",
                Grade.Danger
            },
            { "no fuse at the bank", Bus.With(("~/runs/0/fuse/absent", true)), "fuse.none", Grade.Danger },
            { "a fuse half a metre from the post", Bus.With(("~/runs/0/fuse/distanceM", 0.5)), "fuse.far", Grade.Danger },
            { "a fuse that cannot break the short", Bus.With(("~/runs/0/fuse/class", "sf51-32")), "fuse.interrupt", Grade.Danger },
            { "32 V of fuse on 58 V", Some.Demo("Pell").With(("~/runs/0/fuse/class", "strip-32")), "fuse.voltage", Grade.Danger },
            { "a branch without a fuse", Lamp(r => r with { Fuse = new() { Absent = true } }), "fuse.none", Grade.Danger },
            { "a cable too thin for its load", Bus.With(("~/runs/0/size", "10 mm²")), "cable.thin", Grade.Danger },
            { "one link of 6 mm²", Link("6 mm²"), "conductor.thin", Grade.Danger },
            {
                "one jumper of 6 mm²",
                Bus.With(
                    (
                        "~/wiring/jumpers",
                        new[]
                        {
                            new PlacedConductor
                            {
                                String = 2,
                                After = 1,
                                Size = "6 mm²",
                            },
                        }
                    )
                ),
                "conductor.thin",
                Grade.Danger
            },
            {
                "one bus lead of 4 mm²",
                Bus.With(
                    ("~/wiring/style", WiringStyle.BusBars),
                    (
                        "~/wiring/leads",
                        new[]
                        {
                            new PlacedConductor
                            {
                                Rail = Pole.Negative,
                                String = 3,
                                Size = "4 mm²",
                            },
                        }
                    )
                ),
                "conductor.thin",
                Grade.Danger
            },
            { "all links of 16 mm²", Bus.With(("~/wiring/link", new Design.Conductor { Size = "16 mm²" })), "links.thin", Grade.Danger },
            { "lithium cells that nothing protects", Cells, "bank.no-bms", Grade.Danger },
            {
                "cells behind an alternator",
                Cells.With(("~/sources", new[] { Source(SourceKind.Alternator, 60) })),
                "charge.alternator",
                Grade.Danger
            },
            {
                "units that drop out behind an alternator",
                Bus.With(("~/sources", new[] { Source(SourceKind.Alternator, 60) })),
                "charge.alternator",
                Grade.Danger
            },
            {
                "14 AWG of building wire behind 20 A",
                Lamp(r =>
                    r with
                    {
                        Practice = "building-awg-90",
                        Size = "14 AWG",
                        Fuse = new() { RatingA = 20 },
                    }
                ),
                "fuse.above-cable",
                Grade.Danger
            },
            {
                "the inverter's charger, too much for the bank",
                Bus.With(("~/inverters/0/item", Inverter("inv-24-5000c") with { ChargerA = 300 })),
                "charge.too-much",
                Grade.Caution
            },
            {
                "the inverter's charger in the cold",
                Bus.With(("~/sources", Array.Empty<Source>()), ("~/inverters/0/item", Inverter("inv-24-5000c")), ("/place/ambientC", -5)),
                "charge.cold",
                Grade.Danger
            },
            {
                "the second inverter's charger on its own outlets",
                Bus.With(
                    (
                        "~/inverters/-",
                        new InverterChoice
                        {
                            Id = "i2",
                            Item = Inverter("inv-24-5000c"),
                            Charger = ChargerFeed.OwnOutput,
                        }
                    )
                ),
                "inverter.loop",
                Grade.Danger
            },
            {
                "a branch that leaves its short to the fuse upstream",
                Bus.With(
                    (
                        "~/runs/-",
                        new Run
                        {
                            Id = "converter-12",
                            Size = "2.5 mm²",
                            Fuse = new() { Class = "blade-32", RatingA = 10 },
                        }
                    )
                ),
                "fuse.relies",
                Grade.Danger
            },
            {
                "a start over a BMS that states no peak",
                Bus.With(("~/parallel", 2), ("~/unit", Some.Unit("lfp-12-100") with { Bms = new() { ContinuousA = 100 } })),
                "bank.surge",
                Grade.Fault
            },
            { "a main fuse that opens at the start", Bus.With(("~/runs/0/fuse/ratingA", 35)), "fuse.start", Grade.Fault },
            {
                "four of 12 V on a 24 V inverter",
                Bus.With(("~/series", 4), ("~/unit", Some.Unit("lfp-12-100"))),
                "bank.real-volts",
                Grade.Danger
            },
            {
                "a device that gets the bank's real volts",
                Lamp(load: l =>
                        l with
                        {
                            Window = new() { MinV = 10, MaxV = 16 },
                        }
                    )
                    .With(("~/unit", Some.Unit("lfp-12-100")), ("~/series", 2)),
                "load.window",
                Grade.Danger
            },
            {
                "volts both too high and too low at the end of a cable",
                Lamp(
                    r => r with { Size = "1.5 mm²", LengthM = 8 },
                    l =>
                        l with
                        {
                            Window = new() { MinV = 11.5, MaxV = 14 },
                        }
                ),
                "load.window",
                Grade.Fault
            },
            { "a 36 V motor on 12 V", Lamp(load: l => l with { Volts = 36 }), "load.window", Grade.Fault },
            { "a 12 V inverter on 24 V", Bus.With(("~/inverters/0/item", Inverter("inv-12-3000c"))), "inverter.class", Grade.Danger },
            { "a charger on its own inverter", Bus.With(("~/inverters/0/charger", "own-output")), "inverter.loop", Grade.Danger },
            { "two chemistries in a string", Bus.With(("~/positions", new[] { At(1, "agm-12-100") })), "bank.unlike-series", Grade.Danger },
            {
                "two chemistries side by side",
                Bus.With(("~/positions", new[] { At(1, "agm-12-100"), At(2, "agm-12-100") })),
                "bank.unlike-parallel",
                Grade.Danger
            },
            { "12 V from half a string", Bus.With(("~/demand/loads/4/kind", "dc"), ("~/demand/loads/4/tap", 1)), "bank.tap", Grade.Danger },
            {
                "a switch made for 12 V",
                Bus.With(("~/runs/0/switch", new RunSwitch { RatingA = 300, MaxDcV = 16 })),
                "switch.rating",
                Grade.Danger
            },
            { "bus bars below the fuse", Bus.With(("~/runs/0/busRatingA", 100)), "bus.rating", Grade.Danger },
            {
                "a charger set for another battery",
                Bus.With(("~/sources", new[] { Source(SourceKind.Mains, 20, 31) })),
                "charge.setting",
                Grade.Danger
            },
            {
                "61 V on lead",
                Some.New(Some.Ac("tv", 90, 2)).With(("~/systemV", 48), ("~/unit", Some.Unit("flooded-6-215"))),
                "touch.volts",
                Grade.Danger
            },
            {
                "flooded lead where people live",
                Some.New(Some.Ac("tv", 90, 2)).With(("~/systemV", 12), ("~/unit", Some.Unit("flooded-12-105")), ("/place/living", true)),
                "bank.hydrogen",
                Grade.Danger
            },
        };

    private static Position At(int unit, string key) =>
        new()
        {
            String = 1,
            Unit = unit,
            Item = Some.Unit(key),
        };

    [Theory]
    [MemberData(nameof(Dangerous))]
    public void What_is_dangerous_is_said(string name, DesignDocument design, string rule, Grade grade)
    {
        Assert.Empty(DesignCheck.Faults(design));
        var findings = design.Findings();
        var found = findings.Where(f => f.Rule == rule).MinBy(f => f.Grade);
        Assert.True(found is not null, $"{name}: only {string.Join(", ", findings.Select(f => f.Rule))}");
        Assert.Equal(grade, found.Grade);
        Assert.NotEmpty(found.Figures);
        foreach (var mend in found.Mends)
            Assert.DoesNotContain(DesignFormat.With(design, mend.Changes).Findings(), f => f.IsAsOf(found));
    }

    [Fact]
    public void There_are_thirty_and_more() => Assert.True(Dangerous.Count >= 30, $"{Dangerous.Count}");

    /// <summary>
    /// A link between strings B and C of 6 mm² carries half the bank at full load and, while the 200 A fuse holds, up to what three strings
    /// push through it with one out; it is good for 50 A. The usual links are well.
    /// </summary>
    [Fact]
    public void A_single_link_thinner_than_its_neighbours()
    {
        var thin = Link("6 mm²");
        var bank = thin.Bank();
        var finding = thin.Finding("conductor.thin")!;
        var own = bank.Network!.Copper.Placed.Single(c => c.Own);
        Assert.Equal((50.0, "/banks/0/wiring/links/0"), (own.AmpacityA, finding.Place));
        Assert.Equal([bank.Network.Held.PositiveA[1], 50], finding.Figures.Select(f => f.Value));
        Assert.True(own.HeldA > own.Amps && own.HeldA < 200, $"{own.HeldA}");
        Assert.Null(thin.Finding("links.thin"));
        Assert.Equal(2, finding.Mends.Count);
        Assert.Null(DesignFormat.With(thin, finding.Mends[0].Changes).Banks[0].Wiring.Links[0].Size);
        // In the chain it lets so much through that it carries its 50 A.
        var link = bank.Chain!.Continuous.Single(l => l.Name == "the 6 mm² positive link B to C");
        var share = own.Amps / bank.Network.Strings.BankA;
        Assert.Equal(((50 / share - bank.Currents!.BesideWorstA) * 24 - 25) * 0.9, link.AcW, 6);
        Assert.Contains("link B to C", bank.Headlines[Station.Cables], StringComparison.Ordinal);
        Assert.DoesNotContain(Bus.Bank().Chain!.Continuous, l => l.Name.Contains("link B to C", StringComparison.Ordinal));
    }

    /// <summary>4/0 AWG, 107.2 mm², goes by 95 mm² and its 330 A in a metric design, with its own 0.164 mΩ/m, and says so.</summary>
    [Fact]
    public void A_size_of_the_other_series_goes_by_the_nearest_area()
    {
        var link = Link("4/0 AWG");
        var own = link.Bank().Network!.Copper.Placed.Single(c => c.Own);
        Assert.Equal(("95 mm²", 330.0), (own.As, own.AmpacityA));
        Assert.Equal(0.164e-3 * 0.35 + 1e-4, own.Ohm, 12);
        Assert.Null(link.Finding("conductor.thin"));
        Assert.Equal(Grade.Note, link.Finding("conductor.series")!.Grade);
        Assert.Null(Bus.Finding("conductor.series"));
        var main = Bus.With(("~/runs/0/size", "4/0 AWG"));
        Assert.Equal(("95 mm²", 330.0), (main.Bank().MainRun!.Carries.As, main.Bank().MainRun!.Carries.AmpacityA));
        Assert.Null(main.Mended("cable.series").Finding("cable.series"));
        // 3/0 has 85.03 mm²: 95 has a tenth more copper, so 70 mm² it is; 2/0 is 70 mm² but for 4 %.
        Assert.Equal("70 mm²", Link("3/0 AWG").Bank().Network!.Copper.Placed.Single(c => c.Own).As);
        Assert.Equal("70 mm²", Link("2/0 AWG").Bank().Network!.Copper.Placed.Single(c => c.Own).As);
        Assert.Null(CablePractices.Get("craft-metric-90").Find("0.5 mm²"));
    }

    /// <summary>
    /// 14 AWG of 90 °C carries 25 A, and is fused at 15; 10 AWG at 30, 4 AWG at the 85 A of the 75 °C column where it carries 95.
    /// </summary>
    [Theory]
    [InlineData("14 AWG", 25, 15)]
    [InlineData("12 AWG", 30, 20)]
    [InlineData("10 AWG", 40, 30)]
    [InlineData("4 AWG", 95, 85)]
    public void Building_wire_of_90_degrees_ends_in_terminals_of_75(string size, double carries, double fused)
    {
        var run = Lamp(r => r with { Practice = "building-awg-90", Size = size }).Bank().Circuits.Single(c => c.Id == "load-lamp").Run;
        Assert.Equal((carries, fused), (run.Carries.AmpacityA, run.Carries.FuseLimitA));
        // 100 W at 12 V are 8.3 A: 15 A of blade; nothing thinner than 14 AWG is in the table.
        Assert.Equal(15, run.Fuse.AdvisedRatingA);
        var twenty = Lamp(r => r with { Practice = "building-awg-90", LengthM = 1 }, l => l with { Watts = 190 });
        // 15.8 A ask for 20 A: 12 AWG, not 14.
        var wide = twenty.Bank().Circuits.Single(c => c.Id == "load-lamp").Run;
        Assert.Equal((20.0, "12 AWG"), (wide.Fuse.RatingA, wide.Cable.Advised!.Size));
    }

    /// <summary>
    /// 3 kW at 48 V are 67.7 A and 5 s of starts: the 100 A BMS. With it the ceiling is its 100 A and no longer the cells' 280; the build
    /// of these cells buys it, and its chain stops there.
    /// </summary>
    [Fact]
    public void Bare_cells_ask_for_a_bms_which_then_counts()
    {
        var finding = Cells.Finding("bank.no-bms")!;
        Assert.Equal([16, 1], finding.Figures.Select(f => f.Value));
        Assert.Equal(280, Cells.Bank().Network!.Ceiling.Amps!.Value, 9);
        var mended = Cells.Mended("bank.no-bms");
        Assert.Equal("bms-100", mended.Banks[0].Bms!.Key);
        Assert.Equal(100, mended.Bank().Network!.Ceiling.Amps!.Value, 9);
        Assert.Equal(100, mended.Bank().Bank!.ContinuousA);
        Assert.Null(mended.Finding("bank.no-bms"));
        // The unit's own BMS is enough.
        Assert.Null(Bus.Finding("bank.no-bms"));
        // Below its least charging temperature it stops; it is a danger to count on more.
        var cold = mended.With(("~/sources", new[] { Source(SourceKind.Solar, 20) }), ("~/bms/leastChargeC", 5), ("/place/ambientC", 3));
        Assert.Equal(5, cold.Finding("charge.cold")!.Figures[1].Value);
        Assert.Null(cold.With(("~/bms/leastChargeC", 0)).Finding("charge.cold"));
        // 100 A of charge, and the BMS lets 60 in.
        var much = mended.With(("~/sources", new[] { Source(SourceKind.Mains, 100) })).Finding("charge.too-much")!;
        Assert.Equal([100, 60], much.Figures.Select(f => f.Value));
    }

    [Fact]
    public void A_build_of_bare_cells_buys_the_bms_it_counts_with()
    {
        var choice = new Builds.BuildChoice(Some.Unit("cell-lfp-280"), 48, 16, 1, WiringStyle.Diagonal);
        var build = Builds.BuildMaker.Of(Cells, 0, choice, new())!;
        var line = build.Bill.Lines.Single(l => l.Part == Builds.BillPart.Protection);
        Assert.Equal(("BMS 100 A, one a string of cells", 1.0, 95.0), (line.What, line.Count, line.Each));
        var made = DesignFormat.With(Cells, Builds.BuildBank.Changes(Cells, 0, choice));
        Assert.Equal("bms-100", made.Banks[0].Bms!.Key);
        Assert.Null(made.Finding("bank.no-bms"));
        Assert.DoesNotContain(build.Wrong, w => w.Contains("BMS", StringComparison.Ordinal));
    }

    /// <summary>
    /// A charger of 110 A in the inverter is a source: with 65 A on the roof and at the shore 175 A charge, and at −5 °C not at all.
    /// </summary>
    [Fact]
    public void The_inverters_own_charger_charges()
    {
        var with = Bus.With(("~/inverters/0/item", Inverter("inv-24-5000c")));
        var before = Bus.Bank().Currents!.ChargingA;
        Assert.Equal(before + 110, with.Bank().Currents!.ChargingA, 9);
        Assert.Equal(before + 220, with.With(("~/inverters/0/stack", 2)).Bank().Currents!.ChargingA, 9);
        // Alone and too strong, its own limit is what mends it: four strings take 50 A each.
        var strong = Bus.With(
            ("~/sources", Array.Empty<Source>()),
            ("~/inverters/0/item", Inverter("inv-24-5000c") with { ChargerA = 250 })
        );
        Assert.Equal([250, 200], strong.Finding("charge.too-much")!.Figures.Select(f => f.Value));
        Assert.Equal(200, strong.Mended("charge.too-much").Banks[0].Inverters[0].Item!.ChargerA!.Value, 9);
    }
}

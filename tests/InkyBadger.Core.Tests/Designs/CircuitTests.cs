using InkyBadger.Core.Demand;
using InkyBadger.Core.Design;
using InkyBadger.Core.Findings;
using InkyBadger.Core.Reference;
using InkyBadger.Core.Wiring;

namespace InkyBadger.Core.Tests.Designs;

/// <summary>Which circuits a design asks for, what class of fuse they are advised, and what is counted in them.</summary>
public class CircuitTests
{
    /// <summary>A run that is open is what the station's sentence is about.</summary>
    [Fact]
    public void Each_run_has_a_sentence_of_its_own()
    {
        var circuits = Some.Marrow.Bank().Circuits;
        Assert.All(circuits, c => Assert.Contains(c.Name, c.Headline, StringComparison.OrdinalIgnoreCase));
        var lights = circuits.First(c => c.Fuse.Fits && c.Run.Fuse.RatingA is not null);
        Assert.Equal($"{lights.Name}: {lights.Run.Cable.Size} behind a {Say.Rating(lights.Run.Fuse.RatingA!.Value)} fuse", lights.Headline);
    }

    private static DesignDocument Dc(params Load[] loads) =>
        Some.New(loads).With(("~/systemV", 24), ("~/inverters", Array.Empty<object>()));

    private static CircuitResult? Circuit(DesignDocument design, string id) => design.Bank().Circuits.SingleOrDefault(c => c.Id == id);

    /// <summary>Blades to 30 A and 32 V; a larger branch, or one at 48 V, gets a breaker.</summary>
    [Theory]
    [InlineData(24, 480, "blade-32", 25)]
    [InlineData(24, 700, "breaker-80", 40)]
    [InlineData(48, 100, "breaker-80", 10)]
    public void A_branch_is_advised_a_blade_or_a_breaker(int volts, double watts, string fuse, double rating)
    {
        var c = Circuit(Some.New(Some.Dc("a", watts, 1), Some.Dc("b", 10, 1)).With(("~/systemV", volts)), "load-a")!.Run;
        Assert.Equal((fuse, rating), (c.Fuse.Class, c.Fuse.RatingA));
        Assert.True(c.Fuse.WantedA <= rating);
    }

    /// <summary>A load of 0.2 A in rest and 5 A when it sends: the wire is for the five.</summary>
    [Fact]
    public void A_load_with_states_is_wired_for_its_greatest()
    {
        var radio = new Load
        {
            Id = "radio",
            Name = "Radio",
            Kind = LoadKind.Dc,
            Hours = 24,
            States =
            [
                new()
                {
                    Name = "rest",
                    Amps = 0.2,
                    Share = 0.9,
                },
                new()
                {
                    Name = "send",
                    Amps = 5,
                    Share = 0.1,
                },
            ],
        };
        var c = Circuit(Dc(radio, Some.Dc("lamp", 10, 1)), "load-radio")!;
        // Amperes count at the nominal 25.6 V, and flow at 24 V when the bank is nearly empty.
        Assert.Equal(5 * 25.6 / 24, c.Run.DesignA, 9);
        Assert.Equal("its greatest state", c.Why);
    }

    [Fact]
    public void Several_of_a_kind_hang_on_one_wire()
    {
        var c = Circuit(Dc(Some.Dc("lamp", 12, 4) with { Quantity = 4 }, Some.Dc("fan", 24, 1)), "load-lamp")!;
        Assert.Equal((48.0 / 24, "all 4 of them"), (c.Run.DesignA, c.Why));
    }

    /// <summary>What is off, or none, has no wire; what never runs but is there still has one.</summary>
    [Fact]
    public void Loads_that_draw_nothing_have_no_circuit()
    {
        var design = Dc(
            Some.Dc("none", 20, 1) with
            {
                Quantity = 0,
            },
            Some.Dc("zero", 0, 1),
            Some.Dc("spare", 30, 0),
            Some.Ac("kettle", 900, 1),
            Some.Dc("lamp", 10, 1)
        );
        var ids = design.Bank().Circuits.Select(c => c.Id).ToList();
        Assert.DoesNotContain("load-none", ids);
        Assert.DoesNotContain("load-zero", ids);
        Assert.DoesNotContain("load-kettle", ids);
        Assert.Contains("load-spare", ids);
    }

    /// <summary>A motor at the end of the main run needs no run beyond the bus; a winch of no amperes flows nowhere.</summary>
    [Fact]
    public void The_only_load_may_end_the_main_run()
    {
        var motor = Dc(Some.Dc("motor", 1500, 2))
            .With(
                (
                    "~/runs",
                    new[]
                    {
                        new Run
                        {
                            Id = "main",
                            From = "bank",
                            To = "motor",
                            LengthM = 2,
                        },
                    }
                )
            );
        Assert.Empty(motor.Bank().Circuits);
        Assert.Equal(["load-motor"], motor.With(("~/runs/0/to", "bus")).Bank().Circuits.Select(c => c.Id));
        Assert.Null(Circuit(motor.With(("~/runs/-", new Run { Id = "winch", To = "winch" })), "winch"));
    }

    /// <summary>Four bolted connections, one fuse; a switch is one more of 0.1 mΩ, no fuse one less.</summary>
    [Fact]
    public void Joints_are_counted()
    {
        double Joints(Run run) => Circuit(Some.Marrow.With(("~/runs/-", run with { Id = "load-l5" })), "load-l5")!.Run.Joints.Ohm;
        Assert.Equal(0.0003, Joints(new()), 12);
        Assert.Equal(0.0004, Joints(new() { Switch = new() { RatingA = 20 } }), 12);
        Assert.Equal(0.0003, Joints(new() { Switch = new() { Absent = true } }), 12);
        Assert.Equal(0.0002, Joints(new() { Fuse = new() { Absent = true } }), 12);
    }

    /// <summary>Six conductors that touch carry 60 %: 40 A of 4 mm² become 24.</summary>
    [Fact]
    public void Bundled_with_others()
    {
        var c = Circuit(
            Some.Marrow.With(
                (
                    "~/runs/-",
                    new Run
                    {
                        Id = "load-l5",
                        Size = "4 mm²",
                        Bundled = 6,
                    }
                )
            ),
            "load-l5"
        )!.Run;
        Assert.Equal((24.0, 0.6, 6), (Math.Round(c.Carries.AmpacityA!.Value, 9), c.Carries.BundleFactor, c.Laid.Bundled));
    }

    /// <summary>A table of its own for one run: 2.5 mm² and up of the 70 °C table, where the rest goes by 90 °C.</summary>
    [Fact]
    public void A_table_of_its_own()
    {
        var bank = Some.Marrow.With(("~/runs/-", new Run { Id = "source-roof", Practice = "craft-metric-70" })).Bank();
        var roof = bank.Circuits.Single(c => c.Id == "source-roof").Run;
        // 50 A of fuse: 6 mm² carries 45 there, 10 mm² 65.
        Assert.Equal(("craft-metric-70", "10 mm²", 65.0), (roof.Laid.Practice, roof.Cable.Size, roof.Carries.AmpacityA));
        Assert.Equal("craft-metric-90", bank.MainRun!.Laid.Practice);
    }

    /// <summary>Two converters: each its own feed, with a panel where two loads share one.</summary>
    [Fact]
    public void Converters_by_their_volts()
    {
        Load Behind(string id, double watts, double volts) => Some.Dc(id, watts, 2) with { Kind = LoadKind.Converter, Volts = volts };
        var bank = Dc(Behind("a", 24, 12), Behind("b", 36, 12), Behind("c", 10, 5)).Bank();
        Assert.Equal(["converter-5", "load-c", "converter-12", "converter-12-panel", "load-a", "load-b"], bank.Circuits.Select(c => c.Id));
        var panel = bank.Circuits.Single(c => c.Id == "converter-12-panel");
        Assert.Equal((60.0 / 12, true, "converter-12"), (Math.Round(panel.Run.DesignA, 9), panel.Behind, panel.Upstream));
        Assert.Equal(60 / LoadsStage.AssumedConverterEfficiency / 24, bank.Circuits.Single(c => c.Id == "converter-12").Run.DesignA, 9);
        // Its volts are the converter's, and fall along the panel's run.
        Assert.Equal(12 - panel.Run.Drop.V!.Value, panel.Run.Drop.EndV!.Value, 9);
        Assert.Null(panel.Fuse.Short.Amps);
    }

    /// <summary>A class that is no longer in the table stands as advised; a size of another series goes by the nearest area
    /// that has no more copper: 12 AWG, 3.309 mm², by 2.5 mm² and its 30 A, with its own 5.315 mΩ/m.</summary>
    [Fact]
    public void What_the_tables_do_not_know()
    {
        var c = Circuit(
            Some.Marrow.With(
                (
                    "~/runs/-",
                    new Run
                    {
                        Id = "load-l5",
                        Size = "12 AWG",
                        Fuse = new() { Class = "glass" },
                    }
                )
            ),
            "load-l5"
        )!;
        Assert.Equal(
            ("blade-32", "12 AWG", 30.0, "2.5 mm²"),
            (c.Run.Fuse.Class, c.Run.Cable.Size, c.Run.Carries.AmpacityA, c.Run.Carries.As)
        );
        Assert.Equal(8 * (2 * 5.315e-3 * (1 + 0.00393 * (c.Run.Carries.ConductorC!.Value - 20)) * 4 + 0.0003), c.Run.Drop.V!.Value, 9);
    }

    /// <summary>
    /// Forty metres at 12 V: the least bad is laid and said; a voltage is offered only where it ends that, and says what it would be.
    /// </summary>
    [Fact]
    public void A_way_out_is_one()
    {
        var far = Some.Marrow.With(
            ("~/systemV", 12),
            ("~/series", null),
            ("~/inverters/0/item", Catalogue.Inverters.Single(i => i.Key == "inv-12-3000c")),
            ("~/runs/0/lengthM", 40),
            ("~/runs/0/busM", null)
        );
        Assert.NotNull(far.Bank().MainRun!.Cable.Size);
        var finding = far.Finding("cable.drop")!;
        Assert.Contains("No copper of the table keeps it", finding.Why, StringComparison.Ordinal);
        Assert.NotEmpty(finding.Mends);
        foreach (var mend in finding.Mends.Where(m => m.Label.StartsWith("Try", StringComparison.Ordinal)))
        {
            var run = DesignFormat.With(far, mend.Changes).Bank().MainRun!;
            Assert.NotNull(run.Cable.Size);
            Assert.Contains(run.Cable.Size, mend.Outcome, StringComparison.Ordinal);
        }
    }

    /// <summary>An alternator's run is not touched by what is taken out of the list of sources.</summary>
    [Fact]
    public void A_source_without_amperes_has_no_run()
    {
        var design = Some.Marrow.With(
            (
                "~/sources",
                new[]
                {
                    new Source
                    {
                        Id = "a",
                        Kind = SourceKind.DcDc,
                        Amps = 30,
                    },
                    new Source { Id = "b", Kind = SourceKind.Solar },
                }
            )
        );
        Assert.Equal(["source-a"], design.Bank().Circuits.Where(c => c.Kind == CircuitKind.Charge).Select(c => c.Id));
        Assert.Equal("DC–DC charger", Circuit(design, "source-a")!.Name);
        // Three metres, nobody has measured them.
        Assert.Equal((3.0, false), (Circuit(design, "source-a")!.Run.Laid.LengthM, Circuit(design, "source-a")!.Run.Laid.LengthPinned));
    }

    /// <summary>More charge than load sizes the main run: 180 A.</summary>
    [Fact]
    public void The_main_run_bears_all_sources_together()
    {
        var run = Some
            .Marrow.With(
                (
                    "~/sources",
                    new[]
                    {
                        new Source { Id = "a", Amps = 100 },
                        new Source { Id = "b", Amps = 80 },
                    }
                )
            )
            .Bank()
            .MainRun!;
        Assert.Equal((180.0, 225.0), (run.DesignA, run.Fuse.RatingA));
    }

    [Fact]
    public void Nothing_is_made_up_before_there_is_a_bank()
    {
        var empty = NewDesign.Empty("New").Bank();
        Assert.Empty(empty.Circuits);
        Assert.Equal((null, null, null), (empty.Bus, empty.StringFuses, empty.Bonding));
    }
}

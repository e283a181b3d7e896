using InkyBadger.Core.Demand;
using InkyBadger.Core.Design;
using InkyBadger.Core.Findings;
using InkyBadger.Core.Network;
using InkyBadger.Core.Reference;
using InkyBadger.Core.Trials;
using InkyBadger.Core.Wiring;

namespace InkyBadger.Core.Tests.Designs;

/// <summary>
/// What can be wrong with the runs beyond the bus, inside the bank and around it: each fires on what it is about, and its mend mends it.
/// </summary>
public class RunFindingTests
{
    private static readonly Run Main = new()
    {
        Id = "main",
        From = "bank",
        To = "inverter",
        LengthM = 2.5,
        PreCharge = true,
    };

    private static DesignDocument Lights(Run run) => Some.Marrow.With(("~/runs/-", run with { Id = "load-l5" }));

    public static TheoryData<string, Grade, Run> OfTheLights =>
        new()
        {
            {
                "fuse.none",
                Grade.Danger,
                new() { Fuse = new() { Absent = true } }
            },
            {
                "fuse.above-cable",
                Grade.Danger,
                new()
                {
                    Size = "4 mm²",
                    Fuse = new() { RatingA = 50, Class = "breaker-80" },
                }
            },
            {
                "fuse.nuisance",
                Grade.Fault,
                new() { Fuse = new() { RatingA = 7.5 } }
            },
            {
                "fuse.far",
                Grade.Danger,
                new() { Fuse = new() { DistanceM = 1 } }
            },
            {
                "cable.thin",
                Grade.Danger,
                new()
                {
                    Size = "0.75 mm²",
                    Place = RunPlace.Hot,
                    Bundled = 9,
                    LengthM = 1,
                }
            },
            {
                "cable.size",
                Grade.Fault,
                new() { Size = "0.5 mm²" }
            },
            {
                "cable.drop",
                Grade.Caution,
                new() { Size = "1 mm²" }
            },
            {
                "cable.none",
                Grade.Fault,
                new() { AmbientC = 95 }
            },
            {
                "switch.rating",
                Grade.Danger,
                new() { Switch = new() { RatingA = 5 } }
            },
        };

    [Theory]
    [MemberData(nameof(OfTheLights))]
    public void A_branch_is_judged_like_the_main_run(string rule, Grade grade, Run run)
    {
        Assert.Null(Some.Marrow.Finding(rule));
        var design = Lights(run);
        var finding = design.Finding(rule);
        Assert.NotNull(finding);
        Assert.Equal((grade, Station.Cables, "/banks/0/circuits/3"), (finding.Grade, finding.Station, finding.Place));
        Assert.Contains("Ceiling lights", finding.Title, StringComparison.Ordinal);
        // At 95 °C insulation for 90 carries nothing.
        Assert.Equal(rule == "cable.none", finding.Mends.Count == 0);
        if (rule != "cable.none")
            Assert.DoesNotContain(design.Mended(rule).Findings(), f => f.Rule == rule && f.Place == finding.Place);
    }

    /// <summary>A fuse of 32 V on the feed of a 48 V bank.</summary>
    [Fact]
    public void Volts_of_a_branch_fuse()
    {
        var clinic = Some.Demo("Pell")
            .With(
                ("~/demand/loads/-", Some.Dc("lamp", 40, 5)),
                (
                    "~/runs/-",
                    new Run
                    {
                        Id = "load-lamp",
                        Fuse = new() { Class = "blade-32" },
                    }
                )
            );
        var finding = clinic.Finding("fuse.voltage")!;
        Assert.Equal(Grade.Danger, finding.Grade);
        Assert.Null(clinic.Mended("fuse.voltage").Finding("fuse.voltage"));
        Assert.Null(Some.Demo("Pell").With(("~/demand/loads/-", Some.Dc("lamp", 40, 5))).Finding("fuse.voltage"));
    }

    /// <summary>
    /// 10 kA at the bus and a bolt-in fuse that breaks 2 kA: the class T of 200 A upstream opens first, and lets 3 × 0.03 s × (1,600 A)²
    /// through, 230,400 A²s. 4 mm² stand (100 × 4)² = 160,000: a danger as far as a short is more than 2 kA. 6 mm² stand it. With a strip
    /// fuse upstream nothing breaks it.
    /// </summary>
    [Fact]
    public void A_branch_fuse_relies_on_the_one_upstream_or_bursts()
    {
        DesignDocument Feed(string size) =>
            Some.Marrow.With(
                (
                    "~/runs/-",
                    new Run
                    {
                        Id = "converter-12",
                        LengthM = 3,
                        Size = size,
                        Fuse = new() { Class = "sf51-32", RatingA = 40 },
                    }
                )
            );
        var finding = Feed("4 mm²").Finding("fuse.relies")!;
        Assert.Equal((Grade.Danger, "converter-12"), (finding.Grade, finding.About));
        Assert.Equal([230_400, 160_000], finding.Figures.Take(2).Select(f => Math.Round(f.Value, 6)));
        var bank = Feed("4 mm²").Bank();
        var within = 8 * 3.55 / 2000 - bank.Protection!.Short.BankOhm - bank.Bus!.PathOhm!.Value;
        Assert.Equal(within / (2 * 4.95e-3), finding.Figures[2].Value, 9);
        Assert.Equal(["A current-limiting fuse here, 30 A", "Use 6 mm²"], finding.Mends.Select(m => m.Label));
        foreach (var mend in finding.Mends)
            Assert.Null(DesignFormat.With(Feed("4 mm²"), mend.Changes).Finding("fuse.relies"));
        // Harmless, and a line in the schedule.
        Assert.Null(Feed("6 mm²").Finding("fuse.relies"));
        Assert.Null(Some.Marrow.Finding("fuse.relies"));
        Assert.Contains(Schedules.Work(Feed("6 mm²"), 0)!.Fuses, f => f.ReliesOn == "the 200 A main fuse");
        var bare = Some.Marrow.With(
            ("~/runs/0/fuse/class", "strip-32"),
            (
                "~/runs/-",
                new Run
                {
                    Id = "converter-12",
                    Fuse = new() { Class = "blade-32" },
                }
            )
        );
        Assert.DoesNotContain(bare.Findings(), f => f.Rule == "fuse.relies");
        Assert.Contains(bare.Findings(), f => f.Rule == "fuse.interrupt" && f.Place == "/banks/0/circuits/2" && f.Grade == Grade.Danger);
        // Left to itself the tool takes a class that breaks it.
        Assert.DoesNotContain(Some.Marrow.With(("~/runs/0/fuse/class", "strip-32")).Findings(), f =>
            f.Rule == "fuse.interrupt" && f.Place != "/banks/0/runs"
        );
    }

    /// <summary>
    /// 72 W at 24 V, 3 A; at its start 600 W, 25 A for 3 s. Advised is what holds it by a third of its typical time; a 4 A blade, six times
    /// overloaded, opens at once.
    /// </summary>
    [Fact]
    public void A_fuse_that_opens_at_the_start_of_its_load()
    {
        Load Pump(double seconds) =>
            new()
            {
                Id = "pump",
                Name = "Pump",
                Kind = LoadKind.Dc,
                Watts = 72,
                SurgeWatts = 600,
                StartSeconds = seconds,
                Hours = 1,
            };
        // Close to the bus: what the main fuse lets through there its copper stands, so that a blade fuse may leave a short to it.
        var advised = Some.Marrow.With(("~/demand/loads/-", Pump(3)), ("~/runs/-", new Run { Id = "load-pump", LengthM = 1 }));
        Assert.Null(advised.Finding("fuse.start"));
        var rating = advised.Bank().Circuits.Single(c => c.Id == "load-pump").Run.Fuse.RatingA!.Value;
        var blade = FuseClasses.Get("blade-32");
        Assert.True(Fuse.Holds(blade, rating, 25, 3));
        Assert.All(blade.RatingsA.Where(r => r >= 3.75 && r < rating), r => Assert.False(Fuse.Holds(blade, r, 25, 3)));
        var slow = Some.Marrow.With(
            ("~/demand/loads/-", Pump(3)),
            (
                "~/runs/-",
                new Run
                {
                    Id = "load-pump",
                    LengthM = 1,
                    Fuse = new() { RatingA = 4 },
                }
            )
        );
        var finding = slow.Finding("fuse.start")!;
        Assert.Equal((Grade.Fault, 25.0, 3.0), (finding.Grade, finding.Figures[0].Value, finding.Figures[1].Value));
        Assert.Null(slow.Mended("fuse.start").Finding("fuse.start"));
        Assert.Null(Some.Marrow.With(("~/demand/loads/-", Pump(3) with { SurgeWatts = 0 })).Finding("fuse.start"));
    }

    [Fact]
    public void No_disconnect()
    {
        var none = Some.Marrow.With(("~/runs/0/switch", new RunSwitch { Absent = true }));
        Assert.Equal(Grade.Caution, none.Finding("switch.none")!.Grade);
        Assert.Null(none.Mended("switch.none").Finding("switch.none"));
        Assert.Null(Some.Marrow.Finding("switch.none"));
        // One joint less in the loop: 0.1 mΩ.
        Assert.Equal(0.0001, Some.Marrow.Bank().MainRun!.Joints.Ohm - none.Bank().MainRun!.Joints.Ohm, 12);
    }

    [Fact]
    public void No_pre_charge()
    {
        var bare = Some.Marrow.With(("~/runs/0/preCharge", false));
        Assert.Equal(Grade.Caution, bare.Finding("precharge.none")!.Grade);
        Assert.Null(bare.Mended("precharge.none").Finding("precharge.none"));
        Assert.Null(Some.Marrow.Finding("precharge.none"));
        // At 12 V the spark is small.
        Assert.Null(Some.New(Some.Ac("heater", 1500, 1)).With(("~/systemV", 12)).Finding("precharge.none"));
    }

    [Fact]
    public void Bus_bars_made_for_less_than_the_fuse()
    {
        var thin = Some.Marrow.With(("~/runs/0/busRatingA", 150));
        Assert.Equal((Grade.Danger, 200.0), (thin.Finding("bus.rating")!.Grade, thin.Finding("bus.rating")!.Figures[1].Value));
        Assert.Null(thin.Mended("bus.rating").Finding("bus.rating"));
        Assert.Null(Some.Marrow.With(("~/runs/0/busRatingA", 250)).Finding("bus.rating"));
    }

    [Fact]
    public void Bonding_missing_or_thin()
    {
        var none = Some.Marrow.With(("~/runs/-", new Run { Id = Run.BondingId, Absent = true }));
        Assert.Equal("No bonding conductor", none.Finding("bonding")!.Title);
        Assert.Null(none.Mended("bonding").Finding("bonding"));
        var thin = Some.Marrow.With(("~/runs/-", new Run { Id = Run.BondingId, Size = "6 mm²" }));
        Assert.Equal("6 mm² is thin for a bonding conductor", thin.Finding("bonding")!.Title);
        Assert.Null(thin.Mended("bonding").Finding("bonding"));
        Assert.Null(Some.Marrow.Finding("bonding"));
    }

    [Fact]
    public void Conductors_in_parallel_of_unequal_length_or_in_a_bundle()
    {
        var uneven = Some.Marrow.With(("~/runs/0", Main with { Size = "50 mm²", Parallel = 2, ConductorLengthsM = [2, 3] }));
        Assert.Equal(Grade.Caution, uneven.Finding("cable.unequal")!.Grade);
        Assert.Null(uneven.Mended("cable.unequal").Finding("cable.unequal"));
        Assert.Null(
            Some.Marrow.With(("~/runs/0", Main with { Size = "50 mm²", Parallel = 2, ConductorLengthsM = [2, 2] })).Finding("cable.unequal")
        );
    }

    /// <summary>Three of 50 mm² laid apart carry 690 A, four to six in a bundle 60 %: 414 A, below the 450 A fuse.</summary>
    [Fact]
    public void Nothing_said_of_conductors_that_touch()
    {
        var laid = Some.Marrow.With(
            (
                "~/runs/0",
                Main with
                {
                    Size = "50 mm²",
                    Parallel = 3,
                    Fuse = new() { RatingA = 450 },
                }
            )
        );
        var finding = laid.Finding("cable.bundled")!;
        Assert.Equal((Grade.Caution, 690 * 0.6), (finding.Grade, Math.Round(finding.Figures[0].Value, 6)));
        Assert.Null(laid.Mended("cable.bundled").Finding("cable.bundled"));
        Assert.Null(DesignFormat.With(laid, finding.Mends[1].Changes).Finding("cable.bundled"));
        Assert.Null(Some.Marrow.With(("~/runs/0", Main with { Size = "50 mm²", Parallel = 2 })).Finding("cable.bundled"));
    }

    /// <summary>
    /// One string out: three share the fuse's 200 A, over the 100 A of 16 mm²? 2S4P same end: string A's neighbour takes most.
    /// </summary>
    [Fact]
    public void Jumpers_thinner_than_the_fuse_allows()
    {
        var thin = Some.Marrow.With(("~/wiring/jumper", new Design.Conductor { Size = "6 mm²" }));
        var finding = thin.Finding("jumpers.thin")!;
        Assert.Equal(
            (Grade.Danger, thin.Bank().Network!.Held.StringA, 50.0),
            (finding.Grade, finding.Figures[0].Value, finding.Figures[1].Value)
        );
        Assert.Null(thin.Mended("jumpers.thin").Finding("jumpers.thin"));
        Assert.Null(Some.Marrow.Finding("jumpers.thin"));
        Assert.StartsWith(
            "Load, fuse and copper must rise in that order: not in the jumpers",
            thin.Bank().Headlines[Station.Cables],
            StringComparison.Ordinal
        );
    }

    [Fact]
    public void String_fuses_taken_out_or_wrong()
    {
        var none = Some.Marrow.With(
            (
                "~/runs/-",
                new Run
                {
                    Id = Run.StringsId,
                    Fuse = new() { Absent = true },
                }
            )
        );
        Assert.Equal(Grade.Caution, none.Finding("strings.unfused")!.Grade);
        Assert.Null(none.Mended("strings.unfused").Finding("strings.unfused"));
        Assert.Null(
            none.With(("/houseRules/own", new Dictionary<string, object> { ["fuse-each-string"] = "none" })).Finding("strings.unfused")
        );
        Assert.Null(Some.Marrow.Finding("strings.unfused"));

        // Below what string A carries; above what its BMS gives for a moment; a class that cannot break the others' short.
        DesignDocument Pinned(RunFuse fuse) => Some.Marrow.With(("~/runs/-", new Run { Id = Run.StringsId, Fuse = fuse }));
        Assert.Equal(
            (Grade.Fault, "The 110 A string fuses are too small"),
            (Pinned(new() { RatingA = 110 }).Finding("strings.fuse")!.Grade, Pinned(new() { RatingA = 110 }).Finding("strings.fuse")!.Title)
        );
        Assert.Equal("The 225 A string fuses are above a BMS’s peak", Pinned(new() { RatingA = 225 }).Finding("strings.fuse")!.Title);
        Assert.Equal(
            (Grade.Danger, "The string fuses cannot break a short"),
            (
                Pinned(new() { Class = "sf51-32" }).Finding("strings.fuse")!.Grade,
                Pinned(new() { Class = "sf51-32" }).Finding("strings.fuse")!.Title
            )
        );
        Assert.Null(Pinned(new() { RatingA = 225 }).Mended("strings.fuse").Finding("strings.fuse"));
        Assert.Null(Some.Marrow.Finding("strings.fuse"));
    }

    [Fact]
    public void The_headline_says_what_is_wrong_first()
    {
        Assert.Equal("50 mm² behind a 200 A fuse: load, fuse and copper rise in that order", Some.Marrow.Bank().Headlines[Station.Cables]);
        Assert.Equal(
            "The main run is well; Ceiling lights has no fuse",
            Lights(new() { Fuse = new() { Absent = true } }).Bank().Headlines[Station.Cables]
        );
        Assert.Contains(
            "not in the links",
            Some.Marrow.With(("~/wiring/link", new Design.Conductor { Size = "35 mm²" })).Bank().Headlines[Station.Cables],
            StringComparison.Ordinal
        );
        // Two strings cannot give what the loads ask: the batteries are the news.
        Assert.StartsWith(
            "The batteries stop first",
            Some.Marrow.With(("~/parallel", 1)).Bank().Headlines[Station.Cables],
            StringComparison.Ordinal
        );
    }
}

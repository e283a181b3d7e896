using InkyBadger.Core.Design;
using InkyBadger.Core.Findings;
using InkyBadger.Core.Reference;
using InkyBadger.Core.Wiring;

namespace InkyBadger.Core.Tests.Designs;

/// <summary>Protection in time of a design: the chart of each run, and what is found by it.</summary>
public class ProtectionChartTests
{
    private static readonly DesignDocument Bus = Some.Demo("Marrow");

    private static ProtectionChartResult Chart(DesignDocument design, string run, double? amps = null, double? metres = null) =>
        ProtectionChart.Work(design, 0, run, amps, metres)!;

    /// <summary>The run in the place of what the document has of it.</summary>
    private static DesignDocument With(DesignDocument design, Run run) =>
        design.With(("~/runs", design.Banks[0].Runs.Where(r => r.Id != run.Id).Append(run).ToList()));

    /// <summary>
    /// The plug's 40 A bolt-in breaks 2 kA; the bank pushes 10.55 kA to the bus and 1.79 kA through 2 m of 6 mm² (3.08 mΩ/m each way).
    /// </summary>
    [Fact]
    public void A_charge_run_of_the_bus()
    {
        var chart = Chart(Bus, "source-shore");
        Assert.Equal(("sf51-32", 40.0), (FuseClasses.Get("sf51-32").Id, chart.Own!.RatingA));
        Assert.Equal((2000.0, 20000.0), (chart.Own.BreaksA, chart.Upstream!.BreaksA));
        var e = Bus.Bank();
        var (openV, ohm) = (e.Protection!.Short.OpenV, e.Protection.Short.BankOhm + e.Bus!.PathOhm!.Value);
        Assert.Equal(openV / ohm, chart.ShortA!.Value, 6);
        var perM = 2 * Conductors.Get("6 mm²").R20MilliohmPerM / 1000;
        Assert.Equal(openV / (ohm + 2 * perM), chart.EndA!.Value, 6);
        Assert.Equal(openV / (ohm + perM), Chart(Bus, "source-shore", metres: 1).Probe!.Amps, 6);
        Assert.Equal(1, Chart(Bus, "source-shore", amps: openV / (ohm + perM)).Probe!.Metres!.Value, 9);
        // (100 × 6)² A²s for thermoplastic of 90 °C.
        Assert.Equal(360_000, chart.Copper!.WithstandsA2s, 6);
        Assert.Equal(Math.Sqrt(360_000 / 5.0), chart.Copper.FiveSecondsA, 6);
        Assert.Empty(chart.Burns);
        Assert.StartsWith("No short on Plug spares the 200 A main fuse: the 40 A opens first only up to", chart.Headline);
        // Where the striped field begins both may open at one and the same time.
        var corner = chart.Both.Single().Points[0];
        Assert.Equal(chart.AloneUpToA!.Value, corner.Amps, corner.Amps * 1e-6);
        Assert.Equal(corner.FromS, corner.ToS!.Value, corner.FromS * 1e-6);
        // Beyond what it breaks the own fuse counts for nothing.
        var far = Chart(Bus, "source-shore", amps: 3000).Probe!;
        Assert.Equal((false, true), (far.Who.Single(w => w.Who == "own").Breaks, far.Who.Single(w => w.Who == "upstream").Breaks));
        Assert.Equal("The 200 A main fuse, for it is more than its own breaks", far.Sentence);
        Assert.Equal(360_000 / 9e6, far.Who.Single(w => w.Who == "copper").ToS!.Value, 9);
        Assert.Equal(far.Who.Single(w => w.Who == "copper").ToS, far.Working.Single().Value);
    }

    /// <summary>4 mm² stands 160,000 A²s; the 200 A main fuse lets 230,400 through, three times what is typical.</summary>
    [Fact]
    public void A_branch_that_its_upstream_fuse_does_not_save_and_its_mends()
    {
        var thin = With(
            Bus,
            new Run
            {
                Id = "source-shore",
                Size = "4 mm²",
                Fuse = new() { Class = "sf51-32" },
            }
        );
        var finding = thin.Findings().Single(f => f.Rule == "fuse.relies");
        Assert.Equal(Grade.Danger, finding.Grade);
        Assert.Equal(160_000, finding.Figures.Single(f => f.Label == "the cable stands").Value, 6);
        var chart = Chart(thin, "source-shore");
        Assert.Equal(2, chart.Tabs.Single(t => t.Run == "source-shore").Mark);
        Assert.Contains("burn", chart.Headline);
        var field = chart.Burns.Single();
        Assert.Equal(2000, field.Points[0].Amps, 1);
        Assert.All(field.Points, p => Assert.Equal(160_000, p.FromS * p.Amps * p.Amps, 1e-3 * 160_000));
        // What is let through goes down to the last point of the curve, and stays there.
        var main = FuseClasses.Get("class-t");
        Assert.Equal(Fuse.MostLetThroughA2s(main, 200, 2000, chart.ShortA!.Value), finding.Figures[0].Value, 6);
        foreach (var mend in finding.Mends)
        {
            var mended = DesignFormat.With(thin, mend.Changes);
            Assert.Empty(Chart(mended, "source-shore").Burns);
            Assert.Null(mended.Finding("fuse.relies"));
        }
        Assert.Equal(2, finding.Mends.Count);
    }

    [Fact]
    public void Farther_along_less_flows_for_longer_and_more_is_let_through()
    {
        var main = FuseClasses.Get("class-t");
        // 5 times for 0.25 s against 8 times for 0.03 s: 3 × 250,000 and 3 × 76,800 A²s at 200 A.
        Assert.Equal(750_000, Fuse.LetThroughA2s(main, 200, 1000), 6);
        Assert.Equal(230_400, Fuse.LetThroughA2s(main, 200, 1600), 6);
        Assert.Equal(750_000, Fuse.MostLetThroughA2s(main, 200, 1000, 9000), 6);
        Assert.Equal(230_400, Fuse.MostLetThroughA2s(main, 200, 1700, 9000), 6);
    }

    /// <summary>A breaker holds its last time: with one string some 4 kA flow for it, and 1.5 mm² stands 22,500 A²s.</summary>
    [Fact]
    public void A_breaker_that_is_slower_than_its_copper()
    {
        var slow = With(
            Bus.With(("~/parallel", 1)),
            new Run
            {
                Id = "converter-12",
                Size = "1.5 mm²",
                Fuse = new() { Class = "breaker-80", RatingA = 15 },
            }
        );
        var finding = slow.Findings().SingleOrDefault(f => f.Rule == "fuse.burns");
        Assert.NotNull(finding);
        Assert.Equal(Grade.Danger, finding.Grade);
        Assert.NotEmpty(finding.Mends);
        Assert.Null(DesignFormat.With(slow, finding.Mends[0].Changes).Finding("fuse.burns"));
        Assert.Null(Bus.Finding("fuse.burns"));
    }

    [Fact]
    public void A_fuse_that_takes_the_main_fuse_along_and_the_class_that_spares_it()
    {
        var finding = Bus.Findings().First(f => f.Rule == "fuse.together" && f.Title.StartsWith("Plug", StringComparison.Ordinal));
        Assert.Equal((Grade.Caution, "Plug: a short here may darken all"), (finding.Grade, finding.Title));
        Assert.Equal(Chart(Bus, "source-shore").AloneUpToA!.Value, finding.Figures.Single(f => f.Label == "alone up to").Value, 9);
        Assert.Contains("1.8 kA", finding.Why);
        var mend = finding.Mends.Single();
        Assert.Equal("Use class T 35 A", mend.Label);
        var mended = DesignFormat.With(Bus, mend.Changes);
        Assert.DoesNotContain(mended.Findings(), f => f.Rule == "fuse.together" && f.Title.StartsWith("Plug", StringComparison.Ordinal));
        Assert.Equal("A short on Plug opens its 35 A fuse and no other, whatever it draws", Chart(mended, "source-shore").Headline);
        Assert.Empty(Chart(mended, "source-shore").Both);
    }

    /// <summary>Four string fuses of 125 A let 500 A and more through together: twice the main fuse's 200 A, of one family.</summary>
    [Fact]
    public void String_fuses_against_the_main_fuse()
    {
        var chart = Chart(Bus, Run.MainId);
        var share = Bus.Bank().Network!.Strings.WorstShare;
        Assert.Equal((Run.StringsId, 125 / share), (chart.Upstream!.Run, chart.Upstream.RatingA));
        Assert.Equal("A short on the main run opens its 200 A fuse and no other, whatever it draws", chart.Headline);
        DesignDocument Strings(double rating, string id = "class-t") =>
            With(
                Bus,
                new Run
                {
                    Id = Run.StringsId,
                    Fuse = new() { RatingA = rating, Class = id },
                }
            );
        var both = Strings(125, "sf51-32").Findings().First(f => f.Rule == "fuse.together");
        Assert.Equal("A short beyond the main fuse may open the string fuses too", both.Title);
    }

    /// <summary>A run of 250 A on its own: at the 645 A that the strings give for 10 s its fuse may take 22 s.</summary>
    [Fact]
    public void A_BMS_that_opens_before_the_fuse_of_a_branch()
    {
        Run Own(double rating) =>
            new()
            {
                Id = "windlass",
                From = "bus",
                To = "windlass",
                Amps = 28,
                LengthM = 3,
                Fuse = new() { RatingA = rating, Class = "class-t" },
            };
        var late = With(Bus, Own(250)).Finding("fuse.bms-first");
        Assert.Equal(Grade.Caution, late!.Grade);
        var strings = Bus.Bank().Network!.Strings.Shares;
        Assert.Equal(200 / strings.Max(), late.Figures[0].Value, 6);
        Assert.Null(With(Bus, Own(35)).Finding("fuse.bms-first"));
        Assert.Null(With(Bus, Own(250)).Mended("fuse.bms-first").Finding("fuse.bms-first"));
    }

    [Fact]
    public void Wire_that_is_too_fine_for_the_house_rules()
    {
        var fine = With(Bus, new Run { Id = "load-l5", Size = "0.75 mm²" });
        var finding = fine.Finding("cable.fine")!;
        Assert.Equal((Grade.Caution, 0.75, 1.5), (finding.Grade, finding.Figures[0].Value, finding.Figures[1].Value));
        var lean = fine.With(("/houseRules/own", new Dictionary<string, object> { ["least-size"] = 0.75 }));
        Assert.Null(lean.Finding("cable.fine"));
        Assert.Null(Bus.Finding("cable.fine"));
        var link = Bus.With(("~/wiring/link", new Core.Design.Conductor { Size = "10 mm²" }));
        Assert.Equal((10.0, 16.0), (link.Finding("copper.fine")!.Figures[0].Value, link.Finding("copper.fine")!.Figures[1].Value));
        Assert.Null(
            link.With(("/houseRules/own", new Dictionary<string, object> { ["least-size-battery"] = "none" })).Finding("copper.fine")
        );
        Assert.Null(link.Mended("copper.fine").Finding("copper.fine"));
    }

    [Fact]
    public void Without_a_fuse_the_copper_ends_it_and_behind_a_converter_there_is_no_wall()
    {
        var bare = Bus.With(
            ("~/runs/0/fuse/absent", true),
            (
                "~/runs/-",
                new Run
                {
                    Id = Run.StringsId,
                    Fuse = new() { Absent = true },
                }
            )
        );
        Assert.Equal("Nothing opens: a short here is ended by the copper", Chart(bare, Run.MainId).Headline);
        var lights = Chart(Bus, "load-l5");
        Assert.True(lights.Behind);
        Assert.Null(lights.ShortA);
        Assert.Null(lights.Upstream);
        Assert.StartsWith("A converter limits what a short on Ceiling lights draws", lights.Headline);
        Assert.Null(ProtectionChart.Work(NewDesign.Empty("Empty"), 0, Run.MainId));
    }

    [Fact]
    public void A_house_rule_takes_a_fuses_times_apart_otherwise()
    {
        DesignDocument Rule(double spread) => Bus.With(("/houseRules/own", new Dictionary<string, object> { ["fuse-spread"] = spread }));
        double Alone(double spread) => Chart(Rule(spread), "source-shore").AloneUpToA ?? 0;
        Assert.True(Alone(4) < Alone(3) && Alone(3) < Alone(2));
        var point = Chart(Rule(2), "source-shore").Own!.Points[0];
        Assert.Equal((point.Seconds / 2, point.Seconds * 2), (point.LeastS, point.MostS));
    }

    [Fact]
    public void The_table_has_each_crossing_and_says_who_is_first()
    {
        var chart = Chart(Bus, "source-shore");
        Assert.Equal(chart.Rows.Select(r => r.Amps).Order(), chart.Rows.Select(r => r.Amps));
        Assert.Contains(chart.Rows, r => Math.Abs(r.Amps - chart.AloneUpToA!.Value) < 1e-6);
        Assert.Contains(chart.Rows, r => r.Amps == 2000);
        foreach (var row in chart.Rows)
            Assert.Equal(
                row.Amps < chart.AloneUpToA * (1 + 1e-9) ? "its own fuse alone"
                    : row.Amps <= 2000 ? "either, or both"
                    : "the 200 A main fuse, for it is more than its own breaks",
                row.First
            );
    }
}

using InkyBadger.Core.Design;
using InkyBadger.Core.Reference;
using InkyBadger.Core.Wiring;

namespace InkyBadger.Core.Tests.Designs;

/// <summary>Sizes and classes tried on a run, house rules tried on the design, and the lists to build by.</summary>
public class RunTrialTests
{
    private static RunTrialsResult Trials(DesignDocument design, string run) => RunTrials.Work(design, 0, run)!;

    /// <summary>"I have 35 mm²": it carries 185 A, more than the 144.3 A that flow, but less than the 200 A fuse lets through.</summary>
    [Fact]
    public void A_size_on_hand_is_tried_against_the_need()
    {
        var t = Trials(Some.Marrow, "main");
        SizeTrial Of(string size, int m = 1) => t.Sizes.Single(s => s.Size == size && s.Conductors == m);
        Assert.Equal(
            (185.0, true, false, true, false),
            (Of("35 mm²").AmpacityA, Of("35 mm²").AmpacityOk, Of("35 mm²").FuseOk, Of("35 mm²").DropOk, Of("35 mm²").Fits)
        );
        Assert.Equal((true, true, true), (Of("50 mm²").Fits, Of("50 mm²").Here, Of("50 mm²").Advised));
        Assert.False(Of("16 mm²").AmpacityOk);
        // What is laid drops in the trial what it drops in the design.
        var run = Some.Marrow.Bank().MainRun!;
        Assert.Equal((run.Drop.V!.Value, run.Drop.HeatW!.Value), (Of("50 mm²").DropV, Of("50 mm²").HeatW));
        // In parallel only from 50 mm² on, to three.
        Assert.DoesNotContain(t.Sizes, s => s.Conductors > 1 && s.AreaMm2 < 50);
        Assert.Equal(460, Of("50 mm²", 2).AmpacityA);
        // 2 × 2.5 m at 10 and four lugs at 2.40.
        Assert.Equal(59.6, Of("50 mm²").Price!.Value, 9);
    }

    [Fact]
    public void What_one_size_up_buys()
    {
        var up = Trials(Some.Marrow, "main").Up!;
        Assert.Equal(("70 mm²", 1), (up.Size, up.Conductors));
        // 2 × 2.5 m at 14 and four lugs at 3.20 are 82.8, 23.2 more.
        Assert.Equal(23.2, up.CostsMore!.Value, 9);
        var then = Some.Marrow.With(("~/runs/0/size", "70 mm²")).Bank().MainRun!;
        Assert.Equal(Some.Marrow.Bank().MainRun!.Drop.V!.Value - then.Drop.V!.Value, up.SavesV, 9);
        Assert.Equal(Some.Marrow.Bank().MainRun!.Drop.HeatW!.Value - then.Drop.HeatW!.Value, up.SavesW, 9);
        Assert.Equal(up.SavesV / 25.6, up.SavesFraction, 9);
    }

    /// <summary>At the bus a blade fuse fits only because the class T upstream breaks what it cannot.</summary>
    [Fact]
    public void A_class_that_relies_on_the_one_upstream()
    {
        var feed = Trials(Some.Marrow, "converter-12");
        FuseTrial Of(RunTrialsResult t, string id) => t.Classes.Single(c => c.Id == id);
        Assert.Equal((true, true), (Of(feed, "blade-32").Fits, Of(feed, "blade-32").Relies));
        Assert.Equal([FuseFailure.Interrupt], Of(feed, "blade-32").Fails);
        // Class T, 30 A, would be above 1.5 mm²; the feed has what stands the 200 A main fuse’s let-through.
        Assert.True(Of(feed, "class-t").Fits);
        Assert.Equal("6 mm²", Some.Marrow.Bank().Circuits.Single(c => c.Id == "converter-12").Run.Cable.Size);
        // With a strip fuse upstream nothing breaks it.
        Assert.False(Of(Trials(Some.Marrow.With(("~/runs/0/fuse/class", "strip-32")), "converter-12"), "blade-32").Fits);
        Assert.Equal((true, false), (Of(Trials(Some.Marrow, "main"), "class-t").Fits, Of(Trials(Some.Marrow, "main"), "class-t").Relies));
        Assert.Null(RunTrials.Work(Some.Marrow, 0, "nothing"));
    }

    [Fact]
    public void The_fuse_schedule()
    {
        var fuses = Schedules.Work(Some.Marrow, 0)!.Fuses;
        Assert.Equal(["Main fuse", "String fuses", "Roof", "Shore", "12 V converter", "Ceiling lights"], fuses.Select(f => f.Name));
        Assert.Equal(
            (1, 200.0, "50 mm²", 0.15, false),
            (fuses[0].Count, fuses[0].RatingA, fuses[0].Protects, fuses[0].DistanceM, fuses[0].Chosen)
        );
        Assert.Equal((4, 125.0), (fuses[1].Count, fuses[1].RatingA));
        Assert.Equal(("the 200 A main fuse", (string?)null), (fuses[4].ReliesOn, fuses[5].ReliesOn));
        Assert.True(Schedules.Work(Some.Marrow.With(("~/runs/0/fuse/ratingA", 225)), 0)!.Fuses[0].Chosen);
        Assert.DoesNotContain(Schedules.Work(Some.Marrow.With(("~/runs/0/fuse/absent", true)), 0)!.Fuses, f => f.Name == "Main fuse");
    }

    /// <summary>
    /// The pieces of each pole add up to the run; six links, four jumpers; red 0.15 + 0.35 + 0.5 + 1.5 + 3 × 0.35 = 3.55 m of 50 mm².
    /// </summary>
    [Fact]
    public void The_cut_list()
    {
        var list = Schedules.Work(Some.Marrow, 0)!;
        CableRow Of(string label) => list.Cables.Single(c => c.Label == label);
        Assert.Equal([0.15, 0.35, 0.5, 1.5], list.Cables.Where(c => c.Label.StartsWith('M') && c.Pole == "plus").Select(c => c.LengthM));
        Assert.Equal([0.4, 0.6, 1.5], list.Cables.Where(c => c.Label.StartsWith('M') && c.Pole == "minus").Select(c => c.LengthM));
        Assert.Equal(
            ("battery post +", "main fuse", "red", "50 mm² × M8", 2),
            (Of("M1+").From, Of("M1+").To, Of("M1+").Colour, Of("M1+").ToLug, Of("M1+").Covers)
        );
        Assert.Equal(("negative bus", "inverter −", "black", 0), (Of("M3−").From, Of("M3−").To, Of("M3−").Colour, Of("M3−").Covers));
        Assert.Equal(("roof", "positive bus", "6 mm²"), (Of("C1+").From, Of("C1+").To, Of("C1+").Size));
        Assert.Equal((4, 3, 3), (Of("J1").Pieces, Of("L1").Pieces, Of("L2").Pieces));
        Assert.Equal("25 mm²", Of("E1").Size);
        var red = list.Totals.Single(t => t.Size == "50 mm²" && t.Colour == "red");
        Assert.Equal((3.55, 7, 14), (Math.Round(red.Metres, 9), red.Pieces, red.Lugs));
        // Two conductors in parallel are cut twice.
        var twice = Schedules
            .Work(Some.Marrow.With(("~/runs/0/size", "50 mm²"), ("~/runs/0/parallel", 2)), 0)!
            .Cables.Single(c => c.Label == "M1+");
        Assert.Equal((2, 4), (twice.Pieces, twice.Covers));
        Assert.DoesNotContain(Schedules.Work(Some.Marrow.With(("~/runs/-", new Run { Id = Run.BondingId, Absent = true })), 0)!.Cables, c =>
            c.Label == "E1"
        );
        Assert.Null(Schedules.Work(NewDesign.Empty("New"), 0));
    }

    /// <summary>What is neither fuse nor cable: 144.3 A for good, 283.7 A at the lift's start, 29.2 V.</summary>
    [Fact]
    public void Parts_that_are_forgotten_easily()
    {
        var parts = Schedules.Work(Some.Marrow, 0)!.Parts;
        var surge = Some.Marrow.Bank().Currents!.SurgeWorstA;
        Assert.Equal(
            ["Disconnect", "Bus bar", "Shunt with monitor", "Pre-charge resistor with button", "12 V converter"],
            parts.Select(p => p.Name)
        );
        Assert.Equal(
            $"144.3 A for good, {surge.ToString("0.0", System.Globalization.CultureInfo.InvariantCulture)} A at a start, 29.2 V DC",
            parts[0].Least
        );
        Assert.Equal((2, "200 A, covered"), (parts[1].Count, parts[1].Least));
        Assert.DoesNotContain(Schedules.Work(Some.Marrow.With(("~/runs/0/switch", new RunSwitch { Absent = true })), 0)!.Parts, p =>
            p.Name == "Disconnect"
        );
    }

    /// <summary>The network's copper ends at its own studs: M8 by the data sheet; a fuse on 70 mm² has M10.</summary>
    [Fact]
    public void Lugs_by_copper_and_stud()
    {
        var list = Schedules.Work(
            Some.Marrow.With(("~/runs/0/size", "70 mm²"), ("~/unit", Some.Unit("lfp-12-100") with { Stud = "M6" })),
            0
        )!;
        Assert.Equal(("70 mm² × M6", "70 mm² × M10"), (list.Cables[0].FromLug, list.Cables[0].ToLug));
        Assert.Equal("as the device takes", list.Cables.Single(c => c.Label == "C4+").FromLug);
        Assert.Equal(0, list.Totals.Single(t => t.Size == "4 mm²" && t.Colour == "red").Lugs);
    }
}

using InkyBadger.Core.Design;
using InkyBadger.Core.Findings;
using InkyBadger.Core.Rehearsal;
using InkyBadger.Core.Sheets;
using InkyBadger.Core.Tests.Laws;

namespace InkyBadger.Core.Tests.Designs;

/// <summary>What goes dark when one thing opens, and what must not.</summary>
public class DarkTests
{
    private static readonly DesignDocument Bus = Some.Demo("Marrow");

    private static DarkElement Opens(DesignDocument design, string id) => GoesDark.Work(design, 0)!.Elements.Single(e => e.Id == id);

    /// <summary>Five AC loads hang on the inverter, the ceiling lights on the converter: 3,340 and 96 W.</summary>
    [Fact]
    public void Each_thing_on_the_way_of_the_bus()
    {
        var dark = GoesDark.Work(Bus, 0)!;
        Assert.Equal("Any one of 3 things darkens all: the main fuse, the disconnect or the + bus", dark.Headline);
        var inverter = Opens(Bus, "inverter");
        Assert.Equal((5, 1, 3340.0, 96.0), (inverter.Lost.Count, inverter.Kept.Count, inverter.LostW, inverter.KeptW));
        Assert.Equal(["l5"], Opens(Bus, "run-converter-12").Lost);
        Assert.True(Opens(Bus, "main-fuse").Blackout);
        Assert.Empty(Opens(Bus, "string-1").Lost);
        Assert.Null(GoesDark.Work(NewDesign.Empty("Empty"), 0));
        // Without a disconnect it is no thing that opens.
        Assert.DoesNotContain(GoesDark.Work(Bus.With(("~/runs/0/switch/absent", true)), 0)!.Elements, e => e.Id == "main-switch");
    }

    /// <summary>The trailer's string B carries most: without it A is over its limit, and all is dark.</summary>
    [Fact]
    public void A_string_that_takes_the_other_along()
    {
        var trailer = Some.Demo("Tern");
        var e = trailer.Bank();
        Assert.NotNull(e.Network!.OneOut.BlackoutAfter);
        var taken = Opens(trailer, $"string-{e.Network.OneOut.BlackoutAfter}");
        Assert.Equal((true, 1), (taken.Blackout, taken.Follows.Count));
    }

    /// <summary>With the AC side drawn, transfer switch, panel and circuit stand on the way too.</summary>
    [Fact]
    public void The_AC_side_is_on_the_way()
    {
        var design = Bus.With(("/acSide", AcSides.Start(Bus, AcStart.PassThrough)));
        Assert.Equal(["l2"], Opens(design, "ac-circuit-b1-l2").Lost);
        Assert.Equal(5, Opens(design, "ac-change").Lost.Count);
        Assert.Equal(["ac-panel"], Opens(design, "ac-circuit-b1-l2").FedBy);
    }

    [Fact]
    public void What_must_not_go_dark_is_told_until_it_has_a_reserve()
    {
        var marked = Bus.With(("~/demand/loads/5/mustStay", true));
        var finding = marked.Finding("dark.single")!;
        Assert.Equal(
            (Grade.Caution, "Staff fridge goes dark when one thing opens", 4.0),
            (finding.Grade, finding.Title, finding.Figures[0].Value)
        );
        Assert.Null(Bus.Finding("dark.single"));
        var mended = marked.Mended("dark.single");
        Assert.True(mended.Banks[0].Demand.Loads[5].HasReserve);
        Assert.Null(mended.Finding("dark.single"));
        Assert.Equal("What must not go dark has a reserve of its own", GoesDark.Work(mended, 0)!.Headline);
    }

    /// <summary>Without any source the bus is dark from some day on: the fridge for every hour of it, at one stretch.</summary>
    [Fact]
    public void The_year_counts_its_dark_hours()
    {
        var marked = Bus.With(("~/demand/loads/5/mustStay", true), ("~/sources", Array.Empty<Source>()));
        var run = YearRun.Of(marked, 0);
        while (run.Next() is not null) { }
        var outcome = run.Outcome()!;
        var stay = outcome.Stays.Single();
        Assert.Equal(("Staff fridge", false), (stay.Name, stay.HasReserve));
        Assert.True(stay.Hours > 300 * 24, $"{stay.Hours} h");
        Assert.Equal(stay.Hours, stay.LongestH, 6);
        Assert.True(stay.Hours <= outcome.DarkH + 1e-6);
    }

    [Fact]
    public void Papers_and_bring_up_take_it_over()
    {
        var design = Bus.With(("/acSide", AcSides.Start(Bus, AcStart.SeparatePanel)), ("/tables", Documents.Brought));
        var tables = Footing.Tables(new PaperSite(design));
        Assert.Contains(tables, t => t.Contains("Flexible welding cable") && t.Contains("a sheet of the shop's"));
        // A fuse class that no run uses is not named.
        Assert.DoesNotContain(tables, t => t.Contains("Fast fuse"));
        var steps = BringUp.BringUpWalk.Work(design).Steps;
        var positions = steps.Where(s => s.Key.Contains("ac-")).ToList();
        Assert.Equal(3, positions.Count);
        Assert.Contains(positions, s => s.List.Any(l => l.StartsWith("Dark, proven", StringComparison.Ordinal)));
    }
}

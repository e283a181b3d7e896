using InkyBadger.Core.Demo;
using InkyBadger.Core.Design;
using InkyBadger.Core.Findings;
using InkyBadger.Core.Work;

namespace InkyBadger.Core.Tests.Designs;

/// <summary>What one begins with: every station says something true at once, and what is assumed is marked.</summary>
public class StartTests
{
    public static TheoryData<string> Keys { get; } = [.. StartingSituations.All.Select(s => s.Key)];

    [Fact]
    public void There_are_a_dozen_and_each_is_another() =>
        Assert.True(StartingSituations.All.DistinctBy(s => (s.Title, s.Design.Name, s.Words)).Count() >= 12);

    [Theory]
    [MemberData(nameof(Keys))]
    public void A_situation_is_filled_so_far_that_every_station_says_something_true(string key)
    {
        var design = StartingSituations.All.Single(s => s.Key == key).Design;
        Assert.Empty(DesignCheck.Faults(design));
        var e = Evaluator.Evaluate(design);
        var b = e.Banks[0];
        Assert.Null(e.FirstToDo);
        Assert.All(b.Headlines, h => Assert.NotEmpty(h.Value));
        Assert.All(e.Findings, f => Assert.True(f.Grade > Grade.Fault, $"{f.Rule}: {f.Title}"));
        Assert.True(b.MainRun is { Fuse.RatingA: > 0, Cable.Size: not null } && b.Bank!.Holds.UsableWh > 0);
        Assert.Equal(design.Banks[0].Demand.Loads.Any(l => l.Kind == LoadKind.Ac), b.Inverter?.Item is not null);
        // Nothing is said to be the user's that is not.
        Assert.All(design.Banks[0].Demand.Loads, l => Assert.True(l.Assumed));
        var note = Assert.Single(e.Findings, f => f.Rule == "load.assumed");
        Assert.Equal(Grade.Note, note.Grade);
        var mine = Evaluator.Evaluate(DesignFormat.With(design, Assert.Single(note.Mends).Changes));
        Assert.DoesNotContain(mine.Findings, f => f.Rule == "load.assumed");
    }

    [Theory]
    [InlineData("", "New design")]
    [InlineData("kettle", "Kettle")]
    [InlineData("led-ceiling-dc x3, kettle", "Kettle and LED ceiling lights")]
    [InlineData("fridge-dc, kettle, led-ceiling-dc, tv-ac", "Kettle, television and 2 more")]
    public void A_design_without_a_name_is_named_from_what_is_in_it(string loads, string name)
    {
        var design = NewDesign.Empty("");
        var bank = design.Banks[0] with { Demand = new() { Loads = loads.Length == 0 ? [] : StartingSituations.Loads(loads) } };
        Assert.Equal(name, Evaluator.Evaluate(design with { Banks = [bank] }).Name);
        Assert.Equal("Mine", Evaluator.Evaluate(design with { Name = "Mine", Banks = [bank] }).Name);
    }
}

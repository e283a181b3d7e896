using InkyBadger.Core.BringUp;
using InkyBadger.Core.Demo;
using InkyBadger.Core.Design;
using InkyBadger.Core.Sheets;

namespace InkyBadger.Core.Tests.Designs;

/// <summary>Whole walks through made-up banks: every fault is found, and nothing else is.</summary>
public class BringUpWalkTests
{
    public static TheoryData<string> Designs() => [.. DemoDesigns.All.Select(d => d.Name)];

    private static DesignDocument Of(string name) => Some.Demo(name) with { Ledger = [] };

    [Theory]
    [MemberData(nameof(Designs))]
    public void A_sound_bank_is_brought_up_without_a_false_alarm(string name)
    {
        for (var seed = 1; seed <= 10; seed++)
        {
            var walker = new Walker(Of(name), seed, 0);
            walker.Go();
            Assert.True(walker.Found.Count == 0, $"{seed}: {string.Join("; ", walker.Found.Select(s => s.Headline))}");
            var now = walker.Now;
            Assert.Null(now.First);
            Assert.StartsWith("Brought up and proven", now.Headline, StringComparison.Ordinal);
        }
    }

    /// <summary>Fifty numbers for each demo design, two hundred in all, with one to seven faults each.</summary>
    [Theory]
    [MemberData(nameof(Designs))]
    public void A_walk_through_a_planted_bank_finds_all_its_faults(string name)
    {
        for (var seed = 100; seed < 150; seed++)
        {
            var walker = new Walker(Of(name), seed, 1 + seed % 7);
            var planted = walker.Planted;
            walker.Go();
            Assert.True(walker.Planted.Count == 0, $"{seed}: not found: {string.Join("; ", walker.Planted)}");
            Assert.True(walker.Found.Count >= planted.Count, $"{seed}: {planted.Count} planted, {walker.Found.Count} found");
            Assert.Null(walker.Now.First);
        }
    }
}

using FsCheck;
using FsCheck.Fluent;
using InkyBadger.Core.Demo;
using InkyBadger.Core.Design;
using InkyBadger.Core.Findings;
using InkyBadger.Core.Tests.Designs;

namespace InkyBadger.Core.Tests.Laws;

/// <summary>Mends are promises: a press ends its finding and brings nothing graver, and what was said of it is what comes.</summary>
public class MendLaws
{
    [Fact]
    public void Every_mend_of_the_demos_and_their_variants_keeps_its_promise()
    {
        var mends = 0;
        foreach (var demo in DemoDesigns.All)
        foreach (var design in Variants(demo))
            mends += Hold(design);
        Assert.True(mends > 300, $"only {mends} mends were tried");
    }

    [Fact]
    public void Every_mend_of_generated_designs_keeps_its_promise()
    {
        var mends = 0;
        foreach (var design in Documents.Sites().Sample(2 * LawsAttribute.Count, 30))
            mends += Hold(design);
        Assert.True(mends > LawsAttribute.Count, $"only {mends} mends were tried");
    }

    /// <summary>The design as one would turn it over: each choice free, and pinned to something else.</summary>
    internal static IEnumerable<DesignDocument> Variants(DesignDocument design)
    {
        yield return design;
        for (var b = 0; b < design.Banks.Count; b++)
        {
            var bank = design.Banks[b];
            DesignDocument With(Bank other) => design with { Banks = [.. design.Banks.Select((x, i) => i == b ? other : x)] };
            foreach (var volts in (int?[])[null, 12, 24, 36, 48])
                yield return With(bank with { SystemV = volts });
            foreach (var s in (int?[])[null, 1, 3, 5])
                yield return With(bank with { Series = s });
            foreach (var p in (int?[])[null, 1, 2, 7])
                yield return With(bank with { Parallel = p });
            foreach (var style in Enum.GetValues<WiringStyle>())
                yield return With(bank with { Wiring = bank.Wiring with { Style = style } });
            foreach (var key in (string[])["agm-12-100", "cell-lfp-280", "lfp-48-100", "flooded-6-215"])
                if (Reference.Catalogue.Units.FirstOrDefault(u => u.Key == key) is { } unit)
                    yield return With(bank with { Unit = unit, Chemistry = null });
            foreach (var size in (string?[])[null, "6 mm²", "120 mm²"])
                yield return With(MainRun(bank, r => r with { Size = size }));
            foreach (
                var fuse in (RunFuse[])
                    [
                        new(),
                        new() { Absent = true },
                        new() { Class = "strip-32" },
                        new() { Class = "blade-32", RatingA = 30 },
                        new() { RatingA = 400, DistanceM = 2 },
                    ]
            )
                yield return With(MainRun(bank, r => r with { Fuse = fuse }));
            foreach (var item in Reference.Catalogue.Inverters.Where((_, i) => i % 3 == 0))
                if (bank.Inverters.Count > 0)
                    yield return With(bank with { Inverters = [bank.Inverters[0] with { Item = item }] });
            yield return With(bank with { Positions = [] });
            yield return With(MainRun(bank, r => r with { LengthM = 12, Parallel = 3, ConductorLengthsM = [1, 1.2, 2], Switch = new()
                        {
                            RatingA = 60,
                            MaxDcV = 12,
                        } }));
        }
        foreach (var set in Enum.GetValues<RuleSet>())
            yield return design with
            {
                HouseRules = design.HouseRules with { Set = set },
            };
        yield return design with
        {
            Display = design.Display with { Units = UnitSystem.Imperial },
        };
        yield return design with
        {
            Place = new()
            {
                Hot = true,
                Living = true,
                AmbientC = -5,
            },
        };
    }

    private static Bank MainRun(Bank bank, Func<Run, Run> change) =>
        bank.Runs.Any(r => r.Id == Run.MainId)
            ? bank with
            {
                Runs = [.. bank.Runs.Select(r => r.Id == Run.MainId ? change(r) : r)],
            }
            : bank with
            {
                Runs = [.. bank.Runs, change(new() { Id = Run.MainId })],
            };

    private static int Hold(DesignDocument design)
    {
        if (DesignCheck.Faults(design).Count > 0)
            return 0;
        var before = Evaluator.Evaluate(design).Findings;
        var mends = 0;
        foreach (var finding in before)
        foreach (var mend in finding.Mends)
        {
            mends++;
            var pressed = DesignFormat.With(design, mend.Changes);
            var what = $"{finding.Rule} “{finding.Title}”, {mend.Label}, in {design.Name}";
            Assert.Empty(DesignCheck.Faults(pressed));
            var after = Evaluator.Evaluate(pressed).Findings;
            Assert.False(after.Any(f => f.IsAsOf(finding)), $"it stays: {what}");
            foreach (var f in after.Where(f => f.Grade <= Grade.Fault || f.Grade < finding.Grade))
                Assert.True(before.Any(b => b.IsAsOf(f) && b.Grade <= f.Grade), $"it brings {f.Rule} “{f.Title}”: {what}");
            var site = new SiteWork(pressed);
            Assert.Equal(mend.OutcomeOf(site.Find(finding.Bank)!), mend.Outcome);
            Assert.NotEqual("", mend.Outcome);
        }
        return mends;
    }
}

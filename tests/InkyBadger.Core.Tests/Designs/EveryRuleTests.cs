using System.Text.RegularExpressions;
using InkyBadger.Core.Demand;
using InkyBadger.Core.Design;
using InkyBadger.Core.Findings;
using InkyBadger.Core.Reference;

namespace InkyBadger.Core.Tests.Designs;

/// <summary>The findings no other test is about, and the promise that every rule has a test that fires it and one that does not.</summary>
public partial class EveryRuleTests
{
    private static InverterItem Inverter(string key) => Catalogue.Inverters.Single(i => i.Key == key);

    private static void FiresAndNot(DesignDocument fires, DesignDocument not, string rule, Grade grade)
    {
        var finding = fires.Finding(rule);
        Assert.NotNull(finding);
        Assert.Equal(grade, finding.Grade);
        Assert.NotEmpty(finding.Figures);
        Assert.Null(not.Finding(rule));
    }

    [Fact]
    public void More_strings_than_the_house_rule() =>
        FiresAndNot(
            Some.Marrow.With(("~/unit", Some.Unit("lfp-12-100-bt")), ("~/parallel", 6)),
            Some.Marrow.With(("~/unit", Some.Unit("lfp-12-100-bt")), ("~/parallel", 4)),
            "bank.strings",
            Grade.Caution
        );

    /// <summary>One string of 100 A and 144 A at full load.</summary>
    [Fact]
    public void More_current_than_a_BMS_lets_through()
    {
        var one = Some.Marrow.With(("~/parallel", 1));
        FiresAndNot(one, Some.Marrow, "bank.over-bms", Grade.Fault);
        Assert.Equal("String A trips at full load", one.Finding("bank.over-bms")!.Title);
        Assert.Null(one.Mended("bank.over-bms").Finding("bank.over-bms"));
    }

    /// <summary>285 A at the lift's start in a single string; its BMS gives 200 A for 10 s.</summary>
    [Fact]
    public void A_start_beyond_the_peak_of_a_BMS() =>
        FiresAndNot(Some.Marrow.With(("~/parallel", 1)), Some.Marrow, "bank.surge", Grade.Fault);

    /// <summary>135 A nominal on 200 Ah are 0.68 C; the advised strings are pinned to what the rule of lean would allow.</summary>
    [Fact]
    public void A_C_rate_over_the_rule()
    {
        var small = Some.Marrow.With(
            ("~/parallel", 2),
            ("/houseRules/own", new Dictionary<string, object> { ["c-rate-lithium"] = 0.5 }),
            ("~/demand/loads", Array.Empty<Load>())
        );
        FiresAndNot(small, Some.Marrow, "bank.c-rate", Grade.Caution);
        Assert.Equal(3000 / 0.9 / 25.6 / 200 + 25 / 25.6 / 200, small.Finding("bank.c-rate")!.Figures[0].Value, 9);
    }

    [Fact]
    public void Units_in_series_that_do_not_talk()
    {
        FiresAndNot(Some.Marrow, Some.Marrow.With(("~/unit", Some.Unit("lfp-12-100-bt"))), "bank.balancer", Grade.Note);
        Assert.Equal(Grade.Caution, Some.Marrow.With(("/houseRules/set", "cautious")).Finding("bank.balancer")!.Grade);
        Assert.Null(Some.Marrow.With(("~/unit", Some.Unit("lfp-24-100")), ("~/series", null)).Finding("bank.balancer"));
    }

    /// <summary>At 12 V 5,000 W ask for 463 A, 579 A of fuse: more than a strip fuse is made for.</summary>
    [Fact]
    public void No_rating_so_large()
    {
        var big = Some.Marrow.With(
            ("~/systemV", 12),
            ("~/series", null),
            ("~/inverters/0/item", Inverter("inv-24-5000c") with { SystemV = 12 }),
            ("~/runs/0/fuse/class", "strip-32")
        );
        FiresAndNot(big, Some.Marrow, "fuse.rating", Grade.Fault);
        Assert.Contains("Strip fuse", big.Finding("fuse.rating")!.Title, StringComparison.Ordinal);
    }

    [Fact]
    public void Copper_as_hot_as_its_insulation_bears()
    {
        var hot = Some.Marrow.With(("~/runs/0/size", "25 mm²"), ("/place/ambientC", 30));
        FiresAndNot(hot, Some.Marrow, "cable.hot", Grade.Caution);
        Assert.InRange(hot.Finding("cable.hot")!.Figures[0].Value, 85, 90);
    }

    [Fact]
    public void No_inverter_of_the_catalogue()
    {
        var huge = Some.New(Some.Ac("kiln", 9000, 1)).With(("~/systemV", 24));
        FiresAndNot(huge, Some.New(Some.Ac("lamp", 90, 1)), "inverter.none", Grade.Fault);
        Assert.Equal(11_250, huge.Finding("inverter.none")!.Figures[0].Value);
    }

    /// <summary>2,700 W on 3,000, of which 30 °C leave 2,850: held for good, but 25 % more would be 3,375 W.</summary>
    [Fact]
    public void Little_headroom() =>
        FiresAndNot(
            Some.New(Some.Ac("heater", 2700, 2)).With(("~/systemV", 24), ("~/inverters/0/item", Inverter("inv-24-3000"))),
            Some.New(Some.Ac("heater", 2250, 2)).With(("~/systemV", 24), ("~/inverters/0/item", Inverter("inv-24-3000"))),
            "inverter.headroom",
            Grade.Caution
        );

    [Fact]
    public void Every_rule_has_its_test()
    {
        var root = new DirectoryInfo(AppContext.BaseDirectory);
        while (!File.Exists(Path.Combine(root.FullName, "InkyBadger.slnx")))
            root = root.Parent!;
        var rules = Directory
            .GetFiles(Path.Combine(root.FullName, "src/InkyBadger.Core/Findings"), "*.cs")
            .SelectMany(f => Made().Matches(File.ReadAllText(f)).Select(m => m.Groups[1].Value))
            .Distinct()
            .ToList();
        var tests = string.Concat(
            Directory.GetFiles(Path.Combine(root.FullName, "tests/InkyBadger.Core.Tests/Designs"), "*.cs").Select(File.ReadAllText)
        );
        Assert.True(rules.Count >= 50, $"only {rules.Count} rules");
        Assert.DoesNotContain(rules, r => !tests.Contains($"\"{r}\"", StringComparison.Ordinal));
    }

    [GeneratedRegex("s\\.Make\\(\\s*\"([a-z.-]+)\"")]
    private static partial Regex Made();
}

using System.Text.Json;
using InkyBadger.Core.Design;
using InkyBadger.Core.Reference;
using InkyBadger.Core.Schools;

namespace InkyBadger.Core.Tests.Designs;

/// <summary>House rules side by side: what each value would change is what the design does when it is taken.</summary>
public class SchoolTests
{
    private static readonly List<RuleRow> Bus = [.. RuleBoard.Rows(Some.Marrow, 0)];

    private static RuleRow Row(string rule) => Bus.Single(r => r.Rule == rule);

    private static string Effect(string rule, string value) => Row(rule).Choices.Single(c => c.Value == value).Effect;

    private static DesignDocument Own(DesignDocument design, string rule, object value) =>
        design.With(("/houseRules/own", new Dictionary<string, object> { ["voltage-current-limit"] = 150, [rule] = value }));

    /// <summary>135.3 A ÷ 0.3 ÷ 100 Ah = 4.5; ÷ 0.5 = 2.7; ÷ 1.0 = 1.4, and the energy asks for two.</summary>
    [Fact]
    public void Each_value_alone_says_what_it_would_change()
    {
        Assert.Equal(
            ("5 strings", "", "2 strings"),
            (Effect("c-rate-lithium", "0.3"), Effect("c-rate-lithium", "0.5"), Effect("c-rate-lithium", "1.0"))
        );
        // 3,340 W · 1.4 and · 1.1.
        Assert.Equal(("4,676 W", "3,674 W"), (Effect("inverter-headroom", "0.40"), Effect("inverter-headroom", "0.10")));
        Assert.Equal("6,400 W", Effect("surge-rule", "all-at-once"));
        // 10.24 kWh · 0.8.
        Assert.Equal("8.19 kWh", Effect("usable-share-lfp", "0.80"));
        Assert.Equal("48 V", Effect("voltage-current-limit", "100"));
        Assert.Equal("no string fuses", Effect("fuse-each-string", "none"));
        var thin = Row("cable-practice-metric").Choices.Single(c => c.Value == "craft-metric-105");
        Assert.Equal(("35 mm²", "50 mm²"), (thin.Effect, thin.Changes.Single(c => c.Label == "main cable advised").Now));
        var then = Own(Some.Marrow, "cable-practice-metric", "craft-metric-105").Bank();
        Assert.Equal("35 mm²", then.MainRun!.Cable.Advised!.Size);
    }

    [Fact]
    public void What_touches_nothing_is_told_from_what_counts_elsewhere()
    {
        Assert.False(Row("usable-share-gel").Touches);
        Assert.False(Row("ambient").Touches);
        Assert.Equal((false, "counts in Rehearse"), (Row("bms-resets").Touches, Row("bms-resets").Elsewhere));
        Assert.True(Row("absorb-lfp").Touches);
        Assert.Equal(HouseRuleTable.All.Select(r => r.Id), Bus.Select(r => r.Rule));
    }

    [Fact]
    public void The_value_that_holds_is_marked_and_the_schools_that_hold_each()
    {
        var drop = Row("drop-limit-main");
        Assert.Equal(["0.03"], drop.Choices.Where(c => c.Here).Select(c => c.Value));
        Assert.Equal([RuleSet.Lean], drop.Choices.Single(c => c.Value == "0.05").Schools);
        Assert.Equal([RuleSet.Typical, RuleSet.Lean], Row("surge-rule").Choices.Single(c => c.Here).Schools);
        // One's own value stands among them, and giving it back turns the design.
        var limit = Row("voltage-current-limit");
        Assert.Equal((true, "150"), (limit.Own, limit.Choices.Single(c => c.Here).Value));
        Assert.Equal("48 V is advised instead of 24 V", limit.GiveBack);
        Assert.Equal(limit.GiveBack, RuleBoard.GiveBack(Some.Marrow, 0, "voltage-current-limit"));
        Assert.Null(RuleBoard.GiveBack(Some.Marrow, 0, "drop-limit-main"));
        Assert.Null(RuleBoard.Rows(Own(Some.Marrow, "drop-limit-main", 0.04), 0).Single(r => r.Rule == "drop-limit-main").GiveBack);
    }

    /// <summary>What a year of trying all of them by hand would find: nothing that is folded away moves a figure.</summary>
    [Theory]
    [InlineData("Marrow")]
    [InlineData("Tern")]
    public void A_rule_that_touches_nothing_changes_no_figure(string name)
    {
        var design = Some.Demo(name);
        string Figures(DesignDocument d) => JsonSerializer.Serialize(Evaluator.Evaluate(d, mends: false), DesignFormat.Options);
        var now = Figures(design);
        var quiet = 0;
        foreach (var row in RuleBoard.Rows(design, 0).Where(r => !r.Touches))
        foreach (var choice in row.Choices.Where(c => !c.Here))
        {
            object value = double.TryParse(choice.Value, System.Globalization.CultureInfo.InvariantCulture, out var n) ? n : choice.Value;
            var own = design.HouseRules.Own.ToDictionary(o => o.Key, o => (object)o.Value);
            own[row.Rule] = value;
            Assert.Equal(now, Figures(design.With(("/houseRules/own", own))));
            quiet++;
        }
        Assert.InRange(quiet, 10, 80);
    }

    /// <summary>Four strings of two in 24 V; three schools that are free to choose another voltage.</summary>
    [Fact]
    public void The_whole_design_under_each_school()
    {
        var wholes = SchoolWholes.Work(Some.Marrow, 0);
        string Of(RuleSet? set, string id) => wholes.Single(w => w.Set == set).Figures.Single(f => f.Id == id).Text;
        Assert.Equal([null, RuleSet.Cautious, RuleSet.Typical, RuleSet.Lean], wholes.Select(w => w.Set));
        Assert.Equal(
            ("8", "24 V", "50 mm²", "200 A", "9.22 kWh"),
            (Of(null, "units"), Of(null, "volts"), Of(null, "cable"), Of(null, "fuse"), Of(null, "usable"))
        );
        // Cautious: 48 V, so strings of four; 0.3 C of 100 Ah and three days ask for four.
        Assert.Equal(
            ("16", "48 V", "16.38 kWh"),
            (Of(RuleSet.Cautious, "units"), Of(RuleSet.Cautious, "volts"), Of(RuleSet.Cautious, "usable"))
        );
        Assert.Equal(("4", "24 V", "5.12 kWh"), (Of(RuleSet.Lean, "units"), Of(RuleSet.Lean, "volts"), Of(RuleSet.Lean, "usable")));
        Assert.Equal(
            "Cautious asks for 16 units, lean for 4 units: continuous C-rate, lithium and autonomy do that",
            SchoolWholes.Headline(Some.Marrow, 0, wholes)
        );
        // A part without a price leaves the whole without one.
        var unknown = Some.Marrow.With(("~/unit", Some.Marrow.Banks[0].Unit! with { Key = "own-1", Price = null }));
        Assert.All(SchoolWholes.Work(unknown, 0), w => Assert.Equal("not known", w.Figures.Single(f => f.Id == "price").Text));
    }

    /// <summary>Steps at 135.3 ÷ 100 ÷ n: 0.676 (two to three), 0.451, 0.338, 0.271.</summary>
    [Fact]
    public void A_rule_as_a_function()
    {
        var curve = RuleCurve.Work(Some.Marrow, 0, "c-rate-lithium")!;
        Assert.Equal(("strings asked for", true, 0.01), (curve.Label, curve.Stepped, curve.Step));
        double Step(double from, double to) =>
            curve.Points.Zip(curve.Points.Skip(1)).Single(p => p.First.Value == from && p.Second.Value == to).Second.At;
        Assert.Equal(0.6766, Step(3, 2), 0.001);
        Assert.Equal(0.4511, Step(4, 3), 0.001);
        Assert.Equal(0.3383, Step(5, 4), 0.001);
        Assert.Equal((4.0, 0.34, "The four strings built hold 0.34 C"), (curve.Built!.Value, curve.Built.Holds, curve.Built.Sentence));
        Assert.Equal(
            ("the four strings built are enough", "the four strings built are not enough"),
            (curve.Built.Enough, curve.Built.NotEnough)
        );
        Assert.All(curve.Points, p => Assert.Equal(p.Value <= 4, p.Enough));
        Assert.Equal([0.3, 0.5, 1.0, 0.5], curve.Stems.Select(s => s.At));
        // Words have no axis; strings are whole.
        Assert.Empty(RuleCurve.Work(Some.Marrow, 0, "take-off")!.Points);
        Assert.All(RuleCurve.Work(Some.Marrow, 0, "most-strings")!.Points, p => Assert.Equal(Math.Round(p.At), p.At));
        Assert.Null(RuleCurve.Work(Some.Marrow, 0, "nothing"));
        // Of one string more, the thinner the drop may be: the 50 mm² that lies there holds 1.7 %.
        Assert.Equal("The 50 mm² laid holds 1.7 %", RuleCurve.Work(Some.Marrow, 0, "drop-limit-main")!.Built!.Sentence);
    }

    /// <summary>Either side of every rule says something for itself, in a sentence.</summary>
    [Fact]
    public void Both_sides_are_heard() =>
        Assert.All(HouseRuleTable.All, r => Assert.True(r.Careful.EndsWith('.') && r.Spare.EndsWith('.') && r.Careful != r.Spare, r.Id));

    [Fact]
    public void Nothing_is_promised_of_an_empty_design()
    {
        var empty = Some.Marrow.With(("~/demand/loads", Array.Empty<object>()), ("~/unit", null), ("~/inverters", Array.Empty<object>()));
        Assert.Equal(
            "The schools can be chosen now; what they change appears with the first load",
            SchoolWholes.Headline(empty, 0, SchoolWholes.Work(empty, 0))
        );
        Assert.DoesNotContain(RuleBoard.Rows(empty, 0), r => r.Choices.Any(c => c.Effect.Contains("strings", StringComparison.Ordinal)));
    }
}

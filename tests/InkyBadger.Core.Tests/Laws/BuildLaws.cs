using System.Text.Json;
using FsCheck.Xunit;
using InkyBadger.Core.Builds;
using InkyBadger.Core.Costs;
using InkyBadger.Core.Design;
using InkyBadger.Core.Findings;
using InkyBadger.Core.Reference;
using InkyBadger.Core.Schools;

namespace InkyBadger.Core.Tests.Laws;

/// <summary>
/// Builds over generated designs and money: the front is what nothing beats, waiting turns where it says, a price counts as often as the
/// part is bought, growing and doing less are total, and a house rule that is folded away changes nothing.
/// </summary>
[Laws(typeof(Documents))]
public class BuildLaws
{
    private static readonly BuildTerms Terms = new();

    private static List<FrontPoint> Points(Random draw)
    {
        // Few values, so that equal ones and twins come up.
        var coarse = draw.Next(2) == 0;
        double Value(int most) => coarse ? draw.Next(1, 6) : Math.Round(draw.NextDouble() * most, 2);
        return [.. Enumerable.Range(0, draw.Next(1, 40)).Select(_ => new FrontPoint(Value(5000), Value(20) - 5))];
    }

    private static bool Beats(FrontPoint a, FrontPoint b) =>
        a.Cost <= b.Cost && a.Merit >= b.Merit && (a.Cost < b.Cost || a.Merit > b.Merit);

    [Property]
    public void The_front_is_what_nothing_beats(int seed)
    {
        var points = Points(new(seed));
        var result = BuildFront.Work(points);
        var front = result.Front.Select(n => points[n - 1]).ToList();
        Assert.NotEmpty(front);
        // Dearer is better, strictly: else one of both would be beaten.
        Assert.All(front.Zip(front.Skip(1)), p => Assert.True(p.First.Cost < p.Second.Cost && p.First.Merit < p.Second.Merit));
        for (var i = 0; i < points.Count; i++)
        {
            var beaten = points
                .Index()
                .Where(p => p.Index != i && (Beats(p.Item, points[i]) || p.Item == points[i] && p.Index < i))
                .ToList();
            Assert.Equal(beaten.Count == 0 ? null : beaten.Min(p => p.Index) + 1, result.DominatedBy[i]);
            Assert.Equal(beaten.Count == 0, result.Front.Contains(i + 1));
        }
    }

    /// <summary>Order says nothing of which points are on it, but for twins.</summary>
    [Property]
    public void The_front_does_not_hang_on_the_order(int seed)
    {
        var draw = new Random(seed);
        var points = Points(draw);
        var shuffled = points.OrderBy(_ => draw.Next()).ToList();
        IEnumerable<FrontPoint> Of(List<FrontPoint> list) => BuildFront.Work(list).Front.Select(n => list[n - 1]);
        Assert.Equal(Of(points), Of(shuffled));
    }

    private static BuildStagedInput Stages(Random draw) =>
        new(draw.Next(1, 9), draw.Next(50, 900), draw.Next(1, 9), draw.Next(1, 12), draw.Next(200, 6000))
        {
            VisitCost = draw.Next(0, 300),
            DiscountRate = draw.NextDouble() * 0.12,
            FadePerYear = draw.NextDouble() * 0.1,
        };

    /// <summary>At the price it names both ways cost the same; a little below it waiting is cheaper, a little above it is not.</summary>
    [Property]
    public void Waiting_turns_at_the_price_it_names(int seed)
    {
        var input = Stages(new(seed));
        var at = BuildStaged.Work(input).BreakEvenPrice;
        if (at < 1)
            return;
        BuildStagedResult With(double price) => BuildStaged.Work(input with { UnitPriceLater = price });
        Assert.Equal(With(at).AtOnceValue, With(at).StagedValue, 6);
        Assert.Equal(StagedVerdict.AtOnce, With(at).Cheaper);
        Assert.Equal(StagedVerdict.Staged, With(at * 0.999).Cheaper);
        Assert.Equal(StagedVerdict.AtOnce, With(at * 1.001).Cheaper);
    }

    /// <summary>Later means younger: what is bought then holds no less than what was bought at once, and nothing holds more than new.</summary>
    [Property]
    public void What_is_bought_later_is_younger(int seed)
    {
        var input = Stages(new(seed));
        var result = BuildStaged.Work(input);
        Assert.InRange(result.OldFactor, 0, 1);
        Assert.True(result.UsableLaterStagedWh >= result.UsableLaterAtOnceWh - 1e-9);
        Assert.True(result.UsableLaterStagedWh <= (input.UnitsNow + input.UnitsLater) * input.UnitUsableWh + 1e-9);
        Assert.Equal(input.UnitsNow * input.UnitPriceNow, result.PayNow);
        // Money later is worth no more than money now.
        Assert.True(result.StagedValue <= result.PayNow + result.PayLater + 1e-9);
    }

    private static DesignDocument Listed(DesignDocument design, Func<double, double?> price)
    {
        List<ListedPrice> lines =
        [
            .. Catalogue.Units.Select(u => new ListedPrice
            {
                Kind = PriceKind.Unit,
                Key = u.Key,
                Price = u.Price is { } p ? price(p) : null,
            }),
            .. Catalogue.Inverters.Select(i => new ListedPrice
            {
                Kind = PriceKind.Inverter,
                Key = i.Key,
                Price = i.Price is { } p ? price(p) : null,
            }),
            .. Parts.Fuses.Select(f => new ListedPrice
            {
                Kind = PriceKind.Fuse,
                Key = f.Key,
                Price = price(f.Value),
            }),
            .. Parts.Rows.Select(r => new ListedPrice
            {
                Kind = r.Kind,
                Size = r.Size,
                Price = price(r.Price),
            }),
        ];
        return design with
        {
            Prices = new()
            {
                InUse = "prices-all",
                Sets =
                [
                    new()
                    {
                        Id = "prices-all",
                        Name = "All of it",
                        Prices = lines,
                    },
                ],
            },
        };
    }

    /// <summary>
    /// Every price doubled is a bill doubled, to the last lug; the same prices are the same bill; and where nothing is known, nothing is.
    /// </summary>
    [Property(MaxTest = 20)]
    public void A_price_counts_as_often_as_the_part_is_bought(DesignDocument design)
    {
        // Units and inverters of one's own have prices no list knows.
        var plain = design with { Prices = new() };
        var same = BuildMaker.Present(Listed(plain, p => p), 0, Terms);
        var twice = BuildMaker.Present(Listed(plain, p => 2 * p), 0, Terms);
        Assert.Equal(same is null, twice is null);
        if (same is null || twice is null)
            return;
        foreach (var (a, b) in same.Bill.Lines.Zip(twice.Bill.Lines))
        {
            Assert.Equal((a.Part, a.What, a.Count), (b.Part, b.What, b.Count));
            // A BMS, and what somebody typed for a unit where it stands, are priced in the document.
            if (a.Part is not (BillPart.Protection or BillPart.Units or BillPart.Inverter or BillPart.Fuses) && a.Each is { } each)
                Assert.Equal(2 * each, b.Each!.Value, 6);
        }
        var none = BuildMaker.Present(Listed(plain, _ => null), 0, Terms)!;
        Assert.False(none.Bill.Unknown.Count == 0);
        Assert.Null(none.PerYear);
        Assert.All(none.Bill.Lines.Where(l => l.Part is BillPart.Copper or BillPart.Links or BillPart.Switching or BillPart.Monitor), l =>
            Assert.Null(l.Price)
        );
    }

    /// <summary>Plans are total, what they promise is a document that is accepted, and a way to do less keeps what must not go dark.</summary>
    [Property(MaxTest = 8)]
    public void Plans_are_total_and_keep_their_word(DesignDocument design, int seed)
    {
        var draw = new Random(seed);
        var stages = new StageTerms
        {
            StringsNow = draw.Next(3) == 0 ? null : draw.Next(1, 9),
            YearsLater = draw.Next(1, 20),
            VisitCost = draw.Next(0, 200),
            PriceLater = draw.Next(2) == 0 ? null : draw.Next(1, 900),
        };
        if (StagedPlan.Work(design, 0, null, stages, Terms) is { } plan)
        {
            Assert.NotEmpty(JsonSerializer.Serialize(plan, DesignFormat.Options));
            Assert.True(plan.Not is not null || plan.StringsNow >= 1 && plan.StringsNow < plan.Strings);
            Assert.True(
                plan.First is null || plan.First.UsableWh <= plan.Whole.UsableWh * (1 + 1e-9) || plan.Whole.Choice.Unit.Key.Length > 0
            );
        }
        if (GrowthPlan.Work(design, 0, null, Terms) is { } growth)
            foreach (var option in growth.Options.Where(o => o is { Not: null } or { Costs: not null }))
                Assert.True(option.Not is not null || option.Needs.Count > 0 || Math.Abs(option.Costs!.Value) < 1e-6, option.Title);
        var less = DoLess.Work(design, 0, Terms);
        Assert.True(less.Ways.Count > 0 || less.Not is not null || less.Smaller is not null);
        foreach (var way in less.Ways)
        {
            var then = DesignFormat.With(design, way.Changes);
            Assert.Empty(DesignCheck.Faults(then));
            Assert.True(way.Build.Fits && way.LessWh >= 0);
            foreach (var (before, after) in design.Banks[0].Demand.Loads.Zip(then.Banks[0].Demand.Loads).Where(l => l.First.MustStay))
                Assert.Equal((before.Quantity, before.Hours), (after.Quantity, after.Hours));
        }
    }

    /// <summary>Of a rule that touches nothing every value gives the same figures; one that does something says what.</summary>
    [Property(MaxTest = 10)]
    public void A_rule_that_is_folded_away_changes_nothing(DesignDocument design, int seed)
    {
        string Figures(DesignDocument d) => JsonSerializer.Serialize(Evaluator.Evaluate(d, mends: false), DesignFormat.Options);
        var now = Figures(design);
        var rows = RuleBoard.Rows(design, 0).ToList();
        Assert.Equal(HouseRuleTable.All.Count, rows.Count);
        var quiet = rows.Where(r => !r.Touches).OrderBy(r => (r.Rule.GetHashCode(StringComparison.Ordinal) ^ seed) % 97).Take(4);
        foreach (var row in quiet)
        foreach (var choice in row.Choices.Where(c => !c.Here))
            Assert.Equal(now, Figures(Own(design, row.Rule, choice.Value)));
        foreach (var choice in rows.Where(r => r.Touches).SelectMany(r => r.Choices).Where(c => c.Effect.Length > 0))
            Assert.NotEmpty(choice.Changes);
    }

    private static DesignDocument Own(DesignDocument design, string rule, string value)
    {
        var own = new Dictionary<string, JsonElement>(design.HouseRules.Own)
        {
            [rule] = double.TryParse(value, System.Globalization.CultureInfo.InvariantCulture, out var number)
                ? JsonSerializer.SerializeToElement(number)
                : JsonSerializer.SerializeToElement(value),
        };
        return design with { HouseRules = design.HouseRules with { Own = own } };
    }

    /// <summary>What the schools would build is sound where something can be built: a document that is accepted, and its own advice.</summary>
    [Property(MaxTest = 10)]
    public void Each_school_makes_a_design_of_its_own(DesignDocument design)
    {
        var wholes = SchoolWholes.Work(design, 0);
        Assert.Equal(4, wholes.Count);
        Assert.All(wholes, w => Assert.Equal(wholes[0].Figures.Select(f => f.Id), w.Figures.Select(f => f.Id)));
        Assert.NotEmpty(SchoolWholes.Headline(design, 0, wholes));
        var stands = Evaluator.Evaluate(design, mends: false);
        Assert.Equal((stands.Counts.Wrong, stands.Counts.ToLookAt), (wholes[0].Wrong, wholes[0].ToLookAt));
        Assert.Equal(stands.Findings.Count(f => f.Grade <= Grade.Fault), wholes[0].Wrong);
        foreach (var rule in new[] { "c-rate-lithium", "drop-limit-main", "autonomy" })
        {
            var curve = RuleCurve.Work(design, 0, rule)!;
            Assert.Equal(curve.Points.OrderBy(p => p.At).Select(p => p.At), curve.Points.Select(p => p.At));
            Assert.All(curve.Points, p => Assert.InRange(p.At, curve.From, curve.To));
            if (curve.Built is { Holds: { } holds })
                Assert.InRange(holds, curve.From - curve.Step, curve.To + curve.Step);
        }
    }
}

using InkyBadger.Core.Builds;
using InkyBadger.Core.Costs;
using InkyBadger.Core.Design;
using InkyBadger.Core.Findings;
using InkyBadger.Core.Reference;

namespace InkyBadger.Core.Tests.Designs;

/// <summary>Builds over time, by other prices, and with less asked of them.</summary>
public class BuildTimeTests
{
    private static readonly BuildTerms Terms = new();
    private static readonly Lazy<List<Build>> Found = new(() =>
        [.. BuildSearch.Screen(Some.Marrow, 0, Catalogue.Units).Left.Select(c => BuildMaker.Of(Some.Marrow, 0, c, Terms)).OfType<Build>()]
    );

    private static DesignDocument Priced(params ListedPrice[] prices) => Priced(PriceRest.Catalogue, "prices-sale", prices);

    private static DesignDocument Priced(PriceRest rest, string? inUse, params ListedPrice[] prices) =>
        Some.Marrow with
        {
            Prices = Some.Marrow.Prices with
            {
                InUse = inUse,
                Sets =
                [
                    new()
                    {
                        Id = "prices-sale",
                        Name = "November sale",
                        Date = "2026-11-27",
                        Kind = PriceSetKind.Sale,
                        Rest = rest,
                        Prices = prices,
                    },
                ],
            },
        };

    private static ListedPrice Unit(string key, double? price) =>
        new()
        {
            Kind = PriceKind.Unit,
            Key = key,
            Price = price,
        };

    private static ListedPrice Part(PriceKind kind, double size, double? price) =>
        new()
        {
            Kind = kind,
            Size = size,
            Price = price,
        };

    private static Build Present(DesignDocument design) => BuildMaker.Present(design, 0, Terms)!;

    /// <summary>Four of eight at 310 now, four at 310 with a visit of 90 in three years at 3 %: 1,240 + 1,330 ÷ 1.092727.</summary>
    [Fact]
    public void In_stages()
    {
        var plan = StagedPlan.Work(Some.Marrow, 0, null, new() { VisitCost = 90 }, Terms)!;
        Assert.Equal((2, 4, 310.0), (plan.StringsNow, plan.Strings, plan.Price));
        Assert.Equal(1240 + 1330 / 1.092727, plan.Money!.StagedValue, 6);
        Assert.Equal((2480.0, StagedVerdict.Staged), (plan.Money.AtOnceValue, plan.Money.Cheaper));
        Assert.Equal((4 * 310 * 1.092727 - 90) / 4, plan.Money.BreakEvenPrice, 6);
        Assert.StartsWith("4 of 8 units now, the rest in 3 years: 23 cheaper in today’s money", plan.Sentence);
        // Two strings hold half of 9.22 kWh; the whole wants a fuse in each string, and room for eight.
        Assert.Equal(4608, plan.First!.UsableWh, 6);
        Assert.Contains(plan.FromTheFirstDay, n => n is { What: "places for string fuses", Alone: "none", Whole: "4" });
        Assert.Contains("2 strings, where the demand asks for 3", plan.FirstWrong);
        // 0.94 of the old strings: (2 · 0.94 + 2) · 2,304.
        Assert.Equal(0.94, plan.Mixed!.OldFactor, 9);
        Assert.Equal((2 * 0.94 + 2) * 2304, plan.Mixed.UsableWh, 1);
        Assert.Contains("Old and new strings together", plan.Mixed.Wrong);
        Assert.True(plan.Mixed.DeliveredWh > 0 && plan.Mixed.WorstShare > plan.Mixed.EvenShare);
    }

    [Fact]
    public void One_string_is_not_bought_in_stages()
    {
        var one = Found.Value.First(b => b is { Fits: true, Choice.Parallel: 1 });
        var plan = StagedPlan.Work(Some.Marrow, 0, one.Choice, new(), Terms)!;
        Assert.Contains("old and new never mix", plan.Not);
        Assert.Null(plan.Money);
        // Lead fades three times as fast; a price nobody knows makes no money.
        var lead = Some.Marrow.With(("~/unit", Some.Unit("agm-12-200") with { Price = null }), ("~/parallel", 4));
        var old = StagedPlan.Work(lead, 0, null, new() { YearsLater = 5 }, Terms)!;
        Assert.Equal((0.06, (BuildStagedResult?)null), (old.FadePerYear, old.Money));
        Assert.Equal(0.7, old.Mixed!.OldFactor, 9);
        Assert.EndsWith("what a unit costs is not known", old.Sentence);
    }

    /// <summary>A fifth string: two units, a jumper and two links, a balancer and a fuse; the maker allows four.</summary>
    [Fact]
    public void What_growing_needs_and_what_is_shut_out()
    {
        var plan = GrowthPlan.Work(Some.Marrow, 0, null, Terms)!;
        Assert.StartsWith("A string takes 2 in series", plan.Options[0].Not);
        var more = plan.Options[1];
        Assert.Equal(("One more string", 2304.0), (more.Title, Math.Round(more.MoreUsableWh, 6)));
        Assert.Contains(more.Needs, n => n is { What: "LFP 12.8 V 100 Ah", Count: 2, Price: 620 });
        Assert.Contains(more.Needs, n => n is { What: "string fuse", Count: 1, Price: 62 });
        Assert.Contains("5 strings; the unit allows 4", more.Wrong);
        Assert.Equal(more.Costs!.Value, more.Needs.Sum(n => n.Price!.Value), 1);
        var inverter = plan.Options[2];
        Assert.Equal(3000, inverter.MoreAcW);
        Assert.Contains(inverter.Needs, n => n.InPlaceOf?.StartsWith("main cable, 50 mm²", StringComparison.Ordinal) == true);
        Assert.Equal("More than 4 strings: its maker allows 4", plan.ShutsOut[0]);
        Assert.Contains(plan.ShutsOut, s => s.StartsWith("48 V without another inverter", StringComparison.Ordinal));
        // With room for eight and no more, the room is what ends it.
        var tight = Some.Marrow.With(
            ("~/unit", Some.Unit("lfp-12-100") with { MaxParallel = 8 }),
            ("/houseRules/own", new Dictionary<string, object> { ["voltage-current-limit"] = 150, ["most-strings"] = 8 }),
            (
                "~/space",
                new UnitSize
                {
                    LengthMm = 400,
                    WidthMm = 700,
                    HeightMm = 450,
                }
            )
        );
        Assert.Contains("not in the space", GrowthPlan.Work(tight, 0, null, Terms)!.ShutsOut[0]);
    }

    /// <summary>The kettle alone is more than half of what draws at once; the printer with the lift is the next.</summary>
    [Fact]
    public void Doing_less_makes_the_smaller_build_enough()
    {
        var less = DoLess.Work(Some.Marrow, 0, Terms);
        Assert.Equal(("2 strings", "3 strings", (string?)null), (less.Smaller, less.Asked, less.Not));
        Assert.InRange(less.Ways.Count, 1, 3);
        Assert.Equal(less.Ways.OrderBy(w => w.LessWh), less.Ways);
        foreach (var way in less.Ways)
        {
            Assert.InRange(way.GivesUp.Count, 1, 3);
            // Taken, it is what was promised: two strings that are enough, without a fault.
            var then = DesignFormat.With(Some.Marrow, way.Changes);
            Assert.Empty(Work.DesignCheck.Faults(then));
            var build = Present(then);
            Assert.Equal((2, true), (build.Choice.Parallel, build.Fits));
            Assert.Equal(way.Build.Bill.Total, build.Bill.Total, 6);
            Assert.Equal(way.Saves!.Value, Present(Some.Marrow).Bill.Total - build.Bill.Total, 6);
            Assert.Equal(Some.Marrow.Bank().Energy!.EnergyBankWh - then.Bank().Energy!.EnergyBankWh, way.LessWh, 3);
        }
        // What must not go dark is never given up.
        var kept = DoLess.Work(Some.Marrow.With(("~/demand/loads/0/mustStay", true)), 0, Terms);
        Assert.DoesNotContain(kept.Ways, w =>
            w.GivesUp.Any(g => g.Contains(Some.Marrow.Banks[0].Demand.Loads[0].Name + "’s", StringComparison.Ordinal))
        );
        Assert.Contains(
            "typed as one figure",
            DoLess
                .Work(
                    Some.Marrow.With(("~/demand/by", "figure"), ("~/demand/figure", new DemandFigure { Watts = 800, Hours = 4 })),
                    0,
                    Terms
                )
                .Not
        );
    }

    /// <summary>A unit of the sale is 200 instead of 310: 8 · 110 less; a fuse is 40, in four strings and the main run.</summary>
    [Fact]
    public void A_set_of_prices_counts_everywhere()
    {
        var now = Present(Some.Marrow);
        Assert.Equal(now.Bill.Total - 8 * 110, Present(Priced(Unit("lfp-12-100", 200))).Bill.Total, 6);
        var fuses = Priced(
            new ListedPrice
            {
                Kind = PriceKind.Fuse,
                Key = "class-t",
                Price = 40,
            }
        );
        Assert.Equal(now.Bill.Total - 5 * 22, Present(fuses).Bill.Total, 6);
        Assert.Equal(40, fuses.Bank().Needs!.FusePrice);
        // A metre of 50 mm² at 8 instead of 10, on the main run and the links.
        var copper = Priced(Part(PriceKind.Cable, 50, 8)).Bank().Needs!;
        Assert.Equal(74 - 2 * 2.5 * 2, copper.CopperPrice!.Value, 6);
        Assert.Equal(1600, Priced(Unit("lfp-12-100", 200)).Bank().Bank!.Price);
        // Not in use it changes nothing.
        Assert.Equal(now.Bill.Total, Present(Priced(PriceRest.Catalogue, null, Unit("lfp-12-100", 200))).Bill.Total);
    }

    [Fact]
    public void What_a_set_does_not_know_stays_unknown()
    {
        var unknown = Present(Priced(Unit("lfp-12-100", null)));
        Assert.Equal(["LFP 12.8 V 100 Ah"], unknown.Bill.Unknown);
        Assert.Equal((null, null, null), (unknown.UnitPrice, unknown.PerYear, unknown.UnitsTotal));
        // A set that lists alone what it has: second-hand units, and nobody says what a lug is.
        var alone = Priced(PriceRest.Unknown, "prices-sale", Unit("lfp-12-100", 120));
        Assert.Contains("lug", Present(alone).Bill.Unknown);
        Assert.Null(alone.Bank().Needs!.CopperPrice);
        Assert.Null(alone.Bank().Needs!.TotalPrice);
        Assert.False(Present(alone).InStock);
        Assert.True(Present(Priced(Unit("lfp-12-100", 120))).InStock);
        Assert.False(Present(Priced(Unit("lfp-12-100", 120) with { InStock = false })).InStock);
        // It never wins.
        var compared = BuildCompare.Work(Priced(Unit("lfp-12-100", null)), 0, [null, Found.Value.First(b => b.Fits).Choice], Terms)!;
        Assert.DoesNotContain(
            "LFP 12.8 V 100 Ah",
            compared.Verdict.First(v =>
                v.Contains("costs least", StringComparison.Ordinal) || v.Contains("the only one", StringComparison.Ordinal)
            )
        );
    }

    [Fact]
    public void The_verdict_under_each_set()
    {
        var other = Found.Value.Where(b => b.Fits && b.Choice.Unit.Key != "lfp-12-100").MinBy(b => b.Bill.Total)!;
        // The flagship has faults of its own: its own units in as many strings as are asked for stand for it.
        var mine = Found.Value.Where(b => b.Fits && b.Choice.Unit.Key == "lfp-12-100").MinBy(b => b.Bill.Total)!;
        var design = Priced(PriceRest.Catalogue, null, Unit("lfp-12-100", 20));
        var compared = BuildCompare.Work(design, 0, [mine.Choice, other.Choice], Terms)!;
        Assert.Equal([null, "prices-sale"], compared.UnderSets.Select(s => s.Set));
        Assert.Equal([true, false], compared.UnderSets.Select(s => s.InUse));
        Assert.Equal((other.Key, mine.Key), (compared.UnderSets[0].Cheapest, compared.UnderSets[1].Cheapest));
        var sale = compared.UnderSets[1];
        Assert.Equal(mine.Bill.Total - mine.Units * (310 - 20), sale.Totals[0]!.Value, 6);
        // Up to that price it stays the cheapest: at it both cost the same.
        Assert.Equal(other.Bill.Total, mine.Bill.Total - mine.Units * (310 - sale.UpTo!.Value), 6);
        Assert.Contains("costs least", sale.Sentence);
        // In use, it flips the verdict itself.
        Assert.StartsWith(
            mine.Name,
            BuildCompare
                .Work(design with { Prices = design.Prices with { InUse = "prices-sale" } }, 0, [mine.Choice, other.Choice], Terms)!
                .Verdict[0]
        );
    }

    [Theory]
    [InlineData("/prices/inUse", "\"prices-none\"", "/prices/inUse")]
    [InlineData("/prices/sets/0/id", "\"sale\"", "/prices/sets/0/id")]
    [InlineData("/prices/sets/0/prices/0", "{\"kind\":\"unit\",\"size\":3,\"price\":1}", "/prices/sets/0/prices/0")]
    [InlineData("/prices/sets/0/prices/0", "{\"kind\":\"cable\",\"size\":51,\"price\":1}", "/prices/sets/0/prices/0")]
    [InlineData("/prices/sets/0/prices/-", "{\"kind\":\"unit\",\"key\":\"lfp-12-100\",\"price\":1}", "/prices/sets/0/prices/1")]
    public void What_is_no_set_of_prices(string path, string value, string at)
    {
        var design = Priced(Unit("lfp-12-100", 200));
        Assert.Empty(Work.DesignCheck.Faults(design));
        var changed = DesignFormat.With(design, [new(path, System.Text.Json.Nodes.JsonNode.Parse(value))]);
        Assert.Contains(Work.DesignCheck.Faults(changed), f => f.Pointer == at);
    }

    /// <summary>4,000 cycles against 12 years: above 333 a year cycles end it; from 401 on a second bank is bought.</summary>
    [Fact]
    public void Rare_use_and_daily_use()
    {
        var lead = Found.Value.Find(b => b.Choice.Unit.Chemistry is "agm" or "flooded")
            ?? Present(Some.Marrow.With(("~/unit", Some.Unit("agm-12-200"))));
        var lfp = Found.Value.Where(b => b.Fits && b.Choice.Unit is { Chemistry: "lfp", CycleLife: 4000 }).MinBy(b => b.Bill.Total)!;
        Build[] both =
        [
            lfp,
            lead with
            {
                Wrong = [],
                Bill = lead.Bill with { Total = lfp.Bill.Total * 0.6 },
                UnitsTotal = lfp.UnitsTotal * 0.5,
            },
        ];
        var use = UseCurves.Work(both, 250, 10, "cost-per-year")!;
        Assert.Equal(4000.0 / 12, use.Lines[0].EvenAt, 6);
        Assert.Equal(16, use.Lines[0].YearsByCycles);
        Assert.Equal(12, use.Lines[0].Points[0].LifeYears);
        Assert.Equal(10, use.Lines[0].Points[^1].LifeYears, 6);
        // Lead is the cheaper until as many banks are bought as eat the difference up.
        var crossing = Assert.Single(use.Crossings);
        Assert.Equal((both[1].Key, both[0].Key), (crossing.From, crossing.To));
        double PerYear(Build b, double c) =>
            (b.Bill.Total + (Math.Ceiling(10 / Math.Min(b.CalendarYears, b.CycleLife / c)) - 1) * b.UnitsTotal!.Value) / 10;
        Assert.True(PerYear(both[1], crossing.Cycles - 1) < PerYear(both[0], crossing.Cycles - 1));
        Assert.True(PerYear(both[1], crossing.Cycles) > PerYear(both[0], crossing.Cycles));
        Assert.StartsWith($"Up to {crossing.Cycles - 1:0} cycles a year {both[1].Name}", use.Sentence);
        // By the lean rule nothing but LFP is taken for a handful of cycles.
        var lean = UseCurves.Work(both, 250, 10, "lfp")!;
        Assert.Equal((13.0, both[0].Key), (lean.Crossings[0].Cycles, lean.Crossings[0].From));
        Assert.EndsWith("the house rule takes LFP", lean.Sentence);
    }

    /// <summary>As one would find by looking at all of them: the cheapest that is sound and holds what is asked.</summary>
    [Fact]
    public void Another_build_that_does_the_same_for_less_is_told()
    {
        var present = Present(Some.Marrow);
        var cheaper = CheaperBuilds.Among(present, Found.Value)!;
        var best = Found.Value.Where(b => b.Fits && b.Bill.Unknown.Count == 0 && b.UsableWh >= b.AskedWh).MinBy(b => b.Bill.Total)!;
        Assert.Equal((best.Key, best.Bill.Total), (cheaper.Key, cheaper.Total));
        var found = Assert.Single(Evaluator.Evaluate(Some.Marrow, cheaper: [cheaper]).Findings, f => f.Rule == "money.cheaper");
        Assert.Equal(Grade.Note, found.Grade);
        Assert.Contains($"{1 - cheaper.Total / present.Bill.Total:P0}".Replace("%", " %").Replace("  ", " "), found.Title);
        Assert.Empty(found.Mends);
        Assert.Null(Some.Marrow.Finding("money.cheaper"));
        // Nearly as dear is not worth a word, and what costs nobody knows how much is none.
        Assert.Null(CheaperBuilds.Among(present, [best with { Bill = best.Bill with { Total = present.Bill.Total * 0.96 } }]));
        Assert.Null(CheaperBuilds.Among(present, [best with { Bill = best.Bill with { Unknown = ["lug"] } }]));
        Assert.Equal(CheaperBuilds.SignOf(Some.Marrow, 0), CheaperBuilds.SignOf(Some.Marrow with { Name = "Other" }, 0));
        Assert.NotEqual(CheaperBuilds.SignOf(Some.Marrow, 0), CheaperBuilds.SignOf(Priced(Unit("lfp-12-100", 1)), 0));
    }

    /// <summary>Two of 230 Ah at 720 and two old ones, each at what it is worth; the motor's bank beside it.</summary>
    [Fact]
    public void A_mixed_bank_is_priced_as_it_is()
    {
        var trailer = Some.Demo("Tern");
        var build = Present(trailer);
        var units = build.Bill.Lines.Where(l => l.Part == BillPart.Units).ToList();
        Assert.Equal(4, units.Sum(l => l.Count));
        Assert.Equal(2, units.Count);
        Assert.Equal(units.Sum(l => l.Price), build.UnitsTotal);
        Assert.Equal(trailer.Bank().Bank!.Price, build.UnitsTotal);
        Assert.StartsWith("Beside it the other bank stays: ", BuildCompare.Work(trailer, 0, [null], Terms)!.Beside);
        Assert.Null(BuildCompare.Work(Some.Marrow, 0, [null], Terms)!.Beside);
    }
}

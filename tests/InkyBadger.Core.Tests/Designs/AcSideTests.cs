using InkyBadger.Core.AcSide;

namespace InkyBadger.Core.Tests.Designs;

/// <summary>What a plug or a generator carries, and every position of every switch.</summary>
public class AcSideTests
{
    private static readonly AcNode Shore = new("shore", AcNodeKind.Source),
        Generator = new("generator", AcNodeKind.Source),
        Inverter = new("inverter", AcNodeKind.Inverter, "house"),
        Charger = new("charger", AcNodeKind.Charger, "house"),
        Panel = new("panel", AcNodeKind.Panel);

    [Fact]
    public void The_charger_takes_what_the_loads_leave_of_four_fifths()
    {
        // 10 A at 230 V: 2,300 VA, 1,840 for hours; 1,000 W of loads leave 840.
        var plug = new AcBudgetInput(230, 10, null, 1000, ChargerA: 40, ChargerV: 28.8);
        var result = AcBudget.Work(plug);
        Assert.Equal((1840, 840), (result.Available, result.Remaining));
        // An ampere of charge takes 28.8 ÷ 0.88 ÷ 0.95 = 34.45 VA.
        Assert.Equal(840 / (28.8 / 0.88 / 0.95), result.ChargerFitsA!.Value, 1e-9);
        // With what fits it does, with an ampere more it does not.
        Assert.True(AcBudget.Work(plug with { ChargerA = result.ChargerFitsA }).Fits);
        Assert.Equal([AcBudgetFailure.Continuous], AcBudget.Work(plug with { ChargerA = result.ChargerFitsA + 1 }).Fails);
        // A relay of 16 A behind ten is enough, one of 6 is not.
        Assert.Equal([AcBudgetFailure.Relay, AcBudgetFailure.Trip], AcBudget.Work(plug with { LoadsW = 2500, RelayA = 6 }).Fails);
        Assert.Equal(0, AcBudget.Work(plug with { LoadsW = 2000 }).ChargerFitsA);
    }

    [Fact]
    public void A_generator_gives_less_up_high_and_in_the_heat_and_counts_watts()
    {
        var cold = AcBudget.Work(new(230, null, 2000, 500, 0.5, AltitudeM: 1000));
        Assert.Equal((0.9, 1440, 500), (cold.Derate, cold.Available, cold.Asked));
        Assert.Equal(0.9 * 0.98, AcBudget.Work(new(230, null, 2000, 500, AltitudeM: 1000, AmbientC: 35)).Derate, 1e-12);
        // On a breaker the same loads are volt-amperes.
        Assert.Equal(1000, AcBudget.Work(new(230, 10, null, 500, 0.5)).Asked);
        Assert.Equal("breakerA", Assert.Throws<Refusal>(() => AcBudget.Work(new(230, null, null, 500))).Field);
    }

    [Fact]
    public void A_selector_of_three_keeps_apart_what_two_switches_let_meet()
    {
        AcNode[] nodes = [Shore, Generator, Inverter, Panel];
        AcEdge[] Of(string a, string b, string c) =>
            [new("shore", "panel", a, [2]), new("generator", "panel", b, [a == b ? 3 : 2]), new("inverter", "panel", c, [a == c ? 4 : 2])];
        var one = AcLoop.Work(nodes, [new("s", 4)], Of("s", "s", "s"));
        Assert.True(one.Safe);
        Assert.Equal(4, one.States);
        var three = AcLoop.Work(nodes, [new("a", 2), new("b", 2), new("c", 2)], Of("a", "b", "c"));
        Assert.Equal(8, three.States);
        // Each pair once, in the order of the parts, with the first state in which it happens: the last switch turns first.
        Assert.Equal(
            ["shore generator 2 2 1", "shore inverter 2 1 2", "generator inverter 1 2 2"],
            three.BackFeeds.Select(f => $"{f.Sources[0]} {f.Sources[1]} {string.Join(' ', f.State)}")
        );
    }

    [Fact]
    public void An_inverter_that_feeds_its_own_charger_is_found_through_the_panels_between()
    {
        AcNode[] nodes = [Inverter, Panel, new("sub-panel", AcNodeKind.Panel), Charger];
        AcEdge[] edges = [new("inverter", "panel"), new("panel", "sub-panel", "breaker", [2]), new("sub-panel", "charger")];
        var result = AcLoop.Work(nodes, [new("breaker", 2)], edges);
        Assert.Equal([2], Assert.Single(result.Loops).State);
        // Another inverter of the same bank does it too.
        AcNode[] two = [.. nodes, new("second", AcNodeKind.Inverter, "house", "stack")];
        Assert.Single(AcLoop.Work(two, [new("breaker", 2)], [.. edges, new("second", "charger")]).Loops, l => l.Inverter == "second");
    }

    [Fact]
    public void Banks_that_charge_each_other_round_are_a_ring_and_one_way_is_none()
    {
        AcNode[] nodes =
        [
            new("i1", AcNodeKind.Inverter, "house"),
            new("c1", AcNodeKind.Charger, "house"),
            new("i2", AcNodeKind.Inverter, "motor"),
            new("c2", AcNodeKind.Charger, "motor"),
        ];
        var round = AcLoop.Work(nodes, [new("s", 2)], [new("i1", "c2"), new("i2", "c1", "s", [2])]);
        var ring = Assert.Single(round.Rings);
        Assert.Equal(["house", "motor"], ring.Banks);
        Assert.Equal([2], ring.State);
        Assert.True(AcLoop.Work(nodes, [], [new("i1", "c2")]).Safe);
    }

    [Fact]
    public void What_is_no_switchboard_is_refused()
    {
        static string Field(Action act) => Assert.Throws<Refusal>(act).Field;
        AcEdge[] wire = [new("shore", "panel")];
        Assert.Equal("nodes", Field(() => AcLoop.Work([], [], wire)));
        Assert.Equal("edges", Field(() => AcLoop.Work([Shore], [], [])));
        Assert.Equal("bank", Field(() => AcLoop.Work([Shore, Panel, new("i", AcNodeKind.Inverter)], [], wire)));
        Assert.Equal("b", Field(() => AcLoop.Work([Shore, Panel], [], [new("shore", "shore")])));
        Assert.Equal("a", Field(() => AcLoop.Work([Shore], [], [new("shor", "shore")])));
        Assert.Equal("selector", Field(() => AcLoop.Work([Shore, Panel], [], [new("shore", "panel", "s", [1])])));
        Assert.Equal("positions", Field(() => AcLoop.Work([Shore, Panel], [new("s", 1)], wire)));
        Assert.Equal("positions", Field(() => AcLoop.Work([Shore, Panel], [new("s", 5)], wire)));
        AcSelector[] seven = [.. Enumerable.Range(0, 7).Select(i => new AcSelector($"s{i}", 2))];
        Assert.Equal("selectors", Field(() => AcLoop.Work([Shore, Panel], seven, wire)));
        Assert.Equal(64, AcLoop.Work([Shore, Panel], seven[1..], wire).States);
    }
}

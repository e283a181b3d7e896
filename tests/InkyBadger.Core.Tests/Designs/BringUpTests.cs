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

/// <summary>What each step says of a reading, by hand; gates, and what a changed design opens again.</summary>
public class BringUpTests
{
    private static readonly DesignDocument Bus = Some.Demo("Marrow") with { Ledger = [] };

    private static BringUpEntry Entry(string step, BringUpWhat what, double? value = null, double? amps = null, string? words = null) =>
        new()
        {
            Step = step.Contains('/', StringComparison.Ordinal) ? step : $"b1/{step}",
            What = what,
            At = "2026-11-29T10:00",
            By = "Ada",
            Value = value,
            Amps = amps,
            Words = words,
        };

    private static BringUpEntry Read(string step, double value, double? amps = null) => Entry(step, BringUpWhat.Read, value, amps);

    private static BringUpResult Walk(DesignDocument design, params BringUpEntry[] entries) =>
        BringUpWalk.Work(design with { BringUp = new() { Entries = entries } });

    private static BringUpStep Step(BringUpResult walk, string id) =>
        walk.Steps.Single(s => s.Key.EndsWith("/" + id, StringComparison.Ordinal));

    private static BringUpGate Gate(BringUpResult walk, string id) =>
        walk.Gates.Single(g => g.Key.EndsWith("/" + id, StringComparison.Ordinal));

    private static void Judged(BringUpStep step, StepState state, string title)
    {
        Assert.Equal(state, step.State);
        Assert.Equal(title, step.Verdict!.Title);
        Assert.Equal(state == StepState.Done, step.Verdict.ToDo.Count == 0);
    }

    private static BringUpEntry[] Rest(params double[] volts) => [.. volts.Select((v, i) => Read($"rest-{i / 2 + 1}-{i % 2 + 1}", v))];

    /// <summary>Eight units of 12.8 V: 0.05 V are the rule, and 12.90 is 0.30 V below the seven others.</summary>
    [Fact]
    public void A_unit_that_rests_apart_is_the_odd_one_and_no_other()
    {
        var walk = Walk(Bus, Rest(13.2, 13.21, 13.19, 12.9, 13.2, 13.2, 13.2, 13.2));
        Judged(Step(walk, "rest-2-2"), StepState.Wrong, "Not as its siblings");
        Assert.Equal("B2 rests at 12.90 V, 0.30 V from its siblings", Step(walk, "rest-2-2").Headline);
        Assert.Equal(1, walk.Wrong);
        Judged(Step(walk, "rest-1-1"), StepState.Done, "As its siblings");
        Assert.Equal(walk.Headline, Step(walk, "rest-2-2").Headline);
    }

    [Fact]
    public void Two_units_that_differ_wait_for_a_third_to_tell_which()
    {
        var two = Walk(Bus, Rest(13.2, 12.9));
        Judged(Step(two, "rest-1-1"), StepState.Look, "They differ: the next tells which");
        Judged(Step(two, "rest-1-2"), StepState.Look, "They differ: the next tells which");
        var three = Walk(Bus, Rest(13.2, 12.9, 13.2));
        Judged(Step(three, "rest-1-1"), StepState.Done, "As its siblings");
        Judged(Step(three, "rest-1-2"), StepState.Wrong, "Not as its siblings");
    }

    [Theory]
    [InlineData(-13.2, "The wrong way round")]
    [InlineData(0.1, "Nothing there")]
    [InlineData(11.0, "Nearly empty, or a cell is dead")]
    [InlineData(14.4, "Too high for this unit at rest")]
    public void A_unit_by_itself_says_what_is_wrong_with_it(double volts, string title) =>
        Judged(Step(Walk(Bus, Read("rest-1-1", volts)), "rest-1-1"), StepState.Wrong, title);

    /// <summary>Four of 13.30 V: 53.2; one reversed takes 26.6 off it, one left out 13.3.</summary>
    [Theory]
    [InlineData(53.1, StepState.Done, "All in, all the right way round")]
    [InlineData(-53.2, StepState.Wrong, "The wrong way round")]
    [InlineData(0.1, StepState.Wrong, "Open somewhere, or half of it turned round")]
    [InlineData(26.6, StepState.Wrong, "One reversed reads like two missing")]
    [InlineData(39.9, StepState.Wrong, "One of 4 is not in it")]
    [InlineData(48.0, StepState.Wrong, "No simple mistake explains it")]
    public void A_string_says_whether_all_of_it_is_there_and_the_right_way_round(double volts, StepState state, string title)
    {
        var four = Bus.With(("~/systemV", 48), ("~/series", 4), ("~/parallel", 2), ("~/positions", Array.Empty<Position>()));
        BringUpEntry[] rest = [.. Enumerable.Range(1, 4).Select(u => Read($"rest-1-{u}", 13.3))];
        Judged(Step(Walk(four, [.. rest, Read("string-1", volts)]), "string-1"), state, title);
    }

    /// <summary>Four strings may lie 0.10 V apart at 24 V; with all measured so the gate opens, and only then anything is joined.</summary>
    [Fact]
    public void Strings_are_joined_through_a_gate_that_their_volts_open()
    {
        var rest = Rest(13.2, 13.2, 13.2, 13.2, 13.2, 13.2, 13.2, 13.2);
        BringUpEntry[] Strings(double last) =>
            [.. rest, Read("string-1", 26.4), Read("string-2", 26.41), Read("string-3", 26.4), Read("string-4", last)];
        var none = Walk(Bus, rest);
        Assert.False(Gate(none, "gate-strings").Open);
        Assert.True(Step(none, "joined").Barred);
        var apart = Walk(Bus, Strings(26.25));
        Assert.False(Gate(apart, "gate-strings").Open);
        Assert.Contains("0.16 V apart", Gate(apart, "gate-strings").Opens, StringComparison.Ordinal);
        var level = Walk(Bus, Strings(26.38));
        Assert.True(Gate(level, "gate-strings").Open);
        Assert.False(Step(level, "joined").Barred);
        // The next gate holds back what comes after it.
        Assert.True(Step(level, "fuse-in").Barred);
    }

    [Fact]
    public void A_gate_is_passed_by_a_reason_of_twelve_letters_which_stays_in_the_record()
    {
        var passed = Bus with
        {
            BringUp = new() { Entries = [Entry("gate-strings", BringUpWhat.Passed, words: "old units, joined over a lamp")] },
        };
        var walk = BringUpWalk.Work(passed);
        Assert.True(Gate(walk, "gate-strings").Open);
        Assert.Equal("old units, joined over a lamp", Gate(walk, "gate-strings").Reason);
        Assert.False(Step(walk, "joined").Barred);
        var line = BringUpList.Of(walk, passed.BringUp).Single();
        Assert.Equal(("Gate", "old units, joined over a lamp"), (line.Part, line.Words));
        var shrug = Bus with { BringUp = new() { Entries = [Entry("gate-strings", BringUpWhat.Passed, words: "it is fine")] } };
        Assert.Equal("/bringUp/entries/0/words", Assert.Single(Core.Work.DesignCheck.Faults(shrug)).Pointer);
    }

    /// <summary>
    /// A sound lug is 0.05 mΩ by the typical rule: 4.2 mV at 84.8 A. Up to 0.15 mΩ (12.7 mV) is in order; 21.4 mV are 0.252 mΩ, 0.202 too
    /// many, which makes 144.3² × 0.000202 = 4.2 W at full load: a look. 30 mV are 6.3 W more: bad.
    /// </summary>
    [Theory]
    [InlineData(4.2, StepState.Done, "Sound")]
    [InlineData(12.7, StepState.Done, "Sound")]
    [InlineData(21.4, StepState.Look, "A little high")]
    [InlineData(30, StepState.Wrong, "Loose, dirty or badly crimped")]
    public void A_lug_is_judged_at_the_amperes_just_read(double mv, StepState state, string title)
    {
        var step = Step(Walk(Bus, Read("amps", 84.8), Read("joint-main-post-fuse-plus-2", mv, 84.8)), "joint-main-post-fuse-plus-2");
        Judged(step, state, title);
        Assert.Equal(4.24, step.Expected!.Value!.Value, 2);
        Assert.Equal(12.72, step.Expected.OkTo, 2);
        Assert.Equal(mv / 84.8, step.Verdict!.Figures[0].Value, 6);
        Assert.Equal(mv / 84.8, step.Working[0].Value, 6);
        Assert.Equal($"Lug of M1+ on F1 drops {mv:0.0} mV, where a sound joint drops 4.2", step.Headline);
    }

    /// <summary>
    /// A main run that ends at the bus: the inverter’s own run has four lugs on the plus (bus, two at its fuse, inverter) and two on the
    /// minus, and all of them carry the kettle. The gate before full load waits for them too.
    /// </summary>
    [Fact]
    public void Lugs_of_an_inverter_that_has_a_run_of_its_own_are_measured_as_well()
    {
        var own = Bus.With(("~/runs/-", new Run { Id = Run.InverterId, LengthM = 1.5 }));
        var walk = Walk(own, Read("amps", 80), Read("joint-inverter-plus-2", 30, 80));
        string[] ids =
        [
            .. walk.Steps.Select(s => s.Key.Split('/')[1]).Where(k => k.StartsWith("joint-inverter-", StringComparison.Ordinal)),
        ];
        Assert.Equal(
            [
                "joint-inverter-plus-1",
                "joint-inverter-plus-2",
                "joint-inverter-plus-3",
                "joint-inverter-plus-4",
                "joint-inverter-minus-1",
                "joint-inverter-minus-2",
            ],
            ids
        );
        Judged(Step(walk, "joint-inverter-plus-2"), StepState.Wrong, "Loose, dirty or badly crimped");
        Assert.Equal(
            "Lug of C1+ on its fuse, bus side drops 30.0 mV, where a sound joint drops 4.0",
            Step(walk, "joint-inverter-plus-2").Headline
        );
        Assert.False(Gate(walk, "gate-load").Open);
        var walker = new Walker(own, 5, 7);
        walker.Go();
        Assert.Equal("", walker.Left);
        Assert.Empty(walker.Planted);
    }

    [Fact]
    public void A_reading_keeps_the_amperes_it_was_made_at()
    {
        // 21.4 mV at 84.8 A stay 0.252 mΩ, whatever flows later; the expectation of what is still to be read follows the newest.
        var walk = Walk(Bus, Read("amps", 84.8), Read("joint-main-post-fuse-plus-2", 21.4, 84.8), Read("amps", 42.4));
        Assert.Equal(0.25236, Step(walk, "joint-main-post-fuse-plus-2").Verdict!.Figures[0].Value, 4);
        Assert.Equal(2.12, Step(walk, "joint-main-fuse-switch-plus-1").Expected!.Value!.Value, 2);
    }

    [Fact]
    public void Bad_jumpers_go_into_the_design_and_its_network_reckons_with_them()
    {
        // String A: 24 A. Sound the jumper is 0.197 mΩ; 40 mV are 1.67 mΩ, 1.47 more.
        var step = Step(Walk(Bus, Read("share-1", 24), Read("joint-jumper-positive-1-1", 40, 24)), "joint-jumper-positive-1-1");
        Judged(step, StepState.Wrong, "Loose, dirty or badly crimped");
        var take = Assert.Single(step.Take);
        Assert.Equal("/banks/0/wiring/jumpers/-", take.Pointer);
        var taken = Bus.With((take.Pointer, take.Value));
        Assert.Equal(1.47, taken.Banks[0].Wiring.Jumpers[^1].JointMilliohm!.Value, 2);
        var (before, after) = (Some.Bank(Bus).Network!, Some.Bank(taken).Network!);
        Assert.True(after.Strings.Shares[0] < before.Strings.Shares[0] - 0.02);
    }

    /// <summary>Of 80 A string A is to give about 25: 3.0 A are an open string, 12 a weak one.</summary>
    [Theory]
    [InlineData(1.0, "String A gives nothing")]
    [InlineData(12.0, "Less than its share")]
    [InlineData(40.0, "More than its share")]
    public void A_share_by_clamp_tells_an_open_string_from_a_weak_one(double amps, string title) =>
        Judged(Step(Walk(Bus, Read("amps", 80), Read("share-1", amps, 80)), "share-1"), StepState.Wrong, title);

    [Theory]
    [InlineData(-3.7, "The sense leads at the shunt are swapped")]
    [InlineData(0.0, "Past the shunt")]
    [InlineData(12.0, "It draws more than was planned")]
    public void The_first_load_shows_how_the_monitor_counts(double amps, string title) =>
        Judged(Step(Walk(Bus, Read("draw-idle", amps)), "draw-idle"), StepState.Wrong, title);

    [Theory]
    [InlineData("dead", 12.6, "Something still feeds the bars")]
    [InlineData("polarity", -26.4, "The leads are the wrong way round")]
    [InlineData("polarity", 0.0, "Nothing arrives")]
    [InlineData("polarity", 13.2, "Not the bank’s volts")]
    [InlineData("fuse-far", 0.02, "The fuse is missing, blown or not bolted")]
    [InlineData("bus-open", 26.3, "Something passes the switch")]
    [InlineData("pre-charge", 3.0, "It does not fill")]
    [InlineData("closed", 20.0, "The bus does not have the bank’s volts")]
    [InlineData("full-warm", 90, "Far too hot")]
    [InlineData("full-amps", 400, "More than full load")]
    public void What_must_not_be_so_stops_the_walk(string step, double value, string title) =>
        Judged(Step(Walk(Bus, Read(step, value)), step), StepState.Wrong, title);

    /// <summary>28.4 V are set: 28.45 agree, 29.0 is within twice a hundredth, 27 stops too low, 30 is over what the cells bear.</summary>
    [Theory]
    [InlineData(28.45, StepState.Done, "It absorbs where it was set")]
    [InlineData(28.75, StepState.Look, "It charges too high")]
    [InlineData(27.0, StepState.Wrong, "It stops too low")]
    [InlineData(30.0, StepState.Wrong, "It charges too high")]
    public void Each_charger_is_seen_at_its_absorption(double volts, StepState state, string title) =>
        Judged(Step(Walk(Bus, Read("absorb-roof", volts)), "absorb-roof"), state, title);

    /// <summary>346 of 400 Ah in six hours at 25 °C are 86.5 %: aged, and every unit takes that health.</summary>
    [Fact]
    public void A_capacity_test_becomes_the_health_of_the_units()
    {
        var entry = Entry("capacity", BringUpWhat.Read) with
        {
            Capacity = new() { Ah = 346, Hours = 6 },
        };
        var step = Step(Walk(Bus, entry), "capacity");
        Judged(step, StepState.Look, "Aged");
        Assert.Equal(0.865, step.Sheet!.Result!.Share, 6);
        var taken = Bus.With([.. step.Take.Select(t => (t.Pointer, t.Value))]);
        Assert.Equal(8, taken.Banks[0].Positions.Count(p => p.Health == 0.865));
        var early = entry with { Capacity = entry.Capacity with { StoppedEarly = true, Supply = MeterSupply.Inverter } };
        Judged(Step(Walk(Bus, early), "capacity"), StepState.Look, "At least so much");
    }

    [Fact]
    public void A_changed_design_opens_the_steps_it_touches_and_no_other()
    {
        var before = BringUpWalk.Work(Bus);
        BringUpEntry Signed(string id, double? value) =>
            Entry(id, value is null ? BringUpWhat.Done : BringUpWhat.Read, value) with
            {
                Sign = Step(before, id).Sign,
            };
        var read = Bus with { BringUp = new() { Entries = [Signed("fuse-in", null), Signed("fuse-far", 26.4), Signed("rest-1-1", 13.2)] } };
        Assert.Equal(StepState.Done, Step(BringUpWalk.Work(read), "fuse-far").State);
        var main = Bus.Banks[0].Runs.Index().First(r => r.Item.Id == Run.MainId).Index;
        var changed = BringUpWalk.Work(read.With(($"~/runs/{main}/fuse/ratingA", 225)));
        Assert.Equal(StepState.Reopened, Step(changed, "fuse-in").State);
        Assert.Equal(StepState.Reopened, Step(changed, "fuse-far").State);
        Assert.Equal(StepState.Done, Step(changed, "rest-1-1").State);
        Assert.Single(Step(changed, "fuse-far").Entries);
    }

    [Fact]
    public void Steps_that_do_not_apply_are_absent()
    {
        string[] Ids(DesignDocument d) => [.. BringUpWalk.Work(d).Steps.Select(s => s.Key.Split('/')[1])];
        var one = Ids(Bus.With(("~/series", 1), ("~/parallel", 1), ("~/systemV", 12), ("~/positions", Array.Empty<Position>())));
        Assert.DoesNotContain("string-1", one);
        Assert.DoesNotContain("joined", one);
        Assert.DoesNotContain("share-1", one);
        Assert.Contains("rest-1-1", one);
        Assert.DoesNotContain("dark", Ids(Some.Demo("Hare")));
        Assert.Empty(Ids(new DesignDocument { Banks = [new() { Id = "b1" }] }));
        Assert.Equal(
            "Nothing to bring up: the bank has no unit",
            BringUpWalk.Work(new DesignDocument { Banks = [new() { Id = "b1" }] }).Headline
        );
    }

    [Fact]
    public void Several_banks_come_one_after_the_other_and_are_signed_once()
    {
        var design = Some.Demo("Tern");
        Assert.True(design.Banks.Count > 1);
        var walk = BringUpWalk.Work(design);
        var order = walk.Steps.Select(s => s.Bank).ToList();
        Assert.Equal(order.Distinct().Count(), 1 + order.Zip(order.Skip(1)).Count(x => x.First != x.Second));
        Assert.Single(walk.Steps, s => s.Key.EndsWith("/tools", StringComparison.Ordinal));
        Assert.Equal(StepKind.Signature, walk.Steps[^1].Kind);
        Assert.Equal(2, walk.Steps.Count(s => s.Kind == StepKind.Signature));
    }

    [Fact]
    public void What_the_meter_shows_is_proven_in_the_ledger_and_what_a_made_up_bank_says_is_not()
    {
        LedgerRow Units(BringUpRecord record)
        {
            var papers = new PaperSite(Bus with { BringUp = record });
            return BuildLedger
                .Work(papers, null, BringUpWalk.Work(papers).Proven)
                .Rows.First(r => r.Part.Key.Contains("/unit-", StringComparison.Ordinal));
        }
        var rest = Rest(13.2, 13.2, 13.2, 13.2, 13.2);
        Assert.Equal(5, Units(new() { Entries = rest }).Reached.Proven);
        Assert.Equal(
            0,
            Units(
                new()
                {
                    Entries = [.. rest.Select(e => e with { Simulated = 3 })],
                    Simulated = new() { Seed = 3 },
                }
            ).Reached.Proven
        );
        // Of a made-up bank nothing counts once a real meter is in the hand.
        var own = BringUpWalk.Work(Bus with { BringUp = new() { Entries = [.. rest.Select(e => e with { Simulated = 3 })] } });
        Assert.Equal(0, own.Done);
    }

    [Fact]
    public void Whoever_built_it_does_not_check_it()
    {
        var own = Walk(
            Bus,
            Entry("signed-1", BringUpWhat.Signed, words: "Ada Hollin"),
            Entry("signed-2", BringUpWhat.Signed, words: " ada hollin")
        );
        Assert.Equal(StepState.Open, Step(own, "signed-2").State);
        var two = Walk(
            Bus,
            Entry("signed-1", BringUpWhat.Signed, words: "Ada Hollin"),
            Entry("signed-2", BringUpWhat.Signed, words: "Ben Tarn")
        );
        Assert.Equal(StepState.Done, Step(two, "signed-2").State);
    }

    [Fact]
    public void Measured_again_keeps_both_and_the_last_one_counts()
    {
        var walk = Walk(Bus, Read("fuse-far", 0.02), Entry("fuse-far", BringUpWhat.Mended), Read("fuse-far", 26.4));
        var step = Step(walk, "fuse-far");
        Assert.Equal(StepState.Done, step.State);
        Assert.Equal(3, step.Entries.Count);
        var lines = BringUpList.Of(
            walk,
            new() { Entries = [Read("fuse-far", 0.02), Entry("fuse-far", BringUpWhat.Mended), Read("fuse-far", 26.4)] }
        );
        Assert.Equal([0.02, null, 26.4], lines.Select(l => l.Value));
        Assert.Equal(["", "", "The fuse passes"], lines.Select(l => l.Judged));
    }
}

using InkyBadger.Core.Design;
using InkyBadger.Core.Sheets;
using InkyBadger.Core.Work;

namespace InkyBadger.Core.Tests.Designs;

/// <summary>What is ordered, here, fitted and proven, and what must not be done meanwhile: each rule with what ends it.</summary>
public class LedgerTests
{
    private static readonly DesignDocument Bus = Some.Demo("Marrow") with { Ledger = [] };

    /// <summary>The bus as its roof's charger is set, to the last line.</summary>
    private static readonly DesignDocument Set = AllSet(Bus);

    private static DesignDocument AllSet(DesignDocument design)
    {
        foreach (var bank in design.Banks)
        foreach (var source in bank.Sources)
        foreach (var name in new[] { "absorbV", "absorbMinutes", "floatV", "equaliseV", "compensationMvPerK", "leastC", "amps" })
            design = ListBack.WithSetting(design, bank.Id, source.Id, name, true, null, "2026-11-20")!;
        // A battery type is chosen, not ticked: these have none to choose.
        return design with { Banks = [.. design.Banks.Select(b => b with { Sources = [.. b.Sources.Select(NoPreset)] })] };
    }

    private static Source NoPreset(Source s) => s with { Presets = [], Settings = s.Settings with { Preset = null } };

    private static LedgerEntry Entry(string key, LedgerStop stop, double count = 1000) =>
        new()
        {
            Key = key,
            Marks =
            [
                new()
                {
                    Stop = stop,
                    Count = count,
                    Date = "2026-11-24",
                    Reason = stop == LedgerStop.Proven ? "measured" : null,
                },
            ],
        };

    private static LedgerRow Row(LedgerResult ledger, string id) =>
        ledger.Rows.Single(r => r.Part.Key.EndsWith("/" + id, StringComparison.Ordinal));

    /// <summary>Everything as far as it goes, but for what is said otherwise.</summary>
    private static LedgerResult Built(DesignDocument design, params (string Id, LedgerStop? Stop)[] but)
    {
        var entries = new List<LedgerEntry>();
        foreach (var row in BuildLedger.Work(design with { Ledger = [] }).Rows)
        {
            var other = but.FirstOrDefault(b => row.Part.Key.EndsWith("/" + b.Id, StringComparison.Ordinal));
            if ((other.Id is null ? row.Top : other.Stop) is { } stop)
                entries.Add(Entry(row.Part.Key, stop, row.Part.Count));
        }
        return BuildLedger.Work(design with { Ledger = entries }, 7);
    }

    /// <summary>
    /// Each rule: the part that is missing, the copper that lies ready and must stay off, and what is said. With the part in place the
    /// rule is silent; with the copper on already it says what to undo.
    /// </summary>
    [Theory]
    [InlineData(
        "bank-before-fuse",
        "fuse-main",
        "cut-main-post-fuse-plus",
        "Do not connect the bank: the main fuse F1 is not fitted",
        "Take M1+ off"
    )]
    [InlineData(
        "strings-before-fuses",
        "fuse-strings",
        "cut-link-plus-1",
        "Do not join the strings: their fuses FA–FD are not",
        "Take the strings"
    )]
    [InlineData(
        "branch-before-fuse",
        "fuse-load-l5",
        "cut-load-l5",
        "Do not connect Ceiling lights: its fuse F6 is not fitted",
        "Take C5± off"
    )]
    [InlineData(
        "charge-before-balancer",
        "balancer",
        "cut-source-roof",
        "Do not charge the bank: the balancers UA–UD",
        "Switch the chargers off"
    )]
    [InlineData(
        "inverter-before-pre-charge",
        "pre-charge",
        "cut-main-bus-inverter-plus",
        "Do not connect the inverter: the pre-charge R1",
        "Take M4+"
    )]
    [InlineData(
        "inverter-before-bond",
        "cut-bonding",
        "cut-main-bus-inverter-plus",
        "Do not connect the inverter: the bond E1",
        "Switch the inverter"
    )]
    [InlineData(
        "modules-before-controller",
        "source-roof",
        "cut-array-roof",
        "Do not connect the modules of Roof: their controller",
        "Cover the modules"
    )]
    [InlineData(
        "bank-before-switch",
        "switch",
        "cut-main-post-fuse-plus",
        "Do not connect the bank: the main switch S1 is not fitted",
        "Take M1+ off"
    )]
    [InlineData(
        "bank-before-covers",
        "covers",
        "cut-main-post-fuse-plus",
        "Do not connect the bank: 30 covers over live lugs are not",
        "Cover the live"
    )]
    public void What_is_missing_forbids(string rule, string missing, string copper, string says, string undo)
    {
        Assert.DoesNotContain(Built(Set).Bans, b => b.Rule == rule);

        var done = Assert.Single(Built(Set, (missing, null)).Bans, b => b.Rule == rule);
        Assert.True(done.Broken);
        Assert.StartsWith(undo, done.Sentence, StringComparison.Ordinal);
        Assert.EndsWith("/" + missing, done.Key, StringComparison.Ordinal);
        Assert.Contains(done.Subjects, s => s.EndsWith("/" + copper, StringComparison.Ordinal));

        LedgerResult All(LedgerStop stop) =>
            Built(Set, [(missing, null), .. done.Subjects.Select(s => (s.Split('/')[1], (LedgerStop?)stop))]);
        var ready = Assert.Single(All(LedgerStop.Here).Bans, b => b.Rule == rule);
        Assert.False(ready.Broken);
        Assert.StartsWith(says, ready.Sentence, StringComparison.Ordinal);
        // What does not lie ready yet is no matter of now, and is told as one of later.
        var later = All(LedgerStop.Ordered);
        Assert.DoesNotContain(later.Bans, b => b.Rule == rule);
        Assert.Contains(later.Later, b => b.Rule == rule);
    }

    /// <summary>Units that are not measured at rest are not joined, though they stand in their places.</summary>
    [Fact]
    public void Strings_are_joined_once_every_unit_is_measured()
    {
        var unit = $"unit-{Set.Banks[0].Unit!.Key}";
        var ban = Assert.Single(
            Built(Set, (unit, LedgerStop.Fitted), ("cut-link-plus-1", LedgerStop.Here), ("cut-link-minus-1", LedgerStop.Here)).Bans,
            b => b.Rule == "strings-before-measured"
        );
        Assert.StartsWith("Do not join the strings: the units A–D are not all measured at rest", ban.Sentence, StringComparison.Ordinal);
        // One string has nothing to be joined to.
        var single = Set with { Banks = [Set.Banks[0] with { Parallel = 1, Positions = [] }] };
        Assert.DoesNotContain(Built(single, (unit, LedgerStop.Fitted)).Bans, b => b.Rule == "strings-before-measured");
    }

    /// <summary>Nothing set: the stop below 0 °C comes before the other settings, and lead has no such stop.</summary>
    [Fact]
    public void A_charger_waits_for_its_settings_and_for_its_stop_in_the_cold()
    {
        var bans = Built(Bus, ("cut-source-roof", LedgerStop.Here)).Bans;
        var cold = Assert.Single(bans, b => b is { Rule: "charge-before-cold-stop", Broken: false });
        Assert.StartsWith("Do not connect Roof: nothing is set that stops it below 0 °C", cold.Sentence, StringComparison.Ordinal);
        var rest = Assert.Single(bans, b => b is { Rule: "charge-before-settings", Broken: false });
        Assert.Matches("^Do not connect Roof: [0-9]+ of its settings are not put in$", rest.Sentence);

        // The stop alone ends the first and leaves the second; all of them end both.
        var stopped = ListBack.WithSetting(Bus, "b1", "roof", "leastC", true, null, null)!;
        bans = Built(stopped, ("cut-source-roof", LedgerStop.Here)).Bans;
        Assert.DoesNotContain(bans, b => b is { Rule: "charge-before-cold-stop", Broken: false });
        Assert.Contains(bans, b => b is { Rule: "charge-before-settings", Broken: false });
        Assert.DoesNotContain(Built(Set, ("cut-source-roof", LedgerStop.Here)).Bans, b =>
            b.Rule is "charge-before-settings" or "charge-before-cold-stop"
        );
    }

    /// <summary>Lead gives off hydrogen: its box comes before its chargers; it freezes no metal out and has no stop in the cold.</summary>
    [Fact]
    public void Lead_wants_its_vented_box_first()
    {
        var hare = Some.Demo("Hare");
        var lead = hare.Banks.All(b => b.Unit is { Chemistry: "lfp" }) ? LeadBus() : hare;
        var ledger = Built(AllSet(lead), ("box", null));
        var ban = Assert.Single(ledger.Bans, b => b.Rule == "charge-before-vent");
        Assert.StartsWith("Switch the chargers off: its vented box is not fitted", ban.Sentence, StringComparison.Ordinal);
        Assert.DoesNotContain(Built(lead).Bans, b => b.Rule == "charge-before-cold-stop");
        Assert.DoesNotContain(Built(Set, ("box", null)).Bans, b => b.Rule == "charge-before-vent");
    }

    private static DesignDocument LeadBus() =>
        Bus with
        {
            Banks =
            [
                Bus.Banks[0] with
                {
                    Chemistry = "agm",
                    Unit = Bus.Banks[0].Unit! with { Key = "agm", Name = "AGM 12 V 100 Ah", Chemistry = "agm", Cells = 6, Bms = null },
                    Positions = [],
                },
            ],
        };

    /// <summary>
    /// Bare cells have nothing that stops them until their BMS is in; one that looks at their temperature is the stop in the cold.
    /// </summary>
    [Fact]
    public void Bare_cells_wait_for_their_bms()
    {
        var bare = Bus with
        {
            Banks =
            [
                Bus.Banks[0] with
                {
                    Series = 8,
                    Parallel = 1,
                    Positions = [],
                    Unit = Bus.Banks[0].Unit! with { Key = "cell", Name = "LFP cell 3.2 V 280 Ah", Cells = 1, Ah = 280, Bms = null },
                    Bms = new()
                    {
                        Key = "bms",
                        Name = "BMS 8S 150 A",
                        ContinuousA = 150,
                        LeastChargeC = 0,
                    },
                },
            ],
        };
        var ban = Assert.Single(Built(bare, ("bms", LedgerStop.Here), ("cut-main-post-fuse-plus", LedgerStop.Here)).Bans, b =>
            b.Rule == "bank-before-bms"
        );
        Assert.StartsWith("Do not connect the cells: their BMS is not fitted", ban.Sentence, StringComparison.Ordinal);
        Assert.DoesNotContain(Built(bare).Bans, b => b.Rule is "bank-before-bms" or "charge-before-cold-stop");
        Assert.Contains(Built(bare, ("bms", LedgerStop.Here)).Bans, b => b.Rule == "charge-before-cold-stop");
    }

    /// <summary>
    /// Straps hold what is in its place already: they bar no unit, and nobody sets off without them. A house does not set off.
    /// </summary>
    [Fact]
    public void Nobody_sets_off_with_loose_units()
    {
        var moving = Set with { Place = Set.Place with { Trim = new() } };
        var ban = Assert.Single(Built(moving, ("straps", null)).Bans, b => b.Rule == "moving-before-straps");
        Assert.Equal("Do not set off: the units are not strapped down, and fly in a crash or a knock-down", ban.Sentence);
        Assert.Empty(ban.Subjects);
        Assert.Empty(Built(Set with { Place = Set.Place with { Trim = null } }, ("straps", null)).Bans);
        var unit = $"unit-{Set.Banks[0].Unit!.Key}";
        Assert.Contains(Built(moving, ("straps", null), (unit, LedgerStop.Here)).Acts, a =>
            a.Words.StartsWith("fit A–D", StringComparison.Ordinal)
        );
    }

    /// <summary>Every rule has a test above: a new one is not forgotten.</summary>
    [Fact]
    public void Every_rule_is_tested()
    {
        var named = typeof(LedgerTests)
            .GetMethod(nameof(What_is_missing_forbids))!
            .GetCustomAttributes(typeof(InlineDataAttribute), false)
            .Cast<InlineDataAttribute>()
            .Select(a => (string)a.Data[0]!)
            .Concat([
                "strings-before-measured",
                "charge-before-settings",
                "charge-before-cold-stop",
                "charge-before-vent",
                "bank-before-bms",
                "moving-before-straps",
            ]);
        Assert.Equal(BuildLedger.Rules.Order(StringComparer.Ordinal), named.Order(StringComparer.Ordinal));
    }

    /// <summary>The gravest is the headline: a fuse before a setting, and what is done wrongly before what is not done yet.</summary>
    [Fact]
    public void The_headline_is_the_gravest()
    {
        Assert.StartsWith("Order ", BuildLedger.Work(Bus).Headline, StringComparison.Ordinal);
        var bans = Built(Bus, ("fuse-main", LedgerStop.Here), ("cut-main-post-fuse-plus", LedgerStop.Here), ("fuse-source-roof", null));
        Assert.StartsWith(
            "Do not connect the bank: the main fuse F1 is not fitted; a short pushes 14.8 kA",
            bans.Headline,
            StringComparison.Ordinal
        );
        Assert.Equal("b1/fuse-main", bans.Bans[0].Key);
        Assert.Equal(["b1/fuse-main"], bans.Acts[0].Keys);
        Assert.Equal("fit F1, main fuse 200 A", bans.Acts[0].Words);

        var next = Built(Set, ("cut-main-post-fuse-plus", LedgerStop.Here));
        Assert.Equal("Fit M1+: 50 mm², 0.15 m lies cut", next.Headline);
        Assert.Equal("Built and proven on 24 November 2026, revision 7", Built(Set).Headline);
        Assert.Equal(
            "Nothing to draw yet: choose a unit at Bank",
            BuildLedger.Work(new DesignDocument { Banks = [new() { Id = "b1" }] }).Headline
        );
    }

    /// <summary>
    /// By quantity: six of eight fitted is here as a whole; what is ordered is not bought again, and what it cost is added up.
    /// </summary>
    [Fact]
    public void Quantities_and_money_are_kept()
    {
        var unit = $"b1/unit-{Bus.Banks[0].Unit!.Key}";
        var design = Bus with
        {
            Ledger =
            [
                new()
                {
                    Key = unit,
                    Paid = 2430,
                    Marks = [new() { Stop = LedgerStop.Here, Count = 8 }, new() { Stop = LedgerStop.Fitted, Count = 6 }],
                },
                Entry("b1/fuse-strings", LedgerStop.Ordered, 3) with
                {
                    Paid = 150.5,
                },
                // 0.15 m of the red drum lies cut, and so does what goes to the roof's neighbours not.
                Entry("b1/cut-main-post-fuse-plus", LedgerStop.Here, 1),
            ],
        };
        var (before, after) = (BuildLedger.Work(Bus), BuildLedger.Work(design));
        var units = Row(after, unit[3..]);
        Assert.Equal((8.0, 8.0, 6.0, 0.0), (units.Reached.Ordered, units.Reached.Here, units.Reached.Fitted, units.Reached.Proven));
        Assert.Equal((LedgerStop.Here, 0.0), (units.Whole!.Value, units.ToBuy));
        Assert.Equal((null, 1.0), (Row(after, "fuse-strings").Whole, Row(after, "fuse-strings").ToBuy));
        Assert.Equal(2580.5, after.PaidSum);
        var drum = Row(after, "cable-50 mm²-red");
        Assert.Equal(Math.Round(drum.Part.Count - 0.15, 2), drum.ToBuy);
        Assert.Equal(before.Count, after.Count);
        Assert.Equal(before.Count, after.At.Sum());
        Assert.Equal([before.Count, 0, 0, 0, 0], before.At);
        // Units of 310 each and three of four fuses of 62 and the piece of cable are bought: the sum to buy falls by as much.
        Assert.StartsWith($"{before.Rows.Count(r => r.Kind != LedgerKind.Copper)} to buy: ", before.ToBuy, StringComparison.Ordinal);
        Assert.NotEqual(before.ToBuy, after.ToBuy);
    }

    /// <summary>A design that changed after ordering marks what it touches: rating, class, size, count, and parts that are gone.</summary>
    [Fact]
    public void What_changed_since_it_was_ordered_is_marked()
    {
        var rows = BuildLedger.Work(Bus).Rows;
        var ordered = Bus with
        {
            Ledger =
            [
                .. rows.Select(r =>
                    Entry(r.Part.Key, LedgerStop.Ordered, r.Part.Count) with
                    {
                        Wanted = new()
                        {
                            Name = r.Part.Name,
                            Spec = r.Part.Spec,
                            Count = r.Part.Count,
                        },
                    }
                ),
            ],
        };
        Assert.All(BuildLedger.Work(ordered).Rows, r => Assert.Null(r.Touched));
        Assert.DoesNotContain(BuildLedger.Work(ordered).Rows, r => r.Gone);

        var other = ordered with { Banks = [ordered.Banks[0] with { Runs = [.. ordered.Banks[0].Runs.Select(Thicker)] }] };
        var after = BuildLedger.Work(other);
        Assert.Equal("ordered as 200 A, design now wants 175 A", Row(after, "fuse-main").Touched);
        Assert.Equal("ordered for 50 mm², 0.15 m, design now wants 70 mm², 0.15 m", Row(after, "cut-main-post-fuse-plus").Touched);
        Assert.Null(Row(after, "fuse-source-roof").Touched);

        var wider = BuildLedger.Work(ordered with { Banks = [ordered.Banks[0] with { Parallel = 5 }] });
        Assert.Equal("8 wanted when it was ordered, now 10", Row(wider, $"unit-{Bus.Banks[0].Unit!.Key}").Touched);
        Assert.Equal(2, Row(wider, $"unit-{Bus.Banks[0].Unit!.Key}").ToBuy);

        var less = BuildLedger.Work(ordered with { Banks = [ordered.Banks[0] with { Sources = [.. ordered.Banks[0].Sources.Skip(1)] }] });
        var gone = less.Rows.Where(r => r.Gone).Select(r => r.Part.Key).ToList();
        Assert.Contains("b1/source-roof", gone);
        Assert.Contains("b1/fuse-source-roof", gone);
        Assert.Equal("ordered, and the design has no such part any more", less.Rows.First(r => r.Gone).Touched);
        // They are none of the design's parts, and no act is about them.
        Assert.Equal(less.Rows.Count(r => !r.Gone), less.Count);
    }

    private static Run Thicker(Run run) =>
        run.Id == Run.MainId ? run with { Size = "70 mm²", Fuse = run.Fuse with { RatingA = 175 } } : run;

    /// <summary>A list that comes back says the same of every part, and only what was written into it changes.</summary>
    [Fact]
    public void Marks_and_settings_come_back()
    {
        var demo = Some.Demo("Marrow");
        var rows = BuildLedger.Work(demo).Rows;
        var same = rows.Aggregate(demo, (d, r) => ListBack.WithMarks(d, r.Part, r.Entry is { } at ? demo.Ledger[at].Marks : [], r.Paid));
        Assert.Empty(DesignDifference.Between(demo, same));
        var fuse = rows.Single(r => r.Part.Key == "b1/fuse-main");
        var mark = new LedgerMark
        {
            Stop = LedgerStop.Fitted,
            Count = 1,
            Date = "2026-11-29",
        };
        var after = ListBack.WithMarks(demo, fuse.Part, [mark], 60);
        Assert.All(DesignDifference.Between(demo, after), c => Assert.StartsWith("/ledger/", c.Path, StringComparison.Ordinal));
        Assert.DoesNotContain(BuildLedger.Work(after).Bans, b => b.Rule == "bank-before-fuse");
        Assert.Null(ListBack.WithSetting(demo, "b1", "roof", "none", true, null, null));
        Assert.Null(ListBack.WithSetting(demo, "b1", "nobody", "absorbV", true, null, null));
        Assert.Null(ListBack.WithSetting(demo, "b9", "roof", "absorbV", true, null, null));
        Assert.Same(demo, ListBack.WithSetting(demo, "b1", DeviceSetting.Monitor, "chargedV", false, null, null));
        var monitor = ListBack.WithSetting(demo, "b1", DeviceSetting.Monitor, "chargedV", true, 28.1, "2026-11-29")!;
        Assert.Equal((true, 28.1), (monitor.Banks[0].Cards[^1].Set, monitor.Banks[0].Cards[^1].Seen));
    }

    [Fact]
    public void A_ledger_that_says_two_things_is_refused()
    {
        DesignDocument With(params LedgerMark[] marks) => Bus with { Ledger = [new() { Key = "b1/fuse-main", Marks = marks }] };
        string[] Faults(DesignDocument design) => [.. DesignCheck.Faults(design).Select(f => f.Pointer)];
        Assert.Empty(
            Faults(
                With(
                    new LedgerMark
                    {
                        Stop = LedgerStop.Here,
                        Count = 1,
                        Date = "2026-11-29",
                    }
                )
            )
        );
        Assert.Equal(
            ["/ledger/0/marks/0/date"],
            Faults(
                With(
                    new LedgerMark
                    {
                        Stop = LedgerStop.Here,
                        Count = 1,
                        Date = "29.11.2026",
                    }
                )
            )
        );
        Assert.Equal(
            ["/ledger/0/marks/0/reason"],
            Faults(
                With(
                    new LedgerMark
                    {
                        Stop = LedgerStop.Proven,
                        Count = 1,
                        Reason = " ",
                    }
                )
            )
        );
        Assert.Equal(
            ["/ledger/0/marks/1/stop"],
            Faults(With(new LedgerMark { Stop = LedgerStop.Here, Count = 1 }, new LedgerMark { Stop = LedgerStop.Here, Count = 2 }))
        );
        Assert.Equal(["/ledger"], Faults(Bus with { Ledger = [new() { Key = "a" }, new() { Key = "a" }] }));
    }
}

using InkyBadger.Core.Design;
using InkyBadger.Core.Rehearsal;

namespace InkyBadger.Core.Tests.Designs;

/// <summary>A bank run down on its real network, unit by unit, by hand and against the plain calculation.</summary>
public class BankRunDownTests
{
    /// <summary>0 to 5, 10, 20, … 100 %: each stretch times the mean of its ends.</summary>
    private static double LfpWhPerAh =>
        Reference
            .RestVoltage.Get("lfp")
            .Zip(Reference.RestVoltage.Get("lfp").Skip(1), (a, b) => (b.Soc - a.Soc) * (a.CellV + b.CellV) / 2)
            .Sum();

    private static BankRunDownResult Run(DesignDocument design, double? watts, double? amps) =>
        BankRunDown.Work(design, 0, watts, amps)!.Run;

    private static DesignDocument Twelve(params Position[] positions) =>
        Some.New(Some.Dc("Lamp", 100, 5))
            .With(
                ("~/inverters", Array.Empty<object>()),
                ("~/systemV", 12),
                ("~/unit", Some.Unit("lfp-12-100")),
                ("~/series", 1),
                ("~/parallel", 2),
                ("~/wiring/style", WiringStyle.BusBars),
                ("~/positions", positions)
            );

    /// <summary>Alike and level, on bus bars: each carries half, both end after 200 Ah ÷ 50 A, and nothing stays.</summary>
    [Fact]
    public void Alike_strings_end_together()
    {
        var run = Run(Twelve(), null, 50);
        Assert.Equal(4, run.DarkH, 6);
        Assert.All(run.AmpsByString, amps => Assert.Equal(25, amps[0], 9));
        Assert.Equal("Both strings end together at 4 h; nothing stays", run.Headline);
        Assert.Empty(run.Stranded);
        // The area under the table of rest volts; a part of it is lost in the strings.
        Assert.Equal(2 * 100 * 4 * LfpWhPerAh, run.HeldWh, 6);
        Assert.InRange(run.DeliveredWh, 0.97 * run.HeldWh, run.HeldWh);
    }

    /// <summary>
    /// Emptied within a minute, of a unit that bears it: what is delivered is still what was in it less the heat in its ohms, and not the
    /// volts of its beginning all the way. 2 Ah at 120 A are a minute; 120² × 0.1 mΩ of each, 1.4 W, are next to nothing.
    /// </summary>
    [Fact]
    public void A_minute_is_run_down_as_finely_as_an_hour()
    {
        var design = Twelve()
            .With(
                ("~/parallel", 1),
                ("~/unit/ah", 2),
                ("~/unit/resistanceOhm", 0.0001),
                ("~/unit/continuousA", 2000),
                ("~/unit/bms/continuousA", 2000),
                ("~/unit/bms/peakA", 3000)
            );
        var run = Run(design, null, 120);
        Assert.Equal(1.0 / 60, run.DarkH, 4);
        Assert.Equal(2 * 4 * LfpWhPerAh, run.HeldWh, 6);
        Assert.InRange(run.DeliveredWh + run.StrandedWh, 0.96 * run.HeldWh, 1.002 * run.HeldWh);
    }

    /// <summary>
    /// Two in series, one 20 Ah behind: the string ends when that one is empty, at 80 Ah ÷ 20 A, and 20 Ah of the other never come out.
    /// </summary>
    [Fact]
    public void A_string_ends_with_its_emptiest_unit()
    {
        var design = Twelve()
            .With(
                ("~/systemV", 24),
                ("~/series", 2),
                ("~/parallel", 1),
                (
                    "~/positions",
                    new[]
                    {
                        new Position
                        {
                            String = 1,
                            Unit = 2,
                            Soc = 0.8,
                        },
                    }
                )
            );
        var run = Run(design, null, 20);
        Assert.Equal(4, run.DarkH, 6);
        var drop = Assert.Single(run.Drops);
        Assert.Equal((1, 2, DropReason.Empty), (drop.String, drop.Unit, drop.Reason));
        var left = Assert.Single(run.Stranded);
        Assert.Equal((1, 1, 20.0), (left.String, left.Unit, Math.Round(left.Ah, 6)));
        Assert.InRange(run.StrandedWh, 20 * 4 * 3.0, 20 * 4 * 3.25);
        Assert.Equal("The string ends at 4 h: unit A2 is empty, and the others are not", run.Headline);
    }

    /// <summary>
    /// A joint of 22 mΩ: string A has so much more than B's units and leads, and carries as much less. Once B is empty it carries all, and
    /// its BMS of 100 A opens at a load above that.
    /// </summary>
    [Fact]
    public void A_bad_joint_holds_its_string_back_until_it_must_carry_all()
    {
        var bad = Twelve(
            new Position
            {
                String = 1,
                Unit = 1,
                JointMilliohm = 22,
            }
        );
        var run = Run(bad, null, 90);
        var wired = new SiteWork(bad)[0].Wired.Need();
        // On bus bars each string has its two leads: at the first moment, both full, they share by conductance.
        var leads = 2 * wired.Lead.Ohm;
        var (a, b) = (wired.StringOhm[0] + leads, wired.StringOhm[1] + leads);
        Assert.Equal(0.025, wired.StringOhm[0], 9);
        Assert.Equal(90 * b / (a + b), run.AmpsByString[0][0], 9);
        Assert.Equal(2, run.Drops[0].String);
        Assert.Equal(run.MostA[0] * run.MostA[0] * 0.022, run.WorstJoint!.HeatW, 9);
        Assert.Equal("joint at A1", run.WorstJoint.Where);
        // What went out of the strings is what the load took, as long as any string was in.
        var gone = 200 - run.AhByUnit.Sum(s => s.Sum(u => u[^1]));
        Assert.Equal(90 * run.DarkH, gone, 3);
        Assert.StartsWith("String B leaves first", run.Headline, StringComparison.Ordinal);
        // Sound, both end together.
        Assert.StartsWith("Both strings end together", Run(Twelve(), null, 90).Headline, StringComparison.Ordinal);
    }

    private static DesignDocument LargeBesideSmall()
    {
        UnitItem Unit(double ah, double ohm, double limit) =>
            new()
            {
                Key = $"u{ah}",
                Name = $"LFP 12.8 V {ah} Ah",
                Chemistry = "lfp",
                Cells = 4,
                Ah = ah,
                ResistanceOhm = ohm,
                Bms = new() { ContinuousA = limit, ChargeA = ah / 2 },
            };
        return NewDesign
            .Empty("Large beside small")
            .With(
                ("~/unit", Unit(280, 0.0016, 200)),
                ("~/series", 1),
                ("~/parallel", 2),
                (
                    "~/positions",
                    new[]
                    {
                        new Position
                        {
                            String = 2,
                            Unit = 1,
                            Item = Unit(105, 0.003, 100),
                        },
                    }
                ),
                ("~/wiring/style", WiringStyle.BusBars)
            );
    }

    /// <summary>
    /// 280 Ah beside 105 Ah. The area under LFP’s rest volts is 3.2679 V a cell: 385 Ah hold 5,033 Wh. At 90 A all of them are gone after
    /// 385 ÷ 90 = 4.278 h, the small one a minute before. At 220 A they would be after 1.75 h; but when the small one is empty the large
    /// one would carry all of 220 A, over its 200: it opens at once, and keeps what it still has.
    /// </summary>
    [Fact]
    public void A_large_unit_beside_a_small_one()
    {
        var design = LargeBesideSmall();
        var slow = Run(design, null, 90);
        Assert.Equal(5032.5, slow.HeldWh, 1);
        Assert.Equal(385 / 90.0, slow.DarkH, 3);
        Assert.Equal([2, 1], slow.Drops.Select(d => d.String));
        Assert.Equal(0, slow.StrandedWh, 1);
        // What is lost on the way is I²R of both and their leads, some 1.3 mΩ together: 44 Wh of it.
        var wired = new SiteWork(design)[0].Wired.Need();
        double a = 0.0016 + 2 * wired.Lead.Ohm,
            b = 0.003 + 2 * wired.Lead.Ohm;
        Assert.Equal(5032.5 - 90 * 90 * (a * b / (a + b)) * 385 / 90, slow.DeliveredWh, 5.0);
        Assert.Equal(90 * a / (a + b), slow.AmpsByString[1][0], 6);
        Assert.StartsWith("Both strings end together at 4.3 h", slow.Headline, StringComparison.Ordinal);

        var hard = Run(design, null, 220);
        Assert.Equal((2, DropReason.Empty), (hard.Drops[0].String, hard.Drops[0].Reason));
        Assert.Equal((1, DropReason.Current, 220.0), (hard.Drops[1].String, hard.Drops[1].Reason, Math.Round(hard.Drops[1].Amps, 6)));
        Assert.InRange(hard.DarkH, 1.73, 1.75);
        Assert.Equal(385 - 220 * hard.DarkH, hard.Stranded.Single().Ah, 2);
        Assert.Equal("String B leaves first, at 1.7 h; A alone takes 220.0 A and opens at once", hard.Headline);
    }

    /// <summary>Each figure of a run is what its printed line gives, in watts and in amperes.</summary>
    [Fact]
    public void A_run_opens_its_working()
    {
        foreach (var (watts, amps) in new (double?, double?)[] { (1100, null), (null, 90) })
        {
            var answer = BankRunDown.Work(Some.Demo("Tern"), 0, watts, amps)!;
            Assert.Equal(["/rundown/strandedWh", "/rundown/deliveredWh", "/rundown/darkH"], answer.Working.Select(e => e.Pointer));
            Assert.Equal([answer.Run.StrandedWh, answer.Run.DeliveredWh, answer.Run.DarkH], answer.Working.Select(e => e.Value));
            Assert.All(answer.Working, e => Assert.Equal(e.Value, Working.FormReader.Work(e), 6));
        }
    }

    /// <summary>Beyond what one string may carry, the loss of the first takes the other with it at once.</summary>
    [Fact]
    public void The_last_string_opens_over_its_limit()
    {
        var run = Run(
            Twelve(
                new Position
                {
                    String = 1,
                    Unit = 1,
                    JointMilliohm = 22,
                }
            ),
            null,
            104
        );
        Assert.Equal((2, DropReason.Empty), (run.Drops[0].String, run.Drops[0].Reason));
        Assert.Equal((1, DropReason.Current), (run.Drops[1].String, run.Drops[1].Reason));
        Assert.Equal(104, run.Drops[1].Amps, 6);
        Assert.True(run.Stranded.Single(u => u.String == 1).Ah > 10);
    }

    /// <summary>
    /// 22 mΩ under the 100 A its string may carry once the others are empty are 220 W: a danger, ended when it is cleaned.
    /// </summary>
    [Fact]
    public void A_bad_joint_is_found_and_mended()
    {
        var bad = Some.Marrow.With(
            (
                "~/positions/-",
                new Position
                {
                    String = 1,
                    Unit = 1,
                    JointMilliohm = 22,
                }
            )
        );
        var found = bad.Finding("bank.joint")!;
        var amps = Evaluator.Evaluate(bad).Banks[0].Network!.Strings.Amps[0];
        Assert.Equal(Findings.Grade.Danger, found.Grade);
        Assert.Equal((amps, 100.0, 220.0), (found.Figures[0].Value, found.Figures[1].Value, Math.Round(found.Figures[2].Value, 9)));
        // Its string gives less than it would.
        Assert.True(amps < Evaluator.Evaluate(Some.Marrow).Banks[0].Network!.Strings.Amps[0] / 2);
        Assert.Null(bad.Mended("bank.joint").Finding("bank.joint"));
        Assert.Equal(
            Findings.Grade.Caution,
            Some.Marrow.With(
                    (
                        "~/positions/-",
                        new Position
                        {
                            String = 4,
                            Unit = 2,
                            JointMilliohm = 0.4,
                        }
                    )
                )
                .Finding("bank.joint")!
                .Grade
        );
        Assert.Null(Some.Marrow.Finding("bank.joint"));
    }

    /// <summary>Strings on bus bars are units in parallel: the plain calculation gives the same.</summary>
    [Theory]
    [InlineData(400.0, 1.0, 1.0)]
    [InlineData(900.0, 0.9, 0.7)]
    [InlineData(1500.0, 1.0, 0.55)]
    public void It_is_the_plain_run_down_on_bus_bars(double watts, double first, double second)
    {
        var design = Twelve(
            new Position
            {
                String = 1,
                Unit = 1,
                Health = first,
            },
            new Position
            {
                String = 2,
                Unit = 1,
                Health = second,
            }
        );
        var wired = new SiteWork(design)[0].Wired.Need();
        var unit = Some.Unit("lfp-12-100");
        RunDownUnit Plain(double health, int s) =>
            new(100 * health, wired.StringOhm[s] + 2 * wired.Lead.Ohm, 1, 2.5, unit.Bms!.ContinuousA);
        var plain = RunDown.Work([Plain(first, 0), Plain(second, 1)], "lfp", 4, watts, null, null, 10);
        var run = Run(design, watts, null);
        Assert.Equal(plain.DeliveredWh, run.DeliveredWh, plain.DeliveredWh * 0.004);
        Assert.Equal(plain.Hours, run.DarkH, plain.Hours * 0.004);
        Assert.Equal(plain.Order, run.Drops.Select(d => d.String));
    }

    /// <summary>More watts, less time; what is asked for is refused where it makes no sense.</summary>
    [Fact]
    public void At_other_loads()
    {
        var others = BankRunDown.Others(Twelve(), 0, 1000, null)!;
        Assert.Equal([300, 500, 750, 1250], others.Select(o => o.LoadW));
        Assert.Equal(others.Select(o => o.DarkH).OrderDescending(), others.Select(o => o.DarkH));
        // What is said of a load is what its own run says.
        Assert.Equal(Run(Twelve(), 500, null).DarkH, others[1].DarkH);
        Assert.Equal("loadW", Assert.Throws<Refusal>(() => BankRunDown.Work(Twelve(), 0, -1, null)).Field);
        Assert.Null(BankRunDown.Work(NewDesign.Empty("x"), 0, 100, null));
        Assert.Null(BankRunDown.Others(NewDesign.Empty("x"), 0, 100, null));
    }

    /// <summary>
    /// 5 mΩ at a lug of the link from A to B: less comes over it, and 5 mΩ times what comes squared are its heat. A short counts it as
    /// sound.
    /// </summary>
    [Fact]
    public void A_bad_lug_of_a_link()
    {
        var bad = Some.Marrow.With(
            (
                "~/wiring/links/-",
                new PlacedConductor
                {
                    Rail = Pole.Positive,
                    After = 1,
                    JointMilliohm = 5,
                }
            )
        );
        var (before, after) = (Some.Marrow.Bank().Network!, bad.Bank().Network!);
        var link = after.Copper.Placed.Single(c => c is { Kind: ConductorKind.Link, Rail: Pole.Positive, After: 1 });
        Assert.Equal(before.Copper.Link.Ohm + 0.005, link.Ohm, 12);
        Assert.True(after.Strings.Amps[0] > before.Strings.Amps[0] * 1.3, "string A takes what the others cannot give");
        var found = bad.Finding("bank.lug")!;
        Assert.Equal(Findings.Grade.Danger, found.Grade);
        Assert.Equal([link.Amps, link.Amps * link.Amps * 0.005], found.Figures.Select(f => f.Value));
        Assert.Equal("A bad lug on the positive link A to B, 5.0 mΩ", found.Title);
        Assert.Null(bad.Mended("bank.lug").Finding("bank.lug"));
        Assert.Equal(Some.Marrow.Bank().Protection!.Short.Amps, bad.Bank().Protection!.Short.Amps, 6);
        // Its strings leave one after the other, and not together.
        var run = Run(bad, null, 120);
        Assert.StartsWith("String A leaves first", run.Headline, StringComparison.Ordinal);
        // The positive leaves at A: without it all of the load comes over the link.
        Assert.Equal("lug on the positive link A to B", run.WorstJoint!.Where);
        Assert.Equal(120, run.WorstJoint.Amps, 9);
        Assert.Equal(120 * 120 * 0.005, run.WorstJoint.HeatW, 9);
        Assert.Null(Some.Marrow.Finding("bank.lug"));
    }
}

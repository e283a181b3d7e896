using InkyBadger.Core.Banks;
using InkyBadger.Core.Design;
using InkyBadger.Core.Findings;
using InkyBadger.Core.Network;

namespace InkyBadger.Core.Tests.Designs;

/// <summary>Units that are not alike: what each string holds, allows, costs and leaves, worked out by hand.</summary>
public class PackTests
{
    private static readonly UnitItem Strong = Some.Unit("lfp-12-230") with
    {
        Key = "strong",
        Ah = 230,
        ResistanceOhm = 0.002,
        Price = 700,
        Bms = new()
        {
            ContinuousA = 150,
            PeakA = 400,
            PeakSeconds = 3,
            ChargeA = 100,
        },
    };

    /// <summary>Two strings of one 12 V unit on bus bars: 100 Ah with 100 A, and 230 Ah with 150 A.</summary>
    private static DesignDocument Two =>
        Some.New(Some.Ac("kettle", 600, 1))
            .With(
                ("~/systemV", 12),
                ("~/unit", Some.Unit("lfp-12-100") with { ResistanceOhm = 0.003 }),
                ("~/series", 1),
                ("~/parallel", 2),
                ("~/wiring", new Design.Wiring { Style = WiringStyle.BusBars }),
                (
                    "~/positions",
                    new[]
                    {
                        new Position
                        {
                            String = 2,
                            Unit = 1,
                            Item = Strong,
                        },
                    }
                )
            );

    /// <summary>Shares by conductance; the first to reach its own limit is the ceiling, and nothing else speaks of another one.</summary>
    [Fact]
    public void One_ceiling_for_all_who_ask()
    {
        var bank = Two.Bank();
        var n = bank.Network!;
        double a = 1 / (0.003 + 2 * n.Copper.Lead.Ohm),
            b = 1 / (0.002 + 2 * n.Copper.Lead.Ohm);
        var ceiling = Math.Min(100 * (a + b) / a, 150 * (a + b) / b);
        Assert.Equal(ceiling, n.Ceiling.Amps!.Value, 9);
        Assert.Equal(
            (250.0, 250 - ceiling),
            (n.Ceiling.IdealA!.Value, Math.Round(n.Ceiling.LossA!.Value, 9) + (250 - ceiling - Math.Round(250 - ceiling, 9)))
        );
        Assert.Equal(ceiling, bank.Chain!.Continuous.Single(l => l.Name == "bank").LimitA!.Value, 9);
        var atLoad = BankAtLoad.Work(Two, 0, ceiling * 0.99)!;
        Assert.Equal([100.0, 150.0], atLoad.LimitsA.Select(l => l!.Value));
        Assert.Null(Two.Finding("bank.over-bms"));
    }

    /// <summary>A string of stronger units only is held to theirs, not to the usual one's: 150 A alone.</summary>
    [Fact]
    public void A_strings_limit_is_its_own_units()
    {
        var bank = Two.With(
                ("~/parallel", 1),
                (
                    "~/positions",
                    new[]
                    {
                        new Position
                        {
                            String = 1,
                            Unit = 1,
                            Item = Strong,
                        },
                    }
                )
            )
            .Bank();
        Assert.Equal((150.0, 150.0, 230.0), (bank.Network!.Ceiling.Amps!.Value, bank.Bank!.ContinuousA!.Value, bank.Bank.Holds.Ah));
    }

    /// <summary>A string that sets no limit leaves the other one's in force, and no sum of limits is known then.</summary>
    [Fact]
    public void A_string_without_a_limit()
    {
        var bank = Two.With(
                (
                    "~/positions",
                    new[]
                    {
                        new Position
                        {
                            String = 2,
                            Unit = 1,
                            Item = Strong with { Bms = null },
                        },
                    }
                )
            )
            .Bank();
        var n = bank.Network!;
        Assert.Equal(100 / n.Strings.Shares[0], n.Ceiling.Amps!.Value, 9);
        Assert.Equal((1, (double?)null, (double?)null), (n.Ceiling.LimitingString!.Value, n.Ceiling.IdealA, n.Ceiling.LossA));
    }

    /// <summary>330 Ah × 12.8 V; without the small string 230 of them are left, without the large one 100.</summary>
    [Fact]
    public void What_is_left_is_what_the_others_hold()
    {
        var bank = Two.Bank().Bank!;
        Assert.Equal((330.0, 330 * 12.8), (bank.Holds.Ah, Math.Round(bank.Holds.RatedWh, 9)));
        var drops = BankAtLoad.Work(Two, 0, 10)!.DropOuts;
        Assert.Equal(230 * 12.8 * bank.Need.Dod, drops[0].LeftWh, 9);
        Assert.Equal(100 * 12.8 * bank.Need.Dod, drops[1].LeftWh, 9);
    }

    /// <summary>The usual one at what it costs here, the other at its own price: 250 + 444.</summary>
    [Fact]
    public void Money_is_each_units_own()
    {
        var own = Two.With(
            (
                "/prices/units",
                new[]
                {
                    new UnitPrice { Key = "lfp-12-100", Price = 250 },
                    new UnitPrice { Key = "strong", Price = 444 },
                }
            )
        );
        Assert.Equal(694, own.Bank().Bank!.Price!.Value, 9);
        Assert.Equal(
            250 + 700,
            Two.With(
                    (
                        "/prices/units",
                        new[]
                        {
                            new UnitPrice { Key = "lfp-12-100", Price = 250 },
                        }
                    )
                )
                .Bank()
                .Bank!.Price!.Value,
            9
        );
    }

    /// <summary>50 + 100 A of charge: 151 A are too much, 149 are not (C-rates allow more).</summary>
    [Theory]
    [InlineData(151, true)]
    [InlineData(149, false)]
    public void Charging_by_each_strings_own_limit(double amps, bool tooMuch)
    {
        var design = Two.With(
            (
                "~/sources",
                new[]
                {
                    new Source
                    {
                        Id = "s1",
                        Kind = SourceKind.Mains,
                        Amps = amps,
                    },
                }
            )
        );
        var finding = design.Finding("charge.too-much");
        Assert.Equal(tooMuch, finding is not null);
        if (finding is not null)
            Assert.Equal((151.0, 150.0), (finding.Figures[0].Value, finding.Figures[1].Value));
    }

    /// <summary>A winch of 5,000 W at 12 V draws 417 A for 2 s: the weak string bears 200 A, the strong one 400 A.</summary>
    [Fact]
    public void A_start_is_judged_in_the_string_that_bears_least()
    {
        var winch = new Load
        {
            Id = "w",
            Name = "Winch",
            Kind = LoadKind.Dc,
            Watts = 1000,
            Hours = 0.1,
            SurgeWatts = 5000,
            StartSeconds = 2,
        };
        Assert.Null(Two.With(("~/demand/loads/-", winch)).Finding("bank.dc-start"));
        var weak = Two.With(
            ("~/demand/loads/-", winch),
            (
                "~/positions/0/item/bms",
                new BmsLimits
                {
                    ContinuousA = 60,
                    PeakA = 80,
                    PeakSeconds = 3,
                }
            )
        );
        var bank = weak.Bank();
        var finding = weak.Finding("bank.dc-start")!;
        Assert.Equal(
            (5000 / bank.Voltage!.LowV * bank.Network!.Strings.Shares[1], 80.0),
            (finding.Figures[0].Value, finding.Figures[1].Value)
        );
    }

    /// <summary>A resistance that is given is taken as it is; of one that is only assumed half counts in the short.</summary>
    [Fact]
    public void Half_of_what_was_assumed_in_the_short()
    {
        var design = Two.With(("~/positions/0/item/resistanceOhm", null));
        var bank = design.Bank();
        var assumed = ShortCircuit.AssumedUnitOhm(Reference.Chemistries.Get("lfp"), 4, 230, true);
        double lead = 2 * bank.Network!.Copper.Lead.Ohm,
            a = 1 / (0.003 + lead),
            b = 1 / (assumed / 2 + lead);
        Assert.True(bank.Protection!.Short.ResistanceAssumed);
        Assert.Equal(1 / (a + b), bank.Protection.Short.BankOhm, 12);
        Assert.Equal(4 * 3.55 * (a + b), bank.Protection.Short.Amps, 6);
        Assert.Equal(1 / (1 / (0.003 + lead) + 1 / (assumed + lead)), bank.Network.BankOhm, 12);
    }

    /// <summary>Units that hold half are a bank of half: the strings that were enough are not any more, and more strings mend it.</summary>
    [Fact]
    public void An_aged_bank_is_too_small()
    {
        var fresh = Some.Marrow;
        var bank = fresh.Bank().Bank!;
        Assert.Null(fresh.Finding("bank.too-small"));
        var aged = fresh.With(
            (
                "~/positions",
                Enumerable
                    .Range(1, bank.Layout.Parallel)
                    .SelectMany(s =>
                        Enumerable
                            .Range(1, bank.Layout.Series)
                            .Select(u => new Position
                            {
                                String = s,
                                Unit = u,
                                Health = 0.5,
                            })
                    )
                    .ToArray()
            )
        );
        var finding = aged.Finding("bank.too-small")!;
        Assert.Equal(
            (Grade.Caution, bank.Holds.Ah / 2, bank.Need.Ah!.Value),
            (finding.Grade, finding.Figures[0].Value, finding.Figures[1].Value)
        );
        // Barely aged they still hold what is asked.
        var hold = bank.Need.Ah.Value / bank.Holds.Ah;
        Assert.Null(
            fresh
                .With(
                    (
                        "~/positions",
                        new[]
                        {
                            new Position
                            {
                                String = 1,
                                Unit = 1,
                                Health = 1 - (1 - hold) * 0.9,
                            },
                        }
                    )
                )
                .Finding("bank.too-small")
        );
    }

    /// <summary>Rest volts of each string by its own units' chemistry: a full AGM beside a full LFP.</summary>
    [Fact]
    public void Rest_volts_are_each_units_own()
    {
        var design = Two.With(
            (
                "~/positions",
                new[]
                {
                    new Position
                    {
                        String = 1,
                        Unit = 1,
                        Soc = 1,
                    },
                    new Position
                    {
                        String = 2,
                        Unit = 1,
                        Soc = 1,
                        Item = Some.Unit("agm-12-100"),
                    },
                }
            )
        );
        double lfp = 4 * Reference.RestVoltage.CellV("lfp", 1),
            agm = 6 * Reference.RestVoltage.CellV("agm", 1);
        Assert.Equal(lfp - agm, design.Finding("bank.unequal-charge")!.Figures[0].Value, 9);
    }

    /// <summary>Of two that claim one place the first stands there; those outside stand nowhere.</summary>
    [Fact]
    public void Positions_that_do_not_fit()
    {
        var design = Two.With(
            (
                "~/positions",
                new[]
                {
                    new Position
                    {
                        String = 2,
                        Unit = 1,
                        Item = Strong,
                    },
                    new Position
                    {
                        String = 2,
                        Unit = 1,
                        Health = 0.1,
                    },
                    new Position
                    {
                        String = 3,
                        Unit = 1,
                        Item = Strong,
                    },
                    new Position
                    {
                        String = 1,
                        Unit = 2,
                        Item = Strong,
                    },
                }
            )
        );
        Assert.Equal(330, design.Bank().Bank!.Holds.Ah, 9);
        var pack = Pack.Of(design, design.Banks[0], Some.Unit("lfp-12-100"), 1, 2);
        Assert.Equal((2, 1, true), (pack.Parallel, pack.Series, pack.IsMixed));
    }
}

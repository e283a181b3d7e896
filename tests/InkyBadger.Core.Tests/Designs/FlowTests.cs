using InkyBadger.Core.Demand;
using InkyBadger.Core.Design;
using InkyBadger.Core.Reference;
using InkyBadger.Core.Voltage;
using InkyBadger.Core.Wiring;

namespace InkyBadger.Core.Tests.Designs;

/// <summary>
/// Everything that flows on the bus flows out of the bank: own runs, other banks, further inverters; and what a new voltage frees.
/// </summary>
public class FlowTests
{
    private static Flows Flows(DesignDocument design, int bank = 0) => new SiteWork(design)[bank].Flows.Need();

    /// <summary>144.3 A and a run of 200 A are 344.3 A everywhere; the AC watts that are left are those of a ceiling less 200 A.</summary>
    [Fact]
    public void A_run_of_ones_own_leaves_the_bank()
    {
        var before = Some.Marrow.Bank();
        var bank = Some
            .Marrow.With(
                (
                    "~/runs/-",
                    new Run
                    {
                        Id = "winch",
                        To = "winch",
                        Amps = 200,
                    }
                )
            )
            .Bank();
        Assert.Equal(before.Currents!.BankWorstA + 200, bank.Currents!.BankWorstA, 9);
        Assert.Equal(before.Currents.BankNominalA + 200, bank.Currents.BankNominalA, 9);
        Assert.Equal(bank.Currents.BankWorstA, bank.Network!.Strings.Amps.Sum(), 9);
        Assert.Equal(bank.Currents.BankWorstA, bank.MainRun!.DesignA, 9);
        Assert.Equal(before.Currents.BesideWorstA + 200, bank.Currents.BesideWorstA, 9);
        var inverter = bank.Inverter!;
        Assert.Equal(
            Math.Max(0, ((bank.Network.Ceiling.Amps!.Value - bank.Currents.BesideWorstA) * 24 - inverter.IdleW) * inverter.Efficiency),
            bank.Network.Ceiling.AllowsAcW!.Value,
            6
        );
        // Thicker copper shares better, which gives some of it back.
        Assert.True(bank.Network.Ceiling.AllowsAcW < before.Network!.Ceiling.AllowsAcW - 200 * 24 * 0.7);
    }

    /// <summary>The trailer's 48 V bank is fed from the 24 V one: 10 A at up to 58.4 V through 93 % ask for 26 A at 24 V.</summary>
    [Fact]
    public void What_another_bank_takes()
    {
        var design = Some.Untested;
        var (giving, taking) = (Evaluator.Evaluate(design).Banks[0], Evaluator.Evaluate(design).Banks[1]);
        var join = Flows(design).All.Single(f => f.Kind == FlowKind.JoinOut);
        Assert.Equal(10 * taking.Voltage!.GreatestV / 0.93 / giving.Voltage!.LowV, join.Out.WorstA, 9);
        Assert.Equal(10 * 51.2 / 0.93 / 25.6, join.Out.NominalA, 9);
        var alone = Evaluator.Evaluate(design with { Joins = [] }).Banks[0];
        Assert.Equal(alone.Currents!.BankWorstA + join.Out.WorstA, giving.Currents!.BankWorstA, 9);
        Assert.Equal(10, taking.Currents!.ChargingA, 9);
        Assert.Equal(10, Flows(design, 1).All.Single(f => f.Kind == FlowKind.JoinIn).ChargingA);
        var run = giving.Circuits.Single(c => c.Kind == CircuitKind.Join);
        Assert.Equal((join.Out.WorstA, "join-j1"), (run.Run.DesignA, run.Id));
    }

    /// <summary>An isolator passes amperes as they are.</summary>
    [Fact]
    public void What_an_isolator_passes()
    {
        var design = Some.Demo("Tern") with
        {
            Joins =
            [
                new()
                {
                    From = "b1",
                    To = "b2",
                    Kind = JoinKind.Isolator,
                    Amps = 40,
                },
            ],
        };
        Assert.Equal((40.0, 40.0), (Flows(design).Joins.WorstA, Flows(design).Joins.NominalA));
    }

    /// <summary>
    /// A second inverter of 1,000 W at 90 % and 10 W idle asks for (1000 ÷ 0.9 + 10) ÷ 24 = 46.7 A more, by a run of its own.
    /// </summary>
    [Fact]
    public void A_second_inverter()
    {
        var item = new InverterItem
        {
            Key = "two",
            Name = "Second",
            SystemV = 24,
            ContinuousW = 1000,
            SurgeW = 2000,
            Efficiency = 0.9,
            IdleW = 10,
            Price = 300,
        };
        var before = Some.Marrow.Bank();
        var bank = Some
            .Marrow.With(
                (
                    "~/inverters/-",
                    new InverterChoice
                    {
                        Id = "i2",
                        Item = item,
                        OnH = 5,
                    }
                )
            )
            .Bank();
        var amps = (1000 / 0.9 + 10) / 24;
        Assert.Equal(before.Currents!.BankWorstA + amps, bank.Currents!.BankWorstA, 9);
        Assert.Equal(amps, bank.Circuits.Single(c => c.Kind == CircuitKind.FurtherInverter).Run.DesignA, 9);
        // At the worst instant it idles: the loads of the list are the first one's.
        Assert.Equal(before.Currents.SurgeWorstA + 10.0 / 24, bank.Currents.SurgeWorstA, 9);
        Assert.Equal(before.Energy!.IdleWh + 50, bank.Energy!.IdleWh, 9);
        Assert.Equal(before.Needs!.InverterPrice!.Value + 300, bank.Needs!.InverterPrice!.Value, 9);
        // By today's loads alone it only idles too.
        var byLoad = ("/houseRules/own", (object?)new Dictionary<string, object> { ["inverter-run-current"] = "load" });
        Assert.Equal(
            Some.Marrow.With(byLoad).Bank().Currents!.BankWorstA + 10.0 / 24,
            Some.Marrow.With(byLoad, ("~/inverters/-", new InverterChoice { Id = "i2", Item = item })).Bank().Currents!.BankWorstA,
            9
        );
    }

    /// <summary>Of two loads of one name only the one that starts hardest is stacked: 500 + 500 + 1,000 W.</summary>
    [Fact]
    public void Two_loads_of_one_name()
    {
        static Load Pump(string id) => Some.Ac(id, 500, 1, 1500) with { Name = "Pump" };
        var bank = Some.New(Pump("a"), Pump("b")).Bank();
        Assert.Equal(2000, bank.Loads!.SurgeDemandW);
        Assert.Equal(2000, bank.Envelope!.Stack.Sum(b => b.Watts));
        Assert.Equal((0, "Pump"), (bank.Loads.Worst.StartingLoad, bank.Loads.Worst.Starting));
    }

    /// <summary>A charger set to 56.8 V is one of 48 V: at 12 V nobody knows its setting yet, 14.6 V are assumed.</summary>
    [Fact]
    public void A_chargers_setting_does_not_come_along()
    {
        var design = Some.Demo("Pell")
            .With(
                ("~/systemV", 48),
                (
                    "~/sources",
                    new[]
                    {
                        new Source
                        {
                            Id = "s1",
                            Kind = SourceKind.Mains,
                            Amps = 20,
                            SettingV = 56.8,
                        },
                    }
                )
            );
        Assert.Equal(56.8, design.Bank().Voltage!.GreatestV, 9);
        var rung = VoltageLadder.Work(design, 0).Single(r => r.SystemV == 12);
        Assert.Equal(14.6, rung.Needs!.TouchV, 9);
        Assert.Equal(14.6, DesignFormat.With(design, rung.Changes).Bank().Voltage!.GreatestV, 9);
    }

    /// <summary>A charger that nobody has set may be at the chemistry's top, 29.2 V, whatever another is set to.</summary>
    [Fact]
    public void One_known_setting_says_nothing_of_the_others()
    {
        Source At(string id, double? volts) =>
            new()
            {
                Id = id,
                Kind = SourceKind.Mains,
                Amps = 10,
                SettingV = volts,
            };
        double Greatest(params Source[] sources) => Some.Marrow.With(("~/sources", sources)).Bank().Voltage!.GreatestV;
        Assert.Equal(
            (28.4, 29.2, 30.0),
            (Greatest(At("a", 28.4)), Greatest(At("a", 28.4), At("b", null)), Greatest(At("a", 30), At("b", null)))
        );
        Assert.Equal(29.2, Some.Marrow.With(("~/sources", new[] { At("a", 28.4), At("b", null) })).Bank().Protection!.GreatestChargingV, 9);
    }

    /// <summary>Two inputs that are refused with the same words are two faults, each by its name.</summary>
    [Fact]
    public void Refusals_are_told_by_field()
    {
        var design = Some.Marrow.With(("~/unit/ah", 0), ("~/inverters/0/item/continuousW", 0));
        var refused = design.Findings().Where(f => f.Rule.StartsWith("refused.", StringComparison.Ordinal)).ToList();
        Assert.Equal(["refused.continuousW", "refused.unitAh"], refused.Select(f => f.Rule).Order(StringComparer.Ordinal));
        Assert.Single(refused.Select(f => f.Why).Distinct());
        // What waits for the bank tells the same cause, not one of its own.
        var because = design.Bank().Because;
        Assert.Equal((because.Bank, because.Bank), (because.Network, because.Protection));
        Assert.Contains("unitAh", because.Bank, StringComparison.Ordinal);
    }

    /// <summary>What a bank of 24 V set to 48 V gives up, and what it keeps.</summary>
    [Fact]
    public void What_a_new_voltage_frees()
    {
        var lamp = new Load
        {
            Id = "l",
            Name = "Lamp",
            Kind = LoadKind.Dc,
            Watts = 40,
            Hours = 5,
            Window = new() { MinV = 20, MaxV = 30 },
        };
        var bank = Some
            .Marrow.With(
                ("~/demand/loads/-", (object?)lamp),
                (
                    "~/sources",
                    new[]
                    {
                        new Source
                        {
                            Id = "s",
                            Kind = SourceKind.Solar,
                            Amps = 20,
                            SettingV = 28.4,
                        },
                    }
                ),
                ("~/wiring/link", new Core.Design.Conductor { Size = "50 mm²", LengthM = 0.4 }),
                (
                    "~/runs/-",
                    new Run
                    {
                        Id = "load-l",
                        Size = "6 mm²",
                        LengthM = 7,
                        Fuse = new()
                        {
                            Class = "blade-32",
                            RatingA = 15,
                            DistanceM = 0.1,
                        },
                    }
                )
            )
            .Banks[0];
        var then = SystemVoltage.Set(bank, 24, 48);
        Assert.Equal((48, (int?)null, (int?)null), (then.SystemV, then.Series, then.Parallel));
        Assert.Equal("lfp-12-100", then.Unit!.Key);
        Assert.Null(then.Inverters[0].Item);
        Assert.Null(then.Sources[0].SettingV);
        Assert.Equal(20, then.Sources[0].Amps);
        Assert.Equal((LoadKind.Converter, 24.0), (then.Demand.Loads[^1].Kind, Math.Round(then.Demand.Loads[^1].Volts!.Value)));
        var run = then.Runs.Single(r => r.Id == "load-l");
        Assert.Equal((null, 7.0, null, null, 0.1), (run.Size, run.LengthM, run.Fuse.Class, run.Fuse.RatingA, run.Fuse.DistanceM));
        Assert.Equal((null, 0.4), (then.Wiring.Link!.Size, then.Wiring.Link.LengthM));
        // Units that may not stand so many in series are looked for anew, among their like; so are those that cannot make it at all.
        Assert.Null(SystemVoltage.Set(bank with { Unit = bank.Unit! with { MaxSeries = 2 } }, 24, 48).Unit);
        var agm = SystemVoltage.Set(bank with { Unit = Some.Unit("agm-12-100") with { Cells = 12 }, Chemistry = null }, 24, 12);
        Assert.Equal((null, "agm"), (agm.Unit, agm.Chemistry));
        Assert.Same(bank.Unit, SystemVoltage.Set(bank, 24, 24).Unit);
        Assert.Equal(bank.Series, SystemVoltage.Set(bank, 24, 24).Series);
        Assert.Equal("systemV", Assert.Throws<Refusal>(() => SystemVoltage.Set(bank, 24, 60)).Field);
    }
}

using InkyBadger.Core.Design;
using InkyBadger.Core.Findings;
using InkyBadger.Core.Reference;
using InkyBadger.Core.Work;
using InkyBadger.Core.Working;

namespace InkyBadger.Core.Tests.Designs;

/// <summary>A design that begins with the bank that exists: unit, series and strings chosen, no load named.</summary>
public class BankFirstTests
{
    private static DesignDocument First(string unit, int series, int parallel) =>
        NewDesign.Empty("Bank first").With(("~/unit", Some.Unit(unit)), ("~/series", series), ("~/parallel", parallel));

    /// <summary>
    /// 2S4P of 12.8 V 100 Ah, 100 A each: 24 V by the units, where no load would say 12. Taken off diagonally the outer strings carry most,
    /// so that the bank gives less than 400 A; behind 1.25 times that stands a 500 A fuse, on copper that carries it.
    /// </summary>
    [Fact]
    public void Volts_sizes_and_the_main_fuse_follow_from_the_bank()
    {
        var design = First("lfp-12-100", 2, 4);
        var e = design.Bank();
        Assert.Equal((24, 12, "the units"), (e.Voltage!.SystemV, e.Voltage.AdvisedV, e.Voltage.Follows));
        Assert.Equal((25.6, 400.0, 10240.0), (e.Bank!.Holds.NominalV, e.Bank.Holds.Ah, e.Bank.Holds.RatedWh));
        Assert.True(e.Currents!.IsOffer);
        Assert.InRange(e.Currents.BankWorstA, 380, 400);
        Assert.True(e.Network!.Ceiling.Amps >= e.Currents.BankWorstA);
        Assert.All(e.Network.Strings.Amps, amps => Assert.True(amps <= 100 + 1e-9));
        Assert.Equal((e.Currents.BankWorstA, 500.0), (e.MainRun!.DesignA, e.MainRun.Fuse.RatingA));
        Assert.True(e.MainRun.Carries.AmpacityA >= 500);
        // 8 × 3.55 V through the bank’s own resistance and the way to the fuse.
        Assert.Equal(8 * 3.55, e.Protection!.Short.OpenV, 9);
        Assert.InRange(e.Protection.Short.Amps, 16_000, 17_500);
        Assert.NotNull(e.Network.OneOut);
        Assert.NotNull(e.StringFuses);
        Assert.Null(e.Bank.Lasts.CRate);
        Assert.Equal($"Eight units hold 9.22 kWh usable and may give {Say.A(e.Currents.BankWorstA)}", e.Headlines[Station.Bank]);
        Assert.StartsWith("24 V follows the units", e.Headlines[Station.Voltage], StringComparison.Ordinal);
        Assert.EndsWith(
            $"for all the bank may give: {Say.A(e.Currents.BankWorstA)}",
            e.Headlines[Station.Cables],
            StringComparison.Ordinal
        );
        Assert.DoesNotContain(design.Findings(), f =>
            f.Grade <= Grade.Fault || f.Rule is "voltage.limit" or "bank.cascade" or "bank.c-rate"
        );
    }

    /// <summary>One string has nobody to share with: exactly what its units allow. The first load ends the offer.</summary>
    [Fact]
    public void One_string_gives_what_its_units_allow()
    {
        Assert.Equal(100, First("lfp-12-100", 4, 1).Bank().Currents!.BankWorstA, 9);
        Assert.Equal(48, First("lfp-12-100", 4, 1).Bank().Voltage!.SystemV);
        var loaded = First("lfp-12-100", 4, 1).With(("~/demand/loads/-", Some.Dc("lamp", 48, 5)));
        Assert.False(loaded.Bank().Currents!.IsOffer);
        Assert.Equal(1, loaded.Bank().Currents!.BankNominalA, 0);
        // Unit alone is no bank yet.
        Assert.Null(First("lfp-12-100", 4, 1).With(("~/parallel", null)).Bank().Currents);
    }

    /// <summary>
    /// An inverter that idles beside the offer has its part of the 100 A: at no instant does the bank give more than it may.
    /// </summary>
    [Fact]
    public void An_idling_inverter_is_part_of_what_the_bank_may_give()
    {
        var design = First("lfp-12-100", 2, 1)
            .With(
                ("~/inverters/0/item", Catalogue.Inverters.Single(i => i.Key == "inv-24-2000")),
                ("/houseRules/own/inverter-run-current", "load")
            );
        var flows = new SiteWork(design)[0].Flows.Value!;
        Assert.True(flows.IsOffer);
        Assert.True(flows.Inverter.RunningA > 0.3);
        Assert.Equal((100.0, 100.0), (Math.Round(flows.Bank.RunningA, 9), Math.Round(flows.Bank.SurgeA, 9)));
        Assert.Equal(100 - flows.Inverter.RunningA, flows.Beside.RunningA, 9);
    }

    /// <summary>Lead states no limit: two strings of 215 Ah by the house rule’s 0.2 C are 86 A.</summary>
    [Fact]
    public void Lead_gives_what_the_house_rule_says()
    {
        var e = First("flooded-6-215", 2, 2).Bank();
        Assert.Equal((12, 86.0), (e.Voltage!.SystemV, Math.Round(e.Currents!.BankWorstA, 9)));
        var tape = new Tape();
        Evaluator.Evaluate(First("flooded-6-215", 2, 2), tape);
        var worst = tape.Find("/banks/0/currents/bankWorstA")!;
        Assert.Contains(worst.Terms, t => t.Origin == Origin.Assumed && t.Value == e.Currents.BankWorstA);
    }
}

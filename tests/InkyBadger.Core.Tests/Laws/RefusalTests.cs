using InkyBadger.Core.Banks;
using InkyBadger.Core.Charging;
using InkyBadger.Core.Costs;
using InkyBadger.Core.Limits;
using InkyBadger.Core.Network;
using InkyBadger.Core.Reference;
using InkyBadger.Core.Rehearsal;
using InkyBadger.Core.Wiring;

namespace InkyBadger.Core.Tests.Laws;

/// <summary>A refusal names the offending input, and nothing that is not a number gets through.</summary>
public class RefusalTests
{
    private static readonly Chemistry Lfp = Chemistries.Get("lfp");
    private static readonly BankNetwork Two = BankNetwork.OnRails([0.01, 0.01], [0.001], [0.001], false);

    public static TheoryData<string, Action> Refused =>
        new()
        {
            { "units", () => SeriesDrift.Work([]) },
            { "soc", () => SeriesDrift.Work([new(100, 1.1, 12.8)]) },
            { "ah", () => SeriesDrift.Work([new(double.NaN, 0.5, 12.8)]) },
            { "resistanceOhm", () => ParallelEqualise.Work(new(13, 0, 100, 0.5), new(13, 0, 100, 0.5)) },
            { "cellsInSeries", () => ParallelEqualise.Work(new(13, 0.01, 100), new(13, 0.01, 100, 0.5), chemistry: "lfp") },
            { "dod", () => TriggerVoltage.Work(12, "lfp", 4, 0) },
            { "chemistry", () => TriggerVoltage.Work(12, "soup", 4, 0.5) },
            { "deviceMaxV", () => DeviceWindow.Work(15, 11, Lfp, 4, 14.6) },
            {
                "limitA",
                () => StringFuses.Work(Two, [new(0, 100), new(100, 100)], FuseClasses.Get("class-t"), StringFuseRule.Always, 4, 3.55, 14.6)
            },
            { "usableWh", () => Cost.PerWh(100, 1000, 1001, null) },
            { "years", () => Cost.Delivered(100, 1000, 0, 1, 10, 1000) },
            { "price", () => Cost.Delivered(double.PositiveInfinity, 1000, 1, 1, 10, 1000) },
            { "lugPrice", () => BuildCost.Total(new(1, 1, 100) { LugPrice = -1 }) },
            { "totalA", () => BuildCost.Flip(100, 2, 60, 500) },
            { "vocCoeffPerK", () => SolarController.Work(400, 14, 12.8, 30, 100, 2, 22, -10, 0.001) },
            { "socEnd", () => ChargeTime.Work(Chemistries.Get("agm"), 100, 0.5, 0.9, [10]) },
            { "sourcesA", () => ChargeTime.Work(Lfp, 100, 0.5, 1, [0, 0]) },
            { "loadA", () => RunDown.Work([new(100, 0.01)], "lfp", 4, 100, 10) },
            { "loadW", () => RunDown.Work([new(100, 0.01)], "lfp", 4, null, null) },
            { "socStart", () => RunDown.Work([new(100, 0.01, 0)], "lfp", 4, 100, null) },
            {
                "kind",
                () => LimitsChain.Work(Two, [new(100), new(100)], new(12, 0.9), [new("leads", ElementKind.Leads) { AmpacityA = 100 }])
            },
            {
                "name",
                () => LimitsChain.Work(Two, [new(100), new(100)], new(12, 0.9), [new("bank", ElementKind.Switch) { RatingA = 100 }])
            },
            {
                "peakSeconds",
                () => LimitsChain.Work(Two, [new(100, 200), new(100)], new(12, 0.9), [new("s", ElementKind.Switch) { RatingA = 100 }])
            },
            { "elements", () => LimitsChain.Work(Two, [new(100), new(100)], new(12, 0.9), []) },
        };

    [Theory]
    [MemberData(nameof(Refused))]
    public void It_is_refused_by_name(string field, Action work)
    {
        var refusal = Assert.Throws<Refusal>(work);
        Assert.Equal(field, refusal.Field);
        Assert.NotEmpty(refusal.Message);
    }

    /// <summary>LFP at rest: 3.30 V is 60 %, 3.305 V between 60 and 70 %; both ends are held.</summary>
    [Fact]
    public void Rest_voltage_reads_both_ways()
    {
        Assert.Equal(0.6, RestVoltage.SocAt("lfp", 3.30), 9);
        Assert.Equal(0.625, RestVoltage.SocAt("lfp", 3.305), 9);
        Assert.Equal((0.0, 1.0), (RestVoltage.SocAt("lfp", 1), RestVoltage.SocAt("lfp", 5)));
        foreach (var chemistry in Chemistries.All)
            for (var soc = 0.0; soc <= 1; soc += 0.05)
                Assert.Equal(soc, RestVoltage.SocAt(chemistry.Id, RestVoltage.CellV(chemistry.Id, soc)), 9);
        Assert.True(RestVoltage.CanBeRead("lfp", 0.9));
        Assert.False(RestVoltage.CanBeRead("lfp", 0.5));
        Assert.True(RestVoltage.CanBeRead("agm", 0.5));
    }
}

using InkyBadger.Core.Banks;
using InkyBadger.Core.Limits;
using InkyBadger.Core.Network;
using InkyBadger.Core.Reference;
using InkyBadger.Core.Wiring;

namespace InkyBadger.Core.Tests.Laws;

/// <summary>
/// Every guard of the calculations of banks, wiring and limits: a good input with one value just outside its range is refused by that
/// value's name. What a figure is worth rests on what never gets in.
/// </summary>
public class GuardTests
{
    private const double Nan = double.NaN;

    private static readonly Chemistry Lfp = Chemistries.Get("lfp");
    private static readonly BankNetwork Two = BankNetwork.OnRails([0.01, 0.01], [0.001], [0.001], false);
    private static readonly FuseClass ClassT = FuseClasses.Get("class-t");
    private static readonly AmpacityRow Row = CablePractices.Get("craft-metric-90").Get("50 mm²");
    private static readonly ChainElement Switch = new("s", ElementKind.Switch) { RatingA = 100 };

    private static readonly BankFiguresInput Figures = new(2, 2, 12.8, 100, 0.8, 100, 190, 12, 400);

    private static readonly BankSizeInput ByDay = new()
    {
        DailyWh = 2000,
        Days = 2,
        Dod = 0.8,
        NominalV = 25.6,
        ContinuousDcA = 100,
        WorstDcA = 120,
        MaxCRate = 0.5,
        UnitAh = 100,
        UnitContinuousA = 100,
        CellsPerSystem = 8,
        CellsPerUnit = 4,
    };

    private static readonly BankSizeInput ByLoad = ByDay with
    {
        DailyWh = null,
        Days = null,
        LoadW = 500,
        Hours = 8,
        PeukertExponent = 1.2,
        RatedHours = 20,
    };

    private static readonly CableSelectInput Select = new(CablePractices.Get("craft-metric-90"), 100, 25.6, 2) { FuseRatingA = 150 };

    private static void Strings(
        double limitA = 100,
        double leadA = 100,
        double? peakA = null,
        int cells = 4,
        double cellV = 3.55,
        double chargingV = 14.6,
        double? loadA = null,
        double? pinnedA = null
    ) =>
        StringFuses.Work(
            Two,
            [new(limitA, leadA, peakA), new(100, 100)],
            ClassT,
            StringFuseRule.Always,
            cells,
            cellV,
            chargingV,
            loadA,
            pinnedA
        );

    private static void Chain(ChainConditions conditions) => LimitsChain.Work(Two, [new(100), new(100)], conditions, [Switch]);

    private static void Element(ChainElement element) => LimitsChain.Work(Two, [new(100), new(100)], new(12, 0.9), [element]);

    private static void String(ChainString one) => LimitsChain.Work(Two, [one, new(100)], new(12, 0.9), [Switch]);

    public static TheoryData<string, Action> Guards =>
        new()
        {
            { "series", () => BankFigures.Work(Figures with { Series = 0 }) },
            { "parallel", () => BankFigures.Work(Figures with { Parallel = 0 }) },
            { "unitV", () => BankFigures.Work(Figures with { UnitV = 0 }) },
            { "unitAh", () => BankFigures.Work(Figures with { UnitAh = 0 }) },
            { "dod", () => BankFigures.Work(Figures with { Dod = 0 }) },
            { "dod", () => BankFigures.Work(Figures with { Dod = 1.01 }) },
            { "unitContinuousA", () => BankFigures.Work(Figures with { UnitContinuousA = 0 }) },
            { "ceilingA", () => BankFigures.Work(Figures with { CeilingA = 0 }) },
            { "unitMassKg", () => BankFigures.Work(Figures with { UnitMassKg = -1 }) },
            { "unitPrice", () => BankFigures.Work(Figures with { UnitPrice = -1 }) },
            { "dod", () => BankSize.Work(ByDay with { Dod = 0 }) },
            { "ageFactor", () => BankSize.Work(ByDay with { AgeFactor = 0 }) },
            { "tempFactor", () => BankSize.Work(ByDay with { TempFactor = 1.2 }) },
            { "nominalV", () => BankSize.Work(ByDay with { NominalV = 0 }) },
            { "continuousDcA", () => BankSize.Work(ByDay with { ContinuousDcA = -1 }) },
            { "unitAh", () => BankSize.Work(ByDay with { UnitAh = 0 }) },
            { "cellsPerSystem", () => BankSize.Work(ByDay with { CellsPerSystem = 0 }) },
            { "cellsPerUnit", () => BankSize.Work(ByDay with { CellsPerUnit = 0 }) },
            { "cellsPerUnit", () => BankSize.Work(ByDay with { CellsPerUnit = 3 }) },
            { "worstDcA", () => BankSize.Work(ByDay with { WorstDcA = -1 }) },
            { "maxCRate", () => BankSize.Work(ByDay with { MaxCRate = 0 }) },
            { "unitContinuousA", () => BankSize.Work(ByDay with { UnitContinuousA = 0 }) },
            { "dailyWh", () => BankSize.Work(ByDay with { DailyWh = 0 }) },
            { "dailyWh", () => BankSize.Work(ByDay with { DailyWh = null }) },
            { "days", () => BankSize.Work(ByDay with { Days = 0 }) },
            { "days", () => BankSize.Work(ByDay with { Days = null }) },
            { "loadW", () => BankSize.Work(ByLoad with { LoadW = 0 }) },
            { "loadW", () => BankSize.Work(ByLoad with { DailyWh = 100 }) },
            { "hours", () => BankSize.Work(ByLoad with { Hours = 0 }) },
            { "hours", () => BankSize.Work(ByLoad with { Hours = null }) },
            { "peukertExponent", () => BankSize.Work(ByLoad with { PeukertExponent = 0.99 }) },
            { "peukertExponent", () => BankSize.Work(ByLoad with { PeukertExponent = null }) },
            { "ratedHours", () => BankSize.Work(ByLoad with { RatedHours = 0 }) },
            { "ratedHours", () => BankSize.Work(ByLoad with { RatedHours = null }) },
            { "meanCurrentA", () => BankSize.Work(ByDay with { PeukertExponent = 1.2, RatedHours = 20, MeanCurrentA = 0 }) },
            { "meanCurrentA", () => BankSize.Work(ByDay with { PeukertExponent = 1.2, RatedHours = 20 }) },
            { "voltageV", () => ParallelEqualise.Work(new(0, 0.01, 100, 0.5), new(13, 0.01, 100, 0.5)) },
            { "resistanceOhm", () => ParallelEqualise.Work(new(13, -0.01, 100, 0.5), new(13, 0.02, 100, 0.5)) },
            { "ah", () => ParallelEqualise.Work(new(13, 0.01, 0, 0.5), new(13, 0.01, 100, 0.5)) },
            { "soc", () => ParallelEqualise.Work(new(13, 0.01, 100, 1.01), new(13, 0.01, 100, 0.5)) },
            { "linksOhm", () => ParallelEqualise.Work(new(13, 0.01, 100, 0.5), new(13, 0.01, 100, 0.5), -0.001) },
            { "cellsInSeries", () => ParallelEqualise.Work(new(13, 0.01, 100), new(13, 0.01, 100, 0.5), 0, "lfp", 0) },
            { "chemistry", () => ParallelEqualise.Work(new(13, 0.01, 100), new(13, 0.01, 100, 0.5), 0, null, 4) },
            { "ratedAh", () => Peukert.Exponent(0, 20, 180, 25) },
            { "ratedHours", () => Peukert.Exponent(100, 0, 180, 25) },
            { "reserveMinutes", () => Peukert.Exponent(100, 20, 0, 25) },
            { "reserveMinutes", () => Peukert.Exponent(100, 20, 1200, 25) },
            { "reserveA", () => Peukert.Exponent(100, 20, 180, 5) },
            { "reserveA", () => Peukert.Exponent(100, 20, 180, 0) },
            { "ratedAh", () => Peukert.At(0, 20, 1.2, 25) },
            { "ratedHours", () => Peukert.At(100, 0, 1.2, 25) },
            { "exponent", () => Peukert.At(100, 20, 0.99, 25) },
            { "currentA", () => Peukert.At(100, 20, 1.2, 0) },
            { "soc", () => SeriesDrift.Work([new(100, -0.01, 12.8)]) },
            { "nominalV", () => SeriesDrift.Work([new(100, 0.5, 0)]) },
            { "ah", () => SeriesDrift.Work([new(0, 0.5, 12.8)]) },
            { "triggerV", () => TriggerVoltage.Work(0, "lfp", 4, 0.8) },
            { "cellsInSeries", () => TriggerVoltage.Work(12, "lfp", 0, 0.8) },
            { "currentA", () => TriggerVoltage.Work(12, "lfp", 4, 0.8, -1) },
            { "bankOhm", () => TriggerVoltage.Work(12, "lfp", 4, 0.8, 10, -0.01) },
            { "currentA", () => Cable.Temperature(Row, -1) },
            { "conductors", () => Cable.Temperature(Row, 10, conductors: 0) },
            { "ambientC", () => Cable.Temperature(Row, 10, 251) },
            { "r20MilliohmPerM", () => Cable.Resistance(0, 2, 20, 1) },
            { "lengthM", () => Cable.Resistance(0.4, 0, 20, 1) },
            { "conductorC", () => Cable.Resistance(0.4, 2, -61, 1) },
            { "conductors", () => Cable.Resistance(0.4, 2, 20, 0) },
            { "currentA", () => Cable.Drop(-1, 0.01, null, 12.8) },
            { "outOhm", () => Cable.Drop(10, -0.01, null, 12.8) },
            { "backOhm", () => Cable.Drop(10, 0.01, -0.01, 12.8) },
            { "nominalV", () => Cable.Drop(10, 0.01, null, 0) },
            { "lowV", () => Cable.Drop(10, 0.01, null, 12.8, 0) },
            { "boltedJoints", () => Cable.Joints(-1, 0) },
            { "fuseJoints", () => Cable.Joints(0, -1) },
            { "boltedJointMilliohm", () => Cable.Joints(1, 0, -0.1, 0.2) },
            { "fuseJointMilliohm", () => Cable.Joints(1, 0, 0.1, Nan) },
            { "conductors", () => Cable.Ampacity(Row, conductors: 0) },
            { "ambientC", () => Cable.Ampacity(Row, -61) },
            { "areaMm2", () => Cable.ShortTime(0, 1, 90, Core.Design.InsulationKind.Thermoplastic, 1000) },
            { "conductors", () => Cable.ShortTime(50, 0, 90, Core.Design.InsulationKind.Thermoplastic, 1000) },
            { "currentA", () => Cable.ShortTime(50, 1, 90, Core.Design.InsulationKind.Thermoplastic, 0) },
            { "insulationC", () => Cable.ShortTime(50, 1, 80, Core.Design.InsulationKind.Thermoplastic, 1000) },
            { "insulationKind", () => Cable.ShortTime(50, 1, 70, Core.Design.InsulationKind.Thermosetting, 1000) },
            { "designCurrentA", () => CableSelect.Work(Select with { DesignCurrentA = 0 }) },
            { "fuseRatingA", () => CableSelect.Work(Select with { FuseRatingA = 0 }) },
            { "nominalV", () => CableSelect.Work(Select with { NominalV = 0 }) },
            { "lengthM", () => CableSelect.Work(Select with { LengthM = 0 }) },
            { "bundledConductors", () => CableSelect.Work(Select with { BundledConductors = 0 }) },
            { "bundledConductors", () => CableSelect.Work(Select with { BundledConductors = 1000 }) },
            { "dropLimitFraction", () => CableSelect.Work(Select with { DropLimitFraction = 0 }) },
            { "dropLimitFraction", () => CableSelect.Work(Select with { DropLimitFraction = 1 }) },
            { "deviceMinV", () => DeviceWindow.Work(0, 15, Lfp, 4, 14.6) },
            { "deviceMaxV", () => DeviceWindow.Work(11, Nan, Lfp, 4, 14.6) },
            { "cellsInSeries", () => DeviceWindow.Work(11, 15, Lfp, 0, 14.6) },
            { "greatestChargingV", () => DeviceWindow.Work(11, 15, Lfp, 4, 0) },
            { "branchDropV", () => DeviceWindow.Work(11, 15, Lfp, 4, 14.6, -0.1) },
            { "designCurrentA", () => Fuse.Select(ClassT, 0, 200, 14.6, 1000) },
            { "cableAmpacityA", () => Fuse.Select(ClassT, 100, -1, 14.6, 1000) },
            { "greatestChargingV", () => Fuse.Select(ClassT, 100, 200, 0, 1000) },
            { "shortCircuitA", () => Fuse.Select(ClassT, 100, 200, 14.6, -1) },
            { "cellsInSeries", () => Fuse.GreatestChargingV(Lfp, 0) },
            { "chargerV", () => Fuse.GreatestChargingV(Lfp, 4, chargerV: 0) },
            { "equalise", () => Fuse.GreatestChargingV(Lfp, 4, true) },
            { "ratingA", () => Fuse.OpeningTime(ClassT, 0, 100) },
            { "currentA", () => Fuse.OpeningTime(ClassT, 100, 0) },
            { "leadAmpacityA", () => Strings(leadA: -1) },
            { "peakA", () => Strings(peakA: 0) },
            { "cellsInSeries", () => Strings(cells: 0) },
            { "cellOpenV", () => Strings(cellV: 0) },
            { "greatestChargingV", () => Strings(chargingV: 0) },
            { "loadCurrentA", () => Strings(loadA: 0) },
            { "pinnedA", () => Strings(pinnedA: 0) },
            { "limitA", () => String(new(0)) },
            { "peakA", () => String(new(100, 0, 5)) },
            { "peakSeconds", () => String(new(100, 200, -1)) },
            { "peakA", () => String(new(100, null, 5)) },
            { "lowV", () => Chain(new(0, 0.9)) },
            { "efficiency", () => Chain(new(12, 0)) },
            { "idleW", () => Chain(new(12, 0.9, -1)) },
            { "askedAcW", () => Chain(new(12, 0.9, 0, -1)) },
            { "dcLoadA", () => Chain(new(12, 0.9, 0, null, -1)) },
            { "atSeconds", () => Chain(new(12, 0.9, 0, null, 0, 0)) },
            { "name", () => Element(Switch with { Name = "" }) },
            { "kind", () => LimitsChain.Work(BankNetwork.OnRails([0.01], [], [], false), [new(100)], new(12, 0.9), [Links]) },
            { "class", () => Element(new("f", ElementKind.Fuse) { RatingA = 100 }) },
            { "ampacityA", () => Element(new("c", ElementKind.Cable) { AmpacityA = 0 }) },
            { "ratingA", () => Element(Switch with { RatingA = 0 }) },
            { "continuousW", () => Element(new("i", ElementKind.Inverter) { ContinuousW = 0 }) },
            { "surgeW", () => Element(new("i", ElementKind.Inverter) { ContinuousW = 1000, SurgeW = 0 }) },
            { "derate", () => Element(new("i", ElementKind.Inverter) { ContinuousW = 1000, Derate = 1.1 }) },
            { "surgeSeconds", () => Element(new("i", ElementKind.Inverter) { ContinuousW = 1000, SurgeSeconds = -1 }) },
            { "insulationC", () => Element(new("c", ElementKind.Cable) { AmpacityA = 100, AreaMm2 = 50 }) },
        };

    private static readonly ChainElement Links = new("links", ElementKind.Links) { AmpacityA = 100 };

    [Theory]
    [MemberData(nameof(Guards))]
    public void What_is_out_of_range_is_refused_by_name(string field, Action work) =>
        Assert.Equal(field, Assert.Throws<Refusal>(work).Field);

    /// <summary>The inputs the guards were taken from are good ones, and so are the very limits of their ranges.</summary>
    [Fact]
    public void What_is_at_its_limit_is_not()
    {
        Assert.Equal(4, BankFigures.Work(Figures with { Dod = 1, UnitMassKg = 0, UnitPrice = 0 }).Units);
        Assert.Equal(2, BankSize.Work(ByDay with { Dod = 1, AgeFactor = 1, TempFactor = 1, ContinuousDcA = 0, WorstDcA = 0 }).Series);
        Assert.Equal(4000, BankSize.Work(ByLoad).EnergyWantedWh);
        Assert.Equal(4000, BankSize.Work(ByLoad with { PeukertExponent = 1 }).EnergyWantedWh);
        Assert.Equal(0, Cable.Drop(0, 0, 0, 12.8).DropV);
        Assert.Equal(250, Cable.Temperature(Row, 10, 250).ConductorC);
        Assert.True(CableSelect.Work(Select with { BundledConductors = 1 }).Fits);
        Assert.Equal(12, DeviceWindow.Work(12, 12, Lfp, 4, 12).GreatestChargingV);
        Assert.Equal(14.6, Fuse.Select(ClassT, 100, 0, 14.6, 0).GreatestChargingV);
        Strings(leadA: 0);
        String(new(100, 200, 0));
        Chain(new(12, 1, 0, 0, 0, 0.001));
        Element(
            new("i", ElementKind.Inverter)
            {
                ContinuousW = 1000,
                Derate = 0,
                SurgeSeconds = 0,
            }
        );
    }
}

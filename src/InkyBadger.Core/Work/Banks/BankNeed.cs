using InkyBadger.Core.Banks;
using InkyBadger.Core.Design;
using InkyBadger.Core.Reference;

namespace InkyBadger.Core.Work;

/// <summary>What demand and house rules ask of a bank, for any unit.</summary>
internal static class BankNeed
{
    public static double Dod(BankScene scene, string chemistry) => scene.Rules.Number(DodRule(chemistry));

    public static string DodRule(string chemistry) =>
        chemistry switch
        {
            "lfp" => "usable-share-lfp",
            "nmc" => "usable-share-nmc",
            "gel" => "usable-share-gel",
            _ => "usable-share-lead",
        };

    public static string CRateRule(Chemistry chemistry) => chemistry.IsLithium ? "c-rate-lithium" : "c-rate-lead";

    /// <summary>Usable energy that is wanted [Wh]: so many days', or a night's.</summary>
    public static double Wanted(BankScene scene, EnergyResult energy) =>
        scene.Rules.NumberOrNone("autonomy") is { } days ? energy.EnergyBankWh * days : energy.OvernightWh;

    /// <summary>Strings of a unit that the demand asks for; null where nothing is asked, or the unit cannot make the voltage.</summary>
    public static int? StringsFor(
        BankScene scene,
        VoltageResult voltage,
        EnergyResult energy,
        CurrentsResult currents,
        StartAsked start,
        UnitItem unit
    )
    {
        var wanted = Wanted(scene, energy);
        return wanted <= 0 || voltage.Cells % unit.Cells != 0
            ? null
            : Math.Max(
                Size(scene, Chemistries.Get(unit.Chemistry), voltage, unit, wanted, currents, energy).Parallel,
                start.Strings(scene, unit)
            );
    }

    public static BankSizeResult Size(
        BankScene scene,
        Chemistry chemistry,
        VoltageResult voltage,
        UnitItem unit,
        double wantedWh,
        CurrentsResult currents,
        EnergyResult energy
    ) => BankSize.Work(Input(scene, chemistry, voltage, unit, wantedWh, currents, energy));

    /// <summary>What the demand asks of a bank of this unit.</summary>
    public static BankSizeInput Input(
        BankScene scene,
        Chemistry chemistry,
        VoltageResult voltage,
        UnitItem unit,
        double wantedWh,
        CurrentsResult currents,
        EnergyResult energy
    ) =>
        new()
        {
            DailyWh = wantedWh,
            Days = 1,
            Dod = Dod(scene, chemistry.Id),
            AgeFactor = scene.Rules.Number("age-factor"),
            TempFactor = ColdFactor(scene, chemistry),
            NominalV = voltage.NominalV,
            ContinuousDcA = currents.BankNominalA,
            WorstDcA = currents.BankWorstA,
            MaxCRate = scene.Rules.Number(CRateRule(chemistry)),
            UnitAh = unit.Ah,
            UnitContinuousA = LimitOf(scene, unit),
            CellsPerSystem = voltage.Cells,
            CellsPerUnit = unit.Cells,
            PeukertExponent = chemistry.IsLithium ? null : PeukertOf(unit, chemistry),
            RatedHours = chemistry.IsLithium ? null : unit.RatedHours ?? 20,
            MeanCurrentA = energy.MeanCurrentA > 0 ? energy.MeanCurrentA : null,
        };

    /// <summary>
    /// What a string of this unit allows without end [A]: its own limit, and that of the BMS of bare cells; null: no limit.
    /// </summary>
    public static double? LimitOf(BankScene scene, UnitItem unit) =>
        unit.IsBare() && scene.Bank.Bms is { } bms ? Math.Min(unit.LimitA() ?? double.MaxValue, bms.ContinuousA) : unit.LimitA();

    /// <summary>
    /// The smallest BMS made for a string that carries so much for good, starts with so much for so long, and is charged with so much [A];
    /// null: none is made so large.
    /// </summary>
    public static BmsItem? BmsFor(double amps, double startA, double startSeconds, double chargeA)
    {
        foreach (var bms in Catalogue.Bms)
            if (
                Tolerant.AtLeast(bms.ContinuousA, amps)
                && (startSeconds <= 0 || Tolerant.AtLeast(bms.AllowsA(startSeconds), startA))
                && Tolerant.AtLeast(bms.ChargeA ?? double.MaxValue, chargeA)
            )
                return bms;
        return null;
    }

    /// <summary>
    /// The BMS that the bank's strings would need as they share the load; null: none is needed, or none is made so large.
    /// </summary>
    public static BmsItem? BmsFor(BankWork w)
    {
        if (w.Pack.Value is not { } pack || !pack.Strings.Any(s => s.IsBare))
            return null;
        var share = w.Network.Value?.Strings.WorstShare ?? 1.0 / pack.Parallel;
        var currents = w.Currents.Value;
        return BmsFor(
            share * (currents?.BankWorstA ?? 0),
            share * (currents?.SurgeWorstA ?? 0),
            w.Loads.Value?.Worst.StartSeconds ?? 0,
            (w.Flows.Value?.ChargingA ?? 0) / pack.Parallel
        );
    }

    public static double ColdFactor(BankScene scene, Chemistry chemistry) =>
        scene.Design.Place.AmbientC < 5 ? scene.Rules.Number(chemistry.IsLithium ? "cold-factor-lithium" : "cold-factor-lead") : 1;

    /// <summary>From the plate's second rating; without one, or where it is no sense, the chemistry's typical exponent.</summary>
    public static double PeukertOf(UnitItem unit, Chemistry chemistry)
    {
        if (unit.Reserve is not { } reserve)
            return chemistry.PeukertExponent;
        var ratedHours = unit.RatedHours ?? 20;
        if (reserve.Amps <= unit.Ah / ratedHours || reserve.Minutes / 60 >= ratedHours)
            return chemistry.PeukertExponent;
        return Math.Clamp(Peukert.Exponent(unit.Ah, ratedHours, reserve.Minutes, reserve.Amps).Exponent, 1, 1.6);
    }

    /// <summary>
    /// The units of the catalogue that meet the demand for the least money, whole strings with their fuses, links and balancers, within
    /// their own and the house rule's limits on series and strings; of equals the one with fewer strings. If none keeps the limits, the one
    /// that needs the fewest strings.
    /// </summary>
    public static UnitItem? Advise(
        BankScene scene,
        Chemistry chemistry,
        VoltageResult voltage,
        double wantedWh,
        CurrentsResult currents,
        EnergyResult energy,
        StartAsked start
    )
    {
        (UnitItem? Unit, int Parallel, double Cost) best = default;
        (UnitItem? Unit, int Parallel) fewest = default;
        var most = scene.Rules.Number("most-strings");
        foreach (var unit in Catalogue.Units)
        {
            if (unit.Chemistry != chemistry.Id || unit.Cells == 1 || voltage.Cells % unit.Cells != 0)
                continue;
            var size = Size(scene, chemistry, voltage, unit, wantedWh, currents, energy);
            if (size.Series > unit.MaxSeries)
                continue;
            var parallel = Math.Max(size.Parallel, start.Strings(scene, unit));
            if (fewest.Unit is null || parallel < fewest.Parallel)
                fewest = (unit, parallel);
            if (parallel > most || parallel > unit.MaxParallel || StringsCost(scene, unit, size.Series, parallel, currents) is not { } cost)
                continue;
            if (best.Unit is null || Tolerant.Exceeds(best.Cost, cost) || !Tolerant.Exceeds(cost, best.Cost) && parallel < best.Parallel)
                best = (unit, parallel, cost);
        }
        return best.Unit ?? fewest.Unit;
    }

    /// <summary>
    /// What so many strings cost with what differs from one unit to another: units, string fuses, jumpers, links, balancers; null: the
    /// price of one of them is not known. Copper as thick as the main fuse asks.
    /// </summary>
    private static double? StringsCost(BankScene scene, UnitItem unit, int series, int parallel, CurrentsResult currents)
    {
        if (scene.Design.Prices.Of(unit) is not { } price)
            return null;
        var practice = RunStage.Practice(scene, scene.MainRun);
        var wanted = Wiring.Fuse.Margin * currents.BankWorstA;
        var copper = (practice.Rows.FirstOrDefault(r => Tolerant.AtLeast(r.AmpacityA, wanted)) ?? practice.Rows[^1]).Conductor.AreaMm2;
        double? Link(double metres) => metres * scene.Prices.CablePerM(copper) + 2 * scene.Prices.Lug(copper);
        double? cost = series * parallel * price;
        cost += (series - 1) * parallel * Link(WiredBank.JumperM) + 2 * (parallel - 1) * Link(WiredBank.LinkM);
        if (StringFuseStage.Asked(scene, parallel, unit))
            cost += parallel * scene.Prices.Fuse(RunStage.AdvisedClass);
        if (
            series > 1
            && !unit.Communicates
            && Chemistries.Get(unit.Chemistry).IsLithium
            && scene.Rules.Word("series-balancer") != "by-hand"
        )
            cost += parallel * scene.Prices.Balancer;
        return cost;
    }
}

/// <summary>The start that asks most of the bank [A], and how long it lasts [s].</summary>
internal readonly record struct StartAsked(IReadOnlyList<RunStart> Starts)
{
    /// <summary>Strings of a unit whose BMS lets every start through for as long as it lasts; 1 where nothing sets a limit.</summary>
    public int Strings(BankScene scene, UnitItem unit)
    {
        var strings = 1;
        var bms = unit.IsBare() ? scene.Bank.Bms : null;
        foreach (var start in Starts)
        {
            var allows = new Banks.PackUnit(unit, 1, null, null, 0, false, null, false).AllowsA(start.Seconds);
            if (bms is not null)
                allows = Math.Min(allows ?? double.MaxValue, bms.AllowsA(start.Seconds));
            if (allows is > 0 and var one)
                strings = Math.Max(strings, Tolerant.RoundUp(start.Amps / one));
        }
        return strings;
    }
}

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
    public static int? StringsFor(BankScene scene, VoltageResult voltage, EnergyResult energy, CurrentsResult currents, UnitItem unit)
    {
        var wanted = Wanted(scene, energy);
        return wanted <= 0 || voltage.Cells % unit.Cells != 0
            ? null
            : Size(scene, Chemistries.Get(unit.Chemistry), voltage, unit, wanted, currents, energy).Parallel;
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
            UnitContinuousA = unit.LimitA(),
            CellsPerSystem = voltage.Cells,
            CellsPerUnit = unit.Cells,
            PeukertExponent = chemistry.IsLithium ? null : PeukertOf(unit, chemistry),
            RatedHours = chemistry.IsLithium ? null : unit.RatedHours ?? 20,
            MeanCurrentA = energy.MeanCurrentA > 0 ? energy.MeanCurrentA : null,
        };

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
    /// The cheapest units of the catalogue that meet the demand within their own and the house rule's limits on series and strings;
    /// if none keeps the limits, the one that needs the fewest strings.
    /// </summary>
    public static UnitItem? Advise(
        BankScene scene,
        Chemistry chemistry,
        VoltageResult voltage,
        double wantedWh,
        CurrentsResult currents,
        EnergyResult energy
    )
    {
        (UnitItem? Unit, BankSizeResult? Sizing) best = default,
            fewest = default;
        var most = scene.Rules.Number("most-strings");
        foreach (var unit in Catalogue.Units)
        {
            if (unit.Chemistry != chemistry.Id || unit.Cells == 1 || voltage.Cells % unit.Cells != 0)
                continue;
            var size = Size(scene, chemistry, voltage, unit, wantedWh, currents, energy);
            if (size.Series > unit.MaxSeries)
                continue;
            if (fewest.Sizing is null || size.Parallel < fewest.Sizing.Parallel)
                fewest = (unit, size);
            if (size.Parallel > most || size.Parallel > unit.MaxParallel)
                continue;
            if (best.Unit is null || size.Units * scene.Design.Prices.Of(unit) < best.Sizing!.Units * scene.Design.Prices.Of(best.Unit))
                best = (unit, size);
        }
        return best.Unit ?? fewest.Unit;
    }
}

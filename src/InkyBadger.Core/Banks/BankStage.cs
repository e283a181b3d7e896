using InkyBadger.Core.Design;
using InkyBadger.Core.Network;
using InkyBadger.Core.Reference;
using InkyBadger.Core.Working;

namespace InkyBadger.Core.Banks;

/// <summary>The bank: unit, S and P as advised or pinned, what governs, and what they make together.</summary>
public static class BankStage
{
    public const int MostInSeries = 32, MostStrings = 32;

    public static double Dod(BankScene scene, string chemistry) => scene.Rules.Number(DodRule(chemistry));

    private static string DodRule(string chemistry) => chemistry switch
    {
        "lfp" => "usable-share-lfp", "nmc" => "usable-share-nmc", "gel" => "usable-share-gel", _ => "usable-share-lead",
    };

    private static string CRateRule(Chemistry chemistry) => chemistry.IsLithium ? "c-rate-lithium" : "c-rate-lead";

    /// <summary>Null with no unit chosen and nothing asked that one could be advised for.</summary>
    public static BankResult? Work(BankScene scene, VoltageResult voltage, EnergyResult? energy, CurrentsResult? currents, InverterResult? inverter, LoadsResult? loads)
    {
        var bank = scene.Bank;
        var chemistry = Chemistries.Get(voltage.Chemistry);
        var autonomy = scene.Rules.NumberOrNone("autonomy");
        var wanted = energy is null ? 0 : Wanted(scene, energy);
        var asked = wanted > 0 && currents is not null ? (Wanted: wanted, Currents: currents) : default((double Wanted, CurrentsResult Currents)?);
        var (advised, _) = asked is { } a ? Advise(scene, chemistry, voltage, a.Wanted, a.Currents, energy!) : (null, null);
        if ((bank.Unit ?? advised) is not { } unit) return null;

        BankSizeResult? sizing = null;
        var divides = voltage.Cells % unit.Cells == 0;
        if (asked is { } ask && divides) sizing = Size(scene, chemistry, voltage, unit, ask.Wanted, ask.Currents, energy!);
        var advisedSeries = divides ? voltage.Cells / unit.Cells : Math.Max(1, (int)Math.Round((double)voltage.Cells / unit.Cells));
        var series = bank.Series ?? advisedSeries;
        var parallel = bank.Parallel ?? Math.Min(MostStrings, sizing?.Parallel ?? 1);
        var dod = Dod(scene, unit.Chemistry);
        var unitChemistry = Chemistries.Get(unit.Chemistry);
        var figures = BankFigures.Work(new(series, parallel, unit.Cells * unitChemistry.CellNominalV, unit.Ah, dod, unit.LimitA(), null, unit.MassKg, scene.Design.Prices.Of(unit)));
        var mixed = MixedBank.Of(bank.Positions, unit, series, parallel);
        if (mixed is { } m) figures = m.Figures(figures, dod);
        var (atMean, atPeak) = Hours(unit, unitChemistry, figures, dod, energy, loads, inverter);
        var assumed = unit.ResistanceOhm is null;
        var unitOhm = unit.ResistanceOhm ?? ShortCircuit.AssumedUnitOhm(unitChemistry, unit.Cells, unit.Ah, unit.Bms is not null);
        // What the demand asks for, of energy and of rate the larger.
        var neededAh = sizing is null ? (double?)null : Math.Max(sizing.AhEnergy, sizing.AhRate ?? 0);
        var result = new BankResult(unit, bank.Unit is not null, advised?.Key, advised?.Name, series, parallel, advisedSeries, sizing?.Parallel,
            bank.Series is not null, bank.Parallel is not null, sizing, autonomy ?? 1, autonomy is null, dod,
            figures.Units, series * unit.Cells, figures.NominalV, figures.Ah, figures.RatedWh, figures.UsableWh, figures.ContinuousA, figures.MassKg, figures.Price,
            atMean, atPeak, currents is null ? null : currents.BankNominalA / figures.Ah, unitOhm, assumed, neededAh, neededAh is > 0 && currents?.RuleOfThumbAh is { } thumb ? thumb / neededAh - 1 : null,
            unitChemistry.IsLithium ? null : PeukertOf(unit, unitChemistry));
        if (scene.Tape is { } tape) WriteWorking(tape, scene, result, mixed is not null, unitChemistry, energy, currents, voltage, loads, inverter);
        return result;
    }

    /// <summary>Usable energy that is wanted [Wh]: so many days', or a night's.</summary>
    private static double Wanted(BankScene scene, EnergyResult energy) => scene.Rules.NumberOrNone("autonomy") is { } days ? energy.EnergyBankWh * days : energy.OvernightWh;

    /// <summary>Strings of a unit that the demand asks for; null where nothing is asked, or the unit cannot make the voltage.</summary>
    internal static int? StringsFor(BankScene scene, VoltageResult voltage, EnergyResult energy, CurrentsResult currents, UnitItem unit)
    {
        var wanted = Wanted(scene, energy);
        return wanted <= 0 || voltage.Cells % unit.Cells != 0 ? null : Size(scene, Chemistries.Get(unit.Chemistry), voltage, unit, wanted, currents, energy).Parallel;
    }

    private static BankSizeResult Size(BankScene scene, Chemistry chemistry, VoltageResult voltage, UnitItem unit, double wantedWh, CurrentsResult currents, EnergyResult energy) =>
        BankSize.Work(new()
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
        });

    private static double ColdFactor(BankScene scene, Chemistry chemistry) =>
        scene.Design.Place.AmbientC < 5 ? scene.Rules.Number(chemistry.IsLithium ? "cold-factor-lithium" : "cold-factor-lead") : 1;

    /// <summary>From the plate's second rating; without one, or where it is no sense, the chemistry's typical exponent.</summary>
    private static double PeukertOf(UnitItem unit, Chemistry chemistry)
    {
        if (unit.Reserve is not { } reserve) return chemistry.PeukertExponent;
        var ratedHours = unit.RatedHours ?? 20;
        if (reserve.Amps <= unit.Ah / ratedHours || reserve.Minutes / 60 >= ratedHours) return chemistry.PeukertExponent;
        return Math.Clamp(Peukert.Exponent(unit.Ah, ratedHours, reserve.Minutes, reserve.Amps).Exponent, 1, 1.6);
    }

    /// <summary>
    /// The cheapest units of the catalogue that meet the demand within their own and the house rule's limits on series and strings;
    /// if none keeps the limits, the one that needs the fewest strings.
    /// </summary>
    private static (UnitItem? Unit, BankSizeResult? Sizing) Advise(
        BankScene scene, Chemistry chemistry, VoltageResult voltage, double wantedWh, CurrentsResult currents, EnergyResult energy)
    {
        (UnitItem? Unit, BankSizeResult? Sizing) best = default, fewest = default;
        var most = scene.Rules.Number("most-strings");
        foreach (var unit in Catalogue.Units)
        {
            if (unit.Chemistry != chemistry.Id || unit.Cells == 1 || voltage.Cells % unit.Cells != 0) continue;
            var size = Size(scene, chemistry, voltage, unit, wantedWh, currents, energy);
            if (size.Series > unit.MaxSeries) continue;
            if (fewest.Sizing is null || size.Parallel < fewest.Sizing.Parallel) fewest = (unit, size);
            if (size.Parallel > most || size.Parallel > unit.MaxParallel) continue;
            if (best.Unit is null || size.Units * scene.Design.Prices.Of(unit) < best.Sizing!.Units * scene.Design.Prices.Of(best.Unit)) best = (unit, size);
        }
        return best.Unit is null ? fewest : best;
    }

    private static (double? AtMean, double? AtPeak) Hours(
        UnitItem unit, Chemistry chemistry, BankFiguresResult figures, double dod, EnergyResult? energy, LoadsResult? loads, InverterResult? inverter)
    {
        double? HoursAt(double watts)
        {
            if (watts <= 0) return null;
            if (chemistry.IsLithium) return figures.UsableWh / watts;
            var amps = watts / figures.NominalV;
            return Peukert.At(figures.Ah, unit.RatedHours ?? 20, PeukertOf(unit, chemistry), amps).DeliveredAh * dod / amps;
        }
        return (energy is null ? null : HoursAt(energy.EnergyBankWh / 24), loads is null ? null : HoursAt(PeakBankW(loads, inverter)));
    }

    /// <summary>DC watts at the bank with the most running at once; the AC and DC peaks may fall apart in time, so this is an upper bound.</summary>
    private static double PeakBankW(LoadsResult loads, InverterResult? inverter) =>
        loads.PeakDcW + (inverter is null ? 0 : loads.PeakAcW / inverter.Efficiency + inverter.IdleW);

    private static void WriteWorking(
        Tape tape, BankScene scene, BankResult r, bool mixed, Chemistry chemistry, EnergyResult? energy, CurrentsResult? currents, VoltageResult voltage, LoadsResult? loads, InverterResult? inverter)
    {
        var s = r.SeriesPinned ? T.You("S", r.Series, "", "in series", "/series") : T.Worked("S", r.Series, "", "in series, as advised", "/bank/advisedSeries");
        var p = r.ParallelPinned ? T.You("P", r.Parallel, "", "strings", "/parallel")
            : r.Parallel == r.AdvisedParallel ? T.Worked("P", r.Parallel, "", "strings, as advised", "/bank/advisedParallel")
            : T.Assumed("P", r.Parallel, "", r.AdvisedParallel is null ? "string, nothing asks for more" : "strings, the most there can be");
        Term Of(string key, double value, string unit, string label, string field) => T.Sheet(key, value, unit, label, "/unit/" + field);
        var ah = Of("A", r.Unit.Ah, "Ah", "a unit", "ah");
        var cellV = T.Table("v", chemistry.CellNominalV, "V", "a cell", "chemistries");
        var cells = Of("c", r.Unit.Cells, "", "cells a unit", "cells");
        var divides = r.AdvisedSeries * r.Unit.Cells == voltage.Cells;
        tape.Write("/bank/advisedSeries", "units in series for the voltage", r.AdvisedSeries, "", "4.1", divides ? "{n} ÷ {c}" : null,
            [T.Table("n", voltage.Cells, "", $"cells at {voltage.SystemV} V", "cells-per-system"), cells], divides ? null : "The nearest whole number: these units cannot make the voltage.");
        tape.Write("/bank/nominalV", "the bank’s nominal volts", r.NominalV, "V", "4.2", "{S} × {c} × {v}", [s, cells, cellV]);
        // Units that differ are summed up string by string; no product of one of them gives the bank.
        const string byStrings = "String by string: each holds what its smallest unit holds, carries what its weakest allows.";
        void Sum(string pointer, string label, double? value, string unit, string form, Term[] terms) =>
            tape.Write(pointer, label, value, unit, "4.2", mixed ? null : form, terms, mixed ? byStrings : null);
        Sum("/bank/ah", "the bank’s ampere-hours", r.Ah, "Ah", "{P} × {A}", [p, ah]);
        var nominal = T.Worked("V", r.NominalV, "V", "nominal", "/bank/nominalV");
        tape.Write("/bank/ratedWh", "rated energy", r.RatedWh, "Wh", "4.2", "{V} × {Q}", [nominal, T.Worked("Q", r.Ah, "Ah", "the bank", "/bank/ah")]);
        var dodRule = DodRule(r.Unit.Chemistry);
        tape.Write("/bank/usableWh", "usable energy", r.UsableWh, "Wh", "4.2", "{E} × {d}",
            [T.Worked("E", r.RatedWh, "Wh", "rated", "/bank/ratedWh"), T.Rule("d", r.Dod, "fraction", "usable share", dodRule)], houseRule: dodRule);
        if (r.Unit.LimitA() is { } limit)
            Sum("/bank/continuousA", "continuous current of the strings, shared evenly", r.ContinuousA, "A", "{P} × {I}", [p, Of("I", limit, "A", "a unit allows", "bms/continuousA")]);
        Sum("/bank/massKg", "mass of the units", r.MassKg, "kg", "{S} × {P} × {m}", [s, p, Of("m", r.Unit.MassKg, "kg", "a unit", "massKg")]);
        if (r.PeukertK is { } k)
        {
            var plate = r.Unit.Reserve is { } reserve && Math.Abs(k - chemistry.PeukertExponent) > 1e-12
                ? new[]
                {
                    T.Sheet("C", r.Unit.Ah, "Ah", "rated"), T.Sheet("H", r.Unit.RatedHours ?? 20, "h", "at so many hours"),
                    T.Sheet("m", reserve.Minutes / 60, "h", "its second rating"), T.Sheet("I", reserve.Amps, "A", "at so many amperes"),
                }
                : [T.Table("k", chemistry.PeukertExponent, "", $"typical of {chemistry.Label}", "chemistries")];
            tape.Write("/bank/peukertK", "Peukert’s exponent", k, "", "4.3", null, plate, plate.Length > 1 ? "ln(hours ÷ hours) ÷ ln(amperes ÷ amperes) of the plate’s two ratings." : "The plate has no second rating: the chemistry’s typical value.");
        }
        Sum("/bank/price", "price of the units", r.Price, "money", "{S} × {P} × {m}", [s, p, scene.Design.Prices.Of(r.Unit) is var each && each == r.Unit.Price ? Of("m", each, "money", "a unit", "price") : T.You("m", each, "money", "a unit, your price", "/unit/price")]);
        if (currents is not null)
            tape.Write("/bank/cRate", "C-rate at full load", r.CRate, "per hour", "4.1", "{I} ÷ {Q}",
                [T.Worked("I", currents.BankNominalA, "A", "the bank’s current", "/currents/bankNominalA"), T.Worked("Q", r.Ah, "Ah", "the bank", "/bank/ah")], houseRule: CRateRule(chemistry));
        if (energy is not null && chemistry.IsLithium)
            tape.Write("/bank/hoursAtMean", "hours it lasts at the day’s mean", r.HoursAtMean, "h", "1.3", "{E} ÷ ({D} ÷ 24)",
                [T.Worked("E", r.UsableWh, "Wh", "usable", "/bank/usableWh"), T.Worked("D", energy.EnergyBankWh, "Wh", "a day", "/energy/energyBankWh")]);
        else if (energy is not null)
            tape.Write("/bank/hoursAtMean", "hours it lasts at the day’s mean, by Peukert", r.HoursAtMean, "h", "4.3", null,
                [T.Worked("Q", r.Ah, "Ah", "the bank", "/bank/ah"), T.Worked("D", energy.EnergyBankWh, "Wh", "a day", "/energy/energyBankWh"), T.Table("k", PeukertOf(r.Unit, chemistry), "", "Peukert exponent", "chemistries")],
                "Ampere-hours shrink with the current by Peukert’s law; what is usable of them, divided by the current.");
        if (loads is not null && chemistry.IsLithium)
            tape.Write("/bank/hoursAtPeak", "hours it lasts with the most running", r.HoursAtPeak, "h", "1.3", inverter is null ? "{E} ÷ {D}" : "{E} ÷ ({D} + {P} ÷ {η} + {i})",
                inverter is null
                    ? [T.Worked("E", r.UsableWh, "Wh", "usable", "/bank/usableWh"), T.Worked("D", loads.PeakDcW, "W", "DC loads", "/loads/peakDcW")]
                    : [
                        T.Worked("E", r.UsableWh, "Wh", "usable", "/bank/usableWh"), T.Worked("D", loads.PeakDcW, "W", "DC loads", "/loads/peakDcW"),
                        T.Worked("P", loads.PeakAcW, "W", "AC loads", "/loads/peakAcW"), Demand.EnergyStage.Efficiency(inverter), Demand.EnergyStage.Idle(inverter) with { Key = "i" },
                    ]);
        tape.Write("/bank/units", "units", r.Units, "", "4.2", "{S} × {P}", [s, p]);
        if (r.Sizing is { } size) WriteSizing(tape, scene, r, size, chemistry, energy!, currents!, voltage, ah);
        tape.Write("/bank/unitOhm", "internal resistance of a unit", r.UnitOhm, "ohm", "5.4", r.UnitOhmAssumed ? r.Unit.Bms is null ? "{c} × {k} ÷ {A}" : "{c} × {k} ÷ {A} + {b}" : "{r}",
            r.UnitOhmAssumed
                ? [cells, T.Assumed("k", chemistry.ResistanceK, "", "Ω·Ah a cell, typical"), ah, T.Assumed("b", 0.001, "ohm", "switches of the BMS")]
                : [Of("r", r.UnitOhm, "ohm", "a unit", "resistanceOhm")]);
    }

    private static void WriteSizing(Tape tape, BankScene scene, BankResult r, BankSizeResult size, Chemistry chemistry, EnergyResult energy, CurrentsResult currents, VoltageResult voltage, Term ah)
    {
        tape.Write("/bank/sizing/energyWantedWh", "energy wanted from the bank", size.EnergyWantedWh, "Wh", "4.1", r.Overnight ? "{D}" : "{D} × {d}",
            r.Overnight
                ? [T.Worked("D", energy.OvernightWh, "Wh", "18:00 to 08:00", "/energy/overnightWh")]
                : [T.Worked("D", energy.EnergyBankWh, "Wh", "a day", "/energy/energyBankWh"), T.Rule("d", r.Autonomy, "days", "autonomy", "autonomy")], houseRule: "autonomy");
        tape.Write("/bank/sizing/ratedWh", "rated energy by the demand", size.RatedWh, "Wh", "4.1", "{E} ÷ ({d} × {a} × {t})",
        [
            T.Worked("E", size.EnergyWantedWh, "Wh", "wanted", "/bank/sizing/energyWantedWh"), T.Rule("d", Dod(scene, chemistry.Id), "fraction", "usable share", DodRule(chemistry.Id)),
            T.Rule("a", scene.Rules.Number("age-factor"), "fraction", "ageing", "age-factor"),
            T.Rule("t", ColdFactor(scene, chemistry), "fraction", "cold", chemistry.IsLithium ? "cold-factor-lithium" : "cold-factor-lead"),
        ], houseRule: "age-factor");
        tape.Write("/bank/sizing/ahEnergy", "ampere-hours by energy", size.AhEnergy, "Ah", "4.1", "{E} ÷ {V}",
            [T.Worked("E", size.RatedWh, "Wh", "rated", "/bank/sizing/ratedWh"), T.Worked("V", voltage.NominalV, "V", "nominal", "/voltage/nominalV")]);
        var rule = CRateRule(chemistry);
        tape.Write("/bank/sizing/ahRate", "ampere-hours by C-rate", size.AhRate, "Ah", "4.1", "{I} ÷ {C}",
            [T.Worked("I", currents.BankNominalA, "A", "the bank’s current", "/currents/bankNominalA"), T.Rule("C", scene.Rules.Number(rule), "per hour", "C-rate", rule)], houseRule: rule);
        if (r.NeededAh is { } needed)
        {
            Term[] both = size.AhRate is null
                ? [T.Worked("e", size.AhEnergy, "Ah", "by energy", "/bank/sizing/ahEnergy")]
                : [T.Worked("e", size.AhEnergy, "Ah", "by energy", "/bank/sizing/ahEnergy"), T.Worked("c", size.AhRate, "Ah", "by C-rate", "/bank/sizing/ahRate")];
            tape.Write("/bank/neededAh", "ampere-hours this demand asks for", needed, "Ah", "4.1", both.Length == 1 ? "{e}" : "max({e}; {c})", both, "The larger of the two, never their product.");
            if (r.ThumbAhOff is { } off)
                tape.Write("/bank/thumbAhOff", "how far the rule of thumb for ampere-hours is off", off, "fraction", "2.2", "{t} ÷ {n} − 1",
                    [T.Worked("t", currents.RuleOfThumbAh, "Ah", "the rule of thumb’s", "/currents/ruleOfThumbAh"), T.Worked("n", needed, "Ah", "asked for", "/bank/neededAh")]);
        }
        if (chemistry.IsLithium)
            tape.Write("/bank/sizing/parallelByEnergy", "strings by energy", size.ParallelByEnergy, "", "4.1", "ceil({Q} ÷ {A})", [T.Worked("Q", size.AhEnergy, "Ah", "wanted", "/bank/sizing/ahEnergy"), ah]);
        else
            tape.Write("/bank/sizing/parallelByEnergy", "strings by energy, by Peukert", size.ParallelByEnergy, "", "4.1", null,
                [T.Worked("Q", size.AhEnergy, "Ah", "wanted", "/bank/sizing/ahEnergy"), ah, T.Table("k", PeukertOf(r.Unit, chemistry), "", "Peukert exponent", "chemistries"), T.Assumed("I", energy.MeanCurrentA, "A", "mean current of the day")],
                "The fewest strings whose ampere-hours, shrunk by Peukert’s law at the mean current, still meet the energy.");
        if (size.ParallelByCRate is { } byRate)
            tape.Write("/bank/sizing/parallelByCRate", "strings by C-rate", byRate, "", "4.1", "ceil({Q} ÷ {A})", [T.Worked("Q", size.AhRate, "Ah", "wanted", "/bank/sizing/ahRate"), ah]);
        if (size.ParallelByBms is { } byBms && r.Unit.LimitA() is { } unitA)
            tape.Write("/bank/sizing/parallelByBms", "strings by what a unit lets through", byBms, "", "4.1", "ceil({I} ÷ {U})",
                [T.Worked("I", currents.BankWorstA, "A", "worst current", "/currents/bankWorstA"), T.Sheet("U", unitA, "A", "a unit allows", "/unit/bms/continuousA")]);
        var strings = new List<Term> { T.Worked("e", size.ParallelByEnergy, "", "by energy", "/bank/sizing/parallelByEnergy") };
        if (size.ParallelByCRate is not null) strings.Add(T.Worked("c", size.ParallelByCRate, "", "by C-rate", "/bank/sizing/parallelByCRate"));
        if (size.ParallelByBms is not null) strings.Add(T.Worked("b", size.ParallelByBms, "", "by the BMS", "/bank/sizing/parallelByBms"));
        tape.Write("/bank/advisedParallel", "strings needed", size.Parallel, "", "4.1", $"max({string.Join("; ", strings.Select(t => $"{{{t.Key}}}"))})",
            strings.ToArray(), "The larger of the demands, never their product.");
        tape.Write("/bank/sizing/units", "units needed", size.Units, "", "4.1", "{S} × {P}",
            [T.Worked("S", size.Series, "", "in series for the voltage", "/bank/advisedSeries"), T.Worked("P", size.Parallel, "", "strings", "/bank/advisedParallel")]);
    }
}

using InkyBadger.Core.Banks;
using InkyBadger.Core.Reference;
using InkyBadger.Core.Working;

namespace InkyBadger.Core.Work;

/// <summary>How the bank's figures came about.</summary>
internal static class BankWorking
{
    public static void Write(
        Tape tape,
        BankScene scene,
        BankResult r,
        bool mixed,
        Chemistry chemistry,
        EnergyResult? energy,
        CurrentsResult? currents,
        VoltageResult voltage,
        LoadsResult? loads,
        InverterResult? inverter
    )
    {
        var s = r.Layout.SeriesPinned
            ? T.You("S", r.Layout.Series, "", "in series", "/series")
            : T.Worked("S", r.Layout.Series, "", "in series, as advised", "/bank/layout/advisedSeries");
        var p =
            r.Layout.ParallelPinned ? T.You("P", r.Layout.Parallel, "", "strings", "/parallel")
            : r.Layout.Parallel == r.Layout.AdvisedParallel
                ? T.Worked("P", r.Layout.Parallel, "", "strings, as advised", "/bank/layout/advisedParallel")
            : T.Assumed(
                "P",
                r.Layout.Parallel,
                "",
                r.Layout.AdvisedParallel is null ? "string, nothing asks for more" : "strings, the most there can be"
            );
        Term Of(string key, double value, string unit, string label, string field) => T.Sheet(key, value, unit, label, "/unit/" + field);
        var f = new Formulas(tape);
        var ah = Of("A", r.Unit.Ah, "Ah", "a unit", "ah");
        var cellV = T.Table("v", chemistry.CellNominalV, "V", "a cell", "chemistries");
        var cells = Of("c", r.Unit.Cells, "", "cells a unit", "cells");
        var divides = r.Layout.AdvisedSeries * r.Unit.Cells == voltage.Cells;
        tape.Write(
            "/bank/layout/advisedSeries",
            "units in series for the voltage",
            r.Layout.AdvisedSeries,
            "",
            "4.1",
            divides ? "{n} ÷ {c}" : null,
            [T.Table("n", voltage.Cells, "", $"cells at {voltage.SystemV} V", "cells-per-system"), cells],
            divides ? null : "The nearest whole number: these units cannot make the voltage."
        );
        var nominal = f.Figure(
            "V",
            "/bank/holds/nominalV",
            "the bank’s nominal volts",
            "V",
            "4.2",
            BankFigures.NominalV(f.Of(s), f.Of(cells), f.Of(cellV))
        );
        // Units that differ are summed up string by string; no product of one of them gives the bank.
        const string byStrings = "String by string: each holds what its smallest unit holds, carries what its weakest allows.";
        void Sum(string pointer, string label, double? value, string unit, string form, Term[] terms) =>
            tape.Write(pointer, label, value, unit, "4.2", mixed ? null : form, terms, mixed ? byStrings : null);
        Sum("/bank/holds/ah", "the bank’s ampere-hours", r.Holds.Ah, "Ah", "{P} × {A}", [p, ah]);
        var rated = f.Figure(
            "E",
            "/bank/holds/ratedWh",
            "rated energy",
            "Wh",
            "4.2",
            BankFigures.RatedWh(nominal, f.Worked("Q", r.Holds.Ah, "Ah", "the bank", "/bank/holds/ah"))
        );
        var dodRule = BankNeed.DodRule(r.Unit.Chemistry);
        f.Figure(
            "U",
            "/bank/holds/usableWh",
            "usable energy",
            "Wh",
            "4.2",
            BankFigures.UsableWh(rated, f.Rule("d", r.Need.Dod, "fraction", "usable share", dodRule)),
            houseRule: dodRule
        );
        if (r.Unit.LimitA() is { } limit)
            Sum(
                "/bank/continuousA",
                "continuous current of the strings, shared evenly",
                r.ContinuousA,
                "A",
                "{P} × {I}",
                [p, Of("I", limit, "A", "a unit allows", "bms/continuousA")]
            );
        if (r.MassKg is not null && r.Unit.MassKg is { } kg)
            Sum("/bank/massKg", "mass of the units", r.MassKg, "kg", "{S} × {P} × {m}", [s, p, Of("m", kg, "kg", "a unit", "massKg")]);
        if (r.Lasts.PeukertK is { } k)
        {
            var plate =
                r.Unit.Reserve is { } reserve && Math.Abs(k - chemistry.PeukertExponent) > 1e-12
                    ? new[]
                    {
                        T.Sheet("C", r.Unit.Ah, "Ah", "rated"),
                        T.Sheet("H", r.Unit.RatedHours ?? 20, "h", "at so many hours"),
                        T.Sheet("m", reserve.Minutes / 60, "h", "its second rating"),
                        T.Sheet("I", reserve.Amps, "A", "at so many amperes"),
                    }
                    : [T.Table("k", chemistry.PeukertExponent, "", $"typical of {chemistry.Label}", "chemistries")];
            tape.Write(
                "/bank/lasts/peukertK",
                "Peukert’s exponent",
                k,
                "",
                "4.3",
                null,
                plate,
                plate.Length > 1
                    ? "ln(hours ÷ hours) ÷ ln(amperes ÷ amperes) of the plate’s two ratings."
                    : "The plate has no second rating: the chemistry’s typical value."
            );
        }
        if (r.Price is not null && scene.Design.Prices.Of(r.Unit) is { } each)
            Sum(
                "/bank/price",
                "price of the units",
                r.Price,
                "money",
                "{S} × {P} × {m}",
                [
                    s,
                    p,
                    each == r.Unit.Price
                        ? Of("m", each, "money", "a unit", "price")
                        : T.You("m", each, "money", "a unit, your price", "/unit/price"),
                ]
            );
        if (currents is not null)
            tape.Write(
                "/bank/lasts/cRate",
                "C-rate at full load",
                r.Lasts.CRate,
                "per hour",
                "4.1",
                "{I} ÷ {Q}",
                [
                    T.Worked("I", currents.BankNominalA, "A", "the bank’s current", "/currents/bankNominalA"),
                    T.Worked("Q", r.Holds.Ah, "Ah", "the bank", "/bank/holds/ah"),
                ],
                houseRule: BankNeed.CRateRule(chemistry)
            );
        if (energy is not null && chemistry.IsLithium)
            tape.Write(
                "/bank/lasts/hoursAtMean",
                Mean,
                r.Lasts.HoursAtMean,
                "h",
                "1.3",
                "{E} ÷ ({D} ÷ {h})",
                [
                    T.Worked("E", r.Holds.UsableWh, "Wh", "usable", "/bank/holds/usableWh"),
                    T.Worked("D", energy.EnergyBankWh, "Wh", "a day", "/energy/energyBankWh"),
                    Over(energy),
                ]
            );
        else if (energy is not null)
            tape.Write(
                "/bank/lasts/hoursAtMean",
                $"{Mean}, by Peukert",
                r.Lasts.HoursAtMean,
                "h",
                "4.3",
                null,
                [
                    T.Worked("Q", r.Holds.Ah, "Ah", "the bank", "/bank/holds/ah"),
                    T.Worked("D", energy.EnergyBankWh, "Wh", "a day", "/energy/energyBankWh"),
                    Over(energy),
                    T.Table("k", BankNeed.PeukertOf(r.Unit, chemistry), "", "Peukert exponent", "chemistries"),
                ],
                "Ampere-hours shrink with the current by Peukert’s law; what is usable of them, divided by the current."
            );
        if (loads is not null && !chemistry.IsLithium && r.Lasts.HoursAtPeak is not null)
            tape.Write(
                "/bank/lasts/hoursAtPeak",
                "hours it lasts with the most running, by Peukert",
                r.Lasts.HoursAtPeak,
                "h",
                "4.3",
                null,
                [
                    T.Worked("Q", r.Holds.Ah, "Ah", "the bank", "/bank/holds/ah"),
                    T.Worked("D", loads.PeakDcW, "W", "DC loads", "/loads/peakDcW"),
                    .. inverter is null
                        ? Array.Empty<Term>()
                        : [T.Worked("P", loads.PeakAcW, "W", "AC loads", "/loads/peakAcW"), EnergyStage.Efficiency(inverter)],
                    T.Table("k", BankNeed.PeukertOf(r.Unit, chemistry), "", "Peukert exponent", "chemistries"),
                ],
                "Ampere-hours shrink with the current by Peukert’s law; what is usable of them, divided by the current with everything on."
            );
        if (loads is not null && chemistry.IsLithium)
            tape.Write(
                "/bank/lasts/hoursAtPeak",
                "hours it lasts with the most running",
                r.Lasts.HoursAtPeak,
                "h",
                "1.3",
                inverter is null ? "{E} ÷ {D}" : "{E} ÷ ({D} + {P} ÷ {η} + {i})",
                inverter is null
                    ?
                    [
                        T.Worked("E", r.Holds.UsableWh, "Wh", "usable", "/bank/holds/usableWh"),
                        T.Worked("D", loads.PeakDcW, "W", "DC loads", "/loads/peakDcW"),
                    ]
                    :
                    [
                        T.Worked("E", r.Holds.UsableWh, "Wh", "usable", "/bank/holds/usableWh"),
                        T.Worked("D", loads.PeakDcW, "W", "DC loads", "/loads/peakDcW"),
                        T.Worked("P", loads.PeakAcW, "W", "AC loads", "/loads/peakAcW"),
                        EnergyStage.Efficiency(inverter),
                        EnergyStage.Idle(inverter) with
                        {
                            Key = "i",
                        },
                    ]
            );
        tape.Write("/bank/layout/units", "units", r.Layout.Units, "", "4.2", "{S} × {P}", [s, p]);
        if (r.Need.Sizing is { } size)
            WriteSizing(tape, scene, r, size, chemistry, energy!, currents!, voltage, ah);
        tape.Write(
            "/bank/unitOhm",
            "internal resistance of a unit",
            r.UnitOhm,
            "ohm",
            "5.4",
            r.UnitOhmAssumed
                ? r.Unit.Bms is null
                    ? "{c} × {k} ÷ {A}"
                    : "{c} × {k} ÷ {A} + {b}"
                : "{r}",
            r.UnitOhmAssumed
                ?
                [
                    cells,
                    T.Assumed("k", chemistry.ResistanceK, "", "Ω·Ah a cell, typical"),
                    ah,
                    T.Assumed("b", 0.001, "ohm", "switches of the BMS"),
                ]
                : [Of("r", r.UnitOhm, "ohm", "a unit", "resistanceOhm")]
        );
    }

    private static void WriteSizing(
        Tape tape,
        BankScene scene,
        BankResult r,
        BankSizeResult size,
        Chemistry chemistry,
        EnergyResult energy,
        CurrentsResult currents,
        VoltageResult voltage,
        Term ah
    )
    {
        tape.Write(
            "/bank/need/sizing/energyWantedWh",
            "energy wanted from the bank",
            size.EnergyWantedWh,
            "Wh",
            "4.1",
            r.Need.Overnight ? "{D}" : "{D} × {d}",
            r.Need.Overnight
                ? [T.Worked("D", energy.OvernightWh, "Wh", "18:00 to 08:00", "/energy/overnightWh")]
                :
                [
                    T.Worked("D", energy.EnergyBankWh, "Wh", "a day", "/energy/energyBankWh"),
                    T.Rule("d", r.Need.Autonomy, "days", "autonomy", "autonomy"),
                ],
            houseRule: "autonomy"
        );
        tape.Write(
            "/bank/need/sizing/ratedWh",
            "rated energy by the demand",
            size.RatedWh,
            "Wh",
            "4.1",
            "{E} ÷ ({d} × {a} × {t})",
            [
                T.Worked("E", size.EnergyWantedWh, "Wh", "wanted", "/bank/need/sizing/energyWantedWh"),
                T.Rule("d", BankNeed.Dod(scene, chemistry.Id), "fraction", "usable share", BankNeed.DodRule(chemistry.Id)),
                T.Rule("a", scene.Rules.Number("age-factor"), "fraction", "ageing", "age-factor"),
                T.Rule(
                    "t",
                    BankNeed.ColdFactor(scene, chemistry),
                    "fraction",
                    "cold",
                    chemistry.IsLithium ? "cold-factor-lithium" : "cold-factor-lead"
                ),
            ],
            houseRule: "age-factor"
        );
        tape.Write(
            "/bank/need/sizing/ahEnergy",
            "ampere-hours by energy",
            size.AhEnergy,
            "Ah",
            "4.1",
            "{E} ÷ {V}",
            [
                T.Worked("E", size.RatedWh, "Wh", "rated", "/bank/need/sizing/ratedWh"),
                T.Worked("V", voltage.NominalV, "V", "nominal", "/voltage/nominalV"),
            ]
        );
        var rule = BankNeed.CRateRule(chemistry);
        tape.Write(
            "/bank/need/sizing/ahRate",
            "ampere-hours by C-rate",
            size.AhRate,
            "Ah",
            "4.1",
            "{I} ÷ {C}",
            [
                T.Worked("I", currents.BankNominalA, "A", "the bank’s current", "/currents/bankNominalA"),
                T.Rule("C", scene.Rules.Number(rule), "per hour", "C-rate", rule),
            ],
            houseRule: rule
        );
        if (r.Need.Ah is { } needed)
        {
            Term[] both = size.AhRate is null
                ? [T.Worked("e", size.AhEnergy, "Ah", "by energy", "/bank/need/sizing/ahEnergy")]
                :
                [
                    T.Worked("e", size.AhEnergy, "Ah", "by energy", "/bank/need/sizing/ahEnergy"),
                    T.Worked("c", size.AhRate, "Ah", "by C-rate", "/bank/need/sizing/ahRate"),
                ];
            tape.Write(
                "/bank/need/ah",
                "ampere-hours this demand asks for",
                needed,
                "Ah",
                "4.1",
                both.Length == 1 ? "{e}" : "max({e}; {c})",
                both,
                "The larger of the two, never their product."
            );
            if (r.Need.ThumbOff is { } off)
                tape.Write(
                    "/bank/need/thumbOff",
                    "how far the rule of thumb for ampere-hours is off",
                    off,
                    "fraction",
                    "2.2",
                    "{t} ÷ {n} − 1",
                    [
                        T.Worked("t", currents.RuleOfThumbAh, "Ah", "the rule of thumb’s", "/currents/ruleOfThumbAh"),
                        T.Worked("n", needed, "Ah", "asked for", "/bank/need/ah"),
                    ]
                );
        }
        if (chemistry.IsLithium)
            tape.Write(
                "/bank/need/sizing/parallelByEnergy",
                "strings by energy",
                size.ParallelByEnergy,
                "",
                "4.1",
                "ceil({Q} ÷ {A})",
                [T.Worked("Q", size.AhEnergy, "Ah", "wanted", "/bank/need/sizing/ahEnergy"), ah]
            );
        else
            tape.Write(
                "/bank/need/sizing/parallelByEnergy",
                "strings by energy, by Peukert",
                size.ParallelByEnergy,
                "",
                "4.1",
                null,
                [
                    T.Worked("Q", size.AhEnergy, "Ah", "wanted", "/bank/need/sizing/ahEnergy"),
                    ah,
                    T.Table("k", BankNeed.PeukertOf(r.Unit, chemistry), "", "Peukert exponent", "chemistries"),
                    T.Assumed("I", energy.MeanCurrentA, "A", "mean current of the day"),
                ],
                "The fewest strings whose ampere-hours, shrunk by Peukert’s law at the mean current, still meet the energy."
            );
        if (size.ParallelByCRate is { } byRate)
            tape.Write(
                "/bank/need/sizing/parallelByCRate",
                "strings by C-rate",
                byRate,
                "",
                "4.1",
                "ceil({Q} ÷ {A})",
                [T.Worked("Q", size.AhRate, "Ah", "wanted", "/bank/need/sizing/ahRate"), ah]
            );
        if (size.ParallelByBms is { } byBms && r.Unit.LimitA() is { } unitA)
            tape.Write(
                "/bank/need/sizing/parallelByBms",
                "strings by what a unit lets through",
                byBms,
                "",
                "4.1",
                "ceil({I} ÷ {U})",
                [
                    T.Worked("I", currents.BankWorstA, "A", "worst current", "/currents/bankWorstA"),
                    T.Sheet("U", unitA, "A", "a unit allows", "/unit/bms/continuousA"),
                ]
            );
        var strings = new List<Term> { T.Worked("e", size.ParallelByEnergy, "", "by energy", "/bank/need/sizing/parallelByEnergy") };
        if (size.ParallelByCRate is not null)
            strings.Add(T.Worked("c", size.ParallelByCRate, "", "by C-rate", "/bank/need/sizing/parallelByCRate"));
        if (size.ParallelByBms is not null)
            strings.Add(T.Worked("b", size.ParallelByBms, "", "by the BMS", "/bank/need/sizing/parallelByBms"));
        tape.Write(
            "/bank/layout/advisedParallel",
            "strings needed",
            size.Parallel,
            "",
            "4.1",
            $"max({string.Join("; ", strings.Select(t => $"{{{t.Key}}}"))})",
            strings.ToArray(),
            "The larger of the demands, never their product."
        );
        tape.Write(
            "/bank/need/sizing/units",
            "units needed",
            size.Units,
            "",
            "4.1",
            "{S} × {P}",
            [
                T.Worked("S", size.Series, "", "in series for the voltage", "/bank/layout/advisedSeries"),
                T.Worked("P", size.Parallel, "", "strings", "/bank/layout/advisedParallel"),
            ]
        );
    }

    private const string Mean = "hours it lasts at the mean of the demand";

    /// <summary>Hours over which the day's energy is asked for.</summary>
    private static Term Over(EnergyResult energy) =>
        energy.AskedH < 24 ? T.You("h", energy.AskedH, "h", "of it", "/demand") : T.Assumed("h", energy.AskedH, "h", "in a day");
}

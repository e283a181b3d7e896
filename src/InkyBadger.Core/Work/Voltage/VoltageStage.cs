using InkyBadger.Core.Design;
using InkyBadger.Core.Inverters;
using InkyBadger.Core.Reference;
using InkyBadger.Core.Voltage;
using InkyBadger.Core.Wiring;
using InkyBadger.Core.Working;

namespace InkyBadger.Core.Work;

/// <summary>The system voltage: the school's advice, or what is pinned; real volts by the chemistry.</summary>
public static class VoltageStage
{
    public static Step<VoltageResult> Work(BankWork w)
    {
        var (scene, bank) = (w.Scene, w.Document);
        var loads = w.Sketch.Value;
        var chemistry = Chemistries.Get(SystemVoltage.ChemistryOf(bank));
        var rule = Rule(scene);
        var size = Required(scene, loads);
        var item = scene.Inverter?.Item;
        var stack = scene.Inverter?.Stack ?? 1;
        // Nobody chose an inverter yet: the next rating that is made anywhere in the catalogue.
        var watts =
            item is not null ? item.ContinuousW * stack
            : scene.Inverter is null ? 0
            : Catalogue.Inverters.Where(i => Tolerant.AtLeast(i.ContinuousW, size)).Select(i => i.ContinuousW).DefaultIfEmpty(size).Min();
        var limit = scene.Rules.Number("voltage-current-limit");
        var advice = VoltageAdvice.Work(
            new(
                watts,
                item?.Efficiency ?? InverterStage.AssumedEfficiency,
                chemistry.Id,
                HasTwelveVoltFixtures(scene),
                item?.IdleW ?? 0,
                limit,
                rule,
                loads?.PeakAcW ?? 0
            )
        );
        var school = scene.Rules.Word("voltage-school");
        var advised = school switch
        {
            "by-watts" => advice.ByWattsV,
            "mobile-12" => advice.Mobile12V,
            _ => advice.ByCurrentV,
        };
        var systemV = bank.SystemV ?? advised;
        var cells = CellsPerSystem.Get(chemistry.Id, systemV);
        var f = new Formulas(scene.Tape);
        var inSeries = f.Table("n", cells, "cells", $"in series at {systemV} V", "cells-per-system");
        double nominalV = f.Figure(
            "V",
            "/voltage/nominalV",
            "real nominal volts",
            "V",
            "2",
            inSeries * f.Table("v", chemistry.CellNominalV, "V", "a cell, nominal", "chemistries")
        );
        double lowV = f.Figure(
            "V",
            "/voltage/lowV",
            "volts under load, nearly empty",
            "V",
            "2",
            inSeries * f.Table("v", chemistry.CellLowUnderLoadV, "V", "a cell under load", "chemistries")
        );
        var setting = ChargerSettingV(scene, cells * chemistry.CellTopV);
        var greatest = Fuse.GreatestChargingV(chemistry, cells, false, setting ?? cells * chemistry.CellTopV);
        var result = new VoltageResult(
            systemV,
            advised,
            bank.SystemV is not null,
            chemistry.Id,
            chemistry.Label,
            cells,
            nominalV,
            lowV,
            greatest,
            new(
                watts,
                limit,
                advice.ByWattsV,
                advice.ByCurrentV,
                advice.ByCurrentA,
                advice.ByCurrentWithinLimit,
                advice.Mobile12V,
                school,
                Schools(advice, watts, limit, HasTwelveVoltFixtures(scene))
            )
        );
        if (scene.Tape is { } tape)
            WriteWorking(tape, result, chemistry, setting);
        return result;
    }

    private static SchoolAdvice[] Schools(VoltageAdviceResult a, double watts, double limitA, bool fixtures) =>
        [
            new(
                "by-current",
                a.ByCurrentV,
                a.ByCurrentWithinLimit
                    ? $"{Say.A(a.ByCurrentA)} at {a.ByCurrentV} V, the lowest that keeps {Say.Rating(limitA)}"
                    : $"{Say.A(a.ByCurrentA)} even at 48 V: no voltage keeps {Say.Rating(limitA)}"
            ),
            new(
                "by-watts",
                a.ByWattsV,
                a.ByWattsV == 12 ? $"{Say.W(watts)} is not over 1,000 W"
                    : a.ByWattsV == 24 ? $"{Say.W(watts)} is over 1,000 and not over 2,000 W"
                    : $"{Say.W(watts)} is over 2,000 W"
            ),
            new(
                "mobile-12",
                a.Mobile12V,
                a.Mobile12V == 12 ? $"the fixtures are 12 V, and {Say.W(watts)} is not over 2,000 W"
                    : a.Mobile12V == 24
                        ? watts <= 2000 ? "no fixture asks for 12 V"
                            : $"{Say.W(watts)} is over 2,000 W, too much for the fixtures’ 12 V"
                    : $"{Say.W(watts)} is over 4,000 W"
            ),
        ];

    /// <summary>
    /// The highest voltage the chargers are set to, where every one of them is known [V]; null: nobody knows. A charger that nobody has set
    /// may be at the chemistry's top, <paramref name="topV"/>, or another one above it.
    /// </summary>
    public static double? ChargerSettingV(BankScene scene, double topV)
    {
        var known = scene.Bank.Sources.Max(s => s.SettingV);
        return known is { } setting && scene.Bank.Sources.Any(s => s.SettingV is null) ? Math.Max(setting, topV) : known;
    }

    public static DesignRule Rule(BankScene scene) =>
        scene.Rules.Word("inverter-run-current") == "load" ? DesignRule.Load : DesignRule.InverterRating;

    private static double Required(BankScene scene, LoadsResult? loads) =>
        loads is null ? 0 : InverterStage.RequiredContinuousW(scene, loads.PeakAcW, null);

    /// <summary>Fixtures count as 12 V when a DC load says so by its volts.</summary>
    private static bool HasTwelveVoltFixtures(BankScene scene) =>
        scene.Bank.Demand.Loads.Any(l => l.Kind != LoadKind.Ac && l.Volts is >= 11 and <= 15);

    private static void WriteWorking(Tape tape, VoltageResult result, Chemistry chemistry, double? setting)
    {
        var cells = T.Table("n", result.Cells, "cells", $"in series at {result.SystemV} V", "cells-per-system");
        tape.Write(
            "/voltage/greatestV",
            "highest volts in charging",
            result.GreatestV,
            "V",
            "7.1",
            setting is null ? "{n} × {v}" : "max({n} × {a}; {s})",
            setting is null
                ? [cells, T.Table("v", chemistry.CellTopV, "V", "a cell, top of charging", "chemistries")]
                :
                [
                    cells,
                    T.Table("a", Math.Max(chemistry.CellAbsorbV, chemistry.CellFloatV), "V", "a cell, charging", "chemistries"),
                    T.You("s", setting, "V", "a charger’s setting", "/sources"),
                ]
        );
        tape.Write(
            "/voltage/systemV",
            "system voltage",
            result.SystemV,
            "V",
            "3.1",
            null,
            [
                T.Assumed("w", result.Advice.ByWattsV, "V", "school by watts"),
                T.Assumed("c", result.Advice.ByCurrentV, "V", "school by current"),
                T.Assumed("m", result.Advice.Mobile12V, "V", "school of 12 V fixtures"),
                T.Rule("l", result.Advice.LimitA, "A", "most in the main cable", "voltage-current-limit"),
            ],
            result.Pinned ? "Pinned by you; the schools advise as shown." : "The school of the house rule decides.",
            "voltage-school"
        );
    }
}

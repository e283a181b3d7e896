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
        var chemistry = Chemistries.Get(SystemVoltage.ChemistryOf(bank));
        var trials = w.Trials.Need();
        var advice = Advise(scene, trials, trials.Candidates);
        // What is chosen of the bank, or the inverter, ties it: advice that fits neither would begin with a fault.
        var tied = bank.SystemV is null ? VoltageTrials.TiedTo(scene, chemistry.Id) : null;
        var systemV = bank.SystemV ?? (tied is null ? advice.Volts : Advise(scene, trials, tied).Volts);
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
        var greatest = GreatestV(scene, chemistry, cells);
        var result = new VoltageResult(
            systemV,
            advice.Volts,
            bank.SystemV is not null,
            chemistry.Id,
            chemistry.Label,
            cells,
            nominalV,
            lowV,
            greatest,
            advice.Said,
            tied is null ? null
                : bank.Unit is not null && !(tied.Count == 1 && scene.Inverter?.Item?.SystemV == tied[0]) ? "the units"
                : "the inverter"
        );
        if (scene.Tape is { } tape)
            WriteWorking(tape, result, chemistry, setting);
        return result;
    }

    /// <summary>What the schools say of the classes allowed, and the one that the house rule's takes.</summary>
    private static (int Volts, VoltageAdvised Said) Advise(BankScene scene, VoltageTrials trials, IReadOnlyList<int> allowed)
    {
        var limit = scene.Rules.Number("voltage-current-limit");
        var fixtures = HasTwelveVoltFixtures(scene);
        var byCurrent = trials.At(trials.ByCurrent(limit, allowed, out var within));
        // By watts alone: the first class whose own inverter is not too large for it.
        VoltageTrial By(Func<VoltageTrial, bool> suits)
        {
            foreach (var v in allowed)
                if (v is 12 or 24 && trials.At(v) is { InverterFits: true } trial && suits(trial))
                    return trials.BestOf(trial, allowed, other => other.InverterFits);
            return trials.BestOf(trials.At(allowed[^1]), allowed, other => other.InverterFits);
        }
        var byWatts = By(t => t.Watts <= (t.SystemV == 12 ? 1000 : 2000));
        var mobile = By(t => t.SystemV == 12 ? t.Watts <= 2000 && fixtures : t.Watts <= 4000);
        var school = scene.Rules.Word("voltage-school");
        var said = school switch
        {
            "by-watts" => byWatts,
            "mobile-12" => mobile,
            _ => byCurrent,
        };
        return (
            said.SystemV,
            new(
                said.Watts,
                limit,
                byWatts.SystemV,
                byCurrent.SystemV,
                byCurrent.Amps,
                within,
                mobile.SystemV,
                school,
                [
                    new("by-current", byCurrent.SystemV, ByCurrent(byCurrent, trials, allowed, limit, within)),
                    new("by-watts", byWatts.SystemV, ByWatts(byWatts)),
                    new("mobile-12", mobile.SystemV, Mobile(mobile, fixtures)),
                ]
            )
        );
    }

    private static string ByCurrent(VoltageTrial t, VoltageTrials trials, IReadOnlyList<int> allowed, double limitA, bool within)
    {
        if (!within)
            return $"{Say.A(t.Amps)} even at {t.SystemV} V: no voltage keeps {Say.Rating(limitA)}";
        foreach (var v in allowed)
            if (v < t.SystemV && trials.At(v) is { InverterFits: true } lower && Tolerant.AtLeast(limitA, lower.Amps))
                return $"{Say.A(t.Amps)} at {t.SystemV} V, where its loads need {Fewer(lower, t)} than at {v} V";
        return $"{Say.A(t.Amps)} at {t.SystemV} V, the lowest that keeps {Say.Rating(limitA)}";
    }

    private static string Fewer(VoltageTrial more, VoltageTrial less) =>
        less.Converted == 0
            ? $"{more.Converted} {(more.Converted == 1 ? "converter" : "converters")} less"
            : $"{more.Converted - less.Converted} fewer behind a converter";

    private static string ByWatts(VoltageTrial t) =>
        t.Watts <= 0 ? "no inverter: nothing speaks against it"
        : t.SystemV == 12 ? $"{Say.W(t.Watts)} is not over 1,000 W"
        : t.SystemV == 24 ? $"{Say.W(t.Watts)} is not over 2,000 W"
        : $"{Say.W(t.Watts)} is over 2,000 W";

    private static string Mobile(VoltageTrial t, bool fixtures) =>
        t.SystemV == 12 ? $"the fixtures are 12 V, and {Say.W(t.Watts)} is not over 2,000 W"
        : t.SystemV == 24
            ? !fixtures ? "no fixture asks for 12 V"
                : $"{Say.W(t.Watts)} is too much for the fixtures’ 12 V, and not over 4,000 W"
        : $"{Say.W(t.Watts)} is over 4,000 W";

    /// <summary>The highest volts in charging at so many cells in series [V].</summary>
    internal static double GreatestV(BankScene scene, Chemistry chemistry, int cells) =>
        Fuse.GreatestChargingV(chemistry, cells, false, ChargerSettingV(scene, cells * chemistry.CellTopV) ?? cells * chemistry.CellTopV);

    /// <summary>What the chargers of the bank are set to [V]; null: not known.</summary>
    internal static double? SettingOf(BankScene scene) =>
        scene.Bank.Sources.Count > 0 && scene.Bank.Sources.All(x => StandsOn.Of(x).AbsorbV is not null)
            ? scene.Bank.Sources.Max(x => StandsOn.Of(x).GreatestV)
            : null;

    /// <summary>The bank's loads as they are fed at the voltage that stands.</summary>
    internal static Step<Bank> Fed(BankWork w)
    {
        var voltage = w.Voltage.Need();
        return voltage.Pinned || w.Document.Demand.By != DemandBy.Loads
            ? w.Document
            : LoadFeeds.On(w.Document, voltage.SystemV, voltage.Chemistry, SettingOf(w.Scene));
    }

    /// <summary>
    /// The highest voltage the chargers are set to, where every one of them is known [V]; null: nobody knows. A charger that nobody has set
    /// may be at the chemistry's top, <paramref name="topV"/>, or another one above it.
    /// </summary>
    public static double? ChargerSettingV(BankScene scene, double topV)
    {
        var known = scene.Bank.Sources.Max(s => StandsOn.Of(s).GreatestV);
        // An inverter's own charger has no setting of its own in the document.
        var unset = scene.Bank.Sources.Any(s => StandsOn.Of(s).AbsorbV is null) || scene.Bank.Inverters.Any(i => i.Item?.ChargerA > 0);
        return known is { } setting && unset ? Math.Max(setting, topV) : known;
    }

    public static DesignRule Rule(BankScene scene) =>
        scene.Rules.Word("inverter-run-current") == "load" ? DesignRule.Load : DesignRule.InverterRating;

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
            result.Pinned ? "Pinned by you; the schools advise as shown."
                : result.Follows is { } follows ? $"It follows {follows}, which you chose; the schools advise as shown."
                : "The school of the house rule decides.",
            "voltage-school"
        );
    }
}

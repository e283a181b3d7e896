using InkyBadger.Core.Demand;
using InkyBadger.Core.Reference;
using InkyBadger.Core.Voltage;
using InkyBadger.Core.Working;

namespace InkyBadger.Core.Inverters;

/// <summary>Direct currents that leave the bank: the inverter's at its design watts, and the DC loads' peak.</summary>
public static class CurrentsStage
{
    public static CurrentsResult? Work(BankScene scene, LoadsResult? loads, VoltageResult voltage, InverterResult? inverter)
    {
        var peakDc = loads?.PeakDcW ?? 0;
        var peakAc = loads?.PeakAcW ?? 0;
        double designW = 0, nominal = 0, worst = 0, loadWorst = 0, surge = 0;
        double? thumb = null;
        if (inverter is not null)
        {
            var rule = VoltageStage.Rule(scene);
            // Without an inverter in the catalogue the required watts stand in for its rating; its rating is what a cable must expect, hot or not.
            var rating = inverter.Item is { } item ? item.ContinuousW * inverter.Stack : inverter.RequiredContinuousW;
            designW = rule == DesignRule.InverterRating ? rating : peakAc;
            if (designW > 0)
            {
                var chemistry = Chemistries.Get(voltage.Chemistry);
                var currents = InverterCurrent.Work(new(designW, inverter.Efficiency, voltage.SystemV, voltage.NominalV, voltage.Cells,
                    chemistry.CellLowUnderLoadV, inverter.IdleW, DesignRule.Load, null, designW));
                (nominal, worst, thumb) = (currents.NominalA, currents.WorstA, currents.RuleOfThumbA);
            }
            loadWorst = InverterCurrent.At(peakAc, inverter.Efficiency, inverter.IdleW, voltage.LowV);
            surge = InverterCurrent.At(loads?.SurgeDemandW ?? 0, inverter.Efficiency, inverter.IdleW, voltage.LowV);
        }
        double dcNominal = peakDc / voltage.NominalV, dcWorst = peakDc / voltage.LowV;
        if (worst + dcWorst <= 0) return null;
        // The same name stands for watts to amperes and for watts to ampere-hours of bank.
        var off = thumb is { } t && nominal > 0 ? t / nominal - 1 : (double?)null;
        var result = new CurrentsResult(designW, nominal, worst, thumb, off, thumb, dcNominal, dcWorst, nominal + dcNominal, worst + dcWorst, loadWorst + dcWorst, surge + dcWorst);
        if (scene.Tape is { } tape) WriteWorking(tape, result, voltage, inverter, loads);
        return result;
    }

    private static void WriteWorking(Tape tape, CurrentsResult r, VoltageResult voltage, InverterResult? inverter, LoadsResult? loads)
    {
        var nominalV = T.Worked("V", voltage.NominalV, "V", "nominal", "/voltage/nominalV");
        var lowV = T.Worked("V", voltage.LowV, "V", "under load, nearly empty", "/voltage/lowV");
        var dc = T.Worked("D", loads?.PeakDcW ?? 0, "W", "DC loads at once", "/loads/peakDcW");
        tape.Write("/currents/dcNominalA", "DC loads at nominal volts", r.DcNominalA, "A", "6", "{D} ÷ {V}", [dc, nominalV]);
        tape.Write("/currents/dcWorstA", "DC loads at the lowest volts", r.DcWorstA, "A", "6", "{D} ÷ {V}", [dc, lowV]);
        if (inverter is null)
        {
            tape.Write("/currents/bankNominalA", "the bank’s current, nominal", r.BankNominalA, "A", "6", "{a}", [T.Worked("a", r.DcNominalA, "A", "DC loads", "/currents/dcNominalA")]);
            tape.Write("/currents/bankWorstA", "the bank’s current, worst", r.BankWorstA, "A", "6", "{a}", [T.Worked("a", r.DcWorstA, "A", "DC loads", "/currents/dcWorstA")]);
            return;
        }
        var byRating = inverter.Item is null || Math.Abs(r.DesignW - inverter.Item.ContinuousW * inverter.Stack) < 1e-9;
        var watts = inverter.Item is null ? T.Worked("P", r.DesignW, "W", "continuous watts wanted", "/inverter/requiredContinuousW")
            : byRating ? T.Sheet("P", r.DesignW, "W", "inverter’s rating", "/inverters/0/item/continuousW")
            : T.Worked("P", r.DesignW, "W", "most running at once", "/loads/peakAcW");
        Term[] Terms(Term p, Term v) => [p, EnergyStage.Efficiency(inverter), EnergyStage.Idle(inverter) with { Key = "i" }, v];
        const string form = "({P} ÷ {η} + {i}) ÷ {V}";
        tape.Write("/currents/inverterNominalA", "inverter’s current at nominal volts", r.InverterNominalA, "A", "2.2", form, Terms(watts, nominalV), houseRule: "inverter-run-current");
        tape.Write("/currents/inverterWorstA", "inverter’s current at the lowest volts", r.InverterWorstA, "A", "2.2", form, Terms(watts, lowV), houseRule: "inverter-run-current");
        tape.Write("/currents/bankNominalA", "the bank’s current, nominal", r.BankNominalA, "A", "6", "{a} + {b}",
            [T.Worked("a", r.InverterNominalA, "A", "inverter", "/currents/inverterNominalA"), T.Worked("b", r.DcNominalA, "A", "DC loads", "/currents/dcNominalA")]);
        tape.Write("/currents/bankWorstA", "the bank’s current, worst", r.BankWorstA, "A", "6", "{a} + {b}",
            [T.Worked("a", r.InverterWorstA, "A", "inverter", "/currents/inverterWorstA"), T.Worked("b", r.DcWorstA, "A", "DC loads", "/currents/dcWorstA")], houseRule: "inverter-run-current");
        tape.Write("/currents/loadWorstA", "what today’s loads ask at most", r.LoadWorstA, "A", "2.2", "({P} ÷ {η} + {i}) ÷ {V} + {d}",
            [.. Terms(T.Worked("P", loads?.PeakAcW ?? 0, "W", "most running at once", "/loads/peakAcW"), lowV), T.Worked("d", r.DcWorstA, "A", "DC loads", "/currents/dcWorstA")]);
        tape.Write("/currents/surgeWorstA", "the bank’s current at the worst instant", r.SurgeWorstA, "A", "2.2", "({P} ÷ {η} + {i}) ÷ {V} + {d}",
            [.. Terms(T.Worked("P", loads?.SurgeDemandW ?? 0, "W", "worst instant", "/loads/surgeDemandW"), lowV), T.Worked("d", r.DcWorstA, "A", "DC loads", "/currents/dcWorstA")]);
        if (r.RuleOfThumbA is { } thumb)
            tape.Write("/currents/ruleOfThumbA", "the rule of thumb’s current", thumb, "A", "2.2", "{P} ÷ {d}",
                [watts, T.Assumed("d", r.DesignW / thumb, "", $"the “ten to one” of {voltage.SystemV} V")], "Beside it only: it forgets efficiency and the battery’s real volts.");
        if (r.RuleOfThumbOff is { } off)
            tape.Write("/currents/ruleOfThumbOff", "how far the rule of thumb is off", off, "fraction", "2.2", "{t} ÷ {I} − 1",
                [T.Worked("t", r.RuleOfThumbA, "A", "the rule of thumb’s current", "/currents/ruleOfThumbA"), T.Worked("I", r.InverterNominalA, "A", "inverter’s current at nominal volts", "/currents/inverterNominalA")]);
        if (r.RuleOfThumbAh is { } ah)
            tape.Write("/currents/ruleOfThumbAh", "the other rule’s ampere-hours of bank", ah, "Ah", "2.2", "{P} ÷ {d}",
                [watts, T.Assumed("d", r.DesignW / ah, "", $"the “ten to one” of {voltage.SystemV} V")], "It shares its name with the rule for amperes, and knows nothing of how long the loads run.");
    }
}

using InkyBadger.Core.Inverters;
using InkyBadger.Core.Working;

namespace InkyBadger.Core.Work;

/// <summary>Direct currents that leave the bank: the inverter's at its design watts, and the DC loads' peak.</summary>
public static class CurrentsStage
{
    public static Step<CurrentsResult> Work(BankWork w)
    {
        var (voltage, flows) = (w.Voltage.Need(), w.Flows.Need());
        var (loads, inverter) = (w.Loads.Value, w.Inverter.Value);
        if (flows.Bank.WorstA <= 0)
            return w.Loads.Gap ?? new Gap(Station.Voltage, "/demand/loads", "nothing draws current yet");
        // The same name stands for watts to amperes and for watts to ampere-hours of bank.
        var off = flows.RuleOfThumbA is { } t && flows.Inverter.NominalA > 0 ? t / flows.Inverter.NominalA - 1 : (double?)null;
        var result = new CurrentsResult(
            flows.DesignW,
            flows.Inverter.NominalA,
            flows.Inverter.WorstA,
            flows.RuleOfThumbA,
            off,
            flows.RuleOfThumbA,
            flows.DcLoads.NominalA,
            flows.DcLoads.WorstA,
            flows.Bank.NominalA,
            flows.Bank.WorstA,
            flows.Bank.RunningA,
            flows.Bank.SurgeA,
            flows.Beside.WorstA,
            flows.ChargingA,
            flows.IsOffer
        );
        if (w.Tape is { } tape)
            WriteWorking(tape, result, voltage, inverter, loads, flows);
        return result;
    }

    /// <summary>
    /// What flows beside the first inverter and the DC loads, as terms of a sum: further inverters, runs of one's own, other banks.
    /// </summary>
    private static List<Term> Others(Flows flows, Func<FlowAmps, double> amps)
    {
        var terms = new List<Term>();
        var first = true;
        foreach (var flow in flows.All)
        {
            if (flow.Kind == FlowKind.Inverter && first)
            {
                first = false;
                continue;
            }
            var key = $"x{terms.Count}";
            switch (flow.Kind)
            {
                case FlowKind.Own:
                    terms.Add(T.You(key, amps(flow.Out), "A", $"your run to {flow.Name}", "/runs"));
                    break;
                case FlowKind.Inverter:
                    terms.Add(T.Sheet(key, amps(flow.Out), "A", flow.Name, "/inverters"));
                    break;
                case FlowKind.Bank:
                    terms.Add(T.Assumed(key, amps(flow.Out), "A", "all the bank may give, as long as nothing draws"));
                    break;
                case FlowKind.JoinOut:
                    terms.Add(T.You(key, amps(flow.Out), "A", $"to {flow.Name}", "/joins"));
                    break;
            }
        }
        return terms;
    }

    private static string Plus(List<Term> terms) => string.Concat(terms.Select(t => $" + {{{t.Key}}}"));

    private static void WriteWorking(
        Tape tape,
        CurrentsResult r,
        VoltageResult voltage,
        InverterResult? inverter,
        LoadsResult? loads,
        Flows flows
    )
    {
        var nominalV = T.Worked("V", voltage.NominalV, "V", "nominal", "/voltage/nominalV");
        var lowV = T.Worked("V", voltage.LowV, "V", "under load, nearly empty", "/voltage/lowV");
        var dc = T.Worked("D", loads?.PeakDcW ?? 0, "W", "DC loads at once", "/loads/peakDcW");
        tape.Write("/currents/dcNominalA", "DC loads at nominal volts", r.DcNominalA, "A", "6", "{D} ÷ {V}", [dc, nominalV]);
        tape.Write("/currents/dcWorstA", "DC loads at the lowest volts", r.DcWorstA, "A", "6", "{D} ÷ {V}", [dc, lowV]);
        List<Term> atNominal = Others(flows, f => f.NominalA),
            atWorst = Others(flows, f => f.WorstA),
            running = Others(flows, f => f.RunningA),
            starting = Others(flows, f => f.SurgeA);
        tape.Write(
            "/currents/besideWorstA",
            "what the bank gives beside the inverter, worst",
            r.BesideWorstA,
            "A",
            "6",
            "{a}" + Plus(atWorst),
            [T.Worked("a", r.DcWorstA, "A", "DC loads", "/currents/dcWorstA"), .. atWorst]
        );
        if (r.ChargingA > 0)
            tape.Write(
                "/currents/chargingA",
                "what charges the bank, all together",
                r.ChargingA,
                "A",
                "6",
                string.Join(" + ", flows.All.Index().Where(f => f.Item.ChargingA > 0).Select(f => $"{{c{f.Index}}}")),
                [
                    .. flows
                        .All.Index()
                        .Where(f => f.Item.ChargingA > 0)
                        .Select(f =>
                            f.Item.Kind == FlowKind.Charger
                                ? T.Sheet($"c{f.Index}", f.Item.ChargingA, "A", f.Item.Name, "/inverters")
                                : T.You(
                                    $"c{f.Index}",
                                    f.Item.ChargingA,
                                    "A",
                                    f.Item.Name,
                                    f.Item.Kind == FlowKind.JoinIn ? "/joins" : "/sources"
                                )
                        ),
                ]
            );
        if (inverter is null)
        {
            tape.Write(
                "/currents/bankNominalA",
                "the bank’s current, nominal",
                r.BankNominalA,
                "A",
                "6",
                "{a}" + Plus(atNominal),
                [T.Worked("a", r.DcNominalA, "A", "DC loads", "/currents/dcNominalA"), .. atNominal]
            );
            tape.Write(
                "/currents/bankWorstA",
                "the bank’s current, worst",
                r.BankWorstA,
                "A",
                "6",
                "{a}" + Plus(atWorst),
                [T.Worked("a", r.DcWorstA, "A", "DC loads", "/currents/dcWorstA"), .. atWorst]
            );
            return;
        }
        var byRating = inverter.Item is null || Math.Abs(r.DesignW - inverter.Item.ContinuousW * inverter.Stack) < 1e-9;
        var watts =
            inverter.Item is null ? T.Worked("P", r.DesignW, "W", "continuous watts wanted", "/inverter/wanted/continuousW")
            : byRating ? T.Sheet("P", r.DesignW, "W", "inverter’s rating", "/inverters/0/item/continuousW")
            : T.Worked("P", r.DesignW, "W", "most running at once", "/loads/peakAcW");
        var f = new Formulas(tape);
        Num Draws(Term p, Term v) =>
            InverterCurrent.At(
                f.Of(p),
                f.Of(EnergyStage.Efficiency(inverter)),
                f.Of(EnergyStage.Idle(inverter) with { Key = "i" }),
                f.Of(v)
            );
        void Inverter(string pointer, string label, Term v) =>
            f.Figure("I", pointer, label, "A", "2.2", Draws(watts, v), houseRule: "inverter-run-current");
        Inverter("/currents/inverterNominalA", "inverter’s current at nominal volts", nominalV);
        Inverter("/currents/inverterWorstA", "inverter’s current at the lowest volts", lowV);
        tape.Write(
            "/currents/bankNominalA",
            "the bank’s current, nominal",
            r.BankNominalA,
            "A",
            "6",
            "{a} + {b}" + Plus(atNominal),
            [
                T.Worked("a", r.InverterNominalA, "A", "inverter", "/currents/inverterNominalA"),
                T.Worked("b", r.DcNominalA, "A", "DC loads", "/currents/dcNominalA"),
                .. atNominal,
            ]
        );
        tape.Write(
            "/currents/bankWorstA",
            "the bank’s current, worst",
            r.BankWorstA,
            "A",
            "6",
            "{a} + {b}" + Plus(atWorst),
            [
                T.Worked("a", r.InverterWorstA, "A", "inverter", "/currents/inverterWorstA"),
                T.Worked("b", r.DcWorstA, "A", "DC loads", "/currents/dcWorstA"),
                .. atWorst,
            ],
            houseRule: "inverter-run-current"
        );
        var dcLoads = f.Worked("d", r.DcWorstA, "A", "DC loads", "/currents/dcWorstA");
        void All(string pointer, string label, Term acWatts, List<Term> others) =>
            f.Figure("I", pointer, label, "A", "2.2", others.Aggregate(Draws(acWatts, lowV) + dcLoads, (sum, o) => sum + f.Of(o)));
        All(
            "/currents/loadWorstA",
            "what today’s loads ask at most",
            T.Worked("P", loads?.PeakAcW ?? 0, "W", "most running at once", "/loads/peakAcW"),
            running
        );
        All(
            "/currents/surgeWorstA",
            "the bank’s current at the worst instant",
            T.Worked("P", loads?.SurgeDemandW ?? 0, "W", "worst instant", "/loads/surgeDemandW"),
            starting
        );
        if (r.RuleOfThumbA is { } thumb)
            tape.Write(
                "/currents/ruleOfThumbA",
                "the rule of thumb’s current",
                thumb,
                "A",
                "2.2",
                "{P} ÷ {d}",
                [watts, T.Assumed("d", r.DesignW / thumb, "", $"the “ten to one” of {voltage.SystemV} V")],
                "Beside it only: it forgets efficiency and the battery’s real volts."
            );
        if (r.RuleOfThumbOff is { } off)
            tape.Write(
                "/currents/ruleOfThumbOff",
                "how far the rule of thumb is off",
                off,
                "fraction",
                "2.2",
                "{t} ÷ {I} − 1",
                [
                    T.Worked("t", r.RuleOfThumbA, "A", "the rule of thumb’s current", "/currents/ruleOfThumbA"),
                    T.Worked("I", r.InverterNominalA, "A", "inverter’s current at nominal volts", "/currents/inverterNominalA"),
                ]
            );
        if (r.RuleOfThumbAh is { } ah)
            tape.Write(
                "/currents/ruleOfThumbAh",
                "the other rule’s ampere-hours of bank",
                ah,
                "Ah",
                "2.2",
                "{P} ÷ {d}",
                [watts, T.Assumed("d", r.DesignW / ah, "", $"the “ten to one” of {voltage.SystemV} V")],
                "It shares its name with the rule for amperes, and knows nothing of how long the loads run."
            );
    }
}

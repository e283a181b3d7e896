using InkyBadger.Core.Banks;
using InkyBadger.Core.Charging;
using InkyBadger.Core.Design;
using InkyBadger.Core.Working;

namespace InkyBadger.Core.Work;

/// <summary>How the figures of several banks came about.</summary>
internal static class SiteWorking
{
    /// <summary>Of lithium's charge what stays (method, 9.2).</summary>
    private const double LithiumKeeps = 0.99;

    private static string Of(BankWork bank) => bank.Scene.Pointer;

    public static void Through(
        Tape tape,
        string at,
        BankWork from,
        Join join,
        JoinThroughResult r,
        double worstA,
        VoltageResult giving,
        VoltageResult taking,
        double efficiency,
        double? dailyWh
    )
    {
        var place = at.Replace("/site", "", StringComparison.Ordinal);
        var amps = T.You("A", join.Amps, "A", "out of it", place + "/amps");
        var share = join.Efficiency is { } own
            ? T.You("η", own, "fraction", "of it comes out", place + "/efficiency")
            : T.Assumed("η", efficiency, "fraction", "of it comes out");
        var to = from.Site.Find(join.To)!;
        var outV = T.Worked("V", taking.NominalV, "V", "taking bank, nominal", Of(to) + "/voltage/nominalV");
        tape.Write(at + "/through/outW", "watts out of the join", r.OutW, "W", "16.1", "{A} × {V}", [amps, outV]);
        var watts = T.Worked("P", r.OutW, "W", "out of it", at + "/through/outW");
        tape.Write(at + "/through/inW", "watts into the join", r.InW, "W", "16.1", "{P} ÷ {η}", [watts, share]);
        var into = T.Worked("I", r.InW, "W", "into it", at + "/through/inW");
        tape.Write(
            at + "/through/inA",
            "amperes into the join",
            r.InA,
            "A",
            "16.1",
            "{I} ÷ {U}",
            [into, T.Worked("U", giving.NominalV, "V", "giving bank, nominal", Of(from) + "/voltage/nominalV")]
        );
        tape.Write(
            at + "/through/worstInA",
            "amperes into the join at the worst",
            worstA,
            "A",
            "16.1",
            "{A} × {G} ÷ {η} ÷ {L}",
            [
                amps,
                T.Worked("G", taking.GreatestV, "V", "taking bank, highest", Of(to) + "/voltage/greatestV"),
                share,
                T.Worked("L", giving.LowV, "V", "giving bank, nearly empty", Of(from) + "/voltage/lowV"),
            ],
            "Cable and fuse on the giving side go by it."
        );
        tape.Write(at + "/through/heatW", "heat of the join", r.HeatW, "W", "16.1", "{I} − {P}", [into, watts]);
        if (join.Hours is not { } hours)
            return;
        var on = T.You("h", hours, "h", "on, a day", place + "/hours");
        tape.Write(at + "/through/day/movedWh", "moved a day", r.MovedWh, "Wh", "16.1", "{P} × {h}", [watts, on]);
        tape.Write(
            at + "/through/day/takenWh",
            "taken a day",
            r.TakenWh,
            "Wh",
            "16.1",
            "{I} × {h} + {w} × (24 − {h})",
            [into, on, T.You("w", join.IdleW ?? 0, "W", "while it is off", place + "/idleW")]
        );
        if (dailyWh is { } daily)
            tape.Write(
                at + "/through/day/shareOfDaily",
                "of the giving bank’s own day",
                r.ShareOfDaily,
                "fraction",
                "16.1",
                "{T} ÷ {D}",
                [
                    T.Worked("T", r.TakenWh, "Wh", "taken a day", at + "/through/day/takenWh"),
                    T.Worked("D", daily, "Wh", "its own day", Of(from) + "/energy/energyBankWh"),
                ]
            );
    }

    public static void Rush(
        Tape tape,
        string at,
        BankWork from,
        BankWork to,
        double fullV,
        double lowV,
        double oneOhm,
        double otherOhm,
        double copperOhm,
        double amps
    ) =>
        tape.Write(
            at + "/rush/amps",
            "first current between a full and an emptied bank",
            amps,
            "A",
            "4.5",
            "({F} − {L}) ÷ ({a} + {b} + {c})",
            [
                T.Table("F", fullV, "V", "full, at rest", "open-circuit-voltage"),
                T.Table("L", lowV, "V", "at its floor, at rest", "open-circuit-voltage"),
                T.Worked("a", oneOhm, "ohm", SiteStage.NameOf(from.Document), Of(from) + "/network/bankOhm"),
                T.Worked("b", otherOhm, "ohm", SiteStage.NameOf(to.Document), Of(to) + "/network/bankOhm"),
                T.Assumed("c", copperOhm, "ohm", "both runs, there and back"),
            ]
        );

    public static void Plug(Tape tape, IReadOnlyList<(BankWork Work, PluggedBank Bank)> plugged, ChargePlugResult r, double efficiency)
    {
        const string At = "/site/plug";
        List<Term> hours = [],
            watts = [];
        foreach (var (i, (work, bank)) in plugged.Index())
        {
            var at = $"{At}/banks/{i}";
            var name = SiteStage.NameOf(work.Document);
            Term ah = T.Worked("Q", bank.Bank.Ah, "Ah", "of the bank", Of(work) + "/bank/holds/ah"),
                from = T.Rule("s", bank.Soc, "fraction", "its floor, of full", BankNeed.DodRule(bank.Bank.Chemistry.Id)),
                amps = T.Assumed("I", r.Banks[i].ChargeA, "A", "what it takes of its chargers");
            if (bank.Bank.Chemistry.IsLithium)
                tape.Write(
                    at + "/hours",
                    $"{name}, floor to full",
                    r.Banks[i].Hours,
                    "h",
                    "9.11",
                    "{Q} × (1 − {s}) ÷ ({I} × {k})",
                    [ah, from, amps, T.Assumed("k", LithiumKeeps, "fraction", "stays")]
                );
            else
                tape.Write(
                    at + "/hours",
                    $"{name}, floor to full",
                    r.Banks[i].Hours,
                    "h",
                    "9.11",
                    null,
                    [ah, from, amps],
                    "Full current to 80 %, then what the battery still takes falls away to a fiftieth of its ampere-hours."
                );
            tape.Write(
                at + "/inputW",
                $"{name}, at the plug",
                r.Banks[i].InputW,
                "W",
                "9.11",
                "{I} × {n} × {v} ÷ {η}",
                [
                    amps,
                    T.Worked("n", bank.Bank.CellsInSeries, "cells", "in series", Of(work) + "/bank/layout/cells"),
                    T.Table("v", bank.Bank.Chemistry.CellAbsorbV, "V", "a cell, absorption", "chemistries"),
                    T.Assumed("η", efficiency, "fraction", "charger"),
                ]
            );
            hours.Add(T.Worked($"h{i + 1}", r.Banks[i].Hours, "h", name, at + "/hours"));
            watts.Add(T.Worked($"w{i + 1}", r.Banks[i].InputW, "W", name, at + "/inputW"));
        }
        string Max(List<Term> of) => of.Count == 1 ? "{" + of[0].Key + "}" : $"max({string.Join("; ", of.Select(t => $"{{{t.Key}}}"))})";
        string Sum(List<Term> of) => string.Join(" + ", of.Select(t => $"{{{t.Key}}}"));
        tape.Write(At + "/hoursTogether", "all at once", r.HoursTogether, "h", "9.11", Max(hours), hours.ToArray());
        tape.Write(At + "/hoursInTurn", "one after the other", r.HoursInTurn, "h", "9.11", Sum(hours), hours.ToArray());
        tape.Write(At + "/inputTogetherW", "at the plug, all at once", r.InputTogetherW, "W", "9.11", Sum(watts), watts.ToArray());
        tape.Write(At + "/inputInTurnW", "at the plug, the greatest", r.InputInTurnW, "W", "9.11", Max(watts), watts.ToArray());
    }
}

using InkyBadger.Core.Design;
using InkyBadger.Core.Working;

namespace InkyBadger.Core.Work;

/// <summary>How the day's energy from the bank came about.</summary>
internal static class EnergyWorking
{
    private const string NightSentence =
        "Each load’s energy by the share of its times that falls in the night; loads by hours count 14 hours of 24.";

    public static void Write(
        Tape tape,
        BankScene scene,
        List<ResolvedLoad> loads,
        LoadsResult figures,
        VoltageResult voltage,
        InverterResult? inverter,
        EnergyDay[] days,
        int sizing
    )
    {
        for (var i = 0; i < days.Length; i++)
        {
            var at = days.Length == 1 ? "/energy" : $"/energy/seasons/{i}";
            var acWh = days.Length == 1 ? figures.EnergyAcWh : figures.Seasons[i].EnergyAcWh;
            var acPointer = days.Length == 1 ? "/loads/energyAcWh" : $"/loads/seasons/{i}/energyAcWh";
            Day(tape, scene, LoadsStage.In(loads, days[i].Season), figures, voltage, inverter, days[i], at, acWh, acPointer);
        }
        if (days.Length == 2)
            Sizing(tape, loads, inverter, days, sizing);
    }

    /// <summary>The figures the bank is sized by are those of one season's day.</summary>
    private static void Sizing(Tape tape, List<ResolvedLoad> loads, InverterResult? inverter, EnergyDay[] days, int sizing)
    {
        var day = days[sizing];
        var sentence = $"The bank is sized by {Say.Season(day.Season)}.";
        void Take(string field, string label, double value, string unit, string? rule = null) =>
            tape.Write(
                $"/energy/{field}",
                $"{label}, in {Say.Season(day.Season)}",
                value,
                unit,
                "1.1",
                "{x}",
                [T.Worked("x", value, unit, Say.Season(day.Season), $"/energy/seasons/{sizing}/{field}")],
                sentence,
                rule
            );
        tape.Write(
            "/energy/energyBankWh",
            "a day’s energy from the bank",
            day.EnergyBankWh,
            "Wh",
            "1.1",
            day.EnergyBankWh >= days[1 - sizing].EnergyBankWh ? "max({w}; {s})" : null,
            [
                T.Worked("w", days[0].EnergyBankWh, "Wh", "in winter", "/energy/seasons/0/energyBankWh"),
                T.Worked("s", days[1].EnergyBankWh, "Wh", "in summer", "/energy/seasons/1/energyBankWh"),
            ],
            sentence,
            "autonomy"
        );
        Take("ahPerDay", "ampere-hours a day", day.AhPerDay, "Ah");
        Take("overnightWh", "energy from 18:00 to 08:00", day.OvernightWh, "Wh", "autonomy");
        for (var i = 0; i < loads.Count; i++)
        {
            Take($"rows/{i}/bankWh", $"{loads[i].Name}, from the bank", day.Rows[i].BankWh, "Wh");
            Take($"rows/{i}/ah", $"{loads[i].Name}, ampere-hours", day.Rows[i].Ah, "Ah");
            Take($"rows/{i}/share", $"{loads[i].Name}, share of the day", day.Rows[i].Share, "fraction");
        }
        if (inverter is null)
            return;
        Take("idleWh", "the inverter’s idle draw in a day", day.IdleWh, "Wh");
        Take("idleAh", "the inverter’s idle draw, ampere-hours", day.IdleAh, "Ah");
        Take("inverterOnH", "hours the inverter is on", day.InverterOnH, "h");
        Take("idleShare", "idle draw’s share of the day", day.IdleShare, "fraction");
    }

    private static void Day(
        Tape tape,
        BankScene scene,
        List<ResolvedLoad> loads,
        LoadsResult figures,
        VoltageResult voltage,
        InverterResult? inverter,
        EnergyDay day,
        string at,
        double acWh,
        string acPointer
    )
    {
        var terms = new List<Term>();
        var parts = new List<string>();
        if (inverter is not null)
        {
            if (acWh > 0)
            {
                terms.Add(T.Worked("Eac", acWh, "Wh", "AC loads", acPointer));
                terms.Add(EnergyStage.Efficiency(inverter));
                parts.Add("{Eac} ÷ {η}");
            }
            if (day.IdleWh > 0)
            {
                terms.Add(T.Worked("Eidle", day.IdleWh, "Wh", "inverter idling", at + "/idleWh"));
                parts.Add("{Eidle}");
            }
        }
        for (var i = 0; i < loads.Count; i++)
        {
            var wh = loads[i].Daily.EverOn ? figures.Rows[i].EnergyWh : 0;
            var kind = loads[i].Daily.Kind;
            // Without an inverter AC energy counts as it is.
            if ((kind != LoadKind.Ac || inverter is null) && wh > 0)
            {
                terms.Add(T.Worked($"E{i}", wh, "Wh", loads[i].Name, $"/loads/rows/{i}/energyWh"));
                parts.Add(kind == LoadKind.Converter ? $"{{E{i}}} ÷ {{ηc}}" : $"{{E{i}}}");
                if (kind == LoadKind.Converter && !terms.Any(t => t.Key == "ηc"))
                    terms.Add(T.Assumed("ηc", LoadsStage.AssumedConverterEfficiency, "fraction", "converter"));
            }
            Row(tape, i, loads[i], day, wh, voltage, inverter, at);
        }
        tape.Write(
            at + "/energyBankWh",
            "a day’s energy from the bank",
            day.EnergyBankWh,
            "Wh",
            "1.1",
            parts.Count == 0 ? "0" : string.Join(" + ", parts),
            terms.ToArray()
        );
        tape.Write(
            at + "/ahPerDay",
            "ampere-hours a day",
            day.AhPerDay,
            "Ah",
            "1.1",
            "{E} ÷ {V}",
            [
                T.Worked("E", day.EnergyBankWh, "Wh", "a day", at + "/energyBankWh"),
                T.Worked("V", voltage.NominalV, "V", "nominal", "/voltage/nominalV"),
            ]
        );
        tape.Write(
            at + "/overnightWh",
            "energy from 18:00 to 08:00",
            day.OvernightWh,
            "Wh",
            "4.1",
            null,
            [T.Worked("E", day.EnergyBankWh, "Wh", "a day", at + "/energyBankWh")],
            NightSentence,
            "autonomy"
        );
        if (inverter is null)
            return;
        var further = EnergyStage.FurtherIdle(scene, inverter).ToList();
        tape.Write(
            at + "/idleWh",
            "the inverter’s idle draw in a day",
            day.IdleWh,
            "Wh",
            "1.1",
            "{P} × {h}" + string.Concat(further.Select((_, n) => $" + {{p{n}}} × {{t{n}}}")),
            [
                EnergyStage.Idle(inverter),
                T.Worked("h", day.InverterOnH, "h", "left on", at + "/inverterOnH"),
                .. further.SelectMany(
                    (x, n) => new[] { T.Sheet($"p{n}", x.Watts, "W", x.Name), T.You($"t{n}", x.Hours, "h", "left on", "/inverters") }
                ),
            ]
        );
        tape.Write(
            at + "/idleAh",
            "the inverter’s idle draw, ampere-hours",
            day.IdleAh,
            "Ah",
            "1.1",
            "{E} ÷ {V}",
            [
                T.Worked("E", day.IdleWh, "Wh", "idle draw", at + "/idleWh"),
                T.Worked("V", voltage.NominalV, "V", "nominal", "/voltage/nominalV"),
            ]
        );
        var chosen = scene.Inverter?.OnH;
        tape.Write(
            at + "/inverterOnH",
            "hours the inverter is on",
            day.InverterOnH,
            "h",
            "1.1",
            "max({a}; {b})",
            [
                T.You("a", chosen ?? 0, "h", chosen is null ? "not asked for" : "left on", "/inverters/0/onH"),
                T.You("b", day.NeededOnH, "h", "its loads need", "/demand/loads"),
            ]
        );
        tape.Write(
            at + "/idleShare",
            "idle draw’s share of the day",
            day.IdleShare,
            "fraction",
            "1.1",
            "{a} ÷ {b}",
            [
                T.Worked("a", day.IdleWh, "Wh", "idle draw", at + "/idleWh"),
                T.Worked("b", day.EnergyBankWh, "Wh", "a day", at + "/energyBankWh"),
            ]
        );
    }

    private static void Row(
        Tape tape,
        int i,
        ResolvedLoad load,
        EnergyDay day,
        double wh,
        VoltageResult voltage,
        InverterResult? inverter,
        string at
    )
    {
        var label = $"{load.Name}, from the bank";
        if (!load.Daily.EverOn)
            tape.Write($"{at}/rows/{i}/bankWh", label, day.Rows[i].BankWh, "Wh", "1.1", "0", [], "It is never on in this day.");
        else
        {
            var energy = T.Worked("E", wh, "Wh", "at the load", $"/loads/rows/{i}/energyWh");
            if (load.Daily.Kind == LoadKind.Dc || inverter is null && load.Daily.Kind == LoadKind.Ac)
                tape.Write($"{at}/rows/{i}/bankWh", label, day.Rows[i].BankWh, "Wh", "1.1", "{E}", [energy]);
            else
                tape.Write(
                    $"{at}/rows/{i}/bankWh",
                    label,
                    day.Rows[i].BankWh,
                    "Wh",
                    "1.1",
                    "{E} ÷ {η}",
                    [
                        energy,
                        load.Daily.Kind == LoadKind.Ac
                            ? EnergyStage.Efficiency(inverter!)
                            : T.Assumed("η", LoadsStage.AssumedConverterEfficiency, "fraction", "converter"),
                    ]
                );
        }
        tape.Write(
            $"{at}/rows/{i}/ah",
            $"{load.Name}, ampere-hours",
            day.Rows[i].Ah,
            "Ah",
            "1.1",
            "{E} ÷ {V}",
            [
                T.Worked("E", day.Rows[i].BankWh, "Wh", load.Name, $"{at}/rows/{i}/bankWh"),
                T.Worked("V", voltage.NominalV, "V", "nominal", "/voltage/nominalV"),
            ]
        );
        tape.Write(
            $"{at}/rows/{i}/share",
            $"{load.Name}, share of the day",
            day.Rows[i].Share,
            "fraction",
            "1.1",
            "{a} ÷ {b}",
            [
                T.Worked("a", day.Rows[i].BankWh, "Wh", load.Name, $"{at}/rows/{i}/bankWh"),
                T.Worked("b", day.EnergyBankWh, "Wh", "a day", at + "/energyBankWh"),
            ]
        );
    }
}

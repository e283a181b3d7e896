using InkyBadger.Core.Working;

namespace InkyBadger.Core.Demand;

/// <summary>The second half of the demand: the day's energy as it leaves the bank, once the inverter is known.</summary>
public static class EnergyStage
{
    private const double NightFrom = 18, NightTo = 8;

    /// <summary>Hours of the night of 24; loads given by hours count this share.</summary>
    private const double NightShare = 14.0 / 24;

    public static EnergyResult Work(BankScene scene, List<ResolvedLoad> loads, LoadsResult figures, VoltageResult voltage, InverterResult? inverter)
    {
        var efficiency = inverter?.Efficiency ?? 1;
        var idleW = inverter?.IdleW ?? 0;
        var chosenOnH = scene.Inverter?.OnH;
        var onH = inverter is null ? 0 : Math.Max(chosenOnH ?? 0, figures.NeededOnH);
        var idleWh = idleW * onH;

        double total = idleWh, overnight = idleW * Math.Min(onH, 24 * NightShare);
        var bankWh = new double[loads.Count];
        for (var i = 0; i < loads.Count; i++)
        {
            bankWh[i] = figures.Rows[i].EnergyWh / Through(loads[i].Daily.Kind, efficiency);
            total += bankWh[i];
            overnight += bankWh[i] * ShareOfNight(loads[i].Daily);
        }
        var rows = new EnergyRow[loads.Count];
        for (var i = 0; i < rows.Length; i++) rows[i] = new(loads[i].Id, bankWh[i], total > 0 ? bankWh[i] / total : 0);

        var result = new EnergyResult(total, total / voltage.NominalV, onH, chosenOnH is { } wanted && Tolerant.Exceeds(figures.NeededOnH, wanted),
            idleWh, total > 0 ? idleWh / total : 0, MeanCurrent(loads, figures, efficiency, idleWh, voltage.NominalV), overnight, rows);
        if (scene.Tape is { } tape) WriteWorking(tape, loads, result, inverter, voltage, figures, chosenOnH);
        return result;
    }

    private static double Through(LoadKind kind, double efficiency) => kind switch
    {
        LoadKind.Ac => efficiency,
        LoadKind.Converter => LoadsStage.AssumedConverterEfficiency,
        _ => 1,
    };

    private static double ShareOfNight(DailyLoad load)
    {
        if (load.Windows is null) return NightShare;
        var hours = load.HoursOn;
        if (hours <= 0) return 0;
        double night = 0;
        foreach (var w in load.Windows) night += w.HoursWithin(NightFrom, 24) + w.HoursWithin(0, NightTo);
        return night / hours;
    }

    /// <summary>
    /// Energy-weighted mean current of the day, ∫I²dt ÷ ∫I dt [A]: what an ampere-hour sees on its way out. Loads by hours and the idle
    /// draw are spread evenly, duty in.
    /// </summary>
    private static double MeanCurrent(List<ResolvedLoad> loads, LoadsResult figures, double efficiency, double idleWh, double nominalV)
    {
        var steady = idleWh / 24;
        foreach (var load in loads)
            if (load.Daily.Windows is null) steady += load.Daily.RunningW * load.Daily.Duty * load.Daily.HoursOn / 24 / Through(load.Daily.Kind, efficiency);
        double charge = 0, weighted = 0;
        foreach (var segment in figures.Profile)
        {
            var watts = steady;
            foreach (var load in loads)
                if (load.Daily.Windows is not null && load.Daily.OnAt(segment.FromH)) watts += load.Daily.RunningW * load.Daily.Duty / Through(load.Daily.Kind, efficiency);
            var amps = watts / nominalV;
            charge += amps * (segment.ToH - segment.FromH);
            weighted += amps * amps * (segment.ToH - segment.FromH);
        }
        return charge > 0 ? weighted / charge : 0;
    }

    private static void WriteWorking(Tape tape, List<ResolvedLoad> loads, EnergyResult result, InverterResult? inverter, VoltageResult voltage, LoadsResult figures, double? chosenOnH)
    {
        var terms = new List<Term>();
        var parts = new List<string>();
        if (inverter is not null)
        {
            if (figures.EnergyAcWh > 0)
            {
                terms.Add(T.Worked("Eac", figures.EnergyAcWh, "Wh", "AC loads", "/loads/energyAcWh"));
                terms.Add(Efficiency(inverter));
                parts.Add("{Eac} ÷ {η}");
            }
            if (result.IdleWh > 0)
            {
                terms.Add(T.Worked("Eidle", result.IdleWh, "Wh", "inverter idling", "/energy/idleWh"));
                parts.Add("{Eidle}");
            }
        }
        for (var i = 0; i < loads.Count; i++)
        {
            var wh = figures.Rows[i].EnergyWh;
            var kind = loads[i].Daily.Kind;
            if (kind != LoadKind.Ac && wh > 0)
            {
                terms.Add(T.Worked($"E{i}", wh, "Wh", loads[i].Name, $"/loads/rows/{i}/energyWh"));
                parts.Add(kind == LoadKind.Dc ? $"{{E{i}}}" : $"{{E{i}}} ÷ {{ηc}}");
                if (kind == LoadKind.Converter && !terms.Any(t => t.Key == "ηc")) terms.Add(T.Assumed("ηc", LoadsStage.AssumedConverterEfficiency, "fraction", "converter"));
            }
            WriteRow(tape, i, loads[i], result, wh, inverter);
        }
        tape.Write("/energy/energyBankWh", "a day’s energy from the bank", result.EnergyBankWh, "Wh", "1.1", parts.Count == 0 ? "0" : string.Join(" + ", parts), terms.ToArray());
        tape.Write("/energy/ahPerDay", "ampere-hours a day", result.AhPerDay, "Ah", "1.1", "{E} ÷ {V}",
            [T.Worked("E", result.EnergyBankWh, "Wh", "a day", "/energy/energyBankWh"), T.Worked("V", voltage.NominalV, "V", "nominal", "/voltage/nominalV")]);
        tape.Write("/energy/overnightWh", "energy from 18:00 to 08:00", result.OvernightWh, "Wh", "4.1", null,
            [T.Worked("E", result.EnergyBankWh, "Wh", "a day", "/energy/energyBankWh")], "Each load’s energy by the share of its times that falls in the night; loads by hours count 14 hours of 24.", "autonomy");
        if (inverter is null) return;
        tape.Write("/energy/idleWh", "the inverter’s idle draw in a day", result.IdleWh, "Wh", "1.1", "{P} × {h}",
            [Idle(inverter), T.Worked("h", result.InverterOnH, "h", "left on", "/energy/inverterOnH")]);
        tape.Write("/energy/inverterOnH", "hours the inverter is on", result.InverterOnH, "h", "1.1", "max({a}; {b})",
        [
            T.You("a", chosenOnH ?? 0, "h", chosenOnH is null ? "not asked for" : "left on", "/inverters/0/onH"),
            T.You("b", figures.NeededOnH, "h", "its loads need", "/demand/loads"),
        ]);
        tape.Write("/energy/idleShare", "idle draw’s share of the day", result.IdleShare, "fraction", "1.1", "{a} ÷ {b}",
            [T.Worked("a", result.IdleWh, "Wh", "idle draw", "/energy/idleWh"), T.Worked("b", result.EnergyBankWh, "Wh", "a day", "/energy/energyBankWh")]);
    }

    private static void WriteRow(Tape tape, int i, ResolvedLoad load, EnergyResult result, double wh, InverterResult? inverter)
    {
        var energy = T.Worked("E", wh, "Wh", "at the load", $"/loads/rows/{i}/energyWh");
        var label = $"{load.Name}, from the bank";
        if (load.Daily.Kind == LoadKind.Dc || inverter is null && load.Daily.Kind == LoadKind.Ac)
            tape.Write($"/energy/rows/{i}/bankWh", label, result.Rows[i].BankWh, "Wh", "1.1", "{E}", [energy]);
        else
            tape.Write($"/energy/rows/{i}/bankWh", label, result.Rows[i].BankWh, "Wh", "1.1", "{E} ÷ {η}",
                [energy, load.Daily.Kind == LoadKind.Ac ? Efficiency(inverter!) : T.Assumed("η", LoadsStage.AssumedConverterEfficiency, "fraction", "converter")]);
        tape.Write($"/energy/rows/{i}/share", $"{load.Name}, share of the day", result.Rows[i].Share, "fraction", "1.1", "{a} ÷ {b}",
            [T.Worked("a", result.Rows[i].BankWh, "Wh", load.Name, $"/energy/rows/{i}/bankWh"), T.Worked("b", result.EnergyBankWh, "Wh", "a day", "/energy/energyBankWh")]);
    }

    /// <summary>The inverter's efficiency as a term: its data sheet's, or assumed.</summary>
    public static Term Efficiency(InverterResult inverter) => inverter.Assumed
        ? T.Assumed("η", inverter.Efficiency, "fraction", "efficiency, no inverter chosen")
        : T.Sheet("η", inverter.Efficiency, "fraction", "efficiency", "/inverters/0/item/efficiency");

    public static Term Idle(InverterResult inverter) => inverter.Assumed
        ? T.Assumed("P", inverter.IdleW, "W", "idle, no inverter chosen")
        : T.Sheet("P", inverter.IdleW, "W", "idle draw", "/inverters/0/item/idleW");
}

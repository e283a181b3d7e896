using InkyBadger.Core.Design;
using InkyBadger.Core.Reference;
using InkyBadger.Core.Working;

namespace InkyBadger.Core.Work;

/// <summary>What a charge controller of so many amperes passes at this voltage: most of the day, and at the end of charging [W].</summary>
public sealed record ControllerPass(double Amps, double NominalW, double ChargingW);

/// <summary>
/// What a voltage brings with it beside copper and fuse: controllers, DC loads behind a converter and what that loses, those that take the
/// bus as it is, the highest volts a hand may meet, and the price of bank, copper, fuse, converter and inverter together.
/// </summary>
public sealed record NeedsResult(
    IReadOnlyList<ControllerPass> Controllers,
    IReadOnlyList<string> Converted,
    IReadOnlyList<string> Direct,
    double ConverterW,
    double ConverterLossWh,
    double TouchV,
    bool TouchDanger,
    double UnitsPrice,
    double CopperPrice,
    double FusePrice,
    double ConverterPrice,
    double InverterPrice,
    double TotalPrice);

/// <summary>What differs from one system voltage to another.</summary>
public static class NeedsStage
{
    /// <summary>Above this DC is not to be touched [V].</summary>
    public const double TouchLimitV = 60;

    /// <summary>Lugs of the main run: two at each end of either pole, and two at the fuse, the switch, the shunt.</summary>
    public const int MainLugs = 10;

    public static Step<NeedsResult> Work(BankWork w)
    {
        var (scene, voltage) = (w.Scene, w.Voltage.Need());
        var (loads, energy, inverter, bank, run) = (w.Loads.Value, w.Energy.Value, w.Inverter.Value, w.Bank.Value, w.MainRun.Value);
        var controllers = Parts.ControllerAmps.Select(a => new ControllerPass(a, a * voltage.NominalV, a * voltage.GreatestV)).ToList();
        var converted = new List<string>();
        var direct = new List<string>();
        double converterW = 0, lossWh = 0;
        foreach (var (i, row) in (loads?.Rows ?? []).Index())
        {
            if (row.Kind == LoadKind.Ac || row.RunningW <= 0) continue;
            if (row.Kind == LoadKind.Dc)
            {
                direct.Add(row.Name);
                continue;
            }
            converted.Add(row.Name);
            converterW += row.RunningW;
            if (energy is not null) lossWh += energy.Rows[i].BankWh * (1 - LoadsStage.AssumedConverterEfficiency);
        }
        var copper = run?.AreaMm2 is { } area ? run.Conductors * (2 * run.LengthM * Parts.CablePerM(area) + MainLugs * Parts.Lug(area)) : 0;
        var fuse = run?.RatingA is null ? 0 : Parts.Fuse(run.FuseClass);
        var converter = Parts.Converter(converterW);
        var further = FurtherPrices(scene, inverter).ToList();
        var inverterPrice = (inverter?.Item?.Price ?? 0) * (inverter?.Stack ?? 1) + further.Sum(x => x.Price);
        var units = bank?.Price ?? 0;
        var result = new NeedsResult(controllers, converted, direct, converterW, lossWh, voltage.GreatestV, Tolerant.Exceeds(voltage.GreatestV, TouchLimitV),
            units, copper, fuse, converter, inverterPrice, units + copper + fuse + converter + inverterPrice);
        if (scene.Tape is { } tape) WriteWorking(tape, scene, result, voltage, loads, energy, inverter, further, bank, run);
        return result;
    }

    /// <summary>Inverters beside the first, each with its price for as many as are stacked.</summary>
    internal static IEnumerable<(string Name, double Price)> FurtherPrices(BankScene scene, InverterResult? first)
    {
        foreach (var choice in scene.FurtherInverters)
            if ((choice.Item ?? first?.Item) is { } item) yield return (item.Name, item.Price * (choice.Item is null ? 1 : Math.Max(1, choice.Stack)));
    }

    private static void WriteWorking(Tape tape, BankScene scene, NeedsResult r, VoltageResult voltage, LoadsResult? loads, EnergyResult? energy, InverterResult? inverter, List<(string Name, double Price)> further, BankResult? bank, RunResult? run)
    {
        var nominal = T.Worked("V", voltage.NominalV, "V", "nominal", "/voltage/nominalV");
        foreach (var (n, c) in r.Controllers.Index())
        {
            var amps = T.Assumed("I", c.Amps, "A", "controller’s rating");
            tape.Write($"/needs/controllers/{n}/nominalW", $"what a {Say.Rating(c.Amps)} charge controller passes most of the day", c.NominalW, "W", "9.1", "{I} × {V}", [amps, nominal]);
            tape.Write($"/needs/controllers/{n}/chargingW", $"what a {Say.Rating(c.Amps)} charge controller passes at most", c.ChargingW, "W", "9.1", "{I} × {V}",
                [amps, T.Worked("V", voltage.GreatestV, "V", "highest in charging", "/voltage/greatestV")]);
        }
        var rows = (loads?.Rows ?? []).Index().Where(x => x.Item.Kind == LoadKind.Converter && x.Item.RunningW > 0).ToList();
        tape.Write("/needs/converterW", "watts behind a converter", r.ConverterW, "W", "3.2", rows.Count == 0 ? "0" : string.Join(" + ", rows.Select(x => $"{{P{x.Index}}}")),
            [.. rows.Select(x => T.Worked($"P{x.Index}", x.Item.RunningW, "W", x.Item.Name, $"/loads/rows/{x.Index}/runningW"))]);
        if (energy is not null)
            tape.Write("/needs/converterLossWh", "what converters keep in a day", r.ConverterLossWh, "Wh", "3.2",
                rows.Count == 0 ? "0" : "(" + string.Join(" + ", rows.Select(x => $"{{E{x.Index}}}")) + ") × (1 − {η})",
                rows.Count == 0 ? [] : [.. rows.Select(x => T.Worked($"E{x.Index}", energy.Rows[x.Index].BankWh, "Wh", x.Item.Name, $"/energy/rows/{x.Index}/bankWh")), T.Assumed("η", LoadsStage.AssumedConverterEfficiency, "fraction", "converter")]);
        tape.Write("/needs/touchV", "highest volts a hand may meet", r.TouchV, "V", "3.2", "{v}", [T.Worked("v", voltage.GreatestV, "V", "highest in charging", "/voltage/greatestV")],
            $"Over {TouchLimitV} V DC is not to be touched.");
        tape.Write("/needs/unitsPrice", "price of the units", r.UnitsPrice, "money", "8.3", bank is null ? "0" : "{p}", bank is null ? [] : [T.Worked("p", bank.Price, "money", "units", "/bank/price")]);
        if (run?.AreaMm2 is { } area)
            tape.Write("/needs/copperPrice", "price of the main run’s copper", r.CopperPrice, "money", "8.3", "{m} × (2 × {L} × {c} + {k} × {l})",
            [
                T.You("m", run.Conductors, "", "in parallel", "/runs"), run.LengthPinned ? T.You("L", run.LengthM, "m", "post to inverter", "/runs") : T.Assumed("L", run.LengthM, "m", "not measured yet"),
                T.Table("c", Parts.CablePerM(area), "money", $"a metre of {run.Size}", "parts"), T.Assumed("k", MainLugs, "", "lugs"), T.Table("l", Parts.Lug(area), "money", "a lug", "parts"),
            ]);
        if (run?.RatingA is not null)
            tape.Write("/needs/fusePrice", "price of the main fuse with its holder", r.FusePrice, "money", "8.3", "{f}", [T.Table("f", r.FusePrice, "money", run.FuseLabel, "fuse-prices")]);
        tape.Write("/needs/converterPrice", "price of the converter", r.ConverterPrice, "money", "8.3", "{c}", [T.Table("c", r.ConverterPrice, "money", $"for {Say.W(r.ConverterW)}", "parts")]);
        tape.Write("/needs/inverterPrice", "price of the inverter", r.InverterPrice, "money", "8.3", inverter?.Item is null ? "0" : "{m} × {p}" + string.Concat(further.Select((_, n) => $" + {{q{n}}}")),
            inverter?.Item is { } item ? [T.You("m", inverter.Stack, "", "stacked", "/inverters/0/stack"), T.Sheet("p", item.Price, "money", item.Name), .. further.Select((x, n) => T.Sheet($"q{n}", x.Price, "money", x.Name))] : []);
        List<Term> parts = [T.Worked("u", r.UnitsPrice, "money", "units", "/needs/unitsPrice")];
        if (run?.AreaMm2 is not null) parts.Add(T.Worked("c", r.CopperPrice, "money", "copper", "/needs/copperPrice"));
        if (run?.RatingA is not null) parts.Add(T.Worked("f", r.FusePrice, "money", "fuse", "/needs/fusePrice"));
        parts.Add(T.Worked("k", r.ConverterPrice, "money", "converter", "/needs/converterPrice"));
        parts.Add(T.Worked("i", r.InverterPrice, "money", "inverter", "/needs/inverterPrice"));
        tape.Write("/needs/totalPrice", $"bank, copper, fuse, converter and inverter, prices of {scene.Design.Prices.Date ?? Catalogue.PriceDate}", r.TotalPrice, "money", "8.3", string.Join(" + ", parts.Select(p => $"{{{p.Key}}}")), parts.ToArray());
    }
}

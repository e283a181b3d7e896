using InkyBadger.Core.Demand;
using InkyBadger.Core.Design;

namespace InkyBadger.Core.Findings;

/// <summary>Inverter against voltage, loads and battery.</summary>
internal static class InverterFindings
{
    private const double MuchAtTwelveVolts = 2000;

    public static FindingRule[] Rules { get; } = [WrongClass, NoneFits, Overload, Surge, Headroom, LowVoltage, ModifiedWave];

    private static Mend[] Advised(FindingScene s, InverterResult inverter) => inverter.Pinned && inverter.AdvisedKey is not null && inverter.AdvisedKey != inverter.Item?.Key
        ? [s.MendBank($"Use {inverter.AdvisedName}", "holds every load and start", "/inverters/0/item", (InverterItem?)null)]
        : [];

    private static Finding? WrongClass(FindingScene s)
    {
        if (s.Results.Inverter is not { Item: { } item } inverter || s.Results.Voltage is not { } v || item.SystemV == v.SystemV) return null;
        return s.Make("inverter.class", Grade.Danger, Station.Inverter, "/inverters/0/item", $"A {item.SystemV} V inverter on a {v.SystemV} V bus",
            item.SystemV < v.SystemV ? "The bus is above what it bears: it fails, and may burn." : "The bus never reaches the voltage it starts at.",
            [new("inverter", item.SystemV, "V"), new("bus", v.SystemV, "V")],
            [.. Advised(s, inverter), s.MendBank($"Make it a {item.SystemV} V system", "bank, cable and fuse follow", "/systemV", (int?)item.SystemV)]);
    }

    private static Finding? NoneFits(FindingScene s)
    {
        if (s.Results.Inverter is not { Item: null } inverter || s.Results.Loads is not { PeakAcW: > 0 }) return null;
        return s.Make("inverter.none", Grade.Fault, Station.Inverter, "/inverters/0/item", $"No {s.Results.Voltage!.SystemV} V inverter of the catalogue fits",
            $"The loads ask for {Say.W(inverter.RequiredContinuousW)} without end and {Say.W(inverter.RequiredSurgeW)} at a start. Move loads apart, or take a higher voltage.",
            [new("wanted", inverter.RequiredContinuousW, "W"), new("surge", inverter.RequiredSurgeW, "W")],
            s.Results.Voltage.SystemV < 48 ? [s.MendBank("Try 48 V", "larger inverters are made for it", "/systemV", (int?)48)] : []);
    }

    /// <summary>What runs, against the data sheet's times.</summary>
    private static Finding? Overload(FindingScene s)
    {
        if (s.Results.Inverter is not { Item: not null } inverter) return null;
        var worst = inverter.Demands.Where(d => !d.Holds && !d.IsStart).OrderByDescending(d => d.Watts - d.GivesW).FirstOrDefault();
        if (worst is null) return null;
        return s.Make("inverter.running", Grade.Fault, Station.Inverter, "/inverters/0/item", $"{Say.W(worst.Watts)} at once is too much",
            $"For {Say.Seconds(worst.Seconds)} the inverter gives {Say.W(worst.GivesW)}: {Say.W(worst.Watts - worst.GivesW)} short. {Together(s.Results.Loads!.Peak)}",
            [new("asked", worst.Watts, "W"), new("given", worst.GivesW, "W"), new("for", worst.Seconds, "s")], Apart(s, inverter));
    }

    /// <summary>The load whose other hour leaves the lowest worst instant; foremost where that is enough, else after the inverter that would be.</summary>
    private static Mend[] Apart(FindingScene s, InverterResult inverter)
    {
        var advised = Advised(s, inverter);
        if (Moves.Best(s.Scene.Design, s.Scene.Index, s.Results) is not var (load, move)) return advised;
        var change = Moves.Change(s.Scene.Index, load, move);
        var then = Evaluator.EvaluateFiguresOf(s.Scene.Design, s.Scene.Index, [change]);
        if (then.Loads is not { } loads) return advised;
        var holds = then.Inverter?.Demands.All(d => d.Holds) == true;
        Mend apart = new($"{s.Scene.Bank.Demand.Loads[load].Name} at {Moves.Times(move)}", $"{Say.W(loads.PeakAcW)} running, {Say.W(loads.SurgeDemandW)} at worst{(holds ? ", and it holds" : ", not enough alone")}", [change]);
        return holds ? [apart, .. advised] : [.. advised, apart];
    }

    private static Finding? Surge(FindingScene s)
    {
        if (s.Results.Inverter is not { Item: not null } inverter) return null;
        var worst = inverter.Demands.Where(d => !d.Holds && d.IsStart).OrderByDescending(d => d.Watts / d.GivesW).FirstOrDefault();
        if (worst is null) return null;
        return s.Make("inverter.surge", Grade.Fault, Station.Inverter, "/inverters/0/item", $"{Capital(worst.Label)} trips it",
            $"{Say.W(worst.Watts)} for {Say.Seconds(worst.Seconds)}; for so long the inverter gives {Say.W(worst.GivesW)}: {Say.W(worst.Watts - worst.GivesW)} short. {Together(s.Results.Loads!.Worst)}",
            [new("asked", worst.Watts, "W"), new("given", worst.GivesW, "W"), new("for", worst.Seconds, "s")], Apart(s, inverter));
    }

    private static string Together(WorstInstant instant) => instant.Loads.Count < 2 ? "" : $"On together at {Say.Clock(instant.FromH)}: {string.Join(", ", instant.Loads.Take(5))}.";

    private static string Capital(string text) => char.ToUpperInvariant(text[0]) + text[1..];

    private static Finding? Headroom(FindingScene s)
    {
        if (s.Results.Inverter is not { Item: not null, AvailableContinuousW: { } available } inverter || s.Results.Loads is not { PeakAcW: > 0 } loads) return null;
        if (Tolerant.AtLeast(available, inverter.RequiredContinuousW) || inverter.Demands.Any(d => !d.Holds && !d.IsStart)) return null;
        return s.Make("inverter.headroom", Grade.Caution, Station.Inverter, "/inverters/0/item", "Little headroom over what runs",
            $"{Say.W(loads.PeakAcW)} run at once; with the house rule’s headroom that asks for {Say.W(inverter.RequiredContinuousW)}, and it gives {Say.W(available)}.",
            [new("wanted", inverter.RequiredContinuousW, "W"), new("given", available, "W")], Advised(s, inverter));
    }

    private static Finding? LowVoltage(FindingScene s)
    {
        if (s.Results.Voltage is not { SystemV: 12 } || s.Results.Inverter is not { Item: { } item } inverter || s.Results.Currents is not { } c) return null;
        if (item.ContinuousW * inverter.Stack <= MuchAtTwelveVolts) return null;
        return s.Make("inverter.twelve-volts", Grade.Caution, Station.Voltage, "/systemV", $"{Say.W(item.ContinuousW * inverter.Stack)} at 12 V is {Say.A(c.InverterWorstA)}",
            "Copper, fuses and joints for such a current are dear and unforgiving; at a higher voltage the same watts flow on half or a quarter of it.",
            [new("current", c.InverterWorstA, "A")],
            new Mend("Try 24 V", $"{Say.A(c.InverterWorstA / 2)} in the main cable", [s.Scene.Change("/systemV", (int?)24), s.Scene.Change("/inverters/0/item", (InverterItem?)null)]));
    }

    private static Finding? ModifiedWave(FindingScene s)
    {
        if (s.Results.Inverter is not { Item.Waveform: Waveform.Modified } inverter) return null;
        var sensitive = s.Scene.Bank.Demand.Loads.Where(l => l.WaveSensitive && l.Kind == Demand.LoadKind.Ac && l.Quantity > 0).ToList();
        if (sensitive.Count == 0) return null;
        return s.Make("inverter.wave", Grade.Caution, Station.Inverter, "/inverters/0/item", "A modified wave harms some loads",
            $"{string.Join(", ", sensitive.Take(4).Select(l => l.Name))} run hot, hum or fail on it.", [new("sensitive loads", sensitive.Count, "")], Advised(s, inverter));
    }
}

using InkyBadger.Core.Demand;
using InkyBadger.Core.Design;

namespace InkyBadger.Core.Findings;

/// <summary>Inverter against voltage, loads and battery.</summary>
internal static class InverterFindings
{
    private const double MuchAtTwelveVolts = 2000;

    /// <summary>Typical of a mains charger.</summary>
    private const double ChargerEfficiency = 0.85;

    public static FindingRule[] Rules { get; } = [WrongClass, Loop, NoneFits, Overload, Surge, Headroom, Apparent, CutOff, OverLimit, LowVoltage, ModifiedWave, SelectorByRule];

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

    /// <summary>Each turn loses what inverter and charger keep, until the bank is flat.</summary>
    private static Finding? Loop(FindingScene s)
    {
        if (s.Scene.Inverter is not { Charger: ChargerFeed.OwnOutput } || s.Results.Inverter is not { } inverter) return null;
        var comes = inverter.Efficiency * ChargerEfficiency;
        return s.Make("inverter.loop", Grade.Danger, Station.Inverter, "/inverters/0/charger", "The charger hangs on its own inverter",
            $"Of each watt-hour that leaves the bank {Say.Percent(comes)} come back: it empties itself, and nothing stops it. A transfer must take the charger off the inverter’s outlets.",
            [new("comes back", comes, "fraction")], s.MendBank("Feed the charger from the shore", "the loop is open", "/inverters/0/charger", (ChargerFeed?)ChargerFeed.Shore));
    }

    private static Finding? SelectorByRule(FindingScene s)
    {
        if (s.Scene.Inverter is not { Feeds: "panel" } || s.Scene.Rules.Word("ac-feed") != "pass-through" || s.Results.Inverter is not { Item: { } item }) return null;
        return s.Make("inverter.feed", Grade.Note, Station.Inverter, "/inverters/0/feeds", "The house rule feeds AC by a transfer",
            "A selector waits for somebody to turn it; a transfer takes over unattended.", [new("inverter", item.ContinuousW, "W")],
            s.MendBank("Pass-through with transfer", "takes over by itself", "/inverters/0/feeds", "transfer"));
    }

    /// <summary>Volt-amperes against a rating: without a rating in VA of its own the watts stand for it.</summary>
    private static Finding? Apparent(FindingScene s)
    {
        if (s.Results.Loads is not { } loads || s.Results.Inverter is not { Item: not null, AvailableContinuousW: { } gives } inverter) return null;
        if (!Tolerant.Exceeds(loads.PeakVa, gives) || Tolerant.Exceeds(loads.PeakAcW, gives)) return null;
        return s.Make("inverter.va", Grade.Caution, Station.Inverter, "/inverters/0/item", $"{Say.Number(loads.PeakVa)} VA on {Say.W(gives)}",
            $"The watts fit, {Say.W(loads.PeakAcW)}; the current does not: a low power factor draws more of it. Ask its maker for the rating in VA.",
            [new("apparent", loads.PeakVa, "VA"), new("running", loads.PeakAcW, "W"), new("given", gives, "W")], Advised(s, inverter));
    }

    /// <summary>The start pulls the volts at its terminals below what it works at.</summary>
    private static Finding? CutOff(FindingScene s)
    {
        if (s.Results.Envelope is not { SurgeEndV: { } end, CutOffV: { } cutOff } || s.Results.MainRun is not { } run || s.Results.Loads is not { } loads || Tolerant.AtLeast(end, cutOff)) return null;
        List<Mend> mends = [];
        if (run.SizePinned && run.Advised is { } advised && advised.Size != run.Size)
            mends.Add(s.MendRun($"Use {Say.Size(advised.Size, advised.Conductors)}", "as advised", r => r with { Size = null, Parallel = null }));
        if (s.Results.Voltage is { SystemV: < 48 } v)
        {
            var next = v.SystemV < 24 ? 24 : 48;
            mends.Add(new($"Try {next} V", "the same watts on less current", [s.Scene.Change("/systemV", (int?)next), s.Scene.Change("/inverters/0/item", (InverterItem?)null)]));
        }
        return s.Make("inverter.cut-off", Grade.Fault, Station.Inverter, "/runs", $"It cuts off at the start: {Say.V(Math.Round(end, 2))} at its terminals",
            $"The bank nearly empty, {loads.Worst.Starting ?? "the worst instant"} pulls them below the {Say.V(cutOff)} at which it stops, though the batteries are well.",
            [new("at its terminals", end, "V"), new("cuts off at", cutOff, "V")], [.. mends]);
    }

    /// <summary>A voltage that was chosen against the house rule's limit.</summary>
    private static Finding? OverLimit(FindingScene s)
    {
        if (s.Results.Voltage is not { } v || s.Results.Currents is not { } c || s.Results.Inverter is null || !Tolerant.Exceeds(c.InverterWorstA, v.CurrentLimitA) || v.School != "by-current") return null;
        Mend[] mends = v.AdvisedV != v.SystemV
            ? [new($"As advised, {v.AdvisedV} V", $"{Say.A(c.InverterWorstA * v.SystemV / v.AdvisedV)} in the main cable", [s.Scene.Change("/systemV", (int?)null), s.Scene.Change("/series", (int?)null), s.Scene.Change("/parallel", (int?)null), s.Scene.Change("/inverters/0/item", (InverterItem?)null)])]
            : [];
        return s.Make("voltage.limit", Grade.Caution, Station.Voltage, "/systemV", $"{Say.A(c.InverterWorstA)} at {v.SystemV} V, over the house rule’s {Say.Rating(v.CurrentLimitA)}",
            v.AdvisedV == v.SystemV ? "No voltage up to 48 V keeps it: fewer watts, or more inverters on banks of their own." : "A higher voltage carries the same watts on less current.",
            [new("worst current", c.InverterWorstA, "A"), new("house rule", v.CurrentLimitA, "A")], mends);
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
        return s.Apart.Value is not var (apart, holds) ? advised : holds ? [apart, .. advised] : [.. advised, apart];
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

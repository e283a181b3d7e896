using InkyBadger.Core.Design;
using InkyBadger.Core.Reference;
using InkyBadger.Core.Voltage;
using InkyBadger.Core.Work;

namespace InkyBadger.Core.Findings;

/// <summary>Inverter against voltage, loads and battery.</summary>
internal static class InverterFindings
{
    private const double MuchAtTwelveVolts = 2000;

    /// <summary>Typical of a mains charger.</summary>
    private const double ChargerEfficiency = 0.85;

    public static FindingRule[] Rules { get; } =
    [WrongClass, Loop, NoneFits, Overload, Surge, Headroom, Apparent, CutOff, OverLimit, LowVoltage, ModifiedWave, SelectorByRule];

    private static MendOffer[] Advised(FindingScene s, InverterResult inverter) =>
        inverter is { Pinned: true, AdvisedKey: not null }
        && (inverter.AdvisedKey != inverter.Item?.Key || inverter.AdvisedStack != inverter.Stack)
            ? [FindingScene.Offer($"Use {inverter.AdvisedName}", Gives, s.Bank.WithInverter(0, x => x with { Item = null }))]
            : [];

    private static string Gives(BankWork then) =>
        then.Inverter.Value is { Gives.ContinuousW: { } watts, Gives.SurgeW: { } surge } i
            ? $"{Say.W(watts)} continuous, {Say.W(surge)} at a start{(i.FirstToGive is null ? "" : ", not enough alone")}"
            : "none of the catalogue fits";

    /// <summary>The bank at another voltage, with all that belonged to the old one free.</summary>
    private static MendOffer At(FindingScene s, int volts, string label, string? group = null) =>
        FindingScene.Offer(label, FindingScene.MainRunOf, SystemVoltage.Set(s.Bank, s.Results.Voltage!.SystemV, volts), group);

    private static Finding? WrongClass(FindingScene s)
    {
        if (s.Results.Inverter is not { Item: { } item } inverter || s.Results.Voltage is not { } v || item.SystemV == v.SystemV)
            return null;
        return s.Make(
            "inverter.class",
            Grade.Danger,
            Station.Inverter,
            "/inverters/0/item",
            $"A {item.SystemV} V inverter on a {v.SystemV} V bus",
            item.SystemV < v.SystemV
                ? "The bus is above what it bears: it fails, and may burn."
                : "The bus never reaches the voltage it starts at.",
            [new("inverter", item.SystemV, "V"), new("bus", v.SystemV, "V")],
            [.. Advised(s, inverter), At(s, item.SystemV, $"Make it a {item.SystemV} V system")]
        );
    }

    /// <summary>Each turn loses what inverter and charger keep, until the bank is flat.</summary>
    private static Finding? Loop(FindingScene s)
    {
        var at = s.Bank.Inverters.Index().FirstOrDefault(x => x.Item.Charger == ChargerFeed.OwnOutput);
        if (at.Item is null || s.Results.Inverter is not { } inverter)
            return null;
        var comes = inverter.Efficiency * ChargerEfficiency;
        return s.Make(
            "inverter.loop",
            Grade.Danger,
            Station.Inverter,
            $"/inverters/{at.Index}/charger",
            "The charger hangs on its own inverter",
            $"Of each watt-hour that leaves the bank {Say.Percent(comes)} come back: it empties itself, and nothing stops it. A "
                + $"transfer must take the charger off the inverter’s outlets.",
            [new("comes back", comes, "fraction")],
            FindingScene.Offer(
                "Feed the charger from the shore",
                "the loop is open",
                s.Bank.WithInverter(at.Index, x => x with { Charger = ChargerFeed.Shore })
            )
        );
    }

    private static Finding? SelectorByRule(FindingScene s)
    {
        if (
            s.Scene.Inverter is not { Feeds: "panel" }
            || s.Scene.Rules.Word("ac-feed") != "pass-through"
            || s.Results.Inverter is not { Item: { } item }
        )
            return null;
        return s.Make(
            "inverter.feed",
            Grade.Note,
            Station.Inverter,
            "/inverters/0/feeds",
            "The house rule feeds AC by a transfer",
            "A selector waits for somebody to turn it; a transfer takes over unattended.",
            [new("inverter", item.ContinuousW, "W")],
            FindingScene.Offer(
                "Pass-through with transfer",
                "takes over by itself",
                s.Bank.WithInverter(0, x => x with { Feeds = "transfer" })
            )
        );
    }

    /// <summary>Volt-amperes against a rating: without a rating in VA of its own the watts stand for it.</summary>
    private static Finding? Apparent(FindingScene s)
    {
        if (s.Results.Loads is not { } loads || s.Results.Inverter is not { Item: not null, Gives.ContinuousW: { } gives } inverter)
            return null;
        if (!Tolerant.Exceeds(loads.PeakVa, gives) || Tolerant.Exceeds(loads.PeakAcW, gives))
            return null;
        return s.Make(
            "inverter.va",
            Grade.Caution,
            Station.Inverter,
            "/inverters/0/item",
            $"{Say.Number(loads.PeakVa)} VA on {Say.W(gives)}",
            $"The watts fit, {Say.W(loads.PeakAcW)}; the current does not: a low power factor draws more of it. Ask its maker "
                + $"for the rating in VA.",
            [new("apparent", loads.PeakVa, "VA"), new("running", loads.PeakAcW, "W"), new("given", gives, "W")],
            Advised(s, inverter)
        );
    }

    /// <summary>The start pulls the volts at its terminals below what it works at.</summary>
    private static Finding? CutOff(FindingScene s)
    {
        if (
            s.Results.Envelope is not { SurgeEndV: { } end, CutOffV: { } cutOff }
            || s.Results.MainRun is not { } run
            || s.Results.Loads is not { } loads
            || Tolerant.AtLeast(end, cutOff)
        )
            return null;
        IEnumerable<MendOffer> Ways()
        {
            if (run.Cable.Pinned && run.Cable.Advised is { } advised && advised.Size != run.Cable.Size)
                yield return s.OfRun(Run.MainId, $"Use {Say.Size(advised.Size, advised.Conductors)}", "as advised", r =>
                    r with
                    {
                        Size = null,
                        Parallel = null,
                    }
                );
            if (Thicker(s.Scene.Tables, run) is { } more)
                yield return FindingScene.Offer(
                    $"Use {Say.Size(more.Size, more.Conductors)}",
                    EndOf,
                    s.Bank.WithRun(Run.MainId, r => r with { Size = more.Size, Parallel = more.Conductors, ConductorLengthsM = [] })
                );
            foreach (var higher in s.HigherVoltages())
                yield return higher with
                {
                    Promise = EndOf,
                };
        }

        return s.Make(
            "inverter.cut-off",
            Grade.Fault,
            Station.Inverter,
            "/runs",
            $"It cuts off at the start: {Say.V(end)} at its terminals",
            $"The bank nearly empty, {loads.Worst.Starting ?? "the worst instant"} pulls them below the {Say.V(cutOff)} at which "
                + $"it stops, though the batteries are well.",
            [new("at its terminals", end, "V"), new("cuts off at", cutOff, "V")],
            Ways
        );
    }

    private static string EndOf(BankWork then) =>
        then.Envelope.Value is { SurgeEndV: { } end } envelope
            ? $"{Say.V(end)} at its terminals{(envelope.CutOffV is { } cutOff ? $", it cuts off at {Say.V(cutOff)}" : "")}"
            : "the same watts on less current";

    /// <summary>The next more copper, one size up or one conductor more.</summary>
    private static (string Size, int Conductors)? Thicker(DesignTables tables, RunResult run)
    {
        if (run.Cable.Size is not { } size || !tables.Practice(run.Laid.Practice).Has(size))
            return null;
        var rows = tables.Practice(run.Laid.Practice).Rows;
        var at = rows.Index().First(r => r.Item.Size == size).Index;
        return at + 1 < rows.Count ? (rows[at + 1].Size, run.Cable.Conductors)
            : run.Cable.Conductors < 3 ? (size, run.Cable.Conductors + 1)
            : null;
    }

    /// <summary>A voltage that was chosen against the house rule's limit.</summary>
    private static Finding? OverLimit(FindingScene s)
    {
        if (
            s.Results.Voltage is not { } v
            || s.Results.Currents is not { IsOffer: false } c
            || !Tolerant.Exceeds(c.BankWorstA, v.Advice.LimitA)
            || v.Advice.School != "by-current"
        )
            return null;
        IEnumerable<MendOffer> Ways()
        {
            if (v.AdvisedV == v.SystemV)
                yield break;
            var then = SystemVoltage.Set(s.Bank, v.SystemV, v.AdvisedV);
            // Left to the advice where it still says so once the old inverter is gone; else pinned.
            yield return FindingScene.Offer($"As advised, {v.AdvisedV} V", FindingScene.MainRunOf, then with { SystemV = null }, "advised");
            yield return FindingScene.Offer($"As advised, {v.AdvisedV} V", FindingScene.MainRunOf, then, "advised");
        }

        return s.Make(
            "voltage.limit",
            Grade.Caution,
            Station.Voltage,
            "/systemV",
            $"{Say.A(c.BankWorstA)} at {v.SystemV} V, over the house rule’s {Say.Rating(v.Advice.LimitA)}",
            v.AdvisedV == v.SystemV
                ? "No voltage up to 48 V keeps it: fewer watts, or more inverters on banks of their own."
                : "A higher voltage carries the same watts on less current.",
            [new("worst current", c.BankWorstA, "A"), new("house rule", v.Advice.LimitA, "A")],
            Ways
        );
    }

    private static Finding? NoneFits(FindingScene s)
    {
        if (s.Results.Inverter is not { Item: null } inverter || s.Results.Loads is not { PeakAcW: > 0 })
            return null;
        return s.Make(
            "inverter.none",
            Grade.Fault,
            Station.Inverter,
            "/inverters/0/item",
            $"No {s.Results.Voltage!.SystemV} V inverter of the catalogue fits",
            $"The loads ask for {Say.W(inverter.Wanted.ContinuousW)} continuous and {Say.W(inverter.Wanted.SurgeW)} at a "
                + $"start. Move loads apart, or take a higher voltage.",
            [new("wanted", inverter.Wanted.ContinuousW, "W"), new("surge", inverter.Wanted.SurgeW, "W")],
            () => s.HigherVoltages().Select(higher => higher with { Promise = Gives })
        );
    }

    /// <summary>What runs, against the data sheet's times.</summary>
    private static Finding? Overload(FindingScene s)
    {
        if (s.Results.Inverter is not { Item: not null } inverter)
            return null;
        var worst = inverter.Demands.Where(d => !d.Holds && !d.IsStart).OrderByDescending(d => d.Watts - d.GivesW).FirstOrDefault();
        if (worst is null)
            return null;
        return s.Make(
            "inverter.running",
            Grade.Fault,
            Station.Inverter,
            "/inverters/0/item",
            $"{Say.W(worst.Watts)} at once is too much",
            $"For {Say.Seconds(worst.Seconds)} the inverter gives {Say.W(worst.GivesW)}: {Say.W(worst.Watts - worst.GivesW)} "
                + $"short. {Together(s.Results.Loads!.Peak)}",
            [new("asked", worst.Watts, "W"), new("given", worst.GivesW, "W"), new("for", worst.Seconds, "s")],
            () => Apart(s, inverter)
        );
    }

    /// <summary>
    /// The load whose other hour leaves the lowest worst instant, and the inverter that holds; whichever of them is enough.
    /// </summary>
    private static IEnumerable<MendOffer> Apart(FindingScene s, InverterResult inverter)
    {
        if (Moves.Best(s.Work.Site.Design, s.Scene.Index, s.Results) is var (index, move))
        {
            var load = s.Bank.Demand.Loads[index];
            yield return FindingScene.Offer(
                $"{load.Name} at {Moves.Times(move)}",
                Watts,
                s.Bank.WithLoad(index, load with { Windows = Moves.Windows(move) })
            );
        }
        foreach (var advised in Advised(s, inverter))
            yield return advised;
    }

    private static string Watts(BankWork then) =>
        then.Loads.Value is { } loads
            ? $"{Say.W(loads.PeakAcW)} running, {Say.W(loads.SurgeDemandW)} at "
                + $"worst{(then.Inverter.Value?.FirstToGive is null ? ", and it holds" : "")}"
            : "";

    private static Finding? Surge(FindingScene s)
    {
        if (s.Results.Inverter is not { Item: not null } inverter)
            return null;
        var worst = inverter.Demands.Where(d => !d.Holds && d.IsStart).OrderByDescending(d => d.Watts / d.GivesW).FirstOrDefault();
        if (worst is null)
            return null;
        return s.Make(
            "inverter.surge",
            Grade.Fault,
            Station.Inverter,
            "/inverters/0/item",
            $"{Capital(worst.Label)} trips it",
            $"{Say.W(worst.Watts)} for {Say.Seconds(worst.Seconds)}; for so long the inverter gives {Say.W(worst.GivesW)}: "
                + $"{Say.W(worst.Watts - worst.GivesW)} short. {Together(s.Results.Loads!.Worst)}",
            [new("asked", worst.Watts, "W"), new("given", worst.GivesW, "W"), new("for", worst.Seconds, "s")],
            () => Apart(s, inverter)
        );
    }

    private static string Together(WorstInstant instant) =>
        instant.Loads.Count < 2 ? "" : $"On together at {Say.Clock(instant.FromH)}: {string.Join(", ", instant.Loads.Take(5))}.";

    private static string Capital(string text) => char.ToUpperInvariant(text[0]) + text[1..];

    private static Finding? Headroom(FindingScene s)
    {
        if (
            s.Results.Inverter is not { Item: not null, Gives.ContinuousW: { } available } inverter
            || s.Results.Loads is not { PeakAcW: > 0 } loads
        )
            return null;
        if (Tolerant.AtLeast(available, inverter.Wanted.ContinuousW) || inverter.Demands.Any(d => !d.Holds && !d.IsStart))
            return null;
        // Advised so: the next size would be far above what is wanted.
        if (inverter.Thin)
            return s.Make(
                "inverter.headroom",
                Grade.Note,
                Station.Inverter,
                "/inverters/0/item",
                $"{Say.Percent(available / loads.PeakAcW - 1, 0)} to spare over what runs",
                $"The house rule asks for {Say.W(inverter.Wanted.ContinuousW)}, and the next size is far above that: this one gives "
                    + $"{Say.W(available)} and holds every demand with a tenth to spare.",
                [new("wanted", inverter.Wanted.ContinuousW, "W"), new("given", available, "W")]
            );
        return s.Make(
            "inverter.headroom",
            Grade.Caution,
            Station.Inverter,
            "/inverters/0/item",
            "Little headroom over what runs",
            $"{Say.W(loads.PeakAcW)} run at once; with the house rule’s headroom that asks for "
                + $"{Say.W(inverter.Wanted.ContinuousW)}, and it gives {Say.W(available)}.",
            [new("wanted", inverter.Wanted.ContinuousW, "W"), new("given", available, "W")],
            Advised(s, inverter)
        );
    }

    private static Finding? LowVoltage(FindingScene s)
    {
        if (
            s.Results.Voltage is not { SystemV: 12 }
            || s.Results.Inverter is not { Item: { } item } inverter
            || s.Results.Currents is not { } c
        )
            return null;
        if (item.ContinuousW * inverter.Stack <= MuchAtTwelveVolts)
            return null;
        return s.Make(
            "inverter.twelve-volts",
            Grade.Caution,
            Station.Voltage,
            "/systemV",
            $"{Say.W(item.ContinuousW * inverter.Stack)} at 12 V is {Say.A(c.InverterWorstA)}",
            "Copper, fuses and joints for such a current are dear and unforgiving; at a higher voltage the same watts flow on "
                + "half or a quarter of it.",
            [new("current", c.InverterWorstA, "A")],
            s.HigherVoltages
        );
    }

    private static Finding? ModifiedWave(FindingScene s)
    {
        if (s.Results.Inverter is not { Item.Waveform: Waveform.Modified } inverter)
            return null;
        var sensitive = s.Scene.Bank.Demand.Loads.Where(l => l.WaveSensitive && l.Kind == LoadKind.Ac && l.Quantity > 0).ToList();
        if (sensitive.Count == 0)
            return null;
        return s.Make(
            "inverter.wave",
            Grade.Caution,
            Station.Inverter,
            "/inverters/0/item",
            "A modified wave harms some loads",
            $"{string.Join(", ", sensitive.Take(4).Select(l => l.Name))} run hot, hum or fail on it.",
            [new("sensitive loads", sensitive.Count, "")],
            Advised(s, inverter)
        );
    }
}

using InkyBadger.Core.Demand;
using InkyBadger.Core.Design;
using InkyBadger.Core.Reference;

namespace InkyBadger.Core.Work;

/// <summary>A place of the document that is not acceptable, and what would be.</summary>
public sealed record DesignFault(string Pointer, string Reason);

/// <summary>The document's rules across fields, which its JSON Schema cannot say.</summary>
public static class DesignCheck
{
    public const int MostUnits = 128;

    /// <summary>
    /// Times of day of all loads and sources of all banks together: more than any list a person keeps, and little enough to be worked out
    /// at once.
    /// </summary>
    public const int MostWindows = 3000;

    /// <summary>Empty when the document is acceptable.</summary>
    public static IReadOnlyList<DesignFault> Faults(DesignDocument design)
    {
        var faults = new List<DesignFault>();
        Unique(design.Banks.Select(b => b.Id), "/banks", faults);
        foreach (var (id, value) in design.HouseRules.Own)
        {
            if (!HouseRuleTable.Has(id))
                faults.Add(new($"/houseRules/own/{id}", "is not a house rule"));
            else if (!HouseRuleTable.Get(id).Accepts(value))
                faults.Add(new($"/houseRules/own/{id}", Accepted(HouseRuleTable.Get(id))));
        }
        if (
            design.Banks.Sum(b =>
                b.Demand.Loads.Sum(l => l.Windows?.Count ?? 0)
                + b.Sources.Sum(x => x.Windows?.Count ?? 0)
                + b.Inverters.Sum(x => x.ChargerWindows?.Count ?? 0)
            )
            is > MostWindows
                and var windows
        )
            faults.Add(new("/banks", $"has {windows} times of day in all, and {MostWindows} are the most"));
        // What follows looks at each.
        if (faults.Count > 0)
            return faults;
        OwnTablesCheck.Faults(design.Tables, faults);
        PriceSetCheck.Faults(design.Prices, faults);
        AcSideCheck.Faults(design, faults);
        // Banks are held against the tables the design brings along, as soon as these are in order.
        if (faults.Count > 0)
            return faults;
        var tables = DesignTables.Of(design);
        for (var i = 0; i < design.Banks.Count; i++)
            Check(design.Banks[i], tables, $"/banks/{i}", faults);
        Unique(design.Joins.Select(j => j.Id).Where(id => id.Length > 0), "/joins", faults);
        foreach (var (i, join) in design.Joins.Index())
        foreach (var end in new[] { join.From, join.To })
            if (!design.Banks.Any(b => b.Id == end))
                faults.Add(new($"/joins/{i}", $"there is no bank “{end}”"));
        Check(design.Rehearsal, faults);
        Check(design.Ledger, faults);
        Check(design.BringUp, faults);
        return faults;
    }

    private static void Check(BringUpRecord record, List<DesignFault> faults)
    {
        foreach (var (i, entry) in record.Entries.Index())
        {
            var at = $"/bringUp/entries/{i}";
            if (CalendarText.Moment(entry.At) is null)
                faults.Add(new($"{at}/at", "is not a moment as YYYY-MM-DDTHH:MM"));
            if (entry.What == BringUpWhat.Read && entry.Value is null && entry.Capacity is null)
                faults.Add(new($"{at}/value", "is not given: what did the meter say?"));
            if (entry.What == BringUpWhat.Passed && (entry.Words?.Trim().Length ?? 0) < BringUpRecord.LeastReason)
                faults.Add(new($"{at}/words", $"is not a reason of {BringUpRecord.LeastReason} letters: why was the gate passed?"));
            if (entry.What == BringUpWhat.Signed && string.IsNullOrWhiteSpace(entry.Words))
                faults.Add(new($"{at}/words", "is not a name"));
            if (entry.Capacity is { } c && new[] { c.AcWh, c.DcWh, c.Ah }.Count(v => v is not null) != 1)
                faults.Add(new($"{at}/capacity", "is not told by one of acWh, dcWh and ah"));
        }
    }

    private static void Check(IReadOnlyList<LedgerEntry> ledger, List<DesignFault> faults)
    {
        Unique(ledger.Select(e => e.Key), "/ledger", faults);
        foreach (var (i, entry) in ledger.Index())
        foreach (var (k, mark) in entry.Marks.Index())
        {
            var at = $"/ledger/{i}/marks/{k}";
            if (entry.Marks.Take(k).Any(m => m.Stop == mark.Stop))
                faults.Add(new($"{at}/stop", "is not the only one of its stop"));
            if (mark.Date is { } date && CalendarText.Day(date) is null)
                faults.Add(new($"{at}/date", $"is not a day as YYYY-MM-DD from {CalendarText.FirstYear} to {CalendarText.LastYear}"));
            if (mark.Stop == LedgerStop.Proven && string.IsNullOrWhiteSpace(mark.Reason))
                faults.Add(new($"{at}/reason", "is not given: what shows that it is proven?"));
        }
    }

    private static void Check(RehearsalChoice rehearsal, List<DesignFault> faults)
    {
        if (rehearsal.From is { } from && CalendarText.Day(from) is null)
            faults.Add(new("/rehearsal/from", $"is not a day as YYYY-MM-DD from {CalendarText.FirstYear} to {CalendarText.LastYear}"));
        foreach (var (i, drop) in rehearsal.Drops.Index())
        {
            if (CalendarText.Moment(drop.From) is null)
                faults.Add(new($"/rehearsal/drops/{i}/from", "is not a moment as YYYY-MM-DDTHH:MM"));
            if (CalendarText.Moment(drop.To) is null)
                faults.Add(new($"/rehearsal/drops/{i}/to", "is not a moment as YYYY-MM-DDTHH:MM"));
        }
    }

    private static string Accepted(HouseRule rule) =>
        rule.Words.Count == 0 ? $"must be a number above 0 and up to {rule.Greatest}"
        : rule.Type == "word" ? $"must be one of {string.Join(", ", rule.Words)}"
        : $"must be a number above 0, or {string.Join(", ", rule.Words)}";

    private static void Check(Bank bank, DesignTables tables, string at, List<DesignFault> faults)
    {
        Unique(bank.Demand.Loads.Select(l => l.Id), at + "/demand/loads", faults);
        Unique(bank.Runs.Select(r => r.Id), at + "/runs", faults);
        Unique(bank.Inverters.Select(x => x.Id), at + "/inverters", faults);
        Unique(bank.Sources.Select(x => x.Id), at + "/sources", faults);
        Unique(bank.Compartments.Select(c => c.Id), at + "/compartments", faults);
        for (var i = 0; i < bank.Demand.Loads.Count; i++)
            Check(bank.Demand.Loads[i], $"{at}/demand/loads/{i}", faults);
        foreach (var (i, source) in bank.Sources.Index())
            Check(source, $"{at}/sources/{i}", faults);
        if (bank.Demand.States is { States.Count: > 0 } states)
            Shares(states.States, at + "/demand/states/states", faults);
        if ((bank.Series ?? 1) * (bank.Parallel ?? 1) > MostUnits)
            faults.Add(new(at + "/parallel", $"series times strings is {MostUnits} at most"));
        if (bank.Chemistry is { } chemistry && bank.Unit is { } unit && unit.Chemistry != chemistry)
            faults.Add(new(at + "/unit/chemistry", $"the bank is {chemistry}"));
        foreach (var (i, choice) in bank.Inverters.Index())
        {
            Times(choice.ChargerWindows, $"{at}/inverters/{i}", faults, "/chargerWindows");
            if (choice.Item is not { } item)
                continue;
            var points = item.Overload;
            for (var p = 1; p < points.Count; p++)
                if (points[p].Seconds <= points[p - 1].Seconds || points[p].Watts > points[p - 1].Watts)
                    faults.Add(new($"{at}/inverters/{i}/item/overload/{p}", "seconds must rise and watts fall"));
            if (item.Derate is { } derate)
                for (var p = 1; p < derate.Count; p++)
                    if (derate[p].AmbientC <= derate[p - 1].AmbientC)
                        faults.Add(new($"{at}/inverters/{i}/item/derate/{p}", "temperatures must rise"));
        }
        if (bank.Wiring.Style is WiringStyle.Rails && bank.Wiring.Takeoffs is null)
            faults.Add(new(at + "/wiring/takeoffs", "own take-offs need both strings named"));
        foreach (var (i, run) in bank.Runs.Index())
        {
            if (run.Practice is { } practice && !tables.HasPractice(practice))
                faults.Add(new($"{at}/runs/{i}/practice", "is not a practice of the ampacity table"));
            if (run.Size is { } size && !tables.HasConductor(size))
                faults.Add(new($"{at}/runs/{i}/size", "is not a size of the conductor table"));
            if (run.Fuse.Class is { } fuse && !tables.HasFuse(fuse))
                faults.Add(new($"{at}/runs/{i}/fuse/class", "is not a class of the fuse table"));
        }
    }

    private static void Check(Load load, string at, List<DesignFault> faults)
    {
        var hasStates = load.States is { Count: > 0 };
        if (load.Watts is null && load.Amps is null && !hasStates)
            faults.Add(new(at + "/watts", "give watts, or amperes with volts"));
        if (load.Watts is not null && load.Amps is not null)
            faults.Add(new(at + "/amps", "give watts or amperes, not both"));
        if (hasStates && (load.Watts ?? load.Amps) is not null)
            faults.Add(new(at + "/states", "give watts, amperes or states, one of them"));
        if ((load.Amps is not null || hasStates) && load.Volts is null && load.Kind != LoadKind.Dc)
            faults.Add(new(at + "/volts", "amperes need their volts"));
        if (load.Windows is null == load.Hours is null)
            faults.Add(new(at + "/hours", "give times of day or hours a day, one of them"));
        Times(load.Windows, at, faults);
        if (load.States is { Count: > 0 } states)
            Shares(states, at + "/states", faults);
        if (load.Window is { } window && window.MaxV < window.MinV)
            faults.Add(new(at + "/window/maxV", "must not be below the least volts"));
    }

    private static void Check(Source source, string at, List<DesignFault> faults)
    {
        Times(source.Windows, at, faults);
        if (source.Array?.Module is { VmpV: { } work, VocV: { } open } && work >= open)
            faults.Add(new(at + "/array/module/vmpV", "is not below the open-circuit voltage"));
        if (source.Supply is { Amps: not null, Watts: not null })
            faults.Add(new(at + "/supply/watts", "give amperes or a generator’s watts, not both"));
        if (source.Presets.Select(p => p.Name).Distinct().Count() < source.Presets.Count)
            faults.Add(new(at + "/presets", "each name once"));
    }

    private static void Times(IReadOnlyList<double[]>? windows, string at, List<DesignFault> faults, string field = "/windows")
    {
        if (windows is null)
            return;
        try
        {
            DailyDemand.CheckWindows([.. windows.Select(w => new DayWindow(w[0], w[1]))]);
        }
        catch (Refusal refusal)
        {
            faults.Add(new(at + field, refusal.Message));
        }
    }

    private static void Shares(IReadOnlyList<StateShare> states, string at, List<DesignFault> faults)
    {
        if (Math.Abs(states.Sum(s => s.Share) - 1) > 1e-6)
            faults.Add(new(at, "the shares of the states must add to 1"));
    }

    private static void Unique(IEnumerable<string> ids, string at, List<DesignFault> faults)
    {
        var seen = new HashSet<string>();
        foreach (var id in ids)
            if (!seen.Add(id))
                faults.Add(new(at, $"the id “{id}” is there twice"));
    }
}

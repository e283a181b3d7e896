using InkyBadger.Core.Charging;
using InkyBadger.Core.Design;
using InkyBadger.Core.Reference;

namespace InkyBadger.Core.Work;

/// <summary>Another chemistry in place of an old one: everything in this design that must follow.</summary>
/// <param name="From">Id of the old chemistry.</param>
/// <param name="Items">In the order of the hands.</param>
public sealed record Changeover(string From, string FromLabel, string ToLabel, IReadOnlyList<ChangeItem> Items);

/// <summary>An item of the list.</summary>
/// <param name="Key">What the document keeps it by.</param>
/// <param name="What">The part, and what it must become, with this design's figures.</param>
/// <param name="Done">Done, by the document or by what stands.</param>
public sealed record ChangeItem(string Key, string Part, string What, bool Done, string? Date);

/// <summary>Finds in a design what a changed chemistry touches.</summary>
internal static class ChangeoverWork
{
    public static Changeover? Of(ChargingScene scene, IReadOnlyList<SourceResult> results)
    {
        if (scene.Work.Document.Changed is not { } changed || changed.From == scene.Chemistry.Id)
            return null;
        var (from, to) = (Chemistries.Get(changed.From), scene.Chemistry);
        var done = changed.Done.DistinctBy(d => d.Item).ToDictionary(d => d.Item, d => d.Date);
        var items = Found(scene, results, from, to)
            .Select(i => new ChangeItem(i.Key, i.Part, i.What, done.ContainsKey(i.Key), done.GetValueOrDefault(i.Key)))
            .ToList();
        return new(changed.From, from.Label, to.Label, items);
    }

    private static IEnumerable<(string Key, string Part, string What)> Found(
        ChargingScene scene,
        IReadOnlyList<SourceResult> results,
        Chemistry from,
        Chemistry to
    )
    {
        var (wants, document) = (scene.Wants, scene.Work.Document);
        foreach (var (i, source) in scene.Sources.Index())
        {
            var name = results[i].Name;
            yield return (
                $"charger-{source.Id}",
                name,
                $"absorption {Say.V(wants.AbsorbV)}, float {Say.V(wants.FloatV)}, at most {Say.Number(wants.AbsorbMinutesMost)} min"
            );
            if (to.IsLithium != from.IsLithium)
                yield return (
                    $"probe-{source.Id}",
                    $"{name}, temperature probe",
                    to.IsLithium
                        ? "compensation off (0 mV a kelvin); a probe may stay to stop it in the cold"
                        : $"fit one to the bank: {Say.Number(wants.TempCompMvPerK)} mV a kelvin"
                );
            if (from.CellEqualiseV is not null || to.CellEqualiseV is not null)
                yield return (
                    $"equalise-{source.Id}",
                    $"{name}, equalising",
                    to.CellEqualiseV is null ? "off, and locked if it can be" : $"by hand only, {Say.V(wants.EqualiseV!.Value)}"
                );
            foreach (var item in OfEngine(scene, source, results[i], name, to))
                yield return item;
            if (to.IsLithium)
                yield return (
                    $"cold-{source.Id}",
                    $"{name}, low-temperature stop",
                    $"no charge below {Say.Number(wants.ChargeStopBelowC)} °C: by its own probe, or by the BMS"
                );
            if (source is { Kind: SourceKind.Generator, Start.BelowV: { } start })
                yield return (
                    $"trigger-{source.Id}",
                    $"{name}, start",
                    to.Id == "lfp"
                        ? $"{Say.V(start)} tells nothing of its charge now: start by the monitor’s percent"
                        : $"{Say.V(start)} stands for another charge now: {Say.Percent(SocAt(scene, start), 0)}"
                );
        }
        foreach (var (i, choice) in document.Inverters.Index())
            if ((choice.Item ?? (i == 0 ? scene.Work.Inverter.Value?.Item : null)) is { } item)
                yield return (
                    $"inverter-{choice.Id}",
                    item.Name,
                    $"stops {Say.V(wants.InverterCutOffV)}, alarm {Say.V(wants.InverterAlarmV)}, restarts {Say.V(wants.InverterRestartV)}"
                );
        yield return (
            "monitor",
            "monitor",
            $"{Say.Number(wants.MonitorCapacityAh)} Ah, charged at {Say.V(wants.MonitorChargedV)}, tail "
                + $"{Say.Percent(wants.MonitorTailFraction)}, exponent {Say.Number(wants.MonitorPeukert, 2)}, efficiency "
                + Say.Percent(wants.MonitorChargeEfficiency, 0)
        );
        foreach (var (i, join) in scene.Work.Scene.Design.Joins.Index())
            if (!join.Converts && (join.From == document.Id || join.To == document.Id))
                yield return (
                    join.RunId(i),
                    "isolator or parallel switch to the other bank",
                    to.IsLithium
                        ? "a DC–DC charger in its place: straight through, the bank that rests higher pours into the other"
                        : "may join again, at equal rest volts only"
                );
        if (to.IsLithium != from.IsLithium && scene.Sources.Any(s => s.Kind is SourceKind.Alternator or SourceKind.DcDc))
            yield return (
                "start-battery",
                "start battery",
                to.IsLithium
                    ? "stays lead, and stays apart: it keeps the alternator when the BMS opens"
                    : "may share the alternator again, by an isolator"
            );
        var gases = to.Id == "flooded";
        if (gases || from.Id == "flooded")
            yield return (
                "ventilation",
                "ventilation",
                gases
                    ? "to outside, high and low: it gives hydrogen while it is charged"
                    : "is not asked for by the cells any more; the local code may"
            );
        if (scene.Work.Protection.Value is { } p)
            yield return (
                "fuse",
                "main fuse",
                $"the bank pushes {Say.A(p.Short.Amps)} into a short, it breaks {Say.A(p.InterruptA)}"
                    + (Tolerant.Exceeds(p.Short.Amps, p.InterruptA) ? ": another class" : "")
            );
    }

    private static IEnumerable<(string Key, string Part, string What)> OfEngine(
        ChargingScene scene,
        Source source,
        SourceResult result,
        string name,
        Chemistry to
    )
    {
        if (source.Kind is not (SourceKind.Alternator or SourceKind.DcDc))
            yield break;
        var straight = source.Kind == SourceKind.Alternator;
        yield return (
            $"engine-{source.Id}",
            $"{name}, alternator",
            !to.IsLithium ? "lead takes less and less as it fills: straight on is usual again"
            : straight ? "a DC–DC charger between: a lithium bank takes all it can get, and when its BMS opens the alternator is alone"
            : result.Engine is { } e ? $"{Say.A(e.InputA)} through the charger, {Say.Percent(e.AlternatorShare, 0)} of what it gives hot"
            : $"what {Say.A(result.GivesA ?? 0)} ask of the alternator hot is not known: give its amperes"
        );
    }

    private static double SocAt(ChargingScene scene, double volts) =>
        RestVoltage.SocAt(scene.Chemistry.Id, volts / scene.Bank.Bank.CellsInSeries);
}

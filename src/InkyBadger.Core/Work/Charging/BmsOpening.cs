using InkyBadger.Core.Charging;
using InkyBadger.Core.Design;

namespace InkyBadger.Core.Work;

/// <summary>What happens when every BMS opens while the bank is charged (method, 10.4 and 9.8).</summary>
/// <param name="Amps">What flowed into the bank and has nowhere to go at once [A].</param>
/// <param name="Dark">Names of what goes dark, in the order of the loads; the inverters first.</param>
/// <param name="DarkW">What of it may run at once [W].</param>
/// <param name="Words">What it means, source by source.</param>
/// <param name="Remedies">What keeps it from happening, in words.</param>
public sealed record BmsOpening(
    double Amps,
    IReadOnlyList<string> Dark,
    double DarkW,
    IReadOnlyList<string> Words,
    IReadOnlyList<string> Remedies
);

/// <summary>Follows what hangs on a bank that has left the bus.</summary>
internal static class BmsOpeningWork
{
    /// <summary>Null: nothing in this bank opens, or nothing charges it.</summary>
    public static BmsOpening? Of(ChargingScene scene, IReadOnlyList<SourceResult> results)
    {
        var amps = results.Sum(r => r.GivesA ?? 0);
        if (amps <= 0 || !scene.Work.Pack.Need().Strings.Any(s => s.CanDropOut))
            return null;
        var dark = new List<string>();
        foreach (var (i, choice) in scene.Work.Document.Inverters.Index())
            if ((choice.Item ?? (i == 0 ? scene.Work.Inverter.Value?.Item : null)) is { } item)
                dark.Add(item.Name);
        // All hangs on the bus, and the bus on the bank: a charger alone holds no bus.
        var loads = (scene.Work.Resolved.Value ?? []).Where(l => l.Daily.RunningW > 0).ToList();
        dark.AddRange(loads.Select(l => l.Name));
        var words = new List<string>();
        foreach (var (i, source) in scene.Sources.Index())
            if (results[i] is { GivesA: > 0 and var gives } result)
                words.Add(Word(source, result, gives));
        return new(amps, dark, scene.Work.Loads.Value is { } l ? l.PeakAcW + l.PeakDcW : 0, words, Remedies(scene));
    }

    private static string Word(Source source, SourceResult result, double amps) =>
        source.Kind switch
        {
            SourceKind.Alternator => $"{result.Name}: {Say.A(amps)}, {Say.W(amps * result.FillV)} lose their battery in a moment; the "
                + "alternator’s volts leap far over what diodes and devices bear",
            SourceKind.DcDc => $"{result.Name}: {Say.A(amps)} end; the alternator keeps its own battery",
            SourceKind.Solar => $"{result.Name}: {Say.A(amps)} end; its output may leap for a moment, and some do not start again without "
                + "a battery",
            SourceKind.Other => $"{result.Name}: {Say.A(amps)} end; what turns runs free: it wants a load of its own to dump into",
            _ => $"{result.Name}: {Say.A(amps)} end; it may hold the bus up to {Say.W(amps * result.FillV)}, if it works without a battery",
        };

    private static List<string> Remedies(ChargingScene scene)
    {
        var remedies = new List<string>();
        if (scene.Sources.Any(s => s.Kind == SourceKind.Alternator))
            remedies.Add("a DC–DC charger between alternator and bank");
        remedies.Add("charge volts that end well below where the BMS opens");
        remedies.Add("a BMS that first stops the chargers by a wire, and opens last");
        if (scene.Work.Document.Parallel is not > 1)
            remedies.Add("two strings with a BMS each: one may open, the other stays");
        return remedies;
    }
}

using InkyBadger.Core.Demand;
using InkyBadger.Core.Design;

namespace InkyBadger.Core.Practice;

/// <summary>What can be wrong with a load beside its run.</summary>
internal static class LoadKinds
{
    private static readonly PartKind[] OnLoad = [PartKind.Load];

    public static PracticeKind[] All { get; } =
    [
        new("load-window", "The volts it gets are not what it is made for", OnLoad, ["load.window"])
        {
            Ways = OtherVolts,
            Fine = (s, p) =>
                s.E.Banks[p.Bank].Devices.Index().FirstOrDefault(d => s.Design.Banks[p.Bank].Demand.Loads[d.Item.Load].Id == p.Id)
                    is { Item: { } d } at
                    ? new(
                        $"It takes {Say.V(d.MinV)} to {Say.V(d.MaxV)}, and gets {Say.V(d.LeastV)} to {Say.V(d.GreatestV)}.",
                        BankKinds.Of(p, $"/devices/{at.Index}/greatestV")
                    )
                    : null,
        },
        new("load-tap", "It is taken from part of a string", OnLoad, ["bank.tap"])
        {
            Ways = (s, b) => s.Design.Banks[b].Series > 1 ? Each(s, b, l => [l with { Tap = 1, Window = null }]) : [],
            Fine = (s, p) => new("It hangs on the whole bank.", null),
        },
        new("load-start", "Its start opens a BMS", OnLoad, ["bank.dc-start"])
        {
            Brings = ["fuse.start"],
            Ways = (s, b) =>
                s.Design.Banks[b].Unit!.Bms?.PeakA is { } peak
                    ? Each(s, b, l =>
                        ((double[])[2, 1.4, 1.1]).Select(times =>
                            l with
                            {
                                SurgeWatts =
                                    Math.Ceiling(times * peak * s.Design.Banks[b].Parallel!.Value * s.E.Banks[b].Voltage!.NominalV / 100)
                                    * 100,
                                StartSeconds = 0.3,
                            }
                        )
                    )
                    : [],
            Fine = (s, p) =>
                s.Design.Banks[p.Bank].Demand.Loads.First(l => l.Id == p.Id) is { } load
                    ? new(
                        load.SurgeWatts > 0
                            ? $"{Say.W(load.SurgeWatts)} at its start, and the strings give that."
                            : "It has no start to speak of.",
                        null
                    )
                    : null,
        },
    ];

    /// <summary>Made for half the volts, for twice as many, or for just fewer than charging brings.</summary>
    private static IEnumerable<Planting> OtherVolts(FoundScene s, int b)
    {
        var volts = s.E.Banks[b].Voltage!.NominalV;
        (double Min, double Max)[] windows = [(9, 0.6 * volts), (1.2 * volts, 2 * volts), (9, 1.05 * volts)];
        return Each(s, b, l => windows.Select(w =>
                l with
                {
                    Window = new() { MinV = Math.Round(w.Min), MaxV = Math.Round(w.Max, 1) },
                }
            ));
    }

    private static IEnumerable<Planting> Each(FoundScene s, int b, Func<Load, IEnumerable<Load>> change) =>
        s
            .Design.Banks[b]
            .Demand.Loads.Index()
            .Where(l => l.Item.Kind == LoadKind.Dc)
            .SelectMany(l =>
                change(l.Item)
                    .Select(x => new Planting(s.With(b, bank => bank.WithLoad(l.Index, x)), FoundScene.Key(b, $"load-{l.Item.Id}")))
            );
}

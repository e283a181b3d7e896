using InkyBadger.Core.Design;
using InkyBadger.Core.Reference;

namespace InkyBadger.Core.Practice;

/// <summary>What can be wrong with an inverter.</summary>
internal static class InverterKinds
{
    private static readonly PartKind[] OnInverter = [PartKind.Inverter];
    private static readonly PartKind[] OnBoth = [PartKind.Inverter, PartKind.AcLoad];

    public static PracticeKind[] All { get; } =
    [
        new("inverter-class", "It is made for other volts than the bus", OnInverter, ["inverter.class", "bank.real-volts"])
        {
            Ways = (s, b) =>
                Has(s, b)
                    ? ((int[])[12, 24, 48])
                        .Where(v => v != s.Design.Banks[b].SystemV)
                        .Select(v => Item(s, b, i => i with { SystemV = v, CutOffV = null, Name = Named(i, v) }))
                    : [],
            Fine = (s, p) =>
                s.E.Banks[p.Bank].Inverter?.Item is { } i
                    ? new($"Made for {i.SystemV} V, on a {s.E.Banks[p.Bank].Voltage!.SystemV} V bus.", BankKinds.Of(p, "/voltage/nominalV"))
                    : null,
        },
        new("inverter-running", "It gives too little for what runs at once", OnInverter, ["inverter.running", "inverter.headroom"])
        {
            Ways = (s, b) => Sized(s, b, peak => peak, surge: false),
            Fine = (s, p) =>
                s.E.Banks[p.Bank] is { Inverter.Gives.ContinuousW: { } gives, Loads: { } loads }
                    ? new($"{Say.W(loads.PeakAcW)} run at once, and it gives {Say.W(gives)}.", BankKinds.Of(p, "/loads/peakAcW"))
                    : null,
        },
        new("inverter-surge", "A start trips the inverter", OnBoth, ["inverter.surge"])
        {
            Ways = (s, b) => Sized(s, b, peak => peak, surge: true).Select(w => At(s, b, w, l => l.SurgeWatts > 0)),
            Fine = (s, p) =>
                p.Kind == PartKind.AcLoad
                    ? s.E.Banks[p.Bank].Inverter?.Gives.SurgeW is { } most && LoadOf(s, p).SurgeWatts is var start
                        ? new(
                            start > 0
                                ? $"{Say.W(start)} at its start, and the inverter gives {Say.W(most)}."
                                : "It has no start to speak of.",
                            null
                        )
                        : null
                    : s.E.Banks[p.Bank] is { Inverter.Gives.SurgeW: { } gives, Loads: { SurgeDemandW: > 0 and var asks } }
                        ? new($"{Say.W(asks)} at the worst start, and it gives {Say.W(gives)}.", BankKinds.Of(p, "/loads/surgeDemandW"))
                        : null,
        },
        new("inverter-wave", "The inverter’s wave harms what hangs on it", OnBoth, ["inverter.wave"])
        {
            Ways = (s, b) =>
                Has(s, b)
                    ?
                    [
                        At(
                            s,
                            b,
                            Item(s, b, i =>
                                i with
                                {
                                    Waveform = Waveform.Modified,
                                    Name = i.Name.Replace("sine", "modified", StringComparison.Ordinal),
                                }
                            ),
                            l => l.WaveSensitive
                        ),
                    ]
                    : [],
            Fine = (s, p) =>
                s.E.Banks[p.Bank].Inverter?.Item is not { } i ? null
                : i.Waveform == Waveform.Sine ? new("The inverter’s wave is a sine.", null)
                : new(p.Kind == PartKind.AcLoad ? "It bears a modified wave." : "Nothing on it suffers under a modified wave.", null),
        },
        new("inverter-loop", "Its own outlets feed its charger", OnInverter, ["inverter.loop"])
        {
            Ways = (s, b) =>
                Has(s, b)
                    ?
                    [
                        new(
                            s.With(b, x => x.WithInverter(0, i => i with { Charger = ChargerFeed.OwnOutput })),
                            FoundScene.Key(b, "inverter")
                        ),
                    ]
                    : [],
            Fine = (s, p) => new("No charger hangs on its outlets.", null),
        },
        new("inverter-idle", "It idles away a good part of the day", OnInverter, ["inverter.idle"])
        {
            Ways = (s, b) =>
                Has(s, b)
                    ? ((double[])[24, 18, 12]).Select(h => new Planting(
                        s.With(b, x => x.WithInverter(0, i => i with { OnH = h })),
                        FoundScene.Key(b, "inverter")
                    ))
                    : [],
            Fine = (s, p) =>
                s.E.Banks[p.Bank] is { Energy: { } e, Inverter: not null }
                    ? new($"Idling takes {Say.Percent(e.IdleShare)} of the day.", BankKinds.Of(p, "/energy/idleWh"))
                    : null,
        },
        new("inverter-cut-off", "It cuts off at a start, though the bank is well", OnInverter, ["inverter.cut-off"])
        {
            Ways = (s, b) =>
                Has(s, b) && s.E.Banks[b].Envelope is { SurgeEndV: { } end }
                    ? ((double[])[1, 0.6, 0.2]).Select(v => Item(s, b, i => i with { CutOffV = Math.Round(end + v, 1) }))
                    : [],
            Fine = (s, p) =>
                s.E.Banks[p.Bank].Envelope is { SurgeEndV: { } end, CutOffV: { } off }
                    ? new(
                        $"{Say.V(end)} are left at the worst start, and it cuts off at {Say.V(off)}.",
                        BankKinds.Of(p, "/envelope/surgeEndV")
                    )
                    : null,
        },
        new(
            "inverter-too-large-current",
            "So many watts are too much current at these volts",
            OnInverter,
            ["inverter.twelve-volts", "voltage.limit"]
        )
        {
            Ways = (s, b) =>
                Has(s, b) && s.Design.Banks[b].SystemV == 12
                    ? ((double[])[2500, 1800, 1500, 1300]).Select(w =>
                        Rewired(
                            b,
                            Item(s, b, i =>
                                i with
                                {
                                    ContinuousW = w,
                                    SurgeW = 2 * w,
                                    Overload = [],
                                    Name = Named(i with { ContinuousW = w }, 12),
                                }
                            )
                        )
                    )
                    : [],
            Fine = (s, p) =>
                s.E.Banks[p.Bank] is { Currents: { } c, Voltage: { } v }
                    ? new(
                        $"{Say.A(c.BankWorstA)} at {v.SystemV} V; the house rule bears {Say.Rating(v.Advice.LimitA)}.",
                        BankKinds.Of(p, "/currents/bankWorstA")
                    )
                    : null,
        },
    ];

    private static bool Has(FoundScene s, int b) => s.Design.Banks[b].Inverters is [{ Item: not null }, ..];

    private static string Named(InverterItem i, int volts) =>
        $"{Say.W(i.ContinuousW)} {(i.Waveform == Waveform.Sine ? "sine" : "modified")} {volts} V";

    private static Planting Item(FoundScene s, int b, Func<InverterItem, InverterItem> change) =>
        new(
            s.With(b, x => x.WithInverter(0, i => i with { Item = change(i.Item!) with { Key = "found-inverter" } })),
            FoundScene.Key(b, "inverter")
        );

    private static Load LoadOf(FoundScene s, FoundPart p) => s.Design.Banks[p.Bank].Demand.Loads.First(l => l.Id == p.Id);

    /// <summary>Pointed out at the loads it is about, too.</summary>
    private static Planting At(FoundScene s, int b, Planting way, Func<Load, bool> which) =>
        way with
        {
            Parts =
            [
                .. way.Parts,
                .. s
                    .Design.Banks[b]
                    .Demand.Loads.Where(l => l.Kind == LoadKind.Ac && which(l))
                    .Select(l => FoundScene.Key(b, $"load-{l.Id}")),
            ],
        };

    /// <summary>With the strings, the copper and the fuses that so much current asks for: what is wrong is the current alone.</summary>
    private static Planting Rewired(int b, Planting way) => way with { Design = GoodBanks.Again(way.Design, b, strings: true) };

    /// <summary>Smaller than what the loads ask, by what runs or by what starts.</summary>
    private static IEnumerable<Planting> Sized(FoundScene s, int b, Func<double, double> of, bool surge)
    {
        if (!Has(s, b) || s.E.Banks[b].Loads is not { } loads)
            yield break;
        foreach (var share in (double[])[0.6, 0.8, 0.95])
        {
            var watts = Math.Round(of(surge ? loads.SurgeDemandW : loads.PeakAcW) * share / 50) * 50;
            yield return surge
                ? Item(s, b, i => i with { SurgeW = watts, Overload = [] })
                : Item(s, b, i => i with { ContinuousW = watts, Overload = [], Name = Named(i with { ContinuousW = watts }, i.SystemV) });
        }
    }
}

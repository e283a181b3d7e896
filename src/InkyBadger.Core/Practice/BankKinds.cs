using InkyBadger.Core.Design;
using InkyBadger.Core.Reference;

namespace InkyBadger.Core.Practice;

/// <summary>What can be wrong with the bank as a whole, and with where it stands.</summary>
internal static class BankKinds
{
    private static readonly PartKind[] OnBank = [PartKind.Bank];

    public static PracticeKind[] All { get; } =
    [
        new("other-volts", "Its units in series make other volts than the bus", OnBank, ["bank.voltage", "bank.real-volts"])
        {
            Brings = ["bank.too-small", "bank.max-series"],
            Ways = (s, b) =>
                ((int[])[s.Design.Banks[b].Series!.Value * 2, s.Design.Banks[b].Series!.Value + 1, s.Design.Banks[b].Series!.Value - 1])
                    .Where(n => n is >= 1 and <= 8)
                    .Select(n => new Planting(s.With(b, x => x with { Series = n }), FoundScene.Key(b, "bank"))),
            Fine = (s, p) =>
                s.E.Banks[p.Bank] is { Bank: { } bank, Voltage: { } v }
                    ? new($"{Say.V(bank.Holds.NominalV)} of a {v.SystemV} V system.", Of(p, "/bank/holds/nominalV"))
                    : null,
        },
        new("more-than-allowed", "More in series, or side by side, than its maker allows", OnBank, ["bank.max-series", "bank.max-parallel"])
        {
            Ways = (s, b) =>
                [
                    .. s.Design.Banks[b].Parallel > 1
                        ?
                        [
                            new Planting(
                                s.With(b, x => x with { Unit = x.Unit! with { MaxParallel = x.Parallel - 1 } }),
                                FoundScene.Key(b, "bank")
                            ),
                        ]
                        : Array.Empty<Planting>(),
                    .. s.Design.Banks[b].Series > 1
                        ?
                        [
                            new Planting(
                                s.With(b, x => x with { Unit = x.Unit! with { MaxSeries = x.Series - 1 } }),
                                FoundScene.Key(b, "bank")
                            ),
                        ]
                        : Array.Empty<Planting>(),
                ],
            Fine = (s, p) =>
                s.Design.Banks[p.Bank] is { Unit: { MaxSeries: { } series, MaxParallel: { } parallel } } bank
                    ? new($"{bank.Series}S{bank.Parallel}P; the unit allows {series} in series and {parallel} side by side.", null)
                    : null,
        },
        new("too-many-strings", "More strings side by side than share well", OnBank, ["bank.strings", "bank.max-parallel"])
        {
            Ways = (s, b) =>
                ((int[])[6, 5]).Select(n => new Planting(
                    s.With(b, x => x with { Parallel = n, Unit = x.Unit! with { MaxParallel = 8 } }),
                    FoundScene.Key(b, "bank")
                )),
            Fine = (s, p) =>
                new(
                    $"{Say.Strings(s.Design.Banks[p.Bank].Parallel!.Value)}; the house rule stops at "
                        + $"{Say.Number(s.Rules.Number("most-strings"))}.",
                    null
                ),
        },
        new("bms-opens", "Its BMS opens at full load", OnBank, ["bank.over-bms", "bank.surge", "bank.cascade"])
        {
            Ways = (s, b) => Limits(s, b, 0.9, 0.6, 0.95),
            Fine = (s, p) =>
                s.E.Banks[p.Bank].Network is { Ceiling.Amps: { } ceiling } n
                    ? new($"{Say.A(n.Strings.BankA)} at full load, and it gives {Say.A(ceiling)}.", Of(p, "/network/ceiling/amps"))
                    : null,
        },
        new("bms-opens-at-start", "Its BMS opens at the worst start", OnBank, ["bank.surge"])
        {
            Brings = ["fuse.bms-first"],
            Ways = StartsOverPeak,
            Fine = (s, p) =>
                s.E.Banks[p.Bank] is { Currents: { SurgeWorstA: > 0 and var start }, Network: { } n }
                && PeakOf(s.Design.Banks[p.Bank]) is { } peak
                    ? new(
                        $"The worst start draws {Say.A(n.Strings.WorstShare * start)} from the string that works hardest, and its BMS gives "
                            + $"{peak}.",
                        null
                    )
                    : null,
        },
        new("cascade", "One string out takes the rest with it", OnBank, ["bank.cascade"])
        {
            Ways = (s, b) => s.Design.Banks[b].Parallel > 1 ? Limits(s, b, 1.1, 1.2, 1.4) : [],
            Fine = (s, p) =>
                s.E.Banks[p.Bank] is { Network: { OneOut: { BlackoutAfter: null, SurvivesA: { } holds } } n, Bank.Layout.Parallel: > 1 }
                    ? new(
                        $"{Say.A(n.Strings.BankA)} at full load, and with a string out it still gives {Say.A(holds)}.",
                        Of(p, "/network/oneOut/survivesA")
                    )
                    : null,
        },
        new("too-small", "It holds too little for what hangs on it", OnBank, ["bank.too-small", "bank.c-rate"])
        {
            Ways = (s, b) =>
                ((double[])[0.4, 0.6, 0.8, 0.9]).Select(share => Item(s, b, i => i with { Ah = Math.Round(i.Ah * share / 5) * 5 })),
            Fine = (s, p) =>
                s.E.Banks[p.Bank] is { Bank: { } bank, Energy: { } energy }
                    ? new(
                        $"It holds {Say.Wh(bank.Holds.UsableWh)} to use, and a day takes {Say.Wh(energy.EnergyBankWh)}.",
                        Of(p, "/bank/holds/usableWh")
                    )
                    : null,
        },
        new("lithium-living", "Lithium where people live, without a vented box", [PartKind.Place], ["place.lithium"])
        {
            Ways = (s, b) => b == 0 ? [new(s.Design with { Place = s.Design.Place with { Living = true } }, "place")] : [],
            Fine = (s, p) => new("It stands where nobody lives.", null),
        },
        new("too-cold", "Too cold to be charged here", [PartKind.Place], ["charge.cold"])
        {
            Ways = (s, b) =>
                b == 0
                    ? ((double[])[-15, -8, -3]).Select(c => new Planting(
                        s.Design with
                        {
                            Place = s.Design.Place with { AmbientC = c },
                        },
                        "place"
                    ))
                    : [],
            Fine = (s, p) => new($"{Say.Number(s.Design.Place.AmbientC ?? 20)} °C, and lithium is charged above 0 °C.", null),
        },
    ];

    /// <summary>What a BMS gives for a moment, its own or the one of bare cells, as it is printed.</summary>
    private static string? PeakOf(Bank bank) =>
        bank.Unit!.Bms is { } own
            ? own is { PeakA: { } most, PeakSeconds: { } lasts }
                ? $"{Say.A(most)} for {Say.Seconds(lasts)}"
                : Say.A(own.ContinuousA)
            : bank.Bms is { } bms
                ? Say.A(bms.PeakA ?? bms.ContinuousA)
                : null;

    internal static string Of(FoundPart p, string pointer) => $"/banks/{p.Bank}{pointer}";

    /// <summary>All units with another plate.</summary>
    private static Planting Item(FoundScene s, int b, Func<UnitItem, UnitItem> change) =>
        new(s.With(b, x => x with { Unit = UnitKinds.Named(change(x.Unit!)) }), FoundScene.Key(b, "bank"));

    /// <summary>A start as hard as the inverter bears, over a BMS whose peak is not made for it.</summary>
    private static IEnumerable<Planting> StartsOverPeak(FoundScene s, int b)
    {
        var bank = s.Design.Banks[b];
        if (bank.Unit!.Bms is null || bank.Inverters is not [{ Item: { } inverter }, ..])
            yield break;
        var at = bank
            .Demand.Loads.Index()
            .Where(l => l.Item is { Kind: LoadKind.Ac, SurgeWatts: > 0 })
            .Select(l => l.Index)
            .DefaultIfEmpty(-1)
            .First();
        if (at < 0)
            yield break;
        foreach (var watts in (double[])[0.9 * inverter.SurgeW, 0.7 * inverter.SurgeW, bank.Demand.Loads[at].SurgeWatts])
        {
            var harder = new FoundScene(
                s.With(b, x => x.WithLoad(at, x.Demand.Loads[at] with { SurgeWatts = Math.Round(watts / 50) * 50, StartSeconds = 0.5 }))
            );
            if (harder.E.Banks[b] is not { Network: { } n, Currents: { } c })
                continue;
            var least = Math.Ceiling(n.Strings.BankA / Math.Max(1, bank.Parallel!.Value - 1) * 1.05 / 5) * 5;
            foreach (var share in (double[])[0.6, 0.8, 0.95])
            {
                var peak = Math.Floor(share * n.Strings.WorstShare * c.SurgeWorstA / 5) * 5;
                if (peak > least)
                    yield return Item(harder, b, i => i with { Bms = i.Bms! with { ContinuousA = least, PeakA = peak } });
            }
        }
    }

    /// <summary>What a BMS lets through, as a share of what its string carries at full load.</summary>
    private static IEnumerable<Planting> Limits(FoundScene s, int b, params double[] shares)
    {
        if (s.E.Banks[b].Network is not { } n || s.Design.Banks[b].Unit!.Bms is null)
            yield break;
        foreach (var share in shares)
        {
            var amps = Math.Max(5, Math.Floor(n.Strings.WorstA * share / 5) * 5);
            foreach (var peak in (double[])[2, 4])
                yield return Item(s, b, i =>
                    i with
                    {
                        Bms = i.Bms! with { ContinuousA = amps, PeakA = Math.Max(i.Bms!.PeakA ?? 0, peak * amps) },
                    }
                );
        }
    }
}

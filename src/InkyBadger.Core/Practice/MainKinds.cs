using InkyBadger.Core.Design;
using InkyBadger.Core.Reference;
using InkyBadger.Core.Work;

namespace InkyBadger.Core.Practice;

/// <summary>What can be wrong with a cable, and with what sits in the main run.</summary>
internal static class MainKinds
{
    private static readonly PartKind[] OnCable = [PartKind.MainCable, PartKind.Load, PartKind.Source, PartKind.Panel];
    private static readonly PartKind[] OnMain = [PartKind.MainCable];

    public static PracticeKind[] All { get; } =
    [
        new("cable-thin", "Its cable is too thin for what flows", OnCable, ["cable.thin"])
        {
            Brings = ["fuse.above-cable", "cable.hot", "cable.drop", "cable.drop-to-device", "cable.fine"],
            Ways = (s, b) =>
                EachCable(s, b, (run, key) =>
                    Sizes(run)
                        .Where(c => c.Carries < run.Run.DesignA)
                        .Select(c => Cable(s, b, key, r => r with { Size = c.Size, Parallel = 1 }))
                ),
            Fine = (s, p) =>
                FuseKinds.RunOf(s, p) is { Run: { Carries.AmpacityA: { } carries, Cable.Size: { } size } run } r
                    ? new(
                        $"{Say.Size(size, run.Cable.Conductors)} carries {Say.A(carries)}, and {Say.A(run.DesignA)} flow.",
                        r.Pointer + "/carries/ampacityA"
                    )
                    : null,
        },
        new("cable-drop", "Its cable loses too many volts", OnCable, ["cable.drop", "cable.drop-to-device"])
        {
            Ways = (s, b) =>
                EachCable(s, b, (run, key) =>
                    ((double[])[6, 4, 3, 2, 1.5]).Select(times =>
                        Cable(s, b, key, r => r with { LengthM = Math.Round(times * run.Run.Laid.LengthM, 1) })
                    )
                ),
            Fine = (s, p) =>
                FuseKinds.RunOf(s, p) is { Run: { Drop.Fraction: { } drop } run } r
                    ? new(
                        $"{Say.Percent(drop)} over {Say.Length(run.Laid.LengthM, UnitSystem.Metric)}; "
                            + $"{Say.Percent(run.DropLimit)} is allowed.",
                        r.Pointer + "/drop/fraction"
                    )
                    : null,
        },
        new("cable-unequal", "Its conductors side by side are not of one length", OnMain, ["cable.unequal"])
        {
            Ways = (s, b) => Doubled(s, b, (r, m) => r with { ConductorLengthsM = [m, Math.Round(m * 1.4, 2)], Bundled = 1 }),
            Fine = (s, p) =>
                FuseKinds.RunOf(s, p) is { Run.Cable.Conductors: > 1 } r
                    ? new($"{r.Run.Cable.Conductors} of one length: each takes its share.", null)
                    : new("One conductor to a pole.", null),
        },
        new("cable-bundled", "Its conductors touch, and warm each other", OnMain, ["cable.bundled"])
        {
            Ways = (s, b) =>
                Doubled(s, b, (r, _) => r with { Bundled = null })
                    .Concat(
                        Doubled(s, b, (r, _) =>
                            r with
                            {
                                Bundled = null,
                                Fuse = r.Fuse is { Class: { } fused, RatingA: { } rating }
                                    ? r.Fuse with
                                    {
                                        RatingA = FuseClasses.Get(fused).Next(rating + 1) ?? rating,
                                    }
                                    : r.Fuse,
                            }
                        )
                    ),
            Fine = (s, p) =>
                FuseKinds.RunOf(s, p) is { Run: { Carries.AmpacityA: { } carries, Laid.Bundled: var touch } run } r
                    ? new(
                        $"{(touch > 1 ? $"{touch} that touch" : "Laid apart")}: {Say.A(carries)}, "
                            + $"behind {Say.Rating(run.Fuse.RatingA ?? 0)}.",
                        r.Pointer + "/carries/ampacityA"
                    )
                    : null,
        },
        new("switch-none", "Nothing switches the bank off", [PartKind.Switch], ["switch.none"])
        {
            Ways = (s, b) => [new(s.WithRun(b, Run.MainId, r => r with { Switch = new() { Absent = true } }), FoundScene.Key(b, "switch"))],
            Fine = (s, p) =>
                s.Design.Banks[p.Bank].Runs.FirstOrDefault(r => r.Id == Run.MainId)?.Switch is { Absent: true }
                    ? null
                    : new("There is one.", null),
        },
        new("switch-volts", "The switch is made for fewer volts of DC", [PartKind.Switch], ["switch.rating"])
        {
            Ways = (s, b) =>
                ((double[])[0.4, 0.6, 0.85]).Select(x =>
                    Switch(s, b, new() { MaxDcV = Math.Floor(x * (s.E.Banks[b].Protection?.GreatestChargingV ?? 0)) })
                ),
            Fine = (s, p) =>
                SwitchOf(s, p.Bank) is { Absent: false, MaxDcV: { } volts }
                    ? new(
                        $"Made for {Say.V(volts)} DC; charging lifts the bank to {Say.V(s.E.Banks[p.Bank].Protection!.GreatestChargingV)}.",
                        BankKinds.Of(p, "/protection/greatestChargingV")
                    )
                    : null,
        },
        new("switch-amps", "The switch is made for fewer amperes", [PartKind.Switch], ["switch.rating"])
        {
            Ways = (s, b) =>
                ((double[])[0.4, 0.6, 0.85]).Select(x =>
                    Switch(s, b, new() { RatingA = Math.Max(5, Math.Floor(x * (s.E.Banks[b].MainRun?.DesignA ?? 0) / 5) * 5) })
                ),
            Fine = (s, p) =>
                SwitchOf(s, p.Bank) is { Absent: false, RatingA: { } amps }
                && s.E.Banks[p.Bank] is { MainRun: { } main, Protection: { } protection }
                    ? new(
                        $"Made for {Say.Rating(amps)}: {Say.A(main.DesignA)} at full load, "
                            + $"{Say.A(Math.Max(main.DesignA, protection.Surge.Amps))} at the worst start.",
                        BankKinds.Of(p, "/mainRun/designA")
                    )
                    : null,
        },
        new(
            "precharge-none",
            "Nothing fills its capacitors before the switch closes",
            [PartKind.Switch, PartKind.Inverter],
            ["precharge.none"]
        )
        {
            Ways = (s, b) =>
                [
                    new(
                        s.WithRun(b, Run.MainId, r => r with { PreCharge = false }),
                        FoundScene.Key(b, "switch"),
                        FoundScene.Key(b, "inverter")
                    ),
                ],
            Fine = (s, p) =>
                s.E.Banks[p.Bank].Inverter is not { Item: { } item } ? new("No inverter hangs on it.", null)
                : s.Design.Banks[p.Bank].Runs.First(r => r.Id == Run.MainId).PreCharge ? new("A resistor across it fills them.", null)
                : new($"{Say.W(item.ContinuousW)} at {s.Design.Banks[p.Bank].SystemV} V: asked for from 1,000 W at 24 V on.", null),
        },
        new("shunt-bypassed", "A negative goes past the shunt", [PartKind.Shunt, PartKind.Load, PartKind.Source], ["shunt.bypassed"])
        {
            Ways = (s, b) =>
                s
                    .E.Banks[b]
                    .Circuits.Where(c => c.Kind is CircuitKind.Branch or CircuitKind.Charge && c.Upstream is null)
                    .Select(c => new Planting(
                        s.WithRun(b, c.Id, r => r with { BypassesShunt = true }),
                        FoundScene.Key(b, "shunt"),
                        FoundScene.Key(b, c.Id)
                    )),
            Fine = (s, p) =>
                p.Kind == PartKind.Shunt
                    ? new("What hangs on the bus comes back through it.", null)
                    : new("Its negative comes back to the bus, behind the shunt.", null),
        },
        new("bus-rating", "The bus bars are made for less than the main fuse lets through", [PartKind.Bus], ["bus.rating"])
        {
            Ways = (s, b) =>
                s.E.Banks[b].MainRun?.Fuse.RatingA is { } main
                    ? ((double[])[0.4, 0.6, 0.85]).Select(x => new Planting(
                        s.WithRun(b, Run.MainId, r => r with { BusRatingA = Math.Floor(x * main / 5) * 5 }),
                        FoundScene.Key(b, "bus")
                    ))
                    : [],
            Fine = (s, p) =>
                s.Design.Banks[p.Bank].Runs.First(r => r.Id == Run.MainId).BusRatingA is { } bus && s.E.Banks[p.Bank].MainRun is { } main
                    ? main.Fuse.RatingA is { } fuse
                        ? new($"Made for {Say.Rating(bus)}, behind {Say.Rating(fuse)}.", BankKinds.Of(p, "/mainRun/fuse/ratingA"))
                        : new($"Made for {Say.Rating(bus)}, and {Say.A(main.DesignA)} flow.", BankKinds.Of(p, "/mainRun/designA"))
                    : null,
        },
        new("bonding-none", "Nothing joins the negative to chassis, hull or earth", [PartKind.Bonding], ["bonding"])
        {
            Ways = (s, b) => [new(s.WithRun(b, Run.BondingId, r => r with { Absent = true }), FoundScene.Key(b, "bonding"))],
            Fine = (s, p) =>
                s.E.Banks[p.Bank].Bonding is { Absent: false } x
                    ? new($"{Say.Size(x.Size!, x.Conductors)} to chassis, hull or earth.", BankKinds.Of(p, "/bonding/leastMm2"))
                    : null,
        },
        new("bonding-thin", "The bonding conductor is thin beside the main cable", [PartKind.Bonding], ["bonding"])
        {
            Ways = (s, b) =>
                ((string[])["1.5 mm²", "2.5 mm²", "4 mm²", "6 mm²", "10 mm²", "16 mm²"]).Select(x => new Planting(
                    s.WithRun(b, Run.BondingId, r => r with { Size = x, Parallel = 1 }),
                    FoundScene.Key(b, "bonding")
                )),
            Fine = (s, p) =>
                s.E.Banks[p.Bank].Bonding is { Absent: false, LeastMm2: var least } x
                    ? new(
                        $"{Say.Size(x.Size!, x.Conductors)}, where {Say.Number(least, least < 10 ? 1 : 0)} mm² are the least.",
                        BankKinds.Of(p, "/bonding/leastMm2")
                    )
                    : null,
        },
    ];

    private static RunSwitch? SwitchOf(FoundScene s, int b) => s.Design.Banks[b].Runs.FirstOrDefault(r => r.Id == Run.MainId)?.Switch;

    private static Planting Switch(FoundScene s, int b, RunSwitch change) =>
        new(
            s.WithRun(b, Run.MainId, r =>
                r with
                {
                    Switch = (r.Switch ?? new()) with
                    {
                        MaxDcV = change.MaxDcV ?? r.Switch?.MaxDcV,
                        RatingA = change.RatingA ?? r.Switch?.RatingA,
                    },
                }
            ),
            FoundScene.Key(b, "switch")
        );

    private static IEnumerable<Planting> EachCable(FoundScene s, int b, Func<FusedRun, string, IEnumerable<Planting>> ways)
    {
        foreach (var p in s.Parts)
            if (p.Bank == b && OnCable.Contains(p.Kind) && FuseKinds.RunOf(s, p) is { Run.Cable.Size: not null } run)
                foreach (var way in ways(run, p.Key[(p.Key.IndexOf('/') + 1)..]))
                    yield return way;
    }

    private static Planting Cable(FoundScene s, int b, string key, Func<Run, Run> change) =>
        new(s.WithRun(b, key == "main-cable" ? Run.MainId : key, change), FoundScene.Key(b, key));

    /// <summary>Sizes below the one that stands with what one of them carries, the thinnest first.</summary>
    private static IEnumerable<(string Size, double Carries)> Sizes(FusedRun run) =>
        CablePractices
            .Get(run.Run.Laid.Practice)
            .Rows.TakeWhile(r => r.Size != run.Run.Cable.Size)
            .Select(r => (r.Size, Wiring.Cable.Ampacity(r, run.Run.Laid.AmbientC, 1, 1).AmpacityA));

    /// <summary>Two conductors to a pole in place of one, each of half the copper or more.</summary>
    private static IEnumerable<Planting> Doubled(FoundScene s, int b, Func<Run, double, Run> change)
    {
        if (s.E.Banks[b].MainRun is not { Cable: { Size: { } size, AreaMm2: { } area, Conductors: 1 } } main)
            yield break;
        foreach (var row in CablePractices.Get(main.Laid.Practice).Rows)
            if (row.Conductor.AreaMm2 >= 16 && row.Conductor.AreaMm2 >= area / 2 && row.Conductor.AreaMm2 <= area)
            {
                var way = Cable(s, b, "main-cable", r => change(r with { Size = row.Size, Parallel = 2 }, main.Laid.LengthM));
                // The bonding conductor goes with the copper it must be half of.
                var bonded = way.Design.Banks[b].WithRun(Run.BondingId, r => r.Absent ? r : r with { Size = null, Parallel = null });
                yield return way with
                {
                    Design = way.Design with { Banks = [.. way.Design.Banks.Select((x, i) => i == b ? bonded : x)] },
                };
            }
    }
}

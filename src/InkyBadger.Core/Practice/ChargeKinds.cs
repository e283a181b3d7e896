using InkyBadger.Core.Design;
using InkyBadger.Core.Reference;
using InkyBadger.Core.Work;

namespace InkyBadger.Core.Practice;

/// <summary>What can be wrong with what charges.</summary>
internal static class ChargeKinds
{
    private static readonly PartKind[] OnSource = [PartKind.Source];
    private static readonly PartKind[] OnArray = [PartKind.Array];

    public static PracticeKind[] All { get; } =
    [
        new("charge-direct", "The alternator charges the bank directly", OnSource, ["charge.alternator"])
        {
            Ways = (s, b) => Each(s, b, x => x.Kind == SourceKind.DcDc, x => [x with { Kind = SourceKind.Alternator }]),
            Fine = (s, p) =>
                Of(s, p) is { } x
                    ? new(
                        x.Kind switch
                        {
                            SourceKind.DcDc => "A DC–DC charger stands between the alternator and the bank.",
                            SourceKind.Alternator => "The bank has nothing that could open.",
                            _ => "No alternator hangs on it.",
                        },
                        null
                    )
                    : null,
        },
        new("charge-too-high", "It is set to volts that overcharge the cells", OnSource, ["charge.setting"])
        {
            Ways = (s, b) =>
                Each(
                    s,
                    b,
                    _ => true,
                    x => ((double[])[1.15, 1.06, 1.02]).Select(v => Set(x, c => c with { AbsorbV = At(Math.Round(Top(s, b) * v, 1)) }))
                ),
            Fine = Setting,
        },
        new("charge-too-low", "It is set to volts that never fill the bank", OnSource, ["charge.setting"])
        {
            Ways = (s, b) =>
                Each(
                    s,
                    b,
                    _ => true,
                    x => ((double[])[0.93, 0.95, 0.97]).Select(v => Set(x, c => c with { AbsorbV = At(Math.Round(Low(s, b) * v, 1)) }))
                ),
            Fine = Setting,
        },
        new("charge-equalise", "It equalises", OnSource, ["charge.equalise"])
        {
            Ways = (s, b) =>
                Each(
                    s,
                    b,
                    _ => true,
                    x =>
                        [
                            Set(x, c =>
                                c with
                                {
                                    EqualiseV = At(Math.Round(Top(s, b) * 1.05, 1)),
                                    AbsorbV = At(Wants(s, b).AbsorbV),
                                    FloatV = At(Wants(s, b).FloatV),
                                }
                            ),
                        ]
                ),
            Fine = (s, p) =>
                Of(s, p) is { } x
                    ? new(x.Settings.EqualiseV?.Value is null or 0 ? "Equalising is off." : "These cells may be equalised.", null)
                    : null,
        },
        new("charge-compensation", "It compensates for temperature, as for lead", OnSource, ["charge.compensation"])
        {
            Ways = (s, b) =>
                Each(s, b, _ => true, x => ((double[])[-72, -36, -18]).Select(mv => Set(x, c => c with { CompensationMvPerK = At(mv) }))),
            Fine = (s, p) =>
                Of(s, p) is { } x
                    ? new(x.Settings.CompensationMvPerK?.Value is null or 0 ? "Its compensation is off." : "These cells want it.", null)
                    : null,
        },
        new("charge-too-much", "All together charge with more than the bank takes", OnSource, ["charge.too-much"])
        {
            Ways = (s, b) =>
                ((double[])[0.4, 0.6, 0.9]).Select(share => new Planting(
                    s.With(b, x =>
                        x with
                        {
                            Unit = x.Unit! with
                            {
                                Bms = x.Unit.Bms is { } bms
                                    ? bms with
                                    {
                                        ChargeA = Math.Max(
                                            1,
                                            Math.Floor(share * (s.E.Banks[b].Currents?.ChargingA ?? 0) / (x.Parallel ?? 1))
                                        ),
                                    }
                                    : null,
                            },
                        }
                    ),
                    [.. s.Design.Banks[b].Sources.Select(x => FoundScene.Key(b, $"source-{x.Id}"))]
                )),
            Fine = (s, p) =>
                s.E.Banks[p.Bank].Currents is { ChargingA: > 0 and var amps } && s.Design.Banks[p.Bank] is { Unit: { } unit } bank
                    ? new(
                        $"{Say.A(amps)} in all; the bank takes {Say.A(Takes(s, p.Bank, unit, bank))}.",
                        BankKinds.Of(p, "/currents/chargingA")
                    )
                    : null,
        },
        new("charge-engine-share", "It asks more than the alternator gives when hot", OnSource, ["charge.engine-share"])
        {
            Ways = (s, b) =>
                Each(
                    s,
                    b,
                    x => x.Engine is not null,
                    x => ((double[])[50, 70, 90]).Select(a => x with { Engine = x.Engine! with { AlternatorA = a } })
                ),
            Fine = (s, p) =>
                Result(s, p) is { Item: { Engine: { } engine, GivesA: { } gives } }
                    ? new($"It charges with {Say.A(gives)}; hot the alternator allows {Say.A(engine.MostOutA)}.", null)
                    : null,
        },
        new("charge-supply", "Its supply does not carry charger and loads together", OnSource, ["charge.supply"])
        {
            Ways = (s, b) =>
                Each(
                    s,
                    b,
                    x => x.Supply is not null,
                    x => ((double[])[2, 3, 4, 5]).Select(a => x with { Supply = x.Supply! with { Amps = a } })
                ),
            Fine = (s, p) =>
                Result(s, p) is { Item.Mains: { } mains } r && Of(s, p) is { Supply.Amps: { } amps }
                    ? new($"{Say.A(mains.TotalA)} of {Say.Rating(amps)} at the plug.", null)
                    : null,
        },
        new("array-cold", "On a cold morning they give more volts than the controller bears", OnArray, ["charge.array-cold"])
        {
            Ways = (s, b) =>
                Arrays(s, b, a => ((double[])[0.6, 0.8, 0.95]).Select(x => a with { ControllerMaxV = Math.Floor(ColdV(s, b, x)) })),
            Fine = (s, p) =>
                Result(s, p) is { Item.Array: { } array } r && Of(s, p) is { Array.ControllerMaxV: { } most }
                    ? new(
                        $"{Say.V(array.ColdVocV)} when cold and open; the controller bears {Say.V(most)}.",
                        BankKinds.Of(p, $"/charging/sources/{r.Index}/array/coldVocV")
                    )
                    : null,
        },
        new("array-touch", "In series they are above what may be touched", OnArray, ["touch.array"])
        {
            Ways = (s, b) => Arrays(s, b, a => ((int[])[4, 3]).Select(n => a with { Series = n, ControllerMaxV = 150 })),
            Fine = (s, p) =>
                Result(s, p) is { Item.Array: { } array } r
                    ? new(
                        $"{Say.V(array.ColdVocV)} when cold, and {Say.V(NeedsStage.TouchLimitV)} may be touched.",
                        BankKinds.Of(p, $"/charging/sources/{r.Index}/array/coldVocV")
                    )
                    : null,
        },
        new("array-reach", "When hot they never reach the bank’s volts", OnArray, ["charge.array-reach"])
        {
            Ways = (s, b) =>
                Arrays(s, b, a =>
                    a.Series > 1
                        ? [a with { Series = a.Series - 1 }, a with { Module = a.Module with { VmpV = 15 } }]
                        : ((double[])[13, 15]).Select(v => a with { Module = a.Module with { VmpV = v, VocV = v + 3.5 } })
                ),
            Fine = (s, p) =>
                Result(s, p) is { Item.Array: { } array } r
                    ? new(
                        $"{Say.V(array.HotVmpV)} when hot; the bank is filled at {Say.V(s.E.Banks[p.Bank].Charging!.Wants.AbsorbV)}.",
                        BankKinds.Of(p, $"/charging/sources/{r.Index}/array/hotVmpV")
                    )
                    : null,
        },
        new("array-current", "They push more amperes than the controller’s input bears", OnArray, ["charge.array-current"])
        {
            Ways = (s, b) => Arrays(s, b, a => ((double[])[6, 9, 12, 14]).Select(x => a with { ControllerMaxIscA = x })),
            Fine = (s, p) =>
                Result(s, p) is { Item.Array: { } array } r && Of(s, p) is { Array.ControllerMaxIscA: { } most }
                    ? new($"{Say.A(array.ArrayA)} to design for; the controller bears {Say.A(most)}.", null)
                    : null,
        },
        new("array-fuse", "No fuse suits their strings", OnArray, ["charge.array-fuse"])
        {
            Ways = (s, b) =>
                Arrays(s, b, a =>
                    ((double[])[6, 8]).Select(x => a with { Strings = 3, Module = a.Module with { MaxFuseA = x }, ControllerMaxIscA = 40 })
                ),
            Fine = (s, p) =>
                Of(s, p) is { Array: { Strings: <= 2 } }
                    ? new("Two strings: a shorted one is fed by one alone.", null)
                    : new("A fuse for each string is made.", null),
        },
        new("array-unlike", "Unlike modules share a controller", OnArray, ["charge.unlike"])
        {
            Ways = (s, b) => Arrays(s, b, a => [a with { Unlike = true }]),
            Fine = (s, p) => new("All are of one kind and look one way.", null),
        },
        new("array-clips", "The controller throws away part of the sun", OnArray, ["charge.clips"])
        {
            Ways = (s, b) => Each(s, b, x => x.Array is not null, x => ((double[])[4, 6, 9, 12]).Select(a => x with { Amps = a }), "array"),
            Fine = (s, p) =>
                Of(s, p) is { Amps: { } amps, Array: { } a }
                    ? new($"{Say.W(a.Module.Watts * a.Series * a.Strings)} on a controller of {Say.Rating(amps)}.", null)
                    : null,
        },
    ];

    private static Source? Of(FoundScene s, FoundPart p) => s.Design.Banks[p.Bank].Sources.FirstOrDefault(x => x.Id == p.Id);

    private static (int Index, SourceResult Item)? Result(FoundScene s, FoundPart p) =>
        s.E.Banks[p.Bank].Charging?.Sources.Index().FirstOrDefault(x => x.Item.Id == p.Id) is { Item: not null } r
            ? (r.Index, r.Item)
            : null;

    private static double Takes(FoundScene s, int b, UnitItem unit, Bank bank) =>
        Math.Min(
            Chemistries.Get(unit.Chemistry).MaxChargeCRate * s.E.Banks[b].Bank!.Holds.Ah,
            unit.Bms?.ChargeA * bank.Parallel ?? double.MaxValue
        );

    private static Setting At(double volts) => new() { Value = volts };

    private static Source Set(Source x, Func<ChargerSettings, ChargerSettings> change) => x with { Settings = change(x.Settings) };

    private static double Top(FoundScene s, int b) =>
        s.E.Banks[b].Bank!.Layout.Cells * Chemistries.Get(s.Design.Banks[b].Unit!.Chemistry).CellTopV;

    private static double Low(FoundScene s, int b) =>
        s.E.Banks[b].Bank!.Layout.Cells * Chemistries.Get(s.Design.Banks[b].Unit!.Chemistry).CellFloatV;

    private static Charging.ChargeSettingsResult Wants(FoundScene s, int b) => s.E.Banks[b].Charging!.Wants;

    private static double ColdV(FoundScene s, int b, double share) =>
        share * s.E.Banks[b].Charging!.Sources.First(x => x.Array is not null).Array!.ColdVocV;

    private static Shown? Setting(FoundScene s, FoundPart p)
    {
        var (low, top) = (Low(s, p.Bank), Top(s, p.Bank));
        var volts = Of(s, p)?.Settings.AbsorbV?.Value ?? s.E.Banks[p.Bank].Charging?.Wants.AbsorbV;
        return volts is { } v && v >= low && v <= top
            ? new($"{Say.V(v)}, between {Say.V(low)} and {Say.V(top)} of these cells.", null)
            : null;
    }

    private static IEnumerable<Planting> Each(
        FoundScene s,
        int b,
        Func<Source, bool> which,
        Func<Source, IEnumerable<Source>> change,
        string part = "source"
    ) =>
        s
            .Design.Banks[b]
            .Sources.Index()
            .Where(x => which(x.Item))
            .SelectMany(x =>
                change(x.Item)
                    .Select(y => new Planting(
                        s.With(b, bank => bank.WithSource(x.Index, _ => y)),
                        FoundScene.Key(b, $"{part}-{x.Item.Id}")
                    ))
            );

    private static IEnumerable<Planting> Arrays(FoundScene s, int b, Func<SolarArray, IEnumerable<SolarArray>> change) =>
        Each(s, b, x => x.Array is not null, x => change(x.Array!).Select(a => x with { Array = a }), "array");
}

using InkyBadger.Core.Design;
using InkyBadger.Core.Reference;

namespace InkyBadger.Core.Practice;

/// <summary>What can be wrong with units: other kinds, ages, charges, a bad joint.</summary>
internal static class UnitKinds
{
    private static readonly PartKind[] OnUnit = [PartKind.Unit];

    public static PracticeKind[] All { get; } =
    [
        new("unit-smaller", "It is smaller than the others of its string", OnUnit, ["bank.unlike-series"])
        {
            Ways = (s, b) =>
                Series(s, b) ? ((double[])[0.5, 0.6, 0.8]).Select(share => Swap(s, b, 1, u => u == 1, i => OfAh(i, share))) : [],
            Fine = (s, p) =>
                OneString(s, p) is { Length: > 1 } units
                    ? new($"{string.Join(" and ", units.Select(u => Say.Number(u.Ah)).Distinct())} Ah in its string.", null)
                    : null,
        },
        new("unit-chemistry", "It is of another chemistry than its neighbours", OnUnit, ["bank.unlike-series", "bank.unlike-parallel"])
        {
            Ways = (s, b) =>
                Series(s, b) || Parallel(s, b)
                    ? [Swap(s, b, 1, u => true, Absorbent, all: true), Swap(s, b, 1, u => u == 1, Absorbent, all: true)]
                    : [],
            Fine = (s, p) => new($"{Short(Item(s, p).Chemistry)}, as all the others.", null),
        },
        new("string-unlike", "Its string is unlike the one beside it", OnUnit, ["bank.unlike-parallel"])
        {
            Ways = (s, b) =>
                Parallel(s, b)
                    ? ((double[])[2, 1.5, 0.5]).Select(share =>
                        Swap(s, b, s.Design.Banks[b].Parallel!.Value, _ => true, i => Scaled(i, share), all: true)
                    )
                    : [],
            Fine = (s, p) =>
                s.Design.Banks[p.Bank].Parallel > 1
                    ? new($"Each string has {Say.Number(OneString(s, p)!.Min(u => u.Ah))} Ah.", null)
                    : null,
        },
        new("old-and-new", "Old and new together", OnUnit, ["bank.mixed-age", "bank.mixed-age-series"])
        {
            Ways = (s, b) => ((double[])[5, 3, 2]).SelectMany(years => Aged(s, b, years)),
            Fine = (s, p) => Series(s, p.Bank) || Parallel(s, p.Bank) ? new("All are of one age, as far as their labels say.", null) : null,
        },
        new("not-as-full", "It is not as full as the others: not to be joined yet", OnUnit, ["bank.unequal-charge"])
        {
            Ways = (s, b) =>
                Parallel(s, b)
                    ? ((double[])[0.1, 0.2, 0.95]).Select(soc => new Planting(
                        s.WithUnits(b, (_, _) => true, p => p with { Soc = p.String == 1 ? soc : 1 }),
                        Units(s, b, (_, _) => true)
                    ))
                    : [],
            Fine = (s, p) => Parallel(s, p.Bank) ? new("Nothing says that they rest at different volts.", null) : null,
        },
        new("unlevel", "It is emptier than its mates in series", OnUnit, ["bank.unlevel"])
        {
            Ways = (s, b) =>
                Series(s, b)
                    ? ((double[])[0.5, 0.7, 0.85]).Select(soc => new Planting(
                        s.WithUnits(b, (_, _) => true, p => p with { Soc = p is { String: 1, Unit: 1 } ? soc : 1 }),
                        Units(s, b, (x, _) => x == 1)
                    ))
                    : [],
            Fine = (s, p) => Series(s, p.Bank) ? new("Its string stands level, as far as was measured.", null) : null,
        },
        new("weak-unit", "It has lost capacity beside its mates", OnUnit, ["bank.weak-unit"])
        {
            Ways = (s, b) =>
                Series(s, b)
                    ? ((double[])[0.7, 0.8, 0.88]).Select(health => new Planting(
                        s.WithUnits(b, (x, u) => x == 1 && u == 1, p => p with { Health = health }),
                        FoundScene.UnitKey(b, 1, 1)
                    ))
                    : [],
            Fine = (s, p) => Series(s, p.Bank) ? new("Nothing was tested that says so.", null) : null,
        },
        new("bad-joint", "A joint at its post is bad", OnUnit, ["bank.joint"])
        {
            Ways = (s, b) =>
                ((double[])[22, 8, 3]).Select(ohm => new Planting(
                    s.WithUnits(b, (x, u) => x == s.Design.Banks[b].Parallel && u == 1, p => p with { JointMilliohm = ohm }),
                    FoundScene.UnitKey(b, s.Design.Banks[b].Parallel!.Value, 1)
                )),
            Fine = (s, p) => new("No joint of it was measured as bad.", null),
        },
        new("hydrogen", "It gives off hydrogen and wants a vent", OnUnit, ["bank.hydrogen"])
        {
            Ways = (s, b) =>
                s.Design.Banks[b].Unit!.Chemistry == "agm"
                    ?
                    [
                        new(
                            GoodBanks.Again(s.With(b, x => x with { Unit = Flooded(x.Unit!), Chemistry = null }), b, strings: false),
                            Units(s, b, (_, _) => true)
                        ),
                    ]
                    : [],
            Fine = (s, p) => Item(s, p).Chemistry is "agm" or "gel" ? new($"{Short(Item(s, p).Chemistry)} is sealed.", null) : null,
        },
        new("too-heavy", "One person does not lift it", OnUnit, ["bank.lift"])
        {
            Ways = (s, b) =>
                ((double[])[44, 32, 27]).Select(kg => new Planting(
                    s.With(b, x => x with { Unit = x.Unit! with { MassKg = kg } }),
                    Units(s, b, (_, _) => true)
                )),
            Fine = (s, p) =>
                Item(s, p).MassKg is { } kg
                    ? new(
                        $"{Say.Mass(kg, UnitSystem.Metric)}, and one person lifts "
                            + $"{Say.Mass(s.Rules.Number("one-person-lifts"), UnitSystem.Metric)}.",
                        null
                    )
                    : null,
        },
        new("no-bms", "Nothing protects its cells", OnUnit, ["bank.no-bms"])
        {
            Ways = (s, b) => s.Design.Banks[b].Bms is null ? [] : [new(s.With(b, x => x with { Bms = null }), Units(s, b, (_, _) => true))],
            Fine = (s, p) =>
                Item(s, p).Bms is { } own ? new($"It has a BMS of its own, {Say.A(own.ContinuousA)}.", null)
                : s.Design.Banks[p.Bank].Bms is { } bms ? new($"{bms.Name} looks at every cell of the string.", null)
                : null,
        },
    ];

    private static bool Series(FoundScene s, int b) => s.Design.Banks[b].Series > 1;

    private static bool Parallel(FoundScene s, int b) => s.Design.Banks[b].Parallel > 1;

    private static UnitItem Item(FoundScene s, FoundPart p) => FoundScene.ItemOf(s.Design.Banks[p.Bank], StringOf(p), UnitOf(p));

    private static int StringOf(FoundPart p) => int.Parse(p.Id[..p.Id.IndexOf('-')], System.Globalization.CultureInfo.InvariantCulture);

    private static int UnitOf(FoundPart p) => int.Parse(p.Id[(p.Id.IndexOf('-') + 1)..], System.Globalization.CultureInfo.InvariantCulture);

    private static UnitItem[] OneString(FoundScene s, FoundPart p) =>
        [
            .. Enumerable
                .Range(1, s.Design.Banks[p.Bank].Series!.Value)
                .Select(u => FoundScene.ItemOf(s.Design.Banks[p.Bank], StringOf(p), u)),
        ];

    internal static string[] Units(FoundScene s, int b, Func<int, int, bool> which) =>
        [
            .. from x in Enumerable.Range(1, s.Design.Banks[b].Parallel!.Value)
            from u in Enumerable.Range(1, s.Design.Banks[b].Series!.Value)
            where which(x, u)
            select FoundScene.UnitKey(b, x, u),
        ];

    /// <summary>Units of a string are of another kind; pointed out at that string, or at all that are unlike each other.</summary>
    private static Planting Swap(
        FoundScene s,
        int b,
        int @string,
        Func<int, bool> which,
        Func<UnitItem, UnitItem> other,
        bool all = false
    ) =>
        new(
            s.WithUnits(b, (x, u) => x == @string && which(u), p => p with { Item = other(s.Design.Banks[b].Unit!) }),
            Units(s, b, (x, _) => all || x == @string)
        );

    /// <summary>The same unit with less in it: its current limits are as they were.</summary>
    private static UnitItem OfAh(UnitItem item, double share) => Named(item with { Ah = Math.Round(item.Ah * share / 5) * 5 });

    private static UnitItem Scaled(UnitItem item, double share) =>
        Named(
            item with
            {
                Ah = Math.Round(item.Ah * share / 5) * 5,
                ResistanceOhm = item.ResistanceOhm / share,
                Bms = item.Bms is { } bms
                    ? bms with
                    {
                        ContinuousA = bms.ContinuousA * share,
                        PeakA = bms.PeakA * share,
                        ChargeA = bms.ChargeA * share,
                    }
                    : null,
            }
        );

    private static UnitItem Absorbent(UnitItem item) =>
        Named(
            item with
            {
                Chemistry = "agm",
                Cells = item.Cells switch
                {
                    1 => 1,
                    4 => 6,
                    8 => 12,
                    _ => 24,
                },
                ContinuousA = item.LimitA(),
                Bms = null,
            }
        );

    private static UnitItem Flooded(UnitItem item) => Named(item with { Chemistry = "flooded" });

    /// <summary>A unit whose plate says something else, by a name of its own.</summary>
    internal static UnitItem Named(UnitItem item) =>
        item with
        {
            Key = $"found-{item.Chemistry}-{item.Cells}-{item.Ah}",
            Name = $"{Short(item.Chemistry)} {Say.V(item.Cells * Chemistries.Get(item.Chemistry).CellNominalV)} {Say.Number(item.Ah)} Ah",
        };

    /// <summary>A chemistry as it stands on a plate.</summary>
    internal static string Short(string chemistry) =>
        chemistry switch
        {
            "lfp" or "nmc" or "agm" => chemistry.ToUpperInvariant(),
            "flooded" => "flooded lead",
            _ => chemistry,
        };

    private static IEnumerable<Planting> Aged(FoundScene s, int b, double years)
    {
        if (Parallel(s, b))
            yield return new(
                s.WithUnits(b, (x, _) => x == 1, p => p with { AgeYears = (p.AgeYears ?? 0) + years }),
                Units(s, b, (_, _) => true)
            );
        if (Series(s, b))
            yield return new(
                s.WithUnits(b, (_, u) => u == 1, p => p with { AgeYears = (p.AgeYears ?? 0) + years }),
                Units(s, b, (_, _) => true)
            );
    }
}

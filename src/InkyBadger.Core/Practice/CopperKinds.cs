using InkyBadger.Core.Design;
using InkyBadger.Core.Work;

namespace InkyBadger.Core.Practice;

/// <summary>What can be wrong with the copper between the units, and with where the leads leave.</summary>
internal static class CopperKinds
{
    private static readonly PartKind[] OnCopper = [PartKind.Link, PartKind.Jumper];

    public static PracticeKind[] All { get; } =
    [
        new("same-end", "Both leads leave at one end: the strings do not share alike", [PartKind.TakeOff], ["bank.take-off"])
        {
            Ways = (s, b) =>
                s.Design.Banks[b] is { Parallel: > 1, Wiring.Style: not WiringStyle.SameEnd }
                    ?
                    [
                        new(
                            s.With(b, x => x with { Wiring = x.Wiring with { Style = WiringStyle.SameEnd } }),
                            FoundScene.Key(b, "take-off")
                        ),
                    ]
                    : [],
            Fine = Shares,
        },
        new("unequal-leads", "The leads to the bus bars are not of one length", [PartKind.TakeOff, PartKind.Link], ["bank.unequal-leads"])
        {
            Ways = (s, b) =>
                s.Design.Banks[b] is { Parallel: > 1 and var p, Wiring: { Style: WiringStyle.BusBars, Lead: { } lead } }
                    ? ((double[])[6, 4, 3]).Select(times => new Planting(s.With(b, x => x with { Wiring = x.Wiring with
                                {
                                    Leads =
                                    [
                                        .. x.Wiring.Leads,
                                        new()
                                        {
                                            Rail = Pole.Positive,
                                            String = p,
                                            LengthM = Math.Round(times * (lead.LengthM ?? 0.3), 1),
                                        },
                                    ],
                                } }), FoundScene.Key(b, "take-off"), LeadKey(s, b, p)))
                    : [],
            Fine = (s, p) => s.Design.Banks[p.Bank].Wiring.Style == WiringStyle.BusBars ? Shares(s, p) : null,
        },
        new("conductor-thin", "It is too thin for the main fuse, and thinner than the others", OnCopper, ["conductor.thin"])
        {
            Brings = ["copper.fine"],
            Ways = (s, b) => Thin(s, b, own: true),
            Fine = Carries,
        },
        new("links-thin", "All of these are too thin for the main fuse", OnCopper, ["links.thin", "jumpers.thin"])
        {
            Brings = ["copper.fine", "strings.fuse"],
            Ways = (s, b) => Thin(s, b, own: false),
            Fine = Carries,
        },
        new("bad-lug", "A lug of it is bad", OnCopper, ["bank.lug"])
        {
            Ways = (s, b) =>
                s.E.Banks[b].Network is not { } n
                    ? []
                    : n
                        .Copper.Placed.Where((_, i) => i % 3 == 1)
                        .Take(2)
                        .SelectMany(c => ((double[])[15, 6, 2]).Select(ohm => Put(s, b, c, x => x with { JointMilliohm = ohm }))),
            Fine = (s, p) => new("No lug of it was measured as bad.", null),
        },
    ];

    private static string LeadKey(FoundScene s, int b, int @string) =>
        s
            .E.Banks[b]
            .Network?.Copper.Placed.FirstOrDefault(c => c.Kind == ConductorKind.Lead && c.Rail == Pole.Positive && c.String == @string)
            is { } c
            ? FoundScene.Key(b, FoundScene.CopperKey(c))
            : FoundScene.Key(b, "take-off");

    private static Shown? Shares(FoundScene s, FoundPart p) =>
        s.E.Banks[p.Bank].Network is { } n
            ? new(
                $"The string that works hardest carries {Say.Percent(n.Strings.WorstShare)}, "
                    + $"where {Say.Percent(n.Strings.EvenShare)} would be even.",
                BankKinds.Of(p, "/network/strings/worstShare")
            )
            : null;

    private static Shown? Carries(FoundScene s, FoundPart p)
    {
        if (s.E.Banks[p.Bank].Network is not { } n)
            return null;
        var at = n.Copper.Placed.Index().FirstOrDefault(c => c.Item.Id == p.Id);
        return at.Item is not { } c
            ? null
            : new(
                $"{Say.Size(c.Size, c.Conductors)} is good for {Say.A(c.AmpacityA)}; {Say.A(c.HeldA)} at most while the fuse holds.",
                BankKinds.Of(p, $"/network/copper/placed/{at.Index}/amps")
            );
    }

    private static readonly string[] Thinner = ["4 mm²", "6 mm²", "10 mm²", "16 mm²", "25 mm²", "35 mm²", "50 mm²"];

    private static IEnumerable<Planting> Thin(FoundScene s, int b, bool own)
    {
        if (s.E.Banks[b].Network is not { } n)
            yield break;
        foreach (var kind in (ConductorKind[])[ConductorKind.Link, ConductorKind.Jumper, ConductorKind.Lead])
        {
            var placed = n.Copper.Placed.Where(c => c.Kind == kind).ToList();
            if (placed.Count == 0 || own && placed.Count < 2)
                continue;
            foreach (var size in Thinner)
                yield return own
                    ? Put(s, b, placed[placed.Count / 2], c => c with { Size = size, Parallel = 1 })
                    : new(
                        s.With(b, x => x with { Wiring = Each(x.Wiring, kind, c => (c ?? new()) with { Size = size, Parallel = 1 }) }),
                        [.. placed.Select(c => FoundScene.Key(b, FoundScene.CopperKey(c)))]
                    );
        }
    }

    private static Design.Wiring Each(Design.Wiring w, ConductorKind kind, Func<Design.Conductor?, Design.Conductor> change) =>
        kind switch
        {
            ConductorKind.Jumper => w with { Jumper = change(w.Jumper) },
            ConductorKind.Link => w with { Link = change(w.Link) },
            _ => w with { Lead = change(w.Lead) },
        };

    /// <summary>One conductor that differs from the rest.</summary>
    private static Planting Put(FoundScene s, int b, PlacedAmps c, Func<PlacedConductor, PlacedConductor> change)
    {
        List<PlacedConductor> Of(IReadOnlyList<PlacedConductor> list, Func<PlacedConductor, bool> same) =>
            [
                .. list.Where(x => !same(x)),
                change(
                    list.FirstOrDefault(same)
                        ?? new()
                        {
                            Rail = c.Rail,
                            String = c.String,
                            After = c.After,
                        }
                ),
            ];
        return new(s.With(b, x => x with { Wiring = c.Kind switch
                    {
                        ConductorKind.Jumper => x.Wiring with
                        {
                            Jumpers = Of(x.Wiring.Jumpers, j => j.String == c.String && j.After == c.After),
                        },
                        ConductorKind.Link => x.Wiring with { Links = Of(x.Wiring.Links, j => j.Rail == c.Rail && j.After == c.After) },
                        _ => x.Wiring with { Leads = Of(x.Wiring.Leads, j => j.Rail == c.Rail && j.String == c.String) },
                    } }), FoundScene.Key(b, FoundScene.CopperKey(c)));
    }
}

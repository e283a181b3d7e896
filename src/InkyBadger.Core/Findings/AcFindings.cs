using InkyBadger.Core.Design;
using InkyBadger.Core.Work;

namespace InkyBadger.Core.Findings;

/// <summary>The AC side: loops, two on one part, contacts and supplies (method, 16.2 and 16.3); told once, at the first bank.</summary>
internal static class AcFindings
{
    /// <summary>Contacts that are sold [A].</summary>
    private static readonly double[] Contacts = [10, 16, 20, 25, 30, 32, 40, 50, 63, 80, 100, 125, 160, 200];

    public static IEnumerable<Finding> All(FindingScene s)
    {
        if (s.Scene.Index != 0 || s.Work.Site.Ac is not { } board)
            yield break;
        if (board.Refused is { } why)
            yield return Of(
                s,
                s.Make(
                    "ac.refused",
                    Grade.Fault,
                    Station.Inverter,
                    "",
                    board.Headline,
                    $"{why}.",
                    [new("switches", board.Switches.Count, "")]
                ),
                null,
                ""
            );
        foreach (var trouble in board.Troubles)
            yield return Of(s, Make(s, trouble), trouble.Parts[0], string.Join(' ', trouble.Parts));
        if (board.Unassigned.Count > 0 && Side(s).Parts.Any(p => p.Kind == AcPartKind.Circuit))
            yield return Of(
                s,
                s.Make(
                    "ac.unassigned",
                    Grade.Note,
                    Station.Inverter,
                    "",
                    $"{board.Unassigned.Count} AC {(board.Unassigned.Count == 1 ? "load is" : "loads are")} on no circuit",
                    "What hangs on no circuit counts on no breaker, and nobody knows in which position it is live.",
                    [new("on no circuit", board.Unassigned.Count, "")],
                    () => Circuits(s, board)
                ),
                null,
                ""
            );
    }

    private static AcDrawing Side(FindingScene s) => s.Work.Site.Design.AcSide;

    private static Finding Of(FindingScene s, Finding finding, string? part, string about)
    {
        var at = part is null ? -1 : Side(s).Parts.Index().FirstOrDefault(p => p.Item.Id == part, (-1, null!)).Index;
        return finding with { About = about, Place = at < 0 ? "/acSide" : $"/acSide/parts/{at}" };
    }

    private static Finding Make(FindingScene s, AcTrouble t)
    {
        var (rule, grade) = t.Kind switch
        {
            AcTroubleKind.Loop => ("ac.loop", Grade.Danger),
            AcTroubleKind.Ring => ("ac.ring", Grade.Danger),
            AcTroubleKind.BackFeed => ("ac.back-feed", Grade.Danger),
            AcTroubleKind.Relay => ("ac.relay", Grade.Danger),
            AcTroubleKind.Trip => ("ac.trip", Grade.Fault),
            AcTroubleKind.Continuous => ("ac.continuous", Grade.Caution),
            _ => ("ac.unfed", Grade.Caution),
        };
        FindingFigure[] figures = t.Amps is { } amps
            ? [new(t.Kind == AcTroubleKind.Relay ? "let through" : "charger that fits", amps, "A")]
            : [new("in position", t.State + 1, "")];
        return s.Make(rule, grade, Station.Inverter, "", t.Title, t.Why, figures, () => Ways(s, t));
    }

    private static IEnumerable<MendOffer> Ways(FindingScene s, AcTrouble t) =>
        t.Kind switch
        {
            AcTroubleKind.Loop => Rehung(s, t.Parts[1]),
            AcTroubleKind.Ring => Side(s)
                .Parts.Where(p => p.Kind == AcPartKind.Charger && t.Parts.Contains(p.Bank))
                .SelectMany(p => Rehung(s, p.Id)),
            AcTroubleKind.BackFeed => Parted(s, t.Parts[0], t.Parts[1]),
            AcTroubleKind.Relay => Larger(s, t),
            AcTroubleKind.Trip or AcTroubleKind.Continuous => Turned(s, t),
            _ => Side(s)
                .Parts.Where(p => p.Kind == AcPartKind.Panel)
                .Select(p => Wired(s, $"Hang it on {AcBoard.NameOf(p)}", p.Id, t.Parts[0])),
        };

    private static MendOffer Offer(FindingScene s, string label, AcDrawing side, string? outcome = null)
    {
        var design = s.Work.Site.Design with { AcSide = side };
        return new(label, then => outcome ?? then.Site.Ac?.Headline ?? "", s.Bank) { Whole = design };
    }

    private static MendOffer Wired(FindingScene s, string label, string from, string to) =>
        Offer(s, label, Side(s) with { Wires = [.. Side(s).Wires, new() { From = from, To = to }] });

    /// <summary>A charger where the supply comes in, before anything that an inverter can feed.</summary>
    private static IEnumerable<MendOffer> Rehung(FindingScene s, string charger)
    {
        var side = Side(s);
        var name = AcBoard.NameOf(side.Parts.First(p => p.Id == charger));
        List<AcWire> rest = [.. side.Wires.Where(w => w.From != charger && w.To != charger)];
        foreach (var source in side.Parts.Where(p => p.Kind is AcPartKind.Plug or AcPartKind.Generator))
        {
            var panel = side
                .Wires.Where(w => w.FromAt.Count == 0 && w.ToAt.Count == 0 && (w.From == source.Id || w.To == source.Id))
                .Select(w => side.Parts.FirstOrDefault(p => p.Id == (w.From == source.Id ? w.To : w.From)))
                .FirstOrDefault(p => p?.Kind == AcPartKind.Panel);
            foreach (var target in new[] { panel, source }.OfType<AcPart>())
                yield return Offer(
                    s,
                    $"Hang {name} on {AcBoard.NameOf(target)}",
                    side with
                    {
                        Wires = [.. rest, new() { From = target.Id, To = charger }],
                    }
                );
        }
        yield return Offer(s, $"Take {name} off it", side with { Wires = rest }, "until it has a supply of its own");
    }

    /// <summary>A selector between two that are wired to one part, or another position where there is one already.</summary>
    private static IEnumerable<MendOffer> Parted(FindingScene s, string a, string b)
    {
        var side = Side(s);
        IEnumerable<string> Beside(string id) =>
            side.Wires.Where(w => w.From == id || w.To == id).Select(w => w.From == id ? w.To : w.From);
        foreach (var meet in Beside(a).Intersect(Beside(b)).ToList())
        {
            var part = side.Parts.FirstOrDefault(p => p.Id == meet);
            if (part is null)
                continue;
            var isSwitch = part.Kind is AcPartKind.Transfer or AcPartKind.Selector;
            var id = isSwitch ? part.Id : Free(side, "selector");
            var last = isSwitch ? Math.Max(2, part.Positions.Count) : 3;
            AcWire At(AcWire w, int position) =>
                w.From == meet ? w with { From = id, FromAt = [position] } : w with { To = id, ToAt = [position] };
            List<AcWire> wires =
            [
                .. side.Wires.Select(w =>
                    Joins(w, a, meet) ? At(w, 1)
                    : Joins(w, b, meet) ? At(w, last)
                    : w
                ),
            ];
            yield return isSwitch
                ? Offer(s, $"{AcBoard.NameOf(part)}: each its own position", side with { Wires = wires })
                : Offer(
                    s,
                    $"A selector before {AcBoard.NameOf(part)}",
                    side with
                    {
                        Parts =
                        [
                            .. side.Parts,
                            new()
                            {
                                Id = id,
                                Kind = AcPartKind.Selector,
                                Name = "Selector",
                                Positions = [Name(side, a), "off", Name(side, b)],
                            },
                        ],
                        Wires = [.. wires, new() { From = id, To = meet }],
                    }
                );
        }
        foreach (var off in new[] { b, a })
            yield return Offer(
                s,
                $"Take {Name(side, off)} off",
                side with
                {
                    Wires = [.. side.Wires.Where(w => w.From != off && w.To != off)],
                }
            );
    }

    private static bool Joins(AcWire w, string a, string b) => (w.From == a && w.To == b) || (w.From == b && w.To == a);

    private static string Name(AcDrawing side, string id)
    {
        var name = AcBoard.NameOf(side.Parts.First(p => p.Id == id));
        return name.Length > 40 ? name[..40] : name;
    }

    private static string Free(AcDrawing side, string id)
    {
        for (var n = 1; ; n++)
            if (!side.Parts.Any(p => p.Id == $"{id}-{n}"))
                return $"{id}-{n}";
    }

    private static IEnumerable<MendOffer> Larger(FindingScene s, AcTrouble t)
    {
        if (t.Amps is not { } lets || Contacts.FirstOrDefault(c => Tolerant.AtLeast(c, lets)) is not (> 0 and var made))
            yield break;
        yield return Offer(
            s,
            $"Contacts for {Say.Rating(made)}",
            Side(s) with
            {
                Parts = [.. Side(s).Parts.Select(p => p.Id == t.Parts[0] ? p with { Amps = made } : p)],
            }
        );
    }

    /// <summary>The charger turned down to what fits beside the loads.</summary>
    private static IEnumerable<MendOffer> Turned(FindingScene s, AcTrouble t)
    {
        if (t.Amps is not >= 1 || t.Parts is not [_, var charger, ..])
            yield break;
        var amps = Math.Floor(t.Amps.Value + Tolerant.Noise);
        var (side, design) = (Side(s), s.Work.Site.Design);
        var part = side.Parts.First(p => p.Id == charger);
        // The setting is the source's, where the part says which that is.
        bool Is(Source x) => x.Id == part.Item;
        var known = part.Amps is null && design.Banks.Any(b => b.Sources.Any(Is));
        yield return new($"Turn the charger down to {Say.Rating(amps)}", _ => "as long as the loads are on", s.Bank)
        {
            Whole = known
                ? design with
                {
                    Banks =
                    [
                        .. design.Banks.Select(b =>
                            b with
                            {
                                Sources =
                                [
                                    .. b.Sources.Select(x =>
                                        Is(x) ? x with { Settings = x.Settings with { Amps = new() { Value = amps } } } : x
                                    ),
                                ],
                            }
                        ),
                    ],
                }
                : design with
                {
                    AcSide = side with { Parts = [.. side.Parts.Select(p => p.Id == charger ? p with { Amps = amps } : p)] },
                },
        };
    }

    /// <summary>A circuit of their own, on the panel that has most of them.</summary>
    private static IEnumerable<MendOffer> Circuits(FindingScene s, AcBoardResult board)
    {
        var side = Side(s);
        var panel = side
            .Parts.Where(p => p.Kind == AcPartKind.Panel)
            .MaxBy(p =>
                side.Wires.Count(w =>
                    (w.From == p.Id || w.To == p.Id)
                    && side.Parts.Any(c => c.Kind == AcPartKind.Circuit && (c.Id == w.From || c.Id == w.To))
                )
            );
        if (panel is null || side.Parts.Count >= AcSideCheck.MostParts)
            yield break;
        var id = Free(side, "circuit");
        yield return Offer(
            s,
            $"A circuit for {(board.Unassigned.Count == 1 ? "it" : "them")} on {AcBoard.NameOf(panel)}",
            side with
            {
                Parts =
                [
                    .. side.Parts,
                    new()
                    {
                        Id = id,
                        Kind = AcPartKind.Circuit,
                        Name = "Further loads",
                        Loads = [.. board.Unassigned.Take(100)],
                    },
                ],
                Wires = [.. side.Wires, new() { From = panel.Id, To = id }],
            }
        );
    }
}

using InkyBadger.Core.AcSide;
using InkyBadger.Core.Design;

namespace InkyBadger.Core.Work;

/// <summary>The AC side of a design: which circuits live on what, in every position of its switches, and what is wrong in some.</summary>
internal sealed class AcBoard
{
    /// <summary>More are not listed one by one.</summary>
    private const int MostListed = 128;

    /// <summary>More positions are no board that anybody works.</summary>
    private const int MostTried = 512;

    private readonly SiteWork site;
    private readonly AcGraph graph;
    private readonly List<AcTrouble> troubles = [];
    private readonly Dictionary<string, (double W, double Va)> loads = [];

    private AcBoard(SiteWork site, AcGraph graph) => (this.site, this.graph) = (site, graph);

    /// <returns>Null: nobody has drawn an AC side.</returns>
    public static AcBoardResult? Work(SiteWork site) =>
        site.Design.AcSide.Parts.Count == 0 ? null : new AcBoard(site, AcGraph.Of(site.Design.AcSide)).Work();

    private AcBoardResult Work()
    {
        for (var i = 0; i < site.Count; i++)
            foreach (var row in site[i].Loads.Value?.Rows ?? [])
                if (row.Kind == LoadKind.Ac)
                {
                    var factor = site.Design.Banks[i].Demand.Loads.FirstOrDefault(l => l.Id == row.Id)?.PowerFactor ?? 1;
                    loads[row.Id] = (row.RunningW, row.RunningW / factor);
                }
        var switches = graph.Switches.ConvertAll(s => new AcSwitch(s.Id, NameOf(s), NamesOf(s)));
        List<AcChargerAt> chargers =
        [
            .. graph.Side.Parts.Where(p => p.Kind == AcPartKind.Charger).Select(p => new AcChargerAt(p.Id, ChargerOf(p)?.A)),
        ];
        var columns = AcColumns.Of(graph.Side);
        var assigned = graph.Side.Parts.SelectMany(p => p.Loads).ToHashSet();
        List<string> unassigned = [.. loads.Keys.Where(id => !assigned.Contains(id))];
        if (graph.Switches.Aggregate(1L, (n, s) => Math.Min(MostTried + 1, n * AcGraph.PositionsOf(s))) > MostTried)
            return new(
                0,
                switches,
                chargers,
                columns,
                [],
                [],
                unassigned,
                "The AC side has too many positions",
                $"Its switches make more than {MostTried} together: nobody turns them all, and this is not tried"
            );
        AcLoopResult tried;
        try
        {
            tried = graph.Try(BankOf);
        }
        catch (Refusal refusal)
        {
            return new(
                0,
                switches,
                chargers,
                columns,
                [],
                [],
                unassigned,
                "The AC side cannot be tried",
                $"{refusal.Field}: {refusal.Message}"
            );
        }
        Told(tried);
        var states = new List<AcState>();
        var everLive = new HashSet<string>();
        for (var place = 0; place < tried.States; place++)
        {
            var positions = graph.StateAt(place);
            var feeds = FeedsAt(positions, place);
            everLive.UnionWith(feeds.SelectMany(f => f.Circuits));
            if (place < MostListed)
                states.Add(
                    new(
                        positions,
                        Words(positions),
                        feeds,
                        [.. Circuits().Where(c => !feeds.Exists(f => f.Circuits.Contains(c.Id))).Select(c => c.Id)],
                        []
                    )
                );
        }
        foreach (var circuit in Circuits().Where(c => !everLive.Contains(c.Id)))
            troubles.Add(
                new(
                    AcTroubleKind.Unfed,
                    [circuit.Id],
                    0,
                    $"{NameOf(circuit)} is fed by nothing",
                    "In no position of the switches anything feeds it."
                )
            );
        List<AcTrouble> sorted = [.. troubles.OrderBy(t => t.Kind)];
        return new(
            tried.States,
            switches,
            chargers,
            columns,
            [.. states.Select((s, n) => s with { Troubles = [.. sorted.Index().Where(t => IsIn(t.Item, n)).Select(t => t.Index)] })],
            sorted,
            unassigned,
            HeadlineOf(sorted, tried.States),
            null
        );
    }

    private readonly Dictionary<AcTrouble, HashSet<int>> states = new(ReferenceEqualityComparer.Instance);

    /// <summary>Whether it is wrong in this state too: told once, but looked for in every one that is listed.</summary>
    private bool IsIn(AcTrouble trouble, int place) =>
        trouble.Kind switch
        {
            AcTroubleKind.Loop or AcTroubleKind.BackFeed => Together(trouble.Parts, place),
            AcTroubleKind.Ring => trouble.State == place,
            AcTroubleKind.Unfed => true,
            _ => trouble.State == place || states.GetValueOrDefault(trouble)?.Contains(place) == true,
        };

    private bool Together(IReadOnlyList<string> parts, int place)
    {
        var joined = graph.Joined(graph.StateAt(place));
        return graph.Legs.Any(leg =>
            joined.ContainsKey(AcGraph.NodeOf(parts[0], leg))
            && Reach(joined, AcGraph.NodeOf(parts[0], leg)).Contains(AcGraph.NodeOf(parts[1], leg))
        );
    }

    private IEnumerable<AcPart> Circuits() => graph.Side.Parts.Where(p => p.Kind == AcPartKind.Circuit);

    private string BankOf(AcPart part) => part.Bank ?? (site.Count == 1 ? site.Design.Banks[0].Id : $"of {part.Id}");

    internal static string NameOf(AcPart part) => AcNames.NameOf(part);

    private string NameOf(string id) => graph.Parts.TryGetValue(id, out var part) ? NameOf(part) : id;

    private static IReadOnlyList<string> NamesOf(AcPart part) =>
        [
            .. Enumerable
                .Range(1, AcGraph.PositionsOf(part))
                .Select(n => n <= part.Positions.Count && part.Positions[n - 1].Length > 0 ? part.Positions[n - 1] : $"{n}"),
        ];

    private string Words(IReadOnlyList<int> positions) =>
        graph.Switches.Count == 0
            ? "as it is wired"
            : string.Join(", ", graph.Switches.Select((s, i) => $"{NameOf(s)} at {NamesOf(s)[positions[i] - 1]}"));

    private string At(IReadOnlyList<int> positions) => graph.Switches.Count == 0 ? "as it is wired" : $"with {Words(positions)}";

    private void Told(AcLoopResult tried)
    {
        foreach (var loop in tried.Loops.DistinctBy(l => (AcGraph.PartOf(l.Inverter).Part, AcGraph.PartOf(l.Charger).Part)))
        {
            string[] parts = [AcGraph.PartOf(loop.Inverter).Part, AcGraph.PartOf(loop.Charger).Part];
            troubles.Add(
                new(
                    AcTroubleKind.Loop,
                    parts,
                    graph.PlaceOf(loop.State),
                    $"{Capital(NameOf(parts[1]))} hangs on {NameOf(parts[0])} of its own bank",
                    $"{Capital(At(loop.State))} the bank charges itself through inverter and charger: each round keeps a fifth of "
                        + "it as heat, until the bank is empty."
                )
            );
        }
        foreach (var ring in tried.Rings)
            troubles.Add(
                new(
                    AcTroubleKind.Ring,
                    [.. ring.Banks],
                    graph.PlaceOf(ring.State),
                    $"{Say.List([.. ring.Banks.Select(BankName)])} charge each other",
                    $"{Capital(At(ring.State))} each feeds the other’s charger: both empty into heat."
                )
            );
        foreach (var feed in tried.BackFeeds.DistinctBy(f => (AcGraph.PartOf(f.Sources[0]).Part, AcGraph.PartOf(f.Sources[1]).Part)))
        {
            List<string> parts = [.. feed.Sources.Select(s => AcGraph.PartOf(s).Part)];
            if (parts[0] == parts[1])
                continue;
            troubles.Add(
                new(
                    AcTroubleKind.BackFeed,
                    parts,
                    graph.PlaceOf(feed.State),
                    $"{Capital(NameOf(parts[0]))} and {NameOf(parts[1])} feed each other",
                    $"{Capital(At(feed.State))} two that are not in step stand on one part: the inverter burns out, and a plug that "
                        + "is pulled stays live at its pins."
                )
            );
        }
    }

    private string BankName(string id) =>
        site.Design.Banks.FirstOrDefault(b => b.Id == id) is { Name.Length: > 0 } bank ? bank.Name : $"bank {id}";

    private static string Capital(string text) => text.Length == 0 ? text : char.ToUpperInvariant(text[0]) + text[1..];

    /// <summary>What each source feeds in a state, on each leg.</summary>
    private List<AcFeed> FeedsAt(IReadOnlyList<int> positions, int place)
    {
        var joined = graph.Joined(positions);
        var feeds = new List<AcFeed>();
        foreach (var source in graph.Side.Parts.Where(AcGraph.Feeds))
        foreach (var leg in graph.Legs.Where(l => graph.IsOn(source, l)))
        {
            var reach = Reach(joined, AcGraph.NodeOf(source.Id, leg));
            List<AcPart> live = [.. reach.Select(n => graph.Parts[AcGraph.PartOf(n).Part])];
            List<AcPart> circuits = [.. live.Where(p => p.Kind == AcPartKind.Circuit)];
            double watts = 0,
                va = 0;
            foreach (var circuit in circuits)
            {
                // What hangs between both legs takes half of it from each.
                var share = leg != 0 && circuit.Leg == AcLeg.Both ? 0.5 : 1;
                watts += share * (circuit.Watts ?? 0);
                va += share * (circuit.Watts ?? 0);
                foreach (var id in circuit.Loads)
                    if (loads.TryGetValue(id, out var load))
                        (watts, va) = (watts + share * load.W, va + share * load.Va);
            }
            feeds.Add(Budget(source, leg, live, circuits, watts, va, place));
            Contacts(joined, source, leg, place);
        }
        return feeds;
    }

    private AcFeed Budget(AcPart source, int leg, List<AcPart> live, List<AcPart> circuits, double watts, double va, int place)
    {
        var feed = new AcFeed(
            source.Id,
            leg == 0 ? null : leg,
            [.. live.Where(p => p.Id != source.Id).Select(p => p.Id)],
            [.. circuits.Select(c => c.Id)],
            watts,
            null,
            null,
            null,
            0,
            0,
            null,
            null,
            true
        );
        var generator = source.Kind == AcPartKind.Generator;
        if (source.Kind == AcPartKind.Inverter || (generator ? source.Watts : source.Amps) is not > 0)
            return feed;
        // Chargers beside the first count as loads, but not in what is left for all of them.
        var own = (W: watts, Va: va);
        (double A, double V)? charger = null;
        var chargers = 0;
        foreach (var part in live.Where(p => p.Kind == AcPartKind.Charger))
        {
            if (ChargerOf(part) is not { } its)
                continue;
            chargers++;
            var share = leg != 0 && part.Leg == AcLeg.Both ? 0.5 : 1;
            if (charger is null)
            {
                charger = (its.A * share, its.V);
                continue;
            }
            var takes = share * its.A * its.V / AcBudget.UsualEfficiency;
            (watts, va) = (watts + takes, va + takes / AcBudget.UsualPowerFactor);
        }
        var result = AcBudget.Work(
            new(
                site.Design.Ac.Volts,
                generator ? null : source.Amps,
                generator ? source.Watts : null,
                watts,
                va > 0 ? Math.Min(1, watts / va) : 1,
                charger?.A,
                charger?.V,
                AltitudeM: Math.Clamp(site.Design.Place.AltitudeM ?? 0, 0, AcBudget.MostAltitudeM),
                AmbientC: Math.Clamp(site.Design.Place.AmbientC ?? 25, AcBudget.LeastC, AcBudget.MostC)
            )
        );
        var unit = generator ? "W" : "VA";
        foreach (var fail in result.Fails.Where(f => f != AcBudgetFailure.Relay))
        {
            var kind = fail == AcBudgetFailure.Trip ? AcTroubleKind.Trip : AcTroubleKind.Continuous;
            // The same supply and the same parts on it, whatever is turned elsewhere: told once.
            if (troubles.Find(t => t.Kind == kind && t.Parts[0] == source.Id) is { } known)
            {
                InStates(known).Add(place);
                continue;
            }
            var trouble = new AcTrouble(
                kind,
                [source.Id, .. live.Where(p => p.Kind == AcPartKind.Charger).Select(p => p.Id)],
                place,
                kind == AcTroubleKind.Trip
                    ? $"{Capital(NameOf(source))} trips with all of it on"
                    : $"{Capital(NameOf(source))} carries all of it, but not for hours",
                $"{Capital(At(graph.StateAt(place)))} {Say.Number(result.Asked)} {unit} are asked, {Say.Number(result.Available)} {unit} "
                    + $"may be taken for hours{Beside(result.ChargerFitsA, chargers)}."
            )
            {
                Amps = result.ChargerFitsA,
            };
            InStates(trouble).Add(place);
            troubles.Add(trouble);
        }
        return feed with
        {
            Available = result.Available,
            Asked = result.Asked,
            Remaining = result.Available - (generator ? own.W : own.Va),
            Chargers = chargers,
            ChargersAsk = result.Asked - (generator ? own.W : own.Va),
            ChargerA = chargers == 1 ? charger?.A : null,
            ChargerFitsA = chargers == 1 ? result.ChargerFitsA : null,
            Fits = result.Fits,
        };
    }

    /// <summary>One charger can be turned down; of several it is not said which.</summary>
    private static string Beside(double? chargerA, int chargers) =>
        chargers == 1 && chargerA is { } fits
            ? fits >= 1
                ? $"; a charger of {Say.Rating(Math.Floor(fits))} fits beside the rest"
                : "; no charger fits beside the rest"
            : "";

    private HashSet<int> InStates(AcTrouble trouble) => states.TryGetValue(trouble, out var known) ? known : states[trouble] = [];

    /// <summary>A charger's amperes and volts at its bank; null: nobody said.</summary>
    private (double A, double V)? ChargerOf(AcPart part)
    {
        if (site.Find(BankOf(part)) is not { } bank || bank.Voltage.Value is not { } voltage)
            return null;
        var source = bank.Document.Sources.FirstOrDefault(s => s.Id == part.Item);
        return (part.Amps ?? source?.Settings.Amps?.Value ?? source?.MadeForA) is > 0 and var amps ? (amps, voltage.GreatestV) : null;
    }

    /// <summary>Contacts on the way from a source against the least breaker before them.</summary>
    private void Contacts(Dictionary<string, List<string>> joined, AcPart source, int leg, int place)
    {
        if (source.Kind == AcPartKind.Inverter)
            return;
        var through = source.Kind == AcPartKind.Generator ? source.Watts / site.Design.Ac.Volts : source.Amps;
        if (through is not { } first)
            return;
        var start = AcGraph.NodeOf(source.Id, leg);
        var seen = new Dictionary<string, double> { [start] = first };
        var open = new Queue<string>([start]);
        while (open.TryDequeue(out var node))
            foreach (var next in joined[node])
            {
                var part = graph.Parts[AcGraph.PartOf(next).Part];
                if (seen.ContainsKey(next) || AcGraph.Feeds(part))
                    continue;
                var lets = seen[node];
                if (AcGraph.IsSwitch(part) && part.Amps is { } carries && joined[next].Count > 1 && Tolerant.Exceeds(lets, carries))
                {
                    if (troubles.Find(t => t.Kind == AcTroubleKind.Relay && t.Parts[0] == part.Id) is { } known)
                        InStates(known).Add(place);
                    else
                    {
                        var trouble = new AcTrouble(
                            AcTroubleKind.Relay,
                            [part.Id, source.Id],
                            place,
                            $"{Capital(NameOf(part))} carries {Say.Rating(carries)} behind {Say.Rating(lets)}",
                            $"{Capital(At(graph.StateAt(place)))} {NameOf(source)} can push {Say.Rating(lets)} through its contacts before "
                                + "anything opens: they weld or burn."
                        )
                        {
                            Amps = lets,
                        };
                        InStates(trouble).Add(place);
                        troubles.Add(trouble);
                    }
                }
                // A panel's own breaker lets no more through to what follows.
                seen[next] = part.Kind == AcPartKind.Panel && part.Amps is { } breaker ? Math.Min(lets, breaker) : lets;
                open.Enqueue(next);
            }
    }

    private static HashSet<string> Reach(Dictionary<string, List<string>> joined, string from)
    {
        var seen = new HashSet<string> { from };
        var open = new Queue<string>([from]);
        while (open.TryDequeue(out var node))
            foreach (var next in joined[node])
                if (seen.Add(next))
                    open.Enqueue(next);
        return seen;
    }

    private string HeadlineOf(List<AcTrouble> sorted, int count)
    {
        if (sorted.Count > 0)
            return sorted[0].Title;
        var tried = count == 1 ? "It has one state" : $"All {count} positions tried";
        return $"{tried}: no loop, nothing feeds back, and every breaker bears what hangs on it";
    }
}

using InkyBadger.Core.AcSide;
using InkyBadger.Core.Design;

namespace InkyBadger.Core.Work;

/// <summary>
/// The parts of an AC side as nodes and edges, on each leg apart: a transfer or selector is a node whose wires are closed at some of its
/// positions.
/// </summary>
internal sealed class AcGraph
{
    /// <summary>A wire on one leg, by its ends, and what must be turned how for it to be closed.</summary>
    public sealed record Edge(string A, string B, IReadOnlyList<(string Switch, IReadOnlyList<int> At)> Closed);

    private AcGraph(AcDrawing side) => Side = side;

    public AcDrawing Side { get; }
    public Dictionary<string, AcPart> Parts { get; } = [];
    public List<AcPart> Switches { get; } = [];

    /// <summary>Legs that there are: 0 alone, or 1 and 2.</summary>
    public IReadOnlyList<int> Legs => Side.Legs == AcLegs.Split ? [1, 2] : [0];
    public List<Edge> Edges { get; } = [];

    public static AcGraph Of(AcDrawing side)
    {
        var graph = new AcGraph(side);
        foreach (var part in side.Parts)
        {
            graph.Parts[part.Id] = part;
            if (IsSwitch(part))
                graph.Switches.Add(part);
        }
        foreach (var wire in side.Wires)
        {
            if (!graph.Parts.TryGetValue(wire.From, out var from) || !graph.Parts.TryGetValue(wire.To, out var to))
                continue;
            var closed = new List<(string, IReadOnlyList<int>)>(2);
            if (IsSwitch(from) && wire.FromAt.Count > 0)
                closed.Add((from.Id, wire.FromAt));
            if (IsSwitch(to) && wire.ToAt.Count > 0)
                closed.Add((to.Id, wire.ToAt));
            foreach (var leg in graph.Legs)
                if (graph.IsOn(from, leg) && graph.IsOn(to, leg))
                    graph.Edges.Add(new(NodeOf(from.Id, leg), NodeOf(to.Id, leg), closed));
        }
        return graph;
    }

    public static bool IsSwitch(AcPart part) => part.Kind is AcPartKind.Transfer or AcPartKind.Selector;

    public static bool Feeds(AcPart part) => part.Kind is AcPartKind.Plug or AcPartKind.Generator or AcPartKind.Inverter;

    public bool IsOn(AcPart part, int leg) => leg == 0 || part.Leg == AcLeg.Both || (int)part.Leg == leg;

    public static string NodeOf(string part, int leg) => leg == 0 ? part : $"{part}·{leg}";

    /// <summary>The part of a node, and its leg.</summary>
    public static (string Part, int Leg) PartOf(string node) =>
        node.Length > 2 && node[^2] == '·' ? (node[..^2], node[^1] - '0') : (node, 0);

    public static int PositionsOf(AcPart part) => Math.Max(2, part.Positions.Count);

    /// <summary>What the calculation takes; a wire between two switches goes over a part of its own.</summary>
    public AcLoopResult Try(Func<AcPart, string> bankOf)
    {
        var nodes = new List<AcNode>();
        foreach (var part in Side.Parts)
        foreach (var leg in Legs.Where(l => IsOn(part, l)))
            nodes.Add(
                new(
                    NodeOf(part.Id, leg),
                    part.Kind switch
                    {
                        AcPartKind.Plug or AcPartKind.Generator => AcNodeKind.Source,
                        AcPartKind.Inverter => AcNodeKind.Inverter,
                        AcPartKind.Charger => AcNodeKind.Charger,
                        _ => AcNodeKind.Panel,
                    },
                    part.Kind is AcPartKind.Inverter or AcPartKind.Charger ? bankOf(part) : null,
                    part.Group
                )
            );
        var edges = new List<AcEdge>();
        foreach (var (n, e) in Edges.Index())
        {
            switch (e.Closed)
            {
                case []:
                    edges.Add(new(e.A, e.B));
                    break;
                case [var one]:
                    edges.Add(new(e.A, e.B, one.Switch, one.At));
                    break;
                default:
                    var between = $"wire {n}";
                    nodes.Add(new(between, AcNodeKind.Panel));
                    edges.Add(new(e.A, between, e.Closed[0].Switch, e.Closed[0].At));
                    edges.Add(new(between, e.B, e.Closed[1].Switch, e.Closed[1].At));
                    break;
            }
        }
        return AcLoop.Every(nodes, [.. Switches.Select(s => new AcSelector(s.Id, PositionsOf(s)))], edges);
    }

    /// <summary>Who is joined to whom in a state, by wires that are closed.</summary>
    public Dictionary<string, List<string>> Joined(IReadOnlyList<int> positions)
    {
        var turned = Switches.Index().ToDictionary(s => s.Item.Id, s => positions[s.Index]);
        var joined = new Dictionary<string, List<string>>();
        foreach (var part in Side.Parts)
        foreach (var leg in Legs.Where(l => IsOn(part, l)))
            joined[NodeOf(part.Id, leg)] = [];
        foreach (var e in Edges)
            if (e.Closed.All(c => c.At.Contains(turned[c.Switch])))
            {
                joined[e.A].Add(e.B);
                joined[e.B].Add(e.A);
            }
        return joined;
    }

    /// <summary>The parts on the way from a node to a part, which is the last of them; null: they are not joined.</summary>
    public IReadOnlyList<AcPart>? Way(Dictionary<string, List<string>> joined, string from, string to)
    {
        var before = new Dictionary<string, string?> { [from] = null };
        var open = new Queue<string>([from]);
        while (open.TryDequeue(out var node))
        {
            if (PartOf(node).Part == to)
            {
                var way = new List<AcPart>();
                for (string? at = node; at is not null && at != from; at = before[at])
                    way.Insert(0, Parts[PartOf(at).Part]);
                return way;
            }
            foreach (var next in joined[node])
                if (before.TryAdd(next, node))
                    open.Enqueue(next);
        }
        return null;
    }

    /// <summary>The place of a state in the list of all: the last switch turns first.</summary>
    public int PlaceOf(IReadOnlyList<int> positions) =>
        Switches.Index().Aggregate(0, (n, s) => n * PositionsOf(s.Item) + positions[s.Index] - 1);

    public int[] StateAt(int place)
    {
        var state = new int[Switches.Count];
        for (var i = state.Length - 1; i >= 0; i--)
        {
            var positions = PositionsOf(Switches[i]);
            (state[i], place) = (place % positions + 1, place / positions);
        }
        return state;
    }
}

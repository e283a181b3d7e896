namespace InkyBadger.Core.AcSide;

/// <summary>What stands on the AC side.</summary>
public enum AcNodeKind
{
    Source,
    Inverter,
    Charger,
    Panel,
}

/// <summary>A shore plug, generator, inverter, charger or panel.</summary>
/// <param name="Bank">Of an inverter or a charger.</param>
/// <param name="Group">Those of one group run in step, and may stand together; null: none.</param>
public sealed record AcNode(string Name, AcNodeKind Kind, string? Bank = null, string? Group = null);

/// <summary>A switch, selector or transfer relay, by its positions [2 to 4].</summary>
public sealed record AcSelector(string Name, int Positions);

/// <summary>A connection: always closed, or at some positions (from 1) of a selector.</summary>
public sealed record AcEdge(string A, string B, string? Selector = null, IReadOnlyList<int>? At = null);

/// <summary>A charger of a bank hangs on an inverter of the same: with the first positions at which it does.</summary>
public sealed record AcChargeLoop(string Inverter, string Charger, IReadOnlyList<int> State);

/// <summary>Banks that charge each other round.</summary>
public sealed record AcRing(IReadOnlyList<string> Banks, IReadOnlyList<int> State);

/// <summary>Two that both feed.</summary>
public sealed record AcBackFeed(IReadOnlyList<string> Sources, IReadOnlyList<int> State);

/// <summary>
/// How many states were tried, and what is wrong in some of them, each told once with the first, in the order of the nodes.
/// </summary>
public sealed record AcLoopResult(
    int States,
    bool Safe,
    IReadOnlyList<AcChargeLoop> Loops,
    IReadOnlyList<AcRing> Rings,
    IReadOnlyList<AcBackFeed> BackFeeds
);

/// <summary>Every position of every switch of the AC side (method, 16.3). Bonds of neutral and earth are not in it.</summary>
public static class AcLoop
{
    /// <summary>More states than this are no switchboard one can read.</summary>
    public const int MostStates = 4096;

    public const int MostSelectors = 6,
        MostPositions = 4;

    /// <param name="nodes">At least one.</param>
    /// <param name="selectors">Six at most, of two to four positions; may be empty.</param>
    /// <param name="edges">At least one.</param>
    /// <exception cref="Refusal">Names that are not there or twice, positions a selector does not have, too many of them.</exception>
    public static AcLoopResult Work(IReadOnlyList<AcNode> nodes, IReadOnlyList<AcSelector> selectors, IReadOnlyList<AcEdge> edges)
    {
        if (nodes.Count == 0)
            Require.Refuse(nameof(nodes), "at least one");
        if (edges.Count == 0)
            Require.Refuse(nameof(edges), "at least one");
        if (selectors.Count > MostSelectors)
            Require.Refuse(nameof(selectors), $"{MostSelectors} at most");
        foreach (var s in selectors)
            Require.Within(s.Positions, 2, MostPositions, "positions");
        return Every(nodes, selectors, edges);
    }

    /// <summary>The same for a board as large as it was drawn, up to <see cref="MostStates"/>.</summary>
    internal static AcLoopResult Every(IReadOnlyList<AcNode> nodes, IReadOnlyList<AcSelector> selectors, IReadOnlyList<AcEdge> edges)
    {
        Check(nodes, selectors, edges);
        var states = selectors.Aggregate(1, (n, s) => n * s.Positions);
        var (loops, rings, feeds) = (new List<AcChargeLoop>(), new List<AcRing>(), new List<AcBackFeed>());
        for (var n = 0; n < states; n++)
            Try(nodes, edges, selectors, StateOf(n, selectors), loops, rings, feeds);
        var at = nodes.Index().ToDictionary(n => n.Item.Name, n => n.Index);
        var banks = Banks(nodes);
        return new(
            states,
            loops.Count + rings.Count + feeds.Count == 0,
            [.. loops.OrderBy(l => at[l.Inverter]).ThenBy(l => at[l.Charger])],
            [.. rings.Order(Comparer<AcRing>.Create((a, b) => ByBank(a, b, banks)))],
            [.. feeds.OrderBy(f => at[f.Sources[0]]).ThenBy(f => at[f.Sources[1]])]
        );
    }

    /// <summary>The banks in the order in which they first appear.</summary>
    private static Dictionary<string, int> Banks(IReadOnlyList<AcNode> nodes) =>
        nodes
            .Where(n => n.Kind is AcNodeKind.Inverter or AcNodeKind.Charger)
            .Select(n => n.Bank!)
            .Distinct()
            .Index()
            .ToDictionary(b => b.Item, b => b.Index);

    private static int ByBank(AcRing a, AcRing b, Dictionary<string, int> order)
    {
        foreach (var (x, y) in a.Banks.Zip(b.Banks))
            if (x != y)
                return order[x] - order[y];
        return a.Banks.Count - b.Banks.Count;
    }

    /// <summary>The last selector turns first.</summary>
    private static int[] StateOf(int n, IReadOnlyList<AcSelector> selectors)
    {
        var state = new int[selectors.Count];
        for (var i = selectors.Count - 1; i >= 0; i--)
            (state[i], n) = (n % selectors[i].Positions + 1, n / selectors[i].Positions);
        return state;
    }

    private static void Check(IReadOnlyList<AcNode> nodes, IReadOnlyList<AcSelector> selectors, IReadOnlyList<AcEdge> edges)
    {
        var names = new HashSet<string>();
        foreach (var node in nodes)
        {
            if (node.Name.Length == 0)
                Require.Refuse("name", "is empty");
            if (!names.Add(node.Name))
                Require.Refuse("name", $"“{node.Name}” stands twice");
            if (node.Kind is AcNodeKind.Inverter or AcNodeKind.Charger && node.Bank is null)
                Require.Refuse("bank", $"“{node.Name}” belongs to one");
        }
        var positions = new Dictionary<string, int>();
        var states = 1L;
        foreach (var s in selectors)
        {
            Require.AtLeast(s.Positions, 2, "positions");
            if (!positions.TryAdd(s.Name, s.Positions))
                Require.Refuse("name", $"“{s.Name}” stands twice");
            if ((states *= s.Positions) > MostStates)
                Require.Refuse(nameof(selectors), $"make more than {MostStates} states");
        }
        foreach (var e in edges)
        {
            if (!names.Contains(e.A))
                Require.Refuse("a", $"“{e.A}” is not there");
            if (!names.Contains(e.B))
                Require.Refuse("b", $"“{e.B}” is not there");
            if (e.A == e.B)
                Require.Refuse("b", "is where it begins");
            if (e.Selector is null)
                continue;
            if (!positions.TryGetValue(e.Selector, out var most))
                Require.Refuse("selector", $"“{e.Selector}” is not there");
            if (e.At is not { Count: > 0 } || e.At.Any(p => p < 1 || p > most))
                Require.Refuse("at", $"is a position of “{e.Selector}”, from 1 to {most}");
        }
    }

    private static void Try(
        IReadOnlyList<AcNode> nodes,
        IReadOnlyList<AcEdge> edges,
        IReadOnlyList<AcSelector> selectors,
        int[] state,
        List<AcChargeLoop> loops,
        List<AcRing> rings,
        List<AcBackFeed> feeds
    )
    {
        var part = Parts(nodes, edges, selectors, state);
        // A bank charges another where an inverter of the one and a charger of the other are joined.
        var charges = new Dictionary<string, SortedSet<string>>();
        for (var i = 0; i < nodes.Count; i++)
        for (var j = 0; j < nodes.Count; j++)
        {
            var (a, b) = (nodes[i], nodes[j]);
            if (part[i] != part[j] || i == j)
                continue;
            if (a.Kind == AcNodeKind.Inverter && b.Kind == AcNodeKind.Charger)
            {
                if (a.Bank != b.Bank)
                    (charges.TryGetValue(a.Bank!, out var to) ? to : charges[a.Bank!] = new(StringComparer.Ordinal)).Add(b.Bank!);
                else if (!loops.Exists(l => l.Inverter == a.Name && l.Charger == b.Name))
                    loops.Add(new(a.Name, b.Name, state));
            }
            else if (
                i < j
                && Feeds(a)
                && Feeds(b)
                && !(a.Group is not null && a.Group == b.Group)
                && !feeds.Exists(f => f.Sources[0] == a.Name && f.Sources[1] == b.Name)
            )
                feeds.Add(new([a.Name, b.Name], state));
        }
        foreach (var ring in Rings(charges, Banks(nodes)))
            if (!rings.Exists(r => r.Banks.SequenceEqual(ring)))
                rings.Add(new(ring, state));
    }

    private static bool Feeds(AcNode node) => node.Kind is AcNodeKind.Source or AcNodeKind.Inverter;

    /// <summary>Which part of the board each belongs to, undirected.</summary>
    private static int[] Parts(IReadOnlyList<AcNode> nodes, IReadOnlyList<AcEdge> edges, IReadOnlyList<AcSelector> selectors, int[] state)
    {
        int[] part = [.. Enumerable.Range(0, nodes.Count)];
        int Root(int i)
        {
            while (part[i] != i)
                i = part[i] = part[part[i]];
            return i;
        }
        var at = nodes.Index().ToDictionary(n => n.Item.Name, n => n.Index);
        var turned = selectors.Index().ToDictionary(s => s.Item.Name, s => state[s.Index]);
        foreach (var e in edges)
            if (e.Selector is null || e.At!.Contains(turned[e.Selector]))
                part[Root(at[e.A])] = Root(at[e.B]);
        return [.. Enumerable.Range(0, nodes.Count).Select(Root)];
    }

    /// <summary>Banks each of which charges, over others or at once, all of the rest of them: in the order they appear.</summary>
    private static IEnumerable<IReadOnlyList<string>> Rings(Dictionary<string, SortedSet<string>> charges, Dictionary<string, int> order)
    {
        HashSet<string> From(string bank)
        {
            var (seen, open) = (new HashSet<string>(), new Stack<string>([bank]));
            while (open.TryPop(out var at))
                foreach (var to in charges.GetValueOrDefault(at) ?? [])
                    if (seen.Add(to))
                        open.Push(to);
            return seen;
        }
        var reach = charges.Keys.ToDictionary(b => b, From);
        var told = new HashSet<string>();
        foreach (var bank in charges.Keys.OrderBy(b => order[b]))
        {
            if (!reach[bank].Contains(bank) || !told.Add(bank))
                continue;
            List<string> ring = [bank, .. reach[bank].Where(o => o != bank && reach.GetValueOrDefault(o)?.Contains(bank) == true)];
            told.UnionWith(ring);
            yield return [.. ring.OrderBy(b => order[b])];
        }
    }
}

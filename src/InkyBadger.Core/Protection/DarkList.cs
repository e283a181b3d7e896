namespace InkyBadger.Core.Protection;

/// <summary>Something that is fed, or feeds: by which of the others (none: a source of its own), whether it needs them all.</summary>
/// <param name="Watts">Of a load [W, ≥ 0].</param>
public sealed record FedNode(string Name, IReadOnlyList<string> FedBy, bool NeedsAll = false, bool IsLoad = false, double Watts = 0);

/// <summary>What is dead, which loads are lost and which kept, in the order given, with their watts; blackout: all are lost.</summary>
public sealed record DarkListResult(
    IReadOnlyList<string> Dead,
    IReadOnlyList<string> Lost,
    IReadOnlyList<string> Kept,
    double LostW,
    double KeptW,
    bool Blackout
);

/// <summary>What goes dark when something opens (method, 10.4). Currents are not known to it: what follows by them is opened too.</summary>
public static class DarkList
{
    /// <param name="nodes">At least one.</param>
    /// <param name="opens">At least one.</param>
    /// <exception cref="Refusal">A name that is empty, not there or twice, a ring of feeds, nothing that opens.</exception>
    public static DarkListResult Work(IReadOnlyList<FedNode> nodes, IReadOnlyList<string> opens)
    {
        var of = new Dictionary<string, FedNode>();
        foreach (var node in nodes)
        {
            Require.AtLeast(node.Watts, 0, "watts");
            if (node.Name.Length == 0)
                Require.Refuse("name", "is empty");
            if (!of.TryAdd(node.Name, node))
                Require.Refuse("name", $"“{node.Name}” stands twice");
        }
        foreach (var node in nodes)
            if (node.FedBy.FirstOrDefault(f => !of.ContainsKey(f)) is { } unknown)
                Require.Refuse("fedBy", $"“{unknown}” is not there");
        if (nodes.FirstOrDefault(n => n.FedBy.Distinct().Count() < n.FedBy.Count) is { } twice)
            Require.Refuse("fedBy", $"“{twice.Name}” is fed by one of them twice");
        if (opens.Count == 0)
            Require.Refuse(nameof(opens), "at least one");
        if (opens.FirstOrDefault(o => !of.ContainsKey(o)) is { } nobody)
            Require.Refuse(nameof(opens), $"“{nobody}” is not there");
        var dead = new Dictionary<string, bool>();
        foreach (var node in nodes)
            Settle(node, of, [.. opens], dead, []);
        List<FedNode> lost = [.. nodes.Where(n => n.IsLoad && dead[n.Name])];
        List<FedNode> kept = [.. nodes.Where(n => n.IsLoad && !dead[n.Name])];
        return new(
            [.. nodes.Where(n => dead[n.Name]).Select(n => n.Name)],
            [.. lost.Select(n => n.Name)],
            [.. kept.Select(n => n.Name)],
            lost.Sum(n => n.Watts),
            kept.Sum(n => n.Watts),
            lost.Count > 0 && kept.Count == 0
        );
    }

    /// <summary>Feeds first; a stack of one's own, for a chain may be long.</summary>
    private static void Settle(
        FedNode first,
        Dictionary<string, FedNode> of,
        HashSet<string> opens,
        Dictionary<string, bool> dead,
        HashSet<string> under
    )
    {
        var stack = new Stack<FedNode>([first]);
        while (stack.TryPeek(out var node))
        {
            if (dead.ContainsKey(node.Name))
            {
                stack.Pop();
                continue;
            }
            under.Add(node.Name);
            var waits = node.FedBy.Where(f => !dead.ContainsKey(f)).ToList();
            if (waits.Exists(under.Contains))
                Require.Refuse("fedBy", $"“{node.Name}” feeds itself, by a ring");
            if (waits.Count > 0)
            {
                stack.Push(of[waits[0]]);
                continue;
            }
            var without = node.NeedsAll ? node.FedBy.Any(f => dead[f]) : node.FedBy.All(f => dead[f]);
            dead[node.Name] = opens.Contains(node.Name) || node.FedBy.Count > 0 && without;
            under.Remove(node.Name);
            stack.Pop();
        }
    }
}

using InkyBadger.Core.Design;

namespace InkyBadger.Core.Work;

/// <summary>
/// The order in which an AC side is drawn, on screen and on paper alike: columns by what feeds what, supplies just before what they feed,
/// circuits last; within a column by where the parts stand that feed them.
/// </summary>
public static class AcColumns
{
    /// <summary>Ids of the parts, column by column from the left.</summary>
    public static IReadOnlyList<IReadOnlyList<string>> Of(AcDrawing side)
    {
        var rank = Ranks(side);
        var columns = side.Parts.GroupBy(p => rank[p.Id]).OrderBy(g => g.Key).Select(g => g.Select(p => p.Id).ToList()).ToList();
        var place = new Dictionary<string, double>();
        foreach (var column in columns)
        {
            // Where nothing that is placed is wired to it, a part stays behind those where something is.
            double Wanted(string id) =>
                side
                    .Wires.Where(w => w.From == id || w.To == id)
                    .Select(w => w.From == id ? w.To : w.From)
                    .Where(place.ContainsKey)
                    .Select(other => place[other])
                    .DefaultIfEmpty(double.MaxValue)
                    .Average();
            var sorted = column.Select(id => (Id: id, At: Wanted(id))).OrderBy(x => x.At).ToList();
            column.Clear();
            foreach (var (n, (id, _)) in sorted.Index())
            {
                place[id] = (n + 0.5) / sorted.Count;
                column.Add(id);
            }
        }
        return columns;
    }

    private static Dictionary<string, int> Ranks(AcDrawing side)
    {
        var rank = side.Parts.ToDictionary(p => p.Id, _ => 0);
        // As often as there are parts: a ring ends there too.
        for (var turn = 0; turn < side.Parts.Count; turn++)
        {
            var moved = false;
            foreach (var wire in side.Wires)
                if (rank.TryGetValue(wire.From, out var a) && rank.TryGetValue(wire.To, out var b) && b <= a && a + 1 <= side.Parts.Count)
                    (rank[wire.To], moved) = (a + 1, true);
            if (!moved)
                break;
        }
        foreach (var source in side.Parts.Where(AcGraph.Feeds))
            if (
                side.Wires.Where(w => w.From == source.Id && rank.ContainsKey(w.To)).Select(w => rank[w.To]).ToList() is { Count: > 0 } next
            )
                rank[source.Id] = Math.Max(0, next.Min() - 1);
        var most = side.Parts.Where(p => p.Kind != AcPartKind.Circuit).Select(p => rank[p.Id]).DefaultIfEmpty(0).Max();
        foreach (var circuit in side.Parts.Where(p => p.Kind == AcPartKind.Circuit))
            rank[circuit.Id] = Math.Max(rank[circuit.Id], most + 1);
        return rank;
    }
}

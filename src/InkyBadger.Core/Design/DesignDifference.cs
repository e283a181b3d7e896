using System.Text.Json;
using System.Text.Json.Nodes;

namespace InkyBadger.Core.Design;

/// <summary>The changes of the document that lead from one bank to another: what differs, and nothing else.</summary>
public static class DesignDifference
{
    /// <param name="before">As the document has it.</param>
    /// <param name="after">As it is to be.</param>
    /// <param name="pointer">The bank's JSON pointer in the document.</param>
    public static IReadOnlyList<DesignChange> Between(Bank before, Bank after, string pointer)
    {
        var changes = new List<DesignChange>();
        if (ReferenceEquals(before, after))
            return changes;
        Walk(
            JsonSerializer.SerializeToNode(before, DesignFormat.Options),
            JsonSerializer.SerializeToNode(after, DesignFormat.Options),
            pointer,
            changes
        );
        return changes;
    }

    private static void Walk(JsonNode? before, JsonNode? after, string at, List<DesignChange> changes)
    {
        if (JsonNode.DeepEquals(before, after))
            return;
        if (before is JsonObject a && after is JsonObject b && a.Count == b.Count && b.All(p => a.ContainsKey(p.Key)))
        {
            foreach (var (key, value) in b)
                Walk(
                    a[key],
                    value,
                    $"{at}/{key.Replace("~", "~0", StringComparison.Ordinal).Replace("/", "~1", StringComparison.Ordinal)}",
                    changes
                );
            return;
        }
        // A list that only grew at its end, or of which entries changed in their places.
        if (before is JsonArray { Count: > 0 } old && after is JsonArray list && list.Count >= old.Count && IsOfObjects(old))
        {
            for (var i = 0; i < old.Count; i++)
                Walk(old[i], list[i], $"{at}/{i}", changes);
            for (var i = old.Count; i < list.Count; i++)
                changes.Add(new(at + "/-", list[i]?.DeepClone()));
            return;
        }
        changes.Add(new(at, after?.DeepClone()));
    }

    private static bool IsOfObjects(JsonArray list) => list.All(e => e is JsonObject);
}

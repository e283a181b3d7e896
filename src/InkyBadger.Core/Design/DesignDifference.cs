using System.Text.Json;
using System.Text.Json.Nodes;

namespace InkyBadger.Core.Design;

/// <summary>The changes of the document that lead from one bank to another: what differs, and nothing else.</summary>
public static class DesignDifference
{
    /// <param name="before">As the document has it.</param>
    /// <param name="after">As it is to be.</param>
    /// <param name="pointer">The bank's JSON pointer in the document.</param>
    public static IReadOnlyList<DesignChange> Between(Bank before, Bank after, string pointer) =>
        ReferenceEquals(before, after) ? [] : Between(NodeOf(before), after, pointer);

    /// <inheritdoc cref="Between(Bank, Bank, string)"/>
    internal static IReadOnlyList<DesignChange> Between(JsonNode before, Bank after, string pointer)
    {
        var changes = new List<DesignChange>();
        Walk(before, NodeOf(after), pointer, changes);
        return changes;
    }

    /// <summary>The changes that lead from one design to another.</summary>
    public static IReadOnlyList<DesignChange> Between(DesignDocument before, DesignDocument after)
    {
        var changes = new List<DesignChange>();
        Walk(NodeOf(before), NodeOf(after), "", changes);
        return changes;
    }

    private static JsonNode NodeOf(DesignDocument design) => JsonSerializer.SerializeToNode(design, DesignFormat.Options)!;

    internal static JsonNode NodeOf(Bank bank) => JsonSerializer.SerializeToNode(bank, DesignFormat.Options)!;

    private static void Walk(JsonNode? before, JsonNode? after, string at, List<DesignChange> changes)
    {
        if (before is null && after is null)
            return;
        // The same type writes the same fields, in the same order.
        if (before is JsonObject a && after is JsonObject b && a.Count == b.Count)
        {
            foreach (var (key, value) in b)
                Walk(a[key], value, $"{at}/{key}", changes);
            return;
        }
        // A list that only grew at its end, or of which entries changed in their places.
        if (before is JsonArray { Count: > 0 } old && after is JsonArray list && list.Count >= old.Count && old[0] is JsonObject)
        {
            for (var i = 0; i < old.Count; i++)
                Walk(old[i], list[i], $"{at}/{i}", changes);
            for (var i = old.Count; i < list.Count; i++)
                changes.Add(new(at + "/-", list[i]?.DeepClone()));
            return;
        }
        if (!JsonNode.DeepEquals(before, after))
            changes.Add(new(at, after?.DeepClone()));
    }
}

using InkyBadger.Core.Design;

namespace InkyBadger.Core.Work;

/// <summary>The AC side of a document: parts each once, wires between parts that are there, positions that a switch has.</summary>
internal static class AcSideCheck
{
    public const int MostParts = 64;

    public static void Faults(DesignDocument design, List<DesignFault> faults)
    {
        var side = design.AcSide;
        var parts = new Dictionary<string, AcPart>();
        foreach (var (i, part) in side.Parts.Index())
        {
            var at = $"/acSide/parts/{i}";
            if (part.Id.Contains('·') || part.Id.StartsWith("wire ", StringComparison.Ordinal))
                faults.Add(new($"{at}/id", "has a “·” or begins with “wire ”, which mark legs and wires"));
            else if (!parts.TryAdd(part.Id, part))
                faults.Add(new($"{at}/id", $"“{part.Id}” stands twice"));
            if (part.Bank is { } bank && !design.Banks.Any(b => b.Id == bank))
                faults.Add(new($"{at}/bank", $"there is no bank “{bank}”"));
            if (AcGraph.IsSwitch(part) && part.Positions.Count == 1)
                faults.Add(new($"{at}/positions", "two or more, or none to leave them as numbers"));
        }
        foreach (var (i, wire) in side.Wires.Index())
        {
            var at = $"/acSide/wires/{i}";
            if (wire.From == wire.To)
                faults.Add(new($"{at}/to", "is the part it comes from"));
            End(parts, wire.From, wire.FromAt, $"{at}/from", faults);
            End(parts, wire.To, wire.ToAt, $"{at}/to", faults);
        }
    }

    private static void End(Dictionary<string, AcPart> parts, string id, IReadOnlyList<int> positions, string at, List<DesignFault> faults)
    {
        if (!parts.TryGetValue(id, out var part))
            faults.Add(new(at, $"there is no part “{id}”"));
        else if (positions.Count > 0 && !AcGraph.IsSwitch(part))
            faults.Add(new($"{at}At", "only a transfer or a selector has positions"));
        else if (positions.Any(p => p > AcGraph.PositionsOf(part)))
            faults.Add(new($"{at}At", $"it has {AcGraph.PositionsOf(part)} positions"));
    }
}

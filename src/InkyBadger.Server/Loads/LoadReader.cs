using System.Text.Json;
using System.Text.Json.Nodes;
using InkyBadger.Core.Design;
using InkyBadger.Server.Designs;

namespace InkyBadger.Server.Loads;

/// <summary>Holds single loads to the same schema and rules as a whole document.</summary>
public sealed class LoadReader(DesignReader designs)
{
    private const string Place = "/banks/0/demand/loads/0";

    /// <summary>The load, or the faults with pointers that begin at it.</summary>
    public (Load? Load, IReadOnlyList<DesignFault> Faults) Read(JsonNode? load)
    {
        var design = DesignFormat.Node(NewDesign.Empty("x"))!;
        design["banks"]![0]!["demand"]!["loads"] = new JsonArray(load?.DeepClone());
        var reading = designs.Read(design.ToJsonString());
        return reading.Design is { } good
            ? (good.Banks[0].Demand.Loads[0], [])
            : (
                null,
                [
                    .. reading.Faults.Select(f =>
                        f with
                        {
                            Pointer = f.Pointer.StartsWith(Place, StringComparison.Ordinal) ? f.Pointer[Place.Length..] : f.Pointer,
                        }
                    ),
                ]
            );
    }

    /// <summary>Faults of a load made here, each in words that name the field.</summary>
    public IReadOnlyList<DesignFault> Faults(Load load) => Read(JsonSerializer.SerializeToNode(load, DesignFormat.Options)).Faults;
}

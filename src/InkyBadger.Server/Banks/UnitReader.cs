using System.Text.Json;
using System.Text.Json.Nodes;
using InkyBadger.Core.Design;
using InkyBadger.Server.Designs;

namespace InkyBadger.Server.Banks;

/// <summary>Holds single units to the same schema and rules as a whole document.</summary>
public sealed class UnitReader(DesignReader designs)
{
    private const string Place = "/banks/0/unit";

    public (UnitItem? Unit, IReadOnlyList<DesignFault> Faults) Read(JsonNode? unit)
    {
        var design = DesignFormat.Node(NewDesign.Empty("x"))!;
        design["banks"]![0]!["unit"] = unit?.DeepClone();
        var reading = designs.Read(design.ToJsonString());
        return reading.Design is { } good
            ? (good.Banks[0].Unit, [])
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

    public IReadOnlyList<DesignFault> Faults(UnitItem unit) => Read(JsonSerializer.SerializeToNode(unit, DesignFormat.Options)).Faults;
}

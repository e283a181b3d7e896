using System.Text.Json.Nodes;
using InkyBadger.Core.Design;
using InkyBadger.Core.Inverters;
using InkyBadger.Server.Designs;
using InkyBadger.Storage;

namespace InkyBadger.Server.Inverters;

/// <summary>The catalogue of inverters judged for a design, and the user's own.</summary>
public static class InverterEndpoints
{
    private const string Place = "/banks/0/inverters/0/item";

    public static void MapInverters(this IEndpointRouteBuilder app)
    {
        var inverters = app.MapGroup("/api/inverters").WithTags("inverters");
        inverters
            .MapPost("", Judge)
            .WithSummary(
                "Catalogue and own inverters judged for a bank: those that fit first, the others with the reasons why not; "
                    + "nothing is stored"
            )
            .Accepts<JsonObject>("application/json")
            .Produces<IReadOnlyList<InverterTrial>>()
            .ProducesProblem(400);
        inverters
            .MapPut("/own/{key}", Keep)
            .WithSummary("Keep an inverter of one’s own")
            .Accepts<JsonObject>("application/json")
            .Produces(204)
            .ProducesProblem(400);
        inverters.MapDelete("/own/{key}", Drop).WithSummary("Take an own inverter out").Produces(204).ProducesProblem(404);
    }

    private static async Task<IResult> Judge(HttpRequest request, DesignReader reader, OwnItems own, int? bank, CancellationToken stop)
    {
        var mine = await own.ListAsync<InverterItem>(stop);
        return await reader.OfBankAsync(
            request,
            bank,
            (design, index) => InverterChoices.Work(design, index, [.. mine.Select(o => o.Item)]),
            stop
        );
    }

    private static Task<IResult> Keep(string key, HttpRequest request, DesignReader reader, OwnItems own, CancellationToken stop) =>
        OwnItemRequests.KeepAsync(key, request, own, "inverter", node => Read(reader, node), i => i.Name, i => i with { Key = key }, stop);

    /// <summary>Held to the same schema and rules as in a document.</summary>
    private static (InverterItem? Item, IReadOnlyList<DesignFault> Faults) Read(DesignReader reader, JsonNode? item)
    {
        var design = DesignFormat.Node(NewDesign.Empty("x"))!;
        design["banks"]![0]!["inverters"] = new JsonArray(new JsonObject { ["id"] = "i1", ["item"] = item });
        var reading = reader.Read(design.ToJsonString());
        return reading.Design is { } good
            ? (good.Banks[0].Inverters[0].Item, [])
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

    private static Task<IResult> Drop(string key, OwnItems own, CancellationToken stop) =>
        OwnItemRequests.DropAsync<InverterItem>(key, own, "inverter", stop);
}

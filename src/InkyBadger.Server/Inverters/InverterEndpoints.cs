using System.Text.Json;
using System.Text.Json.Nodes;
using InkyBadger.Core.Design;
using InkyBadger.Core.Inverters;
using InkyBadger.Server.Designs;
using InkyBadger.Server.Hosting;
using InkyBadger.Storage;

namespace InkyBadger.Server.Inverters;

/// <summary>The catalogue of inverters judged for a design, and the user's own.</summary>
public static class InverterEndpoints
{
    private const string Place = "/banks/0/inverters/0/item";

    public static void MapInverters(this IEndpointRouteBuilder app)
    {
        var inverters = app.MapGroup("/api/inverters").WithTags("inverters");
        inverters.MapPost("", Judge).WithSummary("Catalogue and own inverters judged for a bank: those that fit first, the others with the reasons why not; nothing is stored")
            .Accepts<JsonObject>("application/json").Produces<IReadOnlyList<InverterTrial>>().ProducesProblem(400);
        inverters.MapPut("/own/{key}", Keep).WithSummary("Keep an inverter of one’s own").Accepts<JsonObject>("application/json").Produces(204).ProducesProblem(400);
        inverters.MapDelete("/own/{key}", Drop).WithSummary("Take an own inverter out").Produces(204).ProducesProblem(404);
    }

    private static async Task<IResult> Judge(HttpRequest request, DesignReader reader, OwnItems own, int? bank, CancellationToken stop)
    {
        var reading = await reader.ReadAsync(request, stop);
        if (reading.Design is null) return Problems.NotAccepted(reading.Faults);
        var index = bank ?? 0;
        if (index < 0 || index >= reading.Design.Banks.Count) return Problems.NotAccepted([new("/banks", $"there is no bank {index}")]);
        return Results.Ok(InverterChoices.Work(reading.Design, index, [.. (await own.ListAsync<InverterItem>(stop)).Select(o => o.Item)]));
    }

    private static async Task<IResult> Keep(string key, HttpRequest request, DesignReader reader, OwnItems own, CancellationToken stop)
    {
        if (OwnKey.Fault(key) is { } fault) return fault;
        if (await Body.ReadAsync(request, 20_000, stop) is not { } bytes) return Problems.NotAccepted([new("", "is larger than an inverter may be")]);
        try
        {
            // Held to the same schema and rules as in a document.
            var design = DesignFormat.Node(NewDesign.Empty("x"))!;
            design["banks"]![0]!["inverters"] = new JsonArray(new JsonObject { ["id"] = "i1", ["item"] = JsonNode.Parse(bytes) });
            var reading = reader.Read(design.ToJsonString());
            if (reading.Design is null) return Problems.NotAccepted([.. reading.Faults.Select(f => f with { Pointer = f.Pointer.StartsWith(Place, StringComparison.Ordinal) ? f.Pointer[Place.Length..] : f.Pointer })]);
            if (reading.Design.Banks[0].Inverters[0].Item is not { Name.Length: > 0 } item) return Problems.NotAccepted([new("/name", "must not be empty: one finds it again by its name")]);
            return await own.KeepAsync(key, item.Name, item with { Key = key }, stop) ? Results.NoContent() : Problems.NotAccepted([new("", $"is one more than the {OwnItems.Most} own inverters that are kept")]);
        }
        catch (JsonException e)
        {
            return Problems.NotAccepted([new("", $"is not JSON: {e.Message}")]);
        }
    }

    private static async Task<IResult> Drop(string key, OwnItems own, CancellationToken stop) => await own.DropAsync<InverterItem>(key, stop)
        ? Results.NoContent()
        : Results.Problem(statusCode: StatusCodes.Status404NotFound, title: "No such inverter", detail: "There is no own inverter of that key.");
}

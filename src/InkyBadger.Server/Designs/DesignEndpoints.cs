using System.Globalization;
using System.Text.Json.Nodes;
using InkyBadger.Core;
using InkyBadger.Core.Design;
using InkyBadger.Storage;

namespace InkyBadger.Server.Designs;

/// <summary>A card of the shelf: the few figures that tell designs apart. Figures are null where they are not worked out yet.</summary>
public sealed record DesignCard(string Id, string Name, DateTime UpdatedUtc, int? SystemV, double? UsableWh, string Arrangement, int Wrong, int ToLookAt, string? FirstToDo);

/// <summary>A stored design and its revision.</summary>
public sealed record DesignAnswer(string Id, long Revision, DateTime UpdatedUtc, DesignDocument Design);

public static class DesignEndpoints
{
    public static void MapDesigns(this IEndpointRouteBuilder app)
    {
        var designs = app.MapGroup("/api/designs").WithTags("designs");
        designs.MapGet("", List).WithSummary("The shelf, newest first").Produces<List<DesignCard>>();
        designs.MapPost("", Add).WithSummary("Keep a new design; without a body an empty one").Accepts<JsonObject>("application/json").Produces<DesignAnswer>(201).ProducesProblem(400);
        designs.MapGet("/{id}", Get).WithSummary("A design").Produces<DesignAnswer>().ProducesProblem(404);
        designs.MapPut("/{id}", Replace).WithSummary("Keep a newer state; needs If-Match").Accepts<JsonObject>("application/json").Produces<DesignAnswer>()
            .ProducesProblem(400).ProducesProblem(404).ProducesProblem(412).ProducesProblem(428);
        designs.MapDelete("/{id}", Remove).WithSummary("Take a design off the shelf").Produces(204).ProducesProblem(404);
    }

    private static async Task<List<DesignCard>> List(DesignStore store, CancellationToken stop) => [.. (await store.ListAsync(stop)).Select(Card)];

    private static DesignCard Card(StoredDesign stored)
    {
        var evaluation = Evaluator.Evaluate(stored.Design);
        var bank = evaluation.Banks.Count > 0 ? evaluation.Banks[0] : null;
        return new(stored.Id, stored.Design.Name, stored.UpdatedUtc, bank?.Loads is null && bank?.Bank is null ? null : bank?.Voltage?.SystemV, bank?.Bank?.UsableWh,
            bank?.Bank is { } b ? $"{b.Series}S{b.Parallel}P" : "", evaluation.Counts.Wrong, evaluation.Counts.ToLookAt, evaluation.FirstToDo);
    }

    private static async Task<IResult> Add(HttpRequest request, DesignReader reader, DesignStore store, CancellationToken stop)
    {
        var design = NewDesign.Empty("New design");
        if (request.ContentLength > 0 || request.Headers.TransferEncoding.Count > 0)
        {
            var reading = await reader.ReadAsync(request, stop);
            if (reading.Design is null) return Problems.NotAccepted(reading.Faults);
            design = reading.Design;
        }
        var stored = await store.AddAsync(design, stop);
        return Answer(request.HttpContext, stored, 201);
    }

    private static async Task<IResult> Get(string id, HttpContext context, DesignStore store, CancellationToken stop) =>
        await store.FindAsync(id, stop) is { } stored ? Answer(context, stored) : Problems.NotFound(id);

    private static async Task<IResult> Replace(string id, HttpRequest request, DesignReader reader, DesignStore store, CancellationToken stop)
    {
        if (Revision(request) is not { } revision) return Problems.NoRevision();
        var reading = await reader.ReadAsync(request, stop);
        if (reading.Design is null) return Problems.NotAccepted(reading.Faults);
        var (outcome, now) = await store.ReplaceAsync(id, revision, reading.Design, stop);
        return outcome switch
        {
            WriteOutcome.NotFound => Problems.NotFound(id),
            WriteOutcome.Stale => Problems.Stale(),
            _ => Answer(request.HttpContext, now!),
        };
    }

    private static async Task<IResult> Remove(string id, DesignStore store, CancellationToken stop) =>
        await store.RemoveAsync(id, stop) ? Results.NoContent() : Problems.NotFound(id);

    private static long? Revision(HttpRequest request) =>
        long.TryParse(request.Headers.IfMatch.ToString().Trim('"'), NumberStyles.None, CultureInfo.InvariantCulture, out var revision) ? revision : null;

    private static IResult Answer(HttpContext context, StoredDesign stored, int status = 200)
    {
        context.Response.Headers.ETag = $"\"{stored.Revision}\"";
        var answer = new DesignAnswer(stored.Id, stored.Revision, stored.UpdatedUtc, stored.Design);
        return status == 201 ? Results.Created($"/api/designs/{stored.Id}", answer) : Results.Ok(answer);
    }
}

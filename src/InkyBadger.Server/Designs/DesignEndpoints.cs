using System.Globalization;
using System.Text.Json.Nodes;
using InkyBadger.Core.Demo;
using InkyBadger.Core.Design;
using InkyBadger.Storage;

namespace InkyBadger.Server.Designs;

/// <summary>A stored design, its revision, and whether it can be taken back or forward.</summary>
public sealed record DesignAnswer(string Id, long Revision, DateTime UpdatedUtc, DesignDocument Design, bool CanUndo, bool CanRedo);

/// <summary>A starting situation: its key, title and sentence.</summary>
public sealed record StartCard(string Key, string Title, string Words);

public static class DesignEndpoints
{
    public static void MapDesigns(this IEndpointRouteBuilder app)
    {
        var designs = app.MapGroup("/api/designs").WithTags("designs");
        designs.MapGet("", List).WithSummary("The shelf, newest first; bin=true: what was taken off it").Produces<List<DesignCard>>();
        designs
            .MapPost("", Add)
            .WithSummary("Keep a new design; without a body an empty one, or the starting situation that is named")
            .Accepts<JsonObject>("application/json")
            .Produces<DesignAnswer>(201)
            .ProducesProblem(400);
        designs.MapGet("/{id}", Get).WithSummary("A design").Produces<DesignAnswer>().ProducesProblem(404);
        app.MapGet("/api/starts", () => StartingSituations.All.Select(s => new StartCard(s.Key, s.Title, s.Words)).ToList())
            .WithTags("designs")
            .WithSummary("What a new design can begin with");
        Writes(
            designs
                .MapPut("/{id}", Replace)
                .WithSummary("Keep a newer state; needs If-Match; drops what was undone")
                .Accepts<JsonObject>("application/json")
                .ProducesProblem(400)
        );
        Writes(
            designs
                .MapPost("/{id}/undo", (string id, HttpRequest request, DesignStore store, CancellationToken stop) =>
                    Walk(id, request, store.UndoAsync, stop)
                )
                .WithSummary("One state back; needs If-Match, gives a new ETag")
                .ProducesProblem(409)
        );
        Writes(
            designs
                .MapPost("/{id}/redo", (string id, HttpRequest request, DesignStore store, CancellationToken stop) =>
                    Walk(id, request, store.RedoAsync, stop)
                )
                .WithSummary("One state forward; needs If-Match, gives a new ETag")
                .ProducesProblem(409)
        );
        designs.MapPost("/{id}/copy", Copy).WithSummary("A copy of a design").Produces<DesignAnswer>(201).ProducesProblem(404);
        designs
            .MapDelete("/{id}", Remove)
            .WithSummary("Take a design off the shelf into the bin, which keeps it 30 days")
            .Produces(204)
            .ProducesProblem(404);
        designs.MapPost("/{id}/restore", Restore).WithSummary("Take a design back out of the bin").Produces(204).ProducesProblem(404);
    }

    private static void Writes(RouteHandlerBuilder endpoint) =>
        endpoint.Produces<DesignAnswer>().ProducesProblem(404).ProducesProblem(412).ProducesProblem(428);

    private static async Task<List<DesignCard>> List(DesignStore store, ShelfCards cards, bool? bin, CancellationToken stop) =>
        await cards.OfAsync(await store.ListAsync(bin ?? false, stop), store, stop);

    private static async Task<IResult> Add(
        HttpRequest request,
        DesignReader reader,
        DesignStore store,
        CancellationToken stop,
        string? start = null
    )
    {
        var design = NewDesign.Empty("");
        if (start is not null)
        {
            var begun = start == "demo" ? DemoDesigns.All[0] : StartingSituations.All.FirstOrDefault(s => s.Key == start)?.Design;
            if (begun is null)
                return Problems.NotAccepted([new("/start", "is none of the starting situations")]);
            design = begun;
        }
        else if (request.ContentLength > 0 || request.Headers.TransferEncoding.Count > 0)
        {
            var reading = await reader.ReadAsync(request, stop);
            if (reading.Design is null)
                return Problems.NotAccepted(reading.Faults);
            design = reading.Design;
        }
        return Answer(request.HttpContext, await store.AddAsync(design, stop), 201);
    }

    private static async Task<IResult> Get(string id, HttpContext context, DesignStore store, CancellationToken stop) =>
        await store.FindAsync(id, stop) is { } stored ? Answer(context, stored) : Problems.NotFound(id);

    private static async Task<IResult> Replace(
        string id,
        HttpRequest request,
        DesignReader reader,
        DesignStore store,
        CancellationToken stop
    )
    {
        if (Revision(request) is not { } revision)
            return Problems.NoRevision();
        var reading = await reader.ReadAsync(request, stop);
        if (reading.Design is null)
            return Problems.NotAccepted(reading.Faults);
        return Ended(id, request.HttpContext, await store.ReplaceAsync(id, revision, reading.Design, stop));
    }

    private static async Task<IResult> Walk(
        string id,
        HttpRequest request,
        Func<string, long, CancellationToken, Task<(WriteOutcome, StoredDesign?)>> step,
        CancellationToken stop
    )
    {
        if (Revision(request) is not { } revision)
            return Problems.NoRevision();
        return Ended(id, request.HttpContext, await step(id, revision, stop));
    }

    private static async Task<IResult> Copy(string id, HttpContext context, DesignStore store, CancellationToken stop)
    {
        if (await store.FindAsync(id, stop) is not { } stored)
            return Problems.NotFound(id);
        const string ending = ", copy";
        // Counted in characters: a cut through the middle of one would leave half of it.
        var name = string.Concat(DesignName.Of(stored.Design).EnumerateRunes().Take(80 - ending.Length));
        return Answer(context, await store.AddAsync(stored.Design with { Name = name + ending, Demo = false }, stop), 201);
    }

    private static async Task<IResult> Remove(string id, DesignStore store, CancellationToken stop) =>
        await store.RemoveAsync(id, stop) ? Results.NoContent() : Problems.NotFound(id);

    private static async Task<IResult> Restore(string id, DesignStore store, CancellationToken stop) =>
        await store.RestoreAsync(id, stop) ? Results.NoContent() : Problems.NotFound(id);

    private static IResult Ended(string id, HttpContext context, (WriteOutcome Outcome, StoredDesign? Now) ended) =>
        ended.Outcome switch
        {
            WriteOutcome.NotFound => Problems.NotFound(id),
            WriteOutcome.Stale => Problems.Stale(),
            WriteOutcome.Nothing => Problems.NothingThere(),
            _ => Answer(context, ended.Now!),
        };

    private static long? Revision(HttpRequest request) =>
        long.TryParse(request.Headers.IfMatch.ToString().Trim('"'), NumberStyles.None, CultureInfo.InvariantCulture, out var revision)
            ? revision
            : null;

    private static IResult Answer(HttpContext context, StoredDesign stored, int status = 200)
    {
        context.RequestServices.GetRequiredService<ShelfCards>().Soon(stored);
        context.Response.Headers.ETag = $"\"{stored.Revision}\"";
        var answer = new DesignAnswer(stored.Id, stored.Revision, stored.UpdatedUtc, stored.Design, stored.CanUndo, stored.CanRedo);
        return status == 201 ? Results.Created($"/api/designs/{stored.Id}", answer) : Results.Ok(answer);
    }
}

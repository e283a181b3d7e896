using System.Text;
using System.Text.Json.Nodes;
using InkyBadger.Core.Design;
using InkyBadger.Core.Wiring;
using InkyBadger.Server.Designs;
using InkyBadger.Server.Hosting;
using InkyBadger.Storage;

namespace InkyBadger.Server.Cables;

/// <summary>Sizes and classes tried on a run, house rules tried on the design, and the schedules to build by.</summary>
public static class CableEndpoints
{
    public static void MapCables(this IEndpointRouteBuilder app)
    {
        var cables = app.MapGroup("/api/cables").WithTags("cables");
        cables
            .MapPost("/trials", Trials)
            .WithSummary("Every size and fuse class tried on a run; nothing is stored")
            .Accepts<JsonObject>("application/json")
            .Produces<RunTrialsResult>()
            .Produces(204)
            .ProducesProblem(400);
        cables
            .MapPost("/rules", Rules)
            .WithSummary("The house rules of cables and fuses, and what each other value would change; nothing is stored")
            .Accepts<JsonObject>("application/json")
            .Produces<IReadOnlyList<RuleEffects>>()
            .ProducesProblem(400);
        cables
            .MapPost("/schedules", Lists)
            .WithSummary("Fuse schedule and cable cut list; nothing is stored")
            .Accepts<JsonObject>("application/json")
            .Produces<SchedulesResult>()
            .Produces(204)
            .ProducesProblem(400);
        app.MapGet("/api/designs/{id}/fuses.csv", (string id, DesignStore store, int? bank, CancellationToken stop) =>
                Csv(id, store, bank, "fuses.csv", s => ScheduleCsv.Fuses(s.Fuses), stop)
            )
            .WithTags("cables")
            .WithSummary("A design’s fuse schedule as CSV")
            .Produces(200, contentType: "text/csv")
            .ProducesProblem(404);
        app.MapGet("/api/designs/{id}/cables.csv", (string id, DesignStore store, int? bank, CancellationToken stop) =>
                Csv(id, store, bank, "cables.csv", s => ScheduleCsv.Cables(s.Cables), stop)
            )
            .WithTags("cables")
            .WithSummary("A design’s cable cut list as CSV")
            .Produces(200, contentType: "text/csv")
            .ProducesProblem(404);
    }

    private static Task<IResult> Trials(HttpRequest request, DesignReader reader, int? bank, string? run, CancellationToken stop) =>
        reader.OfBankAsync(request, bank, (design, index) => RunTrials.Work(design, index, run ?? Run.MainId), stop);

    private static Task<IResult> Rules(HttpRequest request, DesignReader reader, int? bank, CancellationToken stop) =>
        reader.OfBankAsync(request, bank, (design, index) => CableRules.Work(design, index, stop), stop);

    private static Task<IResult> Lists(HttpRequest request, DesignReader reader, int? bank, CancellationToken stop) =>
        reader.OfBankAsync(request, bank, Schedules.Work, stop);

    /// <summary>A design that has no runs yet gives the columns alone.</summary>
    private static async Task<IResult> Csv(
        string id,
        DesignStore store,
        int? bank,
        string file,
        Func<SchedulesResult, string> write,
        CancellationToken stop
    )
    {
        if (
            await store.FindAsync(id, stop) is not { } stored
            || (bank ?? 0) is var index && (index < 0 || index >= stored.Design.Banks.Count)
        )
            return Problems.NotFound(id);
        return Results.File(Encoding.UTF8.GetBytes(write(Schedules.Work(stored.Design, index) ?? new([], [], [], []))), "text/csv", file);
    }
}

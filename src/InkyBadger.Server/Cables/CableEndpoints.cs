using System.Text;
using System.Text.Json.Nodes;
using InkyBadger.Core.Design;
using InkyBadger.Core.Wiring;
using InkyBadger.Server.Designs;
using InkyBadger.Server.Files;
using InkyBadger.Server.Hosting;
using InkyBadger.Storage;

namespace InkyBadger.Server.Cables;

/// <summary>Sizes and classes tried on a run, and the schedules to build by.</summary>
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
            .MapPost("/protection", Protection)
            .WithSummary("Who opens first in a short on a run, and whether its copper stands it until then; nothing is stored")
            .Accepts<JsonObject>("application/json")
            .Produces<ProtectionChartResult>()
            .Produces(204)
            .ProducesProblem(400);
        cables
            .MapPost("/schedules", Lists)
            .WithSummary("Fuse schedule and cable cut list; nothing is stored")
            .Accepts<JsonObject>("application/json")
            .Produces<SchedulesResult>()
            .Produces(204)
            .ProducesProblem(400);
        cables
            .MapPost("/dark", Dark)
            .WithSummary("What goes dark when any one thing opens; nothing is stored")
            .Accepts<JsonObject>("application/json")
            .Produces<DarkResult>()
            .Produces(204)
            .ProducesProblem(400);
        cables
            .MapPost("/drawer", Drawer)
            .WithSummary("What the copper at hand does for the runs, and what must be bought; nothing is stored")
            .Accepts<JsonObject>("application/json")
            .Produces<CopperDrawerResult>()
            .Produces(204)
            .ProducesProblem(400);
        cables
            .MapPost("/tables/csv", (HttpRequest request, CancellationToken stop) => CsvRequests.ReadAsync(request, TableCsv.Read, stop))
            .WithSummary("A table of one’s own as CSV: ampacities, a fuse’s curve, conductors or copper at hand; nothing is stored")
            .Accepts<string>("text/csv")
            .Produces<TableCsvAnswer>()
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

    private static Task<IResult> Protection(
        HttpRequest request,
        DesignReader reader,
        int? bank,
        string? run,
        double? amps,
        double? metres,
        CancellationToken stop
    ) => reader.OfBankAsync(request, bank, (design, index) => ProtectionChart.Work(design, index, run ?? Run.MainId, amps, metres), stop);

    private static Task<IResult> Dark(HttpRequest request, DesignReader reader, int? bank, CancellationToken stop) =>
        reader.OfBankAsync(request, bank, GoesDark.Work, stop);

    private static Task<IResult> Drawer(HttpRequest request, DesignReader reader, int? bank, CancellationToken stop) =>
        reader.OfBankAsync(request, bank, CopperDrawer.Work, stop);

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

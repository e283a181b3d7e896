using System.Text;
using System.Text.Json.Nodes;
using InkyBadger.Core.Design;
using InkyBadger.Core.Reference;
using InkyBadger.Server.Designs;
using InkyBadger.Server.Files;
using InkyBadger.Storage;

namespace InkyBadger.Server.Loads;

/// <summary>The library of loads: the typical ones that ship with it, and those the user keeps.</summary>
public sealed record LibraryAnswer(IReadOnlyList<LibraryLoad> Typical, IReadOnlyList<LibraryLoad> Own);

/// <summary>Loads in and out: the library, and lists as CSV.</summary>
public static class LoadEndpoints
{
    private const string OwnGroup = "own";

    public static void MapLoads(this IEndpointRouteBuilder app)
    {
        var loads = app.MapGroup("/api/loads").WithTags("loads");
        loads.MapGet("/library", Library).WithSummary("Common loads with typical figures, and the user’s own");
        loads
            .MapPut("/library/{key}", Keep)
            .WithSummary("Keep a load in the library under a key of one’s own")
            .Accepts<JsonObject>("application/json")
            .Produces(204)
            .ProducesProblem(400);
        loads.MapDelete("/library/{key}", Drop).WithSummary("Take an own load out of the library").Produces(204).ProducesProblem(404);
        loads
            .MapPost("/csv", Read)
            .WithSummary("Read a load list as CSV; nothing is stored")
            .WithDescription("The form is in docs/format/loads.md. Good lines come back as loads, bad ones with their line and why.")
            .Accepts<string>("text/csv")
            .Produces<LoadCsvAnswer>()
            .ProducesProblem(400);
        app.MapGet("/api/designs/{id}/loads.csv", Write)
            .WithTags("loads")
            .WithSummary("A bank’s load list as CSV")
            .Produces(200, contentType: "text/csv")
            .ProducesProblem(404);
    }

    private static async Task<LibraryAnswer> Library(OwnItems own, CancellationToken stop) =>
        new(LoadLibrary.All, [.. (await own.ListAsync<Load>(stop)).Select(o => new LibraryLoad(o.Key, OwnGroup, "", o.Item))]);

    private static Task<IResult> Keep(string key, HttpRequest request, LoadReader reader, OwnItems own, CancellationToken stop) =>
        OwnItemRequests.KeepAsync(key, request, own, "load", reader.Read, l => l.Name, l => l, stop);

    private static Task<IResult> Drop(string key, OwnItems own, CancellationToken stop) =>
        OwnItemRequests.DropAsync<Load>(key, own, "load", stop);

    private static Task<IResult> Read(HttpRequest request, LoadCsv csv, CancellationToken stop) =>
        CsvRequests.ReadAsync(request, csv.Read, stop);

    private static async Task<IResult> Write(string id, DesignStore store, int? bank, CancellationToken stop)
    {
        if (await store.FindAsync(id, stop) is not { } stored)
            return Problems.NotFound(id);
        var index = bank ?? 0;
        if (index < 0 || index >= stored.Design.Banks.Count)
            return Problems.NotAccepted([new("/banks", $"there is no bank {index}")]);
        return Results.File(Encoding.UTF8.GetBytes(LoadCsv.Write(stored.Design.Banks[index].Demand.Loads)), "text/csv", "loads.csv");
    }
}

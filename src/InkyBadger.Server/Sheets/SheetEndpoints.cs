using System.IO.Compression;
using System.Text.Json.Nodes;
using InkyBadger.Core.Design;
using InkyBadger.Core.Sheets;
using InkyBadger.Server.Designs;
using InkyBadger.Server.Files;
using InkyBadger.Server.Hosting;
using InkyBadger.Storage;

namespace InkyBadger.Server.Sheets;

/// <summary>What the builder, the supplier and the inspector take along: parts, labels, words; and all of it as one zip.</summary>
public static class SheetEndpoints
{
    public static void MapSheets(this IEndpointRouteBuilder app)
    {
        app.MapPost("/api/sheets", All)
            .WithTags("sheets")
            .WithSummary("All papers of a design, the wiring drawing among them, and how far it is built; nothing is stored")
            .Accepts<JsonObject>("application/json")
            .Produces<SheetsAnswer>()
            .ProducesProblem(400)
            .BoundAnswers();
        app.MapPost("/api/sheets/list", List)
            .WithTags("sheets")
            .WithSummary("The changes that a parts, cut or settings list makes which comes back filled in; nothing is stored")
            .Accepts<ListBackRequest>("application/json")
            .Produces<ListBackAnswer>()
            .ProducesProblem(400)
            .BoundAnswers();
        app.MapPost("/api/sheets/parts", Parts)
            .WithTags("sheets")
            .WithSummary("Every part of a design with what it costs, as far as that is known; nothing is stored")
            .Accepts<JsonObject>("application/json")
            .Produces<PartsResult>()
            .ProducesProblem(400);
        app.MapGet("/api/designs/{id}/sheets.zip", Everything)
            .WithTags("sheets")
            .WithSummary("A design’s papers in open formats: JSON, CSV, SVG, HTML, netlist, text")
            .Produces(200, contentType: "application/zip")
            .ProducesProblem(404);
        app.MapGet("/api/designs/{id}/sheets/{file}", One)
            .WithTags("sheets")
            .WithSummary("One of the papers that are in the zip, by its name")
            .Produces(200, contentType: "application/octet-stream")
            .ProducesProblem(404);
    }

    /// <param name="request">Holds the design.</param>
    /// <param name="reader">Reads it.</param>
    /// <param name="revision">Of what is kept, for the title block; null: it is not kept.</param>
    /// <param name="day">That revision’s day, as YYYY-MM-DD.</param>
    /// <param name="stop">When nobody waits for it any more.</param>
    private static async Task<IResult> All(HttpRequest request, DesignReader reader, long? revision, DateOnly? day, CancellationToken stop)
    {
        var reading = await reader.ReadAsync(request, stop);
        return reading.Design is { } design ? Results.Ok(SheetsAnswer.Of(design, revision, day)) : Problems.NotAccepted(reading.Faults);
    }

    /// <summary>A design and a list of it, each as large as it may be alone.</summary>
    private const int MostListBytes = DesignReader.MostBytes + 1_000_000;

    private static async Task<IResult> List(HttpRequest request, DesignReader reader, CancellationToken stop)
    {
        if (await Body.ReadAsync(request, MostListBytes, stop) is not { } bytes)
            return Problems.NotAccepted([new("", $"is larger than {MostListBytes / 1_000_000} MB, the most a design with a list may be")]);
        var (node, broken) = JsonText.Parse(bytes);
        if (broken is not null || node is not JsonObject { } asked)
            return Problems.NotAccepted([new("", $"is no design with a list: it {broken ?? "is no object"}")]);
        if (asked["csv"] is not JsonValue value || !value.TryGetValue<string>(out var csv))
            return Problems.NotAccepted([new("/csv", "is required, as text")]);
        if (asked["design"] is not { } document)
            return Problems.NotAccepted([new("/design", "is required")]);
        var reading = reader.Read(document.ToJsonString());
        return reading.Design is { } design
            ? Results.Ok(SheetListReader.Read(design, csv, stop))
            : Problems.NotAccepted([.. reading.Faults.Select(f => new DesignFault("/design" + f.Pointer, f.Reason))]);
    }

    private static async Task<IResult> Parts(HttpRequest request, DesignReader reader, CancellationToken stop)
    {
        var reading = await reader.ReadAsync(request, stop);
        return reading.Design is { } design ? Results.Ok(PartsList.Work(design)) : Problems.NotAccepted(reading.Faults);
    }

    private static async Task<IResult> Everything(string id, DesignStore store, CancellationToken stop)
    {
        if (await store.FindAsync(id, stop) is not { } stored)
            return Problems.NotFound(id);
        var packed = new MemoryStream();
        using (var zip = new ZipArchive(packed, ZipArchiveMode.Create, leaveOpen: true))
            foreach (var file in SheetFiles.Of(stored))
            {
                await using var to = await zip.CreateEntry(file.Name).OpenAsync(stop);
                await to.WriteAsync(file.Content(), stop);
            }
        return Results.File(packed.ToArray(), "application/zip", FileName.Of(DesignName.Of(stored.Design)) + "-sheets.zip");
    }

    private static async Task<IResult> One(string id, string file, DesignStore store, CancellationToken stop)
    {
        if (await store.FindAsync(id, stop) is not { } stored)
            return Problems.NotFound(id);
        return SheetFiles.Of(stored).FirstOrDefault(f => f.Name == file) is { } found
            ? Results.File(found.Content(), found.Type, $"{FileName.Of(DesignName.Of(stored.Design))}-{found.Name}")
            : Results.Problem(statusCode: 404, title: $"The design has no paper “{file}”");
    }
}

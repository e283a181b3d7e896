using System.IO.Compression;
using System.Text;
using System.Text.Json;
using System.Text.Json.Nodes;
using InkyBadger.Core;
using InkyBadger.Core.Design;
using InkyBadger.Core.Sheets;
using InkyBadger.Core.Trials;
using InkyBadger.Server.Cables;
using InkyBadger.Server.Designs;
using InkyBadger.Server.Files;
using InkyBadger.Storage;

namespace InkyBadger.Server.Sheets;

/// <summary>What the builder, the supplier and the inspector take along: parts, labels, words; and all of it as one zip.</summary>
public static class SheetEndpoints
{
    public static void MapSheets(this IEndpointRouteBuilder app)
    {
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
        var design = stored.Design;
        var packed = new MemoryStream();
        using (var zip = new ZipArchive(packed, ZipArchiveMode.Create, leaveOpen: true))
            foreach (var (name, content) in Files(design))
            {
                await using var to = await zip.CreateEntry(name).OpenAsync(stop);
                await to.WriteAsync(content, stop);
            }
        return Results.File(packed.ToArray(), "application/zip", FileName.Of(DesignName.Of(design)) + "-sheets.zip");
    }

    private static IEnumerable<(string Name, byte[] Content)> Files(DesignDocument design)
    {
        var evaluation = Evaluator.Evaluate(design, mends: false);
        var parts = PartsList.Work(design);
        var labels = LabelsResult.Work(design);
        SchedulesResult?[] lists = [.. Enumerable.Range(0, design.Banks.Count).Select(i => Schedules.Work(design, i))];
        yield return ("design.json", JsonSerializer.SerializeToUtf8Bytes(design, DesignFormat.Indented));
        yield return ("parts.csv", Csv(SheetCsv.Parts(parts)));
        yield return ("labels.csv", Csv(SheetCsv.Labels(labels.Sleeves)));
        yield return (
            "settings.csv",
            Csv(SheetCsv.Settings(evaluation.Banks.SelectMany(b => (b.Charging?.Cards ?? []).Select(c => (b.Name, c)))))
        );
        for (var i = 0; i < lists.Length; i++)
        {
            var of = lists.Length == 1 ? "" : $"-{i + 1}";
            var list = lists[i] ?? new([], [], [], []);
            yield return ($"cuts{of}.csv", Csv(ScheduleCsv.Cables(list.Cables)));
            yield return ($"fuses{of}.csv", Csv(ScheduleCsv.Fuses(list.Fuses)));
            if (Netlist.Of(design, i) is { } netlist)
                yield return ($"bank{of}.cir", Encoding.UTF8.GetBytes(netlist));
        }
        foreach (var (n, page) in LabelSvg.Pages(labels).Index())
            yield return ($"labels-{n + 1}.svg", Encoding.UTF8.GetBytes(page));
        yield return ("walk-through.txt", Encoding.UTF8.GetBytes(WalkThrough.Text(design)));
        yield return ("supplier.txt", Encoding.UTF8.GetBytes(SupplierBrief.Text(design)));
        yield return ("everything.html", Encoding.UTF8.GetBytes(SheetHtml.Of(design, evaluation, parts, lists)));
    }

    /// <summary>With the mark by which spreadsheets know UTF-8.</summary>
    private static byte[] Csv(string text) => [.. Encoding.UTF8.GetPreamble(), .. Encoding.UTF8.GetBytes(text)];
}

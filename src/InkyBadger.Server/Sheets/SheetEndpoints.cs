using System.Globalization;
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
using InkyBadger.Server.Hosting;
using InkyBadger.Server.Sheets.Drawing;
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
        var design = stored.Design;
        var packed = new MemoryStream();
        using (var zip = new ZipArchive(packed, ZipArchiveMode.Create, leaveOpen: true))
            foreach (var (name, content) in Files(stored))
            {
                await using var to = await zip.CreateEntry(name).OpenAsync(stop);
                await to.WriteAsync(content, stop);
            }
        return Results.File(packed.ToArray(), "application/zip", FileName.Of(DesignName.Of(design)) + "-sheets.zip");
    }

    private static IEnumerable<(string Name, byte[] Content)> Files(StoredDesign stored)
    {
        var design = stored.Design;
        var said = $"{stored.Revision}, {stored.UpdatedUtc.ToString("d MMM yyyy", CultureInfo.InvariantCulture)}";
        var papers = new PaperSite(design);
        var ledger = BuildLedger.Work(papers, stored.Revision);
        var drawing = WiringSheets.Of(papers, ledger, said);
        var evaluation = Evaluator.Evaluate(design, mends: false);
        var parts = PartsList.Work(papers);
        var labels = LabelsResult.Work(papers);
        SchedulesResult?[] lists = [.. Enumerable.Range(0, design.Banks.Count).Select(papers.Lists)];
        yield return ("design.json", JsonSerializer.SerializeToUtf8Bytes(design, DesignFormat.Indented));
        yield return ("parts.csv", Csv(SheetCsv.Parts(ledger, drawing, design)));
        yield return ("copper.csv", Csv(SheetCsv.Copper(ledger, drawing, design)));
        yield return ("labels.csv", Csv(SheetCsv.Labels(labels.Sleeves)));
        yield return (
            "settings.csv",
            Csv(SheetCsv.Settings(evaluation.Banks.SelectMany(b => (b.Charging?.Cards ?? []).Select(c => (b, c)))))
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
        foreach (var sheet in drawing.Sheets)
            yield return ($"wiring-{sheet.Number}.svg", Encoding.UTF8.GetBytes($"<?xml version=\"1.0\" encoding=\"UTF-8\"?>\n{sheet.Svg}"));
        foreach (var (n, page) in LabelSvg.Pages(labels).Index())
            yield return ($"labels-{n + 1}.svg", Encoding.UTF8.GetBytes(page));
        yield return ("walk-through.txt", Encoding.UTF8.GetBytes(WalkThrough.Text(design)));
        yield return ("supplier.txt", Encoding.UTF8.GetBytes(SupplierBrief.Text(design)));
        yield return ("everything.html", Encoding.UTF8.GetBytes(SheetHtml.Of(papers, evaluation, parts, lists, ledger, drawing)));
    }

    /// <summary>With the mark by which spreadsheets know UTF-8.</summary>
    private static byte[] Csv(string text) => [.. Encoding.UTF8.GetPreamble(), .. Encoding.UTF8.GetBytes(text)];
}

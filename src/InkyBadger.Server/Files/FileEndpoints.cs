using System.IO.Compression;
using System.Text.Json;
using System.Text.Json.Nodes;
using InkyBadger.Core.Design;
using InkyBadger.Server.Designs;
using InkyBadger.Server.Hosting;
using InkyBadger.Storage;

namespace InkyBadger.Server.Files;

/// <summary>Designs that came in.</summary>
public sealed record ImportAnswer(IReadOnlyList<ImportedDesign> Designs);

public sealed record ImportedDesign(string Id, string Name);

/// <summary>Designs as files in the open format, several as a zip; and a copy of the whole database.</summary>
public static class FileEndpoints
{
    private const string Zip = "application/zip";

    public static void MapFiles(this IEndpointRouteBuilder app)
    {
        var files = app.MapGroup("/api").WithTags("files");
        files
            .MapGet("/designs/{id}/file", One)
            .WithSummary("A design as a file in the open format")
            .Produces(200, contentType: "application/json")
            .ProducesProblem(404);
        files
            .MapGet("/designs.zip", Several)
            .WithSummary("Designs as files in a zip; ids separated by commas, without them the whole shelf")
            .Produces(200, contentType: Zip)
            .AskedByOurselvesOnly();
        files
            .MapPost("/import", Import)
            .WithSummary("Files in: one design as JSON, or a zip of them; all of them or none")
            .Accepts<JsonObject>("application/json", Zip, "*/*")
            .Produces<ImportAnswer>(201)
            .ProducesProblem(400);
        files
            .MapGet("/backup", Backup)
            .WithSummary("A consistent copy of the database")
            .Produces(200, contentType: "application/vnd.sqlite3")
            .AskedByOurselvesOnly();
    }

    /// <summary>A design that cannot be read goes out as the text it is.</summary>
    private static async Task<IResult> One(string id, DesignStore store, CancellationToken stop)
    {
        var entry = (await store.ListAsync(false, stop)).FirstOrDefault(e => e.Id == id);
        if (entry is null || !(await store.DocumentsAsync([id], stop)).TryGetValue(id, out var stored))
            return Problems.NotFound(id);
        return stored.Design is { } design
            ? Results.File(Written(design), "application/json", FileName.Of(DesignName.Of(design)) + ".json")
            : Results.File(System.Text.Encoding.UTF8.GetBytes(stored.Text), "text/plain", FileName.Of(entry.Name) + "-unreadable.txt");
    }

    private static byte[] Written(DesignDocument design) => JsonSerializer.SerializeToUtf8Bytes(design, DesignFormat.Indented);

    private static async Task<IResult> Several(DesignStore store, string? ids, CancellationToken stop)
    {
        var wanted = ids?.Split(',', StringSplitOptions.RemoveEmptyEntries).ToHashSet();
        var entries = (await store.ListAsync(false, stop)).Where(e => wanted is null || wanted.Contains(e.Id)).ToList();
        var documents = await store.DocumentsAsync([.. entries.Select(e => e.Id)], stop);
        var packed = new MemoryStream();
        using (var zip = new ZipArchive(packed, ZipArchiveMode.Create, leaveOpen: true))
        {
            var names = new HashSet<string>();
            foreach (var entry in entries)
            {
                if (!documents.TryGetValue(entry.Id, out var stored))
                    continue;
                var ending = stored.Design is null ? "-unreadable.txt" : ".json";
                var name = FileName.Of(entry.Name);
                var own = name + ending;
                for (var n = 2; !names.Add(own); n++)
                    own = $"{name}-{n}{ending}";
                await using var file = await zip.CreateEntry(own).OpenAsync(stop);
                await file.WriteAsync(
                    stored.Design is { } design ? Written(design) : System.Text.Encoding.UTF8.GetBytes(stored.Text),
                    stop
                );
            }
        }
        return Results.File(packed.ToArray(), Zip, "inky-badger-designs.zip");
    }

    /// <summary>A zip is known by its first bytes: every system calls it something else.</summary>
    private static async Task<IResult> Import(HttpRequest request, DesignReader reader, DesignStore store, CancellationToken stop)
    {
        if (await Body.ReadAsync(request, ZipReading.MostBytes, stop) is not { } bytes)
            return Problems.NotAccepted([new("", $"is larger than {ZipReading.MostBytes / 1_000_000} MB, the most a file may be")]);
        var (designs, faults) =
            bytes.AsSpan().StartsWith("PK"u8) ? await ZipReading.ReadAsync(bytes, reader, stop)
            : request.ContentType?.Contains("zip", StringComparison.OrdinalIgnoreCase) == true
                ? ([], [new("", "is no zip that can be read")])
            : Single(reader, bytes);
        if (faults.Count > 0)
            return Problems.NotAccepted(faults);
        var kept = await store.AddAllAsync(designs, stop);
        return Results.Created("/api/designs", new ImportAnswer([.. kept.Select(d => new ImportedDesign(d.Id, DesignName.Of(d.Design)))]));
    }

    private static (IReadOnlyList<DesignDocument>, IReadOnlyList<DesignFault>) Single(DesignReader reader, byte[] bytes)
    {
        var reading = bytes.Length > DesignReader.MostBytes ? new(null, [new("", DesignReader.TooLarge)]) : reader.Read(bytes);
        return reading.Design is { } design ? ([design], []) : ([], reading.Faults);
    }

    private static async Task<IResult> Backup(StartOptions options, TimeProvider clock, HttpContext context, CancellationToken stop)
    {
        var folder = Directory.CreateTempSubdirectory("inky-badger-backup-");
        context.Response.OnCompleted(() =>
        {
            folder.Delete(recursive: true);
            return Task.CompletedTask;
        });
        var copy = Path.Combine(folder.FullName, Database.FileName);
        await Storage.Backup.WriteAsync(options.DataFolder, copy, stop);
        return Results.File(copy, "application/vnd.sqlite3", $"inky-badger-{clock.GetUtcNow():yyyyMMdd-HHmm}.db");
    }
}

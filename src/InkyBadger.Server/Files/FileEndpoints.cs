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
    private const int MostFiles = 200;
    private const long MostZipBytes = 20_000_000;
    private const string Zip = "application/zip";

    public static void MapFiles(this IEndpointRouteBuilder app)
    {
        var files = app.MapGroup("/api").WithTags("files");
        files.MapGet("/designs/{id}/file", One).WithSummary("A design as a file in the open format").Produces(200, contentType: "application/json").ProducesProblem(404);
        files.MapGet("/designs.zip", Several).WithSummary("Designs as files in a zip; ids separated by commas, without them the whole shelf").Produces(200, contentType: Zip);
        files.MapPost("/import", Import).WithSummary("Files in: one design as JSON, or a zip of them; all of them or none")
            .Accepts<JsonObject>("application/json", Zip).Produces<ImportAnswer>(201).ProducesProblem(400);
        files.MapGet("/backup", Backup).WithSummary("A consistent copy of the database").Produces(200, contentType: "application/vnd.sqlite3");
    }

    private static async Task<IResult> One(string id, DesignStore store, CancellationToken stop) => await store.FindAsync(id, stop) is { } stored
        ? Results.File(Written(stored.Design), "application/json", FileName(stored.Design.Name) + ".json")
        : Problems.NotFound(id);

    private static byte[] Written(DesignDocument design) => JsonSerializer.SerializeToUtf8Bytes(design, DesignFormat.Indented);

    /// <summary>A name every file system takes.</summary>
    private static string FileName(string name)
    {
        var plain = string.Concat(name.Select(c => char.IsLetterOrDigit(c) ? char.ToLowerInvariant(c) : '-')).Trim('-');
        while (plain.Contains("--", StringComparison.Ordinal)) plain = plain.Replace("--", "-", StringComparison.Ordinal);
        return plain.Length == 0 ? "design" : plain[..Math.Min(60, plain.Length)];
    }

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
                var name = FileName(entry.Name);
                var own = name;
                for (var n = 2; !names.Add(own); n++) own = $"{name}-{n}";
                await using var file = await zip.CreateEntry(own + ".json").OpenAsync(stop);
                await file.WriteAsync(Written(documents[entry.Id]), stop);
            }
        }
        return Results.File(packed.ToArray(), Zip, "inky-badger-designs.zip");
    }

    private static async Task<IResult> Import(HttpRequest request, DesignReader reader, DesignStore store, CancellationToken stop)
    {
        var (designs, faults) = request.ContentType == Zip ? await Unpack(request, reader, stop) : await Single(request, reader, stop);
        if (faults.Count > 0) return Problems.NotAccepted(faults);
        var kept = await store.AddAllAsync(designs, stop);
        return Results.Created("/api/designs", new ImportAnswer([.. kept.Select(d => new ImportedDesign(d.Id, d.Design.Name))]));
    }

    private static async Task<(List<DesignDocument>, IReadOnlyList<DesignFault>)> Single(HttpRequest request, DesignReader reader, CancellationToken stop)
    {
        var reading = await reader.ReadAsync(request, stop);
        return reading.Design is { } design ? ([design], []) : ([], reading.Faults);
    }

    private static async Task<(List<DesignDocument>, IReadOnlyList<DesignFault>)> Unpack(HttpRequest request, DesignReader reader, CancellationToken stop)
    {
        static (List<DesignDocument>, IReadOnlyList<DesignFault>) No(string at, string reason) => ([], [new(at, reason)]);
        if (await Body.ReadAsync(request, MostZipBytes, stop) is not { } bytes) return No("", $"is larger than {MostZipBytes / 1_000_000} MB, the most a zip may be");
        var designs = new List<DesignDocument>();
        var faults = new List<DesignFault>();
        try
        {
            using var zip = new ZipArchive(new MemoryStream(bytes));
            var entries = zip.Entries.Where(e => e.Name.EndsWith(".json", StringComparison.OrdinalIgnoreCase)).ToList();
            if (entries.Count == 0) return No("", "holds no design file (.json)");
            if (entries.Count > MostFiles) return No("", $"holds more than {MostFiles} designs");
            foreach (var entry in entries)
            {
                // What an entry says of its own length is not believed; no more is read than a document may have.
                var text = new byte[DesignReader.MostBytes + 1];
                await using var file = await entry.OpenAsync(stop);
                var length = await file.ReadAtLeastAsync(text, text.Length, throwOnEndOfStream: false, stop);
                var reading = length > DesignReader.MostBytes ? new(null, [new("", $"is larger than {DesignReader.MostBytes / 1_000_000} MB, the most a design may be")]) : reader.Read(System.Text.Encoding.UTF8.GetString(text, 0, length));
                if (reading.Design is { } design) designs.Add(design);
                else faults.AddRange(reading.Faults.Select(f => new DesignFault($"{entry.Name}{f.Pointer}", f.Reason)));
            }
        }
        catch (InvalidDataException)
        {
            return No("", "is no zip that can be read");
        }
        return (designs, faults);
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
        await Database.BackupAsync(options.DataFolder, copy, stop);
        return Results.File(copy, "application/vnd.sqlite3", $"inky-badger-{clock.GetUtcNow():yyyyMMdd-HHmm}.db");
    }
}

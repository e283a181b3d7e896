using System.Globalization;
using System.Text;
using System.Text.Json;
using System.Text.Json.Nodes;
using InkyBadger.Core.Design;
using InkyBadger.Core.Logs;
using InkyBadger.Server.Designs;
using InkyBadger.Server.Hosting;
using InkyBadger.Storage;

namespace InkyBadger.Server.Logs;

/// <summary>The log of a bank: read against its plan, written into by hand, and taken out as files.</summary>
public static class LogEndpoints
{
    public static void MapLogs(this IEndpointRouteBuilder app)
    {
        var log = app.MapGroup("/api/designs/{id}/log").WithTags("log");
        log.MapPost("", Read)
            .WithSummary("The log of a bank against the plan of the design that is sent; nothing is stored")
            .Accepts<JsonObject>("application/json")
            .Produces<LogAnswer>()
            .ProducesProblem(400)
            .BoundAnswers();
        log.MapPost("/entries", Write)
            .WithSummary("Entries by hand, all of them or none")
            .Accepts<IReadOnlyList<LogEntry>>("application/json")
            .Produces<WrittenEntries>(201)
            .ProducesProblem(400)
            .ProducesProblem(404);
        log.MapDelete("/entries/{entry:long}", (string id, long entry, LogStore store, CancellationToken stop) =>
                Mark(store.MarkEntryAsync(id, entry, true, stop))
            )
            .WithSummary("Takes an entry back; it can be brought back until the bin is emptied")
            .Produces(204)
            .ProducesProblem(404);
        log.MapPost("/entries/{entry:long}/restore", (string id, long entry, LogStore store, CancellationToken stop) =>
                Mark(store.MarkEntryAsync(id, entry, false, stop))
            )
            .WithSummary("Brings an entry back")
            .Produces(204)
            .ProducesProblem(404);
        log.MapDelete("/series/{series:long}", (string id, long series, LogStore store, CancellationToken stop) =>
                Mark(store.MarkAsync(id, series, true, stop))
            )
            .WithSummary("Takes readings that came together out of the log; they can be brought back until the bin is emptied")
            .Produces(204)
            .ProducesProblem(404);
        log.MapPost("/series/{series:long}/restore", (string id, long series, LogStore store, CancellationToken stop) =>
                Mark(store.MarkAsync(id, series, false, stop))
            )
            .WithSummary("Brings them back")
            .Produces(204)
            .ProducesProblem(404);
        log.MapGet("/readings.csv", Readings)
            .WithSummary("Every reading of a bank as it is kept, as CSV")
            .Produces(200, contentType: "text/csv")
            .ProducesProblem(404);
        log.MapPost("/units.csv", Units)
            .WithSummary("The ledger of a bank’s units as CSV")
            .Accepts<JsonObject>("application/json")
            .Produces(200, contentType: "text/csv")
            .ProducesProblem(400);
        log.MapPost("/upkeep.ics", UpkeepCalendar)
            .WithSummary("What of upkeep is due, as a calendar")
            .Accepts<JsonObject>("application/json")
            .Produces(200, contentType: "text/calendar")
            .ProducesProblem(400);
    }

    private static async Task<IResult> Mark(Task<bool> done) =>
        await done ? Results.NoContent() : Results.Problem(statusCode: 404, title: "Nothing of that number is in this log");

    /// <summary>A design’s bank by its place, read from the request.</summary>
    private static async Task<IResult> Of(
        HttpRequest request,
        DesignReader reader,
        int? bank,
        Func<DesignDocument, int, Task<IResult>> work,
        CancellationToken stop
    )
    {
        var reading = await reader.ReadAsync(request, stop);
        if (reading.Design is not { } design)
            return Problems.NotAccepted(reading.Faults);
        var index = bank ?? 0;
        return index < 0 || index >= design.Banks.Count
            ? Problems.NotAccepted([new("/banks", $"there is no bank {index.ToString(CultureInfo.InvariantCulture)}")])
            : await work(design, index);
    }

    private static Task<IResult> Read(
        HttpRequest request,
        DesignReader reader,
        LogReader logs,
        string id,
        int? bank,
        string? from,
        int? days,
        CancellationToken stop
    ) =>
        Of(
            request,
            reader,
            bank,
            async (design, index) =>
            {
                DateOnly? first = null;
                if (from is not null)
                {
                    if (
                        !DateOnly.TryParseExact(from, "yyyy-MM-dd", CultureInfo.InvariantCulture, DateTimeStyles.None, out var day)
                        || day.Year is < 2000 or > 2200
                    )
                        return Problems.NotAccepted([new("from", "is a day as YYYY-MM-DD")]);
                    first = day;
                }
                return Results.Ok(await logs.ReadAsync(id, design, index, first, days, stop));
            },
            stop
        );

    private static async Task<IResult> Write(HttpRequest request, LogStore store, string id, string? bank, CancellationToken stop)
    {
        if (await Body.ReadAsync(request, 1_000_000, stop) is not { } bytes)
            return Problems.NotAccepted([new("", "is larger than 1 MB, the most that is written at once")]);
        List<LogEntry>? entries;
        try
        {
            entries = JsonSerializer.Deserialize<List<LogEntry>>(bytes, DesignFormat.Options);
        }
        catch (JsonException e)
        {
            return Problems.NotAccepted([new(e.Path ?? "", "is no list of entries as they are written")]);
        }
        if (entries is null or { Count: 0 } || entries.Contains(null!))
            return Problems.NotAccepted([new("", "is no list of entries")]);
        List<DesignFault> faults =
        [
            .. entries
                .SelectMany(
                    (e, i) => e.Faults().Select(f => new DesignFault($"/{i.ToString(CultureInfo.InvariantCulture)}/{f.Field}", f.Why))
                )
                .Take(20),
        ];
        if (faults.Count > 0)
            return Problems.NotAccepted(faults);
        if (!await store.IsThereAsync(id, stop))
            return Problems.NotFound(id);
        return await store.WriteAsync(id, Bank(bank), entries, stop) is { } ids
            ? Results.Created($"/api/designs/{id}/log", new WrittenEntries(ids))
            : Problems.NotAccepted([new("", $"would make more than {LogStore.MostEntries} entries")]);
    }

    /// <summary>A bank’s id, as it is kept: the first bank of a new design has this one.</summary>
    internal static string Bank(string? bank) =>
        string.IsNullOrWhiteSpace(bank) ? "b1"
        : bank.Length > 80 ? bank[..80]
        : bank;

    private static async Task<IResult> Readings(LogStore store, string id, string? bank, long? series, CancellationToken stop)
    {
        if (!await store.IsThereAsync(id, stop))
            return Problems.NotFound(id);
        var all = (await store.SeriesAsync(id, Bank(bank), stop))
            .Where(s => series is null || s.Id == series)
            .OrderBy(s => s.FirstAt)
            .ToList();
        if (all.Count == 0)
            return Results.Problem(statusCode: 404, title: "Nothing of that number is in this log");
        return Results.Stream(to => LogCsv.WriteAsync(to, store, all, stop), "text/csv", "readings.csv");
    }

    private static Task<IResult> Units(
        HttpRequest request,
        DesignReader reader,
        LogReader logs,
        string id,
        int? bank,
        CancellationToken stop
    ) =>
        Of(
            request,
            reader,
            bank,
            async (design, index) =>
                Results.File(
                    Encoding.UTF8.GetBytes(LogCsv.Units((await logs.ReadAsync(id, design, index, null, null, stop)).View.Units)),
                    "text/csv",
                    "units.csv"
                ),
            stop
        );

    private static Task<IResult> UpkeepCalendar(
        HttpRequest request,
        DesignReader reader,
        LogReader logs,
        TimeProvider clock,
        string id,
        int? bank,
        CancellationToken stop
    ) =>
        Of(
            request,
            reader,
            bank,
            async (design, index) =>
            {
                var view = (await logs.ReadAsync(id, design, index, null, null, stop)).View;
                return Results.File(
                    Encoding.UTF8.GetBytes(UpkeepIcs.Of(view.Upkeep, DesignName.Of(design), id, design.Banks[index].Id, clock.GetUtcNow())),
                    "text/calendar",
                    "upkeep.ics"
                );
            },
            stop
        );
}

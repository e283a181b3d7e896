using System.Globalization;
using System.Text;
using System.Text.Json;
using System.Text.Json.Nodes;
using InkyBadger.Core.Design;
using InkyBadger.Core.Logs;
using InkyBadger.Core.Reference;
using InkyBadger.Server.Designs;
using InkyBadger.Server.Files;
using InkyBadger.Server.Hosting;
using InkyBadger.Storage;
using Microsoft.AspNetCore.Http.Features;

namespace InkyBadger.Server.Logs;

/// <summary>What brings readings: files of monitors, and the made-up monitor, day by day or live.</summary>
public static class MonitorEndpoints
{
    private const int MostHead = 200_000,
        MostColumn = 199,
        MostMadeUpDays = 365;

    public static void MapMonitors(this IEndpointRouteBuilder app)
    {
        app.MapPost("/api/monitor-files/recognise", Recognise)
            .WithTags("log")
            .WithSummary("How a monitor’s file is written, by its first lines; nothing is stored")
            .Accepts<string>("text/plain", "text/csv")
            .Produces<MonitorShape>()
            .ProducesProblem(400);
        var log = app.MapGroup("/api/designs/{id}/log").WithTags("log");
        log.MapPost("/files", TakeIn)
            .WithSummary("A monitor’s file in, a line of JSON now and then; whoever leaves has taken in nothing")
            .Accepts<string>("text/csv", "*/*")
            .Produces<ImportLine>(contentType: JsonLines.Type)
            .ProducesProblem(400)
            .ProducesProblem(404)
            .AskedByOurselvesOnly();
        log.MapPost("/made-up", MakeUp)
            .WithSummary("Days of a made-up monitor into the log of a bank, plainly marked")
            .Accepts<JsonObject>("application/json")
            .Produces<LogSeriesLine>(201)
            .ProducesProblem(400)
            .ProducesProblem(404)
            .AskedByOurselvesOnly();
        log.MapPost("/live", Start)
            .WithSummary("Starts a made-up monitor that reads on; off until then")
            .Accepts<JsonObject>("application/json")
            .Produces<LiveState>(201)
            .ProducesProblem(400)
            .ProducesProblem(404)
            .AskedByOurselvesOnly();
        log.MapDelete("/live", Stop).WithSummary("Stops it; what it has read stays").Produces(204);
        log.MapGet("/live", Watch)
            .WithSummary("What it reads, as server-sent events")
            .Produces<LiveReading>(contentType: "text/event-stream")
            .ProducesProblem(404);
    }

    private static async Task<IResult> Recognise(HttpRequest request, CancellationToken stop) =>
        await Body.ReadAsync(request, MostHead, stop) is { } bytes
            ? Results.Ok(MonitorCsv.Recognise(Encoding.UTF8.GetString(bytes).TrimStart('\uFEFF')))
            : Problems.NotAccepted([new("", "is more than the first lines of a file")]);

    private static async Task<IResult> TakeIn(
        HttpContext context,
        LogStore store,
        DataFolder folder,
        string id,
        string? bank,
        string? name,
        string? shape,
        double? ratedAh,
        double? nominalV,
        CancellationToken stop
    )
    {
        if (ShapeOf(shape) is not { } told)
            return Problems.NotAccepted([new("shape", "does not say how the file is written")]);
        if (!(ratedAh is null or > 0 and < 1e6) || !(nominalV is null or > 0 and < 1000))
            return Problems.NotAccepted([new("ratedAh", "and nominalV are of a bank")]);
        if (ratedAh is null && told is { Charge: not null, ChargeUnit: ChargeUnit.AhLeft or ChargeUnit.AhOut })
            return Problems.NotAccepted([new("ratedAh", "is not known yet, and the file tells charge in Ah: choose the bank first")]);
        if (!await store.IsThereAsync(id, stop))
            return Problems.NotFound(id);
        if (context.Features.Get<IHttpMaxRequestBodySizeFeature>() is { IsReadOnly: false } size)
            size.MaxRequestBodySize = MonitorImport.MostBytes + 1;
        var import = new MonitorImport(store, folder.Path);
        if (await import.LayDownAsync(context.Request.Body, stop) is not { } file)
            return Problems.NotAccepted([new("", $"is larger than {MonitorImport.MostBytes / 1_000_000} MB, the most a file may be")]);
        var called =
            string.IsNullOrWhiteSpace(name) ? "a file"
            : name.Length > 120 ? name[..120]
            : name;
        return Results.Stream(
            async body =>
            {
                await using (file)
                    await foreach (
                        var line in import.RunAsync(id, LogEndpoints.Bank(bank), called, file, told, ratedAh ?? 100, nominalV ?? 12, stop)
                    )
                    {
                        await JsonLines.WriteAsync(body, line, stop);
                        await body.FlushAsync(stop);
                    }
            },
            JsonLines.Type
        );
    }

    /// <summary>Null: it is none, or names what no file has.</summary>
    private static MonitorShape? ShapeOf(string? text)
    {
        try
        {
            if (text is null || JsonSerializer.Deserialize<MonitorShape>(text, DesignFormat.Options) is not { } s)
                return null;
            int?[] columns = [s.Time, s.Clock, s.Volts, s.Amps, s.Charge, s.Watts, s.Temperature];
            return
                ";,\t|".Contains(s.Separator)
                && s.HeaderLines is >= 0 and <= 1000
                && Array.TrueForAll(columns, c => c is null or (>= 0 and <= MostColumn))
                && Enum.IsDefined(s.TimeForm)
                && Enum.IsDefined(s.ChargeUnit)
                ? s
                : null;
        }
        catch (JsonException)
        {
            return null;
        }
    }

    private static async Task<IResult> MakeUp(
        HttpRequest request,
        DesignReader reader,
        LogStore store,
        string id,
        int? bank,
        double? seed,
        string? from,
        int? days,
        CancellationToken stop
    )
    {
        var reading = await reader.ReadAsync(request, stop);
        if (reading.Design is not { } design)
            return Problems.NotAccepted(reading.Faults);
        var index = bank ?? 0;
        if (index < 0 || index >= design.Banks.Count)
            return Problems.NotAccepted([new("/banks", "there is no such bank")]);
        var count = days ?? 7;
        if (!(seed is null or >= 0 and <= 1L << 53) || count is < 1 or > MostMadeUpDays)
            return Problems.NotAccepted([new("days", $"is from 1 to {MostMadeUpDays}, and seed a whole number")]);
        if (
            !DateOnly.TryParseExact(from, "yyyy-MM-dd", CultureInfo.InvariantCulture, DateTimeStyles.None, out var first)
            || first.Year is < 2000 or > 2200
        )
            return Problems.NotAccepted([new("from", "is a day as YYYY-MM-DD")]);
        if (!await store.IsThereAsync(id, stop))
            return Problems.NotFound(id);
        MadeUpMonitor monitor;
        double nominalV;
        var number = Math.Floor(seed ?? 1);
        try
        {
            nominalV = new LogPlan(new SiteWork(design)[index]).NominalV;
            monitor = new(design, index, first, count, number);
        }
        catch (Missing missing)
        {
            return Problems.NotAccepted([new(missing.Gap.Place, missing.Gap.Sentence)]);
        }
        if (
            await store.BeginAsync(id, design.Banks[index].Id, "simulated", $"Made-up monitor, number {number:0}", number, stop)
            is not { } series
        )
            return Problems.NotAccepted([new("/log", $"has {LogStore.MostSeries} series already")]);
        try
        {
            await KeepDaysAsync(store, series, monitor, nominalV, count, stop);
        }
        catch
        {
            // Half of it is none.
            await store.AbandonAsync(series);
            throw;
        }
        var kept = (await store.SeriesAsync(id, design.Banks[index].Id, stop)).First(s => s.Id == series);
        return Results.Created($"/api/designs/{id}/log", LogSeriesLine.Of(kept));
    }

    /// <summary>All its days, each kept as it is over.</summary>
    private static async Task KeepDaysAsync(
        LogStore store,
        long series,
        MadeUpMonitor monitor,
        double nominalV,
        int days,
        CancellationToken stop
    )
    {
        var slots = new List<LogSlot>();
        var maker = new SlotMaker(nominalV, slots.Add);
        while (monitor.NextDay() is { } day)
        {
            foreach (var r in day)
                maker.Add(r);
            if (--days == 0)
                maker.End();
            await store.AppendAsync(series, day, slots, days == 0, stop);
            slots.Clear();
        }
    }

    private static async Task<IResult> Start(
        HttpRequest request,
        DesignReader reader,
        LiveMonitors live,
        LogStore store,
        string id,
        int? bank,
        double? seed,
        double? speed,
        CancellationToken stop
    )
    {
        var reading = await reader.ReadAsync(request, stop);
        if (reading.Design is not { } design)
            return Problems.NotAccepted(reading.Faults);
        var index = bank ?? 0;
        if (index < 0 || index >= design.Banks.Count)
            return Problems.NotAccepted([new("/banks", "there is no such bank")]);
        if (seed is not (>= 0 and <= 1L << 53) || speed is not (>= 1 and <= LiveMonitors.MostSpeed))
            return Problems.NotAccepted([new("speed", $"is from 1 to {LiveMonitors.MostSpeed:0}, and seed a whole number")]);
        if (!await store.IsThereAsync(id, stop))
            return Problems.NotFound(id);
        var wish = new LiveWish(Math.Floor(seed.Value), speed.Value);
        try
        {
            return await live.StartAsync(id, design, index, wish, stop)
                ? Results.Created($"/api/designs/{id}/log/live", new LiveState(wish.Seed, wish.Speed))
                : Problems.NotAccepted([new("", "would be one made-up monitor too many: stop another")]);
        }
        catch (Missing missing)
        {
            return Problems.NotAccepted([new(missing.Gap.Place, missing.Gap.Sentence)]);
        }
    }

    private static async Task<IResult> Stop(LiveMonitors live, string id, string? bank)
    {
        await live.StopAsync(id, LogEndpoints.Bank(bank));
        return Results.NoContent();
    }

    private static IResult Watch(LiveMonitors live, string id, string? bank, CancellationToken stop) =>
        live.Watch(id, LogEndpoints.Bank(bank), stop) is { } readings
            ? TypedResults.ServerSentEvents(readings, "reading")
            : Results.Problem(statusCode: 404, title: "No made-up monitor runs");
}

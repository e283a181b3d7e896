using System.Globalization;
using System.Text;
using System.Text.Json;
using System.Text.Json.Nodes;
using InkyBadger.Core;
using InkyBadger.Core.Design;
using InkyBadger.Core.Rehearsal;
using InkyBadger.Server.Designs;
using InkyBadger.Server.Files;
using InkyBadger.Server.Hosting;

namespace InkyBadger.Server.Rehearsing;

/// <summary>A line of a year’s run: what it begins with, then its months, at last how it went.</summary>
public sealed record YearLine(YearIntro? Intro, YearMonth? Month, YearOutcome? Outcome);

/// <summary>A line of what would help: each by itself, then the cheapest pair; the last has neither.</summary>
public sealed record RemedyLine(Remedy? Alone, Remedy? Pair, bool Last);

/// <summary>A bank's year as it is run, line by line, so that it is seen while it runs and can be stopped.</summary>
public static class RehearsalEndpoints
{
    private const string Lines = JsonLines.Type;

    public static void MapRehearsing(this IEndpointRouteBuilder app)
    {
        var group = app.MapGroup("/api/rehearsal").WithTags("rehearsal");
        group
            .MapPost("/run", Run)
            .WithSummary("A bank’s year, a line of JSON a month; nothing is stored")
            .Accepts<JsonObject>("application/json")
            .Produces<YearLine>(contentType: Lines)
            .ProducesProblem(400)
            .AskedByOurselvesOnly();
        group
            .MapPost("/stretch", Stretch)
            .WithSummary("Some days of a bank’s year again, from where /run said that they begin; nothing is stored")
            .Accepts<JsonObject>("application/json")
            .Produces<YearStretch>()
            .Produces(204)
            .ProducesProblem(400);
        group
            .MapPost("/instants", Instants)
            .WithSummary("A day of a bank’s year in quarters of an hour, each by its busiest minute; nothing is stored")
            .Accepts<JsonObject>("application/json")
            .Produces<IReadOnlyList<YearInstant>>()
            .Produces(204)
            .ProducesProblem(400);
        group
            .MapPost("/remedies", Help)
            .WithSummary("What would end the dark hours, each run through the same year, and the cheapest two; nothing is stored")
            .Accepts<JsonObject>("application/json")
            .Produces<RemedyLine>(contentType: Lines)
            .ProducesProblem(400)
            .AskedByOurselvesOnly();
        group
            .MapPost("/risk", Risk)
            .WithSummary("The same design in years of other weather, a line each; nothing is stored")
            .Accepts<JsonObject>("application/json")
            .Produces<YearRiskStep>(contentType: Lines)
            .ProducesProblem(400)
            .AskedByOurselvesOnly();
        group
            .MapPost("/days.csv", Days)
            .WithSummary("A bank’s year as CSV, a line a day, a quarter of an hour or a step; nothing is stored")
            .Accepts<JsonObject>("application/json")
            .Produces(200, contentType: "text/csv")
            .ProducesProblem(400)
            .AskedByOurselvesOnly();
    }

    private static Task<IResult> Run(
        HttpRequest request,
        DesignReader reader,
        Lessons lessons,
        int? bank,
        double? weather,
        CancellationToken stop
    ) => Streamed(request, reader, bank, (design, index) => Year(design, index, weather, lessons), stop);

    private static IEnumerable<YearLine> Year(DesignDocument design, int index, double? weather, Lessons lessons)
    {
        var run = YearRun.Of(design, index, weather);
        yield return new(run.Intro, null, null);
        while (run.Next() is { } month)
            yield return new(null, month, null);
        var outcome = run.Outcome();
        // Other weather than the design’s teaches nothing about it.
        if (outcome is not null && weather is null)
            lessons.Keep(design, index, outcome.Lesson);
        yield return new(null, null, outcome);
    }

    private static Task<IResult> Stretch(
        HttpRequest request,
        DesignReader reader,
        string begins,
        int? bank,
        int? days,
        CancellationToken stop
    ) => reader.OfBankAsync(request, bank, (design, index) => YearStretch.Of(design, index, begins, days ?? YearRun.Fortnight), stop);

    private static Task<IResult> Instants(HttpRequest request, DesignReader reader, string begins, int? bank, CancellationToken stop) =>
        reader.OfBankAsync(request, bank, (design, index) => YearStretch.Instants(design, index, begins), stop);

    private static Task<IResult> Help(HttpRequest request, DesignReader reader, int? bank, CancellationToken stop) =>
        Streamed(request, reader, bank, (design, index) => Found(new(design, index), stop), stop);

    private static IEnumerable<RemedyLine> Found(Remedies remedies, CancellationToken stop)
    {
        var now = double.NaN;
        foreach (var alone in remedies.Each(stop))
        {
            if (double.IsNaN(now))
                now = alone.DarkH;
            yield return new(alone, null, false);
            // Nothing is to be ended.
            if (now <= 0)
                break;
        }
        if (now > 0 && remedies.Pair(stop) is { } pair)
            yield return new(null, pair, false);
        yield return new(null, null, true);
    }

    private static Task<IResult> Risk(HttpRequest request, DesignReader reader, int? bank, int? years, CancellationToken stop)
    {
        var asked = years ?? YearRisk.UsualYears;
        return asked is < 1 or > YearRisk.MostYears
            ? Task.FromResult(Problems.NotAccepted([new("years", $"must be from 1 to {YearRisk.MostYears}")]))
            : Streamed(request, reader, bank, (design, index) => YearRisk.Work(design, index, asked, stop), stop);
    }

    private static Task<IResult> Days(HttpRequest request, DesignReader reader, int? bank, string? by, CancellationToken stop) =>
        by is not (null or "day" or "quarter" or "step")
            ? Task.FromResult(Problems.NotAccepted([new("by", "is day, quarter or step")]))
            : OfBank(
                request,
                reader,
                bank,
                (design, index) =>
                    by == "step"
                        ? Results.Stream(to => YearCsv.StepsAsync(to, design, index, stop), "text/csv", "rehearsal.csv")
                        : Results.File(
                            Encoding.UTF8.GetBytes(YearCsv.Of(design, index, by == "quarter", stop)),
                            "text/csv",
                            "rehearsal.csv"
                        ),
                stop
            );

    private static async Task<IResult> OfBank(
        HttpRequest request,
        DesignReader reader,
        int? bank,
        Func<DesignDocument, int, IResult> work,
        CancellationToken stop
    )
    {
        var reading = await reader.ReadAsync(request, stop);
        if (reading.Design is not { } design)
            return Problems.NotAccepted(reading.Faults);
        var index = bank ?? 0;
        return index < 0 || index >= design.Banks.Count
            ? Problems.NotAccepted([new("/banks", $"there is no bank {index.ToString(CultureInfo.InvariantCulture)}")])
            : work(design, index);
    }

    private static Task<IResult> Streamed<T>(
        HttpRequest request,
        DesignReader reader,
        int? bank,
        Func<DesignDocument, int, IEnumerable<T>> lines,
        CancellationToken stop
    ) =>
        OfBank(
            request,
            reader,
            bank,
            (design, index) =>
                Results.Stream(
                    async body =>
                    {
                        foreach (var line in lines(design, index))
                        {
                            await JsonLines.WriteAsync(body, line, stop);
                            await body.FlushAsync(stop);
                        }
                    },
                    Lines
                ),
            stop
        );
}

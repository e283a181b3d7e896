using System.Text.Json;
using System.Text.Json.Nodes;
using InkyBadger.Core.Builds;
using InkyBadger.Core.Costs;
using InkyBadger.Core.Design;
using InkyBadger.Core.Reference;
using InkyBadger.Server.Designs;
using InkyBadger.Server.Files;
using InkyBadger.Server.Hosting;
using InkyBadger.Server.Rehearsing;
using InkyBadger.Storage;

namespace InkyBadger.Server.Builds;

/// <summary>
/// A line of the answer to a search: first what the arithmetic left of all candidates, then each build as it is worked out, how many so far
/// and of how many; the last one is done.
/// </summary>
public sealed record BuildLine(int Worked, int Of, bool Done, int? Candidates, IReadOnlyList<ScreenedOut>? Out, Build? Build);

/// <summary>Builds to compare: null stands for the design as it is. <see cref="Subject"/> is turned against the others.</summary>
public sealed record BuildQuestion
{
    public JsonObject? Design { get; init; }
    public int Bank { get; init; }
    public IReadOnlyList<BuildChoice?> Builds { get; init; } = [];
    public BuildTerms Terms { get; init; } = new();
    public int Subject { get; init; }

    /// <summary>How the first of them is bought in two stages.</summary>
    public StageTerms Stages { get; init; } = new();
}

/// <summary>Builds as points, for the best-possible front.</summary>
public sealed record FrontQuestion(IReadOnlyList<FrontPoint> Points);

/// <summary>
/// All builds of the stock for a design's demand, some of them side by side, one taken over; a build over time, and with less asked of it.
/// </summary>
public static class BuildEndpoints
{
    private const int MostBytes = 3_000_000,
        MostCompared = 5;

    public static void MapBuilds(this IEndpointRouteBuilder app)
    {
        var builds = app.MapGroup("/api/builds").WithTags("builds");
        builds
            .MapPost("", Search)
            .WithSummary("Every sensible build of the stock, a line of JSON each as it is worked out; closing the connection stops it")
            .Accepts<JsonObject>("application/json")
            .Produces<BuildLine>(200, JsonLines.Type)
            .ProducesProblem(400);
        builds
            .MapPost("/compare", Compare)
            .WithSummary("Two to five builds side by side, with what wins on what and where it turns; nothing is stored")
            .Accepts<BuildQuestion>("application/json")
            .Produces<BuildComparison>()
            .Produces(204)
            .ProducesProblem(400);
        builds
            .MapPost("/take", Take)
            .WithSummary("The changes that take a build over into the design; nothing is stored")
            .Accepts<BuildQuestion>("application/json")
            .Produces<IReadOnlyList<DesignChange>>()
            .ProducesProblem(400);
        MapPlans(builds);
    }

    private const int MostPoints = 3000;

    private static void MapPlans(RouteGroupBuilder builds)
    {
        builds
            .MapPost("/front", Front)
            .WithSummary("Which builds nothing beats in cost and a merit, and what beats each other one; nothing is stored")
            .Produces<BuildFrontResult>()
            .ProducesProblem(400);
        builds
            .MapPost("/staged", Staged)
            .WithSummary("A build bought in two stages against all at once, each worked out whole; nothing is stored")
            .Accepts<BuildQuestion>("application/json")
            .Produces<StagedPlanResult>()
            .Produces(204)
            .ProducesProblem(400);
        builds
            .MapPost("/growth", Growth)
            .WithSummary("What one more unit, string or inverter needs, and what today’s choice shuts out; nothing is stored")
            .Accepts<BuildQuestion>("application/json")
            .Produces<GrowthPlanResult>()
            .Produces(204)
            .ProducesProblem(400);
        builds
            .MapPost("/less", Less)
            .WithSummary("The cheapest changes of loads or hours that make the next smaller build enough; nothing is stored")
            .Accepts<BuildQuestion>("application/json")
            .Produces<DoLessResult>()
            .ProducesProblem(400);
        builds
            .MapPost("/prices/csv", (HttpRequest request, CancellationToken stop) => CsvRequests.ReadAsync(request, PriceCsv.Read, stop))
            .WithSummary("A set of prices as CSV: units, inverters, fuses by key, parts by size; nothing is stored")
            .Accepts<string>("text/csv")
            .Produces<PriceCsvAnswer>()
            .ProducesProblem(400);
        builds
            .MapPost("/prices/out", PricesOut)
            .WithSummary("Every price of a design as CSV, by one of its sets or as the catalogue has them, to be filled in")
            .Accepts<JsonObject>("application/json")
            .Produces(200, contentType: "text/csv")
            .ProducesProblem(400);
    }

    private static IResult Front(FrontQuestion? question)
    {
        if (question?.Points is not { } points || points.Count > MostPoints)
            return Problems.NotAccepted([new("/points", $"must be 1 to {MostPoints}")]);
        try
        {
            return Results.Ok(BuildFront.Work(points));
        }
        catch (Refusal refusal)
        {
            return Problems.NotAccepted([new($"/points/{refusal.Field}", refusal.Message)]);
        }
    }

    private static Task<IResult> Staged(HttpRequest request, DesignReader reader, Lessons lessons, CancellationToken stop) =>
        AskedAsync(
            request,
            reader,
            (design, q) =>
                StagedPlan.Work(design, q.Bank, q.Builds[0], q.Stages, Taught(q.Terms, lessons, design, q.Bank)) is { } plan
                    ? Results.Ok(plan)
                    : Results.NoContent(),
            stop
        );

    private static Task<IResult> Growth(HttpRequest request, DesignReader reader, Lessons lessons, CancellationToken stop) =>
        AskedAsync(
            request,
            reader,
            (design, q) =>
                GrowthPlan.Work(design, q.Bank, q.Builds[0], Taught(q.Terms, lessons, design, q.Bank), stop) is { } plan
                    ? Results.Ok(plan)
                    : Results.NoContent(),
            stop
        );

    private static Task<IResult> Less(HttpRequest request, DesignReader reader, Lessons lessons, CancellationToken stop) =>
        AskedAsync(
            request,
            reader,
            (design, q) => Results.Ok(DoLess.Work(design, q.Bank, Taught(q.Terms, lessons, design, q.Bank), stop)),
            stop
        );

    private static async Task<IResult> PricesOut(
        HttpRequest request,
        DesignReader reader,
        OwnItems own,
        string? set,
        CancellationToken stop
    )
    {
        var reading = await reader.ReadAsync(request, stop);
        if (reading.Design is not { } design)
            return Problems.NotAccepted(reading.Faults);
        if (set is not null && design.Prices.Sets.All(s => s.Id != set))
            return Problems.NotAccepted([new("set", "is no set of this design")]);
        var units = (await own.ListAsync<UnitItem>(stop)).Select(o => o.Item);
        var inverters = (await own.ListAsync<InverterItem>(stop)).Select(o => o.Item);
        var text = PriceCsv.Write(design, set, [.. units, .. Catalogue.Units], [.. inverters, .. Catalogue.Inverters]);
        return Results.File(System.Text.Encoding.UTF8.GetBytes(text), "text/csv", $"prices-{FileName.Of(set ?? "catalogue")}.csv");
    }

    private static async Task<IResult> Search(
        HttpRequest request,
        DesignReader reader,
        OwnItems own,
        Lessons lessons,
        int? bank,
        CancellationToken stop
    )
    {
        var reading = await reader.ReadAsync(request, stop);
        if (reading.Design is not { } design)
            return Problems.NotAccepted(reading.Faults);
        var index = bank ?? 0;
        if (index < 0 || index >= design.Banks.Count)
            return Problems.NotAccepted([new("/banks", $"there is no bank {index}")]);
        var mine = (await own.ListAsync<UnitItem>(stop)).Select(o => o.Item);
        var terms = Taught(new(), lessons, design, index);
        return Results.Stream(to => WriteAsync(to, design, index, [.. mine, .. Catalogue.Units], terms, lessons, stop), JsonLines.Type);
    }

    /// <summary>Cycles as its year was rehearsed, where nobody says them.</summary>
    private static BuildTerms Taught(BuildTerms terms, Lessons lessons, DesignDocument design, int index) =>
        terms.CyclesPerYear is null && design.CyclesPerYear is null && lessons.Of(design, index) is { } lesson
            ? terms with
            {
                CyclesPerYear = Math.Round(lesson.CyclesPerYear),
            }
            : terms;

    private static async Task WriteAsync(
        Stream to,
        DesignDocument design,
        int index,
        IReadOnlyList<UnitItem> units,
        BuildTerms terms,
        Lessons lessons,
        CancellationToken stop
    )
    {
        var found = new List<Build>();
        var screening = BuildSearch.Screen(design, index, units);
        var of = screening.Left.Count;
        await JsonLines.WriteAsync(to, new BuildLine(0, of, of == 0, screening.Candidates, screening.Out, null), stop);
        for (var n = 0; n < of; n++)
        {
            stop.ThrowIfCancellationRequested();
            var build = BuildMaker.Of(design, index, screening.Left[n], terms);
            if (build is not null)
                found.Add(build);
            // What the whole search has taught is known before its last line is read.
            if (n + 1 == of && CheaperBuilds.Among(BuildMaker.Present(design, index, terms), found) is { } cheaper)
                lessons.Keep(design, index, cheaper);
            await JsonLines.WriteAsync(to, new BuildLine(n + 1, of, n + 1 == of, null, null, build), stop);
            if (n % 10 == 9)
                await to.FlushAsync(stop);
        }
    }

    private static async Task<IResult> Compare(HttpRequest request, DesignReader reader, Lessons lessons, CancellationToken stop) =>
        await AskedAsync(
            request,
            reader,
            (design, q) =>
                BuildCompare.Work(design, q.Bank, q.Builds, Taught(q.Terms, lessons, design, q.Bank), q.Subject) is { } comparison
                    ? Results.Ok(comparison)
                    : Results.NoContent(),
            stop
        );

    private static async Task<IResult> Take(HttpRequest request, DesignReader reader, CancellationToken stop) =>
        await AskedAsync(
            request,
            reader,
            (design, q) =>
                q.Builds is [{ } choice]
                    ? Results.Ok(BuildBank.Changes(design, q.Bank, choice))
                    : Problems.NotAccepted([new("/builds", "must hold the one build that is taken")]),
            stop
        );

    /// <summary>The design by its schema, and every build by the design it would make.</summary>
    private static async Task<IResult> AskedAsync(
        HttpRequest request,
        DesignReader reader,
        Func<DesignDocument, BuildQuestion, IResult> answer,
        CancellationToken stop
    )
    {
        if (await Body.ReadAsync(request, MostBytes, stop) is not { } bytes)
            return Problems.NotAccepted([new("", $"is larger than {MostBytes / 1_000_000} MB, the most a question may be")]);
        var (node, broken) = JsonText.Parse(bytes);
        if (broken is not null)
            return Problems.NotAccepted([new("", $"is not a question about builds: it {broken}")]);
        BuildQuestion? question;
        try
        {
            question = node.Deserialize<BuildQuestion>(DesignFormat.Options);
        }
        catch (JsonException)
        {
            return Problems.NotAccepted([
                new("", "is not a question about builds: design, bank, builds, terms and subject by the OpenAPI document"),
            ]);
        }
        if (question?.Design is not { } text)
            return Problems.NotAccepted([new("/design", "is required")]);
        var reading = reader.Read(text.ToJsonString());
        if (reading.Design is not { } design)
            return Problems.NotAccepted([.. reading.Faults.Select(f => new DesignFault("/design" + f.Pointer, f.Reason))]);
        if (question.Bank < 0 || question.Bank >= design.Banks.Count)
            return Problems.NotAccepted([new("/bank", $"there is no bank {question.Bank}")]);
        if (question.Builds is null)
            return Problems.NotAccepted([new("/builds", "is required")]);
        if (question.Terms?.UnitPrices is null)
            return Problems.NotAccepted([new("/terms", "must be terms with their unitPrices, or be left out")]);
        if (
            question.Stages
            is not {
                    StringsNow: null or (>= 1 and <= 32),
                    YearsLater: > 0 and <= 20,
                    VisitCost: >= 0 and <= 1_000_000,
                    DiscountRate: >= 0 and <= 0.5
                }
                or { PriceLater: < 0 or > 1_000_000 }
        )
            return Problems.NotAccepted([
                new("/stages", "strings 1 to 32, more than 0 years and up to 20, money of 0 or more, a rate of 0 to 0.5"),
            ]);
        if (question.Builds.Count is 0 or > MostCompared)
            return Problems.NotAccepted([new("/builds", $"must be 1 to {MostCompared}")]);
        if (
            question.Terms is { HourRate: < 0 or > 10_000 } or { CyclesPerYear: < 0 or > 1000 }
            || question.Terms.UnitPrices.Values.Any(p => p is < 0 or > 10_000_000)
        )
            return Problems.NotAccepted([new("/terms", "prices and cycles must be 0 or more, and sensible")]);
        for (var n = 0; n < question.Builds.Count; n++)
            if (question.Builds[n] is { } choice && FaultOf(reader, design, question.Bank, choice) is { } fault)
                return Problems.NotAccepted([new($"/builds/{n}", fault)]);
        return answer(design, question);
    }

    private static string Brief(string word) => word.Length <= 20 ? word : word[..20] + "…";

    private static string? FaultOf(DesignReader reader, DesignDocument design, int bank, BuildChoice choice)
    {
        if (choice.Unit?.Chemistry is not { } chemistry || choice.Unit.Key is null)
            return "needs a unit with its key and its chemistry";
        if (!CellsPerSystem.Has(chemistry, choice.SystemV))
            return $"nothing of {Brief(chemistry)} is made for {choice.SystemV} V";
        // Before anything is worked out of it: a thousand strings are refused, not tried.
        return reader.Read(DesignFormat.Write(BuildBank.AsAsked(design, bank, choice))).Faults is [{ } first, ..]
            ? $"{first.Pointer} {first.Reason}"
            : null;
    }
}

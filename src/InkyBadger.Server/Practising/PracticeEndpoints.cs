using System.Globalization;
using System.Text.Json.Nodes;
using InkyBadger.Core;
using InkyBadger.Core.Design;
using InkyBadger.Core.Numbers;
using InkyBadger.Core.Practice;
using InkyBadger.Server.Designs;
using InkyBadger.Server.Files;
using InkyBadger.Server.Hosting;
using InkyBadger.Storage;

namespace InkyBadger.Server.Practising;

/// <summary>A bank as found: what is drawn, what may be pointed at, and the bank as a design, for the working of its figures.</summary>
public sealed record FoundBankAnswer(
    int Seed,
    PracticeLevel Level,
    string Name,
    DesignDocument Document,
    FoundDrawing Drawing,
    IReadOnlyList<PracticePart> Parts
);

/// <summary>A go as it is sent: its key, the bank, and what was said so far.</summary>
public sealed record GoRequest(string Key, int Seed, int Level, IReadOnlyList<PracticeAnswer> Answers, bool Over);

/// <summary>A walk as it is sent: its key, the bank, and the calls so far, true for “stop, it is wrong”.</summary>
public sealed record WalkRequest(string Key, int Seed, int Faults, IReadOnlyList<bool> Calls);

/// <summary>A go that is kept.</summary>
public sealed record KeptGo(int Seed, int Level, int Faults, int Found, int Misses, double Seconds, bool Over);

/// <summary>A walk that is kept.</summary>
public sealed record KeptWalk(int Seed, int Faults, int Caught, int WentPast, int FalseAlarms, bool Over);

/// <summary>A guess that is kept.</summary>
public sealed record KeptGuess(string Id, string Unit, double Said, double Right);

/// <summary>What came of practising so far, as a line.</summary>
/// <param name="Words">In a sentence; empty: nothing yet.</param>
/// <param name="Goes">The last ones, the oldest first.</param>
public sealed record PracticeResults(
    string Words,
    IReadOnlyList<KeptGo> Goes,
    IReadOnlyList<KeptWalk> Walks,
    GuessTrend Trend,
    IReadOnlyList<GuessRow> Rows
);

/// <summary>A guess judged, and how they go by now.</summary>
public sealed record GuessAnswer(GuessJudged Judged, GuessTrend Trend, IReadOnlyList<GuessRow> Rows);

/// <summary>Practice: banks with faults, guesses, the walk with the meter, the words of the job.</summary>
public static class PracticeEndpoints
{
    private const int MostAnswers = 200,
        MostKey = 40,
        LastGoes = 12;

    private const string Find = "find",
        Walked = "walk",
        Guessed = "guess";

    public static void MapPractice(this IEndpointRouteBuilder app)
    {
        var practice = app.MapGroup("/api/practice").WithTags("practice");
        practice.MapGet("/levels", () => PracticeLevel.All).WithSummary("How hard it can be");
        practice
            .MapGet("/bank", Bank)
            .WithSummary("A bank somebody else built, from its number: drawn as it is, nothing marked")
            .Produces<FoundBankAnswer>()
            .ProducesProblem(400);
        practice
            .MapPost("/go", Go)
            .WithSummary("What was said of it, judged; kept on this machine under the key of the go")
            .Produces<PracticeGo>()
            .ProducesProblem(400);
        practice
            .MapPost("/walk", Walk)
            .WithSummary("Bring-up on a bank with hidden faults: the calls so far, judged, and the next reading")
            .Produces<WalkState>()
            .ProducesProblem(400);
        practice.MapGet("/results", Results).WithSummary("What came of practising, kept on this machine alone").Produces<PracticeResults>();
        practice.MapGet("/results.csv", Csv).WithSummary("All of it as CSV").Produces(200, contentType: "text/csv");
        var guesses = app.MapGroup("/api/guesses").WithTags("practice");
        guesses
            .MapPost("", Questions)
            .WithSummary("Which figures of a design can be guessed; nothing is stored")
            .Accepts<JsonObject>("application/json")
            .Produces<IReadOnlyList<GuessQuestion>>()
            .ProducesProblem(400);
        guesses
            .MapPost("/say", Say)
            .WithSummary("A guess judged against the design, and kept on this machine")
            .Accepts<JsonObject>("application/json")
            .Produces<GuessAnswer>()
            .Produces(204)
            .ProducesProblem(400);
        app.MapPost("/api/words", Words)
            .WithTags("practice")
            .WithSummary("The words of the job with the figures of a design; nothing is stored")
            .Accepts<JsonObject>("application/json")
            .Produces<IReadOnlyList<GlossaryWord>>()
            .ProducesProblem(400);
        app.MapGet("/api/words", () => Glossary.Of(null, 0)).WithTags("practice").WithSummary("The words of the job, with no design open");
    }

    private static FoundBankAnswer Bank(PracticeBanks banks, int seed, int level)
    {
        var bank = banks.Bank(seed, level);
        return new(bank.Seed, bank.Level, bank.Document.Name, bank.Document, bank.Drawing, bank.Parts);
    }

    private static async Task<PracticeGo> Go(GoRequest go, PracticeBanks banks, PracticeStore store, CancellationToken stop)
    {
        Check(go.Key, go.Answers?.Count ?? 0);
        var answers = go.Answers ?? [];
        if (answers.Any(a => a is null || a.Part is null || a.Said is null || !(a.AtS >= 0) || !double.IsFinite(a.AtS)))
            throw new Refusal("answers", "each has a part, what was said, and seconds from 0 on");
        var judged = banks.Bank(go.Seed, go.Level).Go(answers, go.Over);
        if (answers.Count > 0 || go.Over)
            await store.KeepAsync(
                Find,
                go.Key,
                new KeptGo(go.Seed, go.Level, judged.Faults, judged.Found, judged.Misses, answers.LastOrDefault()?.AtS ?? 0, judged.Over),
                stop
            );
        return judged;
    }

    private static async Task<WalkState> Walk(WalkRequest walk, PracticeBanks banks, PracticeStore store, CancellationToken stop)
    {
        Check(walk.Key, walk.Calls?.Count ?? 0);
        var calls = walk.Calls ?? [];
        var state = banks.Walk(walk.Seed, walk.Faults).State(calls);
        if (calls.Count > 0)
            await store.KeepAsync(
                Walked,
                walk.Key,
                new KeptWalk(walk.Seed, walk.Faults, state.Caught, state.WentPast, state.FalseAlarms, state.Now is null),
                stop
            );
        return state;
    }

    private static void Check(string? key, int count)
    {
        if (key is null || key.Length is 0 or > MostKey)
            throw new Refusal("key", $"1 to {MostKey} letters");
        if (count > MostAnswers)
            throw new Refusal("answers", $"{MostAnswers} at most");
    }

    private static async Task<PracticeResults> Results(PracticeStore store, CancellationToken stop)
    {
        var goes = (await store.LastAsync<KeptGo>(Find, LastGoes, stop)).Select(g => g.What).ToList();
        var walks = (await store.LastAsync<KeptWalk>(Walked, LastGoes, stop)).Select(w => w.What).ToList();
        var (trend, rows) = await GuessesAsync(store, stop);
        return new(PracticeWords.Of(goes.ConvertAll(g => (g.Faults, g.Found, g.Misses))), goes, walks, trend, rows);
    }

    /// <summary>Guesses that the rows of the single figures are made of.</summary>
    private const int OfRows = 400;

    private static async Task<(GuessTrend Trend, IReadOnlyList<GuessRow> Rows)> GuessesAsync(PracticeStore store, CancellationToken stop)
    {
        List<Guess> all =
        [
            .. (await store.LastAsync<KeptGuess>(Guessed, OfRows, stop)).Select(g => new Guess(g.What.Id, g.What.Said, g.What.Right)),
        ];
        return (GuessTrend.Of(all), GuessRow.Of(all));
    }

    private static Task<IResult> Questions(HttpRequest request, DesignReader reader, int? bank, CancellationToken stop) =>
        reader.OfBankAsync(request, bank, (design, at) => Guessing.Questions(Evaluator.Evaluate(design, mends: false), at), stop);

    private static async Task<IResult> Say(
        HttpRequest request,
        DesignReader reader,
        PracticeStore store,
        int? bank,
        string? id,
        double? said,
        CancellationToken stop
    )
    {
        var reading = await reader.ReadAsync(request, stop);
        if (reading.Design is not { } design)
            return Problems.NotAccepted(reading.Faults);
        if (bank is < 0 || bank >= design.Banks.Count || design.Banks.Count == 0)
            return Problems.NotAccepted([new("/banks", $"there is no bank {bank}")]);
        if (Guessing.Judge(Evaluator.Evaluate(design, mends: false), bank ?? 0, id ?? "", said ?? 0) is not { } judged)
            return Microsoft.AspNetCore.Http.Results.NoContent();
        await store.KeepAsync(Guessed, "", new KeptGuess(judged.Question.Id, judged.Question.Unit, judged.Said, judged.Right), stop);
        var (trend, rows) = await GuessesAsync(store, stop);
        return Microsoft.AspNetCore.Http.Results.Ok(new GuessAnswer(judged, trend, rows));
    }

    private static Task<IResult> Words(HttpRequest request, DesignReader reader, int? bank, CancellationToken stop) =>
        reader.OfBankAsync(request, bank, (design, at) => Glossary.Of(Evaluator.Evaluate(design, mends: false), at), stop);

    private static async Task<IResult> Csv(PracticeStore store, CancellationToken stop)
    {
        static string N(double x) => x.ToString("0.###", CultureInfo.InvariantCulture);
        static string At(DateTime t) => t.ToString("yyyy-MM-dd'T'HH:mm:ss'Z'", CultureInfo.InvariantCulture);
        var rows = new List<(DateTime At, string[] Cells)>();
        foreach (var (at, g) in await store.LastAsync<KeptGo>(Find, PracticeStore.Most, stop))
            rows.Add((at, [At(at), "find", N(g.Seed), N(g.Level), N(g.Faults), N(g.Found), N(g.Misses), N(g.Seconds), "", "", "", "", ""]));
        foreach (var (at, w) in await store.LastAsync<KeptWalk>(Walked, PracticeStore.Most, stop))
            rows.Add((at, [At(at), "walk", N(w.Seed), "", N(w.Faults), N(w.Caught), N(w.FalseAlarms), "", N(w.WentPast), "", "", "", ""]));
        foreach (var (at, g) in await store.LastAsync<KeptGuess>(Guessed, PracticeStore.Most, stop))
            rows.Add((at, [At(at), "guess", "", "", "", "", "", "", "", g.Id, g.Unit, N(g.Said), N(g.Right)]));
        var text = CsvText.Write(
            ["at", "what", "number", "level", "faults", "found", "misses", "seconds", "went_past", "figure", "unit", "said", "right"],
            rows.OrderBy(r => r.At).Select(r => r.Cells)
        );
        return Microsoft.AspNetCore.Http.Results.File(
            System.Text.Encoding.UTF8.GetBytes(text),
            "text/csv; charset=utf-8",
            "inky-badger-practice.csv"
        );
    }
}

using System.Text.Json.Nodes;
using InkyBadger.Core.Design;
using InkyBadger.Core.Schools;
using InkyBadger.Server.Designs;
using InkyBadger.Server.Files;

namespace InkyBadger.Server.Schools;

/// <summary>
/// A line of the answer about house rules: the whole design under each school first, then each rule with what its values would change, how
/// many so far and of how many; the last one is done and has the headline.
/// </summary>
public sealed record RuleLine(int Worked, int Of, bool Done, IReadOnlyList<SchoolWhole>? Wholes, RuleRow? Row, string? Headline);

/// <summary>What turns when an own value is given back, in words; null: nothing that is built.</summary>
public sealed record GiveBackAnswer(string? Turns);

/// <summary>The schools side by side, and one rule as a function.</summary>
public static class RuleEndpoints
{
    public static void MapRules(this IEndpointRouteBuilder app)
    {
        var rules = app.MapGroup("/api/rules").WithTags("house rules");
        rules
            .MapPost("", Board)
            .WithSummary(
                "Every house rule with what each other value would change in the design, a line of JSON each as it is worked out; closing "
                    + "the connection stops it"
            )
            .Accepts<JsonObject>("application/json")
            .Produces<RuleLine>(200, JsonLines.Type)
            .ProducesProblem(400);
        rules
            .MapPost("/curve", Curve)
            .WithSummary("One rule as a function: what it asks for over its values; nothing is stored")
            .Accepts<JsonObject>("application/json")
            .Produces<RuleCurveResult>()
            .Produces(204)
            .ProducesProblem(400);
        rules
            .MapPost("/give-back", GiveBack)
            .WithSummary("How giving an own value of a rule back to its set would turn the design; nothing is stored")
            .Accepts<JsonObject>("application/json")
            .Produces<GiveBackAnswer>()
            .ProducesProblem(400);
    }

    private static Task<IResult> GiveBack(HttpRequest request, DesignReader reader, int? bank, string? rule, CancellationToken stop) =>
        reader.OfBankAsync(request, bank, (design, index) => new GiveBackAnswer(RuleBoard.GiveBack(design, index, rule ?? "")), stop);

    private static Task<IResult> Board(HttpRequest request, DesignReader reader, int? bank, CancellationToken stop) =>
        reader.OfBankAsync(
            request,
            bank,
            (design, index) => Results.Stream(to => WriteAsync(to, design, index, stop), JsonLines.Type),
            stop
        );

    private static async Task WriteAsync(Stream to, DesignDocument design, int bank, CancellationToken stop)
    {
        var of = Core.Reference.HouseRuleTable.All.Count;
        var wholes = SchoolWholes.Work(design, bank, stop);
        await JsonLines.WriteAsync(to, new RuleLine(0, of, false, wholes, null, null), stop);
        var n = 0;
        foreach (var row in RuleBoard.Rows(design, bank, stop))
        {
            await JsonLines.WriteAsync(to, new RuleLine(++n, of, false, null, row, null), stop);
            if (n % 8 == 0)
                await to.FlushAsync(stop);
        }
        await to.FlushAsync(stop);
        await JsonLines.WriteAsync(to, new RuleLine(of, of, true, null, null, SchoolWholes.Headline(design, bank, wholes, stop)), stop);
    }

    private static Task<IResult> Curve(HttpRequest request, DesignReader reader, int? bank, string? rule, CancellationToken stop) =>
        reader.OfBankAsync(request, bank, (design, index) => RuleCurve.Work(design, index, rule ?? "", stop), stop);
}

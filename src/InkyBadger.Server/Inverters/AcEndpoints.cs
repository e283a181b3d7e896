using System.Text.Json.Nodes;
using InkyBadger.Core.Design;
using InkyBadger.Core.Trials;
using InkyBadger.Core.Work;
using InkyBadger.Server.Designs;

namespace InkyBadger.Server.Inverters;

/// <summary>The AC side in every position of its switches, and two to start from.</summary>
public static class AcEndpoints
{
    public static void MapAc(this IEndpointRouteBuilder app)
    {
        var ac = app.MapGroup("/api/ac").WithTags("inverters");
        ac.MapPost("", Board)
            .WithSummary("Every position of every switch of the AC side tried; nothing is stored")
            .Accepts<JsonObject>("application/json")
            .Produces<AcBoardResult>()
            .Produces(204)
            .ProducesProblem(400);
        ac.MapPost("/start", Start)
            .WithSummary("An AC side to start from, made of what the design has; nothing is stored")
            .Accepts<JsonObject>("application/json")
            .Produces<AcDrawing>()
            .ProducesProblem(400);
    }

    private static Task<IResult> Board(HttpRequest request, DesignReader reader, CancellationToken stop) =>
        reader.OfBankAsync(request, null, (design, _) => AcSides.Work(design), stop);

    private static Task<IResult> Start(HttpRequest request, DesignReader reader, string? kind, CancellationToken stop)
    {
        Task<IResult> Of(AcStart start) => reader.OfBankAsync(request, null, (design, _) => AcSides.Start(design, start), stop);
        return (kind ?? "pass-through") switch
        {
            "pass-through" => Of(AcStart.PassThrough),
            "separate-panel" => Of(AcStart.SeparatePanel),
            _ => Task.FromResult(Problems.NotAccepted([new("kind", "is pass-through or separate-panel")])),
        };
    }
}

using System.Text.Json.Nodes;
using InkyBadger.Core;
using InkyBadger.Core.Demand;
using InkyBadger.Core.Voltage;
using InkyBadger.Core.Working;
using InkyBadger.Server.Designs;
using InkyBadger.Server.Rehearsing;
using Microsoft.AspNetCore.Mvc;

namespace InkyBadger.Server.Evaluating;

/// <summary>What follows from a design, and the equations asked for.</summary>
public sealed record EvaluateAnswer(Evaluation Evaluation, IReadOnlyList<Equation>? Working);

public static class EvaluateEndpoints
{
    public static void MapEvaluating(this IEndpointRouteBuilder app)
    {
        app.MapPost("/api/evaluate", Evaluate)
            .WithTags("evaluate")
            .WithSummary("Work a design out; nothing is stored")
            .WithDescription(
                "The body is a design by docs/format/design.schema.json. working: a figure’s JSON pointer for its equation, or all. "
                    + "mends: false leaves out what can be done about each finding, which is tried on the design and takes its time."
            )
            .Accepts<JsonObject>("application/json")
            .Produces<EvaluateAnswer>()
            .ProducesProblem(400);
        app.MapPost("/api/ladder", Ladder)
            .WithTags("evaluate")
            .WithSummary("Work a design’s bank out at 12, 24 and 48 V; nothing is stored")
            .Accepts<JsonObject>("application/json")
            .Produces<IReadOnlyList<LadderRung>>()
            .ProducesProblem(400);
        app.MapPost("/api/what-ifs", Suppose)
            .WithTags("evaluate")
            .WithSummary("What a bank’s demand would be if things were done otherwise, each worked out whole; nothing is stored")
            .Accepts<JsonObject>("application/json")
            .Produces<IReadOnlyList<WhatIf>>()
            .ProducesProblem(400);
    }

    private static async Task<IResult> Evaluate(
        HttpRequest request,
        DesignReader reader,
        Lessons lessons,
        string? working,
        bool? mends,
        CancellationToken stop
    )
    {
        var reading = await reader.ReadAsync(request, stop);
        if (reading.Design is null)
            return Problems.NotAccepted(reading.Faults);
        var (taught, cheaper) = (lessons.Of(reading.Design), lessons.CheaperOf(reading.Design));
        if (string.IsNullOrEmpty(working))
            return Results.Ok(new EvaluateAnswer(Evaluator.Evaluate(reading.Design, null, mends ?? true, taught, cheaper), null));
        var tape = new Tape(working == "all" ? null : working);
        var evaluation = Evaluator.Evaluate(reading.Design, tape, mends ?? true, taught, cheaper);
        if (tape.IsFull)
            return Problems.NotAccepted([new("working", "has more equations than one answer holds: ask for one figure by its pointer")]);
        IReadOnlyList<Equation> equations =
            working == "all" ? [.. tape.All]
            : tape.Find(working) is { } one ? [one]
            : [];
        return Results.Ok(new EvaluateAnswer(evaluation, equations));
    }

    private static Task<IResult> Ladder(
        HttpRequest request,
        DesignReader reader,
        int? bank,
        [FromQuery] int[]? also,
        CancellationToken stop
    ) => reader.OfBankAsync(request, bank, (design, index) => VoltageLadder.Work(design, index, also), stop);

    private static Task<IResult> Suppose(HttpRequest request, DesignReader reader, int? bank, CancellationToken stop) =>
        reader.OfBankAsync(request, bank, (design, index) => WhatIfs.Work(design, index, stop), stop);
}

using System.Text.Json.Nodes;
using InkyBadger.Core.BringUp;
using InkyBadger.Core.Design;
using InkyBadger.Core.Sheets;
using InkyBadger.Server.Designs;
using InkyBadger.Server.Hosting;
using InkyBadger.Server.Sheets.Drawing;

namespace InkyBadger.Server.BringUps;

/// <summary>
/// The steps of a design with what was found, and the zone of the wiring drawing in which each place is, by the step’s key.
/// </summary>
public sealed record BringUpAnswer(BringUpResult Walk, IReadOnlyDictionary<string, string> Zones)
{
    public static BringUpAnswer Of(DesignDocument design)
    {
        var papers = new PaperSite(design);
        var walk = BringUpWalk.Work(papers);
        var drawn = WiringSheets.Of(papers, BuildLedger.Work(papers, null, walk.Proven), "").Zones;
        var zones = new Dictionary<string, string>();
        foreach (var step in walk.Steps)
            if (step.Tips?.PartKey is { } part && drawn.TryGetValue($"{step.Bank}/{part}", out var zone))
                zones[step.Key] = zone;
        return new(walk, zones);
    }
}

/// <summary>What the simulated meter shows, in the step’s unit.</summary>
public sealed record SimulatedReading(double Value);

/// <summary>Bringing a bank up with the meter: the steps that follow from a design, and a made-up bank to learn them on.</summary>
public static class BringUpEndpoints
{
    public static void MapBringUp(this IEndpointRouteBuilder app)
    {
        app.MapPost("/api/bring-up", Walk)
            .WithTags("bring-up")
            .WithSummary("The steps in which a design is brought up, each judged by its record; nothing is stored")
            .Accepts<JsonObject>("application/json")
            .Produces<BringUpAnswer>()
            .ProducesProblem(400)
            .BoundAnswers();
        app.MapPost("/api/bring-up/simulated", Simulated)
            .WithTags("bring-up")
            .WithSummary("What the meter shows at a step on the made-up bank that the design has chosen; nothing is stored")
            .Accepts<JsonObject>("application/json")
            .Produces<SimulatedReading>()
            .ProducesProblem(400)
            .ProducesProblem(404)
            .BoundAnswers();
    }

    private static async Task<IResult> Walk(HttpRequest request, DesignReader reader, CancellationToken stop)
    {
        var reading = await reader.ReadAsync(request, stop);
        return reading.Design is { } design ? Results.Ok(BringUpAnswer.Of(design)) : Problems.NotAccepted(reading.Faults);
    }

    /// <param name="request">Holds the design.</param>
    /// <param name="reader">Reads it.</param>
    /// <param name="step">Key of the step.</param>
    /// <param name="stop">When nobody waits for it any more.</param>
    private static async Task<IResult> Simulated(HttpRequest request, DesignReader reader, string step, CancellationToken stop)
    {
        var reading = await reader.ReadAsync(request, stop);
        if (reading.Design is not { } design)
            return Problems.NotAccepted(reading.Faults);
        return BringUpWalk.Simulate(design, step) is { } value
            ? Results.Ok(new SimulatedReading(value))
            : Results.Problem(statusCode: 404, title: $"No made-up bank answers at “{step}”");
    }
}

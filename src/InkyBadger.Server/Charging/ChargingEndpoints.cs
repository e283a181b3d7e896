using System.Text.Json.Nodes;
using InkyBadger.Core.Numbers;
using InkyBadger.Core.Reference;
using InkyBadger.Core.Trials;
using InkyBadger.Server.Designs;

namespace InkyBadger.Server.Charging;

/// <summary>A month's day of a bank, filled by its sources, and the climates there are.</summary>
public static class ChargingEndpoints
{
    public static void MapCharging(this IEndpointRouteBuilder app)
    {
        app.MapPost("/api/charged-day", Day)
            .WithTags("charging")
            .WithSummary("A month’s mean day of a bank quarter by quarter: what comes in, what is refused and why; nothing is stored")
            .Accepts<JsonObject>("application/json")
            .Produces<ChargedDay>()
            .Produces(204)
            .ProducesProblem(400);
        app.MapGet("/api/climates", () => Climates.All)
            .WithTags("charging")
            .WithSummary("Kinds of climate with the clearness of their months, typical values")
            .Produces<IReadOnlyList<Climate>>();
    }

    private static async Task<IResult> Day(HttpRequest request, DesignReader reader, int? bank, int? month, CancellationToken stop)
    {
        try
        {
            return await reader.OfBankAsync(request, bank, (design, index) => ChargedDay.Work(design, index, month), stop);
        }
        catch (Refusal refusal)
        {
            return Problems.NotAccepted([new("month", refusal.Message)]);
        }
    }
}

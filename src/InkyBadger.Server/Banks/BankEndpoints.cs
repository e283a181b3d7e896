using System.Text;
using System.Text.Json;
using System.Text.Json.Nodes;
using InkyBadger.Core;
using InkyBadger.Core.Banks;
using InkyBadger.Core.Design;
using InkyBadger.Core.Network;
using InkyBadger.Core.Reference;
using InkyBadger.Server.Designs;
using InkyBadger.Server.Hosting;
using InkyBadger.Storage;

namespace InkyBadger.Server.Banks;

/// <summary>The bank at a load, with a string out, a step further; and the stock of units.</summary>
public static class BankEndpoints
{
    private const int MostCsvBytes = 1_000_000;

    public static void MapBanks(this IEndpointRouteBuilder app)
    {
        var bank = app.MapGroup("/api/bank").WithTags("bank");
        bank.MapPost("/at-load", AtLoad).WithSummary("Each string’s amperes at a load, and what the loss of each would bring; nothing is stored").Accepts<JsonObject>("application/json").Produces<BankAtLoadResult>().Produces(204).ProducesProblem(400);
        bank.MapPost("/steps", Steps).WithSummary("What another string or the next larger unit would bring; nothing is stored").Accepts<JsonObject>("application/json").Produces<IReadOnlyList<BankStep>>().ProducesProblem(400);
        var units = app.MapGroup("/api/units").WithTags("units");
        units.MapPost("", Judge).WithSummary("The stock of units and one’s own, judged for a bank’s voltage; nothing is stored").Accepts<JsonObject>("application/json").Produces<IReadOnlyList<UnitTrial>>().ProducesProblem(400);
        units.MapPut("/own/{key}", Keep).WithSummary("Keep a unit of one’s own").Accepts<JsonObject>("application/json").Produces(204).ProducesProblem(400);
        units.MapDelete("/own/{key}", Drop).WithSummary("Take an own unit out").Produces(204).ProducesProblem(404);
        units.MapPost("/csv", Read).WithSummary("Read a stock of units as CSV; nothing is stored").Accepts<string>("text/csv").Produces<UnitCsvAnswer>().ProducesProblem(400);
        app.MapGet("/api/units.csv", Write).WithTags("units").WithSummary("The stock and one’s own units as CSV").Produces(200, contentType: "text/csv");
    }

    private static async Task<IResult> AtLoad(HttpRequest request, DesignReader reader, int? bank, double? amps, CancellationToken stop)
    {
        var (design, index, refused) = await OfBank(request, reader, bank, stop);
        if (design is null) return refused!;
        try
        {
            return BankAtLoad.Work(design, index, amps) is { } result ? Results.Ok(result) : Results.NoContent();
        }
        catch (Refusal refusal)
        {
            return Problems.NotAccepted([new("amps", refusal.Message)]);
        }
    }

    private static async Task<IResult> Steps(HttpRequest request, DesignReader reader, int? bank, CancellationToken stop)
    {
        var (design, index, refused) = await OfBank(request, reader, bank, stop);
        return design is null ? refused! : Results.Ok(BankSteps.Work(design, index));
    }

    private static async Task<IResult> Judge(HttpRequest request, DesignReader reader, OwnItems own, int? bank, CancellationToken stop)
    {
        var (design, index, refused) = await OfBank(request, reader, bank, stop);
        return design is null ? refused! : Results.Ok(UnitChoices.Work(design, index, [.. (await own.ListAsync<UnitItem>(stop)).Select(o => o.Item)]));
    }

    private static async Task<(DesignDocument? Design, int Index, IResult? Refused)> OfBank(HttpRequest request, DesignReader reader, int? bank, CancellationToken stop)
    {
        var reading = await reader.ReadAsync(request, stop);
        if (reading.Design is null) return (null, 0, Problems.NotAccepted(reading.Faults));
        var index = bank ?? 0;
        return index >= 0 && index < reading.Design.Banks.Count ? (reading.Design, index, null) : (null, 0, Problems.NotAccepted([new("/banks", $"there is no bank {index}")]));
    }

    private static async Task<IResult> Keep(string key, HttpRequest request, UnitReader reader, OwnItems own, CancellationToken stop)
    {
        if (OwnKey.Fault(key) is { } fault) return fault;
        if (await Body.ReadAsync(request, 20_000, stop) is not { } bytes) return Problems.NotAccepted([new("", "is larger than a unit may be")]);
        try
        {
            var (unit, faults) = reader.Read(JsonNode.Parse(bytes));
            if (faults.Count > 0) return Problems.NotAccepted(faults);
            if (unit is not { Name.Length: > 0 }) return Problems.NotAccepted([new("/name", "must not be empty: one finds it again by its name")]);
            return await own.KeepAsync(key, unit.Name, unit with { Key = key }, stop) ? Results.NoContent() : Problems.NotAccepted([new("", $"is one more than the {OwnItems.Most} own units that are kept")]);
        }
        catch (JsonException e)
        {
            return Problems.NotAccepted([new("", $"is not JSON: {e.Message}")]);
        }
    }

    private static async Task<IResult> Drop(string key, OwnItems own, CancellationToken stop) => await own.DropAsync<UnitItem>(key, stop)
        ? Results.NoContent()
        : Results.Problem(statusCode: StatusCodes.Status404NotFound, title: "No such unit", detail: "There is no own unit of that key.");

    private static async Task<IResult> Read(HttpRequest request, UnitCsv csv, CancellationToken stop) => await Body.ReadAsync(request, MostCsvBytes, stop) is { } bytes
        ? Results.Ok(csv.Read(Encoding.UTF8.GetString(bytes)))
        : Problems.NotAccepted([new("", $"is larger than {MostCsvBytes / 1_000_000} MB, the most a list may be")]);

    private static async Task<IResult> Write(OwnItems own, CancellationToken stop) =>
        Results.File(Encoding.UTF8.GetBytes(UnitCsv.Write((await own.ListAsync<UnitItem>(stop)).Select(o => o.Item).Concat(Catalogue.Units))), "text/csv", "units.csv");
}

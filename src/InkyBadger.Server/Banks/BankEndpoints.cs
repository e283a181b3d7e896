using System.Text;
using System.Text.Json.Nodes;
using InkyBadger.Core;
using InkyBadger.Core.Banks;
using InkyBadger.Core.Design;
using InkyBadger.Core.Network;
using InkyBadger.Core.Reference;
using InkyBadger.Core.Rehearsal;
using InkyBadger.Server.Designs;
using InkyBadger.Server.Files;
using InkyBadger.Storage;

namespace InkyBadger.Server.Banks;

/// <summary>The bank at a load, with a string out, a step further; and the stock of units.</summary>
public static class BankEndpoints
{
    public static void MapBanks(this IEndpointRouteBuilder app)
    {
        var bank = app.MapGroup("/api/bank").WithTags("bank");
        bank.MapPost("/at-load", AtLoad)
            .WithSummary("Each string’s amperes at a load, and what the loss of each would bring; nothing is stored")
            .Accepts<JsonObject>("application/json")
            .Produces<BankAtLoadResult>()
            .Produces(204)
            .ProducesProblem(400);
        bank.MapPost("/run-down", RunDown)
            .WithSummary("The bank run down under a load, string by string and unit by unit; nothing is stored")
            .Accepts<JsonObject>("application/json")
            .Produces<BankRunDownAnswer>()
            .Produces(204)
            .ProducesProblem(400);
        bank.MapPost("/run-down/others", RunDownOthers)
            .WithSummary("How long the same bank lasts at four other loads; nothing is stored")
            .Accepts<JsonObject>("application/json")
            .Produces<IReadOnlyList<RunDownAt>>()
            .Produces(204)
            .ProducesProblem(400);
        bank.MapPost("/joining", Joining)
            .WithSummary("Two strings about to be joined: what rushes in, what moves, how long it takes, join or wait; nothing is stored")
            .Accepts<JsonObject>("application/json")
            .Produces<JoiningResult>()
            .Produces(204)
            .ProducesProblem(400);
        bank.MapPost("/grown", Grown)
            .WithSummary("Used units as they are, with a string of new ones beside them, or all new; nothing is stored")
            .Accepts<JsonObject>("application/json")
            .Produces<GrownBankResult>()
            .Produces(204)
            .ProducesProblem(400);
        bank.MapPost("/steps", Steps)
            .WithSummary("What another string or the next larger unit would bring; nothing is stored")
            .Accepts<JsonObject>("application/json")
            .Produces<IReadOnlyList<BankStep>>()
            .ProducesProblem(400);
        var units = app.MapGroup("/api/units").WithTags("units");
        units
            .MapPost("", Judge)
            .WithSummary("The stock of units and one’s own, judged for a bank’s voltage; nothing is stored")
            .Accepts<JsonObject>("application/json")
            .Produces<IReadOnlyList<UnitTrial>>()
            .ProducesProblem(400);
        units
            .MapPut("/own/{key}", Keep)
            .WithSummary("Keep a unit of one’s own")
            .Accepts<JsonObject>("application/json")
            .Produces(204)
            .ProducesProblem(400);
        units
            .MapGet("/cells", (string chemistry, double volts) =>
                Chemistries.All.Any(c => c.Id == chemistry) && volts is > 0 and <= 1000
                    ? Results.Ok(UnitVolts.Of(chemistry, volts))
                    : Problems.NotAccepted([new("/chemistry", "chemistry of the table and volts above 0 to 1,000")])
            )
            .WithSummary("How many cells in series a plate of so many volts may mean, the likelier first")
            .Produces<List<CellCount>>()
            .ProducesProblem(400);
        units.MapDelete("/own/{key}", Drop).WithSummary("Take an own unit out").Produces(204).ProducesProblem(404);
        units
            .MapPost("/csv", Read)
            .WithSummary("Read a stock of units as CSV; nothing is stored")
            .Accepts<string>("text/csv")
            .Produces<UnitCsvAnswer>()
            .ProducesProblem(400);
        app.MapGet("/api/units.csv", Write)
            .WithTags("units")
            .WithSummary("The stock and one’s own units as CSV")
            .Produces(200, contentType: "text/csv");
    }

    private static async Task<IResult> AtLoad(HttpRequest request, DesignReader reader, int? bank, double? amps, CancellationToken stop)
    {
        try
        {
            return await reader.OfBankAsync(request, bank, (design, index) => BankAtLoad.Work(design, index, amps), stop);
        }
        catch (Refusal refusal)
        {
            return Problems.NotAccepted([new("amps", refusal.Message)]);
        }
    }

    private static Task<IResult> RunDown(
        HttpRequest request,
        DesignReader reader,
        int? bank,
        double? watts,
        double? amps,
        CancellationToken stop
    ) => Loaded(request, reader, bank, (design, index) => BankRunDown.Work(design, index, watts, amps), stop);

    private static Task<IResult> RunDownOthers(
        HttpRequest request,
        DesignReader reader,
        int? bank,
        double? watts,
        double? amps,
        CancellationToken stop
    ) => Loaded(request, reader, bank, (design, index) => BankRunDown.Others(design, index, watts, amps), stop);

    /// <summary>A load that is refused is said under the name it was asked by.</summary>
    private static async Task<IResult> Loaded<T>(
        HttpRequest request,
        DesignReader reader,
        int? bank,
        Func<DesignDocument, int, T?> work,
        CancellationToken stop
    )
        where T : class
    {
        try
        {
            return await reader.OfBankAsync(request, bank, work, stop);
        }
        catch (Refusal refusal)
        {
            return Problems.NotAccepted([new(refusal.Field == "loadW" ? "watts" : "amps", refusal.Message)]);
        }
    }

    /// <summary>Which strings (from 1), and of either its charge or its rest volts; what is left out is as the document has it.</summary>
    private static async Task<IResult> Joining(
        HttpRequest request,
        DesignReader reader,
        int? bank,
        int? a,
        double? socA,
        double? restA,
        int? b,
        double? socB,
        double? restB,
        CancellationToken stop
    )
    {
        try
        {
            return await reader.OfBankAsync(
                request,
                bank,
                (design, index) => JoiningTrial.Work(design, index, new(a, socA, restA), new(b, socB, restB)),
                stop
            );
        }
        catch (Refusal refusal)
        {
            return Problems.NotAccepted([new(refusal.Field, refusal.Message)]);
        }
    }

    private static Task<IResult> Grown(HttpRequest request, DesignReader reader, int? bank, CancellationToken stop) =>
        reader.OfBankAsync(request, bank, GrownBank.Work, stop);

    private static Task<IResult> Steps(HttpRequest request, DesignReader reader, int? bank, CancellationToken stop) =>
        reader.OfBankAsync(request, bank, BankSteps.Work, stop);

    private static async Task<IResult> Judge(HttpRequest request, DesignReader reader, OwnItems own, int? bank, CancellationToken stop)
    {
        var mine = await own.ListAsync<UnitItem>(stop);
        return await reader.OfBankAsync(
            request,
            bank,
            (design, index) => UnitChoices.Work(design, index, [.. mine.Select(o => o.Item)]),
            stop
        );
    }

    private static Task<IResult> Keep(string key, HttpRequest request, UnitReader reader, OwnItems own, CancellationToken stop) =>
        OwnItemRequests.KeepAsync(key, request, own, "unit", reader.Read, u => u.Name, u => u with { Key = key }, stop);

    private static Task<IResult> Drop(string key, OwnItems own, CancellationToken stop) =>
        OwnItemRequests.DropAsync<UnitItem>(key, own, "unit", stop);

    private static Task<IResult> Read(HttpRequest request, UnitCsv csv, CancellationToken stop) =>
        CsvRequests.ReadAsync(request, csv.Read, stop);

    private static async Task<IResult> Write(OwnItems own, CancellationToken stop) =>
        Results.File(
            Encoding.UTF8.GetBytes(UnitCsv.Write((await own.ListAsync<UnitItem>(stop)).Select(o => o.Item).Concat(Catalogue.Units))),
            "text/csv",
            "units.csv"
        );
}

using InkyBadger.Core.Costs;
using InkyBadger.Core.Design;
using InkyBadger.Core.Reference;
using InkyBadger.Core.Work;

namespace InkyBadger.Core.Builds;

/// <summary>What a line of the bill is for; the bar of a build is divided by it.</summary>
public enum BillPart
{
    Units,
    Protection,
    Balancers,
    Links,
    Copper,
    Fuses,
    Switching,
    Inverter,
    Converter,
    Monitor,
    Box,
    Hours,
}

/// <summary>A line of the bill: what, how many, each and together; null: the price is not known.</summary>
public sealed record BillLine(BillPart Part, string What, double Count, double? Each)
{
    public double? Price => Count * Each;
}

/// <summary>
/// Everything a build costs, line by line, with its connections, hours and minutes of upkeep a year. <paramref name="Unknown"/>: of these
/// lines nobody knows the price, and the total is without them.
/// </summary>
public sealed record BuildBillResult(
    IReadOnlyList<BillLine> Lines,
    double Total,
    IReadOnlyList<string> Unknown,
    int Connections,
    double Hours,
    double UpkeepMinutes
)
{
    /// <summary>Of every line the price is known.</summary>
    internal bool IsWhole => Unknown.Count == 0;
}

/// <summary>The whole bill of an evaluated bank (method, 8.3): nothing that it needs is left out.</summary>
internal static class BuildBill
{
    /// <summary>Lugs of the main run: at the ends of either pole, and at fuse, disconnect and shunt.</summary>
    private const int MainLugs = NeedsStage.MainLugs;

    /// <param name="units">A line for each kind of unit.</param>
    public static BuildBillResult Of(BankScene scene, BankEvaluation e, IReadOnlyList<BillLine> units, double hourRate)
    {
        var (bank, network, run, prices) = (e.Bank!, e.Network!, e.MainRun!, scene.Prices);
        var busBars = network.Wiring.Style == WiringStyle.BusBars;
        var chemistry = Chemistries.Get(bank.Unit.Chemistry);
        var balanced = bank.Layout.Series > 1 && !bank.Unit.Communicates;
        var byHand = balanced && scene.Rules.Word("series-balancer") == "by-hand";
        var bare = bank.Unit.IsBare();
        // A BMS of bare cells keeps them level too; lead-acid is levelled by an equalising charge.
        var balancers = balanced && !byHand && !bare && chemistry.IsLithium ? bank.Layout.Parallel : 0;
        var strings = e.StringFuses is { Fitted: true } s ? s : null;
        var hasSwitch = e.Bus?.HasSwitch ?? true;
        var area = run.Cable.AreaMm2 ?? 0;
        double? SeriesLink() => network.Copper.Jumper.LengthM * prices.CablePerM(network.Copper.Jumper.AreaMm2);
        var beside = busBars ? network.Copper.Lead : network.Copper.Link;
        var busA = Math.Max(run.DesignA, run.Fuse.RatingA ?? 0);

        var seriesLinks = bank.Layout.Units - bank.Layout.Parallel;
        var parallelLinks =
            bank.Layout.Parallel == 1 && !busBars ? 0
            : busBars ? 2 * bank.Layout.Parallel
            : 2 * (bank.Layout.Parallel - 1);
        // Two side by side where the main run has two.
        var jumpers = seriesLinks * network.Copper.Jumper.Conductors;
        var links = parallelLinks * beside.Conductors;
        var lugs = 2 * (jumpers + links);
        var lugEach =
            lugs == 0 ? 0 : (2 * jumpers * prices.Lug(network.Copper.Jumper.AreaMm2) + 2 * links * prices.Lug(beside.AreaMm2)) / lugs;

        List<BillLine> lines = [.. units];
        void Add(BillPart part, string what, double count, double? each)
        {
            if (count > 0)
                lines.Add(new(part, what, count, each));
        }
        Add(
            BillPart.Protection,
            scene.Bank.Bms is { } bms ? $"{bms.Name}, one a string of cells" : "BMS for a string of bare cells, not chosen yet",
            bare ? bank.Layout.Parallel : 0,
            scene.Bank.Bms is { } chosen ? chosen.Price : null
        );
        Add(BillPart.Balancers, "balancer", balancers, prices.Balancer);
        Add(BillPart.Links, $"jumper, {network.Copper.Jumper.Size}", jumpers, SeriesLink());
        Add(
            BillPart.Links,
            busBars ? $"bus lead, {beside.Size}" : $"rail link, {beside.Size}",
            links,
            beside.LengthM * prices.CablePerM(beside.AreaMm2)
        );
        Add(BillPart.Links, "lug", lugs, lugEach);
        Add(BillPart.Links, "bus bar at the bank", busBars ? 2 : 0, prices.BusBar(busA));
        Add(
            BillPart.Fuses,
            $"main fuse, {run.Fuse.Label.Split(',')[0]}",
            run.Fuse.RatingA is null ? 0 : 1,
            scene.Tables.FusePrice(run.Fuse.Class, prices)
        );
        Add(
            BillPart.Fuses,
            "string fuse",
            strings?.Strings.Count ?? 0,
            strings is null ? 0 : scene.Tables.FusePrice(strings.FuseClass, prices)
        );
        Add(BillPart.Switching, "disconnect", hasSwitch ? 1 : 0, prices.Switch(run.DesignA));
        Add(BillPart.Switching, "bus bar", 2, prices.BusBar(busA));
        if (area > 0)
        {
            Add(
                BillPart.Copper,
                $"main cable, {Say.Size(run.Cable.Size!, run.Cable.Conductors)}, metre",
                2 * run.Laid.LengthM * run.Cable.Conductors,
                prices.CablePerM(area)
            );
            Add(BillPart.Copper, "lug of the main run", MainLugs * run.Cable.Conductors, prices.Lug(area));
        }
        var inverter = e.Inverter;
        Add(
            BillPart.Inverter,
            inverter?.Item?.Name ?? "",
            inverter?.Item is null ? 0 : inverter.Stack,
            inverter?.Item is { } made ? scene.Design.Prices.Of(made) : null
        );
        foreach (var (name, price) in NeedsStage.FurtherPrices(scene, inverter))
            Add(BillPart.Inverter, name, 1, price);
        Add(BillPart.Converter, "converter", e.Needs is { ConverterW: > 0 } ? 1 : 0, e.Needs?.ConverterPrice);
        Add(BillPart.Monitor, "shunt and display", 1, prices.Monitor);
        var litres = bank.Unit.Size is { } size ? bank.Layout.Units * size.LengthMm * size.WidthMm * size.HeightMm / 1e6 : 0;
        if (bank.Unit.Size is null)
            Add(BillPart.Box, "box; the units’ size is not known", 1, null);
        // A rack module stands in its rack.
        Add(BillPart.Box, bank.Unit.BreakerA is null ? "box" : "rack", litres > 0 ? 1 : 0, prices.Box(Math.Max(1, litres)));

        var input = new BuildCostInput(bank.Layout.Series, bank.Layout.Parallel, 0) { OnBusBars = busBars };
        var fittings =
            (run.Fuse.RatingA is null ? 0 : 1)
            + (strings?.Strings.Count ?? 0)
            + (hasSwitch ? 1 : 0)
            + 1
            + balancers
            + (bare ? bank.Layout.Parallel : 0);
        var work = BuildWork.Work(input, fittings, bank.Unit.Chemistry == "flooded", byHand && chemistry.IsLithium);
        Add(BillPart.Hours, "hour’s work", work.Hours, hourRate);
        return new(
            lines,
            lines.Sum(l => l.Price ?? 0),
            [.. lines.Where(l => l.Price is null).Select(l => l.What)],
            work.Connections,
            work.Hours,
            work.UpkeepMinutesPerYear
        );
    }
}

using InkyBadger.Core.Banks;
using InkyBadger.Core.Costs;
using InkyBadger.Core.Design;
using InkyBadger.Core.Findings;
using InkyBadger.Core.Work;

namespace InkyBadger.Core.Builds;

/// <summary>
/// A next step to grow by: units more, what they hold [usable Wh], what they cost, and what stands in the way (null: nothing).
/// </summary>
public sealed record GrowthStep(int Units, double UsableWh, double? Price, string? Not);

/// <summary>
/// A build worked out whole: what it is, its bill, what it gives (AC watts null: no inverter), what it takes, and how it ages. <see
/// cref="AskedWh"/> is what the demand wants usable; <see cref="EvenTotal"/> counts the units' price for that alone. Wrong builds say why.
/// </summary>
public sealed record Build
{
    public required string Key { get; init; }
    public required BuildChoice Choice { get; init; }
    public required string Name { get; init; }
    public required int Units { get; init; }
    public required double? UnitPrice { get; init; }

    /// <summary>Units that price is of; in a mixed bank some cost otherwise.</summary>
    public required int PricedUnits { get; init; }

    /// <summary>All units, as they are bought again when a bank has served; null: not known.</summary>
    public required double? UnitsTotal { get; init; }

    /// <summary>Until age, and until cycles, have used a bank up [years; full cycles].</summary>
    public required double CalendarYears { get; init; }
    public required double CycleLife { get; init; }

    /// <summary>By the set of prices in use, units and inverter can be had.</summary>
    public required bool InStock { get; init; }
    public required BuildBillResult Bill { get; init; }
    public required double NominalV { get; init; }
    public required double RatedWh { get; init; }
    public required double UsableWh { get; init; }
    public double? AskedWh { get; init; }
    public required double? EvenTotal { get; init; }

    /// <summary>How much more it holds than is asked, a fraction; null: nothing is asked, or not more.</summary>
    public double? MoreThanAsked { get; init; }
    public double? ContinuousW { get; init; }
    public string? Bottleneck { get; init; }
    public double? StartW { get; init; }
    public string? StartBottleneck { get; init; }
    public required double WorstA { get; init; }
    public required string Cable { get; init; }
    public double? CableMm2 { get; init; }
    public int CableConductors { get; init; }
    public double? FuseA { get; init; }
    public string? Inverter { get; init; }
    public required double? HeaviestKg { get; init; }
    public required double? MassKg { get; init; }
    public BuildLayout? Layout { get; init; }

    /// <summary>Usable after one unit has failed, its string with it [Wh]; the AC watts the rest lets through.</summary>
    public required double LeftWh { get; init; }
    public double? LeftAcW { get; init; }
    public required GrowthStep Growth { get; init; }
    public required bool Communicates { get; init; }
    public double? LifeYears { get; init; }
    public int? BanksBought { get; init; }
    public required double? PerUsableKwh { get; init; }
    public double? PerDeliveredKwh { get; init; }
    public double? PerYear { get; init; }
    public required IReadOnlyList<string> Wrong { get; init; }
    public required int ToLookAt { get; init; }
    public bool Fits => Wrong.Count == 0;
}

/// <summary>Prices and use a comparison is made with; null: as the design and the catalogue have it.</summary>
public sealed record BuildTerms
{
    /// <summary>Price of a unit by its key.</summary>
    public IReadOnlyDictionary<string, double> UnitPrices { get; init; } = new Dictionary<string, double>();
    public double? HourRate { get; init; }
    public double? CyclesPerYear { get; init; }
}

/// <summary>Works a build out: the whole design as it would be, evaluated, with its bill.</summary>
public static class BuildMaker
{
    /// <summary>Served years and cycles a year where the design does not say [years, 1/year].</summary>
    public const double DefaultYears = 10,
        DefaultCycles = 100;

    /// <summary>So little more than is asked is not worth a word.</summary>
    private const double JustMore = 1.02;

    /// <summary>An hour's work as it counts: tried, the design's, or the table's [money].</summary>
    internal static double HourRate(DesignDocument design, BuildTerms terms) =>
        terms.HourRate ?? Reference.PartPrices.Of(design.Prices).HourRate;

    internal static double Cycles(DesignDocument design, BuildTerms terms) => terms.CyclesPerYear ?? design.CyclesPerYear ?? DefaultCycles;

    internal static double Years(DesignDocument design) => design.Years ?? DefaultYears;

    /// <summary>Null where it cannot be worked out, such as a design without loads.</summary>
    public static Build? Of(DesignDocument design, int index, BuildChoice choice, BuildTerms terms)
    {
        return Of(new SiteWork(BuildBank.In(design, index, choice))[index], _ => choice, terms);
    }

    /// <summary>The build the design stands on, untouched; null as long as it has no bank.</summary>
    public static Build? Present(DesignDocument design, int index, BuildTerms terms)
    {
        return Of(new SiteWork(design)[index], ChoiceOf, terms);
    }

    public static BuildChoice? ChoiceOf(BankEvaluation e) =>
        e is { Bank: { } b, Network: { } n, Voltage: { } v }
            ? new(b.Unit, v.SystemV, b.Layout.Series, b.Layout.Parallel, n.Wiring.Style)
            : null;

    private static Build? Of(BankWork w, Func<BankEvaluation, BuildChoice?> chosen, BuildTerms terms)
    {
        var (design, scene) = (w.Site.Design, w.Scene);
        var mine = new List<Finding>();
        var e = FindingRules.Evaluate(w, mine);
        if (e is not { Bank: { } bank, Network: { } network, MainRun: { } run, Voltage: { } voltage } || chosen(e) is not { } choice)
            return null;
        var unit = bank.Unit;
        double? unitPrice = terms.UnitPrices.TryGetValue(unit.Key, out var own) ? own : design.Prices.Of(unit);
        var packed = PackLines(w, terms);
        var bill = BuildBill.Of(scene, e, packed, HourRate(design, terms));
        double? asked = bank.Need.Sizing is { } sizing ? sizing.RatedWh * bank.Need.Dod : null;
        var units = packed.Sum(l => l.Price ?? 0);
        // A cost that leaves out what nobody knows compares with nothing.
        double? Whole(double cost) => bill.IsWhole ? cost : null;
        var even =
            asked is { } wanted && wanted < bank.Holds.UsableWh ? bill.Total - units * (1 - wanted / bank.Holds.UsableWh) : bill.Total;
        var cycles = Cycles(design, terms);
        var years = Years(design);
        var chemistry = Reference.Chemistries.Get(unit.Chemistry);
        var (calendar, cycleLife) = (unit.CalendarYears ?? chemistry.CalendarYears, unit.CycleLife ?? chemistry.CyclesAtTypicalDod);
        var life = Cost.Delivered(units, bank.Holds.UsableWh, years, cycles, calendar, cycleLife);
        // When a bank has served, its units alone are bought again.
        var paid = bill.Total + (life.Banks - 1) * units;
        List<string> wrong = [.. mine.Where(f => f.Grade <= Grade.Fault && !OfSource(f)).OrderBy(f => f.Grade).Select(f => f.Title)];
        if (bank.Need.Sizing is { } s && bank.Layout.Parallel < s.Parallel)
            wrong.Add($"{Say.Strings(bank.Layout.Parallel)}, where the demand asks for {s.Parallel}");
        var first = e.Chain?.Continuous is [{ } link, ..] ? link : null;
        var start = e.Chain?.AtStart is [{ } early, ..] ? early : null;
        return new()
        {
            Key = choice.Key,
            Choice = choice,
            Name = NameOf(choice, bank.Layout.Units),
            Units = bank.Layout.Units,
            UnitPrice = unitPrice,
            PricedUnits = (int)packed.Where(l => l.What == unit.Name && l.Each == unitPrice).Sum(l => l.Count),
            UnitsTotal = packed.All(l => l.Price is not null) ? units : null,
            CalendarYears = calendar,
            CycleLife = cycleLife,
            InStock =
                design.Prices.IsInStock(PriceKind.Unit, unit.Key)
                && (e.Inverter?.Item is not { } made || design.Prices.IsInStock(PriceKind.Inverter, made.Key)),
            Bill = bill,
            NominalV = voltage.NominalV,
            RatedWh = bank.Holds.RatedWh,
            UsableWh = bank.Holds.UsableWh,
            AskedWh = asked,
            EvenTotal = Whole(even),
            MoreThanAsked = asked > 0 && bank.Holds.UsableWh > asked * JustMore ? bank.Holds.UsableWh / asked - 1 : null,
            ContinuousW = first?.AcW,
            Bottleneck = Word(first?.Name),
            StartW = start?.AcW,
            StartBottleneck = Word(start?.Name),
            WorstA = e.Currents?.BankWorstA ?? 0,
            Cable = run.Cable.Size is { } size ? Say.Size(size, run.Cable.Conductors) : "none",
            CableMm2 = run.Cable.AreaMm2,
            CableConductors = run.Cable.Conductors,
            FuseA = run.Fuse.RatingA,
            Inverter = e.Inverter?.Item is null ? null : e.Inverter.Name,
            HeaviestKg = unit.MassKg,
            MassKg = bank.MassKg,
            Layout = BuildSpace.Of(unit, bank.Layout.Units, w.Document.Space),
            LeftWh = LeftWh(w, bank),
            LeftAcW = LeftAcW(e, bank, network),
            Growth = Grow(scene, bank, unitPrice, e),
            Communicates = unit.Communicates,
            LifeYears = life.LifeYears,
            BanksBought = life.Banks,
            PerUsableKwh = Whole(bill.Total / (bank.Holds.UsableWh / 1000)),
            PerDeliveredKwh = life.DeliveredKwh > 0 ? Whole(paid / life.DeliveredKwh) : null,
            PerYear = Whole(paid / years),
            Wrong = wrong,
            ToLookAt = mine.Count(f => f.Grade == Grade.Caution || f.Grade < Grade.Caution && OfSource(f)),
        };
    }

    /// <summary>A line for each kind of unit and what it costs here: a mixed bank is priced as it is.</summary>
    private static List<BillLine> PackLines(BankWork w, BuildTerms terms)
    {
        var design = w.Site.Design;
        double? Each(PackUnit u) =>
            terms.UnitPrices.TryGetValue(u.Item.Key, out var tried) && u.Price == design.Prices.Of(u.Item) ? tried : u.Price;
        return
        [
            .. w
                .Pack.Need()
                .Strings.SelectMany(s => s.Units)
                .GroupBy(u => (u.Item.Name, Each: Each(u)))
                .Select(g => new BillLine(BillPart.Units, g.Key.Name, g.Count(), g.Key.Each)),
        ];
    }

    /// <summary>
    /// What is wrong with one source, its array, its supply or its settings, or on the AC side, is mended on any build: it rules none out.
    /// </summary>
    private static bool OfSource(Finding finding) =>
        finding is { Station: Station.Charging, About.Length: > 0 } || finding.Rule.StartsWith("ac.", StringComparison.Ordinal);

    /// <summary>Usable when the string that holds most has gone.</summary>
    private static double LeftWh(BankWork w, BankResult bank) =>
        w.Pack.Need() is var pack && pack.IsMixed
            ? Enumerable
                .Range(1, bank.Layout.Parallel)
                .Min(gone =>
                    pack.UsableWh(Enumerable.Range(1, bank.Layout.Parallel).Where(s => s != gone), bank.Holds.NominalV, bank.Need.Dod)
                )
            : bank.Holds.UsableWh * (bank.Layout.Parallel - 1) / bank.Layout.Parallel;

    /// <summary>
    /// What the others let through when a string has gone, and the inverter with them [W]; null: no inverter, or nothing sets a limit.
    /// </summary>
    private static double? LeftAcW(BankEvaluation e, BankResult bank, NetworkResult network)
    {
        if (bank.Layout.Parallel == 1)
            return 0;
        var inverter = e.Inverter?.Gives.ContinuousW;
        return network.OneOut.SurvivesAcW is { } rest ? Math.Min(rest, inverter ?? double.MaxValue) : inverter;
    }

    /// <summary>As one would say it; bus bars are said, the usual rails are not.</summary>
    private static string NameOf(BuildChoice choice, int units) =>
        $"{units} × {choice.Unit.Name} at {choice.SystemV} "
        + $"V{(choice.Style == WiringStyle.BusBars && choice.Parallel > 1 ? " on bus bars" : "")}";

    private static string? Word(string? element) => element == Limits.LimitsChain.Bank ? "the batteries" : element;

    /// <summary>Another string, with its fuse where strings have one.</summary>
    private static GrowthStep Grow(BankScene scene, BankResult bank, double? unitPrice, BankEvaluation e)
    {
        var most = scene.Rules.Number("most-strings");
        var not =
            bank.Layout.Parallel >= bank.Unit.MaxParallel ? $"its maker allows {bank.Unit.MaxParallel} strings"
            : bank.Layout.Parallel >= most ? $"the house rule allows {Say.Number(most)} strings"
            : null;
        var fuse = e.StringFuses is { Fitted: true } s ? scene.Tables.FusePrice(s.FuseClass, scene.Prices) : 0;
        return new(bank.Layout.Series, bank.Holds.UsableWh / bank.Layout.Parallel, bank.Layout.Series * unitPrice + fuse, not);
    }
}

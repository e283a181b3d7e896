using InkyBadger.Core.Charging;
using InkyBadger.Core.Design;
using InkyBadger.Core.Reference;
using InkyBadger.Core.Work;

namespace InkyBadger.Core.Findings;

/// <summary>Several banks of one design: what joins them, halves that are not one bank, and one plug for all.</summary>
internal static class SiteFindings
{
    public static IEnumerable<Finding> All(FindingScene s)
    {
        if (s.Work.Site.Result is not { } site)
            yield break;
        foreach (var (i, join) in site.Joins.Index())
            // What joins two banks is told once, at the bank that gives.
            if (join.From == s.Bank.Id && join.From != join.To && s.Work.Site.Find(join.To) is { } other)
                foreach (var finding in OfJoin(s, join, i, other))
                    yield return finding with
                    {
                        About = join.Run,
                        Place = $"/joins/{i}",
                    };
        if (Halves(s) is { } halves)
            yield return halves;
        if (site.Plug is { } plug && Plug(s, plug) is { } night)
            yield return night;
    }

    private static IEnumerable<Finding> OfJoin(FindingScene s, JoinResult join, int index, BankWork other)
    {
        if (s.Results.Voltage is { } here && other.Voltage.Value is { } there && Unlike(s, join, index, here, there, other) is { } unlike)
        {
            yield return unlike;
            yield break;
        }
        if (join.Amps is not > 0)
            yield return Silent(s, join, other);
        else if (Drains(s, join, other) is { } drains)
            yield return drains;
        if (Rush(s, join, index, other) is { } rush)
            yield return rush;
        if (Ring(s, join, index, other) is { } ring)
            yield return ring;
    }

    private static string Word(JoinKind kind) =>
        kind switch
        {
            JoinKind.Isolator => "by an isolator",
            JoinKind.Relay => "by a relay",
            JoinKind.Straight => "straight",
            JoinKind.DcDc => "by a DC–DC charger",
            _ => "by a converter",
        };

    /// <summary>Volts or chemistry differ, and nothing between makes them anew.</summary>
    private static Finding? Unlike(FindingScene s, JoinResult join, int index, VoltageResult here, VoltageResult there, BankWork other)
    {
        if (join.Kind is JoinKind.Converter or JoinKind.DcDc)
            return null;
        var volts = here.Cells * Chemistries.Get(here.Chemistry).CellNominalV - there.Cells * Chemistries.Get(there.Chemistry).CellNominalV;
        var otherVolts = here.SystemV != there.SystemV;
        if (!otherVolts && here.Chemistry == there.Chemistry)
            return null;
        var (mine, its) = (SiteStage.NameOf(s.Bank), SiteStage.NameOf(other.Document));
        return otherVolts
            ? s.Make(
                "join.volts",
                Grade.Danger,
                Station.Bank,
                "",
                $"{here.SystemV} V and {there.SystemV} V joined {Word(join.Kind)}",
                $"{mine} and {its} are {Say.V(Math.Abs(volts))} apart: nothing between them but copper holds the current back. It burns.",
                [new("apart", Math.Abs(volts), "V")],
                [.. Converted(s, join, index)]
            )
            : s.Make(
                "join.chemistry",
                join.Kind == JoinKind.Isolator ? Grade.Fault : Grade.Danger,
                Station.Bank,
                "",
                $"Two chemistries joined {Word(join.Kind)}",
                join.Kind == JoinKind.Isolator
                    ? $"{mine} is {here.ChemistryLabel}, {its} {there.ChemistryLabel}: one charging voltage cannot suit both."
                    : $"{mine} is {here.ChemistryLabel}, {its} {there.ChemistryLabel}: their volts never agree, and one pours into the "
                        + "other all the time.",
                [new("full, at rest", here.GreatestV, "V"), new("the other’s", there.GreatestV, "V")],
                [.. Converted(s, join, index)]
            );
    }

    /// <summary>A DC–DC charger in its place.</summary>
    private static IEnumerable<MendOffer> Converted(FindingScene s, JoinResult join, int index)
    {
        var design = s.Work.Site.Design;
        var amps = join.Amps is > 0 ? join.Amps.Value : UsualDcDcA;
        yield return new(
            "A DC–DC charger between them",
            then =>
                then.Site.Result!.Joins[index].Through is { } flow
                    ? $"takes {Say.A(flow.WorstInA)} for {Say.A(amps)}, {Say.W(flow.HeatW)} of heat"
                    : $"gives {Say.A(amps)}",
            s.Bank
        )
        {
            Whole = design with
            {
                Joins = [.. design.Joins.Select((j, i) => i == index ? j with { Kind = JoinKind.DcDc, Amps = amps } : j)],
            },
        };
    }

    /// <summary>A size that is sold, where nobody said one [A].</summary>
    private const double UsualDcDcA = 20;

    private static Finding Silent(FindingScene s, JoinResult join, BankWork other) =>
        s.Make(
            "join.amps",
            Grade.Caution,
            Station.Bank,
            "",
            $"How much goes from {SiteStage.NameOf(s.Bank)} to {SiteStage.NameOf(other.Document)}?",
            "Without amperes no cable and no fuse of it can be worked out, on either side.",
            []
        );

    /// <summary>With what it gives away the bank does not last the days its house rule asks.</summary>
    private static Finding? Drains(FindingScene s, JoinResult join, BankWork other)
    {
        if (join.Through?.Day is not { } day || s.Results.Bank is not { } bank || s.Results.Energy is not { } energy)
            return null;
        if (!Tolerant.Exceeds(energy.EnergyBankWh + day.TakenWh, bank.Holds.UsableWh))
            return null;
        return s.Make(
            "join.drains",
            Grade.Caution,
            Station.Bank,
            "",
            $"{SiteStage.NameOf(other.Document)} takes more than {SiteStage.NameOf(s.Bank)} has to spare",
            $"{Say.Wh(day.TakenWh)} a day go into the join, {Say.Wh(energy.EnergyBankWh)} into its own loads; it holds "
                + $"{Say.Wh(bank.Holds.UsableWh)} to use.",
            [new("taken", day.TakenWh, "Wh"), new("own day", energy.EnergyBankWh, "Wh"), new("usable", bank.Holds.UsableWh, "Wh")],
            () => s.MoreStrings(then => then.Bank.Value is { } b ? $"{Say.Wh(b.Holds.UsableWh)} to use" : "")
        );
    }

    /// <summary>Closed on a full and an emptied bank more flows than fuse or cells bear.</summary>
    private static Finding? Rush(FindingScene s, JoinResult join, int index, BankWork other)
    {
        if (join is not { Rush: { } rush, Kind: JoinKind.Relay or JoinKind.Straight })
            return null;
        var fuse = Lesser(FuseOf(s.Work, join.Run), FuseOf(other, join.Run));
        var trips = fuse is { } rating && Tolerant.Exceeds(rush.Amps, rating);
        if (!trips && !Tolerant.Exceeds(rush.Amps, rush.BearsA))
            return null;
        return s.Make(
            "join.rush",
            trips ? Grade.Fault : Grade.Caution,
            Station.Bank,
            "",
            $"{Say.A(rush.Amps)} rush through the join of a full and an empty bank",
            trips
                ? $"The {Say.Rating(fuse!.Value)} fuse opens, or the {(join.Kind == JoinKind.Relay ? "relay welds" : "cable heats")}; the "
                    + $"cells that are charged so bear {Say.A(rush.BearsA)}."
                : $"The cells that are charged so bear {Say.A(rush.BearsA)}. Join them only when both are full.",
            [new("first current", rush.Amps, "A"), new("apart", rush.FullV - rush.LowV, "V"), new("borne", rush.BearsA, "A")],
            [.. Converted(s, join, index)]
        );
    }

    private static double? FuseOf(BankWork bank, string run) => bank.Circuits.Value?.FirstOrDefault(c => c.Id == run)?.Run.Fuse.RatingA;

    private static double? Lesser(double? a, double? b) => a is { } x && b is { } y ? Math.Min(x, y) : a ?? b;

    /// <summary>What goes over comes back: two converters that charge each other’s bank.</summary>
    private static Finding? Ring(FindingScene s, JoinResult join, int index, BankWork other)
    {
        var design = s.Work.Site.Design;
        if (join.Through is not { } there || !design.Joins[index].Converts)
            return null;
        var back = design
            .Joins.Index()
            .FirstOrDefault(j => j.Index < index && j.Item.Converts && j.Item.From == join.To && j.Item.To == join.From);
        if (back.Item is not { Amps: > 0 } || s.Work.Site.Result!.Joins[back.Index].Through is not { } home)
            return null;
        return s.Make(
            "join.ring",
            Grade.Fault,
            Station.Bank,
            "",
            $"{SiteStage.NameOf(s.Bank)} and {SiteStage.NameOf(other.Document)} charge each other",
            $"What one converter brings over the other takes back: {Say.W(there.HeatW + home.HeatW)} become heat, and both run empty.",
            [new("heat", there.HeatW + home.HeatW, "W")],
            new MendOffer("Take the way back out", _ => "one way only", s.Bank)
            {
                Whole = design with { Joins = [.. design.Joins.Where((_, i) => i != index)] },
            }
        );
    }

    /// <summary>
    /// Two banks of the same volts and units, each for itself: what one still holds the other's loads never get. Told at the first of them.
    /// </summary>
    private static Finding? Halves(FindingScene s)
    {
        if (s.Results is not { Bank: { } mine, Energy: { EnergyBankWh: > 0 } ownDay })
            return null;
        var site = s.Work.Site;
        for (var i = s.Scene.Index + 1; i < site.Count; i++)
        {
            if (site[i] is not { Bank.Value: { } its, Energy.Value: { EnergyBankWh: > 0 } itsDay } other)
                continue;
            if (its.Layout.Cells != mine.Layout.Cells || its.Unit.Chemistry != mine.Unit.Chemistry || its.Unit.Cells != mine.Unit.Cells)
                continue;
            if (
                site.Design.Joins.Any(j =>
                    j.Levels
                    && (j.From, j.To) is var (a, b)
                    && (a == s.Bank.Id && b == other.Document.Id || b == s.Bank.Id && a == other.Document.Id)
                )
            )
                continue;
            double days = mine.Holds.UsableWh / ownDay.EnergyBankWh,
                itsDays = its.Holds.UsableWh / itsDay.EnergyBankWh,
                together = (mine.Holds.UsableWh + its.Holds.UsableWh) / (ownDay.EnergyBankWh + itsDay.EnergyBankWh);
            var first = days <= itsDays ? s.Bank : other.Document;
            return s.Make(
                "bank.half",
                Grade.Note,
                Station.Bank,
                "",
                $"{SiteStage.NameOf(s.Bank)} and {SiteStage.NameOf(other.Document)} are two halves, not one bank",
                $"{SiteStage.NameOf(first)} is empty after {Say.Hours(24 * Math.Min(days, itsDays))} of its own loads while the other goes "
                    + $"on for {Say.Hours(24 * Math.Max(days, itsDays))}; as one bank both would last {Say.Hours(24 * together)}.",
                [new("first empty", 24 * Math.Min(days, itsDays), "h"), new("as one", 24 * together, "h")],
                () => AsOne(s, other, mine, its)
            ) with
            {
                About = other.Document.Id,
            };
        }
        return null;
    }

    /// <summary>One bank of both, where their units are alike and nothing of them was placed apart.</summary>
    private static IEnumerable<MendOffer> AsOne(FindingScene s, BankWork other, BankResult mine, BankResult its)
    {
        var (design, bank, second) = (s.Work.Site.Design, s.Bank, other.Document);
        var strings = mine.Layout.Parallel + its.Layout.Parallel;
        if (
            mine.Unit != its.Unit
            || bank.Positions.Count + second.Positions.Count > 0
            || strings * mine.Layout.Series > DesignCheck.MostUnits
            || bank.Demand.By != DemandBy.Loads
            || second.Demand.By != DemandBy.Loads
        )
            yield break;
        var one = bank with
        {
            Unit = mine.Unit,
            Series = mine.Layout.Series,
            Parallel = strings,
            Demand = bank.Demand with
            {
                Loads =
                [
                    .. bank.Demand.Loads,
                    .. Renamed(bank.Demand.Loads, second.Demand.Loads, l => l.Id, (l, id) => l with { Id = id }),
                ],
            },
            Inverters = [.. bank.Inverters, .. Renamed(bank.Inverters, second.Inverters, x => x.Id, (x, id) => x with { Id = id })],
            Sources = [.. bank.Sources, .. Renamed(bank.Sources, second.Sources, x => x.Id, (x, id) => x with { Id = id })],
        };
        yield return new(
            "Make one bank of both",
            then => then.Bank.Value is { } b ? $"{b.Layout.Series}S{b.Layout.Parallel}P, {Say.Wh(b.Holds.UsableWh)} for all loads" : "",
            one
        )
        {
            Whole = design with
            {
                Banks = [.. design.Banks.Where(b => b.Id != second.Id).Select(b => b.Id == bank.Id ? one : b)],
                Joins = [.. design.Joins.Select(j => j with { From = Of(j.From), To = Of(j.To) }).Where(j => j.From != j.To)],
            },
        };
        string Of(string id) => id == second.Id ? bank.Id : id;
    }

    /// <summary>A second list with ids that the first does not have.</summary>
    private static IEnumerable<TItem> Renamed<TItem>(
        IEnumerable<TItem> first,
        IEnumerable<TItem> second,
        Func<TItem, string> id,
        Func<TItem, string, TItem> with
    )
    {
        var taken = first.Select(id).ToHashSet();
        foreach (var item in second)
        {
            var (own, n) = (id(item), 2);
            while (!taken.Add(own))
                own = $"{id(item)}-{n++}";
            yield return own == id(item) ? item : with(item, own);
        }
    }

    /// <summary>Not every bank is full after a night at the plug. Told at the first bank that has a charger.</summary>
    private static Finding? Plug(FindingScene s, PlugResult plug)
    {
        if (plug.Way is not null || plug.Banks[0].Bank != s.Bank.Id)
            return null;
        return s.Make(
            "plug.night",
            Grade.Caution,
            Station.Charging,
            "/sources",
            "A night at the plug does not fill all banks",
            plug.Words + ".",
            [
                new("together", plug.HoursTogether, "h"),
                new("in turn", plug.HoursInTurn, "h"),
                new("at the plug, together", plug.InputTogetherW, "W"),
            ],
            () => LargerCharger(s, plug)
        );
    }

    /// <summary>The slowest bank's charger as large as the night asks, where the bank may take so much.</summary>
    private static IEnumerable<MendOffer> LargerCharger(FindingScene s, PlugResult plug)
    {
        var slowest = plug.Banks.MaxBy(b => b.Hours)!;
        var design = s.Work.Site.Design;
        var at = design.Banks.Index().First(b => b.Item.Id == slowest.Bank);
        if (at.Item.Sources.Index().FirstOrDefault(x => x.Item is { Kind: SourceKind.Mains, Amps: > 0 }) is not { Item: { } source } found)
            yield break;
        foreach (var share in LargerBy)
        {
            var amps = Math.Ceiling(source.Amps!.Value * slowest.Hours / plug.NightH * share);
            var bank = at.Item.WithSource(found.Index, x => x with { Amps = amps });
            yield return new(
                $"A charger of {Say.Rating(amps)} for {SiteStage.NameOf(at.Item)}",
                then => then.Site.Result?.Plug?.Words ?? "",
                s.Bank,
                "charger"
            )
            {
                Whole = design with { Banks = [.. design.Banks.Select(b => b.Id == bank.Id ? bank : b)] },
            };
        }
    }

    private static readonly double[] LargerBy = [1, 1.25, 1.5];
}

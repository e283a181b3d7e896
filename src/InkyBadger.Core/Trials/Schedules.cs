using InkyBadger.Core.Design;
using InkyBadger.Core.Reference;
using InkyBadger.Core.Wiring;
using InkyBadger.Core.Work;

namespace InkyBadger.Core.Trials;

/// <summary>
/// A fuse to buy and fit: where, how many alike, class, rating, volts and amperes it must and can break, conductor from the source to it
/// [m], and the cable it protects. <paramref name="Chosen"/>: class or rating was pinned. <paramref name="Run"/>: id of its run; of the
/// modules of an array that of the array's run.
/// </summary>
public sealed record FuseRow(
    string Name,
    int Count,
    string Class,
    double? RatingA,
    double MaxDcV,
    double GreatestV,
    double InterruptA,
    double? ShortCircuitA,
    double? DistanceM,
    string Protects,
    bool Chosen,
    string? ReliesOn,
    string Run
);

/// <summary>
/// Pieces of cable to cut alike: pole and colour, ends, size, how many, length each [m], lug and stud at either end, insulating covers of
/// all of them, and what is written on the label. <paramref name="Key"/>: the same for as long as it is the same piece of the design.
/// </summary>
public sealed record CableRow(
    string Label,
    string Pole,
    string Colour,
    string From,
    string To,
    string Size,
    double AreaMm2,
    int Pieces,
    double LengthM,
    string FromLug,
    string ToLug,
    int Covers,
    string Key
);

/// <summary>A drum to buy of: metres of a size in a colour, pieces cut from it, and lugs.</summary>
public sealed record CableTotal(string Size, string Colour, double Metres, int Pieces, int Lugs);

/// <summary>A part that is neither fuse nor cable, and is forgotten easily: how many, and what it must bear at least, in words.</summary>
public sealed record PartRow(string Name, int Count, string Least);

public sealed record SchedulesResult(
    IReadOnlyList<FuseRow> Fuses,
    IReadOnlyList<CableRow> Cables,
    IReadOnlyList<CableTotal> Totals,
    IReadOnlyList<PartRow> Parts
);

/// <summary>Fuse schedule, cable cut list and further parts of a bank as it is designed.</summary>
public static class Schedules
{
    private const string Red = "red",
        Black = "black",
        Either = "as it lies",
        BondColour = "green and yellow";

    /// <summary>Ring terminals from here on [mm²]; below, what the device and the fuse holder take.</summary>
    private const double LugFromMm2 = 6;

    /// <summary>Null as long as there is no main run.</summary>
    public static SchedulesResult? Work(DesignDocument design, int bank) => Of(new SiteWork(design)[bank]);

    internal static SchedulesResult? Of(BankWork work)
    {
        var results = work.Evaluation(headlines: false);
        if (results.MainRun is not { } main || results.Bus is not { } bus)
            return null;
        var cables = new List<CableRow>();
        AddPole(cables, results, main, bus.Plus, "+", Red);
        AddPole(cables, results, main, bus.Minus, "−", Black);
        var n = 0;
        foreach (var c in results.Circuits)
        {
            n++;
            if (c.Run.Cable.Size is null)
                continue;
            var charge = c.Kind == CircuitKind.Charge;
            AddRun(cables, $"C{n}+", c.Id, c.Run, "+", Red, Positive(c.From), Positive(c.To));
            AddRun(cables, $"C{n}−", c.Id, c.Run, "−", Black, charge ? c.From : c.To, charge ? "negative bus" : Negative(c.From));
        }
        AddArrays(cables, results);
        AddInside(cables, results, work.Tables);
        if (results.Bonding is { Absent: false, Size: { } bond } bonding)
            cables.Add(
                new(
                    "E1",
                    "bonding",
                    BondColour,
                    "negative bus",
                    "chassis, hull or earth",
                    bond,
                    bonding.AreaMm2 ?? 0,
                    bonding.Conductors,
                    bonding.LengthM,
                    Lug(bond, bonding.AreaMm2, "M8"),
                    Lug(bond, bonding.AreaMm2, "M8"),
                    0,
                    Run.BondingId
                )
            );
        var totals = cables
            .GroupBy(r => (r.Size, r.Colour))
            .OrderByDescending(g => g.First().AreaMm2)
            .ThenBy(g => g.Key.Colour, StringComparer.Ordinal)
            .Select(g => new CableTotal(
                g.Key.Size,
                g.Key.Colour,
                g.Sum(r => r.Pieces * r.LengthM),
                g.Sum(r => r.Pieces),
                g.First().AreaMm2 >= LugFromMm2 ? 2 * g.Sum(r => r.Pieces) : 0
            ))
            .ToList();
        return new(Fuses(results, main, work.Tables), cables, totals, PartsOf(work.Document, results, main, bus));
    }

    private static string Positive(string end) => end == "bus" ? "positive bus" : end;

    private static string Negative(string end) => end == "bus" ? "negative bus" : end;

    private static List<FuseRow> Fuses(BankEvaluation e, RunResult main, DesignTables tables)
    {
        var rows = new List<FuseRow>();
        if (main.Fuse.RatingA is not null)
            rows.Add(
                new(
                    "Main fuse",
                    1,
                    main.Fuse.Label,
                    main.Fuse.RatingA,
                    e.Protection?.MaxDcV ?? tables.Fuse(main.Fuse.Class).MaxDcV,
                    e.Protection?.GreatestChargingV ?? e.Voltage!.GreatestV,
                    e.Protection?.InterruptA ?? tables.Fuse(main.Fuse.Class).InterruptA,
                    e.Protection?.Short.Amps,
                    main.Fuse.DistanceM,
                    Cable(main),
                    main.Fuse.ClassPinned || main.Fuse.RatingPinned,
                    null,
                    Run.MainId
                )
            );
        if (e.StringFuses is { Fitted: true } s)
            rows.Add(
                new(
                    "String fuses",
                    s.Strings.Count,
                    s.FuseLabel,
                    s.RatingA,
                    s.MaxDcV,
                    s.GreatestV,
                    s.InterruptA,
                    s.Strings.Max(f => f.ShortCircuitA),
                    null,
                    "each string",
                    s.ClassPinned || s.RatingPinned,
                    null,
                    Run.StringsId
                )
            );
        foreach (var c in e.Circuits)
            if (c.Run.Fuse.RatingA is not null)
                rows.Add(
                    new(
                        c.Name,
                        1,
                        c.Run.Fuse.Label,
                        c.Run.Fuse.RatingA,
                        c.Fuse.MaxDcV,
                        c.Fuse.GreatestV,
                        c.Fuse.InterruptA,
                        c.Fuse.Short.Amps,
                        c.Run.Fuse.DistanceM,
                        Cable(c.Run),
                        c.Run.Fuse.ClassPinned || c.Run.Fuse.RatingPinned,
                        c.Fuse.Upstream.ReliesOn,
                        c.Id
                    )
                );
        foreach (var source in e.Charging?.Sources ?? [])
            if (source is { Array: { FuseWanted: true, FuseA: { } rating } array })
                rows.Add(
                    new(
                        $"{source.Name}, a string of modules",
                        (int)Math.Round(array.ArrayA / array.StringA),
                        StringFuseClass.Solar.Label,
                        rating,
                        StringFuseClass.Solar.MaxDcV,
                        array.ColdVocV,
                        StringFuseClass.Solar.InterruptA,
                        array.ArrayA - array.StringA,
                        null,
                        "its modules",
                        false,
                        null,
                        $"array-{source.Id}"
                    )
                );
        return rows;
    }

    private static List<PartRow> PartsOf(Bank bank, BankEvaluation e, RunResult main, BusResult bus)
    {
        var volts = Say.V(e.Protection?.GreatestChargingV ?? e.Voltage!.GreatestV);
        var surge = Math.Max(main.DesignA, e.Protection?.Surge.Amps ?? 0);
        var start = surge > main.DesignA ? $", {Say.A(surge)} at a start" : "";
        var parts = new List<PartRow>();
        if (bus.HasSwitch)
            parts.Add(new("Disconnect", 1, $"{Say.A(main.DesignA)} for good{start}, {volts} DC"));
        parts.Add(new("Bus bar", 2, $"{Say.Rating(Math.Ceiling(Math.Max(main.DesignA, main.Fuse.RatingA ?? 0)))}, covered"));
        if (bank.Bms is { } bms && e.Bank is { } its && its.Unit.IsBare())
            parts.Add(
                new("BMS", its.Layout.Parallel, $"{bms.Name}, {its.Layout.Cells} cells in series, {Say.A(bms.ContinuousA)} continuous")
            );
        parts.Add(new("Shunt with monitor", 1, $"{Say.A(main.DesignA)}{start}"));
        var run = bank.Runs.FirstOrDefault(r => r.Id == Run.MainId);
        if (run?.PreCharge == true)
            parts.Add(new("Pre-charge resistor with button", 1, $"{volts} DC, across the disconnect"));
        foreach (var c in e.Circuits)
        {
            if (c.Kind == CircuitKind.Panel)
                parts.Add(new("DC panel", 1, $"{Say.A(c.Run.DesignA)}, {e.Circuits.Count(x => x.Upstream == c.Id)} ways"));
            if (c.Kind == CircuitKind.ConverterIn)
                parts.Add(new(c.Name, 1, $"{Say.A(c.Run.DesignA)} in, from {volts} down to {Say.V(e.Voltage!.LowV)}"));
            if (bank.Runs.FirstOrDefault(r => r.Id == c.Id)?.Switch is { Absent: false })
                parts.Add(
                    new($"Switch, {c.Name}", 1, $"{Say.A(Math.Max(c.Run.DesignA, c.Fuse.Surge.Amps ?? 0))}, {Say.V(c.Fuse.GreatestV)} DC")
                );
        }
        return parts;
    }

    private static string Cable(RunResult run) => run.Cable.Size is { } size ? Say.Size(size, run.Cable.Conductors) : "no cable yet";

    /// <summary>The pieces of a pole of the main run, place by place.</summary>
    private static void AddPole(
        List<CableRow> rows,
        BankEvaluation e,
        RunResult run,
        IReadOnlyList<LoopPoint> points,
        string pole,
        string colour
    )
    {
        if (run.Cable.Size is not { } size)
            return;
        var n = 0;
        for (var i = 1; i < points.Count; i++)
        {
            var length = points[i].AtM - points[i - 1].AtM;
            // Parts that are bolted to each other need no cable between them.
            if (length < 0.005)
                continue;
            n++;
            var (from, to) = (Word(points[i - 1].Part, pole), Word(points[i].Part, pole));
            var post = points[i - 1].Part == LoopPart.Post ? e.Bank?.Unit.Stud : null;
            rows.Add(
                new(
                    $"M{n}{pole}",
                    PoleWord(pole),
                    colour,
                    from,
                    to,
                    size,
                    run.Cable.AreaMm2 ?? 0,
                    run.Cable.Conductors,
                    Math.Round(length, 3),
                    Lug(size, run.Cable.AreaMm2, post ?? Stud(run)),
                    Lug(size, run.Cable.AreaMm2, Stud(run)),
                    pole == "+" ? 2 * run.Cable.Conductors : 0,
                    $"{Run.MainId}-{points[i - 1].Part}-{points[i].Part}-{PoleWord(pole)}".ToLowerInvariant()
                )
            );
        }
    }

    /// <summary>As a spreadsheet takes it for a word.</summary>
    private static string PoleWord(string pole) =>
        pole switch
        {
            "+" => "plus",
            "−" => "minus",
            _ => pole,
        };

    private static string Word(LoopPart part, string pole) =>
        part switch
        {
            LoopPart.Post => $"battery post {pole}",
            LoopPart.Fuse => "main fuse",
            LoopPart.Switch => "disconnect",
            LoopPart.Shunt => "shunt",
            LoopPart.Bus => pole == "+" ? "positive bus" : "negative bus",
            _ => $"inverter {pole}",
        };

    private static void AddRun(
        List<CableRow> rows,
        string label,
        string id,
        RunResult run,
        string pole,
        string colour,
        string from,
        string to
    ) =>
        rows.Add(
            new(
                label,
                PoleWord(pole),
                colour,
                from,
                to,
                run.Cable.Size!,
                run.Cable.AreaMm2 ?? 0,
                run.Cable.Conductors,
                run.Laid.LengthM,
                Lug(run.Cable.Size!, run.Cable.AreaMm2, Stud(run)),
                Lug(run.Cable.Size!, run.Cable.AreaMm2, Stud(run)),
                pole == "+" && (run.Cable.AreaMm2 ?? 0) >= LugFromMm2 ? 2 * run.Cable.Conductors : 0,
                $"{id}-{PoleWord(pole)}"
            )
        );

    /// <summary>From the modules of each array to its controller.</summary>
    private static void AddArrays(List<CableRow> rows, BankEvaluation e)
    {
        var n = 0;
        foreach (var source in e.Charging?.Sources ?? [])
        {
            if (source.ArrayRun is not { Cable.Size: not null } run)
                continue;
            n++;
            AddRun(rows, $"A{n}+", Run.ArrayPrefix + source.Id, run, "+", Red, $"modules, {source.Name}", $"controller, {source.Name}");
            AddRun(rows, $"A{n}−", Run.ArrayPrefix + source.Id, run, "−", Black, $"modules, {source.Name}", $"controller, {source.Name}");
        }
    }

    /// <summary>Conductors inside the bank that are alike: label and key of their row, and each of them where it lies.</summary>
    public sealed record Inside(string Label, string Key, IReadOnlyList<PlacedAmps> Members);

    /// <summary>Jumpers, links and leads, alike ones together, in the order of the cut list.</summary>
    public static IReadOnlyList<Inside> InsideOf(NetworkResult network)
    {
        var (labels, keys) = (new Dictionary<ConductorKind, int>(), new Dictionary<(ConductorKind, string), int>());
        var list = new List<Inside>();
        foreach (var g in network.Copper.Placed.GroupBy(c => (c.Kind, c.Rail, c.Size, c.LengthM, c.Conductors)))
        {
            var kind = g.Key.Kind;
            labels[kind] = labels.GetValueOrDefault(kind) + 1;
            var like = (kind, PoleWord(PoleOf(kind, g.Key.Rail)));
            keys[like] = keys.GetValueOrDefault(like) + 1;
            var letter =
                kind == ConductorKind.Jumper ? 'J'
                : kind == ConductorKind.Link ? 'L'
                : 'B';
            list.Add(new($"{letter}{labels[kind]}", $"{kind}-{like.Item2}-{keys[like]}".ToLowerInvariant(), [.. g]));
        }
        return list;
    }

    private static string PoleOf(ConductorKind kind, Pole rail) =>
        kind == ConductorKind.Jumper ? "jumper"
        : rail == Pole.Positive ? "+"
        : "−";

    private static void AddInside(List<CableRow> rows, BankEvaluation e, DesignTables tables)
    {
        if (e.Network is not { } network)
            return;
        foreach (var inside in InsideOf(network))
        {
            var (c, count) = (inside.Members[0], inside.Members.Count * inside.Members[0].Conductors);
            var stud = e.Bank?.Unit.Stud ?? "M8";
            var area = tables.Conductor(c.Size).AreaMm2;
            var pole = PoleOf(c.Kind, c.Rail);
            var colour =
                c.Kind == ConductorKind.Jumper ? Either
                : c.Rail == Pole.Positive ? Red
                : Black;
            var (from, to) = c.Kind switch
            {
                ConductorKind.Jumper => ("unit +", "next unit −"),
                ConductorKind.Link => ($"string {pole}", $"next string {pole}"),
                _ => ($"string {pole}", pole == "+" ? "bank’s positive bus" : "bank’s negative bus"),
            };
            rows.Add(
                new(
                    inside.Label,
                    PoleWord(pole),
                    colour,
                    from,
                    to,
                    c.Size,
                    area,
                    count,
                    c.LengthM,
                    Lug(c.Size, area, stud),
                    Lug(c.Size, area, stud),
                    pole == "−" ? 0 : 2 * count,
                    inside.Key
                )
            );
        }
    }

    /// <summary>Usual studs of fuse holders, bus bars and inverters by the copper that goes on them.</summary>
    private static string Stud(RunResult run) =>
        run.Cable.AreaMm2 is >= 70 ? "M10"
        : run.Cable.AreaMm2 is >= 10 ? "M8"
        : "M6";

    private static string Lug(string size, double? areaMm2, string stud) =>
        areaMm2 >= LugFromMm2 ? $"{size} × {stud}" : "as the device takes";
}

using InkyBadger.Core.Design;
using InkyBadger.Core.Reference;
using InkyBadger.Core.Work;

namespace InkyBadger.Core.Practice;

/// <summary>What kind of thing one points at.</summary>
public enum PartKind
{
    /// <summary>A unit of a string.</summary>
    Unit,

    /// <summary>The bank as a whole: its series and strings.</summary>
    Bank,

    /// <summary>Where the leads of the system leave the strings.</summary>
    TakeOff,

    /// <summary>A link of a rail, or the lead of a string to its bus bar.</summary>
    Link,

    /// <summary>Between two units in series.</summary>
    Jumper,

    /// <summary>The fuses of the strings.</summary>
    StringFuses,

    /// <summary>The main fuse, or the place where it belongs.</summary>
    MainFuse,

    /// <summary>The main cable, both poles.</summary>
    MainCable,
    Switch,
    Shunt,
    Bus,
    Bonding,
    Inverter,

    /// <summary>A load on DC with its fuse and cable.</summary>
    Load,

    /// <summary>A load on AC.</summary>
    AcLoad,

    /// <summary>The panel of the DC circuits with its feed.</summary>
    Panel,

    /// <summary>What charges: its device with its run.</summary>
    Source,

    /// <summary>Modules in front of their controller.</summary>
    Array,

    /// <summary>What lies between two banks.</summary>
    Join,

    /// <summary>Where it all stands.</summary>
    Place,
}

/// <summary>Something one may point at: its key, kind, name, the bank it belongs to (from 0), and the id of what it is.</summary>
public sealed record FoundPart(string Key, PartKind Kind, string Name, int Bank, string Id);

/// <summary>A bank somebody else built, as it is worked out: what planting, looking and judging ask of it.</summary>
internal sealed class FoundScene
{
    private IReadOnlyList<FoundPart>? parts;
    private DesignRules? rules;

    public FoundScene(DesignDocument design, Evaluation? evaluation = null)
    {
        Design = design;
        E = evaluation ?? Evaluator.Evaluate(design, mends: false);
    }

    public DesignDocument Design { get; }
    public Evaluation E { get; }
    public IReadOnlyList<FoundPart> Parts => parts ??= [.. AllParts()];

    /// <summary>The house rules by which it is judged.</summary>
    public DesignRules Rules => rules ??= new(Design.HouseRules);

    public FoundPart? Find(string key) => Parts.FirstOrDefault(p => p.Key == key);

    /// <summary>The design with one of its banks in another form.</summary>
    public DesignDocument With(int bank, Func<Bank, Bank> change) =>
        Design with
        {
            Banks = [.. Design.Banks.Select((b, i) => i == bank ? change(b) : b)],
        };

    public DesignDocument WithRun(int bank, string id, Func<Run, Run> change) => With(bank, b => b.WithRun(id, change));

    /// <summary>A unit changed where it stands; one that was like the others gets an entry of its own.</summary>
    public DesignDocument WithUnits(int bank, Func<int, int, bool> which, Func<Position, Position> change) =>
        With(bank, b => b with { Positions = Positions(b, which, change) });

    private static List<Position> Positions(Bank b, Func<int, int, bool> which, Func<Position, Position> change)
    {
        var list = b.Positions.ToList();
        for (var s = 1; s <= b.Parallel; s++)
        for (var u = 1; u <= b.Series; u++)
        {
            if (!which(s, u))
                continue;
            var at = list.FindIndex(p => p.String == s && p.Unit == u);
            var after = change(at >= 0 ? list[at] : new() { String = s, Unit = u });
            if (at >= 0)
                list[at] = after;
            else
                list.Add(after);
        }
        return list;
    }

    public static string Key(int bank, string what) => $"b{bank + 1}/{what}";

    public static string UnitKey(int bank, int s, int u) => Key(bank, $"unit-{s}-{u}");

    public static string CopperKey(PlacedAmps c) => $"copper-{c.Id.ToLowerInvariant()}";

    /// <summary>The circuit with this id; null: there is none.</summary>
    public CircuitResult? Circuit(int bank, string id) => E.Banks[bank].Circuits.FirstOrDefault(c => c.Id == id);

    /// <summary>What is given of a unit where it stands.</summary>
    public static Position? PositionOf(Bank b, int s, int u) => b.Positions.FirstOrDefault(p => p.String == s && p.Unit == u);

    public static UnitItem ItemOf(Bank b, int s, int u) => PositionOf(b, s, u)?.Item ?? b.Unit!;

    private IEnumerable<FoundPart> AllParts()
    {
        for (var i = 0; i < Design.Banks.Count; i++)
        {
            var (b, e) = (Design.Banks[i], E.Banks[i]);
            var at = i;
            FoundPart Part(string what, PartKind kind, string name, string id = "") => new(Key(at, what), kind, name, at, id);
            for (var s = 1; s <= b.Parallel; s++)
            for (var u = 1; u <= b.Series; u++)
                yield return Part($"unit-{s}-{u}", PartKind.Unit, $"{Say.StringName(s)}{u}", $"{s}-{u}");
            yield return Part("bank", PartKind.Bank, $"{b.Series}S{b.Parallel}P as a whole");
            if (b.Parallel > 1)
                yield return Part("take-off", PartKind.TakeOff, "where the leads leave the strings");
            foreach (var c in e.Network?.Copper.Placed ?? [])
                yield return Part(CopperKey(c), c.Kind == ConductorKind.Jumper ? PartKind.Jumper : PartKind.Link, c.Name, c.Id);
            if (b.Parallel > 1 && e.StringFuses is { Asked: true })
                yield return Part("string-fuses", PartKind.StringFuses, "the fuses of the strings");
            yield return Part("main-fuse", PartKind.MainFuse, "the main fuse");
            yield return Part("main-cable", PartKind.MainCable, "the main cable");
            yield return Part("switch", PartKind.Switch, "the main switch");
            yield return Part("shunt", PartKind.Shunt, "the shunt and what passes it");
            yield return Part("bus", PartKind.Bus, "the bus bars");
            if (e.Bonding is not null)
                yield return Part("bonding", PartKind.Bonding, "the bonding conductor");
            if (e.Inverter is { Item: not null })
                yield return Part("inverter", PartKind.Inverter, "the inverter");
            if (e.Circuits.Any(c => c.Kind == CircuitKind.Panel))
                yield return Part("panel", PartKind.Panel, "the DC panel’s feed", Run.PanelId);
            foreach (var load in b.Demand.Loads)
                yield return Part($"load-{load.Id}", load.Kind == LoadKind.Ac ? PartKind.AcLoad : PartKind.Load, load.Name, load.Id);
            foreach (var source in b.Sources)
            {
                yield return Part($"source-{source.Id}", PartKind.Source, source.Name, source.Id);
                if (source.Array is not null)
                    yield return Part($"array-{source.Id}", PartKind.Array, $"the modules of {source.Name}", source.Id);
            }
        }
        foreach (var (i, join) in Design.Joins.Index())
            yield return new($"join-{join.Id}", PartKind.Join, "what joins the banks", 0, join.Id);
        yield return new("place", PartKind.Place, "where it stands", 0, "");
    }
}

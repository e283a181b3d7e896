using InkyBadger.Core.Demand;
using InkyBadger.Core.Design;
using InkyBadger.Core.Network;
using InkyBadger.Core.Protection;

namespace InkyBadger.Core.Work;

/// <summary>What a thing on the way to a load is.</summary>
public enum DarkKind
{
    String,
    Fuse,
    Switch,
    Bus,
    Converter,
    Inverter,
    Circuit,
    Join,
}

/// <summary>
/// Something that can open: id, name, kind, and what it hangs on; what is lost when it alone opens (ids of loads), with strings that follow
/// it over their limits, and the watts of both.
/// </summary>
/// <param name="Follows">Names of strings that drop out after it, at full load.</param>
public sealed record DarkElement(
    string Id,
    string Name,
    DarkKind Kind,
    IReadOnlyList<string> FedBy,
    bool NeedsAll,
    IReadOnlyList<string> Lost,
    IReadOnlyList<string> Kept,
    double LostW,
    double KeptW,
    bool Blackout,
    IReadOnlyList<string> Follows
);

/// <summary>A load with what it hangs on, and the single things that take it (ids).</summary>
public sealed record DarkLoad(
    string Id,
    string Name,
    int Index,
    double Watts,
    string FedBy,
    bool MustStay,
    bool HasReserve,
    IReadOnlyList<string> TakenBy
);

/// <summary>What goes dark when any one thing opens, away from any plug and with the sun down.</summary>
public sealed record DarkResult(IReadOnlyList<DarkElement> Elements, IReadOnlyList<DarkLoad> Loads, string Headline);

/// <summary>
/// The way from the strings to each load as a list of things that feed each other (method, 10.4). Sources are left out: they come and go.
/// </summary>
internal static class DarkWork
{
    public static DarkResult? Of(BankWork w)
    {
        if (w.MainRun.Value is not { } main || w.Bank.Value is not { } bank || w.Resolved.Value is not { } resolved)
            return null;
        var nodes = new List<(string Id, string Name, DarkKind Kind, List<string> FedBy, bool All)>();
        void Add(string id, string name, DarkKind kind, params string[] fedBy) => nodes.Add((id, name, kind, [.. fedBy], false));
        var strings = Enumerable
            .Range(1, bank.Layout.Parallel)
            .Select(n => (Id: $"string-{n}", Name: $"string {Say.StringName(n)}"))
            .ToList();
        foreach (var s in strings)
            Add(s.Id, s.Name, DarkKind.String);
        string[] all = [.. strings.Select(s => s.Id)];
        var last = all;
        if (main.Fuse.RatingA is not null)
            last = Then("main-fuse", "the main fuse", DarkKind.Fuse);
        if (w.Scene.MainRun.Switch is not { Absent: true })
            last = Then("main-switch", "the disconnect", DarkKind.Switch);
        last = Then("bus", "the + bus", DarkKind.Bus);
        string[] Then(string id, string name, DarkKind kind)
        {
            Add(id, name, kind, last);
            return [id];
        }
        var circuits = w.Circuits.Value ?? [];
        string AcFeed()
        {
            var onward = circuits.FirstOrDefault(c => c.Kind == CircuitKind.Inverter);
            var from = onward is null ? last : [OfRun(onward)];
            Add("inverter", "the inverter", DarkKind.Inverter, from);
            return "inverter";
        }
        string OfRun(CircuitResult c)
        {
            var id = $"run-{c.Id}";
            if (nodes.Exists(n => n.Id == id))
                return id;
            var from = c.Upstream is { } up && circuits.FirstOrDefault(x => x.Id == up) is { } feeder ? new[] { OfRun(feeder) } : last;
            var kind =
                c.Kind is CircuitKind.ConverterIn ? DarkKind.Converter
                : c.Run.Fuse.RatingA is null ? DarkKind.Circuit
                : DarkKind.Fuse;
            Add(
                id,
                kind == DarkKind.Converter ? $"the {c.Name}, or its fuse"
                    : kind == DarkKind.Fuse ? $"the fuse of {c.Name}"
                    : $"the run of {c.Name}",
                kind,
                from
            );
            return id;
        }
        foreach (var c in circuits.Where(c => c.Kind is not CircuitKind.Charge))
            OfRun(c);
        // Behind the inverter the AC side as it is drawn: switch, panel and circuit.
        string OnAc(string load, string from)
        {
            foreach (var part in AcWay(w, load))
            {
                var id = $"ac-{part.Id}";
                if (!nodes.Exists(n => n.Id == id))
                    Add(id, AcBoard.NameOf(part), AcGraph.IsSwitch(part) ? DarkKind.Switch : DarkKind.Circuit, from);
                from = id;
            }
            return from;
        }
        string? inverter = null;
        var loads = new List<(ResolvedLoad Load, int Index, Load Doc, string FedBy)>();
        var document = (w.Fed.Value ?? w.Document).Demand.Loads;
        foreach (var (i, load) in resolved.Index())
        {
            if (i >= document.Count)
                break;
            var doc = document[i];
            var fedBy =
                doc.Kind == LoadKind.Ac ? OnAc(doc.Id, inverter ??= AcFeed())
                : circuits.LastOrDefault(c => c.Loads.Contains(i) && c.Kind is CircuitKind.Branch) is { } branch ? OfRun(branch)
                : circuits.LastOrDefault(c => c.Loads.Contains(i)) is { } run ? OfRun(run)
                : "bus";
            loads.Add((load, i, doc, fedBy));
        }
        if (loads.Count == 0)
            return null;
        var list = nodes.ConvertAll(n => new FedNode(n.Id, n.FedBy, n.All));
        list.AddRange(loads.Select(l => new FedNode($"load {l.Index}", [l.FedBy], false, true, l.Load.Daily.RunningW)));
        var elements = new List<DarkElement>();
        foreach (var n in nodes)
        {
            var follows = n.Kind == DarkKind.String ? Following(w, int.Parse(n.Id["string-".Length..])) : [];
            var opens = new List<string> { n.Id };
            opens.AddRange(follows.Select(s => $"string-{s}"));
            var r = DarkList.Work(list, opens);
            string IdOf(string node) => loads.First(l => $"load {l.Index}" == node).Doc.Id;
            elements.Add(
                new(
                    n.Id,
                    n.Name,
                    n.Kind,
                    n.FedBy,
                    n.All,
                    [.. r.Lost.Select(IdOf)],
                    [.. r.Kept.Select(IdOf)],
                    r.LostW,
                    r.KeptW,
                    r.Blackout,
                    [.. follows.Select(s => $"string {Say.StringName(s)}")]
                )
            );
        }
        List<DarkLoad> dark =
        [
            .. loads.Select(l => new DarkLoad(
                l.Doc.Id,
                l.Load.Name,
                l.Index,
                l.Load.Daily.RunningW,
                l.FedBy,
                l.Doc.MustStay,
                l.Doc.HasReserve,
                [.. elements.Where(e => e.Lost.Contains(l.Doc.Id)).Select(e => e.Id)]
            )),
        ];
        return new(elements, dark, Headline(elements, dark));
    }

    /// <summary>The parts between the bank’s inverter and the circuit of a load, where some position of the switches joins them.</summary>
    private static IEnumerable<AcPart> AcWay(BankWork w, string load)
    {
        var side = w.Scene.Design.AcSide;
        if (
            side.Parts.FirstOrDefault(p => p.Kind == AcPartKind.Circuit && p.Loads.Contains(load)) is not { } circuit
            || w.Site.Ac is not { Refused: null }
        )
            return [];
        var graph = AcGraph.Of(side);
        var starts = side.Parts.Where(p => p.Kind == AcPartKind.Inverter && (p.Bank ?? w.Document.Id) == w.Document.Id).ToList();
        var count = graph.Switches.Aggregate(1, (n, s) => n * AcGraph.PositionsOf(s));
        for (var place = 0; place < count; place++)
        {
            var joined = graph.Joined(graph.StateAt(place));
            foreach (var start in starts)
            foreach (var leg in graph.Legs.Where(l => graph.IsOn(start, l)))
                if (graph.Way(joined, AcGraph.NodeOf(start.Id, leg), circuit.Id) is { } way)
                    return way;
        }
        return [];
    }

    /// <summary>Strings that drop out after the first at full load, one after the other (method, 5.3).</summary>
    private static List<int> Following(BankWork w, int first)
    {
        if (
            w.Network.Value is not { } network
            || w.Wired.Value is not { } wired
            || w.Pack.Value is not { } pack
            || network.Strings.BankA <= 0
            || pack.Parallel < 2
            || pack.Strings.All(s => s.LimitA is null)
        )
            return [];
        var limits = pack.Strings.Select(s => new StringLimit(s.LimitA)).ToArray();
        var cascade = BankSharing.Cascade(wired.Network, new double[pack.Parallel], limits, network.Strings.BankA, first);
        return [.. cascade.Order.Where(s => s != first)];
    }

    private static string Headline(List<DarkElement> elements, List<DarkLoad> loads)
    {
        var precious = loads.Where(l => l is { MustStay: true, HasReserve: false, TakenBy.Count: > 0 }).ToList();
        if (precious is [var one, ..])
            return $"{one.Name} goes dark when any one of {one.TakenBy.Count} things opens";
        var whole = elements.Where(e => e.Blackout).ToList();
        if (loads.Exists(l => l.MustStay))
            return "What must not go dark has a reserve of its own";
        return whole.Count == 0 ? "No single thing darkens all"
            : whole.Count == 1 ? $"One thing darkens all: {whole[0].Name}"
            : $"Any one of {whole.Count} things darkens all: {Say.List([.. whole.Take(3).Select(e => e.Name)], "or")}"
                + (whole.Count > 3 ? " and others" : "");
    }
}

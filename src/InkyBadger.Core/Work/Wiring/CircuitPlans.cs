using InkyBadger.Core.Demand;
using InkyBadger.Core.Design;

namespace InkyBadger.Core.Work;

/// <summary>What a run beyond the bus is for.</summary>
public enum CircuitKind
{
    Inverter,
    Panel,
    Branch,
    ConverterIn,
    ConverterOut,
    Charge,
    Own,
    Join,
    FurtherInverter,
}

/// <summary>
/// A run beyond the bus as it follows from the design: id, ends, the run it hangs on (null: the bus), amperes with their reason, and the
/// converter's own volts where it hangs behind one.
/// </summary>
internal sealed record CircuitPlan(string Id, CircuitKind Kind, string Name, string From, string To, string? Upstream)
{
    /// <summary>Indices of the loads on it, and which of them starts hardest; index of its source.</summary>
    public IReadOnlyList<int> Loads { get; init; } = [];
    public int? Starts { get; init; }
    public int? Source { get; init; }

    /// <summary>Watts at its end; null: amperes are given.</summary>
    public double? Watts { get; init; }
    public double Amps { get; init; }
    public double StartExtraW { get; init; }

    /// <summary>What flows at a start [A], where it is given as amperes.</summary>
    public double? StartA { get; init; }
    public double StartSeconds { get; init; }

    /// <summary>The highest of the least volts that devices at its end accept [V]; null: none of them says any.</summary>
    public double? NeedsV { get; init; }

    /// <summary>Volts behind a converter; null: the bus.</summary>
    public double? OutputV { get; init; }

    /// <summary>The share of what goes into it that comes out; 1 but for a converter's own feed.</summary>
    public double Efficiency { get; init; } = 1;
    public string Why { get; init; } = "";
    public double AssumedLengthM { get; init; }
}

/// <summary>
/// Which runs a design asks for beyond the bus (method, 6): the inverter's own, charge runs, converters, DC circuits, one's own.
/// </summary>
internal static class CircuitPlans
{
    /// <summary>Lengths one way of what nobody has measured yet [m].</summary>
    private const double InverterM = 1.5,
        PanelM = 1,
        BranchM = 4,
        ConverterM = 0.8,
        JoinM = 2;

    private static double SourceM(SourceKind kind) =>
        kind switch
        {
            SourceKind.Alternator => 5,
            SourceKind.Generator => 4,
            SourceKind.DcDc => 3,
            _ => 2,
        };

    /// <summary>Whether an id is of none of the runs that follow from the design by themselves.</summary>
    public static bool IsOwn(string id) =>
        id is not (Run.MainId or Run.InverterId or Run.BondingId or Run.StringsId or Run.PanelId)
        && !id.StartsWith(Run.LoadPrefix, StringComparison.Ordinal)
        && !id.StartsWith(Run.SourcePrefix, StringComparison.Ordinal)
        && !id.StartsWith(Run.ConverterPrefix, StringComparison.Ordinal)
        && !id.StartsWith(Run.FurtherPrefix, StringComparison.Ordinal)
        && !id.StartsWith(Run.JoinPrefix, StringComparison.Ordinal)
        && !id.StartsWith(Run.ArrayPrefix, StringComparison.Ordinal);

    public static List<CircuitPlan> Of(BankScene scene, Bank fed, List<ResolvedLoad> resolved, Flows flows, LoadsResult? loads)
    {
        var plans = new List<CircuitPlan>(resolved.Count + 4);
        foreach (var flow in flows.All)
            if (flow is { Kind: FlowKind.Inverter, Out.WorstA: > 0 } && flow.Run != Run.MainId)
                plans.Add(
                    new(
                        flow.Run,
                        flow.Run == Run.InverterId ? CircuitKind.Inverter : CircuitKind.FurtherInverter,
                        flow.Run == Run.InverterId ? "Inverter" : flow.Name,
                        "bus",
                        flow.Run == Run.InverterId ? "inverter" : flow.Name,
                        null
                    )
                    {
                        Amps = flow.Out.WorstA,
                        StartA = flow.Run == Run.InverterId && loads is { Worst.StartSeconds: > 0 } ? flow.Out.SurgeA : null,
                        StartSeconds = loads?.Worst.StartSeconds ?? 0,
                        Why = "the inverter alone, at the lowest volts",
                        AssumedLengthM = InverterM,
                    }
                );
        foreach (var (i, source) in scene.Bank.Sources.Index())
            if (source.MadeForA is > 0 and var amps)
                plans.Add(
                    new(
                        Run.SourcePrefix + source.Id,
                        CircuitKind.Charge,
                        source.Name.Length > 0 ? source.Name : Word(source.Kind),
                        source.Place is { Length: > 0 } place ? place : Word(source.Kind),
                        "bus",
                        null
                    )
                    {
                        Source = i,
                        Amps = amps,
                        Why = "what it is made for",
                        AssumedLengthM = SourceM(source.Kind),
                    }
                );
        var circuits = Circuits(scene, fed, resolved);
        AddDc(plans, resolved, circuits.FindAll(c => c.Kind == LoadKind.Dc), scene, fed.Demand);
        foreach (var group in circuits.FindAll(c => c.Kind == LoadKind.Converter).GroupBy(c => c.OutputV).OrderBy(g => g.Key))
            AddConverter(plans, scene, fed.Demand, resolved, group.Key, [.. group]);
        foreach (var flow in flows.All)
            if (flow.Kind is FlowKind.JoinOut or FlowKind.JoinIn)
                plans.Add(
                    new(
                        flow.Run,
                        CircuitKind.Join,
                        flow.Name,
                        flow.Kind == FlowKind.JoinOut ? "bus" : flow.Name,
                        flow.Kind == FlowKind.JoinOut ? flow.Name : "bus",
                        null
                    )
                    {
                        Amps = Math.Max(flow.Out.WorstA, flow.ChargingA),
                        Why =
                            flow.Kind == FlowKind.JoinOut ? "what the other bank takes, at the lowest volts" : "what the other bank brings",
                        AssumedLengthM = JoinM,
                    }
                );
        foreach (var run in scene.Bank.Runs)
            if (IsOwn(run.Id) && run.Amps is > 0)
                plans.Add(
                    new(run.Id, CircuitKind.Own, run.To.Length > 0 ? run.To : "a run of your own", "bus", run.To, null)
                    {
                        Amps = run.Amps.Value,
                        Why = "as you say",
                        AssumedLengthM = BranchM,
                    }
                );
        return plans;
    }

    public static string Word(SourceKind kind) =>
        kind switch
        {
            SourceKind.Solar => "solar controller",
            SourceKind.Alternator => "alternator",
            SourceKind.Mains => "mains charger",
            SourceKind.Generator => "generator charger",
            _ => "DC–DC charger",
        };

    /// <summary>Loads on one fuse and one cable: the first gives it its name and its place in the list.</summary>
    private sealed record Circuit(string Id, LoadKind Kind, double OutputV, int First, List<int> Loads)
    {
        public double? NeedsV(BankDemandSource demand)
        {
            double? most = null;
            if (demand.By == DemandBy.Loads)
                foreach (var i in Loads)
                    if (demand.Loads[i].Window?.MinV is { } least)
                        most = Math.Max(most ?? least, least);
            return most;
        }
    }

    private static List<Circuit> Circuits(BankScene scene, Bank fed, List<ResolvedLoad> resolved)
    {
        var demand = fed.Demand;
        double OutputOf(int i) =>
            demand.By == DemandBy.Loads ? demand.Loads[i].Volts ?? DevicesStage.DefaultConverterV : DevicesStage.DefaultConverterV;
        var byId = new Dictionary<string, Circuit>();
        var list = new List<Circuit>(resolved.Count);
        var later = new List<(int Load, string With)>();
        for (var i = 0; i < resolved.Count; i++)
        {
            var load = resolved[i];
            if (load.Daily.Kind == LoadKind.Ac || load.Daily.RunningW <= 0)
                continue;
            var id = Run.LoadPrefix + load.Id;
            if (scene.Find(id)?.SharedWith is { } with && with != id)
                later.Add((i, with));
            else
            {
                var circuit = new Circuit(id, load.Daily.Kind, load.Daily.Kind == LoadKind.Converter ? OutputOf(i) : 0, i, [i]);
                list.Add(circuit);
                byId[id] = circuit;
            }
        }
        foreach (var (i, with) in later)
        {
            var volts = resolved[i].Daily.Kind == LoadKind.Converter ? OutputOf(i) : 0;
            // Only with a circuit that stands by itself, on the same volts; else it keeps its own.
            if (byId.TryGetValue(with, out var host) && host.Kind == resolved[i].Daily.Kind && host.OutputV == volts)
                host.Loads.Add(i);
            else
                list.Add(new(Run.LoadPrefix + resolved[i].Id, resolved[i].Daily.Kind, volts, i, [i]));
        }
        return list;
    }

    private static void AddDc(
        List<CircuitPlan> plans,
        List<ResolvedLoad> resolved,
        List<Circuit> circuits,
        BankScene scene,
        BankDemandSource demand
    )
    {
        if (circuits.Count == 0)
            return;
        // With nothing else on the bus the main run itself may end at the only load.
        if (circuits.Count == 1 && scene.Inverter is null && scene.MainRun.To is not ("" or "bus" or "inverter"))
            return;
        var panel = circuits.Count > 1;
        if (panel)
        {
            plans.Add(
                new(Run.PanelId, CircuitKind.Panel, "DC panel", "bus", "DC panel", null)
                {
                    Watts = FeedW(scene, resolved, circuits),
                    NeedsV = circuits.Max(c => c.NeedsV(demand)),
                    Why = FeedWhy(scene, circuits.Count),
                    AssumedLengthM = PanelM,
                }
            );
        }
        foreach (var c in circuits)
            plans.Add(Branch(c, demand, resolved, panel ? "DC panel" : "bus", panel ? Run.PanelId : null, null));
    }

    private static void AddConverter(
        List<CircuitPlan> plans,
        BankScene scene,
        BankDemandSource demand,
        List<ResolvedLoad> resolved,
        double outputV,
        List<Circuit> circuits
    )
    {
        var id = Run.ConverterPrefix + outputV.ToString(System.Globalization.CultureInfo.InvariantCulture);
        var name = $"{Say.V(outputV)} converter";
        var watts = FeedW(scene, resolved, circuits);
        plans.Add(
            new(id, CircuitKind.ConverterIn, name, "bus", name, null)
            {
                Watts = watts,
                Efficiency = LoadsStage.AssumedConverterEfficiency,
                Why = circuits.Count == 1 ? "all its load takes, and its own loss" : $"{FeedWhy(scene, circuits.Count)}, and its own loss",
                AssumedLengthM = ConverterM,
            }
        );
        var panel = circuits.Count > 1;
        if (panel)
            plans.Add(
                new(id + "-panel", CircuitKind.ConverterOut, $"{Say.V(outputV)} panel", name, $"{Say.V(outputV)} panel", id)
                {
                    Watts = watts,
                    NeedsV = circuits.Max(c => c.NeedsV(demand)),
                    OutputV = outputV,
                    Why = FeedWhy(scene, circuits.Count),
                    AssumedLengthM = PanelM,
                }
            );
        foreach (var c in circuits)
            plans.Add(Branch(c, demand, resolved, panel ? $"{Say.V(outputV)} panel" : name, panel ? id + "-panel" : id, outputV));
    }

    private static CircuitPlan Branch(
        Circuit c,
        BankDemandSource demand,
        List<ResolvedLoad> resolved,
        string from,
        string? upstream,
        double? outputV
    )
    {
        var first = resolved[c.First];
        double watts = 0,
            extra = 0,
            seconds = 0;
        int? starts = null;
        foreach (var i in c.Loads)
        {
            watts += resolved[i].Daily.RunningW;
            if (resolved[i].Daily.StartExtraW <= extra)
                continue;
            extra = resolved[i].Daily.StartExtraW;
            seconds = resolved[i].StartSeconds;
            starts = i;
        }
        var name = c.Loads.Count == 1 ? first.Name : $"{first.Name} and {c.Loads.Count - 1} more";
        return new(c.Id, CircuitKind.Branch, name, from, first.Name, upstream)
        {
            Loads = c.Loads,
            Starts = starts,
            Watts = watts,
            StartExtraW = extra,
            StartSeconds = seconds,
            OutputV = outputV,
            NeedsV = c.NeedsV(demand),
            Why =
                first.States is not null ? "its greatest state"
                : c.Loads.Count > 1 ? $"all {c.Loads.Count} loads on it at once"
                : first.Daily.Quantity > 1 ? $"all {first.Daily.Quantity} of them"
                : "all it takes",
            AssumedLengthM = BranchM,
        };
    }

    /// <summary>
    /// What a panel or a converter is fed for, at its loads [W]: what a hand can switch on together by the house rule, never less than the
    /// largest branch alone, nor than the clock says.
    /// </summary>
    private static double FeedW(BankScene scene, List<ResolvedLoad> resolved, List<Circuit> circuits)
    {
        double all = 0,
            largest = 0;
        var behind = circuits[0].Kind == LoadKind.Converter ? LoadsStage.AssumedConverterEfficiency : 1;
        foreach (var c in circuits)
        {
            double watts = 0;
            foreach (var i in c.Loads)
                watts += resolved[i].Daily.RunningW;
            all += watts;
            largest = Math.Max(largest, watts);
        }
        var together = scene.Rules.NumberOrNone("panel-feed") is { } share ? share * all : 0;
        var clock = circuits.Count == 1 ? largest : Peak(resolved, [.. circuits.SelectMany(c => c.Loads)]) * behind;
        return Math.Max(together, Math.Max(largest, clock));
    }

    private static string FeedWhy(BankScene scene, int circuits) =>
        scene.Rules.NumberOrNone("panel-feed") is { } share
            ? $"{(share < 1 ? Say.Percent(share, 0) + " of " : "")}{circuits} circuits by the house rule, or the most at once"
            : $"the most of {circuits} circuits at once";

    /// <summary>The most that these loads take at one instant, at the bus [W].</summary>
    private static double Peak(List<ResolvedLoad> resolved, List<int> which)
    {
        double peak = 0;
        foreach (var season in LoadsStage.SeasonsOf(resolved))
        {
            var loads = LoadsStage.In(resolved, season);
            foreach (
                var segment in DayProfile.Work(
                    [.. which.Select(i => loads[i].Daily)],
                    LoadsStage.AssumedConverterEfficiency,
                    SurgeRule.OneAtATime
                )
            )
                peak = Math.Max(peak, segment.DcW);
        }
        // A load that is never on still has its wires.
        return peak > 0 ? peak : which.Max(i => resolved[i].Daily.RunningW);
    }
}

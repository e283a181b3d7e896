using InkyBadger.Core.Design;
using InkyBadger.Core.Inverters;
using InkyBadger.Core.Reference;

namespace InkyBadger.Core.Work;

/// <summary>What flows at the bus: out to inverters, loads, runs of one's own and other banks; in from sources and other banks.</summary>
public enum FlowKind
{
    Inverter,
    Dc,
    Converter,
    Own,
    JoinOut,
    Source,
    JoinIn,
    Charger,

    /// <summary>Nothing yet, so all that the bank may give.</summary>
    Bank,
}

/// <summary>
/// Amperes that leave the bus: by design at nominal and at the lowest volts, with what runs today, and at the worst instant. DC loads are
/// those of the instant at which they take most together.
/// </summary>
public readonly record struct FlowAmps(double NominalA, double WorstA, double RunningA, double SurgeA)
{
    public static FlowAmps operator +(FlowAmps a, FlowAmps b) =>
        new(a.NominalA + b.NominalA, a.WorstA + b.WorstA, a.RunningA + b.RunningA, a.SurgeA + b.SurgeA);
}

/// <summary>
/// One flow at the bus: of what, by which run it comes or goes (the main run itself where the inverter has none of its own), what it takes,
/// and what it brings when it charges [A].
/// </summary>
public sealed record Flow(FlowKind Kind, string Id, string Name, string Run, FlowAmps Out, double ChargingA);

/// <summary>
/// Everything that flows on the bus. What leaves it is what the bank gives: the sums here are the bank's current, the main run's and, added
/// up, its strings'.
/// </summary>
public sealed class Flows
{
    public IReadOnlyList<Flow> All { get; }

    /// <summary>All that leaves the bus, which the bank gives.</summary>
    public FlowAmps Bank { get; }

    /// <summary>All but the first inverter, and of that the loads on DC, runs of one's own, joins and further inverters.</summary>
    public FlowAmps Beside { get; }
    public FlowAmps DcLoads { get; }
    public FlowAmps Own { get; }
    public FlowAmps Joins { get; }
    public FlowAmps Inverter { get; }
    public FlowAmps FurtherInverters { get; }

    /// <summary>Nothing draws yet: it is what the bank may give.</summary>
    public bool IsOffer => All.Any(f => f.Kind == FlowKind.Bank);

    /// <summary>All that charges the bank, with nothing running [A].</summary>
    public double ChargingA { get; }

    /// <summary>AC watts the first inverter's run is made for; 0 without one.</summary>
    public double DesignW { get; init; }

    /// <summary>The rule of thumb's amperes for these watts; null where it has none.</summary>
    public double? RuleOfThumbA { get; init; }

    public Flows(IReadOnlyList<Flow> all)
    {
        All = all;
        var first = true;
        foreach (var flow in all)
        {
            Bank += flow.Out;
            ChargingA += flow.ChargingA;
            if (flow.Kind == FlowKind.Inverter && first)
            {
                first = false;
                Inverter = flow.Out;
                continue;
            }
            Beside += flow.Out;
            switch (flow.Kind)
            {
                case FlowKind.Inverter:
                    FurtherInverters += flow.Out;
                    break;
                case FlowKind.Dc or FlowKind.Converter:
                    DcLoads += flow.Out;
                    break;
                case FlowKind.Own:
                    Own += flow.Out;
                    break;
                case FlowKind.JoinOut:
                    Joins += flow.Out;
                    break;
            }
        }
    }
}

/// <summary>Every load, inverter, run of one's own, join and source of a bank with its amperes (method, 6 and 2.2).</summary>
public static class FlowStage
{
    /// <summary>The share of what a joining converter takes that comes out, until its data sheet says it.</summary>
    public const double AssumedJoinEfficiency = 0.92;

    public static Step<Flows> Work(BankWork w)
    {
        var voltage = w.Voltage.Need();
        var flows = new List<Flow>(8);
        var (designW, thumb) = AddInverters(w, voltage, flows);
        AddLoads(w, voltage, flows);
        foreach (var run in w.Document.Runs)
            if (CircuitPlans.IsOwn(run.Id) && run.Amps is { } amps)
                flows.Add(
                    new(FlowKind.Own, run.Id, run.To.Length > 0 ? run.To : "a run of your own", run.Id, new(amps, amps, amps, amps), 0)
                );
        foreach (var source in w.Document.Sources)
            if (source.MadeForA is > 0 and var amps)
                flows.Add(new(FlowKind.Source, source.Id, source.Name, Run.SourcePrefix + source.Id, default, amps));
        AddJoins(w, voltage, flows);
        AddChargers(w, flows);
        if (w.Loads.Value is null && !flows.Exists(f => f.Out.WorstA > 0) && BankFirst.MayGiveA(w, voltage) is { } may)
        {
            // An inverter that idles has its part of it: together they are what the bank may give, at no instant more.
            double Left(Func<FlowAmps, double> amps) => Math.Max(0, may - flows.Sum(f => amps(f.Out)));
            FlowAmps left = new(Left(f => f.NominalA), Left(f => f.WorstA), Left(f => f.RunningA), Left(f => f.SurgeA));
            flows.Add(new(FlowKind.Bank, "bank", "all the bank may give", Run.MainId, left, 0));
        }
        return new Flows(flows) { DesignW = designW, RuleOfThumbA = thumb };
    }

    private static (double DesignW, double? Thumb) AddInverters(BankWork w, VoltageResult voltage, List<Flow> flows)
    {
        if (w.Inverter.Value is not { } inverter)
            return default;
        var byRating = VoltageStage.Rule(w.Scene) == DesignRule.InverterRating;
        double peakAc = w.Loads.Value?.PeakAcW ?? 0,
            surgeW = w.Loads.Value?.SurgeDemandW ?? 0;
        // Without an inverter in the catalogue the required watts stand in for its rating; its rating is what a cable must expect, hot or
        // not.
        var rating = inverter.Item is { } item ? item.ContinuousW * inverter.Stack : inverter.Wanted.ContinuousW;
        var designW = byRating ? rating : peakAc;
        double nominal = 0,
            worst = 0;
        double? thumb = null;
        if (designW > 0)
        {
            var currents = InverterCurrent.Work(
                new(
                    designW,
                    inverter.Efficiency,
                    voltage.SystemV,
                    voltage.NominalV,
                    voltage.Cells,
                    Chemistries.Get(voltage.Chemistry).CellLowUnderLoadV,
                    inverter.IdleW,
                    DesignRule.Load,
                    null,
                    designW
                )
            );
            (nominal, worst, thumb) = (currents.NominalA, currents.WorstA, currents.RuleOfThumbA);
        }
        double At(double watts) => InverterCurrent.At(watts, inverter.Efficiency, inverter.IdleW, voltage.LowV);
        flows.Add(
            new(
                FlowKind.Inverter,
                w.Document.Inverters[0].Id,
                inverter.Name,
                w.Scene.HasInverterRun ? Run.InverterId : Run.MainId,
                new(nominal, worst, At(peakAc), At(surgeW)),
                0
            )
        );
        foreach (var further in w.Scene.FurtherInverters)
        {
            // One that is not chosen yet is taken to be like the first.
            if ((further.Item ?? inverter.Item) is not { } own)
                continue;
            // The loads of the list are the first one's: of another only its rating and its idling are known.
            var together = further.Item is null ? 1 : Math.Max(1, further.Stack);
            var watts = byRating ? own.ContinuousW * together : 0;
            double Of(double ac, double volts) => InverterCurrent.At(ac, own.Efficiency, own.IdleW * together, volts);
            flows.Add(
                new(
                    FlowKind.Inverter,
                    further.Id,
                    own.Name,
                    Run.FurtherPrefix + further.Id,
                    new(Of(watts, voltage.NominalV), Of(watts, voltage.LowV), Of(0, voltage.LowV), Of(0, voltage.LowV)),
                    0
                )
            );
        }
        return (designW, thumb);
    }

    /// <summary>The loads on DC that are on when they take most together, each with what it then takes.</summary>
    private static void AddLoads(BankWork w, VoltageResult voltage, List<Flow> flows)
    {
        if (w.Loads.Value is not { PeakDcW: > 0 } figures || w.Resolved.Value is not { } resolved)
            return;
        var most = figures.Profile[0];
        foreach (var segment in figures.Profile)
            if (segment.DcW > most.DcW)
                most = segment;
        foreach (var load in LoadsStage.In(resolved, most.Season))
        {
            if (load.Daily.Kind == LoadKind.Ac || !load.Daily.OnAt(most.FromH))
                continue;
            var watts = load.Daily.Kind == LoadKind.Dc ? load.Daily.RunningW : load.Daily.RunningW / LoadsStage.AssumedConverterEfficiency;
            double nominal = watts / voltage.NominalV,
                worst = watts / voltage.LowV;
            flows.Add(
                new(
                    load.Daily.Kind == LoadKind.Dc ? FlowKind.Dc : FlowKind.Converter,
                    load.Id,
                    load.Name,
                    Run.LoadPrefix + load.Id,
                    new(nominal, worst, worst, worst),
                    0
                )
            );
        }
    }

    /// <summary>
    /// What other banks take and bring. A join is rated by what comes out of it; what goes in is more by its loss and by the volts, most at
    /// this bank's lowest and the other's highest (method, 16.1).
    /// </summary>
    private static void AddJoins(BankWork w, VoltageResult voltage, List<Flow> flows)
    {
        foreach (var (n, join) in w.Scene.Design.Joins.Index())
        {
            if (join.Amps is not > 0 || join.From == join.To)
                continue;
            var id = join.RunId(n);
            if (join.To == w.Document.Id)
                flows.Add(new(FlowKind.JoinIn, id, NameOf(w, join.From), id, default, join.Amps.Value));
            if (join.From != w.Document.Id || w.Site.Find(join.To)?.Voltage.Value is not { } other)
                continue;
            double nominal = Into(join, other.NominalV, voltage.NominalV),
                worst = Into(join, other.GreatestV, voltage.LowV);
            flows.Add(new(FlowKind.JoinOut, id, NameOf(w, join.To), id, new(nominal, worst, worst, worst), 0));
        }
    }

    /// <summary>What a join takes from its bank [A] at the volts it gives and those it is fed with [V].</summary>
    internal static double Into(Join join, double outV, double inV) =>
        !join.Converts ? join.Amps!.Value : join.Amps!.Value * outV / (join.Efficiency ?? AssumedJoinEfficiency) / inV;

    /// <summary>A charger built into an inverter charges by the inverter's own cables.</summary>
    private static void AddChargers(BankWork w, List<Flow> flows)
    {
        foreach (var (i, name, amps) in ChargersOf(w))
            flows.Add(
                new(
                    FlowKind.Charger,
                    w.Document.Inverters[i].Id,
                    $"charger of {name}",
                    i > 0 ? Run.FurtherPrefix + w.Document.Inverters[i].Id
                        : w.Scene.HasInverterRun ? Run.InverterId
                        : Run.MainId,
                    default,
                    amps
                )
            );
    }

    /// <summary>Chargers built into inverters: of which (index), its name, and what they bring together where it is stacked [A].</summary>
    internal static IEnumerable<(int Index, string Name, double Amps)> ChargersOf(BankWork w)
    {
        var first = w.Inverter.Value;
        foreach (var (i, choice) in w.Document.Inverters.Index())
        {
            var item = i == 0 ? first?.Item : choice.Item ?? first?.Item;
            var stack =
                i == 0 ? first?.Stack ?? 1
                : choice.Item is null ? 1
                : Math.Max(1, choice.Stack);
            if (item?.ChargerA is > 0 and var amps)
                yield return (i, item.Name, amps * stack);
        }
    }

    private static string NameOf(BankWork w, string bank) => w.Scene.Design.Banks.FirstOrDefault(b => b.Id == bank)?.Name ?? bank;
}

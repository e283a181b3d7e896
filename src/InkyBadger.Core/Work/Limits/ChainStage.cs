using InkyBadger.Core.Design;
using InkyBadger.Core.Limits;
using InkyBadger.Core.Reference;

namespace InkyBadger.Core.Work;

/// <summary>What stops first, for as long as one likes and for the worst start, and the bottleneck in words.</summary>
public sealed record ChainResult(
    IReadOnlyList<ChainLink> Continuous,
    IReadOnlyList<ChainLink> AtStart,
    double? StartSeconds,
    string? Bottleneck,
    string Sentence,
    IReadOnlyList<string> Unrated,
    double? BankPeakW,
    double? BankPeakSeconds
);

/// <summary>The chain of limits of a design: cells, jumpers, links or leads, main fuse, main cable, switch, inverter.</summary>
public static class ChainStage
{
    /// <summary>Short enough for every peak [s].</summary>
    private const double Moment = 0.01;

    public static Step<ChainResult> Work(BankWork w)
    {
        var (scene, voltage, inverter, bank, run, network, pack) = (
            w.Scene,
            w.Voltage.Need(),
            w.Inverter.Need(),
            w.Bank.Need(),
            w.MainRun.Need(),
            w.Network.Need(),
            w.Pack.Need()
        );
        if (inverter.Item is not { } item)
            return new Gap(Station.Inverter, "/inverters/0/item", "No inverter of the catalogue fits these loads");
        var (loads, onward, wired) = (w.Loads.Value, w.Onward, w.Wired.Need().Network);
        var beside = w.Flows.Need().Beside.WorstA;
        ChainString[] Strings(double? seconds)
        {
            var strings = new ChainString[pack.Parallel];
            for (var i = 0; i < strings.Length; i++)
                strings[i] = new(pack.Strings[i].AllowsA(seconds));
            return strings;
        }
        var tables = scene.Tables;
        var insulation = InsulationOf(tables, run);
        var elements = new List<ChainElement>(10);
        AddInside(tables, elements, network, insulation);
        AddRun(tables, elements, scene.MainRun, run, "main ", onward is not null, false);
        if (scene.MainRun.BusRatingA is { } busA)
            elements.Add(new("the bus bars", ElementKind.BusBar) { RatingA = busA });
        else
            elements.Add(new("the bus bars", ElementKind.BusBar));
        if (onward is not null)
            AddRun(tables, elements, scene.RunOf(Run.InverterId), onward.Run, "inverter’s ", true, true);
        elements.Add(
            new("the inverter", ElementKind.Inverter)
            {
                ContinuousW = item.ContinuousW * inverter.Stack,
                Derate = inverter.Gives.Derate ?? 1,
                SurgeW = item.SurgeW * inverter.Stack,
                SurgeSeconds = item.SurgeSeconds ?? InverterStage.DefaultSurgeSeconds,
                SurgeHot = item.SurgeHot,
            }
        );
        ChainConditions At(double? seconds, double? asked) =>
            new(voltage.LowV, inverter.Efficiency, inverter.IdleW, asked, beside, seconds);
        var continuous = LimitsChain.Work(wired, Strings(null), At(null, loads?.PeakAcW), elements);
        var start = loads is { SurgeDemandW: > 0 } && loads.Worst.StartSeconds > 0 ? loads.Worst.StartSeconds : (double?)null;
        // What the bank gives for a moment, and how long that moment may be: each string by its weakest unit. Of the others none is asked.
        var brief = LimitsChain.Work(wired, Strings(Moment), At(Moment, null), [elements[^1]]);
        var atStart = start is null ? null : LimitsChain.Work(wired, Strings(start), At(start, loads!.SurgeDemandW), elements);
        return new ChainResult(
            continuous.Chain,
            atStart?.Chain ?? [],
            start,
            continuous.Bottleneck,
            Sentence(continuous),
            continuous.Unrated,
            brief.Chain.FirstOrDefault(l => l.Name == LimitsChain.Bank)?.AcW,
            pack.Strings.Min(s => s.PeakSeconds)
        );
    }

    /// <summary>
    /// Jumpers and links or leads as they usually are, and each that differs and lets less through than these.
    /// </summary>
    private static void AddInside(DesignTables tables, List<ChainElement> elements, NetworkResult network, int insulation)
    {
        double? ShareOf(double amps) => network.Strings.BankA > 0 ? amps / network.Strings.BankA : null;
        var copper = network.Copper;
        foreach (var kind in new[] { ConductorKind.Jumper, copper.LinksOrLeads })
        {
            var usual = copper.Usual(kind);
            double? busiest = null,
                lets = null;
            foreach (var c in copper.Placed)
                if (c.Kind == kind && !c.Own)
                    busiest = Math.Max(busiest ?? 0, c.Amps);
            if (busiest is { } amps)
            {
                lets = usual.AmpacityA / Math.Max(amps, Tolerant.Noise);
                elements.Add(
                    new($"the {Say.Size(usual.Size, usual.Conductors)} {Words(kind)}", ElementOf(kind))
                    {
                        AmpacityA = usual.AmpacityA > 0 ? usual.AmpacityA : null,
                        AreaMm2 = usual.AreaMm2,
                        Conductors = usual.Conductors,
                        InsulationC = insulation,
                        Share = ShareOf(amps),
                    }
                );
            }
            foreach (var c in copper.Placed)
                if (c.Kind == kind && c.Own && c.AmpacityA / Math.Max(c.Amps, Tolerant.Noise) < (lets ?? double.MaxValue))
                    elements.Add(
                        new($"the {Say.Size(c.Size, c.Conductors)} {c.Name[4..]}", ElementOf(kind))
                        {
                            AmpacityA = c.AmpacityA > 0 ? c.AmpacityA : null,
                            AreaMm2 = tables.Conductor(c.Size).AreaMm2,
                            Conductors = c.Conductors,
                            InsulationC = insulation,
                            Share = ShareOf(c.Amps),
                        }
                    );
        }
    }

    private static ElementKind ElementOf(ConductorKind kind) =>
        kind switch
        {
            ConductorKind.Jumper => ElementKind.Jumpers,
            ConductorKind.Link => ElementKind.Links,
            _ => ElementKind.Leads,
        };

    private static string Words(ConductorKind kind) =>
        kind switch
        {
            ConductorKind.Jumper => "jumpers",
            ConductorKind.Link => "rail links",
            _ => "bus leads",
        };

    private static int InsulationOf(DesignTables tables, RunResult run) => (int)tables.Practice(run.Laid.Practice).InsulationC;

    /// <summary>Fuse, cable and switch of a run; with two runs on the way each says whose it is.</summary>
    private static void AddRun(
        DesignTables tables,
        List<ChainElement> elements,
        Run doc,
        RunResult run,
        string whose,
        bool two,
        bool inverterRun
    )
    {
        var its = two ? whose : "";
        if (run.Fuse.RatingA is { } rating)
            elements.Add(
                new($"the {its}{Say.Rating(rating)} fuse", ElementKind.Fuse)
                {
                    Class = tables.Fuse(run.Fuse.Class),
                    RatingA = rating,
                    InverterRun = inverterRun,
                }
            );
        if (run.Cable.Size is { } size)
            elements.Add(
                new($"the {its}{Say.Size(size, run.Cable.Conductors)} cable", ElementKind.Cable)
                {
                    AmpacityA = run.Carries.AmpacityA is > 0 ? run.Carries.AmpacityA : null,
                    AreaMm2 = run.Cable.AreaMm2,
                    Conductors = run.Cable.Conductors,
                    InsulationC = InsulationOf(tables, run),
                    InsulationKind = run.Laid.Insulation,
                    InverterRun = inverterRun,
                }
            );
        if (doc.Switch is { Absent: true } || inverterRun && doc.Switch is null)
            return;
        elements.Add(
            new(two ? $"the {whose}switch" : "the switch", ElementKind.Switch) { RatingA = doc.Switch?.RatingA, InverterRun = inverterRun }
        );
    }

    /// <summary>The bottleneck as one would say it, against what people blame first.</summary>
    private static string Sentence(LimitsChainResult chain)
    {
        if (chain.Bottleneck is not { } first)
            return "Nothing in the chain has a rating";
        var watts = Say.W(chain.Chain[0].AcW);
        if (first == LimitsChain.Bank)
            return $"The batteries stop first, at {watts} of AC";
        var name = char.ToUpperInvariant(first[0]) + first[1..];
        var bank = chain.Chain.FirstOrDefault(l => l.Name == LimitsChain.Bank);
        return bank is null
            ? $"{name} {Stops(first)} first, at {watts} of AC"
            : $"{name} {Stops(first)} first, at {watts} of AC, not the batteries, which let {Say.W(bank.AcW)} through";
    }

    private static string Stops(string name) => name.EndsWith('s') ? "stop" : "stops";
}

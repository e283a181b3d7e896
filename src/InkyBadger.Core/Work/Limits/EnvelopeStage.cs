using InkyBadger.Core.Demand;
using InkyBadger.Core.Design;
using InkyBadger.Core.Inverters;
using InkyBadger.Core.Limits;
using InkyBadger.Core.Reference;
using InkyBadger.Core.Wiring;
using InkyBadger.Core.Working;

namespace InkyBadger.Core.Work;

public enum EnvelopeElement
{
    Inverter,
    Bank,
    Fuse,
    Cable,
}

/// <summary>AC watts that main fuse and main cable carry for a time; null where there is none.</summary>
public sealed record EnvelopePoint(double Seconds, double? FuseW, double? CableW);

/// <summary>
/// A load that runs at the worst instant (index), its watts and for how long it is on; or what a start adds, for as long as it lasts.
/// </summary>
public sealed record EnvelopeBand(int Load, string Name, double Watts, double Seconds, bool IsStart);

/// <summary>
/// How long an element would hold the worst demand [s]; null: without end. <paramref name="Enough"/>: for as long as it is asked.
/// <paramref name="ContinuousW"/> is what it lets through without end.
/// </summary>
public sealed record EnvelopeHold(EnvelopeElement Element, string Name, double? Seconds, bool Enough, double? ContinuousW);

/// <summary>The first to give way: which element, at which demand (label, watts, seconds), and what it gives then.</summary>
public sealed record EnvelopeFirst(EnvelopeElement Element, string Name, string Label, double Watts, double Seconds, double GivesW);

/// <summary>Watts against seconds between the cells and the outlet.</summary>
public sealed record EnvelopeResult(
    IReadOnlyList<EnvelopePoint> Points,
    double? BankW,
    double? BankPeakW,
    double? BankPeakSeconds,
    IReadOnlyList<EnvelopeBand> Stack,
    double AskedW,
    double AskedSeconds,
    IReadOnlyList<EnvelopeHold> Holds,
    EnvelopeFirst? First,
    double? SurgeEndV,
    double? CutOffV
);

/// <summary>What gives way first when the loads start, and how long each would hold it (method, 2.1, 7.4, 10.1).</summary>
public static class EnvelopeStage
{
    private const double From = 0.01,
        To = 3600;
    private const int Samples = 34;

    /// <summary>The times the picture is drawn at [s], and the multiple of its rating that opens each family's fuse after each.</summary>
    private static readonly double[] Times = [.. Enumerable.Range(0, Samples).Select(i => From * Math.Pow(To / From, i / (Samples - 1.0)))];
    private static readonly Dictionary<string, double[]> Multiples = FuseClasses
        .All.DistinctBy(c => c.Family)
        .ToDictionary(c => c.Family, Held);

    private static double[] Held(FuseClass fuse) => [.. Times.Select(t => LimitsChain.MultipleHeld(fuse, t))];

    /// <summary>Those of the typical table are known beforehand, as long as their times are taken apart as usual.</summary>
    private static double[] MultiplesOf(FuseClass fuse) =>
        ReferenceEquals(FuseClasses.All.FirstOrDefault(c => c.Id == fuse.Id), fuse) ? Multiples[fuse.Family] : Held(fuse);

    /// <summary>Of a time between 0.1 ms and an hour on its logarithm: to 1e-11 of it.</summary>
    private const int Halvings = 44;

    public static Step<EnvelopeResult> Work(BankWork w)
    {
        var (scene, voltage, inverter, loads, resolved, currents) = (
            w.Scene,
            w.Voltage.Need(),
            w.Inverter.Need(),
            w.Loads.Need(),
            w.Resolved.Need(),
            w.Currents.Need()
        );
        if (inverter.Item is not { } item)
            return new Gap(Station.Inverter, "/inverters/0/item", "No inverter of the catalogue fits these loads");
        var (run, onward, chain) = (w.MainRun.Value, w.Onward, w.Chain.Value);
        var surgeA = w.Flows.Need().Inverter.SurgeA;
        double Ac(double amps, double dcA) => Math.Max(0, ((amps - dcA) * voltage.LowV - inverter.IdleW) * inverter.Efficiency);
        // The main run carries the DC loads too; a run of the inverter's own does not.
        List<Way> ways = [];
        if (run is not null)
            ways.Add(new(run, onward is null ? "" : "main ", "/mainRun", currents.BesideWorstA));
        if (onward is not null)
            ways.Add(new(onward.Run, "inverter’s ", $"/circuits/{OnwardIndex}/run", 0));
        var bankW = chain?.Continuous.FirstOrDefault(l => l.Name == LimitsChain.Bank)?.AcW;
        Func<double, double>? bank = bankW is { } steady
            ? t => chain!.BankPeakW is { } peak && chain.BankPeakSeconds is { } seconds && t <= seconds ? Math.Max(peak, steady) : steady
            : null;
        var envelope = new OverloadEnvelope(inverter.Overload, inverter.Gives.ContinuousW ?? 0, InverterStage.OverloadRuleOf(scene));

        List<Element> elements = [new(EnvelopeElement.Inverter, "the inverter", envelope.At, inverter.Gives.ContinuousW, null)];
        if (bank is not null)
            elements.Add(new(EnvelopeElement.Bank, "the bank", bank, bankW, null));
        foreach (var way in ways)
            elements.AddRange(OfRun(scene.Tables, way, Ac));

        var asked = Asked(inverter.Demands);
        var holds = elements.ConvertAll(e =>
        {
            var seconds = asked is null ? null : Holds(e.Gives, asked.Watts);
            return new EnvelopeHold(
                e.Kind,
                e.Name,
                seconds,
                seconds is null || Tolerant.AtLeast(seconds.Value, asked!.Seconds),
                e.Continuous
            );
        });
        var points = new EnvelopePoint[Samples];
        for (var i = 0; i < Samples; i++)
        {
            points[i] = new(Times[i], Least(elements, EnvelopeElement.Fuse, i), Least(elements, EnvelopeElement.Cable, i));
        }
        var surgeEndV = run?.Cable.OneWayOhm is { } oneWay
            ? voltage.LowV - currents.SurgeWorstA * (2 * oneWay + run.Joints.Ohm) - Beyond(onward, surgeA)
            : (double?)null;
        var result = new EnvelopeResult(
            points,
            bankW,
            chain?.BankPeakW,
            chain?.BankPeakSeconds,
            Stack(scene, resolved, loads),
            asked?.Watts ?? 0,
            asked?.Seconds ?? 0,
            holds,
            First(elements, inverter.Demands),
            surgeEndV,
            item.CutOffV
        );
        if (scene.Tape is { } tape)
            WriteWorking(tape, result, loads, voltage, currents, inverter, run, onward, elements, chain, asked, surgeA);
        return result;
    }

    /// <summary>The inverter's own run, where it has one, is the first beyond the bus.</summary>
    private const int OnwardIndex = 0;

    /// <summary>A run between the bank and the inverter, whose it is where there are two, and the DC loads' amperes in it.</summary>
    private sealed record Way(RunResult Run, string Whose, string Pointer, double DcA);

    /// <summary>What it gives for a time [s], or at one of <see cref="Times"/> where that is known beforehand.</summary>
    private sealed record Element(EnvelopeElement Kind, string Name, Func<double, double> Gives, double? Continuous, Way? Way)
    {
        public Func<int, double>? GivesAt { get; init; }
    }

    private static IEnumerable<Element> OfRun(DesignTables tables, Way way, Func<double, double, double> ac)
    {
        var run = way.Run;
        if (run.Fuse.RatingA is { } rating)
        {
            var fuse = tables.Fuse(run.Fuse.Class);
            var multiples = MultiplesOf(fuse);
            double At(double multiple) => ac(Math.Max(rating / Wiring.Fuse.Margin, rating * multiple), way.DcA);
            yield return new(
                EnvelopeElement.Fuse,
                $"the {way.Whose}{Say.Rating(rating)} fuse",
                t => At(LimitsChain.MultipleHeld(fuse, t)),
                ac(rating / Wiring.Fuse.Margin, way.DcA),
                way
            )
            {
                GivesAt = i => At(multiples[i]),
            };
        }
        if (run.Carries.AmpacityA is not > 0 || run.Cable.AreaMm2 is null)
            yield break;
        var copper = new ChainElement("cable", ElementKind.Cable)
        {
            AmpacityA = run.Carries.AmpacityA,
            AreaMm2 = run.Cable.AreaMm2,
            Conductors = run.Cable.Conductors,
            InsulationC = (int)tables.Practice(run.Laid.Practice).InsulationC,
            InsulationKind = run.Laid.Insulation,
        };
        yield return new(
            EnvelopeElement.Cable,
            $"the {way.Whose}{Say.Size(run.Cable.Size!, run.Cable.Conductors)} cable",
            t => ac(LimitsChain.Amperes(copper, t)!.Value, way.DcA),
            ac(run.Carries.AmpacityA.Value, way.DcA),
            way
        );
    }

    private static double? Least(List<Element> elements, EnvelopeElement kind, int time)
    {
        double? least = null;
        foreach (var e in elements)
            if (e.Kind == kind)
                least = Math.Min(least ?? double.MaxValue, e.GivesAt?.Invoke(time) ?? e.Gives(Times[time]));
        return least;
    }

    /// <summary>Volts lost beyond the bus at the worst instant, in the inverter's own run.</summary>
    private static double Beyond(CircuitResult? onward, double surgeA) =>
        onward is { Run: { Cable.OneWayOhm: { } oneWay } run } ? surgeA * (2 * oneWay + run.Joints.Ohm) : 0;

    /// <summary>The demand that decides: the one furthest over, else the nearest to what the inverter gives.</summary>
    private static EnvelopeDemand? Asked(IReadOnlyList<EnvelopeDemand> demands) =>
        demands.Count == 0 ? null : demands.MaxBy(d => d.Watts / Math.Max(d.GivesW, Tolerant.Noise));

    /// <summary>Longest time at which so many watts are still given, to an hour; null: for good.</summary>
    private static double? Holds(Func<double, double> gives, double watts)
    {
        if (Tolerant.AtLeast(gives(To), watts))
            return null;
        if (!Tolerant.AtLeast(gives(1e-4), watts))
            return 0;
        double low = 1e-4,
            high = To;
        // Once both ends are said alike the search has nothing more to tell.
        for (var i = 0; i < Halvings && (high - low > 1e-6 || Math.Round(low, 6) != Math.Round(high, 6)); i++)
        {
            var middle = Math.Sqrt(low * high);
            if (Tolerant.AtLeast(gives(middle), watts))
                low = middle;
            else
                high = middle;
        }
        return Math.Round(low, 6);
    }

    private static EnvelopeFirst? First(List<Element> elements, IReadOnlyList<EnvelopeDemand> demands)
    {
        EnvelopeFirst? first = null;
        foreach (var demand in demands)
        foreach (var e in elements)
        {
            var gives = e.Gives(demand.Seconds);
            if (Tolerant.AtLeast(gives, demand.Watts))
                continue;
            if (first is null || demand.Watts / gives > first.Watts / first.GivesW)
                first = new(e.Kind, e.Name, demand.Label, demand.Watts, demand.Seconds, gives);
        }
        return first;
    }

    /// <summary>What runs at the worst instant, the longest first, and the start or starts on top.</summary>
    private static List<EnvelopeBand> Stack(BankScene scene, List<ResolvedLoad> resolved, LoadsResult loads)
    {
        var worst = loads.Worst;
        var all = LoadsStage.Surge(scene) == SurgeRule.AllAtOnce;
        var bands = new List<EnvelopeBand>();
        var starts = new List<EnvelopeBand>();
        foreach (var (i, load) in LoadsStage.In(resolved, worst.Season).Index())
        {
            if (load.Daily.Kind != LoadKind.Ac || !load.Daily.OnAt(worst.FromH) || load.Daily.RunningW <= 0)
                continue;
            var hours = load.Daily.Windows is { } windows ? windows.Max(w => w.Hours) : load.Daily.Hours ?? 0;
            bands.Add(new(i, load.Name, load.Daily.RunningW, hours * 3600, false));
            if (load.Daily.StartExtraW > 0 && (all || i == worst.StartingLoad))
                starts.Add(new(i, load.Name, (all ? load.Daily.Quantity : 1) * load.Daily.StartExtraW, load.StartSeconds, true));
        }
        bands.Sort((a, b) => b.Seconds.CompareTo(a.Seconds));
        starts.Sort((a, b) => b.Seconds.CompareTo(a.Seconds));
        return [.. bands, .. starts];
    }

    private static void WriteWorking(
        Tape tape,
        EnvelopeResult r,
        LoadsResult loads,
        VoltageResult voltage,
        CurrentsResult currents,
        InverterResult inverter,
        RunResult? run,
        CircuitResult? onward,
        List<Element> elements,
        ChainResult? chain,
        EnvelopeDemand? asked,
        double surgeA
    )
    {
        if (asked is not null)
        {
            var source = InverterStage.Asked(asked, loads);
            tape.Write("/envelope/askedW", $"asked of everything: {asked.Label}", r.AskedW, "W", "2.1", "{W}", [source]);
            foreach (var (n, hold) in r.Holds.Index())
            {
                var watts = T.Worked("W", r.AskedW, "W", "asked", "/envelope/askedW");
                if (hold.Seconds is { } seconds)
                    tape.Write(
                        $"/envelope/holds/{n}/seconds",
                        $"how long {hold.Name} holds it",
                        seconds,
                        "s",
                        hold.Element == EnvelopeElement.Inverter ? "2.1" : "10.1",
                        null,
                        [watts, T.Worked("s", r.AskedSeconds, "s", "needed for", "/envelope/askedSeconds")],
                        How(hold.Element)
                    );
                if (hold.ContinuousW is { } continuous)
                    tape.Write(
                        $"/envelope/holds/{n}/continuousW",
                        $"what {hold.Name} allows continuously",
                        continuous,
                        "W",
                        "10.1",
                        null,
                        Lets(elements[n], voltage, currents, inverter, chain),
                        hold.Element switch
                        {
                            EnvelopeElement.Inverter => "Its continuous rating, with what its temperature leaves.",
                            EnvelopeElement.Bank =>
                                "The bank’s ceiling by the real sharing, after the DC loads have taken theirs, as AC watts at "
                                    + "the lowest volts.",
                            _ => "Its amperes, after the DC loads have taken theirs, as AC watts at the lowest volts.",
                        }
                    );
            }
            tape.Write(
                "/envelope/askedSeconds",
                "for how long it is asked",
                r.AskedSeconds,
                "s",
                "2.1",
                null,
                [source],
                asked.IsStart ? "The start’s own time." : "The longest stretch in which so much runs."
            );
        }
        if (r.SurgeEndV is { } end && run?.Cable.OneWayOhm is { } oneWay)
        {
            List<Term> terms =
            [
                T.Worked("V", voltage.LowV, "V", "under load, nearly empty", "/voltage/lowV"),
                T.Worked("I", currents.SurgeWorstA, "A", "worst instant", "/currents/surgeWorstA"),
                T.Worked("R", oneWay, "ohm", "cable one way", "/mainRun/cable/oneWayOhm"),
                T.Worked("J", run.Joints.Ohm, "ohm", "joints", "/mainRun/joints/ohm"),
            ];
            var form = "{V} − {I} × (2 × {R} + {J})";
            if (onward is { Run: { Cable.OneWayOhm: { } beyond } own })
            {
                form += " − {D} × (2 × {r} + {j})";
                terms.AddRange([
                    T.Assumed("D", surgeA, "A", "the inverter’s part of it"),
                    T.Worked("r", beyond, "ohm", "inverter’s cable one way", $"/circuits/{OnwardIndex}/run/cable/oneWayOhm"),
                    T.Worked("j", own.Joints.Ohm, "ohm", "its joints", $"/circuits/{OnwardIndex}/run/joints/ohm"),
                ]);
            }
            tape.Write(
                "/envelope/surgeEndV",
                "volts at the inverter at the worst instant, the bank nearly empty",
                end,
                "V",
                "6.2",
                form,
                [.. terms]
            );
        }
    }

    private static Term[] Lets(Element element, VoltageResult voltage, CurrentsResult currents, InverterResult inverter, ChainResult? chain)
    {
        var low = T.Worked("V", voltage.LowV, "V", "lowest", "/voltage/lowV");
        Term[] dc = element.Way is { DcA: 0 }
            ? []
            : [T.Worked("D", currents.BesideWorstA, "A", "all beside the inverter", "/currents/besideWorstA")];
        return element.Kind switch
        {
            EnvelopeElement.Inverter => [T.Worked("W", inverter.Gives.ContinuousW, "W", "rating", "/inverter/gives/continuousW")],
            EnvelopeElement.Bank =>
            [
                T.Worked("c", chain!.Continuous.First(l => l.Name == LimitsChain.Bank).LimitA, "A", "ceiling", "/network/ceiling/amps"),
                .. dc,
                low,
            ],
            EnvelopeElement.Fuse =>
            [
                T.Worked("r", element.Way!.Run.Fuse.RatingA, "rating", "rating", element.Way.Pointer + "/fuse/ratingA"),
                .. dc,
                low,
            ],
            _ =>
            [
                T.Worked("a", element.Way!.Run.Carries.AmpacityA, "A", "ampacity", element.Way.Pointer + "/carries/ampacityA"),
                .. dc,
                low,
            ],
        };
    }

    private static string How(EnvelopeElement element) =>
        element switch
        {
            EnvelopeElement.Inverter => "The last of its overload points that gives so many watts.",
            EnvelopeElement.Bank => "Its peak while the BMS allows it, in the string that carries most.",
            EnvelopeElement.Fuse =>
                "A third of the typical time its class takes to open at this current: spreads are wide, and the maker’s curve rules.",
            _ => "By the heat its copper stores, to 5 s; after that by its ampacity.",
        };
}

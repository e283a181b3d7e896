using InkyBadger.Core.Design;
using InkyBadger.Core.Network;
using InkyBadger.Core.Reference;
using InkyBadger.Core.Work;

namespace InkyBadger.Core.BringUp;

/// <summary>
/// A made-up bank that stands in for a real one: the design as it would be built, every resistance a little off, and faults hidden in it.
/// It answers whatever a meter is held to, by the same network as the plan, to the last digit and with its noise.
/// </summary>
internal sealed class HiddenBank
{
    /// <summary>A fault in it.</summary>
    /// <param name="Words">What it is, for whoever planted it.</param>
    /// <param name="Shows">Whether a step’s work finds and mends it.</param>
    private sealed record Fault(FaultKind Kind, string Words, Func<string, bool> Shows)
    {
        public int String { get; init; }
        public int Unit { get; init; }

        /// <summary>Of the place it is at: a joint’s step, a source.</summary>
        public string Place { get; init; } = "";

        /// <summary>More than a sound joint has [mΩ], more than a sound unit’s [times], off what was set [share].</summary>
        public double Amount { get; init; }
    }

    private enum FaultKind
    {
        LooseLug,
        ReversedUnit,
        LowUnit,
        WrongPreset,
        MissingFuse,
        SwappedSense,
        WeakUnit,
    }

    private readonly Walk w;
    private readonly ulong seed;
    private List<Fault> faults = [];
    private readonly Banks.Pack pack;

    public HiddenBank(Walk walk, SimulatedBank made, int count, BringUpRecord record)
    {
        w = walk;
        pack = walk.Work.Pack.Need();
        seed = (ulong)made.Seed * 0x9E3779B97F4A7C15 + Hash(walk.Bank);
        var mended = record
            .Entries.Where(e => e.What == BringUpWhat.Mended && e.Simulated == made.Seed)
            .Select(e => e.Step)
            .ToHashSet(StringComparer.Ordinal);
        faults = [.. Plant(count).Where(f => !mended.Any(f.Shows))];
    }

    /// <summary>Faults that were not put right yet, in words.</summary>
    public IEnumerable<string> Open => faults.Select(f => f.Words);

    private static ulong Hash(string text)
    {
        // FNV-1a: the same on every machine.
        var h = 14695981039346656037UL;
        foreach (var c in text)
            h = (h ^ c) * 1099511628211UL;
        return h;
    }

    /// <summary>Between −1 and 1, always the same for a place of this bank.</summary>
    private double Off(string place) => 2 * new SplitMix(seed ^ Hash(place)).Uniform() - 1;

    /// <summary>One of a kind at most; which, and where, by the number.</summary>
    private List<Fault> Plant(int count)
    {
        var draws = new SplitMix(seed);
        var kinds = Enum.GetValues<FaultKind>().Select(k => (Kind: k, At: draws.Uniform())).OrderBy(k => k.At).Select(k => k.Kind).ToList();
        var planted = new List<Fault>();
        foreach (var kind in kinds)
        {
            if (planted.Count == count)
                break;
            if (Made(kind, ref draws, planted) is { } fault)
                planted.Add(fault);
        }
        return planted;
    }

    private bool Has(string id) => w.Find(id) is not null;

    private Fault? Made(FaultKind kind, ref SplitMix draws, List<Fault> planted)
    {
        var (s, u) = (draws.Of(pack.Parallel), draws.Of(pack.Series));
        var (name, amount) = ($"{Say.StringName(s + 1)}{u + 1}", draws.Uniform());
        bool Step(string key, string id) => key == w.Key(id);
        bool AnyOf(string key, string start) => key.StartsWith(w.Key(start), StringComparison.Ordinal);
        switch (kind)
        {
            case FaultKind.LooseLug:
                var joints = w.Steps.Where(x => x.Probe is Probe.Joint { JointMilliohm: > 0 } or Probe.Inside).ToList();
                if (joints.Count == 0)
                    return null;
                var at = joints[draws.Of(joints.Count)];
                var sound = at.Probe is Probe.Joint j ? j.JointMilliohm : 1000 * ((Probe.Inside)at.Probe!).At.Ohm;
                return new(kind, $"loose: {at.Title}", key => key == at.Key)
                {
                    Place = at.Key,
                    Amount = Math.Max(0.5, 0.8 * sound) + 0.5 * amount,
                };
            case FaultKind.ReversedUnit:
                return pack.Series < 2 || planted.Exists(f => f.Kind == FaultKind.LowUnit && f.String == s)
                    ? null
                    : new(kind, $"{name} stands the wrong way round", key => Step(key, $"string-{s + 1}")) { String = s, Unit = u };
            case FaultKind.LowUnit:
                return planted.Exists(f => f.Kind == FaultKind.ReversedUnit && f.String == s)
                    ? null
                    : new(kind, $"{name} is run down", key => AnyOf(key, "rest-"))
                    {
                        String = s,
                        Unit = u,
                        Amount = amount,
                    };
            case FaultKind.WeakUnit:
                var string_ = pack.Strings[s];
                var weak = new Fault(kind, $"{name} is weak", key => pack.Parallel > 1 ? AnyOf(key, "share-") : Step(key, "sag"))
                {
                    String = s,
                    Unit = u,
                    Amount = (1 + 0.4 * amount) * string_.UnitsOhm / string_.Units[u].Ohm,
                };
                return Tells(weak) ? weak : null;
            case FaultKind.MissingFuse:
                return Has("fuse-far") ? new(kind, "the main fuse passes nothing", key => Step(key, "fuse-far")) : null;
            case FaultKind.SwappedSense:
                return w.Steps.Exists(x => x.Probe is Probe.Drawn or Probe.JointLoad)
                    ? new(kind, "the sense leads at the shunt are swapped", key =>
                        AnyOf(key, "draw-") || Step(key, "amps") || Step(key, "full-amps")
                    )
                    : null;
            default:
                var chargers = w.Steps.Where(x => x.Probe is Probe.Absorption).ToList();
                if (chargers.Count == 0)
                    return null;
                var charger = chargers[draws.Of(chargers.Count)];
                var source = ((Probe.Absorption)charger.Probe!).Source;
                return new(kind, $"{charger.Title}: a preset that does not suit", key => key == charger.Key)
                {
                    Place = source,
                    Amount = (draws.Uniform() < 0.5 ? -1 : 1) * (0.03 + 0.03 * amount),
                };
        }
    }

    /// <summary>Several strings show a weak unit by their shares, one alone by its sag; where next to nothing flows neither does.</summary>
    private bool Tells(Fault weak)
    {
        if (w.Find(pack.Parallel > 1 ? $"share-{weak.String + 1}" : "sag") is not { Expected: { } expected } step)
            return false;
        faults = [weak];
        var (amps, volts) = Solved(SteadyA);
        faults = [];
        var value = pack.Parallel > 1 ? amps[weak.String] : volts;
        return value < expected.OkFrom - 0.2 * (expected.OkTo - expected.OkFrom) - 2 * Math.Pow(10, -step.Decimals);
    }

    private Fault? Find(FaultKind kind) => faults.Find(f => f.Kind == kind);

    /// <summary>What the meter shows.</summary>
    public double Measure(BringUpStep step, Probe probe)
    {
        var value = True(probe);
        var digit = Math.Pow(10, -step.Decimals);
        // The last digit is never quite still; measured again it may be another.
        var noise = new SplitMix(seed ^ Hash($"{step.Key}#{step.Entries.Count}")).Uniform() - 0.5;
        return Math.Round(value + noise * digit, step.Decimals) + 0.0;
    }

    private double True(Probe probe) =>
        probe switch
        {
            Probe.Unit p => UnitV(p.String, p.At, alone: true),
            Probe.OneString p => StringV(p.String),
            Probe.Rail => RailV,
            Probe.BehindFuse => BehindFuseV,
            Probe.Nothing => 0.02 * (1 + Off("nothing")),
            Probe.PreCharge => BehindFuseV * (0.95 + 0.02 * Off("pre-charge")),
            Probe.Drawn p => Counted(p.Amps * (1 + 0.08 * Off($"drawn {p.Amps:F3}"))),
            Probe.JointLoad p => Counted(LoadA(p.Amps)),
            Probe.Sag => Solved(SteadyA).Volts,
            Probe.Share p => Solved(SteadyA).Amps[p.String],
            Probe.Inside p => InsideMv(p.At),
            Probe.Joint p => JointMv(p),
            Probe.Absorption p => p.Volts
                * (1 + 0.003 * Off($"absorb {p.Source}") + (Find(FaultKind.WrongPreset) is { } f && f.Place == p.Source ? f.Amount : 0)),
            _ => 31 + 6 * Off("heat") + (Find(FaultKind.LooseLug) is { } loose ? Math.Min(60, 45 * loose.Amount) : 0),
        };

    private double BehindFuseV => Find(FaultKind.MissingFuse) is null ? RailV : 0.02;

    /// <summary>As the monitor counts it; nothing runs without a fuse.</summary>
    private double Counted(double amps) =>
        Find(FaultKind.MissingFuse) is not null ? 0
        : Find(FaultKind.SwappedSense) is not null ? -amps
        : amps;

    private double LoadA(double planned) => planned * (1 + 0.05 * Off("load"));

    /// <summary>What really flows while joints are measured [A].</summary>
    private double SteadyA => w.Steps.Find(s => s.Probe is Probe.JointLoad) is { Probe: Probe.JointLoad load } ? LoadA(load.Amps) : 0;

    private double Soc => 0.6 + 0.05 * Off("charge");

    private double UnitV(int s, int u, bool alone)
    {
        var unit = pack.Strings[s].Units[u];
        var volts = unit.RestV(Soc) * (1 + 0.0004 * Off($"unit {s} {u}"));
        if (Find(FaultKind.LowUnit) is { } low && low.String == s && low.Unit == u)
            volts = Math.Min(
                unit.RestV(0.04 + 0.04 * low.Amount),
                volts - 3 * Banks.RestMatch.ToleranceOf(unit.Item.Chemistry, unit.Item.Cells)
            );
        return !alone && Find(FaultKind.ReversedUnit) is { } turned && turned.String == s && turned.Unit == u ? -volts : volts;
    }

    private double StringV(int s) => pack.Strings[s].Units.Select((_, u) => UnitV(s, u, alone: false)).Sum();

    /// <summary>Joined and settled all strings have the same.</summary>
    private double RailV => Enumerable.Range(0, pack.Parallel).Average(StringV);

    private double ExtraOhm(string key) => Find(FaultKind.LooseLug) is { } f && f.Place == key ? f.Amount / 1000 : 0;

    private double InsideOhm(PlacedAmps c)
    {
        var id = $"joint-{c.Id}".ToLowerInvariant();
        return c.Ohm + Spread(id, 0.04 * c.Ohm * 1000 * c.Conductors) / 1000 / c.Conductors + ExtraOhm(w.Key(id)) / c.Conductors;
    }

    /// <summary>
    /// How far what is sound is off what was planned: so much at most, and never so far that it would be worth a look [mΩ].
    /// </summary>
    private double Spread(string id, double most) =>
        Off($"spread {id}")
        * (
            w.Find(id) is { Expected: { Value: { } sound } e, Amps: > 0 and var amps }
                ? Math.Min(most, 0.4 * (e.OkTo - sound) / amps)
                : most
        );

    /// <summary>String amperes and volts at the posts by the network, every resistance as it really is.</summary>
    private (double[] Amps, double Volts) Solved(double amps)
    {
        var wired = w.Work.Wired.Need();
        var placed = w.Results.Network!.Copper.Placed;
        var strings = new double[pack.Parallel];
        for (var s = 0; s < strings.Length; s++)
        {
            foreach (var (u, unit) in pack.Strings[s].Units.Index())
                strings[s] +=
                    (unit.Ohm + unit.JointOhm)
                    * (1 + 0.02 * Off($"ohm {s} {u}"))
                    * (Find(FaultKind.WeakUnit) is { } weak && weak.String == s && weak.Unit == u ? 1 + weak.Amount : 1);
            strings[s] += placed.Where(c => c.Kind == ConductorKind.Jumper && c.String == s + 1).Sum(InsideOhm);
        }
        double[] On(ConductorKind kind, Pole rail) => [.. placed.Where(c => c.Kind == kind && c.Rail == rail).Select(InsideOhm)];
        BankNetwork network;
        if (wired.Network.IsBusBars)
            network = BankNetwork.OnBusBars(strings, On(ConductorKind.Lead, Pole.Positive), On(ConductorKind.Lead, Pole.Negative));
        else
        {
            var (plus, minus) = wired.Network.Takeoffs;
            int Of(string node) => int.Parse(node[1..], System.Globalization.CultureInfo.InvariantCulture);
            network = BankNetwork.OnRails(
                strings,
                On(ConductorKind.Link, Pole.Positive),
                On(ConductorKind.Link, Pole.Negative),
                Of(plus),
                Of(minus)
            );
        }
        var emf = new double[pack.Parallel];
        Array.Fill(emf, RailV);
        var currents = new double[pack.Parallel];
        var volts = network.Solve(emf, default, amps, currents);
        return (currents, volts);
    }

    private double InsideMv(PlacedAmps c)
    {
        var steady = SteadyA;
        var amps = Solved(steady).Amps;
        var through = amps[c.String - 1];
        if (c.Kind == ConductorKind.Link)
        {
            var (positive, negative) = w.Work.Wired.Need().Network.LinkCurrents(amps, steady, c.After);
            through = c.Rail == Pole.Positive ? positive : negative;
        }
        return 1000 * Math.Abs(through) * InsideOhm(c);
    }

    private double JointMv(Probe.Joint p)
    {
        var conductors = MainLoop.Of(w).Concat(MainLoop.OfInverter(w)).First(x => x.Id == p.Id).Conductors;
        var milliohm =
            p.JointMilliohm
            + p.CopperMilliohm
            + Spread(p.Id, 0.2 * p.JointMilliohm + 0.03 * p.CopperMilliohm)
            + 1000 * ExtraOhm(w.Key(p.Id));
        return SteadyA / conductors * milliohm;
    }
}

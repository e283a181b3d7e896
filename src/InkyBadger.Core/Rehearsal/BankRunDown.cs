using InkyBadger.Core.Banks;
using InkyBadger.Core.Design;
using InkyBadger.Core.Network;
using InkyBadger.Core.Reference;
using InkyBadger.Core.Work;
using InkyBadger.Core.Working;

namespace InkyBadger.Core.Rehearsal;

/// <summary>
/// A string opens: when [h], which (from 1), which of its units ended it (from 1; null: its current did), why, at what [A].
/// </summary>
public sealed record RunDownDrop(double Hours, int String, int? Unit, DropReason Reason, double Amps);

/// <summary>What stays in a unit when all is dark [Ah, Wh at its rest volts], string and unit from 1.</summary>
public readonly record struct StrandedUnit(int String, int Unit, double Ah, double Wh);

/// <summary>
/// A bank run down under one load, string by string and unit by unit. The samples go from full to dark; where a string opens there are two
/// at the same hour.
/// </summary>
/// <param name="LoadW">Constant power at the terminals [W]; null: constant current.</param>
/// <param name="LoadA">Constant current [A].</param>
/// <param name="Hours">Of each sample [h].</param>
/// <param name="AmpsByString">A list for each string, a value for each sample; negative: it is charged by the others [A].</param>
/// <param name="AhByUnit">For each string, each unit: what it still holds at each sample [Ah].</param>
/// <param name="Drops">In their order.</param>
/// <param name="DeliveredWh">At the terminals.</param>
/// <param name="HeldWh">What was in its units at the beginning, at their rest volts [Wh].</param>
/// <param name="StrandedWh">What stays in them, likewise [Wh].</param>
/// <param name="DarkH">When nothing is given any more [h].</param>
/// <param name="MostA">Greatest current of each string [A].</param>
/// <param name="WorstJoint">The bad joint that gets hottest.</param>
public sealed record BankRunDownResult(
    double? LoadW,
    double? LoadA,
    IReadOnlyList<double> Hours,
    IReadOnlyList<IReadOnlyList<double>> AmpsByString,
    IReadOnlyList<IReadOnlyList<IReadOnlyList<double>>> AhByUnit,
    IReadOnlyList<RunDownDrop> Drops,
    double DeliveredWh,
    double HeldWh,
    double StrandedWh,
    IReadOnlyList<StrandedUnit> Stranded,
    double DarkH,
    RunDownEnd EndedBy,
    IReadOnlyList<double> MostA,
    HotJoint? WorstJoint,
    string Headline
);

/// <summary>A bad joint, where it is, under its greatest current [A], and its heat then [W].</summary>
public sealed record HotJoint(string Where, double Amps, double HeatW);

/// <summary>
/// The same bank at another load: when it is dark [h], what it delivers [Wh], and the greatest current in its worst joint [A].
/// </summary>
public sealed record RunDownAt(double LoadW, double DarkH, double DeliveredWh, double? JointA);

/// <summary>A run-down with the working of its figures.</summary>
public sealed record BankRunDownAnswer(BankRunDownResult Run, IReadOnlyList<Equation> Working);

/// <summary>
/// Strings of real units on the real network of links, jumpers and leads (method, 5.5): a string ends when its emptiest unit ends, when a
/// unit falls to its cut-off, or when its current is over its limit; the others go on as long as they can.
/// </summary>
public static class BankRunDown
{
    /// <summary>When a string opens is found to a second [h].</summary>
    private const double FinestH = 1.0 / 3600;

    /// <summary>
    /// Steps of a run, however long it is: one keeps the sharing it begins with, and unlike strings near their knee change it quickly.
    /// </summary>
    private const int Steps = 2000;

    private const int MostSamples = 400;

    private static readonly double[] OtherShares = [0.3, 0.5, 0.75, 1.25];

    /// <param name="loadW">[W, above 0 to 1e6]; null: <paramref name="loadA"/>, or with neither what the bank gives at full load.</param>
    /// <param name="loadA">[A, above 0 to 1e5].</param>
    /// <returns>Null where the bank cannot be worked out.</returns>
    /// <exception cref="Refusal"><c>loadW</c>, <c>loadA</c>.</exception>
    public static BankRunDownAnswer? Work(DesignDocument design, int bankIndex, double? loadW, double? loadA)
    {
        if (Given(design, bankIndex, loadW, loadA) is not var (w, watts, amps))
            return null;
        var run = Of(w, watts, amps);
        return new(run, RunDownWorking.Of(run));
    }

    /// <summary>The same bank at four other loads, asked for apart: whoever moves the load waits for the run alone.</summary>
    /// <inheritdoc cref="Work"/>
    public static IReadOnlyList<RunDownAt>? Others(DesignDocument design, int bankIndex, double? loadW, double? loadA)
    {
        if (Given(design, bankIndex, loadW, loadA) is not var (w, watts, amps))
            return null;
        var usual = watts ?? amps!.Value * w.Bank.Need().Holds.NominalV;
        return
        [
            .. OtherShares
                .Select(share => Rounded(share * usual))
                .Distinct()
                .Select(other => (LoadW: other, Run: Of(w, other, null)))
                .Select(x => new RunDownAt(x.LoadW, x.Run.DarkH, x.Run.DeliveredWh, x.Run.WorstJoint?.Amps)),
        ];
    }

    private static (BankWork Work, double? LoadW, double? LoadA)? Given(DesignDocument design, int bankIndex, double? loadW, double? loadA)
    {
        if (loadW is { } watts && !(watts > 0 && watts <= 1e6))
            Require.Refuse(nameof(loadW), "must be above 0 and at most 1,000,000 W");
        if (loadA is { } amps && !(amps > 0 && amps <= 1e5))
            Require.Refuse(nameof(loadA), "must be above 0 and at most 100,000 A");
        var w = new SiteWork(design)[bankIndex];
        if (w.Network.Value is not { } network || w.Bank.Value is not { } bank)
            return null;
        if (loadW is null && loadA is null)
            loadA = network.Strings.BankA > 0 ? network.Strings.BankA : 0.2 * bank.Holds.Ah;
        return (w, loadW, loadA);
    }

    /// <summary>Two digits are enough for a load that is only compared with.</summary>
    private static double Rounded(double watts)
    {
        var step = Math.Pow(10, Math.Floor(Math.Log10(watts)) - 1) / 2;
        return Math.Max(step, Math.Round(watts / step) * step);
    }

    /// <summary>One run.</summary>
    /// <param name="w">A bank that is worked out.</param>
    internal static BankRunDownResult Of(BankWork w, double? loadW, double? loadA)
    {
        var (pack, wired) = (w.Pack.Need(), w.Wired.Need());
        var state = new Running(pack, wired.Network, BadJoint.Of(w), w.Inverter.Value?.Item?.CutOffV, loadW, loadA);
        var held = pack.Strings.Sum(s => s.Ah);
        var longest = held / Math.Max(1e-9, loadA ?? loadW!.Value / Math.Max(1, w.Bank.Need().Holds.NominalV));
        var step = longest / Steps;
        var samples = new Samples(state, longest / MostSamples);
        RunDownEnd? end;
        while ((end = state.Settle(samples)) is null)
            state.Go(step, samples);
        samples.Take(state);
        return samples.Result(state, end.Value, loadW, loadA, HeadlineOf);
    }

    private static string HeadlineOf(Running state, double darkH, double strandedShare)
    {
        var drops = state.Drops;
        if (drops.Count == 0)
            return $"Dark at once: no voltage gives {(state.LoadW is { } watts ? Say.W(watts) : Say.A(state.LoadA!.Value))}";
        var first = drops[0];
        if (state.Strings == 1)
            return strandedShare < 0.005
                ? $"The string ends at {Say.Hours(darkH)}; nothing stays"
                : $"The string ends at {Say.Hours(darkH)}: unit {NameOf(first)} is empty, and the others are not";
        // One that opens by its current does so because another has left.
        var together = drops.All(d => (d.Hours - first.Hours) * 60 < 1 && d.Reason != DropReason.Current);
        if (together && drops.Count == state.Strings)
            return $"{(state.Strings == 2 ? "Both" : $"All {Say.Count(state.Strings).ToLowerInvariant()}")} strings end together at "
                + $"{Say.Hours(first.Hours)}{(strandedShare < 0.005 ? "; nothing stays" : "")}";
        var name = Say.StringName(first.String);
        if (drops.Count == 1)
            return $"String {name} leaves first, at {Say.Hours(first.Hours)}{WhyOf(state, first)}; "
                + ((darkH - first.Hours) * 60 < 1 ? "what is left gives no voltage for the load" : $"dark at {Say.Hours(darkH)}");
        var rest = drops.Skip(1).FirstOrDefault(d => (d.Hours - first.Hours) * 60 >= 1) ?? drops[1];
        var others = state.Strings == 2 ? $"{Say.StringName(rest.String)} alone" : $"string {Say.StringName(rest.String)}";
        var later = rest.Hours - first.Hours;
        return $"String {name} leaves first, at {Say.Hours(first.Hours)}{WhyOf(state, first)}; {others} takes {Say.A(rest.Amps)} and opens "
            + (later * 60 < 1 ? "at once" : $"{Say.Hours(later)} later");
    }

    /// <summary>What parts unlike strings: one of its units is empty before its neighbours, a limit, a cut-off.</summary>
    private static string WhyOf(Running state, RunDownDrop drop) =>
        drop.Reason switch
        {
            DropReason.Current => ", over its limit",
            DropReason.Voltage => ", at its cut-off",
            _ when state.HasUnlike(drop.String) => $", {NameOf(drop)} empty",
            _ => "",
        };

    private static string NameOf(RunDownDrop drop) => Say.StringName(drop.String) + (drop.Unit ?? 1);

    /// <summary>The bank at an instant.</summary>
    internal sealed class Running
    {
        private readonly Pack pack;
        private readonly BankNetwork network;
        private readonly IReadOnlyList<BadJoint> joints;
        private readonly double? cutOffV;
        private readonly double[][] soc;
        private readonly double[] emf,
            currents,
            most;
        private readonly bool[] isOut;
        private Topology topology;

        public Running(Pack pack, BankNetwork network, IReadOnlyList<BadJoint> joints, double? cutOffV, double? loadW, double? loadA)
        {
            (this.pack, this.network, this.joints, this.cutOffV, LoadW, LoadA) = (pack, network, joints, cutOffV, loadW, loadA);
            soc = [.. pack.Strings.Select(s => s.Units.Select(u => u.Soc ?? 1).ToArray())];
            (emf, currents, most, isOut) = (new double[Strings], new double[Strings], new double[Strings], new bool[Strings]);
            topology = new(network, isOut);
        }

        public int Strings => pack.Parallel;
        public double? LoadW { get; }
        public double? LoadA { get; }
        public double Hours { get; private set; }
        public double DeliveredWh { get; private set; }
        public List<RunDownDrop> Drops { get; } = [];
        public IReadOnlyList<double> Currents => currents;
        public IReadOnlyList<double> Most => most;
        public Pack Pack => pack;
        private double Volts { get; set; }
        private double Amps { get; set; }

        /// <summary>A unit of the string (from 1) still holds what another does not.</summary>
        public bool HasUnlike(int number)
        {
            var s = number - 1;
            var left = Enumerable.Range(0, soc[s].Length).Select(u => AhOf(s, u)).ToArray();
            return left.Max() - left.Min() > 0.01 * pack.Strings[s].Ah;
        }

        public double AhOf(int s, int u) => soc[s][u] * pack.Strings[s].Units[u].Ah;

        /// <summary>Solves, opens one string at a time and solves again, until none need open; says what ended it.</summary>
        public RunDownEnd? Settle(Samples samples)
        {
            while (true)
            {
                if (isOut.All(o => o))
                    return RunDownEnd.AllOut;
                if (!Solve())
                    return RunDownEnd.Power;
                Count();
                if (cutOffV is { } cutOff && Volts <= cutOff)
                    return RunDownEnd.InverterCutOff;
                if (Next() is not { } next)
                    return null;
                samples.Take(this);
                Drops.Add(next with { Hours = Hours });
                isOut[next.String - 1] = true;
                topology = new(network, isOut);
                if (!isOut.All(o => o) && Solve())
                {
                    Count();
                    samples.Take(this);
                }
            }
        }

        private bool Solve()
        {
            for (var s = 0; s < Strings; s++)
            {
                emf[s] = 0;
                var units = pack.Strings[s].Units;
                for (var u = 0; u < units.Count; u++)
                    emf[s] += units[u].RestV(soc[s][u]);
            }
            var (open, ohm) = topology.Source(emf);
            double amps;
            if (LoadA is { } given)
                amps = given;
            else
            {
                // P = (V₀ − r·I)·I: the lower of the two currents is the one a load settles at.
                var root = open * open - 4 * ohm * LoadW!.Value;
                if (root < 0)
                    return false;
                amps = ohm > 0 ? (open - Math.Sqrt(root)) / (2 * ohm) : LoadW.Value / open;
            }
            (Amps, Volts) = (amps, open - ohm * amps);
            topology.Currents(emf, amps, currents);
            return Volts > 0;
        }

        /// <summary>What flows is what strings and joints have carried.</summary>
        private void Count()
        {
            for (var s = 0; s < Strings; s++)
                most[s] = Math.Max(most[s], Math.Abs(currents[s]));
            foreach (var joint in joints)
                joint.Carry(currents, Amps);
        }

        /// <summary>An empty unit first, then the highest cut-off reached, then the string furthest over its limit.</summary>
        private RunDownDrop? Next()
        {
            RunDownDrop? byVoltage = null,
                byCurrent = null;
            double lowest = 0,
                worst = 1;
            for (var s = 0; s < Strings; s++)
            {
                if (isOut[s])
                    continue;
                var units = pack.Strings[s].Units;
                for (var u = 0; u < units.Count; u++)
                {
                    if (soc[s][u] <= 0 && currents[s] > 0)
                        return new(Hours, s + 1, u + 1, DropReason.Empty, currents[s]);
                    if (BmsVolts.Of(Chemistries.Get(units[u].Item.Chemistry)) is not { CellLowV: var low })
                        continue;
                    var under = low - (units[u].RestV(soc[s][u]) - currents[s] * units[u].Ohm) / units[u].Item.Cells;
                    if (under > lowest)
                        (byVoltage, lowest) = (new(Hours, s + 1, u + 1, DropReason.Voltage, currents[s]), under);
                }
                var limit = currents[s] < 0 ? pack.Strings[s].ChargeA ?? pack.Strings[s].LimitA : pack.Strings[s].LimitA;
                if (limit is { } most && Tolerant.Exceeds(Math.Abs(currents[s]) / most, worst))
                    (byCurrent, worst) = (new(Hours, s + 1, null, DropReason.Current, currents[s]), Math.Abs(currents[s]) / most);
            }
            return byVoltage ?? byCurrent;
        }

        /// <summary>On by a step, or to where the first unit is empty; a step in which a string would open is taken in parts.</summary>
        public void Go(double step, Samples samples)
        {
            var dt = step;
            for (var s = 0; s < Strings; s++)
                if (!isOut[s] && currents[s] > 0)
                    for (var u = 0; u < soc[s].Length; u++)
                        dt = Math.Min(dt, AhOf(s, u) / currents[s]);
            samples.Pass(this);
            var (watts, before, flow) = (Volts * Amps, soc.Select(x => x.ToArray()).ToArray(), currents.ToArray());
            while (true)
            {
                Move(before, flow, dt);
                // An empty unit is met as it is; whatever else opens is looked for from below.
                if (dt <= FinestH || IsEmptied() || !Ends())
                    break;
                dt /= 2;
            }
            // At the end of the step, which was looked at last or not at all.
            Solve();
            Hours += dt;
            // Volts fall within a step: the mean of its two ends.
            DeliveredWh += (Volts > 0 ? (watts + Volts * Amps) / 2 : watts) * dt;
        }

        private void Move(double[][] from, double[] flow, double dt)
        {
            for (var s = 0; s < Strings; s++)
                if (!isOut[s])
                    for (var u = 0; u < soc[s].Length; u++)
                    {
                        soc[s][u] = Math.Min(1, from[s][u] - flow[s] * dt / pack.Strings[s].Units[u].Ah);
                        if (soc[s][u] < 1e-12)
                            soc[s][u] = 0;
                    }
        }

        private bool IsEmptied()
        {
            for (var s = 0; s < Strings; s++)
                if (!isOut[s] && Array.Exists(soc[s], x => x <= 0))
                    return true;
            return false;
        }

        /// <summary>As it stands now something ends: a string, the load, or all of it.</summary>
        private bool Ends() => !Solve() || cutOffV is { } cutOff && Volts <= cutOff || Next() is not null;

        /// <summary>Null: no bad joint is known, or nothing went through any.</summary>
        public HotJoint? Hottest() => joints.Select(j => j.Hottest).Where(j => j.HeatW > 0).MaxBy(j => j.HeatW);
    }

    /// <summary>The network with some strings out, as numbers: everything in it is linear in the EMFs and the load.</summary>
    private sealed class Topology
    {
        private readonly int n;
        private readonly double[] ofLoad,
            openOf;
        private readonly double[][] ofEmf;
        private readonly double ohm;

        public Topology(BankNetwork network, bool[] isOut)
        {
            n = network.Strings;
            (ofLoad, openOf, ofEmf) = (new double[n], new double[n], new double[n][]);
            if (isOut.All(o => o))
            {
                ohm = double.NaN;
                return;
            }
            var emf = new double[n];
            ohm = -network.Solve(emf, isOut, 1, ofLoad);
            for (var j = 0; j < n; j++)
            {
                Array.Clear(emf);
                emf[j] = 1;
                ofEmf[j] = new double[n];
                openOf[j] = isOut[j] ? 0 : network.Solve(emf, isOut, 0, ofEmf[j]);
            }
        }

        /// <summary>The bank as one source: open volts [V] and resistance [Ω].</summary>
        public (double OpenV, double Ohm) Source(double[] emf)
        {
            var open = 0.0;
            for (var j = 0; j < n; j++)
                open += openOf[j] * emf[j];
            return (open, ohm);
        }

        public void Currents(double[] emf, double amps, double[] currents)
        {
            for (var i = 0; i < n; i++)
            {
                var sum = ofLoad[i] * amps;
                for (var j = 0; j < n; j++)
                    sum += ofEmf[j][i] * emf[j];
                currents[i] = sum;
            }
        }
    }

    /// <summary>What is drawn of a run: no more samples than a screen has room for, and every event.</summary>
    internal sealed class Samples(Running begin, double every)
    {
        private readonly List<double> hours = [];
        private readonly List<double>[] amps = [.. Enumerable.Range(0, begin.Strings).Select(_ => new List<double>())];
        private readonly List<double>[][] ah = [.. begin.Pack.Strings.Select(s => s.Units.Select(_ => new List<double>()).ToArray())];
        private readonly double held = Held(begin);
        private double next;

        /// <summary>What is in the units at their rest volts, which no load gets whole.</summary>
        private static double Held(Running state)
        {
            var wh = 0.0;
            foreach (var (s, units) in state.Pack.Strings.Index())
                for (var u = 0; u < units.Units.Count; u++)
                    wh += WhOf(state, s, u);
            return wh;
        }

        private static double WhOf(Running state, int s, int u)
        {
            var unit = state.Pack.Strings[s].Units[u];
            return unit.Ah * unit.Item.Cells * RestVoltage.WhPerAh(unit.Item.Chemistry, state.AhOf(s, u) / unit.Ah);
        }

        /// <summary>Before a step: now and then one is kept.</summary>
        public void Pass(Running state)
        {
            if (state.Hours < next)
                return;
            next = state.Hours + every;
            Take(state);
        }

        public void Take(Running state)
        {
            hours.Add(state.Hours);
            for (var s = 0; s < amps.Length; s++)
            {
                amps[s].Add(state.Currents[s]);
                for (var u = 0; u < ah[s].Length; u++)
                    ah[s][u].Add(state.AhOf(s, u));
            }
        }

        public BankRunDownResult Result(
            Running state,
            RunDownEnd end,
            double? loadW,
            double? loadA,
            Func<Running, double, double, string> headline
        )
        {
            var left = Held(state);
            var stranded = state
                .Pack.Strings.Index()
                .SelectMany(s =>
                    s.Item.Units.Index()
                        .Select(u => new StrandedUnit(
                            s.Index + 1,
                            u.Index + 1,
                            state.AhOf(s.Index, u.Index),
                            WhOf(state, s.Index, u.Index)
                        ))
                )
                .Where(u => u.Ah > 0.05)
                .ToList();
            return new(
                loadW,
                loadA,
                hours,
                amps,
                ah,
                state.Drops,
                state.DeliveredWh,
                held,
                left,
                stranded,
                state.Hours,
                end,
                [.. state.Most],
                state.Hottest(),
                headline(state, state.Hours, held > 0 ? left / held : 0)
            );
        }
    }
}

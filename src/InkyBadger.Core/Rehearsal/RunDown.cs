using InkyBadger.Core.Reference;

namespace InkyBadger.Core.Rehearsal;

/// <summary>
/// A unit in plain parallel: capacity [Ah], resistance with its leads [Ω], state of charge (0 to 1], low cut-off a cell [V], limit [A].
/// </summary>
public sealed record RunDownUnit(double Ah, double ResistanceOhm, double SocStart = 1, double? CutOffCellV = null, double? LimitA = null);

/// <summary>Why a unit opened.</summary>
public enum DropReason
{
    Empty,
    Voltage,
    Current,
}

/// <summary>What ended it: no unit left, the inverter's cut-off, or no voltage at which the power can be had.</summary>
public enum RunDownEnd
{
    AllOut,
    InverterCutOff,
    Power,
}

/// <summary>
/// Energy delivered at the terminals [Wh], hours, who opened (from 1), why and when [h], and each unit's greatest current [A].
/// </summary>
public sealed record RunDownResult(
    double DeliveredWh,
    double Hours,
    IReadOnlyList<int> Order,
    IReadOnlyList<DropReason> Reasons,
    IReadOnlyList<double> DropHours,
    IReadOnlyList<double> MaxCurrentsA,
    RunDownEnd EndedBy
);

/// <summary>A mixed bank run down to its end in quasi-static steps (method, 5.5).</summary>
public static class RunDown
{
    private const double NearlyNothing = 1e-12;

    /// <summary>A bank emptied in minutes takes finer steps than a slow one, down to this part of its run.</summary>
    private const double FinestPart = 1e-4;

    /// <param name="loadW">Constant power at the terminals [W, &gt; 0], or null.</param>
    /// <param name="loadA">Constant current [A, &gt; 0], in its place.</param>
    /// <param name="stepS">Greatest step [s, &gt; 0]; a finer one is taken where the run is short.</param>
    /// <exception cref="Refusal">Names the offending input.</exception>
    public static RunDownResult Work(
        IReadOnlyList<RunDownUnit> units,
        string chemistry,
        int cellsInSeries,
        double? loadW,
        double? loadA,
        double? inverterCutOffV = null,
        double stepS = 10
    )
    {
        Check(units, cellsInSeries, loadW, loadA, inverterCutOffV, stepS);
        var run = new State(units, chemistry, cellsInSeries, loadW, loadA);
        var amps = loadA ?? loadW!.Value / (cellsInSeries * Chemistries.Get(chemistry).CellNominalV);
        stepS = Math.Min(stepS, FinestPart * 3600 * units.Sum(u => u.SocStart * u.Ah) / amps);
        double seconds = 0,
            deliveredWs = 0;
        while (true)
        {
            var end = Settle(run, seconds, inverterCutOffV);
            if (end is { } why)
                return new(deliveredWs / 3600, seconds / 3600, run.Order, run.Reasons, run.DropHours, run.MaxCurrents, why);
            // A step never empties a unit below nothing.
            var dt = stepS;
            for (var i = 0; i < units.Count; i++)
                if (!run.Out[i] && run.Currents[i] > 0)
                    dt = Math.Min(dt, run.Soc[i] * units[i].Ah * 3600 / run.Currents[i]);
            deliveredWs += run.Volts * run.Currents.Sum() * dt;
            seconds += dt;
            for (var i = 0; i < units.Count; i++)
            {
                if (run.Out[i])
                    continue;
                run.Soc[i] = Math.Min(1, run.Soc[i] - run.Currents[i] * dt / 3600 / units[i].Ah);
                if (run.Soc[i] < NearlyNothing)
                    run.Soc[i] = 0;
            }
        }
    }

    /// <summary>Solves, opens one unit at a time, and solves again at the same instant until none need open; says what ended it.</summary>
    private static RunDownEnd? Settle(State run, double seconds, double? inverterCutOffV)
    {
        while (true)
        {
            if (run.Out.All(o => o))
                return RunDownEnd.AllOut;
            if (!run.Solve())
                return RunDownEnd.Power;
            if (inverterCutOffV is { } cutOff && run.Volts <= cutOff)
                return RunDownEnd.InverterCutOff;
            if (run.Next() is not { } next)
                return null;
            run.Open(next.Unit, next.Reason, seconds);
        }
    }

    private static void Check(
        IReadOnlyList<RunDownUnit> units,
        int cellsInSeries,
        double? loadW,
        double? loadA,
        double? inverterCutOffV,
        double stepS
    )
    {
        if (units.Count == 0)
            Require.Refuse("units", "needs at least one unit");
        foreach (var unit in units)
        {
            Require.Above(unit.Ah, 0);
            Require.Above(unit.ResistanceOhm, 0);
            Require.Share(unit.SocStart);
            if (unit.CutOffCellV is { } cutOffCellV)
                Require.Above(cutOffCellV, 0);
            if (unit.LimitA is { } limitA)
                Require.Above(limitA, 0);
        }
        Require.AtLeast(cellsInSeries, 1);
        if (loadW is not null && loadA is not null)
            Require.Refuse(nameof(loadA), "give watts or amperes, not both");
        if (loadA is { } amps)
            Require.Above(amps, 0, nameof(loadA));
        else
            Require.Above(Require.Given(loadW), 0, nameof(loadW));
        if (inverterCutOffV is { } volts)
            Require.AtLeast(volts, 0, nameof(inverterCutOffV));
        Require.Above(stepS, 0);
    }

    /// <summary>The bank at an instant.</summary>
    private sealed class State(IReadOnlyList<RunDownUnit> units, string chemistry, int cells, double? loadW, double? loadA)
    {
        public double[] Soc { get; } = [.. units.Select(u => u.SocStart)];
        public bool[] Out { get; } = new bool[units.Count];
        public double[] Currents { get; } = new double[units.Count];
        public double[] MaxCurrents { get; } = new double[units.Count];
        public List<int> Order { get; } = [];
        public List<DropReason> Reasons { get; } = [];
        public List<double> DropHours { get; } = [];
        public double Volts { get; private set; }

        /// <summary>False when no voltage gives the power.</summary>
        public bool Solve()
        {
            double conductance = 0,
                driven = 0;
            Span<double> emf = stackalloc double[units.Count];
            for (var i = 0; i < units.Count; i++)
            {
                if (Out[i])
                    continue;
                emf[i] = cells * RestVoltage.CellV(chemistry, Soc[i]);
                conductance += 1 / units[i].ResistanceOhm;
                driven += emf[i] / units[i].ResistanceOhm;
            }
            if (loadA is { } amps)
                Volts = (driven - amps) / conductance;
            else
            {
                // P = V·(driven − conductance·V): the higher of the two voltages is the one a load settles at.
                var root = driven * driven - 4 * conductance * loadW!.Value;
                if (root < 0)
                    return false;
                Volts = (driven + Math.Sqrt(root)) / (2 * conductance);
            }
            for (var i = 0; i < units.Count; i++)
            {
                Currents[i] = Out[i] ? 0 : (emf[i] - Volts) / units[i].ResistanceOhm;
                MaxCurrents[i] = Math.Max(MaxCurrents[i], Math.Abs(Currents[i]));
            }
            return Volts > 0;
        }

        /// <summary>Who opens next: one that is empty, else the highest cut-off reached, else the one furthest over its limit.</summary>
        public (int Unit, DropReason Reason)? Next()
        {
            int? byVoltage = null,
                byCurrent = null;
            double highest = double.NegativeInfinity,
                worst = 1;
            for (var i = 0; i < units.Count; i++)
            {
                if (Out[i])
                    continue;
                if (Soc[i] <= 0)
                    return (i, DropReason.Empty);
                if (units[i].CutOffCellV is { } cutOff && Volts <= cells * cutOff && cutOff > highest)
                    (byVoltage, highest) = (i, cutOff);
                if (units[i].LimitA is { } limit && Tolerant.Exceeds(Math.Abs(Currents[i]) / limit, worst))
                    (byCurrent, worst) = (i, Math.Abs(Currents[i]) / limit);
            }
            return byVoltage is { } v ? (v, DropReason.Voltage)
                : byCurrent is { } c ? (c, DropReason.Current)
                : null;
        }

        public void Open(int unit, DropReason reason, double seconds)
        {
            Out[unit] = true;
            Currents[unit] = 0;
            Order.Add(unit + 1);
            Reasons.Add(reason);
            DropHours.Add(seconds / 3600);
        }
    }
}

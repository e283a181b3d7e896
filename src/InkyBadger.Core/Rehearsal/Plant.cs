using InkyBadger.Core.Demand;
using InkyBadger.Core.Design;
using InkyBadger.Core.Reference;
using InkyBadger.Core.Work;

namespace InkyBadger.Core.Rehearsal;

/// <summary>
/// A bank and its day as flat arrays, to be run through time minute by minute without touching the design again: each string's cells,
/// resistance with jumpers and leads, capacity and limit, and the watts that leave the bank in each of the 1,440 minutes (method, 11).
/// </summary>
public sealed class Plant
{
    public const int Minutes = 1440;

    private readonly string[] chemistry;
    private readonly int[] cells;
    private readonly double[] ohm,
        ah,
        limitA;
    private readonly double[] watts;

    private Plant(int strings, double[] watts)
    {
        (chemistry, cells, ohm, ah, limitA) = (
            new string[strings],
            new int[strings],
            new double[strings],
            new double[strings],
            new double[strings]
        );
        this.watts = watts;
    }

    public int Strings => cells.Length;

    /// <summary>Watts at the bank's terminals in each minute of the day.</summary>
    public ReadOnlySpan<double> Watts => watts;

    /// <summary>What such a day takes out of the bank [Wh].</summary>
    public double DayWh => watts.Sum() / 60;

    /// <summary>
    /// Where the bank is in time: what each string still holds and whether it has opened, what flows, and what was delivered.
    /// </summary>
    public struct State
    {
        /// <summary>Minutes since midnight of the first day.</summary>
        public int Minute { get; internal set; }

        /// <summary>Of each string, 0 to 1.</summary>
        public double[] Soc { get; internal init; }
        public bool[] Out { get; internal init; }

        /// <summary>Amperes of each string in the last minute, discharge positive.</summary>
        public double[] Amps { get; internal init; }

        /// <summary>Terminal volts in the last minute; 0 when it was dark.</summary>
        public double Volts { get; internal set; }

        /// <summary>Delivered at the terminals so far [Wh].</summary>
        public double DeliveredWh { get; internal set; }

        /// <summary>Minutes without power so far.</summary>
        public int DarkMinutes { get; internal set; }
    }

    /// <param name="w">A bank that is worked out.</param>
    /// <param name="season">Whose loads run; where they do not differ, any.</param>
    /// <exception cref="Missing">The bank or its demand is not worked out yet.</exception>
    public static Plant From(BankWork w, Season season)
    {
        var profile = DayWatts.Of(w, season, Minutes);
        var (pack, wired) = (w.Pack.Need(), w.Wired.Need());
        var plant = new Plant(pack.Parallel, profile);
        for (var s = 0; s < pack.Parallel; s++)
        {
            var own = pack.Strings[s];
            plant.chemistry[s] = own.Units[0].Item.Chemistry;
            plant.cells[s] = own.Units.Sum(u => u.Item.Cells);
            plant.ohm[s] = wired.StringOhm[s];
            plant.ah[s] = own.Ah;
            plant.limitA[s] = own.LimitA ?? double.PositiveInfinity;
        }
        return plant;
    }

    /// <param name="soc">State of charge of every string, 0 to 1.</param>
    public State Begin(double soc)
    {
        Require.Within(soc, 0, 1);
        var state = new State
        {
            Soc = new double[Strings],
            Out = new bool[Strings],
            Amps = new double[Strings],
        };
        Array.Fill(state.Soc, soc);
        return state;
    }

    /// <summary>
    /// One minute on. The volts are those at which the strings that are in give the watts; one that is empty or over its limit opens, the
    /// one furthest over first, until those that are left carry it or none is left.
    /// </summary>
    public void Step(ref State state)
    {
        var load = watts[state.Minute % Minutes];
        state.Minute++;
        while (true)
        {
            state.Volts = Solve(state, load);
            if (state.Volts <= 0)
                break;
            var worst = -1;
            var over = 1.0;
            for (var i = 0; i < Strings; i++)
            {
                if (state.Out[i])
                    continue;
                var ratio = state.Soc[i] <= 0 && state.Amps[i] > 0 ? double.MaxValue : Math.Abs(state.Amps[i]) / limitA[i];
                if (Tolerant.Exceeds(ratio, over))
                    (worst, over) = (i, ratio);
            }
            if (worst < 0)
                break;
            state.Out[worst] = true;
        }
        if (state.Volts <= 0)
        {
            Array.Clear(state.Amps);
            if (load > 0)
                state.DarkMinutes++;
            return;
        }
        state.DeliveredWh += load / 60;
        for (var i = 0; i < Strings; i++)
            state.Soc[i] = Math.Clamp(state.Soc[i] - state.Amps[i] / 60 / ah[i], 0, 1);
    }

    /// <summary>Terminal volts at which the strings give the watts, with each string's amperes; 0 when none do.</summary>
    private double Solve(in State state, double load)
    {
        double conductance = 0,
            driven = 0;
        for (var i = 0; i < Strings; i++)
        {
            state.Amps[i] = 0;
            if (state.Out[i])
                continue;
            conductance += 1 / ohm[i];
            driven += EmfV(i, state.Soc[i]) / ohm[i];
        }
        var root = driven * driven - 4 * conductance * load;
        if (conductance == 0 || root < 0)
            return 0;
        var volts = (driven + Math.Sqrt(root)) / (2 * conductance);
        for (var i = 0; i < Strings; i++)
            if (!state.Out[i])
                state.Amps[i] = (EmfV(i, state.Soc[i]) - volts) / ohm[i];
        return volts;
    }

    private double EmfV(int s, double soc) => cells[s] * RestVoltage.CellV(chemistry[s], soc);
}

namespace InkyBadger.Core.Network;

/// <summary>A conductor between two nodes of the network [Ω].</summary>
public readonly record struct NetworkConductor(string Name, string From, string To, double Ohm);

/// <summary>
/// The resistor network of a bank's strings in parallel (method, 5.1). Resistances in Ω, links may be 0. With rails the strings are
/// the rungs of a ladder; with bus bars every string has leads of its own to two points of no resistance.
/// </summary>
public sealed class BankNetwork
{
    private readonly double[] stringOhm;
    private readonly double[] positiveLinksOhm;
    private readonly double[] negativeLinksOhm;
    private readonly double[] leadsOhm;
    private readonly bool busBars;
    private readonly int positiveAt;
    private readonly int negativeAt;

    private BankNetwork(
        double[] strings,
        double[] positiveLinks,
        double[] negativeLinks,
        double[] leads,
        bool busBars,
        int positiveAt,
        int negativeAt
    )
    {
        (stringOhm, positiveLinksOhm, negativeLinksOhm, leadsOhm) = (strings, positiveLinks, negativeLinks, leads);
        (this.busBars, this.positiveAt, this.negativeAt) = (busBars, positiveAt, negativeAt);
    }

    public int Strings => stringOhm.Length;

    /// <summary>Where the load hangs: nodes of <see cref="Conductors"/>.</summary>
    public (string Plus, string Minus) Takeoffs => busBars ? ("plus", "minus") : ($"p{positiveAt}", $"n{negativeAt}");

    /// <summary>
    /// What joins the strings: string i stands between the nodes n<i>i</i> and p<i>i</i>. Leads of a string, its two together, are one
    /// resistance at its plus.
    /// </summary>
    public IEnumerable<NetworkConductor> Conductors()
    {
        if (busBars)
        {
            for (var i = 0; i < Strings; i++)
            {
                yield return new($"LB{i + 1}", $"p{i + 1}", "plus", leadsOhm[i]);
                yield return new($"LM{i + 1}", $"n{i + 1}", "minus", 0);
            }
            yield break;
        }
        for (var i = 0; i + 1 < Strings; i++)
        {
            yield return new($"LP{i + 1}", $"p{i + 1}", $"p{i + 2}", positiveLinksOhm[i]);
            yield return new($"LN{i + 1}", $"n{i + 1}", $"n{i + 2}", negativeLinksOhm[i]);
        }
    }

    public bool IsBusBars => busBars;

    /// <summary>Rails with take-offs at the strings named (from 1).</summary>
    /// <exception cref="Refusal">
    /// <c>strings</c>, <c>resistanceOhm</c>, <c>positiveLinksOhm</c>, <c>negativeLinksOhm</c>, <c>positiveTakeoff</c>,
    /// <c>negativeTakeoff</c>.
    /// </exception>
    public static BankNetwork OnRails(
        double[] stringOhm,
        double[] positiveLinksOhm,
        double[] negativeLinksOhm,
        int positiveTakeoff,
        int negativeTakeoff
    )
    {
        CheckStrings(stringOhm);
        CheckList(positiveLinksOhm, stringOhm.Length - 1, "positiveLinksOhm");
        CheckList(negativeLinksOhm, stringOhm.Length - 1, "negativeLinksOhm");
        Require.Within(positiveTakeoff, 1, stringOhm.Length);
        Require.Within(negativeTakeoff, 1, stringOhm.Length);
        return new(stringOhm, positiveLinksOhm, negativeLinksOhm, [], false, positiveTakeoff, negativeTakeoff);
    }

    /// <summary>Both leads at the first string, or the positive at the first and the negative at the last.</summary>
    public static BankNetwork OnRails(double[] stringOhm, double[] positiveLinksOhm, double[] negativeLinksOhm, bool diagonal) =>
        OnRails(stringOhm, positiveLinksOhm, negativeLinksOhm, 1, diagonal ? Math.Max(1, stringOhm.Length) : 1);

    /// <summary>Every string on leads of its own to two bus bars.</summary>
    public static BankNetwork OnBusBars(double[] stringOhm, double[] positiveLeadsOhm, double[] negativeLeadsOhm)
    {
        CheckStrings(stringOhm);
        CheckList(positiveLeadsOhm, stringOhm.Length, "positiveLeadsOhm");
        CheckList(negativeLeadsOhm, stringOhm.Length, "negativeLeadsOhm");
        var leads = new double[stringOhm.Length];
        for (var i = 0; i < leads.Length; i++)
            leads[i] = positiveLeadsOhm[i] + negativeLeadsOhm[i];
        return new(stringOhm, [], [], leads, true, 1, 1);
    }

    /// <summary>The same bank with its leads leaving elsewhere; rails only.</summary>
    public BankNetwork WithTakeoffs(int positiveTakeoff, int negativeTakeoff) =>
        new(stringOhm, positiveLinksOhm, negativeLinksOhm, [], false, positiveTakeoff, negativeTakeoff);

    /// <summary>
    /// Solves for the string currents (discharge positive) [A] at a load current [A].
    /// </summary>
    /// <param name="emf">EMF of each string [V].</param>
    /// <param name="isOut">Strings whose units have opened; empty: none. Their rail links stay.</param>
    /// <param name="loadA">Current leaving the positive rail, negative when charging.</param>
    /// <param name="currents">Receives each string's current, 0 for one that is out.</param>
    /// <returns>The voltage between the take-off points [V]; NaN when every string is out.</returns>
    public double Solve(ReadOnlySpan<double> emf, ReadOnlySpan<bool> isOut, double loadA, Span<double> currents) =>
        Solve(emf, isOut, loadA, currents, positiveAt, negativeAt);

    private double Solve(ReadOnlySpan<double> emf, ReadOnlySpan<bool> isOut, double loadA, Span<double> currents, int tp, int tn)
    {
        currents.Clear();
        return busBars ? SolveBusBars(emf, isOut, loadA, currents) : SolveRails(emf, isOut, loadA, currents, tp, tn);
    }

    private double SolveBusBars(ReadOnlySpan<double> emf, ReadOnlySpan<bool> isOut, double loadA, Span<double> currents)
    {
        double conductance = 0,
            driven = 0;
        for (var i = 0; i < Strings; i++)
        {
            if (IsOut(isOut, i))
                continue;
            var g = 1 / (stringOhm[i] + leadsOhm[i]);
            conductance += g;
            driven += g * emf[i];
        }
        if (conductance == 0)
            return double.NaN;
        var volts = (driven - loadA) / conductance;
        for (var i = 0; i < Strings; i++)
            if (!IsOut(isOut, i))
                currents[i] = (emf[i] - volts) / (stringOhm[i] + leadsOhm[i]);
        return volts;
    }

    /// <remarks>
    /// The unknowns are the running sums of string current, x_j = I_1 + … + I_j over the strings that are in. Going round the mesh
    /// between two neighbours gives one equation each: −R_j·x_{j−1} + (R_j + R_{j+1} + p + n)·x_j − R_{j+1}·x_{j+1}
    /// = E_j − E_{j+1} + I·(what of p lies beyond the positive take-off + what of n beyond the negative). The matrix is
    /// tridiagonal, symmetric and diagonally dominant, so plain elimination is stable, needs no pivots, and a link of 0 Ω is nothing
    /// special.
    /// </remarks>
    private double SolveRails(ReadOnlySpan<double> emf, ReadOnlySpan<bool> isOut, double loadA, Span<double> currents, int tp, int tn)
    {
        var n = Strings;
        Span<int> inStrings = stackalloc int[n];
        var count = 0;
        for (var i = 0; i < n; i++)
            if (!IsOut(isOut, i))
                inStrings[count++] = i;
        if (count == 0)
            return double.NaN;

        Span<double> sums = stackalloc double[count + 1];
        sums[0] = 0;
        sums[count] = loadA;
        Span<double> upper = stackalloc double[count + 1];
        for (var j = 1; j < count; j++)
        {
            int a = inStrings[j - 1],
                b = inStrings[j];
            double links = 0,
                beyond = 0;
            for (var i = a; i < b; i++)
            {
                links += positiveLinksOhm[i] + negativeLinksOhm[i];
                if (tp <= i + 1)
                    beyond += positiveLinksOhm[i];
                if (tn <= i + 1)
                    beyond += negativeLinksOhm[i];
            }
            double ra = stringOhm[a],
                rb = stringOhm[b];
            var diagonal = ra + rb + links;
            var right = emf[a] - emf[b] + loadA * beyond;
            if (j == count - 1)
                right += rb * loadA;
            if (j > 1)
            {
                diagonal += ra * upper[j - 1];
                right += ra * sums[j - 1];
            }
            upper[j] = -rb / diagonal;
            sums[j] = right / diagonal;
        }
        for (var j = count - 2; j >= 1; j--)
            sums[j] -= upper[j] * sums[j + 1];
        for (var j = 0; j < count; j++)
            currents[inStrings[j]] = sums[j + 1] - sums[j];

        return TerminalVolts(emf, currents, loadA, inStrings[0], tp, tn);
    }

    private double TerminalVolts(ReadOnlySpan<double> emf, ReadOnlySpan<double> currents, double loadA, int first, int tp, int tn)
    {
        // Potentials measured from string `first`'s negative end, walked along both rails to the take-offs.
        var positive = emf[first] - stringOhm[first] * currents[first];
        double negative = 0;
        Span<double> up = stackalloc double[Strings];
        Span<double> down = stackalloc double[Strings];
        double sum = 0;
        for (var i = 0; i < Strings - 1; i++)
        {
            sum += currents[i];
            up[i] = positiveLinksOhm[i] * (sum - (tp <= i + 1 ? loadA : 0));
            down[i] = negativeLinksOhm[i] * (sum - (tn <= i + 1 ? loadA : 0));
        }
        for (var i = first; i < tp - 1; i++)
            positive -= up[i];
        for (var i = tp - 1; i < first; i++)
            positive += up[i];
        for (var i = first; i < tn - 1; i++)
            negative += down[i];
        for (var i = tn - 1; i < first; i++)
            negative -= down[i];
        return positive - negative;
    }

    /// <summary>Each string's share of the load current with equal EMFs; the shares add to 1.</summary>
    public void Shares(Span<double> shares, ReadOnlySpan<bool> isOut = default)
    {
        Span<double> none = stackalloc double[Strings];
        none.Clear();
        Solve(none, isOut, 1, shares);
    }

    /// <summary>Fall of terminal voltage per ampere drawn, equal EMFs [Ω].</summary>
    public double SourceOhm()
    {
        Span<double> none = stackalloc double[Strings];
        none.Clear();
        Span<double> currents = stackalloc double[Strings];
        return -Solve(none, default, 1, currents);
    }

    /// <summary>
    /// Resistance the other strings show at the ends of string <paramref name="atString"/> (from 1), its own leads in; null when there is
    /// no other.
    /// </summary>
    public double? OhmAtString(int atString)
    {
        Require.Within(atString, 1, Strings);
        if (Strings == 1)
            return null;
        Span<double> none = stackalloc double[Strings];
        none.Clear();
        Span<double> currents = stackalloc double[Strings];
        Span<bool> isOut = stackalloc bool[Strings];
        isOut.Clear();
        isOut[atString - 1] = true;
        var ohm = -Solve(none, isOut, 1, currents, atString, atString);
        return busBars ? ohm + leadsOhm[atString - 1] : ohm;
    }

    /// <summary>Current in the link after string <paramref name="after"/> (from 1) on each rail, for solved string currents [A].</summary>
    public (double PositiveA, double NegativeA) LinkCurrents(ReadOnlySpan<double> currents, double loadA, int after)
    {
        double sum = 0;
        for (var i = 0; i < after; i++)
            sum += currents[i];
        return (sum - (positiveAt <= after ? loadA : 0), sum - (negativeAt <= after ? loadA : 0));
    }

    private static bool IsOut(ReadOnlySpan<bool> isOut, int i) => !isOut.IsEmpty && isOut[i];

    private static void CheckStrings(double[] strings)
    {
        if (strings.Length == 0)
            Require.Refuse("strings", "needs at least one string");
        foreach (var resistanceOhm in strings)
            Require.Above(resistanceOhm, 0);
    }

    private static void CheckList(double[] list, int length, string field)
    {
        if (list.Length != length)
            Require.Refuse(field, $"needs {length} entries");
        foreach (var ohm in list)
            Require.AtLeast(ohm, 0, field);
    }
}

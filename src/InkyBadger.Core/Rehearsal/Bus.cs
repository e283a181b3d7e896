namespace InkyBadger.Core.Rehearsal;

/// <summary>
/// The bus of a bank at one instant: its strings in plain parallel as so many siemens and amperes, sources that give watts or amperes up to
/// their set volts, and the watts that are taken (method, 11.2). Sources are cut back from the lowest set volts up.
/// </summary>
internal struct Bus
{
    /// <summary>Sum of 1/R and of E/R of the strings that are in [S, A].</summary>
    public double G,
        S;

    /// <summary>What is taken [W].</summary>
    public double LoadW;

    /// <summary>No source lifts the bus over it: what the strings take [V].</summary>
    public double CapV;

    /// <summary>Of the bus; NaN: no volts give the watts.</summary>
    public double Volts { get; private set; }

    /// <summary>Solves, and writes what each source gives at the bus [W].</summary>
    /// <param name="order">Sources by rising set volts, of equal ones the last in the list first.</param>
    /// <param name="given">[W] of each source in the list’s order.</param>
    /// <param name="leastSetV">Sources set below it give nothing [V].</param>
    /// <param name="cut">The first source is cut back whatever the volts are.</param>
    public void Solve(ReadOnlySpan<BusSource> sources, ReadOnlySpan<int> order, Span<double> given, double leastSetV, bool cut)
    {
        double watts = 0,
            amps = 0;
        foreach (ref readonly var s in sources)
            if (s.SetV >= leastSetV)
            {
                watts += s.Watts;
                amps += s.Amps;
            }
        Volts = cut ? double.PositiveInfinity : Root(watts, amps);
        var (partly, partA) = (-1, 0.0);
        var off = 0;
        foreach (var at in order)
        {
            ref readonly var s = ref sources[at];
            if (s.SetV < leastSetV || s is { Watts: 0, Amps: 0 })
            {
                off++;
                continue;
            }
            var ceiling = Math.Min(s.SetV, CapV);
            if (!(Volts > ceiling))
                break;
            watts -= s.Watts;
            amps -= s.Amps;
            off++;
            var lacks = G * ceiling - S - amps + (LoadW - watts) / ceiling;
            if (lacks > 0)
            {
                (Volts, partly, partA) = (ceiling, at, lacks);
                break;
            }
            Volts = G > 0 ? Root(watts, amps) : double.PositiveInfinity;
        }
        if (double.IsPositiveInfinity(Volts))
            Volts = CapV;
        given.Clear();
        for (var n = off; n < order.Length; n++)
        {
            ref readonly var s = ref sources[order[n]];
            if (s.SetV >= leastSetV)
                given[order[n]] = s.Watts + s.Amps * Volts;
        }
        if (partly >= 0)
            given[partly] = partA * Volts;
    }

    private readonly double Root(double watts, double amps)
    {
        var sum = S + amps;
        var root = sum * sum - 4 * G * (LoadW - watts);
        return root < 0 ? double.NaN : (sum + Math.Sqrt(root)) / (2 * G);
    }

    /// <summary>Volts never below those at which strings that are full rest.</summary>
    public void AtLeast(double volts) => Volts = Math.Max(Volts, volts);
}

/// <summary>What a source has at this instant: watts, or amperes, up to its set volts.</summary>
internal struct BusSource
{
    public double Watts,
        Amps,
        SetV;
}

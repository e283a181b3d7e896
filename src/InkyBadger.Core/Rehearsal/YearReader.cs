namespace InkyBadger.Core.Rehearsal;

/// <summary>Hours in which a feed gave nothing of what was asked, and the longest of them without a break [h].</summary>
public sealed record DarkFeed(double Hours, double LongestH)
{
    internal (DarkFeed, double Now) With(bool dark, double now, double stepH) =>
        !dark ? (this, 0) : (new(Hours + stepH, Math.Max(LongestH, now + stepH)), now + stepH);
}

/// <summary>
/// A day of a run: lowest charge [0 to 1], hours that something was asked for and not given [h], energy that the sources had and the bank
/// did not take, what each source gave, what the loads took [Wh], hours a generator ran.
/// </summary>
public sealed record YearDay(
    double LowestSoc,
    double DarkH,
    double RefusedWh,
    IReadOnlyList<double> SourceWh,
    double OutWh,
    double GeneratorH
);

/// <summary>
/// A day's quarters of an hour: charge at the end of each [0 to 1], and of each quarter the means of the watts into the bank [W, out
/// negative], of the volts [V], of the amperes of each string [A, out of it positive] and of what each source gave [W]; whether anything of
/// it was dark.
/// </summary>
public sealed record YearQuarters(
    IReadOnlyList<double> Soc,
    IReadOnlyList<double> NetW,
    IReadOnlyList<bool> Dark,
    IReadOnlyList<double> Volts,
    IReadOnlyList<IReadOnlyList<double>> Amps,
    IReadOnlyList<IReadOnlyList<double>> SourceW
);

/// <summary>Reads a run out day by day, with its quarters of an hour: what is drawn of it.</summary>
public sealed class YearReader : IRehearsalReader
{
    public const int Quarters = 96;

    /// <summary>Of more strings the amperes are not kept: nobody could read them.</summary>
    public const int MostStrings = 8;

    private readonly int perQuarter,
        perDay,
        strings;
    private readonly double stepH;
    private readonly List<YearDay> days = [];
    private readonly List<YearQuarters> quarters = [];

    private double lowest = double.PositiveInfinity,
        dark,
        refused,
        outWh,
        generator,
        net,
        sumV;
    private readonly double[] sumA;
    private bool anyDark;
    private double[] given;
    private double[] soc = new double[Quarters],
        watts = new double[Quarters],
        volts = new double[Quarters];
    private bool[] isDark = new bool[Quarters];
    private double[][] amps,
        sourceW;
    private readonly double[] sumW;

    public YearReader(RehearsalPlan plan)
    {
        (perDay, perQuarter, stepH) = (plan.StepsPerDay, Math.Max(1, plan.StepsPerDay / Quarters), plan.StepS / 3600.0);
        strings = plan.Strings.Count <= MostStrings ? plan.Strings.Count : 0;
        sumA = new double[strings];
        given = new double[plan.Sources.Count + (plan.Generator is null ? 0 : 1)];
        sumW = new double[given.Length];
        (amps, sourceW) = (Empty(strings), Empty(given.Length));
    }

    /// <summary>Hours without AC and without DC that were asked for, and the longest stretch of each [h].</summary>
    public DarkFeed Ac { get; private set; } = new(0, 0);
    public DarkFeed Dc { get; private set; } = new(0, 0);
    private double acNow,
        dcNow;

    public IReadOnlyList<YearDay> Days => days;
    public IReadOnlyList<YearQuarters> QuartersOf => quarters;

    private static double[][] Empty(int lists) => [.. Enumerable.Range(0, lists).Select(_ => new double[Quarters])];

    public void Read(in Moment m)
    {
        lowest = Math.Min(lowest, m.Soc);
        if (m.Dark)
            (dark, anyDark) = (dark + stepH, true);
        (Ac, acNow) = Ac.With(m.DarkAc, acNow, stepH);
        (Dc, dcNow) = Dc.With(m.DarkDc, dcNow, stepH);
        refused += m.ClippedW * stepH;
        outWh += m.OutW * stepH;
        if (m.Generator)
            generator += stepH;
        for (var n = 0; n < given.Length; n++)
        {
            given[n] += m.Given[n] * stepH;
            sumW[n] += m.Given[n];
        }
        net += m.NetW;
        sumV += m.Volts;
        for (var i = 0; i < strings; i++)
            sumA[i] += m.Amps[i];
        var ofDay = m.Step % perDay;
        if ((ofDay + 1) % perQuarter == 0)
        {
            var q = Math.Min(Quarters - 1, ofDay / perQuarter);
            // What is drawn needs no more digits, and a year has many quarters.
            (soc[q], watts[q], isDark[q], volts[q]) = (
                Math.Round(m.Soc, 4),
                Math.Round(net / perQuarter),
                anyDark,
                Math.Round(sumV / perQuarter, 2)
            );
            for (var i = 0; i < strings; i++)
                (amps[i][q], sumA[i]) = (Math.Round(sumA[i] / perQuarter, 1), 0);
            for (var n = 0; n < sumW.Length; n++)
                (sourceW[n][q], sumW[n]) = (Math.Round(sumW[n] / perQuarter), 0);
            (net, sumV, anyDark) = (0, 0, false);
        }
        if (ofDay == perDay - 1)
            EndDay();
    }

    private void EndDay()
    {
        days.Add(new(lowest, dark, refused, given, outWh, generator));
        quarters.Add(new(soc, watts, isDark, volts, amps, sourceW));
        (lowest, dark, refused, outWh, generator) = (double.PositiveInfinity, 0, 0, 0, 0);
        given = new double[given.Length];
        (soc, watts, volts, isDark, amps, sourceW) = (
            new double[Quarters],
            new double[Quarters],
            new double[Quarters],
            new bool[Quarters],
            Empty(strings),
            Empty(given.Length)
        );
    }
}

using InkyBadger.Core.Design;

namespace InkyBadger.Core.Demand;

/// <summary>House rule on starts: one motor at a time on top of what runs, or all of them together.</summary>
public enum SurgeRule
{
    OneAtATime,
    AllAtOnce,
}

/// <summary>A half-open stretch of the day in hours, 0 ≤ start &lt; 24, 0 ≤ end ≤ 24; an end before the start wraps midnight.</summary>
public readonly record struct DayWindow(double StartH, double EndH)
{
    public double Hours => EndH > StartH ? EndH - StartH : 24 - StartH + EndH;

    public bool Holds(double hour) => EndH > StartH ? hour >= StartH && hour < EndH : hour >= StartH || hour < EndH;

    /// <summary>Hours of this window that lie in [from, to) of the day, from &lt; to.</summary>
    public double HoursWithin(double from, double to) =>
        EndH > StartH ? Overlap(StartH, EndH, from, to) : Overlap(StartH, 24, from, to) + Overlap(0, EndH, from, to);

    private static double Overlap(double a, double b, double from, double to) => Math.Max(0, Math.Min(b, to) - Math.Max(a, from));
}

/// <summary>
/// One line of the load list. <paramref name="Watts"/> is one unit running at its own input [W, ≥ 0],
/// <paramref name="Duty"/> the share of its on-time it really draws (energy only, never peaks),
/// <paramref name="SurgeWatts"/> one unit at start [W]. Either windows or hours a day, never both.
/// </summary>
public sealed record DailyLoad(
    LoadKind Kind,
    double Watts,
    int Quantity = 1,
    double Duty = 1,
    IReadOnlyList<DayWindow>? Windows = null,
    double? Hours = null,
    double SurgeWatts = 0
)
{
    public double HoursOn => Windows is null ? Hours ?? 0 : Windows.Sum(w => w.Hours);

    /// <summary>A load of quantity 0 or of no hours is never on.</summary>
    public bool EverOn => Quantity > 0 && HoursOn > 0;

    /// <summary>A load given by hours has no fixed time and counts as on at every instant.</summary>
    public bool OnAt(double hour)
    {
        if (Quantity == 0)
            return false;
        if (Windows is null)
            return Hours > 0;
        foreach (var window in Windows)
            if (window.Holds(hour))
                return true;
        return false;
    }

    public double RunningW => Quantity * Watts;

    /// <summary>What the start of one unit adds above its running watts [W]; 0 when it has none.</summary>
    public double StartExtraW => Math.Max(0, SurgeWatts - Watts);
}

/// <summary>Inputs of a day's demand. Efficiencies are fractions, idle draw is at the inverter's DC side [W].</summary>
public sealed record DailyDemandInput(
    IReadOnlyList<DailyLoad> Loads,
    double NominalV,
    double? InverterEfficiency = null,
    double? ConverterEfficiency = null,
    double InverterIdleW = 0,
    double? InverterOnH = null,
    SurgeRule SurgeRule = SurgeRule.OneAtATime
);

/// <summary>A day's demand: energies in Wh at the place named, powers in W, charge in Ah at nominal volts.</summary>
public sealed record DailyDemandResult(
    double EnergyAcWh,
    double EnergyBankWh,
    double AhPerDay,
    double InverterOnH,
    bool InverterOnRaised,
    double PeakAcW,
    double PeakDcW,
    double SurgeDemandW
);

/// <summary>Energy, ampere-hours and peaks of a day's loads (method, 1.1).</summary>
public static class DailyDemand
{
    /// <exception cref="Refusal">Names the offending input.</exception>
    public static DailyDemandResult Work(DailyDemandInput input)
    {
        Check(input);
        double acWh = 0,
            dcWh = 0,
            converterWh = 0;
        foreach (var load in input.Loads)
        {
            var wh = load.RunningW * load.Duty * load.HoursOn;
            if (load.Kind == LoadKind.Ac)
                acWh += wh;
            else if (load.Kind == LoadKind.Dc)
                dcWh += wh;
            else
                converterWh += wh;
        }
        var needed = HoursNeeded(input.Loads);
        var onH = Math.Max(input.InverterOnH ?? 0, needed);
        var bankWh =
            (acWh > 0 ? acWh / input.InverterEfficiency!.Value : 0)
            + input.InverterIdleW * onH
            + dcWh
            + (converterWh > 0 ? converterWh / input.ConverterEfficiency!.Value : 0);

        double peakAc = 0,
            peakDc = 0,
            surge = 0;
        foreach (var s in DayProfile.Work(input.Loads, input.ConverterEfficiency ?? 1, input.SurgeRule))
        {
            peakAc = Math.Max(peakAc, s.AcW);
            peakDc = Math.Max(peakDc, s.DcW);
            surge = Math.Max(surge, s.SurgeW);
        }
        return new(
            acWh,
            bankWh,
            bankWh / input.NominalV,
            onH,
            input.InverterOnH is { } wanted && Tolerant.Exceeds(needed, wanted),
            peakAc,
            peakDc,
            surge
        );
    }

    /// <summary>
    /// Hours the inverter must be on: the union of the AC loads' windows, or the longest load given by hours, whichever is more.
    /// </summary>
    public static double HoursNeeded(IReadOnlyList<DailyLoad> loads)
    {
        double longest = 0;
        List<DayWindow>? windows = null;
        foreach (var load in loads)
        {
            if (load.Kind != LoadKind.Ac || !load.EverOn)
                continue;
            if (load.Windows is null)
                longest = Math.Max(longest, load.Hours ?? 0);
            else
                (windows ??= []).AddRange(load.Windows);
        }
        return windows is null ? longest : Math.Max(longest, UnionHours(windows));
    }

    private static double UnionHours(List<DayWindow> windows)
    {
        var parts = new List<(double From, double To)>(windows.Count + 2);
        foreach (var w in windows)
        {
            if (w.EndH > w.StartH)
            {
                parts.Add((w.StartH, w.EndH));
                continue;
            }
            parts.Add((w.StartH, 24));
            if (w.EndH > 0)
                parts.Add((0, w.EndH));
        }
        parts.Sort();
        double total = 0,
            reached = 0;
        foreach (var (from, to) in parts)
        {
            total += Math.Max(0, to - Math.Max(from, reached));
            reached = Math.Max(reached, to);
        }
        return total;
    }

    private static void Check(DailyDemandInput input)
    {
        if (input.Loads.Count == 0)
            Require.Refuse("loads", "needs at least one load");
        foreach (var load in input.Loads)
            Check(load);
        Require.Above(input.NominalV, 0);
        if (input.InverterEfficiency is { } inverterEfficiency)
            Require.Share(inverterEfficiency);
        else if (input.Loads.Any(l => l.Kind == LoadKind.Ac))
            Require.Refuse("inverterEfficiency", "is required with an AC load");
        if (input.ConverterEfficiency is { } converterEfficiency)
            Require.Share(converterEfficiency);
        else if (input.Loads.Any(l => l.Kind == LoadKind.Converter))
            Require.Refuse("converterEfficiency", "is required with a load on a converter");
        Require.AtLeast(input.InverterIdleW, 0);
        if (input.InverterOnH is { } inverterOnH)
            Require.Within(inverterOnH, 0, 24);
        else if (input.InverterIdleW > 0)
            Require.Refuse("inverterOnH", "is required with an idle draw");
    }

    private static void Check(DailyLoad load)
    {
        Require.AtLeast(load.Quantity, 0);
        Require.AtLeast(load.Watts, 0);
        Require.Within(load.Duty, 0, 1);
        Require.AtLeast(load.SurgeWatts, 0);
        if (load.Windows is null == load.Hours is null)
            Require.Refuse("hours", "give either windows or hours a day, not both and not neither");
        if (load.Hours is { } hours)
            Require.Within(hours, 0, 24);
        if (load.Windows is { } windows)
            CheckWindows(windows);
    }

    /// <summary>Refuses, by the name <c>windows</c>, windows outside the day, of no length, or that overlap.</summary>
    public static void CheckWindows(IReadOnlyList<DayWindow> windows)
    {
        if (windows.Count == 0)
            Require.Refuse("windows", "needs at least one window");
        double sum = 0;
        foreach (var (startH, endH) in windows)
        {
            if (!(startH >= 0 && startH < 24 && endH >= 0 && endH <= 24))
                Require.Refuse("windows", "start from 0 to below 24 h, end from 0 to 24 h");
            if (endH == startH)
                Require.Refuse("windows", "a window that ends when it starts has no length");
        }
        foreach (var window in windows)
            sum += window.Hours;
        if (windows.Count > 1 && sum - UnionHours([.. windows]) > Tolerant.Noise)
            Require.Refuse("windows", "windows of one load must not overlap");
    }
}

using InkyBadger.Core.Reference;

namespace InkyBadger.Core.Banks;

/// <summary>What can ask for the most strings; on a tie the first is named.</summary>
public enum BankDemand
{
    Energy,
    CRate,
    Bms,
}

/// <summary>
/// Inputs of the bank's size. Energy wanted is <see cref="DailyWh"/>·<see cref="Days"/>, or <see cref="LoadW"/>·<see cref="Hours"/> at the
/// bank's terminals. Factors and depth are fractions (0 to 1]. <see cref="PeukertExponent"/> and <see cref="RatedHours"/> are for lead-acid
/// only.
/// </summary>
public sealed record BankSizeInput
{
    public double? DailyWh { get; init; }
    public double? Days { get; init; }
    public double? LoadW { get; init; }
    public double? Hours { get; init; }
    public required double Dod { get; init; }
    public double AgeFactor { get; init; } = 1;
    public double TempFactor { get; init; } = 1;
    public required double NominalV { get; init; }
    public required double ContinuousDcA { get; init; }
    public double? WorstDcA { get; init; }
    public double? MaxCRate { get; init; }
    public required double UnitAh { get; init; }
    public double? UnitContinuousA { get; init; }
    public required int CellsPerSystem { get; init; }
    public required int CellsPerUnit { get; init; }
    public double? PeukertExponent { get; init; }
    public double? RatedHours { get; init; }
    public double? MeanCurrentA { get; init; }
}

/// <summary>Series, strings and units, the three demands in ampere-hours and whole strings, and the one that governs.</summary>
public sealed record BankSizeResult(
    double EnergyWantedWh,
    double RatedWh,
    double AhEnergy,
    double? AhRate,
    int Series,
    int Parallel,
    int Units,
    BankDemand Governs,
    int ParallelByEnergy,
    int? ParallelByCRate,
    int? ParallelByBms
);

/// <summary>Units the demand asks for: the larger of energy, C-rate and BMS, never a product of them (method, 4.1).</summary>
public static class BankSize
{
    /// <exception cref="Refusal">Names the offending input; <c>cellsPerUnit</c> when the units cannot make the voltage.</exception>
    public static BankSizeResult Work(BankSizeInput input)
    {
        var wanted = EnergyWanted(input);
        Require.Share(input.Dod);
        Require.Share(input.AgeFactor);
        Require.Share(input.TempFactor);
        Require.Above(input.NominalV, 0);
        Require.AtLeast(input.ContinuousDcA, 0);
        Require.Above(input.UnitAh, 0);
        Require.AtLeast(input.CellsPerSystem, 1);
        Require.AtLeast(input.CellsPerUnit, 1);
        if (input.CellsPerSystem % input.CellsPerUnit != 0)
            Require.Refuse("cellsPerUnit", $"{input.CellsPerSystem} cells cannot be had from units of {input.CellsPerUnit}");
        var worst = input.WorstDcA ?? input.ContinuousDcA;
        Require.AtLeast(worst, 0, nameof(input.WorstDcA));

        var rated = wanted / (input.Dod * input.AgeFactor * input.TempFactor);
        var ahEnergy = rated / input.NominalV;
        var byEnergy = StringsByEnergy(input, ahEnergy);
        double? ahRate = null;
        int? byRate = null,
            byBms = null;
        if (input.MaxCRate is { } maxCRate)
        {
            Require.Above(maxCRate, 0);
            ahRate = input.ContinuousDcA / maxCRate;
            byRate = Tolerant.RoundUp(ahRate.Value / input.UnitAh);
        }
        if (input.UnitContinuousA is { } unitContinuousA)
        {
            Require.Above(unitContinuousA, 0);
            byBms = Tolerant.RoundUp(worst / unitContinuousA);
        }
        var parallel = Math.Max(byEnergy, Math.Max(byRate ?? 1, byBms ?? 1));
        var governs =
            byEnergy == parallel ? BankDemand.Energy
            : byRate == parallel ? BankDemand.CRate
            : BankDemand.Bms;
        var series = input.CellsPerSystem / input.CellsPerUnit;
        return new(wanted, rated, ahEnergy, ahRate, series, parallel, series * parallel, governs, byEnergy, byRate, byBms);
    }

    /// <summary>
    /// Whether strings of so many ampere-hours together, of whatever units, meet the energy and the C-rate that are asked.
    /// </summary>
    public static bool Holds(BankSizeInput input, double ah)
    {
        var wanted = Work(input);
        var mean = input.LoadW / input.NominalV ?? input.MeanCurrentA ?? 0;
        var energy = input is { PeukertExponent: { } k, RatedHours: { } hours } && mean > 0 ? Shrunk(ah, mean, hours, k) : ah;
        return Tolerant.AtLeast(energy, wanted.AhEnergy) && (wanted.AhRate is not { } rate || Tolerant.AtLeast(ah, rate));
    }

    /// <summary>What is left of a capacity at a mean current above its rated one.</summary>
    private static double Shrunk(double ah, double meanA, double ratedHours, double k) =>
        ah * Math.Min(1, Math.Pow(ah / (meanA * ratedHours), k - 1));

    private static double EnergyWanted(BankSizeInput input)
    {
        if (input.LoadW is { } loadW)
        {
            if (input.DailyWh is not null)
                Require.Refuse("loadW", "give a day's energy or a load, not both");
            Require.Above(loadW, 0);
            var hours = Require.Given(input.Hours);
            Require.Above(hours, 0);
            return loadW * hours;
        }
        var dailyWh = Require.Given(input.DailyWh);
        var days = Require.Given(input.Days);
        Require.Above(dailyWh, 0);
        Require.Above(days, 0);
        return dailyWh * days;
    }

    /// <summary>
    /// Least whole strings whose ampere-hours meet the energy. With Peukert the capacity shrinks at the mean current, so a
    /// larger bank gains twice: C·min(1, (C/(I·H))^(k−1)) ≥ Ah, C = P·Ah_unit.
    /// </summary>
    private static int StringsByEnergy(BankSizeInput input, double ahEnergy)
    {
        if (input.PeukertExponent is null && input.RatedHours is null)
            return Tolerant.RoundUp(ahEnergy / input.UnitAh);
        var k = Require.Given(input.PeukertExponent);
        Require.AtLeast(k, 1, nameof(input.PeukertExponent));
        var ratedHours = Require.Given(input.RatedHours);
        Require.Above(ratedHours, 0);
        var mean = input.LoadW / input.NominalV ?? Require.Given(input.MeanCurrentA);
        Require.Above(mean, 0, nameof(input.MeanCurrentA));

        bool Meets(int p) => Tolerant.AtLeast(Shrunk(p * input.UnitAh, mean, ratedHours, k), ahEnergy);
        // The inverse gives the neighbourhood; the comparison itself decides.
        var shrunk = Math.Pow(ahEnergy * Math.Pow(mean * ratedHours, k - 1), 1 / k);
        var p = Tolerant.RoundUp(Math.Max(ahEnergy, shrunk) / input.UnitAh);
        while (p > 1 && Meets(p - 1))
            p--;
        while (p < int.MaxValue && !Meets(p))
            p++;
        return p;
    }
}

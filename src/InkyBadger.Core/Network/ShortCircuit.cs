using InkyBadger.Core.Reference;

namespace InkyBadger.Core.Network;

/// <summary>Open-circuit volts, resistances [Ω] and the prospective short-circuit current [A]; 0 A when nothing feeds the fault.</summary>
public sealed record ShortCircuitResult(double OpenV, double? BankOhm, double PathOhm, double ShortCircuitA);

/// <summary>
/// Prospective short-circuit current (method, 5.4). It ignores that a BMS may open: the fuse must be able to clear what the cells can
/// drive.
/// </summary>
public static class ShortCircuit
{
    /// <param name="network">With the resistances that give the greater fault.</param>
    /// <param name="cellsInSeries">Cells between the poles, ≥ 1.</param>
    /// <param name="cellOpenV">The higher of rest-full and absorption voltage of a cell [V, &gt; 0].</param>
    /// <param name="pathOhm">To the point and back at 20 °C [Ω, ≥ 0].</param>
    /// <param name="atString">A fault inside this string (from 1): what the others drive into its ends. Null: beyond the take-offs.</param>
    public static ShortCircuitResult Work(
        BankNetwork network,
        int cellsInSeries,
        double cellOpenV,
        double pathOhm = 0,
        int? atString = null
    )
    {
        Require.AtLeast(cellsInSeries, 1);
        Require.Above(cellOpenV, 0);
        Require.AtLeast(pathOhm, 0);
        var open = cellsInSeries * cellOpenV;
        var bank = atString is { } at ? network.OhmAtString(at) : network.SourceOhm();
        return new(open, bank, pathOhm, bank is { } ohm ? open / (ohm + pathOhm) : 0);
    }

    /// <summary>Out and back at 20 °C over a cable of this length one way [m, &gt; 0] [Ω].</summary>
    public static double PathOhm(string pathSize, double pathLengthM, int pathConductors)
    {
        if (Conductors.Find(pathSize) is not { } conductor)
            throw new Refusal(nameof(pathSize), "is not a size of the conductor table");
        return PathOhm(conductor, pathLengthM, pathConductors);
    }

    /// <inheritdoc cref="PathOhm(string, double, int)"/>
    public static double PathOhm(Conductor conductor, double pathLengthM, int pathConductors)
    {
        Require.Above(pathLengthM, 0);
        Require.AtLeast(pathConductors, 1);
        return 2 * conductor.R20MilliohmPerM / 1000 * pathLengthM / pathConductors;
    }

    /// <summary>
    /// Assumed resistance of a unit whose data sheet is silent [Ω]: cells·k/Ah, and 1 mΩ for the switches of a BMS. Typical values.
    /// </summary>
    public static double AssumedUnitOhm(Chemistry chemistry, int cells, double ah, bool hasBms) =>
        cells * chemistry.ResistanceK / ah + (hasBms ? 0.001 : 0);
}

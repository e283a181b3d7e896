using InkyBadger.Core.Reference;

namespace InkyBadger.Core.Rehearsal;

/// <summary>The rest volts of a string over its charge, and how steeply they rise, without a search each time.</summary>
internal sealed class RehearsalTable
{
    private readonly double[] at,
        volts,
        slope;

    public RehearsalTable(Chemistry chemistry, int cells)
    {
        var points = RestVoltage.Get(chemistry.Id);
        at = [.. points.Select(p => p.Soc)];
        volts = [.. points.Select(p => cells * p.CellV)];
        slope = new double[at.Length];
        for (var i = 1; i < at.Length; i++)
            slope[i] = (volts[i] - volts[i - 1]) / (at[i] - at[i - 1]);
    }

    /// <summary>Of a full string at rest [V].</summary>
    public double FullV => volts[^1];

    /// <summary>Rest volts [V] and volts for each unit of charge there; a point belongs to the stretch below it.</summary>
    public (double Volts, double Slope) At(double soc)
    {
        if (soc <= at[0])
            return (volts[0], 0);
        // The points lie evenly enough that a guess is at most a few off.
        var i = Math.Clamp((int)(soc * (at.Length - 1)), 1, at.Length - 1);
        while (i > 1 && soc <= at[i - 1])
            i--;
        while (i < at.Length - 1 && soc > at[i])
            i++;
        return (volts[i - 1] + slope[i] * (soc - at[i - 1]), slope[i]);
    }
}

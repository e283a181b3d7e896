using InkyBadger.Core.Reference;

namespace InkyBadger.Core.Wiring;

/// <summary>Which end of a device's window the bus leaves.</summary>
public enum WindowFailure
{
    Low,
    High,
}

/// <summary>The bus's least and greatest volts at the device, and what fails.</summary>
public sealed record DeviceWindowResult(double LeastV, double GreatestChargingV, bool Fits, IReadOnlyList<WindowFailure> Fails);

/// <summary>
/// A DC device on a bus: it must bear the lowest volts under load and the highest in charging, not the nominal ones (method, 10.2).
/// </summary>
public static class DeviceWindow
{
    /// <param name="deviceMinV">Least volts it accepts [V, &gt; 0].</param>
    /// <param name="deviceMaxV">Greatest volts it accepts [V, ≥ the least].</param>
    /// <param name="greatestChargingV">Of the bank [V, &gt; 0]; see <see cref="Fuse.GreatestChargingV"/>.</param>
    /// <param name="branchDropV">Lost on its branch [V, ≥ 0].</param>
    public static DeviceWindowResult Work(
        double deviceMinV,
        double deviceMaxV,
        Chemistry chemistry,
        int cellsInSeries,
        double greatestChargingV,
        double branchDropV = 0
    )
    {
        Require.Above(deviceMinV, 0);
        Require.Above(deviceMaxV, 0);
        if (deviceMaxV < deviceMinV)
            Require.Refuse(nameof(deviceMaxV), "must not be below the least volts");
        Require.AtLeast(cellsInSeries, 1);
        Require.Above(greatestChargingV, 0);
        Require.AtLeast(branchDropV, 0);
        var least = cellsInSeries * chemistry.CellLowUnderLoadV - branchDropV;
        var fails = new List<WindowFailure>(2);
        if (!Tolerant.AtLeast(least, deviceMinV))
            fails.Add(WindowFailure.Low);
        if (!Tolerant.AtLeast(deviceMaxV, greatestChargingV))
            fails.Add(WindowFailure.High);
        return new(least, greatestChargingV, fails.Count == 0, fails);
    }
}

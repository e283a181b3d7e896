using InkyBadger.Core.Reference;

namespace InkyBadger.Core.Charging;

/// <summary>
/// What a bank's devices are set to, all of the whole bank: charger volts [V], compensation [mV/K], tail current [A], minutes, the cell
/// temperatures charging stops at [°C], the inverter's volts [V] and the monitor's figures.
/// </summary>
public sealed record ChargeSettingsResult(
    double AbsorbV,
    double FloatV,
    double? EqualiseV,
    double TopV,
    double TempCompMvPerK,
    double TailA,
    int AbsorbMinutesMost,
    double ChargeStopBelowC,
    double ChargeStopAboveC,
    double RebulkV,
    double InverterCutOffV,
    double InverterAlarmV,
    double InverterRestartV,
    double MonitorCapacityAh,
    double MonitorChargedV,
    double MonitorTailFraction,
    double MonitorPeukert,
    double MonitorChargeEfficiency,
    double MonitorFloorSoc
);

/// <summary>The settings card of a bank (method, 9.6): typical values; the maker's go before them.</summary>
public static class ChargeSettings
{
    private const double AlarmOverCutOff = 1.04,
        RestartAboveFloor = 0.2;

    /// <param name="ah">Of the bank [Ah, &gt; 0].</param>
    /// <param name="cellAbsorbV">The maker's (0 to the cell's top] [V]; null: the chemistry's.</param>
    /// <param name="cellFloatV">The maker's (0 to absorption] [V]; null: the chemistry's, not above absorption.</param>
    /// <param name="floorSoc">[0 to 1); null: what the typical depth of discharge leaves.</param>
    /// <param name="peukertExponent">[1 to 2]; null: the chemistry's.</param>
    /// <exception cref="Refusal">Names the offending input.</exception>
    public static ChargeSettingsResult Work(
        Chemistry chemistry,
        int cellsInSeries,
        double ah,
        double? cellAbsorbV = null,
        double? cellFloatV = null,
        double? floorSoc = null,
        double? peukertExponent = null
    )
    {
        Require.AtLeast(cellsInSeries, 1);
        Require.Above(ah, 0);
        var (absorb, floating) = CellVolts(chemistry, cellAbsorbV, cellFloatV);
        var floor = floorSoc ?? 1 - chemistry.DodTypical;
        if (!(floor >= 0 && floor < 1))
            Require.Refuse(nameof(floorSoc), "must be from 0 to below 1");
        var peukert = peukertExponent ?? chemistry.PeukertExponent;
        Require.Within(peukert, 1, 2, nameof(peukertExponent));

        var habits = ChargeHabits.Of(chemistry);
        var cutOff = cellsInSeries * chemistry.CellLowUnderLoadV;
        return new(
            cellsInSeries * absorb,
            cellsInSeries * floating,
            cellsInSeries * chemistry.CellEqualiseV,
            cellsInSeries * chemistry.CellTopV,
            cellsInSeries * habits.CellTempCompMvPerK,
            habits.TailC * ah,
            habits.AbsorbMinutesMost,
            chemistry.MinChargeTempC,
            habits.ChargeStopAboveC,
            cellsInSeries * Math.Min(habits.CellRebulkV, floating),
            cutOff,
            AlarmOverCutOff * cutOff,
            // An emptied bank springs back as soon as the load is gone: it may only start again well above its floor.
            cellsInSeries * RestVoltage.CellV(chemistry.Id, Math.Min(1, floor + RestartAboveFloor)),
            ah,
            cellsInSeries * (absorb - habits.CellChargedBelowV),
            habits.MonitorTailC,
            peukert,
            habits.ChargeEfficiency,
            floor
        );
    }

    /// <summary>Absorption and float of a cell [V]: the maker's where they are told, within what a cell bears.</summary>
    internal static (double AbsorbV, double FloatV) CellVolts(Chemistry chemistry, double? cellAbsorbV, double? cellFloatV)
    {
        var absorb = cellAbsorbV ?? chemistry.CellAbsorbV;
        if (!(absorb > 0) || Tolerant.Exceeds(absorb, chemistry.CellTopV))
            Require.Refuse(nameof(cellAbsorbV), $"must be above 0 and at most {chemistry.CellTopV} V");
        var floating = cellFloatV ?? Math.Min(chemistry.CellFloatV, absorb);
        if (!(floating > 0) || Tolerant.Exceeds(floating, absorb))
            Require.Refuse(nameof(cellFloatV), "must be above 0 and at most absorption");
        return (absorb, floating);
    }
}

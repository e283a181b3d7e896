using InkyBadger.Core.Reference;

namespace InkyBadger.Core.Charging;

/// <summary>What holds the charging current down at a moment; ties to the first.</summary>
public enum AcceptLimit
{
    Cold,
    Full,
    Sources,
    CRate,
    Units,
    Voltage,
    Acceptance,
}

/// <summary>Amperes taken [A], what holds them there, rest volts and volts at the bank's terminals [V].</summary>
public readonly record struct ChargeAcceptResult(double ChargeA, AcceptLimit LimitedBy, double EmfV, double TerminalV);

/// <summary>A bank that is charged: ampere-hours [Ah], and what its units and its chemistry let in.</summary>
/// <param name="MaxChargeCRate">[1/h, &gt; 0]; null: the chemistry's.</param>
/// <param name="UnitLimitA">[A, &gt; 0] a string; null: no such limit.</param>
public sealed record ChargedBank(
    Chemistry Chemistry,
    int CellsInSeries,
    double Ah,
    double? MaxChargeCRate = null,
    double? UnitLimitA = null,
    int Parallel = 1
)
{
    /// <exception cref="Refusal">Names the offending input.</exception>
    public void Check()
    {
        Require.AtLeast(CellsInSeries, 1);
        Require.Above(Ah, 0);
        if (MaxChargeCRate is { } rate)
            Require.Above(rate, 0, nameof(MaxChargeCRate));
        if (UnitLimitA is { } unit)
            Require.Above(unit, 0, "unitChargeLimitA");
        Require.AtLeast(Parallel, 1);
    }

    public double CRateA => (MaxChargeCRate ?? Chemistry.MaxChargeCRate) * Ah;

    /// <summary>Infinite where the units set no limit.</summary>
    public double UnitsA => UnitLimitA * Parallel ?? double.PositiveInfinity;
}

/// <summary>Amperes a bank takes now (method, 9.5).</summary>
public static class ChargeAccept
{
    /// <param name="soc">[0 to 1].</param>
    /// <param name="sourceA">[A, ≥ 0].</param>
    /// <param name="setV">The source's set voltage at the bank's terminals [V, &gt; 0].</param>
    /// <param name="bankOhm">[Ω, &gt; 0].</param>
    /// <param name="cellC">[°C, −60 to 100]; null: not cold.</param>
    /// <exception cref="Refusal">Names the offending input.</exception>
    public static ChargeAcceptResult Work(ChargedBank bank, double soc, double sourceA, double setV, double bankOhm, double? cellC = null)
    {
        bank.Check();
        Require.Within(soc, 0, 1);
        Require.AtLeast(sourceA, 0);
        Require.Above(setV, 0);
        Require.Above(bankOhm, 0);
        if (cellC is { } told)
            Require.Within(told, -60, 100, nameof(cellC));

        var emf = bank.CellsInSeries * RestVoltage.CellV(bank.Chemistry.Id, soc);
        var (amps, limit) = (double.PositiveInfinity, AcceptLimit.Cold);
        void Hold(AcceptLimit by, double most)
        {
            if (double.IsPositiveInfinity(amps) ? !double.IsPositiveInfinity(most) : Tolerant.Exceeds(amps, most))
                (amps, limit) = (most, by);
        }
        if (cellC < bank.Chemistry.MinChargeTempC)
            Hold(AcceptLimit.Cold, 0);
        if (soc >= 1)
            Hold(AcceptLimit.Full, 0);
        Hold(AcceptLimit.Sources, sourceA);
        Hold(AcceptLimit.CRate, bank.CRateA);
        Hold(AcceptLimit.Units, bank.UnitsA);
        Hold(AcceptLimit.Voltage, Math.Max(0, (setV - emf) / bankOhm));
        Hold(AcceptLimit.Acceptance, Acceptance(bank, soc));
        return new(amps, limit, emf, emf + amps * bankOhm);
    }

    /// <summary>What the cells themselves take [A]: lead-acid above four fifths ever less, lithium all the way.</summary>
    private static double Acceptance(ChargedBank bank, double soc)
    {
        var most = Math.Min(bank.CRateA, bank.UnitsA);
        var end = ChargeTime.EndCurrentShare * bank.Ah;
        if (bank.Chemistry.IsLithium || soc <= ChargeTime.AbsorbFrom || most <= end)
            return most;
        return most - (most - end) * (soc - ChargeTime.AbsorbFrom) / (1 - ChargeTime.AbsorbFrom);
    }
}

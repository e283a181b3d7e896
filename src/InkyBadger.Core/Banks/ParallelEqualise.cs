using InkyBadger.Core.Reference;

namespace InkyBadger.Core.Banks;

/// <summary>
/// A unit or string about to be joined: rest volts [V, &gt; 0], resistance [Ω, ≥ 0], capacity [Ah, &gt; 0], state of charge or null: read
/// from the volts.
/// </summary>
public readonly record struct EqualiseUnit(double VoltageV, double ResistanceOhm, double Ah, double? Soc = null);

/// <summary>The first rush of current [A], and the charge that moves [Ah]; null where the state of charge cannot be read.</summary>
public readonly record struct ParallelEqualiseResult(double InitialA, bool SocKnown, double? ChargeAh);

/// <summary>Two units joined in parallel (method, 4.5).</summary>
public static class ParallelEqualise
{
    /// <param name="linksOhm">Both links together [Ω, ≥ 0].</param>
    /// <param name="chemistry">Needed when a state of charge is to be read.</param>
    /// <param name="cellsInSeries">Needed with it.</param>
    /// <exception cref="Refusal">Names the offending input.</exception>
    public static ParallelEqualiseResult Work(
        EqualiseUnit a,
        EqualiseUnit b,
        double linksOhm = 0,
        string? chemistry = null,
        int? cellsInSeries = null
    )
    {
        foreach (var (voltageV, resistanceOhm, ah, soc) in new[] { a, b })
        {
            Require.Above(voltageV, 0);
            Require.AtLeast(resistanceOhm, 0);
            Require.Above(ah, 0);
            if (soc is { } given)
                Require.Within(given, 0, 1, nameof(soc));
        }
        Require.AtLeast(linksOhm, 0);
        var loop = a.ResistanceOhm + b.ResistanceOhm + linksOhm;
        if (loop <= 0)
            Require.Refuse("resistanceOhm", "not all three resistances can be 0");
        var known = true;
        double Soc(EqualiseUnit unit)
        {
            if (unit.Soc is { } given)
                return given;
            var cells = cellsInSeries ?? throw new Refusal("cellsInSeries", "is required to read the state of charge");
            Require.AtLeast(cells, 1, nameof(cellsInSeries));
            var kind = chemistry ?? throw new Refusal("chemistry", "is required to read the state of charge");
            var read = RestVoltage.SocAt(kind, unit.VoltageV / cells);
            known &= RestVoltage.CanBeRead(kind, read);
            return read;
        }
        var difference = Math.Abs(Soc(a) - Soc(b));
        return new(Math.Abs(a.VoltageV - b.VoltageV) / loop, known, known ? difference * a.Ah * b.Ah / (a.Ah + b.Ah) : null);
    }
}

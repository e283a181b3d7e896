using InkyBadger.Core.Reference;

namespace InkyBadger.Core.Banks;

/// <summary>
/// A unit or string that is joined to another: capacity [Ah, &gt; 0], resistance [Ω, ≥ 0], and its state of charge [0 to 1] or the rest
/// volts it is read from [V, &gt; 0].
/// </summary>
public readonly record struct SettlingUnit(double Ah, double ResistanceOhm, double? Soc = null, double? VoltageV = null);

/// <summary>
/// The first current [A] by the table's volts, whether the charge was known, hours until next to nothing flows and what has moved by then
/// [h, Ah], the charge both come to, and whether that lies where nothing tells it. All null where the charge could not be read.
/// </summary>
public readonly record struct SettleResult(double? InitialA, bool SocKnown, double? Hours, double? MovedAh, double? SocEnd, bool? Doubtful);

/// <summary>Two units joined until they are level (method, 12.6): exact within each straight piece of the rest-voltage table.</summary>
public static class Settle
{
    /// <summary>Of the smaller one's ampere-hours: below it nothing worth waiting for flows.</summary>
    private const double EndShare = 0.01;

    /// <param name="linksOhm">Both links together [Ω, ≥ 0].</param>
    /// <param name="endA">[A, &gt; 0]; null: a hundredth of the smaller unit's ampere-hours.</param>
    /// <exception cref="Refusal">Names the offending input.</exception>
    public static SettleResult Work(
        SettlingUnit a,
        SettlingUnit b,
        string chemistry,
        int cellsInSeries,
        double linksOhm = 0,
        double? endA = null
    )
    {
        Chemistries.Get(chemistry);
        Require.AtLeast(cellsInSeries, 1);
        Require.AtLeast(linksOhm, 0);
        var known = true;
        double SocOf(SettlingUnit unit)
        {
            var (ah, resistanceOhm, soc, voltageV) = unit;
            Require.Above(ah, 0);
            Require.AtLeast(resistanceOhm, 0);
            if (soc is { } given)
            {
                if (voltageV is not null)
                    Require.Refuse(nameof(voltageV), "state of charge or volts, not both");
                Require.Within(given, 0, 1, nameof(soc));
                return given;
            }
            if (voltageV is not { } volts)
                throw new Refusal(nameof(soc), "is required, or rest volts in its place");
            Require.Above(volts, 0, nameof(voltageV));
            var read = RestVoltage.SocAt(chemistry, volts / cellsInSeries);
            known &= RestVoltage.CanBeRead(chemistry, read);
            return read;
        }
        var (first, second) = (SocOf(a), SocOf(b));
        var ohm = a.ResistanceOhm + b.ResistanceOhm + linksOhm;
        if (ohm <= 0)
            Require.Refuse("resistanceOhm", "not all three resistances can be 0");
        var end = endA ?? EndShare * Math.Min(a.Ah, b.Ah);
        Require.Above(end, 0, nameof(endA));
        if (!known)
            return new(null, false, null, null, null, null);
        var (high, low) = first >= second ? (a.Ah, b.Ah) : (b.Ah, a.Ah);
        var (from, to) = (Math.Max(first, second), Math.Min(first, second));
        var level = (a.Ah * first + b.Ah * second) / (a.Ah + b.Ah);
        double Emf(double soc) => cellsInSeries * RestVoltage.CellV(chemistry, soc);
        var initial = (Emf(from) - Emf(to)) / ohm;
        var (hours, moved) = Flow(new(chemistry, cellsInSeries, ohm, high, low, end), from, to, initial);
        return new(initial, true, hours, moved, level, !RestVoltage.CanBeRead(chemistry, level));
    }

    private readonly record struct Loop(string Chemistry, int Cells, double Ohm, double HighAh, double LowAh, double EndA);

    /// <summary>Piece by piece: within one the current falls exponentially.</summary>
    private static (double Hours, double MovedAh) Flow(Loop loop, double from, double to, double amps)
    {
        double hours = 0,
            moved = 0;
        while (amps > loop.EndA)
        {
            var (fallV, fallTo) = Piece(loop.Chemistry, from, down: true);
            var (riseV, riseTo) = Piece(loop.Chemistry, to, down: false);
            var steep = loop.Cells * (fallV / loop.HighAh + riseV / loop.LowAh) / loop.Ohm;
            // To the end of whichever piece ends first.
            var charge = Math.Min((from - fallTo) * loop.HighAh, (riseTo - to) * loop.LowAh);
            if (steep > 0 && amps - steep * charge <= loop.EndA)
            {
                charge = (amps - loop.EndA) / steep;
                return (hours + Math.Log(amps / loop.EndA) / steep, moved + charge);
            }
            if (!(charge > 0))
                return (hours, moved);
            var then = amps - steep * charge;
            hours += steep > 0 ? Math.Log(amps / then) / steep : charge / amps;
            moved += charge;
            amps = then;
            from -= charge / loop.HighAh;
            to += charge / loop.LowAh;
        }
        return (hours, moved);
    }

    /// <summary>Volts a cell for a whole charge on the piece that goes on from here, and where it ends.</summary>
    private static (double Slope, double EndsAt) Piece(string chemistry, double soc, bool down)
    {
        var points = RestVoltage.Get(chemistry);
        for (var i = 1; i < points.Count; i++)
        {
            var (a, b) = (points[i - 1], points[i]);
            var inside = down
                ? soc > a.Soc + Tolerant.Noise && soc <= b.Soc + Tolerant.Noise
                : soc >= a.Soc - Tolerant.Noise && soc < b.Soc - Tolerant.Noise;
            if (inside)
                return ((b.CellV - a.CellV) / (b.Soc - a.Soc), down ? a.Soc : b.Soc);
        }
        return (0, soc);
    }
}

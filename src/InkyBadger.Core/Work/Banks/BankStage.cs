using InkyBadger.Core.Banks;
using InkyBadger.Core.Design;
using InkyBadger.Core.Reference;

namespace InkyBadger.Core.Work;

/// <summary>The bank: unit, S and P as advised or pinned, what governs, and what they make together.</summary>
public static class BankStage
{
    public const int MostInSeries = 32,
        MostStrings = 32;

    public static Step<BankResult> Work(BankWork w)
    {
        var (a, pack, voltage) = (w.Arrangement.Need(), w.Pack.Need(), w.Voltage.Need());
        var (energy, currents, inverter, loads) = (w.Energy.Value, w.Currents.Value, w.Inverter.Value, w.Loads.Value);
        var unit = a.Unit;
        var chemistry = Chemistries.Get(unit.Chemistry);
        var autonomy = w.Rules.NumberOrNone("autonomy");
        var dod = BankNeed.Dod(w.Scene, unit.Chemistry);
        double nominalV = BankFigures.NominalV(a.Series, unit.Cells, chemistry.CellNominalV),
            ratedWh = BankFigures.RatedWh(nominalV, pack.Ah),
            usableWh = BankFigures.UsableWh(ratedWh, dod);
        var (atMean, atPeak) = Hours(unit, chemistry, pack.Ah, nominalV, usableWh, dod, energy, loads, inverter);
        // What the demand asks for, of energy and of rate the larger.
        var neededAh = a.Sizing is null ? (double?)null : Math.Max(a.Sizing.AhEnergy, a.Sizing.AhRate ?? 0);
        var usual = pack.UsualUnit;
        var result = new BankResult(
            unit,
            new(w.Document.Unit is not null, a.Advised?.Key, a.Advised?.Name),
            new(
                a.Series,
                a.Parallel,
                a.AdvisedSeries,
                a.AdvisedParallel,
                w.Document.Series is not null,
                w.Document.Parallel is not null,
                a.Series * a.Parallel,
                a.Series * unit.Cells
            ),
            new(
                a.Sizing,
                autonomy ?? 1,
                autonomy is null,
                dod,
                neededAh,
                neededAh is > 0 && currents?.RuleOfThumbAh is { } thumb ? thumb / neededAh - 1 : null
            ),
            new(nominalV, pack.Ah, ratedWh, usableWh),
            new(
                atMean,
                atPeak,
                autonomy is { } askedDays && energy is not null ? energy.AskedH * askedDays : null,
                currents is null or { IsOffer: true } ? null : currents.BankNominalA / pack.Ah,
                chemistry.IsLithium ? null : BankNeed.PeukertOf(unit, chemistry)
            ),
            pack.ContinuousA,
            pack.MassKg,
            pack.Price,
            usual.Ohm,
            usual.OhmAssumed
        );
        if (w.Tape is { } tape)
            BankWorking.Write(tape, w.Scene, result, pack.IsMixed, chemistry, energy, currents, voltage, loads, inverter);
        return result;
    }

    private static (double? AtMean, double? AtPeak) Hours(
        UnitItem unit,
        Chemistry chemistry,
        double ah,
        double nominalV,
        double usableWh,
        double dod,
        EnergyResult? energy,
        LoadsResult? loads,
        InverterResult? inverter
    )
    {
        double? HoursAt(double watts)
        {
            if (watts <= 0)
                return null;
            return chemistry.IsLithium ? usableWh / watts : HoursAtAmps(unit, chemistry, ah, watts / nominalV, dod);
        }
        return (
            energy is null ? null : HoursAt(energy.EnergyBankWh / energy.AskedH),
            loads is null ? null : HoursAt(PeakBankW(loads, inverter))
        );
    }

    /// <summary>How long a bank gives a current down to a depth of discharge [h] (method, 4.2); null at no current.</summary>
    internal static double? HoursAtAmps(BankResult bank, double amps, double depth) =>
        amps > 0 ? HoursAtAmps(bank.Unit, Chemistries.Get(bank.Unit.Chemistry), bank.Holds.Ah, amps, depth) : null;

    private static double HoursAtAmps(UnitItem unit, Chemistry chemistry, double ah, double amps, double depth) =>
        (chemistry.IsLithium ? ah : Peukert.At(ah, unit.RatedHours ?? 20, BankNeed.PeukertOf(unit, chemistry), amps).DeliveredAh)
        * depth
        / amps;

    /// <summary>
    /// DC watts at the bank with the most running at once; the AC and DC peaks may fall apart in time, so this is an upper bound.
    /// </summary>
    private static double PeakBankW(LoadsResult loads, InverterResult? inverter) =>
        loads.PeakDcW + (inverter is null ? 0 : loads.PeakAcW / inverter.Efficiency + inverter.IdleW);
}

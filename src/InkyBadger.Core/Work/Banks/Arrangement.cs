using InkyBadger.Core.Banks;
using InkyBadger.Core.Design;
using InkyBadger.Core.Reference;

namespace InkyBadger.Core.Work;

/// <summary>
/// What the bank is made of: the unit as pinned or advised, S and P, and what the demand asks of this unit (null: nothing is asked, or it
/// cannot make the voltage).
/// </summary>
public sealed record Arrangement(
    UnitItem Unit,
    UnitItem? Advised,
    int Series,
    int Parallel,
    int AdvisedSeries,
    int? AdvisedParallel,
    BankSizeResult? Sizing,
    BankSizeInput? Asked
)
{
    public static Step<Arrangement> Work(BankWork w)
    {
        var voltage = w.Voltage.Need();
        var (scene, bank) = (w.Scene, w.Document);
        var (energy, currents) = (w.Energy.Value, w.Currents.Value);
        var chemistry = Chemistries.Get(voltage.Chemistry);
        var wanted = energy is null ? 0 : BankNeed.Wanted(scene, energy);
        var start = new StartAsked(RunStage.StartsOf(w));
        var asks = wanted > 0 && currents is not null;
        var advised = asks ? BankNeed.Advise(scene, chemistry, voltage, wanted, currents!, energy!, start) : null;
        if ((bank.Unit ?? advised) is not { } unit)
            return new Gap(Station.Bank, "/unit", w.Loads.Value is null ? "Choose a unit, or add the first load" : "Choose a unit");
        var divides = voltage.Cells % unit.Cells == 0;
        var asked = asks && divides ? BankNeed.Input(scene, chemistry, voltage, unit, wanted, currents!, energy!) : null;
        var sizing = asked is null ? null : BankSize.Work(asked);
        var advisedSeries = divides ? voltage.Cells / unit.Cells : Math.Max(1, (int)Math.Round((double)voltage.Cells / unit.Cells));
        // What a start asks comes on top of what runs: its own limit, for its own time.
        var advisedParallel = sizing is null ? (int?)null : Math.Max(sizing.Parallel, start.Strings(scene, unit));
        return new Arrangement(
            unit,
            advised,
            bank.Series ?? advisedSeries,
            bank.Parallel ?? Math.Min(BankStage.MostStrings, advisedParallel ?? 1),
            advisedSeries,
            advisedParallel,
            sizing,
            asked
        );
    }
}

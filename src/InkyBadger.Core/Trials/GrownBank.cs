using InkyBadger.Core.Design;
using InkyBadger.Core.Rehearsal;
using InkyBadger.Core.Work;

namespace InkyBadger.Core.Trials;

/// <summary>
/// A bank of used units as it is, with a string of new ones beside it, or all new: what it gives under one load until it is dark, how it
/// shares, what it costs and for how long it serves.
/// </summary>
/// <param name="Title">In words.</param>
/// <param name="Strings">In parallel.</param>
/// <param name="DeliveredWh">Under the load of all of them, until dark [Wh].</param>
/// <param name="StrandedWh">Stays in its units then [Wh].</param>
/// <param name="WorstShare">Of the string that carries most (a fraction).</param>
/// <param name="WorstString">From 1.</param>
/// <param name="CeilingA">With no string over its limit [A]; null: none states one.</param>
/// <param name="Price">All units as they are worth, in the design's money; null: of one it is not known.</param>
/// <param name="ToPay">What is to be bought for it; null: not known.</param>
/// <param name="YearsLeft">Until the first unit is used up [years]; null: not known.</param>
/// <param name="PerYear">Its price over the years it serves; null: not known, or none are left.</param>
/// <param name="Wrong">Findings of this bank then, dangers and faults.</param>
/// <param name="Changes">That make it; empty: it stands so.</param>
public sealed record GrownOption(
    string Title,
    int Strings,
    double DeliveredWh,
    double StrandedWh,
    double WorstShare,
    int WorstString,
    double? CeilingA,
    double? Price,
    double? ToPay,
    double? YearsLeft,
    double? PerYear,
    int Wrong,
    IReadOnlyList<DesignChange> Changes
);

/// <summary>What a bank may grow into, and the load all of them were run down under [W].</summary>
public sealed record GrownBankResult(double LoadW, double CyclesPerYear, IReadOnlyList<GrownOption> Options);

/// <summary>Second-hand units kept, joined by new ones, or replaced (method, 5.5 and 8.2).</summary>
public static class GrownBank
{
    /// <summary>Cycles a year as long as nobody says them.</summary>
    private const double UsualCycles = 100;

    /// <summary>The rate at which a bank is run down that nothing draws from, in C.</summary>
    private const double QuietC = 0.2;

    /// <returns>Null where the bank cannot be worked out.</returns>
    public static GrownBankResult? Work(DesignDocument design, int bankIndex)
    {
        var now = new SiteWork(design)[bankIndex];
        if (now.Bank.Value is not { } bank || now.Network.Value is not { } network)
            return null;
        var cycles = design.CyclesPerYear ?? UsualCycles;
        var amps = now.Currents.Value is { IsOffer: false } && network.Strings.BankA > 0 ? network.Strings.BankA : QuietC * bank.Holds.Ah;
        // The same for all of them, and none so great that the weakest is dark at once.
        var loadW = Math.Min(amps, network.Ceiling.Amps ?? amps) * bank.Holds.NominalV;
        var list = new List<GrownOption>(3);
        void Try(string title, params DesignChange[] changes)
        {
            var then = changes.Length == 0 ? design : DesignFormat.With(design, changes);
            var w = new SiteWork(then)[bankIndex];
            if (w.Bank.Value is not { } b || w.Network.Value is not { } n || w.Pack.Value is not { } pack)
                return;
            var run = BankRunDown.Of(w, loadW, null);
            double? years = null;
            foreach (var unit in pack.Strings.SelectMany(s => s.Units))
                years = unit.YearsLeft(cycles) is { } left ? Math.Min(years ?? left, left) : years;
            var fresh = design.Prices.Of(bank.Unit);
            var bought =
                changes.Length == 0 ? 0
                : b.Layout.Parallel > bank.Layout.Parallel ? b.Layout.Series
                : b.Layout.Units;
            list.Add(
                new(
                    title,
                    b.Layout.Parallel,
                    run.DeliveredWh,
                    run.StrandedWh,
                    n.Strings.WorstShare,
                    n.Strings.Worst,
                    n.Ceiling.Amps,
                    b.Price,
                    bought == 0 ? 0 : fresh * bought,
                    years,
                    years > 0 ? b.Price / years : null,
                    Evaluator
                        .Evaluate(then, mends: false)
                        .Findings.Count(f => f.Bank == now.Document.Id && f.Grade <= Findings.Grade.Fault),
                    changes
                )
            );
        }
        DesignChange At<T>(string path, T value) => new($"/banks/{bankIndex}{path}", DesignFormat.Node(value));
        Try("As it is");
        var (p, s) = (bank.Layout.Parallel, bank.Layout.Series);
        if (p < BankStage.MostStrings && (p + 1) * s <= DesignCheck.MostUnits)
            Try("A string of new units more", At("/series", (int?)s), At("/parallel", (int?)(p + 1)), At("/unit", bank.Unit));
        if (now.Document.Positions.Count > 0)
            Try(
                "All new",
                At("/series", (int?)s),
                At("/parallel", (int?)p),
                At("/unit", bank.Unit),
                At("/positions", Array.Empty<Position>())
            );
        return new(loadW, cycles, list);
    }
}

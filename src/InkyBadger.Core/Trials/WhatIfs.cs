using InkyBadger.Core.Demand;
using InkyBadger.Core.Design;
using InkyBadger.Core.Findings;
using InkyBadger.Core.Work;

namespace InkyBadger.Core.Trials;

public enum WhatIfKind
{
    OnDc,
    InverterOff,
    OtherHour,
    SofterStart,
}

/// <summary>
/// Something that could be done about the demand, and what this very design would be then: the day's energy at the bank [Wh], the worst
/// instant and the most running at once [W], the inverter, what is found wrong. <see cref="Changes"/> does it.
/// </summary>
public sealed record WhatIf(
    WhatIfKind Kind,
    string Title,
    string Detail,
    double SavesWh,
    double SavesSurgeW,
    double EnergyBankWh,
    double SurgeDemandW,
    double PeakAcW,
    string? Inverter,
    int Wrong,
    int WrongNow,
    IReadOnlyList<DesignChange> Changes
);

/// <summary>
/// What would be saved by doing things otherwise, each from a complete evaluation of the changed design. Of a long list of loads only
/// those that promise most by their own figures are worked out whole: nobody reads five hundred, and the time stays in proportion.
/// </summary>
public static class WhatIfs
{
    /// <summary>
    /// A soft starter's typical share of the start, never below half again the running watts; the start then lasts about 2 s.
    /// </summary>
    public const double SoftShare = 0.4,
        SoftLeast = 1.5,
        SoftSeconds = 2;

    /// <summary>Of each kind so many are worked out whole.</summary>
    public const int MostOfAKind = 8;

    private const double NightFrom = 22,
        NightTo = 6;

    /// <summary>Less of the day, or of the worst instant, is not worth a word.</summary>
    private const double WorthSaying = 0.002,
        WorthMoving = 0.05;

    /// <summary>Those that save something, the greatest saving of energy first, then of the start.</summary>
    /// <exception cref="OperationCanceledException">Nobody waits for the answer any more.</exception>
    public static IReadOnlyList<WhatIf> Work(DesignDocument design, int bankIndex, CancellationToken stop = default)
    {
        var bank = design.Banks[bankIndex];
        if (bank.Demand.By != DemandBy.Loads)
            return [];
        var (now, findings) = Evaluator.EvaluateOne(design, bankIndex, bank);
        if (now is not { Loads: not null, Energy: not null, Voltage: not null })
            return [];
        var bench = new Bench(design, bankIndex, now, Wrong(findings), stop);
        var all = bench.OnDc().Concat(bench.InverterOff()).Concat(bench.OtherHours()).Concat(bench.SofterStarts());
        return
        [
            .. all.Where(w =>
                    w.SavesWh > WorthSaying * now.Energy.EnergyBankWh
                    || w.Kind != WhatIfKind.OnDc && w.SavesSurgeW > WorthMoving * now.Loads.SurgeDemandW
                )
                .OrderByDescending(w => w.SavesWh)
                .ThenByDescending(w => w.SavesSurgeW),
        ];
    }

    private static int Wrong(IReadOnlyList<Finding> findings) => findings.Count(f => f.Grade <= Grade.Fault);

    private sealed class Bench(DesignDocument design, int index, BankEvaluation now, int wrongNow, CancellationToken stop)
    {
        private readonly Bank bank = design.Banks[index];

        private string At(string path) => $"/banks/{index}{path}";

        public IEnumerable<WhatIf> OnDc()
        {
            if (now.Inverter is null)
                yield break;
            // What is saved goes with what the load takes from the bank.
            foreach (var (i, load) in Foremost((i, load) => DcInstead.MayBe(load) ? now.Energy!.Rows[i].BankWh : null))
            {
                var dc = DcInstead.Of(load, now.Voltage!.SystemV);
                yield return Try(
                    WhatIfKind.OnDc,
                    $"{Named(load)} on DC",
                    $"{DcInstead.Where(dc)}, if there is a DC model",
                    bank.WithLoad(i, dc),
                    [new(At($"/demand/loads/{i}"), DesignFormat.Node(dc))]
                );
            }
        }

        /// <summary>Off whenever nothing needs it; and where small loads alone keep it on through the night, those on DC as well.</summary>
        public IEnumerable<WhatIf> InverterOff()
        {
            if (now.Inverter is null || now.Energy!.IdleWh <= 0)
                yield break;
            DesignChange asNeeded = new(At("/inverters/0/onH"), null);
            if (bank.Inverters[0].OnH is { } chosen && Tolerant.Exceeds(chosen, now.Energy.Day.NeededOnH))
                yield return Try(
                    WhatIfKind.InverterOff,
                    "Inverter off between loads",
                    $"on for {Say.Hours(now.Energy.Day.NeededOnH)} a day, as its loads need",
                    AsNeeded(bank),
                    [asNeeded]
                );
            var nightly = bank.Demand.Loads.Index().Where(l => l.Item.Kind == LoadKind.Ac && RunsAtNight(l.Item)).ToList();
            if (nightly.Count == 0 || !nightly.TrueForAll(l => DcInstead.MayBe(l.Item)))
                yield break;
            var names =
                nightly.Count <= 3
                    ? string.Join(" and ", nightly.Select(l => Named(l.Item)))
                    : $"{Named(nightly[0].Item)} and {nightly.Count - 1} more";
            var onDc = nightly.Aggregate(bank, (b, l) => b.WithLoad(l.Index, DcInstead.Of(l.Item, now.Voltage!.SystemV)));
            yield return Try(
                WhatIfKind.InverterOff,
                "Inverter off at night",
                $"with {names} on DC: nothing else needs it then",
                AsNeeded(onDc),
                [
                    .. nightly.Select(l => new DesignChange(
                        At($"/demand/loads/{l.Index}"),
                        DesignFormat.Node(DcInstead.Of(l.Item, now.Voltage!.SystemV))
                    )),
                    asNeeded,
                ]
            );
        }

        public IEnumerable<WhatIf> OtherHours()
        {
            foreach (var (i, move) in Moves.All(design, index, now).OrderBy(m => m.Move.SurgeW).Take(MostOfAKind).OrderBy(m => m.Load))
                yield return Try(
                    WhatIfKind.OtherHour,
                    $"{Named(bank.Demand.Loads[i])} at {Moves.Times(move)}",
                    "clear of what runs with it now",
                    bank.WithLoad(i, bank.Demand.Loads[i] with { Windows = Moves.Windows(move) }),
                    [Moves.Change(index, i, move)]
                );
        }

        public IEnumerable<WhatIf> SofterStarts()
        {
            foreach (
                var (i, load) in Foremost(
                    (_, load) =>
                        load.Kind == LoadKind.Ac && load.Watts is > 0 && load.SurgeWatts >= 2 * load.Watts
                            ? load.SurgeWatts - load.Watts
                            : null
                )
            )
            {
                var soft = Math.Ceiling(Math.Max(SoftShare * load.SurgeWatts, SoftLeast * load.Watts!.Value) / 10) * 10;
                yield return Try(
                    WhatIfKind.SofterStart,
                    $"A soft starter for {Named(load)}",
                    $"{Say.W(soft)} for {Say.Seconds(SoftSeconds)} instead of {Say.W(load.SurgeWatts)}: typical, its maker says",
                    bank.WithLoad(i, load with { SurgeWatts = soft, StartSeconds = SoftSeconds }),
                    [
                        new(At($"/demand/loads/{i}/surgeWatts"), DesignFormat.Node(soft)),
                        new(At($"/demand/loads/{i}/startSeconds"), DesignFormat.Node((double?)SoftSeconds)),
                    ]
                );
            }
        }

        /// <summary>The loads that promise most, in the order of the list; null: not one of them.</summary>
        private IEnumerable<(int Index, Load Load)> Foremost(Func<int, Load, double?> promise) =>
            bank
                .Demand.Loads.Index()
                .Select(l => (l.Index, l.Item, Promise: promise(l.Index, l.Item)))
                .Where(l => l.Promise is not null)
                .OrderByDescending(l => l.Promise)
                .Take(MostOfAKind)
                .OrderBy(l => l.Index)
                .Select(l => (l.Index, l.Item));

        private static bool RunsAtNight(Load load) =>
            load.Quantity > 0
            && (
                load.Windows is { } windows
                    ? windows.Any(w =>
                        new DayWindow(w[0], w[1]) is var window && window.HoursWithin(NightFrom, 24) + window.HoursWithin(0, NightTo) > 0
                    )
                    : load.Hours > 24 - (24 - NightFrom + NightTo)
            );

        private static Bank AsNeeded(Bank bank) =>
            bank with
            {
                Inverters = [.. bank.Inverters.Select((x, n) => n == 0 ? x with { OnH = null } : x)],
            };

        private WhatIf Try(WhatIfKind kind, string title, string detail, Bank changed, IReadOnlyList<DesignChange> changes)
        {
            stop.ThrowIfCancellationRequested();
            var (e, findings) = Evaluator.EvaluateOne(design, index, changed);
            return new(
                kind,
                title,
                detail,
                now.Energy!.EnergyBankWh - (e.Energy?.EnergyBankWh ?? 0),
                now.Loads!.SurgeDemandW - (e.Loads?.SurgeDemandW ?? 0),
                e.Energy?.EnergyBankWh ?? 0,
                e.Loads?.SurgeDemandW ?? 0,
                e.Loads?.PeakAcW ?? 0,
                e.Inverter?.Item?.Name,
                Wrong(findings),
                wrongNow,
                changes
            );
        }

        private static string Named(Load load) => load.Name.Length > 0 ? load.Name : "the load";
    }
}

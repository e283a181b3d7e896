using InkyBadger.Core.Design;
using InkyBadger.Core.Findings;

namespace InkyBadger.Core.Demand;

public enum WhatIfKind { OnDc, InverterOff, OtherHour, SofterStart }

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
    IReadOnlyList<DesignChange> Changes);

/// <summary>What would be saved by doing things otherwise, each from a complete evaluation of the changed design.</summary>
public static class WhatIfs
{
    /// <summary>A soft starter's typical share of the start, never below half again the running watts; the start then lasts about 2 s.</summary>
    public const double SoftShare = 0.4, SoftLeast = 1.5, SoftSeconds = 2;

    private const double NightFrom = 22, NightTo = 6;

    /// <summary>Less of the day, or of the worst instant, is not worth a word.</summary>
    private const double WorthSaying = 0.002, WorthMoving = 0.05;

    /// <summary>Those that save something, the greatest saving of energy first, then of the start.</summary>
    public static IReadOnlyList<WhatIf> Work(DesignDocument design, int bankIndex)
    {
        var before = Evaluator.Evaluate(design);
        if (design.Banks[bankIndex].Demand.By != DemandBy.Loads || before.Banks[bankIndex] is not { Loads: not null, Energy: not null, Voltage: not null } now) return [];
        var bench = new Bench(design, bankIndex, before, now);
        var all = bench.OnDc().Concat(bench.InverterOff()).Concat(bench.OtherHours()).Concat(bench.SofterStarts());
        return [.. all.Where(w => w.SavesWh > WorthSaying * now.Energy.EnergyBankWh || w.Kind != WhatIfKind.OnDc && w.SavesSurgeW > WorthMoving * now.Loads.SurgeDemandW).OrderByDescending(w => w.SavesWh).ThenByDescending(w => w.SavesSurgeW)];
    }

    private sealed class Bench(DesignDocument design, int index, Evaluation before, BankEvaluation now)
    {
        private readonly Bank bank = design.Banks[index];

        private string At(string path) => $"/banks/{index}{path}";

        public IEnumerable<WhatIf> OnDc()
        {
            if (now.Inverter is null) yield break;
            foreach (var (i, load) in bank.Demand.Loads.Index())
            {
                if (!DcInstead.MayBe(load)) continue;
                var dc = DcInstead.Of(load, now.Voltage!.SystemV);
                yield return Try(WhatIfKind.OnDc, $"{Named(load)} on DC", $"{DcInstead.Where(dc)}, if there is a DC model", [new(At($"/demand/loads/{i}"), DesignFormat.Node(dc))]);
            }
        }

        /// <summary>Off whenever nothing needs it; and where small loads alone keep it on through the night, those on DC as well.</summary>
        public IEnumerable<WhatIf> InverterOff()
        {
            if (now.Inverter is null || now.Energy!.IdleWh <= 0) yield break;
            DesignChange asNeeded = new(At("/inverters/0/onH"), null);
            if (bank.Inverters[0].OnH is { } chosen && Tolerant.Exceeds(chosen, now.Energy.Day.NeededOnH))
                yield return Try(WhatIfKind.InverterOff, "Inverter off between loads", $"on for {Say.Hours(now.Energy.Day.NeededOnH)} a day, as its loads need", [asNeeded]);
            var nightly = bank.Demand.Loads.Index().Where(l => l.Item.Kind == LoadKind.Ac && RunsAtNight(l.Item)).ToList();
            if (nightly.Count == 0 || !nightly.TrueForAll(l => DcInstead.MayBe(l.Item))) yield break;
            var names = nightly.Count <= 3 ? string.Join(" and ", nightly.Select(l => Named(l.Item))) : $"{Named(nightly[0].Item)} and {nightly.Count - 1} more";
            yield return Try(WhatIfKind.InverterOff, "Inverter off at night", $"with {names} on DC: nothing else needs it then",
                [.. nightly.Select(l => new DesignChange(At($"/demand/loads/{l.Index}"), DesignFormat.Node(DcInstead.Of(l.Item, now.Voltage!.SystemV)))), asNeeded]);
        }

        public IEnumerable<WhatIf> OtherHours()
        {
            foreach (var (i, load) in bank.Demand.Loads.Index())
                if (Moves.Of(design, index, now, i) is { } move)
                    yield return Try(WhatIfKind.OtherHour, $"{Named(load)} at {Moves.Times(move)}", "clear of what runs with it now", [Moves.Change(index, i, move)]);
        }

        public IEnumerable<WhatIf> SofterStarts()
        {
            foreach (var (i, load) in bank.Demand.Loads.Index())
            {
                if (load.Kind != LoadKind.Ac || load.Watts is not > 0 || load.SurgeWatts < 2 * load.Watts) continue;
                var soft = Math.Ceiling(Math.Max(SoftShare * load.SurgeWatts, SoftLeast * load.Watts.Value) / 10) * 10;
                yield return Try(WhatIfKind.SofterStart, $"A soft starter for {Named(load)}", $"{Say.W(soft)} for {Say.Seconds(SoftSeconds)} instead of {Say.W(load.SurgeWatts)}: typical, its maker says",
                    [new(At($"/demand/loads/{i}/surgeWatts"), DesignFormat.Node(soft)), new(At($"/demand/loads/{i}/startSeconds"), DesignFormat.Node((double?)SoftSeconds))]);
            }
        }

        private static bool RunsAtNight(Load load) => load.Quantity > 0
            && (load.Windows is { } windows
                ? windows.Any(w => new DayWindow(w[0], w[1]) is var window && window.HoursWithin(NightFrom, 24) + window.HoursWithin(0, NightTo) > 0)
                : load.Hours > 24 - (24 - NightFrom + NightTo));

        private WhatIf Try(WhatIfKind kind, string title, string detail, IReadOnlyList<DesignChange> changes)
        {
            var then = Evaluator.Evaluate(DesignFormat.With(design, changes));
            var e = then.Banks[index];
            return new(kind, title, detail, now.Energy!.EnergyBankWh - (e.Energy?.EnergyBankWh ?? 0), now.Loads!.SurgeDemandW - (e.Loads?.SurgeDemandW ?? 0),
                e.Energy?.EnergyBankWh ?? 0, e.Loads?.SurgeDemandW ?? 0, e.Loads?.PeakAcW ?? 0, e.Inverter?.Item?.Name, Wrong(then), Wrong(before), changes);
        }

        private int Wrong(Evaluation e) => e.Findings.Count(f => f.Bank == bank.Id && f.Grade <= Grade.Fault);

        private static string Named(Load load) => load.Name.Length > 0 ? load.Name : "the load";
    }
}

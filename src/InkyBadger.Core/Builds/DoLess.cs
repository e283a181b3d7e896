using InkyBadger.Core.Design;
using InkyBadger.Core.Reference;
using InkyBadger.Core.Work;

namespace InkyBadger.Core.Builds;

/// <summary>
/// A way to do less: what is given up, in words and as energy of the day at the bank [Wh], the smaller build worked out whole, what it
/// saves (null: a price is not known), and the changes that make it.
/// </summary>
public sealed record LessWay(IReadOnlyList<string> GivesUp, double LessWh, Build Build, double? Saves, IReadOnlyList<DesignChange> Changes);

/// <summary>The next smaller build, and the cheapest ways to make it enough. <paramref name="Not"/>: why there is none.</summary>
public sealed record DoLessResult(string? Smaller, string Asked, IReadOnlyList<LessWay> Ways, string? Not);

/// <summary>
/// Up to three changes of loads or hours that make the next smaller build enough (method, 8.9): one or more tried together, the cheapest
/// that do, by the energy of the day that is given up.
/// </summary>
public sealed class DoLess
{
    /// <summary>Loads that are looked at: those that take most energy, and those that draw most.</summary>
    private const int ByEnergy = 6,
        ByWatts = 4;

    private const int MostChanges = 3,
        MostWays = 3,
        MostTried = 700;

    private readonly DesignDocument design;
    private readonly int index;
    private readonly BankEvaluation now;
    private readonly BuildChoice smaller;
    private readonly CancellationToken stop;

    /// <summary>A change of one load, by its place in the list.</summary>
    private sealed record Less(int Load, string Words, Load Then);

    private sealed record Tried(IReadOnlyList<Less> Changes, double LessWh);

    private DoLess(DesignDocument design, int index, BankEvaluation now, BuildChoice smaller, CancellationToken stop) =>
        (this.design, this.index, this.now, this.smaller, this.stop) = (design, index, now, smaller, stop);

    /// <exception cref="OperationCanceledException">Nobody waits for the answer any more.</exception>
    public static DoLessResult Work(DesignDocument design, int index, BuildTerms terms, CancellationToken stop = default)
    {
        var e = new SiteWork(design)[index].Evaluation(headlines: false);
        if (e is not { Bank: { } bank, Energy: not null, Voltage: not null } || BuildMaker.ChoiceOf(e) is not { } here)
            return new(null, "", [], "There is no build yet that could be smaller");
        if (design.Banks[index].Demand.By != DemandBy.Loads || bank.Layout.AdvisedParallel is not { } asked)
            return new(null, "", [], "The demand is typed as one figure: there are no loads to change");
        if (asked - 1 > BankStage.MostStrings)
            return new(
                null,
                Say.Strings(asked),
                [],
                $"More strings are asked for than a bank may have, {BankStage.MostStrings}: look at volts and units first"
            );
        if (Next(here, asked) is not { } smaller)
            return new(null, Say.Strings(asked), [], "One string is asked for, and the catalogue has no smaller unit of its kind");
        var ways = new DoLess(design, index, e, smaller, stop).Ways(terms);
        return new(
            smaller.Unit.Key == here.Unit.Key ? Say.Strings(smaller.Parallel) : $"one string of {smaller.Unit.Name}",
            Say.Strings(asked),
            ways,
            ways.Count == 0
                ? $"No {Say.Count(MostChanges).ToLowerInvariant()} changes of loads or hours make {Say.Strings(smaller.Parallel)} enough"
                : null
        );
    }

    /// <summary>A string less than is asked for, or one string of the next smaller unit.</summary>
    private static BuildChoice? Next(BuildChoice here, int asked)
    {
        if (asked > 1)
            return here with { Parallel = asked - 1, Style = asked == 2 ? WiringStyle.Diagonal : here.Style };
        var unit = Catalogue
            .Units.Where(u => u.Chemistry == here.Unit.Chemistry && u.Cells == here.Unit.Cells && u.Ah < here.Unit.Ah)
            .MaxBy(u => u.Ah);
        return unit is null ? null : here with { Unit = unit, Parallel = 1, Style = WiringStyle.Diagonal };
    }

    private List<LessWay> Ways(BuildTerms terms)
    {
        var candidates = Candidates();
        var found = new List<Tried>();
        var tried = 0;
        // Fewer changes first: what one does, no two need do; a smaller inverter alone may do.
        for (var size = 0; size <= MostChanges && tried < MostTried; size++)
            foreach (var set in Sets(candidates, size))
            {
                stop.ThrowIfCancellationRequested();
                if (found.Exists(f => f.Changes.All(set.Contains)) || tried++ >= MostTried)
                    continue;
                if (Enough(set) is { } less)
                    found.Add(new(set, less));
            }
        var present = BuildMaker.Present(design, index, terms);
        var ways = new List<LessWay>();
        foreach (var way in found.OrderBy(f => f.LessWh).ThenBy(f => f.Changes.Count))
        {
            var changed = With(way.Changes);
            // Enough by count is not yet sound: the build is worked out whole, and one with a fault is no way.
            if (BuildMaker.Of(changed, index, smaller, terms) is not { Fits: true } build)
                continue;
            ways.Add(
                new(
                    way.Changes.Count == 0
                        ? [$"nothing: {build.Inverter ?? "the inverter as advised"} is enough"]
                        : [.. way.Changes.Select(c => c.Words)],
                    way.LessWh,
                    build,
                    present is { Bill.IsWhole: true } && build.Bill.IsWhole ? present.Bill.Total - build.Bill.Total : null,
                    BuildBank.Changes(changed, index, smaller)
                )
            );
            if (ways.Count == MostWays || way.Changes.Count == 0)
                break;
        }
        return ways;
    }

    /// <summary>The inverter as advised: with less to carry a smaller one may do.</summary>
    private DesignDocument With(IReadOnlyList<Less> changes)
    {
        var bank = changes.Aggregate(design.Banks[index], (b, c) => b.WithLoad(c.Load, c.Then));
        bank = bank with { Inverters = [.. bank.Inverters.Select((x, i) => i == 0 ? x with { Item = null, Stack = 1 } : x)] };
        return design with { Banks = [.. design.Banks.Select((b, i) => i == index ? bank : b)] };
    }

    /// <summary>The energy of the day given up [Wh], where the smaller build is enough then; null: it is not.</summary>
    private double? Enough(IReadOnlyList<Less> changes)
    {
        var changed = With(changes);
        var free = BuildBank.AsAsked(changed, index, smaller);
        free = free with { Banks = [.. free.Banks.Select((b, i) => i == index ? b with { Parallel = null } : b)] };
        var w = new SiteWork(free)[index];
        return w.Bank.Value is { Layout.AdvisedParallel: { } asked } && asked <= smaller.Parallel && w.Energy.Value is { } energy
            ? Math.Max(0, now.Energy!.EnergyBankWh - energy.EnergyBankWh)
            : null;
    }

    private List<Less> Candidates()
    {
        var loads = design.Banks[index].Demand.Loads;
        var rows = now.Energy!.Rows;
        var watts = now.Loads!.Rows;
        var chosen = loads.Index().Where(l => l.Item.Quantity > 0 && rows[l.Index].BankWh > 0).Select(l => l.Index).ToList();
        chosen =
        [
            .. chosen
                .OrderByDescending(i => rows[i].BankWh)
                .Take(ByEnergy)
                .Union(chosen.OrderByDescending(i => watts[i].RunningW).Take(ByWatts))
                .Order(),
        ];
        var list = new List<Less>();
        foreach (var i in chosen)
        {
            var load = loads[i];
            var name = load.Name.Length > 0 ? load.Name : "the load";
            // What must not go dark is not given up.
            if (load.MustStay)
                continue;
            list.Add(
                load.Quantity > 1
                    ? new(i, $"one {name} less", load with { Quantity = load.Quantity - 1 })
                    : new(i, $"no {name}", load with { Quantity = 0 })
            );
            foreach (var (share, words) in (ReadOnlySpan<(double, string)>)[(0.75, "a quarter less of"), (0.5, "half of")])
                if (Shorter(load, share) is { } shorter)
                    list.Add(new(i, $"{words} {name}’s hours", shorter));
        }
        foreach (var (i, move) in Moves.All(design, index, now))
            list.Add(new(i, $"{loads[i].Name} at {Moves.Times(move)}", loads[i] with { Windows = Moves.Windows(move) }));
        return list;
    }

    /// <summary>Hours, or each window from its end, to a share; null: it runs by states, or by its share of time alone.</summary>
    private static Load? Shorter(Load load, double share) =>
        load.Windows is { Count: > 0 } windows
            ? load with
            {
                Windows =
                [
                    .. windows.Select(w =>
                        new[] { w[0], Rounded(w[0], w[0] + ((w[1] - w[0] + 24) % 24 is var h && h == 0 ? 24 : h) * share) }
                    ),
                ],
            }
        : load.Hours is > 0 and var hours ? load with { Hours = hours * share }
        : null;

    /// <summary>To a minute, and within the day.</summary>
    private static double Rounded(double from, double to) =>
        Math.Round(to * 60) / 60 is var end && end > 24 ? end - 24
        : end <= from ? from + 1.0 / 60
        : end;

    /// <summary>Sets of so many changes, of each load one.</summary>
    private static IEnumerable<List<Less>> Sets(List<Less> all, int size, int from = 0)
    {
        if (size == 0)
        {
            yield return [];
            yield break;
        }
        for (var i = from; i <= all.Count - size; i++)
            foreach (var rest in Sets(all, size - 1, i + 1))
                if (rest.TrueForAll(r => r.Load != all[i].Load))
                    yield return [all[i], .. rest];
    }
}

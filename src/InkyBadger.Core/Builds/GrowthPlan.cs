using InkyBadger.Core.Design;
using InkyBadger.Core.Reference;
using InkyBadger.Core.Work;

namespace InkyBadger.Core.Builds;

/// <summary>
/// A part that growing needs: how many more, and what they cost (null: not known); <paramref name="InPlaceOf"/>: what goes for it.
/// </summary>
public sealed record GrowthNeed(string What, double Count, double? Price, string? InPlaceOf);

/// <summary>
/// A way to grow: what it brings (usable Wh, AC watts; null: no inverter), what it needs and costs (null: not known), what would be wrong
/// then, and why it cannot be done (null: it can).
/// </summary>
public sealed record GrowthOption(
    string Title,
    double MoreUsableWh,
    double? MoreAcW,
    IReadOnlyList<GrowthNeed> Needs,
    double? Costs,
    IReadOnlyList<string> Wrong,
    string? Not
);

/// <summary>What one more of each needs, and what today's choice shuts out.</summary>
public sealed record GrowthPlanResult(Build From, IReadOnlyList<GrowthOption> Options, IReadOnlyList<string> ShutsOut);

/// <summary>How a build can grow, each step worked out whole (method, 8.7).</summary>
public static class GrowthPlan
{
    private const int MostStrings = 16;

    /// <param name="choice">Null: the design as it stands.</param>
    /// <returns>Null: nothing can be built yet.</returns>
    public static GrowthPlanResult? Work(
        DesignDocument design,
        int index,
        BuildChoice? choice,
        BuildTerms terms,
        CancellationToken stop = default
    )
    {
        if ((choice is null ? BuildMaker.Present(design, index, terms) : BuildMaker.Of(design, index, choice, terms)) is not { } from)
            return null;
        var here = from.Choice;
        // Compared with itself as advised, so that only what growing asks for differs.
        var basis = BuildMaker.Of(design, index, here, terms) ?? from;
        Build? Strings(int parallel) =>
            parallel > BankStage.MostStrings || parallel * here.Series > DesignCheck.MostUnits
                ? null
                : BuildMaker.Of(design, index, here with { Parallel = parallel }, terms);
        var options = new List<GrowthOption>();
        if (here.Series > 1)
            options.Add(
                new(
                    "One more unit",
                    0,
                    null,
                    [],
                    null,
                    [],
                    $"A string takes {here.Series} in series: one alone has no place, and a longer string is another voltage"
                )
            );
        options.Add(Option(here.Series == 1 ? "One more unit, a string by itself" : "One more string", basis, Strings(here.Parallel + 1)));
        if (MoreInverters(design, index, here) is { } stacked)
            options.Add(Option("One more inverter of the same", basis, BuildMaker.Present(stacked, index, terms)));
        return new(from, options, [.. ShutsOut(design, index, basis, Strings, stop)]);
    }

    private static DesignDocument? MoreInverters(DesignDocument design, int index, BuildChoice here)
    {
        var there = BuildBank.In(design, index, here);
        if (there.Banks[index].Inverters.Count == 0 || new SiteWork(there)[index].Inverter.Value is not { Item: { } item } inverter)
            return null;
        var bank = there.Banks[index];
        return there with
        {
            Banks =
            [
                .. there.Banks.Select(
                    (b, i) =>
                        i == index
                            ? bank with
                            {
                                Inverters = [bank.Inverters[0] with { Item = item, Stack = inverter.Stack + 1 }, .. bank.Inverters.Skip(1)],
                            }
                            : b
                ),
            ],
        };
    }

    private static GrowthOption Option(string title, Build from, Build? to)
    {
        if (to is null)
            return new(title, 0, null, [], null, [], "More than a bank may have");
        List<string> wrong =
        [
            .. to.Wrong.Where(w => !from.Wrong.Contains(w) && !w.Contains("where the demand asks", StringComparison.Ordinal)),
        ];
        var needs = Needs(from.Bill.Lines, to.Bill.Lines);
        double? costs = from.Bill.IsWhole && to.Bill.IsWhole ? to.Bill.Total - from.Bill.Total : null;
        return new(title, to.UsableWh - from.UsableWh, to.ContinuousW - from.ContinuousW, needs, costs, wrong, null);
    }

    /// <summary>Lines of the bill that grow; one that changes its size stands in place of the old one.</summary>
    private static List<GrowthNeed> Needs(IReadOnlyList<BillLine> before, IReadOnlyList<BillLine> after)
    {
        var needs = new List<GrowthNeed>();
        foreach (var line in after)
        {
            if (before.FirstOrDefault(l => l.What == line.What && l.Part == line.Part) is { } same)
            {
                if (line.Count > same.Count + Tolerant.Noise)
                    needs.Add(new(line.What, line.Count - same.Count, (line.Count - same.Count) * line.Each, null));
                // The same word for a larger piece: a bus bar, a switch.
                else if (line.Each is { } each && same.Each is { } old && Tolerant.Exceeds(each, old) && line.Part != BillPart.Hours)
                    needs.Add(new(line.What + ", larger", line.Count, line.Count * each, line.What));
                continue;
            }
            var gone = before.FirstOrDefault(l =>
                l.Part == line.Part
                && after.All(a => a.What != l.What)
                && (line.Part == BillPart.Inverter || Kind(l.What) == Kind(line.What))
            );
            needs.Add(new(line.What, line.Count, line.Price, gone?.What));
        }
        return needs;
    }

    /// <summary>Goes on in a sentence; a unit's name stays as it is.</summary>
    private static string Lowered(string words) =>
        words.Length > 1 && char.IsLower(words[1]) ? char.ToLowerInvariant(words[0]) + words[1..] : words;

    /// <summary>A rail link of one size or another is a rail link.</summary>
    private static string Kind(string what) => what.Split(',')[0];

    private static IEnumerable<string> ShutsOut(
        DesignDocument design,
        int index,
        Build basis,
        Func<int, Build?> strings,
        CancellationToken stop
    )
    {
        var here = basis.Choice;
        var most = new DesignRules(design.HouseRules).Number("most-strings");
        for (var p = here.Parallel + 1; p <= MostStrings; p++)
        {
            stop.ThrowIfCancellationRequested();
            var why =
                p > here.Unit.MaxParallel ? $"its maker allows {here.Unit.MaxParallel}"
                : p > most ? $"the house rule allows {Say.Number(most)}"
                : strings(p) is not { } grown ? "more than a bank may have"
                : grown.Layout?.Fits == false && basis.Layout?.Fits != false ? "its units are not in the space given"
                : grown.Wrong.FirstOrDefault(w =>
                    !basis.Wrong.Contains(w) && !w.Contains("where the demand asks", StringComparison.Ordinal)
                );
            if (why is null)
                continue;
            yield return $"More than {Say.Strings(p - 1)}: {Lowered(why)}";
            break;
        }
        foreach (var volts in (int[])[24, 48])
        {
            if (volts <= here.SystemV)
                continue;
            var cells = CellsPerSystem.Get(here.Unit.Chemistry, volts);
            if (cells % here.Unit.Cells != 0)
                yield return $"{volts} V: these units cannot make it";
            else if (cells / here.Unit.Cells > here.Unit.MaxSeries)
                yield return $"{volts} V: {cells / here.Unit.Cells} in series, and the maker allows {here.Unit.MaxSeries}";
            else if (design.Banks[index].Inverters.Count > 0)
                yield return $"{volts} V without another inverter, another main fuse and other chargers; the units themselves could be "
                    + $"joined {cells / here.Unit.Cells} in series";
        }
        if (here.Unit.Communicates == false && here.Series > 1)
            yield return "A string more in some years without a balancer: units of another age drift against these";
    }
}

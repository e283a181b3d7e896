using InkyBadger.Core.Design;
using InkyBadger.Core.Findings;
using InkyBadger.Core.Work;

namespace InkyBadger.Core.Trials;

/// <summary>
/// A run with what it needs out and back, and what of the copper at hand would do; null: none that is long enough. Laid: that is what is
/// laid already.
/// </summary>
public sealed record DrawerRow(
    string Run,
    string Name,
    string? Size,
    int Conductors,
    double NeedsM,
    string? Have,
    int HaveConductors,
    bool Laid
);

/// <summary>A size: metres at hand, wanted by the whole cut list, and to be bought [m].</summary>
public sealed record DrawerSize(string Size, double AtHandM, double WantedM, double BuyM);

/// <summary>What the copper at hand does for a bank, and the changes of the document that lay it.</summary>
public sealed record CopperDrawerResult(
    IReadOnlyList<DrawerRow> Rows,
    IReadOnlyList<DrawerSize> Sizes,
    IReadOnlyList<DesignChange> Changes
);

/// <summary>
/// Copper at hand before copper that is bought: the runs of most current choose first, each the least that keeps current, fuse and drop and
/// brings nothing wrong with it.
/// </summary>
public static class CopperDrawer
{
    /// <summary>Null as long as the bank's runs are not worked out.</summary>
    public static CopperDrawerResult? Work(DesignDocument design, int bank)
    {
        var now = Evaluator.Evaluate(design, mends: false);
        if (now.Banks[bank].MainRun is not { } main)
            return null;
        var left = design.Tables.Drawer.GroupBy(p => p.Size).ToDictionary(g => g.Key, g => g.Sum(p => p.LengthM));
        var runs = new List<(string Name, RunResult Run)> { ("main run", main) };
        runs.AddRange(now.Banks[bank].Circuits.Select(c => (c.Name, c.Run)));
        var then = design;
        var rows = new List<DrawerRow>();
        foreach (var (name, run) in runs.OrderByDescending(r => r.Run.DesignA))
        {
            var needsM = 2 * run.Laid.LengthM;
            var (have, conductors) = (default(string), 0);
            foreach (var option in Options(then, bank, run.Id, left, needsM, (run.Cable.AreaMm2 ?? double.MaxValue) * run.Cable.Conductors))
            {
                var laid = Lay(then, bank, run.Id, option);
                if (!ReferenceEquals(laid, then) && BringsWrong(then, laid, bank, run.Id))
                    continue;
                (then, have, conductors) = (laid, option.Size, option.Conductors);
                left[option.Size] -= needsM * option.Conductors;
                break;
            }
            rows.Add(
                new(
                    run.Id,
                    name,
                    run.Cable.Size,
                    run.Cable.Conductors,
                    needsM,
                    have,
                    conductors,
                    have == run.Cable.Size && conductors == run.Cable.Conductors
                )
            );
        }
        return new(rows, SizesOf(then, bank), DesignDifference.Between(design, then));
    }

    /// <summary>Copper much thicker than what is asked for goes into no terminal of its device.</summary>
    private const double MostThicker = 3;

    private static IEnumerable<SizeTrial> Options(
        DesignDocument design,
        int bank,
        string run,
        Dictionary<string, double> left,
        double needsM,
        double advisedMm2
    ) =>
        RunTrials
            .Work(design, bank, run)
            ?.Sizes.Where(s => s.Fits && left.TryGetValue(s.Size, out var metres) && Tolerant.AtLeast(metres, needsM * s.Conductors))
            .OrderBy(s => s.AreaMm2 * s.Conductors)
            .TakeWhile(s => s.AreaMm2 * s.Conductors <= MostThicker * advisedMm2)
        ?? Enumerable.Empty<SizeTrial>();

    private static DesignDocument Lay(DesignDocument design, int bank, string run, SizeTrial size) =>
        size.Here
            ? design
            : design with
            {
                Banks =
                [
                    .. design.Banks.Select(
                        (b, i) =>
                            i == bank
                                ? b.WithRun(run, r =>
                                    r with
                                    {
                                        Size = size.Size,
                                        Parallel = size.Conductors == 1 ? null : size.Conductors,
                                        ConductorLengthsM = [],
                                    }
                                )
                                : b
                    ),
                ],
            };

    private static bool BringsWrong(DesignDocument before, DesignDocument after, int bank, string run)
    {
        List<Finding> Wrong(DesignDocument d) =>
            [
                .. Evaluator
                    .Evaluate(d, mends: false)
                    .Findings.Where(f =>
                        f.Bank == d.Banks[bank].Id && f.Grade <= Grade.Caution && (f.About == run || f.Grade <= Grade.Fault)
                    ),
            ];
        var known = Wrong(before);
        return Wrong(after).Exists(f => !known.Exists(k => k.IsAsOf(f)));
    }

    /// <summary>The whole cut list against what is at hand, the thickest first.</summary>
    private static List<DrawerSize> SizesOf(DesignDocument design, int bank)
    {
        var atHand = design.Tables.Drawer.GroupBy(p => p.Size).ToDictionary(g => g.Key, g => g.Sum(p => p.LengthM));
        var cuts = Schedules.Work(design, bank)?.Cables ?? [];
        var wanted = cuts.GroupBy(c => c.Size)
            .ToDictionary(g => g.Key, g => (Metres: g.Sum(c => c.Pieces * c.LengthM), Area: g.First().AreaMm2));
        var tables = Reference.DesignTables.Of(design);
        return
        [
            .. wanted
                .Keys.Union(atHand.Keys)
                .Select(size => (Size: size, Area: tables.FindConductor(size)?.AreaMm2 ?? 0))
                .OrderByDescending(x => x.Area)
                .Select(x =>
                {
                    var (have, want) = (atHand.GetValueOrDefault(x.Size), wanted.GetValueOrDefault(x.Size).Metres);
                    return new DrawerSize(x.Size, have, want, Math.Max(0, want - have));
                }),
        ];
    }
}

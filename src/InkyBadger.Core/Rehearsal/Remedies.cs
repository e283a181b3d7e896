using System.Text.Json;
using InkyBadger.Core.Banks;
using InkyBadger.Core.Design;
using InkyBadger.Core.Reference;
using InkyBadger.Core.Work;

namespace InkyBadger.Core.Rehearsal;

/// <summary>What would help against dark hours, run through the same year: hours that are left and days, lowest charge.</summary>
/// <param name="Cost">More for units [money]; 0: it costs nothing; null: not known.</param>
/// <param name="Changes">That do it; empty: it is how things stand, or only looked at.</param>
public sealed record Remedy(string Title, double DarkH, int DarkDays, double LowestSoc, double? Cost, IReadOnlyList<DesignChange> Changes);

/// <summary>
/// Each of a stated list of remedies by itself, then the cheapest two together that end the dark hours; every one is a run of its own, none
/// is added up.
/// </summary>
public sealed class Remedies
{
    /// <summary>So many pairs are tried, the cheaper first.</summary>
    private const int MostPairs = 12;

    private const int MostMoved = 2;

    private const double MoreSoc = 0.1,
        MoreSun = 1.5;

    private sealed record Way(string Title, double? Cost, Func<DesignDocument, DesignDocument> Change, bool Takes = true);

    private readonly DesignDocument design;
    private readonly int index;
    private readonly List<Way> ways = [];

    /// <param name="design">A design whose bank can be run.</param>
    public Remedies(DesignDocument design, int bankIndex)
    {
        (this.design, index) = (design, bankIndex);
        var w = new SiteWork(design)[bankIndex];
        if (w.Bank.Value is { } bank)
            Collect(w, bank);
    }

    /// <summary>As it stands, then each by itself as it is run.</summary>
    public IEnumerable<Remedy> Each(CancellationToken stop = default)
    {
        yield return Run(new("as it is", 0, d => d, false), design);
        foreach (var way in ways)
        {
            stop.ThrowIfCancellationRequested();
            if (Tried(way) is { } remedy)
                yield return remedy;
        }
    }

    private readonly Dictionary<Way, Remedy> tried = [];

    private Remedy? Tried(Way way)
    {
        if (tried.TryGetValue(way, out var known))
            return known;
        var then = way.Change(design);
        if (ReferenceEquals(then, design))
            return null;
        return tried[way] = Run(way, then);
    }

    /// <summary>
    /// Two together that end the dark hours, the cheapest first, of equal cost those that help most alone; null where one alone does, or no
    /// two of those that are tried do.
    /// </summary>
    public Remedy? Pair(CancellationToken stop = default)
    {
        var alone = ways.Where(x => x.Takes).Select(x => (Way: x, Result: Tried(x))).Where(x => x.Result is not null).ToList();
        if (alone.Count == 0 || alone.Exists(x => x.Result!.DarkH <= 0))
            return null;
        var pairs = alone
            .SelectMany((a, i) => alone.Skip(i + 1).Select(b => (A: a, B: b)))
            .OrderBy(p => (p.A.Way.Cost ?? 1e9) + (p.B.Way.Cost ?? 1e9))
            .ThenBy(p => p.A.Result!.DarkH + p.B.Result!.DarkH)
            .Take(MostPairs);
        foreach (var (a, b) in pairs)
        {
            stop.ThrowIfCancellationRequested();
            var then = b.Way.Change(a.Way.Change(design));
            var both = Run(new($"{a.Way.Title}, and {b.Way.Title}", a.Way.Cost + b.Way.Cost, _ => then), then);
            if (both.DarkH <= 0)
                return both;
        }
        return null;
    }

    private Remedy Run(Way way, DesignDocument then)
    {
        var outcome = YearRun.Of(then, index).Whole();
        return new(
            way.Title,
            outcome?.DarkH ?? 0,
            outcome?.DarkDays ?? 0,
            outcome?.LowestSoc ?? 0,
            way.Cost,
            way.Takes ? DesignDifference.Between(design, then) : []
        );
    }

    private DesignDocument With(DesignDocument d, Func<Bank, Bank> change) =>
        d with
        {
            Banks = [.. d.Banks.Select((b, i) => i == index ? change(b) : b)],
        };

    private void Collect(BankWork w, BankResult bank)
    {
        if (w.Document.Inverters is [{ OnH: not null }, ..])
            ways.Add(
                new("inverter off when idle", 0, d =>
                    With(d, b => b with { Inverters = [b.Inverters[0] with { OnH = null }, .. b.Inverters.Skip(1)] })
                )
            );
        foreach (var (i, source) in w.Document.Sources.Index())
            Of(source, i);
        Units(w, bank);
        Moved(w);
        Floor(bank);
        var rows = w.Energy.Value?.Rows ?? [];
        if (
            rows.Count > 1
            && rows.MaxBy(r => r.BankWh) is { } most
            && w.Document.Demand.Loads.FirstOrDefault(l => l.Id == most.Id) is { } load
        )
            ways.Add(
                new($"without {load.Name}", 0, d =>
                    With(d, b => b with { Demand = b.Demand with { Loads = [.. b.Demand.Loads.Where(l => l.Id != most.Id)] } })
                )
            );
        var plug = w.Document.Sources.FirstOrDefault(s => s.Kind == SourceKind.Mains) is { Name.Length: > 0 } mains
            ? mains.Name.ToLowerInvariant()
            : "plug";
        foreach (var (at, drop) in design.Rehearsal.Drops.Index())
        {
            if (drop is { Kind: DropKind.Plug, Weekdays: { Count: > 1 } days })
            {
                // A day of the week more, in the middle of the longest stretch without.
                var more = days.MaxBy(x => Gap([.. Enumerable.Range(0, 7).Except(days)], x));
                ways.Add(
                    new($"{plug} on {DayNames[more]} too", 0, d => Dropped(d, at, drop with { Weekdays = [.. days.Where(x => x != more)] }))
                );
            }
            ways.Add(
                new(
                    drop is { Kind: DropKind.Plug, Weekdays: not null } ? $"{plug} every day" : $"without: {RehearsalWords.Of(w, drop)}",
                    0,
                    d => d with { Rehearsal = d.Rehearsal with { Drops = [.. d.Rehearsal.Drops.Where(x => x != drop)] } },
                    // Nobody orders the weather.
                    drop.Kind
                        is DropKind.Guest
                            or DropKind.Plug
                            or DropKind.Inverter
                )
            );
        }
        foreach (var set in Enum.GetValues<RuleSet>())
            if (set != design.HouseRules.Set && set != RuleSet.Typical)
                ways.Add(
                    new(
                        $"under {set.ToString().ToLowerInvariant()} rules",
                        null,
                        d => d with { HouseRules = d.HouseRules with { Set = set } },
                        false
                    )
                );
    }

    private static DesignDocument Dropped(DesignDocument d, int at, Drop drop) =>
        d with
        {
            Rehearsal = d.Rehearsal with { Drops = [.. d.Rehearsal.Drops.Select((x, i) => i == at ? drop : x)] },
        };

    /// <summary>Loads that have times of their own, the heaviest first, to the hour in which the sources bring most.</summary>
    private void Moved(BankWork w)
    {
        if (MostBroughtAt(w) is not { } hour || w.Document.Demand.By != DemandBy.Loads)
            return;
        var heaviest = (w.Energy.Value?.Rows ?? [])
            .OrderByDescending(r => r.BankWh)
            .Select(r => w.Document.Demand.Loads.FirstOrDefault(l => l.Id == r.Id))
            .OfType<Load>()
            .Where(l => l.Windows is [[var from, _], ..] && from != hour && l.Windows.Sum(x => (x[1] - x[0] + 24) % 24) is > 0 and <= 12)
            .Take(MostMoved);
        foreach (var load in heaviest)
        {
            var by = hour - load.Windows![0][0];
            double At(double h) => ((h + by) % 24 + 24) % 24;
            IReadOnlyList<double[]> then = [.. load.Windows.Select(x => new[] { At(x[0]), At(x[1]) is 0 ? 24 : At(x[1]) })];
            ways.Add(
                new($"{load.Name} at {Say.Clock(hour)}", 0, d =>
                    With(d, b =>
                        b with
                        {
                            Demand = b.Demand with
                            {
                                Loads = [.. b.Demand.Loads.Select(l => l.Id == load.Id ? l with { Windows = then } : l)],
                            },
                        }
                    )
                )
            );
        }
    }

    /// <summary>The hour of the day in which the sources have most over the year; null: they have nothing.</summary>
    private static double? MostBroughtAt(BankWork w)
    {
        try
        {
            var byHour = new double[24];
            foreach (var source in YearRun.SetupOf(w).Plan.Sources)
                for (var n = 0; n < source.Hourly.Count; n++)
                    byHour[n * source.SlotS / 3600 % 24] +=
                        source.Hourly[n] * source.SlotS * (source.Kind == RehearsalSourceKind.Charger ? source.SetV : 1);
            var best = byHour.Index().MaxBy(x => x.Item);
            return best.Item > 0 ? best.Index : null;
        }
        catch (Exception e) when (e is Missing or Refusal)
        {
            return null;
        }
    }

    /// <summary>How deep it may go is a house rule: as those of the other sets have it.</summary>
    private void Floor(BankResult bank)
    {
        var rules = new DesignRules(design.HouseRules);
        var id = BankNeed.DodRule(bank.Unit.Chemistry);
        foreach (var set in Enum.GetValues<RuleSet>())
            if (HouseRuleTable.Get(id).NumberOf(set) is { } share && Math.Abs(share - rules.Number(id)) > 1e-9)
                ways.Add(
                    new($"floor at {Say.Percent(1 - share)}", 0, d =>
                        d with
                        {
                            HouseRules = d.HouseRules with
                            {
                                Own = new Dictionary<string, JsonElement>(d.HouseRules.Own)
                                {
                                    [id] = JsonSerializer.SerializeToElement(share),
                                },
                            },
                        }
                    )
                );
    }

    private void Of(Source source, int at)
    {
        DesignDocument Changed(DesignDocument d, Func<Source, Source> change) =>
            With(d, b => b with { Sources = [.. b.Sources.Select((s, i) => i == at ? change(s) : s)] });
        var name = source.Name.Length > 0 ? source.Name.ToLowerInvariant() : "it";
        switch (source.Kind)
        {
            case SourceKind.Solar when source.Array is { Module.Watts: > 0 and var watts }:
                ways.Add(
                    new($"{name} half as large again", null, d =>
                        Changed(d, s => s with { Array = s.Array! with { Module = s.Array.Module with { Watts = watts * MoreSun } } })
                    )
                );
                break;
            case SourceKind.Mains when source is { Weekdays: { Count: > 0 and < 7 } days, Windows.Count: > 0 }:
                // In the middle of the longest stretch without.
                var more = Enumerable.Range(0, 7).Where(x => !days.Contains(x)).MaxBy(x => Gap(days, x));
                ways.Add(
                    new($"{name} on {DayNames[more]} too", 0, d => Changed(d, s => s with { Weekdays = [.. days.Append(more).Order()] }))
                );
                break;
            case SourceKind.Generator when source.Start is { } start:
                if (start.BelowSoc is { } soc && soc + MoreSoc < 1)
                    ways.Add(
                        new($"{name} from {Say.Percent(soc + MoreSoc)} on", 0, d =>
                            Changed(d, s => s with { Start = s.Start! with { BelowSoc = soc + MoreSoc } })
                        )
                    );
                break;
        }
        if (source is { Kind: SourceKind.Mains, Windows: [.., [var from, < 23 and var to]] windows })
            ways.Add(new($"{name} an hour longer", 0, d => Changed(d, s => s with { Windows = [.. windows.SkipLast(1), [from, to + 1]] })));
    }

    /// <summary>Days from the nearest day that has it, on either side.</summary>
    private static int Gap(IReadOnlyList<int> days, int day) => days.Min(x => Math.Min((day - x + 7) % 7, (x - day + 7) % 7));

    private static readonly string[] DayNames = ["Mondays", "Tuesdays", "Wednesdays", "Thursdays", "Fridays", "Saturdays", "Sundays"];

    private void Units(BankWork w, BankResult bank)
    {
        Bank Sized(Bank b, UnitItem unit, int parallel) => b with { Unit = unit, Series = bank.Layout.Series, Parallel = parallel };
        var price = design.Prices.Of(bank.Unit);
        if (bank.Layout.Parallel < BankStage.MostStrings && (bank.Layout.Parallel + 1) * bank.Layout.Series <= DesignCheck.MostUnits)
            ways.Add(new("a string more", price * bank.Layout.Series, d => With(d, b => Sized(b, bank.Unit, bank.Layout.Parallel + 1))));
        var larger = Catalogue
            .Units.Where(u => u.Chemistry == bank.Unit.Chemistry && u.Cells == bank.Unit.Cells && u.Ah > bank.Unit.Ah)
            .MinBy(u => (u.Ah, u.Price ?? double.MaxValue));
        if (larger is not null)
            ways.Add(
                new($"units of {Say.Number(larger.Ah)} Ah", (design.Prices.Of(larger) - price) * bank.Layout.Units, d =>
                    With(d, b => Sized(b, larger, bank.Layout.Parallel))
                )
            );
    }
}

using InkyBadger.Core.Charging;
using InkyBadger.Core.Design;
using InkyBadger.Core.Work;
using InkyBadger.Core.Working;

namespace InkyBadger.Core.Rehearsal;

/// <summary>A source on the days: what an array’s disc is measured by is its clear day [Wh].</summary>
public sealed record YearSource(string Id, string Name, SourceKind Kind, double? ClearWh);

/// <summary>Something dropped, with its hours from the beginning [h], and its place in the document’s list.</summary>
public sealed record YearDrop(int Index, DropKind Kind, double FromH, double ToH, string Words);

/// <summary>What a run begins with: its first day as YYYY-MM-DD, floor [0 to 1], the names of what is drawn.</summary>
/// <param name="Wait">Why there is no run yet; else null.</param>
public sealed record YearIntro(
    string First,
    int Days,
    int Strings,
    double FloorSoc,
    double RatedWh,
    IReadOnlyList<YearSource> Sources,
    IReadOnlyList<YearDrop> Drops,
    string? Wait
);

/// <summary>Some days of a run, from one on (from 0), and how each begins, to be given back to <see cref="YearStretch"/>.</summary>
public sealed record YearMonth(int From, IReadOnlyList<YearDay> Days, IReadOnlyList<YearQuarters> Quarters, IReadOnlyList<string> Begins);

/// <summary>A load that must not go dark: hours without its feed while it was asked for, the longest at a stretch [h].</summary>
public sealed record StayDark(string Load, string Name, bool HasReserve, double Hours, double LongestH);

/// <summary>How a year went.</summary>
/// <param name="DarkDays">On which something was asked for and not given.</param>
/// <param name="CyclesPerYear">Equivalent full ones.</param>
/// <param name="Lowest">Day of the lowest charge, as YYYY-MM-DD.</param>
/// <param name="FortnightDarkH">Dark hours of each two weeks, by their first day [h].</param>
/// <param name="Stays">What must not go dark, and for how long it did.</param>
/// <param name="Working">How the figures came about, each under its place here.</param>
public sealed record YearOutcome(
    string Headline,
    int DarkDays,
    double DarkH,
    string? FirstDark,
    string? LastDark,
    double LowestSoc,
    string Lowest,
    double CyclesPerYear,
    double LongestUnfilledDays,
    RehearsalResult Sums,
    IReadOnlyList<double> FortnightDarkH,
    IReadOnlyList<StayDark> Stays,
    IReadOnlyList<Equation> Working
)
{
    /// <summary>What is known of the bank from now on.</summary>
    public Lesson Lesson => new(LowestSoc, Lowest, DarkH, LongestUnfilledDays, CyclesPerYear);
}

/// <summary>A bank's year, run month by month so that it can be shown while it runs, and stopped (method, 11).</summary>
public sealed class YearRun
{
    private readonly RehearsalSetup? setup;
    private readonly Rehearsal? run;
    private readonly YearReader? reader;
    private int day;

    public YearIntro Intro { get; }

    private readonly IReadOnlyList<Load> stays;

    private YearRun(YearIntro intro, RehearsalSetup? setup, Bank bank)
    {
        (Intro, this.setup) = (intro, setup);
        stays = [.. bank.Demand.Loads.Where(l => l.MustStay)];
        if (setup is null)
            return;
        run = new(setup.Plan);
        reader = new(setup.Plan);
    }

    /// <param name="weather">Another number than the document's; null: its own.</param>
    public static YearRun Of(DesignDocument design, int bankIndex, double? weather = null)
    {
        var w = new SiteWork(design)[bankIndex];
        try
        {
            var setup = SetupOf(w, weather);
            return new(IntroOf(w, setup), setup, w.Document);
        }
        catch (Missing missing)
        {
            return new(Waiting(design, missing.Gap.Sentence), null, w.Document);
        }
        catch (Refusal refusal)
        {
            return new(Waiting(design, $"{refusal.Field}: {refusal.Message}"), null, w.Document);
        }
    }

    internal static RehearsalSetup SetupOf(BankWork w, double? weather = null, (int First, int End)? only = null)
    {
        if (w.Energy.Value is not { EnergyBankWh: > 0 })
            throw new Missing(new(Station.Loads, "/demand/loads", "add the first load"));
        var strings = w.Pack.Need().Strings;
        var first = strings[0].Units;
        if (strings.Any(s => s.Units.Any(u => u.Item.Chemistry != first[0].Item.Chemistry)))
            throw new Missing(new(Station.Bank, "/positions", "two chemistries in one bank are not run: their volts never agree"));
        if (strings.Any(s => s.Units.Sum(u => u.Item.Cells) != first.Sum(u => u.Item.Cells)))
            throw new Missing(new(Station.Bank, "/positions", "strings of other volts in one bank are not run"));
        return new(w, weather: weather, only: only);
    }

    private static YearIntro Waiting(DesignDocument design, string why) =>
        new(new RehearsalDates(design.Rehearsal.From, RehearsalSetup.Days).First.ToString("yyyy-MM-dd"), 0, 0, 0, 0, [], [], why);

    private static YearIntro IntroOf(BankWork w, RehearsalSetup setup)
    {
        var named = w.Charging.Value?.Sources.ToDictionary(s => s.Id, s => s) ?? [];
        return new(
            setup.Dates.First.ToString("yyyy-MM-dd"),
            RehearsalSetup.Days,
            setup.Plan.Strings.Count,
            setup.Plan.FloorSoc,
            w.Bank.Need().Holds.RatedWh,
            [
                .. setup.SourceIds.Select(id =>
                    named.TryGetValue(id, out var s)
                        ? new YearSource(id, s.Name, s.Kind, setup.ClearWh(id))
                        : new YearSource(id, "from another bank", SourceKind.Other, null)
                ),
            ],
            [
                .. setup.Drops.Select(d => new YearDrop(
                    w.Scene.Design.Rehearsal.Drops.Index().First(x => ReferenceEquals(x.Item, d.Drop)).Index,
                    d.Drop.Kind,
                    d.From,
                    d.To,
                    RehearsalWords.Of(w, d.Drop)
                )),
            ],
            null
        );
    }

    /// <summary>The days of the next month; null: the year is over.</summary>
    public YearMonth? Next()
    {
        if (run is null || reader is null || setup is null || day >= setup.Plan.Days)
            return null;
        var from = day;
        var month = setup.Dates.Month(day);
        var into = reader;
        var begins = new List<string>();
        do
        {
            begins.Add(run.Save().Write());
            run.Go(ref into);
            day++;
        } while (day < setup.Plan.Days && setup.Dates.Month(day) == month);
        return new(from, [.. reader.Days.Skip(from)], [.. reader.QuartersOf.Skip(from)], begins);
    }

    /// <summary>The next day, step by step, to a reader of one's own; false: the year is over. What was read so has no outcome.</summary>
    public bool Next(IRehearsalReader own)
    {
        if (run is null || setup is null || day >= setup.Plan.Days)
            return false;
        run.Go(ref own);
        day++;
        return true;
    }

    /// <summary>How it went so far; null: nothing could be run.</summary>
    public YearOutcome? Outcome()
    {
        if (run is null || reader is null || setup is null || reader.Days.Count == 0)
            return null;
        var sums = run.Result();
        var dark = reader.Days.Index().Where(d => d.Item.DarkH > 0).ToList();
        string Date(int d) => setup.Dates.Of(d).ToString("yyyy-MM-dd");
        var lowest = Math.Clamp((int)Math.Floor((sums.LowestSocH - 1e-9) / 24), 0, reader.Days.Count - 1);
        return new(
            RehearsalWords.Headline(setup, reader.Days, sums, lowest),
            dark.Count,
            sums.DarkHours,
            dark.Count > 0 ? Date(dark[0].Index) : null,
            dark.Count > 0 ? Date(dark[^1].Index) : null,
            sums.LowestSoc,
            Date(lowest),
            sums.EquivalentFullCycles * RehearsalSetup.Days / reader.Days.Count,
            sums.LongestUnfilledH / 24,
            sums,
            Fortnights(reader.Days),
            [.. stays.Select(l => Stay(l, l.Kind == LoadKind.Ac ? reader.Ac : reader.Dc))],
            RehearsalWorking.Of(setup, reader.Days, sums)
        );
    }

    /// <summary>Days that are looked at closely.</summary>
    public const int Fortnight = 14;

    private static StayDark Stay(Load load, DarkFeed feed) => new(load.Id, load.Name, load.HasReserve, feed.Hours, feed.LongestH);

    private static double[] Fortnights(IReadOnlyList<YearDay> days) =>
        [.. Enumerable.Range(0, Math.Max(0, days.Count - Fortnight + 1)).Select(d => days.Skip(d).Take(Fortnight).Sum(x => x.DarkH))];

    /// <summary>The whole of it at once.</summary>
    public YearOutcome? Whole(CancellationToken stop = default)
    {
        while (Next() is not null)
            stop.ThrowIfCancellationRequested();
        return Outcome();
    }
}

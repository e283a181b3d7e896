using System.Globalization;
using InkyBadger.Core.Design;
using InkyBadger.Core.Work;

namespace InkyBadger.Core.Logs;

/// <summary>A capacity test of a unit: its day and the share of its rating [0 to 2].</summary>
public sealed record UnitTest(string Day, double Share);

/// <summary>
/// A unit with its history: where it stands (null: out of service), rest volts read last and how far they are from the middle of its mates’
/// [V, mV], its tests, and the year in which it comes to 80 % or to the end of its calendar life.
/// </summary>
/// <param name="Asks">What the ledger does not know of this place; null: nothing.</param>
/// <param name="Look">Why it is to be looked at; null: it is not.</param>
public sealed record LedgerUnit(
    string? Place,
    string? Serial,
    string Item,
    string? InService,
    string? OutOfService,
    string? Bought,
    double? Price,
    double? RestV,
    double? ApartMv,
    IReadOnlyList<UnitTest> Tests,
    int? EndsYear,
    string? Words,
    string? Asks,
    string? Look
);

/// <summary>The units of a bank as they came, were moved, tested and went: the history stays when the design changes.</summary>
public static class UnitLedger
{
    /// <summary>A 12 V unit that rests farther than this from its mates leaves them [V].</summary>
    private const double ApartV = 0.03,
        ApartTest = 0.05;

    /// <summary>Rest volts that are compared were read within so many days of each other.</summary>
    private const int SameDays = 3;

    private sealed class Life
    {
        public required string Serial { get; init; }
        public string? Place { get; set; }
        public string Item { get; set; } = "";
        public DateOnly? In { get; set; }
        public DateOnly? Out { get; set; }
        public string? Bought { get; set; }
        public double? Price { get; set; }
        public List<(DateOnly Day, double V)> Rests { get; } = [];
        public List<(DateOnly Day, double Ah)> Tests { get; } = [];
        public List<string> Words { get; } = [];
    }

    /// <summary>
    /// Every place of the bank as the design has it, in its order, then the units that are out of service, the last first.
    /// </summary>
    public static IReadOnlyList<LedgerUnit> Work(BankWork w, IReadOnlyList<LogEntry> entries, DateOnly today)
    {
        if (w.Pack.Value is not { } pack)
            return [];
        var lives = Lives(entries);
        var at = new Dictionary<string, Life>();
        foreach (var life in lives.Where(l => l is { Out: null, Place: not null }))
            at[life.Place!] = life;
        var list = new List<LedgerUnit>();
        var newest = at.Values.SelectMany(l => l.Rests).Select(r => r.Day).DefaultIfEmpty().Max();
        foreach (var (s, of) in pack.Strings.Index())
        foreach (var (u, unit) in of.Units.Index())
        {
            var place = $"{Say.StringName(s + 1)}{u + 1}";
            at.Remove(place, out var life);
            var asks =
                life is null ? "not in the ledger yet"
                : life.Item.Length > 0 && life.Item != unit.Item.Name ? $"the design has {unit.Item.Name} here now"
                : null;
            list.Add(Of(place, life, unit.Item, asks, today));
        }
        // Where the design has no such place any more.
        foreach (var left in at.Values)
            list.Add(Of(left.Place, left, null, "the design has no such place any more", today));
        Compare(list, lives, newest, pack.UsualUnit.Item.Cells);
        list.AddRange(lives.Where(l => l.Out is not null).OrderByDescending(l => l.Out).Select(l => Of(null, l, null, null, today)));
        return list;
    }

    private static List<Life> Lives(IReadOnlyList<LogEntry> entries)
    {
        var lives = new List<Life>();
        foreach (var e in entries.Where(e => e.Kind >= LogEntryKind.UnitIn && e.Day is not null).OrderBy(e => e.At, StringComparer.Ordinal))
        {
            var day = e.Day!.Value;
            var life = lives.FindLast(l => l.Serial == e.Serial && (l.Out is null || e.Kind != LogEntryKind.UnitIn));
            if (life is null)
            {
                if (e.Serial is null)
                    continue;
                life = new() { Serial = e.Serial };
                lives.Add(life);
            }
            switch (e.Kind)
            {
                case LogEntryKind.UnitIn:
                    // Whoever stood there before stands there no more.
                    foreach (var other in lives.Where(l => l != life && l.Out is null && l.Place == e.Place))
                        other.Place = null;
                    (life.Place, life.In, life.Bought, life.Price) = (e.Place, day, e.Bought, e.Price);
                    life.Item = e.Item ?? "";
                    Note(life, e);
                    break;
                case LogEntryKind.UnitMoved:
                    foreach (var other in lives.Where(l => l != life && l.Out is null && l.Place == e.Place))
                        other.Place = null;
                    life.Words.Add($"{life.Place} to {e.Place}, {Month(day)}");
                    life.Place = e.Place;
                    break;
                case LogEntryKind.UnitOut:
                    (life.Out, life.Place) = (day, null);
                    Note(life, e);
                    break;
                case LogEntryKind.UnitRest:
                    life.Rests.Add((day, e.Volts ?? 0));
                    break;
                case LogEntryKind.UnitTest:
                    life.Tests.Add((day, e.Ah ?? 0));
                    break;
                case LogEntryKind.UnitFault:
                    Note(life, e);
                    break;
                default:
                    break;
            }
        }
        return lives;
    }

    private static void Note(Life life, LogEntry e)
    {
        if (!string.IsNullOrWhiteSpace(e.Words))
            life.Words.Add($"{e.Words.Trim()}, {Month(e.Day!.Value)}");
    }

    private static string Month(DateOnly day) => day.ToString("MMM yyyy", CultureInfo.InvariantCulture);

    private static LedgerUnit Of(string? place, Life? life, UnitItem? item, string? asks, DateOnly today)
    {
        var rated = item?.Ah;
        List<UnitTest> tests = rated > 0 ? [.. life?.Tests.Select(t => new UnitTest($"{t.Day:yyyy-MM-dd}", t.Ah / rated.Value)) ?? []] : [];
        var years = life?.In is { } since && item?.CalendarYears is { } calendar ? since.Year + (int)Math.Floor(calendar) : (int?)null;
        var sound = life is null || !(rated > 0) ? [] : life.Tests.Where(t => t.Ah / rated.Value is > 0 and <= 2).ToList();
        if (sound.Count > 1)
        {
            var trend = HealthTrend.Work(
                [.. sound.Select(t => new HealthTest(t.Day.DayNumber, t.Ah / rated!.Value))],
                Math.Max(today.DayNumber, sound[^1].Day.DayNumber)
            );
            if (trend is { YearsLeft: { } left } && left < 100)
                years = Math.Min(years ?? int.MaxValue, today.AddDays((int)(left * 365.25)).Year);
        }
        return new(
            place,
            life?.Serial,
            item?.Name ?? life?.Item ?? "",
            Iso(life?.In),
            Iso(life?.Out),
            life?.Bought,
            life?.Price,
            life?.Rests.Count > 0 ? life.Rests[^1].V : null,
            null,
            tests,
            years,
            life?.Words.Count > 0 ? string.Join("; ", life.Words) : null,
            asks,
            null
        );
    }

    private static string? Iso(DateOnly? day) => day is { } d ? $"{d:yyyy-MM-dd}" : null;

    /// <summary>Units that were read together, each against the middle of all; and tests against the middle of the others’.</summary>
    private static void Compare(List<LedgerUnit> list, List<Life> lives, DateOnly newest, int cells)
    {
        var together = lives
            .Where(l => l is { Out: null, Place: not null, Rests.Count: > 0 } && newest.DayNumber - l.Rests[^1].Day.DayNumber <= SameDays)
            .ToDictionary(l => l.Place!, l => l.Rests[^1].V);
        var middle = Middle.Of([.. together.Values]);
        var share = Middle.Of([.. list.Where(u => u.Tests.Count > 0).Select(u => u.Tests[^1].Share)]);
        var most = ApartV * Math.Max(1, cells) / 4;
        for (var i = 0; i < list.Count; i++)
        {
            var unit = list[i];
            double? apart =
                unit.Place is { } place && together.Count > 1 && together.TryGetValue(place, out var v) ? (v - middle) * 1000 : null;
            string? look = null;
            if (Math.Abs(apart ?? 0) > most * 1000)
                look = $"rests {Say.Number(Math.Abs(apart!.Value))} mV {(apart < 0 ? "below" : "above")} its mates";
            if (unit.Tests.Count > 0 && list.Count(u => u.Tests.Count > 0) > 1 && unit.Tests[^1].Share < share - ApartTest)
                look =
                    $"holds {Say.Percent(unit.Tests[^1].Share, 0)}, its mates {Say.Percent(share, 0)}" + (look is null ? "" : $"; {look}");
            list[i] = unit with { ApartMv = apart, Look = look };
        }
    }
}

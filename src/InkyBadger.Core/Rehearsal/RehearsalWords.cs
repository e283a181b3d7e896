using System.Globalization;
using InkyBadger.Core.Design;
using InkyBadger.Core.Work;

namespace InkyBadger.Core.Rehearsal;

/// <summary>A year in words.</summary>
internal static class RehearsalWords
{
    private static string Day(RehearsalDates dates, int day) => dates.Of(day).ToString("d MMMM", CultureInfo.InvariantCulture);

    /// <summary>Dark is counted in hours, however many they are.</summary>
    private static string Dark(double hours) => hours < 1 ? Say.Hours(hours) : $"{Say.Number(hours, hours < 100 ? 1 : 0)} h";

    /// <summary>What came of it: dark, and after what the greater part of it; or how low it went.</summary>
    /// <param name="lowest">Day of the lowest charge (from 0).</param>
    public static string Headline(RehearsalSetup setup, IReadOnlyList<YearDay> days, RehearsalResult sums, int lowest)
    {
        if (setup.Plan.Sources.Count == 0 && setup.Plan.Generator is null)
            return sums.FirstDarkH is { } dark
                ? $"From full it lasts {Say.Hours(dark)}, then dark: nothing charges it"
                : $"Nothing charges it, and it is not dark in {days.Count} days";
        var on = days.Index().Where(d => d.Item.DarkH > 0).Select(d => d.Index).ToList();
        if (on.Count == 0)
            return $"Never dark; lowest {Say.Percent(sums.LowestSoc)} on {Day(setup.Dates, lowest)}";
        var span = on[0] == on[^1] ? $"on {Day(setup.Dates, on[0])}" : $"between {Day(setup.Dates, on[0])} and {Day(setup.Dates, on[^1])}";
        var text = $"Dark on {on.Count} {(on.Count == 1 ? "day" : "days")}, {Dark(sums.DarkHours)} in all, {span}";
        return After(setup, days, sums.DarkHours) is { } after ? $"{text}; {after}" : text;
    }

    /// <summary>Of what was dropped the one that most dark hours follow within a fortnight.</summary>
    private static string? After(RehearsalSetup setup, IReadOnlyList<YearDay> days, double darkH)
    {
        (Drop Drop, double H)? most = null;
        foreach (var (drop, from, to) in setup.Drops)
        {
            var h = 0.0;
            for (var day = (int)(from / 24); day < days.Count && day * 24 < to + 14 * 24; day++)
                h += days[day].DarkH;
            if (h > (most?.H ?? 0))
                most = (drop, h);
        }
        if (most is not { } found || found.H < darkH / 2)
            return null;
        var share = found.H >= darkH - 1e-6 ? "all of it" : $"{Dark(found.H)} of them";
        return found.Drop.Weekdays is { } weekdays
            ? $"{share} with {Of(found.Drop.Kind)} {OnDays(weekdays)}"
            : $"{share} after {Noun(found.Drop)}";
    }

    private static readonly string[] ShortDays = ["Mon", "Tue", "Wed", "Thu", "Fri", "Sat", "Sun"];

    /// <summary>Mon to Fri, or Mon, Wed.</summary>
    private static string OnDays(IReadOnlyList<int> days)
    {
        List<int> sorted = [.. days.Distinct().Order()];
        return sorted.Count > 2 && sorted[^1] - sorted[0] == sorted.Count - 1
            ? $"{ShortDays[sorted[0]]} to {ShortDays[sorted[^1]]}"
            : string.Join(", ", sorted.Select(d => ShortDays[d]));
    }

    /// <summary>What there is on the days of the week that it is bound to.</summary>
    private static string Of(DropKind kind) =>
        kind switch
        {
            DropKind.Weather => "a dull sky",
            DropKind.String => "a string open",
            DropKind.Fuse => "the fuse open",
            DropKind.Charger => "a charger out",
            DropKind.Inverter => "the inverter left on",
            DropKind.Guest => "a guest",
            DropKind.Cold => "cold cells",
            _ => "no plug",
        };

    private static string Noun(Drop drop) =>
        drop.Kind switch
        {
            DropKind.Weather => "the cloudy days",
            DropKind.String => $"string {Say.StringName(drop.String ?? 1)} opened",
            DropKind.Fuse => "the fuse opened",
            DropKind.Charger => "a charger failed",
            DropKind.Inverter => "the inverter was left on",
            DropKind.Guest => "a guest's load",
            DropKind.Cold => "the cold",
            _ => "the plug was forgotten",
        };

    public static string Of(BankWork w, Drop drop) => drop.Weekdays is { } days ? $"{Whole(w, drop)}, {OnDays(days)}" : Whole(w, drop);

    private static string Whole(BankWork w, Drop drop) =>
        drop.Kind switch
        {
            DropKind.Weather => $"sky {Say.Percent(drop.Value ?? 0.25)} of the usual",
            DropKind.String => $"string {Say.StringName(drop.String ?? 1)} opens",
            DropKind.Fuse => "the main fuse opens",
            DropKind.Charger => $"{NameOf(w, drop.Source)} fails",
            DropKind.Inverter => "inverter left on",
            DropKind.Guest => $"a guest, {Say.W(drop.Value ?? 0)}",
            DropKind.Cold => $"cells at {Say.Number(drop.Value ?? -5)} °C",
            _ => drop.Weekdays is null ? "plug forgotten" : "no plug",
        };

    private static string NameOf(BankWork w, string? id) =>
        w.Document.Sources.FirstOrDefault(s => id is null || s.Id == id) is { Name.Length: > 0 } source ? source.Name : "a charger";
}

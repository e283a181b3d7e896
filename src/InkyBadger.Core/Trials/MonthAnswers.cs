using InkyBadger.Core.Design;
using InkyBadger.Core.Findings;
using InkyBadger.Core.Work;

namespace InkyBadger.Core.Trials;

/// <summary>A change that balances a month: so much panel, or so many hours of plug.</summary>
public sealed record MonthAnswer(string Label, string Outcome, IReadOnlyList<DesignChange> Changes);

/// <summary>How much panel does one need, and how long the plug? Solved for a month, and tried.</summary>
internal static class MonthAnswers
{
    private const double PluggedFrom = 18;

    public static IReadOnlyList<MonthAnswer> Of(BankWork w, ChargingScene scene, int month)
    {
        var charging = w.Charging.Value!;
        var known = Faults(w);
        var answers = new List<MonthAnswer>();
        foreach (var (label, then, keeps) in Arrays(w, scene, charging, month).Concat(Plugs(w, scene, charging, month)))
        {
            var work = w.With(then);
            if (work.Charging.Value is not { Months: { Count: 12 } months } || !keeps(months[month]))
                continue;
            if (Faults(work).Except(known).Any())
                continue;
            answers.Add(
                new(
                    label,
                    $"{Say.Month(month + 1)}: {Say.Wh(Math.Max(0, months[month].BalanceWh))} to spare",
                    DesignDifference.Between(DesignDifference.NodeOf(w.Document), then, w.Scene.Pointer)
                )
            );
        }
        return answers;
    }

    private static HashSet<(string, string?)> Faults(BankWork w)
    {
        var findings = new List<Finding>();
        FindingRules.Evaluate(w, findings, headlines: false, mends: false);
        return [.. findings.Where(f => f.Grade <= Grade.Fault).Select(f => (f.Rule, f.About))];
    }

    /// <summary>As many more strings of each array as the balance asks, with a controller that passes as much more.</summary>
    private static IEnumerable<(string Label, Bank Then, Func<ChargeMonth, bool> Keeps)> Arrays(
        BankWork w,
        ChargingScene scene,
        ChargingResult charging,
        int month
    )
    {
        var plate = charging.Sources.Sum(s => s.ArrayW ?? 0);
        var first = plate <= 0;
        if (first)
            plate = ChargingStage.FlatRoof.Array!.Module.Watts;
        if (
            charging.Months[month].WithoutPlugWh >= 0
            || ChargingStage.Balancing(scene, month) is not { } wanted
            || wanted <= plate && !first
        )
            yield break;
        var scale = wanted / plate;
        // Whole strings, and what the controller clips, may ask for one more.
        for (var more = 0; more < 4; more++)
        {
            var extra = more;
            int StringsOf(SolarArray array) => (int)Math.Ceiling(array.Strings * scale - Tolerant.Noise) + extra;
            var sources = (first ? w.Document.Sources.Append(NewRoof(w, charging)) : w.Document.Sources).Select(s =>
                ChargingScene.ArrayW(s) is not null && s.Array is { } array
                    ? s with
                    {
                        Array = array with { Strings = StringsOf(array) },
                        Amps = s.Amps is { } amps ? Math.Ceiling(amps * StringsOf(array) / array.Strings) : null,
                    }
                    : s
            );
            var list = sources.ToList();
            if (list.Any(s => s.Array is { Strings: > 64 }))
                yield break;
            var watts = list.Sum(s => ChargingScene.ArrayW(s) ?? 0);
            var then = w.Document with { Sources = list };
            if (w.With(then).Charging.Value is { Months: { Count: 12 } months } && months[month].WithoutPlugWh >= 0)
            {
                yield return (first ? $"{Say.W(watts)} of panel, flat" : $"{Say.W(watts)} of panel", then, m => m.WithoutPlugWh >= 0);
                yield break;
            }
        }
    }

    /// <summary>A first array, with a controller that passes a module.</summary>
    private static Source NewRoof(BankWork w, ChargingResult charging)
    {
        var id = 1;
        while (w.Document.Sources.Any(s => s.Id == $"s{id}"))
            id++;
        return ChargingStage.FlatRoof with { Id = $"s{id}", Amps = ChargingStage.FlatRoof.Array!.Module.Watts / charging.Wants.FloatV };
    }

    private static IEnumerable<(string Label, Bank Then, Func<ChargeMonth, bool> Keeps)> Plugs(
        BankWork w,
        ChargingScene scene,
        ChargingResult charging,
        int month
    )
    {
        if (
            charging.Months[month].BalanceWh >= 0
            || ChargingStage.PlugOf(scene, charging.Sources, charging.Months[month]) is not { } plug
            || w.Document.Sources.Index().FirstOrDefault(s => s.Item.Id == plug.Source) is not { Item: { } source } at
        )
            yield break;
        // Quarters of an hour, as one sets a clock; what runs meanwhile may ask for one more.
        for (var more = 0; more < 4; more++)
        {
            var hours = Math.Ceiling(plug.HoursADay * 4) / 4 + more * 0.25;
            if (hours >= 24)
                yield break;
            var from = source.Windows is [var first, ..] ? first[0] : PluggedFrom;
            var end = (from + hours) % 24;
            var then = w.Document.WithSource(at.Index, x => x with { Windows =
                    [
                        [from, end == 0 ? 24 : end],
                    ] });
            if (w.With(then).Charging.Value is { Months: { Count: 12 } months } && months[month].BalanceWh >= 0)
            {
                yield return ($"{Say.Hours(hours)} of {source.Name} from {Say.Clock(from)}", then, m => m.BalanceWh >= 0);
                yield break;
            }
        }
    }
}

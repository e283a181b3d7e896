using InkyBadger.Core.Design;
using InkyBadger.Core.Reference;
using InkyBadger.Core.Work;

namespace InkyBadger.Core.Findings;

/// <summary>What the year leaves uncovered.</summary>
internal static class YearFindings
{
    public static FindingRule[] Rules { get; } = [WorstMonth, LeadNotFull, LeadUnfilled];

    /// <summary>Lead that does not come to full for longer grows crystals it does not lose again [days].</summary>
    private const double LeadDays = 10;

    private const double PluggedFrom = 18;

    /// <summary>The months, where something that brings energy is told; a bank without sources is not judged by them.</summary>
    private static IReadOnlyList<ChargeMonth> Months(FindingScene s) =>
        s.Results.Charging is { Months: { Count: 12 } months } && months.Any(m => m.BySource.Sum() > 0) ? months : [];

    private static Finding? WorstMonth(FindingScene s)
    {
        if (Months(s).MinBy(m => m.BalanceWh) is not { BalanceWh: < 0 } worst)
            return null;
        return s.Make(
            "charge.worst-month",
            Grade.Note,
            Station.Charging,
            "/sources",
            $"{Say.Month(worst.Month)} misses {Say.Wh(-worst.BalanceWh)} a day",
            worst.HoursToFloor is { } hours
                ? $"From full the bank is down to its floor after {Say.Hours(hours)}."
                : "What comes in is less than what goes out.",
            [new("asked a day", worst.NeedWh, "Wh"), new("brought a day", worst.BySource.Sum(), "Wh")],
            () => Remedies(s, worst)
        );
    }

    private static Finding? LeadNotFull(FindingScene s)
    {
        if (s.Results.Bank is not { } bank || Chemistries.Get(bank.Unit.Chemistry).IsLithium)
            return null;
        var months = Months(s).Where(m => m.HoursToFull is not <= LeadDays * 24).ToList();
        return months.Count == 0
            ? null
            : s.Make(
                "charge.lead-not-full",
                Grade.Caution,
                Station.Charging,
                "/sources",
                $"In {Say.Count(months.Count).ToLowerInvariant()} of 12 months lead is not full within {LeadDays:0} days",
                "Half charged for long, its plates sulphate and keep it half charged: it wants to be full every week or two.",
                [new("months", months.Count, ""), new("least brought a day", months.Min(m => m.BySource.Sum()), "Wh")],
                () => Remedies(s, months.MinBy(m => m.BalanceWh)!)
            );
    }

    /// <summary>
    /// What the mean days of the months do not show: a dull fortnight. Any change is a year of its own, so nothing is offered here; what
    /// would end it is run where the year is.
    /// </summary>
    private static Finding? LeadUnfilled(FindingScene s)
    {
        if (
            s.Results is not { Bank: { } bank, Lesson: { UnfilledDays: > LeadDays and var days } }
            || Chemistries.Get(bank.Unit.Chemistry).IsLithium
        )
            return null;
        return s.Make(
            "rehearse.lead-unfilled",
            Grade.Caution,
            Station.Charging,
            "/sources",
            $"In the year rehearsed lead stays {Say.Number(days, 0)} days without being full",
            $"More than {LeadDays:0} days, and its plates sulphate. A change of the design is run through a year in Rehearse.",
            [new("days without being full", days, ""), new("days at most", LeadDays, "")]
        );
    }

    /// <summary>Longer at the plug, and more modules; what ends the finding is tried.</summary>
    private static IEnumerable<MendOffer> Remedies(FindingScene s, ChargeMonth worst)
    {
        var charging = s.Results.Charging!;
        foreach (var (i, source) in s.Bank.Sources.Index())
        {
            var result = charging.Sources[i];
            if (ChargingStage.IsPlug(source.Kind) && result.GivesA is > 0 and var amps)
            {
                var watts = amps * result.FillV;
                foreach (var more in (double[])[1, 1.1, 1.25, 1.5, 2])
                {
                    var hours = (worst.BySource[i] - worst.BalanceWh * more / LeastKept) / watts;
                    // Quarters of an hour, as one sets a clock.
                    hours = Math.Ceiling(hours * 4) / 4;
                    if (hours is > 0 and < 24)
                        yield return FindingScene.Offer(
                            $"{source.Name}: {Say.Hours(hours)} a day",
                            $"from {Say.Clock(PluggedFrom)} on",
                            s.Bank.WithSource(i, x => x with { Windows =
                                    [
                                        [PluggedFrom, (PluggedFrom + hours) % 24],
                                    ] }),
                            "plug"
                        );
                }
            }
            if (result.ArrayW is not > 0 || source.Array is not { } array)
                continue;
            foreach (var strings in Enumerable.Range(array.Strings + 1, MostMoreStrings).Where(n => n <= 64))
                yield return FindingScene.Offer(
                    $"{source.Name}: {Say.Strings(strings)} of modules",
                    $"{Say.W(result.ArrayW.Value / array.Strings * strings)} in all",
                    s.Bank.WithSource(i, x => x with { Array = array with { Strings = strings }, Amps = x.Amps * strings / array.Strings }),
                    "array"
                );
        }
    }

    /// <summary>The least a chemistry keeps of what is stored, so that an offer is rather too much than too little.</summary>
    private const double LeastKept = 0.82;

    private const int MostMoreStrings = 6;
}

using InkyBadger.Core.Working;

namespace InkyBadger.Core.Logs;

/// <summary>What the log says in sentences, and how its figures came about.</summary>
internal static class LogWords
{
    /// <summary>Where a figure stands; the screen asks for its working by this.</summary>
    public const string At = "/log/";

    /// <summary>Beyond so many times a ratio says nothing any more.</summary>
    private const double FarOff = 10;

    public static string Moment(long at) => DateTime.UnixEpoch.AddSeconds(at).ToString("yyyy-MM-dd'T'HH:mm");

    public static string Headline(
        LogPlan plan,
        AgainstPlanResult? against,
        IReadOnlyList<LogLesson> lessons,
        IReadOnlyList<LedgerUnit> units,
        IReadOnlyList<LogUpkeep> upkeep,
        int slots,
        int wholeDays,
        LogHand? hand
    )
    {
        if (slots == 0 && hand is null)
            return Danger(units, upkeep) ?? "No reading yet: take in a monitor’s file, or type this morning’s charge";
        if (slots == 0)
            return Danger(units, upkeep)
                ?? $"{Say.Percent(hand!.Soc, 0)} at the last reading"
                    + (hand.PlannedDays is { } days ? $": {Say.Number(days, 1)} days in hand as planned" : "");
        if (against is null)
            return wholeDays > 0 ? "Nothing is planned on these days" : "No whole day has been read here yet";
        var rule = plan.Work.Rules.Number("plan-differs");
        var planned = against.MedianWh / Math.Max(against.Ratio, 1e-9);
        var causes = lessons
            .Where(l => l is { Short: not null, NotYet: null } && Math.Abs(l.WhADay) > 0 && l.WhADay > 0 == against.Ratio > 1)
            .Take(2)
            .Select(l => l.Short!)
            .ToList();
        var because = causes.Count > 0 ? ": " + string.Join(", and ", causes) : "";
        if (against.Verdict == PlanVerdict.NotYet && (against.Ratio >= rule || against.Ratio <= 1 / rule))
            return $"{Say.Wh(against.MedianWh)} a day so far, {Say.Wh(planned)} planned: "
                + (against.Days < 3 ? "three whole days are needed to be sure" : "the days differ too much to be sure");
        if (against.Ratio is > FarOff or < 1 / FarOff)
            return $"The bank gives {Say.Wh(against.MedianWh)} a day, {Say.Wh(planned)} planned{because}";
        if (against.Ratio >= rule || against.Ratio <= 1 / rule)
            return $"The bank gives {Say.Number(against.Ratio, 2)} times the plan{because}";
        return Danger(units, upkeep) ?? $"The bank gives what was planned, {Say.Wh(against.MedianWh)} a day";
    }

    private static string? Danger(IReadOnlyList<LedgerUnit> units, IReadOnlyList<LogUpkeep> upkeep)
    {
        if (units.FirstOrDefault(u => u.Look is not null) is { } unit)
            return $"{unit.Place} leaves its mates: it {unit.Look}";
        var overdue = upkeep.Where(u => u.OverdueDays > 0).ToList();
        return overdue.Count == 0
            ? null
            : $"Overdue: {char.ToLowerInvariant(overdue[0].Label[0])}{overdue[0].Label[1..]}"
                + (overdue.Count > 1 ? $", and {Say.Count(overdue.Count - 1).ToLowerInvariant()} more" : "");
    }

    public static LogHand? Hand(
        LogPlan plan,
        IReadOnlyList<double?> soc,
        AgainstPlanResult? against,
        IReadOnlyList<LoggedDay> whole,
        IReadOnlyList<LogEntry> entries
    )
    {
        var typed = entries
            .Where(e => e is { Kind: LogEntryKind.Reading, Soc: not null, Seconds: not null })
            .OrderBy(e => e.Seconds)
            .LastOrDefault();
        if ((soc.Count > 0 ? soc[^1] : typed?.Soc) is not { } now)
            return null;
        var planned = whole.Count > 0 ? whole.Average(d => d.PlannedWh) : plan.Work.Energy.Need().EnergyBankWh;
        var used = against?.MedianWh ?? planned;
        var health = Math.Clamp(plan.Ah * plan.NominalV / plan.RatedWh, 0.01, 1);
        DaysInHandResult Of(double wh, double income) =>
            DaysInHand.Work(now, plan.RatedWh / plan.NominalV, plan.NominalV, wh, plan.FloorSoc, health, income, plan.ChargeEfficiency);
        var (asUsed, asPlanned) = (Of(used, 0), Of(planned, 0));
        var income = Middle.Of([.. whole.Select(d => d.SourceWh)]);
        var coming = Of(used, income);
        var like = $"If the coming days are like these, {Say.Wh(income)} in and {Say.Wh(used)} out,";
        var words =
            whole.Count == 0 ? "Without a whole day of readings the plan stands for use."
            : coming.FirstDarkDay is { } dark and < 60
                ? $"{like} the floor is reached " + (dark == 1 ? "today." : $"on the {Ordinal(dark)} day.")
            : coming.DaysToFull is { } full and < 60 ? $"{like} it is full again in {Say.Number(full, 1)} days."
            : $"{like} it holds.";
        return new(now, asUsed.Days, asPlanned.Days, words);
    }

    private static string Ordinal(int n) =>
        n switch
        {
            2 => "second",
            3 => "third",
            4 => "fourth",
            5 => "fifth",
            6 => "sixth",
            7 => "seventh",
            _ => $"{n}th",
        };

    public static IReadOnlyList<Equation> Working(
        LogPlan plan,
        AgainstPlanResult? against,
        IReadOnlyList<LoggedDay> whole,
        IReadOnlyList<LogLesson> lessons
    )
    {
        if (against is null || whole.Count == 0)
            return [];
        var planned = whole.Average(d => d.PlannedWh);
        Term[] told =
        [
            T.Worked("P", planned, "Wh", "planned", "/demand/energyBankWh"),
            .. lessons
                .Where(l => l is { NotYet: null, WhADay: not 0 } && l.Kind != LessonKind.Source)
                .Take(4)
                .Select((l, i) => T.Assumed($"L{i}", l.WhADay, "Wh", l.Title.TrimEnd('.'))),
        ];
        var rest = against.MedianWh - told.Sum(t => t.Value!.Value);
        return
        [
            new(
                At + "ratio",
                "times the plan",
                against.Ratio,
                "times",
                "{U} ÷ {P}",
                [
                    T.Worked("U", against.MedianWh, "Wh", $"used a day, the middle of {whole.Count}", At + "usedWh"),
                    T.Worked("P", planned, "Wh", "planned", "/demand/energyBankWh"),
                ],
                "13.2",
                null,
                "plan-differs"
            ),
            new(
                At + "usedWh",
                "used a day",
                against.MedianWh,
                "Wh",
                string.Join(" + ", told.Select(t => $"{{{t.Key}}}")) + " + {R}",
                [.. told, T.Assumed("R", rest, "Wh", "not told apart")],
                "13.2",
                "The middle of the whole days: what left the bank, and what sources gave beside it while they may."
            ),
        ];
    }
}

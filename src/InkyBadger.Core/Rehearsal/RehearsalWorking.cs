using InkyBadger.Core.Working;

namespace InkyBadger.Core.Rehearsal;

/// <summary>How the figures of a year came about: they are of no Evaluation, and so written by themselves.</summary>
internal static class RehearsalWorking
{
    /// <summary>Where a figure stands; the screen asks for its working by this.</summary>
    public const string At = "/rehearsal/outcome/";

    private const string Method = "11.2";

    public static IReadOnlyList<Equation> Of(RehearsalSetup setup, IReadOnlyList<YearDay> days, RehearsalResult sums)
    {
        var stepH = setup.Plan.StepS / 3600.0;
        var ah = setup.Plan.Strings.Sum(s => s.Ah);
        var served = sums.ServedAcWh + sums.ServedDcWh;
        var steps = T.Assumed("m", stepH, "h", "a step");
        Term[] brought = [.. setup.SourceIds.Select((id, n) => T.Assumed($"s{n}", days.Sum(d => d.SourceWh[n]), "Wh", setup.NameOf(id)))];
        var list = new List<Equation>
        {
            new(
                At + "darkH",
                "dark in the year",
                sums.DarkHours,
                "h",
                "{n} × {m}",
                [T.Assumed("n", sums.DarkHours / stepH, "", "steps in which something was asked and not given"), steps],
                Method
            ),
            new(
                At + "servedWh",
                "served in the year",
                served,
                "Wh",
                "{A} + {D}",
                [
                    T.Assumed("A", sums.ServedAcWh, "Wh", "on AC, step by step"),
                    T.Assumed("D", sums.ServedDcWh, "Wh", "on DC, step by step"),
                ],
                Method
            ),
            new(
                At + "unservedWh",
                "missed in the year",
                sums.UnservedWh,
                "Wh",
                "{Q} − {S}",
                [
                    T.Assumed("Q", setup.AskedWh(days.Count), "Wh", "asked in the year, day by day"),
                    new("S", served, "Wh", "served", Origin.WorkedOut, At + "servedWh"),
                ],
                Method
            ),
            new(
                At + "clippedWh",
                "refused in the year",
                sums.ClippedWh,
                "Wh",
                null,
                [],
                Method,
                "What arrays had and the bank did not take, step by step: it was full, too cold, or takes no more at its charge."
            ),
            new(
                At + "cyclesPerYear",
                "equivalent full cycles a year",
                sums.EquivalentFullCycles * RehearsalSetup.Days / days.Count,
                "",
                "{Q} ÷ {C} × {y} ÷ {n}",
                [
                    T.Assumed("Q", sums.EquivalentFullCycles * ah, "Ah", "left the strings, step by step"),
                    T.Assumed("C", ah, "Ah", "they hold"),
                    T.Assumed("y", RehearsalSetup.Days, "", "days a year"),
                    T.Assumed("n", days.Count, "", "days run"),
                ],
                Method
            ),
            new(
                At + "longestUnfilledDays",
                "longest without being full, in days",
                sums.LongestUnfilledH / 24,
                "",
                "{h} ÷ {d}",
                [
                    T.Assumed("h", sums.LongestUnfilledH, "h", $"below {Say.Percent(Rehearsal.FullFrom)} of its charge"),
                    T.Assumed("d", 24, "h", "a day"),
                ],
                Method
            ),
        };
        if (brought.Length > 0)
            list.Add(
                new(
                    At + "sourceWh",
                    "taken of the sources in the year",
                    sums.SourceWh,
                    "Wh",
                    string.Join(" + ", brought.Select(t => $"{{{t.Key}}}")),
                    brought,
                    Method
                )
            );
        if (sums.GeneratorStarts > 0)
            list.Add(
                new(
                    At + "generatorH",
                    "the generator runs in the year",
                    sums.GeneratorH,
                    "h",
                    "{n} × {m}",
                    [T.Assumed("n", sums.GeneratorH / stepH, "", "steps in which it runs"), steps],
                    Method
                )
            );
        return list;
    }
}

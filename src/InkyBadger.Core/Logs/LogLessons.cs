namespace InkyBadger.Core.Logs;

/// <summary>
/// What the whole days of a stretch teach about the plan, the strongest first (method, 13.10). A lesson is pressed only when the days agree
/// that it is one; else it says what it waits for.
/// </summary>
public static class LogLessons
{
    /// <param name="days">Of the stretch; those that are not whole teach nothing.</param>
    public static IReadOnlyList<LogLesson> Work(LogPlan plan, IReadOnlyList<LoggedDay> days, LogStarts starts)
    {
        List<LoggedDay> whole = [.. days.Where(d => d.Whole && !d.Empty)];
        if (whole.Count == 0)
            return [];
        return InOrder([.. new LoadLessons(plan, whole, starts).Lessons, .. new SourceLessons(plan, whole, starts).Lessons]);
    }

    /// <summary>Those that are sure first, the strongest of them first.</summary>
    internal static IReadOnlyList<LogLesson> InOrder(IEnumerable<LogLesson> lessons) =>
        [.. lessons.OrderBy(l => l.NotYet is not null).ThenByDescending(l => Math.Abs(l.WhADay))];
}

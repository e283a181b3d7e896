using InkyBadger.Core.Reference;

namespace InkyBadger.Core.Logs;

public enum UpkeepState
{
    InUse,
    Stored,
}

/// <summary>What is done to a bank from time to time, table <c>upkeep</c>: typical intervals, the maker’s and local rules first.</summary>
public sealed record UpkeepTask(
    string Task,
    string Label,
    IReadOnlyList<string> Chemistries,
    UpkeepState State,
    string When,
    int FirstDays,
    int IntervalDays
);

/// <summary>A task, the day it is due, in whole days since 2000-01-01, and how many it is over.</summary>
public sealed record UpkeepDue(string Task, string Label, int Due, int OverdueDays);

/// <summary>All that are due, by their day; how many are overdue, and the first of them.</summary>
public sealed record UpkeepResult(IReadOnlyList<UpkeepDue> Tasks, int Overdue, string? Next);

/// <summary>What of upkeep is due, by chemistry and what is fitted (method, 13.7).</summary>
public static class Upkeep
{
    /// <summary>In the table’s order.</summary>
    public static IReadOnlyList<UpkeepTask> All { get; } =
        TableFile.Read("upkeep", r => new UpkeepTask(
            r.Text("task"),
            r.Text("label"),
            r.Text("chemistries").Split(' '),
            r.Text("state") == "stored" ? UpkeepState.Stored : UpkeepState.InUse,
            r.Text("when"),
            (int)r.Num("first_days"),
            (int)r.Num("interval_days")
        ));

    /// <param name="chemistry">Its id.</param>
    /// <param name="fitted">Day [whole days since 2000-01-01].</param>
    /// <param name="today">Not before it.</param>
    /// <param name="state">In use or stored.</param>
    /// <param name="series">Units in series in a string [≥ 1].</param>
    /// <param name="communicating">They keep each other level.</param>
    /// <param name="ac">There is an AC side.</param>
    /// <param name="done">Task and day of what was done; the latest of a task counts.</param>
    /// <param name="intervals">Own intervals by task [d, ≥ 1].</param>
    /// <exception cref="Refusal">Names the offending input.</exception>
    public static UpkeepResult Work(
        string chemistry,
        int fitted,
        int today,
        UpkeepState state = UpkeepState.InUse,
        int series = 1,
        bool communicating = false,
        bool ac = false,
        IReadOnlyList<(string Task, int Day)>? done = null,
        IReadOnlyList<(string Task, int Days)>? intervals = null
    )
    {
        Chemistries.Get(chemistry);
        if (fitted > today)
            Require.Refuse(nameof(fitted), "is after today");
        Require.AtLeast(series, 1);
        foreach (var (task, day) in done ?? [])
        {
            Known(task);
            if (day > today)
                Require.Refuse("day", "is after today");
        }
        foreach (var (task, days) in intervals ?? [])
        {
            Known(task);
            Require.AtLeast(days, 1, "days");
        }
        var due = new List<UpkeepDue>();
        foreach (var t in All)
        {
            if (t.State != state || !t.Chemistries.Contains(chemistry))
                continue;
            if (t.When == "series" && (series < 2 || communicating) || t.When == "ac" && !ac)
                continue;
            int? own = (intervals ?? []).Where(x => x.Task == t.Task).Select(x => (int?)x.Days).LastOrDefault();
            int? last = (done ?? []).Where(x => x.Task == t.Task).Select(x => (int?)x.Day).Max();
            var day = last is { } l ? l + (own ?? t.IntervalDays) : fitted + Math.Min(t.FirstDays, own ?? t.FirstDays);
            due.Add(new(t.Task, t.Label, day, Math.Max(0, today - day)));
        }
        // Ties stay in the table's order.
        due = [.. due.OrderBy(d => d.Due)];
        return new(due, due.Count(d => d.OverdueDays > 0), due.Count > 0 ? due[0].Task : null);
    }

    private static void Known(string task)
    {
        if (!All.Any(t => t.Task == task))
            throw new Refusal("task", $"“{task}” is not a task of the table");
    }
}

using System.Globalization;
using InkyBadger.Core.Design;
using InkyBadger.Core.Words;
using InkyBadger.Core.Work;

namespace InkyBadger.Core.Logs;

/// <summary>
/// What makes lessons of whole days (method, 13.10): each is held against the plan, and offers its correction once the days agree that
/// it is one.
/// </summary>
internal abstract class LessonMaker(LogPlan plan, IReadOnlyList<LoggedDay> days, LogStarts starts)
{
    /// <summary>What comes to less of the day than this is not worth a lesson.</summary>
    private const double LeastShareWh = 0.02;

    private readonly List<LogLesson> lessons = [];

    protected LogPlan Plan => plan;

    /// <summary>Whole days on which the bank did not end, at least one.</summary>
    protected IReadOnlyList<LoggedDay> Days => days;
    protected LogStarts Starts => starts;

    public IReadOnlyList<LogLesson> Lessons => lessons;

    protected double SeenH(LoggedDay day) => Starts.SeenH.GetValueOrDefault(day.Day);

    /// <summary>Beyond the tenth that days differ by themselves, or not told by these days and looking as if it were.</summary>
    protected bool Matters(AgainstPlanResult against) =>
        against.Verdict is PlanVerdict.More or PlanVerdict.Less
            ? Math.Abs(against.MedianWh - against.MedianWh / against.Ratio) >= LeastShareWh * Plan.DayWh(Days[^1].Day)
            : against.Verdict == PlanVerdict.NotYet
                && against.Ratio is < 0.8 or > 1.25
                && Math.Abs(against.MedianWh - against.MedianWh / Math.Max(0.01, against.Ratio)) >= LeastShareWh * Plan.DayWh(Days[^1].Day);

    protected static string? NotYet(AgainstPlanResult against) =>
        against.Verdict != PlanVerdict.NotYet ? null
        : against.Days < 3
            ? $"Not yet sure: {(against.Days == 1 ? "one day was" : Say.Count(against.Days).ToLowerInvariant() + " days were")} read, "
                + "three are needed."
        : "Not yet sure: the days differ too much.";

    protected void Add(
        LessonKind kind,
        string title,
        string words,
        string? shortly,
        double whADay,
        string? notYet,
        string? label,
        Func<Bank, Bank> change
    )
    {
        var (design, index) = (Plan.Work.Scene.Design, Plan.Work.Scene.Index);
        var then = design with { Banks = [.. design.Banks.Select((b, i) => i == index ? change(b) : b)] };
        var changes = label is null || notYet is not null ? [] : DesignDifference.Between(design, then);
        string? outcome = null;
        if (changes.Count > 0)
        {
            try
            {
                var day = new LogPlan(new SiteWork(then)[index]).DayWh(Days[^1].Day);
                outcome = kind == LessonKind.Source ? null : $"{Say.Wh(day)} a day";
            }
            catch (Exception e) when (e is Missing or Refusal)
            {
                // What cannot be worked out is not offered.
                changes = [];
            }
        }
        lessons.Add(new(kind, title, words, shortly, whADay, notYet, changes.Count > 0 ? label : null, outcome, changes));
    }

    protected static string Lower(string name) =>
        name.Length > 1 && char.IsUpper(name[1]) ? name : $"the {name.ToLower(CultureInfo.InvariantCulture)}";
}

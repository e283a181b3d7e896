using InkyBadger.Core.Design;

namespace InkyBadger.Core.Logs;

/// <summary>What a lesson is about.</summary>
public enum LessonKind
{
    Duty,
    Times,
    Idle,
    Source,
    Efficiency,
    Monitor,
    Joint,
    Unit,
}

/// <summary>What readings teach, with its figures and, where the plan can be corrected, the changes that do it.</summary>
/// <param name="Short">In the headline, as “the fridge runs 11 h a day, not 6”.</param>
/// <param name="WhADay">What it comes to, more than planned positive [Wh a day].</param>
/// <param name="NotYet">Why it is not yet sure; null: it is.</param>
/// <param name="Label">Of the button; null: there is nothing to press.</param>
/// <param name="Outcome">What the plan’s day would come to then.</param>
public sealed record LogLesson(
    LessonKind Kind,
    string Title,
    string Words,
    string? Short,
    double WhADay,
    string? NotYet,
    string? Label,
    string? Outcome,
    IReadOnlyList<DesignChange> Changes
);

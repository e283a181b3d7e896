using InkyBadger.Core.Design;
using InkyBadger.Core.Proving;
using InkyBadger.Core.Reference;
using InkyBadger.Core.Work;

namespace InkyBadger.Core.BringUp;

/// <summary>What the steps of several subjects ask and say alike.</summary>
internal static class Said
{
    /// <summary>Less than this is nothing [V].</summary>
    public const double DeadV = 0.5;

    public const string Touch =
        "A battery cannot be switched off: a short gives thousands of amperes. One terminal at a time; cover every positive you do not "
        + "work on.";

    /// <summary>At its torque, as far as the table knows the stud.</summary>
    public static string Tight(string lug)
    {
        var stud = lug.Split('×')[^1].Trim();
        return Torques.TypicalNm(stud) is { } nm
            ? $"{stud} at {Figures.Number(nm, 1, true)} N m, the maker’s figure first"
            : "as the maker says";
    }

    public static string Volts(BringUpEntry e) => $"{Figures.Number(e.Value!.Value, 2)} V";

    public static Expected Nothing() => new(0, -DeadV, DeadV, -DeadV, DeadV, $"0.00 V, less than {Figures.Number(DeadV, 1)}");

    public static Tips Poles(string red, string black, string left, string right, string? part) =>
        new(TipsPicture.Poles, red, black, left, "", right, "", null, null, part);

    public static Judged Judge(bool ok, string headline, string well, string ill, string sentence, string[] toDo) =>
        ok
            ? new(headline, new(StepState.Done, well, "As it is to be.", [], []))
            : new(headline, new(StepState.Wrong, ill, sentence, toDo, []));

    public static Judged Wrong(string headline, string title, string sentence, string[] toDo) =>
        new(headline, new(StepState.Wrong, title, sentence, toDo, []));

    /// <summary>Any reading, by the method, 12.5.</summary>
    public static Judged Plain(double measured, double wanted, double tolerance, string headline, string well, string ill, string[] toDo)
    {
        var r = Reading.Work(wanted, measured, tolerance);
        var state = Walk.StateOf(r.Verdict);
        return new(
            headline,
            new(
                state,
                state == StepState.Done ? well : ill,
                state == StepState.Look ? "A little off: within twice of what is allowed."
                    : state == StepState.Wrong ? "Stop here: what follows rests on it."
                    : "As it is to be.",
                state == StepState.Done ? [] : toDo,
                []
            )
        );
    }
}

using InkyBadger.Core.Charging;
using InkyBadger.Core.Design;
using InkyBadger.Core.Work;

namespace InkyBadger.Core.Trials;

/// <summary>A month's [1 to 12] mean day quarter by quarter, as it settles: with all sources, and without plug and generator.</summary>
public sealed record ChargedDay(int Month, DayFillingResult All, DayFillingResult WithoutPlug)
{
    /// <summary>Null where bank, demand or sun are not known yet.</summary>
    /// <param name="month">[1 to 12]; null: the one that misses most.</param>
    /// <exception cref="Refusal"><c>month</c>.</exception>
    public static ChargedDay? Work(DesignDocument design, int bankIndex, int? month)
    {
        if (month is { } asked)
            Require.Within(asked, 1, 12, nameof(month));
        var bank = new SiteWork(design)[bankIndex];
        if (bank.Charging.Value is not { Worst: { } worst })
            return null;
        var shown = month - 1 ?? worst;
        var (all, without) = ChargingStage.Day(bank, shown);
        return new(shown + 1, all, without);
    }
}

using InkyBadger.Core.Charging;
using InkyBadger.Core.Design;
using InkyBadger.Core.Work;

namespace InkyBadger.Core.Trials;

/// <summary>
/// A month's [1 to 12] mean day quarter by quarter, as it settles: with all sources, and without plug and generator; and what would balance
/// the month.
/// </summary>
/// <param name="Out">What leaves, by what it is for.</param>
/// <param name="MovesWh">Between the highest and the lowest of the day [Wh].</param>
/// <param name="BalancingArrayW">Watts of the arrays as they lie that carry this month alone [W]; null: no array, or none does.</param>
/// <param name="Plug">What the plug or generator must bring this month; null where nothing is missing, or there is none.</param>
/// <param name="Answers">Changes that balance it, tried: none brings a danger or a fault that was not there.</param>
public sealed record ChargedDay(
    int Month,
    DayFillingResult All,
    DayFillingResult WithoutPlug,
    DayOut Out,
    double MovesWh,
    double? BalancingArrayW,
    PlugNeed? Plug,
    IReadOnlyList<MonthAnswer> Answers
)
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
        var scene = new ChargingScene(bank);
        var (all, without) = ChargingStage.Day(scene, shown);
        return new(
            shown + 1,
            all,
            without,
            DayWatts.Parts(bank, scene.SeasonOf(shown), ChargingScene.Steps),
            (all.Soc.Max() - all.LowestSoc) * scene.Bank.RatedWh,
            ChargingStage.Balancing(scene, shown),
            ChargingStage.PlugOf(scene, bank.Charging.Value.Sources, bank.Charging.Value.Months[shown]),
            MonthAnswers.Of(bank, scene, shown)
        );
    }
}

using InkyBadger.Core.Design;

namespace InkyBadger.Core.Findings;

/// <summary>What a rule sees: the bank's scene and everything worked out for it.</summary>
public sealed record FindingScene(BankScene Scene, BankEvaluation Results)
{
    public Finding Make(string rule, Grade grade, Station station, string place, string title, string why, FindingFigure[] figures, params Mend[] mends) =>
        new(rule, grade, station, Results.Id, Scene.Pointer + place, title, why, figures, mends);

    public Mend MendRun(string label, string outcome, Func<Run, Run> change) => new(label, outcome, [Scene.ChangeMainRun(change)]);

    public Mend MendBank<T>(string label, string outcome, string path, T value) => new(label, outcome, [Scene.Change(path, value)]);
}

/// <summary>One thing that can be wrong: null when it is not.</summary>
public delegate Finding? FindingRule(FindingScene scene);

/// <summary>One thing that can be wrong with a load (and its index): null when it is not.</summary>
public delegate Finding? LoadRule(FindingScene scene, Load load, int index);

/// <summary>Every rule, grouped as people think of them.</summary>
public static class FindingRules
{
    public static IReadOnlyList<FindingRule> All { get; } = [.. LoadFindings.Rules, .. InverterFindings.Rules, .. BankFindings.Rules, .. MixFindings.Rules, .. ChargingFindings.Rules, .. PlaceFindings.Rules, .. CableFindings.Rules];

    /// <summary>Findings of a bank, the gravest first, within a grade in the order of the work.</summary>
    public static void Collect(FindingScene scene, List<Finding> into)
    {
        foreach (var rule in All)
            if (rule(scene) is { } finding) into.Add(finding);
        if (scene.Scene.Bank.Demand.By != DemandBy.Loads) return;
        foreach (var (i, load) in scene.Scene.Bank.Demand.Loads.Index())
            foreach (var rule in LoadFindings.OfEachLoad)
                if (rule(scene, load, i) is { } finding) into.Add(finding);
    }
}

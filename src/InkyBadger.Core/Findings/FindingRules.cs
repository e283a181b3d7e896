using InkyBadger.Core.Demand;
using InkyBadger.Core.Design;

namespace InkyBadger.Core.Findings;

/// <summary>What a rule sees: the bank's scene and everything worked out for it.</summary>
public sealed record FindingScene(BankScene Scene, BankEvaluation Results)
{
    /// <summary>The one load whose other hour would ease the worst instant most, as a mend, and whether the inverter holds then. Looked for only when asked, and once.</summary>
    internal Lazy<(Mend Mend, bool Holds)?> Apart { get; } = new(() => MoveApart(Scene, Results));

    /// <summary>The voltages at which the main run can be built. The same for every run that asks, so looked for once.</summary>
    internal Lazy<IReadOnlyList<Mend>> HigherVoltage { get; } = new(() => [.. RunView.HigherVoltage(Scene, Results)]);

    private static (Mend, bool)? MoveApart(BankScene scene, BankEvaluation results)
    {
        if (Moves.Best(scene.Design, scene.Index, results) is not var (index, move)) return null;
        var load = scene.Bank.Demand.Loads[index];
        var then = Evaluator.FiguresOf(scene, scene.Bank.WithLoad(index, load with { Windows = Moves.Windows(move) }));
        if (then.Loads is not { } loads) return null;
        var holds = then.Inverter?.Demands.All(d => d.Holds) == true;
        return (new($"{load.Name} at {Moves.Times(move)}", $"{Say.W(loads.PeakAcW)} running, {Say.W(loads.SurgeDemandW)} at worst{(holds ? ", and it holds" : ", not enough alone")}",
            [Moves.Change(scene.Index, index, move)]), holds);
    }

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
        foreach (var view in RunView.Of(scene))
            foreach (var rule in RunFindings.OfEachRun)
                if (rule(scene, view) is { } finding) into.Add(finding);
        if (scene.Scene.Bank.Demand.By != DemandBy.Loads) return;
        foreach (var (i, load) in scene.Scene.Bank.Demand.Loads.Index())
            foreach (var rule in LoadFindings.OfEachLoad)
                if (rule(scene, load, i) is { } finding) into.Add(finding);
    }
}

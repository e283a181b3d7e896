using InkyBadger.Core.Design;
using InkyBadger.Core.Wiring;
using InkyBadger.Core.Work;

namespace InkyBadger.Core.Findings;

/// <summary>One thing that can be wrong with a run: null when it is not.</summary>
internal delegate Finding? RunRule(FindingScene scene, RunView view);

/// <summary>A run as its rules see it, the main run and those beyond the bus alike.</summary>
internal sealed record RunView(string Place, string Name, Run Doc, RunResult Run)
{
    public bool IsMain => Doc.Id == Design.Run.MainId;

    /// <summary>A short at the fuse [A]; null: a converter limits it, or there is no bank yet.</summary>
    public double? ShortA { get; init; }

    /// <summary>A resistance that was only assumed is in the short.</summary>
    public bool Assumed { get; init; }
    public double GreatestV { get; init; }

    /// <summary>The fuse as made: volts and amperes it breaks; 0 where it was not judged.</summary>
    public double MaxDcV { get; init; }
    public double InterruptA { get; init; }
    public IReadOnlyList<FuseFailure> Fails { get; init; } = [];

    /// <summary>
    /// What upstream breaks a short that this fuse cannot, and whether the cable stands what it lets through; null: the main run.
    /// </summary>
    public FuseUpstream? Upstream { get; init; }
    public double? SurgeA { get; init; }

    /// <summary>Goes before a finding's title where it is not of the main run.</summary>
    public string Lead => IsMain ? "" : Name + ": ";

    public string Cable => Say.Size(Run.Cable.Size ?? "no cable", Run.Cable.Conductors);

    public static List<RunView> Of(FindingScene s)
    {
        var views = new List<RunView>();
        if (s.Results.MainRun is not { } main)
            return views;
        var p = s.Results.Protection;
        views.Add(
            new("/runs", "main run", s.Scene.MainRun, main)
            {
                ShortA = p?.Short.Amps,
                Assumed = p?.Short.ResistanceAssumed ?? false,
                GreatestV = p?.GreatestChargingV ?? s.Results.Voltage!.GreatestV,
                MaxDcV = p?.MaxDcV ?? 0,
                InterruptA = p?.InterruptA ?? 0,
                Fails = s.Scene.MainRun.Fuse.Absent ? [] : p?.Fails ?? [],
                SurgeA = p?.Surge.Amps,
            }
        );
        foreach (var (i, c) in s.Results.Circuits.Index())
            views.Add(
                new($"/circuits/{i}", c.Name, s.Scene.RunOf(c.Id), c.Run)
                {
                    ShortA = c.Fuse.Short.Amps,
                    Assumed = p?.Short.ResistanceAssumed ?? false,
                    GreatestV = c.Fuse.GreatestV,
                    MaxDcV = c.Fuse.MaxDcV,
                    InterruptA = c.Fuse.InterruptA,
                    Fails = c.Fuse.Fails,
                    Upstream = c.Fuse.Upstream,
                    SurgeA = c.Fuse.Surge.Amps,
                }
            );
        return views;
    }

    /// <summary>A change of this run in the document; it is added there when it was advised in everything.</summary>
    public MendOffer Mend(FindingScene s, string label, string outcome, Func<Run, Run> change, string? group = null) =>
        s.OfRun(Doc.Id, label, outcome, change, group);

    /// <inheritdoc cref="Mend(FindingScene, string, string, Func{Run, Run}, string?)"/>
    public MendOffer Mend(FindingScene s, string label, Func<BankWork, string> outcome, Func<Run, Run> change) =>
        FindingScene.Offer(label, outcome, s.Bank.WithRun(Doc.Id, change));

    public MendOffer UseSize(FindingScene s, CableOption advised) =>
        FindingScene.Offer(
            $"Use {Say.Size(advised.Size, advised.Conductors)}",
            then =>
                In(then) is { Carries.AmpacityA: { } carries, Drop.Fraction: { } drop }
                    ? $"carries {Say.A(carries)}, drop {Say.Percent(drop)}"
                    : "as advised",
            s.Bank.WithRun(Doc.Id, r => r with { Size = advised.Size, Parallel = advised.Conductors, ConductorLengthsM = [] })
        );

    /// <summary>The same run in another work.</summary>
    public RunResult? In(BankWork then) => IsMain ? then.MainRun.Value : then.Circuits.Value?.FirstOrDefault(c => c.Id == Doc.Id)?.Run;

    /// <summary>
    /// Class T first, else the first class of the table that fits here. A cable too thin for every class has a mend of its own.
    /// </summary>
    public IEnumerable<MendOffer> ClassThatFits(FindingScene s)
    {
        var good = ProtectionStage
            .ClassesAt(s.Scene.Tables, Run.DesignA, Run.Carries.FuseLimitA ?? 0, GreatestV, ShortA ?? 0, RunStage.NextSizeUp(s.Scene))
            .Where(c => c.Fails.All(f => f == FuseFailure.Cable))
            .ToList();
        var fit = good.Find(c => c.Id == RunStage.AdvisedClass) ?? good.FirstOrDefault();
        if (fit is null || fit.Id == Run.Fuse.Class)
            yield break;
        var name = fit.Label.Split(',')[0];
        yield return Mend(
            s,
            $"Use {char.ToLowerInvariant(name[0]) + name[1..]} {Say.Rating(fit.RatingA!.Value)}",
            $"breaks {Say.A(fit.InterruptA)}, good to {Say.V(fit.MaxDcV)}",
            r => r with { Fuse = r.Fuse with { Class = fit.Id, RatingA = null } }
        );
    }
}

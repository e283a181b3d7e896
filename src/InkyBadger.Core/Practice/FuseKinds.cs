using InkyBadger.Core.Design;
using InkyBadger.Core.Reference;
using InkyBadger.Core.Work;

namespace InkyBadger.Core.Practice;

/// <summary>A run of a part as its fuse is judged: the run, and what it must bear and break.</summary>
internal sealed record FusedRun(RunResult Run, string Pointer, double GreatestV, double? ShortA, double MaxDcV, double InterruptA, Run Doc);

/// <summary>What can be wrong with a fuse: the main one, and those of what hangs on the bus.</summary>
internal static class FuseKinds
{
    private static readonly PartKind[] OnFuse = [PartKind.MainFuse, PartKind.Panel, PartKind.Load, PartKind.Source];

    public static PracticeKind[] All { get; } =
    [
        new("fuse-above-cable", "Its fuse lets more through than its cable bears", OnFuse, ["fuse.above-cable"])
        {
            Brings = ["fuse.together", "fuse.burns", "cable.fine"],
            Ways = (s, b) =>
                EachRun(s, b, (run, key) => Ratings(run, above: true).Select(a => Fuse(s, b, key, f => f with { RatingA = a }))),
            Fine = (s, p) =>
                RunOf(s, p) is { Run: { Fuse.RatingA: { } rating, Carries.FuseLimitA: { } carries } run } r
                    ? new(
                        $"{Say.Rating(rating)} on {Say.Size(run.Cable.Size!, run.Cable.Conductors)} that carries {Say.A(carries)}.",
                        r.Pointer + "/carries/ampacityA"
                    )
                    : null,
        },
        new("fuse-too-small", "Its fuse is too small for what flows", OnFuse, ["fuse.nuisance"])
        {
            Ways = (s, b) =>
                EachRun(s, b, (run, key) => Ratings(run, above: false).Select(a => Fuse(s, b, key, f => f with { RatingA = a }))),
            Fine = (s, p) =>
                RunOf(s, p) is { Run: { Fuse.RatingA: { } rating } run } r
                    ? new(
                        $"{Say.A(run.DesignA)} at full load ask for {Say.A(run.Fuse.WantedA)} or more, and it is {Say.Rating(rating)}.",
                        r.Pointer + "/fuse/ratingA"
                    )
                    : null,
        },
        new("fuse-at-start", "Its fuse opens at a start", OnFuse, ["fuse.start"])
        {
            Brings = ["bank.dc-start"],
            Ways = (s, b) =>
                s
                    .Design.Banks[b]
                    .Demand.Loads.Index()
                    .Where(l => l.Item.Kind == LoadKind.Dc && s.Circuit(b, $"load-{l.Item.Id}") is { Run.Fuse.RatingA: not null })
                    .SelectMany(l =>
                        ((double[])[9, 6, 4, 3]).Select(times => new Planting(
                            s.With(b, x =>
                                x.WithLoad(
                                    l.Index,
                                    l.Item with
                                    {
                                        SurgeWatts = Math.Round(times * l.Item.Watts!.Value / 10) * 10,
                                        StartSeconds = 3,
                                    }
                                )
                            ),
                            FoundScene.Key(b, $"load-{l.Item.Id}")
                        ))
                    ),
            Fine = (s, p) =>
                p.Kind == PartKind.Load
                    ? s.Circuit(p.Bank, $"load-{p.Id}") is { Fuse.Surge: { Amps: > 0 and var starts, Seconds: { } lasts } }
                        ? new($"{Say.A(starts)} for {Say.Seconds(lasts)} at its start, and its fuse bears that.", null)
                        : new("It has no start to speak of.", null)
                    : p.Kind == PartKind.MainFuse
                    && s.E.Banks[p.Bank].Protection is { Surge: { Amps: > 0, Opens: var opens, AfterS: var after } surge }
                        ? new(
                            $"{Say.A(surge.Amps)} at the worst start"
                                + (
                                    opens && after is { } t
                                        ? $", at which it opens only after about {Say.Seconds(t)}."
                                        : ", which it bears for good."
                                ),
                            null
                        )
                        : null,
        },
        new("fuse-volts", "Its fuse is made for fewer volts", OnFuse, ["fuse.voltage"])
        {
            Brings = ["fuse.together", "fuse.burns"],
            Ways = (s, b) => EachRun(s, b, (run, key) => Classes(run, c => c.MaxDcV < run.GreatestV).Select(c => Class(s, b, key, c, run))),
            Fine = (s, p) =>
                RunOf(s, p) is { MaxDcV: > 0, Doc.Fuse.Absent: false } r
                    ? new(
                        $"Made for {Say.V(r.MaxDcV)}, and charging lifts the bank to {Say.V(r.GreatestV)}.",
                        BankKinds.Of(p, "/protection/greatestChargingV")
                    )
                    : null,
        },
        new("fuse-interrupt", "Its fuse cannot break the bank’s short circuit", OnFuse, ["fuse.interrupt", "fuse.relies"])
        {
            Brings = ["fuse.together", "fuse.burns"],
            Ways = (s, b) =>
                EachRun(s, b, (run, key) => Classes(run, c => c.InterruptA < (run.ShortA ?? 0)).Select(c => Class(s, b, key, c, run))),
            Fine = (s, p) =>
                RunOf(s, p) is { InterruptA: > 0, ShortA: { } most, Doc.Fuse.Absent: false } r
                    ? new(
                        most <= r.InterruptA
                            ? $"{Say.A(most)} in a short, and this class breaks {Say.A(r.InterruptA)}."
                            : $"{Say.A(most)} in a short, more than its {Say.A(r.InterruptA)}; the fuse before it breaks that in time.",
                        BankKinds.Of(p, "/protection/short/amps")
                    )
                    : null,
        },
        new("fuse-far", "Its fuse sits too far from where the run begins", OnFuse, ["fuse.far"])
        {
            Ways = (s, b) =>
                EachRun(s, b, (_, key) => ((double[])[0.8, 0.4, 0.25]).Select(m => Fuse(s, b, key, f => f with { DistanceM = m }))),
            Fine = (s, p) =>
                RunOf(s, p) is { Doc.Fuse.Absent: false } r
                    ? new(
                        $"{Say.Length(r.Run.Fuse.DistanceM, UnitSystem.Metric)} from its beginning; the house rule bears "
                            + $"{Say.Length(s.Rules.Number("fuse-distance"), UnitSystem.Metric)}.",
                        null
                    )
                    : null,
        },
        new("fuse-none", "There is no fuse at this end", OnFuse, ["fuse.none"])
        {
            Ways = (s, b) => EachRun(s, b, (_, key) => [Fuse(s, b, key, _ => new() { Absent = true })]),
            Fine = (s, p) =>
                RunOf(s, p) is { Run.Fuse.RatingA: { } rating, Doc.Fuse.Absent: false } r
                    ? new($"{Say.Rating(rating)}, {r.Run.Fuse.Label}.", r.Pointer + "/fuse/ratingA")
                    : null,
        },
        new(
            "fuses-together",
            "A short here may open the main fuse with its own",
            [PartKind.Panel, PartKind.Load, PartKind.Source],
            ["fuse.together"]
        )
        {
            Ways = (s, b) =>
                EachRun(s, b, (run, key) =>
                    key == "main-fuse" ? [] : Classes(run, c => c.MaxDcV >= run.GreatestV).Select(c => Class(s, b, key, c, run))
                ),
            Fine = (s, p) =>
                s.E.Banks[p.Bank].MainRun is { Fuse.RatingA: { } main }
                && RunOf(s, p) is { Run.Fuse.RatingA: { } own, Doc.Fuse.Absent: false }
                    ? new($"{Say.Rating(own)} behind {Say.Rating(main)}: by their times it opens alone.", null)
                    : null,
        },
        new("string-unfused", "The strings have no fuse of their own", [PartKind.StringFuses], ["strings.unfused"])
        {
            Ways = (s, b) =>
                s.E.Banks[b].StringFuses is { Asked: true }
                    ? [new(s.WithRun(b, Run.StringsId, r => r with { Fuse = new() { Absent = true } }), FoundScene.Key(b, "string-fuses"))]
                    : [],
            Fine = (s, p) =>
                s.E.Banks[p.Bank].StringFuses is { Fitted: true, RatingA: { } a } f
                    ? new($"Each has one of {Say.Rating(a)}, {f.FuseLabel}.", BankKinds.Of(p, "/stringFuses/ratingA"))
                    : null,
        },
        new("string-fuse-small", "The string fuses are too small for what a string may carry", [PartKind.StringFuses], ["strings.fuse"])
        {
            Ways = (s, b) => StringRatings(s, b, a => a < s.E.Banks[b].StringFuses!.RatingA),
            Fine = (s, p) =>
                s.E.Banks[p.Bank].StringFuses is { Fitted: true, RatingA: { } a } f
                    ? new(
                        $"{Say.Rating(a)}, and a string carries {Say.A(f.Strings.Max(x => x.GreatestA))} at most.",
                        BankKinds.Of(p, "/stringFuses/strings/0/greatestA")
                    )
                    : null,
        },
        new("string-fuse-large", "The string fuses are above what lies behind them", [PartKind.StringFuses], ["strings.fuse"])
        {
            Ways = (s, b) => StringRatings(s, b, a => a > s.E.Banks[b].StringFuses!.RatingA).Reverse(),
            Fine = (s, p) =>
                s.E.Banks[p.Bank].StringFuses is { Fitted: true, RatingA: { } a } f
                    ? new($"{Say.Rating(a)} before copper for {Say.A(f.LeadAmpacityA)}.", BankKinds.Of(p, "/stringFuses/ratingA"))
                    : null,
        },
    ];

    /// <summary>The run a part has its fuse on.</summary>
    internal static FusedRun? RunOf(FoundScene s, FoundPart p) => RunAt(s, p.Bank, p.Key[(p.Key.IndexOf('/') + 1)..]);

    internal static FusedRun? RunAt(FoundScene s, int b, string key)
    {
        var e = s.E.Banks[b];
        if (key is "main-fuse" or "main-cable" or "switch")
            return e is { MainRun: { } main, Protection: { } p }
                ? new(main, $"/banks/{b}/mainRun", p.GreatestChargingV, p.Short.Amps, p.MaxDcV, p.InterruptA, DocOf(s, b, Run.MainId))
                : null;
        if (e.Circuits.Index().FirstOrDefault(c => c.Item.Id == key) is not { Item: { } circuit } at)
            return null;
        return new(
            circuit.Run,
            $"/banks/{b}/circuits/{at.Index}/run",
            circuit.Fuse.GreatestV,
            circuit.Fuse.Short.Amps,
            circuit.Fuse.MaxDcV,
            circuit.Fuse.InterruptA,
            DocOf(s, b, key)
        );
    }

    private static Run DocOf(FoundScene s, int b, string id) => s.Design.Banks[b].Runs.FirstOrDefault(r => r.Id == id) ?? new() { Id = id };

    /// <summary>Each run with a fuse that one may point at, and its part.</summary>
    internal static IEnumerable<Planting> EachRun(FoundScene s, int b, Func<FusedRun, string, IEnumerable<Planting>> ways)
    {
        foreach (var p in s.Parts)
            if (p.Bank == b && OnFuse.Contains(p.Kind) && RunOf(s, p) is { Doc.Fuse.Absent: false, Run.Fuse.RatingA: not null } run)
                foreach (var way in ways(run, p.Key[(p.Key.IndexOf('/') + 1)..]))
                    yield return way;
    }

    private static string IdOf(string key) => key == "main-fuse" ? Run.MainId : key;

    private static Planting Fuse(FoundScene s, int b, string key, Func<RunFuse, RunFuse> change) =>
        new(s.WithRun(b, IdOf(key), r => r with { Fuse = change(r.Fuse) }), FoundScene.Key(b, key));

    /// <summary>Of another class, at the nearest rating made.</summary>
    private static Planting Class(FoundScene s, int b, string key, FuseClass c, FusedRun run) =>
        Fuse(s, b, key, f => f with { Class = c.Id, RatingA = c.RatingsA.First(a => a >= run.Run.Fuse.WantedA) });

    private static IEnumerable<FuseClass> Classes(FusedRun run, Func<FuseClass, bool> which) =>
        FuseClasses.All.Where(c =>
            c.Id != run.Run.Fuse.Class
            && which(c)
            && c.RatingsA.Any(a => a >= run.Run.Fuse.WantedA && a <= (run.Run.Carries.FuseLimitA ?? 0))
        );

    /// <summary>Ratings of its class beyond the one that stands, the farthest first.</summary>
    private static IEnumerable<double> Ratings(FusedRun run, bool above)
    {
        var made = FuseClasses.Get(run.Run.Fuse.Class).RatingsA;
        return above
            ? made.Where(a => a > run.Run.Carries.FuseLimitA).Take(3).Reverse()
            : made.Where(a => a < run.Run.Fuse.WantedA).TakeLast(3);
    }

    private static IEnumerable<Planting> StringRatings(FoundScene s, int b, Func<double, bool> which) =>
        s.E.Banks[b].StringFuses is { Fitted: true } f
            ? FuseClasses
                .Get(f.FuseClass)
                .RatingsA.Where(which)
                .Select(a => new Planting(
                    s.WithRun(b, Run.StringsId, r => r with { Fuse = r.Fuse with { RatingA = a } }),
                    FoundScene.Key(b, "string-fuses")
                ))
            : [];
}

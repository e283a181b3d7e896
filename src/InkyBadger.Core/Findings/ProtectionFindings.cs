using InkyBadger.Core.Design;
using InkyBadger.Core.Protection;
using InkyBadger.Core.Work;

namespace InkyBadger.Core.Findings;

/// <summary>Protection in time: who opens with whom, and what opens too soon (method, 14).</summary>
internal static class ProtectionFindings
{
    public static IEnumerable<Finding> All(FindingScene s)
    {
        if (s.Results.MainRun is null)
            yield break;
        var runs = new List<(RunView View, ProtectedRun Run)>();
        foreach (var view in RunView.Of(s))
            if (ProtectedRun.Of(s.Work, view.Doc.Id) is { } run)
                runs.Add((view, run));
        var onPanels = new List<(RunView View, ProtectedRun Run)>();
        foreach (var (view, run) in runs)
        {
            if (run is { Upstream: { } up, Together.Selective: false } && SparesOthers(s, view, up))
            {
                if (up.Run is not (Run.MainId or Run.StringsId))
                    onPanels.Add((view, run));
                else if (Together(s, view, run) is { } together)
                    yield return together with
                    {
                        About = view.Doc.Id,
                    };
            }
            if (Burns(s, view, run) is { } burns)
                yield return burns with
                {
                    About = view.Doc.Id,
                };
            if (BmsFirst(s, view, run) is { } bms)
                yield return bms with
                {
                    About = view.Doc.Id,
                };
            if (TooFine(s, view) is { } fine)
                yield return fine with
                {
                    About = view.Doc.Id,
                };
        }
        foreach (var panel in PanelTogether(s, runs, onPanels))
            yield return panel;
        foreach (var inside in InsideTooFine(s))
            yield return inside;
    }

    /// <summary>Two fuses in series of which both may open: a fault on one run darkens all that hang on the other.</summary>
    private static Finding? Together(FindingScene s, RunView v, ProtectedRun r)
    {
        if (r is not { Own: { } own, Upstream: { } up, ShortA: { } most } || r.Together is not { Selective: false } both)
            return null;
        var upName = up.Run == Run.StringsId ? "the string fuses" : up.Name;
        var alone = both.SelectiveUpToA;
        var never = alone is null || r.EndA is { } least && least > alone;
        return s.Make(
            "fuse.together",
            Grade.Caution,
            Station.Cables,
            v.Place,
            up.Run == Run.StringsId ? "A short beyond the main fuse may open the string fuses too" : $"{v.Lead}a short here may darken all",
            (alone is { } a ? $"From {Say.A(a)} on " : "At any current ")
                + $"{upName} may go too"
                + (never && r.EndA is { } end ? $"; even at the far end a short draws {Say.A(end)}" : $"; up to {Say.A(most)} flow")
                + $". {Capital(own.Name)} is surely open only after {Times(own.Curve, most)}, {upName} may be after "
                + $"{(up.Curve.LeastAt(most) is { } soon ? Say.Seconds(soon) : "never")}.",
            [.. alone is { } upTo ? new FindingFigure[] { new("alone up to", upTo, "A") } : [], new("short circuit", most, "A")],
            () => Apart(s, v, own, up, upName)
        );
    }

    /// <summary>
    /// The branches of a panel of which a short may open the panel’s fuse too, told once: each in its own words would bury what is graver.
    /// </summary>
    private static IEnumerable<Finding> PanelTogether(
        FindingScene s,
        IReadOnlyList<(RunView View, ProtectedRun Run)> all,
        IReadOnlyList<(RunView View, ProtectedRun Run)> branches
    )
    {
        foreach (var group in branches.GroupBy(x => x.Run.Upstream!.Run))
        {
            var panel = all.First(x => x.View.Doc.Id == group.Key);
            var (names, up) = (group.Select(x => x.View.Name).ToList(), group.First().Run.Upstream!);
            var soonest = group.MinBy(x => x.Run.Together!.SelectiveUpToA ?? 0);
            var alone = soonest.Run.Together!.SelectiveUpToA;
            yield return s.Make(
                "fuse.together",
                Grade.Note,
                Station.Cables,
                panel.View.Place,
                $"{panel.View.Name}: a short on one branch may darken all of it",
                $"{Capital(up.Name)} may go with the fuse of {Listed(names)}"
                    + (alone is { } a ? $", of {soonest.View.Name} from {Say.A(a)} on" : $", of {soonest.View.Name} at any current")
                    + $"; a short there draws up to {Say.A(group.Max(x => x.Run.ShortA!.Value))}.",
                [
                    .. alone is { } upTo ? new FindingFigure[] { new("alone up to", upTo, "A") } : [],
                    new("short circuit", group.Max(x => x.Run.ShortA!.Value), "A"),
                ],
                () => WiderPanel(s, panel.View, group.Max(x => x.Run.Own!.Curve.RatingA), up)
            ) with
            {
                About = group.Key,
            };
        }
    }

    /// <summary>Larger fuses of the panel, each with the copper it asks for.</summary>
    private static IEnumerable<MendOffer> WiderPanel(FindingScene s, RunView panel, double branchA, FuseInTheWay up)
    {
        foreach (var rating in up.Curve.Class.RatingsA.Where(x => x > up.Curve.RatingA && x >= 2 * branchA).Take(MostLarger))
            yield return panel.Mend(
                s,
                $"A panel fuse of {Say.Rating(rating)}",
                "with the cable it asks for",
                r => r with { Fuse = r.Fuse with { RatingA = rating }, Size = null, Parallel = null },
                "panel"
            );
    }

    private static string Listed(List<string> names) =>
        names.Count <= 3 ? Say.List(names) : $"{Say.List(names[..2])} and {names.Count - 2} more";

    private static string Capital(string text) => char.ToUpperInvariant(text[0]) + text[1..];

    private static IEnumerable<MendOffer> Apart(FindingScene s, RunView v, FuseInTheWay own, FuseInTheWay up, string upName)
    {
        // The same current-limiting family on both, two to one, is what spares the one upstream.
        var family = up.Curve.Class.LimitsCurrent ? up.Curve.Class.Id : RunStage.AdvisedClass;
        foreach (var id in new[] { family, RunStage.AdvisedClass }.Distinct())
            if (id != v.Run.Fuse.Class && s.Scene.Tables.Fuse(id).Next(v.Run.Fuse.WantedA) is { } next)
                yield return v.Mend(
                    s,
                    $"Use {Short(s.Scene.Tables.Fuse(id).Label)} {Say.Rating(next)}",
                    then => $"breaks {Say.A(s.Scene.Tables.Fuse(id).InterruptA)}, and {Spares(then, v, upName)}",
                    r => r with { Fuse = r.Fuse with { Class = id, RatingA = null }, Size = null, Parallel = null }
                );
        if (up.Run == Run.StringsId && s.Results.StringFuses is { } strings)
        {
            // Larger string fuses, as far as what they protect bears them.
            foreach (var larger in s.Scene.Tables.Fuse(strings.FuseClass).RatingsA.Where(x => x > strings.RatingA).Take(MostLarger))
                yield return FindingScene.Offer(
                    $"String fuses of {Say.Rating(larger)}",
                    then => Spares(then, v, upName),
                    s.Bank.WithRun(Run.StringsId, x => x with { Fuse = x.Fuse with { RatingA = larger } })
                );
            yield break;
        }
        if (v.Run.Fuse.AdvisedRatingA is { } smaller && smaller < v.Run.Fuse.RatingA)
            yield return v.Mend(
                s,
                $"Use {Say.Rating(smaller)}",
                then => Spares(then, v, upName),
                r => r with { Fuse = r.Fuse with { RatingA = null } }
            );
        // Twice the own rating upstream, with the copper that asks for.
        if (
            up.Run == Run.MainId
            && up.Curve.Class.Next(2 * own.Curve.RatingA) is { } twice
            && twice > up.Curve.RatingA
            && own.Curve.Class.Family == up.Curve.Class.Family
        )
            yield return FindingScene.Offer(
                $"A main fuse of {Say.Rating(twice)}",
                FindingScene.MainRunOf,
                s.Bank.WithRun(Run.MainId, x =>
                    x with
                    {
                        Fuse = x.Fuse with { RatingA = twice },
                        Size = null,
                        Parallel = null,
                        ConductorLengthsM = [],
                    }
                )
            );
    }

    private const int MostLarger = 4;

    /// <summary>Whether something else that draws hangs on the fuse upstream: else a short there darkens nobody beside itself.</summary>
    private static bool SparesOthers(FindingScene s, RunView v, FuseInTheWay up)
    {
        if (v.IsMain)
            return true;
        var circuits = s.Results.Circuits;
        if (circuits.FirstOrDefault(c => c.Id == v.Doc.Id) is not { } c || c.Kind == CircuitKind.Inverter)
            return false;
        var on = up.Run is Run.MainId or Run.StringsId ? null : up.Run;
        return circuits.Any(x => x.Id != c.Id && x.Kind != CircuitKind.Charge && x.Upstream == on)
            || on is null && s.Results.Inverter?.Item is not null;
    }

    private static string Short(string label) => char.ToLowerInvariant(label[0]) + label.Split(',')[0][1..];

    private static string Times(FuseCurve curve, double amps) => curve.MostAt(amps) is { } late ? Say.Seconds(late) : "never";

    private static string Spares(BankWork then, RunView v, string up) =>
        ProtectedRun.Of(then, v.Doc.Id)?.Together is { Selective: true } ? $"spares {up}" : $"{up} may still go";

    /// <summary>
    /// Its own fuse breaks the short, but lets more through before it does than the copper stands. What leaves it to the fuse upstream, has
    /// none, or one that cannot break it is told by rules of their own.
    /// </summary>
    private static Finding? Burns(FindingScene s, RunView v, ProtectedRun r)
    {
        if (
            ProtectionFields.BurnsOnRun(r) is not var (from, to)
            || r.Own is not { } own
            || v.Fails.Contains(Wiring.FuseFailure.Interrupt) && v.Upstream is not { ReliesOn: not null, WithinM: null }
            || v.Fails.Contains(Wiring.FuseFailure.Cable)
            || r.WithstandsA2s is not { } stands
        )
            return null;
        var through = Wiring.Fuse.MostLetThroughA2s(own.Curve.Class, own.Curve.RatingA, from, to);
        if (own.Curve.Class.IsBreaker)
            through = Math.Max(through, own.Curve.MostAt(to)!.Value * to * to);
        IEnumerable<MendOffer> Ways()
        {
            if (
                v.Run.Fuse.Class != RunStage.AdvisedClass
                && s.Scene.Tables.Fuse(RunStage.AdvisedClass).Next(v.Run.Fuse.WantedA) is { } next
            )
                yield return v.Mend(
                    s,
                    $"Use {Short(s.Scene.Tables.Fuse(RunStage.AdvisedClass).Label)} {Say.Rating(next)}",
                    "it lets little through",
                    r => r with { Fuse = r.Fuse with { Class = RunStage.AdvisedClass, RatingA = null }, Size = null, Parallel = null }
                );
            var k = Math.Sqrt(stands) / (v.Run.Cable.AreaMm2!.Value * v.Run.Cable.Conductors);
            foreach (
                var row in s
                    .Scene.Tables.Practice(v.Run.Laid.Practice)
                    .Rows.Where(x => Tolerant.AtLeast(k * x.Conductor.AreaMm2, Math.Sqrt(through)))
                    .Take(2)
            )
                yield return v.Mend(s, $"Use {row.Size}", "it stands what is let through", r =>
                    r with
                    {
                        Size = row.Size,
                        Parallel = null,
                        ConductorLengthsM = [],
                    }
                );
        }

        return s.Make(
            "fuse.burns",
            Grade.Danger,
            Station.Cables,
            v.Place,
            $"{v.Lead}{v.Cable} may burn first",
            $"In a short of {Say.A(from)} to {Say.A(to)} {own.Name} may let {Figures.Say(through, "A2s")} through before it opens; "
                + $"{v.Cable} stands {Figures.Say(stands, "A2s")}.",
            [new("let through", through, "A2s"), new("the cable stands", stands, "A2s")],
            Ways
        );
    }

    /// <summary>A branch whose fuse the BMS never leaves the time to open.</summary>
    private static Finding? BmsFirst(FindingScene s, RunView v, ProtectedRun r)
    {
        if (
            v.IsMain
            || s.Results.Circuits.FirstOrDefault(c => c.Id == v.Doc.Id)
                is not { Kind: CircuitKind.Panel or CircuitKind.Branch or CircuitKind.Own or CircuitKind.ConverterIn, Behind: false }
            || r.Own is not { Curve: var curve } own
            || BmsLimit.Of(s.Work) is not { } bms
        )
            return null;
        var (at, lasts) = bms is { PeakA: { } peak, PeakSeconds: { } seconds } ? (peak, seconds) : (bms.ContinuousA, 0);
        if (curve.MostAt(at) is { } opens && (Tolerant.AtLeast(lasts, opens) || bms.PeakA is null))
            return null;
        return s.Make(
            "fuse.bms-first",
            Grade.Caution,
            Station.Cables,
            v.Place,
            $"{v.Lead}the BMS opens before {own.Name} does",
            $"The strings let {Say.A(at)} through{(lasts > 0 ? $" for {Say.Seconds(lasts)}" : "")}, then they drop out; at that "
                + $"current the fuse {(curve.MostAt(at) is { } late ? $"may take {Say.Seconds(late)}" : "does not open at all")}. A fault "
                + "on this run darkens everything, and nothing shows where it is.",
            [new("BMS", at, "A"), new("fuse opens from", curve.FirstA, "A")],
            () =>
                (
                    v.Run.Fuse.AdvisedRatingA is { } smaller && smaller < v.Run.Fuse.RatingA
                        ? new[]
                        {
                            v.Mend(s, $"Use {Say.Rating(smaller)}", "as its current asks", x =>
                                x with
                                {
                                    Fuse = x.Fuse with { RatingA = null },
                                }
                            ),
                        }
                        : []
                ).Concat(
                    s.MoreStrings(then => BmsLimit.Of(then) is { } more ? $"lets {Say.A(more.PeakA ?? more.ContinuousA)} through" : "")
                )
        );
    }

    /// <summary>Thinner than what the house rules lay outside a device.</summary>
    private static Finding? TooFine(FindingScene s, RunView v)
    {
        if (v.Run is not { Cable: { Pinned: true, AreaMm2: { } area, Size: { } size, Conductors: var n, Advised: { } advised } })
            return null;
        var least = Least(s, v.Run, s.Scene.Rules.Number("least-size"));
        if (Tolerant.AtLeast(n * area, least))
            return null;
        return s.Make(
            "cable.fine",
            Grade.Caution,
            Station.Cables,
            v.Place,
            $"{v.Lead}{v.Cable} is a thin wire",
            $"It breaks in a bend or a vibrating clip before it burns: {Say.Number(least, 2)} mm² is the least the house rules lay outside "
                + "a device.",
            [new("copper", n * area, "mm2"), new("least", least, "mm2")],
            advised.Size != size ? [v.UseSize(s, advised)] : []
        );
    }

    private static double Least(FindingScene s, RunResult run, double rule) =>
        Wiring.CableSelect.LeastArea(s.Scene.Tables.Practice(run.Laid.Practice).Rows, rule);

    /// <summary>Conductors between batteries, which no fuse protects.</summary>
    private static IEnumerable<Finding> InsideTooFine(FindingScene s)
    {
        if (
            s.Results is not { Network.Copper: { } copper, MainRun: { } main }
            || s.Scene.Rules.NumberOrNone("least-size-battery") is not { } rule
        )
            yield break;
        var least = Least(s, main, rule);
        var wiring = s.Bank.Wiring;
        foreach (var kind in new[] { ConductorKind.Jumper, copper.LinksOrLeads })
        {
            if (copper.Placed.All(c => c.Kind != kind))
                continue;
            var (usual, pinned) = (
                copper.Usual(kind),
                kind switch
                {
                    ConductorKind.Jumper => wiring.Jumper,
                    ConductorKind.Link => wiring.Link,
                    _ => wiring.Lead,
                }
            );
            if (pinned?.Size is null || Tolerant.AtLeast(usual.Conductors * usual.AreaMm2, least))
                continue;
            var word = kind switch
            {
                ConductorKind.Jumper => "jumpers",
                ConductorKind.Link => "links",
                _ => "bus leads",
            };
            yield return s.Make(
                "copper.fine",
                Grade.Caution,
                Station.Bank,
                "/wiring",
                $"{Say.Size(usual.Size, usual.Conductors)} between batteries",
                $"No fuse protects the {word}: {Say.Number(least, 1)} mm² is the least the house rules lay there.",
                [new("copper", usual.Conductors * usual.AreaMm2, "mm2"), new("least", least, "mm2")],
                FindingScene.Offer(
                    $"Lay the {word} as advised",
                    then =>
                        then.Network.Value is { } n
                            ? Say.Size(n.Copper.Usual(kind).Size, n.Copper.Usual(kind).Conductors)
                            : "as the main run",
                    s.Bank with
                    {
                        Wiring = kind switch
                        {
                            ConductorKind.Jumper => wiring with { Jumper = wiring.Jumper! with { Size = null, Parallel = null } },
                            ConductorKind.Link => wiring with { Link = wiring.Link! with { Size = null, Parallel = null } },
                            _ => wiring with { Lead = wiring.Lead! with { Size = null, Parallel = null } },
                        },
                    }
                )
            ) with
            {
                About = word,
            };
        }
    }
}

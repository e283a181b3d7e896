using System.Globalization;
using InkyBadger.Core.Design;
using InkyBadger.Core.Reference;
using InkyBadger.Core.Work;

namespace InkyBadger.Core.Sheets;

/// <summary>What must not be done as long as something is missing.</summary>
/// <param name="Rule">Its id, such as <c>bank-before-fuse</c>.</param>
/// <param name="Sentence">What must not be done and why; or, where it is done already, what is to be undone.</param>
/// <param name="Key">Of the part that forbids it.</param>
/// <param name="Subjects">Keys of the parts that are not to be fitted meanwhile; empty: it is not about fitting.</param>
/// <param name="Ready">A part of them lies ready or is fitted: it could be done now.</param>
/// <param name="Broken">It is done already.</param>
/// <param name="Order">The gravest is 0.</param>
public sealed record BuildBan(
    string Rule,
    string Bank,
    string Sentence,
    string Key,
    IReadOnlyList<string> Subjects,
    bool Ready,
    bool Broken,
    int Order
);

/// <summary>The rules of a build that is half done: a small one each, the gravest first (cautions; method, Building and proving).</summary>
internal static class BuildRules
{
    private static readonly IReadOnlyList<(string Id, Func<BuildState, IEnumerable<Found>> Rule)> All =
    [
        ("bank-before-fuse", BankBeforeFuse),
        ("bank-before-bms", BankBeforeBms),
        ("strings-before-fuses", StringsBeforeFuses),
        ("strings-before-measured", StringsBeforeMeasured),
        ("branch-before-fuse", BranchBeforeFuse),
        ("charge-before-cold-stop", ChargeBeforeColdStop),
        ("charge-before-settings", ChargeBeforeSettings),
        ("charge-before-vent", ChargeBeforeVent),
        ("charge-before-balancer", ChargeBeforeBalancer),
        ("inverter-before-pre-charge", InverterBeforePreCharge),
        ("inverter-before-bond", InverterBeforeBond),
        ("modules-before-controller", ModulesBeforeController),
        ("bank-before-switch", BankBeforeSwitch),
        ("bank-before-covers", BankBeforeCovers),
        ("moving-before-straps", MovingBeforeStraps),
    ];

    /// <summary>The ids, in the order of their gravity.</summary>
    internal static IEnumerable<string> Ids => All.Select(r => r.Id);

    public static IEnumerable<BuildBan> Bans(BuildState s)
    {
        foreach (var (order, (id, rule)) in All.Index())
        foreach (var f in rule(s))
        {
            var fitted = f.Subjects.Any(x => x.Any(LedgerStop.Fitted));
            var broken = f.Bars && fitted;
            yield return new(
                id,
                s.Work.Document.Id,
                broken ? $"{f.Undo}: {f.Because}" : $"Do not {f.Act}: {f.Because}",
                f.Blocker.Part.Key,
                f.Bars ? [.. f.Subjects.Select(x => x.Part.Key)] : [],
                f.Bars ? f.Subjects.Any(x => x.Any(LedgerStop.Here)) : fitted,
                broken,
                // What is done already is undone before anything else of its kind.
                2 * order
                    + (broken ? 0 : 1)
            );
        }
    }

    /// <param name="Act">After “do not”.</param>
    /// <param name="Undo">What is to be done where it is done already.</param>
    /// <param name="Bars">Its parts are not fitted meanwhile; else it is what is done with them once they are.</param>
    private sealed record Found(
        string Act,
        string Undo,
        string Because,
        LedgerRow Blocker,
        IReadOnlyList<LedgerRow> Subjects,
        bool Bars = true
    );

    private static string TagOf(LedgerRow row) => row.Part.Tag;

    private static bool Missing(LedgerRow? row, LedgerStop stop = LedgerStop.Fitted) => row is not null && !row.All(stop);

    private static IEnumerable<Found> BankBeforeFuse(BuildState s)
    {
        if (s.Find($"fuse-{Run.MainId}") is not { } fuse || !Missing(fuse))
            yield break;
        var short_ = s.Evaluation.Protection is { } p ? $"; a short pushes {Say.A(p.Short.Amps)}" : "";
        // Units that stand in their places are no danger yet; a run that leaves the post is.
        yield return new(
            $"connect the bank{s.Of}",
            s.FirstPlus is { } run ? $"Take {TagOf(run)} off{s.Of}" : $"Leave the posts covered{s.Of}",
            $"the main fuse {TagOf(fuse)} is not fitted{short_}",
            fuse,
            s.FirstPlus is { } first ? [first] : [.. s.Units],
            Bars: s.FirstPlus is not null
        );
    }

    private static IEnumerable<Found> BankBeforeBms(BuildState s)
    {
        if (s.Find("bms") is { } bms && Missing(bms))
            yield return new(
                $"connect the cells{s.Of}",
                $"Take the cells off what they are joined to{s.Of}",
                "their BMS is not fitted, and nothing else stops them at either end",
                bms,
                [.. s.FirstPlus is { } first ? [first] : s.Joining]
            );
    }

    private static IEnumerable<Found> StringsBeforeFuses(BuildState s)
    {
        if (s.Find($"fuse-{Run.StringsId}") is { } fuses && Missing(fuses) && s.Joining.Any())
            yield return new(
                $"join the strings{s.Of}",
                $"Take the strings apart{s.Of}",
                $"their fuses {TagOf(fuses)} are not fitted, and a string that fails is fed by the others",
                fuses,
                [.. s.Joining]
            );
    }

    private static IEnumerable<Found> StringsBeforeMeasured(BuildState s)
    {
        if (s.Work.Pack.Value is not { Parallel: > 1 } || !s.Joining.Any())
            yield break;
        if (s.Units.FirstOrDefault(u => Missing(u, LedgerStop.Proven)) is { } unit)
            yield return new(
                $"join the strings{s.Of}",
                $"Take the strings apart and measure{s.Of}",
                $"the units {TagOf(unit)} are not all measured at rest, and unlike volts drive a current nothing limits",
                unit,
                [.. s.Joining]
            );
    }

    private static IEnumerable<Found> BranchBeforeFuse(BuildState s)
    {
        foreach (var c in s.Evaluation.Circuits)
            if (s.Find($"fuse-{c.Id}") is { } fuse && Missing(fuse) && s.CutOf(c.Id) is { } cut)
                yield return new(
                    $"connect {c.Name}{s.Of}",
                    $"Take {TagOf(cut)} off the bus{s.Of}",
                    $"its fuse {TagOf(fuse)} is not fitted",
                    fuse,
                    [cut]
                );
    }

    private static IEnumerable<(LedgerRow Device, LedgerRow Cut, SettingsCard Card)> Chargers(BuildState s)
    {
        foreach (var c in s.Evaluation.Circuits.Where(c => c.Kind == CircuitKind.Charge))
            if (
                c.Source is { } i
                && s.Work.Document.Sources[i].Id is var id
                && s.Find($"source-{id}") is { } device
                && s.CutOf(c.Id) is { } cut
                && s.Evaluation.Charging?.Cards.FirstOrDefault(k => k.Device == id) is { } card
            )
                yield return (device, cut, card);
    }

    private static bool Open(CardRow row) => !row.Done && (row.Must || row.Found is null && row.FoundWord is null);

    private static IEnumerable<Found> ChargeBeforeColdStop(BuildState s)
    {
        if (s.Evaluation.Bank is not { } bank || !Chemistries.Get(bank.Unit.Chemistry).IsLithium)
            yield break;
        // A BMS that looks at the cells’ temperature stops whatever charges them, once it is in.
        if (bank.Unit.IsBare() && s.Work.Document.Bms?.LeastChargeC is not null && s.Find("bms")?.All(LedgerStop.Fitted) == true)
            yield break;
        foreach (var (device, cut, card) in Chargers(s))
            if (card.Rows.FirstOrDefault(r => r.Setting == "leastC") is { } stop && Open(stop))
                yield return new(
                    $"connect {card.Name}{s.Of}",
                    $"Take {TagOf(cut)} off the bus{s.Of}",
                    "nothing is set that stops it below 0 °C, and lithium charged frozen is spoilt for good",
                    device,
                    [cut]
                );
    }

    private static IEnumerable<Found> ChargeBeforeSettings(BuildState s)
    {
        foreach (var (device, cut, card) in Chargers(s))
            if (card.Rows.Count(r => r.Setting != "leastC" && Open(r)) is > 0 and var open)
                yield return new(
                    $"connect {card.Name}{s.Of}",
                    $"Take {TagOf(cut)} off the bus{s.Of}",
                    $"{open} of its settings {(open == 1 ? "is" : "are")} not put in",
                    device,
                    [cut]
                );
    }

    private static IEnumerable<Found> ChargeBeforeVent(BuildState s)
    {
        if (
            s.Evaluation.Bank is { } bank
            && !Chemistries.Get(bank.Unit.Chemistry).IsLithium
            && s.Find("box") is { } box
            && Missing(box)
            && ChargeCuts(s) is { Count: > 0 } cuts
        )
            yield return new(
                $"charge the bank{s.Of}",
                $"Switch the chargers off{s.Of}",
                "its vented box is not fitted, and lead-acid gives off hydrogen",
                box,
                cuts
            );
    }

    private static IEnumerable<Found> ChargeBeforeBalancer(BuildState s)
    {
        if (s.Find("balancer") is { } balancer && Missing(balancer) && ChargeCuts(s) is { Count: > 0 } cuts)
            yield return new(
                $"charge the bank{s.Of}",
                $"Switch the chargers off{s.Of}",
                $"the balancers {TagOf(balancer)} are not fitted, and the fuller unit of a string is overcharged first",
                balancer,
                cuts
            );
    }

    private static List<LedgerRow> ChargeCuts(BuildState s) =>
        [.. s.Evaluation.Circuits.Where(c => c.Kind == CircuitKind.Charge).Select(c => s.CutOf(c.Id)).OfType<LedgerRow>()];

    private static IEnumerable<Found> InverterBeforePreCharge(BuildState s)
    {
        if (s.Find("pre-charge") is { } resistor && Missing(resistor) && s.InverterCopper is { Count: > 0 } cuts)
            yield return new(
                $"connect the inverter{s.Of}",
                $"Take {TagOf(cuts[0])} off the inverter{s.Of}",
                $"the pre-charge {TagOf(resistor)} is not fitted, and the inrush welds contacts",
                resistor,
                cuts
            );
    }

    private static IEnumerable<Found> InverterBeforeBond(BuildState s)
    {
        if (s.CutOf(Run.BondingId) is { } bond && Missing(bond) && s.InverterCopper is { Count: > 0 } cuts)
            yield return new(
                $"connect the inverter{s.Of}",
                $"Switch the inverter off and leave it off{s.Of}",
                $"the bond {TagOf(bond)} is not fitted",
                bond,
                cuts
            );
    }

    private static IEnumerable<Found> ModulesBeforeController(BuildState s)
    {
        foreach (var source in s.Work.Document.Sources.Where(x => x.Array is not null))
            if (
                s.CutOf(Run.ArrayPrefix + source.Id) is { } array
                && s.CutOf(Run.SourcePrefix + source.Id) is { } cut
                && (
                    Missing(cut) ? cut
                    : s.Find($"source-{source.Id}") is { } device && Missing(device) ? device
                    : null
                )
                    is { } blocker
            )
                yield return new(
                    $"connect the modules of {source.Name}{s.Of}",
                    $"Cover the modules of {source.Name} and take {TagOf(array)} off{s.Of}",
                    "their controller is not on the bank, and many are spoilt by sun without one",
                    blocker,
                    [array]
                );
    }

    private static IEnumerable<Found> BankBeforeSwitch(BuildState s)
    {
        if (s.Find("switch") is { } isolator && Missing(isolator) && s.FirstPlus is { } first)
            yield return new(
                $"connect the bank{s.Of}",
                $"Take {TagOf(first)} off{s.Of}",
                $"the main switch {TagOf(isolator)} is not fitted, and nothing else parts the bus from it",
                isolator,
                [first]
            );
    }

    private static IEnumerable<Found> BankBeforeCovers(BuildState s)
    {
        if (s.Find("covers") is { } covers && Missing(covers, LedgerStop.Here) && s.FirstPlus is { } first)
            yield return new(
                $"connect the bank{s.Of}",
                $"Cover the live lugs with what there is, and put no tool down near them{s.Of}",
                $"{Covers(covers)} over live lugs are not here",
                covers,
                [first]
            );
    }

    private static string Covers(LedgerRow row) =>
        $"{(row.Part.Count - row.Reached.Here).ToString("0", CultureInfo.InvariantCulture)} covers";

    private static IEnumerable<Found> MovingBeforeStraps(BuildState s)
    {
        if (s.Work.Scene.Design.Place.Trim is not null && s.Find("straps") is { } straps && Missing(straps))
            yield return new(
                $"set off{s.Of}",
                $"Do not set off{s.Of}",
                "the units are not strapped down, and fly in a crash or a knock-down",
                straps,
                [.. s.Units],
                Bars: false
            );
    }
}

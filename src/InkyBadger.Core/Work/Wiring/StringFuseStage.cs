using InkyBadger.Core.Banks;
using InkyBadger.Core.Design;
using InkyBadger.Core.Reference;
using InkyBadger.Core.Wiring;
using InkyBadger.Core.Working;

namespace InkyBadger.Core.Work;

/// <summary>
/// The fuses of the parallel strings, which are alike: whether the house rule asks for them, whether they are there, class and rating as
/// advised or chosen, and each string's own figures. <paramref name="LeadAmpacityA"/>: what the conductor behind each carries.
/// </summary>
public sealed record StringFusesPlan(
    bool Asked,
    bool Fitted,
    string FuseClass,
    string FuseLabel,
    bool ClassPinned,
    double? RatingA,
    bool RatingPinned,
    double? AdvisedRatingA,
    double MaxDcV,
    double InterruptA,
    double GreatestV,
    double LeadAmpacityA,
    IReadOnlyList<StringFuse> Strings,
    bool Fits
);

/// <summary>
/// A fuse in each parallel string by the house rule, in the document's run <see cref="Run.StringsId"/> where anything of them was chosen
/// (method, 7.3).
/// </summary>
public static class StringFuseStage
{
    public static Step<StringFusesPlan> Work(BankWork w)
    {
        var (scene, bank, main, network, protection, pack) = (
            w.Scene,
            w.Bank.Need(),
            w.MainRun.Need(),
            w.Network.Need(),
            w.Protection.Need(),
            w.Pack.Need()
        );
        if (bank.Layout.Parallel == 1)
            return new Gap(Station.Cables, "/parallel", "one string alone needs no fuse of its own");
        var run = scene.Bank.Runs.FirstOrDefault(r => r.Id == Run.StringsId);
        var fuse = scene.Tables.AtVolts(
            scene.Tables.Fuse(run?.Fuse.Class is { } id && scene.Tables.HasFuse(id) ? id : RunStage.AdvisedClass),
            protection.GreatestChargingV
        );
        // The fuse protects what lies between the string and the rail: a lead on bus bars, a jumper's size of copper on rails.
        var behind =
            network.Wiring.Style == WiringStyle.BusBars ? network.Copper.Lead
            : bank.Layout.Series > 1 ? network.Copper.Jumper
            : network.Copper.Link;
        var strings = pack.Strings.Select(s => Of(s, behind.AmpacityA, main.DesignA)).ToList();
        var load = w.Currents.Value is { BankWorstA: > 0 } currents ? currents.BankWorstA : (double?)null;
        var wired = w.Wired.Need().InFault;
        var cellV = Chemistries.Get(bank.Unit.Chemistry).CellOpenV;
        // Alike in every string: the rating of the one that carries most.
        var own = StringFuses
            .Work(wired, strings, fuse, StringFuseRule.Always, bank.Layout.Cells, cellV, protection.GreatestChargingV, load ?? main.DesignA)
            .Strings!;
        var asked = Asked(scene, bank.Layout.Parallel, bank.Unit, own.Max(f => f.ShortCircuitA));
        var fitted = run is null ? asked : !run.Fuse.Absent;
        var advised = own.Any(f => f.RatingA is null) ? null : own.Max(f => f.RatingA);
        // Where the usual margin would be above a BMS's peak: what it lets through for good, and no more than its peak.
        var closer =
            advised is { } usual && pack.Strings.Min(s => s.PeakA) is { } peak && Tolerant.Exceeds(usual, peak)
                ? Closer(fuse, own.Max(f => f.GreatestA), peak)
                : null;
        advised = closer ?? advised;
        var judged = (run?.Fuse.RatingA ?? advised) is { } rating
            ? StringFuses.Rated(own, strings, fuse, rating, protection.GreatestChargingV)
            : own;
        if (closer is { } close && (run?.Fuse.RatingA ?? close) == close)
            judged = [.. judged.Select(f => f with { Fails = [.. f.Fails.Where(x => x != StringFuseFailure.Rating)] })];
        var result = new StringFusesPlan(
            asked,
            fitted,
            fuse.Id,
            fuse.Label,
            run?.Fuse.Class is not null,
            run?.Fuse.RatingA ?? advised,
            run?.Fuse.RatingA is not null,
            advised,
            fuse.MaxDcV,
            fuse.InterruptA,
            protection.GreatestChargingV,
            behind.AmpacityA,
            judged,
            judged.All(f => f.Fails.Count == 0)
        );
        if (scene.Tape is { } tape)
            WriteWorking(tape, result, protection, network.Ceiling.Amps is not null);
        return result;
    }

    /// <summary>Whether the house rules ask for a fuse in each of so many strings of this unit.</summary>
    /// <param name="faultA">
    /// What the other strings push into a short in one [A]; a breaker in the unit must break it. Null: not known yet.
    /// </param>
    internal static bool Asked(BankScene scene, int parallel, UnitItem unit, double? faultA = null)
    {
        var rule = RuleOf(scene.Rules.Word("fuse-each-string"));
        if (rule == StringFuseRule.None || parallel < (rule == StringFuseRule.Always ? 2 : 3))
            return false;
        if (unit.BreakerA is null)
            return true;
        return scene.Rules.Word("string-fuse-breaker") switch
        {
            "none" => false,
            "none-if-known" => unit.BreakerInterruptA is not { } breaks || faultA is { } fault && !Tolerant.AtLeast(breaks, fault),
            _ => true,
        };
    }

    private static StringFuseRule RuleOf(string word) =>
        word switch
        {
            "none" => StringFuseRule.None,
            "always" => StringFuseRule.Always,
            _ => StringFuseRule.ThreeOrMore,
        };

    /// <summary>The largest rating made between what a string carries for good and its BMS's peak; null: there is none.</summary>
    private static double? Closer(FuseClass fuse, double greatestA, double peakA) =>
        fuse.RatingsA.LastOrDefault(r => Tolerant.AtLeast(r, greatestA) && Tolerant.AtLeast(peakA, r)) is > 0 and var rating
            ? rating
            : null;

    /// <summary>However much its units would allow, a string never carries more than the whole bank is asked for.</summary>
    private static FusedString Of(PackString s, double ampacityA, double mostA) =>
        new(s.LimitA is { } limit ? Math.Min(mostA, limit) : null, ampacityA, s.PeakA);

    private static void WriteWorking(Tape tape, StringFusesPlan r, ProtectionResult protection, bool limited)
    {
        foreach (var (i, f) in r.Strings.Index())
        {
            var name = Say.StringName(i + 1);
            tape.Write(
                $"/stringFuses/strings/{i}/greatestA",
                $"the most in string {name}",
                f.GreatestA,
                "A",
                "7.3",
                null,
                [
                    T.Worked("s", null, "fraction", "its share", $"/network/strings/shares/{i}"),
                    .. limited ? [T.Worked("c", null, "A", "ceiling", "/network/ceiling/amps")] : Array.Empty<Term>(),
                    T.Worked("I", null, "A", "full load", "/mainRun/designA"),
                ],
                "Its share of the bank’s ceiling, but never more than the whole bank is asked for, or, if more, what it carries "
                    + "when any one string drops out at full load and others follow.",
                "fuse-each-string"
            );
            tape.Write(
                $"/stringFuses/strings/{i}/wantedA",
                $"least rating of string {name}’s fuse",
                f.WantedA,
                "A",
                "7.3",
                "{m} × {g}",
                [
                    T.Assumed("m", Fuse.Margin, "", "margin against nuisance"),
                    T.Worked("g", f.GreatestA, "A", "the most in it", $"/stringFuses/strings/{i}/greatestA"),
                ]
            );
            tape.Write(
                $"/stringFuses/strings/{i}/shortCircuitA",
                $"what the other strings push into a short in string {name}",
                f.ShortCircuitA,
                "A",
                "5.4",
                null,
                [T.Worked("U", protection.Short.OpenV, "V", "open circuit", "/protection/short/openV")],
                "The network of the other strings, at their open-circuit volts, into a short at this string’s fuse."
            );
        }
        if (r.RatingA is { } rating)
            tape.Write(
                "/stringFuses/ratingA",
                "rating of the string fuses",
                rating,
                "rating",
                "7.3",
                null,
                [
                    r.RatingPinned
                        ? T.You("r", rating, "rating", "pinned by you", "/runs")
                        : T.Table("r", rating, "rating", $"next rating of {r.FuseLabel}", "fuses"),
                    T.Worked(
                        "w",
                        r.Strings.Max(f => f.WantedA),
                        "A",
                        "least",
                        $"/stringFuses/strings/{r.Strings.Index().MaxBy(f => f.Item.WantedA).Index}/wantedA"
                    ),
                ],
                r.RatingPinned ? "You chose this rating." : "The smallest rating made at or above the least, alike in every string.",
                "fuse-each-string"
            );
    }
}

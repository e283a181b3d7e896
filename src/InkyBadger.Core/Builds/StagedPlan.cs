using InkyBadger.Core.Costs;
using InkyBadger.Core.Design;
using InkyBadger.Core.Rehearsal;
using InkyBadger.Core.Work;

namespace InkyBadger.Core.Builds;

/// <summary>How a build is bought in two stages; null: usual, or as now.</summary>
public sealed record StageTerms
{
    /// <summary>Strings built now; null: half of them.</summary>
    public int? StringsNow { get; init; }

    /// <summary>Until the rest is added [years, 0 to 20].</summary>
    public double YearsLater { get; init; } = 3;

    /// <summary>Of a unit then [money].</summary>
    public double? PriceLater { get; init; }

    /// <summary>Of the second visit [money].</summary>
    public double VisitCost { get; init; }

    /// <summary>What money is worth less a year later (a fraction).</summary>
    public double DiscountRate { get; init; } = BuildStaged.UsualDiscount;
}

/// <summary>What the first stage alone would do with, and what it gets from the first day because the whole needs it.</summary>
public sealed record StageNeed(string What, string Alone, string Whole);

/// <summary>
/// Old and new strings together: what the old still hold (a fraction), the greatest share of a string and the even one, usable and
/// delivered under full load [Wh], what stays in the units that others leave [Wh], and what is found wrong then.
/// </summary>
public sealed record StageMix(
    double OldFactor,
    double WorstShare,
    double EvenShare,
    double UsableWh,
    double DeliveredWh,
    double StrandedWh,
    IReadOnlyList<string> Wrong,
    string Sentence
);

/// <summary>
/// Buying now and adding later, against all at once: either stage a whole build, what is wrong with the first alone, the money (null: a
/// price is not known), what must be big enough from the first day. <paramref name="Not"/>: why it cannot be bought so.
/// </summary>
public sealed record StagedPlanResult(
    int StringsNow,
    int Strings,
    double YearsLater,
    double? Price,
    double? PriceLater,
    double VisitCost,
    double DiscountRate,
    double FadePerYear,
    Build Whole,
    Build? First,
    IReadOnlyList<string> FirstWrong,
    BuildStagedResult? Money,
    IReadOnlyList<StageNeed> FromTheFirstDay,
    StageMix? Mixed,
    string? Not,
    string Sentence
);

/// <summary>A build in two stages, each worked out whole (method, 8.7).</summary>
public static class StagedPlan
{
    /// <param name="choice">Null: the design as it stands.</param>
    /// <returns>Null: nothing can be built yet.</returns>
    public static StagedPlanResult? Work(DesignDocument design, int index, BuildChoice? choice, StageTerms stages, BuildTerms terms)
    {
        if ((choice is null ? BuildMaker.Present(design, index, terms) : BuildMaker.Of(design, index, choice, terms)) is not { } whole)
            return null;
        var full = whole.Choice;
        var now = Math.Clamp(stages.StringsNow ?? Math.Max(1, full.Parallel / 2), 1, Math.Max(1, full.Parallel - 1));
        var fade = Reference.Chemistries.Get(full.Unit.Chemistry).IsLithium ? BuildStaged.UsualFade : BuildStaged.LeadFade;
        var later = stages.PriceLater ?? whole.UnitPrice;
        StagedPlanResult Said(
            Build? first,
            BuildStagedResult? money,
            IReadOnlyList<StageNeed> needs,
            StageMix? mix,
            string? not,
            string sentence
        ) =>
            new(
                now,
                full.Parallel,
                stages.YearsLater,
                whole.UnitPrice,
                later,
                stages.VisitCost,
                stages.DiscountRate,
                fade,
                whole,
                first,
                first is null ? [] : [.. first.Wrong.Where(w => !whole.Wrong.Contains(w))],
                money,
                needs,
                mix,
                not,
                sentence
            );
        if (full.Parallel < 2)
        {
            const string not = "It is one string, and in series old and new never mix: a larger unit would take its place";
            return Said(null, null, [], null, not, not);
        }
        // What is fitted for the whole from the first day is no cheaper: the first stage is looked at by itself for what it does.
        var first = BuildMaker.Of(design, index, full with { Parallel = now }, terms);
        var units = whole.Units / full.Parallel;
        var money =
            whole.UnitPrice is { } price && later is { } then
                ? BuildStaged.Work(
                    new(now * units, price, (full.Parallel - now) * units, stages.YearsLater, whole.UsableWh / whole.Units)
                    {
                        UnitPriceLater = then,
                        VisitCost = stages.VisitCost,
                        DiscountRate = stages.DiscountRate,
                        FadePerYear = fade,
                    }
                )
                : null;
        var mix = Mix(design, index, whole, now, Math.Max(0.01, 1 - fade * stages.YearsLater), stages.YearsLater);
        return Said(first, money, first is null ? [] : Needs(first, whole), mix, null, Sentence(whole, now, units, money, stages));
    }

    private static string Sentence(Build whole, int now, int units, BuildStagedResult? money, StageTerms stages)
    {
        var plan = $"{now * units} of {whole.Units} units now, the rest in {Figures.Number(stages.YearsLater, 1, true)} years";
        if (money is null)
            return $"{plan}: what a unit costs is not known";
        var difference = Say.Number(Math.Abs(money.AtOnceValue - money.StagedValue));
        var until =
            money.BreakEvenPrice >= 0
                ? $"waiting is cheaper as long as a unit costs no more than {Say.Number(money.BreakEvenPrice)} then"
                : "no later price is low enough";
        return money.Cheaper == StagedVerdict.Staged
            ? $"{plan}: {difference} cheaper in today’s money; {until}"
            : $"{plan}: all at once is {(difference == "0" ? "as cheap" : $"{difference} cheaper")} in today’s money; {until}";
    }

    private static List<StageNeed> Needs(Build first, Build whole)
    {
        var needs = new List<StageNeed>();
        void Add(string what, string alone, string all)
        {
            if (alone != all)
                needs.Add(new(what, alone, all));
        }
        string Rated(double? amps) => amps is { } a ? Say.Rating(a) : "none";
        Add("main cable", first.Cable, whole.Cable);
        Add("main fuse and its holder", Rated(first.FuseA), Rated(whole.FuseA));
        foreach (
            var (what, part) in (ReadOnlySpan<(string, string)>)
                [("places for string fuses", "string fuse"), ("bus bars at the bank", "bus bar at the bank")]
        )
        {
            string Of(Build b) => b.Bill.Lines.FirstOrDefault(l => l.What == part) is { } line ? Say.Number(line.Count) : "none";
            Add(what, Of(first), Of(whole));
        }
        string Link(Build b) =>
            b.Bill.Lines.FirstOrDefault(l =>
                l.What.StartsWith("rail link", StringComparison.Ordinal) || l.What.StartsWith("bus lead", StringComparison.Ordinal)
            )?.What
            ?? "none";
        Add("links", Link(first), Link(whole));
        string Room(Build b) =>
            b.Layout is { } l ? $"{Say.Number(l.LengthMm)} × {Say.Number(l.WidthMm)} × {Say.Number(l.HeightMm)} mm" : "not known";
        Add("room", Room(first), Room(whole));
        return needs;
    }

    /// <summary>The whole bank with its first strings as old as they are then.</summary>
    private static StageMix? Mix(DesignDocument design, int index, Build whole, int now, double factor, double years)
    {
        var there = BuildBank.In(design, index, whole.Choice);
        var (series, parallel) = (whole.Choice.Series, whole.Choice.Parallel);
        var old =
            from s in Enumerable.Range(1, now)
            from u in Enumerable.Range(1, series)
            select new Position
            {
                String = s,
                Unit = u,
                Health = factor,
                AgeYears = years,
            };
        var mixed = there with { Banks = [.. there.Banks.Select((b, i) => i == index ? b with { Positions = [.. old] } : b)] };
        var w = new SiteWork(mixed)[index];
        var findings = new List<Findings.Finding>();
        var e = Findings.FindingRules.Evaluate(w, findings);
        if (e is not { Bank: { } bank, Network: { } network } || w.Pack.Value is null)
            return null;
        var amps = e.Currents is { IsOffer: false } && network.Strings.BankA > 0 ? network.Strings.BankA : 0.2 * bank.Holds.Ah;
        var run = BankRunDown.Of(w, Math.Min(amps, network.Ceiling.Amps ?? amps) * bank.Holds.NominalV, null);
        List<string> wrong =
        [
            .. findings
                .Where(f =>
                    f.Grade <= Findings.Grade.Caution
                    && !whole.Wrong.Contains(f.Title)
                    && f.Rule.StartsWith("bank.", StringComparison.Ordinal)
                )
                .Select(f => f.Title)
                .Take(3),
        ];
        var stays = run.StrandedWh / Math.Max(1, run.HeldWh);
        return new(
            factor,
            network.Strings.WorstShare,
            1.0 / parallel,
            bank.Holds.UsableWh,
            run.DeliveredWh,
            run.StrandedWh,
            wrong,
            $"String {Say.StringName(network.Strings.Worst)} then carries {Say.Percent(network.Strings.WorstShare)} where "
                + $"{Say.Percent(1.0 / parallel)} were even; "
                + (
                    stays < 0.005
                        ? "nothing worth a word stays in the others when the first is empty"
                        : $"{Say.Wh(run.StrandedWh)} stay in the units when the bank is dark"
                )
        );
    }
}

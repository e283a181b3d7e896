using InkyBadger.Core.Design;
using InkyBadger.Core.Reference;
using InkyBadger.Core.Work;

namespace InkyBadger.Core.Sheets;

/// <summary>What stands under every paper: what is to be heeded, and the tables its figures come from.</summary>
public static class Footing
{
    /// <summary>Units heavier than this are lifted by two [kg].</summary>
    private const double LiftKg = 25;

    /// <summary>The cautions that this design asks for, a sentence or two each.</summary>
    public static IReadOnlyList<string> Cautions(PaperSite papers)
    {
        var (design, site) = (papers.Design, papers.Site);
        var banks = Enumerable
            .Range(0, site.Count)
            .Select(i => site[i].Evaluation(headlines: false))
            .Where(e => e.Bank is not null)
            .ToList();
        var list = new List<string>
        {
            "A battery cannot be switched off. Even at 12 V a short circuit gives thousands of amperes: burns, molten metal, "
                + "fire. Rings and "
                + "watches off, insulated tools, one terminal at a time, and every positive covered that is not worked on.",
            "Isolate all sources (sun, plug, engine, generator) before touching, then prove it dead with a meter that was proved on a live "
                + "point.",
        };
        if (banks.Any(e => e.Bank!.Layout.Parallel > 1))
            list.Add("Strings are joined only when their volts match at rest; nothing else limits the current that flows.");
        if (banks.Any(e => e.Inverter is { Item.ContinuousW: >= 1000 }))
            list.Add(
                "An inverter of 1 kW or more is filled through a resistor before the main switch is closed: the inrush welds contacts."
            );
        if (
            banks.Any(e =>
                (e.Protection?.GreatestChargingV ?? 0) > NeedsStage.TouchLimitV
                || (e.Charging?.Sources.Any(x => x.Array is { ColdVocV: > NeedsStage.TouchLimitV }) ?? false)
            )
        )
            list.Add(
                $"Over {Say.V(NeedsStage.TouchLimitV)} DC can kill, strings of modules among them. An arc in DC does not go out by itself: "
                    + "only switches that are made for it break it."
            );
        if (banks.Any(e => e.Inverter is not null) || design.Banks.Any(b => b.Sources.Any(x => x.Kind is SourceKind.Mains)))
            list.Add(
                "The AC side, its bond of neutral and earth, its residual-current protection and its transfer belong to a licensed "
                    + "electrician and to local rules."
            );
        if (banks.Any(e => Chemistries.Get(e.Bank!.Unit.Chemistry).IsLithium))
            list.Add(
                "Lithium: never charge below 0 °C, never bypass a BMS, never mix chemistries; stop using a swollen or hot cell. "
                    + "Keep an exit, "
                    + "and a smoke alarm where people sleep."
            );
        if (banks.Any(e => !Chemistries.Get(e.Bank!.Unit.Chemistry).IsLithium))
            list.Add("Lead-acid gives off hydrogen when it is charged: ventilate, no sparks, eyes and skin protected against acid.");
        if (banks.Any(e => e.Bank!.Unit.MassKg > LiftKg))
            list.Add($"Over {Say.Mass(LiftKg, design.Display.Units)} is lifted by two.");
        list.Add("Every battery is held against a crash or a knock-down, and nothing of metal can fall on its posts.");
        list.Add("Insurance and law: some places ask for a licensed installer, a certificate or notice of lithium.");
        list.Add("A plan is not an inspection: somebody who knows checks the work, and signs for it.");
        return list;
    }

    private static string PracticeOf(DesignDocument design, string id) =>
        design.Tables.Practices.FirstOrDefault(p => p.Id == id)?.Label ?? $"{id.Replace('-', ' ')} °C";

    /// <summary>Tables of one’s own that are in use, each with where it is from.</summary>
    private static IEnumerable<string> Brought(PaperSite papers)
    {
        var tables = papers.Design.Tables;
        var used = new HashSet<string>();
        for (var i = 0; i < papers.Count; i++)
        {
            var e = papers.Site[i].Evaluation(headlines: false);
            foreach (var run in e.MainRun is { } main ? e.Circuits.Select(c => c.Run).Prepend(main) : [])
                used.UnionWith([run.Laid.Practice, run.Fuse.Class, run.Cable.Size ?? ""]);
            used.Add(e.StringFuses is { Fitted: true } strings ? strings.FuseClass : "");
        }
        foreach (var practice in tables.Practices.Where(p => used.Contains(p.Id)))
            yield return $"Own ampacity table “{practice.Label}”: {practice.Source}.";
        foreach (var fuse in tables.Fuses.Where(f => used.Contains(f.Id)))
            yield return $"Own fuse class “{fuse.Label}”, with its maker’s curve: {fuse.Source}.";
        foreach (var conductor in tables.Conductors.Where(c => used.Contains(c.Size)))
            yield return $"Own conductor {conductor.Size}: {conductor.Source}.";
    }

    /// <summary>The tables and rules the figures come from, named as what they are.</summary>
    public static IReadOnlyList<string> Tables(PaperSite papers)
    {
        var (design, site) = (papers.Design, papers.Site);
        var list = new List<string>();
        var practices = Enumerable
            .Range(0, site.Count)
            .SelectMany(i =>
                site[i].Evaluation(headlines: false) is { MainRun: { } main } e ? e.Circuits.Select(c => c.Run).Prepend(main) : []
            )
            .Select(r => $"{PracticeOf(design, r.Laid.Practice)} at {Say.Number(r.Laid.AmbientC)} °C")
            .Distinct()
            .ToList();
        if (practices.Count > 0)
            list.Add($"Ampacity: {string.Join("; ", practices)}.");
        list.Add(
            "Fuse classes with their volts, interrupt ratings and opening times; copper at 20 °C; rest volts and settings by chemistry."
        );
        list.AddRange(Brought(papers));
        var own = design.HouseRules.Own.Select(r =>
            $"{(HouseRuleTable.Has(r.Key) ? HouseRuleTable.Get(r.Key).Label : r.Key)} {r.Value.ToString().Replace('-', ' ')}"
        );
        list.Add(
            $"House rules: {design.HouseRules.Set.ToString().ToLowerInvariant()}"
                + (design.HouseRules.Own.Count > 0 ? $"; own: {string.Join(", ", own)}" : "")
                + "."
        );
        if (design.Prices.Date is { } date)
            list.Add($"Prices of {date}; parts without one of their own have a typical one.");
        list.Add(
            "All of these are typical values of common practice. The rules where the system will be used, the makers’ instructions and a "
                + "qualified person’s judgement come first."
        );
        return list;
    }
}

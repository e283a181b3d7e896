using InkyBadger.Core.Design;
using InkyBadger.Core.Trials;
using InkyBadger.Core.Work;

namespace InkyBadger.Core.Sheets;

/// <summary>What is written on a sleeve: one for either end of each piece.</summary>
/// <param name="Tag">As the cut list has it, such as M1+.</param>
/// <param name="Count">Sleeves of it.</param>
public sealed record Sleeve(string Bank, string Tag, string From, string To, string Size, int Count);

/// <summary>The plate on a bank’s box: figures with what they are, and what is to be heeded.</summary>
public sealed record Plate(string Bank, string Title, IReadOnlyList<PlateLine> Lines, IReadOnlyList<string> Warnings);

/// <summary>A figure of the plate.</summary>
public sealed record PlateLine(string Figure, string Words);

/// <summary>All that is stuck on: sleeves for both ends of each run, and a plate for each bank.</summary>
public sealed record LabelsResult(IReadOnlyList<Sleeve> Sleeves, IReadOnlyList<Plate> Plates)
{
    public static LabelsResult Work(DesignDocument design) => Work(new PaperSite(design));

    /// <summary>Of a design whose lists are worked out already.</summary>
    public static LabelsResult Work(PaperSite papers)
    {
        var (design, site) = (papers.Design, papers.Site);
        var (sleeves, plates) = (new List<Sleeve>(), new List<Plate>());
        for (var i = 0; i < site.Count; i++)
        {
            var e = site[i].Evaluation(headlines: false);
            if (papers.Lists(i) is { } cuts)
                sleeves.AddRange(
                    cuts.Cables.Select(c => new Sleeve(e.Id, c.Label, c.From, c.To, $"{c.Size}, {Length(c, design)}", 2 * c.Pieces))
                );
            if (e is { Bank: { } bank, Protection: { } protection })
                plates.Add(PlateOf(e, bank, protection, site.Count > 1));
        }
        return new(sleeves, plates);
    }

    private static string Length(CableRow c, DesignDocument design) => Say.Length(c.LengthM, design.Display.Units);

    private static Plate PlateOf(BankEvaluation e, BankResult bank, ProtectionResult protection, bool several)
    {
        var lines = new List<PlateLine>
        {
            new(Say.V(bank.Holds.NominalV), "nominal"),
            new(Say.V(protection.GreatestChargingV), "charging"),
            new(Say.A(protection.Short.Amps), "a short at the posts"),
            new(Say.Wh(bank.Holds.RatedWh), $"{Say.Wh(bank.Holds.UsableWh)} usable"),
        };
        if (e.Currents is { } currents)
            lines.Insert(3, new(Say.A(currents.BankWorstA), currents.IsOffer ? "may be given" : "at full load"));
        if (e.MainRun?.Fuse is { RatingA: { } rating } fuse)
            lines.Add(new(Say.Rating(rating), $"main fuse, {fuse.Label}"));
        var warnings = new List<string>
        {
            "Cannot be switched off: thousands of amperes in a short circuit.",
            "Isolate all sources, and prove it dead, before touching.",
        };
        if (protection.GreatestChargingV > NeedsStage.TouchLimitV)
            warnings.Add($"Over {Say.V(NeedsStage.TouchLimitV)} DC: can kill.");
        warnings.Add(
            Reference.Chemistries.Get(bank.Unit.Chemistry).IsLithium
                ? "Lithium: never charge below 0 °C, never bypass the BMS."
                : "Lead-acid gives off hydrogen: ventilate, no sparks."
        );
        return new(e.Id, several && e.Name.Length > 0 ? e.Name : "Battery bank", lines, warnings);
    }
}

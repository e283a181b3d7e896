using InkyBadger.Core.Design;
using InkyBadger.Core.Reference;
using InkyBadger.Core.Work;

namespace InkyBadger.Core.Sheets;

/// <summary>
/// What a supplier must know to offer the right thing: what runs on it, what the bank must give and take, the space, and what is there
/// already. No figure is asked of him that the design has.
/// </summary>
public static class SupplierBrief
{
    private const int MostLoads = 12;

    public static IReadOnlyList<WalkSection> Of(DesignDocument design) => Of(new PaperSite(design));

    /// <inheritdoc cref="Of(DesignDocument)"/>
    public static IReadOnlyList<WalkSection> Of(PaperSite papers)
    {
        var (design, site) = (papers.Design, papers.Site);
        var list = new List<WalkSection>();
        if (design.Notes.Trim() is { Length: > 0 } notes)
            list.Add(new("What it is about", [notes]));
        for (var i = 0; i < site.Count; i++)
        {
            var e = site[i].Evaluation(headlines: false);
            var of = site.Count > 1 && e.Name.Length > 0 ? $", {e.Name}" : "";
            Add(list, $"What runs on it{of}", Loads(e));
            Add(list, $"What the bank must be{of}", Bank(site[i], e));
            Add(list, $"The space{of}", Space(site[i].Document, e, design));
            Add(list, $"What is there, or planned beside it{of}", Beside(site[i].Document, e));
        }
        Built(list, BuildLedger.Work(papers));
        list.Add(
            new(
                "What is asked of you",
                [
                    "Say for each item: maker’s data sheet, price, what is delivered when, and what of it differs from the above.",
                    "Where your item asks for another fuse, cable or setting, say which, and why.",
                ]
            )
        );
        return list;
    }

    /// <summary>What is bought already, and what comes later: nobody offers twice, and nobody forgets the rest.</summary>
    private static void Built(List<WalkSection> list, LedgerResult ledger)
    {
        List<LedgerRow> bought = [.. ledger.Rows.Where(r => !r.Gone && r.Kind != LedgerKind.Copper)];
        string Count(LedgerRow r, double n) =>
            $"{Figures.Number(n, 2, true)}{(r.Part.Unit.Length > 0 ? $" {r.Part.Unit}" : " ×")} {r.Part.Name}";
        // Nothing bought: all that is planned is said above, and in the list of parts.
        if (bought.TrueForAll(r => r.ToBuy > 0 && !r.Any(LedgerStop.Ordered)))
            return;
        Add(
            list,
            "What is ordered or here already",
            bought.Where(r => r.Reached.Ordered > 0).Select(r => $"{Count(r, r.Reached.Ordered)}.")
        );
        Add(list, "What is still wanted", bought.Where(r => r.ToBuy > 0).Select(r => $"{Count(r, r.ToBuy)}: {r.Part.Spec}."));
    }

    /// <summary>As one text, a line a sentence.</summary>
    public static string Text(DesignDocument design) => WalkThrough.Written($"{DesignName.Of(design)}: for the supplier", Of(design));

    private static void Add(List<WalkSection> list, string title, IEnumerable<string> sentences)
    {
        List<string> all = [.. sentences];
        if (all.Count > 0)
            list.Add(new(title, all));
    }

    private static IEnumerable<string> Loads(BankEvaluation e)
    {
        if (e.Loads is not { } loads)
            yield break;
        if (e.Energy is { } energy)
            yield return $"{Say.Wh(energy.EnergyBankWh)} a day at the bank, {Say.W(loads.PeakAcW)} of AC at once at most.";
        if (loads.SurgeDemandW > loads.PeakAcW)
            yield return $"The worst start asks for {Say.W(loads.SurgeDemandW)}.";
        foreach (var row in loads.Rows.OrderByDescending(r => r.RunningW).Take(MostLoads))
            yield return $"{(row.Name.Length > 0 ? row.Name : "A load")}: {Say.W(row.RunningW)}"
                + $"{(row.SurgeW > row.RunningW ? $", starts with {Say.W(row.SurgeW)}" : "")}, {(row.Kind == LoadKind.Ac ? "AC" : "DC")}.";
        if (loads.Rows.Count > MostLoads)
            yield return $"And {loads.Rows.Count - MostLoads} smaller ones.";
    }

    private static IEnumerable<string> Bank(BankWork w, BankEvaluation e)
    {
        if (e.Bank is not { } bank)
            yield break;
        var chemistry = Chemistries.Get(bank.Unit.Chemistry);
        yield return $"{Say.V(bank.Holds.NominalV)}, {Say.Number(bank.Holds.Ah)} Ah: {Say.Wh(bank.Holds.RatedWh)}, of which "
            + $"{Say.Wh(bank.Holds.UsableWh)} are used; planned as {bank.Layout.Series}S{bank.Layout.Parallel}P of {bank.Unit.Name}.";
        if (e.Currents is { } currents)
            yield return currents.IsOffer
                ? $"It may give {Say.A(currents.BankWorstA)}."
                : $"It gives {Say.A(currents.BankWorstA)} for as long as it lasts, and {Say.A(currents.SurgeWorstA)} at the worst instant.";
        if (w.Flows.Value is { ChargingA: > 0 and var charging })
            yield return $"It is charged with up to {Say.A(charging)}, "
                + $"to {Say.V(e.Protection?.GreatestChargingV ?? e.Voltage!.GreatestV)} at most.";
        if (e.Protection is { } protection)
            yield return $"As planned it pushes {Say.A(protection.Short.Amps)} into a short circuit; its fuse must break that.";
        if (w.Scene.Design.Place.AmbientC is { } ambient)
            yield return $"It stands at {Say.Number(ambient)} °C.";
        if (chemistry.IsLithium)
            yield return "Charging must stop below 0 °C; say what in your unit sees to it.";
    }

    private static IEnumerable<string> Space(Bank document, BankEvaluation e, DesignDocument design)
    {
        string Mm(double mm) => Say.Length(mm / 1000, design.Display.Units);
        foreach (var c in document.Compartments)
            yield return $"{(c.Name.Length > 0 ? c.Name : "A compartment")}: {Mm(c.LengthMm)} long, "
                + $"{Mm(c.WidthMm)} wide, {Mm(c.HeightMm)} high inside.";
        if (document.Compartments.Count == 0 && e.Stands is { Needs: [{ } needs, ..] })
            yield return $"The planned units want {Mm(needs.LengthMm)} by {Mm(needs.WidthMm)} by {Mm(needs.HeightMm)} in {needs.Rows} "
                + $"{(needs.Rows == 1 ? "row" : "rows")}.";
        if (e.Bank is { MassKg: { } mass })
            yield return $"The planned units weigh {Say.Mass(mass, design.Display.Units)}.";
    }

    private static IEnumerable<string> Beside(Bank document, BankEvaluation e)
    {
        if (e.Inverter is { Item: { } item } inverter)
            yield return $"Inverter: {(inverter.Stack > 1 ? $"{inverter.Stack} × " : "")}{item.Name}, "
                + $"{Say.W(item.ContinuousW)} continuous.";
        foreach (var source in document.Sources)
            yield return $"{(source.Name.Length > 0 ? source.Name : "A source")}: {source.Kind switch
            {
                SourceKind.Solar => "solar",
                SourceKind.DcDc => "from an engine through a DC–DC charger",
                SourceKind.Alternator => "an alternator, straight on",
                SourceKind.Mains => "a charger at a plug",
                SourceKind.Generator => "a charger at a generator",
                _ => "a charger",
            }}{(source.MadeForA is { } amps ? $", {Say.A(amps)}" : "")}.";
        if (e.MainRun is { Cable.Size: { } size, Fuse: { RatingA: { } rating } fuse } run)
            yield return $"The main cable is {Say.Size(size, run.Cable.Conductors)} behind {Say.Rating(rating)} of {fuse.Label}.";
    }
}

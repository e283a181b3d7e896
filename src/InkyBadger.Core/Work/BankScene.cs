using InkyBadger.Core.Design;
using InkyBadger.Core.Reference;
using InkyBadger.Core.Working;

namespace InkyBadger.Core.Work;

/// <summary>
/// What every stage sees: the design, the bank in hand, its house rules, and the tape when somebody asked for the working.
/// </summary>
public sealed record BankScene(DesignDocument Design, Bank Bank, int Index, DesignRules Rules, Tape? Tape)
{
    /// <summary>The bank's JSON pointer in the document, and as it happens in the Evaluation too.</summary>
    public string Pointer => $"/banks/{Index}";

    /// <summary>
    /// The place's temperature, one figure for cables and inverter alike [°C]: as said, 50 °C where it is called hot, else the house
    /// rule's.
    /// </summary>
    public double AmbientC =>
        Design.Place.AmbientC ?? (Design.Place.Hot ? Math.Max(HotC, Rules.Number("ambient")) : Rules.Number("ambient"));

    /// <summary>An engine room, a roof [°C].</summary>
    public const double HotC = 50;

    /// <summary>The tables its figures are taken from.</summary>
    public DesignTables Tables
    {
        get => tables ??= DesignTables.Of(Design.Tables, Rules);
        init => tables = value;
    }

    private DesignTables? tables;

    /// <summary>What parts cost here.</summary>
    public PartPrices Prices => prices ??= PartPrices.Of(Design.Prices);

    private PartPrices? prices;

    public InverterChoice? Inverter => Bank.Inverters.Count > 0 ? Bank.Inverters[0] : null;

    /// <summary>Inverters beside the first, each on the bus by a run of its own.</summary>
    public IEnumerable<InverterChoice> FurtherInverters => Bank.Inverters.Skip(1);

    /// <summary>The main run as the design has it, or one that is advised in everything.</summary>
    public Run MainRun => Find(Run.MainId) ?? Run.AdvisedMain;

    /// <summary>Whether the inverter hangs on the bus by a run and a fuse of its own; else the main run goes on to it.</summary>
    public bool HasInverterRun => Inverter is not null && Find(Run.InverterId) is not null;

    /// <summary>The document's run of this id, or one that is advised in everything.</summary>
    public Run RunOf(string id) => Find(id) ?? new Run { Id = id };

    /// <summary>The document's run of this id; null: it stands as advised in everything.</summary>
    public Run? Find(string id)
    {
        if (Bank.Runs.Count <= FewRuns)
            return Bank.Runs.FirstOrDefault(r => r.Id == id);
        // A copy of the scene with another bank takes the index along: it is looked at again.
        if (!ReferenceEquals(runs?.Of, Bank))
            runs = (Bank, Bank.Runs.DistinctBy(r => r.Id).ToDictionary(r => r.Id));
        return runs.Value.ById.GetValueOrDefault(id);
    }

    private const int FewRuns = 16;
    private (Bank Of, Dictionary<string, Run> ById)? runs;

    /// <summary>A length in the words of the design's units: metres, or feet.</summary>
    public string Length(double metres) => Say.Length(metres, Design.Display.Units);
}

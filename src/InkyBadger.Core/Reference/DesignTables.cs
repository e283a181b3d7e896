using InkyBadger.Core.Design;

namespace InkyBadger.Core.Reference;

/// <summary>
/// The tables of a design: the typical ones, with how far its house rule takes a fuse's times apart, and those it has brought along.
/// </summary>
public sealed class DesignTables
{
    private readonly Dictionary<string, Conductor> ownConductors;
    private readonly Dictionary<string, CablePractice> ownPractices;
    private readonly Dictionary<string, FuseClass> fuses;

    /// <summary>The typical tables alone.</summary>
    public static DesignTables Typical { get; } = new(new(), FuseClass.UsualSpread);

    /// <param name="own">As the design has them.</param>
    /// <param name="spread">A fuse opens between its typical time over this, and this many times it [≥ 1].</param>
    private DesignTables(OwnTables own, double spread)
    {
        Own = own;
        ownConductors = own.Conductors.ToDictionary(
            c => c.Size,
            c => new Conductor(SeriesOf(c.Size), c.Size, c.AreaMm2, c.R20MilliohmPerM)
        );
        Practices = CablePractices.All;
        if (ownConductors.Count > 0)
            Practices = [.. CablePractices.All.Select(p => new CablePractice(p.Id, p.Rows, FindConductor))];
        ownPractices = own.Practices.ToDictionary(p => p.Id, PracticeOf);
        if (ownPractices.Count > 0)
            Practices = [.. Practices, .. ownPractices.Values];
        Fuses = spread == FuseClass.UsualSpread ? FuseClasses.All : [.. FuseClasses.All.Select(f => f.WithSpread(spread))];
        if (own.Fuses.Count > 0)
            Fuses = [.. Fuses, .. own.Fuses.Select(FuseClass.Of)];
        fuses = Fuses.ToDictionary(f => f.Id);
    }

    public static DesignTables Of(OwnTables own, DesignRules rules)
    {
        var spread = rules.Number("fuse-spread");
        var none = own is { Practices: [], Fuses: [], Conductors: [], Practice: null, Drawer: [] };
        return none && spread == FuseClass.UsualSpread ? Typical : new(own, spread);
    }

    public static DesignTables Of(DesignDocument design) => Of(design.Tables, new DesignRules(design.HouseRules));

    public OwnTables Own { get; }
    public IReadOnlyList<CablePractice> Practices { get; }
    public IReadOnlyList<FuseClass> Fuses { get; }

    public IEnumerable<Conductor> AllConductors => Conductors.All.Concat(ownConductors.Values);

    /// <exception cref="Refusal"><c>size</c> when no table has it.</exception>
    public Conductor Conductor(string size) => ownConductors.TryGetValue(size, out var own) ? own : Conductors.Get(size);

    public bool HasConductor(string size) => ownConductors.ContainsKey(size) || Conductors.Has(size);

    public Conductor? FindConductor(string size) => HasConductor(size) ? Conductor(size) : null;

    /// <exception cref="Refusal"><c>practice</c> when no table has it.</exception>
    public CablePractice Practice(string id) =>
        ownPractices.TryGetValue(id, out var own) ? own
        : ownConductors.Count > 0 && CablePractices.Has(id) ? Practices.First(p => p.Id == id)
        : CablePractices.Get(id);

    public bool HasPractice(string id) => ownPractices.ContainsKey(id) || CablePractices.Has(id);

    /// <exception cref="Refusal"><c>class</c> when no table has it.</exception>
    public FuseClass Fuse(string id) => fuses.TryGetValue(id, out var found) ? found : FuseClasses.Get(id);

    public bool HasFuse(string id) => fuses.ContainsKey(id);

    /// <summary>The class as made for these volts: see <see cref="FuseClasses.AtVolts"/>.</summary>
    public FuseClass AtVolts(FuseClass fuse, double greatestV) => Fuse(FuseClasses.AtVolts(fuse, greatestV).Id);

    /// <summary>A fuse of the class with its holder [money]; null: not known.</summary>
    public double? FusePrice(string id, PartPrices prices) =>
        Own.Fuses.FirstOrDefault(f => f.Id == id) is { } own ? own.Price : prices.Fuse(id);

    /// <summary>Where the figures of a practice, class or size are from, in words; null: the typical tables.</summary>
    public string? SourceOf(string id) =>
        Own.Practices.FirstOrDefault(p => p.Id == id)?.Source
        ?? Own.Fuses.FirstOrDefault(f => f.Id == id)?.Source
        ?? Own.Conductors.FirstOrDefault(c => c.Size == id)?.Source;

    /// <summary>A practice in words: an own one by its label, a typical one by its id.</summary>
    public string LabelOf(string practice) => Own.Practices.FirstOrDefault(p => p.Id == practice)?.Label ?? practice;

    private CablePractice PracticeOf(OwnPractice own)
    {
        var family = own.Bundling == BundlingFamily.Building ? "building" : "craft";
        return new(
            own.Id,
            [
                .. own
                    .Rows.Where(r => HasConductor(r.Size))
                    .Select(r => new AmpacityRow(own.Id, Conductor(r.Size), r.AmpacityA, own.InsulationC, own.ReferenceC)
                    {
                        Family = family,
                    })
                    .OrderBy(r => r.Conductor.AreaMm2),
            ],
            FindConductor,
            family
        );
    }

    private static string SeriesOf(string size) => size.Contains("AWG", StringComparison.OrdinalIgnoreCase) ? "awg" : "metric";
}

namespace InkyBadger.Core.Reference;

/// <summary>Amperes a size may carry under a practice, with the insulation's and the reference ambient temperature [°C].</summary>
public sealed record AmpacityRow(string Practice, Conductor Conductor, double AmpacityA, double InsulationC, double ReferenceC)
{
    public string Size => Conductor.Size;
}

/// <summary>A cable practice: its sizes in rising order. Typical values, table <c>ampacity</c>; local rules come first.</summary>
public sealed class CablePractice(string id, IReadOnlyList<AmpacityRow> rows)
{
    private readonly Dictionary<string, AmpacityRow> bySize = rows.ToDictionary(r => r.Size);

    public string Id { get; } = id;
    public IReadOnlyList<AmpacityRow> Rows { get; } = rows;
    public string Family { get; } = id[..id.IndexOf('-')];
    public double InsulationC => Rows[0].InsulationC;
    public double ReferenceC => Rows[0].ReferenceC;

    /// <exception cref="Refusal"><c>size</c> when the practice does not list it.</exception>
    public AmpacityRow Get(string size) =>
        bySize.TryGetValue(size, out var row) ? row : throw new Refusal("size", $"“{size}” is not listed by the practice {Id}");

    public bool Has(string size) => bySize.ContainsKey(size);
}

/// <summary>The practices of the table <c>ampacity</c>.</summary>
public static class CablePractices
{
    public static IReadOnlyList<CablePractice> All { get; } =
        TableFile
            .Read("ampacity", r => new AmpacityRow(
                r.Text("practice"),
                Conductors.Get(r.Text("size")),
                r.Num("ampacity_a"),
                r.Num("insulation_c"),
                r.Num("reference_ambient_c")
            ))
            .GroupBy(r => r.Practice)
            .Select(g => new CablePractice(g.Key, [.. g]))
            .ToList();

    private static readonly Dictionary<string, CablePractice> ById = All.ToDictionary(p => p.Id);

    /// <exception cref="Refusal"><c>practice</c> when it is unknown.</exception>
    public static CablePractice Get(string practice) =>
        ById.TryGetValue(practice, out var found)
            ? found
            : throw new Refusal("practice", $"“{practice}” is not a practice of the ampacity table");

    public static bool Has(string practice) => ById.ContainsKey(practice);
}

/// <summary>Factor for conductors that touch along the run. Typical values, table <c>bundling</c>.</summary>
public static class Bundling
{
    private static readonly (string Family, int From, int To, double Factor)[] Rows =
    [
        .. TableFile.Read("bundling", r =>
            (r.Text("practice_family"), (int)r.Num("conductors_from"), (int)r.Num("conductors_to"), r.Num("factor"))
        ),
    ];

    /// <param name="family"><c>craft</c> or <c>building</c>.</param>
    /// <param name="bundledConductors">Current-carrying conductors that touch, 1 to 999.</param>
    public static double Factor(string family, int bundledConductors)
    {
        foreach (var (f, from, to, factor) in Rows)
            if (f == family && bundledConductors >= from && bundledConductors <= to)
                return factor;
        throw new Refusal("bundledConductors", "must be from 1 to 999");
    }
}

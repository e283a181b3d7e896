namespace InkyBadger.Core.Reference;

/// <summary>Amperes a size may carry under a practice, with the insulation's and the reference ambient temperature [°C].</summary>
public sealed record AmpacityRow(string Practice, Conductor Conductor, double AmpacityA, double InsulationC, double ReferenceC)
{
    public string Size => Conductor.Size;

    /// <summary>
    /// The most amperes a fuse may have that protects one conductor [A]: what its terminals bear where that is less than the conductor;
    /// null: whatever the conductor carries. Does not shrink in a hot place or a bundle, the conductor's own amperes do.
    /// </summary>
    public double? FuseA { get; init; }

    /// <summary>Of its factors for conductors that touch; null: by the practice’s name.</summary>
    public string? Family { get; init; }

    /// <summary>The size whose row this is, where a conductor that the practice does not list goes by it; null: its own.</summary>
    public string? As { get; init; }
}

/// <summary>A cable practice: its sizes in rising order. Typical values, table <c>ampacity</c>; local rules come first.</summary>
/// <param name="conductors">Where sizes it does not list are looked up; null: the typical conductors.</param>
/// <param name="family">Of its factors for conductors that touch; null: what its id begins with.</param>
public sealed class CablePractice(
    string id,
    IReadOnlyList<AmpacityRow> rows,
    Func<string, Conductor?>? conductors = null,
    string? family = null
)
{
    private readonly Dictionary<string, AmpacityRow> bySize = rows.ToDictionary(r => r.Size);

    public string Id { get; } = id;
    public IReadOnlyList<AmpacityRow> Rows { get; } = rows;
    public string Family { get; } = family ?? id[..id.IndexOf('-')];
    public double InsulationC => Rows[0].InsulationC;
    public double ReferenceC => Rows[0].ReferenceC;

    /// <exception cref="Refusal"><c>size</c> when the practice does not list it.</exception>
    public AmpacityRow Get(string size) =>
        bySize.TryGetValue(size, out var row) ? row : throw new Refusal("size", $"“{size}” is not listed by the practice {Id}");

    public bool Has(string size) => bySize.ContainsKey(size);

    /// <summary>
    /// A size of the other series, by the amperes of the nearest area that this practice lists, with its own copper: of two the lower where
    /// the nearest has over 5 % more copper. Null: there is no such size, or it is thinner than all of the practice's.
    /// </summary>
    public AmpacityRow? Find(string size)
    {
        if (bySize.TryGetValue(size, out var own))
            return own;
        if ((conductors is null ? Conductors.Find(size) : conductors(size)) is not { } conductor)
            return null;
        var nearest = Rows.Where(r => r.Conductor.AreaMm2 <= conductor.AreaMm2 * MostMoreCopper)
            .MinBy(r => Math.Abs(r.Conductor.AreaMm2 - conductor.AreaMm2));
        return nearest is null ? null : nearest with { Conductor = conductor, As = nearest.Size };
    }

    private const double MostMoreCopper = 1.05;
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
            .ToList()
            .WithFuses();

    /// <summary>
    /// Building wire of 90 °C ends in terminals made for 75 °C: its fuse is judged against that column, and the three thinnest are never
    /// fused above 15, 20 and 30 A.
    /// </summary>
    private static List<CablePractice> WithFuses(this List<CablePractice> all)
    {
        var terminals = all.First(p => p.Id == "building-awg-75");
        return all.ConvertAll(p =>
            p.Id != "building-awg-90"
                ? p
                : new CablePractice(
                    p.Id,
                    [.. p.Rows.Select(r => r with { FuseA = Math.Min(terminals.Get(r.Size).AmpacityA, Small(r.Size)) })]
                )
        );
    }

    private static double Small(string size) =>
        size switch
        {
            "14 AWG" => 15,
            "12 AWG" => 20,
            "10 AWG" => 30,
            _ => double.MaxValue,
        };

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

using System.Globalization;
using InkyBadger.Core.Design;

namespace InkyBadger.Core.Reference;

/// <summary>
/// A point of a fuse's curve: at a multiple of its rating it opens after so long at the least, as a rule, and at the most [s].
/// </summary>
public readonly record struct OpeningPoint(double Multiple, double LeastS, double Seconds, double MostS);

/// <summary>
/// A fuse or breaker class: greatest DC volts, interrupt rating [A] and the ratings made [A]. Typical values, table <c>fuses</c>, or a
/// class of one's own with its maker's curve.
/// </summary>
public sealed record FuseClass(string Id, string Label, double MaxDcV, double InterruptA, IReadOnlyList<double> RatingsA)
{
    /// <summary>Typical times spread widely: from a third of them to three times.</summary>
    public const double UsualSpread = 3;

    public string Family { get; private init; } = FuseClasses.FamilyOf(Id);

    /// <summary>Current-limiting classes protect what stands downstream of them.</summary>
    public bool LimitsCurrent { get; private init; } = FuseClasses.FamilyOf(Id) is "class-t" or "nh-gg";

    public bool IsBreaker { get; private init; } = FuseClasses.FamilyOf(Id) == "breaker";

    /// <summary>Its curve is the maker's, not the typical one of a family.</summary>
    public bool IsOwn { get; private init; }

    /// <summary>When it opens, the multiples rising.</summary>
    public IReadOnlyList<OpeningPoint> Points { get; private init; } = FuseClasses.PointsOf(FuseClasses.FamilyOf(Id), UsualSpread);

    /// <summary>The same with its typical times taken apart otherwise.</summary>
    internal FuseClass WithSpread(double spread) => this with { Points = FuseClasses.PointsOf(Family, spread) };

    /// <summary>A class of one's own. Between the least and the most the middle of the logarithms stands for its usual time.</summary>
    internal static FuseClass Of(OwnFuse own) =>
        new(own.Id, own.Label, own.MaxDcV, own.InterruptA, own.RatingsA)
        {
            Family = own.Id,
            LimitsCurrent = own.LimitsCurrent,
            IsBreaker = own.Breaker,
            IsOwn = true,
            Points = [.. own.Curve.Select(p => new OpeningPoint(p.Multiple, p.LeastS, Math.Sqrt(p.LeastS * p.MostS), p.MostS))],
        };

    /// <summary>Smallest rating made of at least <paramref name="amps"/>; null when the class has none so large.</summary>
    public double? Next(double amps)
    {
        for (var i = 0; i < RatingsA.Count; i++)
            if (Tolerant.AtLeast(RatingsA[i], amps))
                return RatingsA[i];
        return null;
    }
}

/// <summary>The classes of the table <c>fuses</c>, in its order.</summary>
public static class FuseClasses
{
    public static IReadOnlyList<FuseClass> All { get; } =
        TableFile.Read("fuses", r => new FuseClass(
            r.Text("class"),
            r.Text("label"),
            r.Num("max_dc_v"),
            r.Num("interrupt_a"),
            [.. r.Text("ratings_a").Split(' ').Select(x => double.Parse(x, CultureInfo.InvariantCulture))]
        ));

    private static readonly Dictionary<string, FuseClass> ById = All.ToDictionary(f => f.Id);

    /// <exception cref="Refusal"><c>class</c> when it is unknown.</exception>
    public static FuseClass Get(string id) =>
        ById.TryGetValue(id, out var found) ? found : throw new Refusal("class", $"“{id}” is not a class of the fuse table");

    public static bool Has(string id) => ById.ContainsKey(id);

    /// <summary>
    /// The terminal-post block fuse is one fuse whose interrupt rating falls with voltage: the row is taken by the greatest volts it must
    /// bear [V], whichever was named. Any other class is itself.
    /// </summary>
    public static FuseClass AtVolts(FuseClass fuse, double greatestV)
    {
        if (fuse.Family != "post")
            return fuse;
        foreach (var row in All)
            if (row.Family == "post" && Tolerant.AtLeast(row.MaxDcV, greatestV))
                return row;
        return Get("post-58");
    }

    /// <summary>The row of the opening times: the class without its voltage suffix; the blade-contact NH sizes share one.</summary>
    public static string FamilyOf(string id) =>
        id switch
        {
            "nh00-gg" or "nh1-gg" => "nh-gg",
            "class-t" => id,
            _ => id[..id.IndexOf('-')],
        };

    /// <summary>Of a family: none where it is not in the table.</summary>
    internal static IReadOnlyList<OpeningPoint> PointsOf(string family, double spread) =>
        [.. OpeningTimes.Get(family).Select(p => new OpeningPoint(p.Multiple, p.Seconds / spread, p.Seconds, p.Seconds * spread))];
}

/// <summary>Typical opening times by multiple of the rating, table <c>fuse-opening-times</c>; the maker's curve rules.</summary>
public static class OpeningTimes
{
    private static readonly Dictionary<string, (double Multiple, double Seconds)[]> ByFamily = TableFile
        .Read("fuse-opening-times", r =>
            (Family: r.Text("family"), Multiple: r.Num("multiple_of_rating"), Seconds: r.Num("typical_opening_s"))
        )
        .GroupBy(r => r.Family)
        .ToDictionary(g => g.Key, g => g.Select(r => (r.Multiple, r.Seconds)).ToArray());

    public static IReadOnlyList<(double Multiple, double Seconds)> Get(string family) =>
        ByFamily.TryGetValue(family, out var points) ? points : [];

    public static IEnumerable<string> Families => ByFamily.Keys;
}

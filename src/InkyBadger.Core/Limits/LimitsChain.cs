using InkyBadger.Core.Design;
using InkyBadger.Core.Network;
using InkyBadger.Core.Reference;
using InkyBadger.Core.Wiring;

namespace InkyBadger.Core.Limits;

public enum ElementKind
{
    Jumpers,
    Links,
    Leads,
    Fuse,
    Cable,
    Switch,
    BusBar,
    Inverter,
}

/// <summary>What a string allows [A]; null: it sets no limit. The peak takes its place while it lasts [s].</summary>
public readonly record struct ChainString(double? LimitA = null, double? PeakA = null, double? PeakSeconds = null);

/// <summary>
/// An element between the cells and the outlet. Of conductors the ampacity [A] and, for short times, cross-section and insulation; of fuses
/// class and rating; of switches and bus bars the rating; of the inverter its watts.
/// </summary>
public sealed record ChainElement(string Name, ElementKind Kind)
{
    public double? AmpacityA { get; init; }
    public double? AreaMm2 { get; init; }
    public int Conductors { get; init; } = 1;
    public int? InsulationC { get; init; }
    public InsulationKind InsulationKind { get; init; }
    public FuseClass? Class { get; init; }
    public double? RatingA { get; init; }
    public double? ContinuousW { get; init; }
    public double Derate { get; init; } = 1;
    public double? SurgeW { get; init; }
    public double SurgeSeconds { get; init; } = 5;
    public bool SurgeHot { get; init; }

    /// <summary>
    /// What an ampere of the bank's current becomes in a conductor inside the bank; null: in the busiest of its kind.
    /// </summary>
    public double? Share { get; init; }

    /// <summary>Carries the inverter's current alone, so the DC loads are not in it.</summary>
    public bool InverterRun { get; init; }
}

/// <summary>
/// The currents' conditions: lowest volts, the inverter's efficiency and idle draw, what is asked at the outlet, DC loads [A], and for how
/// long [s].
/// </summary>
public sealed record ChainConditions(
    double LowV,
    double Efficiency,
    double IdleW = 0,
    double? AskedAcW = null,
    double DcLoadA = 0,
    double? AtSeconds = null
);

/// <summary>An element's limit [A] (null: the inverter), the AC watts it lets through, and the amperes the design asks of it.</summary>
public sealed record ChainLink(string Name, double AcW, double? LimitA, double? AskedA);

public sealed record LimitsChainResult(IReadOnlyList<ChainLink> Chain, string? Bottleneck, IReadOnlyList<string> Unrated);

/// <summary>What stops first between the cells and the outlet (method, 10.1).</summary>
public static class LimitsChain
{
    public const string Bank = "bank";

    /// <summary>Time up to which a cable's heat stays in it [s].</summary>
    private const double ShortTimeS = 5;

    /// <exception cref="Refusal">Names the offending input.</exception>
    public static LimitsChainResult Work(
        BankNetwork network,
        IReadOnlyList<ChainString> strings,
        ChainConditions conditions,
        IReadOnlyList<ChainElement> elements
    )
    {
        Check(network, strings, conditions, elements);
        var shares = new double[network.Strings];
        network.Shares(shares);
        var links = new List<ChainLink>(elements.Count + 1);
        var unrated = new List<string>();
        void Add(string name, double? limitA, double share, bool inverterRun)
        {
            if (limitA is not { } limit)
            {
                unrated.Add(name);
                return;
            }
            var dc = inverterRun ? 0 : conditions.DcLoadA;
            var asked = conditions.AskedAcW is { } w
                ? ((w / conditions.Efficiency + conditions.IdleW) / conditions.LowV + dc) * share
                : (double?)null;
            // An element that carries next to nothing of the bank's current never stops it.
            var bankA = limit / Math.Max(share, Tolerant.Noise);
            links.Add(new(name, Math.Max(0, ((bankA - dc) * conditions.LowV - conditions.IdleW) * conditions.Efficiency), limit, asked));
        }

        Add(Bank, Ceiling(shares, strings, conditions.AtSeconds), 1, false);
        foreach (var element in elements)
        {
            if (element.Kind == ElementKind.Inverter)
            {
                if (Watts(element, conditions.AtSeconds) is { } watts)
                    links.Add(new(element.Name, watts, null, null));
                else
                    unrated.Add(element.Name);
                continue;
            }
            Add(
                element.Name,
                Amperes(element, conditions.AtSeconds),
                element.Share ?? Share(network, shares, element.Kind),
                element.InverterRun
            );
        }
        var chain = LeastFirst(links);
        return new(chain, chain.Count > 0 ? chain[0].Name : null, unrated);
    }

    /// <summary>Of equals the one nearer the cells stays first, floating noise forgiven.</summary>
    private static List<ChainLink> LeastFirst(List<ChainLink> links)
    {
        var sorted = new List<ChainLink>(links.Count);
        foreach (var link in links)
        {
            var at = sorted.FindIndex(l => Tolerant.Exceeds(l.AcW, link.AcW));
            sorted.Insert(at < 0 ? sorted.Count : at, link);
        }
        return sorted;
    }

    private static double? Ceiling(double[] shares, IReadOnlyList<ChainString> strings, double? atSeconds)
    {
        double? ceiling = null;
        for (var i = 0; i < shares.Length; i++)
        {
            var (limitA, peakA, peakSeconds) = strings[i];
            var limit = atSeconds is { } t && peakA is { } peak && Tolerant.AtLeast(peakSeconds!.Value, t) ? peak : limitA;
            if (limit is not { } own || shares[i] == 0)
                continue;
            ceiling = Math.Min(ceiling ?? double.MaxValue, own / Math.Abs(shares[i]));
        }
        return ceiling;
    }

    /// <summary>What an ampere of the bank's current becomes in the busiest of them.</summary>
    private static double Share(BankNetwork network, double[] shares, ElementKind kind) =>
        kind switch
        {
            ElementKind.Jumpers or ElementKind.Leads => shares.Max(Math.Abs),
            ElementKind.Links => BusiestLink(network, shares),
            _ => 1,
        };

    private static double BusiestLink(BankNetwork network, double[] shares)
    {
        double most = 0;
        for (var i = 1; i < network.Strings; i++)
        {
            var (positive, negative) = network.LinkCurrents(shares, 1, i);
            most = Math.Max(most, Math.Max(Math.Abs(positive), Math.Abs(negative)));
        }
        return most;
    }

    /// <summary>What an element carries without end, or for a time [A]; null where it has no rating.</summary>
    internal static double? Amperes(ChainElement e, double? atSeconds) =>
        e.Kind switch
        {
            ElementKind.Fuse when e.RatingA is { } rating => atSeconds is { } t ? rating * MultipleAt(e.Class!, t) : rating / Fuse.Margin,
            ElementKind.Switch or ElementKind.BusBar => e.RatingA,
            ElementKind.Fuse => null,
            _ when e.AmpacityA is { } ampacity && atSeconds is { } t && t <= ShortTimeS && e.AreaMm2 is { } area => Math.Max(
                ampacity,
                Cable.ShortTimeK(e.InsulationC!.Value, e.InsulationKind) * area * e.Conductors / Math.Sqrt(t)
            ),
            _ => e.AmpacityA,
        };

    /// <summary>The multiple of its rating that opens a fuse at a time: the inverse of <see cref="Fuse.OpeningTime"/>.</summary>
    internal static double MultipleAt(FuseClass fuseClass, double seconds) => MultipleAt(fuseClass, seconds, p => p.Seconds);

    /// <summary>The multiple it surely holds for a time: the inverse of the least it may take to open.</summary>
    internal static double MultipleHeld(FuseClass fuseClass, double seconds) => MultipleAt(fuseClass, seconds, p => p.LeastS);

    private static double MultipleAt(FuseClass fuseClass, double seconds, Func<OpeningPoint, double> edge)
    {
        var points = fuseClass.Points;
        if (seconds > edge(points[0]))
            return 1;
        for (var i = 1; i < points.Count; i++)
        {
            var (a, b) = (points[i - 1], points[i]);
            if (seconds < edge(b))
                continue;
            return edge(a) == edge(b)
                ? b.Multiple
                : a.Multiple * Math.Pow(b.Multiple / a.Multiple, Math.Log(seconds / edge(a)) / Math.Log(edge(b) / edge(a)));
        }
        return points[^1].Multiple;
    }

    private static double? Watts(ChainElement e, double? atSeconds) =>
        atSeconds is { } t && e.SurgeW is { } surge && Tolerant.AtLeast(e.SurgeSeconds, t)
            ? surge * (e.SurgeHot ? 1 : e.Derate)
            : e.ContinuousW * e.Derate;

    /// <summary>Whether one of the first so many has this name; of a handful that is quicker than a set.</summary>
    private static bool IsAmong(IReadOnlyList<ChainElement> elements, int first, string name)
    {
        for (var i = 0; i < first; i++)
            if (elements[i].Name == name)
                return true;
        return false;
    }

    private static void Check(
        BankNetwork network,
        IReadOnlyList<ChainString> strings,
        ChainConditions c,
        IReadOnlyList<ChainElement> elements
    )
    {
        foreach (var (limitA, peakA, peakSeconds) in strings)
        {
            if (limitA is { } limit)
                Require.Above(limit, 0, nameof(limitA));
            if (peakA is { } peak)
                Require.Above(peak, 0, nameof(peakA));
            if (peakSeconds is { } seconds)
                Require.AtLeast(seconds, 0, nameof(peakSeconds));
            if (peakA is null != peakSeconds is null)
                Require.Refuse(peakA is null ? nameof(peakA) : nameof(peakSeconds), "is required with the other");
        }
        Require.Above(c.LowV, 0);
        Require.Share(c.Efficiency);
        Require.AtLeast(c.IdleW, 0);
        if (c.AskedAcW is { } asked)
            Require.AtLeast(asked, 0, nameof(c.AskedAcW));
        Require.AtLeast(c.DcLoadA, 0);
        if (c.AtSeconds is { } t)
            Require.Above(t, 0, nameof(c.AtSeconds));
        if (elements.Count == 0)
            Require.Refuse(nameof(elements), "needs at least one element");
        for (var i = 0; i < elements.Count; i++)
        {
            var e = elements[i];
            if (e.Name.Length == 0 || e.Name == Bank || IsAmong(elements, i, e.Name))
                Require.Refuse(nameof(e.Name), "must be there, each once, and not “bank”");
            if (e.Kind == ElementKind.Links && (network.IsBusBars || network.Strings == 1))
                Require.Refuse(nameof(e.Kind), "there are no rail links here");
            if (e.Kind == ElementKind.Leads && !network.IsBusBars)
                Require.Refuse(nameof(e.Kind), "leads go with bus bars");
            if (e.Kind == ElementKind.Fuse && e.Class is null)
                Require.Refuse(nameof(e.Class), "is required of a fuse");
            if (e.AmpacityA is { } ampacityA)
                Require.Above(ampacityA, 0);
            if (e.Share is { } share)
                Require.AtLeast(share, 0);
            if (e.RatingA is { } ratingA)
                Require.Above(ratingA, 0);
            if (e.ContinuousW is { } continuousW)
                Require.Above(continuousW, 0);
            if (e.SurgeW is { } surgeW)
                Require.Above(surgeW, 0);
            Require.Within(e.Derate, 0, 1);
            Require.AtLeast(e.SurgeSeconds, 0);
            if (e.AreaMm2 is { } areaMm2)
            {
                Require.Above(areaMm2, 0);
                Require.AtLeast(e.Conductors, 1);
                if (e.InsulationC is not { } insulation)
                    throw new Refusal("insulationC", "is required with a cross-section");
                Cable.ShortTimeK(insulation, e.InsulationKind);
            }
        }
    }
}

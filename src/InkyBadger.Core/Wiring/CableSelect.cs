using InkyBadger.Core.Reference;

namespace InkyBadger.Core.Wiring;

/// <summary>The limits a cable must meet; on a tie the first is named.</summary>
public enum CableLimit
{
    Ampacity,
    Fuse,
    Drop,

    /// <summary>Nothing thinner is laid, though it would do.</summary>
    Least,
}

/// <summary>
/// Inputs of a cable's choice. Current in A, length in m one way, the return alike; drop limit a fraction of nominal volts.
/// </summary>
public sealed record CableSelectInput(CablePractice Practice, double DesignCurrentA, double NominalV, double LengthM)
{
    public double? FuseRatingA { get; init; }
    public bool FuseProtectsCable { get; init; } = true;
    public bool NextSizeUp { get; init; }
    public double? AmbientC { get; init; }
    public bool AllowAboveOne { get; init; }
    public int BundledConductors { get; init; } = 1;
    public double? ConductorC { get; init; }
    public double DropLimitFraction { get; init; } = 0.03;
    public int BoltedJoints { get; init; }
    public int FuseJoints { get; init; }
    public double BoltedJointMilliohm { get; init; } = Cable.BoltedMilliohm;
    public double FuseJointMilliohm { get; init; } = Cable.FusedMilliohm;

    /// <summary>The fuse is judged against what the terminals bear too, where the practice says it.</summary>
    public bool AtTerminals { get; init; }

    /// <summary>Conductors of less are not laid, whatever they would carry [mm²]; in AWG the size of the nearest area.</summary>
    public double LeastMm2 { get; init; }

    /// <summary>Where the drop alone cannot be kept, the copper that drops least is chosen all the same.</summary>
    public bool LeastBad { get; init; }
}

/// <summary>A size tried against the limits.</summary>
public sealed record CableTrial(
    AmpacityRow Row,
    int Conductors,
    double ConductorC,
    double AmpacityA,
    double DropV,
    double DropFraction,
    bool AmpacityOk,
    bool FuseOk,
    bool DropOk,
    double FuseLimitA
)
{
    public bool Fits => AmpacityOk && FuseOk && DropOk;
}

/// <summary>
/// The choice, or when nothing fits the limits that cannot be met with three conductors in parallel; both where the least bad was asked
/// for.
/// </summary>
public sealed record CableSelectResult(CableTrial? Choice, CableLimit? Governs, IReadOnlyList<CableLimit>? Unmet)
{
    public bool Fits => Choice is not null && Unmet is null;
}

/// <summary>The smallest cable that meets ampacity, fuse and drop (method, 6.4).</summary>
public static class CableSelect
{
    /// <summary>Conductors are put in parallel only from this cross-section up [mm²].</summary>
    public const double LeastParallelMm2 = 50;

    /// <exception cref="Refusal">Names the offending input.</exception>
    public static CableSelectResult Work(CableSelectInput input)
    {
        Require.Above(input.DesignCurrentA, 0);
        if (input.FuseRatingA is { } fuseRatingA)
            Require.Above(fuseRatingA, 0);
        Require.Above(input.NominalV, 0);
        Require.Above(input.LengthM, 0);
        Require.Within(input.BundledConductors, 1, 999);
        if (!(input.DropLimitFraction > 0 && input.DropLimitFraction < 1))
            Require.Refuse(nameof(input.DropLimitFraction), "must be between 0 and 1");

        var first = FirstRow(input);
        for (var m = 1; m <= 3; m++)
        {
            int byAmpacity = -1,
                byFuse = -1,
                byDrop = -1;
            CableTrial? choice = null;
            for (var index = first; index < input.Practice.Rows.Count && choice is null; index++)
            {
                var row = input.Practice.Rows[index];
                if (m > 1 && row.Conductor.AreaMm2 < LeastParallelMm2)
                    continue;
                var trial = Try(input, row, m);
                if (byAmpacity < 0 && trial.AmpacityOk)
                    byAmpacity = index;
                if (byFuse < 0 && trial.FuseOk)
                    byFuse = index;
                if (byDrop < 0 && trial.DropOk)
                    byDrop = index;
                if (trial.Fits)
                    choice = trial;
            }
            if (choice is not null)
            {
                var governs =
                    byAmpacity >= byFuse && byAmpacity >= byDrop ? CableLimit.Ampacity
                    : byFuse >= byDrop ? CableLimit.Fuse
                    : CableLimit.Drop;
                if (m == 1 && first > 0 && choice.Row == input.Practice.Rows[first] && Try(input, input.Practice.Rows[first - 1], 1).Fits)
                    governs = CableLimit.Least;
                return new(choice, governs, null);
            }
            if (m < 3)
                continue;
            var unmet = new List<CableLimit>(3);
            if (byAmpacity < 0)
                unmet.Add(CableLimit.Ampacity);
            if (byFuse < 0)
                unmet.Add(CableLimit.Fuse);
            if (byDrop < 0)
                unmet.Add(CableLimit.Drop);
            return new(input.LeastBad && unmet is [CableLimit.Drop] ? LeastDrop(input, first) : null, null, unmet);
        }
        throw new InvalidOperationException("three conductors end the search");
    }

    /// <summary>The first row that is not thinner than what is laid at all.</summary>
    private static int FirstRow(CableSelectInput input)
    {
        if (input.LeastMm2 <= 0)
            return 0;
        var rows = input.Practice.Rows;
        for (var i = 0; i < rows.Count; i++)
            if (Tolerant.AtLeast(rows[i].Conductor.AreaMm2, input.LeastMm2))
                return i;
        return rows.Count - 1;
    }

    /// <summary>
    /// A house rule's least cross-section as the series has it: metric sizes as said, of others the size of the nearest area [mm²].
    /// </summary>
    internal static double LeastArea(IReadOnlyList<AmpacityRow> rows, double leastMm2) =>
        rows[0].Conductor.Series == "metric" ? leastMm2 : rows.MinBy(r => Math.Abs(r.Conductor.AreaMm2 - leastMm2))!.Conductor.AreaMm2;

    /// <summary>
    /// Of what carries current and fuse, the least copper whose drop is within a tenth of the least that any has: beyond it the joints
    /// decide, not the copper.
    /// </summary>
    private static CableTrial? LeastDrop(CableSelectInput input, int first)
    {
        var tried = new List<CableTrial>();
        for (var m = 1; m <= 3; m++)
        for (var index = first; index < input.Practice.Rows.Count; index++)
            if (
                (m == 1 || input.Practice.Rows[index].Conductor.AreaMm2 >= LeastParallelMm2)
                && Try(input, input.Practice.Rows[index], m) is { AmpacityOk: true, FuseOk: true } trial
            )
                tried.Add(trial);
        if (tried.Count == 0)
            return null;
        var least = tried.Min(t => t.DropV);
        return tried.Where(t => t.DropV <= NearTheLeast * least).MinBy(t => t.Conductors * t.Row.Conductor.AreaMm2);
    }

    private const double NearTheLeast = 1.1;

    /// <summary>One size, <paramref name="conductors"/> in parallel, against the same limits.</summary>
    public static CableTrial Try(CableSelectInput input, AmpacityRow row, int conductors)
    {
        // 1 means that nothing touches; otherwise out and return lie in the bundle, two more with each conductor in parallel.
        var bundled = input.BundledConductors == 1 ? 1 : Math.Min(999, input.BundledConductors + 2 * (conductors - 1));
        var ampacity = Cable.Ampacity(row, input.AmbientC, bundled, conductors, input.AllowAboveOne).AmpacityA;
        var conductorC = input.ConductorC ?? Cable.Temperature(row, input.DesignCurrentA, input.AmbientC, bundled, conductors).ConductorC;
        var oneWay = Cable.Resistance(row.Conductor.R20MilliohmPerM, input.LengthM, conductorC, conductors);
        var drop = Cable.Drop(
            input.DesignCurrentA,
            oneWay,
            null,
            input.NominalV,
            null,
            input.BoltedJoints,
            input.FuseJoints,
            input.BoltedJointMilliohm,
            input.FuseJointMilliohm
        );
        var fuseLimit = input.AtTerminals && row.FuseA is { } terminals ? Math.Min(ampacity, terminals * conductors) : ampacity;
        var fuseNeeds =
            input.FuseProtectsCable && input.FuseRatingA is { } fuse
                ? input.NextSizeUp
                    ? fuse / 1.5
                    : fuse
                : 0;
        return new(
            row,
            conductors,
            conductorC,
            ampacity,
            drop.DropV,
            drop.DropFraction,
            Tolerant.AtLeast(ampacity, input.DesignCurrentA),
            Tolerant.AtLeast(fuseLimit, fuseNeeds),
            Tolerant.AtLeast(input.DropLimitFraction, drop.DropFraction),
            fuseLimit
        );
    }
}

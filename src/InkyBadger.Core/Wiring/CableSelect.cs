using InkyBadger.Core.Reference;

namespace InkyBadger.Core.Wiring;

/// <summary>The limits a cable must meet; on a tie the first is named.</summary>
public enum CableLimit
{
    Ampacity,
    Fuse,
    Drop,
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
    public double BoltedJointMilliohm { get; init; } = 0.1;
    public double FuseJointMilliohm { get; init; } = 0.2;
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
    bool DropOk
)
{
    public bool Fits => AmpacityOk && FuseOk && DropOk;
}

/// <summary>The choice, or when nothing fits the limits that cannot be met with three conductors in parallel.</summary>
public sealed record CableSelectResult(CableTrial? Choice, CableLimit? Governs, IReadOnlyList<CableLimit>? Unmet)
{
    public bool Fits => Choice is not null;
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

        for (var m = 1; m <= 3; m++)
        {
            int byAmpacity = -1,
                byFuse = -1,
                byDrop = -1;
            CableTrial? choice = null;
            for (var index = 0; index < input.Practice.Rows.Count && choice is null; index++)
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
            return new(null, null, unmet);
        }
        throw new InvalidOperationException("three conductors end the search");
    }

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
            Tolerant.AtLeast(ampacity, fuseNeeds),
            Tolerant.AtLeast(input.DropLimitFraction, drop.DropFraction)
        );
    }
}

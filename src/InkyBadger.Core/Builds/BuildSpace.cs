using InkyBadger.Core.Design;

namespace InkyBadger.Core.Builds;

/// <summary>
/// How the units of a build stand: so many across, deep and high, the room they take with the gaps between them [mm], whether it is in the
/// space given.
/// </summary>
public sealed record BuildLayout(int Across, int Deep, int High, double LengthMm, double WidthMm, double HeightMm, bool? Fits);

/// <summary>Stands units upright in a space, or as compactly as they go.</summary>
public static class BuildSpace
{
    /// <summary>Air between units [mm].</summary>
    private const double GapMm = 10;

    /// <summary>Units upon each other, at most.</summary>
    private const int MostHigh = 2;

    /// <summary>Null where the unit's size is not known.</summary>
    public static BuildLayout? Of(UnitItem unit, int units, UnitSize? space)
    {
        if (unit.Size is not { LengthMm: > 0, WidthMm: > 0, HeightMm: > 0 } size)
            return null;
        BuildLayout? best = null,
            inside = null;
        foreach (var (along, across) in new[] { (size.LengthMm, size.WidthMm), (size.WidthMm, size.LengthMm) })
            for (var high = 1; high <= MostHigh; high++)
            for (var deep = 1; deep <= units; deep++)
            {
                var wide = (units + deep * high - 1) / (deep * high);
                // The last row may be short, but none stands empty.
                if (wide * deep * (high - 1) >= units && high > 1)
                    continue;
                var layout = new BuildLayout(wide, deep, high, Side(wide, across), Side(deep, along), high * size.HeightMm, null);
                if (best is null || Bulk(layout) < Bulk(best))
                    best = layout;
                if (space is not null && In(layout, space) && (inside is null || Bulk(layout) < Bulk(inside)))
                    inside = layout;
            }
        return inside is not null ? inside with { Fits = true } : best! with { Fits = space is null ? null : false };
    }

    private static double Side(int count, double each) => count * each + (count - 1) * GapMm;

    /// <summary>Compact: little room, and no side much longer than another.</summary>
    private static double Bulk(BuildLayout l) => l.LengthMm * l.WidthMm * l.HeightMm * (1 + Math.Max(l.LengthMm, l.WidthMm) / 1000);

    /// <summary>The floor may be turned.</summary>
    private static bool In(BuildLayout l, UnitSize space) =>
        l.HeightMm <= space.HeightMm
        && (l.LengthMm <= space.LengthMm && l.WidthMm <= space.WidthMm || l.LengthMm <= space.WidthMm && l.WidthMm <= space.LengthMm);
}

namespace InkyBadger.Core.Banks;

/// <summary>How every unit stands: its length along the compartment's, or turned; on its long side with the terminals sideways.</summary>
public enum PackOrientation
{
    Upright,
    UprightTurned,
    Lying,
    LyingTurned,
}

public enum PackAxis
{
    Length,
    Width,
    Height,
}

/// <summary>A compartment inside, and a unit as it stands [mm, &gt; 0].</summary>
public readonly record struct PackBox(double LengthMm, double WidthMm, double HeightMm);

/// <summary>
/// Whether so many go in, how many at most, in which orientation and how many along each axis; what they use and leave [mm], or which side
/// alone would have to be how much longer [mm].
/// </summary>
public sealed record FitPackResult(
    bool Fits,
    int CountMax,
    PackOrientation Orientation,
    int Across,
    int Deep,
    int Layers,
    IReadOnlyList<double>? UsedMm,
    IReadOnlyList<double>? SpareMm,
    PackAxis? ShortAxis,
    double? ShortMm
);

/// <summary>Equal boxes in a box, one orientation for all (method, 15.1).</summary>
public static class FitPack
{
    public const double UsualGapMm = 5,
        UsualLidMm = 40,
        UsualWallMm = 10;

    /// <param name="compartment">Inside.</param>
    /// <param name="unit">Standing.</param>
    /// <param name="count">[≥ 1].</param>
    /// <param name="mayLie">On the long side; never flooded.</param>
    /// <param name="chemistry">Looked at only with <paramref name="mayLie"/>.</param>
    /// <param name="layers">The most [≥ 1].</param>
    /// <param name="gapMm">Between units [mm, ≥ 0].</param>
    /// <param name="lidMm">Over the terminals: cables, covers, a hand [mm, ≥ 0].</param>
    /// <param name="wallMm">To each wall [mm, ≥ 0].</param>
    /// <exception cref="Refusal">Names the offending input.</exception>
    public static FitPackResult Work(
        PackBox compartment,
        PackBox unit,
        int count,
        bool mayLie = false,
        string? chemistry = null,
        int layers = 1,
        double gapMm = UsualGapMm,
        double lidMm = UsualLidMm,
        double wallMm = UsualWallMm
    )
    {
        Require.Above(compartment.LengthMm, 0, "lengthMm");
        Require.Above(compartment.WidthMm, 0, "widthMm");
        Require.Above(compartment.HeightMm, 0, "heightMm");
        Require.Above(unit.LengthMm, 0, "unitLengthMm");
        Require.Above(unit.WidthMm, 0, "unitWidthMm");
        Require.Above(unit.HeightMm, 0, "unitHeightMm");
        Require.AtLeast(count, 1);
        Require.AtLeast(layers, 1);
        Require.AtLeast(gapMm, 0);
        Require.AtLeast(lidMm, 0);
        Require.AtLeast(wallMm, 0);
        if (mayLie && chemistry == "flooded")
            Require.Refuse(nameof(mayLie), "flooded cells stand");
        var ways = new List<Way>
        {
            new(PackOrientation.Upright, unit.LengthMm, unit.WidthMm, unit.HeightMm, PackAxis.Height),
            new(PackOrientation.UprightTurned, unit.WidthMm, unit.LengthMm, unit.HeightMm, PackAxis.Height),
        };
        if (mayLie)
        {
            ways.Add(new(PackOrientation.Lying, unit.LengthMm, unit.HeightMm, unit.WidthMm, PackAxis.Width));
            ways.Add(new(PackOrientation.LyingTurned, unit.HeightMm, unit.LengthMm, unit.WidthMm, PackAxis.Length));
        }
        var room = new Room(compartment, layers, gapMm, lidMm, wallMm);
        var taken = ways.ConvertAll(w => room.Takes(w));
        var most = taken.Max(t => t.All);
        var at = taken.FindIndex(t => t.All >= count);
        if (at >= 0)
        {
            var (takes, used) = (taken[at], room.Used(ways[at], taken[at], count));
            double[] spare = [compartment.LengthMm - used[0], compartment.WidthMm - used[1], compartment.HeightMm - used[2]];
            return new(true, most, ways[at].Orientation, takes.Across, takes.Deep, takes.Layers, used, spare, null, null);
        }
        var best = taken.FindIndex(t => t.All == most);
        var (axis, extra) = room.Short(ways, taken, count);
        return new(false, most, ways[best].Orientation, taken[best].Across, taken[best].Deep, taken[best].Layers, null, null, axis, extra);
    }

    /// <summary>A unit's sizes along length, width and height of the compartment, and where its terminals point.</summary>
    private readonly record struct Way(PackOrientation Orientation, double X, double Y, double Z, PackAxis Terminals)
    {
        public double Along(PackAxis axis) =>
            axis switch
            {
                PackAxis.Length => X,
                PackAxis.Width => Y,
                _ => Z,
            };
    }

    private readonly record struct Taken(int Across, int Deep, int Layers)
    {
        public int All => Across * Deep * Layers;

        public int Along(PackAxis axis) =>
            axis switch
            {
                PackAxis.Length => Across,
                PackAxis.Width => Deep,
                _ => Layers,
            };
    }

    private sealed class Room(PackBox box, int layers, double gap, double lid, double wall)
    {
        private double Size(PackAxis axis) =>
            axis switch
            {
                PackAxis.Length => box.LengthMm,
                PackAxis.Width => box.WidthMm,
                _ => box.HeightMm,
            };

        private double Walls(PackAxis axis) => axis == PackAxis.Height ? 0 : 2 * wall;

        /// <summary>What so many take along an axis with the walls; over terminals each has its lid in place of the gap.</summary>
        private double Needs(Way way, PackAxis axis, int n) =>
            n == 0 ? 0
            : way.Terminals == axis ? n * (way.Along(axis) + lid) + Walls(axis)
            : n * way.Along(axis) + (n - 1) * gap + Walls(axis);

        private int Count(Way way, PackAxis axis)
        {
            var room = Size(axis) - Walls(axis);
            var n =
                way.Terminals == axis
                    ? Math.Floor(room / (way.Along(axis) + lid) + Tolerant.Noise)
                    : Math.Floor((room + gap) / (way.Along(axis) + gap) + Tolerant.Noise);
            return (int)Math.Clamp(n, 0, axis == PackAxis.Height ? layers : 10_000);
        }

        public Taken Takes(Way way) => new(Count(way, PackAxis.Length), Count(way, PackAxis.Width), Count(way, PackAxis.Height));

        /// <summary>Filled along the length, then the width, then up.</summary>
        public double[] Used(Way way, Taken taken, int count)
        {
            static int Up(int n, int by) => (n + by - 1) / by;
            return
            [
                Needs(way, PackAxis.Length, Math.Min(count, taken.Across)),
                Needs(way, PackAxis.Width, Math.Min(taken.Deep, Up(count, taken.Across))),
                Needs(way, PackAxis.Height, Up(count, taken.Across * taken.Deep)),
            ];
        }

        /// <summary>The least that one side alone would have to be longer, in any orientation; null: none would do.</summary>
        public (PackAxis? Axis, double? Mm) Short(List<Way> ways, List<Taken> taken, int count)
        {
            (PackAxis? Axis, double? Mm) least = (null, null);
            foreach (var (i, way) in ways.Index())
            foreach (var axis in Enum.GetValues<PackAxis>())
            {
                var others = Enum.GetValues<PackAxis>().Where(a => a != axis).Aggregate(1, (n, a) => n * taken[i].Along(a));
                if (others == 0)
                    continue;
                var wanted = (count + others - 1) / others;
                if (axis == PackAxis.Height && wanted > layers)
                    continue;
                var extra = Needs(way, axis, wanted) - Size(axis);
                if (least.Mm is not { } mm || extra < mm - Tolerant.Noise)
                    least = (axis, extra);
            }
            return least;
        }
    }
}

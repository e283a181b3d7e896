using InkyBadger.Core.Wiring;
using InkyBadger.Server.Files;

namespace InkyBadger.Server.Cables;

/// <summary>Fuse schedule and cable cut list as CSV, by docs/format/schedules.md.</summary>
public static class ScheduleCsv
{
    public static string Fuses(IEnumerable<FuseRow> rows) =>
        CsvText.Write(
            [
                "fuse",
                "count",
                "class",
                "rating A",
                "made for V",
                "must bear V",
                "breaks A",
                "short circuit A",
                "from its source m",
                "protects",
                "chosen",
                "relies on",
            ],
            rows.Select(r =>
                new object?[]
                {
                    r.Name,
                    r.Count,
                    r.Class,
                    r.RatingA,
                    r.MaxDcV,
                    Rounded(r.GreatestV, 2),
                    r.InterruptA,
                    r.ShortCircuitA is { } amps ? Rounded(amps, 0) : null,
                    r.DistanceM,
                    r.Protects,
                    r.Chosen ? "by you" : "as advised",
                    r.ReliesOn,
                }
            )
        );

    public static string Cables(IEnumerable<CableRow> rows) =>
        CsvText.Write(
            ["label", "pole", "colour", "from", "to", "size", "mm2", "pieces", "length m", "lug at from", "lug at to", "covers"],
            rows.Select(r =>
                new object?[]
                {
                    r.Label,
                    r.Pole,
                    r.Colour,
                    r.From,
                    r.To,
                    r.Size,
                    r.AreaMm2,
                    r.Pieces,
                    Rounded(r.LengthM, 3),
                    r.FromLug,
                    r.ToLug,
                    r.Covers,
                }
            )
        );

    private static double Rounded(double value, int decimals) => Math.Round(value, decimals);
}

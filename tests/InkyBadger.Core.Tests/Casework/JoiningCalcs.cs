using InkyBadger.Core.Banks;

namespace InkyBadger.Core.Tests.Casework;

/// <summary>The calculations of joining banks and units, and of the place they stand in.</summary>
internal static partial class CaseCalcs
{
    private static object Through(CaseFields f) =>
        JoinThrough.Work(
            f.Num("out_a"),
            f.Num("out_v"),
            f.Num("in_v"),
            f.Num("hours"),
            f.Opt("in_low_v"),
            f.Num("efficiency", JoinThrough.UsualEfficiency),
            f.Num("idle_w", 0),
            f.Opt("giving_daily_wh")
        );

    private static object Settled(CaseFields f)
    {
        var units = f.Rows("units")
            .ConvertAll(u => new SettlingUnit(u.Num("ah"), u.Num("resistance_ohm"), u.Opt("soc"), u.Opt("voltage_v")));
        return units.Count != 2
            ? throw new Refusal("units", "exactly two")
            : Settle.Work(units[0], units[1], f.Text("chemistry"), f.Count("cells_in_series"), f.Num("links_ohm", 0), f.Opt("end_a"));
    }

    private static object Rest(CaseFields f) =>
        RestMatch.Work(f.Numbers("volts"), f.Text("chemistry"), f.Count("cells_in_series"), f.Opt("tolerance_v"));

    private static object Packed(CaseFields f) =>
        FitPack.Work(
            new(f.Num("length_mm"), f.Num("width_mm"), f.Num("height_mm")),
            new(f.Num("unit_length_mm"), f.Num("unit_width_mm"), f.Num("unit_height_mm")),
            f.Count("count"),
            f.Yes("may_lie", false),
            f.Has("chemistry") ? f.Text("chemistry") : null,
            f.Count("layers", 1),
            f.Num("gap_mm", FitPack.UsualGapMm),
            f.Num("lid_mm", FitPack.UsualLidMm),
            f.Num("wall_mm", FitPack.UsualWallMm)
        );

    private static object Trimmed(CaseFields f)
    {
        if (f.Has("front_x_m") != f.Has("rear_x_m"))
            throw new Refusal(f.Has("front_x_m") ? "rearXM" : "frontXM", "is required with the other axle");
        return FitTrim.Work(
            f.Rows("masses").ConvertAll(m => new TrimMass(m.Num("kg"), m.Num("x_m"), m.Num("y_m", 0))),
            f.Has("front_x_m")
                ? new(
                    f.Num("front_x_m"),
                    f.Num("rear_x_m"),
                    f.Num("front_now_kg", 0),
                    f.Num("rear_now_kg", 0),
                    f.Opt("front_limit_kg"),
                    f.Opt("rear_limit_kg")
                )
                : null,
            f.Opt("balance_y_m")
        );
    }
}

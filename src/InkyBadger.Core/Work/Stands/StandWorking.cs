using InkyBadger.Core.Banks;
using InkyBadger.Core.Design;
using InkyBadger.Core.Working;

namespace InkyBadger.Core.Work;

/// <summary>How the figures of where it stands came about.</summary>
internal static class StandWorking
{
    private const string Typical = "typical";

    public static void Write(Tape tape, BankWork w, StandResult r)
    {
        foreach (var (i, c) in r.Compartments.Index())
            Room(tape, w, $"/stands/compartments/{i}", w.Document.Compartments[i], i, c);
        if (r.Trim is { } trim)
            Weight(tape, w, r, trim);
        if (r.Lift is { } lift)
            tape.Write(
                "/stands/lift/kg",
                "the heaviest unit",
                lift.Kg,
                "kg",
                "15.2",
                null,
                [
                    T.Sheet("m", lift.Kg, "kg", "one unit", "/unit/massKg"),
                    T.Rule("p", w.Rules.Number("one-person-lifts"), "kg", "one person lifts", "one-person-lifts"),
                ],
                $"{lift.People} {(lift.People == 1 ? "person lifts" : "people lift")} it.",
                "one-person-lifts"
            );
    }

    private static void Room(Tape tape, BankWork w, string at, Compartment room, int index, CompartmentResult c)
    {
        var place = $"/compartments/{index}";
        var r = c.Room;
        var air =
            room.AirMm is { } own ? T.You("a", own, "mm", "air to the lid", place + "/airMm")
            : room.Lid == LidKind.Steel && r.NutMm > 0 ? T.Rule("a", r.AirMm, "mm", "air to a steel lid", "lid-air")
            : T.Assumed("a", r.AirMm, "mm", "air to the lid");
        Term[] terms =
            r.NutMm <= 0 ? [air]
            : room.FlatBars ? [T.Assumed("n", StandStage.FlatMm, "mm", $"nut over a flat bar, {Typical}"), air]
            :
            [
                T.Assumed("s", StandStage.StudMm, "mm", $"stud and nut, {Typical}"),
                T.Assumed("l", StandStage.LugMm, "mm", $"lug and cover, {Typical}"),
                air,
            ];
        tape.Write(
            at + "/room/overWantedMm",
            "wanted over the units",
            r.OverWantedMm,
            "mm",
            "15.3",
            string.Join(" + ", terms.Select(t => $"{{{t.Key}}}")),
            terms,
            houseRule: "lid-air"
        );
        tape.Write(
            at + "/room/overThereMm",
            "over the units to the lid",
            r.OverThereMm,
            "mm",
            "15.3",
            "{H} − {h}",
            [
                T.You("H", room.HeightMm, "mm", "compartment", place + "/heightMm"),
                T.Assumed("h", r.TallestMm, "mm", "tallest unit as it stands"),
            ]
        );
        tape.Write(
            at + "/room/heightLeftMm",
            "left over the units",
            r.HeightLeftMm,
            "mm",
            "15.3",
            "{t} − {w}",
            [
                T.Worked("t", r.OverThereMm, "mm", "there", at + "/room/overThereMm"),
                T.Worked("w", r.OverWantedMm, "mm", "wanted", at + "/room/overWantedMm"),
            ]
        );
        void Left(string field, string label, double left, double inside, string from) =>
            tape.Write(
                at + "/room/" + field,
                label,
                left,
                "mm",
                "15.3",
                "{L} − 2 × {w} − {u}",
                [
                    T.You("L", inside, "mm", "inside", place + from),
                    T.Assumed("w", UnitLayout.WallMm, "mm", "to each wall"),
                    T.Assumed("u", inside - 2 * UnitLayout.WallMm - left, "mm", "from the first unit to the last"),
                ]
            );
        Left("lengthLeftMm", "left beside the units", r.LengthLeftMm, room.LengthMm, "/lengthMm");
        Left("widthLeftMm", "left before the units", r.WidthLeftMm, room.WidthMm, "/widthMm");
        if (c.Hold is { } hold)
            tape.Write(
                at + "/hold/pullN",
                "pull on the straps",
                hold.PullN,
                "N",
                "15.3",
                "{m} × 9.81 × {g}",
                [T.Assumed("m", c.MassKg, "kg", "units in it"), T.Assumed("g", hold.G, "g", "a hard stop")],
                "What a strap is loaded with is its maker’s word; 1,250 N each is typical of small ratchet straps."
            );
    }

    private static void Weight(Tape tape, BankWork w, StandResult r, TrimResult trim)
    {
        List<Term> masses = [],
            sides = [],
            forward = [];
        foreach (var (i, c) in r.Compartments.Index())
        {
            if (c.MassKg is not > 0)
                continue;
            var place = $"/compartments/{i}";
            masses.Add(T.Assumed($"m{i}", c.MassKg, "kg", w.Document.Compartments[i].Name));
            sides.Add(T.You($"y{i}", w.Document.Compartments[i].RightM ?? 0, "m", "to the right", place + "/rightM"));
            forward.Add(T.You($"x{i}", w.Document.Compartments[i].ForwardM, "m", "forward", place + "/forwardM"));
        }
        string Moments(List<Term> arms) => string.Join(" + ", masses.Zip(arms, (m, a) => $"{{{m.Key}}} × {{{a.Key}}}"));
        tape.Write("/stands/trim/momentKgm", "sideways moment", trim.MomentKgm, "kgm", "15.2", Moments(sides), [.. masses, .. sides]);
        if (trim.FrontGainKg is not { } front || w.Scene.Design.Place.Trim is not { } side)
            return;
        var sum = string.Join(" + ", masses.Select(m => $"{{{m.Key}}}"));
        Term f = T.Assumed("f", side.FrontAxleM, "m", "front axle"),
            b = T.Assumed("b", side.RearAxleM, "m", "rear axle");
        tape.Write(
            "/stands/trim/frontGainKg",
            "on the front axle or the coupling",
            front,
            "kg",
            "15.2",
            $"({Moments(forward)} − ({sum}) × {{b}}) ÷ ({{f}} − {{b}})",
            [.. masses, .. forward, f, b]
        );
        tape.Write(
            "/stands/trim/rearGainKg",
            "on the rear axle",
            trim.RearGainKg,
            "kg",
            "15.2",
            $"{sum} − {{F}}",
            [.. masses, T.Worked("F", front, "kg", "on the front", "/stands/trim/frontGainKg")]
        );
    }
}

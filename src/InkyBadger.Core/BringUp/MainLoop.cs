using InkyBadger.Core.Design;
using InkyBadger.Core.Reference;
using InkyBadger.Core.Trials;
using InkyBadger.Core.Wiring;
using InkyBadger.Core.Work;

namespace InkyBadger.Core.BringUp;

/// <summary>Something along a pole of the main run.</summary>
/// <param name="Id">Of its step; empty for a device.</param>
/// <param name="SoundMilliohm">Of a sound joint, or of one conductor at 20 °C [mΩ].</param>
/// <param name="OtherTag">Of a joint what the lug sits on.</param>
internal sealed record LoopPlace(
    LoopItemKind Kind,
    Pole Pole,
    string Tag,
    string Id,
    double SoundMilliohm,
    CableRow? Piece,
    LoopPart? Part,
    string OtherTag,
    bool FarEnd
)
{
    /// <summary>So many lie side by side and share the current.</summary>
    public int Conductors => Piece?.Pieces ?? 1;
}

/// <summary>
/// Both poles of the main run, place by place: devices, the copper between them, and a lug at each end of each piece (method, 6.2). A fuse
/// or a switch counts with its two lugs, so that each of them is half of it.
/// </summary>
internal static class MainLoop
{
    /// <summary>Copper from here on is measured by itself: a thinner one than planned shows [m].</summary>
    public const double MeasuredFromM = 0.5;

    /// <summary>Parts nearer than this are bolted to each other [m].</summary>
    private const double BoltedM = 0.005;

    public static IReadOnlyList<LoopPlace> Of(Walk w)
    {
        if (w.Results.Bus is not { } bus || w.Results.MainRun is not { Cable.Size: not null } run || w.Cuts is not { } cuts)
            return [];
        return [.. OfPole(w, bus.Plus, Pole.Positive, run, cuts), .. OfPole(w, bus.Minus, Pole.Negative, run, cuts)];
    }

    /// <summary>Both poles of the inverter’s own run, where the main run ends at the bus: its lugs carry what the main run’s do.</summary>
    public static IReadOnlyList<LoopPlace> OfInverter(Walk w)
    {
        if (w.Results.Circuits.FirstOrDefault(c => c.Id == Run.InverterId) is not { Run.Cable.Size: not null } c || w.Cuts is not { } cuts)
            return [];
        var list = new List<LoopPlace>();
        foreach (var pole in new[] { Pole.Positive, Pole.Negative })
        {
            var (word, sign) = pole == Pole.Positive ? ("plus", "+") : ("minus", "−");
            if (cuts.Cables.FirstOrDefault(x => x.Key == $"{c.Id}-{word}") is not { } piece)
                continue;
            void Lug(LoopPart on, string onTag, bool far) =>
                list.Add(
                    Joint(
                        w.Work.Rules,
                        pole,
                        piece.Label,
                        piece,
                        on,
                        onTag,
                        $"joint-{piece.Key}-{list.Count(p => p.Pole == pole) + 1}",
                        far
                    )
                );
            foreach (var point in pole == Pole.Positive ? c.Plus : c.Minus)
                if (point.Part == LoopPart.Begin)
                    Lug(LoopPart.Bus, "B" + sign, false);
                else if (point.Part == LoopPart.End)
                    Lug(LoopPart.Inverter, "I1" + sign, true);
                else
                {
                    var what = point.Part == LoopPart.Fuse ? "its fuse" : "its switch";
                    Lug(point.Part, $"{what}, bus side", true);
                    Lug(point.Part, $"{what}, far side", false);
                }
        }
        return list;
    }

    private static IEnumerable<LoopPlace> OfPole(Walk w, IReadOnlyList<LoopPoint> points, Pole pole, RunResult run, SchedulesResult cuts)
    {
        var rules = w.Work.Rules;
        var word = pole == Pole.Positive ? "plus" : "minus";
        for (var i = 0; i < points.Count; i++)
        {
            if (i > 0)
            {
                var (a, b) = (points[i - 1], points[i]);
                var key = $"{Run.MainId}-{a.Part}-{b.Part}-{word}".ToLowerInvariant();
                var piece = b.AtM - a.AtM < BoltedM ? null : cuts.Cables.FirstOrDefault(c => c.Key == key);
                if (piece is null)
                {
                    // No copper between them: one joint, and it is half of a fuse where one of the two is.
                    yield return Joint(rules, pole, Tag(w, b.Part, pole), null, a.Part, Tag(w, a.Part, pole), $"joint-{key}", true);
                }
                else
                {
                    yield return Joint(rules, pole, piece.Label, piece, a.Part, Tag(w, a.Part, pole), $"joint-{key}-1", false);
                    var ohm = (double)Cable.Resistance(w.Tables.Conductor(piece.Size).R20MilliohmPerM, piece.LengthM, 20, 1);
                    yield return new(LoopItemKind.Piece, pole, piece.Label, $"copper-{key}", 1000 * ohm, piece, null, "", false);
                    yield return Joint(rules, pole, piece.Label, piece, b.Part, Tag(w, b.Part, pole), $"joint-{key}-2", true);
                }
            }
            yield return new(LoopItemKind.Device, pole, Tag(w, points[i].Part, pole), "", 0, null, points[i].Part, "", false);
        }
    }

    private static LoopPlace Joint(
        DesignRules rules,
        Pole pole,
        string tag,
        CableRow? piece,
        LoopPart on,
        string onTag,
        string id,
        bool far
    ) =>
        new(
            LoopItemKind.Joint,
            pole,
            tag,
            id,
            on is LoopPart.Fuse or LoopPart.Switch ? rules.FusedMilliohm / 2 : rules.BoltedMilliohm,
            piece,
            on,
            onTag,
            far
        );

    /// <summary>What the drawing calls it.</summary>
    public static string Tag(Walk w, LoopPart part, Pole pole)
    {
        var sign = pole == Pole.Positive ? "+" : "−";
        return part switch
        {
            LoopPart.Post => TakeOff(w, pole) + sign,
            LoopPart.Fuse => "F1",
            LoopPart.Switch => "S1",
            LoopPart.Shunt => "X1",
            LoopPart.Bus => "B" + sign,
            _ => "I1" + sign,
        };
    }

    /// <summary>The string whose post the run leaves; bus bars of the bank have none.</summary>
    private static string TakeOff(Walk w, Pole pole)
    {
        if (w.Work.Wired.Value is not { } wired)
            return "A";
        if (wired.Network.IsBusBars)
            return "bar ";
        var (plus, minus) = wired.Network.Takeoffs;
        return Say.StringName(int.Parse((pole == Pole.Positive ? plus : minus)[1..], System.Globalization.CultureInfo.InvariantCulture));
    }

    /// <summary>In words, for where a tip goes.</summary>
    public static string On(LoopPart part, string tag) =>
        part switch
        {
            LoopPart.Post => $"the post {tag}",
            LoopPart.Fuse => $"the blade of {tag}",
            LoopPart.Switch => $"the stud of {tag}",
            LoopPart.Shunt => $"the block of {tag}",
            LoopPart.Bus => $"the bar {tag}",
            _ => $"the terminal {tag}",
        };

    /// <summary>Diameter of copper of so many mm² [mm].</summary>
    public static double Diameter(double areaMm2) => Math.Sqrt(4 * areaMm2 / Math.PI);
}

using InkyBadger.Core.Design;
using InkyBadger.Core.Proving;
using InkyBadger.Core.Reference;
using InkyBadger.Core.Work;
using MeasuredConductor = InkyBadger.Core.Proving.MeasuredConductor;

namespace InkyBadger.Core.BringUp;

/// <summary>Conductors between units and joints of the main run, by their millivolts at the amperes just read.</summary>
internal static class JointSteps
{
    /// <summary>Twice what a usual meter needs to tell a joint: with less, nothing is judged by millivolts [A].</summary>
    public const double LeastA = 2 * JointReading.UsualStepMv / 0.05;

    public static void Inside(Walk w, NetworkResult net, ShareSteps.SteadyLoad load, double amps, double[] strings)
    {
        var wired = w.Work.Wired.Need();
        foreach (var c in net.Copper.Placed)
        {
            var through =
                c.Kind == ConductorKind.Link
                    ? c.Rail == Pole.Positive
                        ? wired.Network.LinkCurrents(strings, amps, c.After).PositiveA
                        : wired.Network.LinkCurrents(strings, amps, c.After).NegativeA
                    : strings[c.String - 1];
            through = Math.Abs(through);
            // What carries next to nothing as planned tells nothing, and is judged by its nut.
            if (c.Amps * amps / Math.Max(1e-9, net.Strings.BankA) / c.Conductors < LeastA)
                continue;
            w.Add(InsideOf(w, c, through / c.Conductors, load, amps, wired.LugOhm * 1000));
        }
    }

    private static Draft InsideOf(Walk w, PlacedAmps c, double through, ShareSteps.SteadyLoad load, double amps, double lugMilliohm)
    {
        var (id, name) = ($"joint-{c.Id}".ToLowerInvariant(), c.Name);
        var copper = new MeasuredConductor(w.Tables.Conductor(c.Size).R20MilliohmPerM, c.LengthM);
        var cut = w.Cuts?.Cables.FirstOrDefault(x =>
            x.Size == c.Size
            && Math.Abs(x.LengthM - c.LengthM) < 1e-6
            && x.Label[0]
                == (
                    c.Kind == ConductorKind.Jumper ? 'J'
                    : c.Kind == ConductorKind.Link ? 'L'
                    : 'B'
                )
        );
        return Millivolts(
            new(id, Capital(name["the ".Length..]))
            {
                Do = $"Red tip on the post it leaves, black tip on the post it comes to: {name} with both its lugs lies between.",
                Load = ShareSteps.On(load, amps),
                Tips = new(
                    TipsPicture.Copper,
                    "the post it leaves",
                    "the post it comes to",
                    cut?.Label ?? "",
                    Say.Size(c.Size, c.Conductors),
                    "",
                    "",
                    MainLoop.Diameter(w.Tables.Conductor(c.Size).AreaMm2),
                    cut?.FromLug.Split('×')[^1].Trim(),
                    cut is null ? null : $"cut-{cut.Key}"
                ),
                About = $"{c.Size}|{c.LengthM:R}|{c.Conductors}|{c.Kind}",
                Probe = new Probe.Inside(c),
                Proves = cut is null ? [] : [($"cut-{cut.Key}", null)],
            },
            name,
            Math.Max(through, 1e-6),
            copper,
            2,
            lugMilliohm,
            w.Results.Network!.Strings.BankA > 0 ? c.Amps / c.Conductors : through,
            cut?.FromLug,
            null,
            e => Take(w, c, e)
        );
    }

    /// <summary>What a bad one has more than a sound one goes into the design: the run-down and the network then reckon with it.</summary>
    private static TakenIn[] Take(Walk w, PlacedAmps c, JointReadingResult r)
    {
        if (r.Verdict is not (JointVerdict.Look or JointVerdict.Bad) || r.ExtraMilliohm <= 0)
            return [];
        var wiring = w.Work.Document.Wiring;
        var (list, name) = c.Kind switch
        {
            ConductorKind.Jumper => (wiring.Jumpers, "jumpers"),
            ConductorKind.Link => (wiring.Links, "links"),
            _ => (wiring.Leads, "leads"),
        };
        var at = list.Index().Where(x => Is(x.Item)).Select(x => (int?)x.Index).LastOrDefault();
        bool Is(PlacedConductor p) =>
            c.Kind switch
            {
                ConductorKind.Jumper => p.String == c.String && p.After == c.After,
                ConductorKind.Link => p.Rail == c.Rail && p.After == c.After,
                _ => p.Rail == c.Rail && p.String == c.String,
            };
        var extra = Math.Round(r.ExtraMilliohm, 3);
        var pointer = $"/banks/{w.Work.Scene.Index}/wiring/{name}";
        object value = at is null
            ? new PlacedConductor
            {
                Rail = c.Rail,
                String = c.String,
                After = c.After,
                JointMilliohm = extra,
            }
            : extra;
        return
        [
            new(
                $"{Capital(c.Name)}: {Figures.Number(extra, 2)} mΩ more than a sound one",
                at is null ? $"{pointer}/-" : $"{pointer}/{at}/jointMilliohm",
                value
            ),
        ];
    }

    public static void Joint(Walk w, LoopPlace p, RunResult main, ShareSteps.SteadyLoad load, double amps)
    {
        var on = p.Part is { } part ? MainLoop.On(part, p.OtherTag) : "";
        var copper = p.Kind == LoopItemKind.Piece;
        var size = p.Piece?.Size;
        var mm = p.Piece is { } piece ? MainLoop.Diameter(piece.AreaMm2) : (double?)null;
        var lug = p.FarEnd ? p.Piece?.ToLug : p.Piece?.FromLug;
        var stud = lug?.Contains('×') == true ? lug.Split('×')[^1].Trim() : null;
        var name =
            copper ? $"{p.Tag}, lug to lug"
            : p.Piece is null ? $"{p.Tag} on {p.OtherTag}"
            : $"lug of {p.Tag} on {p.OtherTag}";
        w.Add(
            Millivolts(
                new(
                    p.Id,
                    copper ? $"{p.Tag} along"
                        : p.Piece is null ? $"{p.Tag} on {p.OtherTag}"
                        : $"Lug of {p.Tag} on {p.OtherTag}"
                )
                {
                    Do =
                        copper ? $"Red tip on the barrel of one lug of {p.Tag}, black tip on the barrel of the other."
                        : p.Piece is null ? $"Red tip on {p.Tag}, black tip on {on}, beside the nut and not on it."
                        : $"Red tip on the barrel of the lug, black tip on {on} beside the nut, not on the nut.",
                    Load = ShareSteps.On(load, amps),
                    Tips = new(
                        copper ? TipsPicture.Copper : TipsPicture.Lug,
                        copper ? "the barrel of one lug" : "the barrel of the lug",
                        copper ? "the barrel of the other" : $"{on}, beside the nut",
                        p.Tag,
                        size is null ? "" : Say.Size(size, p.Conductors),
                        copper ? "" : p.OtherTag,
                        p.Part == LoopPart.Fuse && main.Fuse.RatingA is { } rating ? Say.Rating(rating) : "",
                        mm,
                        stud,
                        p.Piece is { } cut ? $"cut-{cut.Key}" : null
                    ),
                    About = $"{size}|{p.Piece?.LengthM:R}|{p.Conductors}|{p.Tag}|{p.OtherTag}",
                    Probe = new Probe.Joint(p.Id, copper ? 0 : p.SoundMilliohm, copper ? p.SoundMilliohm : 0),
                    Proves = p.Piece is { } proven ? [($"cut-{proven.Key}", null)] : [],
                },
                name,
                amps / p.Conductors,
                copper ? new(w.Tables.Conductor(size!).R20MilliohmPerM, p.Piece!.LengthM) : null,
                copper ? 0 : 1,
                copper ? 0 : p.SoundMilliohm,
                main.DesignA / p.Conductors,
                lug,
                p.OtherTag,
                _ => []
            )
        );
    }

    /// <summary>A step of millivolts: what is to be expected at these amperes, and how it is judged (method, 12.3).</summary>
    private static Draft Millivolts(
        Draft d,
        string name,
        double amps,
        MeasuredConductor? copper,
        int joints,
        double jointMilliohm,
        double designA,
        string? lug,
        string? on,
        Func<JointReadingResult, IReadOnlyList<TakenIn>> take
    )
    {
        JointReadingResult At(double mv, double a) => JointReading.Work(mv, a, copper, joints, 0, jointMilliohm, 0, Math.Max(designA, a));
        var sound = At(0, amps).PredictedMilliohm;
        var ok = JointLimits.Of(sound, copper is null ? 0 : sound - joints * jointMilliohm, Math.Max(designA, amps));
        var low = Math.Max(0, sound - Math.Max(0.1, 0.3 * sound));
        string Mv(double milliohm) => Figures.Number(milliohm * amps, 1);
        return d with
        {
            Kind = StepKind.Reading,
            Ask =
                $"Measure {(name.StartsWith("the ", StringComparison.Ordinal) || copper is not null ? name : "the " + name)}: "
                + $"{Mv(sound)} mV, "
                + $"up to {Mv(ok.OkMilliohm)} at {Figures.Number(amps, 1)} A",
            Unit = "mV",
            Decimals = 1,
            Amps = amps,
            Expected = new(
                sound * amps,
                low * amps,
                ok.OkMilliohm * amps,
                low * amps,
                ok.LookMilliohm * amps,
                $"{Mv(sound)} mV is sound, worth a look above {Mv(ok.OkMilliohm)}"
            ),
            Caution = "Live: the tips bridge nothing. Keep rings off and the other covers on.",
            Judge = e =>
            {
                var a = e.Amps ?? amps;
                var r = At(Math.Abs(e.Value!.Value), a);
                return JointWords.Of(name, e.Value.Value, a, r, copper, joints, jointMilliohm, Math.Max(designA, a), lug, on) with
                {
                    Take = take(r),
                };
            },
        };
    }

    private static string Capital(string words) => char.ToUpperInvariant(words[0]) + words[1..];
}

using InkyBadger.Core.Banks;
using InkyBadger.Core.Design;
using InkyBadger.Core.Reference;
using InkyBadger.Core.Work;

namespace InkyBadger.Core.BringUp;

/// <summary>Under load: each load for itself, the strings’ shares, every joint, and full load at last.</summary>
internal static class LoadSteps
{
    public static void Add(Walk w)
    {
        if (
            w.Results.MainRun is not { } main
            || w.Results.Bus is null
            || w.Work.Pack.Value is not { } pack
            || w.Results.Network is not { } net
        )
            return;
        var volts = w.Results.Voltage!.NominalV;
        FirstLoads.Add(w, volts);
        var load = ShareSteps.JointLoad(w, volts, main, net);
        var places = MainLoop.Of(w);
        var measured = load.Amps >= JointSteps.LeastA;
        if (measured)
        {
            w.Under("Joints under load");
            var amps = ShareSteps.Amps(w, load);
            ShareSteps.Sag(w, net, load, amps);
            var strings = ShareSteps.Shares(w, pack, net, load, amps);
            JointSteps.Inside(w, net, load, amps, strings);
            foreach (var place in places.Where(p => p.Id.Length > 0 && load.Amps / p.Conductors >= JointSteps.LeastA))
                if (place.Kind == LoopItemKind.Joint || place.Piece!.LengthM >= MainLoop.MeasuredFromM)
                    JointSteps.Joint(w, place, main, load, amps);
            // What flows passes the inverter’s own run too, if it is the only one and has the load.
            if (
                load.Ac
                && w.Work.Document.Inverters.Count <= 1
                && w.Results.Circuits.FirstOrDefault(c => c.Id == Run.InverterId) is { } own
            )
                foreach (var place in MainLoop.OfInverter(w).Where(p => load.Amps / p.Conductors >= JointSteps.LeastA))
                    JointSteps.Joint(w, place, own.Run, load, amps);
            var joints = w.Steps.Where(s => s.Bank == w.Bank && s.Key.StartsWith($"{w.Bank}/joint-", StringComparison.Ordinal)).ToList();
            var open = joints.Count(s => s.State != StepState.Done);
            w.Gate(
                "gate-load",
                open == 0 ? "every joint sound" : "no full load yet",
                open == 0
                    ? "Every joint drops what a sound one does."
                    : $"Opens when every joint of both poles is sound: {open} of {joints.Count} are to be measured or mended.",
                open == 0,
                string.Join('|', places.Select(p => p.Id))
            );
        }
        FullLoadSteps.Add(w, main);
    }
}

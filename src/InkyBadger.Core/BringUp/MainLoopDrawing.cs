using InkyBadger.Core.Design;

namespace InkyBadger.Core.BringUp;

/// <summary>The loop of a bank unrolled: every joint with what it is to drop and what it does.</summary>
internal static class MainLoopDrawing
{
    /// <summary>Null: there is no main run, or nothing flows.</summary>
    public static BringUpLoop? Of(Walk w)
    {
        var places = MainLoop.Of(w);
        if (places.Count == 0 || w.Results.MainRun is not { } main)
            return null;
        var entry = w.Entry("amps");
        var read = w.Read("amps");
        // As the steps of the joints expect it, which is as it was read, or as it was planned.
        var amps = w.Steps.Find(s => s.Bank == w.Bank && s.Key.StartsWith($"{w.Bank}/joint-main-", StringComparison.Ordinal))
            is { Amps: { } a } step
            ? a * places.First(p => w.Key(p.Id) == step.Key).Conductors
            : main.DesignA / 2;
        var joint = places.First(p => p.Kind == LoopItemKind.Joint);
        var look =
            JointLimits.Of(joint.SoundMilliohm, 0, Math.Max(main.DesignA, amps) / joint.Conductors).OkMilliohm * amps / joint.Conductors;
        LoopItem Item(LoopPlace p)
        {
            var step = p.Id.Length > 0 ? w.Find(p.Id) : null;
            var measured = step is { Verdict: not null }
                ? w.Read(p.Id) is { } mv && w.Entry(p.Id)?.Amps is { } at
                    ? mv * amps / p.Conductors / at
                    : w.Read(p.Id)
                : null;
            return new(
                p.Kind,
                p.Tag,
                step?.Key,
                p.Piece?.LengthM,
                p.Piece is { } c ? MainLoop.Diameter(c.AreaMm2) : null,
                p.Kind == LoopItemKind.Device ? null : p.SoundMilliohm * amps / p.Conductors,
                measured,
                step?.State ?? StepState.Open,
                p.Kind == LoopItemKind.Piece && main.Carries.AmpacityA is > 0 and var carries ? amps / carries : null
            );
        }
        return new(
            w.Bank,
            amps,
            read is not null && entry is not null,
            look,
            [.. places.Where(p => p.Pole == Pole.Positive).Select(Item)],
            [.. places.Where(p => p.Pole == Pole.Negative).Select(Item)],
            w.Read("sag"),
            w.Results.Network is { } net
                ? Math.Max(0, MainSteps.RestV(w) - amps * (net.BankOhm + main.Joints.Ohm + 2 * (main.Cable.OneWayOhm ?? 0)))
                : null
        );
    }
}

using InkyBadger.Core.Work;

namespace InkyBadger.Core.BringUp;

/// <summary>What a meter is held to, for a made-up bank to answer; strings, units and sources from 0.</summary>
internal abstract record Probe
{
    /// <summary>A unit alone, at rest.</summary>
    public sealed record Unit(int String, int At) : Probe;

    /// <summary>A string that is not joined yet.</summary>
    public sealed record OneString(int String) : Probe;

    /// <summary>The whole bank at rest, at its take-offs or in front of the main fuse.</summary>
    public sealed record Rail : Probe;

    /// <summary>Behind the main fuse.</summary>
    public sealed record BehindFuse : Probe;

    /// <summary>Where nothing is to be.</summary>
    public sealed record Nothing : Probe;

    /// <summary>Behind the resistor, seconds after its button was pressed.</summary>
    public sealed record PreCharge : Probe;

    /// <summary>What the monitor says of a load that draws so much [A].</summary>
    public sealed record Drawn(double Amps) : Probe;

    /// <summary>The same of the load that the joints are measured under.</summary>
    public sealed record JointLoad(double Amps) : Probe;

    /// <summary>The bank’s posts under the joints’ load.</summary>
    public sealed record Sag : Probe;

    /// <summary>A clamp round a string’s lead, under the joints’ load.</summary>
    public sealed record Share(int String) : Probe;

    /// <summary>A conductor between batteries, post to post.</summary>
    public sealed record Inside(PlacedAmps At) : Probe;

    /// <summary>A joint of the main run, or copper along it, at 20 °C [mΩ].</summary>
    public sealed record Joint(string Id, double JointMilliohm, double CopperMilliohm) : Probe;

    /// <summary>The bank while a charger holds its absorption [V].</summary>
    public sealed record Absorption(string Source, double Volts) : Probe;

    /// <summary>The warmest lug.</summary>
    public sealed record Heat : Probe;
}

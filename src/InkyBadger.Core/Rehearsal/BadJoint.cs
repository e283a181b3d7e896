using InkyBadger.Core.Network;
using InkyBadger.Core.Work;

namespace InkyBadger.Core.Rehearsal;

/// <summary>A joint that is known to be bad, and the most that went through it: at a unit's posts, or a lug of a conductor.</summary>
internal sealed class BadJoint(string where, double ohm, Func<double[], double, double> through)
{
    private double most;

    /// <summary>Under these amperes of the strings and of the load [A].</summary>
    public void Carry(double[] strings, double loadA) => most = Math.Max(most, Math.Abs(through(strings, loadA)));

    public HotJoint Hottest => new(where, most, most * most * ohm);

    /// <param name="w">A bank that is worked out.</param>
    public static IReadOnlyList<BadJoint> Of(BankWork w)
    {
        var list = new List<BadJoint>();
        foreach (var (s, units) in w.Pack.Need().Strings.Index())
        foreach (var (u, unit) in units.Units.Index())
            if (unit.JointOhm > 0)
                list.Add(new($"joint at {Say.StringName(s + 1)}{u + 1}", unit.JointOhm, (amps, _) => amps[s]));
        var network = w.Wired.Need().Network;
        foreach (var (at, said) in BadLug.Of(w.Network.Value?.Copper.Placed ?? [], w.Document.Wiring))
            list.Add(new($"lug on {at.Name}", said.JointMilliohm!.Value / 1000, Through(network, at)));
        return list;
    }

    private static Func<double[], double, double> Through(BankNetwork network, PlacedAmps at)
    {
        if (at.Kind != ConductorKind.Link)
            return (amps, _) => amps[at.String - 1];
        return (amps, load) =>
        {
            var (positive, negative) = network.LinkCurrents(amps, load, at.After);
            return at.Rail == Design.Pole.Positive ? positive : negative;
        };
    }
}

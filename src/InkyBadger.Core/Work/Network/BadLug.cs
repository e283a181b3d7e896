using InkyBadger.Core.Design;

namespace InkyBadger.Core.Work;

/// <summary>Conductors between batteries with a lug that is known to be bad.</summary>
internal static class BadLug
{
    /// <param name="placed">As the network has them.</param>
    /// <param name="wiring">As the document has them.</param>
    public static IEnumerable<(PlacedAmps At, PlacedConductor Said)> Of(IReadOnlyList<PlacedAmps> placed, Design.Wiring wiring)
    {
        foreach (var at in placed)
            if (SaidOf(at, wiring) is { JointMilliohm: > 0 } said)
                yield return (at, said);
    }

    private static PlacedConductor? SaidOf(PlacedAmps at, Design.Wiring wiring) =>
        at.Kind switch
        {
            ConductorKind.Jumper => wiring.Jumpers.FirstOrDefault(c => c.String == at.String && c.After == at.After),
            ConductorKind.Link => wiring.Links.FirstOrDefault(c => c.Rail == at.Rail && c.After == at.After),
            _ => wiring.Leads.FirstOrDefault(c => c.Rail == at.Rail && c.String == at.String),
        };
}

using InkyBadger.Core.Design;
using InkyBadger.Core.Wiring;
using InkyBadger.Core.Working;

namespace InkyBadger.Core.Work;

public enum ConductorKind
{
    Jumper,
    Link,
    Lead,
}

/// <summary>
/// A conductor of the bank as it stands, at full load: which one (rail; string; after which string or unit), size, length one way [m],
/// how many side by side, resistance with its two lugs [Ω], amperes, the most while the main fuse holds [A], what it carries at most [A],
/// volts lost and heat [W]. <paramref name="Own"/>: it differs from the rest. <paramref name="As"/>: the size whose amperes stand in for
/// one that the practice does not list.
/// </summary>
public sealed record PlacedAmps(
    ConductorKind Kind,
    Pole Rail,
    int String,
    int After,
    string Size,
    int Conductors,
    double LengthM,
    double Ohm,
    double Amps,
    double HeldA,
    double AmpacityA,
    double DropV,
    double HeatW,
    bool Own,
    string? As
)
{
    /// <summary>Which one, in words.</summary>
    internal string Name =>
        Kind switch
        {
            ConductorKind.Jumper => $"the jumper {Say.StringName(String)}{After} to {Say.StringName(String)}{After + 1}",
            ConductorKind.Link => $"the {(Rail == Pole.Positive ? "positive" : "negative")} link {Say.StringName(After)} to "
                + $"{Say.StringName(After + 1)}",
            _ => $"the {(Rail == Pole.Positive ? "positive" : "negative")} lead of string {Say.StringName(String)}",
        };

    /// <summary>The same through all changes of size.</summary>
    internal string Id => $"{Kind}-{Rail}-{String}-{After}";
}

/// <summary>Every conductor of the bank with what flows in it.</summary>
internal static class BankConductors
{
    public static IReadOnlyList<PlacedAmps> Of(
        Design.Wiring wiring,
        WiredBank wired,
        IReadOnlyList<double> stringsA,
        LinksAtLoad links,
        HeldAmps held
    )
    {
        var (series, parallel, busBars) = (wired.Series, wired.Network.Strings, wired.Network.IsBusBars);
        var (jumper, link, lead) = (wired.Jumper, wired.Link, wired.Lead);
        var all = new List<PlacedAmps>(parallel * (series - 1) + 2 * parallel);
        void Add(ConductorKind kind, Pole rail, int s, int after, BankConductor usual, PlacedConductor? own, double amps, double heldA)
        {
            var c = own is null ? usual : wired.Placed(own, usual);
            var flow = Math.Abs(amps);
            all.Add(
                new(
                    kind,
                    rail,
                    s,
                    after,
                    c.Size,
                    c.Conductors,
                    c.LengthM,
                    c.Ohm,
                    flow,
                    heldA,
                    c.AmpacityA,
                    flow * c.Ohm,
                    flow * flow * c.Ohm,
                    own is { Measured: false },
                    c.As
                )
            );
        }
        for (var s = 1; s <= parallel; s++)
        for (var u = 1; u < series; u++)
            Add(
                ConductorKind.Jumper,
                Pole.Positive,
                s,
                u,
                jumper,
                wiring.Jumpers.FirstOrDefault(c => c.String == s && c.After == u),
                stringsA[s - 1],
                held.StringsA[s - 1]
            );
        foreach (var rail in new[] { Pole.Positive, Pole.Negative })
        {
            if (busBars)
                for (var s = 1; s <= parallel; s++)
                    Add(
                        ConductorKind.Lead,
                        rail,
                        s,
                        s,
                        lead,
                        wiring.Leads.FirstOrDefault(c => c.Rail == rail && c.String == s),
                        stringsA[s - 1],
                        held.StringsA[s - 1]
                    );
            else
                for (var s = 1; s < parallel; s++)
                    Add(
                        ConductorKind.Link,
                        rail,
                        s,
                        s,
                        link,
                        wiring.Links.FirstOrDefault(c => c.Rail == rail && c.After == s),
                        (rail == Pole.Positive ? links.PositiveA : links.NegativeA)[s - 1],
                        (rail == Pole.Positive ? held.PositiveA : held.NegativeA)[s - 1]
                    );
        }
        return all;
    }

    public static void WriteWorking(Tape tape, NetworkResult r)
    {
        foreach (var (n, c) in r.Copper.Placed.Index())
        {
            var name = c.Name;
            var source =
                c.Kind == ConductorKind.Link
                    ? $"/network/links/{(c.Rail == Pole.Positive ? "positiveA" : "negativeA")}/{c.After - 1}"
                    : $"/network/strings/amps/{c.String - 1}";
            var amps = T.Worked("I", c.Amps, "A", "in it", source);
            // Own take-offs write no working of their links yet.
            if (tape.Find(tape.Prefix + source) is null)
                amps = amps with { Origin = Origin.Assumed, Ref = null };
            tape.Write($"/network/copper/placed/{n}/amps", $"{name} at full load", c.Amps, "A", "5.1", "{I}", [amps]);
            var ohm = T.Table("R", c.Ohm, "ohm", $"{c.Size}, with its lugs", "conductors");
            tape.Write($"/network/copper/placed/{n}/dropV", $"lost over {name}", c.DropV, "V", "6.2", "{I} × {R}", [amps, ohm]);
            tape.Write($"/network/copper/placed/{n}/heatW", $"heat in {name}", c.HeatW, "W", "6.2", "{I} × {I} × {R}", [amps, ohm]);
        }
    }
}

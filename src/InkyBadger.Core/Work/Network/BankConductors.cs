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
/// resistance with its two lugs [Ω], amperes, what it carries at most, volts lost and heat [W]. <paramref name="Own"/>: it differs from the
/// rest.
/// </summary>
public sealed record PlacedAmps(
    ConductorKind Kind,
    Pole Rail,
    int String,
    int After,
    string Size,
    double LengthM,
    double Ohm,
    double Amps,
    double AmpacityA,
    double DropV,
    double HeatW,
    bool Own
);

/// <summary>Every conductor of the bank with what flows in it.</summary>
internal static class BankConductors
{
    public static IReadOnlyList<PlacedAmps> Of(
        Design.Wiring wiring,
        WiredBank wired,
        IReadOnlyList<double> stringsA,
        IReadOnlyList<double> positiveA,
        IReadOnlyList<double> negativeA
    )
    {
        var (series, parallel, busBars) = (wired.Series, wired.Network.Strings, wired.Network.IsBusBars);
        var (practice, ambientC, jumper, link, lead) = (wired.Practice, wired.AmbientC, wired.Jumper, wired.Link, wired.Lead);
        var all = new List<PlacedAmps>(parallel * (series - 1) + 2 * parallel);
        void Add(ConductorKind kind, Pole rail, int s, int after, BankConductor usual, PlacedConductor? own, double amps)
        {
            var size = own?.Size is { } given && practice.Has(given) ? given : usual.Size;
            var length = own?.LengthM ?? usual.LengthM;
            var ohm = WiredBank.OhmOf(size, length);
            var ampacity = size == usual.Size ? usual.AmpacityA : Cable.Ampacity(practice.Get(size), ambientC, 1, 1, false).AmpacityA;
            var flow = Math.Abs(amps);
            all.Add(new(kind, rail, s, after, size, length, ohm, flow, ampacity, flow * ohm, flow * flow * ohm, own is not null));
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
                stringsA[s - 1]
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
                        stringsA[s - 1]
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
                        (rail == Pole.Positive ? positiveA : negativeA)[s - 1]
                    );
        }
        return all;
    }

    public static void WriteWorking(Tape tape, NetworkResult r)
    {
        foreach (var (n, c) in r.Copper.Placed.Index())
        {
            var name = Name(c);
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

    private static string Name(PlacedAmps c) =>
        c.Kind switch
        {
            ConductorKind.Jumper => $"the jumper {Say.StringName(c.String)}{c.After} to {Say.StringName(c.String)}{c.After + 1}",
            ConductorKind.Link => $"the {(c.Rail == Pole.Positive ? "positive" : "negative")} link {Say.StringName(c.After)} to "
                + $"{Say.StringName(c.After + 1)}",
            _ => $"the {(c.Rail == Pole.Positive ? "positive" : "negative")} lead of string {Say.StringName(c.String)}",
        };
}

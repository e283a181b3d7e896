using System.Globalization;
using System.Text;
using InkyBadger.Core.Design;
using InkyBadger.Core.Work;

namespace InkyBadger.Core.Sheets;

/// <summary>
/// The bank with its wiring and its load as a text that circuit simulators read: units as EMF and resistance, jumpers, links and leads as
/// resistances, the whole bank’s worst current as a source. Run there it gives the string currents of the Evaluation.
/// </summary>
public static class Netlist
{
    /// <summary>Null as long as the bank’s network is not worked out.</summary>
    public static string? Of(DesignDocument design, int bankIndex)
    {
        var w = new SiteWork(design)[bankIndex];
        if (w is not { Network.Value: { } network, Wired.Value: { } wired, Pack.Value: { } pack, Voltage.Value: { } voltage })
            return null;
        var text = new StringBuilder();
        void Line(string line) => text.Append(line).Append('\n');
        Line($"* {Plain(DesignName.Of(design))}: {pack.Series}S{pack.Parallel}P as wired, {N(network.Strings.BankA)} A drawn");
        Line("* Ohms and volts as worked out; the strings are at rest and equally full, as the sharing is worked out for.");
        Line($"* It must give, in amperes: {string.Join(", ", network.Strings.Amps.Select((a, i) => $"{Say.StringName(i + 1)} {N(a)}"))}");
        for (var i = 0; i < pack.Parallel; i++)
            String(Line, wired, pack, i, voltage.NominalV);
        foreach (var e in wired.Network.Conductors())
            // A conductor of no resistance is a source of no volts: a resistor of 0 Ω is read as something else.
            Line(e.Ohm > 0 ? $"R{e.Name} {e.From} {e.To} {N(e.Ohm)}" : $"V{e.Name} {e.From} {e.To} DC 0");
        var (plus, minus) = wired.Network.Takeoffs;
        Line($"ILOAD {plus} {minus} DC {N(network.Strings.BankA)}");
        // A simulator measures from node 0: the take-off of the negative rail.
        Line($"VGROUND {minus} 0 DC 0");
        Line(".op");
        Line(".end");
        return text.ToString();
    }

    /// <summary>Its units one over the other, a source of no volts last, through which its amperes are read.</summary>
    private static void String(Action<string> line, WiredBank wired, Banks.Pack pack, int i, double nominalV)
    {
        var name = Say.StringName(i + 1);
        var units = pack.Strings[i].Units;
        var jumpers = wired.StringOhm[i] - pack.Strings[i].UnitsOhm;
        var node = $"n{i + 1}";
        var cells = units.Sum(u => u.Item.Cells);
        for (var u = 0; u < units.Count; u++)
        {
            line($"V{name}{u + 1} {name}{u + 1}e {node} DC {N(nominalV * units[u].Item.Cells / cells)}");
            line($"R{name}{u + 1} {name}{u + 1}e {name}{u + 1}p {N(units[u].Ohm + units[u].JointOhm)}");
            node = $"{name}{u + 1}p";
        }
        if (jumpers > 0)
        {
            line($"RJ{name} {node} {name}j {N(jumpers)}");
            node = $"{name}j";
        }
        line($"VI{name} {node} p{i + 1} DC 0");
    }

    /// <summary>All its digits, as a simulator reads them.</summary>
    private static string N(double value) => value.ToString("R", CultureInfo.InvariantCulture);

    /// <summary>A title is one line.</summary>
    private static string Plain(string name) => new([.. name.Select(c => char.IsControl(c) ? ' ' : c)]);
}

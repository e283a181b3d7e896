using System.ComponentModel;
using System.Diagnostics;
using System.Globalization;
using System.Text.RegularExpressions;
using InkyBadger.Core.Design;
using InkyBadger.Core.Sheets;

namespace InkyBadger.Core.Tests.Designs;

/// <summary>
/// The netlist gives the string currents of the Evaluation: by a reader of its own, and by a circuit simulator where there is one.
/// </summary>
public partial class NetlistTests
{
    /// <summary>An element as a simulator reads it; I: from the first node through it to the second.</summary>
    private sealed record Element(char Kind, string Name, string From, string To, double Value);

    private static List<Element> Elements(string netlist) =>
        [
            .. netlist
                .Split('\n')
                .Skip(1)
                .Where(l => l.Length > 0 && l[0] is 'R' or 'V' or 'I')
                .Select(l => l.Split(' '))
                .Select(p => new Element(p[0][0], p[0], p[1], p[2], double.Parse(p[^1], CultureInfo.InvariantCulture))),
        ];

    /// <summary>Node by node, with the currents of the sources: written down and eliminated, with nothing of the product in it.</summary>
    internal static Dictionary<string, double> Solve(string netlist)
    {
        var elements = Elements(netlist);
        // A simulator takes the second of a name for the first, or neither.
        Assert.Equal(elements.Count, elements.Select(e => e.Name.ToUpperInvariant()).Distinct().Count());
        var nodes = elements
            .SelectMany(e => new[] { e.From, e.To })
            .Distinct()
            .Where(n => n != "0")
            .Index()
            .ToDictionary(x => x.Item, x => x.Index);
        var sources = elements.Where(e => e.Kind == 'V').ToList();
        var n = nodes.Count + sources.Count;
        var m = new double[n, n + 1];
        void Add(string row, string? column, int other, double value)
        {
            if (row == "0" || column == "0")
                return;
            m[nodes[row], column is null ? other : nodes[column]] += value;
        }
        foreach (var e in elements.Where(e => e.Kind == 'R'))
        {
            Assert.True(e.Value > 0, $"{e.Name} has no resistance");
            var g = 1 / e.Value;
            Add(e.From, e.From, 0, g);
            Add(e.To, e.To, 0, g);
            Add(e.From, e.To, 0, -g);
            Add(e.To, e.From, 0, -g);
        }
        foreach (var e in elements.Where(e => e.Kind == 'I'))
        {
            Add(e.From, null, n, -e.Value);
            Add(e.To, null, n, e.Value);
        }
        foreach (var (k, e) in sources.Index())
        {
            var row = nodes.Count + k;
            Add(e.From, null, row, 1);
            Add(e.To, null, row, -1);
            if (e.From != "0")
                m[row, nodes[e.From]] += 1;
            if (e.To != "0")
                m[row, nodes[e.To]] -= 1;
            m[row, n] = e.Value;
        }
        for (var c = 0; c < n; c++)
        {
            var pivot = Enumerable.Range(c, n - c).MaxBy(r => Math.Abs(m[r, c]));
            Assert.True(Math.Abs(m[pivot, c]) > 1e-15, "the netlist hangs together");
            for (var k = c; k <= n; k++)
                (m[c, k], m[pivot, k]) = (m[pivot, k], m[c, k]);
            for (var r = 0; r < n; r++)
            {
                if (r == c || m[r, c] == 0)
                    continue;
                var f = m[r, c] / m[c, c];
                for (var k = c; k <= n; k++)
                    m[r, k] -= f * m[c, k];
            }
        }
        return sources
            .Index()
            .ToDictionary(x => x.Item.Name, x => m[nodes.Count + x.Index, n] / m[nodes.Count + x.Index, nodes.Count + x.Index]);
    }

    private static void Agrees(DesignDocument design, Dictionary<string, double> currents, double within)
    {
        foreach (var (i, amps) in design.Bank().Network!.Strings.Amps.Index())
            Assert.Equal(amps, currents[$"VI{Say.StringName(i + 1)}"], within * Math.Max(1, Math.Abs(amps)));
    }

    public static TheoryData<string> Banks => [.. "same-end,diagonal,bus-bars".Split(','), "Tern", "Hare", "Pell"];

    private static DesignDocument Of(string bank) =>
        bank is "same-end" or "diagonal" or "bus-bars" ? Some.Marrow.With(("~/wiring/style", bank)) : Some.Demo(bank);

    [Theory]
    [MemberData(nameof(Banks))]
    public void It_gives_the_currents_of_the_strings(string bank)
    {
        var design = Of(bank);
        Agrees(design, Solve(Netlist.Of(design, 0)!), 1e-9);
    }

    /// <summary>The library bus with both leads at one end: 8 units, 3 links a rail, the load; the unlike string carries 31 %.</summary>
    [Fact]
    public void It_is_written_unit_by_unit()
    {
        var lines = Netlist.Of(Some.Marrow, 0)!.Split('\n');
        Assert.Contains(" 2S4P as wired, ", lines[0], StringComparison.Ordinal);
        Assert.Equal(8, lines.Count(l => UnitSource().IsMatch(l)));
        Assert.Equal(3, lines.Count(l => l.StartsWith("RLP", StringComparison.Ordinal)));
        Assert.Equal(3, lines.Count(l => l.StartsWith("RLN", StringComparison.Ordinal)));
        Assert.Equal(4, lines.Count(l => l.StartsWith("RJ", StringComparison.Ordinal)));
        Assert.Contains(lines, l => l.StartsWith("ILOAD p1 n1 DC ", StringComparison.Ordinal));
        Assert.Equal([".op", ".end", ""], lines[^3..]);
        Assert.Null(Netlist.Of(NewDesign.Empty("x"), 0));
    }

    /// <summary>The same in ngspice, where it is installed: to a millionth.</summary>
    [Theory]
    [MemberData(nameof(Banks))]
    public async Task A_circuit_simulator_says_the_same(string bank)
    {
        var design = Of(bank);
        var strings = design.Bank().Network!.Strings.Amps.Count;
        var folder = Directory.CreateTempSubdirectory("netlist");
        try
        {
            var file = Path.Combine(folder.FullName, "bank.cir");
            var show = string.Join(' ', Enumerable.Range(1, strings).Select(i => $"i(VI{Say.StringName(i)})"));
            await File.WriteAllTextAsync(
                file,
                Netlist
                    .Of(design, 0)!
                    .Replace(".end\n", $".control\nset numdgt=12\nop\nprint {show}\n.endc\n.end\n", StringComparison.Ordinal)
            );
            string said;
            try
            {
                using var run = Process.Start(
                    new ProcessStartInfo("ngspice", ["-b", file]) { RedirectStandardOutput = true, RedirectStandardError = true }
                )!;
                said = await run.StandardOutput.ReadToEndAsync(TestContext.Current.CancellationToken);
                await run.WaitForExitAsync(TestContext.Current.CancellationToken);
            }
            catch (Win32Exception)
            {
                Assert.Skip("ngspice is not installed here");
                return;
            }
            var found = Printed()
                .Matches(said)
                .ToDictionary(
                    m => m.Groups[1].Value.ToUpperInvariant(),
                    m => double.Parse(m.Groups[2].Value, CultureInfo.InvariantCulture)
                );
            Assert.Equal(strings, found.Count);
            Agrees(design, found, 1e-6);
        }
        finally
        {
            folder.Delete(true);
        }
    }

    [GeneratedRegex(@"^V[A-Z]\d+ ")]
    private static partial Regex UnitSource();

    [GeneratedRegex(@"i\((vi\w+)\) = (\S+)", RegexOptions.IgnoreCase)]
    private static partial Regex Printed();
}

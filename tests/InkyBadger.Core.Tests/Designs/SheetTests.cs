using InkyBadger.Core.Design;
using InkyBadger.Core.Sheets;
using InkyBadger.Core.Trials;

namespace InkyBadger.Core.Tests.Designs;

/// <summary>Papers of a design: nothing is forgotten on the list of parts, every run is labelled at both ends and told in words.</summary>
public class SheetTests
{
    private static Part Row(PartsResult parts, string key) => parts.Parts.Single(p => p.Key.EndsWith("/" + key, StringComparison.Ordinal));

    /// <summary>
    /// The library bus: eight units of 310 in four strings, a balancer each, main fuse and holder, switch, bars, shunt, inverter with its
    /// pre-charge, three chargers, straps, spares.
    /// </summary>
    [Fact]
    public void Nothing_is_forgotten()
    {
        var bus = Some.Demo("Marrow");
        var (parts, cuts) = (PartsList.Work(bus), Schedules.Work(bus, 0)!);
        var unit = Assert.Single(parts.Parts, p => p.Group == PartGroup.Units && p.Key.Contains("/unit-", StringComparison.Ordinal));
        Assert.Equal((8.0, "A–D"), (unit.Count, unit.Tag));
        Assert.Equal(8 * unit.Each, unit.Price);
        Assert.Equal(4, Row(parts, "balancer").Count);
        Assert.Equal(("F1", "Main fuse 200 A"), (Row(parts, "fuse-main").Tag, Row(parts, "fuse-main").Name));
        // Each fuse has its holder, as many.
        foreach (var fuse in cuts.Fuses)
            Assert.Equal(fuse.Count, Row(parts, $"holder-{fuse.Run}").Count);
        Assert.Equal(0, Row(parts, "holder-main").Each);
        foreach (
            var key in new[] { "switch", "pre-charge", "monitor", "inverter-i1", "source-roof", "source-engine", "source-shore", "box" }
        )
            Assert.Equal(1, Row(parts, key).Count);
        Assert.Equal(2, Row(parts, "bus").Count);
        Assert.True(Row(parts, "straps").Count >= 2);
        Assert.Contains(parts.Parts, p => p is { Group: PartGroup.Spares, Name: "Spare fuse 200 A" });
        Assert.Contains(parts.Parts, p => p.Key.Contains("/converter-", StringComparison.Ordinal));

        // Copper by the cut list, metre by metre and lug by lug.
        Assert.Equal(cuts.Totals.Sum(t => t.Metres), parts.Parts.Where(p => p.Group == PartGroup.Cable).Sum(p => p.Count), 1);
        var lugs = cuts.Cables.Sum(c => (c.FromLug.Contains('×') ? c.Pieces : 0) + (c.ToLug.Contains('×') ? c.Pieces : 0));
        Assert.Equal(lugs, parts.Parts.Where(p => p.Name.StartsWith("Lug ", StringComparison.Ordinal)).Sum(p => p.Count));
        Assert.Equal(cuts.Cables.Sum(c => c.Covers), Row(parts, "covers").Count);
        Assert.Equal(LabelsResult.Work(bus).Sleeves.Sum(s => s.Count), Row(parts, "sleeves").Count);

        // What is not known stays open, and the sum says so.
        var open = parts.Parts.Count(p => p.Each is null);
        Assert.True(open > 3);
        Assert.Equal(parts.Parts.Where(p => p.Each is not null).Sum(p => p.Each!.Value * p.Count), parts.Sum, 6);
        Assert.EndsWith($" and {open} without a price", parts.Words("€"), StringComparison.Ordinal);
        Assert.StartsWith("€", parts.Words("€"), StringComparison.Ordinal);
    }

    /// <summary>
    /// Lead is levelled by its charge, a single string of one unit has nothing to balance, and an empty design has no parts.
    /// </summary>
    [Fact]
    public void What_is_not_there_is_not_listed()
    {
        Assert.DoesNotContain(PartsList.Work(Some.Demo("Hare")).Parts, p => p.Name == "Balancer");
        Assert.Empty(PartsList.Work(NewDesign.Empty("x")).Parts);
        Assert.Equal("0", PartsList.Work(NewDesign.Empty("x")).Words(""));
        // Two banks: each part is of one of them.
        var trailer = PartsList.Work(Some.Demo("Tern")).Parts;
        Assert.Equal(2, trailer.Select(p => p.Bank).Distinct().Count());
        Assert.Equal(trailer.Count, trailer.Select(p => p.Key).Distinct().Count());
    }

    /// <summary>A sleeve at both ends of each piece, and the plate with the figures of the Evaluation.</summary>
    [Fact]
    public void Sleeves_and_plate()
    {
        var bus = Some.Demo("Marrow");
        var (labels, cuts, e) = (LabelsResult.Work(bus), Schedules.Work(bus, 0)!, bus.Bank());
        Assert.Equal(cuts.Cables.Select(c => (c.Label, 2 * c.Pieces)), labels.Sleeves.Select(s => (s.Tag, s.Count)));
        Assert.Equal(("battery post +", "main fuse"), (labels.Sleeves[0].From, labels.Sleeves[0].To));
        var plate = Assert.Single(labels.Plates);
        Assert.Equal("25.6 V", plate.Lines[0].Figure);
        Assert.Contains(plate.Lines, l => l.Figure == Say.A(e.Protection!.Short.Amps) && l.Words == "a short at the posts");
        Assert.Contains(plate.Lines, l => l.Figure == Say.A(e.Currents!.BankWorstA));
        Assert.Contains(plate.Warnings, w => w.Contains("0 °C", StringComparison.Ordinal));
        Assert.Contains(LabelsResult.Work(Some.Demo("Hare")).Plates[0].Warnings, w => w.Contains("hydrogen", StringComparison.Ordinal));
        // 58.4 V in charging are below what may not be touched; nothing warns of more.
        Assert.DoesNotContain(LabelsResult.Work(Some.Demo("Pell")).Plates[0].Warnings, w =>
            w.Contains("can kill", StringComparison.Ordinal)
        );
    }

    /// <summary>Every piece of the cut list is told once, cautions come first and the checker last.</summary>
    [Theory]
    [InlineData("Marrow")]
    [InlineData("Hare")]
    [InlineData("Pell")]
    [InlineData("Tern")]
    public void The_walk_through_tells_every_piece(string name)
    {
        var design = Some.Demo(name);
        var sections = WalkThrough.Of(design);
        Assert.Equal("Before a hand goes in", sections[0].Title);
        Assert.Contains("somebody who knows checks it", sections[^1].Sentences[^1], StringComparison.Ordinal);
        var told = sections.SelectMany(s => s.Sentences).ToList();
        for (var i = 0; i < design.Banks.Count; i++)
            foreach (var group in (Schedules.Work(design, i)?.Cables ?? []).GroupBy(c => c.Label))
                Assert.True(told.Count(s => s.StartsWith($"{group.Key}: ", StringComparison.Ordinal)) >= group.Count(), group.Key);
        Assert.All(told, s => Assert.True(s[^1] is '.' or ':', s));
        Assert.DoesNotContain(told, s => s.Contains("  ", StringComparison.Ordinal));
        Assert.StartsWith($"{DesignName.Of(design)}\n\n1. Before", WalkThrough.Text(design), StringComparison.Ordinal);
    }

    /// <summary>The bus in words: which string is where, the main fuse last, no charger before it is set.</summary>
    [Fact]
    public void The_walk_through_in_its_order()
    {
        var sections = WalkThrough.Of(Some.Demo("Marrow"));
        Assert.Equal(["Before a hand goes in", "The bank", "The main run", "On from the bus"], sections.Take(4).Select(s => s.Title));
        Assert.Contains("Four strings lie side by side, A to D; A stands nearest the positive take-off.", sections[1].Sentences);
        Assert.StartsWith("The main fuse F1, 200 A of ", sections[2].Sentences[0], StringComparison.Ordinal);
        Assert.EndsWith("It goes in last of all.", sections[2].Sentences[0], StringComparison.Ordinal);
        var settings = sections.Single(s => s.Title == "Settings").Sentences;
        Assert.Equal("No charger is connected before it is set:", settings[0]);
        Assert.StartsWith("Roof: absorption 28.40 V, for 30 min, float 27.00 V, equalise off", settings[1], StringComparison.Ordinal);
        Assert.DoesNotContain("fraction", settings[^1], StringComparison.Ordinal);
    }

    /// <summary>What a supplier is told of the bus: its day and worst start, the bank, what charges it, what is asked of him.</summary>
    [Fact]
    public void The_brief_for_a_supplier()
    {
        var (bus, e) = (Some.Demo("Marrow"), Some.Demo("Marrow").Bank());
        var told = SupplierBrief.Of(bus).SelectMany(s => s.Sentences).ToList();
        Assert.Contains($"{Say.Wh(e.Energy!.EnergyBankWh)} a day at the bank, {Say.W(e.Loads!.PeakAcW)} of AC at once at most.", told);
        Assert.Contains("Book lift: 900 W, starts with 3,600 W, AC.", told);
        Assert.Contains(told, s =>
            s.StartsWith("25.6 V, 400 Ah: 10.24 kWh, of which 9.22 kWh are used; planned as 2S4P", StringComparison.Ordinal)
        );
        Assert.Contains("It is charged with up to 95.0 A, to 30.4 V at most.", told);
        Assert.Contains("Drive: from an engine through a DC–DC charger, 30.0 A.", told);
        Assert.Contains(told, s => s.StartsWith("Charging must stop below 0 °C", StringComparison.Ordinal));
        Assert.Equal("What is asked of you", SupplierBrief.Of(bus)[^1].Title);
        foreach (var name in new[] { "Hare", "Pell", "Tern" })
            Assert.All(SupplierBrief.Of(Some.Demo(name)).SelectMany(s => s.Sentences), s =>
                Assert.True(s.Trim().Length > 3 && s[^1] is '.' or '”', s)
            );
        // Of nothing only what is asked of him.
        Assert.Single(SupplierBrief.Of(NewDesign.Empty("x")));
        Assert.Contains("1. What is asked of you", SupplierBrief.Text(NewDesign.Empty("x")), StringComparison.Ordinal);
    }
}

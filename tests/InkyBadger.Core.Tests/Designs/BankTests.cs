using InkyBadger.Core.Banks;
using InkyBadger.Core.Design;
using InkyBadger.Core.Network;

namespace InkyBadger.Core.Tests.Designs;

/// <summary>
/// The bank at a load, with a string out, conductor by conductor, and a step further; by hand, by another road than the solver's.
/// </summary>
public class BankTests
{
    private static readonly BankEvaluation Bus = Some.Marrow.Bank();

    /// <summary>String: two units of 3 mΩ and a jumper of 0.25 m of 50 mm² with two lugs; link: 0.35 m of it with two lugs.</summary>
    private const double R = 2 * 0.003 + 0.386e-3 * 0.25 + 1e-4,
        Link = 0.386e-3 * 0.35 + 1e-4;

    private static double Parallel(double x, double y) => x * y / (x + y);

    /// <summary>
    /// Shares of the strings of a same-end ladder, at these places from the take-off; both rails have a link for each place between.
    /// </summary>
    private static double[] Ladder(params int[] places)
    {
        var z = new double[places.Length];
        z[^1] = R;
        for (var i = places.Length - 2; i >= 0; i--)
            z[i] = Parallel(R, z[i + 1] + 2 * Link * (places[i + 1] - places[i]));
        var shares = new double[places.Length];
        double rest = 1;
        for (var i = 0; i < places.Length; i++)
        {
            shares[i] = i == places.Length - 1 ? rest : rest * z[i] / R;
            rest -= shares[i];
        }
        return shares;
    }

    /// <summary>The greatest share with any one string out decides: 100 A each. Losing B leaves A to carry most.</summary>
    [Fact]
    public void The_load_at_which_any_one_loss_is_survived()
    {
        double[][] without = [Ladder(2, 3, 4), Ladder(1, 3, 4), Ladder(1, 2, 4), Ladder(1, 2, 3)];
        Assert.Equal(without.Min(s => 100 / s.Max()), Bus.Network!.OneOut.SurvivesA!.Value, 6);
        Assert.Equal(((Bus.Network.OneOut.SurvivesA.Value - 96 / 0.92 / 24) * 24 - 25) * 0.9, Bus.Network.OneOut.SurvivesAcW!.Value, 6);
        Assert.Null(Some.Marrow.With(("~/parallel", 1)).Bank().Network!.OneOut.SurvivesA);
    }

    /// <summary>
    /// At 250 A without A: B carries more than its 100 A? 250 × its share of a ladder of three is 96.8 A: all three carry on.
    /// </summary>
    [Fact]
    public void At_250_A_the_loss_of_A_is_survived_and_that_of_B_is_not()
    {
        var at = BankAtLoad.Work(Some.Marrow, 0, 250)!;
        var a = at.DropOuts[0];
        Assert.Equal(Ladder(2, 3, 4).Select(s => s * 250), a.Steps[1].CurrentsA.Skip(1), (x, y) => Math.Abs(x - y) < 1e-6);
        Assert.Equal([2, 3, 4], a.Remaining);
        Assert.False(a.Blackout);
        Assert.Equal(Bus.Bank!.Holds.UsableWh * 3 / 4, a.LeftWh, 9);
        Assert.Equal(100 / Ladder(2, 3, 4).Max(), a.LeftA!.Value, 6);
        Assert.Equal("Without string A the others carry 250.0 A on", a.Sentence);
        // Without B, A has 42 % of 250 A: it opens next, and then the far two cannot hold it.
        var b = at.DropOuts[1];
        Assert.True(Ladder(1, 3, 4)[0] * 250 > 100);
        Assert.Equal([null, 2, 1, 3, 4], b.Steps.Select(s => s.Dropped));
        Assert.Equal($"string A opens: {Say.A(Ladder(1, 3, 4)[0] * 250)} over its 100.0 A", b.Steps[2].Reason);
        Assert.True(b.Blackout);
        Assert.Equal((0.0, 0.0), (b.LeftA, b.LeftWh));
    }

    /// <summary>400 Ah at 250 A: 0.9 of it, the floor of LFP, lasts 1.44 h, and all of it 1.6 h.</summary>
    [Fact]
    public void It_lasts_to_the_floor_and_to_empty()
    {
        var at = BankAtLoad.Work(Some.Marrow, 0, 250)!;
        Assert.Equal((1.44, 1.6), (Math.Round(at.HoursToFloor!.Value, 9), Math.Round(at.HoursToEmpty!.Value, 9)));
        var idle = BankAtLoad.Work(Some.Marrow, 0, 0)!;
        Assert.Equal((null, null), (idle.HoursToFloor, idle.HoursToEmpty));
    }

    /// <summary>
    /// A plate rounds its volts: 12 V of LFP is four cells of 3.2 V, 48 V sixteen, or fifteen whose volts are just that; 13.7 V no whole
    /// number.
    /// </summary>
    [Theory]
    [InlineData("lfp", 12, "4 cells 12.8 V")]
    [InlineData("lfp", 12.8, "4 cells 12.8 V")]
    [InlineData("lfp", 48, "16 cells 51.2 V, 15 cells 48 V")]
    [InlineData("lfp", 3.2, "1 cells 3.2 V")]
    [InlineData("lfp", 13.7, "")]
    [InlineData("flooded", 6, "3 cells 6 V")]
    [InlineData("agm", 12, "6 cells 12 V")]
    [InlineData("nmc", 51, "14 cells 51.1 V")]
    public void A_units_cells_follow_from_the_volts_on_its_plate(string chemistry, double volts, string counts) =>
        Assert.Equal(
            counts,
            string.Join(
                ", ",
                Reference.UnitVolts.Of(chemistry, volts).Select(c => FormattableString.Invariant($"{c.Cells} cells {c.NominalV:0.##} V"))
            )
        );

    /// <summary>Once kept without a key, which reads as “as advised”: a unit, one at a place and an inverter get one on reading.</summary>
    [Fact]
    public void Own_items_without_a_key_get_one_on_reading()
    {
        var bare = Some.Marrow.Banks[0] with
        {
            Unit = Some.Marrow.Banks[0].Unit! with { Key = "", Name = "Shed block 12 V" },
            Positions =
            [
                new()
                {
                    String = 1,
                    Unit = 1,
                    Item = Some.Marrow.Banks[0].Unit! with { Key = "", Name = "Old one" },
                },
            ],
            Inverters = [new() { Id = "i1", Item = Reference.Catalogue.Inverters[0] with { Key = "", Name = "Mine" } }],
        };
        var read = DesignFormat.Read(DesignFormat.Write(Some.Marrow with { Banks = [bare] })).Banks[0];
        Assert.Equal(
            ("own-shed-block-12-v", "own-old-one", "own-mine"),
            (read.Unit!.Key, read.Positions[0].Item!.Key, read.Inverters[0].Item!.Key)
        );
        Assert.Equal(bare.Unit.Ah, read.Unit.Ah);
    }

    [Fact]
    public void Without_a_load_of_ones_own_it_is_full_load()
    {
        var at = BankAtLoad.Work(Some.Marrow, 0, null)!;
        Assert.Equal(Bus.Currents!.BankWorstA, at.LoadA);
        Assert.Equal(Bus.Network!.Strings.Amps, at.CurrentsA, (x, y) => Math.Abs(x - y) < 1e-9);
        Assert.Null(BankAtLoad.Work(Some.New(), 0, null));
    }

    /// <summary>The link at the take-off: 0.386 mΩ/m × 0.35 m and two lugs, under all but string A's amperes.</summary>
    [Fact]
    public void Every_conductor_has_its_amperes_drop_and_heat()
    {
        var n = Bus.Network!;
        // Four jumpers, three links on either rail.
        Assert.Equal(
            (4, 6, 0),
            (
                n.Copper.Placed.Count(c => c.Kind == ConductorKind.Jumper),
                n.Copper.Placed.Count(c => c.Kind == ConductorKind.Link),
                n.Copper.Placed.Count(c => c.Kind == ConductorKind.Lead)
            )
        );
        var link = n.Copper.Placed.Single(c => c is { Kind: ConductorKind.Link, Rail: Pole.Positive, After: 1 });
        var amps = (1 - n.Strings.Shares[0]) * Bus.Currents!.BankWorstA;
        Assert.Equal((amps, amps * Link, amps * amps * Link), (link.Amps, link.DropV, link.HeatW), new Close());
        var jumper = n.Copper.Placed.First(c => c.Kind == ConductorKind.Jumper);
        Assert.Equal(n.Strings.Amps[0], jumper.Amps, 9);
        Assert.Equal(0.386e-3 * 0.25 + 1e-4, jumper.Ohm, 12);
    }

    /// <summary>A link of its own is judged by its own size and length, and the sharing follows it.</summary>
    [Fact]
    public void A_conductor_of_its_own_stands_apart()
    {
        var longer = Some
            .Marrow.With(
                (
                    "~/wiring/links",
                    new[]
                    {
                        new PlacedConductor
                        {
                            Rail = Pole.Positive,
                            String = 1,
                            After = 1,
                            LengthM = 2,
                            Size = "25 mm²",
                        },
                    }
                )
            )
            .Bank()
            .Network!;
        var link = longer.Copper.Placed.Single(c => c.Own);
        Assert.Equal(("25 mm²", 2.0, 0.78e-3 * 2 + 1e-4), (link.Size, link.LengthM, Math.Round(link.Ohm, 12)));
        Assert.True(link.AmpacityA < longer.Copper.Link.AmpacityA);
        Assert.True(longer.Strings.Shares[0] > Bus.Network!.Strings.Shares[0]);
    }

    [Fact]
    public void On_bus_bars_every_string_has_two_leads()
    {
        var n = Some.Marrow.With(("~/wiring/style", WiringStyle.BusBars)).Bank().Network!;
        Assert.Equal(8, n.Copper.Placed.Count(c => c.Kind == ConductorKind.Lead));
        Assert.All(n.Copper.Placed.Where(c => c.Kind == ConductorKind.Lead), c => Assert.Equal(n.Strings.BankA / 4, c.Amps, 9));
    }

    [Fact]
    public void A_step_on_says_what_it_brings()
    {
        var steps = BankSteps.Work(Some.Marrow, 0);
        var more = steps.Single(s => s.Title == "A string more");
        Assert.Equal((2, 5, 2304.0, 620.0), (more.Series, more.Parallel, Math.Round(more.MoreWh, 6), more.MorePrice));
        Assert.Equal(-2304, steps.Single(s => s.Title == "A string less").MoreWh, 6);
        Assert.Contains(steps, s => s.Title == "LFP 12.8 V 200 Ah instead");
        foreach (var s in steps)
            Assert.Equal(s.UsableWh, DesignFormat.With(Some.Marrow, s.Changes).Bank().Bank!.Holds.UsableWh, 9);
    }

    [Fact]
    public void Units_that_cannot_make_the_voltage_say_which_they_make()
    {
        var all = UnitChoices.Work(
            Some.Marrow,
            0,
            [
                new()
                {
                    Key = "own-1",
                    Name = "Mine",
                    Cells = 5,
                    Ah = 100,
                },
            ]
        );
        Assert.Equal("2 in series make 24 V", all.Single(t => t.Item.Key == "lfp-12-100").Words);
        Assert.Equal("one makes 24 V", all.Single(t => t.Item.Key == "lfp-24-100").Words);
        Assert.Equal("cannot make 24 V", all.Single(t => t.Item.Key == "own-1").Words);
        Assert.StartsWith("cannot make 24 V; it makes", all.First(t => t.Item.Cells == 16).Words, StringComparison.Ordinal);
        Assert.Null(all[^1].Series);
        Assert.NotNull(all[0].Series);
    }

    /// <summary>A plate of 215 Ah at 20 h and its second rating: k = ln(20 ÷ t) ÷ ln(I ÷ 10.75).</summary>
    [Fact]
    public void A_plate_of_two_ratings_gives_its_exponent()
    {
        var hut = Some.Demo("Hare").Bank().Bank!;
        var (c, h, m, i) = (hut.Unit.Ah, hut.Unit.RatedHours!.Value, hut.Unit.Reserve!.Minutes, hut.Unit.Reserve.Amps);
        Assert.Equal(Math.Log(h / (m / 60)) / Math.Log(i / (c / h)), hut.Lasts.PeukertK!.Value, 9);
        Assert.Null(Bus.Bank!.Lasts.PeukertK);
    }

    private sealed class Close : IEqualityComparer<(double, double, double)>
    {
        public bool Equals((double, double, double) a, (double, double, double) b) =>
            Math.Abs(a.Item1 - b.Item1) < 1e-9 && Math.Abs(a.Item2 - b.Item2) < 1e-9 && Math.Abs(a.Item3 - b.Item3) < 1e-9;

        public int GetHashCode((double, double, double) x) => 0;
    }
}

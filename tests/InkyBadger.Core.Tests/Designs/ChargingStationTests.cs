using InkyBadger.Core.Design;
using InkyBadger.Core.Trials;
using InkyBadger.Core.Work;

namespace InkyBadger.Core.Tests.Designs;

/// <summary>
/// What the station of charging shows, by hand: the scale of volts, cards, what follows another chemistry, what balances a month.
/// </summary>
public class ChargingStationTests
{
    private static readonly DesignDocument Bus = Some.Demo("Marrow");

    private static ChargingResult Of(DesignDocument design, int bank = 0) => Evaluator.Evaluate(design).Banks[bank].Charging!;

    private static ScaleColumn Column(ChargingResult c, string id) => c.Scale.Columns.Single(x => x.Id == id);

    /// <summary>
    /// Eight cells: 8 × 3.55, 8 × 3.375, a BMS typically at 8 × 3.65 and 8 × 2.5; rest volts tell nothing from 20 to 90 %.
    /// </summary>
    [Fact]
    public void The_lines_of_the_bank()
    {
        var scale = Of(Bus).Scale;
        double At(VoltLineKind kind) => scale.Lines.Single(l => l.Kind == kind).V;
        Assert.Equal(28.4, At(VoltLineKind.Absorb), 9);
        Assert.Equal(27.0, At(VoltLineKind.Float), 9);
        Assert.Equal(29.2, At(VoltLineKind.Top), 9);
        Assert.Equal(24.0, At(VoltLineKind.NearlyEmpty), 9);
        Assert.Equal(20.0, At(VoltLineKind.Bottom), 9);
        Assert.Equal(8 * 3.24, scale.Rest.GreyFromV!.Value, 9);
        Assert.Equal(8 * 3.335, scale.Rest.GreyToV!.Value, 9);
        Assert.Equal(30.4, scale.GreatestV, 9);
    }

    /// <summary>
    /// The depot's charger stands on a preset that equalises: 30.4 V are 1.2 V over where the BMS opens, its rest is off by tenths.
    /// </summary>
    [Fact]
    public void What_crosses_is_wrong_and_what_is_off_is_looked_at()
    {
        var plug = Column(Of(Bus), "shore");
        var marks = plug.Marks.ToDictionary(m => m.Setting);
        Assert.Equal((28.8, MarkState.Look), (marks["absorbV"].V, marks["absorbV"].State));
        Assert.Equal((27.6, MarkState.Look), (marks["floatV"].V, marks["floatV"].State));
        Assert.Equal((30.4, MarkState.Wrong), (marks["equaliseV"].V, marks["equaliseV"].State));
        Assert.Equal("1.2 V over where the BMS opens", marks["equaliseV"].Why);
        Assert.Contains(plug.Spans, s => s is { State: MarkState.Wrong } && Math.Abs(s.FromV - 29.2) + Math.Abs(s.ToV - 30.4) < 1e-9);
        Assert.Equal(MarkState.Wrong, plug.State);
        // Nobody said what the roof's controller is set to: nothing of it is drawn as data.
        Assert.Equal(MarkState.NotSet, Column(Of(Bus), "roof").State);
        Assert.Equal(MarkState.Fits, Column(Of(Bus.With(("~/sources/2/settings/preset", "Li 28.4"))), "shore").Marks[0].State);
    }

    /// <summary>Five cells of LFP are charged to 17.75 V, and may reach 18.25: a display for 17 V is past what it bears.</summary>
    [Fact]
    public void A_display_for_17_volts_on_five_cells()
    {
        var design = Some.New(
                Some.Dc("Display", 12, 5) with
                {
                    Window = new() { MinV = 10, MaxV = 17 },
                }
            )
            .With(
                ("~/inverters", Array.Empty<object>()),
                ("~/systemV", 16),
                ("~/unit", Some.Unit("cell-lfp-280") with { Bms = null }),
                ("~/series", 5),
                ("~/parallel", 1)
            );
        var column = Of(design).Scale.Columns.Single(c => c.Kind == ScaleColumnKind.Device);
        var span = Assert.Single(column.Spans);
        Assert.Equal((17.0, 18.25, MarkState.Wrong), (span.FromV, Math.Round(span.ToV, 9), span.State));
        var wide = design.With(("~/demand/loads/0/window/maxV", 30.0));
        Assert.Equal(MarkState.Fits, Of(wide).Scale.Columns.Single(c => c.Kind == ScaleColumnKind.Device).State);
    }

    /// <summary>A start at 26.4 V lies where LFP says nothing of its charge; at 25 V it is told, below 20 V the BMS is before it.</summary>
    [Theory]
    [InlineData(26.4, MarkState.Look)]
    [InlineData(25.6, MarkState.Fits)]
    [InlineData(19.0, MarkState.Wrong)]
    public void A_generator_that_starts_by_volts(double volts, MarkState state)
    {
        var design = Bus.With(
            ("~/sources/2/kind", "generator"),
            ("~/sources/2/start", new StartRule { BelowV = volts }),
            ("~/sources/2/settings/preset", null)
        );
        Assert.Equal(state, Column(Of(design), "shore").Marks.Single(m => m.Setting == "start").State);
    }

    /// <summary>
    /// 36.6 V open, two in series at −15 °C: 73.2 × (1 + 0.0027 × 40); 30.3 V at work and 70 °C: 60.6 × (1 − 0.0035 × 45).
    /// </summary>
    [Fact]
    public void The_volts_of_the_roof()
    {
        var array = Assert.Single(Of(Bus).Scale.Arrays);
        Assert.Equal(81.1056, array.ColdV, 9);
        Assert.Equal(51.0555, array.HotV, 9);
        Assert.Equal(100, array.MostV);
        Assert.True(array.ColdOk && array.HotOk);
    }

    /// <summary>A quarter more than three strings of 7.05 A, and a cable that carries it.</summary>
    [Fact]
    public void The_cable_from_the_roof()
    {
        var run = Of(Bus).Sources[0].ArrayRun!;
        Assert.Equal(1.25 * 3 * 7.05, run.DesignA, 9);
        Assert.True(run.Carries.AmpacityA >= run.DesignA);
        Assert.Null(run.Fuse.RatingA);
        Assert.True(run.Drop.V / 51.0555 <= 0.03);
        // It is cut and fused with the rest: two colours of one length, a fuse in each of three strings.
        var lists = Schedules.Work(Bus, 0)!;
        Assert.Equal(["A1+", "A1−"], lists.Cables.Where(c => c.Label.StartsWith('A')).Select(c => c.Label));
        var fuse = lists.Fuses.Single(f => f.Name == "Roof, a string of modules");
        Assert.Equal((3, 12.0, 1000.0), (fuse.Count, fuse.RatingA!.Value, fuse.MaxDcV));
        // A longer way asks for more copper.
        var far = Bus.With(("~/runs/-", new Run { Id = "array-roof", LengthM = 25 }));
        Assert.True(Of(far).Sources[0].ArrayRun!.Cable.AreaMm2 > run.Cable.AreaMm2);
    }

    /// <summary>What was found and must go is struck, what is to be is said; ticking it keeps the day.</summary>
    [Fact]
    public void The_card_of_the_plug()
    {
        var card = Of(Bus).Cards.Single(c => c.Device == "shore");
        Assert.Equal(
            ["preset", "absorbV", "absorbMinutes", "floatV", "equaliseV", "compensationMvPerK", "leastC", "amps"],
            card.Rows.Select(r => r.Setting)
        );
        var rows = card.Rows.ToDictionary(r => r.Setting);
        Assert.Equal(("sealed", "Li 28.4", true), (rows["preset"].FoundWord, rows["preset"].Word, rows["preset"].Must));
        Assert.Equal((28.8, 28.4, true), (rows["absorbV"].Found!.Value, Math.Round(rows["absorbV"].SetTo!.Value, 9), rows["absorbV"].Must));
        Assert.Equal((30.4, "off", true), (rows["equaliseV"].Found!.Value, rows["equaliseV"].Word, rows["equaliseV"].Must));
        Assert.Equal(
            (-36.0, 0.0, true),
            (rows["compensationMvPerK"].Found!.Value, rows["compensationMvPerK"].SetTo!.Value, rows["compensationMvPerK"].Must)
        );
        Assert.Equal("Nearest preset: Li 28.4, but it floats at 27.2 V.", card.Nearest);

        var set = Bus.With(
            ("~/sources/2/settings/preset", null),
            (
                "~/sources/2/settings/absorbV",
                new Setting
                {
                    Value = 28.4,
                    Set = true,
                    Seen = 28.9,
                    Date = "2026-11-02",
                }
            )
        );
        var row = Of(set).Cards.Single(c => c.Device == "shore").Rows.Single(r => r.Setting == "absorbV");
        Assert.Equal((false, true, false, "2026-11-02"), (row.Must, row.Done, row.Agrees!.Value, row.Date));
    }

    /// <summary>The monitor: 400 Ah, charged at 8 × (3.55 − the table's), and what was written down of it.</summary>
    [Fact]
    public void The_card_of_the_monitor()
    {
        var design = Bus.With(
            (
                "~/cards/-",
                new DeviceSetting
                {
                    Name = "capacityAh",
                    Value = 230,
                    Seen = null,
                }
            )
        );
        var rows = Of(design).Cards.Single(c => c.Device == DeviceSetting.Monitor).Rows.ToDictionary(r => r.Setting);
        Assert.Equal(
            (230.0, 400.0, true, "/cards/0"),
            (rows["capacityAh"].Found!.Value, rows["capacityAh"].SetTo!.Value, rows["capacityAh"].Must, rows["capacityAh"].Path)
        );
        Assert.Equal("/cards/-", rows["chargedV"].Path);
    }

    /// <summary>
    /// From AGM to lithium: every charger with its probe, equalising and cold stop, the drive, the inverter, the monitor, the fuse.
    /// </summary>
    [Fact]
    public void What_follows_another_chemistry_is_found_in_the_design()
    {
        Assert.Null(Of(Bus).Changeover);
        var design = Bus.With(
            ("~/changed", new ChemistryChange { From = "agm", Done = [new() { Item = "monitor", Date = "2026-11-20" }] })
        );
        var list = Of(design).Changeover!;
        var keys = list.Items.Select(i => i.Key).ToList();
        foreach (var source in new[] { "roof", "engine", "shore" })
            Assert.All(["charger-", "probe-", "cold-"], (string key) => Assert.Contains(key + source, keys));
        Assert.Contains("engine-engine", keys);
        Assert.Contains("start-battery", keys);
        Assert.Contains("inverter-i1", keys);
        Assert.Contains("fuse", keys);
        Assert.DoesNotContain("ventilation", keys);
        Assert.Equal(
            (true, "2026-11-20"),
            (list.Items.Single(i => i.Key == "monitor").Done, list.Items.Single(i => i.Key == "monitor").Date)
        );
        Assert.Equal("absorption 28.4 V, float 27 V, at most 30 min", list.Items.Single(i => i.Key == "charger-roof").What);
        // From flooded cells the ventilation goes with them.
        Assert.Contains(Of(Bus.With(("~/changed", new ChemistryChange { From = "flooded" }))).Changeover!.Items, i =>
            i.Key == "ventilation"
        );
    }

    /// <summary>95 A were flowing; all hangs on the bus. Lead has no BMS that could open.</summary>
    [Fact]
    public void What_an_opening_BMS_leaves()
    {
        var opening = Of(Bus).Opening!;
        Assert.Equal(95, opening.Amps);
        Assert.Equal(["3,000 W sine 24 V", "Book lift", "Kettle", "Laptops", "Printer", "Ceiling lights", "Staff fridge"], opening.Dark);
        Assert.DoesNotContain(opening.Remedies, r => r.Contains("alternator", StringComparison.Ordinal));
        Assert.Contains("leap", Of(Some.Demo("Tern")).Opening!.Words[0], StringComparison.Ordinal);
        Assert.Contains(Of(Some.Demo("Tern")).Opening!.Remedies, r => r.StartsWith("a DC–DC", StringComparison.Ordinal));
        Assert.Null(Of(Some.Demo("Hare")).Opening);
    }

    /// <summary>What balances a month is solved, tried, and balances it once it is taken.</summary>
    [Fact]
    public void So_much_panel_or_so_many_hours_of_plug()
    {
        var unplugged = Bus.With(("~/sources/2/windows", null), ("~/sources/2/settings/preset", null));
        var day = ChargedDay.Work(unplugged, 0, 12)!;
        Assert.True(Of(unplugged).Months[11].BalanceWh < 0);
        Assert.NotEmpty(day.Answers);
        Assert.Contains(day.Answers, a => a.Label.StartsWith("2 h of Plug", StringComparison.Ordinal));
        foreach (var answer in day.Answers)
        {
            var then = DesignFormat.With(unplugged, answer.Changes);
            Assert.True(Of(then).Months[11].BalanceWh >= 0, answer.Label);
        }
        Assert.InRange(day.BalancingArrayW!.Value, 1200, 4000);
        // With no array at all a flat one is worked out, and added.
        var bare = unplugged.With(("~/sources", unplugged.Banks[0].Sources.Skip(1).ToArray()));
        var first = ChargedDay.Work(bare, 0, 12)!;
        var roof = first.Answers.Single(a => a.Label.EndsWith("W of panel, flat", StringComparison.Ordinal));
        var added = DesignFormat.With(bare, roof.Changes);
        Assert.Equal(3, added.Banks[0].Sources.Count);
        Assert.True(Of(added).Months[11].WithoutPlugWh >= 0);
        // In July nothing is missing: there is nothing to answer, and less panel would do.
        var july = ChargedDay.Work(unplugged, 0, 7)!;
        Assert.Empty(july.Answers);
        Assert.True(july.BalancingArrayW < 1200);
    }

    /// <summary>The charger of an inverter brings what its hours say, and nothing from its own outlets.</summary>
    [Fact]
    public void The_charger_of_an_inverter_is_a_source()
    {
        var design = Bus.With(
            ("~/sources", Array.Empty<object>()),
            ("~/inverters/0/item/chargerA", 30.0),
            ("~/inverters/0/chargerWindows", new double[][] { [20, 23] })
        );
        var own = Of(design).Sources.Single(s => s.BuiltIn);
        Assert.Equal(30 * own.FillV * 3, Of(design).Months[0].BySource[0], 6);
        Assert.Equal(0, Of(design.With(("~/inverters/0/charger", "own-output"))).Months[0].BySource[0]);
    }

    /// <summary>The station's answer in its four forms.</summary>
    [Fact]
    public void The_headline()
    {
        string Says(DesignDocument design) => Evaluator.Evaluate(design).Banks[0].Headlines[Station.Charging];
        Assert.StartsWith(
            "In December the roof gives 1.03 of the 3.20 kWh and the drive 1.06 kWh; the plug must bring 1.17 kWh, 1.8 h",
            Says(Bus),
            StringComparison.Ordinal
        );
        Assert.StartsWith(
            "Roof and drive carry".Replace("Roof", "The roof").Replace("drive", "the drive"),
            Says(Bus.With(("~/sources/0/array/strings", 12), ("~/sources/0/amps", 160.0))),
            StringComparison.Ordinal
        );
        Assert.Matches(
            "kWh a day are missing: dark after .* days$",
            Says(Bus.With(("~/sources/2/windows", null), ("~/sources/2/amps", null)))
        );
        Assert.StartsWith(
            "Nothing charges the bank yet; it lasts",
            Says(Bus.With(("~/sources", Array.Empty<object>()))),
            StringComparison.Ordinal
        );
        Assert.Equal("Say where it stands: its latitude", Says(Bus.With(("/place/latitudeDeg", null))));
    }
}

using InkyBadger.Core.Design;
using InkyBadger.Core.Findings;

namespace InkyBadger.Core.Tests.Designs;

/// <summary>Where the bank stands: eight units of 330 × 172 × 215 mm, 11.2 kg each, in a locker of the bus.</summary>
public class StandTests
{
    private static DesignDocument In(double length, double width, double height, LidKind lid = LidKind.Steel, int? straps = null) =>
        Some.Marrow.With(
            (
                "~/compartments/-",
                new Compartment
                {
                    Id = "locker",
                    Name = "Locker",
                    LengthMm = length,
                    WidthMm = width,
                    HeightMm = height,
                    Lid = lid,
                    Straps = straps,
                }
            )
        );

    private static CompartmentResult Of(DesignDocument design) => design.Bank().Stands!.Compartments[0];

    private static readonly DesignDocument Locker = In(1480, 400, 260, straps: 2);

    /// <summary>
    /// Turned, 8 × 172 and 7 × 5 mm are 1,411 of 1,480 mm: 49 left between the walls. 330 of 400: 50 left. Over 215 mm stand 45; stud and
    /// nut 20, lug and cover 14 and 25 mm of air to steel are 59: 14 short. Flat bars want 39 and leave 6.
    /// </summary>
    [Fact]
    public void The_lid_is_too_low_over_the_posts()
    {
        var c = Of(Locker);
        Assert.Equal(8, c.Units.Count);
        Assert.All(c.Units, u => Assert.Equal((172.0, 330.0, 90, 0.0, (string?)null), (u.LengthMm, u.WidthMm, u.Turn, u.OverMm, u.Into)));
        // The first string at the right, where its lead leaves.
        Assert.Equal((4, 2, 10.0), (c.Units[0].String, c.Units[0].Unit, c.Units[0].XMm));
        Assert.Equal((1, 1, 10 + 7 * 177.0), (c.Units[^1].String, c.Units[^1].Unit, c.Units[^1].XMm));
        var r = c.Room;
        Assert.Equal((49.0, 50.0), (r.LengthLeftMm, r.WidthLeftMm));
        Assert.Equal((59.0, 34.0, 25.0, 45.0, -14.0), (r.OverWantedMm, r.NutMm, r.AirMm, r.OverThereMm, r.HeightLeftMm));
        Assert.Equal((5.0, false), (r.GapMm, r.Fits));
        Assert.Equal([("as drawn", -14.0), ("flat bar", 6.0)], r.Ways.Take(2).Select(w => (w.Name, w.LeftMm)));
        // On the side 260 − 172 = 88 mm are over them, but two rows of four want 2 × 255 + 5 + 20 mm: 135 too wide.
        Assert.Equal(("on the side", 88.0, -135.0), (r.Ways[2].Name, r.Ways[2].ThereMm, r.Ways[2].BesideMm));
        var finding = Locker.Finding("place.height")!;
        Assert.Equal((Grade.Danger, "The lid would touch the nuts"), (finding.Grade, finding.Title));
        Assert.Contains("bare nuts 11 mm away is a short of 14.", finding.Why, StringComparison.Ordinal);
        Assert.Equal(["Flat bar for the links", "A wooden lid", "Raise the lid by 14 mm"], finding.Mends.Select(m => m.Label));
        Assert.Equal("39 mm wanted, fits by 6 mm", finding.Mends[0].Outcome);
        foreach (var mend in finding.Mends)
            Assert.Null(DesignFormat.With(Locker, mend.Changes).Finding("place.height"));
        // An open shelf asks for nuts and lugs alone; wood for 10 mm of air.
        Assert.True(Of(In(1480, 400, 260, LidKind.Open)).Room.Fits);
        Assert.Equal(44, Of(In(1480, 400, 260, LidKind.Wood)).Room.OverWantedMm);
        Assert.Equal(Grade.Fault, In(1480, 400, 230, LidKind.Wood).Finding("place.height")!.Grade);
    }

    /// <summary>2,200 mm take eight units of 255 mm on their side in a row, under a lid too low for them standing.</summary>
    [Fact]
    public void Units_that_may_lie()
    {
        var low = In(2200, 400, 240);
        var mend = low.Finding("place.height")!.Mends.Single(m => m.Label.StartsWith("Lay", StringComparison.Ordinal));
        var laid = DesignFormat.With(low, mend.Changes);
        Assert.All(Of(laid).Units, u => Assert.Equal((true, 172.0, 255.0), (u.Lying, u.HeightMm, u.LengthMm)));
        Assert.Null(laid.Finding("place.fit"));
        // Lead never lies.
        Assert.DoesNotContain(Of(Some.Demo("Hare").With(("~/compartments/-", Locker.Banks[0].Compartments[0]))).Room.Ways, w =>
            w.Name == "on the side"
        );
    }

    /// <summary>
    /// 1,300 mm take seven turned units in a row; the eighth stands 151 mm beyond the wall. Longer ends it, and so does another locker.
    /// </summary>
    [Fact]
    public void Units_that_do_not_fit()
    {
        var tight = In(1300, 400, 300);
        Assert.Equal("A1 stands 121 mm beyond the wall", tight.Finding("place.fit")!.Title);
        var mend = tight.Finding("place.fit")!.Mends.Single(m => m.Label.StartsWith("Make", StringComparison.Ordinal));
        Assert.Equal("Make it 131 mm longer", mend.Label);
        Assert.Null(DesignFormat.With(tight, mend.Changes).Finding("place.fit"));
        var second = tight.With(("~/compartments/-", tight.Banks[0].Compartments[0] with { Id = "other", Name = "Other" }));
        Assert.Equal([7, 1], second.Bank().Stands!.Compartments.Select(c => c.Units.Count));
        Assert.Null(second.Finding("place.fit"));
    }

    /// <summary>A unit put by hand along the locker reaches into its neighbours; turned it stands between them.</summary>
    [Fact]
    public void A_unit_turned_so_that_it_fits()
    {
        DesignDocument Put(int turn) =>
            In(700, 400, 300)
                .With(("~/parallel", 1), ("~/series", 2))
                .With(
                    (
                        "~/positions",
                        new[]
                        {
                            new Position
                            {
                                String = 1,
                                Unit = 1,
                                Stand = new()
                                {
                                    XMm = 10,
                                    YMm = 10,
                                    Turn = turn,
                                },
                            },
                            new Position
                            {
                                String = 1,
                                Unit = 2,
                                Stand = new()
                                {
                                    XMm = 200,
                                    YMm = 10,
                                    Turn = 90,
                                },
                            },
                        }
                    )
                );
        var along = Put(0).Finding("place.fit")!;
        Assert.Equal("A2 stands in A1", along.Title);
        Assert.Null(Put(90).Finding("place.fit"));
        Assert.Null(Put(0).Mended("place.fit").Finding("place.fit"));
        Assert.Equal("3 mm of air between units, 5 mm asked", Put(90).With(("~/positions/1/stand/xMm", 185)).Finding("place.gap")!.Title);
        Assert.Null(Put(90).With(("~/positions/1/stand/xMm", 185)).Mended("place.gap").Finding("place.gap"));
        Assert.Null(Put(90).Finding("place.gap"));
    }

    /// <summary>89.6 kg at 2 g pull with 1,758 N: two straps of 1,250 N hold, one does not, and who says nothing is not asked.</summary>
    [Fact]
    public void Straps_hold_a_stop()
    {
        Assert.Equal(89.6 * 9.81 * 2, Of(Locker).Hold!.PullN, 6);
        Assert.Equal((2500.0, 2), (Of(Locker).Hold!.HoldsN, Of(Locker).Hold!.Wanted));
        Assert.Null(Locker.Finding("place.straps"));
        Assert.Null(In(1480, 400, 300).Finding("place.straps"));
        var one = In(1480, 400, 300, straps: 1);
        Assert.Equal("1 strap holds 1,250 N", one.Finding("place.straps")!.Title);
        Assert.Equal(2, one.Mended("place.straps").Banks[0].Compartments[0].Straps);
    }

    /// <summary>
    /// 89.6 kg 0.65 m behind the rear axle, which is 3.6 m behind the front one: 105.8 kg more at the rear, 16.2 less in front; 0.59 m to
    /// the right are 52.9 kg·m.
    /// </summary>
    [Fact]
    public void Its_weight_on_the_axles()
    {
        var bus = Locker.With(
            ("~/compartments/0/forwardM", -0.65),
            ("~/compartments/0/rightM", 0.59),
            (
                "/place/trim",
                new TrimSide
                {
                    FrontAxleM = 3.6,
                    RearAxleM = 0,
                    RearKg = 3000,
                    RearLimitKg = 3200,
                    FrontKg = 1500,
                }
            )
        );
        var trim = bus.Bank().Stands!.Trim!;
        Assert.Equal(
            (89.6, 105.8, -16.2),
            (Math.Round(trim.Kg, 6), Math.Round(trim.RearGainKg!.Value, 1), Math.Round(trim.FrontGainKg!.Value, 1))
        );
        Assert.Equal(89.6 * 0.59, trim.MomentKgm, 6);
        Assert.Null(bus.Finding("place.axle"));
        var heavy = bus.With(("/place/trim/rearLimitKg", 3100.0)).Finding("place.axle")!;
        Assert.Equal("The rear axle carries 3,106 kg, 3,100 are allowed", heavy.Title);
        Assert.Null(Locker.Bank().Stands!.Trim);
        Assert.Equal((11.2, 1, false), (bus.Bank().Stands!.Lift!.Kg, bus.Bank().Stands!.Lift!.People, bus.Bank().Stands!.Lift!.Machine));
    }

    /// <summary>
    /// Turned side by side A2’s minus lies beside A1’s plus: with 172 + 5 mm between neighbours a link from A1 to B1 spans 354 mm, 1.15 of
    /// it and 2 cm of lugs are 43 cm. The network takes them, unless somebody said a length.
    /// </summary>
    [Fact]
    public void Real_lengths_flow_back_to_the_network()
    {
        var measured = Locker.Bank();
        var link = measured.Stands!.Conductors.Single(c => c is { Kind: ConductorKind.Link, Rail: Pole.Positive, String: 1 });
        Assert.Equal(Math.Ceiling((0.354 * 1.15 + 0.02) * 100) / 100, link.LengthM, 9);
        Assert.All(measured.Network!.Copper.Placed.Where(c => c.Kind == ConductorKind.Link), c =>
            Assert.Equal((link.LengthM, false), (c.LengthM, c.Own))
        );
        Assert.NotEqual(Some.Marrow.Bank().Network!.Strings.WorstShare, measured.Network.Strings.WorstShare);
        var said = Locker.With(("~/wiring/link", new Conductor { LengthM = 0.35 }));
        Assert.All(said.Bank().Network!.Copper.Placed.Where(c => c.Kind == ConductorKind.Link), c => Assert.Equal(0.35, c.LengthM));
        // Units in two lockers: what goes between them nobody measured.
        Assert.NotNull(Locker.Finding("place.bend"));
        Assert.Null(
            In(2000, 900, 300)
                .With(
                    (
                        "~/positions",
                        new[]
                        {
                            new Position
                            {
                                String = 1,
                                Unit = 1,
                                Stand = new() { XMm = 800, YMm = 400 },
                            },
                        }
                    )
                )
                .Finding("place.bend")
        );
    }

    /// <summary>
    /// No size given: one row of eight is 8 × 172 + 35 + 20 by 350 by 215 + 44 mm; two rows of four half as long.
    /// </summary>
    [Fact]
    public void Without_a_compartment_it_says_the_space_they_need()
    {
        var stands = Some.Marrow.Bank().Stands!;
        Assert.Empty(stands.Compartments);
        Assert.Equal(
            (1, 1431.0, 350.0, 259.0),
            (stands.Needs[0].Rows, stands.Needs[0].LengthMm, stands.Needs[0].WidthMm, stands.Needs[0].HeightMm)
        );
        Assert.Equal((2, 723.0, 685.0), (stands.Needs[1].Rows, stands.Needs[1].LengthMm, stands.Needs[1].WidthMm));
        Assert.Empty(Some.Demo("Tern").Bank().Stands!.Needs);
    }
}

using InkyBadger.Core.Design;
using InkyBadger.Core.Findings;
using InkyBadger.Core.Tests.Laws;

namespace InkyBadger.Core.Tests.Designs;

/// <summary>The AC side of a design: what lives on what in each position, what is wrong in some, and its mends.</summary>
public class AcBoardTests
{
    private static readonly DesignDocument Bus = Some.Demo("Marrow");

    private static DesignDocument With(DesignDocument design, AcDrawing side) => design.With(("/acSide", side));

    private static AcBoardResult Board(DesignDocument design) => AcSides.Work(design)!;

    private static DesignDocument Started(DesignDocument design, AcStart start) => With(design, AcSides.Start(design, start));

    private static AcPart Part(string id, AcPartKind kind) =>
        new()
        {
            Id = id,
            Kind = kind,
            Name = id,
        };

    private static AcWire Wire(string from, string to, int[]? fromAt = null, int[]? toAt = null) =>
        new()
        {
            From = from,
            To = to,
            FromAt = fromAt ?? [],
            ToAt = toAt ?? [],
        };

    /// <summary>Every AC load on a circuit of its own: on mains or inverter, never on both, and the charger on the plug.</summary>
    [Fact]
    public void Both_starting_points_hold_in_every_position()
    {
        Assert.Null(AcSides.Work(Bus));
        foreach (var demo in Demo.DemoDesigns.All)
        foreach (var start in Enum.GetValues<AcStart>())
        {
            var design = Started(demo, start);
            Assert.Empty(DesignCheck.Faults(design));
            var board = Board(design);
            Assert.DoesNotContain(board.Troubles, t =>
                t.Kind is AcTroubleKind.Loop or AcTroubleKind.Ring or AcTroubleKind.BackFeed or AcTroubleKind.Relay
            );
            Assert.Empty(board.Unassigned);
        }
        var through = Board(Started(Bus, AcStart.PassThrough));
        Assert.Equal((2, 2), (through.Count, through.States.Count));
        var circuits = AcSides.Start(Bus, AcStart.PassThrough).Parts.Where(p => p.Kind == AcPartKind.Circuit).Select(p => p.Id).ToList();
        Assert.Equal(circuits.Order(), through.States[0].Feeds.Single(f => f.Source == "plug").Circuits.Order());
        Assert.Empty(through.States[0].Feeds.Single(f => f.Source == "inverter-0-0").Circuits);
        Assert.Equal(circuits.Order(), through.States[1].Feeds.Single(f => f.Source == "inverter-0-0").Circuits.Order());
        Assert.Contains("charger-0-shore", through.States[1].Feeds.Single(f => f.Source == "plug").Live);
        var byHand = Board(Started(Bus, AcStart.SeparatePanel));
        Assert.Equal(3, byHand.Count);
        Assert.Equal(circuits.Order(), byHand.States[1].Dark.Order());
        Assert.Equal("Selector at off", byHand.States[1].Words);
    }

    /// <summary>
    /// 16 A at 230 V: 3,680 VA, 2,944 for hours. Kettle 1,800, lift 900, printer 450, laptops 130 and fridge 60 W are 3,340 W; 25 A at
    /// 29.2 V by 0.88 and 0.95 are 873 VA.
    /// </summary>
    [Fact]
    public void What_remains_for_the_charger()
    {
        var side = AcSides.Start(Bus, AcStart.PassThrough);
        var design = With(Bus, side with { Parts = [.. side.Parts.Select(p => p.Kind == AcPartKind.Plug ? p with { Amps = 16 } : p)] });
        var plug = Board(design).States[0].Feeds.Single(f => f.Source == "plug");
        Assert.Equal((3340.0, 2944.0), (plug.LoadsW, plug.Available!.Value));
        var perAmp = Bus.Bank().Voltage!.GreatestV / 0.88 / 0.95;
        Assert.Equal(25.0, plug.ChargerA);
        Assert.Equal(3340 + 25 * perAmp, plug.Asked!.Value, 6);
        Assert.Equal(2944 - 3340.0, plug.Remaining!.Value, 6);
        Assert.Equal(0, plug.ChargerFitsA);
        Assert.False(plug.Fits);
        // On the inverter's position the plug carries the charger alone.
        Assert.Equal(2944, Board(design).States[1].Feeds.Single(f => f.Source == "plug").Remaining!.Value, 6);
        Assert.Equal(Grade.Fault, design.Finding("ac.trip")!.Grade);
    }

    /// <summary>A charger on the inverter's own panel: harmless at the mains, a loop once the transfer switch has turned.</summary>
    [Fact]
    public void A_loop_that_only_one_position_has()
    {
        var side = AcSides.Start(Bus, AcStart.PassThrough);
        var looped = With(
            Bus,
            side with
            {
                Wires = [.. side.Wires.Select(w => w.To == "charger-0-shore" ? w with { From = "panel" } : w)],
            }
        );
        var board = Board(looped);
        var loop = board.Troubles.Single(t => t.Kind == AcTroubleKind.Loop);
        Assert.Equal((1, "Charger, Plug hangs on Inverter of its own bank"), (loop.State, loop.Title));
        Assert.DoesNotContain(board.Troubles.ToList().IndexOf(loop), board.States[0].Troubles);
        Assert.Contains(board.Troubles.ToList().IndexOf(loop), board.States[1].Troubles);
        var finding = looped.Finding("ac.loop")!;
        Assert.Equal((Grade.Danger, "Hang Charger, Plug on Inlet panel"), (finding.Grade, finding.Mends[0].Label));
        Assert.Null(looped.Mended("ac.loop").Finding("ac.loop"));
        Assert.Null(Started(Bus, AcStart.PassThrough).Finding("ac.loop"));
    }

    [Fact]
    public void Two_sources_on_one_panel()
    {
        var both = With(
            Bus,
            new()
            {
                Parts =
                [
                    Part("plug", AcPartKind.Plug) with
                    {
                        Amps = 16,
                    },
                    Part("inverter", AcPartKind.Inverter),
                    Part("panel", AcPartKind.Panel),
                ],
                Wires = [Wire("plug", "panel"), Wire("inverter", "panel")],
            }
        );
        var finding = both.Finding("ac.back-feed")!;
        Assert.Equal((Grade.Danger, "Plug and inverter feed each other"), (finding.Grade, finding.Title));
        Assert.Equal("A selector before panel", finding.Mends[0].Label);
        var mended = both.Mended("ac.back-feed");
        Assert.Null(mended.Finding("ac.back-feed"));
        Assert.Equal(3, Board(mended).Count);
        // Two inverters that run in step may stand together.
        DesignDocument Pair(string? group) =>
            With(
                Bus,
                new()
                {
                    Parts =
                    [
                        Part("one", AcPartKind.Inverter) with
                        {
                            Group = group,
                        },
                        Part("two", AcPartKind.Inverter) with
                        {
                            Group = group,
                        },
                        Part("panel", AcPartKind.Panel),
                    ],
                    Wires = [Wire("one", "panel"), Wire("two", "panel")],
                }
            );
        Assert.NotNull(Pair(null).Finding("ac.back-feed"));
        Assert.Null(Pair("pair").Finding("ac.back-feed"));
    }

    /// <summary>A 30 A transfer relay behind a 50 A breaker; a panel's own breaker of 25 A between them makes it good.</summary>
    [Fact]
    public void Contacts_behind_a_breaker_that_lets_more_through()
    {
        DesignDocument Relay(double? panelA) =>
            With(
                Bus,
                new()
                {
                    Parts =
                    [
                        Part("plug", AcPartKind.Plug) with
                        {
                            Amps = 50,
                        },
                        Part("inlet", AcPartKind.Panel) with
                        {
                            Amps = panelA,
                        },
                        Part("relay", AcPartKind.Transfer) with
                        {
                            Amps = 30,
                        },
                        Part("lights", AcPartKind.Circuit) with
                        {
                            Watts = 100,
                        },
                    ],
                    Wires = [Wire("plug", "inlet"), Wire("inlet", "relay", null, [1]), Wire("relay", "lights")],
                }
            );
        var finding = Relay(null).Finding("ac.relay")!;
        Assert.Equal((Grade.Danger, 50.0, "Contacts for 50 A"), (finding.Grade, finding.Figures[0].Value, finding.Mends[0].Label));
        Assert.Null(Relay(null).Mended("ac.relay").Finding("ac.relay"));
        Assert.Null(Relay(25).Finding("ac.relay"));
    }

    /// <summary>A 120 V inverter on one leg of a split panel: the other leg is dark, and a 240 V circuit half live.</summary>
    [Fact]
    public void A_split_panel_with_an_inverter_on_one_leg()
    {
        var design = With(
            Bus.With(("/ac/volts", 120)),
            new()
            {
                Legs = AcLegs.Split,
                Parts =
                [
                    Part("plug", AcPartKind.Plug) with
                    {
                        Amps = 30,
                    },
                    Part("inverter", AcPartKind.Inverter) with
                    {
                        Leg = AcLeg.One,
                    },
                    Part("change", AcPartKind.Transfer) with
                    {
                        Positions = ["mains", "inverter"],
                    },
                    Part("panel", AcPartKind.Panel),
                    Part("fridge", AcPartKind.Circuit) with
                    {
                        Leg = AcLeg.One,
                        Watts = 200,
                    },
                    Part("lights", AcPartKind.Circuit) with
                    {
                        Leg = AcLeg.Two,
                        Watts = 100,
                    },
                    Part("oven", AcPartKind.Circuit) with
                    {
                        Watts = 2400,
                    },
                ],
                Wires =
                [
                    Wire("plug", "change", null, [1]),
                    Wire("inverter", "change", null, [2]),
                    Wire("change", "panel"),
                    Wire("panel", "fridge"),
                    Wire("panel", "lights"),
                    Wire("panel", "oven"),
                ],
            }
        );
        Assert.Empty(DesignCheck.Faults(design));
        var board = Board(design);
        var (mains, inverter) = (board.States[0], board.States[1]);
        Assert.Equal(["plug", "plug"], mains.Feeds.Where(f => f.Circuits.Count > 0).Select(f => f.Source));
        Assert.Equal([1400.0, 1300.0], mains.Feeds.Where(f => f.Source == "plug").Select(f => f.LoadsW));
        Assert.Equal(["lights"], inverter.Dark);
        Assert.Equal(["fridge", "oven"], inverter.Feeds.Single(f => f.Source == "inverter").Circuits);
        Assert.Equal(0.8 * 120 * 30, mains.Feeds[0].Available!.Value, 9);
    }

    [Fact]
    public void What_is_fed_by_nothing_or_hangs_on_no_circuit()
    {
        var start = AcSides.Start(Bus, AcStart.PassThrough);
        var side = start with { Parts = [.. start.Parts.Select(p => p.Amps == 10 ? p with { Amps = 32 } : p)] };
        var loose = With(Bus, side with { Wires = [.. side.Wires.Where(w => w.From != "panel")] });
        Assert.Equal(Grade.Caution, loose.Finding("ac.unfed")!.Grade);
        Assert.DoesNotContain(loose.Mended("ac.unfed").Findings(), f => f.IsAsOf(loose.Finding("ac.unfed")!));
        var fewer = With(Bus, side with { Parts = [.. side.Parts.Select(p => p with { Loads = [] })] });
        Assert.Equal(5, fewer.Finding("ac.unassigned")!.Figures[0].Value);
        Assert.Null(fewer.Mended("ac.unassigned").Finding("ac.unassigned"));
        Assert.Null(Started(Bus, AcStart.PassThrough).Finding("ac.unassigned"));
    }

    /// <summary>Ten selectors of three positions are 59,049 states: said, and not tried.</summary>
    [Fact]
    public void More_positions_than_anybody_turns()
    {
        var many = With(
            Bus,
            new()
            {
                Parts = [.. Enumerable.Range(1, 10).Select(n => Part($"s{n}", AcPartKind.Selector) with { Positions = ["a", "b", "c"] })],
            }
        );
        Assert.NotNull(Board(many).Refused);
        Assert.Equal(Grade.Fault, many.Finding("ac.refused")!.Grade);
    }

    [Theory]
    [InlineData("/acSide/parts/0/id", "inlet", "/acSide/parts/1/id")]
    [InlineData("/acSide/parts/0/bank", "none", "/acSide/parts/0/bank")]
    [InlineData("/acSide/wires/0/from", "nobody", "/acSide/wires/0/from")]
    [InlineData("/acSide/wires/0/toAt", new[] { 1 }, "/acSide/wires/0/toAt")]
    public void What_cannot_stand_is_named(string path, object value, string fault) =>
        Assert.Contains(DesignCheck.Faults(Started(Bus, AcStart.PassThrough).With((path, value))), f => f.Pointer == fault);

    /// <summary>Banks that charge each other round, over two inverters and two chargers.</summary>
    [Fact]
    public void A_ring_of_two_banks_and_the_charger_that_is_turned_down()
    {
        var trailer = Some.Demo("Tern");
        var ring = With(
            trailer,
            new()
            {
                Parts =
                [
                    Part("i1", AcPartKind.Inverter) with
                    {
                        Bank = "b1",
                    },
                    Part("c1", AcPartKind.Charger) with
                    {
                        Bank = "b1",
                    },
                    Part("i2", AcPartKind.Inverter) with
                    {
                        Bank = "b2",
                    },
                    Part("c2", AcPartKind.Charger) with
                    {
                        Bank = "b2",
                    },
                    Part("plug", AcPartKind.Plug) with
                    {
                        Amps = 16,
                    },
                ],
                Wires = [Wire("i1", "c2"), Wire("i2", "c1")],
            }
        );
        Assert.Equal(Grade.Danger, ring.Finding("ac.ring")!.Grade);
        Assert.Null(ring.Mended("ac.ring").Finding("ac.ring"));
        var weak = With(
            Bus,
            new()
            {
                Parts = [Part("plug", AcPartKind.Plug) with { Amps = 4 }, Part("charger", AcPartKind.Charger) with { Item = "shore" }],
                Wires = [Wire("plug", "charger")],
            }
        );
        // 25 A ask 873 VA; 4 A at 230 V are 920, of which 736 for hours.
        var finding = weak.Finding("ac.continuous")!;
        // At the volts it is charged to by the preset it stands on.
        Assert.Equal(20, Math.Floor(736 * 0.95 * 0.88 / Bus.Bank().Voltage!.GreatestV));
        Assert.Equal((Grade.Caution, "Turn the charger down to 20 A"), (finding.Grade, finding.Mends[0].Label));
        Assert.Null(weak.Mended("ac.continuous").Finding("ac.continuous"));
    }
}

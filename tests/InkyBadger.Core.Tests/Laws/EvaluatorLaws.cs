using System.Text.Json;
using System.Text.Json.Nodes;
using FsCheck;
using FsCheck.Fluent;
using FsCheck.Xunit;
using InkyBadger.Core.Banks;
using InkyBadger.Core.Builds;
using InkyBadger.Core.Demand;
using InkyBadger.Core.Design;
using InkyBadger.Core.Inverters;
using InkyBadger.Core.Network;
using InkyBadger.Core.Reference;
using InkyBadger.Core.Rehearsal;
using InkyBadger.Core.Schools;
using InkyBadger.Core.Sheets;
using InkyBadger.Core.Tests.Designs;
using InkyBadger.Core.Tests.Working;
using InkyBadger.Core.Trials;
using InkyBadger.Core.Voltage;
using InkyBadger.Core.Wiring;
using InkyBadger.Core.Work;
using InkyBadger.Core.Working;

namespace InkyBadger.Core.Tests.Laws;

/// <summary>Documents as the schema admits them: limits, odd corners, everything pinned or free.</summary>
public static class Documents
{
    private static Gen<double> From(double least, double most) =>
        Gen.OneOf(
            Gen.Constant(least),
            Gen.Constant(most),
            Gen.Choose(0, 1_000_000).Select(i => least + (most - least) * i / 1e6),
            Gen.Choose(0, 1_000_000).Select(i => least + (most - least) * Math.Pow(i / 1e6, 6))
        );

    private static Gen<T?> Maybe<T>(Gen<T> gen)
        where T : struct => Gen.OneOf(Gen.Constant<T?>(null), gen.Select(v => (T?)v));

    private static Gen<T?> MaybeRef<T>(Gen<T> gen)
        where T : class => Gen.OneOf(Gen.Constant<T?>(null), gen.Select(v => (T?)v));

    private static Gen<Load> Load(int index) =>
        from kind in Gen.Elements(Enum.GetValues<LoadKind>())
        from quantity in Gen.Elements(0, 1, 2, 1000)
        from inAmps in Gen.Elements(true, false)
        from draw in From(0, inAmps ? 1e5 : 1e6)
        from volts in From(0.1, 1000)
        from duty in From(0, 1)
        from byHours in Gen.Elements(true, false)
        from hours in From(0, 24)
        from start in From(0, 23.9)
        from length in From(0.01, 12)
        from surge in Gen.OneOf(Gen.Constant(0.0), From(0, 1e6))
        from seconds in Maybe(From(0.01, 3600))
        from tap in Maybe(Gen.Choose(1, 32))
        from season in Gen.Elements(Season.Both, Season.Both, Season.Winter, Season.Summer)
        from window in MaybeRef(
            from least in From(0.1, 100)
            from span in From(0, 100)
            select new VoltageWindow { MinV = least, MaxV = least + span }
        )
        from adapter in Maybe(From(0.1, 1))
        from va in Maybe(From(0, 1e6))
        from factor in Maybe(From(0.05, 1))
        select new Load
        {
            Season = season,
            Window = window,
            AdapterEfficiency = adapter,
            Va = va,
            PowerFactor = factor,
            Id = $"l{index}",
            Name = $"Load {index}",
            Kind = kind,
            Quantity = quantity,
            Duty = duty,
            SurgeWatts = surge,
            StartSeconds = seconds,
            Tap = tap,
            Watts = inAmps ? null : draw,
            Amps = inAmps ? draw : null,
            Volts = inAmps ? volts : null,
            Hours = byHours ? hours : null,
            Windows = byHours
                ? null
                :
                [
                    [start, start + length > 24 ? start + length - 24 : start + length],
                ],
        };

    private static Gen<UnitItem> Unit =>
        from item in Gen.Elements<UnitItem>([.. Catalogue.Units])
        from odd in Gen.Choose(0, 3)
        from ohm in Maybe(From(1e-6, 10))
        from ah in From(0.1, 1e5)
        from cells in Gen.Choose(1, 64)
        select odd switch
        {
            0 => item with { ResistanceOhm = ohm },
            1 => item with { Ah = ah, Bms = null },
            2 => item with { Cells = cells },
            _ => item,
        };

    private static Gen<InverterChoice> Inverter =>
        from item in MaybeRef(Gen.Elements<InverterItem>([.. Catalogue.Inverters]))
        from stack in Gen.Elements(1, 3, 12)
        from onH in Maybe(From(0, 24))
        from efficiency in From(0.01, 1)
        from feeds in MaybeRef(Gen.Elements("transfer", "panel", "sockets"))
        from charger in Maybe(Gen.Elements(Enum.GetValues<ChargerFeed>()))
        select new InverterChoice
        {
            Id = "i1",
            Stack = stack,
            OnH = onH,
            Feeds = feeds,
            Charger = charger,
            Item = item is null ? null : item with { Efficiency = efficiency },
        };

    private static Gen<Run> MainRun =>
        from length in Maybe(From(0.01, 200))
        from size in MaybeRef(Gen.Elements("0.5 mm²", "50 mm²", "240 mm²", "18 AWG", "4/0 AWG"))
        from parallel in Maybe(Gen.Choose(1, 3))
        from place in Maybe(Gen.Elements(Enum.GetValues<RunPlace>()))
        from ambient in Maybe(From(-60, 120))
        from bundled in Maybe(Gen.Choose(1, 999))
        from fuse in MaybeRef(Gen.Elements<string>([.. FuseClasses.All.Select(c => c.Id)]))
        from rating in Maybe(From(1, 1000))
        from absent in Gen.Elements(false, false, true)
        from distance in Maybe(From(0, 200))
        from practice in MaybeRef(Gen.Elements<string>([.. CablePractices.All.Select(p => p.Id)]))
        from insulation in Maybe(Gen.Elements(Enum.GetValues<InsulationKind>()))
        from limit in Maybe(From(0.001, 0.99))
        from lengths in Gen.ArrayOf(From(0.01, 200), parallel ?? 0)
        from own in MaybeRef(SwitchOf)
        from bus in Maybe(From(0.01, 200))
        from amps in Maybe(From(0.1, 2000))
        select new Run
        {
            Id = Run.MainId,
            From = "bank",
            To = "inverter",
            LengthM = length,
            Size = size,
            Parallel = parallel,
            Place = place,
            AmbientC = ambient,
            Bundled = bundled,
            Practice = practice,
            Fuse = new()
            {
                Class = fuse,
                RatingA = rating,
                Absent = absent,
                DistanceM = distance,
            },
            Insulation = insulation,
            DropLimit = limit,
            ConductorLengthsM = lengths,
            Switch = own,
            BusM = bus,
            BusRatingA = amps,
            ShuntM = distance,
            Absent = absent,
        };

    private static Gen<RunSwitch> SwitchOf =>
        from amps in Maybe(From(1, 1000))
        from volts in Maybe(From(1, 1000))
        from at in Maybe(From(0, 200))
        from absent in Gen.Elements(true, false)
        select new RunSwitch
        {
            RatingA = amps,
            MaxDcV = volts,
            AtM = at,
            Absent = absent,
        };

    /// <summary>Runs beyond the bus, some of which belong to nothing that is there.</summary>
    private static Gen<Run> Further =>
        from like in MainRun
        from id in Gen.Elements(
            Run.InverterId,
            Run.StringsId,
            Run.BondingId,
            Run.PanelId,
            "load-l0",
            "load-l1",
            "source-s0",
            "converter-12",
            "winch"
        )
        from with in MaybeRef(Gen.Elements("load-l0", "load-l2", "nothing"))
        select like with
        {
            Id = id,
            To = id,
            Amps = like.BusRatingA,
            BusM = null,
            BusRatingA = null,
            ShuntM = null,
            SharedWith = with,
        };

    private static Gen<Position> Position =>
        from at in Gen.Choose(1, 32)
        from unit in Gen.Choose(1, 4)
        from item in MaybeRef(Unit)
        from age in Maybe(From(0, 50))
        from health in Maybe(From(0.01, 1))
        from soc in Maybe(From(0, 1))
        from joint in Maybe(From(0, 30))
        select new Position
        {
            JointMilliohm = joint,
            String = at,
            Unit = unit,
            Item = item,
            AgeYears = age,
            Health = health,
            Soc = soc,
        };

    private static Gen<Source> Source =>
        from kind in Gen.Elements(Enum.GetValues<SourceKind>())
        from amps in Maybe(From(0, 1e5))
        from setting in Maybe(From(0.1, 1000))
        from array in MaybeRef(ArrayOf)
        from engine in MaybeRef(Engine)
        from supply in MaybeRef(Supply)
        from begins in Gen.Choose(0, 23)
        from hours in Gen.Choose(1, 12)
        from equalise in Maybe(From(0, 70))
        from compensation in Maybe(From(-200, 0))
        from preset in Gen.Elements("sealed", "lithium", null)
        from start in Maybe(From(1, 70))
        from weekdays in Gen.Elements<IReadOnlyList<int>?>(null, null, [5, 6])
        select new Source
        {
            Weekdays = weekdays,
            Start = start is null ? null : new() { BelowV = start },
            Name = "Source",
            Kind = kind,
            Amps = amps,
            SettingV = setting,
            Array = array,
            Engine = engine,
            Supply = supply,
            Windows =
            [
                [begins, (begins + hours) % 24],
            ],
            Settings = new()
            {
                Preset = preset,
                EqualiseV = new() { Value = equalise },
                CompensationMvPerK = new() { Value = compensation },
            },
            Presets =
            [
                new()
                {
                    Name = "sealed",
                    AbsorbV = 28.8,
                    FloatV = 27.6,
                },
                new()
                {
                    Name = "lithium",
                    AbsorbV = 28.4,
                    FloatV = 27.2,
                },
            ],
        };

    private static Gen<SolarArray> ArrayOf =>
        from watts in From(0, 600)
        from open in From(5, 60)
        from amps in From(0.5, 20)
        from fuse in Maybe(From(5, 30))
        from series in Gen.Choose(1, 6)
        from strings in Gen.Choose(1, 6)
        from tilt in From(0, 90)
        from azimuth in From(-180, 180)
        from shade in From(0, 1)
        from most in Maybe(From(20, 450))
        from input in Maybe(From(5, 100))
        from start in Maybe(From(0, 20))
        select new SolarArray
        {
            Module = new()
            {
                Watts = watts,
                VocV = open,
                VmpV = open * 0.83,
                IscA = amps,
                MaxFuseA = fuse,
            },
            Series = series,
            Strings = strings,
            TiltDeg = tilt,
            AzimuthDeg = azimuth,
            Shade = shade,
            ControllerMaxV = most,
            ControllerMaxIscA = input,
            StartHeadroomV = start,
        };

    private static Gen<EngineSide> Engine =>
        from plate in From(0, 300)
        from vehicle in From(0, 100)
        select new EngineSide { AlternatorA = plate, VehicleA = vehicle };

    private static Gen<SupplySide> Supply =>
        from amps in From(0.1, 63)
        from other in From(0, 5000)
        select new SupplySide { Amps = amps, OtherW = other };

    private static Gen<PlacedConductor> Placed =>
        from rail in Gen.Elements(Enum.GetValues<Pole>())
        from at in Gen.Choose(1, 4)
        from after in Gen.Choose(1, 4)
        from size in MaybeRef(Gen.Elements("6 mm²", "95 mm²", "2 AWG"))
        from length in Maybe(From(0.01, 5))
        select new PlacedConductor
        {
            Rail = rail,
            String = at,
            After = after,
            Size = size,
            LengthM = length,
        };

    private static Gen<Design.Wiring> WiringOf =>
        from style in Maybe(Gen.Elements(Enum.GetValues<WiringStyle>()))
        from link in Maybe(From(0.01, 200))
        from positive in Gen.Choose(1, 4)
        from negative in Gen.Choose(1, 4)
        from count in Gen.Elements(0, 0, 2)
        from jumpers in Gen.ArrayOf(Placed, count)
        from links in Gen.ArrayOf(Placed, count)
        from leads in Gen.ArrayOf(Placed, count)
        select new Design.Wiring
        {
            Style = style,
            Link = link is null ? null : new() { LengthM = link },
            Takeoffs = style == WiringStyle.Rails ? new() { Positive = positive, Negative = negative } : null,
            Jumpers = jumpers,
            Links = links,
            Leads = leads,
        };

    private static Gen<Compartment> CompartmentOf =>
        from length in From(50, 3000)
        from width in From(50, 1500)
        from height in From(50, 600)
        from lid in Gen.Elements(Enum.GetValues<LidKind>())
        from bars in Gen.Elements(true, false)
        from straps in Maybe(Gen.Choose(0, 4))
        from x in Maybe(From(-3, 5))
        select new Compartment
        {
            LengthMm = length,
            WidthMm = width,
            HeightMm = height,
            Lid = lid,
            FlatBars = bars,
            Straps = straps,
            ForwardM = x,
        };

    private static Gen<UnitStand> Stand =>
        from x in From(-50, 1500)
        from y in From(-50, 600)
        from turn in Gen.Elements(0, 90, 180, 270)
        from lying in Gen.Elements(true, false)
        from other in Gen.Elements("", "c2")
        select new UnitStand
        {
            XMm = x,
            YMm = y,
            Turn = turn,
            Lying = lying,
            Compartment = other,
        };

    private static Gen<Bank> BankOf(string id) =>
        from count in Gen.Choose(0, 5)
        from loads in Gen.CollectToSequence(Enumerable.Range(0, count), Load)
        from alike in Gen.Elements(false, false, true)
        from systemV in Maybe(Gen.Elements(12, 16, 24, 32, 36, 48))
        from unit in MaybeRef(Unit)
        from inverterCount in Gen.Elements(0, 1, 1, 2)
        from inverters in Gen.ArrayOf(Inverter, inverterCount)
        from series in Maybe(Gen.Choose(1, 4))
        from parallel in Maybe(Gen.Choose(1, 32))
        from wiring in WiringOf
        from run in MainRun
        from further in Gen.ListOf(Further, 3)
        from odd in Gen.Choose(0, 3)
        from positions in Gen.ArrayOf(Position, odd)
        from stand in MaybeRef(Stand)
        from joint in Maybe(From(0, 50))
        from rooms in Gen.Elements(0, 0, 1, 2)
        from compartments in Gen.ArrayOf(CompartmentOf, rooms)
        from sources in Gen.ArrayOf(Source, odd)
        from before in Gen.Elements("agm", "lfp", "flooded", null)
        from cutOff in Maybe(From(1, 70))
        from charged in Gen.Choose(0, 20)
        select new Bank
        {
            Changed = before is null ? null : new() { From = before },
            Cards = cutOff is null
                ? []
                :
                [
                    new()
                    {
                        Device = "i1",
                        Name = "cutOffV",
                        Value = cutOff,
                    },
                    new() { Name = "chargedV", Value = cutOff },
                ],
            Id = id,
            Name = "Bank",
            SystemV = systemV,
            Demand = new() { Loads = [.. alike ? loads.Select(l => l with { Name = "Load" }) : loads] },
            Inverters =
            [
                .. inverters.Select(
                    (x, i) =>
                        x with
                        {
                            Id = $"i{i + 1}",
                            ChargerWindows =
                                charged < 5
                                    ? null
                                    :
                                    [
                                        [charged, charged + 2],
                                    ],
                        }
                ),
            ],
            Unit = unit,
            Series = series,
            Parallel = parallel,
            Wiring = wiring,
            Runs = [run, .. further.DistinctBy(r => r.Id)],
            Positions = [.. positions.Select((p, i) => i == 0 ? p with { Stand = stand, JointMilliohm = joint } : p)],
            Compartments = [.. compartments.Select((c, i) => c with { Id = $"c{i + 1}" })],
            Sources = [.. sources.Select((s, i) => s with { Id = $"s{i}" })],
        };

    private static Gen<IReadOnlyDictionary<string, JsonElement>> OwnRules =>
        from share in From(0.3, 1)
        from metres in From(0.05, 2)
        from some in Gen.Elements(0, 0, 1, 2, 4)
        select (IReadOnlyDictionary<string, JsonElement>)
            new Dictionary<string, object>
            {
                ["usable-share-lfp"] = share,
                ["fuse-distance"] = metres,
                ["take-off"] = "bus-bars",
                ["fuse-spread"] = 1 + metres,
            }
                .Take(some)
                .ToDictionary(r => r.Key, r => JsonSerializer.SerializeToElement(r.Value));

    private static Gen<DesignDocument> DesignOf(Gen<Bank[]> all) =>
        from banks in all
        from set in Gen.Elements(Enum.GetValues<RuleSet>())
        from own in OwnRules
        from ambient in Maybe(From(-60, 120))
        from hot in Gen.Elements(true, false, false)
        from units in Gen.Elements(Enum.GetValues<UnitSystem>())
        from living in Gen.Elements(true, false)
        from cycles in Maybe(From(0, 1000))
        from years in Maybe(From(0.1, 100))
        from price in Maybe(From(0, 10_000))
        from joined in Gen.Elements(true, false)
        from kind in Gen.Elements(Enum.GetValues<JoinKind>())
        from amps in From(0.1, 100)
        from hours in Maybe(From(0, 24))
        from rear in Maybe(From(100, 4000))
        from latitude in Maybe(From(-66, 66))
        from climate in MaybeRef(Gen.Elements("maritime", "desert", "monsoon"))
        from tables in Gen.Elements(new OwnTables(), new OwnTables(), new OwnTables(), Brought)
        select new DesignDocument
        {
            Name = "Any",
            HouseRules = new() { Set = set, Own = own },
            Place = new()
            {
                AmbientC = ambient,
                Living = living,
                Hot = hot,
                LatitudeDeg = latitude,
                Climate = climate,
                Trim = rear is null
                    ? null
                    : new()
                    {
                        FrontAxleM = 3,
                        RearAxleM = 0,
                        RearKg = 500,
                        RearLimitKg = rear,
                        BalanceM = -0.5,
                    },
            },
            CyclesPerYear = cycles,
            Years = years,
            Tables = tables,
            Display = new() { Units = units },
            Banks = tables.Fuses.Count == 0 ? banks : [.. banks.Select(Fast)],
            Prices = new() { Units = price is null ? [] : [new() { Key = "lfp-12-100", Price = price.Value }] },
            Joins =
                joined && banks.Length > 1
                    ?
                    [
                        new()
                        {
                            From = "b1",
                            To = "b2",
                            Kind = kind,
                            Amps = amps,
                            Efficiency = 0.9,
                            Hours = hours,
                        },
                    ]
                    : [],
        };

    /// <summary>The main run behind the fuse that was brought in.</summary>
    private static Bank Fast(Bank bank) =>
        bank with
        {
            Runs =
            [
                .. bank.Runs.Select(r => r.Id == Run.MainId ? r with { Fuse = r.Fuse with { Class = "own-fast", RatingA = null } } : r),
            ],
        };

    /// <summary>Tables of one's own: a practice that holds for all runs, a fuse with its maker's curve, a conductor of no series.</summary>
    internal static OwnTables Brought { get; } =
        new()
        {
            Practices =
            [
                new()
                {
                    Id = "own-flex",
                    Label = "Flexible welding cable",
                    Source = "a sheet of the shop's",
                    InsulationC = 90,
                    ReferenceC = 30,
                    Rows =
                    [
                        new() { Size = "6 mm²", AmpacityA = 52 },
                        new() { Size = "22 mm²", AmpacityA = 140 },
                        new() { Size = "50 mm²", AmpacityA = 240 },
                        new() { Size = "95 mm²", AmpacityA = 350 },
                    ],
                },
            ],
            Fuses =
            [
                new()
                {
                    Id = "own-fast",
                    Label = "Fast fuse",
                    Source = "a maker's curve, read off",
                    MaxDcV = 80,
                    InterruptA = 15000,
                    LimitsCurrent = true,
                    RatingsA = [30, 60, 125, 200, 300],
                    Curve =
                    [
                        new()
                        {
                            Multiple = 1.4,
                            LeastS = 200,
                            MostS = 500,
                        },
                        new()
                        {
                            Multiple = 3,
                            LeastS = 1,
                            MostS = 1.8,
                        },
                        new()
                        {
                            Multiple = 8,
                            LeastS = 0.01,
                            MostS = 0.02,
                        },
                    ],
                },
            ],
            Conductors =
            [
                new()
                {
                    Size = "22 mm²",
                    Source = "a sheet of the shop's",
                    AreaMm2 = 22,
                    R20MilliohmPerM = 0.82,
                },
            ],
            Practice = "own-flex",
            Drawer = [new() { Size = "50 mm²", LengthM = 4 }],
        };

    public static Arbitrary<DesignDocument> Any() => DesignOf(BankOf("b1").Select(b => new[] { b })).ToArbitrary();

    /// <summary>Designs of one bank or of two, joined or not.</summary>
    public static Gen<DesignDocument> Sites() =>
        DesignOf(
            Gen.OneOf(
                BankOf("b1").Select(b => new[] { b }),
                BankOf("b1").SelectMany(one => BankOf("b2").Select(other => new[] { one, other }))
            )
        );
}

[Laws(typeof(Documents))]
public class EvaluatorLaws
{
    /// <summary>No exception, no NaN and no infinity leaves the Evaluator, with or without the tape.</summary>
    [Property]
    public void It_is_total(DesignDocument design)
    {
        Assert.Empty(DesignCheck.Faults(design));
        var tape = new Tape();
        // The serializer itself refuses NaN and infinity.
        Assert.NotEmpty(JsonSerializer.Serialize(Evaluator.Evaluate(design), DesignFormat.Options));
        Assert.NotEmpty(JsonSerializer.Serialize(Evaluator.Evaluate(design, tape), DesignFormat.Options));
        Assert.All(tape.All, e => Assert.True(double.IsFinite(e.Value), e.Pointer));
    }

    /// <summary>
    /// A day is shown for every month; what it loses is what leaves less what comes, and what it is said to balance by balances it.
    /// </summary>
    [Property]
    public void A_month_is_filled_and_what_balances_it_does(DesignDocument design)
    {
        for (var bank = 0; bank < design.Banks.Count; bank++)
        {
            if (ChargedDay.Work(design, bank, null) is not { } day)
                continue;
            Assert.All(day.All.Soc, s => Assert.InRange(s, 0, 1));
            Assert.All(day.All.Sources, s => Assert.True(s.TakenWh <= s.OfferedWh * (1 + 1e-9)));
            foreach (var answer in day.Answers)
            {
                var then = new SiteWork(DesignFormat.With(design, answer.Changes))[bank].Charging.Need();
                Assert.True(then.Months[day.Month - 1].BalanceWh >= 0, answer.Label);
            }
        }
    }

    [Property]
    public void Every_finding_has_a_figure_and_its_mends_can_be_applied(DesignDocument design)
    {
        foreach (var finding in Evaluator.Evaluate(design).Findings)
        {
            Assert.True(finding.Figures.Count > 0 || finding.Rule.StartsWith("refused.", StringComparison.Ordinal), finding.Rule);
            foreach (var mend in finding.Mends)
                Assert.Empty(DesignCheck.Faults(DesignFormat.With(design, mend.Changes)));
        }
    }

    [Property]
    public void A_string_more_never_lowers_what_the_bank_holds(DesignDocument design)
    {
        if (design.Bank() is not { Bank: { Layout.Parallel: < 32 } bank })
            return;
        var more = design with
        {
            Banks = [design.Banks[0] with { Unit = bank.Unit, Series = bank.Layout.Series, Parallel = bank.Layout.Parallel + 1 }],
        };
        if (DesignCheck.Faults(more).Count > 0)
            return;
        Assert.True(more.Bank().Bank!.Holds.UsableWh > bank.Holds.UsableWh);
    }

    [Property]
    public void A_fuse_that_is_advised_is_never_above_the_cable_that_is(DesignDocument design)
    {
        static Run Free(Run run) =>
            run with
            {
                Size = null,
                Parallel = null,
                ConductorLengthsM = [],
                Fuse = new() { Class = run.Fuse.Class },
            };
        var bank = (design with { Banks = [design.Banks[0] with { Runs = [.. design.Banks[0].Runs.Select(Free)] }] }).Bank();
        foreach (var run in bank.Circuits.Select(c => c.Run).Append(bank.MainRun))
        {
            if (run is not { Fuse.RatingA: { } rating, Carries.AmpacityA: { } ampacity })
                continue;
            // Lean allows the next size up, to one and a half times.
            Assert.True(
                rating <= ampacity * (design.HouseRules.Set == RuleSet.Lean ? 1.5 : 1) * (1 + 1e-9),
                $"{run.Id}: {rating} A on {ampacity} A"
            );
        }
    }

    /// <summary>
    /// A month of any design that can be run: charge stays within its bounds, dark within the day, what was asked is served or missed, and
    /// no source gives what it does not have.
    /// </summary>
    [Property]
    public void A_month_of_any_design_keeps_its_books(DesignDocument design)
    {
        var run = YearRun.Of(design, 0);
        if (run.Intro.Wait is not null)
        {
            Assert.Null(run.Next());
            return;
        }
        var month = run.Next()!;
        Assert.Equal(31, month.Days.Count);
        Assert.All(month.Days, d => Assert.InRange(d.LowestSoc, 0, 1));
        Assert.All(month.Days, d => Assert.InRange(d.DarkH, 0, 24 + 1e-6));
        Assert.All(month.Days, d => Assert.All(d.SourceWh, wh => Assert.True(wh >= -1e-6 && double.IsFinite(wh))));
        Assert.All(month.Quarters, q => Assert.All(q.Soc, soc => Assert.InRange(soc, 0, 1)));
        var outcome = run.Outcome()!;
        Assert.NotEmpty(outcome.Headline);
        Assert.Equal(month.Days.Sum(d => d.DarkH), outcome.DarkH, 6);
        Assert.True(outcome.Sums.ServedAcWh >= 0 && outcome.Sums.UnservedWh >= 0 && outcome.Sums.InverterLossWh >= -1e-6);
        // A difference of two great figures has their noise.
        foreach (var e in outcome.Working.Where(e => e.Form is not null))
        {
            var noise = 1e-9 * e.Terms.Max(t => Math.Abs(t.Value ?? 0));
            Assert.True(Math.Abs(FormReader.Work(e) - e.Value) <= 1e-6 * Math.Max(1, Math.Abs(e.Value)) + noise, e.Pointer);
        }
        // Left on the eleventh day and taken up there it is the same to the last digit.
        var again = YearStretch.Of(design, 0, month.Begins[10])!;
        static (double, double, double) Told(YearDay d) => (d.LowestSoc, d.DarkH, d.OutWh);
        Assert.Equal(month.Days.Skip(10).Take(14).Select(Told), again.Days.Select(Told));
        Assert.Equal(month.Quarters.Skip(10).Take(14).SelectMany(q => q.NetW), again.Quarters.SelectMany(q => q.NetW));
        // What the path shows of an instant adds up.
        var instants = YearStretch.Instants(design, 0, month.Begins[10])!;
        Assert.Equal(YearReader.Quarters, instants.Count);
        Assert.All(instants, i => Assert.Equal(i.Strings.Sum(x => x.Amps), i.BankA, 6));
        Assert.All(instants, i => Assert.True(i.InverterW == 0 || i.InverterOn && !i.Passed && !i.Dark));
    }

    /// <summary>Every design has its papers: no part twice under one key, every piece labelled at both ends and told in words.</summary>
    [Property]
    public void Any_design_has_its_papers(DesignDocument design)
    {
        var parts = PartsList.Work(design);
        Assert.Equal(parts.Parts.Count, parts.Parts.Select(p => p.Key).Distinct().Count());
        Assert.All(parts.Parts, p => Assert.True(p.Count > 0 && double.IsFinite(p.Count) && p.Name.Length > 0 && !(p.Each < 0), p.Key));
        Assert.Equal(parts.WithoutPrice, parts.Parts.Count(p => p.Each is null));
        var told = WalkThrough.Text(design);
        Assert.All(LabelsResult.Work(design).Sleeves, s => Assert.Contains($"   {s.Tag}: ", told, StringComparison.Ordinal));
        Assert.NotEmpty(SupplierBrief.Of(design));
    }

    /// <summary>
    /// Whoever orders everything, sets every charger and then only does what may be done comes to the end of any design, and never meets
    /// something that must be undone: the rules of the build bar nobody for ever, and none is broken by what another allows.
    /// </summary>
    [Property]
    public void What_may_be_done_leads_to_the_end(DesignDocument design)
    {
        foreach (var bank in design.Banks)
        foreach (var source in bank.Sources)
        foreach (var name in new[] { "absorbV", "absorbMinutes", "floatV", "equaliseV", "compensationMvPerK", "leastC", "amps" })
            design = ListBack.WithSetting(design, bank.Id, source.Id, name, true, null, null) ?? design;
        // A battery type is chosen at the device, not ticked.
        design = design with { Banks = [.. design.Banks.Select(b => b with { Sources = [.. b.Sources.Select(WithoutPreset)] })] };
        var marks = BuildLedger.Work(design with { Ledger = [] }).Rows.ToDictionary(r => r.Part.Key, r => (Row: r, Stop: LedgerStop.Here));
        foreach (var (key, (row, _)) in marks)
            if (row.Kind == LedgerKind.Store)
                marks[key] = (row, row.Top);
        DesignDocument Now() =>
            design with
            {
                Ledger =
                [
                    .. marks.Values.Select(m => new LedgerEntry
                    {
                        Key = m.Row.Part.Key,
                        Marks =
                        [
                            new()
                            {
                                Stop = m.Stop,
                                Count = m.Row.Part.Count,
                                Reason = "seen",
                            },
                        ],
                    }),
                ],
            };
        for (var turn = 0; turn <= 2 * marks.Count; turn++)
        {
            var ledger = BuildLedger.Work(Now());
            Assert.DoesNotContain(ledger.Bans, b => b.Broken);
            if (ledger.Acts.FirstOrDefault(a => a.Stop is LedgerStop.Fitted or LedgerStop.Proven) is not { } act)
                break;
            foreach (var key in act.Keys)
                marks[key] = (marks[key].Row, act.Stop!.Value);
        }
        Assert.All(marks.Values, m => Assert.True(m.Stop == m.Row.Top, m.Row.Part.Key));
    }

    private static Source WithoutPreset(Source s) => s with { Presets = [], Settings = s.Settings with { Preset = null } };

    /// <summary>A simulator that is given the netlist of any design finds the currents that the Evaluation has.</summary>
    [Property]
    public void A_netlist_gives_the_currents(DesignDocument design)
    {
        if (Netlist.Of(design, 0) is not { } netlist)
            return;
        var currents = NetlistTests.Solve(netlist);
        var strings = new SiteWork(design)[0].Network.Value!.Strings;
        // Of thousands of millions of amperes the last digits are noise.
        foreach (var (i, amps) in strings.Amps.Index())
            Assert.Equal(amps, currents[$"VI{Say.StringName(i + 1)}"], 1e-6 * Math.Max(1, Math.Abs(amps)) + 1e-9 * strings.BankA);
    }

    /// <summary>
    /// What is asked of a bank apart (run down, joined, grown) has an answer for any design: energy that comes out and stays is never more
    /// than was in it, hours rise, and every line that is printed gives its figure.
    /// </summary>
    [Property]
    public void What_is_asked_of_a_bank_is_answered(DesignDocument design)
    {
        if (BankRunDown.Work(design, 0, null, null) is { } answer)
        {
            var run = answer.Run;
            // A step counts its volts at its beginning.
            Assert.True(
                run.DeliveredWh + run.StrandedWh <= run.HeldWh * 1.005 + 1e-6,
                $"{run.DeliveredWh} and {run.StrandedWh} of {run.HeldWh}: {run.Headline}"
            );
            Assert.Equal(run.Hours.Order(), run.Hours);
            Assert.NotEmpty(run.Headline);
            foreach (var e in answer.Working)
                Assert.True(Math.Abs(FormReader.Work(e) - e.Value) <= 1e-6 * Math.Max(1, Math.Abs(e.Value)), e.Pointer);
        }
        if (JoiningTrial.Work(design, 0, default, default) is { } joining)
            Assert.True(joining.RushA >= 0 && joining.Join == joining.Instead is null, joining.Words);
        if (GrownBank.Work(design, 0) is { } grown)
            Assert.Equal("As it is", grown.Options[0].Title);
    }

    /// <summary>
    /// Kirchhoff across the stages: what leaves the bus is what the bank gives, what its strings add up to and what the main run carries;
    /// and each run that hangs on the bus by itself carries what flows there.
    /// </summary>
    [Property]
    public void What_leaves_the_bus_is_what_the_bank_gives(DesignDocument design)
    {
        var work = new SiteWork(design)[0];
        if (work.Flows.Value is not { } flows)
            return;
        static void Same(double a, double b) =>
            Assert.True(Math.Abs(a - b) <= 1e-9 * Math.Max(1, Math.Max(Math.Abs(a), Math.Abs(b))), $"{a} against {b}");
        Same(flows.All.Sum(f => f.Out.WorstA), flows.Bank.WorstA);
        Same(flows.Inverter.WorstA + flows.Beside.WorstA, flows.Bank.WorstA);
        // As long as nothing draws it is what the bank may give, and nothing else.
        var offer = flows.All.Where(f => f.Kind == FlowKind.Bank).Sum(f => f.Out.SurgeA);
        if (flows.IsOffer && offer > 0)
        {
            Same(flows.Bank.WorstA, flows.Bank.SurgeA);
            Same(flows.Bank.WorstA, flows.Bank.RunningA);
        }
        Same(
            offer + flows.DcLoads.SurgeA + flows.Own.SurgeA + flows.Joins.SurgeA + flows.FurtherInverters.SurgeA + flows.Inverter.SurgeA,
            flows.Bank.SurgeA
        );
        Same(flows.All.Sum(f => f.ChargingA), flows.ChargingA);
        if (work.Loads.Value is { } loads && work.Voltage.Value is { } voltage)
            Same(loads.PeakDcW / voltage.LowV, flows.DcLoads.WorstA);
        var bank = work.Evaluation();
        if (bank.Currents is not { } currents)
            return;
        Same(flows.Bank.WorstA, currents.BankWorstA);
        Same(flows.Bank.NominalA, currents.BankNominalA);
        Same(flows.Bank.RunningA, currents.LoadWorstA);
        Same(flows.Bank.SurgeA, currents.SurgeWorstA);
        if (bank.MainRun is { } run)
            Same(Math.Max(flows.Bank.WorstA, flows.ChargingA), run.DesignA);
        if (bank.Network is { } network)
        {
            Same(flows.Bank.WorstA, network.Strings.BankA);
            Assert.True(Math.Abs(network.Strings.Amps.Sum() - network.Strings.BankA) <= 1e-6 * Math.Max(1, network.Strings.BankA));
        }
        foreach (var circuit in bank.Circuits)
            if (
                circuit.Kind
                is CircuitKind.Own
                    or CircuitKind.Inverter
                    or CircuitKind.FurtherInverter
                    or CircuitKind.Charge
                    or CircuitKind.Join
            )
                Assert.Contains(flows.All, f => f.Run == circuit.Id && Math.Max(f.Out.WorstA, f.ChargingA) == circuit.Run.DesignA);
    }

    /// <summary>Along every run the volts only fall, and no run ends above what it begins with.</summary>
    [Property]
    public void Volts_only_fall_along_the_runs(DesignDocument design)
    {
        var bank = design.Bank();
        if (bank.Bus is not { } bus)
            return;
        foreach (var pole in new[] { bus.Plus, bus.Minus })
            for (var i = 1; i < pole.Count; i++)
                Assert.True(
                    pole[i].LostBeforeV >= pole[i - 1].LostV - 1e-9 && pole[i].AtM >= pole[i - 1].AtM - 1e-9
                        || pole[i].Part == LoopPart.Bus,
                    $"{pole[i]}"
                );
        foreach (var c in bank.Circuits)
        {
            foreach (var pole in new[] { c.Plus, c.Minus })
                for (var i = 1; i < pole.Count; i++)
                    Assert.True(
                        pole[i].LostBeforeV >= pole[i - 1].LostV - 1e-9 && pole[i].AtM >= pole[i - 1].AtM - 1e-9,
                        $"{c.Id}: {pole[i]}"
                    );
            // Both poles together lose what the run drops.
            if (c.Run.Drop.V is { } lost)
                Assert.True(Math.Abs(c.Plus[^1].LostV + c.Minus[^1].LostV - lost) <= 1e-9 * Math.Max(1, lost), c.Id);
        }
        foreach (var c in bank.Circuits)
            if (c is { Run: { Drop.EndV: { } end, Drop.V: { } drop } })
                Assert.True(drop >= 0 && end <= (c.Behind ? c.NominalV : bank.Voltage!.LowV) + 1e-9, c.Id);
    }

    /// <summary>What is asked for apart is total too, and every change it offers gives a document that is accepted.</summary>
    [Property]
    public void What_is_asked_for_apart_is_total(DesignDocument design)
    {
        Assert.NotEmpty(JsonSerializer.Serialize(BankAtLoad.Work(design, 0, null), DesignFormat.Options));
        Assert.NotEmpty(JsonSerializer.Serialize(BankAtLoad.Work(design, 0, 250), DesignFormat.Options));
        Assert.NotEmpty(JsonSerializer.Serialize(UnitChoices.Work(design, 0, []), DesignFormat.Options));
        Assert.NotEmpty(JsonSerializer.Serialize(InverterChoices.Work(design, 0, []), DesignFormat.Options));
        var offered = new List<IReadOnlyList<DesignChange>>();
        offered.AddRange(WhatIfs.Work(design, 0).Select(w => w.Changes));
        offered.AddRange(BankSteps.Work(design, 0).Select(b => b.Changes));
        offered.AddRange(VoltageLadder.Work(design, 0).Where(r => !r.Here).Select(r => r.Changes));
        var screening = BuildSearch.Screen(design, 0, Catalogue.Units);
        foreach (var choice in screening.Left.Take(3))
        {
            Assert.NotEmpty(JsonSerializer.Serialize(BuildMaker.Of(design, 0, choice, new()), DesignFormat.Options));
            offered.Add(BuildBank.Changes(design, 0, choice));
        }
        Assert.NotEmpty(
            JsonSerializer.Serialize(BuildCompare.Work(design, 0, [null, .. screening.Left.Take(2)], new()), DesignFormat.Options)
        );
        Assert.NotEmpty(JsonSerializer.Serialize(RuleBoard.Rows(design, 0), DesignFormat.Options));
        Assert.NotEmpty(JsonSerializer.Serialize(Schedules.Work(design, 0), DesignFormat.Options));
        foreach (var run in new[] { "main", "load-l0", "source-s0" })
            Assert.NotEmpty(JsonSerializer.Serialize(RunTrials.Work(design, 0, run), DesignFormat.Options));
        foreach (var changes in offered)
            Assert.Empty(DesignCheck.Faults(DesignFormat.With(design, changes)));
    }

    [Property]
    public void Written_and_read_again_it_is_the_same(DesignDocument design)
    {
        var text = DesignFormat.Write(design);
        Assert.Equal(text, DesignFormat.Write(DesignFormat.Read(text)));
        Assert.True(JsonNode.DeepEquals(JsonNode.Parse(text), JsonNode.Parse(DesignFormat.Write(DesignFormat.With(design, [])))));
    }
}

file static class Judge
{
    public static BankEvaluation Bank(this DesignDocument design) => Evaluator.Evaluate(design).Banks[0];
}

using System.Text.Json;
using InkyBadger.Core.Demand;
using InkyBadger.Core.Design;
using InkyBadger.Core.Findings;
using InkyBadger.Core.Reference;
using InkyBadger.Core.Work;

namespace InkyBadger.Core.Practice;

/// <summary>What a made-up bank is made of, by how much there is to look at.</summary>
internal enum BankSize
{
    /// <summary>A unit, a fuse and a load.</summary>
    Three,

    /// <summary>One bank with what hangs on it.</summary>
    One,

    /// <summary>A second bank, joined to the first.</summary>
    Two,
}

/// <summary>
/// Banks in which nothing is wrong: an invented demand, worked out by the tool, mended until no finding but notes is left, and then written
/// down as it stands, so that a fault planted in it changes that alone.
/// </summary>
internal static class GoodBanks
{
    private sealed record Somewhere(string Name, string Words, bool Moves);

    private static readonly Somewhere[] Places =
    [
        new("Kiln Yard trailer", "A trailer somebody else wired", true),
        new("Otter Reach barge", "A barge bought with its batteries", true),
        new("Quern Point sloop", "A boat two owners have worked on", true),
        new("Hollow Lane van", "A van fitted out in a hurry", true),
        new("Saltmarsh hut", "A cabin nobody has looked at for years", false),
        new("Plover Row pump house", "A standby room with no papers", false),
        new("Sedge Island field station", "A field station built by its users", false),
        new("Bramble Hill sheepfold", "A fold with lights and a pump", false),
    ];

    /// <summary>Units small enough to be lifted, of kinds that need no vent: none of a good bank has anything to say for itself.</summary>
    private static readonly (int SystemV, string Unit, int Series, int Most)[] Kinds =
    [
        (12, "lfp-12-100-bt", 1, 3),
        (12, "lfp-12-200", 1, 3),
        (24, "lfp-12-100-bt", 2, 3),
        (24, "lfp-12-200", 2, 2),
        (24, "lfp-24-100", 1, 4),
        (48, "lfp-12-100-bt", 4, 2),
        (48, "lfp-48-50", 1, 4),
        (12, "cell-lfp-280", 4, 2),
        (24, "cell-lfp-105", 8, 2),
        (12, LeadKey, 1, 4),
    ];

    private const string LeadKey = "found-agm-12-80";

    /// <summary>A block of lead that one person lifts.</summary>
    private static readonly UnitItem Lead = Catalogue.Units.First(u => u.Key == "agm-12-100") with
    {
        Key = LeadKey,
        Name = "AGM 12 V 80 Ah",
        Ah = 80,
        MassKg = 23.5,
        MaxParallel = 6,
    };

    private static readonly (string Name, double Watts, double Start, double Seconds, double From, double Hours, bool Wave)[] AcLoads =
    [
        ("Kettle", 1000, 0, 0, 7, 0.25, false),
        ("Bench grinder", 550, 1400, 0.8, 9, 1, false),
        ("Shop vacuum", 900, 1700, 0.5, 11, 0.5, false),
        ("Microwave", 1100, 0, 0, 12.5, 0.25, true),
        ("Pillar drill", 650, 1600, 0.6, 14, 1, false),
        ("Television", 90, 0, 0, 19, 3, true),
        ("Sewing machine", 120, 300, 0.4, 16, 1.5, true),
        ("Well pump", 800, 2200, 0.9, 18, 0.5, false),
        ("Soldering station", 80, 0, 0, 10, 1, false),
        ("Small press", 250, 500, 0.5, 15, 0.5, false),
    ];

    private const double MostWAtTwelve = 500;

    /// <summary>Of <see cref="Kinds"/>, what one unit may be.</summary>
    private static readonly int[] Small = [0, 1, 9];

    /// <summary>Banks that drive something, beside the house bank.</summary>
    private static readonly (int SystemV, string Unit, int Series, int Most)[] Second =
    [
        (48, "lfp-48-50", 1, 3),
        (48, "lfp-12-100-bt", 4, 2),
        (24, "lfp-24-100", 1, 3),
        (12, "lfp-12-200", 1, 2),
    ];

    private static Load Motor(int volts) =>
        new()
        {
            Id = "m1",
            Name = "Drive motor",
            Kind = LoadKind.Dc,
            Watts = 25 * volts,
            Hours = 1,
            Window = new() { MinV = Math.Round(volts * 0.83), MaxV = Math.Round(volts * 1.3) },
        };

    private static readonly (string Name, int Quantity, double Watts, double Hours, double Start)[] DcLoads =
    [
        ("Lights", 4, 12, 5, 0),
        ("Water pump", 1, 60, 0.5, 110),
        ("Radio", 1, 15, 4, 0),
        ("Fan", 1, 30, 6, 0),
        ("Chart table", 1, 40, 6, 0),
        ("Cool box", 1, 45, 8, 90),
        ("Anchor light", 1, 5, 10, 0),
    ];

    /// <summary>The name of a place, and what is said of it.</summary>
    public static (string Name, string Words) PlaceOf(int seed) => Places[seed % Places.Length] is var p ? (p.Name, p.Words) : default;

    /// <summary>A bank in which nothing is wrong; of a number there are as many as one asks for.</summary>
    /// <param name="seed">The number.</param>
    /// <param name="size">What it is made of.</param>
    /// <param name="which">From 0.</param>
    public static DesignDocument Make(int seed, BankSize size, int which = 0)
    {
        var left = which;
        for (ulong again = 0; again < MostDraws; again++)
            if (Settle(Draw(new SplitMix((ulong)seed * 0x9E3779B97F4A7C15 + again), seed, size)) is { } good && left-- == 0)
                return good;
        throw new InvalidOperationException($"no good bank for {seed}");
    }

    private const int MostDraws = 60;

    private static DesignDocument Draw(SplitMix draws, int seed, BankSize size)
    {
        var place = Places[seed % Places.Length];
        var banks = new List<Bank> { DrawBank(ref draws, 1, size == BankSize.Three, withAc: size != BankSize.Three, 0) };
        var joins = new List<Join>();
        if (size == BankSize.Two)
        {
            banks.Add(DrawBank(ref draws, 2, small: false, withAc: false, draws.Of(2) == 0 ? banks[0].SystemV!.Value : 0));
            joins.Add(
                new()
                {
                    Id = "j1",
                    From = "b1",
                    To = "b2",
                    Kind = JoinKind.DcDc,
                    Amps = 10,
                    Hours = 3,
                }
            );
        }
        return new()
        {
            Name = $"{place.Name}, bank {seed}",
            Place = new()
            {
                AmbientC = 20,
                LatitudeDeg = 52,
                Climate = "maritime",
                ColdestC = -10,
            },
            HouseRules = new(),
            Banks = banks,
            Joins = joins,
        };
    }

    private static Bank DrawBank(ref SplitMix draws, int number, bool small, bool withAc, int likeV)
    {
        var second = Second.Where(k => k.SystemV == likeV).ToArray() is { Length: > 0 } like ? like : Second;
        var (volts, unit, series, most) =
            number == 2 ? second[draws.Of(second.Length)] : Kinds[small ? Small[draws.Of(Small.Length)] : draws.Of(Kinds.Length)];
        var loads = new List<Load>();
        if (number == 2)
            loads.Add(Motor(volts) is var motor && draws.Of(2) == 0 ? motor : motor with { Window = null });
        var count =
            number == 2 ? 0
            : small ? 1
            : 2 + draws.Of(2);
        var first = draws.Of(DcLoads.Length);
        for (var i = 0; i < count; i++)
        {
            var l = DcLoads[(first + i * 2) % DcLoads.Length];
            if (loads.Any(x => x.Name == l.Name))
                continue;
            loads.Add(
                new()
                {
                    Id = $"d{number}{i + 1}",
                    Name = l.Name,
                    Kind = LoadKind.Dc,
                    Quantity = l.Quantity,
                    Watts = l.Watts * (volts == 48 ? 2 : 1),
                    Hours = l.Hours,
                    SurgeWatts = l.Start * (volts == 48 ? 2 : 1),
                    Window =
                        draws.Of(2) == 0 ? null
                        : volts == 48 ? new() { MinV = 40, MaxV = 60 }
                        : new() { MinV = 10, MaxV = volts == 12 ? 15.5 : 32 },
                }
            );
        }
        // Lead gives its hours to small things alone.
        withAc &= unit != LeadKey;
        if (withAc)
        {
            // More than some hundred watts are no good design at 12 V.
            var choice = volts == 12 ? AcLoads.Where(l => Math.Max(l.Watts, l.Start) <= MostWAtTwelve).ToArray() : AcLoads;
            first = draws.Of(choice.Length);
            count = 2 + draws.Of(2);
            for (var i = 0; i < Math.Min(count, choice.Length); i++)
            {
                var l = choice[(first + i * (volts == 12 ? 1 : 3)) % choice.Length];
                loads.Add(
                    new()
                    {
                        Id = $"a{i + 1}",
                        Name = l.Name,
                        Kind = LoadKind.Ac,
                        Watts = l.Watts,
                        Windows =
                        [
                            [l.From, l.From + l.Hours],
                        ],
                        SurgeWatts = l.Start,
                        StartSeconds = l.Start > 0 ? l.Seconds : null,
                        WaveSensitive = l.Wave,
                    }
                );
            }
        }
        var item = unit == LeadKey ? Lead : Catalogue.Units.First(u => u.Key == unit);
        var strings = small ? 1 : most - draws.Of(Math.Min(most, 3));
        List<Source> sources = small || number == 2 ? [] : DrawSources(ref draws, volts, unit == LeadKey);
        return new()
        {
            Id = $"b{number}",
            Name = number == 1 ? "House bank" : "Motor bank",
            SystemV = volts,
            Unit = item,
            Bms = item.IsBare() ? Catalogue.Bms.First(b => b.ContinuousA >= 150) : null,
            Series = series,
            Parallel = strings,
            Positions = draws.Of(2) == 0 ? [] : Tested(strings, series, draws.Of(3)),
            Demand = new() { Loads = loads },
            Inverters = withAc
                ?
                [
                    new()
                    {
                        Id = $"i{number}",
                        Feeds = "sockets",
                        Charger = draws.Of(2) == 0 ? ChargerFeed.Shore : null,
                    },
                ]
                : [],
            Runs =
            [
                Run.AdvisedMain with
                {
                    LengthM = 1 + draws.Of(5) * 0.25,
                    PreCharge = volts >= 24,
                },
                // What hangs on the bus is spared by the main fuse, and spares it.
                .. sources
                    .Select(x => Run.SourcePrefix + x.Id)
                    .Append(Run.JoinPrefix + "j1")
                    .Select(id => new Run
                    {
                        Id = id,
                        Fuse = new() { Class = RunStage.AdvisedClass },
                    }),
            ],
            Wiring = new() { Style = draws.Of(3) == 0 && strings > 1 ? WiringStyle.BusBars : WiringStyle.Diagonal },
            Sources = sources,
        };
    }

    /// <summary>Units of one age that somebody has tested, or filled before they were joined: all of them alike.</summary>
    private static List<Position> Tested(int strings, int series, int how) =>
        [
            .. from s in Enumerable.Range(1, strings)
            from u in Enumerable.Range(1, series)
            select new Position
            {
                String = s,
                Unit = u,
                AgeYears = how == 2 ? null : 1,
                Health = how == 1 ? 0.98 : null,
                Soc = how == 0 ? null : 1,
            },
        ];

    private static List<Source> DrawSources(ref SplitMix draws, int volts, bool lead)
    {
        // Lead is charged gently.
        var scale = (lead ? 3.0 : 12.0) / volts;
        var sources = new List<Source>();
        // At 48 V an array that reaches the bank is above what may be touched: no roof of a bank without a finding.
        if (volts < 48)
            sources.Add(
                new()
                {
                    Id = "roof",
                    Name = "Roof",
                    Kind = SourceKind.Solar,
                    Amps =
                        lead ? 10
                        : volts == 24 ? 30
                        : 35,
                    Place = "roof",
                    Array = new()
                    {
                        Module = new()
                        {
                            Name = "110 W module",
                            Watts = 110,
                            VocV = 24.3,
                            VmpV = 20.3,
                            IscA = 5.8,
                            MaxFuseA = 15,
                        },
                        Series = volts == 24 ? 2 : 1,
                        Strings = lead ? 1 : 2,
                        TiltDeg = 10,
                        ControllerMaxV = 75,
                        ControllerMaxIscA = 30,
                    },
                }
            );
        if (draws.Of(2) == 0)
            sources.Add(
                new()
                {
                    Id = "plug",
                    Name = "Plug",
                    Kind = SourceKind.Mains,
                    Amps = Math.Round(30 * scale),
                    Supply = new() { Amps = 10 },
                    Windows =
                    [
                        [20, 8],
                    ],
                }
            );
        else
            sources.Add(
                new()
                {
                    Id = "engine",
                    Name = "Engine",
                    Kind = SourceKind.DcDc,
                    Amps = Math.Round(30 * scale),
                    Engine = new() { AlternatorA = 120, VehicleA = 25 },
                    Windows =
                    [
                        [8, 10],
                    ],
                }
            );
        return sources;
    }

    /// <summary>Mends pressed as they come are enough for whatever a draw of these kinds has wrong.</summary>
    private const int MostMends = 12;

    private static DesignDocument? Settle(DesignDocument design)
    {
        if (DesignCheck.Faults(design).Count > 0)
            return null;
        for (var i = 0; i < MostMends; i++)
        {
            var findings = Evaluator.Evaluate(design).Findings;
            var wrong = findings.Where(f => f.Grade < Grade.Note).ToList();
            if (wrong.Count == 0)
            {
                var pinned = Labelled(AsItStands(design));
                return Evaluator.Evaluate(pinned, mends: false).Findings.All(f => f.Grade == Grade.Note) ? pinned : null;
            }
            if (wrong.Select(f => f.Mends.Count > 0 ? f.Mends[0] : null).FirstOrDefault(m => m is not null) is { } mend)
                design = DesignFormat.With(design, mend.Changes);
            else if (wrong.Find(f => f.Rule == "fuse.together") is { } together && Larger(design, together.Bank) is { } larger)
                design = larger;
            else
                return null;
        }
        return null;
    }

    /// <summary>
    /// The next main fuse with the copper it asks for, where it would open with what hangs behind it; null: there is
    /// none.
    /// </summary>
    private static DesignDocument? Larger(DesignDocument design, string bank)
    {
        var at = design.Banks.Index().First(b => b.Item.Id == bank).Index;
        var fuse = Evaluator.Evaluate(design, mends: false).Banks[at].MainRun!.Fuse;
        if (FuseClasses.Get(fuse.Class).Next(fuse.RatingA!.Value * 1.3) is not { } rating)
            return null;
        var main = design.Banks[at].WithRun(Run.MainId, r => r with { Fuse = r.Fuse with { RatingA = rating } });
        return design with { Banks = [.. design.Banks.Select((b, i) => i == at ? main : b)] };
    }

    /// <summary>Every choice that stood as advised, written down.</summary>
    public static DesignDocument AsItStands(DesignDocument design)
    {
        var e = Evaluator.Evaluate(design, mends: false);
        return design with { Banks = [.. design.Banks.Select((b, i) => AsItStands(b, e.Banks[i]))] };
    }

    private static Bank AsItStands(Bank bank, BankEvaluation e)
    {
        var layout = e.Bank!.Layout;
        if (e.MainRun is { } main)
            bank = bank.WithRun(Run.MainId, r => AsItStands(r, main));
        foreach (var c in e.Circuits)
            bank = bank.WithRun(c.Id, r => AsItStands(r, c.Run));
        if (e.StringFuses is { Fitted: true } strings)
            bank = bank.WithRun(Run.StringsId, r => r with { Fuse = new() { Class = strings.FuseClass, RatingA = strings.RatingA } });
        else if (e.StringFuses is { Fitted: false })
            bank = bank.WithRun(Run.StringsId, r => r with { Fuse = new() { Absent = true } });
        if (e.Bonding is { } bonding)
            bank = bank.WithRun(Run.BondingId, r =>
                r with
                {
                    Size = bonding.Size,
                    Parallel = bonding.Conductors,
                    LengthM = bonding.LengthM,
                }
            );
        return bank with
        {
            Series = layout.Series,
            Parallel = layout.Parallel,
            SystemV = e.Voltage!.SystemV,
            Inverters =
            [
                .. bank.Inverters.Select(
                    (x, i) => i == 0 && e.Inverter is { Item: { } item } inverter ? x with { Item = item, Stack = inverter.Stack } : x
                ),
            ],
            Wiring = bank.Wiring with
            {
                Style = e.Network?.Wiring.Style ?? bank.Wiring.Style,
                Jumper = Of(e.Network?.Copper.Jumper),
                Link = Of(e.Network?.Copper.Link),
                Lead = Of(e.Network?.Copper.Lead),
            },
        };
    }

    private static readonly double[] BusRatings = [100, 150, 250, 400, 600],
        SwitchRatings = [50, 100, 150, 200, 275, 350, 500],
        SwitchVolts = [32, 60, 80];

    /// <summary>
    /// What is printed on things whether they suit or not: a label that stood there only where it is wrong would tell it.
    /// </summary>
    public static DesignDocument Labelled(DesignDocument design)
    {
        var e = Evaluator.Evaluate(design, mends: false);
        return design with { Banks = [.. design.Banks.Select((b, i) => Labelled(b, e.Banks[i]))] };
    }

    /// <summary>
    /// A bank of a design chosen anew in copper, fuses and settings, and labelled: what was changed in it is all that is
    /// wrong.
    /// </summary>
    /// <param name="strings">Their number is chosen anew too.</param>
    public static DesignDocument Again(DesignDocument design, int bank, bool strings)
    {
        var b = design.Banks[bank];
        var free = b with
        {
            Parallel = strings ? null : b.Parallel,
            Positions = strings ? [] : b.Positions,
            Wiring = b.Wiring with { Jumper = null, Link = null, Lead = null },
            Sources = [.. b.Sources.Select(x => x with { Settings = new() })],
            Runs =
            [
                .. b
                    .Runs.Where(r => r.Id is not (Run.BondingId or Run.StringsId))
                    .Select(r =>
                        r with
                        {
                            Size = null,
                            Parallel = null,
                            Fuse = new() { Class = r.Id == Run.MainId ? null : r.Fuse.Class },
                            BusRatingA = null,
                            Switch = null,
                        }
                    ),
            ],
        };
        return Labelled(AsItStands(design with { Banks = [.. design.Banks.Select((x, i) => i == bank ? free : x)] }));
    }

    private static Bank Labelled(Bank bank, BankEvaluation e)
    {
        if (e is { MainRun: { Fuse.RatingA: { } fuse, DesignA: var design }, Protection: { } protection })
            bank = bank.WithRun(Run.MainId, r =>
                r with
                {
                    BusRatingA = BusRatings.FirstOrDefault(a => a >= Math.Max(fuse, design), BusRatings[^1]),
                    Switch = new()
                    {
                        RatingA = SwitchRatings.FirstOrDefault(a => a >= Math.Max(design, protection.Surge.Amps), SwitchRatings[^1]),
                        MaxDcV = SwitchVolts.FirstOrDefault(v => v >= protection.GreatestChargingV, SwitchVolts[^1]),
                    },
                }
            );
        return bank with
        {
            Inverters =
            [
                .. bank.Inverters.Select(x => x with { OnH = e.Energy is { } energy ? Math.Ceiling(2 * energy.Day.NeededOnH) / 2 : null }),
            ],
            Sources =
            [
                .. bank.Sources.Select(x =>
                    e.Charging?.Wants is not { } wants
                        ? x
                        : x with
                        {
                            Settings = x.Settings with
                            {
                                AbsorbV = new() { Value = Math.Round(wants.AbsorbV, 1) },
                                FloatV = new() { Value = Math.Round(wants.FloatV, 1) },
                                EqualiseV = new() { Value = 0 },
                                CompensationMvPerK = new() { Value = wants.TempCompMvPerK },
                            },
                        }
                ),
            ],
        };
    }

    private static Design.Conductor? Of(BankConductor? c) =>
        c is null
            ? null
            : new()
            {
                LengthM = c.LengthM,
                Size = c.Size,
                Parallel = c.Conductors,
            };

    private static Run AsItStands(Run run, RunResult r) =>
        run with
        {
            LengthM = r.Laid.LengthM,
            Size = r.Cable.Size,
            Parallel = r.Cable.Conductors,
            Bundled = run.Bundled ?? (r.Cable.Conductors > 1 ? 1 : null),
            Fuse = run.Fuse.Absent
                ? run.Fuse
                : new()
                {
                    Class = r.Fuse.Class,
                    RatingA = r.Fuse.RatingA,
                    DistanceM = r.Fuse.DistanceM,
                },
        };
}

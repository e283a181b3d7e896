using InkyBadger.Core.Banks;
using InkyBadger.Core.Design;
using InkyBadger.Core.Reference;

namespace InkyBadger.Core.Work;

/// <summary>Where the bank stands: room and what is asked of it, weight, and how long links and jumpers have to be there.</summary>
internal static class StandStage
{
    /// <summary>Over the units: stud and nut, lug and cover of a cable, or a flat bar under its nut [mm]; typical, M8 and 50 mm².</summary>
    public const double StudMm = 20,
        LugMm = 14,
        FlatMm = 14;

    /// <summary>Air under a wooden lid [mm], and over units whose posts are not on top.</summary>
    private const double WoodAirMm = 10,
        NoPostMm = 5;

    /// <summary>A stop that straps must hold, in weights, and what one strap is loaded with [N]; typical.</summary>
    private const double StopG = 2,
        EarthG = 9.81,
        StrapN = 1250;

    /// <summary>Of a cable’s outside diameter: the inner radius of its bend; and that diameter by its copper [mm]; typical.</summary>
    private const double BendOfDiameter = 6,
        DiameterOfRoot = 1.91;

    /// <summary>More than this no hand lifts [kg].</summary>
    private const double MachineKg = 55;

    /// <summary>A cable is longer than the way between its posts: by this share, and by its lugs [m]; typical.</summary>
    private const double Slack = 1.15,
        LugsM = 0.02;

    public static Step<StandResult> Work(BankWork w)
    {
        var (pack, bank) = (w.Pack.Need(), w.Document);
        if (pack.Strings.Any(s => s.Units.Any(u => u.Item.Size is null)))
            return new Gap(Station.Bank, "/compartments", "give the units’ size");
        var layout = bank.Compartments.Count > 0 ? new UnitLayout(bank, pack) : null;
        var compartments = layout is null ? [] : bank.Compartments.Select((c, i) => CompartmentOf(w, pack, c, layout.In[i])).ToList();
        var result = new StandResult(
            compartments,
            layout?.Without ?? 0,
            Needs(w, pack),
            LiftOf(w, pack),
            TrimOf(w, compartments),
            layout is null ? [] : Measured(pack, layout)
        );
        if (w.Tape is { } tape)
            StandWorking.Write(tape, w, result);
        return result with { Headline = HeadlineOf(w, pack, result) };
    }

    private static string HeadlineOf(BankWork w, Pack pack, StandResult r)
    {
        string Mm(double mm) => $"{Say.Number(Math.Abs(mm))} mm";
        var units = pack.Parallel * pack.Series;
        if (r.Compartments.Count == 0)
            return r.Needs is [var row, ..]
                ? $"{Say.Count(units)} {(units == 1 ? "unit needs" : "units in one row need")} {Say.Number(row.LengthMm)} × "
                    + $"{Say.Number(row.WidthMm)} × {Mm(row.HeightMm)}"
                : "Nobody has said where this bank stands";
        foreach (var (i, c) in r.Compartments.Index())
        {
            if (c.Units.Count == 0)
                continue;
            var name = w.Document.Compartments[i].Name is { Length: > 0 } own ? own : "compartment";
            var worst = c.Units.MaxBy(u => u.OverMm)!;
            if (worst.OverMm > Tolerant.Noise)
                return $"{Say.StringName(worst.String)}{worst.Unit} stands {Mm(worst.OverMm)} beyond the wall of the {name}";
            if (c.Units.FirstOrDefault(u => u.Into is not null) is { } into)
                return $"{Say.StringName(into.String)}{into.Unit} stands in {into.Into}";
            if (!Tolerant.AtLeast(c.Room.HeightLeftMm, 0))
                return $"The lid is {Mm(c.Room.HeightLeftMm)} too low over the {(c.Room.NutMm > 0 ? "posts" : "units")}: "
                    + $"{Mm(c.Room.OverWantedMm)} wanted, {Say.Number(Math.Max(0, c.Room.OverThereMm))} are there";
            if (c.Room.GapMm is { } gap && !Tolerant.AtLeast(gap, c.Room.GapAskedMm))
                return $"{Mm(gap)} between two units, {Mm(c.Room.GapAskedMm)} are asked";
        }
        var tightest = r.Compartments.Where(c => c.Units.Count > 0).Min(c => c.Room.HeightLeftMm);
        return $"{(units == 1 ? "The unit stands" : $"All {Say.Count(units).ToLowerInvariant()} units stand")} inside, {Mm(tightest)} left "
            + "under the lid";
    }

    /// <summary>The document’s compartments as lengths of conductors; null: there are none, or a unit has no size.</summary>
    internal static IReadOnlyList<MeasuredConductor> Lengths(Bank bank, Pack pack) =>
        bank.Compartments.Count == 0 || pack.Strings.Any(s => s.Units.Any(u => u.Item.Size is null))
            ? []
            : Measured(pack, new UnitLayout(bank, pack));

    private static CompartmentResult CompartmentOf(BankWork w, Pack pack, Compartment room, List<StandingUnit> units)
    {
        double? mass = 0;
        foreach (var u in units)
            mass += pack.Strings[u.String - 1].Units[u.Unit - 1].Item.MassKg;
        StrapResult? hold = null;
        if (mass is > 0 and var kg)
        {
            var pull = kg * EarthG * StopG;
            hold = new(StopG, pull, room.Straps, StrapN * (room.Straps ?? 0), (int)Math.Ceiling(pull / StrapN - Tolerant.Noise));
        }
        return new(room.Id, units, RoomOf(w, pack, room, units), mass, hold, BendOf(w, room, units));
    }

    private static double AirOf(BankWork w, Compartment room) =>
        room.AirMm
        ?? room.Lid switch
        {
            LidKind.Steel => w.Rules.Number("lid-air"),
            LidKind.Wood => WoodAirMm,
            _ => 0,
        };

    private static RoomResult RoomOf(BankWork w, Pack pack, Compartment room, List<StandingUnit> units)
    {
        var air = AirOf(w, room);
        bool OnTop(StandingUnit u) => !u.Lying && pack.Strings[u.String - 1].Units[u.Unit - 1].Item.TerminalSide != "front";
        var top = units.Exists(OnTop);
        double nut = !top ? 0
            : room.FlatBars ? FlatMm
            : StudMm + LugMm,
            wanted = top ? nut + air : Math.Min(air, NoPostMm),
            tallest = units.Select(u => u.HeightMm).DefaultIfEmpty(0).Max(),
            there = room.HeightMm - tallest;
        double? gap = null;
        for (var i = 0; i < units.Count; i++)
        for (var j = i + 1; j < units.Count; j++)
            gap = Math.Min(gap ?? double.MaxValue, UnitLayout.Apart(units[i], units[j]));
        double Left(double inside, Func<StandingUnit, double> at, Func<StandingUnit, double> size) =>
            units.Count == 0
                ? inside - 2 * UnitLayout.WallMm
                : inside - 2 * UnitLayout.WallMm - (units.Max(u => at(u) + size(u)) - units.Min(at));
        var (length, width) = (Left(room.LengthMm, u => u.XMm, u => u.LengthMm), Left(room.WidthMm, u => u.YMm, u => u.WidthMm));
        var fits =
            Tolerant.AtLeast(there, wanted)
            && units.TrueForAll(u => u.OverMm <= Tolerant.Noise && u.Into is null)
            && (gap is not { } g || Tolerant.AtLeast(g, UnitLayout.GapMm));
        return new(
            length,
            width,
            tallest,
            wanted,
            nut,
            top ? air : wanted,
            there,
            there - wanted,
            gap,
            UnitLayout.GapMm,
            fits,
            top ? [.. Ways(w, pack, room, units, air, there, Math.Min(length, width))] : []
        );
    }

    /// <summary>What would leave more over the units.</summary>
    private static IEnumerable<RoomWay> Ways(
        BankWork w,
        Pack pack,
        Compartment room,
        List<StandingUnit> units,
        double air,
        double there,
        double beside
    )
    {
        var asDrawn = (room.FlatBars ? FlatMm : StudMm + LugMm) + air;
        yield return new("as drawn", asDrawn, there, there - asDrawn, beside);
        if (!room.FlatBars)
            yield return new("flat bar", FlatMm + air, there, there - FlatMm - air, beside);
        if (Lying(pack, units) is not { } size)
            yield break;
        var fit = FitPack.Work(
            new(room.LengthMm, room.WidthMm, room.HeightMm),
            new(size.LengthMm, size.WidthMm, size.HeightMm),
            units.Count,
            true,
            pack.UsualUnit.Item.Chemistry
        );
        double lies = size.WidthMm,
            over = room.HeightMm - lies;
        var wanted = Math.Min(air, NoPostMm);
        // Beside each other along the compartment, or in rows: by the way that misses least.
        yield return new(
            "on the side",
            wanted,
            over,
            over - wanted,
            fit is { Fits: true, Orientation: PackOrientation.Lying or PackOrientation.LyingTurned }
                ? Math.Max(0, beside)
                : -Math.Min(
                    MissesLying(room.LengthMm, room.WidthMm, size, units.Count),
                    MissesLying(room.WidthMm, room.LengthMm, size, units.Count)
                )
        );
    }

    /// <summary>The size of units that may lie: of one kind, lithium with a BMS in it; flooded never.</summary>
    private static UnitSize? Lying(Pack pack, List<StandingUnit> units)
    {
        var items = units.Select(u => pack.Strings[u.String - 1].Units[u.Unit - 1].Item).ToList();
        return items.Count > 0 && items.TrueForAll(i => i.Size == items[0].Size && i.Chemistry is "lfp" or "nmc") ? items[0].Size : null;
    }

    /// <summary>What is missing along one side when so many lie on their long side in one row, lengths across [mm]; 0: nothing.</summary>
    private static double MissesLying(double along, double across, UnitSize size, int count)
    {
        var rows = Math.Max(1, (int)Math.Floor((across - 2 * UnitLayout.WallMm + UnitLayout.GapMm) / (size.LengthMm + UnitLayout.GapMm)));
        var inRow = (count + rows - 1) / rows;
        var asked = inRow * (size.HeightMm + UnitLayout.SidewaysMm) + (inRow - 1) * UnitLayout.GapMm + 2 * UnitLayout.WallMm;
        return Math.Max(0, Math.Max(asked - along, rows * size.LengthMm + 2 * UnitLayout.WallMm - across));
    }

    /// <summary>From the positive take-off’s post to the nearest wall.</summary>
    private static BendResult? BendOf(BankWork w, Compartment room, List<StandingUnit> units)
    {
        if (
            w.MainRun.Value?.Cable is not { Size: { } size, AreaMm2: { } area }
            || units.Find(u => u is { String: 1, Unit: 1 }) is not { } first
        )
            return null;
        var (x, y) = (first.Plus.XMm, first.Plus.YMm);
        var wall = Math.Min(Math.Min(x, room.LengthMm - x), Math.Min(y, room.WidthMm - y));
        return new(size, Math.Max(0, wall), BendOfDiameter * DiameterOfRoot * Math.Sqrt(area));
    }

    private static List<SpaceNeeded> Needs(BankWork w, Pack pack)
    {
        var items = pack.Strings.SelectMany(s => s.Units).Select(u => u.Item).ToList();
        var size = items[0].Size!;
        if (items.Exists(i => i.Size != size))
            return [];
        var over = (items[0].TerminalSide == "front" ? NoPostMm : StudMm + LugMm) + WoodAirMm;
        var list = new List<SpaceNeeded>();
        foreach (var rows in (int[])[1, 2, 4])
        {
            if (rows > items.Count)
                break;
            var inRow = (items.Count + rows - 1) / rows;
            double Span(double each, int n) => n * each + (n - 1) * UnitLayout.GapMm + 2 * UnitLayout.WallMm;
            list.Add(new(rows, Span(size.WidthMm, inRow), Span(size.LengthMm, rows), size.HeightMm + over));
        }
        return list;
    }

    private static HeaviestLift? LiftOf(BankWork w, Pack pack)
    {
        var masses = pack.Strings.SelectMany(s => s.Units).Select(u => u.Item.MassKg).ToList();
        return masses.Max() is { } kg
            ? new(kg, Math.Max(1, (int)Math.Ceiling(kg / w.Rules.Number("one-person-lifts") - Tolerant.Noise)), kg > MachineKg)
            : null;
    }

    private static TrimResult? TrimOf(BankWork w, IReadOnlyList<CompartmentResult> compartments)
    {
        var trim = w.Scene.Design.Place.Trim;
        var masses = new List<TrimMass>();
        foreach (var (c, at) in compartments.Zip(w.Document.Compartments))
            if (c.MassKg is > 0 and var kg)
            {
                if (at.ForwardM is not { } x)
                    return null;
                masses.Add(new(kg, x, at.RightM ?? 0));
            }
        if (masses.Count == 0)
            return null;
        var axles =
            trim is { FrontAxleM: { } front, RearAxleM: { } rear } && front > rear
                ? new TrimAxles(front, rear, trim.FrontKg ?? 0, trim.RearKg ?? 0, trim.FrontLimitKg, trim.RearLimitKg)
                : null;
        var r = FitTrim.Work(masses, axles, trim?.BalanceM is { } b && b != 0 ? b : null);
        return new(
            r.TotalKg,
            r.XM,
            r.YM,
            r.MomentKgm,
            r.FrontKg - axles?.FrontNowKg,
            r.RearKg - axles?.RearNowKg,
            r.FrontKg,
            r.RearKg,
            r.Fails ?? [],
            r.BalanceKg
        );
    }

    /// <summary>Jumpers and rail links between posts of one compartment; what goes from one to another is not measured here.</summary>
    private static List<MeasuredConductor> Measured(Pack pack, UnitLayout layout)
    {
        var at = new Dictionary<(int, int), (int Compartment, StandingUnit Unit)>();
        foreach (var (i, units) in layout.In.Index())
        foreach (var u in units)
            at[(u.String, u.Unit)] = (i, u);
        var list = new List<MeasuredConductor>();
        void Add(
            ConductorKind kind,
            Pole rail,
            int s,
            int after,
            (int, int) a,
            Func<StandingUnit, PostAt> from,
            (int, int) b,
            Func<StandingUnit, PostAt> to
        )
        {
            if (!at.TryGetValue(a, out var one) || !at.TryGetValue(b, out var other) || one.Compartment != other.Compartment)
                return;
            var (p, q) = (from(one.Unit), to(other.Unit));
            var way = Math.Sqrt((p.XMm - q.XMm) * (p.XMm - q.XMm) + (p.YMm - q.YMm) * (p.YMm - q.YMm)) / 1000;
            // Cut to the next centimetre.
            list.Add(new(kind, rail, s, after, Math.Max(0.01, Math.Ceiling((Slack * way + LugsM) * 100 - Tolerant.Noise) / 100)));
        }
        for (var s = 1; s <= pack.Parallel; s++)
        {
            for (var u = 1; u < pack.Series; u++)
                Add(ConductorKind.Jumper, Pole.Positive, s, u, (s, u), x => x.Minus, (s, u + 1), x => x.Plus);
            if (s == pack.Parallel)
                continue;
            Add(ConductorKind.Link, Pole.Positive, s, s, (s, 1), x => x.Plus, (s + 1, 1), x => x.Plus);
            Add(ConductorKind.Link, Pole.Negative, s, s, (s, pack.Series), x => x.Minus, (s + 1, pack.Series), x => x.Minus);
        }
        return list;
    }
}

using InkyBadger.Core.Banks;
using InkyBadger.Core.Design;
using InkyBadger.Core.Work;

namespace InkyBadger.Core.Findings;

/// <summary>Where the bank stands: room over and beside its units, straps, weight on axles.</summary>
internal static class StandFindings
{
    public static IEnumerable<Finding> All(FindingScene s)
    {
        if (s.Results.Stands is not { Compartments.Count: > 0 } stands)
            yield break;
        foreach (var (i, c) in stands.Compartments.Index())
        {
            if (c.Units.Count == 0)
                continue;
            foreach (var finding in new[] { Over(s, c, i), Beside(s, c, i), Gap(s, c, i), Straps(s, c, i), Bend(s, c, i) })
                if (finding is not null)
                    yield return finding with
                    {
                        About = c.Id,
                    };
        }
        if (Axles(s, stands) is { } axle)
            yield return axle;
    }

    private static string Mm(double mm) => $"{Say.Number(Math.Abs(mm))} mm";

    private static Bank With(FindingScene s, int index, Func<Compartment, Compartment> change) =>
        s.Bank with
        {
            Compartments = [.. s.Bank.Compartments.Select((c, i) => i == index ? change(c) : c)],
        };

    /// <summary>Nuts and lugs against the lid.</summary>
    private static Finding? Over(FindingScene s, CompartmentResult c, int index)
    {
        var room = c.Room;
        if (Tolerant.AtLeast(room.OverThereMm, room.OverWantedMm))
            return null;
        var lid = s.Bank.Compartments[index].Lid;
        var short_ = -room.HeightLeftMm;
        var air = room.OverThereMm - room.NutMm;
        var amps = s.Results.Protection?.Short.Amps;
        var steel = lid == LidKind.Steel && room.NutMm > 0;
        return s.Make(
            "place.height",
            steel ? Grade.Danger : Grade.Fault,
            Station.Bank,
            $"/compartments/{index}/heightMm",
            steel ? "The lid would touch the nuts" : $"The lid is {Mm(short_)} too low",
            steel
                ? $"{Mm(room.OverWantedMm)} wanted over the units, {Mm(Math.Max(0, room.OverThereMm))} are there: a steel lid over bare "
                    + (air > 0 ? $"nuts {Mm(air)} away" : "nuts")
                    + (amps is { } a ? $" is a short of {Say.A(a)} that no fuse sees." : " is a short that no fuse sees.")
                : $"{Mm(room.OverWantedMm)} wanted over the units, {Mm(Math.Max(0, room.OverThereMm))} are there.",
            [new("wanted", room.OverWantedMm, "mm"), new("there", room.OverThereMm, "mm")],
            () => Ways(s, c, index, short_)
        );
    }

    private static IEnumerable<MendOffer> Ways(FindingScene s, CompartmentResult c, int index, double shortMm)
    {
        string Left(BankWork then) =>
            then.Stands.Value?.Compartments[index].Room is { } r ? $"{Mm(r.OverWantedMm)} wanted, fits by {Mm(r.HeightLeftMm)}" : "";
        var compartment = s.Bank.Compartments[index];
        if (!compartment.FlatBars && c.Room.NutMm > 0)
            yield return FindingScene.Offer("Flat bar for the links", Left, With(s, index, x => x with { FlatBars = true }));
        if (compartment.Lid == LidKind.Steel && compartment.AirMm is null)
            yield return FindingScene.Offer("A wooden lid", Left, With(s, index, x => x with { Lid = LidKind.Wood }));
        yield return FindingScene.Offer(
            $"Raise the lid by {Mm(Math.Ceiling(shortMm))}",
            Left,
            With(s, index, x => x with { HeightMm = x.HeightMm + Math.Ceiling(shortMm) })
        );
        if (c.Units.Any(u => !u.Lying) && c.Room.Ways.Any(w => w is { Name: "on the side", LeftMm: >= 0, BesideMm: >= 0 }))
            yield return FindingScene.Offer("Lay the units on their side; ask the maker", Left, Laid(s, c, compartment));
    }

    /// <summary>Every unit of it on its long side, one beside the other.</summary>
    private static Bank Laid(FindingScene s, CompartmentResult c, Compartment room)
    {
        double x = UnitLayout.WallMm,
            y = UnitLayout.WallMm;
        var stands = new List<(StandingUnit Unit, UnitStand Stand)>();
        foreach (var u in c.Units.OrderByDescending(u => u.String).ThenByDescending(u => u.Unit))
        {
            var size = s.Work.Pack.Need().Strings[u.String - 1].Units[u.Unit - 1].Item.Size!;
            var across = size.HeightMm + UnitLayout.SidewaysMm;
            if (x + across > room.LengthMm - UnitLayout.WallMm + Tolerant.Noise)
                (x, y) = (UnitLayout.WallMm, y + size.LengthMm + UnitLayout.GapMm);
            stands.Add(
                (
                    u,
                    new()
                    {
                        Compartment = room.Id,
                        XMm = x,
                        YMm = y,
                        Turn = 90,
                        Lying = true,
                    }
                )
            );
            x += across + UnitLayout.GapMm;
        }
        return Placed(s.Bank, stands.Select(p => (p.Unit.String, p.Unit.Unit, (UnitStand?)p.Stand)));
    }

    private static Bank Placed(Bank bank, IEnumerable<(int String, int Unit, UnitStand? Stand)> stands)
    {
        var positions = bank.Positions.ToList();
        foreach (var (s, u, stand) in stands)
        {
            var at = positions.FindIndex(p => p.String == s && p.Unit == u);
            if (at >= 0)
                positions[at] = positions[at] with { Stand = stand };
            else if (stand is not null)
                positions.Add(
                    new()
                    {
                        String = s,
                        Unit = u,
                        Stand = stand,
                    }
                );
        }
        return bank with { Positions = positions };
    }

    /// <summary>Units beyond a wall, or into one another.</summary>
    private static Finding? Beside(FindingScene s, CompartmentResult c, int index)
    {
        var over = c.Units.Max(u => u.OverMm);
        var into = c.Units.FirstOrDefault(u => u.Into is not null);
        if (!(over > Tolerant.Noise) && into is null)
            return null;
        var worst = c.Units.MaxBy(u => u.OverMm)!;
        string Name(StandingUnit u) => $"{Say.StringName(u.String)}{u.Unit}";
        var compartment = s.Bank.Compartments[index];
        var (longer, wider) = (
            Math.Ceiling(Math.Max(0, c.Units.Max(u => u.XMm + u.LengthMm) + UnitLayout.WallMm - compartment.LengthMm)),
            Math.Ceiling(Math.Max(0, c.Units.Max(u => u.YMm + u.WidthMm) + UnitLayout.WallMm - compartment.WidthMm))
        );
        return s.Make(
            "place.fit",
            Grade.Fault,
            Station.Bank,
            $"/compartments/{index}/lengthMm",
            over > Tolerant.Noise ? $"{Name(worst)} stands {Mm(over)} beyond the wall" : $"{Name(into!)} stands in {into!.Into}",
            $"{Say.Count(c.Units.Count)} units do not fit as they are set"
                + (
                    longer > 0 ? $": {Mm(longer)} too long"
                    : wider > 0 ? $": {Mm(wider)} too wide"
                    : ""
                )
                + ".",
            [new("beyond the wall", over, "mm")],
            () =>
                new[]
                {
                    c.Units.Any(u => u.Put)
                        ? FindingScene.Offer(
                            "Set them in their turn",
                            "side by side, as most of them fit",
                            Placed(s.Bank, c.Units.Select(u => (u.String, u.Unit, (UnitStand?)null)))
                        )
                        : null,
                    FindingScene.Offer("Turn them all", "side by side the other way", Turned(s, c, compartment)),
                    longer > 0
                        ? FindingScene.Offer(
                            $"Make it {Mm(longer)} longer",
                            "all stand inside",
                            With(s, index, x => x with { LengthMm = x.LengthMm + longer })
                        )
                        : null,
                    wider > 0
                        ? FindingScene.Offer(
                            $"Make it {Mm(wider)} wider",
                            "all stand inside",
                            With(s, index, x => x with { WidthMm = x.WidthMm + wider })
                        )
                        : null,
                }.OfType<MendOffer>()
        );
    }

    /// <summary>Every unit turned by a quarter, in rows beside each other.</summary>
    private static Bank Turned(FindingScene s, CompartmentResult c, Compartment room)
    {
        double x = UnitLayout.WallMm,
            y = UnitLayout.WallMm,
            row = 0;
        var stands = new List<(int, int, UnitStand?)>();
        foreach (var u in c.Units.OrderByDescending(u => u.String).ThenByDescending(u => u.Unit))
        {
            // Length and width change places.
            if (x > UnitLayout.WallMm && x + u.WidthMm > room.LengthMm - UnitLayout.WallMm + Tolerant.Noise)
                (x, y, row) = (UnitLayout.WallMm, y + row + UnitLayout.GapMm, 0);
            stands.Add(
                (
                    u.String,
                    u.Unit,
                    new()
                    {
                        Compartment = room.Id,
                        XMm = x,
                        YMm = y,
                        Turn = (u.Turn + 90) % 360,
                        Lying = u.Lying,
                    }
                )
            );
            x += u.WidthMm + UnitLayout.GapMm;
            row = Math.Max(row, u.LengthMm);
        }
        return Placed(s.Bank, stands);
    }

    private static Finding? Gap(FindingScene s, CompartmentResult c, int index)
    {
        if (c.Room.GapMm is not { } gap || gap < -Tolerant.Noise || Tolerant.AtLeast(gap, c.Room.GapAskedMm))
            return null;
        return s.Make(
            "place.gap",
            Grade.Caution,
            Station.Bank,
            $"/compartments/{index}",
            $"{Mm(gap)} of air between units, {Mm(c.Room.GapAskedMm)} asked",
            "Units get warm and swell a little: air between them carries the heat away, and nothing rubs.",
            [new("least gap", gap, "mm"), new("asked", c.Room.GapAskedMm, "mm")],
            FindingScene.Offer(
                "Set them in their turn",
                then => then.Stands.Value?.Compartments[index].Room.GapMm is { } g ? $"{Mm(g)} between them" : "",
                Placed(s.Bank, c.Units.Select(u => (u.String, u.Unit, (UnitStand?)null)))
            )
        );
    }

    /// <summary>Only where somebody spoke of straps: a hut needs none.</summary>
    private static Finding? Straps(FindingScene s, CompartmentResult c, int index)
    {
        if (c.Hold is not { Straps: { } straps } hold || straps >= hold.Wanted)
            return null;
        return s.Make(
            "place.straps",
            Grade.Caution,
            Station.Bank,
            $"/compartments/{index}/straps",
            straps == 0
                ? "Nothing holds the units"
                : $"{straps} {(straps == 1 ? "strap holds" : "straps hold")} {Say.Number(hold.HoldsN)} N",
            $"A stop of {Say.Number(hold.G)} g pulls with {Say.Number(hold.PullN)} N at {Say.Number(c.MassKg ?? 0, 1)} kg: in a crash or a "
                + "knock-down they come loose.",
            [new("pull", hold.PullN, "N"), new("held", hold.HoldsN, "N")],
            FindingScene.Offer(
                $"{hold.Wanted} straps",
                then => then.Stands.Value?.Compartments[index].Hold is { } h ? $"hold {Say.Number(h.HoldsN)} N" : "",
                With(s, index, x => x with { Straps = hold.Wanted })
            )
        );
    }

    private static Finding? Bend(FindingScene s, CompartmentResult c, int index)
    {
        if (c.Bend is not { } bend || Tolerant.AtLeast(bend.ToWallMm, bend.WantedMm))
            return null;
        return s.Make(
            "place.bend",
            Grade.Note,
            Station.Bank,
            $"/compartments/{index}",
            "The main lead meets the wall before it can bend",
            $"{Mm(bend.ToWallMm)} from its post to the nearest wall; a bend of {bend.Size} wants {Mm(bend.WantedMm)}. Take it straight "
                + "through, by a gland.",
            [new("to the wall", bend.ToWallMm, "mm"), new("a bend wants", bend.WantedMm, "mm")]
        );
    }

    private static Finding? Axles(FindingScene s, StandResult stands)
    {
        if (stands.Trim is not { Over.Count: > 0 } trim || s.Work.Scene.Design.Place.Trim is not { } side)
            return null;
        var rear = trim.Over[0] == TrimAxle.Rear;
        double carries = (rear ? trim.RearKg : trim.FrontKg) ?? 0,
            limit = (rear ? side.RearLimitKg : side.FrontLimitKg) ?? 0;
        return s.Make(
            "place.axle",
            Grade.Fault,
            Station.Bank,
            "/compartments",
            $"The {(rear ? "rear" : "front")} axle carries {Say.Number(carries)} kg, {Say.Number(limit)} are allowed",
            $"The bank puts {Say.Number((rear ? trim.RearGainKg : trim.FrontGainKg) ?? 0, 1)} kg on it: a compartment nearer "
                + "the other axle "
                + "takes some of them off.",
            [new("carries", carries, "kg"), new("limit", limit, "kg")]
        );
    }
}

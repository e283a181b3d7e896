using InkyBadger.Core.Design;
using InkyBadger.Core.Network;
using InkyBadger.Core.Reference;
using InkyBadger.Core.Work;

namespace InkyBadger.Core.Practice;

/// <summary>A thing on the drawing with all that is written on it, the first line large.</summary>
/// <param name="Key">The part one points at.</param>
/// <param name="Lines">What stands on it, in its order.</param>
public sealed record DrawnThing(string Key, IReadOnlyList<string> Lines)
{
    /// <summary>It is not there: its place is empty.</summary>
    public bool Absent { get; init; }
}

/// <summary>
/// Copper on the drawing: a part, its cross-section a conductor [mm²], how many lie side by side, and what is written on
/// it.
/// </summary>
public sealed record DrawnCopper(string Key, double AreaMm2, int Conductors, string Label);

/// <summary>
/// A unit at its place: string and place from 1; name, volts, ampere-hours, kind and age; what was measured of it; the rest of its plate;
/// what is written at its posts.
/// </summary>
public sealed record DrawnUnit(
    string Key,
    int String,
    int Unit,
    string Name,
    string Volts,
    string Ah,
    string Kind,
    IReadOnlyList<string> Measured,
    IReadOnlyList<string> Plate,
    string? Joint
);

/// <summary>A link, jumper or lead: where it lies (rail, string, after which), and its copper.</summary>
public sealed record DrawnConductor(ConductorKind Kind, Pole Rail, int String, int After, DrawnCopper Copper);

/// <summary>A run beyond the bus: what is at its end, its fuse, its cable, and what is unusual in the way it is laid.</summary>
/// <param name="Thing">What hangs on it; the part one points at.</param>
/// <param name="Kind">The kind of its part.</param>
/// <param name="Fuse">Null: none; on AC there is nothing to draw.</param>
/// <param name="Copper">Null: an AC load on the inverter's outlets.</param>
/// <param name="OnPanel">Its feed is the DC panel's.</param>
/// <param name="Tap">It leaves the first string after so many units; null: it hangs on the bus.</param>
/// <param name="PastShunt">Its negative goes to the bank's own post.</param>
/// <param name="Source">What kind of source; null: a load.</param>
/// <param name="Front">Modules in front of a controller.</param>
public sealed record DrawnRun(
    DrawnThing Thing,
    PartKind Kind,
    DrawnThing? Fuse,
    DrawnCopper? Copper,
    bool OnPanel,
    int? Tap,
    bool PastShunt,
    SourceKind? Source,
    DrawnThing? Front
);

/// <summary>A bank with all that hangs on it.</summary>
public sealed record DrawnBank(
    string Id,
    string Name,
    DrawnThing Whole,
    int Series,
    int Parallel,
    WiringStyle Style,
    IReadOnlyList<DrawnUnit> Units,
    IReadOnlyList<DrawnConductor> Conductors,
    string? TakeOff,
    DrawnThing? StringFuses,
    DrawnThing Fuse,
    DrawnCopper Cable,
    DrawnThing Switch,
    DrawnThing Shunt,
    DrawnThing Bus,
    DrawnThing? Bonding,
    DrawnThing? Inverter,
    DrawnRun? Panel,
    IReadOnlyList<DrawnRun> Runs
);

/// <summary>A bank as found: nothing but what somebody with a torch would read off it.</summary>
public sealed record FoundDrawing(IReadOnlyList<DrawnBank> Banks, IReadOnlyList<DrawnThing> Joins, DrawnThing Place)
{
    internal static FoundDrawing Of(FoundScene s) =>
        new(
            [.. s.Design.Banks.Select((b, i) => BankOf(s, b, i))],
            [.. s.Design.Joins.Select(j => JoinOf(j))],
            new(
                "place",
                [
                    $"{Say.Number(s.Design.Place.AmbientC ?? 20)} °C around it",
                    s.Design.Place.Living ? "people live beside it" : "nobody lives here",
                ]
            )
        );

    private static DrawnThing JoinOf(Join j)
    {
        List<string> lines =
        [
            j.Kind switch
            {
                JoinKind.DcDc => "DC–DC",
                JoinKind.Converter => "converter",
                JoinKind.Isolator => "isolator",
                JoinKind.Relay => "relay",
                _ => "a cable alone",
            },
        ];
        if (j.Amps is { } amps)
            lines.Add(Say.Rating(amps));
        if (j.Hours is { } hours)
            lines.Add($"{Say.Hours(hours)} a day");
        return new($"join-{j.Id}", lines);
    }

    private static DrawnBank BankOf(FoundScene s, Bank b, int i)
    {
        var e = s.E.Banks[i];
        var main = b.Runs.First(r => r.Id == Run.MainId);
        string Key(string what) => FoundScene.Key(i, what);
        var panel = e.Circuits.FirstOrDefault(c => c.Kind == CircuitKind.Panel);
        return new(
            b.Id,
            b.Name,
            new(Key("bank"), WholeOf(b, e)),
            b.Series!.Value,
            b.Parallel!.Value,
            e.Network?.Wiring.Style ?? WiringStyle.Diagonal,
            [.. UnitsOf(b, i)],
            [.. (e.Network?.Copper.Placed ?? []).Select(c => ConductorOf(b, i, c))],
            b.Parallel > 1 ? Key("take-off") : null,
            b.Parallel > 1 && e.StringFuses is { Asked: true } strings
                ? new(Key("string-fuses"), strings.Fitted ? [Say.Rating(strings.RatingA ?? 0), strings.FuseLabel] : [])
                {
                    Absent = !strings.Fitted,
                }
                : null,
            FuseOf(Key("main-fuse"), main.Fuse, e.MainRun!.Fuse),
            CopperOf(Key("main-cable"), e.MainRun, main),
            SwitchOf(Key("switch"), main),
            new(Key("shunt"), ["shunt"]),
            new(Key("bus"), main.BusRatingA is { } bus ? [$"bus {Say.Rating(bus)}"] : ["bus"]),
            e.Bonding is { } bonding
                ? new(Key("bonding"), bonding.Absent ? [] : [Say.Size(bonding.Size!, bonding.Conductors), "to the frame"])
                {
                    Absent = bonding.Absent,
                }
                : null,
            e.Inverter is { Item: { } item } && b.Inverters.Count > 0 ? new(Key("inverter"), InverterOf(item, b.Inverters[0])) : null,
            panel is null ? null : RunOf(s, b, i, panel, new(Key("panel"), ["DC panel"]), PartKind.Panel),
            [.. RunsOf(s, b, i)]
        );
    }

    private static List<string> WholeOf(Bank b, BankEvaluation e)
    {
        List<string> lines = [$"{e.Voltage!.SystemV} V"];
        if (e.Bank is { } bank)
            lines.Add($"really {Say.Number(bank.Holds.NominalV, 1)}");
        lines.Add($"{b.Series}S{b.Parallel}P");
        if (b.Unit is { MaxSeries: { } series, MaxParallel: { } parallel })
            lines.Add($"the maker allows {series}S{parallel}P");
        if (b.Bms is { } bms)
            lines.Add($"{bms.Name} a string");
        else if (b.Unit!.IsBare())
            lines.Add("bare cells");
        return lines;
    }

    private static IEnumerable<DrawnUnit> UnitsOf(Bank b, int bank)
    {
        for (var s = 1; s <= b.Parallel; s++)
        for (var u = 1; u <= b.Series; u++)
        {
            var (item, at) = (FoundScene.ItemOf(b, s, u), FoundScene.PositionOf(b, s, u));
            List<string> measured = [],
                plate = [];
            if (at?.Health is { } health)
                measured.Add($"tested {Say.Number(health * item.Ah)} Ah");
            if (at?.Soc is { } soc)
                measured.Add($"{Say.Percent(soc, 0)} full");
            if (item.Bms is { } bms)
                plate.Add(
                    $"BMS {Say.Rating(bms.ContinuousA)}"
                        + (bms.PeakA is { } peak ? $", {Say.Rating(peak)} for {Say.Seconds(bms.PeakSeconds ?? 0)}" : "")
                );
            if (item.Bms?.ChargeA is { } charge)
                plate.Add($"takes {Say.Rating(charge)}");
            if (item.MassKg is { } kg)
                plate.Add(Say.Mass(kg, UnitSystem.Metric));
            yield return new(
                FoundScene.UnitKey(bank, s, u),
                s,
                u,
                $"{Say.StringName(s)}{u}",
                Say.V(item.Cells * Chemistries.Get(item.Chemistry).CellNominalV),
                $"{Say.Number(item.Ah)} Ah",
                $"{UnitKinds.Short(item.Chemistry)}, {AgeOf(at)}",
                measured,
                plate,
                at?.JointMilliohm is { } ohm ? $"joint {Say.Number(ohm, ohm < 10 ? 1 : 0)} mΩ" : null
            );
        }
    }

    private static string AgeOf(Position? at) =>
        at?.AgeYears is { } years ? $"{Say.Number(years)} {(years == 1 ? "year" : "years")}" : "new";

    private static DrawnConductor ConductorOf(Bank b, int bank, PlacedAmps c)
    {
        var lug = (
            c.Kind switch
            {
                ConductorKind.Jumper => b.Wiring.Jumpers.FirstOrDefault(x => x.String == c.String && x.After == c.After),
                ConductorKind.Link => b.Wiring.Links.FirstOrDefault(x => x.Rail == c.Rail && x.After == c.After),
                _ => b.Wiring.Leads.FirstOrDefault(x => x.Rail == c.Rail && x.String == c.String),
            }
        )?.JointMilliohm;
        return new(
            c.Kind,
            c.Rail,
            c.String,
            c.After,
            new(
                FoundScene.Key(bank, FoundScene.CopperKey(c)),
                Conductors.Get(c.Size).AreaMm2,
                c.Conductors,
                $"{Say.Size(c.Size, c.Conductors)}, {Say.Length(c.LengthM, UnitSystem.Metric)}"
                    + (lug is { } ohm ? $", lug {Say.Number(ohm, ohm < 10 ? 1 : 0)} mΩ" : "")
            )
        );
    }

    private static DrawnThing FuseOf(string key, RunFuse doc, FittedFuse fuse)
    {
        if (doc.Absent || fuse.RatingA is not { } rating)
            return new(key, []) { Absent = true };
        List<string> lines = [Say.Rating(rating), fuse.Label];
        if (fuse.DistanceM > RunStage.AssumedFuseDistanceM)
            lines.Add($"{Say.Length(fuse.DistanceM, UnitSystem.Metric)} from its beginning");
        return new(key, lines);
    }

    private static DrawnCopper CopperOf(string key, RunResult run, Run doc) =>
        new(
            key,
            run.Cable.AreaMm2 ?? 0,
            run.Cable.Conductors,
            doc.ConductorLengthsM.Count > 1
                ? $"{Say.Size(run.Cable.Size ?? "", run.Cable.Conductors)}, "
                    + string.Join(" and ", doc.ConductorLengthsM.Select(m => Say.Length(m, UnitSystem.Metric)))
                : $"{Say.Size(run.Cable.Size ?? "", run.Cable.Conductors)}, {Say.Length(run.Laid.LengthM, UnitSystem.Metric)}"
                    + (run.Cable.Conductors > 1 && doc.Bundled is null ? ", tied together" : "")
        );

    private static DrawnThing SwitchOf(string key, Run main)
    {
        if (main.Switch is { Absent: true })
            return new(key, main.PreCharge ? ["a pre-charge alone"] : []) { Absent = true };
        List<string> lines = ["switch"];
        if (main.Switch?.RatingA is { } amps)
            lines.Add(Say.Rating(amps));
        if (main.Switch?.MaxDcV is { } volts)
            lines.Add($"{Say.V(volts)} DC");
        if (main.PreCharge)
            lines.Add("with pre-charge");
        return new(key, lines);
    }

    private static List<string> InverterOf(InverterItem item, InverterChoice choice)
    {
        List<string> lines = [Say.W(item.ContinuousW), $"{Say.W(item.SurgeW)} for {Say.Seconds(item.SurgeSeconds ?? 5)}"];
        lines.Add($"inverter, {item.SystemV} V");
        lines.Add(item.Waveform == Waveform.Sine ? "sine" : "modified wave");
        if (item.CutOffV is { } off)
            lines.Add($"cuts off at {Say.V(off)}");
        lines.Add(choice.OnH is { } on ? $"idles at {Say.W(item.IdleW)}, on {Say.Hours(on)}" : $"idles at {Say.W(item.IdleW)}");
        if (choice.Charger is { } feed)
            lines.Add(feed == ChargerFeed.OwnOutput ? "charger on its outlets" : "charger on the plug");
        return lines;
    }

    private static IEnumerable<DrawnRun> RunsOf(FoundScene s, Bank b, int bank)
    {
        foreach (var load in b.Demand.Loads)
        {
            var key = FoundScene.Key(bank, $"load-{load.Id}");
            if (load.Kind == LoadKind.Ac)
                yield return new(new(key, LoadLines(load)), PartKind.AcLoad, null, null, false, null, false, null, null);
            else if (s.Circuit(bank, $"load-{load.Id}") is { } c)
                yield return RunOf(s, b, bank, c, new(key, LoadLines(load)), PartKind.Load) with
                {
                    Tap = load.Tap,
                };
            else
                yield return new(new(key, LoadLines(load)), PartKind.Load, null, null, false, load.Tap, false, null, null);
        }
        foreach (var source in b.Sources)
            if (s.Circuit(bank, $"source-{source.Id}") is { } c)
                yield return RunOf(
                    s,
                    b,
                    bank,
                    c,
                    new(FoundScene.Key(bank, $"source-{source.Id}"), SourceLines(source)),
                    PartKind.Source
                ) with
                {
                    Source = source.Kind,
                    Front = source.Array is { } array ? new(FoundScene.Key(bank, $"array-{source.Id}"), ArrayLines(array)) : null,
                };
    }

    private static DrawnRun RunOf(FoundScene s, Bank b, int bank, CircuitResult c, DrawnThing thing, PartKind kind)
    {
        var doc = b.Runs.FirstOrDefault(r => r.Id == c.Id) ?? new() { Id = c.Id };
        return new(
            thing,
            kind,
            FuseOf(thing.Key, doc.Fuse, c.Run.Fuse),
            CopperOf(thing.Key, c.Run, doc),
            c.Upstream == Run.PanelId,
            null,
            doc.BypassesShunt,
            null,
            null
        );
    }

    private static List<string> LoadLines(Load load)
    {
        List<string> lines = [load.Name, (load.Quantity > 1 ? $"{load.Quantity} × " : "") + Say.W(load.Watts ?? 0)];
        if (load.SurgeWatts > 0)
            lines.Add($"starts at {Say.W(load.SurgeWatts)}" + (load.StartSeconds is { } t ? $" for {Say.Seconds(t)}" : ""));
        if (load.WaveSensitive)
            lines.Add("wants a sine");
        if (load.Window is { } w)
            lines.Add($"for {Say.Number(w.MinV, w.MinV % 1 == 0 ? 0 : 1)} to {Say.V(w.MaxV)}");
        return lines;
    }

    private static List<string> SourceLines(Source x)
    {
        List<string> lines =
        [
            x.Name,
            x.Kind switch
            {
                SourceKind.Solar => $"controller {Say.Rating(x.Amps ?? 0)}",
                SourceKind.Alternator => $"straight, {Say.Rating(x.Amps ?? 0)}",
                SourceKind.DcDc => $"DC–DC {Say.Rating(x.Amps ?? 0)}",
                _ => $"charger {Say.Rating(x.Amps ?? 0)}",
            },
        ];
        if (x.Engine is { } engine)
            lines.Add($"alternator {Say.Rating(engine.AlternatorA)}, vehicle {Say.Rating(engine.VehicleA)}");
        if (x.Supply?.Amps is { } plug)
            lines.Add($"plug of {Say.Rating(plug)}");
        if (x.Settings.AbsorbV?.Value is { } absorb)
            lines.Add($"set to {Say.V(absorb)}");
        lines.Add(
            (x.Settings.EqualiseV?.Value is > 0 and var equalise ? $"equalises at {Say.V(equalise)}" : "equalising off")
                + $", {Say.Number(x.Settings.CompensationMvPerK?.Value ?? 0)} mV/K"
        );
        if (x.Array is { } array)
        {
            if (array.ControllerMaxV is { } volts)
                lines.Add($"bears {Say.V(volts)}" + (array.ControllerMaxIscA is { } amps ? $", {Say.A(amps)}" : ""));
        }
        return lines;
    }

    private static List<string> ArrayLines(SolarArray a)
    {
        List<string> lines =
        [
            $"{a.Series * a.Strings} × {Say.W(a.Module.Watts)}",
            $"{a.Series} in series, {Say.Strings(a.Strings)}",
            $"open {Say.V(a.Module.VocV ?? 0)}, at work {Say.V(a.Module.VmpV ?? 0)}",
            $"short {Say.A(a.Module.IscA ?? 0)}" + (a.Module.MaxFuseA is { } fuse ? $", fuse to {Say.Rating(fuse)}" : ""),
        ];
        if (a.Unlike)
            lines.Add("two kinds, one on the side wall");
        return lines;
    }
}

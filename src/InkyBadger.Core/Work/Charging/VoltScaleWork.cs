using InkyBadger.Core.Banks;
using InkyBadger.Core.Design;
using InkyBadger.Core.Reference;

namespace InkyBadger.Core.Work;

/// <summary>Puts every threshold of the bus on one scale (method, 9.12).</summary>
internal sealed class VoltScaleWork
{
    /// <summary>A setting this far from what is wanted is to be looked at: a tenth of a volt at 24 V.</summary>
    internal const double AlikeShare = 0.004;

    private static readonly double[] Lithium = [0, 0.05, 0.1, 0.2, 0.9, 1];
    private static readonly double[] Lead = [0, 0.2, 0.5, 0.8, 1];

    private readonly ChargingScene scene;
    private readonly IReadOnlyList<SourceResult> results;
    private readonly double topV,
        greatestV;
    private readonly double? bottomV;
    private readonly int cells;
    private readonly bool opens;

    public VoltScaleWork(ChargingScene scene, IReadOnlyList<SourceResult> results)
    {
        (this.scene, this.results) = (scene, results);
        cells = scene.Bank.Bank.CellsInSeries;
        opens = scene.Work.Pack.Need().Strings.Any(s => s.CanDropOut);
        var bms = opens ? BmsVolts.Of(scene.Chemistry) : null;
        topV = cells * (bms?.CellHighV ?? scene.Chemistry.CellTopV);
        bottomV = cells * bms?.CellLowV;
        greatestV = scene.Work.Protection.Value?.GreatestChargingV ?? scene.Work.Voltage.Need().GreatestV;
    }

    public VoltScale Work()
    {
        var columns = Chargers().Concat(Inverters()).Concat(Devices()).Concat(Fuses()).ToList();
        var rest = Rest();
        var lines = Lines();
        // Fuses made for far more than this bus would press everything else together.
        bool Near(ScaleColumn c) => c.Kind != ScaleColumnKind.Fuse || c.Marks[0].V < 1.2 * greatestV;
        var all = lines
            .Select(l => l.V)
            .Concat(rest.Marks.Select(m => m.V))
            .Concat(columns.Where(Near).SelectMany(c => c.Marks.Select(m => m.V).Concat(c.Spans.Select(s => s.ToV))))
            .Concat(columns.Select(c => c.ToV ?? 0).Where(v => v < 1.2 * greatestV))
            .Append(greatestV)
            .Where(v => v > 0)
            .ToList();
        var nominal = cells * scene.Chemistry.CellNominalV;
        var from = Math.Max(0, Math.Floor(Math.Max(all.Min(), 0.5 * nominal) - 0.2));
        var to = Math.Ceiling(Math.Min(all.Max(), 2 * nominal) + 0.2);
        return new(from, to, rest, lines, columns, Arrays(), greatestV);
    }

    private RestWindow Rest()
    {
        double At(double soc) => cells * RestVoltage.CellV(scene.Chemistry.Id, soc);
        return new(
            [.. (scene.Chemistry.IsLithium ? Lithium : Lead).Select(s => new RestMark(s, At(s)))],
            scene.Chemistry.Id == "lfp" ? At(0.2) : null,
            scene.Chemistry.Id == "lfp" ? At(0.9) : null
        );
    }

    private List<VoltLine> Lines()
    {
        var lines = new List<VoltLine>
        {
            new(VoltLineKind.Top, opens ? "BMS opens" : "most", topV),
            new(VoltLineKind.Absorb, "absorb", scene.Wants.AbsorbV),
            new(VoltLineKind.Float, "float", scene.Wants.FloatV),
            new(VoltLineKind.NearlyEmpty, "nearly empty, under load", cells * scene.Chemistry.CellLowUnderLoadV),
        };
        if (bottomV is { } low)
            lines.Add(new(VoltLineKind.Bottom, "BMS opens", low));
        return lines;
    }

    private IEnumerable<ScaleColumn> Chargers()
    {
        foreach (var (i, source) in scene.Sources.Index())
        {
            var own = i < scene.Work.Document.Sources.Count;
            var (at, on) = ($"/sources/{i}/settings", StandsOn.Of(source));
            var marks = new List<VoltMark>
            {
                Charge("absorbV", "absorption", on.AbsorbV, scene.Wants.AbsorbV, null, own ? at + "/absorbV" : null),
                Charge("floatV", "float", on.FloatV, scene.Wants.FloatV, null, own ? at + "/floatV" : null),
            };
            if (on.EqualiseV is > 0 and var equalise)
                marks.Add(Charge("equaliseV", "equalise", equalise, scene.Wants.EqualiseV, EqualiseMostV, own ? at + "/equaliseV" : null));
            if (source.Start?.BelowV is { } start)
                marks.Add(Trigger("start", "starts", start, own ? $"/sources/{i}/start/belowV" : null));
            yield return new(
                ScaleColumnKind.Charger,
                source.Id,
                results[i].Name,
                Short(source),
                null,
                null,
                marks,
                [.. marks.Select(SpanOf).OfType<VoltSpan>()]
            );
        }
    }

    /// <summary>The most a bank is equalised at; lithium bears none, so that its own top counts.</summary>
    private double EqualiseMostV => scene.Wants.EqualiseV ?? topV;

    private VoltMark Charge(string setting, string label, double? set, double? wanted, double? most, string? path)
    {
        var past = most ?? topV;
        if (set is not { } v)
            return new(setting, label, wanted!.Value, null, past, MarkState.NotSet, null, path);
        var (state, why) =
            Tolerant.Exceeds(v, past)
                ? (MarkState.Wrong, opens ? $"{Say.V(v - past)} over where the BMS opens" : $"{Say.V(v - past)} over what the cells bear")
            : wanted is null ? (MarkState.Wrong, "these cells are never equalised")
            : Math.Abs(v - wanted.Value) > AlikeShare * wanted.Value && setting != "equaliseV"
                ? (MarkState.Look, $"{Say.V(Math.Abs(v - wanted.Value))} {(v > wanted ? "over" : "below")} what the bank wants")
            : (MarkState.Fits, null);
        return new(setting, label, v, null, past, state, why, path);
    }

    /// <summary>A start by volts, where volts tell nothing of the charge, starts by chance.</summary>
    private VoltMark Trigger(string setting, string label, double v, string? path)
    {
        var told = TriggerVoltage.Work(v, scene.Chemistry.Id, cells, 1 - scene.FloorSoc);
        var (state, why) =
            bottomV is { } low && v < low ? (MarkState.Wrong, "the BMS opens before")
            : !told.Readable ? (MarkState.Look, "volts tell nothing of the charge here")
            : told.KeepsRule is false ? (MarkState.Look, "below the floor of the house rule")
            : (MarkState.Fits, (string?)null);
        return new(setting, label, v, bottomV, null, state, why, path);
    }

    private VoltSpan? SpanOf(VoltMark mark) =>
        mark switch
        {
            { State: MarkState.Wrong, MostV: { } most } when mark.V > most => new(most, mark.V, MarkState.Wrong),
            { State: MarkState.Wrong, LeastV: { } least } when mark.V < least => new(mark.V, least, MarkState.Wrong),
            { State: MarkState.Look, Setting: "absorbV" } => Between(scene.Wants.AbsorbV, mark.V),
            { State: MarkState.Look, Setting: "floatV" } => Between(scene.Wants.FloatV, mark.V),
            _ => null,
        };

    private static VoltSpan Between(double a, double b) => new(Math.Min(a, b), Math.Max(a, b), MarkState.Look);

    private IEnumerable<ScaleColumn> Inverters()
    {
        var first = scene.Work.Inverter.Value;
        foreach (var (i, choice) in scene.Work.Document.Inverters.Index())
        {
            if ((choice.Item ?? (i == 0 ? first?.Item : null)) is not { } item)
                continue;
            var bears = item.SystemV * InverterAssumed.BearsPerVolt;
            var cutOff = SettingOf(choice.Id, "cutOffV") ?? item.CutOffV;
            var marks = new List<VoltMark>
            {
                Inverter("cutOffV", "stops", cutOff, scene.Wants.InverterCutOffV),
                Inverter("alarmV", "alarm", SettingOf(choice.Id, "alarmV"), scene.Wants.InverterAlarmV),
                Inverter("restartV", "restarts", SettingOf(choice.Id, "restartV"), scene.Wants.InverterRestartV),
            };
            yield return new(
                ScaleColumnKind.Inverter,
                choice.Id,
                item.Name,
                "inverter",
                marks[0].V,
                bears,
                marks,
                Over(bears).Concat(marks.Select(SpanOf).OfType<VoltSpan>()).ToList()
            );
        }
    }

    private double? SettingOf(string device, string name) =>
        scene.Work.Document.Cards.FirstOrDefault(c => c.Device == device && c.Name == name)?.Value;

    /// <summary>A cut-off below where the BMS opens never comes to act: the bank goes dark before it.</summary>
    private VoltMark Inverter(string setting, string label, double? set, double wanted)
    {
        if (set is not { } v)
            return new(setting, label, wanted, bottomV, null, MarkState.NotSet, null, null);
        var restarts = setting == "restartV";
        var (state, why) =
            bottomV is { } low && Tolerant.Exceeds(low, v) ? (MarkState.Wrong, "the BMS opens before")
            : restarts && v < wanted - AlikeShare * wanted
                ? (MarkState.Look, "an emptied bank springs back to it as soon as the load is gone")
            : (MarkState.Fits, (string?)null);
        return new(setting, label, v, bottomV, null, state, why, null);
    }

    private IEnumerable<VoltSpan> Over(double bearsV) =>
        Tolerant.Exceeds(greatestV, bearsV) ? [new(bearsV, greatestV, MarkState.Wrong)] : [];

    private IEnumerable<ScaleColumn> Devices()
    {
        var demand = scene.Work.Fed.Need().Demand;
        foreach (var device in scene.Work.Devices.Value ?? [])
        {
            var load = demand.Loads[device.Load];
            if (load.Kind != LoadKind.Dc)
                continue;
            var spans = Over(device.MaxV).ToList();
            if (Tolerant.Exceeds(device.MinV, device.LeastV))
                spans.Add(new(device.LeastV, device.MinV, MarkState.Wrong));
            yield return new(ScaleColumnKind.Device, load.Id, load.Name, load.Name, device.MinV, device.MaxV, [], spans);
        }
    }

    /// <summary>A class of fuses once, by the volts it is made for at least.</summary>
    private IEnumerable<ScaleColumn> Fuses()
    {
        var classes = new List<(string Class, string Label, double MaxV)>();
        if (scene.Work.Protection.Value is { } main && scene.Work.MainRun.Value is { Fuse.RatingA: not null } run)
            classes.Add((run.Fuse.Class, run.Fuse.Label, main.MaxDcV));
        foreach (var circuit in scene.Work.Circuits.Value ?? [])
            if (!circuit.Behind && circuit.Run.Fuse.RatingA is not null)
                classes.Add((circuit.Run.Fuse.Class, circuit.Run.Fuse.Label, circuit.Fuse.MaxDcV));
        foreach (var (id, label, most) in classes.DistinctBy(c => c.Class).OrderBy(c => c.MaxV))
        {
            var wrong = Tolerant.Exceeds(greatestV, most);
            yield return new(
                ScaleColumnKind.Fuse,
                id,
                label,
                label,
                null,
                null,
                [
                    new(
                        "maxDcV",
                        "made for",
                        most,
                        greatestV,
                        null,
                        wrong ? MarkState.Wrong : MarkState.Fits,
                        wrong ? $"charging lifts the bus to {Say.V(greatestV)}" : null,
                        null
                    ),
                ],
                [.. Over(most)]
            );
        }
    }

    private List<ArrayVolts> Arrays()
    {
        var list = new List<ArrayVolts>();
        foreach (var (i, source) in scene.Sources.Index())
            if (results[i].Array is { } array && source.Array?.ControllerMaxV is { } most)
                list.Add(ArrayVolts.Of(source.Id, results[i].Name, array, most, ChargingStage.SetV(scene, source) + 1));
        return list;
    }

    private static string Short(Source source) =>
        source.Kind switch
        {
            SourceKind.Solar => "sun",
            SourceKind.Alternator or SourceKind.DcDc => "drive",
            SourceKind.Mains => "plug",
            SourceKind.Generator => "generator",
            _ => "other",
        };
}

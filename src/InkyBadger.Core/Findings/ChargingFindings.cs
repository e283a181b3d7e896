using InkyBadger.Core.Design;
using InkyBadger.Core.Reference;

namespace InkyBadger.Core.Findings;

/// <summary>What charges the bank, as far as the document knows its sources.</summary>
internal static class ChargingFindings
{
    public static FindingRule[] Rules { get; } = [TooMuch, Alternator, Setting, Cold];

    private static Finding? TooMuch(FindingScene s)
    {
        if (s.Results.Bank is not { } b) return null;
        var sources = s.Scene.Bank.Sources;
        var amps = sources.Sum(x => x.Amps ?? 0);
        var byRate = Chemistries.Get(b.Unit.Chemistry).MaxChargeCRate * b.Ah;
        var most = Math.Min(byRate, b.Unit.Bms?.ChargeA * b.Parallel ?? double.MaxValue);
        if (amps <= 0 || !Tolerant.Exceeds(amps, most)) return null;
        var single = sources.Index().Where(x => x.Item.Amps > 0).ToList();
        Mend[] mends = single.Count == 1 ? [s.MendBank($"Limit it to {Say.A(most)}", "what the bank takes", $"/sources/{single[0].Index}/amps", (double?)most)] : [];
        return s.Make("charge.too-much", Grade.Caution, Station.Bank, "/sources", $"{Say.A(amps)} of charge, where the bank takes {Say.A(most)}",
            most < byRate ? "More than its units allow: a BMS opens, or the cells age fast." : "More than its chemistry takes gladly: heat, gas, and a short life.",
            [new("sources", amps, "A"), new("the bank takes", most, "A")], mends);
    }

    private static Finding? Alternator(FindingScene s)
    {
        var sources = s.Scene.Bank.Sources;
        var at = sources.Index().FirstOrDefault(x => x.Item.Kind == SourceKind.Alternator);
        if (at.Item is null || s.Results.Bank is not { Unit.Bms: not null } b) return null;
        return s.Make("charge.alternator", Grade.Danger, Station.Bank, $"/sources/{at.Index}", "The alternator charges the bank directly",
            "When a BMS opens, the alternator is left without a load and its voltage leaps: it kills itself and the vehicle’s electronics.", [new("units that can open", b.Units, "")],
            s.MendBank("Put a DC–DC charger between", "the alternator keeps its own battery", $"/sources/{at.Index}/kind", SourceKind.DcDc));
    }

    private static Finding? Setting(FindingScene s)
    {
        if (s.Results.Bank is not { } b) return null;
        var chemistry = Chemistries.Get(b.Unit.Chemistry);
        var (top, low) = (b.Cells * chemistry.CellTopV, b.Cells * chemistry.CellFloatV);
        foreach (var (i, source) in s.Scene.Bank.Sources.Index())
        {
            if (source.SettingV is not { } setting || Tolerant.AtLeast(top, setting) && Tolerant.AtLeast(setting, low)) continue;
            var high = setting > top;
            return s.Make("charge.setting", high ? Grade.Danger : Grade.Caution, Station.Bank, $"/sources/{i}/settingV", $"{source.Name} is set to {Say.V(setting)}, as for another battery",
                high ? $"Above {Say.V(top)} these cells are overcharged." : $"Below {Say.V(low)} the bank never comes to full.", [new("setting", setting, "V"), new("of this bank", high ? top : low, "V")],
                s.MendBank("Take the setting back", "as the chemistry asks", $"/sources/{i}/settingV", (double?)null));
        }
        return null;
    }

    private static Finding? Cold(FindingScene s) => s.Scene.Design.Place.AmbientC is { } c && c < 0 && s.Scene.Bank.Sources.Count > 0 && s.Results.Bank is { } b && Chemistries.Get(b.Unit.Chemistry).IsLithium
        ? s.Make("charge.cold", Grade.Danger, Station.Bank, "/sources", $"Lithium is not charged at {Say.Number(c)} °C",
            "Below 0 °C metal grows in the cells: they are spoilt for good, and may fail later. Warm them, or let the charger wait.", [new("the place", c, "°C")])
        : null;
}

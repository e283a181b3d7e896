using InkyBadger.Core.Design;
using InkyBadger.Core.Reference;
using InkyBadger.Core.Work;

namespace InkyBadger.Core.Findings;

/// <summary>What charges the bank, as far as the document knows its sources.</summary>
internal static class ChargingFindings
{
    public static FindingRule[] Rules { get; } = [TooMuch, Alternator, Cold];

    private static Finding? TooMuch(FindingScene s)
    {
        if (s.Results.Bank is not { } b)
            return null;
        var sources = s.Scene.Bank.Sources;
        // All that comes in at the bus: a join from another bank charges as a source does.
        var amps = s.Work.Flows.Value?.ChargingA ?? 0;
        // A device that is set lower than it is made for gives no more than that.
        if (s.Results.Charging is { } charging)
            foreach (var (i, source) in sources.Index())
                amps -= Math.Max(0, (source.MadeForA ?? 0) - (charging.Sources[i].GivesA ?? 0));
        var byRate = Chemistries.Get(b.Unit.Chemistry).MaxChargeCRate * b.Holds.Ah;
        var byUnits =
            s.Work.Pack.Value is { } pack && pack.Strings.Any(x => x.ChargeA is not null)
                ? pack.Strings.Sum(x => x.ChargeA ?? double.PositiveInfinity)
                : double.MaxValue;
        var most = Math.Min(byRate, byUnits);
        if (amps <= 0 || !Tolerant.Exceeds(amps, most))
            return null;
        var single = sources.Index().Where(x => x.Item.Amps > 0).ToList();
        var chargers = FlowStage.ChargersOf(s.Work).ToList();
        // Where one alone charges, its own limit is the mend.
        MendOffer? limit =
            single.Count == 1 && chargers.Count == 0
                ? FindingScene.Offer(
                    $"Limit it to {Say.A(most)}",
                    "what the bank takes",
                    s.Bank.WithSource(single[0].Index, x => x with { Amps = most })
                )
            : single.Count == 0 && chargers is [var only] && Item(s, only.Index) is { } item
                ? FindingScene.Offer(
                    $"Set its charger to {Say.A(most)}",
                    "what the bank takes",
                    s.Bank.WithInverter(only.Index, x =>
                        x with
                        {
                            Item = item with { ChargerA = item.ChargerA * most / only.Amps },
                            Stack = StackOf(s, only.Index),
                        }
                    )
                )
            : null;
        return s.Make(
            "charge.too-much",
            Grade.Caution,
            Station.Charging,
            "/sources",
            $"{Say.A(amps)} of charge, where the bank takes {Say.A(most)}",
            most < byRate
                ? "More than its units allow: a BMS opens, or the cells age fast."
                : "More than its chemistry takes gladly: heat, gas, and a short life.",
            [new("sources", amps, "A"), new("the bank takes", most, "A")],
            limit
        );
    }

    private static InverterItem? Item(FindingScene s, int index) =>
        s.Bank.Inverters[index].Item ?? (index == 0 ? s.Results.Inverter?.Item : null);

    private static int StackOf(FindingScene s, int index) => index == 0 ? s.Results.Inverter?.Stack ?? 1 : s.Bank.Inverters[index].Stack;

    private static Finding? Alternator(FindingScene s)
    {
        var sources = s.Scene.Bank.Sources;
        var at = sources.Index().FirstOrDefault(x => x.Item.Kind == SourceKind.Alternator);
        if (at.Item is null || s.Results.Bank is not { } b || s.Work.Pack.Value is not { } pack || !pack.Strings.Any(x => x.CanDropOut))
            return null;
        return s.Make(
            "charge.alternator",
            Grade.Danger,
            Station.Charging,
            $"/sources/{at.Index}",
            "The alternator charges the bank directly",
            "When a BMS opens, the alternator is left without a load and its voltage leaps: it kills itself and the vehicle’s electronics.",
            [new("units that can open", b.Layout.Units, "")],
            () => DcDcBetween(s)
        );
    }

    /// <summary>With what it gives straight on, else with what the alternator bears hot.</summary>
    private static IEnumerable<MendOffer> DcDcBetween(FindingScene s)
    {
        var results = s.Results.Charging?.Sources;
        foreach (var limited in (bool[])[false, true])
        {
            Source Through(Source x, int i) =>
                x.Kind != SourceKind.Alternator ? x
                : limited && results?[i].Engine is { } engine && results[i].GivesA is { } amps
                    ? x with
                    {
                        Kind = SourceKind.DcDc,
                        Amps = Math.Floor(Math.Min(amps, engine.MostOutA)),
                    }
                : x with { Kind = SourceKind.DcDc };
            yield return FindingScene.Offer(
                "Put a DC–DC charger between",
                "the alternator keeps its own battery",
                s.Bank with
                {
                    Sources = [.. s.Scene.Bank.Sources.Select(Through)],
                },
                "dc-dc"
            );
        }
    }

    internal static IEnumerable<Finding> Settings(FindingScene s)
    {
        if (s.Results.Bank is not { } b)
            yield break;
        var chemistry = Chemistries.Get(b.Unit.Chemistry);
        var (top, low) = (b.Layout.Cells * chemistry.CellTopV, b.Layout.Cells * chemistry.CellFloatV);
        foreach (var (i, source) in s.Scene.Bank.Sources.Index())
        {
            if (
                (source.Settings.AbsorbV?.Value ?? source.SettingV) is not { } setting
                || Tolerant.AtLeast(top, setting) && Tolerant.AtLeast(setting, low)
            )
                continue;
            var high = setting > top;
            yield return s.Make(
                "charge.setting",
                high ? Grade.Danger : Grade.Caution,
                Station.Charging,
                source.Settings.AbsorbV?.Value is null ? $"/sources/{i}/settingV" : $"/sources/{i}/settings/absorbV",
                $"{source.Name} is set to {Say.V(setting)}, as for another battery",
                high ? $"Above {Say.V(top)} these cells are overcharged." : $"Below {Say.V(low)} the bank never comes to full.",
                [new("setting", setting, "V"), new("of this bank", high ? top : low, "V")],
                FindingScene.Offer(
                    "Take the setting back",
                    "as the chemistry asks",
                    s.Bank.WithSource(i, x => x with { SettingV = null, Settings = x.Settings with { AbsorbV = null } })
                )
            ) with
            {
                About = source.Id,
            };
        }
    }

    /// <summary>Colder than the cells may be charged, or than their BMS allows; an inverter's own charger counts as any other.</summary>
    private static Finding? Cold(FindingScene s)
    {
        if (
            s.Scene.Design.Place.AmbientC is not { } c
            || s.Results.Bank is not { } b
            || Chemistries.Get(b.Unit.Chemistry) is not { IsLithium: true } chemistry
            || s.Scene.Bank.Sources.Count == 0 && !FlowStage.ChargersOf(s.Work).Any()
        )
            return null;
        var least = Math.Max(chemistry.MinChargeTempC, b.Unit.IsBare() ? s.Bank.Bms?.LeastChargeC ?? double.MinValue : double.MinValue);
        return c >= least
            ? null
            : s.Make(
                "charge.cold",
                Grade.Danger,
                Station.Charging,
                "/sources",
                $"Lithium is not charged at {Say.Number(c)} °C",
                $"Below {Say.Number(least)} °C metal grows in the cells: they are spoilt for good, and may fail later. Warm them, or let "
                    + "the charger wait.",
                [new("the place", c, "°C"), new("least", least, "°C")]
            );
    }
}

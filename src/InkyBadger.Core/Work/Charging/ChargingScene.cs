using InkyBadger.Core.Charging;
using InkyBadger.Core.Demand;
using InkyBadger.Core.Design;
using InkyBadger.Core.Reference;

namespace InkyBadger.Core.Work;

/// <summary>A bank and what it is charged from, as charging sees them.</summary>
internal sealed class ChargingScene
{
    /// <summary>Steps of the day: quarters of an hour.</summary>
    public const int Steps = 96;

    /// <summary>What the modules may meet in light as long as nobody says it [°C].</summary>
    public const double AssumedColdestC = -10;

    public BankWork Work { get; }
    public Chemistry Chemistry { get; }
    public ChargeSettingsResult Wants { get; }
    public FillBank Bank { get; }
    public double FloorSoc { get; }

    /// <summary>Clearness of the months at the place; null: nobody said where it stands.</summary>
    public IReadOnlyList<double>? Clearness { get; }

    /// <summary>Those of the document, then the chargers of inverters that are not fed by the inverter itself.</summary>
    public IReadOnlyList<Source> Sources { get; }

    public ChargingScene(BankWork work)
    {
        Work = work;
        var (bank, pack, network) = (work.Bank.Need(), work.Pack.Need(), work.Network.Need());
        Chemistry = Chemistries.Get(bank.Unit.Chemistry);
        FloorSoc = 1 - bank.Need.Dod;
        Wants = ChargeSettings.Work(
            Chemistry,
            bank.Layout.Cells,
            bank.Holds.Ah,
            Chemistry.Id == "lfp" ? work.Rules.Number("absorb-lfp") : null,
            floorSoc: FloorSoc,
            peukertExponent: bank.Lasts.PeukertK
        );
        var limit = pack.Strings.Any(s => s.ChargeA is not null) ? pack.Strings.Min(s => s.ChargeA ?? double.MaxValue) : (double?)null;
        Bank = new(
            new(Chemistry, bank.Layout.Cells, bank.Holds.Ah, null, limit, bank.Layout.Parallel),
            bank.Holds.RatedWh,
            network.BankOhm,
            // Beyond what cells are asked about they take nothing anyway.
            work.Scene.Design.Place.AmbientC
                is { } c
                ? Math.Clamp(c, -60, 100)
                : null
        );
        Clearness = ClearnessOf(work.Scene.Design.Place);
        Sources =
        [
            .. work.Document.Sources,
            .. FlowStage.ChargersOf(work).Select(c => BuiltIn(work.Document.Inverters[c.Index], c.Name, c.Amps)),
        ];
    }

    private static Source BuiltIn(InverterChoice choice, string name, double amps) =>
        new()
        {
            // Of its own, so that it never meets a source of the document.
            Id = $"charger-{choice.Id}",
            Name = $"charger of {name}",
            Kind = SourceKind.Mains,
            Amps = amps,
            Windows = choice.Charger == ChargerFeed.OwnOutput ? null : choice.ChargerWindows,
        };

    /// <summary>Whether it is the charger of an inverter, which has no settings in the document.</summary>
    public bool IsBuiltIn(int index) => index >= Work.Document.Sources.Count;

    /// <summary>Own sun hours come before the table of climates; both need the latitude.</summary>
    private static IReadOnlyList<double>? ClearnessOf(Place place)
    {
        if (place.LatitudeDeg is not { } latitude)
            return null;
        if (place.SunHours is { } own)
            return [.. own.Select((hours, month) => SolarYear.ClearnessOf(latitude, month, hours))];
        // The table's months are those of the northern half.
        return place.Climate is { } climate
            ? [.. Enumerable.Range(0, 12).Select(m => Climates.Get(climate).Clearness[latitude < 0 ? (m + 6) % 12 : m])]
            : null;
    }

    /// <summary>Winter is the half of the year with the shorter days.</summary>
    public Season SeasonOf(int month) =>
        month is >= 3 and <= 8 == (Work.Scene.Design.Place.LatitudeDeg ?? 1) >= 0 ? Season.Summer : Season.Winter;

    /// <summary>What leaves the bank in each step of a month's day [W].</summary>
    public double[] OutW(Season season) => DayWatts.Of(Work, season, Steps);

    /// <summary>What a source gives at the bank [A]; straight from an alternator what half a bank asks for, where nobody said.</summary>
    public double? GivesA(Source source) =>
        Lesser(source.Settings.Amps?.Value, source.Amps) ?? (source.Kind == SourceKind.Alternator ? EngineOf(source)?.StraightA : null);

    /// <summary>A device set higher than it is made for gives no more.</summary>
    private static double? Lesser(double? set, double? made) => set is { } a && made is { } b ? Math.Min(a, b) : set ?? made;

    /// <summary>
    /// Volts at the bank while it fills: half-way between floor and full, lifted by the current, no higher than absorption.
    /// </summary>
    public double FillV(double amps) =>
        Math.Min(Wants.AbsorbV, Bank.Bank.CellsInSeries * RestVoltage.CellV(Chemistry.Id, (1 + FloorSoc) / 2) + amps * Bank.Ohm);

    public EngineChargeResult? EngineOf(Source source)
    {
        if (source.Engine is not { AlternatorA: > 0 } engine)
            return null;
        var straight = source.Kind == SourceKind.Alternator;
        var hours = (source.Windows ?? []).Sum(w => new DayWindow(w[0], w[1]).Hours);
        var amps = straight ? 0 : source.Amps ?? 0;
        return EngineCharge.Work(
            new(engine.AlternatorA, engine.VehicleA, engine.AlternatorV ?? 13.8, engine.HotFactor ?? 0.6),
            hours,
            amps,
            FillV(amps),
            straight: straight ? new(Chemistry, Bank.Bank.CellsInSeries, 0.5, Bank.Ohm) : null
        );
    }

    public static double? ArrayW(Source source) =>
        source is { Kind: SourceKind.Solar, Array: { Module.Watts: > 0 } array } ? array.Module.Watts * array.Series * array.Strings : null;

    /// <summary>Watts a source offers in each step of a month's [0 to 11] mean day, and what its controller clips of it [Wh].</summary>
    /// <param name="clipped">An array that is only thought of as larger gets a controller that passes it.</param>
    public (double[] Watts, double ClippedWh) Offered(Source source, int month, bool clipped = true)
    {
        var watts = new double[Steps];
        if (source.Kind == SourceKind.Solar)
            return Sun(source, month, clipped, watts);
        if (source.WattsByHour is { } byHour)
        {
            for (var i = 0; i < Steps; i++)
                watts[i] = byHour[i * 24 / Steps];
            return (watts, 0);
        }
        var amps = GivesA(source) ?? 0;
        // The month's mean day has of a source of some days of the week so much of its hours.
        var gives = amps * FillV(amps) * (source.Weekdays?.Distinct().Count() ?? 7) / 7;
        foreach (var window in source.Windows ?? [])
        {
            var hours = new DayWindow(window[0], window[1]);
            for (var i = 0; i < Steps; i++)
                watts[i] += gives * hours.HoursWithin(i * 24.0 / Steps, (i + 1) * 24.0 / Steps) * Steps / 24;
        }
        return (watts, 0);
    }

    private (double[] Watts, double ClippedWh) Sun(Source source, int month, bool clipped, double[] watts)
    {
        if (ArrayW(source) is not { } plate || Clearness is not { } clearness)
            return (watts, 0);
        var array = source.Array!;
        var perLight = plate / 1000 * SolarDay.UsualDerate * (1 - array.Shade);
        if (perLight <= 0)
            return (watts, 0);
        perLight *= Told(month);
        var most = clipped && source.Amps is { } amps ? Math.Max(1e-9, amps * FillV(amps) / perLight) : double.PositiveInfinity;
        var light = SolarYear.Of(Latitude, clearness, new(array.TiltDeg, array.AzimuthDeg)).Month(month, most);
        for (var i = 0; i < Steps; i++)
            watts[i] = perLight * light.Hourly[i * 24 / Steps];
        return (watts, perLight * light.Clipped);
    }

    private double Latitude => Work.Scene.Design.Place.LatitudeDeg!.Value;

    /// <summary>Where the month's sun was told, the made-up weather gives its shape alone: on the level it is what was told.</summary>
    internal double Told(int month) =>
        Work.Scene.Design.Place.SunHours is { } told
            ? Math.Max(1e-9, told[month]) / SolarYear.Of(Latitude, Clearness!, default).SunHours(month)
            : 1;
}

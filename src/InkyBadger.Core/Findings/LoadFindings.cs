using InkyBadger.Core.Demand;
using InkyBadger.Core.Design;
using InkyBadger.Core.Wiring;
using InkyBadger.Core.Work;

namespace InkyBadger.Core.Findings;

/// <summary>Demand: what takes more than it seems to, and what its feed does not suit.</summary>
internal static class LoadFindings
{
    private const double IdleWorthSaying = 0.15;

    /// <summary>A device without a stated window bears so much more than its volts before it is called out.</summary>
    private const double BearsOver = 1.25;

    /// <summary>Share of the peak from which a load without times is worth placing.</summary>
    private const double MuchOfPeak = 0.25;

    /// <summary>Share of the worst instant that placing it must save.</summary>
    private const double WorthPlacing = 0.05;

    public static FindingRule[] Rules { get; } = [IdleDraw, OnRaised, Assumed];

    public static LoadRule[] OfEachLoad { get; } =
    [Window, DoubleConversion, StartBelowRunning, CountsForNothing, NoTimes, BankFindings.DcStart, BankFindings.Tap];

    /// <summary>Typical figures that nobody has looked at yet.</summary>
    private static Finding? Assumed(FindingScene s)
    {
        var demand = s.Scene.Bank.Demand;
        if (demand.By != DemandBy.Loads || demand.Loads.Count(l => l.Assumed) is not (> 0 and var count))
            return null;
        return s.Make(
            "load.assumed",
            Grade.Note,
            Station.Loads,
            "/demand/loads",
            count == demand.Loads.Count ? "All loads are assumed"
                : count == 1 ? "1 load is assumed"
                : $"{count} loads are assumed",
            "Their watts and hours are typical values, marked in the list. Put in what stands on the plate and how long it runs with you.",
            [new("assumed", count, "")],
            FindingScene.Offer(
                "They are as mine are",
                "counts them as yours",
                s.Bank with
                {
                    Demand = demand with { Loads = [.. demand.Loads.Select(l => l with { Assumed = false })] },
                }
            )
        );
    }

    private static Finding? IdleDraw(FindingScene s)
    {
        if (s.Results.Energy is not { } e || s.Results.Inverter is not { } inverter || e.IdleShare <= IdleWorthSaying)
            return null;
        var saving = inverter.IdleW * (e.InverterOnH - e.Day.NeededOnH);
        MendOffer? Off() =>
            saving > 0
                ? FindingScene.Offer(
                    "Switch it off between loads",
                    then => $"{Say.Hours(then.Energy.Value?.InverterOnH ?? 0)} on, saves {Say.Wh(Saved(s, then))} a day",
                    s.Bank.WithInverter(0, x => x with { OnH = null })
                )
                : OffAtNight(s);
        return s.Make(
            "inverter.idle",
            Grade.Caution,
            Station.Loads,
            "/inverters/0",
            $"Idling takes {Say.Percent(e.IdleShare, 0)} of the day",
            $"{Say.W(inverter.IdleW)} for {Say.Hours(e.InverterOnH)} is {Say.Wh(e.IdleWh)}, used by nobody. An AC load that is "
                + $"on all day keeps the inverter on.",
            [new("idle a day", e.IdleWh, "Wh"), new("share", e.IdleShare, "fraction")],
            () => Off() is { } off ? [off] : []
        );
    }

    /// <summary>Where one small load alone keeps the inverter on for hours: that load on DC.</summary>
    private static MendOffer? OffAtNight(FindingScene s)
    {
        var loads = s.Scene.Bank.Demand.Loads;
        var all = loads
            .Index()
            .Where(l => l.Item.Kind == LoadKind.Ac && l.Item.Windows is null && l.Item.Quantity > 0 && l.Item.Hours > 16)
            .ToList();
        if (all.Count != 1 || !DcInstead.MayBe(all[0].Item))
            return null;
        var dc = DcInstead.Of(all[0].Item, s.Results.Voltage!.SystemV);
        return FindingScene.Offer(
            $"{all[0].Item.Name} on DC, inverter off when idle",
            then => $"saves {Say.Wh(Saved(s, then))} a day, if there is a DC model",
            s.Bank.WithLoad(all[0].Index, dc).WithInverter(0, x => x with { OnH = null })
        );
    }

    private static double Saved(FindingScene s, BankWork then) => s.Results.Energy!.EnergyBankWh - (then.Energy.Value?.EnergyBankWh ?? 0);

    private static Finding? OnRaised(FindingScene s) =>
        s.Results.Energy is not { InverterOnRaised: true } e
            ? null
            : s.Make(
                "inverter.on-hours",
                Grade.Note,
                Station.Loads,
                "/inverters/0/onH",
                "The inverter must be on for longer",
                $"Its loads run for {Say.Hours(e.InverterOnH)} a day; that is what is counted.",
                [new("on a day", e.InverterOnH, "h")],
                FindingScene.Offer(
                    "As its loads need",
                    then => Say.Hours(then.Energy.Value?.InverterOnH ?? 0),
                    s.Bank.WithInverter(0, x => x with { OnH = null })
                )
            );

    /// <summary>A DC device on volts it does not accept (method, 10.2).</summary>
    private static Finding? Window(FindingScene s, Load load, int i)
    {
        if (load.Kind == LoadKind.Ac || load.Quantity == 0 || load.Tap is not null || s.Results.Voltage is not { } v)
            return null;
        var at = $"/demand/loads/{i}/window";
        if (s.Results.Devices.FirstOrDefault(d => d.Load == i) is { } device)
        {
            if (device.Fits)
                return null;
            FindingFigure[] figures =
            [
                new("least it accepts", device.MinV, "V"),
                new("most it accepts", device.MaxV, "V"),
                new("least it gets", device.LeastV, "V"),
                new("most it gets", device.GreatestV, "V"),
            ];
            var (high, low) = (device.Fails.Contains(WindowFailure.High), device.Fails.Contains(WindowFailure.Low));
            var tooHigh =
                load.Kind == LoadKind.Dc
                    ? "Charging lifts the bus above its nominal volts, and that is what reaches the device."
                    : "The converter gives more than the device accepts.";
            const string tooLow = "Under load, the bank nearly empty, that is what is left at the end of its cable.";
            // A bank of more cells than the bus is said to have burns what hangs on it.
            var foreign = high && load.Kind == LoadKind.Dc && s.Results.Bank is { } bank && bank.Layout.Cells > v.Cells;
            return s.Make(
                "load.window",
                foreign ? Grade.Danger : Grade.Fault,
                Station.Loads,
                at,
                high && low
                        ? $"{load.Name} takes {Say.V(device.MinV)} to {Say.V(device.MaxV)}, and gets {Say.V(device.LeastV)} to "
                            + $"{Say.V(device.GreatestV)}"
                    : high ? $"{load.Name} bears {Say.V(device.MaxV)}, and gets {Say.V(device.GreatestV)}"
                    : $"{load.Name} stops at {Say.V(device.MinV)}, and gets {Say.V(device.LeastV)}",
                high && low ? $"{tooHigh} Nearly empty and under load too little is left for it."
                    : high ? tooHigh
                    : tooLow,
                figures,
                Feed(s, load, i)
            );
        }
        // No window is known: the device's own volts against the bus must do.
        if (load.Kind != LoadKind.Dc || load.Volts is not { } own || load.Window is not null)
            return null;
        var bus = s.Results.Bank?.Holds.NominalV ?? v.NominalV;
        var over = Tolerant.Exceeds(bus, own * BearsOver);
        if (!over && !Tolerant.Exceeds(own, bus * BearsOver))
            return null;
        return s.Make(
            "load.window",
            Grade.Fault,
            Station.Loads,
            $"/demand/loads/{i}/volts",
            $"A {Say.V(own)} device on {Say.V(bus)}",
            over
                ? $"{load.Name} is fed at the bank, whose volts are not its own."
                : $"{load.Name} is fed at the bank, whose volts are too low for it: it does not run, or hardly.",
            [new("device", own, "V"), new("bus", bus, "V")],
            Feed(s, load, i)
        );
    }

    private static MendOffer[] Feed(FindingScene s, Load load, int i)
    {
        var volts = load.Window is null ? load.Volts ?? DevicesStage.DefaultConverterV : Voltage.LoadFeeds.Between(load.Window);
        var watts = load.Watts ?? load.Amps * (load.Volts ?? s.Results.Voltage!.NominalV);
        var loss =
            watts is { } p && (load.Hours ?? load.Windows?.Sum(x => new DayWindow(x[0], x[1]).Hours)) is { } h
                ? p * load.Quantity * load.Duty * h * (1 / LoadsStage.AssumedConverterEfficiency - 1)
                : 0;
        return
        [
            FindingScene.Offer(
                $"Feed it through a converter at {Say.V(volts)}",
                load.Kind == LoadKind.Dc ? $"steady volts; the converter takes {Say.Wh(loss)} a day" : "inside its window",
                s.Bank.WithLoad(
                    i,
                    load with
                    {
                        Kind = LoadKind.Converter,
                        Volts = volts,
                        Watts = load.States is { Count: > 0 } ? null : watts,
                        Amps = null,
                    }
                )
            ),
        ];
    }

    /// <summary>DC made AC and back again for a device that is DC inside.</summary>
    private static Finding? DoubleConversion(FindingScene s, Load load, int i)
    {
        if (
            load is not { Kind: LoadKind.Ac, AdapterEfficiency: { } share }
            || load.Quantity == 0
            || s.Results.Energy is not { } e
            || s.Results.Inverter is null
            || e.Rows[i].BankWh <= 0
        )
            return null;
        var reaches = s.Results.Loads!.Rows[i].EnergyWh * share;
        var dc = DcInstead.Of(load, s.Results.Voltage!.SystemV);
        return s.Make(
            "load.double-conversion",
            Grade.Note,
            Station.Loads,
            $"/demand/loads/{i}/adapterEfficiency",
            $"{load.Name}: DC to AC and back",
            $"{Say.Wh(e.Rows[i].BankWh)} leave the bank for {Say.Wh(reaches)} that reach the device; inverter and adapter keep the rest.",
            [new("from the bank", e.Rows[i].BankWh, "Wh"), new("at the device", reaches, "Wh")],
            FindingScene.Offer(
                "Feed it with DC",
                then =>
                    then.Energy.Value is { } less && i < less.Rows.Count
                        ? $"{DcInstead.Where(dc)}: {Say.Wh(less.Rows[i].BankWh)} a day, saves "
                            + $"{Say.Wh(e.Rows[i].BankWh - less.Rows[i].BankWh)}"
                        : DcInstead.Where(dc),
                s.Bank.WithLoad(i, dc)
            )
        );
    }

    private static Finding? StartBelowRunning(FindingScene s, Load load, int i) =>
        load.Watts is not { } running || load.SurgeWatts <= 0 || load.SurgeWatts >= running
            ? null
            : s.Make(
                "load.start",
                Grade.Note,
                Station.Loads,
                $"/demand/loads/{i}/surgeWatts",
                $"{load.Name} starts below what it runs at",
                "A start is all it draws at its beginning, not what comes on top: this one counts as its running watts.",
                [new("start", load.SurgeWatts, "W"), new("running", running, "W")],
                FindingScene.Offer(
                    $"{Say.W(running + load.SurgeWatts)} at its start",
                    "if the figure was what comes on top",
                    s.Bank.WithLoad(i, load with { SurgeWatts = running + load.SurgeWatts })
                ),
                FindingScene.Offer("No start of its own", "it counts as it runs", s.Bank.WithLoad(i, load with { SurgeWatts = 0 }))
            );

    /// <summary>Half a load: watts without a time, or a time without watts.</summary>
    private static Finding? CountsForNothing(FindingScene s, Load load, int i)
    {
        if (s.Results.Loads is not { } loads || i >= loads.Rows.Count || load.Quantity == 0)
            return null;
        var row = loads.Rows[i];
        if (row.RunningW > 0 == row.HoursOn > 0)
            return null;
        return s.Make(
            "load.empty",
            Grade.Note,
            Station.Loads,
            $"/demand/loads/{i}",
            $"{(load.Name.Length > 0 ? load.Name : "A load")} counts for nothing",
            row.RunningW > 0 ? "It has watts, and is never on." : "It has its times, and no watts.",
            [new("running", row.RunningW, "W"), new("on a day", row.HoursOn, "h")]
        );
    }

    /// <summary>A large load without times counts as on at every instant, on top of every start.</summary>
    private static Finding? NoTimes(FindingScene s, Load load, int i)
    {
        if (
            load is not { Kind: LoadKind.Ac, Windows: null, Hours: > 0 and < 12 }
            || s.Results.Loads is not { PeakAcW: > 0 } loads
            || s.Results.Voltage is not { } v
        )
            return null;
        if (loads.Rows.Count(r => r.Kind == LoadKind.Ac && r.RunningW > 0) < 2 || loads.Rows[i].RunningW < MuchOfPeak * loads.PeakAcW)
            return null;
        // Noon for a start: the quiet hour is looked for from there.
        var from = Math.Max(0, 12 - Math.Round(load.Hours.Value * 6) / 12);
        var placed = new DayWindow(from, Math.Min(24, from + load.Hours.Value));
        var daily = LoadsStage.Resolve(s.Scene.Bank, v.NominalV).ConvertAll(l => l.Daily);
        daily[i] = daily[i] with { Hours = null, Windows = [placed] };
        var window = QuietHour.Find(daily, i)?.Windows[0] ?? placed;
        var timed = s.Bank.WithLoad(
            i,
            load with
            {
                Windows =
                [
                    [window.StartH, window.EndH],
                ],
                Hours = null,
            }
        );
        if (s.Work.With(timed).Loads.Value is not { } placedLoads || placedLoads.SurgeDemandW > (1 - WorthPlacing) * loads.SurgeDemandW)
            return null;
        return s.Make(
            "load.no-times",
            Grade.Note,
            Station.Loads,
            $"/demand/loads/{i}/hours",
            $"{load.Name} has no times, so it is always in the way",
            $"{Say.W(loads.Rows[i].RunningW)} for {Say.Hours(load.Hours.Value)} at a time nobody named count as on at every "
                + $"instant, under every other start.",
            [new("running", loads.Rows[i].RunningW, "W"), new("on a day", load.Hours.Value, "h")],
            FindingScene.Offer(
                $"Let it run from {Say.Clock(window.StartH)}",
                then => $"worst instant {Say.W(then.Loads.Value?.SurgeDemandW ?? 0)} instead of {Say.W(loads.SurgeDemandW)}",
                timed
            )
        );
    }
}

namespace InkyBadger.Core.Findings;

/// <summary>Demand: what takes more than it seems to.</summary>
internal static class LoadFindings
{
    private const double IdleWorthSaying = 0.15;

    public static FindingRule[] Rules { get; } = [IdleDraw, OnRaised];

    private static Finding? IdleDraw(FindingScene s)
    {
        if (s.Results.Energy is not { } e || s.Results.Inverter is not { } inverter || e.IdleShare <= IdleWorthSaying) return null;
        var asked = s.Results.Loads!.NeededOnH;
        var saving = inverter.IdleW * (e.InverterOnH - asked);
        Mend[] mends = saving > 0
            ? [s.MendBank("Switch it off between loads", $"{Say.Hours(asked)} on, saves {Say.Wh(saving)} a day", "/inverters/0/onH", (double?)null)]
            : [];
        return s.Make("inverter.idle", Grade.Caution, Station.Loads, "/inverters/0", $"Idling takes {Say.Percent(e.IdleShare, 0)} of the day",
            $"{Say.W(inverter.IdleW)} for {Say.Hours(e.InverterOnH)} is {Say.Wh(e.IdleWh)}, used by nobody. An AC load that is on all day keeps the inverter on.",
            [new("idle a day", e.IdleWh, "Wh"), new("share", e.IdleShare, "fraction")], mends);
    }

    private static Finding? OnRaised(FindingScene s) => s.Results.Energy is not { InverterOnRaised: true } e ? null
        : s.Make("inverter.on-hours", Grade.Note, Station.Loads, "/inverters/0/onH", "The inverter must be on for longer",
            $"Its loads run for {Say.Hours(e.InverterOnH)} a day; that is what is counted.", [new("on a day", e.InverterOnH, "h")],
            s.MendBank("As its loads need", Say.Hours(e.InverterOnH), "/inverters/0/onH", (double?)null));
}

using InkyBadger.Core.Reference;

namespace InkyBadger.Core.Logs;

/// <summary>
/// How far a monitor’s charge can be trusted: half of the band, its ends, the charge that the rest volts stand for (null: none were given),
/// whether they can be read, whether they agree (null: they cannot be read), and whether it is to be synchronised.
/// </summary>
public sealed record MonitorTrustResult(
    double Band,
    double SocLeast,
    double SocMost,
    double? SocRest,
    bool? Readable,
    bool? Agrees,
    bool Synchronise
);

/// <summary>Rest volts of a bank, to hold a monitor against: how long it has rested [h, ≥ 0].</summary>
public sealed record RestedBank(string Chemistry, int CellsInSeries, double RestV, double RestHours);

/// <summary>A monitor counts, and what it counts drifts until the bank is full again (method, 13.6).</summary>
public static class MonitorTrust
{
    public const double UsualDriftPerDay = 0.005;

    private const double MostBand = 0.1,
        Beyond = 0.1,
        LithiumRestH = 2,
        LeadRestH = 12;

    /// <param name="socShown">[0 to 1].</param>
    /// <param name="daysSinceFull">[d, ≥ 0].</param>
    /// <param name="driftPerDay">[0 to 0.2].</param>
    /// <param name="rested">Null: nobody measured.</param>
    /// <exception cref="Refusal">Names the offending input.</exception>
    public static MonitorTrustResult Work(
        double socShown,
        double daysSinceFull,
        double driftPerDay = UsualDriftPerDay,
        RestedBank? rested = null
    )
    {
        Require.Within(socShown, 0, 1);
        Require.AtLeast(daysSinceFull, 0);
        Require.Within(driftPerDay, 0, 0.2);
        var band = driftPerDay * daysSinceFull;
        double? rest = null;
        bool? readable = null,
            agrees = null;
        if (rested is { } r)
        {
            var kind = Chemistries.Get(r.Chemistry);
            Require.AtLeast(r.CellsInSeries, 1, "cellsInSeries");
            Require.Above(r.RestV, 0, "restV");
            Require.AtLeast(r.RestHours, 0, "restHours");
            rest = RestVoltage.SocAt(r.Chemistry, r.RestV / r.CellsInSeries);
            readable =
                Tolerant.AtLeast(r.RestHours, kind.IsLithium ? LithiumRestH : LeadRestH) && RestVoltage.CanBeRead(r.Chemistry, rest.Value);
            if (readable == true)
                agrees = Tolerant.AtLeast(band + Beyond, Math.Abs(rest.Value - socShown));
        }
        return new(
            band,
            Math.Max(0, socShown - band),
            Math.Min(1, socShown + band),
            rest,
            readable,
            agrees,
            Tolerant.Exceeds(band, MostBand) || agrees == false
        );
    }
}

using InkyBadger.Core.Demand;
using InkyBadger.Core.Design;
using InkyBadger.Core.Work;

namespace InkyBadger.Core.Rehearsal;

/// <summary>A string at an instant: out of it positive [A], its charge [0 to 1], and whether it is open.</summary>
public readonly record struct InstantString(double Amps, double Soc, bool IsOut);

/// <summary>A source at an instant, at the bus.</summary>
public sealed record InstantSource(string Id, double Watts, double Amps);

/// <summary>A load at an instant, by itself [W]; one that is asked and not given is dark.</summary>
public sealed record InstantLoad(string Id, string Name, double Watts, bool Dark);

/// <summary>
/// The bank at a minute of its year: hour from the beginning of the run, charge [0 to 1], volts of the bus (0: nothing gives any), amperes
/// of the bank (out of it positive), watts of the first inverter’s outlets and whether they pass it by.
/// </summary>
public sealed record YearInstant(
    double H,
    double Soc,
    double Volts,
    double BankA,
    double NetW,
    double InverterW,
    bool InverterOn,
    bool Passed,
    bool Dark,
    IReadOnlyList<InstantString> Strings,
    IReadOnlyList<InstantSource> Sources,
    IReadOnlyList<InstantLoad> Loads
);

/// <summary>
/// Reads out of each quarter of an hour of a day the minute in which most is asked, a dark one before all others: an instant that was, not
/// a mean of several.
/// </summary>
public sealed class YearInstants : IRehearsalReader
{
    private readonly BankWork w;
    private readonly RehearsalSetup setup;
    private readonly int perQuarter;
    private readonly List<YearInstant> list = new(YearReader.Quarters);
    private double most;
    private YearInstant? held;

    internal YearInstants(BankWork w, RehearsalSetup setup) =>
        (this.w, this.setup, perQuarter) = (w, setup, Math.Max(1, setup.Plan.StepsPerDay / YearReader.Quarters));

    public IReadOnlyList<YearInstant> List => list;

    public void Read(in Moment m)
    {
        var asked = m.AcW + m.DcW;
        if (held is null || m.Dark && !held.Dark || m.Dark == held.Dark && Tolerant.Exceeds(asked, most))
            (most, held) = (asked, Of(m));
        if ((m.Step + 1) % perQuarter != 0)
            return;
        list.Add(held);
        held = null;
    }

    private YearInstant Of(in Moment m)
    {
        var strings = new InstantString[m.Amps.Length];
        var sum = 0.0;
        for (var i = 0; i < strings.Length; i++)
        {
            strings[i] = new(m.Amps[i], Math.Max(0, m.StringSoc[i]), m.IsOut[i]);
            sum += m.Amps[i];
        }
        var sources = new InstantSource[m.Given.Length];
        for (var n = 0; n < sources.Length; n++)
            sources[n] = new(setup.SourceIds[n], m.Given[n], m.Volts > 0 ? m.Given[n] / m.Volts : 0);
        var hour = m.H % 24 + setup.Plan.StepS / 7200.0;
        var (darkAc, darkDc) = (m.DarkAc, m.DarkDc);
        List<InstantLoad> loads =
        [
            .. DayWatts
                .Each(w, setup.SeasonOf((int)(m.H / 24)), hour)
                .Select(l => new InstantLoad(l.Id, l.Name, l.Watts, l.Watts > 0 && (l.Kind == LoadKind.Ac ? darkAc : darkDc))),
        ];
        foreach (var watts in setup.GuestsAt(m.H))
            loads.Add(new("", "a guest", watts, w.Inverter.Value is null ? darkDc : darkAc));
        return new(
            m.H,
            m.Soc,
            m.Volts,
            sum,
            m.NetW,
            m.InverterOn && !m.DarkAc && !m.Passed ? m.AcW : 0,
            m.InverterOn,
            m.Passed,
            m.Dark,
            strings,
            sources,
            loads
        );
    }
}

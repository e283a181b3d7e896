using InkyBadger.Core.Reference;

namespace InkyBadger.Core.Proving;

/// <summary>What a capacity test tells; the first that applies.</summary>
public enum CapacityVerdict
{
    Good,

    /// <summary>It was stopped before the cut-off: there is at least so much.</summary>
    NotTold,
    Aged,
    Worn,
}

/// <summary>How much a test takes out: one of the three.</summary>
/// <param name="AcWh">At the outlet of an inverter [Wh].</param>
/// <param name="DcWh">At the bank [Wh].</param>
/// <param name="Ah">At the bank [Ah].</param>
public sealed record CapacityTaken(double? AcWh = null, double? DcWh = null, double? Ah = null)
{
    /// <summary>Of the inverter between (0 to 1], with <see cref="AcWh"/>.</summary>
    public double? InverterEfficiency { get; init; }

    /// <summary>What the inverter takes for itself [W, ≥ 0].</summary>
    public double InverterIdleW { get; init; }
}

/// <summary>A capacity test.</summary>
/// <param name="DcWh">At the bank [Wh].</param>
/// <param name="Ah">[Ah].</param>
/// <param name="RateFactor">Lead gives less when it is taken faster than its plate says [≥ 1].</param>
/// <param name="ColdFactor">Of what it gives at 25 °C (0 to 1].</param>
/// <param name="CorrectedAh">At its plate’s hours and 25 °C [Ah].</param>
/// <param name="Share">Of the rating: its health.</param>
/// <param name="CRate">[1/h].</param>
/// <param name="LoadOk">It was taken neither too fast nor too slowly to be told.</param>
public sealed record CapacityTestResult(
    double DcWh,
    double Ah,
    double RateFactor,
    double ColdFactor,
    double CorrectedAh,
    double Share,
    double CRate,
    bool LoadOk,
    bool Doubtful,
    CapacityVerdict Verdict
);

/// <summary>From full to the cut-off: what a bank or a unit still holds (method, 12.7).</summary>
public static class CapacityTest
{
    private const double UsualC = 25;

    /// <param name="taken">One of its three.</param>
    /// <param name="hours">It took [h, &gt; 0].</param>
    /// <param name="nominalV">[V, &gt; 0].</param>
    /// <param name="chemistry">Its id.</param>
    /// <param name="ratedAh">[Ah, &gt; 0].</param>
    /// <param name="meanV">While it was taken [V, &gt; 0]; null: nominal.</param>
    /// <param name="ratedHours">Of the plate [h, &gt; 0]; lead only.</param>
    /// <param name="peukertExponent">[≥ 1]; null: the chemistry’s; lead only.</param>
    /// <param name="temperatureC">Of the bank [°C, −20 to 60].</param>
    /// <param name="stoppedEarly">Before the cut-off.</param>
    /// <exception cref="Refusal">Names the offending input; of two measures of the same the later.</exception>
    public static CapacityTestResult Work(
        CapacityTaken taken,
        double hours,
        double nominalV,
        string chemistry,
        double ratedAh,
        double? meanV = null,
        double ratedHours = 20,
        double? peukertExponent = null,
        double temperatureC = UsualC,
        bool stoppedEarly = false
    )
    {
        if (taken is { Ah: not null, AcWh: not null } or { Ah: not null, DcWh: not null })
            Require.Refuse("ah", "is a second measure of the same");
        if (taken is { DcWh: not null, AcWh: not null })
            Require.Refuse("dcWh", "is a second measure of the same");
        Require.Above(hours, 0);
        Require.Above(nominalV, 0);
        Require.Above(ratedAh, 0);
        var volts = meanV ?? nominalV;
        Require.Above(volts, 0, nameof(meanV));
        Require.Within(temperatureC, -20, 60);
        var kind = Chemistries.Get(chemistry);
        var (wh, ah) = Taken(taken, hours, volts);
        var rate = 1.0;
        if (!kind.IsLithium)
        {
            Require.Above(ratedHours, 0);
            var k = peukertExponent ?? kind.PeukertExponent;
            Require.AtLeast(k, 1, nameof(peukertExponent));
            rate = Math.Max(1, Math.Pow(ratedHours / hours, 1 - 1 / k));
        }
        var cold = 1 - (kind.IsLithium ? 0.004 : 0.006) * Math.Max(0, UsualC - temperatureC);
        var corrected = ah * rate / cold;
        var share = corrected / ratedAh;
        var c = ah / hours / ratedAh;
        var loadOk = Tolerant.AtLeast(c, kind.IsLithium ? 0.05 : 0.04) && Tolerant.AtLeast(kind.IsLithium ? 0.5 : 0.25, c);
        return new(
            wh,
            ah,
            rate,
            cold,
            corrected,
            share,
            c,
            loadOk,
            !loadOk || temperatureC is < 10 or > 40 || Tolerant.Exceeds(share, 1.15),
            Tolerant.AtLeast(share, 0.9) ? CapacityVerdict.Good
                : stoppedEarly ? CapacityVerdict.NotTold
                : Tolerant.AtLeast(share, 0.8) ? CapacityVerdict.Aged
                : CapacityVerdict.Worn
        );
    }

    private static (double Wh, double Ah) Taken(CapacityTaken taken, double hours, double volts)
    {
        if (taken.Ah is { } ah)
        {
            Require.Above(ah, 0);
            return (ah * volts, ah);
        }
        if (taken.DcWh is { } dc)
        {
            Require.Above(dc, 0, "dcWh");
            return (dc, dc / volts);
        }
        if (taken.AcWh is not { } ac)
            throw new Refusal("acWh", "or dcWh or ah is required");
        Require.Above(ac, 0, "acWh");
        if (taken.InverterEfficiency is not { } efficiency)
            throw new Refusal("inverterEfficiency", "is required with acWh");
        if (!(efficiency is > 0 and <= 1))
            Require.Refuse("inverterEfficiency", "must be more than 0 and at most 1");
        Require.AtLeast(taken.InverterIdleW, 0, "inverterIdleW");
        var wh = ac / efficiency + taken.InverterIdleW * hours;
        return (wh, wh / volts);
    }
}

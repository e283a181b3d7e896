namespace InkyBadger.Core.Proving;

/// <summary>What a bank’s sag tells; the first that applies.</summary>
public enum SagVerdict
{
    /// <summary>Higher under load than at rest: the tips, or a charger is on.</summary>
    Probes,
    MoreCurrent,

    /// <summary>Less than half of what there can be: is all of the current this bank’s?</summary>
    Low,
    Ok,
    Look,
    Bad,
}

/// <summary>A bank, or a unit, by how far its volts fall.</summary>
/// <param name="SagV">Measured; may be negative [V].</param>
/// <param name="PredictedSagV">[V].</param>
/// <param name="BankMilliohm">Measured [mΩ].</param>
/// <param name="Ratio">Measured to predicted resistance.</param>
/// <param name="LeastCurrentA">From here on the meter tells it [A].</param>
public sealed record UnderLoadResult(
    double SagV,
    double PredictedSagV,
    double BankMilliohm,
    double Ratio,
    double LeastCurrentA,
    SagVerdict Verdict
);

/// <summary>Rest volts and volts after half a minute under a current (method, 12.4).</summary>
public static class UnderLoad
{
    private const double StepsToTell = 5;

    /// <param name="restV">[V, &gt; 0].</param>
    /// <param name="loadV">[V, &gt; 0].</param>
    /// <param name="currentA">[A, &gt; 0].</param>
    /// <param name="predictedOhm">Bank and path between the tips [Ω, &gt; 0].</param>
    /// <param name="meterStepV">The meter’s last digit [V, &gt; 0].</param>
    /// <exception cref="Refusal">Names the offending input.</exception>
    public static UnderLoadResult Work(double restV, double loadV, double currentA, double predictedOhm, double meterStepV = 0.01)
    {
        Require.Above(restV, 0);
        Require.Above(loadV, 0);
        Require.Above(currentA, 0);
        Require.Above(predictedOhm, 0);
        Require.Above(meterStepV, 0);
        var sag = restV - loadV;
        var predicted = currentA * predictedOhm;
        var ohm = sag / currentA;
        var ratio = ohm / predictedOhm;
        var verdict =
            Tolerant.Exceeds(-sag, meterStepV) ? SagVerdict.Probes
            : Tolerant.Exceeds(StepsToTell * meterStepV, predicted) ? SagVerdict.MoreCurrent
            : Tolerant.Exceeds(0.5, ratio) ? SagVerdict.Low
            : Tolerant.AtLeast(1.3, ratio) ? SagVerdict.Ok
            : Tolerant.AtLeast(2.0, ratio) ? SagVerdict.Look
            : SagVerdict.Bad;
        return new(sag, predicted, 1000 * ohm, ratio, StepsToTell * meterStepV / predictedOhm, verdict);
    }
}

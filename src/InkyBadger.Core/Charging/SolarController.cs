namespace InkyBadger.Core.Charging;

/// <summary>
/// Output current wanted [A], what the controller passes and clips [W] at absorption and at nominal volts, and the array's cold voltage
/// [V].
/// </summary>
public readonly record struct SolarControllerResult(
    double WantedA,
    double PassedAbsorbW,
    double ClippedAbsorbW,
    double PassedNominalW,
    double ClippedNominalW,
    double ColdVocV,
    bool VoltageOk
);

/// <summary>An array on a charge controller (method, 9.1).</summary>
public static class SolarController
{
    /// <summary>Change of the open-circuit voltage a kelvin, typical of crystalline modules.</summary>
    public const double UsualVocCoefficientPerK = -0.0027;

    /// <param name="arrayW">[W, &gt; 0].</param>
    /// <param name="absorbV">The bank's absorption voltage [V, &gt; 0].</param>
    /// <param name="nominalV">The bank's nominal voltage [V, &gt; 0]; what it passes most of the day.</param>
    /// <param name="vocCoeffPerK">[1/K, −0.02 to 0].</param>
    /// <param name="minC">Coldest the modules get in light [°C, −90 to 90].</param>
    /// <exception cref="Refusal">Names the offending input.</exception>
    public static SolarControllerResult Work(
        double arrayW,
        double absorbV,
        double nominalV,
        double controllerA,
        double controllerMaxV,
        int seriesModules,
        double moduleVocV,
        double minC,
        double vocCoeffPerK = UsualVocCoefficientPerK
    )
    {
        Require.Above(arrayW, 0);
        Require.Above(absorbV, 0);
        Require.Above(nominalV, 0);
        Require.Above(controllerA, 0);
        Require.Above(controllerMaxV, 0);
        Require.AtLeast(seriesModules, 1);
        Require.Above(moduleVocV, 0);
        Require.Within(vocCoeffPerK, -0.02, 0);
        Require.Within(minC, -90, 90);
        var atAbsorb = Math.Min(arrayW, controllerA * absorbV);
        var atNominal = Math.Min(arrayW, controllerA * nominalV);
        var cold = seriesModules * moduleVocV * (1 + vocCoeffPerK * (minC - 25));
        return new(
            arrayW / absorbV,
            atAbsorb,
            arrayW - atAbsorb,
            atNominal,
            arrayW - atNominal,
            cold,
            Tolerant.AtLeast(controllerMaxV, cold)
        );
    }
}

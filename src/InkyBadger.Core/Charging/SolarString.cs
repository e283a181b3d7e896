using InkyBadger.Core.Reference;

namespace InkyBadger.Core.Charging;

/// <summary>What an array and its controller fail at, in the order they are told.</summary>
public enum ArrayFault
{
    ColdVoltage,
    Reach,
    Start,
    Current,
    Fuse,
}

/// <summary>A solar module by its plate: volts open and at work [V], short-circuit amperes [A], the greatest fuse it bears [A].</summary>
/// <param name="VmpV">Below <paramref name="VocV"/>.</param>
/// <param name="VocCoeffPerK">[1/K, −0.02 to 0].</param>
/// <param name="VmpCoeffPerK">[1/K, −0.02 to 0].</param>
public sealed record ModulePlate(
    double VocV,
    double VmpV,
    double IscA,
    double? MaxFuseA = null,
    double VocCoeffPerK = SolarController.UsualVocCoefficientPerK,
    double VmpCoeffPerK = SolarString.UsualVmpCoefficientPerK
);

/// <summary>
/// What a controller takes in: greatest volts [V], greatest amperes [A], and how far above the bank it runs and starts [V].
/// </summary>
public sealed record ControllerInput(double MaxV, double? MaxIscA = null, double HeadroomV = 1, double? StartHeadroomV = null);

/// <summary>
/// Volts of the array cold and hot [V] and whether they suit the controller, amperes of a string and of the array to design for [A], the
/// fuse a string wants [A], and all that fails.
/// </summary>
public sealed record SolarStringResult(
    double ColdVocV,
    bool VoltageOk,
    double HotVmpV,
    bool Reaches,
    double HotVocV,
    bool Starts,
    double StringA,
    double ArrayA,
    bool FuseWanted,
    double? FuseA,
    bool Fits,
    IReadOnlyList<ArrayFault> Fails
);

/// <summary>Modules in series and parallel against a controller and a bank (method, 9.4).</summary>
public static class SolarString
{
    public const double UsualVmpCoefficientPerK = -0.0035,
        UsualHotCellC = 70;

    /// <summary>What the sun can make of the short-circuit current for hours, and what a fuse must bear of it without ageing.</summary>
    public const double Sun = 1.25;

    private const double FuseOverIsc = 1.56;

    /// <param name="minC">Coldest the modules get in light [°C, −90 to 90].</param>
    /// <param name="absorbV">The bank's absorption voltage [V, &gt; 0].</param>
    /// <param name="hotCellC">Of a cell in full sun [°C, 25 to 100].</param>
    /// <exception cref="Refusal">Names the offending input, a module's with <c>module</c> before it.</exception>
    public static SolarStringResult Work(
        int seriesModules,
        int parallelStrings,
        ModulePlate module,
        ControllerInput controller,
        double absorbV,
        double minC,
        double hotCellC = UsualHotCellC
    )
    {
        Require.AtLeast(seriesModules, 1);
        Require.AtLeast(parallelStrings, 1);
        Require.Above(module.VocV, 0, "moduleVocV");
        Require.Above(module.VmpV, 0, "moduleVmpV");
        if (module.VmpV >= module.VocV)
            Require.Refuse("moduleVmpV", "must be below the open-circuit voltage");
        Require.Above(module.IscA, 0, "moduleIscA");
        if (module.MaxFuseA is { } most)
            Require.Above(most, 0, "moduleMaxFuseA");
        Require.Within(module.VocCoeffPerK, -0.02, 0);
        Require.Within(module.VmpCoeffPerK, -0.02, 0);
        Require.Within(minC, -90, 90);
        Require.Within(hotCellC, 25, 100);
        Require.Above(controller.MaxV, 0, "controllerMaxV");
        if (controller.MaxIscA is { } input)
            Require.Above(input, 0, "controllerMaxIscA");
        Require.Above(absorbV, 0);
        Require.AtLeast(controller.HeadroomV, 0);
        var start = controller.StartHeadroomV ?? controller.HeadroomV;
        Require.AtLeast(start, 0, "startHeadroomV");

        var cold = seriesModules * module.VocV * (1 + module.VocCoeffPerK * (minC - 25));
        var hotVmp = seriesModules * module.VmpV * (1 + module.VmpCoeffPerK * (hotCellC - 25));
        var hotVoc = seriesModules * module.VocV * (1 + module.VocCoeffPerK * (hotCellC - 25));
        var stringA = Sun * module.IscA;
        var arrayA = stringA * parallelStrings;
        // The other strings feed a shorted one: one alone, and mostly two, cannot hurt it.
        var wanted = module.MaxFuseA is { } bears ? Tolerant.Exceeds((parallelStrings - 1) * stringA, bears) : parallelStrings >= 3;
        var fuse = wanted ? StringFuseClass.Solar.Next(FuseOverIsc * module.IscA) : null;

        var voltageOk = Tolerant.AtLeast(controller.MaxV, cold);
        var reaches = Tolerant.AtLeast(hotVmp, absorbV + controller.HeadroomV);
        var starts = Tolerant.AtLeast(hotVoc, absorbV + start);
        var fails = new List<ArrayFault>();
        if (!voltageOk)
            fails.Add(ArrayFault.ColdVoltage);
        if (!reaches)
            fails.Add(ArrayFault.Reach);
        if (!starts)
            fails.Add(ArrayFault.Start);
        if (controller.MaxIscA is { } greatest && Tolerant.Exceeds(arrayA, greatest))
            fails.Add(ArrayFault.Current);
        if (wanted && (fuse is null || module.MaxFuseA is { } plate && Tolerant.Exceeds(fuse.Value, plate)))
            fails.Add(ArrayFault.Fuse);
        return new(cold, voltageOk, hotVmp, reaches, hotVoc, starts, stringA, arrayA, wanted, fuse, fails.Count == 0, fails);
    }
}

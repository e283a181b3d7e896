namespace InkyBadger.Core.Costs;

public enum StagedVerdict
{
    AtOnce,
    Staged,
}

/// <summary>Some units now, the others later. Money in one currency; units in parallel only: in series old and new never mix.</summary>
/// <param name="YearsLater">[a, &gt; 0].</param>
public sealed record BuildStagedInput(int UnitsNow, double UnitPriceNow, int UnitsLater, double YearsLater, double UnitUsableWh)
{
    /// <summary>[money, ≥ 0]; null: as now.</summary>
    public double? UnitPriceLater { get; init; }

    /// <summary>Of the second visit [money, ≥ 0].</summary>
    public double VisitCost { get; init; }

    /// <summary>What money is worth less a year later [0 to 1).</summary>
    public double DiscountRate { get; init; } = BuildStaged.UsualDiscount;

    /// <summary>Of its capacity a unit loses a year [0 to 0.5].</summary>
    public double FadePerYear { get; init; } = BuildStaged.UsualFade;
}

/// <summary>
/// What is paid when, both ways in today's money, what the old units still hold then (a fraction), usable watt-hours, and up to which
/// price of a later unit waiting is cheaper (negative: none is low enough).
/// </summary>
public sealed record BuildStagedResult(
    double PayNow,
    double PayLater,
    double StagedValue,
    double AtOnceValue,
    double OldFactor,
    double UsableNowWh,
    double UsableLaterStagedWh,
    double UsableLaterAtOnceWh,
    double BreakEvenPrice,
    StagedVerdict Cheaper
);

/// <summary>Buying in two stages against buying at once (method, 8.7).</summary>
public static class BuildStaged
{
    public const double UsualDiscount = 0.03,
        UsualFade = 0.02,
        LeadFade = 0.06,
        MostFade = 0.5;

    /// <exception cref="Refusal">Names the offending input.</exception>
    public static BuildStagedResult Work(BuildStagedInput input)
    {
        Require.AtLeast(input.UnitsNow, 1);
        Require.AtLeast(input.UnitPriceNow, 0);
        Require.AtLeast(input.UnitsLater, 1);
        var later = input.UnitPriceLater ?? input.UnitPriceNow;
        Require.AtLeast(later, 0, nameof(input.UnitPriceLater));
        Require.Above(input.YearsLater, 0);
        Require.AtLeast(input.VisitCost, 0);
        Require.Below(input.DiscountRate, 0, 1);
        Require.Within(input.FadePerYear, 0, MostFade);
        Require.Above(input.UnitUsableWh, 0);
        var worth = Math.Pow(1 + input.DiscountRate, input.YearsLater);
        var payNow = input.UnitsNow * input.UnitPriceNow;
        var payLater = input.UnitsLater * later + input.VisitCost;
        var staged = payNow + payLater / worth;
        var atOnce = (input.UnitsNow + input.UnitsLater) * input.UnitPriceNow;
        var old = Math.Max(0, 1 - input.FadePerYear * input.YearsLater);
        return new(
            payNow,
            payLater,
            staged,
            atOnce,
            old,
            input.UnitsNow * input.UnitUsableWh,
            (input.UnitsNow * old + input.UnitsLater) * input.UnitUsableWh,
            (input.UnitsNow + input.UnitsLater) * old * input.UnitUsableWh,
            (input.UnitsLater * input.UnitPriceNow * worth - input.VisitCost) / input.UnitsLater,
            Tolerant.Exceeds(atOnce, staged) ? StagedVerdict.Staged : StagedVerdict.AtOnce
        );
    }
}

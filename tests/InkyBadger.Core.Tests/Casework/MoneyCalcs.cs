using InkyBadger.Core.Costs;

namespace InkyBadger.Core.Tests.Casework;

/// <summary>The calculations of builds against money and over time.</summary>
internal static partial class CaseCalcs
{
    private static object Front(CaseFields f) =>
        BuildFront.Work(f.Rows("points").ConvertAll(p => new FrontPoint(p.Num("cost"), p.Num("merit"))));

    private static object Staged(CaseFields f) =>
        BuildStaged.Work(
            new(f.Count("units_now"), f.Num("unit_price_now"), f.Count("units_later"), f.Num("years_later"), f.Num("unit_usable_wh"))
            {
                UnitPriceLater = f.Opt("unit_price_later"),
                VisitCost = f.Num("visit_cost", 0),
                DiscountRate = f.Num("discount_rate", BuildStaged.UsualDiscount),
                FadePerYear = f.Num("fade_per_year", BuildStaged.UsualFade),
            }
        );
}

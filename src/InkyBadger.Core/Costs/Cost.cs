namespace InkyBadger.Core.Costs;

/// <summary>Money for each watt-hour rated and usable.</summary>
public readonly record struct CostPerWhResult(double PerRatedWh, double PerUsableWh);

/// <summary>
/// How long one bank serves [years], how many are bought, energy delivered [kWh] (per kWh: null when nothing is), and money a year.
/// </summary>
public readonly record struct CostDeliveredResult(
    double LifeYears,
    int Banks,
    double DeliveredKwh,
    double? PerDeliveredKwh,
    double PerYearHeld
);

/// <summary>Money for what a bank holds and gives (method, section 8). Prices in one currency, ≥ 0.</summary>
public static class Cost
{
    /// <param name="usableWh">(0 to rated]; null: rated · <paramref name="dod"/>.</param>
    /// <exception cref="Refusal">Names the offending input.</exception>
    public static CostPerWhResult PerWh(double price, double ratedWh, double? usableWh, double? dod)
    {
        Require.AtLeast(price, 0);
        Require.Above(ratedWh, 0);
        if (usableWh is { } given)
        {
            Require.Above(given, 0, nameof(usableWh));
            if (Tolerant.Exceeds(given, ratedWh))
                Require.Refuse(nameof(usableWh), "must not be above the rated energy");
        }
        else
            Require.Share(Require.Given(dod), nameof(dod));
        return new(price / ratedWh, price / (usableWh ?? ratedWh * dod!.Value));
    }

    /// <param name="usableWh">Of one bank [Wh, &gt; 0].</param>
    /// <param name="years">To be served [years, &gt; 0].</param>
    /// <param name="cyclesPerYear">[1/year, ≥ 0]; 0: it is held for the day it is needed.</param>
    /// <param name="cycleLife">Cycles of one bank [&gt; 0].</param>
    /// <exception cref="Refusal">Names the offending input.</exception>
    public static CostDeliveredResult Delivered(
        double price,
        double usableWh,
        double years,
        double cyclesPerYear,
        double calendarYears,
        double cycleLife
    )
    {
        Require.AtLeast(price, 0);
        Require.Above(usableWh, 0);
        Require.Above(years, 0);
        Require.AtLeast(cyclesPerYear, 0);
        Require.Above(calendarYears, 0);
        Require.Above(cycleLife, 0);
        var life = cyclesPerYear == 0 ? calendarYears : Math.Min(calendarYears, cycleLife / cyclesPerYear);
        var banks = Tolerant.RoundUp(years / life);
        var delivered = usableWh / 1000 * cyclesPerYear * years;
        return new(life, banks, delivered, delivered > 0 ? price * banks / delivered : null, price * banks / years);
    }
}

namespace InkyBadger.Core.Banks;

public readonly record struct PeukertExponentResult(double RatedA, double Exponent, bool Doubtful);

public readonly record struct PeukertRuntimeResult(double Hours, double DeliveredAh);

/// <summary>Peukert's law for lead-acid: capacity shrinks with current (method, 4.3).</summary>
public static class Peukert
{
    /// <summary>
    /// Exponent from a plate's two ratings: <paramref name="ratedAh"/> at <paramref name="ratedHours"/>, and minutes at amperes.
    /// </summary>
    /// <exception cref="Refusal">
    /// <c>reserveA</c> at or below the rated current, <c>reserveMinutes</c> at or above the rated hours.
    /// </exception>
    public static PeukertExponentResult Exponent(double ratedAh, double ratedHours, double reserveMinutes, double reserveA)
    {
        Require.Above(ratedAh, 0);
        Require.Above(ratedHours, 0);
        Require.Above(reserveMinutes, 0);
        Require.Above(reserveA, 0);
        var ratedA = ratedAh / ratedHours;
        var reserveH = reserveMinutes / 60;
        if (reserveA <= ratedA)
            Require.Refuse("reserveA", "must be above the rated current");
        if (reserveH >= ratedHours)
            Require.Refuse("reserveMinutes", "must be shorter than the rated hours");
        var k = Math.Log(ratedHours / reserveH) / Math.Log(reserveA / ratedA);
        return new(ratedA, k, k is < 1.0 or > 1.6);
    }

    /// <summary>Hours and ampere-hours at a current [A]; below the rated current no more than the rating.</summary>
    public static PeukertRuntimeResult At(double ratedAh, double ratedHours, double exponent, double currentA)
    {
        Require.Above(ratedAh, 0);
        Require.Above(ratedHours, 0);
        Require.AtLeast(exponent, 1);
        Require.Above(currentA, 0);
        if (currentA < ratedAh / ratedHours)
            return new(ratedAh / currentA, ratedAh);
        var hours = ratedHours * Math.Pow(ratedAh / (currentA * ratedHours), exponent);
        return new(hours, currentA * hours);
    }
}

namespace InkyBadger.Core.Banks;

/// <summary>A unit of a string at one moment: capacity [Ah, &gt; 0], state of charge [0 to 1], nominal volts [V, &gt; 0].</summary>
public readonly record struct DriftUnit(double Ah, double Soc, double NominalV);

/// <summary>What a string that has drifted apart still gives, takes and can use [Ah], and what is stranded in it [Wh].</summary>
public readonly record struct SeriesDriftResult(double CanGiveAh, double CanTakeAh, double UsableAh, double StrandedWh);

/// <summary>Units in series that are not at the same charge: the emptiest ends discharge, the fullest ends charge (method, 4.4).</summary>
public static class SeriesDrift
{
    /// <exception cref="Refusal"><c>units</c>, <c>ah</c>, <c>soc</c>, <c>nominalV</c>.</exception>
    public static SeriesDriftResult Work(IReadOnlyList<DriftUnit> units)
    {
        if (units.Count == 0)
            Require.Refuse("units", "needs at least one unit");
        foreach (var (ah, soc, nominalV) in units)
        {
            Require.Above(ah, 0);
            Require.Within(soc, 0, 1);
            Require.Above(nominalV, 0);
        }
        var give = units.Min(u => u.Ah * u.Soc);
        var take = units.Min(u => u.Ah * (1 - u.Soc));
        var usable = give + take;
        return new(give, take, usable, units.Sum(u => (u.Ah - usable) * u.NominalV));
    }
}

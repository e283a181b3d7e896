using InkyBadger.Core.Reference;

namespace InkyBadger.Core.Charging;

/// <summary>
/// A day's energy [Wh]: what the sources bring, what of it is used as it comes, what goes into the bank and stays, what leaves it, the
/// difference; the share of the day that is covered and by which source; days until full, or until the floor.
/// </summary>
public sealed record ChargeDayResult(
    double SourceWh,
    double DirectWh,
    double IntoBankWh,
    double FromBankWh,
    double BalanceWh,
    double Covered,
    IReadOnlyList<double> CoveredBy,
    double? DaysToFull,
    double? DaysToFloor
);

/// <summary>What a source brings a day: watt-hours, or amperes for hours.</summary>
public readonly record struct DaySource(double? Wh = null, double? Amps = null, double? Hours = null);

/// <summary>Sources against the day's need (method, 9.10).</summary>
public static class ChargeDay
{
    /// <param name="dailyWh">[Wh, &gt; 0].</param>
    /// <param name="nightWh">Drawn while no source gives [Wh, 0 to <paramref name="dailyWh"/>].</param>
    /// <param name="ratedWh">Of the bank [Wh, &gt; 0].</param>
    /// <param name="soc">[0 to 1].</param>
    /// <param name="floorSoc">[0 to 1); null: what the typical depth of discharge leaves.</param>
    /// <param name="chargeV">[V, &gt; 0]; needed by a source told in amperes.</param>
    /// <exception cref="Refusal">Names the offending input.</exception>
    public static ChargeDayResult Work(
        Chemistry chemistry,
        double dailyWh,
        double nightWh,
        double ratedWh,
        double soc,
        IReadOnlyList<DaySource> sources,
        double? floorSoc = null,
        double? chargeV = null
    )
    {
        Require.Above(dailyWh, 0);
        Require.Within(nightWh, 0, dailyWh);
        Require.Above(ratedWh, 0);
        Require.Within(soc, 0, 1);
        var floor = floorSoc ?? 1 - chemistry.DodTypical;
        if (!(floor >= 0 && floor < 1))
            Require.Refuse(nameof(floorSoc), "must be from 0 to below 1");
        if (chargeV is { } v)
            Require.Above(v, 0, nameof(chargeV));

        var each = sources.Select(s => Energy(s, chargeV)).ToArray();
        var all = each.Sum();
        var direct = Math.Min(all, dailyWh - nightWh);
        var into = (all - direct) * chemistry.EnergyEfficiency;
        var from = dailyWh - direct;
        var balance = Math.Abs(into - from) <= Tolerant.Noise * dailyWh ? 0 : into - from;
        var covered = Math.Min(1, (direct + into) / dailyWh);
        return new(
            all,
            direct,
            into,
            from,
            balance,
            covered,
            [.. each.Select(wh => all > 0 ? covered * wh / all : 0)],
            balance > 0 ? (1 - soc) * ratedWh / balance : null,
            balance < 0 ? Math.Max(0, soc - floor) * ratedWh / -balance : null
        );
    }

    private static double Energy(DaySource source, double? chargeV)
    {
        if (source is { Wh: not null, Amps: not null })
            Require.Refuse(nameof(source.Amps), "either watt-hours or amperes");
        if (source.Wh is { } wh)
        {
            Require.AtLeast(wh, 0, nameof(source.Wh));
            return wh;
        }
        var amps = Require.Given(source.Amps, source.Hours is null ? nameof(source.Wh) : nameof(source.Amps));
        Require.AtLeast(amps, 0, nameof(source.Amps));
        var hours = Require.Given(source.Hours, nameof(source.Hours));
        Require.Within(hours, 0, 24, nameof(source.Hours));
        return amps * hours * Require.Given(chargeV);
    }
}

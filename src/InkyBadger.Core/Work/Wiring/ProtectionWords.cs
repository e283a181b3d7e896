namespace InkyBadger.Core.Work;

/// <summary>What a short on a run does, in sentences.</summary>
internal static class ProtectionWords
{
    public static string Headline(ProtectedRun r)
    {
        var on = r.Id == Design.Run.MainId ? "the main run" : r.Name;
        if (r.Behind)
            return r.Own is null
                ? $"A converter limits what a short on {on} draws: no fuse is there to open"
                : $"A converter limits what a short on {on} draws: whether the fuse opens is up to it";
        if (r.ShortA is not { } most)
            return "What a short draws follows from the bank: choose a unit";
        if (r.Own is null && r.Upstream is null)
            return "Nothing opens: a short here is ended by the copper";
        if (ProtectionFields.BurnsOnRun(r) is var (from, to))
        {
            var size = Say.Size(r.Run.Cable.Size!, r.Run.Cable.Conductors);
            return r.EndA is { } least && Tolerant.AtLeast(least, from) && Tolerant.AtLeast(to, most)
                ? $"No short on {on} spares its {size}: it may burn before anything opens"
                : $"A short of {Say.A(from)} to {Say.A(to)} on {on} may burn its {size} before anything opens";
        }
        if (r.Own is not { } own)
            return $"{Capital(on)} has no fuse of its own: a short opens {r.Upstream!.Name}, and all that hangs on it goes dark";
        var rating = Say.Rating(own.Curve.RatingA);
        if (r.Upstream is not { } up)
            return Tolerant.AtLeast(own.BreaksA, most)
                ? $"A short on {on} opens its {rating} fuse, whatever it draws: {Say.A(most)} at most"
                : $"A short on {on} draws up to {Say.A(most)}, and its {rating} fuse breaks {Say.A(own.BreaksA)}";
        return r.Together switch
        {
            { Selective: true } when !Tolerant.AtLeast(own.BreaksA, most) =>
                $"A short on {on} opens its {rating} fuse first up to {Say.A(own.BreaksA)}; above that it leaves it to {up.Name}",
            { Selective: true } => $"A short on {on} opens its {rating} fuse and no other, whatever it draws",
            { Selective: false, SelectiveUpToA: { } alone } when r.EndA is { } least && least > alone =>
                $"No short on {on} spares {up.Name}: the {rating} opens first only up to {Say.A(alone)}",
            { Selective: false, SelectiveUpToA: { } alone } =>
                $"A short on {on} opens its {rating} fuse first, up to {Say.A(alone)}; above it {up.Name} may go too",
            { Selective: false } => $"A short on {on} may open {up.Name} as well, whatever it draws",
            _ => $"Nothing that flows in a short on {on} opens its {rating} fuse",
        };
    }

    /// <summary>What happens in a short that draws so much.</summary>
    public static string At(ProtectedRun r, double amps)
    {
        var copper = r.CopperStands(amps);
        var opens = ProtectionFields.MostOpens(r, amps);
        if (copper is { } stands && (opens is null || opens > stands))
        {
            var size = Say.Size(r.Run.Cable.Size!, r.Run.Cable.Conductors);
            return opens is null
                ? $"{size} stands it {Say.Seconds(stands)}, and nothing is made to open it"
                : $"{size} stands it {Say.Seconds(stands)}, and it may flow for {Say.Seconds(opens.Value)}";
        }
        return Capital(First(r, amps));
    }

    /// <summary>Who is first at a current.</summary>
    public static string First(ProtectedRun r, double amps)
    {
        var copper = r.CopperStands(amps);
        var opens = ProtectionFields.MostOpens(r, amps);
        if (copper is { } stands && (opens is null || opens > stands * (1 + 1e-9)))
            return "the copper may burn first";
        var (own, up) = (r.Own, r.Upstream);
        double? ownMost = own?.Curve.MostAt(amps),
            upLeast = up?.Curve.LeastAt(amps);
        if (own is not null && ownMost is not null && !Tolerant.AtLeast(own.BreaksA, amps))
            return upLeast is not null && Tolerant.AtLeast(up!.BreaksA, amps)
                ? $"{up.Name}, for it is more than its own breaks"
                : "more than it breaks";
        if (ownMost is null && upLeast is null)
            return "none opens";
        if (ownMost is null)
            return $"{up!.Name} alone";
        if (upLeast is null || Tolerant.AtLeast(upLeast.Value, ownMost.Value))
            return up is null ? "its fuse" : "its own fuse alone";
        if (r.Together?.ApartAboveA is { } apart && amps > apart)
            return $"its own fuse alone, by ratings of {Say.Number(r.Together.Ratio, 1)} to 1 within one family";
        return own!.Curve.LeastAt(amps) is { } soonest && up!.Curve.MostAt(amps) is { } latest && latest < soonest
            ? $"{up.Name}, before its own"
            : "either, or both";
    }

    private static string Capital(string text) => text.Length == 0 ? text : char.ToUpperInvariant(text[0]) + text[1..];
}

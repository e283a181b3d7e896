using InkyBadger.Core.Design;

namespace InkyBadger.Core.Sheets;

/// <summary>What lists that went out bring back into a design: how far parts have come, and which settings are in.</summary>
public static class ListBack
{
    /// <summary>The design with a part’s marks and price as they are told; what it was ordered as stays.</summary>
    /// <param name="design">Before.</param>
    /// <param name="part">As the design has it.</param>
    /// <param name="marks">All of them; empty: it is planned.</param>
    /// <param name="paid">Really, for all of it [money]; null: not told.</param>
    public static DesignDocument WithMarks(DesignDocument design, Part part, IReadOnlyList<LedgerMark> marks, double? paid)
    {
        var before = design.Ledger.FirstOrDefault(e => e.Key == part.Key);
        if (before is null && marks.Count == 0 && paid is null)
            return design;
        var after = (before ?? new LedgerEntry { Key = part.Key }) with
        {
            Marks = before is not null && before.Marks.OrderBy(m => m.Stop).SequenceEqual(marks) ? before.Marks : marks,
            Paid = paid,
            Wanted = before?.Wanted
                ?? new()
                {
                    Name = part.Name,
                    Spec = part.Spec,
                    Count = part.Count,
                },
        };
        return design with
        {
            Ledger = before is null ? [.. design.Ledger, after] : [.. design.Ledger.Select(e => e.Key == part.Key ? after : e)],
        };
    }

    /// <summary>The design with a setting as it was found to be; null: there is no such device or setting.</summary>
    /// <param name="design">Before.</param>
    /// <param name="bank">Id of its bank.</param>
    /// <param name="device">Id of the source or the inverter, or <see cref="DeviceSetting.Monitor"/>.</param>
    /// <param name="name">Which setting, such as <c>absorbV</c>.</param>
    /// <param name="set">Somebody put it in.</param>
    /// <param name="seen">What the meter showed; null: nobody measured.</param>
    /// <param name="date">Day of both, as YYYY-MM-DD.</param>
    public static DesignDocument? WithSetting(
        DesignDocument design,
        string bank,
        string device,
        string name,
        bool set,
        double? seen,
        string? date
    )
    {
        if (design.Banks.FirstOrDefault(b => b.Id == bank) is not { } its)
            return null;
        Bank after;
        if (its.Sources.Index().FirstOrDefault(x => x.Item.Id == device) is { Item: not null } found)
        {
            if (Changed(found.Item.Settings, name, s => New(s, set, seen, date)) is not { } settings)
                return null;
            after = its.WithSource(found.Index, x => x with { Settings = settings });
        }
        else if (device == DeviceSetting.Monitor || its.Inverters.Any(i => i.Id == device))
        {
            var before = its.Cards.FirstOrDefault(c => c.Device == device && c.Name == name);
            if (before is null && !set && seen is null)
                return design;
            var card = (before ?? new DeviceSetting { Device = device, Name = name }) with { Set = set, Seen = seen, Date = date };
            after = its with
            {
                Cards = before is null ? [.. its.Cards, card] : [.. its.Cards.Select(c => ReferenceEquals(c, before) ? card : c)],
            };
        }
        else
            return null;
        return design with { Banks = [.. design.Banks.Select(b => ReferenceEquals(b, its) ? after : b)] };
    }

    /// <summary>A setting that nobody touched stays as advised and unsaid.</summary>
    private static Setting? New(Setting? before, bool set, double? seen, string? date) =>
        before is null && !set && seen is null ? null : (before ?? new Setting()) with { Set = set, Seen = seen, Date = date };

    private static ChargerSettings? Changed(ChargerSettings s, string name, Func<Setting?, Setting?> change) =>
        name switch
        {
            "absorbV" => s with { AbsorbV = change(s.AbsorbV) },
            "absorbMinutes" => s with { AbsorbMinutes = change(s.AbsorbMinutes) },
            "floatV" => s with { FloatV = change(s.FloatV) },
            "equaliseV" => s with { EqualiseV = change(s.EqualiseV) },
            "compensationMvPerK" => s with { CompensationMvPerK = change(s.CompensationMvPerK) },
            "leastC" => s with { LeastC = change(s.LeastC) },
            "amps" => s with { Amps = change(s.Amps) },
            _ => null,
        };
}

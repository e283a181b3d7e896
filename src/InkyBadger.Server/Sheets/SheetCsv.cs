using InkyBadger.Core.BringUp;
using InkyBadger.Core.Design;
using InkyBadger.Core.Sheets;
using InkyBadger.Core.Work;
using InkyBadger.Server.Files;
using InkyBadger.Server.Sheets.Drawing;

namespace InkyBadger.Server.Sheets;

/// <summary>Parts, settings and labels as CSV, by docs/format/schedules.md.</summary>
internal static class SheetCsv
{
    /// <summary>What has become of a part, and the key it is known by when the list comes back.</summary>
    private static readonly string[] Build =
    [
        "ordered",
        "ordered on",
        "here",
        "here on",
        "fitted",
        "fitted on",
        "proven",
        "proven on",
        "why proven",
        "paid",
        "key",
    ];

    private static IEnumerable<object?> Built(LedgerRow row, DesignDocument design)
    {
        var entry = row.Entry is { } at ? design.Ledger[at] : null;
        foreach (var stop in Enum.GetValues<LedgerStop>())
        {
            var mark = entry?.Marks.FirstOrDefault(m => m.Stop == stop);
            yield return mark?.Count;
            yield return mark?.Date;
        }
        yield return entry?.Marks.FirstOrDefault(m => m.Stop == LedgerStop.Proven)?.Reason;
        yield return entry?.Paid;
        yield return row.Part.Key;
    }

    /// <summary>Everything that is bought, and how far it has come.</summary>
    public static string Parts(LedgerResult ledger, WiringDrawing drawing, DesignDocument design) =>
        CsvText.Write(
            ["tag", "zone", "part", "must be", "count", "unit", "to buy", "each", "price", "for", "bank", .. Build],
            ledger
                .Rows.Where(r => r.Kind != LedgerKind.Copper)
                .Select(r =>
                    new object?[]
                    {
                        r.Part.Tag,
                        drawing.Zones.GetValueOrDefault(r.Part.Key),
                        r.Part.Name,
                        r.Part.Spec,
                        r.Part.Count,
                        r.Part.Unit,
                        r.ToBuy,
                        r.Part.Each,
                        r.Part.Price is { } price ? Math.Round(price, 2) : null,
                        r.Gone ? "no longer in the design" : r.Part.Group.ToString().ToLowerInvariant(),
                        r.Part.Bank,
                    }.Concat(Built(r, design))
                )
        );

    /// <summary>Every run of copper, and how far it has come.</summary>
    public static string Copper(LedgerResult ledger, WiringDrawing drawing, DesignDocument design) =>
        CsvText.Write(
            ["label", "zone", "from and to", "size and length", "pieces", "bank", .. Build],
            ledger
                .Rows.Where(r => r.Kind == LedgerKind.Copper)
                .Select(r =>
                    new object?[]
                    {
                        r.Part.Tag,
                        drawing.Zones.GetValueOrDefault(r.Part.Key),
                        r.Part.Name,
                        r.Part.Spec,
                        r.Part.Count,
                        r.Part.Bank,
                    }.Concat(Built(r, design))
                )
        );

    public static string Settings(IEnumerable<(BankEvaluation Bank, SettingsCard Card)> cards) =>
        CsvText.Write(
            ["bank", "device", "setting", "set to", "unit", "found", "must change", "set", "meter", "date", "key"],
            cards.SelectMany(c =>
                c.Card.Rows.Select(r =>
                    new object?[]
                    {
                        c.Bank.Name,
                        c.Card.Name,
                        r.Label,
                        r.SetTo is { } value ? Math.Round(value, 3) : r.Word,
                        r.Unit,
                        r.Found is { } found ? found : r.FoundWord,
                        r.Must ? "yes" : "no",
                        r.Done ? "yes" : "no",
                        r.Seen,
                        r.Date,
                        $"{c.Bank.Id}/{c.Card.Device}/{r.Setting}",
                    }
                )
            )
        );

    /// <summary>What the meter said when it was brought up.</summary>
    public static string BringUp(IEnumerable<BringUpLine> lines) =>
        CsvText.Write(
            ["part", "step", "what", "value", "unit", "amps", "expected", "judged", "at", "by", "words", "made-up bank", "key"],
            lines.Select(l =>
                new object?[]
                {
                    l.Part,
                    l.Step,
                    l.What.ToString().ToLowerInvariant(),
                    l.Value,
                    l.Unit,
                    l.Amps is { } amps ? Math.Round(amps, 3) : null,
                    l.Expected,
                    l.Judged,
                    l.At,
                    l.By,
                    l.Words,
                    l.Simulated,
                    l.Key,
                }
            )
        );

    public static string Labels(IEnumerable<Sleeve> sleeves) =>
        CsvText.Write(
            ["label", "from", "to", "size and length", "sleeves", "bank"],
            sleeves.Select(s => new object?[] { s.Tag, s.From, s.To, s.Size, s.Count, s.Bank })
        );
}

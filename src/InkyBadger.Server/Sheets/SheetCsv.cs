using InkyBadger.Core.Sheets;
using InkyBadger.Core.Work;
using InkyBadger.Server.Files;

namespace InkyBadger.Server.Sheets;

/// <summary>Parts, settings and labels as CSV, by docs/format/schedules.md.</summary>
internal static class SheetCsv
{
    public static string Parts(PartsResult parts) =>
        CsvText.Write(
            ["tag", "part", "must be", "count", "unit", "each", "price", "for", "bank", "key"],
            parts.Parts.Select(p =>
                new object?[]
                {
                    p.Tag,
                    p.Name,
                    p.Spec,
                    p.Count,
                    p.Unit,
                    p.Each,
                    p.Price is { } price ? Math.Round(price, 2) : null,
                    p.Group.ToString().ToLowerInvariant(),
                    p.Bank,
                    p.Key,
                }
            )
        );

    public static string Settings(IEnumerable<(string Bank, SettingsCard Card)> cards) =>
        CsvText.Write(
            ["bank", "device", "setting", "set to", "unit", "found", "must change", "set", "meter", "date"],
            cards.SelectMany(c =>
                c.Card.Rows.Select(r =>
                    new object?[]
                    {
                        c.Bank,
                        c.Card.Name,
                        r.Label,
                        r.SetTo is { } value ? Math.Round(value, 3) : r.Word,
                        r.Unit,
                        r.Found is { } found ? found : r.FoundWord,
                        r.Must ? "yes" : "no",
                        r.Done ? "yes" : "no",
                        r.Seen,
                        r.Date,
                    }
                )
            )
        );

    public static string Labels(IEnumerable<Sleeve> sleeves) =>
        CsvText.Write(
            ["label", "from", "to", "size and length", "sleeves", "bank"],
            sleeves.Select(s => new object?[] { s.Tag, s.From, s.To, s.Size, s.Count, s.Bank })
        );
}

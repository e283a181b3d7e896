using System.Globalization;
using System.Net;
using System.Text;
using InkyBadger.Core;
using InkyBadger.Core.Design;
using InkyBadger.Core.Sheets;
using InkyBadger.Core.Trials;
using InkyBadger.Server.Sheets.Drawing;

namespace InkyBadger.Server.Sheets;

/// <summary>Everything on one page that any browser reads without scripts, and prints.</summary>
internal static class SheetHtml
{
    private const string Style = """
        body{font:14px/1.4 sans-serif;max-width:62em;margin:2em auto;padding:0 1em;color:#111}
        table{border-collapse:collapse;width:100%;margin:.5em 0 1.5em}
        th,td{border-bottom:1px solid #999;text-align:left;padding:2px 6px;vertical-align:top}
        td.n{text-align:right;white-space:nowrap}h2{margin-top:1.6em}
        """;

    public static string Of(
        PaperSite papers,
        Evaluation evaluation,
        PartsResult parts,
        IReadOnlyList<SchedulesResult?> lists,
        LedgerResult ledger,
        WiringDrawing drawing
    )
    {
        var (design, text) = (papers.Design, new StringBuilder());
        void Line(string html) => text.Append(html).Append('\n');
        void Words(string title, IReadOnlyList<WalkSection> sections)
        {
            Line($"<h2>{title}</h2>");
            foreach (var section in sections)
            {
                Line($"<h3>{WebUtility.HtmlEncode(section.Title)}</h3><ol>");
                foreach (var sentence in section.Sentences)
                    Line($"<li>{WebUtility.HtmlEncode(sentence)}</li>");
                Line("</ol>");
            }
        }
        var name = WebUtility.HtmlEncode(DesignName.Of(design));
        Line($"<!doctype html><html lang=\"en\"><head><meta charset=\"utf-8\"><title>{name}</title><style>{Style}</style></head><body>");
        Line($"<h1>{name}</h1>");
        foreach (var bank in evaluation.Banks)
            Line($"<p>{WebUtility.HtmlEncode(string.Join(". ", bank.Headlines.Values))}.</p>");
        Line($"<h2>How far it is built</h2><p>{WebUtility.HtmlEncode(ledger.Headline)}.</p>");
        foreach (var sheet in drawing.Sheets)
            Line(sheet.Svg);
        Line($"<h2>Parts: {WebUtility.HtmlEncode(parts.Words(design.Display.Currency))}</h2>");
        Table(
            text,
            ["", "part", "must be", "count", "each", "price"],
            parts.Parts.Select(p =>
                new[]
                {
                    p.Tag,
                    p.Name,
                    p.Spec,
                    $"{Number(p.Count, 2)} {p.Unit}".Trim(),
                    p.Each is { } each ? Number(each, 2) : "open",
                    p.Price is { } price ? Number(price, 2) : "open",
                }
            )
        );
        foreach (var (i, list) in lists.Index())
        {
            if (list is null)
                continue;
            var of = lists.Count > 1 ? $", {WebUtility.HtmlEncode(evaluation.Banks[i].Name)}" : "";
            Line($"<h2>Fuses{of}</h2>");
            Table(
                text,
                ["fuse", "count", "class", "rating A", "breaks A", "protects"],
                list.Fuses.Select(f =>
                    new[]
                    {
                        f.Name,
                        Number(f.Count, 0),
                        f.Class,
                        f.RatingA is { } a ? Number(a, 1) : "none made",
                        Number(f.InterruptA, 0),
                        f.Protects,
                    }
                )
            );
            Line($"<h2>Cuts{of}</h2>");
            Table(
                text,
                ["label", "from", "to", "size", "colour", "pieces", "length m", "lugs"],
                list.Cables.Select(c =>
                    new[]
                    {
                        c.Label,
                        c.From,
                        c.To,
                        c.Size,
                        c.Colour,
                        Number(c.Pieces, 0),
                        Number(c.LengthM, 3),
                        c.FromLug == c.ToLug ? c.FromLug : $"{c.FromLug}; {c.ToLug}",
                    }
                )
            );
        }
        Words("Walk-through", WalkThrough.Of(papers));
        Words("For the supplier", SupplierBrief.Of(papers));
        Words("Cautions, and the tables used", [new("Heed", Footing.Cautions(papers)), new("Tables and rules", Footing.Tables(papers))]);
        var wrong = evaluation.Findings.Where(f => f.Grade <= Core.Findings.Grade.Caution).ToList();
        Line($"<h2>{(wrong.Count == 0 ? "Nothing found wrong" : $"{wrong.Count} found")}</h2><ul>");
        foreach (var f in wrong)
            Line($"<li><b>{f.Grade.ToString().ToLowerInvariant()}</b> {WebUtility.HtmlEncode(f.Title)}</li>");
        Line("</ul><p>Checked by: ____________________ &nbsp; Licence: ____________ &nbsp; Date: ____________</p></body></html>");
        return text.ToString();
    }

    private static string Number(double value, int decimals) => Math.Round(value, decimals).ToString(CultureInfo.InvariantCulture);

    private static void Table(StringBuilder text, string[] heads, IEnumerable<string[]> rows)
    {
        text.Append("<table><thead><tr>");
        foreach (var head in heads)
            text.Append("<th>").Append(WebUtility.HtmlEncode(head)).Append("</th>");
        text.Append("</tr></thead><tbody>\n");
        foreach (var row in rows)
        {
            text.Append("<tr>");
            foreach (var cell in row)
                text.Append("<td>").Append(WebUtility.HtmlEncode(cell)).Append("</td>");
            text.Append("</tr>\n");
        }
        text.Append("</tbody></table>\n");
    }
}

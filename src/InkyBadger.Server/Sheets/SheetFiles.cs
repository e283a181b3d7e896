using System.Globalization;
using System.Text;
using System.Text.Json;
using InkyBadger.Core;
using InkyBadger.Core.BringUp;
using InkyBadger.Core.Design;
using InkyBadger.Core.Sheets;
using InkyBadger.Server.Cables;
using InkyBadger.Server.Sheets.Drawing;
using InkyBadger.Storage;

namespace InkyBadger.Server.Sheets;

/// <summary>A paper as a file; what is in it is worked out when it is asked for.</summary>
internal sealed record SheetFile(string Name, string Type, Func<byte[]> Content);

/// <summary>The papers of a kept design in open formats, by docs/format/schedules.md.</summary>
internal static class SheetFiles
{
    public static IReadOnlyList<SheetFile> Of(StoredDesign stored) =>
        Of(
            new PaperSite(stored.Design),
            stored.Revision,
            $"{stored.Revision}, {stored.UpdatedUtc.ToString("d MMM yyyy", CultureInfo.InvariantCulture)}"
        );

    /// <param name="papers">The design with its lists.</param>
    /// <param name="revision">Of what is kept.</param>
    /// <param name="said">Revision and day, for the title block.</param>
    public static IReadOnlyList<SheetFile> Of(PaperSite papers, long? revision, string said)
    {
        var design = papers.Design;
        var walk = new Lazy<BringUpResult>(() => BringUpWalk.Work(papers));
        var ledger = new Lazy<LedgerResult>(() => BuildLedger.Work(papers, revision, walk.Value.Proven));
        var drawing = new Lazy<WiringDrawing>(() => WiringSheets.Of(papers, ledger.Value, said));
        var labels = new Lazy<LabelsResult>(() => LabelsResult.Work(papers));
        var evaluation = new Lazy<Evaluation>(() => Evaluator.Evaluate(design, mends: false));
        var files = new List<SheetFile>();
        void Add(string name, string type, Func<byte[]> content) => files.Add(new(name, type, content));
        void Csv(string name, Func<string> text) =>
            // With the mark by which spreadsheets know UTF-8.
            Add(name, "text/csv", () => [.. Encoding.UTF8.GetPreamble(), .. Encoding.UTF8.GetBytes(text())]);
        void Text(string name, string type, Func<string> text) => Add(name, type, () => Encoding.UTF8.GetBytes(text()));

        Add("design.json", "application/json", () => JsonSerializer.SerializeToUtf8Bytes(design, DesignFormat.Indented));
        Csv("parts.csv", () => SheetCsv.Parts(ledger.Value, drawing.Value, design));
        Csv("copper.csv", () => SheetCsv.Copper(ledger.Value, drawing.Value, design));
        Csv("labels.csv", () => SheetCsv.Labels(labels.Value.Sleeves));
        Csv("settings.csv", () => SheetCsv.Settings(evaluation.Value.Banks.SelectMany(b => (b.Charging?.Cards ?? []).Select(c => (b, c)))));
        for (var i = 0; i < papers.Count; i++)
        {
            var (bank, of) = (i, papers.Count == 1 ? "" : $"-{i + 1}");
            Csv($"cuts{of}.csv", () => ScheduleCsv.Cables(papers.Lists(bank)?.Cables ?? []));
            Csv($"fuses{of}.csv", () => ScheduleCsv.Fuses(papers.Lists(bank)?.Fuses ?? []));
            if (Netlist.Of(design, i) is { } netlist)
                Text($"bank{of}.cir", "text/plain", () => netlist);
        }
        if (design.BringUp.Entries.Count > 0)
        {
            Csv("bring-up.csv", () => SheetCsv.BringUp(BringUpList.Of(walk.Value, design.BringUp)));
            Add("bring-up.json", "application/json", () =>
                JsonSerializer.SerializeToUtf8Bytes(BringUpList.Of(walk.Value, design.BringUp), DesignFormat.Indented)
            );
        }
        foreach (var sheet in drawing.Value.Sheets)
            Text($"wiring-{sheet.Number}.svg", "image/svg+xml", () => $"<?xml version=\"1.0\" encoding=\"UTF-8\"?>\n{sheet.Svg}");
        foreach (var (n, page) in LabelSvg.Pages(labels.Value).Index())
            Text($"labels-{n + 1}.svg", "image/svg+xml", () => page);
        Text("walk-through.txt", "text/plain", () => WalkThrough.Text(design));
        Text("supplier.txt", "text/plain", () => SupplierBrief.Text(design));
        Text("everything.html", "text/html", () =>
            SheetHtml.Of(
                papers,
                evaluation.Value,
                PartsList.Work(papers),
                [.. Enumerable.Range(0, papers.Count).Select(papers.Lists)],
                ledger.Value,
                drawing.Value
            )
        );
        return files;
    }
}

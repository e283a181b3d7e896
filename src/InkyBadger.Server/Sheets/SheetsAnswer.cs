using System.Globalization;
using InkyBadger.Core.BringUp;
using InkyBadger.Core.Design;
using InkyBadger.Core.Sheets;
using InkyBadger.Server.Sheets.Drawing;

namespace InkyBadger.Server.Sheets;

/// <summary>What is bought, in words: all of it, and what is neither ordered nor here.</summary>
public sealed record PartsPage(IReadOnlyList<Part> Parts, string Words, string ToBuy, string? Paid);

/// <summary>Cuts, fuses and settings of one bank.</summary>
public sealed record BankPages(string Id, string Name, SchedulesResult Lists, IReadOnlyList<SettingsCard> Cards);

/// <summary>Everything the pages say of a design, how far it is built, and the names of the files they can be had as.</summary>
public sealed record SheetsAnswer(
    string Name,
    string Revision,
    LedgerResult Ledger,
    WiringDrawing Drawing,
    PartsPage Parts,
    IReadOnlyList<BankPages> Banks,
    LabelsResult Labels,
    IReadOnlyList<string> LabelSheets,
    IReadOnlyList<WalkSection> Walk,
    IReadOnlyList<WalkSection> Brief,
    IReadOnlyList<string> Cautions,
    IReadOnlyList<string> Tables,
    IReadOnlyList<string> Files,
    IReadOnlyList<BringUpLine> Record
)
{
    /// <param name="design">As it stands.</param>
    /// <param name="revision">Of what is kept; null: it is not.</param>
    /// <param name="day">That revision’s day.</param>
    public static SheetsAnswer Of(DesignDocument design, long? revision, DateOnly? day)
    {
        var papers = new PaperSite(design);
        var walk = BringUpWalk.Work(papers);
        var ledger = BuildLedger.Work(papers, revision, walk.Proven);
        var parts = PartsList.Work(papers);
        var labels = LabelsResult.Work(papers);
        var said =
            revision is null ? ""
            : day is { } d ? $"{revision}, {d.ToString("d MMM yyyy", CultureInfo.InvariantCulture)}"
            : $"{revision}";
        return new(
            DesignName.Of(design),
            said,
            ledger,
            WiringSheets.Of(papers, ledger, said),
            new(
                parts.Parts,
                parts.Words(design.Display.Currency),
                ledger.ToBuy,
                ledger.PaidSum > 0 ? design.Display.Currency + ledger.PaidSum.ToString("N2", CultureInfo.InvariantCulture) : null
            ),
            [
                .. design.Banks.Select(
                    (b, i) =>
                        new BankPages(
                            b.Id,
                            b.Name,
                            papers.Lists(i) ?? new([], [], [], []),
                            papers.Site[i].Evaluation(headlines: false).Charging?.Cards ?? []
                        )
                ),
            ],
            labels,
            LabelSvg.Pages(labels),
            WalkThrough.Of(papers),
            SupplierBrief.Of(papers),
            Footing.Cautions(papers),
            Footing.Tables(papers),
            [.. SheetFiles.Of(papers, revision, said).Select(f => f.Name)],
            BringUpList.Of(walk, design.BringUp)
        );
    }
}

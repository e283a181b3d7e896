using InkyBadger.Core.Design;
using InkyBadger.Core.Trials;
using InkyBadger.Core.Work;

namespace InkyBadger.Core.Sheets;

/// <summary>A design as its papers look at it: its banks with their lists, worked out once for all of them.</summary>
public sealed class PaperSite
{
    private readonly Lazy<SchedulesResult?>[] lists;

    public PaperSite(DesignDocument design)
    {
        Design = design;
        Site = new(design);
        lists = [.. Enumerable.Range(0, Site.Count).Select(i => new Lazy<SchedulesResult?>(() => Schedules.Of(Site[i])))];
    }

    public DesignDocument Design { get; }
    public SiteWork Site { get; }
    public int Count => Site.Count;

    /// <summary>Cuts and fuses of a bank; null as long as there is no main run.</summary>
    public SchedulesResult? Lists(int bank) => lists[bank].Value;
}

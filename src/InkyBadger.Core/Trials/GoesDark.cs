using InkyBadger.Core.Design;
using InkyBadger.Core.Work;

namespace InkyBadger.Core.Trials;

/// <summary>What goes dark when any one thing opens, asked for when it is looked at.</summary>
public static class GoesDark
{
    /// <summary>Null as long as there is no bank with a load on it.</summary>
    public static DarkResult? Work(DesignDocument design, int bank) => DarkWork.Of(new SiteWork(design)[bank]);
}

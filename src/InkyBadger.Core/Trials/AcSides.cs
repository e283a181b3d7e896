using InkyBadger.Core.Design;
using InkyBadger.Core.Work;

namespace InkyBadger.Core.Trials;

/// <summary>The AC side, asked for when it is looked at.</summary>
public static class AcSides
{
    /// <summary>Null: nobody has drawn it.</summary>
    public static AcBoardResult? Work(DesignDocument design) => new SiteWork(design).Ac;

    /// <summary>One to start from, made of what the design has.</summary>
    public static AcDrawing Start(DesignDocument design, AcStart start) => AcStarts.Of(design, start);
}

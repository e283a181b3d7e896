namespace InkyBadger.Core.Work;

/// <summary>
/// A search has found another build that does the same for less: its name and whole cost, what the present one costs, what either holds
/// usable [Wh]. It is handed in where findings are looked for, because a search takes too long to be part of them.
/// </summary>
public sealed record CheaperBuild(string Key, string Name, double Total, double PresentTotal, double UsableWh, double PresentUsableWh);

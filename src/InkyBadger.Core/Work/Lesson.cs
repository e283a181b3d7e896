namespace InkyBadger.Core.Work;

/// <summary>
/// What a year of a bank has taught that was run elsewhere: a year takes too long to be run with every change, so it is handed in.
/// </summary>
/// <param name="LowestSoc">[0 to 1].</param>
/// <param name="LowestOn">As YYYY-MM-DD.</param>
/// <param name="DarkH">[h].</param>
/// <param name="UnfilledDays">Longest time without the bank having been full [days].</param>
/// <param name="CyclesPerYear">Equivalent full ones.</param>
public sealed record Lesson(double LowestSoc, string LowestOn, double DarkH, double UnfilledDays, double CyclesPerYear);

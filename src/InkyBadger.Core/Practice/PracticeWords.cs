namespace InkyBadger.Core.Practice;

/// <summary>What came of several goes, in a sentence.</summary>
public static class PracticeWords
{
    /// <param name="goes">Of each: faults, how many were seen, misses; the oldest first.</param>
    /// <returns>Empty: there was none.</returns>
    public static string Of(IReadOnlyList<(int Faults, int Found, int Misses)> goes)
    {
        if (goes.Count == 0)
            return "";
        var (faults, found, misses) = (goes.Sum(g => g.Faults), goes.Sum(g => g.Found), goes.Sum(g => g.Misses));
        return $"The last {(goes.Count == 1 ? "go" : $"{goes.Count} goes")}: {found} of {faults} seen, "
            + $"{misses} {(misses == 1 ? "miss" : "misses")}";
    }
}

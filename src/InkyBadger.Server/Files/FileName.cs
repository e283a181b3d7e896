namespace InkyBadger.Server.Files;

/// <summary>A name every file system takes.</summary>
internal static class FileName
{
    public static string Of(string name)
    {
        var plain = string.Concat(name.Select(c => char.IsLetterOrDigit(c) ? char.ToLowerInvariant(c) : '-')).Trim('-');
        while (plain.Contains("--", StringComparison.Ordinal))
            plain = plain.Replace("--", "-", StringComparison.Ordinal);
        return plain.Length == 0 ? "design" : plain[..Math.Min(60, plain.Length)];
    }
}

namespace InkyBadger.Server.Designs;

/// <summary>Keys of the user's own items.</summary>
public static class OwnKey
{
    /// <summary>Why a key is refused; null when it is fine.</summary>
    public static IResult? Fault(string key) => key.Length <= 40 && key.All(c => char.IsAsciiLetterOrDigit(c) || c == '-')
        ? null
        : Problems.NotAccepted([new("", "has a key that is not 1 to 40 letters, digits or hyphens")]);
}

using System.Globalization;
using System.Text.RegularExpressions;

namespace InkyBadger.Core.Words;

/// <summary>
/// A number as people write it; the front end's fields read by the same rules, and one list of cases is held against both.
/// </summary>
/// <param name="Value">What it says.</param>
/// <param name="Other">The other reading of one comma or point with exactly three digits after it; null: there is none.</param>
/// <param name="By">That comma or point.</param>
/// <param name="Thousand">A <c>k</c> stood behind it, and is in the value.</param>
/// <param name="Rest">What follows: a unit, or words.</param>
public sealed record WrittenNumber(double Value, double? Other, char? By, bool Thousand, string Rest)
{
    /// <summary>No figure is longer.</summary>
    public const int MostCharacters = 60;

    /// <summary>A conductor's size such as 2/0, which is no number.</summary>
    public static bool IsSize(string text) => Size.IsMatch(text);

    /// <summary>The number a text begins with; null where it begins with none.</summary>
    public static WrittenNumber? Read(string text)
    {
        if (text.Length > MostCharacters || Number.Match(text) is not { Success: true } match)
            return null;
        var rest = match.Groups[4].Value.Trim();
        var thousand = rest.StartsWith('k') || rest.StartsWith('K') ? rest.Length == 1 || !char.IsAsciiLetter(rest[1]) : false;
        if (thousand)
            rest = rest[1..].Trim();
        var power = (match.Groups[3].Success ? int.Parse(match.Groups[3].Value, CultureInfo.InvariantCulture) : 0) + (thousand ? 3 : 0);
        var sign = match.Groups[1].Value is "-" or "−" ? -1 : 1;
        var body = match.Groups[2].Value;
        return (Fraction(body, power) ?? Digits(body, power)) is { } of
            ? new(sign * of.Value, sign * of.Other, of.By, thousand, rest)
            : null;
    }

    private sealed record Reading(double Value, double? Other = null, char? By = null);

    private static Reading? Fraction(string body, int power)
    {
        if (body.Length > 0 && Signs.IndexOf(body[^1], StringComparison.Ordinal) is >= 0 and var sign)
            return new((Whole(body[..^1]) + Parts[sign]) * Math.Pow(10, power));
        if (Stroke.Match(body) is not { Success: true } stroke)
            return null;
        var (part, of) = (Whole(stroke.Groups[2].Value), Whole(stroke.Groups[3].Value));
        return Wholes.Contains(of) && part < of ? new((Whole(stroke.Groups[1].Value) + part / of) * Math.Pow(10, power)) : null;
    }

    private static double Whole(string digits) =>
        digits.Trim() is { Length: > 0 } text ? double.Parse(text, CultureInfo.InvariantCulture) : 0;

    private static Reading? Digits(string body, int power)
    {
        double Sure(string plain) => double.Parse($"{plain.TrimEnd('.')}e{power}", CultureInfo.InvariantCulture);
        string Without(string text, char c) => text.Replace(c.ToString(), "", StringComparison.Ordinal);
        if (body.Any(c => c is '\'' or '’' || char.IsWhiteSpace(c)))
            return Spaced.IsMatch(body)
                ? new(Sure(string.Concat(body.Where(c => char.IsAsciiDigit(c) || c is '.' or ',')).Replace(',', '.')))
                : null;
        switch (body.Count(c => c is ',' or '.'))
        {
            case 0:
                return body.All(char.IsAsciiDigit) ? new(Sure(body)) : null;
            case 1:
                var decimals = Sure(body.Replace(',', '.'));
                var by = body.First(c => c is ',' or '.');
                return Ambiguous.IsMatch(body) ? new(decimals, Sure(Without(body, by)), by) : new(decimals);
            default:
                return ByCommas.IsMatch(body) ? new(Sure(Without(body, ',')))
                    : ByPoints.IsMatch(body) ? new(Sure(Without(body, '.').Replace(',', '.')))
                    : null;
        }
    }

    private const string Signs = "¼½¾⅓⅔⅛⅜⅝⅞";
    private static readonly double[] Parts = [0.25, 0.5, 0.75, 1.0 / 3, 2.0 / 3, 0.125, 0.375, 0.625, 0.875];

    /// <summary>Parts of a whole that one writes with a stroke; 12/24 is two numbers.</summary>
    private static readonly double[] Wholes = [2, 3, 4, 5, 6, 8, 10, 16];

    /// <summary>Patterns that never look at a character twice: no text, however made, holds the machine up.</summary>
    private const RegexOptions Linear = RegexOptions.NonBacktracking | RegexOptions.CultureInvariant;

    private static readonly Regex Number = new(
        @"^\s*([-−+]?)\s*((?:[0-9]+\s+)?[0-9]+\s*/\s*[0-9]+|[0-9]*\s*[¼½¾⅓⅔⅛⅜⅝⅞]|[.,]?[0-9](?:[0-9.,'’\s]*[0-9])?[.,]?)"
            + @"(?:e([+-]?[0-9]{1,3}))?\s*(.*)$",
        Linear | RegexOptions.IgnoreCase | RegexOptions.Singleline
    );

    private static readonly Regex Size = new(@"^\s*[1-9]\s*/\s*0($|[^0-9.,])", Linear);
    private static readonly Regex Stroke = new(@"^(?:([0-9]+)\s+)?([0-9]+)\s*/\s*([0-9]+)$", Linear);
    private static readonly Regex Spaced = new(@"^[0-9]{1,3}(?:[\s'’][0-9]{3})+(?:[.,][0-9]*)?$", Linear);
    private static readonly Regex Ambiguous = new("^[1-9][0-9]{0,2}[.,][0-9]{3}$", Linear);
    private static readonly Regex ByCommas = new(@"^[0-9]{1,3}(?:,[0-9]{3})+(?:\.[0-9]*)?$", Linear);
    private static readonly Regex ByPoints = new(@"^[0-9]{1,3}(?:\.[0-9]{3})+(?:,[0-9]*)?$", Linear);
}

using System.Globalization;
using System.Net;
using System.Text;
using InkyBadger.Core.Sheets;

namespace InkyBadger.Server.Sheets;

/// <summary>The label sheet as drawings to print at true size, a page each: sleeves for both ends of every run, and the plates.</summary>
internal static class LabelSvg
{
    private const double Width = 190,
        Height = 255,
        SleeveWidth = 61,
        SleeveHeight = 14,
        Gap = 2,
        PlateWidth = 93,
        LineHeight = 7;

    /// <summary>A page and what is on it so far.</summary>
    private sealed class Page
    {
        public StringBuilder Text { get; } = new();
        public double Y { get; set; }
    }

    public static IReadOnlyList<string> Pages(LabelsResult labels)
    {
        var pages = new List<Page> { new() };
        foreach (var plate in labels.Plates)
        {
            var tall = 14 + LineHeight * plate.Lines.Count + 5 * plate.Warnings.Count + 4;
            if (pages[^1].Y + tall > Height)
                pages.Add(new());
            var at = pages[^1];
            Draw(at.Text, plate, at.Y, tall);
            at.Y += tall + 4;
        }
        var column = 0;
        foreach (var sleeve in labels.Sleeves.SelectMany(s => Enumerable.Repeat(s, s.Count)))
        {
            if (column == 0 && pages[^1].Y + SleeveHeight > Height)
                pages.Add(new());
            var at = pages[^1];
            Draw(at.Text, sleeve, 0.5 + column * (SleeveWidth + Gap), at.Y + 0.5);
            column = (column + 1) % 3;
            if (column == 0)
                at.Y += SleeveHeight + Gap;
        }
        return [.. pages.Select(p => Framed(p.Text))];
    }

    private static string Framed(StringBuilder content) =>
        string.Create(
            CultureInfo.InvariantCulture,
            $"""
            <?xml version="1.0" encoding="UTF-8"?>
            <svg xmlns="http://www.w3.org/2000/svg" width="{Width}mm" height="{Height}mm" viewBox="0 0 {Width} {Height}"
              font-family="sans-serif" fill="#000">
            <rect width="{Width}" height="{Height}" fill="#fff"/>
            {content}</svg>

            """
        );

    private static void Draw(StringBuilder text, Sleeve s, double x, double y)
    {
        Box(text, x, y, SleeveWidth, SleeveHeight);
        Write(text, x + 2, y + 9.5, Fitting(s.Tag, 7, 20), true, s.Tag);
        foreach (var (n, words) in new[] { s.From, s.To, s.Size }.Index())
            Write(text, x + 24, y + 4.4 + 4 * n, Fitting(words, 2.7, SleeveWidth - 26), false, words);
    }

    private static void Draw(StringBuilder text, Plate plate, double y, double tall)
    {
        Box(text, 0.5, y + 0.5, PlateWidth, tall - 1);
        Box(text, 1.5, y + 1.5, PlateWidth - 2, tall - 3);
        Write(text, 5, y + 9, 5, true, plate.Title);
        var at = y + 17;
        foreach (var line in plate.Lines)
        {
            Write(text, 5, at, 5, true, line.Figure);
            Write(text, 40, at, 3.6, false, line.Words);
            at += LineHeight;
        }
        foreach (var warning in plate.Warnings)
        {
            Write(text, 5, at, 2.7, false, warning);
            at += 5;
        }
    }

    private static void Box(StringBuilder text, double x, double y, double width, double height) =>
        text.Append(
            CultureInfo.InvariantCulture,
            $"<rect x=\"{x:0.##}\" y=\"{y:0.##}\" width=\"{width:0.##}\" height=\"{height:0.##}\" fill=\"none\" stroke=\"#000\" "
                + $"stroke-width=\"0.3\"/>\n"
        );

    private static void Write(StringBuilder text, double x, double y, double size, bool bold, string words) =>
        text.Append(
            CultureInfo.InvariantCulture,
            $"<text x=\"{x:0.##}\" y=\"{y:0.##}\" font-size=\"{size:0.##}\"{(bold ? " font-weight=\"700\"" : "")}>"
                + $"{WebUtility.HtmlEncode(Plain(words))}</text>\n"
        );

    /// <summary>What XML cannot hold is left out.</summary>
    private static string Plain(string words) => new([.. words.Where(c => !char.IsControl(c) && !char.IsSurrogate(c))]);

    /// <summary>A size at which the words have room, for nothing is cut off [mm]; a letter is some 0.6 of its height wide.</summary>
    private static double Fitting(string words, double most, double room) => Math.Min(most, room / (0.6 * Math.Max(1, words.Length)));
}

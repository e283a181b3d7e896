using System.Globalization;
using InkyBadger.Core.Design;

namespace InkyBadger.Core.Words;

/// <summary>Figures in sentences, by the same table as on the screens, and the words around them.</summary>
public static class Say
{
    public static string Number(double value, int decimals = 0) => Figures.Number(value, decimals);

    public static string W(double watts) => Figures.Say(watts, "W");

    public static string Wh(double wh) => Figures.Say(wh, "Wh");

    public static string A(double amps) => Figures.Say(amps, "A");

    /// <summary>Names as one says them: a, b and c.</summary>
    public static string List(IReadOnlyList<string> names, string last = "and") =>
        names.Count < 2
            ? names.Count == 1
                ? names[0]
                : ""
            : $"{string.Join(", ", names.Take(names.Count - 1))} {last} {names[^1]}";

    /// <summary>A standard rating, which has no needless decimals.</summary>
    public static string Rating(double amps) => Figures.Say(amps, "rating");

    /// <summary>Volts as one says them, without needless decimals.</summary>
    public static string V(double volts) => Figures.Say(volts, "class");

    public static string Percent(double fraction, int decimals = 1) => Number(fraction * 100, decimals) + " %";

    /// <summary>Metres, or feet where these are read.</summary>
    public static string Length(double metres, Design.UnitSystem units) => Figures.Say(metres, "m", units);

    /// <summary>Kilograms, or pounds where these are read.</summary>
    public static string Mass(double kg, Design.UnitSystem units) => Figures.Say(kg, "kg", units);

    public static string Hours(double hours) => Figures.Say(hours, "h");

    public static string Seconds(double seconds) => Figures.Say(seconds, "s");

    /// <summary>Time of day, hours to hh:mm.</summary>
    public static string Clock(double hour)
    {
        var minutes = (int)Math.Round(hour * 60);
        return $"{minutes / 60:00}:{minutes % 60:00}";
    }

    /// <summary>Name of a month [1 to 12].</summary>
    public static string Month(int month) => CultureInfo.InvariantCulture.DateTimeFormat.GetMonthName(month);

    public static string Season(Design.Season season) =>
        season switch
        {
            Design.Season.Winter => "winter",
            Design.Season.Summer => "summer",
            _ => "all year",
        };

    /// <summary>Strings are lettered A … Z, AA … from the positive take-off.</summary>
    public static string StringName(int number) =>
        number <= 26 ? ((char)('A' + number - 1)).ToString() : StringName((number - 1) / 26) + StringName((number - 1) % 26 + 1);

    public static string Size(string size, int conductors) => conductors > 1 ? $"{conductors} × {size}" : size;

    /// <summary>“1 string”, “2 strings”.</summary>
    public static string Strings(int n) => n == 1 ? "1 string" : $"{n} strings";

    /// <summary>Small counts as words, as one writes them in a sentence.</summary>
    public static string Count(int n) =>
        n switch
        {
            1 => "One",
            2 => "Two",
            3 => "Three",
            4 => "Four",
            5 => "Five",
            6 => "Six",
            7 => "Seven",
            8 => "Eight",
            9 => "Nine",
            10 => "Ten",
            11 => "Eleven",
            12 => "Twelve",
            _ => n.ToString(CultureInfo.InvariantCulture),
        };
}

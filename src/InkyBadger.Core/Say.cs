using System.Globalization;

namespace InkyBadger.Core;

/// <summary>Figures in sentences: rounded as they are read on the instrument, with their unit.</summary>
public static class Say
{
    /// <summary>Halves go up, as on the screens.</summary>
    public static string Number(double value, int decimals = 0) => Math.Round(value, decimals, MidpointRounding.AwayFromZero).ToString("N" + decimals, CultureInfo.InvariantCulture);

    public static string W(double watts) => Number(watts) + " W";

    public static string Wh(double wh) => wh >= 1000 ? Number(wh / 1000, 2) + " kWh" : Number(wh) + " Wh";

    public static string A(double amps) => Number(amps, amps < 1000 ? amps < 10 ? 2 : 1 : 0) + " A";

    /// <summary>A standard rating, which has no needless decimals.</summary>
    public static string Rating(double amps) => amps.ToString("#,0.##", CultureInfo.InvariantCulture) + " A";

    /// <summary>Kiloamperes once there are that many.</summary>
    public static string KA(double amps) => amps >= 1000 ? Number(amps / 1000, 1) + " kA" : Number(amps) + " A";

    public static string V(double volts) => volts.ToString("#,0.##", CultureInfo.InvariantCulture) + " V";

    public static string Percent(double fraction, int decimals = 1) => Number(fraction * 100, decimals) + " %";

    /// <summary>Metres, or feet where these are read; a foot has 0.3048 m.</summary>
    public static string Length(double metres, Design.UnitSystem units) => units == Design.UnitSystem.Imperial
        ? (metres / 0.3048).ToString("#,0.##", CultureInfo.InvariantCulture) + " ft"
        : metres.ToString("#,0.##", CultureInfo.InvariantCulture) + " m";

    public static string Hours(double hours) => hours >= 48 ? Number(hours / 24, 1) + " days" : hours >= 1 ? hours.ToString("0.#", CultureInfo.InvariantCulture) + " h" : Number(hours * 60) + " min";

    public static string Seconds(double seconds) => seconds >= 7200 ? Number(seconds / 3600, 1) + " h"
        : seconds >= 120 ? (seconds / 60).ToString("0.#", CultureInfo.InvariantCulture) + " min"
        : seconds.ToString("0.##", CultureInfo.InvariantCulture) + " s";

    /// <summary>Time of day, hours to hh:mm.</summary>
    public static string Clock(double hour)
    {
        var minutes = (int)Math.Round(hour * 60);
        return $"{minutes / 60:00}:{minutes % 60:00}";
    }

    public static string Season(Design.Season season) => season switch { Design.Season.Winter => "winter", Design.Season.Summer => "summer", _ => "all year" };

    /// <summary>Strings are lettered A … Z, AA … from the positive take-off.</summary>
    public static string StringName(int number) => number <= 26
        ? ((char)('A' + number - 1)).ToString()
        : StringName((number - 1) / 26) + StringName((number - 1) % 26 + 1);

    public static string Size(string size, int conductors) => conductors > 1 ? $"{conductors} × {size}" : size;

    /// <summary>Small counts as words, as one writes them in a sentence.</summary>
    public static string Count(int n) => n switch
    {
        1 => "One", 2 => "Two", 3 => "Three", 4 => "Four", 5 => "Five", 6 => "Six", 7 => "Seven", 8 => "Eight", 9 => "Nine", 10 => "Ten", 11 => "Eleven", 12 => "Twelve",
        _ => n.ToString(CultureInfo.InvariantCulture),
    };
}

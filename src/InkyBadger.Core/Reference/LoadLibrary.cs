using System.Globalization;
using InkyBadger.Core.Design;

namespace InkyBadger.Core.Reference;

/// <summary>A load one can take from the library: the key, its group, words it is also found by, and the load without an id.</summary>
public sealed record LibraryLoad(string Key, string Group, string Words, Load Load);

/// <summary>
/// Common loads with typical figures, table <c>loads</c>: running and start watts, start seconds, duty, hours a day, voltage window,
/// whether they suffer under a modified wave. The plate or a meter comes first.
/// </summary>
public static class LoadLibrary
{
    public static IReadOnlyList<LibraryLoad> All { get; } = TableFile.Read("loads", r => new LibraryLoad(
            r.Text("key"),
            r.Text("group"),
            r.Text("words"),
            new Load
            {
                Name = r.Text("name"),
                Kind = r.Text("kind") switch
                {
                    "dc" => LoadKind.Dc,
                    "converter" => LoadKind.Converter,
                    _ => LoadKind.Ac,
                },
                Watts = r.Opt("watts"),
                Amps = r.Opt("amps"),
                Volts = r.Opt("volts"),
                SurgeWatts = r.Opt("surge_w") ?? 0,
                StartSeconds = r.Opt("start_s"),
                Duty = r.Num("duty"),
                Hours = r.Num("hours"),
                Window = r.Opt("min_v") is { } min ? new() { MinV = min, MaxV = r.Num("max_v") } : null,
                AdapterEfficiency = r.Opt("adapter"),
                WaveSensitive = r.Text("wave_sensitive") == "yes",
                Season = r.Text("season") switch
                {
                    "winter" => Season.Winter,
                    "summer" => Season.Summer,
                    _ => Season.Both,
                },
                States = r.Text("states") is { Length: > 0 } states ? [.. states.Split(' ').Select(State)] : null,
            }
        ));

    private static StateShare State(string text)
    {
        var parts = text.Split(':');
        return new()
        {
            Name = parts[0],
            Amps = double.Parse(parts[1], CultureInfo.InvariantCulture),
            Share = double.Parse(parts[2], CultureInfo.InvariantCulture),
        };
    }
}

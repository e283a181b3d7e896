using System.Globalization;
using System.Text;
using InkyBadger.Core.Logs;
using InkyBadger.Server.Files;
using InkyBadger.Storage;

namespace InkyBadger.Server.Logs;

/// <summary>Readings and units as CSV. What goes out comes in again as it is.</summary>
internal static class LogCsv
{
    private const int Together = 2000;

    public static async Task WriteAsync(Stream to, LogStore store, IReadOnlyList<LogSeries> series, CancellationToken stop)
    {
        var text = new StringBuilder("\uFEFFtime,volts_v,amps_charge_a,charge_percent,temperature_c\n");
        foreach (var one in series)
        {
            var count = 0;
            await foreach (var r in store.ReadingsAsync(one, stop))
            {
                text.Append(CultureInfo.InvariantCulture, $"{r.Moment:yyyy-MM-dd'T'HH:mm:ss},{r.Volts:0.###},{-r.Amps:0.###},");
                text.Append(CultureInfo.InvariantCulture, $"{r.Soc * 100:0.##},{r.TemperatureC:0.#}\n");
                if (++count % Together == 0)
                    await FlushAsync();
            }
        }
        await FlushAsync();
        async Task FlushAsync()
        {
            await to.WriteAsync(Encoding.UTF8.GetBytes(text.ToString()), stop);
            text.Clear();
        }
    }

    public static string Units(IReadOnlyList<LedgerUnit> units) =>
        CsvText.Write(
            [
                "place",
                "serial",
                "item",
                "in_service",
                "out_of_service",
                "bought",
                "price",
                "rest_v",
                "apart_mv",
                "tests",
                "last_test_percent",
                "ends_year",
                "words",
            ],
            units.Select(u =>
                (object?[])
                    [
                        u.Place,
                        u.Serial,
                        u.Item,
                        u.InService,
                        u.OutOfService,
                        u.Bought,
                        u.Price,
                        u.RestV,
                        u.ApartMv is { } mv ? Math.Round(mv) : null,
                        u.Tests.Count,
                        u.Tests.Count > 0 ? Math.Round(u.Tests[^1].Share * 100, 1) : null,
                        u.EndsYear,
                        u.Words,
                    ]
            )
        );
}

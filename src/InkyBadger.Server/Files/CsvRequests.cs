using InkyBadger.Server.Designs;
using InkyBadger.Server.Hosting;

namespace InkyBadger.Server.Files;

/// <summary>Lists that come in as CSV.</summary>
internal static class CsvRequests
{
    private const int MostBytes = 1_000_000;

    public static async Task<IResult> ReadAsync<T>(HttpRequest request, Func<string, CancellationToken, T> read, CancellationToken stop)
    {
        if (await Body.ReadAsync(request, MostBytes, stop) is not { } bytes)
            return Problems.NotAccepted([new("", $"is larger than {MostBytes / 1_000_000} MB, the most a list may be")]);
        return JsonText.Decode(bytes) is { } text ? Results.Ok(read(text, stop)) : Problems.NotAccepted([new("", JsonText.NotUtf8)]);
    }
}

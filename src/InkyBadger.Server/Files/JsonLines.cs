using System.Text.Json;
using InkyBadger.Core.Design;

namespace InkyBadger.Server.Files;

/// <summary>An answer of lines of JSON, each written as it is worked out.</summary>
internal static class JsonLines
{
    public const string Type = "application/x-ndjson";

    private static readonly byte[] NewLine = "\n"u8.ToArray();

    public static async Task WriteAsync<T>(Stream to, T line, CancellationToken stop)
    {
        await JsonSerializer.SerializeAsync(to, line, DesignFormat.Options, stop);
        await to.WriteAsync(NewLine, stop);
    }
}

using System.Globalization;
using System.Text;
using System.Text.Encodings.Web;
using System.Text.Json;
using Serilog.Events;
using Serilog.Formatting;

namespace InkyBadger.Server.Hosting;

/// <summary>
/// What happened as a line of JSON: when, how grave, which request and how it ended, which kind of failure and where in the program.
/// Nothing a request or a design holds can be in it, for only these few fields are written, each cut to its length.
/// </summary>
public sealed class LogLine : ITextFormatter
{
    /// <summary>Bytes of a line, its end included.</summary>
    public const int MostBytes = 2000;

    private const int MostPath = 120,
        MostFrame = 160,
        MostFrames = 6;

    private static readonly JsonWriterOptions Plain = new() { Encoder = JavaScriptEncoder.UnsafeRelaxedJsonEscaping };

    /// <summary>Where an address carries a name of the user's own, the address it is a place of is written instead.</summary>
    public static void Route(Serilog.IDiagnosticContext log, HttpContext context)
    {
        if (
            (context.GetEndpoint() as RouteEndpoint)?.RoutePattern.RawText is { } route
            && route.Contains("{key}", StringComparison.Ordinal)
        )
            log.Set("Route", route);
    }

    public void Format(LogEvent logEvent, TextWriter output)
    {
        using var line = new MemoryStream();
        using (var json = new Utf8JsonWriter(line, Plain))
        {
            json.WriteStartObject();
            json.WriteString("@t", logEvent.Timestamp.UtcDateTime.ToString("O", CultureInfo.InvariantCulture));
            if (logEvent.Level != LogEventLevel.Information)
                json.WriteString("@l", logEvent.Level.ToString());
            json.WriteString("what", Cut(logEvent.MessageTemplate.Text, MostFrame));
            if (Word(logEvent, "RequestMethod") is { } method)
                json.WriteString("method", Cut(method, 12));
            if (Word(logEvent, "Route") is { } route)
                json.WriteString("path", Cut(route, MostPath));
            else if (Word(logEvent, "RequestPath") is { } path)
                json.WriteString("path", Cut(PathOf(path), MostPath));
            if (logEvent.Properties.TryGetValue("StatusCode", out var status) && status is ScalarValue { Value: int code })
                json.WriteNumber("status", code);
            if (logEvent.Properties.TryGetValue("Elapsed", out var took) && took is ScalarValue { Value: double ms })
                json.WriteNumber("ms", Math.Round(ms, 1));
            if (logEvent.Exception is { } failure)
                Write(json, failure);
            json.WriteEndObject();
        }
        output.WriteLine(Encoding.UTF8.GetString(line.GetBuffer(), 0, (int)line.Length));
    }

    /// <summary>
    /// The kinds of failure from the outside in and the places in the program; a failure's own words may quote what came in.
    /// </summary>
    private static void Write(Utf8JsonWriter json, Exception failure)
    {
        var kinds = new List<string>();
        var inner = failure;
        for (var e = failure; e is not null && kinds.Count < 4; e = e.InnerException)
        {
            kinds.Add(e.GetType().Name);
            if (e.StackTrace is not null)
                inner = e;
        }
        json.WriteString("failure", Cut(string.Join(" < ", kinds), MostFrame));
        json.WriteStartArray("at");
        foreach (
            var frame in (inner.StackTrace ?? "")
                .Split('\n', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries)
                .Take(MostFrames)
        )
            json.WriteStringValue(Cut(frame.StartsWith("at ", StringComparison.Ordinal) ? frame[3..] : frame, MostFrame));
        json.WriteEndArray();
    }

    private static string? Word(LogEvent logEvent, string name) =>
        logEvent.Properties.TryGetValue(name, out var value) && value is ScalarValue { Value: string text } ? text : null;

    /// <summary>Addresses of this program are plain; whatever else was asked for is not repeated.</summary>
    private static string PathOf(string path) =>
        path.Length <= MostPath && path.All(c => char.IsAsciiLetterOrDigit(c) || c is '/' or '-' or '.' or '_')
            ? path
            : "(no address of this program)";

    private static string Cut(string text, int most) => text.Length <= most ? text : text[..most];
}

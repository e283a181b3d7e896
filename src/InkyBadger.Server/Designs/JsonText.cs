using System.Text;
using System.Text.Json;
using System.Text.Json.Nodes;

namespace InkyBadger.Server.Designs;

/// <summary>Text that came in as JSON, before anything is made of it.</summary>
internal static class JsonText
{
    public const string NotUtf8 = "is not text in UTF-8";

    /// <summary>The text of bytes, without the mark some editors put before it; null when they are not UTF-8.</summary>
    public static string? Decode(ReadOnlySpan<byte> bytes)
    {
        if (bytes.StartsWith(Encoding.UTF8.Preamble))
            bytes = bytes[Encoding.UTF8.Preamble.Length..];
        return System.Text.Unicode.Utf8.IsValid(bytes) ? Encoding.UTF8.GetString(bytes) : null;
    }

    private static readonly JsonDocumentOptions Strict = new() { AllowDuplicateProperties = false, MaxDepth = 32 };

    /// <summary>Whatever JSON it is, as nodes; or why it is none, in words for after “the document”.</summary>
    public static (JsonNode? Node, string? Fault) Parse(ReadOnlySpan<byte> bytes)
    {
        if (Decode(bytes) is not { } text)
            return (null, NotUtf8);
        try
        {
            if (FaultOf(text) is { } fault)
                return (null, fault);
            // Nodes find a field that is there twice only when they are looked at.
            using (JsonDocument.Parse(text, Strict))
                return (JsonNode.Parse(text), null);
        }
        catch (JsonException e)
        {
            return (null, $"is not JSON: {Said(e)}");
        }
    }

    /// <summary>What makes the text unreadable although it is JSON: half a character, escaped. Null when there is none.</summary>
    /// <exception cref="JsonException">It is not JSON.</exception>
    public static string? FaultOf(string text)
    {
        if (!text.Contains("\\u", StringComparison.Ordinal))
            return null;
        var reader = new Utf8JsonReader(Encoding.UTF8.GetBytes(text));
        try
        {
            while (reader.Read())
                if (reader.TokenType is JsonTokenType.String or JsonTokenType.PropertyName && reader.ValueIsEscaped)
                    reader.GetString();
            return null;
        }
        catch (InvalidOperationException)
        {
            return "holds half a character (\\ud800 to \\udfff come in pairs)";
        }
    }

    /// <summary>Where it breaks off, without what stands there: that may be anybody's.</summary>
    public static string Said(JsonException e) =>
        e.LineNumber is { } line
            ? $"it breaks off at line {line + 1}, byte {e.BytePositionInLine + 1}"
            : "a field is there twice, or it is nested too deep";
}

using System.Text;
using System.Text.Json;
using InkyBadger.Core.Design;
using InkyBadger.Server.Hosting;

namespace InkyBadger.Server.Designs;

/// <summary>A document read from a request, or why it was not accepted.</summary>
public sealed record DesignReading(DesignDocument? Design, IReadOnlyList<DesignFault> Faults);

/// <summary>Reads documents: the text, then the JSON Schema in docs/format, then the rules across fields.</summary>
public sealed class DesignReader
{
    public const int MostBytes = 2_000_000;

    public static string TooLarge { get; } = $"is larger than {MostBytes / 1_000_000} MB, the most a design may be";

    private static readonly JsonDocumentOptions Strict = new() { AllowDuplicateProperties = false, MaxDepth = 24 };

    private readonly SchemaCheck schema;

    public string SchemaText { get; }

    public DesignReader()
    {
        using var stream = typeof(DesignReader).Assembly.GetManifestResourceStream("design.schema.json")!;
        using var reader = new StreamReader(stream);
        SchemaText = reader.ReadToEnd();
        schema = new(SchemaText);
    }

    public async Task<DesignReading> ReadAsync(HttpRequest request, CancellationToken stop)
    {
        return await Body.ReadAsync(request, MostBytes, stop) is { } bytes ? Read(bytes) : Fault("", TooLarge);
    }

    /// <summary>A document as bytes: UTF-8, with or without its mark at the beginning; anything else is refused, not mended.</summary>
    public DesignReading Read(ReadOnlySpan<byte> bytes) => JsonText.Decode(bytes) is { } text ? Read(text) : Fault("", JsonText.NotUtf8);

    /// <summary>What follows from one bank of a design in a request; a document or a bank that is not there is refused.</summary>
    public async Task<IResult> OfBankAsync<T>(HttpRequest request, int? bank, Func<DesignDocument, int, T> work, CancellationToken stop)
    {
        var reading = await ReadAsync(request, stop);
        if (reading.Design is not { } design)
            return Problems.NotAccepted(reading.Faults);
        var index = bank ?? 0;
        if (index < 0 || index >= design.Banks.Count)
            return Problems.NotAccepted([new("/banks", $"there is no bank {index}")]);
        return work(design, index) switch
        {
            null => Results.NoContent(),
            IResult answer => answer,
            var result => Results.Ok(result),
        };
    }

    /// <summary>The text that was read last. What follows from a design is asked for several times with the same text.</summary>
    private Known? last;

    private sealed record Known(string Text, DesignReading Reading);

    public DesignReading Read(string text)
    {
        if (last is { } known && known.Text == text)
            return known.Reading;
        var reading = ReadAnew(text);
        if (reading.Design is not null)
            last = new(text, reading);
        return reading;
    }

    private DesignReading ReadAnew(string text)
    {
        try
        {
            if (JsonText.FaultOf(text) is { } broken)
                return Fault("", broken);
            using var parsed = JsonDocument.Parse(text, Strict);
            if (NewerVersion(parsed.RootElement) is { } version)
                return Fault(
                    "/version",
                    $"is {version}: this file was written by a newer Inky Badger, and this one reads version "
                        + $"{DesignDocument.CurrentVersion}"
                );
            var faults = schema.Faults(parsed.RootElement);
            if (faults.Count > 0)
                return new(null, faults);
            var design = DesignFormat.Read(parsed.RootElement);
            var across = DesignCheck.Faults(design);
            return across.Count > 0 ? new(null, across) : new(design, []);
        }
        catch (JsonException e)
        {
            return Fault("", $"is not JSON as a document is written: {JsonText.Said(e)}");
        }
    }

    private static int? NewerVersion(JsonElement root) =>
        root.ValueKind == JsonValueKind.Object
        && root.TryGetProperty("format", out var format)
        && format.ValueKind == JsonValueKind.String
        && format.ValueEquals(DesignDocument.FormatName)
        && root.TryGetProperty("version", out var version)
        && version.ValueKind == JsonValueKind.Number
        && version.TryGetInt32(out var number)
        && number > DesignDocument.CurrentVersion
            ? number
            : null;

    private static DesignReading Fault(string pointer, string reason) => new(null, [new(pointer, reason)]);
}

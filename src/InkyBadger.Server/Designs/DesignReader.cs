using System.Text;
using System.Text.Json;
using InkyBadger.Core.Design;
using InkyBadger.Server.Hosting;
using NJsonSchema;
using NJsonSchema.Validation;

namespace InkyBadger.Server.Designs;

/// <summary>A document read from a request, or why it was not accepted.</summary>
public sealed record DesignReading(DesignDocument? Design, IReadOnlyList<DesignFault> Faults);

/// <summary>Reads documents: the text, then the JSON Schema in docs/format, then the rules across fields.</summary>
public sealed class DesignReader
{
    public const int MostBytes = 2_000_000;

    private static readonly JsonDocumentOptions Strict = new() { AllowDuplicateProperties = false, MaxDepth = 24 };

    private readonly JsonSchema schema;

    public string SchemaText { get; }

    public DesignReader()
    {
        using var stream = typeof(DesignReader).Assembly.GetManifestResourceStream("design.schema.json")!;
        using var reader = new StreamReader(stream);
        SchemaText = reader.ReadToEnd();
        schema = JsonSchema.FromJsonAsync(SchemaText).GetAwaiter().GetResult();
    }

    public async Task<DesignReading> ReadAsync(HttpRequest request, CancellationToken stop)
    {
        return await Body.ReadAsync(request, MostBytes, stop) is { } bytes
            ? Read(Encoding.UTF8.GetString(bytes))
            : Fault("", $"is larger than {MostBytes / 1_000_000} MB, the most a design may be");
    }

    /// <summary>What follows from one bank of a design in a request; a document or a bank that is not there is refused.</summary>
    public async Task<IResult> OfBankAsync<T>(HttpRequest request, int? bank, Func<DesignDocument, int, T> work, CancellationToken stop)
    {
        var reading = await ReadAsync(request, stop);
        if (reading.Design is not { } design) return Problems.NotAccepted(reading.Faults);
        var index = bank ?? 0;
        if (index < 0 || index >= design.Banks.Count) return Problems.NotAccepted([new("/banks", $"there is no bank {index}")]);
        return work(design, index) is { } result ? Results.Ok(result) : Results.NoContent();
    }

    /// <summary>The text that was read last. What follows from a design is asked for several times with the same text.</summary>
    private Known? last;

    private sealed record Known(string Text, DesignReading Reading);

    public DesignReading Read(string text)
    {
        if (last is { } known && known.Text == text) return known.Reading;
        var reading = ReadAnew(text);
        if (reading.Design is not null) last = new(text, reading);
        return reading;
    }

    private DesignReading ReadAnew(string text)
    {
        try
        {
            using var parsed = JsonDocument.Parse(text, Strict);
            if (NewerVersion(parsed.RootElement) is { } version)
                return Fault("/version", $"is {version}: this file was written by a newer Inky Badger, and this one reads version {DesignDocument.CurrentVersion}");
        }
        catch (JsonException e)
        {
            return Fault("", $"is not JSON as a document is written: {e.Message}");
        }
        var faults = schema.Validate(text).SelectMany(e => Describe(e)).DistinctBy(f => f.Pointer).Take(20).ToList();
        if (faults.Count > 0) return new(null, faults);
        try
        {
            var design = DesignFormat.Read(text);
            var across = DesignCheck.Faults(design);
            return across.Count > 0 ? new(null, across) : new(design, []);
        }
        catch (JsonException e)
        {
            return Fault(Pointer(e.Path ?? ""), "has a value of the wrong kind");
        }
    }

    private static int? NewerVersion(JsonElement root) =>
        root.ValueKind == JsonValueKind.Object && root.TryGetProperty("format", out var format) && format.ValueKind == JsonValueKind.String && format.GetString() == DesignDocument.FormatName
        && root.TryGetProperty("version", out var version) && version.ValueKind == JsonValueKind.Number && version.TryGetInt32(out var number) && number > DesignDocument.CurrentVersion ? number : null;

    private static DesignReading Fault(string pointer, string reason) => new(null, [new(pointer, reason)]);

    /// <summary>A choice between null and something is judged by the something.</summary>
    private static IEnumerable<DesignFault> Describe(ValidationError error)
    {
        if (error is ChildSchemaValidationError child)
        {
            var inner = child.Errors.Where(e => e.Key.Type != JsonObjectType.Null).SelectMany(e => e.Value).SelectMany(Describe).ToList();
            if (inner.Count > 0) return inner;
        }
        if (error is MultiTypeValidationError types)
        {
            var inner = types.Errors.Where(e => e.Key != JsonObjectType.Null).SelectMany(e => e.Value).SelectMany(Describe).ToList();
            if (inner.Count > 0) return inner;
        }
        return [new(Pointer(error.Path ?? ""), Reason(error))];
    }

    private static string Reason(ValidationError error) => error.Kind switch
    {
        ValidationErrorKind.NumberTooSmall => error.Schema.ExclusiveMinimum is { } x ? $"must be more than {x}" : $"must be {error.Schema.Minimum} or more",
        ValidationErrorKind.NumberTooBig => $"must be {error.Schema.Maximum} or less",
        ValidationErrorKind.NumberExpected => "must be a number",
        ValidationErrorKind.IntegerExpected => "must be a whole number",
        ValidationErrorKind.StringExpected => "must be text",
        ValidationErrorKind.BooleanExpected => "must be true or false",
        ValidationErrorKind.StringTooLong => $"must be {error.Schema.MaxLength} characters at most",
        ValidationErrorKind.StringTooShort => "must not be empty",
        ValidationErrorKind.TooManyItems => $"must have {error.Schema.MaxItems} entries at most",
        ValidationErrorKind.TooFewItems => $"must have {error.Schema.MinItems} entries at least",
        ValidationErrorKind.PropertyRequired => "is required",
        ValidationErrorKind.NoAdditionalPropertiesAllowed => "is not a field of the format",
        ValidationErrorKind.NotInEnumeration => $"must be one of {string.Join(", ", error.Schema.Enumeration.Where(e => e is not null))}",
        ValidationErrorKind.ObjectExpected => "must be an object",
        ValidationErrorKind.ArrayExpected => "must be a list",
        _ => "is not acceptable",
    };

    /// <summary>Paths such as <c>#/banks[0].name</c> as JSON pointers.</summary>
    private static string Pointer(string path)
    {
        var pointer = new StringBuilder();
        foreach (var part in path.TrimStart('#', '$').Replace("[", "/", StringComparison.Ordinal).Replace("]", "", StringComparison.Ordinal).Split(['/', '.'], StringSplitOptions.RemoveEmptyEntries))
            pointer.Append('/').Append(part);
        return pointer.ToString();
    }
}

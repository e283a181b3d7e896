using System.Text.Encodings.Web;
using System.Text.Json;
using System.Text.Json.Serialization;

namespace InkyBadger.Core.Tests.Casework;

/// <summary>
/// Worked cases, one test each, from the folder named by INKY_CASES or this project's own copy. A calculation that is not built is
/// skipped, never passed.
/// </summary>
public class CaseRunner
{
    private sealed class SnakeCase : JsonNamingPolicy
    {
        public override string ConvertName(string name) => CaseFields.Snake(name);
    }

    private static readonly JsonSerializerOptions Written = new()
    {
        PropertyNamingPolicy = new SnakeCase(),
        Encoder = JavaScriptEncoder.UnsafeRelaxedJsonEscaping,
        NumberHandling = JsonNumberHandling.AllowNamedFloatingPointLiterals,
        Converters = { new JsonStringEnumConverter(JsonNamingPolicy.KebabCaseLower) },
    };

    public static TheoryData<string, string, int> All()
    {
        var folder = Environment.GetEnvironmentVariable("INKY_CASES") is { Length: > 0 } given
            ? given
            : Path.Combine(AppContext.BaseDirectory, "Cases");
        var data = new TheoryData<string, string, int>();
        foreach (var file in Directory.EnumerateFiles(folder, "*.json").Order(StringComparer.Ordinal))
        {
            using var cases = JsonDocument.Parse(File.ReadAllText(file));
            for (var i = 0; i < cases.RootElement.GetArrayLength(); i++)
                data.Add(
                    $"{cases.RootElement[i].GetProperty("calc").GetString()}: {cases.RootElement[i].GetProperty("name").GetString()}",
                    file,
                    i
                );
        }
        return data;
    }

    [Theory]
    [Trait("Category", "Cases")]
    [MemberData(nameof(All))]
    public void Case(string name, string file, int index)
    {
        Assert.NotEmpty(name);
        using var cases = JsonDocument.Parse(File.ReadAllText(file));
        var given = cases.RootElement[index];
        var calc = given.GetProperty("calc").GetString()!;
        Assert.SkipUnless(CaseCalcs.ByName.ContainsKey(calc), $"{calc} is not built yet");
        var tolerance = given.TryGetProperty("tolerance", out var t) ? t.GetDouble() : 0.001;

        var actual = Answer(calc, given.GetProperty("in"));
        foreach (var expected in given.GetProperty("out").EnumerateObject())
            Compare(expected.Name, expected.Value, actual.TryGetProperty(expected.Name, out var found) ? found : default, tolerance);
    }

    private static JsonElement Answer(string calc, JsonElement input)
    {
        try
        {
            return JsonSerializer.SerializeToElement(CaseCalcs.ByName[calc](new(input)), Written);
        }
        catch (Refusal refusal)
        {
            return JsonSerializer.SerializeToElement(new { error = CaseFields.Snake(refusal.Field) }, Written);
        }
    }

    private static void Compare(string path, JsonElement expected, JsonElement actual, double tolerance)
    {
        switch (expected.ValueKind)
        {
            case JsonValueKind.Null:
                Assert.True(actual.ValueKind is JsonValueKind.Undefined or JsonValueKind.Null, $"{path}: expected nothing, got {actual}");
                break;
            case JsonValueKind.Object:
                Assert.Equal(JsonValueKind.Object, actual.ValueKind);
                foreach (var field in expected.EnumerateObject())
                    Compare(
                        $"{path}.{field.Name}",
                        field.Value,
                        actual.TryGetProperty(field.Name, out var found) ? found : default,
                        tolerance
                    );
                break;
            case JsonValueKind.Array:
                Assert.True(
                    actual.ValueKind == JsonValueKind.Array && actual.GetArrayLength() == expected.GetArrayLength(),
                    $"{path}: expected {expected}, got {actual}"
                );
                for (var i = 0; i < expected.GetArrayLength(); i++)
                    Compare($"{path}[{i}]", expected[i], actual[i], tolerance);
                break;
            case JsonValueKind.Number:
                Assert.True(actual.ValueKind == JsonValueKind.Number, $"{path}: expected {expected}, got {actual}");
                // The raw text tells a count (3) from a real number (3.0).
                var raw = expected.GetRawText();
                var (wanted, got) = (expected.GetDouble(), actual.GetDouble());
                if (raw.AsSpan().IndexOfAny(".eE") < 0)
                    Assert.True(got == wanted, $"{path}: expected exactly {raw}, got {actual}");
                else
                    Assert.True(Math.Abs(got - wanted) <= tolerance * Math.Abs(wanted) + 1e-9, $"{path}: expected {raw}, got {actual}");
                break;
            default:
                Assert.Equal($"{path}={expected}", $"{path}={actual}");
                break;
        }
    }
}

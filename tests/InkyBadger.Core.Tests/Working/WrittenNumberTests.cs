using System.Text.Json;
using InkyBadger.Core.Words;

namespace InkyBadger.Core.Tests.Working;

/// <summary>Numbers as people write them, by the list that the front end's reader is held to as well.</summary>
public class WrittenNumberTests
{
    public static TheoryData<string, double?, double?, string?, string, bool> Cases
    {
        get
        {
            using var stream = typeof(WrittenNumberTests).Assembly.GetManifestResourceStream("numbers.json")!;
            var data = new TheoryData<string, double?, double?, string?, string, bool>();
            foreach (var row in JsonDocument.Parse(stream).RootElement.EnumerateArray())
            {
                double? Of(string name) => row.TryGetProperty(name, out var x) ? x.GetDouble() : null;
                string? Text(string name) => row.TryGetProperty(name, out var x) ? x.GetString() : null;
                data.Add(Text("text")!, Of("value"), Of("other"), Text("by"), Text("rest") ?? "", row.TryGetProperty("size", out _));
            }
            return data;
        }
    }

    [Theory]
    [MemberData(nameof(Cases))]
    public void A_number_is_read_as_it_is_written(string text, double? value, double? other, string? by, string rest, bool size)
    {
        Assert.Equal(size, WrittenNumber.IsSize(text));
        var read = WrittenNumber.Read(text);
        if (value is null)
            Assert.Null(read);
        else
            Assert.Equal((value, other, by, rest), (read?.Value, read?.Other, read?.By?.ToString(), read?.Rest));
    }
}

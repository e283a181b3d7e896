using System.Diagnostics;
using System.Text.Json.Nodes;
using InkyBadger.Core.Demo;
using InkyBadger.Core.Design;
using InkyBadger.Tests.Shared;

namespace InkyBadger.Server.Tests;

/// <summary>Documents bent out of shape in every way the schema and the examples suggest.</summary>
public class HostileTests(AskedServer asked) : IClassFixture<AskedServer>
{
    private const int Documents = 2000;

    private static readonly string[] Paths = ["/api/import", "/api/ladder", "/api/evaluate?working=all", "/api/evaluate"];

    /// <summary>The seed is printed; INKY_SEED repeats a run.</summary>
    [Fact]
    public async Task Every_answer_is_an_answer_and_quick()
    {
        var seed = int.TryParse(Environment.GetEnvironmentVariable("INKY_SEED"), out var s) ? s : Environment.TickCount;
        TestContext.Current.TestOutputHelper!.WriteLine($"seed {seed}");
        var random = new Random(seed);
        // The first request of each kind pays for the server's own start, which is no document's fault.
        foreach (var path in Paths) await asked.Server.Http.PostAsync(path, Tests.Documents.Body(Bent.Originals[0]));
        int accepted = 0, refused = 0;
        for (var i = 0; i < Documents; i++)
        {
            var text = Bent.Text(random);
            var clock = Stopwatch.StartNew();
            var path = Paths[i % Paths.Length];
            var answer = await asked.Server.Http.PostAsync(path, Tests.Documents.Body(text));
            var body = await answer.Content.ReadAsStringAsync();
            var status = (int)answer.StatusCode;
            Assert.True(status is >= 200 and < 300 or >= 400 and < 500, $"{path} answered {status} to document {i} of seed {seed}:\n{text}\n{body}");
            Assert.True(clock.ElapsedMilliseconds < 2000, $"{path} took {clock.ElapsedMilliseconds} ms for document {i} of seed {seed}:\n{text}");
            if (status < 300) accepted++;
            else
            {
                refused++;
                Assert.Equal("application/problem+json", answer.Content.Headers.ContentType!.MediaType);
            }
        }
        TestContext.Current.TestOutputHelper.WriteLine($"{accepted} accepted, {refused} refused");
        Assert.True(accepted > 100 && refused > 100, $"{accepted} accepted, {refused} refused");
    }
}

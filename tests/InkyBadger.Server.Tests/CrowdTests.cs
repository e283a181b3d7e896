using System.Diagnostics;
using System.Net;
using System.Text;
using InkyBadger.Tests.Shared;

namespace InkyBadger.Server.Tests;

/// <summary>
/// Fifty at once: nothing that was confirmed is lost. Figures of speed are printed, not asserted; INKY_EDITS sets how many edits each makes
/// (12).
/// </summary>
public class CrowdTests
{
    private const int Clients = 50;

    [Fact]
    public async Task Fifty_clients_at_once_lose_nothing()
    {
        var edits = int.TryParse(Environment.GetEnvironmentVariable("INKY_EDITS"), out var e) ? e : 12;
        using var server = RunningServer.Fresh(seeded: false);
        var before = Documents.Bus.With("/notes", "NOTE").ToJsonString();
        var ids = new List<(string Id, string ETag)>();
        for (var c = 0; c < Clients; c++)
            ids.Add(await server.Keep(Documents.Bus));
        // The first edits pay for the server's own warming up.
        var took = new List<double>();
        var clock = Stopwatch.StartNew();
        var ends = await Task.WhenAll(
            ids.Select(async client =>
            {
                var mine = new List<double>();
                var etag = client.ETag;
                for (var n = 1; n <= edits; n++)
                {
                    var request = new HttpRequestMessage(HttpMethod.Put, $"/api/designs/{client.Id}")
                    {
                        Content = new StringContent(
                            before.Replace("NOTE", $"{n}", StringComparison.Ordinal),
                            Encoding.UTF8,
                            "application/json"
                        ),
                    };
                    request.Headers.TryAddWithoutValidation("If-Match", etag);
                    var asked = Stopwatch.GetTimestamp();
                    using var answer = await server.Http.SendAsync(request);
                    mine.Add(Stopwatch.GetElapsedTime(asked).TotalMilliseconds);
                    Assert.Equal(HttpStatusCode.OK, answer.StatusCode);
                    etag = answer.Headers.ETag!.Tag;
                }
                lock (took)
                    took.AddRange(mine);
                return (client.Id, ETag: etag);
            })
        );
        var seconds = clock.Elapsed.TotalSeconds;
        took.Sort();
        TestContext.Current.TestOutputHelper!.WriteLine(
            $"{took.Count} edits confirmed in {seconds:0.0} s: {took.Count / seconds:0} a second, median "
                + $"{took[took.Count / 2]:0} ms, 99th percentile {took[took.Count * 99 / 100]:0} ms"
        );

        server.Kill();
        server.StartAgain("--empty");
        foreach (var (id, etag) in ends)
        {
            var kept = await server.Http.GetAsync($"/api/designs/{id}");
            Assert.Equal(etag, kept.Headers.ETag!.Tag);
            Assert.Equal($"{edits}", (string)(await kept.Json())["design"]!["notes"]!);
        }
    }
}

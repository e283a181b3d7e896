using System.Net;
using System.Net.Http.Json;
using System.Text.Json.Nodes;
using System.Text.RegularExpressions;
using InkyBadger.Tests.Shared;

namespace InkyBadger.Server.Tests;

/// <summary>Who may come in, and what is written down about it.</summary>
public partial class BorderTests
{
    [Theory]
    [InlineData("Origin", "http://elsewhere.example")]
    [InlineData("Origin", "null")]
    [InlineData("Sec-Fetch-Site", "cross-site")]
    public async Task Another_origin_may_change_nothing(string header, string value)
    {
        using var server = new RunningServer(null, "--empty");
        var (id, _) = await server.Keep(Documents.Bus);
        foreach (var (method, path) in new[] { (HttpMethod.Post, "/api/designs"), (HttpMethod.Delete, $"/api/designs/{id}"), (HttpMethod.Put, $"/api/designs/{id}"), (HttpMethod.Post, "/api/import") })
        {
            var request = new HttpRequestMessage(method, path) { Content = JsonContent.Create(Documents.Bus) };
            request.Headers.TryAddWithoutValidation(header, value);
            Assert.Equal(HttpStatusCode.Forbidden, (await server.Http.SendAsync(request)).StatusCode);
        }
        Assert.Single(JsonNode.Parse(await server.Http.GetStringAsync("/api/designs"))!.AsArray());
        var own = new HttpRequestMessage(HttpMethod.Post, "/api/designs");
        own.Headers.TryAddWithoutValidation("Origin", server.Address.ToString().TrimEnd('/'));
        Assert.Equal(HttpStatusCode.Created, (await server.Http.SendAsync(own)).StatusCode);
    }

    /// <summary>A second loopback address stands for the private network's.</summary>
    [Fact]
    public async Task A_device_of_the_network_comes_in_with_a_key_that_works_once()
    {
        using var server = new RunningServer(null, "--empty", "--lan-address", "127.0.0.2");
        var line = Printed().Match(server.Said);
        var (address, key) = (new Uri(line.Groups[1].Value), line.Groups[2].Value);
        Assert.Equal("127.0.0.2", address.Host);
        // On loopback everything stays without it.
        Assert.Equal(HttpStatusCode.OK, (await server.Http.GetAsync("/api/designs")).StatusCode);

        using var phone = RunningServer.Client(address, new HttpClientHandler { CookieContainer = new() });
        Assert.Equal(HttpStatusCode.OK, (await phone.GetAsync("/")).StatusCode);
        foreach (var path in new[] { "/api/designs", "/api/reference", "/api/backup", "/openapi/v1.json" }) Assert.Equal(HttpStatusCode.Unauthorized, (await phone.GetAsync(path)).StatusCode);
        Assert.Equal(HttpStatusCode.Unauthorized, (await phone.PostAsync("/api/designs", null)).StatusCode);

        Assert.Equal(HttpStatusCode.Forbidden, (await phone.PostAsJsonAsync("/api/key", new { key = "WRONGKEY" })).StatusCode);
        var let = await phone.PostAsJsonAsync("/api/key", new { key = key.ToLowerInvariant() });
        Assert.Equal(HttpStatusCode.NoContent, let.StatusCode);
        var cookie = let.Headers.GetValues("Set-Cookie").Single();
        Assert.Contains("httponly", cookie, StringComparison.OrdinalIgnoreCase);
        Assert.Contains("samesite=strict", cookie, StringComparison.OrdinalIgnoreCase);
        Assert.Equal(HttpStatusCode.OK, (await phone.GetAsync("/api/designs")).StatusCode);

        using var second = new HttpClient { BaseAddress = address };
        Assert.Equal(HttpStatusCode.Forbidden, (await second.PostAsJsonAsync("/api/key", new { key })).StatusCode);
        for (var i = 0; i < 12; i++) await second.PostAsJsonAsync("/api/key", new { key = $"GUESS{i}" });
        Assert.Equal(HttpStatusCode.TooManyRequests, (await second.PostAsJsonAsync("/api/key", new { key = "ANOTHER1" })).StatusCode);
        // The device that is in stays in.
        Assert.Equal(HttpStatusCode.OK, (await phone.GetAsync("/api/designs")).StatusCode);
    }

    [Fact]
    public async Task The_log_says_what_happened_and_nothing_of_what_designs_hold()
    {
        using var server = new RunningServer(null, "--empty");
        var (id, etag) = await server.Keep(Documents.Bus.With("/name", "Badger-in-the-log").With("/notes", "a secret place"));
        await server.Put(id, etag, Documents.Bus.With("/banks/0/demand/loads/0/name", "Secret-lift"));
        await server.Http.PostAsync("/api/evaluate", Documents.Body("{\"name\":\"Secret-junk\"}"));
        await server.Http.GetAsync($"/api/designs/{id}/file");
        server.Interrupt();
        var log = string.Concat(Directory.GetFiles(Path.Combine(server.DataFolder, "logs")).Select(File.ReadAllText));
        Assert.Contains($"/api/designs/{id}", log, StringComparison.Ordinal);
        Assert.All(log.Split('\n', StringSplitOptions.RemoveEmptyEntries), line => Assert.NotNull(JsonNode.Parse(line)!["@t"]));
        Assert.DoesNotContain("ecret", log, StringComparison.Ordinal);
        Assert.DoesNotContain("Badger-in-the-log", log, StringComparison.Ordinal);
        Assert.DoesNotContain("Marrow", log, StringComparison.Ordinal);
    }

    [GeneratedRegex(@"On a device of this network: (http://[^/]+)/#/key/([A-Z0-9]{8})")]
    private static partial Regex Printed();
}

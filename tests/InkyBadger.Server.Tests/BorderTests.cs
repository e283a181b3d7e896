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
        using var server = RunningServer.Fresh(seeded: false);
        var (id, _) = await server.Keep(Documents.Bus);
        foreach (
            var (method, path) in new[]
            {
                (HttpMethod.Post, "/api/designs"),
                (HttpMethod.Delete, $"/api/designs/{id}"),
                (HttpMethod.Put, $"/api/designs/{id}"),
                (HttpMethod.Post, "/api/import"),
            }
        )
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
        foreach (var path in new[] { "/api/designs", "/api/reference", "/api/backup", "/openapi/v1.json" })
            Assert.Equal(HttpStatusCode.Unauthorized, (await phone.GetAsync(path)).StatusCode);
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
        for (var i = 0; i < 12; i++)
            await second.PostAsJsonAsync("/api/key", new { key = $"GUESS{i}" });
        Assert.Equal(HttpStatusCode.TooManyRequests, (await second.PostAsJsonAsync("/api/key", new { key = "ANOTHER1" })).StatusCode);
        // The device that is in stays in.
        Assert.Equal(HttpStatusCode.OK, (await phone.GetAsync("/api/designs")).StatusCode);
    }

    /// <summary>
    /// An image of any page can ask for an address, but not with a header of its own, and its browser says that it is another's.
    /// </summary>
    [Fact]
    public async Task What_hands_out_everything_asks_for_a_header_of_our_own()
    {
        using var server = RunningServer.Fresh(seeded: false);
        await server.Keep(Documents.Bus);
        using var page = new HttpClient { BaseAddress = server.Address };
        foreach (var path in new[] { "/api/backup", "/api/designs.zip", "/API/Backup", "/api/backup/", "/api/backup?x=1", "/api/%62ackup" })
        {
            Assert.Equal(HttpStatusCode.Forbidden, (await page.GetAsync(path)).StatusCode);
            Assert.Equal(HttpStatusCode.OK, (await server.Http.GetAsync(path)).StatusCode);
        }
        Assert.Equal(HttpStatusCode.OK, (await page.GetAsync("/api/designs")).StatusCode);
        var image = new HttpRequestMessage(HttpMethod.Get, "/api/designs");
        image.Headers.TryAddWithoutValidation("Sec-Fetch-Site", "cross-site");
        Assert.Equal(HttpStatusCode.Forbidden, (await page.SendAsync(image)).StatusCode);
        // A link from elsewhere to the page itself still works.
        var link = new HttpRequestMessage(HttpMethod.Get, "/");
        link.Headers.TryAddWithoutValidation("Sec-Fetch-Site", "cross-site");
        Assert.Equal(HttpStatusCode.OK, (await page.SendAsync(link)).StatusCode);
    }

    [Theory]
    [InlineData("0.0.0.0", "0.0.0.0 stands for every address, and --lan needs one of the private network.")]
    [InlineData("::", ":: stands for every address, and --lan needs one of the private network.")]
    [InlineData("::ffff:0.0.0.0", "0.0.0.0 stands for every address, and --lan needs one of the private network.")]
    [InlineData("127.0.0.1", "127.0.0.1 is this machine’s own loopback address, which no other device reaches.")]
    [InlineData("::1", "::1 is this machine’s own loopback address, which no other device reaches.")]
    [InlineData("8.8.8.8", "8.8.8.8 is not an address of a private network (10…, 172.16… to 172.31…, 192.168…, fd…).")]
    [InlineData("172.32.0.1", "172.32.0.1 is not an address of a private network (10…, 172.16… to 172.31…, 192.168…, fd…).")]
    [InlineData("2001:db8::1", "2001:db8::1 is not an address of a private network (10…, 172.16… to 172.31…, 192.168…, fd…).")]
    [InlineData("fe80::1", "fe80::1 is not an address of a private network (10…, 172.16… to 172.31…, 192.168…, fd…).")]
    [InlineData("10.254.253.252", "10.254.253.252 is not an address of this machine.")]
    [InlineData("fd12:3456::1", "fd12:3456::1 is not an address of this machine.")]
    public void An_address_that_lets_in_everybody_or_nobody_is_refused_in_a_sentence(string address, string sentence) =>
        Assert.Equal(sentence, Hosting.LanGate.FaultOf(Hosting.StartOptions.Parse(["--lan-address", address]).LanAddress!));

    [Fact]
    public void A_refused_address_is_one_sentence_on_the_console()
    {
        var (code, output) = RunningServer.RunToEnd(
            "--lan-address",
            "0.0.0.0",
            "--port",
            "0",
            "--data",
            Path.Combine(Path.GetTempPath(), "inky-badger-never")
        );
        Assert.Equal(
            (1, "Inky Badger cannot start: 0.0.0.0 stands for every address, and --lan needs one of the private network."),
            (code, output.Trim())
        );
    }

    /// <summary>Whatever it was bound to, on IPv6 as on IPv4: what does not come in on the loopback address itself needs the key.</summary>
    [Theory]
    [InlineData("127.0.0.1", true)]
    [InlineData("::ffff:127.0.0.1", true)]
    [InlineData("::1", true)]
    [InlineData("fd00:b0d9:e4::7", false)]
    [InlineData("192.168.1.20", false)]
    [InlineData("::ffff:192.168.1.20", false)]
    [InlineData("127.0.0.2", false)]
    [InlineData(null, false)]
    public void Only_what_comes_in_on_loopback_is_this_machine(string? local, bool admitted)
    {
        var gate = new Hosting.LanGate(IPAddress.Parse("fd00:b0d9:e4::7"), _ => { });
        Assert.Equal("[fd00:b0d9:e4::7]", gate.Host);
        bool Admits(string path)
        {
            var context = new Microsoft.AspNetCore.Http.DefaultHttpContext();
            context.Connection.LocalIpAddress = local is null ? null : IPAddress.Parse(local);
            context.Request.Path = path;
            return gate.Admits(context);
        }
        foreach (var path in new[] { "/api/designs", "/API/backup", "/openapi/v1.json" })
            Assert.Equal(admitted, Admits(path));
        Assert.True(Admits("/") && Admits("/assets/index.js") && Admits("/api/key"));
    }

    /// <summary>Whatever comes in, a line of the log is short, and holds nothing of it.</summary>
    [Fact]
    public void A_line_of_the_log_is_short_and_holds_only_what_it_may()
    {
        var secret = new string('s', 50_000) + "ecret";
        Exception failure;
        try
        {
            throw new InvalidOperationException(secret, new FormatException(secret));
        }
        catch (InvalidOperationException e)
        {
            failure = e;
        }
        var template = new Serilog.Parsing.MessageTemplateParser().Parse(
            "HTTP {RequestMethod} {RequestPath} responded {StatusCode} in {Elapsed:0.0000} ms"
        );
        Serilog.Events.LogEventProperty Of(string name, object value) => new(name, new Serilog.Events.ScalarValue(value));
        string Line(string path)
        {
            using var text = new StringWriter();
            new Hosting.LogLine().Format(
                new(
                    DateTimeOffset.UtcNow,
                    Serilog.Events.LogEventLevel.Error,
                    failure,
                    template,
                    [Of("RequestMethod", secret), Of("RequestPath", path), Of("StatusCode", 500), Of("Elapsed", 12.3), Of("Body", secret)]
                ),
                text
            );
            return text.ToString();
        }
        foreach (var path in new[] { "/api/designs/" + secret, "/api/designs/a b;ecret", "/api/designs/{\"name\":\"ecret\"}" })
        {
            Assert.True(Line(path).Length < Hosting.LogLine.MostBytes);
            Assert.DoesNotContain("ecret", Line(path), StringComparison.Ordinal);
        }
        var line = JsonNode.Parse(Line("/api/evaluate"))!;
        Assert.Equal(
            ("/api/evaluate", 500, "InvalidOperationException < FormatException"),
            ((string)line["path"]!, (int)line["status"]!, (string)line["failure"]!)
        );
        Assert.NotEmpty(line["at"]!.AsArray());
    }

    [Fact]
    public async Task The_log_says_what_happened_and_nothing_of_what_designs_hold()
    {
        using var server = RunningServer.Fresh(seeded: false);
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

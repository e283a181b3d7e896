using System.Net;
using System.Net.Sockets;
using System.Reflection;
using System.Text;
using System.Text.Json.Nodes;
using System.Text.RegularExpressions;
using InkyBadger.Core;
using InkyBadger.Storage;
using InkyBadger.Tests.Shared;

namespace InkyBadger.Server.Tests;

public partial class HostingTests(AskedServer asked) : IClassFixture<AskedServer>
{
    private readonly RunningServer server = asked.Server;

    [Fact]
    public async Task Health_answers()
    {
        var answer = JsonNode.Parse(await server.Http.GetStringAsync("/api/health"))!;
        Assert.Equal("ok", (string)answer["status"]!);
    }

    /// <summary>
    /// docs/format/openapi.json is what the front end's types are made from. Where a line of its words ends says nothing.
    /// </summary>
    [Fact]
    public async Task The_openapi_document_of_the_docs_is_the_one_served()
    {
        static JsonNode Read(string text) => JsonNode.Parse(text.Replace("\\n", " ", StringComparison.Ordinal))!;
        var served = Read(await server.Http.GetStringAsync("/openapi/v1.json"));
        var kept = Read(File.ReadAllText(Path.Combine(RunningServer.Root, "docs/format/openapi.json")));
        Assert.True(
            JsonNode.DeepEquals(served, kept),
            "build the server with -p:OpenApiGenerateDocumentsOnBuild=true, then npm run types in web"
        );
    }

    [Fact]
    public async Task It_listens_on_loopback_only()
    {
        Assert.True(server.Address.IsLoopback);
        var outside = (await Dns.GetHostAddressesAsync(Dns.GetHostName())).FirstOrDefault(a =>
            a.AddressFamily == AddressFamily.InterNetwork && !IPAddress.IsLoopback(a)
        );
        Assert.SkipWhen(outside is null, "this machine has no address but loopback");
        using var client = new TcpClient();
        await Assert.ThrowsAnyAsync<SocketException>(async () => await client.ConnectAsync(outside!, server.Address.Port));
    }

    [Fact]
    public async Task Only_its_own_name_is_answered()
    {
        using var client = new TcpClient();
        await client.ConnectAsync(IPAddress.Loopback, server.Address.Port);
        await using var stream = client.GetStream();
        await stream.WriteAsync(
            Encoding.ASCII.GetBytes("GET /api/designs HTTP/1.1\r\nHost: elsewhere.example\r\nConnection: close\r\n\r\n")
        );
        using var reader = new StreamReader(stream);
        Assert.StartsWith("HTTP/1.1 400", await reader.ReadLineAsync(), StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_strict_policy_goes_with_every_answer()
    {
        foreach (var path in new[] { "/", "/api/health", "/method.html", "/nothing" })
        {
            var response = await server.Http.GetAsync(path);
            var policy = string.Join(' ', response.Headers.GetValues("Content-Security-Policy"));
            Assert.Contains("default-src 'none'", policy, StringComparison.Ordinal);
            Assert.DoesNotContain("unsafe", policy, StringComparison.Ordinal);
            Assert.DoesNotContain("http", policy, StringComparison.Ordinal);
            Assert.Equal("nosniff", response.Headers.GetValues("X-Content-Type-Options").Single());
        }
    }

    [Fact]
    public async Task The_front_end_is_served_and_names_no_other_place()
    {
        var page = await server.Http.GetStringAsync("/");
        foreach (var file in AssetName().Matches(page).Select(m => m.Groups[1].Value).Append("method.html").Append("method.css"))
        {
            var text = await server.Http.GetStringAsync("/" + file.TrimStart('.', '/'));
            Assert.DoesNotMatch(Fetched(), text);
        }
        Assert.Equal(HttpStatusCode.NotFound, (await server.Http.GetAsync("/assets/none.js")).StatusCode);
    }

    /// <summary>Every equation's method section is a place of the method's page.</summary>
    [Fact]
    public async Task The_method_has_a_place_for_every_equation()
    {
        var page = await server.Http.GetStringAsync("/method.html");
        var response = await server.Http.PostAsync("/api/evaluate?working=all", Documents.Body(Documents.Bus.ToJsonString()));
        var methods = (await response.Json())["working"]!.AsArray().Select(e => (string)e!["method"]!).Distinct().ToList();
        Assert.True(methods.Count > 10);
        Assert.All(methods, m => Assert.Contains($"id=\"m{m.Replace('.', '-')}\"", page, StringComparison.Ordinal));
    }

    [Theory]
    [InlineData("--nonsense", "--nonsense is not an option. ./run --help tells them.")]
    [InlineData("--port", "--port needs a value.")]
    [InlineData("--port=x", "--port=x is not an option. ./run --help tells them.")]
    public void A_wrong_command_line_is_one_sentence(string option, string sentence)
    {
        var (code, output) = RunningServer.RunToEnd(option);
        Assert.Equal(2, code);
        Assert.Equal(sentence, output.Trim());
    }

    [Fact]
    public void A_data_folder_that_cannot_be_made_is_said_in_a_sentence()
    {
        var file = Path.GetTempFileName();
        var (code, output) = RunningServer.RunToEnd("--data", Path.Combine(file, "below"), "--port", "0");
        File.Delete(file);
        Assert.Equal(1, code);
        Assert.StartsWith("Inky Badger cannot start: ", output, StringComparison.Ordinal);
        Assert.DoesNotContain("   at ", output, StringComparison.Ordinal);
    }

    [Fact]
    public void A_port_in_use_is_said_in_a_sentence()
    {
        var (code, output) = RunningServer.RunToEnd(
            "--data",
            Directory.CreateTempSubdirectory("inky-badger-").FullName,
            "--port",
            server.Address.Port.ToString()
        );
        Assert.Equal(1, code);
        Assert.Equal(
            $"Inky Badger cannot start: port {server.Address.Port} is in use. Take another with --port, or stop what has it.",
            output.Trim()
        );
    }

    /// <summary>The arrows of the house: Server → Storage → Core, and Core leans on nothing of the web or the database.</summary>
    [Fact]
    public void The_arrows_of_the_house()
    {
        string[] Of(Assembly assembly) => [.. assembly.GetReferencedAssemblies().Select(a => a.Name!)];
        var core = Of(typeof(Evaluator).Assembly);
        Assert.DoesNotContain(core, name =>
            name.StartsWith("InkyBadger", StringComparison.Ordinal) || name.StartsWith("Microsoft.", StringComparison.Ordinal)
        );
        var storage = Of(typeof(DesignStore).Assembly);
        Assert.Contains("InkyBadger.Core", storage);
        Assert.DoesNotContain("InkyBadger.Server", storage);
        Assert.DoesNotContain(storage, name => name.StartsWith("Microsoft.AspNetCore", StringComparison.Ordinal));
        Assert.DoesNotContain(Of(typeof(Program).Assembly), name =>
            name.StartsWith("Microsoft.EntityFrameworkCore", StringComparison.Ordinal)
        );
    }

    [GeneratedRegex("""(?:src|href)="(\.?/?assets/[^"]+\.(?:js|css))""")]
    private static partial Regex AssetName();

    /// <summary>Ways a page fetches from elsewhere; namespaces and comments that merely name an address are none.</summary>
    [GeneratedRegex("""url\(\s*["']?https?:|@import\s+["']https?:|(?:src|href)=["']https?:|fetch\(["']https?:|import\(["']https?:""")]
    private static partial Regex Fetched();
}

using System.Diagnostics;
using System.IO.Compression;
using System.Net.Http.Headers;
using System.Net.Sockets;
using System.Text;
using System.Text.Json.Nodes;
using InkyBadger.Tests.Shared;

namespace InkyBadger.Server.Tests;

/// <summary>
/// The law of the border: any bytes to any endpoint give an answer of 2xx, or of 4xx with problem details. INKY_HOSTILE sets how many
/// requests a run makes (2,000); the seed is printed, and INKY_SEED repeats it.
/// </summary>
public class HostileTests(AskedServer asked) : IClassFixture<AskedServer>
{
    private const int Usual = 2000;

    private sealed record Endpoint(HttpMethod Method, string Path, bool HasBody);

    /// <summary>Every endpoint there is, from the document that describes them.</summary>
    private static readonly Endpoint[] Endpoints =
    [
        .. JsonNode.Parse(File.ReadAllText(Path.Combine(RunningServer.Root, "docs/format/openapi.json")))!["paths"]!
            .AsObject()
            .SelectMany(p =>
                p.Value!.AsObject()
                    .Select(m => new Endpoint(
                        new(m.Key.ToUpperInvariant()),
                        p.Key,
                        m.Value!["requestBody"] is not null || m.Key is "put" or "post"
                    ))
            ),
    ];

    [Fact]
    public async Task Any_bytes_to_any_endpoint_are_answered()
    {
        var seed = int.TryParse(Environment.GetEnvironmentVariable("INKY_SEED"), out var s) ? s : Environment.TickCount;
        var count = int.TryParse(Environment.GetEnvironmentVariable("INKY_HOSTILE"), out var n) ? n : Usual;
        TestContext.Current.TestOutputHelper!.WriteLine($"seed {seed}");
        var random = new Random(seed);
        var (id, _) = await asked.Server.Keep(Documents.Bus);
        Assert.True(Endpoints.Length > 35, $"only {Endpoints.Length} endpoints");
        int accepted = 0,
            refused = 0;
        var slowest = (Ms: 0.0, What: "");
        for (var i = 0; i < count; i++)
        {
            var endpoint = Endpoints[i % Endpoints.Length];
            var (request, what) = Request(endpoint, id, random);
            var clock = Stopwatch.StartNew();
            using var answer = await asked.Server.Http.SendAsync(request);
            var body = await answer.Content.ReadAsByteArrayAsync();
            if (clock.Elapsed.TotalMilliseconds > slowest.Ms)
                slowest = (clock.Elapsed.TotalMilliseconds, $"{endpoint.Method} {request.RequestUri}");
            var status = (int)answer.StatusCode;
            Assert.True(
                status is >= 200 and < 300 or >= 400 and < 500,
                $"{endpoint.Method} {request.RequestUri} answered {status} to request {i} of seed "
                    + $"{seed}:\n{what}\n{Encoding.UTF8.GetString(body)}"
            );
            if (status < 300)
                accepted++;
            else
            {
                refused++;
                Assert.Equal("application/problem+json", answer.Content.Headers.ContentType?.MediaType);
            }
        }
        TestContext.Current.TestOutputHelper.WriteLine(
            $"{accepted} accepted, {refused} refused, the slowest {slowest.Ms:0} ms: {slowest.What}"
        );
        Assert.True(accepted > count / 10 && refused > count / 10, $"{accepted} accepted, {refused} refused");
        Assert.Equal("ok", (string)JsonNode.Parse(await asked.Server.Http.GetStringAsync("/api/health"))!["status"]!);
    }

    private static readonly string[] Words =
    [
        "0",
        "1",
        "-1",
        "999999999999999999999",
        "1e308",
        "NaN",
        "all",
        "/banks/0/loads/peakAcW",
        "main",
        "true",
        "%F0%9F%A6%A1",
        "%00",
        "..%2F..",
        "'",
        "%22%3Cscript%3E",
        "",
    ];

    private static (HttpRequestMessage, string What) Request(Endpoint endpoint, string id, Random random)
    {
        string Word() => Words[random.Next(Words.Length)];
        var path = endpoint
            .Path.Replace("{id}", random.Next(3) == 0 ? Uri.EscapeDataString(Word() + "x") : id, StringComparison.Ordinal)
            .Replace("{key}", random.Next(3) == 0 ? Uri.EscapeDataString(Word() + "k") : $"k{random.Next(5)}", StringComparison.Ordinal);
        if (random.Next(3) == 0)
            path += $"?{new[] { "bank", "working", "run", "amps", "bin", "ids" }[random.Next(6)]}={Word()}";
        var request = new HttpRequestMessage(endpoint.Method, path);
        if (random.Next(3) > 0)
            request.Headers.TryAddWithoutValidation("If-Match", random.Next(2) == 0 ? "\"1\"" : Word());
        if (!endpoint.HasBody)
            return (request, "no body");
        var (bytes, type) = Body(endpoint.Path, random);
        request.Content = new ByteArrayContent(bytes);
        request.Content.Headers.ContentType = MediaTypeHeaderValue.Parse(type);
        return (request, Encoding.UTF8.GetString(bytes));
    }

    /// <summary>Mostly what the endpoint wants, bent; now and then anything at all.</summary>
    private static (byte[] Bytes, string Type) Body(string path, Random random)
    {
        if (random.Next(10) == 0)
            return (Junk(random), "application/octet-stream");
        var text = path switch
        {
            _ when path.EndsWith("csv", StringComparison.Ordinal) => Csv(random),
            _ when path.Contains("/own/", StringComparison.Ordinal) || path.Contains("/library/", StringComparison.Ordinal) => Item(
                path,
                random
            ),
            "/api/builds/compare" or "/api/builds/take" => Question(random),
            "/api/key" => random.Next(2) == 0 ? "{}" : "{\"key\":null}",
            "/api/import" when random.Next(2) == 0 => null,
            _ => Bent.Text(random),
        };
        if (text is null)
            return (Zip(random), "application/x-zip-compressed");
        if (random.Next(12) == 0)
            text = text.Replace(
                ":",
                random.Next(2) == 0 ? ":\"\\ud83d\",\"x\":" : ":99999999999999999999999,\"x\":",
                StringComparison.Ordinal
            );
        return (Encoding.UTF8.GetBytes(text), path.EndsWith("csv", StringComparison.Ordinal) ? "text/csv" : "application/json");
    }

    private static byte[] Junk(Random random)
    {
        var bytes = new byte[random.Next(400)];
        random.NextBytes(bytes);
        return bytes;
    }

    /// <summary>A unit, inverter or load out of a document, bent.</summary>
    private static string Item(string path, Random random)
    {
        var bank = Documents.Bus["banks"]![0]!;
        var item = (
            path.Contains("units", StringComparison.Ordinal) ? bank["unit"]
            : path.Contains("inverters", StringComparison.Ordinal) ? bank["inverters"]![0]!["item"]
            : bank["demand"]!["loads"]![0]
        ) ?? new JsonObject { ["name"] = "x" };
        item = item.DeepClone();
        for (var n = random.Next(3); n > 0; n--)
            Bent.Mutate(item, random);
        return item.ToJsonString();
    }

    private static string Question(Random random)
    {
        var unit = (JsonObject)
            JsonNode.Parse("""{ "key": "u", "name": "Unit", "chemistry": "lfp", "cells": 4, "ah": 100, "massKg": 10, "price": 300 }""")!;
        JsonNode question = new JsonObject
        {
            ["design"] = Documents.Bus,
            ["bank"] = 0,
            ["subject"] = 0,
            ["terms"] = new JsonObject { ["unitPrices"] = new JsonObject(), ["hourRate"] = 40 },
            ["builds"] = new JsonArray(
                random.Next(2) == 0
                    ? null
                    : new JsonObject
                    {
                        ["unit"] = unit,
                        ["systemV"] = 24,
                        ["series"] = 2,
                        ["parallel"] = 2,
                        ["style"] = "diagonal",
                    },
                null
            ),
        };
        switch (random.Next(6))
        {
            case 0:
                question["builds"] = null;
                break;
            case 1:
                question["terms"] = null;
                break;
            case 2 when question["builds"]![0] is { } build:
                build["systemV"] = random.Next(60);
                break;
            case 3 when question["builds"]![0] is { } build:
                build["unit"]!["chemistry"] = random.Next(2) == 0 ? "unobtainium" : null;
                break;
            default:
                Bent.Mutate(question, random);
                break;
        }
        return question.ToJsonString();
    }

    private static string Csv(Random random)
    {
        string[] cells =
        [
            "Lamp",
            "ac",
            "12",
            "1,5",
            "1e999",
            "=1+1",
            "'=1+1",
            "\"",
            "\"a,b\"",
            "10:00-11:00",
            "a: 1 A 50 %; b: 2 A 50 %",
            new string(' ', 3000) + "x",
            "1" + new string(' ', 4000) + "x",
            "🦡",
            "\u0000",
            "-0",
            "½",
        ];
        var text = new StringBuilder("name,kind,watts,hours,chemistry,cells,ah\n".Replace(',', ",;\t"[random.Next(3)]));
        for (var line = random.Next(6); line > 0; line--)
            text.AppendJoin(
                    random.Next(5) == 0 ? ';' : ',',
                    Enumerable.Range(0, random.Next(10)).Select(_ => cells[random.Next(cells.Length)])
                )
                .Append('\n');
        return text.ToString();
    }

    private static byte[] Zip(Random random)
    {
        var packed = new MemoryStream();
        using (var zip = new ZipArchive(packed, ZipArchiveMode.Create, leaveOpen: true))
            for (var n = random.Next(3); n >= 0; n--)
            {
                using var entry = zip.CreateEntry(random.Next(4) == 0 ? "__MACOSX/._a.json" : $"a{n}.json").Open();
                entry.Write(Encoding.UTF8.GetBytes(Bent.Text(random)));
            }
        var bytes = packed.ToArray();
        if (random.Next(3) == 0)
            bytes[random.Next(bytes.Length)] ^= 0xFF;
        return bytes;
    }

    /// <summary>Below what an HTTP client would send.</summary>
    [Theory]
    [InlineData(
        "POST /api/evaluate HTTP/1.1\r\nHost: localhost\r\nContent-Type: application/json\r\nTransfer-Encoding: "
            + "chunked\r\n\r\nFFFFFFFFFFFFFFFF\r\nx"
    )]
    [InlineData(
        "POST /api/evaluate HTTP/1.1\r\nHost: localhost\r\nContent-Type: application/json\r\nTransfer-Encoding: chunked\r\n\r\nzz\r\nx"
    )]
    [InlineData("POST /api/loads/csv HTTP/1.1\r\nHost: localhost\r\nTransfer-Encoding: chunked\r\n\r\n7FFFFFFFFFFFFFF\r\nx")]
    [InlineData("POST /api/import HTTP/1.1\r\nHost: localhost\r\nContent-Length: -1\r\n\r\n")]
    [InlineData(
        "POST /api/key HTTP/1.1\r\nHost: localhost\r\nContent-Type: application/json\r\nTransfer-Encoding: "
            + "chunked\r\n\r\nFFFFFFFFFFFFFFFF\r\n{}"
    )]
    public async Task A_broken_request_is_refused(string raw)
    {
        using var client = new TcpClient();
        await client.ConnectAsync("127.0.0.1", asked.Server.Address.Port);
        await using var stream = client.GetStream();
        await stream.WriteAsync(Encoding.Latin1.GetBytes(raw));
        using var reader = new StreamReader(stream);
        Assert.Matches("^HTTP/1.1 4[0-9][0-9] ", await reader.ReadLineAsync());
    }

    /// <summary>What cost seconds and a gigabyte: half a million entries where a few are allowed, by itself and packed.</summary>
    [Fact]
    public async Task A_list_without_end_is_refused_by_its_count()
    {
        var text = Documents
            .Bus.With("/banks", new JsonArray())
            .ToJsonString()
            .Replace("\"banks\":[]", $"\"banks\":[{string.Join(',', Enumerable.Repeat("1", 900_000))}]", StringComparison.Ordinal);
        var before = GC.GetTotalAllocatedBytes();
        var faults = new Designs.DesignReader().Read(text).Faults;
        Assert.Equal(("/banks", "must have 8 entries at most"), (Assert.Single(faults).Pointer, faults[0].Reason));
        Assert.True(GC.GetTotalAllocatedBytes() - before < 100_000_000, "it was held many times over");
        var packed = new MemoryStream();
        using (var zip = new ZipArchive(packed, ZipArchiveMode.Create, leaveOpen: true))
            for (var n = 0; n < 30; n++)
            {
                using var entry = zip.CreateEntry($"{n}.json").Open();
                entry.Write(Encoding.UTF8.GetBytes(text));
            }
        var content = new ByteArrayContent(packed.ToArray());
        content.Headers.ContentType = new("application/octet-stream");
        var answer = await asked.Server.Http.PostAsync("/api/import", content);
        Assert.Equal(400, (int)answer.StatusCode);
        Assert.Contains("holds more than 40 MB once unpacked", await answer.Content.ReadAsStringAsync(), StringComparison.Ordinal);
    }
}

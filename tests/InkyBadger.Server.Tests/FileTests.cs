using System.IO.Compression;
using System.Net;
using System.Net.Http.Headers;
using System.Text;
using System.Text.Json.Nodes;
using InkyBadger.Tests.Shared;

namespace InkyBadger.Server.Tests;

/// <summary>Designs as files, out and in.</summary>
public class FileTests(AskedServer asked) : IClassFixture<AskedServer>
{
    private static ByteArrayContent Zip(params (string Name, string Text)[] files)
    {
        var packed = new MemoryStream();
        using (var zip = new ZipArchive(packed, ZipArchiveMode.Create, leaveOpen: true))
            foreach (var (name, text) in files)
            {
                using var entry = zip.CreateEntry(name).Open();
                entry.Write(Encoding.UTF8.GetBytes(text));
            }
        return AsZip(packed.ToArray());
    }

    private static ByteArrayContent AsZip(byte[] bytes)
    {
        var content = new ByteArrayContent(bytes);
        content.Headers.ContentType = new MediaTypeHeaderValue("application/zip");
        return content;
    }

    private static async Task<int> Count(RunningServer server) =>
        JsonNode.Parse(await server.Http.GetStringAsync("/api/designs"))!.AsArray().Count;

    [Fact]
    public async Task A_design_goes_out_and_comes_in_again_unchanged()
    {
        using var server = RunningServer.Fresh(seeded: false);
        var (id, _) = await server.Keep(Documents.Bus);
        var file = await server.Http.GetAsync($"/api/designs/{id}/file");
        Assert.Equal("marrow-lane-library-bus.json", file.Content.Headers.ContentDisposition!.FileName);
        var text = await file.Content.ReadAsStringAsync();
        Assert.True(JsonNode.DeepEquals(Documents.Bus, JsonNode.Parse(text)));

        var answer = await server.Http.PostAsync("/api/import", Documents.Body(text));
        Assert.Equal(HttpStatusCode.Created, answer.StatusCode);
        var imported = (string)(await answer.Json())["designs"]![0]!["id"]!;
        var read = await (await server.Http.GetAsync($"/api/designs/{imported}")).Json();
        Assert.True(JsonNode.DeepEquals(Documents.Bus, read["design"]));
    }

    [Fact]
    public async Task Several_go_out_as_a_zip_and_come_in_together()
    {
        using var server = RunningServer.Fresh();
        var packed = await server.Http.GetByteArrayAsync("/api/designs.zip");
        using (var zip = new ZipArchive(new MemoryStream(packed)))
            Assert.Contains("hare-s-ledge-bird-hut.json", zip.Entries.Select(e => e.FullName));
        var before = await Count(server);
        Assert.Equal(HttpStatusCode.Created, (await server.Http.PostAsync("/api/import", AsZip(packed))).StatusCode);
        Assert.Equal(2 * before, await Count(server));
        var one = JsonNode.Parse(await server.Http.GetStringAsync("/api/designs"))!.AsArray()[0]!["id"];
        using var single = new ZipArchive(new MemoryStream(await server.Http.GetByteArrayAsync($"/api/designs.zip?ids={one}")));
        Assert.Single(single.Entries);
    }

    [Fact]
    public async Task One_bad_file_in_a_zip_changes_nothing_and_is_named()
    {
        using var server = RunningServer.Fresh(seeded: false);
        var answer = await server.Http.PostAsync(
            "/api/import",
            Zip(
                ("good.json", Documents.Bus.ToJsonString()),
                ("bad.json", Documents.Bus.With("/banks/0/demand/loads/0/watts", -5).ToJsonString())
            )
        );
        Assert.Equal(HttpStatusCode.BadRequest, answer.StatusCode);
        var error = Assert.Single((await answer.Json())["errors"]!.AsArray())!;
        Assert.Equal("bad.json/banks/0/demand/loads/0/watts", (string)error["pointer"]!);
        Assert.Equal("must be 0 or more", (string)error["reason"]!);
        Assert.Equal(0, await Count(server));
    }

    [Fact]
    public async Task What_cannot_be_read_is_refused_without_harm()
    {
        using var server = RunningServer.Fresh(seeded: false);
        async Task Refuses(HttpContent content, string reason)
        {
            var answer = await server.Http.PostAsync("/api/import", content);
            Assert.Equal(HttpStatusCode.BadRequest, answer.StatusCode);
            Assert.Contains(
                reason,
                string.Join(' ', (await answer.Json())["errors"]!.AsArray().Select(e => (string)e!["reason"]!)),
                StringComparison.Ordinal
            );
        }
        var junk = new byte[10_000_000];
        new Random(7).NextBytes(junk);
        await Refuses(Documents.Body(Convert.ToBase64String(junk)), "larger than 2 MB");
        await Refuses(AsZip(junk), "no zip");
        await Refuses(Zip(("read-me.txt", "hello")), "holds no design file");
        await Refuses(Zip(("bomb.json", new string(' ', 30_000_000))), "larger than 2 MB");
        await Refuses(
            Documents.Body("{\"format\":\"inky-badger-design\",\"format\":\"inky-badger-design\"}"),
            "not JSON as a document is written"
        );
        await Refuses(Documents.Body(new string('[', 100_000)), "not JSON as a document is written");
        await Refuses(Documents.Body(Documents.Bus.With("/version", 3).ToJsonString()), "written by a newer Inky Badger");
        await Refuses(
            Documents.Body("{\"format\":\"inky-badger-design\",\"version\":9,\"somethingNew\":{}}"),
            "is 9: this file was written by a newer Inky Badger"
        );
        Assert.Equal(0, await Count(server));
    }

    /// <summary>Zips as different systems make and name them, and a mark before the text.</summary>
    [Theory]
    [InlineData("application/zip")]
    [InlineData("application/x-zip-compressed")]
    [InlineData("application/octet-stream")]
    [InlineData("multipart/x-zip")]
    [InlineData("application/json")]
    public async Task A_zip_is_known_by_what_it_is(string type)
    {
        var packed = Zip(
            ("designs/good.json", "\uFEFF" + Documents.Bus.ToJsonString()),
            ("__MACOSX/designs/._good.json", "junk"),
            ("designs/.hidden.json", "junk"),
            ("read-me.txt", "hello")
        );
        packed.Headers.ContentType = new(type);
        var answer = await asked.Server.Http.PostAsync("/api/import", packed);
        Assert.Equal(HttpStatusCode.Created, answer.StatusCode);
        Assert.Equal("Marrow Lane library bus", (string)Assert.Single((await answer.Json())["designs"]!.AsArray())!["name"]!);
    }

    [Fact]
    public async Task A_file_that_is_not_what_was_packed_is_refused_not_mended()
    {
        async Task Refuses(byte[] bytes, string reason)
        {
            var answer = await asked.Server.Http.PostAsync("/api/import", AsZip(bytes));
            Assert.Equal(HttpStatusCode.BadRequest, answer.StatusCode);
            Assert.Contains(reason, await answer.Content.ReadAsStringAsync(), StringComparison.Ordinal);
        }
        byte[] Stored(byte[] content)
        {
            var packed = new MemoryStream();
            using (var zip = new ZipArchive(packed, ZipArchiveMode.Create, leaveOpen: true))
            {
                using var entry = zip.CreateEntry("a.json", CompressionLevel.NoCompression).Open();
                entry.Write(content);
            }
            return packed.ToArray();
        }
        var text = Encoding.UTF8.GetBytes(Documents.Bus.ToJsonString());
        var changed = Stored(text);
        // One letter of a name, as a bad cable would: still a document, and no longer the one that was packed.
        changed[changed.AsSpan().IndexOf("Marrow"u8)] ^= 1;
        await Refuses(changed, "its checksum is another");
        text[text.AsSpan().IndexOf("Marrow"u8)] = 0xFF;
        await Refuses(Stored(text), "is not text in UTF-8");
    }

    [Fact]
    public async Task A_zip_of_more_files_than_anybody_packs_is_refused_by_their_count()
    {
        var answer = await asked.Server.Http.PostAsync("/api/import", Zip([.. Enumerable.Range(0, 2001).Select(n => ($"{n}.txt", ""))]));
        Assert.Equal(HttpStatusCode.BadRequest, answer.StatusCode);
        Assert.Contains("holds more than 2000 files", await answer.Content.ReadAsStringAsync(), StringComparison.Ordinal);
        answer = await asked.Server.Http.PostAsync("/api/import", Zip([.. Enumerable.Range(0, 201).Select(n => ($"{n}.json", "{}"))]));
        Assert.Contains("holds more than 200 designs", await answer.Content.ReadAsStringAsync(), StringComparison.Ordinal);
    }

    [Fact]
    public async Task An_answer_has_an_end()
    {
        var load = Documents.Bus["banks"]![0]!["demand"]!["loads"]![0]!;
        load["hours"] = null;
        var loads = new JsonArray([
            .. Enumerable
                .Range(0, 500)
                .Select(n =>
                {
                    var copy = load.DeepClone();
                    copy["id"] = $"l{n}";
                    copy["windows"] = new JsonArray([
                        .. Enumerable.Range(0, 6).Select(w => (JsonNode)new JsonArray(w * 4 + n * 0.002, w * 4 + n * 0.002 + 1.5)),
                    ]);
                    return copy;
                }),
        ]);
        var answer = await asked.Server.Http.PostAsync(
            "/api/evaluate?working=all",
            Documents.Body(Documents.Bus.With("/banks/0/demand/loads", loads).With("/banks/0/sources", new JsonArray()).ToJsonString())
        );
        Assert.Equal(HttpStatusCode.BadRequest, answer.StatusCode);
        Assert.Contains("ask for one figure by its pointer", await answer.Content.ReadAsStringAsync(), StringComparison.Ordinal);
    }
}

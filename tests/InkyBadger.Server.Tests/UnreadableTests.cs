using System.IO.Compression;
using System.Net;
using System.Text.Json.Nodes;
using InkyBadger.Storage;
using InkyBadger.Tests.Shared;
using Microsoft.Data.Sqlite;

namespace InkyBadger.Server.Tests;

/// <summary>One row that cannot be read is shown for what it is; the rest stays as it was.</summary>
public class UnreadableTests
{
    private static async Task Execute(RunningServer server, string sql)
    {
        await using var connection = new SqliteConnection($"Data Source={Database.FileIn(server.DataFolder)};Pooling=False");
        await connection.OpenAsync();
        await using var command = connection.CreateCommand();
        command.CommandText = sql;
        Assert.Equal(1, await command.ExecuteNonQueryAsync());
    }

    [Fact]
    public async Task A_row_that_cannot_be_read_is_shown_as_such_and_set_aside_as_a_file()
    {
        using var server = RunningServer.Fresh(seeded: false);
        var (good, _) = await server.Keep(Documents.Bus.With("/name", "Good"));
        var (torn, _) = await server.Keep(Documents.Bus.With("/name", "Torn"));
        var (odd, _) = await server.Keep(Documents.Bus.With("/name", "Odd date"));
        await Execute(server, $"UPDATE designs SET Document = substr(Document, 1, 500), Revision = 2 WHERE Id = '{torn}'");
        await Execute(server, $"UPDATE designs SET UpdatedUtc = 'some time', Revision = 2 WHERE Id = '{odd}'");

        var cards = JsonNode.Parse(await server.Http.GetStringAsync("/api/designs"))!.AsArray();
        JsonNode Card(string id) => cards.Single(c => (string)c!["id"]! == id)!;
        Assert.Null(Card(good)["unreadable"]);
        Assert.Equal(9216, (double)Card(good)["usableWh"]!, 6);
        Assert.Equal("Torn", (string)Card(torn)["name"]!);
        Assert.StartsWith("its text", (string)Card(torn)["unreadable"]!, StringComparison.Ordinal);
        Assert.Equal("its date cannot be read", (string)Card(odd)["unreadable"]!);
        var aside = Path.Combine(server.DataFolder, (string)Card(torn)["setAside"]!);
        Assert.Equal(500, File.ReadAllText(aside).Length);

        // The zip holds the rest as designs, and this one as the text it is.
        using var zip = new ZipArchive(new MemoryStream(await server.Http.GetByteArrayAsync("/api/designs.zip")));
        Assert.Equal(["good.json", "odd-date.json", "torn-unreadable.txt"], zip.Entries.Select(e => e.FullName).Order());
        Assert.Equal(File.ReadAllText(aside), await server.Http.GetStringAsync($"/api/designs/{torn}/file"));

        foreach (
            var answer in new[]
            {
                await server.Http.GetAsync($"/api/designs/{torn}"),
                await server.Http.PostAsync($"/api/designs/{torn}/copy", null),
                await server.Http.GetAsync($"/api/designs/{odd}"),
            }
        )
        {
            Assert.Equal(HttpStatusCode.UnprocessableEntity, answer.StatusCode);
            Assert.Contains("is there but cannot be read", (string)(await answer.Json())["detail"]!, StringComparison.Ordinal);
        }
        // It can be put away like any other, and is not lost by that.
        Assert.Equal(HttpStatusCode.NoContent, (await server.Http.DeleteAsync($"/api/designs/{torn}")).StatusCode);
        Assert.StartsWith(
            "its text",
            (string)JsonNode.Parse(await server.Http.GetStringAsync("/api/designs?bin=true"))![0]!["unreadable"]!,
            StringComparison.Ordinal
        );
    }

    [Fact]
    public async Task An_own_item_and_a_state_that_cannot_be_read_take_nothing_with_them()
    {
        using var server = RunningServer.Fresh(seeded: false);
        var load = Documents.Bus["banks"]![0]!["demand"]!["loads"]![0]!.ToJsonString();
        foreach (var key in new[] { "one", "two" })
            Assert.Equal(
                HttpStatusCode.NoContent,
                (await server.Http.PutAsync($"/api/loads/library/{key}", Documents.Body(load))).StatusCode
            );
        await Execute(server, "UPDATE own_items SET Document = '{' WHERE Key = 'one'");
        Assert.Equal(
            "two",
            (string)Assert.Single((await (await server.Http.GetAsync("/api/loads/library")).Json())["own"]!.AsArray())!["key"]!
        );

        var (id, etag) = await server.Keep(Documents.Bus);
        etag = (await server.Put(id, etag, Documents.Bus.With("/name", "Second"))).Headers.ETag!.Tag;
        await Execute(server, "UPDATE states SET Document = 'torn' WHERE Number = 0");
        var undo = new HttpRequestMessage(HttpMethod.Post, $"/api/designs/{id}/undo");
        undo.Headers.TryAddWithoutValidation("If-Match", etag);
        Assert.Equal(HttpStatusCode.UnprocessableEntity, (await server.Http.SendAsync(undo)).StatusCode);
        // What stands is as it was, and goes on.
        Assert.Equal(HttpStatusCode.OK, (await server.Put(id, etag, Documents.Bus.With("/name", "Third"))).StatusCode);
    }

    [Fact]
    public async Task A_database_that_vanishes_while_it_runs_is_said_and_nothing_is_confirmed()
    {
        using var server = RunningServer.Fresh(seeded: false);
        var (id, etag) = await server.Keep(Documents.Bus);
        var file = Database.FileIn(server.DataFolder);
        File.Move(file, file + ".away");
        var answer = await server.Put(id, etag, Documents.Bus.With("/name", "Unkept"));
        Assert.Equal(HttpStatusCode.ServiceUnavailable, answer.StatusCode);
        Assert.StartsWith(
            "The database file was moved or deleted while Inky Badger was running.",
            (string)(await answer.Json())["detail"]!,
            StringComparison.Ordinal
        );
        File.Move(file + ".away", file);
        Assert.Equal(HttpStatusCode.OK, (await server.Put(id, etag, Documents.Bus.With("/name", "Kept"))).StatusCode);
    }
}

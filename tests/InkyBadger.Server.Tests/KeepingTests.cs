using System.Net;
using System.Text.Json.Nodes;
using InkyBadger.Tests.Shared;

namespace InkyBadger.Server.Tests;

/// <summary>Designs over HTTP on a real database file.</summary>
public class KeepingTests
{
    [Fact]
    public async Task A_first_start_brings_the_demo_designs_with_the_library_bus_first()
    {
        using var server = RunningServer.Fresh();
        var cards = JsonNode.Parse(await server.Http.GetStringAsync("/api/designs"))!.AsArray();
        Assert.Equal("Marrow Lane library bus", (string)cards[0]!["name"]!);
        Assert.Equal(24, (int)cards[0]!["systemV"]!);
        Assert.Equal(9216, (double)cards[0]!["usableWh"]!, 6);
        Assert.Equal("2S4P", (string)cards[0]!["arrangement"]!);
        Assert.True(cards.Count >= 3);
        Assert.True(File.Exists(Path.Combine(server.DataFolder, "inky-badger.db")));
    }

    [Fact]
    public async Task Empty_starts_without_designs()
    {
        using var server = RunningServer.Fresh(seeded: false);
        Assert.Empty(JsonNode.Parse(await server.Http.GetStringAsync("/api/designs"))!.AsArray());
    }

    [Fact]
    public async Task A_design_is_kept_changed_and_taken_off_the_shelf()
    {
        using var server = RunningServer.Fresh(seeded: false);
        var (id, etag) = await server.Keep(Documents.Bus);
        Assert.Equal("\"1\"", etag);

        var changed = await server.Put(id, etag, Documents.Bus.With("/name", "The other bus"));
        Assert.Equal(HttpStatusCode.OK, changed.StatusCode);
        Assert.Equal("\"2\"", changed.Headers.ETag!.Tag);
        var read = await (await server.Http.GetAsync($"/api/designs/{id}")).Json();
        Assert.Equal("The other bus", (string)read["design"]!["name"]!);
        Assert.Equal(2, (long)read["revision"]!);

        Assert.Equal(HttpStatusCode.NoContent, (await server.Http.DeleteAsync($"/api/designs/{id}")).StatusCode);
        Assert.Equal(HttpStatusCode.NotFound, (await server.Http.GetAsync($"/api/designs/{id}")).StatusCode);
        Assert.Equal(HttpStatusCode.NotFound, (await server.Http.DeleteAsync($"/api/designs/{id}")).StatusCode);
    }

    [Fact]
    public async Task A_write_without_the_state_it_changed_or_on_an_old_one_overwrites_nothing()
    {
        using var server = RunningServer.Fresh(seeded: false);
        var (id, etag) = await server.Keep(Documents.Bus);
        Assert.Equal(HttpStatusCode.PreconditionRequired, (await server.Put(id, null, Documents.Bus)).StatusCode);
        await server.Put(id, etag, Documents.Bus.With("/name", "Theirs"));
        var stale = await server.Put(id, etag, Documents.Bus.With("/name", "Mine"));
        Assert.Equal(HttpStatusCode.PreconditionFailed, stale.StatusCode);
        Assert.Equal("application/problem+json", stale.Content.Headers.ContentType!.MediaType);
        Assert.Equal("Theirs", (string)(await (await server.Http.GetAsync($"/api/designs/{id}")).Json())["design"]!["name"]!);
        Assert.Equal(HttpStatusCode.NotFound, (await server.Put("nobody", etag, Documents.Bus)).StatusCode);
    }

    [Fact]
    public async Task Everything_is_there_after_a_stop_and_after_a_kill()
    {
        using var server = RunningServer.Fresh(seeded: false);
        var (id, etag) = await server.Keep(Documents.Bus);
        Assert.Equal(0, server.Interrupt());
        server.StartAgain("--empty");
        etag = (await server.Put(id, etag, Documents.Bus.With("/banks/0/runs/0/lengthM", 3.25))).Headers.ETag!.Tag;
        server.Kill();
        server.StartAgain("--empty");
        var response = await server.Http.GetAsync($"/api/designs/{id}");
        Assert.Equal(etag, response.Headers.ETag!.Tag);
        Assert.Equal(3.25, (double)(await response.Json())["design"]!["banks"]![0]!["runs"]![0]!["lengthM"]!);
    }

    [Fact]
    public async Task A_new_design_without_a_body_is_empty_and_as_advised()
    {
        using var server = RunningServer.Fresh(seeded: false);
        var response = await server.Http.PostAsync("/api/designs", null);
        Assert.Equal(HttpStatusCode.Created, response.StatusCode);
        var bank = (await response.Json())["design"]!["banks"]![0]!;
        Assert.Empty(bank["demand"]!["loads"]!.AsArray());
        Assert.Null(bank["systemV"]);
        Assert.Null(bank["series"]);
    }

    [Fact]
    public async Task The_data_folder_of_a_user_is_never_seeded_twice()
    {
        using var server = RunningServer.Fresh();
        foreach (var card in JsonNode.Parse(await server.Http.GetStringAsync("/api/designs"))!.AsArray())
            await server.Http.DeleteAsync($"/api/designs/{card!["id"]}");
        server.Interrupt();
        server.StartAgain();
        Assert.Empty(JsonNode.Parse(await server.Http.GetStringAsync("/api/designs"))!.AsArray());
    }
}

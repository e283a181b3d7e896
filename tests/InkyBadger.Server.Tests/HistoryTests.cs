using System.Net;
using System.Net.Http.Json;
using System.Text.Json.Nodes;
using InkyBadger.Tests.Shared;

namespace InkyBadger.Server.Tests;

/// <summary>Undo, redo, the bin and copies.</summary>
public class HistoryTests
{
    private static JsonObject Named(string name) => Documents.Bus.With("/name", name);

    private static async Task<(HttpStatusCode Status, string? Name, string? ETag, JsonObject Answer)> Walk(
        RunningServer server,
        string id,
        string step,
        string? etag
    )
    {
        var request = new HttpRequestMessage(HttpMethod.Post, $"/api/designs/{id}/{step}");
        if (etag is not null)
            request.Headers.TryAddWithoutValidation("If-Match", etag);
        var response = await server.Http.SendAsync(request);
        var answer = await response.Json();
        return (response.StatusCode, (string?)answer["design"]?["name"], response.Headers.ETag?.Tag, answer);
    }

    [Fact]
    public async Task Back_and_forward_with_numbers_that_only_rise()
    {
        using var server = RunningServer.Fresh(seeded: false);
        var (id, etag) = await server.Keep(Named("one"));
        foreach (var name in new[] { "two", "three" })
            etag = (await server.Put(id, etag, Named(name))).Headers.ETag!.Tag;
        Assert.Equal("\"3\"", etag);

        var back = await Walk(server, id, "undo", etag);
        Assert.Equal(("two", "\"4\""), (back.Name, back.ETag));
        Assert.True((bool)back.Answer["canUndo"]!);
        Assert.True((bool)back.Answer["canRedo"]!);
        back = await Walk(server, id, "undo", back.ETag);
        Assert.Equal(("one", "\"5\""), (back.Name, back.ETag));
        Assert.False((bool)back.Answer["canUndo"]!);
        Assert.Equal(HttpStatusCode.Conflict, (await Walk(server, id, "undo", back.ETag)).Status);
        var forward = await Walk(server, id, "redo", back.ETag);
        Assert.Equal(("two", "\"6\""), (forward.Name, forward.ETag));

        // Undo survives a restart.
        server.Interrupt();
        server.StartAgain("--empty");
        forward = await Walk(server, id, "redo", forward.ETag);
        Assert.Equal("three", forward.Name);
        back = await Walk(server, id, "undo", forward.ETag);

        // A new edit drops what was undone.
        var edited = await server.Put(id, back.ETag, Named("four"));
        Assert.False((bool)(await edited.Json())["canRedo"]!);
        Assert.Equal(HttpStatusCode.Conflict, (await Walk(server, id, "redo", edited.Headers.ETag!.Tag)).Status);
        Assert.Equal("two", (await Walk(server, id, "undo", edited.Headers.ETag!.Tag)).Name);
    }

    [Fact]
    public async Task Undo_and_redo_need_the_state_they_start_from()
    {
        using var server = RunningServer.Fresh(seeded: false);
        var (id, etag) = await server.Keep(Named("one"));
        var newer = (await server.Put(id, etag, Named("two"))).Headers.ETag!.Tag;
        foreach (var step in new[] { "undo", "redo" })
        {
            Assert.Equal(HttpStatusCode.PreconditionRequired, (await Walk(server, id, step, null)).Status);
            Assert.Equal(HttpStatusCode.PreconditionFailed, (await Walk(server, id, step, etag)).Status);
            Assert.Equal(HttpStatusCode.NotFound, (await Walk(server, "nobody", step, newer)).Status);
        }
        Assert.Equal("two", (string)(await (await server.Http.GetAsync($"/api/designs/{id}")).Json())["design"]!["name"]!);
    }

    [Fact]
    public async Task Two_hundred_states_back_and_no_more()
    {
        using var server = RunningServer.Fresh(seeded: false);
        var (id, etag) = await server.Keep(Named("state 0"));
        for (var i = 1; i <= 230; i++)
            etag = (await server.Put(id, etag, Named($"state {i}"))).Headers.ETag!.Tag;
        var steps = 0;
        string? name = null;
        while (true)
        {
            var back = await Walk(server, id, "undo", etag);
            if (back.Status != HttpStatusCode.OK)
                break;
            (etag, name) = (back.ETag!, back.Name);
            steps++;
        }
        Assert.Equal((200, "state 30"), (steps, name));
    }

    [Fact]
    public async Task Of_two_who_write_at_once_one_is_told()
    {
        using var server = RunningServer.Fresh(seeded: false);
        var (id, etag) = await server.Keep(Named("one"));
        var answers = await Task.WhenAll(Enumerable.Range(0, 8).Select(i => server.Put(id, etag, Named($"writer {i}"))));
        Assert.Single(answers, a => a.StatusCode == HttpStatusCode.OK);
        Assert.Equal(7, answers.Count(a => a.StatusCode == HttpStatusCode.PreconditionFailed));
    }

    [Fact]
    public async Task The_bin_gives_back_what_was_deleted_with_its_history()
    {
        using var server = RunningServer.Fresh(seeded: false);
        var (id, etag) = await server.Keep(Named("one"));
        etag = (await server.Put(id, etag, Named("two"))).Headers.ETag!.Tag;
        await server.Http.DeleteAsync($"/api/designs/{id}");
        var bin = JsonNode.Parse(await server.Http.GetStringAsync("/api/designs?bin=true"))!.AsArray();
        Assert.Equal("two", (string)Assert.Single(bin)!["name"]!);
        Assert.NotNull(bin[0]!["deletedUtc"]);
        Assert.Equal(HttpStatusCode.NotFound, (await server.Put(id, etag, Named("three"))).StatusCode);
        Assert.Equal(HttpStatusCode.NoContent, (await server.Http.PostAsync($"/api/designs/{id}/restore", null)).StatusCode);
        Assert.Equal("one", (await Walk(server, id, "undo", etag)).Name);
        Assert.Equal(HttpStatusCode.NotFound, (await server.Http.PostAsync($"/api/designs/{id}/restore", null)).StatusCode);
    }

    [Fact]
    public async Task A_copy_is_a_design_of_its_own()
    {
        using var server = RunningServer.Fresh(seeded: false);
        var (id, _) = await server.Keep(Named(new string('n', 80)));
        var copy = await (await server.Http.PostAsync($"/api/designs/{id}/copy", null)).Json();
        Assert.NotEqual(id, (string)copy["id"]!);
        Assert.Equal(new string('n', 74) + ", copy", (string)copy["design"]!["name"]!);
        Assert.False((bool)copy["canUndo"]!);
    }

    [Fact]
    public async Task Five_hundred_designs_are_listed_quickly()
    {
        using var server = RunningServer.Fresh(seeded: false);
        for (var i = 0; i < 500; i++)
            (await server.Http.PostAsJsonAsync("/api/designs", Named($"Design {i}"))).EnsureSuccessStatusCode();
        var clock = System.Diagnostics.Stopwatch.StartNew();
        var first = JsonNode.Parse(await server.Http.GetStringAsync("/api/designs"))!.AsArray();
        var cold = clock.ElapsedMilliseconds;
        clock.Restart();
        await server.Http.GetStringAsync("/api/designs");
        TestContext.Current.TestOutputHelper!.WriteLine($"500 designs: {cold} ms the first time, then {clock.ElapsedMilliseconds} ms");
        Assert.Equal(500, first.Count);
        // What was not known yet fills in.
        for (var n = 0; first.Any(c => !(bool)c!["ready"]!); n++)
        {
            Assert.True(n < 2000, "the shelf never filled in");
            await Task.Delay(20);
            first = JsonNode.Parse(await server.Http.GetStringAsync("/api/designs"))!.AsArray();
        }
        Assert.All(first, card => Assert.Equal(9216, (double)card!["usableWh"]!, 6));
    }
}

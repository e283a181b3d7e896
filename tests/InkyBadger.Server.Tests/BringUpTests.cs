using System.Net;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json.Nodes;
using CsvHelper;
using InkyBadger.Tests.Shared;

namespace InkyBadger.Server.Tests;

/// <summary>Steps, the simulated meter and the record over the wire.</summary>
public class BringUpTests
{
    private static JsonObject Entry(string step, string what, double? value = null, string? words = null) =>
        new()
        {
            ["step"] = step,
            ["what"] = what,
            ["at"] = "2026-11-29T10:04",
            ["by"] = "Ada",
            ["value"] = value,
            ["words"] = words,
        };

    private static JsonNode With(JsonNode design, JsonObject? simulated, params JsonObject[] entries)
    {
        var copy = design.DeepClone();
        copy["bringUp"] = new JsonObject
        {
            ["by"] = "Ada",
            ["entries"] = new JsonArray([.. entries]),
            ["simulated"] = simulated,
        };
        return copy;
    }

    [Fact]
    public async Task Steps_are_judged_a_made_up_bank_answers_and_the_record_is_taken_along()
    {
        using var server = RunningServer.Fresh();
        var list = JsonNode.Parse(await server.Http.GetStringAsync("/api/designs"))!.AsArray();
        var id = (string)list.Single(d => ((string)d!["name"]!).StartsWith("Marrow", StringComparison.Ordinal))!["id"]!;
        var stored = JsonNode.Parse(await server.Http.GetStringAsync($"/api/designs/{id}"))!;
        var design = stored["design"]!;

        async Task<JsonNode> Walk(JsonNode of)
        {
            var answer = await server.Http.PostAsJsonAsync("/api/bring-up", of);
            answer.EnsureSuccessStatusCode();
            return JsonNode.Parse(await answer.Content.ReadAsStringAsync())!;
        }
        var read = With(design, null, Entry("b1/fuse-far", "read", 0.02));
        var walk = await Walk(read);
        var step = walk["walk"]!["steps"]!.AsArray().Single(s => (string)s!["key"]! == "b1/fuse-far")!;
        Assert.Equal(("wrong", "The fuse is missing, blown or not bolted"), ((string)step["state"]!, (string)step["verdict"]!["title"]!));
        // The place in the wiring drawing, as the papers have it.
        Assert.Equal("A4", (string)walk["zones"]!["b1/fuse-far"]!);

        // A made-up bank answers to the meter’s decimals, the same each time; without one nobody does.
        var made = With(design, new() { ["seed"] = 7, ["faults"] = 3 });
        async Task<double> Simulated(string key)
        {
            var answer = await server.Http.PostAsJsonAsync($"/api/bring-up/simulated?step={Uri.EscapeDataString(key)}", made);
            answer.EnsureSuccessStatusCode();
            return (double)JsonNode.Parse(await answer.Content.ReadAsStringAsync())!["value"]!;
        }
        var volts = await Simulated("b1/rest-1-2");
        Assert.InRange(volts, 12, 13.6);
        Assert.Equal(volts, Math.Round(volts, 2));
        Assert.Equal(volts, await Simulated("b1/rest-1-2"));
        var none = await server.Http.PostAsJsonAsync("/api/bring-up/simulated?step=b1/rest-1-2", design);
        Assert.Equal(HttpStatusCode.NotFound, none.StatusCode);

        // What is no record is refused by its place.
        var shrug = await server.Http.PostAsJsonAsync("/api/bring-up", With(design, null, Entry("b1/gate-load", "passed", words: "fine")));
        Assert.Equal(HttpStatusCode.BadRequest, shrug.StatusCode);
        Assert.Contains("/bringUp/entries/0/words", await shrug.Content.ReadAsStringAsync(), StringComparison.Ordinal);

        // Kept, it is among the papers; without a record there is none.
        Assert.Equal(HttpStatusCode.NotFound, (await server.Http.GetAsync($"/api/designs/{id}/sheets/bring-up.csv")).StatusCode);
        using var put = new HttpRequestMessage(HttpMethod.Put, $"/api/designs/{id}") { Content = JsonContent.Create(read) };
        put.Headers.TryAddWithoutValidation("If-Match", $"\"{stored["revision"]}\"");
        (await server.Http.SendAsync(put)).EnsureSuccessStatusCode();
        var csv = await server.Http.GetByteArrayAsync($"/api/designs/{id}/sheets/bring-up.csv");
        using var reader = new CsvReader(
            new StringReader(Encoding.UTF8.GetString(csv.AsSpan(3))),
            System.Globalization.CultureInfo.InvariantCulture
        );
        reader.Read();
        reader.ReadHeader();
        Assert.True(reader.Read());
        Assert.Equal(("Behind F1", "0.02", "V", "Ada"), (reader["step"], reader["value"], reader["unit"], reader["by"]));
        Assert.False(reader.Read());
        var json = JsonNode.Parse(await server.Http.GetStringAsync($"/api/designs/{id}/sheets/bring-up.json"))!.AsArray();
        Assert.Equal("b1/fuse-far", (string)Assert.Single(json)!["key"]!);
    }
}

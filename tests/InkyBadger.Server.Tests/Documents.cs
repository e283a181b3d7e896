using System.Net.Http.Json;
using System.Text.Json.Nodes;
using InkyBadger.Core.Demo;
using InkyBadger.Core.Design;
using InkyBadger.Tests.Shared;

namespace InkyBadger.Server.Tests;

/// <summary>Documents to send, and short ways to change them and read answers.</summary>
internal static class Documents
{
    public static JsonObject Bus => (JsonObject)JsonNode.Parse(DesignFormat.Write(DemoDesigns.All[0]))!;

    /// <summary>Puts a value at a JSON pointer; a value of null text <c>!remove</c> takes the field away.</summary>
    public static JsonObject With(this JsonObject document, string pointer, JsonNode? value)
    {
        var segments = pointer.Split('/')[1..];
        JsonNode at = document;
        foreach (var segment in segments[..^1])
            at = (at is JsonArray list ? list[int.Parse(segment)] : at[segment])!;
        if (at is JsonArray array)
            array[int.Parse(segments[^1])] = value;
        else
            at[segments[^1]] = value;
        return document;
    }

    public static async Task<JsonObject> Json(this HttpResponseMessage response) =>
        (JsonObject)JsonNode.Parse(await response.Content.ReadAsStringAsync())!;

    public static StringContent Body(string text) => new(text, System.Text.Encoding.UTF8, "application/json");

    public static async Task<(string Id, string ETag)> Keep(this RunningServer server, JsonObject document)
    {
        var response = await server.Http.PostAsJsonAsync("/api/designs", document);
        response.EnsureSuccessStatusCode();
        return ((string)(await response.Json())["id"]!, response.Headers.ETag!.Tag);
    }

    public static Task<HttpResponseMessage> Put(this RunningServer server, string id, string? etag, JsonObject document)
    {
        var request = new HttpRequestMessage(HttpMethod.Put, $"/api/designs/{id}") { Content = JsonContent.Create(document) };
        if (etag is not null)
            request.Headers.TryAddWithoutValidation("If-Match", etag);
        return server.Http.SendAsync(request);
    }
}

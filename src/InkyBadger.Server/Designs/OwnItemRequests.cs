using System.Text.Json.Nodes;
using InkyBadger.Core.Design;
using InkyBadger.Server.Hosting;
using InkyBadger.Storage;

namespace InkyBadger.Server.Designs;

/// <summary>What the user keeps for other designs, of whatever kind: the key, the body, the limits, the refusals.</summary>
internal static class OwnItemRequests
{
    private const int MostBytes = 20_000;

    /// <param name="what">The kind in a word, for refusals.</param>
    /// <param name="read">Holds the body to the schema: the item, or its faults with pointers that begin at it.</param>
    public static async Task<IResult> KeepAsync<T>(
        string key,
        HttpRequest request,
        OwnItems own,
        string what,
        Func<JsonNode?, (T? Item, IReadOnlyList<DesignFault> Faults)> read,
        Func<T, string> name,
        Func<T, T> keyed,
        CancellationToken stop
    )
        where T : class
    {
        if (key.Length > 40 || key.Any(c => !char.IsAsciiLetterOrDigit(c) && c != '-'))
            return Problems.NotAccepted([new("", "has a key that is not 1 to 40 letters, digits or hyphens")]);
        if (await Body.ReadAsync(request, MostBytes, stop) is not { } bytes)
            return Problems.NotAccepted([new("", $"is larger than one {what} may be")]);
        var (node, fault) = JsonText.Parse(bytes);
        if (fault is not null)
            return Problems.NotAccepted([new("", fault)]);
        var (item, faults) = read(node);
        if (faults.Count > 0)
            return Problems.NotAccepted(faults);
        if (item is null || name(item).Length == 0)
            return Problems.NotAccepted([new("/name", "must not be empty: one finds it again by its name")]);
        return await own.KeepAsync(key, name(item), keyed(item), stop)
            ? Results.NoContent()
            : Problems.NotAccepted([new("", $"is one more than the {OwnItems.Most} that are kept")]);
    }

    public static async Task<IResult> DropAsync<T>(string key, OwnItems own, string what, CancellationToken stop) =>
        await own.DropAsync<T>(key, stop)
            ? Results.NoContent()
            : Results.Problem(
                statusCode: StatusCodes.Status404NotFound,
                title: $"No such {what}",
                detail: $"There is no own {what} of that key."
            );
}

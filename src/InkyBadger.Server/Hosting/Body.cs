using System.Buffers;

namespace InkyBadger.Server.Hosting;

/// <summary>Reading a request's body with a limit of its own.</summary>
public static class Body
{
    /// <summary>The whole body, or null when it is longer than <paramref name="most"/> bytes; what is over it is never held.</summary>
    public static async Task<byte[]?> ReadAsync(HttpRequest request, long most, CancellationToken stop)
    {
        if (request.ContentLength > most) return null;
        var read = await request.BodyReader.ReadAtLeastAsync((int)most + 1, stop);
        var bytes = read.Buffer.Length > most ? null : read.Buffer.ToArray();
        request.BodyReader.AdvanceTo(read.Buffer.End);
        return bytes;
    }
}

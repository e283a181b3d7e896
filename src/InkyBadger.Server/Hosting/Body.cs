using System.Buffers;

namespace InkyBadger.Server.Hosting;

/// <summary>Reading a request's body with a limit of its own.</summary>
public static class Body
{
    /// <summary>The whole body, or null when it is longer than <paramref name="most"/> bytes; what is over it is never held.</summary>
    public static async Task<byte[]?> ReadAsync(HttpRequest request, long most, CancellationToken stop)
    {
        if (request.ContentLength > most)
            return null;
        var read = await FrameAsync(request, (int)most + 1, stop);
        var bytes = read.Buffer.Length > most ? null : read.Buffer.ToArray();
        request.BodyReader.AdvanceTo(read.Buffer.End);
        return bytes;
    }

    /// <summary>What comes in pieces that are none, of a length that is none, is the sender's fault and not a failure here.</summary>
    private static async Task<System.IO.Pipelines.ReadResult> FrameAsync(HttpRequest request, int least, CancellationToken stop)
    {
        try
        {
            return await request.BodyReader.ReadAtLeastAsync(least, stop);
        }
        catch (Exception e)
            when (e is IOException or OverflowException or InvalidOperationException or ArgumentException
                && e is not BadHttpRequestException
            )
        {
            throw new BadHttpRequestException("The request’s body cannot be read.", StatusCodes.Status400BadRequest, e);
        }
    }
}

using System.Text.Json;
using Microsoft.AspNetCore.Http.Json;
using Microsoft.Extensions.Options;

namespace InkyBadger.Server.Hosting;

/// <summary>No JSON answer is longer than a browser or this machine takes without a thought; one that would be is a sentence instead.</summary>
public static class BoundedAnswers
{
    public const int MostBytes = 16_000_000;

    public static TBuilder BoundAnswers<TBuilder>(this TBuilder endpoints) where TBuilder : IEndpointConventionBuilder => endpoints.AddEndpointFilter(async (context, next) =>
    {
        var result = await next(context);
        var value = result switch
        {
            IStatusCodeHttpResult { StatusCode: not (null or StatusCodes.Status200OK) } => null,
            IValueHttpResult holds => holds.Value,
            IResult => null,
            _ => result,
        };
        if (value is null) return result;
        var options = context.HttpContext.RequestServices.GetRequiredService<IOptions<JsonOptions>>().Value.SerializerOptions;
        var text = new BoundedStream();
        try
        {
            await JsonSerializer.SerializeAsync(text, value, value.GetType(), options, context.HttpContext.RequestAborted);
        }
        catch (TooLongException)
        {
            return Results.Problem(statusCode: StatusCodes.Status400BadRequest, title: "The answer would be too long", detail: $"It would be more than {MostBytes / 1_000_000} MB: ask for a part of it.");
        }
        return Results.Bytes(text.GetBuffer().AsMemory(0, (int)text.Length), "application/json; charset=utf-8");
    });

    private sealed class TooLongException : Exception;

    private sealed class BoundedStream : MemoryStream
    {
        public override void Write(ReadOnlySpan<byte> buffer)
        {
            Allow(buffer.Length);
            base.Write(buffer);
        }

        public override void Write(byte[] buffer, int offset, int count) => Write(buffer.AsSpan(offset, count));

        public override ValueTask WriteAsync(ReadOnlyMemory<byte> buffer, CancellationToken cancellationToken = default)
        {
            Write(buffer.Span);
            return ValueTask.CompletedTask;
        }

        private void Allow(int more)
        {
            if (Length + more > MostBytes) throw new TooLongException();
        }
    }
}

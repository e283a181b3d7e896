using System.Buffers;
using System.Text.Json;
using Microsoft.AspNetCore.Http.Json;
using Microsoft.Extensions.Options;

namespace InkyBadger.Server.Hosting;

/// <summary>
/// No JSON answer is longer than a browser or this machine takes without a thought; one that would be is a sentence instead.
/// </summary>
public static class BoundedAnswers
{
    public const int MostBytes = 16_000_000;

    public static TBuilder BoundAnswers<TBuilder>(this TBuilder endpoints)
        where TBuilder : IEndpointConventionBuilder =>
        endpoints.AddEndpointFilter(
            async (context, next) =>
            {
                var result = await next(context);
                var value = result switch
                {
                    IStatusCodeHttpResult { StatusCode: not (null or StatusCodes.Status200OK) } => null,
                    IValueHttpResult holds => holds.Value,
                    IResult => null,
                    _ => result,
                };
                if (value is null)
                    return result;
                var options = context.HttpContext.RequestServices.GetRequiredService<IOptions<JsonOptions>>().Value.SerializerOptions;
                var text = new BoundedText();
                try
                {
                    await using var writer = new Utf8JsonWriter(text, new() { Encoder = options.Encoder, SkipValidation = true });
                    JsonSerializer.Serialize(writer, value, value.GetType(), options);
                }
                catch (TooLongException)
                {
                    return Results.Problem(
                        statusCode: StatusCodes.Status400BadRequest,
                        title: "The answer would be too long",
                        detail: $"It would be more than {MostBytes / 1_000_000} MB: ask for a part of it."
                    );
                }
                return Results.Bytes(text.Written, "application/json; charset=utf-8");
            }
        );

    private sealed class TooLongException : Exception;

    private sealed class BoundedText : IBufferWriter<byte>
    {
        private readonly ArrayBufferWriter<byte> written = new(8192);

        public ReadOnlyMemory<byte> Written => written.WrittenMemory;

        public void Advance(int count)
        {
            written.Advance(count);
            if (written.WrittenCount > MostBytes)
                throw new TooLongException();
        }

        public Memory<byte> GetMemory(int sizeHint = 0) => written.GetMemory(sizeHint);

        public Span<byte> GetSpan(int sizeHint = 0) => written.GetSpan(sizeHint);
    }
}

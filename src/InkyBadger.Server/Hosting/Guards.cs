using InkyBadger.Core;
using InkyBadger.Server.Designs;
using InkyBadger.Storage;
using Microsoft.AspNetCore.Diagnostics;

namespace InkyBadger.Server.Hosting;

/// <summary>What is refused before any endpoint is asked, and what is answered when the disk or the database gives way.</summary>
public static class Guards
{
    /// <summary>A header only a program sets, and a page of another origin cannot: its browser asks first and is not answered.</summary>
    public const string OwnHeader = "X-Inky-Badger";

    /// <summary>For what costs much or hands out everything: an image of another page could ask for it otherwise.</summary>
    public static RouteHandlerBuilder AskedByOurselvesOnly(this RouteHandlerBuilder endpoint) =>
        endpoint
            .ProducesProblem(StatusCodes.Status403Forbidden)
            .AddEndpointFilter(
                (context, next) =>
                    context.HttpContext.Request.Headers[OwnHeader].Count > 0
                        ? next(context)
                        : ValueTask.FromResult<object?>(
                            Results.Problem(
                                statusCode: StatusCodes.Status403Forbidden,
                                title: "Not asked for by a page of this Inky Badger",
                                detail: $"Send the header {OwnHeader} with any value, or press the button on the shelf."
                            )
                        )
            );

    /// <summary>A page of another origin may not change anything here, whatever it sends, nor have anything worked out.</summary>
    public static IApplicationBuilder UseOwnOriginOnly(this IApplicationBuilder app) =>
        app.Use(
            (context, next) =>
            {
                var request = context.Request;
                var reads = HttpMethods.IsGet(request.Method) || HttpMethods.IsHead(request.Method);
                if (reads && !request.Path.StartsWithSegments("/api") || OfThisOrigin(request))
                    return next();
                return Results
                    .Problem(
                        statusCode: StatusCodes.Status403Forbidden,
                        title: "From another origin",
                        detail: "Only the pages of this Inky Badger may ask it for anything."
                    )
                    .ExecuteAsync(context);
            }
        );

    private static bool OfThisOrigin(HttpRequest request)
    {
        if (request.Headers["Sec-Fetch-Site"].ToString() is "cross-site" or "same-site")
            return false;
        var origin = request.Headers.Origin.ToString();
        return origin.Length == 0
            || Uri.TryCreate(origin, UriKind.Absolute, out var uri) && uri.Authority == request.Host.Value && uri.Scheme == request.Scheme;
    }

    /// <summary>Errors as problem details: a full disk, a read-only folder, a locked or damaged database each in a sentence.</summary>
    public static IApplicationBuilder UseErrorsInSentences(this IApplicationBuilder app) =>
        app.UseExceptionHandler(
            new ExceptionHandlerOptions
            {
                ExceptionHandler = context =>
                {
                    var failure = context.Features.Get<IExceptionHandlerFeature>()?.Error;
                    var sentence = Database.Explain(failure);
                    if (failure is Refusal refusal)
                        return Problems.NotAccepted([new(refusal.Field, refusal.Message)]).ExecuteAsync(context);
                    if (failure is UnreadableDesign)
                        return Results
                            .Problem(
                                statusCode: StatusCodes.Status422UnprocessableEntity,
                                title: "The design cannot be read",
                                detail: failure.Message
                            )
                            .ExecuteAsync(context);
                    if (failure is BackupRefused)
                        return Results
                            .Problem(
                                statusCode: StatusCodes.Status503ServiceUnavailable,
                                title: "No backup was made",
                                detail: failure.Message
                            )
                            .ExecuteAsync(context);
                    var status =
                        failure is BadHttpRequestException bad ? bad.StatusCode
                        : sentence is null ? StatusCodes.Status500InternalServerError
                        : StatusCodes.Status503ServiceUnavailable;
                    return Results
                        .Problem(
                            statusCode: status,
                            title: sentence is null ? null : "It could not be kept",
                            detail: sentence ?? (failure is BadHttpRequestException ? "The request is none that can be read." : null)
                        )
                        .ExecuteAsync(context);
                },
                SuppressDiagnosticsCallback = context =>
                    context.Exception
                        is BadHttpRequestException
                            or Refusal
                            or OperationCanceledException
                            or UnreadableDesign
                            or BackupRefused
                    || Database.Explain(context.Exception) is not null,
            }
        );
}

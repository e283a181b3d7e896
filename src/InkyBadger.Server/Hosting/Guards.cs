using InkyBadger.Storage;
using Microsoft.AspNetCore.Diagnostics;

namespace InkyBadger.Server.Hosting;

/// <summary>What is refused before any endpoint is asked, and what is answered when the disk or the database gives way.</summary>
public static class Guards
{
    /// <summary>A page of another origin may not change anything here, whatever it sends.</summary>
    public static IApplicationBuilder UseOwnOriginOnly(this IApplicationBuilder app) => app.Use((context, next) =>
    {
        var request = context.Request;
        if (HttpMethods.IsGet(request.Method) || HttpMethods.IsHead(request.Method) || OfThisOrigin(request)) return next();
        return Results.Problem(statusCode: StatusCodes.Status403Forbidden, title: "From another origin", detail: "Only the pages of this Inky Badger may change what it keeps.").ExecuteAsync(context);
    });

    private static bool OfThisOrigin(HttpRequest request)
    {
        if (request.Headers["Sec-Fetch-Site"].ToString() is "cross-site" or "same-site") return false;
        var origin = request.Headers.Origin.ToString();
        return origin.Length == 0 || Uri.TryCreate(origin, UriKind.Absolute, out var uri) && uri.Authority == request.Host.Value && uri.Scheme == request.Scheme;
    }

    /// <summary>Errors as problem details: a full disk, a read-only folder, a locked or damaged database each in a sentence.</summary>
    public static IApplicationBuilder UseErrorsInSentences(this IApplicationBuilder app) => app.UseExceptionHandler(new ExceptionHandlerOptions
    {
        ExceptionHandler = context =>
        {
            var failure = context.Features.Get<IExceptionHandlerFeature>()?.Error;
            var sentence = Database.Explain(failure);
            var status = failure is BadHttpRequestException bad ? bad.StatusCode : sentence is null ? StatusCodes.Status500InternalServerError : StatusCodes.Status503ServiceUnavailable;
            return Results.Problem(statusCode: status, title: sentence is null ? null : "It could not be kept", detail: sentence ?? (failure as BadHttpRequestException)?.Message).ExecuteAsync(context);
        },
        SuppressDiagnosticsCallback = context => context.Exception is BadHttpRequestException || Database.Explain(context.Exception) is not null,
    });
}

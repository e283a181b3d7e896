using InkyBadger.Core.Design;
using Microsoft.AspNetCore.Mvc;

namespace InkyBadger.Server.Designs;

/// <summary>Answers that refuse, as problem details.</summary>
public static class Problems
{
    /// <summary>400 naming each field by its JSON pointer.</summary>
    public static IResult NotAccepted(IReadOnlyList<DesignFault> faults) =>
        Results.Problem(
            new ProblemDetails
            {
                Status = StatusCodes.Status400BadRequest,
                Title = "The design is not acceptable",
                Detail = string.Join(
                    " ",
                    faults.Take(3).Select(f => $"{(f.Pointer.Length == 0 ? "The document" : f.Pointer)} {f.Reason}.")
                ),
                Extensions = { ["errors"] = faults },
            }
        );

    public static IResult NotFound(string id) =>
        Results.Problem(statusCode: StatusCodes.Status404NotFound, title: "No such design", detail: $"There is no design {id}.");

    public static IResult NoRevision() =>
        Results.Problem(
            statusCode: StatusCodes.Status428PreconditionRequired,
            title: "Say which state you changed",
            detail: "Send the design’s ETag in If-Match."
        );

    public static IResult NothingThere() =>
        Results.Problem(
            statusCode: StatusCodes.Status409Conflict,
            title: "Nothing to go to",
            detail: "There is no state before or after this one."
        );

    public static IResult Stale() =>
        Results.Problem(
            statusCode: StatusCodes.Status412PreconditionFailed,
            title: "The design has changed meanwhile",
            detail: "Somebody else kept a newer state. Nothing was overwritten."
        );
}

using System.Diagnostics;
using Microsoft.AspNetCore.Diagnostics;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;
using Pyrometron.Application;
using Pyrometron.Core.Messages;
using Pyrometron.Formats;
using Pyrometron.Storage;

namespace Pyrometron.Server.Hosting;

/// <summary>Errors as RFC 9457 problem documents; input errors carry <c>errors</c> with the place and the reason.</summary>
public static class Problems
{
    private const int MostProblems = 100,
        LongestText = 400;

    /// <summary>An input that cannot be taken.</summary>
    public static ProblemHttpResult Input(IReadOnlyList<InputProblem> problems, int status = StatusCodes.Status400BadRequest) =>
        TypedResults.Problem(Document(status, "The input cannot be taken", problems[0].Says, problems));

    /// <summary>As above, with one problem at a JSON Pointer.</summary>
    public static ProblemHttpResult Input(string pointer, Message message) =>
        Input([new InputProblem(message, Pointer: pointer)]);

    /// <summary>Something that is not there.</summary>
    public static ProblemHttpResult Missing(Message what) =>
        TypedResults.Problem(Document(StatusCodes.Status404NotFound, "Not found", what));

    /// <summary>Something that cannot be done as things stand.</summary>
    public static ProblemHttpResult Conflict(Message why) =>
        TypedResults.Problem(Document(StatusCodes.Status409Conflict, "Not possible as things stand", why));

    /// <summary>Somebody who is not signed in, or could not be.</summary>
    /// <param name="needs">What is needed besides, for programs; null for nothing.</param>
    public static ProblemHttpResult NotSignedIn(Message why, string? needs = null) =>
        TypedResults.Problem(
            needs is null
                ? Document(StatusCodes.Status401Unauthorized, "Not signed in", why)
                : Document(StatusCodes.Status401Unauthorized, "Not signed in", why, ("needs", needs))
        );

    /// <summary>Somebody who may not.</summary>
    public static ProblemHttpResult NotAllowed(Message why) =>
        TypedResults.Problem(Document(StatusCodes.Status403Forbidden, "Not allowed", why));

    /// <summary>Somebody who asks too often.</summary>
    public static ProblemHttpResult TooOften(Message why) =>
        TypedResults.Problem(Document(StatusCodes.Status429TooManyRequests, "Too often", why));

    /// <summary>A method that an address does not know.</summary>
    public static ProblemHttpResult MethodNotAllowed(Message what) =>
        TypedResults.Problem(Document(StatusCodes.Status405MethodNotAllowed, "Not that way", what));

    /// <summary>A body beyond what is taken.</summary>
    public static ProblemHttpResult TooLarge(Message what) =>
        TypedResults.Problem(Document(StatusCodes.Status413PayloadTooLarge, "Too large", what));

    /// <summary>Somebody else has changed the same thing; what they wrote is told.</summary>
    private static ProblemDetails Changed(ConflictingEntryException conflict) =>
        Document(
            StatusCodes.Status409Conflict,
            "Changed meanwhile",
            Message.Of(
                "Somebody else has changed this meanwhile: {theirs}. Look at it before you write again.",
                Value.List("theirs", "; ", [.. conflict.Theirs.Select(t => t.Says)])
            ),
            (
                "theirs",
                conflict.Theirs.Select(t => new TheirChange(t.Entry.By, t.Entry.MadeAt, t.Says.ToString(), t.Says)).ToArray()
            )
        );

    /// <summary>Whether an exception is a refusal of an input and not a fault of the program.</summary>
    public static bool IsPlanned(Exception error) =>
        error
            is RefusedInputException
                or BadHttpRequestException
                or OperationCanceledException
                or NotThereException
                or NotPossibleException
                or NotAllowedException
                or ConflictingEntryException
        || IsKindless(error);

    /// <summary>The serializer's way to say that an object did not name which of several kinds it is.</summary>
    private static bool IsKindless(Exception? error) => error is NotSupportedException { Source: "System.Text.Json" };

    /// <summary>Answers exceptions that were planned for; the rest is a 500 with its trace in the log only.</summary>
    public static async Task Answer(HttpContext context)
    {
        var error = context.Features.Get<IExceptionHandlerFeature>()?.Error;
        var problem = error switch
        {
            RefusedInputException refused => Refused(refused),
            BadHttpRequestException { StatusCode: 413 } => Document(413, "Too large", "The body is larger than this call takes."),
            BadHttpRequestException bad => FromFramework(bad),
            NotThereException missing => Document(404, "Not found", missing.Says),
            NotAllowedException refused => Document(StatusCodes.Status403Forbidden, "Not allowed", refused.Says),
            NotPossibleException { Rule: { } rule } refused => Document(
                409,
                "Not allowed by the house's rules",
                refused.Says,
                ("rule", rule)
            ),
            NotPossibleException refused => Document(409, "Not possible as things stand", refused.Says),
            ConflictingEntryException conflict => Changed(conflict),
            ImportBrokenOffException broken => Document(
                StatusCodes.Status507InsufficientStorage,
                "Not stored to the end",
                $"{StorageFailure.Of(broken.InnerException) ?? "Storing failed."} {broken.Kept:#,0} new lines of the file are kept; sent again, they count once."
            ),
            _ when StorageFailure.Of(error) is { } why => Document(StatusCodes.Status507InsufficientStorage, "Not stored", why),
            OperationCanceledException => Document(499, "Cancelled", "The request was given up before it was done."),
            _ when IsKindless(error) => Document(
                400,
                "The body is no usable JSON",
                "An object in it does not say its kind.",
                [new InputProblem("kind is needed", Pointer: "")]
            ),
            _ => Document(
                500,
                "Something broke here",
                "This is a fault of the program; the log has the details, by the trace id of this answer. Nothing half-done was stored."
            ),
        };
        context.Response.StatusCode = problem.Status!.Value;
        if (error is not null && problem.Status == StatusCodes.Status500InternalServerError)
            context
                .RequestServices.GetRequiredService<ILogger<HttpContext>>()
                .LogError(
                    "{Method} {Path} broke; answered with the trace id {TraceId}",
                    context.Request.Method,
                    context.Request.Path,
                    Activity.Current?.TraceId.ToString()
                );
        if (!context.RequestAborted.IsCancellationRequested)
            await context.Response.WriteAsJsonAsync(problem, ApiJson.Options, "application/problem+json");
    }

    /// <summary>Writes a problem document for an error that has no body yet.</summary>
    public static Task Describe(HttpContext context)
    {
        var status = context.Response.StatusCode;
        var path = context.Request.Path.ToString();
        Message detail = "The request cannot be answered.";
        if (status == 404)
            detail = $"There is no {path} here.";
        if (status == 405)
            detail = $"{path} does not know {context.Request.Method}.";
        if (status == 401)
            detail = "Sign in first: this house has accounts, and nobody is signed in here, or not any more.";
        if (status == 403)
            detail = "Your account may not look at this. Whoever keeps the house's accounts can change that.";
        if (status == 429)
            detail = "Too many calls in a short time. Wait a few seconds; a program should send what it has in fewer calls.";
        var title = Microsoft.AspNetCore.WebUtilities.ReasonPhrases.GetReasonPhrase(status);
        return context.Response.WriteAsJsonAsync(Document(status, title, detail), ApiJson.Options, "application/problem+json");
    }

    private static ProblemDetails Refused(RefusedInputException refused)
    {
        var document = Document(400, "The input cannot be taken", refused.Problems[0].Says, refused.Problems);
        if (refused.Question is { } question)
            document.Extensions["questions"] = new[] { question };
        return document;
    }

    private static ProblemDetails FromFramework(BadHttpRequestException bad)
    {
        var (title, problem) = FrameworkErrors.Describe(bad);
        return Document(bad.StatusCode, title, problem.Says, [problem]);
    }

    private static ProblemDetails Document(int status, string title, Message says, params (string Name, object Value)[] members)
    {
        var document = Document(status, title, says, (IReadOnlyList<InputProblem>)[]);
        foreach (var (name, value) in members)
            document.Extensions[name] = value;
        return document;
    }

    private static ProblemDetails Document(int status, string title, Message says, IReadOnlyList<InputProblem> problems)
    {
        var document = new ProblemDetails
        {
            Status = status,
            Title = title,
            Detail = Cut(says.ToString()),
        };
        // By it the log is searched.
        if (Activity.Current?.TraceId is { } trace)
            document.Extensions["traceId"] = trace.ToString();
        document.Extensions["says"] = Cut(says);
        if (problems.Count > 0)
            document.Extensions["errors"] = problems
                .Take(MostProblems)
                .Select(p =>
                {
                    var error = new Dictionary<string, object> { ["message"] = Cut(p.Says.ToString()), ["says"] = Cut(p.Says) };
                    if (p.Line is { } line)
                        error["line"] = line;
                    if (p.Column is { } column)
                        error["column"] = Cut(column);
                    if (p.Pointer is { } pointer)
                        error["pointer"] = Cut(pointer);
                    return error;
                })
                .ToArray();
        return document;
    }

    private static Message Cut(Message message) =>
        new(
            Cut(message.Template),
            [
                .. message.Values.Select(v =>
                    v with
                    {
                        Text = v.Text is null ? null : Cut(v.Text),
                        Plain = Cut(v.Plain),
                        Messages = v.Messages is null ? null : [.. v.Messages.Select(Cut)],
                    }
                ),
            ]
        );

    /// <summary>What was sent is told back only as far as it helps.</summary>
    private static string Cut(string text) => text.Length <= LongestText ? text : string.Concat(text.AsSpan(0, LongestText), "…");
}

/// <summary>What another device wrote meanwhile.</summary>
/// <param name="Says">In words.</param>
/// <param name="Message">The same as template and values.</param>
public sealed record TheirChange(string? By, DateTimeOffset MadeAt, string Says, Message Message);

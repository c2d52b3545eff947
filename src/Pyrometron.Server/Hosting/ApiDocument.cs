using System.Text.RegularExpressions;
using Microsoft.AspNetCore.Authorization;
using Microsoft.AspNetCore.OpenApi;
using Microsoft.OpenApi;
using Pyrometron.Core.Events;
using Pyrometron.Server.Proof;

namespace Pyrometron.Server.Hosting;

/// <summary>An error as every call tells it (RFC 9457).</summary>
/// <param name="Title">What kind of error it is.</param>
/// <param name="Detail">What is wrong, where, and what to do, in plain English.</param>
/// <param name="TraceId">By which the program's log names this call.</param>
/// <param name="Errors">Of an input each thing that is wrong with it; missing where it is no input's fault.</param>
public sealed record ErrorAnswer(
    string? Type,
    string? Title,
    int? Status,
    string? Detail,
    string? TraceId,
    IReadOnlyList<InputErrorAnswer>? Errors
);

/// <summary>One thing that is wrong with an input.</summary>
/// <param name="Message">In plain English.</param>
/// <param name="Pointer">Where in a JSON body, as a JSON Pointer (RFC 6901).</param>
/// <param name="Line">In a table the line, from 1.</param>
/// <param name="Column">In a table the header.</param>
public sealed record InputErrorAnswer(string Message, string? Pointer, int? Line, string? Column);

/// <summary>The OpenAPI document that others write their programs by, and that the front end's types are made from.</summary>
internal static partial class ApiDocument
{
    private const string Session = "session",
        Key = "key";

    /// <summary>The ways in which a call is refused, by the status that tells of it.</summary>
    private static readonly (string Status, string Name, string Says)[] Refusals =
    [
        ("400", "input", "The input cannot be taken; `errors` says what is wrong and where."),
        ("401", "not-signed-in", "Nobody is signed in, or the key does not count."),
        ("403", "not-allowed", "The account or the key may not do this."),
        ("404", "missing", "What the address names is not there."),
        ("409", "conflict", "It cannot be done as things stand, or somebody else changed it meanwhile."),
        ("413", "too-large", "The body is larger than this call takes."),
        ("429", "too-often", "Too many calls; `Retry-After` says when to try again."),
    ];

    public static void Configure(OpenApiOptions options)
    {
        options.AddDocumentTransformer((document, context, cancellation) => Describe(document, context, cancellation));
        options.AddOperationTransformer(
            (operation, context, _) =>
            {
                Describe(operation, context);
                return Task.CompletedTask;
            }
        );
        // Runs inside entries are spoken like runs of their own.
        options.AddSchemaTransformer(
            async (schema, context, cancellation) =>
            {
                if (
                    context.JsonTypeInfo.Type == typeof(Run)
                    && await context.GetOrCreateSchemaAsync(typeof(RunDto), null, cancellation) is { } run
                )
                    (schema.Type, schema.Properties, schema.Required) = (run.Type, run.Properties, run.Required);
            }
        );
        // A nullable use of an enumeration must not make null one of its words everywhere.
        options.AddSchemaTransformer(
            (schema, context, _) =>
            {
                if (
                    schema.Enum is { Count: > 0 } words
                    && (Nullable.GetUnderlyingType(context.JsonTypeInfo.Type) ?? context.JsonTypeInfo.Type).IsEnum
                )
                    schema.Enum = [.. words.Where(word => word is not null)];
                return Task.CompletedTask;
            }
        );
    }

    private static async Task Describe(
        OpenApiDocument document,
        OpenApiDocumentTransformerContext context,
        CancellationToken cancellation
    )
    {
        document.Info.Title = "Pyrometron";
        document.Info.Version = "v1";
        document.Info.Description =
            "Which machine needs cleaning, repasting or repadding next, and why. Temperatures are °C and differences kelvins, "
            + "times RFC 3339 with an offset, days ISO 8601, money in the house's own currency; members are named with their "
            + "units. Errors are RFC 9457 problem documents.";
        RequestSchemas.LetNullsBeMissing(document);
        document.Servers = [new OpenApiServer { Url = "/" }];
        var components = document.Components ??= new OpenApiComponents();
        document.AddComponent("ErrorAnswer", await context.GetOrCreateSchemaAsync(typeof(ErrorAnswer), null, cancellation));
        components.Responses = Refusals.ToDictionary(
            r => r.Name,
            IOpenApiResponse (r) =>
                new OpenApiResponse
                {
                    Description = r.Says,
                    Content = new Dictionary<string, OpenApiMediaType>
                    {
                        ["application/problem+json"] = new() { Schema = new OpenApiSchemaReference("ErrorAnswer", document) },
                    },
                }
        );
        components.SecuritySchemes = new Dictionary<string, IOpenApiSecurityScheme>
        {
            [Session] = new OpenApiSecurityScheme
            {
                Type = SecuritySchemeType.ApiKey,
                In = ParameterLocation.Cookie,
                Name = Access.AccessSetup.CookieName,
                Description = "A browser that is signed in.",
            },
            [Key] = new OpenApiSecurityScheme
            {
                Type = SecuritySchemeType.Http,
                Scheme = "bearer",
                Description = "A key of a program, given out on the page Accounts. Started for one person, nothing is needed.",
            },
        };
        document.Tags = document
            .Paths.Values.SelectMany(p => p.Operations!.Values)
            .SelectMany(o => o.Tags!)
            .Select(t => t.Name!)
            .Distinct()
            .Order()
            .Select(name => new OpenApiTag { Name = name, Description = ApiWords.OfTag(name) })
            .ToHashSet();
    }

    private static void Describe(OpenApiOperation operation, OpenApiOperationTransformerContext context)
    {
        var path = context.Description.RelativePath ?? "";
        operation.OperationId = IdOf(context.Description.HttpMethod ?? "", path);
        foreach (var parameter in operation.Parameters?.OfType<OpenApiParameter>() ?? [])
            parameter.Description ??= ApiWords.OfParameter(path, parameter.Name ?? "");
        ApiExamples.Put(operation);
        var isGuarded = context.Description.ActionDescriptor.EndpointMetadata.OfType<IAuthorizeData>().Any();
        operation.Security = isGuarded
            ?
            [
                new OpenApiSecurityRequirement { [new OpenApiSecuritySchemeReference(Session, context.Document)] = [] },
                new OpenApiSecurityRequirement { [new OpenApiSecuritySchemeReference(Key, context.Document)] = [] },
            ]
            : [];
        var reads = context.Description.HttpMethod == HttpMethods.Get;
        var hasInput = operation.RequestBody is not null || operation.Parameters is { Count: > 0 };
        operation.Responses ??= [];
        foreach (var (status, name, _) in Refusals)
            if (
                status switch
                {
                    "400" => hasInput,
                    "401" or "403" => isGuarded,
                    "404" => path.Contains('{', StringComparison.Ordinal),
                    "409" => !reads,
                    "413" => operation.RequestBody is not null,
                    _ => path.StartsWith("api/", StringComparison.Ordinal),
                }
            )
                operation.Responses.TryAdd(status, new OpenApiResponseReference(name, context.Document));
    }

    /// <summary>The stable name of a call: its method and the words of its path.</summary>
    private static string IdOf(string method, string path) =>
        $"{method.ToLowerInvariant()}-"
        + string.Join(
            '-',
            Words().Matches(path.Replace("api/v1/", "", StringComparison.Ordinal)).Select(m => m.Value.ToLowerInvariant())
        );

    /// <summary>Words of a path, without the types that its parameters must have.</summary>
    [GeneratedRegex("(?<!:[A-Za-z0-9]*)[A-Za-z0-9]+")]
    private static partial Regex Words();
}

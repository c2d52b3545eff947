using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Routing.Patterns;
using Microsoft.AspNetCore.Routing.Template;

namespace Pyrometron.Server.Hosting;

/// <summary>
/// Addresses of the interface that are none (404), and those that do not know the method (405, with what they know; RFC 9110,
/// 15.5.6).
/// </summary>
internal static class UnknownPaths
{
    public static ProblemHttpResult Answer(HttpContext context, EndpointDataSource endpoints, ParameterPolicyFactory policies)
    {
        var path = context.Request.Path;
        string[] methods =
        [
            .. endpoints
                .Endpoints.OfType<RouteEndpoint>()
                .Where(e => e.Metadata.GetMetadata<IHttpMethodMetadata>() is not null && Matches(e.RoutePattern, path, policies))
                .SelectMany(e => e.Metadata.GetMetadata<IHttpMethodMetadata>()!.HttpMethods)
                .Distinct()
                .Order(),
        ];
        if (methods.Length == 0)
            return Problems.Missing($"There is no {path} here; /openapi/v1.json lists what there is.");
        context.Response.Headers.Allow = string.Join(", ", methods);
        return Problems.MethodNotAllowed(
            $"{path} does not know {context.Request.Method}; it knows {string.Join(", ", methods)}."
        );
    }

    private static bool Matches(RoutePattern pattern, PathString path, ParameterPolicyFactory policies)
    {
        var values = new RouteValueDictionary();
        return new TemplateMatcher(TemplateParser.Parse(pattern.RawText!), []).TryMatch(path, values)
            && pattern.Parameters.All(p =>
                p.ParameterPolicies.Select(reference => policies.Create(p, reference))
                    .OfType<IRouteConstraint>()
                    .All(c => c.Match(null, null, p.Name, values, RouteDirection.IncomingRequest))
            );
    }
}

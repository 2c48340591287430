using System.Collections;
using System.Reflection;
using Microsoft.AspNetCore.Http;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;
using Microsoft.AspNetCore.Mvc.RazorPages.Infrastructure;
using Microsoft.AspNetCore.Routing;
using Microsoft.Extensions.DependencyInjection;
using UnrulyMeadow.Core.Planning;

namespace UnrulyMeadow.Hostile;

/// <summary>A way into the app: a page's handler, or an endpoint of its own.</summary>
/// <param name="Method">GET or POST.</param>
/// <param name="Route">Its route, e.g. "/planters/{id}".</param>
/// <param name="Handler">The page's handler; null for the plain one.</param>
/// <param name="Fields">Names that it reads, by reflection; those of lists and dictionaries come from its own form.</param>
/// <param name="TakesFile">True where it reads an uploaded file.</param>
public sealed record Door(string Method, string Route, string? Handler, IReadOnlyList<string> Fields, bool TakesFile)
{
    /// <inheritdoc />
    public override string ToString() => $"{Method} {Route}{(Handler is null ? string.Empty : $"?handler={Handler}")}";
}

/// <summary>Every way into the app, found by reflection over its endpoints, so that a new page is in it by itself.</summary>
public static class Surface
{
    /// <summary>All doors.</summary>
    public static async Task<IReadOnlyList<Door>> Of(IServiceProvider services)
    {
        var doors = new List<Door>();
        var loader = services.GetRequiredService<PageLoader>();
        var seen = new HashSet<string>(StringComparer.Ordinal);
        foreach (RouteEndpoint endpoint in services.GetRequiredService<EndpointDataSource>().Endpoints.OfType<RouteEndpoint>())
        {
            string route = "/" + endpoint.RoutePattern.RawText!.TrimStart('/');
            if (endpoint.Metadata.GetMetadata<PageActionDescriptor>() is { } page)
            {
                CompiledPageActionDescriptor compiled = await loader.LoadAsync(page, endpoint.Metadata);
                string[] bound =
                [
                    .. compiled.BoundProperties.SelectMany(p => Names(((PageBoundPropertyDescriptor)p).Property, p.BindingInfo?.BinderModelName)),
                ];
                bool file = compiled.BoundProperties.Any(p => p.ParameterType == typeof(IFormFile));
                foreach (HandlerMethodDescriptor handler in compiled.HandlerMethods)
                {
                    string[] own = [.. handler.Parameters.Select(p => p.BindingInfo?.BinderModelName ?? p.Name)];
                    var door = new Door(
                        handler.HttpMethod.ToUpperInvariant(),
                        route,
                        handler.Name?.ToLowerInvariant(),
                        [.. bound.Concat(own).Distinct(StringComparer.Ordinal)],
                        file && handler.HttpMethod == "Post"
                    );
                    if (seen.Add(door.ToString()))
                        doors.Add(door);
                }
            }
            else
            {
                foreach (string method in endpoint.Metadata.GetMetadata<HttpMethodMetadata>()?.HttpMethods ?? ["GET"])
                    doors.Add(new Door(method, route, null, [], false));
            }
        }
        return doors;
    }

    /// <summary>What may stand in a route's places, for the plan as it is.</summary>
    public static IReadOnlyList<string> Ids(string route, Plan plan)
    {
        string first = route.Split('/', StringSplitOptions.RemoveEmptyEntries)[0];
        return first switch
        {
            "planters" => [.. plan.Planters.Select(p => p.Id), "new"],
            "stack" => [.. plan.Planters.Select(p => p.Id)],
            "displays" => [.. plan.Displays.Where(d => d.Layer != DisplayLayer.Bulbs).Select(d => d.Id)],
            "arrange" => [.. plan.Displays.Where(d => d.Layer != DisplayLayer.Bulbs).Select(d => d.Id)],
            "turns" => [.. plan.Turns.Select(t => t.Id), "new"],
            "palette" => [.. plan.Palette.Select(p => p.Id), "new"],
            "year" => [.. plan.Events.Select(e => e.Id)],
            // The demo's two orders and its suppliers.
            "supply" when route.StartsWith("/supply/orders/", StringComparison.Ordinal) =>
            [
                "019a0000-0000-7000-8000-0000000000a1",
                "019a0000-0000-7000-8000-0000000000a2",
            ],
            "supply" => ["quillon-bulbs", "saltmarsh-plants"],
            "jobs" or "trials" => [$"{Guid.Empty}"],
            "join" or "phone" or "calendar" => ["2345678923456789abcd"],
            "tables" => ["displays", "turns", "stock"],
            _ => throw new InvalidOperationException($"Tell here what ids {route} takes."),
        };
    }

    /// <summary>A route with an id in its place.</summary>
    public static string At(string route, string id) =>
        string.Join('/', route.Split('/').Select(p => p.IndexOf('{') is >= 0 and var from ? p[..from] + id + p[(p.IndexOf('}') + 1)..] : p));

    private static IEnumerable<string> Names(PropertyInfo property, string? given, int depth = 0)
    {
        string name =
            given is { Length: > 0 } ? given
            : given is null ? property.Name
            : string.Empty;
        Type type = property.PropertyType;
        if (type == typeof(string) || type.IsValueType || type == typeof(IFormFile) || typeof(IEnumerable).IsAssignableFrom(type) || depth > 2)
            return [name];
        return type.GetProperties()
            .Where(p => p.CanWrite)
            .SelectMany(p => Names(p, null, depth + 1).Select(n => name.Length == 0 ? n : $"{name}.{n}"));
    }
}

using Microsoft.AspNetCore.Mvc.RazorPages;
using Microsoft.AspNetCore.Mvc.RazorPages.Infrastructure;
using Microsoft.AspNetCore.Mvc.Rendering;
using Microsoft.AspNetCore.Mvc.ViewFeatures;
using Microsoft.AspNetCore.Razor.TagHelpers;
using Microsoft.AspNetCore.Routing.Template;
using Microsoft.AspNetCore.WebUtilities;

namespace UnrulyMeadow.Web.People;

/// <summary>What the addresses of the app need of whoever asks them, so that a page shows only what its reader may do.</summary>
/// <param name="endpoints">The endpoints.</param>
/// <param name="loader">Loads pages.</param>
public sealed class Doors(IEnumerable<EndpointDataSource> endpoints, PageLoader loader)
{
    private readonly Lazy<Task<IReadOnlyList<(TemplateMatcher Matcher, Endpoint Endpoint)>>> _known = new(() => Known(endpoints, loader));

    /// <summary>What an address needs; null where nothing is there or nobody may.</summary>
    /// <param name="method">How it is asked.</param>
    /// <param name="address">The address below the site's base, with its query.</param>
    public async Task<object?> Need(string method, string address)
    {
        int query = address.IndexOfAny(['?', '#']);
        string path = query < 0 ? address : address[..query];
        string asked = query < 0 || address[query] == '#' ? string.Empty : address[query..].Split('#')[0];
        string? handler = QueryHelpers.ParseQuery(asked).TryGetValue("handler", out Microsoft.Extensions.Primitives.StringValues named)
            ? named
            : (string?)null;
        foreach ((TemplateMatcher matcher, Endpoint endpoint) in await _known.Value)
        {
            if (Takes(endpoint, method) && matcher.TryMatch(path, []))
                return Gate.NeedOf(endpoint.Metadata, method, handler);
        }
        return null;
    }

    private static bool Takes(Endpoint endpoint, string method) =>
        endpoint.Metadata.GetMetadata<HttpMethodMetadata>() is not { HttpMethods: { Count: > 0 } methods } || methods.Contains(method);

    private static async Task<IReadOnlyList<(TemplateMatcher, Endpoint)>> Known(IEnumerable<EndpointDataSource> endpoints, PageLoader loader)
    {
        var known = new List<(TemplateMatcher, Endpoint)>();
        // What is named without places is found before what has them, as routing does.
        foreach (
            RouteEndpoint endpoint in endpoints
                .SelectMany(s => s.Endpoints)
                .OfType<RouteEndpoint>()
                .DistinctBy(e =>
                    (e.RoutePattern.RawText, e.DisplayName, string.Join(' ', e.Metadata.GetMetadata<HttpMethodMetadata>()?.HttpMethods ?? []))
                )
                .OrderBy(e => e.RoutePattern.Parameters.Count)
        )
        {
            Endpoint loaded = endpoint.Metadata.GetMetadata<PageActionDescriptor>() is { } page
                ? (await loader.LoadAsync(page, endpoint.Metadata)).Endpoint ?? endpoint
                : endpoint;
            RouteTemplate template = TemplateParser.Parse(endpoint.RoutePattern.RawText ?? string.Empty);
            known.Add((new TemplateMatcher(template, []), loaded));
        }
        return known;
    }
}

/// <summary>
/// Leaves out of a page what its reader may not send or open. A form marked <c>data-read</c> tells something by its fields: it stays, and
/// cannot be sent. A link marked <c>where-open="text"</c> leaves its words.
/// </summary>
/// <param name="doors">What addresses need.</param>
/// <param name="visitor">Who reads.</param>
[HtmlTargetElement("form", Attributes = "method")]
[HtmlTargetElement("a", Attributes = "class")]
[HtmlTargetElement("a", Attributes = Where)]
[HtmlTargetElement("button", Attributes = "formaction")]
public sealed class ShownTagHelper(Doors doors, Visitor visitor) : TagHelper
{
    private const string Read = "data-read";
    private const string Where = "where-open";

    /// <summary>Where the element stands.</summary>
    [HtmlAttributeNotBound]
    [ViewContext]
    public ViewContext ViewContext { get; set; } = null!;

    // After the framework has written where the form goes.
    /// <inheritdoc />
    public override int Order => 1000;

    /// <inheritdoc />
    public override async Task ProcessAsync(TagHelperContext context, TagHelperOutput output)
    {
        bool keepsText = $"{output.Attributes[Where]?.Value}" == "text";
        output.Attributes.RemoveAll(Where);
        // Those who may everything see everything.
        if (visitor.May(Store.People.SiteRole.Owner))
            return;
        bool sends = output.TagName != "a";
        if (output.TagName == "form" && !string.Equals($"{output.Attributes["method"]?.Value}", "post", StringComparison.OrdinalIgnoreCase))
            return;
        HttpRequest request = ViewContext.HttpContext.Request;
        // What stands in an attribute is written for HTML.
        string address = System.Net.WebUtility.HtmlDecode($"{output.Attributes[Target(output.TagName)]?.Value}");
        if (address.Length == 0)
            address = sends ? request.Path : "#";
        if (address.StartsWith(request.PathBase.Value ?? string.Empty, StringComparison.Ordinal))
            address = address[(request.PathBase.Value?.Length ?? 0)..];
        // Other places, and places of the same page, are no matter of who reads.
        if (!address.StartsWith('/') || Gate.May(await doors.Need(sends ? HttpMethods.Post : HttpMethods.Get, address), visitor))
            return;
        if (output.Attributes.ContainsName(Read))
        {
            output.PreContent.AppendHtml("<fieldset disabled class=\"read-only\">");
            output.PostContent.AppendHtml("</fieldset>");
            return;
        }
        if (keepsText)
            output.TagName = null;
        else
            output.SuppressOutput();
    }

    private static string Target(string tag) =>
        tag switch
        {
            "a" => "href",
            "form" => "action",
            _ => "formaction",
        };
}

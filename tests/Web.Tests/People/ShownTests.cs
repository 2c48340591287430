using System.Net;
using AngleSharp.Dom;
using AngleSharp.Html.Dom;
using Microsoft.Extensions.DependencyInjection;
using UnrulyMeadow.Store.People;
using UnrulyMeadow.Web.People;

namespace UnrulyMeadow.Web.Tests.People;

/// <summary>A page offers what its reader may do, and nothing that would be refused.</summary>
public sealed class ShownTests(MeadowApp app) : IClassFixture<MeadowApp>
{
    private const int MostPages = 64;

    [Theory]
    [InlineData(SiteRole.Guest)]
    [InlineData(SiteRole.Crew)]
    [InlineData(SiteRole.Lead)]
    [InlineData(SiteRole.Planner)]
    public async Task No_link_and_no_form_that_somebody_sees_is_refused_to_them(SiteRole role)
    {
        HttpClient browser = app.Browser(role);
        var doors = app.Services.GetRequiredService<Doors>();
        var asked = new HashSet<string>(StringComparer.Ordinal);
        var kinds = new Dictionary<string, int>(StringComparer.Ordinal);
        var queue = new Queue<(string Path, string From)>([
            ("/year", string.Empty),
            ("/planters", string.Empty),
            ("/turns", string.Empty),
            ("/palette", string.Empty),
            ("/supply", string.Empty),
            ("/stock", string.Empty),
            ("/daysheet", string.Empty),
            ("/log", string.Empty),
            ("/changes", string.Empty),
            ("/climate", string.Empty),
            ("/rules", string.Empty),
            ("/site", string.Empty),
            ("/me", string.Empty),
        ]);
        var wrong = new List<string>();
        int sends = 0;
        while (queue.TryDequeue(out (string Path, string From) next) && asked.Count < MostPages)
        {
            string path = next.Path;
            if (!asked.Add(path))
                continue;
            using HttpResponseMessage answer = await browser.GetAsync(new Uri(path, UriKind.Relative));
            if (answer.StatusCode is HttpStatusCode.Forbidden or HttpStatusCode.Unauthorized)
                wrong.Add($"{next.From} leads to {path}, which is refused");
            if (answer.Content.Headers.ContentType?.MediaType != "text/html")
                continue;
            using IDocument page = await Pages.Parse(answer);
            foreach (string to in page.QuerySelectorAll("a[href]").Select(a => a.GetAttribute("href")!.Split('#')[0]).Where(h => h.StartsWith('/')))
            {
                // Some of each kind of page are as good as all.
                string kind = string.Join('/', to.Split('?')[0].Split('/').Take(2)) + to.Split('/').Length;
                kinds[kind] = kinds.GetValueOrDefault(kind) + 1;
                if (kinds[kind] <= 3)
                    queue.Enqueue((to, path));
            }
            foreach (IHtmlFormElement form in page.QuerySelectorAll<IHtmlFormElement>("form[method=post]"))
            {
                if (form.QuerySelector("fieldset.read-only") is not null)
                    continue;
                IEnumerable<string> targets = form.QuerySelectorAll("[formaction]")
                    .Select(b => b.GetAttribute("formaction")!)
                    .Append(form.GetAttribute("action") is { Length: > 0 } action ? action : path);
                foreach (string to in targets)
                {
                    sends++;
                    bool may = await doors.Need("POST", to) switch
                    {
                        OpenToAllAttribute or NeedsSignInAttribute => true,
                        NeedsAttribute need => need.Role <= role,
                        _ => false,
                    };
                    if (!may)
                        wrong.Add($"{path} shows a form to {to}");
                }
            }
        }
        Assert.True(asked.Count > 40 && sends > asked.Count / 2, $"{asked.Count} pages, {sends} forms");
        Assert.True(wrong.Count == 0, string.Join('\n', wrong.Distinct(StringComparer.Ordinal)));
    }
}

using System.Text.RegularExpressions;
using AngleSharp.Dom;
using UnrulyMeadow.Store.People;

namespace UnrulyMeadow.Web.Tests;

/// <summary>Every page, form and working speaks in the site's units, and in no other.</summary>
public sealed partial class SiteUnitsTests(MeadowApp app) : IClassFixture<MeadowApp>
{
    // What people typed, file formats and the notation of the palette keep the words they were written in.
    private const string AsWritten = "code, pre, script, textarea, .note, .history, [data-as-written]";

    private readonly HttpClient _browser = app.Browser();

    public static TheoryData<string, string> Systems => new() { { "Metric", "US" }, { "UsCustomary", "metric" } };

    [Theory]
    [MemberData(nameof(Systems))]
    public async Task No_page_says_a_figure_in_units_that_are_not_the_sites(string units, string foreign)
    {
        using HttpResponseMessage saved = await _browser.Send("/site", null, ("Input.Units", units));
        Assert.Equal(System.Net.HttpStatusCode.Redirect, saved.StatusCode);
        await NothingForeign(_browser, foreign, "those of the site", 1);
        // A person's own go before the site's, on every page and in the answers to long work; one of the two ways is walked.
        if (units != "Metric")
            return;
        HttpClient other = app.Browser(SiteRole.Planner);
        using HttpResponseMessage chosen = await other.Send("/me", null, ("OwnUnits", "UsCustomary"));
        Assert.Equal(System.Net.HttpStatusCode.Redirect, chosen.StatusCode);
        await NothingForeign(other, "metric", "one's own", 3);
        using HttpResponseMessage back = await other.Send("/me", null, ("OwnUnits", string.Empty));
    }

    // Every page, or one of so many.
    private static async Task NothingForeign(HttpClient browser, string foreign, string whose, int oneOf)
    {
        var faults = new List<string>();
        foreach (string path in DemoPageTests.AllPages.Select(p => p.Data).Where((_, i) => i % oneOf == 0))
        {
            IDocument page = await browser.Open(path);
            Regex wrong = foreign == "US" ? OfTheUs() : Metric();
            faults.AddRange(Said(page).Where(s => wrong.IsMatch(s) || Unworded().IsMatch(s)).Select(s => $"{whose}, {path}: {s}"));
        }
        Assert.True(faults.Count == 0, string.Join('\n', faults.Distinct(StringComparer.Ordinal)));
    }

    private static IEnumerable<string> Said(IDocument page)
    {
        foreach (IElement e in page.Body!.QuerySelectorAll("*").Where(e => e.Closest(AsWritten) is null))
        {
            foreach (string name in new[] { "title", "aria-label", "placeholder", "alt" })
            {
                if (e.GetAttribute(name) is { Length: > 0 } text)
                    yield return text;
            }
            string own = string.Concat(e.ChildNodes.OfType<IText>().Select(t => t.Data)).Trim();
            if (own.Length > 0)
                yield return own;
        }
    }

    // A kind without words, or a fact that nobody has put into any.
    [GeneratedRegex(@"⟨|\b[A-Z]\w+\.[A-Z]\w+\(", RegexOptions.CultureInvariant | RegexOptions.ExplicitCapture, 1000)]
    private static partial Regex Unworded();

    [GeneratedRegex(
        @"°C|m²|m²K/W|kg/|\d\s?(cm|mm|m|km|L|kg|g)(?![\p{L}\p{N}’'])|(, |\s\(|\bin )(cm|mm|kg|L|m)(?=$|[,)])|^(cm|mm|kg|m)$",
        RegexOptions.CultureInvariant | RegexOptions.ExplicitCapture,
        1000
    )]
    private static partial Regex Metric();

    [GeneratedRegex(
        @"°F|ft²|lb/|\d\s?(in|ft|mi|gal|lb|oz)(?![\p{L}\p{N}’' ])|\binch|(, |\s\()(gal|lb|ft|oz|in)(?=$|[)])(?<!stays, in)|^(gal|lb|ft|oz)$",
        RegexOptions.CultureInvariant | RegexOptions.ExplicitCapture,
        1000
    )]
    private static partial Regex OfTheUs();
}

using System.Net;
using System.Text;
using AngleSharp.Dom;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Exchange.Palette;
using UnrulyMeadow.Web.Site;
using UnrulyMeadow.Wording;

namespace UnrulyMeadow.Web.Tests;

/// <summary>The palette over the demo: finding, fitting, comparing, sheets, retirement.</summary>
public sealed class PalettePageTests(MeadowApp app) : IClassFixture<MeadowApp>
{
    private const string Heading = (
        "id,botanical name,common name,kind,habit,height cm,spread bought cm,spread grown "
        + "cm,light low,light high,water,tops spoiled C,green leaf,shows,packs,source\n"
    );
    private const string Poppy = (
        "poppy-red,Papaver rhoeas,\"Poppy, red\",cool-season-annual,upright,40,10,10,full-sun,full-sun,low,-6,in-season,flower "
        + "#d02f2f share=0.5 rule=from-install bud=10,6-pack: 6 @ 4.5,our own\n"
    );

    private readonly HttpClient _browser = app.Browser();

    [Fact]
    public async Task What_gives_colour_in_the_third_week_of_February_is_ranked_with_reasons()
    {
        IDocument page = await _browser.Open("/palette?planter=great-pot&from=2027-02-15&to=2027-02-21&all=yes");
        Assert.Matches(@"^\d+ plants fit the Great pot, hawthorn and show from 15 Feb to 21 Feb$", page.QuerySelector("h1")!.TextContent);
        string[] verdicts = [.. page.QuerySelectorAll(".verdict").Select(v => v.TextContent)];
        Assert.Equal(verdicts.OrderBy(v => Array.IndexOf(["fits", "may do", "no"], v)), verdicts);
        Assert.Contains(page.QuerySelectorAll("tbody tr"), r =>
            r.TextContent.Contains("Winter heath", StringComparison.Ordinal) && r.QuerySelector(".verdict")!.TextContent == "fits"
        );
        IElement petunia = page.QuerySelectorAll("tbody tr").First(r => r.TextContent.Contains("Petunia, magenta", StringComparison.Ordinal));
        Assert.Contains("It cannot go in before", petunia.QuerySelector(".reasons")!.TextContent, StringComparison.Ordinal);
        Assert.All(page.QuerySelectorAll("tbody tr").Where(r => r.QuerySelector(".verdict")!.TextContent != "fits"), r =>
            Assert.NotEmpty(r.QuerySelectorAll(".reasons span"))
        );
    }

    [Fact]
    public async Task Words_kinds_and_weeks_narrow_the_list()
    {
        Assert.All((await _browser.Open("/palette?q=tulip+late")).QuerySelectorAll("tbody th"), t =>
            Assert.Contains("late", t.TextContent, StringComparison.Ordinal)
        );
        Assert.Equal("8 plants in the palette", (await _browser.Open("/palette?kind=Tree")).QuerySelector("h1")!.TextContent);
        Assert.Contains("None.", (await _browser.Open("/palette?q=nothing-like-it")).Words(), StringComparison.Ordinal);
        Assert.Contains(
            "must end after they begin",
            (await _browser.Open("/palette?from=2027-03-01&to=2027-02-01")).Words(),
            StringComparison.Ordinal
        );
        Assert.True((await _browser.Open("/palette?from=2027-07-01")).QuerySelectorAll("tbody tr").Length > 20);
    }

    [Fact]
    public async Task A_plant_tells_when_it_shows_where_it_stood_and_what_it_does_to_people()
    {
        string page = (await _browser.Open("/palette/foxglove-apricot")).Words();
        Assert.Contains("poison control", page, StringComparison.Ordinal);
        Assert.Contains("in colour here in most years", page, StringComparison.Ordinal);
        Assert.Contains("from memory", page, StringComparison.Ordinal);
        Assert.Contains("Great pot, hawthorn", (await _browser.Open("/palette/hawthorn")).Words(), StringComparison.Ordinal);
        Assert.NotNull((await _browser.Open("/palette/hawthorn")).QuerySelector("main i"));
        using HttpResponseMessage missing = await _browser.GetAsync(new Uri("/palette/nowhere", UriKind.Relative));
        Assert.Equal(HttpStatusCode.NotFound, missing.StatusCode);
    }

    [Fact]
    public async Task Four_plants_at_most_stand_side_by_side_and_what_is_alike_is_quiet()
    {
        IDocument page = await _browser.Open(
            "/palette/compare?compare[]=snowdrop&compare[]=hawthorn&compare[]=scilla-blue&compare[]=box-green&compare[]=canna-red&compare[]=ghost"
        );
        Assert.Equal(4, page.QuerySelectorAll(".compare-table thead th").Length - 1);
        Assert.Contains("The first four are shown.", page.Words(), StringComparison.Ordinal);
        Assert.Contains(page.QuerySelectorAll("tbody tr"), r =>
            r.TextContent.Contains("14 cm", StringComparison.Ordinal) && !r.ClassList.Contains("quiet")
        );
    }

    [Fact]
    public async Task A_sheet_is_looked_at_first_and_taken_with_a_yes()
    {
        using HttpResponseMessage looked = await _browser.Upload(
            "/palette/import",
            string.Empty,
            Encoding.UTF8.GetBytes(Heading + Poppy),
            "poppies.csv"
        );
        string preview = looked.Headers.Location!.ToString();
        Assert.Contains("would add 1 plant and change 0", (await _browser.Open(preview)).QuerySelector("h1")!.TextContent, StringComparison.Ordinal);
        using HttpResponseMessage before = await _browser.GetAsync(new Uri("/palette/poppy-red", UriKind.Relative));
        Assert.Equal(HttpStatusCode.NotFound, before.StatusCode);
        using HttpResponseMessage taken = await _browser.Send(preview, "handler=take");
        Assert.Equal(HttpStatusCode.Redirect, taken.StatusCode);
        Assert.Contains("Papaver rhoeas", (await _browser.Open("/palette/poppy-red")).Words(), StringComparison.Ordinal);
        // The same yes twice, as a double click sends it, is told that it was taken.
        Assert.Contains("Send it again", (await Follow(preview)).Words(), StringComparison.Ordinal);

        using HttpResponseMessage changed = await _browser.Upload(
            "/palette/import",
            string.Empty,
            Encoding.UTF8.GetBytes("id,height cm\npoppy-red,45\n"),
            "poppies.csv"
        );
        IDocument page = await _browser.Open(changed.Headers.Location!.ToString());
        Assert.Equal(("40", "45"), (page.QuerySelector(".cell-change del")!.TextContent, page.QuerySelector(".cell-change ins")!.TextContent));
    }

    [Fact]
    public async Task A_wrong_sheet_is_refused_by_line_and_nothing_is_taken()
    {
        using HttpResponseMessage refused = await _browser.Upload(
            "/palette/import",
            string.Empty,
            Encoding.UTF8.GetBytes(Heading + Poppy.Replace(",40,", ",high,", StringComparison.Ordinal)),
            "p.csv"
        );
        Assert.Contains("line 2, height cm: \"high\" is no number", (await Pages.Parse(refused)).Words(), StringComparison.Ordinal);
        using HttpResponseMessage nothing = await _browser.Send("/palette/import", null);
        Assert.Contains("choose a file first", (await Pages.Parse(nothing)).Words(), StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_plant_is_copied_changed_retired_and_removed()
    {
        IDocument copy = await _browser.Open("/palette/new?copy=wallflower-amber");
        var fields = copy.QuerySelectorAll("[name^='Cells['], [name^='Windows[']")
            .Where(e => e.GetAttribute("type") != "checkbox" || e.HasAttribute("checked"))
            .Select(e => (e.GetAttribute("name")!, Value(e)))
            .ToArray();
        using HttpResponseMessage saved = await _browser.Send(
            "/palette/new",
            null,
            [.. fields.Select(f => f.Item1 == "Cells[common name]" ? (f.Item1, "Wallflower, rust") : f)]
        );
        Assert.Equal("/palette/wallflower-rust", saved.Headers.Location!.ToString());
        using HttpResponseMessage wrong = await _browser.Send(
            "/palette/wallflower-rust/edit",
            null,
            [
                .. fields.Select(f =>
                    f.Item1 == "Cells[height cm]" ? (f.Item1, "3,5")
                    : f.Item1 == "Cells[common name]" ? (f.Item1, "Wallflower, rust")
                    : f
                ),
            ]
        );
        IDocument page = await Pages.Parse(wrong);
        Assert.Contains("decimal comma", page.QuerySelector("#Cells_height_cm__fault")!.TextContent, StringComparison.Ordinal);
        Assert.Equal("3,5", page.QuerySelector("[name='Cells[height cm]']")!.GetAttribute("value"));
        // A window without its figures is named beside the field, and what was typed stays.
        using HttpResponseMessage bare = await _browser.Send(
            "/palette/wallflower-rust/edit",
            null,
            [
                .. fields.Select(f =>
                    f.Item1.EndsWith("Figures[chilling-forcing.sum]", StringComparison.Ordinal) ? (f.Item1, string.Empty)
                    : f.Item1 == "Windows[0].Share" ? (f.Item1, "half")
                    : f
                ),
            ]
        );
        IDocument lacking = await Pages.Parse(bare);
        Assert.Contains("must be given", lacking.Words(), StringComparison.Ordinal);
        Assert.Contains("must be a number of percent", lacking.Words(), StringComparison.Ordinal);
        Assert.Equal("half", lacking.QuerySelector("[name='Windows[0].Share']")!.GetAttribute("value"));
        Assert.NotEmpty(copy.QuerySelectorAll(".typed-strip svg.flowering"));
        using HttpResponseMessage retired = await _browser.Send("/palette/wallflower-rust", "handler=retire");
        Assert.Contains("retired", (await _browser.Open("/palette/wallflower-rust")).QuerySelector("h1")!.TextContent, StringComparison.Ordinal);
        using HttpResponseMessage removed = await _browser.Send("/palette/wallflower-rust", "handler=remove");
        Assert.Equal("/palette", removed.Headers.Location!.ToString());
        using HttpResponseMessage inUse = await _browser.Send("/palette/lantana-gold", "handler=remove");
        Assert.Contains("Retire it instead", (await Pages.Parse(inUse)).Words(), StringComparison.Ordinal);
    }

    [Fact]
    public void A_window_left_alone_in_its_form_is_the_same_to_the_digit_in_either_units_and_a_changed_one_is_what_was_typed()
    {
        foreach (UnitsText units in new[] { new UnitsText(SiteUnits.Metric), new UnitsText(SiteUnits.UsCustomary) })
        {
            foreach (ColourWindow window in Shipped().SelectMany(p => p.Windows))
            {
                WindowInput form = WindowInput.From(window, units);
                Assert.Empty(form.Missing());
                Assert.Equal(ShowNotation.Write([window]), form.Notation(units, window));
                // Typed anew it is the same to what the form shows.
                ColourWindow read = Assert.Single(ShowNotation.ReadWindows(form.Notation(units, null)));
                Assert.Equal(window.Rule.GetType(), read.Rule.GetType());
                Assert.Equal(window.Share, read.Share, 4);
            }
        }
        ColourWindow warm = Assert.Single(ShowNotation.ReadWindows("flower #c5283d share=0.5 rule=heat-from-install base=10 sum=400"));
        var us = new UnitsText(SiteUnits.UsCustomary);
        WindowInput typed = WindowInput.From(warm, us);
        Assert.Equal(("50", "720"), (typed.Figures["heat-from-install.base"], typed.Figures["heat-from-install.sum"]));
        typed.Figures["heat-from-install.sum"] = "900";
        Assert.Contains("base=10 sum=500", typed.Notation(us, warm), StringComparison.Ordinal);
        typed.Figures["heat-from-install.sum"] = "a; b=1";
        Assert.Contains(typed.Missing(), f => f.Field == "Figures[heat-from-install.sum]");
    }

    private static IEnumerable<Plant> Shipped()
    {
        using FileStream file = File.OpenRead(MeadowApp.Demo("palette.csv"));
        return [.. PaletteSheet.Read(file, []).Select(c => c.Plant)];
    }

    [Fact]
    public async Task The_palette_goes_out_as_the_sheet_that_comes_in()
    {
        using HttpResponseMessage answer = await _browser.GetAsync(new Uri("/palette?handler=csv", UriKind.Relative));
        byte[] sheet = await answer.Content.ReadAsByteArrayAsync(TestContext.Current.CancellationToken);
        using HttpResponseMessage looked = await _browser.Upload("/palette/import", string.Empty, sheet, "palette.csv");
        Assert.Contains(
            "changes nothing",
            (await _browser.Open(looked.Headers.Location!.ToString())).QuerySelector("h1")!.TextContent,
            StringComparison.Ordinal
        );
    }

    private static string Value(IElement e) =>
        e.NodeName switch
        {
            "SELECT" => e.QuerySelector("option[selected]")?.GetAttribute("value") ?? string.Empty,
            "TEXTAREA" => e.TextContent,
            _ => e.GetAttribute("value") ?? string.Empty,
        };

    private async Task<IDocument> Follow(string path)
    {
        using HttpResponseMessage answer = await _browser.GetAsync(new Uri(path, UriKind.Relative));
        return answer.Headers.Location is { } to ? await _browser.Open(to.ToString()) : await Pages.Parse(answer);
    }
}

using System.Net;
using AngleSharp.Dom;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Exchange.PlanFiles;
using UnrulyMeadow.Store;
using UnrulyMeadow.Store.People;

namespace UnrulyMeadow.Web.Tests.People;

/// <summary>A steward shares one site's palette with all others.</summary>
public sealed class SharedPalettePageTests(MeadowApp app) : IClassFixture<MeadowApp>
{
    [Fact]
    public async Task Sites_follow_the_shared_palette_until_they_go_their_own_way_and_can_come_back()
    {
        HttpClient steward = app.Browser();
        using HttpResponseMessage other = await steward.Send("/sites", null, ("Name", "Sorrel Park"));
        PlanStore here = new(app.Database, PlanFile.Stored);
        PlanStore there = new(app.Whole.At((await app.Whole.Sites()).Single(s => s.Slug == "sorrel-park").Id), PlanFile.Stored);

        // One kind alone is shared, with a name of its own.
        LoadedPlan now = await here.Now();
        Plant plant = now.Plan.Palette[0] with { Id = "quay-daisy", CommonName = "Quay daisy", HeightCm = 31 };
        await new PaletteStore(here).Save(plant, null);
        const string page = "/sites/palette?from=kittiwake-quay";
        IDocument offered = await steward.Open(page);
        Assert.Contains("Quay daisy", offered.Words(), StringComparison.Ordinal);
        using HttpResponseMessage none = await steward.PostFrom(page, page, []);
        Assert.Contains("tick what all sites should take", (await Pages.Parse(none)).Words(), StringComparison.Ordinal);
        await Share(steward, page, "quay-daisy");
        await MeadowApp.Until(async () => (await there.Load()).FindPlant("quay-daisy") is { HeightCm: 31 });
        await MeadowApp.Until(async () =>
            (await steward.Open("/sites/palette")).Words().Contains("1 new, 0 changed, 0 taken out", StringComparison.Ordinal)
        );

        // The other site changes it: what is shared next does not touch it there, and its page says so.
        now = await there.Now();
        await new PaletteStore(there).Save(plant with { HeightCm = 40 }, now.Versions.Plant("quay-daisy"));
        now = await here.Now();
        await new PaletteStore(here).Save(plant with { HeightCm = 33 }, now.Versions.Plant("quay-daisy"));
        await Share(steward, page, "quay-daisy");
        await MeadowApp.Until(async () =>
            (await steward.Open("/sites/palette")).Words().Contains("Sorrel Park nothing new for it 1 kind", StringComparison.Ordinal)
        );
        Assert.Equal(40, (await there.Load()).FindPlant("quay-daisy")!.HeightCm);
        const string own = "/at/sorrel-park/palette/quay-daisy";
        Assert.Contains("goes its own way in 1 figure", (await steward.Open(own)).Words(), StringComparison.Ordinal);
        using HttpResponseMessage back = await steward.Send(own, "handler=shared");
        Assert.Equal(HttpStatusCode.Redirect, back.StatusCode);
        Assert.Equal(33, (await there.Load()).FindPlant("quay-daisy")!.HeightCm);

        // A site added now begins with what is shared.
        using HttpResponseMessage third = await steward.Send("/sites", null, ("Name", "Teasel Yard"));
        PlanStore fresh = new(app.Whole.At((await app.Whole.Sites()).Single(s => s.Slug == "teasel-yard").Id), PlanFile.Stored);
        Plan begun = await fresh.Load();
        Assert.Equal(["quay-daisy"], begun.Palette.Select(p => p.Id));
        Assert.True((await there.Load()).Palette.Count > 300, "a site keeps what it began with");

        // Whoever sees to one site alone shares nothing with the others.
        using HttpResponseMessage planner = await app.Browser(SiteRole.Planner).GetAsync(new Uri("/sites/palette", UriKind.Relative));
        Assert.Equal(HttpStatusCode.Forbidden, planner.StatusCode);
    }

    private static async Task Share(HttpClient steward, string page, string kind)
    {
        string seen = (await steward.Open(page)).QuerySelector("input[name=Seen]")!.GetAttribute("value") ?? string.Empty;
        using HttpResponseMessage shared = await steward.PostFrom(page, page, [("Seen", seen), ("kindList", kind)]);
        Assert.Equal(HttpStatusCode.Redirect, shared.StatusCode);
    }
}

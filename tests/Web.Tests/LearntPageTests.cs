using System.Net;
using AngleSharp.Dom;
using NodaTime;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Review;
using UnrulyMeadow.Exchange.PlanFiles;
using UnrulyMeadow.Store;
using UnrulyMeadow.Store.People;

namespace UnrulyMeadow.Web.Tests;

/// <summary>What the log teaches is taken over by a planner, followed by the palette, and can be taken back.</summary>
public sealed class LearntPageTests(MeadowApp app) : IClassFixture<MeadowApp>
{
    [Fact]
    public async Task A_late_hellebore_is_learnt_taken_over_and_taken_back()
    {
        const string Kind = "hellebore-white";
        var plans = new PlanStore(app.Database, PlanFile.Stored);
        var log = new LogStore(app.Database);
        HttpClient planner = app.Browser(SiteRole.Planner);
        Plan plan = await plans.Load();
        await log.Record([
            .. new[] { 2025, 2026 }.Select(y => new Observation(
                Guid.NewGuid(),
                "shade-trough",
                Kind,
                new LocalDate(y, 2, 10),
                ObservationKind.FirstColour,
                string.Empty,
                "Rosa"
            )),
        ]);
        string page = (await planner.Open("/learnt")).Words();
        Assert.Contains(plan.Plant(Kind).CommonName, page, StringComparison.Ordinal);
        Assert.Contains("Take over", page, StringComparison.Ordinal);
        // Nothing is taken over by itself.
        Assert.Equal(Sum(plan), Sum(await plans.Load()));
        using (
            HttpResponseMessage adopted = await planner.PostFrom(
                "/learnt",
                "/learnt?handler=adopt",
                [
                    ("PlantId", Kind),
                    (
                        "Version",
                        (await planner.Open("/learnt")).QuerySelector($"form:has(input[value='{Kind}']) input[name=Version]")!.GetAttribute("value")!
                    ),
                ]
            )
        )
            Assert.Equal(HttpStatusCode.Redirect, adopted.StatusCode);
        Assert.NotEqual(Sum(plan), Sum(await plans.Load()));
        string change = (await planner.Open("/changes")).QuerySelector("button[name=change]")!.GetAttribute("value")!;
        using (HttpResponseMessage back = await planner.PostFrom("/changes", "/changes?handler=undo", [("change", change)]))
            Assert.Equal(HttpStatusCode.Redirect, back.StatusCode);
        Assert.Equal(Sum(plan), Sum(await plans.Load()));

        // A form of before somebody else's change is refused and changes nothing.
        using HttpResponseMessage stale = await planner.PostFrom("/learnt", "/learnt?handler=adopt", [("PlantId", Kind), ("Version", "1")]);
        Assert.Equal(HttpStatusCode.OK, stale.StatusCode);
        Assert.Equal(Sum(plan), Sum(await plans.Load()));

        static ColourRule Sum(Plan plan) => plan.Plant(Kind).Windows[0].Rule;
    }

    [Fact]
    public async Task A_show_that_lasts_longer_is_learnt_from_its_two_ends_and_taken_over()
    {
        const string Kind = "hellebore-white";
        var plans = new PlanStore(app.Database, PlanFile.Stored);
        HttpClient planner = app.Browser(SiteRole.Planner);
        Observation Seen(LocalDate day, ObservationKind kind) => new(Guid.NewGuid(), "shade-trough", Kind, day, kind, string.Empty, "Rosa");
        await new LogStore(app.Database).Record([
            .. new[] { 2025, 2026 }.SelectMany(y =>
                new[] { Seen(new LocalDate(y, 2, 10), ObservationKind.FirstColour), Seen(new LocalDate(y, 7, 15), ObservationKind.Over) }
            ),
        ]);
        double Days(Plan plan) => plan.Plant(Kind).Windows.Select(w => w.Rule).OfType<ChillingForcing>().First().ShowDays;
        double before = Days(await plans.Load());
        IElement form = (await planner.Open("/learnt")).QuerySelector($"form:has(input[value='{Kind}']):has(input[value='ShowLength'])")!;
        using (
            HttpResponseMessage adopted = await planner.PostFrom(
                "/learnt",
                "/learnt?handler=adopt",
                [("PlantId", Kind), ("Figure", "ShowLength"), ("Version", form.QuerySelector("input[name=Version]")!.GetAttribute("value")!)]
            )
        )
            Assert.Equal(HttpStatusCode.Redirect, adopted.StatusCode);
        Assert.True(Days(await plans.Load()) > before);

        // What nothing is learnt of is refused in words.
        using HttpResponseMessage nothing = await planner.PostFrom(
            "/learnt",
            "/learnt?handler=adopt",
            [("PlantId", Kind), ("Figure", "Fullness"), ("Version", "1")]
        );
        Assert.Contains("nothing is learnt of it any more", await nothing.Content.ReadAsStringAsync(), StringComparison.Ordinal);
    }

    [Fact]
    public async Task Losses_speak_for_spares_and_a_planner_takes_them_over()
    {
        var plans = new PlanStore(app.Database, PlanFile.Stored);
        var log = new LogStore(app.Database);
        HttpClient planner = app.Browser(SiteRole.Planner);
        Plan plan = await plans.Load();
        Display display = plan.Displays.First(d => d.Install < new LocalDate(2026, 11, 1) && d.Items[0].Count > 3);
        string kind = display.Items[0].PlantId;
        await log.Record([
            new Observation(Guid.NewGuid(), display.PlanterId, kind, display.Install.PlusDays(1), ObservationKind.Died, "frost", "Rosa")
            {
                Count = 3,
            },
        ]);
        Assert.Contains("are lost here", (await planner.Open("/learnt")).Words(), StringComparison.Ordinal);
        using (
            HttpResponseMessage taken = await planner.PostFrom(
                "/learnt",
                "/learnt?handler=spares",
                [("Version", (await planner.Open("/learnt")).QuerySelector("form[action*=spares] input[name=Version]")!.GetAttribute("value")!)]
            )
        )
            Assert.Equal(HttpStatusCode.Redirect, taken.StatusCode);
        double now = (await plans.Load()).Site.SpareShare;
        Assert.NotEqual(plan.Site.SpareShare, now);
        Assert.Contains(
            FormattableString.Invariant($"spares of {now * 100:0} % are ordered"),
            (await planner.Open("/learnt")).Words(),
            StringComparison.Ordinal
        );
    }
}

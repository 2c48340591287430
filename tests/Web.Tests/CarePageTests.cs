using System.Globalization;
using System.Net;
using AngleSharp.Dom;
using Microsoft.Extensions.DependencyInjection;
using NodaTime;
using UnrulyMeadow.Core.Crew;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Review;
using UnrulyMeadow.Exchange.PlanFiles;
using UnrulyMeadow.Store;
using UnrulyMeadow.Store.People;

namespace UnrulyMeadow.Web.Tests;

/// <summary>The page of care says what the nights threaten, and is quiet when nothing does.</summary>
public sealed class CarePageTests(MeadowApp app) : IClassFixture<MeadowApp>
{
    [Fact]
    public async Task A_forecast_frost_is_told_and_a_mild_week_is_quiet()
    {
        HttpClient crew = app.Browser(SiteRole.Crew);
        var live = new LiveStore(app.Database);
        IClock clock = app.Services.GetRequiredService<IClock>();
        LocalDate today = clock.GetCurrentInstant().InUtc().Date;
        async Task Forecast(double minC) =>
            await live.Save(
                new LiveReading("Mole end", 43.1, -66.9, app.Services.GetRequiredService<IClock>().GetCurrentInstant(), 5, 80, 3),
                [.. Enumerable.Range(1, 7).Select(d => new LiveDay(today.PlusDays(d), true, minC, minC + 8, 0, 4))]
            );
        await Forecast(12);
        Assert.Contains("No cold threatens", (await crew.Open("/care")).Words(), StringComparison.Ordinal);
        await Forecast(-26);
        string told = (await crew.Open("/care")).Words();
        Assert.DoesNotContain("No cold threatens", told, StringComparison.Ordinal);
        Assert.Contains("Fleece", told, StringComparison.Ordinal);
        // Whoever opens the app is told first, on every page that a day begins with, and in the calendar.
        Assert.Contains("down to", (await crew.Open("/today")).QuerySelector(".threats")!.TextContent, StringComparison.Ordinal);
        Assert.Contains("down to", (await crew.Open("/year")).QuerySelector(".threats")!.TextContent, StringComparison.Ordinal);
        string code = await new PassStore(app.Whole).Make(new Pass(PassKind.Calendar, app.Database.Site, null, null, null, null));
        Assert.Contains("UID:threat-", await crew.GetStringAsync($"/calendar/{code}.ics"), StringComparison.Ordinal);
        // Afterwards: was it so?
        await live.Save(
            new LiveReading("Mole end", 43.1, -66.9, clock.GetCurrentInstant() - Duration.FromDays(3), 5, 80, 3),
            [new LiveDay(today.PlusDays(-2), true, 11, 20, 0, 4)]
        );
        await live.Save(
            new LiveReading("Mole end", 43.1, -66.9, clock.GetCurrentInstant(), 5, 80, 3),
            [new LiveDay(today.PlusDays(-2), false, -24, 2, 0, 4), new LiveDay(today.PlusDays(1), true, 12, 20, 0, 4)]
        );
        string past = (await crew.Open("/care")).Words();
        Assert.Contains("nobody was warned", past, StringComparison.Ordinal);
        Assert.Null((await crew.Open("/today")).QuerySelector(".threats"));
        // From far away it says nothing of this place.
        await live.Save(new LiveReading("Elsewhere", 10, 10, app.Services.GetRequiredService<IClock>().GetCurrentInstant(), 5, 80, 3), []);
        Assert.Contains("No station tells", (await crew.Open("/care")).Words(), StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_ban_lets_go_by_name_what_was_watered_and_a_display_that_is_lost_is_called_early()
    {
        HttpClient planner = app.Browser(SiteRole.Planner);
        LocalDate today = app.Services.GetRequiredService<IClock>().GetCurrentInstant().InUtc().Date;
        var crew = new CrewStore(app.Database, new PlanStore(app.Database, PlanFile.Stored), PlanFile.Stored);
        async Task Allow(double? litres)
        {
            (Roster roster, long version) = await crew.Roster();
            await crew.Save(roster with { WaterLitresADay = litres }, version);
        }
        async Task<List<string>> Named() =>
            [
                .. (await planner.Open("/care"))
                    .QuerySelectorAll("section[aria-labelledby=water] ul a")
                    .Select(a => a.TextContent.Trim())
                    .Order(StringComparer.Ordinal),
            ];
        List<string> watered = await Named();
        Assert.NotEmpty(watered);
        await Allow(0);
        string banned = (await planner.Open("/care")).QuerySelector("section[aria-labelledby=water]")!.TextContent;
        Assert.Contains("Let go under the water ban", banned, StringComparison.Ordinal);
        Assert.Equal(watered, await Named());
        Assert.DoesNotContain("water 1", (await planner.Open("/care")).QuerySelector("h1")!.TextContent, StringComparison.Ordinal);
        await Allow(null);

        Display display = (await new PlanStore(app.Database, PlanFile.Stored).Load()).Displays.First(d =>
            d.Layer == DisplayLayer.Seasonal && d.StandsOn(today) && d.Lift > today.PlusDays(30)
        );
        await new LogStore(app.Database).Record([
            .. display.Items.Select(i => new Observation(
                Guid.NewGuid(),
                display.PlanterId,
                i.PlantId,
                today,
                ObservationKind.Died,
                string.Empty,
                "Rosa"
            )
            {
                Count = i.Count,
            }),
        ]);
        IDocument called = await planner.Open("/care");
        Assert.Contains(called.QuerySelectorAll("#failing + ul a"), a =>
            a.GetAttribute("href")!.EndsWith($"/displays/{display.Id}", StringComparison.Ordinal)
        );
    }

    [Fact]
    public async Task What_a_lead_asks_becomes_work_that_is_given_told_and_not_asked_again()
    {
        Instant now = app.Services.GetRequiredService<IClock>().GetCurrentInstant();
        LocalDate today = now.InUtc().Date;
        await new LiveStore(app.Database).Save(
            new LiveReading("Mole end", 43.1, -66.9, now, 5, 80, 3),
            [.. Enumerable.Range(1, 7).Select(d => new LiveDay(today.PlusDays(d), true, -14, -4, 0, 4))]
        );
        HttpClient lead = app.Browser(SiteRole.Lead);
        const string Task = "care:Winter:";
        async Task<List<string>> Offered() =>
            [
                .. (await lead.Open("/work"))
                    .QuerySelectorAll("[name='tasks[]']")
                    .Select(i => i.GetAttribute("value")!)
                    .Where(v => v.StartsWith(Task, StringComparison.Ordinal)),
            ];
        Assert.Contains("first hard frost", (await lead.Open("/care")).Words(), StringComparison.Ordinal);
        Assert.Empty(await Offered());
        using (HttpResponseMessage asked = await lead.Send("/care", "handler=ask", ("asked[]", "Winter")))
            Assert.Equal(HttpStatusCode.Redirect, asked.StatusCode);
        string id = (await Offered())[0];
        Guid crew = (await new PeopleStore(app.Whole).Of(app.Database.Site)).First(m => m.Role == SiteRole.Crew).Id;
        using (
            HttpResponseMessage given = await lead.PostFrom(
                "/work",
                "/work?handler=give",
                [("tasks[]", id), ("to[]", $"{crew}"), ("On", today.ToString("uuuu-MM-dd", CultureInfo.InvariantCulture))]
            )
        )
            Assert.Equal(HttpStatusCode.Redirect, given.StatusCode);
        var store = new CrewStore(app.Database, new PlanStore(app.Database, PlanFile.Stored), PlanFile.Stored);
        GivenTask task = (await store.Between(today, today)).Single(k => k.Given.Asked.Id == id).Given;
        string at = task.Asked.Lines[0].At!;
        Assert.Contains(at, (await app.Browser(SiteRole.Crew).Open("/today")).Words(), StringComparison.Ordinal);
        await store.Tell(
            [new TaskEntry(Guid.CreateVersion7(), task.Id, today, task.Asked.Mark, [.. task.Asked.Lines.Select(l => new EntryLine(l.Number, 1))])],
            crew,
            "Jory"
        );
        Assert.DoesNotContain(id, await Offered());
        // Made ready once a winter.
        Assert.DoesNotContain(
            at,
            string.Join(' ', (await lead.Open("/care")).QuerySelectorAll(".threat").Select(t => t.TextContent)),
            StringComparison.Ordinal
        );
    }
}

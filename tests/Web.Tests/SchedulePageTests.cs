using System.Net;
using AngleSharp.Dom;
using AngleSharp.Html.Dom;
using NodaTime;
using UnrulyMeadow.Core.Crew;
using UnrulyMeadow.Exchange.PlanFiles;
using UnrulyMeadow.Store;
using UnrulyMeadow.Store.People;

namespace UnrulyMeadow.Web.Tests;

/// <summary>Work is placed, moved by hand, given, loaded, put into order and written into calendars, by the pages.</summary>
public sealed class SchedulePageTests(MeadowApp app) : IClassFixture<MeadowApp>
{
    private const string Schedule = "/work/schedule?from=2027-05-10&days=12";

    private readonly HttpClient _planner = app.Browser(SiteRole.Planner);
    private readonly HttpClient _lead = app.Browser(SiteRole.Lead);

    private CrewStore Store => new(app.Database, new PlanStore(app.Database, PlanFile.Stored), PlanFile.Stored);

    [Fact]
    public async Task Work_is_placed_moved_by_hand_given_and_brought_by_the_shortest_way()
    {
        await Staff();
        string[] waiting =
        [
            .. (await _lead.Settled(Schedule)).QuerySelectorAll("table.ledger tbody td:first-child").Select(c => c.TextContent.Trim()),
        ];
        string placed = await Place(Schedule, null, []);
        IDocument page = await _lead.Settled(placed);
        Assert.Contains("Quay cart", page.Words(), StringComparison.Ordinal);
        IElement row = page.QuerySelectorAll(".schedule-day tbody tr").First(r => r.TextContent.Contains("Quay cart", StringComparison.Ordinal));
        string task = row.QuerySelector<IHtmlInputElement>("input[name='tasks[]']")!.Value;
        // Nothing is lost between what is placed and what finds no place.
        int placedTasks = page.QuerySelectorAll<IHtmlInputElement>("input[name='tasks[]']").Select(i => i.Value).Distinct().Count();
        int leftTasks = page.QuerySelectorAll(".came-back > li").Length;
        IReadOnlyList<CrewTask> wanted = CrewTasks.Between(
            await new PlanStore(app.Database, PlanFile.Stored).Load(),
            [],
            new LocalDate(2027, 4, 19),
            new LocalDate(2027, 5, 21)
        );
        Assert.Equal(wanted.Count(t => t.Window.NotAfter >= new LocalDate(2027, 5, 10)), placedTasks + leftTasks);
        // What waits for a day is seen before it is placed.
        Assert.Equal(placedTasks + leftTasks, waiting.Length);
        Assert.Contains(row.Children[3].TextContent.Trim(), waiting);

        // Put by hand, it stays there, and what that does to the rest is said.
        string moved = await Place(placed, "pin", [("tasks[]", task), ("place", "barrows|2027-05-13")]);
        page = await _lead.Settled(moved);
        Assert.Contains("put by hand", page.Words(), StringComparison.Ordinal);
        Assert.Matches("Nothing else moves for it|For it,|find|finds", page.QuerySelector("main .notice")!.TextContent);
        using (HttpResponseMessage none = await _lead.PostFrom(placed, $"{placed}&handler=pin", [("place", "barrows|2027-05-13")]))
            Assert.Contains("Tick what is to be put elsewhere", (await Pages.Parse(none)).Words(), StringComparison.Ordinal);

        // The day's work is given to the people of each team.
        LocalDate day = Days(page).First(d => d >= new LocalDate(2027, 5, 17));
        using (HttpResponseMessage given = await _lead.PostFrom(moved, $"{moved}&handler=give", [("Day", Iso(day))]))
            Assert.Equal($"/work?day={Iso(day)}", given.Headers.Location?.ToString());
        List<KeptTask> inHand = [.. (await Store.Between(day, day)).Where(k => k.Given.Day == day)];
        Assert.NotEmpty(inHand);
        Assert.All(inHand, k => Assert.NotEmpty(k.Given.To));
        // What was placed rests on what was not given: it says so, and nothing is given twice.
        using (HttpResponseMessage again = await _lead.PostFrom(moved, $"{moved}&handler=give", [("Day", Iso(day))]))
            Assert.Contains("place it again", (await Pages.Parse(again)).Words(), StringComparison.Ordinal);

        // Loads and the way: every stop once or in parts, and the sheets follow.
        IDocument route = await _lead.Open($"/work/route?day={Iso(day)}");
        Assert.Contains("To pick", route.Words(), StringComparison.Ordinal);
        using HttpResponseMessage asked = await _lead.PostFrom($"/work/route?day={Iso(day)}", $"/work/route?day={Iso(day)}", []);
        string way = asked.Headers.Location!.ToString();
        route = await _lead.Settled(way);
        Assert.NotNull(route.QuerySelector("svg.route-sketch"));
        string[] order = [.. route.QuerySelectorAll("ol.stops a").Select(a => a.TextContent.Trim())];
        Assert.NotEmpty(order);
        using (HttpResponseMessage followed = await _lead.PostFrom(way, $"{way}&handler=follow", []))
            Assert.Equal(HttpStatusCode.Redirect, followed.StatusCode);
        HashSet<string> mine = [.. order];
        string[] sheet =
        [
            .. (await Store.Between(day, day))
                .Where(k => k.Given.Day == day && mine.Contains(k.Given.Asked.Place))
                .OrderBy(k => k.Given.Place)
                .Select(k => k.Given.Asked.Place),
        ];
        // What is brought in parts is done where its last part comes.
        Assert.Equal(order.Reverse().Distinct().Reverse(), sheet);
        Assert.Contains(order[0], (await _lead.Open($"/work/week?from={Iso(day)}")).Words(), StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_calendar_is_read_by_its_address_until_it_is_withdrawn()
    {
        using HttpResponseMessage made = await _lead.PostFrom("/work/calendars", "/work/calendars?handler=site", []);
        string address = (await Pages.Parse(made)).QuerySelector(".pass-link")!.TextContent.Trim();
        HttpClient anybody = app.Stranger();
        using (HttpResponseMessage read = await anybody.GetAsync(new Uri(new Uri(address).PathAndQuery, UriKind.Relative)))
        {
            Assert.Equal("text/calendar", read.Content.Headers.ContentType!.MediaType);
            string text = await read.Content.ReadAsStringAsync();
            Assert.StartsWith("BEGIN:VCALENDAR\r\n", text, StringComparison.Ordinal);
            Assert.Contains("SUMMARY:Summer", text, StringComparison.Ordinal);
            // RFC 5545, 3.1: no line is longer than 75 octets.
            Assert.All(text.Split("\r\n"), l => Assert.InRange(System.Text.Encoding.UTF8.GetByteCount(l), 0, 75));
        }
        // Another one makes the first worthless; a guess is worth nothing.
        using (HttpResponseMessage other = await _lead.PostFrom("/work/calendars", "/work/calendars?handler=site", []))
            Assert.Equal(HttpStatusCode.OK, other.StatusCode);
        using (HttpResponseMessage gone = await anybody.GetAsync(new Uri(new Uri(address).PathAndQuery, UriKind.Relative)))
            Assert.Equal(HttpStatusCode.NotFound, gone.StatusCode);
        using (HttpResponseMessage withdrawn = await _lead.PostFrom("/work/calendars", "/work/calendars?handler=withdrawsite", []))
            Assert.Equal(HttpStatusCode.Redirect, withdrawn.StatusCode);
        // The crew makes one of its own, and none of the whole site's.
        HttpClient crew = app.Browser(SiteRole.Crew);
        Assert.Single((await crew.Open("/work/calendars")).QuerySelectorAll("main form"));
    }

    [Fact]
    public async Task A_roster_that_cannot_be_is_refused_and_a_later_save_does_not_undo_an_earlier_one()
    {
        await Staff();
        IDocument page = await _planner.Open("/work/roster");
        string version = page.QuerySelector<IHtmlInputElement>("input[name=Version]")!.Value;
        string person = page.QuerySelector<IHtmlInputElement>("form[id^=hours-] input[name=Id]")!.Value;
        (string, string)[] Hours(string monday) =>
            [("Version", version), ("Id", person), .. new[] { monday, "7", "7", "7", "7", "0", "0" }.Select(h => ("hours[]", h))];
        foreach (string bad in new[] { "-3", "25", "many" })
        {
            using HttpResponseMessage refused = await _planner.PostFrom("/work/roster", "/work/roster?handler=hours", Hours(bad));
            IDocument again = await Pages.Parse(refused);
            Assert.Contains("hours", again.QuerySelector($"#hours-{person} .fault")!.TextContent, StringComparison.Ordinal);
            // What was typed stays, in that person's row alone.
            Assert.Equal(bad, again.QuerySelectorAll<IHtmlInputElement>("input[name='hours[]']").Single(i => i.Value == bad).Value);
        }
        using (HttpResponseMessage saved = await _planner.PostFrom("/work/roster", "/work/roster?handler=hours", Hours("6,5")))
            Assert.Equal(HttpStatusCode.Redirect, saved.StatusCode);
        using (HttpResponseMessage late = await _planner.PostFrom("/work/roster", "/work/roster?handler=hours", Hours("2")))
            Assert.Contains("saved", (await Pages.Parse(late)).QuerySelector(".faults")!.TextContent, StringComparison.Ordinal);
        (Roster roster, _) = await Store.Roster();
        Assert.Equal(390, roster.Workers.Single(w => $"{w.PersonId}" == person).Minutes[0]);
        // A water ban that nobody can read is said where it was typed; one that can is kept, in litres.
        version = (await _planner.Open("/work/roster")).QuerySelector<IHtmlInputElement>("input[name=Version]")!.Value;
        (string, string)[] Ban(string litres) => [("Version", version), ("Yard", "as-it-is"), ("Heat", "33"), ("Allowed", litres)];
        using (HttpResponseMessage refused = await _planner.PostFrom("/work/roster", "/work/roster?handler=yard", Ban("much")))
        {
            IDocument again = await Pages.Parse(refused);
            Assert.Contains("must be from 0", again.QuerySelector("form:has(#allowed) .fault")!.TextContent, StringComparison.Ordinal);
            Assert.Equal("much", again.QuerySelector<IHtmlInputElement>("#allowed")!.Value);
        }
        using (HttpResponseMessage saved = await _planner.PostFrom("/work/roster", "/work/roster?handler=yard", Ban("400")))
            Assert.Equal(HttpStatusCode.Redirect, saved.StatusCode);
        Assert.Equal(400, (await Store.Roster()).Roster.WaterLitresADay);
        version = (await _planner.Open("/work/roster")).QuerySelector<IHtmlInputElement>("input[name=Version]")!.Value;
        using (HttpResponseMessage saved = await _planner.PostFrom("/work/roster", "/work/roster?handler=yard", Ban(" ")))
            Assert.Equal(HttpStatusCode.Redirect, saved.StatusCode);
        Assert.Null((await Store.Roster()).Roster.WaterLitresADay);
        // Somebody of a team is put into no second one.
        version = (await _planner.Open("/work/roster")).QuerySelector<IHtmlInputElement>("input[name=Version]")!.Value;
        using HttpResponseMessage twice = await _planner.PostFrom(
            "/work/roster",
            "/work/roster?handler=team",
            [("Version", version), ("Name", "Third"), ("members[]", $"{roster.Teams[0].Members[0]}")]
        );
        Assert.Contains("nobody goes out twice", (await Pages.Parse(twice)).QuerySelector(".faults")!.TextContent, StringComparison.Ordinal);
    }

    // The demo's teams, of whoever tries the app.
    private async Task Staff()
    {
        (Roster now, long version) = await Store.Roster();
        if (version > 0)
            return;
        IReadOnlyList<SiteMember> people = await new PeopleStore(app.Whole).Of(app.Database.Site);
        List<Guid> crew = [.. people.Where(p => p.Role >= SiteRole.Crew).Select(p => p.Id)];
        await Store.Save(
            now with
            {
                Teams = [new Team("quay-cart", "Quay cart", [crew[0], crew[1]], "cart"), new Team("barrows", "Barrows", [crew[2]])],
                Vehicles = [new Vehicle("cart", "Cart", 24, 12, 200, 500)],
            },
            version
        );
    }

    private async Task<string> Place(string from, string? handler, IReadOnlyList<(string, string)> fields)
    {
        using HttpResponseMessage asked = await _lead.PostFrom(from, handler is null ? from : $"{from}&handler={handler}", fields);
        Assert.Equal(HttpStatusCode.Redirect, asked.StatusCode);
        return asked.Headers.Location!.ToString();
    }

    private static IEnumerable<LocalDate> Days(IDocument page) =>
        page.QuerySelectorAll("button[name=Day]").Select(b => NodaTime.Text.LocalDatePattern.Iso.Parse(b.GetAttribute("value")!).Value);

    private static string Iso(LocalDate day) => NodaTime.Text.LocalDatePattern.Iso.Format(day);
}

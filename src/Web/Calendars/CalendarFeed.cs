using NodaTime;
using NodaTime.Text;
using UnrulyMeadow.Core.Care;
using UnrulyMeadow.Core.Crew;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Review;
using UnrulyMeadow.Core.Supply;
using UnrulyMeadow.Exchange.Crew;
using UnrulyMeadow.Store;
using UnrulyMeadow.Store.People;
using UnrulyMeadow.Web.People;
using UnrulyMeadow.Web.Site;
using UnrulyMeadow.Web.Sites;

namespace UnrulyMeadow.Web.Calendars;

/// <summary>Calendars by an address that nobody guesses: turns, days of work, deliveries and events, for a person or for a whole site.</summary>
public static class CalendarFeed
{
    private const string MediaType = "text/calendar; charset=utf-8";

    // So far back and ahead calendars reach.
    private const int DaysBack = 60;
    private const int DaysAhead = 400;

    /// <summary>Where calendars are read.</summary>
    public static void MapCalendars(this IEndpointRouteBuilder app) =>
        app.MapGet("/calendar/{code}.ics", Read).WithMetadata(new OpenToAllAttribute());

    private static async Task<IResult> Read(
        string code,
        HttpContext http,
        MeadowDatabase database,
        PassStore passes,
        PeopleStore people,
        CurrentSite current,
        IClock clock
    )
    {
        if (await passes.Look(PassKind.Calendar, code) is not { SiteId: { } siteId } pass)
            return Results.NotFound();
        // Whoever is no longer of the site reads nothing of it any more.
        IReadOnlyList<SiteMember> members = await people.Of(siteId);
        if (pass.PersonId is { } person && members.All(m => m.Id != person))
            return Results.NotFound();
        if ((await database.Sites()).FirstOrDefault(s => s.Id == siteId) is not { } site)
            return Results.NotFound();
        current.Enter(site);
        SiteNow now = await current.Memory.State.Now();
        LocalDate today = clock.GetCurrentInstant().InZone(current.Memory.State.Zone).Date;
        string at = $"{http.Request.Scheme}://{http.Request.Host}/at/{site.Slug}";
        IReadOnlyList<KeptTask> given = await http
            .RequestServices.GetRequiredService<CrewStore>()
            .Between(today.PlusDays(-DaysBack), today.PlusDays(DaysAhead));
        SupplyNow supply = await http.RequestServices.GetRequiredService<SupplyStore>().Now();
        string name = pass.PersonId is { } of ? $"{now.Plan.Site.Name}, {members.First(m => m.Id == of).Name}" : now.Plan.Site.Name;
        IEnumerable<CalendarEntry> entries = Entries(now.Plan, given, supply.Accounts, pass.PersonId, today, at)
            .Concat(await Threats(http.RequestServices, at));
        return Results.Bytes(CalendarFile.Write(name, entries, clock.GetCurrentInstant()), MediaType);
    }

    // What threatens stands on its day; told anew with every forecast, and gone with the threat.
    private static async Task<IEnumerable<CalendarEntry>> Threats(IServiceProvider services, string at)
    {
        PageFrame frame = services.GetRequiredService<PageFrame>();
        CareNow care = await services.GetRequiredService<CareDesk>().Now();
        return CareWarnings
            .Of(care, frame.Facts, frame.Units)
            .GroupBy(w => w.Day)
            .Select(day => new CalendarEntry(
                $"threat-{LocalDatePattern.Iso.Format(day.Key)}@unruly-meadow",
                day.Key,
                day.Key,
                string.Join("; ", day.Select(w => w.Text)),
                string.Empty,
                $"{at}/care#nights"
            ));
    }

    /// <summary>What stands in a calendar.</summary>
    /// <param name="plan">The plan.</param>
    /// <param name="given">Work that was given.</param>
    /// <param name="orders">Orders.</param>
    /// <param name="person">Whose it is; null for the whole site's.</param>
    /// <param name="today">Today.</param>
    /// <param name="at">What addresses begin with.</param>
    public static IEnumerable<CalendarEntry> Entries(
        Plan plan,
        IReadOnlyList<KeptTask> given,
        IReadOnlyList<OrderAccount> orders,
        Guid? person,
        LocalDate today,
        string at
    )
    {
        foreach (Turn turn in plan.Turns.Where(t => t.LastDay >= today.PlusDays(-DaysBack)))
            yield return new CalendarEntry(
                $"turn-{turn.Id}@unruly-meadow",
                turn.FirstDay,
                turn.LastDay,
                turn.Name,
                string.Empty,
                $"{at}/turns/{turn.Id}"
            );
        foreach (ReviewWalk walk in ReviewWalk.Of(plan.Turns).Where(w => w.Day >= today.PlusDays(-DaysBack)))
            yield return new CalendarEntry(
                $"review-{walk.Turn.Id}-{(walk.IsLast ? "end" : "midway")}@unruly-meadow",
                walk.Day,
                walk.Day,
                walk.IsLast ? $"Review walk, before {walk.Turn.Name}" : "Review walk, midway",
                "What is expected stands beside what is seen: rate it, and say what is to become of it.",
                $"{at}/review"
            );
        foreach (SiteEvent it in plan.Events.Where(e => e.LastDay >= today.PlusDays(-DaysBack)))
            yield return new CalendarEntry($"event-{it.Id}@unruly-meadow", it.FirstDay, it.LastDay, it.Name, "The site must look its best.");
        foreach (OrderAccount order in orders.Where(o => o.Order.IsOpen && o.Lines.Any(l => l.Outstanding > 0)))
        {
            LocalDate day = order.Order.PromisedFor ?? order.Order.Lines.Min(l => l.By);
            yield return new CalendarEntry(
                $"order-{order.Order.Id}@unruly-meadow",
                day,
                day,
                $"Delivery: {order.Order.Supplier.Name}",
                $"{order.Lines.Sum(l => l.Outstanding)} plants of order {order.Order.Number}.",
                $"{at}/supply/orders/{order.Order.Id}"
            );
        }
        foreach (
            var day in given
                .Where(k => k.Given.Stage != GivenStage.Withdrawn && (person is not { } of || k.Given.To.Contains(of)))
                .GroupBy(k => k.Given.Day)
                .OrderBy(g => g.Key)
        )
        {
            int open = day.Count(k => k.Given.Stage == GivenStage.Given);
            yield return new CalendarEntry(
                $"work-{LocalDatePattern.Iso.Format(day.Key)}-{person}@unruly-meadow",
                day.Key,
                day.Key,
                open == 0 ? $"{day.Count()} tasks, done" : $"{day.Count()} {(day.Count() == 1 ? "task" : "tasks")}",
                string.Join('\n', day.Select(k => k.Given.Asked.Place).Where(p => p.Length > 0).Distinct()),
                $"{at}/{(person is null ? "work" : "today")}?day={LocalDatePattern.Iso.Format(day.Key)}"
            );
        }
    }
}

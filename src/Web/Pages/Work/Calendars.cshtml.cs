using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;
using UnrulyMeadow.Core;
using UnrulyMeadow.Store.People;
using UnrulyMeadow.Web.People;
using UnrulyMeadow.Web.Site;
using UnrulyMeadow.Web.Sites;

namespace UnrulyMeadow.Web.Pages.Work;

/// <summary>Addresses at which calendar programs read turns, days of work, deliveries and events; each is shown once and can be withdrawn.</summary>
[Needs(SiteRole.Crew)]
public sealed class CalendarsModel(PageFrame frame, PassStore passes, CurrentSite site, Visitor visitor) : PageModel
{
    /// <summary>An address that was just made: it is shown this once.</summary>
    public string? Made { get; private set; }

    /// <summary>True where the address that was made is the whole site's.</summary>
    public bool IsOfSite { get; private set; }

    public bool HasOwn { get; private set; }

    public bool HasSite { get; private set; }

    public bool MayShareSite => visitor.May(SiteRole.Lead);

    public Task OnGetAsync() => Look();

    /// <summary>Makes an address of one's own; the one before is worth nothing any more.</summary>
    [Needs(SiteRole.Crew)]
    public Task<IActionResult> OnPostOwnAsync() => Make(Self());

    /// <summary>Makes an address of the whole site's; the one before is worth nothing any more.</summary>
    [Needs(SiteRole.Lead)]
    public Task<IActionResult> OnPostSiteAsync() => Make(null);

    /// <summary>Withdraws one's own.</summary>
    [Needs(SiteRole.Crew)]
    public Task<IActionResult> OnPostWithdrawOwnAsync() => Withdraw(Self());

    /// <summary>Withdraws the whole site's.</summary>
    [Needs(SiteRole.Lead)]
    public Task<IActionResult> OnPostWithdrawSiteAsync() => Withdraw(null);

    private Guid Self() =>
        visitor.Person?.Id ?? throw new InvalidInputException(string.Empty, "Sign in first: a calendar of one's own belongs to somebody");

    private Task<IActionResult> Make(Guid? person) =>
        frame.Saving(
            this,
            _ => null,
            async () =>
            {
                await passes.WithdrawCalendars(SiteId, person);
                string code = await passes.Make(new Pass(PassKind.Calendar, SiteId, person, null, visitor.Person?.Id, null));
                Made = $"{Request.Scheme}://{Request.Host}/calendar/{code}.ics";
                IsOfSite = person is null;
                await Look();
                return Page();
            },
            Look
        );

    private Task<IActionResult> Withdraw(Guid? person) =>
        frame.Saving(
            this,
            _ => null,
            async () =>
            {
                int gone = await passes.WithdrawCalendars(SiteId, person);
                TempData["Said"] = gone == 0 ? "There was no address." : "The address is withdrawn: nobody reads the calendar by it any more.";
                return Redirect("/work/calendars");
            },
            Look
        );

    private Guid SiteId => site.Memory.Database.Site;

    private async Task Look()
    {
        HasOwn = visitor.Person is { } me && await passes.HasCalendar(SiteId, me.Id);
        HasSite = await passes.HasCalendar(SiteId, null);
    }
}

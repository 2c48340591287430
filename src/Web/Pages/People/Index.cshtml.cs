using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;
using NodaTime;
using QRCoder;
using UnrulyMeadow.Core;
using UnrulyMeadow.Store;
using UnrulyMeadow.Store.People;
using UnrulyMeadow.Web.People;
using UnrulyMeadow.Web.Site;
using UnrulyMeadow.Web.Sites;

namespace UnrulyMeadow.Web.Pages.People;

/// <summary>Who belongs to the site and may do what, invitations, and signing phones in.</summary>
[Needs(SiteRole.Crew)]
public sealed class IndexModel(PageFrame frame, Visitor visitor, CurrentSite site, PeopleStore people, PassStore passes, SessionStore sessions)
    : PageModel
{
    private const int MostRecords = 40;
    private const int SquarePixels = 5;

    private static readonly Duration InvitationLasts = Duration.FromDays(7);
    private static readonly Duration PhoneCodeLasts = Duration.FromMinutes(10);

    public string SiteName { get; private set; } = string.Empty;

    public IReadOnlyList<SiteMember> People { get; private set; } = [];

    public IReadOnlyList<Pass> Invitations { get; private set; } = [];

    public IReadOnlyList<SignInRecord> Record { get; private set; } = [];

    /// <summary>A link that was just made; shown once.</summary>
    public string? Link { get; private set; }

    public string LinkSays { get; private set; } = string.Empty;

    public string LinkUntil { get; private set; } = string.Empty;

    /// <summary>The link as a square to be looked at by a phone, SVG.</summary>
    public string? Square { get; private set; }

    public Instant Instant => frame.Instant;

    private Guid SiteId => site.Memory.Database.Site;

    public Task OnGetAsync() => Fill();

    /// <summary>True where whoever reads may sign a phone in for somebody: a lead for those who may less, an owner for all.</summary>
    public bool MayShowPhone(SiteMember person) => visitor.May(SiteRole.Owner) || person.Role < visitor.Role || person.Id == visitor.Person?.Id;

    [Needs(SiteRole.Owner)]
    public Task<IActionResult> OnPostRoleAsync(Guid person, SiteRole role) =>
        Doing(async () =>
        {
            SiteMember member = await Member(person);
            await people.Settle(SiteId, person, role);
            TempData["Said"] = $"{member.Name} is {Words.Of(role)} now.";
        });

    [Needs(SiteRole.Owner)]
    public Task<IActionResult> OnPostOutAsync(Guid person) =>
        Doing(async () =>
        {
            SiteMember member = await Member(person);
            await people.Settle(SiteId, person, null);
            TempData["Said"] = $"{member.Name} no longer belongs to the site. What they wrote and did stays theirs.";
        });

    [Needs(SiteRole.Owner)]
    public async Task<IActionResult> OnPostInviteAsync(SiteRole role)
    {
        if (!Enum.IsDefined(role))
            return BadRequest();
        Instant until = Instant + InvitationLasts;
        string code = await passes.Make(new Pass(PassKind.Invitation, SiteId, null, role, visitor.Person!.Id, until));
        Show($"/join/{code}", $"An invitation as {Words.Of(role)}", until, "d MMM uuuu");
        await Fill();
        return Page();
    }

    [Needs(SiteRole.Owner)]
    public async Task<IActionResult> OnPostCallOffAsync()
    {
        TempData["Said"] = $"{Words.Count(await passes.CallOff(SiteId), "invitation", "invitations")} called off.";
        return Redirect("/people");
    }

    [Needs(SiteRole.Lead)]
    public async Task<IActionResult> OnPostPhoneAsync(Guid person)
    {
        await Fill();
        if (People.FirstOrDefault(p => p.Id == person) is not { } member || !MayShowPhone(member))
            return StatusCode(StatusCodes.Status403Forbidden);
        Instant until = Instant + PhoneCodeLasts;
        string code = await passes.Make(new Pass(PassKind.Phone, SiteId, person, null, visitor.Person!.Id, until));
        Show($"/phone/{code}", $"{member.Name} looks at this with the phone", until, "HH:mm");
        return Page();
    }

    private void Show(string path, string says, Instant until, string pattern)
    {
        Link = $"{Request.Scheme}://{Request.Host}{path}";
        LinkSays = says;
        LinkUntil = until.InZone(frame.State.Zone).ToString(pattern, System.Globalization.CultureInfo.InvariantCulture);
        using QRCodeData data = QRCodeGenerator.GenerateQrCode(Link, QRCodeGenerator.ECCLevel.M);
        using var drawn = new SvgQRCode(data);
        Square = drawn.GetGraphic(SquarePixels, "#000000", "#ffffff", sizingMode: SvgQRCode.SizingMode.ViewBoxAttribute);
    }

    private async Task<SiteMember> Member(Guid person) =>
        (await people.Of(SiteId)).FirstOrDefault(p => p.Id == person)
        ?? throw new InvalidInputException(string.Empty, "Somebody took that person off the site a moment ago.");

    private async Task<IActionResult> Doing(Func<Task> work)
    {
        ModelState.Clear();
        try
        {
            await work();
            return Redirect("/people");
        }
        catch (InvalidInputException e)
        {
            foreach (Fault fault in e.Faults)
                ModelState.AddModelError(string.Empty, frame.Facts.Say(fault));
            await Fill();
            return Page();
        }
    }

    private async Task Fill()
    {
        SiteName = (await frame.Now()).Plan.Site.Name;
        People = await people.Of(SiteId);
        if (!visitor.May(SiteRole.Owner))
            return;
        Invitations = await passes.Open(SiteId);
        Record = await sessions.Latest(SiteId, visitor.Person!.IsSteward, MostRecords);
    }
}

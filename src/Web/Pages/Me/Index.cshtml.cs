using Microsoft.AspNetCore.Identity;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;
using NodaTime;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Store.People;
using UnrulyMeadow.Web.People;
using UnrulyMeadow.Web.Site;

namespace UnrulyMeadow.Web.Pages.Me;

/// <summary>One's own name, language and units, how one signs in, and where one is signed in.</summary>
[NeedsSignIn]
public sealed class IndexModel(
    Visitor visitor,
    UserManager<Person> users,
    SignInManager<Person> checks,
    SessionStore sessions,
    PeopleStore people,
    SignIns signIns,
    IClock clock,
    Provider? provider = null
) : PageModel
{
    private const int LongestName = 60;
    private const int CodesMade = 8;

    public Person Person => visitor.Person!;

    public Guid? Here => visitor.Session;

    /// <summary>True where somebody else signed this session in.</summary>
    public bool IsLent => visitor.IsLent;

    /// <summary>What people call the organisation's own sign-in; null where there is none.</summary>
    public string? ProviderName => provider?.Name;

    public Instant Instant => clock.GetCurrentInstant();

    [BindProperty]
    public string? Name { get; set; }

    [BindProperty]
    public string? Language { get; set; }

    [BindProperty]
    public SiteUnits? OwnUnits { get; set; }

    [BindProperty]
    public string? Password { get; set; }

    [BindProperty]
    public string? NewPassword { get; set; }

    [BindProperty]
    public string? Credential { get; set; }

    public IList<UserPasskeyInfo> Passkeys { get; private set; } = [];

    public int CodesLeft { get; private set; }

    /// <summary>Codes that were just made; told once.</summary>
    public IReadOnlyList<string> NewCodes { get; private set; } = [];

    public IReadOnlyList<OpenSession> Sessions { get; private set; } = [];

    public async Task OnGetAsync()
    {
        (Name, Language, OwnUnits) = (Person.Name, Person.Language, Person.Units);
        await Fill();
    }

    [NeedsSignIn]
    public async Task<IActionResult> OnPostAsync()
    {
        string name = (Name ?? string.Empty).Trim();
        bool known = string.IsNullOrEmpty(Language) || Languages.All.Any(l => l.Language == Language);
        if (name.Length == 0 || PlainText.Fault(name, LongestName, lines: false) is not null || !known)
            return await Again(nameof(Name), $"takes one to {LongestName} letters on one line");
        Person.Name = name;
        Person.Language = string.IsNullOrEmpty(Language) ? null : Language;
        Person.Units = OwnUnits;
        return await Kept(await users.UpdateAsync(Person), "Saved.");
    }

    [NeedsSignIn]
    public async Task<IActionResult> OnPostPasswordAsync()
    {
        if (visitor.IsLent)
            return StatusCode(StatusCodes.Status403Forbidden);
        if (Person.PasswordHash is null)
            return await Secured(await users.AddPasswordAsync(Person, NewPassword ?? string.Empty), "Your password is set.");
        if (await users.IsLockedOutAsync(Person))
            return await Again(nameof(Password), "too many wrong ones: wait ten minutes");
        // Whoever sits down at an open session must not guess on.
        Microsoft.AspNetCore.Identity.SignInResult right = await checks.CheckPasswordSignInAsync(
            Person,
            Password ?? string.Empty,
            lockoutOnFailure: true
        );
        return right.Succeeded
            ? await Secured(await users.ChangePasswordAsync(Person, Password!, NewPassword ?? string.Empty), "Your password is changed.")
            : await Again(nameof(Password), "is not your present one");
    }

    /// <summary>What a browser needs to make a passkey.</summary>
    public async Task<IActionResult> OnGetPasskeyOptionsAsync() =>
        Content(
            await checks.MakePasskeyCreationOptionsAsync(
                new PasskeyUserEntity
                {
                    Id = $"{Person.Id}",
                    Name = Person.SignIn,
                    DisplayName = Person.Name,
                }
            ),
            "application/json"
        );

    [NeedsSignIn]
    public async Task<IActionResult> OnPostPasskeyAsync()
    {
        if (visitor.IsLent)
            return StatusCode(StatusCodes.Status403Forbidden);
        PasskeyAttestationResult made;
        try
        {
            made = await checks.PerformPasskeyAttestationAsync(Credential ?? string.Empty);
        }
        catch (Exception e) when (e is InvalidOperationException or ArgumentException or System.Text.Json.JsonException)
        {
            return await Again(string.Empty, "That took too long: try once more.");
        }
        if (!made.Succeeded)
            return await Again(string.Empty, "The device made no passkey.");
        made.Passkey.Name = signIns.Device;
        return await Kept(await users.AddOrUpdatePasskeyAsync(Person, made.Passkey), "The passkey is added: it signs you in from now on.");
    }

    [NeedsSignIn]
    public async Task<IActionResult> OnPostDropPasskeyAsync(string? id)
    {
        if (visitor.IsLent)
            return StatusCode(StatusCodes.Status403Forbidden);
        byte[] key;
        try
        {
            key = Convert.FromHexString(id ?? string.Empty);
        }
        catch (FormatException)
        {
            return NotFound();
        }
        return await Kept(await users.RemovePasskeyAsync(Person, key), "The passkey is taken away.");
    }

    [NeedsSignIn]
    public async Task<IActionResult> OnPostCodesAsync()
    {
        if (visitor.IsLent)
            return StatusCode(StatusCodes.Status403Forbidden);
        NewCodes = [.. await users.GenerateNewTwoFactorRecoveryCodesAsync(Person, CodesMade) ?? []];
        ModelState.Clear();
        await OnGetAsync();
        return Page();
    }

    [NeedsSignIn]
    public async Task<IActionResult> OnPostEndAsync(Guid session)
    {
        await sessions.End(Person.Id, session);
        return Redirect("/me");
    }

    /// <summary>Leaves the installation for good.</summary>
    [NeedsSignIn]
    public async Task<IActionResult> OnPostLeaveAsync(bool certain)
    {
        if (visitor.IsLent)
            return StatusCode(StatusCodes.Status403Forbidden);
        if (!certain)
            return await Again(string.Empty, "Nothing was done: tick that you mean it.");
        try
        {
            await people.Leave(Person.Id);
        }
        catch (InvalidInputException e)
        {
            return await Again(string.Empty, e.Message);
        }
        await signIns.End();
        TempData["Said"] = "You have left. What you wrote and did keeps your name.";
        return Redirect("/signin");
    }

    // Whoever else may hold a session loses it with the old password.
    private async Task<IActionResult> Secured(IdentityResult result, string said)
    {
        if (result.Succeeded)
            await sessions.EndOthers(Person.Id, visitor.Session);
        return await Kept(result, said, nameof(NewPassword));
    }

    private async Task<IActionResult> Kept(IdentityResult result, string said, string field = "")
    {
        if (!result.Succeeded)
            return await Again(field, string.Join(" ", result.Errors.Select(e => e.Description)));
        TempData["Said"] = said;
        return Redirect("/me");
    }

    private async Task<IActionResult> Again(string field, string said)
    {
        ModelState.Clear();
        ModelState.AddModelError(field, said);
        (Name, Language, OwnUnits) = (Name ?? Person.Name, Language ?? Person.Language, OwnUnits ?? Person.Units);
        await Fill();
        return Page();
    }

    private async Task Fill()
    {
        Passkeys = await users.GetPasskeysAsync(Person);
        CodesLeft = await users.CountRecoveryCodesAsync(Person);
        Sessions = await sessions.Of(Person.Id);
    }
}

using Microsoft.AspNetCore.Authentication;
using Microsoft.AspNetCore.Identity;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;
using UnrulyMeadow.Store.People;
using UnrulyMeadow.Web.People;

namespace UnrulyMeadow.Web.Pages.SignIn;

/// <summary>Signs people in: by a tap on a machine of one's own, by password, passkey or recovery code.</summary>
[OpenToAll]
public sealed class IndexModel(
    PeopleStore people,
    UserManager<Person> users,
    SignInManager<Person> checks,
    SignIns signIns,
    Visitor visitor,
    IConfiguration settings,
    Provider? provider = null
) : PageModel
{
    // One sentence for every way to fail, so that nobody learns which names there are.
    private const string No = "Nobody signs in under that name with that password. After five wrong ones the name is locked for ten minutes.";

    /// <summary>Where to go afterwards.</summary>
    [BindProperty(SupportsGet = true)]
    public string? To { get; set; }

    /// <summary>What went wrong on the way back from the organisation's own sign-in.</summary>
    [BindProperty(SupportsGet = true)]
    public string? Refused { get; set; }

    /// <summary>What people call the organisation's own sign-in; null where there is none.</summary>
    public string? ProviderName => provider?.Name;

    [BindProperty]
    public string? SignInName { get; set; }

    [BindProperty]
    public string? Password { get; set; }

    [BindProperty]
    public string? RecoverName { get; set; }

    [BindProperty]
    public string? Code { get; set; }

    [BindProperty]
    public string? Credential { get; set; }

    /// <summary>Those who sign in with a tap.</summary>
    public IReadOnlyList<SiteMember> Tapping { get; private set; } = [];

    public async Task<IActionResult> OnGetAsync()
    {
        await Fill();
        if (Refused is not null)
            ModelState.AddModelError(string.Empty, $"{ProviderName} did not say who you are: try once more.");
        return Tapping.Count == 0 && !await people.HasOwner() ? Redirect("/welcome") : Page();
    }

    [OpenToAll]
    public async Task<IActionResult> OnPostTapAsync(Guid person)
    {
        await Fill();
        if (Tapping.All(p => p.Id != person) || await people.Find(person) is not { } tapped)
            return await Again(null, "tap refused", "Signing in with a tap is for the machine that the app runs on.");
        return await In(tapped, "tap");
    }

    [OpenToAll]
    public async Task<IActionResult> OnPostAsync()
    {
        Person? person = SignInName is null ? null : await users.FindByNameAsync(SignInName.Trim());
        if (person is null)
        {
            // As long as for a name that there is.
            users.PasswordHasher.HashPassword(new Person(), Password ?? string.Empty);
            return await Again(null, "unknown name", No);
        }
        Microsoft.AspNetCore.Identity.SignInResult result = await checks.CheckPasswordSignInAsync(
            person,
            Password ?? string.Empty,
            lockoutOnFailure: true
        );
        return result.Succeeded ? await In(person, "password") : await Again(person, result.IsLockedOut ? "locked" : "wrong password", No);
    }

    [OpenToAll]
    public async Task<IActionResult> OnPostRecoverAsync()
    {
        Person? person = RecoverName is null ? null : await users.FindByNameAsync(RecoverName.Trim());
        if (person is null || await users.IsLockedOutAsync(person))
            return await Again(person, "recovery refused", No);
        if (!(await users.RedeemTwoFactorRecoveryCodeAsync(person, Code ?? string.Empty)).Succeeded)
        {
            await users.AccessFailedAsync(person);
            return await Again(person, "wrong recovery code", No);
        }
        TempData["Said"] = $"{await users.CountRecoveryCodesAsync(person)} recovery codes are left. Set a password or add a passkey now.";
        To = "/me";
        return await In(person, "recovery code");
    }

    /// <summary>Goes to the organisation's own sign-in.</summary>
    public IActionResult OnGetProvider() =>
        provider is null
            ? NotFound()
            : Challenge(
                new AuthenticationProperties
                {
                    RedirectUri =
                        "/signin"
                        + QueryString.Create([
                            new KeyValuePair<string, string?>("handler", "known"),
                            new KeyValuePair<string, string?>("to", Url.IsLocalUrl(To) ? To : "/"),
                        ]),
                },
                Provider.Scheme
            );

    /// <summary>Comes back from it: known here, taking an invitation, or adding it to how one signs in.</summary>
    public async Task<IActionResult> OnGetKnownAsync()
    {
        if (provider is null)
            return NotFound();
        AuthenticateResult told = await HttpContext.AuthenticateAsync(IdentityConstants.ExternalScheme);
        await HttpContext.SignOutAsync(IdentityConstants.ExternalScheme);
        if (told.Principal?.FindFirst("sub")?.Value is not { Length: > 0 } subject)
            return Redirect("/signin?refused=provider");
        string key = provider.Key(subject);
        if (await people.FindByProvider(key) is { } known)
            return await In(known, provider.Name);
        if (visitor is { Person: { } present, IsLent: false })
        {
            present.ProviderKey = key;
            await users.UpdateAsync(present);
            TempData["Said"] = $"{provider.Name} signs you in from now on.";
            return Redirect("/me");
        }
        // A name that nobody gave here: it comes in by an invitation alone.
        if (To?.StartsWith("/join/", StringComparison.Ordinal) != true)
            return await Again(
                null,
                "unknown to us",
                $"{provider.Name} knows you, and nobody here does yet: ask for an invitation and open it first."
            );
        string name = Core.PlainText.Cut(Core.PlainText.Mended(told.Principal.FindFirst("name")?.Value ?? subject, lines: false), 60);
        var person = new Person
        {
            Id = Guid.CreateVersion7(),
            Name = name,
            SignIn = key,
            ProviderKey = key,
        };
        return (await users.CreateAsync(person)).Succeeded
            ? await In(person, provider.Name)
            : await Again(null, "not taken", "That did not work: try once more.");
    }

    /// <summary>What a browser needs to ask for a passkey.</summary>
    public async Task<IActionResult> OnGetPasskeyOptionsAsync() => Content(await checks.MakePasskeyRequestOptionsAsync(null), "application/json");

    [OpenToAll]
    public async Task<IActionResult> OnPostPasskeyAsync()
    {
        PasskeyAssertionResult<Person> result;
        try
        {
            result = await checks.PerformPasskeyAssertionAsync(Credential ?? string.Empty);
        }
        catch (Exception e) when (e is InvalidOperationException or ArgumentException or System.Text.Json.JsonException)
        {
            return await Again(null, "passkey too late", "That took too long: try once more.");
        }
        if (!result.Succeeded)
            return await Again(null, "passkey refused", "No passkey of anybody here was offered.");
        await users.AddOrUpdatePasskeyAsync(result.User, result.Passkey);
        return await In(result.User, "passkey");
    }

    private async Task<IActionResult> In(Person person, string how)
    {
        await signIns.Begin(person, how);
        return Redirect(Url.IsLocalUrl(To) ? To : "/");
    }

    private async Task<IActionResult> Again(Person? person, string what, string said)
    {
        await signIns.Refused(person, what);
        ModelState.Clear();
        ModelState.AddModelError(string.Empty, said);
        await Fill();
        return Page();
    }

    private async Task Fill() => Tapping = PeopleServices.IsOnOwnMachine(HttpContext, settings) ? await people.Tapping() : [];
}

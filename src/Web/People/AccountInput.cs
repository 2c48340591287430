using Microsoft.AspNetCore.Identity;
using UnrulyMeadow.Core;
using UnrulyMeadow.Store.People;

namespace UnrulyMeadow.Web.People;

/// <summary>What a new person types.</summary>
public sealed class AccountInput
{
    private const int LongestName = 60;

    /// <summary>The name that others see.</summary>
    public string? Name { get; set; }

    /// <summary>The name to sign in under.</summary>
    public string? SignIn { get; set; }

    /// <summary>The password.</summary>
    public string? Password { get; set; }

    /// <summary>Adds the person.</summary>
    /// <param name="users">People.</param>
    /// <param name="change">Settles what else they are.</param>
    /// <param name="withoutPassword">True where they may have none.</param>
    /// <exception cref="InvalidInputException">Something is missing, too weak, or taken.</exception>
    public async Task<Person> Add(UserManager<Person> users, Action<Person>? change = null, bool withoutPassword = false)
    {
        string name = (Name ?? string.Empty).Trim();
        string signIn = string.IsNullOrWhiteSpace(SignIn) ? name : SignIn.Trim();
        var faults = new FaultList();
        foreach ((string field, string text) in new[] { ("Account.Name", name), ("Account.SignIn", signIn) })
        {
            if (text.Length == 0)
                faults.Add(field, "is needed");
            else if (PlainText.Fault(text, LongestName, lines: false) is { } fault)
                faults.Add(field, fault);
        }
        faults.ThrowIfAny();
        var person = new Person
        {
            Id = Guid.CreateVersion7(),
            Name = name,
            SignIn = signIn,
        };
        change?.Invoke(person);
        IdentityResult made =
            string.IsNullOrEmpty(Password) && withoutPassword
                ? await users.CreateAsync(person)
                : await users.CreateAsync(person, Password ?? string.Empty);
        if (!made.Succeeded)
        {
            foreach (IdentityError error in made.Errors)
                faults.Add(
                    error.Code.StartsWith("Password", StringComparison.Ordinal) ? "Account.Password" : "Account.SignIn",
                    error.Code == nameof(IdentityErrorDescriber.DuplicateUserName) ? "is another's: choose another" : error.Description
                );
            faults.ThrowIfAny();
        }
        return person;
    }

    /// <summary>The form's field of a fault.</summary>
    public static string? Field(string path) => path.StartsWith("Account.", StringComparison.Ordinal) || path == "Code" ? path : null;
}

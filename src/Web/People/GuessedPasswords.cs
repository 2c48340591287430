using Microsoft.AspNetCore.Identity;
using UnrulyMeadow.Core;
using UnrulyMeadow.Store.People;

namespace UnrulyMeadow.Web.People;

/// <summary>
/// Refuses passwords that are guessed first: those among the commonest of broken lists, plays on them and on one's own name, rows of
/// keys, dates. Estimated by zxcvbn (Wheeler, USENIX Security 2016).
/// </summary>
public sealed class GuessedPasswords : IPasswordValidator<Person>
{
    // A hundred million tries: more than a year of guessing at the rate that signing in allows.
    private const double FewestBits = 26.6;

    // Estimating takes longer with length, and what is longer is not guessed.
    private const int LongestLookedAt = 64;

    /// <inheritdoc />
    public Task<IdentityResult> ValidateAsync(UserManager<Person> manager, Person user, string? password)
    {
        // One that is too short is said to be that.
        if ((password ?? string.Empty).Length < manager.Options.Password.RequiredLength)
            return Task.FromResult(IdentityResult.Success);
        string tried = PlainText.Cut(password ?? string.Empty, LongestLookedAt);
        Zxcvbn.Result result = Zxcvbn.Zxcvbn.MatchPassword(tried, [.. $"{user.Name} {user.SignIn} meadow unruly".Split(' ')]);
        return Task.FromResult(
            result.Entropy >= FewestBits
                ? IdentityResult.Success
                : IdentityResult.Failed(
                    new IdentityError
                    {
                        Code = "PasswordIsGuessed",
                        Description = "is among those that are guessed first: take a few words that do not belong together.",
                    }
                )
        );
    }
}

using System.Text.Json;
using Microsoft.AspNetCore.Identity;
using NodaTime;
using UnrulyMeadow.Store.People;

namespace UnrulyMeadow.Web.People;

/// <summary>What ASP.NET Core Identity asks of people, answered from our own tables.</summary>
/// <param name="people">People.</param>
/// <param name="passkeys">Their passkeys.</param>
public sealed class IdentityStore(PeopleStore people, PasskeyStore passkeys)
    : IUserPasswordStore<Person>,
        IUserSecurityStampStore<Person>,
        IUserLockoutStore<Person>,
        IUserTwoFactorRecoveryCodeStore<Person>,
        IUserPasskeyStore<Person>
{
    private static readonly IdentityErrorDescriber Errors = new();

    /// <inheritdoc />
    public Task<string> GetUserIdAsync(Person user, CancellationToken cancellationToken) => Task.FromResult($"{user.Id}");

    /// <inheritdoc />
    public Task<string?> GetUserNameAsync(Person user, CancellationToken cancellationToken) => Task.FromResult<string?>(user.SignIn);

    /// <inheritdoc />
    public Task SetUserNameAsync(Person user, string? userName, CancellationToken cancellationToken) => Set(() => user.SignIn = userName!);

    /// <inheritdoc />
    public Task<string?> GetNormalizedUserNameAsync(Person user, CancellationToken cancellationToken) => Task.FromResult<string?>(user.SignInKey);

    /// <inheritdoc />
    public Task SetNormalizedUserNameAsync(Person user, string? normalizedName, CancellationToken cancellationToken) =>
        Set(() => user.SignInKey = normalizedName!);

    /// <inheritdoc />
    public async Task<IdentityResult> CreateAsync(Person user, CancellationToken cancellationToken) =>
        await people.Add(user) ? IdentityResult.Success : IdentityResult.Failed(Errors.DuplicateUserName(user.SignIn));

    /// <inheritdoc />
    public async Task<IdentityResult> UpdateAsync(Person user, CancellationToken cancellationToken) =>
        await people.Save(user) ? IdentityResult.Success : IdentityResult.Failed(Errors.DuplicateUserName(user.SignIn));

    /// <inheritdoc />
    public async Task<IdentityResult> DeleteAsync(Person user, CancellationToken cancellationToken)
    {
        // People leave; what they wrote stays theirs.
        user.LeftAt = SystemClock.Instance.GetCurrentInstant();
        return await UpdateAsync(user, cancellationToken);
    }

    /// <inheritdoc />
    public async Task<Person?> FindByIdAsync(string userId, CancellationToken cancellationToken) =>
        Guid.TryParse(userId, out Guid id) ? await people.Find(id) : null;

    /// <inheritdoc />
    public Task<Person?> FindByNameAsync(string normalizedUserName, CancellationToken cancellationToken) => people.FindBySignIn(normalizedUserName);

    /// <inheritdoc />
    public Task SetPasswordHashAsync(Person user, string? passwordHash, CancellationToken cancellationToken) =>
        Set(() => user.PasswordHash = passwordHash);

    /// <inheritdoc />
    public Task<string?> GetPasswordHashAsync(Person user, CancellationToken cancellationToken) => Task.FromResult(user.PasswordHash);

    /// <inheritdoc />
    public Task<bool> HasPasswordAsync(Person user, CancellationToken cancellationToken) => Task.FromResult(user.PasswordHash is not null);

    /// <inheritdoc />
    public Task SetSecurityStampAsync(Person user, string stamp, CancellationToken cancellationToken) => Set(() => user.SecurityStamp = stamp);

    /// <inheritdoc />
    public Task<string?> GetSecurityStampAsync(Person user, CancellationToken cancellationToken) => Task.FromResult<string?>(user.SecurityStamp);

    /// <inheritdoc />
    public Task<DateTimeOffset?> GetLockoutEndDateAsync(Person user, CancellationToken cancellationToken) =>
        Task.FromResult(user.LockoutEnd?.ToDateTimeOffset());

    /// <inheritdoc />
    public Task SetLockoutEndDateAsync(Person user, DateTimeOffset? lockoutEnd, CancellationToken cancellationToken) =>
        Set(() => user.LockoutEnd = lockoutEnd is { } end ? Instant.FromDateTimeOffset(end) : null);

    /// <inheritdoc />
    public Task<int> IncrementAccessFailedCountAsync(Person user, CancellationToken cancellationToken) => Task.FromResult(++user.FailedTries);

    /// <inheritdoc />
    public Task ResetAccessFailedCountAsync(Person user, CancellationToken cancellationToken) => Set(() => user.FailedTries = 0);

    /// <inheritdoc />
    public Task<int> GetAccessFailedCountAsync(Person user, CancellationToken cancellationToken) => Task.FromResult(user.FailedTries);

    /// <inheritdoc />
    public Task<bool> GetLockoutEnabledAsync(Person user, CancellationToken cancellationToken) => Task.FromResult(true);

    /// <inheritdoc />
    public Task SetLockoutEnabledAsync(Person user, bool enabled, CancellationToken cancellationToken) => Task.CompletedTask;

    /// <inheritdoc />
    public Task ReplaceCodesAsync(Person user, IEnumerable<string> recoveryCodes, CancellationToken cancellationToken) =>
        Set(() => user.RecoveryCodes = string.Join(';', recoveryCodes.Select(RecoveryCode.Hash)));

    /// <inheritdoc />
    public async Task<bool> RedeemCodeAsync(Person user, string code, CancellationToken cancellationToken)
    {
        string hash = RecoveryCode.Hash(code);
        List<string> left = [.. user.RecoveryCodes.Split(';', StringSplitOptions.RemoveEmptyEntries)];
        return left.Remove(hash) && await Kept(user, left);
    }

    /// <inheritdoc />
    public Task<int> CountCodesAsync(Person user, CancellationToken cancellationToken) =>
        Task.FromResult(user.RecoveryCodes.Split(';', StringSplitOptions.RemoveEmptyEntries).Length);

    /// <inheritdoc />
    public Task AddOrUpdatePasskeyAsync(Person user, UserPasskeyInfo passkey, CancellationToken cancellationToken) =>
        passkeys.Put(
            new KeptPasskey(passkey.CredentialId, user.Id, passkey.Name ?? "a passkey", JsonSerializer.Serialize(PasskeyDetails.Of(passkey)))
        );

    /// <inheritdoc />
    public async Task<IList<UserPasskeyInfo>> GetPasskeysAsync(Person user, CancellationToken cancellationToken) =>
        [.. (await passkeys.Of(user.Id)).Select(PasskeyDetails.Info)];

    /// <inheritdoc />
    public async Task<Person?> FindByPasskeyIdAsync(byte[] credentialId, CancellationToken cancellationToken) =>
        await passkeys.Find(credentialId) is { } key ? await people.Find(key.PersonId) : null;

    /// <inheritdoc />
    public async Task<UserPasskeyInfo?> FindPasskeyAsync(Person user, byte[] credentialId, CancellationToken cancellationToken) =>
        await passkeys.Find(credentialId) is { } key && key.PersonId == user.Id ? PasskeyDetails.Info(key) : null;

    /// <inheritdoc />
    public Task RemovePasskeyAsync(Person user, byte[] credentialId, CancellationToken cancellationToken) => passkeys.Remove(user.Id, credentialId);

    /// <inheritdoc />
    public void Dispose() { }

    private async Task<bool> Kept(Person user, List<string> left)
    {
        user.RecoveryCodes = string.Join(';', left);
        return await people.Save(user);
    }

    private static Task Set(Action change)
    {
        change();
        return Task.CompletedTask;
    }

    private sealed record PasskeyDetails(
        byte[] PublicKey,
        DateTimeOffset CreatedAt,
        uint SignCount,
        string[]? Transports,
        bool IsUserVerified,
        bool IsBackupEligible,
        bool IsBackedUp,
        byte[] AttestationObject,
        byte[] ClientDataJson
    )
    {
        public static PasskeyDetails Of(UserPasskeyInfo p) =>
            new(
                p.PublicKey,
                p.CreatedAt,
                p.SignCount,
                p.Transports,
                p.IsUserVerified,
                p.IsBackupEligible,
                p.IsBackedUp,
                p.AttestationObject,
                p.ClientDataJson
            );

        public static UserPasskeyInfo Info(KeptPasskey key)
        {
            PasskeyDetails d = JsonSerializer.Deserialize<PasskeyDetails>(key.Details)!;
            return new UserPasskeyInfo(
                key.Id,
                d.PublicKey,
                d.CreatedAt,
                d.SignCount,
                d.Transports,
                d.IsUserVerified,
                d.IsBackupEligible,
                d.IsBackedUp,
                d.AttestationObject,
                d.ClientDataJson
            )
            {
                Name = key.Name,
            };
        }
    }
}

/// <summary>Codes that sign in once where password and passkey are lost. They are as long as keys, so that a plain hash keeps them.</summary>
internal static class RecoveryCode
{
    public static string Hash(string code) =>
        Convert.ToHexString(
            System.Security.Cryptography.SHA256.HashData(
                System.Text.Encoding.UTF8.GetBytes(code.Replace("-", string.Empty, StringComparison.Ordinal).Trim().ToUpperInvariant())
            )
        );
}

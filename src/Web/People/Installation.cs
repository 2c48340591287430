using UnrulyMeadow.Store;

namespace UnrulyMeadow.Web.People;

/// <summary>
/// What tells this installation's cookies from those of another on the same machine: browsers keep cookies by name and not by port.
/// </summary>
/// <param name="database">The database.</param>
public sealed class Installation(MeadowDatabase database)
{
    private const int Letters = 8;

    // The first site is made with the database and stays.
    private readonly Lazy<string> _suffix = new(() =>
        Task.Run(database.FirstSite).GetAwaiter().GetResult()?.Id.ToString("N")[^Letters..] ?? string.Empty
    );

    /// <summary>A cookie's name here.</summary>
    public string Cookie(string name) => $"{name}-{_suffix.Value}";
}

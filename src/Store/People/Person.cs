using NodaTime;
using UnrulyMeadow.Core.Planning;

namespace UnrulyMeadow.Store.People;

/// <summary>What a person may do at a site. Each may do all that those before it may.</summary>
public enum SiteRole
{
    /// <summary>Reads.</summary>
    Guest,

    /// <summary>Writes the log, takes pictures, does and tells the day's work.</summary>
    Crew,

    /// <summary>Leads a crew: keeps the stock, signs phones in.</summary>
    Lead,

    /// <summary>Plans.</summary>
    Planner,

    /// <summary>Settles who may do what, the site's settings, and its files.</summary>
    Owner,
}

/// <summary>A person. Changed by the framework that signs people in, which is why it can be changed.</summary>
public sealed class Person
{
    /// <summary>The person's identity.</summary>
    public Guid Id { get; set; }

    /// <summary>The name that others see.</summary>
    public string Name { get; set; } = string.Empty;

    /// <summary>What is typed to sign in.</summary>
    public string SignIn { get; set; } = string.Empty;

    /// <summary>That, as it is compared.</summary>
    public string SignInKey { get; set; } = string.Empty;

    /// <summary>The password's hash; null without one.</summary>
    public string? PasswordHash { get; set; }

    /// <summary>Changes with every change of how the person signs in.</summary>
    public string SecurityStamp { get; set; } = string.Empty;

    /// <summary>Until when nobody is let in under this name, after too many wrong passwords.</summary>
    public Instant? LockoutEnd { get; set; }

    /// <summary>Wrong passwords since the last right one.</summary>
    public int FailedTries { get; set; }

    /// <summary>Hashes of recovery codes that are left, parted by semicolons.</summary>
    public string RecoveryCodes { get; set; } = string.Empty;

    /// <summary>True for one who signs in with a tap where the app serves its own machine alone.</summary>
    public bool Taps { get; set; }

    /// <summary>True for one who sees to the installation and adds sites.</summary>
    public bool IsSteward { get; set; }

    /// <summary>The person's own language; null to follow the browser.</summary>
    public string? Language { get; set; }

    /// <summary>The person's own units; null for those of the site.</summary>
    public SiteUnits? Units { get; set; }

    /// <summary>Who the organisation's own sign-in says it is; null where it does not know the person.</summary>
    public string? ProviderKey { get; set; }

    /// <summary>When the person left; null while they are there.</summary>
    public Instant? LeftAt { get; set; }
}

/// <summary>What a person may do at one site.</summary>
/// <param name="SiteId">The site.</param>
/// <param name="Slug">Its part of addresses.</param>
/// <param name="SiteName">Its name.</param>
/// <param name="Role">What they may do there.</param>
public sealed record Membership(Guid SiteId, string Slug, string SiteName, SiteRole Role);

/// <summary>A person of a site.</summary>
/// <param name="Id">The person.</param>
/// <param name="Name">Their name.</param>
/// <param name="Role">What they may do here.</param>
/// <param name="Taps">True for one who signs in with a tap.</param>
/// <param name="SeenAt">When they were last seen; null for never.</param>
public sealed record SiteMember(Guid Id, string Name, SiteRole Role, bool Taps, Instant? SeenAt);

/// <summary>A sign-in that lasts.</summary>
/// <param name="Id">Its id.</param>
/// <param name="Device">What was signed in on.</param>
/// <param name="MadeAt">When.</param>
/// <param name="SeenAt">When it was last used.</param>
public sealed record OpenSession(Guid Id, string Device, Instant MadeAt, Instant SeenAt);

/// <summary>A line of the record of sign-ins.</summary>
/// <param name="At">When.</param>
/// <param name="Name">Who; null where the name is unknown.</param>
/// <param name="What">What happened.</param>
/// <param name="Device">On what.</param>
public sealed record SignInRecord(Instant At, string? Name, string What, string Device);

/// <summary>Who a session belongs to and what they may do where.</summary>
/// <param name="Person">The person.</param>
/// <param name="Memberships">Their sites, by name.</param>
/// <param name="IsLent">True for a session that somebody else signed in: it is good at one site, and does not change how the person signs in.</param>
public sealed record SignedIn(Person Person, IReadOnlyList<Membership> Memberships, bool IsLent);

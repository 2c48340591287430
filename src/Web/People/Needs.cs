using UnrulyMeadow.Store.People;

namespace UnrulyMeadow.Web.People;

/// <summary>What whoever asks must be. Every page and every handler that takes something says so; what says nothing is refused.</summary>
/// <param name="role">The least that they must be at the site.</param>
[AttributeUsage(AttributeTargets.Class | AttributeTargets.Method)]
public sealed class NeedsAttribute(SiteRole role) : Attribute
{
    /// <summary>The least role.</summary>
    public SiteRole Role => role;
}

/// <summary>Whoever is signed in may ask, wherever they belong.</summary>
[AttributeUsage(AttributeTargets.Class | AttributeTargets.Method)]
public sealed class NeedsSignInAttribute : Attribute;

/// <summary>Whoever sees to the installation may ask, in a session that they began themselves.</summary>
[AttributeUsage(AttributeTargets.Class | AttributeTargets.Method)]
public sealed class NeedsStewardAttribute : Attribute;

/// <summary>Anybody may ask.</summary>
[AttributeUsage(AttributeTargets.Class | AttributeTargets.Method)]
public sealed class OpenToAllAttribute : Attribute;

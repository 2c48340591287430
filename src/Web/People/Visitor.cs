using UnrulyMeadow.Store;
using UnrulyMeadow.Store.People;

namespace UnrulyMeadow.Web.People;

/// <summary>Who asks, as far as this request knows.</summary>
public sealed class Visitor
{
    private SignedIn? _signedIn;

    /// <summary>The session; null for nobody.</summary>
    public Guid? Session { get; private set; }

    /// <summary>The person; null for nobody.</summary>
    public Person? Person => _signedIn?.Person;

    /// <summary>Their sites, by name.</summary>
    public IReadOnlyList<Membership> Memberships => _signedIn?.Memberships ?? [];

    /// <summary>True where somebody else signed this session in: it does not change how the person signs in.</summary>
    public bool IsLent => _signedIn?.IsLent ?? false;

    /// <summary>True where they see to the installation, and began this session themselves.</summary>
    public bool IsSteward => Person is { IsSteward: true } && !IsLent;

    /// <summary>What they may do at the site of this request; null where they do not belong.</summary>
    public SiteRole? Role { get; private set; }

    /// <summary>Says who asks.</summary>
    public void Enter(Guid session, SignedIn signedIn) => (Session, _signedIn) = (session, signedIn);

    /// <summary>Says which site they ask about.</summary>
    public void At(SiteEntry? site) => Role = site is null ? null : Memberships.FirstOrDefault(m => m.SiteId == site.Id)?.Role;

    /// <summary>True where they may do what a role may.</summary>
    public bool May(SiteRole role) => Role >= role;
}

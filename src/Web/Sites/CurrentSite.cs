using UnrulyMeadow.Store;

namespace UnrulyMeadow.Web.Sites;

/// <summary>The site that a request, a piece of work or an errand is about.</summary>
/// <param name="registry">The sites.</param>
public sealed class CurrentSite(SiteRegistry registry)
{
    private SiteMemory? _memory;

    /// <summary>The site; null until it is known.</summary>
    public SiteEntry? Entry { get; private set; }

    /// <summary>True once the site is known.</summary>
    public bool IsKnown => _memory is not null;

    /// <summary>What is kept of it.</summary>
    /// <exception cref="InvalidOperationException">Nobody has said which site it is.</exception>
    public SiteMemory Memory => _memory ?? throw new InvalidOperationException("Which site this is about has not been said.");

    /// <summary>Says which site it is.</summary>
    public void Enter(SiteEntry site)
    {
        Entry = site;
        _memory = registry.Of(site.Id);
    }

    /// <summary>Says which site it is, where only its identity is known.</summary>
    public void Enter(Guid site) => _memory = registry.Of(site);
}

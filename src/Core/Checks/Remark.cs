using UnrulyMeadow.Core.Planning;

namespace UnrulyMeadow.Core.Checks;

/// <summary>How much hangs on a remark, the gravest first.</summary>
public enum Gravity
{
    /// <summary>It cannot be planted so, or plants are lost.</summary>
    Loses,

    /// <summary>Plants stand, but flower less, stall, or do harm.</summary>
    Weakens,

    /// <summary>It looks less well than it could.</summary>
    Looks,

    /// <summary>It goes against a house rule that the crew has chosen.</summary>
    AgainstRule,

    /// <summary>Worth knowing; nothing is wrong.</summary>
    Reminds,
}

/// <summary>A change of the display that would put a remark right.</summary>
/// <param name="Say">What it does, in a few words that begin with a verb.</param>
/// <param name="After">The display with the change made.</param>
public sealed record Remedy(string Say, Display After);

/// <summary>Something worth a look in a display, with its reason and ways to mend it. It warns and never forbids.</summary>
/// <param name="PlanterId">The planter.</param>
/// <param name="DisplayId">The display.</param>
/// <param name="What">What, in a few words; no display has two remarks of the same words.</param>
/// <param name="Why">Why, with the figures.</param>
/// <param name="Mend">What would put it right.</param>
/// <param name="Working">The arithmetic.</param>
public sealed record Remark(string PlanterId, string DisplayId, string What, string Why, string Mend, Working Working)
{
    /// <summary>How much hangs on it.</summary>
    public Gravity Gravity { get; init; } = Gravity.Weakens;

    /// <summary>Changes that can be made at once, the best first; may be empty.</summary>
    public IReadOnlyList<Remedy> Remedies { get; init; } = [];
}

using UnrulyMeadow.Core.Facts;
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
/// <param name="Does">What it does.</param>
/// <param name="After">The display with the change made.</param>
public sealed record Remedy(Fact Does, Display After);

/// <summary>Something worth a look in a display, with its reason and ways to mend it. It warns and never forbids.</summary>
/// <param name="PlanterId">The planter.</param>
/// <param name="DisplayId">The display; it has no two remarks of one kind on the same things.</param>
/// <param name="Gravity">How much hangs on it.</param>
/// <param name="Says">What is so, of a <see cref="RemarkKind"/>.</param>
/// <param name="Working">The arithmetic.</param>
public sealed record Remark(string PlanterId, string DisplayId, Gravity Gravity, Fact Says, Working Working)
{
    /// <summary>True when nothing may be proposed that it is said of: plants lost or weakened, or a house rule broken.</summary>
    public bool SpeaksAgainst => Gravity is Gravity.Loses or Gravity.Weakens or Gravity.AgainstRule;

    /// <summary>What is so.</summary>
    public RemarkKind Kind => (RemarkKind)Says.Kind;

    /// <summary>Changes that can be made at once, the best first; may be empty.</summary>
    public IReadOnlyList<Remedy> Remedies { get; init; } = [];
}

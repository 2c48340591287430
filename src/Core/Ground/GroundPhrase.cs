namespace UnrulyMeadow.Core.Ground;

/// <summary>What a place in the ground is.</summary>
public enum GroundPhrase
{
    /// <summary>A bed under its cover.</summary>
    BedUnder,

    /// <summary>A container.</summary>
    Container,

    /// <summary>A depth in it.</summary>
    At,
}

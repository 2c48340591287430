namespace UnrulyMeadow.Core.Ground;

/// <summary>What a climate does to a planter, besides killing roots.</summary>
public enum GroundRemarkKind
{
    /// <summary>The root zone is frozen while the air thaws.</summary>
    EvergreensDryOut,

    /// <summary>Its wall freezes and thaws often.</summary>
    PotMayCrack,

    /// <summary>Water stands over a frozen floor.</summary>
    DrainFreezesShut,

    /// <summary>Cool medium stays wet.</summary>
    BulbsMayRot,

    /// <summary>Roots along the wall are too hot.</summary>
    RootsOverheat,
}

namespace UnrulyMeadow.Core.Planters;

/// <summary>What keeps water in a planter.</summary>
public enum DrainageHinder
{
    /// <summary>The soil is often saturated.</summary>
    SaturatedSoil,

    /// <summary>Heavy clay.</summary>
    HeavyClay,

    /// <summary>A container without a hole.</summary>
    NoHole,

    /// <summary>Few holes for its surface.</summary>
    TooFewHoles,

    /// <summary>It stands flat on the ground.</summary>
    FlatOnTheGround,

    /// <summary>Gravel lies over the hole.</summary>
    GravelOverTheHole,

    /// <summary>Garden clay in a container.</summary>
    ClayInAContainer,
}

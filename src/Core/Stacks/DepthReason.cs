namespace UnrulyMeadow.Core.Stacks;

/// <summary>How a bulb came to its depth.</summary>
public enum DepthReason
{
    /// <summary>Three times the bulb's own height.</summary>
    ByHeight,

    /// <summary>The deep school's depth for large bulbs.</summary>
    DeepSchool,

    /// <summary>Low enough for its tip to clear the layer above.</summary>
    BelowTheLayerAbove,

    /// <summary>Chosen by hand.</summary>
    Chosen,

    /// <summary>As deep as a stacked container goes.</summary>
    DeepestOfAStack,
}

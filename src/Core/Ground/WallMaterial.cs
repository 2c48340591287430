namespace UnrulyMeadow.Core.Ground;

/// <summary>What a container's wall is made of.</summary>
public enum WallMaterial
{
    /// <summary>A bed has no wall.</summary>
    None,

    /// <summary>Unglazed clay.</summary>
    Terracotta,

    /// <summary>Glazed stoneware.</summary>
    Glazed,

    /// <summary>Wood.</summary>
    Timber,

    /// <summary>Metal.</summary>
    Metal,

    /// <summary>Plastic or resin.</summary>
    Plastic,

    /// <summary>Concrete or stone.</summary>
    Concrete,

    /// <summary>A basket's fibre liner.</summary>
    Fibre,
}

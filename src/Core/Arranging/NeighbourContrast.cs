namespace UnrulyMeadow.Core.Arranging;

/// <summary>In what two neighbours differ.</summary>
public enum NeighbourContrast
{
    /// <summary>Height.</summary>
    Height,

    /// <summary>Texture.</summary>
    Texture,

    /// <summary>Habit.</summary>
    Form,

    /// <summary>Colour.</summary>
    Colour,
}

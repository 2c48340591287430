namespace UnrulyMeadow.Core.Colour;

/// <summary>The plain word for a colour, as somebody says it when looking for a plant.</summary>
public enum ColourWord
{
    /// <summary>White.</summary>
    White,

    /// <summary>Cream.</summary>
    Cream,

    /// <summary>Yellow.</summary>
    Yellow,

    /// <summary>Orange.</summary>
    Orange,

    /// <summary>Red.</summary>
    Red,

    /// <summary>Pink.</summary>
    Pink,

    /// <summary>Magenta.</summary>
    Magenta,

    /// <summary>Purple.</summary>
    Purple,

    /// <summary>Lavender.</summary>
    Lavender,

    /// <summary>Blue.</summary>
    Blue,

    /// <summary>Green.</summary>
    Green,

    /// <summary>Brown.</summary>
    Brown,

    /// <summary>Black.</summary>
    Black,

    /// <summary>Silver.</summary>
    Silver,
}

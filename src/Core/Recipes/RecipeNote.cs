namespace UnrulyMeadow.Core.Recipes;

/// <summary>What is to be said of a recipe planted elsewhere, and of each of its kinds.</summary>
public enum RecipeNote
{
    /// <summary>The insides are the same.</summary>
    SameInside,

    /// <summary>It was made for another shape.</summary>
    AnotherShape,

    /// <summary>It was made for another size.</summary>
    AnotherSize,

    /// <summary>A centrepiece stays single.</summary>
    CentrepieceStaysSingle,

    /// <summary>A much larger surface repeats the centrepiece.</summary>
    CentrepieceRepeats,

    /// <summary>Solved for the same cover.</summary>
    SameCover,

    /// <summary>A bulb is left out, for the planter is too shallow.</summary>
    LeftOut,

    /// <summary>It lies too deep for this planter.</summary>
    TooDeep,

    /// <summary>Not one fits.</summary>
    NoneFits,

    /// <summary>The same share of its layer.</summary>
    SameShareOfLayer,
}

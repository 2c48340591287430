namespace UnrulyMeadow.Core.Stacks;

/// <summary>What can be wrong with a bulb stack. The words stand in the Wording project.</summary>
public enum StackProblem
{
    /// <summary>A base lies deeper than the planter leaves.</summary>
    TooDeep,

    /// <summary>A bulb would stand out of the medium.</summary>
    StandsOut,

    /// <summary>Not one fits at its depth.</summary>
    DoesNotFit,

    /// <summary>Kinds at one height do not fit beside each other.</summary>
    NotBesideEachOther,

    /// <summary>More are planned than fit without touching.</summary>
    TooMany,

    /// <summary>The bulbs need more than the bed has at their spacings.</summary>
    BedOverfilled,
}

namespace UnrulyMeadow.Core.Acts;

/// <summary>What is done to many planters at once.</summary>
public enum ActKind
{
    /// <summary>A recipe is planted, scaled to each planter.</summary>
    PlantRecipe,

    /// <summary>A display is planted in other planters too, scaled to each.</summary>
    CopyDisplay,

    /// <summary>All seasonal and bulb displays of one planter in the plan year are planted in others.</summary>
    CopyYear,

    /// <summary>What went in during the plan year before goes in again.</summary>
    SameAsLastYear,

    /// <summary>What goes in with another planter of its look group goes in here too.</summary>
    SameAsPair,

    /// <summary>What goes in during the plan year goes in some days later or earlier.</summary>
    MoveByDays,

    /// <summary>What goes in near a turn goes in with it.</summary>
    MoveToTurn,

    /// <summary>One kind is planted instead of another.</summary>
    ReplaceKind,

    /// <summary>What is still to go in is taken out of the plan.</summary>
    TakeOut,
}

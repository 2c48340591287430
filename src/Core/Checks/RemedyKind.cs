namespace UnrulyMeadow.Core.Checks;

/// <summary>What a remedy can do to a display. The words stand in the Wording project.</summary>
public enum RemedyKind
{
    /// <summary>Put another plant in the place of one.</summary>
    PutInItsPlace,

    /// <summary>Plant another count of a kind.</summary>
    PlantCount,

    /// <summary>Plant a share of each kind.</summary>
    PlantShareOfEach,

    /// <summary>Plant so many in all.</summary>
    PlantInAll,

    /// <summary>Plant it on another day.</summary>
    PlantOn,

    /// <summary>Plant it on a later day, hardened off until then.</summary>
    HardenOffUntil,

    /// <summary>Plant the bulbs on the day of the plants over them.</summary>
    PlantBulbsWithThem,

    /// <summary>Lift it on another day.</summary>
    LiftOn,

    /// <summary>Lift it before winter.</summary>
    LiftBeforeWinter,

    /// <summary>Lift the stack after bloom.</summary>
    LiftAfterBloom,

    /// <summary>Leave it for three springs.</summary>
    LeaveForThreeSprings,

    /// <summary>Leave it until its leaves are brown.</summary>
    LeaveUntilBrown,

    /// <summary>Leave a kind out.</summary>
    LeaveOut,

    /// <summary>Lay a bulb at the depth of the rule.</summary>
    LayByTheRule,

    /// <summary>Set a kind in clumps.</summary>
    SetInClumps,

    /// <summary>Name two kinds a pair.</summary>
    NameThemAPair,

    /// <summary>Lay the display out anew.</summary>
    LayOutAnew,

    /// <summary>Plant it like another planter.</summary>
    PlantLike,

    /// <summary>Add plants of a kind.</summary>
    AddPlants,

    /// <summary>Buy it in another form.</summary>
    BuyAs,
}

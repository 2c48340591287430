namespace UnrulyMeadow.Core.Work;

/// <summary>What a day sheet asks of the crew at a planter. The words stand in the Wording project.</summary>
public enum StepKind
{
    /// <summary>The drip line comes out before planting.</summary>
    DripLineOut,

    /// <summary>What stays is lifted, and set back over bulbs.</summary>
    LiftAndSetBack,

    /// <summary>Bulbs that stay limit how deep may be dug.</summary>
    DigNoDeeper,

    /// <summary>Tulips are composted, other bulbs heeled in.</summary>
    TulipsAreAnnual,

    /// <summary>Bulbs are lifted with their leaves and heeled in.</summary>
    HeelBulbsIn,

    /// <summary>Shards or gravel go over the hole.</summary>
    GravelOverTheHole,

    /// <summary>Acid medium and soft water.</summary>
    AcidMedium,

    /// <summary>Fresh medium on top is laid aside and what lies below it renewed.</summary>
    RenewBelowFresh,

    /// <summary>The container is filled with new medium.</summary>
    FillWithNew,

    /// <summary>All the medium is taken out and replaced.</summary>
    ReplaceAllMedium,

    /// <summary>The top of the medium is renewed.</summary>
    RenewTheTop,

    /// <summary>The medium is fresh and only loosened.</summary>
    LoosenMedium,

    /// <summary>Bulbs are tilted outward.</summary>
    TiltBulbs,

    /// <summary>Bulbs are set upright.</summary>
    SetBulbsUpright,

    /// <summary>Bulb food goes into the hole.</summary>
    BulbFoodInTheHole,

    /// <summary>No feed goes into the hole.</summary>
    NoFeedInTheHole,

    /// <summary>Plants grown on from plugs are taken when their roots hold the ball.</summary>
    TakeGrownPlugs,

    /// <summary>Plants are taken in bud.</summary>
    TakeInBud,

    /// <summary>Plants are taken in full colour.</summary>
    TakeInColour,

    /// <summary>Only hardened stock is planted.</summary>
    OnlyHardenedOff,

    /// <summary>Heaths are watered at the foot.</summary>
    WaterHeathsAtTheFoot,

    /// <summary>Weed fabric is slit in a cross.</summary>
    SlitInACross,

    /// <summary>Weed fabric is slit in a T.</summary>
    SlitInAT,

    /// <summary>Chrysanthemums are planted to stay.</summary>
    ChrysanthemumsStay,

    /// <summary>What is not past its best stays.</summary>
    LookFirst,

    /// <summary>Bulbs are laid from the deepest layer up.</summary>
    DeepestFirst,

    /// <summary>Plants are set out in their pots before they are planted.</summary>
    SetOutInPots,

    /// <summary>Bulbs are watered weekly until the ground freezes.</summary>
    WaterUntilFrozen,
}

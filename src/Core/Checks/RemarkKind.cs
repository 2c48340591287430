namespace UnrulyMeadow.Core.Checks;

/// <summary>What a remark on a display can say. The words stand in the Wording project.</summary>
public enum RemarkKind
{
    /// <summary>Frost spoils flower and leaf well before the plant comes out.</summary>
    SpoiledByFrost,

    /// <summary>It goes out before the frost all-clear.</summary>
    BeforeAllClear,

    /// <summary>It comes unhardened from a warm house, and frost takes it in its first week.</summary>
    SoftFromWarmHouse,

    /// <summary>Winter may spoil its lasting tops.</summary>
    CutBackByWinter,

    /// <summary>Its roots may die in the container in winter.</summary>
    RootsLostInWinter,

    /// <summary>A bulb goes in with too little cold ahead.</summary>
    TooLittleCold,

    /// <summary>It goes where the soil rests from its genus after a disease.</summary>
    SoilRests,

    /// <summary>A layer of a bulb stack does not fit its planter.</summary>
    StackDoesNotFit,

    /// <summary>The bulbs need more than the bed has at their spacings.</summary>
    BedOverfilled,

    /// <summary>Plants set shortly before have to be lifted for bulbs that go in below them.</summary>
    LiftedForBulbs,

    /// <summary>Too few bulbs of one kind to read as a group.</summary>
    TooFewForAGroup,

    /// <summary>Few bulbs for so large a bed.</summary>
    FewBulbsForTheBed,

    /// <summary>Two kinds that are nearly alike flower together.</summary>
    LookMixedUp,

    /// <summary>Leaves of a tall late bulb stand over the flowers of a small early one.</summary>
    LeavesOverFlowers,

    /// <summary>Leaves die down with nothing over them.</summary>
    LeavesDieInTheOpen,

    /// <summary>A pair that should flower together mostly does not.</summary>
    SeldomTogether,

    /// <summary>A pair of which one should follow the other mostly does not.</summary>
    SeldomFollows,

    /// <summary>It stands in too much sun.</summary>
    TooMuchSun,

    /// <summary>It stands in too little sun.</summary>
    TooLittleSun,

    /// <summary>Two plants in one planter want different water.</summary>
    DifferentWater,

    /// <summary>The measured pH is outside what it wants.</summary>
    PhOutOfRange,

    /// <summary>Two plants in one planter want different medium.</summary>
    DifferentMedium,

    /// <summary>It rots in a planter that drains poorly.</summary>
    TooWet,

    /// <summary>A week as hot as comes in most years stops its flowers.</summary>
    StallsInHeat,

    /// <summary>It comes to stand higher than sightline or wind allow.</summary>
    TooHigh,

    /// <summary>It comes to stand higher than looks right by the planter.</summary>
    TallForThePlanter,

    /// <summary>Its roots want more depth of medium.</summary>
    LacksDepth,

    /// <summary>It stands too many years in one container.</summary>
    BecomesRootBound,

    /// <summary>It is not sold in the form that was chosen.</summary>
    NotSoldSo,

    /// <summary>It is bought as plugs that have to be grown on.</summary>
    BoughtAsPlugs,

    /// <summary>What is at hand has stood long in nursery pots.</summary>
    AtHandRootBound,

    /// <summary>It irritates skin where people touch it.</summary>
    IrritatesSkin,

    /// <summary>It is poisonous where people or animals come near.</summary>
    PoisonousNear,

    /// <summary>Poisonous bulbs lie where dogs dig or children play.</summary>
    PoisonousBulbs,

    /// <summary>It bears berries only with a partner, and none stands on the site.</summary>
    WithoutPartner,

    /// <summary>A strong plant takes the light of a weaker one.</summary>
    Overgrows,

    /// <summary>It is hidden behind its neighbours.</summary>
    HiddenBehind,

    /// <summary>Something tall stands before ornamental stems.</summary>
    BeforeStems,

    /// <summary>It does not find room beside what stays.</summary>
    NoRoomBesideWhatStays,

    /// <summary>More plants than the surface holds.</summary>
    MorePlantsThanFit,

    /// <summary>Two neighbours differ in nothing.</summary>
    LostInEachOther,

    /// <summary>The colours do not follow the school that is chosen.</summary>
    ColoursAgainstTheRule,

    /// <summary>One colour without a change of height or texture.</summary>
    OneColourWithoutChange,

    /// <summary>It is not planted like the other of its pair.</summary>
    UnlikeItsPair,

    /// <summary>It echoes nothing of its group.</summary>
    EchoesNothing,

    /// <summary>Tulips stay after bloom where they are annual.</summary>
    TulipsStay,

    /// <summary>Tulips are lifted before their leaves have died down where they are perennial.</summary>
    TulipsLiftedEarly,

    /// <summary>A chrysanthemum goes in too late, or not into the ground, to live through winter.</summary>
    ChrysanthemumTooLate,

    /// <summary>A chrysanthemum stands on into winter where it is an annual.</summary>
    ChrysanthemumIntoWinter,

    /// <summary>Planted closer than it can grow.</summary>
    PlantedTooClose,

    /// <summary>Planted too thin to fill.</summary>
    PlantedTooThin,

    /// <summary>The lead is too near its pot in colour.</summary>
    DoesNotStandOffItsPot,

    /// <summary>The lead is too near the wall behind in colour.</summary>
    DoesNotStandOffTheWall,

    /// <summary>The pot is not like those of its group.</summary>
    PotUnlikeItsGroup,
}

namespace UnrulyMeadow.Core.Facts;

/// <summary>Figures whose arithmetic can be shown. Name, rule and source of each stand in the Wording project.</summary>
public enum WorkingKind
{
    /// <summary>Annual tulips.</summary>
    AnnualTulips,

    /// <summary>Arrangement.</summary>
    Arrangement,

    /// <summary>Bare spell.</summary>
    BareSpell,

    /// <summary>Bare spells closed.</summary>
    BareSpellsClosed,

    /// <summary>Before ornamental bark.</summary>
    BeforeOrnamentalBark,

    /// <summary>Bulb depth and count.</summary>
    BulbDepthAndCount,

    /// <summary>Bulb sequence.</summary>
    BulbSequence,

    /// <summary>Bulb sequence finding.</summary>
    BulbSequenceFinding,

    /// <summary>Bulbs in bed.</summary>
    BulbsInBed,

    /// <summary>Bulbs spread over spring.</summary>
    BulbsSpreadOverSpring,

    /// <summary>Cluster size.</summary>
    ClusterSize,

    /// <summary>Cold weeks.</summary>
    ColdWeeks,

    /// <summary>Colour difference.</summary>
    ColourDifference,

    /// <summary>Colour relation.</summary>
    ColourRelation,

    /// <summary>Colour scheme.</summary>
    ColourScheme,

    /// <summary>Daily normals.</summary>
    DailyNormals,

    /// <summary>Days in nursery pots.</summary>
    DaysInNurseryPots,

    /// <summary>Days of colour gained.</summary>
    DaysOfColourGained,

    /// <summary>Depth for roots.</summary>
    DepthForRoots,

    /// <summary>Direct sun.</summary>
    DirectSun,

    /// <summary>Drainage.</summary>
    Drainage,

    /// <summary>Echoing pair.</summary>
    EchoingPair,

    /// <summary>Event outlook.</summary>
    EventOutlook,

    /// <summary>Fall chrysanthemums.</summary>
    FallChrysanthemums,

    /// <summary>Feed.</summary>
    Feed,

    /// <summary>First colour.</summary>
    FirstColour,

    /// <summary>First colour by thermal time.</summary>
    FirstColourByThermalTime,

    /// <summary>Form sold.</summary>
    FormSold,

    /// <summary>Frost date.</summary>
    FrostDate,

    /// <summary>Frost on tops.</summary>
    FrostOnTops,

    /// <summary>Greatest height.</summary>
    GreatestHeight,

    /// <summary>Ground freeze.</summary>
    GroundFreeze,

    /// <summary>Ground remark.</summary>
    GroundRemark,

    /// <summary>Growing on.</summary>
    GrowingOn,

    /// <summary>Growing season.</summary>
    GrowingSeason,

    /// <summary>Hand over.</summary>
    HandOver,

    /// <summary>Hardiness zone.</summary>
    HardinessZone,

    /// <summary>Harm.</summary>
    Harm,

    /// <summary>Heat.</summary>
    Heat,

    /// <summary>Heat index.</summary>
    HeatIndex,

    /// <summary>Hot days.</summary>
    HotDays,

    /// <summary>Identical pair.</summary>
    IdenticalPair,

    /// <summary>Jump of yearly mean.</summary>
    JumpOfYearlyMean,

    /// <summary>Kinds over planters.</summary>
    KindsOverPlanters,

    /// <summary>Leaves die down.</summary>
    LeavesDieDown,

    /// <summary>Leaves over flower.</summary>
    LeavesOverFlower,

    /// <summary>Lift and set back.</summary>
    LiftAndSetBack,

    /// <summary>Light.</summary>
    Light,

    /// <summary>Lowest by month.</summary>
    LowestByMonth,

    /// <summary>Medium for all.</summary>
    MediumForAll,

    /// <summary>Medium ph.</summary>
    MediumPh,

    /// <summary>Month means.</summary>
    MonthMeans,

    /// <summary>Nearly alike.</summary>
    NearlyAlike,

    /// <summary>Neighbour difference.</summary>
    NeighbourDifference,

    /// <summary>Outline from measured sides.</summary>
    OutlineFromMeasuredSides,

    /// <summary>Overgrown.</summary>
    Overgrown,

    /// <summary>Pair odds.</summary>
    PairOdds,

    /// <summary>Palette check.</summary>
    PaletteCheck,

    /// <summary>Partner.</summary>
    Partner,

    /// <summary>Path balance.</summary>
    PathBalance,

    /// <summary>Perennial tulips.</summary>
    PerennialTulips,

    /// <summary>Plan year cost.</summary>
    PlanYearCost,

    /// <summary>Plant days in colour.</summary>
    PlantDaysInColour,

    /// <summary>Plant days of colour.</summary>
    PlantDaysOfColour,

    /// <summary>Plant fit.</summary>
    PlantFit,

    /// <summary>Plant order.</summary>
    PlantOrder,

    /// <summary>Planter days in colour.</summary>
    PlanterDaysInColour,

    /// <summary>Planter volume.</summary>
    PlanterVolume,

    /// <summary>Planter weight.</summary>
    PlanterWeight,

    /// <summary>Planters in colour on day.</summary>
    PlantersInColourOnDay,

    /// <summary>Planting window.</summary>
    PlantingWindow,

    /// <summary>Plants for cover.</summary>
    PlantsForCover,

    /// <summary>Pot colours.</summary>
    PotColours,

    /// <summary>Rehearsal result.</summary>
    RehearsalResult,

    /// <summary>Rest after disease.</summary>
    RestAfterDisease,

    /// <summary>Room on surface.</summary>
    RoomOnSurface,

    /// <summary>Rooting before winter.</summary>
    RootingBeforeWinter,

    /// <summary>Roots live through winter.</summary>
    RootsLiveThroughWinter,

    /// <summary>Sequence move.</summary>
    SequenceMove,

    /// <summary>Share seen.</summary>
    ShareSeen,

    /// <summary>Site score.</summary>
    SiteScore,

    /// <summary>Stack proposal.</summary>
    StackProposal,

    /// <summary>Sun as trees grow.</summary>
    SunAsTreesGrow,

    /// <summary>Temperature inside planter.</summary>
    TemperatureInsidePlanter,

    /// <summary>Turn cost.</summary>
    TurnCost,

    /// <summary>Turn day.</summary>
    TurnDay,

    /// <summary>Turn from day.</summary>
    TurnFromDay,

    /// <summary>Turn medium.</summary>
    TurnMedium,

    /// <summary>Warm season.</summary>
    WarmSeason,

    /// <summary>Water.</summary>
    Water,

    /// <summary>Yearly trend.</summary>
    YearlyTrend,

    /// <summary>Years in container.</summary>
    YearsInContainer,

    /// <summary>Years left out.</summary>
    YearsLeftOut,

    /// <summary>Sun position.</summary>
    SunPosition,

    /// <summary>Reference evapotranspiration.</summary>
    ReferenceEvapotranspiration,

    /// <summary>Discs that fit.</summary>
    DiscsThatFit,

    /// <summary>Lab difference.</summary>
    LabDifference,

    /// <summary>Pack order.</summary>
    PackOrder,

    /// <summary>A supplier's bill.</summary>
    SupplierBill,

    /// <summary>The last day to order.</summary>
    OrderDeadline,

    /// <summary>Room taken in the holding area.</summary>
    HoldingRoom,

    /// <summary>Minutes of people that work takes.</summary>
    LabourMinutes,

    /// <summary>How good a schedule is.</summary>
    CrewSchedule,

    /// <summary>What is loaded for some work.</summary>
    VehicleLoad,

    /// <summary>How long a day's ways are.</summary>
    CrewRoute,

    /// <summary>What a planter uses, gets and lacks.</summary>
    PlanterWater,

    /// <summary>Odds that a night spoils a plant.</summary>
    ColdNightOdds,

    /// <summary>Feed dissolved in water.</summary>
    LiquidFeed,

    /// <summary>How much later a kind opens at a site than reckoned.</summary>
    DatesLearnt,

    /// <summary>Which share of what is planted is lost at a site.</summary>
    LossesLearnt,

    /// <summary>How long a kind shows here, learnt.</summary>
    ShowsLearnt,

    /// <summary>How full a kind grows here, learnt.</summary>
    FullnessLearnt,

    /// <summary>How much later a sort of place is, learnt.</summary>
    PlacesLearnt,

    /// <summary>Which kind does best in a trial.</summary>
    TrialResult,
}

namespace UnrulyMeadow.Core.Facts;

/// <summary>What a working says of its figures. The words stand in the Wording project.</summary>
public enum WorkingPhrase
{
    /// <summary>About just seen side side neighbours.</summary>
    AboutJustSeenSideSideNeighbours,

    /// <summary>Above medium.</summary>
    AboveMedium,

    /// <summary>Above medium away.</summary>
    AboveMediumAway,

    /// <summary>Against kind planned.</summary>
    AgainstKindPlanned,

    /// <summary>All round.</summary>
    AllRound,

    /// <summary>Annual.</summary>
    Annual,

    /// <summary>Another class in.</summary>
    AnotherClassIn,

    /// <summary>Apart neither near nor opposite.</summary>
    ApartNeitherNearNorOpposite,

    /// <summary>Area outline less holes times depth.</summary>
    AreaOutlineLessHolesTimesDepth,

    /// <summary>Area surface half way floor.</summary>
    AreaSurfaceHalfWayFloor,

    /// <summary>Around january.</summary>
    AroundJanuary,

    /// <summary>Around july.</summary>
    AroundJuly,

    /// <summary>Arrangement high.</summary>
    ArrangementHigh,

    /// <summary>As planned.</summary>
    AsPlanned,

    /// <summary>As you like.</summary>
    AsYouLike,

    /// <summary>Bare spells closed planter days.</summary>
    BareSpellsClosedPlanterDays,

    /// <summary>Bare spells longest days.</summary>
    BareSpellsLongestDays,

    /// <summary>Before after.</summary>
    BeforeAfter,

    /// <summary>Before noon after.</summary>
    BeforeNoonAfter,

    /// <summary>Before ornamental bark value height.</summary>
    BeforeOrnamentalBarkValueHeight,

    /// <summary>Beside.</summary>
    Beside,

    /// <summary>Beside lead.</summary>
    BesideLead,

    /// <summary>Best bulb each week no stack.</summary>
    BestBulbEachWeekNoStack,

    /// <summary>Bulb depth and count high wide.</summary>
    BulbDepthAndCountHighWide,

    /// <summary>Bulb depth and count inside that depth.</summary>
    BulbDepthAndCountInsideThatDepth,

    /// <summary>Bulb depth and count inside that depth pair.</summary>
    BulbDepthAndCountInsideThatDepthPair,

    /// <summary>Bulb depth and count value fit.</summary>
    BulbDepthAndCountValueFit,

    /// <summary>Bulb sequence planters.</summary>
    BulbSequencePlanters,

    /// <summary>Bulb sequence planters with bulbs.</summary>
    BulbSequencePlantersWithBulbs,

    /// <summary>Bulb sequence site spring.</summary>
    BulbSequenceSiteSpring,

    /// <summary>Bulbs in bed value.</summary>
    BulbsInBedValue,

    /// <summary>Bulbs spread over spring value exchanges.</summary>
    BulbsSpreadOverSpringValueExchanges,

    /// <summary>Buy again.</summary>
    BuyAgain,

    /// <summary>Calendar turn.</summary>
    CalendarTurn,

    /// <summary>Cannot topple.</summary>
    CannotTopple,

    /// <summary>Cluster size bulb high.</summary>
    ClusterSizeBulbHigh,

    /// <summary>Cluster size value least.</summary>
    ClusterSizeValueLeast,

    /// <summary>Cold then weeks in middle year.</summary>
    ColdThenWeeksInMiddleYear,

    /// <summary>Cold weeks wanted weeks.</summary>
    ColdWeeksWantedWeeks,

    /// <summary>Cold weeks where deep.</summary>
    ColdWeeksWhereDeep,

    /// <summary>Colour on in colour.</summary>
    ColourOnInColour,

    /// <summary>Colour scheme surface.</summary>
    ColourSchemeSurface,

    /// <summary>Colour steady ready.</summary>
    ColourSteadyReady,

    /// <summary>Contrast.</summary>
    Contrast,

    /// <summary>Cool in middle fall in nine.</summary>
    CoolInMiddleFallInNine,

    /// <summary>Covered when planted on day.</summary>
    CoveredWhenPlantedOnDay,

    /// <summary>Daily normals with day before lowest highest.</summary>
    DailyNormalsWithDayBeforeLowestHighest,

    /// <summary>Day after.</summary>
    DayAfter,

    /// <summary>Day full month.</summary>
    DayFullMonth,

    /// <summary>Day in summer.</summary>
    DayInSummer,

    /// <summary>Day of the year.</summary>
    DayOfTheYear,

    /// <summary>Days bare in years.</summary>
    DaysBareInYears,

    /// <summary>Days in bulb flower.</summary>
    DaysInBulbFlower,

    /// <summary>Days in colour.</summary>
    DaysInColour,

    /// <summary>Days in middle year.</summary>
    DaysInMiddleYear,

    /// <summary>Days later.</summary>
    DaysLater,

    /// <summary>Days of colour gained bare before each years.</summary>
    DaysOfColourGainedBareBeforeEachYears,

    /// <summary>Days of colour gained cost hand.</summary>
    DaysOfColourGainedCostHand,

    /// <summary>Days of colour gained step.</summary>
    DaysOfColourGainedStep,

    /// <summary>Days together.</summary>
    DaysTogether,

    /// <summary>Days without flower.</summary>
    DaysWithoutFlower,

    /// <summary>Days without flower in years broken.</summary>
    DaysWithoutFlowerInYearsBroken,

    /// <summary>Deepest ice.</summary>
    DeepestIce,

    /// <summary>Differ in.</summary>
    DifferIn,

    /// <summary>Discs in circle radius ratio fit.</summary>
    DiscsInCircleRadiusRatioFit,

    /// <summary>Discs in fit best lattice tried.</summary>
    DiscsInFitBestLatticeTried,

    /// <summary>Discs with centres least inside outline.</summary>
    DiscsWithCentresLeastInsideOutline,

    /// <summary>Does not flower.</summary>
    DoesNotFlower,

    /// <summary>Dry empty.</summary>
    DryEmpty,

    /// <summary>Elliptic sides down flat floor sin.</summary>
    EllipticSidesDownFlatFloorSin,

    /// <summary>Energy in against energy found what.</summary>
    EnergyInAgainstEnergyFoundWhat,

    /// <summary>Established.</summary>
    Established,

    /// <summary>Event outlook least likely each.</summary>
    EventOutlookLeastLikelyEach,

    /// <summary>Event outlook value planters.</summary>
    EventOutlookValuePlanters,

    /// <summary>Feed step.</summary>
    FeedStep,

    /// <summary>First colour by thermal time show days.</summary>
    FirstColourByThermalTimeShowDays,

    /// <summary>First colour by thermal time weeks cold.</summary>
    FirstColourByThermalTimeWeeksCold,

    /// <summary>First colour step each.</summary>
    FirstColourStepEach,

    /// <summary>Flower coloured leaf stem berry green.</summary>
    FlowerColouredLeafStemBerryGreen,

    /// <summary>Following most days between earlier last.</summary>
    FollowingMostDaysBetweenEarlierLast,

    /// <summary>Four times in five true odds.</summary>
    FourTimesInFiveTrueOdds,

    /// <summary>From eyes flowers on stems count.</summary>
    FromEyesFlowersOnStemsCount,

    /// <summary>From most flowering planters.</summary>
    FromMostFloweringPlanters,

    /// <summary>From on.</summary>
    FromOn,

    /// <summary>Frost date rule.</summary>
    FrostDateRule,

    /// <summary>Frost date rule pair.</summary>
    FrostDateRulePair,

    /// <summary>Frost date years used.</summary>
    FrostDateYearsUsed,

    /// <summary>Frost date years used pair.</summary>
    FrostDateYearsUsedPair,

    /// <summary>Frost on tops stands.</summary>
    FrostOnTopsStands,

    /// <summary>Frozen in one winter ten in.</summary>
    FrozenInOneWinterTenIn,

    /// <summary>Frozen on days winter without frost.</summary>
    FrozenOnDaysWinterWithoutFrost,

    /// <summary>Frustum cone.</summary>
    FrustumCone,

    /// <summary>Full sun.</summary>
    FullSun,

    /// <summary>Full width.</summary>
    FullWidth,

    /// <summary>Fully hardened not hardened.</summary>
    FullyHardenedNotHardened,

    /// <summary>Generated from.</summary>
    GeneratedFrom,

    /// <summary>Greatest height above medium.</summary>
    GreatestHeightAboveMedium,

    /// <summary>Ground remark value year.</summary>
    GroundRemarkValueYear,

    /// <summary>Growing on value weeks.</summary>
    GrowingOnValueWeeks,

    /// <summary>Growing season years each.</summary>
    GrowingSeasonYearsEach,

    /// <summary>Half barrel with parabolic staves.</summary>
    HalfBarrelWithParabolicStaves,

    /// <summary>Half ellipsoid cut surface.</summary>
    HalfEllipsoidCutSurface,

    /// <summary>Half open.</summary>
    HalfOpen,

    /// <summary>Half open on.</summary>
    HalfOpenOn,

    /// <summary>Hand laid out in planters.</summary>
    HandLaidOutInPlanters,

    /// <summary>Hand over first colour later year each.</summary>
    HandOverFirstColourLaterYearEach,

    /// <summary>Hand over last colour earlier year each.</summary>
    HandOverLastColourEarlierYearEach,

    /// <summary>Hangs all on hook.</summary>
    HangsAllOnHook,

    /// <summary>Hardiness zone annual minima each.</summary>
    HardinessZoneAnnualMinimaEach,

    /// <summary>Has no colour own.</summary>
    HasNoColourOwn,

    /// <summary>Heat value years.</summary>
    HeatValueYears,

    /// <summary>High.</summary>
    High,

    /// <summary>High wide.</summary>
    HighWide,

    /// <summary>Hot days value year.</summary>
    HotDaysValueYear,

    /// <summary>Hues apart lightness apart difference.</summary>
    HuesApartLightnessApartDifference,

    /// <summary>Hues neither near nor opposite.</summary>
    HuesNeitherNearNorOpposite,

    /// <summary>In flower from.</summary>
    InFlowerFrom,

    /// <summary>In flower on each day.</summary>
    InFlowerOnEachDay,

    /// <summary>Full sun adds up to.</summary>
    FullSunAddsUpTo,

    /// <summary>In poor year in middle in.</summary>
    InPoorYearInMiddleIn,

    /// <summary>In row.</summary>
    InRow,

    /// <summary>In ten years.</summary>
    InTenYears,

    /// <summary>In years.</summary>
    InYears,

    /// <summary>In years plants expected guide prices.</summary>
    InYearsPlantsExpectedGuidePrices,

    /// <summary>Keeps class.</summary>
    KeepsClass,

    /// <summary>Kinds over planters value planters.</summary>
    KindsOverPlantersValuePlanters,

    /// <summary>Lacks days.</summary>
    LacksDays,

    /// <summary>Laid out bulb bulb checked against.</summary>
    LaidOutBulbBulbCheckedAgainst,

    /// <summary>Laid out hand.</summary>
    LaidOutHand,

    /// <summary>Laid out rule.</summary>
    LaidOutRule,

    /// <summary>Leads.</summary>
    Leads,

    /// <summary>Least cost.</summary>
    LeastCost,

    /// <summary>Least cost that keeps weeks that.</summary>
    LeastCostThatKeepsWeeksThat,

    /// <summary>Leaves die down leaves high.</summary>
    LeavesDieDownLeavesHigh,

    /// <summary>Leaves die down value.</summary>
    LeavesDieDownValue,

    /// <summary>Leaves in light least.</summary>
    LeavesInLightLeast,

    /// <summary>Leaves over flower value over.</summary>
    LeavesOverFlowerValueOver,

    /// <summary>Left right as path points are.</summary>
    LeftRightAsPathPointsAre,

    /// <summary>Lift and set back value plants.</summary>
    LiftAndSetBackValuePlants,

    /// <summary>Listed.</summary>
    Listed,

    /// <summary>Listed by semicolons.</summary>
    ListedBySemicolons,

    /// <summary>Longest colour.</summary>
    LongestColour,

    /// <summary>Look again.</summary>
    LookAgain,

    /// <summary>Lost in each other.</summary>
    LostInEachOther,

    /// <summary>Low.</summary>
    Low,

    /// <summary>Low beside high.</summary>
    LowBesideHigh,

    /// <summary>Lowest by month value best.</summary>
    LowestByMonthValueBest,

    /// <summary>Mean lowest standard deviation coldest.</summary>
    MeanLowestStandardDeviationColdest,

    /// <summary>Mean minima.</summary>
    MeanMinima,

    /// <summary>Mean standard deviation days.</summary>
    MeanStandardDeviationDays,

    /// <summary>Medium for all p h.</summary>
    MediumForAllPH,

    /// <summary>Month means value.</summary>
    MonthMeansValue,

    /// <summary>Month means years used.</summary>
    MonthMeansYearsUsed,

    /// <summary>Most below best.</summary>
    MostBelowBest,

    /// <summary>Most weeks each with odds best.</summary>
    MostWeeksEachWithOddsBest,

    /// <summary>Most weeks in which up three.</summary>
    MostWeeksInWhichUpThree,

    /// <summary>Nearly alike heights.</summary>
    NearlyAlikeHeights,

    /// <summary>Nearly alike together days.</summary>
    NearlyAlikeTogetherDays,

    /// <summary>Neighbour difference colours apart.</summary>
    NeighbourDifferenceColoursApart,

    /// <summary>Neighbouring hues.</summary>
    NeighbouringHues,

    /// <summary>Neutral with colour.</summary>
    NeutralWithColour,

    /// <summary>Neutrals only.</summary>
    NeutralsOnly,

    /// <summary>Never.</summary>
    Never,

    /// <summary>Never for week.</summary>
    NeverForWeek,

    /// <summary>Never shows.</summary>
    NeverShows,

    /// <summary>Nine winters in ten give least.</summary>
    NineWintersInTenGiveLeast,

    /// <summary>Nine years in ten have least.</summary>
    NineYearsInTenHaveLeast,

    /// <summary>No.</summary>
    No,

    /// <summary>No bare spell.</summary>
    NoBareSpell,

    /// <summary>No bulbs.</summary>
    NoBulbs,

    /// <summary>No choice among changes found better.</summary>
    NoChoiceAmongChangesFoundBetter,

    /// <summary>No echo.</summary>
    NoEcho,

    /// <summary>No events.</summary>
    NoEvents,

    /// <summary>No limit.</summary>
    NoLimit,

    /// <summary>No more than go in as.</summary>
    NoMoreThanGoInAs,

    /// <summary>No neighbouring station was compared climate.</summary>
    NoNeighbouringStationWasComparedClimate,

    /// <summary>None.</summary>
    None,

    /// <summary>None in most years.</summary>
    NoneInMostYears,

    /// <summary>None on site.</summary>
    NoneOnSite,

    /// <summary>Normal distribution plant own root killing.</summary>
    NormalDistributionPlantOwnRootKilling,

    /// <summary>Normal distribution roots tops hardiness from.</summary>
    NormalDistributionRootsTopsHardinessFrom,

    /// <summary>Not alike.</summary>
    NotAlike,

    /// <summary>Not identical.</summary>
    NotIdentical,

    /// <summary>Not in winters.</summary>
    NotInWinters,

    /// <summary>Not reached closest.</summary>
    NotReachedClosest,

    /// <summary>Nothing.</summary>
    Nothing,

    /// <summary>Nothing bought.</summary>
    NothingBought,

    /// <summary>Nothing exchange.</summary>
    NothingExchange,

    /// <summary>Nothing look again.</summary>
    NothingLookAgain,

    /// <summary>On when soaked.</summary>
    OnWhenSoaked,

    /// <summary>One colour.</summary>
    OneColour,

    /// <summary>One side.</summary>
    OneSide,

    /// <summary>P h.</summary>
    PH,

    /// <summary>Pair odds figure after.</summary>
    PairOddsFigureAfter,

    /// <summary>Pair odds figure with.</summary>
    PairOddsFigureWith,

    /// <summary>Pair odds of each.</summary>
    PairOddsOfEach,

    /// <summary>Pair odds value years.</summary>
    PairOddsValueYears,

    /// <summary>Part sun.</summary>
    PartSun,

    /// <summary>Path.</summary>
    Path,

    /// <summary>Per bulb where house rule wants.</summary>
    PerBulbWhereHouseRuleWants,

    /// <summary>Per litre fresh medium where planters.</summary>
    PerLitreFreshMediumWherePlanters,

    /// <summary>Perennial.</summary>
    Perennial,

    /// <summary>Plain ranks years.</summary>
    PlainRanksYears,

    /// <summary>Plain ranks years none.</summary>
    PlainRanksYearsNone,

    /// <summary>Plan year cost bulbs.</summary>
    PlanYearCostBulbs,

    /// <summary>Plan year cost seasonal plants.</summary>
    PlanYearCostSeasonalPlants,

    /// <summary>Plant days in colour value.</summary>
    PlantDaysInColourValue,

    /// <summary>Plant days of colour early year middle late year.</summary>
    PlantDaysOfColourEarlyYearMiddleLateYear,

    /// <summary>Plant days of colour last colour.</summary>
    PlantDaysOfColourLastColour,

    /// <summary>Plant days of colour spoiled frost roots lost tops years.</summary>
    PlantDaysOfColourSpoiledFrostRootsLostTopsYears,

    /// <summary>Plant days of colour years that show.</summary>
    PlantDaysOfColourYearsThatShow,

    /// <summary>Plant order packs offered each.</summary>
    PlantOrderPacksOfferedEach,

    /// <summary>Plant order planned each.</summary>
    PlantOrderPlannedEach,

    /// <summary>Plant order step.</summary>
    PlantOrderStep,

    /// <summary>Plant order value for.</summary>
    PlantOrderValueFor,

    /// <summary>Planter days.</summary>
    PlanterDays,

    /// <summary>Planter days colour.</summary>
    PlanterDaysColour,

    /// <summary>Planter days colour lost.</summary>
    PlanterDaysColourLost,

    /// <summary>Planter days in bulb flower.</summary>
    PlanterDaysInBulbFlower,

    /// <summary>Planter days in colour.</summary>
    PlanterDaysInColour,

    /// <summary>Planter days in colour value.</summary>
    PlanterDaysInColourValue,

    /// <summary>Planter days losses counted planter day.</summary>
    PlanterDaysLossesCountedPlanterDay,

    /// <summary>Planter days plants.</summary>
    PlanterDaysPlants,

    /// <summary>Planter volume floor.</summary>
    PlanterVolumeFloor,

    /// <summary>Planter volume floor pair.</summary>
    PlanterVolumeFloorPair,

    /// <summary>Planter weight value soaked.</summary>
    PlanterWeightValueSoaked,

    /// <summary>Planter weight wall floor.</summary>
    PlanterWeightWallFloor,

    /// <summary>Planters in colour on day value.</summary>
    PlantersInColourOnDayValue,

    /// <summary>Planters in flower on each day.</summary>
    PlantersInFlowerOnEachDay,

    /// <summary>Planting keeps from edge remain.</summary>
    PlantingKeepsFromEdgeRemain,

    /// <summary>Planting window value.</summary>
    PlantingWindowValue,

    /// <summary>Plants are counted as wide as.</summary>
    PlantsAreCountedAsWideAs,

    /// <summary>Prismatoid.</summary>
    Prismatoid,

    /// <summary>Ranges p h do not meet.</summary>
    RangesPHDoNotMeet,

    /// <summary>Rarely.</summary>
    Rarely,

    /// <summary>Readings in gaps up days were.</summary>
    ReadingsInGapsUpDaysWere,

    /// <summary>Readings were interpolated.</summary>
    ReadingsWereInterpolated,

    /// <summary>Richest together.</summary>
    RichestTogether,

    /// <summary>Rim holds.</summary>
    RimHolds,

    /// <summary>Room on surface.</summary>
    RoomOnSurface,

    /// <summary>Rooting before winter rooting weeks.</summary>
    RootingBeforeWinterRootingWeeks,

    /// <summary>Rooting before winter value.</summary>
    RootingBeforeWinterValue,

    /// <summary>Roots from.</summary>
    RootsFrom,

    /// <summary>Roots live through winter roots die.</summary>
    RootsLiveThroughWinterRootsDie,

    /// <summary>Roots live through winter roots die at part estimated.</summary>
    RootsLiveThroughWinterRootsDieAtPartEstimated,

    /// <summary>Run five days or more in.</summary>
    RunFiveDaysOrMoreIn,

    /// <summary>Sequence move difference colour.</summary>
    SequenceMoveDifferenceColour,

    /// <summary>Shade.</summary>
    Shade,

    /// <summary>Shoelace formula.</summary>
    ShoelaceFormula,

    /// <summary>Site score area each.</summary>
    SiteScoreAreaEach,

    /// <summary>Site score rule.</summary>
    SiteScoreRule,

    /// <summary>Site score step.</summary>
    SiteScoreStep,

    /// <summary>Site score step part.</summary>
    SiteScoreStepPart,

    /// <summary>Site score value.</summary>
    SiteScoreValue,

    /// <summary>Site score weakest months each.</summary>
    SiteScoreWeakestMonthsEach,

    /// <summary>Skyline as measured trees growing as.</summary>
    SkylineAsMeasuredTreesGrowingAs,

    /// <summary>Skyline read off site map walls.</summary>
    SkylineReadOffSiteMapWalls,

    /// <summary>Solid geometry.</summary>
    SolidGeometry,

    /// <summary>Stack proposal in colour without days.</summary>
    StackProposalInColourWithoutDays,

    /// <summary>Stack proposal of each part hand.</summary>
    StackProposalOfEachPartHand,

    /// <summary>Stack proposal weeks bulbs best each week.</summary>
    StackProposalWeeksBulbsBestEachWeek,

    /// <summary>Stack proposal weeks wanted.</summary>
    StackProposalWeeksWanted,

    /// <summary>Standard error days.</summary>
    StandardErrorDays,

    /// <summary>Sun as trees grow day.</summary>
    SunAsTreesGrowDay,

    /// <summary>Take something.</summary>
    TakeSomething,

    /// <summary>Tallest back then down front trailing.</summary>
    TallestBackThenDownFrontTrailing,

    /// <summary>Tallest in centre then down edge.</summary>
    TallestInCentreThenDownEdge,

    /// <summary>Temperature inside planter surface.</summary>
    TemperatureInsidePlanterSurface,

    /// <summary>Thawed frozen water.</summary>
    ThawedFrozenWater,

    /// <summary>Together least days on which both.</summary>
    TogetherLeastDaysOnWhichBoth,

    /// <summary>Turn cost medium bags.</summary>
    TurnCostMediumBags,

    /// <summary>Turn cost step.</summary>
    TurnCostStep,

    /// <summary>Turn from day in years.</summary>
    TurnFromDayInYears,

    /// <summary>Turn from day name grown.</summary>
    TurnFromDayNameGrown,

    /// <summary>Turn medium fresh turn top.</summary>
    TurnMediumFreshTurnTop,

    /// <summary>Turn medium one bag.</summary>
    TurnMediumOneBag,

    /// <summary>Turn medium step.</summary>
    TurnMediumStep,

    /// <summary>Turn medium value bags.</summary>
    TurnMediumValueBags,

    /// <summary>Up what seen.</summary>
    UpWhatSeen,

    /// <summary>Wanted buy.</summary>
    WantedBuy,

    /// <summary>Wanted free.</summary>
    WantedFree,

    /// <summary>Week mean.</summary>
    WeekMean,

    /// <summary>Weeks in middle winter.</summary>
    WeeksInMiddleWinter,

    /// <summary>Wet pot stands firmer deck or.</summary>
    WetPotStandsFirmerDeckOr,

    /// <summary>What seen.</summary>
    WhatSeen,

    /// <summary>What seen in colour shows in.</summary>
    WhatSeenInColourShowsIn,

    /// <summary>What seen weighted.</summary>
    WhatSeenWeighted,

    /// <summary>When past best.</summary>
    WhenPastBest,

    /// <summary>Where people or dogs come near.</summary>
    WherePeopleOrDogsComeNear,

    /// <summary>Wide as bought then grown.</summary>
    WideAsBoughtThenGrown,

    /// <summary>Wide high on day.</summary>
    WideHighOnDay,

    /// <summary>Widest apart.</summary>
    WidestApart,

    /// <summary>Worth years knowledge.</summary>
    WorthYearsKnowledge,

    /// <summary>Years left out record.</summary>
    YearsLeftOutRecord,

    /// <summary>Yes.</summary>
    Yes,

    /// <summary>Years with such a day.</summary>
    YearsWithSuchADay,

    /// <summary>Last spring day.</summary>
    LastSpringDay,

    /// <summary>First fall day.</summary>
    FirstFallDay,

    /// <summary>Normal of a day.</summary>
    NormalOfADay,

    /// <summary>Cover over the tip.</summary>
    CoverOverTheTip,

    /// <summary>Nothing hinders it.</summary>
    NothingHindersIt,

    /// <summary>Yearly mean temperature.</summary>
    YearlyMeanTemperature,

    /// <summary>Last spring frost.</summary>
    LastSpringFrost,

    /// <summary>Days above heat.</summary>
    DaysAboveHeat,

    /// <summary>Mean and lowest.</summary>
    MeanAndLowest,

    /// <summary>Round at the rim.</summary>
    RoundAtTheRim,

    /// <summary>At the rim.</summary>
    AtTheRim,

    /// <summary>Sun stands.</summary>
    SunStands,

    /// <summary>Penman monteith.</summary>
    PenmanMonteith,

    /// <summary>Hargreaves.</summary>
    Hargreaves,

    /// <summary>Wind vapour sun.</summary>
    WindVapourSun,

    /// <summary>Ra and mean.</summary>
    RaAndMean,

    /// <summary>Pack step.</summary>
    PackStep,

    /// <summary>Packs of.</summary>
    PacksOf,

    /// <summary>Bought for.</summary>
    BoughtFor,

    /// <summary>A supplier's bill from its goods.</summary>
    SupplierBillStep,

    /// <summary>A line of a supplier's bill.</summary>
    SupplierBillLine,

    /// <summary>The last day to order from the day on which it is wanted.</summary>
    OrderDeadlineStep,

    /// <summary>Room that goods take in the holding area.</summary>
    HoldingRoomStep,

    /// <summary>Minutes of one kind of work.</summary>
    LabourStep,

    /// <summary>What a schedule costs, in minutes.</summary>
    ScheduleStep,

    /// <summary>What a task takes along.</summary>
    LoadStep,

    /// <summary>A trip with its stops.</summary>
    RouteStep,

    /// <summary>Planned in planters that are not named one by one.</summary>
    PlantOrderPlannedOthers,

    /// <summary>Medium of planters that are not named one by one.</summary>
    TurnMediumOthers,

    /// <summary>Grams in each litre.</summary>
    LiquidFeedStep,

    /// <summary>What a day used, brought and left lacking.</summary>
    WaterStep,

    /// <summary>What is expected, and what spoils.</summary>
    ColdNightStep,

    /// <summary>How late it was in a year.</summary>
    DatesLearntYear,

    /// <summary>What was believed before, and what is now.</summary>
    DatesLearntStep,

    /// <summary>How losses were counted, and between what the share lies.</summary>
    LossesLearntStep,

    /// <summary>A show as seen and as expected.</summary>
    ShowSeen,

    /// <summary>A cover as seen and as expected.</summary>
    FullnessSeen,

    /// <summary>A year of a figure learnt as a share of itself.</summary>
    RatioLearntYear,

    /// <summary>What is believed of it before and after.</summary>
    RatioLearntStep,

    /// <summary>Which kind does best in a trial, and how surely.</summary>
    TrialAnswer,

    /// <summary>What chance does in a trial.</summary>
    TrialChance,
}

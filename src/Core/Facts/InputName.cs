namespace UnrulyMeadow.Core.Facts;

/// <summary>What goes into a working.</summary>
public enum InputName
{
    /// <summary>Air in the shade.</summary>
    AirInTheShade,

    /// <summary>Angles off by.</summary>
    AnglesOffBy,

    /// <summary>Annual minima.</summary>
    AnnualMinima,

    /// <summary>At hand or kept until then.</summary>
    AtHandOrKeptUntilThen,

    /// <summary>At the floor.</summary>
    AtTheFloor,

    /// <summary>B base at bulb depth.</summary>
    BBaseAtBulbDepth,

    /// <summary>Bare before.</summary>
    BareBefore,

    /// <summary>Bare with it alone.</summary>
    BareWithItAlone,

    /// <summary>Before it topples.</summary>
    BeforeItTopples,

    /// <summary>Best cover one year in ten.</summary>
    BestCoverOneYearInTen,

    /// <summary>Best median cover inside it.</summary>
    BestMedianCoverInsideIt,

    /// <summary>Between bulbs.</summary>
    BetweenBulbs,

    /// <summary>Bulb.</summary>
    Bulb,

    /// <summary>Bulb food.</summary>
    BulbFood,

    /// <summary>Bulb leaves still green.</summary>
    BulbLeavesStillGreen,

    /// <summary>Bulbs.</summary>
    Bulbs,

    /// <summary>Bulbs in.</summary>
    BulbsIn,

    /// <summary>Bulbs to buy.</summary>
    BulbsToBuy,

    /// <summary>By area.</summary>
    ByArea,

    /// <summary>By proportion.</summary>
    ByProportion,

    /// <summary>By winter.</summary>
    ByWinter,

    /// <summary>Ceiling.</summary>
    Ceiling,

    /// <summary>Centre to centre.</summary>
    CentreToCentre,

    /// <summary>Chance without a trend.</summary>
    ChanceWithoutATrend,

    /// <summary>Changes proposed.</summary>
    ChangesProposed,

    /// <summary>Changes weighed.</summary>
    ChangesWeighed,

    /// <summary>Chosen.</summary>
    Chosen,

    /// <summary>Cold response.</summary>
    ColdResponse,

    /// <summary>Colours.</summary>
    Colours,

    /// <summary>Comes out.</summary>
    ComesOut,

    /// <summary>Cool by fall.</summary>
    CoolByFall,

    /// <summary>Correlation of lowest and highest.</summary>
    CorrelationOfLowestAndHighest,

    /// <summary>Cost.</summary>
    Cost,

    /// <summary>Cover mean over planters.</summary>
    CoverMeanOverPlanters,

    /// <summary>Covered by others then.</summary>
    CoveredByOthersThen,

    /// <summary>Day.</summary>
    Day,

    /// <summary>Days.</summary>
    Days,

    /// <summary>Difference of colour.</summary>
    DifferenceOfColour,

    /// <summary>Dogs.</summary>
    Dogs,

    /// <summary>Dry medium.</summary>
    DryMedium,

    /// <summary>Early year middle late year first colour.</summary>
    EarlyYearMiddleLateYearFirstColour,

    /// <summary>Eaten by animals.</summary>
    EatenByAnimals,

    /// <summary>Eaten by people.</summary>
    EatenByPeople,

    /// <summary>Evenly spread.</summary>
    EvenlySpread,

    /// <summary>Expected days of colour.</summary>
    ExpectedDaysOfColour,

    /// <summary>Expected share of planter days in colour.</summary>
    ExpectedShareOfPlanterDaysInColour,

    /// <summary>Expected winter losses of it.</summary>
    ExpectedWinterLossesOfIt,

    /// <summary>Eye.</summary>
    Eye,

    /// <summary>Falls.</summary>
    Falls,

    /// <summary>First colour of the later by year.</summary>
    FirstColourOfTheLaterByYear,

    /// <summary>First frozen day by winter.</summary>
    FirstFrozenDayByWinter,

    /// <summary>First under half.</summary>
    FirstUnderHalf,

    /// <summary>Flower and leaf spoiled at.</summary>
    FlowerAndLeafSpoiledAt,

    /// <summary>Forbids it.</summary>
    ForbidsIt,

    /// <summary>Form.</summary>
    Form,

    /// <summary>Fresh at a turn.</summary>
    FreshAtATurn,

    /// <summary>From the edge.</summary>
    FromTheEdge,

    /// <summary>From the wall.</summary>
    FromTheWall,

    /// <summary>Frost takes something within two months.</summary>
    FrostTakesSomethingWithinTwoMonths,

    /// <summary>Frozen by winter.</summary>
    FrozenByWinter,

    /// <summary>Gap at the end.</summary>
    GapAtTheEnd,

    /// <summary>Genus.</summary>
    Genus,

    /// <summary>Goes in.</summary>
    GoesIn,

    /// <summary>Greatest value of the test.</summary>
    GreatestValueOfTheTest,

    /// <summary>Ground freezes.</summary>
    GroundFreezes,

    /// <summary>Group.</summary>
    Group,

    /// <summary>Growth stops below.</summary>
    GrowthStopsBelow,

    /// <summary>Gust.</summary>
    Gust,

    /// <summary>Heat sum threshold.</summary>
    HeatSumThreshold,

    /// <summary>Heights.</summary>
    Heights,

    /// <summary>Hottest week middle year.</summary>
    HottestWeekMiddleYear,

    /// <summary>In colour without it.</summary>
    InColourWithoutIt,

    /// <summary>In flower with it.</summary>
    InFlowerWithIt,

    /// <summary>Inside.</summary>
    Inside,

    /// <summary>Inside at that depth.</summary>
    InsideAtThatDepth,

    /// <summary>Inside depth.</summary>
    InsideDepth,

    /// <summary>Last colour.</summary>
    LastColour,

    /// <summary>Last colour of the earlier by year.</summary>
    LastColourOfTheEarlierByYear,

    /// <summary>Latitude.</summary>
    Latitude,

    /// <summary>Least likely.</summary>
    LeastLikely,

    /// <summary>Leaves.</summary>
    Leaves,

    /// <summary>Leaves brown.</summary>
    LeavesBrown,

    /// <summary>Leaves colder than the station.</summary>
    LeavesColderThanTheStation,

    /// <summary>Left.</summary>
    Left,

    /// <summary>Left out.</summary>
    LeftOut,

    /// <summary>Lines.</summary>
    Lines,

    /// <summary>Lowest by winter.</summary>
    LowestByWinter,

    /// <summary>Masonry.</summary>
    Masonry,

    /// <summary>Mean odds of colour.</summary>
    MeanOddsOfColour,

    /// <summary>Mean odds of colour on event days.</summary>
    MeanOddsOfColourOnEventDays,

    /// <summary>Measured.</summary>
    Measured,

    /// <summary>Median days together.</summary>
    MedianDaysTogether,

    /// <summary>Medium.</summary>
    Medium,

    /// <summary>Most that any choice among them brings.</summary>
    MostThatAnyChoiceAmongThemBrings,

    /// <summary>Most that any choice is worth.</summary>
    MostThatAnyChoiceIsWorth,

    /// <summary>Odds of colour in those weeks.</summary>
    OddsOfColourInThoseWeeks,

    /// <summary>On skin.</summary>
    OnSkin,

    /// <summary>One bag.</summary>
    OneBag,

    /// <summary>One steady series in twenty passes.</summary>
    OneSteadySeriesInTwentyPasses,

    /// <summary>Order.</summary>
    Order,

    /// <summary>Packs offered.</summary>
    PacksOffered,

    /// <summary>Past its best.</summary>
    PastItsBest,

    /// <summary>People come.</summary>
    PeopleCome,

    /// <summary>Planned.</summary>
    Planned,

    /// <summary>Plant least.</summary>
    PlantLeast,

    /// <summary>Plant most.</summary>
    PlantMost,

    /// <summary>Planter.</summary>
    Planter,

    /// <summary>Planters.</summary>
    Planters,

    /// <summary>Planters never bare for a week.</summary>
    PlantersNeverBareForAWeek,

    /// <summary>Planters with bulbs.</summary>
    PlantersWithBulbs,

    /// <summary>Plants.</summary>
    Plants,

    /// <summary>Plants in.</summary>
    PlantsIn,

    /// <summary>Plants lost.</summary>
    PlantsLost,

    /// <summary>Plugs by.</summary>
    PlugsBy,

    /// <summary>Record.</summary>
    Record,

    /// <summary>Relative humidity.</summary>
    RelativeHumidity,

    /// <summary>Right.</summary>
    Right,

    /// <summary>Rim to surface.</summary>
    RimToSurface,

    /// <summary>Rooting.</summary>
    Rooting,

    /// <summary>Roots die at.</summary>
    RootsDieAt,

    /// <summary>Saved by covers.</summary>
    SavedByCovers,

    /// <summary>School.</summary>
    School,

    /// <summary>Seasonal plants.</summary>
    SeasonalPlants,

    /// <summary>Seen.</summary>
    Seen,

    /// <summary>Seen from.</summary>
    SeenFrom,

    /// <summary>Show.</summary>
    Show,

    /// <summary>Sightline.</summary>
    Sightline,

    /// <summary>Since.</summary>
    Since,

    /// <summary>Spares.</summary>
    Spares,

    /// <summary>Spoiled by frost roots lost tops spoiled for a time.</summary>
    SpoiledByFrostRootsLostTopsSpoiledForATime,

    /// <summary>Spread of the rule.</summary>
    SpreadOfTheRule,

    /// <summary>Spring of the site.</summary>
    SpringOfTheSite,

    /// <summary>Stands.</summary>
    Stands,

    /// <summary>Starter feed.</summary>
    StarterFeed,

    /// <summary>Surface.</summary>
    Surface,

    /// <summary>The fullest fortnight.</summary>
    TheFullestFortnight,

    /// <summary>Threshold.</summary>
    Threshold,

    /// <summary>Together.</summary>
    Together,

    /// <summary>Under it.</summary>
    UnderIt,

    /// <summary>Wall and floor.</summary>
    WallAndFloor,

    /// <summary>Wanted.</summary>
    Wanted,

    /// <summary>Water when soaked.</summary>
    WaterWhenSoaked,

    /// <summary>Way round.</summary>
    WayRound,

    /// <summary>Weakest months.</summary>
    WeakestMonths,

    /// <summary>Weather years.</summary>
    WeatherYears,

    /// <summary>Weeks of bulbs by the best of each week.</summary>
    WeeksOfBulbsByTheBestOfEachWeek,

    /// <summary>Weeks wanted.</summary>
    WeeksWanted,

    /// <summary>Weights.</summary>
    Weights,

    /// <summary>What comes out still shows.</summary>
    WhatComesOutStillShows,

    /// <summary>What stands for years.</summary>
    WhatStandsForYears,

    /// <summary>What stays.</summary>
    WhatStays,

    /// <summary>Where.</summary>
    Where,

    /// <summary>Whole years about them.</summary>
    WholeYearsAboutThem,

    /// <summary>Winters.</summary>
    Winters,

    /// <summary>With the day before lowest and highest.</summary>
    WithTheDayBeforeLowestAndHighest,

    /// <summary>Worth.</summary>
    Worth,

    /// <summary>Worth as planned.</summary>
    WorthAsPlanned,

    /// <summary>Worth with them.</summary>
    WorthWithThem,

    /// <summary>Year.</summary>
    Year,

    /// <summary>Years.</summary>
    Years,

    /// <summary>Years behind them.</summary>
    YearsBehindThem,

    /// <summary>Years left out.</summary>
    YearsLeftOut,

    /// <summary>Years of knowledge.</summary>
    YearsOfKnowledge,

    /// <summary>Years that show it.</summary>
    YearsThatShowIt,

    /// <summary>Years used.</summary>
    YearsUsed,

    /// <summary>The run.</summary>
    TheRun,

    /// <summary>Longitude.</summary>
    Longitude,

    /// <summary>Centres from the edge.</summary>
    CentresFromTheEdge,

    /// <summary>One.</summary>
    One,

    /// <summary>Other.</summary>
    Other,

    /// <summary>Room.</summary>
    Room,

    /// <summary>Litres that are given.</summary>
    LitresGiven,

    /// <summary>Parts of nitrogen in a million.</summary>
    NitrogenPpm,

    /// <summary>Nitrogen of the feed.</summary>
    NitrogenShare,

    /// <summary>Water between full and wilting.</summary>
    WaterHeld,

    /// <summary>Water that may lack before anything suffers.</summary>
    WaterEasy,

    /// <summary>Leaf that takes water.</summary>
    LeafArea,

    /// <summary>Years in which it was seen.</summary>
    YearsSeen,

    /// <summary>Plants that were planted where somebody looked.</summary>
    PlantedSeen,

    /// <summary>Plants that were lost.</summary>
    LostSeen,

    /// <summary>Kinds in a trial.</summary>
    KindsTried,

    /// <summary>Plots of a trial that were scored.</summary>
    PlotsScored,
}

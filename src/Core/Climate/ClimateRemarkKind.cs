namespace UnrulyMeadow.Core.Climate;

/// <summary>What the years of a record show as a whole.</summary>
public enum ClimateRemarkKind
{
    /// <summary>A trend of the yearly mean, upward.</summary>
    YearsGrowWarmer,

    /// <summary>A trend of the yearly mean, downward.</summary>
    YearsGrowColder,

    /// <summary>The last spring frost moves earlier.</summary>
    LastFrostEarlier,

    /// <summary>The last spring frost moves later.</summary>
    LastFrostLater,

    /// <summary>More hot days.</summary>
    HotDaysGrow,

    /// <summary>Fewer hot days.</summary>
    HotDaysFall,

    /// <summary>A jump as of a station moved.</summary>
    JumpOfTheMean,

    /// <summary>Warmest in the other hemisphere's summer.</summary>
    WrongHemisphere,

    /// <summary>No month without frost.</summary>
    FrostInEveryMonth,

    /// <summary>A frost date without spread.</summary>
    FrostDateNeverMoves,
}

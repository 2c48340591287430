namespace UnrulyMeadow.Core.Season;

/// <summary>What speaks against planting a kind on a day. The words stand in the Wording project.</summary>
public enum PlantingHinder
{
    /// <summary>The soil at bulb depth is too warm.</summary>
    SoilTooWarm,

    /// <summary>Bulbs find too few weeks to root before the ground freezes.</summary>
    TooFewWeeksForBulbs,

    /// <summary>What lasts finds too few weeks to root before the ground freezes.</summary>
    TooFewWeeksToRoot,

    /// <summary>Bedding finds too few weeks to take hold before the ground freezes.</summary>
    TooFewWeeksToTakeHold,
}

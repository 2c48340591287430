namespace UnrulyMeadow.Core.Sequencing;

/// <summary>What is said of an area's run of bulbs.</summary>
public enum SequencePhrase
{
    /// <summary>It has none.</summary>
    NoSpringBulbs,

    /// <summary>From when to when, and how many at once.</summary>
    BulbsFromTo,

    /// <summary>Days of its flowering within a span.</summary>
    DaysInFlower,

    /// <summary>Kinds counted planter by planter.</summary>
    KindsOverPlanters,

    /// <summary>One kind planted instead of another.</summary>
    Exchange,

    /// <summary>It does not flower in most years.</summary>
    NeverInMostYears,
}

namespace UnrulyMeadow.Core.Turning;

/// <summary>What forbids a day of a turn. The words stand in the Wording project.</summary>
public enum TurnHinder
{
    /// <summary>The delivery comes later.</summary>
    Delivery,

    /// <summary>A kind is not sold then.</summary>
    NotSold,

    /// <summary>The next display goes in before.</summary>
    NextDisplay,

    /// <summary>A display would come out before it goes in.</summary>
    OutBeforeIn,

    /// <summary>The planter is filled until later.</summary>
    FilledUntil,
}

/// <summary>What is advised of a turn's days. The words stand in the Wording project.</summary>
public enum TurnAdvice
{
    /// <summary>No day within reach is open.</summary>
    NoDayOpen,

    /// <summary>The planned day is the best.</summary>
    PlannedIsBest,

    /// <summary>The planned day is not open.</summary>
    PlannedIsNotOpen,

    /// <summary>Frost speaks for another day.</summary>
    FrostSpeaksForAnother,

    /// <summary>Another day brings more.</summary>
    AnotherIsBetter,
}

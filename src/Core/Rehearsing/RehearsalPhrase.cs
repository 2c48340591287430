namespace UnrulyMeadow.Core.Rehearsing;

/// <summary>What is rehearsed, with the figures of the year that is taken.</summary>
public enum RehearsalPhrase
{
    /// <summary>A hard winter again.</summary>
    HardWinter,

    /// <summary>The latest spring again.</summary>
    LateSpring,

    /// <summary>What is still to go in comes late.</summary>
    StockLate,

    /// <summary>Half the crew.</summary>
    HalfTheCrew,

    /// <summary>A hot fortnight.</summary>
    Heatwave,

    /// <summary>Set beside the odds of all years.</summary>
    AsPlanned,

    /// <summary>Set beside one typical year.</summary>
    InTheTypicalYear,
}

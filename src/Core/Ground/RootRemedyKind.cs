namespace UnrulyMeadow.Core.Ground;

/// <summary>What would keep roots warmer.</summary>
public enum RootRemedyKind
{
    /// <summary>A mulch.</summary>
    Mulch,

    /// <summary>A wider pot.</summary>
    WiderPot,

    /// <summary>A wall of wood.</summary>
    WoodenWall,

    /// <summary>Pots stand together.</summary>
    Grouped,

    /// <summary>The pot is wrapped.</summary>
    Wrapped,

    /// <summary>The pot is moved under a roof.</summary>
    UnheatedRoom,

    /// <summary>The pot is sunk in a bed.</summary>
    SunkInABed,
}

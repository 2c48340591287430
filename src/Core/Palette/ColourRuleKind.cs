namespace UnrulyMeadow.Core.Palette;

/// <summary>By what a plant's colour comes and goes.</summary>
public enum ColourRuleKind
{
    /// <summary>Warmth of the air since the shortest day.</summary>
    AirHeat,

    /// <summary>All the time.</summary>
    AllYear,

    /// <summary>While it is bare.</summary>
    BareStem,

    /// <summary>Cold, then warmth and light, of bulbs.</summary>
    BulbForcing,

    /// <summary>Chilling, then warmth.</summary>
    ChillingForcing,

    /// <summary>The year cools.</summary>
    Cooling,

    /// <summary>Cool nights.</summary>
    CoolNights,

    /// <summary>Days since planting.</summary>
    FromInstall,

    /// <summary>Fruit ripened by summer.</summary>
    FruitRipening,

    /// <summary>Warmth since planting.</summary>
    HeatFromInstall,

    /// <summary>While it is in leaf.</summary>
    InLeaf,

    /// <summary>Short days.</summary>
    ShortDays,

    /// <summary>Warmth of the past fortnight.</summary>
    WarmthFlowering,
}

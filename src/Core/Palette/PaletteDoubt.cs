namespace UnrulyMeadow.Core.Palette;

/// <summary>Figures of a plant that can hardly be meant.</summary>
public enum PaletteDoubt
{
    /// <summary>Botanical name form.</summary>
    BotanicalNameForm,

    /// <summary>Hardy for a tender.</summary>
    HardyForATender,

    /// <summary>Tender for a cool season.</summary>
    TenderForACoolSeason,

    /// <summary>Tops do not last.</summary>
    TopsDoNotLast,

    /// <summary>Roots as hardy as tops.</summary>
    RootsAsHardyAsTops,

    /// <summary>Wider as bought.</summary>
    WiderAsBought,

    /// <summary>No growth.</summary>
    NoGrowth,

    /// <summary>Too high for its width.</summary>
    TooHighForItsWidth,

    /// <summary>Trails upward.</summary>
    TrailsUpward,

    /// <summary>Never shows.</summary>
    NeverShows,

    /// <summary>Too many berries.</summary>
    TooManyBerries,

    /// <summary>Larger pack dearer.</summary>
    LargerPackDearer,

    /// <summary>No word of gloves.</summary>
    NoWordOfGloves,

    /// <summary>No caution of poison.</summary>
    NoCautionOfPoison,

    /// <summary>Bulb shape.</summary>
    BulbShape,

    /// <summary>Bulb depth.</summary>
    BulbDepth,

    /// <summary>Lower than its bulb.</summary>
    LowerThanItsBulb,

    /// <summary>Bulbs too close.</summary>
    BulbsTooClose,

    /// <summary>More cold than used.</summary>
    MoreColdThanUsed,

    /// <summary>Grade far from usual.</summary>
    GradeFarFromUsual,

    /// <summary>Names of another.</summary>
    NamesOfAnother,

    /// <summary>Opens out of order.</summary>
    OpensOutOfOrder,
}
